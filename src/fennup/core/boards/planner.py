"""The planner: a good packing at once, then fillings that the linear program asks for, then the best whole numbers of them.

Bounded in rounds and nodes, never in seconds: the same task always gives the same packing.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from functools import partial
from math import ceil

from fennup.core.boards.master import WHOLE_ENOUGH, Master, Values, sections_of
from fennup.core.boards.pricing import Knapsack, step_for
from fennup.core.boards.task import Bar, BarKind, Packing, Task
from fennup.core.tolerances import SAME

MOST_ROUNDS = 400
DIVE_ROUNDS = 4
MOST_DIVES = 5
LESS = 1e-7  # by so little of a step nothing is better
NOTHING_KNOWN = 0.0
MOST_MIXED = 700  # fillings that the linear program asked for, of which the best whole numbers are sought after the dives
MOST_FILLINGS = 3000  # that are gone through one by one, to prove the best
# Told how far it is and the best so far; may raise to end it.
Report = Callable[[float, Packing], None]


@dataclass(frozen=True)
class Group:
    """Kinds of bars of one section into which the same pieces may go, with as much liking."""

    kinds: tuple[BarKind, ...]
    places: tuple[int, ...]


def groups_of(task: Task) -> list[Group]:
    """The kinds of bars by what may go into them."""
    found: dict[tuple[object, ...], list[BarKind]] = {}
    for section, kinds in sections_of(task):
        places = task.sections[section]
        picky = any(task.wanted[p].choosy for p in places)
        for kind in kinds:
            may = tuple(p for p in places if task.wanted[p].may_come_of(kind.source))
            found.setdefault((section, may, kind.source.grade if picky else 0), []).append(kind)
    return [Group(tuple(kinds), key[1]) for key, kinds in found.items()]  # type: ignore[arg-type]


def plan(task: Task, report: Report = lambda progress, packing: None, *, dives: int = MOST_DIVES) -> Packing:
    """The best packing that is found; `report` hears of every better one. With fewer `dives` it is found sooner and may be worse."""
    search = _Search(task)
    best = search.fill_in_turn()
    report(0.05, best)
    if search.take_all() and not task.guessed:
        # Every filling that there is takes part: what the whole numbers then cost at the least is the truth.
        found, least = search.whole_numbers()
        bound = task.bound_from(least)
        best = replace(found if found and found.rank < best.rank - LESS * LESS else best, bound=bound)
        report(1.0, best)
        return best
    bound = search.grow(lambda share: report(0.05 + 0.45 * share, best))
    best = replace(best, bound=bound)
    turns: tuple[Callable[[], Packing | None], ...] = (
        *(partial(search.dive, turn) for turn in range(1, dives + 1)),
        lambda: search.whole_numbers(MOST_MIXED)[0],
    )
    for turn, attempt in enumerate(turns):
        if best.proven:
            break
        found = attempt()
        if found and found.rank < best.rank - LESS * LESS:
            best = replace(found, bound=bound)
        report(0.5 + 0.5 * (turn + 1) / len(turns), best)
    return best


class _Search:
    def __init__(self, task: Task) -> None:
        self.task = task
        self.groups = groups_of(task)
        self.master = Master(task)
        self.steps = {
            group: step_for([task.sizes[p] for p in group.places] + [task.room(k) for k in group.kinds], self._longest(group))
            for group in self.groups
        }

    def _longest(self, group: Group) -> float:
        return max(max(self.task.room(kind) for kind in group.kinds), 0.0)

    def _knapsack(self, group: Group, values: list[float], most: list[int], *, up: bool = False) -> Knapsack:
        sizes = [self.task.sizes[p] for p in group.places]
        setup = 1.0 if self.task.goal == "fewest_changes" else 0.0
        return Knapsack(sizes, values, most, self._longest(group), self.steps[group], up=up, setup=setup)

    def fill_in_turn(self) -> Packing:
        """Again and again the way of sawing that costs the least for what comes out of it, its bars filled as well as can be."""
        task = self.task
        left = self._all()
        free = {id: source.count for id, source in task.sources.items()}
        ways: dict[int, int] = {}
        bars: list[Bar] = []
        while any(left.values()):
            filled = {group: self._fullest(group, left) for group in self.groups}
            best, least = None, float("inf")
            for number, way in enumerate(task.ways):
                if free[way.source.id] == 0:
                    continue
                worth = sum(
                    filled[group].value(task.room(kind)) * task.wood_in(kind) * way.supply.get((kind.section, kind.length_mm), 0)
                    for group in self.groups for kind in group.kinds if kind.source is way.source
                )  # fmt: skip
                if worth > 0 and (cost := (task.way_cost(way) + LESS) / worth) < least - LESS * LESS:
                    best, least = number, cost
            if best is None:
                break
            made = self._fill(best, left)
            source = task.ways[best].source
            if not made:  # what seemed to fit does not
                free[source.id] = 0
                continue
            bars += made
            ways[best] = ways.get(best, 0) + 1
            if (count := free[source.id]) is not None:
                free[source.id] = count - 1
        return self._packing(ways, bars, left)

    def _all(self) -> dict[int, int]:
        """How many of everything are wanted, by the places of the first ways to lay them."""
        return {place: self.task.wanted[place].count for place in self.task.firsts}

    def _still(self, place: int, left: dict[int, int]) -> int:
        """How many laid so are of use yet."""
        return ceil(left[self.task.same(place)] / self.task.wanted[place].gives)

    def _fullest(self, group: Group, left: dict[int, int]) -> Knapsack:
        """Fillings of what is left that leave the least over, large pieces first among equals."""
        sizes = [self.task.sizes[p] for p in group.places]
        return self._knapsack(group, [size * (1.0 + LESS * size) for size in sizes], [self._still(p, left) for p in group.places])

    def _fill(self, number: int, left: dict[int, int]) -> list[Bar]:
        """The bars of one way filled one after another, what is in them taken off what is left."""
        made = []
        for section, length in sorted(self.task.ways[number].supply, reverse=True):
            kind = BarKind(self.task.ways[number].source, section, length)
            group = next((g for g in self.groups if kind in g.kinds), None)
            for _ in range(self.task.ways[number].supply[section, length]):
                if group is None or not any(self._still(p, left) for p in group.places):
                    continue
                knapsack = self._fullest(group, left)
                holds = tuple(group.places[k] for k in knapsack.filling(self.task.room(kind)))
                holds = self._that_fits(kind, holds, list(self.task.sizes))
                if holds:
                    made.append(Bar(kind, holds))
                    self.master.add(kind, holds)
                    self._take(holds, left)
        return made

    def _take(self, holds: tuple[int, ...], left: dict[int, int]) -> tuple[int, ...]:
        """Those of a filling that are of use yet, taken off what is left."""
        useful = []
        for place in holds:
            if still := left[self.task.same(place)]:
                left[self.task.same(place)] = max(0, still - self.task.wanted[place].gives)
                useful.append(place)
        return tuple(useful)

    def _that_fits(self, kind: BarKind, holds: tuple[int, ...], worth: list[float]) -> tuple[int, ...]:
        """A filling without the least worthy of its pieces, until it really fits."""
        while holds and not self.task.holds(kind, holds):
            last = min(holds, key=lambda p: (worth[p], p))
            at = holds.index(last)
            holds = (*holds[:at], *holds[at + 1 :])
        return holds

    def take_all(self) -> bool:
        """Add every filling that is worth asking about; False, and none of them, where they are too many."""
        task = self.task
        # A bar that is not full can be the better one only where that has a price of its own.
        short_too = task.refunds or task.goal == "fewest_changes" or any(w.choosy for w in task.wanted)
        found: list[tuple[BarKind, tuple[int, ...], bool]] = []
        for group in self.groups:
            order = sorted(group.places, key=lambda p: (-task.sizes[p], p))
            for kind in group.kinds:
                for holds, full in self._fillings(kind, order):
                    found.append((kind, holds, full))
                    if len(found) > MOST_FILLINGS:
                        return False
        for kind, holds, full in found:
            if full or short_too:
                self.master.add(kind, holds)
        return True

    def _fillings(self, kind: BarKind, order: list[int]) -> Iterator[tuple[tuple[int, ...], bool]]:
        """Every set of pieces that fits in a bar, and whether no other one fits beside it."""
        task = self.task
        least = min((task.sizes[p] for p in order), default=0.0)

        def fill(holds: tuple[int, ...], at: int, room: float) -> Iterator[tuple[tuple[int, ...], bool]]:
            full = True
            for place in range(len(order)):
                p = order[place]
                if task.sizes[p] > room + SAME or holds.count(p) >= task.wanted[p].count:
                    continue
                more = tuple(sorted((*holds, p)))
                if not task.holds(kind, more):
                    continue
                full = False
                if place >= at:
                    yield from fill(more, place, room - task.sizes[p])
            if holds:
                yield holds, full

        if least <= task.room(kind) + SAME:
            yield from fill((), 0, task.room(kind))

    def grow(self, tell: Callable[[float], None] = lambda share: None) -> float:
        """Add fillings until no other one would lower the cost of fractions; the bound that follows."""
        values = self.master.relaxed()
        for turn in range(MOST_ROUNDS):
            added, seeming = self._price(values)
            if not added:
                return self._seeming_bound() if seeming else max(NOTHING_KNOWN, self.task.bound_from(values.cost))
            if turn % 10 == 9:
                tell(1.0 - 10.0 / (turn + 10))
            values = self.master.relaxed()
        return NOTHING_KNOWN

    def _price(self, values: Values) -> tuple[bool, bool]:
        """Add the fillings that would lower the cost; whether there were any, and whether others would that only seem to fit."""
        task, added, seeming = self.task, False, False
        for kind, group, net, room, holds in self._wanted_by(values):
            if task.holds(kind, holds):
                added |= self.master.add(kind, holds)
            else:
                seeming = True
                added |= self._near(kind, group, net, room, holds)
        return added, seeming

    def _wanted_by(self, values: Values) -> Iterator[tuple[BarKind, Group, list[float], float, tuple[int, ...]]]:
        """The best filling of every kind of bar that would lower the cost, fit or only seem to fit."""
        task = self.task
        for group in self.groups:
            source = group.kinds[0].source
            worth = [values.pieces[p] - task.dislike(p, source) for p in group.places]
            most = [task.wanted[p].count for p in group.places]
            for refund in (False, True) if task.refunds else (False,):
                wood = task.wood_in(group.kinds[0]) if refund else 0.0
                net = [w - wood * task.sizes[p] for w, p in zip(worth, group.places, strict=True)]
                knapsack = self._knapsack(group, net, most)
                for kind in group.kinds:
                    room = task.room(kind) - (task.keep_mm if refund else 0.0)
                    value, price = knapsack.value(room) + wood * task.room(kind), -values.bars[kind]
                    if room > 0 and value > price + LESS * max(1.0, price):
                        yield kind, group, net, room, tuple(group.places[k] for k in knapsack.filling(room))

    def _seeming_bound(self) -> float:
        """What the fractions would cost if everything that seems to fit did: no packing costs less."""
        task, master = self.task, Master(self.task)
        for _ in range(MOST_ROUNDS):
            values = master.relaxed()
            added = False
            for kind, _group, _net, room, holds in self._wanted_by(values):
                left = task.room(kind) - sum(task.sizes[p] for p in holds)
                refunded = task.refunds and room < task.room(kind)
                cost = sum(task.dislike(p, kind.source) for p in holds) - (task.wood_in(kind) * left if refunded else 0.0)
                cost += len(set(holds)) if task.goal == "fewest_changes" else 0.0
                added |= master.add(kind, holds, cost)
            if not added:
                return max(NOTHING_KNOWN, task.bound_from(values.cost))
        return NOTHING_KNOWN

    def _near(self, kind: BarKind, group: Group, net: list[float], room: float, holds: tuple[int, ...]) -> bool:
        """In place of a filling that only seems to fit: the same without a piece, and the best one rounded the other way."""
        worth = dict(zip(group.places, net, strict=True))
        by_place = [worth.get(p, 0.0) for p in range(len(self.task.wanted))]
        most = [self.task.wanted[p].count for p in group.places]
        safe = tuple(group.places[k] for k in self._knapsack(group, net, most, up=True).filling(room))
        added = [self.master.add(kind, self._that_fits(kind, filling, by_place)) for filling in (holds, safe)]
        return any(added)

    def dive(self, turn: int) -> Packing | None:
        """Fill one bar after another for good, each time as the fractions say most clearly, and ask for what then would help."""
        master = self.master
        held: dict[int, float] = {}
        for _ in range(sum(self._all().values())):
            values = master.relaxed()
            part = {
                n: f
                for n in range(len(master.bars))
                if (f := values.fractions[master.column_of(n)] - held.get(n, 0.0)) > WHOLE_ENOUGH
            }
            if not part:
                break  # what is left is whole
            whole = {n: float(int(f + WHOLE_ENOUGH)) for n, f in part.items() if f > 1.0 - WHOLE_ENOUGH}
            if not whole:
                ranked = sorted(part, key=lambda n: (-part[n], n))
                whole = {n: 1.0 for n in ranked[(turn - 1) % max(1, len(ranked) // 4) :][:1]}
            for n, more in whole.items():
                held[n] = held.get(n, 0.0) + more
                master.hold(master.column_of(n), held[n])
            for _ in range(DIVE_ROUNDS):
                if not self._price(master.relaxed())[0]:
                    break
        master.let_go()
        return self._packing_of(values.fractions)

    def whole_numbers(self, most: int = MOST_FILLINGS) -> tuple[Packing | None, float]:
        """The best whole numbers of all fillings so far, and what no whole numbers of them can go below; of too many nothing."""
        if len(self.master.bars) > most:
            return None, NOTHING_KNOWN
        found, least = self.master.whole()
        return (self._packing_of(found) if found else None), least

    def _packing_of(self, columns: tuple[float, ...]) -> Packing | None:
        """The packing that columns stand for; None where some are fractions."""
        task, count = self.task, len(self.task.firsts)
        if any(abs(value - round(value)) > WHOLE_ENOUGH for value in columns):
            return None
        found = tuple(round(value) for value in columns)
        ways = {n: found[count + n] for n in range(len(task.ways)) if found[count + n]}
        left = self._all()
        bars = [Bar(bar.kind, useful) for bar in self._counted(found) if (useful := self._take(bar.holds, left))]
        return self._packing(ways, bars, left)

    def _counted(self, found: tuple[int, ...]) -> Iterator[Bar]:
        for n, bar in enumerate(self.master.bars):
            for _ in range(found[self.master.column_of(n)]):
                yield bar

    def _packing(self, ways: dict[int, int], bars: list[Bar], left: dict[int, int]) -> Packing:
        task, unplaced = self.task, tuple(p for p, n in left.items() for _ in range(n))
        cost = sum(task.way_cost(task.ways[n]) * times for n, times in ways.items())
        cost += sum(task.bar_cost(bar.kind, bar.holds) for bar in bars)
        missing = sum(task.missing(p) for p in unplaced)
        packed = (tuple(sorted(ways.items())), tuple(bars), unplaced)
        return Packing(*packed, task.main_part(cost) + missing, NOTHING_KNOWN, cost + missing)
