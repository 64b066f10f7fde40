"""Tests of a setting: from what a gauge or a tape reads to the error of the scale, with its sign."""

from datetime import date
from math import atan2, degrees
from typing import Literal

from fennup.core.errors import SpecError
from fennup.core.saw.tool import MOST_ERRORS, SAME_SETTING_DEG, Movement, ScaleError, ScaleTool
from fennup.core.tolerances import SAME

How = Literal["gauge", "corner", "ring", "rolled"]
FULL_DEG = 360.0
MOST_OFF_DEG = 5.0


def tests_that_tell(movement: Movement, at_deg: float, sides: int) -> tuple[How, ...]:
    """How a setting can be tried: two scraps cut square make no corner, a ring must close, a strip is cut at a square swing."""
    square = abs(at_deg) <= SAME
    found: list[How] = [] if square else ["corner"]
    if sides:
        found.append("ring")
    found.append("gauge")
    return (*found, "rolled") if square and movement == "swing" else tuple(found)


def made_angle(how: How, at_deg: float, readings: list[float], across_mm: float = 0.0) -> float:
    """The angle from square that a setting really made, unsigned, from what was read. SpecError names `readings`.

    `gauge`: the angle itself. `corner`: two pieces cut so make a corner of 180 - 2 angle. `ring`: a closed ring of n pieces; its corners' sum is off
    by 2 n times the error, so all of it is spread over n joints. `rolled`: a strip cut off between two cuts, the board rolled over between them,
    the other edge to the fence: it is wider at the fence than near you by 2 across tan error; square cuts only.
    """
    if how == "gauge":
        return _mean(readings)
    if how == "corner":
        return (180.0 - _mean(readings)) / 2.0
    if how == "ring":
        sides = len(readings)
        turn = FULL_DEG / (2.0 * at_deg) if at_deg else 0.0
        if sides < 3 or abs(turn - sides) > SAME * sides:
            raise SpecError("ring_not_closed", ("readings",), angle=at_deg, count=sides)
        wanted = 180.0 * (sides - 2)
        return at_deg + (wanted - sum(readings)) / (2.0 * sides)
    if abs(at_deg) > SAME:
        raise SpecError("rolled_square_only", ("how",))
    if len(readings) != 2 or across_mm <= 0:
        raise SpecError("rolled_two_widths", ("readings",))
    return degrees(atan2(readings[0] - readings[1], 2.0 * across_mm))


def _mean(readings: list[float]) -> float:
    return sum(readings) / len(readings)


def error_found(
    tool: ScaleTool, movement: Movement, at_deg: float, how: How, readings: list[float], across_mm: float, on: date
) -> ScaleError:
    """The scale's error at a setting: how much more, towards the side that it is set to, it makes than it shows. SpecError `test_reading` where no
    saw could have made that."""
    made = made_angle(how, abs(at_deg), readings, across_mm)
    dialled = tool.dial(movement, at_deg)
    error = made - (abs(dialled) if abs(at_deg) > SAME else dialled)
    if abs(error) > MOST_OFF_DEG:
        raise SpecError("test_reading", ("readings",), made=made, wanted=abs(at_deg), most=MOST_OFF_DEG)
    return ScaleError(movement=movement, at_deg=at_deg, error_deg=error, found=on, by=how)


def with_error(tool: ScaleTool, error: ScaleError) -> ScaleTool:
    """The tool with what was found at that setting in place of what was known of it; the oldest are forgotten first."""
    rest = [e for e in tool.errors if e.movement != error.movement or abs(e.at_deg - error.at_deg) >= SAME_SETTING_DEG]
    return tool.model_copy(update={"errors": (*rest[-(MOST_ERRORS - 1) :], error)})


def square_error_deg(gap_mm: float, at_mm: float) -> float:
    """How far a square is out: two lines drawn from one edge, the square turned over between them, are so far apart at a distance from it."""
    return degrees(atan2(gap_mm, 2.0 * at_mm))
