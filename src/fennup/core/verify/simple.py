"""What plain settings in place of the compound pair would open at a joint of two leaning boards."""

from dataclasses import dataclass
from math import asin, atan, cos, degrees, dist, radians, sin
from typing import Literal

from fennup.core.assembly.board import Board, End
from fennup.core.assembly.model import Assembly, Joint
from fennup.core.errors import CutError
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, dot
from fennup.core.parts.alike import PartGroup
from fennup.core.parts.solid import Solid, end_cut
from fennup.core.tolerances import NOTHING, UNSEEN_MM
from fennup.core.verify.made import Cutter, Ends
from fennup.core.verify.slid import Gap, gap_at

How = Literal["flat", "on_edge", "swapped", "from_vertical", "from_level"]
LEAST = 1e-300  # not to divide by nothing
COMPOUND_DEG = 1e-6


@dataclass(frozen=True)
class SimpleGap:
    """What a simple reading of the angles would leave open at a joint. The ways, with p the plain plan angle:

    `flat` the neighbour's slope as swing and p as tilt; `from_vertical` p as swing and the slope from vertical as tilt;
    `from_level` p as swing and the slope from level as tilt; `swapped` swing and tilt exchanged; `on_edge` the board on edge,
    p as swing and the slope as tilt. `swing_deg` and `tilt_deg` are what that comes to at the first board's end, without
    signs. `gap` is None where it would be wider than the joint is long: then it does not come together at all.
    """

    joint: str
    how: How
    swing_deg: float
    tilt_deg: float
    gap: Gap | None


def simple_gaps(assembly: Assembly, solids: dict[str, Solid], parts: tuple[PartGroup, ...]) -> tuple[SimpleGap, ...]:
    """What every compound joint between two leaning boards would show. Joints alike are told once."""
    found: dict[tuple[How, int, int], SimpleGap] = {}
    seen: set[tuple[object, ...]] = set()
    known = Ends(assembly, solids, lambda *_: None, parts)
    for joint in assembly.joints:
        alike = known.alike(joint)
        if alike is not None:
            # The same parts, and standing to each other in the same way.
            a, b = (assembly.board(m.board).frame for m in (joint.a, joint.b))
            key = (*alike, *(round(v, 9) for v in (dot(a.x, b.x), dot(a.z, b.z), a.z[2], b.z[2])))
            if key in seen:
                continue
            seen.add(key)
        for how, (swing, tilt, cutter) in _readings(assembly, joint).items():
            gap = _gap(assembly, solids, joint, cutter)
            if gap and gap.widest_mm < UNSEEN_MM:
                continue
            face, back = (round(1e6 * v) for v in ((gap.face_mm, gap.back_mm) if gap else (-1.0, -1.0)))
            found.setdefault((how, face, back), SimpleGap(joint.id, how, swing, tilt, gap))
    return tuple(found.values())


def _gap(assembly: Assembly, solids: dict[str, Solid], joint: Joint, cutter: Cutter) -> Gap | None:
    """The joint's gap; None where it does not come together."""
    ends = Ends(assembly, solids, cutter)
    try:
        gap = gap_at(ends, joint)
        long = [dist(p, q) for m in (joint.a, joint.b) if (end := ends.at(m)) for p in end.corners for q in end.corners]
        return gap if gap and gap.widest_mm < max(long) else None
    except CutError:
        return None


def _readings(assembly: Assembly, joint: Joint) -> dict[How, tuple[float, float, Cutter]]:
    """The simple ways to cut a joint's ends, each with the two angles that it means; none where no end of it is compound."""
    boards = [assembly.board(id) for id, _ in joint.ends]
    if len(boards) < 2 or any(abs(board.frame.x[2]) > NOTHING for board in boards):
        return {}
    cuts = [end_cut(board.ends(end)[0]) for board, (_, end) in zip(boards, joint.ends, strict=True)]
    if not any(abs(c.miter_deg) > COMPOUND_DEG and abs(c.bevel_deg) > COMPOUND_DEG for c in cuts):
        return {}
    # Seen from above the two boards turn by this much; half of it is the plain plan angle of a miter, a butt has none.
    turn = degrees(_between(boards[0].frame.x, boards[1].frame.x))
    plan = abs(turn / 2 if joint.kind == "miter" else turn - 90.0)
    # On a board's face the end runs as the neighbour leans: that is the slope that one reads off and sets.
    lean = {boards[i].id: abs(degrees(asin(max(-1.0, min(1.0, boards[1 - i].frame.z[2]))))) for i in range(2)}
    first = lean[boards[0].id]

    def flat_on_the_saw(swing: dict[str, float] | float, tilt: dict[str, float] | float) -> Cutter:
        def cut_at(board: Board, _: End, cut: Plane) -> Vec | None:
            true = end_cut(cut)
            m, b = (size[board.id] if isinstance(size, dict) else size for size in (swing, tilt))
            return _normal(cut, _like(m, true.miter_deg), _like(b, true.bevel_deg))

        return cut_at

    def on_edge(board: Board, _: End, cut: Plane) -> Vec | None:
        true = end_cut(cut)
        e, t = radians(_like(plan, true.edge_trace_deg)), radians(_like(lean[board.id], true.miter_deg))
        sense = 1.0 if cut.normal[0] > 0 else -1.0
        return (sense * cos(t) * cos(e), sin(t), cos(t) * sin(e))

    def swapped(_board: Board, _: End, cut: Plane) -> Vec | None:
        true = end_cut(cut)
        return _normal(cut, _like(true.bevel_deg, true.miter_deg), _like(true.miter_deg, true.bevel_deg))

    from_level = {id: 90.0 - slope for id, slope in lean.items()}
    return {
        "flat": (first, plan, flat_on_the_saw(lean, plan)),
        "from_vertical": (plan, first, flat_on_the_saw(plan, lean)),
        "from_level": (plan, 90.0 - first, flat_on_the_saw(plan, from_level)),
        "swapped": (abs(cuts[0].bevel_deg), abs(cuts[0].miter_deg), swapped),
        "on_edge": (plan, first, on_edge),
    }


def _normal(cut: Plane, miter: float, bevel: float) -> Vec:
    """The outward normal of an end with that miter and bevel, on the same side as the true cut."""
    m, b, sense = radians(miter), radians(bevel), 1.0 if cut.normal[0] > 0 else -1.0
    return (sense * cos(b) * cos(m), cos(b) * sin(m), sin(b))


def _like(size: float, model: float) -> float:
    """A size with another figure's sign."""
    return abs(size) if model >= 0 else -abs(size)


def _between(a: Vec, b: Vec) -> float:
    """Angle between two unit vectors, radians, accurate for small ones too."""
    half = dist(a, b) / 2
    return 2 * atan(half / max(LEAST, (1.0 - min(1.0, half * half)) ** 0.5))
