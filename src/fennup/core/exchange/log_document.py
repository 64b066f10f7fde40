"""The log as a document: what `./fennup log` and `/api/projects/{id}/log/document` answer. docs/formats.md describes it."""

from collections.abc import Callable, Iterable
from datetime import date, datetime

from fennup.core.exchange.cuts_forms import Form
from fennup.core.log.clock import How, hours_by_step, stretches
from fennup.core.log.cost import Cost
from fennup.core.log.lessons import lessons_in
from fennup.core.log.slips import slips
from fennup.core.log.story import story
from fennup.core.records.entry import About, Entry


class HappeningForm(Form):
    """Records of one sort about the like thing that follow each other: what they are of, their keys, from when to when."""

    type: str
    about: str
    keys: list[str]
    start: datetime
    end: datetime


class DayForm(Form):
    """A day: what happened, and the hours that are known."""

    date: date
    hours: float
    happenings: list[HappeningForm]


class StretchForm(Form):
    """A stretch of the clock, or hours that were typed; `hours` null where the clock was forgotten, `guess_h` then what the records say."""

    id: str
    step: str
    start: datetime
    end: datetime | None
    hours: float | None
    how: How
    guess_h: float | None


class LessonForm(Form):
    """A note that is told again at the like step of another project."""

    id: str
    text: str
    about: About


class CostForm(Form):
    """What it costs, in the price list's currency; `unknown`: what has no price yet."""

    boards: float
    small: float
    other: float
    materials: float
    hours: float
    unknown: list[str]


class LogDocument(Form):
    """All of it; `hours` by step; `slips`: how often what went wrong; `cost` where the boards are planned."""

    days: list[DayForm]
    stretches: list[StretchForm]
    hours: dict[str, float]
    lessons: list[LessonForm]
    slips: dict[str, int]
    cost: CostForm | None


def log_document(entries: Iterable[Entry], now: datetime, about: Callable[[Entry], str], cost: Cost | None) -> LogDocument:
    """What the records say, as of `now`, which has a zone."""
    entries = list(entries)
    found = stretches(entries, now)
    days = [
        DayForm(
            date=day.date,
            hours=day.hours,
            happenings=[
                HappeningForm(type=h.type, about=h.about, keys=[e.key for e in h.entries], start=h.start, end=h.end)
                for h in day.happenings
            ],
        )
        for day in story(entries, found, about)
    ]
    return LogDocument(
        days=days,
        stretches=[
            StretchForm(id=s.id, step=s.step, start=s.start, end=s.end, hours=s.hours, how=s.how, guess_h=s.guess_h) for s in found
        ],
        hours=hours_by_step(found),
        lessons=[LessonForm(id=one.id, text=one.text, about=one.about) for one in lessons_in("", entries)],
        slips=dict(slips(entries)),
        cost=None
        if cost is None
        else CostForm(
            boards=cost.boards, small=cost.small, other=cost.other, materials=cost.materials, hours=cost.hours,
            unknown=list(cost.unknown),
        ),
    )  # fmt: skip
