"""Slots for biscuits and splines: how deep, how wide, where, from the wood that there is behind a joint."""

from dataclasses import dataclass
from functools import cached_property

from fennup.core.design import Design
from fennup.core.fasten.choice import Fastening
from fennup.core.fasten.joints import KindOfJoint
from fennup.core.fasten.pattern import Line
from fennup.core.fasten.table import Biscuit, Fasteners, How
from fennup.core.tolerances import SAME

APART_MM = 30.0  # what stays between the ends of two biscuits
DEEPEST_PART = 1 / 3  # of where two boards meet: how deep a spline goes at most
ASIDE_PART = 1 / 3  # of half of where they meet: how far from the middle a slot may lie


@dataclass(frozen=True)
class Slot:
    """A kind of joint's slots; nothing where it is held otherwise."""

    design: Design
    kind: KindOfJoint
    fasteners: Fasteners
    choice: Fastening
    how: How

    @cached_property
    def _line(self) -> Line:
        joint = self.kind.joints[0]
        return Line(self.design, joint, joint.a.board)

    @property
    def contact_mm(self) -> tuple[float, float]:
        """How long and how wide it is where the two boards lie on each other."""
        return self._line.high - self._line.low, 2 * self._line.half

    @property
    def room_mm(self) -> float:
        """How deep a slot may go, square to where they meet, into the one that has less there."""
        return self._deepest[0]

    @property
    def aside_mm(self) -> float:
        """How far from the middle of where they meet it lies: towards the inside of a box's miter there is more wood behind it."""
        return self._deepest[1]

    @cached_property
    def _deepest(self) -> tuple[float, float]:
        ways = []
        for aside in (0.0, self._line.half * ASIDE_PART, -self._line.half * ASIDE_PART):
            edges = [self._line.at(0.0, aside + side * self._widest / 2) for side in (-1.0, 1.0)]
            ways.append((min(min(s.through_mm, s.into_mm) if s else 0.0 for s in edges), aside))
        room, aside = max(ways, key=lambda way: round(way[0], 6))
        return max(0.0, room - self.fasteners.rules.cover_mm), aside

    @property
    def _widest(self) -> float:
        if self.how == "spline":
            return self.fasteners.rules.spline_part * self.contact_mm[1]
        return max((b.slot_mm for b in self.fasteners.biscuits.values()), default=0.0)

    @cached_property
    def fitting(self) -> Biscuit | None:
        """The largest biscuit whose slot the wood takes."""
        long, wide = self.contact_mm
        fitting = [
            b for b in self.fasteners.biscuits.values()
            if b.long_mm <= long and 3 * b.slot_mm <= wide + SAME and self._half(b) <= self.room_mm
        ]  # fmt: skip
        return max(fitting, key=lambda b: b.long_mm, default=None)

    def _half(self, biscuit: Biscuit) -> float:
        """Half of a biscuit, and a little for glue."""
        return biscuit.wide_mm / 2 + self.fasteners.rules.pass_mm / 2

    @cached_property
    def biscuit(self) -> Biscuit | None:
        """Which biscuit: as chosen, else the largest that fits."""
        if self.how != "biscuit":
            return None
        return self.fasteners.biscuits.get(self.choice.size or "") or self.fitting

    @property
    def count(self) -> int:
        """How many biscuits a joint takes."""
        if self.biscuit is None:
            return 0
        long, _ = self.contact_mm
        return self.choice.count or max(1, int((long + APART_MM) // (self.biscuit.long_mm + APART_MM)))

    @property
    def deep_mm(self) -> float | None:
        """How deep it goes into each board."""
        if self.how == "biscuit":
            return self._half(self.biscuit) if self.biscuit else None
        return min(self.room_mm, max(self.contact_mm) * DEEPEST_PART) if self.how == "spline" else None

    @property
    def wide_mm(self) -> float | None:
        """How wide it is."""
        if self.how == "biscuit":
            return self.biscuit.slot_mm if self.biscuit else None
        return self.fasteners.rules.spline_part * self.contact_mm[1] if self.how == "spline" else None
