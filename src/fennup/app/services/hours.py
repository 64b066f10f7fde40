"""Hours as somebody types them, and the clock."""

import re
from datetime import UTC, date, datetime, time

from fennup.app.services.projects import PLAIN
from fennup.app.services.validate import from_core
from fennup.core.errors import SpecError
from fennup.core.log.clock import stretches
from fennup.core.records.entry import ClockBody, Entry

CLOCK = re.compile(r"(\d{1,3}):([0-5]\d)(?:\s*h)?")
MINUTES = re.compile(r"(\d{1,5}(?:[.,]\d+)?)\s*(?:min|m|minutes?)")
PLAIN_H = re.compile(r"(\d{1,3}(?:[.,]\d+)?)\s*(?:h|hours?)?")
BOTH = re.compile(r"(\d{1,3})\s*h\s*(\d{1,2})(?:\s*(?:min|m))?")
MOST_H = 200.0
NOON = time(12)


def hours_in(text: str) -> float:
    """`1:30`, `1 h 30`, `90 min`, `1.5`. SpecError `no_duration` naming the field."""
    said = text.strip().lower()
    for form in (CLOCK, BOTH):
        if found := form.fullmatch(said):
            return _within(int(found[1]) + int(found[2]) / 60)
    if found := MINUTES.fullmatch(said):
        return _within(float(found[1].replace(",", ".")) / 60)
    if found := PLAIN_H.fullmatch(said):
        return _within(float(found[1].replace(",", ".")))
    raise SpecError("no_duration", ("text",), text=text[:40])


def _within(hours: float) -> float:
    if hours > MOST_H:
        raise SpecError("duration_long", ("text",), most=MOST_H)
    return hours


def day_in(text: str, now: datetime) -> datetime:
    """A day, at noon; without one now. SpecError `no_day`, `day_ahead`."""
    if not text:
        return now
    try:
        day = date.fromisoformat(text)
    except ValueError:
        raise SpecError("no_day", ("day",), text=text) from None
    if not 2000 <= day.year < 2200:
        raise SpecError("no_day", ("day",), text=text)
    if day > now.date():
        raise SpecError("day_ahead", ("day",))
    return datetime.combine(day, NOON, now.tzinfo or UTC)


def check_clock(entries: list[Entry], body: ClockBody, now: datetime) -> None:
    """Invalid where the clock would be stopped that does not run."""
    runs = any(s.end is None and s.how in ("running", "forgotten", "corrected") for s in stretches(entries, now))
    if body.do == "stop" and not runs:
        raise from_core(SpecError("clock_stands", ("body.do",)), PLAIN)
