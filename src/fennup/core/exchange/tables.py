"""Rows and columns as comma-separated values and as a spreadsheet. Nothing in a cell is ever run: what would be a formula is text."""

import csv
from collections.abc import Sequence
from dataclasses import dataclass
from io import BytesIO, StringIO
from typing import Any

from fennup.core.exchange.fixed import MADE

WIDEST = 60
RUN_AS_FORMULA = ("=", "+", "@", "\t", "\r")


@dataclass(frozen=True)
class Table:
    """Rows under headings. A figure is a number, with up to four decimals in CSV; all else is text."""

    title: str
    headings: tuple[str, ...]
    rows: Sequence[tuple[Any, ...]]


def table_csv(table: Table) -> str:
    """Comma-separated, with a heading row."""
    out = StringIO()
    writer = csv.writer(out)
    writer.writerow(table.headings)
    for row in table.rows:
        writer.writerow([_harmless(cell) for cell in row])
    return out.getvalue()


def tables_xlsx(tables: Sequence[Table]) -> bytes:
    """A spreadsheet with a sheet for every table: numbers as numbers, text as text, the headings kept in sight."""
    import xlsxwriter

    out = BytesIO()
    book = xlsxwriter.Workbook(
        out, {"in_memory": True, "strings_to_formulas": False, "strings_to_urls": False, "strings_to_numbers": False}
    )
    book.set_properties({"created": MADE})
    bold = book.add_format({"bold": True, "bottom": 1})
    for table in tables:
        sheet = book.add_worksheet(table.title[:31])
        sheet.freeze_panes(1, 0)
        widths = [len(heading) for heading in table.headings]
        sheet.write_row(0, 0, table.headings, bold)
        for number, row in enumerate(table.rows, 1):
            for column, cell in enumerate(row):
                if isinstance(cell, int | float) and not isinstance(cell, bool):
                    sheet.write_number(number, column, cell)
                elif cell not in ("", None):
                    sheet.write_string(number, column, str(cell))
                widths[column] = max(widths[column], len(str(cell)))
        for column, width in enumerate(widths):
            sheet.set_column(column, column, min(WIDEST, width + 2))
    book.close()
    return out.getvalue()


def _harmless(cell: Any) -> Any:
    """A text that begins like a formula, with a quote before it; figures stay figures."""
    if isinstance(cell, float):
        return f"{cell:.4f}"
    if isinstance(cell, str) and (cell.startswith(RUN_AS_FORMULA) or (cell[:1] == "-" and not _is_figures(cell))):
        return f"'{cell}"
    return cell


def _is_figures(cell: str) -> bool:
    """Whether a cell holds nothing but figures: `-22.5`, `-22.5; -45`."""
    return all(piece.strip().lstrip("-").replace(".", "", 1).isdecimal() for piece in cell.split(";"))
