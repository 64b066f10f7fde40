"""Where the wood does not do: by how little, on which board, and what another length would change."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from math import ceil

from fennup.core.boards.layout import laid_out
from fennup.core.boards.planned import BoardsPlan, Order, plan_boards, task_of
from fennup.core.boards.planner import plan
from fennup.core.boards.stock import AS_LARGE, Section, Source, ways_of
from fennup.core.boards.task import Packing, Task, Wanted
from fennup.core.tolerances import SAME

HALVINGS = 12
MOST_TRIED = 4  # boards, each as if it were longer
MOST_LENGTHS = 4
ROOMIER = 1.5  # times what is missing: with so much more room it must fit


@dataclass(frozen=True)
class Short:
    """Were this board so much longer, everything of the section would fit."""

    source: Source
    section: Section
    mm: float


@dataclass(frozen=True)
class Other:
    """A plan with bought boards of one length only."""

    only_mm: float
    plan: BoardsPlan


def shortages(order: Order, found: BoardsPlan) -> list[Short]:
    """For every section that is short, the board on which the least is missing, and how much."""
    sections = dict.fromkeys(piece.section for _, piece in found.layout.unplaced)
    return [short for section in sections if (short := _short(order, found, section))]


def _short(order: Order, found: BoardsPlan, section: Section) -> Short | None:
    """The least of what is missing on one board after another."""
    task = found.task
    sources = [source for source in task.sources.values() if any(k.source is source and k.section == section for k in task.kinds)]
    left = {source.id: source.length_mm for source in sources}
    for bar in found.packing.bars:
        if bar.kind.section == section:
            left[bar.kind.source.id] = min(left[bar.kind.source.id], bar.kind.length_mm - task.used(bar.kind, bar.holds))
    likely = sorted(sources, key=lambda source: (-left[source.id], source.id))[:MOST_TRIED]
    missing = sum(piece.overall_mm for _, piece in found.layout.unplaced if piece.section == section)
    tried = [short for source in likely if (short := _on(order, found, section, source, missing))]
    return min(tried, key=lambda short: (short.mm, short.source.id), default=None)


def _on(order: Order, found: BoardsPlan, section: Section, source: Source, missing: float) -> Short | None:
    """How much longer one board would have to be, found by halving and then measured on the plan that just fits."""
    low, high = 0.0, ROOMIER * missing + source.length_mm
    best: tuple[float, Task, Packing] | None = None
    for _ in range(HALVINGS):
        tried = high if best is None else (low + high) / 2
        task = _with_longer(order, found, section, source, tried)
        packing = plan(task, dives=0)
        if not packing.unplaced:
            best, high = (tried, task, packing), tried
        elif best is None:
            return None
        else:
            low = tried
    if best is None:
        return None
    longest = max(
        placed.tip(right=True)
        for board in laid_out(best[1], best[2]).boards
        for placed in board.pieces
        if board.source.id == _LONGER
    )
    return Short(source, section, max(0.0, longest - source.length_mm + source.trim[1]))


_LONGER = "longer"


def _with_longer(order: Order, found: BoardsPlan, section: Section, source: Source, by: float) -> Task:
    """The task without what is missing of other sections, one board of a source longer by so much."""
    task, missing = found.task, list(found.packing.unplaced)
    # What is missing of other sections is left out, and with it the other ways to lay it; the rest keep their places.
    short = {place: missing.count(place) for place in task.firsts if task.wanted[place].piece.section != section}
    wanted = [
        replace(w, count=max(0, w.count - ceil(short.get(task.same(k), 0) / w.gives)), sources=_also_longer(w, source))
        for k, w in enumerate(task.wanted)
    ]
    longer = replace(source, id=_LONGER, length_mm=source.length_mm + by, count=1)
    rest = [longer]
    for other in task.sources.values():
        if other is not source:
            rest.append(other)
        elif other.count is None or other.count > 1:
            rest.append(replace(other, count=None if other.count is None else other.count - 1))
    milling, sections = order.wishes.milling(order.kerf_mm), list(task.sections)
    ways = [way for each in rest for way in ways_of(each, sections, milling)[0]]
    return Task(tuple(wanted), tuple(ways), task.saw, "fewest_boards", task.keep_mm)


def _also_longer(wanted: Wanted, source: Source) -> frozenset[str] | None:
    """Where a piece may come from, when one board of a source goes by another id."""
    if wanted.sources is None or source.id not in wanted.sources:
        return wanted.sources
    return wanted.sources | {_LONGER}


def other_lengths(order: Order) -> Iterator[Other]:
    """What it would come to with bought boards of one length only, where there are several."""
    task, _, _ = task_of(order)
    by_section: dict[Section, set[float]] = {}
    for kind in task.kinds:
        if kind.source.bought and not kind.source.sheet and abs(kind.source.width_mm - kind.section[0]) <= AS_LARGE:
            by_section.setdefault(kind.section, set()).add(kind.source.length_mm)
    used = sorted({mm for lengths in by_section.values() if len(lengths) > 1 for mm in lengths})
    for mm in used[-MOST_LENGTHS:]:
        items = [item for item in order.prices.items if item.sheet or abs(item.length_mm - mm) < SAME]
        yield Other(mm, plan_boards(replace(order, prices=order.prices.model_copy(update={"items": items})), dives=0))
