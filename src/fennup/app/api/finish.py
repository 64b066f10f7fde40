"""The Finish place over HTTP: fastening, coats, the plan by the day, what it holds, setting up; and the workshop's tables."""

from contextlib import suppress
from datetime import datetime

from flask import Response, current_app
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import file_name, json_of, tagged
from fennup.app.api.projects import Opened, opened
from fennup.app.api.sessions import device_here, reading, writing
from fennup.app.api.undoing import redo_wish, undo_last
from fennup.app.schemas.api import Problem, ProjectPath, Seen
from fennup.app.schemas.finish import (
    DidAsked,
    FinishChange,
    FinishOut,
    JointQuery,
    PaintOut,
    PatternQuery,
    SeenFrom,
    TablesOut,
    WeatherAsked,
)
from fennup.app.schemas.fit import TakeBack
from fennup.app.schemas.sheet import ViewOut
from fennup.app.services import documents, racks
from fennup.app.services.dates import plan_ics
from fennup.app.services.finish_sheet import FinishSheet
from fennup.app.services.finish_tables import tables_out
from fennup.app.services.finishing import after_acts, finish_of, is_did
from fennup.app.services.fitting import add_own
from fennup.app.services.forecasts import WHERE, fetch
from fennup.app.services.lessons import learned, tasks_here, told_at
from fennup.app.services.outside import NoAnswer
from fennup.app.services.own import AT_THE_FINISH
from fennup.app.services.projects import PLAIN
from fennup.app.services.records import entries_of, last_here, records_of
from fennup.app.services.upgrade import PROJECT, TABLES
from fennup.app.services.validate import from_core
from fennup.core.errors import CoreError, SpecError
from fennup.core.exchange.finish_document import FinishDocument, finish_document
from fennup.core.exchange.paper import templates_pdf
from fennup.core.finish.planned import DID

api = APIBlueprint("finish", __name__, url_prefix="/api", abp_responses={404: Problem, 409: Problem, 422: Problem})


class FinishRoom:
    """All that a project's finish follows from."""

    def __init__(self, id: str) -> None:
        self.id = id
        self.opened: Opened = opened(id)
        self.now = datetime.now()
        with reading() as session:
            self.state = AT_THE_FINISH.state(session, id)
            self.tables_state = racks.state_of(session, TABLES, racks.IDS[TABLES])
            records = records_of(session, id)
            self.undo = last_here(records, is_did, self.state.wished_at)
            self.entries, self.learned = entries_of(records), learned(session)
            session.expunge_all()

    @property
    def based_on(self) -> tuple[object, ...]:
        """What it is based on; what is late changes with the hour."""
        hour = self.now.replace(minute=0, second=0, microsecond=0).isoformat()
        return (
            *self.opened.based_on,
            self.state.version,
            self.tables_state.version,
            len(self.entries),
            len(self.learned.lessons),
            hour,
        )

    def sheet(self) -> FinishSheet:
        """Ready to be worded."""
        solution = self.opened.solved()
        tables = racks.tables_in(self.tables_state)
        finish = finish_of(solution, tables, AT_THE_FINISH.inside(self.state), self.entries)
        return FinishSheet(finish, solution, self.opened.body.voice(), self.now)

    def answer(self) -> FinishOut:
        """As the screen shows it."""
        sheet = self.sheet()
        out = sheet.out(self.state, "a step that was done" if self.undo else None)
        told = told_at(self.learned, self.id, self.entries, tasks_here(sheet.finish)) if self.learned.lessons else {}
        for joint in out.fasten.joints:
            joint.reminder = told.get(joint.key)
        for task in out.days.tasks:
            task.reminder = told.get(task.id)
        return out


@api.get("/projects/<string:project_id>/finish", responses={200: FinishOut})
def read_finish(path: ProjectPath) -> Response:
    """What holds it together, what coats it, by which day, what it holds, how it is set up."""
    room = FinishRoom(path.project_id)
    return tagged((*room.based_on, "finish"), room.answer)


@api.get("/projects/<string:project_id>/finish/joint", responses={200: ViewOut})
def read_joint(path: ProjectPath, query: JointQuery) -> Response:
    """A kind of joint cut open, or where its fasteners go in."""
    room = FinishRoom(path.project_id)
    return tagged((*room.based_on, query.key, query.pattern), lambda: room.sheet().fasten.view(query.key, pattern=query.pattern))


@api.get("/projects/<string:project_id>/finish/pattern.pdf", responses={200: {"content": {"application/pdf": {}}}})
def read_pattern(path: ProjectPath, query: PatternQuery) -> Response:
    """Where fasteners go in, at true size."""
    room = FinishRoom(path.project_id)
    pdf = templates_pdf([room.sheet().fasten.template(query.key)], query.size)
    headers = {"Content-Disposition": f'attachment; filename="{file_name(room.opened.body.name)}-pattern.pdf"'}
    return Response(pdf, content_type="application/pdf", headers=headers)


@api.get("/projects/<string:project_id>/finish/faces", responses={200: PaintOut})
def read_faces(path: ProjectPath, query: SeenFrom) -> Response:
    """The whole with what becomes of each side."""
    room = FinishRoom(path.project_id)
    return tagged((*room.based_on, query.side, "faces"), lambda: room.sheet().coats.painting(query.side))


@api.get("/projects/<string:project_id>/finish/document", responses={200: FinishDocument})
def read_finish_document(path: ProjectPath) -> Response:
    """The finish as figures: the same document that the command line prints."""
    room = FinishRoom(path.project_id)
    try:
        return json_of(finish_document(room.sheet().finish))
    except CoreError as error:
        raise from_core(error, room.opened.body.voice()) from None


@api.get(
    "/projects/<string:project_id>/finish/dates.ics",
    responses={200: {"content": {"text/calendar": {"schema": {"type": "string"}}}}},
)
def read_dates(path: ProjectPath) -> Response:
    """The plan by the day as a calendar."""
    room = FinishRoom(path.project_id)
    sheet = room.sheet()
    try:
        text = plan_ics(sheet.finish, room.id, room.opened.body.name, room.state.changed_at)
    except CoreError as error:
        raise from_core(error, room.opened.body.voice()) from None
    headers = {"Content-Disposition": f'attachment; filename="{file_name(room.opened.body.name)}.ics"'}
    return Response(text, content_type="text/calendar; charset=utf-8", headers=headers)


@api.post("/projects/<string:project_id>/finish/acts", responses={200: FinishOut})
def change_finish(path: ProjectPath, body: FinishChange) -> Response:
    """Change how it is finished, and save."""
    room = FinishRoom(path.project_id)
    changed = after_acts(room.sheet().finish, list(body.acts), room.opened.body.voice(), room.now.date())
    did = {"acts": [act.model_dump(mode="json") for act in body.acts]}
    with writing() as session:
        AT_THE_FINISH.save(session, path.project_id, body.version, changed, did)
    return json_of(FinishRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/finish/did", responses={200: FinishOut})
def did_step(path: ProjectPath, body: DidAsked) -> Response:
    """A step by the day was done."""
    room = FinishRoom(path.project_id)
    if body.task not in {task.id for task in room.sheet().finish.tasks}:
        raise from_core(SpecError("no_such_step", ("task",), name=body.task), PLAIN)
    with writing() as session:
        documents.read(session, path.project_id, PROJECT)
        add_own(session, path.project_id, body.id, f"{DID}{body.task}", "did", {"text": ""}, device_here())
    return json_of(FinishRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/finish/back", responses={200: FinishOut})
def take_step_back(path: ProjectPath, body: TakeBack) -> Response:
    """A step that was done, was not."""
    with writing() as session:
        documents.read(session, path.project_id, PROJECT)
        add_own(session, path.project_id, body.id, body.record, "undone", {"takes_back": body.record}, device_here())
    return json_of(FinishRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/finish/weather", responses={200: FinishOut})
def ask_weather(path: ProjectPath, body: WeatherAsked) -> Response:
    """Ask the weather service. Where it gives no answer the last one stands, and it is said why."""
    room = FinishRoom(path.project_id)
    try:
        weather = fetch(current_app.config.get("WEATHER", WHERE), room.now.date())
    except NoAnswer as refused:
        raise from_core(SpecError(f"weather_{refused.code}", ("weather",)), PLAIN) from None
    wishes = AT_THE_FINISH.inside(room.state).model_copy(update={"weather": weather})
    with writing() as session:
        AT_THE_FINISH.save(session, path.project_id, body.version, wishes, {"said": "asking for the weather"})
    return json_of(FinishRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/finish/undo", responses={200: FinishOut})
def undo_finish(path: ProjectPath, body: Seen) -> Response:
    """Take back what was done last in this place: a step that was done, or a wish."""
    undo_last(path.project_id, FinishRoom(path.project_id).undo, AT_THE_FINISH, body.version)
    return json_of(FinishRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/finish/redo", responses={200: FinishOut})
def redo_finish(path: ProjectPath, body: Seen) -> Response:
    """Bring back what was wished."""
    opened(path.project_id)
    redo_wish(path.project_id, AT_THE_FINISH, body.version)
    return json_of(FinishRoom(path.project_id).answer())


# The workshop's tables.


@api.get("/tables", responses={200: TablesOut})
def read_tables() -> Response:
    """What one fastens, glues, coats and reckons with."""
    with reading() as session:
        state = racks.state_of(session, TABLES, racks.IDS[TABLES])
    return json_of(tables_out(state))


@api.post("/tables/acts", responses={200: TablesOut})
def change_tables(body: FinishChange) -> Response:
    """Change the tables and save."""
    with reading() as session:
        now = racks.tables_of(session)
    changed = racks.tables_after(now, list(body.acts))
    did = {"acts": [act.model_dump(mode="json") for act in body.acts]}
    with writing() as session:
        state = racks.save(session, TABLES, racks.IDS[TABLES], body.version, changed, did)
    return json_of(tables_out(state))


@api.post("/tables/undo", responses={200: TablesOut})
def undo_tables(body: Seen) -> Response:
    """Take the last change to the tables back."""
    return _stepped(body.version, -1)


@api.post("/tables/redo", responses={200: TablesOut})
def redo_tables(body: Seen) -> Response:
    """Bring it again."""
    return _stepped(body.version, 1)


def _stepped(version: int, by: int) -> Response:
    with writing() as session:
        with suppress(documents.NotFound):
            documents.step(session, racks.IDS[TABLES], TABLES, version, by)
        state = racks.state_of(session, TABLES, racks.IDS[TABLES])
    return json_of(tables_out(state))
