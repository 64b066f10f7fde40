"""The story in words: what happened on which day, the hours, as planned and as made."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import cached_property

from fennup.app.schemas.fit import LineOut
from fennup.app.schemas.log import ClockOut, DayTold, MadeLine, StretchOut, ToldLine
from fennup.app.services.bench_sheet import BenchSheet
from fennup.app.services.part_cards import board_tag, part_name
from fennup.app.wording import log as words
from fennup.app.wording.figures import Voice
from fennup.app.wording.finish import at_words, hours, how_many, task_name
from fennup.core.bench.task import Task
from fennup.core.finish.planned import DID, Finish, by_clock
from fennup.core.log.clock import Stretch, hours_by_step, stretches
from fennup.core.log.story import Day, Happening, story
from fennup.core.records.entry import (
    AgreedBody,
    BatchBody,
    Entry,
    MeasuredBody,
    NoteBody,
    PhotoBody,
    ReadBody,
    UseBody,
    WrongBody,
)
from fennup.core.records.fold import fold, live, read_last

STEP_OF_TASK = {"mask": "coat", "site": "setup"}


@dataclass(frozen=True)
class LogStory:
    """What happened. `now` has a zone; `back_at` says where a lesson comes back."""

    bench: BenchSheet
    finish: Finish
    entries: Sequence[Entry]
    voice: Voice
    now: datetime
    back_at: Callable[[NoteBody], str]

    @cached_property
    def tasks(self) -> Mapping[str, Task]:
        """The bench's, by key."""
        return {task.key: task for task in self.bench.tasks}

    @cached_property
    def stretches(self) -> list[Stretch]:
        """The hours."""
        return stretches(self.entries, self.now)

    @cached_property
    def _waits(self) -> dict[str, float]:
        return {task.id: task.wait_h for task in self.finish.tasks}

    def days(self) -> list[DayTold]:
        """The last day first."""
        return [self._day(day) for day in reversed(story(self.entries, self.stretches, self.about))]

    def about(self, entry: Entry) -> str:
        """What is told in one: the like work on the like part; all readings of the dry fit."""
        if isinstance(entry.body, ReadBody):
            return "read"
        task = self.tasks.get(entry.key)
        return f"{task.part}|{task.work}" if task and entry.type in ("cut", "measured") else f"{entry.type} {entry.id}"

    def _day(self, day: Day) -> DayTold:
        return DayTold(
            day=day.date.isoformat(),
            label=words.day_label(day.date),
            hours=hours(day.hours) if day.hours else "",
            lines=[self._line(happening) for happening in day.happenings],
        )

    def _line(self, of: Happening) -> ToldLine:
        first, text, note, tone = of.entries[0], "", "", "none"
        body, count = first.body, len(of.entries)
        record = photo = lesson = ""
        match body:
            case MeasuredBody():
                measured = [e.body for e in of.entries if isinstance(e.body, MeasuredBody)]
                wrong = sum(m.verdict == "wrong" for m in measured)
                text = f"Measured {words.pieces(count)}: {self._work(first)}"
                note = (
                    "not right" if wrong == count else f"{wrong} not right" if wrong else "right" if count == 1 else "all right"
                )
                tone = "wrong" if wrong else "right"
            case WrongBody():
                text, tone = f"{self._piece(body.piece)}: {words.RESCUES[body.way]}", "near"
                note = body.text
            case ReadBody():
                text = f"Read at the dry fit: {how_many(count, 'figure')}"
            case AgreedBody():
                text = body.text or "Agreed to a change"
            case NoteBody():
                text, record = body.text, first.id
                lesson = self.back_at(body) if body.about else ""
            case PhotoBody():
                text, photo, record = body.text, body.file, first.id
            case BatchBody():
                more = ", ".join(part for part in (body.batch, body.much) if part)
                text, note, record = f"{words.BATCHES[body.what]}: {body.name}", more, first.id
            case UseBody():
                figure = "" if body.value is None else f"{body.value:g} {words.USE_UNITS.get(body.what, '')}".strip()
                text, record = ": ".join(part for part in (words.USES[body.what], figure) if part), first.id
                note = body.text
            case _ if first.type == "did":
                text, note = self._did(first)
            case _:
                pieces = {self.tasks[e.key].piece for e in of.entries if e.key in self.tasks}
                text = f"{self._work(first)}: {words.pieces(len(pieces) or count)}"
        until = f" to {of.end:%H:%M}" if of.end - of.start >= timedelta(minutes=1) else ""
        return ToldLine(
            text=text, note=note, tone=tone, when=f"{of.start:%H:%M}{until}", record=record, photo=photo, lesson=lesson
        )

    def _work(self, entry: Entry) -> str:
        """What was done to which part."""
        task = self.tasks.get(entry.key)
        if task is None:
            return f"Something that the plan no longer has ({entry.key.partition('/')[2] or entry.key})"
        facts = self.bench.saw.facts.get(task.part)
        part = part_name(self.bench.saw.solution, facts.group) if facts else ""
        return f"{words.work_name(task.work)}, {part}" if part else words.work_name(task.work)

    def _piece(self, key: str) -> str:
        solution = self.bench.saw.solution
        return board_tag(solution, key) if key in solution.design.boards else key

    def _did(self, entry: Entry) -> tuple[str, str]:
        task = entry.key.removeprefix(DID)
        wait = self._waits.get(task, 0.0)
        note = f"then it waits until {at_words(by_clock(entry.at) + timedelta(hours=wait))}" if wait else ""
        return task_name(task), note

    # Hours.

    def clock(self) -> ClockOut:
        """The clock and all its stretches."""
        runs = next((s for s in self.stretches if s.how == "running"), None)
        return ClockOut(
            running=runs.id if runs else "",
            running_step=words.STEPS.get(runs.step, runs.step) if runs else "",
            since=runs.start.isoformat() if runs else "",
            steps=list(words.STEPS.items()),
            stretches=[self._stretch(s) for s in reversed(self.stretches)],
            planned=self.planned(),
        )

    def _stretch(self, of: Stretch) -> StretchOut:
        step = words.STEPS.get(of.step, of.step) or "Work"
        until = f" to {of.end:%H:%M}" if of.end and of.end.date() == of.start.date() else ""
        start = f"{words.day_words(of.start.date())}" + ("" if of.how == "typed" else f", {of.start:%H:%M}{until}")
        said = {"corrected": " (corrected)", "running": " (runs)"}.get(of.how, "")
        return StretchOut(
            id=of.id,
            text=f"{step}, {start}{said}",
            figure="?" if of.hours is None else hours(of.hours),
            step=of.step,
            typed="" if of.hours is None else "{}:{:02d}".format(*divmod(round(of.hours * 60), 60)),
            forgotten=of.how == "forgotten",
            by_clock=of.how != "typed",
            guess=hours(of.guess_h) if of.guess_h is not None else "",
        )

    @cached_property
    def made_h(self) -> dict[str, float]:
        """Hours by step."""
        return hours_by_step(self.stretches)

    @cached_property
    def planned_h(self) -> dict[str, float]:
        """Hours by step as the plan has them."""
        found: dict[str, float] = {}
        for task in self.finish.tasks:
            step = "coat" if task.id.startswith("coat") else STEP_OF_TASK.get(task.id, task.id)
            found[step] = found.get(step, 0.0) + task.work_h
        return found

    def planned(self) -> list[LineOut]:
        """Hours as made beside those planned."""
        steps = [step for step in words.STEPS if step in self.made_h or step in self.planned_h]
        steps += [step for step in self.made_h if step not in steps]
        lines = []
        for step in steps:
            made, plan = self.made_h.get(step), self.planned_h.get(step)
            figure = hours(made) if made is not None else "none yet"
            note = f"planned {hours(plan)}" if plan else "not planned"
            lines.append(LineOut(text=words.STEPS.get(step, step), figure=figure, note=note))
        return lines

    # As made.

    def made(self) -> list[MadeLine]:
        """Every figure that was measured, beside what it should be; the last reading of each."""
        lines = []
        for key, state in fold(self.entries).items():
            for what, entry in state.readings.items():
                if isinstance(entry.body, MeasuredBody):
                    task = self.tasks.get(key)
                    name = self._piece(task.piece or task.part) if task else key
                    label = words.MEASURED.get(what, what)
                    body = entry.body
                    lines.append(self._made(f"{name}: {label}", body.planned, body.measured, body.unit, body.verdict))
        for key, entry in read_last(self.entries).items():
            if isinstance(entry.body, ReadBody):
                read = entry.body
                lines.append(self._made(f"At the dry fit: {self._read(key)}", read.planned, read.measured, read.unit, "none"))
        return lines

    def _read(self, key: str) -> str:
        """What was read: a size by its name, else by the names of what it lies between."""
        if key.startswith("size "):
            return self.voice.label(key.removeprefix("size "))
        names = [self._piece(part) for part in key.replace("|", " ").split() if part in self.bench.saw.solution.design.boards]
        return f"{key.partition(' ')[0].rstrip(':')} {', '.join(names)}" if names else key

    def _made(self, what: str, planned: float, made: float, unit: str, tone: str) -> MadeLine:
        say = self.voice.say_angle if unit == "deg" else self.voice.say
        off = made - planned
        sign = "+" if off > 0 else "−" if off < 0 else ""
        told = f"{abs(off):.2f}°" if unit == "deg" else self.voice.small(abs(off))
        return MadeLine(what=what, planned=say(planned), made=say(made), off=f"{sign}{told}", tone=tone)

    def changed(self) -> list[LineOut]:
        """What was agreed to be otherwise than drawn."""
        return [
            LineOut(text=entry.body.text or "A change", figure=words.day_words(entry.at.date()))
            for entry in live(self.entries)
            if isinstance(entry.body, AgreedBody)
        ]
