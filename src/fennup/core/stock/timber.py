"""What the yard calls a board and what it measures. Typical sizes, all editable after they are filled in."""

from dataclasses import dataclass
from fractions import Fraction

_INCH = Fraction(254, 10)
_SURFACED_IN = {
    "1x2": ("3/4", "3/2"), "1x3": ("3/4", "5/2"), "1x4": ("3/4", "7/2"), "1x6": ("3/4", "11/2"),
    "2x2": ("3/2", "3/2"), "2x3": ("3/2", "5/2"), "2x4": ("3/2", "7/2"), "2x6": ("3/2", "11/2"),
    "2x8": ("3/2", "29/4"), "4x4": ("7/2", "7/2"), "6x6": ("11/2", "11/2"),
}  # fmt: skip
_PLANED_MM = ((18, 44), (18, 69), (18, 94), (20, 45), (20, 60), (20, 95), (27, 60), (27, 95), (44, 69), (44, 94))


@dataclass(frozen=True)
class Nominal:
    """A yard name and the actual width and thickness in mm."""

    name: str
    width_mm: float
    thickness_mm: float


def _nominals() -> dict[str, Nominal]:
    inch = [Nominal(n, float(Fraction(w) * _INCH), float(Fraction(t) * _INCH)) for n, (t, w) in _SURFACED_IN.items()]
    planed = [Nominal(f"{t} x {w} planed", float(w), float(t)) for t, w in _PLANED_MM]
    return {n.name: n for n in inch + planed}


NOMINALS = _nominals()
