"""What is to be bought, as comma-separated values."""

import csv
import io
from collections.abc import Sequence

from fennup.core.boards.tables import harmless
from fennup.core.exchange.boards_forms import BoardsDocument

COLUMNS = ("Code", "Name", "Count", "Length mm", "Width mm", "Thickness mm", "Price", "Sum", "Currency", "Spare parts in them")


def buy_list_csv(plan: BoardsDocument, besides: Sequence[tuple[str, str]] = ()) -> str:
    """One line of the price list a row, then what is bought `besides` boards, by name and how much; with a heading row and the sum at the end."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    for line in plan.buy:
        row = [line.code, line.name, line.count, line.length_mm, line.width_mm, line.thickness_mm, f"{line.price:.2f}",
               f"{line.sum:.2f}", plan.currency, line.spares]  # fmt: skip
        writer.writerow([harmless(cell) for cell in row])
    for name, much in besides:
        writer.writerow(["", harmless(name), harmless(much), *[""] * (len(COLUMNS) - 3)])
    writer.writerow(["", "Together", sum(line.count for line in plan.buy), "", "", "", "", f"{plan.cost:.2f}", plan.currency, ""])
    return out.getvalue()
