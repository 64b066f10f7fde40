"""What is ploughed, milled or rounded along a board. Each form takes wood off at corners of the section or out of its sides, as figures in the
corner's or the side's own two directions: in from the edge (or along the side), and in from the wide side (or deep)."""

from collections.abc import Iterator
from dataclasses import dataclass
from math import acos, ceil, cos, pi, sin
from typing import Annotated, Literal, get_args

from pydantic import BaseModel, ConfigDict, Field

from fennup.core.geometry.vec import Point2
from fennup.core.stock.sizes import Section_mm, Within_mm

Corner = Literal["face_upper", "face_lower", "back_upper", "back_lower"]
CORNERS: tuple[Corner, ...] = get_args(Corner)
Long = Literal["face", "back", "upper", "lower"]
MOST_CORNERS = 64  # of one thing milled
CURVE_MM = 0.05  # an arc is a polygon whose sides lie at most so far inside of it


@dataclass(frozen=True)
class Bite:
    """Wood taken at a corner of the section or out of one of its sides. `path`: the new surface, at a corner from the wide side to the edge, (in
    from the edge, in from the wide side); out of a side (along it from its lower or back end, deep). `bulges`: what stays is convex there."""

    at: Corner | Long
    path: tuple[Point2, ...]
    bulges: bool = False


class _Cut(BaseModel):
    """Unknown keys are refused, so that a misspelt figure never passes unnoticed."""

    model_config = ConfigDict(extra="forbid", frozen=True)


class Rabbet(_Cut):
    """A step along a long corner: `width_mm` in from the edge, `depth_mm` in from the face or the back."""

    form: Literal["rabbet"] = "rabbet"
    width_mm: Section_mm
    depth_mm: Section_mm
    corner: Corner = "back_upper"

    def bites(self, wide: float, thick: float) -> tuple[Bite, ...]:
        """What it takes."""
        return (_step(self.corner, self.width_mm, self.depth_mm),)


class Groove(_Cut):
    """A channel along a side, `width_mm` wide and `depth_mm` deep, its near side `from_mm` in from the lower edge, on the edges from the back; at 0
    it is a rabbet there. `far`: it is counted from the upper edge, or from the face."""

    form: Literal["groove"] = "groove"
    from_mm: Within_mm
    width_mm: Section_mm
    depth_mm: Section_mm
    side: Long = "back"
    far: bool = False

    def bites(self, wide: float, thick: float) -> tuple[Bite, ...]:
        """What it takes."""
        long = wide if self.side in ("face", "back") else thick
        near = long - self.from_mm - self.width_mm if self.far else self.from_mm
        end, deep = near + self.width_mm, self.depth_mm
        if near <= 0 or end >= long:
            first = near <= 0
            span = end if first else long - near
            if self.side in ("face", "back"):
                return (_step(f"{self.side}_{'lower' if first else 'upper'}", span, deep),)  # type: ignore[arg-type]
            return (_step(f"{'back' if first else 'face'}_{self.side}", deep, span),)  # type: ignore[arg-type]
        return (Bite(self.side, ((near, 0.0), (near, deep), (end, deep), (end, 0.0))),)


class Chamfer(_Cut):
    """A long corner taken off flat: `width_mm` of the wide side, `depth_mm` of the edge."""

    form: Literal["chamfer"] = "chamfer"
    corner: Corner
    width_mm: Section_mm
    depth_mm: Section_mm

    def bites(self, wide: float, thick: float) -> tuple[Bite, ...]:
        """What it takes."""
        return (Bite(self.corner, ((self.width_mm, 0.0), (0.0, self.depth_mm)), bulges=True),)


class Round(_Cut):
    """A long corner rounded over with a quarter of a circle."""

    form: Literal["round"] = "round"
    corner: Corner
    radius_mm: Section_mm

    def bites(self, wide: float, thick: float) -> tuple[Bite, ...]:
        """What it takes."""
        r = self.radius_mm
        return (Bite(self.corner, tuple((r - r * sin(t), r - r * cos(t)) for t in _quarter(r)), bulges=True),)


class Cove(_Cut):
    """A quarter of a circle hollowed out of a long corner, its middle in that corner."""

    form: Literal["cove"] = "cove"
    corner: Corner
    radius_mm: Section_mm

    def bites(self, wide: float, thick: float) -> tuple[Bite, ...]:
        """What it takes."""
        r = self.radius_mm
        return (Bite(self.corner, tuple((r * cos(t), r * sin(t)) for t in _quarter(r))),)


class Tongue(_Cut):
    """What stays of an edge: `thickness_mm` thick and `long_mm` long, its near side `from_mm` in from the back."""

    form: Literal["tongue"] = "tongue"
    edge: Literal["upper", "lower"]
    from_mm: Within_mm
    thickness_mm: Section_mm
    long_mm: Section_mm

    def bites(self, wide: float, thick: float) -> tuple[Bite, ...]:
        """What it takes: a step on either side of it, on one side where it is flush."""
        over = thick - self.from_mm - self.thickness_mm
        sides: tuple[tuple[Literal["face", "back"], float], ...] = (("back", self.from_mm), ("face", over))
        return tuple(_step(f"{side}_{self.edge}", self.long_mm, deep) for side, deep in sides if deep > 0)  # type: ignore[arg-type]


class Milled(_Cut):
    """What a cutter of any shape leaves, corner by corner of it: at a corner of the section from the wide side to the edge, each (in from the edge, in
    from the wide side); out of a side from its lower or back end, (along it, deep). Curves are fine polygons already."""

    form: Literal["milled"] = "milled"
    at: Corner | Long
    path: Annotated[tuple[tuple[Within_mm, Within_mm], ...], Field(min_length=2, max_length=MOST_CORNERS)]

    def bites(self, wide: float, thick: float) -> tuple[Bite, ...]:
        """What it takes."""
        return (Bite(self.at, self.path),)

    @property
    def reaches_sides(self) -> bool:
        """Whether it begins and ends on the sides that it is cut out of."""
        (_, deep), (far, end) = self.path[0], self.path[-1]
        return deep == 0 and (far == 0 if self.at in CORNERS else end == 0 and far > self.path[0][0])


Ploughed = Annotated[Rabbet | Groove | Chamfer | Round | Cove | Tongue | Milled, Field(discriminator="form")]
Form = Literal["rabbet", "groove", "chamfer", "round", "cove", "tongue"]
FORMS: tuple[Form, ...] = get_args(Form)  # that are set to figures; what is milled is drawn


def _step(corner: Corner, width: float, depth: float) -> Bite:
    return Bite(corner, ((width, 0.0), (width, depth), (0.0, depth)))


def _quarter(radius: float) -> Iterator[float]:
    """The angles of a quarter circle's corners, radians: so many that no side lies farther than CURVE_MM inside."""
    widest = 2.0 * acos(max(0.0, 1.0 - CURVE_MM / radius)) if radius > CURVE_MM else pi / 2
    count = max(2, ceil(pi / 2 / widest))
    return (k * pi / 2 / count for k in range(count + 1))
