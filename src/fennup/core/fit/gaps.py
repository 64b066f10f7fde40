"""A gap read with a feeler: which cut most likely made it, given all that was read, and what cures it: pull, fill, or cut again at which angle."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from math import atan, degrees
from typing import Literal

import numpy as np

from fennup.core.assembly.board import Side
from fennup.core.fit.forecast import Forecaster
from fennup.core.fit.hand import Working
from fennup.core.fit.made import Bench
from fennup.core.fit.meeting import Array, Meeting, Off
from fennup.core.fit.ways import Finish, fills, pulls
from fennup.core.fit.web import Loop
from fennup.core.geometry.vec import Vec, dot
from fennup.core.parts.solid import end_cut
from fennup.core.tolerances import NOTHING, SAME

SETTING_DEG = 0.15  # one sigma of what a setting itself is off by, the same for all its cuts
FEELER_MM, GAUGE_DEG = 0.05, 0.05  # one sigma of a reading
NO_MATTER_MM = 0.1
OPPOSITE: dict[Side, Side] = {"upper": "lower", "lower": "upper", "face": "back", "back": "face"}
Cure = Literal["leave", "pull", "fill", "recut"]


@dataclass(frozen=True)
class GapRead:
    """A gap at a joint, mm, and at which side of the joint's first board; `even`: as wide on all sides."""

    joint: str
    mm: float
    side: Side | Literal["even"]


@dataclass(frozen=True)
class Cause:
    """One cut, or a setting that several have in common: by how much it is likely off, mm or degrees, and which part of the gap it explains."""

    offs: tuple[Off, ...]
    by: float
    share: float


@dataclass(frozen=True)
class Cured:
    """What to do about a gap. `turn_deg`: by how much one of the two ends is to be cut at another angle, `shave_mm`: how much that takes off where it is widest."""

    read: GapRead
    cure: Cure
    fillable: bool
    pullable: bool
    turn_deg: float
    shave_mm: float
    causes: tuple[Cause, ...]


def side_row(meeting: Meeting, columns: Array, side: Side | Literal["even"]) -> Array:
    """What every error does to the opening at one side of a joint against the side opposite; of an even gap, to its width."""
    normal, at = np.array(meeting.normal), np.array(meeting.at)
    rows = []
    for p in meeting.corners:
        turned = np.cross(np.radians(columns[:3].T), np.array(p) - at)
        rows.append(-(columns[3:].T + turned) @ normal)
    by_corner = np.array(rows)
    if side == "even":
        return np.asarray(by_corner.mean(axis=0))
    here, there = (_at_side(meeting, name) for name in (side, OPPOSITE[side]))
    return np.asarray(by_corner[here].mean(axis=0) - by_corner[there].mean(axis=0))


def _at_side(meeting: Meeting, side: Side) -> list[int]:
    """The corners of a joint's face that lie at one side of its first board."""
    frame = meeting.a.frame
    way: Vec = frame.y if side in ("upper", "lower") else frame.z
    sign = 1.0 if side in ("upper", "face") else -1.0
    reach = [sign * dot(way, p) for p in meeting.corners]
    room = SAME + (max(reach) - min(reach)) / 1000
    return [k for k, v in enumerate(reach) if v > max(reach) - room]


def reach_of(meeting: Meeting, side: Side | Literal["even"]) -> float:
    """How far apart a joint's sides are."""
    return meeting.deep_mm if side in ("face", "back") else meeting.wide_mm


class Causes:
    """The likeliest errors behind what was read: cuts that share a setting also share its error."""

    def __init__(self, forecaster: Forecaster, working: Working, bench: Bench) -> None:
        self.web = forecaster.web
        self.sigmas = forecaster.sigmas(working)
        self.bench = bench
        self.groups = self._settings()

    def _settings(self) -> dict[tuple[str, float], list[tuple[int, float]]]:
        """Cuts of the same angle, each with the sign by which it is turned when the setting is off."""
        found: dict[tuple[str, float], list[tuple[int, float]]] = {}
        for off, k in self.web.place.items():
            if off.is_angle and off.end:
                cut = end_cut(self.web.assembly.board(off.board).ends(off.end)[off.index])
                angle = cut.miter_deg if off.what == "swing" else cut.bevel_deg
                found.setdefault((off.what, round(abs(angle), 3)), []).append((k, -1.0 if angle < -NOTHING else 1.0))
        return {key: cuts for key, cuts in found.items() if len(cuts) > 1}

    def row(self, read: GapRead) -> tuple[Meeting, Array, Loop | None]:
        """How a gap hangs on the errors: in a ring on all of its cuts, the others pushed tight; else on its own."""
        meeting = self.web.meetings.all[read.joint]
        for loop in self.web.rings:
            if any(m.joint.id == read.joint for m in loop.joints):
                return meeting, side_row(meeting, self._moved(loop, meeting), read.side), loop
        return meeting, side_row(meeting, self.web.at_joint(meeting), read.side), None

    def _moved(self, loop: Loop, meeting: Meeting) -> Array:
        """A loop's mismatch as it is at one of its joints when that one is left to the last."""
        columns = self.web.gradient(loop).copy()
        shift = np.array(meeting.at) - np.array(loop.last.at)
        columns[3:] += np.cross(np.radians(columns[:3].T), shift).T
        forward = loop.last is meeting or any(s.meeting is meeting and not s.forward for s in loop.way)
        return columns if forward else -columns

    def behind(self, reads: Iterable[GapRead], corners: Mapping[str, float], asked: GapRead) -> tuple[Cause, ...]:
        """What is likeliest behind one gap, the most first. `corners`: by how many degrees corner angles read more than they should, by joint."""
        rows, values, noise = [], [], []
        for read in reads:
            rows.append(self.row(read)[1])
            values.append(read.mm)
            noise.append(FEELER_MM)
        for joint, off in corners.items():
            if joint in self.web.meetings.all:
                meeting = self.web.meetings.all[joint]
                # A corner reads more by what both cuts together are blunter: that turns the second board about the face's way across.
                columns = self.web.at_joint(meeting)
                turns = np.array([meeting.normal, meeting.along, meeting.across]) @ columns[:3]
                line = turns[2] if meeting.wide_mm >= meeting.deep_mm else turns[1]
                rows.append(line)
                values.append(off)
                noise.append(GAUGE_DEG)
        return self._likeliest(np.array(rows), np.array(values), np.array(noise), self.row(asked)[1], asked.mm)

    def _likeliest(self, rows: Array, values: Array, noise: Array, asked: Array, mm: float) -> tuple[Cause, ...]:
        groups = list(self.groups.values())
        common = np.zeros((len(self.sigmas), len(groups)))
        for g, cuts in enumerate(groups):
            for k, sign in cuts:
                common[k, g] = sign
        # What was measured at the bench is known: it explains what it explains, and the rest is looked for in what was not.
        measured = np.zeros(len(self.sigmas))
        for off, by in self.bench.offs.items():
            if off in self.web.place:
                measured[self.web.place[off]] = by
        sigmas = np.where(measured != 0.0, 0.0, self.sigmas)
        common[measured != 0.0] = 0.0
        spread = np.diag(sigmas**2) + common @ common.T * SETTING_DEG**2
        gain = np.linalg.solve(rows @ spread @ rows.T + np.diag(noise**2), values - rows @ measured)
        own = sigmas**2 * (rows.T @ gain) + measured
        shared = SETTING_DEG**2 * (common.T @ rows.T @ gain)
        offs = self.web.offs
        found = [
            Cause((offs[k],), float(own[k]), float(asked[k] * own[k] / mm)) for k in range(len(offs)) if abs(own[k]) > NOTHING
        ]
        for g, cuts in enumerate(groups):
            share = float(asked @ common[:, g] * shared[g] / mm)
            found.append(Cause(tuple(offs[k] for k, _ in cuts), float(shared[g]), share))
        return tuple(sorted((c for c in found if c.share > 0.02), key=lambda c: -c.share)[:4])

    def cured(
        self, reads: list[GapRead], corners: Mapping[str, float], asked: GapRead, finish: Finish, *, outdoors: bool, shows: bool
    ) -> Cured:
        """What to do about one gap."""
        meeting, _, _ = self.row(asked)
        fillable, pullable = fills(asked.mm, finish, outdoors=outdoors), pulls(asked.mm, meeting.a)
        hidden = asked.side == "back" and not shows
        cure: Cure = (
            "leave"
            if asked.mm <= NO_MATTER_MM
            else "pull"
            if pullable
            else "fill"
            if fillable or (hidden and asked.mm < 3)
            else "recut"
        )
        turn = 0.0 if asked.side == "even" else degrees(atan(asked.mm / max(reach_of(meeting, asked.side), NOTHING)))
        return Cured(asked, cure, fillable, pullable, turn, asked.mm, self.behind(reads, corners, asked) if asked.mm > 0 else ())
