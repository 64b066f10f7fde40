"""What is said back of a change: feet are easily misread, and what gave way to a new size is easily missed."""

from fennup.app.wording.figures import Voice
from fennup.core.drawing.edit import ProjectAct
from fennup.core.errors import UnitError
from fennup.core.parts.gauge import is_angle
from fennup.core.parts.measure import Ruler
from fennup.core.solve import Solution
from fennup.core.units.lengths import Unit, parse_length, read_length, tape


def feet_echo(acts: list[ProjectAct], unit: Unit) -> str | None:
    """`4' 7 1/4" is 55 1/4″ in all` for the last act that used feet; None when none did."""
    for act in reversed(acts):
        text = getattr(act, "text", None)
        try:
            length = parse_length(text, unit) if text else None
        except UnitError:
            continue
        if length and length.feet_total_in is not None:
            read = read_length(length.mm, tape("in", "1/64"))
            return f"{text} is {read.text}″ in all"
    return None


def gave_way_text(before: Solution, after: Solution, voice: Voice) -> str | None:
    """`Slope now follows: 8.13°` for what stood by itself before a size was given and follows from the others since."""
    said, ruler = [], Ruler(after.design.assembly)
    for id, member in after.spec.members.items():
        was = before.spec.members.get(id)
        gone = was.spec.standings().keys() - member.spec.standings().keys() if was and was.spec.kind == member.spec.kind else ()
        for name in sorted(f"{id}/{own}" for own in gone):
            value = ruler.measure(name)
            if value is not None:
                figure = voice.say_angle(value) if is_angle(name) else voice.say(value)
                said.append(f"{voice.label(name)} now follows: {figure}")
    text = "; ".join(said)
    return f"{text[:1].upper()}{text[1:]}" if said else None
