"""How far the work at the bench is, as a document: what `./fennup progress` prints. docs/formats.md describes it."""

from collections.abc import Iterable

from fennup.core.bench.task import Task
from fennup.core.exchange.cuts_forms import Form
from fennup.core.records.entry import Entry, MeasuredBody
from fennup.core.records.fold import OPEN, fold, is_wrong, wood_of


class ReadingForm(Form):
    """The last reading of something, mm or degrees."""

    planned: float
    measured: float
    verdict: str


class TaskForm(Form):
    """One task. `done`; `wrong`: said so or measured so; `earlier_size`: done when the piece had another size than now."""

    key: str
    piece: str
    part: str
    work: str
    done: bool
    wrong: bool
    earlier_size: bool
    readings: dict[str, ReadingForm]


class ProgressDocument(Form):
    """All tasks in order; `done`: how many are; `again`: how often a piece was begun again, `instead`: pieces that came out of another one; `strays`: what is
    recorded of tasks that there are no longer."""

    done: int
    tasks: list[TaskForm]
    again: dict[str, int]
    instead: list[str]
    strays: list[str]


def progress_document(tasks: tuple[Task, ...], entries: Iterable[Entry]) -> ProgressDocument:
    """What the entries make of the tasks."""
    entries = list(entries)
    states, wood = fold(entries), wood_of(entries)
    keys = {task.key for task in tasks}
    made = []
    for task in tasks:
        state = states.get(task.key, OPEN)
        bodies = {what: e.body for what, e in state.readings.items() if isinstance(e.body, MeasuredBody)}
        made.append(
            TaskForm(
                key=task.key,
                piece=task.piece,
                part=task.part,
                work=task.work if task.doing == "step" else task.doing,
                done=state.cut is not None,
                wrong=is_wrong(state),
                earlier_size=bool(state.cut and state.fingerprint and task.fingerprint and state.fingerprint != task.fingerprint),
                readings={w: ReadingForm(planned=b.planned, measured=b.measured, verdict=b.verdict) for w, b in bodies.items()},
            )
        )
    return ProgressDocument(
        done=sum(task.done for task in made),
        tasks=made,
        again=dict(wood.again),
        instead=sorted(wood.instead),
        strays=sorted(key for key in states if key not in keys),
    )
