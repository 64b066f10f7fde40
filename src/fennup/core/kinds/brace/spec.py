"""What a person says about a brace or a prop between members that are there already. Millimetres and degrees."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from fennup.core.errors import SpecError
from fennup.core.kinds.fields import LONGEST_MM, Given, Pinned, Place_mm, Section_mm, Size_mm, Strict, pin

Rise_mm = Annotated[float, Field(ge=-LONGEST_MM, le=LONGEST_MM, allow_inf_nan=False, description="mm, + upwards")]
Corner_deg = Annotated[float, Field(gt=0, lt=180, allow_inf_nan=False)]
Tilt_deg = Annotated[float, Field(gt=-60, lt=60, allow_inf_nan=False)]


class Knee(Strict):
    """A brace in the corner of a post and a beam above it: how far down the post and how far along the beam it meets them."""

    form: Literal["knee"]
    corner_deg: Corner_deg = 90.0
    post_leg_mm: Size_mm
    beam_leg_mm: Size_mm


class Crossing(Strict):
    """A second brace over the first, half lapped: it starts so much higher at the left member and rises so much."""

    start_mm: Rise_mm
    rise_mm: Rise_mm
    width_mm: Section_mm


class Between(Strict):
    """A brace between two upright members, `clear_mm` apart, that rises from the left to the right one."""

    form: Literal["between"]
    clear_mm: Size_mm
    rise_mm: Rise_mm
    crossing: Crossing | None = None


class Cleats(Strict):
    """Boards between the two uprights where they end: flat on the ground, flat on the wall, or both."""

    width_mm: Section_mm
    thickness_mm: Section_mm
    at: Literal["ground", "wall", "both"] = "ground"


class Treads(Strict):
    """Level treads between two leaning uprights, their edges flush with them, at even rises; or with their tops at `tops_mm`, plumb
    over where the middle of an upright meets the ground. With `deep_mm` they are so deep at their undersides and stand `proud_mm` out in
    front there, front and back edges sloping from upright by `front_deg` and `back_deg` (+ outwards).

    With `box_mm` each is the floor of a box: a front and a back that high, as thick as the tread, in line with its edges; of a depth of its
    own it has two ends besides.
    """

    count: Annotated[int, Field(ge=1, le=30)]
    thickness_mm: Section_mm
    clear_mm: Size_mm
    box_mm: Size_mm | None = None
    tops_mm: Annotated[list[Size_mm], Field(max_length=30)] = []
    deep_mm: Size_mm | None = None
    proud_mm: Place_mm = 0.0
    front_deg: Tilt_deg = 0.0
    back_deg: Tilt_deg = 0.0
    cleats: Cleats | None = None


class Sill(Strict):
    """A sill that stands `out_mm` out of the wall, its underside `under_mm` up that: the head is notched for it, and its lip reaches under it."""

    out_mm: Size_mm
    under_mm: Size_mm


class Prop(Strict):
    """A prop against a wall: how far out on the ground its foot stands, how far up the wall its head lies.

    The ground rises towards the wall by `ground_deg`; the wall leans away by `wall_deg`.
    """

    form: Literal["prop"]
    stand_off_mm: Size_mm
    wall_height_mm: Size_mm
    ground_deg: Tilt_deg = 0.0
    wall_deg: Tilt_deg = 0.0
    treads: Treads | None = None
    sill: Sill | None = None


class BraceSpec(Pinned):
    """A brace, and the members it meets, `member_mm` wide.

    `by`: which line of the brace the sizes are taken on. `lower` and `upper` are its edges (of a knee brace the upper one is
    nearer to the corner), `centre` its middle; `corners` from its lower edge at the lower end to its upper edge at the upper
    end; `pocket` its middle, from corner to corner of an opening with rails, both ends cut to post and rail.
    """

    kind: Literal["brace"]
    version: Literal[1] = 1
    place: Annotated[Knee | Between | Prop, Field(discriminator="form")]
    width_mm: Section_mm
    thickness_mm: Section_mm
    member_mm: Section_mm
    by: Literal["lower", "centre", "upper", "corners", "pocket"] = "centre"

    @property
    def sides(self) -> int:
        """A brace has no sides to count."""
        return 0

    @model_validator(mode="after")
    def _goes_together(self) -> "BraceSpec":
        """SpecError `by_needs_members` where the way of measuring needs two upright members."""
        if self.by in ("corners", "pocket") and not isinstance(self.place, Between):
            raise SpecError("by_needs_members", ("by",))
        if isinstance(self.place, Between) and self.place.crossing and self.by == "pocket":
            raise SpecError("pocket_for_one", ("by",))
        return self

    def usual_pins(self) -> tuple[Given, ...]:
        """The place's own sizes."""
        place = self.place
        if isinstance(place, Knee):
            corner = pin("corner_angle", place.corner_deg)
            return (corner, pin("post_leg", place.post_leg_mm), pin("beam_leg", place.beam_leg_mm))
        if isinstance(place, Prop):
            return (pin("stand_off", place.stand_off_mm), pin("wall_height", place.wall_height_mm))
        given = (pin("clear", place.clear_mm), pin("brace_rise", place.rise_mm))
        second = place.crossing
        return (*given, pin("start", second.start_mm), pin("second_rise", second.rise_mm)) if second else given
