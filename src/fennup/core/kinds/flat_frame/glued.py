"""Strips on a rail that are glued on before it is cut: with it one board."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass

from fennup.core.errors import SpecError
from fennup.core.geometry.polygon import without_straight
from fennup.core.kinds.flat_frame.layer import Layer
from fennup.core.stock.glued import united
from fennup.core.stock.outlined import EXACTLY, section_of
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING


@dataclass(frozen=True)
class Lies:
    """Where a strip's middle lies on its rail, in the rail's own axes."""

    id: str
    layer: Layer
    y_mm: float
    z_mm: float


def lying_on(width_mm: float, thickness_mm: float, layers: Mapping[str, Layer], letter: str) -> Iterator[Lies]:
    """The strips on one rail so wide and thick, each on the highest of what is under it. SpecError `strip_on_nothing`."""
    half = width_mm / 2
    tops = {side: [(-half, half, thickness_mm / 2)] for side in ("face", "back")}
    for id, layer in layers.items():
        if letter in layer.left_out:
            continue
        inner, outer = layer.edges(-half, half)
        under = [top for a, b, top in tops[layer.side] if min(b, outer) - max(a, inner) > NOTHING]
        if not under:
            raise SpecError("strip_on_nothing", (f"layers.{id}.set_back_mm",), side=letter)
        low = max(under)
        tops[layer.side].append((inner, outer, low + layer.thickness_mm))
        up = 1.0 if layer.side == "face" else -1.0
        yield Lies(id, layer, -(inner + outer) / 2, up * (low + layer.thickness_mm / 2))


def glued_section(rail: Section, strips: Iterable[Lies]) -> tuple[Section, float]:
    """(a rail with its strips as one section, how far its middle lies in front of the rail's own). SpecError `glued_within` where a strip reaches past the
    rail's edges, `glued_hollow` where something hollow is closed in."""
    rings = [rail.outline]
    for lies in strips:
        if abs(lies.y_mm) + lies.layer.width_mm / 2 > rail.width_mm / 2 + NOTHING:
            raise SpecError("glued_within", (f"layers.{lies.id}.set_back_mm",))
        rings.append(tuple((y + lies.y_mm, z + lies.z_mm) for y, z in lies.layer.section.outline))
    loops = united(rings)
    if len(loops) != 1:
        raise SpecError("glued_hollow", ("glued_up",))
    heights = [z for _, z in loops[0]]
    return section_of(without_straight(loops[0]), EXACTLY), (max(heights) + min(heights)) / 2
