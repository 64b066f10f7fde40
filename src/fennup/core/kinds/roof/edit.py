"""Acts on a roof: what each does to the spec."""

from typing import Any

from fennup.core.drawing.edit import Choose, Drag, Edit, Nudge, TypeIn
from fennup.core.editing import put_at
from fennup.core.kinds.gauged import after_drag
from fennup.core.kinds.roof.sizing import SIZING
from fennup.core.kinds.roof.spec import RoofSpec
from fennup.core.units.lengths import Tape

# Choices after which other sizes are measured: then the shape's own sizes are given as they stand.
RESIZED = ("shape.right", "shape.ridge", "shape.foot", "shape.sides")


def edit(spec: RoofSpec, act: Edit, on: Tape) -> dict[str, Any]:
    """The spec after one act, as a document still to be validated. SpecError or UnitError names the field."""
    spec = SIZING.settle(spec)
    if isinstance(act, Drag):
        return after_drag(SIZING, spec, act, on)
    document = SIZING.edit(spec, act, on)
    if isinstance(act, Choose | TypeIn | Nudge) and act.path in RESIZED:
        return put_at(document, "pins", None)
    return document
