"""Hip rafters with their backing, and the jacks between them."""

from dataclasses import replace
from math import hypot

from fennup.core.assembly.board import Board, End
from fennup.core.assembly.model import Assembly, Finding, Gauge, Joint, Mating, Ring, Spot
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, meeting_point, plane_through
from fennup.core.geometry.polygon import regular_corners
from fennup.core.geometry.vec import Point2, Vec, add, cross, dot, scale, sub, unit
from fennup.core.kinds.roof.plates import plate_round, seat_joint, seated
from fennup.core.kinds.roof.spec import Hip, RoofSpec
from fennup.core.parts.solid import rip_bevel_deg, solid_of
from fennup.core.stock.section import Section

X: Vec = (1.0, 0.0, 0.0)
Y: Vec = (0.0, 1.0, 0.0)
UP: Vec = (0.0, 0.0, 1.0)
MOST_JACKS = 24  # from either corner of a side


def corners_of(shape: Hip) -> list[Point2]:
    """Corners of the eaves, anticlockwise, A's left end first."""
    if shape.sides:
        return regular_corners(shape.sides, shape.width_mm / 2)
    w, d = shape.width_mm / 2, shape.depth_mm / 2
    return [(-w, -d), (w, -d), (w, d), (-w, d)]


def planes_of(shape: Hip) -> list[Plane]:
    """The roof's planes, side by side, through the eaves at 0 and the point."""
    corners, peak = corners_of(shape), (0.0, 0.0, shape.rise_mm)
    made = []
    for i, (ax, ay) in enumerate(corners):
        bx, by = corners[(i + 1) % len(corners)]
        normal = cross(sub((bx, by, 0.0), (ax, ay, 0.0)), sub(peak, (ax, ay, 0.0)))
        made.append(plane_through(peak, normal))
    return made


def hip_roof(spec: RoofSpec, shape: Hip) -> Assembly:
    """A hip at every corner, jacks along every side. SpecError `backing_deep`, `jacks_too_close`, `jacks_in_another`, `jacks_many`,
    `no_seat`."""
    corners, planes, letters = corners_of(shape), planes_of(shape), spec.letters
    count = len(corners)
    # The hip at the end of side i stands between the planes of side i and the next.
    hips = [_hip(spec, shape, i, corners[(i + 1) % count], planes[i], planes[(i + 1) % count]) for i in range(count)]
    joints = []
    for i in range(count):
        k = (i + 1) % count
        a, b = hips[i], hips[k]
        between = unit(sub((b.frame.x[0], b.frame.x[1], 0.0), (a.frame.x[0], a.frame.x[1], 0.0)))
        look = scale(between, -1.0)
        hips[i], hips[k] = a.with_cut("right", Plane(look, 0.0)), b.with_cut("right", Plane(scale(look, -1.0), 0.0))
        ends: tuple[tuple[str, End], ...] = ((a.id, "right"), (b.id, "right"))
        at = len(a.right), len(b.right)
        joints.append(Joint(f"{a.id}/{b.id}", "miter", Mating(a.id, f"right:{at[0]}"), Mating(b.id, f"right:{at[1]}"), ends))
    boards = list(hips)
    jacks = [_jacks(spec, shape, i, corners, planes[i], hips, joints) for i in range(count)]
    boards += [jack for side in jacks for jack in side]
    if shape.foot == "seat":
        plates = plate_round(spec, shape, corners)
        joints += [seat_joint(hip, [plates[i], plates[(i + 1) % count]]) for i, hip in enumerate(hips)]
        joints += [seat_joint(jack, [plates[i]]) for i, side in enumerate(jacks) for jack in side]
        boards += plates
    rings = (Ring(tuple(hip.id for hip in hips)),)
    return Assembly(
        tuple(boards), tuple(joints), (), (), rings, (Finding("roof_load", "standing"),), _gauges(shape, hips, boards, letters)
    )


def _hip(spec: RoofSpec, shape: Hip, i: int, corner: Point2, own: Plane, after: Plane) -> Board:
    """One hip: its middle line where the two planes meet, its upper edge backed to both, its foot flush with both walls."""
    peak: Vec = (0.0, 0.0, shape.rise_mm)
    foot: Vec = (corner[0], corner[1], 0.0)
    way = unit(sub(peak, foot))
    side = unit(cross((way[0], way[1], 0.0), UP))  # to the right of somebody who climbs it
    up = cross(side, way)
    z = cross(way, up)
    middle = add(scale(add(foot, peak), 0.5), scale(up, -shape.hip_depth_mm / 2))
    frame = Frame(middle, way, up, z)
    # z looks to the right of somebody who climbs the hip: there lies the plane of the side after the corner.
    face, back = (after, own) if dot(after.normal, z) > 0 else (own, after)
    id = f"hip {spec.letters[i]}{spec.letters[(i + 1) % len(spec.letters)]}"
    section = Section(shape.hip_depth_mm, shape.hip_thickness_mm)
    board = Board(id, f"Hip {id[4:]}", section, frame, role="rafter")
    board = replace(board, upper_rip=frame.plane_to_local(face), backing=frame.plane_to_local(back))
    drop = max(shape.hip_thickness_mm / 2 * abs(p.normal[2] / p.normal[1]) for p in (board.upper_rip, board.backing) if p)
    if drop >= shape.hip_depth_mm:
        raise SpecError("backing_deep", ("shape.hip_depth_mm",), mm=shape.hip_depth_mm, limit_mm=drop)
    walls = [unit((p.normal[0], p.normal[1], 0.0)) for p in (own, after)]
    for wall in walls:
        board = board.with_cut("left", Plane(wall, dot(wall, foot)))
    return seated(shape, board) if shape.foot == "seat" else board


def _jacks(
    spec: RoofSpec, shape: Hip, i: int, corners: list[Point2], plane: Plane, hips: list[Board], joints: list[Joint]
) -> list[Board]:
    """The jacks of one side, from either corner inwards as long as they end on a hip."""
    count = len(corners)
    a, b = (((*corners[k % count], 0.0)) for k in (i, i + 1))
    along, long = unit(sub(b, a)), hypot(b[0] - a[0], b[1] - a[1])
    level: Vec = (along[1], -along[0], 0.0)
    way = cross(plane.normal, along)
    up = plane.normal
    if shape.spacing_mm < spec.thickness_mm:
        raise SpecError("jacks_in_another", ("shape.spacing_mm",), mm=shape.spacing_mm, limit_mm=spec.thickness_mm)
    number = int((long / 2 - spec.thickness_mm / 2 - shape.hip_thickness_mm) / shape.spacing_mm)
    if number > MOST_JACKS:
        raise SpecError("jacks_many", ("shape.spacing_mm",), mm=shape.spacing_mm, count=number, most=MOST_JACKS)
    made = []
    for start, sense, hip in ((a, 1.0, hips[i - 1]), (b, -1.0, hips[i])):
        for k in range(1, number + 1):
            at = add(start, scale(along, sense * k * shape.spacing_mm))
            middle = add(at, scale(up, -spec.depth_mm / 2))
            letter = spec.letters[i]
            tag = f"{letter}{k}{'l' if sense > 0 else 'r'}"
            frame = Frame(middle, way, up, cross(way, up))
            board = Board(f"jack {tag}", f"Jack {tag}", Section(spec.depth_mm, spec.thickness_mm), frame, role="rafter")
            # The hip's side that looks at the jack.
            name = "face" if dot(hip.frame.z, scale(along, sense)) > 0 else "back"
            cheek = hip.side_in_world(name).flipped()  # type: ignore[arg-type]
            board = board.with_cut("left", Plane(level, dot(level, at))).with_cut("right", cheek)
            board = seated(shape, board) if shape.foot == "seat" else board
            try:
                solid_of(board)
            except CutError:
                raise SpecError("jacks_too_close", ("shape.spacing_mm",), mm=shape.spacing_mm) from None
            made.append(board)
            here: tuple[tuple[str, End], ...] = ((board.id, "right"),)
            joints.append(Joint(f"{board.id} hip", "butt", Mating(board.id, "right:0"), Mating(hip.id, name), here))
    return made


def _gauges(shape: Hip, hips: list[Board], boards: list[Board], letters: str) -> tuple[Gauge, ...]:
    """Eaves, rise, pitches, the hips' and the first jacks' lengths, along the middle of the top edges."""
    ids = [hip.id for hip in hips]
    foot, head = Spot(ids[0], "left", "upper"), Spot(ids[0], "right", "upper")
    made = [
        Gauge("rise", foot, head, "along", UP),
        Gauge("hip_length", foot, head),
        Gauge("hip_pitch", foot, head, "angle", _level(hips[0]), UP),
    ]
    if shape.sides:
        made.append(Gauge("eaves_side", Spot(ids[-1], "left", "upper"), foot))
        made.append(Gauge("pitch", foot, head, "angle", Y, UP))
    else:
        made.append(Gauge("eaves_width", Spot(ids[3], "left", "upper"), foot, "along", X))
        made.append(Gauge("eaves_depth", foot, Spot(ids[1], "left", "upper"), "along", Y))
        made.append(Gauge("front_pitch", foot, head, "angle", Y, UP))
        made.append(Gauge("side_pitch", foot, head, "angle", (-1.0, 0.0, 0.0), UP))
    for letter in letters if not shape.sides else "A":
        jack = f"jack {letter}1r"
        if any(board.id == jack for board in boards):
            made.append(Gauge(f"jack_length:{letter}", Spot(jack, "left", "upper"), Spot(jack, "right", "upper")))
    return tuple(made)


def _level(hip: Board) -> Vec:
    return unit((hip.frame.x[0], hip.frame.x[1], 0.0))


def backing_deg(hip: Board) -> tuple[float, float]:
    """The two bevels of a hip's upper edge, from square, degrees."""
    assert hip.upper_rip is not None and hip.backing is not None
    return abs(rip_bevel_deg(hip.upper_rip)), abs(rip_bevel_deg(hip.backing))


def jack_in_theory(jack: Board, hip: Board, plane: Plane) -> float:
    """From the eaves to the hip's middle plane, along the roof."""
    through = Plane(jack.frame.z, dot(jack.frame.z, jack.frame.origin))
    hip_plane = Plane(hip.frame.z, dot(hip.frame.z, hip.frame.origin))
    end = meeting_point(through, hip_plane, plane)
    start = meeting_point(through, plane, Plane(UP, 0.0))
    return hypot(*(p - q for p, q in zip(end, start, strict=True)))
