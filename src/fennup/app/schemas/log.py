"""The Log: the story by day, hours, what was learned, what it costs, and what goes out."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from fennup.app.schemas.api import Body, Version
from fennup.app.schemas.finish import WhyOut
from fennup.app.schemas.fit import LineOut, RecordId
from fennup.app.schemas.sheet import ControlOut
from fennup.core.drawing.edit import Edit
from fennup.core.exchange.paper import Size
from fennup.core.records.entry import About

MOST_ORDERS = 12
LARGEST_PHOTO = 24 * 1024 * 1024  # in base64


class ToldLine(LineOut):
    """A line of the story. `when`: at what time; `record`: by which it can be taken back, where it was written here; `photo`: the file of one; `lesson`: it comes back."""

    when: str
    record: str = ""
    photo: str = ""
    lesson: str = ""


class DayTold(BaseModel):
    """A day of the story."""

    day: str
    label: str
    hours: str
    lines: list[ToldLine]


class StretchOut(BaseModel):
    """Some hours at a step; `forgotten`: nobody stopped the clock, and how long it was is to be typed, with a `guess` from the records; `by_clock`: not typed."""

    id: str
    text: str
    figure: str
    step: str
    typed: str
    forgotten: bool
    by_clock: bool
    guess: str


class ClockOut(BaseModel):
    """The clock. `running`: the stretch that runs, its step and since when, ISO; `steps`: what one can be at, by code; `stretches`: all of them, the last first."""

    running: str
    running_step: str
    since: str
    steps: list[tuple[str, str]]
    stretches: list[StretchOut]
    planned: list[LineOut]


class MadeLine(BaseModel):
    """A figure as it was planned and as it was made."""

    what: str
    planned: str
    made: str
    off: str
    tone: Literal["right", "near", "wrong", "none"]


class LessonOut(BaseModel):
    """Something learned: where it comes back, in which project it was."""

    id: str
    text: str
    back_at: str
    project: str
    project_name: str
    mine: bool


class OftenOut(BaseModel):
    """What went wrong, how often; `level`: the practice round for it."""

    name: str
    count: str
    text: str
    level: str


class CostOut(BaseModel):
    """What it costs and brings; `note` where something is not known yet; `prices`: of the workshop, to be typed for all projects; `waits`: the boards are still
    being planned."""

    controls: list[ControlOut]
    prices: list[ControlOut]
    rows: list[WhyOut]
    note: str
    waits: bool


class BesideOut(BaseModel):
    """A project that is made together with this one."""

    id: str
    name: str
    chosen: bool


class AgainOut(BaseModel):
    """What is made at once: this and others; the settings that several of them share; `wood` and `tools` to begin it again with."""

    orders: list[BesideOut]
    shared: list[LineOut]
    headline: str
    woods: list[str]
    wood: str
    tools: list[tuple[str, str]]
    boards_version: int
    most: int


class FileOut(BaseModel):
    """A kind of file that the project goes out as."""

    sort: str
    group: str
    title: str
    about: str
    long: bool


class LogOut(BaseModel):
    """The whole place. `about`: what a lesson can be about, each with its name; `use_kinds`: what can be seen in use, with the unit of its figure if it has one; `texts`: what can be written besides: path, what it is called, and what it is."""

    version: int
    undo: str | None
    redo: str | None
    foot: str
    days: list[DayTold]
    clock: ClockOut
    batches: list[LineOut]
    due: list[LineOut]
    batch_kinds: list[tuple[str, str]]
    use_kinds: list[tuple[str, str, str]]
    about: list[tuple[str, About]]
    made: list[MadeLine]
    changed: list[LineOut]
    texts: list[tuple[str, str, str]]
    lessons: list[LessonOut]
    slips: list[OftenOut]
    cost: CostOut
    sheet: list[ControlOut]
    files: list[FileOut]


class LogChange(Body):
    """Acts on what is said of cost and sale."""

    version: Version
    acts: Annotated[list[Edit], Field(min_length=1, max_length=50)]


class LogRecord(Body):
    """Something to write into the log: a note, a lesson, a batch, a use, the clock, or that a lesson was read."""

    id: RecordId
    type: Literal["note", "clock", "batch", "use", "reminded", "undone"]
    body: dict[str, Any]


class HoursAsked(Body):
    """Hours as they are typed, `1:30`, `90 min`, `1.5`; of a stretch of the clock (`of`), or at a `step` on a `day`."""

    id: RecordId
    text: Annotated[str, Field(min_length=1, max_length=40)]
    of: Annotated[str, Field(max_length=36)] = ""
    step: Annotated[str, Field(max_length=30)] = ""
    day: Annotated[str, Field(max_length=10)] = ""


class PhotoAsked(Body):
    """A photo in base64, with what is seen on it."""

    id: RecordId
    name: Annotated[str, Field(min_length=1, max_length=200)]
    content: Annotated[str, Field(min_length=1, max_length=LARGEST_PHOTO)]
    text: Annotated[str, Field(max_length=200)] = ""


class PhotoPath(BaseModel):
    """A project's photo."""

    project_id: str
    file_id: str


class ExportPath(BaseModel):
    """A project, and what it is to go out as."""

    project_id: str
    sort: str


class ExportQuery(BaseModel):
    """On which paper."""

    size: Size = "a4"


class AgainAsked(Body):
    """Build it again: under which name, of which wood, without which tools, so many orders; `at`: another size is chosen then."""

    name: Annotated[str, Field(min_length=1, max_length=80)]
    wood: Annotated[str, Field(max_length=60)] = ""
    away: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=40)] = []
    orders: Annotated[int, Field(ge=1, le=MOST_ORDERS)] = 1


class AgainMade(BaseModel):
    """The new projects, the first one first."""

    projects: list[str]
