"""The profile that a run shows cut square across: the moulding's own, or for one that rises beside a level one the profile that meets that in an upright
miter."""

from dataclasses import dataclass
from math import cos, hypot, radians, sin, tan

from fennup.core.geometry.plane import plane_through
from fennup.core.geometry.vec import Point2
from fennup.core.kinds.moulding.spec import MouldingSpec
from fennup.core.stock.glued import united
from fennup.core.stock.outlined import EXACTLY, section_of
from fennup.core.stock.section import Section
from fennup.core.tolerances import SAME


@dataclass(frozen=True)
class OwnProfile:
    """A run cut square across. `y` is the way across it from its lower edge, and `above` the normal of what it lies under, as (out from the wall, up it); `middle` of its section and
    the `top` edge of its face, from the lower edge of its face, in its own (y, z)."""

    section: Section
    y: Point2
    above: Point2
    middle: Point2
    top: Point2


def base_run(spec: MouldingSpec) -> int:
    """The run that shows the moulding as it is: the first level one, else the first."""
    return next((i for i, run in enumerate(spec.runs) if abs(run.rise_deg) < SAME), 0)


def own_profile(spec: MouldingSpec, i: int) -> OwnProfile:
    """What one run shows cut square across."""
    spring = radians(spec.spring_deg)
    y = (sin(spring), cos(spring))
    shear = _shear(spec, i) if spec.raked == "own" else None
    if shear is None:
        return OwnProfile(spec.section, y, (0.0, 1.0), (spec.width_mm / 2, -spec.thickness_mm / 2), (spec.width_mm, 0.0))
    along, flat = shear
    # Its back stays flat: where that goes is the new way across.
    back = (y[0], along * y[0] + flat * y[1])
    long = hypot(*back)
    new = (back[0] / long, back[1] / long)
    ring = []
    for a, b in _between_wall_and_above(spec, y):
        out, up = a * y[0] + b * y[1], a * y[1] - b * y[0]
        up = along * out + flat * up
        ring.append((out * new[0] + up * new[1], out * new[1] - up * new[0]))
    ys, zs = zip(*ring, strict=True)
    middle = ((min(ys) + max(ys)) / 2, (min(zs) + max(zs)) / 2)
    top = (spec.width_mm * y[0], along * spec.width_mm * y[0] + flat * spec.width_mm * y[1])
    tilt = hypot(along, 1.0)
    return OwnProfile(
        section_of(ring, EXACTLY),
        new,
        (-along / tilt, 1.0 / tilt),
        middle,
        (top[0] * new[0] + top[1] * new[1], top[0] * new[1] - top[1] * new[0]),
    )


def _shear(spec: MouldingSpec, i: int) -> tuple[float, float] | None:
    """How heights change from the level profile to that of a run that rises: by how much for each mm out, and times what; None where it does not rise, or beside no level one. Of two level
    neighbours the left one counts."""
    rise = radians(spec.runs[i].rise_deg)
    count, corners = len(spec.runs), len(spec.corners)
    if abs(rise) < SAME:
        return None
    for corner, other, left in ((i - 1, i - 1, True), (i, i + 1, False)):
        if not spec.closes and not 0 <= corner < corners:
            continue
        if abs(spec.runs[other % count].rise_deg) < SAME:
            half = radians(spec.corners[corner % corners].turn_deg) / 2
            # Where the miter stands so far out, it stands so far along this run: less at its left end where one turns to the left.
            along = -tan(half) if left else tan(half)
            return -along * sin(rise), cos(rise)
    return None


def _between_wall_and_above(spec: MouldingSpec, y: Point2) -> tuple[Point2, ...]:
    """The level profile with its edges beveled, as one outline: (y, z) from the lower edge of its face."""
    half, thick = spec.width_mm / 2, spec.thickness_mm / 2
    # In (y, z) out is (y0, y1) and up (y1, -y0); the edges of its face lie at y = -half and half, z = thick.
    wall = plane_through((0.0, -half, thick), (0.0, -y[0], -y[1]))
    above = plane_through((0.0, half, thick), (0.0, y[1], -y[0]))
    return tuple((a + half, b - thick) for a, b in united(spec.section.within((wall, above)))[0])
