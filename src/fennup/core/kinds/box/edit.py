"""Acts on a box: what each does to the spec, so that nothing moves which was not meant to."""

from typing import Any

from fennup.core.drawing.edit import Choose, Drag, Edit, Free, Give, Nudge, TypeIn
from fennup.core.editing import edit_field, put_at, read_figure
from fennup.core.errors import SpecError
from fennup.core.kinds.box.courses import counted
from fennup.core.kinds.box.dimensions import after_drag
from fennup.core.kinds.box.place import assemble
from fennup.core.kinds.box.sizes import SIZING
from fennup.core.kinds.box.spec import MOST_SIDES, BoxSpec, Irregular, Rectangle, Regular
from fennup.core.kinds.box.walls import walls_of
from fennup.core.kinds.sizing import pins_in
from fennup.core.kinds.stopping import ADD, with_usual
from fennup.core.parts.measure import Ruler
from fennup.core.parts.measures import measure_of
from fennup.core.units.lengths import Tape

Document = dict[str, Any]
COURSES = {
    "courses.count": "courses.board_width_mm",
    "courses.board_width_mm": "courses.count",
}  # which follows when one is given


def edit(spec: BoxSpec, act: Edit, on: Tape) -> Document:
    """The spec after one act, as a document still to be validated. SpecError or UnitError names the field."""
    spec = SIZING.settle(spec)
    if spec.courses and spec.courses.count and spec.courses.board_width_mm:
        # Both said the same: from here on how many there are follows.
        spec = spec.model_copy(update={"courses": spec.courses.model_copy(update={"count": None})})
    document = spec.model_dump(mode="json")
    if isinstance(act, TypeIn | Nudge) and act.path in COURSES:
        return _courses(spec, document, act, on)
    if isinstance(act, Give | Free):
        return SIZING.edit(spec, act, on)
    if isinstance(act, Drag):
        return SIZING.resettled(_drag(spec, document, act, on))
    if isinstance(act, Choose):
        return _choose(spec, document, act, on)
    if act.path == "plan.sides":
        return _sides(spec, document, act, on)
    if act.path.startswith("thicknesses_mm."):
        for letter in act.path.partition(".")[2]:
            own = put_at(document, f"thicknesses_mm.{letter}", spec.thickness_of(letter))
            document = edit_field(own, act.model_copy(update={"path": f"thicknesses_mm.{letter}"}), on)
        return document
    return edit_field(document, act, on)


def _courses(spec: BoxSpec, document: Document, act: TypeIn | Nudge, on: Tape) -> Document:
    """The boards' width, or how many there are: the other follows."""
    if spec.courses is None:
        raise SpecError("no_such_field", (act.path,))
    count, width = counted(spec, spec.courses, walls_of(spec))
    document = put_at(document, "courses", {"count": count, "board_width_mm": width})
    return put_at(edit_field(document, act, on), COURSES[act.path], None)


def _drag(spec: BoxSpec, document: Document, act: Drag, on: Tape) -> Document:
    """A grip let go: the figure behind it takes the nearest graduation."""
    what, _, which = act.grip.partition(":")
    step = on.graduation_mm
    if what == "corner" and isinstance(spec.plan, Irregular) and which.isdecimal() and int(which) < spec.sides:
        corner = [round(act.x_mm / step) * step, round(act.y_mm / step) * step]
        pins = [p for p in pins_in(spec) if not p["measure"].startswith(("outer_bottom_side", "outer_bottom_angle"))]
        return put_at(put_at(document, f"plan.corners.{which}", corner), "pins", pins)
    value = after_drag(which, act.x_mm, act.y_mm) if what == "pin" else None
    if value is None:
        raise SpecError("no_such_grip", (act.grip,))
    marked = round(value / step) * step
    if marked <= 0:
        raise SpecError("dragged_to_nothing", (act.grip,))
    pins = [{**p, "mm": marked, "suggested": False} if p["measure"] == which else p for p in pins_in(spec)]
    return put_at(document, "pins", pins)


def _choose(spec: BoxSpec, document: Document, act: Choose, on: Tape) -> Document:
    """A choice. Those that change how a size is given keep the box as it is."""
    if act.path == ADD:
        return with_usual(document, assemble(spec.model_copy(update={"stopped": []})).boards, act.value)
    if act.path == "slopes_deg":
        return _grouped(spec, document, str(act.value))
    if act.path == "plan.form" and act.value == "irregular":
        return _freed(spec, document)
    if act.path == "shelves" and act.value == "one_more":
        return put_at(document, "shelves", [*document["shelves"], _next_shelf(spec)])
    if act.path == "liner" and act.value == "usual":
        return _lined(spec, document)
    if act.path == "liner" and act.value is None:
        # The box stays as it is: what the liner gave is given as it stands.
        return put_at(put_at(document, "liner", None), "pins", None)
    return edit_field(document, act, on)


def _grouped(spec: BoxSpec, document: Document, how: str) -> Document:
    """Slopes alike, alike on opposite sides, or each its own: every wall keeps its slope as far as that allows."""
    letters = spec.letters
    groups = {"alike": [], "pairs": ["AC", "BD"], "each": list(letters)}.get(how)
    if groups is None or (how == "pairs" and len(letters) != 4):
        raise SpecError("no_such_field", ("slopes_deg",))
    pins = [p for p in pins_in(spec) if measure_of(p["measure"]).what not in ("slope", "level_slope", "run", "slant")]
    slopes = [(f"slope:{group}", spec.slope_of(group[0])) for group in groups] or [("slope", spec.slope_of("A"))]
    typed = {measure_of(p["measure"]).what for p in pins_in(spec) if not p["suggested"]}
    document = put_at(document, "slopes_deg", {group: spec.slope_of(group[0]) for group in groups})
    document = put_at(document, "slope_deg", spec.slope_of("A"))
    had_height = any(p["measure"] == "height" for p in pins)
    height = [] if had_height else [{"measure": "height", "mm": spec.height_mm, "suggested": True}]
    kept = [{"measure": name, "deg": deg, "suggested": not typed & {"slope", "level_slope"}} for name, deg in slopes]
    return put_at(document, "pins", [*pins, *height, *kept])


def _freed(spec: BoxSpec, document: Document) -> Document:
    """The same plan with every corner free."""
    runs = Ruler(assemble(spec)).runs("outer_bottom") or {}
    corners = [[run[0][0], run[0][1]] for run in runs.values()]
    kept = [p for p in pins_in(spec) if measure_of(p["measure"]).what in ("slope", "level_slope", "height")]
    document = put_at(document, "plan", {"form": "irregular", "corners": corners})
    if not any(p["measure"] == "height" for p in kept):
        kept.append({"measure": "height", "mm": spec.height_mm, "suggested": True})
    return put_at(document, "pins", kept)


def _sides(spec: BoxSpec, document: Document, act: TypeIn | Nudge, on: Tape) -> Document:
    """Another number of sides. What was said of sides and corners that are no more is dropped."""
    count = int(read_figure(act.path, act.text, on, False)) if isinstance(act, TypeIn) else spec.sides + act.steps
    if not 3 <= count <= MOST_SIDES:
        raise SpecError("box_sides", (act.path,), count=count, most=MOST_SIDES)
    if not isinstance(spec.plan, Regular):
        raise SpecError("rectangle_sides" if isinstance(spec.plan, Rectangle) else "drag_corners", (act.path,))
    letters = [chr(ord("A") + i) for i in range(count)]
    around = {letters[i] + letters[(i + 1) % count] for i in range(count)}
    document["corners"] = {k: v for k, v in document["corners"].items() if k in around}
    document["thicknesses_mm"] = {k: v for k, v in document["thicknesses_mm"].items() if k in letters}
    document["stopped"] = [row for row in document["stopped"] if row["board"][0] in letters]
    pins = [p for p in pins_in(spec) if not (measure_of(p["measure"]).quantity == "reach" and count % 2 == 0)]
    if len(pins) < len(pins_in(spec)):
        ruler = Ruler(assemble(spec))
        pins.insert(0, {"measure": "outer_bottom_flats", "mm": ruler.measure("outer_bottom_flats")})
    return SIZING.resettled(put_at(put_at(document, "plan.sides", count), "pins", pins))


def _next_shelf(spec: BoxSpec) -> Document:
    """A shelf half way between the highest one and the top."""
    runs = Ruler(assemble(spec)).runs("inner_bottom") or {}
    ys = [p[1] for run in runs.values() for p in run]
    room = max(ys) - min(ys)
    last = spec.shelves[-1] if spec.shelves else None
    low = last.height_mm + last.thickness_mm if last else 0.0
    thickness = last.thickness_mm if last else spec.thickness_mm
    return {"height_mm": max(0.0, (low + room - thickness) / 2), "thickness_mm": thickness}


def _lined(spec: BoxSpec, document: Document) -> Document:
    """A liner that fits what is there: its rim and foot as the box has room, as deep as it is high inside."""
    ruler = Ruler(assemble(spec))
    bottom = spec.floor.height_mm + spec.floor.thickness_mm if spec.floor else 0.0
    play, deep = 4.0, spec.height_mm - bottom

    def clear(line: str, kind: str) -> float:
        return ruler.measure(f"{line}_{kind}") or 0.0

    def foot(kind: str) -> float:
        top, low = clear("inner_top", kind), clear("inner_bottom", kind)
        return top - (top - low) * deep / spec.height_mm - play

    lip = {"lip_mm": spec.thickness_mm, "play_mm": play, "height_mm": deep}
    if isinstance(spec.plan, Rectangle):
        sizes = {"rim_mm": clear("inner_top", "width") - play, "foot_mm": foot("width"),
                 "rim_depth_mm": clear("inner_top", "depth") - play, "foot_depth_mm": foot("depth")}  # fmt: skip
        document = put_at(document, "slopes_deg", {"AC": spec.slope_of("A"), "BD": spec.slope_of("B")})
    elif isinstance(spec.plan, Regular):
        sizes = {"rim_mm": clear("inner_top", "flats") - play, "foot_mm": foot("flats")}
    else:
        raise SpecError("liner_needs_plan", ("liner",))
    if min(sizes.values()) <= 0:
        raise SpecError("liner_no_room", ("liner",))
    return put_at(
        put_at(document, "liner", {**sizes, **lip}), "pins", [{"measure": "height", "mm": spec.height_mm, "suggested": True}]
    )
