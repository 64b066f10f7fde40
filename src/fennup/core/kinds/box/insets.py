"""What is let into a box or laid on it: a floor or slats, a back panel, level shelves, a cap ring, a liner."""

from math import hypot

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Mating, Outline, Stretch
from fennup.core.errors import SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, meeting_point, plane_through
from fennup.core.geometry.vec import Vec, add, dot, scale
from fennup.core.kinds.box.cladding import add_corner_strips
from fennup.core.kinds.box.courses import Course, on_wall
from fennup.core.kinds.box.fittings import add_blocks, add_insert
from fennup.core.kinds.box.grooves import let_in_panels, runs_of
from fennup.core.kinds.box.spec import BoxSpec, Cap, Floor, Shelf
from fennup.core.kinds.box.walls import Wall, run_at, signed_run
from fennup.core.kinds.covers import Cover, lay_cover
from fennup.core.kinds.inner import Added, Face, add_between, add_inner, lay_bars, panel
from fennup.core.kinds.rounds import add_round
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING

UP: Vec = (0.0, 0.0, 1.0)
X: Vec = (1.0, 0.0, 0.0)
Y: Vec = (0.0, 1.0, 0.0)


def insets_of(spec: BoxSpec, walls: tuple[Wall, ...], courses: dict[str, tuple[Course, ...]], top: float) -> Added:
    """Everything besides the walls; `top` is the level of their highest wood. SpecError names what cannot be."""
    made = Added()
    for name in ("cap", "cover", "cladding", "lid", "courses") if spec.rims == "alike" else ():
        if getattr(spec, name):
            raise SpecError("rims_not_level", (name,))
    if spec.floor:
        _lay_floor(spec, spec.floor, walls, courses, made)
    let_in_panels(spec, walls, made)
    for i, shelf in enumerate(spec.shelves):
        _shelve(spec, shelf, i, walls, courses, made)
    if spec.feet:
        under = [Face(plane_through(wall.foot, (wall.along[1], -wall.along[0], 0.0)), (wall.letter,), "face") for wall in walls]
        names = ("foot", "Foot", "feet.bars")
        lay_bars(made, spec.feet.bars, spec.feet.thickness_mm, -spec.feet.thickness_mm, under, names, touch=False)
    if spec.cladding:
        add_corner_strips(spec, spec.cladding, walls, courses, made)
    base = inside_bottom(spec)
    if spec.blocks:
        add_blocks(spec, spec.blocks, base, walls, courses, made)
    if spec.insert:
        add_insert(spec, spec.insert, base, walls, courses, made)
    if spec.inner:
        add_inner(made, spec.inner, base, spec.lowest_rim, faces_of(walls, courses))
    if spec.cap:
        _cap(spec.cap, spec.height_mm, top, walls, made)
    if spec.cover:
        _cover(spec, spec.cover, walls, courses, made)
    if spec.lid and spec.lid.depth_mm + spec.lid.kerf_mm >= spec.height_mm - base:
        most = spec.height_mm - base - spec.lid.kerf_mm
        raise SpecError("lid_too_deep", ("lid.depth_mm",), mm=spec.lid.depth_mm, limit_mm=most)
    _check_liner(spec)
    return made


def inside_bottom(spec: BoxSpec) -> float:
    """The level that things in the box stand on."""
    if spec.floor:
        return spec.floor.height_mm + spec.floor.thickness_mm
    return spec.back.from_edge_mm + spec.back.thickness_mm if spec.back else 0.0


def _inside(walls: tuple[Wall, ...], space: float, deeper: float = 0.0) -> list[Plane]:
    """The walls' inner faces, drawn in by `space` measured level, or let into the wood by `deeper`."""
    return [wall.inner.moved((deeper - space) * hypot(wall.out[0], wall.out[1])) for wall in walls]


def faces_of(walls: tuple[Wall, ...], courses: dict[str, tuple[Course, ...]], space: float = 0.0) -> list[Face]:
    """The insides of the walls as faces to end on, drawn in by `space`."""
    return [
        Face(plane, tuple(course.id for course in courses[wall.letter]), "back")
        for wall, plane in zip(walls, _inside(walls, space), strict=True)
    ]


def _lay_floor(spec: BoxSpec, floor: Floor, walls: tuple[Wall, ...], courses: dict[str, tuple[Course, ...]], made: Added) -> None:
    top = floor.height_mm + floor.thickness_mm
    if top > spec.lowest_rim:
        most = spec.lowest_rim - floor.thickness_mm
        raise SpecError("floor_above_rim", ("floor.height_mm",), mm=floor.height_mm, limit_mm=most)
    inside = _inside(walls, floor.play_mm / 2)
    _check_room(walls, floor.play_mm / 2, (floor.height_mm, top), "floor.play_mm")
    if floor.slats is None:
        made.boards.append(panel("floor", "Floor", floor.height_mm, floor.thickness_mm, inside))
        return
    faces = faces_of(walls, courses, floor.play_mm / 2)
    names = ("slat", "Slat", "floor.slats")
    lay_bars(made, floor.slats, floor.thickness_mm, floor.height_mm, faces, names, touch=floor.play_mm == 0)


def _shelve(
    spec: BoxSpec, shelf: Shelf, i: int, walls: tuple[Wall, ...], courses: dict[str, tuple[Course, ...]], made: Added
) -> None:
    """A shelf across the plan, level when the case hangs on its back: its face up, its upper edge to the front."""
    if not spec.upright:
        raise SpecError("shelf_needs_upright", (f"shelves.{i}",))
    along = walls[spec.letters.index(shelf.side)].along
    inwards: Vec = (-along[1], along[0], 0.0)
    corners = [run_at(walls, k, 0.0, "inner")[0] for k in range(len(walls))]
    (left, right), (low, high) = ((min(at), max(at)) for at in ([dot(p, way) for p in corners] for way in (along, inwards)))
    deep = low + shelf.height_mm
    if deep + shelf.thickness_mm > high + NOTHING:
        most = high - low - shelf.thickness_mm
        raise SpecError("shelf_outside", (f"shelves.{i}.height_mm",), mm=shelf.height_mm, limit_mm=most)
    bottom = inside_bottom(spec)
    front = spec.height_mm - (spec.lid.depth_mm + spec.lid.kerf_mm if spec.lid else 0.0)
    front = min([front, *(run.low for run in runs_of(spec) if run.field == "front")])
    level = (0.0, 0.0, (bottom + front) / 2)
    middle = add(level, add(scale(along, (left + right) / 2), scale(inwards, deep + shelf.thickness_mm / 2)))
    frame = Frame(middle, scale(along, -1.0), UP, inwards)
    reach = (right - left) / 2 + 1.0
    board = Board(f"shelf{i + 1}", f"Shelf {i + 1}", Section(front - bottom, shelf.thickness_mm), frame, reach=(-reach, reach))
    # Only walls that the shelf meets end to end: one that runs along it lies against its face.
    add_between(made, board, faces_of(walls, courses), f"shelves.{i}.height_mm")


def _cap(cap: Cap, height: float, top: float, walls: tuple[Wall, ...], made: Added) -> None:
    """Rails lying flat on the walls, from `over_in_mm` inside their inner top line to `over_out_mm` outside."""
    lines = []
    for i, wall in enumerate(walls):
        out: Vec = (wall.along[1], -wall.along[0], 0.0)
        outer = plane_through(run_at(walls, i, height, "outer")[0], out).moved(cap.over_out_mm)
        inner = plane_through(run_at(walls, i, height, "inner")[0], out).moved(-cap.over_in_mm)
        if outer.offset - inner.offset <= 0:
            raise SpecError("cap_no_width", ("cap.over_in_mm",), side=wall.letter)
        lines.append((outer, inner))
    level = Plane(UP, top)
    count = len(walls)
    pieces = []
    for i, wall in enumerate(walls):
        outer, inner = lines[i]
        start, end = (meeting_point(lines[i - 1][1], inner, level), meeting_point(inner, lines[(i + 1) % count][1], level))
        if dot((end[0] - start[0], end[1] - start[1], 0.0), wall.along) <= NOTHING:
            raise SpecError("cap_no_opening", ("cap.over_in_mm",), side=wall.letter, mm=cap.over_in_mm)
        width = outer.offset - inner.offset
        out = outer.normal
        at = tuple((a + b) / 2 + out[k] * width / 2 for k, (a, b) in enumerate(zip(start, end, strict=True)))
        origin: Vec = (at[0], at[1], top + cap.thickness_mm / 2)
        frame = Frame(origin, wall.along, (-out[0], -out[1], 0.0), UP)
        board = Board(f"cap {wall.letter}", f"Cap {wall.letter}", Section(width, cap.thickness_mm), frame, role="cap", shows=True)
        pieces.append((board, outer, inner))
    letters = [wall.letter for wall in walls]
    boards = add_round(made, pieces, [f"cap {a}{letters[(i + 1) % count]}" for i, a in enumerate(letters)])
    for name, side in (("cap_outside", "lower"), ("cap_opening", "upper")):
        stretches = tuple(Stretch(letter, board.id, side) for letter, board in zip(letters, boards, strict=True))  # type: ignore[arg-type]
        made.outlines.append(Outline(name, stretches, "face", True))


def _cover(spec: BoxSpec, cover: Cover, walls: tuple[Wall, ...], courses: dict[str, tuple[Course, ...]], made: Added) -> None:
    """A lid on the rim, or on the cap. SpecError `cover_askew` where the rims do not lie in one level plane."""
    if spec.edges != "level" and not spec.upright:
        raise SpecError("cover_askew", ("cover",))
    out_mm, up_mm = (spec.cap.over_out_mm, spec.cap.thickness_mm) if spec.cap else (0.0, 0.0)
    rims, on = {}, {}
    for i, wall in enumerate(walls):
        out: Vec = (wall.along[1], -wall.along[0], 0.0)
        rims[wall.letter] = plane_through(run_at(walls, i, spec.height_mm, "outer")[0], out).moved(out_mm)
        highest = tuple(course for course in courses[wall.letter] if course.highest)
        on[wall.letter] = Mating(f"cap {wall.letter}", "face") if spec.cap else on_wall(highest, "upper")
    lay_cover(made, cover, Frame((0.0, 0.0, spec.height_mm + up_mm), X, Y, UP), rims, on)


def _check_room(walls: tuple[Wall, ...], space: float, levels: tuple[float, float], at: str) -> None:
    """What is let in must leave something of every side."""
    for height in levels:
        for i, wall in enumerate(walls):
            if signed_run(walls, i, height, "inner") <= 2 * space:
                raise SpecError("play_too_great", (at,), mm=2 * space, side=wall.letter)


def _check_liner(spec: BoxSpec) -> None:
    """A liner needs walls under its lip, or a floor under its foot, and must not reach deeper than that."""
    liner = spec.liner
    if liner is None:
        return
    if liner.lip_mm == 0 and not (spec.floor or spec.back):
        raise SpecError("liner_on_nothing", ("liner.lip_mm",))
    if 0 < liner.lip_mm <= liner.play_mm / 2:
        raise SpecError("liner_falls_through", ("liner.lip_mm",), mm=liner.lip_mm, limit_mm=liner.play_mm / 2)
    room = spec.height_mm - inside_bottom(spec)
    if liner.height_mm > room + NOTHING:
        raise SpecError("liner_too_tall", ("liner.height_mm",), mm=liner.height_mm, limit_mm=room)
