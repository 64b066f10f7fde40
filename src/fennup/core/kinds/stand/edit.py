"""Acts on a stand: what each does to the spec."""

from typing import Any

from fennup.core.drawing.edit import Choose, Drag, Edit
from fennup.core.kinds.editing import put_at
from fennup.core.kinds.gauged import dragged
from fennup.core.kinds.stand.sizing import SIZING
from fennup.core.kinds.stand.spec import StandSpec
from fennup.core.units.lengths import Tape


def edit(spec: StandSpec, act: Edit, on: Tape) -> dict[str, Any]:
    """The spec after one act, as a document still to be validated. SpecError or UnitError names the field."""
    spec = SIZING.settle(spec)
    if isinstance(act, Drag):
        return dragged(SIZING, spec, act, on)
    if isinstance(act, Choose) and act.path == "plan.beam" and spec.pins is not None:
        # The heads move apart or together: what was given of the feet would no longer hold.
        document = put_at(spec.model_dump(mode="json"), "pins", None)
        return put_at(document, act.path, act.value)
    return SIZING.edit(spec, act, on)
