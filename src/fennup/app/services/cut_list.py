"""The cut list as rows: one part a row, in the project's units."""

from typing import Any

from fennup.app.schemas.sheet import PartOut
from fennup.app.wording.figures import on_paper
from fennup.core.exchange.forms import CutDocument, PartDocument, SolutionDocument
from fennup.core.exchange.tables import Table

HEADINGS = (
    "Part", "Name", "Count", "Left or right", "Section", "Thickness mm", "Width before ripping mm", "Measure along", "Length",
    "Length mm", "Left miters deg", "Left bevels deg", "Left end", "Right miters deg", "Right bevels deg", "Right end", "Rip bevels deg",
    "Along the board", "All lengths and marks",
)  # fmt: skip


def cut_list(cards: list[PartOut], solution: SolutionDocument) -> Table:
    """A row for every part; of an end with several cuts their angles in order."""
    rows: list[tuple[Any, ...]] = []
    for part, exact in zip(cards, solution.parts, strict=True):
        rung = next(r for r in part.ladder if r.here)
        row = [
            part.tag, part.name, len(part.boards), part.hand_text, part.section_text, exact.section.thickness_mm,
            exact.edges.width_before_ripping_mm, rung.label, on_paper(rung.figure), _length(exact, rung.id),
            *_ends(part, exact), _rips(exact),
            "; ".join(f"{edge.label} {on_paper(edge.figure)}, {edge.note}" for edge in part.edges),
            "; ".join(f"{r.label}: {on_paper(r.figure)}, {r.note}" for r in part.ladder),
        ]  # fmt: skip
        rows.append(tuple(row))
    return Table("Parts", HEADINGS, rows)


def _ends(part: PartOut, exact: PartDocument) -> list[str]:
    """Angles and words of both ends; nothing of a panel's."""
    found = []
    for worded in part.ends:
        cuts: list[CutDocument] = exact.ends.left if worded.end == "left" else exact.ends.right
        found += [
            "; ".join(f"{angle:.4f}" for angle in angles) for angles in ([c.miter_deg for c in cuts], [c.bevel_deg for c in cuts])
        ]
        found.append("; then ".join(f"{cut.leans}, {cut.bevel}" for cut in worded.cuts))
    return found or [""] * 6


def _rips(exact: PartDocument) -> str:
    """Both edges' bevels, upper first; nothing where both are square."""
    upper, lower = exact.edges.upper, exact.edges.lower
    found = {"upper": upper.rip_bevel_deg, "backing": upper.backing_bevel_deg or 0.0, "lower": lower.rip_bevel_deg}
    return "; ".join(f"{name} {angle:.4f}" for name, angle in found.items() if angle)


def _length(part: PartDocument, rung: str) -> float:
    """The length of the line to measure along, mm: an arris, or a panel's first side."""
    if part.arrises_mm is None:
        return (part.outline_mm or [part.overall_length_mm])[0]
    arris = rung if "_" in rung else f"face_{rung}"
    return float(getattr(part.arrises_mm, arris))
