"""The Finish place: what holds it together, coats, the plan by the day, what it holds and weighs, setting up, and the workshop's tables."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from fennup.app.schemas.api import Body, Version
from fennup.app.schemas.fit import LineOut, RecordId, Tone
from fennup.app.schemas.saw import ReminderOut
from fennup.app.schemas.sheet import ControlOut, Point, ViewOut
from fennup.core.drawing.edit import Edit


class WhyOut(BaseModel):
    """A figure with what it is, and `lines` that say where it comes from."""

    title: str
    figure: str
    note: str = ""
    lines: list[str] = []
    tone: Tone = "none"


class HeldJointOut(BaseModel):
    """A kind of joint. `said`: what holds it; `numbers`: of its joints on the bag list; `marks`: where fasteners go, running; `patterned`: there is a drawing of that."""

    key: str
    name: str
    said: str
    numbers: str
    tone: Tone
    patterned: bool
    marks: str
    controls: list[ControlOut]
    rows: list[WhyOut]
    reminder: ReminderOut | None = None
    doubts: list[LineOut]
    care: list[str]


class FastenOut(BaseModel):
    """All kinds of joints. `met`: fasteners in each other's way; `advice`: which metal and glue; `buys`: what to buy; `bags`: what goes into which bag."""

    joints: list[HeldJointOut]
    controls: list[ControlOut]
    met: list[LineOut]
    advice: list[str]
    buys: list[LineOut]
    bags: list[LineOut]


class PaintedOut(BaseModel):
    """A side that is seen on the drawing, in one piece or in `more`: what becomes of it; `tone`: how dark it is, seen aslant, 0 to 2."""

    board: str
    side: str
    label: str
    outline: list[Point]
    more: list[list[Point]]
    at: Point
    use: str
    tone: int


class PaintOut(BaseModel):
    """The whole from one side, and its sides to be painted."""

    view: ViewOut
    faces: list[PaintedOut]


class CoatsOut(BaseModel):
    """Coats and glue. `brushes`: what a side can become; `sides`: how many of each; `bare`: what must stay bare for the glue; `smooth`: what to smooth first."""

    controls: list[ControlOut]
    brushes: list[tuple[str, str]]
    rows: list[WhyOut]
    bare: list[LineOut]
    smooth: list[LineOut]
    parts: list[ControlOut]
    care: list[str]


class SpanOut(BaseModel):
    """Work or waiting on one day, from hour to hour."""

    task: str
    name: str
    kind: Literal["work", "wait"]
    from_h: float
    to_h: float
    done: bool
    late: bool


class DayOut(BaseModel):
    """A day of the strip: free hours, whether it is crossed out, the act that does or undoes that, the weather."""

    day: str
    label: str
    today: bool
    away: bool
    cross: list[Edit]
    free: list[tuple[float, float]]
    spans: list[SpanOut]
    weather: str
    unfit: bool


class DayTaskOut(BaseModel):
    """A step: how long, when, whether it is done (`record`: by which it is taken back) or late."""

    id: str
    name: str
    hours: ControlOut
    waits: str
    when: str
    ready: str
    done: str
    record: str
    late: bool
    reminder: ReminderOut | None = None


class WayOutOfOut(BaseModel):
    """What would make it ready sooner: what that gains and costs, and what does it, where one act does."""

    title: str
    text: str
    good: bool
    acts: list[Edit]


class DaysOut(BaseModel):
    """The plan by the day. `needed`: the day as it is written, empty where none is said; `refused`: why there is no plan; `week`: free hours by weekday, with the path in
    the tables by which they are typed."""

    needed: str
    needed_at: ControlOut
    headline: str
    tone: Tone
    refused: str
    said: list[LineOut]
    strip: list[DayOut]
    tasks: list[DayTaskOut]
    ways: list[WayOutOfOut]
    controls: list[ControlOut]
    week: list[tuple[str, str, str]]
    weather: str
    care: list[str]


class GroupOut(BaseModel):
    """Controls and what follows from them, under a heading."""

    title: str
    controls: list[ControlOut]
    rows: list[WhyOut]
    note: str = ""


class PlacesOut(BaseModel):
    """Part of the place that is a drawing, with groups of controls; `care`."""

    view: ViewOut | None
    groups: list[GroupOut]
    care: list[str]


class FinishOut(BaseModel):
    """The whole place. `foot`: in one line; `buys`: what to buy besides boards."""

    version: int
    undo: str | None
    redo: str | None
    foot: str
    buys: list[LineOut]
    fasten: FastenOut
    coats: CoatsOut
    days: DaysOut
    holds: PlacesOut
    site: PlacesOut


class RowOut(BaseModel):
    """A row of a table: its figures, where they come from, and the act that takes it away."""

    name: str
    source: str
    controls: list[ControlOut]
    remove: list[Edit]


class TableOut(BaseModel):
    """A table of the workshop; `add`: the path under which a row is copied."""

    id: str
    title: str
    note: str
    rows: list[RowOut]
    add: str


class TablesOut(BaseModel):
    """All of the workshop's tables."""

    version: int
    undo: str | None
    redo: str | None
    tables: list[TableOut]


class JointQuery(BaseModel):
    """Which kind of joint; as a `pattern` on the side that fasteners go in, else cut open."""

    key: Annotated[str, Field(max_length=120)]
    pattern: bool = False


class PatternQuery(BaseModel):
    """Which kind of joint, and on which paper."""

    key: Annotated[str, Field(max_length=120)]
    size: Literal["a4", "letter"] = "a4"


class SeenFrom(BaseModel):
    """From which side it is looked at."""

    side: Literal["front", "back", "below"] = "front"


class FinishChange(Body):
    """Acts on how it is finished, or on the tables: one revision, one undo step."""

    version: Version
    acts: Annotated[list[Edit], Field(min_length=1, max_length=60)]


class DidAsked(Body):
    """A step by the day was done."""

    id: RecordId
    task: Annotated[str, Field(min_length=1, max_length=60)]


class WeatherAsked(Body):
    """Ask the weather service."""

    version: Version
