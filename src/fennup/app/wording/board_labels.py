"""What things are called where boards are planned."""

BOARD_LABELS = {
    "rack_length": "Length", "rack_width": "Width", "rack_thickness": "Thickness", "rack_count": "How many of them",
    "rack_grade": "Grade", "grade_clear": "clear and straight", "grade_sound": "sound", "grade_rough": "rough",
    "rack_is": "It is", "rack_treated": "treated", "rack_sheet": "a sheet", "rack_any_way": "without a grain", "rack_reclaimed": "used before",
    "rack_nails": "with nails", "rack_old_paint": "with old paint", "rack_trim_left": "Trim at the left end, kerf included",
    "rack_trim_right": "Trim at the right end, kerf included", "trim_left_mm": "Trim at the left end",
    "trim_right_mm": "Trim at the right end", "knot": "Knot", "knot_from": "Begins, knot", "knot_to": "Ends, knot",
    "knot_gone": "take it away", "keep": "Offcuts worth keeping: at least",
    "wish_goal": "What matters most", "goal_rack_first": "rack first", "goal_cheapest": "cheapest",
    "goal_fewest_boards": "fewest boards", "goal_least_waste": "least waste", "goal_fewest_changes": "fewest settings",
    "wish_from": "Boards from", "wish_use_rack": "the rack", "wish_use_yard": "the yard",
    "wish_may": "What may be done to a board", "wish_may_rip": "rip it", "wish_may_resaw": "resaw it", "wish_may_plane": "plane it",
    "wish_may_glue": "glue narrow ones up", "wish_square_first": "square cut between tips",
    "wish_spares": "Spare parts", "spares_none": "none", "spares_by_risk": "by the risk of their cuts", "spares_own": "my own share",
    "wish_spare_percent": "Spares, per cent", "wish_treated": "Treated wood", "treated_any": "either", "treated_treated": "only treated",
    "treated_untreated": "only untreated", "wish_trim_mm": "Off each end of a bought board",
    "wish_edge_mm": "Planed off each ripped edge", "wish_face_mm": "Planed off each resawn face",
    "wish_most_planed_mm": "At most planed off a face", "wish_glue_over_mm": "Strips to glue: longer by",
}  # fmt: skip
ACTS = {
    "boards.new": "a new board", "pins": "where a part comes from", "locked": "a board locked", "forbidden": "a board left out",
    "sold_out": "what the yard has", "beside": "projects cut together",
}  # fmt: skip
FIELDS = {
    "length_mm": "a board's length", "width_mm": "a board's width", "thickness_mm": "a board's thickness", "count": "how many boards",
    "grade": "a board's grade", "wood": "kind of wood", "name": "a board's name", "trim_left_mm": "trim", "trim_right_mm": "trim",
    "defects": "a knot", "treated": "treated wood", "sheet": "board or sheet", "any_way": "grain or none", "reclaimed": "used wood", "nails": "nails",
    "old_paint": "old paint",
}  # fmt: skip


def board_act_words(path: str) -> str:
    """A few words for an act on the rack or on a plan's wishes."""
    parts = path.split(".")
    if path in ACTS or parts[0] in ACTS:
        return ACTS.get(path) or ACTS[parts[0]]
    field = next((FIELDS[part] for part in parts[2:] if part in FIELDS), None)
    return field or "a board taken away"
