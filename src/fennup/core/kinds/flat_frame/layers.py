"""Strips on the rails of a flat frame: rings of their own, each on what lies there already."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace

from fennup.core.assembly.board import Board, Side
from fennup.core.assembly.model import Finding, Joint, Mating, Ring
from fennup.core.errors import SpecError
from fennup.core.geometry.polyhedron import clip_polygon, common_polygon
from fennup.core.geometry.vec import Vec
from fennup.core.kinds.fields import LONGEST_MM, CornerJoint
from fennup.core.kinds.flat_frame.layer import Layer
from fennup.core.kinds.flat_frame.outline import Baseline
from fennup.core.kinds.flat_frame.outline import Side as OutlineSide
from fennup.core.kinds.flat_frame.ring import Meets, check_runs, frame_along, join, own_edges
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec, Recess
from fennup.core.kinds.inner import Added
from fennup.core.tolerances import NOTHING, ON_LINE

UP: Vec = (0.0, 0.0, 1.0)
Strips = dict[str, dict[str, Board]]


@dataclass(frozen=True)
class _Lies:
    """What lies on one side of a rail: the board, from where to where outwards of the baseline, and how far from the rails' middle its top is."""

    board: Board
    inner: float
    outer: float
    top: float

    def under_mm(self, inner: float, outer: float) -> float:
        """How wide it lies under something from there to there."""
        return min(self.outer, outer) - max(self.inner, inner)


def lay_layers(spec: FlatFrameSpec, base: Baseline, rails: dict[str, Board], added: Added) -> Strips:
    """All layers in the order in which they are laid: their strips by layer and side, which are added with their joints. SpecError
    `strip_too_wide`, `strip_on_nothing`, `strips_uneven`, `too_few_strips`."""
    half = spec.board.thickness_mm / 2
    first = {s.letter: [_Lies(rails[s.letter], s.inner, s.outer, half)] for s in base.sides if s.letter in rails}
    lying = {side: {letter: list(here) for letter, here in first.items()} for side in ("face", "back")}
    made: Strips = {}
    for id, layer in spec.layers.items():
        there = lying[layer.side]
        own = replace(base, sides=tuple(_narrowed(side, layer) for side in base.sides))
        letters = [letter for letter in there if letter not in layer.left_out]
        if not letters:
            raise SpecError("too_few_strips", (f"layers.{id}.left_out",))
        spans = {side.letter: (side.inner, side.outer) for side in own.sides if side.letter in letters}
        low = _level(id, spans, there)
        added.findings += _hollow(id, spans, there, low)
        up = 1.0 if layer.side == "face" else -1.0
        frames = {s.letter: frame_along(s, up * (low + layer.thickness_mm / 2)) for s in own.sides}
        shows = layer.side == "face"
        made[id] = {
            letter: Board(f"{letter}{id}", f"Strip {letter}{id}", layer.section, frames[letter], role="strip", shows=shows)
            for letter in letters
        }
        joints = _cut_ends(spec, base, own, (id, layer), made[id], rails)
        strips = tuple(made[id].values())
        beneath = {lie.board.id: lie.board for here in there.values() for lie in here if abs(lie.top - low) < ON_LINE}
        added.joints += [*joints, *_laid(strips, beneath.values(), layer.side)]
        added.boards += strips
        if joints:
            added.rings.append(Ring(tuple(strip.id for strip in strips), len(joints) == len(base.sides)))
        for letter, (inner, outer) in spans.items():
            there[letter].append(_Lies(made[id][letter], inner, outer, low + layer.thickness_mm))
    return made


def recess_walls(recess: Recess, rails: tuple[Board, ...], strips: Strips) -> Iterator[tuple[str, Board, Side]]:
    """The sides that go round what a frame holds: of which rail, on which board, which of its sides."""
    for rail in rails:
        if recess.by == "strips":
            yield rail.id, strips[recess.layer][rail.id], "upper"
        else:
            yield rail.id, rail, "rabbet" if recess.by == "rabbet" else "upper"


def _narrowed(side: OutlineSide, layer: Layer) -> OutlineSide:
    """A side of the outline with a strip's edges in place of its rail's."""
    inner, outer = layer.edges(side.inner, side.outer)
    return replace(side, inner=inner, outer=outer)


Spans = dict[str, tuple[float, float]]


def _level(id: str, spans: Spans, there: dict[str, list[_Lies]]) -> float:
    """How far from the rails' middle a layer's underside lies: on the highest of what is under it, which must be as high on every side."""
    levels = {}
    for letter, span in spans.items():
        under = [lie.top for lie in there[letter] if lie.under_mm(*span) > NOTHING]
        if not under:
            raise SpecError("strip_on_nothing", (f"layers.{id}.set_back_mm",), side=letter)
        levels[letter] = max(under)
    lowest, highest = min(levels, key=levels.__getitem__), max(levels, key=levels.__getitem__)
    if levels[highest] - levels[lowest] > ON_LINE:
        gap = levels[highest] - levels[lowest]
        raise SpecError("strips_uneven", (f"layers.{id}.left_out",), side=lowest, mm=gap)
    return levels[highest]


def _hollow(id: str, spans: Spans, there: dict[str, list[_Lies]], low: float) -> list[Finding]:
    """A layer that bridges what lies lower: a gap between the boards, how high and on how much of its width at the most."""
    worst: tuple[float, float] = (0.0, 0.0)
    for letter, (inner, outer) in spans.items():
        bare = [(inner, outer)]
        for lie in (lie for lie in there[letter] if abs(lie.top - low) < ON_LINE):
            bare = [
                part for a, b in bare for part in ((a, min(b, lie.inner)), (max(a, lie.outer), b)) if part[1] - part[0] > NOTHING
            ]
        for lie in (lie for lie in there[letter] if low - lie.top > ON_LINE):
            wide = max((lie.under_mm(*part) for part in bare), default=0.0)
            worst = max(worst, (wide, low - lie.top)) if wide > NOTHING else worst
    return [Finding("strips_bridge", "warning", (), (f"layers.{id}.set_back_mm",), worst[1], worst[0])] if worst[0] else []


def _cut_ends(
    spec: FlatFrameSpec, base: Baseline, own: Baseline, of: tuple[str, Layer], strips: dict[str, Board], rails: dict[str, Board]
) -> list[Joint]:
    """Every corner where two strips meet, joined; a strip that meets none goes on to the outside of the rail round the corner, or ends with its own."""
    id, layer = of
    named = {strip.id: strip for strip in strips.values()}
    if len(strips) == len(base.sides):
        try:
            check_runs(own, lambda _: f"layers.{id}.width_mm")
        except SpecError as error:
            raise SpecError("strip_too_wide", error.fields, side=error.data["side"]) from None
    joints = []
    for i, corner in enumerate(spec.corner_names):
        a, b = corner[0], corner[1]
        if a in strips and b in strips:
            how = (
                CornerJoint(joint="miter")
                if layer.corners == "miter"
                else CornerJoint(joint="butt", through=layer.through(corner))
            )
            really = not (base.misfit and i == len(base.sides) - 1)
            meets = Meets(own, i, (strips[a].id, strips[b].id), how, really)
            joints.append(join(f"{corner}{id}", meets, named, lambda _: f"layers.{id}.width_mm"))
            continue
        for letter, end, beyond in ((a, "right", b), (b, "left", a)):
            if letter not in strips:
                continue
            rail = rails[letter]
            side = next(s for s in base.sides if s.letter == beyond)
            planes = [own_edges(side).outer] if beyond in rails else [rail.frame.plane_to_world(cut) for cut in rail.ends(end)]  # type: ignore[arg-type]
            for plane in planes:
                named[strips[letter].id] = named[strips[letter].id].with_cut(end, plane)  # type: ignore[arg-type]
    for letter, strip in strips.items():
        strips[letter] = named[strip.id]
    return joints


def _laid(strips: Iterable[Board], beneath: Iterable[Board], on: str) -> list[Joint]:
    """Every strip laid on each board under it that it really covers some of."""
    down, up = ("back", "face") if on == "face" else ("face", "back")
    places = [(board, _plan(board)) for board in beneath]
    return [
        Joint(f"{strip.id}/{board.id}", "face", Mating(strip.id, down), Mating(board.id, up), ())
        for strip in strips
        for board, place in places
        if common_polygon(_plan(strip), place, UP)
    ]


def _plan(board: Board) -> tuple[Vec, ...]:
    """A board seen from the front: its edges and ends stand upright."""
    far = LONGEST_MM * 2
    place: tuple[Vec, ...] = ((-far, -far, 0.0), (far, -far, 0.0), (far, far, 0.0), (-far, far, 0.0))
    for plane in (
        board.side_in_world("upper"),
        board.side_in_world("lower"),
        *map(board.frame.plane_to_world, (*board.left, *board.right)),
    ):
        place = clip_polygon(place, plane) if place else ()
    return place
