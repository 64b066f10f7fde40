"""What fasteners would meet: each other, and boards that lie over their heads."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

from fennup.core.design import Design
from fennup.core.fasten.pattern import lines_apart
from fennup.core.fasten.table import Rules, Straight
from fennup.core.fasten.through import Stack, is_in
from fennup.core.geometry.vec import Vec, add, scale

OVER_HEAD = 0.5  # mm off a head another board must not be, or it covers it


@dataclass(frozen=True)
class Driven:
    """A fastener in its place: which one, how long, and how far its head is sunk."""

    stack: Stack
    screw: Straight
    length_mm: float
    sunk_mm: float = 0.0

    @property
    def line(self) -> tuple[Vec, Vec]:
        """From under its head to its tip."""
        start = add(self.stack.head, scale(self.stack.way, self.sunk_mm))
        return start, add(start, scale(self.stack.way, self.length_mm))


@dataclass(frozen=True)
class Meeting:
    """Two fasteners that come too near each other, by their places in the list, and what is left between them, mm (less than 0: one in the other)."""

    first: int
    second: int
    left_mm: float


def meetings(driven: Sequence[Driven], rules: Rules) -> list[Meeting]:
    """Every two that leave less than they should between them."""
    found = []
    for (i, a), (k, b) in combinations(enumerate(driven), 2):
        left = lines_apart(a.line, b.line) - (a.screw.shank_mm + b.screw.shank_mm) / 2
        if left < rules.pass_mm:
            found.append(Meeting(i, k, left))
    return found


def over_head(design: Design, one: Driven) -> str | None:
    """The board that covers a fastener's head, which then must be sunk; None where it stays free."""
    at = add(one.stack.head, scale(one.stack.way, -OVER_HEAD))
    for id, solid in design.solids.items():
        if is_in(solid, at):
            return id
    return None
