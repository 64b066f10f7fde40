"""How long a fastener may be, and how long it should be: from its real way through the boards."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from fennup.core.fasten.table import Bolt, Dowel, Nail, Rules, Screw, Straight
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


def shortest_mm(stack: Stack, one: Straight, rules: Rules, sunk_mm: float = 0.0) -> float:
    """The shortest one that holds: it bites so many shanks, more of them in end grain."""
    shanks = rules.bite_nail if isinstance(one, Nail) else rules.bite_shanks
    bite = one.shank_mm * (max(shanks, rules.bite_end_grain) if stack.into_end_grain else shanks)
    return stack.through_mm + bite - sunk_mm


def lengths_for(stack: Stack, one: Straight, rules: Rules, sunk_mm: float = 0.0) -> Lengths:
    """All lengths of a fastener that are safe and useful there: a bolt goes through both with its washers and its nut, a dowel half into each."""
    if isinstance(one, Bolt):
        low = stack.through_mm + stack.into_mm - sunk_mm + 2 * one.washer_mm + one.nut_mm
        high = float("inf")
    elif isinstance(one, Dowel):
        room = min(stack.through_mm, stack.into_mm) - rules.cover_mm - one.glue_mm
        low, high = 2 * rules.dowel_shanks * one.shank_mm, 2 * room
    else:
        low, high = shortest_mm(stack, one, rules, sunk_mm), longest_mm(stack, rules, sunk_mm)
    fitting = tuple(length for length in one.lengths_mm if low <= length <= high)
    return Lengths(low, high, fitting, "" if fitting else "thin" if low > high else "no_such_length")


def lengths_for_all(stacks: Sequence[Stack], one: Straight, rules: Rules, sunk_mm: float = 0.0) -> Lengths:
    """The lengths that do at every one of some places: the longest of the shortest, the shortest of the longest."""
    each = [lengths_for(stack, one, rules, sunk_mm) for stack in stacks]
    low, high = max(found.shortest_mm for found in each), min(found.longest_mm for found in each)
    fitting = tuple(length for length in one.lengths_mm if low <= length <= high)
    return Lengths(low, high, fitting, "" if fitting else "thin" if low > high else "no_such_length")


def holes_mm(screw: Screw, *, hard: bool) -> tuple[float, float]:
    """The drills: clearance in the near board, pilot in the far one."""
    return screw.clearance_mm, screw.pilot_hard_mm if hard else screw.pilot_soft_mm


def plastic_hole_mm(shank_mm: float, from_fixed_mm: float, per_degree: float, range_c: float) -> float:
    """How wide a hole in plastic must be, mm, that lies so far from where the sheet is held: the shank, and what the sheet grows and shrinks there over
    a year's range of temperature, to either side."""
    return shank_mm + 2 * from_fixed_mm * per_degree * range_c
