"""The plan by the day in words: a strip of days, steps, what is late, what would help."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from functools import cached_property

from fennup.app.schemas.finish import DayOut, DaysOut, DayTaskOut, SpanOut, WayOutOfOut
from fennup.app.schemas.fit import LineOut, Tone
from fennup.app.services.controls import choosing, figure_in, picked
from fennup.app.wording import finish as told
from fennup.app.wording.fit import FitWords
from fennup.app.wording.problems import problem_text
from fennup.core.drawing.edit import Edit
from fennup.core.errors import CoreError
from fennup.core.finish.plan import Placed
from fennup.core.finish.planned import Finish, WayOut, by_clock, days_of, meanwhile, unfit_days
from fennup.core.finish.wishes import WeatherDay

MOST_DAYS = 120
DAY_H = 24.0


@dataclass(frozen=True)
class DaysSheet:
    """The part by the day, as it is now."""

    finish: Finish
    words: FitWords
    now: datetime

    @cached_property
    def refused(self) -> CoreError | None:
        """Why there is no plan."""
        try:
            self.finish.plan  # noqa: B018 - asked for what it refuses
            self.finish.tasks  # noqa: B018
        except CoreError as error:
            return error
        return None

    def out(self) -> DaysOut:
        """All of it."""
        finish, wishes = self.finish, self.finish.wishes
        headline, tone = self.headline()
        refused = self._refusal() if self.refused else ""
        plan = [] if self.refused else finish.plan
        tables = finish.tables
        return DaysOut(
            needed=wishes.needed.isoformat() if wishes.needed else "",
            needed_at=figure_in("needed_h", "at, in hours", self.words.voice.plain(wishes.needed_h, "h")),
            headline=headline,
            tone=tone,
            refused=refused,
            said=[] if self.refused else self._said(),
            strip=self._strip(plan),
            tasks=[] if self.refused else self._tasks(plan),
            ways=[] if self.refused else [self._way(way) for way in finish.ways_out(self.now)],
            controls=[
                picked("coat_where", "Where you coat it", [("indoors", "indoors", "indoors"), ("outdoors", "outdoors", "outdoors")],
                       wishes.coat_where, few=True),
            ],
            week=[
                (name, ", ".join(f"{_clock(a)}-{_clock(b)}" for a, b in spans), f"hours/{k}")
                for k, (name, spans) in enumerate(zip(told.WEEKDAYS, tables.hours, strict=True))
            ],
            weather=self._weather(),
            care=self._care(),
        )  # fmt: skip

    def _refusal(self) -> str:
        error = self.refused
        assert error
        if error.code == "paint_before_glue":
            joint = self.words.joint(str(error.data["name"]))
            return f"Coated all over first, {joint} could not be glued: glue does not hold on paint. Mask its faces, coat it after, or leave the glue out there."
        return problem_text(error, self.words.voice)

    def headline(self) -> tuple[str, Tone]:
        """The plan in one sentence."""
        finish = self.finish
        if self.refused:
            return "There is no plan yet.", "wrong"
        ready = finish.ready_from(self.now)
        if ready is None:
            return "All of it is done.", "right"
        if finish.needed is None:
            return f"Begun now, it would be ready on {told.at_words(ready)}.", "none"
        left = [p for p in finish.plan if p.task.id not in finish.did]
        if ready > finish.needed:
            return (
                f"Too late: begun now, it is ready on {told.at_words(ready)}, needed on {told.at_words(finish.needed)}.",
                "wrong",
            )
        late = finish.late(self.now)
        if late:
            return (
                f"{told.task_name(late[0].task.id)} should have begun on {told.at_words(late[0].start)}. It can still be ready in time.",
                "near",
            )
        first = left[0]
        return f"Begin at the latest on {told.at_words(first.start)}: {told.task_name(first.task.id).lower()}.", "right"

    def _said(self) -> list[LineOut]:
        """What runs while something waits, and what slips if today is lost."""
        finish, found = self.finish, []
        ready = finish.ready_from(self.now)
        if ready is None:
            return []
        tomorrow = datetime.combine(self.now.date() + timedelta(days=1), time())
        lost = finish.ready_from(tomorrow)
        work = sum(task.work_h for task in finish.tasks if task.id not in finish.did)
        waits = sum(task.wait_h for task in finish.tasks if task.id not in finish.did)
        found.append(
            LineOut(text="Hours of work left", figure=told.hours(work), note=f"{told.hours(waits)} of waiting and drying besides")
        )
        found.append(LineOut(text="Ready, if you begin now", figure=told.at_words(ready), tone=self._tone(ready)))
        if lost:
            slips = "nothing slips" if lost == ready else f"{_apart(lost - ready)} later"
            found.append(LineOut(text="If today is lost", figure=told.at_words(lost), note=slips, tone=self._tone(lost)))
        for before, does in meanwhile(finish.plan):
            found.append(LineOut(text=f"While it waits after {told.task_name(before).lower()}", figure=told.task_name(does)))
        return found

    def _tone(self, ready: datetime) -> Tone:
        if self.finish.needed is None:
            return "none"
        return "right" if ready <= self.finish.needed else "wrong"

    # The strip.

    def _strip(self, plan: list[Placed]) -> list[DayOut]:
        finish = self.finish
        if not plan and not self.refused and finish.needed is None and finish.ready_from(self.now):
            plan = finish.going_on(self.now)
        days = days_of(plan)
        if finish.needed:
            days = sorted({*days, finish.needed.date()})
            days = [days[0] + timedelta(days=k) for k in range((days[-1] - days[0]).days + 1)]
        unfit = unfit_days(finish.wishes.weather, finish.recipe) if finish.recipe else frozenset()
        foretold = {d.day: d for d in finish.wishes.weather.days} if finish.wishes.weather else {}
        late = {placed.task.id for placed in finish.late(self.now)} if not self.refused else set()
        return [
            DayOut(
                day=day.isoformat(),
                label=told.day_words(day),
                today=day == self.now.date(),
                away=day in finish.wishes.away or day in finish.tables.away,
                cross=choosing(f"away/{day.isoformat()}", day not in finish.wishes.away),
                free=[(a, b) for a, b in finish.tables.hours[day.weekday()]],
                spans=list(self._spans(plan, day, late)),
                weather=_weather_words(foretold[day]) if day in foretold else "",
                unfit=day in unfit,
            )
            for day in days[:MOST_DAYS]
        ]

    def _spans(self, plan: list[Placed], day: date, late: set[str]) -> Iterator[SpanOut]:
        midnight = datetime.combine(day, time())
        end = midnight + timedelta(days=1)
        for placed in plan:
            id, done = placed.task.id, placed.task.id in self.finish.did
            pieces = [("work", a, b) for a, b in placed.spans]
            if placed.task.wait_h:
                pieces.append(("wait", placed.end, placed.ready))
            for kind, a, b in pieces:
                low, high = max(a, midnight), min(b, end)
                if low < high:
                    yield SpanOut(
                        task=id, name=told.task_name(id), kind="work" if kind == "work" else "wait", from_h=_h(low - midnight),
                        to_h=_h(high - midnight), done=done, late=id in late,
                    )  # fmt: skip

    def _tasks(self, plan: list[Placed]) -> list[DayTaskOut]:
        finish = self.finish
        placed = {p.task.id: p for p in plan}
        late = {p.task.id for p in finish.late(self.now)}
        found = []
        for task in finish.tasks:
            at, entry = placed.get(task.id), finish.did.get(task.id)
            found.append(
                DayTaskOut(
                    id=task.id,
                    name=told.task_name(task.id),
                    hours=figure_in(
                        f"hours/{task.id}", told.task_name(task.id), self.words.voice.plain(task.work_h, "h"),
                        given=task.id in finish.wishes.hours,
                    ),
                    waits=f"then {told.hours(task.wait_h)} of waiting" if task.wait_h else "",
                    when=f"{told.at_words(at.start)} to {at.end:%H:%M}" if at and at.start.date() == at.end.date() else
                    f"{told.at_words(at.start)} to {told.at_words(at.end)}" if at else "",
                    ready=told.at_words(at.ready) if at and task.wait_h else "",
                    done=f"done on {told.at_words(by_clock(entry.at))}" if entry else "",
                    record=entry.id if entry else "",
                    late=task.id in late,
                )
            )  # fmt: skip
        return found

    def _way(self, way: WayOut) -> WayOutOfOut:
        needed = self.finish.needed
        good = needed is not None and way.ready <= needed
        ready = f"Ready on {told.at_words(way.ready)}{', in time' if good else ''}."
        titles = {
            "coat_less": f"One coat of {way.name} less", "recipe": f"Coat it with {way.name}", "glue": f"Glue it with {way.name}",
            "hour_more": "An hour more every evening", "days_back": "The days that are crossed out, after all", "coat_indoors": "Coat it indoors",
        }  # fmt: skip
        costs = {
            "coat_less": f"It lasts some {way.cost:.1f} years instead of {self.finish.recipe.years if self.finish.recipe else 0:g} until it is coated again.",
            "recipe": f"It is coated again in some {way.cost:g} years, and looks otherwise.",
        }  # fmt: skip
        acts: dict[str, list[Edit]] = {
            "coat_less": choosing("coats", self.finish.coats - 1), "recipe": [*choosing("recipe", way.name), *choosing("coats", None)],
            "glue": choosing("glue", way.name), "coat_indoors": choosing("coat_where", "indoors"), "days_back": choosing("away", []),
        }  # fmt: skip
        text = f"{ready} {costs.get(way.code, '')}".strip()
        return WayOutOfOut(title=titles[way.code], text=text, good=good, acts=acts.get(way.code, []))

    def _weather(self) -> str:
        weather = self.finish.wishes.weather
        if weather is None:
            return "Not asked yet. Coats outdoors then go on any day."
        last = weather.days[-1].day
        text = f"{weather.place}, as foretold on {weather.as_of}, up to {told.day_words(last)}."
        if last < self.now.date():
            return f"{text} All of that is over: ask again."
        return f"{text} Coats outdoors keep off the days that are too cold, wet or damp; later days are not foretold."

    def _care(self) -> list[str]:
        found = ["Tired or in a hurry is when fingers get hurt: nothing at the saw late in the evening to catch up."]
        if self.finish.wishes.coat_where == "outdoors":
            found.append("A forecast is a guess: touch the wood, look at the sky, and wait if it is damp.")
        return found


def _h(span: timedelta) -> float:
    return span / timedelta(hours=1)


def _clock(hour: float) -> str:
    whole, minutes = divmod(round(hour * 60), 60)
    return f"{whole}:{minutes:02}" if minutes else f"{whole}"


def _apart(span: timedelta) -> str:
    whole = span / timedelta(hours=1)
    return told.how_many(round(whole / DAY_H), "day") if whole >= DAY_H - 1 else told.hours(whole)


def _weather_words(day: WeatherDay) -> str:
    rain = f", {day.rain_mm:g} mm of rain" if day.rain_mm else ", dry"
    return f"{day.low_c:.0f} to {day.high_c:.0f} °C{rain}"
