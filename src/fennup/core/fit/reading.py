"""What can be read of a thing that stands together: one reading, what it is drawn on, and the figures that several readings tell of together."""

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from fennup.core.assembly.board import Board
from fennup.core.design import Design
from fennup.core.fit.feet import Foot
from fennup.core.fit.meeting import Meeting
from fennup.core.fit.polygon import Figure, widest_play
from fennup.core.fit.web import Web
from fennup.core.geometry.vec import Vec, cross, distance, scale, unit
from fennup.core.tolerances import SAME

Kind = Literal[
    "diagonal", "crosswise", "feet_diagonal", "feet_side", "apart", "width", "spacing", "corner", "lean", "level", "plumb", "rock", "flat", "gap", "size",
]  # fmt: skip


@dataclass(frozen=True)
class Picture:
    """From where it is looked at: `right` and `up` on the paper, in the assembly's axes; `boards` are those that are seen. `about`: of what, `what`: what sort of picture."""

    id: str
    what: Literal["round", "wall", "side", "feet", "whole"]
    about: str
    right: Vec
    up: Vec
    boards: tuple[str, ...]


@dataclass(frozen=True)
class Expected:
    """One thing to read. `key`: by which the reading is recorded; `names`: what its words need; `a` and `b`: between which places, in the assembly's axes (an angle's is at
    `a`); off by up to `right` it is right, by up to `near` no joint suffers; `pair`: which corners of which figure."""

    key: str
    kind: Kind
    picture: str
    a: Vec
    b: Vec
    value: float
    unit: Literal["mm", "deg"]
    near: float
    boards: tuple[str, ...]
    names: tuple[str, ...] = ()
    figure: str = ""
    pair: tuple[int, int] = (0, 0)

    @property
    def right(self) -> float:
        """Up to how far off it is as good as it should be."""
        return self.near / 2


@dataclass(frozen=True)
class Sheet:
    """All that is to be read, with what it is drawn on and the figures that several readings tell of together."""

    pictures: tuple[Picture, ...]
    readings: tuple[Expected, ...]
    figures: dict[str, Figure]
    feet: dict[str, tuple[Foot, ...]]

    @cached_property
    def by_key(self) -> dict[str, Expected]:
        """By key."""
        return {reading.key: reading for reading in self.readings}


class Making:
    """What is to be read, while it is put together."""

    def __init__(self, design: Design, web: Web, allowance_mm: float) -> None:
        self.design = design
        self.web = web
        self.allowance = allowance_mm
        self.at_mm: float | None = None
        self.pictures: list[Picture] = []
        self.readings: list[Expected] = []
        self.figures: dict[str, Figure] = {}
        self.feet: dict[str, tuple[Foot, ...]] = {}

    def add(self, key: str, kind: Kind, picture: str, a: Vec, b: Vec, value: float, near: float, boards: tuple[str, ...],
             names: tuple[str, ...] = (), unit: Literal["mm", "deg"] = "mm", figure: str = "", pair: tuple[int, int] = (0, 0)) -> None:  # fmt: skip
        self.readings.append(Expected(key, kind, picture, a, b, value, unit, near, boards, names, figure, pair))

    def figure(
        self, figure: Figure, picture: Picture, kind: Kind, near: float | None = None, boards: tuple[str, ...] | None = None
    ) -> None:
        """The longest of a figure's diagonals: from every corner to the one opposite. `boards`: of which it tells, where its sides are none."""
        self.figures[figure.id] = figure
        n = len(figure.corners)
        if n < 4:
            return
        pairs = [(i, i + n // 2) for i in range(n // 2)] if n % 2 == 0 else [(i, (i + n // 2) % n) for i in range(n)]
        for i, j in pairs:
            a, b = figure.corners[i], figure.corners[j]
            play = near or widest_play(figure, (i, j), self.allowance)
            self.add(f"{figure.id} {a.name}-{b.name}", kind, picture.id, a.at, b.at, distance(a.at, b.at), play,
                      boards or tuple(dict.fromkeys((figure.sides[i], figure.sides[j]))), (a.name, b.name), figure=figure.id, pair=(i, j))  # fmt: skip

    def joints(self, board: str) -> list[Meeting]:
        """All joints of a board."""
        return [m for m in self.web.meetings.all.values() if board in (m.a.id, m.b.id)]

    def middle(self, board: Board) -> Vec:
        """The mean of its corners."""
        return mean([p for piece in self.design.solids[board.id].world for p in piece.points])


def own_key(board: str) -> str:
    """A board's key within its assembly."""
    return board.partition("/")[2] or board


def mean(points: list[Vec]) -> Vec:
    """The mean of some places."""
    return scale(total(points), 1.0 / len(points))


def total(points: list[Vec]) -> Vec:
    """The sum of some places."""
    return (sum(p[0] for p in points), sum(p[1] for p in points), sum(p[2] for p in points))


def paper(normal: Vec) -> tuple[Vec, Vec]:
    """Right and up on a picture that is looked at against a direction."""
    if abs(normal[2]) > 1 - SAME:
        return (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)
    right = unit(cross((0.0, 0.0, 1.0), normal))
    return right, unit(cross(normal, right))
