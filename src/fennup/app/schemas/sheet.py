"""What a screen shows, ready to be set: drawings in mm, every figure with its text, every act that can be done."""

from typing import Literal

from pydantic import BaseModel

from fennup.app.wording.figures import Figure
from fennup.app.wording.verdicts import ClosingLine, FindingLine, SimpleLine
from fennup.core.drawing.edit import Edit
from fennup.core.drawing.view import Mark, Shape

Standing = Literal["given", "suggested", "derived", "fixed"]
Point = tuple[float, float]


class DimensionOut(BaseModel):
    """A dimension line with its words. For an angle, `a` and `b` are directions from `about`. `name`: what it is called where no words stand at it."""

    id: str
    label: str
    name: str = ""
    figure: Figure
    a: Point
    b: Point
    unit: Literal["mm", "deg"]
    standing: Standing
    away: Point
    lane: float
    about: Point | None
    at: Point | None
    acts: Edit | None
    can_free: bool


class GripOut(BaseModel):
    """A ring that can be dragged, and what it is called; `along` is the one direction in which it goes, if there is only one."""

    id: str
    name: str
    at: Point
    along: Point | None


class ViewOut(BaseModel):
    """One drawing."""

    id: str
    title: str
    short: str
    shapes: list[Shape]
    marks: list[Mark]
    dimensions: list[DimensionOut]
    grips: list[GripOut]


class OptionOut(BaseModel):
    """One answer to a choice."""

    code: str
    label: str
    acts: list[Edit]
    chosen: bool
    picture: ViewOut | None


class ControlOut(BaseModel):
    """Something to decide: a figure, or a choice of one or of several; `whose` of several assemblies it is about."""

    id: str
    label: str
    group: str
    group_label: str
    whose: str
    about: str
    options: list[OptionOut]
    figure: Figure | None
    unit: Literal["mm", "deg", "count", "gap", "plain"] | None
    acts: Edit | None
    style: Literal["pick", "list", "toggles", "sentence", "menu", "text"]
    standing: Standing


class SizeOut(BaseModel):
    """One line that can be measured on the whole; `whose` of several assemblies it is, `own` what it is called there."""

    id: str
    label: str
    whose: str
    own: str
    figure: Figure
    standing: Standing
    acts: Edit | None
    can_free: bool


class RungOut(BaseModel):
    """One rung of a part's length ladder; `here` is the line to measure along at the bench."""

    id: str
    label: str
    note: str
    figure: Figure
    here: bool
    why: list[str]


class EndCutOut(BaseModel):
    """One cut of an end in words."""

    miter: Figure
    leans: str
    bevel: str


class EndOut(BaseModel):
    """One end of a part: its cuts in the order in which they are made."""

    end: Literal["left", "right"]
    name: str
    cuts: list[EndCutOut]
    why: list[str]


class EdgeOut(BaseModel):
    """What is worked on a board beside its ends: a ripped edge, a rabbet, a groove."""

    label: str
    figure: Figure
    note: str


class PartOut(BaseModel):
    """A part's card. `tag` is what it is called for short, `tags` what each of its boards is; `ways`: its ends' settings when it lies another way; `upper` is
    what its upper edge is called."""

    id: str
    tag: str
    name: str
    boards: list[str]
    tags: list[str]
    count_text: str
    hand_text: str
    section_text: str
    upper: str
    view: ViewOut
    ends: list[EndOut]
    edges: list[EdgeOut]
    ladder: list[RungOut]
    ways: list[str]


class UseOut(BaseModel):
    """One cut made at a setting. `mark`: where it is marked."""

    part: str
    text: str
    mark: str
    lies: str
    count: int


class SettingOut(BaseModel):
    """One position of the saw. `shown` is what its scale reads; `exact` what it should be."""

    id: str
    shown: Figure
    direction: str
    tilt: str
    exact: str
    reachable: bool
    why_not: str
    uses: list[UseOut]


class PartBrief(BaseModel):
    """A part as it is told on the drawing. `boards` are those that are this part; what each of them is called, for short in `tags`,
    stands in the same order."""

    id: str
    name: str
    boards: list[str]
    tags: list[str]
    names: list[str]


class SheetOut(BaseModel):
    """Everything about one project that its drawing shows. `whole` and `part_word` are what the thing and most of its parts are
    called; `cautions` are said of its kind whatever its figures; `simple` is what plain settings in place of compound ones would open; `takes_pieces` whether more can be fitted
    between its faces; `has_levels` whether anything stands at
    a height in it."""

    whole: str
    part_word: str
    takes_pieces: bool
    has_levels: bool
    facts: str
    views: list[ViewOut]
    controls: list[ControlOut]
    sizes: list[SizeOut]
    parts: list[PartBrief]
    closing: ClosingLine
    findings: list[FindingLine]
    cautions: list[str]
    simple: list[SimpleLine]


class LookedSheet(BaseModel):
    """What a change that is only looked at would make of the drawing and the verdict; all else is as saved. `card`: that of the
    part that was asked for, if it is still there."""

    facts: str
    views: list[ViewOut]
    sizes: list[SizeOut]
    closing: ClosingLine
    findings: list[FindingLine]
    card: PartOut | None


class PartList(BaseModel):
    """All parts' cards, and `needs`: what they take of each section, a line each."""

    parts: list[PartOut]
    needs: list[str]
