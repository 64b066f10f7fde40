"""The workshop's tables as they are seen and changed."""

from typing import Any

from pydantic import BaseModel

from fennup.app.schemas.finish import RowOut, TableOut, TablesOut
from fennup.app.schemas.sheet import ControlOut
from fennup.app.services import documents
from fennup.app.services.controls import choosing, figure_in, picked
from fennup.app.services.projects import PLAIN
from fennup.app.services.racks import tables_in
from fennup.app.wording.acts import did_words
from fennup.app.wording.finish_labels import FIELD_NAMES, TABLE_NAMES, TABLE_NOTES
from fennup.core.finish.tables import ROWS, SIZES, Tables
from fennup.core.units.lengths import decimals

SINGLE = ("limits", "season", "speed")
YES_NO = [("yes", "yes", True), ("no", "no", False)]


def tables_out(state: documents.State) -> TablesOut:
    """All tables."""
    tables = tables_in(state)
    found = [_table(name, dict(getattr(tables, name)), f"{name}/") for name in ROWS]
    found += [_table(name, dict(getattr(tables.fasteners, name)), f"fasteners/{name}/") for name in SIZES]
    found.append(
        TableOut(
            id="rules",
            title=TABLE_NAMES["rules"],
            note=TABLE_NOTES["rules"],
            rows=[_row("", tables.fasteners.rules, "fasteners/rules/")],
            add="",
        )
    )
    found += [_single(name, tables) for name in SINGLE]
    return TablesOut(version=state.version, undo=did_words(state.undo, PLAIN), redo=did_words(state.redo, PLAIN), tables=found)  # fmt: skip


def _single(name: str, tables: Tables) -> TableOut:
    row = _row("", getattr(tables, name), f"{name}/")
    return TableOut(id=name, title=TABLE_NAMES[name], note=TABLE_NOTES.get(name, ""), rows=[row], add="")


def _table(name: str, rows: dict[str, BaseModel], at: str) -> TableOut:
    made = [
        _row(key, row, f"{at}{key}/").model_copy(update={"remove": choosing(f"{at}{key}", None) if len(rows) > 1 else []})
        for key, row in rows.items()
    ]
    return TableOut(id=name, title=TABLE_NAMES[name], note=TABLE_NOTES.get(name, ""), rows=made, add=f"{at}add")


def _row(name: str, row: BaseModel, at: str) -> RowOut:
    controls = [
        control
        for field in type(row).model_fields
        if field not in ("name", "source") and (control := _field(f"{at}{field}", name, field, getattr(row, field)))
    ]
    return RowOut(name=name, source=str(getattr(row, "source", "usual, editable")), controls=controls, remove=[])


def _field(path: str, row: str, field: str, value: Any) -> ControlOut | None:
    label = FIELD_NAMES[field]
    if isinstance(value, bool):
        return picked(path, label, YES_NO, value, about=row)
    if field == "fills":
        kinds = [(k, w, k) for k, w in (("paint", "paint"), ("clear", "clear coat"), ("oil", "oil"), ("bare", "nothing"))]
        return picked(path, label, kinds, value, about=row)
    if isinstance(value, tuple):
        text = ", ".join(decimals(float(v), 1) for v in value)
        return figure_in(path, label, PLAIN.plain(0).model_copy(update={"whole": text, "typed": text, "spoken": text}), about=row)
    if field.endswith("_mm"):
        return figure_in(path, label, PLAIN.gap(float(value)), about=row)
    return figure_in(path, label, PLAIN.plain(float(value), digits=6), about=row)
