"""What a saw that can only be set to its scale's steps makes of a flat ring.

How the opening is reckoned: the long edges' lengths exact, all joints but the last pushed flush with their outer tips
together; the last is pushed, at unchanged angle, until one corner touches; the opening is what stays at its other end.
"""

from dataclasses import dataclass
from math import atan2, cos, degrees, radians, sin
from typing import Literal

from fennup.core.assembly.model import Assembly, Mating
from fennup.core.geometry.vec import distance
from fennup.core.parts.measure import Ruler
from fennup.core.saw.machine import Machine

Edge = Literal["outer", "opening"]


@dataclass(frozen=True)
class AsSet:
    """`opening_mm` at the last joint and at which edge. `shift_mm`: how far the last two outer tips miss each other
    when its faces come flush all the same. `step_mm`: how far two opening edges miss each other at the worst miter,
    whose faces are no longer equally long."""

    joint: str
    opening_mm: float
    at: Edge | None
    shift_mm: float
    step_mm: float


def as_set(ruler: Ruler, machine: Machine) -> AsSet:
    """A closed flat ring as the rounded settings would make it.

    A corner turns by the sum of its two faces' angles from square: an end's is its miter, as set; a long edge's is 90.
    """
    assembly = ruler.assembly
    ring = [joint for joint in assembly.joints if len(joint.ends) == 2]
    faces = [[_face(assembly, mating, machine) for mating in (joint.a, joint.b)] for joint in ring]
    turns = [a.angle_deg + b.angle_deg for a, b in faces]
    last = ring[-1]
    left_over = 360.0 - sum(turns)
    reach = min(face.length_mm for face in faces[-1])
    opening = 2 * reach * abs(sin(radians(left_over) / 2))
    step = max((abs(a.length_mm - b.length_mm) for a, b in faces if b.length_mm != float("inf")), default=0.0)
    if opening < 1e-9:
        return AsSet(last.id, 0.0, None, _end_misses_start(ruler, turns), step)
    return AsSet(last.id, opening, "outer" if left_over > 0 else "opening", 0.0, step)


@dataclass(frozen=True)
class _Face:
    angle_deg: float
    length_mm: float


def _face(assembly: Assembly, mating: Mating, machine: Machine) -> _Face:
    """A mating face in the plane of the frame: its angle from square and its length."""
    board = assembly.board(mating.board)
    if mating.facet in ("upper", "lower"):
        return _Face(90.0, float("inf"))
    end, index = mating.facet.split(":")
    nx, ny, _ = board.ends("left" if end == "left" else "right")[int(index)].normal
    angle = machine.swing_as_set(degrees(atan2(ny, abs(nx))))
    return _Face(angle, board.section.width_mm / cos(radians(angle)))


def _end_misses_start(ruler: Ruler, turns: list[float]) -> float:
    """Lay the outer edges one after another with the corners as set: how far the last end is from the first start."""
    runs = ruler.runs("outside")
    if runs is None:
        return 0.0
    x = y = way = 0.0
    for run, turn in zip(runs.values(), turns, strict=True):
        length = distance(*run)
        x, y, way = x + length * cos(radians(way)), y + length * sin(radians(way)), way + turn
    return float((x * x + y * y) ** 0.5)
