"""Acts on a stand: what each does to the spec."""

import re
from typing import Any

from fennup.core.drawing.edit import Choose, Drag, Edit, Nudge
from fennup.core.editing import put_at
from fennup.core.kinds.gauged import after_drag
from fennup.core.kinds.stand.between import set_in_of
from fennup.core.kinds.stand.place import shell
from fennup.core.kinds.stand.sizing import SIZING
from fennup.core.kinds.stand.spec import StandSpec
from fennup.core.units.lengths import Tape

# A rail's place in the legs is in their middle as long as nothing is said.
UNSAID = re.compile(r"rails\.([0-9])\.set_in_mm")


def edit(spec: StandSpec, act: Edit, on: Tape) -> dict[str, Any]:
    """The spec after one act, as a document still to be validated. SpecError or UnitError names the field."""
    spec = SIZING.settle(spec)
    if isinstance(act, Drag):
        return after_drag(SIZING, spec, act, on)
    if isinstance(act, Choose) and act.path == "plan.beam" and spec.pins is not None:
        # The heads move apart or together: what was given of the feet would no longer hold.
        document = put_at(spec.model_dump(mode="json"), "pins", None)
        return put_at(document, act.path, act.value)
    if isinstance(act, Nudge) and (unsaid := UNSAID.fullmatch(act.path)) and int(unsaid[1]) < len(spec.rails):
        row = spec.rails[int(unsaid[1])]
        legs = shell(spec).boards[: spec.sides]
        rails = [*spec.rails]
        rails[int(unsaid[1])] = row.model_copy(update={"set_in_mm": max(0.0, set_in_of(spec, legs, row))})
        spec = spec.model_copy(update={"rails": rails})
    return SIZING.edit(spec, act, on)
