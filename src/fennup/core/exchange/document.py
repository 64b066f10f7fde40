"""A solution as a document: the same for the web, the command line and anyone else's program. mm and degrees."""

from math import acos, degrees
from typing import Literal

from pydantic import BaseModel

from fennup.core.assembly.board import ENDS
from fennup.core.assembly.model import Joint
from fennup.core.geometry.vec import dot
from fennup.core.parts.alike import AS_IT_LIES, turned
from fennup.core.parts.facts import CutFact, PartFacts
from fennup.core.project.describe import describe
from fennup.core.solve import Solution
from fennup.core.verify.boolean import BooleanProof
from fennup.core.verify.closing import Closing
from fennup.core.verify.slid import Gap

Point = tuple[float, float, float]


class CutDocument(BaseModel):
    """One end cut; signs as in docs/conventions.md. `key` names it for good."""

    key: str
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


class LapDocument(BaseModel):
    """A half lap: its two shoulders on the lower edge from the left end, how deep from which side, how far out of square."""

    key: str
    near_mm: float
    far_mm: float
    deep_mm: float
    side: Literal["face", "back"]
    off_square_deg: float
    aslant_mm: float


class BirdsmouthDocument(BaseModel):
    """A birdsmouth: its heel on the top edge from the right end, how long heel and seat are, how deep square to the edge."""

    key: str
    from_right_mm: float
    heel_mm: float
    seat_mm: float
    deep_mm: float


class HolesDocument(BaseModel):
    """A row of holes, drilled from the face: middles from the left end, and how far up from the lower edge."""

    key: str
    along_mm: list[float]
    up_mm: float
    diameter_mm: float


class SeatDocument(BaseModel):
    """Where another board's end stands on a side of this one, from the left end; `key` is the joint's."""

    key: str
    board: str
    side: Literal["face", "back", "upper", "lower", "rabbet"]
    from_mm: float
    to_mm: float


class PlaneDocument(BaseModel):
    """A plane in a board's own axes: what lies where `normal` . p <= `offset_mm` is inside."""

    normal: Point
    offset_mm: float


class BoardDocument(BaseModel):
    """One board where it stands: its origin and its axes in the assembly's, which part it is, and its notches. `found`: it is
    there already and is not cut. `seats`: what stands on it."""

    key: str
    name: str
    part: str | None
    role: str
    found: bool
    origin_mm: Point
    x: Point
    y: Point
    z: Point
    notches: list[list[PlaneDocument]]
    seats: list[SeatDocument]


class SizeDocument(BaseModel):
    """A size of the whole that has a name: given, or as it follows."""

    key: str
    value: float
    unit: Literal["mm", "deg"]
    standing: Literal["given", "derived", "fixed"]


class MemberDocument(BaseModel):
    """One of the assemblies that the project is made of."""

    key: str
    name: str
    kind: str


class PartDocument(BaseModel):
    """One part: `members` are the boards that are this part, `mirror_of` the part that it is the mirror image of,
    `turned_over_of` the one that it is when turned over, which then shows its back.

    `fingerprint` tells its finished geometry from another's, to 0.01 mm. `turns`: the ways in which it can be turned and is the
    same part, as the directions in which its axes then point. A panel has no arrises: `outline_mm` are then the sides of its
    face, in order.
    """

    fingerprint: str
    turns: list[tuple[Point, Point, Point]]
    laps: list[LapDocument]
    birdsmouths: list[BirdsmouthDocument]
    holes: list[HolesDocument]

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
    """One joint as measured on the solids. `dihedral_deg`: the angle that the two boards' faces make inside, 180 in one plane."""

    id: str
    dihedral_deg: float
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
    """Everything derived from a project's spec and a workshop. `otherwise`: cuts, by key, that no tool there makes. `proof` is null
    where only the first proof has been run."""

    members: list[MemberDocument]
    boards: list[BoardDocument]
    sizes: list[SizeDocument]
    parts: list[PartDocument]
    joints: list[JointDocument]
    claims: list[ClaimDocument]
    settings: list[SettingDocument]
    otherwise: list[str]
    simple: list[SimpleDocument]
    rings: list[RingDocument]
    closing: ClosingDocument
    proof: ProofDocument | None
    findings: list[FindingDocument]


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
    rabbet, groove = board.section.rabbet, board.section.groove
    return PartDocument(
        id=part.id,
        fingerprint=facts.fingerprint,
        turns=[tuple(turned(turn, axis) for axis in AS_IT_LIES) for turn in facts.turns],
        laps=[LapDocument(**vars(lap)) for lap in facts.laps],
        birdsmouths=[BirdsmouthDocument(**vars(mouth)) for mouth in facts.birdsmouths],
        holes=[HolesDocument(**{**vars(row), "along_mm": list(row.along_mm)}) for row in facts.holes],
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
    saw = solution.plan.saw
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
        for s in solution.plan.settings
    ]
