"""How the boards of an assembly hang together: held by the first of them, each is where tight joints put it, and every joint over and above
those closes a loop that must come out even."""

from collections import deque
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from fennup.core.assembly.model import Assembly
from fennup.core.fit.meeting import (
    Array,
    Meeting,
    Meetings,
    Motion,
    Off,
    Offs,
    at_place,
    motion_of,
    slopes,
    twist_of,
)
from fennup.core.parts.solid import Solid

GROUND = ""  # what is there already stands as one


@dataclass(frozen=True)
class Step:
    """One joint on the way from board to board, gone through from its first board or from its second."""

    meeting: Meeting
    forward: bool


@dataclass(frozen=True)
class Loop:
    """A way round: the joint that closes it, and the joints that lead from that one's first board round to its second."""

    last: Meeting
    way: tuple[Step, ...]

    @property
    def joints(self) -> tuple[Meeting, ...]:
        """All joints of it, the last one last."""
        return (*(step.meeting for step in self.way), self.last)


class Web:
    """An assembly's boards and joints, and how errors of the boards go round in them."""

    def __init__(self, assembly: Assembly, solids: Mapping[str, Solid]) -> None:
        self.assembly = assembly
        self.meetings = Meetings(assembly, solids)
        self.found = {board.id for board in assembly.boards if board.found}

    def body(self, board: str) -> str:
        """What is there already is one body."""
        return GROUND if board in self.found else board

    @cached_property
    def offs(self) -> tuple[Off, ...]:
        """Every error that changes a joint."""
        return self.meetings.offs

    @cached_property
    def place(self) -> dict[Off, int]:
        """In which column an error stands."""
        return {off: k for k, off in enumerate(self.offs)}

    @cached_property
    def slopes(self) -> dict[str, Array]:
        """By joint: what each error does to the motion of its second board against its first, about the assembly's origin."""
        return {id: slopes(meeting, self.offs) for id, meeting in self.meetings.all.items()}

    @cached_property
    def _near(self) -> dict[str, list[Step]]:
        near: dict[str, list[Step]] = {}
        for meeting in self.meetings.all.values():
            a, b = self.body(meeting.a.id), self.body(meeting.b.id)
            if a != b:
                near.setdefault(a, []).append(Step(meeting, True))
                near.setdefault(b, []).append(Step(meeting, False))
        return near

    @cached_property
    def _tree(self) -> tuple[dict[str, tuple[str, Step]], list[str], list[Meeting]]:
        """By board: from which one and by which joint it is reached; in what order; and the joints that are left over."""
        came: dict[str, tuple[str, Step]] = {}
        order: list[str] = []
        starts = [GROUND] if GROUND in self._near else []
        starts += [body for board in self.assembly.boards if (body := self.body(board.id)) in self._near]
        used: set[str] = set()
        for start in starts:
            if start in came or start in order:
                continue
            order.append(start)
            waiting = deque([start])
            while waiting:
                here = waiting.popleft()
                for step in self._near[here]:
                    there = self.body(step.meeting.b.id if step.forward else step.meeting.a.id)
                    if there not in came and there not in order:
                        came[there] = (here, step)
                        used.add(step.meeting.joint.id)
                        order.append(there)
                        waiting.append(there)
        left = [m for id, m in self.meetings.all.items() if id not in used and self.body(m.a.id) != self.body(m.b.id)]
        return came, order, left

    def _up(self, body: str) -> list[tuple[str, Step]]:
        found = []
        came = self._tree[0]
        while body in came:
            before, step = came[body]
            found.append((body, step))
            body = before
        return found

    @cached_property
    def loops(self) -> tuple[Loop, ...]:
        """Every loop, each closed by another joint."""
        found = []
        for last in self._tree[2]:
            a, b = self._up(self.body(last.a.id)), self._up(self.body(last.b.id))
            shared = {id(step) for _, step in a} & {id(step) for _, step in b}
            back = [Step(step.meeting, not step.forward) for _, step in a if id(step) not in shared]
            on = [step for _, step in reversed(b) if id(step) not in shared]
            found.append(Loop(last, (*back, *on)))
        return tuple(found)

    @cached_property
    def rings(self) -> tuple[Loop, ...]:
        """The loops that go round a ring of the assembly, corner by corner, each closed by the ring's last joint."""
        found = []
        for ring in self.assembly.rings:
            own = set(ring.boards)
            joints = [m for m in self.meetings.all.values() if m.a.id in own and m.b.id in own and len(m.joint.ends) == 2]
            found += [Loop(way[-1].meeting, tuple(way[:-1])) for way in _rounds(joints)]
        return tuple(_closed_from_first(loop) for loop in found)

    def mismatch(self, loop: Loop, offs: Offs) -> Array:
        """By how much a loop comes out uneven with these errors, at its last joint: six numbers, the turn in degrees and the shift in mm, of where the
        joint would want its second board against where the other joints bring it."""
        return at_place(twist_of(np.linalg.inv(self._round(loop, offs)) @ motion_of(loop.last, offs)), loop.last.at)

    def _round(self, loop: Loop, offs: Offs) -> Motion:
        moved = np.eye(4)
        for step in loop.way:
            by = motion_of(step.meeting, offs)
            moved = moved @ (by if step.forward else np.linalg.inv(by))
        return moved

    def gradient(self, loop: Loop) -> Array:
        """What each error does to that mismatch: 6 x the errors."""
        total = self.slopes[loop.last.joint.id].copy()
        for step in loop.way:
            total += self.slopes[step.meeting.joint.id] * (-1.0 if step.forward else 1.0)
        return _at_place(total, loop.last)

    def at_joint(self, meeting: Meeting) -> Array:
        """What each error does at a joint whose boards are held where they are planned: 6 x the errors, at the joint's place."""
        return _at_place(self.slopes[meeting.joint.id], meeting)

    def placed(self, offs: Offs) -> dict[str, Motion]:
        """Where every board comes to lie when the joints by which it is reached are tight."""
        came, order, _ = self._tree
        found: dict[str, Motion] = {}
        for body in order:
            if body not in came:
                found[body] = np.eye(4)
                continue
            before, step = came[body]
            by = motion_of(step.meeting, offs)
            found[body] = found[before] @ (by if step.forward else np.linalg.inv(by))
        still = np.eye(4)
        return {board.id: found.get(self.body(board.id), still) for board in self.assembly.boards}


def _at_place(twists: Array, meeting: Meeting) -> Array:
    """Motions about the origin, as columns, as they are at a joint's place."""
    found = twists.copy()
    found[3:] += np.cross(np.radians(twists[:3].T), np.array(meeting.at)).T
    return found


def in_joint(columns: Array, meeting: Meeting) -> Array:
    """Motions at a joint's place in its own axes, each three numbers: along its normal, along its line, across its face; the turns, then the shifts."""
    axes = np.array([meeting.normal, meeting.along, meeting.across])
    return np.concatenate([axes @ columns[:3], axes @ columns[3:]])


def _rounds(joints: list[Meeting]) -> list[list[Step]]:
    """The ways round that some corners make, each as joints from board to board that come back to where they began."""
    after = {meeting.joint.ends[0][0]: meeting for meeting in joints}
    found, seen = [], set[str]()
    for start in after:
        way: list[Step] = []
        here = start
        while here in after and here not in seen:
            seen.add(here)
            meeting = after[here]
            way.append(Step(meeting, meeting.a.id == here))
            here = meeting.joint.ends[1][0]
        if way and here == start:
            found.append(way)
    return found


def _closed_from_first(loop: Loop) -> Loop:
    """The loop as it leads from its last joint's first board round to its second: a ring ends with that joint, gone through forwards or backwards."""
    starts = loop.way[0].meeting.a.id if loop.way[0].forward else loop.way[0].meeting.b.id
    if loop.last.a.id == starts:
        return loop
    return Loop(loop.last, tuple(Step(step.meeting, not step.forward) for step in reversed(loop.way)))
