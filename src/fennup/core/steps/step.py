"""One step of the work on the wood: what is done, to which part, on which tool, how it lies, and how its length is found."""

from dataclasses import dataclass, replace
from typing import Literal

from fennup.core.assembly.board import Board, End, Side
from fennup.core.geometry.plane import Plane
from fennup.core.parts.facts import StoppedFact
from fennup.core.parts.solid import Arris
from fennup.core.saw.marking import Marking
from fennup.core.saw.ways import RipWay, Way

Work = Literal[
    "rough", "rip", "rabbet", "groove", "chamfer", "round", "cove", "tongue", "milled", "glue_up", "taper", "outline", "test", "first_end", "second_end", "lap", "birdsmouth", "holes", "scribe", "saw_apart",
]  # fmt: skip
ENDS_OF_BOARDS: tuple[Work, ...] = ("first_end", "second_end", "scribe")
RAW_OVER_MM = 15.0  # what a raw piece is longer than its part at each end


@dataclass(frozen=True)
class Stop:
    """Where the end that is away from the blade lies: `distance_mm` along the fence, from the side of the kerf where the piece stays, taken where
    fence and table meet, to the tip of that end; at the raw end or at the one that is made. `corners`: the long corners whose tip it is;
    `out_mm` from the fence and `up_mm` over the table, where the block must reach to be touched."""

    distance_mm: float
    touches: Literal["raw_end", "made_end"]
    corners: tuple[Arris, ...]
    out_mm: float
    up_mm: float


@dataclass(frozen=True)
class Line:
    """Where the blade's line runs over a sheet or a stave: a place on it, on the side that is down, from the blank's left end and lower edge."""

    from_left_mm: float
    from_lower_mm: float


@dataclass(frozen=True)
class Wall:
    """One side of a notch as a saw cut: angles in the saw's frame, the side of the blade where the wood stays, and how far along the board from
    the tip of its finished left end to where the cut's line crosses the corner of fence and table."""

    swing_deg: float
    tilt_deg: float
    kept: Literal["left", "right"]
    from_left_mm: float


@dataclass(frozen=True)
class Notched:
    """A notch as saw cuts with the board flat: which side is down, which edge at the fence, its walls, and how deep from the upper side; None
    where the walls meet."""

    down: Literal["face", "back"]
    fence: Literal["upper", "lower"]
    walls: tuple[Wall, ...]
    deep_mm: float | None


@dataclass(frozen=True)
class Step:
    """`key`: the cut's own, or what is done; `pieces`: the boards that it is done to; `needs`: steps that must come before it; `blank`: lows and highs
    of a sheet's blank in the board's axes. `by_hand`: to marked lines, nothing is set."""

    key: str
    work: Work
    part: str = ""
    pieces: tuple[str, ...] = ()
    tool: str | None = None
    way: Way | None = None
    rip: RipWay | None = None
    end: End | None = None
    index: int = 0
    edge: Side | None = None
    stop: Stop | None = None
    marking: Marking | None = None
    line: Line | None = None
    notch: Notched | None = None
    pocket: StoppedFact | None = None
    ways: tuple[Way, ...] = ()
    needs: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    pattern: bool = False
    by_hand: bool = False
    cut: Plane | None = None

    @property
    def position(self) -> tuple[str, float, float] | None:
        """What the tool must be set to: tool, swing, tilt, rounded so that equal ones are equal; None where nothing is set."""
        if self.by_hand:
            return None
        if self.way:
            return (self.way.tool, round(self.way.swing_deg, 6) + 0.0, round(self.way.tilt_deg, 6) + 0.0)
        return (self.rip.tool, 0.0, round(self.rip.tilt_deg, 6) + 0.0) if self.rip else None

    def but(self, **changed: object) -> "Step":
        """As `dataclasses.replace`."""
        return replace(self, **changed)  # type: ignore[arg-type]


@dataclass(frozen=True)
class Raw:
    """What a part is made of: from where to where it reaches along the board, in its own axes, before anything is cut."""

    board: Board
    low: float
    high: float
