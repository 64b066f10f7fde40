"""Mouldings to begin with: each a spec that closes and can be changed at once."""

from typing import Any


def _moulding(walls: list[float], corners: list[tuple[str, float]], **more: Any) -> dict[str, Any]:
    return {
        "kind": "moulding", "width_mm": 90.0, "thickness_mm": 15.0, "spring_deg": 38.0,
        "runs": [{"wall_mm": wall} for wall in walls], "corners": [{"side": side, "deg": deg} for side, deg in corners], **more,
    }  # fmt: skip


INSIDE, OUTSIDE = ("inside", 90.0), ("outside", 90.0)
STARTS: dict[str, dict[str, Any]] = {
    "room_moulding": _moulding([3200.0, 2400.0, 3200.0, 2400.0], [INSIDE] * 4),
    "box_moulding": _moulding([320.0, 800.0, 320.0], [OUTSIDE] * 2),
    "rising_moulding": _moulding([1800.0, 2400.0], [INSIDE], runs=[{"wall_mm": 1800.0}, {"wall_mm": 2400.0, "rise_deg": 20.0}]),
}
