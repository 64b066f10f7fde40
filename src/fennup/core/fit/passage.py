"""Does the finished thing go through a door, up a stair, into a load space: how it must be turned, and if not, where it comes apart so that it does."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from fennup.core.fit.meeting import Array
from fennup.core.fit.order import Assembling
from fennup.core.geometry.polygon import hull
from fennup.core.geometry.vec import Point2, Vec, add, cross, scale, unit
from fennup.core.parts.solid import Solid
from fennup.core.saw.tool import Strict
from fennup.core.tolerances import NOTHING, SAME

Clear_mm = Annotated[float, Field(gt=0, le=20_000, allow_inf_nan=False)]
Opening = Literal["door", "stairs", "load"]
Lacks = Literal["width", "height", "length"]
OPENINGS: tuple[Opening, ...] = ("door", "stairs", "load")
UPRIGHT: tuple[Vec, ...] = ((0.0, 0.0, 1.0), (0.0, 1.0, 0.0), (1.0, 0.0, 0.0))
TURN_STEP_DEG, LEAN_STEP_DEG = 5, 0.5
CORNER_STEP_DEG = 0.25
FINEST_DEG = 1e-4  # how near the best lean is looked for: on 20 m that is 0.04 mm
PARTS = 8  # into which a stretch of leans is cut, again and again
HALVINGS = 60
MOST_SPLITS = 2


class Door(Strict):
    """A clear opening, mm."""

    width_mm: Clear_mm = 820.0
    height_mm: Clear_mm = 2000.0


class Stairs(Strict):
    """A stair: clear width, headroom square to its slope, and how deep the landing is on which one turns; without a landing it is straight. mm."""

    width_mm: Clear_mm = 900.0
    head_mm: Clear_mm = 2000.0
    landing_mm: Clear_mm | None = None


class LoadSpace(Strict):
    """Where it is laid to be taken away: inside, mm."""

    width_mm: Clear_mm = 1100.0
    height_mm: Clear_mm = 900.0
    length_mm: Clear_mm = 1800.0


class PassageWishes(Strict):
    """What it must go through; none of what is not said."""

    door: Door | None = None
    stairs: Stairs | None = None
    load: LoadSpace | None = None


@dataclass(frozen=True)
class Turned:
    """How it goes: with which of its directions up, which one ahead, leaning by `lean_deg` (the least to the most that goes) about the way ahead. `wide_mm` and `high_mm`: what it
    then takes in the middle of that, `long_mm` along the way."""

    up: Vec
    ahead: Vec
    least_deg: float
    most_deg: float
    wide_mm: float
    high_mm: float
    long_mm: float

    @property
    def upright(self) -> bool:
        """Whether it need not lean."""
        return self.least_deg <= SAME <= self.most_deg + 2 * SAME or self.least_deg <= 0.0 <= self.most_deg

    @property
    def lean_deg(self) -> float:
        """A lean that goes: none where that does, else the middle."""
        return 0.0 if self.upright else (self.least_deg + self.most_deg) / 2


@dataclass(frozen=True)
class Passing:
    """Whether some boards go through something. `short_mm`: by how much the opening is too small where nothing goes, at the best turn."""

    opening: Opening
    way: Turned | None
    short_mm: float = 0.0
    short_of: Lacks | Literal["turn", ""] = ""


@dataclass(frozen=True)
class Split:
    """Where it comes apart so that all its pieces go through: the pieces, and the joints that are made again behind the door."""

    pieces: tuple[tuple[str, ...], ...]
    joints: tuple[str, ...]
    ways: tuple[tuple[Passing, ...], ...]


def points_of(solids: dict[str, Solid], boards: Sequence[str]) -> Array:
    """All corners of some boards' wood."""
    found = np.array([p for id in boards for piece in solids[id].world for p in piece.points])
    return np.unique(np.round(found, 9), axis=0)


def _attitudes() -> Iterator[tuple[Vec, Vec]]:
    """Every way up, and every way round, that is tried: along its own directions first."""
    for up in UPRIGHT:
        first = next(axis for axis in UPRIGHT[::-1] if axis != up)
        second = cross(up, first)
        turns = sorted(range(0, 180, TURN_STEP_DEG), key=lambda t: (t % 90 != 0, t))
        for turn in turns:
            c, s = np.cos(np.radians(turn)), np.sin(np.radians(turn))
            yield up, unit(add(scale(first, float(c)), scale(second, float(s))))


class _Sides:
    """A silhouette along the way ahead: what it takes in width and height as it leans."""

    def __init__(self, points: Array, up: Vec, ahead: Vec) -> None:
        aside = cross(ahead, up)
        self.flat = np.array(hull([(float(x), float(y)) for x, y in points @ np.array([aside, up]).T]))
        ahead_of = points @ np.array(ahead)
        self.long = float(ahead_of.max() - ahead_of.min())

    def takes(self, lean_deg: Array) -> tuple[Array, Array]:
        """Width and height at some leans."""
        c, s = np.cos(np.radians(lean_deg)), np.sin(np.radians(lean_deg))
        x = self.flat[:, :1] * c - self.flat[:, 1:] * s
        y = self.flat[:, :1] * s + self.flat[:, 1:] * c
        return x.max(axis=0) - x.min(axis=0), y.max(axis=0) - y.min(axis=0)


class Turns:
    """Something seen along every way that is tried, each looked at once."""

    def __init__(self, points: Array) -> None:
        self.points = points
        self._seen: dict[int, tuple[_Sides, Array, Array]] = {}

    def each(self) -> Iterator[tuple[int, Vec, Vec, _Sides, Array, Array]]:
        """Every way: its number, what is up and ahead, the silhouette, the width and the height that it takes as it leans."""
        for number, (up, ahead) in enumerate(_attitudes()):
            if number not in self._seen:
                sides = _Sides(self.points, up, ahead)
                self._seen[number] = (sides, *sides.takes(LEANS))
            yield (number, up, ahead, *self._seen[number])


LEANS = np.arange(-90.0, 90.0 + LEAN_STEP_DEG / 2, LEAN_STEP_DEG)


def through(turns: Turns, wide_mm: float, high_mm: float, most_long_mm: float | None = None) -> Turned | None:
    """How something goes straight through an opening: upright before leaning, along its own directions before askew, the widest range of leans before a narrow one."""
    best: tuple[tuple[float, ...], _Sides, Vec, Vec, int, int] | None = None
    for number, up, ahead, sides, width, height in turns.each():
        if most_long_mm is not None and sides.long > most_long_mm + NOTHING:
            continue
        fits = (width <= wide_mm + NOTHING) & (height <= high_mm + NOTHING)
        for first, last in _runs(fits):
            upright = first <= len(LEANS) // 2 <= last
            askew = float(abs(max(abs(c) for c in ahead) - 1.0) > SAME)
            lean = float(LEANS[first] + LEANS[last]) / 2
            narrow = (float(first - last), abs(lean), float(lean < 0)) if not upright else (0.0, 0.0, 0.0)
            rank = (0.0 if upright else 1.0, askew, *narrow, float(up != UPRIGHT[0]), float(number))
            if best is None or rank < best[0]:
                best = (rank, sides, up, ahead, first, last)
        if best and not any(best[0][:-1]):
            break
    if best is None:
        return _just_through(turns, wide_mm, high_mm, most_long_mm)
    _, sides, up, ahead, first, last = best
    least, most = (_edge(sides, LEANS, k, step, wide_mm, high_mm) for k, step in ((first, -1), (last, 1)))
    way = Turned(up, ahead, least, most, 0.0, 0.0, sides.long)
    taken = sides.takes(np.array([way.lean_deg]))
    return replace(way, wide_mm=float(taken[0][0]), high_mm=float(taken[1][0]))


def _just_through(turns: Turns, wide_mm: float, high_mm: float, most_long_mm: float | None) -> Turned | None:
    """How something goes that goes at no lean that was tried: at one between two of them, the way along which it has most room."""
    found: list[tuple[float, float, _Sides, Vec, Vec]] = []
    for _, up, ahead, sides, width, height in turns.each():
        if most_long_mm is not None and sides.long > most_long_mm + NOTHING:
            continue
        over, lean = _least_over(sides, width, height, wide_mm, high_mm)
        if over <= NOTHING:
            found.append((over, lean, sides, up, ahead))
    if not found:
        return None
    _, lean, sides, up, ahead = min(found, key=lambda one: one[0])
    least, most = (_edge(sides, np.array([lean, lean + step * LEAN_STEP_DEG]), 0, 1, wide_mm, high_mm) for step in (-1, 1))
    taken = sides.takes(np.array([lean]))
    return Turned(up, ahead, least, most, float(taken[0][0]), float(taken[1][0]), sides.long)


def _least_over(sides: _Sides, width: Array, height: Array, wide_mm: float, high_mm: float) -> tuple[float, float]:
    """By how much something is too large at its best lean, mm, and that lean. A corner at a distance r of another moves by no more than r for a radian of
    lean, so what is over changes no faster than the silhouette is wide: only between leans that may still be better it is looked at again, ever finer."""
    steep = float(np.ptp(sides.flat, axis=0) @ np.ptp(sides.flat, axis=0)) ** 0.5 * np.radians(1.0)
    leans, over = LEANS, np.maximum(width - wide_mm, height - high_mm)
    step = LEAN_STEP_DEG
    best = (float(over.min()), float(leans[int(over.argmin())]))
    while step > FINEST_DEG:
        near = leans[over - steep * step / 2 <= best[0]]
        if not near.size or (best[0] <= 0 and step < LEAN_STEP_DEG):
            break
        leans = np.unique((near[:, None] + np.linspace(-step / 2, step / 2, PARTS + 1)).ravel())
        wide, high = sides.takes(leans)
        over, step = np.maximum(wide - wide_mm, high - high_mm), step / PARTS
        best = min(best, (float(over.min()), float(leans[int(over.argmin())])))
    return best


def _runs(fits: np.ndarray[tuple[int, ...], np.dtype[np.bool_]]) -> Iterator[tuple[int, int]]:
    """First and last place of every run of True."""
    edges = np.flatnonzero(np.diff(np.concatenate([[0], fits.astype(int), [0]])))
    yield from ((int(a), int(b) - 1) for a, b in zip(edges[::2], edges[1::2], strict=True))


def _edge(sides: _Sides, leans: Array, k: int, step: int, wide: float, high: float) -> float:
    """Where exactly it stops going through, between a lean that goes and the next one that does not."""
    inside = float(leans[k])
    if not 0 <= k + step < len(leans):
        return inside
    outside = float(leans[k + step])
    for _ in range(HALVINGS):
        middle = (inside + outside) / 2
        width, height = sides.takes(np.array([middle]))
        if width[0] <= wide and height[0] <= high:
            inside = middle
        else:
            outside = middle
    return inside


def longest_round(wide_mm: float, landing_mm: float, thing_mm: float) -> float:
    """How long something as wide as that may be to be turned from a way so wide into one so deep, kept level: the ladder round a corner."""
    angles = np.radians(np.arange(CORNER_STEP_DEG, 90.0, CORNER_STEP_DEG))
    reach = wide_mm / np.cos(angles) + landing_mm / np.sin(angles) - thing_mm / (np.sin(angles) * np.cos(angles))
    return float(reach.min())


def passes(points: Array, wishes: PassageWishes) -> tuple[Passing, ...]:
    """Whether it goes through all that was said."""
    found = []
    turns = Turns(points)
    if wishes.door:
        found.append(_passing("door", turns, wishes.door.width_mm, wishes.door.height_mm, None))
    if wishes.stairs:
        stairs = wishes.stairs
        told = _passing("stairs", turns, stairs.width_mm, stairs.head_mm, None)
        if told.way and stairs.landing_mm:
            most = longest_round(stairs.width_mm, stairs.landing_mm, told.way.wide_mm)
            if told.way.long_mm > most:
                shorter = through(turns, stairs.width_mm, stairs.head_mm, most)
                told = Passing("stairs", shorter) if shorter else Passing("stairs", None, told.way.long_mm - most, "turn")
        found.append(told)
    if wishes.load:
        found.append(_passing("load", turns, wishes.load.width_mm, wishes.load.height_mm, wishes.load.length_mm))
    return tuple(found)


def _passing(opening: Opening, turns: Turns, wide: float, high: float, long: float | None) -> Passing:
    way = through(turns, wide, high, long)
    if way:
        return Passing(opening, way)
    least: tuple[float, Lacks] = (float("inf"), "width")
    for _, _, _, sides, width, height in turns.each():
        _, lean = _least_over(sides, width, height, wide, high)
        takes = sides.takes(np.array([lean]))
        lacks: dict[Lacks, float] = {
            "width": float(takes[0][0] - wide),
            "height": float(takes[1][0] - high),
            "length": sides.long - (long or sides.long),
        }
        what = max(lacks, key=lambda name: lacks[name])
        least = min(least, (lacks[what], what))
    return Passing(opening, None, least[0], least[1])


def splits(assembling: Assembling, boards: Sequence[str], wishes: PassageWishes) -> Split | None:
    """The fewest places where it comes apart so that every piece goes through: where whole assemblies stand on each other, or halves were joined; the last joined first."""
    solids = assembling.design.solids
    pieces: list[tuple[str, ...]] = [tuple(boards)]
    joints: list[str] = []
    for _ in range(MOST_SPLITS * len(assembling.order) + 1):
        ways = [passes(points_of(solids, piece), wishes) for piece in pieces]
        stuck = next((k for k, told in enumerate(ways) if any(p.way is None for p in told)), None)
        if stuck is None:
            return Split(tuple(pieces), tuple(joints), tuple(ways)) if len(pieces) > 1 else None
        parted = _parted(assembling, pieces[stuck])
        if parted is None:
            return None
        one, other, between = parted
        pieces[stuck : stuck + 1] = [one, other]
        joints += between
    return None


def _parted(assembling: Assembling, piece: tuple[str, ...]) -> tuple[tuple[str, ...], tuple[str, ...], tuple[str, ...]] | None:
    """What was joined last of a piece: several boards that came together, else a single one."""
    own = set(piece)
    steps = [step for step in reversed(assembling.order) if set(step.moved) < own]
    steps.sort(key=lambda step: len(step.moved) == 1)
    for step in steps:
        moved = tuple(id for id in piece if id in set(step.moved))
        rest = tuple(id for id in piece if id not in set(step.moved))
        if rest and assembling.free_way(moved, rest) is not None:
            return rest, moved, tuple(m.joint.id for m in assembling.between(moved, rest))
    return None


def silhouettes(solids: dict[str, Solid], boards: Sequence[str], way: Turned) -> list[tuple[str, tuple[Point2, ...]]]:
    """What is seen of every board along the way ahead, the whole leaning as it goes, its lowest at 0 and its middle at 0; the farthest first."""
    aside, lean = cross(way.ahead, way.up), np.radians(way.lean_deg)
    turn = np.array([[np.cos(lean), np.sin(lean)], [-np.sin(lean), np.cos(lean)]])
    axes = np.array([aside, way.up]).T
    flat = {id: points_of(solids, [id]) @ axes @ turn for id in boards}
    whole = np.vstack(list(flat.values()))
    shift = np.array([(whole[:, 0].max() + whole[:, 0].min()) / 2, whole[:, 1].min()])
    far = sorted(boards, key=lambda id: -float((points_of(solids, [id]) @ np.array(way.ahead)).mean()))
    return [(id, hull([(float(x), float(y)) for x, y in flat[id] - shift])) for id in far]
