"""Things side by side in a room, in every kind: how many, and how they are spaced."""

from dataclasses import dataclass
from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field

from fennup.core.errors import SpecError
from fennup.core.kinds.fields import Play_mm, Size_mm, Strict
from fennup.core.tolerances import NOTHING

Spacing = Literal["gaps", "flush", "half", "margins", "centres", "ends", "pitch", "gap", "places"]
MOST_IN_A_ROW = 60


class Spaced(Strict):
    """How many things stand side by side in a room, and how they are spaced.

    `gaps` equal gaps, the first and last too; `flush` the first and last against the ends; `half` with half a gap there; `margins`
    with `margin_mm` there; `centres` equal centres, end to first centre too; `ends` the first and last centre `margin_mm` from the
    ends. `pitch`: centres `step_mm` apart, `gap`: gaps of `step_mm`, both as a group in the middle; `places`: centres at
    `places_mm` from the start. With `most_mm` there are as many as it takes that no two centres stand farther apart.
    """

    count: Annotated[int, Field(ge=1, le=MOST_IN_A_ROW)]
    spacing: Spacing = "gaps"
    margin_mm: Play_mm = 0.0
    step_mm: Size_mm | None = None
    most_mm: Size_mm | None = None
    places_mm: Annotated[list[Play_mm], Field(max_length=MOST_IN_A_ROW)] = []

    def row(self, width: float) -> "Row":
        """The same of things so wide."""
        return Row(self.count, width, self.spacing, self.margin_mm, self.step_mm, self.most_mm, tuple(self.places_mm))


@dataclass(frozen=True)
class Row:
    """Things side by side, spaced as is said in `Spaced`."""

    count: int
    width_mm: float
    spacing: Spacing
    margin_mm: float
    step_mm: float | None = None
    most_mm: float | None = None
    places_mm: tuple[float, ...] = ()


def places(row: Row, room: float, path: str) -> list[float]:
    """Where the middles lie in a room from 0 to `room`. SpecError `bars_too_many` when they have none, `no_step`, `no_places`,
    `place_outside`, `places_close`."""
    if row.spacing == "places":
        return _listed(row, room, path)
    if row.spacing in ("pitch", "gap"):
        return _stepped(row, room, path)
    if row.most_mm is None:
        return _spread(row, row.count, room, path)
    fewest = 1 if _held(row) else 2
    for n in range(fewest, MOST_IN_A_ROW + 1):
        middles = _spread(row, n, room, path)
        apart = [b - a for a, b in pairwise((*_held(row), *middles, *(room - end for end in _held(row))))]
        if max(apart, default=0.0) <= row.most_mm + NOTHING:
            return middles
    raise SpecError("bars_too_many", (f"{path}.most_mm",), count=MOST_IN_A_ROW, mm=row.most_mm, limit_mm=room)


def _held(row: Row) -> tuple[float, ...]:
    """Where the room's own ends hold what is spaced too: at none where a row keeps its own margin there."""
    return (0.0,) if row.spacing in ("gaps", "centres", "half") else ()


def _spread(row: Row, n: int, room: float, path: str) -> list[float]:
    """So many, spread over the room."""
    taken = n * row.width_mm
    if row.spacing in ("centres", "ends"):
        first = row.margin_mm if row.spacing == "ends" else room / (n + 1)
        step = (room - 2 * first) / max(1, n - 1)
        middles = [first + step * i for i in range(n)] if n > 1 or row.spacing == "centres" else [room / 2]
        tight = n > 1 and step < row.width_mm
        if taken > room or tight or middles[0] < row.width_mm / 2:
            raise SpecError("bars_too_many", (f"{path}.count",), count=n, mm=taken, limit_mm=room)
        return middles
    margin = row.margin_mm if row.spacing == "margins" else 0.0
    spaces = {"gaps": n + 1.0, "flush": n - 1.0, "half": float(n), "margins": n - 1.0}[row.spacing]
    free = room - 2 * margin - taken
    if free < 0:
        raise SpecError("bars_too_many", (f"{path}.count",), count=n, mm=taken + 2 * margin, limit_mm=room)
    if spaces == 0:  # a single bar between margins stands in the middle
        return [room / 2]
    gap = free / spaces
    first = {"gaps": gap, "flush": 0.0, "half": gap / 2, "margins": margin}[row.spacing]
    return [first + row.width_mm / 2 + i * (row.width_mm + gap) for i in range(n)]


def _stepped(row: Row, room: float, path: str) -> list[float]:
    """At a given pitch or with a given gap, as a group in the middle of the room."""
    if row.step_mm is None:
        raise SpecError("no_step", (f"{path}.step_mm",))
    step = row.step_mm + (row.width_mm if row.spacing == "gap" else 0.0)
    taken = (row.count - 1) * step + row.width_mm
    if taken > room + NOTHING or (row.count > 1 and step < row.width_mm):
        raise SpecError("bars_too_many", (f"{path}.count",), count=row.count, mm=taken, limit_mm=room)
    return [room / 2 + (i - (row.count - 1) / 2) * step for i in range(row.count)]


def _listed(row: Row, room: float, path: str) -> list[float]:
    """Where a list says."""
    if not row.places_mm:
        raise SpecError("no_places", (f"{path}.places_mm",))
    for k, at in enumerate(row.places_mm):
        if not row.width_mm / 2 - NOTHING <= at <= room - row.width_mm / 2 + NOTHING:
            raise SpecError("place_outside", (f"{path}.places_mm.{k}",), mm=at, limit_mm=room - row.width_mm / 2)
        if any(abs(at - other) < row.width_mm - NOTHING for other in row.places_mm[:k]):
            raise SpecError("places_close", (f"{path}.places_mm.{k}",), mm=at)
    return list(row.places_mm)
