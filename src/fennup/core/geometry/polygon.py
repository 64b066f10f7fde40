"""Polygons in the plane."""

from math import cos, hypot, pi, sin

from fennup.core.geometry.vec import Point2
from fennup.core.tolerances import ON_LINE


def regular_corners(sides: int, apothem: float = 1.0) -> list[Point2]:
    """Corners of the regular polygon whose first side lies level at the bottom, anticlockwise from its left end."""
    radius = apothem / cos(pi / sides)
    return [(radius * sin(a), -radius * cos(a)) for a in (2 * pi * i / sides - pi / sides for i in range(sides))]


def circle(middle: Point2, diameter: float, corners: int = 48) -> tuple[Point2, ...]:
    """A circle as a fine polygon whose corners lie on it, anticlockwise."""
    turns = (2 * pi * i / corners for i in range(corners))
    return tuple((middle[0] + diameter / 2 * cos(a), middle[1] + diameter / 2 * sin(a)) for a in turns)


def hull(points: list[Point2]) -> tuple[Point2, ...]:
    """Convex outline, anticlockwise (monotone chain)."""
    ordered = sorted({(round(x, 9), round(y, 9)) for x, y in points})

    def half(run: list[Point2]) -> list[Point2]:
        kept: list[Point2] = []
        for p in run:
            while len(kept) > 1 and _turn(kept[-2], kept[-1], p) <= ON_LINE:
                kept.pop()
            kept.append(p)
        return kept[:-1]

    return tuple(half(ordered) + half(ordered[::-1]))


def _turn(a: Point2, b: Point2, c: Point2) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def beyond_hull(points: list[Point2], place: Point2) -> float:
    """How far a place lies outside the convex hull of some points, mm; negative inside, how deep. Infinite without points
    that span an area."""
    outline = hull(points)
    if len(outline) < 3:
        return float("inf")
    sides = zip(outline, (*outline[1:], outline[0]), strict=True)
    return max(_turn(b, a, place) / hypot(b[0] - a[0], b[1] - a[1]) for a, b in sides)
