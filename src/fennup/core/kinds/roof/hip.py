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
from fennup.core.kinds.roof.plates import footed, plate_round, seat_joint
from fennup.core.kinds.roof.spec import Hip, HipRidge, RoofSpec
from fennup.core.kinds.sticks import facing
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


def peak_of(shape: Hip, side: int) -> Vec:
    """The place on a side's plane where its hips end: the one point, or that end of the ridge which is nearer to it."""
    back = {0: -0.5, 2: 0.5}.get(side, -0.5) * (shape.ridge.length_mm if shape.ridge else 0.0)
    return (0.0, back, shape.rise_mm)


def planes_of(shape: Hip) -> list[Plane]:
    """The roof's planes, side by side, through the eaves at 0 and the point, or the ridge."""
    corners = corners_of(shape)
    made = []
    for i, (ax, ay) in enumerate(corners):
        peak = peak_of(shape, i)
        bx, by = corners[(i + 1) % len(corners)]
        normal = cross(sub((bx, by, 0.0), (ax, ay, 0.0)), sub(peak, (ax, ay, 0.0)))
        made.append(plane_through(peak, normal))
    return made


def hip_roof(spec: RoofSpec, shape: Hip) -> Assembly:
    """A hip at every corner, jacks along every side, and where there is a ridge commons. SpecError `ridge_too_long`, `ridge_needs_four`, `backing_deep`, `jacks_too_close`, `jacks_in_another`, `jacks_many`,
    `no_seat`."""
    corners, planes, letters = corners_of(shape), planes_of(shape), spec.letters
    count = len(corners)
    _check_ridge(shape)
    # The hip at the end of side i stands between the planes of side i and the next.
    hips = [_hip(spec, shape, i, corners[(i + 1) % count], planes[i], planes[(i + 1) % count]) for i in range(count)]
    joints = []
    for i in range(count) if shape.ridge is None else (1, 3):
        k = (i + 1) % count
        a, b = hips[i], hips[k]
        between = unit(sub((b.frame.x[0], b.frame.x[1], 0.0), (a.frame.x[0], a.frame.x[1], 0.0)))
        look = scale(between, -1.0)
        hips[i], hips[k] = a.with_cut("right", Plane(look, 0.0)), b.with_cut("right", Plane(scale(look, -1.0), 0.0))
        ends: tuple[tuple[str, End], ...] = ((a.id, "right"), (b.id, "right"))
        at = len(a.right), len(b.right)
        joints.append(Joint(f"{a.id}/{b.id}", "miter", Mating(a.id, f"right:{at[0]}"), Mating(b.id, f"right:{at[1]}"), ends))
    ridge = _ridge(shape, shape.ridge, hips, joints) if shape.ridge else None
    boards = list(hips)
    jacks = [_jacks(spec, shape, i, corners, planes[i], hips, joints) for i in range(count)]
    if ridge:
        boards.append(ridge)
        for i in (1, 3):
            jacks[i] += _commons(spec, shape, i, corners[i], planes[i], ridge, joints)
    boards += [jack for side in jacks for jack in side]
    if shape.foot != "flush":
        plates = plate_round(spec, shape, corners)
        joints += [seat_joint(hip, [plates[i], plates[(i + 1) % count]]) for i, hip in enumerate(hips)]
        joints += [seat_joint(jack, [plates[i]]) for i, side in enumerate(jacks) for jack in side]
        boards += plates
    rings = () if shape.ridge else (Ring(tuple(hip.id for hip in hips)),)
    return Assembly(
        tuple(boards), tuple(joints), (), (), rings, (Finding("roof_load", "standing"),), _gauges(shape, hips, boards, letters)
    )


def _hip(spec: RoofSpec, shape: Hip, i: int, corner: Point2, own: Plane, after: Plane) -> Board:
    """One hip: its middle line where the two planes meet, its upper edge backed to both, its foot flush with both walls."""
    # Two hips end at the front, two at the back.
    peak = peak_of(shape, 0 if i in (0, 3) else 2)
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
    return footed(shape, board, foot, walls)


def _check_ridge(shape: Hip) -> None:
    """A ridge lies over a rectangle, and leaves a slope at its ends."""
    if shape.ridge is None:
        return
    if shape.sides:
        raise SpecError("ridge_needs_four", ("shape.ridge",))
    if shape.ridge.length_mm >= shape.depth_mm:
        raise SpecError("ridge_too_long", ("shape.ridge.length_mm",), mm=shape.ridge.length_mm, limit_mm=shape.depth_mm)


def _ridge(shape: Hip, ridge: HipRidge, hips: list[Board], joints: list[Joint]) -> Board:
    """The ridge board, its top edges in the roof's planes, its ends square; the hips, two at each end, are cut to lie on them beside each
    other. SpecError `ridge_nothing` where the hips leave nothing of it."""
    half = ridge.thickness_mm / 2
    top = shape.rise_mm - half * shape.rise_mm / (shape.width_mm / 2)
    ends = []
    for i, sense in ((0, 1.0), (1, -1.0)):
        # Where the inner side of the right-hand hip comes to the ridge's side.
        inner = hips[i].side_in_world(facing(hips[i], scale(Y, sense)))
        ends.append(meeting_point(inner, Plane((1.0, 0.0, 0.0), half), Plane(UP, top))[1])
    if ends[0] >= ends[1]:
        raise SpecError("ridge_nothing", ("shape.ridge.length_mm",), mm=shape.ridge.length_mm if shape.ridge else 0.0)
    frame = Frame((0.0, 0.0, top - ridge.depth_mm / 2), Y, UP, cross(Y, UP))
    board = Board("ridge", "Ridge", Section(ridge.depth_mm, ridge.thickness_mm), frame, role="rail")
    board = board.with_cut("left", Plane(scale(Y, -1.0), -ends[0])).with_cut("right", Plane(Y, ends[1]))
    for i, hip in enumerate(hips):
        end, plane = ("left", Plane(Y, ends[0])) if i in (0, 3) else ("right", Plane(scale(Y, -1.0), -ends[1]))
        hips[i] = hip.with_cut("right", plane)
        lies = Mating(hip.id, f"right:{len(hip.right)}")
        joints.append(Joint(f"{hip.id} ridge", "face", lies, Mating("ridge", f"{end}:0"), ((hip.id, "right"),)))
    return board


def _commons(spec: RoofSpec, shape: Hip, i: int, corner: Point2, plane: Plane, ridge: Board, joints: list[Joint]) -> list[Board]:
    """The rafters of one side that stand on the ridge, from its middle both ways as long as they clear the hips."""
    assert shape.ridge is not None
    out: Vec = (1.0, 0.0, 0.0) if i == 1 else (-1.0, 0.0, 0.0)
    along = (-out[1], out[0], 0.0)
    way, up = cross(plane.normal, along), plane.normal
    room = shape.ridge.length_mm / 2 - spec.thickness_mm / 2 - shape.hip_thickness_mm
    half = int(room / shape.spacing_mm) if room > 0 else -1
    side = facing(ridge, out)
    made = []
    for k in range(-half, half + 1):
        at = add((corner[0], 0.0, 0.0), scale(along, k * shape.spacing_mm))
        frame = Frame(add(at, scale(up, -spec.depth_mm / 2)), way, up, cross(way, up))
        tag = f"{spec.letters[i]}{k + half + 1}"
        board = Board(f"common {tag}", f"Common {tag}", Section(spec.depth_mm, spec.thickness_mm), frame, role="rafter")
        board = footed(shape, board.with_cut("right", ridge.side_in_world(side).flipped()), at, [out])
        made.append(board)
        joints.append(
            Joint(f"{board.id} ridge", "butt", Mating(board.id, "right:0"), Mating(ridge.id, side), ((board.id, "right"),))
        )
    return made


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
    # From a corner a side's jacks go on as far as its hip does.
    reach = (long - shape.ridge.length_mm) / 2 if shape.ridge and i in (1, 3) else long / 2
    number = int((reach - spec.thickness_mm / 2 - shape.hip_thickness_mm) / shape.spacing_mm)
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
            board = footed(shape, board.with_cut("right", cheek), at, [level])
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
    heel = "notch:0:0" if shape.foot == "birdsmouth" else "left"
    foot, head = Spot(ids[0], heel, "upper"), Spot(ids[0], "right:0", "upper")
    made = [
        Gauge("rise", foot, head, "along", UP),
        Gauge("hip_length", foot, head),
        Gauge("hip_pitch", foot, head, "angle", _level(hips[0]), UP),
    ]
    if shape.sides:
        made.append(Gauge("eaves_side", Spot(ids[-1], heel, "upper"), foot))
        made.append(Gauge("pitch", foot, head, "angle", Y, UP))
    else:
        made.append(Gauge("eaves_width", Spot(ids[3], heel, "upper"), foot, "along", X))
        made.append(Gauge("eaves_depth", foot, Spot(ids[1], heel, "upper"), "along", Y))
        if shape.ridge:
            made.append(Gauge("ridge_length", head, Spot(ids[1], "right:0", "upper"), "along", Y))
        made.append(Gauge("front_pitch", foot, head, "angle", Y, UP))
        made.append(Gauge("side_pitch", foot, head, "angle", (-1.0, 0.0, 0.0), UP))
    if shape.foot == "birdsmouth":
        made.append(Gauge("hip_top_edge", Spot(ids[0], "left", "upper"), head, follows=True))
    for letter in letters if not shape.sides else "A":
        jack = f"jack {letter}1r"
        if any(board.id == jack for board in boards):
            made.append(Gauge(f"jack_length:{letter}", Spot(jack, heel, "upper"), Spot(jack, "right", "upper")))
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
