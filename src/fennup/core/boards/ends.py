"""How the ends of pieces lie against each other in a board: what two neighbours take between them, cut by cut.

A piece lies along x in a bar of wood, its middle line on the bar's. An end is the cuts that make it, each a plane
x = at + up y + out z, y across the bar and z through it, mm. `at` counts from where the end crosses the middle line.
"""

from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations
from math import hypot
from typing import Literal

from fennup.core.geometry.plane import Plane
from fennup.core.tolerances import NOTHING, SAME

DIGITS = 11  # of slopes and mm: two ends alike to these are one


@dataclass(frozen=True, order=True)
class Slant:
    """One cut of an end: x = at + up y + out z."""

    at: float
    up: float
    out: float

    @property
    def stretch(self) -> float:
        """How much longer a slab square to the cut is along x than it is thick."""
        return hypot(1.0, self.up, self.out)


# The cuts of one end, sorted; a right end is where the first of them ends the wood, a left one where the last does.
End = tuple[Slant, ...]
SQUARE: End = (Slant(0.0, 0.0, 0.0),)
How = Literal["shared", "left_first", "right_first", "square_first"]


@dataclass(frozen=True)
class Gap:
    """What lies between two neighbours: along the middle line from one end to the other, and how it is cut: with one cut for both,
    with one piece's own cut first (its number among that end's), the other trimmed when they are apart, or with a square one first."""

    mm: float
    how: How
    first: int = 0


def ends_of(planes: tuple[Plane, ...]) -> tuple[tuple[float, End], tuple[float, End]]:
    """(where the left end crosses the middle line, the end), and the same of the right one. ValueError for an open end."""
    found = []
    for sign in (-1.0, 1.0):
        cuts = [(p.offset / p.normal[0], -p.normal[1] / p.normal[0], -p.normal[2] / p.normal[0])
                for p in planes if p.normal[0] * sign > NOTHING]  # fmt: skip
        if not cuts:
            raise ValueError("an end is open")
        at = (max if sign < 0 else min)(cut[0] for cut in cuts)
        end = tuple(sorted({Slant(_clean(a - at), _clean(u), _clean(o)) for a, u, o in cuts}))
        found.append((at, end))
    return found[0], found[1]


def _clean(value: float) -> float:
    return round(value, DIGITS) + 0.0


def corners(width: float, thick: float) -> tuple[tuple[float, float], ...]:
    """The four long corners of a bar: (y, z)."""
    return tuple((y, z) for y in (-width / 2, width / 2) for z in (-thick / 2, thick / 2))


def at_corner(end: End, y: float, z: float, *, right: bool) -> float:
    """Where an end crosses a line along the bar, from where it crosses the middle line."""
    return (min if right else max)(cut.at + cut.up * y + cut.out * z for cut in end)


@lru_cache(maxsize=4096)
def reach(end: End, width: float, thick: float, *, right: bool) -> float:
    """How far the end sticks out past where it crosses the middle line."""
    if right:
        return _highest(tuple((c.at, c.up, c.out) for c in end), width, thick)
    return _highest(tuple((-c.at, -c.up, -c.out) for c in end), width, thick)


@lru_cache(maxsize=16384)
def gap_between(right: End, left: End, width: float, thick: float, kerf: float, *, square: bool = False) -> Gap:
    """The least that two neighbours take between them: the `right` end of one and the `left` end of the next. With `square` a square
    cut between their tips may come first."""
    if len(right) == len(left) == 1 and abs(right[0].up - left[0].up) < SAME and abs(right[0].out - left[0].out) < SAME:
        return Gap(kerf * right[0].stretch, "shared")
    found = []
    for number, cut in enumerate(right):
        rest = tuple((cut.at + kerf * cut.stretch - c.at, cut.up - c.up, cut.out - c.out) for c in left)
        found.append(Gap(_highest(rest, width, thick), "left_first", number))
    for number, cut in enumerate(left):
        rest = tuple((c.at - cut.at + kerf * cut.stretch, c.up - cut.up, c.out - cut.out) for c in right)
        found.append(Gap(_highest(rest, width, thick), "right_first", number))
    if square:
        tips = reach(right, width, thick, right=True) + reach(left, width, thick, right=False)
        found.append(Gap(tips + kerf, "square_first"))
    best = min(gap.mm for gap in found)
    return next(gap for gap in found if gap.mm < best + SAME)


def _highest(planes: tuple[tuple[float, float, float], ...], width: float, thick: float) -> float:
    """The highest that the lowest of some planes a + b y + c z comes over the bar's section: at a corner, or where planes cross."""
    y_most, z_most = width / 2, thick / 2
    spots = list(corners(width, thick))
    lines = [tuple(p - q for p, q in zip(one, other, strict=True)) for one, other in combinations(planes, 2)]
    for a, b, c in lines:
        spots += [((-a - c * z) / b, z) for z in (-z_most, z_most) if abs(b) > NOTHING]
        spots += [(y, (-a - b * y) / c) for y in (-y_most, y_most) if abs(c) > NOTHING]
    for (a, b, c), (d, e, f) in combinations(lines, 2):
        across = b * f - c * e
        if abs(across) > NOTHING:
            spots.append(((c * d - a * f) / across, (a * e - b * d) / across))
    inside = [(y, z) for y, z in spots if abs(y) <= y_most + SAME and abs(z) <= z_most + SAME]
    return max(min(a + b * y + c * z for a, b, c in planes) for y, z in inside)
