"""The saws' settings for a set of parts: the fewest positions that they can reach, and how the board lies for each cut."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations

from fennup.core.assembly.board import End
from fennup.core.parts.alike import PartGroup
from fennup.core.saw.pose import Pose
from fennup.core.saw.tool import Miss, Stance
from fennup.core.saw.tools import AnyTool
from fennup.core.saw.ways import Way

STANCES: tuple[Stance, ...] = ("flat", "on_edge", "propped")
DIGITS = 6  # of degrees: settings alike to these are one
MOST_TRIED = 12  # settings of which every choice is gone through
Position = tuple[str, float, float]


@dataclass(frozen=True)
class CutUse:
    """One cut of one part at a setting: `index` in the end's order of cuts, `count` pieces to be cut so."""

    part: str
    end: End
    index: int
    way: Way
    count: int

    @property
    def key(self) -> str:
        """The cut's key, as in docs/conventions.md."""
        return f"{self.part} {self.end}:{self.index}"

    @property
    def pose(self) -> Pose:
        """How the board lies."""
        return self.way.pose

    @property
    def kept(self) -> str:
        """On which side of the blade the kept piece lies."""
        return self.way.kept


@dataclass(frozen=True)
class Setting:
    """One position of a tool: exact, what its scales are set to, and the angles that then come out. Swing + right, tilt + left, degrees.
    `misses`: the limits in the way of one of its cuts at least."""

    tool: str
    swing_deg: float
    tilt_deg: float
    swing_dial_deg: float
    tilt_dial_deg: float
    swing_as_set_deg: float
    tilt_as_set_deg: float
    misses: tuple[Miss, ...]
    uses: tuple[CutUse, ...]

    @property
    def reachable(self) -> bool:
        """Whether nothing is in the way."""
        return not self.misses


def settings_for(
    parts: Sequence[PartGroup], ways: Mapping[str, tuple[Way, ...]], tools: Mapping[str, AnyTool], chosen: Mapping[str, str]
) -> tuple[Setting, ...]:
    """Every end cut of every part, gathered by setting in the order in which the settings are first needed. No fewer settings would do, where
    at most 12 come into question; else never more than by taking one after another. `ways`: of every cut, by its key.

    Of the ways to make a cut one within the stops and the room is taken, on the first tool that has one, flat before on edge before
    propped; of those the ones that need the fewest settings; then kept piece left of the blade, face up, upper edge to the fence. A way that
    somebody has `chosen`, by the cut's key, is taken as long as there is one.
    """
    counts = {part.id: len(part.boards) for part in parts}
    usable = _in_question(ways, tools, chosen)
    taken = fewest([tuple(position(way) for way in found) for found in usable.values()])
    gathered: dict[Position, list[CutUse]] = {}
    for key, found in usable.items():
        part, _, at = key.rpartition(" ")
        end, _, index = at.partition(":")
        way = next(way for way in found if position(way) in taken)
        gathered.setdefault(position(way), []).append(CutUse(part, end, int(index), way, counts[part]))  # type: ignore[arg-type]
    return tuple(_setting(tools[uses[0].way.tool], tuple(uses)) for uses in gathered.values())


def candidates(ways: Mapping[str, tuple[Way, ...]], tools: Mapping[str, AnyTool], chosen: Mapping[str, str]) -> int:
    """How many settings come into question for the end cuts: up to 12 every choice of them is gone through."""
    return len({position(way) for found in _in_question(ways, tools, chosen).values() for way in found})


def _in_question(
    ways: Mapping[str, tuple[Way, ...]], tools: Mapping[str, AnyTool], chosen: Mapping[str, str]
) -> dict[str, tuple[Way, ...]]:
    """The ways that come into question for each cut; a cut that no tool makes is left out."""
    found = {key: _usable(those, chosen.get(key), tools) for key, those in ways.items()}
    return {key: those for key, those in found.items() if those}


def position(way: Way) -> Position:
    """What tells one setting from another."""
    return (way.tool, round(way.swing_deg, DIGITS) + 0.0, round(way.tilt_deg, DIGITS) + 0.0)


def _setting(tool: AnyTool, uses: tuple[CutUse, ...]) -> Setting:
    way = uses[0].way
    angles = (way.swing_deg, way.tilt_deg)
    dialled = [tool.dial(m, deg) for m, deg in zip(("swing", "tilt"), angles, strict=True)]  # type: ignore[arg-type]
    misses = tuple(dict.fromkeys(miss for use in uses for miss in use.way.misses))
    return Setting(
        way.tool, *angles, dialled[0], dialled[1], tool.swing_as_set(way.swing_deg), tool.tilt_as_set(way.tilt_deg), misses, uses
    )


def _usable(ways: Iterable[Way], wanted: str | None, tools: Mapping[str, AnyTool]) -> tuple[Way, ...]:
    """The ways that are as good as the best one, the one to take first among equals first; the one that is wanted alone."""
    ways = list(ways)
    asked = [way for way in ways if way.id == wanted]
    order = list(tools)
    ranked = [(_rank(way, order), way) for way in asked or [way for way in ways if not way.jig and tools[way.tool].picked]]
    if not ranked:
        return ()
    best = min(rank for rank, _ in ranked)
    return tuple(sorted((way for rank, way in ranked if rank == best), key=_taste))


def _rank(way: Way, tools: list[str]) -> tuple[float, ...]:
    """Smaller is better, first entry first."""
    codes = {miss.code for miss in way.misses}
    past = max((miss.needs - miss.has for miss in way.misses if miss.code.startswith("past_swing")), default=0.0)
    return (
        bool(codes),
        tools.index(way.tool),
        any(code.startswith("past_tilt") for code in codes),
        len(STANCES) if way.pose.before_rip else STANCES.index(way.pose.stance),
        # Past every stop: the one that it is past by least.
        round(past, DIGITS),
        bool(codes & {"too_wide", "too_high"}),
    )


def _taste(way: Way) -> tuple[bool, ...]:
    return (way.kept == "right", way.pose.down == "face", way.pose.fence == "lower")


def fewest(choices: Sequence[tuple[Position, ...]]) -> set[Position]:
    """The fewest positions of which every cut has one; of several such sets the one that comes first in the cuts' own order of preference.
    Every set is gone through where at most 12 positions come into question; else one after another."""
    asked = list(dict.fromkeys(choices))
    found = list(dict.fromkeys(p for options in asked for p in options))
    in_turn = _one_after_another(asked)
    if len(found) > MOST_TRIED:
        alone = _most_first(asked)
        return alone if len(alone) < len(in_turn) else in_turn
    for count in range(1, len(in_turn)):
        fitting = [set(some) for some in combinations(found, count) if all(set(some) & set(options) for options in asked)]
        if fitting:
            return min(fitting, key=lambda some: [next(k for k, p in enumerate(options) if p in some) for options in asked])
    return in_turn


def _one_after_another(asked: Sequence[tuple[Position, ...]]) -> set[Position]:
    """A setting that is in use already before a new one."""
    taken: dict[Position, None] = {}
    for options in asked:
        taken[next((p for p in options if p in taken), options[0])] = None
    return set(taken)


def _most_first(asked: Sequence[tuple[Position, ...]]) -> set[Position]:
    """The position that serves most of what is left, again and again."""
    left, taken = list(asked), set()
    while left:
        places = list(dict.fromkeys(p for options in left for p in options))
        best = max(places, key=lambda p: sum(p in options for options in left))
        taken.add(best)
        left = [options for options in left if best not in options]
    return taken
