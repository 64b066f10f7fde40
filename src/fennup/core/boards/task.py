"""What is to be packed into what, and what a packing costs: the planner's own view, where a piece is a size and a shape."""

from dataclasses import dataclass, field
from functools import cached_property
from math import ceil, floor, gcd
from typing import Literal

from fennup.core.boards.nesting import Saw, Shape, fits, knows_best, least_sizes, used_mm
from fennup.core.boards.pieces import Piece
from fennup.core.boards.stock import Section, Source, Way
from fennup.core.tolerances import SAME

Goal = Literal["rack_first", "cheapest", "fewest_boards", "least_waste", "fewest_changes"]
CC = 1000.0  # cubic mm in a cubic cm
BOUGHT_COUNTS = 20  # how much more a bought cubic cm counts than one from the rack, when the rack comes first
LEAST_TIE = 0.4  # of the smallest step of a cost: what all that only decides between equals comes to at the most
OPENED_MM = 30.0  # of a board count as wasted when it is begun, where waste counts: else two boards are begun to save one kerf
ROUGHER = 0.02  # of a piece's share of a tie, for each grade that a board is worse than the piece should have


@dataclass(frozen=True)
class Wanted:
    """Alike pieces: how many of them. Only out of those `sources`, where it says so; `choosy`: how much it matters that
    the board is clear and straight. Where
    there are several ways to lay the same pieces, `instead_of` is the place of the first way among all that is wanted, and each one
    laid so `gives` so many of them."""

    piece: Piece
    count: int
    sources: frozenset[str] | None = None
    choosy: int = 0
    instead_of: int | None = None
    gives: int = 1

    def may_come_of(self, source: Source) -> bool:
        """Whether it may be cut out of that."""
        return self.sources is None or source.id in self.sources


@dataclass(frozen=True)
class BarKind:
    """Bars that are alike: of one source, one section and one length."""

    source: Source
    section: Section
    length_mm: float


@dataclass(frozen=True)
class Bar:
    """A bar and the pieces in it: numbers of `Task.wanted`, sorted."""

    kind: BarKind
    holds: tuple[int, ...]


@dataclass(frozen=True)
class Packing:
    """Which ways of sawing are used and how often, what lies in their bars, and what found no place. `bound`: no packing costs
    less. `rank` is the cost with all that only decides between equals."""

    ways: tuple[tuple[int, int], ...]
    bars: tuple[Bar, ...]
    unplaced: tuple[int, ...]
    cost: float
    bound: float
    rank: float = 0.0

    @property
    def proven(self) -> bool:
        """Whether no better one can be."""
        return self.cost <= self.bound + SAME * max(1.0, abs(self.cost))


@dataclass(frozen=True)
class Task:
    """Pieces, the ways in which bars can be made, the saw, and what is wished: `keep_mm` is the shortest offcut that is worth
    keeping. `complete`: the ways are all that there are, so that a bound holds for everything one could do."""

    wanted: tuple[Wanted, ...]
    ways: tuple[Way, ...]
    saw: Saw
    goal: Goal = "rack_first"
    keep_mm: float = 300.0
    complete: bool = True
    sections: dict[Section, list[int]] = field(init=False, default_factory=dict)
    _between: dict[tuple[Section, tuple[int, ...]], float] = field(init=False, default_factory=dict, repr=False)
    _guessed: list[tuple[int, ...]] = field(init=False, default_factory=list, repr=False)

    def __post_init__(self) -> None:
        for place, wanted in enumerate(self.wanted):
            self.sections.setdefault(wanted.piece.section, []).append(place)

    def same(self, place: int) -> int:
        """The place of the first way to lay the same pieces."""
        first = self.wanted[place].instead_of
        return place if first is None else first

    @cached_property
    def firsts(self) -> tuple[int, ...]:
        """The places of all that is wanted, each once however many ways there are."""
        return tuple(place for place, wanted in enumerate(self.wanted) if wanted.instead_of is None)

    @cached_property
    def kinds(self) -> tuple[BarKind, ...]:
        """Every kind of bar that some way gives."""
        found = {}
        for way in self.ways:
            for section, length in way.supply:
                found[(way.source.id, section, length)] = BarKind(way.source, section, length)
        return tuple(found.values())

    @cached_property
    def sources(self) -> dict[str, Source]:
        """Every source by its id."""
        return {way.source.id: way.source for way in self.ways}

    @cached_property
    def sizes(self) -> tuple[float, ...]:
        """What each wanted piece takes of a bar at the least, mm."""
        found = [0.0] * len(self.wanted)
        for section, places in self.sections.items():
            least, _ = least_sizes([self.shape(p) for p in places], section, self.saw)
            for place, size in zip(places, least, strict=True):
                found[place] = self.wanted[place].piece.axis_mm + size
        return tuple(found)

    @cached_property
    def slack(self) -> dict[Section, float]:
        """How much less a bar of each section holds than its length, counted in those sizes."""
        return {s: least_sizes([self.shape(p) for p in places], s, self.saw)[1] for s, places in self.sections.items()}

    def shape(self, place: int) -> Shape:
        """How a wanted piece nests."""
        return self.wanted[place].piece.shape

    def room(self, kind: BarKind) -> float:
        """What a bar holds, counted in `sizes`."""
        return kind.length_mm - self.slack[kind.section]

    def used(self, kind: BarKind, holds: tuple[int, ...]) -> float:
        """What some pieces really take of a bar, in their best order."""
        numbers, wanted = self._shape_numbers, self.wanted
        key = (kind.section, tuple(sorted([numbers[p] for p in holds])))
        if key not in self._between:
            shapes = [self.shape(p) for p in holds]
            self._between[key] = used_mm([0.0] * len(holds), shapes, kind.section, self.saw)
            if not knows_best(shapes):
                self._guessed.append(key[1])
        return self._between[key] + sum([wanted[p].piece.axis_mm for p in holds])

    @property
    def guessed(self) -> bool:
        """Whether what some pieces take was asked of which not every order was gone through: then less may do."""
        return bool(self._guessed)

    @cached_property
    def _shape_numbers(self) -> list[int]:
        """Alike for pieces that nest alike."""
        seen: dict[Shape, int] = {}
        return [seen.setdefault(wanted.piece.shape, len(seen)) for wanted in self.wanted]

    def holds(self, kind: BarKind, holds: tuple[int, ...]) -> bool:
        """Whether the pieces fit in the bar."""
        return all(self.wanted[p].may_come_of(kind.source) for p in holds) and fits(self.used(kind, holds), kind.length_mm)

    @cached_property
    def _tie(self) -> float:
        """What a whole source of the largest volume counts where two plans are equal else."""
        return LEAST_TIE * self.step / (sum(self.wanted[p].count for p in self.firsts) + 1) / 2

    @cached_property
    def _largest(self) -> float:
        return max((source.volume for source in self.sources.values()), default=1.0)

    def _main_cost(self, source: Source) -> int:
        """What one of a source costs, in whole steps: cents, cubic cm or boards."""
        if self.goal == "cheapest":
            return round(100 * source.price) if source.bought else 0
        if self.goal == "fewest_boards":
            return 1
        if self.goal == "fewest_changes":
            return 0
        volume = max(1, round(source.volume / CC))
        if self.goal == "least_waste":
            volume += round(OPENED_MM * source.width_mm * source.thickness_mm / CC)
        return volume * BOUGHT_COUNTS if self.goal == "rack_first" and source.bought else volume

    @cached_property
    def step(self) -> float:
        """What every cost but for ties is a multiple of."""
        if self.goal == "least_waste":
            return 1.0
        return float(gcd(*(self._main_cost(source) for source in self.sources.values())) or 1) if self.sources else 1.0

    def way_cost(self, way: Way) -> float:
        """What it costs to take one."""
        extra = 1.0 if not way.source.bought else 2.0
        return self._main_cost(way.source) + self._tie * extra * way.source.volume / self._largest

    def bar_cost(self, kind: BarKind, holds: tuple[int, ...]) -> float:
        """What it costs to fill a bar so, beside the wood."""
        cost = sum(self.dislike(place, kind.source) for place in holds)
        if self.goal == "fewest_changes":
            cost += len(set(holds))
        if self.refunds and (left := kind.length_mm - self.used(kind, holds)) >= self.keep_mm:
            cost -= self.wood_in(kind) * left
        return cost

    @property
    def refunds(self) -> bool:
        """Whether an offcut that is worth keeping does not count as used."""
        return self.goal == "least_waste"

    def wood_in(self, kind: BarKind) -> float:
        """Cubic cm in a mm of a bar."""
        return kind.section[0] * kind.section[1] / CC

    def dislike(self, place: int, source: Source) -> float:
        """What it counts that a piece lies in a board that is rougher than it should be, where plans are equal else."""
        wanted = self.wanted[place]
        return self._tie * ROUGHER * source.grade * wanted.choosy

    def missing(self, place: int) -> float:
        """What a piece without a place counts: more than all the wood there is, a longer one more, in whole steps."""
        return ceil((self._all_wood + self.wanted[place].piece.axis_mm) / self.step) * self.step

    @cached_property
    def _all_wood(self) -> float:
        return 10.0 * (sum(self._main_cost(s) * (s.count or len(self.wanted)) for s in self.sources.values()) + 1000.0)

    def bound_from(self, least: float) -> float:
        """The bound that follows from the least that any mixture of fractions costs: a whole number of steps."""
        if self.refunds:
            return least
        return ceil((least - LEAST_TIE * self.step - SAME) / self.step) * self.step

    def main_part(self, packing_cost: float) -> float:
        """A cost without what only decides between equals."""
        if self.refunds:
            return packing_cost
        return floor((packing_cost + SAME) / self.step) * self.step
