"""The saw, the kinds, and solving without a project."""

from flask import Response
from flask_openapi3 import APIBlueprint

from fennup.app.api.sessions import reading, writing
from fennup.app.schemas.api import KindList, Problem, SawChange, SawLook, SawOut, Seen, SolveRequest
from fennup.app.services import documents, saws
from fennup.app.services.drawings import control_out, view_out
from fennup.app.services.kinds import kind_list
from fennup.app.services.projects import PLAIN, solved_spec
from fennup.core.exchange.document import SolutionDocument, solution_document
from fennup.core.saw.machine import Machine
from fennup.core.saw.profile import machine_controls, machine_views

api = APIBlueprint("workshop", __name__, url_prefix="/api", abp_responses={409: Problem, 422: Problem})


UNREADABLE = "The saw that was saved cannot be read: the built-in one is used. Change anything to begin with that."


def _out(state: documents.State, looked_at: Machine | None = None) -> Response:
    stored = saws.machine_of(state)
    machine = looked_at or stored or saws.BUILT_IN
    body = SawOut(
        version=state.version,
        undo=state.undo,
        redo=state.redo,
        notice=None if stored else UNREADABLE,
        machine=machine,
        views=[view_out(v, PLAIN) for v in machine_views(machine)],
        controls=[control_out(c, PLAIN) for c in machine_controls(machine)],
    )
    return Response(body.model_dump_json(), content_type="application/json")


@api.get("/saw", responses={200: SawOut})
def read_saw() -> Response:
    """The workshop's saw."""
    with reading() as session:
        return _out(saws.saw_state(session))


@api.post("/saw/acts", responses={200: SawOut})
def change_saw(body: SawChange) -> Response:
    """Change the saw and save."""
    with writing() as session:
        state = saws.edit_saw(session, body.version, list(body.acts), PLAIN)
    return _out(state)


@api.post("/saw/look", responses={200: SawOut})
def look_at_saw(body: SawLook) -> Response:
    """What some acts would make of the saw, without saving."""
    with reading() as session:
        state = saws.saw_state(session)
        machine = saws.current_machine(session)
    return _out(state, saws.acted(machine, list(body.acts), PLAIN))


@api.post("/saw/undo", responses={200: SawOut})
def undo_saw(body: Seen) -> Response:
    """Take the last change to the saw back."""
    return _stepped(body.version, -1)


@api.post("/saw/redo", responses={200: SawOut})
def redo_saw(body: Seen) -> Response:
    """Bring it again."""
    return _stepped(body.version, 1)


def _stepped(version: int, by: int) -> Response:
    with writing() as session:
        if not documents.ever_made(session, saws.TYPE):
            return _out(saws.saw_state(session))  # nothing was changed yet
        state = documents.step(session, saws.ONLY, saws.TYPE, version, by)
    return _out(state)


@api.get("/kinds", responses={200: KindList})
def kinds() -> Response:
    """Every kind with the JSON Schema of its spec."""
    return Response(kind_list().model_dump_json(), content_type="application/json")


@api.post("/solve", responses={200: SolutionDocument})
def solve_spec(body: SolveRequest) -> Response:
    """Solve a spec: the same document that the command line prints."""
    solution = solved_spec(body.spec, body.saw or Machine(), PLAIN)
    return Response(
        solution_document(solution, solution.proof).model_dump_json(),
        content_type="application/json",
    )
