"""Where two boards meet, as a place on each of them that moves with what is cut: a point, the way the face looks, and the line along which
the joint comes out. Pushed tight, both places lie on each other; so every joint says where its second board lies when its first is held."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from math import cos, radians, sin
from typing import Literal

import numpy as np

from fennup.core.assembly.board import ENDS, Board, End, Side
from fennup.core.assembly.model import Assembly, Joint, Mating
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, add, cross, dot, norm, scale, unit
from fennup.core.parts.solid import Solid, common_area, end_cut
from fennup.core.saw.marking import crossing
from fennup.core.tolerances import NOTHING
from fennup.core.verify.made import end_of

Array = np.ndarray[tuple[int, ...], np.dtype[np.float64]]
What = Literal["length", "swing", "tilt", "thick", "wide"]
IN_LINE = 1e-6  # two unit directions that run alike
TRIED = 1e-5  # by which an error is tried, mm or degrees
SIDES: tuple[Side, ...] = ("face", "back", "upper", "lower")


@dataclass(frozen=True)
class Off:
    """Something about a board that can come out otherwise than planned, mm or degrees: the `length` at an end (+ longer there), the `swing` (its
    miter) or the `tilt` (its bevel) of one cut, how `thick` or how `wide` the board is."""

    board: str
    what: What
    end: End | None = None
    index: int = 0

    @property
    def key(self) -> str:
        """By which it is recorded: `m1/A left:0 swing`, `m1/A thick`."""
        cut = f" {self.end}" if self.what == "length" else f" {self.end}:{self.index}" if self.end else ""
        return f"{self.board}{cut} {self.what}"

    @property
    def is_angle(self) -> bool:
        """Whether it is in degrees."""
        return self.what in ("swing", "tilt")


Offs = Mapping[Off, float]
NONE_OFF: Offs = {}


def offs_of(board: Board) -> Iterator[Off]:
    """All that can come out otherwise: nothing of what is there already."""
    if board.found:
        return
    for end in ENDS:
        if board.ends(end):
            yield Off(board.id, "length", end)
        for index in range(len(board.ends(end))):
            yield Off(board.id, "swing", end, index)
            yield Off(board.id, "tilt", end, index)
    yield Off(board.id, "thick")
    yield Off(board.id, "wide")


def made_plane(board: Board, end: End, index: int, offs: Offs) -> Plane:
    """A cut as it is with these errors, in the board's axes. It is turned about the tip by which it is marked: the farthest long corner."""
    cut = board.ends(end)[index]
    swing, tilt = (offs.get(Off(board.id, what, end, index), 0.0) for what in ("swing", "tilt"))
    longer = offs.get(Off(board.id, "length", end), 0.0)
    if not (swing or tilt or longer):
        return cut
    way = 1.0 if cut.normal[0] > 0 else -1.0
    angles = end_cut(cut)
    miter, bevel = radians(angles.miter_deg + swing), radians(angles.bevel_deg + tilt)
    normal = (way * cos(bevel) * cos(miter), cos(bevel) * sin(miter), sin(bevel))
    x, y, z = tip_of(board, cut)
    return Plane(normal, dot(normal, (x + way * longer, y, z)))


def tip_of(board: Board, cut: Plane) -> Vec:
    """Where a cut goes through the long corner on which it reaches farthest; of equals the lower one on the face."""
    way = 1.0 if cut.normal[0] > 0 else -1.0
    y, z = board.section.width_mm / 2, board.section.thickness_mm / 2
    corners = [(-y, z), (y, z), (-y, -z), (y, -z)]
    found = [(crossing(cut, at), *at) for at in corners]
    return max(found, key=lambda p: (round(way * p[0], 6), -corners.index((p[1], p[2]))))


def made_board(board: Board, offs: Offs) -> Board:
    """The board as it is with these errors: what it is thicker stands at its back, what it is wider at its upper edge."""
    ends = {end: tuple(made_plane(board, end, i, offs) for i in range(len(board.ends(end)))) for end in ENDS}
    made = board.but(left=ends["left"], right=ends["right"])
    thicker, wider = offs.get(Off(board.id, "thick"), 0.0), offs.get(Off(board.id, "wide"), 0.0)
    if not (thicker or wider):
        return made
    section = board.section
    grown = type(section)(section.width_mm + wider, section.thickness_mm + thicker, section.ploughed)
    by: Vec = (0.0, wider / 2, -thicker / 2)  # the section's middle, from where all planes of the board are counted

    def seen(plane: Plane) -> Plane:
        return Plane(plane.normal, plane.offset - dot(plane.normal, by))

    def moved(plane: Plane | None) -> Plane | None:
        return None if plane is None else seen(plane)

    frame = board.frame
    return made.but(
        section=grown,
        frame=type(frame)(frame.to_world(by), frame.x, frame.y, frame.z),
        left=tuple(seen(p) for p in made.left),
        right=tuple(seen(p) for p in made.right),
        upper_rip=moved(board.upper_rip.moved(wider * board.upper_rip.normal[1]) if board.upper_rip else None),
        backing=moved(board.backing.moved(wider * board.backing.normal[1]) if board.backing else None),
        lower_rip=moved(board.lower_rip),
    )


@dataclass(frozen=True)
class Place:
    """A place on a board in the assembly's axes: a point, and as rows the way out of the face, the line of the joint, and the third."""

    point: Array
    axes: Array


@dataclass(frozen=True)
class Meeting:
    """A joint between two boards: `at` in the assembly's axes, `normal` out of its first board, `along` the line by which it comes out on that
    board's face, `wide_mm` and `deep_mm` how far its face reaches along that line and square to it."""

    joint: Joint
    a: Board
    b: Board
    at: Vec
    normal: Vec
    along: Vec
    wide_mm: float
    deep_mm: float
    corners: tuple[Vec, ...]

    @property
    def across(self) -> Vec:
        """In the face, square to the line."""
        return cross(self.normal, self.along)

    def offs(self) -> tuple[Off, ...]:
        """The errors that change it."""
        found: list[Off] = []
        for mating in (self.joint.a, self.joint.b):
            board = self.a if mating is self.joint.a else self.b
            end = end_of(mating)
            if board.found:
                continue
            if end:
                found += [Off(board.id, "length", end[0])]
                found += [Off(board.id, what, *end) for what in ("swing", "tilt")]
            elif mating.facet == "back":
                found.append(Off(board.id, "thick"))
            elif mating.facet == "upper":
                found.append(Off(board.id, "wide"))
        return tuple(found)

    def place(self, first: bool, offs: Offs) -> Place:
        """The place on the first or the second board, the board held where it is planned."""
        mating, board = (self.joint.a, self.a) if first else (self.joint.b, self.b)
        local, look = board.frame.to_local(self.at), scale(self.normal, 1.0 if first else -1.0)
        line = board.frame.direction_to_local(self.along)
        end = end_of(mating)
        normal = board.frame.direction_to_local(look)
        if end:
            cut = made_plane(board, end[0], end[1], offs)
            local = (crossing(cut, (local[1], local[2])), local[1], local[2])
            line, normal = _line_on(board, end, cut, line), cut.normal
        else:
            out = {"back": offs.get(Off(board.id, "thick"), 0.0), "upper": offs.get(Off(board.id, "wide"), 0.0)}
            by = out.get(mating.facet, 0.0)
            local = add(local, scale(normal, by * abs(normal[1] if mating.facet == "upper" else normal[2])))
        out_of = board.frame.direction_to_world(normal)
        n = out_of if first else scale(out_of, -1.0)
        t = board.frame.direction_to_world(line)
        return Place(np.array(board.frame.to_world(local)), np.array([n, t, cross(n, t)]))


def _line_on(board: Board, end: tuple[End, int], cut: Plane, line: Vec) -> Vec:
    """The line of a joint on an end as it is made: where the made face comes out on the same side of the board."""
    true = board.ends(end[0])[end[1]].normal
    for side in ((0.0, 0.0, 1.0), (0.0, 1.0, 0.0)):
        planned = cross(side, true)
        if norm(planned) > IN_LINE and norm(cross(unit(planned), line)) < IN_LINE:
            made = unit(cross(side, cut.normal))
            return made if dot(made, line) > 0 else scale(made, -1.0)
    return unit(add(line, scale(cut.normal, -dot(cut.normal, line))))


class Meetings:
    """All joints of an assembly, and what the errors of the boards do to them."""

    def __init__(self, assembly: Assembly, solids: Mapping[str, Solid]) -> None:
        self.assembly = assembly
        self.solids = solids

    @cached_property
    def all(self) -> dict[str, Meeting]:
        """By the joint's id; without those that touch nowhere."""
        found = {}
        for joint in self.assembly.joints:
            made = self._meeting(joint)
            if made:
                found[joint.id] = made
        return found

    def _meeting(self, joint: Joint) -> Meeting | None:
        first = joint.a if end_of(joint.a) or not end_of(joint.b) else joint.b
        second = joint.b if first is joint.a else joint.a
        turned = joint if first is joint.a else Joint(joint.id, joint.kind, first, second, joint.ends, joint.bare_for)
        a, b = (self.assembly.board(m.board) for m in (first, second))
        points = [p for patch in self._patches(first) for p in patch]
        if joint.kind == "face":  # only where they cross
            touching = common_area(*(self.solids[m.board].patches(m.facet) for m in (first, second)))
            points = [p for patch in touching for p in patch]
        if not points:
            return None
        normal = self._normal(a, first)
        at = max(points, key=lambda p: round(dot(a.frame.z, p) - dot(a.frame.y, p), 6))
        lines = [cross(side, normal) for side in (a.frame.z, a.frame.y)]
        along = unit(next((line for line in lines if norm(line) > IN_LINE), a.frame.x))
        across = cross(normal, along)
        spans = [[dot(p, way) for p in points] for way in (along, across)]
        wide, deep = (max(s) - min(s) for s in spans)
        return Meeting(turned, a, b, at, normal, along, wide, deep, tuple(points))

    def _patches(self, mating: Mating) -> list[tuple[Vec, ...]]:
        return [patch.points for patch in self.solids[mating.board].patches(mating.facet)]

    def _normal(self, board: Board, mating: Mating) -> Vec:
        end = end_of(mating)
        if end:
            return board.frame.direction_to_world(board.ends(end[0])[end[1]].normal)
        return self.solids[board.id].patches(mating.facet)[0].plane.normal

    @cached_property
    def offs(self) -> tuple[Off, ...]:
        """Every error that changes a joint, in the order of the boards."""
        needed = {off for meeting in self.all.values() for off in meeting.offs()}
        return tuple(off for board in self.assembly.boards for off in offs_of(board) if off in needed)


Motion = Array  # 4 x 4, where the assembly's axes go


def motion_of(meeting: Meeting, offs: Offs) -> Motion:
    """How the second board must be moved from where it is planned so that the joint is tight while the first board is held."""
    here, there = meeting.place(True, offs), meeting.place(False, offs)
    turn = here.axes.T @ there.axes
    moved = np.eye(4)
    moved[:3, :3], moved[:3, 3] = turn, here.point - turn @ there.point
    return moved


def twist_of(motion: Motion) -> Array:
    """A motion as six numbers: the turn in degrees, and where it takes the origin, mm. Small ones add up."""
    turn = motion[:3, :3]
    axis = np.array([turn[2, 1] - turn[1, 2], turn[0, 2] - turn[2, 0], turn[1, 0] - turn[0, 1]]) / 2
    size = float(np.linalg.norm(axis))
    angle = np.arctan2(size, (np.trace(turn) - 1) / 2)
    spin = axis * (angle / size if size > NOTHING else 1.0)
    return np.concatenate([np.degrees(spin), motion[:3, 3]])


def at_place(twist: Array, place: Vec) -> Array:
    """A small motion as it is at a place: the turn in degrees, and how the place itself moves, mm."""
    return np.concatenate([twist[:3], twist[3:] + np.cross(np.radians(twist[:3]), np.array(place))])


def slopes(meeting: Meeting, offs: tuple[Off, ...]) -> Array:
    """What one mm or one degree of each error does to the second board's motion: 6 x the errors, by finite differences on the places."""
    found = np.zeros((6, len(offs)))
    own = set(meeting.offs())
    for k, off in enumerate(offs):
        if off in own:
            more, less = (twist_of(motion_of(meeting, {off: sign * TRIED})) for sign in (1.0, -1.0))
            found[:, k] = (more - less) / (2 * TRIED)
    return found
