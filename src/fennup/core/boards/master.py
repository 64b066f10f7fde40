"""The linear program over fillings of bars: each column is one way of sawing a source, one filling of a bar, or one piece left out.

Solved by HiGHS, with one thread and limits in nodes and never in seconds, so that the same task always gives the same answer.
"""

import os
import sys
from dataclasses import dataclass

import highspy
import numpy as np

from fennup.core.boards.stock import Section
from fennup.core.boards.task import Bar, BarKind, Task

WHOLE_ENOUGH = 1e-5  # of one: so near to a whole number is one
MOST_NODES = 400
INFINITY = highspy.kHighsInf


@dataclass(frozen=True)
class Values:
    """What one more of each piece, and of each kind of bar, is worth at the optimum of fractions."""

    cost: float
    pieces: tuple[float, ...]
    bars: dict[BarKind, float]
    fractions: tuple[float, ...]


class Master:
    """The program, to which columns are added."""

    def __init__(self, task: Task) -> None:
        self.task = task
        self.bars: list[Bar] = []
        self._known: set[tuple[Bar, float | None]] = set()
        self._highs = _made_quietly()
        for option, value in (
            ("output_flag", False),
            ("threads", 1),
            ("random_seed", 1),
            ("parallel", "off"),
            ("mip_rel_gap", 0.0),
        ):
            self._highs.setOptionValue(option, value)
        for place in task.firsts:
            self._row(float(task.wanted[place].count), INFINITY)
        self._wish = {place: row for row, place in enumerate(task.firsts)}
        self._supply = {kind: len(task.firsts) + n for n, kind in enumerate(task.kinds)}
        for _ in task.kinds:
            self._row(-INFINITY, 0.0)
        self._counted: dict[str, int] = {}
        for source in task.sources.values():
            if source.count is not None:
                self._counted[source.id] = len(task.firsts) + len(task.kinds) + len(self._counted)
                self._row(-INFINITY, float(source.count))
        for place, row in self._wish.items():
            self._column(task.missing(place), {row: 1.0})
        for way in task.ways:
            rows = {self._supply[BarKind(way.source, section, length)]: -float(n) for (section, length), n in way.supply.items()}
            if way.source.id in self._counted:
                rows[self._counted[way.source.id]] = 1.0
            self._column(task.way_cost(way), rows)
        self.first_bar = len(task.firsts) + len(task.ways)

    def _row(self, low: float, high: float) -> None:
        self._highs.addRow(low, high, 0, np.array([], dtype=np.int32), np.array([]))

    def _column(self, cost: float, rows: dict[int, float]) -> None:
        places = np.array(list(rows), dtype=np.int32)
        self._highs.addCol(cost, 0.0, INFINITY, len(rows), places, np.array(list(rows.values())))

    def add(self, kind: BarKind, holds: tuple[int, ...], cost: float | None = None) -> bool:
        """One more filling, at what it costs or at another cost; whether it is new."""
        bar = Bar(kind, holds)
        if not holds or (bar, cost) in self._known:
            return False
        self._known.add((bar, cost))
        self.bars.append(bar)
        rows: dict[int, float] = {}
        for place in holds:
            row = self._wish[self.task.same(place)]
            rows[row] = rows.get(row, 0.0) + self.task.wanted[place].gives
        self._column(self.task.bar_cost(kind, holds) if cost is None else cost, rows | {self._supply[kind]: 1.0})
        return True

    def relaxed(self) -> Values:
        """The optimum when fractions are allowed."""
        self._highs.run()
        solution = self._highs.getSolution()
        duals, values = list(solution.row_dual), list(solution.col_value)
        worth = {kind: duals[row] for kind, row in self._supply.items()}
        cost = self._highs.getInfo().objective_function_value
        wishes = tuple(duals[self._wish[self.task.same(p)]] * w.gives for p, w in enumerate(self.task.wanted))
        return Values(cost, wishes, worth, tuple(values))

    def hold(self, column: int, least: float) -> None:
        """At least so many of a column from now on."""
        self._highs.changeColBounds(column, least, INFINITY)

    def let_go(self) -> None:
        """Nothing is held any more."""
        for column in range(self.first_bar + len(self.bars)):
            self._highs.changeColBounds(column, 0.0, INFINITY)

    def whole(self) -> tuple[tuple[float, ...] | None, float]:
        """The best whole numbers of the columns that there are, None where none was found in so many nodes; and what none can go
        below."""
        count = self.first_bar + len(self.bars)
        every = np.arange(count, dtype=np.int32)
        self._highs.changeColsIntegrality(count, every, np.array([highspy.HighsVarType.kInteger] * count))
        self._highs.setOptionValue("mip_max_nodes", MOST_NODES)
        self._highs.run()
        found = self._highs.getSolution()
        values = tuple(found.col_value) if found.value_valid else None
        least = self._highs.getInfo().mip_dual_bound
        self._highs.changeColsIntegrality(count, every, np.array([highspy.HighsVarType.kContinuous] * count))
        return values, least

    def column_of(self, bar: int) -> int:
        """Which column a filling is."""
        return self.first_bar + bar


def _made_quietly() -> highspy.Highs:
    """A solver, without the line that the first one of a process writes to standard output: that may be a document."""
    sys.stdout.flush()
    kept = os.dup(1)
    with open(os.devnull, "w") as nowhere:
        os.dup2(nowhere.fileno(), 1)
        try:
            return highspy.Highs()  # type: ignore[no-untyped-call]
        finally:
            os.dup2(kept, 1)
            os.close(kept)


def sections_of(task: Task) -> list[tuple[Section, list[BarKind]]]:
    """The kinds of bars by their sections."""
    found: dict[Section, list[BarKind]] = {section: [] for section in task.sections}
    for kind in task.kinds:
        if kind.section in found:
            found[kind.section].append(kind)
    return list(found.items())
