"""Dimensions, grips and sizes that follow from an assembly's gauges, for every kind."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import cos, radians, sin

from fennup.core.drawing.board_views import seen_from
from fennup.core.drawing.edit import Drag, Give
from fennup.core.drawing.view import DOWN as DOWN
from fennup.core.drawing.view import LEFT as LEFT
from fennup.core.drawing.view import RIGHT as RIGHT
from fennup.core.drawing.view import UP as UP
from fennup.core.drawing.view import Dimension, Grip, Mark, SizeRow, Standing, View
from fennup.core.errors import SpecError
from fennup.core.geometry.vec import Point2, Vec, add, dot, scale
from fennup.core.kinds.sizing import Document, Sizing, pins_in
from fennup.core.parts.gauge import is_angle, place_of
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid
from fennup.core.units.lengths import Tape

TRUE = 1e-6
MANY_CORNERS = 6
Shown = tuple[str, Point2 | None, float]


@dataclass(frozen=True)
class Paper:
    """A view's paper: its name and the assembly's directions that lie to the right and up on it."""

    id: str
    right: Vec
    up: Vec

    def flat(self, point: Vec) -> Point2:
        """Where a point of the assembly stands on the paper."""
        return (dot(point, self.right), dot(point, self.up))


FRONT = Paper("front", (1.0, 0.0, 0.0), (0.0, 0.0, 1.0))
SIDE = Paper("side", (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
ABOVE = Paper("above", (1.0, 0.0, 0.0), (0.0, 1.0, 0.0))
PAPERS = (FRONT, SIDE, ABOVE)


def ends_on(paper: Paper, ruler: Ruler, name: str) -> tuple[Point2, Point2] | None:
    """Where a gauge starts and ends on the paper; None where it does not lie in it."""
    gauge, value = ruler.assembly.by_name.get(name), ruler.measure(name)
    if gauge is None or value is None:
        return None
    a, b = place_of(ruler.assembly, gauge.a), place_of(ruler.assembly, gauge.b)
    if gauge.how == "along":
        b = add(a, scale(gauge.along, value))
    start, end = paper.flat(a), paper.flat(b)
    long = ((end[0] - start[0]) ** 2 + (end[1] - start[1]) ** 2) ** 0.5
    return (start, end) if is_angle(name) or abs(long - abs(value)) < TRUE else None


def dimension(
    paper: Paper, ruler: Ruler, given: Mapping[str, Standing], name: str, away: Point2 | None = None, lane: float = 1.0
) -> tuple[Dimension, ...]:
    """A gauge as a dimension on a view, if it lies in its paper: a length to scale, an angle about the gauge's start.

    A length stands off `away`, or square to itself, away from the middle of the paper.
    """
    ends, value = ends_on(paper, ruler, name), ruler.measure(name)
    if ends is None or value is None:
        return ()
    standing = given.get(name, "derived")
    gauge = ruler.assembly.by_name[name]
    if gauge.how == "along" and away:
        # It lies level with that one of its two places from which it stands off the farther.
        end = paper.flat(place_of(ruler.assembly, gauge.b))
        over = max(0.0, sum((end[k] - ends[1][k]) * away[k] for k in (0, 1)))
        ends = tuple((p[0] + over * away[0], p[1] + over * away[1]) for p in ends)  # type: ignore[assignment]
        assert ends
    acts, free = None if gauge.follows else Give(op="give", measure=name), name in given
    if not is_angle(name):
        return (Dimension(name, name, *ends, value, "mm", standing, away or _outwards(*ends), lane, acts=acts, can_free=free),)
    zero, out = paper.flat(gauge.along), paper.flat(gauge.out)
    turn = radians(value)
    arm = (zero[0] * cos(turn) + out[0] * sin(turn), zero[1] * cos(turn) + out[1] * sin(turn))
    first, second = (zero, arm) if zero[0] * arm[1] - zero[1] * arm[0] >= 0 else (arm, zero)
    return (Dimension(name, name, first, second, value, "deg", standing, about=ends[0], acts=acts, can_free=free),)


def _outwards(a: Point2, b: Point2) -> Point2:
    """Square to a line, away from the middle of the paper."""
    long = ((b[0] - a[0]) ** 2 + (b[1] - a[1]) ** 2) ** 0.5 or 1.0
    off = ((b[1] - a[1]) / long, (a[0] - b[0]) / long)
    outside = off[0] * (a[0] + b[0]) + off[1] * (a[1] + b[1]) >= 0
    return off if outside else (-off[0], -off[1])


def dimensions(paper: Paper, ruler: Ruler, given: Mapping[str, Standing], shown: Sequence[Shown]) -> tuple[Dimension, ...]:
    """Those gauges of a list that lie in the paper: each with the way and how far it stands off."""
    return tuple(d for name, away, lane in shown for d in dimension(paper, ruler, given, name, away, lane))


def view(
    paper: Paper,
    ruler: Ruler,
    solids: dict[str, Solid],
    given: Mapping[str, Standing],
    shown: Sequence[Shown],
    marks: tuple[Mark, ...] = (),
) -> View:
    """Everything seen on a paper, with some sizes where they stand and a ring at each that was given."""
    found = dimensions(paper, ruler, given, shown)
    return View(
        paper.id, seen_from(ruler.assembly, solids, paper.right, paper.up), marks, found, grips(paper, ruler, found, given)
    )


def grips(paper: Paper, ruler: Ruler, shown: Sequence[Dimension], given: Mapping[str, Standing]) -> tuple[Grip, ...]:
    """A ring at the end of every given length on a view, to be dragged along it."""
    made = []
    for d in shown:
        long = abs(d.value)
        if d.unit == "mm" and d.id in given and long > 0:
            way = ((d.b[0] - d.a[0]) / long, (d.b[1] - d.a[1]) / long)
            here = paper.flat(place_of(ruler.assembly, ruler.assembly.by_name[d.id].b))
            made.append(Grip(f"pin:{paper.id}:{d.id}", here, way))
    return tuple(made)


def after_drag(sizing: Sizing, spec: object, act: Drag, on: Tape) -> Document:
    """The spec with a given length as long as its grip was dragged, to the nearest graduation; its other end stays, or
    goes as far the other way where the length lies evenly about the middle. SpecError `no_such_grip`, `dragged_to_nothing`."""
    what, _, rest = act.grip.partition(":")
    view, _, name = rest.partition(":")
    paper = next((p for p in PAPERS if p.id == view), None)
    ruler = Ruler(sizing.whole(spec))
    ends, now = (ends_on(paper, ruler, name) if paper else None), ruler.measure(name)
    if what != "pin" or ends is None or not now or is_angle(name):
        raise SpecError("no_such_grip", (act.grip,))
    (ax, ay), (bx, by) = ends
    way = ((bx - ax) / now, (by - ay) / now)
    here, start = act.x_mm * way[0] + act.y_mm * way[1], ax * way[0] + ay * way[1]
    even = abs(start + (bx * way[0] + by * way[1])) < TRUE
    value = 2 * here if even else here - start
    marked = round(value / on.graduation_mm) * on.graduation_mm
    if marked * now <= 0:
        raise SpecError("dragged_to_nothing", (act.grip,))
    document = spec.model_dump(mode="json")  # type: ignore[attr-defined]
    document["pins"] = [{**p, "mm": marked, "suggested": False} if p["measure"] == name else p for p in pins_in(spec)]  # type: ignore[arg-type]
    return sizing.resettled(document)


def rows(ruler: Ruler, names: Sequence[str], given: Mapping[str, Standing]) -> tuple[SizeRow, ...]:
    """Sizes as a list, those that these boards have."""
    made = []
    for name in names:
        value = ruler.measure(name)
        gauge = ruler.assembly.by_name.get(name)
        if value is not None and gauge is not None and gauge.follows:
            made.append(read_only(name, value))
        elif value is not None:
            standing = given.get(name, "derived")
            unit = "deg" if is_angle(name) else "mm"
            made.append(SizeRow(name, value, unit, standing, Give(op="give", measure=name), name in given))  # type: ignore[arg-type]
    return tuple(made)


def read_only(name: str, value: float) -> SizeRow:
    """A size that only follows."""
    return SizeRow(name, value, "deg" if is_angle(name) else "mm", "fixed", None)


def corners_across(corners: Sequence[str]) -> list[tuple[str, str]]:
    """The corners between which a tape is laid across: all that are not neighbours, of many only those opposite each other."""
    n = len(corners)
    pairs = [(i, j) for i in range(n) for j in range(i + 2, n) if (j + 1) % n != i]
    return [(corners[i], corners[j]) for i, j in pairs if n <= MANY_CORNERS or j - i == n // 2]
