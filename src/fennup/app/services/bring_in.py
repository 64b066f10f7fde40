"""Files that come in: what each is, what of it comes in and what does not, and bringing it in. Nothing is taken that was not shown."""

import json
from typing import Any

from sqlalchemy.orm import Session

from fennup.app.schemas.bring_in import BroughtIn, ColumnOut, FileIn, FileRead
from fennup.app.services import documents, racks
from fennup.app.services.drawings import view_out
from fennup.app.services.portable import Import, is_file
from fennup.app.services.projects import PLAIN, USUAL_GRADUATION, ProjectBody, checked_name, valid_spec
from fennup.app.services.solving import solved
from fennup.app.services.upgrade import PROJECT, RACK
from fennup.app.services.validate import Invalid, from_core
from fennup.app.services.workshops import BUILT_IN
from fennup.app.wording.finish import how_many
from fennup.core.boards.tables import RACK_COLUMNS, SIZES, boards_in, guessed, headings_of, table_in
from fennup.core.drawing.view import Shape, View
from fennup.core.errors import CoreError, SpecError
from fennup.core.exchange.outline import MOST_CORNERS, Outline, outline_in
from fennup.core.kinds.box.spec import MOST_SIDES

SAMPLE = 3
MM_IN = {"mm": 1.0, "in": 25.4}
COLUMN_NAMES = {
    "name": "what it is called", "length_mm": "length", "width_mm": "width", "thickness_mm": "thickness", "count": "how many", "wood": "wood", "grade": "grade",
    "treated": "treated", "sheet": "sheet", "any_way": "grain any way", "reclaimed": "reclaimed", "nails": "has nails", "old_paint": "has old paint",
    "trim_left_mm": "cut off, left", "trim_right_mm": "cut off, right", "defects": "knots and cracks",
}  # fmt: skip


def _is_json(file: FileIn) -> bool:
    return file.content.lstrip("\ufeff \t\r\n")[:1] in ("{", "[")


def _is_drawing(file: FileIn) -> bool:
    return file.name.lower().endswith((".svg", ".dxf")) or "<svg" in file.content[:4000].lower()


def _refuse(file: FileIn) -> None:
    """What no file that comes in looks like. SpecError."""
    if not file.content.strip():
        raise SpecError("file_empty", ("content",))
    if file.content[:2] == "PK":
        raise SpecError("file_zipped", ("content",))
    if "\0" in file.content[:4096]:
        raise SpecError("file_binary", ("content",))


def _document(file: FileIn) -> dict[str, Any]:
    """A file of Fennup's own. SpecError `file_damaged` says where."""
    try:
        found = json.loads(file.content.lstrip("\ufeff"))
    except json.JSONDecodeError as error:
        raise SpecError("file_damaged", ("content",), line=error.lineno, place=error.colno, said=error.msg.lower()) from None
    except RecursionError:
        raise SpecError("file_damaged", ("content",), line=1, place=1, said="nested too deep") from None
    if not is_file(found):
        raise SpecError("no_fennup_file", ("format",))
    return found  # type: ignore[no-any-return]


def _outline_of(file: FileIn) -> Outline:
    return outline_in(file.name, file.content, MOST_SIDES if file.made == "case" else MOST_CORNERS)


def _mapping(file: FileIn, headings: list[str]) -> dict[str, str]:
    """What each column is: as somebody says, else as its name tells; the same when it is looked at and when it is brought in."""
    return guessed(headings) if file.mapping is None else file.mapping


def look(file: FileIn, session: Session) -> FileRead:
    """What a file is, and what of it would come in. Invalid."""
    try:
        _refuse(file)
        if _is_json(file):
            return _own(Import(_document(file)), session)
        if _is_drawing(file):
            return _outline(_outline_of(file), file)
        return _table(file)
    except CoreError as error:
        raise from_core(error, PLAIN) from None


def bring_in(file: FileIn, session: Session) -> BroughtIn:
    """All of it, or nothing. Invalid."""
    try:
        _refuse(file)
        if _is_json(file):
            found = Import(_document(file))
            return BroughtIn(projects=found.save(session), boards=0, workshop=found.workshop is not None)
        if _is_drawing(file):
            body = body_of(_outline_of(file), file)
            solved(body, BUILT_IN)
            state = documents.create(session, PROJECT, body.model_dump(mode="json"), {"event": "import"})
            return BroughtIn(projects=[state.id], boards=0, workshop=False)
        rack_state = racks.rack_state(session)
        now = racks.rack_in(rack_state)
        mapping = _mapping(file, headings_of(table_in(file.content)))
        changed = racks.rack_with_table(now, file.content, PLAIN, mapping, MM_IN[file.unit])
        racks.save(session, RACK, racks.IDS[RACK], rack_state.version, changed, {"event": "rack_table"})
        return BroughtIn(projects=[], boards=len(changed.boards) - len(now.boards), workshop=False)
    except CoreError as error:
        raise from_core(error, PLAIN) from None


def _own(found: Import, session: Session) -> FileRead:
    there = {str((state.body or {}).get("name")) for state in documents.listed(session, PROJECT)}
    coming, left = [], []
    for body, entry in found.entries:
        more = [how_many(len(entry.records), "record")] if entry.records else []
        more += [how_many(len(entry.files), "photo")] if entry.files else []
        twice = "; there is one of that name already, this one comes beside it" if body.name in there else ""
        coming.append(f"{body.name}{': ' + ', '.join(more) if more else ''}{twice}")
        boards = entry.boards
        if boards and (boards.rack.boards or boards.prices.items):
            left.append(f"{body.name}: the rack and the price list that it was planned with; yours stay.")
        if entry.finish and entry.finish.tables:
            left.append(f"{body.name}: the tables that it was reckoned with; yours stay.")
    if found.workshop:
        coming.append("The workshop: tools, tape and allowance take the place of yours; Undo brings yours back.")
        coming += [
            f"Its {name} takes the place of yours."
            for name, store in zip(("rack", "price list", "tables"), found.stores.values(), strict=True)
            if store
        ]
    return FileRead(
        sort="workshop" if found.workshop else "project", headline=how_many(len(found.entries), "project"), coming=coming, not_coming=left,
        columns=[], keys=[], view=None,
    )  # fmt: skip


def body_of(outline: Outline, file: FileIn) -> ProjectBody:
    """A project with an outline as that of a frame or a case."""
    corners = [list(corner) for corner in outline.corners]
    if file.made == "case":
        spec: dict[str, Any] = {
            "kind": "box", "plan": {"form": "irregular", "corners": corners}, "height_mm": file.width_mm, "thickness_mm": file.thickness_mm,
        }  # fmt: skip
    else:
        shape = {"form": "irregular", "line": file.made.removeprefix("frame_"), "corners": corners}
        board = {"width_mm": file.width_mm, "thickness_mm": file.thickness_mm}
        spec = {"kind": "flat_frame", "shape": shape, "board": board}
    name = checked_name(file.name.rpartition(".")[0][:70] or "Outline")
    return ProjectBody(
        name=name, unit=file.unit, graduation=USUAL_GRADUATION[file.unit], spec=valid_spec(spec).model_dump(mode="json")
    )


def _outline(outline: Outline, file: FileIn) -> FileRead:
    say = PLAIN.say
    wide, high = outline.size
    coming = [f"An outline of {len(outline.corners)} corners, {say(round(wide, 2))} wide and {say(round(high, 2))} high."]
    if outline.curved:
        coming.append(f"Its curves become straight sides, with the corners on the curve: at most {outline.error_mm:.2f} mm off.")
    left = [f"{how_many(outline.others, 'other closed line')}: only the largest comes in."] if outline.others else []
    left += [f"{how_many(outline.open_runs, 'line')} that do not close."] if outline.open_runs else []
    left += [f"{name[:1].upper()}{name[1:]}: not read." for name in outline.ignored]
    try:
        solved(body_of(outline, file), BUILT_IN)
    except Invalid as refused:
        left += [f"With these boards it does not work yet: {problem.text}" for problem in refused.problems[:2]]
    view = View("outline", (Shape("wood", outline.corners, True),))
    return FileRead(
        sort="outline", headline=f"An outline, {say(round(wide, 1))} by {say(round(high, 1))}", coming=coming, not_coming=left, columns=[], keys=[],
        view=view_out(view, PLAIN),
    )  # fmt: skip


def _table(file: FileIn) -> FileRead:
    """A list for the rack, with what each column was taken for."""
    rows = table_in(file.content)
    headings = headings_of(rows)
    mapping = _mapping(file, headings)
    columns = [
        ColumnOut(name=name, key=mapping.get(name, ""), sample=[row[k] for row in rows[1 : SAMPLE + 1] if k < len(row)])
        for k, name in enumerate(headings)
    ]
    missing = [COLUMN_NAMES[column] for column in SIZES if column not in mapping.values()]
    left = [f"The column “{c.name}”." for c in columns if not c.key and c.name]
    if missing:
        coming: list[str] = []
        left.insert(0, f"Nothing yet: say which column is the {', the '.join(missing)}.")
        headline = "A table"
    else:
        boards = boards_in(file.content, mapping, MM_IN[file.unit])
        coming = [
            f"{b.name or 'A board'}: {PLAIN.say(b.length_mm)} × {PLAIN.say(b.width_mm)} × {PLAIN.say(b.thickness_mm)}"
            + (f", {b.count} of it" if b.count > 1 else "")
            for b in boards[:12]
        ]
        coming += [f"and {len(boards) - 12} more"] if len(boards) > 12 else []
        headline = f"{how_many(len(boards), 'board')} for the rack"
    return FileRead(
        sort="rack", headline=headline, coming=coming, not_coming=left, columns=columns,
        keys=[(column, COLUMN_NAMES[column]) for column in RACK_COLUMNS], view=None,
    )  # fmt: skip
