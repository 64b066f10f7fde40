"""The story of a project by day, made from its records."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from itertools import groupby

from fennup.core.log.clock import Stretch
from fennup.core.records.entry import ClockBody, Entry, HoursBody, RemindedBody
from fennup.core.records.fold import live

SILENT = (ClockBody, HoursBody, RemindedBody)  # told as the day's hours, or not at all


@dataclass(frozen=True)
class Happening:
    """Records of one sort about the like thing that follow each other on a day: `type` of them, what they are about, the records themselves."""

    type: str
    about: str
    entries: tuple[Entry, ...]

    @property
    def start(self) -> datetime:
        """When the first of them was made."""
        return self.entries[0].at

    @property
    def end(self) -> datetime:
        """When the last of them was."""
        return self.entries[-1].at


@dataclass(frozen=True)
class Day:
    """What happened on a day, by the clock of whoever recorded it, and the hours at it that are known."""

    date: date
    happenings: tuple[Happening, ...]
    stretches: tuple[Stretch, ...]

    @property
    def hours(self) -> float:
        """Together."""
        return sum(stretch.hours or 0.0 for stretch in self.stretches)


def story(entries: Iterable[Entry], found: Sequence[Stretch], about: Callable[[Entry], str]) -> list[Day]:
    """The days, the first one first. `about` says what an entry is about: what follows each other and is about the same is told in one."""
    told = [entry for entry in live(entries) if not isinstance(entry.body, SILENT)]
    worked: dict[date, list[Stretch]] = {}
    for stretch in found:
        worked.setdefault(stretch.start.date(), []).append(stretch)
    by_day = {day: list(of) for day, of in groupby(told, key=lambda entry: entry.at.date())}
    days = []
    for day in sorted({*by_day, *worked}):
        runs = groupby(by_day.get(day, []), key=lambda entry: (entry.type, about(entry)))
        happenings = tuple(Happening(type, what, tuple(run)) for (type, what), run in runs)
        days.append(Day(day, happenings, tuple(worked.get(day, ()))))
    return days
