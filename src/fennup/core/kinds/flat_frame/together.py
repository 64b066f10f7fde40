"""A frame among several assemblies, lying flat."""

from fennup.core.kinds.flat_frame.shapes import Irregular, LineSize, LineSizes, Rectangle, Regular
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec
from fennup.core.kinds.registry import Around


def top(spec: FlatFrameSpec) -> Around | None:
    """Its outside; none of an outline of its own."""
    if isinstance(spec.shape, Irregular) or spec.left_out:
        return None
    return Around(spec.sides, _outside(spec.shape))


def set_on(spec: FlatFrameSpec, sides: int, across: tuple[float, ...]) -> tuple[FlatFrameSpec, tuple[str, ...]] | None:
    """Its outside as wide as what it lies on."""
    shape: Rectangle | Regular
    if len(across) == 2:
        shape = Rectangle(form="rectangle", size=LineSizes(by="outside", width_mm=across[0], depth_mm=across[1]))
    else:
        shape = Regular(form="regular", sides=sides, size=LineSize(by="outside_flats", mm=across[0]))
    return spec.model_copy(update={"shape": shape, "left_out": []}), _outside(shape)


def _outside(shape: Rectangle | Regular) -> tuple[str, ...]:
    return ("outside_flats",) if isinstance(shape, Regular) else ("outside_width", "outside_depth")
