"""Four feet and more on a flat floor: which one does not stand, by how much, and what makes it stand firm."""

from dataclasses import dataclass
from math import atan, cos, degrees, hypot, radians

import numpy as np

from fennup.core.fit.meeting import Array
from fennup.core.geometry.vec import Vec


@dataclass(frozen=True)
class Foot:
    """A foot: the board's key, where it stands, how its leg leans from upright."""

    board: str
    at: Vec
    lean_deg: float


@dataclass(frozen=True)
class Trim:
    """A way to stand firm: what comes off each of some legs, upright and along the leg, or what goes under one; and how the top then slopes, degrees."""

    off: tuple[tuple[str, float, float], ...]
    under: tuple[tuple[str, float], ...]
    slope_deg: float


def firm_ways(feet: tuple[Foot, ...], board: str, gap_mm: float) -> tuple[Trim, ...]:
    """What can be done when a gap is seen under one of four feet while the others stand: both neighbours trimmed alike, one of them, or something put under it. The feet
    are in order round; where there are not four, only what goes under."""
    k = next(i for i, foot in enumerate(feet) if foot.board == board)
    under = Trim((), ((board, gap_mm),), 0.0)
    if len(feet) != 4:
        return (under,)
    share = [float(v) for v in _dependence(feet)]
    before, after, lifted = (k - 1) % 4, (k + 1) % 4, share[k]
    short = -gap_mm  # how much higher than the others that foot's end is
    ways = []
    both = gap_mm * abs(lifted) / (abs(share[before]) + abs(share[after]))
    for cut in ({before: both, after: both}, *({i: gap_mm * abs(lifted / share[i])} for i in (before, after))):
        off = tuple((feet[i].board, mm, mm / cos(radians(feet[i].lean_deg))) for i, mm in cut.items())
        heights = [short if i == k else -cut.get(i, 0.0) for i in range(4)]
        ways.append(Trim(off, (), _slope(feet, heights)))
    return (ways[0], under, ways[1], ways[2])


def _dependence(feet: tuple[Foot, ...]) -> Array:
    """What four places in a plane have in common: shares that sum to nothing, and so do the places times them. What the heights times them comes to is how far it rocks."""
    rows = np.array([[1.0] * 4, [f.at[0] for f in feet], [f.at[1] for f in feet]])
    found: Array = np.linalg.svd(rows)[2][3]
    return found


def _slope(feet: tuple[Foot, ...], shorter: list[float]) -> float:
    """How much a top slopes whose legs are longer or shorter so, degrees."""
    rows = np.array([[f.at[0], f.at[1], 1.0] for f in feet])
    x, y, _ = np.linalg.lstsq(rows, np.array(shorter), rcond=None)[0]
    return degrees(atan(hypot(float(x), float(y))))
