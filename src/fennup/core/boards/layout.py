"""From a packing to boards with every piece in its place and every cut in its order.

A board's axes: x along it, y across it from its near edge, z up from its underside, mm.
"""

import itertools
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from fennup.core.boards.ends import SQUARE, End, Gap, at_corner, corners, gap_between, reach
from fennup.core.boards.nesting import best_order
from fennup.core.boards.pieces import Lie, Piece
from fennup.core.boards.stock import Source, Strip, Way
from fennup.core.boards.task import Bar, BarKind, Packing, Task
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, add, scale, sub
from fennup.core.parts.alike import turned
from fennup.core.tolerances import SAME

CutSort = Literal["trim", "resaw", "rip", "part", "end", "off"]
LEAST_OVER = 1.0  # mm: what is over below that is dust


@dataclass(frozen=True)
class Placed:
    """A piece in its place. `key`: the board of the assembly that it becomes; `at` is where its left end crosses the bar's middle
    line. Its own points go to `place`."""

    key: str
    piece: Piece
    lie: Lie
    at: Vec

    def place(self, p: Vec) -> Vec:
        """Where a point of the finished part, in its own axes, lies in the board."""
        lying = sub(turned(self.piece.lying, self.piece.as_first(self.key, p)), self.piece.middle)
        return add(turned(self.lie.turn, lying), (self.at[0] - self.lie.at, self.at[1], self.at[2]))

    def end(self, *, right: bool) -> End:
        """One of its ends."""
        return self.lie.right if right else self.lie.left

    def end_x(self, *, right: bool) -> float:
        """Where an end crosses the middle line."""
        return self.at[0] + (self.piece.axis_mm if right else 0.0)

    def arrises(self) -> tuple[tuple[Vec, Vec], ...]:
        """Its four long corners as they lie, each from its left end to its right one; near and low, near and high, far ones."""
        found = []
        for y, z in corners(self.piece.width_mm, self.piece.thickness_mm):
            ends = [self.end_x(right=r) + at_corner(self.end(right=r), y, z, right=r) for r in (False, True)]
            found.append(((ends[0], self.at[1] + y, self.at[2] + z), (ends[1], self.at[1] + y, self.at[2] + z)))
        return tuple(found)

    def tip(self, *, right: bool) -> float:
        """How far along the board an end goes."""
        far = reach(self.end(right=right), self.piece.width_mm, self.piece.thickness_mm, right=right)
        return self.end_x(right=right) + (far if right else -far)


@dataclass(frozen=True)
class Cut:
    """One cut: the saw takes what lies from the plane to a kerf beyond it. `before` and `after` are the pieces that it parts, those
    on the plane's own side first; `ends` those whose ends it makes, as `key left`."""

    sort: CutSort
    plane: Plane
    before: tuple[str, ...]
    after: tuple[str, ...]
    ends: tuple[str, ...]


@dataclass(frozen=True)
class Offcut:
    """What is left over in one piece: where it lies, along the board and across it; `kept` when it is worth keeping."""

    from_mm: float
    to_mm: float
    low_mm: float
    width_mm: float
    thickness_mm: float
    kept: bool

    @property
    def length_mm(self) -> float:
        """Along the board."""
        return self.to_mm - self.from_mm


@dataclass(frozen=True)
class BoardPlan:
    """One board: what comes out of it, cut by cut. `number` counts the boards of one source."""

    source: Source
    number: int
    way: Way
    pieces: tuple[Placed, ...]
    cuts: tuple[Cut, ...]
    offcuts: tuple[Offcut, ...]

    @property
    def id(self) -> str:
        """The source's and, where there are several of it, its number."""
        return self.source.id if self.source.count == 1 else f"{self.source.id}#{self.number}"


@dataclass(frozen=True)
class Layout:
    """All boards of a plan, and the pieces that found no place."""

    boards: tuple[BoardPlan, ...]
    unplaced: tuple[tuple[str, Piece], ...]


def laid_out(task: Task, packing: Packing) -> Layout:
    """The packing as boards: the fullest first of each source; every piece gets its own key, in order."""
    keys = [list(wanted.piece.keys) for wanted in task.wanted]
    waiting: dict[BarKind, list[Bar]] = {}
    for bar in sorted(packing.bars, key=lambda bar: (-task.used(bar.kind, bar.holds), bar.holds)):
        waiting.setdefault(bar.kind, []).append(bar)
    boards: list[BoardPlan] = []
    numbers: dict[str, int] = {}
    for number, times in packing.ways:
        for _ in range(times):
            bars = []
            for strip in task.ways[number].strips:
                there = waiting.get(BarKind(task.ways[number].source, strip.section, round(strip.length_mm, 6)))
                bars.append(there.pop(0) if there else None)
            if not any(bars):
                continue
            way, full = _closed_up(task.ways[number], bars, task.saw.kerf_mm)
            pieces = [
                placed for strip, bar in zip(way.strips, full, strict=True) if bar for placed in _in_order(task, strip, bar, keys)
            ]
            numbers[way.source.id] = numbers.get(way.source.id, 0) + 1
            boards.append(_board(task, way, numbers[way.source.id], tuple(pieces)))
    unplaced = tuple((keys[p].pop(0), task.wanted[p].piece) for p in packing.unplaced)
    return Layout(tuple(boards), unplaced)


def _closed_up(way: Way, bars: list[Bar | None], kerf: float) -> tuple[Way, list[Bar | None]]:
    """The way without the strips that hold nothing, the others close together: what is over stays in one piece. In a board with flaws
    every strip stays where it was clear."""
    if way.source.flaws:
        return way, bars
    used = {strip.low_mm for strip, bar in zip(way.strips, bars, strict=True) if bar}
    lows = sorted({strip.low_mm: strip.section[0] for strip in way.strips}.items())
    edge = lows[0][0]
    moved, at = {}, edge
    for low, width in lows:
        if low in used:
            moved[low] = at
            at += width + 2 * edge + kerf
    kept = [(replace(s, low_mm=moved[s.low_mm]), bar) for s, bar in zip(way.strips, bars, strict=True) if s.low_mm in used]
    over = way.over_mm if len(moved) == len(lows) else max(0.0, way.source.width_mm - (at - edge))
    return replace(way, strips=tuple(s for s, _ in kept), over_mm=over), [bar for _, bar in kept]


def _in_order(task: Task, strip: Strip, bar: Bar, keys: list[list[str]]) -> Iterator[Placed]:
    """The pieces of a bar, long ones first among those of one shape, each as near to the one before as the saw allows."""
    places = sorted(bar.holds, key=lambda p: (-task.wanted[p].piece.axis_mm, p))
    width, thick = strip.section
    at, before = strip.from_mm, None
    for place, way in best_order([task.shape(p) for p in places], strip.section, task.saw):
        piece = task.wanted[places[place]].piece
        lie = piece.lies[way]
        if before is None:
            at += reach(lie.left, width, thick, right=False)
        else:
            at += gap_between(before, lie.left, width, thick, task.saw.kerf_mm, square=task.saw.square_first).mm
        yield Placed(keys[places[place]].pop(0), piece, lie, (at, strip.low_mm + width / 2, strip.under_mm + thick / 2))
        at, before = at + piece.axis_mm, lie.right


def _board(task: Task, way: Way, number: int, pieces: tuple[Placed, ...]) -> BoardPlan:
    """Its cuts and what is over."""
    source, kerf = way.source, task.saw.kerf_mm
    cuts = [*_trims(source, pieces), *_rips(way, pieces, kerf)]
    offcuts: list[Offcut] = []
    for strip in way.strips:
        there = tuple(p for p in pieces if _lies_in(p, strip))
        row = [s for s in way.strips if (s.low_mm, s.under_mm) == (strip.low_mm, strip.under_mm) and s.from_mm > strip.from_mm]
        rest = tuple(p for p in pieces if any(_lies_in(p, s) for s in row))
        cuts += _crosscuts(task, strip, there, rest, source)
        free = max([strip.from_mm, *(p.tip(right=True) + _kerf_at(p.lie.right, kerf) for p in there)])
        if strip.to_mm - free > LEAST_OVER:
            kept = strip.to_mm - free >= task.keep_mm
            offcuts.append(Offcut(free, strip.to_mm, strip.low_mm, strip.section[0], strip.section[1], kept))
    if way.over_mm > LEAST_OVER:
        kept = source.length_mm >= task.keep_mm and way.over_mm >= min(s.section[0] for s in way.strips)
        offcuts.append(Offcut(0.0, source.length_mm, source.width_mm - way.over_mm, way.over_mm, source.thickness_mm, kept))
    return BoardPlan(source, number, way, pieces, tuple(cuts), tuple(offcuts))


def _kerf_at(end: End, kerf: float) -> float:
    """What the cut of an end takes along the board."""
    return kerf * max(cut.stretch for cut in end)


def _lies_in(placed: Placed, strip: Strip) -> bool:
    y, z = placed.at[1] - strip.low_mm, placed.at[2] - strip.under_mm
    inside = 0 < y < strip.section[0] and 0 < z < strip.section[1]
    return inside and strip.from_mm - SAME <= placed.tip(right=False) <= strip.to_mm


def _keys(pieces: tuple[Placed, ...]) -> tuple[str, ...]:
    return tuple(p.key for p in pieces)


def _trims(source: Source, pieces: tuple[Placed, ...]) -> Iterator[Cut]:
    """What comes off the board's ends: a trim has its kerf in it."""
    if source.trim[0] > 0:
        yield Cut("trim", Plane((-1.0, 0.0, 0.0), -source.trim[0]), _keys(pieces), (), ())
    if source.trim[1] > 0:
        yield Cut("trim", Plane((1.0, 0.0, 0.0), source.length_mm - source.trim[1]), _keys(pieces), (), ())


def _rips(way: Way, pieces: tuple[Placed, ...], kerf: float) -> Iterator[Cut]:
    """The cuts along the board: strip from strip, and layer from layer where it is resawn."""
    lows = sorted({strip.low_mm: strip.section[0] for strip in way.strips}.items())
    for low, width in lows:
        top = low + width
        after = tuple(p for p in pieces if p.at[1] > top)
        if after or way.source.width_mm - top > kerf + SAME:
            yield Cut(
                "rip", Plane((0.0, 1.0, 0.0), top), _keys(tuple(p for p in pieces if low < p.at[1] < top)), _keys(after), ()
            )
    for low, width in lows if way.sawn else ():
        there = tuple(p for p in pieces if low < p.at[1] < low + width)
        unders = sorted({(strip.under_mm, strip.section[1]) for strip in way.strips if strip.low_mm == low})
        for (under, thick), (above, _) in itertools.pairwise(unders):
            top = under + thick + (above - under - thick - kerf) / 2
            before = tuple(p for p in there if under < p.at[2] < above)
            yield Cut("resaw", Plane((0.0, 0.0, 1.0), top), _keys(before), _keys(tuple(p for p in there if p.at[2] > above)), ())


def _crosscuts(task: Task, strip: Strip, pieces: tuple[Placed, ...], rest: tuple[Placed, ...], source: Source) -> list[Cut]:
    """The cuts across a bar from left to right, and then what each end still needs when the pieces are apart; `rest` lies in the same
    bar beyond a flaw."""
    kerf, made, later = task.saw.kerf_mm, [], []

    def plane(placed: Placed, number: int, *, right: bool) -> Plane:
        """The plane of one cut of an end, normal out of the piece."""
        cut, long = placed.end(right=right)[number], placed.end(right=right)[number].stretch
        sign = 1.0 if right else -1.0
        normal = (sign / long, -sign * cut.up / long, -sign * cut.out / long)
        on = (placed.end_x(right=right) + cut.at, placed.at[1], placed.at[2])
        return Plane(normal, sum(n * c for n, c in zip(normal, on, strict=True)))

    def end_cuts(placed: Placed, *, right: bool, without: int = -1) -> None:
        alone = (placed.key,)
        for number in range(len(placed.end(right=right))):
            if number != without:
                later.append(
                    Cut("end", plane(placed, number, right=right), alone, (), (f"{placed.key} {'right' if right else 'left'}",))
                )

    if not pieces:
        return []
    first, last = pieces[0], pieces[-1]
    if first.lie.left != SQUARE or strip.from_mm > source.trim[0] + SAME:
        end_cuts(first, right=False)
    for place, (one, other) in enumerate(itertools.pairwise(pieces)):
        before, after = _keys(pieces[place : place + 1]), _keys((*pieces[place + 1 :], *rest))
        gap = gap_between(one.lie.right, other.lie.left, *strip.section, kerf, square=task.saw.square_first)
        made.append(_parting(gap, one, other, plane, before, after, kerf))
        if gap.how != "shared":
            end_cuts(one, right=True, without=gap.first if gap.how == "left_first" else -1)
            end_cuts(other, right=False, without=gap.first if gap.how == "right_first" else -1)
    ends_there = strip.to_mm >= source.length_mm - source.trim[1] - SAME and last.tip(right=True) > strip.to_mm - SAME
    if last.lie.right != SQUARE or not ends_there:
        made.append(Cut("off", plane(last, 0, right=True), _keys(pieces[-1:]), _keys(rest), (f"{last.key} right",)))
        end_cuts(last, right=True, without=0)
    return made + later


def _parting(
    gap: Gap, one: Placed, other: Placed, plane: object, before: tuple[str, ...], after: tuple[str, ...], kerf: float
) -> Cut:
    """The cut that takes two neighbours apart."""
    assert callable(plane)
    if gap.how == "square_first":
        return Cut("part", Plane((1.0, 0.0, 0.0), one.tip(right=True)), before, after, ())
    if gap.how == "right_first":
        own: Plane = plane(other, gap.first, right=False)
        # The blade stands on the other side of that plane, so that what is told is the plane of what is kept before it.
        return Cut("part", Plane(scale(own.normal, -1.0), -own.offset - kerf), before, after, (f"{other.key} left",))
    ends = (f"{one.key} right", *((f"{other.key} left",) if gap.how == "shared" else ()))
    return Cut("part", plane(one, gap.first if gap.how == "left_first" else 0, right=True), before, after, ends)
