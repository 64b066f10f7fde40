"""Projects over HTTP."""

import re
from datetime import UTC

from flask import Response
from flask_openapi3 import APIBlueprint

from fennup.app.api.sessions import reading, writing
from fennup.app.schemas.api import (
    Change,
    ComparePath,
    FacesOut,
    FromFace,
    Look,
    NewProject,
    Nothing,
    Problem,
    ProjectCard,
    ProjectList,
    ProjectOut,
    ProjectPath,
    Seen,
    SolidsOut,
    StartCard,
    StartList,
    Which,
)
from fennup.app.schemas.compare import ComparisonOut
from fennup.app.services import documents
from fennup.app.services.compare import compared
from fennup.app.services.cut_list import cut_list_csv
from fennup.app.services.drawings import view_out
from fennup.app.services.faces import faces_out
from fennup.app.services.glance import Glance, glance_at, glance_at_start
from fennup.app.services.projects import (
    PLAIN,
    TYPE,
    ProjectBody,
    acted,
    as_together,
    care_control,
    checked_name,
    kind_of,
    project_in,
    project_of,
    solved,
    start_body,
    together_control,
    variant_body,
)
from fennup.app.services.saws import current_machine
from fennup.app.services.sheet import sheet_of
from fennup.app.services.solids import solids_of
from fennup.app.services.validate import Invalid, validated
from fennup.app.wording.acts import act_words
from fennup.app.wording.echo import feet_echo
from fennup.app.wording.labels import FAMILY, STARTS
from fennup.core.drawing.edit import ProjectAct
from fennup.core.drawing.view import View
from fennup.core.exchange.document import solution_document
from fennup.core.kinds.catalogue import KINDS
from fennup.core.saw.machine import Machine
from fennup.core.solve import Solution
from fennup.core.units.lengths import GRADUATIONS

api = APIBlueprint("projects", __name__, url_prefix="/api", abp_responses={404: Problem, 409: Problem, 422: Problem})


def _json(body: object, status: int = 200) -> Response:
    return Response(body.model_dump_json(), status, content_type="application/json")  # type: ignore[attr-defined]


def _out(
    state: documents.State, body: ProjectBody, solution: Solution, acts: list[ProjectAct] | None = None, *, looking: bool = False
) -> Response:
    """A project with everything that follows from it; while it is only looked at, without the second proof and the controls."""
    proof = None if looking else solution.proof
    return _json(
        ProjectOut(
            id=state.id,
            version=state.version,
            name=body.name,
            unit=body.unit,
            graduation=body.graduation,
            graduation_mm=body.voice().tape.graduation_mm,
            graduations=[str(g) for g in GRADUATIONS[body.unit]],
            undo=state.undo,
            redo=state.redo,
            echo=feet_echo(acts or [], body.unit),
            spec=body.spec,
            variant_of=body.variant_of,
            solution=solution_document(solution, proof),
            sheet=sheet_of(solution, body.voice(), proof, (care_control(body), together_control(body)), looking=looking),
        )
    )


def _opened(id: str) -> tuple[documents.State, ProjectBody, Machine]:
    """A project and the saw, as they are. Nothing is locked while they are worked with."""
    with reading() as session:
        state = documents.read(session, id, TYPE)
        machine = current_machine(session)
    return state, project_of(state), machine


def _as_saved(state: documents.State, machine: Machine, status: int = 200) -> Response:
    body = project_of(state)
    response = _out(state, body, solved(body, machine))
    response.status_code = status
    return response


def _created(body: ProjectBody, machine: Machine, did: str) -> Response:
    """A new project, saved once it is known to have a solution."""
    solution = solved(body, machine)
    with writing() as session:
        state = documents.create(session, TYPE, body.model_dump(mode="json"), did)
    response = _out(state, body, solution)
    response.status_code = 201
    return response


@api.get("/projects", responses={200: ProjectList})
def list_projects(query: Which) -> Response:
    """All projects as small true drawings, or the deleted ones."""
    with reading() as session:
        states = documents.deleted(session, TYPE) if query.deleted else documents.listed(session, TYPE)
        machine = current_machine(session)
    return _json(ProjectList(projects=[_card(state, machine) for state in states]))


def _card(state: documents.State, machine: Machine) -> ProjectCard:
    """One project at a glance. One that cannot be read or worked out any more must not hide the others."""
    nothing = view_out(View("picture"), PLAIN)
    try:
        body = project_of(state)
    except documents.Unreadable:
        name = str((state.body or {}).get("name") or "A project")[:80]
        lost = Glance("What is stored of it cannot be read. The others are not touched.", "unreadable", nothing)
        return _card_of(state, name, "", None, lost)
    try:
        seen = glance_at(body, machine)
    except Invalid as refused:
        seen = Glance(refused.problems[0].text, "fails", nothing)
    return _card_of(state, body.name, body.spec["kind"], body.variant_of, seen)


def _card_of(state: documents.State, name: str, kind: str, variant_of: str | None, seen: Glance) -> ProjectCard:
    return ProjectCard(
        id=state.id,
        name=name,
        kind=kind,
        variant_of=variant_of,
        facts=seen.facts,
        closes=seen.closes,
        changed_at=state.changed_at.replace(tzinfo=UTC),
        view=seen.view,
    )


@api.get("/starts", responses={200: StartList})
def list_starts() -> Response:
    """Everything that a new project can begin with."""
    cards = []
    for kind in KINDS.values():
        for code, spec in kind.starts.items():
            view = glance_at_start(spec).view
            cards.append(StartCard(code=code, family=FAMILY[kind.name], name=STARTS[code], view=view))
    return _json(StartList(starts=cards))


@api.post("/projects", responses={201: ProjectOut})
def create_project(body: NewProject) -> Response:
    """Begin a project from a start or from a spec."""
    if body.spec is not None:
        spec = validated(kind_of(body.spec).spec, body.spec, PLAIN).model_dump(mode="json")
        new = ProjectBody(name="New project", spec=spec, unit=body.unit, graduation="1" if body.unit == "mm" else "1/16")
    else:
        new = start_body(body.start or "", body.unit)
    if body.name is not None:
        new = new.model_copy(update={"name": checked_name(body.name)})
    with reading() as session:
        machine = current_machine(session)
    return _created(new, machine, "starting")


@api.get("/projects/<string:project_id>", responses={200: ProjectOut})
def read_project(path: ProjectPath) -> Response:
    """A project with everything that follows from it."""
    state, _, machine = _opened(path.project_id)
    return _as_saved(state, machine)


@api.post("/projects/<string:project_id>/acts", responses={200: ProjectOut})
def change_project(path: ProjectPath, body: Change) -> Response:
    """Do some acts and save: one revision, one undo step."""
    now, project, machine = _opened(path.project_id)
    if now.version != body.version:
        raise documents.Conflict(now.version)
    changed = acted(project, list(body.acts))
    solution = solved(changed, machine)
    did = act_words(body.acts[0])
    with writing() as session:
        state = documents.save(session, now.id, TYPE, body.version, changed.model_dump(mode="json"), did)
    return _out(state, changed, solution, list(body.acts))


@api.post("/projects/<string:project_id>/look", responses={200: ProjectOut})
def look_at_project(path: ProjectPath, body: Look) -> Response:
    """What some acts would do, without saving."""
    state, project, machine = _opened(path.project_id)
    changed = acted(project, list(body.acts))
    return _out(state, changed, solved(changed, machine), list(body.acts), looking=True)


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
        state = documents.step(session, id, TYPE, version, by)
        machine = current_machine(session)
    return _as_saved(state, machine)


@api.post("/projects/<string:project_id>/duplicate", responses={201: ProjectOut})
def duplicate_project(path: ProjectPath, body: Nothing) -> Response:
    """The same again under another name."""
    _, original, machine = _opened(path.project_id)
    return _created(original.model_copy(update={"name": f"{original.name[:74]}, copy"}), machine, "copying")


@api.post("/projects/<string:project_id>/variant", responses={201: ProjectOut})
def make_variant(path: ProjectPath, body: Nothing) -> Response:
    """The same again as a variant, to be changed and compared."""
    _, original, machine = _opened(path.project_id)
    with reading() as session:
        names = {str((state.body or {}).get("name")) for state in documents.listed(session, TYPE)}
    return _created(variant_body(path.project_id, original, names), machine, "beginning a variant")


@api.get("/projects/<string:project_id>/compare/<string:other>", responses={200: ComparisonOut})
def compare(path: ComparePath) -> Response:
    """A project beside another one, or beside itself `before` its last change: what differs, and one drawn over the other."""
    _, body, machine = _opened(path.project_id)
    own = (path.project_id, body, solved(body, machine))
    if path.other == "before":
        with reading() as session:
            stored = documents.before(session, path.project_id, TYPE)
        was = project_in(stored, path.project_id)
        return _json(compared((path.project_id, was.model_copy(update={"name": "Before"}), solved(was, machine)), own))
    _, theirs, _ = _opened(path.other)
    return _json(compared(own, (path.other, theirs, solved(theirs, machine))))


@api.post("/projects/<string:project_id>/compare", responses={200: ComparisonOut})
def compare_after(path: ProjectPath, body: Look) -> Response:
    """A project as it is beside itself after some acts, without saving."""
    _, now, machine = _opened(path.project_id)
    then = acted(now, list(body.acts))
    sides = [
        (path.project_id, side.model_copy(update={"name": name}), solved(side, machine))
        for side, name in ((now, "Now"), (then, "Then"))
    ]
    return _json(compared(*sides))


@api.delete("/projects/<string:project_id>", responses={204: None})
def delete_project(path: ProjectPath, body: Nothing) -> Response:
    """Delete a project; it can be restored."""
    with writing() as session:
        documents.remove(session, path.project_id, TYPE)
    return Response(status=204)


@api.post("/projects/<string:project_id>/restore", responses={200: ProjectOut})
def restore_project(path: ProjectPath, body: Nothing) -> Response:
    """Bring a deleted project back."""
    with writing() as session:
        state = documents.restore(session, path.project_id, TYPE)
        machine = current_machine(session)
    return _as_saved(state, machine)


@api.get("/projects/<string:project_id>/solids", responses={200: SolidsOut})
def read_solids(path: ProjectPath) -> Response:
    """The finished parts as solids, and the faces where they meet."""
    state, body, machine = _opened(path.project_id)
    return _json(solids_of(solved(body, machine), state.version))


@api.get("/projects/<string:project_id>/faces", responses={200: FacesOut})
def read_faces(path: ProjectPath, query: FromFace) -> Response:
    """The faces that a piece can begin on, or those that look at the face where it does."""
    _, project, machine = _opened(path.project_id)
    body = as_together(project)
    first = (query.board, query.side) if query.board and query.side else None
    return _json(faces_out(solved(body, machine), first, body.voice()))


@api.get("/projects/<string:project_id>/cut-list.csv", responses={200: {"content": {"text/csv": {"schema": {"type": "string"}}}}})
def cut_list(path: ProjectPath) -> Response:
    """The cut list as comma-separated values."""
    _, body, machine = _opened(path.project_id)
    solution = solved(body, machine)
    text = cut_list_csv(sheet_of(solution, body.voice()), solution_document(solution, None))
    name = re.sub(r"[^A-Za-z0-9]+", "-", body.name).strip("-").lower() or "frame"
    headers = {"Content-Disposition": f'attachment; filename="{name}-cut-list.csv"'}
    return Response(text, content_type="text/csv; charset=utf-8", headers=headers)
