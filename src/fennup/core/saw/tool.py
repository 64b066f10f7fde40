"""What every tool that cuts has to say of itself: how far it goes, what its scales show, how much board it takes.

Angles are in the saw's frame of docs/conventions.md: swing + to the right, tilt + to the left, degrees from a square, upright cut.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from math import cos, floor, radians
from typing import Annotated, ClassVar, Literal

from pydantic import BaseModel, ConfigDict, Field

from fennup.core.errors import SpecError
from fennup.core.tolerances import NOTHING

Reach_deg = Annotated[float, Field(ge=0, lt=90, allow_inf_nan=False, description="degrees from square")]
Step_deg = Annotated[float, Field(gt=0, le=5, allow_inf_nan=False, description="degrees")]
Kerf_mm = Annotated[float, Field(gt=0, le=20, allow_inf_nan=False, description="mm")]
Room_mm = Annotated[float, Field(gt=0, le=5000, allow_inf_nan=False, description="mm")]
CountsFrom = Literal["square", "fence"]
Movement = Literal["swing", "tilt"]
Stance = Literal["flat", "on_edge", "propped"]
# Where the fence is, seen by the operator: beyond the board, between board and operator, or nowhere.
FencePlace = Literal["beyond", "near", "none"]
HALF_WAY = 1e-7  # of a step: what counts as half way between two
AT_45 = cos(radians(45.0))
MOST_ERRORS = 40
SAME_SETTING_DEG = 0.01


class Strict(BaseModel):
    """Unknown keys are refused; never changed."""

    model_config = ConfigDict(extra="forbid", frozen=True)


class ScaleError(Strict):
    """What a movement really makes at a setting is so much more, towards the same side, than its scale shows; found on a day by a test."""

    movement: Movement
    at_deg: Annotated[float, Field(ge=-90, le=90, allow_inf_nan=False)]
    error_deg: Annotated[float, Field(ge=-5, le=5, allow_inf_nan=False)]
    found: date
    by: Annotated[str, Field(max_length=40)] = ""


@dataclass(frozen=True)
class Miss:
    """A limit that is in the way: its code, what the cut needs and what the tool has, degrees or mm."""

    code: str
    needs: float
    has: float


@dataclass(frozen=True)
class Lying:
    """A board as it lies: how far it reaches from the table and from the fence, and how long the part is, mm."""

    stance: Stance
    wide_mm: float
    high_mm: float
    long_mm: float


class Tool(Strict):
    """A tool that makes plane cuts. `powered`: a hand may get into it; `picked`: Fennup takes it by itself where it reaches."""

    stances: ClassVar[tuple[Stance, ...]] = ("flat", "on_edge", "propped")
    fence_place: ClassVar[FencePlace] = "beyond"
    powered: ClassVar[bool] = True
    picked: ClassVar[bool] = True
    has_scale: ClassVar[bool] = True
    rips: ClassVar[bool] = False

    name: Annotated[str, Field(min_length=1, max_length=80)]
    kerf_mm: Kerf_mm = 2.4

    def misses(self, swing_deg: float, tilt_deg: float, lying: Lying) -> tuple[Miss, ...]:
        """Every limit that is in the way of a cut; none where it is in reach."""
        return tuple([*self.angle_misses(swing_deg, tilt_deg), *self.room_misses(swing_deg, tilt_deg, lying)])

    def angle_misses(self, swing_deg: float, tilt_deg: float) -> list[Miss]:
        """The stops that are in the way."""
        raise NotImplementedError

    def room_misses(self, swing_deg: float, tilt_deg: float, lying: Lying) -> list[Miss]:
        """Where the board is too wide or too high."""
        return []

    def reaches(self, swing_deg: float, tilt_deg: float) -> bool:
        """Whether both movements stay within their stops."""
        return not self.angle_misses(swing_deg, tilt_deg)

    def dial(self, movement: Movement, deg: float) -> float:
        """What to set the scale to, degrees from square, signed, so that this angle comes out as nearly as it can."""
        return deg

    def made(self, movement: Movement, deg: float) -> float:
        """The angle that then comes out."""
        return deg

    def shown(self, movement: Movement, deg: float) -> float:
        """What the scale reads when it is set to so many degrees from square, unrounded and unsigned."""
        return abs(deg)

    def swing_as_set(self, deg: float) -> float:
        """The swing that comes out."""
        return self.made("swing", deg)

    def tilt_as_set(self, deg: float) -> float:
        """The tilt that comes out."""
        return self.made("tilt", deg)

    def swing_shown(self, deg: float) -> float:
        """What the swing scale reads at this setting."""
        return self.shown("swing", deg)

    def tilt_shown(self, deg: float) -> float:
        """What the tilt scale reads at this setting."""
        return self.shown("tilt", deg)

    def simple_settings(self) -> tuple[float, ...]:
        """Swings that are found without a scale: the detents, or square."""
        return (0.0,)


class ScaleTool(Tool):
    """Two movements to their stops, each with a scale that is read in steps. Limits in degrees from square, whichever way the scales count."""

    swing_left_deg: Reach_deg = 47.0
    swing_right_deg: Reach_deg = 52.0
    tilt_left_deg: Reach_deg = 45.0
    tilt_right_deg: Reach_deg = 0.0
    swing_counts_from: CountsFrom = "square"
    tilt_counts_from: CountsFrom = "square"
    swing_step_deg: Step_deg = 0.5
    tilt_step_deg: Step_deg = 0.5
    errors: Annotated[tuple[ScaleError, ...], Field(max_length=MOST_ERRORS)] = ()

    def counts_from(self, movement: Movement) -> CountsFrom:
        """What that scale counts from."""
        return self.swing_counts_from if movement == "swing" else self.tilt_counts_from

    def step_deg(self, movement: Movement) -> float:
        """The smallest step that scale can be read to."""
        return self.swing_step_deg if movement == "swing" else self.tilt_step_deg

    def shown(self, movement: Movement, deg: float) -> float:
        """As the scale counts."""
        return abs(deg) if self.counts_from(movement) == "square" else 90.0 - abs(deg)

    def error_at(self, movement: Movement, deg: float) -> ScaleError | None:
        """The last error that was found at this setting."""
        near = [e for e in self.errors if e.movement == movement and abs(e.at_deg - deg) < SAME_SETTING_DEG]
        return near[-1] if near else None

    def _off(self, movement: Movement, deg: float) -> float:
        """The known error, as signed degrees from square."""
        error = self.error_at(movement, deg)
        return (error.error_deg if deg >= 0 else -error.error_deg) if error else 0.0

    def dial(self, movement: Movement, deg: float) -> float:
        """The nearest step of the scale, less the known error."""
        return _stepped(deg - self._off(movement, deg), deg, self.counts_from(movement), self.step_deg(movement))

    def made(self, movement: Movement, deg: float) -> float:
        """The nearest step of the scale, and the known error."""
        return self.dial(movement, deg) + self._off(movement, deg)

    def simple_settings(self) -> tuple[float, ...]:
        """Square and half of it, as far as the stops let it: they are checked with a square."""
        return tuple(deg for deg in (-45.0, 0.0, 45.0) if not self.angle_misses(deg, 0.0))

    def swing_limit(self, deg: float) -> float:
        """The stop on the side that a swing (+ right) goes to."""
        return self.swing_right_deg if deg > 0 else self.swing_left_deg

    def tilt_limit(self, deg: float) -> float:
        """The stop on the side that a tilt (+ left) goes to."""
        return self.tilt_left_deg if deg > 0 else self.tilt_right_deg

    def angle_misses(self, swing_deg: float, tilt_deg: float) -> list[Miss]:
        """Which stop is in the way of which movement."""
        found = []
        if abs(swing_deg) > self.swing_limit(swing_deg) + NOTHING:
            side = "right" if swing_deg > 0 else "left"
            found.append(Miss(f"past_swing_{side}", abs(swing_deg), self.swing_limit(swing_deg)))
        if abs(tilt_deg) > self.tilt_limit(tilt_deg) + NOTHING:
            side = "left" if tilt_deg > 0 else "right"
            found.append(Miss(f"past_tilt_{side}", abs(tilt_deg), self.tilt_limit(tilt_deg)))
        return found


def _stepped(deg: float, side: float, counts_from: CountsFrom, step: float) -> float:
    """The angle whose reading is the nearest whole step, on the side that is meant; half way between two, the upper one, whatever the
    last digit is."""
    size = deg if side >= 0 else -deg
    shown = size if counts_from == "square" else 90.0 - size
    read = floor(shown / step + 0.5 + HALF_WAY) * step
    size = read if counts_from == "square" else 90.0 - read
    return size if side >= 0 else -size


def between(at_0: float, at_45: float, deg: float) -> float:
    """How much of something there is at an angle, of what there is at 0 and at 45: as the cosine goes, which is how a blade's run and
    its height shrink."""
    share = (cos(radians(min(abs(deg), 90.0))) - AT_45) / (1.0 - AT_45)
    return max(0.0, at_45 + (at_0 - at_45) * share)


def room_misses(wide: float, high: float, lying: Lying) -> list[Miss]:
    """Where a board is wider or higher than there is room."""
    found = []
    if lying.wide_mm > wide + NOTHING:
        found.append(Miss("too_wide", lying.wide_mm, wide))
    if lying.high_mm > high + NOTHING:
        found.append(Miss("too_high", lying.high_mm, high))
    return found


def check_stops(deg: Iterable[float], low: float, high: float, field: str) -> None:
    """SpecError `outside_stops` where a detent lies beyond the stops."""
    for value in deg:
        if not low - NOTHING <= value <= high + NOTHING:
            raise SpecError("outside_stops", (field,), angle=value, low=low, high=high)
