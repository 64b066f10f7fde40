"""A rail cut across, with the strips that lie on it: small beside the frame, and large, with every figure."""

from collections.abc import Iterator

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly
from fennup.core.drawing.board_views import section_shapes
from fennup.core.drawing.view import DOWN, LEFT, RIGHT, UP, Dimension, Mark, Shape, View
from fennup.core.geometry.vec import Point2
from fennup.core.kinds.flat_frame.layer import Layer
from fennup.core.kinds.flat_frame.outline import Baseline
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec, Rectangle
from fennup.core.kinds.flat_frame.words import WORDS
from fennup.core.kinds.ploughing import Beside, ploughed_dimensions, side_marks
from fennup.core.tolerances import ON_LINE


def section_views(spec: FlatFrameSpec, base: Baseline, assembly: Assembly) -> tuple[View, ...]:
    """The first rail cut across, opening edge at the left, face upwards. The large one only where there is more than the rail and a rabbet."""
    rail = assembly.boards[0]
    strips = list(_strips(spec, base, assembly, rail))
    shapes = [*section_shapes(rail), *(_placed(section_shapes(board)[0], board.id, at) for _, board, at in strips)]
    xs, ys = zip(*(p for shape in shapes for p in shape.points), strict=True)
    box = (min(xs), min(ys)), (max(xs), max(ys))
    small = Beside(*box)
    dimensions = [*_rabbet_figures(spec, rail, small), *_rail_figures(spec, rail, small)]
    section = View("section", tuple(shapes), (), tuple(dimensions))
    if not (spec.board.ploughed or strips):
        return (section,)
    large = Beside(*box)
    figures = [
        *_rabbet_figures(spec, rail, large),
        *ploughed_dimensions(rail.section, spec.board.ploughed, "board.ploughed", large),
    ]
    for strip in strips:
        figures += _strip_figures(spec, rail, strip, large)
    figures += _rail_figures(spec, rail, large)
    marks = [Mark("name", at, board.name) for _, board, at in strips]
    return section, View("profile", tuple(shapes), (*side_marks(rail.section, WORDS.roles["frame"]), *marks), tuple(figures))


Strip = tuple[str, Board, Point2]


def _strips(spec: FlatFrameSpec, base: Baseline, assembly: Assembly, rail: Board) -> Iterator[Strip]:
    """The strips on one rail: the layer, the board, and where its middle lies on the drawing."""
    side = next(side for side in base.sides if side.letter == rail.id)
    by_id = {board.id: board for board in assembly.boards}
    for id, layer in spec.layers.items():
        board = by_id.get(f"{rail.id}{id}")
        if board:
            inner, outer = layer.edges(side.inner, side.outer)
            yield id, board, ((inner + outer - side.inner - side.outer) / 2, board.frame.origin[2])


def _placed(shape: Shape, id: str, at: Point2) -> Shape:
    return Shape(shape.role, tuple((x + at[0], y + at[1]) for x, y in shape.points), True, id)


def _rail_figures(spec: FlatFrameSpec, rail: Board, beside: Beside) -> Iterator[Dimension]:
    """How wide and how thick the first rail is."""
    y, z = rail.section.width_mm / 2, rail.section.thickness_mm / 2
    own = rail.id in spec.rails
    both = ("AC" if rail.id in "AC" else "BD") if isinstance(spec.shape, Rectangle) else rail.id
    width = f"rails.{both}.width_mm" if own else "board.width_mm"
    yield beside.dimension("width", "rail_width", (-y, y), UP, 2 * y, width)
    yield beside.dimension("thickness", "thickness", (-z, z), RIGHT, 2 * z, "board.thickness_mm")


def _rabbet_figures(spec: FlatFrameSpec, rail: Board, beside: Beside) -> Iterator[Dimension]:
    """The rabbet that what it holds lies in."""
    if spec.rabbet:
        y, z = rail.section.width_mm / 2, rail.section.thickness_mm / 2
        wide, deep = spec.rabbet.width_mm, spec.rabbet.depth_mm
        yield beside.dimension("rabbet_width", "rabbet_width", (-y, wide - y), DOWN, wide, "rabbet.width_mm")
        yield beside.dimension("rabbet_depth", "rabbet_depth", (-z, deep - z), LEFT, deep, "rabbet.depth_mm")


def _strip_figures(spec: FlatFrameSpec, rail: Board, strip: Strip, beside: Beside) -> Iterator[Dimension]:
    """A strip's own figures, and how far in from its line it lies."""
    id, board, (x, z) = strip
    layer: Layer = spec.layers[id]
    half, thick, edge = layer.width_mm / 2, layer.thickness_mm / 2, rail.section.width_mm / 2
    away, path = UP if layer.side == "face" else DOWN, f"layers.{id}"
    yield from ploughed_dimensions(board.section, layer.ploughed, f"{path}.ploughed", beside, (x, z))
    yield beside.dimension(f"{path}.width", "layer_width", (x - half, x + half), away, layer.width_mm, f"{path}.width_mm")
    if abs(layer.set_back_mm) > ON_LINE:
        span = (x + half, edge) if layer.keeps_to == "outside" else (-edge, x - half)
        yield beside.dimension(f"{path}.set_back", "layer_set_back", span, away, layer.set_back_mm, f"{path}.set_back_mm")
    yield beside.dimension(
        f"{path}.thickness", "layer_thickness", (z - thick, z + thick), LEFT, layer.thickness_mm, f"{path}.thickness_mm"
    )
