"""What goes over the wire about the rack, the yard and the plan of the boards."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from fennup.app.schemas.api import Body, Version
from fennup.app.schemas.sheet import ControlOut, ViewOut
from fennup.app.wording.figures import Figure
from fennup.core.drawing.edit import Choose, Edit, Give


class InVoiceOf(BaseModel):
    """The project whose tape the figures are read on and written for."""

    project: Annotated[str, Field(max_length=40)] = ""


class DefectOut(BaseModel):
    """A knot, for its ring: `grip`."""

    grip: str
    text: str


class RackBoardOut(BaseModel):
    """A board of the rack, drawn, to be edited on its drawing. `cautions`: what to look out for."""

    id: str
    name: str
    title: str
    wood: str
    length_mm: float
    width_mm: float
    view: ViewOut
    controls: list[ControlOut]
    cautions: list[str]


class RackOut(BaseModel):
    """The rack. `longest_mm`: the longest board with its end drawn beside it, so that all have one scale."""

    version: int
    undo: str | None
    redo: str | None
    keep: ControlOut
    longest_mm: float
    boards: list[RackBoardOut]


class RackChange(Body):
    """Acts on the rack: one revision, one undo step."""

    version: Version
    acts: Annotated[list[Edit], Field(min_length=1, max_length=20)]


class RackLook(Body):
    """Acts on the rack to look at without saving."""

    acts: Annotated[list[Edit], Field(min_length=1, max_length=20)]


class TableIn(Body):
    """A table as text: boards for the rack, or a price list. See docs/formats.md for the columns."""

    version: Version
    text: str


class PricesIn(Body):
    """A price list as a table, and whose it is."""

    text: str
    yard: Annotated[str, Field(max_length=60)] = ""
    currency: Annotated[str, Field(max_length=8)] = ""


class PriceLineOut(BaseModel):
    """One line of the price list. `sold_out`: the project goes without it."""

    id: str
    name: str
    size_text: str
    price_text: str
    stock_text: str
    sold_out: bool


class PricesOut(BaseModel):
    """The last price list: `age` says whose it is and how old; `notice` what became of asking for a newer one."""

    yard: str
    age: str
    notice: str
    lines: list[PriceLineOut]


class PiecePlaceOut(BaseModel):
    """A piece in its board: what it is called, how it lies, which boards it could be put into instead."""

    key: str
    tag: str
    name: str
    text: str
    pinned: bool
    own: bool


class PlanBoardOut(BaseModel):
    """One board of the plan, drawn to scale. `source`: what a piece is put into to get it there."""

    id: str
    source: str
    name: str
    size_text: str
    length_mm: float
    width_mm: float
    view: ViewOut
    pieces: list[PiecePlaceOut]
    bought: bool
    locked: bool
    lines: list[str]


class BuyLineOut(BaseModel):
    """So many of one line of the list, to tick in the yard."""

    code: str
    source: str
    count: int
    name: str
    size_text: str
    price_text: str
    sum_text: str
    spares_text: str
    thickness: Figure
    thickness_mm: float


class CureOut(BaseModel):
    """A change of the project after which everything fits."""

    label: str
    acts: list[Give]


class ShortOut(BaseModel):
    """By how much, and where."""

    text: str


class RulerMark(BaseModel):
    """A mark of the tape under the boards."""

    at_mm: float
    text: str


class UnplacedOut(BaseModel):
    """Parts without a board; the act that lets one go where it was put, and the act that puts a board for them on the rack, where those are
    a way out."""

    text: str
    let_go: list[Choose]
    add: list[Choose]


class PlanOut(BaseModel):
    """A plan as it is shown. `foot`: the place's line beside the closing line. `moved`: what lies elsewhere than in the plan before."""

    tone: Literal["closes", "opens", "fails"]
    headline: str
    detail: str
    quality: list[str]
    proof: str
    boards: list[PlanBoardOut]
    longest_mm: float
    ruler: list[RulerMark]
    unplaced: list[UnplacedOut]
    short: list[ShortOut]
    cures: list[CureOut]
    buy: list[BuyLineOut]
    total: str
    others: list[str]
    moved: list[str]
    yard_would: str
    foot: str


class OtherProjectOut(BaseModel):
    """Another project that can be cut from the same rack at once."""

    id: str
    name: str
    chosen: bool


class LeftOut(BaseModel):
    """A board that the plan goes without, and the path that lets it in again."""

    path: str
    name: str


class BoardsOut(BaseModel):
    """The Boards place of a project: its wishes and the plan. `stale`: the plan is of what was before; a newer one is being made. `based_on`
    changes with all that the plan hangs on."""

    version: int
    undo: str | None
    redo: str | None
    controls: list[ControlOut]
    wood: str
    left_out: list[LeftOut]
    rack_version: int
    plan: PlanOut | None
    stale: bool
    notice: str
    job: int | None
    others: list[OtherProjectOut]


class WishesChange(Body):
    """Acts on a project's wishes: one revision, one undo step."""

    version: Version
    acts: Annotated[list[Edit], Field(min_length=1, max_length=20)]


class Bought(Body):
    """What was bought is not what its name says: every thickness of the project that is `from_mm` becomes `text`."""

    version: Version
    from_mm: Annotated[float, Field(gt=0, le=2000, allow_inf_nan=False)]
    text: Annotated[str, Field(max_length=40)]


class CutDone(Body):
    """A plan's cuts are done: its boards leave the rack, what is left of them goes back."""

    version: Version


class CutDoneOut(BaseModel):
    """How many offcuts went back to the rack, and how many boards left it."""

    back: int
    gone: int
