"""What goes between posts and rails: knee braces, braces from post to post, slats across rails."""

from collections.abc import Mapping

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Joint, Mating
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.plane import Plane, meeting_point
from fennup.core.geometry.vec import Vec, add, cross, dot, scale, sub, unit
from fennup.core.kinds.inner import Added, Face, add_between, add_half_laps
from fennup.core.kinds.post_frame.posts import Standing, check_on, laid
from fennup.core.kinds.post_frame.rails import Run, cut_to
from fennup.core.kinds.post_frame.things import Bracing, Corner, Knee, Line, Rail, Slats
from fennup.core.kinds.spacing import places
from fennup.core.kinds.sticks import UP, Sheet, facing, stick
from fennup.core.parts.solid import ARRISES, arris_length, solid_of
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING, SAME

EDGE: dict[Line, int] = {"lower": -1, "middle": 0, "upper": 1}


def is_ahead(rail: Rail, corner: Corner) -> bool:
    """Whether a corner lies on that side of its post to which the rail runs."""
    return corner.post != rail.b if corner.ahead is None else corner.ahead


def knee_id(number: str, corner: Corner) -> str:
    """A knee brace's key: its set's number and its corner."""
    side = "" if corner.ahead is None else " ahead" if corner.ahead else " back"
    return f"knee {number} {corner.post}{corner.rail}{side}"


def add_knee(
    added: Added,
    standing: Standing,
    posts: Mapping[str, Board],
    runs: Mapping[str, Run],
    which: tuple[str, Knee, Corner],
    *,
    whole: bool,
) -> None:
    """A knee brace in a corner below a rail; not `whole`: its ends alone, unchecked. SpecError `knee_misses`, `brace_too_wide`,
    `runs_off`."""
    number, knee, corner = which
    field, run, post = f"knees.{number}", runs[corner.rail], standing.posts[corner.post]
    sense = 1.0 if is_ahead(run.rail, corner) else -1.0
    level = scale(run.level, sense)
    side, lower = standing.side(corner.post, level), run.board.side_in_world(facing(run.board, scale(run.up, -1.0)))
    at, half = dot(run.line, run.look), run.rail.thickness_mm / 2
    theirs = standing.reach_along(corner.post, run.look, run.line[2])
    low, high = max(at - half, theirs[0]), min(at + half, theirs[1])
    if high - low < NOTHING:
        raise SpecError("knee_misses", (f"{field}.corners",), part=post.name, other=run.board.name)
    inside = meeting_point(side, lower, Plane(run.look, (low + high) / 2))
    sheet = Sheet(inside, level, UP)
    on_post = sheet.flat(sub(inside, scale(post.frame.x, knee.post_mm)))
    on_rail = sheet.flat(add(inside, scale(run.along, sense * knee.rail_mm)))
    name = f"Knee {corner.post}{corner.rail}"
    faces = [
        Face(side.flipped(), (corner.post,), facing(post, level)),
        Face(lower.flipped(), (run.board.id,), facing(run.board, scale(run.up, -1.0))),
    ]
    section = Section(knee.width_mm, knee.thickness_mm)
    named = (knee_id(number, corner), name, "brace")
    if not whole:
        added.boards.append(cut_to(stick(sheet, (on_post, on_rail), (-1, -1), section, named), faces))
        return
    made = _braced(added, sheet, (on_post, on_rail), (-1, -1), section, named, faces, field)
    check_on(made, {"left": posts[corner.post], "right": added.board(run.board.id)}, f"{field}.post_mm")


def _braced(
    added: Added,
    sheet: Sheet,
    ends: tuple[tuple[float, float], tuple[float, float]],
    edges: tuple[int, int],
    section: Section,
    named: tuple[str, str, str],
    faces: list[Face],
    field: str,
) -> Board:
    """A brace cut to two faces. SpecError `brace_too_wide` where an edge comes to nothing."""
    try:
        raw = stick(sheet, ends, edges, section, named)
        made = add_between(added, raw, faces, field)
        lengths = [arris_length(made, arris) for arris in ARRISES]
    except CutError:
        raise SpecError("piece_outside", (field,), part=named[1]) from None
    except SpecError as error:
        raise SpecError(error.code, (f"{field}.width_mm",), **error.data) from None
    if min(lengths) <= NOTHING or not (made.left and made.right):
        raise SpecError("brace_too_wide", (f"{field}.width_mm",), mm=section.width_mm, limit_mm=max(lengths))
    return made


def add_bracing(added: Added, standing: Standing, posts: Mapping[str, Board], which: tuple[str, Bracing], *, whole: bool) -> None:
    """A brace from post to post, or two that cross; not `whole`: their ends alone, unchecked. SpecError `brace_too_wide`,
    `posts_unlike_deep`, `bracing_level`, `bracing_misses`, `runs_off`."""
    number, brace = which
    field = f"braces.{number}"
    feet = [standing.feet[id][2] for id in (brace.a, brace.b)]
    start = feet[0] + brace.low_mm
    off = sub(standing.axis_at(brace.b, start), standing.axis_at(brace.a, start))
    level = unit((off[0], off[1], 0.0))
    look = cross(level, UP)
    ranges = [standing.reach_along(id, look, start) for id in (brace.a, brace.b)]
    low, high = max(r[0] for r in ranges), min(r[1] for r in ranges)
    if high - low < NOTHING:
        raise SpecError("posts_unlike_deep", (f"{field}.b",), part=brace.a, other=brace.b)
    middle = Plane(look, (low + high) / 2)
    sides = (standing.side(brace.a, level), standing.side(brace.b, scale(level, -1.0)))
    sheet = Sheet(meeting_point(sides[0], middle, Plane(UP, feet[0])), level, UP)
    faces = [
        Face(side.flipped(), (id,), facing(standing.posts[id], way))
        for id, side, way in zip((brace.a, brace.b), sides, (level, scale(level, -1.0)), strict=True)
    ]
    rises = [(brace.low_mm, brace.high_mm)]
    if brace.crossing:
        if abs(brace.high_mm - brace.low_mm + (feet[1] - feet[0])) < SAME:
            raise SpecError("bracing_level", (f"{field}.high_mm",))
        rises.append((brace.high_mm, brace.low_mm))
    made = []
    for k, at in enumerate(rises):
        ends = [
            sheet.flat(meeting_point(side, middle, Plane(UP, foot + z))) for side, foot, z in zip(sides, feet, at, strict=True)
        ]
        named = (
            f"brace {number}{' over' if k else ''}",
            f"Brace {number}{', the other way' if k else ''}{standing.spec.side_name(brace.a, brace.b)}",
            "brace",
        )
        edge = EDGE[brace.line]
        section = Section(brace.width_mm, brace.thickness_mm)
        if not whole:
            added.boards.append(cut_to(stick(sheet, (ends[0], ends[1]), (edge, edge), section, named), faces))
            continue
        made.append(_braced(added, sheet, (ends[0], ends[1]), (edge, edge), section, named, faces, field))
        check_on(made[-1], {"left": posts[brace.a], "right": posts[brace.b]}, f"{field}.high_mm")
    if brace.crossing and whole:
        add_half_laps(added, made[:1], made[1:])
        if not added.board(made[0].id).notches:
            raise SpecError("bracing_misses", (f"{field}.high_mm",), part=brace.a, other=brace.b)


def add_slats(added: Added, runs: Mapping[str, Run], number: str, slats: Slats) -> None:
    """Slats across two rails whose upper edges lie in one plane. SpecError `rails_not_level`, `bars_too_many`."""
    first, second = (runs[n] for n in slats.on)
    field = f"slats.{number}"
    rail, other = (added.board(run.board.id) for run in (first, second))
    tops = [board.side_in_world(facing(board, run.up)) for board, run in ((rail, first), (other, second))]
    apart = max(abs(tops[0].beyond(p)) for p in _corners(other, facing(other, second.up)))
    if apart > SAME or abs(dot(first.along, second.along)) < 1 - NOTHING:
        raise SpecError("rails_not_level", (f"{field}.on.1",), number=slats.on[0], other=slats.on[1], mm=apart)
    up, along = first.up, first.along
    across = cross(up, along)
    if dot(sub(second.line, first.line), across) < 0:
        across = scale(across, -1.0)
    ends = [dot(p, along) for p in _corners(rail, facing(rail, up))]
    start = dot(first.line, across) - first.rail.thickness_mm / 2 - slats.over_mm
    stop = dot(second.line, across) + second.rail.thickness_mm / 2 + slats.over_mm
    for i, middle in enumerate(places(slats.row(slats.width_mm), max(ends) - min(ends), field)):
        at = _at(up, tops[0].offset + slats.thickness_mm / 2, along, min(ends) + middle, across, (start + stop) / 2)
        board = laid(
            f"slat {number}.{i + 1}", f"Slat {number}.{i + 1}", at, (across, up), (slats.thickness_mm, slats.width_mm), "slat"
        )
        board = board.with_cut("left", Plane(scale(across, -1.0), -start)).with_cut("right", Plane(across, stop))
        added.boards.append(board)
        down = facing(board, scale(up, -1.0))
        for on in (rail, other):
            mating = Mating(on.id, facing(on, up))
            added.joints.append(Joint(f"{board.id} {on.id}", "face", Mating(board.id, down), mating, ()))


def _corners(board: Board, side: str) -> list[Vec]:
    return [p for patch in solid_of(board).patches(side) for p in patch.points]


def _at(a: Vec, x: float, b: Vec, y: float, c: Vec, z: float) -> Vec:
    """The place with these offsets along three directions square to each other."""
    return add(scale(a, x), add(scale(b, y), scale(c, z)))
