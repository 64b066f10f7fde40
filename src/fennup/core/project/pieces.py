"""A piece between any two faces: cut to both, and counted with the rest."""

from collections.abc import Mapping, Sequence
from math import acos, degrees, sqrt
from typing import Literal

from fennup.core.assembly.board import Board, Hole, Side
from fennup.core.assembly.model import Finding
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.frame import frame_from
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, add, cross, dot, norm, scale, sub, unit
from fennup.core.kinds.inner import Added, Face, add_between
from fennup.core.parts.solid import extent_along, solid_of
from fennup.core.project.spec import Piece, Pipe, Seat
from fennup.core.stock.section import Section
from fennup.core.tolerances import SAME

UP: Vec = (0.0, 0.0, 1.0)
X: Vec = (1.0, 0.0, 0.0)
ASKEW_DEG = 1e-6  # by which a pipe may be off square to a face
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
    faces = [_face(by_id[seat.board], seat.side) for seat in seats]
    if piece.pipe:
        ends[1] = _straight_across(ends[0], faces)
    way = sub(ends[1], ends[0])
    # The piece runs away from either face, on the side that it looks to.
    if norm(way) < 1.0 or dot(way, faces[0].plane.normal) >= 0 or dot(way, faces[1].plane.normal) <= 0:
        raise SpecError("piece_between", (path,), part=piece.name)
    if piece.pipe:
        return _pipe(
            added,
            piece.pipe,
            (path, key, name),
            [(by_id[s.board], s, p, f) for s, p, f in zip(seats, ends, faces, strict=True)],
        )
    level = cross(way, UP)
    sideways = unit(level) if norm(level) > SAME * norm(way) else X
    look = cross(sideways, unit(way)) if piece.lies_flat else sideways
    frame = frame_from(scale(add(ends[0], ends[1]), 0.5), way, look)
    stick = Board(key, name, Section(piece.width_mm, piece.thickness_mm), frame, role="piece")
    try:
        return add_between(added, stick, faces, path)
    except CutError:
        raise SpecError("piece_between", (path,), part=piece.name) from None


def _pipe(added: Added, pipe: Pipe, named: tuple[str, str, str], ends: list[tuple[Board, Seat, Vec, Face]]) -> Board:
    """A round pipe between two faces, square to both, and the holes that it goes into. It is bought: drawn as the square bar that it holds.
    SpecError `pipe_on_edge`, `pipe_askew`, `pipe_through`, `pipe_misses`."""
    path, key, name = named
    way = unit(sub(ends[1][2], ends[0][2]))
    for (board, seat, at, face), sense in zip(ends, (-1.0, 1.0), strict=True):
        if seat.side not in ("face", "back"):
            raise SpecError("pipe_on_edge", (path,), part=board.name)
        off = degrees(acos(max(-1.0, min(1.0, sense * dot(way, face.plane.normal)))))
        if off > ASKEW_DEG:
            raise SpecError("pipe_askew", (path,), part=board.name, deg=off)
        if pipe.into_mm >= board.section.thickness_mm:
            raise SpecError(
                "pipe_through", (f"{path}.pipe.into_mm",), part=board.name, mm=pipe.into_mm, limit_mm=board.section.thickness_mm
            )
        x, y, z = board.frame.to_local(at)
        low, high = extent_along(board, y, z)
        radius = pipe.diameter_mm / 2
        edges = [side.normal[1] * y + side.normal[2] * z - side.offset for side in (board.side("upper"), board.side("lower"))]
        if max(*edges, low - x, x - high) > -radius:
            raise SpecError("pipe_misses", (path,), part=board.name)
        added.holes.setdefault(board.id, []).append(Hole(x, y, pipe.diameter_mm, pipe.into_mm, seat.side == "back"))
    side = pipe.diameter_mm / sqrt(2.0)
    look = UP if norm(cross(way, UP)) > SAME else X
    frame = frame_from(scale(add(ends[0][2], ends[1][2]), 0.5), way, unit(sub(look, scale(way, dot(look, way)))))
    stick = Board(key, name, Section(side, side), frame, role="pipe", found=True)
    clear = norm(sub(ends[1][2], ends[0][2]))
    added.findings.append(Finding("pipe_long", "note", (key,), (f"{path}.pipe",), clear + 2 * pipe.into_mm, clear))
    return add_between(added, stick, [face for *_, face in ends], path)


def _straight_across(start: Vec, faces: Sequence[Face]) -> Vec:
    """Where a line square to the first face comes to the second one; the start itself where it never does."""
    out, other = scale(faces[0].plane.normal, -1.0), faces[1].plane
    ahead = dot(out, other.normal)
    return add(start, scale(out, -other.beyond(start) / ahead)) if ahead > SAME else start


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
