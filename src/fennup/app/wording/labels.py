"""What things are called on the screen, by their code."""

LINES = {"opening": "opening", "rabbet": "rabbet line", "outside": "outside"}
KINDS_EVEN = {
    "flats": "across flats",
    "corners": "across corners",
    "reach": "corner to side",
    "diagonal": "longest diagonal",
}
KINDS_ODD = {**KINDS_EVEN, "flats": "inner circle", "corners": "outer circle", "reach": "corner to opposite side"}

LABELS = {
    "object_flats": "what it holds, across flats", "object_width": "what it holds, width", "object_depth": "what it holds, depth",
    "rails_AC": "front and back rails", "rails_BD": "side rails", "rail_width": "rail width", "width": "Width, actual",
    "thickness": "Thickness, actual", "rabbet_width": "Rabbet width", "rabbet_depth": "Rabbet depth",
    "sides": "Number of sides", "sized_by": "I know the size of", "by_opening": "the opening", "by_outside": "the outside",
    "by_holds": "what it holds", "by_floats": "what floats in it", "play": "Play, in all", "reveal": "Reveal, each side",
    "free_corners": "Free the corners", "nominal": "Board from the yard", "as_measured": "as I measured it",
    "rabbet": "Rabbet for a panel", "no_rabbet": "none", "with_rabbet": "along the opening", "joint": "All corners",
    "all_miter": "mitered", "all_butt": "butted, round and round", "corner": "Corner", "corner_miter": "miter",
    "sides_there": "Sides there", "loose_ends": "Loose ends", "ends_square": "cut square", "ends_ground": "flat to the ground",
    "this_rail_width": "Width of this rail", "corners_on": "Corners lie on", "on_opening": "the opening", "on_outside": "the outside",
    "swing_left_deg": "Swing, stop at the left", "swing_right_deg": "Swing, stop at the right",
    "tilt_left_deg": "Tilt, stop at the left", "tilt_right_deg": "Tilt, stop at the right",
    "swing_counts_from": "Swing scale counts", "tilt_counts_from": "Tilt scale counts",
    "from_square": "0 at a square cut", "from_fence": "90 at a square cut",
    "swing_step_deg": "Smallest swing you can read", "tilt_step_deg": "Smallest tilt you can read", "kerf_mm": "Kerf of the blade",
}  # fmt: skip

GROUPS = {
    "outline": "Outline", "board": "Board", "corners": "Corners", "each_corner": "Corner by corner", "open": "Open sides",
    "part": "This rail", "scales": "Scales and blade",
}  # fmt: skip

STARTS = {
    "rectangle": "Rectangle", "triangle": "Three sides", "hexagon": "Six sides", "octagon": "Eight sides",
    "irregular": "Any outline", "open_octagon": "Arch, one side open",
}  # fmt: skip

NEW_NAMES = {
    "rectangle": "Rectangular frame", "triangle": "Three-sided frame", "hexagon": "Six-sided frame",
    "octagon": "Eight-sided frame", "irregular": "Frame of my own outline", "open_octagon": "Arch",
}  # fmt: skip

VIEWS = {
    "front": "Seen from the front", "section": "Section through a rail", "part": "Seen from its face",
    "operator": "As you stand at the saw", "saw_above": "From above: swing", "saw_front": "From the front: tilt",
}  # fmt: skip


def label(code: str, sides: int = 4) -> str:
    """The words for a code; a code with a colon is about the thing after it."""
    if code in LABELS:
        return LABELS[code]
    what, _, which = code.partition(":")
    if what in ("side", "through"):
        return which if what == "side" else f"{which} runs through"
    line, _, kind = what.partition("_")
    if line not in LINES:
        return code.replace("_", " ")
    if kind == "side":
        edge = {"opening": "opening edge", "rabbet": "rabbet line", "outside": "outer edge"}[line]
        return f"{edge} of {which}" if which else f"one {edge}"
    if kind == "angle":
        return f"corner {which}"
    if kind in ("width", "depth"):
        return f"{LINES[line]} {kind}"
    words = KINDS_ODD if sides % 2 else KINDS_EVEN
    return f"{LINES[line]}, {words.get(kind, kind)}"


def fact(code: str) -> str:
    """A fact for the line under the title."""
    what, _, number = code.partition(":")
    if what == "sides":
        return f"{number} sides"
    if what == "free":
        return "fixed by its sizes" if number == "0" else f"{number} more sizes would fix it"
    if what == "left_out":
        return f"{number} left out"
    return {
        "form_regular": "flat frame", "form_rectangle": "flat frame, rectangle", "form_irregular": "flat frame, any outline",
        "mitered": "mitered", "butted": "butted", "mixed_joints": "miters and butts",
    }.get(what, what)  # fmt: skip
