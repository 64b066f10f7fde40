"""Acts on a moulding: what each does to the spec."""

from typing import Any

from fennup.core.drawing.edit import Choose, Drag, Edit, Give
from fennup.core.kinds.gauged import after_drag
from fennup.core.kinds.moulding.sizing import SIZING
from fennup.core.kinds.moulding.spec import MOST_RUNS, MouldingSpec
from fennup.core.kinds.ploughing import Profile, chosen_profile
from fennup.core.kinds.sizing import pins_in
from fennup.core.units.lengths import Tape

Document = dict[str, Any]
AT_WALL = "at_wall:"  # how the names of the lengths at the wall begin


def edit(spec: MouldingSpec, act: Edit, on: Tape) -> Document:
    """The spec after one act, as a document still to be validated. SpecError or UnitError names the field. `runs.more` and `runs.less` are choices of
    its own."""
    spec = SIZING.settle(spec)
    if isinstance(act, Drag):
        return after_drag(SIZING, spec, act, on)
    if isinstance(act, Choose) and act.path in ("runs.more", "runs.less"):
        return _with_runs(spec, more=act.path == "runs.more", side=str(act.value))
    if isinstance(act, Choose) and act.path == "moulding":
        return _of_profile(spec, chosen_profile(act.value), on)
    return SIZING.edit(spec, act, on)


def _of_profile(spec: MouldingSpec, profile: Profile, on: Tape) -> Document:
    """The same runs of another moulding, at the same spring."""
    wide = SIZING.edit(spec, Give(op="give", measure="moulding_width", text=f"{profile.width_mm} mm"), on)
    ploughed = [cut.model_dump(mode="json") for cut in profile.ploughed]
    return {**wide, "thickness_mm": profile.thickness_mm, "ploughed": ploughed, "bought": True, "finished": profile.finish}


def _with_runs(spec: MouldingSpec, *, more: bool, side: str) -> Document:
    """One run more at the right end, past an inside or an outside corner; or the last one less. What was given of the others stays."""
    document = spec.model_dump(mode="json")
    runs, corners = document["runs"], document["corners"][: len(spec.runs) - 1]
    if more and len(runs) < MOST_RUNS:
        runs, corners = [*runs, {**runs[-1], "rise_deg": 0.0}], [*corners, {"side": side, "deg": 90.0}]
    elif not more and len(runs) > 1:
        runs, corners = runs[:-1], corners[:-1]
    changed = {**document, "runs": runs, "corners": corners, "pins": None}
    if spec.pins is None:
        return changed
    usual = {pin.measure: pin for pin in MouldingSpec.model_validate(changed).usual_pins()}
    given = {pin["measure"]: pin for pin in pins_in(spec) if pin["measure"] in usual or not pin["measure"].startswith(AT_WALL)}
    new = [usual[name].model_copy(update={"suggested": True}) for name in usual if name.startswith(AT_WALL) and name not in given]
    return {**changed, "pins": [*given.values(), *(pin.model_dump(mode="json") for pin in new)]}
