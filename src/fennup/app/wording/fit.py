"""The words of the dry fit: what is to be read and how, what it means, what is held and what is moved."""

from collections.abc import Mapping
from dataclasses import dataclass

from fennup.app.wording.bench import SLIPS
from fennup.app.wording.figures import Voice
from fennup.app.wording.labels import LINES, own_label
from fennup.app.wording.members import board_words, end_word, joint_words, whose
from fennup.app.wording.names import listed, pieces_of
from fennup.core.fit.reading import Expected, Picture
from fennup.core.fit.verdicts import Move, Told
from fennup.core.geometry.vec import Vec
from fennup.core.solve import Solution
from fennup.core.tolerances import SAME

WALL_CORNERS = ("foot left", "foot right", "top left", "top right")
LARGE_MM = 20.0  # from there on a length is said as the tape shows it
SOME = 0.38  # of a direction: less than that of it is not said
WAYS = (("to the right", "to the left"), ("back", "forward"), ("up", "down"))
HEIGHT_WORDS = {"top": "near the top", "middle": "half way up", "bottom": "near the bottom"}
ENDS = {"right": "near the right end", "middle": "in the middle", "left": "near the left end"}
HOOK_MM = 2.5  # as much as a bent or worn hook of a tape is off at most
PICTURES = {"round": "Round", "wall": "Faces, crosswise", "side": "Sides", "feet": "Feet", "whole": "The whole"}
HOWS = {
    "diagonal": "Tape from corner to corner, on this line.",
    "crosswise": "Tape crosswise over the face, corner to corner.",
    "feet_diagonal": "Tape over the floor, outer corner of the foot to outer corner.",
    "feet_side": "Tape over the floor, outer corner to outer corner.",
    "apart": "Tape from loose end to loose end, at their outer corners.",
    "width": "Square across, level; two straight boards held upright at the sides help.",
    "spacing": "The clear gap between the two, square to them.",
    "corner": "A gauge or bevel held to the inner sides of both.",
    "lean": "A gauge or a level with a scale, held to it: how far from upright.",
    "plumb": "A level held to it: 0 where it stands upright.",
    "level": "A level laid on it: 0 where it lies level.",
    "rock": "On a floor that is flat, the others pressed down: a feeler under this foot.",
    "flat": "Laid on something flat: a feeler under the corner that lifts.",
    "size": "As it is built, measured where it stands.",
    "gap": "A feeler in the joint, at its widest.",
}


@dataclass(frozen=True)
class FitWords:
    """Words for one project's dry fit."""

    solution: Solution
    voice: Voice

    def value(self, value: float, unit: str) -> str:
        """A figure in a sentence: lengths to a hundredth, a reading is finer than the tape's mark."""
        return self.voice.say(value) if unit == "mm" else self.voice.say_angle(value)

    def small(self, mm: float) -> str:
        """A small length, its size."""
        return self.voice.small(abs(mm)) if abs(mm) < LARGE_MM else self.voice.say(round(abs(mm), 1))

    def exact(self, mm: float) -> str:
        """A length to cut to: at the tape's mark, and what it is exactly where it lies beside it."""
        figure = self.voice.length(mm)
        if not figure.exact or figure.unit == "mm":
            return self.voice.say(mm)
        sign = {"over": "+", "under": "−", "": ""}[figure.hair]
        return f"{figure.whole} {figure.fraction}".strip() + f"{sign}″ ({figure.exact})"

    def board(self, id: str) -> str:
        """A board inside a sentence."""
        return board_words(self.solution, id)

    def joint(self, id: str) -> str:
        """A joint inside a sentence."""
        return joint_words(self.solution, id)

    def joint_capital(self, id: str) -> str:
        """A joint at the beginning of a line, without `the joint`."""
        text = self.joint(id).removeprefix("the joint of ").removeprefix("the joint at ")
        return f"{text[:1].upper()}{text[1:]}"

    def picture(self, picture: Picture) -> str:
        """What a picture shows."""
        owner = whose(self.solution, picture.boards[0])
        before = f"{owner}: " if owner else ""
        if picture.what == "round":
            title = LINES.get(picture.about, picture.about)
        elif picture.what == "wall":
            title = self.board(picture.about)
        elif picture.what == "side":
            a, b = picture.about.split(" ")[0], picture.boards[1]
            title = f"{self.short(a)} and {self.short(b)}"
        else:
            title = "feet on the floor" if picture.what == "feet" else "level, plumb and widths"
        return f"{before}{title[:1].upper()}{title[1:]}"

    def short(self, id: str) -> str:
        """A board by its name without where it stands: `leg AB`."""
        name = pieces_of(self.solution.design.assembly.board(id).name)
        short = f"{name.word} {name.place}".strip() + (f", course {name.course}" if name.course else "")
        return f"{short[:1].lower()}{short[1:]}"

    def corner(self, name: str) -> str:
        """A corner of a figure in words: of an outline by its sides, of a side by the board's end."""
        board, _, end = name.rpartition(" ")
        if end in ("foot", "head") and board in self.solution.design.solids:
            return f"{end} of {self.short(board)}"
        if name in self.solution.design.solids:
            return self.short(name)
        if name.endswith(" end"):
            return f"the loose end of {name.removesuffix(' end')}"
        if "+" in name:
            return f"the feet of {listed([self.short(id) for id in name.split('+')])}"
        return name if name.startswith(("foot", "top", "its ", "both ")) else f"corner {name}"

    def label(self, e: Expected) -> str:
        """What is read, with a capital letter."""
        text = self._label(e)
        return f"{text[:1].upper()}{text[1:]}"

    def _label(self, e: Expected) -> str:
        if e.kind in ("diagonal", "crosswise"):
            of = f"{self.short(e.boards[0])}, " if e.names[0] in WALL_CORNERS else ""
            return f"{of}{self.corner(e.names[0])} to {self.corner(e.names[1])}"
        if e.kind in ("feet_diagonal", "feet_side"):
            return f"foot of {self.short(e.names[0])} to foot of {self.short(e.names[1])}"
        if e.kind == "apart":
            return "from loose end to loose end"
        if e.kind == "width":
            return (
                f"width {HEIGHT_WORDS[e.names[0]]}"
                if e.names[0] in HEIGHT_WORDS
                else f"width {self.voice.say(float(e.names[0]))} up"
            )
        if e.kind == "spacing":
            return f"{self.short(e.names[0])} to {self.short(e.names[1])}, {HEIGHT_WORDS.get(e.names[2]) if e.names[2] in ('top', 'bottom') else ENDS[e.names[2]]}"
        if e.kind == "corner":
            return f"angle of {self.joint_between(e)}"
        if e.kind in ("lean", "plumb", "level"):
            return f"{self._leaning(e)}: {'from upright' if e.kind != 'level' else 'from level'}"
        if e.kind == "rock":
            return f"gap under the foot of {self.short(e.names[0])}"
        if e.kind == "flat":
            return "gap under the corner that lifts"
        if e.kind == "size":
            return own_label(e.names[0], self.voice.naming)
        return joint_words(self.solution, e.names[0])

    def _leaning(self, e: Expected) -> str:
        """What lies or stands alike."""
        part = next(p for p in self.solution.design.parts if p.id == e.names[0])
        return listed([self.short(id) for id in part.boards]) if len(part.boards) < 3 else f"{self.short(part.id)} and its like"

    def _leans(self, told: Told, e: Expected) -> str:
        name = self._leaning(e)
        out = f"out of {e.kind}" if e.kind in ("plumb", "level") else f"too {'much' if told.off > 0 else 'little'}"
        return f"{name[:1].upper()}{name[1:]}: {'' if e.kind in ('plumb', 'level') else 'leans '}{abs(told.off):.2f}° {out}."

    def joint_between(self, e: Expected) -> str:
        """Two boards that meet, short."""
        return f"{self.short(e.boards[0])} and {self.short(e.boards[1])}"

    def near(self, e: Expected, near: float) -> str:
        """How far off still does not matter."""
        if e.value <= SAME and e.kind in ("gap", "rock", "flat"):
            return f"up to {self.voice.small(near)} does not matter"
        figure = self.voice.small(near) if e.unit == "mm" else f"{near:.2f}°"
        return f"± {figure} does not matter"

    def way(self, way: Vec) -> str:
        """A direction in words."""
        said = [WAYS[k][0 if way[k] > 0 else 1] for k in range(3) if abs(way[k]) > SOME]
        return listed(said[:2]) if said else "in place"

    def move(self, move: Move) -> str:
        """What is held, what is pushed and by how much."""
        held = self.board(move.held) if move.held in self.solution.design.solids else self.corner(move.held)
        moved = listed([self.board(m) if m in self.solution.design.solids else self.corner(m) for m in move.moved])
        return f"Hold {held}, push {moved} {self.small(move.by_mm)} {self.way(move.way)}."

    def title(self, told: Told, by_key: Mapping[str, Expected]) -> str:
        """A verdict's headline."""
        e = by_key[told.keys[0]]
        over = "over" if told.off > 0 else "under"
        figures = told.figures
        match told.way:
            case "right":
                return f"{self.label(e)}: right." if len(told.keys) == 1 else "Right: it has its shape."
            case "near":
                return f"{self.label(e)}: {self._off(told, e)} {over}, near enough."
            case "out_of_square":
                near = ", near enough" if told.verdict != "wrong" else ""
                return f"{self._figure(e)} is out of square by {figures['turned_deg']:.2f}°{near}."
            case "out_of_shape":
                return f"{self._figure(e)} is out of shape: a corner is out by {figures['turned_deg']:.2f}°."
            case "equal_wrong":
                return f"Equal, and both wrong: {self.small(told.off)} {over}."
            case "no_shape":
                return "That cannot be." if figures.get("impossible") else "No shape with these sides has these readings."
            case "unit" | "slip":
                return f"{self.label(e)}: {self.value(told.value, e.unit)} cannot be."
            case "rocks":
                return f"{self._foot(e)} does not stand: {self.small(told.value)} under it."
            case "stands":
                return "It stands firm." if told.verdict == "right" else f"It rocks by {self.small(told.value)}: near enough."
            case "open_corner" | "tight_corner":
                return f"The corner of {self.joint_between(e)} is {abs(told.off):.2f}° too {'wide' if told.off > 0 else 'tight'}."
            case "leans" | "not_level":
                return self._leans(told, e)
            case "wind":
                return f"It is in wind: one corner lifts by {self.small(told.value)}."
            case "gap":
                return f"{self.small(told.value)} open at {joint_words(self.solution, e.names[0])}."
        return f"{self.label(e)}: {self._off(told, e)} {over}."

    def _off(self, told: Told, e: Expected) -> str:
        return self.small(told.off) if e.unit == "mm" else f"{abs(told.off):.2f}°"

    def _foot(self, e: Expected) -> str:
        text = self.short(e.boards[0])
        return f"{text[:1].upper()}{text[1:]}"

    def _figure(self, e: Expected) -> str:
        """What several readings tell of."""
        if e.kind == "crosswise":
            return "This face"
        return "The plan of the feet" if e.kind == "feet_diagonal" else "It"

    def text(self, told: Told, by_key: Mapping[str, Expected], near: float) -> list[str]:
        """What to do, sentence by sentence."""
        e, figures, said = by_key[told.keys[0]], told.figures, [self.move(m) for m in told.moves]
        match told.way:
            case "right" | "stands" if told.verdict == "right":
                return []
            case "near":
                return [f"No joint suffers: {self.near(e, near)}."]
            case "out_of_square" | "out_of_shape":
                opens = f"The joints at its corners open by {self.small(figures['opens_mm'])} from that."
                return [*said, opens, "Measure once more before the glue sets: it springs back."]
            case "equal_wrong":
                return self._sides(told, e)
            case "no_shape":
                likely = f"Most likely misread: {self.label(e)}, {self.value(told.value, e.unit)}; planned is {self.value(e.value, e.unit)}."
                if figures.get("impossible"):
                    return [
                        f"It is {self.small(told.off)} past what such sides can have, however they stand.",
                        likely,
                        "Read it once more.",
                    ]
                others = f"That is {self.small(told.off)} from what the others and the sides make it."
                return [
                    likely,
                    *([others] if len(told.keys) > 1 else []),
                    "Read it once more, then the sides: one of them may not be as long as it should be.",
                ]
            case "unit":
                return [f"It should read {self.value(e.value, e.unit)}. Was it read in another unit, or a digit too many?"]
            case "slip":
                hint = SLIPS[told.slip] if told.slip else ""
                return [f"It should read {self.value(e.value, e.unit)}. {hint}"]
            case "rocks" | "stands":
                return self._trims(told)
            case "open_corner" | "tight_corner":
                which = "too square" if told.off > 0 else "too pointed"
                return [
                    f"Both its cuts together are {which}: {figures['each_deg']:.2f}° each, if they share it.",
                    f"Pulled together, the joint opens by {self.small(figures['opens_mm'])} at its {'outer' if told.off > 0 else 'inner'} side.",
                ]
            case "leans" | "not_level":
                by = self.small(figures["at_end_mm"])
                if told.way == "not_level":
                    return [f"Hold its higher end, lift the lower one by {by}."]
                away = "farther from upright" if e.kind == "lean" and told.off < 0 else "nearer to upright"
                return [f"Hold its {self._low_end(e)}, move the other end {by} {away}."]
            case "wind":
                return [
                    "Hold it flat on its face under weights, loosen the clamps by half a turn and close them again from the middle: too tight, they lift the corners.",
                    "If it stays, one of its cuts leans: read the angle between its face and its ends.",
                ]
            case "apart_more" | "apart_less":
                lean = f" If only this end is out, it leans by {figures['lean_deg']:.2f}°." if "lean_deg" in figures else ""
                return [f"{said[0]}{lean}"]
        if e.kind == "size":
            return ["What is there stays: under As made, the parts that stand on it are worked out again."]
        return [*said, f"It should read {self.value(e.value, e.unit)}; {self.near(e, near)}."]

    def _low_end(self, e: Expected) -> str:
        board = self.solution.design.boards[e.names[0]]
        return "bottom edge" if e.names[1] == "face" else end_word(board, "left" if board.frame.x[2] >= 0 else "right")

    def _sides(self, told: Told, e: Expected) -> list[str]:
        square = (
            "Equal diagonals: it is square. But they should read "
            + self.value(e.value, e.unit)
            + ", so its sides are not as planned."
        )
        more = "longer" if told.off > 0 else "shorter"
        if abs(told.off) <= HOOK_MM:
            square += " Or is it the hook of the tape? It must slide by just its own thickness."
        if "all_mm" in told.figures:
            return [
                square.replace("it is square", "it has its shape"),
                f"All sides {self.small(told.figures['all_mm'])} {more} would do that. Measure them.",
            ]
        one, other = (self.small(told.figures[k]) for k in ("one_mm", "other_mm"))
        return [
            square,
            f"One pair of sides is {more}, by {one} or by {other}, whichever pair it is. Measure them before you glue.",
        ]

    def _trims(self, told: Told) -> list[str]:
        said = []
        for trim in told.trims:
            slope = f" The top then slopes by {trim.slope_deg:.2f}°." if trim.slope_deg > SAME else " The top stays as it is."
            if trim.under:
                said.append(f"Put {self.small(trim.under[0][1])} under {self.short(trim.under[0][0])}.{slope}")
                continue
            legs = listed([self.short(board) for board, _, _ in trim.off])
            up, along = trim.off[0][1], trim.off[0][2]
            each = f"{self.small(up)} measured upright" + (f", {self.small(along)} along the leg" if along - up > SAME else "")
            said.append(f"Trim {legs} by {each}{' each' if len(trim.off) > 1 else ''}.{slope}")
        return (
            [f"Either {said[0][:1].lower()}{said[0][1:]}", *(f"Or {text[:1].lower()}{text[1:]}" for text in said[1:])]
            if said
            else []
        )
