"""Feet are easily misread: whenever they are typed, the total in inches is said back."""

from fennup.core.drawing.edit import ProjectAct
from fennup.core.errors import UnitError
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
