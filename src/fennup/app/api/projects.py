"""Projects over HTTP."""

import re

from flask import Response
from flask_openapi3 import APIBlueprint
from sqlalchemy.orm import Session

from fennup.app.api.sessions import sessions
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
    edit_project,
    kind_of,
    solved,
    start_body,
    together_control,
    variant_body,
)
from fennup.app.services.saws import current_machine
from fennup.app.services.sheet import sheet_of
from fennup.app.services.solids import solids_of
from fennup.app.services.validate import Invalid, validated
from fennup.app.wording.echo import feet_echo
from fennup.app.wording.labels import FAMILY, STARTS
from fennup.core.drawing.edit import ProjectAct
from fennup.core.drawing.view import View
from fennup.core.exchange.document import solution_document
from fennup.core.kinds.catalogue import KINDS
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


def _as_saved(state: documents.State, session: Session) -> Response:
    body = ProjectBody.model_validate(state.body)
    return _out(state, body, solved(body, session))


@api.get("/projects", responses={200: ProjectList})
def list_projects() -> Response:
    """All projects as small true drawings."""
    with sessions() as session, session.begin():
        cards = [_card(state, session) for state in documents.listed(session, TYPE)]
    return _json(ProjectList(projects=cards))


def _card(state: documents.State, session: Session) -> ProjectCard:
    body = ProjectBody.model_validate(state.body)
    try:
        seen = glance_at(body, current_machine(session))
    except Invalid as refused:
        # One that a later version cannot work out any more must not hide the others.
        seen = Glance(refused.problems[0].text, "fails", view_out(View("picture"), PLAIN))
    return ProjectCard(
        id=state.id,
        name=body.name,
        kind=body.spec["kind"],
        variant_of=body.variant_of,
        facts=seen.facts,
        closes=seen.closes,
        changed_at=state.changed_at,
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
    with sessions() as session, session.begin():
        solution = solved(new, session)
        state = documents.create(session, TYPE, new.model_dump(mode="json"), "starting")
        response = _out(state, new, solution)
    response.status_code = 201
    return response


@api.get("/projects/<string:project_id>", responses={200: ProjectOut})
def read_project(path: ProjectPath) -> Response:
    """A project with everything that follows from it."""
    with sessions() as session, session.begin():
        return _as_saved(documents.read(session, path.project_id, TYPE), session)


@api.post("/projects/<string:project_id>/acts", responses={200: ProjectOut})
def change_project(path: ProjectPath, body: Change) -> Response:
    """Do some acts and save: one revision, one undo step."""
    with sessions() as session, session.begin():
        state, solution = edit_project(session, path.project_id, body.version, list(body.acts))
        return _out(state, ProjectBody.model_validate(state.body), solution, list(body.acts))


@api.post("/projects/<string:project_id>/look", responses={200: ProjectOut})
def look_at_project(path: ProjectPath, body: Look) -> Response:
    """What some acts would do, without saving."""
    with sessions() as session, session.begin():
        state = documents.read(session, path.project_id, TYPE)
        changed = acted(ProjectBody.model_validate(state.body), list(body.acts))
        return _out(state, changed, solved(changed, session), list(body.acts), looking=True)


@api.post("/projects/<string:project_id>/undo", responses={200: ProjectOut})
def undo_project(path: ProjectPath, body: Seen) -> Response:
    """Take the last change back."""
    return _stepped(path.project_id, body.version, -1)


@api.post("/projects/<string:project_id>/redo", responses={200: ProjectOut})
def redo_project(path: ProjectPath, body: Seen) -> Response:
    """Bring the last change taken back again."""
    return _stepped(path.project_id, body.version, 1)


def _stepped(id: str, version: int, by: int) -> Response:
    with sessions() as session, session.begin():
        return _as_saved(documents.step(session, id, TYPE, version, by), session)


@api.post("/projects/<string:project_id>/duplicate", responses={201: ProjectOut})
def duplicate_project(path: ProjectPath, body: Nothing) -> Response:
    """The same again under another name."""
    with sessions() as session, session.begin():
        original = ProjectBody.model_validate(documents.read(session, path.project_id, TYPE).body)
        copy = original.model_copy(update={"name": f"{original.name[:74]}, copy"})
        state = documents.create(session, TYPE, copy.model_dump(mode="json"), "copying")
        response = _as_saved(state, session)
    response.status_code = 201
    return response


@api.post("/projects/<string:project_id>/variant", responses={201: ProjectOut})
def make_variant(path: ProjectPath, body: Nothing) -> Response:
    """The same again as a variant, to be changed and compared."""
    with sessions() as session, session.begin():
        original = ProjectBody.model_validate(documents.read(session, path.project_id, TYPE).body)
        names = {state.body["name"] for state in documents.listed(session, TYPE)}
        copy = variant_body(path.project_id, original, names)
        state = documents.create(session, TYPE, copy.model_dump(mode="json"), "beginning a variant")
        response = _as_saved(state, session)
    response.status_code = 201
    return response


@api.get("/projects/<string:project_id>/compare/<string:other>", responses={200: ComparisonOut})
def compare(path: ComparePath) -> Response:
    """A project beside another one, or beside itself `before` its last change: what differs, and one drawn over the other."""
    with sessions() as session, session.begin():
        body = ProjectBody.model_validate(documents.read(session, path.project_id, TYPE).body)
        own = (path.project_id, body, solved(body, session))
        if path.other == "before":
            was = ProjectBody.model_validate(documents.before(session, path.project_id, TYPE))
            return _json(compared((path.project_id, was.model_copy(update={"name": "Before"}), solved(was, session)), own))
        theirs = ProjectBody.model_validate(documents.read(session, path.other, TYPE).body)
        return _json(compared(own, (path.other, theirs, solved(theirs, session))))


@api.post("/projects/<string:project_id>/compare", responses={200: ComparisonOut})
def compare_after(path: ProjectPath, body: Look) -> Response:
    """A project as it is beside itself after some acts, without saving."""
    with sessions() as session, session.begin():
        now = ProjectBody.model_validate(documents.read(session, path.project_id, TYPE).body)
        then = acted(now, list(body.acts))
        sides = [
            (path.project_id, side.model_copy(update={"name": name}), solved(side, session))
            for side, name in ((now, "Now"), (then, "Then"))
        ]
        return _json(compared(*sides))


@api.delete("/projects/<string:project_id>", responses={204: None})
def delete_project(path: ProjectPath) -> Response:
    """Delete a project; it can be restored."""
    with sessions() as session, session.begin():
        documents.remove(session, path.project_id, TYPE)
    return Response(status=204)


@api.post("/projects/<string:project_id>/restore", responses={200: ProjectOut})
def restore_project(path: ProjectPath, body: Nothing) -> Response:
    """Bring a deleted project back."""
    with sessions() as session, session.begin():
        return _as_saved(documents.restore(session, path.project_id, TYPE), session)


@api.get("/projects/<string:project_id>/solids", responses={200: SolidsOut})
def read_solids(path: ProjectPath) -> Response:
    """The finished parts as solids, and the faces where they meet."""
    with sessions() as session, session.begin():
        state = documents.read(session, path.project_id, TYPE)
        solution = solved(ProjectBody.model_validate(state.body), session)
    return _json(solids_of(solution, state.version))


@api.get("/projects/<string:project_id>/faces", responses={200: FacesOut})
def read_faces(path: ProjectPath, query: FromFace) -> Response:
    """The faces that a piece can begin on, or those that look at the face where it does."""
    with sessions() as session, session.begin():
        body = as_together(ProjectBody.model_validate(documents.read(session, path.project_id, TYPE).body))
        solution = solved(body, session)
    first = (query.board, query.side) if query.board and query.side else None
    return _json(faces_out(solution, first, body.voice()))


@api.get("/projects/<string:project_id>/cut-list.csv", responses={200: None})
def cut_list(path: ProjectPath) -> Response:
    """The cut list as comma-separated values."""
    with sessions() as session, session.begin():
        body = ProjectBody.model_validate(documents.read(session, path.project_id, TYPE).body)
        solution = solved(body, session)
    text = cut_list_csv(sheet_of(solution, body.voice()), solution_document(solution, None))
    name = re.sub(r"[^A-Za-z0-9]+", "-", body.name).strip("-").lower() or "frame"
    headers = {"Content-Disposition": f'attachment; filename="{name}-cut-list.csv"'}
    return Response(text, content_type="text/csv; charset=utf-8", headers=headers)
