"""A solution as a document: the same for the web, the command line and anyone else's program. mm and degrees."""

from typing import Literal

from pydantic import BaseModel

from fennup.core.assembly.board import ENDS, Board
from fennup.core.parts.solid import ARRISES, Solid, arris_length, end_cut, face_sides, rip_bevel_deg
from fennup.core.solve import Solution
from fennup.core.verify.boolean import BooleanProof
from fennup.core.verify.closing import Closing
from fennup.core.verify.slid import Gap


class CutDocument(BaseModel):
    """One end cut; signs as in docs/conventions.md."""

    miter_deg: float
    bevel_deg: float
    edge_trace_deg: float


class RabbetDocument(BaseModel):
    """A step along the upper edge, open to the back."""

    width_mm: float
    depth_mm: float


class GrooveDocument(BaseModel):
    """A channel along the back, its near side so far in from the lower edge."""

    from_lower_mm: float
    width_mm: float
    depth_mm: float


class SectionDocument(BaseModel):
    """Actual section."""

    width_mm: float
    thickness_mm: float
    rabbet: RabbetDocument | None
    groove: GrooveDocument | None


class ArrisesDocument(BaseModel):
    """Length along each of the four long corners, mm."""

    face_upper: float
    face_lower: float
    back_upper: float
    back_lower: float


class EdgeDocument(BaseModel):
    """A long edge: 0 where it is left square. A backed edge has a second bevel, on the back's side of its ridge."""

    rip_bevel_deg: float
    backing_bevel_deg: float | None = None


class EdgesDocument(BaseModel):
    """Both long edges, and the width that the board must have before they are ripped."""

    upper: EdgeDocument
    lower: EdgeDocument
    width_before_ripping_mm: float


class EndsDocument(BaseModel):
    """The cuts of each end, in the order in which they are made."""

    left: list[CutDocument]
    right: list[CutDocument]


class PartDocument(BaseModel):
    """One part: `members` are the boards that are this part, `mirror_of` the part that it is the mirror image of,
    `turned_over_of` the one that it is when turned over, which then shows its back.

    A panel has no arrises: `outline_mm` are then the sides of its face, in order.
    """

    id: str
    label: str
    count: int
    members: list[str]
    mirror_of: str | None
    turned_over_of: str | None
    section: SectionDocument
    arrises_mm: ArrisesDocument | None
    outline_mm: list[float] | None
    overall_length_mm: float
    volume_mm3: float
    ends: EndsDocument
    edges: EdgesDocument


Where = Literal["face", "back", "upper", "lower"]


class GapDocument(BaseModel):
    """What a joint opens by itself, at the face, back, upper and lower side of its boards; `at`: where it is widest.
    `step_mm`: by how much its two faces are not equally long."""

    face_mm: float
    back_mm: float
    upper_mm: float
    lower_mm: float
    step_mm: float
    at: Where


class SimpleDocument(BaseModel):
    """What a plain setting in place of the compound one would open; null where it does not come together at all."""

    joint: str
    how: Literal["flat", "on_edge", "swapped", "from_vertical", "from_level"]
    swing_deg: float
    tilt_deg: float
    gap: GapDocument | None


class JointDocument(BaseModel):
    """One joint as measured on the solids."""

    id: str
    kind: Literal["miter", "butt", "edge", "lap"]
    parts: list[str]
    gap_mm: float
    overlap_mm: float
    bare_mm: float
    closes: bool
    as_set: GapDocument | None


class ClaimDocument(BaseModel):
    """What was asked and what the solids measure."""

    measure: str
    field: str
    unit: Literal["mm", "deg"]
    asked: float
    measured: float | None


class UseDocument(BaseModel):
    """One cut made at a setting, and how the board lies for it."""

    part: str
    end: Literal["left", "right"]
    cut: int
    count: int
    down: Literal["face", "back", "upper", "lower"]
    fence: Literal["face", "back", "upper", "lower"]
    propped: bool
    kept: Literal["left", "right"]


class SettingDocument(BaseModel):
    """One position of the saw: swing + to the right, tilt + to the left; exact, and as this saw can be set."""

    swing_deg: float
    tilt_deg: float
    swing_as_set_deg: float
    tilt_as_set_deg: float
    swing_on_scale_deg: float
    tilt_on_scale_deg: float
    reachable: bool
    uses: list[UseDocument]


class RingDocument(BaseModel):
    """What adds up in the last joint of a ring when all others are pushed tight; of an open one, without a last joint, how
    much farther apart the ends beside the open side come to stand."""

    joint: str | None
    boards: list[str]
    opening_mm: float
    at: Where | None
    step_mm: float
    wider_mm: float


class ClosingDocument(BaseModel):
    """The verdict; see docs/conventions.md, Closing. `by_itself`: the joint that opens widest by itself as the saw can be set,
    `adding_up`: the ring in which most adds up."""

    state: Literal["exact", "opens", "bare", "open_joint", "shared_wood"]
    joint: str | None
    opening_mm: float
    overlap_mm: float
    parts: list[str]
    open_side: bool
    by_itself: str | None
    adding_up: str | None


class FindingDocument(BaseModel):
    """Something to know before cutting."""

    code: str
    severity: Literal["note", "warning", "error"]
    parts: list[str]
    fields: list[str]
    value: float | None
    limit: float | None


class SharedDocument(BaseModel):
    """Two boards that stand in one another."""

    parts: list[str]
    volume_mm3: float


class ContactDocument(BaseModel):
    """The area in which a joint's faces touch, and the area of the face that should lie wholly on the other one."""

    joint: str
    touching_mm2: float
    face_mm2: float


class ProofDocument(BaseModel):
    """The second proof, by a solid-modelling library; see docs/conventions.md, Closing. `confirms`: it comes to the same verdict
    as the first."""

    holds: bool
    confirms: bool
    sum_mm3: float
    first_mm3: float
    unlike: list[str]
    shared: list[SharedDocument]
    contacts: list[ContactDocument]


class SolutionDocument(BaseModel):
    """Everything derived from a spec and a saw. `proof` is null where only the first proof has been run."""

    kind: str
    parts: list[PartDocument]
    joints: list[JointDocument]
    claims: list[ClaimDocument]
    settings: list[SettingDocument]
    simple: list[SimpleDocument]
    rings: list[RingDocument]
    closing: ClosingDocument
    proof: ProofDocument | None
    findings: list[FindingDocument]


def solution_document(solution: Solution, proof: BooleanProof | None) -> SolutionDocument:
    """The solution, unrounded."""
    gaps = {gap.joint: gap for gap in solution.gaps}
    return SolutionDocument(
        kind=solution.spec.kind,
        parts=_parts(solution),
        joints=[
            JointDocument(
                id=joint.id,
                kind=joint.kind,
                parts=list(dict.fromkeys([joint.a.board, joint.b.board])) if not joint.ends else [b for b, _ in joint.ends],
                gap_mm=check.gap_mm,
                overlap_mm=check.overlap_mm,
                bare_mm=check.bare_mm,
                closes=check.closes,
                as_set=_gap(gaps.get(joint.id)),
            )
            for joint, check in zip(solution.assembly.joints, solution.joints, strict=True)
        ],
        claims=[ClaimDocument(**vars(c.claim), measured=c.measured) for c in solution.claims],
        settings=_settings(solution),
        simple=[SimpleDocument(**{**vars(s), "gap": _gap(s.gap)}) for s in solution.simple],
        rings=[RingDocument(**{**vars(ring), "boards": list(ring.boards)}) for ring in solution.rings],
        closing=_closing(solution.closing),
        proof=_proof(proof, solution) if proof else None,
        findings=[FindingDocument(**{**vars(f), "parts": list(f.parts), "fields": list(f.fields)}) for f in solution.findings],
    )


def _gap(gap: Gap | None) -> GapDocument | None:
    return GapDocument(**{name: v for name, v in vars(gap).items() if name != "joint"}, at=gap.at) if gap else None


def _closing(closing: Closing) -> ClosingDocument:
    alone, last = closing.by_itself, closing.adding_up
    named = {"by_itself": alone.joint if alone else None, "adding_up": last.joint if last else None}
    return ClosingDocument(**{**vars(closing), "parts": list(closing.parts), **named})


def _proof(proof: BooleanProof, solution: Solution) -> ProofDocument:
    return ProofDocument(
        holds=proof.holds,
        confirms=proof.confirms(solution.closing, solution.joints),
        sum_mm3=proof.sum_mm3,
        first_mm3=proof.first_mm3,
        unlike=list(proof.unlike),
        shared=[SharedDocument(parts=[a, b], volume_mm3=volume) for a, b, volume in proof.shared],
        contacts=[ContactDocument(**vars(contact)) for contact in proof.contacts],
    )


def _parts(solution: Solution) -> list[PartDocument]:
    boards = solution.boards()
    made = []
    for part in solution.parts:
        board, solid = boards[part.id], solution.solids[part.id]
        low, high = solid.extent_x()
        rabbet, groove = board.section.rabbet, board.section.groove
        made.append(
            PartDocument(
                id=part.id,
                label=board.name,
                count=len(part.boards),
                members=list(part.boards),
                mirror_of=part.mirror_of,
                turned_over_of=part.turned_over_of,
                section=SectionDocument(
                    width_mm=board.section.width_mm,
                    thickness_mm=board.section.thickness_mm,
                    rabbet=RabbetDocument(**vars(rabbet)) if rabbet else None,
                    groove=GrooveDocument(**vars(groove)) if groove else None,
                ),
                arrises_mm=None if board.panel else ArrisesDocument(**{a: arris_length(board, a) for a in ARRISES}),
                outline_mm=[length for length, _, _ in face_sides(solid)] if board.panel else None,
                overall_length_mm=high - low,
                volume_mm3=solid.volume(),
                ends=EndsDocument(**{end: [CutDocument(**vars(end_cut(c))) for c in board.ends(end)] for end in ENDS}),
                edges=_edges(board, solid),
            )
        )
    return made


def _edges(board: Board, solid: Solid) -> EdgesDocument:
    """Rip bevels, and the finished part's extent across the board."""
    across = [p[1] for piece in solid.local for p in piece.points]
    rips = {"upper": board.upper_rip, "lower": board.lower_rip}
    edges = {side: EdgeDocument(rip_bevel_deg=rip_bevel_deg(plane) if plane else 0.0) for side, plane in rips.items()}
    if board.backing:
        edges["upper"] = EdgeDocument(rip_bevel_deg=edges["upper"].rip_bevel_deg, backing_bevel_deg=rip_bevel_deg(board.backing))
    return EdgesDocument(**edges, width_before_ripping_mm=max(across) - min(across))


def _settings(solution: Solution) -> list[SettingDocument]:
    saw = solution.machine
    return [
        SettingDocument(
            swing_deg=s.swing_deg,
            tilt_deg=s.tilt_deg,
            swing_as_set_deg=s.swing_as_set_deg,
            tilt_as_set_deg=s.tilt_as_set_deg,
            swing_on_scale_deg=saw.swing_shown(s.swing_as_set_deg),
            tilt_on_scale_deg=saw.tilt_shown(s.tilt_as_set_deg),
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
        for s in solution.settings
    ]
