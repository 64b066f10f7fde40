"""A derivation in words: what the angles of a cut come from, with one's own figures, and what would change them."""

from collections.abc import Callable

from fennup.app.wording.figures import Voice
from fennup.core.parts.derived import Derived

# Less than any figure shows.
UNSEEN_DEG = 1e-5

SEEN = ("straight on", "from the front", "from the side")


def derivation_lines(found: Derived, word: str, face: str, other: str, sides: int, voice: Voice) -> list[str]:
    """One or two lines. `word`: what such a board is called, `face` and `other`: its face and the board that it meets, in a
    sentence; `sides`: how many the whole has."""
    f, say = found.figures, voice.say_angle
    miter, bevel = say(found.miter_deg), say(found.bevel_deg)
    square, upright = found.miter_deg < UNSEEN_DEG, found.bevel_deg < UNSEEN_DEG
    regular = sides > 2 and abs(f.get("turn", 0.0) * sides - 360.0) < UNSEEN_DEG
    only = "the number of sides" if regular else "the corner's angle"

    def halved() -> list[str]:
        turn = say(f["turn"])
        start = f"{sides} corners turn 360°, each {turn}" if regular else f"This corner turns {turn}"
        text = f"{start}, and both {word}s are as wide: half of it in each, {turn} / 2 = {miter}."
        return [text, f"Only {only} changes it: not the size, not the width."]

    def shared() -> list[str]:
        own, theirs, turn = voice.say(f["own"]), voice.say(f["other"]), say(f["turn"])
        text = (
            f"This corner turns {turn}, this {word} is {own} wide and {other} {theirs}: "
            f"atan(({theirs} + {own} × cos {turn}) / ({own} × sin {turn})) = {miter}."
        )
        return [text, "The corner's angle and the two widths change it, the size does not."]

    def ring() -> list[str]:
        turn, half, lean = say(f["turn"]), say(f["turn"] / 2), say(f["lean"])
        if square:
            text = f"The {word}s stand upright: square across, and the blade tilts by half of the corner's {turn}, {bevel}."
            return [text, f"Only {only} changes it: not the size, not the thickness."]
        text = (
            f"The {word}s lean {lean} from upright, and this corner turns {turn} seen from above. On the leaning face that is "
            f"atan(sin {lean} × tan {half}) = {miter}; the blade tilts asin(cos {lean} × sin {half}) = {bevel}."
        )
        return [
            text,
            f"The lean and {only} change them: not the size, the height or the thickness.",
        ]

    def slopes() -> list[str]:
        lean, theirs, turn = say(f["lean"]), say(f["other"]), say(f["turn"])
        text = (
            f"This {word} leans {lean} from upright, {other} {theirs}, and this corner turns {turn} seen from above: "
            f"atan(cos {lean} × (tan {theirs} − tan {lean} × cos {turn}) / sin {turn}) = {miter}. The faces turn through "
            f"{say(f['between'])}, and the blade takes half of it, {bevel}."
        )
        return [text, "Both leans and the corner's angle change them, the size and the height do not."]

    def level() -> list[str]:
        along, lean, seen = say(f["along"]), say(f["lean"]), SEEN[int(f["straight"])]
        if square and upright:
            text = "The board stands upright, and the cut is level: square, the blade upright."
        elif upright:
            text = f"The board leans {along} from upright, and the cut is level: {miter} on its {face}, the blade upright."
        elif square:
            text = f"The {face} leans {lean} from upright, and the cut is level: square across, the blade tilted {bevel}."
        else:
            text = (
                f"Seen {seen} it leans {along}, and its {face} leans {lean} besides. On that face the level cut is "
                f"atan(tan {along} × cos {lean}) = {miter}, and the blade tilts by the {lean}."
            )
        return [text, "How it leans changes it, its length does not."]

    def plumb() -> list[str]:
        text = f"The board rises {say(f['rise'])} from level, and the cut is plumb: {miter} from square on its {face}"
        if square:
            text = "The board lies level, and the cut is plumb: square across"
        text += (
            ", the blade upright." if upright else f". Seen from above it meets at {bevel} from square: the blade tilts by that."
        )
        return [text, "The rise changes it" + ("" if upright else ", and the angle seen from above") + ": its length does not."]

    def flat() -> list[str]:
        text = f"The {face} lies level: seen from above the end runs {miter} from square." if not square else "Cut square across."
        return [text if upright else f"{text} What it meets leans {bevel}: the blade tilts by that."]

    def aslant() -> list[str]:
        along, lean, seen = say(f["along"]), say(f["lean"]), SEEN[int(f["straight"])]
        if square:
            text = "The line where it meets runs square to it: square across"
        elif f["lean"] < UNSEEN_DEG:
            text = f"Seen {seen} the line where it meets leans {along}: on the upright {face} as it is seen, {miter}"
        else:
            text = (
                f"Seen {seen} the line where it meets leans {along}. On the {face}, which leans {lean}, that is "
                f"atan(tan {along} × cos {lean}) = {miter}"
            )
        tilt = ", the blade upright." if upright else f". The two faces stand at {say(f['between'])}: the blade tilts {bevel}."
        return [text + tilt, "How the two lean changes it, its length does not."]

    def crossing() -> list[str]:
        text = (
            f"On its {face} the board runs {say(f['runs'])} from level and the line where it meets {say(f['line'])}, "
            f"{say(f['apart'])} apart: {miter} from square"
        )
        tilt = ", the blade upright." if upright else f". The two faces stand at {say(f['between'])}: the blade tilts {bevel}."
        return [text + tilt, "How the two lie to each other changes it, its length does not."]

    told: dict[str, Callable[[], list[str]]] = {
        "halved": halved, "shared": shared, "ring": ring, "slopes": slopes, "level": level, "plumb": plumb, "flat": flat,
        "aslant": aslant, "crossing": crossing,
    }  # fmt: skip
    return told[found.how]()
