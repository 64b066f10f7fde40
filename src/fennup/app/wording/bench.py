"""The words of the bench: what to measure and how, what a reading means, what to do with a piece that is wrong. `{off}`, `{half}` and `{gap}` are
put in where the reading is known: at the bench itself."""

from fennup.core.bench.task import Check, Slip, What
from fennup.core.records.entry import Verdict

# What is measured, in the voice of `what is it?`, and how.
LABELS: dict[What, str] = {
    "length": "Length along the {edge}",
    "width": "Width, at its widest side",
    "face": "Angle of the end across the {face}",
    "tilt": "Angle between the {sharp} and the cut",
    "pair": "The pair, flat",
    "pair_tilt": "The pair, standing",
    "spread": "By how much the longest and the shortest differ",
}
HOWS: dict[What, str] = {
    "length": "Hook the tape at one tip and read at the other, along the lit edge.",
    "width": "Across, square to the length. A caliper reads it best.",
    "face": "The gauge's stock on the {long}, its blade along the cut.",
    "tilt": "The gauge's stock on the {sharp}, square to the line of the cut, its blade on the cut.",
    "pair": "Two scraps, their cuts together on a flat face: measure over both.",
    "pair_tilt": "Two scraps, their leaning cuts together, standing: measure over both.",
    "spread": "Stand them on a flat top side by side, like end down. 0 where no nail catches.",
}
RIGHT = "Right."
AS_THE_TAPE_TELLS = "Right, as near as the tape tells."
Side = str  # over, under, or either

_NEAR_OPENS = "Left so, its joint stays open by {{gap}} at most: within the {allowed} that you let pass."
MEANS: dict[tuple[What, Verdict, Side], str] = {
    ("length", "near", "over"): f"{{{{off}}}} over. {_NEAR_OPENS} A shave makes it right.",
    ("length", "near", "under"): f"{{{{off}}}} under. {_NEAR_OPENS}",
    ("length", "wrong", "over"): "{{off}} too long. Set {stop} {{off}} nearer and take that off the same end.",
    ("length", "wrong", "under"): "{{off}} too short: its joint would stay open by {{gap}}. It can become another part, or be cut again.",
    ("width", "near", "over"): "{{off}} over: it stands proud by that. A plane stroke takes it.",
    ("width", "near", "under"): "{{off}} under: it lies back by that, within the {allowed} that you let pass.",
    ("width", "wrong", "over"): "{{off}} too wide. Set the fence {{off}} nearer to the blade and rip it again.",
    ("width", "wrong", "under"): "{{off}} too narrow. It can become another part, or be cut again.",
    ("face", "near", "over"): f"{{{{off}}}} too square. {_NEAR_OPENS}",
    ("face", "near", "under"): f"{{{{off}}}} too pointed. {_NEAR_OPENS}",
    ("face", "wrong", "over"): "{{off}} too square: its joint would open by {{gap}}. Set it {{off}} farther from square, try it in scrap, then shave this end.",
    ("face", "wrong", "under"): "{{off}} too pointed: its joint would open by {{gap}}. Set it {{off}} nearer to square, try it in scrap, then shave this end.",
    ("tilt", "near", "over"): f"{{{{off}}}} too upright. {_NEAR_OPENS}",
    ("tilt", "near", "under"): f"{{{{off}}}} too steep. {_NEAR_OPENS}",
    ("tilt", "wrong", "over"): "{{off}} too upright: its joint would open by {{gap}}. Lean the cut {{off}} more, try it in scrap, then shave this end.",
    ("tilt", "wrong", "under"): "{{off}} too steep: its joint would open by {{gap}}. Lean the cut {{off}} less, try it in scrap, then shave this end.",
    ("pair", "near", "over"): f"{{{{off}}}} over: each cut is {{{{half}}}} short of its angle. {_NEAR_OPENS}",
    ("pair", "near", "under"): f"{{{{off}}}} under: each cut is {{{{half}}}} past its angle. {_NEAR_OPENS}",
    ("pair", "wrong", "over"): "{{off}} over. Swing the saw {{half}} farther from square and try two new scraps.",
    ("pair", "wrong", "under"): "{{off}} under. Swing the saw {{half}} nearer to square and try two new scraps.",
    ("pair_tilt", "near", "over"): f"{{{{off}}}} over: each cut leans {{{{half}}}} too little. {_NEAR_OPENS}",
    ("pair_tilt", "near", "under"): f"{{{{off}}}} under: each cut leans {{{{half}}}} too much. {_NEAR_OPENS}",
    ("pair_tilt", "wrong", "over"): "{{off}} over. Lean the blade {{half}} more and try two new scraps.",
    ("pair_tilt", "wrong", "under"): "{{off}} under. Lean the blade {{half}} less and try two new scraps.",
    ("spread", "near", "over"): "The worst joint stays open by {{gap}} at most: within the {allowed} that you let pass.",
    ("spread", "wrong", "over"): "Too much: a joint would open by {{gap}}. Measure the longest and the shortest; shave what is too long, cut again what is too short.",
}  # fmt: skip
SQUARE: dict[tuple[Verdict, Side], str] = {
    ("near", "over"): f"{{{{off}}}} out of square. {_NEAR_OPENS}",
    ("near", "under"): f"{{{{off}}}} out of square. {_NEAR_OPENS}",
    ("wrong", "over"): "{{off}} out of square: its joint would open by {{gap}}. Set the saw to square with a square, then shave this end.",
    ("wrong", "under"): "{{off}} out of square: its joint would open by {{gap}}. Set the saw to square with a square, then shave this end.",
}  # fmt: skip
SLIPS: dict[Slip, str] = {
    "inches": "That would be right in inches: did you read the tape's other side?",
    "mm": "That would be right in millimetres: did you read the tape's other side?",
    "cm": "That would be right in centimetres, or with one nought more.",
    "foot": "That is just a foot off: count the feet again.",
    "inch": "That is just an inch off: was the tape held at 1 instead of its hook?",
    "burned": "That is just as much off as when a tape is held at 10 or 100 instead of its hook.",
    "nought": "That would be right with a nought or two more or fewer.",
    "m": "That would be right in metres.",
    "run": "That is feet and inches run together or parted: 5′ 3″ are 63 inches, not 53.",
    "feet_inches": "Feet and inches have changed places.",
    "swapped": "Two of its digits have changed places.",
    "rest_of_square": "That is the rest to 90°: the gauge reads from square.",
    "rest_of_straight": "That is the rest to 180°: the gauge lies in the other angle.",
    "half": "That is half of it: the setting, not the angle over both.",
}
OUTCOMES = {
    "shave": ("Shave it", "Too long only: {stop} nearer by what it is too long, then the same end again."),
    "use": ("Use it as {other}", "Both ends are cut anew, out of what is left of it."),
    "recut": ("Cut it again", ""),  # out of what, the boards say
    "keep": ("Keep it as it is", "It stays as it was made and is told so at the dry fit."),
}
AT_LEAST = "It must measure {long} at least."
FROM_OFFCUT = "Out of the offcut of {board} that is {long} long."
FROM_NEW = "Out of a new board: it is added to the boards plan and to the buy list."
KEEP = "KEEP"  # on the wood that is kept
EXACTLY = "exactly "  # how a set figure's note begins where the scale shows another one
EXACT = "Exactly: {figures}."
SHORT = {"stop": "blade to stop", "fence": "blade to fence"}
SAME_AGAIN = "The saw stays as it is. The next piece: {tag}."
ALIKE_AGAIN = "Everything stays as it is. The next piece: {tag}."
TOGETHER = "Lay all {count} together: {tags}."
TOGETHER_LIES = "Like ends down on a flat top, side by side. Feel over the upper ends with a nail."


def means(check: Check, verdict: Verdict, side: Side, allowed: str, stop: str, *, as_tape: bool) -> str:
    """What a reading means: `{off}`, `{half}` and `{gap}` are still to be put in."""
    if verdict == "right":
        return AS_THE_TAPE_TELLS if as_tape else RIGHT
    if check.what in ("face", "tilt") and check.expected == 90.0:
        return SQUARE[verdict, side].format(allowed=allowed)
    return MEANS[check.what, verdict, side].format(allowed=allowed, stop=stop)
