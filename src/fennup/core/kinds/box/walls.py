"""Where the walls stand: each an outer and an inner plane over its side of the plan."""

from dataclasses import dataclass
from math import cos, hypot, radians, sin, tan

from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, meeting_point, plane_through
from fennup.core.geometry.polygon import regular_corners
from fennup.core.geometry.vec import Point2, Vec, add, cross, scale
from fennup.core.kinds.box.spec import BoxSpec, Irregular, Rectangle

UP: Vec = (0.0, 0.0, 1.0)
FLOOR = Plane((0.0, 0.0, -1.0), 0.0)


@dataclass(frozen=True)
class Wall:
    """One side. `outer` and `inner` are its faces' planes, both with the normal outwards; `foot` a point of the outer
    bottom line, `along` its direction; y in its frame runs up the wall from that line."""

    letter: str
    foot: Vec
    along: Vec
    slope: float
    thickness: float
    outer: Plane
    inner: Plane

    @property
    def out(self) -> Vec:
        """The face's outward normal."""
        return self.outer.normal

    @property
    def up(self) -> Vec:
        """Up the wall, square to the outer bottom line."""
        return cross(self.out, self.along)

    def drop(self) -> float:
        """How much higher up the wall (y) the face stands than the back at one level: t tan slope, from F25."""
        return self.thickness * tan(self.slope)

    def frame_at(self, y: float) -> Frame:
        """Axes of a board whose section's middle is `y` up the wall."""
        origin = add(self.foot, add(scale(self.up, y), scale(self.out, -self.thickness / 2)))
        return Frame(origin, self.along, self.up, self.out)


def plan_corners(spec: BoxSpec) -> list[Point2]:
    """Corners of the outer bottom line, anticlockwise, A's left end first."""
    plan = spec.plan
    if isinstance(plan, Irregular):
        return [(x, y) for x, y in plan.corners]
    if isinstance(plan, Rectangle):
        w, d = plan.width_mm / 2, plan.depth_mm / 2
        return [(-w, -d), (w, -d), (w, d), (-w, d)]
    return regular_corners(plan.sides, plan.across_mm / 2)


def walls_of(spec: BoxSpec) -> tuple[Wall, ...]:
    """The walls in order."""
    corners = plan_corners(spec)
    made = []
    for i, letter in enumerate(spec.letters):
        (ax, ay), (bx, by) = corners[i], corners[(i + 1) % len(corners)]
        long = hypot(bx - ax, by - ay)
        ux, uy = (bx - ax) / long, (by - ay) / long
        slope = radians(spec.slope_of(letter))
        out: Vec = (uy * cos(slope), -ux * cos(slope), -sin(slope))
        foot: Vec = ((ax + bx) / 2, (ay + by) / 2, 0.0)
        outer = plane_through(foot, out)
        inner = outer.moved(-spec.thickness_of(letter))
        made.append(Wall(letter, foot, (ux, uy, 0.0), slope, spec.thickness_of(letter), outer, inner))
    return tuple(made)


def level(height: float) -> Plane:
    """The level plane at a height, keeping what is below."""
    return Plane(UP, height)


def run_at(walls: tuple[Wall, ...], i: int, height: float, face: str) -> tuple[Vec, Vec]:
    """Where a wall's outer or inner plane meets its neighbours' at a height: start and end."""
    count = len(walls)
    planes = [getattr(walls[k % count], face) for k in (i - 1, i, i + 1)]
    at = level(height)
    return meeting_point(planes[0], planes[1], at), meeting_point(planes[1], planes[2], at)


def signed_run(walls: tuple[Wall, ...], i: int, height: float, face: str) -> float:
    """The length of that stretch; negative where the neighbours have crossed."""
    start, end = run_at(walls, i, height, face)
    along = walls[i].along
    return (end[0] - start[0]) * along[0] + (end[1] - start[1]) * along[1]
