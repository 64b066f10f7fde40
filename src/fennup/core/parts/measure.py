"""Sizes taken on the finished boards, as a person would with a tape: the line's corners first, then what lies between."""

from math import acos, asin, degrees, hypot

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly, Outline
from fennup.core.geometry.plane import meeting_point
from fennup.core.geometry.vec import Point2, Vec, add, distance, dot, scale, sub, unit
from fennup.core.parts.gauge import read
from fennup.core.parts.measures import measure_of
from fennup.core.parts.solid import extent_along
from fennup.core.tolerances import ZERO

Runs = dict[str, tuple[Vec, Vec]]
CORNERS = 4  # letters that name two corners
Line2 = tuple[Point2, Point2]


class Ruler:
    """Takes sizes on one assembly's finished boards, walking round each of its lines once."""

    def __init__(self, assembly: Assembly) -> None:
        self.assembly = assembly
        self._runs: dict[str, Runs] = {}
        self._rulers: dict[str, Ruler] = {}

    def within(self, name: str) -> "Ruler":
        """The ruler of one of the assemblies that this one is made of."""
        if name not in self._rulers:
            self._rulers[name] = Ruler(self.assembly.inside[name])
        return self._rulers[name]

    def runs(self, line: str) -> Runs | None:
        """Start and end of each side's stretch of a line, by side; None where the boards do not have the line."""
        outline = self.assembly.outline(line)
        if outline is None:
            return None
        if line not in self._runs:
            self._runs[line] = _walked(self.assembly, outline)
        return self._runs[line]

    def measure(self, name: str) -> float | None:
        """One size by name, mm or degrees; None where these boards do not have it.

        On a line (`opening`, `rabbet`, `outside`; `outer_bottom`, `outer_top`, `inner_bottom`, `inner_top`), seen from
        above: `opening_flats`, `outside_corners`, `rabbet_reach`, `opening_diagonal`, `outside_width`, `outside_depth`,
        `opening_side:A`, `outside_angle:AB`. Flats and corners of an odd number of sides are the diameters of the inner
        and outer circle; the circle is the one that touches the line's first three sides.

        On walls: `height` between the outer lines, `slant:A` the same along the face, `run:A` how far the outer line
        moves outwards on the way up, `slope:A` degrees from vertical (+ flaring), `level_slope:A` degrees from level,
        `crosswise:A` and `other_crosswise:A` from corner to corner over the face, `outer_there:A` the outer line at the level asked for,
        `board_width:A` the width that the board has before it is ripped. Without a letter: the first side's.

        `outside_wide` and `outside_high` are how far a line goes along its first side, and square to that; `outside_diagonal:EABC`
        is from one corner to another.

        Besides, the assembly's own gauges by their names.
        """
        asked = measure_of(name)
        if asked.member:
            return self.within(asked.member).measure(asked.own) if asked.member in self.assembly.inside else None
        gauge = self.assembly.by_name.get(name)
        if gauge is not None:
            return read(self.assembly, gauge)
        line, kind, which = asked.line, asked.quantity, asked.side
        if asked.what in _ON_WALLS:
            return self._on_wall(asked.what, which)
        outline, runs = self.assembly.outline(line), self.runs(line)
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
            return _between(outline, runs, "DB" if kind == "width" else "AC")
        if kind in ("wide", "high"):
            return _span(runs, kind, outline.way)
        if kind == "diagonal" and which:
            ends = [runs[which[k]][0] for k in (1, 3) if len(which) == CORNERS and which[k] in runs]
            return distance(*ends) if len(ends) == len("AB") else None
        return _across(outline, runs, kind)

    def _on_wall(self, what: str, which: str) -> float | None:
        low, high = self.runs("outer_bottom"), self.runs("outer_top")
        if low is None or high is None:
            return None
        key = which[:1] or next(iter(low))
        if key not in low:
            return None
        if what in ("crosswise", "other_crosswise"):
            first = what == "crosswise"
            return distance(low[key][0 if first else 1], high[key][1 if first else 0])
        up = sub(high[key][0], low[key][0])
        if what == "outer_there":
            level = self.assembly.asked_level_mm
            if level is None:
                return None
            share = (level - low[key][0][2]) / up[2]
            start, end = (add(low[key][k], scale(sub(high[key][k], low[key][k]), share)) for k in (0, 1))
            return distance(start, end)
        if what == "height":
            return up[2]
        outline = self.assembly.outline("outer_bottom")
        board = self.assembly.board(next(s.board for s in outline.stretches if s.key == key)) if outline else None
        assert board is not None
        if what == "slant":
            return dot(up, board.frame.y)
        if what == "board_width":
            return board.section.width_mm
        out = board.frame.z
        if what == "run":
            return (up[0] * out[0] + up[1] * out[1]) / hypot(out[0], out[1])
        slope = -degrees(asin(max(-1.0, min(1.0, out[2]))))
        return slope if what == "slope" else 90.0 - abs(slope)


_ON_WALLS = ("crosswise", "other_crosswise", "outer_there", "height", "slant", "run", "slope", "level_slope", "board_width")


def _walked(assembly: Assembly, outline: Outline) -> Runs:
    """Round a line: every stretch from where it meets the one before to where it meets the next, or to its cut end."""
    by_id = {board.id: board for board in assembly.boards}
    boards = [by_id[s.board] for s in outline.stretches]
    lines = [board.side_in_world(s.side).moved(outline.out_mm) for board, s in zip(boards, outline.stretches, strict=True)]
    ons = [board.side_in_world(outline.on) for board in boards]
    count, broken = len(boards), outline.broken
    runs = {}
    for i, stretch in enumerate(outline.stretches):
        before = meeting_point(lines[i - 1], lines[i], ons[i]) if (i - 1) % count not in broken else None
        after = meeting_point(lines[i], lines[(i + 1) % count], ons[i]) if i not in broken else None
        if before is None or after is None:
            own = _own_ends(boards[i], outline, i)
            before, after = before or own[0], after or own[1]
        runs[stretch.key] = (before, after)
    return runs


def _own_ends(board: Board, outline: Outline, i: int) -> tuple[Vec, Vec]:
    """Where a board's own cuts end its stretch of the line."""
    side, z = board.side(outline.stretches[i].side).moved(outline.out_mm), board.side(outline.on)
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


def _between(outline: Outline, runs: Runs, pair: str) -> float | None:
    """From one stretch square across to the line of the opposite one; along a whole neighbour if one is missing."""
    if set(pair) <= set(runs):
        return abs(_off(_flat(runs[pair[1]]), runs[pair[0]][0]))
    ids = list(runs)
    whole = [id for i, id in enumerate(ids) if id not in pair and not {i, (i - 1) % len(ids)} & outline.broken]
    return distance(*runs[whole[0]]) if whole else None


def _span(runs: Runs, kind: str, along_way: Point2 | None) -> float:
    """How far a line goes along a way, else its first stretch, or square to that."""
    start, end = next(iter(runs.values()))
    x, y = along_way or unit(sub(end, start))[:2]
    way = (x, y) if kind == "wide" else (-y, x)
    along = [p[0] * way[0] + p[1] * way[1] for run in runs.values() for p in run]
    return max(along) - min(along)


def _flat(run: tuple[Vec, Vec]) -> Line2:
    """A stretch seen from above."""
    return (run[0][0], run[0][1]), (run[1][0], run[1][1])


def _off(line: Line2, point: Vec | Point2) -> float:
    """How far a point lies to the right of a line, seen from above."""
    (ax, ay), (bx, by) = line
    return ((point[0] - ax) * (by - ay) - (point[1] - ay) * (bx - ax)) / hypot(bx - ax, by - ay)


def _across(outline: Outline, runs: Runs, kind: str) -> float | None:
    """Across flats or corners, corner to opposite side, or the longest diagonal."""
    ids = list(runs)
    corners = [runs[id][0] for id in ids]
    n, whole = len(ids), outline.rings
    if kind == "diagonal":
        points = [p for run in runs.values() for p in run]
        return max(distance(p, q) for p in points for q in points)
    if whole and n % 2 == 0:
        if kind == "flats":
            return abs(_off(_flat(runs[ids[n // 2]]), corners[0]))
        if kind == "corners":
            return distance(corners[0], corners[n // 2])
    if kind == "reach":
        return abs(_off(_flat(runs[ids[n // 2]]), corners[0])) if whole and n % 2 else None
    circle = _touching([_flat(runs[id]) for id in ids[:3]]) if n > 2 else None
    if circle is None:
        return None
    (x, y), radius = circle
    if kind == "flats":
        return 2 * radius
    meeting = [runs[id][0] for i, id in enumerate(ids) if (i - 1) % n not in outline.broken]
    return 2 * hypot(meeting[0][0] - x, meeting[0][1] - y) if kind == "corners" and meeting else None


def _touching(lines: list[Line2]) -> tuple[Point2, float] | None:
    """Centre and radius of the circle inside three lines: each is as far from it, so two differences fix the centre."""
    rows = []
    for (ax, ay), (bx, by) in lines:
        long = hypot(bx - ax, by - ay)
        nx, ny = (by - ay) / long, -(bx - ax) / long
        rows.append((nx, ny, nx * ax + ny * ay))
    (a, b, c), (d, e, f) = ((p[0] - q[0], p[1] - q[1], p[2] - q[2]) for p, q in ((rows[0], rows[1]), (rows[1], rows[2])))
    det = a * e - b * d
    if abs(det) < ZERO:
        return None
    x, y = (c * e - b * f) / det, (a * f - c * d) / det
    return (x, y), abs(rows[0][2] - rows[0][0] * x - rows[0][1] * y)
