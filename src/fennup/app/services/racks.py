"""The rack, the price list, the tables and the mouldings: documents of the workshop, made when they are first changed."""

from collections.abc import Mapping
from datetime import UTC, datetime
from math import floor

from sqlalchemy.orm import Session

from fennup.app.services import documents
from fennup.app.services.projects import PLAIN
from fennup.app.services.upgrade import BOARDS, MOULDINGS, PRICES, RACK, TABLES, WORKSHOP
from fennup.app.services.validate import changed_by, from_core
from fennup.app.wording.figures import Voice
from fennup.core.boards.rack import PriceList, Rack, RackBoard, Stock, edit_rack, with_boards
from fennup.core.boards.tables import boards_in
from fennup.core.boards.wishes import Wishes, edit_wishes
from fennup.core.drawing.edit import Edit
from fennup.core.errors import CoreError
from fennup.core.exchange.boards_forms import BoardForm, OffcutForm
from fennup.core.finish.tables import USUAL_TABLES, Tables, edit_tables
from fennup.core.mouldings.library import Mouldings, after_cutting, edit_mouldings

IDS = {RACK: "rack", PRICES: "price-list", TABLES: "tables", MOULDINGS: "mouldings"}
EMPTY: dict[str, dict[str, object]] = {
    RACK: Rack().model_dump(mode="json"),
    PRICES: PriceList().model_dump(mode="json"),
    BOARDS: Wishes().model_dump(mode="json"),
    TABLES: USUAL_TABLES.model_dump(mode="json"),
    MOULDINGS: Mouldings().model_dump(mode="json"),
}


def state_of(session: Session, type: str, id: str) -> documents.State:
    """One of these documents; until something is changed an empty one."""
    try:
        return documents.read(session, id, type)
    except documents.NotFound:
        return documents.State(id, 1, dict(EMPTY[type]), None, None, datetime.now(UTC))


def rack_state(session: Session) -> documents.State:
    """The rack's document."""
    return state_of(session, RACK, IDS[RACK])


def rack_in(state: documents.State) -> Rack:
    """The rack that a document holds. Unreadable."""
    return documents.inside(state, RACK, Rack)


def prices_of(session: Session) -> PriceList:
    """The last price list; an empty one where there has been none. Unreadable."""
    return documents.inside(state_of(session, PRICES, IDS[PRICES]), PRICES, PriceList)


def tables_in(state: documents.State) -> Tables:
    """The tables that a document holds. Unreadable."""
    return documents.inside(state, TABLES, Tables)


def tables_of(session: Session) -> Tables:
    """The workshop's tables as they now are."""
    return tables_in(state_of(session, TABLES, IDS[TABLES]))


def tables_after(tables: Tables, acts: list[Edit], voice: Voice = PLAIN) -> Tables:
    """The tables after some acts. Invalid."""
    return changed_by(tables, acts, edit_tables, voice)


def mouldings_in(state: documents.State) -> Mouldings:
    """The mouldings that a document holds. Unreadable."""
    return documents.inside(state, MOULDINGS, Mouldings)


def mouldings_state(session: Session) -> documents.State:
    """The document of the mouldings."""
    return state_of(session, MOULDINGS, IDS[MOULDINGS])


def mouldings_of(session: Session) -> Mouldings:
    """The workshop's mouldings as they now are."""
    return mouldings_in(mouldings_state(session))


def mouldings_after(library: Mouldings, acts: list[Edit], voice: Voice = PLAIN) -> Mouldings:
    """The mouldings after some acts. Invalid."""
    return changed_by(library, acts, edit_mouldings, voice)


def wishes_id(project: str) -> str:
    """The id of a project's wishes."""
    return f"b-{project[:30]}"


def copy_wishes(session: Session, of: str, to: str) -> None:
    """What is wished of a project's boards, for another one too; nothing where nothing was wished."""
    state = state_of(session, BOARDS, wishes_id(of))
    if wishes_in(state) != Wishes():
        save(session, BOARDS, wishes_id(to), 1, wishes_in(state), {"event": "copying"}, to)


def wishes_in(state: documents.State) -> Wishes:
    """The wishes that a document holds. Unreadable."""
    return documents.inside(state, BOARDS, Wishes)


def save(
    session: Session,
    type: str,
    id: str,
    version: int,
    body: Rack | PriceList | Wishes | Tables | Mouldings,
    did: documents.Did,
    owner: str = WORKSHOP,
) -> documents.State:
    """Saved as one revision on the version that was seen. Conflict."""
    try:
        documents.read(session, id, type)
    except documents.NotFound:
        documents.create(session, type, dict(EMPTY[type]), {"event": "workshop"}, id, owner)
    return documents.save(session, id, type, version, body.model_dump(mode="json"), did)


def rack_after(rack: Rack, acts: list[Edit], voice: Voice = PLAIN) -> Rack:
    """The rack after some acts. Invalid."""
    return changed_by(rack, acts, edit_rack, voice)


def wishes_after(wishes: Wishes, acts: list[Edit], voice: Voice) -> Wishes:
    """The wishes after some acts. Invalid."""
    return changed_by(wishes, acts, edit_wishes, voice)


def rack_with_table(
    rack: Rack, text: str, voice: Voice = PLAIN, mapping: Mapping[str, str] | None = None, mm_each: float = 1.0
) -> Rack:
    """The rack with the boards of a table added; `mapping`: what its columns are, `mm_each`: of its unit. Invalid."""
    try:
        return with_boards(rack, boards_in(text, mapping, mm_each))
    except CoreError as error:
        raise from_core(error, voice) from None


def after_cuts(library: Mouldings, boards: list[BoardForm]) -> tuple[Mouldings, int]:
    """(the mouldings when a plan's cuts are done: what was cut up is gone, offcuts that are worth keeping are there; how many of these)."""
    used: dict[str, int] = {}
    offcuts: dict[str, list[float]] = {}
    for form in boards:
        if form.source.startswith("m:"):
            used[form.source] = used.get(form.source, 0) + 1
            own = offcuts.setdefault(form.source.split(":")[1], [])
            own += [float(floor(offcut.to_mm - offcut.from_mm)) for offcut in form.offcuts if offcut.kept]
    return after_cutting(library, used, offcuts), sum(map(len, offcuts.values()))


def back_on_rack(rack: Rack, prices: PriceList, boards: list[BoardForm], project: str) -> tuple[Rack, int, int]:
    """(the rack when a plan's cuts are done, how many offcuts came back, how many boards left it). SpecError `too_many_on_rack`."""
    left, back = dict(rack.boards), []
    for form in boards:
        known: Stock | None = rack.boards.get(form.source) or next(
            (i for i in prices.items if f"y:{i.code}" == form.source), None
        )
        if form.source in left:
            board = left.pop(form.source)
            if board.count > 1:
                left[form.source] = board.model_copy(update={"count": board.count - 1})
        for offcut in form.offcuts:
            if offcut.kept and not form.source.startswith("m:"):
                back.append(_offcut(offcut, known, project))
    rest = rack.model_copy(update={"boards": left, "numbered": rack.next_number() - 1})
    return with_boards(rest, back), len(back), sum(not form.bought for form in boards)


def _offcut(offcut: OffcutForm, of: Stock | None, project: str) -> RackBoard:
    """An offcut as a board of the rack, as whole mm of it as there are."""
    same = {name: getattr(of, name) for name in ("wood", "grade", "treated", "sheet", "any_way")} if of else {}
    long = float(floor(offcut.to_mm - offcut.from_mm))
    return RackBoard(
        name=f"Offcut, {project}"[:60], length_mm=long, width_mm=offcut.width_mm, thickness_mm=offcut.thickness_mm, **same
    )
