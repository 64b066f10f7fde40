"""Views that every kind gets from its solids: the whole seen from the front, a section, a part seen from its face."""

from itertools import combinations

from fennup.core.assembly.board import ENDS, Board
from fennup.core.assembly.model import Assembly
from fennup.core.drawing.view import Mark, Shape
from fennup.core.geometry.polyhedron import clip_polygon
from fennup.core.geometry.vec import Point2, Vec
from fennup.core.parts.solid import Solid, arris_line, extent_along, long_points

ALONG = (1.0, 0.0)


def front_shapes(assembly: Assembly, solids: dict[str, Solid]) -> tuple[Shape, ...]:
    """Every board's silhouette seen from +z, then joint faces edge on, then rabbet walls."""
    shapes = [
        Shape("wood", hull([(p[0], p[1]) for p in _points(solids[b.id])]), True, b.id, (b.frame.x[0], b.frame.x[1]))
        for b in assembly.boards
    ]
    for board in assembly.boards:
        wall = [p for patch in solids[board.id].patches("rabbet") for p in patch.points]
        if wall:
            shapes.append(Shape("rabbet", _farthest([(p[0], p[1]) for p in wall]), False, board.id))
    for joint in assembly.joints:
        for mating in (joint.a, joint.b):
            if mating.facet == "upper":
                continue
            seen = [(p[0], p[1]) for patch in solids[mating.board].patches(mating.facet) for p in patch.points]
            shapes.append(Shape("joint", _farthest(seen)))
    return tuple(shapes)


def _points(solid: Solid) -> list[Vec]:
    return [p for piece in solid.world for p in piece.points]


def hull(points: list[Point2]) -> tuple[Point2, ...]:
    """Convex outline, anticlockwise (monotone chain)."""
    ordered = sorted({(round(x, 9), round(y, 9)) for x, y in points})

    def half(run: list[Point2]) -> list[Point2]:
        kept: list[Point2] = []
        for p in run:
            while len(kept) > 1 and _turn(kept[-2], kept[-1], p) <= 1e-7:
                kept.pop()
            kept.append(p)
        return kept[:-1]

    return tuple(half(ordered) + half(ordered[::-1]))


def _turn(a: Point2, b: Point2, c: Point2) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def _farthest(points: list[Point2]) -> tuple[Point2, Point2]:
    """The two points that are farthest apart."""
    return max(combinations(points, 2), key=lambda pq: (pq[0][0] - pq[1][0]) ** 2 + (pq[0][1] - pq[1][1]) ** 2)


def part_shapes(board: Board, solid: Solid) -> tuple[tuple[Shape, ...], tuple[Mark, ...]]:
    """A part from its face, upper edge up: the wood, what is sawn off it, the cuts, its rabbet, its marks.

    The waste is what the least board that the part can be cut from has over, at each end.
    """
    low, high = solid.extent_x()
    y, z = board.section.width_mm / 2, board.section.thickness_mm / 2
    shapes = [Shape("wood", hull([(p[0], p[1]) for piece in solid.local for p in piece.points]), True, board.id, ALONG)]
    marks = []
    for end in ENDS:
        for cut in board.ends(end):
            stock = ((low, -y, z), (high, -y, z), (high, y, z), (low, y, z))
            off = clip_polygon(stock, cut.flipped())
            if off:
                shapes.append(Shape("waste", tuple((p[0], p[1]) for p in off), True))
            nx, ny, nz = cut.normal
            ends = tuple(((cut.offset - ny * at - nz * z) / nx, at) for at in (-y, y))
            shapes.append(Shape("cut", ends))
        side = 1 if end == "right" else 0
        for arris in long_points(board, end):
            if arris.startswith("face"):
                at = arris_line(board, arris)
                marks.append(Mark("long_point", (extent_along(board, *at)[side], at[0])))
    if board.section.rabbet:
        wall = y - board.section.rabbet.width_mm
        run = extent_along(board, wall, -z)
        shapes.append(Shape("unseen", ((run[0], wall), (run[1], wall))))
    middle = (low + high) / 2
    reach = (high - low) / 6
    marks += [Mark("face_mark", (middle + reach, 0.0)), Mark("triangle", (middle - reach, 0.0))]
    return tuple(shapes), tuple(marks)


def section_shapes(board: Board) -> tuple[Shape, ...]:
    """The cross section, opening edge to the left and face down to the reader's bottom: x is -y, y is z."""
    y, z = board.section.width_mm / 2, board.section.thickness_mm / 2
    rabbet = board.section.rabbet
    outline: list[Point2] = [(-y, -z), (y, -z), (y, z), (-y, z)]
    if rabbet:
        step, floor = y - rabbet.width_mm, -z + rabbet.depth_mm
        outline = [(-y, floor), (-step, floor), (-step, -z), (y, -z), (y, z), (-y, z)]
    return (Shape("wood", tuple(outline), True),)
