"""From what was given to the box's own sizes: the unknowns behind a spec, and what a liner gives."""

from math import atan2, degrees

from fennup.core.errors import SpecError
from fennup.core.given.solver import Pin
from fennup.core.kinds.box.place import assemble, shell
from fennup.core.kinds.box.spec import BoxSpec, Irregular, Liner, Rectangle, Regular
from fennup.core.kinds.sizing import Levels, Sizing, as_pins
from fennup.core.parts.measures import measure_of

STEEPEST_DEG = 89.9
SLOPES = ("slope", "level_slope")


def pins_of(spec: BoxSpec) -> tuple[Pin, ...]:
    """Everything that was given, the liner's sizes too, as pins. SpecError `slope_range`.

    A liner gives the plan's sizes and the slopes: without pins only the height is left to give.
    """
    said = spec.given_pins()
    if spec.pins is None and spec.liner is not None:
        said = tuple(pin for pin in said if pin.measure == "height")
    pins = (*(_liner_pins(spec, spec.liner) if spec.liner else ()), *as_pins(said))
    for pin in pins:
        if measure_of(pin.measure).what in SLOPES and abs(pin.value) >= 90:
            raise SpecError("slope_range", (pin.field,), deg=pin.value)
    return pins


def _liner_pins(spec: BoxSpec, liner: Liner) -> tuple[Pin, ...]:
    """The inside top clears the rim by the play, and the walls lean as the liner does (F44)."""

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


def unknowns_of(spec: BoxSpec) -> tuple[str, ...]:
    """The sizes that pins can move: the plan's, the height, every slope of its own."""
    plan = spec.plan
    sizes: tuple[str, ...] = ("plan.width_mm", "plan.depth_mm")
    if isinstance(plan, Regular):
        sizes = ("plan.across_mm",)
    elif isinstance(plan, Irregular):
        sizes = tuple(f"plan.corners.{i}.{k}" for i in range(len(plan.corners)) for k in range(2))
    slopes = tuple(f"slopes_deg.{group}" for group in spec.slopes_deg) or ("slope_deg",)
    return (*sizes, "height_mm", *slopes)


def _bounds(spec: BoxSpec) -> None:
    """Walls that lie flat, or a box of no height, measure nothing."""
    slopes = tuple(spec.slopes_deg.values()) or (spec.slope_deg,)
    if any(abs(slope) > STEEPEST_DEG for slope in slopes) or spec.height_mm <= 0:
        raise SpecError("measure_impossible")


def _moving(spec: BoxSpec) -> int:
    """A free plan can be moved about and turned."""
    return 3 if isinstance(spec.plan, Irregular) else 0


SIZING = Sizing(BoxSpec, unknowns_of, shell, assemble, pins_of, _bounds, _moving, Levels("height_mm", rows=("shelves.*",)))
