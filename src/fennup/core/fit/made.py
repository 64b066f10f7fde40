"""As made: what is cut is fixed as it was measured, and what is still to cut is worked out again so that the whole closes, by the smallest change."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from math import radians

import numpy as np

from fennup.core.assembly.board import ENDS, Board
from fennup.core.bench.task import Task
from fennup.core.design import Design
from fennup.core.errors import CutError
from fennup.core.fit.meeting import Array, Motion, Off, Offs, made_board, made_plane
from fennup.core.fit.web import Loop, Web
from fennup.core.geometry.frame import Frame
from fennup.core.parts.alike import group_parts
from fennup.core.parts.solid import Solid, end_cut, solid_of
from fennup.core.records.entry import MeasuredBody
from fennup.core.records.fold import OPEN, State
from fennup.core.tolerances import NOTHING, ON_LINE, SAME, ZERO
from fennup.core.verify.joints import CLOSED_MM, JointCheck, check_joint

ROUNDS = 12
KEEP = 1e-9  # directions in which nothing can be changed by more than that of the rest
MOST_CHANGED_MM, MOST_CHANGED_DEG = 60.0, 20.0
SOFTLY = 1e-3  # how little a change counts of what is cut to the opening
SEEN_MM = 0.005  # a change that is told


@dataclass(frozen=True)
class Bench:
    """What the bench knows: errors of what is cut, as far as they were measured; which ends are cut, `m1/A left`."""

    offs: Offs
    cut: frozenset[str]

    def is_cut(self, board: Board) -> bool:
        """Whether all its ends are."""
        return all(f"{board.id} {end}" in self.cut for end in ENDS if board.ends(end))


def bench_of(design: Design, tasks: Iterable[Task], states: Mapping[str, State]) -> Bench:
    """From the tasks of the plan and what holds of them: lengths, angles and widths as last measured, of what is cut and not known to be begun anew."""
    offs: dict[Off, float] = {}
    done: dict[str, bool] = {}
    for task in tasks:
        if task.doing != "step" or not task.piece:
            continue
        state = states.get(task.key, OPEN)
        where = task.key.removeprefix(task.piece).strip()
        end, colon, index = where.partition(":")
        if colon and end in ENDS:
            key = f"{task.piece} {end}"
            done[key] = done.get(key, True) and state.cut is not None
        if state.cut is None:
            continue
        board = design.boards[task.piece]
        expected = {check.what: check.expected for check in task.checks}
        for what, entry in state.readings.items():
            if isinstance(entry.body, MeasuredBody) and what in expected:
                off = entry.body.measured - expected[what]
                if what == "width":
                    offs[Off(board.id, "wide")] = off
                elif end in ENDS and colon:
                    offs |= _at_end(board, end, int(index), what, off)
    return Bench(offs, frozenset(key for key, cut in done.items() if cut))


def _at_end(board: Board, end: str, index: int, what: str, off: float) -> dict[Off, float]:
    """A reading at the bench as an error. An angle is read against the long edge, 90 less miter or bevel: what reads more is blunter."""
    if what == "length":
        return {Off(board.id, "length", end): off}  # type: ignore[arg-type]
    if what not in ("face", "tilt"):
        return {}
    cut = end_cut(board.ends(end)[index])  # type: ignore[arg-type]
    angle = cut.miter_deg if what == "face" else cut.bevel_deg
    sharper = off if angle < 0 else -off
    return {Off(board.id, "swing" if what == "face" else "tilt", end, index): sharper}  # type: ignore[arg-type]


@dataclass(frozen=True)
class Loose:
    """A loop that does not come out even: by how much at its last joint, mm."""

    loop: Loop
    mm: float


@dataclass(frozen=True)
class Settled:
    """What must change so that it closes, mm and degrees by error; and what stays open where nothing that may change helps."""

    changes: Offs
    left: tuple[Loose, ...]

    @property
    def closes(self) -> bool:
        """Whether everything comes out even."""
        return not self.left

    @property
    def told(self) -> dict[Off, float]:
        """The changes that can be seen."""
        return {off: by for off, by in self.changes.items() if abs(by) > SEEN_MM}


class Solver:
    """Finds the smallest change of some ends after which all loops come out even."""

    def __init__(self, web: Web) -> None:
        self.web = web
        self.soft: frozenset[str] = frozenset()

    @cached_property
    def rows(self) -> Array:
        """What every error does to all loops, in mm: a turn counts by what it opens over the joint."""
        parts = [self._in_mm(loop)[:, None] * self.web.gradient(loop) for loop in self.web.loops]
        return np.vstack(parts) if parts else np.zeros((0, len(self.web.offs)))

    def _in_mm(self, loop: Loop) -> Array:
        turn = radians(1.0) * max(loop.last.wide_mm, loop.last.deep_mm, 1.0)
        return np.array([turn, turn, turn, 1.0, 1.0, 1.0])

    def uneven(self, offs: Offs) -> Array:
        """By how much all loops are out, mm."""
        parts = [self._in_mm(loop) * self.web.mismatch(loop, offs) for loop in self.web.loops]
        return np.concatenate(parts) if parts else np.zeros(0)

    def size(self, loop: Loop, offs: Offs) -> float:
        """By how much one loop is out at most, mm."""
        return float(np.abs(self._in_mm(loop) * self.web.mismatch(loop, offs)).max())

    def weight(self, off: Off) -> float:
        """What a change of one unit counts: mm as they are, degrees by what they open over the board."""
        softly = SOFTLY if off.board in self.soft else 1.0
        if not off.is_angle:
            return softly
        section = self.web.assembly.board(off.board).section
        return softly * radians(1.0) * (section.width_mm if off.what == "swing" else section.thickness_mm)

    def settle(self, fixed: Offs, free: Iterable[Off], soft: frozenset[str] = frozenset()) -> Settled:
        """The smallest change (least sum of squares) of what is free with what is fixed as it is; lengths alone where that does. What is `soft`, boards that are cut to the
        opening, takes what it can before anything else changes."""
        self.soft = soft
        may = [off for off in free if off in self.web.place]
        lengths = [off for off in may if not off.is_angle]
        found = self._least(fixed, lengths)
        return found if found.closes or len(lengths) == len(may) else self._least(fixed, may)

    def _least(self, fixed: Offs, free: list[Off]) -> Settled:
        weights = np.array([self.weight(off) for off in free])
        columns = self.rows[:, [self.web.place[off] for off in free]] / weights if free else np.zeros((len(self.rows), 0))
        change = np.zeros(len(free))
        offs = dict(fixed)
        out = self.uneven(offs)
        for _ in range(ROUNDS):
            if not free or float(np.abs(out).max(initial=0.0)) < NOTHING:
                break
            wanted = columns @ change - out
            step, *_ = np.linalg.lstsq(columns, wanted, rcond=KEEP)
            if float(np.abs(step - change).max()) < NOTHING / 10:
                break
            change = step
            offs = {**fixed, **{off: fixed.get(off, 0.0) + by for off, by in zip(free, (change / weights).tolist(), strict=True)}}
            out = self.uneven(offs)
        changes = dict(zip(free, (change / weights).tolist(), strict=True)) if free else {}
        left = []
        for k, loop in enumerate(self.web.loops):
            size = float(np.abs(out[6 * k : 6 * k + 6]).max())
            if size > CLOSED_MM:
                left.append(Loose(loop, size))
        return Settled(changes, tuple(left))


def free_offs(design: Design, web: Web, bench: Bench, kept: frozenset[str] = frozenset()) -> tuple[Off, ...]:
    """What may still change: ends that are not cut, of parts that are not kept as planned."""
    found = []
    for off in web.offs:
        board = design.boards[off.board]
        if off.end and f"{off.board} {off.end}" not in bench.cut and board.id not in kept:
            found.append(off)
    return tuple(found)


@dataclass(frozen=True)
class AsMade:
    """The boards as made and as they then lie, with their solids and how the joints meet."""

    boards: Mapping[str, Board]
    solids: Mapping[str, Solid]
    joints: tuple[JointCheck, ...]


def as_made(design: Design, web: Web, offs: Offs) -> AsMade:
    """The assembly with these errors: boards cut so, laid where tight joints put them; every joint measured on the solids. CutError where a board vanishes."""
    by_board: dict[str, dict[Off, float]] = {}
    for off, by in offs.items():
        if abs(by) > NOTHING:
            by_board.setdefault(off.board, {})[off] = by
    places = web.placed(offs)
    boards, solids = {}, {}
    still = np.eye(4)
    for board in design.assembly.boards:
        made = made_board(board, by_board[board.id]) if board.id in by_board else board
        place = places[board.id]
        moved = made if np.allclose(place, still, atol=ZERO) else made.but(frame=_moved(made.frame, place))
        boards[board.id] = moved
        solids[board.id] = design.solids[board.id] if moved is board else solid_of(moved)
    assembly = replace(design.assembly, boards=tuple(boards.values()))
    return AsMade(boards, solids, tuple(check_joint(assembly, joint, solids) for joint in design.assembly.joints))


def within_reason(off: Off, by: float) -> bool:
    """Whether a change is a correction at all: larger ones are slips."""
    return abs(by) <= (MOST_CHANGED_DEG if off.is_angle else MOST_CHANGED_MM)


def with_changes(design: Design, offs: Offs) -> Design:
    """The design with some parts to be cut otherwise, as the saw and the bench need it: new parts and new solids, laid where tight joints put them; how the joints of the plan
    meet stays as it was told. CutError where a board, or a face that something stands on, would vanish."""
    by_board: dict[str, dict[Off, float]] = {}
    for off, by in offs.items():
        by_board.setdefault(off.board, {})[off] = by
    places, still = Web(design.assembly, design.solids).placed(offs), np.eye(4)
    boards, solids = [], {}
    for board in design.assembly.boards:
        made = made_board(board, by_board[board.id]) if board.id in by_board else board
        place = places[board.id]
        boards.append(made if np.allclose(place, still, atol=ZERO) else made.but(frame=_moved(made.frame, place)))
        solids[board.id] = design.solids[board.id] if boards[-1] is board else solid_of(boards[-1])
    for mating in (m for joint in design.assembly.joints for m in (joint.a, joint.b)):
        if (
            mating.board in by_board
            and design.solids[mating.board].patches(mating.facet)
            and not solids[mating.board].patches(mating.facet)
        ):
            raise CutError("nothing_left", (mating.board,))
    parts = group_parts(tuple(b for b in boards if not b.found), solids)
    return replace(design, assembly=replace(design.assembly, boards=tuple(boards)), solids=solids, parts=parts)


def _moved(frame: Frame, motion: Motion) -> Frame:
    def turned(v: tuple[float, float, float]) -> tuple[float, float, float]:
        x, y, z = (motion[:3, :3] @ np.array(v)).tolist()
        return (x, y, z)

    x, y, z = (motion[:3, :3] @ np.array(frame.origin) + motion[:3, 3]).tolist()
    return Frame((x, y, z), turned(frame.x), turned(frame.y), turned(frame.z))


def only_shorter(design: Design, board: Board, before: Offs, after: Offs) -> bool:
    """Whether a part that is cut already can still become what it then would be: every new cut takes wood off, or leaves all as it is."""
    for end in ENDS:
        for index in range(len(board.ends(end))):
            corners = [
                p
                for piece in design.solids[board.id].local
                for f in piece.facets
                if f.name == f"{end}:{index}"
                for p in piece.corners(f)
            ]
            old, new = (made_plane(board, end, index, offs) for offs in (before, after))
            for _, y, z in corners:
                x_old, x_new = ((p.offset - p.normal[1] * y - p.normal[2] * z) / p.normal[0] for p in (old, new))
                if (x_new - x_old) * (1 if end == "right" else -1) > ON_LINE + SAME:
                    return False
    return True
