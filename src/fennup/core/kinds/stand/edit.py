"""Acts on a stand: what each does to the spec."""

import re
from typing import Any

from fennup.core.drawing.edit import Choose, Drag, Edit, Nudge
from fennup.core.editing import put_at
from fennup.core.kinds.gauged import after_drag
from fennup.core.kinds.sizing import pins_in
from fennup.core.kinds.stand.between import set_in_of
from fennup.core.kinds.stand.place import shell
from fennup.core.kinds.stand.sizing import SIZING
from fennup.core.kinds.stand.spec import StandSpec
from fennup.core.units.lengths import Tape

# A rail's place in the legs is in their middle as long as nothing is said.
RING = "ring_outside:"
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
    document = SIZING.edit(spec, act, on)
    return _without_lost(spec, document) if isinstance(act, Choose) and act.path.startswith("rings") else document


def _without_lost(spec: StandSpec, document: dict[str, Any]) -> dict[str, Any]:
    """Sizes that were given of rings which hold the legs no longer are dropped: what gave way to them is suggested as it stands."""
    holding = {str(k + 1) for k, ring in enumerate(document["rings"]) if ring.get("moves") == "legs"}
    pins = pins_in(spec)
    kept = [p for p in pins if not p["measure"].startswith(RING) or p["measure"].partition(":")[2][1:] in holding]
    names = {p["measure"] for p in kept}
    back = [pin.model_copy(update={"suggested": True}) for pin in spec.usual_pins() if pin.measure not in names]
    back = back[: len(pins) - len(kept)]
    return document if not back else put_at(document, "pins", [*kept, *(pin.model_dump(mode="json") for pin in back)])
