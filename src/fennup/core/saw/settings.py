"""The saw's settings for a set of parts: the fewest positions that it can reach, and how the board lies for each cut."""

from dataclasses import dataclass

from fennup.core.assembly.board import ENDS, Board, End
from fennup.core.parts.alike import PartGroup
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.saw.pose import BladeAngles, Pose, Stance, blade_angles, poses_for
from fennup.core.tolerances import NOTHING

SAME_DEG = 1e-6
STANCES: tuple[Stance, ...] = ("flat", "on_edge", "propped")


@dataclass(frozen=True)
class CutUse:
    """One cut of one part at a setting: `index` in the end's order of cuts, `count` pieces to be cut so."""

    part: str
    end: End
    index: int
    pose: Pose
    kept: str
    count: int


@dataclass(frozen=True)
class Setting:
    """One position of the saw: exact, and as its scales can show it. Swing + right, tilt + left, degrees."""

    swing_deg: float
    tilt_deg: float
    swing_as_set_deg: float
    tilt_as_set_deg: float
    reachable: bool
    uses: tuple[CutUse, ...]


@dataclass(frozen=True)
class _Choice:
    pose: Pose
    blade: BladeAngles


def settings_for(parts: tuple[PartGroup, ...], boards: dict[str, Board], machine: MiterSaw) -> tuple[Setting, ...]:
    """Every end cut of every part, gathered by setting in the order in which the settings are first needed.

    Of the ways a board can lie, one within the stops is taken first, then flat before on edge before propped, then one
    whose setting is already in use, then kept piece left of the blade, face up, upper edge to the fence.
    """
    found: list[tuple[BladeAngles, list[CutUse]]] = []
    for part in parts:
        board = boards[part.id]
        if board.panel or board.stave:
            continue  # sheet goods and tapers along the grain are not for this saw
        poses = poses_for(board)
        for end in reversed(ENDS):
            for index, cut in enumerate(board.ends(end)):
                choices = [_Choice(pose, blade_angles(cut, pose)) for pose in poses]
                best = min(choices, key=lambda c: _cost(c, found, machine))
                use = CutUse(part.id, end, index, best.pose, best.blade.kept, len(part.boards))
                place = next((uses for blade, uses in found if _same(blade, best.blade)), None)
                if place is None:
                    found.append((best.blade, [use]))
                else:
                    place.append(use)
    return tuple(
        Setting(
            blade.swing_deg,
            blade.tilt_deg,
            machine.swing_as_set(blade.swing_deg),
            machine.tilt_as_set(blade.tilt_deg),
            machine.reaches(blade.swing_deg, blade.tilt_deg),
            tuple(uses),
        )
        for blade, uses in found
    )


def _same(a: BladeAngles, b: BladeAngles) -> bool:
    return abs(a.swing_deg - b.swing_deg) < SAME_DEG and abs(a.tilt_deg - b.tilt_deg) < SAME_DEG


def _cost(choice: _Choice, found: list[tuple[BladeAngles, list[CutUse]]], machine: MiterSaw) -> tuple[float, ...]:
    """Smaller is better, first entry first."""
    blade = choice.blade
    return (
        not machine.reaches(blade.swing_deg, blade.tilt_deg),
        abs(blade.tilt_deg) > machine.tilt_limit(blade.tilt_deg) + NOTHING,
        STANCES.index(choice.pose.stance),
        # Past every stop: the one that it is past by least.
        round(max(0.0, abs(blade.swing_deg) - machine.swing_limit(blade.swing_deg)), 6),
        not any(_same(blade, other) for other, _ in found),
        blade.kept == "right",
        choice.pose.down == "face",
        choice.pose.fence == "lower",
    )
