"""What there is to decide about the pieces inside, in every kind."""

from collections.abc import Sequence

from fennup.core.drawing.edit import Choose, TypeIn
from fennup.core.drawing.view import Control, Option
from fennup.core.kinds.inner import Bars, Holes, Inner

GROUP = "inside"
SPACINGS = ("gaps", "flush", "half", "centres", "margins")


def _figure(code: str, value: float, path: str, unit: str = "mm", about: str = "", group: str = GROUP) -> Control:
    acts = TypeIn(op="type", path=path, text="")
    return Control(code, group, value=value, unit=unit, acts=acts, about=about)  # type: ignore[arg-type]


def _options(path: str, answers: dict[str, tuple[object, bool]]) -> tuple[Option, ...]:
    return tuple(
        Option(code, (Choose(op="choose", path=path, value=value),), chosen) for code, (value, chosen) in answers.items()
    )


def bars_controls(bars: Bars, path: str, about: str, group: str = GROUP) -> list[Control]:
    """Number, width, direction and spacing of one way of bars."""
    spacings: dict[str, tuple[object, bool]] = {f"spaced_{s}": (s, bars.spacing == s) for s in SPACINGS}
    made = [
        _figure("bars_count", float(bars.count), f"{path}.count", "count", about, group),
        _figure("bars_width", bars.width_mm, f"{path}.width_mm", about=about, group=group),
        _figure("bars_way", bars.way_deg, f"{path}.way_deg", "deg", about, group),
        Control("bars_spacing", group, _options(f"{path}.spacing", spacings), about=about, style="list"),
    ]
    if bars.spacing == "margins":
        made.append(_figure("bars_margin", bars.margin_mm, f"{path}.margin_mm", about=about, group=group))
    return made


def holes_controls(holes: Sequence[Holes], board: str, up: float) -> list[Control]:
    """The rows of holes of one board: on its own card; `up` is a usual height above its lower edge."""
    rows = [row.model_dump(mode="json") for row in holes]
    usual = {"board": board, "count": 3, "diameter_mm": 8.0, "up_mm": up}
    mine = [(k, row) for k, row in enumerate(holes) if row.board == board]
    rest = [row for row in rows if row["board"] != board]
    answers: dict[str, tuple[object, bool]] = {"no_holes": (rest, not mine), "a_row": ([*rest, usual], bool(mine))}
    made = [Control("holes", "part", _options("holes", answers), about=board)]
    for k, row in mine:
        made += [
            _figure("hole_count", float(row.count), f"holes.{k}.count", "count", board, "part"),
            _figure("hole_diameter", row.diameter_mm, f"holes.{k}.diameter_mm", about=board, group="part"),
            _figure("hole_up", row.up_mm, f"holes.{k}.up_mm", about=board, group="part"),
        ]
        spacings: dict[str, tuple[object, bool]] = {f"spaced_{s}": (s, row.spacing == s) for s in SPACINGS}
        made.append(Control("hole_spacing", "part", _options(f"holes.{k}.spacing", spacings), about=board, style="list"))
        if row.spacing == "margins":
            made.append(_figure("hole_margin", row.margin_mm, f"holes.{k}.margin_mm", about=board, group="part"))
    return made


def inner_controls(inner: Inner | None, thickness: float) -> list[Control]:
    """Cross pieces one way or both, and gussets; `thickness` is a usual one."""
    bars = list(inner.bars) if inner else []
    now = inner or Inner(thickness_mm=thickness)
    usual = Bars(count=1, width_mm=2 * thickness)
    first = bars[0] if bars else usual
    crossing = Bars(count=1, width_mm=first.width_mm, way_deg=first.way_deg + 90 if first.way_deg <= 0 else first.way_deg - 90)

    def with_bars(*rows: Bars) -> object:
        changed = now.model_copy(update={"bars": list(rows)})
        return changed.model_dump(mode="json") if rows or changed.gussets else None

    def with_gussets(gussets: object) -> object:
        changed = {**now.model_dump(mode="json"), "gussets": gussets}
        return changed if gussets or bars else None

    made = [
        Control(
            "inner",
            GROUP,
            _options(
                "inner",
                {
                    "no_inner": (with_bars(), not bars),
                    "one_way": (with_bars(first), len(bars) == 1),
                    "both_ways": (with_bars(first, bars[1] if len(bars) == 2 else crossing), len(bars) == 2),
                },
            ),
        )
    ]
    for k, row in enumerate(bars):
        made += bars_controls(row, f"inner.bars.{k}", "one way" if k == 0 else "the other way")
    gussets = inner.gussets if inner else None
    corner = {"set_back_mm": thickness, "width_mm": thickness}
    made.append(
        Control(
            "gussets",
            GROUP,
            _options(
                "inner",
                {
                    "no_gussets": (with_gussets(None), gussets is None),
                    "with_gussets": (with_gussets(gussets.model_dump(mode="json") if gussets else corner), gussets is not None),
                },
            ),
        )
    )
    if gussets:
        made.append(_figure("gusset_set_back", gussets.set_back_mm, "inner.gussets.set_back_mm"))
        made.append(_figure("gusset_width", gussets.width_mm, "inner.gussets.width_mm"))
    if inner:
        made.append(_figure("inner_thickness", inner.thickness_mm, "inner.thickness_mm"))
        made.append(_figure("inner_height", inner.height_mm, "inner.height_mm"))
    return made
