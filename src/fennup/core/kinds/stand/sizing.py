"""Which of a stand's figures what was given can move."""

from fennup.core.errors import SpecError
from fennup.core.kinds.sizing import Levels, Sizing
from fennup.core.kinds.stand.place import assemble, shell
from fennup.core.kinds.stand.spec import Four, Pairs, Round, StandSpec

STEEPEST_DEG = 79.9


def unknowns_of(spec: StandSpec) -> tuple[str, ...]:
    """Height, top and splay."""
    if isinstance(spec.plan, Round):
        return ("height_mm", "plan.top_side_mm", "plan.lean_deg")
    depth = ("plan.top_depth_mm",) if isinstance(spec.plan, Four) else ()
    return ("height_mm", "plan.top_width_mm", *depth, "plan.front_splay_deg", "plan.side_splay_deg")


def _bounds(spec: StandSpec) -> None:
    """A stand of no height or with legs that lie down measures nothing."""
    plan = spec.plan
    leans = (plan.lean_deg,) if isinstance(plan, Round) else (plan.front_splay_deg, plan.side_splay_deg)
    flat = isinstance(plan, Pairs) and plan.side_splay_deg <= 0
    if spec.height_mm <= 0 or flat or any(abs(lean) > STEEPEST_DEG for lean in leans):
        raise SpecError("measure_impossible")


LEVELS = Levels("height_mm", rows=("rails.*", "rings.*"), heights=("braces.low_mm", "braces.high_mm"))
SIZING = Sizing(StandSpec, unknowns_of, shell, assemble, bounds=_bounds, levels=LEVELS)
