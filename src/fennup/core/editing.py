"""Acts on a spec that mean the same for every kind: typing, choosing and nudging a field by its path."""

import re
from collections.abc import Callable, Sequence
from copy import deepcopy
from math import atan2, degrees, isfinite
from typing import Any

from fennup.core.drawing.edit import Choose, Nudge, TypeIn
from fennup.core.errors import CoreError, SpecError, UnitError
from fennup.core.units.angles import parse_angle_deg
from fennup.core.units.lengths import Tape, nudge_length, parse_length

ANGLE_STEP_DEG = 0.5
WHOLE = re.compile(r"-?[0-9]{1,12}")
RISE_AND_RUN = re.compile(r"(\d+(?:[.,]\d+)?)\s*(?::|in)\s*(\d+(?:[.,]\d+)?)")
# The last part of a name of a field whose figure is no length, angle or count.
PLAIN = (
    "h",
    "kg",
    "m3",
    "m2",
    "l",
    "percent",
    "c",
    "part",
    "shanks",
    "min",
    "n",
    "degree",
    "years",
    "grain",
    "nail",
    "behind",
    "edge",
    "money",
)
TILTS = ("ground_deg", "wall_deg")


def as_figure(text: str) -> float:
    """A plain figure with a point or a comma."""
    return float(text.replace(",", "."))


def plain_figure(text: str) -> float:
    """A number with a point or a comma. UnitError `no_number`."""
    try:
        value = as_figure(text.strip())
    except ValueError:
        raise UnitError("no_number", text=text[:40]) from None
    if not isfinite(value):
        raise UnitError("no_number", text=text[:40])
    return value


def read_figure(path: str, text: str, on: Tape, inches_meant: bool) -> float | int:
    """A typed text as the field's own kind of figure, told by its name: `_mm`, `mm`, `_deg`, `deg`, or a count."""
    try:
        name = path.rsplit(".", 1)[-1]
        if name in TILTS and (rise := RISE_AND_RUN.fullmatch(text.strip().lower())):
            # Nearly level or nearly plumb, 40:1 and 1:40 both mean one in forty.
            return degrees(atan2(*sorted(as_figure(part) for part in rise.groups())))
        if name.endswith("deg"):
            return parse_angle_deg(text)
        if name.endswith("mm"):
            return parse_length(text, on.unit, inches_meant=inches_meant).mm
        if name.rsplit("_", 1)[-1] in PLAIN and "_" in name:
            return plain_figure(text)
        if not WHOLE.fullmatch(text.strip()):
            raise UnitError("no_count", text=text[:40])
        return int(text)
    except UnitError as error:
        raise UnitError(error.code, (path,), **error.data) from None


def nudged(path: str, value: float, steps: int, on: Tape) -> float | int:
    """The field's figure so many steps on: tape graduations, half degrees, or ones."""
    name = path.rsplit(".", 1)[-1]
    if name.endswith("deg"):
        return value + steps * ANGLE_STEP_DEG
    return nudge_length(value, steps, on) if name.endswith("mm") else int(value) + steps


def edit_field(spec: dict[str, Any], act: TypeIn | Choose | Nudge, on: Tape) -> dict[str, Any]:
    """The spec with one field changed; SpecError `no_such_field` when the path leads nowhere."""
    now = get_at(spec, act.path) if isinstance(act, Nudge) else None
    return put_at(spec, act.path, _value(now, act, on))


def _value(now: Any, act: TypeIn | Choose | Nudge, on: Tape) -> Any:
    """What an act makes of a field that now has a value."""
    if isinstance(act, TypeIn):
        return read_figure(act.path, act.text, on, act.inches_meant)
    if isinstance(act, Choose):
        return act.value
    if isinstance(now, bool) or not isinstance(now, int | float):
        raise SpecError("no_figure", (act.path,))
    return nudged(act.path, float(now), act.steps, on)


def edit_within(
    document: dict[str, Any],
    parts: Sequence[str],
    act: TypeIn | Choose | Nudge,
    on: Tape,
    marked: Callable[[dict[str, Any], str], dict[str, Any]] = lambda row, _: row,
) -> dict[str, Any]:
    """A document with one field changed that is reached by names which may have points in them; `marked` has a last look at the mapping that holds the
    field. SpecError `no_such_field`, UnitError."""
    first, *rest = parts
    if not rest:
        try:
            value = _value(document.get(first), act.model_copy(update={"path": first}), on)
        except CoreError as error:
            raise type(error)(error.code, (act.path,), **error.data) from None
        kept = {name: held for name, held in document.items() if name != first or value is not None}
        return marked(kept if value is None else {**kept, first: value}, first)
    inner = document.get(first)
    if not isinstance(inner, dict):
        raise SpecError("no_such_field", (act.path,))
    return {**document, first: edit_within(inner, rest, act, on, marked)}


def get_at(spec: Any, path: str) -> Any:
    """The value at a dotted path; list places are numbers. SpecError `no_such_field`."""
    here = spec
    for key in path.split("."):
        try:
            here = here[int(key)] if isinstance(here, list) else here[key]
        except (KeyError, IndexError, ValueError, TypeError):
            raise SpecError("no_such_field", (path,)) from None
    return here


def put_at(spec: dict[str, Any], path: str, value: Any) -> dict[str, Any]:
    """A copy with the value at the path; None takes an entry of a mapping away, and missing mappings are made."""
    copy = deepcopy(spec)
    *way, last = path.split(".")
    here: Any = copy
    for key in way:
        try:
            if isinstance(here, list):
                here = here[int(key)]
            else:
                if here.get(key) is None:
                    here[key] = {}
                here = here[key]
        except (IndexError, ValueError, AttributeError, TypeError):
            raise SpecError("no_such_field", (path,)) from None
    try:
        if isinstance(here, list):
            here[int(last)] = value
        elif value is None:
            here.pop(last, None)
        else:
            here[last] = value
    except (IndexError, ValueError, TypeError, AttributeError):
        raise SpecError("no_such_field", (path,)) from None
    return copy
