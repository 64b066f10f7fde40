"""What there is to decide about the pieces inside, in every kind."""

from collections.abc import Sequence

from fennup.core.drawing.view import Control
from fennup.core.kinds.asking import Answers, choice, figure
from fennup.core.kinds.fields import THICKEST_MM
from fennup.core.kinds.inner import Bars, Holes, Inner

GROUP = "inside"
SPACINGS = ("gaps", "flush", "half", "centres", "margins")


def bars_controls(bars: Bars, path: str, about: str, group: str = GROUP) -> list[Control]:
    """Number, width, direction and spacing of one way of bars."""
    made = [
        figure("bars_count", group, float(bars.count), f"{path}.count", "count", about),
        figure("bars_width", group, bars.width_mm, f"{path}.width_mm", about=about),
        figure("bars_way", group, bars.way_deg, f"{path}.way_deg", "deg", about),
        choice("bars_spacing", group, f"{path}.spacing", _spacings(bars.spacing), about, "list"),
    ]
    if bars.spacing == "margins":
        made.append(figure("bars_margin", group, bars.margin_mm, f"{path}.margin_mm", about=about))
    return made


def _spacings(now: str) -> Answers:
    return {f"spaced_{spacing}": (spacing, spacing == now) for spacing in SPACINGS}


def holes_controls(holes: Sequence[Holes], board: str, up: float) -> list[Control]:
    """The rows of holes of one board: on its own card; `up` is a usual height above its lower edge."""
    rows = [row.model_dump(mode="json") for row in holes]
    usual = {"board": board, "count": 3, "diameter_mm": 8.0, "up_mm": up}
    mine = [(k, row) for k, row in enumerate(holes) if row.board == board]
    rest = [row for row in rows if row["board"] != board]
    answers: Answers = {"no_holes": (rest, not mine), "a_row": ([*rest, usual], bool(mine))}
    made = [choice("holes", "part", "holes", answers, board)]
    for k, row in mine:
        made += [
            figure("hole_count", "part", float(row.count), f"holes.{k}.count", "count", board),
            figure("hole_diameter", "part", row.diameter_mm, f"holes.{k}.diameter_mm", about=board),
            figure("hole_up", "part", row.up_mm, f"holes.{k}.up_mm", about=board),
            choice("hole_spacing", "part", f"holes.{k}.spacing", _spacings(row.spacing), board, "list"),
        ]
        if row.spacing == "margins":
            made.append(figure("hole_margin", "part", row.margin_mm, f"holes.{k}.margin_mm", about=board))
    return made


def inner_controls(inner: Inner | None, thickness: float) -> list[Control]:
    """Cross pieces one way or both, and gussets; `thickness` is a usual one."""
    bars = list(inner.bars) if inner else []
    now = inner or Inner(thickness_mm=thickness)
    usual = Bars(count=1, width_mm=min(2 * thickness, THICKEST_MM))
    first = bars[0] if bars else usual
    square = first.way_deg + 90.0
    crossing = Bars(count=1, width_mm=first.width_mm, way_deg=square if square <= 90.0 else square - 180.0)

    def with_bars(*rows: Bars) -> object:
        changed = now.model_copy(update={"bars": list(rows)})
        return changed.model_dump(mode="json") if rows or changed.gussets else None

    def with_gussets(gussets: object) -> object:
        changed = {**now.model_dump(mode="json"), "gussets": gussets}
        return changed if gussets or bars else None

    both = with_bars(first, bars[1] if len(bars) == 2 else crossing)
    ways: Answers = {
        "no_inner": (with_bars(), not bars),
        "one_way": (with_bars(first), len(bars) == 1),
        "both_ways": (both, len(bars) == 2),
    }
    made = [choice("inner", GROUP, "inner", ways)]
    for k, row in enumerate(bars):
        made += bars_controls(row, f"inner.bars.{k}", "one way" if k == 0 else "the other way")
    gussets = inner.gussets if inner else None
    usual_gussets = {"set_back_mm": thickness, "width_mm": thickness}
    corners: Answers = {
        "no_gussets": (with_gussets(None), gussets is None),
        "with_gussets": (with_gussets(gussets.model_dump(mode="json") if gussets else usual_gussets), gussets is not None),
    }
    made.append(choice("gussets", GROUP, "inner", corners))
    if gussets:
        made.append(figure("gusset_set_back", GROUP, gussets.set_back_mm, "inner.gussets.set_back_mm"))
        made.append(figure("gusset_width", GROUP, gussets.width_mm, "inner.gussets.width_mm"))
    if inner:
        made.append(figure("inner_thickness", GROUP, inner.thickness_mm, "inner.thickness_mm"))
        made.append(figure("inner_height", GROUP, inner.height_mm, "inner.height_mm"))
    return made
