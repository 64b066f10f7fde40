"""What holds a project together, in words: joint by joint, what to buy, and what goes into which bag."""

from dataclasses import dataclass

from fennup.app.schemas.finish import FastenOut, HeldJointOut, WhyOut
from fennup.app.schemas.fit import LineOut, Tone
from fennup.app.schemas.sheet import ControlOut, ViewOut
from fennup.app.services import documents
from fennup.app.services.controls import figure_in, picked
from fennup.app.services.drawings import view_out
from fennup.app.wording import finish as told
from fennup.app.wording.fit import FitWords
from fennup.core.exchange.paper import Worded
from fennup.core.fasten.doubts import doubts_of
from fennup.core.fasten.drawn import joint_view, marks_of, pattern_template, pattern_view
from fennup.core.fasten.fastened import Fastened
from fennup.core.fasten.length import holes_mm
from fennup.core.fasten.table import BEHIND, STRAIGHT, Bolt, Dowel, Screw
from fennup.core.finish.planned import Finish
from fennup.core.finish.tables import EXPOSURES, Exposure
from fennup.core.units.lengths import decimals

GRAVE = (
    "comes_out",
    "no_room",
    "skew_along",
    "skew_across",
    "lacks_thin",
    "lacks_no_such_length",
    "head_wide",
    "no_biscuit",
    "slot_deep",
)
MOST_MET = 12


@dataclass(frozen=True)
class FastenSheet:
    """The part about fastening."""

    finish: Finish
    words: FitWords

    def out(self) -> FastenOut:
        """All of it."""
        finish = self.finish
        exposures = {finish.exposure_of(part.id) for part in finish.design.parts}
        return FastenOut(
            joints=[self._joint(one) for one in finish.fastened],
            controls=self._controls(),
            met=self._met(),
            advice=[told.METAL[e] for e in EXPOSURES if e in exposures] + [self._glue()],
            buys=self.buys(),
            bags=[self._bag(one) for one in finish.fastened],
        )

    def _controls(self) -> list[ControlOut]:
        wishes = self.finish.wishes
        return [
            picked("exposure", "It is", [(e, told.EXPOSURE_NAMES[e], e) for e in EXPOSURES], wishes.exposure),
            picked("wood", "Its wood", [(name, name, name) for name in self.finish.tables.woods], wishes.wood),
        ]

    def name(self, one: Fastened) -> str:
        """What a kind of joint is called."""
        first = self.words.joint_capital(one.kind.key)
        more = len(one.kind.joints) - 1
        return f"{first}, and {more} like it" if more else first

    def exposures(self, one: Fastened) -> set[Exposure]:
        """What the boards of its joints must stand."""
        return {self.finish.exposure_of(m.board) for joint in one.kind.joints for m in (joint.a, joint.b)}

    def _joint(self, one: Fastened) -> HeldJointOut:
        doubts = [
            LineOut(
                text=told.doubt_text(d, self.words.board(d.name).capitalize() if d.name else "", self.words.voice),
                tone="wrong" if d.code in GRAVE else "near",
            )
            for d in doubts_of(one)
        ]
        tone: Tone = "wrong" if any(d.tone == "wrong" for d in doubts) else "near" if doubts else "right"
        return HeldJointOut(
            key=one.kind.key,
            name=self.name(one),
            said=told.size_words(one, self.words.voice),
            numbers=self._numbers(one),
            tone=tone,
            patterned=bool(one.rows and one.rows[0]),
            marks=self._marks(one),
            controls=self._choices(one),
            rows=self._rows(one),
            doubts=doubts,
            care=told.care_for(one, self.exposures(one), self.words.board),
        )

    def _numbers(self, one: Fastened) -> str:
        numbers = [self.finish.numbers[joint.id] for joint in one.kind.joints]
        return f"{numbers[0]} to {numbers[-1]}" if len(numbers) > 1 else str(numbers[0])

    def _marks(self, one: Fastened) -> str:
        marks, say = marks_of(one), self.words.voice.say
        if marks is None or one.square is None:
            return ""
        alongs, ups = (sorted({round(mm, 1) for mm in found}) for found in (marks.along_mm, marks.up_mm))
        board = self.words.board(one.square.near)
        said, high = (", ".join(say(mm) for mm in found) for found in (alongs, ups))
        if len(ups) == 1 or len(alongs) == 1:
            return f"On {board}: {said} from its end, {high} up from its edge, running figures."
        pairs = ", ".join(f"{say(round(x, 1))} / {say(round(y, 1))}" for x, y in zip(marks.along_mm, marks.up_mm, strict=True))
        return f"On {board}, from its end / up from its edge: {pairs}."

    # Choices.

    def _choices(self, one: Fastened) -> list[ControlOut]:
        key, voice, choice = one.kind.key, self.words.voice, one.choice
        at = f"joints/{key}/"
        found = [picked(f"{at}how", "Held by", [(how, told.HOW_NAMES[how], how) for how in one.hows], one.how)]
        if one.straight:
            sizes = self.finish.tables.fasteners.of(one.how)
            found.append(picked(f"{at}size", "Size", [(name, name, name) for name in sizes], one.straight.name))
        if one.how == "biscuit":
            names = self.finish.tables.fasteners.biscuits
            found.append(
                picked(
                    f"{at}size",
                    "Size",
                    [(name, name, name) for name in names],
                    one.slot.biscuit.name if one.slot.biscuit else None,
                )
            )
        if one.straight:
            length = one.length_mm if one.length_mm is not None else 0.0
            own = choice.length_mm is not None
            found.append(figure_in(f"{at}length_mm", "Length", voice.of(length, "mm", "given"), given=own))
        if one.how in STRAIGHT:
            found += self._driven_choices(one, at)
        if one.how in BEHIND:
            thick = voice.of(one.thick_mm, "mm", "given")
            found.append(figure_in(f"{at}thick_mm", "How thick that is", thick, given=choice.thick_mm is not None))
        if one.how not in ("bolt", "bracket", "glue"):
            found.append(
                picked(f"{at}glued", "Glue besides", [("yes", "glued", True), ("no", "dry", False)], choice.glued, few=True)
            )
        return found

    def _driven_choices(self, one: Fastened, at: str) -> list[ControlOut]:
        voice, choice = self.words.voice, one.choice
        found = []
        if len(one.kind.stacks) > 1:
            first, other = (self.words.board(stack.near) for stack in (one.kind.stacks[0], one.kind.stacks[-1]))
            sides = [("first", first, False), ("other", other, True)]
            found.append(picked(f"{at}other_side", "They go in at", sides, choice.other_side))
        count = len(one.rows[0]) if one.rows else 0
        found.append(figure_in(f"{at}count", "In each joint", voice.count(count), given=choice.count is not None))
        if one.how != "dowel":
            found.append(figure_in(f"{at}sunk_mm", "Heads sunk by", voice.of(choice.sunk_mm, "mm", "given")))
            found.append(figure_in(f"{at}lean_deg", "Skewed from square by", voice.angle(choice.lean_deg)))
        if choice.lean_deg:
            ways = [("across", "across the row", False), ("along", "along the row", True)]
            found.append(picked(f"{at}lean_along", "Skewed", ways, choice.lean_along, few=True))
        ways = [("even", "in one line", False), ("staggered", "staggered", True)]
        found.append(picked(f"{at}staggered", "The row", ways, choice.staggered, few=True))
        return found

    # Figures.

    def _rows(self, one: Fastened) -> list[WhyOut]:
        say, rules = self.words.voice.say, self.finish.tables.fasteners.rules_of(one.how)
        through, lengths = one.through, one.lengths
        if one.how in ("biscuit", "spline"):
            return self._slot_rows(one)
        if through is None or lengths is None or one.straight is None:
            return []
        near = self.words.board(through.near) if through.near else told.HOW_NAMES[one.how]
        ways = [
            f"{say(through.through_mm)} through {near}, {say(through.into_mm)} on through {self.words.board(through.far)}.",
            f"Measured on the finished parts, along the way it goes; {through.grain_deg:.0f}° from the grain it goes into.",
        ]
        found = []
        if isinstance(one.straight, Bolt):
            parts = [f"and two washers of {say(one.straight.washer_mm)}, {say(one.straight.nut_mm)} for the nut."]
            found.append(WhyOut(title="At least", figure=say(lengths.shortest_mm), lines=[*ways, *parts]))
        elif isinstance(one.straight, Dowel):
            lines = [*ways, f"Half in each; {say(rules.cover_mm)} of wood left behind, {say(one.straight.glue_mm)} for glue."]
            found.append(WhyOut(title="At most", figure=say(lengths.longest_mm), lines=lines))
            found.append(WhyOut(title="At least", figure=say(lengths.shortest_mm), lines=lines))
        else:
            sunk = f" The head sunk by {say(one.sunk_mm)}." if one.sunk_mm else ""
            cover = f"{say(rules.cover_mm)} of wood stay over the tip (your table, {self.finish.tables.fasteners.rules.cover_mm:g} mm).{sunk}"
            found.append(WhyOut(title="Longest that is safe", figure=say(round(lengths.longest_mm, 2)), lines=[*ways, cover]))
            bite = f"It should bite {say(lengths.shortest_mm + one.sunk_mm - through.through_mm)}: a number of its thicknesses, more in end grain (your table)."
            found.append(WhyOut(title="Shortest that holds", figure=say(round(lengths.shortest_mm, 2)), lines=[*ways, bite]))
        if one.bite_mm is not None and not isinstance(one.straight, Bolt):
            found.append(
                WhyOut(
                    title="It bites",
                    figure=say(round(one.bite_mm, 2)),
                    note=f"{say(round(one.left_mm or 0.0, 2))} left over its tip",
                    lines=[
                        f"Its length {'' if not one.sunk_mm else 'and how far it is sunk, '}less the {say(through.through_mm)} that it goes through."
                    ],
                )
            )
        found += self._drills(one)
        return found

    def _drills(self, one: Fastened) -> list[WhyOut]:
        straight, say = one.straight, self.words.voice.say
        assert straight
        source = f"Table of {told.HOW_NAMES[one.how]}: {straight.source}."
        if isinstance(straight, Screw):
            hard = bool(one.through and getattr(self.finish.wood_of(one.through.far), "hard", False))
            clear, pilot = holes_mm(straight, hard=hard)
            lines = [
                source,
                f"Pilot in {'hard' if hard else 'soft'} wood, for its core; the near board is drilled clear, so that the screw pulls it tight.",
            ]
            return [
                WhyOut(
                    title="Drill",
                    figure=f"{_drill(clear)} and {_drill(pilot)}",
                    note="near board, far board",
                    lines=lines,
                )
            ]
        if isinstance(straight, Bolt):
            return [WhyOut(title="Drill", figure=_drill(straight.hole_mm), note="through both", lines=[source])]
        if isinstance(straight, Dowel):
            deep = (one.length_mm or 0.0) / 2 + straight.glue_mm
            return [WhyOut(title="Drill", figure=_drill(straight.shank_mm), note=f"{say(deep)} deep into each", lines=[source])]
        pilot = getattr(straight, "pilot_mm", 0.0)
        return (
            [WhyOut(title="Drill", figure=_drill(pilot), note="near ends, so that nothing splits", lines=[source])]
            if pilot
            else []
        )

    def _slot_rows(self, one: Fastened) -> list[WhyOut]:
        say = self.words.voice.say
        if one.slot.deep_mm is None or one.slot.wide_mm is None:
            return []
        aside = (
            f"{say(abs(one.slot.aside_mm))} from the middle, to where the wood behind is thickest"
            if one.slot.aside_mm
            else "in the middle"
        )
        return [
            WhyOut(
                title="Slot in each",
                figure=f"{say(round(one.slot.deep_mm, 1))} deep",
                note=f"{say(round(one.slot.wide_mm, 1))} wide, {aside}",
                lines=[
                    "Half of the biscuit and a little for glue." if one.slot.biscuit else "As deep as the wood lets it, at most a third of where they meet.",
                    f"Square to the joint there are {say(round(one.slot.room_mm, 1))} before it would come out, {say(self.finish.tables.fasteners.rules.cover_mm)} of cover taken off.",
                ],
            )
        ]  # fmt: skip

    # All together.

    def _met(self) -> list[LineOut]:
        found = [
            LineOut(
                text=f"Fasteners of {self.words.joint(a)} and of {self.words.joint(b)} "
                + (f"run into each other by {self.words.voice.say(round(-m.left_mm, 1))}" if m.left_mm < 0 else "pass very close")
                + ": move one row, or take another length.",
                tone="wrong",
            )
            for a, b, m in self.finish.met[:MOST_MET]
        ]
        more = len(self.finish.met) - MOST_MET
        return [*found, *([LineOut(text=f"And {more} more.", tone="wrong")] if more > 0 else [])]

    def _glue(self) -> str:
        glue = self.finish.glue
        return f"Glue: {glue.name}, {'stands water' if glue.outdoors else 'for indoors only'}; clamped {told.hours(glue.clamp_h)}, to be worked on after {told.hours(glue.cured_h)}."

    def buys(self) -> list[LineOut]:
        """Fasteners to buy."""
        spare = self.finish.tables.speed.spare_part
        return [
            LineOut(text=self.bought_name(key), figure=str(count), note=f"{100 * spare:.0f} % spare in it")
            for key, count in self.finish.buys.items()
        ]

    def bought_name(self, key: tuple[str, str, float]) -> str:
        """What one of what is bought is called: (how, size, length)."""
        how, size, length = key
        long = self.words.voice.say(length)
        name = f"{told.ONE_NAMES[how]} {size}".strip()
        text = f"{name} × {long}" if how in STRAIGHT else f"{name}, {long} {'long' if how == 'biscuit' else 'thick'}"
        return text[:1].upper() + text[1:]

    def _bag(self, one: Fastened) -> LineOut:
        note = told.how_many(len(one.kind.joints), "joint")
        more = f", {one.screws_behind} screws" if one.screws_behind else ""
        each = told.size_words(one, self.words.voice)
        return LineOut(
            text=f"{self._numbers(one)}: {self.name(one)}", figure=f"{each}{more}" if one.how != "glue" else "", note=note
        )

    def template(self, key: str) -> Worded:
        """The row of a kind of joint at true size, worded. NotFound."""
        one = next((one for one in self.finish.fastened if one.kind.key == key), None)
        template = pattern_template(one) if one else None
        if one is None or template is None:
            raise documents.NotFound(key)
        caption = f"{told.size_words(one, self.words.voice)}. Dashed: where the boards lie on each other. Long lines: the board's end and edge."
        return Worded(template, f"{self.words.board(template.part)}: {self.name(one)}", caption, {})

    def view(self, key: str, *, pattern: bool) -> ViewOut:
        """A kind of joint drawn. NotFound."""
        one = next((one for one in self.finish.fastened if one.kind.key == key), None)
        drawn = (pattern_view(one) if pattern else joint_view(one)) if one else None
        if drawn is None:
            raise documents.NotFound(key)
        return view_out(drawn, self.words.voice)


def _drill(mm: float) -> str:
    """A drill: in mm, drills are sold so everywhere, and the next sixty-fourth of an inch."""
    parts = round(mm / 25.4 * 64)
    under = 64
    while parts and parts % 2 == 0:
        parts, under = parts // 2, under // 2
    return f"{decimals(mm, 1)} mm ({parts}/{under}″)"
