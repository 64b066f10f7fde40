"""The Saw place in words: every step, in what order, on which tools, and what the simulated saw makes of them."""

from dataclasses import dataclass

from fennup.app.schemas.saw import PaperSteps, SchoolOut, StepBrief, StepOut, StepsOut
from fennup.app.services import documents
from fennup.app.services.part_cards import part_name
from fennup.app.services.step_cards import step_out
from fennup.app.services.step_words import StepWords, choose
from fennup.app.wording import saw as words
from fennup.app.wording.acts import did_words
from fennup.core.steps.step import Step
from fennup.core.steps.templates import model_of


@dataclass(frozen=True)
class SawSheet(StepWords):
    """A project's steps, ready to be shown."""

    def out(self, state: documents.State) -> StepsOut:
        """The whole place, without what belongs to one step alone."""
        wishes = self.solution.plan.workshop.wishes
        real = [step for step in self.plan.steps if step.work != "test"]
        simulated, holds = self.simulated()
        parts = len(self.facts)
        return StepsOut(
            version=state.version,
            undo=did_words(state.undo, self.voice),
            redo=did_words(state.redo, self.voice),
            title=f"{len(real)} {'step' if len(real) == 1 else 'steps'}, {self.plan.settings} {'setting' if self.plan.settings == 1 else 'settings'}",
            simulated=simulated,
            holds=holds,
            fewest=self._fewest() if parts else "",
            notice=self._notice(),
            schools=[
                SchoolOut(
                    label=words.SCHOOL_NAMES[told.school],
                    note=f"{told.steps} steps, {told.changes} {'change' if told.changes == 1 else 'changes'}",
                    chosen=wishes.school == told.school,
                    acts=[choose("school", told.school), choose("order", [])],
                )
                for told in self.plan.told
            ],
            lengths=[
                SchoolOut(label=label, note="", chosen=wishes.lengths == code, acts=[choose("lengths", code)])
                for code, label in words.LENGTH_NAMES.items()
            ],
            tools=[
                SchoolOut(label=tool.name, note="" if id not in wishes.away else "not here today", chosen=id not in wishes.away,
                          acts=[choose(f"away/{id}", id not in wishes.away)])
                for id, tool in self.solution.plan.workshop.tools.items()
            ],
            steps=[self._brief(step) for step in self.plan.steps],
            has_model=model_of(self.solution.design, 1.0) is not None,
            order_reset=[choose("order", [])] if wishes.order else [],
        )  # fmt: skip

    def _fewest(self) -> str:
        if self.plan.proven:
            return "No choice among the best ways to lay the boards would need fewer settings for their ends."
        return "There are too many settings to go through every choice: it takes no more than going by setting does."

    def _notice(self) -> str:
        broken = self.plan.broken
        if broken is None:
            return ""
        late, early = (self.by_key.get(str(broken.data.get(name, ""))) for name in ("step", "needs"))
        if not late or not early:
            return "The order that you chose is no longer possible: the usual one is shown."
        return f"Your order is no longer possible: {self.name_of(early)} must come before {self.name_of(late)}. The usual one is shown."

    def _of(self, step: Step) -> str:
        """What a step is done to, for the strip."""
        if step.work == "rough":
            return step.key.removeprefix("board ")
        return part_name(self.solution, self.facts[step.part].group) if step.part else ""

    def _brief(self, step: Step) -> StepBrief:
        return StepBrief(
            key=step.key,
            name=self._of(step),
            what=self.what(step),
            count=len(step.pieces),
            setting=self.setting(step),
            out=bool(self.misses(step))
            or (step.tool is None and step.work in ("rip", "taper", "outline", "first_end", "second_end")),
        )

    def step(self, key: str) -> StepOut:
        """One step in full. NotFound."""
        step = self.by_key.get(key)
        if step is None:
            raise documents.NotFound(key)
        place = self.plan.steps.index(step)
        earlier = [s for s in self.plan.steps[:place] if s.work != "test" and (s.position or step.position is None)]
        following = self.plan.steps[place + 1] if step.work == "test" and place + 1 < len(self.plan.steps) else None
        return step_out(self, step, earlier[-1] if earlier else None, following)

    def paper(self) -> PaperSteps:
        """All of them."""
        return PaperSteps(simulated=self.simulated()[0], steps=[self.step(s.key) for s in self.plan.steps if s.work != "test"])
