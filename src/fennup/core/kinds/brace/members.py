"""What braces and props are made of: the board from place to place, the members that are there already, and where sizes are taken."""

from collections.abc import Sequence
from dataclasses import replace

from fennup.core.assembly.board import ENDS, Board
from fennup.core.assembly.model import Gauge, Spot
from fennup.core.errors import SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, plane_through
from fennup.core.geometry.vec import Point2, Vec, cross, dot
from fennup.core.kinds import sticks
from fennup.core.kinds.brace.spec import BraceSpec
from fennup.core.kinds.inner import Added, Face, add_between
from fennup.core.parts.solid import ARRISES, arris_length, solid_of
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING

X: Vec = (1.0, 0.0, 0.0)
Y: Vec = (0.0, 1.0, 0.0)
UP: Vec = (0.0, 0.0, 1.0)
DOWN: Vec = (0.0, 0.0, -1.0)
FRONT: Vec = (0.0, -1.0, 0.0)
EDGE = {"lower": (-1, -1), "centre": (0, 0), "pocket": (0, 0), "upper": (1, 1)}
SHEET = sticks.Sheet((0.0, 0.0, 0.0), X, UP)
NAME = {-1: "lower", 0: "middle", 1: "upper"}


def space(p: Point2) -> Vec:
    """A place on the drawing (x to the right, y up) in the assembly, in the middle of the thickness."""
    return (p[0], 0.0, p[1])


def edges_of(spec: BraceSpec, rise: float) -> tuple[int, int]:
    """On which edge the sizes are taken at the left and the right end: -1 lower, 0 the middle, 1 upper."""
    if spec.by == "corners":
        return (-1, 1) if rise >= 0 else (1, -1)
    return EDGE[spec.by]


def stick(
    spec: BraceSpec, ends: tuple[Point2, Point2], edges: tuple[int, int], width: float, id: str, name: str, role: str = "brace"
) -> Board:
    """A board from place to place in the middle of the thickness. SpecError `brace_too_wide`."""
    return sticks.stick(SHEET, ends, edges, Section(width, spec.thickness_mm), (id, name, role))


def member(
    id: str, name: str, corner: Point2, way: Point2, inwards: Point2, span: tuple[float, float], size: tuple[float, float]
) -> Board:
    """A member that is there already: its inner edge runs through a place, from `span[0]` to `span[1]` along `way`."""
    width, thickness = size
    y = space(inwards)
    x = cross(y, FRONT)
    sense = 1.0 if dot(x, space(way)) > 0 else -1.0
    low, high = sorted(sense * at for at in span)
    origin = space((corner[0] - inwards[0] * width / 2, corner[1] - inwards[1] * width / 2))
    board = Board(id, name, Section(width, thickness), Frame(origin, x, y, FRONT), found=True, role="member")
    return replace(board, left=(Plane((-1.0, 0.0, 0.0), -low),), right=(Plane(X, high),))


def inner_face(id: str, at: Point2, inwards: Point2) -> Face:
    """A member's inner edge as the face that a brace ends on: the brace keeps to the side it looks to."""
    return Face(plane_through(space(at), space((-inwards[0], -inwards[1]))), (id,), "upper")


def reach_of(boards: Sequence[Board], way: Point2, margin: float) -> tuple[float, float]:
    """How far some boards reach along a direction, and a margin."""
    along = [dot(p, space(way)) for board in boards for piece in solid_of(board).world for p in piece.points]
    return min(along) - margin, max(along) + margin


def fitted(added: Added, board: Board, faces: Sequence[Face], width_field: str = "width_mm") -> Board:
    """The brace cut to the faces that it meets. SpecError `brace_too_wide` where an edge comes to nothing."""
    made = add_between(added, board, faces, width_field)
    lengths = [arris_length(made, arris) for arris in ARRISES]
    if min(lengths) <= NOTHING:
        raise SpecError("brace_too_wide", (width_field,), mm=board.section.width_mm, limit_mm=max(lengths))
    return made


def check_ends(board: Board) -> None:
    """SpecError `brace_misses` where an end meets no member."""
    for end in ENDS:
        if not board.ends(end):
            raise SpecError("brace_misses", ("place",), part=board.name)


def gauge_line(name: str, board: str, edges: tuple[int, int]) -> Gauge:
    """A length along the board, from end to end, on the edges that sizes are taken on."""
    return Gauge(name, spot_on(board, "left", edges[0]), spot_on(board, "right", edges[1]))


def spot_on(board: str, at: str, edge: int) -> Spot:
    return Spot(board, at, NAME[edge])  # type: ignore[arg-type]


def edge_lengths(board: str) -> tuple[Gauge, ...]:
    """A brace's two edges."""
    return (gauge_line("lower_edge", board, (-1, -1)), gauge_line("upper_edge", board, (1, 1)))
