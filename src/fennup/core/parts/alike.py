"""Which boards are the same part, which are mirror images, and how each is turned to lie as the first of its part."""

import json
from dataclasses import dataclass, field
from hashlib import sha256
from math import floor

from fennup.core.assembly.board import Board
from fennup.core.geometry.vec import Vec, dot
from fennup.core.parts.solid import Solid
from fennup.core.stock.ploughed import Groove
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING

SAME_MM = 1e-5
HALF_OF_A_HUNDREDTH = 1e-4  # of a hundredth of a mm: what counts as half way between two
# Where a board's own axes go when it is turned: as it lies, end for end with its face up, over along its length, over end for
# end; and each of these a quarter round, for a board as thick as it is wide.
Turn = tuple[Vec, Vec, Vec]
AS_IT_LIES: Turn = ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
END_FOR_END: Turn = ((-1.0, 0.0, 0.0), (0.0, -1.0, 0.0), (0.0, 0.0, 1.0))
OVER: Turn = ((1.0, 0.0, 0.0), (0.0, -1.0, 0.0), (0.0, 0.0, -1.0))
OVER_END_FOR_END: Turn = ((-1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, -1.0))
ANY_WAY = (AS_IT_LIES, END_FOR_END, OVER, OVER_END_FOR_END)
A_QUARTER_ROUND = tuple((x, (-z[0], -z[1], -z[2]), y) for x, y, z in ANY_WAY)
MIRRORED: Turn = ((-1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
# What shapes a board: a name and numbers each: a plane's normal and offset, a hole's place, side and diameter.
Outlined = list[tuple[str, tuple[float, ...]]]


@dataclass(frozen=True)
class PartGroup:
    """Boards that are one part. `id` is the first board's.

    `mirror_of` is the part whose mirror image this is, which does not fit in its place however it is turned; `turned_over_of`
    the part that this one is when turned over, so that it would fit and show its back. `turns`: where the axes of the first
    board go so that it lies as another one, for those that are not as it lies.
    """

    id: str
    boards: tuple[str, ...]
    mirror_of: str | None = None
    turned_over_of: str | None = None
    turns: dict[str, Turn] = field(default_factory=dict)

    def turn_of(self, board: str) -> Turn:
        """How the first board is turned to lie as that one."""
        return self.turns.get(board, AS_IT_LIES)


def group_parts(boards: tuple[Board, ...], solids: dict[str, Solid]) -> tuple[PartGroup, ...]:
    """Boards that coincide after some turn, in the order in which they come: after one that leaves the face up where that is
    the show side, after any where no side is."""
    found: list[tuple[Board, PartGroup]] = []
    lying: dict[tuple[str, Turn], Outlined] = {}

    def lies(board: Board, turn: Turn) -> Outlined:
        key = (board.id, turn)
        if key not in lying:
            lying[key] = _shape(board, solids[board.id], turn)
        return lying[key]

    for board in boards:
        shape = lies(board, AS_IT_LIES)
        mirror_of = over_of = None
        for place, (first, group) in enumerate(found):
            if not _might_be(first, board, solids):
                continue
            turn = next((t for t in usable_turns(first) if _coincide(lies(first, t), shape)), None)
            if turn is not None:
                turns = group.turns if turn == AS_IT_LIES else group.turns | {board.id: turn}
                grown = PartGroup(group.id, (*group.boards, board.id), group.mirror_of, group.turned_over_of, turns)
                found[place] = (first, grown)
                break
            if any(_coincide(lies(first, t), shape) for t in _every_turn(first)):
                over_of = group.id
            elif any(_coincide(lies(first, _then(t, MIRRORED)), shape) for t in _every_turn(first)):
                mirror_of = group.id
        else:
            found.append((board, PartGroup(board.id, (board.id,), mirror_of, over_of)))
    return tuple(group for _, group in found)


def turned(turn: Turn, v: Vec) -> Vec:
    """A direction along a board's axes after a turn."""
    x, y, z = turn
    a, b, c = v
    return (x[0] * a + y[0] * b + z[0] * c, x[1] * a + y[1] * b + z[1] * c, x[2] * a + y[2] * b + z[2] * c)


def turned_back(turn: Turn, v: Vec) -> Vec:
    """The direction that the turn has brought there."""
    return (dot(turn[0], v), dot(turn[1], v), dot(turn[2], v))


def own_turns(board: Board, solid: Solid) -> tuple[Turn, ...]:
    """The turns after which a board is still the same part: as it lies is one of them."""
    shape = _shape(board, solid, AS_IT_LIES)
    return tuple(turn for turn in usable_turns(board) if _coincide(_shape(board, solid, turn), shape))


def fingerprint(board: Board, solid: Solid) -> str:
    """What tells a finished part from another one: its section, and where every cut, rip, notch and hole lies, to 0.01 mm from
    its left end. The same however it is turned as a part may be; a mirror image has another one."""
    section = board.section
    low, high = solid.extent_x()
    plain = [section.width_mm, section.thickness_mm, high - low]
    lies = min(
        sorted((name, *(_hundredths(v) for v in figures)) for name, figures in _crossings(board, _shape(board, solid, turn)))
        for turn in usable_turns(board)
    )
    steps, more = _ploughed(section)
    content = [board.panel, board.stave, bool(steps[0]), [_hundredths(v) for v in (*plain, *steps[0], *steps[1])], lies, *more]
    return sha256(json.dumps(content).encode()).hexdigest()[:16]


def _ploughed(section: Section) -> tuple[tuple[list[float], list[float]], list[object]]:
    """What is ploughed, as figures: the step at the upper edge and the channel in the back, by themselves, as they stand in the records of old,
    and all else by its form."""
    step: list[float] = []
    channel: list[float] = []
    more: list[object] = []
    for cut in section.ploughed:
        if cut is section.rabbet:
            step = [cut.width_mm, cut.depth_mm]
        elif isinstance(cut, Groove) and cut.side == "back" and not cut.far and not channel:
            channel = [cut.from_mm, cut.width_mm, cut.depth_mm]
        else:
            more.append([_hundredths(v) if isinstance(v, float) else v for v in vars(cut).values()])
    return (step, channel), sorted(more, key=json.dumps)


def _crossings(board: Board, shape: Outlined) -> list[tuple[str, tuple[float, ...]]]:
    """Every plane by where it crosses the four long corners of the uncut section, or the two sides that it runs along; every
    hole by its place and its side."""
    y, z = board.section.width_mm / 2, board.section.thickness_mm / 2
    found: list[tuple[str, tuple[float, ...]]] = []
    for name, figures in shape:
        if name == "hole":
            found.append((name, (*figures[:3], figures[5], figures[6], *(deep for deep in figures[7:] if deep))))
            continue
        nx, ny, nz, offset = figures
        side = 1.0 if nx + ny + nz > 0 else -1.0
        if abs(nx) > NOTHING:
            at = [(offset - ny * v - nz * w) / nx for v in (-y, y) for w in (-z, z)]
        elif abs(ny) > NOTHING:
            at = [(offset - nz * w) / ny for w in (-z, z)]
        else:
            at = [offset / nz]
        found.append((name, (side, *at)))
    return found


def _hundredths(mm: float) -> int:
    """Rounded to 0.01 mm; half way between two, the upper one, whatever the last digit is."""
    return floor(100.0 * mm + 0.5 + HALF_OF_A_HUNDREDTH)


def _then(first: Turn, second: Turn) -> Turn:
    """The turn `first` of what `second` has turned."""
    return (turned(first, second[0]), turned(first, second[1]), turned(first, second[2]))


def usable_turns(board: Board) -> tuple[Turn, ...]:
    """The turns after which a board may be used in another's place."""
    return tuple(turn for turn in _every_turn(board) if not board.shows or turn[2] == AS_IT_LIES[2])


def _every_turn(board: Board) -> tuple[Turn, ...]:
    """All that bring its section onto itself."""
    section = board.section
    square = abs(section.width_mm - section.thickness_mm) < SAME_MM
    turns = (*ANY_WAY, *A_QUARTER_ROUND) if square else ANY_WAY
    return turns if section.plain else tuple(turn for turn in turns if keeps_section(section, turn))


def keeps_section(section: Section, turn: Turn) -> bool:
    """Whether a turn brings a section's wood onto itself."""
    (_, yy, yz), (_, zy, zz) = turn[1], turn[2]
    return section.same_as(section, ((yy, yz), (zy, zz)))


def _might_be(a: Board, b: Board, solids: dict[str, Solid]) -> bool:
    """Whether the quickest signs do not speak against it: section, kind of work, length."""
    if not _same_section(a.section, b.section) or (a.panel, a.stave, a.shows) != (b.panel, b.stave, b.shows):
        return False
    if len(_planes(a)) != len(_planes(b)):
        return False
    (low_a, high_a), (low_b, high_b) = solids[a.id].extent_x(), solids[b.id].extent_x()
    return abs((high_a - low_a) - (high_b - low_b)) < SAME_MM


def _shape(board: Board, solid: Solid, turn: Turn) -> Outlined:
    """Everything that shapes a board when it is turned so, counted from what is then its left end."""
    low, high = solid.extent_x()
    left = low if turn[0][0] > 0 else -high
    shape: Outlined = []
    for name, normal, offset in _planes(board):
        n = turned(turn, normal)
        shape.append((name, (*n, offset - n[0] * left)))
    for hole in board.holes:
        x, y, z = turned(turn, (hole.x_mm, hole.y_mm, 0.0))
        shape.append(
            (
                "hole",
                (x - left, y, z, *turned(turn, (0.0, 0.0, -1.0 if hole.back else 1.0)), hole.diameter_mm, hole.deep_mm or 0.0),
            )
        )
    return shape


def _planes(board: Board) -> list[tuple[str, Vec, float]]:
    """Cuts, rips and the sides of notches."""
    cuts = [("cut", p.normal, p.offset) for p in (*board.left, *board.right)]
    rips = [("rip", p.normal, p.offset) for _, p in board.rips]
    return [*cuts, *rips, *(("notch", p.normal, p.offset) for notch in board.notches for p in notch.planes)]


def _same_section(a: Section, b: Section) -> bool:
    """Whether two sections are alike, to SAME_MM."""
    near = abs(a.width_mm - b.width_mm) < SAME_MM and abs(a.thickness_mm - b.thickness_mm) < SAME_MM
    return near and (a.ploughed == b.ploughed or a.same_as(b))


def _coincide(a: Outlined, b: Outlined) -> bool:
    """Whether the same things lie in the same places, to SAME_MM, in whatever order they are cut."""
    left = list(b)
    for name, figures in a:
        same = next((k for k, (other, f) in enumerate(left) if other == name and _near(figures, f)), None)
        if same is None:
            return False
        del left[same]
    return not left


def _near(a: tuple[float, ...], b: tuple[float, ...]) -> bool:
    return all(abs(m - n) < SAME_MM for m, n in zip(a, b, strict=True))
