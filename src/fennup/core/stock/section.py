"""The cross section of a board: actual width and thickness, and what has been ploughed out of it."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Rabbet:
    """A step along the upper edge, open to the back: `width_mm` in from the edge, `depth_mm` in from the back."""

    width_mm: float
    depth_mm: float


@dataclass(frozen=True)
class Section:
    """Width (y) by thickness (z), centred on the board's axis."""

    width_mm: float
    thickness_mm: float
    rabbet: Rabbet | None = None

    def rectangles(self) -> tuple[tuple[float, float, float, float], ...]:
        """The wood as (y low, y high, z low, z high) boxes that touch and do not overlap."""
        y, z = self.width_mm / 2, self.thickness_mm / 2
        if self.rabbet is None:
            return ((-y, y, -z, z),)
        step, floor = y - self.rabbet.width_mm, -z + self.rabbet.depth_mm
        return ((-y, step, -z, z), (step, y, floor, z))
