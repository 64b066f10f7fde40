"""The saw as a drawing that can be edited: its arcs to their stops, and what its scales count from."""

from math import atan2, degrees
from typing import Any

from fennup.core.drawing.edit import Choose, Drag, Edit, Nudge, TypeIn
from fennup.core.drawing.saw_views import RADIUS, arc_points, fence_and_ticks, round_from_down, round_from_up
from fennup.core.drawing.view import Control, Dimension, Grip, Option, Shape, View
from fennup.core.editing import edit_field, put_at, read_figure
from fennup.core.errors import SpecError
from fennup.core.geometry.vec import Point2
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.units.lengths import Tape

STOPS = ("swing_left_deg", "swing_right_deg", "tilt_left_deg", "tilt_right_deg")
DRAG_STEP_DEG = 0.5
BESIDE = RADIUS + 32.0


def edit_miter_saw(saw: MiterSaw, act: Edit, on: Tape) -> dict[str, Any]:
    """The saw after one act, as a document still to be validated. Stops are typed as the saw's scale reads them."""
    document = saw.model_dump(mode="json")
    if isinstance(act, Drag):
        return _dragged(document, act)
    if isinstance(act, TypeIn | Nudge) and act.path in STOPS:
        counts = saw.swing_counts_from if act.path.startswith("swing") else saw.tilt_counts_from
        shown = saw.swing_shown if act.path.startswith("swing") else saw.tilt_shown
        if isinstance(act, TypeIn):
            reading = float(read_figure(act.path, act.text, on, False))
        else:
            reading = shown(document[act.path]) + act.steps * DRAG_STEP_DEG
        return put_at(document, act.path, reading if counts == "square" else 90.0 - reading)
    if isinstance(act, TypeIn | Choose | Nudge):
        if act.path == "name" and isinstance(act, TypeIn):
            return put_at(document, "name", act.text.strip())
        return edit_field(document, act, on)
    raise SpecError("no_such_field", (act.measure,))


def _dragged(document: dict[str, Any], act: Drag) -> dict[str, Any]:
    """A stop let go: the nearest half degree."""
    if act.grip not in STOPS:
        raise SpecError("no_such_grip", (act.grip,))
    if act.grip.startswith("swing"):
        turn = degrees(atan2(act.x_mm, -act.y_mm))
        deg = turn if act.grip == "swing_right_deg" else -turn
    else:
        turn = degrees(atan2(-act.x_mm, act.y_mm))
        deg = turn if act.grip == "tilt_left_deg" else -turn
    # Past square is still square: a stop cannot lie on the other side.
    return put_at(document, act.grip, max(0.0, round(deg / DRAG_STEP_DEG) * DRAG_STEP_DEG))


def miter_saw_views(saw: MiterSaw) -> tuple[View, View]:
    """From above, with the swing stops, and from the front, with the tilt stops."""
    return _above(saw), _front(saw)


def _stop(name: str, shown: float, ends: tuple[Point2, Point2], at: Point2) -> Dimension:
    acts = TypeIn(op="type", path=name, text="")
    a, b = ((p[0] / RADIUS, p[1] / RADIUS) for p in ends)
    return Dimension(name, name, a, b, shown, "deg", "given", about=(0.0, 0.0), lane=1.0, at=at, acts=acts)


def _above(saw: MiterSaw) -> View:
    left, right = saw.swing_left_deg, saw.swing_right_deg
    down, at_left, at_right = round_from_down(0.0), round_from_down(-left), round_from_down(right)
    shapes = fence_and_ticks(left, right)
    shapes += [
        Shape("blade", ((0.0, 14.0), down)),
        Shape("stop", ((0.0, 0.0), at_left)),
        Shape("stop", ((0.0, 0.0), at_right)),
    ]
    dimensions = (
        _stop("swing_left_deg", saw.swing_shown(left), (at_left, down), round_from_down(-left, BESIDE)),
        _stop("swing_right_deg", saw.swing_shown(right), (down, at_right), round_from_down(right, BESIDE)),
    )
    return View("saw_above", tuple(shapes), (), dimensions, (Grip("swing_left_deg", at_left), Grip("swing_right_deg", at_right)))


def _front(saw: MiterSaw) -> View:
    left, right = saw.tilt_left_deg, saw.tilt_right_deg
    up, at_left, at_right = round_from_up(0.0), round_from_up(left), round_from_up(-right)
    table = Shape("table", ((-RADIUS, 0.0), (RADIUS, 0.0), (RADIUS, -10.0), (-RADIUS, -10.0)), True)
    shapes = (
        table,
        Shape("arc", arc_points(round_from_up, -right, left)),
        Shape("blade", ((0.0, -10.0), up)),
        Shape("stop", ((0.0, 0.0), at_left)),
        Shape("stop", ((0.0, 0.0), at_right)),
    )
    dimensions = (
        _stop("tilt_left_deg", saw.tilt_shown(left), (up, at_left), round_from_up(left, BESIDE)),
        _stop("tilt_right_deg", saw.tilt_shown(right), (at_right, up), round_from_up(-right, BESIDE)),
    )
    return View("saw_front", shapes, (), dimensions, (Grip("tilt_left_deg", at_left), Grip("tilt_right_deg", at_right)))


def miter_saw_controls(saw: MiterSaw) -> tuple[Control, ...]:
    """What else there is to say about a saw."""

    def counts(name: str, now: str) -> Control:
        options = tuple(
            Option(f"from_{what}", (Choose(op="choose", path=name, value=what),), now == what) for what in ("square", "fence")
        )
        return Control(name, "scales", options)

    def figure(name: str, value: float, unit: str) -> Control:
        acts = TypeIn(op="type", path=name, text="")
        return Control(name, "scales", value=value, unit="deg" if unit == "deg" else "mm", acts=acts)

    return (
        counts("swing_counts_from", saw.swing_counts_from),
        figure("swing_step_deg", saw.swing_step_deg, "deg"),
        counts("tilt_counts_from", saw.tilt_counts_from),
        figure("tilt_step_deg", saw.tilt_step_deg, "deg"),
        figure("kerf_mm", saw.kerf_mm, "mm"),
    )
