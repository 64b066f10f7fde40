"""What a person says about a box or a case. Millimetres and degrees; sides are lettered A, B, C ... anticlockwise seen
from above, A at the front; corners by the two sides that meet there: AB, BC, ..."""

from math import cos, radians
from string import ascii_uppercase
from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from fennup.core.errors import SpecError
from fennup.core.kinds.covers import Cover
from fennup.core.kinds.drilling import Holes
from fennup.core.kinds.fields import (
    CornerJoint,
    CornerLetters,
    Given,
    Pinned,
    Place_mm,
    Play_mm,
    Section_mm,
    SideLetter,
    Size_mm,
    Strict,
    pin,
)
from fennup.core.kinds.inner import Bars, Inner
from fennup.core.kinds.stopping import MOST_STOPPED, Stopped
from fennup.core.parts.measures import measure_of

MOST_SIDES = 12
MOST_COURSES = 12
Slope_deg = Annotated[float, Field(gt=-90, lt=90, allow_inf_nan=False, description="degrees from vertical, + flaring")]
Group = Annotated[str, Field(pattern="^[A-L]{1,12}$", description="letters of the sides that are alike")]


class Regular(Strict):
    """All sides alike: across flats (an odd number: the inner circle) on the outer bottom line."""

    form: Literal["regular"]
    sides: Annotated[int, Field(ge=3, le=MOST_SIDES)]
    across_mm: Size_mm


class Rectangle(Strict):
    """Four square corners: A front, B right, C back, D left; sizes of the outer bottom line."""

    form: Literal["rectangle"]
    width_mm: Size_mm
    depth_mm: Size_mm


class Irregular(Strict):
    """Any convex plan: the corners of the outer bottom line, anticlockwise, A's left end first."""

    form: Literal["irregular"]
    corners: Annotated[list[tuple[Place_mm, Place_mm]], Field(min_length=3, max_length=MOST_SIDES)]


class Liner(Strict):
    """What stands or hangs inside: a tapered insert, across flats or width and depth, at its rim under the lip and at
    its foot; `lip_mm` is how far the lip reaches out over the walls at each side. Play is the total."""

    rim_mm: Size_mm
    foot_mm: Size_mm
    rim_depth_mm: Size_mm | None = None
    foot_depth_mm: Size_mm | None = None
    height_mm: Size_mm
    lip_mm: Play_mm = 0.0
    play_mm: Play_mm = 0.0


class Courses(Strict):
    """Each wall of several boards, one above the other. Their width is given and so many follow, the top one ripped; or so many
    are given, all equally wide; or both, which must then agree."""

    count: Annotated[int, Field(ge=2, le=MOST_COURSES)] | None = None
    board_width_mm: Section_mm | None = None

    @model_validator(mode="after")
    def _says_one(self) -> "Courses":
        """SpecError `courses_unsaid`."""
        if self.count is None and self.board_width_mm is None:
            raise SpecError("courses_unsaid", ("courses.board_width_mm",))
        return self


class Floor(Strict):
    """A floor whose underside lies so high; its edges follow the walls. Play is the total, as for everything let in.

    `slats` lie in place of a panel.
    """

    height_mm: Play_mm = 0.0
    thickness_mm: Section_mm
    play_mm: Play_mm = 0.0
    slats: Bars | None = None


class Back(Strict):
    """A panel let into a groove round the walls, `from_edge_mm` in from the bottom edge, or from the top edge; at 0 it lies in a rabbet. At a butted
    corner the groove of the wall that runs through stops, or it runs out and the hole in its end is `filled`."""

    thickness_mm: Section_mm
    depth_mm: Section_mm
    from_edge_mm: Play_mm = 0.0
    play_mm: Play_mm = 0.0
    ends: Literal["stopped", "filled"] = "stopped"


class Lid(Strict):
    """The top sawn off once the box is together: `depth_mm` of lid, and what the blade takes."""

    depth_mm: Size_mm
    kerf_mm: Play_mm


class Cap(Strict):
    """A ring mitered flat on the top edges, reaching over the walls inwards and outwards."""

    thickness_mm: Section_mm
    over_in_mm: Annotated[float, Field(ge=-1000, le=1000, allow_inf_nan=False)]
    over_out_mm: Annotated[float, Field(ge=-1000, le=1000, allow_inf_nan=False)]


class Cladding(Strict):
    """A pair of strips over every outer corner: the narrow one `width_mm` wide on the wall from the corner line, the wide
    one as wide from there and over the narrow one's edge. Rails, `rail_width_mm` wide, lie on the walls between them, their lower
    edges so high as `rails_mm` says. The strips end `past_mm` above the rim, level or in a point whose sides fall by `point_deg` from square."""

    width_mm: Section_mm
    thickness_mm: Section_mm
    rail_width_mm: Section_mm = 45.0
    rails_mm: Annotated[list[Play_mm], Field(max_length=12)] = []
    past_mm: Play_mm = 0.0
    point_deg: Annotated[float, Field(ge=0, le=75, allow_inf_nan=False)] = 0.0


class Blocks(Strict):
    """A block upright in every corner, ripped to both walls, so far along each of them as `along_mm` says, from what things stand on
    to `below_mm` under the rim."""

    along_mm: Size_mm
    thickness_mm: Section_mm
    below_mm: Play_mm = 0.0


class Insert(Strict):
    """A panel inside, its top `reveal_mm` under the rim, which is the underside of a cap. Play is the total.

    It lies on a ledger round the walls, `ledger_mm` thick and `ledger_width_mm` high; or it stands on the corner blocks.
    """

    reveal_mm: Play_mm
    thickness_mm: Section_mm
    play_mm: Play_mm = 0.0
    on: Literal["ledger", "blocks"] = "ledger"
    ledger_mm: Section_mm = 20.0
    ledger_width_mm: Section_mm = 30.0


class Lining(Strict):
    """Sheet folded to line the inside, from the floor to `below_mm` under the rim; play is the total. Its flaps overlap by `lap_mm`; `drains`
    holes go through its bottom in a row."""

    below_mm: Play_mm = 0.0
    play_mm: Play_mm = 2.0
    lap_mm: Play_mm = 15.0
    drains: Annotated[int, Field(ge=0, le=40)] = 0
    drain_mm: Size_mm = 12.0


class Turned(Strict):
    """What is turned out of upright staves once they are glued: its diameters, outside and inside."""

    outer_mm: Size_mm
    inner_mm: Size_mm | None = None


class Feet(Strict):
    """Battens under the bottom, from edge to edge of the outer bottom line. Heights still count from the walls' bottom."""

    thickness_mm: Section_mm
    bars: Bars


class Shelf(Strict):
    """A shelf in a case that hangs on its back: its underside so far from the inside of a side."""

    height_mm: Play_mm
    thickness_mm: Section_mm
    side: SideLetter = "A"


class BoxSpec(Pinned):
    """A box or a case: walls round a plan, upright or leaning, and what is let into them.

    With its `grain` up each wall is one stave, tapered along both long edges, or `staves` of them side by side. With its `rims` alike every
    wall is as wide up its slope as side A's; steeper ones then stand higher. The plan, `height_mm` and the slopes are what the pins make them; without pins they are all given as they stand.
    """

    kind: Literal["box"]
    version: Literal[1] = 1
    plan: Annotated[Regular | Rectangle | Irregular, Field(discriminator="form")]
    height_mm: Size_mm
    slope_deg: Slope_deg = 0.0
    slopes_deg: dict[Group, Slope_deg] = {}
    thickness_mm: Section_mm
    thicknesses_mm: dict[SideLetter, Size_mm] = {}
    liner: Liner | None = None
    edges: Literal["level", "square"] = "level"
    joint: Literal["miter", "butt"] = "miter"
    corners: dict[CornerLetters, CornerJoint] = {}
    grain: Literal["round", "up"] = "round"
    staves: Annotated[int, Field(ge=1, le=MOST_SIDES)] = 1
    turned: Turned | None = None
    rims: Literal["level", "alike"] = "level"
    courses: Courses | None = None
    floor: Floor | None = None
    back: Back | None = None
    front: Back | None = None
    lid: Lid | None = None
    cap: Cap | None = None
    cladding: Cladding | None = None
    blocks: Blocks | None = None
    insert: Insert | None = None
    cover: Cover | None = None
    lining: Lining | None = None
    inner: Inner | None = None
    feet: Feet | None = None
    holes: Annotated[list[Holes], Field(max_length=40)] = []
    stopped: Annotated[list[Stopped], Field(max_length=MOST_STOPPED)] = []
    shelves: Annotated[list[Shelf], Field(max_length=20)] = []
    measured_at_mm: Size_mm | None = None

    @property
    def sides(self) -> int:
        """How many walls."""
        if isinstance(self.plan, Regular):
            return self.plan.sides
        return 4 if isinstance(self.plan, Rectangle) else len(self.plan.corners)

    @property
    def letters(self) -> str:
        """The sides' letters in order."""
        return ascii_uppercase[: self.sides]

    @property
    def corner_names(self) -> tuple[str, ...]:
        """AB, BC, ..., the last one back to A."""
        letters = self.letters
        return tuple(letters[i] + letters[(i + 1) % len(letters)] for i in range(len(letters)))

    def through(self, corner: str) -> str:
        """The letter of the wall that runs through a butted corner; nothing where it is mitered."""
        how = self.corners.get(corner)
        if (how.joint if how else self.joint) == "miter":
            return ""
        return (how.through if how else None) or corner[0]

    def group_of(self, letter: str) -> str:
        """The group of sides with one slope that a side belongs to: "" where all are alike."""
        return next((group for group in self.slopes_deg if letter in group), "")

    def slope_of(self, letter: str) -> float:
        """A wall's slope, degrees from vertical, + flaring."""
        return self.slopes_deg.get(self.group_of(letter), self.slope_deg)

    def thickness_of(self, letter: str) -> float:
        """A wall's thickness, mm."""
        return self.thicknesses_mm.get(letter, self.thickness_mm)

    def rim_of(self, letter: str) -> float:
        """How high a wall's rim stands on its outer face, mm."""
        if self.rims == "level":
            return self.height_mm
        return self.height_mm * cos(radians(self.slope_of(letter))) / cos(radians(self.slope_of("A")))

    @property
    def lowest_rim(self) -> float:
        """The height of the lowest wall's rim, mm."""
        return min(self.rim_of(letter) for letter in self.letters)

    @property
    def upright(self) -> bool:
        """Whether every wall stands upright: then it is a case."""
        return all(self.slope_of(letter) == 0 for letter in self.letters)

    @property
    def slope_measures(self) -> tuple[str, ...]:
        """The names of the slopes that can differ."""
        return tuple(f"slope:{group}" for group in self.slopes_deg) or ("slope",)

    @model_validator(mode="before")
    @classmethod
    def _sides_in_words(cls, document: Any) -> Any:
        """Too many sides are said in our own words."""
        plan = document.get("plan") if isinstance(document, dict) else None
        count = plan.get("sides") if isinstance(plan, dict) else None
        if isinstance(count, int) and not isinstance(count, bool) and not 3 <= count <= MOST_SIDES:
            raise SpecError("box_sides", ("plan.sides",), count=count, most=MOST_SIDES)
        return document

    @model_validator(mode="after")
    def _names_are_sides(self) -> "BoxSpec":
        """Names must exist; SpecError names the field."""
        letters = self.letters
        for letter in self.thicknesses_mm:
            if letter not in letters:
                raise SpecError("no_such_side", (f"thicknesses_mm.{letter}",), side=letter, last=letters[-1])
        said = "".join(self.slopes_deg)
        for group in self.slopes_deg:
            for letter in group:
                if letter not in letters or said.count(letter) > 1:
                    raise SpecError("no_such_side", (f"slopes_deg.{group}",), side=letter, last=letters[-1])
        if said and len(said) != len(letters):
            missing = next(letter for letter in letters if letter not in said)
            raise SpecError("slope_missing", ("slopes_deg",), side=missing)
        for i, shelf in enumerate(self.shelves):
            if shelf.side not in letters:
                raise SpecError("no_such_side", (f"shelves.{i}.side",), side=shelf.side, last=letters[-1])
        if self.cover:
            self.cover.check_sides(letters, "cover")
        for name, corner in self.corners.items():
            if name not in self.corner_names:
                raise SpecError("no_such_corner", (f"corners.{name}",), corner=name)
            if corner.through and corner.through not in name:
                raise SpecError("through_not_here", (f"corners.{name}.through",), corner=name)
        return self

    def usual_pins(self) -> tuple[Given, ...]:
        """The plan's sizes, every slope of its own, the height."""
        slopes = [pin(name, self.slope_of(measure_of(name).side[:1] or "A")) for name in self.slope_measures]
        height = pin("height", self.height_mm)
        if isinstance(self.plan, Regular):
            return (pin("outer_bottom_flats", self.plan.across_mm), *slopes, height)
        if isinstance(self.plan, Rectangle):
            sizes = (("width", self.plan.width_mm), ("depth", self.plan.depth_mm))
            return (*(pin(f"outer_bottom_{kind}", size) for kind, size in sizes), *slopes, height)
        return (*slopes, height)
