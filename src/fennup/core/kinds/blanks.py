"""Sheet that is folded or rolled, laid flat: a lining for a ring of walls, a cone."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import acos, ceil, cos, degrees, hypot, pi, sin, sqrt, tan

from fennup.core.assembly.model import Blank
from fennup.core.drawing.view import Dimension, Shape, View
from fennup.core.errors import SpecError
from fennup.core.geometry.polygon import circle
from fennup.core.geometry.vec import Point2, Vec, dot, sub
from fennup.core.tolerances import NOTHING

OFF_MM = 0.05  # by which a curve's polygon lies inside it at most
SLOPE = pi / 4  # of a tab's ends
FREE = 0.9  # of the angle free beside a fold that a tab takes at most


def lining_blank(
    bottom: Sequence[Vec], rim: Sequence[Vec], lap: float, holes: tuple[tuple[Point2, float], ...], path: str
) -> Blank:
    """A bottom with a flap at each side that folds up along it: corners of both in the same order, anticlockwise. At one end of every flap a tab,
    `lap` wide, goes round the corner behind the next one. SpecError `tab_no_room`."""
    count = len(bottom)
    flat: list[Point2] = [(p[0], p[1]) for p in bottom]
    tops = [_unfolded(bottom, rim, i) for i in range(count)]
    cut: list[Point2] = []
    folds: list[tuple[Point2, Point2]] = [(flat[i], flat[(i + 1) % count]) for i in range(count)]
    for i in range(count):
        k = (i + 1) % count
        corner, end = flat[k], tops[i][1]
        cut += [flat[i], *tops[i]]
        up = (end[0] - corner[0], end[1] - corner[1])
        long = hypot(*up)
        way = (up[0] / long, up[1] / long)
        following = (tops[k][0][0] - corner[0], tops[k][0][1] - corner[1])
        free = acos(max(-1.0, min(1.0, (way[0] * following[0] + way[1] * following[1]) / hypot(*following))))
        start = lap / tan(min(SLOPE, free * FREE)) if free > NOTHING else long
        if lap > NOTHING and start + lap >= long:
            raise SpecError("tab_no_room", (f"{path}.lap_mm",), mm=lap, limit_mm=lap * long / (start + lap))
        if lap > NOTHING:
            side = (-way[1], way[0])  # out of the flap, on its way round
            edge = [
                (corner[0] + way[0] * at + side[0] * lap, corner[1] + way[1] * at + side[1] * lap) for at in (long - lap, start)
            ]
            cut += edge
            folds.append((corner, end))
    return Blank("lining", "Lining", tuple(cut), tuple(folds), holes)


def _unfolded(bottom: Sequence[Vec], rim: Sequence[Vec], i: int) -> tuple[Point2, Point2]:
    """Where a flap's upper corners come to lie, turned out about its bottom edge."""
    k = (i + 1) % len(bottom)
    (ax, ay, _), (bx, by, _) = bottom[i], bottom[k]
    long = hypot(bx - ax, by - ay)
    along, out = ((bx - ax) / long, (by - ay) / long), ((by - ay) / long, (ax - bx) / long)
    made = []
    for top in (rim[i], rim[k]):
        off = sub(top, bottom[i])
        on = off[0] * along[0] + off[1] * along[1]
        up = sqrt(max(0.0, dot(off, off) - on * on))
        made.append((ax + along[0] * on + out[0] * up, ay + along[1] * on + out[1] * up))
    return made[0], made[1]


@dataclass(frozen=True)
class Cone:
    """A cone of sheet laid flat: the radius of its sector, how far that goes round, degrees, and how wide the lap is."""

    radius_mm: float
    round_deg: float
    lap_mm: float

    @property
    def blank(self) -> Blank:
        """The sector, its arc a polygon, with a lap along its second side."""
        turn, radius = self.round_deg * pi / 180.0, self.radius_mm
        step = 2 * acos(max(0.0, 1.0 - OFF_MM / radius))
        number = max(8, ceil(turn / step))
        arc = [(radius * cos(turn * i / number), radius * sin(turn * i / number)) for i in range(number + 1)]
        off = radius * (1.0 - cos(turn / number / 2))
        out = (-sin(turn), cos(turn))
        lap = [(p[0] + out[0] * self.lap_mm, p[1] + out[1] * self.lap_mm) for p in (arc[-1], (0.0, 0.0))]
        fold = ((0.0, 0.0), arc[-1])
        return Blank("cone", "Cone of sheet", ((0.0, 0.0), *arc, *(lap if self.lap_mm else ())), (fold,), (), off)


def cone_of(base_mm: float, height_mm: float, over_mm: float, lap_mm: float) -> Cone:
    """The cone over a circle of that radius, so high, and longer down its slope by `over_mm`."""
    slant = hypot(base_mm, height_mm)
    return Cone(slant + over_mm, degrees(2 * pi * base_mm / slant), lap_mm)


def blank_view(blank: Blank) -> View:
    """The sheet as it is cut, with its overall sizes."""
    xs, ys = ([p[k] for p in blank.cut] for k in (0, 1))
    shapes = [Shape("found", blank.cut, True), *(Shape("unseen", fold) for fold in blank.folds)]
    shapes += [Shape("hole", circle(middle, wide), True) for middle, wide in blank.holes]
    low, right = min(ys), max(xs)
    sizes = (
        Dimension("blank_wide", "blank_wide", (min(xs), low), (right, low), right - min(xs), "mm", "fixed", (0.0, -1.0), 1.0),
        Dimension("blank_high", "blank_high", (right, low), (right, max(ys)), max(ys) - low, "mm", "fixed", (1.0, 0.0), 1.0),
    )
    return View("blank", tuple(shapes), (), sizes)
