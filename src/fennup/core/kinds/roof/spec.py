"""What a person says about a small roof. Millimetres and degrees; pitches from level. A gable's sides are left and right,
those of all others are lettered A, B, C ... anticlockwise seen from above, A at the front."""

from math import cos, pi, radians, tan
from string import ascii_uppercase
from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from fennup.core.errors import SpecError
from fennup.core.kinds.covers import Cover
from fennup.core.kinds.fields import Given, Pinned, Play_mm, Section_mm, Size_mm, Strict, pin

Pitch_deg = Annotated[float, Field(gt=0, lt=90, allow_inf_nan=False, description="degrees from level")]


class Slope(Strict):
    """One side of a gable: level from the wall's outer face to the ridge's middle, its pitch, and its heel where it has one of its own."""

    run_mm: Size_mm
    pitch_deg: Pitch_deg
    heel_mm: Size_mm | None = None


class Ridge(Strict):
    """A ridge board on edge between the rafters' heads."""

    thickness_mm: Section_mm
    depth_mm: Section_mm


class Gable(Strict):
    """Pairs of rafters on two walls, `right` where the other side is unlike the left.

    `heel_mm` is how high the plumb cut at the wall is. `birdsmouth`: the rafter runs on over the wall by `overhang_mm`,
    measured level along its top edge, its `tail` plumb or square; `seat`: it ends at the wall's outer face, cut
    plumb and level; `level`: there with the level cut only, in a point; `plumb`: with the plumb cut only, its lower edge at the wall's
    top. Without a ridge the
    `heads` are mitered, or cut plumb.
    """

    form: Literal["gable"]
    left: Slope
    right: Slope | None = None
    heel_mm: Size_mm
    foot: Literal["birdsmouth", "seat", "level", "plumb"] = "birdsmouth"
    overhang_mm: Play_mm = 0.0
    tail: Literal["plumb", "square"] = "plumb"
    heads: Literal["miter", "plumb"] = "miter"
    ridge: Ridge | None = None
    pairs: Annotated[int, Field(ge=1, le=20)] = 1
    spacing_mm: Size_mm = 600.0
    plate_mm: Size_mm = 90.0

    def heel_of(self, side: Slope, depth: float) -> float:
        """By how much a rafter's lower edge passes the wall's outer face below its top: the heel, all of the rafter, or nothing."""
        if self.foot in ("level", "plumb"):
            return depth / cos(radians(side.pitch_deg)) if self.foot == "level" else 0.0
        return self.heel_mm if side.heel_mm is None else side.heel_mm


class Cone(Strict):
    """A cone of sheet over a pyramid's seams, longer down them by `over_mm`, its ends lapped."""

    over_mm: Play_mm = 0.0
    lap_mm: Play_mm = 20.0


class Pyramid(Strict):
    """Equal panels that meet in a point: across flats (an odd number: the inner circle) on the outer line of the eaves."""

    form: Literal["pyramid"]
    sides: Annotated[int, Field(ge=3, le=12)]
    across_mm: Size_mm
    height_mm: Size_mm
    eaves: Literal["level", "plumb", "square"] = "level"
    cone: Cone | None = None


class HipRidge(Ridge):
    """A ridge board from front to back between two hips at either end, so long from peak to peak."""

    length_mm: Size_mm


class Hip(Strict):
    """Hip rafters from the corners to one point, or to the ends of a `ridge`, and jack rafters between: a rectangle with two pitches, or with `sides` a
    regular plan `width_mm` across flats (an odd number: the inner circle). Jacks stand `spacing_mm` apart from every corner.

    All feet end flush with the walls' outer faces. `seat`: they are cut level besides, to stand on a frame of plates whose
    top lies `above_plate_mm` plumb under the roof at those faces. `birdsmouth`: notched there instead, they run on over the walls by
    `overhang_mm`, measured level and square to each wall. Common rafters stand on the ridge, `spacing_mm` apart from its middle.
    """

    form: Literal["hip"]
    sides: Annotated[int, Field(ge=3, le=12)] | None = None
    width_mm: Size_mm
    depth_mm: Size_mm
    rise_mm: Size_mm
    hip_thickness_mm: Section_mm
    hip_depth_mm: Section_mm
    spacing_mm: Size_mm
    foot: Literal["flush", "seat", "birdsmouth"] = "flush"
    overhang_mm: Play_mm = 0.0
    above_plate_mm: Size_mm = 60.0
    plate_mm: Size_mm = 90.0
    ridge: HipRidge | None = None


class LeanTo(Strict):
    """A box with a sloping lid: a low front, a high back, trapezoid sides between them, all of one thickness. The heights
    are of the outer faces, where the lid lies on them. Of the lid, A is the front, B the right side, C the back, D the left side; what it
    reaches over front and back is measured along the slope."""

    form: Literal["lean_to"]
    width_mm: Size_mm
    depth_mm: Size_mm
    front_mm: Size_mm
    back_mm: Size_mm
    cover: Cover


class RoofSpec(Pinned):
    """A roof of rafters, `depth_mm` on edge and `thickness_mm` thick; of a pyramid and a lean-to the thickness is the panels'."""

    kind: Literal["roof"]
    version: Literal[1] = 1
    shape: Annotated[Gable | Pyramid | Hip | LeanTo, Field(discriminator="form")]
    depth_mm: Section_mm = 90.0
    thickness_mm: Section_mm

    @property
    def sides(self) -> int:
        """How many sides go round."""
        if isinstance(self.shape, Pyramid):
            return self.shape.sides
        return (self.shape.sides or 4) if isinstance(self.shape, Hip) else 4

    @property
    def letters(self) -> str:
        """The sides' letters in order."""
        return ascii_uppercase[: self.sides]

    @model_validator(mode="after")
    def _lid_has_four_sides(self) -> "RoofSpec":
        """SpecError `no_such_side` where the lid's sides are others."""
        if isinstance(self.shape, LeanTo):
            self.shape.cover.check_sides(self.letters, "shape.cover")
        return self

    @model_validator(mode="before")
    @classmethod
    def _pitches_in_words(cls, document: Any) -> Any:
        """A level or an upright roof is said in our own words: SpecError `pitch_range`. A lean-to's lid was once as thick as its walls."""
        shape = document.get("shape") if isinstance(document, dict) else None
        if isinstance(shape, dict) and shape.get("form") == "lean_to" and "cover" not in shape:
            lid = {"thickness_mm": document.get("thickness_mm"), "over_mm": shape.get("over_mm", 0.0)}
            shape = {**{name: value for name, value in shape.items() if name != "over_mm"}, "cover": lid}
            return {**document, "shape": shape}
        for side in ("left", "right"):
            slope = shape.get(side) if isinstance(shape, dict) else None
            pitch = slope.get("pitch_deg") if isinstance(slope, dict) else None
            if isinstance(pitch, int | float) and not 0 < pitch < 90:
                raise SpecError("pitch_range", (f"shape.{side}.pitch_deg",), deg=float(pitch))
        return document

    def usual_pins(self) -> tuple[Given, ...]:
        """The shape's own sizes."""
        shape = self.shape
        if isinstance(shape, Gable):
            sides = [("left", shape.left), *([("right", shape.right)] if shape.right else [])]
            return tuple(p for name, s in sides for p in (pin(f"{name}_run", s.run_mm), pin(f"{name}_pitch", s.pitch_deg)))
        if isinstance(shape, Pyramid):
            return (pin("eaves_flats", shape.across_mm), pin("height", shape.height_mm))
        if isinstance(shape, LeanTo):
            sizes = (("body_width", shape.width_mm), ("body_depth", shape.depth_mm), ("front_height", shape.front_mm))
            return (*(pin(name, size) for name, size in sizes), pin("back_height", shape.back_mm))
        if shape.sides:
            return (pin("eaves_side", self.hip_side), pin("rise", shape.rise_mm))
        own = (pin("eaves_width", shape.width_mm), pin("eaves_depth", shape.depth_mm), pin("rise", shape.rise_mm))
        return (*own, pin("ridge_length", shape.ridge.length_mm)) if shape.ridge else own

    @property
    def hip_side(self) -> float:
        """One side's length of a regular hip roof, from its size across flats."""
        assert isinstance(self.shape, Hip)
        return self.shape.width_mm * tan(pi / (self.shape.sides or 4))
