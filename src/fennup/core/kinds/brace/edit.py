"""Acts on a brace: what each does to the spec."""

from typing import Any

from fennup.core.drawing.edit import Choose, Drag, Edit
from fennup.core.editing import put_at
from fennup.core.kinds.brace.sizing import SIZING
from fennup.core.kinds.brace.spec import BraceSpec
from fennup.core.kinds.gauged import after_drag
from fennup.core.units.lengths import Tape

RESIZED = ("by", "place.crossing")


def edit(spec: BraceSpec, act: Edit, on: Tape) -> dict[str, Any]:
    """The spec after one act, as a document still to be validated. SpecError or UnitError names the field."""
    spec = SIZING.settle(spec)
    if isinstance(act, Drag):
        return after_drag(SIZING, spec, act, on)
    document = SIZING.edit(spec, act, on)
    if isinstance(act, Choose) and act.path in RESIZED:
        # Other lines are measured now: the place's own sizes are given on them as they stand.
        return put_at(document, "pins", None)
    return document
