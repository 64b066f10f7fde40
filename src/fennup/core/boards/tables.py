"""The rack and a price list as comma-separated values, out and in. Nothing in a cell is ever run: what would be a formula is text."""

import csv
import io
import re
from collections.abc import Mapping
from typing import Any

from pydantic import ValidationError

from fennup.core.boards.rack import MOST_BOARDS, MOST_ITEMS, PriceList, Rack, RackBoard, YardItem
from fennup.core.errors import SpecError

LARGEST_TABLE = 1024 * 1024
LONGEST_CELL = 500
DEFECT = re.compile(r"([\d.]+)-([\d.]+)(?:@([\d.]+)-([\d.]+))?")
FLAGS = ("treated", "sheet", "any_way", "reclaimed", "nails", "old_paint")
SIZES = ("length_mm", "width_mm", "thickness_mm")
RACK_COLUMNS = ("name", *SIZES, "count", "wood", "grade", *FLAGS, "trim_left_mm", "trim_right_mm", "defects")
PRICE_COLUMNS = ("code", "name", *SIZES, "price", "stock", "wood", "grade", "treated", "sheet", "any_way")
RUN_AS_FORMULA = ("=", "+", "-", "@", "\t", "\r")
# What columns are called elsewhere.
LIKE: dict[tuple[str, ...], str] = {
    ("length", "long", "len", "l"): "length_mm", ("width", "wide", "w", "breadth"): "width_mm", ("thickness", "thick", "t", "depth"): "thickness_mm",
    ("count", "qty", "quantity", "number", "pieces", "pcs"): "count", ("wood", "species", "material", "timber"): "wood", ("name", "board", "label", "id"): "name",
    ("grade", "quality"): "grade", ("defects", "knots", "flaws"): "defects", ("sheet", "panel"): "sheet", ("treated",): "treated",
}  # fmt: skip
YES = {"yes", "true", "1", "y", "x"}


def harmless(cell: Any) -> Any:
    """A text that a spreadsheet would run, with a quote before it."""
    return f"'{cell}" if isinstance(cell, str) and cell.startswith(RUN_AS_FORMULA) else cell


def plain(cell: str) -> str:
    """A cell's text without the quote that kept it from being run."""
    text = cell.strip()[:LONGEST_CELL]
    return text[1:] if text[:1] == "'" and text[1:2] in RUN_AS_FORMULA else text


def rack_csv(rack: Rack) -> str:
    """One board a row, with a heading row."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(RACK_COLUMNS)
    for board in rack.boards.values():
        row = board.model_dump() | {"defects": "; ".join(_defect(d.model_dump()) for d in board.defects)}
        row |= {flag: "yes" if row[flag] else "" for flag in FLAGS}
        writer.writerow([harmless(row[column]) for column in RACK_COLUMNS])
    return out.getvalue()


def _defect(d: dict[str, float | None]) -> str:
    across = f"@{d['low_mm'] or 0.0:g}-{d['high_mm']:g}" if d["high_mm"] is not None else ""
    return f"{d['from_mm']:g}-{d['to_mm']:g}{across}"


def table_in(text: str) -> list[list[str]]:
    """The cells of a table, its heading row first. SpecError `no_table`, `table_large`."""
    if len(text) > LARGEST_TABLE or "\0" in text:
        raise SpecError("no_table" if "\0" in text else "table_large", ("text",), most_kb=LARGEST_TABLE // 1024)
    first = text.partition("\n")[0]
    separator = max((",", ";", "\t", "|"), key=first.count)
    try:
        return list(csv.reader(io.StringIO(text), delimiter=separator))
    except csv.Error:
        raise SpecError("no_table", ("text",)) from None


def headings_of(rows: list[list[str]]) -> list[str]:
    """The names of a table's columns, as they stand there."""
    return [plain(cell).lstrip("\ufeff") for cell in rows[0]] if rows else []


def guessed(headings: list[str], columns: tuple[str, ...] = RACK_COLUMNS) -> dict[str, str]:
    """What each of a table's columns most likely is, by its name: to be shown before anything is taken."""
    found: dict[str, str] = {}
    for heading in headings:
        said = heading.lower().replace("_", " ").strip()
        own = said.replace(" ", "_")
        column = (
            own
            if own in columns
            else next((c for words, c in LIKE.items() if any(word in said.split() for word in words) and c in columns), None)
        )
        if column and column not in found.values():
            found[heading] = column
    return found


def boards_in(text: str, mapping: Mapping[str, str] | None = None, mm_each: float = 1.0) -> list[RackBoard]:
    """The boards in a table. `mapping`: what its columns are, by their names there; `mm_each`: of the unit that its sizes are in. SpecError naming the row and the
    column: `no_table`, `columns_missing`, `table_long`, `cell_wrong`."""
    found = []
    for number, row in _rows(text, RACK_COLUMNS, SIZES, MOST_BOARDS, mapping):
        given: dict[str, Any] = _typed(
            number, row, floats=(*SIZES, "trim_left_mm", "trim_right_mm"), ints=("count",), flags=FLAGS
        )
        given |= {column: given[column] * mm_each for column in (*SIZES, "trim_left_mm", "trim_right_mm") if column in given}
        if given.get("defects"):
            given["defects"] = [_read_defect(number, text) for text in given["defects"].split(";")]
        found.append(_valid(RackBoard, number, given))
    return found


def _read_defect(number: int, text: str) -> dict[str, float]:
    match = DEFECT.fullmatch(text.strip())
    if not match:
        raise SpecError("cell_wrong", (f"row {number}",), row=number, column="defects", text=text.strip())
    names = ("from_mm", "to_mm", "low_mm", "high_mm")
    try:
        return {name: float(v) for name, v in zip(names, match.groups(), strict=True) if v is not None}
    except ValueError:
        raise SpecError("cell_wrong", (f"row {number}",), row=number, column="defects", text=text.strip()) from None


def prices_in(text: str, yard: str, currency: str, as_of: str) -> PriceList:
    """The price list in a table. SpecError as of the rack's."""
    items = []
    for number, row in _rows(text, PRICE_COLUMNS, ("code", *SIZES, "price"), MOST_ITEMS):
        given = _typed(number, row, floats=(*SIZES, "price"), ints=("stock",), flags=("treated", "sheet", "any_way"))
        items.append(_valid(YardItem, number, given))
    return PriceList(yard=yard, currency=currency, as_of=as_of, items=items)


def _rows(
    text: str, columns: tuple[str, ...], needed: tuple[str, ...], most: int, mapping: Mapping[str, str] | None = None
) -> list[tuple[int, dict[str, str]]]:
    """The rows with their numbers, as they stand in the table; empty ones are left out."""
    rows = table_in(text)
    named = headings_of(rows)
    heading = [mapping.get(cell, "") for cell in named] if mapping is not None else [c.lower().replace(" ", "_") for c in named]
    missing = [column for column in needed if column not in heading]
    if missing:
        raise SpecError("columns_missing", ("text",), missing=", ".join(missing), columns=", ".join(columns))
    filled = [(number, row) for number, row in enumerate(rows[1:], 2) if any(cell.strip() for cell in row)]
    if len(filled) > most:
        raise SpecError("table_long", ("text",), rows=len(filled), most=most)
    return [
        (number, {c: plain(v) for c, v in zip(heading, row, strict=False) if c in columns and v.strip()})
        for number, row in filled
    ]


def _typed(
    number: int, row: dict[str, str], *, floats: tuple[str, ...], ints: tuple[str, ...], flags: tuple[str, ...]
) -> dict[str, Any]:
    """A row's cells as what their columns hold."""
    made: dict[str, Any] = dict(row)
    for column in (*floats, *ints):
        if column in made:
            text = made[column].replace(",", ".")
            try:
                made[column] = float(text) if column in floats else int(text)
            except ValueError:
                raise SpecError("cell_wrong", (f"row {number}",), row=number, column=column, text=made[column]) from None
    return made | {flag: made[flag].lower() in YES for flag in flags if flag in made}


def _valid(model: Any, number: int, given: dict[str, Any]) -> Any:
    """A row as a model; what is wrong with it names the row and the column."""
    try:
        made = model.model_validate(given)
        if isinstance(made, RackBoard):
            made.check()
        return made
    except ValidationError as error:
        column = str(error.errors()[0]["loc"][0]) if error.errors()[0]["loc"] else ""
        raise SpecError("cell_wrong", (f"row {number}",), row=number, column=column, text=str(given.get(column, ""))) from None
    except SpecError as error:
        raise SpecError("cell_wrong", (f"row {number}",), row=number, column=error.fields[0], text="") from None
