"""Pinned measures to the unknowns behind them: the nearest branch that keeps every pin that can be kept.

A pin is independent when its gradient is not in the span of the earlier ones: that rank, and no list of formulas,
tells what is too little and what is too much.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fennup.core.errors import CoreError, SpecError
from fennup.core.tolerances import ZERO

Values = NDArray[np.float64]
Reading = Callable[[Sequence[float]], list[float | None]]
KEPT = 1e-9
EXACT = 1e-14
SAME_PIN = 1e-7
STEP = 1e-6
IN_SPAN = 1e-5  # of a row: what of it may lie outside the others, and it still follows from them
WEIGHS = 1e-4  # of a row: from here on another one has a share in it
NO_SLOPE = 1e-6  # of the steepest of a measure's slopes: what differences leave of none
ROUNDS = 60
HALVINGS = 30
WELL_HELPED = 0.05
STALLS = 0.9  # what a round leaves of the error when it helps next to nothing
PATIENCE = 6  # rounds like that, one after another, and it leads nowhere


@dataclass(frozen=True)
class Pin:
    """A measure that has been given a figure: mm or degrees; `field` is where it was given."""

    measure: str
    value: float
    field: str


@dataclass(frozen=True)
class Misfit:
    """A pin that cannot hold together with the earlier ones in `others`: those make the measure `gives`."""

    pin: Pin
    gives: float
    others: tuple[Pin, ...]


@dataclass(frozen=True)
class Settled:
    """The unknowns found. `spare` pins only repeat what follows from the others; `free` more would fix everything."""

    values: tuple[float, ...]
    spare: tuple[Pin, ...]
    misfits: tuple[Misfit, ...]
    free: int


def settle(start: Sequence[float], pins: Sequence[Pin], read: Reading, freedom: int, *, both_ways: bool = False) -> Settled:
    """Newton's method with least steps from `start`: with all pins at once where they are independent there, else pin after
    pin.

    `read` measures all pins at some values of the unknowns, in the pins' order; it may raise CoreError where there is
    nothing to measure. `freedom` is how many independent pins fix everything. `both_ways`: slopes are taken to both sides, for measures
    that have kinks, as the farthest of several places has. SpecError `cannot_measure`, or
    `pin_impossible` when an independent pin cannot be met.
    """
    search = _Search(pins, read, both_ways=both_ways)
    values = np.array(start, dtype=float)
    search.measured(values)
    at_once = _all_at_once(search, values)
    if at_once is not None:
        return Settled(tuple(float(v) for v in at_once), (), (), max(0, freedom - len(pins)))
    kept: list[int] = []
    spare: list[Pin] = []
    doubtful: list[tuple[int, tuple[int, ...]]] = []
    for index in range(len(pins)):
        slopes = search.slopes(values)
        others = _span_of(slopes, kept, index)
        if others is None:
            kept.append(index)
            values = search.met(values, kept)
        else:
            doubtful.append((index, others))
    misfits = []
    final = search.measured(values)
    for index, others in doubtful:
        pin = pins[index]
        if abs(final[index] - pin.value) <= SAME_PIN * max(1.0, abs(pin.value)):
            spare.append(pin)
        else:
            misfits.append(Misfit(pin, float(final[index]), tuple(pins[i] for i in others)))
    return Settled(tuple(float(v) for v in values), tuple(spare), tuple(misfits), max(0, freedom - len(kept)))


def weights(values: Sequence[float], pins: Sequence[Pin], read: Reading) -> dict[str, float]:
    """Of the measures that the last pin hangs on at some values of the unknowns: by how much it moves when one of them does by a
    unit and the others stay. Empty when it is independent of them, or of anything. SpecError `cannot_measure`."""
    slopes = _Search(pins, read).slopes(np.array(values, dtype=float))
    *others, last = range(len(pins))
    hangs_on = _span_of(slopes, _independent(slopes, others), last)
    if not hangs_on:
        return {}
    rows = slopes[list(hangs_on)]
    share = np.linalg.lstsq(rows.T, slopes[last], rcond=None)[0]
    return {pins[k].measure: abs(float(w)) for k, w in zip(hangs_on, share, strict=True)}


def independent(values: Sequence[float], pins: Sequence[Pin], read: Reading) -> tuple[Pin, ...]:
    """Those pins that do not follow from the earlier ones at some values of the unknowns. SpecError `cannot_measure`."""
    slopes = _Search(pins, read).slopes(np.array(values, dtype=float))
    return tuple(pins[index] for index in _independent(slopes, range(len(pins))))


def _independent(slopes: Values, of: Sequence[int]) -> list[int]:
    kept: list[int] = []
    for index in of:
        if _span_of(slopes, kept, index) is None:
            kept.append(index)
    return kept


def _all_at_once(search: "_Search", start: Values) -> Values | None:
    """Where all pins hold; None where they hang on each other, or are not met from here in one go."""
    every = list(range(len(search.pins)))
    slopes = search.slopes(start)
    if any(_span_of(slopes, every[:index], index) is not None for index in every):
        return None
    try:
        return search.met(start, every)
    except CoreError:
        return None


def _span_of(slopes: Values, kept: list[int], index: int) -> tuple[int, ...] | None:
    """Which of the kept pins this one follows from; None when it is independent of them."""
    own = slopes[index]
    size = float(np.linalg.norm(own))
    if size < ZERO:
        return ()
    if not kept:
        return None
    rows = slopes[kept]
    share = np.linalg.lstsq(rows.T, own, rcond=None)[0]
    if float(np.linalg.norm(own - share @ rows)) > IN_SPAN * size:
        return None
    weight = np.abs(share) * np.linalg.norm(rows, axis=1)
    return tuple(k for k, w in zip(kept, weight, strict=True) if w > WEIGHS * size)


def _least_step(slopes: Values, error: Values) -> Values:
    """The smallest step that mends the error; exactly none of an unknown that no slope leads to."""
    step = np.zeros(slopes.shape[1])
    moving = np.any(slopes != 0.0, axis=0)
    step[moving] = np.linalg.lstsq(slopes[:, moving], error, rcond=None)[0]
    return step


class _Search:
    """Measures and their slopes, each asked for once at a place."""

    def __init__(self, pins: Sequence[Pin], read: Reading, *, both_ways: bool = False) -> None:
        self.pins = pins
        self.both_ways = both_ways
        self.read = read
        self._at: dict[bytes, Values] = {}
        self._slopes: dict[bytes, Values] = {}
        self.refused: CoreError | None = None  # why the last step could not be taken whole

    def measured(self, values: Values) -> Values:
        key = values.tobytes()
        if key not in self._at:
            found = self.read([float(v) for v in values])
            for pin, value in zip(self.pins, found, strict=True):
                if value is None:
                    raise SpecError("cannot_measure", (pin.field,))
            self._at[key] = np.array(found, dtype=float)
        return self._at[key]

    def slopes(self, values: Values) -> Values:
        """How every measure changes with every unknown, by differences: rows are pins. At STEP what they leave out and what
        rounding adds are both some 1e-7 of a slope, a hundredth of what counts as dependent; what is left of a slope that is none
        is taken away, so that nothing moves on which no measure depends."""
        key = values.tobytes()
        if key not in self._slopes:
            here = self.measured(values)
            columns = []
            for i in range(len(values)):
                nudge = np.zeros_like(values)
                nudge[i] = STEP
                less = self.measured(values - nudge) if self.both_ways else here
                columns.append((self.measured(values + nudge) - less) / (STEP * (2 if self.both_ways else 1)))
            slopes = np.array(columns).T
            steepest = np.max(np.abs(slopes), axis=1, initial=0.0, keepdims=True)
            self._slopes[key] = np.where(np.abs(slopes) < NO_SLOPE * steepest, 0.0, slopes)
        return self._slopes[key]

    def met(self, values: Values, kept: list[int]) -> Values:
        """The nearest values at which the kept pins hold, to KEPT and as far below as steps still help; a step that
        helps nothing is halved."""
        wanted = np.array([self.pins[i].value for i in kept])
        scale = np.maximum(1.0, np.abs(wanted))
        slopes, before, slow = None, float("inf"), 0
        for _ in range(ROUNDS):
            error = self.measured(values)[kept] - wanted
            if np.all(np.abs(error) <= EXACT * scale):
                return values
            # Slopes cost a reading for every unknown: they are taken again only where the old ones no longer help much
            # and the pins do not hold yet.
            size = float(np.linalg.norm(error))
            slow = slow + 1 if size > before * STALLS else 0
            if slow > PATIENCE:
                break
            holds = bool(np.all(np.abs(error) <= KEPT * scale))
            if slopes is None or (size > before * WELL_HELPED and not holds):
                slopes = self.slopes(values)[kept]
            before = size
            following = self._nearer(values, _least_step(slopes, error), kept, wanted, size)
            if following is None:
                if holds:
                    return values
                break
            values = following
        if self.refused is not None and self.refused.fields and self.refused.code != "no_shape":
            raise self.refused  # what the boards say there is plainer than that the size cannot be had
        pin = self.pins[kept[-1]]
        raise SpecError("measure_impossible", (pin.field,), measure=pin.measure, value=pin.value)

    def _nearer(self, values: Values, step: Values, kept: list[int], wanted: Values, error: float) -> Values | None:
        share, self.refused = 1.0, None
        for _ in range(HALVINGS):
            tried = values - share * step
            try:
                if float(np.linalg.norm(self.measured(tried)[kept] - wanted)) < error:
                    return tried
            except CoreError as refused:
                self.refused = self.refused or refused
            share /= 2
        return None
