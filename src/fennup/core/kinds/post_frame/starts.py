"""Frames of posts to begin with: each a spec that closes and can be changed at once."""

from typing import Any


def _post(column: str, row: str, height: float, width: float = 70.0, thickness: float = 70.0, **more: Any) -> dict[str, Any]:
    return {"column": column, "row": row, "width_mm": width, "thickness_mm": thickness, "height_mm": height, **more}


def _rail(a: str, b: str, height: float, width: float, thickness: float, rise: float = 0.0, **joint: Any) -> dict[str, Any]:
    size = {"width_mm": width, "thickness_mm": thickness, "height_mm": height, "rise_deg": rise}
    return {"a": a, "b": b, **size, "joint": joint}


def _four(low: float, high: float, **more: Any) -> dict[str, Any]:
    return {
        "A": _post("1", "1", low, **more), "B": _post("2", "1", low, **more),
        "C": _post("1", "2", high, **more), "D": _post("2", "2", high, **more),
    }  # fmt: skip


def _frame(posts: dict[str, Any], columns: tuple[float, ...], rows: tuple[float, ...] = (0.0,), **more: Any) -> dict[str, Any]:
    lines = {name: {str(i + 1): at for i, at in enumerate(places)} for name, places in (("columns", columns), ("rows", rows))}
    return {"kind": "post_frame", **lines, "posts": posts, **more}


_KNEES = {
    "1": {
        "corners": [{"post": "A", "rail": "1"}, {"post": "B", "rail": "1"}],
        "post_mm": 400.0, "rail_mm": 400.0, "width_mm": 70.0, "thickness_mm": 45.0,
    }
}  # fmt: skip

STARTS: dict[str, dict[str, Any]] = {
    "post_arch": _frame(
        {id: _post(column, "1", 1900.0, 90.0, 90.0) for id, column in (("A", "1"), ("B", "2"))},
        (0.0, 1390.0),
        rails={"1": _rail("A", "B", 1900.0, 120.0, 90.0, form="over", over_a_mm=160.0)},
        knees=_KNEES,
        feet={n: {"under": [id], "way": "y", "width_mm": 90.0, "thickness_mm": 60.0, "over_a_mm": 250.0} for n, id in (("1", "A"), ("2", "B"))},
    ),
    "slope_stand": _frame(
        {
            id: post | {"flush_with": {"A": "1", "C": "1", "B": "2", "D": "2"}[id]}
            for id, post in _four(640.0, 800.0, width=45.0, thickness=45.0).items()
        },
        (0.0, 855.0), (0.0, 500.0),
        rails={
            "1": _rail("A", "C", 570.0, 70.0, 22.0, 18.0, form="lapped", side="left", ends="plumb"),
            "2": _rail("B", "D", 570.0, 70.0, 22.0, 18.0, form="lapped", side="right", ends="plumb"),
            "3": _rail("A", "B", 140.0, 70.0, 22.0, form="between"),
            "4": _rail("C", "D", 140.0, 70.0, 22.0, form="between"),
        },
    ),
    "slat_bench": _frame(
        _four(400.0, 400.0),
        (0.0, 1100.0), (0.0, 330.0),
        rails={
            "1": _rail("A", "B", 400.0, 95.0, 70.0, form="over", over_a_mm=100.0),
            "2": _rail("C", "D", 400.0, 95.0, 70.0, form="over", over_a_mm=100.0),
            "3": _rail("A", "C", 120.0, 70.0, 45.0, form="between"),
            "4": _rail("B", "D", 120.0, 70.0, 45.0, form="between"),
        },
        slats={"1": {"on": ["1", "2"], "count": 9, "spacing": "half", "width_mm": 110.0, "thickness_mm": 27.0, "over_mm": 30.0}},
    ),
    "a_frame": _frame(
        {
            "A": _post("1", "1", 900.0, 70.0, 45.0, lean_deg=14.0, flush_with="1"),
            "B": _post("2", "1", 900.0, 70.0, 45.0, lean_deg=-14.0, flush_with="1"),
        },
        (0.0, 780.0),
        rails={
            "1": _rail("A", "B", 810.0, 90.0, 22.0, form="lapped", side="front", ends="flush"),
            "2": _rail("A", "B", 810.0, 90.0, 22.0, form="lapped", side="back", ends="flush"),
            "3": _rail("A", "B", 200.0, 70.0, 22.0, form="lapped", side="front", ends="flush"),
        },
    ),
    "post_panel": _frame(
        {id: _post(column, "1", 1100.0) for id, column in (("A", "1"), ("B", "2"), ("C", "3"))},
        (0.0, 1000.0, 2000.0),
        rails={
            "1": _rail("A", "C", 1005.0, 95.0, 27.0, form="lapped", side="front", let_in_mm=12.0),
            "2": _rail("A", "C", 150.0, 95.0, 27.0, form="lapped", side="front", let_in_mm=12.0),
        },
        braces={
            "1": {"a": "A", "b": "B", "low_mm": 330.0, "high_mm": 920.0, "width_mm": 70.0, "thickness_mm": 40.0, "crossing": True},
        },
    ),
}  # fmt: skip
