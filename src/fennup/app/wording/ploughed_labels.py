"""What is ploughed along a board, and its figures, by their codes."""

PLOUGHED_NAMES = {
    "rabbet": "Rabbet", "groove": "Groove", "chamfer": "Chamfer", "round": "Rounding", "cove": "Cove", "tongue": "Tongue",
    "milled": "Drawn profile",
}  # fmt: skip
_FIGURES = {
    "width": " width", "depth": " depth", "radius": " radius", "from": ", in from the edge", "thickness": " thickness", "long": " length",
    "at": " along", "away": "",
}  # fmt: skip
PLOUGHED_LABELS = {
    "stopped": "Groove that stops before its ends",
    "no_stopped": "none",
    "one_stopped": "one",
    "stopped_side": "It lies in",
    "stopped_from": "In from the edge; 0 is a rabbet",
    "stopped_far": "Counted from",
    "stopped_width": "Width of the groove",
    "stopped_depth": "Depth of the groove",
    "stopped_at_left": "At the left end it",
    "stopped_at_right": "At the right end it",
    "runs_out": "runs out",
    "stops_short": "stops short",
    "stopped_left": "Stops so far from the left end",
    "stopped_right": "Stops so far from the right end",
    "plough": "Cut one more thing along every board",
    "add_rabbet": "a rabbet: a step along an edge",
    "add_groove": "a groove",
    "add_chamfer": "a chamfer",
    "add_round": "a rounding",
    "add_cove": "a cove: a hollow along an edge",
    "add_tongue": "a tongue",
    "groove_counted": "Groove counted from",
    **{f"{form}_{figure}": f"{name}{words}" for form, name in PLOUGHED_NAMES.items() for figure, words in _FIGURES.items()},
}
