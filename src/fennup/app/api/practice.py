"""Practice over HTTP."""

from functools import lru_cache

from flask import Response, abort
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import json_of
from fennup.app.api.saw import SawRoom
from fennup.app.api.sessions import reading, writing
from fennup.app.schemas.api import Problem
from fennup.app.schemas.practice import AnswerIn, DrillOut, DrillQuery, PracticeOut, PracticeQuery
from fennup.app.services import workshops
from fennup.app.services.demo import PROJECTS
from fennup.app.services.practice import answers_in, drill_out, practice_out, remember
from fennup.app.services.projects import PLAIN
from fennup.app.services.solving import solved_spec
from fennup.app.services.steps_sheet import SawSheet
from fennup.app.wording.practice import EXAMPLE
from fennup.core.workshop import Workshop

api = APIBlueprint("practice", __name__, url_prefix="/api", abp_responses={404: Problem, 422: Problem})


@lru_cache(maxsize=32)
def _example(place: int, workshop_text: str) -> SawSheet:
    workshop = Workshop.model_validate_json(workshop_text)
    return SawSheet(solved_spec(PROJECTS[place]["spec"], workshop), PLAIN, {})


def _sheets(project: str) -> list[tuple[SawSheet, str]]:
    """The project's own steps, if there is one, with its name."""
    if not project:
        return []
    room = SawRoom(project)
    return [(room.sheet(), room.opened.body.name)]


@api.get("/practice", responses={200: PracticeOut})
def read_practice(query: PracticeQuery) -> Response:
    """What there is to practise and how it went."""
    return json_of(_practice(query.project))


def _practice(project: str) -> PracticeOut:
    with reading() as session:
        answers = answers_in(session)
        workshop = workshops.current_workshop(session)
    sheet, name = [*_sheets(project), (_example(0, workshop.model_dump_json()), EXAMPLE)][0]
    return practice_out(sheet, name, answers)


@api.get("/practice/drill", responses={200: DrillOut})
def read_drill(query: DrillQuery) -> Response:
    """A drill: of the project's own parts where it has such, else of the demo's."""
    for sheet, name in _sheets(query.project):
        found = drill_out(sheet, name, query.level, query.seed)
        if found:
            return json_of(found)
    with reading() as session:
        workshop = workshops.current_workshop(session).model_dump_json()
    for turn in range(len(PROJECTS)):
        place = (turn + query.seed) % len(PROJECTS)
        found = drill_out(_example(place, workshop), f"{EXAMPLE}: {PROJECTS[place]['name']}", query.level, query.seed)
        if found:
            return json_of(found)
    abort(404, "No part that there is practises this with these tools.")


@api.post("/practice/answers", responses={200: PracticeOut})
def answer(body: AnswerIn) -> Response:
    """How a drill was answered."""
    with writing() as session:
        remember(session, body.level, right=body.right)
    return json_of(_practice(""))
