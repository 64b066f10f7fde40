"""Where a piece lies along the fence: the distance from blade to stop, and where lines run over sheets."""

from collections.abc import Iterable

from fennup.core.assembly.board import Board, End
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.polyhedron import Polyhedron, clip
from fennup.core.geometry.vec import Vec, dot
from fennup.core.parts.solid import ARRISES, Arris, arris_line, uncut_piece
from fennup.core.saw.pose import as_lying, axes_at, section_corners
from fennup.core.saw.tool import FencePlace
from fennup.core.saw.ways import Way
from fennup.core.steps.step import Line, Raw, Stop
from fennup.core.tolerances import SAME


def pieces_so_far(raw: Raw, cuts: Iterable[Plane]) -> tuple[Polyhedron, ...]:
    """The wood of a part after its rips and some cuts, as convex pieces in the board's axes."""
    board = raw.board
    planes = [*(plane for _, plane in board.rips), *cuts]
    made = []
    for outline in board.section.pieces:
        piece = uncut_piece((raw.low, raw.high), outline, board.section)
        for plane in planes:
            piece = clip(piece, plane, "cut")
        if piece.facets:
            made.append(piece)
    return tuple(made)


def as_it_lies(raw: Raw, way: Way) -> Raw:
    """The raw piece as it is when it lies so."""
    return Raw(as_lying(raw.board, way.pose), raw.low, raw.high)


def fence_line(board: Board, way: Way, fence: FencePlace) -> tuple[tuple[Vec, Vec, Vec], float, float]:
    """(the operator's axes in the board's, where the fence stands along the second one, where the table lies along the third one)."""
    axes = axes_at(way.pose, fence)
    corners = section_corners(as_lying(board, way.pose))
    across = [dot(axes[1], p) for p in corners]
    return axes, min(across) if fence == "near" else max(across), min(dot(axes[2], p) for p in corners)


def along_fence(plane: Plane, axes: tuple[Vec, Vec, Vec], y0: float, z0: float) -> float:
    """Where a cut crosses the line in which fence and table meet."""
    right, away, up = axes
    return (plane.offset - y0 * dot(plane.normal, away) - z0 * dot(plane.normal, up)) / dot(plane.normal, right)


def stop_for(raw: Raw, way: Way, fence: FencePlace, end: End, plane: Plane, made: dict[End, list[Plane]]) -> Stop:
    """The stop for a cut of an end, with what is `made` already at either."""
    raw = as_it_lies(raw, way)
    axes, y0, z0 = fence_line(raw.board, way, fence)
    right = axes[0]
    other: End = "left" if end == "right" else "right"
    side = -1.0 if way.kept == "left" else 1.0
    points = [p for piece in pieces_so_far(raw, made[other]) for p in piece.points]
    reach = max(side * dot(right, p) for p in points)
    tips = [p for p in points if side * dot(right, p) > reach - SAME]
    out = [abs(dot(axes[1], p) - y0) for p in tips]
    up = [dot(axes[2], p) - z0 for p in tips]
    return Stop(
        reach - side * along_fence(plane, axes, y0, z0),
        "made_end" if made[other] else "raw_end",
        tuple(a for a in ARRISES if any(_on(raw.board, a, p) for p in tips)),
        min(out),
        min(up),
    )


def _on(board: Board, arris: Arris, point: Vec) -> bool:
    y, z = arris_line(board, arris)
    return abs(point[1] - y) < SAME and abs(point[2] - z) < SAME


def line_over(raw: Raw, way: Way, plane: Plane) -> Line:
    """Where a cut runs over a blank: the place on its line, on the side that is down, that lies nearest to the blank's middle."""
    half_y, half_z = raw.board.section.width_mm / 2, raw.board.section.thickness_mm / 2
    z = -half_z if way.pose.down == "back" else half_z
    middle = ((raw.low + raw.high) / 2, 0.0)
    nx, ny, nz = plane.normal
    square = nx * nx + ny * ny
    off = (plane.offset - nz * z - nx * middle[0] - ny * middle[1]) / square
    return Line(middle[0] + off * nx - raw.low, middle[1] + off * ny + half_y)
