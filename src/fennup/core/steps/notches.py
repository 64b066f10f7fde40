"""Notches as saw cuts: laps and birdsmouths, with the board flat."""

from typing import Literal

from fennup.core.assembly.board import Notch
from fennup.core.geometry.plane import Plane
from fennup.core.saw.pose import ALONG, Pose, blade_angles
from fennup.core.saw.ways import Way
from fennup.core.steps.lengths import along_fence, fence_line
from fennup.core.steps.step import Notched, Raw, Wall
from fennup.core.tolerances import SAME


def notched(raw: Raw, notch: Notch, left_tip: float) -> Notched | None:
    """A notch by its walls and its depth; None where one of its sides is neither a cut across the board nor parallel to its face."""
    floor = notch.planes[-1]
    level = abs(abs(floor.normal[2]) - 1.0) < SAME
    walls = notch.planes[:-1] if level else notch.planes
    if any(abs(wall.normal[0]) < SAME for wall in walls):
        return None
    # The floor's normal points out of the notch: where it looks to the back, the notch is open to the face.
    open_to_face = not level or floor.normal[2] < 0
    down: Literal["face", "back"] = "back" if open_to_face else "face"
    pose = Pose(down, "upper", False, ALONG[down])
    made = tuple(_wall(raw, pose, wall, left_tip) for wall in walls)
    return Notched(down, "upper", made, raw.board.section.thickness_mm / 2 + floor.offset if level else None)


def _wall(raw: Raw, pose: Pose, wall: Plane, left_tip: float) -> Wall:
    """The wood stays beyond the wall, as its normal points out of the notch."""
    out = wall.flipped()
    blade = blade_angles(out, pose)
    way = Way("", pose, blade.swing_deg, blade.tilt_deg, blade.kept, ())
    axes, y0, z0 = fence_line(raw.board, way, "beyond")
    way_along = axes[0][0]  # 1 where the left end lies to the left, else -1
    return Wall(blade.swing_deg, blade.tilt_deg, blade.kept, along_fence(out, axes, y0, z0) * way_along - left_tip)
