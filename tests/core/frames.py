"""Specs and solutions for tests: short to write, nothing hidden."""

from dataclasses import dataclass
from typing import Any

from fennup.core.design import Design, design_of
from fennup.core.drawing.view import Description
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.solid import arris_length, end_cut
from fennup.core.plan import Plan, plan_with
from fennup.core.project.describe import describe
from fennup.core.project.edit import edit
from fennup.core.project.forms import is_single, newest_form
from fennup.core.project.spec import ProjectSpec
from fennup.core.project.starts import TOGETHER
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.solve import solve
from fennup.core.units.lengths import Tape
from fennup.core.workshop import Workshop, with_saw

FRAME = KINDS["flat_frame"]


def regular(sides: int, width: float, by: str, thickness: float = 20.0, **more: Any) -> dict[str, Any]:
    """A regular frame; `mm` or the held thing's sizes, and anything else of the spec, as keywords."""
    size = {"by": by} | {k: more.pop(k) for k in ("mm", "object_mm", "play_mm", "reveal_mm", "form") if k in more}
    shape = {"form": "regular", "sides": sides, "size": size}
    return {"kind": "flat_frame", "shape": shape, "board": {"width_mm": width, "thickness_mm": thickness}, **more}


def rectangle(by: str, width: float, depth: float, rail: float, **more: Any) -> dict[str, Any]:
    """A rectangle by its opening or its outside."""
    shape = {"form": "rectangle", "size": {"by": by, "width_mm": width, "depth_mm": depth}}
    return {"kind": "flat_frame", "shape": shape, "board": {"width_mm": rail, "thickness_mm": 20.0}, **more}


def irregular(
    corners: list[tuple[float, float]], pins: list[dict[str, Any]], line: str = "outside", **more: Any
) -> dict[str, Any]:
    """Any outline."""
    shape = {"form": "irregular", "line": line, "corners": corners, "pins": pins}
    return {"kind": "flat_frame", "shape": shape, "board": {"width_mm": 40.0, "thickness_mm": 20.0}, **more}


def box(plan: dict[str, Any], height: float, **more: Any) -> dict[str, Any]:
    """A box 18 thick, if nothing else is said."""
    return {"kind": "box", "plan": plan, "height_mm": height, **({"thickness_mm": 18.0} | more)}


def of_sides(sides: int, across: float) -> dict[str, Any]:
    """A regular plan, its outer bottom line across flats."""
    return {"form": "regular", "sides": sides, "across_mm": across}


def level(width: float, depth: float) -> dict[str, Any]:
    """A rectangular plan, its outer bottom line."""
    return {"form": "rectangle", "width_mm": width, "depth_mm": depth}


def given(**measures: float) -> list[dict[str, Any]]:
    """Pins by name, `slope_AC` for `slope:AC`."""
    named = ((name.replace("slope_", "slope:"), value) for name, value in measures.items())
    return [{"measure": name, "deg" if name.startswith(("slope", "level_slope")) else "mm": value} for name, value in named]


@dataclass(frozen=True)
class Solved:
    """A settled spec with its design and its plan; what they hold can be asked for directly."""

    spec: Any
    design: Design
    plan: Plan

    def __getattr__(self, name: str) -> Any:
        return next(getattr(step, name) for step in (self.design, self.plan, self.plan.fitting) if hasattr(step, name))


def spec_of(document: dict[str, Any]) -> Any:
    """The document as its kind's model, or as a project's."""
    return (KINDS[document["kind"]].spec if is_single(document) else ProjectSpec).model_validate(
        document if is_single(document) else newest_form(document)
    )


def all_typed(document: dict[str, Any]) -> dict[str, Any]:
    """The same with every size that it suggests given by somebody."""
    return document | {"pins": [pin.model_dump() | {"suggested": False} for pin in spec_of(document).given_pins()]}


def solved(document: dict[str, Any], saw: MiterSaw | None = None, **exactly: Any) -> Solved:
    """Validate and solve: a kind's own spec by itself, so that its boards are called as the kind calls them, or a project.
    `exactly`: the workshop's tape and allowance."""
    workshop = with_saw(saw or MiterSaw()).model_copy(update=exactly)
    spec = spec_of(document)
    if isinstance(spec, ProjectSpec):
        made = solve(spec, workshop)
        return Solved(made.spec, made.design, made.plan)
    return alone(spec, workshop)


def alone(spec: Any, workshop: Workshop) -> Solved:
    """One kind's own spec, without a project round it."""
    kind = KINDS[spec.kind]
    settled = kind.settle(spec)
    design = design_of(kind.assemble(settled))
    return Solved(settled, design, plan_with(design, workshop))


def shown(made: Solved) -> Description:
    """What a kind, or a project, shows of itself."""
    if isinstance(made.spec, ProjectSpec):
        return describe(made.spec, made.assembly, made.solids)
    return KINDS[made.spec.kind].describe(made.spec, made.ruler, made.solids)


def after(spec: Any, act: Any, on: Tape) -> dict[str, Any]:
    """A kind's spec, or a project's, after an act, still to be validated."""
    return edit(spec, act, on) if isinstance(spec, ProjectSpec) else KINDS[spec.kind].edit(spec, act, on)


def all_starts() -> dict[str, list[dict[str, Any]]]:
    """Everything to begin with: each kind's own starts, and those of several."""
    return {**{kind.name: list(kind.starts.values()) for kind in KINDS.values()}, "together": list(TOGETHER.values())}


def lengths(solution: Solved, board: str) -> tuple[float, float]:
    """A rail's outer and opening edge, tip to tip."""
    found = solution.assembly.board(board)
    return arris_length(found, "face_lower"), arris_length(found, "face_upper")


def miters(solution: Solved, board: str) -> tuple[float, float]:
    """A rail's left and right miter, degrees."""
    found = solution.assembly.board(board)
    return end_cut(found.left[0]).miter_deg, end_cut(found.right[0]).miter_deg
