"""The cut list as rows of text: one part a row, in the project's units."""

import csv
import io

from fennup.app.schemas.sheet import SheetOut
from fennup.app.services.sheet import spoken
from fennup.core.exchange.document import SolutionDocument

HEADINGS = (
    "Part", "Name", "Count", "Left or right", "Section", "Measure along", "Length", "Length mm", "Left miter deg", "Left end",
    "Right miter deg", "Right end",
)  # fmt: skip


def cut_list_csv(sheet: SheetOut, solution: SolutionDocument) -> str:
    """Comma-separated, with a heading row. Text that a spreadsheet would run as a formula is set as text."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(HEADINGS)
    for part, exact in zip(sheet.parts, solution.parts, strict=True):
        rung = next(r for r in part.ladder if r.here)
        length = exact.arrises_mm.face_lower if rung.id == "lower" else exact.arrises_mm.face_upper
        left, right = part.ends
        row = [
            part.id, part.name, len(part.members), part.hand_text, part.section_text, rung.label, spoken(rung.figure),
            f"{length:.4f}", f"{exact.ends.left[0].miter_deg:.4f}", left.leans, f"{exact.ends.right[0].miter_deg:.4f}", right.leans,
        ]  # fmt: skip
        writer.writerow([_harmless(cell) for cell in row])
    return out.getvalue()


def _harmless(cell: object) -> object:
    """A text that begins like a formula, with a quote before it; figures stay figures."""
    if isinstance(cell, str) and cell[:1] in ("=", "+", "@", "\t", "\r"):
        return f"'{cell}"
    return cell
