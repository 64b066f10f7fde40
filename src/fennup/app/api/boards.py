"""The rack, the yard's list, and the plan of a project's boards, over HTTP."""

from contextlib import suppress
from datetime import UTC, datetime
from typing import Any

from flask import Response, current_app
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import file_name, json_of
from fennup.app.api.finish import FinishRoom
from fennup.app.api.projects import Opened, opened, project_out
from fennup.app.api.sessions import has_worker, reading, store, wake_worker, writing
from fennup.app.schemas.api import Nothing, Problem, ProjectOut, ProjectPath, Seen
from fennup.app.schemas.boards import (
    BoardsOut,
    Bought,
    CutDone,
    CutDoneOut,
    InVoiceOf,
    OtherProjectOut,
    PricesIn,
    PricesOut,
    RackChange,
    RackLook,
    RackOut,
    TableIn,
    WishesChange,
)
from fennup.app.services import board_plans, documents, racks
from fennup.app.services.board_plans import Asked, Found, asked_for, plan_or_job
from fennup.app.services.boards_sheet import left_out, names_of, plan_out, prices_out, rack_out, wishes_controls
from fennup.app.services.buy_list import buy_list
from fennup.app.services.drawings import control_out
from fennup.app.services.outside import NoAnswer
from fennup.app.services.projects import PLAIN, ProjectBody, project_in, with_thickness
from fennup.app.services.records import entries_of, records_of
from fennup.app.services.solving import solved
from fennup.app.services.upgrade import BOARDS, MOULDINGS, PRICES, PROJECT, RACK
from fennup.app.services.validate import Invalid, from_core
from fennup.app.services.yards import WHERE, fetch
from fennup.app.wording.acts import did_words
from fennup.app.wording.figures import Voice
from fennup.core.boards.rack import PriceList
from fennup.core.boards.tables import prices_in, rack_csv
from fennup.core.boards.wishes import Wishes
from fennup.core.errors import CoreError
from fennup.core.exchange.boards_forms import BoardsDocument
from fennup.core.exchange.tables import table_csv
from fennup.core.records.fold import wood_of

api = APIBlueprint("boards", __name__, url_prefix="/api", abp_responses={404: Problem, 409: Problem, 422: Problem})
BROKE = "Something broke while this was planned. Change anything about it, and it is tried again."
CSV: dict[Any, Any] = {200: {"content": {"text/csv": {"schema": {"type": "string"}}}}}


def _voice(query: InVoiceOf) -> Voice:
    """The tape of the project that is open, the workshop's where none is."""
    if not query.project:
        return PLAIN
    with reading() as session:
        state = documents.read(session, query.project, PROJECT)
    return project_in(state.body, state.id).voice()


def _csv(text: str, name: str) -> Response:
    headers = {"Content-Disposition": f'attachment; filename="{name}.csv"'}
    return Response(text, content_type="text/csv; charset=utf-8", headers=headers)


@api.get("/rack", responses={200: RackOut})
def read_rack(query: InVoiceOf) -> Response:
    """The boards on the rack, drawn."""
    with reading() as session:
        state = racks.rack_state(session)
    return json_of(rack_out(state, _voice(query)))


@api.post("/rack/acts", responses={200: RackOut})
def change_rack(query: InVoiceOf, body: RackChange) -> Response:
    """Change the rack and save."""
    voice = _voice(query)
    with reading() as session:
        now = racks.rack_in(racks.rack_state(session))
    changed = racks.rack_after(now, list(body.acts), voice)
    did = {"acts": [act.model_dump(mode="json") for act in body.acts]}
    with writing() as session:
        state = racks.save(session, RACK, racks.IDS[RACK], body.version, changed, did)
    return json_of(rack_out(state, voice))


@api.post("/rack/look", responses={200: RackOut})
def look_at_rack(query: InVoiceOf, body: RackLook) -> Response:
    """What some acts would make of the rack, without saving."""
    voice = _voice(query)
    with reading() as session:
        state = racks.rack_state(session)
    return json_of(rack_out(state, voice, racks.rack_after(racks.rack_in(state), list(body.acts), voice)))


@api.post("/rack/undo", responses={200: RackOut})
def undo_rack(query: InVoiceOf, body: Seen) -> Response:
    """Take the last change to the rack back."""
    return _rack_stepped(query, body.version, -1)


@api.post("/rack/redo", responses={200: RackOut})
def redo_rack(query: InVoiceOf, body: Seen) -> Response:
    """Bring it again."""
    return _rack_stepped(query, body.version, 1)


def _rack_stepped(query: InVoiceOf, version: int, by: int) -> Response:
    voice = _voice(query)
    with writing() as session:
        known = documents.ever_made(session, RACK)
        state = documents.step(session, racks.IDS[RACK], RACK, version, by) if known else racks.rack_state(session)
    return json_of(rack_out(state, voice))


@api.get("/rack.csv", responses=CSV)
def export_rack() -> Response:
    """The rack as comma-separated values."""
    with reading() as session:
        rack = racks.rack_in(racks.rack_state(session))
    return _csv(rack_csv(rack), "rack")


@api.post("/rack/table", responses={200: RackOut})
def import_rack(query: InVoiceOf, body: TableIn) -> Response:
    """Add the boards of a table to the rack: all of them or none."""
    voice = _voice(query)
    with reading() as session:
        now = racks.rack_in(racks.rack_state(session))
    changed = racks.rack_with_table(now, body.text, voice)
    with writing() as session:
        state = racks.save(session, RACK, racks.IDS[RACK], body.version, changed, {"event": "rack_table"})
    return json_of(rack_out(state, voice))


def _wishes_of(project: str) -> Wishes:
    if not project:
        return Wishes()
    with reading() as session:
        return racks.wishes_in(racks.state_of(session, BOARDS, racks.wishes_id(project)))


@api.get("/prices", responses={200: PricesOut})
def read_prices(query: InVoiceOf) -> Response:
    """The last price list, and how old it is."""
    with reading() as session:
        prices = racks.prices_of(session)
    return json_of(prices_out(prices, _wishes_of(query.project), _voice(query)))


@api.post("/prices/ask", responses={200: PricesOut})
def ask_yard(query: InVoiceOf, body: Nothing) -> Response:
    """Ask the yard for its list. Where it gives none the last one stands, and it is said why."""
    try:
        prices = fetch(current_app.config.get("YARD", WHERE))
    except NoAnswer as refused:
        with reading() as session:
            last = racks.prices_of(session)
        return json_of(prices_out(last, _wishes_of(query.project), _voice(query), refused.code))
    return _priced(query, prices, "price_list")


@api.post("/prices/table", responses={200: PricesOut})
def import_prices(query: InVoiceOf, body: PricesIn) -> Response:
    """A price list from a table, in place of the last one."""
    try:
        prices = prices_in(body.text, body.yard, body.currency, datetime.now(UTC).isoformat(timespec="seconds"))
    except CoreError as error:
        raise from_core(error, _voice(query)) from None
    return _priced(query, prices, "price_table")


def _priced(query: InVoiceOf, prices: PriceList, event: str) -> Response:
    with writing() as session:
        now = racks.state_of(session, PRICES, racks.IDS[PRICES])
        racks.save(session, PRICES, racks.IDS[PRICES], now.version, prices, {"event": event})
    return json_of(prices_out(prices, _wishes_of(query.project), _voice(query)))


class _Place:
    """All that a project's Boards place follows from."""

    def __init__(self, id: str) -> None:
        self.opened: Opened = opened(id)
        with reading() as session:
            self.state = racks.state_of(session, BOARDS, racks.wishes_id(id))
            self.rack_state = racks.rack_state(session)
            self.prices = racks.prices_of(session)
            self.mouldings_state = racks.mouldings_state(session)
            self.beside = [s for s in documents.listed(session, PROJECT) if s.id != id]
            self.wood = wood_of(entries_of(records_of(session, id)))
        self.wishes = racks.wishes_in(self.state)
        self.rack = racks.rack_in(self.rack_state)
        self.mouldings = racks.mouldings_in(self.mouldings_state)

    @property
    def voice(self) -> Voice:
        """The project's."""
        return self.opened.body.voice()

    def chosen(self) -> list[tuple[str, ProjectBody]]:
        """The projects that are cut beside it, those that can be worked out."""
        found = []
        for state in self.beside:
            if state.id in self.wishes.beside:
                try:
                    body = project_in(state.body, state.id)
                    solved(body, self.opened.workshop)
                    found.append((state.id, body))
                except (documents.Unreadable, Invalid):
                    continue
        return found

    def asked(self) -> Asked:
        """The plan that is wanted."""
        body = self.opened.body
        specs = [(self.opened.state.id, self.opened.solved().spec.model_dump(mode="json"))]
        specs += [(id, solved(other, self.opened.workshop).spec.model_dump(mode="json")) for id, other in self.chosen()]
        kerf = self.opened.workshop.kerf_mm
        return asked_for(specs, self.rack, self.prices, self.wishes, kerf, body.unit, body.graduation, self.wood, self.mouldings)

    def found(self) -> Found:
        """The plan that there is, and the job that makes a newer one."""
        made = plan_or_job(self.asked(), store(), has_worker=has_worker())
        if made.job:
            wake_worker()
        return made

    def out(self) -> Response:
        """As the screen shows it."""
        found, voice = self.found(), self.voice
        solutions = [("", "", self.opened.solved())]
        solutions += [(f"{id}:", body.name, solved(body, self.opened.workshop)) for id, body in self.chosen()]
        plan = (
            plan_out(found.plan, None if found.stale else found.before, self.wishes, names_of(solutions), voice)
            if found.plan
            else None
        )
        return json_of(
            BoardsOut(
                version=self.state.version,
                undo=did_words(self.state.undo, voice),
                redo=did_words(self.state.redo, voice),
                controls=[control_out(c, voice) for c in wishes_controls(self.wishes, voice)],
                wood=self.wishes.wood,
                left_out=left_out(self.wishes, self.rack, self.prices, voice),
                rack_version=self.rack_state.version,
                plan=plan,
                stale=found.stale,
                notice=BROKE if found.broke else "",
                job=found.job,
                others=[
                    OtherProjectOut(id=s.id, name=str((s.body or {}).get("name"))[:80], chosen=s.id in self.wishes.beside)
                    for s in self.beside
                ],
            )
        )


def plan_there(found: Opened) -> BoardsDocument | None:
    """The plan of a project's boards, where there is a finished one of what now holds; none is made."""
    place = _Place(found.state.id)
    return board_plans.plan_there(place.asked(), store())


def plan_or_wait(found: Opened) -> BoardsDocument | None:
    """The plan of a project's boards; where there is none it is asked for, and there will be one in a while."""
    made = _Place(found.state.id).found()
    return None if made.stale else made.plan


def make_plan_now(id: str) -> BoardsDocument:
    """The plan of a project's boards, made at once where there is none."""
    found = plan_or_job(_Place(id).asked(), store(), has_worker=False)
    assert found.plan
    return found.plan


@api.get("/projects/<string:project_id>/boards", responses={200: BoardsOut})
def read_boards(path: ProjectPath) -> Response:
    """Which part comes out of which board."""
    return _Place(path.project_id).out()


@api.post("/projects/<string:project_id>/boards/acts", responses={200: BoardsOut})
def change_boards(path: ProjectPath, body: WishesChange) -> Response:
    """Change what is wished of the plan, and save."""
    place = _Place(path.project_id)
    changed = racks.wishes_after(place.wishes, list(body.acts), place.voice)
    did = {"acts": [act.model_dump(mode="json") for act in body.acts]}
    with writing() as session:
        racks.save(session, BOARDS, racks.wishes_id(path.project_id), body.version, changed, did, path.project_id)
    return _Place(path.project_id).out()


@api.post("/projects/<string:project_id>/boards/undo", responses={200: BoardsOut})
def undo_boards(path: ProjectPath, body: Seen) -> Response:
    """Take the last change of the wishes back."""
    return _wishes_stepped(path.project_id, body.version, -1)


@api.post("/projects/<string:project_id>/boards/redo", responses={200: BoardsOut})
def redo_boards(path: ProjectPath, body: Seen) -> Response:
    """Bring it again."""
    return _wishes_stepped(path.project_id, body.version, 1)


def _wishes_stepped(id: str, version: int, by: int) -> Response:
    opened(id)
    with writing() as session, suppress(documents.NotFound):  # nothing was wished yet
        documents.step(session, racks.wishes_id(id), BOARDS, version, by)
    return _Place(id).out()


@api.post("/projects/<string:project_id>/boards/stop", responses={200: BoardsOut})
def stop_planning(path: ProjectPath, body: Nothing) -> Response:
    """Plan no further: the best so far is kept."""
    place = _Place(path.project_id)
    with writing() as session:
        board_plans.stop(session, place.asked())
    return place.out()


@api.get("/projects/<string:project_id>/boards/plan", responses={200: BoardsDocument})
def read_plan(path: ProjectPath) -> Response:
    """The plan as figures: the same document that the command line prints. Without a finished one it is made at once."""
    return json_of(make_plan_now(path.project_id))


@api.get("/projects/<string:project_id>/boards/buy.csv", responses=CSV)
def export_buy_list(path: ProjectPath) -> Response:
    """What is to be bought, as comma-separated values."""
    place = _Place(path.project_id)
    plan = make_plan_now(path.project_id)
    besides = [(line.text, line.figure) for line in FinishRoom(path.project_id).sheet().buys()]
    return _csv(table_csv(buy_list(plan, besides)), f"{file_name(place.opened.body.name)}-to-buy")


@api.post("/projects/<string:project_id>/boards/bought", responses={200: ProjectOut})
def correct_thickness(path: ProjectPath, body: Bought) -> Response:
    """What was bought is thinner or thicker than its name says: the project follows."""
    now = opened(path.project_id)
    changed = with_thickness(now.body, body.from_mm, body.text)
    solution = solved(changed, now.workshop)
    with writing() as session:
        stored = changed.model_dump(mode="json")
        state = documents.save(session, path.project_id, PROJECT, body.version, stored, {"event": "bought"})
    return project_out(state, changed, solution)


@api.post("/projects/<string:project_id>/boards/done", responses={200: CutDoneOut})
def cuts_done(path: ProjectPath, body: CutDone) -> Response:
    """All cuts are done: what came from the rack leaves it, what is left and long enough goes back."""
    place = _Place(path.project_id)
    found = plan_or_job(place.asked(), store(), has_worker=False)
    assert found.plan
    try:
        rack, back, gone = racks.back_on_rack(place.rack, place.prices, found.plan.boards, place.opened.body.name)
    except CoreError as error:
        raise from_core(error, place.voice) from None
    with writing() as session:
        racks.save(session, RACK, racks.IDS[RACK], body.version, rack, {"event": "cuts_done"})
        mouldings, lengths = racks.after_cuts(place.mouldings, found.plan.boards)
        if mouldings != place.mouldings:
            now = racks.mouldings_state(session)
            racks.save(session, MOULDINGS, racks.IDS[MOULDINGS], now.version, mouldings, {"event": "cuts_done"})
    return json_of(CutDoneOut(back=back + lengths, gone=gone))
