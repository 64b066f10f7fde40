"""Templates as files: PDF at true size, over several sheets where one is too small, SVG and DXF."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from io import BytesIO, StringIO
from math import ceil
from typing import Any, Literal
from xml.sax.saxutils import escape

from fennup.core.geometry.vec import Point2
from fennup.core.steps.templates import Ink, Template

Size = Literal["a4", "letter"]
SHEETS: dict[Size, Point2] = {"a4": (210.0, 297.0), "letter": (215.9, 279.4)}
POINTS_IN_MM = 72.0 / 25.4
MARGIN_MM = 12.0
FOOT_MM = 26.0  # for the bars and the title, below what is drawn
OVERLAP_MM = 10.0
CROP_MM = 6.0
BARS: tuple[tuple[float, str], ...] = ((100.0, "100 mm"), (101.6, "4 in"))
WIDTHS: dict[Ink, float] = {"cut": 0.35, "fold": 0.18, "edge": 0.25, "unseen": 0.18}
DASHED: dict[Ink, tuple[float, float] | None] = {"cut": None, "fold": (4.0, 2.0), "edge": None, "unseen": (1.5, 1.5)}
LABEL_MM = (88.0, 38.0)
LINE_MM = 5.0


@dataclass(frozen=True)
class Worded:
    """A template with its words: `title`, a `caption` line, and what every note says."""

    template: Template
    title: str
    caption: str
    notes: Mapping[str, str]


@dataclass(frozen=True)
class Label:
    """A label to stick on a part: large, and small lines under it."""

    large: str
    lines: tuple[str, ...]


def templates_pdf(
    worded: Sequence[Worded],
    size: Size,
    labels: Sequence[Label] = (),
    pages: Sequence[tuple[str, Sequence[str]]] = (),
    first: Callable[[Any], None] = lambda canvas: None,
) -> bytes:
    """All templates at true size, then labels; before them whatever is drawn `first`, and pages of text, each with its heading. Coordinates are written
    as they are, without scaling, so that they can be measured in the file."""
    from reportlab.pdfgen.canvas import Canvas

    out = BytesIO()
    wide, high = SHEETS[size]
    canvas = Canvas(out, pagesize=(wide * POINTS_IN_MM, high * POINTS_IN_MM), invariant=1, pageCompression=0)
    first(canvas)
    for heading, lines in pages:
        _text_pages(canvas, heading, lines, high)
    for one in worded:
        _tiled(canvas, one, size)
    if labels:
        _labels(canvas, labels, size)
    canvas.save()
    return out.getvalue()


def tiles(template: Template, size: Size) -> tuple[int, int]:
    """How many sheets across and up a template takes."""
    (x0, y0), (x1, y1) = template.box()
    wide, high = _room(size)
    return max(1, ceil((x1 - x0 - OVERLAP_MM) / (wide - OVERLAP_MM))), max(1, ceil((y1 - y0 - OVERLAP_MM) / (high - OVERLAP_MM)))


def _room(size: Size) -> Point2:
    wide, high = SHEETS[size]
    return wide - 2 * MARGIN_MM, high - 2 * MARGIN_MM - FOOT_MM


def _tiled(canvas: Any, one: Worded, size: Size) -> None:
    across, up = tiles(one.template, size)
    (x0, y0), _ = one.template.box()
    wide, high = _room(size)
    for row in range(up):
        for column in range(across):
            corner = (x0 + column * (wide - OVERLAP_MM), y0 + row * (high - OVERLAP_MM))
            _sheet(
                canvas,
                one,
                corner,
                (wide, high),
                f"sheet {row * across + column + 1} of {across * up}" if across * up > 1 else "",
            )
            canvas.showPage()


def _sheet(canvas: Any, one: Worded, corner: Point2, room: Point2, which: str) -> None:
    """One sheet: what of the template lies on it, crop marks at its corners, the bars, the title."""

    def at(p: Point2) -> Point2:
        return ((p[0] - corner[0] + MARGIN_MM) * POINTS_IN_MM, (p[1] - corner[1] + MARGIN_MM + FOOT_MM) * POINTS_IN_MM)

    canvas.saveState()
    frame = canvas.beginPath()
    frame.rect(MARGIN_MM * POINTS_IN_MM, (MARGIN_MM + FOOT_MM) * POINTS_IN_MM, room[0] * POINTS_IN_MM, room[1] * POINTS_IN_MM)
    canvas.clipPath(frame, stroke=0, fill=0)
    for line in one.template.lines:
        canvas.setLineWidth(WIDTHS[line.ink] * POINTS_IN_MM)
        dash = DASHED[line.ink]
        canvas.setDash(*([dash[0] * POINTS_IN_MM, dash[1] * POINTS_IN_MM],) if dash else ())
        draw_run(canvas, [at(point) for point in line.points], closed=line.closed)
    canvas.setFont("Helvetica", 9)
    for note in one.template.notes:
        x, y = at(note.at)
        canvas.saveState()
        canvas.translate(x, y)
        canvas.rotate(note.turn_deg)
        canvas.drawString(0, 0, on_paper(one.notes.get(note.code, "")))
        canvas.restoreState()
    canvas.restoreState()
    _crop_marks(canvas, room)
    _foot(canvas, one.title, " ".join(text for text in (one.caption, which) if text))


def draw_run(canvas: Any, points: Sequence[Point2], *, closed: bool) -> None:
    """A run of points, in the paper's own points, as it is set to be drawn."""
    path = canvas.beginPath()
    path.moveTo(*points[0])
    for point in points[1:]:
        path.lineTo(*point)
    if closed:
        path.close()
    canvas.drawPath(path)


def _crop_marks(canvas: Any, room: Point2) -> None:
    canvas.setDash()
    canvas.setLineWidth(0.2)
    for x in (MARGIN_MM, MARGIN_MM + room[0]):
        for y in (MARGIN_MM + FOOT_MM, MARGIN_MM + FOOT_MM + room[1]):
            for dx, dy in ((CROP_MM / 2, 0.0), (0.0, CROP_MM / 2)):
                ends = ((x - dx) * POINTS_IN_MM, (y - dy) * POINTS_IN_MM, (x + dx) * POINTS_IN_MM, (y + dy) * POINTS_IN_MM)
                canvas.line(*ends)


def _foot(canvas: Any, title: str, caption: str) -> None:
    """Two bars to check the printer by, and what the sheet is."""
    for k, (long, name) in enumerate(BARS):
        y = (MARGIN_MM + 4.0 + k * 7.0) * POINTS_IN_MM
        canvas.setLineWidth(0.6)
        canvas.line(MARGIN_MM * POINTS_IN_MM, y, (MARGIN_MM + long) * POINTS_IN_MM, y)
        for x in (MARGIN_MM, MARGIN_MM + long):
            canvas.line(x * POINTS_IN_MM, y - 4, x * POINTS_IN_MM, y + 4)
        canvas.setFont("Helvetica", 8)
        canvas.drawString((MARGIN_MM + long + 2.0) * POINTS_IN_MM, y - 3, f"{name}: measure it before you trust this sheet")
    canvas.setFont("Helvetica-Bold", 11)
    canvas.drawString(MARGIN_MM * POINTS_IN_MM, (MARGIN_MM + 20.0) * POINTS_IN_MM, on_paper(title))
    canvas.setFont("Helvetica", 8)
    canvas.drawString(MARGIN_MM * POINTS_IN_MM, (MARGIN_MM + 16.2) * POINTS_IN_MM, on_paper(caption))


def on_paper(text: str) -> str:
    """What the built-in fonts have: inches and feet by their usual signs."""
    return text.replace("″", '"').replace("′", "'").encode("cp1252", "replace").decode("cp1252")


def _text_pages(canvas: Any, heading: str, lines: Sequence[str], high: float) -> None:
    y = high - MARGIN_MM - 8.0
    canvas.setFont("Helvetica-Bold", 14)
    canvas.drawString(MARGIN_MM * POINTS_IN_MM, y * POINTS_IN_MM, on_paper(heading))
    y -= 9.0
    canvas.setFont("Helvetica", 9.5)
    for line in lines:
        for text in _wrapped(line):
            if y < MARGIN_MM + LINE_MM:
                canvas.showPage()
                canvas.setFont("Helvetica", 9.5)
                y = high - MARGIN_MM - 8.0
            canvas.drawString(MARGIN_MM * POINTS_IN_MM, y * POINTS_IN_MM, on_paper(text))
            y -= LINE_MM
    canvas.showPage()


def _wrapped(line: str, most: int = 112) -> list[str]:
    from textwrap import wrap

    return wrap(line, most, subsequent_indent="      ") or [""]


def _labels(canvas: Any, labels: Sequence[Label], size: Size) -> None:
    """Labels to cut out, as many as there are pieces."""
    wide, high = SHEETS[size]
    columns, rows = int((wide - 2 * MARGIN_MM) // LABEL_MM[0]), int((high - 2 * MARGIN_MM) // LABEL_MM[1])
    for number, label in enumerate(labels):
        place = number % (columns * rows)
        if number and place == 0:
            canvas.showPage()
        x = MARGIN_MM + place % columns * LABEL_MM[0]
        y = high - MARGIN_MM - (place // columns + 1) * LABEL_MM[1]
        canvas.setDash()
        canvas.setLineWidth(0.3)
        canvas.rect(x * POINTS_IN_MM, y * POINTS_IN_MM, LABEL_MM[0] * POINTS_IN_MM, LABEL_MM[1] * POINTS_IN_MM)
        canvas.setFont("Helvetica-Bold", 22)
        canvas.drawString((x + 4) * POINTS_IN_MM, (y + LABEL_MM[1] - 11) * POINTS_IN_MM, on_paper(label.large))
        canvas.setFont("Helvetica", 9)
        for k, line in enumerate(label.lines):
            canvas.drawString((x + 4) * POINTS_IN_MM, (y + LABEL_MM[1] - 18 - k * 5) * POINTS_IN_MM, on_paper(line))
    canvas.showPage()


def template_svg(one: Worded) -> str:
    """A template as SVG, one user unit a millimetre."""
    (x0, y0), (x1, y1) = one.template.box()
    wide, high = x1 - x0 + 2 * MARGIN_MM, y1 - y0 + 2 * MARGIN_MM

    def at(p: Point2) -> str:
        return f"{p[0] - x0 + MARGIN_MM:.4f},{y1 - p[1] + MARGIN_MM:.4f}"

    body = [f"<title>{escape(one.title)}</title>"]
    for line in one.template.lines:
        dash = DASHED[line.ink]
        dashed = f' stroke-dasharray="{dash[0]} {dash[1]}"' if dash else ""
        tag = "polygon" if line.closed else "polyline"
        body.append(
            f'<{tag} class="{line.ink}" points="{" ".join(map(at, line.points))}" fill="none" stroke="black" stroke-width="{WIDTHS[line.ink]}"{dashed}/>'
        )
    for note in one.template.notes:
        x, y = at(note.at).split(",")
        turned = f' transform="rotate({-note.turn_deg:.4f} {x} {y})"' if note.turn_deg else ""
        body.append(
            f'<text x="{x}" y="{y}" font-size="4" font-family="sans-serif"{turned}>{escape(one.notes.get(note.code, ""))}</text>'
        )
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.4f}mm" height="{high:.4f}mm" viewBox="0 0 {wide:.4f} {high:.4f}">'
    )
    return "\n".join([head, *body, "</svg>"]) + "\n"


def template_dxf(one: Worded) -> str:
    """A template as DXF (R2010, mm), a layer for every sort of line."""
    import ezdxf
    from ezdxf import units

    document = ezdxf.new("R2010", setup=True)
    document.units = units.MM
    space = document.modelspace()
    types: dict[Ink, str] = {"cut": "CONTINUOUS", "fold": "DASHED", "edge": "CONTINUOUS", "unseen": "DASHED"}
    for ink, linetype in types.items():
        document.layers.add(ink.upper(), linetype=linetype)
    for line in one.template.lines:
        space.add_lwpolyline(list(line.points), close=line.closed, dxfattribs={"layer": line.ink.upper()})
    for note in one.template.notes:
        text = space.add_text(one.notes.get(note.code, ""), height=4.0, rotation=note.turn_deg)
        text.set_placement(note.at)
    out = StringIO()
    document.write(out)
    return out.getvalue()
