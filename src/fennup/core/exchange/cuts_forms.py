"""The steps of the work as a document: what `./fennup cuts` prints. docs/formats.md describes it."""

from typing import Literal

from pydantic import BaseModel, ConfigDict

from fennup.core.exchange.forms import SectionDocument

Point = tuple[float, float, float]


class Form(BaseModel):
    """A form."""

    model_config = ConfigDict(frozen=True)


class ScaleForm(Form):
    """What a scale shows: unrounded, and `dial_deg` as it is set, to its step and less its known error; to which side; nothing of a tool without a scale."""

    reads_deg: float
    dial_deg: float
    to: Literal["left", "right", ""]
    counts_from: Literal["square", "fence"]


class ScalesForm(Form):
    """Both movements."""

    swing: ScaleForm
    tilt: ScaleForm


class ToolForm(Form):
    """The tool of a step: `fence`: beyond the board, between board and operator (near), or none."""

    id: str
    type: str
    name: str
    fence: Literal["beyond", "near", "none"]
    kerf_mm: float


class PoseForm(Form):
    """How the piece lies: `lean_deg` + where the top of one that is propped on a ripped edge leans to the fence. `end`: which end is at the blade;
    `kept`: on which side of the blade the piece lies that is kept."""

    down: Literal["face", "back", "upper", "lower"]
    fence: Literal["face", "back", "upper", "lower"]
    stance: Literal["flat", "on_edge", "propped"]
    lean_deg: float
    end: Literal["left", "right"]
    kept: Literal["left", "right"]


class StopForm(Form):
    """See docs/conventions.md, Stops."""

    distance_mm: float
    touches: Literal["raw_end", "made_end"]
    corners: list[str]
    out_mm: float
    up_mm: float


class MarkForm(Form):
    """Along which long corner this cut is marked, how far from where the cut that was made first crosses it; at which end that one is."""

    corner: str
    length_mm: float
    from_end: Literal["left", "right"]


class LineForm(Form):
    """A place on the cut's line, on the side that is down, from the blank's left end and lower edge."""

    from_left_mm: float
    from_lower_mm: float


class RipForm(Form):
    """Which edge is ripped; which side is down, which edge runs along the rip fence on the right, which end goes in first; from the blade to that fence."""

    edge: Literal["upper", "lower"]
    down: Literal["face", "back"]
    fence: Literal["upper", "lower"]
    first: Literal["left", "right"]
    fence_mm: float


class WallForm(Form):
    """One side of a notch as a saw cut."""

    swing_deg: float
    tilt_deg: float
    kept: Literal["left", "right"]
    from_left_mm: float


class NotchForm(Form):
    """A notch as saw cuts, the board flat."""

    down: Literal["face", "back"]
    fence: Literal["upper", "lower"]
    walls: list[WallForm]
    deep_mm: float | None


class PocketForm(Form):
    """A groove that stops: along the board from the finished left end, null where it runs out there; up from the lower edge."""

    from_left_mm: float | None
    to_left_mm: float | None
    from_lower_mm: float
    width_mm: float
    deep_mm: float
    side: Literal["face", "back"]


class HolesForm(Form):
    """Holes from the face: along from the left end, up from the lower edge."""

    along_mm: list[float]
    up_mm: float
    diameter_mm: float


class WayForm(Form):
    """A way to make a cut, by what it is called in a project's `saw.ways`."""

    id: str
    swing_deg: float
    tilt_deg: float
    wedge_deg: float
    kept: Literal["left", "right"]
    misses: list[str]


class StepForm(Form):
    """One step. `cut`: which cut of that end, from 0; `way`: what the way it is made in is called; `misses`: limits in the way; `boards`: out of which
    planned board each piece comes; `shared_with`: by piece, the piece and end that the same cut makes."""

    key: str
    work: str
    part: str
    pieces: list[str]
    pattern: bool
    tool: ToolForm | None
    way: str | None
    end: Literal["left", "right"] | None
    cut: int | None
    pose: PoseForm | None
    swing_deg: float | None
    tilt_deg: float | None
    wedge_deg: float
    scale: ScalesForm | None
    stop: StopForm | None
    mark: MarkForm | None
    line: LineForm | None
    rip: RipForm | None
    notch: NotchForm | None
    pocket: PocketForm | None
    holes: HolesForm | None
    misses: list[str]
    ways: list[WayForm]
    cautions: list[str]
    needs: list[str]
    boards: dict[str, str]
    shared_with: dict[str, str]


class SawnPartForm(Form):
    """What a part is sawn from, and what it must become: its corners, x from its left tip, y and z from the middle of its raw section."""

    key: str
    pieces: list[str]
    kind: Literal["board", "panel", "stave"]
    section: SectionDocument
    raw_length_mm: float
    corners_mm: list[Point]


class SchoolForm(Form):
    """An order of the work, how many steps it takes, and how often a setting is changed."""

    school: str
    steps: int
    changes: int


class CutsDocument(Form):
    """All steps in order, and the parts that they make. `settings`: how many different ones there are; `off_mm`: by how much the simulated saw's
    farthest corner is off, by part, null where a step cannot be simulated."""

    settings: int
    changes: int
    schools: list[SchoolForm]
    parts: list[SawnPartForm]
    steps: list[StepForm]
    off_mm: dict[str, float | None]
