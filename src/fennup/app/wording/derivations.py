"""A derivation in words: what the angles of a cut come from, with one's own figures, and what would change them."""

from fennup.app.wording.figures import Voice
from fennup.core.parts.derived import AGREES_DEG, Derived

SEEN = ("straight on", "from the front", "from the side")


def derivation_lines(found: Derived, word: str, face: str, other: str, sides: int, voice: Voice) -> list[str]:
    """One or two lines. `word`: what such a board is called, `face` and `other`: its face and the board that it meets, in a
    sentence; `sides`: how many the whole has."""
    told = _Told(found, word, face, other, sides, voice)
    lines: list[str] = getattr(told, found.how)()
    return lines


class _Told:
    """A derivation with its figures worded; a method for every formula, called by its name."""

    def __init__(self, found: Derived, word: str, face: str, other: str, sides: int, voice: Voice) -> None:
        self.f, self.word, self.face, self.other, self.sides, self.voice = found.figures, word, face, other, sides, voice
        self.say = voice.say_angle
        self.miter, self.bevel = self.say(found.miter_deg), self.say(found.bevel_deg)
        self.square, self.upright = found.miter_deg < AGREES_DEG, found.bevel_deg < AGREES_DEG
        self.regular = sides > 2 and abs(self.f.get("turn", 0.0) * sides - 360.0) < AGREES_DEG
        self.only = "the number of sides" if self.regular else "the corner's angle"

    def halved(self) -> list[str]:
        turn = self.say(self.f["turn"])
        start = f"{self.sides} corners turn 360°, each {turn}" if self.regular else f"This corner turns {turn}"
        text = f"{start}, and both {self.word}s are as wide: half of it in each, {turn} / 2 = {self.miter}."
        return [text, f"Only {self.only} changes it: not the size, not the width."]

    def shared(self) -> list[str]:
        own, theirs, turn = self.voice.say(self.f["own"]), self.voice.say(self.f["other"]), self.say(self.f["turn"])
        text = (
            f"This corner turns {turn}, this {self.word} is {own} wide and {self.other} {theirs}: "
            f"atan(({theirs} + {own} × cos {turn}) / ({own} × sin {turn})) = {self.miter}."
        )
        return [text, "The corner's angle and the two widths change it, the size does not."]

    def ring(self) -> list[str]:
        turn, half, lean = self.say(self.f["turn"]), self.say(self.f["turn"] / 2), self.say(self.f["lean"])
        if self.square:
            text = f"The {self.word}s stand upright: square across, and the blade tilts by half of the corner's {turn}, {self.bevel}."
            return [text, f"Only {self.only} changes it: not the size, not the thickness."]
        text = (
            f"The {self.word}s lean {lean} from upright, and this corner turns {turn} seen from above. On the leaning face that is "
            f"atan(sin {lean} × tan {half}) = {self.miter}; the blade tilts asin(cos {lean} × sin {half}) = {self.bevel}."
        )
        return [
            text,
            f"The lean and {self.only} change them: not the size, the height or the thickness.",
        ]

    def slopes(self) -> list[str]:
        lean, theirs, turn = self.say(self.f["lean"]), self.say(self.f["other"]), self.say(self.f["turn"])
        text = (
            f"This {self.word} leans {lean} from upright, {self.other} {theirs}, and this corner turns {turn} seen from above: "
            f"atan(cos {lean} × (tan {theirs} − tan {lean} × cos {turn}) / sin {turn}) = {self.miter}. The faces turn through "
            f"{self.say(self.f['between'])}, and the blade takes half of it, {self.bevel}."
        )
        return [text, "Both leans and the corner's angle change them, the size and the height do not."]

    def level(self) -> list[str]:
        along, lean, seen = self.say(self.f["along"]), self.say(self.f["lean"]), SEEN[int(self.f["straight"])]
        if self.square and self.upright:
            text = "The board stands upright, and the cut is level: square, the blade upright."
        elif self.upright:
            text = (
                f"The board leans {along} from upright, and the cut is level: {self.miter} on its {self.face}, the blade upright."
            )
        elif self.square:
            text = (
                f"The {self.face} leans {lean} from upright, and the cut is level: square across, the blade tilted {self.bevel}."
            )
        else:
            text = (
                f"Seen {seen} it leans {along}, and its {self.face} leans {lean} besides. On that face the level cut is "
                f"atan(tan {along} × cos {lean}) = {self.miter}, and the blade tilts by the {lean}."
            )
        return [text, "How it leans changes it, its length does not."]

    def plumb(self) -> list[str]:
        text = f"The board rises {self.say(self.f['rise'])} from level, and the cut is plumb: {self.miter} from square on its {self.face}"
        if self.square:
            text = "The board lies level, and the cut is plumb: square across"
        text += (
            ", the blade upright."
            if self.upright
            else f". Seen from above it meets at {self.bevel} from square: the blade tilts by that."
        )
        return [
            text,
            "The rise changes it" + ("" if self.upright else ", and the angle seen from above") + ": its length does not.",
        ]

    def flat(self) -> list[str]:
        text = (
            f"The {self.face} lies level: seen from above the end runs {self.miter} from square."
            if not self.square
            else "Cut square across."
        )
        return [text if self.upright else f"{text} What it meets leans {self.bevel}: the blade tilts by that."]

    def aslant(self) -> list[str]:
        along, lean, seen = self.say(self.f["along"]), self.say(self.f["lean"]), SEEN[int(self.f["straight"])]
        if self.square:
            text = "The line where it meets runs square to it: square across"
        elif self.f["lean"] < AGREES_DEG:
            text = f"Seen {seen} the line where it meets leans {along}: on the upright {self.face} as it is seen, {self.miter}"
        else:
            text = (
                f"Seen {seen} the line where it meets leans {along}. On the {self.face}, which leans {lean}, that is "
                f"atan(tan {along} × cos {lean}) = {self.miter}"
            )
        tilt = (
            ", the blade upright."
            if self.upright
            else f". The two faces stand at {self.say(self.f['between'])}: the blade tilts {self.bevel}."
        )
        return [text + tilt, "How the two lean changes it, its length does not."]

    def crossing(self) -> list[str]:
        text = (
            f"On its {self.face} the board runs {self.say(self.f['runs'])} from level and the line where it meets {self.say(self.f['line'])}, "
            f"{self.say(self.f['apart'])} apart: {self.miter} from square"
        )
        tilt = (
            ", the blade upright."
            if self.upright
            else f". The two faces stand at {self.say(self.f['between'])}: the blade tilts {self.bevel}."
        )
        return [text + tilt, "How the two lie to each other changes it, its length does not."]
