"""Ways to ask that every kind's controls are made of."""

from typing import Literal

from fennup.core.drawing.edit import Choose, TypeIn
from fennup.core.drawing.view import Control, Option

Unit = Literal["mm", "deg", "count"]
Answers = dict[str, tuple[object, bool]]


def figure(
    code: str, group: str, value: float, path: str, unit: Unit = "mm", about: str = "", *, follows: bool = False
) -> Control:
    """A figure to type over; one that follows from others is given by that."""
    acts = TypeIn(op="type", path=path, text="")
    return Control(code, group, value=value, unit=unit, acts=acts, about=about, standing="derived" if follows else "given")


def choice(
    code: str, group: str, path: str, answers: Answers, about: str = "", style: Literal["pick", "list"] = "pick"
) -> Control:
    """One of several values for a field: each answer with its value and whether it is the one that holds."""
    made = tuple(
        Option(name, (Choose(op="choose", path=path, value=value),), chosen) for name, (value, chosen) in answers.items()
    )
    return Control(code, group, made, about=about, style=style)


def one_of(code: str, group: str, path: str, answers: dict[str, object], now: object, about: str = "") -> Control:
    """The same where the answer that holds is the one whose value stands in the field."""
    return choice(code, group, path, {name: (value, value == now) for name, value in answers.items()}, about)


def with_or_without(
    code: str, group: str, path: str, names: tuple[str, str], usual: object, now: object, about: str = ""
) -> Control:
    """Something that is there or not: what it usually is, and what it is now."""
    return choice(code, group, path, {names[0]: (None, now is None), names[1]: (usual, now is not None)}, about)


def measured_at(now: float | None, usual: float) -> list[Control]:
    """A height at which something that leans is measured too."""
    asked = with_or_without("measured_at", "outline", "measured_at_mm", ("only_ends", "at_a_height"), usual, now)
    return [asked] if now is None else [asked, figure("measured_at_mm", "outline", now, "measured_at_mm")]
