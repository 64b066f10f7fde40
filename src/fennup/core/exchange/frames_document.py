"""The frames that come out of some mouldings, as a document of figures."""

from typing import Literal

from pydantic import BaseModel

from fennup.core.mouldings.frames import Frame, frames_of, short_by_mm
from fennup.core.mouldings.library import Mouldings


class FromLengthForm(BaseModel):
    """What comes out of one found length."""

    length_mm: float
    pieces: int
    left_mm: float


class PartForm(BaseModel):
    """So many parts of one length, long points."""

    count: int
    long_mm: float


class LipForm(BaseModel):
    """The lip: how far it reaches over, how much of that covers what lies in it when that lies in the middle, how thick it is at the least on the half by its root; what it bears and what lies on it, N on each
    mm of its length, when the frame lies on its face."""

    reach_mm: float
    cover_mm: float
    least_mm: float
    bears_n_mm: float
    load_n_mm: float
    strong: bool


class FrameForm(BaseModel):
    """One content in one moulding. `refused`: the code of why there is none; all else is then empty. `needs_mm` in one length, cuts included; `missing` pieces for which there is no length left, `short_mm`: by
    how much one is too short. `stands_out_mm` of the rabbet; under 0 there is room."""

    content: str
    moulding: str
    refused: str | None
    outside_mm: tuple[float, float]
    parts: list[PartForm]
    needs_mm: float
    lengths: list[FromLengthForm]
    missing: int
    short_mm: float | None
    lip: LipForm | None
    stands_out_mm: float
    can_be_made: bool


class FramesDocument(BaseModel):
    """The whole table, row by row."""

    format: Literal["fennup.frames"] = "fennup.frames"
    version: Literal[1] = 1
    kerf_mm: float
    library: Mouldings
    frames: list[FrameForm]


def frames_document(library: Mouldings, kerf_mm: float) -> FramesDocument:
    """Every content in every moulding, the first so many of both."""
    frames = [_frame(frame, library, kerf_mm) for frame in frames_of(library, kerf_mm)]
    return FramesDocument(kerf_mm=kerf_mm, library=library, frames=frames)


def _frame(frame: Frame, library: Mouldings, kerf_mm: float) -> FrameForm:
    content, moulding, bearing = library.contents[frame.content], library.mouldings[frame.moulding], frame.bearing
    return FrameForm(
        content=frame.content,
        moulding=frame.moulding,
        refused=frame.refused.code if frame.refused else None,
        outside_mm=frame.outside_mm,
        parts=[PartForm(count=count, long_mm=mm) for count, mm in frame.parts],
        needs_mm=frame.needs_mm,
        lengths=[FromLengthForm(length_mm=one.mm, pieces=one.pieces, left_mm=one.left_mm) for one in frame.lengths],
        missing=frame.missing,
        short_mm=short_by_mm(content, moulding, kerf_mm) if frame.missing else None,
        lip=LipForm(
            reach_mm=bearing.lip.reach_mm, cover_mm=bearing.cover_mm, least_mm=bearing.least_mm, bears_n_mm=bearing.bears_n_mm,
            load_n_mm=bearing.load_n_mm, strong=bearing.strong,
        ) if bearing else None,
        stands_out_mm=frame.stands_out_mm,
        can_be_made=frame.good,
    )  # fmt: skip
