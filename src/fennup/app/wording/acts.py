"""What was done, in a few words, for undo and redo."""

from fennup.app.wording.labels import LABELS, label
from fennup.core.drawing.edit import Drag, Fit, Free, Give, ProjectAct, Rescale

_FIELDS = {
    "mm": "size", "width_mm": "width", "depth_mm": "depth", "thickness_mm": "thickness", "object_mm": "what it holds",
    "object_width_mm": "what it holds", "object_depth_mm": "what it holds", "play_mm": "play", "reveal_mm": "reveal",
    "nominal": "board", "by": "how it is sized", "joint": "joints", "left_out": "open sides", "loose_ends": "loose ends",
    "rabbet": "rabbet", "name": "name", "unit": "units", "graduation": "tape", "sides": "number of sides", "form": "outline",
    "line": "where corners lie", "corners": "joints", "allowance_mm": "widest gap", "slopes_deg": "slopes", "thicknesses_mm": "thickness",
    "edges": "edges", "courses": "boards in a wall", "floor": "floor", "back": "back panel", "shelves": "shelves", "cap": "cap ring",
    "lid": "lid", "inner": "pieces inside", "liner": "what it is built round", "spacing": "spacing", "count": "how many",
}  # fmt: skip


def act_words(act: ProjectAct) -> str:
    """A few words for one act."""
    if isinstance(act, Fit):
        return "fitting a piece"
    if isinstance(act, Rescale):
        return f"another size: {label(act.measure)}"
    if isinstance(act, Drag):
        return LABELS.get(act.grip, "dragging")
    if isinstance(act, Give):
        return label(act.measure)
    if isinstance(act, Free):
        return f"letting {label(act.measure)} follow"
    parts = act.path.split(".")
    if parts[0] == "corners" and len(parts) > 1:
        return f"corner {parts[1]}"
    if parts[0] == "rails":
        return f"width of rail {' and '.join(parts[1])}"
    if parts[0] == "rabbet" and len(parts) > 1:
        return f"rabbet {_FIELDS.get(parts[1], '')}"
    return _FIELDS.get(parts[-1]) or LABELS.get(parts[-1], "a change")
