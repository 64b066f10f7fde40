"""Dry fits at the boathouse, begun already: one out of square, one with a side too short, one that rocks, one worked out again from what is built, one that does not go
through the door."""

from datetime import datetime, timedelta
from typing import Any
from uuid import NAMESPACE_URL, uuid5

from sqlalchemy.orm import Session

from fennup.app.services.fitting import fit_of
from fennup.app.services.own import AT_THE_FIT
from fennup.app.services.projects import ProjectBody
from fennup.app.services.records import NewRecord, add_record
from fennup.app.services.solving import solved
from fennup.core.bench.task import Task, verdict_of
from fennup.core.fit.fitting import Fit
from fennup.core.fit.passage import Door, PassageWishes
from fennup.core.fit.wishes import FitWishes
from fennup.core.workshop import Workshop

AFTERNOON = datetime.fromisoformat("2026-11-24T14:10:00+01:00")
BETWEEN = timedelta(minutes=3)
SQUARE_BY, SHORT_MM, ROCKS_MM = 4.2, -2.0, 1.6
BUILT = {"m1/corner_angle": 99.2, "m1/post_leg": 517.0, "m1/beam_leg": 384.0}
DOORS = {"Slip steps handrail": Door(width_mm=880.0, height_mm=2000.0)}
Told = list[tuple[str, str, str, dict[str, Any]]]


def fill_fit(session: Session, id: str, body: ProjectBody, workshop: Workshop) -> None:
    """What was read of a project of the demo, and what it must go through; nothing of most."""
    if body.name in DOORS:
        wishes = FitWishes(passage=PassageWishes(door=DOORS[body.name]))
        AT_THE_FIT.save(session, id, 1, wishes, {"event": "demo"})
    made = {"Honours board frame": _out_of_square, "Bailer tub": _one_short, "Boat trestle": _rocks, "Sign bracket": _as_built}
    if body.name not in made:
        return
    fit = fit_of(solved(body, workshop), (), FitWishes())
    for number, (key, type, print_, said) in enumerate(made[body.name](fit)):
        record = NewRecord(
            id=str(uuid5(NAMESPACE_URL, f"{body.name} fit {number}")),
            key=key,
            fingerprint=print_,
            type=type,
            device="desk",
            device_time=AFTERNOON + number * BETWEEN,
            body=said,
        )
        add_record(session, id, record)


def _read(fit: Fit, key: str, value: float) -> tuple[str, str, str, dict[str, Any]]:
    e = fit.sheet.by_key[key]
    return (
        key,
        "read",
        "",
        {"planned": e.value, "measured": value, "unit": e.unit, "typed": f"{value:g}", "by": "tape", "side": ""},
    )


def _all_cut(fit: Fit) -> Told:
    return [(task.key, "cut", task.fingerprint, {"planned": {c.what: c.expected for c in task.checks}}) for task in fit.tasks]


def _measured(task: Task, off_mm: float) -> tuple[str, str, str, dict[str, Any]]:
    """Its length, so much off."""
    length = next(check for check in task.checks if check.what == "length")
    value = length.expected + off_mm
    said = {"what": "length", "planned": length.expected, "measured": value, "unit": "mm", "typed": f"{value:.1f} mm", "by": "tape",
            "verdict": verdict_of(length, value)}  # fmt: skip
    return task.key, "measured", task.fingerprint, said


def _out_of_square(fit: Fit) -> Told:
    """All cut; one diagonal reads less, the other more."""
    pair = [e for e in fit.sheet.readings if e.kind == "diagonal" and e.figure.endswith("outside")]
    return [
        *_all_cut(fit),
        _read(fit, pair[0].key, round(pair[0].value - SQUARE_BY, 1)),
        _read(fit, pair[1].key, round(pair[1].value + SQUARE_BY, 1)),
    ]


def _one_short(fit: Fit) -> Told:
    """All cut, and one of six found too short."""
    lengths = [task for task in fit.tasks if task.doing == "step" and any(c.what == "length" for c in task.checks)]
    offs = (0.0, 0.2, SHORT_MM, -0.1, 0.1, 0.0)
    return [*_all_cut(fit), *(_measured(task, off) for task, off in zip(lengths, offs, strict=True))]


def _rocks(fit: Fit) -> Told:
    """It stands, and one foot does not."""
    feet = [e for e in fit.sheet.readings if e.kind == "rock"]
    return [*_all_cut(fit), *(_read(fit, e.key, ROCKS_MM if k == 2 else 0.0) for k, e in enumerate(feet))]


def _as_built(fit: Fit) -> Told:
    """The post and the beam are there, and not quite as they were drawn."""
    return [_read(fit, f"size {measure}", value) for measure, value in BUILT.items()]
