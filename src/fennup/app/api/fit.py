"""The Fit place over HTTP: forecast, readings, as made, the order of putting it together, passage."""

from functools import cached_property

from flask import Response
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import json_of, tagged
from fennup.app.api.projects import Opened, opened
from fennup.app.api.saw import SawRoom
from fennup.app.api.sessions import device_here, reading, writing
from fennup.app.api.undoing import redo_wish, undo_last
from fennup.app.schemas.api import Problem, ProjectPath, Seen
from fennup.app.schemas.fit import (
    AgreeAsked,
    FitChange,
    FitOut,
    FitPictureOut,
    JoiningQuery,
    PictureQuery,
    ReadAsked,
    TakeBack,
)
from fennup.app.schemas.sheet import ViewOut
from fennup.app.services import documents
from fennup.app.services.bench_sheet import BenchSheet
from fennup.app.services.fit_sheet import FitSheet
from fennup.app.services.fitting import (
    add_offered,
    add_own,
    as_built,
    fit_of,
    is_fit,
    measured_anywhere,
    read_record,
    record_words,
)
from fennup.app.services.own import AT_THE_FIT
from fennup.app.services.records import entries_of, last_here, records_of
from fennup.app.services.solving import solved
from fennup.app.services.upgrade import PROJECT
from fennup.core.exchange.fit_document import FitDocument, fit_document

api = APIBlueprint("fit", __name__, url_prefix="/api", abp_responses={404: Problem, 409: Problem, 422: Problem})


class FitRoom:
    """All that a project's dry fit follows from."""

    def __init__(self, id: str) -> None:
        self.id = id
        self.opened: Opened = opened(id)
        with reading() as session:
            self.state = AT_THE_FIT.state(session, id)
            self.records = records_of(session, id)
            self.undo = last_here(self.records, is_fit, self.state.wished_at)
            self.entries = entries_of(self.records)
            self.measured = measured_anywhere(session)
            session.expunge_all()

    @property
    def based_on(self) -> tuple[object, ...]:
        """What it is based on."""
        return (*self.opened.based_on, self.state.version, len(self.records), len(self.measured))

    def sheet(self) -> FitSheet:
        """Ready to be worded."""
        body, workshop, solution = self.opened.body, self.opened.workshop, self.opened.solved()
        fit = fit_of(solution, self.entries, AT_THE_FIT.inside(self.state), self.measured)
        return FitSheet(fit, solution, body.voice(), lambda sizes: solved(as_built(body, sizes), workshop), self._source)

    def _source(self, piece: str) -> str:
        """Out of which board a piece can be cut again."""
        return self._bench.source(piece)

    @cached_property
    def _bench(self) -> BenchSheet:
        saw = SawRoom(self.id)
        return BenchSheet(saw.sheet(), saw.boards)

    def answer(self) -> FitOut:
        """As the screen shows it."""
        return self.sheet().out(self.state, record_words(self.undo), None)


@api.get("/projects/<string:project_id>/fit", responses={200: FitOut})
def read_fit(path: ProjectPath) -> Response:
    """Will it close, what should be read, what readings mean, as made, ways out, the order of putting it together, what it goes through."""
    room = FitRoom(path.project_id)
    return tagged((*room.based_on, "fit"), room.answer)


@api.get("/projects/<string:project_id>/fit/picture", responses={200: FitPictureOut})
def read_fit_picture(path: ProjectPath, query: PictureQuery) -> Response:
    """One of its pictures."""
    room = FitRoom(path.project_id)
    return tagged(
        (*room.based_on, query.id, query.made, query.fans),
        lambda: room.sheet().picture(query.id, made=query.made, with_fans=query.fans),
    )


@api.get("/projects/<string:project_id>/fit/step", responses={200: ViewOut})
def read_joining(path: ProjectPath, query: JoiningQuery) -> Response:
    """A step of putting it together, drawn."""
    room = FitRoom(path.project_id)
    return tagged((*room.based_on, query.key), lambda: room.sheet().order.step_view(query.key))


@api.get("/projects/<string:project_id>/fit/document", responses={200: FitDocument})
def read_fit_document(path: ProjectPath) -> Response:
    """The dry fit as figures: the same document that the command line prints."""
    return json_of(fit_document(FitRoom(path.project_id).sheet().fit))


@api.post("/projects/<string:project_id>/fit/read", responses={200: FitOut})
def read_off(path: ProjectPath, body: ReadAsked) -> Response:
    """What tape, gauge or feeler read, as typed; the answer says what it means."""
    room = FitRoom(path.project_id)
    said, print_ = read_record(
        room.sheet().fit, body.key, body.text, body.side, room.opened.body.voice(), inches_meant=body.inches_meant
    )
    with writing() as session:
        documents.read(session, path.project_id, PROJECT)
        add_own(session, path.project_id, body.id, body.key, "read", said, device_here(), print_)
    return json_of(FitRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/fit/agree", responses={200: FitOut})
def agree(path: ProjectPath, body: AgreeAsked) -> Response:
    """Say yes to what was offered."""
    with writing() as session:
        documents.read(session, path.project_id, PROJECT)
        add_offered(session, path.project_id, body.id, body.records, device_here())
    return json_of(FitRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/fit/back", responses={200: FitOut})
def take_back(path: ProjectPath, body: TakeBack) -> Response:
    """Take a record of this place back."""
    with writing() as session:
        documents.read(session, path.project_id, PROJECT)
        add_own(session, path.project_id, body.id, body.record, "undone", {"takes_back": body.record}, device_here())
    return json_of(FitRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/fit/acts", responses={200: FitOut})
def change_fit(path: ProjectPath, body: FitChange) -> Response:
    """Change what is wished at the dry fit, and save."""
    room = FitRoom(path.project_id)
    changed = AT_THE_FIT.after(AT_THE_FIT.inside(room.state), list(body.acts), room.opened.body.voice())
    did = {"acts": [act.model_dump(mode="json") for act in body.acts]}
    with writing() as session:
        AT_THE_FIT.save(session, path.project_id, body.version, changed, did)
    return json_of(FitRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/fit/undo", responses={200: FitOut})
def undo_fit(path: ProjectPath, body: Seen) -> Response:
    """Take back what was done last in this place: a reading, a yes, or a wish."""
    undo_last(path.project_id, FitRoom(path.project_id).undo, AT_THE_FIT, body.version)
    return json_of(FitRoom(path.project_id).answer())


@api.post("/projects/<string:project_id>/fit/redo", responses={200: FitOut})
def redo_fit(path: ProjectPath, body: Seen) -> Response:
    """Bring back what was wished."""
    opened(path.project_id)
    redo_wish(path.project_id, AT_THE_FIT, body.version)
    return json_of(FitRoom(path.project_id).answer())
