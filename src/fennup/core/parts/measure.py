"""Sizes taken on the finished boards, as a person would with a tape: the line's corners first, then what lies between."""

from math import acos, degrees

import numpy as np

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly, LineName, Outline
from fennup.core.geometry.plane import Plane, meeting_point
from fennup.core.geometry.vec import Vec, distance, dot, sub, unit
from fennup.core.parts.solid import extent_along

Runs = dict[str, tuple[Vec, Vec]]


class Ruler:
    """Takes sizes on one assembly's finished boards, walking round each of its lines once."""

    def __init__(self, assembly: Assembly) -> None:
        self.assembly = assembly
        self._runs: dict[LineName, Runs] = {}

    def runs(self, line: LineName) -> Runs | None:
        """Start and end of each board's stretch of a line, by board; None where the boards do not have the line."""
        outline = self.assembly.outline(line)
        if outline is None:
            return None
        if line not in self._runs:
            self._runs[line] = _walked(self.assembly, outline)
        return self._runs[line]

    def measure(self, name: str) -> float | None:
        """One size by name, mm or degrees; None where these boards do not have it.

        `opening_flats`, `outside_corners`, `rabbet_reach`, `opening_diagonal`, `outside_width`, `outside_depth`,
        `opening_side:A`, `outside_angle:AB`. Flats and corners of an odd number of sides are the diameters of the inner
        and outer circle; the circle is the one that touches the line's sides.
        """
        what, _, which = name.partition(":")
        line, _, kind = what.partition("_")
        outline = self.assembly.outline(_LINES[line]) if line in _LINES else None
        runs = self.runs(_LINES[line]) if outline else None
        if outline is None or runs is None:
            return None
        if kind == "side":
            ids, open_at = list(runs), outline.broken
            whole = [id for i, id in enumerate(ids) if not {i, (i - 1) % len(ids)} & open_at]
            if not which and not whole and line != "outside":
                return None  # every stretch of this line ends at a loose end
            first = which or (whole or ids)[0]
            return distance(*runs[first]) if first in runs else None
        if kind == "angle":
            return _angle_deg(runs, which)
        if kind in ("width", "depth"):
            return self._between(outline, runs, "DB" if kind == "width" else "AC")
        return _across(self.assembly, outline, runs, kind)

    def _between(self, outline: Outline, runs: Runs, pair: str) -> float | None:
        """From one stretch square across to the line of the opposite one; along a whole neighbour if one is missing."""
        if set(pair) <= set(runs):
            far = self.assembly.board(pair[1]).side_in_world(dict(outline.sides)[pair[1]])
            return abs(far.beyond(runs[pair[0]][0]))
        ids = list(runs)
        whole = [id for i, id in enumerate(ids) if id not in pair and not {i, (i - 1) % len(ids)} & outline.broken]
        return distance(*runs[whole[0]]) if whole else None


_LINES: dict[str, LineName] = {"opening": "opening", "rabbet": "rabbet", "outside": "outside"}


def _walked(assembly: Assembly, outline: Outline) -> Runs:
    """Round a line: every stretch from where it meets the one before to where it meets the next, or to its cut end."""
    boards = [assembly.board(id) for id, _ in outline.sides]
    lines = [board.side_in_world(side) for board, (_, side) in zip(boards, outline.sides, strict=True)]
    count, broken = len(boards), outline.broken
    corners = [
        meeting_point(lines[i], lines[(i + 1) % count], boards[i].side_in_world(outline.on)) if i not in broken else None
        for i in range(count)
    ]
    runs = {}
    for i, board in enumerate(boards):
        start, end = corners[i - 1], corners[i]
        if start is None or end is None:
            own = _own_ends(board, outline, i)
            start, end = start or own[0], end or own[1]
        runs[board.id] = (start, end)
    return runs


def _own_ends(board: Board, outline: Outline, i: int) -> tuple[Vec, Vec]:
    """Where a board's own cuts end its stretch of the line."""
    side, z = board.side(outline.sides[i][1]), board.side(outline.on)
    level = z.offset * z.normal[2]
    y = (side.offset - side.normal[2] * level) / side.normal[1]
    low, high = extent_along(board, y, level)
    return board.frame.to_world((low, y, level)), board.frame.to_world((high, y, level))


def _angle_deg(runs: Runs, corner: str) -> float | None:
    """Inside angle between two neighbouring stretches."""
    if not (set(corner) <= set(runs) and len(corner) == 2):
        return None
    a, b = (unit(sub(runs[id][1], runs[id][0])) for id in corner)
    return 180.0 - degrees(acos(max(-1.0, min(1.0, dot(a, b)))))


def _across(assembly: Assembly, outline: Outline, runs: Runs, kind: str) -> float | None:
    """Across flats or corners, corner to opposite side, or the longest diagonal."""
    ids = list(runs)
    sides = dict(outline.sides)
    lines = [assembly.board(id).side_in_world(sides[id]) for id in ids]
    corners = [runs[id][0] for id in ids]
    n, whole = len(ids), outline.rings
    if kind == "diagonal":
        points = [p for run in runs.values() for p in run]
        return max(distance(p, q) for p in points for q in points)
    if whole and n % 2 == 0:
        if kind == "flats":
            return abs(lines[n // 2].beyond(corners[0]))
        if kind == "corners":
            return distance(corners[0], corners[n // 2])
    if kind == "reach":
        return abs(lines[n // 2].beyond(corners[0])) if whole and n % 2 else None
    circle = _touching(lines, runs, ids)
    if circle is None:
        return None
    middle, radius = circle
    if kind == "flats":
        return 2 * radius
    meeting = [runs[id][0] for i, id in enumerate(ids) if (i - 1) % n not in outline.broken]
    return 2 * distance(middle, meeting[0]) if kind == "corners" and meeting else None


def _touching(lines: list[Plane], runs: Runs, ids: list[str]) -> tuple[Vec, float] | None:
    """Centre and radius of the circle that touches the first three lines: four planes' worth of linear equations."""
    if len(lines) < 3:
        return None
    level = runs[ids[0]][0]
    way, other = sub(runs[ids[0]][1], level), sub(runs[ids[1]][1], runs[ids[1]][0])
    normal = np.cross(way, other)
    # All three normals point the same way, in or out: the distance has one sign for all of them.
    rows = [[*(np.array(line.normal)), 1.0] for line in lines[:3]] + [[*normal, 0.0]]
    right = [line.offset for line in lines[:3]] + [float(np.dot(normal, level))]
    try:
        x, y, z, radius = np.linalg.solve(np.array(rows), np.array(right))
    except np.linalg.LinAlgError:
        return None
    return (float(x), float(y), float(z)), abs(float(radius))
