"""Which of a roof's figures what was given can move."""

from fennup.core.editing import get_at
from fennup.core.errors import SpecError
from fennup.core.given.solver import Pin
from fennup.core.kinds.roof.place import assemble, shell
from fennup.core.kinds.roof.spec import Gable, Hip, LeanTo, Pyramid, RoofSpec
from fennup.core.kinds.sizing import Sizing, all_given


def unknowns_of(spec: RoofSpec) -> tuple[str, ...]:
    """Runs and pitches; eaves and height; heights and depth."""
    shape = spec.shape
    if isinstance(shape, Gable):
        sides = ("left", "right") if shape.right else ("left",)
        return tuple(f"shape.{side}.{size}" for side in sides for size in ("run_mm", "pitch_deg"))
    if isinstance(shape, Pyramid):
        return ("shape.across_mm", "shape.height_mm")
    if isinstance(shape, Hip):
        ridge = ("shape.ridge.length_mm",) if shape.ridge and not shape.sides else ()
        return ("shape.width_mm", *(() if shape.sides else ("shape.depth_mm",)), "shape.rise_mm", *ridge)
    assert isinstance(shape, LeanTo)
    return ("shape.width_mm", "shape.depth_mm", "shape.front_mm", "shape.back_mm")


def _pins(spec: RoofSpec) -> tuple[Pin, ...]:
    """What was given. SpecError `pitch_range` where a pitch is level or upright."""
    pins = all_given(spec)
    for pin in pins:
        if pin.measure.endswith("pitch") and not 0 < pin.value < 90:
            raise SpecError("pitch_range", (pin.field,), deg=pin.value)
    return pins


def _bounds(spec: RoofSpec) -> None:
    """A roof of no size, level or upright, measures nothing."""
    document = spec.model_dump(mode="json")
    values = [(path, float(get_at(document, path))) for path in unknowns_of(spec)]
    if any(value <= 0 or (path.endswith("deg") and value >= 90) for path, value in values):
        raise SpecError("measure_impossible")


SIZING = Sizing(RoofSpec, unknowns_of, shell, assemble, _pins, _bounds)
