"""What is measured, lit on the finished piece: an edge, a width, the angle of an end."""

from fennup.core.assembly.board import End
from fennup.core.bench.task import Check
from fennup.core.drawing.view import Shape, View
from fennup.core.geometry.polygon import hull
from fennup.core.geometry.vec import Point2
from fennup.core.parts.facts import PartFacts
from fennup.core.parts.solid import Arris, arris_line, extent_along
from fennup.core.saw.marking import crossing
from fennup.core.steps.picture import cut_off

AT_THE_END = 2.2  # widths of the board that are shown where an end's angle is taken
STOOD_HIGH, STOOD_APART = 3.0, 0.25  # widths: how high pieces are drawn that stand together, how far apart
MOST_STOOD = 6
ALONG_GRAIN: Point2 = (1.0, 0.0)


def lit_view(facts: PartFacts, check: Check, end: End | None, index: int = 0) -> View | None:
    """The piece with what is measured lit; None where nothing of it can be pointed at."""
    if check.what == "length" and check.arris:
        return _long_edge(facts, check.arris)
    if check.what == "width":
        return _across(facts)
    if check.what == "spread":
        return _stood_together(facts)
    if check.what in ("face", "tilt") and end:
        return _angle(facts, end, index, over_face=check.what == "face")
    return None


def outline(facts: PartFacts, i: int = 0, j: int = 1) -> tuple[Point2, ...]:
    """A finished part's silhouette along one of its own axes."""
    return hull([(p[i], p[j]) for piece in facts.solid.local for p in piece.points])


def _long_edge(facts: PartFacts, arris: Arris) -> View:
    """Seen from the side on which that corner is: from behind it is turned over along its length."""
    turned = -1.0 if arris.startswith("back") else 1.0
    y, z = arris_line(facts.board, arris)
    low, high = extent_along(facts.board, y, z)
    wood = tuple((x, turned * v) for x, v in outline(facts))
    return View("measure", (Shape("wood", wood, True, None, ALONG_GRAIN), Shape("lit", ((low, turned * y), (high, turned * y)))))


def _stood_together(facts: PartFacts) -> View:
    """Alike pieces side by side on their left ends, the line over their upper ends lit; the middle of long ones left out."""
    wood = outline(facts)
    (low, high), wide = (min(x for x, _ in wood), max(x for x, _ in wood)), facts.board.section.width_mm
    left_out = max(0.0, high - low - STOOD_HIGH * wide)
    place = 1.0 + STOOD_APART
    count = min(len(facts.group.boards), MOST_STOOD)

    def stood(k: int) -> tuple[Point2, ...]:
        return tuple((y + k * place * wide, x - low - (left_out if x > (low + high) / 2 else 0.0)) for x, y in wood)

    top = high - low - left_out
    line: tuple[Point2, ...] = ((-wide * place / 2, top), (((count - 1) * place + place / 2) * wide, top))
    return View("measure", (*(Shape("wood", stood(k), True, None, (0.0, 1.0)) for k in range(count)), Shape("lit", line)))


def _across(facts: PartFacts) -> View:
    """Across the wider side, in the middle of its length."""
    wood = outline(facts)
    xs, ys = [x for x, _ in wood], [y for _, y in wood]
    middle = (min(xs) + max(xs)) / 2
    return View("measure", (Shape("wood", wood, True, None, ALONG_GRAIN), Shape("lit", ((middle, min(ys)), (middle, max(ys))))))


def _angle(facts: PartFacts, end: End, index: int, *, over_face: bool) -> View:
    """An end seen from the face, or over the edge; the cut and the side that the gauge's stock lies on are lit."""
    board, plane = facts.board, facts.board.ends(end)[index]
    out = 1.0 if end == "right" else -1.0
    lines: tuple[Arris, Arris] = ("face_lower", "face_upper") if over_face else ("back_lower", "face_lower")
    axis = 0 if over_face else 1  # of (y, z): what runs up the picture
    at = [(crossing(plane, arris_line(board, arris)), arris_line(board, arris)[axis]) for arris in lines]
    long = max(at, key=lambda p: out * p[0])
    size = board.section.width_mm if over_face else board.section.thickness_mm
    tip = max(out * x for x, _ in outline(facts))
    near = cut_off(outline(facts, 0, 1 if over_face else 2), out * (tip - AT_THE_END * size), -out)
    stock = ((long[0] - out * 1.5 * size, long[1]), long)
    return View("measure", (Shape("wood", near, True, None, ALONG_GRAIN), Shape("lit", tuple(at)), Shape("lit", stock)))
