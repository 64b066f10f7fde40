"""A rail cut across, with the strips that lie on it: small beside the frame, and large, with every figure."""

from collections.abc import Iterator

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly
from fennup.core.drawing.board_views import section_shape
from fennup.core.drawing.view import DOWN, LEFT, RIGHT, UP, Dimension, Mark, View
from fennup.core.kinds.flat_frame.glued import Lies, lying_on
from fennup.core.kinds.flat_frame.shapes import Rectangle
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec
from fennup.core.kinds.flat_frame.words import WORDS
from fennup.core.kinds.ploughing import Beside, ploughed_dimensions, side_marks
from fennup.core.stock.section import Section
from fennup.core.tolerances import ON_LINE


def section_views(spec: FlatFrameSpec, assembly: Assembly) -> tuple[View, ...]:
    """The first rail cut across, opening edge at the left, face upwards. The large one only where there is more than the rail and a rabbet."""
    rail = assembly.boards[0]
    own = spec.section_of(rail.id)
    strips = list(lying_on(own.width_mm, own.thickness_mm, spec.layers, rail.id))
    wood = [(own, rail.id, (0.0, 0.0)), *((s.layer.section, _called(spec, s, rail), (-s.y_mm, s.z_mm)) for s in strips)]
    shapes = [section_shape(section, id, at) for section, id, at in wood]
    xs, ys = zip(*(p for shape in shapes for p in shape.points), strict=True)
    box = (min(xs), min(ys)), (max(xs), max(ys))
    small = Beside(*box)
    dimensions = [*_rabbet_figures(spec, own, small), *_rail_figures(spec, rail.id, own, small)]
    section = View("section", tuple(shapes), (), tuple(dimensions))
    if not (spec.board.ploughed or strips):
        return (section,)
    large = Beside(*box)
    figures = [
        *_rabbet_figures(spec, own, large),
        *ploughed_dimensions(own, spec.board.ploughed, "board.ploughed", large),
    ]
    for strip in strips:
        figures += _strip_figures(own, strip, large)
    figures += _rail_figures(spec, rail.id, own, large)
    named = [Mark("name", (-s.y_mm, s.z_mm), f"Strip {rail.id}{s.id}") for s in strips]
    return section, View("profile", tuple(shapes), (*side_marks(own, WORDS.roles["frame"]), *named), tuple(figures))


def _called(spec: FlatFrameSpec, strip: Lies, rail: Board) -> str:
    """The board that a strip is: one of its own, or with all others its rail."""
    return rail.id if spec.as_one else f"{rail.id}{strip.id}"


def _rail_figures(spec: FlatFrameSpec, letter: str, section: Section, beside: Beside) -> Iterator[Dimension]:
    """How wide and how thick the first rail is."""
    y, z = section.width_mm / 2, section.thickness_mm / 2
    own = letter in spec.rails
    both = ("AC" if letter in "AC" else "BD") if isinstance(spec.shape, Rectangle) else letter
    width = f"rails.{both}.width_mm" if own else "board.width_mm"
    yield beside.dimension("width", "rail_width", (-y, y), UP, 2 * y, width)
    yield beside.dimension("thickness", "thickness", (-z, z), RIGHT, 2 * z, "board.thickness_mm")


def _rabbet_figures(spec: FlatFrameSpec, section: Section, beside: Beside) -> Iterator[Dimension]:
    """The rabbet that what it holds lies in."""
    if spec.rabbet:
        y, z = section.width_mm / 2, section.thickness_mm / 2
        wide, deep = spec.rabbet.width_mm, spec.rabbet.depth_mm
        yield beside.dimension("rabbet_width", "rabbet_width", (-y, wide - y), DOWN, wide, "rabbet.width_mm")
        yield beside.dimension("rabbet_depth", "rabbet_depth", (-z, deep - z), LEFT, deep, "rabbet.depth_mm")


def _strip_figures(rail: Section, strip: Lies, beside: Beside) -> Iterator[Dimension]:
    """A strip's own figures, and how far in from its line it lies."""
    layer, x, z = strip.layer, -strip.y_mm, strip.z_mm
    half, thick, edge = layer.width_mm / 2, layer.thickness_mm / 2, rail.width_mm / 2
    away, path = UP if layer.side == "face" else DOWN, f"layers.{strip.id}"
    yield from ploughed_dimensions(layer.section, layer.ploughed, f"{path}.ploughed", beside, (x, z))
    yield beside.dimension(f"{path}.width", "layer_width", (x - half, x + half), away, layer.width_mm, f"{path}.width_mm")
    if abs(layer.set_back_mm) > ON_LINE:
        span = (x + half, edge) if layer.keeps_to == "outside" else (-edge, x - half)
        yield beside.dimension(f"{path}.set_back", "layer_set_back", span, away, layer.set_back_mm, f"{path}.set_back_mm")
    yield beside.dimension(
        f"{path}.thickness", "layer_thickness", (z - thick, z + thick), LEFT, layer.thickness_mm, f"{path}.thickness_mm"
    )
