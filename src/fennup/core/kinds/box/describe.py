"""What a box shows of itself: from above, from the front, from the side, cut through a wall and through a corner."""

from dataclasses import replace

from fennup.core.assembly.model import Assembly
from fennup.core.drawing.board_views import joints_on_top, joints_sliced, pictorial, seen_from, sliced
from fennup.core.drawing.edit import Give, TypeIn
from fennup.core.drawing.view import Description, Dimension, Mark, Shape, SizeRow, View
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Point2, Vec, dot
from fennup.core.kinds.blanks import blank_view
from fennup.core.kinds.box.controls import controls_of
from fennup.core.kinds.box.dimensions import from_above, from_the_front, from_the_side, standings
from fennup.core.kinds.box.sizes import SIZING
from fennup.core.kinds.box.spec import BoxSpec, Irregular, Rectangle
from fennup.core.kinds.box.walls import run_at, walls_of
from fennup.core.kinds.gauged import MANY_CORNERS, corners_across
from fennup.core.parts.gauge import is_angle
from fennup.core.parts.measure import Ruler
from fennup.core.parts.measures import measure_of
from fennup.core.parts.solid import Solid

X: Vec = (1.0, 0.0, 0.0)
Y: Vec = (0.0, 1.0, 0.0)
Z: Vec = (0.0, 0.0, 1.0)
LEFT, RIGHT = (-1.0, 0.0), (1.0, 0.0)
ROUND_A_CORNER = 4.0


def describe(spec: BoxSpec, ruler: Ruler, solids: dict[str, Solid]) -> Description:
    """Views, controls and sizes of a solved box."""
    assembly = ruler.assembly
    views: tuple[View, ...] = (
        _above(spec, ruler, solids),
        View("front", (*seen_from(assembly, solids, X, Z), *_sawn(spec, ruler, "x")), (), *from_the_front(spec, ruler)),
        View("side", (*seen_from(assembly, solids, Y, Z), *_sawn(spec, ruler, "y")), (), *from_the_side(spec, ruler)),
        _through_wall(spec, assembly, solids),
        _through_corner(spec, assembly, solids),
    )
    views += tuple(blank_view(blank) for blank in assembly.blanks)
    return Description(_facts(spec), pictorial(assembly, solids), views, lambda: controls_of(spec), sizes_of(spec, ruler))


def _facts(spec: BoxSpec) -> tuple[str, ...]:
    """What the line under the title says."""
    joints = {(spec.corners[n].joint if n in spec.corners else spec.joint) for n in spec.corner_names}
    joint = "mixed_joints" if len(joints) == 2 else ("mitered" if "miter" in joints else "butted")
    what = "case" if spec.upright else "box"
    free = SIZING.free(spec)
    left = (f"free:{free}",) if free or isinstance(spec.plan, Irregular) else ()
    return (f"{what}_{spec.plan.form}", f"sides:{spec.sides}", joint, *left)


def _above(spec: BoxSpec, ruler: Ruler, solids: dict[str, Solid]) -> View:
    marks = []
    runs = ruler.runs("outer_top") or {}
    inner = ruler.runs("inner_top") or {}
    for letter, (a, b) in runs.items():
        c, d = inner[letter]
        at = ((a[0] + b[0] + c[0] + d[0]) / 4, (a[1] + b[1] + c[1] + d[1]) / 4)
        board = (ruler.assembly.outline("outer_top") or ruler.assembly.outlines[0]).stretches
        marks.append(Mark("letter", at, letter, next(s.board for s in board if s.key == letter)))
    dimensions, grips, more = from_above(spec, ruler)
    return View(
        "above",
        (*seen_from(ruler.assembly, solids, X, Y), *joints_on_top(ruler.assembly, solids, X, Y), *more),
        tuple(marks),
        dimensions,
        grips,
    )


def _sawn(spec: BoxSpec, ruler: Ruler, axis: str) -> list[Shape]:
    """Where the lid is sawn off."""
    if spec.lid is None:
        return []
    points = [p for run in (*(ruler.runs("outer_top") or {}).values(), *(ruler.runs("outer_bottom") or {}).values()) for p in run]
    across = [p[0] if axis == "x" else p[1] for p in points]
    top = spec.height_mm - spec.lid.depth_mm
    return [Shape("cut", ((min(across), z), (max(across), z))) for z in (top, top - spec.lid.kerf_mm)]


def _through_wall(spec: BoxSpec, assembly: Assembly, solids: dict[str, Solid]) -> View:
    """Wall A cut square across, outside at the left, with the ends of what is let into it."""
    wall = walls_of(spec)[0]
    along = [p[0] for piece in solids[assembly.boards[0].id].world for p in piece.points]
    here = Plane(X, (min(along) + max(along)) / 2)
    own = {b.id for b in assembly.boards if b.id[:1] == "A" or b.id == "cap A"}
    across = sliced({id: solids[id] for id in own}, here, Y, Z)
    deepest = max(p[0] for shape in across for p in shape.points)
    beyond = deepest + max(2.5 * wall.thickness, spec.height_mm / 6)
    inside = {id: solid for id, solid in solids.items() if id in ("floor", "back", "front") or id.startswith("slat")}
    let_in = sliced(inside, here, Y, Z, (Plane(Y, beyond),))
    board = assembly.boards[0]
    half = board.section.thickness_mm / 2
    path = "thicknesses_mm.A" if "A" in spec.thicknesses_mm else "thickness_mm"
    dimensions = [
        _given("thickness", _yz(board.frame.to_world((0.0, 0.0, half))), _yz(board.frame.to_world((0.0, 0.0, -half))),
               wall.thickness, path),
    ]  # fmt: skip
    if spec.floor:
        dimensions.append(
            _given("floor_height", (beyond, 0.0), (beyond, spec.floor.height_mm), spec.floor.height_mm, "floor.height_mm", 1.0)
        )
    if spec.lid:
        top = spec.height_mm
        lid = spec.lid.depth_mm
        outside = min(p[0] for shape in across for p in shape.points)
        dimensions.append(_given("lid_depth", (outside, top - lid), (outside, top), lid, "lid.depth_mm", 1.0, LEFT))
    return View("section", (*across, *let_in), (), tuple(dimensions))


def _given(name: str, a: Point2, b: Point2, value: float, path: str, lane: float = 0.0, away: Point2 = RIGHT) -> Dimension:
    return Dimension(name, name, a, b, value, "mm", "given", away, lane, acts=TypeIn(op="type", path=path, text=""))


def _yz(point: Vec) -> Point2:
    return (point[1], point[2])


def _through_corner(spec: BoxSpec, assembly: Assembly, solids: dict[str, Solid]) -> View:
    """The corner AB cut level at half the height, seen from above."""
    walls = walls_of(spec)
    at = run_at(walls, 0, spec.height_mm / 2, "outer")[1]
    reach = ROUND_A_CORNER * max(walls[0].thickness, walls[1].thickness)
    within = tuple(Plane(n, dot(n, at) + reach) for n in (X, Y, (-1.0, 0.0, 0.0), (0.0, -1.0, 0.0)))
    own = {board.id: solids[board.id] for board in assembly.boards if board.id[:1] in ("A", "B")}
    level = Plane(Z, spec.height_mm / 2)
    shapes = sliced(own, level, X, Y, within)
    here = replace(assembly, joints=tuple(j for j in assembly.joints if j.id.startswith("AB")))
    marks = []
    for letter in "AB":
        points = [p for s in shapes if (s.part or "")[:1] == letter for p in s.points]
        if points:
            middle = (sum(p[0] for p in points) / len(points), sum(p[1] for p in points) / len(points))
            marks.append(Mark("letter", middle, letter))
    return View("corner", (*shapes, *joints_sliced(here, solids, level, X, Y)), tuple(marks))


def sizes_of(spec: BoxSpec, ruler: Ruler) -> tuple[SizeRow, ...]:
    """Every line that can be measured on this box, as a list."""
    if isinstance(spec.plan, Rectangle):
        kinds = ["width", "depth"]
    elif isinstance(spec.plan, Irregular):
        kinds = [f"side:{letter}" for letter in spec.letters] + ["wide", "high"]
    else:
        kinds = ["flats", "corners", "side", *(("reach",) if spec.sides % 2 else ())]
    lines = ("outer", "inner") if spec.upright else ("outer_bottom", "outer_top", "inner_bottom", "inner_top")
    names = [f"{line}_{kind}" if "_" in line else f"{line}_bottom_{kind}" for line in lines for kind in kinds]
    if isinstance(spec.plan, Irregular):
        names += [f"outer_bottom_angle:{corner}" for corner in spec.corner_names]
    names += [f"outer_bottom_diagonal:{a}{b}" for a, b in corners_across(spec.corner_names)]
    names += [f"crosswise:{letter}" for letter in spec.letters if spec.sides <= MANY_CORNERS]
    names += [f"outer_there:{letter}" for letter in spec.letters if spec.measured_at_mm is not None]
    names.append("height")
    for measure in spec.slope_measures:
        group = measure_of(measure).side
        suffix = f":{group}" if group else ""
        names += [measure, f"level_slope{suffix}", f"run{suffix}", f"slant{suffix}", f"board_width{suffix}"]
    names += [f"cap_{line}_{kind}" for line in ("outside", "opening") for kind in kinds if spec.cap]
    given = standings(spec)
    rows = []
    for name in [*names, *ruler.assembly.by_name]:
        value = ruler.measure(name)
        if value is None:
            continue
        standing = given.get(name, "derived")
        if name.startswith(("cap_", "board_width")):
            standing = "fixed"
        acts = None if standing == "fixed" else Give(op="give", measure=name)
        rows.append(SizeRow(name, value, "deg" if is_angle(name) else "mm", standing, acts, name in given))
    return tuple(rows)
