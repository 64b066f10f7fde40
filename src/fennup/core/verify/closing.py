"""Does it close: the one verdict that is always in view."""

from dataclasses import dataclass
from typing import Literal

from fennup.core.assembly.model import Assembly
from fennup.core.tolerances import UNSEEN_MM
from fennup.core.verify.joints import JointCheck
from fennup.core.verify.rings import AddsUp
from fennup.core.verify.slid import Gap

State = Literal["exact", "opens", "bare", "open_joint", "shared_wood"]


@dataclass(frozen=True)
class Closing:
    """As designed: `open_joint` does not close, `joint` by `opening_mm` or `overlap_mm`; `bare`: all faces meet, but at
    `joint` a strip `opening_mm` wide lies on nothing; `shared_wood`: two `parts` stand in one another.

    As this saw can be set: `by_itself` is the joint that opens widest by itself, `adding_up` the ring in whose last joint most
    adds up when all others are pushed tight; `exact` where neither is to be seen, else `opens`. `open_side`: whether sides are
    left out of a ring.
    """

    state: State
    joint: str | None = None
    opening_mm: float = 0.0
    overlap_mm: float = 0.0
    parts: tuple[str, ...] = ()
    by_itself: Gap | None = None
    adding_up: AddsUp | None = None
    open_side: bool = False

    @property
    def widest_mm(self) -> float:
        """The widest gap or step that the saw's and the tape's steps leave anywhere."""
        alone, last = self.by_itself, self.adding_up
        return max(max(alone.widest_mm, alone.step_mm) if alone else 0.0, max(last.opening_mm, last.step_mm) if last else 0.0)


def closing_of(
    assembly: Assembly,
    joints: tuple[JointCheck, ...],
    shared: list[tuple[str, str, float]],
    gaps: tuple[Gap, ...],
    rings: tuple[AddsUp, ...],
) -> Closing:
    """The verdict on an assembly: as designed first, then as this saw can be set."""
    worst = max((j for j in joints if not j.closes), key=_misfit, default=None)
    if worst is not None and not worst.reaches_past:
        return Closing("open_joint", worst.joint, max(worst.gap_mm, worst.bare_mm), worst.overlap_mm)
    if shared:
        return Closing("shared_wood", parts=shared[0][:2])
    if worst is not None:
        return Closing("bare", worst.joint, worst.bare_mm)
    alone = max(gaps, key=lambda g: (round(max(g.widest_mm, g.step_mm), 9), round(g.widest_mm, 9)), default=None)
    last = max(rings, key=lambda r: (round(max(r.opening_mm, r.step_mm), 9), round(abs(r.wider_mm), 9)), default=None)
    found = Closing("opens", by_itself=alone, adding_up=last, open_side=any(not ring.closed for ring in assembly.rings))
    seen = max(found.widest_mm, abs(last.wider_mm) if last else 0.0) >= UNSEEN_MM
    return found if seen else Closing("exact", open_side=found.open_side)


def _misfit(joint: JointCheck) -> tuple[bool, float]:
    """An open joint is worse than a bare strip."""
    return not joint.reaches_past, max(joint.gap_mm, joint.overlap_mm, joint.bare_mm)
