"""Planes as half-spaces, and the points and planes that they make with each other."""

from dataclasses import dataclass

from fennup.core.errors import CutError
from fennup.core.geometry.vec import Vec, add, cross, dot, norm, scale, sub, unit

PARALLEL = 1e-9


@dataclass(frozen=True, slots=True)
class Plane:
    """Unit outward normal and offset; keeps the side where `normal . p <= offset`."""

    normal: Vec
    offset: float

    def beyond(self, point: Vec) -> float:
        """Signed distance of the point from the plane, mm: + outside, - on the kept side."""
        n = self.normal
        return n[0] * point[0] + n[1] * point[1] + n[2] * point[2] - self.offset

    def flipped(self) -> "Plane":
        """The same plane keeping the other side."""
        return Plane(scale(self.normal, -1.0), -self.offset)

    def moved(self, outwards: float) -> "Plane":
        """The parallel plane `outwards` mm further out."""
        return Plane(self.normal, self.offset + outwards)


def plane_through(point: Vec, normal: Vec) -> Plane:
    """The plane through a point with a normal of any length."""
    n = unit(normal)
    return Plane(n, dot(n, point))


def meeting_point(a: Plane, b: Plane, c: Plane) -> Vec:
    """The one point on three planes (Cramer's rule); CutError `parallel` when there is none."""
    bc = cross(b.normal, c.normal)
    det = dot(a.normal, bc)
    if abs(det) < PARALLEL:
        raise CutError("parallel")
    ca, ab = cross(c.normal, a.normal), cross(a.normal, b.normal)
    total = add(add(scale(bc, a.offset), scale(ca, b.offset)), scale(ab, c.offset))
    return scale(total, 1.0 / det)


def joint_plane(outer_a: Plane, outer_b: Plane, inner_a: Plane, inner_b: Plane) -> Plane:
    """The plane through the line where two outer faces meet and the line where two inner faces meet.

    The faces of a board are parallel, so the two lines are too. This is the miter of two boards in any position and
    of any two sizes; it keeps a's side. CutError `parallel` when the boards do not meet at an angle.
    """
    along = cross(outer_a.normal, outer_b.normal)
    if norm(along) < PARALLEL:
        raise CutError("parallel")
    level = Plane(unit(along), 0.0)
    outer = meeting_point(outer_a, outer_b, level)
    inner = meeting_point(inner_a, inner_b, level)
    across = sub(outer, inner)
    if norm(across) < PARALLEL:
        raise CutError("parallel")
    plane = plane_through(outer, cross(level.normal, across))
    # The part of b's outer normal that lies along a points past a's end.
    past_the_end = sub(outer_b.normal, scale(outer_a.normal, dot(outer_a.normal, outer_b.normal)))
    return plane if dot(plane.normal, past_the_end) > 0 else plane.flipped()
