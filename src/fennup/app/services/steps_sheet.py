"""The Saw place in words: every step with what is set, how the board lies, what has changed, what to take care of, and ways round a limit."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from fennup.app.schemas.saw import OutOut, PaperSteps, SchoolOut, SetOut, StepBrief, StepOut, StepsOut, TestOffered, WayOut
from fennup.app.schemas.sheet import ControlOut, EdgeOut, ViewOut
from fennup.app.services import documents
from fennup.app.services.drawings import view_out
from fennup.app.services.part_cards import board_tag, card_of, part_name
from fennup.app.services.saw_settings import lying, mark_text
from fennup.app.wording import saw as words
from fennup.app.wording.acts import did_words
from fennup.app.wording.figures import Voice, spoken
from fennup.app.wording.members import end_word, sides_of
from fennup.app.wording.names import listed
from fennup.core.assembly.board import End
from fennup.core.drawing.edit import Choose
from fennup.core.exchange.cuts_document import cuts_document
from fennup.core.exchange.cuts_forms import CutsDocument
from fennup.core.geometry.plane import Plane
from fennup.core.parts.facts import PartFacts
from fennup.core.saw.tool import ScaleTool
from fennup.core.saw.tools import AnyTool
from fennup.core.saw.ways import RipWay, Way
from fennup.core.solve import Solution
from fennup.core.steps.jigs import sled_view, wedge_for, wedge_view
from fennup.core.steps.marks import offsets_of
from fennup.core.steps.picture import Said, end_views, line_views, rip_views
from fennup.core.steps.placed import Placement
from fennup.core.steps.planned import StepsPlan, steps_for
from fennup.core.steps.step import ENDS_OF_BOARDS, Step
from fennup.core.tolerances import NOTHING

RIGHT_MM = 1e-6  # how near the simulated part must come to its solid
UNSEEN_DEG = 5e-7
MOST_NAMED = 3
RING_CLOSES = 1e-6
MOST_SIDES = 24


def _choose(path: str, value: Any) -> Choose:
    return Choose(op="choose", path=path, value=value)


@dataclass(frozen=True)
class SawSheet:
    """A project's steps, ready to be worded; `placed`: where its pieces lie in a plan of the boards."""

    solution: Solution
    voice: Voice
    placed: Mapping[str, Placement]

    @cached_property
    def plan(self) -> StepsPlan:
        """All the steps."""
        return steps_for(self.solution.design, self.solution.plan)

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
            fewest=f"{self.plan.settings} is the fewest there can be, with each board lying as it lies best." if parts else "",
            notice=self._notice(),
            schools=[
                SchoolOut(
                    label=words.SCHOOL_NAMES[told.school],
                    note=f"{told.steps} steps, {told.changes} {'change' if told.changes == 1 else 'changes'}",
                    chosen=wishes.school == told.school,
                    acts=[_choose("school", told.school), _choose("order", [])],
                )
                for told in self.plan.told
            ],
            lengths=[
                SchoolOut(label=label, note="", chosen=wishes.lengths == code, acts=[_choose("lengths", code)])
                for code, label in words.LENGTH_NAMES.items()
            ],
            tools=[
                SchoolOut(label=tool.name, note="" if id not in wishes.away else "not here today", chosen=id not in wishes.away,
                          acts=[_choose(f"away/{id}", id not in wishes.away)])
                for id, tool in self.solution.plan.workshop.tools.items()
            ],
            steps=[self._brief(step, before) for step, before in zip(self.plan.steps, [None, *self.plan.steps], strict=False)],
            order_reset=[_choose("order", [])] if wishes.order else [],
        )  # fmt: skip

    def _notice(self) -> str:
        broken = self.plan.broken
        if broken is None:
            return ""
        late, early = (self.by_key.get(str(broken.data.get(name, ""))) for name in ("step", "needs"))
        if not late or not early:
            return "The order that you chose is no longer possible: the usual one is shown."
        return f"Your order is no longer possible: {self.name_of(early)} must come before {self.name_of(late)}. The usual one is shown."

    def simulated(self) -> tuple[str, bool]:
        """What the simulated saw says of all parts together."""
        off = self.document.off_mm
        wrong = [key for key, mm in off.items() if mm is None or mm > RIGHT_MM]
        if not wrong:
            count = sum(len(facts.group.boards) for facts in self.facts.values())
            return words.SIMULATED["all"].format(count=count), True
        names = listed([part_name(self.solution, self.facts[key].group) for key in wrong[:MOST_NAMED]])
        return words.SIMULATED["some"].format(right=len(off) - len(wrong), count=len(off), names=names), False

    def _what(self, step: Step) -> str:
        """What is done, short."""
        name = words.STEP_NAMES[step.work]
        if step.end and step.work in ENDS_OF_BOARDS:
            facts = self.facts[step.part]
            more = f", cut {step.index + 1}" if len(facts.board.ends(step.end)) > 1 else ""
            name = f"{name}{more}"
        return f"{name}, the first" if step.pattern else name

    def name_of(self, step: Step) -> str:
        """A step in a sentence."""
        if not step.part:
            return self._what(step)
        facts = self.facts[step.part]
        return f"{self._what(step)} of {part_name(self.solution, facts.group)}"

    def _brief(self, step: Step, before: Step | None) -> StepBrief:
        position = step.position
        return StepBrief(
            key=step.key,
            name=part_name(self.solution, self.facts[step.part].group) if step.part else "",
            what=self._what(step),
            count=len(step.pieces),
            setting=self._setting(step),
            starts=(position is not None and (before is None or before.position != position) and step.work != "test")
            or step.work == "test",
            out=bool(self._misses(step))
            or (step.tool is None and step.work in ("rip", "taper", "outline", "first_end", "second_end")),
        )

    def _setting(self, step: Step) -> str:
        """What is set, short."""
        way, tool = step.way or step.rip, self._tool(step)
        if not way or not tool:
            return ""
        swing = tool.shown("swing", tool.dial("swing", step.way.swing_deg)) if step.way else None
        tilt = tool.shown("tilt", tool.dial("tilt", way.tilt_deg))
        shown = [self.voice.say_angle(swing)] if swing is not None else []
        if step.work in ("taper", "outline"):
            shown = []
        return " / ".join([*shown, self.voice.say_angle(tilt)])

    def _tool(self, step: Step) -> AnyTool | None:
        return self.solution.plan.tools.get(step.tool) if step.tool else None

    def _misses(self, step: Step) -> list[str]:
        way, tool = step.way or step.rip, self._tool(step)
        return [words.miss_text(miss, tool, self.voice) for miss in way.misses] if way and tool else []

    def step(self, key: str) -> StepOut:
        """One step in full. NotFound."""
        step = self.by_key.get(key)
        if step is None:
            raise documents.NotFound(key)
        place = self.plan.steps.index(step)
        earlier = [s for s in self.plan.steps[:place] if s.work != "test" and (s.position or step.position is None)]
        following = self.plan.steps[place + 1] if step.work == "test" and place + 1 < len(self.plan.steps) else None
        return self._full(step, earlier[-1] if earlier else None, following)

    def paper(self) -> PaperSteps:
        """All of them."""
        return PaperSteps(simulated=self.simulated()[0], steps=[self.step(s.key) for s in self.plan.steps if s.work != "test"])

    def _full(self, step: Step, before: Step | None, following: Step | None) -> StepOut:
        shown = following or step  # a test is drawn as the step that it is for
        tool, facts = self._tool(step), self.facts.get(shown.part)
        wished = self.solution.plan.workshop.wishes
        cautions = list(step.cautions)
        if self._at_stop(step):
            cautions.append("stop_block")
        if tool and (step.way or step.rip):
            cautions.append("powered" if tool.powered else "by_hand")
        return StepOut(
            key=step.key,
            title=self._title(step),
            detail=self._detail(step, following),
            tool=tool.name if tool else "",
            tool_id=step.tool or "",
            views=self._views(shown),
            sets=self._sets(step),
            lies=self._lies(shown),
            changed=self._changed(step, before),
            mark=self._mark(step),
            dial=self._dialled(step),
            test=self._test(step) if step.work == "test" else [],
            boards=self._boards(step),
            misses=self._misses(step),
            ways=[self._way(step, way) for way in step.ways if not way.jig],
            picked=[_choose(f"ways/{step.key.removeprefix('first ')}", None)]
            if step.key.removeprefix("first ") in wished.ways
            else [],
            outs=self._outs(step) if facts and step.work != "test" else [],
            marks=self._marks(step) if step.work in ENDS_OF_BOARDS else [],
            seats=self._seats(facts) if facts and step.work in ENDS_OF_BOARDS else [],
            cautions=[words.CAUTIONS[code] for code in dict.fromkeys(cautions)],
            scribe=self._scribe(step) if step.work in ENDS_OF_BOARDS else None,
            can_test=isinstance(tool, ScaleTool) and bool(step.way or step.rip),
            tests=self._tests(step) if isinstance(tool, ScaleTool) else [],
        )

    def _title(self, step: Step) -> str:
        if step.work == "test":
            return "A test cut in scrap"
        if not step.part:
            return "Saw the lid off"
        facts = self.facts[step.part]
        what = self._what(step)
        end = f": {end_word(facts.board, step.end)}" if step.end and step.work in ENDS_OF_BOARDS else ""
        edge = f": {sides_of(self.solution, step.part)[step.edge]}" if step.edge else ""
        return f"{part_name(self.solution, facts.group)}, {what}{end}{edge}"

    def _detail(self, step: Step, following: Step | None) -> str:
        if following:
            return f"Before the good wood: the setting for {self.name_of(following)}."
        tags = [board_tag(self.solution, piece) for piece in step.pieces]
        count = len(step.pieces)
        return f"{count} {'cut' if count == 1 else 'cuts'}: {listed(tags)}." if step.pieces else ""

    def _said(self, step: Step) -> Said:
        names = sides_of(self.solution, step.part)
        tag = board_tag(self.solution, step.pieces[0] if step.pieces else step.part)
        if step.rip:
            return Said(f"KEEP {tag}", face_up=step.rip.down == "back")
        pose = step.way.pose if step.way else None
        up = pose is not None and pose.down == "back"
        down = pose is not None and pose.down == "face"
        label = f"KEEP {tag}" + (f", {names['back']} up" if down else "")
        # The triangle points to the upper edge: to the fence or to the operator, on the side of a wide face that is up.
        away = (pose.fence == "upper") == (self._tool(step).fence_place != "near") if pose and self._tool(step) else True  # type: ignore[union-attr]
        return Said(label, face_up=up, triangle_deg=(0.0 if away else 180.0) if up or down else None)

    def _views(self, step: Step) -> list[ViewOut]:
        facts = self.facts.get(step.part)
        if not facts:
            return []
        raw = self.plan.raws[step.part]
        tool = self._tool(step)
        if step.rip:
            made = rip_views(raw, step, self._said(step))
        elif step.line:
            made = line_views(raw, step, self._said(step))
        elif step.way and tool:
            made = end_views(raw, step, tool.fence_place, self._made_before(step), self._said(step))
        else:
            return [card_of(self.solution, facts, self.voice).view]
        return [view_out(view, self.voice) for view in made]

    def _made_before(self, step: Step) -> dict[End, list[Plane]]:
        made: dict[End, list[Plane]] = {"left": [], "right": []}
        for one in self.plan.steps:
            if one.key == step.key:
                break
            if one.part == step.part and one.pattern == step.pattern and one.end and one.cut and one.work in ENDS_OF_BOARDS:
                made[one.end].append(one.cut)
        return made

    def _sets(self, step: Step) -> list[SetOut]:
        """Swing, tilt, and the distance of stop or fence: what the scales must show."""
        tool, way = self._tool(step), step.way or step.rip
        if not tool or not way:
            return []
        found = []
        if step.way and step.work not in ("taper", "outline"):
            found.append(self._movement(tool, "swing", step.way.swing_deg))
        if step.work == "taper" and step.way:
            found.append(SetOut(label="sled", figure=self.voice.angle(abs(step.way.swing_deg)), text="off the fence", note=""))
        found.append(self._movement(tool, "tilt", way.tilt_deg))
        if step.rip and step.part:
            found.append(
                SetOut(label="fence", figure=self.voice.length(step.rip.fence_mm), text="blade to fence, at the table", note="")
            )
        lengths = self.solution.plan.workshop.wishes.lengths
        if step.stop and self._at_stop(step):
            found.append(SetOut(label="stop", figure=self.voice.length(step.stop.distance_mm), text="from the blade, where fence and table meet",
                                note=self._touches(step)))  # fmt: skip
        elif step.marking and step.marking.arris and lengths != "copy":
            found.append(
                SetOut(label="mark", figure=self.voice.length(step.marking.length_mm), text=self._mark_line(step), note="")
            )
        return found

    def _at_stop(self, step: Step) -> bool:
        """Whether its length is found by a stop block: not where there is no fence to clamp one to."""
        tool = self._tool(step)
        stopped = step.stop is not None and step.stop.touches == "made_end" and step.work == "second_end"
        by_stop = self.solution.plan.workshop.wishes.lengths == "stop"
        return stopped and by_stop and tool is not None and tool.fence_place != "none" and not (step.way and step.way.jig)

    def _mark_line(self, step: Step) -> str:
        assert step.marking and step.marking.arris
        names = sides_of(self.solution, step.part)
        side, edge = step.marking.arris.split("_")
        line = f"{names[edge]}, {names[side]}" if self.facts[step.part].beveled else names[edge]
        return f"on the {line}, from the first cut"

    def _touches(self, step: Step) -> str:
        """Which point touches the stop, and where."""
        assert step.stop
        names = sides_of(self.solution, step.part)
        if len(step.stop.corners) in (0, 4):
            return ""
        edges = {corner.split("_")[1] for corner in step.stop.corners}
        sides = {corner.split("_")[0] for corner in step.stop.corners}
        where = " at the ".join(listed([names[x] for x in sorted(s)]) for s in (edges, sides) if len(s) == 1)
        reach = f" The block must reach {self.voice.say(step.stop.out_mm)} out from the fence." if step.stop.out_mm > 1.0 else ""
        return f"Its long point touches the stop: {where}.{reach}"

    def _movement(self, tool: AnyTool, movement: Any, deg: float) -> SetOut:
        dialled = tool.dial(movement, deg)
        reading = tool.shown(movement, dialled)
        square = abs(dialled) < NOTHING
        sides = ("right", "left") if movement == "swing" else ("left", "right")
        side = sides[0] if deg > 0 else sides[1]
        text = (
            ("square cut" if movement == "swing" else "blade upright")
            if square
            else f"to the {side}"
            if movement == "swing"
            else f"top to the {side}"
        )
        exact = tool.shown(movement, deg)
        note = f"exactly {exact:.4f}°" if isinstance(tool, ScaleTool) and abs(exact - reading) >= UNSEEN_DEG else ""
        return SetOut(label=movement, figure=self.voice.angle(reading), text=text, note=note)

    def _dialled(self, step: Step) -> str:
        """What a known error makes one dial."""
        tool, way = self._tool(step), step.way or step.rip
        if not isinstance(tool, ScaleTool) or not way:
            return ""
        found = []
        angles = (("swing", step.way.swing_deg if step.way else 0.0), ("tilt", way.tilt_deg))
        for movement, deg in angles:
            error = tool.error_at(movement, deg)  # type: ignore[arg-type]
            if error:
                reading = self.voice.say_angle(tool.shown(movement, tool.dial(movement, deg)))  # type: ignore[arg-type]
                much = "much" if error.error_deg > 0 else "little"
                found.append(
                    f"Dial {reading}: tested on {error.found:%d %B}, its {movement} makes {abs(error.error_deg):.2f}° too {much} there."
                )
        return " ".join(found)

    def _lies(self, step: Step) -> str:
        if step.rip and step.part:
            names = sides_of(self.solution, step.part)
            up = names["face" if step.rip.down == "back" else "back"]
            return f"{up.capitalize()} up, {names[step.rip.fence]} along the rip fence, {end_word(self.facts[step.part].board, step.rip.first)} first."
        if not step.way:
            return ""
        tool = self._tool(step)
        text = lying(step.way.pose, sides_of(self.solution, step.part))
        if tool and tool.fence_place == "none":
            text = text.replace(" to the fence", " away from you")
        elif tool and tool.fence_place == "near":
            text = text.replace(" to the fence", " at the gauge's fence, nearest to you")
        jig = {"wedge": ", the wedge between fence and board", "square": ", its end to the fence"}.get(step.way.jig, "")
        return f"{text}{jig}; keep the piece {step.way.kept} of the blade."

    def _changed(self, step: Step, before: Step | None) -> str:
        """What is different from the step before."""
        if before is None:
            return ""
        if step.position is None:
            return ""
        if before.tool != step.tool:
            return f"Another tool: {self._tool(step).name}." if self._tool(step) else ""  # type: ignore[union-attr]
        a, b = before.position, step.position
        assert a and b
        moved = [name for name, x, y in zip(("swing", "tilt"), a[1:], b[1:], strict=True) if x != y]
        turned = self._turned(step, before)
        if moved:
            kept = "" if len(moved) == 2 else f" The {'tilt' if moved == ['swing'] else 'swing'} stays."
            return f"Set the {' and the '.join(moved)} anew.{kept}"
        if step.work == "test":
            return ""
        stays = "The saw stays as it is"
        return (
            f"{stays}; {turned}."
            if turned
            else f"{stays}; only the stop moves."
            if step.stop and step.stop.touches == "made_end"
            else f"{stays}."
        )

    @staticmethod
    def _turned(step: Step, before: Step) -> str:
        if not step.way or not before.way:
            return ""
        a, b = before.way.pose, step.way.pose
        if a.stance != b.stance:
            return "stand the board on its edge" if b.stance != "flat" else "lay the board flat"
        if a.down == b.down:
            return "" if a.fence == b.fence else "turn the board end for end, the same side up"
        return (
            "turn it over end for end, the same edge at the fence"
            if a.fence == b.fence
            else "roll the board over, the other edge to the fence"
        )

    def _mark(self, step: Step) -> str:
        facts = self.facts.get(step.part)
        if not facts or not step.marking or not step.way or not step.end:
            return ""
        text = mark_text(facts, step.end, step.way.pose, step.marking, sides_of(self.solution, step.part), self.voice)
        wishes = self.solution.plan.workshop.wishes
        if step.work == "scribe":
            return f"Cut this end after the dry fit, to the opening. By the plan: {text[:1].lower()}{text[1:]}"
        if wishes.lengths == "copy" and step.work == "second_end" and not step.pattern:
            return (
                "Lay the first finished part on it, ends flush, and mark from that. Always from the first, never from the last."
            )
        return text

    def _test(self, step: Step) -> list[str]:
        """How the setting is tried before the good wood."""
        way = step.way or step.rip
        if not way:
            return []
        swing = abs(step.way.swing_deg) if step.way else 0.0
        tilt = abs(way.tilt_deg)
        lines = []
        if swing > NOTHING:
            up = " with the blade upright" if tilt > NOTHING else ""
            lines.append(
                f"Cut two flat scraps{up} and hold the cuts together on a flat face: the pair must read {self.voice.say_angle(180 - 2 * swing)}."
            )
        if tilt > NOTHING:
            square = " with the swing at square" if swing > NOTHING else ""
            lines.append(
                f"Cut two scraps{square} and hold the leaning cuts together, standing: the pair must read {self.voice.say_angle(180 - 2 * tilt)}."
            )
        if not lines:
            lines.append("Cut a scrap, turn one half over against the other on a flat face: no light may show between them.")
        return [*lines, "Type what the gauge says under Test: what to dial follows from it."]

    def _tests(self, step: Step) -> list[TestOffered]:
        """The scales that are set here: one at square can be tested too."""
        tool, way = self._tool(step), step.way or step.rip
        if not tool or not way:
            return []
        angles = [("swing", step.way.swing_deg)] if step.way and step.work not in ("taper", "outline") else []
        made = []
        for movement, deg in [*angles, ("tilt", way.tilt_deg)]:
            turn = 360.0 / (2.0 * abs(deg)) if abs(deg) > NOTHING else 0.0
            closes = abs(turn - round(turn)) < RING_CLOSES and 3 <= round(turn) <= MOST_SIDES
            shown = self.voice.say_angle(tool.shown(movement, deg))  # type: ignore[arg-type]
            made.append(
                TestOffered(movement=movement, label=f"{movement} {shown}", at_deg=deg, sides=round(turn) if closes else 0)
            )
        return made

    def _boards(self, step: Step) -> str:
        """Out of which planned boards its pieces come, and which cuts it shares."""
        there = [(piece, self.placed[piece]) for piece in step.pieces if piece in self.placed]
        if not there:
            return ""
        by_board: dict[str, list[str]] = {}
        for piece, placement in there:
            by_board.setdefault(placement.board, []).append(board_tag(self.solution, piece))
        text = "; ".join(f"{listed(tags)} out of {board}" for board, tags in by_board.items()) + "."
        shared = [
            (piece, placement.shared[f"{piece} {step.end}"])
            for piece, placement in there
            if f"{piece} {step.end}" in placement.shared
        ]
        if shared:
            pairs = listed(
                [f"{board_tag(self.solution, a)} and {board_tag(self.solution, b.rpartition(' ')[0])}" for a, b in shared]
            )
            text += f" One cut for two: {pairs}."
        return text[:1].upper() + text[1:]

    def _way(self, step: Step, way: Way) -> WayOut:
        tool = self.solution.plan.tools[way.tool]
        angles = [tool.shown(m, d) for m, d in (("swing", way.swing_deg), ("tilt", way.tilt_deg))]  # type: ignore[arg-type]
        text = lying(way.pose, sides_of(self.solution, step.part))
        others = len({one.tool for one in step.ways}) > 1
        return WayOut(
            id=way.id,
            text=f"{text}, keep {way.kept}" + (f": {tool.name}" if others else ""),
            setting=" / ".join(self.voice.say_angle(angle) for angle in angles),
            misses=[words.miss_text(miss, tool, self.voice) for miss in way.misses],
            chosen=step.way is not None and step.way.id == way.id,
            acts=[_choose(f"ways/{step.key.removeprefix('first ')}", way.id)],
        )

    def _outs(self, step: Step) -> list[OutOut]:
        """What to do where a limit is in the way: every sort of way round it once."""
        if step.way is not None and not step.way.misses and not step.way.jig:
            return []
        found: dict[str, OutOut] = {}
        for way in sorted(step.ways, key=lambda w: w.tool != step.tool):
            if way.misses or (step.way and way.id == step.way.id) or not self.solution.plan.tools[way.tool].picked:
                continue
            kind = way.jig or (
                "tool" if way.tool != step.tool else "turn" if step.way and way.pose.stance == step.way.pose.stance else "stand"
            )
            if kind not in found:
                found[kind] = self._out(step, way, kind)
        if step.work == "taper" and step.way:
            found["sled"] = self._sled(step)
        if step.work in ENDS_OF_BOARDS:
            marks = self._marks(step)
            found["lines"] = OutOut(id="lines", title="Mark lines and saw by hand", text="Mark the line on the face and on both edges, then a hand saw on the waste side.",
                                    setting="", views=[], figures=marks, acts=[])  # fmt: skip
        return list(found.values())

    def _out(self, step: Step, way: Way, kind: str) -> OutOut:
        tool = self.solution.plan.tools[way.tool]
        one = self._way(step, way)
        title = {
            "wedge": "A wedge between fence and board", "square": "The board square to the fence", "tool": f"With another tool: {tool.name}",
            "turn": "Roll the board over", "stand": "Stand the board up",
        }[kind]  # fmt: skip
        views: list[ViewOut] = []
        figures: list[EdgeOut] = []
        text = one.text
        if kind == "wedge":
            wedge = wedge_for(way.wedge_deg)
            views = [view_out(wedge_view(way.wedge_deg), self.voice)]
            figures = [
                EdgeOut(label="Wedge", figure=self.voice.angle(wedge.angle_deg, 4), note="between its two sides"),
                EdgeOut(label="Along the fence", figure=self.voice.length(wedge.long_mm), note="from its point"),
                EdgeOut(
                    label="At its thick end",
                    figure=self.voice.length(wedge.thick_mm),
                    note="square to the fence: mark both, saw the line, plane it straight",
                ),
            ]
            text = f"{one.text}. Screw a block to the wedge's thick end to hold the stock, and clamp the wedge to the fence."
        if kind == "square":
            text = f"{one.text}. The end is held to the fence, the board lies towards you: what the saw then swings is the rest to 90°. A carrier with a fence at its end holds it."
        if not views:
            views = [view_out(view, self.voice) for view in self._drawn(step, way)[:1]]
        return OutOut(id=way.id, title=title, text=text, setting=one.setting, views=views, figures=figures, acts=one.acts)

    def _drawn(self, step: Step, way: Way) -> tuple[Any, ...]:
        other = step.but(way=way, stop=None)
        if other.line:
            return line_views(self.plan.raws[step.part], other, self._said(other))
        tool = self.solution.plan.tools[way.tool]
        return end_views(
            self.plan.raws[step.part], other, tool.fence_place, self._made_before(step), self._said(other.but(tool=way.tool))
        )

    def _sled(self, step: Step) -> OutOut:
        """A tapered side on a sled."""
        assert step.way
        facts, angle = self.facts[step.part], abs(step.way.swing_deg)
        long = facts.board.section.width_mm
        view = view_out(sled_view(angle, long, facts.extent[0]), self.voice)
        return OutOut(id="sled", title="On a tapering sled", text="The sled runs along the rip fence; the board lies on it turned by the taper, against a stop.",
                      setting=self.voice.say_angle(angle), views=[view], figures=[], acts=[])  # fmt: skip

    def _marks(self, step: Step) -> list[EdgeOut]:
        """The cut without a protractor."""
        facts = self.facts.get(step.part)
        if not facts or not step.end or facts.board.panel or facts.board.stave:
            return []
        names, found = sides_of(self.solution, step.part), []
        offsets = offsets_of(facts, step.end, step.index)
        over = ((offsets.over_face_mm, offsets.face_rise, offsets.width_mm, names["face"], names["lower"], names["upper"]),
                (offsets.over_edge_mm, offsets.edge_rise, offsets.thickness_mm, "edges", names["back"], names["face"]))  # fmt: skip
        for mm, rise, across, side, longer, shorter in over:
            if abs(mm) < NOTHING:
                continue
            end = longer if mm > 0 else shorter
            note = (
                f"farther out on the {end}, over {self.voice.say(across)}; {abs(rise):.2f} in 100, or {abs(rise) / 100:.4f} in 1"
            )
            found.append(EdgeOut(label=f"Offset across the {side}", figure=self.voice.length(abs(mm)), note=note))
        if not found:
            found.append(
                EdgeOut(
                    label="Square line", figure=self.voice.angle(0.0), note="all round, with a square from the face and one edge"
                )
            )
        return found

    def _seats(self, facts: PartFacts) -> list[EdgeOut]:
        """Where other parts land, as running marks from one finished end; laps on both members."""
        names, found = sides_of(self.solution, facts.key), []
        for board, seats in facts.seats.items():
            for seat in seats:
                other = board_tag(self.solution, seat.board)
                where = names.get(seat.side, "rabbet")
                mine = f", {board_tag(self.solution, board)}" if len(facts.seats) > 1 else ""
                found.append(
                    EdgeOut(
                        label=f"{other} lands{mine}",
                        figure=self.voice.length(seat.from_mm),
                        note=f"to {self.voice.say(seat.to_mm)} from the left end, on the {where}",
                    )
                )
        for lap in facts.laps:
            found.append(
                EdgeOut(
                    label="Lap",
                    figure=self.voice.length(lap.near_mm),
                    note=f"to {self.voice.say(lap.far_mm)} from the left end, on the {names['lower']}",
                )
            )
        for row in facts.holes:
            at = ", ".join(self.voice.say(mm) for mm in row.along_mm)
            found.append(
                EdgeOut(
                    label="Holes", figure=self.voice.length(row.up_mm), note=f"above the {names['lower']}; from the left end {at}"
                )
            )
        return found

    def _scribe(self, step: Step) -> ControlOut | None:
        wishes = self.solution.plan.workshop.wishes
        on = step.part in wishes.scribed
        from fennup.app.schemas.sheet import OptionOut

        options = [
            OptionOut(code=code, label=label, acts=[_choose(f"scribed/{step.part}", value)], chosen=on == value, picture=None)
            for code, label, value in (
                ("by_plan", "by the plan", False),
                ("to_opening", "to the opening, after the dry fit", True),
            )
        ]
        return ControlOut(id=f"scribed:{step.part}", label="Cut to length", group="part", group_label="", whose="", about=step.part, options=options,
                          figure=None, unit=None, acts=None, style="pick", standing="given")  # fmt: skip


def setting_words(tool: AnyTool, way: Way | RipWay, voice: Voice) -> str:
    """What a way asks of its tool, in one line."""
    swing = f"{spoken(voice.angle(tool.shown('swing', way.swing_deg)))} / " if isinstance(way, Way) else ""
    return f"{swing}{spoken(voice.angle(tool.shown('tilt', way.tilt_deg)))}"
