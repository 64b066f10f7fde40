"""When somebody has time: free hours by weekday, and days that are crossed out."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

from fennup.core.errors import SpecError

Span = tuple[datetime, datetime]
DAY_H = 24.0
DAYS = 7
FAR_DAYS = 3 * 366  # nobody plans further


@dataclass(frozen=True)
class FreeHours:
    """Free hours of every weekday, Monday first: each from an hour of the day to another one; `away`: days without any."""

    week: tuple[tuple[tuple[float, float], ...], ...]
    away: frozenset[date] = frozenset()

    def check(self) -> None:
        """SpecError `free_hours_wrong` naming the weekday, `no_free_hours` for a week without any."""
        if len(self.week) != DAYS:
            raise SpecError("free_hours_wrong", ("hours",))
        for day, spans in enumerate(self.week):
            before = 0.0
            for start, end in spans:
                if not before <= start < end <= DAY_H:
                    raise SpecError("free_hours_wrong", (f"hours.{day}",))
                before = end
        if not any(self.week):
            raise SpecError("no_free_hours", ("hours",))

    def of(self, day: date) -> list[Span]:
        """A day's free spans, in order."""
        if day in self.away:
            return []
        midnight = datetime.combine(day, time())
        return [(midnight + timedelta(hours=start), midnight + timedelta(hours=end)) for start, end in self.week[day.weekday()]]

    def after(self, at: datetime) -> Iterator[Span]:
        """What is free from then on."""
        for k in range(FAR_DAYS):
            for start, end in self.of(at.date() + timedelta(days=k)):
                if end > at:
                    yield max(start, at), end

    def before(self, at: datetime) -> Iterator[Span]:
        """What is free up to then, the latest first."""
        for k in range(FAR_DAYS):
            for start, end in reversed(self.of(at.date() - timedelta(days=k))):
                if start < at:
                    yield start, min(end, at)
