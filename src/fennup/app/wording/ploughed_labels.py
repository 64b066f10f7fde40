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
