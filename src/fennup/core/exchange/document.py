"""A solution as a document."""

from math import acos, degrees

from fennup.core.assembly.board import ENDS
from fennup.core.assembly.model import Joint
from fennup.core.exchange.forms import (
    ArrisesDocument,
    BirdsmouthDocument,
    BoardDocument,
    ClaimDocument,
    ClosingDocument,
    ContactDocument,
    CutDocument,
    EdgeDocument,
    EdgesDocument,
    EndsDocument,
    FindingDocument,
    GapDocument,
    HolesDocument,
    JointDocument,
    LapDocument,
    MemberDocument,
    PartDocument,
    PlaneDocument,
    ProofDocument,
    RingDocument,
    SeatDocument,
    SettingDocument,
    SharedDocument,
    SimpleDocument,
    SizeDocument,
    SolutionDocument,
    UseDocument,
    section_document,
)
from fennup.core.geometry.vec import dot
from fennup.core.parts.alike import AS_IT_LIES, turned
from fennup.core.parts.facts import CutFact, PartFacts
from fennup.core.project.describe import describe
from fennup.core.solve import Solution
from fennup.core.verify.boolean import BooleanProof
from fennup.core.verify.closing import Closing
from fennup.core.verify.slid import Gap


def solution_document(solution: Solution, proof: BooleanProof | None) -> SolutionDocument:
    """The solution, unrounded."""
    design, plan = solution.design, solution.plan
    gaps = {gap.joint: gap for gap in plan.fitting.gaps}
    sizes = describe(solution.spec, design.assembly, design.solids).sizes
    return SolutionDocument(
        members=[MemberDocument(key=id, name=m.name, kind=m.spec.kind) for id, m in solution.spec.members.items()],
        boards=_boards(solution),
        sizes=[SizeDocument(key=s.measure, value=s.value, unit=s.unit, standing=s.standing) for s in sizes],
        parts=[_part(facts) for facts in design.facts],
        joints=[
            JointDocument(
                id=joint.id,
                dihedral_deg=_dihedral_deg(solution, joint),
                kind=joint.kind,
                parts=list(dict.fromkeys([joint.a.board, joint.b.board])) if not joint.ends else [b for b, _ in joint.ends],
                gap_mm=check.gap_mm,
                overlap_mm=check.overlap_mm,
                bare_mm=check.bare_mm,
                closes=check.closes,
                as_set=_gap(gaps.get(joint.id)),
            )
            for joint, check in zip(design.assembly.joints, design.joints, strict=True)
        ],
        claims=[ClaimDocument(**vars(c.claim), measured=c.measured) for c in design.claims],
        settings=_settings(solution),
        otherwise=list(plan.otherwise),
        simple=[SimpleDocument(**{**vars(s), "gap": _gap(s.gap)}) for s in design.simple],
        rings=[RingDocument(**{**vars(ring), "boards": list(ring.boards)}) for ring in plan.fitting.rings],
        closing=_closing(plan.closing),
        proof=_proof(proof, solution) if proof else None,
        findings=[FindingDocument(**{**vars(f), "parts": list(f.parts), "fields": list(f.fields)}) for f in plan.findings],
    )


def _dihedral_deg(solution: Solution, joint: Joint) -> float:
    """The angle between the faces of a joint's two boards, inside."""
    a, b = (solution.design.boards[mating.board].frame.z for mating in (joint.a, joint.b))
    return 180.0 - degrees(acos(max(-1.0, min(1.0, dot(a, b)))))


def _boards(solution: Solution) -> list[BoardDocument]:
    part_of = {board: facts for facts in solution.design.facts for board in facts.group.boards}
    made = []
    for board in solution.design.assembly.boards:
        facts = part_of.get(board.id)
        made.append(
            BoardDocument(
                key=board.id,
                name=board.name,
                part=facts.key if facts else None,
                role=board.role,
                found=board.found,
                origin_mm=board.frame.origin,
                x=board.frame.x,
                y=board.frame.y,
                z=board.frame.z,
                notches=[[PlaneDocument(normal=p.normal, offset_mm=p.offset) for p in n.planes] for n in board.notches],
                seats=[SeatDocument(**vars(seat)) for seat in (facts.seats[board.id] if facts else ())],
            )
        )
    return made


def _gap(gap: Gap | None) -> GapDocument | None:
    return GapDocument(**{name: v for name, v in vars(gap).items() if name != "joint"}, at=gap.at) if gap else None


def _closing(closing: Closing) -> ClosingDocument:
    alone, last = closing.by_itself, closing.adding_up
    named = {"by_itself": alone.joint if alone else None, "adding_up": last.joint if last else None}
    return ClosingDocument(**{**vars(closing), "parts": list(closing.parts), **named})


def _proof(proof: BooleanProof, solution: Solution) -> ProofDocument:
    return ProofDocument(
        holds=proof.holds,
        confirms=proof.confirms(solution.plan.closing, solution.design.joints),
        sum_mm3=proof.sum_mm3,
        first_mm3=proof.first_mm3,
        unlike=list(proof.unlike),
        shared=[SharedDocument(parts=[a, b], volume_mm3=volume) for a, b, volume in proof.shared],
        contacts=[ContactDocument(**vars(contact)) for contact in proof.contacts],
    )


def _part(facts: PartFacts) -> PartDocument:
    board, part = facts.board, facts.group
    return PartDocument(
        id=part.id,
        fingerprint=facts.fingerprint,
        turns=[tuple(turned(turn, axis) for axis in AS_IT_LIES) for turn in facts.turns],
        laps=[LapDocument(**vars(lap)) for lap in facts.laps],
        birdsmouths=[BirdsmouthDocument(**vars(mouth)) for mouth in facts.birdsmouths],
        holes=[HolesDocument(**{**vars(row), "along_mm": list(row.along_mm)}) for row in facts.holes],
        label=board.name,
        count=len(part.boards),
        boards=list(part.boards),
        mirror_of=part.mirror_of,
        turned_over_of=part.turned_over_of,
        section=section_document(board.section),
        arrises_mm=None if board.panel else ArrisesDocument(**facts.arrises),
        outline_mm=[side.length_mm for side in facts.outline] if board.panel else None,
        overall_length_mm=facts.extent[0],
        volume_mm3=facts.solid.volume(),
        ends=EndsDocument(**{end: [_cut(cut) for cut in facts.ends[end]] for end in ENDS}),
        edges=_edges(facts),
    )


def _cut(cut: CutFact) -> CutDocument:
    return CutDocument(key=cut.key, miter_deg=cut.miter_deg, bevel_deg=cut.bevel_deg, edge_trace_deg=cut.edge_trace_deg)


def _edges(facts: PartFacts) -> EdgesDocument:
    """Rip bevels, and the finished part's extent across the board."""
    bevels = {("backing" if rip.backing else rip.edge): rip.bevel_deg for rip in facts.rips}
    upper = EdgeDocument(rip_bevel_deg=bevels.get("upper", 0.0), backing_bevel_deg=bevels.get("backing"))
    lower = EdgeDocument(rip_bevel_deg=bevels.get("lower", 0.0))
    return EdgesDocument(upper=upper, lower=lower, width_before_ripping_mm=facts.extent[1])


def _settings(solution: Solution) -> list[SettingDocument]:
    tools = solution.plan.tools
    return [
        SettingDocument(
            tool=s.tool,
            swing_deg=s.swing_deg,
            tilt_deg=s.tilt_deg,
            swing_as_set_deg=s.swing_as_set_deg,
            tilt_as_set_deg=s.tilt_as_set_deg,
            swing_on_scale_deg=tools[s.tool].swing_shown(s.swing_dial_deg),
            tilt_on_scale_deg=tools[s.tool].tilt_shown(s.tilt_dial_deg),
            reachable=s.reachable,
            uses=[
                UseDocument(
                    part=u.part,
                    end=u.end,
                    cut=u.index,
                    count=u.count,
                    down=u.pose.down,
                    fence=u.pose.fence,
                    propped=u.pose.propped,
                    kept=u.kept,
                )
                for u in s.uses
            ],
        )
        for s in solution.plan.settings
    ]
