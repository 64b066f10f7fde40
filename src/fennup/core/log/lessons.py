"""What was learned, and where it comes back: at the like step of another project, once."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from fennup.core.records.entry import About, Entry, NoteBody, RemindedBody
from fennup.core.records.fold import live

NEAR_DEG = 5.0  # two slopes that behave alike


@dataclass(frozen=True)
class Lesson:
    """A note that is told again. `project`: in which it was written."""

    id: str
    project: str
    text: str
    about: About


def lessons_in(project: str, entries: Iterable[Entry]) -> list[Lesson]:
    """The lessons of a project, the earliest first."""
    return [
        Lesson(entry.id, project, entry.body.text, entry.body.about)
        for entry in live(entries)
        if isinstance(entry.body, NoteBody) and entry.body.about
    ]


def is_like(about: About, here: About) -> bool:
    """Whether a lesson belongs to a situation: all that it says of itself is so here."""
    said = about.model_dump(exclude_defaults=True)
    slope = said.pop("slope_deg", None)
    if not said and slope is None:
        return False
    near = slope is None or (here.slope_deg is not None and abs(here.slope_deg - slope) <= NEAR_DEG)
    return near and all(getattr(here, name) == value for name, value in said.items())


def reminders(
    lessons: Sequence[Lesson], project: str, entries: Iterable[Entry], here: Sequence[tuple[str, About]]
) -> dict[str, Lesson]:
    """Which lesson is told at which of a project's steps, by the step's key: the first that is like it, unless it was read here before; not in the project that
    it comes from."""
    read = {entry.body.lesson for entry in live(entries) if isinstance(entry.body, RemindedBody)}
    told: dict[str, Lesson] = {}
    for lesson in lessons:
        if lesson.project == project or lesson.id in read:
            continue
        at = next((key for key, about in here if key not in told and is_like(lesson.about, about)), None)
        if at is not None:
            told[at] = lesson
    return told
