"""Drawings with their dimensions as SVG and DXF at true size, and as PDF at a scale that is said. The same sheet gives the same bytes."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from io import BytesIO, StringIO
from math import atan2, cos, degrees, hypot, pi, radians, sin
from typing import Any, Literal
from xml.sax.saxutils import escape

from fennup.core.exchange.paper import MARGIN_MM, POINTS_IN_MM, SHEETS, Size, draw_run, on_paper
from fennup.core.geometry.vec import Point2
from fennup.core.tolerances import NOTHING

Layer = Literal["EDGES", "EXISTING", "HOLES", "DIMENSIONS", "TEXT"]
LAYERS: dict[Layer, tuple[float, str, int]] = {  # width of the line, mm; the colour in SVG and in DXF
    "EDGES": (0.35, "#1d1a16", 7), "EXISTING": (0.25, "#8a8782", 8), "HOLES": (0.25, "#1d1a16", 7), "DIMENSIONS": (0.18, "#2b5c8a", 5),
    "TEXT": (0.18, "#1d1a16", 7),
}  # fmt: skip
SCALES = (1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0)
TEXT_MM = 2.8  # on the paper, like all that follows
TITLE_MM = 4.2
LANE_MM = 5.0
GAP_MM = 14.0
LETTER_WIDE = 0.55  # of a letter's height, about
TICK_MM = 1.2
FOOT_MM = 8.0
ARC_STEP = radians(6.0)


@dataclass(frozen=True)
class Line:
    """A run of points of one layer, mm, y up."""

    layer: Layer
    points: tuple[Point2, ...]
    closed: bool = False


@dataclass(frozen=True)
class Sized:
    """A dimension from a to b with its text, `lane` steps off towards `away`; with `about` an angle there, from a round to b."""

    text: str
    a: Point2
    b: Point2
    away: Point2 = (0.0, 0.0)
    lane: float = 1.0
    about: Point2 | None = None


@dataclass(frozen=True)
class Picture:
    """One view."""

    title: str
    lines: tuple[Line, ...]
    sizes: tuple[Sized, ...] = ()


@dataclass(frozen=True)
class Block:
    """Views of one thing side by side, with what is said of it under them."""

    title: str
    pictures: tuple[Picture, ...]
    said: tuple[str, ...] = ()


@dataclass(frozen=True)
class Said:
    """Words at a place: where they begin, or their middle; `turn_deg` anticlockwise."""

    text: str
    at: Point2
    high_mm: float
    turn_deg: float = 0.0
    middle: bool = False
    layer: Layer = "TEXT"


@dataclass
class Laid:
    """Lines and words in their places, mm, y up, from a corner at 0, 0."""

    lines: list[Line] = field(default_factory=list)
    words: list[Said] = field(default_factory=list)

    @property
    def box(self) -> tuple[float, float, float, float]:
        """The least and the greatest of what is drawn and written."""
        xs = [p[0] for line in self.lines for p in line.points]
        ys = [p[1] for line in self.lines for p in line.points]
        for said in self.words:
            wide = LETTER_WIDE * said.high_mm * len(said.text)
            low = -wide / 2 if said.middle else 0.0
            turn = radians(said.turn_deg)
            for along, over in ((low, 0.0), (low + wide, 0.0), (low, said.high_mm), (low + wide, said.high_mm)):
                xs.append(said.at[0] + along * cos(turn) - over * sin(turn))
                ys.append(said.at[1] + along * sin(turn) + over * cos(turn))
        return (min(xs), min(ys), max(xs), max(ys)) if xs else (0.0, 0.0, 0.0, 0.0)

    def moved(self, dx: float, dy: float) -> "Laid":
        """The same elsewhere."""
        lines = [Line(line.layer, tuple((x + dx, y + dy) for x, y in line.points), line.closed) for line in self.lines]
        words = [Said(w.text, (w.at[0] + dx, w.at[1] + dy), w.high_mm, w.turn_deg, w.middle, w.layer) for w in self.words]
        return Laid(lines, words)

    def add(self, other: "Laid") -> None:
        """Take another one's in."""
        self.lines += other.lines
        self.words += other.words


def laid(block: Block, scale: float) -> Laid:
    """A block at true size, its words as large as they must be to be read at 1 : scale."""
    whole, x = Laid(), 0.0
    for picture in block.pictures:
        drawn = _picture(picture, scale)
        x0, y0, x1, _ = drawn.box
        whole.add(drawn.moved(x - x0, -y0))
        x += x1 - x0 + GAP_MM * scale
    y = whole.box[3] if whole.lines else 0.0
    whole.words.append(Said(block.title, (0.0, y + 3.0 * scale), TITLE_MM * scale))
    for number, text in enumerate(block.said, 1):
        whole.words.append(Said(text, (0.0, -number * 1.7 * TEXT_MM * scale), TEXT_MM * scale))
    x0, y0, *_ = whole.box
    return whole.moved(-x0, -y0)


def _picture(picture: Picture, scale: float) -> Laid:
    drawn = Laid(list(picture.lines))
    for size in picture.sizes:
        drawn.add(_angle(size, scale) if size.about else _dimension(size, scale))
    if picture.title:
        x0, y0, *_ = drawn.box
        drawn.add(Laid([], [Said(picture.title, (x0, y0 - 2.2 * TEXT_MM * scale), TEXT_MM * scale)]))
    return drawn


def _dimension(size: Sized, scale: float) -> Laid:
    """A line beside what is measured, with lines out to it, ticks and the figure on it."""
    off = tuple(LANE_MM * size.lane * scale * way for way in size.away)
    a, b = ((p[0] + off[0], p[1] + off[1]) for p in (size.a, size.b))
    long = hypot(b[0] - a[0], b[1] - a[1]) or 1.0
    along = ((b[0] - a[0]) / long, (b[1] - a[1]) / long)
    slant = TICK_MM * scale
    tick = ((along[0] - along[1]) * slant / 2, (along[1] + along[0]) * slant / 2)
    lines = [Line("DIMENSIONS", (a, b))]
    for p in (a, b):
        lines.append(Line("DIMENSIONS", ((p[0] - tick[0], p[1] - tick[1]), (p[0] + tick[0], p[1] + tick[1]))))
    if size.lane:
        lines += [Line("DIMENSIONS", (p, q)) for p, q in ((size.a, a), (size.b, b))]
    turn = degrees(atan2(along[1], along[0]))
    turn = turn - 180.0 if turn > 90.0 + NOTHING else turn + 180.0 if turn <= -90.0 else turn
    lift, wide = 0.4 * TEXT_MM * scale, LETTER_WIDE * TEXT_MM * scale * len(size.text)
    beyond = 0.0 if wide < long else long / 2 + wide / 2 + TICK_MM * scale  # no room for it on the line
    ways = (along[0] * beyond, along[1] * beyond)
    middle = ((a[0] + b[0]) / 2 + ways[0] - lift * sin(radians(turn)), (a[1] + b[1]) / 2 + ways[1] + lift * cos(radians(turn)))
    return Laid(lines, [Said(size.text, middle, TEXT_MM * scale, turn, middle=True, layer="DIMENSIONS")])


def _angle(size: Sized, scale: float) -> Laid:
    """An arc with its figure."""
    assert size.about
    (x, y), reach = size.about, 9.0 * scale
    start = atan2(size.a[1] - y, size.a[0] - x)
    sweep = (atan2(size.b[1] - y, size.b[0] - x) - start) % (2 * pi)
    steps = max(2, int(sweep / ARC_STEP) + 1)
    arc = tuple(
        (x + reach * cos(start + sweep * k / steps), y + reach * sin(start + sweep * k / steps)) for k in range(steps + 1)
    )
    out = (x + 1.5 * reach * cos(start + sweep / 2), y + 1.5 * reach * sin(start + sweep / 2) - TEXT_MM * scale / 2)
    return Laid([Line("DIMENSIONS", arc)], [Said(size.text, out, TEXT_MM * scale, middle=True, layer="DIMENSIONS")])


def scale_for(block: Block, room: Point2) -> float:
    """The largest of the usual scales at which a block fits on a sheet; the smallest where none does."""
    for scale in SCALES:
        x0, y0, x1, y1 = laid(block, scale).box
        if (x1 - x0) / scale <= room[0] and (y1 - y0) / scale <= room[1]:
            return scale
    return SCALES[-1]


def _one_under_the_other(blocks: Sequence[Block]) -> Laid:
    """All blocks at true size on one sheet, their words as for the scale that the largest of them takes."""
    scale = max((scale_for(block, _room("a4")) for block in blocks), default=1.0)
    whole, y = Laid(), 0.0
    for block in blocks:
        one = laid(block, scale)
        high = one.box[3]
        whole.add(one.moved(0.0, y - high))
        y -= high + GAP_MM * scale
    x0, y0, *_ = whole.box
    return whole.moved(-x0, -y0)


def sheet_svg(blocks: Sequence[Block], title: str) -> bytes:
    """SVG, one user unit a millimetre, a group for every layer."""
    drawn = _one_under_the_other(blocks)
    *_, wide, high = drawn.box
    pad = MARGIN_MM
    thick = max((word.high_mm for word in drawn.words), default=TEXT_MM) / TITLE_MM  # lines as strong as the words are large

    def at(p: Point2) -> tuple[str, str]:
        return f"{p[0] + pad:.5f}", f"{high - p[1] + pad:.5f}"

    size = f"{wide + 2 * pad:.4f}", f"{high + 2 * pad:.4f}"
    out = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{size[0]}mm" height="{size[1]}mm" viewBox="0 0 {size[0]} {size[1]}">',
        f"<title>{escape(title)}</title>",
    ]
    for layer, (width, colour, _) in LAYERS.items():
        out.append(f'<g id="{layer}" fill="none" stroke="{colour}" stroke-width="{width * thick:.3f}" stroke-linecap="round">')
        for line in (line for line in drawn.lines if line.layer == layer):
            tag = "polygon" if line.closed else "polyline"
            out.append(f'<{tag} points="{" ".join(",".join(at(p)) for p in line.points)}"/>')
        for said in (said for said in drawn.words if said.layer == layer):
            x, y = at(said.at)
            turned = f' transform="rotate({-said.turn_deg:.4f} {x} {y})"' if said.turn_deg else ""
            middle = ' text-anchor="middle"' if said.middle else ""
            words = f'x="{x}" y="{y}" font-size="{said.high_mm:.3f}" font-family="sans-serif" fill="{colour}" stroke="none"'
            out.append(f"<text {words}{middle}{turned}>{escape(said.text)}</text>")
        out.append("</g>")
    return ("\n".join([*out, "</svg>"]) + "\n").encode()


def sheet_dxf(blocks: Sequence[Block]) -> bytes:
    """DXF (R2010, mm) at true size, with the layers EDGES, EXISTING (what is there already), HOLES, DIMENSIONS and TEXT."""
    import ezdxf
    from ezdxf import units, zoom
    from ezdxf.enums import TextEntityAlignment

    ezdxf.options.write_fixed_meta_data_for_testing = True  # no time and no chance number in it
    document = ezdxf.new("R2010")
    document.units = units.MM
    space = document.modelspace()
    for layer, (width, _, colour) in LAYERS.items():
        document.layers.add(layer, color=colour, lineweight=round(width * 100))
    drawn = _one_under_the_other(blocks)
    for line in drawn.lines:
        if len(line.points) == 2 and not line.closed:
            space.add_line(*line.points, dxfattribs={"layer": line.layer})
        else:
            space.add_lwpolyline(list(line.points), close=line.closed, dxfattribs={"layer": line.layer})
    for said in drawn.words:
        text = space.add_text(said.text, height=said.high_mm, rotation=said.turn_deg, dxfattribs={"layer": said.layer})
        text.set_placement(said.at, align=TextEntityAlignment.BOTTOM_CENTER if said.middle else TextEntityAlignment.LEFT)
    zoom.extents(space)
    out = StringIO()
    document.write(out)
    return out.getvalue().encode()


def sheet_pdf(blocks: Sequence[Block], title: str, size: Size) -> bytes:
    """PDF on A4 or Letter: every block at the largest of the usual scales at which it fits, which is said; several on a page where there is room."""
    from reportlab.pdfgen.canvas import Canvas

    out = BytesIO()
    wide, high = SHEETS[size]
    canvas = Canvas(out, pagesize=(wide * POINTS_IN_MM, high * POINTS_IN_MM), invariant=1, pageCompression=0)
    canvas.setTitle(on_paper(title))
    sheet_pages(canvas, blocks, title, size)
    canvas.save()
    return out.getvalue()


def sheet_pages(canvas: Any, blocks: Sequence[Block], title: str, size: Size) -> None:
    """The same as pages of a larger file."""
    for page in _pages(blocks, _room(size)):
        scales = {scale for _, _, scale in page}
        for block, top, scale in page:
            _on_canvas(canvas, block, scale, SHEETS[size][1] - MARGIN_MM - top)
        canvas.setFont("Helvetica", 8)
        said = ", ".join(f"1 : {scale:g}" for scale in sorted(scales))
        canvas.drawString(
            MARGIN_MM * POINTS_IN_MM,
            MARGIN_MM * POINTS_IN_MM,
            on_paper(f"{title}. Scale {said}; mark by the figures, not by this paper."),
        )
        canvas.showPage()


def _room(size: Size) -> Point2:
    wide, high = SHEETS[size]
    return wide - 2 * MARGIN_MM, high - 2 * MARGIN_MM - FOOT_MM


def _pages(blocks: Iterable[Block], room: Point2) -> Iterator[list[tuple[Laid, float, float]]]:
    """What goes on each page: a block as laid, how far from the top, mm on the paper, and its scale."""
    page: list[tuple[Laid, float, float]] = []
    used = 0.0
    for block in blocks:
        scale = scale_for(block, room)
        one = laid(block, scale)
        high = one.box[3] / scale
        if page and used + high > room[1]:
            yield page
            page, used = [], 0.0
        page.append((one, used, scale))
        used += high + GAP_MM
    if page:
        yield page


def _on_canvas(canvas: Any, block: Laid, scale: float, top: float) -> None:
    high = block.box[3]

    def at(p: Point2) -> Point2:
        return ((p[0] / scale + MARGIN_MM) * POINTS_IN_MM, ((p[1] - high) / scale + top) * POINTS_IN_MM)

    for line in block.lines:
        canvas.setLineWidth(LAYERS[line.layer][0] * POINTS_IN_MM)
        canvas.setStrokeColor(LAYERS[line.layer][1])
        draw_run(canvas, [at(point) for point in line.points], closed=line.closed)
    for said in block.words:
        canvas.saveState()
        canvas.setFillColor(LAYERS[said.layer][1])
        canvas.translate(*at(said.at))
        canvas.rotate(said.turn_deg)
        canvas.setFont("Helvetica-Bold" if said.high_mm == TITLE_MM * scale else "Helvetica", said.high_mm / scale * POINTS_IN_MM)
        (canvas.drawCentredString if said.middle else canvas.drawString)(0, 0, on_paper(said.text))
        canvas.restoreState()
