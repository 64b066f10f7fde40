"""What cuts at other angles than the true ones would leave open, joint by joint, in three dimensions.

How a gap is reckoned: the boards are held in their true planes; each end, cut at the other angles, is slid along its
board until it first touches the joint plane; the gap at a face is the sum of both sides' largest distance from it there.
"""

from collections.abc import Callable
from dataclasses import dataclass
from math import asin, atan, cos, degrees, dist, radians, sin
from typing import Literal

from fennup.core.assembly.board import Board, End
from fennup.core.assembly.model import Assembly, Joint, Mating
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, add, dot, norm, scale, sub
from fennup.core.parts.alike import PartGroup
from fennup.core.parts.solid import Solid, end_cut
from fennup.core.saw.machine import Machine
from fennup.core.saw.pose import FLAT, BladeAngles, blade_angles, cut_normal
from fennup.core.saw.settings import Setting

How = Literal["flat", "on_edge", "swapped"]
ALONG_THE_BOARD = 1e-6
COMPOUND_DEG = 1e-6
UNSEEN_MM = 5e-4
Cutter = Callable[[Board, End, Plane], Vec | None]


@dataclass(frozen=True)
class Gap:
    """What stays open at a joint, mm, at the face and at the back of its boards; `step_mm`: how far its faces are
    shifted along each other."""

    joint: str
    face_mm: float
    back_mm: float
    step_mm: float = 0.0

    @property
    def widest_mm(self) -> float:
        """The wider of the two."""
        return max(self.face_mm, self.back_mm)


@dataclass(frozen=True)
class SimpleGap:
    """What a simple setting would leave open at a joint. `flat`: the neighbour's slope as miter and the plain plan angle as bevel;
    `on_edge`: the plan angle as swing and the slope as tilt, the board on edge; `swapped`: miter and bevel exchanged.
    None where the saw cannot cut so: the blade would run along the board."""

    joint: str
    how: How
    gap: Gap | None


def gaps_as_set(
    assembly: Assembly,
    solids: dict[str, Solid],
    parts: tuple[PartGroup, ...],
    settings: tuple[Setting, ...],
    machine: Machine,
    graduation_mm: float | None = None,
) -> tuple[Gap, ...]:
    """Every joint's gap when the saw stands where its scales can be read.

    With a graduation the lengths are rounded to it as well: what a ring then lacks comes together in its last joint,
    square to the joint plane as a gap, along it as a step.
    """
    pose = {(use.part, use.end, use.index): use.pose for setting in settings for use in setting.uses}
    leader = {board: part.id for part in parts for board in part.boards}

    def rounded(board: Board, end: End, cut: Plane) -> Vec | None:
        lying = pose.get((leader[board.id], end, board.ends(end).index(cut)), FLAT[0])
        exact = blade_angles(cut, lying)
        set_to = BladeAngles(machine.swing_as_set(exact.swing_deg), machine.tilt_as_set(exact.tilt_deg), exact.kept)
        return cut_normal(set_to, lying)

    short = _lacking(assembly, solids, graduation_mm) if graduation_mm else {}
    gaps = []
    for joint in assembly.joints:
        gap = gap_with(assembly, solids, joint, rounded)
        if gap is not None:
            open_mm, step_mm = short.get(joint.id, (0.0, 0.0))
            gaps.append(Gap(gap.joint, gap.face_mm + open_mm, gap.back_mm + open_mm, step_mm))
    return tuple(gaps)


def _lacking(assembly: Assembly, solids: dict[str, Solid], graduation: float) -> dict[str, tuple[float, float]]:
    """By the last joint of every ring: how far its two faces miss each other, square to the joint plane and along it,
    when every long point to long point length is rounded to the tape."""
    after = {joint.ends[0][0]: (joint.ends[1][0], joint) for joint in assembly.joints if len(joint.ends) == 2}
    found: dict[str, tuple[float, float]] = {}
    seen: set[str] = set()
    for start in after:
        total: Vec = (0.0, 0.0, 0.0)
        here, last = start, None
        while here not in seen and here in after:
            seen.add(here)
            low, high = solids[here].extent_x()
            error = round((high - low) / graduation) * graduation - (high - low)
            total = add(total, scale(assembly.board(here).frame.x, error))
            here, last = after[here]
        if last is not None and here == start:
            mating = last.b if ":" in last.b.facet else last.a
            plane = solids[mating.board].patches(mating.facet)[0].plane
            square = dot(total, plane.normal)
            along = norm(sub(total, scale(plane.normal, square)))
            found[last.id] = (abs(square), along)
    return found


def simple_gaps(assembly: Assembly, solids: dict[str, Solid]) -> tuple[SimpleGap, ...]:
    """What every compound joint between two leaning boards would show with a simple setting. Joints alike are told once."""
    told: dict[tuple[How, int, int], SimpleGap] = {}
    for joint in assembly.joints:
        if len(joint.ends) < 2:
            continue
        for how, cutter in _simple(assembly, joint).items():
            gap = gap_with(assembly, solids, joint, cutter)
            if gap and gap.widest_mm < UNSEEN_MM:
                continue
            face, back = (round(1e6 * v) for v in ((gap.face_mm, gap.back_mm) if gap else (-1.0, -1.0)))
            told.setdefault((how, face, back), SimpleGap(joint.id, how, gap))
    return tuple(told.values())


def _simple(assembly: Assembly, joint: Joint) -> dict[How, Cutter]:
    """The simple ways to cut a joint's ends; none where no end of it is compound."""
    boards = [assembly.board(id) for id, _ in joint.ends]
    cuts = [end_cut(board.ends(end)[0]) for board, (_, end) in zip(boards, joint.ends, strict=True)]
    if not any(abs(c.miter_deg) > COMPOUND_DEG and abs(c.bevel_deg) > COMPOUND_DEG for c in cuts):
        return {}
    if any(abs(board.frame.x[2]) > 1e-9 for board in boards):
        return {}
    # Seen from above the two boards turn by this much; half of it is the plain plan angle of a miter, a butt has none.
    turn = degrees(_angle(boards[0].frame.x, boards[1].frame.x))
    plan = turn / 2 if joint.kind == "miter" else turn - 90.0

    # On a board's face the end runs as the neighbour leans: that is the slope that one reads off and sets.
    lean = {boards[i].id: degrees(asin(max(-1.0, min(1.0, boards[1 - i].frame.z[2])))) for i in range(2)}

    def sized(cut: Plane, miter: float, bevel: float) -> Vec:
        m, b, sense = radians(miter), radians(bevel), 1.0 if cut.normal[0] > 0 else -1.0
        return (sense * cos(b) * cos(m), cos(b) * sin(m), sin(b))

    def like(size: float, model: float) -> float:
        return abs(size) if model >= 0 else -abs(size)

    def flat(board: Board, _: End, cut: Plane) -> Vec | None:
        true = end_cut(cut)
        return sized(cut, like(lean[board.id], true.miter_deg), like(plan, true.bevel_deg))

    def on_edge(board: Board, _: End, cut: Plane) -> Vec | None:
        true = end_cut(cut)
        e, t = radians(like(plan, true.edge_trace_deg)), radians(like(lean[board.id], true.miter_deg))
        sense = 1.0 if cut.normal[0] > 0 else -1.0
        return (sense * cos(t) * cos(e), sin(t), cos(t) * sin(e))

    def swapped(_board: Board, _end: End, cut: Plane) -> Vec | None:
        true = end_cut(cut)
        return sized(cut, like(true.bevel_deg, true.miter_deg), like(true.miter_deg, true.bevel_deg))

    return {"flat": flat, "on_edge": on_edge, "swapped": swapped}


def _angle(a: Vec, b: Vec) -> float:
    """Angle between two unit vectors, radians, accurate for small ones too."""
    half = dist(a, b) / 2
    return 2 * atan(half / max(1e-300, (1.0 - min(1.0, half * half)) ** 0.5))


def gap_with(assembly: Assembly, solids: dict[str, Solid], joint: Joint, cutter: Cutter) -> Gap | None:
    """A joint's gap when the ends in it are cut by `cutter`: None where no end is cut, or none can be cut so."""
    faces = backs = 0.0
    ends = 0
    for mating in (joint.a, joint.b):
        opened = _opened(assembly, solids, mating, cutter)
        if opened is None:
            return None
        if not opened:
            continue
        ends += 1
        faces, backs = faces + opened[0], backs + opened[1]
    return Gap(joint.id, faces, backs) if ends else None


def _opened(
    assembly: Assembly, solids: dict[str, Solid], mating: Mating, cutter: Cutter
) -> tuple[float, float] | tuple[()] | None:
    """How far one end, slid to first touch, stands off the joint plane at its face and at its back."""
    name, _, index = mating.facet.partition(":")
    if name not in ("left", "right"):
        return ()
    board = assembly.board(mating.board)
    if board.found or board.panel:  # it is there already, or not cut by this saw
        return ()
    end: End = "left" if name == "left" else "right"
    cut = board.ends(end)[int(index)]
    made = cutter(board, end, cut)
    if made is None or abs(made[0]) < ALONG_THE_BOARD:
        return None
    corners = [p for piece in solids[board.id].local for f in piece.facets if f.name == mating.facet for p in piece.corners(f)]
    if not corners:
        return ()
    # x on the made plane less x on the true one, taken square to the joint plane, up to the slide that is the same for all.
    past = [
        cut.normal[0] * ((cut.normal[1] * y + cut.normal[2] * z) / cut.normal[0] - (made[1] * y + made[2] * z) / made[0])
        for _, y, z in corners
    ]
    first = max(past)
    skin = board.section.thickness_mm / 2 - 1e-6
    face = [first - d for d, p in zip(past, corners, strict=True) if p[2] > skin]
    back = [first - d for d, p in zip(past, corners, strict=True) if p[2] < -skin]
    return max(face, default=0.0), max(back, default=0.0)
