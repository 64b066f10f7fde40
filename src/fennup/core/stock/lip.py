"""The lip that a rabbet leaves: how thick it is under a profile, and what it bears."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from fennup.core.geometry.vec import Point2
from fennup.core.stock.section import Section
from fennup.core.tolerances import ON_LINE

PLACES = 40  # across the lip, at which it is measured
# Wood across its grain, N/mm^2: 0.4 is what EN 338 gives every class of softwood in tension across the grain, 0.6 of it holds for
# good (EN 1995-1-1, indoors), by 1.3 for what is not known of the wood.
ACROSS_GRAIN_N_MM2 = 0.4 * 0.6 / 1.3


@dataclass(frozen=True)
class Lip:
    """What reaches over the thing that a frame holds. `thick_mm`: at places from its tip on, the last one at its root, (how far from the tip, how thick)."""

    reach_mm: float
    thick_mm: tuple[Point2, ...]

    @property
    def least_mm(self) -> float:
        """How thick it is at the least on the half by its root; a rounded tip takes nothing off that."""
        return min(thick for away, thick in self.thick_mm if away >= self.reach_mm / 2)

    def bears_n_mm(self, cover_mm: float) -> float:
        """What it bears, N on each mm of its length: spread over what it covers, counted from its tip, it is bent about every place farther in; wood is weakest so, across its
        grain. 0 where it covers nothing."""
        if cover_mm <= 0:
            return 0.0
        found = []
        for away, thick in self.thick_mm:
            arm = away * away / (2.0 * cover_mm) if away <= cover_mm else away - cover_mm / 2.0
            found.append(ACROSS_GRAIN_N_MM2 * thick * thick / (6.0 * arm))
        return min(found)


def lip_of(section: Section) -> Lip | None:
    """The lip over the rabbet at a section's opening edge; None without one."""
    rabbet = section.rabbet
    if rabbet is None:
        return None
    tip, floor = section.width_mm / 2, rabbet.depth_mm - section.thickness_mm / 2
    places = [rabbet.width_mm * k / PLACES for k in range(1, PLACES)]
    places.append(rabbet.width_mm - ON_LINE)
    return Lip(rabbet.width_mm, tuple((away, _above(section.outline, tip - away, floor)) for away in places))


def _above(outline: Sequence[Point2], y: float, floor: float) -> float:
    """How thick the wood is that begins at a height, at one place across a section."""
    heights = sorted(
        z0 + (z1 - z0) * (y - y0) / (y1 - y0) for (y0, z0), (y1, z1) in pairwise([*outline, outline[0]]) if (y0 < y) != (y1 < y)
    )
    runs = zip(heights[::2], heights[1::2], strict=True)
    return next((high - low for low, high in runs if abs(low - floor) < ON_LINE), 0.0)
