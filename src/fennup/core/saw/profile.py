"""A tool as a drawing that can be edited: its arcs to their stops, the greatest board that it takes, and what its scales count from."""

from math import atan2, degrees
from typing import Any

from fennup.core.drawing.edit import Choose, Drag, Edit, Nudge, TypeIn
from fennup.core.drawing.saw_views import RADIUS, arc_points, fence_and_ticks, round_from_down, round_from_up
from fennup.core.drawing.view import Control, Dimension, Grip, Mark, Option, Shape, Standing, View
from fennup.core.editing import edit_field, put_at, read_figure
from fennup.core.errors import SpecError
from fennup.core.geometry.vec import Point2
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.saw.tool import NOTHING, ScaleTool
from fennup.core.saw.tools import AnyTool, CircularSaw, Slot, SlotTool
from fennup.core.units.lengths import Tape

STOPS = ("swing_left_deg", "swing_right_deg", "tilt_left_deg", "tilt_right_deg")
DRAG_STEP_DEG = 0.5
DRAG_STEP_MM = 5.0
BESIDE = RADIUS + 50.0  # clear of the ring
CLICKS = (15.0, 22.5, 30.0, 45.0, 60.0)
USUAL_BOARD = (200.0, 40.0)  # drawn where a tool has no limit of its own
# What is drawn where a size has not been said.
USUAL = {"wide_mm": 305.0, "wide_swung_mm": 215.0, "high_mm": 90.0, "high_tilted_mm": 45.0, "fence_mm": 80.0}


def edit_tool(tool: AnyTool, act: Edit, on: Tape) -> dict[str, Any]:
    """The tool after one act, as a document still to be validated. Stops are typed as the tool's scale reads them; `detents/22.5` and
    `slots/22.5` true or false put one in on both sides, or take it out."""
    document = tool.model_dump(mode="json")
    if isinstance(act, Drag):
        return _dragged(tool, document, act)
    if isinstance(act, TypeIn | Nudge) and act.path in STOPS and isinstance(tool, ScaleTool):
        movement: Any = act.path.split("_")[0]
        if isinstance(act, TypeIn):
            reading = float(read_figure(act.path, act.text, on, False))
        else:
            reading = tool.shown(movement, document[act.path]) + act.steps * DRAG_STEP_DEG
        return put_at(document, act.path, reading if tool.counts_from(movement) == "square" else 90.0 - reading)
    if isinstance(act, Choose) and "/" in act.path:
        return _clicked(tool, document, act)
    if isinstance(act, TypeIn) and act.path == "own_slot_deg" and isinstance(tool, SlotTool):
        own = float(read_figure(act.path, act.text, on, False))
        kept = [slot.model_dump() for slot in tool.slots if not _is_own(slot)]
        made = [{"swing_deg": deg, "tilt_deg": 0.0} for deg in (own, -own) if abs(own) > NOTHING]
        return put_at(document, "slots", [*kept, *made])
    if isinstance(act, TypeIn | Choose | Nudge):
        if act.path == "name" and isinstance(act, TypeIn):
            return put_at(document, "name", act.text.strip())
        if isinstance(act, Nudge) and document.get(act.path) is None and act.path in USUAL:
            document = put_at(document, act.path, USUAL[act.path])
        return edit_field(document, act, on)
    raise SpecError("no_such_field", (act.measure,))


def _is_own(slot: Slot) -> bool:
    return abs(slot.swing_deg) > 0 and abs(slot.swing_deg) not in CLICKS


def _clicked(tool: AnyTool, document: dict[str, Any], act: Choose) -> dict[str, Any]:
    """A detent or a slot put in on both sides, as far as the stops let it, or taken out. SpecError `outside_stops`."""
    place, _, text = act.path.partition("/")
    try:
        deg = float(text.removeprefix("tilt"))
    except ValueError:
        raise SpecError("no_such_field", (act.path,)) from None
    if place == "detents" and isinstance(tool, MiterSaw):
        rest = [d for d in tool.detents_deg if abs(d) != deg]
        inside = [d for d in (-deg, deg) if -tool.swing_left_deg <= d <= tool.swing_right_deg]
        if act.value and not inside:
            raise SpecError("outside_stops", ("detents_deg",), angle=deg, low=-tool.swing_left_deg, high=tool.swing_right_deg)
        return put_at(document, "detents_deg", sorted([*rest, *inside, 0.0] if act.value else rest))
    if place == "slots" and isinstance(tool, SlotTool):
        tilted = text.startswith("tilt")
        slots = [s for s in tool.slots if abs(s.tilt_deg if tilted else s.swing_deg) != deg]
        more = [Slot(tilt_deg=d) if tilted else Slot(swing_deg=d) for d in (deg, -deg)] if act.value else []
        return put_at(document, "slots", [slot.model_dump() for slot in [*slots, *more]])
    raise SpecError("no_such_field", (act.path,))


def _dragged(tool: AnyTool, document: dict[str, Any], act: Drag) -> dict[str, Any]:
    """A stop let go: the nearest half degree. The corner of the greatest board: the nearest 5 mm."""
    if act.grip in STOPS and isinstance(tool, ScaleTool):
        if act.grip.startswith("swing"):
            turn = degrees(atan2(act.x_mm, -act.y_mm))
            deg = turn if act.grip == "swing_right_deg" else -turn
        else:
            turn = degrees(atan2(-act.x_mm, act.y_mm))
            deg = turn if act.grip == "tilt_left_deg" else -turn
        # Past square is still square: a stop cannot lie on the other side.
        return put_at(document, act.grip, max(0.0, round(deg / DRAG_STEP_DEG) * DRAG_STEP_DEG))
    room = next((room for room in _rooms(tool) if act.grip == f"room:{room[0]}"), None)
    if room is None:
        raise SpecError("no_such_grip", (act.grip,))
    for path, mm in ((room[1], -act.x_mm), (room[2], act.y_mm)):
        if path:
            document = put_at(document, path, max(DRAG_STEP_MM, round(mm / DRAG_STEP_MM) * DRAG_STEP_MM))
    return document


def _size(tool: AnyTool, path: str) -> float:
    value = getattr(tool, path, None)
    return float(value) if value is not None else USUAL[path]


def _rooms(tool: AnyTool) -> list[tuple[str, str, str]]:
    """The greatest boards that it takes: what is done then, and the names of its width and height."""
    fields = type(tool).model_fields
    if isinstance(tool, MiterSaw):
        return [("square", "wide_mm", "high_mm"), ("swung", "wide_swung_mm", ""), ("tilted", "", "high_tilted_mm")]
    if isinstance(tool, CircularSaw):
        return [("square", "", "deep_mm"), ("tilted", "", "deep_tilted_mm")]
    wide = next((name for name in ("wide_mm", "throat_mm") if name in fields), "")
    high = "high_mm" if "high_mm" in fields else ""
    rooms = [("square", wide, high)] if wide or high else []
    return [*rooms, ("tilted", "", "high_tilted_mm")] if "high_tilted_mm" in fields else rooms


def tool_profile_views(tool: AnyTool) -> tuple[View, ...]:
    """From above, with the swing stops, from the front, with the tilt stops, and the greatest board that it takes."""
    views: list[View] = []
    if isinstance(tool, ScaleTool):
        views += [_above(tool), _front(tool)]
    elif isinstance(tool, SlotTool):
        views.append(_slots(tool))
    return (*views, *(_room(tool, *room) for room in _rooms(tool)))


def _stop(name: str, shown: float, ends: tuple[Point2, Point2], at: Point2) -> Dimension:
    acts = TypeIn(op="type", path=name, text="")
    a, b = ((p[0] / RADIUS, p[1] / RADIUS) for p in ends)
    return Dimension(name, name, a, b, shown, "deg", "given", about=(0.0, 0.0), lane=1.0, at=at, acts=acts)


def _above(saw: ScaleTool) -> View:
    left, right = saw.swing_left_deg, saw.swing_right_deg
    down, at_left, at_right = round_from_down(0.0), round_from_down(-left), round_from_down(right)
    shapes = fence_and_ticks(left, right)
    for click in getattr(saw, "detents_deg", ()):
        shapes.append(Shape("stop", (round_from_down(click, RADIUS - 4), round_from_down(click, RADIUS + 6))))
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


def _front(saw: ScaleTool) -> View:
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


def _slots(tool: SlotTool) -> View:
    """The slots from above; those that lean are drawn beside."""
    shapes = fence_and_ticks(0.0, 0.0)[:2]
    for slot in tool.slots:
        way = round_from_down(slot.swing_deg)
        shapes.append(Shape("blade" if slot.tilt_deg == 0 else "stop", ((way[0] * -0.14, 14.0), way)))
    marks = tuple(
        Mark("name", round_from_down(slot.swing_deg, RADIUS + 14.0), f"{abs(slot.swing_deg):g}")
        for slot in tool.slots
        if slot.tilt_deg == 0
    )
    return View("saw_above", tuple(shapes), marks)


def _room(tool: AnyTool, what: str, wide_path: str, high_path: str) -> View:
    """The greatest board on the table, seen from the right, the fence behind it."""
    first = _rooms(tool)[0]
    wide = _size(tool, wide_path or first[1]) if wide_path or first[1] else USUAL_BOARD[0]
    high = _size(tool, high_path or first[2]) if high_path or first[2] else USUAL_BOARD[1]
    thick = wide * 0.04
    shapes = [
        Shape("table", ((-wide * 1.1, -thick), (wide * 0.1, -thick), (wide * 0.1, 0.0), (-wide * 1.1, 0.0)), True),
        Shape("wood", ((-wide, 0.0), (0.0, 0.0), (0.0, high), (-wide, high)), True, None, (1.0, 0.0)),
    ]
    dimensions: list[Dimension] = []
    if isinstance(tool, MiterSaw):
        fence = _size(tool, "fence_mm")
        shapes.append(Shape("fence", ((0.0, 0.0), (thick, 0.0), (thick, fence), (0.0, fence)), True))
        if what == "square":
            dimensions.append(_length(tool, "fence_mm", (thick, 0.0), (thick, fence), (1.0, 0.0)))
    if wide_path:
        dimensions.append(_length(tool, wide_path, (-wide, high), (0.0, high), (0.0, 1.0)))
    if high_path:
        dimensions.append(_length(tool, high_path, (-wide, 0.0), (-wide, high), (-1.0, 0.0)))
    along = None if wide_path and high_path else (1.0, 0.0) if wide_path else (0.0, 1.0)
    return View(f"saw_room_{what}", tuple(shapes), (), tuple(dimensions), (Grip(f"room:{what}", (-wide, high), along),))


def _length(tool: AnyTool, path: str, a: Point2, b: Point2, away: Point2) -> Dimension:
    standing: Standing = "given" if getattr(tool, path) is not None else "suggested"
    acts = TypeIn(op="type", path=path, text="")
    return Dimension(path, path, a, b, _size(tool, path), "mm", standing, away, 1.0, acts=acts)


def tool_profile_controls(tool: AnyTool) -> tuple[Control, ...]:
    """What else there is to say about a tool."""

    def counts(name: str, now: str) -> Control:
        options = tuple(
            Option(f"from_{what}", (Choose(op="choose", path=name, value=what),), now == what) for what in ("square", "fence")
        )
        return Control(name, "scales", options)

    def figure(name: str, value: float, unit: str, group: str = "scales") -> Control:
        acts = TypeIn(op="type", path=name, text="")
        return Control(name, group, value=value, unit="deg" if unit == "deg" else "mm", acts=acts)

    def clicks(name: str, there: set[float], more: tuple[tuple[str, bool], ...] = ()) -> Control:
        known = [(f"{deg:g}", deg in there) for deg in CLICKS] + list(more)
        options = tuple(
            Option(f"click_{code}", (Choose(op="choose", path=f"{name}/{code}", value=not on),), on) for code, on in known
        )
        return Control(name, "scales", options, style="toggles")

    made: list[Control] = []
    if isinstance(tool, ScaleTool):
        made += [
            counts("swing_counts_from", tool.swing_counts_from),
            figure("swing_step_deg", tool.swing_step_deg, "deg"),
            counts("tilt_counts_from", tool.tilt_counts_from),
            figure("tilt_step_deg", tool.tilt_step_deg, "deg"),
        ]
    made.append(figure("kerf_mm", tool.kerf_mm, "mm"))
    if isinstance(tool, MiterSaw):
        made.append(clicks("detents", {abs(d) for d in tool.detents_deg}))
    if isinstance(tool, SlotTool):
        tilted = any(slot.tilt_deg for slot in tool.slots)
        made.append(clicks("slots", {abs(s.swing_deg) for s in tool.slots}, (("tilt45", tilted),)))
        made.append(figure("own_slot_deg", max((abs(s.swing_deg) for s in tool.slots if _is_own(s)), default=0.0), "deg"))
    for name in ("rip_mm", "steepest_deg", "shaves_mm"):
        if (value := getattr(tool, name, None)) is not None:
            made.append(figure(name, value, name.rsplit("_", 1)[1]))
    return tuple(made)
