"""The workshop's mouldings, and the frames that come out of them."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from fennup.app.schemas.api import Body, Version
from fennup.app.schemas.fit import LineOut, Tone
from fennup.app.schemas.log import LARGEST_PHOTO
from fennup.app.schemas.sheet import ControlOut, ViewOut
from fennup.core.drawing.edit import Choose, Edit


class InUnit(BaseModel):
    """The unit in which figures are read and written."""

    unit: Literal["mm", "in"] = "mm"


class MouldingOut(BaseModel):
    """A moulding of the workshop, drawn, to be edited on its drawing. `doubts`: what speaks against it."""

    id: str
    title: str
    name: str
    wood: str
    finish: str
    size_text: str
    found_text: str
    view: ViewOut
    controls: list[ControlOut]
    photo: str
    doubts: list[str]


class ContentOut(BaseModel):
    """Something to be framed. `weight_typed`: its weight as one would type it, empty where nobody has weighed it."""

    id: str
    title: str
    name: str
    size_text: str
    controls: list[ControlOut]
    weight_typed: str
    weight_text: str
    stack_text: str


class MouldingsOut(BaseModel):
    """All of both."""

    version: int
    undo: str | None
    redo: str | None
    mouldings: list[MouldingOut]
    contents: list[ContentOut]


class MouldingsChange(Body):
    """Acts on the mouldings: one revision, one undo step."""

    version: Version
    acts: Annotated[list[Edit], Field(min_length=1, max_length=20)]


class MouldingsLook(Body):
    """Acts on the mouldings to look at without saving."""

    acts: Annotated[list[Edit], Field(min_length=1, max_length=20)]


class CellOut(BaseModel):
    """One frame in the table: `figure` is how large it is outside, `text` what is to be said first; `tone`: whether it can be made."""

    moulding: str
    figure: str
    needs: str
    text: str
    tone: Tone


class FrameRow(BaseModel):
    """A content with the frames that come out for it."""

    content: str
    title: str
    cells: list[CellOut]


class FramesOut(BaseModel):
    """The table. `left_out`: what has no room in it."""

    mouldings: list[tuple[str, str]]
    rows: list[FrameRow]
    left_out: str


class FramePath(BaseModel):
    """A content in a moulding."""

    content_id: Annotated[str, Field(max_length=8)]
    moulding_id: Annotated[str, Field(max_length=8)]


class FrameOut(BaseModel):
    """One frame, with all that is to be said of it. `possible`: whether there is such a frame at all."""

    title: str
    lines: list[LineOut]
    possible: bool


class MouldingPhoto(Body):
    """A photo of a moulding, in base64."""

    version: Version
    moulding: Annotated[str, Field(max_length=8)]
    name: Annotated[str, Field(min_length=1, max_length=200)]
    content: Annotated[str, Field(min_length=1, max_length=LARGEST_PHOTO)]


class MouldingPhotoPath(BaseModel):
    """A moulding's photo."""

    file_id: Annotated[str, Field(max_length=36)]


class MadeOf(BaseModel):
    """An assembly whose boards may be of a moulding. `options`: of which, each with the act on the project; `keep`: the act on the workshop's mouldings that puts the one it has among them."""

    member: str
    title: str
    options: list[tuple[str, str, Choose]]
    keep: Choose


class MadeOfOut(BaseModel):
    """All such assemblies of a project, and the version of the workshop's mouldings."""

    version: int
    members: list[MadeOf]
