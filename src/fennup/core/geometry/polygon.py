"""Regular polygons in the plane."""

from math import cos, pi, sin

from fennup.core.geometry.vec import Point2


def regular_corners(sides: int, apothem: float = 1.0) -> list[Point2]:
    """Corners of the regular polygon whose first side lies level at the bottom, anticlockwise from its left end."""
    radius = apothem / cos(pi / sides)
    return [(radius * sin(a), -radius * cos(a)) for a in (2 * pi * i / sides - pi / sides for i in range(sides))]
