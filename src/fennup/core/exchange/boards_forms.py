"""The forms of a boards plan: enough for somebody else's program to check it. mm, degrees; a board's axes are x along it, y across it
from its near edge, z up from its underside."""

from typing import Literal

from pydantic import BaseModel

Point = tuple[float, float, float]
Line = tuple[Point, Point]
Goal = Literal["rack_first", "cheapest", "fewest_boards", "least_waste", "fewest_changes"]


class FlawForm(BaseModel):
    """Where nothing may be cut from, right through the board."""

    from_mm: float
    to_mm: float
    low_mm: float
    high_mm: float


class PlacedForm(BaseModel):
    """A piece in its place. `key`: the board of the assembly that it becomes, `part` the first of those alike. `arrises`: its four long
    corners from left to right end, before anything but its ends is cut: near and low, near and high, far and low, far and high.
    `axes`: to where its own x, y and z go; `origin` to where its own origin goes. `outline`: what is seen of it from above. `rough_mm`:
    the least length to cut it to from the board before that is planed and ripped. `over_turned`: its face is down."""

    key: str
    part: str
    project: str
    sort: Literal["board", "stave", "panel", "strip"]
    spare: bool
    arrises: tuple[Line, Line, Line, Line]
    axes: tuple[Point, Point, Point]
    origin: Point
    outline: list[tuple[float, float]]
    overall_mm: float
    rough_mm: float
    over_turned: bool
    end_for_end: bool


class SawnForm(BaseModel):
    """One cut, in the order in which they are made: the blade takes from the plane `normal . p = offset_mm` to a kerf beyond it. `before`
    and `after` are the pieces that it parts, `ends` the ends that it makes. A `trim` has its kerf within what it takes off."""

    sort: Literal["trim", "resaw", "rip", "part", "side", "end", "off"]
    normal: Point
    offset_mm: float
    before: list[str]
    after: list[str]
    ends: list[str]


class OffcutForm(BaseModel):
    """What is left over in one piece; `kept` when it is worth keeping."""

    from_mm: float
    to_mm: float
    low_mm: float
    width_mm: float
    thickness_mm: float
    kept: bool


class BoardForm(BaseModel):
    """One board and what comes out of it. `source`: the board of the rack, `r3`, or the yard's line, `y:CODE`."""

    id: str
    source: str
    number: int
    name: str
    bought: bool
    price: float
    sheet: bool
    length_mm: float
    width_mm: float
    thickness_mm: float
    trim_mm: tuple[float, float]
    flaws: list[FlawForm]
    strips: list[tuple[float, float, float, float]]
    pieces: list[PlacedForm]
    cuts: list[SawnForm]
    offcuts: list[OffcutForm]


class UnplacedForm(BaseModel):
    """A piece without a board: there is none of its section (`no_board`), none is long enough (`too_long`), no room is left (`no_room`), or
    not in the board that it was put into (`pinned`)."""

    key: str
    part: str
    project: str
    width_mm: float
    thickness_mm: float
    overall_mm: float
    why: Literal["no_board", "too_long", "no_room", "pinned"]
    longest_mm: float


class BuyForm(BaseModel):
    """So many of one line of the price list. `spares`: how many pieces in them are cut to be on the safe side."""

    code: str
    name: str
    count: int
    length_mm: float
    width_mm: float
    thickness_mm: float
    price: float
    sum: float
    spares: int


class ShortForm(BaseModel):
    """By how much the wood of one section is short at the least: were `board` so much longer, everything of it would fit."""

    board: str
    name: str
    short_mm: float
    width_mm: float
    thickness_mm: float


class CureForm(BaseModel):
    """A change of one size of the project after which everything fits: from its value to another one."""

    measure: str
    from_value: float
    to_value: float
    unit: Literal["mm", "deg"]


class YardForm(BaseModel):
    """What it would come to with the yard's boards, where the plan goes without them and is short."""

    cost: float
    boards: int


class OtherForm(BaseModel):
    """What another choice would change: only boards of one length, or as many of them as one likes. `cost`: what is to be bought."""

    only_mm: float
    boards: int
    cost: float
    wood_mm3: float
    fits: bool


class BoardsDocument(BaseModel):
    """A plan of what comes out of which board. `value` and `bound`: what the goal counts and what no plan can go below, in `counted_in`;
    `proven`: it is the best there is; `all_ways`: every way of ripping a board was weighed, else the bound is one for those that were; `short_proven`: with less wood than what is short nothing would do; `stopped`: before everything was tried; `faults`: what the checker finds, nothing of a plan
    that holds."""

    goal: Goal
    kerf_mm: float
    square_first: bool
    complete: bool
    proven: bool
    all_ways: bool
    short_proven: bool = False
    stopped: bool
    counted_in: Literal["mm3", "cost", "boards", "changes"]
    value: float
    bound: float
    currency: str
    boards: list[BoardForm]
    unplaced: list[UnplacedForm]
    buy: list[BuyForm]
    cost: float
    wood_mm3: float
    parts_mm3: float
    kept_mm3: float
    short: list[ShortForm] = []
    cures: list[CureForm] = []
    others: list[OtherForm] = []
    with_yard: YardForm | None = None
    faults: list[str] = []
