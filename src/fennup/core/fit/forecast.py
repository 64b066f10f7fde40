"""How well it will close with this saw and this hand: every joint by itself, and what adds up in the last joint of a ring, the constant part and
the scatter apart.

How it is reckoned: what one mm and one degree of each error do at a joint is measured by finite differences on the places where the boards meet (`web`); a
joint turned open by an angle stands open by its line's length times that angle, pushed until a corner touches. Constant errors are summed with their signs;
scatter is drawn at random, always the same numbers, for all errors at once, so that the chance of all joints together is right.
"""

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

import numpy as np

from fennup.core.assembly.board import ENDS, Board, End
from fennup.core.design import Design
from fennup.core.errors import CutError
from fennup.core.fit.hand import Working
from fennup.core.fit.meeting import Array, Meeting, Off, made_plane
from fennup.core.fit.web import Loop, Web, in_joint
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec
from fennup.core.parts.solid import end_cut
from fennup.core.plan import Plan
from fennup.core.tolerances import NOTHING
from fennup.core.verify.made import Ends, rounded_to
from fennup.core.verify.rings import adds_up

TRIALS = 4000
SEED = 20
NINE_IN_TEN = 0.9
Cause = Literal["swing", "tilt", "length", "thick", "wide"]
CAUSES: tuple[Cause, ...] = ("swing", "tilt", "length", "thick", "wide")


@dataclass(frozen=True)
class Opening:
    """What a joint will stand open, mm: what to expect, what nine in ten stay under, what the constant errors alone make of it, how wide the scatter alone is
    (one sigma of the signed opening along the joint's line, `along_sigma_mm`, and through its depth). `chance`: that it stays within the allowance."""

    joint: str
    expect_mm: float
    nine_mm: float
    constant_mm: float
    scatter_mm: float
    along_sigma_mm: float
    along_mm: float
    through_mm: float
    chance: float
    loop: bool = False
    boards: tuple[str, ...] = ()


@dataclass(frozen=True)
class Share:
    """Which part of the scatter's variance, and which of the constant part, comes from one kind of error."""

    cause: Cause
    scatter: float
    constant_mm: float


@dataclass(frozen=True)
class Needs:
    """How exactly one must work so that nine in ten stay under the wished gap: `factor` of today's scatter, none where the constant part alone is more than wished."""

    wished_mm: float
    factor: float | None
    angle_deg: float | None
    length_mm: float | None


@dataclass(frozen=True)
class Forecast:
    """`joints` by themselves, `rings` the last joints of all rings when the others are pushed tight. `chance`: that all stay within the allowance; `worst`: which of them is
    widest in nine of ten; `shares`: what that one depends on, the most first."""

    allowance_mm: float
    working: Working
    joints: tuple[Opening, ...]
    rings: tuple[Opening, ...]
    chance: float
    worst: Opening | None
    shares: tuple[Share, ...]
    needs: Needs | None


class _Row:
    """The gap at one place as it hangs on the errors: two turns that open it, and a shift."""

    def __init__(self, meeting: Meeting, columns: Array, shifting: Array) -> None:
        turns = in_joint(columns, meeting)
        self.meeting = meeting
        self.along = np.radians(turns[2]) * meeting.wide_mm
        self.through = np.radians(turns[1]) * meeting.deep_mm
        self.apart = in_joint(columns * shifting, meeting)[3]

    def gap(self, errors: Array) -> Array:
        """The widest opening for errors in rows, mm; a shift opens it or presses it, either way it does not fit."""
        found: Array = np.abs(errors @ self.along) + np.abs(errors @ self.through) + np.abs(errors @ self.apart)
        return found


class Forecaster:
    """A design with its web, ready to be asked with one hand after another."""

    def __init__(self, design: Design, plan: Plan) -> None:
        self.design = design
        self.plan = plan
        self.web = Web(design.assembly, design.solids)

    @cached_property
    def _lengths(self) -> Array:
        """Which errors shift: lengths, thickness and width; not the angles."""
        return np.array([0.0 if off.is_angle else 1.0 for off in self.web.offs])

    @cached_property
    def _ring_joints(self) -> set[str]:
        return {meeting.joint.id for loop in self.web.rings for meeting in loop.joints}

    @cached_property
    def rows(self) -> tuple[list[_Row], list[tuple[_Row, Loop]]]:
        """Every joint that any error opens by itself, and the last joint of every ring."""
        alone = []
        for meeting in self.web.meetings.all.values():
            if meeting.offs():
                within = meeting.joint.id in self._ring_joints
                alone.append(_Row(meeting, self.web.at_joint(meeting), self._lengths * (0.0 if within else 1.0)))
        return alone, [(_Row(loop.last, self.web.gradient(loop), self._lengths), loop) for loop in self.web.rings]

    def sigmas(self, working: Working) -> Array:
        """One standard deviation of every error. A board has one length: it counts at its right end, or at the only one that is cut."""
        by = {
            "swing": working.angle,
            "tilt": working.angle,
            "length": working.length,
            "thick": working.thick,
            "wide": working.thick,
        }
        return np.array([by[off.what].sigma * self._counts(off) for off in self.web.offs])

    def _counts(self, off: Off) -> float:
        return 1.0 if off.what != "length" or off.end == "right" or not self.web.assembly.board(off.board).right else 0.0

    @cached_property
    def _rounded(self) -> dict[Off, float]:
        """What the steps of the saw's scales and of the tape leave of every cut, with its sign."""
        design, graduation = self.design, self.plan.workshop.graduation_mm
        cutter = rounded_to(design.boards, design.parts, self.plan.settings, self.plan.tools)
        found: dict[Off, float] = {}
        for board in design.assembly.boards:
            if board.found:
                continue
            for end in ENDS:
                for index, cut in enumerate(board.ends(end)):
                    try:
                        normal = None if board.panel else cutter(board, end, cut)
                    except CutError:
                        normal = None
                    if normal is not None:
                        made, true = end_cut(replace(cut, normal=normal)), end_cut(cut)
                        found[Off(board.id, "swing", end, index)] = made.miter_deg - true.miter_deg
                        found[Off(board.id, "tilt", end, index)] = made.bevel_deg - true.bevel_deg
            if graduation:
                low, high = design.solids[board.id].extent_x()
                found[Off(board.id, "length", "right")] = round((high - low) / graduation) * graduation - (high - low)
        return found

    def constants(self, working: Working) -> Array:
        """What comes out on one side always: the steps of the scales, and what was measured of this saw and this hand."""
        found = []
        for off in self.web.offs:
            always = working.length.always if off.what == "length" else 0.0
            if off.is_angle and off.end:
                cut = end_cut(self.web.assembly.board(off.board).ends(off.end)[off.index])
                angle = cut.miter_deg if off.what == "swing" else cut.bevel_deg
                always = -working.angle.always * (0.0 if abs(angle) < NOTHING else 1.0 if angle > 0 else -1.0)
            found.append((self._rounded.get(off, 0.0) + always) * self._counts(off))
        return np.array(found)

    def forecast(self, working: Working, wished_mm: float | None = None, blunt_deg: float = 0.0) -> Forecast:
        """The forecast; `blunt_deg`: by how much more every cut is nearer to square than it is set."""
        allowance = self.plan.workshop.allowance_mm
        angle = replace(working.angle, always=working.angle.always + blunt_deg)
        sigmas, constants = self.sigmas(working), self.constants(replace(working, angle=angle))
        errors = np.random.default_rng(SEED).standard_normal((TRIALS, len(sigmas))) * sigmas
        alone, last = self.rows
        within = np.ones(TRIALS, dtype=bool)
        trials = errors + constants

        as_cut = self._as_cut(constants)

        def opening(row: _Row, loop: Loop | None) -> Opening:
            nonlocal within
            gaps = row.gap(trials)
            if loop or row.meeting.joint.id not in self._ring_joints:
                within &= gaps <= allowance
            told = _opening(row, gaps, constants, sigmas, allowance, loop)
            exact = as_cut.get(told.joint) if loop else None
            return told if exact is None else replace(told, constant_mm=exact + abs(float(constants @ row.apart)))

        joints = tuple(opening(row, None) for row in alone)
        rings = tuple(opening(row, loop) for row, loop in last)
        told = (*rings, *(o for o in joints if o.joint not in self._ring_joints))
        worst = max(told, key=lambda o: (round(o.nine_mm, 6), o.loop), default=None)
        if worst is None:
            return Forecast(allowance, working, joints, rings, 1.0, None, (), None)
        row = next(r for r in ([r for r, _ in last] if worst.loop else alone) if r.meeting.joint.id == worst.joint)
        scatter = float(np.quantile(row.gap(errors), NINE_IN_TEN))
        needs = _needs(worst, wished_mm or allowance, scatter, working)
        return Forecast(
            allowance, working, joints, rings, float(within.mean()), worst, self._shares(row, sigmas, constants), needs
        )

    def _as_cut(self, constants: Array) -> dict[str, float]:
        """What the constant errors of the angles open in the last joint of every ring, the faces as they are then cut: as the verdict reckons it."""
        offs = {off: by for off, by in zip(self.web.offs, constants.tolist(), strict=True) if off.is_angle and by}
        if not offs:
            return {}

        def cutter(board: Board, end: End, cut: Plane) -> Vec:
            return made_plane(board, end, board.ends(end).index(cut), offs).normal

        ends = Ends(self.design.assembly, self.design.solids, cutter)
        return {found.joint: found.opening_mm for found in adds_up(ends, None) if found.joint}

    def _shares(self, row: _Row, sigmas: Array, constants: Array) -> tuple[Share, ...]:
        parts = (row.along * sigmas) ** 2 + (row.through * sigmas) ** 2 + (row.apart * sigmas) ** 2
        fixed = row.along * constants, row.through * constants, row.apart * constants
        whole = float(parts.sum())
        found = []
        for cause in CAUSES:
            own = np.array([off.what == cause for off in self.web.offs])
            share = float(parts[own].sum()) / whole if whole > NOTHING else 0.0
            always = sum(abs(float(f[own].sum())) for f in fixed)
            if share > NOTHING or always > NOTHING:
                found.append(Share(cause, share, always))
        return tuple(sorted(found, key=lambda s: -s.scatter))


def _opening(row: _Row, gaps: Array, constants: Array, sigmas: Array, allowance: float, loop: Loop | None) -> Opening:
    signed = [float(np.linalg.norm(part * sigmas)) for part in (row.along, row.through, row.apart)]
    return Opening(
        row.meeting.joint.id,
        float(gaps.mean()),
        float(np.quantile(gaps, NINE_IN_TEN)),
        float(row.gap(constants[None, :])[0]),
        float(np.linalg.norm(signed)),
        signed[0],
        float(constants @ row.along),
        float(constants @ row.through),
        float((gaps <= allowance).mean()),
        loop is not None,
        tuple(dict.fromkeys(id for m in loop.joints for id in (m.a.id, m.b.id)))
        if loop
        else (row.meeting.a.id, row.meeting.b.id),
    )


def _needs(worst: Opening, wished: float, scatter: float, working: Working) -> Needs:
    """By what factor the scatter must shrink: what the constant part leaves of the wished gap, of what the scatter alone makes of it."""
    left = wished - worst.constant_mm
    if left <= 0 or scatter <= NOTHING:
        return Needs(wished, None, None, None)
    factor = left / scatter
    return Needs(wished, factor, working.angle.sigma * factor, working.length.sigma * factor)
