"""What a stand shows of itself: from the front, from the side, from above, how a leg is turned, the feet on the ground."""

from fennup.core.drawing.board_views import pictorial
from fennup.core.drawing.view import Description, Mark, Shape, SizeRow, Standing, View
from fennup.core.geometry.vec import Vec
from fennup.core.kinds.gauged import ABOVE, DOWN, FRONT, LEFT, RIGHT, SIDE, UP, Paper, Shown, dimensions, read_only, rows, view
from fennup.core.kinds.stand.controls import controls_of
from fennup.core.kinds.stand.roll import roll_view
from fennup.core.kinds.stand.sides import flanks_of, foot_of, residual_deg
from fennup.core.kinds.stand.sizing import SIZING
from fennup.core.kinds.stand.spec import Four, Round, StandSpec
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid
from fennup.core.tolerances import SAME


def describe(spec: StandSpec, ruler: Ruler, solids: dict[str, Solid]) -> Description:
    """Views, controls and sizes of a solved stand."""
    given = spec.standings()
    round_plan = isinstance(spec.plan, Round)
    over = 2.2 if spec.top else 1.0
    on_front: list[Shown] = [
        ("plate_width", UP, 1.0),
        ("top_width", UP, over),
        ("foot_width", DOWN, 1.0),
        ("height", LEFT, 1.4),
        ("front_splay", UP, 0.0),
    ]
    on_side: list[Shown] = [
        ("plate_depth", UP, 1.0),
        ("top_depth", UP, over),
        ("foot_depth", DOWN, 1.0),
        ("height", LEFT, 1.4),
        ("side_splay", UP, 0.0),
    ]
    on_ground: list[Shown] = [("foot_width", DOWN, 1.0), ("foot_depth", RIGHT, 1.0), ("foot_diagonal", UP, 0.0)]
    if round_plan:
        on_front, on_side = [("height", LEFT, 1.4)], [("height", LEFT, 1.4)]
        on_ground = [("foot_side", None, 1.0), ("top_side", None, 0.0)]
    tops = {id: _top_of(solids[id]) for id in spec.legs}
    middles = {id: _middle_of(solids[id]) for id in spec.legs}
    views = [
        view(FRONT, ruler, solids, given, on_front, _letters(FRONT, {id: p for id, p in middles.items() if p[1] < SAME})),
        view(SIDE, ruler, solids, given, on_side, _letters(SIDE, {id: p for id, p in middles.items() if p[0] > -SAME})),
        view(ABOVE, ruler, solids, given, on_ground, _letters(ABOVE, tops)),
    ]
    views.append(roll_view(spec, solids[spec.legs[0]]))
    views.append(_feet(spec, ruler, solids, given))
    return Description(
        _facts(spec),
        pictorial(ruler.assembly, solids),
        tuple(views),
        lambda: controls_of(spec, ruler),
        _sizes(spec, ruler, given),
    )


def _facts(spec: StandSpec) -> tuple[str, ...]:
    free = SIZING.free(spec)
    plan = spec.plan
    upright = isinstance(plan, Four) and plan.front_splay_deg == plan.side_splay_deg == 0
    return ("stand_upright" if upright else f"stand_{plan.form}", f"legs:{spec.sides}", *((f"free:{free}",) if free else ()))


def _letters(paper: Paper, places: dict[str, Vec]) -> tuple[Mark, ...]:
    """Legs' letters where they are seen on a paper."""
    return tuple(Mark("letter", paper.flat(place), id, id) for id, place in places.items())


def _middle_of(solid: Solid) -> Vec:
    """The middle of a leg, half way up."""
    points = [p for piece in solid.world for p in piece.points]
    (x0, x1), (y0, y1), (z0, z1) = ((min(p[k] for p in points), max(p[k] for p in points)) for k in range(3))
    return ((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2)


def _top_of(solid: Solid) -> Vec:
    """The middle of a leg's upper end."""
    points = [p for piece in solid.world for p in piece.points]
    high = max(p[2] for p in points)
    tops = [p for p in points if p[2] > high - SAME]
    count = len(tops)
    return (sum(p[0] for p in tops) / count, sum(p[1] for p in tops) / count, high)


def _feet(spec: StandSpec, ruler: Ruler, solids: dict[str, Solid], given: dict[str, Standing]) -> View:
    """Where the feet stand: each foot's outline on the ground, and the sizes to set them out by."""
    shapes = []
    for id in spec.legs:
        leg = ruler.assembly.board(id)
        for patch in solids[id].patches(f"{foot_of(leg)}:0"):
            shapes.append(Shape("wood", tuple(ABOVE.flat(p) for p in patch.points), True, id, (1.0, 0.0)))
    shown: list[Shown] = [
        ("foot_width", DOWN, 1.0),
        ("foot_diagonal", UP, 0.0),
        ("foot_depth", RIGHT, 1.0),
        ("foot_side", None, 1.0),
    ]
    return View("feet", tuple(shapes), (), dimensions(ABOVE, ruler, given, shown))


def _sizes(spec: StandSpec, ruler: Ruler, given: dict[str, Standing]) -> tuple[SizeRow, ...]:
    """Every size, and how far a leg's other side is out of its plane."""
    flanks = flanks_of(spec)
    leg = ruler.assembly.board(spec.legs[0])
    listed = rows(ruler, list(ruler.assembly.by_name), given)
    if isinstance(spec.plan, Round) and spec.roll == "even":
        return listed
    return (*listed, read_only("residual_angle", residual_deg(leg, flanks, 0)))
