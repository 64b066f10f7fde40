"""The first step: what follows from a spec alone, whatever tools there are."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly, Claim
from fennup.core.errors import CutError, SpecError
from fennup.core.parts.alike import PartGroup, group_parts
from fennup.core.parts.facts import PartFacts, facts_of
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid, solids_of_all
from fennup.core.verify.boolean import BooleanProof, boolean_proof
from fennup.core.verify.joints import JointCheck, check_joint, shared_wood
from fennup.core.verify.simple import SimpleGap, simple_gaps

# What can be worked out while somebody waits, measured: in boards, of which a lap costs as much as one and a half.
MOST_EFFORT = 650.0
LAP_EFFORT = 1.45
NONE_KNOWN: Mapping[str, Solid] = {}


@dataclass(frozen=True)
class ClaimCheck:
    """What was asked and what the solids measure; `measured` is None where these boards cannot be measured so."""

    claim: Claim
    measured: float | None


@dataclass(frozen=True)
class Design:
    """The finished pieces as drawn: an assembly with its solids, which boards are one part, and how its joints meet."""

    assembly: Assembly
    solids: dict[str, Solid]
    parts: tuple[PartGroup, ...]
    joints: tuple[JointCheck, ...]
    claims: tuple[ClaimCheck, ...]
    shared: tuple[tuple[str, str, float], ...]

    @cached_property
    def boards(self) -> dict[str, Board]:
        """Boards by key."""
        return {board.id: board for board in self.assembly.boards}

    @cached_property
    def ruler(self) -> Ruler:
        """Takes sizes on it."""
        return Ruler(self.assembly)

    @cached_property
    def facts(self) -> tuple[PartFacts, ...]:
        """All that the parts are cut by, in their order."""
        return facts_of(self.assembly, self.solids, self.parts)

    @cached_property
    def simple(self) -> tuple[SimpleGap, ...]:
        """What plain settings in place of compound ones would open, reckoned when it is first asked for."""
        return simple_gaps(self.assembly, self.solids, self.parts)

    @cached_property
    def proof(self) -> BooleanProof:
        """The second proof, made when it is first asked for."""
        return boolean_proof(self.assembly, self.solids)


def design_of(assembly: Assembly, known: Mapping[str, Solid] = NONE_KNOWN) -> Design:
    """Cut the boards, measure them and check how they meet; solids that are `known` are not cut again. SpecError where a board vanishes, or it would take too long."""
    _check_effort(assembly)
    try:
        solids = solids_of_all(board for board in assembly.boards if board.id not in known)
        solids = {board.id: known.get(board.id) or solids[board.id] for board in assembly.boards}
    except CutError as error:
        part = assembly.board(str(error.fields[0])).name if error.fields else ""
        raise SpecError("part_vanishes", ("",), part=part) from error
    ruler = Ruler(assembly)
    return Design(
        assembly,
        solids,
        group_parts(tuple(b for b in assembly.boards if not b.found), solids),
        tuple(check_joint(assembly, joint, solids) for joint in assembly.joints),
        tuple(ClaimCheck(claim, ruler.measure(claim.measure)) for claim in assembly.claims),
        tuple(shared_wood(solids)),
    )


def _check_effort(assembly: Assembly) -> None:
    """SpecError `too_much` where it would take seconds, with what it comes to."""
    laps = sum(joint.kind == "lap" for joint in assembly.joints)
    effort = len(assembly.boards) + laps * LAP_EFFORT
    if effort > MOST_EFFORT:
        within = next(iter(assembly.inside), None) if len(assembly.inside) == 1 else None
        field = "inner.bars.0.count" if laps else ""
        field = "members" if len(assembly.inside) > 1 else f"members.{within}.spec.{field}".rstrip(".") if within else field
        raise SpecError("too_much", (field,), boards=len(assembly.boards), laps=laps, share=MOST_EFFORT / effort)
