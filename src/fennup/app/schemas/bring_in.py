"""Files that come in: looked at first, then brought in."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from fennup.app.schemas.api import Body
from fennup.app.schemas.sheet import ViewOut

Sort = Literal["project", "workshop", "outline", "rack"]
LARGEST_TEXT = 64 * 1024 * 1024


class FileIn(Body):
    """A file as text. `mapping`: what a table's columns are, by their names there; `unit`: of a table's sizes; `made`: what an outline becomes, of boards so wide and thick."""

    name: Annotated[str, Field(min_length=1, max_length=200)]
    content: Annotated[str, Field(max_length=LARGEST_TEXT)]
    mapping: (
        Annotated[dict[Annotated[str, Field(max_length=200)], Annotated[str, Field(max_length=40)]], Field(max_length=60)] | None
    ) = None
    unit: Literal["mm", "in"] = "mm"
    made: Literal["frame_opening", "frame_outside", "case", "moulding"] = "frame_outside"
    width_mm: Annotated[float, Field(gt=0, le=2000, allow_inf_nan=False)] = 60.0
    thickness_mm: Annotated[float, Field(gt=0, le=500, allow_inf_nan=False)] = 20.0


class ColumnOut(BaseModel):
    """A column of a table, what it was taken for, and what stands in its first rows."""

    name: str
    key: str
    sample: list[str]


class FileRead(BaseModel):
    """What a file is, what of it comes in, and what does not. `columns`: of a table, `keys`: what a column can be, each with its name; `view`: an outline."""

    sort: Sort
    headline: str
    coming: list[str]
    not_coming: list[str]
    columns: list[ColumnOut]
    keys: list[tuple[str, str]]
    view: ViewOut | None


class BroughtIn(BaseModel):
    """What came in: new projects, how many boards on the rack and how many mouldings, whether the workshop was replaced."""

    projects: list[str]
    boards: int
    mouldings: int = 0
    workshop: bool


class ReadingsText(Body):
    """A list of readings as text: what was read, and the figure, one a line."""

    text: Annotated[str, Field(min_length=1, max_length=20_000)]


class ReadingLine(BaseModel):
    """A line of it: what it says, the figure, the reading that it was taken for, what that should be; `problem`: why it cannot be taken."""

    text: str
    value: str
    key: str
    expected: str
    problem: str


class ReadingsRead(BaseModel):
    """The lines, and all readings that there are, by key."""

    lines: list[ReadingLine]
    left: list[str]
    options: list[tuple[str, str]]


class ReadingIn(Body):
    """A reading by its key, as typed."""

    key: Annotated[str, Field(min_length=1, max_length=160)]
    value: Annotated[str, Field(min_length=1, max_length=60)]


class ReadingsIn(Body):
    """Readings to be written down, each once: the same list sent again is the same."""

    id: Annotated[str, Field(pattern=r"^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$")]
    lines: Annotated[list[ReadingIn], Field(min_length=1, max_length=200)]
