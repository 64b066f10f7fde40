"""The dimensions of a box where they stand on its views, and the grips that drag what was given."""

from math import atan2, cos, degrees, pi, radians, sin
from typing import Literal

from fennup.core.drawing.edit import Give
from fennup.core.drawing.view import DOWN, LEFT, RIGHT, UP, Dimension, Grip, Shape, Standing
from fennup.core.geometry.vec import Point2
from fennup.core.kinds.box.sizes import pins_of
from fennup.core.kinds.box.spec import BoxSpec, Irregular, Rectangle
from fennup.core.parts.measure import Ruler
from fennup.core.parts.measures import measure_of

Drawn = tuple[tuple[Dimension, ...], tuple[Grip, ...]]
DrawnAbove = tuple[tuple[Dimension, ...], tuple[Grip, ...], tuple[Shape, ...]]


def standings(spec: BoxSpec) -> dict[str, Standing]:
    """How the sizes stand that do not follow from others; what the liner says is given."""
    suggested = spec.standings()
    return {pin.measure: suggested.get(pin.measure, "given") for pin in pins_of(spec)}


class _Drawn:
    """Collects the dimensions and grips of one view."""

    def __init__(self, spec: BoxSpec, ruler: Ruler) -> None:
        self.given = standings(spec)
        self.ruler = ruler
        self.dimensions: list[Dimension] = []
        self.grips: list[Grip] = []

    def add(
        self, name: str, a: Point2, b: Point2, away: Point2, lane: float, grip: Point2 | None = None, along: Point2 = RIGHT
    ) -> None:
        """A length between two places, if it can be measured; with a grip where it was given."""
        self._put(name, a, b, "mm", away, lane)
        if name in self.given and grip is not None:
            self.grips.append(Grip(f"pin:{name}", grip, along))

    def angle(self, name: str, about: Point2, a: Point2, b: Point2) -> None:
        """An angle about a place, from one direction to the other anticlockwise."""
        self._put(name, a, b, "deg", about=about)

    def _put(
        self,
        name: str,
        a: Point2,
        b: Point2,
        unit: Literal["mm", "deg"],
        away: Point2 = (0.0, 0.0),
        lane: float = 0.0,
        about: Point2 | None = None,
    ) -> None:
        value, own = self.ruler.measure(name), name in self.given
        if value is not None:
            standing = self.given.get(name, "derived")
            acts = Give(op="give", measure=name)
            made = Dimension(name, name, a, b, value, unit, standing, away, lane, about, acts=acts, can_free=own)
            self.dimensions.append(made)

    def done(self) -> Drawn:
        return tuple(self.dimensions), tuple(self.grips)


def _bounds(ruler: Ruler, line: str) -> tuple[float, float, float, float]:
    points = [p for run in (ruler.runs(line) or {}).values() for p in run]
    xs, ys = [p[0] for p in points], [p[1] for p in points]
    return min(xs), max(xs), min(ys), max(ys)


def from_above(spec: BoxSpec, ruler: Ruler) -> DrawnAbove:
    """Top and bottom, inside and outside: what was given, and what one asks for first."""
    sheet = _Drawn(spec, ruler)
    more: list[Shape] = []
    if isinstance(spec.plan, Irregular):
        _irregular_above(spec, ruler, sheet)
    elif isinstance(spec.plan, Rectangle):
        _rectangle_above(spec, ruler, sheet)
    else:
        _regular_above(spec, ruler, sheet)
        if spec.sides % 2:
            across = ruler.measure("inner_top_flats") or 0.0
            circle = tuple((across / 2 * cos(a), across / 2 * sin(a)) for a in (2 * pi * i / 72 for i in range(72)))
            more.append(Shape("circle", circle, True))
    return (*sheet.done(), tuple(more))


def _outside_line(spec: BoxSpec) -> str:
    """The outer line that is widest seen from above; the bottom's of an upright case."""
    widest = all(spec.slope_of(letter) <= 0 for letter in spec.letters)
    return "outer_bottom" if widest else "outer_top"


def _rectangle_above(spec: BoxSpec, ruler: Ruler, sheet: _Drawn) -> None:
    outside = _outside_line(spec)
    other = "outer_bottom" if outside == "outer_top" else "outer_top"
    lanes = [(outside, 1.0, LEFT)] if spec.upright else [(outside, 2.15, LEFT), (other, 1.0, RIGHT)]
    x0, x1, y0, _ = _bounds(ruler, outside)
    for line, lane, beside in lanes:
        a0, a1, b0, b1 = _bounds(ruler, line)
        at = x0 if beside == LEFT else x1
        sheet.add(f"{line}_width", (a0, y0), (a1, y0), DOWN, lane, (a1, (b0 + b1) / 2 + (b1 - b0) / 5))
        sheet.add(f"{line}_depth", (at, b0), (at, b1), beside, 1.4, ((a0 + a1) / 2 + (a1 - a0) / 5, b1), UP)
    inside = "inner_top" if _given_on(sheet.given, "inner_top") or not _given_on(sheet.given, "inner_bottom") else "inner_bottom"
    a0, a1, b0, b1 = _bounds(ruler, inside)
    sheet.add(f"{inside}_width", (a0, b0 + (b1 - b0) / 4), (a1, b0 + (b1 - b0) / 4), UP, 0.0, (a1, (3 * b0 + b1) / 4))
    sheet.add(f"{inside}_depth", (a0 + (a1 - a0) / 3, b0), (a0 + (a1 - a0) / 3, b1), UP, 0.0, ((2 * a0 + a1) / 3, b1), UP)


def _given_on(given: dict[str, Standing], line: str) -> bool:
    return any(name.startswith(line) for name in given)


def _regular_above(spec: BoxSpec, ruler: Ruler, sheet: _Drawn) -> None:
    """Across flats: outside below, inside through the middle; one side's length at the top."""
    n, outside = spec.sides, _outside_line(spec)
    other = "outer_bottom" if outside == "outer_top" else "outer_top"
    x0, x1, y0, y1 = _bounds(ruler, outside)
    # An even number of sides that 4 does not divide has its flats at the bottom and the top.
    level = n % 4 == 0 or n % 2 == 1
    kinds = sorted({m.quantity for m in map(measure_of, sheet.given) if m.quantity in ("corners", "reach")})
    lanes = [(outside, 1.0)] if spec.upright else [(outside, 2.15), (other, 1.0)]
    for line, lane in lanes:
        across = (ruler.measure(f"{line}_flats") or 0.0) / 2
        if level:
            sheet.add(f"{line}_flats", (-across, y0), (across, y0), DOWN, lane, (across, 0.0))
        elif line == outside:
            sheet.add(f"{line}_flats", (x0, -across), (x0, across), LEFT, 1.4, (0.0, across), UP)
        else:
            sheet.add(f"{line}_flats", (x1, -across), (x1, across), RIGHT, 1.4, (0.0, across), UP)
    inside = "inner_bottom" if _given_on(sheet.given, "inner_bottom") else "inner_top"
    across = (ruler.measure(f"{inside}_flats") or 0.0) / 2
    if level:
        sheet.add(f"{inside}_flats", (-across, 0.0), (across, 0.0), UP, 0.0, (across, 0.0))
    else:
        sheet.add(f"{inside}_flats", (0.0, -across), (0.0, across), UP, 0.0, (0.0, across), UP)
    top = spec.letters[n // 2] if n % 2 == 0 else "A"
    run = (ruler.runs(outside) or {})[top]
    if n % 2 == 0:
        sheet.add(f"{outside}_side", (run[1][0], run[1][1]), (run[0][0], run[0][1]), UP, 1.0)
    for kind in kinds:
        for name in sheet.given:
            if name.endswith(f"_{kind}"):
                half = (ruler.measure(name) or 0.0) / 2
                sheet.add(name, (-half, y1), (half, y1), UP, 2.0)


def _irregular_above(spec: BoxSpec, ruler: Ruler, sheet: _Drawn) -> None:
    """Every side's length along its outer bottom line, every corner's angle in it, a ring at every corner."""
    runs = ruler.runs("outer_bottom") or {}
    for i, (letter, (a, b)) in enumerate(runs.items()):
        along = (b[0] - a[0], b[1] - a[1])
        long = (along[0] ** 2 + along[1] ** 2) ** 0.5
        sheet.add(f"outer_bottom_side:{letter}", (a[0], a[1]), (b[0], b[1]), (along[1] / long, -along[0] / long), 1.0)
        nxt = runs[spec.letters[(i + 1) % spec.sides]]
        ahead = (nxt[1][0] - nxt[0][0], nxt[1][1] - nxt[0][1])
        size = (ahead[0] ** 2 + ahead[1] ** 2) ** 0.5
        back = (-along[0] / long, -along[1] / long)
        sheet.angle(f"outer_bottom_angle:{spec.corner_names[i]}", (b[0], b[1]), (ahead[0] / size, ahead[1] / size), back)
        sheet.grips.append(Grip(f"corner:{(i + 1) % spec.sides}", (b[0], b[1])))


def from_the_front(spec: BoxSpec, ruler: Ruler) -> Drawn:
    """Height, the front wall's edges below and above, and the side walls' slope where they stand edge on."""
    sheet = _Drawn(spec, ruler)
    bottom, top = _bounds(ruler, "outer_bottom"), _bounds(ruler, "outer_top")
    _edges(spec, ruler, sheet, "A", 0)
    sheet.add(
        "height", (max(bottom[1], top[1]), 0.0), (max(bottom[1], top[1]), spec.height_mm), RIGHT, 1.4, (0.0, spec.height_mm), UP
    )
    if spec.sides % 4 == 0 and not isinstance(spec.plan, Irregular):
        _slope(spec, sheet, spec.letters[spec.sides // 4], bottom[1], 1.0)
        _slope(spec, sheet, spec.letters[3 * spec.sides // 4], bottom[0], -1.0)
    return sheet.done()


def from_the_side(spec: BoxSpec, ruler: Ruler) -> Drawn:
    """Seen from the right: front at the left. Height, depth below and above, the front's slope where it stands edge on."""
    sheet = _Drawn(spec, ruler)
    bottom, top = _bounds(ruler, "outer_bottom"), _bounds(ruler, "outer_top")
    if isinstance(spec.plan, Rectangle):
        _edges(spec, ruler, sheet, "B", 1)
    else:
        for line, z, (low, high), away in (("outer_bottom", 0.0, bottom[2:], DOWN), ("outer_top", spec.height_mm, top[2:], UP)):
            if spec.sides % 2 == 0 and not isinstance(spec.plan, Irregular):
                sheet.add(f"{line}_flats", (low, z), (high, z), away, 1.0)
    right = max(bottom[3], top[3])
    sheet.add("height", (right, 0.0), (right, spec.height_mm), RIGHT, 1.4, (0.0, spec.height_mm), UP)
    _slope(spec, sheet, "A", bottom[2], -1.0)
    if isinstance(spec.plan, Rectangle):
        _slope(spec, sheet, "C", bottom[3], 1.0)
    group = spec.group_of("A")
    lean = radians(spec.slope_of("A"))
    foot = (bottom[2], 0.0)
    head = (foot[0] - spec.height_mm * sin(lean) / cos(lean), spec.height_mm)
    out = (-cos(lean), -sin(lean))
    if not spec.upright:
        sheet.add(f"slant:{group}" if group else "slant", foot, head, out, 1.4)
    return sheet.done()


def _edges(spec: BoxSpec, ruler: Ruler, sheet: _Drawn, letter: str, axis: int) -> None:
    """One wall's outer edges below and above."""
    kind = ("width", "depth")[axis] if isinstance(spec.plan, Rectangle) else f"side:{letter}"
    for line, z, away in (("outer_bottom", 0.0, DOWN), ("outer_top", spec.height_mm, UP)):
        if spec.upright and line == "outer_top":
            continue
        low, high = sorted(p[axis] for p in (ruler.runs(line) or {})[letter])
        name = f"{line}_side" if kind == "side:A" and not isinstance(spec.plan, Irregular) else f"{line}_{kind}"
        sheet.add(name, (low, z), (high, z), away, 1.0)


def _slope(spec: BoxSpec, sheet: _Drawn, letter: str, at: float, side: float) -> None:
    """The angle between upright and a wall seen edge on, about its foot; `side` + where outwards is to the right."""
    if letter not in spec.letters:
        return
    group = spec.group_of(letter)
    name = f"slope:{group}" if group else "slope"
    if any(d.id == name for d in sheet.dimensions):
        return
    lean = radians(spec.slope_of(letter)) * side
    wall = (sin(lean), cos(lean))
    first, second = (wall, UP) if degrees(atan2(wall[0], wall[1])) >= 0 else (UP, wall)
    sheet.angle(name, (at, 0.0), first, second)


def after_drag(name: str, x: float, y: float) -> float | None:
    """What a measure would be with its grip at a place of its view; None where it has no grip."""
    if name == "height":
        return y
    kind = measure_of(name).quantity
    if kind == "width":
        return 2 * x
    if kind == "depth":
        return 2 * y
    return 2 * max(x, y) if kind == "flats" else None
