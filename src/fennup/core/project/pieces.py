"""A piece between any two faces: cut to both, and counted with the rest."""

from collections.abc import Mapping, Sequence
from typing import Literal

from fennup.core.assembly.board import Board, Side
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.frame import frame_from
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, add, cross, dot, norm, scale, sub, unit
from fennup.core.kinds.inner import Added, Face, add_between
from fennup.core.parts.solid import solid_of
from fennup.core.project.spec import Piece, Seat
from fennup.core.stock.section import Section
from fennup.core.tolerances import SAME

UP: Vec = (0.0, 0.0, 1.0)
X: Vec = (1.0, 0.0, 0.0)
STEEP = 0.5  # the sine from which on a board has a lower and an upper end rather than a left one


def add_pieces(pieces: Mapping[str, Piece], boards: Sequence[Board]) -> Added:
    """Every piece, cut to its two faces; it may end on one before it. SpecError `no_such_face`, `piece_between`,
    `piece_off_board`."""
    by_id = {board.id: board for board in boards}
    added = Added()
    for id, piece in pieces.items():
        if piece.count > 1 and piece.step_mm is None:
            raise SpecError("no_step", (f"pieces.{id}.step_mm",))
        for k, key in enumerate(piece.keys(id)):
            by_id[key] = _piece(added, by_id, piece, id, (k, key))
    return added


def _piece(added: Added, by_id: Mapping[str, Board], piece: Piece, id: str, place: tuple[int, str]) -> Board:
    """One piece of a row: which one, and its key."""
    path, (k, key) = f"pieces.{id}", place
    name = piece.name if k == 0 else f"{piece.name}, {k + 1}"
    spans = {seat.board: solid_of(by_id[seat.board]).extent_x() for seat in (piece.a, piece.b) if seat.board in by_id}
    seats = _seats(by_id, piece, k) if len(spans) == len({piece.a.board, piece.b.board}) else (piece.a, piece.b)
    for end, seat in zip("ab", seats, strict=True):
        if seat.board not in by_id:
            raise SpecError("no_such_face", (f"{path}.{end}.board",), part=seat.board)
        low, high = spans[seat.board]
        if not 0 <= seat.along_mm <= high - low:
            field = f"{path}.{end}.along_mm" if k == 0 else f"{path}.count"
            raise SpecError("piece_off_board", (field,), part=by_id[seat.board].name, mm=seat.along_mm, limit_mm=high - low)
    ends = [seat_place(by_id[seat.board], seat, spans[seat.board]) for seat in seats]
    way = sub(ends[1], ends[0])
    faces = [_face(by_id[seat.board], seat.side) for seat in seats]
    # The piece runs away from either face, on the side that it looks to.
    if norm(way) < 1.0 or dot(way, faces[0].plane.normal) >= 0 or dot(way, faces[1].plane.normal) <= 0:
        raise SpecError("piece_between", (path,), part=piece.name)
    level = cross(way, UP)
    sideways = unit(level) if norm(level) > SAME * norm(way) else X
    look = cross(sideways, unit(way)) if piece.lies_flat else sideways
    frame = frame_from(scale(add(ends[0], ends[1]), 0.5), way, look)
    stick = Board(key, name, Section(piece.width_mm, piece.thickness_mm), frame, role="piece")
    try:
        return add_between(added, stick, faces, path)
    except CutError:
        raise SpecError("piece_between", (path,), part=piece.name) from None


def _seats(by_id: Mapping[str, Board], piece: Piece, k: int) -> tuple[Seat, Seat]:
    """Where a piece of a row ends: so much farther along the first board, and the same way along the second one."""
    ways = [
        scale(board.frame.x, -1.0 if starts_at(board) == "high" else 1.0)
        for board in (by_id[piece.a.board], by_id[piece.b.board])
    ]
    on = k * (piece.step_mm or 0.0)
    same = 1.0 if dot(*ways) >= 0 else -1.0
    a = piece.a.model_copy(update={"along_mm": piece.a.along_mm + on})
    return a, piece.b.model_copy(update={"along_mm": piece.b.along_mm + same * on})


def starts_at(board: Board) -> Literal["low", "high", "left"]:
    """Where a board's left end lies: below or above its other one, or, of a board that lies more than it stands, neither."""
    rise = board.frame.x[2]
    return "low" if rise > STEEP else "high" if rise < -STEEP else "left"


def along_of(board: Board, x: float, span: tuple[float, float]) -> float:
    """How far along a board, which spans `span` in its own axes, the place `x` lies, counted as seats are."""
    return span[1] - x if starts_at(board) == "high" else x - span[0]


def seat_place(board: Board, seat: Seat, span: tuple[float, float]) -> Vec:
    """A seat's place in the assembly's axes; the board spans `span` along its own x."""
    side = board.side(seat.side)
    _, y, z = add(scale(side.normal, side.offset), scale(aside(side), seat.aside_mm))
    x = span[1] - seat.along_mm if starts_at(board) == "high" else span[0] + seat.along_mm
    return board.frame.to_world((x, y, z))


def aside(side: Plane) -> Vec:
    """The way across a long side in the board's axes: towards its upper edge, or on an edge towards its face."""
    _, y, z = side.normal
    return (0.0, abs(z), -y if z > 0 else y) if abs(z) > abs(y) else (0.0, -z if y > 0 else z, abs(y))


def _face(board: Board, side: Side) -> Face:
    return Face(board.side_in_world(side).flipped(), (board.id,), side)
