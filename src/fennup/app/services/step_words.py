"""What the steps of a project are called, and what all of the Saw place hangs on."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from fennup.app.services.part_cards import part_name
from fennup.app.wording import saw as words
from fennup.app.wording.figures import Voice
from fennup.app.wording.names import listed
from fennup.core.assembly.board import End
from fennup.core.drawing.edit import Choose
from fennup.core.exchange.cuts_document import cuts_document
from fennup.core.exchange.cuts_forms import CutsDocument
from fennup.core.geometry.plane import Plane
from fennup.core.parts.facts import PartFacts
from fennup.core.saw.tools import AnyTool
from fennup.core.solve import Solution
from fennup.core.steps.placed import Placement
from fennup.core.steps.planned import StepsPlan, steps_for
from fennup.core.steps.step import ENDS_OF_BOARDS, Step
from fennup.core.tolerances import SAME

MOST_NAMED = 3


def choose(path: str, value: Any) -> Choose:
    return Choose(op="choose", path=path, value=value)


@dataclass(frozen=True)
class StepWords:
    """A project's steps, and what each is called; `placed`: where its pieces lie in a plan of the boards."""

    solution: Solution
    voice: Voice
    placed: Mapping[str, Placement]

    @cached_property
    def plan(self) -> StepsPlan:
        """All the steps."""
        return steps_for(self.solution.design, self.solution.plan, self.placed)

    @cached_property
    def document(self) -> CutsDocument:
        """As figures, simulated."""
        return cuts_document(self.solution, self.placed, self.plan)

    @cached_property
    def facts(self) -> dict[str, PartFacts]:
        """The parts."""
        return {facts.key: facts for facts in self.solution.design.facts}

    @cached_property
    def by_key(self) -> dict[str, Step]:
        """The steps by key."""
        return {step.key: step for step in self.plan.steps}

    def name_of(self, step: Step) -> str:
        """A step in a sentence."""
        if step.work == "rough":
            return f"cutting {step.key.removeprefix('board ')} apart"
        if not step.part:
            return self.what(step)
        facts = self.facts[step.part]
        return f"{self.what(step)} of {part_name(self.solution, facts.group)}"

    def what(self, step: Step) -> str:
        """What is done, short."""
        name = words.STEP_NAMES[step.work]
        if step.end and step.work in ENDS_OF_BOARDS:
            facts = self.facts[step.part]
            more = f", cut {step.index + 1}" if len(facts.board.ends(step.end)) > 1 else ""
            name = f"{name}{more}"
        return f"{name}, the first" if step.pattern else name

    def setting(self, step: Step) -> str:
        """What is set, short."""
        way, tool = step.way or step.rip, self.tool(step)
        if not way or not tool:
            return ""
        swing = tool.shown("swing", tool.dial("swing", step.way.swing_deg)) if step.way else None
        tilt = tool.shown("tilt", tool.dial("tilt", way.tilt_deg))
        shown = [self.voice.say_angle(swing)] if swing is not None else []
        if step.work in ("taper", "outline"):
            shown = []
        return " / ".join([*shown, self.voice.say_angle(tilt)])

    def tool(self, step: Step) -> AnyTool | None:
        return self.plan.tools.get(step.tool) if step.tool else None

    def misses(self, step: Step) -> list[str]:
        way, tool = step.way or step.rip, self.tool(step)
        return [words.miss_text(miss, tool, self.voice) for miss in way.misses] if way and tool else []

    def at_stop(self, step: Step) -> bool:
        """Whether its length is found by a stop block: not where there is no fence to clamp one to."""
        tool = self.tool(step)
        stopped = step.stop is not None and step.stop.touches == "made_end" and step.work == "second_end"
        by_stop = self.solution.plan.workshop.wishes.lengths == "stop"
        return stopped and by_stop and tool is not None and tool.fence_place != "none" and not (step.way and step.way.jig)

    def made_before(self, step: Step) -> dict[End, list[Plane]]:
        made: dict[End, list[Plane]] = {"left": [], "right": []}
        for one in self.plan.steps:
            if one.key == step.key:
                break
            if one.part == step.part and one.pattern == step.pattern and one.end and one.cut and one.work in ENDS_OF_BOARDS:
                made[one.end].append(one.cut)
        return made

    def simulated(self) -> tuple[str, bool]:
        """What the simulated saw says of all parts together."""
        off = self.document.off_mm
        wrong = [key for key, mm in off.items() if mm is None or mm > SAME]
        if not wrong:
            count = sum(len(facts.group.boards) for facts in self.facts.values())
            return words.SIMULATED["all" if count > 1 else "one"].format(count=count), True
        names = listed([part_name(self.solution, self.facts[key].group) for key in wrong[:MOST_NAMED]])
        return words.SIMULATED["some"].format(right=len(off) - len(wrong), count=len(off), names=names), False
