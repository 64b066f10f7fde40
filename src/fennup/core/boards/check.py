"""Proof of a plan that knows nothing of how it was made: the finished solids are put where the plan says, the board is sawn as the plan
says, and every point of every solid is held against that.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Literal

from fennup.core.boards.layout import BoardPlan, Cut, Layout, Placed
from fennup.core.boards.stock import AS_LARGE, Source
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.polyhedron import Polyhedron, clip
from fennup.core.geometry.vec import Vec, dot
from fennup.core.parts.solid import Solid
from fennup.core.stock.section import Section
from fennup.core.tolerances import CRUMB_MM3, SAME

Fault = Literal[
    "outside_board", "in_a_flaw", "in_the_kerf", "not_sawn_apart", "wrong_pieces_parted", "face_down", "profile_turned",
    "grain_across", "too_many_boards", "missing", "twice", "end_not_cut",
]  # fmt: skip
ALONG: Vec = (1.0, 0.0, 0.0)
# Boards that count as one part may differ by so much at a corner, mm: normals and places alike to a hundredth of that.
MICRON_MM = 1e-3


@dataclass(frozen=True)
class Wrong:
    """Something that is not so: in which board, about which pieces."""

    fault: Fault
    board: str
    pieces: tuple[str, ...] = ()


def check_layout(layout: Layout, solids: Mapping[str, Solid], kerf_mm: float) -> tuple[Wrong, ...]:
    """All that is wrong with a plan: nothing of one that holds. `solids`: the finished parts by the keys that are to be cut; strips to
    be glued up and spares are held against their own squares."""
    found: list[Wrong] = []
    seen: list[str] = [placed.key for board in layout.boards for placed in board.pieces]
    left_out = [key for key, _ in layout.unplaced]
    for key in sorted(set(seen)):
        if seen.count(key) > 1 or key in left_out:
            found.append(Wrong("twice", "", (key,)))
    strips = {key.partition(" strip ")[0] for key in (*seen, *left_out)}
    found += [Wrong("missing", "", (key,)) for key in solids if key not in seen and key not in left_out and key not in strips]
    for source in {board.source.id: board.source for board in layout.boards}.values():
        used = sum(board.source.id == source.id for board in layout.boards)
        if source.count is not None and used > source.count:
            found.append(Wrong("too_many_boards", source.id))
    for board in layout.boards:
        found += _check_board(board, solids, kerf_mm)
    return tuple(found)


def _check_board(board: BoardPlan, solids: Mapping[str, Solid], kerf_mm: float) -> list[Wrong]:
    found: list[Wrong] = []
    points: dict[str, list[Vec]] = {}
    for placed in board.pieces:
        points[placed.key] = corners = [placed.place(p) for p in _own_points(placed, solids)]
        if not _inside(corners, board.source):
            found.append(Wrong("outside_board", board.id, (placed.key,)))
        if any(_shares(placed, solids, board.source, k) for k in range(len(board.source.flaws))):
            found.append(Wrong("in_a_flaw", board.id, (placed.key,)))
        found += _check_turn(board, placed, solids)
        if not all(_is_made(board, placed, plane, kerf_mm) for plane in _ends(placed, solids)):
            found.append(Wrong("end_not_cut", board.id, (placed.key,)))
    return found + _saw(board, points, kerf_mm)


def _own_points(placed: Placed, solids: Mapping[str, Solid]) -> list[Vec]:
    """The corners of a finished part in its own axes."""
    solid = _solid_of(placed, solids)
    if solid:
        return [p for piece in solid.local for p in piece.points]
    y, z, half = placed.piece.width_mm / 2, placed.piece.thickness_mm / 2, placed.piece.axis_mm / 2
    return [(a, b, c) for a in (-half, half) for b in (-y, y) for c in (-z, z)]


def _solid_of(placed: Placed, solids: Mapping[str, Solid]) -> Solid | None:
    """The finished part; of a spare that of which it is one, wherever the others were put; of a strip none."""
    return None if placed.piece.sort == "strip" else solids.get(placed.key.partition(" spare ")[0])


def _inside(points: list[Vec], source: Source) -> bool:
    """Whether all points lie in what is left of the board when its ends are trimmed."""
    least = (source.trim[0], 0.0, 0.0)
    most = (source.length_mm - source.trim[1], source.width_mm, source.thickness_mm)
    slack = (MICRON_MM, AS_LARGE + SAME, AS_LARGE + SAME)
    return all(least[k] - slack[k] <= p[k] <= most[k] + slack[k] for p in points for k in range(3))


def _shares(placed: Placed, solids: Mapping[str, Solid], source: Source, number: int) -> bool:
    """Whether a part has wood in a flaw, which goes right through the board."""
    flaw = source.flaws[number]
    walls = (
        Plane((1.0, 0.0, 0.0), flaw.to_mm), Plane((-1.0, 0.0, 0.0), -flaw.from_mm),
        Plane((0.0, 1.0, 0.0), flaw.high_mm), Plane((0.0, -1.0, 0.0), -flaw.low_mm),
    )  # fmt: skip
    solid = _solid_of(placed, solids)
    if solid is None:
        points = [placed.place(p) for p in _own_points(placed, solids)]
        return not any(all(wall.beyond(p) > -SAME for p in points) for wall in walls)
    for piece in solid.local:
        there: Polyhedron = Polyhedron(
            tuple(placed.place(p) for p in piece.points),
            tuple(type(f)(f.name, _placed_plane(placed, f.plane), f.loop) for f in piece.facets),
        )
        for wall in walls:
            there = clip(there, wall.moved(-MICRON_MM), "flaw")
            if not there.facets:
                break
        if there.facets and there.volume() > CRUMB_MM3:
            return True
    return False


def _placed_plane(placed: Placed, plane: Plane) -> Plane:
    """A plane of a part in the board's axes."""
    origin = placed.place((0.0, 0.0, 0.0))
    n = plane.normal
    axes = [
        tuple(a - b for a, b in zip(placed.place(axis), origin, strict=True)) for axis in ((1.0, 0, 0), (0, 1.0, 0), (0, 0, 1.0))
    ]
    normal: Vec = tuple(sum(n[k] * axes[k][j] for k in range(3)) for j in range(3))  # type: ignore[assignment]
    return Plane(normal, plane.offset + dot(normal, origin))


def _check_turn(board: BoardPlan, placed: Placed, solids: Mapping[str, Solid]) -> list[Wrong]:
    """Face up where it shows, grain along the board, a profile as it runs in the board."""
    solid = _solid_of(placed, solids)
    if solid is None:
        return []
    origin = placed.place((0.0, 0.0, 0.0))

    def way(axis: Vec) -> Vec:
        moved = placed.place(axis)
        return (moved[0] - origin[0], moved[1] - origin[1], moved[2] - origin[2])

    part, found = solid.board, []
    if part.shows and way((0.0, 0.0, 1.0))[2] < 1.0 - SAME:
        found.append(Wrong("face_down", board.id, (placed.key,)))
    if not part.section.plain and not _profile_lies(part.section, way):
        found.append(Wrong("profile_turned", board.id, (placed.key,)))
    grain = way((0.0, 1.0, 0.0) if part.stave else (1.0, 0.0, 0.0))
    if not board.source.any_way and abs(dot(grain, ALONG)) < 1.0 - SAME:
        found.append(Wrong("grain_across", board.id, (placed.key,)))
    return found


def _profile_lies(section: Section, way: Callable[[Vec], Vec]) -> bool:
    """Whether what is ploughed along a part lies in the board as it does in the part; of one that lies across it nothing is asked."""
    if abs(way((1.0, 0.0, 0.0))[0]) < 1.0 - SAME:
        return True
    (_, yy, yz), (_, zy, zz) = way((0.0, 1.0, 0.0)), way((0.0, 0.0, 1.0))
    return section.same_as(section, ((yy, yz), (zy, zz)))


def _ends(placed: Placed, solids: Mapping[str, Solid]) -> list[Plane]:
    """The planes of a part's two ends in the board's axes: none of a panel, whose sides are sawn when it is apart."""
    solid = _solid_of(placed, solids)
    if solid is None or solid.board.panel or solid.board.stave:
        return []
    names = ("left", "right")
    return [_placed_plane(placed, f.plane) for p in solid.local for f in p.facets if f.name.partition(":")[0] in names]


def _is_made(board: BoardPlan, placed: Placed, end: Plane, kerf_mm: float) -> bool:
    """Whether a cut leaves that plane on the part, or the board's own end is it."""
    source = board.source
    # A board's own end is one where it is not trimmed.
    own = [Plane((-1.0, 0.0, 0.0), 0.0)] if source.trim[0] == 0 else []
    own += [Plane((1.0, 0.0, 0.0), source.length_mm)] if source.trim[1] == 0 else []
    left = [cut.plane for cut in board.cuts if placed.key in cut.before]
    left += [cut.plane.moved(kerf_mm).flipped() for cut in board.cuts if placed.key in cut.after]
    return any(
        abs(plane.offset - end.offset) < MICRON_MM and dot(plane.normal, end.normal) > 1.0 - SAME for plane in (*own, *left)
    )


def _saw(board: BoardPlan, points: dict[str, list[Vec]], kerf_mm: float) -> list[Wrong]:
    """Saw the board as told. A cut goes through one workpiece, with every piece in it on one side or the other; in the end each is
    alone."""
    found: list[Wrong] = []
    workpieces = [frozenset(points)]
    for cut in board.cuts:
        here = next((w for w in workpieces if {*cut.before, *cut.after} & w), frozenset())
        if here != {*cut.before, *cut.after} or set(cut.before) & set(cut.after):
            found.append(Wrong("wrong_pieces_parted", board.id, (*cut.before, *cut.after)))
            continue
        found += [Wrong("in_the_kerf", board.id, (key,)) for key in _touched(cut, points, kerf_mm)]
        if cut.after:
            workpieces.remove(here)
            workpieces += [frozenset(cut.before), frozenset(cut.after)]
    found += [Wrong("not_sawn_apart", board.id, tuple(sorted(w))) for w in workpieces if len(w) > 1]
    return found


def _touched(cut: Cut, points: dict[str, list[Vec]], kerf_mm: float) -> list[str]:
    """The pieces into which a cut saws."""
    kept = [key for key in cut.before if any(cut.plane.beyond(p) > MICRON_MM for p in points[key])]
    return kept + [key for key in cut.after if any(cut.plane.beyond(p) < kerf_mm - MICRON_MM for p in points[key])]
