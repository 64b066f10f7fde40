"""What the parts need in wood, per cross section: how many pieces, how long all of them together, how long the longest."""

from collections.abc import Iterable
from dataclasses import dataclass

from fennup.core.parts.facts import PartFacts


@dataclass(frozen=True)
class Need:
    """All the boards of one width and thickness, mm: `sum_mm` end to end with a kerf for each; or all the panels of one thickness,
    each in `sheets` with its length and width."""

    thickness_mm: float
    width_mm: float | None
    count: int
    sum_mm: float
    longest_mm: float
    sheets: tuple[tuple[float, float], ...] = ()


def needs_of(parts: Iterable[PartFacts], kerf_mm: float) -> tuple[Need, ...]:
    """The needs of a set of parts, boards before panels, the thickest and widest first."""
    boards: dict[tuple[float, float], list[float]] = {}
    panels: dict[float, list[tuple[float, float]]] = {}
    for facts in parts:
        section, count, (long, wide) = facts.board.section, len(facts.group.boards), facts.extent
        thick = round(section.thickness_mm, 6)
        if facts.board.panel:
            panels.setdefault(thick, []).extend([(long, wide)] * count)
        else:
            # A stave's grain runs up: it is as long as its section is wide.
            long, wide = (section.width_mm, long) if facts.board.stave else (long, section.width_mm)
            boards.setdefault((thick, round(wide, 6)), []).extend([long] * count)
    made = [
        Need(thick, wide, len(of), sum(of) + kerf_mm * len(of), max(of))
        for (thick, wide), of in sorted(boards.items(), reverse=True)
    ]
    for thick, sheets in sorted(panels.items(), reverse=True):
        made.append(Need(thick, None, len(sheets), 0.0, max(max(sheet) for sheet in sheets), tuple(sheets)))
    return tuple(made)
