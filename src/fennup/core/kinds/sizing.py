"""Sizes that can be given in more than one way, in every kind: what was given settles the spec's own figures."""

from collections import OrderedDict
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import atan2, degrees
from typing import Any

from pydantic import BaseModel, ValidationError

from fennup.core.assembly.model import Assembly
from fennup.core.drawing.edit import Choose, Edit, Free, Give, Nudge, TypeIn
from fennup.core.editing import RISE_AND_RUN, as_figure, edit_field, get_at, nudged, put_at, read_figure
from fennup.core.errors import CoreError, CutError, SpecError, UnitError
from fennup.core.given.solver import Pin, Reading, Settled, independent, settle, weights
from fennup.core.kinds.fields import Given, Pinned
from fennup.core.parts.gauge import is_angle
from fennup.core.parts.measure import Ruler
from fennup.core.parts.measures import measure_of
from fennup.core.tolerances import NOTHING, ZERO
from fennup.core.units.lengths import Tape

Document = dict[str, Any]


def as_pins(given: Sequence[Given]) -> tuple[Pin, ...]:
    """What was given, as the solver takes it."""
    return tuple(Pin(g.measure, g.value, f"pins.{i}.{'deg' if is_angle(g.measure) else 'mm'}") for i, g in enumerate(given))


def all_given(spec: Pinned) -> tuple[Pin, ...]:
    """Every given size of a spec as a pin."""
    return as_pins(spec.given_pins())


def none_moving(spec: Pinned) -> int:
    """No unknown only moves the whole."""
    return 0


def no_bounds(spec: Pinned) -> None:
    """No bounds but those that the shell itself has."""


@dataclass(frozen=True)
class Levels:
    """What stands at a height in a kind, by dotted paths, `*` for every one of a list: `rows` of things with a `height_mm`
    each, single `heights`, and `counts` of what is evenly spaced; `upward` is the height that they go by."""

    upward: str
    rows: tuple[str, ...] = ()
    heights: tuple[str, ...] = ()
    counts: tuple[str, ...] = ()


@dataclass(frozen=True)
class Sizing:
    """How a kind's sizes settle.

    `unknowns` are the dotted paths of the figures that pins can move; `shell` builds as much of the assembly as its
    measures are taken on; `whole` all of it; `bounds` raises SpecError where the figures leave nothing to measure;
    `moving` is how many unknowns only move the whole about; `levels` what stands at a height; `firm` sizes that give way last
    while they are only suggested.
    """

    model: type[Pinned]
    unknowns: Callable[[Any], tuple[str, ...]]
    shell: Callable[[Any], Assembly]
    whole: Callable[[Any], Assembly]
    pins: Callable[[Any], tuple[Pin, ...]] = all_given
    bounds: Callable[[Any], None] = no_bounds
    moving: Callable[[Any], int] = none_moving
    levels: Levels | None = None
    firm: tuple[str, ...] = ()

    def settle(self, spec: Any) -> Any:
        """The spec with its sizes where its pins put them. SpecError `pins_disagree`, or what the solver and the shell say."""
        return self.settled(spec)[0]

    def settled(self, spec: Any) -> tuple[Any, Settled]:
        """The same with how the pins were met."""
        text = spec.model_dump_json()
        known = _KNOWN.get((self, text))
        if known is None:
            known = _settled(self, spec)
            # What came out is settled too: the next one who asks need not look for it again.
            for key in ((self, text), (self, known[0].model_dump_json())):
                _KNOWN[key] = known
            while len(_KNOWN) > MOST_KNOWN:
                _KNOWN.popitem(last=False)
        return known

    def free(self, spec: Any) -> int:
        """How many more independent sizes would fix everything."""
        return self.settled(spec)[1].free

    def free_sizes(self, spec: Any) -> tuple[str, ...]:
        """Which of its own sizes nothing settles: they stay as they are until somebody gives them."""
        if spec.pins is None or not self.free(spec):
            return ()
        given = self.pins(spec)
        names = {pin.measure for pin in given}
        usual = as_pins([pin for pin in spec.usual_pins() if pin.measure not in names])
        pins, start, read, _ = _search(self, spec, (*given, *usual))
        return tuple(pin.measure for pin in independent(start, pins, read) if pin in usual)

    def resettled(self, document: Document) -> Document:
        """With its sizes where the pins now put them, so that the next act starts from what is seen; as it is where a figure
        is out of its limits: whoever validates it next says which."""
        try:
            spec = self.model.model_validate(document)
        except ValidationError:
            return document
        return self.settle(spec).model_dump(mode="json")  # type: ignore[no-any-return]

    def edit(self, spec: Any, act: Edit, on: Tape) -> Document:
        """The settled spec after an act that every kind takes alike; a size typed into its own field is given by it."""
        document = spec.model_dump(mode="json")
        if isinstance(act, Give):
            made = self.field_given(spec, document, act, on)
            return self.resettled(self._give(spec, document, act, on) if made is None else made)
        if isinstance(act, Free):
            return _freed(spec, document, act.measure)
        if isinstance(act, TypeIn | Nudge | Choose):
            return edit_field(document, act, on)
        raise SpecError("no_such_grip", (act.grip,))

    def _give(self, spec: Any, document: Document, act: Give, on: Tape) -> Document:
        """A measure becomes a given one; where too much is said, a suggestion gives way. SpecError `pins_disagree` names the given
        ones that it cannot stand beside."""
        value = self.wanted(spec, act, on)
        pin = {"measure": act.measure, "deg" if is_angle(act.measure) else "mm": value}
        pins = pins_in(spec)
        others = [p for p in pins if p["measure"] != act.measure]
        was_given = len(others) < len(pins)
        document = put_at(document, "pins", [*others, pin])
        if not was_given or self.settled(spec)[1].spare:
            made = self._with_way_given(document, others, pin)
            if made is not None:
                return made
        if was_given:
            return document
        try:
            found = self.settled(self.model.model_validate(document))[1]
        except ValidationError:
            return document
        if any(p.measure == act.measure for p in found.spare):
            if act.text is not None:  # it is what was typed already
                return spec.model_dump(mode="json")  # type: ignore[no-any-return]
            beside = tuple((p["measure"], p.get("mm", p.get("deg")), f"pins.{i}") for i, p in enumerate(pins))
            raise SpecError("pins_enough", (act.measure,), measure=act.measure, value=value, gives=value, others=beside)
        return document

    def _with_way_given(self, document: Document, others: list[Document], pin: Document) -> Document | None:
        """With the new pin in place of the suggestion that has to change least for it, in mm and degrees, of those after which it can
        be built if there are any; None where it hangs on no suggestion, or none can give way."""
        suggested, first = [p["measure"] for p in others if p.get("suggested")], None
        try:
            trial = self.model.model_validate(document)
            pins, start, read, _ = _search(self, trial)
            hangs_on = weights(start, pins, read) if suggested else {}
        except (ValidationError, CoreError):
            return None  # whoever settles it next says what is wrong
        # Of several that have to change as much the last one does.
        able = [name for name in reversed(suggested) if name in hangs_on]
        for measure in sorted(able, key=lambda name: (name in self.firm, -round(hangs_on[name], AS_MUCH))):
            made = put_at(document, "pins", [*(p for p in others if p["measure"] != measure), pin])
            try:
                settled = self.settle(self.model.model_validate(made))
            except (ValidationError, SpecError):
                continue
            first = first or made
            try:
                self.whole(settled)
            except CoreError:
                continue
            return made
        return first

    def field_given(self, spec: Any, document: Document, act: Give, on: Tape) -> Document | None:
        """Where a measure sets one field of the spec: with that at what makes it measure so, by secants on the finished boards; None
        where it sets none. SpecError `measure_impossible`."""
        try:
            gauge = self.whole(spec).by_name.get(act.measure)
        except CutError:
            return None
        if gauge is None or not gauge.sets:
            return None
        value, path = self.wanted(spec, act, on), gauge.sets

        def off(at: float) -> float:
            trial = self.model.model_validate(put_at(document, path, at))
            found = Ruler(self.whole(trial)).measure(act.measure)
            if found is None:
                raise SpecError("cannot_measure", (act.measure,))
            return found - value

        here = float(get_at(document, path))
        try:
            before, there = off(here), here + NUDGE_MM
            for _ in range(SECANTS):
                now = off(there)
                if abs(now) < LEFT_OVER or now == before:
                    break
                here, there, before = there, there - now * (there - here) / (now - before), now
            if abs(off(there)) < NOTHING * max(1.0, abs(value)):
                return put_at(document, path, there)
        except ValidationError:
            pass  # out of the field's limits on the way there
        raise SpecError("measure_impossible", (act.measure,), measure=act.measure, value=value)

    def wanted(self, spec: Any, act: Give, on: Tape) -> float:
        """The figure that a measure is to have: typed, nudged, or as it is."""
        unit = "deg" if is_angle(act.measure) else "mm"
        now = Ruler(self.whole(spec)).measure(act.measure)
        if now is None:
            raise SpecError("cannot_measure", (act.measure,))
        if act.text is None:
            return float(nudged(unit, now, act.steps, on)) if act.steps else now
        asked = measure_of(act.measure)
        slope = asked.is_angle and asked.quantity != "angle"
        rise = RISE_AND_RUN.fullmatch(act.text.strip().lower())
        if rise and slope:
            up, out = (as_figure(part) for part in rise.groups())
            # A pitch of 7 in 12 is from level, a slope of 4:1 is four up and one out.
            return degrees(atan2(up, out)) if asked.from_level else degrees(atan2(out, up))
        try:
            return float(read_figure(unit, act.text, on, act.inches_meant))
        except UnitError as error:
            code = "no_slope" if slope and error.code == "no_angle" else error.code
            raise UnitError(code, (act.measure,), **error.data) from None


def pins_in(spec: Pinned) -> list[Document]:
    """What was given, as it is stored."""
    return [pin.model_dump(mode="json") for pin in spec.given_pins()]


def _freed(spec: Pinned, document: Document, measure: str) -> Document:
    """A pin taken out."""
    pins = pins_in(spec)
    kept = [p for p in pins if p["measure"] != measure]
    if len(kept) == len(pins):
        raise SpecError("nothing_pinned", (measure,))
    return put_at(document, "pins", kept)


def _with(here: Any, way: Sequence[str], value: float) -> Any:
    """A copy with a figure at a place; nothing is checked."""
    if not way:
        return value
    first, rest = way[0], way[1:]
    if isinstance(here, BaseModel):
        return here.model_copy(update={first: _with(getattr(here, first), rest, value)})
    if isinstance(here, dict):
        return {**here, first: _with(here[first], rest, value)}
    copy = list(here)
    copy[int(first)] = _with(copy[int(first)], rest, value)
    return type(here)(copy)


# By content: one change asks for it when it is made, when it is solved and when it is shown.
_KNOWN: OrderedDict[tuple["Sizing", str], tuple[Any, Settled]] = OrderedDict()
MOST_KNOWN = 512
LEFT_OVER = 1e-11
AS_MUCH = 6  # digits to which two suggestions have as much to do with a size
NUDGE_MM = 1e-3  # by which a field is first moved, to see what it does
SECANTS = 40


def solve_pins(sizing: Sizing, spec: Any) -> tuple[Settled, Callable[[Sequence[float]], Any]]:
    """How a spec's pins are met, and the spec with other values of its unknowns."""
    pins, start, read, moved = _search(sizing, spec)
    freedom = len(start) - sizing.moving(spec)
    if spec.pins is None and pins == all_given(spec):  # its own sizes, which are what they are if they can be measured
        read(start)
        return Settled(tuple(start), (), (), max(0, freedom - len(pins))), moved
    return settle(start, pins, read, freedom), moved


def _search(
    sizing: Sizing, spec: Any, pins: tuple[Pin, ...] | None = None
) -> tuple[tuple[Pin, ...], list[float], Reading, Callable[[Sequence[float]], Any]]:
    """Its pins, its unknowns as they are, what the pins measure at others, and the spec with others."""
    pins, paths = pins or sizing.pins(spec), sizing.unknowns(spec)
    document = spec.model_dump(mode="json")
    start = [float(get_at(document, path)) for path in paths]

    def moved(values: Sequence[float]) -> Any:
        other = spec
        for path, value in zip(paths, values, strict=True):
            other = _with(other, path.split("."), value)
        return other

    def read(values: Sequence[float]) -> list[float | None]:
        trial = moved(values)
        sizing.bounds(trial)
        try:
            ruler = Ruler(sizing.shell(trial))
            return [ruler.measure(pin.measure) for pin in pins]
        except (CutError, ZeroDivisionError):
            raise SpecError("no_shape", (pins[0].field if pins else "",)) from None

    return pins, start, read, moved


def _settled(sizing: Sizing, spec: Any) -> tuple[Any, Settled]:
    """Found anew. SpecError `pins_disagree`."""
    found, moved = solve_pins(sizing, spec)
    if found.misfits:
        worst = found.misfits[0]
        raise SpecError(
            "pins_disagree",
            (worst.pin.field,),
            measure=worst.pin.measure,
            value=worst.pin.value,
            gives=worst.gives,
            others=tuple((pin.measure, pin.value, pin.field) for pin in worst.others),
        )
    document = spec.model_dump(mode="json")
    start = [float(get_at(document, path)) for path in sizing.unknowns(spec)]
    if all(abs(a - b) < ZERO for a, b in zip(found.values, start, strict=True)):
        return spec, found
    # A wall that was given upright is upright, not leaning by what the last step left.
    values = [0.0 if abs(value) < LEFT_OVER else value for value in found.values]
    try:
        return sizing.model.model_validate(moved(values).model_dump(mode="json")), found
    except ValidationError:
        last = sizing.pins(spec)[-1]
        raise SpecError("measure_impossible", (last.field,), measure=last.measure, value=last.value) from None
