"""The outlines that a flat frame may have, and what gives their sizes."""

from math import cos, hypot, pi, sqrt, tan
from typing import Annotated, Literal, get_args

from pydantic import Discriminator, Field, Tag

from fennup.core.kinds.fields import CornerLetters, Place_mm, Play_mm, SideLetter, Size_mm, Strict

RegularMeasure = Literal[
    "opening_flats", "opening_corners", "opening_side", "opening_reach", "opening_diagonal",
    "outside_flats", "outside_corners", "outside_side", "outside_reach", "outside_diagonal",
]  # fmt: skip


REGULAR_MEASURES: tuple[str, ...] = get_args(RegularMeasure)


class LineSize(Strict):
    """One named line. With an odd number of sides flats and corners are the inner and outer circle's diameter;
    `reach` is then corner to opposite side, and `diagonal` the longest corner to corner."""

    by: RegularMeasure
    mm: Size_mm


class HeldRound(Strict):
    """What the frame holds, its edge covered by the rabbet: a panel with as many sides, its size across flats, or something round,
    its diameter. Play is the total."""

    by: Literal["holds"]
    object_mm: Size_mm
    play_mm: Play_mm = 0.0
    form: Literal["sided", "round"] = "sided"

    def bare_corner_mm(self, sides: int, rabbet_mm: float) -> float:
        """How far a corner of the opening can lie outside something round that has slid away from it; under 0 it is covered."""
        along, aside = self._slid_mm(sides)
        corner = ((self.object_mm + self.play_mm) / 2 - rabbet_mm) / cos(pi / sides)
        return hypot(corner + along, aside) - self.object_mm / 2

    def covering_rabbet_mm(self, sides: int) -> float:
        """How wide a rabbet covers something round at every corner of the opening, wherever its play lets it lie."""
        along, aside = self._slid_mm(sides)
        corner = sqrt(max(0.0, (self.object_mm / 2) ** 2 - aside**2)) - along
        return (self.object_mm + self.play_mm) / 2 - corner * cos(pi / sides)

    def _slid_mm(self, sides: int) -> tuple[float, float]:
        """How far away from a corner it can slide, and aside: into the corner opposite, or with an odd number of sides along the
        side opposite."""
        half = self.play_mm / 2
        return (half / cos(pi / sides), 0.0) if sides % 2 == 0 else (half, half * tan(pi / sides))


class FloatingRound(Strict):
    """A regular piece that floats in the opening with a reveal all round."""

    by: Literal["floats"]
    object_mm: Size_mm
    reveal_mm: Play_mm


class Regular(Strict):
    """All sides and all corners alike."""

    form: Literal["regular"]
    sides: Annotated[int, Field(ge=3, le=24)]
    size: Annotated[LineSize | HeldRound | FloatingRound, Field(discriminator="by")]


class LineSizes(Strict):
    """Width (along front and back) and depth (along the sides) of the opening or of the outside."""

    by: Literal["opening", "outside"]
    width_mm: Size_mm
    depth_mm: Size_mm


class HeldPanel(Strict):
    """What the frame holds: a panel; the rabbet covers its edge. Play is the total in each direction; in depth another one where that is said: wood
    swells across its grain."""

    by: Literal["holds"]
    object_width_mm: Size_mm
    object_depth_mm: Size_mm
    play_mm: Play_mm = 0.0
    play_depth_mm: Play_mm | None = None

    @property
    def plays_mm(self) -> tuple[float, float]:
        """In width and in depth."""
        return self.play_mm, self.play_mm if self.play_depth_mm is None else self.play_depth_mm


class FloatingPanel(Strict):
    """A panel that floats in the opening with a reveal all round."""

    by: Literal["floats"]
    object_width_mm: Size_mm
    object_depth_mm: Size_mm
    reveal_mm: Play_mm


class Rectangle(Strict):
    """Four square corners: A front, B right, C back, D left."""

    form: Literal["rectangle"]
    size: Annotated[LineSizes | HeldPanel | FloatingPanel, Field(discriminator="by")]


SPANS = ("wide", "high")


class SidePin(Strict):
    """A side whose length is fixed."""

    side: SideLetter
    mm: Size_mm


class CornerPin(Strict):
    """A corner whose inside angle is fixed."""

    corner: CornerLetters
    deg: Annotated[float, Field(gt=0, lt=180, allow_inf_nan=False, description="degrees")]


class SpanPin(Strict):
    """How far the outline goes along side A (`wide`) or square to it (`high`), or from one corner to another (`EABC`), fixed."""

    span: Annotated[str, Field(pattern="^(wide|high|[A-X]{4})$", description="wide, high, or the letters of two corners")]
    mm: Size_mm


def _pin_kind(pin: object) -> str:
    """Which pin is meant, so that what is wrong with it is said of that one alone."""
    names = pin if isinstance(pin, dict) else vars(pin) if isinstance(pin, Strict) else ()
    return "span pin" if "span" in names else "corner pin" if "corner" in names or "deg" in names else "side pin"


AnyPin = SidePin | CornerPin | SpanPin
Pin = Annotated[
    Annotated[SidePin, Tag("side pin")] | Annotated[CornerPin, Tag("corner pin")] | Annotated[SpanPin, Tag("span pin")],
    Discriminator(_pin_kind),
]


class Irregular(Strict):
    """Any convex outline: its corners (x right, y up, anticlockwise; the first is where side A begins) on the opening
    or the outside, and what is pinned. 2n - 3 independent pins fix the shape; the corners say which shape is meant
    until then. Pins come in the order given: a later one that disagrees is kept and shows as a gap.

    On the line `held` they are those of the panel that it holds, which has `play_mm` in all in the rabbet."""

    form: Literal["irregular"]
    line: Literal["opening", "outside", "held"]
    play_mm: Play_mm = 0.0
    corners: Annotated[list[tuple[Place_mm, Place_mm]], Field(min_length=3, max_length=24)]
    pins: Annotated[list[Pin], Field(max_length=60)] = []


def pinned_measure(shape: Irregular, pin: AnyPin) -> str:
    """The measure that a pin of an irregular outline gives."""
    if isinstance(pin, SidePin):
        return f"{shape.line}_side:{pin.side}"
    if isinstance(pin, CornerPin):
        return f"{shape.line}_angle:{pin.corner}"
    return f"{shape.line}_{pin.span}" if pin.span in SPANS else f"{shape.line}_diagonal:{pin.span}"
