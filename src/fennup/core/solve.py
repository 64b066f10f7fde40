"""From a project's spec to everything that follows from it: first the design, then the plan with a workshop's tools."""

from dataclasses import dataclass

from fennup.core.design import Design, design_of
from fennup.core.plan import Plan, plan_with
from fennup.core.project.place import assemble, settle, solids_in
from fennup.core.project.spec import ProjectSpec
from fennup.core.workshop import Workshop


@dataclass(frozen=True)
class Solution:
    """Everything derived from one spec and one workshop. Same input, same output. `spec` has its sizes settled."""

    spec: ProjectSpec
    design: Design
    plan: Plan


def designed(spec: ProjectSpec) -> tuple[ProjectSpec, Design]:
    """The first step: the spec settled, and what follows from it alone. SpecError when no solid answers to it."""
    spec = settle(spec)
    assembly = assemble(spec)
    return spec, design_of(assembly, solids_in(spec, assembly))


def solve(spec: ProjectSpec, workshop: Workshop) -> Solution:
    """Both steps on a valid spec. SpecError when no solid answers to it."""
    settled, design = designed(spec)
    return Solution(settled, design, plan_with(design, workshop))
