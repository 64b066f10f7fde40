"""The demo: a made-up rowing club refits its boathouse."""

from typing import Any

from sqlalchemy.orm import Session

from fennup.app.services import documents
from fennup.app.services.projects import TYPE, ProjectBody, kind_of

_INCH = 25.4


def _frame(shape: dict[str, Any], width: float, thickness: float, **more: Any) -> dict[str, Any]:
    return {"kind": "flat_frame", "shape": shape, "board": {"width_mm": width, "thickness_mm": thickness}, **more}


def _round(sides: int, **size: Any) -> dict[str, Any]:
    return {"form": "regular", "sides": sides, "size": size}


PROJECTS: tuple[dict[str, Any], ...] = (
    {
        "name": "Slipway warning board",
        "spec": _frame(_round(3, by="outside_side", mm=640.0), 60.0, 20.0, joint="butt"),
    },
    {
        "name": "Gable window trim",
        "spec": _frame(
            {
                "form": "irregular",
                "line": "opening",
                "corners": [[-310.0, -260.0], [310.0, -260.0], [310.0, 60.0], [0.0, 275.0], [-310.0, 60.0]],
                "pins": [
                    {"side": "A", "mm": 620.0}, {"corner": "EA", "deg": 90.0}, {"corner": "AB", "deg": 90.0},
                    {"side": "B", "mm": 320.0}, {"side": "E", "mm": 320.0}, {"corner": "CD", "deg": 110.0},
                ],
            },
            70.0, 20.0, rails={"A": {"width_mm": 95.0}},
        ),
    },
    {
        "name": "Oar hatch arch",
        "spec": _frame(_round(8, by="outside_side", mm=610.0), 94.0, 27.0, left_out=["A"], loose_ends="ground"),
    },
    {
        "name": "Honours board frame",
        "spec": _frame(
            {"form": "rectangle", "size": {"by": "holds", "object_width_mm": 900.0, "object_depth_mm": 560.0, "play_mm": 3.0}},
            60.0, 20.0, rails={"A": {"width_mm": 95.0}, "C": {"width_mm": 95.0}}, rabbet={"width_mm": 10.0, "depth_mm": 9.0},
        ),
    },
    {
        "name": "Pennant shelf ring",
        "unit": "in", "graduation": "1/32",
        "spec": _frame(_round(7, by="outside_corners", mm=21 * _INCH), 2 * _INCH, 0.75 * _INCH),
    },
    {
        "name": "Tide clock surround",
        "unit": "in", "graduation": "1/16",
        "spec": _frame(
            _round(8, by="holds", object_mm=13.5 * _INCH, play_mm=0.125 * _INCH), 2.125 * _INCH, 0.75 * _INCH,
            rabbet={"width_mm": 0.25 * _INCH, "depth_mm": 0.375 * _INCH},
        ),
    },
)  # fmt: skip


def fill(session: Session) -> None:
    """The demo's projects, once: not again when they have been deleted."""
    if documents.ever_made(session, TYPE):
        return
    for entry in PROJECTS:
        spec = kind_of(entry["spec"]).spec.model_validate(entry["spec"]).model_dump(mode="json")
        body = ProjectBody(name=entry["name"], unit=entry.get("unit", "mm"), graduation=entry.get("graduation", "1"), spec=spec)
        documents.create(session, TYPE, body.model_dump(mode="json"), "made for the demo")
