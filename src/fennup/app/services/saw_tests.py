"""Test cuts and sums at the bench: from what was typed to figures and sentences."""

from datetime import date

from fennup.app.schemas.saw import HalvesAsked, HalvesOut, SawTest, SquareAsked, TestOut
from fennup.app.schemas.sheet import EdgeOut
from fennup.app.services.projects import PLAIN
from fennup.app.services.validate import from_core
from fennup.app.wording.figures import Voice
from fennup.core.errors import CoreError, SpecError
from fennup.core.saw.testing import MOST_OFF_DEG, error_found, square_error_deg, with_error
from fennup.core.saw.tool import ScaleTool
from fennup.core.steps.marks import along_slope, halved
from fennup.core.tolerances import NOTHING
from fennup.core.units.angles import parse_angle_deg
from fennup.core.units.lengths import parse_length
from fennup.core.workshop import Workshop

STEEPEST_DEG = 89.0
MOST_KERF_MM = 20.0
TRUE_DEG = 2.5e-4  # less than a gauge shows


def tested(workshop: Workshop, body: SawTest, on: date) -> tuple[Workshop, TestOut]:
    """The workshop with the error that a test found, and that in words. Invalid names the reading."""
    tool = workshop.tools.get(body.tool)
    try:
        if not isinstance(tool, ScaleTool):
            raise SpecError("no_such_field", ("tool",))
        read = [_reading(text, body.how, k) for k, text in enumerate(body.readings)]
        across = parse_length(body.across, "mm").mm if body.across.strip() else 0.0
        error = error_found(tool, body.movement, body.at_deg, body.how, read, across, on)
    except CoreError as refused:
        raise from_core(refused, PLAIN) from None
    better = with_error(tool, error)
    changed = workshop.model_copy(update={"tools": {**workshop.tools, body.tool: better}})
    much = "more" if error.error_deg > 0 else "less"
    found = f"At this setting its {body.movement} makes {abs(error.error_deg):.3f}° {much} than it shows."
    if abs(error.error_deg) < TRUE_DEG:
        found = f"At this setting its {body.movement} is true."
    dial = better.shown(body.movement, better.dial(body.movement, body.at_deg))
    return changed, TestOut(found=found, dial=f"Dial {PLAIN.say_angle(dial)} from now on.", version=0)


def _reading(text: str, how: str, k: int) -> float:
    """One reading: a length of a strip's width, else an angle."""
    try:
        return parse_length(text, "mm").mm if how == "rolled" else parse_angle_deg(text)
    except CoreError as refused:
        raise type(refused)(refused.code, (f"readings.{k}",), **refused.data) from None


def halves_out(asked: HalvesAsked, voice: Voice) -> HalvesOut:
    """Both halves, the offset over the width, a gap along the slope. Invalid names the field."""
    try:
        long, wide, kerf, gap = (_length(asked, name, voice) for name in ("long", "wide", "kerf", "gap"))
        angle = _angle(asked.angle)
        if long <= 0 or long > 20000.0:
            raise SpecError("halves_long", ("long",))
        if not 0 < kerf <= MOST_KERF_MM:
            raise SpecError("halves_kerf", ("kerf",), most=MOST_KERF_MM)
        made = halved(long, wide, angle, kerf)
        if made.short_mm <= 0:
            raise SpecError("halves_nothing", ("angle",))
    except CoreError as refused:
        raise from_core(refused, voice) from None
    lines = [EdgeOut(label="Long edges", figure=voice.length(made.long_mm), note=f"each half, exactly {made.long_mm:.4f} mm")]
    if abs(made.long_mm - made.short_mm) > NOTHING:
        offset = made.long_mm - made.short_mm
        lines.append(
            EdgeOut(label="Short edges", figure=voice.length(made.short_mm), note=f"each half, exactly {made.short_mm:.4f} mm")
        )
        lines.append(
            EdgeOut(
                label="Offset over the width",
                figure=voice.length(offset),
                note=f"farther along on the other edge, exactly {offset:.4f} mm",
            )
        )
    if gap > 0:
        along = along_slope(gap, angle)
        lines.append(
            EdgeOut(label="Along what crosses it", figure=voice.length(along), note=f"for {voice.say(gap)} square to the slope")
        )
    return HalvesOut(lines=lines)


def square_out(asked: SquareAsked, voice: Voice) -> HalvesOut:
    """By how much a square is out. Invalid names the field."""
    try:
        apart, at = (_length(asked, name, voice) for name in ("apart", "at"))
        if at <= 0:
            raise SpecError("square_at", ("at",))
        error = square_error_deg(apart, at)
        if abs(error) > MOST_OFF_DEG:
            raise SpecError("square_far_out", ("apart",), angle=abs(error))
    except CoreError as refused:
        raise from_core(refused, voice) from None
    note = "true: no error can be seen so" if abs(error) < TRUE_DEG else "out of square; half of what the lines are apart"
    return HalvesOut(lines=[EdgeOut(label="The square is", figure=voice.angle(abs(error), 3), note=note)])


def _length(asked: HalvesAsked | SquareAsked, name: str, voice: Voice) -> float:
    text = str(getattr(asked, name)).strip()
    try:
        return parse_length(text, voice.tape.unit).mm if text else 0.0
    except CoreError as refused:
        raise type(refused)(refused.code, (name,), **refused.data) from None


def _angle(text: str) -> float:
    try:
        angle = parse_angle_deg(text) if text.strip() else 0.0
    except CoreError as refused:
        raise type(refused)(refused.code, ("angle",), **refused.data) from None
    if not 0 <= angle <= STEEPEST_DEG:
        raise SpecError("halves_angle", ("angle",), most=STEEPEST_DEG)
    return angle
