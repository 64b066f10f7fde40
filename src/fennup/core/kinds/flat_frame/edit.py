"""Acts on a flat frame: what each does to the spec, so that nothing moves which was not meant to."""

import re
from dataclasses import replace
from typing import Any, Literal

from pydantic import ValidationError

from fennup.core.drawing.edit import Choose, Drag, Edit, Free, Give, Nudge, TypeIn
from fennup.core.editing import edit_field, get_at, nudged, put_at, read_figure
from fennup.core.errors import SpecError, UnitError
from fennup.core.kinds.fields import LONGEST_MM
from fennup.core.kinds.flat_frame.dragging import dragged
from fennup.core.kinds.flat_frame.pins import pinned_outline
from fennup.core.kinds.flat_frame.place import assemble
from fennup.core.kinds.flat_frame.shapes import SPANS, HeldRound, Irregular, Rectangle, Regular
from fennup.core.kinds.flat_frame.sizes import SIZING
from fennup.core.kinds.flat_frame.spec import SIZE_FIELDS, FlatFrameSpec
from fennup.core.kinds.ploughing import Profile, chosen_profile
from fennup.core.kinds.stopping import ADD, with_usual
from fennup.core.parts.measure import Ruler
from fennup.core.parts.measures import measure_of
from fennup.core.stock.timber import NOMINALS
from fennup.core.units.lengths import Tape

Document = dict[str, Any]
USUAL_RABBET_MM = (6.0, 8.0)
USUAL_PLAY_MM = 2.0
LONGEST_NAME = 40  # of a nominal size
LAST_NUMBER = 99  # of a layer: none is given twice
RAILS = re.compile(r"rails\.([A-X]{1,2})\.width_mm")
DRAGGED = {"across": "width_mm", "along": "depth_mm"}


def edit(spec: FlatFrameSpec, act: Edit, on: Tape) -> Document:
    """The spec after one act, as a document still to be validated. SpecError or UnitError names the field."""
    document = spec.model_dump(mode="json")
    if isinstance(act, Give):
        changed = SIZING.field_given(spec, document, act, on) or _give(spec, document, act, on)
    elif isinstance(act, Free):
        changed = _free(spec, document, act.measure)
    elif isinstance(act, Drag):
        changed = dragged(spec, document, act, on)
    elif isinstance(act, Choose):
        changed = _choose(spec, document, act, on)
    else:
        changed = _field(spec, document, act, on)
    return _settled(_with_suggested(spec, _still_held(spec, changed), act))


def _with_suggested(spec: FlatFrameSpec, changed: Document, act: Edit) -> Document:
    """What is given by an act is a suggestion no longer; said another way, the same size is one still."""
    shape = changed.get("shape")
    size = shape.get("size") or {} if isinstance(shape, dict) else None
    if not isinstance(size, dict):
        return changed  # whoever validates it next says what is wrong
    there = [field for field in SIZE_FIELDS if field in size]
    if isinstance(act, Choose) and act.path == "shape.size.by" and spec.suggested:
        return changed | {"suggested": there}
    said: set[str] = set()
    if isinstance(act, TypeIn | Nudge):
        said = {act.path.removeprefix("shape.size.")}
    elif isinstance(act, Give):
        said = {f"{measure_of(act.measure).quantity}_mm", "mm"}
    elif isinstance(act, Drag):
        said = {DRAGGED.get(act.grip.partition(":")[0], "")} if "width_mm" in there else set(there)
    return changed | {"suggested": [field for field in spec.suggested if field in there and field not in said]}


def _settled(document: Document) -> Document:
    """An irregular outline with its corners where its pins put them, so that the next act starts from what is seen."""
    shape = document.get("shape")
    if not isinstance(shape, dict) or shape.get("form") != "irregular":
        return document
    try:
        spec = FlatFrameSpec.model_validate(document)
    except ValidationError:
        return document  # whoever validates it next says what is wrong with which field
    assert isinstance(spec.shape, Irregular)
    corners = [list(c) for c in pinned_outline(spec, spec.shape).corners]
    return put_at(document, "shape.corners", corners)


def _field(spec: FlatFrameSpec, document: Document, act: TypeIn | Nudge, on: Tape) -> Document:
    """Typing or nudging a field; `rails.AC.width_mm` means both rails, and a rail not yet special starts as the board."""
    if act.path in ("shape.sides", "sides"):
        return _sides(spec, document, act, on)
    if act.path.endswith("_each_mm"):
        total = act.path.replace("_each_mm", "_mm")
        now = get_at(document, total)
        if not isinstance(now, int | float):
            raise SpecError("no_such_field", (act.path,))
        each = (
            read_figure(act.path, act.text, on, act.inches_meant)
            if isinstance(act, TypeIn)
            else nudged(act.path, now / 2, act.steps, on)
        )
        return put_at(document, total, 2 * each)
    if act.path.startswith("rails."):
        named = RAILS.fullmatch(act.path)
        if named is None or set(named[1]) - set(spec.letters):
            raise SpecError("no_such_field", (act.path,))
        for letter in named[1]:
            document = put_at(document, f"rails.{letter}.width_mm", spec.width_of(letter))
            document = edit_field(document, act.model_copy(update={"path": f"rails.{letter}.width_mm"}), on)
        return document
    if act.path in ("board.width_mm", "board.thickness_mm"):
        document = put_at(document, "board.nominal", None)
    return edit_field(document, act, on)


def _sides(spec: FlatFrameSpec, document: Document, act: TypeIn | Nudge, on: Tape) -> Document:
    """Another number of sides. What was said of sides and corners that are no more is dropped."""
    count = int(read_figure(act.path, act.text, on, False)) if isinstance(act, TypeIn) else spec.sides + act.steps
    if not 3 <= count <= 24:
        raise SpecError("sides_range", (act.path,), count=count)
    if isinstance(spec.shape, Irregular):
        document = _irregular_sides(document, spec.shape, count)
    elif isinstance(spec.shape, Regular):
        size = document["shape"]["size"]
        by = measure_of(size["by"])
        if by.quantity == "reach" and count % 2 == 0:
            line = by.line
            document = put_at(
                document, "shape.size", {"by": f"{line}_flats", "mm": _measured(Ruler(assemble(spec)), f"{line}_flats")}
            )
        document = put_at(document, "shape.sides", count)
    else:
        raise SpecError("rectangle_sides", (act.path,))
    letters = [chr(ord("A") + i) for i in range(count)]
    document["rails"] = {k: v for k, v in document["rails"].items() if k in letters}
    document["left_out"] = [k for k in document["left_out"] if k in letters]
    document["stopped"] = [row for row in document["stopped"] if row["board"] in letters]
    around = {letters[i] + letters[(i + 1) % count] for i in range(count)}
    document["corners"] = {k: v for k, v in document["corners"].items() if k in around}
    for id, layer in document["layers"].items():
        fits: Document = {"left_out": [k for k in layer["left_out"] if k in letters]}
        fits |= {"corners": "round"} if count != len("ABCD") and layer["corners"].startswith("long") else {}
        document["layers"][id] = layer | fits
    return document


def _irregular_sides(document: Document, shape: Irregular, count: int) -> Document:
    """Corners added on the last side, pushed out a little, or taken away there; pins of the sides touched go."""
    corners = [tuple(c) for c in shape.corners]
    while len(corners) < count:
        (ax, ay), (bx, by) = corners[-1], corners[0]
        corners.append(((ax + bx) / 2 + (by - ay) / 8, (ay + by) / 2 - (bx - ax) / 8))
    del corners[count:]
    letters = [chr(ord("A") + i) for i in range(count)]
    whole = min(len(shape.corners), count) - 1
    kept_sides = set(letters[:whole])
    kept_corners = {letters[i] + letters[i + 1] for i in range(whole - 1)}
    pins = [
        p
        for p in document["shape"]["pins"]
        if p.get("side") in kept_sides or p.get("corner") in kept_corners or p.get("span") in SPANS
    ]
    return put_at(put_at(document, "shape.pins", pins), "shape.corners", [list(c) for c in corners])


def _measured(ruler: Ruler, name: str) -> float:
    value = ruler.measure(name)
    if value is None:
        raise SpecError("cannot_measure", (name,))
    return value


def _wanted(ruler: Ruler, act: Give, on: Tape) -> float:
    """The figure that a measure is to have: typed, nudged, or as it is."""
    unit = "deg" if measure_of(act.measure).is_angle else "mm"
    if act.text is not None:
        try:
            return float(read_figure(unit, act.text, on, act.inches_meant))
        except UnitError as error:
            raise UnitError(error.code, (act.measure,), **error.data) from None
    now = _measured(ruler, act.measure)
    return float(nudged(unit, now, act.steps, on)) if act.steps else now


def _give(spec: FlatFrameSpec, document: Document, act: Give, on: Tape) -> Document:
    """A measure becomes the given one, and what was given before follows."""
    ruler = Ruler(assemble(spec))
    value = _wanted(ruler, act, on)
    asked = measure_of(act.measure)
    line = asked.line
    if isinstance(spec.shape, Regular) and asked.quantity in SPANS:
        # Every size of a regular outline grows in proportion.
        by = value / _measured(ruler, act.measure)
        for path in spec.size_fields:
            document = put_at(document, path, get_at(document, path) * by)
        return document
    if isinstance(spec.shape, Regular):
        return put_at(document, "shape.size", {"by": act.measure, "mm": value})
    if isinstance(spec.shape, Rectangle):
        size = {
            "by": line,
            "width_mm": _measured(ruler, f"{line}_width"),
            "depth_mm": _measured(ruler, f"{line}_depth"),
        }
        return put_at(document, "shape.size", {**size, f"{asked.quantity}_mm": value})
    which = asked.side
    pins = document["shape"]["pins"]
    span = asked.quantity if asked.quantity in SPANS else which if asked.quantity == "diagonal" else ""
    pin = (
        {"corner": which, "deg": value}
        if asked.is_angle
        else {"span": span, "mm": value}
        if span
        else {"side": which, "mm": value}
    )
    if line != spec.shape.line:
        raise SpecError(f"corners_on_{spec.shape.line}", (act.measure,))
    place = _pin_place(pins, span or which)
    if place is None:
        return put_at(document, "shape.pins", [*pins, pin])
    return put_at(document, f"shape.pins.{place}", pin)


def _pin_place(pins: list[Document], which: str) -> int | None:
    return next((i for i, p in enumerate(pins) if which in (p.get("side"), p.get("corner"), p.get("span"))), None)


def _free(spec: FlatFrameSpec, document: Document, name: str) -> Document:
    """A pin taken out."""
    if not isinstance(spec.shape, Irregular):
        raise SpecError("nothing_pinned", (name,))
    asked = measure_of(name)
    place = _pin_place(document["shape"]["pins"], asked.side or asked.quantity)
    if place is None:
        raise SpecError("nothing_pinned", (name,))
    return put_at(document, "shape.pins", [p for i, p in enumerate(document["shape"]["pins"]) if i != place])


def _choose(spec: FlatFrameSpec, document: Document, act: Choose, on: Tape) -> Document:
    """A choice. Those that change how a size is given keep the frame as it is."""
    if act.path == "shape.size.by":
        return _sized_by(spec, document, str(act.value))
    if act.path == "shape.form" and act.value == "irregular":
        return _freed(spec, document, "opening")
    if act.path == "shape.line" and isinstance(spec.shape, Irregular):
        return _freed(spec, document, str(act.value))
    if act.path == "board.nominal" and act.value is not None:
        nominal = NOMINALS.get(str(act.value))
        if nominal is None and act.value == spec.board.nominal:
            return document
        if nominal is None:
            raise SpecError("no_such_nominal", (act.path,), text=str(act.value)[:40])
        board = {**document["board"], "nominal": nominal.name, "width_mm": nominal.width_mm, "thickness_mm": nominal.thickness_mm}
        return put_at(put_at(document, "board", board), "rails", {})
    if act.path == "rabbet":
        made = put_at(document, "rabbet", _rabbet(spec) if act.value == "usual" else act.value)
        return {"rabbet": None, **made}
    if act.path == "moulding":
        return _of_moulding(document, chosen_profile(act.value))
    if act.path == ADD:
        return with_usual(document, assemble(spec.model_copy(update={"stopped": []})).boards, act.value)
    if act.path == "layers.add":
        return _with_layer(spec, document, str(act.value))
    if act.path == "layers.away":
        number = max([spec.numbered, *map(int, spec.layers)])
        return {**document, "numbered": number, "layers": {id: row for id, row in document["layers"].items() if id != act.value}}
    return edit_field(document, act, on)


def _holding_nothing(spec: FlatFrameSpec) -> Document:
    """A shape with as many sides that holds nothing: with it a spec is one whatever could lie in it."""
    if isinstance(spec.shape, Rectangle):
        return {"form": "rectangle", "size": {"by": "outside", "width_mm": LONGEST_MM, "depth_mm": LONGEST_MM}}
    return {"form": "regular", "sides": spec.sides, "size": {"by": "outside_flats", "mm": LONGEST_MM}}


def _still_held(spec: FlatFrameSpec, changed: Document) -> Document:
    """A frame that something lies in, after an act: as large as it was by its opening where nothing can lie in it any more."""
    irregular = isinstance(spec.shape, Irregular)
    held = spec.shape.line == "held" if irregular else spec.shape.size.by == "holds"  # type: ignore[union-attr]
    if not held or changed.get("shape") != spec.shape.model_dump(mode="json"):
        return changed
    try:
        bare = FlatFrameSpec.model_validate({**changed, "shape": _holding_nothing(spec), "panel": None})
    except (ValidationError, SpecError):
        return changed  # whoever validates it next says what is wrong
    if bare.recess:
        return changed
    document = spec.model_dump(mode="json")
    opened = _freed(spec, document, "opening") if irregular else _sized_by(spec, document, "opening")
    return {**changed, "shape": opened["shape"], "panel": None}


def _with_layer(spec: FlatFrameSpec, document: Document, side: str) -> Document:
    """One more layer, usual strips: flush with the outside of the face, or on the back, set back from the opening."""
    if side not in ("face", "back"):
        raise SpecError("no_such_field", ("layers.add",))
    number = 1 + max([spec.numbered, *map(int, spec.layers)])
    if number > LAST_NUMBER:
        raise SpecError("too_many_strips", ("layers.add",))
    narrow, thick = spec.width_of(spec.narrowest), spec.board.thickness_mm
    lies = {"keeps_to": "outside"} if side == "face" else {"keeps_to": "opening", "set_back_mm": narrow / 4}
    layer = {"side": side, "width_mm": narrow / 3 if side == "face" else narrow / 2, "thickness_mm": thick / 2, **lies}
    return {**document, "numbered": number, "layers": {**document["layers"], str(number): layer}}


def _of_moulding(document: Document, profile: Profile) -> Document:
    """All rails of one moulding: what holds something is its rabbet at the opening."""
    step = profile.section.rabbet
    rest = [cut.model_dump(mode="json") for cut in profile.ploughed if cut is not step]
    board = {
        "width_mm": profile.width_mm, "thickness_mm": profile.thickness_mm, "nominal": profile.name[:LONGEST_NAME] or None,
        "ploughed": rest, "bought": True, "finished": profile.finish,
    }  # fmt: skip
    rabbet = {"width_mm": step.width_mm, "depth_mm": step.depth_mm} if step else None
    return {**document, "rails": {}, "board": board, "rabbet": rabbet}


def _rabbet(spec: FlatFrameSpec) -> Document:
    """A usual rabbet that this section has room for."""
    width, depth = USUAL_RABBET_MM
    return {"width_mm": min(width, spec.width_of(spec.narrowest) / 3), "depth_mm": min(depth, spec.board.thickness_mm / 2)}


def _sized_by(spec: FlatFrameSpec, document: Document, by: str) -> Document:
    """The same frame, its size said another way."""
    ruler = Ruler(assemble(spec))
    if isinstance(spec.shape, Irregular):
        raise SpecError("no_such_field", ("shape.size.by",))
    regular = isinstance(spec.shape, Regular)
    if by == "holds_round" or (by == "holds" and _holds_round(spec)):
        return _held(spec, document, "round" if by == "holds_round" else "sided")
    if by not in ("holds", "floats"):
        if regular:
            by = f"{by}_flats" if by in ("opening", "outside") else by
            return put_at(document, "shape.size", {"by": by, "mm": _measured(ruler, by)})
        sizes = {f"{k}_mm": _measured(ruler, f"{by}_{k}") for k in ("width", "depth")}
        return put_at(document, "shape.size", {"by": by, **sizes})
    shift = spec.shift_mm
    if by == "holds" and spec.recess is None:
        document = put_at(document, "rabbet", _rabbet(spec))
        shift = document["rabbet"]["width_mm"]
    space = {"play_mm": USUAL_PLAY_MM} if by == "holds" else {"reveal_mm": USUAL_PLAY_MM}
    grow = 2 * shift - USUAL_PLAY_MM if by == "holds" else -2 * USUAL_PLAY_MM
    if regular:
        return put_at(document, "shape.size", {"by": by, "object_mm": _measured(ruler, "opening_flats") + grow, **space})
    sizes = {f"object_{k}_mm": _measured(ruler, f"opening_{k}") + grow for k in ("width", "depth")}
    return put_at(document, "shape.size", {"by": by, **sizes, **space})


def _holds_round(spec: FlatFrameSpec) -> bool:
    return isinstance(spec.shape, Regular) and isinstance(spec.shape.size, HeldRound) and spec.shape.size.form == "round"


def _held(spec: FlatFrameSpec, document: Document, form: Literal["round", "sided"]) -> Document:
    """The same frame for something round, or with as many sides as it has; where there is no rabbet yet, one that covers it."""
    if not isinstance(spec.shape, Regular):
        raise SpecError("no_such_field", ("shape.size.by",))
    if isinstance(spec.shape.size, HeldRound):
        return put_at(document, "shape.size.form", form)
    made = _sized_by(spec, document, "holds")
    made = put_at(made, "shape.size.form", form)
    if spec.recess is not None:
        return made
    opening, play = _measured(Ruler(assemble(spec)), "opening_flats"), USUAL_PLAY_MM
    width, most = made["rabbet"]["width_mm"], spec.width_of(spec.narrowest) / 2
    # A wider rabbet holds something larger in the same opening, which needs a wider one again: a few steps settle it.
    size = HeldRound(by="holds", object_mm=opening + 2 * width - play, play_mm=play, form="round")
    while width < most and size.bare_corner_mm(spec.sides, width) > 0:
        width = min(width + 1.0, most)
        size = size.model_copy(update={"object_mm": opening + 2 * width - play})
    return put_at(put_at(made, "rabbet.width_mm", width), "shape.size.object_mm", size.object_mm)


def _freed(spec: FlatFrameSpec, document: Document, line: str) -> Document:
    """The same outline with every corner free, on the line asked for; pins keep to what they now measure there."""
    if line not in ("opening", "outside", "held"):
        raise SpecError("no_such_field", ("shape.line",))
    whole = spec.model_copy(update={"left_out": []})
    play = {}
    if line == "held":
        if spec.recess is None:
            document = put_at(document, "rabbet", _rabbet(spec))
            whole = FlatFrameSpec.model_validate({**document, "left_out": []})
        play = {"play_mm": USUAL_PLAY_MM}
    own = assemble(whole)
    if line == "held":  # as it will be measured
        along = next(outline for outline in own.outlines if outline.name == "rabbet")
        lines = (*(o for o in own.outlines if o.name != "held"), replace(along, name="held", out_mm=USUAL_PLAY_MM / 2))
        own = replace(own, outlines=lines)
    ruler = Ruler(own)
    runs = ruler.runs(line) or {}
    corners = [list(run[0][:2]) for run in runs.values()]
    pins = []
    if isinstance(spec.shape, Irregular):
        for pin in document["shape"]["pins"]:
            if "span" in pin:
                measure = f"{line}_{pin['span']}" if pin["span"] in SPANS else f"{line}_diagonal:{pin['span']}"
                pin = {"span": pin["span"], "mm": _measured(ruler, measure)}
            elif "side" in pin:
                pin = {"side": pin["side"], "mm": _measured(ruler, f"{line}_side:{pin['side']}")}
            pins.append(pin)
    return put_at(document, "shape", {"form": "irregular", "line": line, "corners": corners, "pins": pins, **play})
