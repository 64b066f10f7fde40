"""How a board lies on the saw, and what a cut then asks of the blade."""

from dataclasses import dataclass
from math import asin, atan2, cos, degrees, radians, sin
from typing import Literal

from fennup.core.assembly.board import Board
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, cross, dot, scale
from fennup.core.parts.solid import ARRISES, arris_line, ridge_line
from fennup.core.saw.tool import FencePlace, Stance

Long = Literal["face", "back", "upper", "lower"]
Kept = Literal["left", "right"]

ALONG: dict[Long, Vec] = {
    "face": (0.0, 0.0, 1.0),
    "back": (0.0, 0.0, -1.0),
    "upper": (0.0, 1.0, 0.0),
    "lower": (0.0, -1.0, 0.0),
}


@dataclass(frozen=True)
class Pose:
    """Which side is down and which is against the fence.

    Flat on a wide side; on a square edge; or `propped`: on a ripped edge, leaning against the fence as the rip makes it.
    `rest` is the outward normal of the side that is down, in the board's axes. `before_rip`: on an edge that is square only until it is ripped.
    """

    down: Long
    fence: Long
    propped: bool = False
    rest: Vec = (0.0, 0.0, -1.0)
    before_rip: bool = False

    @property
    def stance(self) -> Stance:
        """Flat, on edge or propped."""
        return "propped" if self.propped else "flat" if self.down in ("face", "back") else "on_edge"

    def axes(self) -> tuple[Vec, Vec, Vec]:
        """The saw's axes (X right along the fence, Y to the fence, Z up) in the board's."""
        up = scale(self.rest, -1.0)
        x: Vec = (1.0, 0.0, 0.0)
        right = x if dot(cross(up, x), ALONG[self.fence]) > 0 else (-1.0, 0.0, 0.0)
        return right, cross(up, right), up


@dataclass(frozen=True)
class BladeAngles:
    """Swing + to the right, tilt + to the left, degrees, and on which side of the blade the kept piece lies."""

    swing_deg: float
    tilt_deg: float
    kept: Kept


RESTS_ON = 0.5  # of a side that a board lies on, so much must be flat
FLAT = (
    Pose("back", "upper", False, ALONG["back"]),
    Pose("back", "lower", False, ALONG["back"]),
    Pose("face", "upper", False, ALONG["face"]),
    Pose("face", "lower", False, ALONG["face"]),
)


def poses_for(board: Board) -> tuple[Pose, ...]:
    """Every way in which the board can lie: flat, on those edges that are square, propped on those that are ripped, and on these too before
    they are ripped."""
    stood: list[Pose] = []
    early: list[Pose] = []
    rips: tuple[tuple[Long, Plane | None], ...] = (("lower", board.lower_rip), ("upper", board.upper_rip))
    for edge, rip in rips:
        if edge == "upper" and board.backing:
            continue  # a ridge is nothing to stand on
        fences: tuple[Long, Long] = ("face", "back")
        stood += [Pose(edge, fence, rip is not None, rip.normal if rip else ALONG[edge]) for fence in fences]
        early += [Pose(edge, fence, False, ALONG[edge], True) for fence in fences if rip and not board.ready]
    if board.ready:  # a moulding nests with its back to the fence, or it would lean away from it
        stood = [pose for pose in stood if not pose.propped or pose.fence == "back"]
    every = (*FLAT, *stood, *early)
    return every if board.section.plain else tuple(pose for pose in every if _rests(board, pose)) or every


def _rests(board: Board, pose: Pose) -> bool:
    """Whether enough of the side that is down is left flat by what is ploughed: on a tongue or a round back a board rocks."""
    whole = board.section.width_mm if pose.down in ("face", "back") else board.section.thickness_mm
    return board.section.width_left_mm(pose.down) >= RESTS_ON * whole


def as_lying(board: Board, pose: Pose) -> Board:
    """The board as it is when it lies so: one that stands on an edge before that is ripped has nothing ripped yet."""
    return board.but(lower_rip=None, upper_rip=None, backing=None) if pose.before_rip else board


def axes_at(pose: Pose, fence: FencePlace) -> tuple[Vec, Vec, Vec]:
    """The operator's axes (X right, Y away, Z up) in the board's, wherever that tool's fence is: a fence between board and operator
    has the edge that lies at it nearest to the operator."""
    right, to_fence, up = pose.axes()
    return (scale(right, -1.0), scale(to_fence, -1.0), up) if fence == "near" else (right, to_fence, up)


def blade_angles(cut: Plane, pose: Pose, fence: FencePlace = "beyond") -> BladeAngles:
    """What the saw must be set to for an end cut (in the board's axes) when the board lies so.

    With the kept piece left of the blade, swing right = + miter and tilt left = + bevel; on the right both turn round.
    """
    x, y, z = (dot(cut.normal, axis) for axis in axes_at(pose, fence))
    sense = 1.0 if x > 0 else -1.0
    swing = degrees(atan2(y, abs(x))) * sense
    tilt = degrees(asin(max(-1.0, min(1.0, z)))) * sense
    return BladeAngles(swing + 0.0, tilt + 0.0, "left" if x > 0 else "right")


def section_corners(board: Board) -> list[Vec]:
    """The long corners of the ripped section, at x = 0 in the board's axes: what lies at fence and table is one of them."""
    if not board.section.plain:
        return [(0.0, *p) for piece in board.section.within(tuple(rip for _, rip in board.rips)) for p in piece]
    lines = [arris_line(board, arris) for arris in ARRISES]
    if board.upper_rip and board.backing:
        lines.append(ridge_line(board.upper_rip, board.backing))
    return [(0.0, y, z) for y, z in lines]


def room_taken(board: Board, pose: Pose) -> tuple[float, float]:
    """(how far a board reaches from the fence, how high it stands) as it lies, mm."""
    _, to_fence, up = pose.axes()
    corners = section_corners(as_lying(board, pose))
    wide, high = ([dot(axis, p) for p in corners] for axis in (to_fence, up))
    return max(wide) - min(wide), max(high) - min(high)


def cut_normal(blade: BladeAngles, pose: Pose, fence: FencePlace = "beyond") -> Vec:
    """The other way round: the outward normal, in the board's axes, of the cut that these settings make."""
    sense = 1.0 if blade.kept == "left" else -1.0
    swing, tilt = radians(blade.swing_deg) * sense, radians(blade.tilt_deg) * sense
    seen = (sense * cos(tilt) * cos(swing), cos(tilt) * sin(swing), sin(tilt))
    right, to_fence, up = axes_at(pose, fence)
    return tuple(seen[0] * right[k] + seen[1] * to_fence[k] + seen[2] * up[k] for k in range(3))  # type: ignore[return-value]
