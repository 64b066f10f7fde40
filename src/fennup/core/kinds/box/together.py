"""A box among several assemblies: what goes round its top, and one that stands on another."""

from fennup.core.kinds.box.spec import BoxSpec, Irregular, Rectangle, Regular
from fennup.core.kinds.registry import Around


def top(spec: BoxSpec) -> Around | None:
    """The outer top line; none of a plan of its own."""
    if isinstance(spec.plan, Irregular):
        return None
    return Around(spec.sides, tuple(f"outer_top_{size}" for size in _sizes(spec.plan)))


def set_on(spec: BoxSpec, sides: int, across: tuple[float, ...]) -> tuple[BoxSpec, tuple[str, ...]] | None:
    """Its outer bottom line as wide as what it stands on."""
    if isinstance(spec.plan, Irregular):
        return None
    plan: Rectangle | Regular = Regular(form="regular", sides=sides, across_mm=across[0])
    if len(across) == 2:
        plan = Rectangle(form="rectangle", width_mm=across[0], depth_mm=across[1])
    kept = spec.slopes_deg if type(plan) is type(spec.plan) and sides == spec.sides else {}
    made = spec.model_copy(update={"plan": plan, "slopes_deg": kept})
    return made, tuple(f"outer_bottom_{size}" for size in _sizes(plan))


def _sizes(plan: Rectangle | Regular) -> tuple[str, ...]:
    return ("flats",) if isinstance(plan, Regular) else ("width", "depth")
