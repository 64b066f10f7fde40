"""Frames to begin with: each a spec that closes and can be changed at once."""

from typing import Any

_BOARD = {"width_mm": 45.0, "thickness_mm": 20.0}


def _regular(sides: int, by: str, mm: float) -> dict[str, Any]:
    shape = {"form": "regular", "sides": sides, "size": {"by": by, "mm": mm}}
    return {"kind": "flat_frame", "shape": shape, "suggested": ["mm"], "board": _BOARD}


STARTS: dict[str, dict[str, Any]] = {
    "rectangle": {
        "kind": "flat_frame",
        "shape": {"form": "rectangle", "size": {"by": "opening", "width_mm": 420.0, "depth_mm": 300.0}},
        "suggested": ["width_mm", "depth_mm"],
        "board": _BOARD,
    },
    "triangle": _regular(3, "outside_side", 520.0),
    "hexagon": _regular(6, "opening_flats", 320.0),
    "octagon": _regular(8, "opening_flats", 340.0),
    "irregular": {
        "kind": "flat_frame",
        "shape": {
            "form": "irregular",
            "line": "outside",
            "corners": [[-260.0, -180.0], [260.0, -180.0], [260.0, 90.0], [-40.0, 230.0], [-260.0, 130.0]],
            "pins": [],
        },
        "board": _BOARD,
    },
    "open_octagon": {**_regular(8, "outside_flats", 1800.0), "left_out": ["A"], "loose_ends": "ground",
                     "board": {"width_mm": 94.0, "thickness_mm": 27.0}},
}  # fmt: skip
