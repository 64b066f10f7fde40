"""What the fields of the workshop's tables, and what was done at the finish, are called."""

TABLE_NAMES = {
    "woods": "Woods", "plastics": "Plastics and glass", "recipes": "Coats", "glues": "Glues", "fillings": "What it is filled with", "screws": "Screws",
    "nails": "Nails", "bolts": "Bolts", "dowels": "Dowels", "biscuits": "Biscuits", "rules": "Rules for fasteners",
    "limits": "Openings for a child", "season": "What a year does", "speed": "How long work takes",
}  # fmt: skip
TABLE_NOTES = {
    "woods": "Usual figures for seasoned wood. Move: of its width, for each percent of moisture.",
    "recipes": "Usual figures; the can in your hand knows better: type what it says.",
    "screws": "Drills as usual for wood screws; sizes as such screws usually measure.",
    "rules": "Rules of thumb. Times its thickness where no unit stands.",
    "limits": "Usual figures, no code: what holds where you live stands in its codes.",
    "speed": "Usual figures. Wind: what pushes on each square metre.",
}
FIELD_NAMES = {
    "kg_m3": "Weight, kg a cubic metre", "hard": "Hard wood", "flat_part": "Moves, rings lying", "quarter_part": "Moves, rings standing", "lasts": "Lasts bare outdoors",
    "per_degree": "Moves, of its length a degree", "coats": "Coats", "between_h": "Hours between coats", "use_h": "Hours until it is used", "grit": "Sanded between with",
    "m2_l": "Square metres a litre", "m2_h": "Square metres an hour", "least_c": "Not below, °C", "outdoors": "Outdoors", "food": "For food", "oily": "Oily rags",
    "years": "Years until coated again", "fills": "Filler as under", "open_min": "Minutes open", "clamp_h": "Hours clamped", "cured_h": "Hours until worked on",
    "g_m2": "Grams a square metre", "shank_mm": "Thick, mm", "head_mm": "Head, mm", "head_high_mm": "Head, how high, mm", "lengths_mm": "Lengths, mm",
    "pilot_soft_mm": "Pilot in soft wood, mm", "pilot_hard_mm": "Pilot in hard wood, mm", "clearance_mm": "Clear hole, mm", "pilot_mm": "Pilot, mm", "hole_mm": "Hole, mm",
    "washer_mm": "Washer, mm", "nut_mm": "Nut and thread, mm", "glue_mm": "Room for glue, mm", "long_mm": "Long, mm", "wide_mm": "Wide, mm", "slot_mm": "Slot, mm",
    "cover_mm": "Wood left over a tip, mm", "bite_shanks": "Bite", "bite_end_grain": "Bite in end grain", "bite_nail": "Bite of nails", "bite_behind": "Bite behind brackets",
    "dowel_shanks": "Dowel in each", "dowel_edge": "Dowel from an edge", "end_shanks": "From an end", "edge_shanks": "From an edge", "apart_shanks": "From the next",
    "pass_mm": "Between two that pass, mm", "pitch_mm": "Farthest apart, mm", "spline_part": "Spline, of the wood", "finger_from_mm": "Finger, from, mm", "finger_to_mm": "Finger, to, mm",
    "limb_from_mm": "Arm or leg, from, mm", "limb_to_mm": "Arm or leg, to, mm", "head_from_mm": "Head, from, mm", "head_to_mm": "Head, to, mm",
    "indoors_percent": "Moisture indoors, percent", "outdoors_percent": "Moisture outdoors, percent", "indoors_c": "Warmth indoors, degrees", "outdoors_c": "Warmth outdoors, degrees",
    "cut_min": "A cut, minutes", "fit_min": "Fitting a joint, minutes", "glue_min": "Gluing a joint, minutes", "fasten_min": "A fastener, minutes",
    "smooth_min": "Smoothing a square metre, minutes", "setup_min": "Setting up, minutes", "site_min": "Preparing the place, minutes", "spare_part": "Spares, as a part", "wind_n_m2": "Wind, N a square metre",
}  # fmt: skip
# What was done, for undo.
FINISH_ACTS = {
    "joints": "how a joint is held", "faces": "what a side becomes", "exposure": "where it stands", "exposures": "what a part must stand", "materials": "what a part is of",
    "wood": "its wood", "recipe": "what it is coated with", "glue": "the glue", "coats": "how many coats", "coat_when": "when it is coated", "coat_where": "where it is coated",
    "hours": "how long a step takes", "needed": "the day it is needed", "needed_h": "the hour it is needed", "away": "a day crossed out", "weather": "the weather",
    "holds": "what it holds", "site": "where it stands or hangs", "recipes": "a way to coat", "woods": "a wood", "plastics": "a plastic", "glues": "a glue",
    "fillings": "what it is filled with", "fasteners": "a fastener's figures", "limits": "openings for a child", "season": "what a year does", "speed": "how long work takes",
    "prices": "what something costs", "wood_money": "what wood costs",
}  # fmt: skip
# Sizes on the drawings.
FINISH_LABELS = {"fasten_length": "length", "fasten_through": "through", "fasten_bite": "bite"}
