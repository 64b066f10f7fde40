"""Jigs as drawings with their own figures: a wedge between fence and board, a carrier that holds a board square to the fence, a tapering sled."""

from dataclasses import dataclass
from math import radians, tan

from fennup.core.drawing.view import Dimension, Mark, Shape, View

WEDGE_LONG_MM = 300.0
CARRIER_LONG_MM = 400.0
SLED_OVER_MM = 80.0


@dataclass(frozen=True)
class Wedge:
    """A wedge that stands along the fence: `long_mm` along it, `thick_mm` at its thick end; the angle between its sides."""

    angle_deg: float
    long_mm: float
    thick_mm: float


def wedge_for(angle_deg: float, long_mm: float = WEDGE_LONG_MM) -> Wedge:
    """The wedge for an angle: its thick end is long x tan angle."""
    return Wedge(abs(angle_deg), long_mm, long_mm * tan(radians(abs(angle_deg))))


def wedge_view(angle_deg: float, high_mm: float = 40.0) -> View:
    """The wedge from above, at the fence; its thick end on the side to which the board must turn."""
    wedge = wedge_for(angle_deg)
    side = 1.0 if angle_deg > 0 else -1.0
    long, thick = wedge.long_mm * side, wedge.thick_mm
    shapes = (
        Shape(
            "fence",
            ((min(0.0, long) - 30, 0.0), (max(0.0, long) + 30, 0.0), (max(0.0, long) + 30, 18.0), (min(0.0, long) - 30, 18.0)),
            True,
        ),
        Shape("jig", ((0.0, 0.0), (long, 0.0), (long, -thick)), True),
    )
    dimensions = (
        Dimension("long", "wedge_long", (0.0, 18.0), (long, 18.0), wedge.long_mm, "mm", "derived", (0.0, 1.0), 1.0),
        Dimension("thick", "wedge_thick", (long, 0.0), (long, -thick), thick, "mm", "derived", (side, 0.0), 1.0),
    )
    marks = (Mark("name", (long * 0.62, -thick * 0.3), "wedge"), Mark("name", (long / 2, 9.0), "fence"))
    return View("jig", shapes, marks, dimensions)


def sled_view(taper_deg: float, long_mm: float, wide_mm: float) -> View:
    """A board on a tapering sled, seen from above: the sled runs along the rip fence, the board lies turned against its fence and its stop."""
    lean = long_mm * tan(radians(abs(taper_deg)))
    shapes = (
        Shape(
            "jig",
            ((0.0, 0.0), (wide_mm + lean + SLED_OVER_MM, 0.0), (wide_mm + lean + SLED_OVER_MM, long_mm), (0.0, long_mm)),
            True,
        ),
        Shape("wood", ((0.0, 0.0), (wide_mm, 0.0), (wide_mm + lean, long_mm), (lean, long_mm)), True, None, (0.0, 1.0)),
        Shape("block", ((0.0, -10.0), (wide_mm, -10.0), (wide_mm, 0.0), (0.0, 0.0)), True),
    )
    dimensions = (
        Dimension("lean", "sled_lean", (0.0, long_mm), (lean, long_mm), lean, "mm", "derived", (0.0, 1.0), 1.0),
        Dimension(
            "long",
            "sled_long",
            (wide_mm + lean + SLED_OVER_MM, 0.0),
            (wide_mm + lean + SLED_OVER_MM, long_mm),
            long_mm,
            "mm",
            "derived",
            (1.0, 0.0),
            1.0,
        ),
    )
    return View("jig", shapes, (), dimensions)
