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
from fennup.app.services.upgrade import MOULDINGS, PROJECT, RACK
from fennup.app.services.validate import Invalid, from_core
from fennup.app.services.workshops import BUILT_IN
from fennup.app.wording.finish import how_many
from fennup.app.wording.mouldings import NO_RABBET
from fennup.app.wording.ploughed_labels import PLOUGHED_NAMES
from fennup.app.wording.problems import problem_text
from fennup.core.boards.tables import RACK_COLUMNS, SIZES, boards_in, guessed, headings_of, table_in
from fennup.core.drawing.edit import Choose
from fennup.core.drawing.view import Shape, View
from fennup.core.errors import CoreError, SpecError
from fennup.core.exchange.outline import MOST_CORNERS, DrawnSection, Outline, outline_in, section_in
from fennup.core.kinds.box.spec import MOST_SIDES
from fennup.core.kinds.ploughing import check_ploughed
from fennup.core.mouldings.drawn import moulding_view
from fennup.core.mouldings.library import Moulding

SAMPLE = 3
MOULDINGS_ALONE = ("outline_hollow", "outline_small", "outline_corners")  # what frames and cases cannot be
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
            return _drawing(file)
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
        if _is_drawing(file) and file.made == "moulding":
            state = racks.mouldings_state(session)
            made = _moulding_of(section_in(file.name, file.content), file)
            act = Choose(op="choose", path="mouldings.new", value=made)
            changed_library = racks.mouldings_after(racks.mouldings_in(state), [act])
            racks.save(session, MOULDINGS, racks.IDS[MOULDINGS], state.version, changed_library, {"event": "import"})
            return BroughtIn(projects=[], boards=0, mouldings=1, workshop=False)
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
            for name, store in zip(("rack", "price list", "tables", "list of mouldings"), found.stores.values(), strict=True)
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
    left = _not_read(outline)
    try:
        solved(body_of(outline, file), BUILT_IN)
    except Invalid as refused:
        left += [f"With these boards it does not work yet: {problem.text}" for problem in refused.problems[:2]]
    view = View("outline", (Shape("wood", outline.corners, True),))
    return FileRead(
        sort="outline", headline=f"An outline, {say(round(wide, 1))} by {say(round(high, 1))}", coming=coming, not_coming=left, columns=[], keys=[],
        view=view_out(view, PLAIN),
    )  # fmt: skip


def _drawing(file: FileIn) -> FileRead:
    """A drawing as what it is to become; where it can be no frame or case it may still be a moulding. SpecError where it is no drawing."""
    if file.made == "moulding":
        return _section(section_in(file.name, file.content), file)
    try:
        return _outline(_outline_of(file), file)
    except SpecError as refused:
        if refused.code not in MOULDINGS_ALONE:
            raise
        why = [problem_text(refused, PLAIN), "As a moulding cut across it can come in."]
        return FileRead(sort="outline", headline="An outline", coming=[], not_coming=why, columns=[], keys=[], view=None)


def _moulding_of(drawn: DrawnSection, file: FileIn) -> dict[str, Any]:
    """What a drawn section becomes among the workshop's mouldings."""
    section = drawn.section
    return {
        "name": file.name.rpartition(".")[0][:60] or "Moulding",
        "width_mm": section.width_mm,
        "thickness_mm": section.thickness_mm,
        "ploughed": [cut.model_dump(mode="json") for cut in section.ploughed],
        "error_mm": round(drawn.error_mm, 3) if drawn.curved else None,
    }


def _section(drawn: DrawnSection, file: FileIn) -> FileRead:
    """A moulding cut across, by what of it has figures to be typed."""
    say, section = PLAIN.say, drawn.section
    moulding = Moulding.model_validate(_moulding_of(drawn, file))
    check_ploughed(section, 0, "content")
    forms = [PLOUGHED_NAMES[cut.form].lower() for cut in section.ploughed]
    coming = [
        f"A moulding {say(section.width_mm)} wide and {say(section.thickness_mm)} thick, its opening edge at the left and its show side up, as it is drawn; both can be turned later.",
        f"Along it: {', '.join(forms)}." if forms else "Nothing is cut along it.",
    ]
    if drawn.curved:
        coming.append(f"Its curves become straight pieces: at most {drawn.error_mm:.2f} mm off.")
    left = _not_read(drawn) + ([] if section.rabbet else [NO_RABBET])
    headline = f"A moulding, {say(round(section.width_mm, 1))} by {say(round(section.thickness_mm, 1))}"
    view = view_out(moulding_view("m1", moulding), PLAIN).model_copy(update={"marks": [], "dimensions": []})
    return FileRead(sort="outline", headline=headline, coming=coming, not_coming=left, columns=[], keys=[], view=view)


def _not_read(drawn: Outline | DrawnSection) -> list[str]:
    """What else a drawing holds."""
    left = [f"{how_many(drawn.others, 'other closed line')}: only the largest comes in."] if drawn.others else []
    left += [f"{how_many(drawn.open_runs, 'line')} that do not close."] if drawn.open_runs else []
    return left + [f"{name[:1].upper()}{name[1:]}: not read." for name in drawn.ignored]


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
