"""A list of readings of a gauge or a tape, looked at first, then written down at the dry fit."""

from collections.abc import Sequence
from uuid import UUID, uuid5

from sqlalchemy.orm import Session

from fennup.app.schemas.bring_in import ReadingIn, ReadingLine, ReadingsRead
from fennup.app.services.fitting import add_own, read_record
from fennup.app.services.said_lines import best_called, pairs_in
from fennup.app.services.validate import Invalid
from fennup.app.wording.figures import Voice
from fennup.app.wording.fit import FitWords
from fennup.core.fit.fitting import Fit


def labels_of(fit: Fit, words: FitWords) -> dict[str, str]:
    """All that can be read, by key."""
    pictures = {picture.id: picture for picture in fit.sheet.pictures}
    labels = {e.key: words.label(e) for e in fit.sheet.by_key.values()}
    twice = [label for label in labels.values() if [*labels.values()].count(label) > 1]
    return {
        key: f"{label}, {words.picture(pictures[fit.sheet.by_key[key].picture]).lower()}" if label in twice else label
        for key, label in labels.items()
    }


def readings_read(fit: Fit, words: FitWords, text: str) -> ReadingsRead:
    """What a list says, and which reading each line was taken for."""
    labels = labels_of(fit, words)
    lines: list[ReadingLine] = []
    left: list[str] = []
    for name, value in pairs_in(text):
        if not value:
            left.append(name)
            continue
        taken = {line.key for line in lines if line.key}
        key = name if name in labels and name not in taken else best_called(name, labels, taken)
        lines.append(_line(fit, words, name, value, key))
    return ReadingsRead(lines=lines, left=left, options=list(labels.items()))


def _line(fit: Fit, words: FitWords, name: str, value: str, key: str) -> ReadingLine:
    expected = fit.expected(key) if key else None
    problem = "" if key else "Say what was read here."
    if key:
        try:
            read_record(fit, key, value, "", words.voice, inches_meant=False)
        except Invalid as refused:
            problem = refused.problems[0].text
    told = words.value(expected.value, "deg" if expected.unit == "deg" else "mm") if expected else ""
    return ReadingLine(text=name, value=value, key=key, expected=told, problem=problem)


def bring_readings(
    session: Session, project: str, fit: Fit, voice: Voice, id: str, lines: Sequence[ReadingIn], device: str
) -> None:
    """Every line as a reading, all or none; the same list sent again is the same. Invalid names the line."""
    for number, line in enumerate(lines):
        try:
            body, print_ = read_record(fit, line.key, line.value, "", voice, inches_meant=False)
        except Invalid as refused:
            raise refused.within(f"lines.{number}.") from None
        add_own(session, project, str(uuid5(UUID(id), str(number))), line.key, "read", body, device, print_)
