"""Lengths: what people type to millimetres, and millimetres to what their tape shows."""

import re
from dataclasses import dataclass
from fractions import Fraction
from math import ceil
from typing import Literal

from fennup.core.errors import UnitError
from fennup.core.tolerances import SAME

Unit = Literal["mm", "in"]
Hair = Literal["", "over", "under"]  # on which side of the tape's mark a length lies
MOST_DECIMALS = 3
MM_PER_INCH = Fraction(254, 10)
LONGEST_TEXT = 40

_PER_UNIT = {"mm": Fraction(1), "cm": Fraction(10), "m": Fraction(1000), "in": MM_PER_INCH, "ft": 12 * MM_PER_INCH}
_VULGAR = {
    "½": "1/2", "⅓": "1/3", "⅔": "2/3", "¼": "1/4", "¾": "3/4", "⅕": "1/5", "⅖": "2/5", "⅗": "3/5", "⅘": "4/5",
    "⅙": "1/6", "⅚": "5/6", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8",
}  # fmt: skip
_NUMBER = r"(?:\d+[ -]+\d+/\d+|\d+/\d+|\d+\.\d+|\d+|\.\d+)"
_SINGLE = re.compile(rf"(-?)\s*({_NUMBER})\s*(mm|cm|m|in|ft)?", re.ASCII)
_FEET_AND_INCHES = re.compile(rf"(-?)\s*({_NUMBER})\s*ft\s*-?\s*({_NUMBER})\s*(?:in)?", re.ASCII)
_GROUPED = re.compile(r"\d,\d+[.,]|\d\.\d+,|\d{1,3}( \d{3})+(?![\d/])")
_EITHER = re.compile(r"(?<![\d.])[1-9]\d{0,2},\d{3}(?!\d)")


@dataclass(frozen=True)
class Length:
    """A length as read: `mm`, and the total in inches when feet were used, so that both can be shown."""

    mm: float
    feet_total_in: float | None = None


def parse_length(text: str, unit: Unit, *, inches_meant: bool = False) -> Length:
    """Read a length; a bare number takes `unit`.

    Accepts whole and decimal numbers (point or comma), fractions, mm, cm, m, in, ft, and feet with inches.
    Raises UnitError `no_length`, `too_many_digits`, `thousands`, `comma_or_thousands`, or, for a bare fraction in
    a millimetre project unless `inches_meant`, `fraction_in_mm` with the value that inches would give.
    """
    if len(text) > LONGEST_TEXT:
        raise UnitError("too_many_digits", most=LONGEST_TEXT)
    plain = _plain(text)
    both = _FEET_AND_INCHES.fullmatch(plain)
    if both:
        sign, feet, inches = both.groups()
        total_in = 12 * _number(feet) + _number(inches)
        total_in = -total_in if sign else total_in
        return Length(float(total_in * MM_PER_INCH), float(total_in))
    single = _SINGLE.fullmatch(plain)
    if not single:
        raise UnitError("no_length", text=text)
    sign, digits, named = single.groups()
    if named is None and "/" in digits and unit == "mm" and not inches_meant:
        inches = -_number(digits) if sign else _number(digits)
        raise UnitError("fraction_in_mm", text=text.strip(), mm=float(inches * MM_PER_INCH))
    meant = named or ("in" if "/" in digits and unit == "mm" else unit)
    value = _number(digits) * _PER_UNIT[meant]
    value = -value if sign else value
    return Length(float(value), float(value / MM_PER_INCH) if meant == "ft" else None)


def _plain(text: str) -> str:
    """The text in one spelling: ft and in for the marks, a point for the comma, `a b/c` for a fraction sign."""
    plain = re.sub(r"[\s\u00a0\u2009\u202f]+", " ", text).strip().lower().replace("\u2212", "-").replace("\u2044", "/")
    for sign, fraction in _VULGAR.items():
        plain = plain.replace(sign, f" {fraction}")
    plain = re.sub(r"''|[\"″”“]", " in", plain)
    plain = re.sub(r"['′’]", " ft", plain)
    plain = re.sub(r"\b(inches|inch|ins)\b", "in", plain)
    plain = re.sub(r"(?<=\d)(inches|inch|ins)\b", "in", plain)
    plain = re.sub(r"(feet|foot)\b", "ft", plain)
    plain = re.sub(r"(millimet(er|re)s?)\b", "mm", plain)
    plain = re.sub(r"\s+", " ", plain).strip()
    if _GROUPED.search(plain):
        raise UnitError("thousands", text=text.strip())
    if _EITHER.search(plain):
        raise UnitError("comma_or_thousands", text=text.strip())
    return plain.replace(",", ".")


def _number(digits: str) -> Fraction:
    """The exact value of `14`, `14.375`, `3/8`, `14 3/8` or `14-3/8`."""
    total = Fraction(0)
    for piece in re.split(r"[ -]+", digits):
        if piece.endswith("/0") or re.search(r"/0+$", piece):
            raise UnitError("no_length", text=digits)
        total += Fraction(piece)
    return total


@dataclass(frozen=True)
class Tape:
    """What a length is read on. `graduation` is in the tape's own unit: 1/16, 1/32, 1/64 inch; 1, 1/2 mm."""

    unit: Unit
    graduation: Fraction

    @property
    def graduation_mm(self) -> float:
        """The smallest step on the tape, in mm."""
        return float(self.graduation * _PER_UNIT[self.unit])


GRADUATIONS: dict[str, tuple[Fraction, ...]] = {
    "mm": (Fraction(1), Fraction(1, 2)),
    "in": (Fraction(1, 16), Fraction(1, 32), Fraction(1, 64)),
}


def tape(unit: Unit, graduation: str) -> Tape:
    """The tape whose graduation is written `1/16`, `1/2` or `1`; UnitError `no_tape` for any other."""
    for step in GRADUATIONS[unit]:
        if str(step) == graduation:
            return Tape(unit, step)
    raise UnitError("no_tape", ("graduation",), text=graduation)


@dataclass(frozen=True)
class Reading:
    """A length as a tape shows it: `whole` and `fraction` (either may be empty), and whether it is a hair over or under that mark."""

    whole: str
    fraction: str
    hair: Hair
    unit: Unit

    @property
    def text(self) -> str:
        """Whole and fraction as one would type them back, without the unit."""
        return f"{self.whole} {self.fraction}".strip()


def read_length(mm: float, on: Tape) -> Reading:
    """The nearest graduation or half of one, so that what is left is a quarter at most, and on which side of it when it is off by more than a tenth
    of a graduation."""
    half_mm = on.graduation_mm / 2
    halves = round(mm / half_mm)
    left_mm = mm - halves * half_mm
    hair: Hair = "" if abs(left_mm) <= on.graduation_mm / 10 else "over" if left_mm > 0 else "under"
    return _reading(halves * on.graduation / 2, hair, on.unit, between=on.unit == "mm" and on.graduation == 1)


def off_the_marks(mm: float, on: Tape) -> bool:
    """Whether a length lies off every graduation, by more than a tenth of one."""
    steps = mm / on.graduation_mm
    return abs(steps - round(steps)) > 0.1


def read_at_least(mm: float, on: Tape) -> Reading:
    """The first graduation that is not less."""
    return _reading(ceil(mm / on.graduation_mm - SAME) * on.graduation, "", on.unit)


def read_as_typed(mm: float, on: Tape) -> Reading | None:
    """A length that somebody has typed, as they typed it, whatever marks the tape has: a fraction to 1/64 inch, or a few decimals.
    None for one that nobody typed so in this unit."""
    exact = mm / float(_PER_UNIT[on.unit])
    if on.unit == "in" and abs(exact * 64 - round(exact * 64)) < SAME:
        return _reading(Fraction(round(exact * 64), 64), "", "in")
    if abs(exact - round(exact, MOST_DECIMALS)) < SAME:
        return Reading(decimals(exact, MOST_DECIMALS).replace("-", "−"), "", "", on.unit)
    return None


def decimals(value: float, most: int) -> str:
    """A figure with as many decimals as it needs, and no more than so many."""
    return f"{round(value, most) + 0.0:.{most}f}".rstrip("0").rstrip(".")


def _reading(value: Fraction, hair: Hair, unit: Unit, *, between: bool = False) -> Reading:
    """`between`: half a millimetre is a half mark, to be guessed between two, and is written so: 63 1/2."""
    sign = "−" if value < 0 else ""
    if unit == "mm" and not (between and value.denominator > 1):
        return Reading(f"{sign}{float(abs(value)):g}", "", hair, "mm")
    whole, part = divmod(abs(value), 1)
    return Reading(f"{sign}{whole}" if whole or not part else sign, str(part) if part else "", hair, unit)


def nudge_length(mm: float, steps: int, on: Tape) -> float:
    """The length `steps` graduations on, landing on a graduation: the first step goes to the next mark."""
    here = mm / on.graduation_mm
    on_mark = abs(here - round(here)) < SAME
    base = round(here) if on_mark else (int(here // 1) if steps > 0 else int(here // 1) + 1)
    return (base + steps) * on.graduation_mm
