"""What is put behind a joint, drawn where it goes: a block or a bracket in its inner corner, a strip over its back."""

from itertools import product

from fennup.core.assembly.board import Board
from fennup.core.fasten.fastened import Fastened
from fennup.core.fasten.pattern import Line
from fennup.core.fasten.through import is_in
from fennup.core.geometry.vec import Vec, add, cross, dot, norm, scale, sub, unit

REACH_TIMES = 2.0  # of how thick it is: how far it lies along each board
LEAST_REACH_MM = 20.0
ALONG_PART = 0.3  # of a board's grain that must lie in the picture
STRAIGHT_ON = -0.9  # the cosine between two boards that go on in one line
SQUARE_ON = 0.1
PROBE_MM = 2.0
NEXT_MM = 0.2


def behind_corners(one: Fastened, line: Line, normal: Vec) -> tuple[Vec, ...]:
    """The corners of what is put behind, in the plane of the picture, `normal` out of it; nothing where neither board runs in it."""
    boards = [one.design.boards[m.board] for m in (one.kind.joints[0].a, one.kind.joints[0].b)]
    ends = [add(line.middle, scale(line.across, side * line.half)) for side in (-1.0, 1.0)]
    thick = one.thick_mm
    reach = max(LEAST_REACH_MM, REACH_TIMES * thick)
    for end in _the_back_first(ends, boards[0]):
        out = unit(sub(end, line.middle))
        for a, b in product(*(_along(one, board, end, normal) for board in boards)):
            if dot(a, b) < STRAIGHT_ON and dot(a, out) ** 2 < SQUARE_ON:  # they go on in one line: over the back
                low, high = add(end, scale(a, reach)), add(end, scale(b, reach))
                return (low, high, add(high, scale(out, thick)), add(low, scale(out, thick)))
            if abs(dot(a, b)) > -STRAIGHT_ON:
                continue
            inwards = unit(add(a, b))
            if any(is_in(one.design.solids[board.id], add(end, scale(inwards, PROBE_MM))) for board in boards):
                continue  # that side of the corner is wood
            tips = (end, add(end, scale(a, reach)), add(end, scale(b, reach)))
            if one.how != "bracket":
                return tips
            inner = add(end, scale(inwards, thick * 2))
            ways = [add(inner, scale(way, reach - thick * 2)) for way in (a, b)]
            return (tips[0], tips[1], ways[0], inner, ways[1], tips[2])
    return ()


def _the_back_first(ends: list[Vec], board: Board) -> list[Vec]:
    """The end at the board's back before the one at its face."""
    return sorted(ends, key=lambda end: round(dot(end, board.frame.z), 6))


def _along(one: Fastened, board: Board, end: Vec, normal: Vec) -> list[Vec]:
    """The ways along a board's side from there, in the picture: along its grain, or along its edge where the grain runs out of the picture."""
    solid = one.design.solids[board.id]
    found = []
    for axis in (board.grain, board.frame.y if board.grain == board.frame.x else board.frame.x, board.frame.z):
        flat = sub(axis, scale(normal, dot(axis, normal)))
        if norm(flat) < ALONG_PART:
            continue
        for way in (unit(flat), scale(unit(flat), -1.0)):
            aside = cross(normal, way)
            near = [add(end, add(scale(way, PROBE_MM), scale(aside, side * NEXT_MM))) for side in (-1.0, 1.0)]
            if sum(is_in(solid, p) for p in near) == 1:  # wood to one hand, none to the other: a side of it
                found.append(way)
    return found
