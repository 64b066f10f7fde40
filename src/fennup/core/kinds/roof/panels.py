"""Roofs of panels: a pyramid, and a lean-to with its lid."""

from dataclasses import replace
from math import atan2, cos, hypot, sin, tan

from fennup.core.assembly.board import Board, End
from fennup.core.assembly.model import Assembly, Finding, Gauge, Joint, Mating, Outline, Ring, Spot, Stretch
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, joint_plane, plane_through
from fennup.core.geometry.polygon import regular_corners
from fennup.core.geometry.vec import Vec, add, scale, unit
from fennup.core.kinds.blanks import cone_of
from fennup.core.kinds.covers import lay_cover
from fennup.core.kinds.inner import Added, cut_by
from fennup.core.kinds.roof.spec import LeanTo, Pyramid, RoofSpec
from fennup.core.stock.section import Section

X: Vec = (1.0, 0.0, 0.0)
Y: Vec = (0.0, 1.0, 0.0)
UP: Vec = (0.0, 0.0, 1.0)
DOWN: Vec = (0.0, 0.0, -1.0)
LEFT: Vec = (-1.0, 0.0, 0.0)
FRONT: Vec = (0.0, -1.0, 0.0)
NOTE = Finding("roof_load", "standing")


def pyramid(spec: RoofSpec, shape: Pyramid) -> Assembly:
    """Equal panels, mitered along the seams, their eaves level, plumb or square. Each is a stave with its grain up the slope."""
    n, thick = shape.sides, spec.thickness_mm
    pitch = atan2(shape.height_mm, shape.across_mm / 2)
    slant = hypot(shape.height_mm, shape.across_mm / 2)
    corners = regular_corners(n, shape.across_mm / 2)
    boards = []
    for i, letter in enumerate(spec.letters):
        (ax, ay), (bx, by) = corners[i], corners[(i + 1) % n]
        along = unit((bx - ax, by - ay, 0.0))
        level: Vec = (along[1], -along[0], 0.0)
        out: Vec = (level[0] * sin(pitch), level[1] * sin(pitch), cos(pitch))
        up: Vec = (-level[0] * cos(pitch), -level[1] * cos(pitch), sin(pitch))
        foot: Vec = ((ax + bx) / 2, (ay + by) / 2, 0.0)
        # A plumb eaves' back reaches lower than its face.
        extra = thick * tan(pitch) if shape.eaves == "plumb" else 0.0
        middle = add(foot, add(scale(up, (slant - extra) / 2), scale(out, -thick / 2)))
        frame = Frame(middle, along, up, out)
        eaves = {"level": Plane(DOWN, 0.0), "plumb": plane_through(foot, level), "square": None}[shape.eaves]
        rip = frame.plane_to_local(eaves) if eaves else None
        boards.append(
            Board(
                letter,
                f"Panel {letter}",
                Section(slant + extra, thick),
                frame,
                stave=True,
                role="panel",
                lower_rip=rip,
                shows=True,
            )
        )
    joints = []
    for i in range(n):
        k = (i + 1) % n
        faces = [boards[j].side_in_world("face") for j in (i, k)]
        try:
            miter = joint_plane(faces[0], faces[1], faces[0].moved(-thick), faces[1].moved(-thick))
        except CutError:
            raise SpecError("roof_too_flat", ("shape.height_mm",)) from None
        boards[i], boards[k] = boards[i].with_cut("right", miter), boards[k].with_cut("left", miter.flipped())
        a, b = spec.letters[i], spec.letters[k]
        ends: tuple[tuple[str, End], ...] = ((a, "right"), (b, "left"))
        joints.append(Joint(a + b, "miter", Mating(a, "right:0"), Mating(b, "left:0"), ends))
    eaves_line = Outline("eaves", tuple(Stretch(letter, letter, "face") for letter in spec.letters), "lower", True)
    eave = Spot("A", "middle", "lower", "face")
    peak = Spot("A", "middle", "upper", "face")
    gauges: tuple[Gauge, ...] = (
        Gauge("height", eave, peak, "along", UP),
        Gauge("pitch", eave, peak, "angle", Y, UP),
        Gauge("slant", eave, peak),
        Gauge("seam", Spot("A", "left", "lower", "face"), peak),
        Gauge("eaves_side", Spot("A", "left", "lower", "face"), Spot("A", "right", "lower", "face")),
    )
    if n % 2 == 0:
        gauges += (Gauge("eaves_flats", eave, Spot(spec.letters[n // 2], "middle", "lower", "face"), "along", Y),)
    ring = Ring(tuple(spec.letters))
    made = Assembly(tuple(boards), tuple(joints), (eaves_line,), (), (ring,), (NOTE,), gauges)
    if shape.cone is None:
        return made
    cone = cone_of(hypot(*corners[0]), shape.height_mm, shape.cone.over_mm, shape.cone.lap_mm)
    laid_flat = Finding("cone_flat", "note", (), ("shape.cone",), cone.radius_mm, cone.round_deg)
    return replace(made, blanks=(cone.blank,), findings=(NOTE, laid_flat))


def lean_to(spec: RoofSpec, shape: LeanTo) -> Assembly:
    """Front, back, two sides between them, and the lid. SpecError `back_not_higher`."""
    thick, half, deep = spec.thickness_mm, shape.width_mm / 2, shape.depth_mm
    if shape.back_mm <= shape.front_mm:
        raise SpecError(
            "back_not_higher", (spec.field_of("back_height", "shape.back_mm"),), mm=shape.back_mm, limit_mm=shape.front_mm
        )
    if 2 * thick >= min(deep, shape.width_mm):
        raise SpecError("too_thick_here", ("thickness_mm",), mm=thick, limit_mm=min(deep, shape.width_mm) / 2)
    rise = shape.back_mm - shape.front_mm
    slope = plane_through((0.0, 0.0, shape.front_mm), (0.0, -rise, deep))
    pitch = atan2(rise, deep)

    def upright(id: str, name: str, at: float, out: Vec, high: float) -> Board:
        """Front or back: full width, its upper edge ripped to the lid."""
        along: Vec = (-out[1], 0.0, 0.0)
        inside = at - out[1] * thick / 2
        frame = Frame((0.0, inside, high / 2), along, UP, out)
        board = Board(id, name, Section(high, thick), frame, role="wall", shows=True)
        board = board.with_cut("left", _end(along, -1, half)).with_cut("right", _end(along, 1, half))
        return replace(board, upper_rip=frame.plane_to_local(slope))

    # The back is highest inside or outside: its outer face is; the front's inner face stands higher than its outer one.
    front = upright("front", "Front", 0.0, FRONT, shape.front_mm + thick * tan(pitch))
    back = upright("back", "Back", deep, Y, shape.back_mm)
    boards, joints = [front, back], []
    tops: dict[str, Mating] = {}
    within = [Plane(FRONT, -thick), Plane(Y, deep - thick), slope]
    for id, name, out in (("left", "Left side", LEFT), ("right", "Right side", X)):
        along: Vec = (0.0, out[0], 0.0)
        frame = Frame((out[0] * (half - thick / 2), deep / 2, shape.back_mm / 2), along, UP, out)
        reach = deep / 2 + 1.0
        side = cut_by(
            Board(id, name, Section(shape.back_mm, thick), frame, panel=True, reach=(-reach, reach), role="side", shows=True),
            within,
        )
        boards.append(side)
        between = {frame.plane_to_local(plane): on for plane, on in zip(within, ("front", "back"), strict=False)}
        for end in ("left", "right"):
            for i, cut in enumerate(side.left if end == "left" else side.right):
                on = between.get(cut)
                if on is None:  # it lies under the lid
                    tops[id] = Mating(id, f"{end}:{i}")
                else:
                    joints.append(Joint(f"{id} {on}", "butt", Mating(id, f"{end}:{i}"), Mating(on, "back"), ()))
    down: Vec = (0.0, cos(pitch), sin(pitch))
    rims = {"A": plane_through((0.0, 0.0, shape.front_mm), scale(down, -1.0)), "B": Plane(X, half)}
    rims |= {"C": plane_through((0.0, deep, shape.back_mm), down), "D": Plane(LEFT, half)}
    on_top = {"A": Mating("front", "upper"), "B": tops["right"], "C": Mating("back", "upper"), "D": tops["left"]}
    added = Added()
    middle: Vec = (0.0, deep / 2, (shape.front_mm + shape.back_mm) / 2)
    lay_cover(added, shape.cover, Frame(middle, X, down, slope.normal), rims, on_top, ("lid", "shape.cover"))
    boards += added.boards
    joints += added.joints
    low, high = Spot("front", "left", "upper", "face"), Spot("back", "right", "upper", "face")
    gauges = (
        Gauge("body_width", Spot("front", "left"), Spot("front", "right")),
        Gauge("body_depth", Spot("front", "left", "lower", "face"), Spot("back", "right", "lower", "face"), "along", Y),
        Gauge("front_height", Spot("front", "left", "lower", "face"), low, "along", UP),
        Gauge("back_height", Spot("back", "right", "lower", "face"), high, "along", UP),
        Gauge("pitch", low, high, "angle", Y, UP),
        Gauge("slope_length", low, high),
    )
    return Assembly(tuple(boards), tuple(joints), (), (), (), (NOTE,), gauges)


def _end(along: Vec, sense: int, half: float) -> Plane:
    return Plane(scale(along, float(sense)), half)
