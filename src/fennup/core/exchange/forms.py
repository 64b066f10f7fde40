"""The forms of the solution's document: the same for the web, the command line and anyone else's program. mm and degrees."""

from collections.abc import Iterable
from typing import Literal

from pydantic import BaseModel

from fennup.core.geometry.plane import Plane
from fennup.core.stock.ploughed import Groove, Ploughed
from fennup.core.stock.section import Section

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
    ploughed: list[Ploughed]
    wood_mm: list[list[tuple[float, float]]]


def section_document(section: Section, rips: Iterable[Plane] = ()) -> SectionDocument:
    """A section as a document: the step at its upper edge and the first channel in its back by themselves, then all that is ploughed, then
    its wood as convex figures, (y, z) in the board's axes, of a board whose edges come beveled within those."""
    step = section.rabbet
    channel = next((cut for cut in section.ploughed if isinstance(cut, Groove) and cut.side == "back" and not cut.far), None)
    return SectionDocument(
        width_mm=section.width_mm,
        thickness_mm=section.thickness_mm,
        rabbet=RabbetDocument(width_mm=step.width_mm, depth_mm=step.depth_mm) if step else None,
        groove=GrooveDocument(from_lower_mm=channel.from_mm, width_mm=channel.width_mm, depth_mm=channel.depth_mm)
        if channel
        else None,
        ploughed=list(section.ploughed),
        wood_mm=[list(piece) for piece in section.within(tuple(rips))],
    )


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
    """A row of holes, drilled from the face or from the back: middles from the left end, and how far up from the lower edge; `deep_mm` is null where they go
    through."""

    key: str
    along_mm: list[float]
    up_mm: float
    diameter_mm: float
    deep_mm: float | None
    side: Literal["face", "back"]


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
    standing: Literal["given", "suggested", "derived", "fixed"]


class MemberDocument(BaseModel):
    """One of the assemblies that the project is made of."""

    key: str
    name: str
    kind: str


class PartDocument(BaseModel):
    """One part: `boards` are those that are this part, `mirror_of` the part that it is the mirror image of,
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
    boards: list[str]
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
    kind: Literal["miter", "butt", "edge", "lap", "face"]
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
    """One position of a tool: swing + to the right, tilt + to the left; exact, and as this saw can be set."""

    tool: str
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
    severity: Literal["standing", "note", "warning", "error"]
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
