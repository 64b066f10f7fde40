"""Specs and solutions for tests: short to write, nothing hidden."""

from typing import Any

from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.solid import arris_length, end_cut
from fennup.core.saw.machine import Machine
from fennup.core.solve import Solution, solve

FRAME = KINDS["flat_frame"]


def regular(sides: int, width: float, by: str, thickness: float = 20.0, **more: Any) -> dict[str, Any]:
    """A regular frame; `mm` or the held thing's sizes, and anything else of the spec, as keywords."""
    size = {"by": by} | {k: more.pop(k) for k in ("mm", "object_mm", "play_mm", "reveal_mm") if k in more}
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


def spec_of(document: dict[str, Any]) -> Any:
    """The document as its kind's model."""
    return KINDS[document["kind"]].spec.model_validate(document)


def solved(document: dict[str, Any], machine: Machine | None = None) -> Solution:
    """Validate and solve."""
    return solve(spec_of(document), machine or Machine())


def lengths(solution: Solution, board: str) -> tuple[float, float]:
    """A rail's outer and opening edge, tip to tip."""
    found = solution.assembly.board(board)
    return arris_length(found, "face_lower"), arris_length(found, "face_upper")


def miters(solution: Solution, board: str) -> tuple[float, float]:
    """A rail's left and right miter, degrees."""
    found = solution.assembly.board(board)
    return end_cut(found.left[0]).miter_deg, end_cut(found.right[0]).miter_deg
