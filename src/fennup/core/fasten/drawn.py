"""A joint cut open with what holds it, and where its fasteners go, on the side that they go in."""

from collections.abc import Sequence
from dataclasses import dataclass

from fennup.core.drawing.board_views import sliced
from fennup.core.drawing.edit import TypeIn
from fennup.core.drawing.view import Dimension, Shape, View
from fennup.core.fasten.behind import behind_corners
from fennup.core.fasten.fastened import Fastened
from fennup.core.fasten.length import bite_mm
from fennup.core.fasten.pattern import Line
from fennup.core.fasten.table import BEHIND, STRAIGHT, Bolt, Dowel
from fennup.core.fasten.through import Stack
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.polygon import circle
from fennup.core.geometry.polyhedron import clip_polygon
from fennup.core.geometry.vec import Point2, Vec, add, cross, dot, norm, scale, sub, unit
from fennup.core.steps.templates import Line as Drawn
from fennup.core.steps.templates import Template
from fennup.core.tolerances import SAME

AROUND_MM = 45.0  # of wood that is drawn besides what the fastener goes through
UPRIGHT = 0.3  # of a direction: how much of it must be upright for the paper to stand upright
POINT = 1.5  # shanks: how long a tip is
MOST_SEEN_MM = 140.0
CROSS_MM = 4.0
NEAR_END_MM = 150.0


class Paper:
    """A plane through a fastener, and how it lies on the paper."""

    def __init__(self, one: Fastened, stack: Stack, line: Line) -> None:
        along = one.choice.lean_along and one.choice.lean_deg
        normal = unit(cross(stack.way, line.along)) if along else _square(line.along, stack.way)
        up: Vec = (0.0, 0.0, 1.0)
        flat = sub(up, scale(normal, dot(up, normal)))
        if norm(flat) < UPRIGHT:
            up = (0.0, 1.0, 0.0)
            flat = sub(up, scale(normal, dot(up, normal)))
        if norm(flat) < UPRIGHT:
            flat = sub((1.0, 0.0, 0.0), scale(normal, normal[0]))
        self.up = unit(flat)
        self.right = cross(self.up, normal)
        self.normal = normal

    def at(self, p: Vec) -> Point2:
        """Where a place is on it."""
        return (dot(p, self.right), dot(p, self.up))


def _square(way: Vec, to: Vec) -> Vec:
    """A direction made square to another one."""
    return unit(sub(way, scale(to, dot(way, to))))


def joint_view(one: Fastened) -> View:
    """The joint cut open where its first fastener goes, or in its middle."""
    joint = one.kind.joints[0]
    near = one.square.near if one.square and one.how in STRAIGHT else joint.a.board
    line = Line(one.design, joint, near, one.choice.wish)
    stack = one.rows[0][0] if one.rows and one.rows[0] else one.stack
    if stack is None:
        square = cross(line.along, line.across)
        stack = Stack(joint.id, joint.a.board, joint.b.board, line.middle, square, 0.0, 0.0, 90.0)
    paper = Paper(one, stack, line)
    at = add(stack.head, scale(stack.way, stack.through_mm))
    tip = max(one.length_mm or 0.0, min(stack.through_mm + 2 * (one.slot.deep_mm or 0.0), MOST_SEEN_MM)) - stack.through_mm
    far = scale(stack.way, max(tip, 0.0) + AROUND_MM)
    back = scale(stack.way, -min(stack.through_mm, MOST_SEEN_MM) - AROUND_MM / 2)
    if one.how not in STRAIGHT:
        reach = max(one.slot.deep_mm or 0.0, 2 * one.thick_mm if one.how in BEHIND else 0.0) + AROUND_MM / 2
        far, back = scale(stack.way, reach), scale(stack.way, -reach)
    across = _square(cross(paper.normal, stack.way), paper.normal)
    wide = max(line.half, AROUND_MM) + AROUND_MM / 2
    within = (
        Plane(stack.way, dot(stack.way, add(at, far))),
        Plane(scale(stack.way, -1.0), -dot(stack.way, add(at, back))),
        Plane(across, dot(across, at) + wide),
        Plane(scale(across, -1.0), -dot(across, at) + wide),
    )
    plane = Plane(paper.normal, dot(paper.normal, at))
    shapes = sliced(one.design.solids, plane, paper.right, paper.up, within)
    shapes = (*shapes, *_meets(line, plane, paper))
    drawn = _metal(one, stack, paper, across) if one.how in STRAIGHT else _slot(one, line, stack, paper)
    if one.how in BEHIND and (corners := behind_corners(one, line, paper.normal)):
        drawn = (Shape("jig", tuple(paper.at(p) for p in corners), True),)
    return View("joint_cut", (*shapes, *drawn), (), _sizes(one, stack, paper, across))


def _meets(line: Line, plane: Plane, paper: Paper) -> tuple[Shape, ...]:
    """Where the two boards lie on each other."""
    found = []
    for points in line.places:
        edge = [p for p in clip_polygon(points, plane) if abs(plane.beyond(p)) < SAME]
        if len(edge) > 1:
            found.append(Shape("joint", (paper.at(edge[0]), paper.at(edge[-1]))))
    return tuple(found)


def _metal(one: Fastened, stack: Stack, paper: Paper, across: Vec) -> tuple[Shape, ...]:
    """The fastener, its head sunk as it is."""
    straight, length = one.straight, one.length_mm
    if straight is None or length is None:
        return ()
    half = straight.shank_mm / 2

    def outline(*places: tuple[float, float]) -> tuple[Point2, ...]:
        both = [*places, *((along, -aside) for along, aside in reversed(places))]
        return tuple(paper.at(add(stack.head, add(scale(stack.way, along), scale(across, aside)))) for along, aside in both)

    start = one.begins_mm(stack)
    if isinstance(straight, Dowel):
        return (Shape("metal", outline((start, half), (start + length, half)), True),)
    end = start + length
    if isinstance(straight, Bolt):
        washer = straight.washer_mm
        start, end = start - washer, start - washer + length
        out = stack.through_mm + stack.into_mm
        nut = outline((out, straight.head_mm / 2), (out + washer + straight.nut_mm, straight.head_mm / 2))
        head = outline((start - straight.head_high_mm, straight.head_mm / 2), (start + washer, straight.head_mm / 2))
        return (Shape("metal", outline((start, half), (end, half)), True), Shape("metal", head, True), Shape("metal", nut, True))
    wide = straight.head_mm / 2
    body = outline(
        (start, wide), (start + straight.head_high_mm, half), (end - min(POINT * straight.shank_mm, length / 3), half), (end, 0.0)
    )
    hole = outline((0.0, wide), (start, wide)) if start > SAME else ()
    return (*((Shape("waste", hole, True),) if hole else ()), Shape("metal", body, True))


def _slot(one: Fastened, line: Line, stack: Stack, paper: Paper) -> tuple[Shape, ...]:
    """A biscuit's or a spline's slot."""
    deep, wide = one.slot.deep_mm, one.slot.wide_mm
    if not deep or not wide:
        return ()
    square = unit(cross(line.along, line.across))
    middle = add(line.middle, scale(line.across, one.slot.aside_mm))
    corners = ((-deep, -wide / 2), (deep, -wide / 2), (deep, wide / 2), (-deep, wide / 2))
    points = (add(middle, add(scale(square, a), scale(line.across, b))) for a, b in corners)
    return (Shape("metal", tuple(paper.at(p) for p in points), True),)


def _sizes(one: Fastened, stack: Stack, paper: Paper, across: Vec) -> tuple[Dimension, ...]:
    """What it goes through, its length (to be typed), its bite, and what is left over its tip."""
    length = one.length_mm
    if one.how not in STRAIGHT or length is None:
        return ()
    start = one.begins_mm(stack)
    places = {
        "head": 0.0,
        "start": start,
        "meets": stack.through_mm,
        "tip": start + length,
        "out": stack.through_mm + stack.into_mm,
    }
    at = {name: paper.at(add(stack.head, scale(stack.way, mm))) for name, mm in places.items()}
    aside = paper.at(across)

    def size(code: str, a: str, b: str, value: float, away: int, lane: float, acts: TypeIn | None = None) -> Dimension:
        standing = "derived" if acts is None else "given" if one.choice.length_mm else "suggested"
        out = (aside[0] * away, aside[1] * away)
        return Dimension(f"{one.kind.key} {code}", code, at[a], at[b], value, "mm", standing, out, lane, acts=acts)  # type: ignore[arg-type]

    typed = TypeIn(op="type", path=f"joints/{one.kind.key}/length_mm", text="")
    found = [
        size("fasten_length", "start", "tip", length, 1, 2.0, typed),
        size("fasten_through", "head", "meets", stack.through_mm, -1, 1.5),
    ]
    bite = length / 2 if isinstance(one.straight, Dowel) else bite_mm(stack, length, one.sunk_mm)
    if not isinstance(one.straight, Bolt) and bite > SAME:
        found.append(size("fasten_bite", "meets", "tip", bite, -1, 1.5))
    return tuple(found)


@dataclass(frozen=True)
class _Facing:
    """The side that fasteners go in, seen square: its board lies along the paper."""

    line: Line
    right: Vec
    up: Vec
    reader: Vec

    @classmethod
    def of(cls, one: Fastened) -> "_Facing | None":
        """For the first joint of a kind; None where it has no row."""
        if not one.rows or not one.rows[0] or one.square is None:
            return None
        line = Line(one.design, one.kind.joints[0], one.square.near, one.choice.wish)
        reader = unit(cross(line.along, line.across))
        if dot(reader, one.rows[0][0].way) > 0:
            reader = scale(reader, -1.0)
        grain = one.design.boards[one.square.near].grain
        flat = sub(grain, scale(reader, dot(grain, reader)))
        right = unit(flat) if norm(flat) > UPRIGHT else line.along
        along = [dot(p, right) for piece in one.design.solids[one.square.near].world for p in piece.points]
        row = [dot(stack.head, right) for stack in one.rows[0]]
        if min(row) - min(along) > max(along) - max(row) + SAME:
            right = scale(right, -1.0)  # measured from the nearer end
        return cls(line, right, cross(reader, right), reader)

    def at(self, p: Vec) -> Point2:
        """Where a place is on the paper."""
        return (dot(p, self.right), dot(p, self.up))


def pattern_view(one: Fastened) -> View | None:
    """The side that fasteners go in, seen square, with where each goes in and how far from the near end of the board; None without a row."""
    seen = _Facing.of(one)
    if seen is None or one.square is None:
        return None
    near = one.design.solids[one.square.near]
    shapes = [
        Shape("wood", tuple(seen.at(p) for p in piece.corners(facet)), True, near.board.id, seen.at(near.board.grain))
        for piece in near.world
        for facet in piece.facets
        if dot(facet.plane.normal, seen.reader) > UPRIGHT
    ]
    shapes += [Shape("unseen", tuple(seen.at(p) for p in points), True) for points in seen.line.places]
    wide = one.straight.head_mm or one.straight.shank_mm if one.straight else 1.0
    heads = sorted(seen.at(stack.head) for stack in one.rows[0])
    shapes += [Shape("hole", circle(p, wide), True) for p in heads]
    return View("joint_pattern", tuple(shapes), (), _running(one, heads, _end_and_edge(one, seen.right, seen.up)))


def _end_and_edge(one: Fastened, right: Vec, up: Vec) -> Point2:
    """The near end of the board that they go into, on the paper, and its lower edge."""
    assert one.square
    points = [p for piece in one.design.solids[one.square.near].world for p in piece.points]
    return (min(dot(p, right) for p in points), min(dot(p, up) for p in points))


def _running(one: Fastened, heads: Sequence[Point2], end: Point2) -> tuple[Dimension, ...]:
    """From the end to the first and to the last."""
    a, b = heads[0], heads[-1]

    def size(name: str, start: Point2, to: Point2, away: float, lane: float) -> Dimension:
        return Dimension(f"{one.kind.key} {name}", "", start, to, to[0] - start[0], "mm", "derived", (0.0, away), lane)

    found = [size("first", (end[0], a[1]), a, -1.0, 1.5)]
    if b[0] - a[0] > SAME:
        found.append(size("last", (end[0], b[1]), b, 1.0, 1.5))
    return tuple(d for d in found if d.value > SAME)


@dataclass(frozen=True)
class Marks:
    """Where the first joint's fasteners go in: `along_mm` running from the nearer end of the board that they go into, `up_mm` above its lower edge there."""

    along_mm: tuple[float, ...]
    up_mm: tuple[float, ...]


def marks_of(one: Fastened) -> Marks | None:
    """Those marks; None without a row."""
    seen = _Facing.of(one)
    if seen is None:
        return None
    low, edge = _end_and_edge(one, seen.right, seen.up)
    heads = sorted(seen.at(stack.head) for stack in one.rows[0])
    return Marks(tuple(x - low for x, _ in heads), tuple(y - edge for _, y in heads))


def pattern_template(one: Fastened) -> Template | None:
    """The row at true size, to be laid on the board: crosses, where the two boards lie on each other, and the board's end where that is near."""
    seen = _Facing.of(one)
    if seen is None:
        return None
    heads = sorted(seen.at(stack.head) for stack in one.rows[0])
    lines = [Drawn("unseen", tuple(seen.at(p) for p in points), True) for points in seen.line.places]
    for x, y in heads:
        lines += [Drawn("cut", ((x - CROSS_MM, y), (x + CROSS_MM, y))), Drawn("cut", ((x, y - CROSS_MM), (x, y + CROSS_MM)))]
    low, edge = _end_and_edge(one, seen.right, seen.up)
    top = max(y for line in lines for _, y in line.points)
    if heads[0][0] - low < NEAR_END_MM:
        lines.append(Drawn("edge", ((low, edge), (low, top))))
    first = min(x for line in lines for x, _ in line.points)
    last = max(x for line in lines for x, _ in line.points)
    lines.append(Drawn("edge", ((first, edge), (last, edge))))
    return Template(f"pattern {one.kind.key}", "pattern", one.square.near if one.square else "", tuple(lines))
