"""Projects over HTTP."""

from dataclasses import dataclass, replace
from datetime import UTC

from flask import Response
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import file_name, json_of, tagged
from fennup.app.api.sessions import has_worker, reading, store, wake_worker, writing
from fennup.app.schemas.api import (
    Acts,
    Change,
    ComparePath,
    FacesOut,
    FromFace,
    Look,
    LookOut,
    NewProject,
    Nothing,
    Problem,
    ProjectCard,
    ProjectList,
    ProjectOut,
    ProjectPath,
    Removed,
    Seen,
    SolidsOut,
    StartCard,
    StartList,
    Which,
)
from fennup.app.schemas.compare import ComparisonOut
from fennup.app.schemas.sheet import PartList
from fennup.app.services import documents
from fennup.app.services.compare import compared
from fennup.app.services.cut_list import cut_list as cut_list_of
from fennup.app.services.drawings import view_out
from fennup.app.services.faces import faces_out
from fennup.app.services.glance import Glance, glance_at, glance_at_start
from fennup.app.services.own import AT_THE_FINISH, AT_THE_FIT, AT_THE_SAW, IN_THE_LOG
from fennup.app.services.part_cards import part_cards
from fennup.app.services.projects import (
    PLAIN,
    USUAL_GRADUATION,
    ProjectBody,
    after_acts,
    care_control,
    checked_name,
    project_in,
    start_body,
    valid_spec,
    variant_body,
)
from fennup.app.services.proofs import proof_or_job
from fennup.app.services.racks import copy_wishes
from fennup.app.services.sheet import looked_sheet, sheet_of
from fennup.app.services.solids import solids_out
from fennup.app.services.solving import solved
from fennup.app.services.upgrade import PROJECT, SAW
from fennup.app.services.validate import Invalid
from fennup.app.services.workshops import BUILT_IN, workshop_in, workshop_state
from fennup.app.wording.acts import did_words
from fennup.app.wording.echo import feet_echo, gave_way_text
from fennup.app.wording.labels import FAMILY, STARTS
from fennup.app.wording.trouble import unreadable_text
from fennup.core.drawing.edit import ProjectAct
from fennup.core.drawing.view import View
from fennup.core.exchange.document import solution_document
from fennup.core.exchange.forms import SolutionDocument
from fennup.core.exchange.tables import table_csv
from fennup.core.project.starts import FAMILIES, start_spec
from fennup.core.saw.wishes import SawWishes
from fennup.core.solve import Solution
from fennup.core.units.lengths import GRADUATIONS
from fennup.core.workshop import Workshop

api = APIBlueprint("projects", __name__, url_prefix="/api", abp_responses={404: Problem, 409: Problem, 422: Problem})


@dataclass(frozen=True)
class Opened:
    """A project and the workshop as they are. Nothing is locked while they are worked with."""

    state: documents.State
    body: ProjectBody
    workshop: Workshop
    workshop_version: int
    wishes_version: int = 1

    def with_wishes(self, wishes: SawWishes) -> "Opened":
        """The same with something else wished at the saws."""
        return replace(self, workshop=self.workshop.model_copy(update={"wishes": wishes}))

    def solved(self) -> Solution:
        """Its solution. Invalid when it has none."""
        return solved(self.body, self.workshop)

    @property
    def based_on(self) -> tuple[object, ...]:
        """What everything that follows from it is based on."""
        return (self.state.id, self.state.version, self.workshop_version, self.wishes_version)


def opened(id: str) -> Opened:
    """A project and the workshop as they are now. NotFound, Unreadable."""
    with reading() as session:
        state = documents.read(session, id, PROJECT)
        bench, wished = workshop_state(session), AT_THE_SAW.state(session, id)
    workshop = (workshop_in(bench) or BUILT_IN).model_copy(update={"wishes": AT_THE_SAW.inside(wished)})
    return Opened(state, project_in(state.body, id), workshop, bench.version, wished.version)


def _workshop() -> Workshop:
    with reading() as session:
        return workshop_in(workshop_state(session)) or BUILT_IN


def project_out(
    state: documents.State,
    body: ProjectBody,
    solution: Solution,
    acts: list[ProjectAct] | None = None,
    before: Solution | None = None,
    status: int = 200,
) -> Response:
    """A project and its drawing, and what is to be said of the acts that made it of what was before."""
    voice = body.voice()
    proof, job = proof_or_job(solution, store(), has_worker=has_worker())
    if job:
        wake_worker()
    return json_of(
        ProjectOut(
            id=state.id,
            version=state.version,
            name=body.name,
            unit=body.unit,
            graduation=body.graduation,
            graduation_mm=voice.tape.graduation_mm,
            graduations=[str(g) for g in GRADUATIONS[body.unit]],
            undo=did_words(state.undo, voice),
            redo=did_words(state.redo, voice),
            echo=feet_echo(acts or [], body.unit),
            notice=gave_way_text(before, solution, voice) if before and any(act.op == "give" for act in acts or []) else None,
            variant_of=body.variant_of,
            job=job,
            sheet=sheet_of(solution, voice, proof, [care_control(body)], waiting=job is not None),
        ),
        status,
    )


def _as_saved(state: documents.State, workshop: Workshop) -> Response:
    body = project_in(state.body, state.id)
    return project_out(state, body, solved(body, workshop))


def _created(body: ProjectBody, workshop: Workshop, event: str, like: str | None = None) -> Response:
    """A new project, saved once it is known to have a solution; what is wished of its boards is as of the one that it is `like`."""
    solution = solved(body, workshop)
    with writing() as session:
        state = documents.create(session, PROJECT, body.model_dump(mode="json"), {"event": event})
        if like:
            copy_wishes(session, like, state.id)
            AT_THE_SAW.copy(session, like, state.id)
            AT_THE_FIT.copy(session, like, state.id)
            AT_THE_FINISH.copy(session, like, state.id)
            IN_THE_LOG.copy(session, like, state.id)
    return project_out(state, body, solution, status=201)


@api.get("/projects", responses={200: ProjectList})
def list_projects(query: Which) -> Response:
    """All projects as small true drawings, or the deleted ones."""
    with reading() as session:
        states = documents.deleted(session, PROJECT) if query.deleted else documents.listed(session, PROJECT)
        workshop = workshop_in(workshop_state(session)) or BUILT_IN
        wished = {s.id: s for s in documents.listed(session, SAW)}
    return json_of(ProjectList(projects=[_card(s, workshop, wished.get(AT_THE_SAW.id(s.id))) for s in states]))


def _card(state: documents.State, workshop: Workshop, wished: documents.State | None) -> ProjectCard:
    """One project at a glance. One that cannot be read or worked out any more must not hide the others."""
    nothing = view_out(View("picture"), PLAIN)
    try:
        body = project_in(state.body, state.id)
    except documents.Unreadable:
        name = str((state.body or {}).get("name") or "A project")[:80]
        lost = Glance("What is stored of it cannot be read. The others are not touched.", "unreadable", nothing)
        return _card_of(state, name, "", None, lost)
    try:
        here = workshop.model_copy(update={"wishes": AT_THE_SAW.inside(wished)}) if wished else workshop
        seen = glance_at(body, here)
    except documents.Unreadable as lost_wishes:
        seen = Glance(unreadable_text(lost_wishes.type), "unreadable", nothing)
    except Invalid as refused:
        seen = Glance(refused.problems[0].text, "fails", nothing)
    members = list(body.spec["members"].values())
    kind = str(members[0]["spec"]["kind"]) if len(members) == 1 else "together"
    return _card_of(state, body.name, kind, body.variant_of, seen)


def _card_of(state: documents.State, name: str, kind: str, variant_of: str | None, seen: Glance) -> ProjectCard:
    return ProjectCard(
        id=state.id,
        name=name,
        kind=kind,
        variant_of=variant_of,
        example=state.example,
        facts=seen.facts,
        closes=seen.closes,
        changed_at=state.changed_at.replace(tzinfo=UTC),
        view=seen.view,
    )


@api.get("/starts", responses={200: StartList})
def list_starts() -> Response:
    """Everything that a new project can begin with."""
    cards = []
    for family, codes in FAMILIES.items():
        for code in codes:
            view = glance_at_start(start_spec(code).model_dump(mode="json")).view
            cards.append(StartCard(code=code, family=FAMILY[family], name=STARTS[code], view=view))
    return json_of(StartList(starts=cards))


@api.post("/projects", responses={201: ProjectOut})
def create_project(body: NewProject) -> Response:
    """Begin a project from a start or from a spec."""
    if body.spec is not None:
        spec = valid_spec(body.spec).model_dump(mode="json")
        new = ProjectBody(name="New project", spec=spec, unit=body.unit, graduation=USUAL_GRADUATION[body.unit])
    else:
        new = start_body(body.start or "", body.unit)
    if body.name is not None:
        new = new.model_copy(update={"name": checked_name(body.name)})
    workshop = _workshop()
    usual: dict[str, object] = {"allowance_mm": workshop.allowance_mm}
    if workshop.tape and workshop.tape.unit == new.unit:
        usual["graduation"] = workshop.tape.graduation  # the tape that hangs in the workshop
    return _created(new.model_copy(update=usual), workshop, "starting")


@api.post("/projects/remove-examples", responses={200: Removed})
def remove_examples(body: Nothing) -> Response:
    """Delete all the demo's projects; each can be restored."""
    with writing() as session:
        return json_of(Removed(count=documents.remove_examples(session, PROJECT)))


@api.get("/projects/<string:project_id>", responses={200: ProjectOut})
def read_project(path: ProjectPath) -> Response:
    """A project and its drawing."""
    found = opened(path.project_id)
    return project_out(found.state, found.body, found.solved())


@api.get("/projects/<string:project_id>/parts", responses={200: PartList})
def read_parts(path: ProjectPath) -> Response:
    """Every part's card."""
    found = opened(path.project_id)
    return tagged(found.based_on, lambda: part_cards(found.solved(), found.body.voice()))


@api.get("/projects/<string:project_id>/solution", responses={200: SolutionDocument})
def read_solution(path: ProjectPath) -> Response:
    """Everything that follows from a project, as figures: the same document that the command line prints."""
    found = opened(path.project_id)

    def document() -> SolutionDocument:
        solution = found.solved()
        return solution_document(solution, solution.design.proof)

    return tagged(found.based_on, document)


@api.post("/projects/<string:project_id>/acts", responses={200: ProjectOut})
def change_project(path: ProjectPath, body: Change) -> Response:
    """Do some acts and save: one revision, one undo step."""
    now = opened(path.project_id)
    if now.state.version != body.version:
        raise documents.Conflict(now.state.version)
    changed = after_acts(now.body, list(body.acts))
    solution = solved(changed, now.workshop)
    did = {"acts": [act.model_dump(mode="json") for act in body.acts]}
    with writing() as session:
        state = documents.save(session, now.state.id, PROJECT, body.version, changed.model_dump(mode="json"), did)
    return project_out(state, changed, solution, list(body.acts), now.solved())


@api.post("/projects/<string:project_id>/look", responses={200: LookOut})
def look_at_project(path: ProjectPath, body: Look) -> Response:
    """What some acts would make of the drawing and the verdict, without saving."""
    now = opened(path.project_id)
    changed = after_acts(now.body, list(body.acts))
    sheet = looked_sheet(solved(changed, now.workshop), changed.voice(), body.card)
    return json_of(LookOut(version=now.state.version, echo=feet_echo(list(body.acts), changed.unit), sheet=sheet))


@api.post("/projects/<string:project_id>/undo", responses={200: ProjectOut})
def undo_project(path: ProjectPath, body: Seen) -> Response:
    """Take the last change back."""
    return _stepped(path.project_id, body.version, -1)


@api.post("/projects/<string:project_id>/redo", responses={200: ProjectOut})
def redo_project(path: ProjectPath, body: Seen) -> Response:
    """Bring the last change taken back again."""
    return _stepped(path.project_id, body.version, 1)


def _stepped(id: str, version: int, by: int) -> Response:
    with writing() as session:
        state = documents.step(session, id, PROJECT, version, by)
    return _as_saved(state, opened(state.id).workshop)


@api.post("/projects/<string:project_id>/duplicate", responses={201: ProjectOut})
def duplicate_project(path: ProjectPath, body: Nothing) -> Response:
    """The same again under another name."""
    original = opened(path.project_id)
    copy = original.body.model_copy(update={"name": f"{original.body.name[:74]}, copy"})
    return _created(copy, original.workshop, "copying", path.project_id)


@api.post("/projects/<string:project_id>/variant", responses={201: ProjectOut})
def make_variant(path: ProjectPath, body: Nothing) -> Response:
    """The same again as a variant, to be changed and compared."""
    original = opened(path.project_id)
    with reading() as session:
        names = {str((state.body or {}).get("name")) for state in documents.listed(session, PROJECT)}
    return _created(variant_body(path.project_id, original.body, names), original.workshop, "variant", path.project_id)


@api.get("/projects/<string:project_id>/compare/<string:other>", responses={200: ComparisonOut})
def compare(path: ComparePath) -> Response:
    """A project beside another one, or beside itself `before` its last change: what differs, and one drawn over the other."""
    one = opened(path.project_id)
    own = (path.project_id, one.body, one.solved())
    if path.other == "before":
        with reading() as session:
            stored = documents.before(session, path.project_id, PROJECT)
        was = project_in(stored, path.project_id)
        named = was.model_copy(update={"name": "Before"})
        return json_of(compared((path.project_id, named, solved(was, one.workshop)), own))
    other = opened(path.other)
    return json_of(compared(own, (path.other, other.body, other.solved())))


@api.post("/projects/<string:project_id>/compare", responses={200: ComparisonOut})
def compare_after(path: ProjectPath, body: Acts) -> Response:
    """A project as it is beside itself after some acts, without saving."""
    now = opened(path.project_id)
    then = after_acts(now.body, list(body.acts))
    sides = [
        (path.project_id, side.model_copy(update={"name": name}), solved(side, now.workshop))
        for side, name in ((now.body, "Now"), (then, "Then"))
    ]
    return json_of(compared(*sides))


@api.delete("/projects/<string:project_id>", responses={204: None})
def delete_project(path: ProjectPath, body: Nothing) -> Response:
    """Delete a project; it can be restored."""
    with writing() as session:
        documents.remove(session, path.project_id, PROJECT)
    return Response(status=204)


@api.post("/projects/<string:project_id>/restore", responses={200: ProjectOut})
def restore_project(path: ProjectPath, body: Nothing) -> Response:
    """Bring a deleted project back."""
    with writing() as session:
        state = documents.restore(session, path.project_id, PROJECT)
    return _as_saved(state, opened(state.id).workshop)


@api.get("/projects/<string:project_id>/solids", responses={200: SolidsOut})
def read_solids(path: ProjectPath) -> Response:
    """The finished parts as solids, and the faces where they meet."""
    found = opened(path.project_id)
    return tagged(found.based_on, lambda: solids_out(found.solved(), found.state.version))


@api.get("/projects/<string:project_id>/faces", responses={200: FacesOut})
def read_faces(path: ProjectPath, query: FromFace) -> Response:
    """The faces that a piece can begin on, or those that look at the face where it does."""
    found = opened(path.project_id)
    first = (query.board, query.side) if query.board and query.side else None
    return tagged((*found.based_on, first), lambda: faces_out(found.solved(), first, found.body.voice()))


@api.get("/projects/<string:project_id>/cut-list.csv", responses={200: {"content": {"text/csv": {"schema": {"type": "string"}}}}})
def cut_list(path: ProjectPath) -> Response:
    """The cut list as comma-separated values."""
    found = opened(path.project_id)
    solution = found.solved()
    text = table_csv(cut_list_of(part_cards(solution, found.body.voice()).parts, solution_document(solution, None)))
    headers = {"Content-Disposition": f'attachment; filename="{file_name(found.body.name)}-cut-list.csv"'}
    return Response(text, content_type="text/csv; charset=utf-8", headers=headers)
