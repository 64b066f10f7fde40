"""What the bench holds to work without the server: every task with its step, its checks with their bands, ways out, and all that happened."""

from typing import Any, Literal

from pydantic import BaseModel

from fennup.app.schemas.api import RecordOut
from fennup.app.schemas.saw import ReminderOut, SetOut
from fennup.app.schemas.sheet import EdgeOut, ViewOut
from fennup.app.wording.figures import Figure
from fennup.app.wording.verdicts import ClosingLine
from fennup.core.bench.task import Doing, What
from fennup.core.geometry.vec import Point2
from fennup.core.records.entry import Verdict
from fennup.core.steps.step import Work


class BandOut(BaseModel):
    """What a reading up to `to` (none: any larger one) means, where the bands before do not hold it. `ask`: measure once more first. In `text`, `{off}` is by how
    much it is off, `{half}` half of that, `{gap}` what it opens."""

    to: float | None
    verdict: Verdict
    ask: bool
    text: str


class SlipOut(BaseModel):
    """Readings that a well-known slip gives, and its words."""

    above: float
    to: float
    text: str


class CheckOut(BaseModel):
    """Something to measure; `opens`: the gap that one unit off makes, mm."""

    what: What
    label: str
    how: str
    unit: Literal["mm", "deg"]
    expected: float
    figure: Figure
    opens: float
    bands: list[BandOut]
    slips: list[SlipOut]
    view: ViewOut | None


class OutcomeOut(BaseModel):
    """What can be done with a piece that is wrong. `body`: of the record that says so; `needs`: what it must measure at least, mm, `at_least`: the same in a sentence, at the tape's next mark; `open`: the tasks that must
    still be to do."""

    way: Literal["recut", "use", "shave", "keep"]
    title: str
    text: str
    needs: float | None
    at_least: str
    open: list[str]
    body: dict[str, Any]


class TaskOut(BaseModel):
    """One thing to do. `step`: which of the steps it is part of; `again`: what has changed where what was done last was the same step; `first`: measured before
    its like follow; `checks`: which of the checks; `shave`: what can be done where it is only too long."""

    key: str
    doing: Doing
    work: Work
    step: int
    piece: str
    tag: str
    title: str
    what: str
    again: str
    first: bool
    fingerprint: str
    checks: list[int]
    shave: OutcomeOut | None


class BenchStepOut(BaseModel):
    """What a step's tasks have in common: the operator's picture and all that is set and marked; `notes`: the exact angles where the scales show others, what touches the
    stop."""

    key: str
    tool: str
    views: list[ViewOut]
    sets: list[SetOut]
    lies: str
    changed: str
    mark: str
    dial: str
    boards: str
    test: list[str]
    misses: list[str]
    figures: list[EdgeOut]
    cautions: list[str]
    notes: list[str]


class BenchPieceOut(BaseModel):
    """A piece on the strip: its outline, what is done to it, which of that is measured, and what can be done with it when it is wrong."""

    key: str
    tag: str
    name: str
    outline: list[Point2]
    tasks: list[str]
    measured: list[str]
    outcomes: list[OutcomeOut]


class RulerOut(BaseModel):
    """The tape: its unit, how long one graduation is, how many there are in a unit; `refusals`: why a text is no figure, by code, with places for the text."""

    unit: Literal["mm", "in"]
    graduation_mm: float
    parts: int
    refusals: dict[str, str]


class BenchOut(BaseModel):
    """A project at the bench. `based_on`: what all of it but the records follows from; `practice`: what went wrong in practice lately and is
    needed here, in words; `reminders`: lessons of other projects by the step they belong to."""

    project: str
    name: str
    based_on: str
    closing: ClosingLine
    ruler: RulerOut
    steps: list[BenchStepOut]
    checks: list[CheckOut]
    tasks: list[TaskOut]
    pieces: list[BenchPieceOut]
    practice: str
    reminders: dict[str, ReminderOut]
    records: list[RecordOut]
