"""Boards from place to place in a plane of their own: braces and whatever else runs askew, in every kind."""

from dataclasses import dataclass
from math import asin, cos, hypot, sin

from fennup.core.assembly.board import Board, Side
from fennup.core.errors import SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.vec import Point2, Vec, add, cross, dot, scale, sub
from fennup.core.stock.section import Section

X: Vec = (1.0, 0.0, 0.0)
UP: Vec = (0.0, 0.0, 1.0)
LONG_SIDES: tuple[Side, ...] = ("face", "back", "upper", "lower")


@dataclass(frozen=True)
class Sheet:
    """An upright plane in which boards lie, through their middles: its origin, and unit directions to the right and up."""

    origin: Vec
    right: Vec
    up: Vec

    @property
    def front(self) -> Vec:
        """The way to the reader: where the boards' faces look."""
        return cross(self.right, self.up)

    def way(self, p: Point2) -> Vec:
        """A direction of the sheet in the assembly's axes."""
        return add(scale(self.right, p[0]), scale(self.up, p[1]))

    def place(self, p: Point2) -> Vec:
        """A place of the sheet in the assembly's axes."""
        return add(self.origin, self.way(p))

    def flat(self, p: Vec) -> Point2:
        """Where a place of the assembly lies on the sheet."""
        off = sub(p, self.origin)
        return (dot(off, self.right), dot(off, self.up))


def facing(board: Board, way: Vec) -> Side:
    """The long side of a board that looks most in a direction."""
    if not (board.upper_rip or board.lower_rip or board.backing):  # they are square to each other
        y, z = dot(way, board.frame.y), dot(way, board.frame.z)
        if abs(z) >= abs(y):
            return "face" if z >= 0 else "back"
        return "upper" if y > 0 else "lower"
    return max(LONG_SIDES, key=lambda side: dot(board.side_in_world(side).normal, way))


def stick(
    sheet: Sheet, ends: tuple[Point2, Point2], edges: tuple[int, int], section: Section, named: tuple[str, str, str]
) -> Board:
    """A board from place to place, each on one of its edges (-1 lower, 1 upper) or in its middle (0); `named`: its id, its name
    and its role. SpecError `brace_too_wide`."""
    (ax, ay), (bx, by) = ends
    width, long = section.width_mm, hypot(bx - ax, by - ay)
    turn = (edges[1] - edges[0]) * width / 2
    if long <= abs(turn):
        raise SpecError("brace_too_wide", ("width_mm",), mm=width, limit_mm=long)
    # The line from place to place is turned out of the board's own way by what it crosses of the width.
    off = asin(turn / long)
    c, s = cos(off), sin(off)
    ux, uy = (bx - ax) / long, (by - ay) / long
    way: Point2 = (ux * c + uy * s, uy * c - ux * s)
    up: Point2 = (-way[1], way[0])
    start = (ax - up[0] * edges[0] * width / 2, ay - up[1] * edges[0] * width / 2)
    middle = (start[0] + way[0] * long / 2, start[1] + way[1] * long / 2)
    id, name, role = named
    return Board(id, name, section, Frame(sheet.place(middle), sheet.way(way), sheet.way(up), sheet.front), role=role)
