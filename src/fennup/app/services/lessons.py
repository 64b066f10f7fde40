"""Lessons: what one can be about, where they come back, and what goes wrong most often."""

from collections.abc import Sequence
from typing import NamedTuple

from sqlalchemy.orm import Session

from fennup.app.models.tables import Document, Record
from fennup.app.schemas.log import LessonOut, OftenOut
from fennup.app.schemas.saw import ReminderOut
from fennup.app.services import documents
from fennup.app.services.records import entries_of
from fennup.app.services.steps_sheet import SawSheet
from fennup.app.services.upgrade import PROJECT
from fennup.app.wording import log as words
from fennup.core.finish.planned import Finish
from fennup.core.log.lessons import Lesson, lessons_in, reminders
from fennup.core.log.slips import PRACTICE, slips
from fennup.core.records.entry import About, Entry
from fennup.core.steps.step import Step
from fennup.core.tolerances import SAME

KINDS = ("note", "undone")


class Learned(NamedTuple):
    """All lessons of the workshop, and what the projects are called that they come from."""

    lessons: list[Lesson]
    names: dict[str, str]


def learned(session: Session) -> Learned:
    """Every lesson that was ever written, of projects that are still there."""
    here = session.query(Document.id).filter(Document.type == "project", Document.deleted_at.is_(None))
    found = session.query(Record).filter(Record.type.in_(KINDS), Record.project_id.in_(here)).order_by(Record.received).all()
    by_project: dict[str, list[Record]] = {}
    for record in found:
        by_project.setdefault(record.project_id, []).append(record)
    lessons = [one for id, of in by_project.items() for one in lessons_in(id, entries_of(of))]
    names = {
        id: str((documents.read(session, id, PROJECT).body or {}).get("name", "")) for id in {one.project for one in lessons}
    }
    return Learned(lessons, names)


def slips_out(session: Session) -> list[OftenOut]:
    """What goes wrong most often, of all that was ever recorded."""
    records = session.query(Record).filter(Record.type.in_(("measured", "wrong", "read", "undone"))).all()
    return [
        OftenOut(
            name=words.SLIPS[sort][0], count=words.slip_count(count), text=words.SLIPS[sort][1], level=PRACTICE.get(sort, "")
        )
        for sort, count in slips(entries_of(records))
    ]


def here_of_step(sheet: SawSheet, step: Step, wood: str) -> About:
    """What a step is like."""
    tilt = abs(step.way.tilt_deg) if step.way else 0.0
    tool = sheet.solution.plan.workshop.tools.get(step.tool or "")
    kind = tool.type if tool else ""
    return About(work=step.work, tool=kind, wood=wood, slope_deg=tilt if tilt > SAME else None)


def steps_here(sheet: SawSheet, wood: str) -> list[tuple[str, About]]:
    """All steps, by key, with what each is like."""
    return [(step.key, here_of_step(sheet, step, wood)) for step in sheet.plan.steps if step.work != "test"]


def tasks_here(finish: Finish) -> list[tuple[str, About]]:
    """The steps of the finish, with what each is like; the kinds of joints with the task that fastens them."""
    wood = finish.wishes.wood
    made = [(task.id, About(task="coat" if task.id.startswith("coat") else task.id, wood=wood)) for task in finish.tasks]
    joints = [(one.kind.key, About(joint=one.kind.joints[0].kind, wood=wood)) for one in finish.fastened]
    return [*joints, *made]


def told_at(learned: Learned, project: str, entries: Sequence[Entry], here: list[tuple[str, About]]) -> dict[str, ReminderOut]:
    """Which lesson is told at which step, worded."""
    found = reminders(learned.lessons, project, entries, here)
    return {
        key: ReminderOut(lesson=lesson.id, text=lesson.text, whose=learned.names.get(lesson.project, "another project"))
        for key, lesson in found.items()
    }


def about_options(sheet: SawSheet, finish: Finish) -> list[tuple[str, About]]:
    """What a lesson can be about here, each once: the like work on the like tool, what leans as much, a kind of joint, a wood, a step of the finish."""
    tools = tool_names(sheet)
    wood = finish.wishes.wood
    found: list[About] = []
    for _, here in steps_here(sheet, wood):
        found.append(About(work=here.work, tool=here.tool))
        if here.slope_deg is not None:
            found.append(About(slope_deg=round(here.slope_deg)))
    found += [About(joint=here.joint) if here.joint else About(task=here.task) for _, here in tasks_here(finish)]
    found.append(About(wood=wood))
    named = {words.about_name(about, tools): about for about in found}
    return list(named.items())


def tool_names(sheet: SawSheet) -> dict[str, str]:
    """Types of tools by what they are called."""
    return {tool.type: tool.name.lower() for tool in sheet.solution.plan.workshop.tools.values()}


def lessons_out(learned: Learned, project: str, tools: dict[str, str]) -> list[LessonOut]:
    """All of them, this project's own first."""
    made = [
        LessonOut(
            id=lesson.id,
            text=lesson.text,
            back_at=words.about_name(lesson.about, tools),
            project=lesson.project,
            project_name=learned.names.get(lesson.project, ""),
            mine=lesson.project == project,
        )
        for lesson in learned.lessons
    ]
    return sorted(made, key=lambda lesson: not lesson.mine)
