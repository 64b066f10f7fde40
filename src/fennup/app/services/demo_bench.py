"""What was done already at the boathouse's bench: one project half way, and one at its worst: cut to an earlier size, and cut too short."""

from datetime import datetime, timedelta
from typing import Any
from uuid import NAMESPACE_URL, uuid5

from sqlalchemy.orm import Session

from fennup.app.services.projects import ProjectBody
from fennup.app.services.records import NewRecord, add_record
from fennup.app.services.solving import solved
from fennup.core.bench.task import Task, verdict_of
from fennup.core.bench.tasks import tasks_for
from fennup.core.records.entry import Put
from fennup.core.steps.planned import steps_for
from fennup.core.workshop import Workshop

MORNING = datetime.fromisoformat("2026-11-21T09:05:00+01:00")
BETWEEN = timedelta(minutes=4)
HALF_WAY, AT_ITS_WORST = "Tide clock surround", "Oar hatch arch"
EARLIER_MM, TOO_SHORT_MM = 4.0, 1.6


def fill_records(session: Session, id: str, body: ProjectBody, workshop: Workshop) -> None:
    """What was done of a project of the demo; nothing of most."""
    if body.name not in (HALF_WAY, AT_ITS_WORST):
        return
    solution = solved(body, workshop)
    tasks = tasks_for(solution.design, solution.plan, steps_for(solution.design, solution.plan))
    for number, (task, type, said, earlier) in enumerate(_half_way(tasks) if body.name == HALF_WAY else _at_its_worst(tasks)):
        record = NewRecord(
            id=str(uuid5(NAMESPACE_URL, f"{body.name} {number}")),
            key=task.key,
            fingerprint="earlier" if earlier else task.fingerprint,
            type=type,
            device="phone",
            device_time=MORNING + number * BETWEEN,
            body=said,
        )
        add_record(session, id, record)


Told = list[tuple[Task, str, dict[str, Any], bool]]


def _cut(task: Task, off_mm: float = 0.0) -> dict[str, Any]:
    return {"planned": {c.what: c.expected - (off_mm if c.what == "length" else 0.0) for c in task.checks}}


def _measured(task: Task, off_mm: float) -> dict[str, Any]:
    """Its length, so much off."""
    length = next(check for check in task.checks if check.what == "length")
    value = length.expected + off_mm
    return {"what": "length", "planned": length.expected, "measured": value, "unit": "mm", "typed": f"{value:.1f} mm",
            "by": "tape", "verdict": verdict_of(length, value)}  # fmt: skip


def _half_way(tasks: tuple[Task, ...]) -> Told:
    """All first ends, three pieces cut to length, the first of them measured."""
    ends = [k for k, task in enumerate(tasks) if task.work == "second_end" and task.doing == "step"]
    told: Told = [(task, "cut", _cut(task), False) for task in tasks[: ends[0] + 3]]
    return [*told, (tasks[ends[0]], "measured", _measured(tasks[ends[0]], 0.0), False)]


def _at_its_worst(tasks: tuple[Task, ...]) -> Told:
    """The first piece was cut before the arch was made larger, another one came out too short and is cut again."""
    ends = [task for task in tasks if task.work == "second_end" and task.doing == "step"]
    spoiled = ends[1]
    told: Told = [(task, "cut", _cut(task), False) for task in tasks[: tasks.index(spoiled)]]
    told = [
        (task, type, _cut(task, EARLIER_MM) if task.piece == ends[0].piece else said, task.piece == ends[0].piece)
        for task, type, said, _ in told
    ]
    sets = [Put(key=task.key, to="open").model_dump() for task in tasks if task.piece == spoiled.piece]
    wrong = {"way": "recut", "piece": spoiled.piece, "sets": sets, "text": "Cut it again", "measured": None}
    return [
        *told,
        (spoiled, "cut", _cut(spoiled), False),
        (spoiled, "measured", _measured(spoiled, -TOO_SHORT_MM), False),
        (spoiled, "wrong", wrong, False),
    ]
