"""Setting out on the ground: what to measure between the places of feet, and which place to move where when readings differ."""

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import combinations
from math import floor, hypot

import numpy as np

from fennup.core.errors import SpecError
from fennup.core.fit.polygon import out_of_square
from fennup.core.geometry.vec import Point2

Pair = tuple[str, str]
HOLD = 1e-4  # how little a place is held where it lies, against a reading: of all ways to lie so the nearest one
UNREAD = 1e-2  # how little a side that was not read is held as planned, against a reading: it gives way only where no reading can be met otherwise
ROUNDS = 60
FLAT_DEG = 90.0
ENOUGH_MM = 1e-9
ON_STUD_MM = 15.0  # so near its middle a screw meets it


@dataclass(frozen=True)
class Move:
    """How far a place is to be moved, mm: to the right along the base line, and away from it."""

    right_mm: float
    back_mm: float


def distances(places: Mapping[str, Point2]) -> dict[Pair, float]:
    """From every place to every other one, mm: sides and diagonals alike."""
    return {(a, b): hypot(places[b][0] - places[a][0], places[b][1] - places[a][1]) for a, b in combinations(places, 2)}


def out_of_square_deg(width: float, depth: float, first: float, second: float) -> float:
    """By how much the corners of a parallelogram are off square, from its sides and both diagonals: + where the first diagonal is the longer one.
    SpecError `diagonals_impossible` where no such sides have them."""
    deg = out_of_square(width, depth, first, second)
    if abs(deg) >= FLAT_DEG or not all(abs(width - depth) < d < width + depth for d in (first, second)):
        raise SpecError("diagonals_impossible", ("readings",))
    return deg


def three_lengths(along: float, across: float, step_mm: float) -> tuple[float, float, float]:
    """Two legs in the proportion of 3 and 4 that fit on two sides, and the length from tip to tip that makes their corner square; the third part
    of the shorter leg is a whole number of steps. SpecError `no_room_for_legs`."""
    parts = max((min(along / a, across / b), a, b) for a, b in ((4, 3), (3, 4)))
    part = floor(parts[0] / step_mm) * step_mm
    if part <= 0:
        raise SpecError("no_room_for_legs", ("step_mm",), mm=step_mm, limit_mm=parts[0])
    return part * parts[1], part * parts[2], part * 5


def moves(places: Mapping[str, Point2], readings: Mapping[Pair, float]) -> dict[str, Move]:
    """Where each place is to be moved so that it lies right: from the shape that meets the readings best and keeps the sides that were not read as
    planned, laid with its first place on the first, and its second on the line to the second. The places are in their order round. SpecError `reading_of_none`, `too_few_readings` where nothing was read."""
    names = list(places)
    for pair in readings:
        if len(set(pair)) < 2 or not set(pair) <= set(names):
            raise SpecError("reading_of_none", ("readings",), name=next((n for n in pair if n not in names), pair[0]))
    if not readings:
        raise SpecError("too_few_readings", ("readings",))
    wanted = np.array([places[name] for name in names], dtype=float)
    base = wanted[1] - wanted[0]
    along = base / np.hypot(*base)
    lies = wanted.copy()
    known = [(names.index(a), names.index(b), read, 1.0) for (a, b), read in readings.items()]
    read_pairs = {frozenset(pair[:2]) for pair in known}
    for i, k in {tuple(sorted((k, (k + 1) % len(names)))) for k in range(len(names))}:
        if i != k and {i, k} not in read_pairs:
            known.append((i, k, float(np.hypot(*(wanted[k] - wanted[i]))), UNREAD))
    for _ in range(ROUNDS):
        rows, off = [], []
        for i, k, read, weight in known:
            apart = lies[k] - lies[i]
            long = np.hypot(*apart)
            row = np.zeros(wanted.shape)
            row[k], row[i] = weight * apart / long, -weight * apart / long
            rows.append(row.ravel())
            off.append(weight * (read - long))
        held = HOLD * np.eye(wanted.size)
        # The first place stays, and the second one on its line.
        fixed = np.zeros((3, wanted.size))
        fixed[0, 0] = fixed[1, 1] = 1.0
        fixed[2, 2:4] = (-along[1], along[0])
        system = np.vstack([np.array(rows), held, fixed / HOLD])
        right = np.concatenate([off, np.zeros(wanted.size), fixed @ (wanted - lies).ravel() / HOLD])
        step = np.linalg.lstsq(system, right, rcond=None)[0].reshape(wanted.shape)
        lies += step
        if np.abs(step).max() < ENOUGH_MM:
            break
    back = np.array((-along[1], along[0]))
    return {name: Move(float((w - at) @ along), float((w - at) @ back)) for name, w, at in zip(names, wanted, lies, strict=True)}


@dataclass(frozen=True)
class Hung:
    """Marks for something that hangs: its middle at 0, hooks left and right of it and how high they are, what carries in the wall behind it."""

    hooks_mm: tuple[float, float]
    up_mm: float
    studs_mm: tuple[float, ...]
    on_studs: bool


def hung(wide_mm: float, top_mm: float, in_mm: float, drop_mm: float, stud_mm: float, studs_apart_mm: float) -> Hung:
    """Where hooks go. SpecError `hooks_cross` where they would lie past each other, `hooks_low` below the floor."""
    half = wide_mm / 2 - in_mm
    if half < 0:
        raise SpecError("hooks_cross", ("site.hooks_in_mm",), mm=in_mm, limit_mm=wide_mm / 2)
    if top_mm <= drop_mm:
        raise SpecError("hooks_low", ("site.drop_mm",), mm=drop_mm, limit_mm=top_mm)
    first = stud_mm - studs_apart_mm * floor((stud_mm + wide_mm / 2) / studs_apart_mm)
    studs = []
    while first <= wide_mm / 2:
        studs.append(first)
        first += studs_apart_mm
    near = all(any(abs(stud - hook) <= ON_STUD_MM for stud in studs) for hook in (-half, half))
    return Hung((-half, half), top_mm - drop_mm, tuple(studs), near)
