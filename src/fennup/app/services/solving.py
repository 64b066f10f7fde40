"""From a project to its solution, kept by content: after a save the first screen, a second window and the cut list ask for the
same, and while only the saw is changed the design stays as it is."""

from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

from fennup.app.services.projects import PLAIN, ProjectBody, valid_spec
from fennup.app.services.validate import from_core
from fennup.app.wording.figures import Voice
from fennup.core.design import Design
from fennup.core.errors import CoreError
from fennup.core.plan import Plan, plan_with
from fennup.core.project.forms import ONLY, is_single
from fennup.core.project.spec import ProjectSpec
from fennup.core.solve import Solution, designed
from fennup.core.workshop import Workshop

MOST_DESIGNS = 24
MOST_PLANS = 24


@dataclass(frozen=True)
class _ByText:
    """Something told from another by its text."""

    text: str
    spec: ProjectSpec = field(compare=False)


@dataclass(frozen=True)
class _PlanKey:
    """A design and a workshop, told from others by their texts."""

    spec_text: str
    workshop_text: str
    design: Design = field(compare=False)
    workshop: Workshop = field(compare=False)


@lru_cache(maxsize=MOST_DESIGNS)
def _designed(key: _ByText) -> tuple[ProjectSpec, Design]:
    return designed(key.spec)


@lru_cache(maxsize=MOST_PLANS)
def _planned(key: _PlanKey) -> Plan:
    return plan_with(key.design, key.workshop)


def solved(body: ProjectBody, workshop: Workshop) -> Solution:
    """The project's solution in a workshop, made to the project's own tape; Invalid when its spec has none."""
    return solved_spec(body.spec, body.made_in(workshop), body.voice())


def solved_spec(document: Any, workshop: Workshop, voice: Voice = PLAIN) -> Solution:
    """Validate a spec in any of its forms and solve it. Invalid names the fields as in what was given."""
    spec = valid_spec(document, voice)
    text = spec.model_dump_json()
    try:
        settled, design = _designed(_ByText(text, spec))
        return Solution(settled, design, _planned(_PlanKey(text, workshop.model_dump_json(), design, workshop)))
    except CoreError as error:
        refused = from_core(error, voice)
        raise (refused.without(f"members.{ONLY}.spec.") if is_single(document) else refused) from None
