"""What goes over the wire about practice."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from fennup.app.schemas.api import Body, SolidsOut
from fennup.app.schemas.sheet import ViewOut
from fennup.core.bench.practice import Level


class PracticeQuery(BaseModel):
    """Whose parts are practised; without one the demo's."""

    project: Annotated[str, Field(max_length=40)] = ""


class DrillQuery(PracticeQuery):
    """What is practised, and which of many drills."""

    level: Level
    seed: Annotated[int, Field(ge=0, le=1_000_000)] = 0


class LevelOut(BaseModel):
    """Something to practise. `answers`: the last ones, right or wrong, the newest last; `here`: the project needs it."""

    level: Level
    name: str
    text: str
    answers: list[bool]
    here: bool


class PracticeOut(BaseModel):
    """All there is to practise, the easiest first; `begin`: where to begin now."""

    name: str
    levels: list[LevelOut]
    begin: Level


class DrillOptionOut(BaseModel):
    """One way to lay the board. `reason`: why it is right, or what it makes instead; `solids`: the piece that comes of it, beside the wanted one."""

    views: list[ViewOut]
    setting: str
    lies: str
    right: bool
    reason: str
    solids: SolidsOut


class DrillOut(BaseModel):
    """A part with one end still to cut. `view`: as it must become, seen from its face."""

    level: Level
    title: str
    whose: str
    view: ViewOut
    options: list[DrillOptionOut]


class AnswerIn(Body):
    """How a drill was answered."""

    level: Level
    right: Literal[True, False]
