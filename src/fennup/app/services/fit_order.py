"""The order of putting it together and what the finished thing goes through, in words, with the pictures."""

from dataclasses import dataclass
from functools import cached_property

from fennup.app.schemas.fit import JoiningOut, OpeningOut, OrderOut, PassageOut, PieceViewOut
from fennup.app.schemas.sheet import ControlOut, ViewOut
from fennup.app.services import documents
from fennup.app.services.drawings import control_out, view_out
from fennup.app.services.part_cards import board_tag
from fennup.app.wording import fit_order as told
from fennup.app.wording.fit import FitWords
from fennup.core.drawing.edit import Choose, TypeIn
from fennup.core.drawing.view import Control
from fennup.core.fit.advice import advice_for
from fennup.core.fit.drawn import joining_view, passage_view
from fennup.core.fit.fitting import Fit
from fennup.core.fit.order import Joining
from fennup.core.fit.passage import OPENINGS, Opening, Passing


@dataclass(frozen=True)
class FitOrder:
    """Steps and passage."""

    fit: Fit
    words: FitWords

    @cached_property
    def steps(self) -> tuple[Joining, ...]:
        """All steps."""
        return self.fit.order[0]

    def out(self) -> OrderOut:
        """The order."""
        blocked = self.fit.order[1]
        keys = [step.key for step in self.steps]
        halves = sum(step.halves for step in self.steps)
        count = len(self.steps)
        headline = f"{count} {'step' if count == 1 else 'steps'}" + (
            f"; {halves} of them join two that were put together before" if halves else ""
        )
        return OrderOut(
            headline=headline if count else "There is nothing to put together.",
            notice=told.blocked_text(blocked, self.words) if blocked else "",
            reset=[Choose(op="choose", path="order", value=[])] if self.fit.wishes.order else [],
            steps=[self._step(step, k, keys) for k, step in enumerate(self.steps)],
            glue=[
                self._minutes("open_minutes", "open_min", self.fit.wishes.open_min),
                self._minutes("joint_minutes", "joint_min", self.fit.wishes.joint_min),
            ],
        )

    def _minutes(self, code: str, path: str, value: float) -> ControlOut:
        return control_out(
            Control(code, "fit", value=value, unit="count", acts=TypeIn(op="type", path=path, text="")), self.words.voice
        )

    def _step(self, step: Joining, k: int, keys: list[str]) -> JoiningOut:
        wishes = self.fit.wishes
        advice = advice_for(self.fit.assembling, self.fit.sheet, step, wishes.joint_min, wishes.open_min)
        words = self.words
        glue = told.glue(advice, wishes.joint_min, wishes.open_min)
        text = told.comes_from(step.way) if step.joints else "Nothing joins them yet."
        moved = keys.copy()

        def swapped(by: int) -> list[Choose]:
            if not 0 <= k + by < len(keys):
                return []
            order = moved.copy()
            order[k], order[k + by] = order[k + by], order[k]
            return [Choose(op="choose", path="order", value=order)]

        return JoiningOut(
            key=step.key,
            title=told.step_title(step, words),
            text=" ".join(t for t in (text, glue) if t),
            parts=[board_tag(words.solution, id) for id in step.moved],
            hold=[told.HOLDS[hold] for hold in advice.holds],
            help=told.helpers(advice, words),
            before=told.before(advice, words),
            check=[f"{words.label(e)}: {words.value(e.value, e.unit)}, {words.near(e, self.fit.near(e))}" for e in advice.checks],
            care=told.cares(advice),
            earlier=swapped(-1),
            later=swapped(1),
        )

    def step_view(self, key: str) -> ViewOut:
        """One step drawn. NotFound."""
        step = next((s for s in self.steps if s.key == key), None)
        if step is None:
            raise documents.NotFound(key)
        return view_out(joining_view(self.fit, step), self.words.voice)

    # Passage.

    def passage(self) -> PassageOut:
        """What it goes through."""
        split = self.fit.split
        said = []
        if split:
            names = [told.several(piece, self.words) for piece in split.pieces]
            said.append(f"It comes apart into {len(split.pieces)}: {'; '.join(names)}.")
            if split.joints:
                joints = ", ".join(self.words.joint(id) for id in split.joints)
                said.append(f"Not glued but screwed or bolted, so that it is made again behind: {joints}.")
            else:
                said.append("They only stand on each other: nothing joins them.")
        elif any(p.way is None for p in self.fit.passing):
            said.append("However it comes apart, a piece does not go through.")
        return PassageOut(openings=[self._opening(opening) for opening in OPENINGS], split=said)

    def _opening(self, opening: Opening) -> OpeningOut:
        wishes = self.fit.wishes.passage
        on = getattr(wishes, opening) is not None
        passing = next((p for p in self.fit.passing if p.opening == opening), None)
        return OpeningOut(
            opening=opening,
            label=told.OPENINGS[opening],
            on=on,
            switch=[Choose(op="choose", path=f"passage.{opening}", value=not on)],
            controls=self._more(opening),
            text=told.in_short(told.passing_text(passing, self.words)) if passing else "",
            tone="none" if passing is None else "right" if passing.way else "wrong",
            pieces=self._pieces(opening, passing) if passing else [],
        )

    def _more(self, opening: Opening) -> list[ControlOut]:
        """What has no place on its drawing."""
        wishes = self.fit.wishes.passage
        found: list[Control] = []
        if opening == "stairs" and wishes.stairs:
            found.append(
                Control(
                    "stairs_landing",
                    "passage",
                    value=wishes.stairs.landing_mm or 0.0,
                    unit="mm",
                    acts=TypeIn(op="type", path="passage.stairs.landing_mm", text=""),
                )
            )
        if opening == "load" and wishes.load:
            found.append(
                Control(
                    "load_length",
                    "passage",
                    value=wishes.load.length_mm,
                    unit="mm",
                    acts=TypeIn(op="type", path="passage.load.length_mm", text=""),
                )
            )
        return [control_out(c, self.words.voice) for c in found]

    def _pieces(self, opening: Opening, passing: Passing) -> list[PieceViewOut]:
        """The whole, or the pieces that it comes apart in, as they go through."""
        split = self.fit.split
        wishes = self.fit.wishes.passage

        def drawn(name: str, boards: tuple[str, ...], p: Passing, *, sized: bool) -> PieceViewOut:
            view = passage_view(self.fit, opening, wishes, p.way, boards, sized=sized)
            return PieceViewOut(
                name=name, text=told.in_short(told.passing_text(p, self.words)), view=view_out(view, self.words.voice)
            )

        if passing.way or split is None:
            return [drawn("all of it", self.fit.whole, passing, sized=True)]
        found = [drawn("all of it", self.fit.whole, passing, sized=True)]
        for piece, ways in zip(split.pieces, split.ways, strict=True):
            own = next(p for p in ways if p.opening == opening)
            found.append(drawn(told.several(piece, self.words), piece, own, sized=False))
        return found
