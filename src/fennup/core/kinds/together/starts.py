"""Assemblies that belong together, to begin with."""

from typing import Any

_LEG = {"width_mm": 40.0, "thickness_mm": 40.0}

STARTS: dict[str, dict[str, Any]] = {
    "bin_on_stand": {
        "kind": "together",
        "members": [
            {
                "name": "Stand",
                "spec": {
                    "kind": "stand", "height_mm": 320.0, "leg": _LEG,
                    "plan": {"form": "four", "top_width_mm": 360.0, "top_depth_mm": 360.0, "front_splay_deg": 5.0, "side_splay_deg": 5.0},
                    "rails": [{"height_mm": 90.0, "width_mm": 50.0, "thickness_mm": 18.0}],
                    "top": {"thickness_mm": 18.0, "over_mm": 10.0},
                },
            },
            {
                "name": "Bin", "on": "Stand",
                "spec": {
                    "kind": "box", "plan": {"form": "rectangle", "width_mm": 360.0, "depth_mm": 360.0}, "height_mm": 380.0,
                    "slope_deg": 5.0, "thickness_mm": 18.0,
                },
            },
            {
                "name": "Hood", "on": "Bin",
                "spec": {"kind": "roof", "thickness_mm": 15.0, "shape": {"form": "pyramid", "sides": 4, "across_mm": 480.0, "height_mm": 150.0}},
            },
        ],
        "links": [
            {"of": "Bin", "measure": "outer_bottom_width", "after": "Stand", "source": "top_width"},
            {"of": "Bin", "measure": "outer_bottom_depth", "after": "Stand", "source": "top_depth"},
            {"of": "Hood", "measure": "eaves_flats", "after": "Bin", "source": "outer_top_width", "plus_mm": 40.0},
        ],
    },
    "posts_and_rail": {
        "kind": "together",
        "members": [
            {
                "name": "Posts",
                "spec": {
                    "kind": "stand", "height_mm": 1000.0, "leg": {"width_mm": 90.0, "thickness_mm": 90.0},
                    "plan": {"form": "four", "top_width_mm": 1400.0, "top_depth_mm": 900.0, "front_splay_deg": 0.0, "side_splay_deg": 0.0},
                },
            },
        ],
        "pieces": [
            {
                "name": f"Sloping rail {number}", "width_mm": 90.0, "thickness_mm": 40.0,
                "a": {"board": f"Posts/{low}", "side": "upper", "along_mm": 650.0}, "b": {"board": f"Posts/{high}", "side": "upper", "along_mm": 900.0},
            }
            for number, low, high in ((1, "DA", "AB"), (2, "CD", "BC"))
        ],
    },
}  # fmt: skip
