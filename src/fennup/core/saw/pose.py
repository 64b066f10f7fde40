"""How a board lies on the saw, and what a cut then asks of the blade."""

from dataclasses import dataclass
from math import asin, atan2, degrees
from typing import Literal

from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, cross, dot

WideSide = Literal["face", "back"]
LongEdge = Literal["upper", "lower"]
Kept = Literal["left", "right"]


@dataclass(frozen=True)
class Pose:
    """A board flat on the table: which wide side is down and which edge is against the fence."""

    down: WideSide
    fence: LongEdge

    def axes(self) -> tuple[Vec, Vec, Vec]:
        """The board's x, y, z in the saw's axes (X right along the fence, Y to the fence, Z up)."""
        y: Vec = (0.0, 1.0, 0.0) if self.fence == "upper" else (0.0, -1.0, 0.0)
        z: Vec = (0.0, 0.0, 1.0) if self.down == "back" else (0.0, 0.0, -1.0)
        return cross(y, z), y, z


@dataclass(frozen=True)
class BladeAngles:
    """Swing + to the right, tilt + to the left, degrees, and on which side of the blade the kept piece lies."""

    swing_deg: float
    tilt_deg: float
    kept: Kept


POSES = (Pose("back", "upper"), Pose("back", "lower"), Pose("face", "upper"), Pose("face", "lower"))


def blade_angles(cut: Plane, pose: Pose) -> BladeAngles:
    """What the saw must be set to for an end cut (in the board's axes) when the board lies so.

    With the kept piece left of the blade, swing right = + miter and tilt left = + bevel; on the right both turn round.
    """
    x, y, z = pose.axes()
    normal = tuple(dot(cut.normal, (x[k], y[k], z[k])) for k in range(3))
    sense = 1.0 if normal[0] > 0 else -1.0
    swing = degrees(atan2(normal[1], abs(normal[0]))) * sense
    tilt = degrees(asin(max(-1.0, min(1.0, normal[2])))) * sense
    return BladeAngles(swing + 0.0, tilt + 0.0, "left" if normal[0] > 0 else "right")
