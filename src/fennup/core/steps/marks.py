"""Marks without a protractor: every cut as offsets, as rise in run; and two parts from one sloping cut."""

from dataclasses import dataclass
from math import cos, radians, tan

from fennup.core.assembly.board import End
from fennup.core.parts.facts import PartFacts
from fennup.core.parts.solid import end_cut

RUN = 100.0


@dataclass(frozen=True)
class Offsets:
    """A cut's line over a side of the board: from a square line through one corner, so much farther along on the opposite edge. `face`: over the
    width, + where the lower edge is the longer at that end; `edge`: over the thickness, + where the back is. `rise`: the same in a run of 100."""

    width_mm: float
    over_face_mm: float
    face_rise: float
    thickness_mm: float
    over_edge_mm: float
    edge_rise: float


def offsets_of(facts: PartFacts, end: End, index: int) -> Offsets:
    """The offsets of a cut of an end, on the ripped section's face and on its edge. Not of a panel."""
    cut = end_cut(facts.board.ends(end)[index])
    wide, thick = facts.ripped_mm[0], facts.board.section.thickness_mm
    face, edge = tan(radians(cut.miter_deg)), tan(radians(cut.edge_trace_deg))
    return Offsets(wide, wide * face, RUN * face, thick, thick * edge, RUN * edge)


@dataclass(frozen=True)
class Halves:
    """Two equal pieces from one board by one cut: their long and their short edges, mm."""

    long_mm: float
    short_mm: float


def halved(length_mm: float, width_mm: float, angle_deg: float, kerf_mm: float) -> Halves:
    """F13: the cut at an angle from square, its kerf measured square to the blade, its middle in the middle of the board."""
    angle = radians(angle_deg)
    lean, loss = width_mm / 2.0 * abs(tan(angle)), kerf_mm / (2.0 * cos(angle))
    return Halves(length_mm / 2.0 + lean - loss, length_mm / 2.0 - lean - loss)


def along_slope(gap_mm: float, angle_deg: float) -> float:
    """A distance square to a slope, measured along what crosses it at that angle from square."""
    return gap_mm / cos(radians(angle_deg))
