"""Where the work stands, from the records: what is cut and how it came out, what was read, what was agreed, and what is recorded of things that there are no longer."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Literal

from fennup.core.assembly.board import Board
from fennup.core.bench.task import Task
from fennup.core.design import Design
from fennup.core.fit.made import Bench, bench_of, within_reason
from fennup.core.fit.meeting import Off, offs_of
from fennup.core.parts.facts import PartFacts
from fennup.core.parts.solid import end_cut
from fennup.core.records.entry import CutBody, Entry, MeasuredBody, ReadBody
from fennup.core.records.fold import Agreed, agreed_in, fold, read_last
from fennup.core.tolerances import NOTHING

MIRRORED = " mirrored"  # how the key ends by which a part is said to be its own mirror image
MADE = "made "  # how the key of what a part really measures begins
Came = Literal["bench", "typed", "agreed", ""]


@dataclass(frozen=True)
class MadeRow:
    """One thing about a part that can come out otherwise: what it should read on tape, caliper or gauge, and what it does; where that comes from. A gauge lies on the long edge
    and reads 90 less the angle."""

    key: str
    off: Off
    planned: float
    read: float | None
    came: Came


@dataclass(frozen=True)
class Standing:
    """`bench`: errors and cuts, of everything that is known; `read`: the readings at the dry fit by key; `agreed`: what was said yes to, as errors against the plan of parts that
    are still to be cut; `strays`: readings of what is not there; `wrong`: boards that are known to be wrong; `mirrored`: that came out as their own mirror image."""

    bench: Bench
    read: Mapping[str, Entry]
    agreed: Mapping[Off, float]
    sizes: Mapping[str, float]
    rows: Mapping[str, tuple[MadeRow, ...]]
    strays: tuple[Entry, ...]
    wrong: tuple[str, ...]
    mirrored: Mapping[str, Entry]


def standing_of(design: Design, tasks: tuple[Task, ...], entries: Iterable[Entry], known: Iterable[str]) -> Standing:
    """From all entries; `known`: the keys of what can be read at the dry fit."""
    entries = list(entries)
    states = fold(entries)
    from_bench = bench_of(design, tasks, states)
    facts = {id: part for part in design.facts for id in part.group.boards}
    by_key = {f"{MADE}{off.key}": off for board in design.assembly.boards for off in offs_of(board)}
    read, agreed = read_last(entries), agreed_in(entries)
    typed = {
        by_key[key]: _off_of(design, by_key[key], entry.body)
        for key, entry in read.items()
        if key in by_key and isinstance(entry.body, ReadBody)
    }
    cut = set(from_bench.cut) | {f"{off.board} {end}" for off in typed if off.what == "length" for end in ("left", "right")}
    changes = agreed_offs(design, agreed)
    # A part that was cut after something was agreed about it, and not measured, was cut to what was agreed.
    offs = {off: by for off, by in changes.items() if f"{off.board} {off.end}" in cut and _after(agreed, off, tasks, states)}
    offs |= dict(from_bench.offs) | typed
    still = {off: by for off, by in changes.items() if f"{off.board} {off.end}" not in cut}
    bench = Bench(offs, frozenset(cut))
    rows = {
        board.id: tuple(_rows(board, facts[board.id], offs, typed, from_bench.offs))
        for board in design.assembly.boards
        if not board.found and board.id in facts
    }
    of_mirrors = {f"{MADE}{board.id}{MIRRORED}": board.id for board in design.assembly.boards if not board.found}
    mirrored = {of_mirrors[key]: entry for key, entry in read.items() if key in of_mirrors}
    keys = {*known, *by_key, *of_mirrors}
    strays = tuple(entry for key, entry in read.items() if key not in keys)
    wrong = tuple(
        dict.fromkeys(
            task.piece for task in tasks if task.piece and (state := states.get(task.key)) and _is_bad(state.readings.values())
        )
    )
    kept = {key: entry for key, entry in read.items() if key in keys and key not in by_key and key not in of_mirrors}
    return Standing(bench, kept, still, agreed.sizes, rows, strays, wrong, mirrored)


def _is_bad(readings: Iterable[Entry]) -> bool:
    return any(isinstance(entry.body, MeasuredBody) and entry.body.verdict == "wrong" for entry in readings)


def agreed_offs(design: Design, agreed: Agreed) -> dict[Off, float]:
    """What was agreed of parts that are there, as errors against the plan; without what is no correction."""
    by_key = {off.key: off for board in design.assembly.boards for off in offs_of(board)}
    return {by_key[key]: by for key, by in agreed.changes.items() if key in by_key and within_reason(by_key[key], by)}


def _after(agreed: Agreed, off: Off, tasks: tuple[Task, ...], states: Mapping[str, object]) -> bool:
    """Whether the end was cut after its change was agreed."""
    said = agreed.since[off.key]
    for task in tasks:
        state = states.get(task.key)
        cut = getattr(state, "cut", None)
        if (
            task.piece == off.board
            and f" {off.end}:" in task.key
            and cut is not None
            and isinstance(cut.body, CutBody | MeasuredBody)
        ):
            return bool(cut.at > said.at)
    return False


def _off_of(design: Design, off: Off, body: ReadBody) -> float:
    by = body.measured - body.planned
    return by * _turned(design.boards[off.board], off) if off.is_angle else by


def _rows(
    board: Board, facts: PartFacts, offs: Mapping[Off, float], typed: Mapping[Off, float], bench: Mapping[Off, float]
) -> Iterable[MadeRow]:
    """Its length at its last end, its angles, its thickness and its width."""
    every = list(offs_of(board))
    ends = [off for off in every if off.what == "length"]
    known = [off for off in ends if off in offs]
    shown = [known[0] if known else ends[-1]] if ends else []
    for off in (*shown, *(o for o in every if o.what != "length")):
        if off.is_angle and off.end and off.what == "tilt" and abs(end_cut(board.ends(off.end)[off.index]).bevel_deg) < NOTHING:
            continue
        planned = _planned(board, facts, off)
        by = offs.get(off)
        read = None if by is None else planned + by * (1.0 if not off.is_angle else _turned(board, off))
        yield MadeRow(
            f"{MADE}{off.key}",
            off,
            planned,
            read,
            "typed" if off in typed else "bench" if off in bench else "agreed" if by is not None else "",
        )


def _planned(board: Board, facts: PartFacts, off: Off) -> float:
    if off.what == "thick":
        return board.section.thickness_mm
    if off.what == "wide":
        return max(facts.ripped_mm) if facts.ripped_mm else board.section.width_mm
    if off.what == "length":
        low, high = facts.solid.extent_x()
        return max(facts.arrises.values()) if facts.arrises else high - low
    assert off.end is not None
    cut = end_cut(board.ends(off.end)[off.index])
    return 90.0 - abs(cut.miter_deg if off.what == "swing" else cut.bevel_deg)


def _turned(board: Board, off: Off) -> float:
    """Which way an angle's error goes when its gauge reads more: that shows a cut nearer to square."""
    assert off.end is not None
    cut = end_cut(board.ends(off.end)[off.index])
    return 1.0 if (cut.miter_deg if off.what == "swing" else cut.bevel_deg) < 0 else -1.0
