"""Pieces whose sides are not parallel, laid side by side across a wide board or a sheet, head to foot where that is allowed: cut off as
a row, then sawn apart along their sides.
"""

from collections.abc import Iterable
from dataclasses import dataclass

from fennup.core.boards.ends import SQUARE, End, Gap, ends_of, gap_between, reach
from fennup.core.boards.nesting import Saw, best_order, fits, used_mm
from fennup.core.boards.pieces import Lie, Piece
from fennup.core.geometry.plane import Plane
from fennup.core.parts.alike import AS_IT_LIES, END_FOR_END, turned

MOST_IN_A_ROW = 24


@dataclass(frozen=True)
class Across:
    """One way in which a piece may lie in a row: its two sides as ends across the board, and how far it is from one to the other on the
    row's middle line; `low_mm` is where its near side crosses that, from the middle of its own width."""

    lie: Lie
    near: End
    far: End
    axis_mm: float
    low_mm: float


@dataclass(frozen=True)
class InRow:
    """A piece's place in a row: its way, where its near side crosses the row's middle line, and what lies between it and the next."""

    across: Across
    at_mm: float
    gap: Gap | None


@dataclass(frozen=True)
class Row:
    """So many alike pieces side by side: how wide the row is, how long, and each one's place from its near edge."""

    piece: Piece
    width_mm: float
    places: tuple[InRow, ...]


def ways_across(piece: Piece) -> tuple[Across, ...]:
    """How a piece may lie in a row: not at all where its sides are parallel, for those lie in bars, or where it may not be turned."""
    if piece.sort not in ("stave", "panel") or not piece.sides:
        return ()
    found: list[Across] = []
    for lie in piece.lies:
        if lie.turn not in (AS_IT_LIES, END_FOR_END):
            continue
        planes = tuple(_swapped(Plane(turned(lie.turn, p.normal), p.offset), _middle_x(piece, lie)) for p in piece.sides)
        (near_at, near), (far_at, far) = ends_of(planes)
        found.append(Across(lie, near, far, far_at - near_at, near_at))
    return tuple(found) if any(a.near != SQUARE or a.far != SQUARE for a in found) else ()


def _middle_x(piece: Piece, lie: Lie) -> float:
    """The middle of a piece from tip to tip, from its own origin as it lies."""
    start = lie.at - reach(lie.left, piece.width_mm, piece.thickness_mm, right=False)
    return start + piece.overall_mm / 2


def _swapped(plane: Plane, middle: float) -> Plane:
    """A plane with across the board for along it, counted from the middle of the piece."""
    x, y, z = plane.normal
    return Plane((y, x, z), plane.offset - x * middle)


def row_of(piece: Piece, count: int, saw: Saw) -> Row:
    """So many of a piece side by side, as narrow as can be."""
    ways = ways_across(piece)
    shape = tuple((way.near, way.far) for way in ways)
    section = (piece.overall_mm, piece.thickness_mm)
    order = [ways[way] for _, way in best_order([shape] * count, section, saw)]
    at = reach(order[0].near, *section, right=False)
    places: list[InRow] = []
    for one, other in zip(order, [*order[1:], None], strict=True):
        gap = gap_between(one.far, other.near, *section, saw.kerf_mm, square=saw.square_first) if other else None
        places.append(InRow(one, at, gap))
        at += one.axis_mm + (gap.mm if gap else 0.0)
    return Row(piece, at + reach(order[-1].far, *section, right=True), tuple(places))


def rows_in(piece: Piece, widths: Iterable[float], saw: Saw) -> list[Row]:
    """The fullest row of a piece for each of some board widths, where more than one goes side by side."""
    ways = ways_across(piece)
    if not ways:
        return []
    shape = tuple((way.near, way.far) for way in ways)
    section, counts = (piece.overall_mm, piece.thickness_mm), set()
    for width in widths:
        count = 1
        while count < min(MOST_IN_A_ROW, len(piece.keys)):
            if not fits(used_mm([ways[0].axis_mm] * (count + 1), [shape] * (count + 1), section, saw), width):
                break
            count += 1
        counts.add(count)
    return [row_of(piece, count, saw) for count in sorted(counts) if count > 1]


def as_piece(row: Row) -> Piece:
    """A row as something that lies in a bar: as wide as all together, square at both ends."""
    half = row.piece.overall_mm / 2
    planes = (Plane((-1.0, 0.0, 0.0), half), Plane((1.0, 0.0, 0.0), half))
    lie = Lie(AS_IT_LIES, SQUARE, SQUARE, -half)
    piece = row.piece
    return Piece(
        piece.keys, piece.sort, row.width_mm, piece.thickness_mm, piece.overall_mm, piece.overall_mm, (lie,), planes,
        (0.0, 0.0, 0.0), piece.shows, False, row=row,
    )  # fmt: skip


def side_plane(end: End, number: int, at: float, middle_x: float, z: float, *, far: bool) -> Plane:
    """A side of a piece in a row as a plane in the board's axes, normal out of the piece: `at` is where it crosses the row's middle
    line, which is at `middle_x` along the board."""
    cut = end[number]
    sign = 1.0 if far else -1.0
    normal = (-sign * cut.up / cut.stretch, sign / cut.stretch, -sign * cut.out / cut.stretch)
    on = (middle_x, at + cut.at, z)
    return Plane(normal, sum(n * c for n, c in zip(normal, on, strict=True)))
