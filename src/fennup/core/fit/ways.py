"""Ways out when a part is not as it should be: trim it, cut others anew, spread the difference, put something between, use it elsewhere, cut it again, or leave it."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from itertools import combinations
from math import comb, radians
from typing import Literal

import numpy as np

from fennup.core.assembly.board import ENDS, Board, End, Notch
from fennup.core.bench.rescue import other_uses
from fennup.core.bench.task import Check
from fennup.core.design import Design
from fennup.core.fit.made import KEEP, Bench, Solver, only_shorter
from fennup.core.fit.meeting import Meeting, Off, Offs, made_plane
from fennup.core.fit.web import Loop, Web, at_place, in_joint
from fennup.core.geometry.plane import Plane
from fennup.core.parts.alike import fingerprint
from fennup.core.parts.solid import end_cut, solid_of
from fennup.core.tolerances import NOTHING, ON_LINE
from fennup.core.verify.joints import CLOSED_MM

Kind = Literal["trim", "recut_others", "spread", "spacer", "use", "recut", "leave"]
Finish = Literal["paint", "clear", "oil", "bare"]
MOST_OTHERS = 3
MOST_TRIED, MOST_WORKED_OUT = 3000, 12
LOOPS = 3.0  # of the room squared: what may be left over all figures of a loop
ALMOST = 1e-4  # of what is uneven: what the slopes alone leave of it where a change may do
# The widest gap that a filler hides under a finish, mm: typical, indoors; outdoors wood moves and half of it holds.
FILLED_MM: dict[Finish, float] = {"paint": 1.5, "clear": 0.5, "oil": 0.3, "bare": 0.2}
PULLED_MM = 0.3  # what a clamp may close per 20 mm of wood before it springs back


@dataclass(frozen=True)
class WayOut:
    """One way out. `changes`: what is cut otherwise then; `pieces`: the parts that are cut or used; `cuts`: how many cuts that takes, `wood_mm` how much new board; `gap_mm`:
    what stays open, at `joint`; `needs_mm`: how long a piece must be to be used elsewhere."""

    kind: Kind
    pieces: tuple[str, ...] = ()
    changes: Offs = field(default_factory=dict)
    cuts: int = 0
    wood_mm: float = 0.0
    gap_mm: float = 0.0
    joint: str = ""
    needs_mm: float = 0.0
    same_part: bool = False


@dataclass(frozen=True)
class Shave:
    """So much comes off an end of a piece, along its length at the tip by which it is marked, at these angles."""

    piece: str
    end: End
    off_mm: float
    swing_deg: float
    tilt_deg: float


class WaysOut:
    """Finds what can be done about one spoiled part, given what is made already. `room_mm`: what may stay open where few parts are to be cut; `last_ends`: which end
    of a board is cut last."""

    def __init__(
        self,
        design: Design,
        web: Web,
        bench: Bench,
        kerf_mm: float,
        kept: frozenset[str] = frozenset(),
        room_mm: float = 0.0,
        last_ends: Mapping[str, End] | None = None,
    ) -> None:
        self.design = design
        self.web = web
        self.bench = bench
        self.kerf = kerf_mm
        self.kept = kept
        self.room_mm = room_mm
        self.last_ends = last_ends or {}

    @cached_property
    def solver(self) -> Solver:
        """Shared by all ways."""
        return Solver(self.web)

    def ways(self, piece: str, offs: Offs | None = None) -> list[WayOut]:
        """All ways out of one part, the best first: no new wood before new wood, few cuts before many."""
        made = dict(self.bench.offs if offs is None else offs)
        own = {off: by for off, by in made.items() if off.board == piece}
        found = [*self._trim(piece, own), *self._others(piece, made), *self._spread(piece, made), *self._spacer(piece, own, made)]
        found += [*self._uses(piece), self._recut(piece), self._leave(piece, made)]
        return sorted(found, key=_rank)

    def _is_cut(self, off: Off) -> bool:
        return f"{off.board} {off.end}" in self.bench.cut

    def _trim(self, piece: str, own: Offs) -> Iterable[WayOut]:
        """Cut it nearer, where that takes off everywhere: too long, or too blunt with length to spare."""
        board = self.design.boards[piece]
        if any(abs(by) > NOTHING for by in own.values()) and only_shorter(self.design, board, own, {}):
            changed = {off: -by for off, by in own.items() if off.end}
            ends = {off.end for off in changed if abs(changed[off]) > NOTHING}
            if ends:
                yield WayOut("trim", (piece,), changed, len(ends))

    def _loops(self, piece: str) -> list[Loop]:
        return [loop for loop in self.web.loops if any(piece in (m.a.id, m.b.id) for m in loop.joints)]

    def _others(self, piece: str, made: Offs) -> Iterable[WayOut]:
        """The fewest other parts that make it close, cut ones only shorter; of as many parts the smallest change."""
        near = {id for loop in self._loops(piece) for m in loop.joints for id in (m.a.id, m.b.id)} - {piece}
        others = [b for b in self.design.assembly.boards if b.id in near and not b.found and b.id not in self.kept]
        for count in range(1, MOST_OTHERS + 1):
            if comb(len(others), count) > MOST_TRIED:
                return
            tried = self._near_enough(tuple(combinations(others, count)), made)
            found = [way for several in tried[:MOST_WORKED_OUT] if (way := self._with(several, made))]
            if found:
                yield min(found, key=lambda w: (w.cuts, w.gap_mm > CLOSED_MM, sum(by * by for by in w.changes.values())))
                return

    def _with(self, several: tuple[Board, ...], made: Offs) -> WayOut | None:
        ids = {board.id for board in several}
        columns = [off for off in self.web.offs if off.board in ids and off.what == "length"]
        settled = self.solver.settle(made, columns)
        left = max((loose.mm for loose in settled.left), default=0.0)
        if left > self.room_mm:
            return None
        after = {**made, **{off: made.get(off, 0.0) + by for off, by in settled.changes.items()}}
        one_end = {}
        for board in several:
            change = sum(by for off, by in settled.changes.items() if off.board == board.id)
            if abs(change) < max(NOTHING, self.room_mm / 4):
                return None  # a part that hardly changes need not
            cut = self.bench.is_cut(board)
            own = {off: by for off, by in made.items() if off.board == board.id}
            if cut and not only_shorter(self.design, board, own, {off: by for off, by in after.items() if off.board == board.id}):
                return None
            # What comes off a cut part comes off one end: the one that its length is taken to.
            one_end[Off(board.id, "length", self.last_ends.get(board.id, "right" if board.right else "left"))] = change
        cuts = sum(self.bench.is_cut(board) for board in several)
        return WayOut("recut_others", tuple(b.id for b in several), one_end, cuts, gap_mm=left)

    def _near_enough(self, several: tuple[tuple[Board, ...], ...], made: Offs) -> list[tuple[Board, ...]]:
        """Those of some sets of parts whose lengths come near enough at all: told by the slopes alone, before any is worked out."""
        rows, out = self.solver.rows, self.solver.uneven(made)
        whole = float(out @ out)
        if whole < NOTHING:
            return []
        grams, pulls_ = rows.T @ rows, rows.T @ out
        places = {
            board.id: [k for off, k in self.web.place.items() if off.board == board.id and off.what == "length"]
            for of in several
            for board in of
        }
        found = []
        for of in several:
            own = [k for board in of for k in places[board.id]]
            if own:
                gained = pulls_[own] @ np.linalg.pinv(grams[np.ix_(own, own)], rcond=KEEP, hermitian=True) @ pulls_[own]
                if whole - float(gained) < max(ALMOST * whole, LOOPS * self.room_mm**2):
                    found.append(of)
        return found

    def _spread(self, piece: str, made: Offs) -> Iterable[WayOut]:
        """The smallest change over all that is not cut yet."""
        free = [off for off in self.web.offs if off.end and off.board not in (piece, *self.kept) and not self._is_cut(off)]
        if not free:
            return
        settled = self.solver.settle(made, free)
        if settled.closes and settled.told:
            pieces = tuple(dict.fromkeys(off.board for off in settled.told))
            yield WayOut("spread", pieces, settled.told)

    def _spacer(self, piece: str, own: Offs, made: Offs) -> Iterable[WayOut]:
        """A thin strip in the joint of a part that is only too short: as thick as it lacks, square to the joint."""
        short = -sum(by for off, by in own.items() if off.what == "length")
        angles = [by for off, by in own.items() if off.is_angle]
        if short <= ON_LINE or any(abs(by) > NOTHING for by in angles):
            return
        joints = [m for m in self.web.meetings.all.values() if piece in (m.a.id, m.b.id)]
        if joints:
            last = joints[-1]
            board = self.design.boards[piece]
            thick = short * abs(float(np.dot(np.array(last.normal), np.array(board.frame.x))))
            if thick > ON_LINE:
                yield WayOut("spacer", (piece,), {}, 1, gap_mm=thick, joint=last.joint.id)

    def _uses(self, piece: str) -> Iterable[WayOut]:
        """As another part: at once where it is that part when turned over or of the other hand, else shortened."""
        by_board = {id: facts for facts in self.design.facts for id in facts.group.boards}
        facts = by_board.get(piece)
        if facts is None or not facts.arrises:
            return
        for other in self.design.facts:
            if (other.key != facts.key and facts.key in (other.group.mirror_of, other.group.turned_over_of)) or other.key in (
                facts.group.mirror_of,
                facts.group.turned_over_of,
            ):
                yield WayOut("use", other.group.boards, same_part=True)
        length = max(facts.arrises.values())
        check = Check("length", length, "mm", 0.5, 1.0, 5.0, 1.0)
        for use in other_uses(facts, check, tuple(self.design.facts), self.kerf):
            open_ = tuple(id for id in use.pieces if not self.bench.is_cut(self.design.boards[id]))
            if open_:
                yield WayOut("use", open_, cuts=2, needs_mm=use.needs_mm)

    def mirrored(self, piece: str) -> list[WayOut]:
        """What can be done with a part that came out as its own mirror image: nothing, where it is the same part when it is turned; as another part that is just that; shortened; else
        cut again."""
        facts = next(facts for facts in self.design.facts if piece in facts.group.boards)
        made = mirror_image(facts.board)
        print_ = fingerprint(made, solid_of(made))
        if print_ == facts.fingerprint:
            return [WayOut("leave", (piece,), same_part=True)]
        exact = [other for other in self.design.facts if other.fingerprint == print_]
        found = [WayOut("use", other.group.boards, same_part=True) for other in exact]
        others = [way for way in self._uses(piece) if not way.same_part]
        return sorted([*found, *others, self._recut(piece)], key=_rank)

    def _recut(self, piece: str) -> WayOut:
        low, high = self.design.solids[piece].extent_x()
        board = self.design.boards[piece]
        return WayOut("recut", (piece,), {}, sum(len(board.ends(end)) for end in ENDS), wood_mm=high - low + 2 * self.kerf)

    def _leave(self, piece: str, made: Offs) -> WayOut:
        """What stays open then: at that joint of the part where all that is uneven can be left and where it opens least; where no one joint can take it all, the
        widest."""
        uneven = [loop for loop in self._loops(piece) if self.solver.size(loop, made) > CLOSED_MM]
        if not uneven:
            return WayOut("leave", (piece,))
        open_at: dict[str, list[float]] = {}
        for loop in uneven:
            for m in loop.joints:
                if piece in (m.a.id, m.b.id):
                    open_at.setdefault(m.joint.id, []).append(gap_of(self.web, loop, m, made))
        takes_all = {joint: max(gaps) for joint, gaps in open_at.items() if len(gaps) == len(uneven)}
        if takes_all:
            gap, joint = min((gap, joint) for joint, gap in takes_all.items())
        else:
            gap, joint = max((max(gaps), joint) for joint, gaps in open_at.items())
        return WayOut("leave", (piece,), gap_mm=gap, joint=joint)


def mirror_image(board: Board) -> Board:
    """The board as it comes out when it is cut the wrong way round: what was left is right."""

    def turned(plane: Plane) -> Plane:
        x, y, z = plane.normal
        return Plane((-x, y, z), plane.offset)

    reach = (-board.reach[1], -board.reach[0]) if board.reach else None
    notches = tuple(Notch(tuple(turned(p) for p in notch.planes)) for notch in board.notches)
    holes = tuple(replace(hole, x_mm=-hole.x_mm) for hole in board.holes)
    left, right = (tuple(turned(p) for p in cuts) for cuts in (board.right, board.left))
    return board.but(left=left, right=right, reach=reach, notches=notches, holes=holes)


def gap_of(web: Web, loop: Loop, meeting: Meeting, offs: Offs) -> float:
    """How far a joint of a loop stands open, or its edges out of line where that is more, when all its other joints are tight, mm."""
    twist = web.mismatch(loop, offs)
    about = at_place(twist, (-loop.last.at[0], -loop.last.at[1], -loop.last.at[2]))
    moved = in_joint(at_place(about, meeting.at)[:, None], meeting)[:, 0]
    opens = abs(moved[3]) + abs(radians(moved[2])) * meeting.wide_mm + abs(radians(moved[1])) * meeting.deep_mm
    return float(max(opens, np.hypot(moved[4], moved[5])))


_ORDER: tuple[Kind, ...] = ("trim", "recut_others", "spread", "use", "spacer", "leave", "recut")


def _rank(way: WayOut) -> tuple[float, ...]:
    """No new wood before new wood; then by how many cuts; what leaves a gap behind what closes."""
    if way.kind == "use" and way.same_part:
        return (0.0, 0.0, 0.0)
    gap = way.gap_mm if way.kind in ("leave", "spacer") else 0.0
    return (
        1.0 if way.wood_mm else 0.0 if gap < CLOSED_MM else 0.5,
        way.cuts + (2 if way.kind == "use" else 0),
        float(_ORDER.index(way.kind)),
    )


def shave(design: Design, off: Offs, piece: str, end: End) -> Shave | None:
    """How an end that is to change is cut: so much off its tip at these angles; None where nothing comes off there."""
    board = design.boards[piece]
    planned = board.ends(end)
    if not planned:
        return None
    made = made_plane(board, end, 0, off)
    angles = end_cut(made)
    return Shave(piece, end, -off.get(Off(piece, "length", end), 0.0), angles.miter_deg, angles.bevel_deg)


def fills(gap_mm: float, finish: Finish, *, outdoors: bool) -> bool:
    """Whether a filler hides a gap under a finish for good."""
    return gap_mm <= FILLED_MM[finish] * (0.5 if outdoors else 1.0)


def pulls(gap_mm: float, board: Board) -> bool:
    """Whether a clamp may pull a gap shut: the thinner the wood, the more of it bends."""
    return gap_mm <= PULLED_MM * max(1.0, 20.0 / board.section.thickness_mm)
