"""What a kind gives: boards, the joints between them, the lines that can be measured, and what was asked of them."""

from dataclasses import dataclass
from typing import Literal

from fennup.core.assembly.board import Board, End, Side

JointKind = Literal["miter", "butt"]
LineName = Literal["opening", "rabbet", "outside"]
Severity = Literal["note", "warning", "error"]


@dataclass(frozen=True)
class Mating:
    """One face of a joint: a facet of a board's solid, by name: `left:0`, `right:0`, `upper`, ..."""

    board: str
    facet: str


@dataclass(frozen=True)
class Joint:
    """Two faces that must meet. A miter's cover each other; a butt's `a` lies wholly on `b`.

    `ends`: the two board ends that come together here, in the order in which one goes round.
    """

    id: str
    kind: JointKind
    a: Mating
    b: Mating
    ends: tuple[tuple[str, End], tuple[str, End]]


@dataclass(frozen=True)
class Outline:
    """A line round the assembly, made of one long side of each board in turn and measured on one wide side of them.

    `rings` is True where the last board's line meets the first's. `broken` are the places between board i and i + 1
    (wrapping) where the two do not meet, so that each line ends at its board's own end.
    """

    name: LineName
    sides: tuple[tuple[str, Side], ...]
    on: Side
    rings: bool
    broken: frozenset[int] = frozenset()


@dataclass(frozen=True)
class Claim:
    """What the user asked for, as a measure to be taken on the finished solids; `field` is where it was asked."""

    measure: str
    asked: float
    field: str
    unit: Literal["mm", "deg"] = "mm"


@dataclass(frozen=True)
class Finding:
    """Something to know about a result: a code, how bad, the parts and fields concerned, a value and its limit."""

    code: str
    severity: Severity
    parts: tuple[str, ...] = ()
    fields: tuple[str, ...] = ()
    value: float | None = None
    limit: float | None = None


@dataclass(frozen=True)
class Assembly:
    """Boards, joints, outlines and claims in the kind's own order; `findings` are those that only the kind can know.

    `closed`: the last joint meets the first board, so that there is a ring to close.
    """

    boards: tuple[Board, ...]
    joints: tuple[Joint, ...]
    outlines: tuple[Outline, ...]
    claims: tuple[Claim, ...]
    closed: bool
    findings: tuple[Finding, ...] = ()

    def board(self, id: str) -> Board:
        """The board of that id."""
        return next(b for b in self.boards if b.id == id)

    def outline(self, name: LineName) -> Outline | None:
        """The line of that name, if the boards have it."""
        return next((o for o in self.outlines if o.name == name), None)
