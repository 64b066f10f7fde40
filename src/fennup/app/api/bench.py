"""The bench over HTTP: all that it needs at once, and what happened there."""

from hashlib import sha256

from flask import Response, current_app
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import json_of, tagged
from fennup.app.api.files import LONGEST_SECONDS
from fennup.app.api.saw import SawRoom
from fennup.app.api.sessions import reading, writing
from fennup.app.schemas.api import Problem, ProjectPath, RecordList, RecordOut
from fennup.app.schemas.bench import BenchOut
from fennup.app.schemas.instruments import InstrumentList, InstrumentPath, ZeroAsked, ZeroOut
from fennup.app.services import documents
from fennup.app.services.bench_sheet import BenchSheet
from fennup.app.services.instruments import instruments_at, readings_of, zero_told
from fennup.app.services.practice import answers_in, offer_for
from fennup.app.services.records import NewRecord, add_record, check_body, entries_of, records_of
from fennup.app.services.upgrade import PROJECT
from fennup.core.exchange.progress import ProgressDocument, progress_document

api = APIBlueprint("bench", __name__, url_prefix="/api", abp_responses={404: Problem, 409: Problem, 422: Problem})


@api.get("/projects/<string:project_id>/bench", responses={200: BenchOut})
def read_bench(path: ProjectPath) -> Response:
    """Every task with its step, what it must measure and what a reading means, and all records: enough to work on without the server."""
    room = SawRoom(path.project_id)
    with reading() as session:
        records = records_of(session, path.project_id)
        answers = answers_in(session)
    based_on = sha256(repr(room.based_on).encode()).hexdigest()[:20]
    name = room.opened.body.name

    def answer() -> BenchOut:
        sheet = room.sheet()
        practice, reminders = offer_for(sheet, answers), room.reminders(sheet)
        return BenchSheet(sheet, room.boards).out(path.project_id, name, based_on, records, practice, reminders)

    return tagged((*room.based_on, name, len(records), answers), answer)


@api.get("/projects/<string:project_id>/progress", responses={200: ProgressDocument})
def read_progress(path: ProjectPath) -> Response:
    """How far the work is, as figures: the same document that the command line prints."""
    room = SawRoom(path.project_id)
    with reading() as session:
        entries = entries_of(records_of(session, path.project_id))
    return json_of(progress_document(BenchSheet(room.sheet(), room.boards).tasks, entries))


@api.get("/projects/<string:project_id>/records", responses={200: RecordList})
def read_records(path: ProjectPath) -> Response:
    """All that is recorded of a project."""
    with reading() as session:
        documents.read(session, path.project_id, PROJECT)
        found = records_of(session, path.project_id)
    return json_of(RecordList(records=[RecordOut.model_validate(record, from_attributes=True) for record in found]))


@api.post("/projects/<string:project_id>/records", responses={200: RecordOut})
def record(path: ProjectPath, body: NewRecord) -> Response:
    """Add what happened; the same record sent again is added once."""
    check_body(body)
    with writing() as session:
        documents.read(session, path.project_id, PROJECT)
        made = add_record(session, path.project_id, body)
        return json_of(RecordOut.model_validate(made, from_attributes=True))


@api.get("/instruments", responses={200: InstrumentList})
def read_instruments() -> Response:
    """The gauges and calipers that answer."""
    return json_of(instruments_at(current_app.config["INSTRUMENTS"]))


@api.get(
    "/instruments/<string:instrument_id>/readings",
    responses={200: {"content": {"text/event-stream": {"schema": {"type": "string"}}}}},
)
def follow_instrument(path: InstrumentPath) -> Response:
    """What it reads, as server-sent events; the browser asks again when they end."""
    readings = readings_of(current_app.config["INSTRUMENTS"], path.instrument_id, LONGEST_SECONDS)
    return Response((f"data: {reading.model_dump_json()}\n\n" for reading in readings), content_type="text/event-stream")


@api.post("/instruments/zero", responses={200: ZeroOut})
def check_zero(body: ZeroAsked) -> Response:
    """Whether a gauge's zero is true, by turning it end for end."""
    return json_of(zero_told(body.first, body.turned))
