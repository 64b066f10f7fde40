"""Views that every kind gets from its solids: the whole seen from the front, a section, a part seen from its face."""

from itertools import combinations
from math import cos, pi, sin

import numpy as np
from manifold3d import CrossSection, FillRule

from fennup.core.assembly.board import ENDS, Board
from fennup.core.assembly.model import Assembly
from fennup.core.drawing.view import Mark, Shape, ShapeRole
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.polygon import circle, hull
from fennup.core.geometry.polyhedron import clip, clip_polygon
from fennup.core.geometry.vec import Point2, Vec, cross, dot
from fennup.core.parts.solid import Solid, arris_line, extent_along, long_points, ploughed_lines
from fennup.core.stock.section import Section
from fennup.core.tolerances import SAME

HOLE_CORNERS = 24  # of the polygon that a hole is drawn with
ALONG = (1.0, 0.0)
TURN, RISE = 0.5, 0.55  # radians round and up, for the view at a glance


def front_shapes(assembly: Assembly, solids: dict[str, Solid]) -> tuple[Shape, ...]:
    """Every board's silhouette seen from +z, then the lines of what is ploughed along it, then joint faces edge on."""
    shapes = [
        Shape("wood", hull([(p[0], p[1]) for p in _points(solids[b.id])]), True, b.id, (b.frame.x[0], b.frame.x[1]))
        for b in sorted(
            assembly.boards, key=lambda b: (not b.panel, b.frame.origin[2] if b.role == "strip" else 0.0)
        )  # a panel lies behind
    ]
    for board in assembly.boards:
        for role, ends in _long_lines(board):
            flat = tuple((p[0], p[1]) for p in map(board.frame.to_world, ends))
            shapes.append(Shape("rabbet" if role == "unseen" else role, flat, False, board.id))
    for joint in assembly.joints:
        if joint.kind == "lap":
            lap = [p for patch in solids[joint.a.board].patches(joint.a.facet) for p in patch.points]
            shapes.append(Shape("joint", hull([(p[0], p[1]) for p in lap]), True))
            continue
        for mating in (joint.a, joint.b) if joint.kind != "face" else ():
            if mating.facet == "upper" or not _in_front(assembly, mating.board):
                continue
            seen = [(p[0], p[1]) for patch in solids[mating.board].patches(mating.facet) for p in patch.points]
            shapes.append(Shape("joint", _farthest(seen)))
    return tuple(shapes)


def _in_front(assembly: Assembly, id: str) -> bool:
    """Whether a board of a frame is seen from the front: a strip on its back is not."""
    board = assembly.board(id)
    return board.role != "strip" or board.shows


def seen_from(
    assembly: Assembly, solids: dict[str, Solid], right: Vec, up: Vec, *, through_found: bool = True
) -> tuple[Shape, ...]:
    """Every side that looks at the reader, the farthest first, so that nearer ones cover it; faces that meet others not.

    `right` and `up` are unit directions of the paper in the assembly's axes. `through_found`: what is there already hides no
    part, wherever it stands.
    """
    return tuple(shape for _, shape in _seen(assembly, solids, right, up, through_found=through_found))


def sides_seen(assembly: Assembly, solids: dict[str, Solid], right: Vec, up: Vec) -> list[tuple[str, Shape]]:
    """The same sides, each with its name on its board."""
    return _seen(assembly, solids, right, up, through_found=False)


def from_a_side(solids: dict[str, Solid], side: str) -> tuple[Vec, Vec]:
    """The paper's directions for the whole from the `front`, from the `back` or from `below`, each a little from one side."""
    turn = looked_from(solids) + (pi if side == "back" else 0.0)
    rise = -RISE if side == "below" else RISE
    return (cos(turn), sin(turn), 0.0), (-sin(turn) * sin(rise), cos(turn) * sin(rise), cos(rise))


def _seen(assembly: Assembly, solids: dict[str, Solid], right: Vec, up: Vec, *, through_found: bool) -> list[tuple[str, Shape]]:
    """Every side that looks at the reader with its name, the farthest first."""
    covered = {
        (m.board, m.facet) for j in assembly.joints if j.kind != "face" for m in ((j.a,) if j.kind == "butt" else (j.a, j.b))
    }
    reader = cross(right, up)
    seen = []
    for id, solid in solids.items():
        way = solid.board.grain
        grain = _unit2((dot(way, right), dot(way, up)))
        for piece in solid.world:
            for facet in piece.facets:
                if (id, facet.name) in covered or dot(facet.plane.normal, reader) < SAME:
                    continue
                corners = piece.corners(facet)
                depth = sum(dot(p, reader) for p in corners) / len(corners)
                flat = tuple((dot(p, right), dot(p, up)) for p in corners)
                role: ShapeRole = "found" if solid.board.found else "wood"
                over = not (through_found and solid.board.found)
                shape = Shape(role, flat, True, id, grain, _tone(facet.plane.normal, right, up))
                seen.append((over, round(depth, 6), facet.name, shape))
    return [(name, shape) for _, _, name, shape in sorted(seen, key=lambda entry: entry[:2])]


def _tone(normal: Vec, right: Vec, up: Vec) -> int:
    """How much light a side gets from over the reader's left shoulder: 0 most, 2 least."""
    reader = cross(right, up)
    light = 0.7 * dot(normal, up) - 0.45 * dot(normal, right) + 0.55 * dot(normal, reader)
    return 0 if light > 0.5 else 1 if light > 0.1 else 2


def _unit2(way: Point2) -> Point2:
    long = (way[0] ** 2 + way[1] ** 2) ** 0.5
    return (way[0] / long, way[1] / long) if long > SAME else (1.0, 0.0)


def joints_on_top(assembly: Assembly, solids: dict[str, Solid], right: Vec, up: Vec) -> tuple[Shape, ...]:
    """Where joints come out on the side that is nearest to the reader."""
    reader = cross(right, up)
    faces = [[p for patch in solids[j.a.board].patches(j.a.facet) for p in patch.points] for j in assembly.joints if j.ends]
    nearest = max((dot(p, reader) for face in faces for p in face), default=0.0)
    on_top = ([(dot(p, right), dot(p, up)) for p in face if dot(p, reader) > nearest - SAME] for face in faces)
    return tuple(Shape("joint", _farthest(points)) for points in on_top if len(points) > 1)


def joints_sliced(assembly: Assembly, solids: dict[str, Solid], plane: Plane, right: Vec, up: Vec) -> tuple[Shape, ...]:
    """Where a plane cuts the faces that meet."""
    shapes = []
    for joint in assembly.joints:
        for patch in solids[joint.a.board].patches(joint.a.facet):
            edge = [p for p in clip_polygon(patch.points, plane) if abs(plane.beyond(p)) < SAME]
            if len(edge) > 1:
                shapes.append(Shape("joint", _farthest([(dot(p, right), dot(p, up)) for p in edge])))
    return tuple(shapes)


def pictorial(assembly: Assembly, solids: dict[str, Solid]) -> tuple[Shape, ...]:
    """The whole from the front, a little from one side and from above, without perspective."""
    right, up = from_a_side(solids, "front")
    return seen_from(assembly, solids, right, up, through_found=False)


def looked_from(solids: dict[str, Solid]) -> float:
    """How far round from the front one looks, radians: from the right, unless what is there already stands on that side."""
    found, parts = (
        [p[0] for solid in solids.values() if solid.board.found == there for piece in solid.world for p in piece.points]
        for there in (True, False)
    )
    return -TURN if found and sum(found) / len(found) > sum(parts) / len(parts) else TURN


def sliced(solids: dict[str, Solid], plane: Plane, right: Vec, up: Vec, within: tuple[Plane, ...] = ()) -> tuple[Shape, ...]:
    """Every part cut by a plane, as the reader sees the cut; `within` keeps only what lies inside some planes."""
    shapes = []
    for id, solid in solids.items():
        cuts = []
        for piece in solid.world:
            half = clip(piece, plane, "slice")
            cut = next((f for f in half.facets if f.name == "slice"), None)
            if cut is None:
                continue
            points = half.corners(cut)
            for edge in within:
                points = clip_polygon(points, edge)
            if points:
                cuts.append(tuple((dot(p, right), dot(p, up)) for p in points))
        shapes += [Shape("wood", outline, True, id, (1.0, 0.0)) for outline in _together(cuts)]
    return tuple(shapes)


def _together(cuts: list[tuple[Point2, ...]]) -> list[tuple[Point2, ...]]:
    """The outlines of some flat figures, those that touch as one: a board is cut across as one, however many pieces it is reckoned in."""
    if len(cuts) < 2:
        return cuts
    whole = CrossSection([np.array(cut) for cut in cuts], FillRule.NonZero)
    return [tuple((float(x), float(y)) for x, y in loop) for loop in whole.to_polygons()]


def _points(solid: Solid) -> list[Vec]:
    return [p for piece in solid.world for p in piece.points]


def _farthest(points: list[Point2]) -> tuple[Point2, Point2]:
    """The two points that are farthest apart."""
    return max(combinations(points, 2), key=lambda pq: (pq[0][0] - pq[1][0]) ** 2 + (pq[0][1] - pq[1][1]) ** 2)


def part_shapes(board: Board, solid: Solid) -> tuple[tuple[Shape, ...], tuple[Mark, ...]]:
    """A part from its face, upper edge up: the wood, what is sawn off it, the cuts, its rabbet, its marks.

    The waste is what the least board that the part can be cut from has over, at each end.
    """
    if board.panel:
        return _panel_shapes(board, solid)
    low, high = solid.extent_x()
    y, z = board.section.width_mm / 2, board.section.thickness_mm / 2
    grain = (0.0, 1.0) if board.stave else ALONG
    shapes = [Shape("wood", hull([(p[0], p[1]) for piece in solid.local for p in piece.points]), True, board.id, grain)]
    marks = []
    for end in ENDS:
        for cut in board.ends(end):
            stock = ((low, -y, z), (high, -y, z), (high, y, z), (low, y, z))
            off = clip_polygon(stock, cut.flipped())
            if len(off) > 2:
                shapes.append(Shape("waste", tuple((p[0], p[1]) for p in off), True))
            nx, ny, nz = cut.normal
            line = tuple(((cut.offset - ny * at - nz * z) / nx, at) for at in (-y, y))
            shapes.append(Shape("cut", _within(line, low, high)))
        side = 1 if end == "right" else 0
        for arris in long_points(board, end):
            if arris.startswith("face"):
                at = arris_line(board, arris)
                marks.append(Mark("long_point", (extent_along(board, *at)[side], at[0])))
    shapes += _worked(board, low, high)
    middle = (low + high) / 2
    reach = (high - low) / 6
    marks += [Mark("face_mark", (middle + reach, 0.0)), Mark("triangle", (middle - reach, 0.0))]
    return tuple(shapes), tuple(marks)


def _within(line: tuple[Point2, ...], low: float, high: float) -> tuple[Point2, ...]:
    """What of a line lies between two places along the board."""
    (ax, ay), (bx, by) = line
    if abs(bx - ax) < SAME:
        return line

    def at(x: float) -> Point2:
        return (x, ay + (by - ay) * (x - ax) / (bx - ax))

    return tuple(p if low <= p[0] <= high else at(low if p[0] < low else high) for p in line)


def _worked(board: Board, low: float, high: float) -> list[Shape]:
    """What is ripped, ploughed, drilled and notched: solid where the face shows it, dashed where only the back does."""
    y, z = board.section.width_mm / 2, board.section.thickness_mm / 2
    shapes = []
    for _, ripped in board.rips:
        # Of a backed edge each bevel is on one side only, and their ridge is seen from the face.
        seen = (z, -z) if not board.backing else (0.0, z if ripped is board.upper_rip else -z)
        for z_at in seen:
            rim = (ripped.offset - ripped.normal[2] * z_at) / ripped.normal[1]
            run = extent_along(board, rim, z_at)
            shapes.append(Shape("cut" if z_at >= 0 else "unseen", ((run[0], rim), (run[1], rim))))
    for hole in board.holes:
        round_it = circle((hole.x_mm, hole.y_mm), hole.diameter_mm, HOLE_CORNERS)
        shapes.append(Shape("unseen" if hole.back and hole.deep_mm else "hole", round_it, True))
    for notch in board.notches:
        through = abs(notch.planes[-1].normal[2]) < 0.5  # a birdsmouth goes through the whole thickness
        from_face = through or notch.planes[-1].normal[2] < 0
        slot: tuple[Vec, ...] = ((low, -y, 0.0), (high, -y, 0.0), (high, y, 0.0), (low, y, 0.0))
        for plane in notch.planes if through else notch.planes[:-1]:
            slot = clip_polygon(slot, plane)
        if slot:
            shapes.append(Shape("waste" if from_face else "unseen", tuple((p[0], p[1]) for p in slot), True))
    shapes += [Shape(role, tuple((p[0], p[1]) for p in ends)) for role, ends in _long_lines(board)]
    return shapes


def _long_lines(board: Board) -> list[tuple[ShapeRole, tuple[Vec, Vec]]]:
    """The long lines of what is ploughed that lie on the face, seen, and on the back, unseen: from end to end, in the board's axes."""
    return [
        (
            "arris" if line.side == "face" else "unseen",
            ((line.low_mm, line.y_mm, line.z_mm), (line.high_mm, line.y_mm, line.z_mm)),
        )
        for lines in ploughed_lines(board)
        for line in lines
        if line.side in ("face", "back")
    ]


def _panel_shapes(board: Board, solid: Solid) -> tuple[tuple[Shape, ...], tuple[Mark, ...]]:
    """A panel from its face: its outline there, and dashed the outline of its back where that is another one."""
    shapes = [Shape("wood", hull([(p[0], p[1]) for piece in solid.local for p in piece.points]), True, board.id, ALONG)]
    for piece in solid.local:
        for facet in piece.facets:
            if facet.name in ("face", "back"):
                role: ShapeRole = "cut" if facet.name == "face" else "unseen"
                shapes.append(Shape(role, tuple((p[0], p[1]) for p in piece.corners(facet)), True))
    return tuple(shapes), (Mark("face_mark", (0.0, 0.0)),)


def section_shape(section: Section, part: str | None = None, at: Point2 = (0.0, 0.0)) -> Shape:
    """A section with its middle at a place, its upper edge to the left and its face up: x is -y, y is z."""
    return Shape("wood", tuple((at[0] - y, at[1] + z) for y, z in reversed(section.outline)), True, part)
