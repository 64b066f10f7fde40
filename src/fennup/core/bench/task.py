"""One thing to do at the bench: a step done to one piece, a setting tried in scrap, a set laid together; and what must be measured then."""

from dataclasses import dataclass
from math import radians, tan
from typing import Literal

from fennup.core.parts.solid import Arris
from fennup.core.records.entry import Verdict
from fennup.core.steps.step import Work

What = Literal["length", "width", "face", "tilt", "pair", "pair_tilt", "spread"]
Doing = Literal["step", "try", "together"]
FAR_MM, FAR_DEG = 5.0, 5.0  # farther out than that, it was misread before it was cut so
INCH_MM, FOOT_MM = 25.4, 304.8
FEET_IN = 12.0
BURNED_MM = (10.0, 100.0)  # where a tape is held at a mark when its hook is not trusted
Slip = Literal[
    "inches", "mm", "cm", "m", "nought", "foot", "inch", "burned", "run", "feet_inches", "swapped", "rest_of_square", "rest_of_straight", "half",
]  # fmt: skip


@dataclass(frozen=True)
class Check:
    """What to measure: `expected`, in `unit`; up to `right` off it is right, up to `near` it can be used, beyond `far` it was probably misread.
    `opens`: the gap that one unit off makes at the joint, mm. `arris`: along which long corner."""

    what: What
    expected: float
    unit: Literal["mm", "deg"]
    right: float
    near: float
    far: float
    opens: float
    arris: Arris | None = None


@dataclass(frozen=True)
class Task:
    """`key`: by which it is recorded; `step`: the step that it is part of; `piece`: the board it is done to, none of a try; `first`: its like follow, so
    it is measured before them."""

    key: str
    doing: Doing
    step: str
    work: Work
    part: str = ""
    piece: str = ""
    fingerprint: str = ""
    checks: tuple[Check, ...] = ()
    first: bool = False


def length_check(
    what: What, expected: float, opens: float, allowance_mm: float, graduation_mm: float, arris: Arris | None
) -> Check:
    """A length: right up to half of the gap that is let pass, or as near as the tape tells."""
    finest = graduation_mm / 2
    near = max(allowance_mm / max(opens, tan(radians(1.0))), finest)
    return Check(what, expected, "mm", max(near / 2, finest), near, max(FAR_MM, 3 * near), opens, arris)


def angle_check(what: What, expected: float, across_mm: float, allowance_mm: float) -> Check:
    """An angle: off by d it opens the joint by so much over the width across as d makes there."""
    opens = across_mm * tan(radians(1.0))
    near = allowance_mm / opens
    return Check(what, expected, "deg", near / 2, near, max(FAR_DEG, 3 * near), opens)


def verdict_of(check: Check, value: float) -> Verdict:
    """What a reading is worth."""
    off = abs(value - check.expected)
    return "right" if off <= check.right else "near" if off <= check.near else "wrong"


@dataclass(frozen=True)
class Misread:
    """A reading that a well-known slip would give in place of the expected one."""

    value: float
    slip: Slip


def _digits_off(mm: float) -> list[Misread]:
    """What comes of a length whose feet and inches are run together (5' 3" as 53) or whose inches are parted (53 as 5' 3"), change places, or two
    neighbouring digits of which do, in mm or in inches."""
    inches = mm / INCH_MM
    feet, rest = divmod(inches, FEET_IN)
    found = []
    if feet >= 1:
        found.append(Misread((int(feet) * (10 if rest < 10 else 100) + rest) * INCH_MM, "run"))
        found.append(Misread((int(rest) * FEET_IN + feet + rest % 1.0) * INCH_MM, "feet_inches"))
    if inches >= 10:
        found.append(Misread((inches // 10 * FEET_IN + inches % 10) * INCH_MM, "run"))
    for value, unit in ((mm, 1.0), (inches, INCH_MM)):
        digits = str(int(value))
        for k in range(len(digits) - 1):
            if digits[k] != digits[k + 1]:
                other = int(digits[:k] + digits[k + 1] + digits[k] + digits[k + 2 :])
                found.append(Misread((other + value % 1.0) * unit, "swapped"))
    return found


def slips_of(check: Check) -> tuple[Misread, ...]:
    """What somebody reads who mistakes the unit, counts from a mark, or takes the other angle."""
    v = check.expected
    if check.unit == "deg":
        found = [Misread(90.0 - v, "rest_of_square"), Misread(180.0 - v, "rest_of_straight"), Misread(v / 2, "half")]
    else:
        found = [Misread(v * INCH_MM, "mm"), Misread(v / INCH_MM, "inches"), Misread(v / 10, "cm")]
        found += [Misread(v + s * FOOT_MM, "foot") for s in (-1, 1)]
        found += [Misread(v + s * INCH_MM, "inch") for s in (-1, 1)]
        found += [Misread(v + s * mm, "burned") for mm in BURNED_MM for s in (-1, 1)]
        found += [*(Misread(off, "nought") for off in (v * 10, v * 100, v / 100)), Misread(v / 1000, "m"), *_digits_off(v)]
    return tuple(m for m in found if m.value > 0 and abs(m.value - v) > check.far)
