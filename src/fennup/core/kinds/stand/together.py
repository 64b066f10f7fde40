"""A stand among several assemblies: what stands on it."""

from fennup.core.kinds.registry import Around
from fennup.core.kinds.stand.spec import Four, StandSpec


def top(spec: StandSpec) -> Around | None:
    """The top plate, or the legs' spread at the top where there is none; none where the legs do not stand in a rectangle."""
    if not isinstance(spec.plan, Four):
        return None
    what = "plate" if spec.top else "top"
    return Around(4, (f"{what}_width", f"{what}_depth"))
