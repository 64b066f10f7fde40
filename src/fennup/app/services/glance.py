"""A project at a glance, for the first screen: worked out once for as long as nothing in it changes."""

import json
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Literal

from fennup.app.schemas.sheet import ViewOut
from fennup.app.services.drawings import view_out
from fennup.app.services.projects import PLAIN, ProjectBody
from fennup.app.services.solving import solved_spec
from fennup.app.wording.figures import Voice
from fennup.app.wording.labels import facts_text
from fennup.app.wording.verdicts import closing_line
from fennup.core.drawing.view import View
from fennup.core.project.describe import describe
from fennup.core.workshop import Workshop


@dataclass(frozen=True)
class Glance:
    """What is said of it in a line, whether it closes, and a small true drawing without words or dimensions."""

    facts: str
    closes: Literal["closes", "opens", "fails", "unreadable"]
    view: ViewOut


def glance_at(body: ProjectBody, workshop: Workshop) -> Glance:
    """A project in a workshop; Invalid when its spec has no solution."""
    return _glance(json.dumps(body.spec), body.made_in(workshop).model_dump_json(), body.voice(), proven=True)


def glance_at_start(spec: dict[str, Any]) -> Glance:
    """What a new project can begin with."""
    return _glance(json.dumps(spec), Workshop().model_dump_json(), PLAIN, proven=False)


@lru_cache(maxsize=1024)
def _glance(spec: str, workshop: str, voice: Voice, *, proven: bool) -> Glance:
    solution = solved_spec(json.loads(spec), Workshop.model_validate_json(workshop), voice)
    shown = describe(solution.spec, solution.design.assembly, solution.design.solids)
    # The same verdict as in the project: by both proofs.
    closing = closing_line(solution, solution.design.proof if proven else None, voice)
    return Glance(facts_text(shown.facts), closing.tone, view_out(View("picture", shown.picture), PLAIN))
