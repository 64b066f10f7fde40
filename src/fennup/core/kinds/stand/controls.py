"""What there is to decide about a stand, in the order in which one decides it."""

from dataclasses import replace
from typing import Any

from fennup.core.drawing.view import Control
from fennup.core.kinds.asking import Answers, choice, figure, measured_at, one_of, with_or_without
from fennup.core.kinds.stand.between import set_in_of
from fennup.core.kinds.stand.roll import roll_picture
from fennup.core.kinds.stand.spec import ROLLS, Four, Pairs, Round, StandSpec
from fennup.core.parts.measure import Ruler


def controls_of(spec: StandSpec, ruler: Ruler) -> tuple[Control, ...]:
    """Legs first and how they are turned, then what holds them together."""
    plan = spec.plan
    controls: list[Control] = []
    if isinstance(plan, Round):
        controls.append(figure("legs", "outline", float(plan.legs), "plan.legs", "count"))
    controls += [
        figure("leg_width", "legs", spec.leg.width_mm, "leg.width_mm"),
        figure("leg_thickness", "legs", spec.leg.thickness_mm, "leg.thickness_mm"),
        _roll(spec),
    ]
    if isinstance(plan, Pairs):
        controls += _beam(spec, plan)
    controls += [*_rails(spec, ruler), *_rings(spec), *_braces(spec, ruler)]
    if isinstance(plan, Four):
        controls += measured_at(spec.measured_at_mm, spec.height_mm / 2)
    if not isinstance(plan, Pairs):
        usual = {"thickness_mm": spec.leg.thickness_mm / 2, "over_mm": spec.leg.width_mm / 2}
        controls.append(with_or_without("top", "on_top", "top", ("no_top", "top_plate"), usual, spec.top))
        if spec.top:
            controls.append(figure("top_thickness", "on_top", spec.top.thickness_mm, "top.thickness_mm"))
            controls.append(figure("top_over", "on_top", spec.top.over_mm, "top.over_mm"))
    return tuple(controls)


def _roll(spec: StandSpec) -> Control:
    """How a leg is turned: every way with its picture."""
    legs = spec.plan.legs if isinstance(spec.plan, Round) else None
    asked = one_of("roll", "legs", "roll", {f"roll_{how}": how for how in ROLLS}, spec.roll)
    drawn = tuple(replace(option, picture=roll_picture(how, legs)) for option, how in zip(asked.options, ROLLS, strict=True))
    return replace(asked, options=drawn)


def _beam(spec: StandSpec, plan: Pairs) -> list[Control]:
    beam = plan.beam
    usual = {"thickness_mm": spec.leg.thickness_mm, "depth_mm": 5 * spec.leg.thickness_mm, "over_mm": spec.leg.width_mm}
    made = [with_or_without("beam", "legs", "plan.beam", ("no_beam", "with_beam"), usual, beam)]
    if beam:
        for name, value in (("thickness", beam.thickness_mm), ("depth", beam.depth_mm), ("over", beam.over_mm)):
            made.append(figure(f"beam_{name}", "legs", value, f"plan.beam.{name}_mm"))
    return made


def _sides(spec: StandSpec, path: str, now: str, code: str, about: str = "") -> list[Control]:
    """Into which sides something goes: of four all, or front and back, or left and right."""
    if spec.sides != 4:
        return []
    return [one_of(code, "between", path, {f"in_{which}": which for which in ("all", "AC", "BD")}, now, about)]


def _rails(spec: StandSpec, ruler: Ruler) -> list[Control]:
    """Rows of rails, each with its height."""
    rows = [row.model_dump(mode="json") for row in spec.rails]
    last: dict[str, Any] = (
        rows[-1]
        if rows
        else {"width_mm": spec.leg.width_mm, "thickness_mm": spec.leg.thickness_mm / (3 if isinstance(spec.plan, Round) else 2)}
    )
    low, high = _free_height(spec)
    middle = low + (high - low) / 2 - last["width_mm"] / 2
    answers: Answers = {"one_more_rail": ([*rows, {**last, "height_mm": max(0.0, middle)}], False)}
    if rows:
        answers["one_rail_less"] = (rows[:-1], False)
    made = [choice("rails", "between", "rails", answers)]
    for k, row in enumerate(spec.rails):
        about = f"row {k + 1}" if len(rows) > 1 else ""
        made.append(figure("rail_height", "between", row.height_mm, f"rails.{k}.height_mm", about=about))
        made.append(figure("rails_width", "between", row.width_mm, f"rails.{k}.width_mm", about=about))
        made.append(figure("rail_thickness", "between", row.thickness_mm, f"rails.{k}.thickness_mm", about=about))
        made.append(
            one_of(
                "rail_lies", "between", f"rails.{k}.outside", {"rail_between": False, "rail_outside": True}, row.outside, about
            )
        )
        if row.outside:
            made.append(figure("apron_over", "between", row.over_mm, f"rails.{k}.over_mm", about=about))
            made += _sides(spec, f"rails.{k}.sides", row.sides, "rail_sides", about)
            continue
        made.append(
            figure(
                "set_in",
                "between",
                set_in_of(spec, [ruler.assembly.board(id) for id in spec.legs], row),
                f"rails.{k}.set_in_mm",
                about=about,
            )
        )
        made += _sides(spec, f"rails.{k}.sides", row.sides, "rail_sides", about)
    return made


def _rings(spec: StandSpec) -> list[Control]:
    """Rings round the legs, each with its height."""
    hoops = [hoop.model_dump(mode="json") for hoop in spec.rings]
    usual = {"tall_mm": spec.leg.width_mm, "thickness_mm": spec.leg.thickness_mm / 2}
    last = hoops[-1] if hoops else usual
    low = spec.rings[-1].height_mm if spec.rings else 0.0
    answers: Answers = {"one_more_ring": ([*hoops, {**last, "height_mm": (low + spec.height_mm) / 2}], False)}
    if hoops:
        answers["one_ring_less"] = (hoops[:-1], False)
    made = [choice("rings", "between", "rings", answers)]
    for k, hoop in enumerate(spec.rings):
        about = f"ring {k + 1}" if len(hoops) > 1 else ""
        made.append(figure("ring_height", "between", hoop.height_mm, f"rings.{k}.height_mm", about=about))
        made.append(figure("ring_tall", "between", hoop.tall_mm, f"rings.{k}.tall_mm", about=about))
        made.append(figure("ring_thickness", "between", hoop.thickness_mm, f"rings.{k}.thickness_mm", about=about))
        square: dict[str, object] = {"ring_level": "level", "ring_square": "square"}
        made.append(one_of("ring_edges", "between", f"rings.{k}.edges", square, hoop.edges, about))
        moves: dict[str, object] = {"ring_moves": "ring", "legs_move": "legs"}
        made.append(one_of("ring_gives_way", "between", f"rings.{k}.moves", moves, hoop.moves, about))
    return made


def _narrowest(spec: StandSpec, ruler: Ruler) -> float:
    """About how far the legs stand apart, between them at half the height, where they stand closest."""
    sides = ("side",) if isinstance(spec.plan, Round) else ("width", "depth")
    apart = (((ruler.measure(f"top_{side}") or 0.0) + (ruler.measure(f"foot_{side}") or 0.0)) / 2 for side in sides)
    return min(apart) - 2 * max(spec.leg.width_mm, spec.leg.thickness_mm)


def _braces(spec: StandSpec, ruler: Ruler) -> list[Control]:
    """Crossing braces: there or not, and where."""
    now, (low, high), width = spec.braces, _free_height(spec), spec.leg.width_mm * 0.8
    room = min(width, (high - low) / 4)
    # No steeper than about one to one: a steep brace's end would run off its leg.
    rise = max(room, min(high - low - 2 * room, _narrowest(spec, ruler)))
    usual = {
        "low_mm": low + room,
        "high_mm": low + room + rise,
        "width_mm": room,
        "thickness_mm": spec.leg.thickness_mm / (4 if isinstance(spec.plan, Round) else 2),
    }
    made = [with_or_without("braces", "between", "braces", ("no_braces", "crossing"), usual, now)]
    if now:
        for name, value in (("low", now.low_mm), ("high", now.high_mm), ("width", now.width_mm), ("thickness", now.thickness_mm)):
            made.append(figure(f"brace_{name}", "between", value, f"braces.{name}_mm"))
        made += _sides(spec, "braces.sides", now.sides, "brace_sides")
    return made


def _free_height(spec: StandSpec) -> tuple[float, float]:
    """From the highest of what is in the lower half to the lowest of what is in the upper half, or to what joins the heads."""
    middle, top = spec.height_mm / 2, spec.height_mm
    if isinstance(spec.plan, Pairs) and spec.plan.beam:
        top -= spec.plan.beam.depth_mm
    taken = [(row.height_mm, row.height_mm + row.width_mm) for row in spec.rails]
    if spec.braces:
        taken.append((spec.braces.low_mm - spec.braces.width_mm, spec.braces.high_mm + spec.braces.width_mm))
    low = max((upper for lower, upper in taken if lower < middle), default=0.0)
    return low, min((lower for lower, _ in taken if lower >= middle), default=top)
