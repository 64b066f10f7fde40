"""What there is to decide about the pieces inside, in every kind."""

from collections.abc import Sequence

from fennup.core.drawing.edit import Choose
from fennup.core.drawing.view import Control, Option
from fennup.core.kinds.asking import Answers, choice, figure, one_of, with_or_without
from fennup.core.kinds.drilling import Holes, sunk_mm
from fennup.core.kinds.fields import THICKEST_MM
from fennup.core.kinds.inner import Bars, Gussets, Inner
from fennup.core.kinds.spacing import Spaced, Spacing

GROUP = "inside"
SPACINGS: tuple[Spacing, ...] = ("gaps", "flush", "half", "centres", "margins", "ends", "pitch", "gap", "places")
LEAST_APART_MM = 100.0


def bars_controls(bars: Bars, path: str, about: str, group: str = GROUP, *, layer: bool = False) -> list[Control]:
    """Number, width, direction and spacing of one way of bars."""
    return [
        *spaced_controls(bars, path, about, group, ("bars_count", "bars_spacing"), bars.width_mm),
        figure("bars_width", group, bars.width_mm, f"{path}.width_mm", about=about),
        figure("bars_way", group, bars.way_deg, f"{path}.way_deg", "deg", about),
        *(_own_layer(bars, path, about) if layer else []),
    ]


def _own_layer(own: Bars | Gussets, path: str, about: str) -> list[Control]:
    """A thickness and a height of their own."""
    made = []
    for name, value in (("thickness", own.thickness_mm), ("height", own.height_mm)):
        if value is not None:
            made.append(figure(f"own_{name}", GROUP, value, f"{path}.{name}_mm", about=about))
    return made


def _layers(inner: Inner) -> Control:
    """All in one layer, or each with a thickness and a height of its own."""
    several: list[Bars | Gussets] = [*inner.bars, *([inner.gussets] if inner.gussets else [])]
    own = any(one.thickness_mm is not None or one.height_mm is not None for one in several)

    def with_layers(thickness: float | None, height: float | None) -> object:
        said = {"thickness_mm": thickness, "height_mm": height}
        gussets = inner.gussets.model_copy(update=said) if inner.gussets else None
        bars = [bars.model_copy(update=said) for bars in inner.bars]
        return inner.model_copy(update={"bars": bars, "gussets": gussets}).model_dump(mode="json")

    return choice(
        "layers",
        GROUP,
        "inner",
        {"one_layer": (with_layers(None, None), not own), "own_layers": (with_layers(inner.thickness_mm, inner.height_mm), own)},
    )


def spaced_controls(row: Spaced, path: str, about: str, group: str, names: tuple[str, str], wide: float) -> list[Control]:
    """How many of them and how they are spaced: `names` of the number and of the spacing."""
    listed = row.spacing == "places"
    made = [] if listed or row.most_mm else [figure(names[0], group, float(row.count), f"{path}.count", "count", about)]
    options = []
    for spacing in SPACINGS:
        first = []
        if spacing in ("pitch", "gap") and row.step_mm is None:
            first = [Choose(op="choose", path=f"{path}.step_mm", value=2 * wide)]
        if spacing == "places" and not row.places_mm:
            first = [Choose(op="choose", path=f"{path}.places_mm", value=[2 * wide * (i + 1) for i in range(row.count)])]
        if spacing == "ends" and row.margin_mm < wide / 2:
            first = [Choose(op="choose", path=f"{path}.margin_mm", value=wide)]
        acts = (*first, Choose(op="choose", path=f"{path}.spacing", value=spacing))
        options.append(Option(f"spaced_{spacing}", acts, spacing == row.spacing))
    made.append(Control(names[1], group, tuple(options), about=about, style="list"))
    if row.spacing in ("margins", "ends"):
        made.append(figure("bars_margin", group, row.margin_mm, f"{path}.margin_mm", about=about))
    if row.spacing in ("pitch", "gap"):
        made.append(figure(f"{row.spacing}_mm", group, row.step_mm or 0.0, f"{path}.step_mm", about=about))
    elif listed:
        made += [
            figure("place_mm", group, at, f"{path}.places_mm.{k}", about=f"{about} {k + 1}".strip() if group != "part" else about)
            for k, at in enumerate(row.places_mm)
        ]
        rest = list(row.places_mm)
        more: Answers = {"one_place_more": ([*rest, rest[-1] + 2 * wide], False)}
        if len(rest) > 1:
            more["one_place_less"] = (rest[:-1], False)
        made.append(choice("more_places", group, f"{path}.places_mm", more, about))
    else:
        usual = max(4 * wide, LEAST_APART_MM)
        made.append(with_or_without("at_most", group, f"{path}.most_mm", ("so_many", "at_most_apart"), usual, row.most_mm, about))
        if row.most_mm is not None:
            made.append(figure("most_mm", group, row.most_mm, f"{path}.most_mm", about=about))
    return made


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
            *spaced_controls(row, f"holes.{k}", board, "part", ("hole_count", "hole_spacing"), row.diameter_mm),
            figure(
                "hole_diameter",
                "part",
                row.wide_mm,
                f"holes.{k}.diameter_mm",
                about=board,
                follows=bool(row.ball_mm and row.sinks_mm),
            ),
            figure("hole_up", "part", row.up_mm, f"holes.{k}.up_mm", about=board),
            one_of("hole_side", "part", f"holes.{k}.side", {"from_face": "face", "from_back": "back"}, row.side, board),
            *_depth(row, f"holes.{k}", board),
        ]
    return made


def _depth(row: Holes, path: str, board: str) -> list[Control]:
    """Through or to a depth, and what lies in the holes."""
    wide = row.diameter_mm
    made = [with_or_without("hole_depth", "part", f"{path}.deep_mm", ("hole_through", "hole_blind"), wide, row.deep_mm, board)]
    if row.deep_mm is not None:
        made.append(figure("hole_deep", "part", row.deep_mm, f"{path}.deep_mm", about=board))
    made.append(
        with_or_without("balls", "part", f"{path}.ball_mm", ("no_balls", "a_ball_in_each"), 1.5 * wide, row.ball_mm, board)
    )
    if row.ball_mm is not None:
        made.append(figure("ball_mm", "part", row.ball_mm, f"{path}.ball_mm", about=board))
        seat = sunk_mm(row.ball_mm, row.wide_mm)
        ways = ("seat_by_hole", "seat_by_depth")
        made.append(with_or_without("ball_seat", "part", f"{path}.sinks_mm", ways, seat, row.sinks_mm, board))
        if row.sinks_mm is not None:
            made.append(figure("ball_sinks", "part", row.sinks_mm, f"{path}.sinks_mm", about=board))
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
        made += bars_controls(row, f"inner.bars.{k}", "one way" if k == 0 else "the other way", layer=True)
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
        made += _own_layer(gussets, "inner.gussets", "gussets")
    if inner:
        if len(bars) + bool(gussets) > 1:
            made.append(_layers(inner))
        made.append(figure("inner_thickness", GROUP, inner.thickness_mm, "inner.thickness_mm"))
        made.append(figure("inner_height", GROUP, inner.height_mm, "inner.height_mm"))
    return made
