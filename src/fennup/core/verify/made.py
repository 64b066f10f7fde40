"""Ends as they come off a saw that is not set to the true angles: the planes that they then have, and the faces."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from math import dist

from fennup.core.assembly.board import ENDS, Board, End
from fennup.core.assembly.model import Assembly, Joint, Mating
from fennup.core.errors import CutError
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, dot
from fennup.core.parts.alike import PartGroup, turned, turned_back
from fennup.core.parts.solid import Solid
from fennup.core.saw.pose import FLAT, BladeAngles, blade_angles, cut_normal
from fennup.core.saw.settings import Setting
from fennup.core.saw.tools import AnyTool

ALONG_THE_BOARD = 1e-6
SAME_NORMAL = 1e-7
# The outward normal that a cut gets, in the board's axes; None where it cannot be cut so.
Cutter = Callable[[Board, End, Plane], Vec | None]


@dataclass(frozen=True)
class MadeEnd:
    """An end's true cut, the normal that it is given instead, and the corners of its face as it should be, all in the
    board's axes."""

    board: Board
    true: Plane
    normal: Vec
    corners: tuple[Vec, ...]

    def past(self) -> list[float]:
        """How far each corner then stands out beyond the true plane, mm, up to one slide that is the same for all."""
        n, m = self.true.normal, self.normal
        return [
            n[0] * ((n[1] * y + n[2] * z) / n[0] - (m[1] * y + m[2] * z) / m[0])  # x on the made plane less x on the true one
            for _, y, z in self.corners
        ]

    def face(self) -> list[Vec]:
        """The corners of the face that is made, in the board's axes, up to that slide."""
        m = self.normal
        return [(-(m[1] * y + m[2] * z) / m[0], y, z) for _, y, z in self.corners]


def rounded_to(
    boards: dict[str, Board], parts: tuple[PartGroup, ...], settings: tuple[Setting, ...], tools: Mapping[str, AnyTool]
) -> Cutter:
    """Every cut at the nearest angles that the tools' scales can show, the board lying as it is planned to; what is set on none of them,
    flat as the first one's scales would show it."""
    made = {(use.part, use.end, use.index): (setting, use.way) for setting in settings for use in setting.uses}
    group_of = {board: part for part in parts for board in part.boards}

    def cut_at(board: Board, _: End, cut: Plane) -> Vec | None:
        # Cut as the first board of its part is, wherever that has this cut when it is turned to lie as this one.
        group = group_of[board.id]
        turn = group.turn_of(board.id)
        normal = turned_back(turn, cut.normal)
        first = boards[group.id]
        places = [(end, i) for end in ENDS for i in range(len(first.ends(end)))]
        end, index = max(places, key=lambda at: dot(first.ends(at[0])[at[1]].normal, normal))
        found = made.get((group.id, end, index))
        if found is None:
            exact = blade_angles(first.ends(end)[index], FLAT[0])
            tool = next(iter(tools.values()))
            plain = BladeAngles(tool.swing_as_set(exact.swing_deg), tool.tilt_as_set(exact.tilt_deg), exact.kept)
            return turned(turn, cut_normal(plain, FLAT[0]))
        setting, way = found
        set_to = BladeAngles(setting.swing_as_set_deg + way.wedge_deg, setting.tilt_as_set_deg, way.kept)
        return turned(turn, cut_normal(set_to, way.pose, tools[way.tool].fence_place))

    return cut_at


def end_of(mating: Mating) -> tuple[End, int] | None:
    """Which end, and which of its cuts, a mating face is; None for a long side."""
    name, _, index = mating.facet.partition(":")
    return (name, int(index)) if name in ("left", "right") else None  # type: ignore[return-value]


class Ends:
    """An assembly's mating ends as a `cutter` makes them, each looked at once."""

    def __init__(self, assembly: Assembly, solids: dict[str, Solid], cutter: Cutter, parts: tuple[PartGroup, ...] = ()) -> None:
        self.assembly = assembly
        self.solids = solids
        self._cutter = cutter
        self._made: dict[Mating, MadeEnd | None] = {}
        self._part = {board: part.id for part in parts for board in part.boards if self._lies_as(board, part)}

    def _lies_as(self, board: str, part: PartGroup) -> bool:
        """Whether a board lies as the first of its part and its cuts are counted in the same order."""
        own, first = (self.assembly.board(id) for id in (board, part.id))
        return board not in part.turns and all(
            dist(a.normal, b.normal) < SAME_NORMAL
            for end in ENDS for a, b in zip(own.ends(end), first.ends(end), strict=True)
        )  # fmt: skip

    def alike(self, joint: Joint) -> tuple[str, ...] | None:
        """What joints of the same parts at the same ends have in common; None where a part is turned or there are none."""
        a, b = self._part.get(joint.a.board), self._part.get(joint.b.board)
        return (joint.kind, a, joint.a.facet, b, joint.b.facet) if a and b else None

    def at(self, mating: Mating) -> MadeEnd | None:
        """The end; None for a long side, and for what this saw does not cut: what is there already, and panels. CutError
        `along_the_board` where it cannot be cut so."""
        if mating not in self._made:
            # Looked at once for all boards of a part that lie as its first one.
            part = self._part.get(mating.board, mating.board)
            first = Mating(part, mating.facet)
            if first not in self._made:
                self._made[first] = self._look(first)
            end = self._made[first]
            self._made[mating] = replace(end, board=self.assembly.board(mating.board)) if end else None
        return self._made[mating]

    def true_normal(self, mating: Mating) -> Vec:
        """The outward normal that the face should have, in the assembly's axes."""
        end, board = end_of(mating), self.assembly.board(mating.board)
        plane = board.ends(end[0])[end[1]] if end else board.side(mating.facet)  # type: ignore[arg-type]
        return board.frame.direction_to_world(plane.normal)

    def normal(self, mating: Mating) -> Vec:
        """The one that it gets."""
        end = self.at(mating)
        return end.board.frame.direction_to_world(end.normal) if end else self.true_normal(mating)

    def _look(self, mating: Mating) -> MadeEnd | None:
        board, at = self.assembly.board(mating.board), end_of(mating)
        if at is None or board.found or board.panel:
            return None
        cut = board.ends(at[0])[at[1]]
        local = self.solids[board.id].local
        corners = tuple(p for piece in local for f in piece.facets if f.name == mating.facet for p in piece.corners(f))
        if not corners:
            return None
        normal = self._cutter(board, at[0], cut)
        if normal is None or abs(normal[0]) < ALONG_THE_BOARD:
            raise CutError("along_the_board", (board.id,))
        return MadeEnd(board, cut, normal, corners)
