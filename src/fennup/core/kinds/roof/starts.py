"""Roofs to begin with: each a spec that closes and can be changed at once."""

from typing import Any


def _roof(shape: dict[str, Any], thickness: float, **more: Any) -> dict[str, Any]:
    return {"kind": "roof", "shape": shape, "thickness_mm": thickness, **more}


STARTS: dict[str, dict[str, Any]] = {
    "gable": _roof(
        {"form": "gable", "left": {"run_mm": 900.0, "pitch_deg": 35.0}, "heel_mm": 30.0, "overhang_mm": 200.0,
         "ridge": {"thickness_mm": 27.0, "depth_mm": 140.0}, "pairs": 3, "spacing_mm": 500.0},
        40.0, depth_mm=95.0,
    ),
    "pyramid": _roof({"form": "pyramid", "sides": 6, "across_mm": 600.0, "height_mm": 220.0}, 18.0),
    "hip": _roof(
        {"form": "hip", "width_mm": 1600.0, "depth_mm": 1600.0, "rise_mm": 560.0, "hip_thickness_mm": 40.0, "hip_depth_mm": 130.0,
         "spacing_mm": 250.0, "foot": "seat", "above_plate_mm": 75.0},
        40.0, depth_mm=90.0,
    ),
    "lean_to": _roof(
        {"form": "lean_to", "width_mm": 900.0, "depth_mm": 420.0, "front_mm": 380.0, "back_mm": 520.0,
         "cover": {"thickness_mm": 20.0, "over_mm": 30.0}}, 20.0
    ),
    "sloped_box": _roof(
        {"form": "lean_to", "width_mm": 400.0, "depth_mm": 300.0, "front_mm": 220.0, "back_mm": 300.0,
         "cover": {"thickness_mm": 18.0, "over_mm": 15.0}}, 18.0
    ),
}  # fmt: skip
