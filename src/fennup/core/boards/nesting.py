"""Pieces one after another in a bar: the order and the turns in which they take the least, and what each takes at the least."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import prod

from fennup.core.boards.ends import End, gap_between, reach
from fennup.core.boards.stock import Section
from fennup.core.tolerances import SAME

MOST_STATES = 6000
# How a piece may lie, as far as its neighbours mind: the ends of each of its ways.
Shape = tuple[tuple[End, End], ...]


@dataclass(frozen=True)
class Saw:
    """What is lost between neighbours: the kerf, and whether a square cut may part two of them before each is trimmed."""

    kerf_mm: float
    square_first: bool = False


def fits(used: float, length: float) -> bool:
    """Whether what is used is there."""
    return used <= length + SAME


def used_mm(axes: Sequence[float], shapes: Sequence[Shape], section: Section, saw: Saw) -> float:
    """What some pieces take of a bar of the section in their best order."""
    if not axes:
        return 0.0
    return sum(axes) + _best(tuple(sorted(shapes)), section, saw)[0]


def best_order(shapes: Sequence[Shape], section: Section, saw: Saw) -> list[tuple[int, int]]:
    """The best order as (which piece, in which of its ways). Pieces of one shape keep the order in which they are given."""
    waiting: dict[Shape, list[int]] = {}
    for place, shape in enumerate(shapes):
        waiting.setdefault(shape, []).append(place)
    return [(waiting[shape].pop(0), way) for shape, way in _best(tuple(sorted(shapes)), section, saw)[1]]


# What has been taken beside the middle lines, and the order so far: which kind of shape, in which of its ways.
Step = tuple[float, tuple[tuple[int, int], ...]]
# What is left of each kind, and the right end of the last one by its number.
Steps = dict[tuple[tuple[int, ...], int], Step]


def knows_best(shapes: Sequence[Shape]) -> bool:
    """Whether every order of some shapes is gone through; where they are too many, alike ones stay together and a better one may be."""
    kinds = set(shapes)
    return prod(shapes.count(kind) + 1 for kind in kinds) * sum(len(kind) for kind in kinds) <= MOST_STATES


@lru_cache(maxsize=65536)
def _best(shapes: tuple[Shape, ...], section: Section, saw: Saw) -> tuple[float, tuple[tuple[Shape, int], ...]]:
    """(what is taken beside the middle lines, the order with each one's way): by going through every set of shapes that is left
    and every end that the last one has; where those are too many the shapes stay together."""
    kinds = sorted(set(shapes))
    counts = tuple(shapes.count(kind) for kind in kinds)
    together = not knows_best(shapes)
    width, thick = section
    rights = list(dict.fromkeys(right for kind in kinds for _, right in kind))
    ways = [[(left, rights.index(right)) for left, right in kind] for kind in kinds]

    def gap(last: int, left: End) -> float:
        return gap_between(rights[last], left, width, thick, saw.kerf_mm, square=saw.square_first).mm

    gaps = [[[gap(last, left) for left, _ in kind] for kind in ways] for last in range(len(rights))]
    steps: Steps = {}
    for k, kind in enumerate(ways[:1] if together else ways):
        for way, (left, right) in enumerate(kind):
            _keep(steps, (_less(counts, k), right), (reach(left, width, thick, right=False), ((k, way),)))
    for _ in range(len(shapes) - 1):
        following: Steps = {}
        for (left_over, last), (taken, order) in steps.items():
            choices = [k for k, n in enumerate(left_over) if n]
            for k in choices[:1] if together else choices:
                rest, row = _less(left_over, k), gaps[last][k]
                for way, (_, right) in enumerate(ways[k]):
                    _keep(following, (rest, right), (taken + row[way], (*order, (k, way))))
        steps = following
    ended = [(taken + reach(rights[last], width, thick, right=True), order) for (_, last), (taken, order) in steps.items()]
    least = min(taken for taken, _ in ended)
    order = min(order for taken, order in ended if taken < least + SAME)
    return least, tuple((kinds[k], way) for k, way in order)


def _less(counts: tuple[int, ...], k: int) -> tuple[int, ...]:
    return (*counts[:k], counts[k] - 1, *counts[k + 1 :])


def _keep(steps: Steps, key: tuple[tuple[int, ...], int], step: Step) -> None:
    """The better of two; of two alike the first in order."""
    known = steps.get(key)
    if known is None or step[0] < known[0] - SAME or (step[0] < known[0] + SAME and step[1] < known[1]):
        steps[key] = step


def least_sizes(shapes: Sequence[Shape], section: Section, saw: Saw) -> tuple[list[float], float]:
    """What each shape takes beside its middle line at the least, half of what lies between two counted to each, and how much less a
    whole bar holds than the sum of that says: no order of any of them takes less."""
    width, thick = section
    lefts = {left for shape in shapes for left, _ in shape}
    rights = {right for shape in shapes for _, right in shape}

    def gap(right: End, left: End) -> float:
        return gap_between(right, left, width, thick, saw.kerf_mm, square=saw.square_first).mm

    before = {left: min(gap(right, left) for right in rights) / 2 for left in lefts}
    after = {right: min(gap(right, left) for left in lefts) / 2 for right in rights}
    at_ends = min(reach(left, width, thick, right=False) - before[left] for left in lefts)
    at_ends += min(reach(right, width, thick, right=True) - after[right] for right in rights)
    return [min(before[left] + after[right] for left, right in shape) for shape in shapes], at_ends
