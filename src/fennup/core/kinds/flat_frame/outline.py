"""Where the sides of a flat frame run: from what was said to one baseline and an angle of turn per side.

Only here are sizes turned into places. Everything that is read off a part comes from its solid, never from here.
"""

from dataclasses import dataclass
from math import atan2, cos, degrees, hypot, radians, sin

from fennup.core.errors import SpecError
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.polygon import regular_corners
from fennup.core.geometry.vec import Point2
from fennup.core.kinds.flat_frame.pins import pinned_outline
from fennup.core.kinds.flat_frame.shapes import FloatingRound, HeldPanel, HeldRound, Irregular, LineSizes, Rectangle, Regular
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec
from fennup.core.parts.measures import measure_of


@dataclass(frozen=True)
class Side:
    """One side of the outline: where it starts and ends, which way it runs, and how far the wood lies either side.

    `inner` and `outer` are distances outwards from the baseline to the opening edge and to the outer edge.
    """

    letter: str
    start: Point2
    end: Point2
    way: Point2
    inner: float
    outer: float

    def line(self, through: Point2, way: Point2, outwards: float) -> Plane:
        """The upright plane `outwards` of a line through a point; its normal points out of the frame."""
        normal = (way[1], -way[0], 0.0)
        return Plane(normal, normal[0] * through[0] + normal[1] * through[1] + outwards)


@dataclass(frozen=True)
class Baseline:
    """The sides in order. `misfit` is False where the last side's end is the first one's start, at the right angle.

    `turns_deg[i]` is the outside angle between side i and the next. `misfits`, `spare`, `free`: see pins.
    """

    sides: tuple[Side, ...]
    turns_deg: tuple[float, ...]
    misfit: bool = False
    misfits: tuple[int, ...] = ()
    spare: tuple[int, ...] = ()
    free: int = 0


def unit_measures(sides: int) -> dict[str, float]:
    """What each named measure reads on the regular polygon of apothem 1; every size of it grows in proportion."""
    corners = regular_corners(sides)

    def apart(i: int, j: int) -> float:
        return hypot(corners[i][0] - corners[j][0], corners[i][1] - corners[j][1])

    radius = hypot(*corners[0])
    read = {
        "flats": 2.0,
        "corners": 2 * radius,
        "side": apart(0, 1),
        "diagonal": max(apart(0, i) for i in range(sides)),
    }
    return read | ({"reach": 1.0 + radius} if sides % 2 else {})


def baseline(spec: FlatFrameSpec) -> Baseline:
    """The sides of any flat frame. SpecError `no_opening`, `play_too_great`, or what the pins raise."""
    shape = spec.shape
    if isinstance(shape, Regular):
        line, apothem = given_line(spec, shape)
        return _ring(spec, regular_corners(shape.sides, apothem), line)
    if isinstance(shape, Rectangle):
        return _ring(spec, _rectangle(spec, shape), "opening")
    pinned = pinned_outline(spec, shape)
    if not pinned.misfits:
        ring = _ring(spec, list(pinned.corners), shape.line)
        return Baseline(ring.sides, ring.turns_deg, False, (), pinned.spare, pinned.free)
    sides = _chain(spec, pinned.corners[0], _way(pinned.corners[0], pinned.corners[1]), pinned.sides_mm, pinned.turns_deg)
    return Baseline(sides, pinned.turns_deg, True, pinned.misfits, pinned.spare, pinned.free)


def given_line(spec: FlatFrameSpec, shape: Regular) -> tuple[str, float]:
    """The line that was given, opening or outside, and half of what it is across flats."""
    size = shape.size
    unit = unit_measures(shape.sides)
    if isinstance(size, HeldRound):
        apothem = (size.object_mm + size.play_mm) / unit["flats"] - spec.shift_mm
        if apothem <= 0:
            field = spec.recess.field if spec.recess else "rabbet.width_mm"
            raise SpecError("rabbet_covers_all", (field,), mm=spec.shift_mm, limit_mm=apothem + spec.shift_mm)
        return "opening", apothem
    if isinstance(size, FloatingRound):
        return "opening", (size.object_mm + 2 * size.reveal_mm) / unit["flats"]
    by = measure_of(size.by)
    return by.line, size.mm / unit[by.quantity]


def _rectangle(spec: FlatFrameSpec, shape: Rectangle) -> list[Point2]:
    """The opening's corners about the middle of the opening."""
    size = shape.size
    front, right, back, left = (spec.width_of(side) for side in "ABCD")
    if isinstance(size, LineSizes):
        width, depth = size.width_mm, size.depth_mm
        if size.by == "outside":
            for value, pair, field in ((width, "BD", "width_mm"), (depth, "AC", "depth_mm")):
                taken = sum(spec.width_of(side) for side in pair)
                if value <= taken:
                    rails = tuple(f"rails.{side}.width_mm" for side in pair if side in spec.rails) or ("board.width_mm",)
                    raise SpecError("no_opening_between", (*rails, f"shape.size.{field}"), mm=taken, limit_mm=value)
            width, depth = width - left - right, depth - front - back
    else:
        sizes = (size.object_width_mm, size.object_depth_mm)
        if isinstance(size, HeldPanel):
            width, depth = (mm + play - 2 * spec.shift_mm for mm, play in zip(sizes, size.plays_mm, strict=True))
        else:
            width, depth = (mm + 2 * size.reveal_mm for mm in sizes)
        if width <= 0 or depth <= 0:
            field = spec.recess.field if spec.recess else "rabbet.width_mm"
            raise SpecError("rabbet_covers_all", (field,), mm=spec.shift_mm, limit_mm=min(width, depth) / 2 + spec.shift_mm)
    x, y = width / 2, depth / 2
    return [(-x, -y), (x, -y), (x, y), (-x, y)]


def _way(a: Point2, b: Point2) -> Point2:
    """Unit direction from a to b."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    length = hypot(dx, dy)
    return (dx / length, dy / length)


def turned(way: Point2, deg: float) -> Point2:
    """A direction turned to the left."""
    c, s = cos(radians(deg)), sin(radians(deg))
    return (way[0] * c - way[1] * s, way[0] * s + way[1] * c)


def _side(spec: FlatFrameSpec, letter: str, start: Point2, end: Point2, way: Point2, line: str) -> Side:
    width = spec.width_of(letter)
    inner, outer = (0.0, width) if line == "opening" else (-width, 0.0)
    if line == "held" and isinstance(spec.shape, Irregular):  # what it holds reaches into the recess but for its play
        inner = spec.shape.play_mm / 2 - spec.shift_mm
        outer = inner + width
    return Side(letter, start, end, way, inner, outer)


def _ring(spec: FlatFrameSpec, corners: list[Point2], line: str) -> Baseline:
    """A closed outline through its corners."""
    n = len(corners)
    ends = [corners[(i + 1) % n] for i in range(n)]
    ways = [_way(a, b) for a, b in zip(corners, ends, strict=True)]
    turns = []
    for i, way in enumerate(ways):
        nxt = ways[(i + 1) % n]
        turns.append(degrees(atan2(way[0] * nxt[1] - way[1] * nxt[0], way[0] * nxt[0] + way[1] * nxt[1])))
    parts = zip(spec.letters, corners, ends, ways, strict=True)
    return Baseline(tuple(_side(spec, *part, line) for part in parts), tuple(turns))


def _chain(
    spec: FlatFrameSpec, start: Point2, way: Point2, lengths: tuple[float, ...], turns_deg: tuple[float, ...]
) -> tuple[Side, ...]:
    """Sides laid one after another: the last need not come back to the start."""
    line = spec.shape.line if isinstance(spec.shape, Irregular) else "opening"
    sides = []
    for letter, length, turn in zip(spec.letters, lengths, turns_deg, strict=True):
        end = (start[0] + way[0] * length, start[1] + way[1] * length)
        sides.append(_side(spec, letter, start, end, way, line))
        start, way = end, turned(way, turn)
    return tuple(sides)
