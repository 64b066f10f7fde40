"""The cut list as rows of text: one part a row, in the project's units."""

import csv
import io

from fennup.app.schemas.sheet import SheetOut
from fennup.app.services.sheet import spoken
from fennup.core.exchange.document import PartDocument, SolutionDocument

HEADINGS = (
    "Part", "Name", "Count", "Left or right", "Section", "Measure along", "Length", "Length mm", "Left miter deg",
    "Left bevel deg", "Left end", "Right miter deg", "Right bevel deg", "Right end", "Long edges",
)  # fmt: skip


def cut_list_csv(sheet: SheetOut, solution: SolutionDocument) -> str:
    """Comma-separated, with a heading row. Text that a spreadsheet would run as a formula is set as text."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(HEADINGS)
    for part, exact in zip(sheet.parts, solution.parts, strict=True):
        rung = next(r for r in part.ladder if r.here)
        ends = []
        for told in part.ends:
            cut = (exact.ends.left if told.end == "left" else exact.ends.right)[0]
            ends += [f"{cut.miter_deg:.4f}", f"{cut.bevel_deg:.4f}", f"{told.leans}, {told.bevel}"]
        edges = "; ".join(f"{edge.label} {spoken(edge.figure)}, {edge.note}" for edge in part.edges)
        row = [
            part.id, part.name, len(part.members), part.hand_text, part.section_text, rung.label, spoken(rung.figure),
            f"{_length(exact, rung.id):.4f}", *(ends or [""] * 6), edges,
        ]  # fmt: skip
        writer.writerow([_harmless(cell) for cell in row])
    return out.getvalue()


def _length(part: PartDocument, rung: str) -> float:
    """The length of the line to measure along, mm: an arris, or a panel's first side."""
    if part.arrises_mm is None:
        return (part.outline_mm or [part.overall_length_mm])[0]
    arris = rung if "_" in rung else f"face_{rung}"
    return float(getattr(part.arrises_mm, arris))


def _harmless(cell: object) -> object:
    """A text that begins like a formula, with a quote before it; figures stay figures."""
    if isinstance(cell, str) and cell[:1] in ("=", "+", "@", "\t", "\r"):
        return f"'{cell}"
    return cell
