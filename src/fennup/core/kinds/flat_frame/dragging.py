"""Grips of a flat frame: what is dragged, and which figure follows."""

import re
from typing import Any

from fennup.core.drawing.edit import Drag
from fennup.core.editing import put_at
from fennup.core.errors import SpecError
from fennup.core.geometry.polygon import regular_corners
from fennup.core.kinds.flat_frame.outline import baseline, unit_measures
from fennup.core.kinds.flat_frame.place import assemble
from fennup.core.kinds.flat_frame.shapes import Irregular, Rectangle, Regular
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec
from fennup.core.parts.measure import Ruler
from fennup.core.parts.measures import measure_of
from fennup.core.units.lengths import Tape

Document = dict[str, Any]
GRIP = re.compile(r"(corner|size|width|across|along):(?:(flat|corner):)?([A-X]{1,2}|[0-9]{1,2})")


def dragged(spec: FlatFrameSpec, document: Document, act: Drag, on: Tape) -> Document:
    """The frame after a grip was let go: the figure behind it takes the nearest graduation. SpecError `no_such_grip`, `dragged_to_nothing`."""
    named, step, to = GRIP.fullmatch(act.grip), on.graduation_mm, (act.x_mm, act.y_mm)
    name, kind, which = named.groups() if named else ("", None, "")
    letters = set(which) <= set(spec.letters) and not which.isdecimal()
    if name == "corner" and isinstance(spec.shape, Irregular) and which.isdecimal() and int(which) < spec.sides:
        corner = [round(act.x_mm / step) * step, round(act.y_mm / step) * step]
        return put_at(document, f"shape.corners.{which}", corner)
    if name == "size" and isinstance(spec.shape, Regular) and kind and which.isdecimal():
        return _drag_size(spec, spec.shape, document, kind, int(which), to, step)
    if name == "width" and not isinstance(spec.shape, Irregular) and letters:
        return _drag_width(spec, document, which, to, step)
    edges = {"across": "BD", "along": "AC"}
    if isinstance(spec.shape, Rectangle) and len(which) == 1 and which in edges.get(name, ""):
        return _drag_rectangle(spec, document, name, which, to, step)
    raise SpecError("no_such_grip", (act.grip,))


def _nearest(value: float, step: float, grip: str) -> float:
    """The nearest graduation, refused where it would be nothing."""
    marked = round(value / step) * step
    if marked <= 0:
        raise SpecError("dragged_to_nothing", (grip,))
    return marked


def _drag_size(
    spec: FlatFrameSpec, shape: Regular, document: Document, kind: str, place: int, to: tuple[float, float], step: float
) -> Document:
    """The given line grows or shrinks about the middle until its side, or its corner, passes the place."""
    corners = regular_corners(shape.sides)
    a, b = corners[place % shape.sides], corners[(place + 1) % shape.sides]
    mark = a if kind == "corner" else ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
    apothem = (to[0] * mark[0] + to[1] * mark[1]) / (mark[0] ** 2 + mark[1] ** 2)
    size = shape.size
    unit = unit_measures(shape.sides)
    if size.by == "holds":
        value = _nearest((apothem + spec.shift_mm) * unit["flats"] - size.play_mm, step, "shape.size.object_mm")
        return put_at(document, "shape.size.object_mm", value)
    if size.by == "floats":
        value = _nearest(apothem * unit["flats"] - 2 * size.reveal_mm, step, "shape.size.object_mm")
        return put_at(document, "shape.size.object_mm", value)
    return put_at(document, "shape.size.mm", _nearest(apothem * unit[measure_of(size.by).quantity], step, "shape.size.mm"))


def _drag_width(spec: FlatFrameSpec, document: Document, which: str, to: tuple[float, float], step: float) -> Document:
    """A rail grows or shrinks at the edge that is not given: all of them do that have no width of their own."""
    side = next(s for s in baseline(spec).sides if s.letter == which[0])
    outwards = (to[0] - side.start[0]) * side.way[1] - (to[1] - side.start[1]) * side.way[0]
    width = _nearest(outwards if side.outer > 0 else -outwards, step, "board.width_mm")
    if not any(letter in spec.rails for letter in which):
        return put_at(put_at(document, "board.width_mm", width), "board.nominal", None)
    for letter in which:
        document = put_at(document, f"rails.{letter}.width_mm", width)
    return document


def _drag_rectangle(
    spec: FlatFrameSpec, document: Document, name: str, edge: str, to: tuple[float, float], step: float
) -> Document:
    """One edge of the given line follows the place and the opposite one goes as far the other way."""
    assert isinstance(spec.shape, Rectangle)
    ruler = Ruler(assemble(spec.model_copy(update={"left_out": []})))
    size = spec.shape.size
    runs = ruler.runs("outside" if size.by == "outside" else "opening") or {}
    start = runs[edge][0]
    axis, outwards = (0, 1 if edge == "B" else -1) if name == "across" else (1, 1 if edge == "C" else -1)
    moved = (to[axis] - start[axis]) * outwards
    prefix = "" if size.by in ("opening", "outside") else "object_"
    field = f"shape.size.{prefix}{'width' if name == 'across' else 'depth'}_mm"
    now = document["shape"]["size"][field.rsplit(".", 1)[1]]
    return put_at(document, field, _nearest(now + 2 * moved, step, field))
