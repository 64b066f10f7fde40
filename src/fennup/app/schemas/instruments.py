"""What goes over the wire about gauges and calipers."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from fennup.app.schemas.api import Body


class InstrumentOut(BaseModel):
    """An instrument that is there."""

    id: str
    name: str
    unit: Literal["deg", "mm"]


class InstrumentList(BaseModel):
    """All that are there; `notice` where none is."""

    instruments: list[InstrumentOut]
    notice: str


class ReadingOut(BaseModel):
    """What it reads, `text` as one would type it; `sent`: its key was pressed, so this one is meant. `trouble` in words: with it there may be no reading."""

    value: float | None = None
    text: str = ""
    unit: Literal["deg", "mm"] = "deg"
    sent: bool = False
    battery: float = 1.0
    trouble: str = ""


class InstrumentPath(BaseModel):
    """Which instrument."""

    instrument_id: Annotated[str, Field(pattern=r"^[a-z0-9_-]{1,40}$")]


class ZeroAsked(Body):
    """A gauge on the saw's table, and the same turned end for end, degrees."""

    first: Annotated[float, Field(ge=-360, le=360, allow_inf_nan=False)]
    turned: Annotated[float, Field(ge=-360, le=360, allow_inf_nan=False)]


class ZeroOut(BaseModel):
    """Whether its zero is true, in words."""

    is_true: bool
    text: str
