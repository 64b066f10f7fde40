"""Hours by step, from a clock that is started and stopped, forgotten and corrected."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal

from fennup.core.records.entry import ClockBody, Entry, HoursBody
from fennup.core.records.fold import live

LONGEST = timedelta(hours=10)  # who is at the bench longer than that forgot to stop it
How = Literal["running", "stopped", "corrected", "typed", "forgotten"]
HOUR_S = 3600.0


@dataclass(frozen=True)
class Stretch:
    """Some hours at a step. `id`: of the entry that began it; `hours`: None where the clock was forgotten, as nobody knows; `guess_h`: then, until the last
    thing that was recorded meanwhile, if anything was."""

    id: str
    step: str
    start: datetime
    end: datetime | None
    hours: float | None
    how: How
    guess_h: float | None = None


def stretches(entries: Iterable[Entry], now: datetime) -> list[Stretch]:
    """All of them, the earliest first. Starting another one stops the one that runs: one pair of hands. `now` has a zone."""
    alive = live(entries)
    corrected = {e.body.of: e.body for e in alive if isinstance(e.body, HoursBody) and e.body.of}
    found: list[Stretch] = []
    running: Entry | None = None
    for entry in alive:
        if isinstance(entry.body, ClockBody):
            if running:
                found.append(_stretch(running, entry.at, alive, corrected, stopped=True))
            running = entry if entry.body.do == "start" else None
        elif isinstance(entry.body, HoursBody) and not entry.body.of:
            found.append(Stretch(entry.id, entry.body.step, entry.at, None, entry.body.hours, "typed"))
    if running:
        found.append(_stretch(running, max(now, running.at), alive, corrected, stopped=False))
    return sorted(found, key=lambda s: (s.start, s.id))


def _stretch(start: Entry, end: datetime, alive: Sequence[Entry], corrected: dict[str, HoursBody], *, stopped: bool) -> Stretch:
    assert isinstance(start.body, ClockBody)
    step = start.body.step
    if start.id in corrected:
        said = corrected[start.id]
        return Stretch(start.id, said.step or step, start.at, end if stopped else None, said.hours, "corrected")
    if end - start.at > LONGEST:
        last = max((e.at for e in alive if start.at < e.at <= min(end, start.at + LONGEST) and _is_work(e)), default=None)
        guess = (last - start.at).total_seconds() / HOUR_S if last else None
        return Stretch(start.id, step, start.at, end if stopped else None, None, "forgotten", guess)
    hours = (end - start.at).total_seconds() / HOUR_S
    return Stretch(start.id, step, start.at, end if stopped else None, hours, "stopped" if stopped else "running")


def _is_work(entry: Entry) -> bool:
    """Whether somebody was there when it was recorded."""
    return not isinstance(entry.body, ClockBody | HoursBody)


def hours_by_step(found: Iterable[Stretch]) -> dict[str, float]:
    """The hours of every step that are known."""
    total: dict[str, float] = {}
    for stretch in found:
        if stretch.hours is not None:
            total[stretch.step] = total.get(stretch.step, 0.0) + stretch.hours
    return total
