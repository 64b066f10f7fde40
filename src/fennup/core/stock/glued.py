"""Pieces of wood laid against each other and glued up: one section of several."""

from collections.abc import Iterable, Sequence
from itertools import pairwise
from math import atan2

from fennup.core.geometry.vec import Point2

DIGITS = 9  # of a mm: places that are alike to these are one
Side = tuple[Point2, Point2]


def united(rings: Iterable[Sequence[Point2]]) -> tuple[tuple[Point2, ...], ...]:
    """The outlines of what some outlines make together that touch along their sides and nowhere overlap: all anticlockwise; one where they hang together and enclose
    nothing, and a hollow inside goes round clockwise."""
    parts = [[(round(y, DIGITS), round(z, DIGITS)) for y, z in ring] for ring in rings]
    corners = {corner for part in parts for corner in part}
    sides: dict[Side, None] = {}
    for part in parts:
        for a, b in zip(part, (*part[1:], part[0]), strict=True):
            for piece in _split(a, b, corners):
                if (piece[1], piece[0]) in sides:
                    del sides[piece[1], piece[0]]  # two lie on each other here
                else:
                    sides[piece] = None
    return tuple(_loops(list(sides)))


def _split(a: Point2, b: Point2, corners: Iterable[Point2]) -> list[Side]:
    """A side in pieces, from each corner of any outline on it to the next."""
    way = (b[0] - a[0], b[1] - a[1])
    long2 = way[0] ** 2 + way[1] ** 2
    near = 10.0**-DIGITS * long2**0.5
    on = [
        (((p[0] - a[0]) * way[0] + (p[1] - a[1]) * way[1]) / long2, p)
        for p in corners
        if abs((p[0] - a[0]) * way[1] - (p[1] - a[1]) * way[0]) <= near
    ]
    places = [a, *(p for share, p in sorted(on) if 0.0 < share < 1.0), b]
    return list(pairwise(places))


def _loops(sides: list[Side]) -> list[tuple[Point2, ...]]:
    """Sides put together to closed outlines, at a corner where several begin along the one farthest to the left: so that those come apart that only touch there."""
    found = []
    while sides:
        first = sides.pop(0)
        loop = [first]
        while loop[-1][1] != first[0]:
            here = loop[-1]
            onward = [side for side in sides if side[0] == here[1]]
            if not onward:
                break
            following = max(onward, key=lambda side: _turn(here, side))
            sides.remove(following)
            loop.append(following)
        found.append(tuple(side[0] for side in loop))
    return found


def _turn(a: Side, b: Side) -> float:
    """By how much one turns to the left from one side to the next, radians."""
    (ax, ay), (bx, by) = ((s[1][0] - s[0][0], s[1][1] - s[0][1]) for s in (a, b))
    return atan2(ax * by - ay * bx, ax * bx + ay * by)
