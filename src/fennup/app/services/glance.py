"""A project at a glance, for the first screen: worked out once for as long as nothing in it changes."""

import json
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Literal

from fennup.app.schemas.sheet import ViewOut
from fennup.app.services.drawings import view_out
from fennup.app.services.projects import PLAIN, ProjectBody, solved_spec
from fennup.app.wording.figures import Voice
from fennup.app.wording.labels import facts_told
from fennup.app.wording.verdicts import closing_line
from fennup.core.drawing.view import View
from fennup.core.kinds.catalogue import KINDS
from fennup.core.saw.machine import Machine
from fennup.core.solve import CARE, Care


@dataclass(frozen=True)
class Glance:
    """What is said of it in a line, whether it closes, and a small true drawing without words or dimensions."""

    facts: str
    closes: Literal["closes", "opens", "fails", "unreadable"]
    view: ViewOut


def glance_at(body: ProjectBody, machine: Machine) -> Glance:
    """A project on a saw; Invalid when its spec has no solution."""
    return _glance(json.dumps(body.spec), machine, body.voice(), body.care(), proven=True)


def glance_at_start(spec: dict[str, Any]) -> Glance:
    """What a new project can begin with."""
    return _glance(json.dumps(spec), Machine(), PLAIN, CARE, proven=False)


@lru_cache(maxsize=1024)
def _glance(spec: str, machine: Machine, voice: Voice, care: Care, *, proven: bool) -> Glance:
    solution = solved_spec(json.loads(spec), machine, voice, care)
    shown = KINDS[solution.spec.kind].describe(solution.spec, solution.ruler, solution.solids)
    # The same verdict as in the project: by both proofs.
    closing = closing_line(solution, solution.proof if proven else None, voice)
    return Glance(facts_told(shown.facts), closing.tone, view_out(View("picture", shown.picture), PLAIN))
