"""An outline out of an SVG or DXF file as the corners of a frame or a case: arcs made straight, the error told. Nothing outside the file is ever loaded."""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from io import StringIO
from itertools import pairwise
from math import atan2, degrees, hypot
from typing import Any

from fennup.core.errors import SpecError
from fennup.core.geometry.polygon import from_stretch, signed_area
from fennup.core.geometry.vec import Point2
from fennup.core.stock.outlined import Reading, section_of
from fennup.core.stock.ploughed import CURVE_MM
from fennup.core.stock.section import Section
from fennup.core.stock.sizes import THICKEST_MM

LARGEST_DRAWING = 4 * 1024 * 1024
MOST_CORNERS = 24
MOST_RUNS = 4000
DRAWN = re.compile(
    r"<(?:path|line|rect|circle|ellipse|poly)|^\s*(?:LINE|ARC|CIRCLE|ELLIPSE|SPLINE|LWPOLYLINE|POLYLINE)$", re.MULTILINE
)
SAME_PLACE_MM = 0.05  # ends that meet
STRAIGHT_DEG = 0.02  # a corner that turns less is none
FINE_MM = 0.002  # what a curve is compared with
FINEST_MM, COARSEST_MM = 0.01, 20.0  # how far off a curve the corners in its place may be
HALVINGS = 16
LENGTH_ERROR = 1e-3  # of a curve's length, by which it is parted finely
SMALLEST_MM, LARGEST_MM = 20.0, 20_000.0
THINNEST_SECTION_MM = 3.0
COARSEST_CURVE_MM = 0.4  # off a section's curves, where it has very many
MM_IN_INCH = 25.4
PIXELS = 96.0
LIBRARY_MM = 0.0393701  # inches, that a millimetre is to the library that reads SVG
METRIC = re.compile(r"""\bwidth\s*=\s*["'][^"']*[mc]m["']""", re.IGNORECASE)
DXF_MM = {0: 1.0, 1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0, 10: 914.4}


@dataclass(frozen=True)
class Run:
    """A run of points out of a drawing, fine enough for any curve: its points, mm, y up; `curved`: it is not made of straight lines alone."""

    points: tuple[Point2, ...]
    curved: bool


@dataclass(frozen=True)
class Outline:
    """Corners, mm, anticlockwise, the first one lowest on the left; how far a curve is off the straight lines in its place; how many other closed lines and
    open ones are left out; what was there besides and is not read."""

    corners: tuple[Point2, ...]
    error_mm: float
    curved: bool
    others: int
    open_runs: int
    ignored: tuple[str, ...]

    @property
    def size(self) -> Point2:
        """Width and height."""
        xs, ys = zip(*self.corners, strict=True)
        return max(xs) - min(xs), max(ys) - min(ys)


@dataclass(frozen=True)
class DrawnSection:
    """A section out of a drawing; how far its curves are off the straight lines in their place; what else was there, as of an outline."""

    section: Section
    error_mm: float
    curved: bool
    others: int
    open_runs: int
    ignored: tuple[str, ...]


def outline_in(name: str, text: str, most: int = MOST_CORNERS) -> Outline:
    """The largest closed outline of a drawing, with at most so many corners. SpecError `drawing_large`, `drawing_unknown`, `drawing_broken`, `no_outline`, `outline_open`, `outline_crosses`,
    `outline_hollow`, `outline_corners`, `outline_small`, `outline_large`."""
    run, others, open_runs, ignored = _largest(name, text)
    return _outline(run, others, open_runs, ignored, most)


def section_in(name: str, text: str) -> DrawnSection:
    """The largest closed outline of a drawing as a moulding cut across, opening edge at the left and show side up as it is drawn. Curves become straight pieces, as fine as can be, at most COARSEST_CURVE_MM off.
    SpecError as `outline_in`, and `outline_fine`."""
    run, others, open_runs, ignored = _largest(name, text)
    if _crosses(run.points):
        raise SpecError("outline_crosses", ("content",))
    xs, ys = zip(*run.points, strict=True)
    sizes = (max(xs) - min(xs), max(ys) - min(ys))
    if min(sizes) < THINNEST_SECTION_MM:
        raise SpecError("outline_small", ("content",), mm=min(sizes), least_mm=THINNEST_SECTION_MM)
    if max(sizes) > THICKEST_MM:
        raise SpecError("outline_large", ("content",), mm=max(sizes), most_mm=THICKEST_MM)
    ring = _without_straight(run.points)
    tolerance = CURVE_MM if run.curved else FINE_MM
    while True:
        corners = _thinned_ring(ring, tolerance) if len(ring) > 4 else ring
        try:
            section = section_of([(-x, y) for x, y in corners], Reading(tolerance))
            break
        except SpecError as refused:
            tolerance = max(2 * tolerance, CURVE_MM)
            if refused.code != "outline_fine" or tolerance > COARSEST_CURVE_MM:
                raise
    sides = list(pairwise([*corners, corners[0]]))
    error = max(min(from_stretch(p, a, b) for a, b in sides) for p in run.points)
    return DrawnSection(section, error, run.curved, others, open_runs, tuple(ignored))


def _largest(name: str, text: str) -> tuple[Run, int, int, Sequence[str]]:
    """(the largest closed line of a drawing, how many others there are, how many that do not close, what is not read)."""
    if len(text) > LARGEST_DRAWING:
        raise SpecError("drawing_large", ("content",), most_mb=LARGEST_DRAWING // 1024 // 1024)
    text = text.replace("\r\n", "\n")
    if len(DRAWN.findall(text)) > MOST_RUNS:
        raise SpecError("drawing_busy", ("content",), most=MOST_RUNS)
    if "<svg" in text[:4000].lower():
        runs, ignored = _svg_runs(text)
    elif name.lower().endswith(".dxf") or text.lstrip()[:1] in ("0", "9"):
        runs, ignored = _dxf_runs(text)
    else:
        raise SpecError("drawing_unknown", ("content",))
    if len(runs) > MOST_RUNS:
        raise SpecError("drawing_busy", ("content",), most=MOST_RUNS)
    closed, open_runs = _joined(runs)
    if not closed:
        raise SpecError("outline_open" if open_runs else "no_outline", ("content",), count=open_runs)
    closed.sort(key=lambda run: -_room(run.points))
    return closed[0], len(closed) - 1, open_runs, ignored


def _outline(run: Run, others: int, open_runs: int, ignored: Sequence[str], most: int) -> Outline:
    points = run.points if signed_area(run.points) > 0 else run.points[::-1]
    if _crosses(points):
        raise SpecError("outline_crosses", ("content",))
    corners, error = _straight(points, most)
    for k, corner in enumerate(corners):
        before, after = corners[k - 1], corners[(k + 1) % len(corners)]
        if _turn(before, corner, after) < 0:
            left, low = min(x for x, _ in corners), min(y for _, y in corners)
            raise SpecError("outline_hollow", ("content",), x_mm=corner[0] - left, y_mm=corner[1] - low)
    first = min(range(len(corners)), key=lambda k: (round(corners[k][1], 3), corners[k][0]))
    corners = (*corners[first:], *corners[:first])
    wide, high = max(x for x, _ in corners) - min(x for x, _ in corners), max(y for _, y in corners) - min(y for _, y in corners)
    if min(wide, high) < SMALLEST_MM:
        raise SpecError("outline_small", ("content",), mm=min(wide, high), least_mm=SMALLEST_MM)
    if max(wide, high) > LARGEST_MM:
        raise SpecError("outline_large", ("content",), mm=max(wide, high), most_mm=LARGEST_MM)
    middle = (
        (max(x for x, _ in corners) + min(x for x, _ in corners)) / 2,
        (max(y for _, y in corners) + min(y for _, y in corners)) / 2,
    )
    placed = tuple((x - middle[0], y - middle[1]) for x, y in corners)
    return Outline(placed, error, run.curved, others, open_runs, tuple(ignored))


def _straight(points: Sequence[Point2], most: int) -> tuple[tuple[Point2, ...], float]:
    """At most so many corners on the line, and how far the line is from them at most: as near as so many allow."""
    ring = _without_straight(points)
    corners = ring
    if len(ring) > most:
        fine = _thinned_ring(ring, FINEST_MM)
        low, high = 0.0, COARSEST_MM
        corners = _fewest(fine, high)
        if len(corners) > most:
            raise SpecError("outline_corners", ("content",), count=len(corners), most=most)
        for _ in range(HALVINGS):  # the least tolerance at which so few corners do
            middle = (low + high) / 2
            found = _fewest(fine, middle)
            low, high, corners = (low, middle, found) if len(found) <= most else (middle, high, corners)
    if len(corners) < 3:
        raise SpecError("no_outline", ("content",), count=0)
    sides = list(zip(corners, (*corners[1:], corners[0]), strict=True))
    return tuple(corners), max(min(from_stretch(p, a, b) for a, b in sides) for p in points)


def _without_straight(points: Sequence[Point2]) -> list[Point2]:
    """Corners alone: points that lie on the line between their neighbours are none."""
    found = [p for k, p in enumerate(points) if hypot(p[0] - points[k - 1][0], p[1] - points[k - 1][1]) > FINE_MM]
    return [p for k, p in enumerate(found) if abs(_turn(found[k - 1], p, found[(k + 1) % len(found)])) > STRAIGHT_DEG]


def _thinned_ring(points: Sequence[Point2], tolerance: float) -> list[Point2]:
    """The ring with as few of its points as lie within the tolerance (Ramer, Douglas and Peucker, on both halves)."""
    far = max(range(len(points)), key=lambda k: hypot(points[k][0] - points[0][0], points[k][1] - points[0][1]))
    halves = (points[: far + 1], [*points[far:], points[0]])
    return [p for half in halves for p in _thinned(list(half), tolerance)[:-1]]


def _fewest(points: Sequence[Point2], tolerance: float) -> list[Point2]:
    """Corners out of the ring, from a sharp one on: each as far on as the line stays within the tolerance, so that a curve is parted evenly."""
    turns = [abs(_turn(points[k - 1], p, points[(k + 1) % len(points)])) for k, p in enumerate(points)]
    start = max(range(len(points)), key=lambda k: turns[k])
    ring = [*points[start:], *points[: start + 1]]
    found, here = [ring[0]], 0
    while here < len(ring) - 1:
        there = here + 1
        while there < len(ring) - 1 and all(
            from_stretch(p, ring[here], ring[there + 1]) <= tolerance for p in ring[here + 1 : there + 1]
        ):
            there += 1
        found.append(ring[there])
        here = there
    return found[:-1]


def _thinned(run: list[Point2], tolerance: float) -> list[Point2]:
    keep, todo = {0, len(run) - 1}, [(0, len(run) - 1)]
    while todo:
        low, high = todo.pop()
        if high - low < 2:
            continue
        k = max(range(low + 1, high), key=lambda i: from_stretch(run[i], run[low], run[high]))
        if from_stretch(run[k], run[low], run[high]) > tolerance:
            keep.add(k)
            todo += [(low, k), (k, high)]
    return [run[k] for k in sorted(keep)]


def _joined(runs: Iterable[Run]) -> tuple[list[Run], int]:
    """Runs whose ends meet in one; those that close, and how many stay open."""
    closed: list[Run] = []
    left = []
    for run in runs:
        if len(run.points) < 2:
            continue
        if len(run.points) > 3 and _near(run.points[0], run.points[-1]):
            closed.append(Run(run.points[:-1], run.curved))
        else:
            left.append(run)
    open_runs = 0
    while left:
        chain = left.pop(0)
        grown = True
        while grown and not _near(chain.points[0], chain.points[-1]):
            grown = False
            for k, other in enumerate(left):
                for points in (other.points, other.points[::-1]):
                    if _near(chain.points[-1], points[0]):
                        chain, grown = Run((*chain.points, *points[1:]), chain.curved or other.curved), True
                    elif _near(chain.points[0], points[-1]):
                        chain, grown = Run((*points[:-1], *chain.points), chain.curved or other.curved), True
                    if grown:
                        break
                if grown:
                    left.pop(k)
                    break
        if len(chain.points) > 3 and _near(chain.points[0], chain.points[-1]):
            closed.append(Run(chain.points[:-1], chain.curved))
        else:
            open_runs += 1
    return [run for run in closed if _room(run.points) > SAME_PLACE_MM], open_runs


def _svg_runs(text: str) -> tuple[list[Run], list[str]]:
    """Every path of an SVG, in mm; a pixel is a 96th of an inch. Scripts, pictures and links are not read; entities are refused."""
    from svgelements import SVG, Arc, Close, CubicBezier, Line, Move, Path, QuadraticBezier, Shape

    if "<!ENTITY" in text or ("<!DOCTYPE" in text and "[" in text.partition("<!DOCTYPE")[2].partition(">")[0]):
        raise SpecError("drawing_entities", ("content",))
    ignored = [
        word
        for word, sign in (("scripts", "<script"), ("pictures", "<image"), ("links to other files", "<use"), ("text", "<text"))
        if sign in text.lower()
    ]
    try:
        svg = SVG.parse(StringIO(text), ppi=PIXELS, reify=True)
        shapes = [Path(element) for element in svg.elements() if isinstance(element, Shape)]
    except Exception:  # whatever it stumbles over, the file is not what it says
        raise SpecError("drawing_broken", ("content",)) from None
    each = MM_IN_INCH / PIXELS
    if METRIC.search(text[: text.find(">", text.lower().find("<svg")) + 1]):
        each /= MM_IN_INCH * LIBRARY_MM
    runs: list[Run] = []
    for path in shapes:
        run: list[Point2] = []
        curved = False
        for segment in path:
            if isinstance(segment, Move):
                if len(run) > 1:
                    runs.append(Run(tuple(run), curved))
                run, curved = [(segment.end.x * each, -segment.end.y * each)], False
            elif isinstance(segment, Line | Close):
                if segment.end is not None:
                    run.append((segment.end.x * each, -segment.end.y * each))
            elif isinstance(segment, Arc | CubicBezier | QuadraticBezier):
                curved = True
                pieces = max(8, min(720, round(float(segment.length(error=LENGTH_ERROR)) * each)))
                run += [
                    (float(p.x) * each, -float(p.y) * each) for p in (segment.point(k / pieces) for k in range(1, pieces + 1))
                ]
        if len(run) > 1:
            runs.append(Run(tuple(run), curved))
    return runs, ignored


def _dxf_runs(text: str) -> tuple[list[Run], list[str]]:
    """Every line, arc, circle, ellipse, spline and polyline of a DXF's model space, in mm by its own units."""
    from ezdxf import DXFError, recover
    from ezdxf.path import make_path

    try:
        document, _ = recover.read(_bytes(text))
    except (DXFError, OSError, ValueError, KeyError, IndexError, TypeError, AttributeError):
        raise SpecError("drawing_broken", ("content",)) from None
    each = DXF_MM.get(int(document.header.get("$INSUNITS", 0) or 0), 1.0)
    runs, ignored = [], set[str]()
    for entity in document.modelspace():
        kind = entity.dxftype()
        if kind not in ("LINE", "ARC", "CIRCLE", "ELLIPSE", "SPLINE", "LWPOLYLINE", "POLYLINE"):
            ignored.add(kind.lower())
            continue
        try:
            path: Any = make_path(entity)
            points = tuple((float(p.x) * each, float(p.y) * each) for p in path.flattening(FINE_MM / each))
        except (DXFError, TypeError, ValueError, ZeroDivisionError):
            ignored.add(kind.lower())
            continue
        runs.append(Run(points, bool(path.has_curves)))
    return runs, sorted(ignored)


def _bytes(text: str) -> Any:
    from io import BytesIO

    return BytesIO(text.encode("utf-8", "surrogateescape"))


def _near(a: Point2, b: Point2) -> bool:
    return hypot(a[0] - b[0], a[1] - b[1]) < SAME_PLACE_MM


def _room(points: Sequence[Point2]) -> float:
    """The area of the box round some points."""
    xs, ys = zip(*points, strict=True)
    return float((max(xs) - min(xs)) * (max(ys) - min(ys)))


def _turn(a: Point2, b: Point2, c: Point2) -> float:
    """By how much one turns left at b, degrees."""
    u, v = (b[0] - a[0], b[1] - a[1]), (c[0] - b[0], c[1] - b[1])
    return degrees(atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1]))


def _crosses(points: Sequence[Point2]) -> bool:
    """Whether a ring crosses itself. All corners turn one way in a simple convex ring, once round; only others are looked at side by side."""
    corners = _without_straight(points)
    turns = [_turn(corners[k - 1], p, corners[(k + 1) % len(corners)]) for k, p in enumerate(corners)]
    if all(turn > 0 for turn in turns) and abs(sum(turns) - 360.0) < 1.0:
        return False
    thin = _thinned_ring(corners, SAME_PLACE_MM) if len(corners) > MOST_CORNERS else corners
    sides = list(pairwise([*thin, thin[0]]))
    for i, (a, b) in enumerate(sides):
        for j in range(i + 2, len(sides)):
            if i == 0 and j == len(sides) - 1:
                continue
            if _cut(a, b, *sides[j]):
                return True
    return False


def _cut(a: Point2, b: Point2, c: Point2, d: Point2) -> bool:
    """Whether two stretches cross."""

    def side(p: Point2, q: Point2, r: Point2) -> float:
        return (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])

    return side(a, b, c) * side(a, b, d) < 0 and side(c, d, a) * side(c, d, b) < 0
