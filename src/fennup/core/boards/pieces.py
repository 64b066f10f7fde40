"""From finished parts to the pieces that are sawn out of boards: their sections, their ends, and how each may be turned."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import cached_property
from math import ceil
from typing import TYPE_CHECKING, Literal

from fennup.core.assembly.board import Board
from fennup.core.boards.ends import SQUARE, End, at_corner, corners, ends_of, reach
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, dot, scale
from fennup.core.parts.alike import ANY_WAY, AS_IT_LIES, END_FOR_END, Turn, keeps_section, turned, turned_back, usable_turns
from fennup.core.parts.facts import PartFacts
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING, SAME

if TYPE_CHECKING:
    from fennup.core.boards.rows import Row

MM_DIGITS = 9  # two sections alike to these are one
ALONG_ENOUGH = 0.3  # of a side's normal, along the bar: what looks less that way is no end
# A piece whose grain runs across its own length is laid with its y along the board.
ON_END: Turn = ((0.0, -1.0, 0.0), (1.0, 0.0, 0.0), (0.0, 0.0, 1.0))
Sort = Literal["board", "stave", "panel", "strip"]


@dataclass(frozen=True)
class Lie:
    """One way in which a piece may lie in a board: where its own axes go, and its ends as they then are. `at`: where its left end
    crosses the bar's middle line, from its own origin."""

    turn: Turn
    left: End
    right: End
    at: float


@dataclass(frozen=True)
class Piece:
    """Everything alike that is to be sawn out: `keys` are the boards of the assembly. `axis_mm` is what lies on the middle line from
    end to end, `overall_mm` from tip to tip. `planes` end it along the bar, in the axes
    that `lying` brings it to, counted from `middle`, the middle of its section there. `compound`: how many ends lean both ways.
    `own`: how each board lies in its own axes as against the first, and how far along it then is.
    `sides` bound it across the bar, where they are sawn too; `row`: it is several side by side.
    `blunt`: its own end cuts, where it is laid as if it were square at its tips.
    `shows`: its face must stay up; `profiled`: something is ploughed along it; `ready`: it is a moulding that looks so, and comes of nothing else; `glued`: it is glued up, of pieces so wide
    and thick, before it is cut. A `strip` is glued up with others to `of`."""

    keys: tuple[str, ...]
    sort: Sort
    width_mm: float
    thickness_mm: float
    axis_mm: float
    overall_mm: float
    lies: tuple[Lie, ...]
    planes: tuple[Plane, ...]
    middle: Vec
    shows: bool
    profiled: bool
    compound: int = 0
    lying: Turn = AS_IT_LIES
    own: tuple[tuple[str, Turn, float], ...] = ()
    sides: tuple[Plane, ...] = ()
    row: "Row | None" = None
    blunt: tuple[Plane, ...] = ()
    ready: Section | None = None
    glued: tuple[tuple[float, float], ...] = ()

    @property
    def id(self) -> str:
        """The first board's key."""
        return self.keys[0]

    def called(self, prefix: str) -> "Piece":
        """The same with a prefix to its keys."""
        own = tuple((f"{prefix}{key}", turn, along) for key, turn, along in self.own)
        return replace(self, keys=tuple(f"{prefix}{key}" for key in self.keys), own=own) if prefix else self

    def as_first(self, key: str, p: Vec) -> Vec:
        """A point in a board's own axes, where it is on the first of those alike."""
        for other, turn, along in self.own:
            if other == key:
                x, y, z = turned_back(turn, p)
                return (x + along, y, z)
        return p

    @property
    def section(self) -> tuple[float, float]:
        """Width and thickness of the bar that it comes out of."""
        return round(self.width_mm, MM_DIGITS), round(self.thickness_mm, MM_DIGITS)

    @cached_property
    def shape(self) -> tuple[tuple[End, End], ...]:
        """What tells how it nests, whatever its length."""
        return tuple((lie.left, lie.right) for lie in self.lies)


def pieces_of(parts: Iterable[PartFacts]) -> tuple[Piece, ...]:
    """The pieces of a design's parts, in their order."""
    return tuple(_piece(facts) for facts in parts)


def crosswise(parts: Iterable[PartFacts]) -> tuple[Piece, ...]:
    """The panels a quarter round: for sheets without a grain."""
    return tuple(_piece(facts, across=True) for facts in parts if facts.board.panel)


def _piece(facts: PartFacts, *, across: bool = False) -> Piece:
    board = facts.board
    sort: Sort = "panel" if board.panel else "stave" if board.stave else "board"
    lying: Turn = ON_END if board.stave or across else AS_IT_LIES
    points = [turned(lying, p) for solid in facts.solid.local for p in solid.points]
    if sort == "board":
        width, middle = board.section.width_mm, (0.0, 0.0, 0.0)
    else:
        low, high = min(p[1] for p in points), max(p[1] for p in points)
        width, middle = high - low, (0.0, (low + high) / 2, 0.0)
    every = tuple(_cuts(board, lying, middle))
    planes = tuple(p for p in every if abs(p.normal[0]) > NOTHING)
    if sort != "board":
        planes = _blunt(planes, [p[0] for p in points], 0)
    sides = _blunt(every, [p[1] - middle[1] for p in points], 1) if sort != "board" else ()
    thick = board.section.thickness_mm
    blunt: tuple[Plane, ...] = ()
    if _crossing(planes, width, thick):
        # The cuts cross before they reach a long corner: such pieces would come to lie beside each other.
        blunt, planes = planes, _blunt((), [p[0] for p in points], 0)
    lies: list[Lie] = []
    for turn in _turns(board, sort):
        (start, left), (end, right) = ends_of(tuple(Plane(turned(turn, p.normal), p.offset) for p in planes))
        if sort != "board" or (left, right) not in [(lie.left, lie.right) for lie in lies]:
            lies.append(Lie(turn, left, right, start))
    first, axis = lies[0], end - start
    tips = reach(first.left, width, thick, right=False) + reach(first.right, width, thick, right=True)
    section = board.section
    return Piece(
        facts.group.boards, sort, width, thick, axis, axis + tips, tuple(lies), planes, middle, board.shows,
        not section.plain, sum(_compound(cut) for cut in (first.left, first.right)), lying,
        tuple(_turned(facts, key, facts.group.turn_of(key)) for key in facts.group.boards), sides, blunt=blunt, ready=section if board.ready else None,
        glued=tuple((one.width_mm, one.thickness_mm) for one in board.glued),
    )  # fmt: skip


def _crossing(planes: tuple[Plane, ...], width: float, thick: float) -> bool:
    """Whether the ends leave nothing along some long corner."""
    (start, left), (end, right) = ends_of(planes)
    lengths = [
        end + at_corner(right, y, z, right=True) - start - at_corner(left, y, z, right=False) for y, z in corners(width, thick)
    ]
    return min(lengths) < -SAME


def _turned(facts: PartFacts, key: str, turn: Turn) -> tuple[str, Turn, float]:
    """How a board lies as against the first, and how far along it then is."""
    low, _ = facts.solid.extent_x()
    start, end = facts.solids[key].extent_x()
    return key, turn, low - start if turn[0][0] > 0 else low + end


def _compound(end: End) -> bool:
    """Whether an end leans both ways."""
    return any(abs(cut.up) > NOTHING and abs(cut.out) > NOTHING for cut in end)


def _cuts(board: Board, lying: Turn, middle: Vec) -> list[Plane]:
    """All the planes that bound it along and across the bar, in axes that have x along the bar and the section's middle as origin."""
    planes = [*board.left, *board.right, *((board.side("upper"), board.side("lower")) if board.stave else ())]
    found = []
    for plane in planes:
        normal = turned(lying, plane.normal)
        found.append(Plane(normal, plane.offset - dot(normal, middle)))
    return found


def _blunt(planes: tuple[Plane, ...], at: list[float], axis: int) -> tuple[Plane, ...]:
    """The planes that end a panel or a stave along an axis, given where all its corners are along that: what runs nearly along it is a
    side, and where nothing else ends it a square cut at its tip does."""
    ends = [p for p in planes if abs(p.normal[axis]) > ALONG_ENOUGH]
    out: Vec = (1.0, 0.0, 0.0) if axis == 0 else (0.0, 1.0, 0.0)
    if not any(p.normal[axis] < 0 for p in ends):
        ends.append(Plane(scale(out, -1.0), -min(at)))
    if not any(p.normal[axis] > 0 for p in ends):
        ends.append(Plane(out, max(at)))
    return tuple(ends)


def _turns(board: Board, sort: Sort) -> tuple[Turn, ...]:
    """The turns in the board that face, profile and grain allow."""
    if sort == "board":
        return usable_turns(board)
    turns = (AS_IT_LIES, END_FOR_END) if board.shows else ANY_WAY
    return tuple(turn for turn in turns if keeps_section(board.section, turn))


def plain_piece(keys: tuple[str, ...], width: float, thick: float, length: float) -> Piece:
    """A square-cut piece that may lie in any way: a strip to be glued up, or what somebody adds."""
    half = length / 2
    planes = (Plane((-1.0, 0.0, 0.0), half), Plane((1.0, 0.0, 0.0), half))
    lie = Lie(AS_IT_LIES, SQUARE, SQUARE, -half)
    return Piece(keys, "strip", width, thick, length, length, (lie,), planes, (0.0, 0.0, 0.0), False, False)


def glued_up(piece: Piece, widest: float, joint_mm: float, over_mm: float) -> Piece:
    """The strips that a piece wider than any board is glued up from: alike, each with `joint_mm` to plane off for every glued edge, and
    `over_mm` too long in all. Each strip's key is the board's with its number."""
    count = ceil((piece.width_mm - NOTHING) / (widest - 2 * joint_mm))
    width = piece.width_mm / count + 2 * joint_mm
    keys = tuple(f"{key} strip {n + 1}" for key in piece.keys for n in range(count))
    return plain_piece(keys, width, piece.thickness_mm, piece.overall_mm + over_mm)


def laid_up(piece: Piece, over_mm: float) -> tuple[Piece, ...]:
    """The pieces that one is glued up of before it is cut, each too long by so much; keys as of strips."""
    found = []
    for n, (width, thick) in enumerate(piece.glued):
        keys = tuple(f"{key} strip {n + 1}" for key in piece.keys)
        found.append(plain_piece(keys, width, thick, piece.overall_mm + over_mm))
    return tuple(found)


def rough_mm(piece: Piece, width: float, thick: float) -> float:
    """The least length of a piece of rough wood of that section that the finished one, in its middle, still comes out of: thicker
    wood reaches farther out where an end leans."""
    lie = piece.lies[0]
    return piece.axis_mm + reach(lie.left, width, thick, right=False) + reach(lie.right, width, thick, right=True)
