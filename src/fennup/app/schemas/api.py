"""What goes over the wire besides the sheet."""

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from fennup.app.schemas.problems import FieldProblem
from fennup.app.schemas.sheet import ControlOut, LookedSheet, SheetOut, ViewOut
from fennup.core.drawing.edit import Edit, ProjectAct
from fennup.core.geometry.vec import Point2
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.workshop import Workshop

Version = Annotated[int, Field(ge=1, description="the version that was seen; a save on any other is refused")]


class Body(BaseModel):
    """A request's body: unknown keys are refused."""

    model_config = ConfigDict(extra="forbid")


class Problem(BaseModel):
    """Problem details (RFC 9457), with the fields at fault. `version` comes with a conflict."""

    type: str
    title: str
    status: int
    detail: str
    errors: list[FieldProblem] = []
    version: int | None = None


class ProjectPath(BaseModel):
    """Whose project."""

    project_id: Annotated[str, Field(max_length=200)]


class ComparePath(ProjectPath):
    """Whose project beside which: another one's id, or `before`."""

    other: Annotated[str, Field(max_length=200)]


class Which(BaseModel):
    """Which projects: those that are there, or those that were deleted."""

    deleted: bool = False


class NewProject(Body):
    """A new project: from a start, or from a spec."""

    start: Annotated[str | None, Field(max_length=40)] = None
    name: Annotated[str | None, Field(max_length=400)] = None
    unit: Literal["mm", "in"] = "mm"
    spec: dict[str, Any] | None = None


class Change(Body):
    """Acts done together: one revision, one undo step."""

    version: Version
    acts: Annotated[list[ProjectAct], Field(min_length=1, max_length=20)]


class Acts(Body):
    """Acts to look at without saving."""

    acts: Annotated[list[ProjectAct], Field(min_length=1, max_length=20)]


class Look(Acts):
    """Acts to look at without saving; `card`: the board whose card is open, which then comes with the answer."""

    card: Annotated[str | None, Field(max_length=80)] = None


class WorkshopChange(Body):
    """Acts on the workshop: one revision, one undo step."""

    version: Version
    acts: Annotated[list[Edit], Field(min_length=1, max_length=20)]


class WorkshopLook(Body):
    """Acts on the workshop to look at without saving."""

    acts: Annotated[list[Edit], Field(min_length=1, max_length=20)]


class Seen(Body):
    """The version that was seen."""

    version: Version


class Nothing(Body):
    """An empty object."""


class SolveRequest(Body):
    """A project's spec, or one kind's own, to solve: in a workshop of one's own, on a saw of one's own, or on the usual one."""

    spec: dict[str, Any]
    saw: MiterSaw | None = None
    workshop: Workshop | None = None


class FromFace(BaseModel):
    """The face where a piece begins, once it is touched."""

    board: Annotated[str | None, Field(max_length=80)] = None
    side: Literal["face", "back", "upper", "lower"] | None = None


class FaceOut(BaseModel):
    """A face to be touched on a view: its outline there, a line where it is seen edge on."""

    board: str
    side: Literal["face", "back", "upper", "lower"]
    label: str
    outline: list[Point2]
    at: Point2


class FacesOut(BaseModel):
    """Every face that a piece can begin on, by view; or those that look at the first."""

    views: dict[str, list[FaceOut]]


class ProjectCard(BaseModel):
    """A project on the first screen."""

    id: str
    name: str
    kind: str
    variant_of: str | None
    example: bool
    facts: str
    closes: Literal["closes", "opens", "fails", "unreadable"]
    changed_at: datetime
    view: ViewOut


class ProjectList(BaseModel):
    """All projects, the one changed last first."""

    projects: list[ProjectCard]


class StartCard(BaseModel):
    """Something to begin with."""

    code: str
    family: str
    name: str
    view: ViewOut


class StartList(BaseModel):
    """Everything to begin with."""

    starts: list[StartCard]


class ProjectOut(BaseModel):
    """A project and its drawing. `echo` repeats feet as inches where feet were typed; `notice` says which size gave way to the one
    that was given; `job` is the second proof, where that takes longer than one waits."""

    id: str
    version: int
    name: str
    unit: Literal["mm", "in"]
    graduation: str
    graduation_mm: float
    graduations: list[str]
    undo: str | None
    redo: str | None
    echo: str | None
    notice: str | None
    variant_of: str | None
    job: int | None
    sheet: SheetOut


class LookOut(BaseModel):
    """What some acts would make of a project as it is in a version."""

    version: int
    echo: str | None
    sheet: LookedSheet


class RecordOut(BaseModel):
    """A record as it is kept: `received` is the server's own time."""

    id: str
    key: str
    fingerprint: str
    type: str
    device: str
    device_time: str
    received: str
    body: dict[str, Any]


class RecordList(BaseModel):
    """All records of a project, in the order in which they happened."""

    records: list[RecordOut]


class AnyFile(BaseModel):
    """A `.fennup.json` file: see docs/formats.md and `./fennup schema`."""

    model_config = ConfigDict(extra="allow")

    format: Annotated[str, Field(max_length=40)]


class Imported(BaseModel):
    """What a file brought in."""

    projects: list[str]
    workshop: bool


class Removed(BaseModel):
    """How many were removed."""

    count: int


class BackedUp(BaseModel):
    """Where the copy is."""

    file: str


class JobPath(BaseModel):
    """Whose job."""

    job_id: Annotated[int, Field(ge=1, le=2**62)]


class JobOut(BaseModel):
    """Work that takes longer than one waits. `dropped`: it was begun and broke off more than once, or others came before it."""

    id: int
    type: str
    state: Literal["waiting", "running", "done", "cancelled", "dropped"]
    progress: float


Point3 = tuple[float, float, float]


class PieceOut(BaseModel):
    """A convex piece: points in mm (x right, y up, z to the reader), facets as loops of places in them,
    anticlockwise seen from outside."""

    points: list[Point3]
    facets: list[list[int]]


class SolidOut(BaseModel):
    """A part as its convex pieces. `push` is the way it goes when the whole is pulled apart, of length 0 to 1; `found`: it is
    there already."""

    id: str
    name: str
    pieces: list[PieceOut]
    push: Point3
    found: bool


class JointOut(BaseModel):
    """Where two parts meet: the outlines of the mating faces."""

    id: str
    closes: bool
    outlines: list[list[Point3]]


class SolidsOut(BaseModel):
    """A project as solids; `stands` where z is up rather than towards the reader; `turn`: how far round from the front one
    looks first, radians, + from the right."""

    version: int
    stands: bool
    turn: float
    solids: list[SolidOut]
    joints: list[JointOut]


class ErrorOut(BaseModel):
    """The error of a scale at a setting."""

    text: str
    forget: list[Edit]


class ToolOut(BaseModel):
    """A tool of the workshop, drawn. `errors`: what tests of its scales have found, a line each, with what forgets it."""

    id: str
    type: str
    name: str
    views: list[ViewOut]
    controls: list[ControlOut]
    errors: list[ErrorOut]


class ProfileOut(BaseModel):
    """A ready-made profile of a tool, with what adds it."""

    name: str
    acts: list[Edit]


class WorkshopOut(BaseModel):
    """The workshop. `notice`: what there is to know of how it is stored."""

    version: int
    undo: str | None
    redo: str | None
    notice: str | None
    tools: list[ToolOut]
    profiles: list[ProfileOut]


class KindOut(BaseModel):
    """A kind and the JSON Schema of its spec."""

    kind: str
    title: str
    spec_schema: dict[str, Any]


class KindList(BaseModel):
    """All kinds."""

    kinds: list[KindOut]
