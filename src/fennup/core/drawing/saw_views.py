"""A saw's arcs, ticks and fence, drawn from above (X right, Y to the fence) and from the front (Z up)."""

from math import cos, radians, sin

from fennup.core.drawing.view import Shape
from fennup.core.geometry.vec import Point2

RADIUS = 100.0
REACH = 110.0


def round_from_down(deg: float, radius: float = RADIUS) -> Point2:
    """A point on the table's arc: 0 straight towards the operator, + to the right."""
    return (radius * sin(radians(deg)), -radius * cos(radians(deg)))


def round_from_up(deg: float, radius: float = RADIUS) -> Point2:
    """A point on the tilt arc seen from the front: 0 upright, + to the left."""
    return (-radius * sin(radians(deg)), radius * cos(radians(deg)))


def arc_points(place: object, start: float, end: float) -> tuple[Point2, ...]:
    """An arc in steps of at most two degrees."""
    steps = max(1, int(abs(end - start) / 2) + 1)
    assert callable(place)
    return tuple(place(start + (end - start) * i / steps) for i in range(steps + 1))


def fence_and_ticks(left: float, right: float) -> list[Shape]:
    """The two halves of the fence, the scale between the stops, ticks every 15 degrees."""
    shapes = [
        Shape("fence", ((-REACH, 0.0), (-18.0, 0.0), (-18.0, 14.0), (-REACH, 14.0)), True),
        Shape("fence", ((18.0, 0.0), (REACH, 0.0), (REACH, 14.0), (18.0, 14.0)), True),
        Shape("arc", arc_points(round_from_down, -left, right)),
    ]
    for tick in range(-75, 90, 15):
        if -left <= tick <= right:
            shapes.append(Shape("arc", (round_from_down(tick), round_from_down(tick, RADIUS - 6))))
    return shapes
