"""Convex solids, and the one operation that the whole kernel needs: cutting one by a plane."""

from dataclasses import dataclass
from math import atan2

from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, add, cross, dot, norm, scale, sub

ON = 1e-9


@dataclass(frozen=True)
class Facet:
    """One flat side of a solid: its corner points, anticlockwise seen from outside, its plane and what made it."""

    name: str
    plane: Plane
    points: tuple[Vec, ...]


@dataclass(frozen=True)
class Polyhedron:
    """A convex solid as its facets. No facets: nothing is left."""

    facets: tuple[Facet, ...]

    @property
    def points(self) -> list[Vec]:
        """Every corner of every facet (shared corners repeat)."""
        return [p for facet in self.facets for p in facet.points]

    def volume(self) -> float:
        """Cubic mm: the cones from the origin over every facet, by the divergence theorem."""
        return sum(f.plane.offset * polygon_area(f.points) for f in self.facets) / 3.0


def polygon_area(points: tuple[Vec, ...]) -> float:
    """Area of a flat polygon in space, mm^2."""
    total: Vec = (0.0, 0.0, 0.0)
    for i in range(1, len(points) - 1):
        total = add(total, cross(sub(points[i], points[0]), sub(points[i + 1], points[0])))
    return norm(total) / 2.0


def clip_polygon(points: tuple[Vec, ...], plane: Plane) -> tuple[Vec, ...]:
    """The part of a flat convex polygon on the kept side of the plane (Sutherland and Hodgman)."""
    sides = [plane.beyond(p) for p in points]
    kept: list[Vec] = []
    for i, here in enumerate(points):
        side, previous_side = sides[i], sides[i - 1]
        if (side > ON and previous_side < -ON) or (side < -ON and previous_side > ON):
            part = previous_side / (previous_side - side)
            kept.append(add(points[i - 1], scale(sub(here, points[i - 1]), part)))
        if side <= ON:
            kept.append(here)
    return tuple(kept) if len(kept) > 2 else ()


def clip(solid: Polyhedron, plane: Plane, name: str) -> Polyhedron:
    """The solid on the kept side of the plane, the new facet called `name`."""
    if all(plane.beyond(p) <= ON for p in solid.points):
        return solid
    kept: list[Facet] = []
    rim: list[Vec] = []
    for facet in solid.facets:
        points = clip_polygon(facet.points, plane)
        rim.extend(p for p in points if abs(plane.beyond(p)) <= 1e-7)
        if points and polygon_area(points) > 1e-12:
            kept.append(Facet(facet.name, facet.plane, points))
    if not kept or all(plane.beyond(p) >= -ON for p in solid.points):
        return Polyhedron(())
    cap = _around(rim, plane)
    if len(cap) > 2:
        kept.append(Facet(name, plane, cap))
    return Polyhedron(tuple(kept))


def _around(rim: list[Vec], plane: Plane) -> tuple[Vec, ...]:
    """The rim's points once each, anticlockwise about the plane's normal."""
    distinct: list[Vec] = []
    for point in rim:
        if all(norm(sub(point, other)) > 1e-7 for other in distinct):
            distinct.append(point)
    if len(distinct) < 3:
        return ()
    centre = scale(
        (sum(p[0] for p in distinct), sum(p[1] for p in distinct), sum(p[2] for p in distinct)), 1.0 / len(distinct)
    )
    first = sub(distinct[0], centre)
    second = cross(plane.normal, first)
    return tuple(sorted(distinct, key=lambda p: atan2(dot(sub(p, centre), second), dot(sub(p, centre), first))))


def shared_volume(a: Polyhedron, b: Polyhedron) -> float:
    """Cubic mm that two convex solids have in common; 0 as soon as one facet plane parts them."""
    for one, other in ((a, b), (b, a)):
        points = other.points
        for facet in one.facets:
            if all(facet.plane.beyond(p) >= -1e-7 for p in points):
                return 0.0
    common = a
    for facet in b.facets:
        common = clip(common, facet.plane, facet.name)
        if not common.facets:
            return 0.0
    return common.volume()
