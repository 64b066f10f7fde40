"""Stands to begin with: each a spec that closes and can be changed at once."""

from typing import Any

_LEG = {"width_mm": 45.0, "thickness_mm": 45.0}
_RAIL = {"height_mm": 120.0, "width_mm": 60.0, "thickness_mm": 20.0}


def _stand(plan: dict[str, Any], height: float, **more: Any) -> dict[str, Any]:
    return {"kind": "stand", "plan": plan, "height_mm": height, "leg": _LEG, **more}


def _four(width: float, depth: float, front: float, side: float) -> dict[str, Any]:
    return {"form": "four", "top_width_mm": width, "top_depth_mm": depth, "front_splay_deg": front, "side_splay_deg": side}


STARTS: dict[str, dict[str, Any]] = {
    "stool": _stand(_four(300.0, 240.0, 8.0, 8.0), 450.0, rails=[_RAIL], top={"thickness_mm": 22.0, "over_mm": 20.0}),
    "three_legs": _stand(
        {"form": "round", "legs": 3, "top_side_mm": 220.0, "lean_deg": 12.0}, 420.0, roll="even",
        top={"thickness_mm": 22.0, "over_mm": 20.0},
    ),
    "trestle": _stand(
        {"form": "pairs", "top_width_mm": 800.0, "side_splay_deg": 17.0,
         "beam": {"thickness_mm": 45.0, "depth_mm": 200.0, "over_mm": 60.0}},
        700.0, rails=[{**_RAIL, "sides": "BD", "height_mm": 180.0}],
    ),
    "tower": _stand(
        _four(160.0, 160.0, 6.0, 6.0), 900.0, roll="rhombic",
        rings=[{"height_mm": 60.0, "tall_mm": 70.0, "thickness_mm": 20.0}, {"height_mm": 500.0, "tall_mm": 70.0, "thickness_mm": 20.0}],
    ),
}  # fmt: skip
