"""Which of a brace's figures what was given can move."""

from fennup.core.errors import SpecError
from fennup.core.kinds.brace.place import assemble, shell
from fennup.core.kinds.brace.spec import Between, BraceSpec, Knee
from fennup.core.kinds.sizing import Levels, Sizing


def unknowns_of(spec: BraceSpec) -> tuple[str, ...]:
    """Where it meets its members."""
    place = spec.place
    if isinstance(place, Knee):
        return ("place.corner_deg", "place.post_leg_mm", "place.beam_leg_mm")
    if not isinstance(place, Between):
        return ("place.stand_off_mm", "place.wall_height_mm")
    crossing = ("place.crossing.start_mm", "place.crossing.rise_mm") if place.crossing else ()
    return ("place.clear_mm", "place.rise_mm", *crossing)


def _bounds(spec: BraceSpec) -> None:
    """Sizes of nothing, or a corner that is none, measure nothing."""
    place = spec.place
    if isinstance(place, Knee):
        sizes = (place.post_leg_mm, place.beam_leg_mm, place.corner_deg, 180 - place.corner_deg)
    elif isinstance(place, Between):
        sizes = (place.clear_mm,) * 4
    else:
        sizes = (place.stand_off_mm, place.wall_height_mm) * 2
    if min(sizes) <= 0:
        raise SpecError("measure_impossible")


SIZING = Sizing(
    BraceSpec,
    unknowns_of,
    shell,
    assemble,
    bounds=_bounds,
    levels=Levels("place.wall_height_mm", counts=("place.treads.count",)),
    firm=("corner_angle",),
)
