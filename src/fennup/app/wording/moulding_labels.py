"""Mouldings and their figures, by their codes, and what was done to them."""

MOULDING_LABELS = {
    "moulding_wide": "Wide, across its face",
    "moulding_thick": "Thick, from back to face",
    "plough_it": "Cut one more thing along it",
    "moulding_turned": "It lies another way: turn it",
    "turn_quarter": "a quarter round",
    "turn_over": "the opening edge to the other side",
    "found_length": "Found length",
    "found_count": "How many of it",
    "found_away": "This length",
    "one_more_length": "One more length",
    "content_width": "Width",
    "content_height": "Height",
    "content_glass": "Glass, thick",
    "content_spacer": "Mount or spacer",
    "content_art": "Picture, mirror or panel",
    "content_back": "Back",
    "content_play": "Play, in all",
}
MOULDING_ACTS = {
    "turn": "how a moulding lies", "lengths": "found lengths", "photo": "a photo of a moulding", "finish": "what is on a moulding", "wood": "kind of wood",
    "weight_kg": "a weight", "glass_mm": "glass", "spacer_mm": "mount or spacer", "art_mm": "picture", "back_mm": "back", "height_mm": "height", "new": "one more",
}  # fmt: skip


def moulding_act_words(path: str) -> str:
    """A few words for an act on the mouldings."""
    parts = path.split(".")
    known = next((words for part in reversed(parts) if (words := MOULDING_ACTS.get(part))), "")
    what = "a moulding" if parts[0] == "mouldings" else "what is to be framed"
    return known or (
        "what is cut along it" if "ploughed" in parts else f"the size of {what}" if parts[-1].endswith("_mm") else what
    )
