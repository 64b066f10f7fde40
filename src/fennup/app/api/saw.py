"""The Saw place over HTTP: the steps, what is wished of them, tests of a setting, and sums for marking."""

from contextlib import suppress
from datetime import date
from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import file_name, json_of, tagged
from fennup.app.api.boards import plan_there
from fennup.app.api.projects import Opened, opened
from fennup.app.api.sessions import reading, writing
from fennup.app.schemas.api import Problem, ProjectPath, Seen
from fennup.app.schemas.saw import (
    HalvesAsked,
    HalvesOut,
    PaperQuery,
    PaperSteps,
    ReminderOut,
    SawChange,
    SawTest,
    SquareAsked,
    StepOut,
    StepQuery,
    StepsOut,
    TemplateQuery,
    TestOut,
)
from fennup.app.services import documents, saw_wishes, workshops
from fennup.app.services.fitting import as_agreed
from fennup.app.services.lessons import learned, steps_here, told_at
from fennup.app.services.own import AT_THE_FINISH, AT_THE_SAW
from fennup.app.services.paper import model_pdf, pack_pdf, pack_zip, template_for
from fennup.app.services.records import entries_of, records_of
from fennup.app.services.saw_tests import halves_out, square_out, tested
from fennup.app.services.steps_sheet import SawSheet
from fennup.app.services.upgrade import SAW
from fennup.app.services.validate import from_core
from fennup.core.errors import CoreError
from fennup.core.exchange.cuts_forms import CutsDocument
from fennup.core.exchange.paper import template_dxf, template_svg, templates_pdf
from fennup.core.records.entry import AgreedBody
from fennup.core.records.fold import live
from fennup.core.steps.placed import Placement

api = APIBlueprint("saw", __name__, url_prefix="/api", abp_responses={404: Problem, 409: Problem, 422: Problem})


def _binary(media_type: str) -> dict[Any, Any]:
    return {200: {"content": {media_type: {"schema": {"type": "string", "format": "binary"}}}}}


PDF, ZIP = _binary("application/pdf"), _binary("application/zip")
SVG, DXF = _binary("image/svg+xml"), _binary("image/vnd.dxf")


class SawRoom:
    """All that a project's steps follow from."""

    def __init__(self, id: str) -> None:
        self.opened: Opened = opened(id)
        with reading() as session:
            self.state = AT_THE_SAW.state(session, id)
            self.entries = entries_of(records_of(session, id))
            self.learned, self.wood = learned(session), AT_THE_FINISH.of(session, id).wood
        self.agreed = [e for e in live(self.entries) if isinstance(e.body, AgreedBody)]
        self.boards = plan_there(self.opened)
        self.placed: dict[str, Placement] = saw_wishes.placements(self.boards) if self.boards else {}

    @property
    def based_on(self) -> tuple[object, ...]:
        """What the steps are based on."""
        return (
            *self.opened.based_on,
            self.state.version,
            [entry.id for entry in self.agreed],
            self.told,
            sorted(self.placed.items(), key=lambda entry: entry[0]),
        )

    def sheet(self) -> SawSheet:
        """Its steps, ready to be worded."""
        solution = as_agreed(self.opened.body, self.opened.workshop, self.agreed)
        return SawSheet(solution, self.opened.body.voice(), self.placed)

    @property
    def told(self) -> list[str]:
        """What decides which lessons are told: those there are, and what was read."""
        read = sorted(entry.id for entry in live(self.entries) if entry.type == "reminded")
        return [*(lesson.id for lesson in self.learned.lessons), *read, self.wood]

    def reminders(self, sheet: SawSheet) -> dict[str, ReminderOut]:
        """Lessons of other projects by the step at which they are told here."""
        if not self.learned.lessons:
            return {}
        return told_at(self.learned, self.opened.state.id, self.entries, steps_here(sheet, self.wood))

    def step(self, key: str) -> StepOut:
        """One step in full. NotFound."""
        sheet = self.sheet()
        return sheet.step(key).model_copy(update={"reminder": self.reminders(sheet).get(key)})

    @property
    def file_stem(self) -> str:
        """What its files' names begin with."""
        return file_name(self.opened.body.name)

    def out(self) -> Response:
        """As the screen shows it."""
        return json_of(self.sheet().out(self.state))


@api.get("/projects/<string:project_id>/steps", responses={200: StepsOut})
def read_steps(path: ProjectPath) -> Response:
    """All work on the wood as steps, in order."""
    place = SawRoom(path.project_id)
    return tagged(place.based_on, lambda: place.sheet().out(place.state))


@api.get("/projects/<string:project_id>/steps/one", responses={200: StepOut})
def read_step(path: ProjectPath, query: StepQuery) -> Response:
    """One step in full, with the operator's picture."""
    place = SawRoom(path.project_id)
    return tagged(place.based_on, lambda: place.step(query.key))


@api.get("/projects/<string:project_id>/steps/paper", responses={200: PaperSteps})
def read_paper(path: ProjectPath) -> Response:
    """All steps in full, for paper."""
    place = SawRoom(path.project_id)
    return tagged(place.based_on, lambda: place.sheet().paper())


@api.get("/projects/<string:project_id>/cuts", responses={200: CutsDocument})
def read_cuts(path: ProjectPath) -> Response:
    """The steps as figures: the same document that the command line prints."""
    place = SawRoom(path.project_id)
    return tagged(place.based_on, lambda: place.sheet().document)


@api.post("/projects/<string:project_id>/steps/acts", responses={200: StepsOut})
def change_steps(path: ProjectPath, body: SawChange) -> Response:
    """Change what is wished at the saws, and save."""
    place = SawRoom(path.project_id)
    voice = place.opened.body.voice()
    changed = AT_THE_SAW.after(AT_THE_SAW.inside(place.state), list(body.acts), voice)
    if any(getattr(act, "path", "") == "order" for act in body.acts):
        then = place.opened.with_wishes(changed)
        sheet = SawSheet(then.solved(), voice, place.placed)
        saw_wishes.refuse_broken(sheet.plan, {step.key: sheet.name_of(step) for step in sheet.plan.steps}, voice)
    did = {"acts": [act.model_dump(mode="json") for act in body.acts]}
    with writing() as session:
        AT_THE_SAW.save(session, path.project_id, body.version, changed, did)
    return SawRoom(path.project_id).out()


@api.post("/projects/<string:project_id>/steps/undo", responses={200: StepsOut})
def undo_steps(path: ProjectPath, body: Seen) -> Response:
    """Take the last change of the wishes back."""
    return _stepped(path.project_id, body.version, -1)


@api.post("/projects/<string:project_id>/steps/redo", responses={200: StepsOut})
def redo_steps(path: ProjectPath, body: Seen) -> Response:
    """Bring it again."""
    return _stepped(path.project_id, body.version, 1)


def _stepped(id: str, version: int, by: int) -> Response:
    opened(id)
    with writing() as session, suppress(documents.NotFound):  # nothing was wished yet
        documents.step(session, AT_THE_SAW.id(id), SAW, version, by)
    return SawRoom(id).out()


def _file(content: bytes | str, media_type: str, name: str) -> Response:
    return Response(content, content_type=media_type, headers={"Content-Disposition": f'attachment; filename="{name}"'})


@api.get("/projects/<string:project_id>/templates.pdf", responses=PDF)
def read_template_pdf(path: ProjectPath, query: TemplateQuery) -> Response:
    """The template of one step at true size."""
    place = SawRoom(path.project_id)
    pdf = templates_pdf([template_for(place.sheet(), query.key)], query.size)
    return _file(pdf, "application/pdf", f"{place.file_stem}-template.pdf")


@api.get("/projects/<string:project_id>/templates.svg", responses=SVG)
def read_template_svg(path: ProjectPath, query: TemplateQuery) -> Response:
    """The same as SVG."""
    place = SawRoom(path.project_id)
    return _file(template_svg(template_for(place.sheet(), query.key)), "image/svg+xml", f"{place.file_stem}-template.svg")


@api.get("/projects/<string:project_id>/templates.dxf", responses=DXF)
def read_template_dxf(path: ProjectPath, query: TemplateQuery) -> Response:
    """The same as DXF."""
    place = SawRoom(path.project_id)
    return _file(template_dxf(template_for(place.sheet(), query.key)), "image/vnd.dxf", f"{place.file_stem}-template.dxf")


@api.get("/projects/<string:project_id>/pack.pdf", responses=PDF)
def read_pack(path: ProjectPath, query: PaperQuery) -> Response:
    """The whole cut plan: steps, templates, labels."""
    place = SawRoom(path.project_id)
    return _file(
        pack_pdf(place.sheet(), place.opened.body.name, query.size), "application/pdf", f"{place.file_stem}-cut-plan.pdf"
    )


@api.get("/projects/<string:project_id>/pack.zip", responses=ZIP)
def read_pack_zip(path: ProjectPath) -> Response:
    """Every template as SVG and DXF."""
    place = SawRoom(path.project_id)
    return _file(pack_zip(place.sheet()), "application/zip", f"{place.file_stem}-templates.zip")


@api.get("/projects/<string:project_id>/model.pdf", responses=PDF)
def read_model(path: ProjectPath, query: PaperQuery) -> Response:
    """A paper model of a box to fold up."""
    place = SawRoom(path.project_id)
    try:
        pdf = model_pdf(place.sheet(), query.size, query.scale)
    except CoreError as refused:
        raise from_core(refused, place.opened.body.voice()) from None
    return _file(pdf, "application/pdf", f"{place.file_stem}-model.pdf")


@api.post("/workshop/test", responses={200: TestOut})
def test_setting(body: SawTest) -> Response:
    """What a test cut read: the error of the scale at that setting, kept with the tool."""
    with reading() as session:
        now = workshops.current_workshop(session)
    changed, error = tested(now, body, date.today())
    with writing() as session:
        state = workshops.save_workshop(session, body.version, changed, {"event": "tested"})
    return json_of(error.model_copy(update={"version": state.version}))


@api.post("/projects/<string:project_id>/steps/square", responses={200: HalvesOut})
def check_square(path: ProjectPath, body: SquareAsked) -> Response:
    """A square or a gauge checked by turning it over."""
    return json_of(square_out(body, opened(path.project_id).body.voice()))


@api.post("/projects/<string:project_id>/steps/halves", responses={200: HalvesOut})
def halves(path: ProjectPath, body: HalvesAsked) -> Response:
    """Two parts from one sloping cut, an offset without a protractor, a gap along a slope."""
    return json_of(halves_out(body, opened(path.project_id).body.voice()))
