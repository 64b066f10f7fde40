"""Does it close: the one verdict that is always in view."""

from dataclasses import dataclass
from typing import Literal

from fennup.core.parts.measure import Ruler
from fennup.core.saw.machine import Machine
from fennup.core.verify.as_set import Edge, as_set
from fennup.core.verify.joints import JointCheck

UNSEEN_MM = 5e-4
State = Literal["exact", "opens", "open_joint", "shared_wood", "chain"]


@dataclass(frozen=True)
class Closing:
    """`exact`: closes, and the saw can show every setting. `opens`: closes as designed, but the saw's steps leave
    `opening_mm` at the last `joint`, at its `at` edge (0: only a shift or a step stays, see AsSet). `open_joint`: does not close as designed, and where.
    `shared_wood`: two parts stand in one another. `chain`: an open chain whose joints all close."""

    state: State
    joint: str | None = None
    opening_mm: float = 0.0
    overlap_mm: float = 0.0
    at: Edge | None = None
    shift_mm: float = 0.0
    step_mm: float = 0.0
    parts: tuple[str, ...] = ()


def closing_of(ruler: Ruler, joints: tuple[JointCheck, ...], shared: list[tuple[str, str, float]], machine: Machine) -> Closing:
    """The verdict on an assembly: as designed first, then as this saw can be set."""
    worst = max((j for j in joints if not j.closes), key=_misfit, default=None)
    if worst is not None:
        return Closing("open_joint", worst.joint, max(worst.gap_mm, worst.bare_mm), worst.overlap_mm)
    if shared:
        return Closing("shared_wood", parts=shared[0][:2])
    if not ruler.assembly.closed:
        return Closing("chain")
    result = as_set(ruler, machine)
    if max(result.opening_mm, result.shift_mm, result.step_mm) < UNSEEN_MM:
        return Closing("exact", result.joint)
    return Closing("opens", result.joint, result.opening_mm, 0.0, result.at, result.shift_mm, result.step_mm)


def _misfit(joint: JointCheck) -> float:
    return max(joint.gap_mm, joint.overlap_mm, joint.bare_mm)
