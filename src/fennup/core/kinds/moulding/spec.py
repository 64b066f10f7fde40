"""What a person says about a moulding that leans between a wall and what is above it. Millimetres and degrees; runs are lettered A, B, C ... from left
to right as one faces the wall, corners by the two runs that meet there."""

from math import cos, radians, sin
from string import ascii_uppercase
from typing import Annotated, Literal

from pydantic import Field, model_validator

from fennup.core.errors import SpecError
from fennup.core.kinds.fields import Given, Pinned, Section_mm, Size_mm, Strict, pin
from fennup.core.kinds.ploughing import MOST_PLOUGHED, check_ploughed
from fennup.core.stock.ploughed import Ploughed
from fennup.core.stock.section import Section

MOST_RUNS = 24
Spring_deg = Annotated[float, Field(gt=0, lt=90, allow_inf_nan=False, description="degrees from the wall")]
Wall_deg = Annotated[float, Field(gt=0, lt=180, allow_inf_nan=False, description="degrees between two walls")]


class Run(Strict):
    """One length of it: how long at the wall, and how steeply it rises to the right."""

    wall_mm: Size_mm
    rise_deg: Annotated[float, Field(gt=-60, lt=60, allow_inf_nan=False)] = 0.0


class Corner(Strict):
    """Where two walls meet: an inside corner of a room, or an outside one, as of a box; the angle between the walls, through the air or through the box."""

    side: Literal["inside", "outside"] = "inside"
    deg: Wall_deg = 90.0

    @property
    def turn_deg(self) -> float:
        """By how much the way to the right turns to the left."""
        return (180.0 - self.deg) * (1.0 if self.side == "outside" else -1.0)


class MouldingSpec(Pinned):
    """Mouldings along walls, mitered where these meet; both ends square to the wall. `spring_deg` is from the wall to the back of the moulding,
    `width_mm` across its face from edge to edge: how far down the wall and how far out it reaches say the same. Its edges lie flat on the wall and
    on what is above; `bought`: it comes so, `finished`: with that on it. `raked`: a run that rises beside a level one is of the same profile,
    or of one of its own that meets that. Where its runs `close` the last one meets the first."""

    kind: Literal["moulding"]
    version: Literal[1] = 1
    width_mm: Section_mm
    thickness_mm: Section_mm
    spring_deg: Spring_deg = 45.0
    ploughed: Annotated[list[Ploughed], Field(max_length=MOST_PLOUGHED)] = []
    bought: bool = True
    raked: Literal["same", "own"] = "same"
    finished: Annotated[str, Field(max_length=60)] = ""
    runs: Annotated[list[Run], Field(min_length=1, max_length=MOST_RUNS)]
    corners: Annotated[list[Corner], Field(max_length=MOST_RUNS)] = []

    @property
    def sides(self) -> int:
        """How many runs."""
        return len(self.runs)

    @property
    def letters(self) -> str:
        """The runs' letters from left to right."""
        return ascii_uppercase[: len(self.runs)]

    @property
    def closes(self) -> bool:
        """Whether the last run meets the first: then there are as many corners as runs."""
        return len(self.corners) == len(self.runs) > 1

    @property
    def corner_names(self) -> tuple[str, ...]:
        """AB, BC, ...; the last one back to A where it closes."""
        letters = self.letters
        return tuple(letters[i] + letters[(i + 1) % len(letters)] for i in range(len(self.corners)))

    @property
    def section(self) -> Section:
        """It cut across, before its edges are beveled."""
        return Section(self.width_mm, self.thickness_mm, tuple(self.ploughed))

    @model_validator(mode="after")
    def _can_be(self) -> "MouldingSpec":
        """A corner between every two runs; a section that leaves something of its back. SpecError names the field."""
        if len(self.corners) not in (len(self.runs) - 1, len(self.runs)) or len(self.corners) == len(self.runs) == 1:
            raise SpecError("runs_and_corners", ("corners",), count=len(self.corners), most=len(self.runs) - 1)
        spring = radians(self.spring_deg)
        most = self.width_mm * sin(spring) * cos(spring)
        if self.thickness_mm >= most:
            raise SpecError("moulding_too_thick", ("thickness_mm",), mm=self.thickness_mm, limit_mm=most)
        check_ploughed(self.section, 0, "ploughed")
        return self

    def usual_pins(self) -> tuple[Given, ...]:
        """Its own two figures, and every length at the wall."""
        lengths = [pin(f"at_wall:{letter}", run.wall_mm) for letter, run in zip(self.letters, self.runs, strict=True)]
        return (pin("moulding_width", self.width_mm), pin("spring_angle", self.spring_deg), *lengths)
