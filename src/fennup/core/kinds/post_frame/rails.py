"""Rails between posts, laid on their faces, or lying over them as beams."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import cos, radians, sin

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Joint, JointKind, Mating
from fennup.core.errors import SpecError
from fennup.core.geometry.plane import Plane, meeting_point
from fennup.core.geometry.vec import Vec, add, cross, dot, scale, sub, unit
from fennup.core.kinds.inner import Added, Face, add_between
from fennup.core.kinds.post_frame.posts import LOOKS, Standing, check_on, laid, on_line, with_ends
from fennup.core.kinds.post_frame.spec import PostFrameSpec
from fennup.core.kinds.post_frame.things import Between, Lapped, Over, Rail
from fennup.core.kinds.sticks import UP, facing
from fennup.core.parts.solid import solid_of
from fennup.core.tolerances import NOTHING, SAME


@dataclass(frozen=True)
class Run:
    """How a rail lies: `level` from its first post to its last, `upright` square to that in its own plane, along itself and up across
    itself, the way that its posts' sides look to on which it is laid (else square to it), and a place on its lower edge, in the middle of
    its thickness."""

    number: str
    rail: Rail
    level: Vec
    upright: Vec
    along: Vec
    up: Vec
    look: Vec
    line: Vec
    board: Board

    @property
    def inner(self) -> tuple[Vec, Vec]:
        """The ways in which the sides of its first and its last post look to each other."""
        return self.level, scale(self.level, -1.0)


def run_of(standing: Standing, number: str, *, whole: bool) -> Run:
    """A rail, its ends not yet cut where it goes between its posts; not `whole`: unchecked. SpecError `faces_apart`, `notch_through_rail`,
    `posts_unlike_deep`."""
    rail = standing.spec.rails[number]
    field = f"rails.{number}"
    start = standing.feet[rail.a][2] + rail.height_mm
    off = sub(standing.axis_at(rail.b, start), standing.axis_at(rail.a, start))
    level = unit((off[0], off[1], 0.0))
    joint = rail.joint
    if isinstance(joint, Lapped):
        side = _common_side(standing, rail, LOOKS[joint.side], field if whole else "")
        look, level = side.normal, unit(sub(level, scale(side.normal, dot(level, side.normal))))
        into = joint.let_in_mm + joint.notch_mm
        if into >= rail.thickness_mm and joint.notch_mm > NOTHING:
            raise SpecError("notch_through_rail", (f"{field}.joint.notch_mm",), mm=joint.notch_mm, limit_mm=rail.thickness_mm)
        middle = side.moved(rail.thickness_mm / 2 - into)
    else:
        look = cross(level, UP)
        middle = Plane(look, _depth(standing, rail, look, start, field))
    rise = radians(rail.rise_deg)
    upright = cross(look, level) if dot(cross(look, level), UP) > 0 else cross(level, look)
    along = add(scale(level, cos(rise)), scale(upright, sin(rise)))
    up = sub(scale(upright, cos(rise)), scale(level, sin(rise)))
    line = meeting_point(middle, standing.side(rail.a, level), Plane(UP, start))
    at = add(line, scale(up, rail.width_mm / 2))
    board = laid(
        f"rail {number}", f"Rail {number}{standing.spec.side_name(rail.a, rail.b)}", at, (along, up), (rail.width_mm, rail.thickness_mm),
        "beam" if isinstance(joint, Over) else "rail", on_edge=isinstance(joint, Lapped),
    )  # fmt: skip
    if not isinstance(joint, Between):
        outer = (standing.side(rail.a, scale(level, -1.0)), standing.side(rail.b, level))
        board = with_ends(board, joint, outer, (along, up), line)
    return Run(number, rail, level, upright, along, up, look, line, board)


def _common_side(standing: Standing, rail: Rail, look: Vec, field: str) -> Plane:
    """The plane on which a rail is laid: the same side of all its posts. SpecError `faces_apart` says by how much it is not, where a field
    is named for it."""
    side = standing.side(rail.a, look)
    for id in () if not field else standing.spec.along(rail.a, rail.b):
        other = standing.side(id, look)
        apart = max(
            abs(side.beyond(standing.axis_at(id, z)) - other.beyond(standing.axis_at(id, z))) for z in (0.0, rail.width_mm)
        )
        if apart > SAME or dot(side.normal, other.normal) < 1 - NOTHING:
            raise SpecError("faces_apart", (f"{field}.joint.side",), part=rail.a, other=id, mm=apart)
    return side


def _depth(standing: Standing, rail: Rail, look: Vec, start: float, field: str) -> float:
    """How far towards the reader the middle of a rail's thickness lies. SpecError `posts_unlike_deep` where its posts have nothing of
    their depth in common."""
    ranges = [standing.reach_along(id, look, start) for id in (rail.a, rail.b)]
    low, high = max(r[0] for r in ranges), min(r[1] for r in ranges)
    if high - low < NOTHING:
        raise SpecError("posts_unlike_deep", (f"{field}.b",), part=rail.a, other=rail.b)
    if isinstance(rail.joint, Over):
        return (low + high) / 2 + rail.joint.aside_mm
    assert isinstance(rail.joint, Between)
    inset = rail.joint.set_in_mm
    return (low + high) / 2 if inset is None else ranges[0][1] - inset - rail.thickness_mm / 2


def lying_over(spec: PostFrameSpec, runs: Mapping[str, Run]) -> dict[str, Plane]:
    """The plane to which a post's head is cut, outwards of the post: along the lower side of the beam over it, or the upper edge of
    the rail with which it is flush. SpecError `flush_under`."""
    found = {}
    for id, post in spec.posts.items():
        number = post.flush_with
        if number is not None and id in spec.topped():
            raise SpecError("flush_under", (f"posts.{id}.flush_with",), part=id)
        if number is not None:
            board = runs[number].board
            found[id] = board.side_in_world(facing(board, runs[number].up))
    for id, number in spec.topped().items():
        board = runs[number].board
        found[id] = board.side_in_world(facing(board, scale(runs[number].up, -1.0))).flipped()
    return found


def cut_to(board: Board, faces: Sequence[Face]) -> Board:
    """A board with its ends cut to the two faces that it runs between, its left one first."""
    return board.with_cut("left", faces[0].plane).with_cut("right", faces[1].plane)


def add_rail(added: Added, standing: Standing, posts: dict[str, Board], run: Run, *, whole: bool) -> None:
    """A rail with its joints; posts that it is let into are notched where they stand. Not `whole`: its ends alone, unchecked.

    SpecError `rail_misses`, `runs_off`, `beams_cross`."""
    rail, board, joint = run.rail, run.board, run.rail.joint
    if isinstance(joint, Between):
        faces = []
        for id, way in zip((rail.a, rail.b), run.inner, strict=True):
            floor, side = standing.side(id, way).moved(-joint.housed_mm), str(facing(standing.posts[id], way))
            if joint.housed_mm > NOTHING and whole:
                side = _let_into(standing, posts, id, run, floor)
            faces.append(Face(floor.flipped(), (id,), side))
        if not whole:
            added.boards.append(cut_to(board, faces))
            return
        made = add_between(added, board, faces, f"rails.{run.number}")
        check_on(made, {"left": posts[rail.a], "right": posts[rail.b]}, f"rails.{run.number}.height_mm")
        return
    if not whole:
        added.boards.append(board)
        return
    ids = standing.spec.along(rail.a, rail.b)
    if isinstance(joint, Over):
        added.boards.append(board)
        under = facing(board, scale(run.up, -1.0))
        for id in ids:
            if standing.spec.topped()[id] != run.number:
                raise SpecError("beams_cross", (f"rails.{run.number}.joint",), part=id)
            wide = standing.reach_along(id, run.look, run.line[2])
            aside = [abs(dot(run.line, run.look) - w) for w in wide]
            kind: JointKind = "butt" if max(aside) <= rail.thickness_mm / 2 + NOTHING else "face"
            added.joints.append(Joint(f"{id} {board.id}", kind, Mating(id, "right:0"), Mating(board.id, under), ((id, "right"),)))
        return
    _lap(added, standing, posts, run, joint, ids)


def _lap(added: Added, standing: Standing, posts: dict[str, Board], run: Run, joint: Lapped, ids: tuple[str, ...]) -> None:
    """A rail on its posts' faces: laid on, let in, notched over, or half lapped."""
    board, on = run.board, facing(run.board, scale(run.look, -1.0))
    for id in ids:
        if not _reaches(posts[id], run):
            if id in (run.rail.a, run.rail.b):
                raise SpecError("rail_misses", (f"rails.{run.number}.height_mm",), part=board.name, other=posts[id].name)
            continue
        side = standing.side(id, run.look)
        floor = side.moved(-joint.let_in_mm)
        theirs: Mating = Mating(id, facing(posts[id], run.look))
        ours = Mating(board.id, on)
        let_in, notched = joint.let_in_mm > NOTHING, joint.notch_mm > NOTHING
        if let_in:
            theirs = Mating(id, _let_into(standing, posts, id, run, floor))
        if notched:
            ours = Mating(board.id, f"notch:{len(board.notches)}")
            board = board.with_notch((standing.side(id, run.level), standing.side(id, scale(run.level, -1.0)), floor))
        kind: JointKind = "face"
        a, b = ours, theirs
        if let_in and notched:
            kind = "lap"
        elif let_in:
            kind, a, b = "butt", theirs, ours
        elif notched:
            kind = "butt"
        added.joints.append(Joint(f"{id} {board.id}", kind, a, b, ()))
    added.boards.append(board)


def _let_into(standing: Standing, posts: dict[str, Board], id: str, run: Run, floor: Plane) -> str:
    """A post with a housing across its side for a rail, from edge to edge of that, down to a floor; the floor's name. SpecError
    `let_in_through`."""
    field, mm = run.rail.let_in
    deep = standing.posts[id].section.thickness_mm
    if mm >= deep:
        raise SpecError("let_in_through", (f"rails.{run.number}.joint.{field}",), mm=mm, limit_mm=deep, part=id)
    edges = tuple(run.board.side_in_world(facing(run.board, scale(run.up, sense))) for sense in (1.0, -1.0))
    name = f"notch:{len(posts[id].notches)}"
    posts[id] = posts[id].with_notch((*edges, floor.flipped()))
    return name


def _reaches(post: Board, run: Run) -> bool:
    """Whether a rail crosses a post between its foot and its head."""
    levels = [p[2] for piece in solid_of(post).world for p in piece.points]
    at = on_line(run.line, run.along, post.side_in_world(facing(post, scale(run.level, -1.0))))
    return min(levels) + SAME < at[2] + run.rail.width_mm and at[2] < max(levels) - SAME
