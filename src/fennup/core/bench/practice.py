"""Practice: a part with one end still to cut, the board on the saw in four ways, and only one of them is right."""

from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass
from random import Random
from typing import Literal

from fennup.core.assembly.board import Board, End
from fennup.core.errors import CutError
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import dot
from fennup.core.parts.alike import fingerprint
from fennup.core.parts.facts import PartFacts
from fennup.core.parts.solid import ARRISES, Arris, Solid, arris_line, solid_of
from fennup.core.saw.marking import crossing
from fennup.core.saw.pose import BladeAngles, Kept, Pose, axes_at, cut_normal, poses_for
from fennup.core.saw.tool import ScaleTool
from fennup.core.saw.tools import AnyTool
from fennup.core.saw.ways import Way
from fennup.core.steps.planned import StepsPlan
from fennup.core.steps.step import Step
from fennup.core.tolerances import SAME

Level = Literal["miter", "bevel", "compound", "handed", "mark", "one_way"]
LEVELS: tuple[Level, ...] = ("miter", "bevel", "compound", "handed", "mark", "one_way")
# Turned once, an end is that of the mirror image: it slants or leans the other way. Turned twice it is its own, half round. Or the wrong scale was set.
# Or the length was marked on another line, or the blade taken out of the piece.
Slip = Literal["slants", "leans", "half_round", "scale", "line", "kerf"]
WAYS = 4
LEAST_DEG = 1.0  # what can be seen
LEAST_MM = 0.5


@dataclass(frozen=True)
class Marked:
    """A mark: how long along which long corner, and whether the blade takes what is beyond it, or of the piece."""

    arris: Arris
    length_mm: float
    beyond: bool = True


@dataclass(frozen=True)
class Option:
    """One way: how the board lies, what is set, and the piece that comes of it. `slip`: what is wrong with that."""

    way: Way
    cut: Plane
    piece: Solid
    slip: Slip | None
    marked: Marked | None = None

    @property
    def right(self) -> bool:
        """Whether it makes the part."""
        return self.slip is None


@dataclass(frozen=True)
class Drill:
    """A step to be found among several ways of doing it."""

    step: Step
    level: Level
    options: tuple[Option, ...]


def levels_in(plan: StepsPlan, facts: dict[str, PartFacts]) -> dict[Level, tuple[Step, ...]]:
    """Which steps of a project practise what, by how hard they are."""
    found: dict[Level, list[Step]] = {level: [] for level in LEVELS}
    mirrors = {f.group.mirror_of for f in facts.values()} | {key for key, f in facts.items() if f.group.mirror_of}
    for step in plan.steps:
        if step.work != "second_end" or not step.way or step.way.jig or step.by_hand or step.pattern:
            continue
        swing, tilt = abs(step.way.swing_deg) >= LEAST_DEG, abs(step.way.tilt_deg) >= LEAST_DEG
        if not (swing or tilt):
            continue
        found["compound" if swing and tilt else "miter" if swing else "bevel"].append(step)
        if step.part in mirrors:
            found["handed"].append(step)
        if step.marking and step.marking.arris:
            found["mark"].append(step)
        if tilt and _one_way(plan.tools[step.way.tool]):
            found["one_way"].append(step)
    return {level: tuple(steps) for level, steps in found.items() if steps}


def _one_way(tool: AnyTool) -> bool:
    """Whether its blade leans to one side only."""
    return isinstance(tool, ScaleTool) and bool(tool.angle_misses(0.0, 10.0)) != bool(tool.angle_misses(0.0, -10.0))


def drill_for(step: Step, level: Level, facts: PartFacts, plan: StepsPlan, random: Random) -> Drill | None:
    """A drill from a step; None where there are not three wrong ways to tell from the right one."""
    assert step.way and step.cut and step.end
    marking = step.marking
    marked = Marked(marking.arris, marking.length_mm) if level == "mark" and marking and marking.arris else None
    right = Option(step.way, step.cut, facts.solid, None, marked)
    seen = {_seen(right)}
    wrong: list[Option] = []
    for option in _marked_wrong(step, facts, plan) if marked else _others(step, facts, plan):
        if _seen(option) not in seen:
            seen.add(_seen(option))
            wrong.append(option)
    # The board the wrong way round at the right setting is the slip that is made; what is set wrongly comes after.
    same = [o for o in wrong if (o.way.swing_deg, o.way.tilt_deg) == (step.way.swing_deg, step.way.tilt_deg)]
    rest = [o for o in wrong if o not in same]
    random.shuffle(same)
    random.shuffle(rest)
    if len(same) + len(rest) < WAYS - 1:
        return None
    options = [right, *[*same, *rest][: WAYS - 1]]
    random.shuffle(options)
    return Drill(step, level, tuple(options))


def _seen(option: Option) -> tuple[object, ...]:
    """What tells one picture from another."""
    way = option.way
    pose = (way.pose.down, way.pose.fence, round(way.swing_deg, 6) + 0.0, round(way.tilt_deg, 6) + 0.0)
    return (*pose, round(option.cut.offset, 2)) if option.marked else pose


def _marked_wrong(step: Step, facts: PartFacts, plan: StepsPlan) -> Iterator[Option]:
    """The same end at the right setting, marked elsewhere: its length on another long corner, another corner's length on this one, the blade within the mark."""
    way, cut, marking = step.way, step.cut, step.marking
    assert way and cut and step.end and marking and marking.arris
    board, outward = facts.board, 1.0 if step.end == "right" else -1.0
    length = marking.length_mm
    found: list[tuple[float, Slip, Marked]] = []
    for arris in ARRISES:
        line = arris_line(board, arris)
        own = abs(crossing(cut, line) - crossing(marking.datum, line))
        if arris != marking.arris:
            found.append((length - own, "line", Marked(arris, length)))
            found.append((own - length, "line", Marked(marking.arris, own)))
    kerf = plan.tools[way.tool].kerf_mm / abs(cut.normal[0])
    found.append((-kerf, "kerf", Marked(marking.arris, length, beyond=False)))
    for longer, slip, marked in found:
        if abs(longer) >= LEAST_MM:
            moved = Plane(cut.normal, cut.offset + cut.normal[0] * outward * longer)
            with suppress(CutError):  # nothing is left of the board
                made = solid_of(_with_end(board, step.end, step.index, moved))
                yield Option(way, moved, made, slip, marked)


def _others(step: Step, facts: PartFacts, plan: StepsPlan) -> Iterator[Option]:
    """The same end with the board in every pose of the same stance, the saw set as it must be or to another side."""
    way, wanted, end = step.way, step.cut, step.end
    assert way and wanted and end
    tool, board = plan.tools[way.tool], facts.board
    swing, tilt = way.swing_deg, way.tilt_deg
    settings = [(s * x + 0.0, t * y + 0.0) for x, y in ((swing, tilt), (tilt, swing)) for s in (1, -1) for t in (1, -1)]
    for pose in poses_for(board):
        if pose.stance != way.pose.stance or pose.before_rip != way.pose.before_rip:
            continue
        for angles in dict.fromkeys(settings):
            if isinstance(tool, ScaleTool) and tool.angle_misses(*angles):
                continue
            kept = _kept(pose, tool, end)
            cut = _through_the_same(wanted, cut_normal(BladeAngles(*angles, kept), pose, tool.fence_place))
            slip = _slip(wanted, cut)
            if slip:
                with suppress(CutError):  # nothing is left of the board
                    made = solid_of(_with_end(board, end, step.index, cut))
                    if fingerprint(made.board, made) != facts.fingerprint:  # turned, it would be the same part after all
                        yield Option(Way(way.tool, pose, *angles, kept, ()), cut, made, slip)


def _kept(pose: Pose, tool: AnyTool, end: End) -> Kept:
    """On which side of the blade the piece lies when that end is at it."""
    right = axes_at(pose, tool.fence_place)[0][0] > 0
    return "left" if right == (end == "right") else "right"


def _through_the_same(wanted: Plane, normal: tuple[float, float, float]) -> Plane:
    """A cut of another direction through the middle of the board where the wanted one goes through it."""
    at = (wanted.offset / wanted.normal[0], 0.0, 0.0)
    return Plane(normal, dot(normal, at))


def _slip(wanted: Plane, cut: Plane) -> Slip | None:
    """What is wrong with a cut; None where it is the wanted one."""
    (_, y, z), (_, own_y, own_z) = wanted.normal, cut.normal
    if abs(abs(y) - abs(own_y)) > SAME or abs(abs(z) - abs(own_z)) > SAME:
        return "scale"
    slants, leans = abs(y - own_y) > SAME, abs(z - own_z) > SAME
    return "half_round" if slants and leans else "slants" if slants else "leans" if leans else None


def _with_end(board: Board, end: End, index: int, cut: Plane) -> Board:
    cuts = tuple(cut if k == index else plane for k, plane in enumerate(board.ends(end)))
    return board.but(left=cuts) if end == "left" else board.but(right=cuts)
