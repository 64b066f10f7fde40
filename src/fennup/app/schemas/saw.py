"""What goes over the wire about the steps of the work, the tools and their tests."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from fennup.app.schemas.api import Body, Version
from fennup.app.schemas.sheet import ControlOut, EdgeOut, ViewOut
from fennup.app.wording.figures import Figure
from fennup.core.drawing.edit import Choose, Edit
from fennup.core.saw.testing import How

Key = Annotated[str, Field(min_length=1, max_length=200)]
Text = Annotated[str, Field(max_length=200)]


class StepQuery(BaseModel):
    """Which step."""

    key: Key


class PaperQuery(BaseModel):
    """On which paper, and at what scale a model is."""

    size: Literal["a4", "letter"] = "a4"
    scale: Annotated[float, Field(ge=1, le=50, allow_inf_nan=False)] = 5.0


class TemplateQuery(PaperQuery):
    """Whose template, on which paper."""

    key: Key


class StepBrief(BaseModel):
    """A step on the strip. `setting`: what is set, short; `out`: something is in the way."""

    key: str
    name: str
    what: str
    count: int
    setting: str
    out: bool


class SchoolOut(BaseModel):
    """A way to order the work, with what it comes to."""

    label: str
    note: str
    chosen: bool
    acts: list[Choose]


class StepsOut(BaseModel):
    """All steps in order. `foot`: what the simulation says, in one line; `notice`: an order that is no longer possible; `has_model`: whether a box can be folded
    of it."""

    version: int
    undo: str | None
    redo: str | None
    title: str
    simulated: str
    holds: bool
    fewest: str
    notice: str
    schools: list[SchoolOut]
    lengths: list[SchoolOut]
    tools: list[SchoolOut]
    steps: list[StepBrief]
    order_reset: list[Choose]
    has_model: bool


class SetOut(BaseModel):
    """One movement: what its scale must read, to which side, and what is beyond the scale."""

    label: str
    figure: Figure | None
    text: str
    note: str


class WayOut(BaseModel):
    """A way to make the cut. `misses`: what is in the way; `jig`: how that is got round; `view`: the jig, drawn."""

    id: str
    text: str
    setting: str
    misses: list[str]
    chosen: bool
    acts: list[Choose]


class OutOut(BaseModel):
    """A way round a limit, with its figures and its drawing."""

    id: str
    title: str
    text: str
    setting: str
    views: list[ViewOut]
    figures: list[EdgeOut]
    acts: list[Choose]


class TestOffered(BaseModel):
    """A scale that can be tested at this step's setting; `sides`: of how many pieces a ring cut so closes, 0 where none does; `hows`: the
    tests that tell anything there."""

    movement: Literal["swing", "tilt"]
    label: str
    at_deg: float
    sides: int
    hows: list[How]


class ReminderOut(BaseModel):
    """A lesson of another project that belongs here, told until it is read."""

    lesson: str
    text: str
    whose: str


class StepOut(BaseModel):
    """One step in full. `views`: the operator's picture first; `kept`: the way that somebody chose, with what lets Fennup pick again."""

    key: str
    title: str
    detail: str
    tool: str
    tool_id: str
    views: list[ViewOut]
    sets: list[SetOut]
    lies: str
    changed: str
    mark: str
    dial: str
    hair: str
    test: list[str]
    boards: str
    misses: list[str]
    ways: list[WayOut]
    picked: list[Choose]
    outs: list[OutOut]
    marks: list[EdgeOut]
    figures: list[EdgeOut]
    seats: list[EdgeOut]
    cautions: list[str]
    scribe: ControlOut | None
    tests: list[TestOffered]
    reminder: ReminderOut | None = None


class PaperSteps(BaseModel):
    """All steps in full, for paper."""

    simulated: str
    steps: list[StepOut]


class SawChange(Body):
    """Acts on what is wished at the saws: one revision, one undo step."""

    version: Version
    acts: Annotated[list[Edit], Field(min_length=1, max_length=20)]


class SawTest(Body):
    """What a test of a setting read. `how`: one corner of two scraps, all corners of a ring, the cut by a gauge, or a strip cut off between two cuts
    with the board rolled over. `readings`: angles or lengths as typed; `across`: over what width the strip was measured."""

    version: Version
    tool: Annotated[str, Field(max_length=10)]
    movement: Literal["swing", "tilt"]
    at_deg: Annotated[float, Field(ge=-90, le=90, allow_inf_nan=False)]
    how: How
    readings: Annotated[list[Text], Field(min_length=1, max_length=24)]
    across: Text = ""


class TestOut(BaseModel):
    """The error that was found, in words, and what to dial from now on."""

    found: str
    dial: str
    version: int


class HalvesAsked(BaseModel):
    """A board to be halved by one sloping cut, figures as typed."""

    long: Text
    wide: Text = "0"
    angle: Text = "0"
    kerf: Text
    gap: Text = ""


class SquareAsked(BaseModel):
    """A square, or a gauge at 90, turned over between two lines from one edge: how far apart they are, at what distance; figures as typed."""

    apart: Text
    at: Text


class HalvesOut(BaseModel):
    """What each half measures, the offset of the line over the width, and a gap along the slope."""

    lines: list[EdgeOut]
