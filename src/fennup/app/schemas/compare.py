"""Two projects side by side."""

from pydantic import BaseModel

from fennup.app.schemas.sheet import ViewOut
from fennup.app.wording.verdicts import ClosingLine


class ComparedOut(BaseModel):
    """One of the two."""

    id: str
    name: str
    facts: str
    closing: ClosingLine


class PairOut(BaseModel):
    """A view that both have: each alone, and the second dashed `over` the first."""

    id: str
    title: str
    short: str
    over: ViewOut
    alone: list[ViewOut]


class DifferenceOut(BaseModel):
    """One thing that is not the same in both, as it reads in each."""

    group: str
    label: str
    a: str
    b: str


class ComparisonOut(BaseModel):
    """Both, the views that both have, and what differs, in the order of the work."""

    sides: list[ComparedOut]
    views: list[PairOut]
    differences: list[DifferenceOut]
