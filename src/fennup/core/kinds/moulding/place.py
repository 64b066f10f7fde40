"""Sprung mouldings as boards, cut planes, joints, gauges and claims. It places; it computes no setting and no length."""

from dataclasses import dataclass
from math import cos, hypot, radians, sin

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly, BareFor, Finding, Gauge, Joint, Mating, Ring, Spot
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, joint_plane, plane_through
from fennup.core.geometry.vec import Vec, add, cross, dot, scale
from fennup.core.kinds.moulding.raked import base_run, own_profile
from fennup.core.kinds.moulding.spec import MouldingSpec
from fennup.core.tolerances import NOTHING, SAME

UP: Vec = (0.0, 0.0, 1.0)
CLOSES_MM = 1e-3  # how far the end may miss the start where it is said to close


@dataclass(frozen=True)
class Placed:
    """A run before its ends are cut: the board, where it starts at the wall, the way along it, the level way along the wall, out from that, and up the
    wall square to the run."""

    board: Board
    start: Vec
    way: Vec
    level: Vec
    out: Vec
    up_wall: Vec


def assemble(spec: MouldingSpec) -> Assembly:
    """Everything. SpecError when no moulding answers to the spec."""
    placed = placed_runs(spec)
    boards = {run.board.id: run.board for run in placed}
    joints = []
    for i, name in enumerate(spec.corner_names):
        a, b = placed[i], placed[(i + 1) % len(placed)]
        try:
            miter = _miter(a, b)
        except CutError:
            raise SpecError("runs_in_line", (f"corners.{i}.deg",), corner=name) from None
        boards[a.board.id] = boards[a.board.id].with_cut("right", miter)
        boards[b.board.id] = boards[b.board.id].with_cut("left", miter.flipped())
        even = abs(spec.runs[i].rise_deg) < SAME and abs(spec.runs[(i + 1) % len(placed)].rise_deg) < SAME
        why: BareFor = "" if even else "raked"
        here, there = Mating(a.board.id, "right:0"), Mating(b.board.id, "left:0")
        joints.append(Joint(name, "miter", here, there, ((a.board.id, "right"), (b.board.id, "left")), why))
    if not spec.closes:
        first, last = placed[0], placed[-1]
        end = add(last.start, scale(last.way, spec.runs[-1].wall_mm))
        boards[first.board.id] = boards[first.board.id].with_cut("left", plane_through(first.start, scale(first.level, -1.0)))
        boards[last.board.id] = boards[last.board.id].with_cut("right", plane_through(end, last.level))
    rings = (Ring(tuple(boards), spec.closes),) if joints else ()
    return Assembly(
        tuple(boards.values()),
        tuple(joints),
        (),
        spec.claims(),
        rings,
        (Finding("moulding_walls", "standing"), *_own_profiles(spec, placed)),
        tuple(_gauges(spec, placed)),
    )


def _own_profiles(spec: MouldingSpec, placed: list[Placed]) -> list[Finding]:
    """The runs whose profile is another one than the moulding's: how wide and how thick, those that are alike together."""
    alike: dict[tuple[float, float], list[str]] = {}
    for run in placed:
        section = run.board.section
        if section != spec.section:
            alike.setdefault((round(section.width_mm, 6), round(section.thickness_mm, 6)), []).append(run.board.id)
    return [Finding("raked_profile", "note", tuple(ids), ("raked",), *size) for size, ids in alike.items()]


def placed_runs(spec: MouldingSpec) -> list[Placed]:
    """Every run where it lies. The wall is on the left of the way along it, the air on the right. SpecError `runs_do_not_close`."""
    at: Vec = (0.0, 0.0, 0.0)
    # Round a box the second run is the one in front.
    turn = -radians(spec.corners[0].turn_deg) if spec.corners and spec.corners[0].side == "outside" and not spec.closes else 0.0
    start, found = turn, []
    for i, (letter, run) in enumerate(zip(spec.letters, spec.runs, strict=True)):
        level: Vec = (cos(turn), sin(turn), 0.0)
        out: Vec = (sin(turn), -cos(turn), 0.0)
        rise = radians(run.rise_deg)
        way = add(scale(level, cos(rise)), scale(UP, sin(rise)))
        up_wall = cross(out, way)
        profile = own_profile(spec, i)
        # The lower edge of its face lies on the wall, half its width down the slope from its middle.
        y = add(scale(up_wall, profile.y[1]), scale(out, profile.y[0]))
        z = cross(way, y)
        middle = add(add(at, scale(way, run.wall_mm / 2)), add(scale(y, profile.middle[0]), scale(z, profile.middle[1])))
        frame = Frame(middle, way, y, z)
        above = add(scale(up_wall, profile.above[1]), scale(out, profile.above[0]))
        top = add(at, add(scale(y, profile.top[0]), scale(z, profile.top[1])))
        board = Board(
            letter, f"Run {letter}", profile.section, frame, role="moulding", shows=True,
            lower_rip=frame.plane_to_local(plane_through(at, scale(out, -1.0))), upper_rip=frame.plane_to_local(plane_through(top, above)),
            ready=spec.bought, finished=bool(spec.bought and spec.finished),
        )  # fmt: skip
        found.append(Placed(board, at, way, level, out, up_wall))
        at = add(at, scale(way, run.wall_mm))
        if i < len(spec.corners):
            turn += radians(spec.corners[i].turn_deg)
    if spec.closes:
        gap = hypot(*at)
        if gap > CLOSES_MM or abs(cos(turn - start) - 1.0) > NOTHING:
            raise SpecError("runs_do_not_close", (f"runs.{len(spec.runs) - 1}.wall_mm",), mm=gap)
    return found


def _miter(a: Placed, b: Placed) -> Plane:
    """The plane through the line where both faces meet and the line where both backs meet, keeping a. CutError `parallel`."""
    faces = a.board.side_in_world("face"), b.board.side_in_world("face")
    backs = a.board.side_in_world("back").flipped(), b.board.side_in_world("back").flipped()
    plane = joint_plane(faces[0], faces[1], backs[0], backs[1])
    return plane if dot(plane.normal, a.way) > 0 else plane.flipped()


def _gauges(spec: MouldingSpec, placed: list[Placed]) -> list[Gauge]:
    """What it measures across, and every length: at the wall, and along the edge that lies on what is above."""
    first = placed[base_run(spec)]
    id = first.board.id
    low, high = Spot(id, "middle", "lower", "face"), Spot(id, "middle", "upper", "face")
    gauges = [
        Gauge("moulding_width", low, high, "along", first.board.frame.y),
        Gauge("spring_angle", low, high, "angle", first.up_wall, first.out),
        Gauge("down_the_wall", low, high, "along", first.up_wall),
        Gauge("out_from_it", low, high, "along", first.out),
    ]
    for letter in spec.letters:
        gauges.append(Gauge(f"at_wall:{letter}", Spot(letter, "left", "lower", "face"), Spot(letter, "right", "lower", "face")))
    for letter in spec.letters:
        ends = (Spot(letter, "left", "upper", "face"), Spot(letter, "right", "upper", "face"))
        gauges.append(Gauge(f"at_edge:{letter}", *ends, follows=True))
    return gauges
