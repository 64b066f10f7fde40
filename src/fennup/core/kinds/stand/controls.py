"""What there is to decide about a stand, in the order in which one decides it."""

from fennup.core.drawing.view import Control
from fennup.core.kinds.asking import Answers, choice, figure, one_of, with_or_without
from fennup.core.kinds.stand.between import legs_beside
from fennup.core.kinds.stand.sides import flanks_of
from fennup.core.kinds.stand.spec import Pairs, Rail, Round, StandSpec
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
        one_of("roll", "legs", "roll", {f"roll_{how}": how for how in ("in_plane", "even", "rhombic")}, spec.roll),
    ]
    if isinstance(plan, Pairs):
        controls += _beam(spec, plan)
    controls += [*_rails(spec, ruler), *_rings(spec), *_braces(spec)]
    if not isinstance(plan, Pairs):
        usual = {"thickness_mm": spec.leg.thickness_mm / 2, "over_mm": spec.leg.width_mm / 2}
        controls.append(with_or_without("top", "on_top", "top", ("no_top", "top_plate"), usual, spec.top))
        if spec.top:
            controls.append(figure("top_thickness", "on_top", spec.top.thickness_mm, "top.thickness_mm"))
            controls.append(figure("top_over", "on_top", spec.top.over_mm, "top.over_mm"))
    return tuple(controls)


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


def _set_in(spec: StandSpec, ruler: Ruler, row: Rail) -> float:
    """How far behind the side's plane a rail lies."""
    if row.set_in_mm is not None:
        return row.set_in_mm
    letter = spec.chosen(row.sides)[0]
    i = spec.letters.index(letter)
    legs = [ruler.assembly.board(id) for id in spec.legs]
    behind = [-flanks_of(spec)[i].plane.beyond(leg.frame.origin) for leg in legs_beside(legs, i)]
    return sum(behind) / 2 - row.thickness_mm / 2


def _rails(spec: StandSpec, ruler: Ruler) -> list[Control]:
    """Rows of rails, each with its height."""
    rows = [row.model_dump(mode="json") for row in spec.rails]
    last = rows[-1] if rows else {"width_mm": spec.leg.width_mm, "thickness_mm": spec.leg.thickness_mm / 2}
    low = spec.rails[-1].height_mm if spec.rails else 0.0
    answers: Answers = {"one_more_rail": ([*rows, {**last, "height_mm": (low + spec.height_mm) / 2}], False)}
    if rows:
        answers["one_rail_less"] = (rows[:-1], False)
    made = [choice("rails", "between", "rails", answers)]
    for k, row in enumerate(spec.rails):
        about = f"row {k + 1}" if len(rows) > 1 else ""
        made.append(figure("rail_height", "between", row.height_mm, f"rails.{k}.height_mm", about=about))
        made.append(figure("rails_width", "between", row.width_mm, f"rails.{k}.width_mm", about=about))
        made.append(figure("rail_thickness", "between", row.thickness_mm, f"rails.{k}.thickness_mm", about=about))
        made.append(figure("set_in", "between", _set_in(spec, ruler, row), f"rails.{k}.set_in_mm", about=about))
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
    return made


def _braces(spec: StandSpec) -> list[Control]:
    """Crossing braces: there or not, and where."""
    now, size = spec.braces, spec.height_mm
    usual = {
        "low_mm": size / 8,
        "high_mm": size * 7 / 8,
        "width_mm": spec.leg.width_mm * 0.8,
        "thickness_mm": spec.leg.thickness_mm / 2,
    }
    made = [with_or_without("braces", "between", "braces", ("no_braces", "crossing"), usual, now)]
    if now:
        for name, value in (("low", now.low_mm), ("high", now.high_mm), ("width", now.width_mm), ("thickness", now.thickness_mm)):
            made.append(figure(f"brace_{name}", "between", value, f"braces.{name}_mm"))
        made += _sides(spec, "braces.sides", now.sides, "brace_sides")
    return made
