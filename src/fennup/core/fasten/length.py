"""How long a fastener may be, and how long it should be: from its real way through the boards."""

from dataclasses import dataclass
from typing import Literal

from fennup.core.fasten.table import Rules, Screw
from fennup.core.fasten.through import Stack

# Why none of the lengths does: the far board is too thin for a bite, or no screw is made between the two limits.
Lacks = Literal["", "thin", "no_such_length"]


@dataclass(frozen=True)
class Lengths:
    """From the shortest useful to the longest safe one, mm, and those of the shop that lie between; `lacks` says why none does."""

    shortest_mm: float
    longest_mm: float
    fitting_mm: tuple[float, ...]
    lacks: Lacks


def longest_mm(stack: Stack, rules: Rules, sunk_mm: float = 0.0) -> float:
    """The longest one that leaves its cover over the tip, the head so far under the surface."""
    return stack.through_mm + stack.into_mm - rules.cover_mm - sunk_mm


def bite_mm(stack: Stack, length_mm: float, sunk_mm: float = 0.0) -> float:
    """How far one reaches into the far board."""
    return length_mm + sunk_mm - stack.through_mm


def shortest_mm(stack: Stack, screw: Screw, rules: Rules, sunk_mm: float = 0.0) -> float:
    """The shortest one that holds: it bites so many shanks, more of them in end grain."""
    bite = screw.shank_mm * (rules.bite_end_grain if stack.into_end_grain else rules.bite_shanks)
    return stack.through_mm + bite - sunk_mm


def lengths_for(stack: Stack, screw: Screw, rules: Rules, sunk_mm: float = 0.0) -> Lengths:
    """All lengths of a screw that are safe and useful there."""
    low, high = shortest_mm(stack, screw, rules, sunk_mm), longest_mm(stack, rules, sunk_mm)
    fitting = tuple(length for length in screw.lengths_mm if low <= length <= high)
    return Lengths(low, high, fitting, "" if fitting else "thin" if low > high else "no_such_length")


def holes_mm(screw: Screw, *, hard: bool) -> tuple[float, float]:
    """The drills: clearance in the near board, pilot in the far one."""
    return screw.clearance_mm, screw.pilot_hard_mm if hard else screw.pilot_soft_mm
