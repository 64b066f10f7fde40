"""A dated plan: backwards from the day it is needed, or forwards from today. One pair of hands; what dries, dries day and night."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from fennup.core.errors import SpecError
from fennup.core.finish.hours import FreeHours, Span

NO_TIME = timedelta(0)
NONE_DONE: Mapping[str, datetime] = {}


@dataclass(frozen=True)
class Task:
    """Something to do: working hours, then hours in which it only waits before what comes `after` it goes on. One that is `whole` is done in
    one go: a coat, a glue-up. `never_on`: days on which it cannot be done: too cold, too wet."""

    id: str
    work_h: float
    wait_h: float = 0.0
    after: tuple[str, ...] = ()
    whole: bool = False
    never_on: frozenset[date] = frozenset()


@dataclass(frozen=True)
class Placed:
    """A task in its hours; `ready`: when it has waited as well."""

    task: Task
    spans: tuple[Span, ...]
    ready: datetime

    @property
    def start(self) -> datetime:
        """When it is begun."""
        return self.spans[0][0]

    @property
    def end(self) -> datetime:
        """When the work of it is done."""
        return self.spans[-1][1]


def latest_plan(tasks: Sequence[Task], needed: datetime, free: FreeHours) -> list[Placed]:
    """Everything as late as it may be, so that all is ready when it is needed; in the order in which it is done.

    SpecError `hours_negative`, `tasks_circle`, `no_such_task`, `task_too_long`, and what the free hours say.
    """
    free.check()
    placed: dict[str, Placed] = {}
    for task in reversed(_in_order(tasks)):
        following = [other for other in tasks if task.id in other.after]
        deadline = min([placed[other.id].start for other in following], default=needed) - timedelta(hours=task.wait_h)
        room = [(deadline, deadline)] if not task.work_h else _left(free.before(deadline), placed.values(), backwards=True)
        spans = _fill(task, room, backwards=True)
        placed[task.id] = Placed(task, spans, spans[-1][1] + timedelta(hours=task.wait_h))
    return sorted(placed.values(), key=lambda p: (p.start, p.end))


def earliest_plan(
    tasks: Sequence[Task], start: datetime, free: FreeHours, done: Mapping[str, datetime] = NONE_DONE
) -> list[Placed]:
    """Everything that is still to do as early as it can be from a time on; `done`: tasks, and when each has waited as well. SpecError as `latest_plan`."""
    free.check()
    placed: dict[str, Placed] = {}
    for task in _in_order(tasks):
        if task.id in done:
            continue
        begin = max([start, *(done[id] if id in done else placed[id].ready for id in task.after)])
        room = [(begin, begin)] if not task.work_h else _left(free.after(begin), placed.values(), backwards=False)
        spans = _fill(task, room, backwards=False)
        placed[task.id] = Placed(task, spans, spans[-1][1] + timedelta(hours=task.wait_h))
    return sorted(placed.values(), key=lambda p: (p.start, p.end))


def ready_at(plan: Sequence[Placed]) -> datetime:
    """When all of a plan is ready."""
    return max(p.ready for p in plan)


def longest_span_h(free: FreeHours) -> float:
    """The longest time in one go that a week has."""
    return max((end - start for spans in free.week for start, end in spans), default=0.0)


def _in_order(tasks: Sequence[Task]) -> list[Task]:
    """The tasks so that each comes after those that it needs; as they were given where that is free."""
    by_id = {task.id: task for task in tasks}
    for task in tasks:
        if task.work_h < 0 or task.wait_h < 0:
            raise SpecError("hours_negative", (f"tasks.{task.id}",))
        for id in task.after:
            if id not in by_id:
                raise SpecError("no_such_task", (f"tasks.{task.id}.after",), name=id)
    done: list[Task] = []
    waiting = list(tasks)
    while waiting:
        ready = next((task for task in waiting if all(by_id[id] in done for id in task.after)), None)
        if ready is None:
            raise SpecError("tasks_circle", (f"tasks.{waiting[0].id}.after",))
        done.append(ready)
        waiting.remove(ready)
    return done


def _left(spans: Iterable[Span], placed: Iterable[Placed], *, backwards: bool) -> Iterator[Span]:
    """What of some free spans is not taken yet, in their order."""
    taken = sorted(span for one in placed for span in one.spans)
    for start, end in spans:
        pieces, at = [], start
        for busy, until in taken:
            if until > at and busy < end:
                pieces.append((at, busy))
                at = until
        pieces.append((at, end))
        real = [(low, high) for low, high in pieces if high > low]
        yield from reversed(real) if backwards else real


def _fill(task: Task, spans: Iterable[Span], *, backwards: bool) -> tuple[Span, ...]:
    """The hours that a task takes out of what is free. SpecError `task_too_long` where there is never so long a time in one go."""
    wanted = timedelta(hours=task.work_h)
    found: list[Span] = []
    for start, end in spans:
        if wanted == NO_TIME:
            return ((end, end),) if backwards else ((start, start),)
        if (task.whole and end - start < wanted) or start.date() in task.never_on:
            continue
        piece = min(wanted, end - start)
        found.append((end - piece, end) if backwards else (start, start + piece))
        wanted -= piece
        if wanted == NO_TIME:
            return tuple(sorted(found))
    raise SpecError("task_too_long", (f"tasks.{task.id}.work_h",), hours=task.work_h)
