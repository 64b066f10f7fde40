"""A flat figure of corners whose sides are known and whose diagonals are read: is there such a shape, how far is it out, which corner goes where.

The sides are held by what was cut; the corners may turn. A figure of n corners has n - 3 ways to be out of shape.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from math import radians, tan

import numpy as np

from fennup.core.fit.meeting import Array
from fennup.core.geometry.vec import Vec, cross, dot, norm, sub, unit
from fennup.core.tolerances import NOTHING

STIFF = 1e4  # how much more a side counts than a reading: it was cut, and is not in doubt
ROUNDS = 30
SETTLED = 1e-11
SOFT = 1e-6  # holds the figure where nothing else does


@dataclass(frozen=True)
class Corner:
    """A corner of a figure: what it is called, and where it is planned, in the assembly's axes."""

    name: str
    at: Vec


@dataclass(frozen=True)
class Figure:
    """Corners in order round a flat figure; `sides` are what its sides are called, the first from the first corner to the second. `joint_mm`: how wide the joints at its
    corners are along its plane. `open_side`: which of the sides is none, where it does not close."""

    id: str
    corners: tuple[Corner, ...]
    sides: tuple[str, ...]
    joint_mm: float
    open_side: int | None = None

    @property
    def axes(self) -> tuple[Vec, Vec]:
        """Two directions in its plane: along its first side, and square to it, inwards."""
        first = unit(sub(self.corners[1].at, self.corners[0].at))
        normal = cross(first, sub(self.corners[2].at, self.corners[0].at))
        return first, unit(cross(normal, first))

    def flat(self) -> Array:
        """Its corners in its own plane, n x 2."""
        x, y = self.axes
        origin = self.corners[0].at
        return np.array([[dot(sub(c.at, origin), x), dot(sub(c.at, origin), y)] for c in self.corners])

    def planned(self, i: int, j: int) -> float:
        """How far apart two of its corners should be."""
        return norm(sub(self.corners[i].at, self.corners[j].at))

    def in_space(self, flat: Array) -> Vec:
        """A direction of its plane, in the assembly's axes."""
        x, y = self.axes
        return tuple(float(flat[0]) * x[k] + float(flat[1]) * y[k] for k in range(3))  # type: ignore[return-value]

    @property
    def is_right(self) -> bool:
        """Whether it is a rectangle."""
        if len(self.corners) != 4:
            return False
        p = self.flat()
        return all(abs(float((p[(k + 1) % 4] - p[k]) @ (p[k] - p[k - 1]))) < NOTHING * 1e6 for k in range(4))


@dataclass(frozen=True)
class Shape:
    """A figure's shape as some readings make it: where its corners are in its own plane, the widest miss of a reading by that shape, and by how many degrees each corner's
    angle is out (+ where it is larger)."""

    corners: Array
    missed_mm: float
    turned_deg: tuple[float, ...]


def shape_of(figure: Figure, readings: dict[tuple[int, int], float], sides: dict[int, float] | None = None) -> Shape:
    """The shape whose sides are as cut (`sides`: those that were cut otherwise than planned, mm) and which meets the readings best; a side that was
    read is a reading like the others."""
    n, points = len(figure.corners), figure.flat()
    wanted = [
        ((k, (k + 1) % n), figure.planned(k, (k + 1) % n) + (sides or {}).get(k, 0.0), STIFF)
        for k in range(n)
        if k != figure.open_side and not {(k, (k + 1) % n), ((k + 1) % n, k)} & set(readings)
    ]
    wanted += [(pair, value, 1.0) for pair, value in readings.items()]
    start = points.copy()
    for _ in range(ROUNDS):
        rows, rest = [], []
        for (i, j), value, weight in wanted:
            way = points[i] - points[j]
            long = max(float(np.hypot(*way)), NOTHING)
            row = np.zeros(2 * n)
            row[2 * i : 2 * i + 2], row[2 * j : 2 * j + 2] = way / long, -way / long
            rows.append(weight * row)
            rest.append(weight * (value - long))
        soft = SOFT * np.eye(2 * n)
        step = np.linalg.lstsq(np.vstack([rows, soft]), np.concatenate([rest, SOFT * (start - points).ravel()]), rcond=None)[0]
        points = points + step.reshape(n, 2)
        if float(np.abs(step).max()) < SETTLED:
            break
    missed = max((abs(float(np.hypot(*(points[i] - points[j]))) - value) for (i, j), value in readings.items()), default=0.0)
    return Shape(points, missed, tuple(a - b for a, b in zip(_angles(points), _angles(start), strict=True)))


def impossible_by(figure: Figure, pair: tuple[int, int], value: float, sides: Mapping[tuple[int, int], float]) -> float:
    """How far a length between two corners is past what any shape of these sides can have: longer than the sides on either way round together, or
    shorter than the longest of them less the others; not more than 0 where it can be."""
    n, (i, j) = len(figure.corners), sorted(pair)
    long = [sides.get((k, (k + 1) % n), sides.get(((k + 1) % n, k), figure.planned(k, (k + 1) % n))) for k in range(n)]
    ways = [[long[k] for k in range(i, j)], [long[k % n] for k in range(j, i + n)]]
    if figure.open_side is not None:
        ways = [[long[k % n] for k in (range(j, i + n) if i <= figure.open_side < j else range(i, j))]]
    return max(max(value - sum(way), 2 * max(way) - sum(way) - value) for way in ways)


def held_on(figure: Figure, shape: Shape, side: int) -> Array:
    """How far every corner is from where it should be when one side is held: what they must be moved by, n x 2 in the figure's plane."""
    n, planned = len(figure.corners), figure.flat()
    a, b = side, (side + 1) % n
    now, then = shape.corners[b] - shape.corners[a], planned[b] - planned[a]
    turn = np.arctan2(then[1], then[0]) - np.arctan2(now[1], now[0])
    c, s = np.cos(turn), np.sin(turn)
    middle = (shape.corners[a] + shape.corners[b]) / 2
    laid: Array = (shape.corners - middle) @ np.array([[c, s], [-s, c]]) + (planned[a] + planned[b]) / 2
    return planned - laid


def widest_play(figure: Figure, pair: tuple[int, int], allowance_mm: float) -> float:
    """By how much a diagonal may be off before a joint stands open by more than is let pass: all corners turned as little as that takes."""
    n, points = len(figure.corners), figure.flat()
    rows = []
    for k in range(n):
        if k != figure.open_side:
            rows.append(_row(points, n, k, (k + 1) % n))
    diagonal = _row(points, n, *pair)
    turns = np.array([_turn_row(points, n, k) for k in range(n)])
    # Of the moves that leave all sides as long as they are: the one that turns the corners least for a diagonal longer by one.
    _, sizes, across = np.linalg.svd(np.array(rows))
    free = across[len(sizes[sizes > NOTHING]) :].T
    system = turns @ free
    grams = np.linalg.pinv(system.T @ system, rcond=NOTHING)
    gain = float(diagonal @ free @ grams @ free.T @ diagonal)
    if gain < NOTHING:
        return allowance_mm
    most = float(np.abs(system @ grams @ free.T @ diagonal / gain).max())
    return allowance_mm / max(figure.joint_mm * most, NOTHING)


def _row(points: Array, n: int, i: int, j: int) -> Array:
    way = points[i] - points[j]
    way = way / np.hypot(*way)
    row = np.zeros(2 * n)
    row[2 * i : 2 * i + 2], row[2 * j : 2 * j + 2] = way, -way
    return row


def _turn_row(points: Array, n: int, k: int) -> Array:
    """What moves of the corners do to the angle at one of them, radians."""
    row = np.zeros(2 * n)
    for other, sign in (((k + 1) % n, -1.0), ((k - 1) % n, 1.0)):
        way = points[other] - points[k]
        square = np.array([-way[1], way[0]]) / float(way @ way)
        row[2 * other : 2 * other + 2] += sign * square
        row[2 * k : 2 * k + 2] -= sign * square
    return row


def _angles(points: Array) -> list[float]:
    found = []
    for k in range(len(points)):
        a, b = points[k - 1] - points[k], points[(k + 1) % len(points)] - points[k]
        found.append(float(np.degrees(np.arctan2(abs(a[0] * b[1] - a[1] * b[0]), a @ b))))
    return found


def out_of_square(a_mm: float, b_mm: float, one_mm: float, other_mm: float) -> float:
    """By how many degrees a parallelogram of those sides is out of square, from both its diagonals: (d1 - d2)(d1 + d2) / 4ab is the sine."""
    return float(np.degrees(np.arcsin(np.clip((one_mm - other_mm) * (one_mm + other_mm) / (4 * a_mm * b_mm), -1.0, 1.0))))


def opened_by(joint_mm: float, deg: float) -> float:
    """How far a joint of that width stands open when its corner is out by that angle."""
    return abs(joint_mm * tan(radians(deg)))
