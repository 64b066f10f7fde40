"""Convex solids, and the one operation that the whole kernel needs: cutting one by a plane."""

from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from math import atan2

from fennup.core.geometry.plane import Plane, plane_through
from fennup.core.geometry.vec import Vec, add, cross, dot, norm, scale, sub
from fennup.core.tolerances import NOTHING, ON_LINE

ON = 1e-9
Box = tuple[Vec, Vec]


@dataclass(frozen=True, slots=True)
class Facet:
    """One flat side of a solid: what made it, its plane, and its corners as places in the solid's list of points,
    anticlockwise seen from outside."""

    name: str
    plane: Plane
    loop: tuple[int, ...]


@dataclass(frozen=True)
class Polyhedron:
    """A convex solid: its corner points and its facets. No facets: nothing is left."""

    points: tuple[Vec, ...]
    facets: tuple[Facet, ...]

    def corners(self, facet: Facet) -> tuple[Vec, ...]:
        """The corner points of one facet."""
        return tuple(self.points[i] for i in facet.loop)

    @cached_property
    def box(self) -> Box:
        """The least and the greatest corner of the box round it."""
        xs, ys, zs = zip(*self.points, strict=True)
        return (min(xs), min(ys), min(zs)), (max(xs), max(ys), max(zs))

    def volume(self) -> float:
        """Cubic mm: the cones from the origin over every facet, by the divergence theorem."""
        return sum(f.plane.offset * polygon_area(self.corners(f)) for f in self.facets) / 3.0

    def moment(self) -> Vec:
        """Its volume times where its middle lies, mm^4: the cones from the origin over every facet's triangles."""
        total: Vec = (0.0, 0.0, 0.0)
        for facet in self.facets:
            a, *rest = self.corners(facet)
            for b, c in pairwise(rest):
                total = add(total, scale(add(a, add(b, c)), dot(a, cross(b, c)) / 24.0))
        return total


EMPTY = Polyhedron((), ())


def common_polygon(points: tuple[Vec, ...], cover: tuple[Vec, ...], normal: Vec) -> tuple[Vec, ...]:
    """What of a flat convex polygon lies in another one in the same plane, whose corners are anticlockwise about `normal`; its corners, none where that
    is no more than a crumb."""
    for i, corner in enumerate(cover):
        edge = sub(corner, cover[i - 1])
        if points and norm(edge) > NOTHING:
            points = clip_polygon(points, plane_through(corner, cross(edge, normal)))
    return points if points and polygon_area(points) > NOTHING else ()


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
    """The solid on the kept side of the plane, the new facet called `name`. Every edge is cut once."""
    sides = [plane.beyond(p) for p in solid.points]
    if max(sides, default=0.0) <= ON:
        return solid
    if min(sides) >= -ON:
        return EMPTY
    # Where each old corner that stays goes, then the new corner on each edge that goes through the plane.
    place = {i: n for n, i in enumerate(i for i, side in enumerate(sides) if side <= ON)}
    points = [solid.points[i] for i in place]
    rim = [n for i, n in place.items() if sides[i] >= -ON]
    crossing: dict[tuple[int, int], int] = {}
    kept = []
    for facet in solid.facets:
        loop: list[int] = []
        previous = facet.loop[-1]
        before = sides[previous]
        for i in facet.loop:
            here = sides[i]
            if (here > ON and before < -ON) or (here < -ON and before > ON):
                edge = (i, previous) if i < previous else (previous, i)
                if edge not in crossing:
                    crossing[edge] = len(points)
                    rim.append(len(points))
                    points.append(_between(solid.points, sides, edge))
                loop.append(crossing[edge])
            if here <= ON:
                loop.append(place[i])
            previous, before = i, here
        if len(loop) > 2:
            kept.append(Facet(facet.name, facet.plane, tuple(loop)))
    cap = _around([(i, points[i]) for i in rim], plane)
    return Polyhedron(tuple(points), (*kept, Facet(name, plane, cap)) if len(cap) > 2 else tuple(kept))


def _between(points: tuple[Vec, ...], sides: list[float], edge: tuple[int, int]) -> Vec:
    """Where an edge goes through the plane that its ends lie `sides` from."""
    (ax, ay, az), (bx, by, bz) = points[edge[0]], points[edge[1]]
    part = sides[edge[0]] / (sides[edge[0]] - sides[edge[1]])
    return (ax + (bx - ax) * part, ay + (by - ay) * part, az + (bz - az) * part)


def _around(rim: list[tuple[int, Vec]], plane: Plane) -> tuple[int, ...]:
    """The rim's places, anticlockwise about the plane's normal."""
    count = len(rim)
    centre = (sum(p[0] for _, p in rim) / count, sum(p[1] for _, p in rim) / count, sum(p[2] for _, p in rim) / count)
    first = sub(rim[0][1], centre)
    second = cross(plane.normal, first)

    def bearing(entry: tuple[int, Vec]) -> float:
        spoke = sub(entry[1], centre)
        return atan2(dot(spoke, second), dot(spoke, first))

    return tuple(i for i, _ in sorted(rim, key=bearing))


def _parted(a: Polyhedron, b: Polyhedron) -> bool:
    """Whether a facet plane of one solid has all of the other beyond it. Asked for every two that come near: plain loops."""
    points = b.points
    for facet in reversed(a.facets):
        nx, ny, nz = facet.plane.normal
        least = facet.plane.offset - ON_LINE
        for x, y, z in points:
            if nx * x + ny * y + nz * z < least:
                break
        else:
            return True
    return False


def shared_volume(a: Polyhedron, b: Polyhedron) -> float:
    """Cubic mm that two convex solids have in common; 0 as soon as one facet plane parts them."""
    if _parted(a, b) or _parted(b, a):
        return 0.0
    common = a
    for facet in b.facets:
        common = clip(common, facet.plane, facet.name)
        if not common.facets:
            return 0.0
    return common.volume()
