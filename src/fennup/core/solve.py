"""From a spec to everything that is known about it: the one file that knows every stage."""

from dataclasses import dataclass
from functools import cached_property
from typing import Any

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly, Claim, Finding
from fennup.core.errors import CutError, SpecError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.alike import PartGroup, group_parts
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid, solid_of
from fennup.core.saw.machine import Machine
from fennup.core.saw.settings import Setting, settings_for
from fennup.core.verify.boolean import BooleanProof, boolean_proof
from fennup.core.verify.closing import Closing, closing_of
from fennup.core.verify.findings import findings_of
from fennup.core.verify.joints import JointCheck, check_joint, shared_wood
from fennup.core.verify.made import Ends, rounded_to
from fennup.core.verify.rings import AddsUp, adds_up
from fennup.core.verify.simple import SimpleGap, simple_gaps
from fennup.core.verify.slid import Gap, gaps_of


@dataclass(frozen=True)
class Care:
    """How exactly one works: the tape's graduation that lengths are cut to (None: exactly), and the widest gap or step
    that is still let pass."""

    graduation_mm: float | None = None
    allowance_mm: float = 0.5


CARE = Care()


@dataclass(frozen=True)
class ClaimCheck:
    """What was asked and what the solids measure; `measured` is None where these boards cannot be measured so."""

    claim: Claim
    measured: float | None


@dataclass(frozen=True)
class Solution:
    """Everything derived from one spec, one saw and how exactly one works. Same input, same output. `gaps`: what every joint opens by itself as the saw can be
    set, `rings`: what adds up round every ring."""

    spec: Any
    machine: Machine
    care: Care
    assembly: Assembly
    solids: dict[str, Solid]
    ruler: Ruler
    parts: tuple[PartGroup, ...]
    joints: tuple[JointCheck, ...]
    claims: tuple[ClaimCheck, ...]
    settings: tuple[Setting, ...]
    gaps: tuple[Gap, ...]
    rings: tuple[AddsUp, ...]
    closing: Closing
    findings: tuple[Finding, ...]

    @cached_property
    def simple(self) -> tuple[SimpleGap, ...]:
        """What plain settings in place of compound ones would open, reckoned when it is first asked for."""
        return simple_gaps(self.assembly, self.solids, self.parts)

    @cached_property
    def proof(self) -> BooleanProof:
        """The second proof, made when it is first asked for."""
        return boolean_proof(self.assembly, self.solids)

    def boards(self) -> dict[str, Board]:
        """Boards by id."""
        return {board.id: board for board in self.assembly.boards}


# What can be worked out while somebody waits, measured: in boards, of which a lap costs as much as one and a half.
MOST_EFFORT = 650.0
LAP_EFFORT = 1.45


def _check_effort(assembly: Assembly) -> None:
    """SpecError `too_much` where it would take seconds, with what it comes to."""
    laps = sum(joint.kind == "lap" for joint in assembly.joints)
    effort = len(assembly.boards) + laps * LAP_EFFORT
    if effort > MOST_EFFORT:
        field = "members" if len(assembly.inside) > 1 else "inner.bars.0.count" if laps else ""
        raise SpecError("too_much", (field,), boards=len(assembly.boards), laps=laps, share=MOST_EFFORT / effort)


def solve(spec: Any, machine: Machine, care: Care = CARE) -> Solution:
    """Solve a valid spec of any kind. SpecError when no solid answers to it."""
    kind = KINDS[spec.kind]
    spec = kind.settle(spec)
    assembly = kind.assemble(spec)
    _check_effort(assembly)
    try:
        solids = {board.id: solid_of(board) for board in assembly.boards}
    except CutError as error:
        raise SpecError("part_vanishes", ("",), side=str(error.fields[0] if error.fields else "")) from error
    ruler = Ruler(assembly)
    parts = group_parts(tuple(b for b in assembly.boards if not b.found), solids)
    joints = tuple(check_joint(assembly, joint, solids) for joint in assembly.joints)
    claims = tuple(ClaimCheck(claim, ruler.measure(claim.measure)) for claim in assembly.claims)
    boards = {board.id: board for board in assembly.boards}
    settings = settings_for(parts, boards, machine)
    shared = shared_wood(solids)
    ends = Ends(assembly, solids, rounded_to(boards, parts, settings, machine), parts)
    gaps, rings = gaps_of(ends), adds_up(ends, care.graduation_mm)
    closing = closing_of(assembly, joints, shared, gaps, rings)
    checked = [(c.claim, c.measured) for c in claims]
    findings = findings_of(assembly, solids, parts, joints, checked, settings, machine, closing, care.allowance_mm)
    return Solution(spec, machine, care, assembly, solids, ruler, parts, joints, claims, settings, gaps, rings, closing, findings)
