"""Polygons in the plane."""

from collections.abc import Sequence
from itertools import pairwise
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


def signed_area(ring: Sequence[Point2]) -> float:
    """Of a closed outline, mm^2; under 0 where it goes round clockwise."""
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in pairwise([*ring, ring[0]])) / 2.0


def without_straight(ring: Sequence[Point2]) -> list[Point2]:
    """Its corners alone: no place twice in a row, none on the straight line between its neighbours, no way out and back again."""
    while True:
        once = [p for k, p in enumerate(ring) if hypot(p[0] - ring[k - 1][0], p[1] - ring[k - 1][1]) > ON_LINE]
        count = len(once)
        bent = [p for k, p in enumerate(once) if abs(_turn(once[k - 1], p, once[(k + 1) % count])) > ON_LINE]
        if len(bent) == len(ring):
            return bent
        ring = bent


def is_simple(ring: Sequence[Point2]) -> bool:
    """Whether a closed outline neither crosses nor touches itself."""
    sides = list(pairwise([*ring, ring[0]]))
    count = len(sides)
    return not any(
        _meet(*sides[i], *sides[j]) for i in range(count) for j in range(i + 2, count) if not (i == 0 and j == count - 1)
    )


def _meet(a: Point2, b: Point2, c: Point2, d: Point2) -> bool:
    """Whether two stretches have a place in common."""
    ends = (_turn(a, b, c), _turn(a, b, d), _turn(c, d, a), _turn(c, d, b))
    if ends[0] * ends[1] < 0 and ends[2] * ends[3] < 0:
        return True
    on = zip(ends, (c, d, a, b), ((a, b), (a, b), (c, d), (c, d)), strict=True)
    return any(abs(turn) < ON_LINE and _between(p, *stretch) for turn, p, stretch in on)


def _between(p: Point2, a: Point2, b: Point2) -> bool:
    """Whether a place on the line through two others lies between them."""
    return all(min(a[k], b[k]) - ON_LINE <= p[k] <= max(a[k], b[k]) + ON_LINE for k in (0, 1))


def convex_parts(ring: Sequence[Point2]) -> tuple[tuple[Point2, ...], ...]:
    """A simple outline, anticlockwise, as convex pieces that share whole sides: cut into triangles at its ears, and those laid together again as
    long as they stay convex (Hertel and Mehlhorn), so that there are at most four times as many as there need be."""
    todo, found = _triangles(without_straight(ring)), []
    while todo:
        part = todo.pop()
        for other in todo:
            if whole := _laid_together(part, other):
                todo.remove(other)
                todo.append(whole)
                break
        else:
            found.append(tuple(part))
    return tuple(found)


def _triangles(ring: list[Point2]) -> list[list[Point2]]:
    """The outline as triangles between its own corners: the ear whose smallest height is largest goes first."""
    left, found = list(ring), []
    while len(left) > 3:
        best, place = 0.0, -1
        for k, p in enumerate(left):
            a, b = left[k - 1], left[(k + 1) % len(left)]
            longest = max(hypot(q[0] - r[0], q[1] - r[1]) for q, r in ((a, p), (p, b), (b, a)))
            height = _turn(a, p, b) / longest
            if height > best and not any(_inside(q, (a, p, b)) for q in left if q not in (a, p, b)):
                best, place = height, k
        if place < 0:
            break
        found.append([left[place - 1], left[place], left[(place + 1) % len(left)]])
        del left[place]
    return [*found, left]


def _inside(p: Point2, triangle: tuple[Point2, Point2, Point2]) -> bool:
    """Whether a place lies in a triangle or on its rim."""
    a, b, c = triangle
    return all(_turn(q, r, p) >= -ON_LINE for q, r in ((a, b), (b, c), (c, a)))


def _laid_together(a: list[Point2], b: list[Point2]) -> list[Point2] | None:
    """Two convex pieces that share a side as one, if that is convex."""
    for i, p in enumerate(a):
        q = a[(i + 1) % len(a)]
        if q in b and b[(b.index(q) + 1) % len(b)] == p:
            start = b.index(p)
            others = [b[(start + k) % len(b)] for k in range(1, len(b) - 1)]
            whole = [*a[: i + 1], *others, *a[i + 1 :]]
            count = len(whole)
            if all(_turn(whole[k - 1], whole[k], whole[(k + 1) % count]) > -ON_LINE for k in range(count)):
                return whole
            return None
    return None


def from_stretch(p: Point2, a: Point2, b: Point2) -> float:
    """How far a place is from a stretch."""
    (ax, ay), (bx, by) = a, b
    long2 = (bx - ax) ** 2 + (by - ay) ** 2
    part = 0.0 if long2 == 0 else max(0.0, min(1.0, ((p[0] - ax) * (bx - ax) + (p[1] - ay) * (by - ay)) / long2))
    return hypot(p[0] - ax - part * (bx - ax), p[1] - ay - part * (by - ay))
