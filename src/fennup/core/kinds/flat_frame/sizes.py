"""How a flat frame's sizes settle: what was given in another way than the shape says it becomes the shape's own way again.

An irregular outline keeps pins that disagree, on purpose: they show as a gap. It is settled by its outline, not here.
"""

from fennup.core.assembly.model import Assembly
from fennup.core.errors import SpecError
from fennup.core.kinds.fields import AnglePin
from fennup.core.kinds.flat_frame.place import assemble
from fennup.core.kinds.flat_frame.shapes import REGULAR_MEASURES, SPANS, Irregular, LineSize, LineSizes
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec
from fennup.core.kinds.sizing import Document, Sizing
from fennup.core.parts.measures import measure_of


def unknowns(spec: FlatFrameSpec) -> tuple[str, ...]:
    """The figures of the shape that its size hangs on."""
    shape = spec.shape
    if isinstance(shape, Irregular):
        return tuple(f"shape.corners.{i}.{k}" for i in range(len(shape.corners)) for k in range(2))
    return spec.size_fields


def rails(spec: FlatFrameSpec) -> Assembly:
    """The rails alone, an irregular outline's corners as they stand: enough to take every size on."""
    shape = spec.shape.model_copy(update={"pins": []}) if isinstance(spec.shape, Irregular) else spec.shape
    return assemble(spec.model_copy(update={"shape": shape, "inner": None, "panel": None, "holes": []}))


def moving(spec: FlatFrameSpec) -> int:
    """An outline of free corners can be moved both ways and turned."""
    return 3 if isinstance(spec.shape, Irregular) else 0


SIZING = Sizing(FlatFrameSpec, unknowns, rails, assemble, moving=moving)


def settle(spec: FlatFrameSpec) -> FlatFrameSpec:
    """The spec with its size where its pins put it, and without them. SpecError `pins_disagree`, or `corners_on_opening`, `corners_on_outside` for an irregular outline."""
    if spec.pins is None:
        return spec
    if isinstance(spec.shape, Irregular):
        return FlatFrameSpec.model_validate(_pinned(spec, spec.shape))
    return FlatFrameSpec.model_validate(_in_its_own_way(SIZING.settle(spec)))


def _pinned(spec: FlatFrameSpec, shape: Irregular) -> Document:
    """An irregular outline's pins, where it keeps them."""
    pins = []
    for pin in spec.pins or ():
        asked = measure_of(pin.measure)
        if (
            asked.line != shape.line
            or asked.quantity not in ("side", "angle", "diagonal", *SPANS)
            or (asked.quantity == "diagonal" and not asked.side)
        ):
            raise SpecError(f"corners_on_{shape.line}", (pin.measure,))
        span = asked.quantity if asked.quantity in SPANS else asked.side if asked.quantity == "diagonal" else ""
        length = {"span": span, "mm": pin.value} if span else {"side": asked.side, "mm": pin.value}
        pins.append({"corner": asked.side, "deg": pin.value} if isinstance(pin, AnglePin) else length)
    document = spec.model_dump(mode="json")
    return document | {"pins": None, "shape": document["shape"] | {"pins": pins}}


def _in_its_own_way(spec: FlatFrameSpec) -> Document:
    """Without pins: its figures are now what they make of it; given by the line that they gave, where the shape can say so."""
    document, shape = spec.model_dump(mode="json") | {"pins": None}, spec.shape
    given = {pin.measure: pin.value for pin in spec.pins or ()}
    if isinstance(shape, Irregular) or not spec.by_line:
        return document
    lines = {measure_of(name).line for name in given}
    size: Document | None = None
    suggested = {pin.measure for pin in spec.pins or () if pin.suggested}
    if isinstance(shape.size, LineSize) and len(given) == 1 and set(given) <= set(REGULAR_MEASURES):
        ((by, mm),) = given.items()
        size = {"by": by, "mm": mm}
    elif isinstance(shape.size, LineSizes) and len(given) == 2 and len(lines) == 1 and lines <= {"opening", "outside"}:
        (line,) = lines
        size = {"by": line, "width_mm": given[f"{line}_width"], "depth_mm": given[f"{line}_depth"]}
    if size is None:
        return document
    fields = {f"{measure_of(name).quantity}_mm" if len(given) == 2 else "mm" for name in suggested}
    return document | {"shape": document["shape"] | {"size": size}, "suggested": sorted(fields)}
