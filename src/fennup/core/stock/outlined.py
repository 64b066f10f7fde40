"""An outline as a section: the rectangle round it, less what it leaves out at the corners and in the sides. What is a rabbet, a groove, a chamfer, a
rounding or a cove is called so, as then its figures can be typed; all else is milled, point by point."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from fennup.core.errors import SpecError
from fennup.core.geometry.polygon import from_stretch, is_simple, signed_area, without_straight
from fennup.core.geometry.vec import Point2
from fennup.core.stock.ploughed import (
    CORNERS,
    CURVE_MM,
    MOST_CORNERS,
    Chamfer,
    Corner,
    Cove,
    Groove,
    Long,
    Milled,
    Ploughed,
    Rabbet,
    Round,
)
from fennup.core.stock.section import ROUND, Section
from fennup.core.tolerances import ON_LINE

ON_SIDE_MM = 1e-4  # so near to the rectangle a corner of the outline lies on it
Turning = Literal["quarter", "over"]


@dataclass(frozen=True)
class Reading:
    """How exactly an outline is read: corners so near to the rectangle lie on it, a form so near to the line is taken for it, figures have so many digits."""

    on_side_mm: float = ON_SIDE_MM
    near_mm: float = 2 * CURVE_MM
    digits: int = 6


AS_DRAWN = Reading()
EXACTLY = Reading(ON_LINE, ON_LINE, 9)  # of what was worked out


def section_of(ring: Sequence[Point2], how: Reading = AS_DRAWN) -> Section:
    """The section whose wood fills an outline, (y, z) in mm wherever it lies. SpecError `outline_crosses`, `outline_fine` with how many corners one
    hollow has."""
    ring = without_straight(ring if signed_area(ring) > 0 else ring[::-1])
    if len(ring) < 3 or not is_simple(ring):
        raise SpecError("outline_crosses", ("content",))
    (low, high), (under, over) = (((min(v), max(v))) for v in zip(*ring, strict=True))
    wide, thick = round(high - low, how.digits), round(over - under, how.digits)
    middle = ((low + high) / 2, (under + over) / 2)
    placed = [(_snapped(y - middle[0], wide / 2, how), _snapped(z - middle[1], thick / 2, how)) for y, z in ring]
    placed = without_straight(placed)
    return Section(wide, thick, tuple(_taken(placed, wide, thick, how)))


def turned(section: Section, how: Turning) -> Section:
    """The same wood a quarter round, what was its upper edge now its face; or turned over, its upper edge where the lower was, its face up as it was."""
    if how == "quarter":
        return section_of([(-z, y) for y, z in section.outline])
    return section_of([(-y, z) for y, z in section.outline])


def _snapped(value: float, half: float, how: Reading) -> float:
    """A place that lies on a side but for so much, on it; any other where it can be said in figures from either side."""
    return next((side for side in (half, -half) if abs(value - side) < how.on_side_mm), round(value + half, how.digits) - half)


def _sides(p: Point2, y: float, z: float) -> list[str]:
    """The sides of the rectangle that a corner of the outline lies on, in the order of the way round: none inside, two at a corner."""
    found = [name for name, on in (("back", p[1] == -z), ("upper", p[0] == y), ("face", p[1] == z), ("lower", p[0] == -y)) if on]
    return found[::-1] if found == ["back", "lower"] else found


def _taken(ring: list[Point2], wide: float, thick: float, how: Reading) -> Iterator[Ploughed]:
    """What lies between each place where the outline lies on the rectangle and the next."""
    y, z = wide / 2, thick / 2
    first = next(k for k, p in enumerate(ring) if _sides(p, y, z))
    ring = [*ring[first:], *ring[: first + 1]]
    touching = [k for k, p in enumerate(ring) if _sides(p, y, z)]
    for i, j in pairwise(touching):
        run = ring[i : j + 1]
        leaves, comes = _sides(run[0], y, z)[-1], _sides(run[-1], y, z)[0]
        if leaves == comes and len(run) == 2:
            continue
        at = leaves if leaves == comes else ROUND[(ROUND.index(leaves) + 1) % len(ROUND)]
        yield _named(at, _path(at, run, (y, z), how.digits), wide, thick, how)  # type: ignore[arg-type]


def _path(at: str, run: list[Point2], half: Point2, digits: int) -> list[Point2]:
    """A stretch of the way round in the directions of its corner or side: what `Section.placed` puts there again."""
    (y, z), (side, _, edge) = half, at.partition("_")
    if edge:
        path = [(y - p[0] if edge == "upper" else y + p[0], z - p[1] if side == "face" else z + p[1]) for p in run]
        path = path if at in ("back_upper", "face_lower") else path[::-1]
    elif side in ("face", "back"):
        path = [(y + p[0], z - p[1] if side == "face" else z + p[1]) for p in run]
    else:
        path = [(z + p[1], y - p[0] if side == "upper" else y + p[0]) for p in run]
    if not edge and side in ("face", "lower"):
        path = path[::-1]
    return [(max(0.0, round(a, digits)), max(0.0, round(b, digits))) for a, b in path]


def _named(at: Corner | Long, path: list[Point2], wide: float, thick: float, how: Reading) -> Ploughed:
    """What takes a path, by its form where it has one with figures of its own."""
    for cut in _candidates(at, path, wide, thick, how.digits):
        (bite,) = cut.bites(wide, thick)
        # Where a rounding leaves its sides no drawing says exactly: both go on along them.
        lines = [path[0], *bite.path, path[-1]], [bite.path[0], *path, bite.path[-1]]
        if bite.at == at and _farthest(*lines) <= how.near_mm:
            return cut
    if len(path) > MOST_CORNERS:
        raise SpecError("outline_fine", ("content",), count=len(path), most=MOST_CORNERS)
    return Milled(at=at, path=tuple(path))


def _candidates(at: Corner | Long, path: list[Point2], wide: float, thick: float, digits: int) -> Iterator[Ploughed]:
    """The forms that could begin and end there."""
    (start, _), (far, deep) = path[0], path[-1]
    if at in CORNERS:
        if start < wide and deep < thick:
            yield Rabbet(corner=at, width_mm=start, depth_mm=deep)
            yield Chamfer(corner=at, width_mm=start, depth_mm=deep)
        radius = max(start, deep)
        if radius < min(wide, thick):
            yield Round(corner=at, radius_mm=radius)
            yield Cove(corner=at, radius_mm=radius)
    elif far > start > 0:
        yield Groove(side=at, from_mm=start, width_mm=round(far - start, digits), depth_mm=max(b for _, b in path))


def _farthest(a: Sequence[Point2], b: Sequence[Point2]) -> float:
    """How far the farthest corner of either line is from the other line."""
    return max(*(_off(p, b) for p in a), *(_off(p, a) for p in b))


def _off(p: Point2, line: Sequence[Point2]) -> float:
    return min(from_stretch(p, a, b) for a, b in pairwise(line))
