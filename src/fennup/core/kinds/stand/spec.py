"""What a person says about a stand on splayed legs. Millimetres and degrees; sides are lettered A, B, C ... anticlockwise
seen from above, A at the front; a leg stands at a corner and is called by the two sides that meet there: AB, BC, ..."""

from string import ascii_uppercase
from typing import Annotated, Literal

from pydantic import Field, model_validator

from fennup.core.errors import SpecError
from fennup.core.kinds.fields import Given, Pinned, Play_mm, Section_mm, Size_mm, Strict, pin

Splay_deg = Annotated[float, Field(gt=-60, lt=80, allow_inf_nan=False, description="degrees from vertical, + feet outwards")]
Which = Literal["all", "AC", "BD"]
Roll = Literal["in_plane", "even", "rhombic"]
ROLLS: tuple[Roll, ...] = ("in_plane", "even", "rhombic")


class Four(Strict):
    """Four legs: sizes from outer arris to outer arris at the top, the splay as seen from the front and from the side."""

    form: Literal["four"]
    top_width_mm: Size_mm
    top_depth_mm: Size_mm
    front_splay_deg: Splay_deg
    side_splay_deg: Splay_deg


class Beam(Strict):
    """A beam on edge between the heads, its top at the peak, reaching `over_mm` past the legs at each end."""

    thickness_mm: Section_mm
    depth_mm: Section_mm
    over_mm: Play_mm = 0.0


class Pairs(Strict):
    """Two pairs of legs, each pair meeting at its head, against each other or against a beam; the length at the peak."""

    form: Literal["pairs"]
    top_width_mm: Size_mm
    front_splay_deg: Splay_deg = 0.0
    side_splay_deg: Annotated[float, Field(gt=0, lt=80, allow_inf_nan=False, description="degrees from vertical")]
    beam: Beam | None = None


class Round(Strict):
    """Legs at the corners of a regular plan: from one to the next at the top, and how far each leans from vertical."""

    form: Literal["round"]
    legs: Annotated[int, Field(ge=3, le=8)]
    top_side_mm: Size_mm
    lean_deg: Splay_deg


class Leg(Strict):
    """A leg's section: `width_mm` along the front, `thickness_mm` from its face inwards."""

    width_mm: Section_mm
    thickness_mm: Section_mm


class Rail(Strict):
    """Rails in the sloped planes, their lower edge on the outside `height_mm` above the ground. Between the legs, `set_in_mm` from the
    side's plane, in the middle of the legs if unsaid; or `outside` on them as aprons, `over_mm` past the planes of the next sides."""

    height_mm: Play_mm
    width_mm: Section_mm
    thickness_mm: Section_mm
    set_in_mm: Play_mm | None = None
    sides: Which = "all"
    outside: bool = False
    over_mm: Play_mm = 0.0


class Hoop(Strict):
    """A ring mitered round the legs, its back in the sides' planes, its lower edge `height_mm` up there: both edges level, and `tall_mm`
    measured upright; or of square stock as it is, `tall_mm` wide.

    `moves`: what gives way when its outside is given, the ring's height or the legs.
    """

    height_mm: Play_mm
    tall_mm: Size_mm
    thickness_mm: Section_mm
    edges: Literal["level", "square"] = "level"
    moves: Literal["ring", "legs"] = "ring"


class Braces(Strict):
    """Two braces crossing in a side, half lapped: their middle lines run from `low_mm` on one leg to `high_mm` on the other."""

    low_mm: Size_mm
    high_mm: Size_mm
    width_mm: Section_mm
    thickness_mm: Section_mm
    set_in_mm: Play_mm | None = None
    sides: Which = "all"


class Top(Strict):
    """A plate on the legs' heads, reaching over their outer lines."""

    thickness_mm: Section_mm
    over_mm: Play_mm = 0.0


class StandSpec(Pinned):
    """Splayed legs and what holds them together.

    `roll`: how a leg is turned about its own length. `in_plane`: its face in the plane of the front (or the back, or of the
    side to its left); `even`: as an upright leg would be, tilted without twist; `rhombic`: planed so that both outer sides
    lie in their planes.
    """

    kind: Literal["stand"]
    version: Literal[1] = 1
    plan: Annotated[Four | Pairs | Round, Field(discriminator="form")]
    height_mm: Size_mm
    leg: Leg
    roll: Roll = "in_plane"
    rails: Annotated[list[Rail], Field(max_length=8)] = []
    rings: Annotated[list[Hoop], Field(max_length=8)] = []
    braces: Braces | None = None
    top: Top | None = None
    measured_at_mm: Size_mm | None = None

    @property
    def sides(self) -> int:
        """How many sides, and legs."""
        return self.plan.legs if isinstance(self.plan, Round) else 4

    @property
    def letters(self) -> str:
        """The sides' letters in order."""
        return ascii_uppercase[: self.sides]

    @property
    def legs(self) -> tuple[str, ...]:
        """The legs' names in order: AB, BC, ..."""
        letters = self.letters
        return tuple(letters[i] + letters[(i + 1) % len(letters)] for i in range(len(letters)))

    def chosen(self, which: Which) -> str:
        """The letters of the sides that something goes into."""
        return self.letters if which == "all" or self.sides != 4 else which

    @model_validator(mode="after")
    def _goes_together(self) -> "StandSpec":
        """A plate needs level heads; braces go up. SpecError names the field."""
        if self.top and isinstance(self.plan, Pairs):
            raise SpecError("top_on_pairs", ("top",))
        if self.braces and self.braces.high_mm <= self.braces.low_mm:
            raise SpecError("braces_flat", ("braces.high_mm",), mm=self.braces.high_mm, limit_mm=self.braces.low_mm)
        return self

    def usual_pins(self) -> tuple[Given, ...]:
        """Height, top and splay."""
        plan = self.plan
        if isinstance(plan, Round):
            return (pin("height", self.height_mm), pin("top_side", plan.top_side_mm), pin("true_lean", plan.lean_deg))
        width = pin("top_width", plan.top_width_mm)
        depth = (pin("top_depth", plan.top_depth_mm),) if isinstance(plan, Four) else ()
        splays = (pin("front_splay", plan.front_splay_deg), pin("side_splay", plan.side_splay_deg))
        return (pin("height", self.height_mm), width, *depth, *splays)
