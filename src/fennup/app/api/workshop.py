"""The workshop, the kinds, and solving without a project."""

from flask import Response
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import json_of
from fennup.app.api.sessions import reading, writing
from fennup.app.schemas.api import (
    ErrorOut,
    KindList,
    Problem,
    ProfileOut,
    Seen,
    SolveRequest,
    ToolOut,
    WorkshopChange,
    WorkshopLook,
    WorkshopOut,
)
from fennup.app.services import documents, workshops
from fennup.app.services.drawings import control_out, view_out
from fennup.app.services.kinds import kind_list
from fennup.app.services.projects import PLAIN
from fennup.app.services.solving import solved_spec
from fennup.app.wording.acts import did_words
from fennup.app.wording.saw_labels import PROFILE_NAMES
from fennup.core.drawing.edit import Choose
from fennup.core.exchange.document import solution_document
from fennup.core.exchange.forms import SolutionDocument
from fennup.core.saw.tool import ScaleTool
from fennup.core.saw.tools import AnyTool
from fennup.core.workshop import Workshop, tool_controls, tool_views, with_saw

api = APIBlueprint("workshop", __name__, url_prefix="/api", abp_responses={409: Problem, 422: Problem})
UNREADABLE = "The saw that was saved cannot be read: the built-in one is used. Change anything to begin with that."


def _out(state: documents.State, looked_at: Workshop | None = None) -> Response:
    stored = workshops.workshop_in(state)
    workshop = looked_at or stored or workshops.BUILT_IN
    return json_of(
        WorkshopOut(
            version=state.version,
            undo=did_words(state.undo, PLAIN),
            redo=did_words(state.redo, PLAIN),
            notice=None if stored else UNREADABLE,
            tools=[
                ToolOut(
                    id=id,
                    type=tool.type,
                    name=tool.name,
                    views=[view_out(view, PLAIN) for view in tool_views(workshop, id)],
                    controls=[control_out(control, PLAIN) for control in tool_controls(workshop, id)],
                    errors=_errors(id, tool),
                )
                for id, tool in workshop.tools.items()
            ],
            profiles=[
                ProfileOut(name=name, acts=[Choose(op="choose", path="tools.add", value=code)])
                for code, name in PROFILE_NAMES.items()
            ],
        )
    )


def _errors(id: str, tool: AnyTool) -> list[ErrorOut]:
    """What is known of its scales, the last test first."""
    errors = tool.errors if isinstance(tool, ScaleTool) else ()
    found = []
    for error in reversed(errors):
        rest = [e.model_dump(mode="json") for e in errors if e is not error]
        shown = PLAIN.say_angle(tool.shown(error.movement, error.at_deg))
        much = "more" if error.error_deg > 0 else "less"
        text = f"{error.found:%d %B %Y}: {error.movement} at {shown} makes {abs(error.error_deg):.3f}° {much} than it shows"
        found.append(ErrorOut(text=text, forget=[Choose(op="choose", path=f"tools.{id}.errors", value=rest)]))
    return found


@api.get("/workshop", responses={200: WorkshopOut})
def read_workshop() -> Response:
    """The workshop and its tools."""
    with reading() as session:
        state = workshops.workshop_state(session)
    return _out(state)


@api.post("/workshop/acts", responses={200: WorkshopOut})
def change_workshop(body: WorkshopChange) -> Response:
    """Change the workshop and save."""
    with reading() as session:
        now = workshops.current_workshop(session)
    changed = workshops.after_acts(now, list(body.acts), PLAIN)
    did = {"acts": [act.model_dump(mode="json") for act in body.acts]}
    with writing() as session:
        state = workshops.save_workshop(session, body.version, changed, did)
    return _out(state)


@api.post("/workshop/look", responses={200: WorkshopOut})
def look_at_workshop(body: WorkshopLook) -> Response:
    """What some acts would make of the workshop, without saving."""
    with reading() as session:
        state = workshops.workshop_state(session)
        workshop = workshops.current_workshop(session)
    return _out(state, workshops.after_acts(workshop, list(body.acts), PLAIN))


@api.post("/workshop/undo", responses={200: WorkshopOut})
def undo_workshop(body: Seen) -> Response:
    """Take the last change to the workshop back."""
    return _stepped(body.version, -1)


@api.post("/workshop/redo", responses={200: WorkshopOut})
def redo_workshop(body: Seen) -> Response:
    """Bring it again."""
    return _stepped(body.version, 1)


def _stepped(version: int, by: int) -> Response:
    with writing() as session:
        if not documents.ever_made(session, workshops.TYPE):
            return _out(workshops.workshop_state(session))  # nothing was changed yet
        state = documents.step(session, workshops.ONLY, workshops.TYPE, version, by)
    return _out(state)


@api.get("/kinds", responses={200: KindList})
def kinds() -> Response:
    """Every kind with the JSON Schema of its spec."""
    return json_of(kind_list())


@api.post("/solve", responses={200: SolutionDocument})
def solve_spec(body: SolveRequest) -> Response:
    """Solve a spec: the same document that the command line prints."""
    workshop = body.workshop or (with_saw(body.saw) if body.saw else Workshop())
    solution = solved_spec(body.spec, workshop)
    return json_of(solution_document(solution, solution.design.proof))
