"""A piece between any two faces: cut to both, and counted with the rest."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from fennup.core.assembly.board import Board, Side
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.frame import frame_from
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Point2, Vec, add, cross, dot, norm, scale, sub, unit
from fennup.core.kinds.gauged import Sheet
from fennup.core.kinds.inner import Added, Face, fitted
from fennup.core.kinds.together.spec import Piece, Seat
from fennup.core.parts.solid import Solid, solid_of
from fennup.core.stock.section import Section

UP: Vec = (0.0, 0.0, 1.0)
X: Vec = (1.0, 0.0, 0.0)
SIDES: tuple[Side, ...] = ("face", "back", "upper", "lower")
SEEN = 0.2  # how much of its length a board must show to be dragged along
FACING = -0.3  # the cosine up to which two faces look at each other


def add_pieces(pieces: Sequence[Piece], boards: Sequence[Board]) -> Added:
    """Every piece, cut to its two faces. SpecError `no_such_board`, `piece_between`, `piece_off_board`."""
    by_id = {board.id: board for board in boards}
    added = Added()
    for k, piece in enumerate(pieces):
        path = f"pieces.{k}"
        spans = {seat.board: solid_of(by_id[seat.board]).extent_x() for seat in (piece.a, piece.b) if seat.board in by_id}
        for end, seat in (("a", piece.a), ("b", piece.b)):
            if seat.board not in by_id:
                raise SpecError("no_such_board", (f"{path}.{end}.board",), part=seat.board)
            low, high = spans[seat.board]
            if seat.along_mm > high - low:
                field = f"{path}.{end}.along_mm"
                raise SpecError("piece_off_board", (field,), part=seat.board, mm=seat.along_mm, limit_mm=high - low)
        ends = [_place(by_id[seat.board], seat, spans[seat.board][0]) for seat in (piece.a, piece.b)]
        way = sub(ends[1], ends[0])
        faces = [_face(by_id[seat.board], seat.side) for seat in (piece.a, piece.b)]
        # The piece runs away from either face, on the side that it looks to.
        if norm(way) < 1.0 or dot(way, faces[0].plane.normal) >= 0 or dot(way, faces[1].plane.normal) <= 0:
            raise SpecError("piece_between", (path,), part=piece.name)
        level = cross(way, UP)
        sideways = unit(level) if norm(level) > 1e-6 * norm(way) else X
        look = cross(sideways, unit(way)) if piece.lies_flat else sideways
        frame = frame_from(scale(add(ends[0], ends[1]), 0.5), way, look)
        stick = Board(piece.name, piece.name, Section(piece.width_mm, piece.thickness_mm), frame, role="piece")
        try:
            fitted(added, stick, faces, path)
        except CutError:
            raise SpecError("piece_between", (path,), part=piece.name) from None
    return added


def _place(board: Board, seat: Seat, low: float) -> Vec:
    """A place on the middle of a side, so far along the board from its left end, which lies at `low`."""
    side = board.side(seat.side)
    return board.frame.to_world((low + seat.along_mm, side.normal[1] * side.offset, side.normal[2] * side.offset))


def _face(board: Board, side: Side) -> Face:
    return Face(board.side_in_world(side).flipped(), (board.id,), side)


@dataclass(frozen=True)
class Look:
    """A side of a board, where its middle lies, and its plane."""

    board: Board
    side: Side
    middle: Vec
    plane: Plane
    span: tuple[float, float]


def looks(boards: Sequence[Board], solids: dict[str, Solid]) -> list[Look]:
    """Every long side that a piece can end on."""
    made = []
    for board in boards:
        low, high = solids[board.id].extent_x()
        for side in SIDES if not (board.panel or board.stave) else ():
            middle = _place(board, Seat(board=board.id, side=side, along_mm=(high - low) / 2), low)
            made.append(Look(board, side, middle, board.side_in_world(side), (low, high)))
    return made


def facing(own: Look, others: Sequence[Look]) -> list[Look]:
    """The sides in the same assembly that look at one, and have room for a piece square over from its middle, the nearest
    first."""
    found = []
    whose = own.board.id.partition("/")[0]
    for other in others:
        if (
            other.board.id == own.board.id
            or other.board.id.partition("/")[0] != whose
            or dot(own.plane.normal, other.plane.normal) > FACING
        ):
            continue
        along, thin = other.board.frame.to_local(own.middle)[0], _thin(own.board, other.board)
        on_it = other.span[0] + thin < along < other.span[1] - thin
        if on_it and own.plane.beyond(other.middle) > 1.0 and other.plane.beyond(own.middle) > 1.0:
            found.append((norm(sub(other.middle, own.middle)), other))
    return [other for _, other in sorted(found, key=lambda entry: entry[0])]


def _thin(a: Board, b: Board) -> float:
    """The least that either measures across."""
    return min(min(board.section.width_mm, board.section.thickness_mm) for board in (a, b))


def usual_piece(name: str, a: tuple[Board, Side], b: tuple[Board, Side]) -> dict[str, Any]:
    """A piece half way along the first board, square over to the second as far as that reaches."""
    (low, high), (first, last) = (solid_of(board).extent_x() for board, _ in (a, b))
    at = _place(a[0], Seat(board=a[0].id, side=a[1], along_mm=(high - low) / 2), low)
    along = min(max(b[0].frame.to_local(at)[0] - first, 0.0), last - first)
    thin = _thin(a[0], b[0])
    return {
        "name": name,
        "a": {"board": a[0].id, "side": a[1], "along_mm": (high - low) / 2},
        "b": {"board": b[0].id, "side": b[1], "along_mm": along},
        "width_mm": thin * 0.6,
        "thickness_mm": thin * 0.4,
    }


def seat_on(paper: Sheet, board: Board, seat: Seat) -> tuple[Point2, Point2] | None:
    """Where a piece's end lies on a view, and one mm along its board there; None where the board is seen end on."""
    low, _ = solid_of(board).extent_x()
    at = _place(board, seat, low)
    way = paper.flat(board.frame.x)
    return (paper.flat(at), way) if way[0] ** 2 + way[1] ** 2 > SEEN**2 else None
