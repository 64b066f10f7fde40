"""The plan by the day as a calendar file (RFC 5545): every stretch of work an event, waiting said in its text. The same plan gives the same bytes."""

from collections.abc import Iterator
from datetime import datetime

from fennup.app.wording import finish as told
from fennup.core.finish.planned import Finish

LINE = 75  # octets


def plan_ics(finish: Finish, id: str, name: str, changed: datetime) -> str:
    """All of it; times are those of wherever it is read. SpecError where there is no plan."""
    lines = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Fennup//Fennup//EN", "CALSCALE:GREGORIAN"]
    stamp = f"{changed:%Y%m%dT%H%M%SZ}"
    for placed in finish.plan:
        for k, (start, end) in enumerate(placed.spans):
            what = f"{told.task_name(placed.task.id)}: {name}"
            waits = (
                f"Then {told.hours(placed.task.wait_h)} of waiting, until {told.at_words(placed.ready)}."
                if placed.task.wait_h
                else ""
            )
            lines += ["BEGIN:VEVENT", f"UID:{id}-{placed.task.id.replace(' ', '-')}-{k}@fennup.local", f"DTSTAMP:{stamp}", f"DTSTART:{start:%Y%m%dT%H%M%S}",
                      f"DTEND:{end:%Y%m%dT%H%M%S}", f"SUMMARY:{_escaped(what)}", *([f"DESCRIPTION:{_escaped(waits)}"] if waits else []), "END:VEVENT"]  # fmt: skip
    if finish.needed:
        lines += ["BEGIN:VEVENT", f"UID:{id}-needed@fennup.local", f"DTSTAMP:{stamp}", f"DTSTART:{finish.needed:%Y%m%dT%H%M%S}",
                  f"DTEND:{finish.needed:%Y%m%dT%H%M%S}", f"SUMMARY:{_escaped(f'Needed: {name}')}", "END:VEVENT"]  # fmt: skip
    lines.append("END:VCALENDAR")
    return "".join(f"{piece}\r\n" for line in lines for piece in _folded(line))


def _escaped(text: str) -> str:
    text = text.replace("\\", "\\\\").replace(";", "\\;").replace(",", "\\,")
    return text.replace("\r", "").replace("\n", "\\n")


def _folded(line: str) -> Iterator[str]:
    """A line in pieces of at most 75 octets, none of which parts a character; all but the first begin with a space."""
    piece = ""
    for character in line:
        if len((piece + character).encode()) > LINE:
            yield piece
            piece = " "
        piece += character
    yield piece
