"""Does it close: the one verdict that is always in view."""

from dataclasses import dataclass
from typing import Literal

from fennup.core.geometry.vec import dot
from fennup.core.parts.measure import Ruler
from fennup.core.saw.machine import Machine
from fennup.core.verify.as_set import Edge, as_set
from fennup.core.verify.joints import JointCheck
from fennup.core.verify.slid import Gap

UNSEEN_MM = 5e-4
Where = Edge | Literal["face", "back"]
State = Literal["exact", "opens", "open_joint", "shared_wood", "chain"]


@dataclass(frozen=True)
class Closing:
    """`exact`: closes, and the saw can show every setting. `opens`: closes as designed, but the saw's steps leave
    `opening_mm` at the last `joint`, at its `at` edge (0: only a shift or a step stays, see AsSet); of boards that do not all
    lie flat, at the worst `joint`, at its face or back. `open_joint`: does not close as designed, and where.
    `shared_wood`: two parts stand in one another. `chain`: an open chain whose joints all close."""

    state: State
    joint: str | None = None
    opening_mm: float = 0.0
    overlap_mm: float = 0.0
    at: Where | None = None
    shift_mm: float = 0.0
    step_mm: float = 0.0
    parts: tuple[str, ...] = ()


def closing_of(
    ruler: Ruler,
    joints: tuple[JointCheck, ...],
    shared: list[tuple[str, str, float]],
    gaps: tuple[Gap, ...],
    machine: Machine,
) -> Closing:
    """The verdict on an assembly: as designed first, then as this saw can be set."""
    worst = max((j for j in joints if not j.closes), key=_misfit, default=None)
    if worst is not None:
        return Closing("open_joint", worst.joint, max(worst.gap_mm, worst.bare_mm), worst.overlap_mm)
    if shared:
        return Closing("shared_wood", parts=shared[0][:2])
    if ruler.assembly.outline("outside") is None or not _lies_flat(ruler):
        return _in_space(gaps)
    if not ruler.assembly.closed:
        return Closing("chain")
    result = as_set(ruler, machine)
    if max(result.opening_mm, result.shift_mm, result.step_mm) < UNSEEN_MM:
        return Closing("exact", result.joint)
    return Closing("opens", result.joint, result.opening_mm, 0.0, result.at, result.shift_mm, result.step_mm)


def _lies_flat(ruler: Ruler) -> bool:
    """Whether all boards have their faces in one plane."""
    first = ruler.assembly.boards[0].frame.z
    return all(dot(board.frame.z, first) > 1 - 1e-12 for board in ruler.assembly.boards)


def _in_space(gaps: tuple[Gap, ...]) -> Closing:
    """The joint that the saw's steps and the tape's leave widest."""
    if not gaps:
        return Closing("exact")
    worst = max(gaps, key=lambda gap: (round(gap.widest_mm, 9), round(gap.step_mm, 9)))
    step = max(gap.step_mm for gap in gaps)
    if max(worst.widest_mm, step) < UNSEEN_MM:
        return Closing("exact", worst.joint)
    return Closing("opens", worst.joint, worst.widest_mm, 0.0, "face" if worst.face_mm >= worst.back_mm else "back", 0.0, step)


def _misfit(joint: JointCheck) -> float:
    return max(joint.gap_mm, joint.overlap_mm, joint.bare_mm)
