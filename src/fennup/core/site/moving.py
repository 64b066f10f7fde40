"""How much wood and plastics move over a year, what room is left inside, and how a stack lies in its rabbet."""

from dataclasses import dataclass
from typing import Literal

from fennup.core.geometry.plane import Plane
from fennup.core.geometry.polyhedron import clip
from fennup.core.geometry.vec import dot
from fennup.core.site.fill import UP, Filled
from fennup.core.tolerances import SAME

Holder = Literal["proud", "level", "points", "buttons"]
POINTS_MM = 1.0  # room behind a back for glazier's points or brads
BUTTONS_MM = 5.0  # and for turn buttons or a screwed strip


def wood_moves_mm(width_mm: float, part: float, percent: float) -> float:
    """How much a board grows and shrinks across its grain over a year: width, times what it moves for each percent, times the percents."""
    return width_mm * part * percent


def plastic_moves_mm(length_mm: float, per_degree: float, range_c: float) -> float:
    """How much a sheet of plastic or glass grows and shrinks over a range of temperature."""
    return length_mm * per_degree * range_c


@dataclass(frozen=True)
class Lies:
    """A stack in a rabbet: how much depth is left behind it (less than 0: it stands proud), and what can hold it in."""

    left_mm: float
    holder: Holder


def stack_in_rabbet(depth_mm: float, *layers_mm: float) -> Lies:
    """How a stack of layers lies."""
    left = depth_mm - sum(layers_mm)
    if left < -SAME:
        return Lies(left, "proud")
    return Lies(left, "level" if left < POINTS_MM else "points" if left < BUTTONS_MM else "buttons")


def room_at(room: Filled, up_mm: float) -> tuple[float, float] | None:
    """How wide and how deep it is inside at a level; None above and below."""
    half = clip(room.room, Plane(UP, up_mm), "at")
    cut = next((f for f in half.facets if f.name == "at" and dot(f.plane.normal, UP) > 0), None)
    at = list(half.corners(cut)) if cut else [p for p in room.room.points if abs(p[2] - up_mm) < SAME]
    if len(at) < 3:
        return None
    return (max(p[0] for p in at) - min(p[0] for p in at), max(p[1] for p in at) - min(p[1] for p in at))
