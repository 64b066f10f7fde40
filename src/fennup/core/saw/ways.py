"""Every way in which a cut can be made: on which tool, how the board lies, what the scales show, what is in the way."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from math import asin, copysign, cos, degrees, floor, radians, tan
from typing import Literal

from fennup.core.assembly.board import ENDS, Board
from fennup.core.geometry.plane import Plane
from fennup.core.parts.alike import PartGroup
from fennup.core.saw.pose import FLAT, BladeAngles, Kept, Pose, blade_angles, poses_for, room_taken
from fennup.core.saw.tool import FencePlace, Lying, Miss, Tool
from fennup.core.saw.tools import AnyTool
from fennup.core.tolerances import NOTHING

Jig = Literal["", "square", "wedge"]
SHORTEST_SAFE_MM = 150.0
LONGEST_ALONE_MM = 1500.0
NARROWEST_RIP_MM = 50.0
FENCES: tuple[FencePlace, ...] = ("beyond", "near", "none")
STOPPED = {"past_swing_left", "past_swing_right", "no_slot"}
STANDS_WELL = 2.0  # times as high as the fence, or as it is thick
SQUARE_DEG = 90.0


@dataclass(frozen=True)
class Way:
    """One way to make a cut. Swing and tilt in the saw's frame. With a `jig` the board lies turned by `wedge_deg` on the table, + the way
    that a swing to the right would turn the cut, and `swing_deg` is what the saw itself is set to."""

    tool: str
    pose: Pose
    swing_deg: float
    tilt_deg: float
    kept: Kept
    misses: tuple[Miss, ...]
    cautions: tuple[str, ...] = ()
    jig: Jig = ""
    wedge_deg: float = 0.0

    @cached_property
    def id(self) -> str:
        """What it is called by: tool, side down, side to the fence, and the jig."""
        leans = "propped" if self.pose.propped else ""
        return ":".join(name for name in (self.tool, self.pose.down, self.pose.fence, leans, self.jig) if name)

    @property
    def blade(self) -> BladeAngles:
        """The angles that the cut gets on the board."""
        return BladeAngles(self.swing_deg + self.wedge_deg, self.tilt_deg, self.kept)


@dataclass(frozen=True)
class _Laid:
    """A board in a pose: how far it reaches from fence and table; what the blade must be, by where the fence is."""

    pose: Pose
    lying: Lying
    blades: dict[FencePlace, BladeAngles]


def _laid(board: Board, cut: Plane, long_mm: float) -> list[_Laid]:
    """The board in every pose, for a cut."""
    lined = board.panel or board.stave
    found = []
    for pose in FLAT if lined else poses_for(board):
        wide, high = room_taken(board, pose)
        lying = Lying(pose.stance, 0.0 if lined else wide, high, long_mm)
        found.append(_Laid(pose, lying, {place: blade_angles(cut, pose, place) for place in FENCES}))
    return found


def ways_for(board: Board, cut: Plane, long_mm: float, tools: Mapping[str, AnyTool]) -> tuple[Way, ...]:
    """All ways of an end cut, in the tools' order: as the board lies, then with a jig where a stop is in the way of the swing. Of panels and
    staves the lines are drawn on the sheet, whatever their direction."""
    laid = _laid(board, cut, long_mm)
    return tuple(way for id, tool in tools.items() for way in _on(board, laid, id, tool))


def _on(board: Board, laid: Iterable[_Laid], id: str, tool: AnyTool) -> Iterator[Way]:
    """The ways on one tool."""
    lined = board.panel or board.stave
    if lined and not tool.rips:
        return
    for one in laid:
        if one.pose.stance not in tool.stances:
            continue
        blade = one.blades[tool.fence_place]
        misses = tool.misses(0.0 if lined else blade.swing_deg, blade.tilt_deg, one.lying)
        cautions = _cautions(board, blade, one.pose, tool, one.lying)
        way = Way(id, one.pose, blade.swing_deg, blade.tilt_deg, blade.kept, misses, cautions)
        yield way
        if misses and not lined and tool.fence_place != "none":
            yield from _jigs(way, one.lying, tool)


def each_cut(parts: Iterable[PartGroup], boards: Mapping[str, Board]) -> Iterator[tuple[str, Board, Plane]]:
    """(key, board, plane) of every end cut of every part, right ends first; none of panels and staves: they lie on no fence."""
    for part in parts:
        board = boards[part.id]
        if not (board.panel or board.stave):
            for end in reversed(ENDS):
                for index, cut in enumerate(board.ends(end)):
                    yield f"{part.id} {end}:{index}", board, cut


def ways_needed(board: Board, cut: Plane, long_mm: float, tools: Mapping[str, AnyTool]) -> tuple[Way, ...]:
    """The ways on the first tool that makes a cut, those of all where none does: as much as it takes to pick one."""
    laid = _laid(board, cut, long_mm)
    found: list[Way] = []
    for id, tool in tools.items():
        here = list(_on(board, laid, id, tool)) if tool.picked else []
        found += here
        if any(not way.misses and not way.jig for way in here):
            break
    return tuple(found)


def _cautions(board: Board, blade: BladeAngles, pose: Pose, tool: Tool, lying: Lying) -> tuple[str, ...]:
    """What to take care of, as codes."""
    found = []
    if tool.powered and lying.long_mm < SHORTEST_SAFE_MM and not board.panel:
        found.append("short_piece")
    leans_left = blade.tilt_deg > 0
    if tool.powered and abs(blade.tilt_deg) > NOTHING and leans_left == (blade.kept == "right"):
        found.append("trapped_offcut")
    if lying.long_mm > LONGEST_ALONE_MM:
        found.append("long_piece")
    fence = getattr(tool, "fence_mm", None) or board.section.thickness_mm
    if pose.stance != "flat" and lying.high_mm > STANDS_WELL * fence:
        found.append("tall_board")
    return tuple(found)


def _jigs(way: Way, lying: Lying, tool: Tool) -> Iterator[Way]:
    """With a jig, where the swing's stop is in the way: the end held against the fence, or a wedge between fence and board."""
    blade, codes = way.blade, {miss.code for miss in way.misses}
    if not codes & STOPPED or codes - STOPPED - {"too_wide"} or abs(blade.swing_deg) < NOTHING:
        return
    wide, swing = lying.wide_mm, radians(blade.swing_deg)
    for jig, setting in (("square", blade.swing_deg - copysign(SQUARE_DEG, blade.swing_deg)), ("wedge", _nearest(tool, blade))):
        if setting is None:
            continue
        run = wide * abs(tan(swing)) if jig == "square" else wide * cos(radians(setting)) / cos(swing)
        misses = tool.misses(setting, blade.tilt_deg, replace(lying, wide_mm=run))
        if not misses:
            turned = blade.swing_deg - setting
            yield replace(
                way, swing_deg=setting, misses=(), jig=jig, wedge_deg=turned, cautions=(*way.cautions, f"{jig}_jig")  # type: ignore[arg-type]
            )  # fmt: skip


def _nearest(tool: Tool, blade: BladeAngles) -> float | None:
    """The setting found without a scale that comes nearest: the wedge makes up the rest."""
    side = copysign(1.0, blade.swing_deg)
    reached = [s for s in tool.simple_settings() if s * side > 0 and tool.reaches(s, blade.tilt_deg)]
    if reached:
        return max(reached, key=abs)
    limit = getattr(tool, f"swing_{'right' if side > 0 else 'left'}_deg", 0.0)
    whole = float(floor(min(limit, abs(blade.swing_deg)) / 5) * 5)
    return whole * side if whole > 0 else None


@dataclass(frozen=True)
class RipWay:
    """How a long edge is ripped: which side is down, which edge runs along the rip fence on the right, which end goes in first. `fence_mm`: from
    the blade's side that faces the fence, at the table, to the fence. Tilt as everywhere: + to the left."""

    tool: str
    down: Literal["face", "back"]
    fence: Literal["upper", "lower"]
    first: Literal["left", "right"]
    tilt_deg: float
    fence_mm: float
    misses: tuple[Miss, ...]
    cautions: tuple[str, ...]

    @property
    def id(self) -> str:
        """What it is called by."""
        return f"{self.tool}:{self.down}:{self.fence}"


def rip_ways(
    board: Board, edge: Literal["upper", "lower"], rip: Plane, done: Mapping[str, Plane], tools: Mapping[str, AnyTool]
) -> tuple[RipWay, ...]:
    """All ways to rip a long edge, the other one at the fence; `done`: what that edge has been ripped to already."""
    other: Literal["upper", "lower"] = "lower" if edge == "upper" else "upper"
    half_y, half_z = board.section.width_mm / 2, board.section.thickness_mm / 2
    found = []
    for id, tool in tools.items():
        if not tool.rips:
            continue
        for down in ("back", "face"):
            up = 1.0 if down == "back" else -1.0
            to_fence = 1.0 if other == "upper" else -1.0
            # X to the fence, Z up, Y = Z x X: the end that looks that way goes in first.
            first: Literal["left", "right"] = "right" if -up * to_fence > 0 else "left"
            blade = _rip_tilt(rip, to_fence, up)
            bottom = -up * half_z

            def at(plane: Plane, z: float) -> float:
                return (plane.offset - plane.normal[2] * z) / plane.normal[1]

            sides = [done[other]] if other in done else []
            reach = max([to_fence * at(p, z) for p in sides for z in (-half_z, half_z)], default=half_y)
            fence = reach - to_fence * at(rip, bottom)
            lying = Lying("flat", 0.0, board.section.thickness_mm, board.section.width_mm)
            misses = [*tool.misses(0.0, blade, lying)]
            most = getattr(tool, "rip_mm", getattr(tool, "throat_mm", None))
            if most and fence > most:
                misses.append(Miss("too_wide_rip", fence, most))
            cautions = ["ripping"] if tool.powered else []
            if tool.powered and min(fence, reach + half_y) < NARROWEST_RIP_MM:
                cautions.append("narrow_rip")
            if tool.powered and blade < -NOTHING:
                cautions.append("leans_to_fence")
            found.append(RipWay(id, down, other, first, blade, fence, tuple(misses), tuple(cautions)))
    return tuple(sorted(found, key=lambda way: (bool(way.misses), list(tools).index(way.tool), "leans_to_fence" in way.cautions)))


def _rip_tilt(rip: Plane, to_fence: float, up: float) -> float:
    """The blade's tilt: the kept piece lies right of it, its outward normal to the left."""
    assert rip.normal[1] * to_fence < 0
    return -degrees(asin(max(-1.0, min(1.0, rip.normal[2] * up)))) + 0.0
