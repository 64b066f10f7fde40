"""From a board to its solid, and everything that is read off it: lengths along lines, angles of cuts."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property, lru_cache
from math import asin, atan2, degrees

from fennup.core.assembly.board import ENDS, Board, End, Notch
from fennup.core.errors import CutError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, plane_through
from fennup.core.geometry.polyhedron import Box, Facet, Polyhedron, clip, common_polygon, shared_volume
from fennup.core.geometry.vec import Point2, Vec, distance
from fennup.core.stock.ploughed import CORNERS, Corner, Long
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING, SAME

# Of normals and of mm: two boards alike to these are cut alike.
NORMAL_DIGITS, MM_DIGITS = 13, 10
Arris = Corner
ARRISES = CORNERS
LONG_SIDES = ("lower", "upper", "back", "face", "rabbet")


@dataclass(frozen=True)
class EndCut:
    """The three angles of an end cut, in degrees, with the signs of docs/conventions.md."""

    miter_deg: float
    bevel_deg: float
    edge_trace_deg: float


def end_cut(plane: Plane) -> EndCut:
    """Angles of a cut plane given in the board's axes.

    miter = atan2(ny, |nx|), bevel = asin(nz), edge trace = atan2(nz, |nx|), n the unit outward normal.
    """
    nx, ny, nz = plane.normal
    along = abs(nx)
    return EndCut(degrees(atan2(ny, along)), degrees(asin(max(-1.0, min(1.0, nz)))), degrees(atan2(nz, along)))


def rip_bevel_deg(plane: Plane) -> float:
    """asin(nz) of a ripped edge's outward normal: + where the face stops short of the back."""
    return degrees(asin(max(-1.0, min(1.0, plane.normal[2]))))


def arris_line(board: Board, arris: Arris) -> tuple[float, float]:
    """Where a long corner runs: (y, z) in the board's axes, on the ripped edge if there is one."""
    side = board.side("upper" if arris.endswith("upper") else "lower")
    if arris == "back_upper" and board.backing:
        side = board.backing
    z = board.section.thickness_mm / 2 * (1 if arris.startswith("face") else -1)
    return ((side.offset - side.normal[2] * z) / side.normal[1], z)


def extent_along(board: Board, y: float, z: float) -> tuple[float, float]:
    """Where the cuts leave wood on the line (y, z): (x left, x right) in the board's axes; right - left is a length.

    Right - left may be negative: the cuts cross before they reach the line. CutError `no_end` when an end is open.
    """
    low, high = float("-inf"), float("inf")
    for end in ENDS:
        for cut in board.ends(end):
            x = _x_on(cut, (y, z), board)
            low, high = (max(low, x), high) if cut.normal[0] < 0 else (low, min(high, x))
    if low == float("-inf") or high == float("inf"):
        raise CutError("no_end", (board.id,))
    return low, high


def arris_length(board: Board, arris: Arris) -> float:
    """Length along one long corner, mm."""
    low, high = extent_along(board, *arris_line(board, arris))
    return high - low


@dataclass(frozen=True)
class Patch:
    """A flat convex piece of a solid's side in the assembly's axes."""

    plane: Plane
    points: tuple[Vec, ...]


@dataclass(frozen=True)
class Solid:
    """A finished board: the convex pieces that it is made of, in its own axes and in the assembly's."""

    board: Board
    local: tuple[Polyhedron, ...]
    world: tuple[Polyhedron, ...]

    def patches(self, name: str) -> tuple[Patch, ...]:
        """The pieces of one named side, in the assembly's axes."""
        return self._by_name.get(name, ())

    @cached_property
    def _by_name(self) -> dict[str, tuple[Patch, ...]]:
        found: dict[str, list[Patch]] = {}
        for piece in self.world:
            for facet in piece.facets:
                found.setdefault(facet.name, []).append(Patch(facet.plane, piece.corners(facet)))
        return {name: tuple(patches) for name, patches in found.items()}

    @cached_property
    def boxes(self) -> tuple[Box, ...]:
        """The least and the greatest corner of the box round every piece, in the assembly's axes."""
        return tuple(piece.box for piece in self.world)

    def volume(self) -> float:
        """Cubic mm of wood."""
        return self._volume

    @cached_property
    def _volume(self) -> float:
        return sum(piece.volume() for piece in self.local)

    def extent_x(self) -> tuple[float, float]:
        """Long point to long point: least and greatest x in the board's axes."""
        return self._extent_x

    @cached_property
    def _extent_x(self) -> tuple[float, float]:
        xs = [p[0] for piece in self.local for p in piece.points]
        return min(xs), max(xs)


def common_area(a: tuple[Patch, ...], b: tuple[Patch, ...]) -> list[tuple[Vec, ...]]:
    """Where flat convex pieces lie on others in the same plane: the corners of each place, those of more than a crumb."""
    common = (common_polygon(facet.points, cover.points, cover.plane.normal) for facet in a for cover in b)
    return [place for place in common if place]


def shared_mm3(a: Solid, b: Solid) -> float:
    """Cubic mm of wood that two boards have in common; only pieces whose boxes overlap are compared."""
    pairs = (
        (p, q)
        for p, one in zip(a.world, a.boxes, strict=True)
        for q, other in zip(b.world, b.boxes, strict=True)
        if all(one[0][k] < other[1][k] and other[0][k] < one[1][k] for k in range(3))
    )
    return sum(shared_volume(p, q) for p, q in pairs)


def uncut_reach(board: Board, over: float) -> tuple[float, float]:
    """Least and greatest x of a piece that every cut of the board takes something off, `over` beyond its long points."""
    if board.reach:
        return board.reach
    # Where an end has several cuts its tip may lie between the arrises: each cut alone says how far it can reach at most.
    lines = [arris_line(board, a) for a in ARRISES]
    if board.upper_rip and board.backing:
        lines.append(ridge_line(board.upper_rip, board.backing))
    low = max(min(_x_on(cut, line, board) for line in lines) for cut in _needed(board, "left"))
    high = min(max(_x_on(cut, line, board) for line in lines) for cut in _needed(board, "right"))
    return low - over, high + over


def ridge_line(one: Plane, other: Plane) -> tuple[float, float]:
    """Where two planes along the board meet: (y, z) in its axes."""
    (_, ay, az), (_, by, bz) = one.normal, other.normal
    det = ay * bz - az * by
    return ((one.offset * bz - other.offset * az) / det, (ay * other.offset - by * one.offset) / det)


def _needed(board: Board, end: End) -> tuple[Plane, ...]:
    """An end's cuts; CutError `no_end` when it is open."""
    if not board.ends(end):
        raise CutError("no_end", (board.id,))
    return board.ends(end)


def _x_on(cut: Plane, line: tuple[float, float], board: Board) -> float:
    """Where a cut goes through a line along the board, (y, z) in its axes. CutError `along_the_board`."""
    nx, ny, nz = cut.normal
    if abs(nx) < NOTHING:
        raise CutError("along_the_board", (board.id,))
    return (cut.offset - ny * line[0] - nz * line[1]) / nx


def solid_of(board: Board) -> Solid:
    """Cut the board: CutError `nothing_left` when the cuts leave no wood."""
    local = _cut(board.section, uncut_reach(board, 1.0), tuple(_cuts(board)), board.notches)
    if local is None:
        raise CutError("nothing_left", (board.id,))
    return Solid(board, local, tuple(_placed(piece, board.frame) for piece in local))


def solids_of_all(boards: Iterable[Board]) -> dict[str, Solid]:
    """Every board's solid. Boards of one assembly whose cuts lie alike in their own axes are cut once. CutError `nothing_left`."""
    found: dict[str, Solid] = {}
    first: dict[object, Solid] = {}
    for board in boards:
        likeness = _likeness(board)
        alike = first.get(likeness)
        found[board.id] = as_board(alike, board) if alike else first.setdefault(likeness, solid_of(board))
    return found


def _likeness(board: Board) -> object:
    """What the pieces of a board in its own axes hang on, to far less than anything is measured."""

    def near(plane: Plane) -> tuple[float, ...]:
        return (*(round(v, NORMAL_DIGITS) + 0.0 for v in plane.normal), round(plane.offset, MM_DIGITS) + 0.0)

    cuts = tuple((name, near(plane)) for plane, name in _cuts(board))
    notches = tuple(tuple(near(plane) for plane in notch.planes) for notch in board.notches)
    return (board.section, board.reach, cuts, notches)


@lru_cache(maxsize=2048)
def _cut(
    section: Section, reach: tuple[float, float], cuts: tuple[tuple[Plane, str], ...], notches: tuple[Notch, ...]
) -> tuple[Polyhedron, ...] | None:
    """The pieces in the board's axes; None where nothing is left. By content: a board that is only moved is the same."""
    low, high = reach
    pieces = []
    for outline in section.pieces:
        piece = uncut_piece((low, high), outline, section)
        for plane, name in cuts:
            piece = clip(piece, plane, name)
        if piece.facets:  # a rip may take all of one that lies beside the others
            pieces.append(piece)
    if not pieces:
        return None
    for number, notch in enumerate(notches):
        pieces = [left for piece in pieces for left in _notched(piece, notch, f"notch:{number}")]
    return tuple(pieces)


def _notched(piece: Polyhedron, notch: Notch, name: str) -> list[Polyhedron]:
    """What a notch leaves of a convex piece, as convex pieces that touch: what lies beyond its first plane, then of the
    rest what lies beyond the second, and so on. So the floor, which comes last, is a side of just one piece."""
    low, high = piece.box
    for plane in notch.planes:  # most pieces of a board with many notches lie beside this one
        n = plane.normal
        nearest = sum(n[k] * (low[k] if n[k] > 0 else high[k]) for k in range(3))
        if nearest - plane.offset >= 0:
            return [piece]
    left, inside = [], piece
    for i, plane in enumerate(notch.planes):
        floor = i == len(notch.planes) - 1
        beyond = clip(inside, plane.flipped(), name if floor else f"{name}:{i}")
        if beyond.facets:
            left.append(beyond)
        inside = clip(inside, plane, f"{name}:{i}")
        if not inside.facets:
            return [piece]
    return left


def _cuts(board: Board) -> list[tuple[Plane, str]]:
    """Every plane that cuts the board, with the name of the facet it leaves."""
    rips = [(plane, side) for side, plane in board.rips]
    ends = [(cut, f"{end}:{i}") for end in ENDS for i, cut in enumerate(board.ends(end))]
    return [*rips, *ends]


def as_board(solid: Solid, board: Board) -> Solid:
    """The solid of a board that is another one under another name, or moved: it is not cut again."""
    if board.frame == solid.board.frame:
        return Solid(board, solid.local, solid.world)
    return Solid(board, solid.local, tuple(_placed(piece, board.frame) for piece in solid.local))


def uncut_piece(span: tuple[float, float], outline: tuple[Point2, ...], section: Section) -> Polyhedron:
    """A convex piece of the uncut board, from where to where along it; sides that lie on the board's own sides carry their names, those that
    are ploughed, and those between two pieces, `rabbet`."""
    low, high = span
    count = len(outline)
    first = outline.index(min(outline))
    outline = outline[first:] + outline[:first]
    order = sorted(range(count), key=lambda k: outline[k])
    near = {k: place for place, k in enumerate(order)}  # of each corner of the outline, at the left end
    far = {k: place + count for k, place in near.items()}
    ends = [
        Facet("end", Plane((-1.0, 0.0, 0.0), -low), (near[0], *(near[k] for k in reversed(range(1, count))))),
        Facet("end", Plane((1.0, 0.0, 0.0), high), tuple(far[k] for k in range(count))),
    ]
    sides = []
    for k, here in enumerate(outline):
        j = (k + 1) % count
        way = (outline[j][0] - here[0], outline[j][1] - here[1])
        plane = plane_through((0.0, *here), (0.0, way[1], -way[0]))
        loop = (near[k], near[j], far[j], far[k])
        sides.append(Facet(_side_of(plane, section), plane, loop if here < outline[j] else (*loop[1:], loop[0])))
    sides.sort(key=lambda facet: LONG_SIDES.index(facet.name))
    return Polyhedron(tuple((x, *outline[k]) for x in span for k in order), (*ends, *sides))


def _side_of(plane: Plane, section: Section) -> str:
    """Which of the board's own sides a plane along it is, else `rabbet`."""
    _, ny, nz = plane.normal
    if abs(ny) > 1.0 - NOTHING and abs(plane.offset - section.width_mm / 2) < NOTHING:
        return "upper" if ny > 0 else "lower"
    if abs(nz) > 1.0 - NOTHING and abs(plane.offset - section.thickness_mm / 2) < NOTHING:
        return "face" if nz > 0 else "back"
    return "rabbet"


def _placed(solid: Polyhedron, frame: Frame) -> Polyhedron:
    """The solid in the assembly's axes."""
    facets = tuple(Facet(f.name, frame.plane_to_world(f.plane), f.loop) for f in solid.facets)
    return Polyhedron(tuple(frame.to_world(p) for p in solid.points), facets)


@dataclass(frozen=True)
class LongLine:
    """A line along a board that something ploughed leaves on one of its four sides: where, and from where to where the cuts leave it."""

    side: Long
    y_mm: float
    z_mm: float
    low_mm: float
    high_mm: float

    @property
    def length_mm(self) -> float:
        """From end to end."""
        return self.high_mm - self.low_mm


def ploughed_lines(board: Board) -> tuple[tuple[LongLine, ...], ...]:
    """The lines of each thing ploughed along a board."""
    return tuple(tuple(LongLine(side, y, z, *extent_along(board, y, z)) for side, y, z in lines) for lines in board.section.lines)


def long_points(board: Board, end: End) -> tuple[Arris, ...]:
    """The arrises on which an end reaches farthest; all four when the end is square."""
    right = end == "right"
    reach = {a: extent_along(board, *arris_line(board, a))[1 if right else 0] for a in ARRISES}
    best = max(reach.values()) if right else min(reach.values())
    return tuple(a for a in ARRISES if abs(reach[a] - best) < SAME)


def face_sides(solid: Solid) -> list[tuple[float, tuple[Vec, Vec], Facet]]:
    """A panel's sides on its face, anticlockwise: length, ends in the board's axes, and the facet that stands on it."""
    piece = solid.local[0]
    face = next(f for f in piece.facets if f.name == "face")
    sides = []
    for i, start in enumerate(face.loop):
        end = face.loop[(i + 1) % len(face.loop)]
        edge = next(f for f in piece.facets if f is not face and {start, end} <= set(f.loop))
        a, b = piece.points[start], piece.points[end]
        sides.append((distance(a, b), (a, b), edge))
    return sides
