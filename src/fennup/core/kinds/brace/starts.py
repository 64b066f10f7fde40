"""Braces to begin with: each a spec that closes and can be changed at once."""

from typing import Any


def _brace(place: dict[str, Any], width: float, **more: Any) -> dict[str, Any]:
    return {"kind": "brace", "place": place, "width_mm": width, "thickness_mm": 40.0, "member_mm": 90.0, **more}


STARTS: dict[str, dict[str, Any]] = {
    "knee_brace": _brace({"form": "knee", "post_leg_mm": 450.0, "beam_leg_mm": 450.0}, 70.0, by="lower"),
    "diagonal": _brace({"form": "between", "clear_mm": 900.0, "rise_mm": 600.0}, 70.0),
    "crossing": _brace(
        {"form": "between", "clear_mm": 800.0, "rise_mm": 700.0, "crossing": {"start_mm": 700.0, "rise_mm": -700.0, "width_mm": 70.0}},
        70.0,
    ),
    "prop": _brace({"form": "prop", "stand_off_mm": 700.0, "wall_height_mm": 1800.0}, 90.0),
    "ladder": _brace(
        {"form": "prop", "stand_off_mm": 500.0, "wall_height_mm": 2000.0, "treads": {"count": 6, "thickness_mm": 30.0, "clear_mm": 380.0}},
        90.0,
    ),
    "box_ladder": _brace(
        {"form": "prop", "stand_off_mm": 500.0, "wall_height_mm": 1700.0, "treads": {"count": 4, "thickness_mm": 20.0, "clear_mm": 600.0, "box_mm": 110.0}},
        120.0,
    ),
}  # fmt: skip
