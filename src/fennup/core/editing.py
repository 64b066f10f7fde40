"""Acts on a spec that mean the same for every kind: typing, choosing and nudging a field by its path."""

import re
from copy import deepcopy
from math import atan2, degrees
from typing import Any

from fennup.core.drawing.edit import Choose, Nudge, TypeIn
from fennup.core.errors import SpecError, UnitError
from fennup.core.units.angles import parse_angle_deg
from fennup.core.units.lengths import Tape, nudge_length, parse_length

ANGLE_STEP_DEG = 0.5
WHOLE = re.compile(r"-?[0-9]{1,12}")
RISE_AND_RUN = re.compile(r"(\d+(?:[.,]\d+)?)\s*(?::|in)\s*(\d+(?:[.,]\d+)?)")
TILTS = ("ground_deg", "wall_deg")


def as_figure(text: str) -> float:
    """A plain figure with a point or a comma."""
    return float(text.replace(",", "."))


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
    if isinstance(act, TypeIn):
        value: Any = read_figure(act.path, act.text, on, act.inches_meant)
    elif isinstance(act, Choose):
        value = act.value
    else:
        now = get_at(spec, act.path)
        if isinstance(now, bool) or not isinstance(now, int | float):
            raise SpecError("no_figure", (act.path,))
        value = nudged(act.path, float(now), act.steps, on)
    return put_at(spec, act.path, value)


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
