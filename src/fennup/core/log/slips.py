"""What goes wrong most often at a bench, from everything that was ever recorded there."""

from collections import Counter
from collections.abc import Iterable
from typing import Literal

from fennup.core.bench.practice import Level
from fennup.core.fit.state import MIRRORED
from fennup.core.records.entry import Entry, MeasuredBody, ReadBody, WrongBody
from fennup.core.records.fold import live

Sort = Literal["short", "long", "narrow", "wide", "angle", "mirrored", "spoiled"]
# Which practice is for which slip; of what was spoiled nobody said why.
PRACTICE: dict[Sort, Level] = {"short": "mark", "long": "mark", "angle": "compound", "mirrored": "handed"}


def slip_of(entry: Entry) -> Sort | None:
    """What went wrong, as far as a record tells."""
    body = entry.body
    if isinstance(body, MeasuredBody) and body.verdict == "wrong":
        if body.unit == "deg":
            return "angle"
        less = body.measured < body.planned
        if body.what == "width":
            return "narrow" if less else "wide"
        return "short" if less else "long"
    if isinstance(body, ReadBody) and entry.key.endswith(MIRRORED):
        return "mirrored"
    if isinstance(body, WrongBody) and body.way in ("recut", "use") and body.measured is None:
        return "spoiled"
    return None


def slips(entries: Iterable[Entry]) -> list[tuple[Sort, int]]:
    """How often what went wrong, the most frequent first; a piece that was measured wrong and then cut again counts once."""
    alive = live(entries)
    found: Counter[Sort] = Counter()
    measured: set[str] = set()
    for entry in alive:
        sort = slip_of(entry)
        if isinstance(entry.body, MeasuredBody) and sort:
            measured.add(entry.key)
        if sort and not (sort == "spoiled" and entry.key in measured):
            found[sort] += 1
    return sorted(found.items(), key=lambda pair: (-pair[1], pair[0]))
