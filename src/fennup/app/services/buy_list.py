"""What is to be bought, as rows."""

from collections.abc import Sequence
from typing import Any

from fennup.core.exchange.boards_forms import BoardsDocument
from fennup.core.exchange.tables import Table

COLUMNS = ("Code", "Name", "Count", "Length mm", "Width mm", "Thickness mm", "Price", "Sum", "Currency", "Spare parts in them")


def buy_list(plan: BoardsDocument, besides: Sequence[tuple[str, str]] = ()) -> Table:
    """One line of the price list a row, then what is bought `besides` boards, by name and how much; with the sum at the end."""
    rows: list[tuple[Any, ...]] = []
    for line in plan.buy:
        rows.append((line.code, line.name, line.count, line.length_mm, line.width_mm, line.thickness_mm, f"{line.price:.2f}",
                     f"{line.sum:.2f}", plan.currency, line.spares))  # fmt: skip
    rows += [("", name, much, *[""] * (len(COLUMNS) - 3)) for name, much in besides]
    rows.append(("", "Together", sum(line.count for line in plan.buy), "", "", "", "", f"{plan.cost:.2f}", plan.currency, ""))
    return Table("To buy", COLUMNS, rows)
