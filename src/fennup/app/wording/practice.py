"""The words of practice."""

from fennup.core.bench.practice import Level, Slip

LEVELS: dict[Level, tuple[str, str]] = {
    "miter": ("Flat miters", "The saw swings, the blade stands upright."),
    "bevel": ("Bevels", "The saw cuts square across, the blade leans."),
    "compound": ("Compound cuts", "It swings and leans at once."),
    "handed": ("Left and right pairs", "Parts that are each other's mirror image."),
    "mark": ("Where the mark goes", "Along which line the length runs, and on which side of it the blade cuts."),
    "one_way": ("A blade that leans one way", "The board must be turned where the saw cannot."),
}
RIGHT = "Right: so it becomes the part."
REASONS: dict[Slip, str] = {
    "slants": "Its end slants the other way across the face: that is the end of the mirror image.",
    "leans": "Its end leans the other way through the thickness: that is the end of the mirror image.",
    "half_round": "It slants and leans the other way: its own end, but turned half round, so that face and back do not fit.",
    "scale": "The angle is set on the wrong scale, or at the wrong one of two: swing and tilt are exchanged.",
    "line": "That length belongs to another line: the piece comes out {off}.",
    "kerf": "The blade's own width is taken from the piece: it comes out {off}.",
}
MARK_QUESTION = "{part}: one end is cut. Where is the other one marked, and where does the blade go?"
MARK = "{length} on the {line}, {blade}"
BEYOND, WITHIN = "the blade beyond the mark", "the blade on the piece's side of the mark"
QUESTION = "{part}: one end is cut. How does the board lie for the other one?"
OFFER = "{name} went wrong in practice lately: a round before you cut takes a minute."
EXAMPLE = "Parts of the boathouse"
