"""The cross section of a board: actual width and thickness, and what has been ploughed out of it."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Rabbet:
    """A step along the upper edge, open to the back: `width_mm` in from the edge, `depth_mm` in from the back."""

    width_mm: float
    depth_mm: float


@dataclass(frozen=True)
class Groove:
    """A channel along the back, `width_mm` wide and `depth_mm` deep, its near side `from_lower_mm` in from the lower
    edge; at 0 it is a rabbet along that edge."""

    from_lower_mm: float
    width_mm: float
    depth_mm: float


@dataclass(frozen=True)
class Section:
    """Width (y) by thickness (z), centred on the board's axis."""

    width_mm: float
    thickness_mm: float
    rabbet: Rabbet | None = None
    groove: Groove | None = None

    def rectangles(self) -> tuple[tuple[float, float, float, float], ...]:
        """The wood as (y low, y high, z low, z high) boxes that touch and do not overlap."""
        y, z = self.width_mm / 2, self.thickness_mm / 2
        if self.rabbet is not None:
            step, floor = y - self.rabbet.width_mm, -z + self.rabbet.depth_mm
            return ((-y, step, -z, z), (step, y, floor, z))
        if self.groove is not None:
            near = -y + self.groove.from_lower_mm
            far, floor = near + self.groove.width_mm, -z + self.groove.depth_mm
            strips = ((near, far, floor, z), (far, y, -z, z))
            return strips if near <= -y else ((-y, near, -z, z), *strips)
        return ((-y, y, -z, z),)
