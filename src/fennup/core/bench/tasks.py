"""The steps of the Saw place, piece by piece, as they are done at the bench."""

from collections.abc import Iterator

from fennup.core.assembly.board import End
from fennup.core.bench.task import Check, Task, angle_check, length_check
from fennup.core.design import Design
from fennup.core.parts.facts import PartFacts
from fennup.core.parts.solid import Arris
from fennup.core.plan import Plan
from fennup.core.steps.planned import StepsPlan
from fennup.core.steps.step import ENDS_OF_BOARDS, Step
from fennup.core.tolerances import NOTHING, SAME

EXACT_MM = 0.1  # what a tape that was not chosen is taken to tell
STRAIGHT_DEG = 180.0


def tasks_for(design: Design, plan: Plan, steps: StepsPlan) -> tuple[Task, ...]:
    """Everything that is done at the bench, in the order of the steps; after the last cut of parts that are alike, they are laid together."""
    return tuple(_Tasks(design, plan, steps).made())


def own_end(facts: PartFacts, piece: str, end: End) -> End:
    """Which of a board's own ends is where that end of its part's first board is: a board may be its part turned round."""
    same = facts.group.turn_of(piece)[0][0] > 0
    return end if same else "left" if end == "right" else "right"


def task_key(facts: PartFacts, piece: str, step: Step) -> str:
    """By what a step done to a piece is recorded: the piece's own key and its own end, whatever part it is counted with today."""
    if step.end:
        return f"{piece} {own_end(facts, piece, step.end)}:{step.index}"
    own = step.key.removeprefix("first ").removeprefix(facts.key).strip()
    return f"{piece} {own.replace(' ', '_')}"


class _Tasks:
    def __init__(self, design: Design, plan: Plan, steps: StepsPlan) -> None:
        self.steps = steps.steps
        self.facts = {facts.key: facts for facts in design.facts}
        self.allowance = plan.workshop.allowance_mm
        self.graduation = plan.workshop.graduation_mm or EXACT_MM
        self.last = {step.part: step.key for step in self.steps if step.work == "second_end"}
        self.last_rip = {step.part: step.key for step in self.steps if step.work == "rip"}

    def made(self) -> Iterator[Task]:
        measured: set[str] = set()
        for place, step in enumerate(self.steps):
            if step.work == "test":
                yield self._try(step, self.steps[place + 1])
            elif step.work in ("rough", "saw_apart"):
                yield from self._whole(step)
            else:
                facts = self.facts[step.part]
                checks = tuple(self._checks(step, facts))
                finished = step.key.removeprefix("first ") == self.last.get(step.part, "").removeprefix("first ")
                several = len(facts.group.boards) > 1
                for piece in step.pieces:
                    first = several and finished and bool(checks) and step.part not in measured
                    if finished:
                        measured.add(step.part)
                    yield Task(
                        task_key(facts, piece, step),
                        "step",
                        step.key,
                        step.work,
                        step.part,
                        piece,
                        facts.fingerprint,
                        checks,
                        first,
                    )
                if several and step.key == self.last.get(step.part):
                    yield self._together(step, facts)

    def _try(self, step: Step, following: Step) -> Task:
        facts = self.facts.get(following.part)
        checks = tuple(self._pairs(step, facts)) if facts else ()
        return Task(step.key, "try", step.key, "test", following.part, checks=checks)

    def _pairs(self, step: Step, facts: PartFacts) -> Iterator[Check]:
        """Two scraps cut at the setting and held together."""
        section, tilt = facts.board.section, step.way or step.rip
        if step.way and abs(step.way.swing_deg) > NOTHING and not facts.board.stave and not facts.board.panel:
            yield angle_check("pair", STRAIGHT_DEG - 2 * abs(step.way.swing_deg), section.width_mm, self.allowance)
        if tilt and abs(tilt.tilt_deg) > NOTHING:
            yield angle_check("pair_tilt", STRAIGHT_DEG - 2 * abs(tilt.tilt_deg), section.thickness_mm, self.allowance)

    def _whole(self, step: Step) -> Iterator[Task]:
        """A board cut apart, piece by piece; a lid sawn off."""
        if not step.pieces:
            yield Task(step.key, "step", step.key, step.work)
        by_piece = {piece: facts for facts in self.facts.values() for piece in facts.group.boards}
        for piece in step.pieces:
            facts = by_piece[piece]
            yield Task(f"{piece} rough", "step", step.key, step.work, facts.key, piece, facts.fingerprint)

    def _together(self, step: Step, facts: PartFacts) -> Task:
        cut = step.cut
        opens = abs(cut.normal[0]) if cut else 1.0
        check = length_check("spread", 0.0, opens, self.allowance, self.graduation, None)
        return Task(f"{facts.key} together", "together", step.key, step.work, facts.key, facts.key, facts.fingerprint, (check,))

    def _checks(self, step: Step, facts: PartFacts) -> Iterator[Check]:
        board = facts.board
        if step.work == "rip" and step.key == self.last_rip.get(step.part):
            yield length_check("width", max(facts.ripped_mm), 1.0, self.allowance, self.graduation, None)
        if step.work not in ENDS_OF_BOARDS or step.end is None or step.cut is None:
            return
        if step.key.removeprefix("first ") == self.last.get(step.part, "").removeprefix("first ") and facts.arrises:
            arris = _edge_to_measure(step, facts)
            yield length_check("length", facts.arrises[arris], abs(step.cut.normal[0]), self.allowance, self.graduation, arris)
        fact = facts.ends[step.end][step.index]
        yield angle_check("face", 90.0 - abs(fact.miter_deg), board.section.width_mm, self.allowance)
        if abs(fact.bevel_deg) > NOTHING:
            yield angle_check("tilt", 90.0 - abs(fact.bevel_deg), board.section.thickness_mm, self.allowance)


def _edge_to_measure(step: Step, facts: PartFacts) -> Arris:
    """The edge on which the cut was marked, where it is measured whole there; else the longest."""
    marked = step.marking.arris if step.marking else None
    if marked and step.marking and abs(facts.arrises[marked] - step.marking.length_mm) < SAME:
        return marked
    return max(facts.arrises, key=lambda arris: (round(facts.arrises[arris], 6), arris.startswith("face"), arris))
