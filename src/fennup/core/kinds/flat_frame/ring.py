"""Boards that go round along the sides of a flat frame, rails as well as strips on them: how each lies, and how two of them are cut where they meet."""

from collections.abc import Callable
from dataclasses import dataclass

from fennup.core.assembly.board import Board, End
from fennup.core.assembly.model import Joint, Mating
from fennup.core.errors import SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, joint_plane, meeting_point
from fennup.core.geometry.vec import Vec
from fennup.core.kinds.fields import CornerJoint
from fennup.core.kinds.flat_frame.outline import Baseline, Side, turned
from fennup.core.tolerances import NOTHING

GROUND = Plane((0.0, 0.0, 1.0), 0.0)
Field = Callable[[str], str]


@dataclass(frozen=True)
class Edges:
    """The two long edges of a board as upright planes, normals out of the frame."""

    inner: Plane
    outer: Plane


@dataclass(frozen=True)
class Meets:
    """A corner where two boards that go round meet: which of the baseline's sides the first one is on, what the two are called, and how they are joined.
    Where the pins disagree they do not really meet: each is then cut for a neighbour standing where it should."""

    base: Baseline
    at: int
    ids: tuple[str, str]
    how: CornerJoint
    really: bool = True

    @property
    def sides(self) -> tuple[Side, Side]:
        """The two sides."""
        return self.base.sides[self.at], self.base.sides[(self.at + 1) % len(self.base.sides)]


def frame_along(side: Side, z: float) -> Frame:
    """The axes of a board along a side: face to the front (+z), upper edge to the opening, its middle at a height."""
    middle = (side.inner + side.outer) / 2
    x: Vec = (side.way[0], side.way[1], 0.0)
    y: Vec = (-side.way[1], side.way[0], 0.0)
    at = ((side.start[0] + side.end[0]) / 2 - y[0] * middle, (side.start[1] + side.end[1]) / 2 - y[1] * middle, z)
    return Frame(at, x, y, (0.0, 0.0, 1.0))


def edges(side: Side, through: tuple[float, float], way: tuple[float, float]) -> Edges:
    """The edges that a side has when its baseline runs through a point in a direction."""
    return Edges(side.line(through, way, side.inner), side.line(through, way, side.outer))


def own_edges(side: Side) -> Edges:
    """Those that it has where it stands."""
    return edges(side, side.start, side.way)


def join(id: str, corner: Meets, boards: dict[str, Board], field: Field) -> Joint:
    """Cut both boards of a corner and name the faces that meet. `field`: where a side's width stands. SpecError `butt_too_wide`."""
    here, after = corner.sides
    turn = corner.base.turns_deg[corner.at]
    mine, theirs = own_edges(here), own_edges(after)
    mine_seen, theirs_seen = mine, theirs
    if not corner.really:
        theirs_seen = edges(after, here.end, turned(here.way, turn))
        mine_seen = edges(here, after.start, turned(after.way, -turn))
    a, b = corner.ids
    ends: tuple[tuple[str, End], tuple[str, End]] = ((a, "right"), (b, "left"))
    if corner.how.joint == "miter":
        boards[a] = boards[a].with_cut("right", _miter(mine, theirs_seen))
        boards[b] = boards[b].with_cut("left", _miter(mine_seen, theirs).flipped())
        return Joint(id, "miter", Mating(a, "right:0"), Mating(b, "left:0"), ends)
    through_a = (corner.how.through or here.letter) == here.letter
    _check_butt(corner, field, through_first=through_a)
    if through_a:
        boards[a] = boards[a].with_cut("right", theirs_seen.outer)
        boards[b] = boards[b].with_cut("left", mine_seen.inner)
        return Joint(id, "butt", Mating(b, "left:0"), Mating(a, "upper"), ends)
    boards[a] = boards[a].with_cut("right", theirs_seen.inner)
    boards[b] = boards[b].with_cut("left", mine_seen.outer)
    return Joint(id, "butt", Mating(a, "right:0"), Mating(b, "upper"), ends)


def _check_butt(corner: Meets, field: Field, *, through_first: bool) -> None:
    """The tip of a through end must not run past the fitted board's own far corner: SpecError `butt_too_wide`."""
    sides = corner.base.sides
    first, second = corner.sides
    through, fitted = (first, second) if through_first else (second, first)
    far = sides[(corner.at + 2) % len(sides)] if through_first else sides[corner.at - 1]
    tip = meeting_point(own_edges(through).inner, own_edges(fitted).outer, GROUND)
    if own_edges(far).outer.beyond(tip) > NOTHING:
        raise SpecError("butt_too_wide", (field(through.letter),), corner=first.letter + second.letter, side=through.letter)


def _miter(a: Edges, b: Edges) -> Plane:
    """The plane from the inner to the outer corner, keeping a."""
    return joint_plane(a.outer, b.outer, a.inner, b.inner)


def check_runs(base: Baseline, field: Field) -> None:
    """Every side must keep some of both edges: SpecError `no_opening` with the widest board that leaves one, `no_outer_edge`."""
    n = len(base.sides)
    for i, side in enumerate(base.sides):
        before, after = base.sides[i - 1], base.sides[(i + 1) % n]
        if base.misfit and i in (0, n - 1):
            continue
        inner, outer = (_run(side, before, after, edge) for edge in ("inner", "outer"))
        if outer <= NOTHING:
            raise SpecError("no_outer_edge", (field(side.letter),), side=side.letter)
        if inner <= NOTHING:
            width = side.outer - side.inner
            limit = width * outer / (outer - inner)
            raise SpecError("no_opening", (field(side.letter),), mm=width, limit_mm=limit, side=side.letter)


def _run(side: Side, before: Side, after: Side, edge: str) -> float:
    """Signed length of a side's inner or outer edge between its neighbours' same edges."""
    line = [getattr(own_edges(s), edge) for s in (before, side, after)]
    start, end = meeting_point(line[0], line[1], GROUND), meeting_point(line[1], line[2], GROUND)
    return (end[0] - start[0]) * side.way[0] + (end[1] - start[1]) * side.way[1]
