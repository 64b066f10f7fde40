"""Boxes to begin with: each a spec that closes and can be changed at once."""

from typing import Any


def _box(plan: dict[str, Any], height: float, **more: Any) -> dict[str, Any]:
    return {"kind": "box", "plan": plan, "height_mm": height, "thickness_mm": 18.0, **more}


def _round(sides: int, across: float) -> dict[str, Any]:
    return {"form": "regular", "sides": sides, "across_mm": across}


def _square(width: float, depth: float) -> dict[str, Any]:
    return {"form": "rectangle", "width_mm": width, "depth_mm": depth}


STARTS: dict[str, dict[str, Any]] = {
    "case": _box(_round(6, 420.0), 110.0, back={"thickness_mm": 6.0, "depth_mm": 9.0, "play_mm": 1.0}),
    "tapered_box": _box(_square(300.0, 300.0), 260.0, slope_deg=10.0),
    "tub": _box(_round(8, 380.0), 320.0, slope_deg=6.0),
    "trough": _box(_square(700.0, 220.0), 200.0, slopes_deg={"AC": 15.0, "BD": 0.0}),
    "any_box": _box(
        {"form": "irregular", "corners": [[-240.0, -150.0], [240.0, -150.0], [240.0, 40.0], [60.0, 190.0], [-240.0, 190.0]]},
        160.0,
    ),
}
