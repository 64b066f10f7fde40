"""A project's drawings for a sheet: the whole from its sides, then every part from its face and its upper edge, with sizes and words."""

from collections.abc import Iterable, Iterator
from textwrap import wrap

from fennup.app.schemas.sheet import PartOut
from fennup.app.services.drawings import view_out
from fennup.app.services.part_cards import card_of
from fennup.app.wording.figures import Voice, on_paper
from fennup.app.wording.labels import VIEWS, label, naming_of
from fennup.core.drawing.board_views import from_a_side
from fennup.core.drawing.view import View
from fennup.core.drawing.visible import Edge, joined, visible_edges
from fennup.core.exchange.sheets import Block, Layer, Line, Picture, Sized
from fennup.core.geometry.polygon import circle
from fennup.core.geometry.vec import Vec
from fennup.core.kinds.gauged import PAPERS
from fennup.core.parts.facts import PartFacts
from fennup.core.project.describe import describe, stands
from fennup.core.solve import Solution

Paper = tuple[str, Vec, Vec]
LYING: tuple[Paper, ...] = (("front", (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)), ("side", (0.0, 0.0, -1.0), (0.0, 1.0, 0.0)))
HOLE_CORNERS = 48
WIDEST_LINE = 100  # letters


def drawn_blocks(solution: Solution, voice: Voice, name: str) -> list[Block]:
    """The whole, then every part."""
    return [_whole(solution, voice, name), *(_part(solution, facts, voice) for facts in solution.design.facts)]


def client_block(solution: Solution, voice: Voice, name: str, said: Iterable[str]) -> Block:
    """The whole a little from one side, with its given sizes and what else is said of it."""
    design = solution.design
    right, up = from_a_side(design.solids, "front")
    lines = _seen(solution, right, up)
    naming = naming_of(solution.spec)
    rows = describe(solution.spec, design.assembly, design.solids).sizes
    sizes = [
        f"{label(row.measure, naming)}: {on_paper(voice.of(row.value, row.unit, row.standing))}"
        for row in rows
        if row.standing == "given"
    ]
    corners = [
        p for id, solid in design.solids.items() if not design.boards[id].found for piece in solid.world for p in piece.points
    ]
    over_all = [max(p[k] for p in corners) - min(p[k] for p in corners) for k in range(3)]
    ways = ("wide", "deep", "high") if stands(solution.spec) else ("wide", "high", "thick")
    sizes.insert(0, "Over all: " + ", ".join(f"{voice.say(round(mm, 1))} {way}" for mm, way in zip(over_all, ways, strict=True)))
    text = [piece for line in [*sizes, "", *said] for piece in (wrap(line, WIDEST_LINE) or [""])]
    return Block(name, (Picture("", lines),), tuple(text))


def _whole(solution: Solution, voice: Voice, name: str) -> Block:
    """From the front, from a side and from above; one that lies, as it lies."""
    design = solution.design
    described = {view.id: view for view in describe(solution.spec, design.assembly, design.solids).views}
    papers = [(p.id, p.right, p.up) for p in PAPERS] if stands(solution.spec) else LYING
    pictures = []
    for id, right, up in papers:
        lines = _seen(solution, right, up)
        pictures.append(Picture(VIEWS[id], lines, _sizes(described.get(id), solution, voice)))
    return Block(name, tuple(pictures))


def _seen(solution: Solution, right: Vec, up: Vec) -> tuple[Line, ...]:
    """What is seen of it, every edge once, whoever's it is."""
    design = solution.design
    by_layer: dict[Layer, list[Edge]] = {"EDGES": [], "EXISTING": []}
    for id, edges in visible_edges({id: solid.world for id, solid in design.solids.items()}, right, up).items():
        by_layer["EXISTING" if design.boards[id].found else "EDGES"] += edges
    return tuple(Line(layer, edge) for layer, edges in by_layer.items() for edge in joined(edges))


def _sizes(view: View | None, solution: Solution, voice: Voice) -> tuple[Sized, ...]:
    """A view's dimensions in words."""
    if view is None:
        return ()
    worded = view_out(view, voice, naming_of(solution.spec)).dimensions
    return tuple(Sized(on_paper(d.figure), d.a, d.b, d.away, d.lane, d.about) for d in worded)


def _part(solution: Solution, facts: PartFacts, voice: Voice) -> Block:
    """A part from its face and, above that, from its upper edge."""
    card = card_of(solution, facts, voice)
    solid = {facts.key: facts.solid.local}
    face = visible_edges(solid, (1.0, 0.0, 0.0), (0.0, 1.0, 0.0))[facts.key]
    edge = visible_edges(solid, (1.0, 0.0, 0.0), (0.0, 0.0, -1.0))[facts.key]
    xs, ys = ([p[k] for line in face for p in line] for k in (0, 1))
    (x0, x1), (y0, y1) = (min(xs), max(xs)), (min(ys), max(ys))
    tall = max(p[1] for line in edge for p in line)
    lift = y1 + tall + max(30.0, (y1 - y0) / 3)
    lines = [Line("EDGES", line) for line in face]
    lines += [Line("EDGES", ((a[0], a[1] + lift), (b[0], b[1] + lift))) for a, b in joined(edge)]
    holes = facts.board.holes
    lines += [Line("HOLES", tuple(circle((h.x_mm, h.y_mm), h.diameter_mm, HOLE_CORNERS)), closed=True) for h in holes]
    sizes = [
        Sized(voice.say(x1 - x0), (x0, y0), (x1, y0), (0.0, -1.0)),
        Sized(voice.say(y1 - y0), (x0, y0), (x0, y1), (-1.0, 0.0)),
        Sized(voice.say(2 * tall), (x0, lift - tall), (x0, lift + tall), (-1.0, 0.0)),
    ]
    return Block(f"{card.tag}: {card.name}, {card.count_text}", (Picture("", tuple(lines), tuple(sizes)),), tuple(_said(card)))


def _said(card: PartOut) -> Iterator[str]:
    """A part in words: its section, every length, both ends, its edges."""
    lines = [card.section_text, card.hand_text, *(f"{r.label}: {on_paper(r.figure)}; {r.note}" for r in card.ladder)]
    for end in card.ends:
        cuts = "; then ".join(f"{on_paper(cut.miter)}, {cut.leans}, {cut.bevel}" for cut in end.cuts)
        lines.append(f"{end.name[:1].upper()}{end.name[1:]} {cuts}")
    lines += [f"{edge.label}: {on_paper(edge.figure)}, {edge.note}" for edge in card.edges]
    for line in lines:
        yield from wrap(line, WIDEST_LINE)
