"""The door: a design and a plan in, all the work on the wood as steps out, in order."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from fennup.core.assembly.board import ENDS, End
from fennup.core.design import Design
from fennup.core.errors import SpecError
from fennup.core.geometry.plane import Plane
from fennup.core.parts.facts import PartFacts
from fennup.core.plan import Plan
from fennup.core.saw.marking import marking_of
from fennup.core.saw.settings import MOST_TRIED, CutUse
from fennup.core.saw.tools import AnyTool, HandSaw
from fennup.core.saw.ways import Way, rip_ways, ways_for
from fennup.core.saw.wishes import School
from fennup.core.steps.lengths import line_over, stop_for
from fennup.core.steps.notches import notched
from fennup.core.steps.order import changes, dragged, in_order, with_tests
from fennup.core.steps.placed import NOWHERE, Placement
from fennup.core.steps.step import ENDS_OF_BOARDS, RAW_OVER_MM, Raw, Step
from fennup.core.stock.ploughed import Chamfer, Cove, Milled, Round

# What any workshop has, for what no tool in it makes along a board or over a sheet: a pencil, a saw and a plane.
BY_HAND = "hand"
HAND = HandSaw(name="By hand, to marked lines", steepest_deg=89.0)
SCHOOLS: tuple[School, ...] = ("by_setting", "by_part", "first_as_pattern")


@dataclass(frozen=True)
class Told:
    """What a school comes to: how many steps, and how often a setting is changed."""

    school: School
    steps: int
    changes: int


@dataclass(frozen=True)
class StepsPlan:
    """All steps in order. `settings`: how many different ones they need, `proven` where no choice of ways would need
    fewer for the ends; `broken`: the order that somebody wished and that is no longer possible."""

    steps: tuple[Step, ...]
    settings: int
    proven: bool
    told: tuple[Told, ...]
    raws: Mapping[str, Raw]
    tools: Mapping[str, AnyTool]
    broken: SpecError | None = None


def steps_for(design: Design, plan: Plan, placed: Mapping[str, Placement] = NOWHERE) -> StepsPlan:
    """The steps for a design with the tools and wishes of its plan; `placed`: on which boards of a boards plan the pieces lie, which are then cut
    apart first."""
    return _Maker(design, plan, placed).made()


class _Maker:
    def __init__(self, design: Design, plan: Plan, placed: Mapping[str, Placement]) -> None:
        self.design, self.plan, self.placed = design, plan, placed
        self.tools: Mapping[str, AnyTool] = plan.tools
        if not any(tool.rips and tool.picked for tool in plan.tools.values()):
            self.tools = {**plan.tools, BY_HAND: HAND}
        self.wishes = plan.workshop.wishes
        self.facts = {facts.key: facts for facts in design.facts}
        self.raws = {key: _raw(facts) for key, facts in self.facts.items()}
        self.uses = {use.key: use for setting in plan.settings for use in setting.uses}

    def made(self) -> StepsPlan:
        steps = [step for facts in self.facts.values() for step in self._of(facts)]
        steps += self._sawn_apart()
        steps = [step.but(by_hand=isinstance(self.tools.get(step.tool or ""), HandSaw)) for step in (*self._rough(), *steps)]
        positions = list(dict.fromkeys(s.position for s in [*self._ends_first(steps), *steps] if s.position))
        sizes = {key: facts.extent[0] for key, facts in self.facts.items()}
        told, ordered = [], {}
        for school in SCHOOLS:
            ordered[school] = in_order(steps, school, positions, sizes)
            told.append(Told(school, len(ordered[school]), changes(ordered[school])))
        chosen, broken = ordered[self.wishes.school], None
        try:
            chosen = dragged(chosen, self.wishes.order)
        except SpecError as error:
            broken = error
        return StepsPlan(
            tuple(self._with_stops(with_tests(chosen))),
            len(positions),
            self._proven(),
            tuple(told),
            self.raws,
            self.tools,
            broken,
        )

    def _proven(self) -> bool:
        return self.plan.candidates <= MOST_TRIED

    def _rough(self) -> list[Step]:
        """Every planned board cut apart into the pieces that come out of it."""
        boards: dict[str, list[str]] = {}
        for facts in self.facts.values():
            for piece in facts.group.boards:
                if piece in self.placed:
                    boards.setdefault(self.placed[piece].board, []).append(piece)
        return [
            Step(
                f"board {name}",
                "rough",
                pieces=tuple(pieces),
                cautions=("rough",) if self.placed[pieces[0]].new else ("old_wood", "rough"),
            )
            for name, pieces in boards.items()
        ]

    def _from_boards(self, pieces: tuple[str, ...]) -> list[str]:
        return list(dict.fromkeys(f"board {self.placed[piece].board}" for piece in pieces if piece in self.placed))

    def _ends_first(self, steps: list[Step]) -> list[Step]:
        """The ends' steps in the order in which the settings are first needed."""
        order = {key: k for k, key in enumerate(self.uses)}
        return sorted((s for s in steps if s.key in order), key=lambda s: order[s.key])

    def _of(self, facts: PartFacts) -> Iterator[Step]:
        """All the steps of a part, in no order yet. What is cut standing on an edge that is still square comes before all rips."""
        board, pieces = facts.board, facts.group.boards
        stood = self._stood(facts)
        before: list[str] = self._from_boards(pieces)
        apart = tuple(before)
        done: dict[str, Plane] = {}
        before_on: dict[str, list[str]] = {"upper": [], "lower": []}
        for fact, (side, plane) in zip(facts.rips, board.rips, strict=True) if not board.ready else ():
            edge: Literal["upper", "lower"] = "upper" if side == "upper" else "lower"
            ways = rip_ways(board, edge, plane, done, self.tools)
            wanted = next((way for way in ways if way.id == self.wishes.ways.get(fact.key)), None)
            way = wanted or next(iter(ways), None)
            yield Step(
                fact.key, "rip", facts.key, pieces, way.tool if way else None, rip=way, edge=side, needs=(*before_on[_other(edge)], *stood, *apart),
                cautions=way.cautions if way else (), cut=plane,
            )  # fmt: skip
            before.append(fact.key)
            before_on[edge].append(fact.key)
            done[edge] = plane
        if board.glued:
            yield Step(f"{facts.key} glue_up", "glue_up", facts.key, pieces, needs=tuple(before), cautions=("gluing",))
            before.append(f"{facts.key} glue_up")
        for ploughed in facts.ploughed if not (board.ready or board.glued) else ():
            cautions = ("routing",) if isinstance(ploughed.cut, Chamfer | Round | Cove | Milled) else ("ploughing",)
            yield Step(ploughed.key, ploughed.cut.form, facts.key, pieces, needs=tuple(before), cautions=cautions)
            before.append(ploughed.key)
        if board.panel or board.stave:
            yield from self._outlined(facts, before)
        else:
            yield from self._ends(facts, before)
        cuts = [f"{facts.key} {end}:{i}" for end in ENDS for i in range(len(board.ends(end)))]
        left = facts.solid.extent_x()[0]
        for stopped in facts.stopped:
            yield Step(stopped.key, "groove", facts.key, pieces, pocket=stopped, needs=tuple(cuts), cautions=("stopping",))
        for number, notch in enumerate(board.notches):
            if notch.groove:
                continue
            key = f"{facts.key} notch:{number}"
            lap = any(fact.key == key for fact in facts.laps)
            cut = None if board.panel or board.stave else notched(self.raws[facts.key], notch, left)
            yield Step(key, "lap" if lap else "birdsmouth", facts.key, pieces, notch=cut, needs=tuple(cuts), cautions=("chisel",))
        for row in facts.holes:
            yield Step(row.key, "holes", facts.key, pieces, needs=tuple(cuts))

    def _stood(self, facts: PartFacts) -> tuple[str, ...]:
        """The cuts for which a part stands on an edge that is to be ripped."""
        keys = (f"{facts.key} {end}:{i}" for end in ENDS for i in range(len(facts.board.ends(end))))
        return tuple(key for key in keys if key in self.uses and self.uses[key].pose.before_rip)

    def _outlined(self, facts: PartFacts, before: list[str]) -> Iterator[Step]:
        """A panel's outline, or a stave's tapered sides: lines on the sheet, on the first tool that makes the cut."""
        board = facts.board
        for end in reversed(ENDS):
            for index, plane in enumerate(board.ends(end)):
                key = f"{facts.key} {end}:{index}"
                ways = ways_for(board, plane, facts.extent[0], self.tools)
                way = self._picked(key, ways)
                yield Step(
                    key, "taper" if board.stave else "outline", facts.key, facts.group.boards, way.tool if way else None, way, end=end,
                    index=index, line=line_over(self.raws[facts.key], way, plane) if way else None, ways=ways, needs=tuple(before),
                    cautions=(*(way.cautions if way else ()), *(() if board.stave else ("sheet",))), cut=plane,
                )  # fmt: skip

    def _picked(self, key: str, ways: tuple[Way, ...]) -> Way | None:
        wanted = next((way for way in ways if way.id == self.wishes.ways.get(key)), None)
        return wanted or min((w for w in ways if self.tools[w.tool].picked), key=lambda w: len(w.misses), default=None)

    def _ends(self, facts: PartFacts, before: list[str]) -> Iterator[Step]:
        """Both ends: the one that the settings come to first is the first one; the other is cut to length from it."""
        board, scribed = facts.board, facts.key in self.wishes.scribed
        keys = [(end, i, f"{facts.key} {end}:{i}") for end in reversed(ENDS) for i in range(len(board.ends(end)))]
        order = list(self.uses)
        early = self._stood(facts)
        keys.sort(key=lambda entry: (entry[2] not in early, order.index(entry[2]) if entry[2] in self.uses else len(order)))
        first_end = keys[0][0] if keys else "right"
        for end, index, key in keys:
            use: CutUse | None = self.uses.get(key)
            plane = board.ends(end)[index]
            second = end != first_end
            needs = [*(before if key not in early else self._from_boards(facts.group.boards)), *([keys[0][2]] if second else [])]
            yield Step(
                key, "scribe" if scribed and second else "second_end" if second else "first_end", facts.key, facts.group.boards,
                use.way.tool if use else None, use.way if use else None, end=end, index=index,
                ways=ways_for(board, plane, facts.extent[0], self.plan.tools), needs=tuple(needs),
                cautions=(*(use.way.cautions if use else ()), *(("finished",) if board.finished else ())), cut=plane,
            )  # fmt: skip

    def _sawn_apart(self) -> Iterator[Step]:
        """Lids that are sawn off once a box is together."""
        for id, own in (self.design.assembly.inside or {"": self.design.assembly}).items():
            for number, _ in enumerate(own.partings):
                yield Step(f"{id}/parting:{number}", "saw_apart", cautions=("saw_apart",))

    def _with_stops(self, steps: list[Step]) -> Iterator[Step]:
        """Where each piece lies along the fence, and where each cut is marked, as the order has it."""
        made: dict[tuple[str, bool], dict[End, list[Plane]]] = {}
        first: dict[tuple[str, bool], tuple[End, int]] = {}
        for step in steps:
            if step.work not in ENDS_OF_BOARDS or step.end is None or step.cut is None:
                yield step
                continue
            line = (step.part, step.pattern)
            so_far = made.setdefault(line, {"left": [], "right": []})
            begun = first.setdefault(line, (step.end, step.index))
            board, stop = self.facts[step.part].board, None
            if step.way:
                fence = self.tools[step.way.tool].fence_place
                stop = stop_for(self.raws[step.part], step.way, fence, step.end, step.cut, so_far)
            so_far[step.end].append(step.cut)
            yield step.but(stop=stop, marking=marking_of(board, begun, (step.end, step.index)))


def _other(edge: str) -> str:
    return "lower" if edge == "upper" else "upper"


def _raw(facts: PartFacts) -> Raw:
    """A part's raw piece: as long as the part and so much over at each end; a sheet's blank is what the outline needs."""
    low, high = facts.solid.extent_x()
    return Raw(facts.board, low - RAW_OVER_MM, high + RAW_OVER_MM)
