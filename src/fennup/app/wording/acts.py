"""What was done, in a few words, for undo and redo."""

from typing import Any

from pydantic import TypeAdapter, ValidationError

from fennup.app.wording.board_labels import board_act_words
from fennup.app.wording.figures import Voice
from fennup.app.wording.finish_labels import FINISH_ACTS
from fennup.app.wording.fit_labels import FIT_ACTS
from fennup.app.wording.labels import LABELS
from fennup.app.wording.moulding_labels import moulding_act_words
from fennup.core.drawing.edit import Drag, Fit, Free, Give, ProjectAct, Rescale

_FIELDS = {
    "mm": "size", "width_mm": "width", "depth_mm": "depth", "thickness_mm": "thickness", "object_mm": "what it holds",
    "object_width_mm": "what it holds", "object_depth_mm": "what it holds", "play_mm": "play", "play_each_mm": "play", "play_depth_mm": "play in depth", "play_depth_each_mm": "play in depth", "reveal_mm": "reveal",
    "nominal": "board", "by": "how it is sized", "joint": "joints", "left_out": "open sides", "loose_ends": "loose ends",
    "rabbet": "rabbet", "name": "name", "unit": "units", "graduation": "tape", "sides": "number of sides", "form": "outline",
    "line": "where corners lie", "corners": "joints", "allowance_mm": "widest gap", "slopes_deg": "slopes", "thicknesses_mm": "thickness",
    "edges": "edges", "courses": "boards in a wall", "floor": "floor", "back": "back panel", "front": "front panel", "ends": "how a groove ends", "shelves": "shelves", "cap": "cap ring",
    "lid": "lid", "inner": "pieces inside", "liner": "what it is sized to fit", "spacing": "spacing", "count": "how many",
    "together": "another assembly", "members": "another assembly", "pieces": "a piece taken away", "on": "what it stands on",
    "up_mm": "how high it stands", "along_mm": "where a piece ends", "plus_mm": "how much more than what it follows",
    "height_mm": "height", "set_in_mm": "how far in", "low_mm": "where braces start", "high_mm": "where braces end",
    "named": "sizes with a name", "holes": "holes", "stopped": "a groove that stops", "lies_flat": "how a piece lies", "box_mm": "boxes", "right": "the two sides", "foot": "the feet",
    "roll": "how legs are turned", "ploughed": "what is cut along the boards", "bought": "whether it comes so", "moulding": "another moulding", "runs": "the runs",
    "layers": "strips on the rails", "set_back_mm": "how far strips are set back", "stand_off_mm": "how far it stands off", "rails": "rails", "rings": "rings", "braces": "braces", "top": "top", "treads": "treads",
}  # fmt: skip


SAW_ACTS = {
    "school": "how the work is ordered", "lengths": "how lengths are found", "away": "which tools are here", "ways": "how a cut is made",
    "scribed": "what is cut to the opening", "order": "the order of the steps", "tools.add": "one more tool", "tools.first": "which tool comes first",
}  # fmt: skip
LOG_ACTS = {
    "other_money": "what else it costs", "bought_money": "what a bought one costs", "sale_money": "what it is sold for", "rate_money": "what an hour is to earn",
    "say_price": "whether the price is said", "for_whom": "for whom it is", "care": "how to look after it", "source": "whose plan it is",
}  # fmt: skip
EVENTS = {
    "starting": "starting", "copying": "copying", "variant": "beginning a variant", "demo": "made for the demo", "import": "bringing it in",
    "workshop": "the workshop as it came", "rack_table": "boards from a table", "price_list": "a new price list",
    "again": "building it again", "tested": "a test of the saw",
    "price_table": "a price list from a table", "cuts_done": "cuts done, offcuts back", "bought": "what the wood really measures",
}  # fmt: skip
FINISH_WISHES = ("exposure", "wood", "recipe", "glue", "coats", "coat_when", "coat_where", "needed", "needed_h", "away", "joints")
_ACTS: TypeAdapter[list[ProjectAct]] = TypeAdapter(list[ProjectAct])


def did_words(did: dict[str, Any] | None, voice: Voice) -> str | None:
    """A few words for what was done, as it is kept; None for nothing."""
    if did is None:
        return None
    if "event" in did:
        return EVENTS.get(str(did["event"]), "a change")
    if "said" in did:
        return str(did["said"])
    try:
        acts = _ACTS.validate_python(did.get("acts"))
    except ValidationError:
        return "a change"
    return act_words(acts[0], voice) if acts else "a change"


def act_words(act: ProjectAct, voice: Voice) -> str:
    """A few words for one act."""
    if isinstance(act, Fit):
        return "fitting a piece"
    if isinstance(act, Rescale):
        return f"another size: {voice.label(act.measure)}"
    if isinstance(act, Drag):
        return LABELS.get(act.grip.rpartition("/")[2], "dragging")
    if isinstance(act, Give):
        return voice.label(act.measure)
    if isinstance(act, Free):
        return f"letting {voice.label(act.measure)} follow"
    if act.path.startswith(("boards.", "pins.", "locked.", "forbidden.", "sold_out.", "beside.")):
        return board_act_words(act.path)
    if act.path in SAW_ACTS or act.path.partition("/")[0] in SAW_ACTS:
        return SAW_ACTS[act.path.partition("/")[0]]
    if act.path in ("tools.add", "tools.first"):
        return SAW_ACTS[act.path]
    if act.path.partition("/")[0] in FINISH_ACTS and ("/" in act.path or act.path in FINISH_WISHES):
        return FINISH_ACTS[act.path.partition("/")[0]]
    if act.path in LOG_ACTS:
        return LOG_ACTS[act.path]
    if act.path.partition(".")[0] in FIT_ACTS:
        return FIT_ACTS[act.path.partition(".")[0]]
    if act.path.startswith(("mouldings.", "contents.")):
        return moulding_act_words(act.path)
    if act.path.startswith("follow:"):
        return "what a size follows"
    parts = act.path.rpartition(".spec.")[2].split(".")
    if parts[0] == "corners" and len(parts) > 1:
        return f"corner {parts[1]}"
    if parts[0] == "rails" and len(parts) > 1 and parts[1].isalpha():
        return f"width of rail {' and '.join(parts[1])}"
    if parts[0] == "rabbet" and len(parts) > 1:
        return f"rabbet {_FIELDS.get(parts[1], '')}"
    # The last part of the path that has a name: `thicknesses_mm.A` is a thickness.
    return next((words for part in reversed(parts) if (words := _FIELDS.get(part) or LABELS.get(part))), "a change")
