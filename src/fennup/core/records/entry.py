"""One thing that happened at the bench: what, to which piece, how that piece was then, on which device, when."""

from dataclasses import dataclass, field
from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

Key = Annotated[str, Field(min_length=1, max_length=120)]
Fingerprint = Annotated[str, Field(max_length=32)]
Text = Annotated[str, Field(max_length=200)]
Value = Annotated[float, Field(allow_inf_nan=False, ge=-1e6, le=1e6)]
Verdict = Literal["right", "near", "wrong"]
Source = Literal["tape", "typed", "gauge", "caliper"]
Outcome = Literal["recut", "use", "shave", "keep"]
MOST_SET = 200


class Body(BaseModel):
    """What an entry says, by its type."""

    model_config = ConfigDict(extra="forbid", frozen=True)


class CutBody(Body):
    """Something was cut or otherwise done. `planned`: what each measure of it should be, by what is measured, mm or degrees."""

    planned: Annotated[dict[Annotated[str, Field(max_length=20)], Value], Field(max_length=10)] = {}


class MeasuredBody(Body):
    """Something was measured: what, what it should be, what it is, as it was typed, what with, and what one was told then."""

    what: Annotated[str, Field(max_length=20)]
    planned: Value
    measured: Value
    unit: Literal["mm", "deg"]
    typed: Text = ""
    by: Source = "typed"
    verdict: Verdict


class Put(Body):
    """A task that is open again, or done by what is there already; the piece's fingerprint."""

    key: Key
    to: Literal["open", "cut"]
    fingerprint: Fingerprint = ""


class WrongBody(Body):
    """A piece is not as it should be, and what is done about it: cut again from new wood (`source`: which), used as another part, shaved, or kept as it is.
    `piece`: which one; `other`: as which it is used; `sets`: the tasks that this opens again or does at once; `measured`: what it is, where that is known."""

    way: Outcome
    piece: Key
    other: Key | None = None
    sets: Annotated[list[Put], Field(max_length=MOST_SET)] = []
    measured: Value | None = None
    source: Text = ""
    text: Text = ""


class ReadBody(Body):
    """What tape, gauge or feeler read at the dry fit, or what a part really measures: what it should be and is, as it was typed; of a gap, at which `side`."""

    planned: Value
    measured: Value
    unit: Literal["mm", "deg"]
    typed: Text = ""
    by: Source = "typed"
    side: Literal["", "face", "back", "upper", "lower", "even"] = ""


class AgreedBody(Body):
    """What somebody said yes to: parts still to be cut are cut otherwise than planned, each by what is changed there, mm or degrees; sizes as they are built, by measure."""

    changes: Annotated[dict[Key, Value], Field(max_length=MOST_SET)] = {}
    sizes: Annotated[dict[Key, Value], Field(max_length=40)] = {}
    text: Text = ""


class DidBody(Body):
    """A step of the finish was done: fastened, glued, coated, set up."""

    text: Text = ""


class About(Body):
    """What a lesson was about, and so where it comes back: each that is said must be alike there. `work`: of a step; `tool`: of which type; `joint`: which kind of
    joint; `wood`; `task`: of the finish; `slope_deg`: how far something leans, to within a few degrees."""

    work: Annotated[str, Field(max_length=30)] = ""
    tool: Annotated[str, Field(max_length=30)] = ""
    joint: Annotated[str, Field(max_length=30)] = ""
    wood: Annotated[str, Field(max_length=60)] = ""
    task: Annotated[str, Field(max_length=30)] = ""
    slope_deg: Annotated[float, Field(ge=0, le=90, allow_inf_nan=False)] | None = None


class NoteBody(Body):
    """What somebody wrote down. With `about` it is a lesson, told again at the like step of another project."""

    text: Annotated[str, Field(min_length=1, max_length=4000)]
    about: About | None = None


class PhotoBody(Body):
    """A photo: which of the project's files it is, and what is seen on it."""

    file: Annotated[str, Field(max_length=36)]
    text: Text = ""


class ClockBody(Body):
    """The clock of the hours was started at some work, or stopped."""

    do: Literal["start", "stop"]
    step: Annotated[str, Field(max_length=30)] = ""


class HoursBody(Body):
    """Hours as somebody says them: on a `day` at a `step`; or, with `of`, how long a stretch of the clock really was."""

    hours: Annotated[float, Field(ge=0, le=200, allow_inf_nan=False)]
    step: Annotated[str, Field(max_length=30)] = ""
    of: Annotated[str, Field(max_length=36)] = ""
    text: Text = ""


class BatchBody(Body):
    """What it was really made of: the product, its batch or colour, how much of it."""

    what: Literal["wood", "glue", "finish", "fasteners", "other"]
    name: Annotated[str, Field(min_length=1, max_length=120)]
    batch: Annotated[str, Field(max_length=120)] = ""
    much: Annotated[str, Field(max_length=60)] = ""


class UseBody(Body):
    """What was seen of it in use: a temperature, a movement, wear, or that it was coated again."""

    what: Literal["temperature", "moved", "wear", "coated"]
    value: Value | None = None
    text: Text = ""


class RemindedBody(Body):
    """A lesson was told here and read, so that it is not told in this project again."""

    lesson: Annotated[str, Field(max_length=36)]


class UndoneBody(Body):
    """An entry is taken back."""

    takes_back: Annotated[str, Field(max_length=36)]


# By the type of an entry; what has another type is kept as it is.
BODIES: dict[str, type[Body]] = {
    "cut": CutBody,
    "measured": MeasuredBody,
    "wrong": WrongBody,
    "read": ReadBody,
    "agreed": AgreedBody,
    "did": DidBody,
    "note": NoteBody,
    "photo": PhotoBody,
    "clock": ClockBody,
    "hours": HoursBody,
    "batch": BatchBody,
    "use": UseBody,
    "reminded": RemindedBody,
    "undone": UndoneBody,
}


@dataclass(frozen=True)
class Entry:
    """`key`: the task that it is about, `m1/A left:0`; `fingerprint`: the piece's as it was then; `at`: by the device's own clock, with its zone."""

    id: str
    key: str
    type: str
    at: datetime
    device: str = ""
    fingerprint: str = ""
    body: Body = field(default_factory=Body)
