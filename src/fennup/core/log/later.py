"""What comes later: when something is coated again."""

from collections.abc import Iterable
from datetime import date

from fennup.core.finish.planned import DID
from fennup.core.records.entry import Entry, UseBody
from fennup.core.records.fold import live

MONTHS_IN_YEAR = 12


def coat_again(entries: Iterable[Entry], years: float) -> date | None:
    """The first of the month in which it is coated again, so many years after the last coat; None while there has been none."""
    coats = [
        e.at
        for e in live(entries)
        if (e.type == "did" and e.key.startswith(f"{DID}coat")) or (isinstance(e.body, UseBody) and e.body.what == "coated")
    ]
    if not coats:
        return None
    last = max(coats)
    months = last.year * MONTHS_IN_YEAR + last.month - 1 + round(years * MONTHS_IN_YEAR)
    return date(months // MONTHS_IN_YEAR, months % MONTHS_IN_YEAR + 1, 1)
