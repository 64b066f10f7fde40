"""The Log over HTTP: what happened, hours, photos, lessons, cost; build it again; and everything that goes out as a file."""

from contextlib import suppress
from datetime import datetime
from functools import cached_property
from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import file_name, json_of
from fennup.app.api.boards import make_plan_now, plan_or_wait
from fennup.app.api.finish import FinishRoom
from fennup.app.api.projects import opened
from fennup.app.api.saw import SawRoom
from fennup.app.api.sessions import device_here, reading, writing
from fennup.app.api.undoing import redo_wish, undo_last
from fennup.app.models.tables import Record
from fennup.app.schemas.api import Problem, ProjectPath, Seen
from fennup.app.schemas.log import (
    MOST_ORDERS,
    AgainAsked,
    AgainMade,
    AgainOut,
    BesideOut,
    ExportPath,
    ExportQuery,
    HoursAsked,
    LogChange,
    LogOut,
    LogRecord,
    PhotoAsked,
    PhotoPath,
)
from fennup.app.services import documents, racks
from fennup.app.services.again import made_again, shared_settings
from fennup.app.services.bench_sheet import BenchSheet
from fennup.app.services.exports import EXPORTS, Outgoing
from fennup.app.services.fitting import add_own
from fennup.app.services.hours import check_clock, day_in, hours_in
from fennup.app.services.lessons import learned, slips_out
from fennup.app.services.log_sheet import LogSheet, is_own
from fennup.app.services.own import AT_THE_FINISH, IN_THE_LOG
from fennup.app.services.photos import add_photo, photo
from fennup.app.services.projects import PLAIN, project_in
from fennup.app.services.records import NewRecord, check_body, entries_of, last_here, records_of
from fennup.app.services.solving import solved
from fennup.app.services.upgrade import BOARDS, PROJECT
from fennup.app.services.validate import Invalid, from_core
from fennup.core.errors import CoreError, SpecError
from fennup.core.exchange.log_document import LogDocument
from fennup.core.records.entry import BODIES, ClockBody, HoursBody, RemindedBody, UndoneBody
from fennup.core.records.fold import entry_of

api = APIBlueprint("log", __name__, url_prefix="/api", abp_responses={404: Problem, 409: Problem, 422: Problem})
ANY_FILE: dict[Any, Any] = {200: {"content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}}}}
PHOTO: dict[Any, Any] = {200: {"content": {"image/jpeg": {"schema": {"type": "string", "format": "binary"}}}}}


class LogRoom:
    """All that a project's log follows from."""

    def __init__(self, id: str) -> None:
        self.id = id
        self.now = datetime.now().astimezone()
        self.saw, self.finish = SawRoom(id), FinishRoom(id)
        with reading() as session:
            self.state = IN_THE_LOG.state(session, id)
            self.undo = last_here(records_of(session, id), is_own, self.state.wished_at)
            self.slips, self.currency = slips_out(session), racks.prices_of(session).currency
            session.expunge_all()

    @cached_property
    def sheet(self) -> LogSheet:
        """Ready to be worded."""
        boards = self.saw.boards or plan_or_wait(self.saw.opened)
        bench = BenchSheet(self.saw.sheet(), boards)
        wishes = IN_THE_LOG.inside(self.state)
        return LogSheet(
            self.id,
            wishes,
            bench,
            self.finish.sheet(),
            self.saw.entries,
            boards,
            self.saw.learned,
            self.slips,
            self.now,
            self.currency,
        )

    def answer(self) -> LogOut:
        """As the screen shows it."""
        undo = "what was written last" if self.undo else None
        return self.sheet.out(self.state, undo)

    def outgoing(self, query: ExportQuery) -> Outgoing:
        """What goes out as a file."""
        found, finish = self.saw.opened, self.finish
        return Outgoing(
            id=self.id,
            name=found.body.name,
            solution=self.saw.sheet().solution,
            voice=found.body.voice(),
            boards=lambda: self.saw.boards or make_plan_now(self.id),
            finish=lambda: finish.sheet().finish,
            besides=lambda: [(line.text, line.figure) for line in finish.sheet().buys()],
            client=lambda: self.sheet.for_client(),
            changed=finish.state.changed_at,
            size=query.size,
        )


@api.get("/projects/<string:project_id>/log", responses={200: LogOut})
def read_log(path: ProjectPath) -> Response:
    """The story by day, the clock, as made, lessons, cost, and what goes out."""
    return json_of(LogRoom(path.project_id).answer())


@api.get("/projects/<string:project_id>/log/document", responses={200: LogDocument})
def read_log_document(path: ProjectPath) -> Response:
    """The log as figures: the same document that the command line prints."""
    return json_of(LogRoom(path.project_id).sheet.document())


@api.post("/projects/<string:project_id>/log/acts", responses={200: LogOut})
def change_log(path: ProjectPath, body: LogChange) -> Response:
    """Change what is said of cost, sale and source, and save."""
    room = LogRoom(path.project_id)
    changed = IN_THE_LOG.after(IN_THE_LOG.inside(room.state), list(body.acts), room.saw.opened.body.voice())
    did = {"acts": [act.model_dump(mode="json") for act in body.acts]}
    with writing() as session:
        IN_THE_LOG.save(session, path.project_id, body.version, changed, did)
    return json_of(LogRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/log/records", responses={200: LogOut})
def write_log(path: ProjectPath, body: LogRecord) -> Response:
    """Write something down: a note, a lesson, a batch, a use; start or stop the clock; or take something back that was written here."""
    now = datetime.now().astimezone()
    check_body(NewRecord(id=body.id, key="log", type=body.type, device_time=now, body=body.body))
    with writing() as session:
        documents.read(session, path.project_id, PROJECT)
        entries = entries_of(records_of(session, path.project_id))
        made = BODIES[body.type].model_validate(body.body)
        if session.get(Record, body.id) is None:  # what is sent again was right when it came first
            if isinstance(made, UndoneBody) and not ((entry := entry_of(entries, made.takes_back)) and is_own(entry)):
                raise from_core(SpecError("no_such_record", ("body.takes_back",)), PLAIN)
            if isinstance(made, RemindedBody) and made.lesson not in {lesson.id for lesson in learned(session).lessons}:
                raise from_core(SpecError("no_such_record", ("body.lesson",)), PLAIN)
            if isinstance(made, ClockBody):
                check_clock(entries, made, now)
        add_own(session, path.project_id, body.id, "log", body.type, body.body, device_here())
    return json_of(LogRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/log/hours", responses={200: LogOut})
def say_hours(path: ProjectPath, body: HoursAsked) -> Response:
    """Hours as they are typed: how long a stretch of the clock really was, or hours without it."""
    now = datetime.now().astimezone()
    with writing() as session:
        documents.read(session, path.project_id, PROJECT)
        entries = entries_of(records_of(session, path.project_id))
        begun = entry_of(entries, body.of) if body.of else None
        if body.of and not (begun and isinstance(begun.body, ClockBody)):
            raise from_core(SpecError("no_such_record", ("of",)), PLAIN)
        try:
            said = HoursBody(hours=hours_in(body.text), step=body.step, of=body.of)
            at = day_in(body.day, now)
        except CoreError as error:
            raise from_core(error, PLAIN) from None
        add_own(session, path.project_id, body.id, "log", "hours", said.model_dump(mode="json"), device_here(), at=at)
    return json_of(LogRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/log/photos", responses={200: LogOut})
def keep_photo(path: ProjectPath, body: PhotoAsked) -> Response:
    """A photo, kept with the project: scaled down, without what it says of where it was taken."""
    with writing() as session:
        documents.read(session, path.project_id, PROJECT)
        add_photo(session, path.project_id, body.id, body.name, body.content, body.text, device_here())
    return json_of(LogRoom(path.project_id).answer())


@api.get("/projects/<string:project_id>/log/photos/<string:file_id>", responses=PHOTO)
def read_photo(path: PhotoPath) -> Response:
    """One of its photos."""
    with reading() as session:
        found = photo(session, path.project_id, path.file_id)
        if found is None:
            raise documents.NotFound(path.file_id)
        content, media_type = found.content, found.media_type
    return Response(content, content_type=media_type, headers={"Cache-Control": "private, max-age=31536000, immutable"})


@api.post("/projects/<string:project_id>/log/undo", responses={200: LogOut})
def undo_log(path: ProjectPath, body: Seen) -> Response:
    """Take back what was written or wished last in this place."""
    undo_last(path.project_id, LogRoom(path.project_id).undo, IN_THE_LOG, body.version)
    return json_of(LogRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/log/redo", responses={200: LogOut})
def redo_log(path: ProjectPath, body: Seen) -> Response:
    """Bring back what was wished."""
    opened(path.project_id)
    redo_wish(path.project_id, IN_THE_LOG, body.version)
    return json_of(LogRoom(path.project_id).answer())


# Again, and out.


@api.get("/projects/<string:project_id>/again", responses={200: AgainOut})
def read_again(path: ProjectPath) -> Response:
    """What is made together with it, the settings that they share, and what it can be made again of and with."""
    found = opened(path.project_id)
    with reading() as session:
        woods, wood = list(racks.tables_of(session).woods), AT_THE_FINISH.of(session, path.project_id).wood
        state = racks.state_of(session, BOARDS, racks.wishes_id(path.project_id))
        others = [s for s in documents.listed(session, PROJECT) if s.id != path.project_id]
    beside = racks.wishes_in(state).beside
    orders = [(found.body.name, found.solved())]
    for other in others:
        if other.id in beside:
            with suppress(documents.Unreadable, Invalid):
                body = project_in(other.body, other.id)
                orders.append((body.name, solved(body, found.workshop)))
    headline, rows = shared_settings(orders, found.body.voice())
    return json_of(
        AgainOut(
            orders=[BesideOut(id=s.id, name=str((s.body or {}).get("name"))[:80], chosen=s.id in beside) for s in others],
            shared=rows,
            headline=headline,
            woods=woods,
            wood=wood,
            tools=[(id, tool.name) for id, tool in found.workshop.tools.items()],
            boards_version=state.version,
            most=MOST_ORDERS,
        )
    )


@api.post("/projects/<string:project_id>/again", responses={200: AgainMade})
def build_again(path: ProjectPath, body: AgainAsked) -> Response:
    """The same again, once or for several orders, cut from one plan of the boards."""
    found = opened(path.project_id)
    with writing() as session:
        made = made_again(session, path.project_id, found.body, body, racks.tables_of(session), list(found.workshop.tools))
    return json_of(AgainMade(projects=made))


@api.get("/projects/<string:project_id>/files/<string:sort>", responses=ANY_FILE)
def export_as(path: ExportPath, query: ExportQuery) -> Response:
    """The project as a drawing, solids, a table, dates or paper."""
    export = EXPORTS.get(path.sort)
    if export is None:
        raise documents.NotFound(path.sort)
    outgoing = LogRoom(path.project_id).outgoing(query)
    try:
        content = export.make(outgoing)
    except CoreError as error:
        raise from_core(error, outgoing.voice) from None
    name = f"{file_name(outgoing.name)}{export.suffix}"
    return Response(content, content_type=export.media_type, headers={"Content-Disposition": f'attachment; filename="{name}"'})
