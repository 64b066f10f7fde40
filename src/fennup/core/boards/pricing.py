"""The best filling of a bar for given values of the pieces: a knapsack over lengths in small steps.

Lengths are rounded down to steps for the bound, so that nothing that fits is overlooked, and up where the filling that this finds
turns out not to fit.
"""

from collections.abc import Sequence
from math import ceil, floor

import numpy as np
from numpy.typing import NDArray

MOST_STEPS = 40_000
COARSEST_MM = 0.05  # at least so fine, where that is not more steps than that
WHOLE = 1e-6  # of a step: this near to a whole one is one
ROUND_STEPS = (1.0, 0.5, 0.1)


def step_for(sizes: Sequence[float], longest: float) -> float:
    """The step to count lengths in: a round one where all sizes are multiples of it, or else a fine one."""
    for step in ROUND_STEPS:
        if longest / step <= MOST_STEPS and all(abs(size / step - round(size / step)) < WHOLE for size in sizes):
            return step
    return max(longest / MOST_STEPS, COARSEST_MM)


class Knapsack:
    """Fillings of bars of one section up to the longest, for given values; `setup` is what each sort of piece costs once."""

    def __init__(
        self, sizes: Sequence[float], values: Sequence[float], most: Sequence[int], longest: float, step: float, *,
        up: bool = False, setup: float = 0.0,
    ) -> None:  # fmt: skip
        self._step, self._up = step, up
        steps = max(0, floor(longest / step + WHOLE))
        self._sizes = [self._whole(size) for size in sizes]
        best: NDArray[np.float64] = np.zeros(steps + 1)
        self._taken: list[NDArray[np.int16]] = []
        for size, value, count in zip(self._sizes, values, most, strict=True):
            taken = np.zeros(steps + 1, dtype=np.int16)
            if value - setup > 0 or (value > 0 and count > 1):
                before = best
                for n in range(1, min(count, steps // max(1, size)) + 1):
                    with_n = before[: steps + 1 - n * size] + (n * value - setup)
                    better = with_n > best[n * size :] + WHOLE * WHOLE
                    if better.any():
                        best = best.copy() if best is before else best
                        best[n * size :][better] = with_n[better]
                        taken[n * size :][better] = n
            self._taken.append(taken)
        self._best: NDArray[np.float64] = best

    def _whole(self, size: float) -> int:
        return ceil(size / self._step - WHOLE) if self._up else floor(size / self._step + WHOLE)

    def _place(self, room: float) -> int:
        return min(len(self._best) - 1, floor(room / self._step + WHOLE))

    def value(self, room: float) -> float:
        """The most that a bar of that room can be worth."""
        return float(self._best[self._place(room)]) if room >= 0 else 0.0

    def filling(self, room: float) -> tuple[int, ...]:
        """Which pieces make it worth that: their numbers, sorted."""
        if room < 0:
            return ()
        at = self._place(room)
        found: list[int] = []
        for number in range(len(self._taken) - 1, -1, -1):
            n = int(self._taken[number][at])
            found += [number] * n
            at -= n * self._sizes[number]
        return tuple(sorted(found))
