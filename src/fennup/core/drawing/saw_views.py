"""The saw drawn from where one stands (X right, Y to the fence) and from the front (Z up)."""

from dataclasses import dataclass
from math import cos, radians, sin, tan

from fennup.core.drawing.view import Dimension, Mark, Shape, View
from fennup.core.geometry.vec import Point2
from fennup.core.tolerances import NOTHING

RADIUS = 100.0
BOARD = 60.0
REACH = 110.0
LEANS = 0.9  # an earlier cut is drawn no more aslant than this


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


@dataclass(frozen=True)
class MarkedFrom:
    """What a cut is measured from: `lean`, how far that earlier cut runs to the right per mm to the fence; whether it is at the
    same end; whether one measures along the side at the fence; and how far."""

    lean: float
    same_end: bool
    at_fence: bool
    length_mm: float


def operator_view(swing_deg: float, tilt_deg: float, kept_left: bool, part: str, measured: MarkedFrom | None = None) -> View:
    """One cut as it lies: fence away from the reader, the blade's line, what is kept and what falls off, and what is measured.

    The board is drawn 60 wide whatever it measures; only its angles are true. A tilted blade is seen from the front in
    the corner, above the fence, beside what is measured.
    """
    lean = tan(radians(swing_deg))

    def on_blade(y: float) -> Point2:
        return (-y * lean, y)

    far, near = on_blade(0.0), on_blade(-BOARD)
    left: tuple[Point2, ...] = ((-REACH, 0.0), (-REACH, -BOARD), near, far)
    right: tuple[Point2, ...] = (far, near, (REACH, -BOARD), (REACH, 0.0))
    dimensions: tuple[Dimension, ...] = ()
    if measured:
        begins_left = kept_left != measured.same_end
        y = 0.0 if measured.at_fence else -BOARD
        board, begins = _begun(left if begins_left else right, measured.lean, y)
        left, right = (board, right) if begins_left else (left, board)
        away = (0.0, 1.0 if measured.at_fence else -1.0)
        a, b = sorted(((begins, y), on_blade(y)))
        dimensions = (Dimension("mark", "", a, b, measured.length_mm, "mm", "derived", away, 1.0),)
    kept, waste = (left, right) if kept_left else (right, left)
    side = -1.0 if kept_left else 1.0
    shapes = [
        *fence_and_ticks(60.0, 60.0)[:2],
        Shape("wood", kept, True, part, (1.0, 0.0)),
        Shape("waste", waste, True),
        Shape("blade", (on_blade(10.0), on_blade(-RADIUS * cos(radians(swing_deg))))),
    ]
    longer_near = (near[0] - far[0]) * side < 0
    tip = near if longer_near else far
    marks = [Mark("name", (side * REACH * 0.62, -BOARD / 2), "keep")]
    middle = (sum(p[0] for p in waste) / 4, sum(p[1] for p in waste) / 4)
    corner = (-side * REACH * 0.7, -BOARD * (0.25 if longer_near else 0.75))
    marks.append(Mark("name", middle if abs(lean) < 0.5 else corner, "waste"))
    if abs(swing_deg) > NOTHING:
        marks.append(Mark("long_point", tip))
    if abs(tilt_deg) > NOTHING:
        shapes += _blade_from_front(tilt_deg, (side if measured and measured.same_end else -side) * REACH * 0.62)
    return View("operator", tuple(shapes), tuple(marks), dimensions)


def _begun(board: tuple[Point2, ...], lean: float, y: float) -> tuple[tuple[Point2, ...], float]:
    """Half of the board with its far end cut aslant, and where that end crosses the line at `y`."""
    aslant = max(-LEANS, min(LEANS, lean)) * BOARD
    middle = (REACH - abs(aslant) / 2) * (1.0 if max(p[0] for p in board) == REACH else -1.0)
    far, near = middle + aslant / 2, middle - aslant / 2
    made = tuple((far if p[1] == 0.0 else near, p[1]) if abs(p[0]) == REACH else p for p in board)
    return made, far if y == 0.0 else near


def _blade_from_front(tilt_deg: float, at: float) -> list[Shape]:
    """The table edge on and the leaning blade above it, + to the left, to the right behind the fence."""
    foot, long = (at, 24.0), 34.0
    way = round_from_up(tilt_deg, long)
    return [
        Shape(
            "table",
            ((foot[0] - 40, foot[1]), (foot[0] + 40, foot[1]), (foot[0] + 40, foot[1] - 3), (foot[0] - 40, foot[1] - 3)),
            True,
        ),
        Shape("arc", (foot, (foot[0], foot[1] + long))),
        Shape("blade", (foot, (foot[0] + way[0], foot[1] + way[1]))),
    ]
