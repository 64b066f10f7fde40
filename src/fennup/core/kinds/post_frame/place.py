"""A frame of posts as boards, cut planes, joints, gauges and claims. It places; it computes no setting and no length."""

from collections.abc import Sequence
from dataclasses import replace
from itertools import combinations

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly, Finding, SubAssembly
from fennup.core.errors import CutError, SpecError
from fennup.core.kinds.inner import Added
from fennup.core.kinds.post_frame.gauges import gauges_of
from fennup.core.kinds.post_frame.joined import add_bracing, add_knee, add_slats, knee_id
from fennup.core.kinds.post_frame.posts import foot_joints, stand_up, with_heads
from fennup.core.kinds.post_frame.rails import add_rail, lying_over, run_of
from fennup.core.kinds.post_frame.spec import PostFrameSpec
from fennup.core.parts.solid import Solid, shared_mm3, solid_of
from fennup.core.tolerances import CRUMB_MM3

FIELDS = {"rail": "rails", "foot": "feet", "knee": "knees", "brace": "braces", "slat": "slats"}


def assemble(spec: PostFrameSpec) -> Assembly:
    """Everything. SpecError when no frame answers to the spec."""
    made = _built(spec, whole=True)
    _check_apart(made.boards)
    return replace(made, claims=spec.claims(), findings=(*_loose(made), Finding("frame_load", "standing")))


def shell(spec: PostFrameSpec) -> Assembly:
    """What sizes are taken on: everything but slats, cut by its planes alone; no solid is made."""
    return _built(spec, whole=False)


def _built(spec: PostFrameSpec, *, whole: bool) -> Assembly:
    spec = spec.with_sides()
    standing = stand_up(spec)
    runs = {number: run_of(standing, number, whole=whole) for number in spec.rails}
    posts, meeting = with_heads(standing, lying_over(spec, runs))
    if whole:
        _check_there(posts)
    added = Added(joints=[*foot_joints(standing), *meeting])
    for run in runs.values():
        add_rail(added, standing, posts, run, whole=whole)
    for number, knee in spec.knees.items():
        for corner in knee.corners:
            add_knee(added, standing, posts, runs, (number, knee, corner), whole=whole)
    for number, brace in spec.braces.items():
        add_bracing(added, standing, posts, (number, brace), whole=whole)
    for number, row in spec.slats.items() if whole else ():
        add_slats(added, runs, number, row)
    boards = (*posts.values(), *standing.pieces.values(), *added.boards)
    gauges = tuple(gauges_of(standing, posts, {board.id: board for board in boards}, runs))
    sides = _sides(spec, boards) if whole else ()
    return Assembly(boards, tuple(added.joints), (), (), (), (), gauges, subassemblies=sides)


def _sides(spec: PostFrameSpec, boards: Sequence[Board]) -> tuple[SubAssembly, ...]:
    """The boards of each side of two that are alike."""
    found: dict[str, list[str]] = {}
    for board in boards:
        side = spec.side_name(*_posts_of(spec, board.id)).removeprefix(", ")
        if side:
            found.setdefault(side, []).append(board.id)
    return tuple(SubAssembly(name, tuple(ids)) for name, ids in found.items())


def _posts_of(spec: PostFrameSpec, id: str) -> tuple[str, ...]:
    """The posts that a board goes to, or is."""
    what, _, rest = id.partition(" ")
    number = rest.partition(" ")[0].partition(".")[0]
    if what in ("rail", "brace"):
        one = (spec.rails if what == "rail" else spec.braces)[number]
        return (one.a, one.b)
    if what == "knee":
        corners = {knee_id(number, corner): corner for corner in spec.knees[number].corners}
        return (corners[id].post, *_posts_of(spec, f"rail {corners[id].rail}"))
    if what == "foot":
        return tuple(spec.feet[number].under)
    if what == "slat":
        return tuple(post for on in spec.slats[number].on for post in _posts_of(spec, f"rail {on}"))
    return (id,)


def _check_there(posts: dict[str, Board]) -> None:
    """SpecError `post_nothing` where nothing is left of a post between its foot and what lies over it."""
    for id, post in posts.items():
        try:
            solid_of(post)
        except CutError:
            raise SpecError("post_nothing", (f"posts.{id}.height_mm",), part=post.name) from None


def field_of(id: str) -> str:
    """The field of the spec in which a board is said."""
    what, _, rest = id.partition(" ")
    return f"{FIELDS[what]}.{rest.partition(' ')[0].partition('.')[0]}" if rest else f"posts.{id}.column"


def _check_apart(boards: tuple[Board, ...]) -> None:
    """SpecError `stands_in` where a board would stand in another one."""
    solids: dict[str, Solid] = {}
    for board in boards:
        try:
            solids[board.id] = solid_of(board)
        except CutError:
            raise SpecError("piece_outside", (field_of(board.id),), part=board.name) from None
    for a, b in combinations(boards, 2):
        if shared_mm3(solids[a.id], solids[b.id]) > CRUMB_MM3:
            raise SpecError("stands_in", (field_of(b.id),), part=b.name, other=a.name)


def _loose(made: Assembly) -> tuple[Finding, ...]:
    """Boards that nothing joins to the first post."""
    near: dict[str, set[str]] = {board.id: set() for board in made.boards}
    for joint in made.joints:
        near[joint.a.board].add(joint.b.board)
        near[joint.b.board].add(joint.a.board)
    held, waiting = set(), {made.boards[0].id}
    while waiting:
        held |= waiting
        waiting = {other for id in waiting for other in near[id]} - held
    loose = tuple(board.id for board in made.boards if board.id not in held)
    return (Finding("frame_loose", "warning", loose, ("rails",)),) if loose else ()
