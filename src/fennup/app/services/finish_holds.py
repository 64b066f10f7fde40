"""What it holds, weighs and moves, in words, with where each figure comes from."""

from dataclasses import dataclass

from fennup.app.schemas.finish import GroupOut, PlacesOut, WhyOut
from fennup.app.schemas.fit import Tone
from fennup.app.services.controls import figure_in, picked
from fennup.app.wording import finish as told
from fennup.app.wording.fit import FitWords
from fennup.app.wording.problems import problem_text
from fennup.core.errors import CoreError
from fennup.core.fasten.length import plastic_hole_mm
from fennup.core.finish.planned import Finish
from fennup.core.finish.standing import Moves, Standing
from fennup.core.finish.tables import Plastic
from fennup.core.site.gaps import Caught
from fennup.core.site.lids import lids_of
from fennup.core.site.weight import Tipping
from fennup.core.tolerances import SAME

MOST_ROWS = 14
SCREW_MM = 4.0


@dataclass(frozen=True)
class HoldsSheet:
    """The part about what it holds."""

    finish: Finish
    words: FitWords

    @property
    def standing(self) -> Standing:
        """The figures."""
        return Standing(self.finish)

    def out(self) -> PlacesOut:
        """All of it."""
        groups = [self._load(), self._tips(), self._contents(), self._moves()]
        groups += [self._lids(), self._caught()]
        return PlacesOut(view=None, groups=[g for g in groups if g.controls or g.rows or g.note], care=[told.DEFER])

    def _load(self) -> GroupOut:
        holds, say, voice = self.finish.wishes.holds, self.words.voice.say, self.words.voice
        standing, rows = self.standing, []
        controls = [figure_in("holds/load_kg", "What lies on it or in it, kg", voice.plain(holds.load_kg, "kg"))]
        closed = any(ring.closed for ring in self.finish.design.assembly.rings)
        if closed:
            fillings = [("none", "nothing", None), *((n, n, n) for n in self.finish.tables.fillings)]
            controls.append(picked("holds/filling", "Filled with", fillings, holds.filling))
            level = voice.of(holds.level_mm or 0.0, "mm", "given")
            controls.append(figure_in("holds/level_mm", "up to this height", level, given=holds.level_mm is not None))
        rows.append(self._weighs())
        try:
            room = standing.room
        except CoreError as error:
            return GroupOut(title="How heavy", controls=controls, rows=rows, note=problem_text(error, voice))
        if room:
            lines = [
                f"Between its walls from {say(room.from_mm)} up to {say(room.to_mm)}, cut out of the solids; what stands inside is not taken off."
            ]
            rows.append(WhyOut(title="It holds", figure=f"{room.litres:.2f} l", lines=lines))
            if standing.filling_kg:
                source = f"{self.finish.tables.fillings[holds.filling or ''].kg_m3:g} kg a cubic metre (your table)."
                rows.append(
                    WhyOut(title=f"That much {holds.filling} weighs", figure=told.kg(standing.filling_kg), lines=[source])
                )
        return GroupOut(title="How heavy", controls=controls, rows=[*rows, *self._carried()])

    def _weighs(self) -> WhyOut:
        """What it weighs by itself."""
        tables, parts = self.finish.tables, self.finish.design.parts
        woods = sorted({self.finish.wood_of(part.id).name for part in parts})
        sources = [f"{n}: {(tables.woods.get(n) or tables.plastics[n]).kg_m3:g} kg a cubic metre." for n in woods]
        lines = ["The volume of every finished part times the weight of its wood (your table).", *sources]
        return WhyOut(title="It weighs", figure=told.kg(self.standing.own.kg), note="by itself", lines=lines)

    def _carried(self) -> list[WhyOut]:
        """What feet and fasteners carry of it."""
        standing, rows = self.standing, []
        total, more = standing.loaded.kg, standing.loaded.kg > standing.own.kg
        if more:
            rows.append(
                WhyOut(
                    title="Together",
                    figure=told.kg(total),
                    lines=["The thing itself, what it is filled with, and what lies on it."],
                )
            )
        shares = standing.shares
        if shares and not standing.lies_flat:
            most = max(shares, key=lambda name: shares[name])
            lines = ["As if all gave way alike on level ground; on uneven ground one carries more.",
                     *(f"{self.place(name)}: {told.kg(kg)}" for name, kg in shares.items())]  # fmt: skip
            rows.append(WhyOut(title="On one foot, at most", figure=told.kg(shares[most]), note=self.place(most), lines=lines))
        screws = [one for one in self.finish.fastened if one.how in ("screw", "nail", "bolt") and one.count]
        if screws and more:
            fewest = min(screws, key=lambda one: one.count)
            lines = [
                "The whole weight divided by all fasteners of that kind of joint, if that kind carries it and all carry alike. In wet or end grain they hold far less."
            ]
            note = self.words.joint_capital(fewest.kind.key)
            rows.append(
                WhyOut(
                    title="On one fastener, if these carry it all", figure=told.kg(total / fewest.count), note=note, lines=lines
                )
            )
        return rows

    def place(self, name: str) -> str:
        """A foot, or a corner on the ground."""
        return self.words.short(name) if name in self.finish.design.solids else name

    def _tips(self) -> GroupOut:
        standing, voice = self.standing, self.words.voice
        if standing.lies_flat:
            return GroupOut(title="Does it tip?", controls=[], rows=[])
        push = voice.of(standing.push_up_mm, "mm", "given")
        controls = [
            figure_in("holds/push_up_mm", "Pushed at this height", push, given=self.finish.wishes.holds.push_up_mm is not None)
        ]
        rows, note = [], ""
        if (tips := standing.tips) is None:
            note = "It stands on no more than a line: by itself it does not stand."
        else:
            rows += self._tip("empty", tips)
            if standing.loaded.kg > standing.own.kg:
                loaded = standing.tips_loaded
                rows += self._tip("with all that", loaded) if loaded else []
        if (wind := standing.wind) and tips and tips.inside_mm > 0:
            speed, anchors = self.finish.tables.speed, self.finish.wishes.site.anchors
            controls.append(figure_in("site/anchors", "Anchors in the ground", voice.count(anchors)))
            controls.append(
                picked(
                    "site/stretched",
                    "Stretched over it",
                    [(c, told.STRETCHED[c], c) for c in told.STRETCHED],
                    self.finish.wishes.site.stretched,
                )
            )
            covered = self.finish.wishes.site.stretched != "nothing"
            held = (
                "its weight holds it"
                if wind.lift_n <= 0
                else f"each anchor of the {anchors / 2:g} on that side: {told.newton(wind.each_n)}"
            )
            lines = [
                f"{wind.area_m2:.3g} m² of it, seen from its worst side, at {speed.wind_n_m2:g} N a square metre (your table, usual for a fresh gale) make {told.newton(wind.push_n)}.",
                f"{told.MEETS['covered' if covered else 'open']} Half of the anchors hold.",
            ]
            rows.append(WhyOut(title="Wind would lift it by", figure=told.newton(wind.lift_n) if wind.lift_n else "nothing", note=held, lines=lines,
                               tone="near" if wind.lift_n > 0 else "right"))  # fmt: skip
        return GroupOut(title="Does it tip?", controls=controls, rows=rows, note=note)

    def _tip(self, how: str, tips: Tipping) -> list[WhyOut]:
        say = self.words.voice.say
        if tips.inside_mm <= 0:
            return [
                WhyOut(
                    title=f"It tips, {how}",
                    figure="by itself",
                    note=f"its weight acts {say(round(-tips.inside_mm))} outside of where it stands",
                    lines=[
                        "From the weight of every finished part, and where those touch the ground. It must lean on something, and be held there."
                    ],
                    tone="wrong",
                )
            ]
        lines = [
            f"Its weight acts {say(round(tips.inside_mm))} inside the nearest edge that it stands on; over that edge it goes first."
        ]
        return [
            WhyOut(title=f"It tips, {how}, when it leans by", figure=f"{tips.lean_deg:.0f}°", lines=lines),
            WhyOut(title=f"or, {how}, pushed at {say(round(self.standing.push_up_mm))} with", figure=told.newton(tips.push_n), lines=lines),
        ]  # fmt: skip

    def _contents(self) -> GroupOut:
        holds, voice, standing = self.finish.wishes.holds, self.words.voice, self.standing
        say, controls, rows, note = voice.say, [], [], ""
        if recesses := standing.recesses():
            for field, label in (
                ("glass_mm", "Glass, thick"),
                ("spacer_mm", "Spacer"),
                ("art_mm", "Picture or object"),
                ("back_mm", "Back"),
            ):
                controls.append(figure_in(f"holds/{field}", label, voice.of(getattr(holds, field), "mm", "given")))
            stack = holds.glass_mm + holds.spacer_mm + holds.art_mm + holds.back_mm
            for part, deep, lies in recesses if stack > 0 else ():
                rows.append(
                    WhyOut(
                        title=f"Left behind it in {self.words.short(part)}", figure=say(round(lies.left_mm, 2)), note=told.HOLDERS[lies.holder],
                        lines=[f"What it lies in is {say(deep)} deep, the stack {say(stack)}."], tone="near" if lies.holder == "proud" else "right",
                    )
                )  # fmt: skip
        if room := standing.held:
            for field, label in (
                ("liner_width_mm", "Goes in: its width"),
                ("liner_depth_mm", "its depth"),
                ("liner_to_mm", "up to, above the floor"),
            ):
                value = getattr(holds, field)
                controls.append(
                    figure_in(f"holds/{field}", label, voice.of(value or 0.0, "mm", "given"), given=value is not None)
                )
            for up, wide, deep in standing.liner_play():
                tone = "right" if min(wide, deep) > 0 else "wrong"
                rows.append(WhyOut(title=f"Play {say(round(up))} up", figure=f"{say(round(wide, 1))} and {say(round(deep, 1))}", note="at each side, in width and in depth", tone=tone,
                                   lines=["The room inside at that height, from the solids, less what goes in, halved."]))  # fmt: skip
            for up in (room.from_mm, (room.from_mm + room.to_mm) / 2, room.to_mm):
                if inside := standing.inside_at(up):
                    rows.append(
                        WhyOut(
                            title=f"Inside, {say(round(up))} up",
                            figure=f"{say(round(inside[0], 1))} × {say(round(inside[1], 1))}",
                            note="wide and deep",
                            lines=["Between the insides of its walls at that height, from the solids."],
                        )
                    )
        elif any(ring.closed for ring in self.finish.design.assembly.rings) and not controls:
            note = "Say above up to which height it is filled: then the room inside is measured."
        return GroupOut(title="What goes in it", controls=controls, rows=rows, note=note)

    def _lids(self) -> GroupOut:
        """A lid against its opening."""
        say, rows = self.words.voice.say, []
        moves = {move.part: move.by_mm for move in self.standing.moves()}
        for lid in lids_of(self.finish.design):
            left, right, low, high = (say(round(mm, 1)) for mm in lid.over_mm)
            by = moves.get(self.finish.part_of[lid.board], 0.0)
            lines = [
                f"Beyond what it lies on: {left} and {right} at its ends, {low} and {high} at its edges.",
                f"It lies on at least {say(round(lid.bears_mm, 1))} of wood at every side.",
                f"Over the year it grows and shrinks by {self.words.voice.small(by)} across its grain: what holds it down lets it move.",
            ]
            name = self.words.short(lid.board)
            long, wide = (say(round(mm, 1)) for mm in lid.opening_mm)
            tone: Tone = "right" if min(lid.over_mm) > -SAME and lid.bears_mm > by else "near"
            rows.append(WhyOut(title=f"{name[:1].upper()}{name[1:]} over its opening", figure=f"{long} × {wide}", note=f"reaches over by {say(round(min(lid.over_mm), 1))} or more",
                               lines=lines, tone=tone))  # fmt: skip
        return GroupOut(title="Lid and opening", controls=[], rows=rows)

    def _moves(self) -> GroupOut:
        rows = [self._move(move) for move in self.standing.moves()[:MOST_ROWS]]
        note = (
            "Leave half of it at each side, or all of it on one; nothing that wide is glued or screwed tight all across."
            if rows
            else ""
        )
        return GroupOut(title="What the year does to it", controls=[], rows=rows, note=note)

    def _move(self, move: Moves) -> WhyOut:
        finish, voice = self.finish, self.words.voice
        of, season = finish.wood_of(move.part), finish.tables.season
        out = finish.exposure_of(move.part) in ("outdoors", "soil")
        name = self.words.short(move.part)
        if isinstance(of, Plastic):
            warm = season.outdoors_c if out else season.indoors_c
            lines = [
                f"{of.per_degree:g} of its length for each degree, over {warm:g} degrees (your table).",
                f"Holes for screws of 4 mm at its far end, if it is held at the other: {voice.small(plastic_hole_mm(SCREW_MM, move.long_mm, of.per_degree, warm))} wide, so that it can move; never drilled near its edge.",
            ]
            return WhyOut(
                title=f"{name[:1].upper()}{name[1:]}, {of.name}",
                figure=voice.small(move.along_mm),
                note=f"along, {voice.small(move.by_mm)} across",
                lines=lines,
            )
        percent = season.outdoors_percent if out else season.indoors_percent
        lines = [
            f"{voice.say(move.wide_mm)} × {100 * of.flat_part:.2f} % for each percent of moisture × {percent:g} percent over the year (your table), rings lying flat.",
            f"Rings standing: {voice.small(move.by_mm * of.quarter_part / of.flat_part) if of.flat_part else '0'}. Along the grain next to nothing.",
        ]
        return WhyOut(title=f"{name[:1].upper()}{name[1:]}, {of.name}", figure=voice.small(move.by_mm), note="across the grain, least to most", lines=lines)  # fmt: skip

    def _caught(self) -> GroupOut:
        """Where a child could be caught: only where one can come near."""
        finish, limits = self.finish, self.finish.tables.limits
        if not any(finish.exposure_of(part.id) == "child" for part in finish.design.parts):
            return GroupOut(title="Within a child's reach?", controls=[], rows=[],
                            note="Say under Fasten that it is within a child's reach: then every gap between its parts is measured.")  # fmt: skip
        found: dict[tuple[str, float, float], list[Caught]] = {}
        for caught in self.standing.caught:
            key = (caught.what, round(caught.opening.least_mm, 1), round(caught.opening.most_mm, 1))
            found.setdefault(key, []).append(caught)
        say, rows = self.words.voice.say, []
        for (what, least, most), all_of in sorted(found.items(), key=lambda f: ("head", "limb", "finger").index(f[0][0]))[
            :MOST_ROWS
        ]:
            first = all_of[0].opening
            low, high = getattr(limits, f"{what}_from_mm"), getattr(limits, f"{what}_to_mm")
            wide = say(least) if abs(most - least) < 0.2 else f"{say(least)} to {say(most)}"
            lines = [
                f"{self.words.board(first.a)} to {self.words.board(first.b)}{f', and {len(all_of) - 1} more such gaps' if len(all_of) > 1 else ''}.",
                f"Between {say(low)} and {say(high)} {told.CAUGHT[what]} can be caught ({limits.source}); change that in the tables.",
            ]
            rows.append(WhyOut(title=f"{told.CAUGHT[what][:1].upper()}{told.CAUGHT[what][1:]} could be caught", figure=wide,
                               note=f"{told.how_many(len(all_of), 'gap')} between parts", lines=lines, tone="wrong"))  # fmt: skip
        note = "" if rows else "No gap between its parts comes into the limits of your table."
        return GroupOut(title="Within a child's reach?", controls=[], rows=rows, note=note)
