"""A board's own axes in the assembly."""

from dataclasses import dataclass

from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, add, cross, dot, sub, unit


@dataclass(frozen=True, slots=True)
class Frame:
    """Right-handed unit axes and an origin: x along the board, y across its width, z through its thickness."""

    origin: Vec
    x: Vec
    y: Vec
    z: Vec

    def direction_to_world(self, local: Vec) -> Vec:
        """A direction given in the board's axes, in the assembly's."""
        x, y, z = self.x, self.y, self.z
        a, b, c = local
        return (x[0] * a + y[0] * b + z[0] * c, x[1] * a + y[1] * b + z[1] * c, x[2] * a + y[2] * b + z[2] * c)

    def to_world(self, local: Vec) -> Vec:
        """A point given in the board's axes, in the assembly's."""
        return add(self.origin, self.direction_to_world(local))

    def direction_to_local(self, world: Vec) -> Vec:
        """A direction of the assembly in the board's axes."""
        return (dot(world, self.x), dot(world, self.y), dot(world, self.z))

    def to_local(self, world: Vec) -> Vec:
        """A point of the assembly in the board's axes."""
        return self.direction_to_local(sub(world, self.origin))

    def plane_to_local(self, plane: Plane) -> Plane:
        """A plane of the assembly in the board's axes."""
        return Plane(self.direction_to_local(plane.normal), plane.beyond(self.origin) * -1.0)

    def plane_to_world(self, plane: Plane) -> Plane:
        """A plane given in the board's axes, in the assembly's."""
        normal = self.direction_to_world(plane.normal)
        return Plane(normal, plane.offset + dot(normal, self.origin))


def frame_from(origin: Vec, x: Vec, z: Vec) -> Frame:
    """The frame whose x axis runs along `x` and whose face looks along `z` (made square to x)."""
    along = unit(x)
    y = unit(cross(z, along))
    return Frame(origin, along, y, cross(along, y))
