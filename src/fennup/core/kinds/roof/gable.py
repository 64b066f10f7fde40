"""A gable's rafters, its ridge and the walls' plates."""

from math import cos, radians, sin, tan

from fennup.core.assembly.board import Board, End
from fennup.core.assembly.model import Assembly, Finding, Gauge, Joint, Mating, Spot
from fennup.core.errors import SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, joint_plane, meeting_point, plane_through
from fennup.core.geometry.vec import Vec, scale
from fennup.core.kinds.fields import LONGEST_MM
from fennup.core.kinds.roof.plates import PLATE_MM
from fennup.core.kinds.roof.spec import Gable, RoofSpec, Slope
from fennup.core.parts.solid import arris_length
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING

X: Vec = (1.0, 0.0, 0.0)
Y: Vec = (0.0, 1.0, 0.0)
UP: Vec = (0.0, 0.0, 1.0)
DOWN: Vec = (0.0, 0.0, -1.0)
DEEPEST_NOTCH = 1 / 3


def gable(spec: RoofSpec, shape: Gable) -> Assembly:
    """All pairs, the ridge, and the plates that they stand on. SpecError where a rafter has no seat or no foot."""
    left, right = shape.left, shape.right or shape.left
    if (shape.pairs - 1) * shape.spacing_mm > LONGEST_MM:
        reach = (shape.pairs - 1) * shape.spacing_mm
        raise SpecError("rafters_reach", ("shape.spacing_mm",), count=shape.pairs, mm=reach, limit_mm=LONGEST_MM)
    # Both top edges come to one height over the ridge's middle; the right wall then stands so much higher than the left.
    apex = [side.run_mm * tan(radians(side.pitch_deg)) + spec.depth_mm / cos(radians(side.pitch_deg)) for side in (left, right)]
    step = (apex[0] - shape.heel_of(left, spec.depth_mm)) - (apex[1] - shape.heel_of(right, spec.depth_mm))
    boards: list[Board] = []
    joints: list[Joint] = []
    for k in range(shape.pairs):
        pair = [_rafter(spec, shape, left, -1.0, 0.0, k), _rafter(spec, shape, right, 1.0, step, k)]
        pair = _heads(shape, pair, joints)
        for board, plate in zip(pair, ("plate left", "plate right"), strict=True):
            if min(arris_length(board, "face_lower"), arris_length(board, "face_upper")) <= 0:
                raise SpecError("rafter_nothing", ("shape.heel_mm",), part=board.name)
            if shape.foot == "plumb":
                continue
            seat = "notch:0" if shape.foot == "birdsmouth" else f"left:{len(board.left) - 1}"
            joints.append(Joint(f"{board.id} seat", "butt", Mating(board.id, seat), Mating(plate, "face"), (), "past_plate"))
        boards += pair
    if shape.ridge:
        boards.append(_ridge(spec, shape, left, right, apex[0] - shape.heel_of(left, spec.depth_mm)))
    plates = [_plate(spec, shape, left, -1.0, 0.0), _plate(spec, shape, right, 1.0, step)]
    return Assembly((*boards, *plates), tuple(joints), (), (), (), _findings(spec, shape), _gauges(shape))


def _rafter(spec: RoofSpec, shape: Gable, side: Slope, sense: float, wall: float, k: int) -> Board:
    """A rafter of the pair `k`, its foot cut: `sense` - on the left, + on the right; the seat lies at the level `wall`."""
    pitch, run = radians(side.pitch_deg), side.run_mm
    way: Vec = (-sense * cos(pitch), 0.0, sin(pitch))
    up: Vec = (sense * sin(pitch), 0.0, cos(pitch))
    # The lower edge passes the wall's outer face `heel` below the seat.
    drop = shape.heel_of(side, spec.depth_mm)
    heel: Vec = (sense * run, k * shape.spacing_mm, wall - drop)
    origin = tuple(heel[i] + up[i] * spec.depth_mm / 2 for i in range(3))
    z: Vec = (0.0, sense, 0.0)
    side_name = "Left" if sense < 0 else "Right"
    id, name = f"{side_name.lower()}{k + 1}", f"Rafter {side_name[0]}{k + 1}" if shape.pairs > 1 else f"{side_name} rafter"
    frame = Frame(origin, way, up, z)  # type: ignore[arg-type]
    board = Board(id, name, Section(spec.depth_mm, spec.thickness_mm), frame, role="rafter")
    outwards: Vec = (sense, 0.0, 0.0)
    if shape.foot in ("level", "plumb"):
        return board.with_cut("left", Plane(DOWN, -wall) if shape.foot == "level" else Plane(outwards, run))
    if drop * cos(pitch) >= spec.depth_mm:
        own = "shape.heel_mm" if side.heel_mm is None else f"shape.{'left' if sense < 0 else 'right'}.heel_mm"
        raise SpecError("notch_through", (own,), mm=drop, limit_mm=spec.depth_mm / cos(pitch))
    if shape.foot == "seat":
        return board.with_cut("left", Plane(outwards, run)).with_cut("left", Plane(DOWN, -wall))
    end = Plane(outwards, run + shape.overhang_mm)
    if shape.tail == "square":
        end = plane_through(meeting_point(end, board.side_in_world("upper"), Plane(Y, heel[1])), scale(way, -1.0))
    tail = board.with_cut("left", end)
    return tail.with_notch((Plane(outwards, run), Plane(UP, wall)))


def _heads(shape: Gable, pair: list[Board], joints: list[Joint]) -> list[Board]:
    """The heads cut plumb to the ridge, or mitered to each other."""
    left, right = pair
    if shape.ridge:
        half = shape.ridge.thickness_mm / 2
        cut = [left.with_cut("right", Plane(X, -half)), right.with_cut("right", Plane((-1.0, 0.0, 0.0), -half))]
        for board, side in zip(cut, ("face", "back"), strict=True):
            here: tuple[tuple[str, End], ...] = ((board.id, "right"),)
            joints.append(Joint(f"{board.id} ridge", "butt", Mating(board.id, "right:0"), Mating("ridge", side), here))
        return cut
    if shape.heads == "plumb":
        middle = Plane(X, 0.0)
        cut = [left.with_cut("right", middle), right.with_cut("right", middle.flipped())]
        # The flatter one's face is the lower: it lies on the other's.
        low, high = sorted(cut, key=lambda board: abs(board.frame.x[2]))
        heads = ((low.id, "right"), (high.id, "right"))
        joints.append(Joint(f"{left.id}/{right.id}", "butt", Mating(low.id, "right:0"), Mating(high.id, "right:0"), heads))  # type: ignore[arg-type]
        return cut
    outer, inner = ([board.side_in_world(edge) for board in pair] for edge in ("upper", "lower"))
    miter = joint_plane(outer[0], outer[1], inner[0].flipped(), inner[1].flipped())
    cut = [left.with_cut("right", miter), right.with_cut("right", miter.flipped())]
    ends: tuple[tuple[str, End], ...] = ((left.id, "right"), (right.id, "right"))
    joints.append(Joint(f"{left.id}/{right.id}", "miter", Mating(left.id, "right:0"), Mating(right.id, "right:0"), ends))
    return cut


def _ridge(spec: RoofSpec, shape: Gable, left: Slope, right: Slope, apex: float) -> Board:
    """The ridge board: its top where the higher of the top edges meets it, its ends flush with the outer rafters."""
    ridge = shape.ridge
    assert ridge is not None
    top = apex - ridge.thickness_mm / 2 * min(tan(radians(side.pitch_deg)) for side in (left, right))
    half = ((shape.pairs - 1) * shape.spacing_mm + spec.thickness_mm) / 2
    middle: Vec = (0.0, (shape.pairs - 1) * shape.spacing_mm / 2, top - ridge.depth_mm / 2)
    frame = Frame(middle, (0.0, -1.0, 0.0), UP, (-1.0, 0.0, 0.0))
    board = Board("ridge", "Ridge", Section(ridge.depth_mm, ridge.thickness_mm), frame, role="rail")
    return board.with_cut("left", Plane(Y, middle[1] + half)).with_cut("right", Plane((0.0, -1.0, 0.0), half - middle[1]))


def _plate(spec: RoofSpec, shape: Gable, side: Slope, sense: float, wall: float) -> Board:
    """The wall's plate: its outer face plumb under the heels, its top at the seats."""
    half = ((shape.pairs - 1) * shape.spacing_mm + 3 * spec.thickness_mm) / 2
    middle = (shape.pairs - 1) * shape.spacing_mm / 2
    at: Vec = (sense * (side.run_mm - shape.plate_mm / 2), middle, wall - PLATE_MM / 2)
    frame = Frame(at, Y, (-1.0, 0.0, 0.0), UP)
    id, name = ("plate left", "Left plate") if sense < 0 else ("plate right", "Right plate")
    board = Board(id, name, Section(shape.plate_mm, PLATE_MM), frame, found=True, role="member")
    return board.with_cut("left", Plane((0.0, -1.0, 0.0), half - middle)).with_cut("right", Plane(Y, middle + half))


def _gauges(shape: Gable) -> tuple[Gauge, ...]:
    """Taken on the first pair: runs, pitches, lengths."""
    heel = "notch:0:0" if shape.foot == "birdsmouth" else "left"
    peak = Spot("ridge", "right") if shape.ridge else Spot("left1", "right", "upper")
    made = []
    for name, inwards in (("left", X), ("right", (-1.0, 0.0, 0.0))):
        id = f"{name}1"
        at_heel, head = Spot(id, heel, "upper"), Spot(id, "right", "upper")
        made += [
            Gauge(f"{name}_run", peak, at_heel, "along", scale(inwards, -1.0)),
            Gauge(f"{name}_pitch", at_heel, head, "angle", inwards, UP),
            Gauge(f"{name}_rise", at_heel, head, "along", UP),
            Gauge(f"{name}_top_edge", Spot(id, "left", "upper"), head),
            Gauge(f"{name}_ridge_to_heel", head, at_heel),
        ]
    # The right rafter against the left one, down from the peak.
    left = radians(shape.left.pitch_deg)
    down, out = (-cos(left), 0.0, -sin(left)), (sin(left), 0.0, -cos(left))
    made.append(Gauge("peak_angle", Spot("right1", "right", "upper"), Spot("right1", heel, "upper"), "angle", down, out))
    made.append(Gauge("span", Spot("left1", heel, "upper"), Spot("right1", heel, "upper"), "along", X))
    made.append(
        Gauge(
            "eaves_step", Spot("plate left", "left", "middle", "face"), Spot("plate right", "left", "middle", "face"), "along", UP
        )
    )
    return tuple(made)


def _findings(spec: RoofSpec, shape: Gable) -> tuple[Finding, ...]:
    """A notch that weakens the rafter, and who judges a roof."""
    found = []
    for name, side in (("left", shape.left), ("right", shape.right or shape.left)):
        deep = shape.heel_of(side, spec.depth_mm) * cos(radians(side.pitch_deg))
        if shape.foot == "birdsmouth" and deep > spec.depth_mm * DEEPEST_NOTCH + NOTHING:
            parts = (f"{name}{'1' if shape.pairs > 1 else ''}",)
            found.append(Finding("notch_deep", "warning", parts, ("shape.heel_mm",), deep, spec.depth_mm * DEEPEST_NOTCH))
    return (*found, Finding("roof_load", "standing"))
