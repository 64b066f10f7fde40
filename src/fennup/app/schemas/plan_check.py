"""Checking somebody's plan: what it says, what of it cannot all be true, and what it should say."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from fennup.app.schemas.api import Body

Start = Annotated[str, Field(min_length=1, max_length=40)]
UnitName = Literal["mm", "in"]
MOST_TEXT = 20_000


class PlanText(Body):
    """A plan's figures as text or as a table: `name: figure`, one a line, or a heading row with a part a row."""

    start: Start
    unit: UnitName = "mm"
    text: Annotated[str, Field(max_length=MOST_TEXT)]


class SayableOut(BaseModel):
    """Something that a plan can say, by what it is called."""

    key: str
    label: str
    unit: Literal["mm", "deg", "count"]


class PlanLineIn(Body):
    """One figure of the plan, as it was typed."""

    key: Annotated[str, Field(min_length=1, max_length=160)]
    value: Annotated[str, Field(min_length=1, max_length=60)]


class PlanLineRead(BaseModel):
    """A line of the text: what it says, its figure, and what it was taken for; none where nothing is called like it."""

    text: str
    value: str
    key: str


class PlanRead(BaseModel):
    """What was read. `left`: lines without a figure."""

    lines: list[PlanLineRead]
    left: list[str]
    options: list[SayableOut]


class PlanAsked(Body):
    """Figures of a plan, of something that begins as a start."""

    start: Start
    unit: UnitName = "mm"
    lines: Annotated[list[PlanLineIn], Field(min_length=1, max_length=40)]


class PlanVerdict(BaseModel):
    """What a figure is by all the others."""

    key: str
    label: str
    stated: str
    true: str
    off: str
    tone: Literal["right", "wrong", "none"]
    note: str


class PlanChecked(BaseModel):
    """What the plan comes to. `others`: what else could be wrong in its place; `taken`: what it does not say, and was taken as usual; `spec`: the project that
    it is, with the exact values."""

    headline: str
    tone: Literal["right", "wrong"]
    lines: list[PlanVerdict]
    others: list[str]
    taken: list[str]
    spec: dict[str, Any]
