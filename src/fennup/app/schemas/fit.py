"""The Fit place: will it close, what should be read, as made, ways out, the order of putting it together, and what it goes through."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from fennup.app.schemas.api import Body, Version
from fennup.app.schemas.sheet import ControlOut, ViewOut
from fennup.app.wording.figures import Figure
from fennup.core.drawing.edit import Edit
from fennup.core.geometry.vec import Point2

Tone = Literal["right", "near", "wrong", "none"]
Typed = Annotated[str, Field(min_length=1, max_length=200)]
RecordId = Annotated[str, Field(pattern=r"^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$")]
Came = Literal["bench", "typed", "agreed", ""]


class LineOut(BaseModel):
    """Words and, where there is one, a figure at their side; `share` of a bar, 0 to 1."""

    text: str
    figure: str = ""
    note: str = ""
    share: float | None = None
    tone: Tone = "none"


class ForecastOut(BaseModel):
    """How well it will close. `headline` in one sentence; `picture`: on which the worst joint is seen; `depends`: on what; `needs`: how exactly one must work; `apart`: what comes from the saw always and what is scatter."""

    headline: str
    tone: Tone
    picture: str
    depends: str
    needs: str
    apart: list[LineOut]
    rows: list[LineOut]
    hand: list[ControlOut]
    used: list[LineOut]
    wishes: list[ControlOut]


class PictureOut(BaseModel):
    """A drawing to read on; how many of its readings are done. `group`: under which heading it stands."""

    id: str
    title: str
    group: str
    read: int
    total: int


class ReadingOut(BaseModel):
    """One thing to read. `a` and `b`: between which places of its picture (an angle's are the same); `near`: how far off does not matter, in words; `value`: what was read and
    `typed`: as it was typed; `record`: by which it can be taken back."""

    key: str
    kind: str
    picture: str
    label: str
    how: str
    unit: Literal["mm", "deg"]
    a: Point2
    b: Point2
    expected: Figure
    near: str
    value: Figure | None
    typed: str
    tone: Tone
    record: str


class ToldOut(BaseModel):
    """What readings mean: what is out, what is held and what is moved."""

    keys: list[str]
    tone: Tone
    title: str
    text: list[str]


class GapJointOut(BaseModel):
    """A joint where a feeler is put: its sides by name; what was read, and what to do about it."""

    key: str
    label: str
    sides: list[tuple[str, str]]
    side: str
    value: Figure | None
    tone: Tone
    title: str
    text: list[str]
    record: str


class StrayOut(BaseModel):
    """A reading of something that there is no longer."""

    text: str
    record: str


class MadeRowOut(BaseModel):
    """One size of a part: what it should measure, and what it does."""

    key: str
    label: str
    unit: Literal["mm", "deg"]
    expected: Figure
    value: Figure | None
    came: Came
    came_text: str
    record: str


class MadePartOut(BaseModel):
    """A part as made. `state`: in words, how far it is cut; `bad`: it came out so that a joint would stay open; `mirror_key`: by which it is said to be cut the wrong way
    round, `mirrored`: the record that says so."""

    board: str
    tag: str
    name: str
    state: str
    bad: bool
    mirror_key: str
    mirrored: str
    rows: list[MadeRowOut]


class ChangeOut(BaseModel):
    """A part still to be cut: how long it was to be and is to be now, and its angles."""

    board: str
    name: str
    old: str
    new: str
    angles: list[str]
    note: str


class OfferedRecord(BaseModel):
    """A record that saying yes adds: what about, of which type, what it says."""

    key: Annotated[str, Field(min_length=1, max_length=120)]
    type: Literal["agreed", "wrong"]
    fingerprint: Annotated[str, Field(max_length=32)] = ""
    body: dict[str, Any]


class AgreeOut(BaseModel):
    """What can be said yes to, and the records that say so."""

    title: str
    text: str
    changes: list[ChangeOut]
    records: list[OfferedRecord]


class AgreedOut(BaseModel):
    """What was said yes to."""

    text: str
    record: str


class WayOutOut(BaseModel):
    """A way out of a part that is not as it should be: its cost in words; `records`: those that saying `yes` to it adds; `view`: drawn over the plan."""

    title: str
    text: str
    cost: str
    best: bool
    changes: list[ChangeOut]
    shaves: list[str]
    records: list[OfferedRecord]
    yes: str
    view: ViewOut | None


class BadOut(BaseModel):
    """A part that is not as it should be."""

    board: str
    name: str
    text: str
    ways: list[WayOutOut]


class LaidOut(BaseModel):
    """Pieces that should be alike, laid together: each by how much it is longer (`share` of the widest), which two differ most, what to shave."""

    name: str
    pieces: list[LineOut]
    text: str
    tone: Tone


class HandsOut(BaseModel):
    """Parts that are mirror images, and what they look like flipped onto each other."""

    text: str
    view: ViewOut


class MadeOut(BaseModel):
    """What was made, and what follows for what is still to cut."""

    headline: str
    tone: Tone
    parts: list[MadePartOut]
    proposals: list[AgreeOut]
    agreed: list[AgreedOut]
    bad: list[BadOut]
    laid: list[LaidOut]
    hands: list[HandsOut]
    strays: list[StrayOut]


class JoiningOut(BaseModel):
    """A step of putting it together. `hold`, `help`, `before`, `check`, `care`: what to hold it with, who helps and what props, what to do before it is closed off, what to check
    after, what to take care of."""

    key: str
    title: str
    text: str
    parts: list[str]
    hold: list[str]
    help: list[str]
    before: list[str]
    check: list[str]
    care: list[str]
    earlier: list[Edit]
    later: list[Edit]


class OrderOut(BaseModel):
    """The order. `notice`: why the wished one cannot be; `reset` takes the usual one again."""

    headline: str
    notice: str
    reset: list[Edit]
    steps: list[JoiningOut]
    glue: list[ControlOut]


class PieceViewOut(BaseModel):
    """What goes through, drawn in the opening."""

    name: str
    text: str
    view: ViewOut


class OpeningOut(BaseModel):
    """A door, a stair, a load space: whether it is asked about, its sizes, and what goes through how."""

    opening: str
    label: str
    on: bool
    switch: list[Edit]
    controls: list[ControlOut]
    text: str
    tone: Tone
    pieces: list[PieceViewOut]


class PassageOut(BaseModel):
    """Does the finished thing go through? `split`: where it comes apart if not, and what joins it again."""

    openings: list[OpeningOut]
    split: list[str]


class FitOut(BaseModel):
    """The whole place. `foot`: in one line; `besides`: what else can be read, if one wishes."""

    version: int
    undo: str | None
    redo: str | None
    foot: str
    forecast: ForecastOut
    pictures: list[PictureOut]
    readings: list[ReadingOut]
    besides: list[ControlOut]
    told: list[ToldOut]
    gaps: list[GapJointOut]
    made: MadeOut
    order: OrderOut
    passage: PassageOut


class PictureQuery(BaseModel):
    """Which picture; `made`: as it was made, over the plan; `fans`: with what the joints will open."""

    id: Annotated[str, Field(max_length=200)]
    made: bool = False
    fans: bool = False


class JoiningQuery(BaseModel):
    """Which step of putting it together."""

    key: Annotated[str, Field(max_length=600)]


class FitPictureOut(BaseModel):
    """A picture to read on."""

    view: ViewOut


class FitChange(Body):
    """Acts on what is wished at the dry fit: one revision, one undo step."""

    version: Version
    acts: Annotated[list[Edit], Field(min_length=1, max_length=20)]


class ReadAsked(Body):
    """What tape, gauge or feeler read, as typed. `id`: the device's own, so that sending it twice adds it once; `side`: of a gap, at which side of the joint."""

    id: RecordId
    key: Annotated[str, Field(min_length=1, max_length=120)]
    text: Typed
    side: Literal["", "face", "back", "upper", "lower", "even"] = ""
    inches_meant: bool = False


class AgreeAsked(Body):
    """Something is said yes to: a body that was offered."""

    id: RecordId
    records: Annotated[list[OfferedRecord], Field(min_length=1, max_length=20)]


class TakeBack(Body):
    """A record of this place is taken back."""

    id: RecordId
    record: RecordId
