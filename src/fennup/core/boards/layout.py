"""From a packing to boards with every piece in its place and every cut in its order.

A board's axes: x along it, y across it from its near edge, z up from its underside, mm.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import groupby, pairwise
from typing import Literal

from fennup.core.boards.ends import SQUARE, End, Gap, at_corner, corners, gap_between, reach
from fennup.core.boards.nesting import Saw, best_order
from fennup.core.boards.pieces import Lie, Piece
from fennup.core.boards.rows import InRow, Row, side_plane
from fennup.core.boards.stock import AS_LARGE, Section, Source, Strip, Way
from fennup.core.boards.task import Bar, BarKind, Packing, Task
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, add, dot, sub
from fennup.core.parts.alike import turned
from fennup.core.tolerances import SAME

CutSort = Literal["trim", "resaw", "rip", "part", "side", "end", "off"]
NARROWEST_KEPT = 40.0  # mm: a strip that is left over along a board is worth keeping from there
LEAST_OVER = 1.0  # mm: what is over below that is dust


@dataclass(frozen=True)
class InPlace:
    """Where a piece stands in a row: which row of its bar, its place there, and where its near side crosses the row's middle line."""

    number: int
    place: InRow
    low_mm: float


@dataclass(frozen=True)
class Placed:
    """A piece in its place. `key`: the board of the assembly that it becomes; `at` is where its left end crosses the middle line of its
    own width. Its own points go to `place`. `row`: it lies with others side by side."""

    key: str
    piece: Piece
    lie: Lie
    at: Vec
    row: InPlace | None = None

    def place(self, p: Vec) -> Vec:
        """Where a point of the finished part, in its own axes, lies in the board."""
        lying = sub(turned(self.piece.lying, self.piece.as_first(self.key, p)), self.piece.middle)
        return add(turned(self.lie.turn, lying), (self.at[0] - self.lie.at, self.at[1], self.at[2]))

    @property
    def blunt(self) -> bool:
        """Whether it is parted from its neighbours by square cuts, and gets its own ends when it is apart."""
        return self.row is not None or bool(self.piece.blunt)

    def own_cuts(self, *, right: bool) -> tuple[Plane, ...]:
        """The planes of an end in the board's axes, normal out of the piece."""
        if not self.piece.blunt:
            return tuple(_plane(self, number, right=right) for number in range(len(self.end(right=right))))
        found = []
        for plane in self.piece.blunt:
            normal = turned(self.lie.turn, plane.normal)
            if (normal[0] > 0) == right:
                found.append(Plane(normal, plane.offset + dot(normal, (self.at[0] - self.lie.at, self.at[1], self.at[2]))))
        return tuple(found)

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
    keys = {place: list(task.wanted[place].piece.keys) for place in task.firsts}
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


def _in_order(task: Task, strip: Strip, bar: Bar, keys: dict[int, list[str]]) -> Iterator[Placed]:
    """The pieces of a bar, long ones first among those of one shape, each as near to the one before as the saw allows."""
    places = sorted(bar.holds, key=lambda p: (-task.wanted[p].piece.axis_mm, p))
    width, thick = strip.section
    at, before, number = strip.from_mm, None, 0
    for place, way in best_order([task.shape(p) for p in places], strip.section, task.saw):
        piece, own = task.wanted[places[place]].piece, keys[task.same(places[place])]
        if not own:
            continue  # laid in several ways there may be more room for it than there are of it
        lie = piece.lies[way]
        if before is None:
            at += reach(lie.left, width, thick, right=False)
        else:
            at += gap_between(before, lie.left, width, thick, task.saw.kerf_mm, square=task.saw.square_first).mm
        middle = strip.low_mm + width / 2, strip.under_mm + thick / 2
        if piece.row is None:
            yield Placed(own.pop(0), piece, lie, (at, *middle))
        else:
            yield from _side_by_side(piece.row, own, at, strip.low_mm, middle[1], number)
            number += 1
        at, before = at + piece.axis_mm, lie.right


def _side_by_side(row: Row, keys: list[str], start: float, low: float, z: float, number: int) -> Iterator[Placed]:
    """The pieces of a row that begins there, as many as are still wanted."""
    for place in row.places[: len(keys)]:
        lie, piece = place.across.lie, row.piece
        tip = reach(lie.left, piece.width_mm, piece.thickness_mm, right=False)
        y = low + place.at_mm - place.across.low_mm
        yield Placed(keys.pop(0), piece, lie, (start + tip, y, z), InPlace(number, place, low + place.at_mm))


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
        kept = source.length_mm >= task.keep_mm and way.over_mm >= NARROWEST_KEPT
        offcuts.append(Offcut(0.0, source.length_mm, source.width_mm - way.over_mm, way.over_mm, source.thickness_mm, kept))
    return BoardPlan(source, number, way, pieces, tuple(cuts), tuple(offcuts))


def _kerf_at(end: End, kerf: float) -> float:
    """What the cut of an end takes along the board."""
    return kerf * max(cut.stretch for cut in end)


def _lies_in(placed: Placed, strip: Strip) -> bool:
    y, z = placed.at[1] - strip.low_mm, placed.at[2] - strip.under_mm
    inside = 0 < y < strip.section[0] and 0 < z < strip.section[1]
    return inside and strip.from_mm < (placed.tip(right=False) + placed.tip(right=True)) / 2 < strip.to_mm


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
        if after or way.source.width_mm - top > AS_LARGE:
            yield Cut(
                "rip", Plane((0.0, 1.0, 0.0), top), _keys(tuple(p for p in pieces if low < p.at[1] < top)), _keys(after), ()
            )
    for low, width in lows if way.sawn else ():
        there = tuple(p for p in pieces if low < p.at[1] < low + width)
        unders = sorted({(strip.under_mm, strip.section[1]) for strip in way.strips if strip.low_mm == low})
        for (under, thick), (above, _) in pairwise(unders):
            top = under + thick + (above - under - thick - kerf) / 2
            before = tuple(p for p in there if under < p.at[2] < above)
            yield Cut("resaw", Plane((0.0, 0.0, 1.0), top), _keys(before), _keys(tuple(p for p in there if p.at[2] > above)), ())


def _crosscuts(task: Task, strip: Strip, pieces: tuple[Placed, ...], rest: tuple[Placed, ...], source: Source) -> list[Cut]:
    """The cuts across a bar from left to right, and then what each end still needs when the pieces are apart; `rest` lies in the same
    bar beyond a flaw. What lies side by side in a row is cut off together and then sawn apart."""
    if not pieces:
        return []
    sawing = _Sawing(task.saw)
    units = [tuple(group) for _, group in groupby(pieces, key=lambda p: p.key if p.row is None else p.row.number)]
    if units[0][0].blunt or units[0][0].lie.left != SQUARE or strip.from_mm > source.trim[0] + SAME:
        sawing.end_cuts(units[0], right=False)
    for place, (one, other) in enumerate(pairwise(units)):
        after = tuple(p for unit in units[place + 1 :] for p in unit)
        sawing.part(one, other, (*after, *rest), strip.section)
    last = units[-1]
    ends_there = strip.to_mm >= source.length_mm - source.trim[1] - SAME and last[0].tip(right=True) > strip.to_mm - SAME
    if last[0].blunt or last[0].lie.right != SQUARE or not ends_there:
        sawing.off(last, rest)
    for unit in units:
        if unit[0].row:
            sawing.apart(unit)
    return sawing.made + [cut for cut in sawing.later if not sawing.is_made(cut)]


Unit = tuple[Placed, ...]


class _Sawing:
    """The cuts of one bar as they come: those that part it, and those that are made when the pieces are apart."""

    def __init__(self, saw: Saw) -> None:
        self.saw = saw
        self.made: list[Cut] = []
        self.later: list[Cut] = []

    def end_cuts(self, unit: Unit, *, right: bool, without: int = -1) -> None:
        """What an end still needs, but for the cut that has been made."""
        for placed in unit:
            for number, plane in enumerate(placed.own_cuts(right=right)):
                if number != without:
                    told = (f"{placed.key} {'right' if right else 'left'}",)
                    self.later.append(Cut("end", plane, (placed.key,), (), told))

    def part(self, one: Unit, other: Unit, after: Unit, section: Section) -> None:
        """The cut between two neighbours."""
        rights, lefts = self._end(one, right=True), self._end(other, right=False)
        gap = gap_between(rights, lefts, *section, self.saw.kerf_mm, square=self.saw.square_first)
        self.made.append(self._between(gap, one, other, after))
        if gap.how != "shared" or one[0].blunt or other[0].blunt:
            own, its = gap.how in ("shared", "left_first") and not one[0].blunt, gap.how == "right_first" and not other[0].blunt
            self.end_cuts(one, right=True, without=gap.first if own else -1)
            self.end_cuts(other, right=False, without=gap.first if its else -1)

    def _between(self, gap: Gap, one: Unit, other: Unit, after: Unit) -> Cut:
        """The cut that takes them apart: beside a row it is square."""
        if one[0].blunt and gap.how in ("shared", "left_first"):
            return Cut("part", Plane((1.0, 0.0, 0.0), one[0].tip(right=True)), _keys(one), _keys(after), ())
        if other[0].blunt and gap.how == "right_first":
            at = other[0].tip(right=False) - self.saw.kerf_mm
            return Cut("part", Plane((1.0, 0.0, 0.0), at), _keys(one), _keys(after), ())
        return _parting(gap, one[0], other[0], _keys(one), _keys(after), self.saw.kerf_mm)

    @staticmethod
    def _end(unit: Unit, *, right: bool) -> End:
        return SQUARE if unit[0].blunt else unit[0].end(right=right)

    def is_made(self, end: Cut) -> bool:
        """Whether an end is as it should be already when the pieces are apart."""
        key, kerf = end.before[0], self.saw.kerf_mm
        left = [cut.plane for cut in self.made if key in cut.before]
        left += [cut.plane.moved(kerf).flipped() for cut in self.made if key in cut.after]
        return any(dot(p.normal, end.plane.normal) > 1.0 - SAME and abs(p.offset - end.plane.offset) < SAME for p in left)

    def off(self, last: Unit, rest: Unit) -> None:
        """The cut behind the last one."""
        if last[0].blunt:
            self.made.append(Cut("off", Plane((1.0, 0.0, 0.0), last[0].tip(right=True)), _keys(last), _keys(rest), ()))
            self.end_cuts(last, right=True)
        else:
            self.made.append(Cut("off", _plane(last[0], 0, right=True), _keys(last), _keys(rest), (f"{last[0].key} right",)))
            self.end_cuts(last, right=True, without=0)

    def apart(self, unit: Unit) -> None:
        """A row sawn into its pieces along their sides."""
        for number, (one, other) in enumerate(pairwise(unit)):
            assert one.row and other.row and one.row.place.gap
            gap, middle = one.row.place.gap, one.tip(right=False) + one.piece.overall_mm / 2
            before, after = _keys(unit[number : number + 1]), _keys(unit[number + 1 :])
            far = one.row.place.across
            at = one.row.low_mm + far.axis_mm
            if gap.how == "right_first":
                plane = side_plane(other.row.place.across.near, gap.first, other.row.low_mm, middle, one.at[2], far=False)
                plane = plane.moved(self.saw.kerf_mm).flipped()
            elif gap.how == "square_first":
                top = at + reach(far.far, one.piece.overall_mm, one.piece.thickness_mm, right=True)
                plane = Plane((0.0, 1.0, 0.0), top)
            else:
                plane = side_plane(far.far, gap.first, at, middle, one.at[2], far=True)
            self.made.append(Cut("side", plane, before, after, ()))


def _plane(placed: Placed, number: int, *, right: bool) -> Plane:
    """The plane of one cut of an end, normal out of the piece."""
    cut, long = placed.end(right=right)[number], placed.end(right=right)[number].stretch
    sign = 1.0 if right else -1.0
    normal = (sign / long, -sign * cut.up / long, -sign * cut.out / long)
    on = (placed.end_x(right=right) + cut.at, placed.at[1], placed.at[2])
    return Plane(normal, sum(n * c for n, c in zip(normal, on, strict=True)))


def _parting(gap: Gap, one: Placed, other: Placed, before: tuple[str, ...], after: tuple[str, ...], kerf: float) -> Cut:
    """The cut that takes two neighbours apart."""
    if gap.how == "square_first":
        return Cut("part", Plane((1.0, 0.0, 0.0), one.tip(right=True)), before, after, ())
    if gap.how == "right_first":
        # The blade stands on the other side of that plane, so that what is told is the plane of what is kept before it.
        plane = _plane(other, gap.first, right=False).moved(kerf).flipped()
        return Cut("part", plane, before, after, (f"{other.key} left",))
    ends = (f"{one.key} right", *((f"{other.key} left",) if gap.how == "shared" else ()))
    return Cut("part", _plane(one, gap.first if gap.how == "left_first" else 0, right=True), before, after, ends)
