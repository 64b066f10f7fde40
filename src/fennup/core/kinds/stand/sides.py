"""The sides' planes and the legs that stand where they meet."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import acos, atan, cos, degrees, pi, radians, sin, tan

from fennup.core.assembly.board import Board, End
from fennup.core.geometry.frame import Frame, frame_from
from fennup.core.geometry.plane import Plane, meeting_point, plane_through
from fennup.core.geometry.vec import Vec, add, cross, dot, scale, sub, unit
from fennup.core.kinds.stand.spec import Four, Pairs, Round, StandSpec
from fennup.core.stock.section import Section

UP: Vec = (0.0, 0.0, 1.0)
GROUND = Plane((0.0, 0.0, -1.0), 0.0)
WHERE = {"AB": "front right", "BC": "back right", "CD": "back left", "DA": "front left"}
IN_FRONT = ("AB", "DA")


@dataclass(frozen=True)
class Flank:
    """One side of the stand: its plane, normal outwards, and the level direction along it, seen from outside to the right."""

    letter: str
    plane: Plane
    along: Vec

    @property
    def up(self) -> Vec:
        """Up the side, square to level."""
        return cross(self.plane.normal, self.along)


def flanks_of(spec: StandSpec) -> tuple[Flank, ...]:
    """The sides in order."""
    plan, height = spec.plan, spec.height_mm
    if isinstance(plan, Round):
        n = plan.legs
        slope = atan(tan(radians(plan.lean_deg)) * cos(pi / n))
        apothem = plan.top_side_mm / (2 * tan(pi / n))
        turns = [(2 * pi * i / n - pi / 2, apothem, slope) for i in range(n)]
    else:
        front, side = radians(plan.front_splay_deg), radians(plan.side_splay_deg)
        beam = plan.beam.thickness_mm if isinstance(plan, Pairs) and plan.beam else 0.0
        depth = plan.top_depth_mm if isinstance(plan, Four) else beam
        halves = (depth / 2, plan.top_width_mm / 2, depth / 2, plan.top_width_mm / 2)
        turns = [(pi / 2 * (i - 1), halves[i], (side, front)[i % 2]) for i in range(4)]
    return tuple(_flank(letter, *turn, height) for letter, turn in zip(spec.letters, turns, strict=True))


def _flank(letter: str, turn: float, reach: float, slope: float, height: float) -> Flank:
    """A side that looks towards `turn`, `reach` from the middle at the top."""
    level: Vec = (round(cos(turn), 15), round(sin(turn), 15), 0.0)
    top = add(scale(level, reach), (0.0, 0.0, height))
    out: Vec = (level[0] * cos(slope), level[1] * cos(slope), sin(slope))
    return Flank(letter, plane_through(top, out), (-level[1], level[0], 0.0))


def seam(a: Flank, b: Flank, height: float) -> tuple[Vec, Vec]:
    """Where two sides meet, on the ground and at the height."""
    top = Plane(UP, height)
    return meeting_point(a.plane, b.plane, GROUND), meeting_point(a.plane, b.plane, top)


def leg_at(spec: StandSpec, flanks: Sequence[Flank], i: int) -> Board:
    """The leg at the end of side i, its head and foot not yet cut."""
    here, after = flanks[i], flanks[(i + 1) % len(flanks)]
    foot, head = seam(here, after, spec.height_mm)
    up = unit(sub(head, foot))
    # Of four legs the faces are in the front and the back: a leg at a side's start is the mirror image of one at its end.
    at_end = isinstance(spec.plan, Round) or i % 2 == 0
    own, other = (here, after) if at_end else (after, here)
    along = up if at_end else scale(up, -1.0)
    radial = isinstance(spec.plan, Round) and spec.roll == "even"
    look = own.plane.normal
    if spec.roll == "even":
        level = add(_level(here.plane.normal), _level(after.plane.normal)) if radial else own.plane.normal
        look = _tilted(_level(level), up)
    axes = frame_from(foot, along, look)
    width, thickness = spec.leg.width_mm, spec.leg.thickness_mm
    id = spec.legs[i]
    name = f"Leg {id}" + ("" if isinstance(spec.plan, Round) else f" ({WHERE[id]})")
    into = scale(axes.z, -thickness / 2)
    if spec.roll == "rhombic":
        return _rhombic(id, name, axes, other.plane, width, thickness)
    across = 0.0 if radial else width / 2
    frame = Frame(add(foot, add(scale(axes.y, across), into)), axes.x, axes.y, axes.z)
    return Board(id, name, Section(width, thickness), frame, role="leg")


def _rhombic(id: str, name: str, axes: Frame, other: Plane, width: float, thickness: float) -> Board:
    """A leg whose lower edge is ripped to the other side's plane and whose upper edge runs beside it, `width` away."""
    normal = axes.direction_to_local(other.normal)
    shift = normal[2] * thickness / normal[1]
    spread = width / abs(normal[1])
    low, high = min(0.0, shift), max(0.0, shift) + spread
    middle = add(scale(axes.y, (low + high) / 2), scale(axes.z, -thickness / 2))
    frame = Frame(add(axes.origin, middle), axes.x, axes.y, axes.z)
    return Board(
        id, name, Section(high - low, thickness), frame, role="leg",
        lower_rip=frame.plane_to_local(other), upper_rip=frame.plane_to_local(other.moved(-width).flipped()),
    )  # fmt: skip


def _level(normal: Vec) -> Vec:
    """A direction seen from above, at length 1."""
    return unit((normal[0], normal[1], 0.0))


def _tilted(level: Vec, up: Vec) -> Vec:
    """A level direction after upright has been tilted to `up` the shortest way (Rodrigues)."""
    return sub(level, scale(add(UP, up), dot(level, up) / (1.0 + up[2])))


def head_of(leg: Board) -> End:
    """Which end of a leg is its head."""
    return "right" if leg.frame.x[2] > 0 else "left"


def foot_of(leg: Board) -> End:
    """Which end of a leg is its foot."""
    return "left" if leg.frame.x[2] > 0 else "right"


def residual_deg(leg: Board, flanks: Sequence[Flank], i: int) -> float:
    """How far the leg's outer side that was not laid in its plane is turned out of it, degrees."""
    here, after = flanks[i], flanks[(i + 1) % len(flanks)]
    looks = [leg.side_in_world(side).normal for side in ("face", "lower")]
    off = [min(degrees(acos(max(-1.0, min(1.0, dot(look, flank.plane.normal))))) for look in looks) for flank in (here, after)]
    return max(off)
