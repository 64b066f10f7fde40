"""The faces that a piece can be put between: which look at one, where they lie on a view, where one is touched."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from fennup.core.assembly.board import Board, Side
from fennup.core.drawing.edit import Touched
from fennup.core.errors import SpecError
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.polygon import hull
from fennup.core.geometry.vec import Point2, Vec, add, cross, dot, scale
from fennup.core.kinds.fields import LEAST_MM
from fennup.core.kinds.gauged import PAPERS, Paper
from fennup.core.parts.solid import Solid, solid_of
from fennup.core.project.pieces import along_of, aside, seat_place, starts_at
from fennup.core.project.spec import Piece, ProjectSpec, Seat
from fennup.core.units.lengths import Tape

SIDES: tuple[Side, ...] = ("face", "back", "upper", "lower")
SEEN = 0.2  # how much of its length a board must show to be dragged or touched along
EDGE_ON = 0.35  # a face is touched as a line up to this cosine between its normal and the reader
PANELS_PIECE_MM = 40.0  # what a piece between two panels is measured by
CLEAR_MM = 1.0  # a face looks at another where it has some of it this far in front


@dataclass(frozen=True)
class Ending:
    """A side of a finished board that a piece can end on."""

    solid: Solid
    side: Side

    @property
    def board(self) -> Board:
        """Whose side it is."""
        return self.solid.board

    @cached_property
    def plane(self) -> Plane:
        """Its plane in the assembly's axes, outward normal."""
        return self.board.side_in_world(self.side)

    @cached_property
    def corners(self) -> tuple[Vec, ...]:
        """The corners of what is left of it."""
        return tuple(p for patch in self.solid.patches(self.side) for p in patch.points)

    def looks_at(self, other: "Ending") -> bool:
        """Whether each has some of the other in front of it."""
        ahead = max(self.plane.beyond(p) for p in other.corners) > CLEAR_MM
        return self.board.id != other.board.id and ahead and max(other.plane.beyond(p) for p in self.corners) > CLEAR_MM


@dataclass(frozen=True)
class Target:
    """A face as it lies on a view: its outline there, mm; a line where it is seen edge on. `at`: its middle."""

    board: str
    side: Side
    outline: tuple[Point2, ...]
    at: Point2


def endings(solids: dict[str, Solid]) -> list[Ending]:
    """Every side that a piece can end on: the long sides of boards, the two sides of panels."""
    made = (Ending(solid, side) for solid in solids.values() for side in (SIDES[:2] if solid.board.panel else SIDES))
    return [look for look in made if look.corners]


def targets(solids: dict[str, Solid], first: tuple[str, str] | None) -> dict[str, tuple[Target, ...]]:
    """By view, every face to be touched there, those in front last; with a `first` board and side, those that look at it.

    SpecError `no_such_face` when there is no such one.
    """
    every = endings(solids)
    if first is not None:
        own = _found(every, *first)
        every = [look for look in every if own.looks_at(look)]
    return {paper.id: _on(paper, every) for paper in PAPERS}


def _found(every: Sequence[Ending], board: str, side: str) -> Ending:
    look = next((look for look in every if (look.board.id, look.side) == (board, side)), None)
    if look is None:
        raise SpecError("no_such_face", ("pieces",), part=board)
    return look


def _on(paper: Paper, every: Sequence[Ending]) -> tuple[Target, ...]:
    reader = cross(paper.right, paper.up)
    seen = []
    for look in every:
        facing = dot(look.plane.normal, reader)
        if facing < -EDGE_ON:
            continue
        depth = sum(dot(p, reader) for p in look.corners) / len(look.corners)
        low, high = look.solid.extent_x()
        middle = seat_place(look.board, Seat(board=look.board.id, side=look.side, along_mm=(high - low) / 2), (low, high))
        outline = hull([paper.flat(p) for p in look.corners])
        if facing < EDGE_ON:
            outline = _longest(outline)
        seen.append((facing < EDGE_ON, depth, Target(look.board.id, look.side, outline, paper.flat(middle))))
    # A face seen as a line would never be hit under one that is seen whole.
    return tuple(target for *_, target in sorted(seen, key=lambda entry: entry[:2]))


def _longest(outline: tuple[Point2, ...]) -> tuple[Point2, ...]:
    """The line through an outline that is hardly wider than one: the middles of its two narrow ends."""
    a, b = max(
        ((p, q) for i, p in enumerate(outline) for q in outline[i + 1 :]),
        key=lambda pq: (pq[0][0] - pq[1][0]) ** 2 + (pq[0][1] - pq[1][1]) ** 2,
    )
    return (a, b)


def seat_touched(solids: dict[str, Solid], touched: Touched, on: Tape) -> Seat:
    """Where a touch on a view seats a piece's end, to the nearest graduation: on a board in the middle of the side, on a
    panel just there; without a place the middle of the side. SpecError `no_such_face`."""
    look = _found(endings(solids), touched.board, touched.side)
    paper = next((paper for paper in PAPERS if paper.id == touched.view), None)
    low, high = look.solid.extent_x()
    middle = Seat(board=touched.board, side=touched.side, along_mm=(high - low) / 2)
    if paper is None or touched.x_mm is None or touched.y_mm is None:
        return middle

    def marked(value: float) -> float:
        return round(value / on.graduation_mm) * on.graduation_mm

    here = (touched.x_mm, touched.y_mm)
    reader = cross(paper.right, paper.up)
    facing = dot(look.plane.normal, reader)
    off = 0.0
    if abs(facing) > EDGE_ON:
        flat = add(scale(paper.right, here[0]), scale(paper.up, here[1]))
        local = look.board.frame.to_local(add(flat, scale(reader, -look.plane.beyond(flat) / facing)))
        along = along_of(look.board, local[0], (low, high))
        off = marked(dot(local, aside(look.board.side(look.side)))) if look.board.panel else 0.0
    else:
        line = seat_on(paper, look.board, middle)
        along = middle.along_mm + (along_line(line, here) if line else 0.0)
    return Seat(board=touched.board, side=touched.side, along_mm=min(max(marked(along), 0.0), high - low), aside_mm=off)


def seat_on(paper: Paper, board: Board, seat: Seat) -> tuple[Point2, Point2] | None:
    """Where a piece's end lies on a view, and one mm along its board there; None where the board is seen end on."""
    at = seat_place(board, seat, solid_of(board).extent_x())
    way = paper.flat(scale(board.frame.x, -1.0 if starts_at(board) == "high" else 1.0))
    return (paper.flat(at), way) if way[0] ** 2 + way[1] ** 2 > SEEN**2 else None


def along_line(line: tuple[Point2, Point2], here: Point2) -> float:
    """How far along a line, given by its start and one mm of it, the place nearest to another lies."""
    (x, y), (across, up) = line
    return ((here[0] - x) * across + (here[1] - y) * up) / (across**2 + up**2)


def new_piece(spec: ProjectSpec, boards: Sequence[Board], touched: tuple[Touched, Touched], on: Tape) -> Piece:
    """A new piece between two touched faces, slimmer than what it stands on. SpecError `no_such_face`."""
    solids = {board.id: solid_of(board) for board in boards}
    a, b = (seat_touched(solids, touch, on) for touch in touched)
    taken = {piece.name for piece in spec.pieces.values()}
    name = next(n for k in range(1, 99) if (n := f"Piece {k}") not in taken)
    sections = [solids[seat.board].board.section for seat in (a, b) if not solids[seat.board].board.panel]
    thin = min((min(s.width_mm, s.thickness_mm) for s in sections), default=PANELS_PIECE_MM)
    return Piece(name=name, a=a, b=b, width_mm=max(LEAST_MM, thin * 0.6), thickness_mm=max(LEAST_MM, thin * 0.4))
