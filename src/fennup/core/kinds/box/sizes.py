"""From what was given to the box's own sizes: the unknowns behind a spec, and the pins that settle them."""

from collections.abc import Sequence
from functools import lru_cache
from math import atan2, degrees

from fennup.core.errors import CutError, SpecError
from fennup.core.given.solver import Pin, Settled, settle
from fennup.core.kinds.box.place import shell
from fennup.core.kinds.box.spec import AnglePin, BoxSpec, Irregular, LengthPin, Liner, Rectangle, Regular
from fennup.core.parts.measure import Ruler

STEEPEST_DEG = 89.9
SLOPES = ("slope", "level_slope")


def pins_of(spec: BoxSpec) -> tuple[Pin, ...]:
    """Everything that was given, the liner's sizes too, as pins."""
    said = spec.given_pins() if spec.pins is not None or spec.liner is None else _besides_the_liner(spec)
    named = (
        Pin(pin.measure, pin.value, f"pins.{i}.{'deg' if isinstance(pin, AnglePin) else 'mm'}") for i, pin in enumerate(said)
    )
    return (*(_liner_pins(spec, spec.liner) if spec.liner else ()), *named)


def _besides_the_liner(spec: BoxSpec) -> tuple[LengthPin | AnglePin, ...]:
    """A liner gives the plan's sizes and the slopes: without pins only the height is left to give."""
    return tuple(pin for pin in spec.given_pins() if pin.measure == "height")


def _liner_pins(spec: BoxSpec, liner: Liner) -> tuple[Pin, ...]:
    """The inside at the top clears the rim by the play, and the walls lean as the liner does (F44)."""

    def lean(rim: float, foot: float) -> float:
        return degrees(atan2((rim - foot) / 2, liner.height_mm))

    clear = liner.rim_mm + liner.play_mm
    if not isinstance(spec.plan, Rectangle):
        slope = Pin(spec.slope_measures[0], lean(liner.rim_mm, liner.foot_mm), "liner.foot_mm")
        return (Pin("inner_top_flats", clear, "liner.rim_mm"), slope)
    rim, foot = liner.rim_depth_mm or liner.rim_mm, liner.foot_depth_mm or liner.foot_mm
    return (
        Pin("inner_top_width", clear, "liner.rim_mm"),
        Pin("inner_top_depth", rim + liner.play_mm, "liner.rim_depth_mm"),
        Pin("slope:AC", lean(rim, foot), "liner.foot_depth_mm"),
        Pin("slope:BD", lean(liner.rim_mm, liner.foot_mm), "liner.foot_mm"),
    )


def unknowns_of(spec: BoxSpec) -> list[float]:
    """The sizes that pins can move: the plan's, the height, every slope of its own."""
    plan = spec.plan
    if isinstance(plan, Regular):
        sizes = [plan.across_mm]
    elif isinstance(plan, Rectangle):
        sizes = [plan.width_mm, plan.depth_mm]
    else:
        sizes = [c for corner in plan.corners for c in corner]
    return [*sizes, spec.height_mm, *(spec.slopes_deg.values() or (spec.slope_deg,))]


def with_unknowns(spec: BoxSpec, values: Sequence[float]) -> BoxSpec:
    """The spec with other sizes; nothing is checked."""
    plan, rest = spec.plan, list(values)
    if isinstance(plan, Regular):
        moved: Regular | Rectangle | Irregular = plan.model_copy(update={"across_mm": rest.pop(0)})
    elif isinstance(plan, Rectangle):
        moved = plan.model_copy(update={"width_mm": rest.pop(0), "depth_mm": rest.pop(0)})
    else:
        places = [(rest.pop(0), rest.pop(0)) for _ in plan.corners]
        moved = plan.model_copy(update={"corners": places})
    update: dict[str, object] = {"plan": moved, "height_mm": rest.pop(0)}
    if spec.slopes_deg:
        update["slopes_deg"] = dict(zip(spec.slopes_deg, rest, strict=True))
    else:
        update["slope_deg"] = rest[0]
    return spec.model_copy(update=update)


def settle_box(spec: BoxSpec) -> BoxSpec:
    """The spec with its sizes where its pins put them. SpecError `pins_disagree`, or what the solver and the plan say."""
    return _settled(spec.model_dump_json())[0]


def freedom_left(spec: BoxSpec) -> int:
    """How many more independent sizes would fix everything."""
    return _settled(spec.model_dump_json())[1].free


def settled(spec: BoxSpec) -> tuple[BoxSpec, Settled]:
    """The same with how the pins were met."""
    return _settled(spec.model_dump_json())


@lru_cache(maxsize=256)
def _settled(document: str) -> tuple[BoxSpec, Settled]:
    """By content: one change asks for it when it is made, when it is solved and when it is shown."""
    spec = BoxSpec.model_validate_json(document)
    pins = pins_of(spec)
    for pin in pins:
        if pin.measure.partition(":")[0] in SLOPES and abs(pin.value) >= 90:
            raise SpecError("slope_range", (pin.field,), deg=pin.value)

    def read(values: Sequence[float]) -> list[float | None]:
        slopes = values[-(len(spec.slopes_deg) or 1) :]
        if any(abs(slope) > STEEPEST_DEG for slope in slopes) or values[-len(slopes) - 1] <= 0:
            raise SpecError("measure_impossible")
        try:
            ruler = Ruler(shell(with_unknowns(spec, values)))
            return [ruler.measure(pin.measure) for pin in pins]
        except (CutError, ZeroDivisionError):
            raise SpecError("plan_no_corner", ("plan",)) from None

    start = unknowns_of(spec)
    freedom = len(start) - (3 if isinstance(spec.plan, Irregular) else 0)
    found = settle(start, pins, read, freedom)
    if found.misfits:
        worst = found.misfits[0]
        raise SpecError(
            "pins_disagree",
            (worst.pin.field,),
            measure=worst.pin.measure,
            value=worst.pin.value,
            gives=worst.gives,
            others=tuple((pin.measure, pin.value, pin.field) for pin in worst.others),
        )
    if all(abs(a - b) < 1e-12 for a, b in zip(found.values, start, strict=True)):
        return spec, found
    return BoxSpec.model_validate(with_unknowns(spec, found.values).model_dump(mode="json")), found
