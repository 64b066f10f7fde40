"""Which of a moulding's figures what was given can move."""

from fennup.core.errors import SpecError
from fennup.core.kinds.moulding.place import assemble
from fennup.core.kinds.moulding.spec import MouldingSpec
from fennup.core.kinds.sizing import Sizing


def unknowns_of(spec: MouldingSpec) -> tuple[str, ...]:
    """Its width, how it leans, and how long the runs are."""
    return ("width_mm", "spring_deg", *(f"runs.{i}.wall_mm" for i in range(len(spec.runs))))


def _bounds(spec: MouldingSpec) -> None:
    """A moulding that lies on the wall, or stands out square from it, leans between nothing."""
    if not 0 < spec.spring_deg < 90 or spec.width_mm <= 0 or min(run.wall_mm for run in spec.runs) <= 0:
        raise SpecError("measure_impossible")


SIZING = Sizing(MouldingSpec, unknowns_of, assemble, assemble, bounds=_bounds)
