"""The worker's scatter: as it was measured at the bench where enough was, else as typed, else as is usual for that way of working."""

from collections.abc import Iterable
from dataclasses import dataclass
from statistics import fmean, stdev
from typing import Literal

from fennup.core.records.entry import Entry, MeasuredBody
from fennup.core.saw.hand import USUAL, Hand

ENOUGH = 20  # measured values from which on they say more than what is usual
Source = Literal["usual", "typed", "measured"]
LEAST_SIGMA = 1e-3  # nobody is as exact as that: readings that all agree say no more than that they were typed from the plan


@dataclass(frozen=True)
class Scatter:
    """One standard deviation, mm or degrees, and by how much it comes out on one side always; from `count` measured values where it was measured."""

    sigma: float
    always: float = 0.0
    source: Source = "usual"
    count: int = 0


@dataclass(frozen=True)
class Working:
    """The scatter of lengths, of angles, and of the wood's thickness and width. The angle's `always` is + where cuts come out blunter, nearer to square."""

    length: Scatter
    angle: Scatter
    thick: Scatter


def working_of(hand: Hand, entries: Iterable[Entry]) -> Working:
    """How exactly somebody works. What was far out was a slip, not scatter: readings that were wrong are left out."""
    usual = USUAL[hand.way]
    measured: dict[str, list[float]] = {"length": [], "angle": []}
    for entry in entries:
        body = entry.body
        if isinstance(body, MeasuredBody) and body.verdict != "wrong":
            kind = "length" if body.what == "length" else "angle" if body.what in ("face", "tilt") else ""
            if kind:
                measured[kind].append(body.measured - body.planned)
    length = _scatter(usual[0], hand.length_mm, measured["length"])
    return Working(length, _scatter(usual[1], hand.angle_deg, measured["angle"]), _scatter(usual[2], hand.thick_mm, []))


def _scatter(usual: float, typed: float | None, measured: list[float]) -> Scatter:
    if len(measured) >= ENOUGH:
        return Scatter(max(stdev(measured), LEAST_SIGMA), fmean(measured), "measured", len(measured))
    if typed is not None:
        return Scatter(typed, source="typed", count=len(measured))
    return Scatter(usual, count=len(measured))
