"""Somebody's plan in words: read from text, checked, and what it should say."""

import re
from collections.abc import Sequence
from contextlib import suppress

from fennup.app.schemas.plan_check import PlanChecked, PlanLineIn, PlanLineRead, PlanRead, PlanVerdict, SayableOut
from fennup.app.services.drawings import control_out
from fennup.app.services.part_cards import part_name
from fennup.app.services.projects import USUAL_GRADUATION
from fennup.app.services.said_lines import best_called, pairs_in
from fennup.app.services.validate import from_core
from fennup.app.wording.figures import Voice, spoken
from fennup.app.wording.finish import how_many
from fennup.app.wording.labels import naming_of
from fennup.app.wording.names import listed
from fennup.core.editing import read_figure
from fennup.core.errors import SpecError, UnitError
from fennup.core.plan import plan_with
from fennup.core.plancheck.check import Checked, Explanation, Stated, Verdict, check_plan
from fennup.core.plancheck.stated import Sayable, exactness, sayables
from fennup.core.project.describe import describe
from fennup.core.project.spec import ProjectSpec
from fennup.core.project.starts import start_spec
from fennup.core.solve import Solution, designed
from fennup.core.units.angles import parse_angle_deg
from fennup.core.units.lengths import Unit, tape
from fennup.core.workshop import Workshop

UNTRIED = "There are more ways to explain it than were tried: check fewer figures at once."
UNTOLD = 1e-4  # off by less is not told
PART_WORDS = {
    "longest": "longest edge", "shortest": "shortest edge", "overall": "over all, tip to tip", "miter": "miter", "bevel": "bevel, the blade's tilt",
    "width": "wide, before it is ripped", "thickness": "thick", "count": "how many",
}  # fmt: skip


# Words for an angle, and words beside which they are none: up the slope one measures a length.
ANGLE_WORDS = {"slope", "angle", "miter", "mitre", "bevel", "tilt", "splay", "pitch", "lean", "spring", "slant"}
LENGTH_WORDS = {"up", "along", "length", "long", "edge", "face", "down", "over", "slant"}
STEEPEST_DEG = 90.0


def _is_bare_angle(name: str, value: str) -> bool:
    """Whether a number without a unit stands beside a word for an angle."""
    words = set(re.findall(r"[a-z]+", name.lower()))
    if not words & ANGLE_WORDS or words & LENGTH_WORDS:
        return False
    with suppress(UnitError):
        return parse_angle_deg(value) <= STEEPEST_DEG
    return False


class PlanDesk:
    """A start to check a plan against. Invalid where there is none of that name."""

    def __init__(self, start: str, unit: Unit) -> None:
        try:
            self.spec = start_spec(start)
        except SpecError as error:
            raise from_core(error, Voice(tape("mm", "1"))) from None
        settled, design = designed(self.spec)
        self.voice = Voice(tape(unit, USUAL_GRADUATION[unit]), naming_of(settled))
        self.solution = Solution(settled, design, plan_with(design, Workshop()))
        self.known: dict[str, Sayable] = {one.key: one for one in sayables(settled, design)}
        self.labels = self._labels()

    def _labels(self) -> dict[str, str]:
        """What everything that can be said is called."""
        solution, voice = self.solution, self.voice
        described = describe(solution.spec, solution.design.assembly, solution.design.solids)
        controls = {f"field:{getattr(c.acts, 'path', '')}": c for c in described.controls}
        parts = {facts.key: part_name(solution, facts.group) for facts in solution.design.facts}
        found: dict[str, str] = {}
        for key in self.known:
            sort, _, rest = key.partition(":")
            if sort == "size":
                label = voice.label(rest)
            elif sort == "field":
                control = control_out(controls[key], voice)
                label = f"{control.group_label}: {control.label[:1].lower()}{control.label[1:]}"
            else:
                part, _, what = rest.rpartition(":")
                label = f"{parts[part]}: {PART_WORDS[what]}"
            found[key] = f"{label[:1].upper()}{label[1:]}"
        return found

    def options(self) -> list[SayableOut]:
        """All of it."""
        return [SayableOut(key=key, label=self.labels[key], unit=one.unit) for key, one in self.known.items()]

    def read(self, text: str) -> PlanRead:
        """What a text or a table says."""
        lines: list[PlanLineRead] = []
        left: list[str] = []
        for name, value in pairs_in(text):
            if not value:
                left.append(name)
                continue
            degrees = any(sign in value.lower() for sign in ("°", "deg")) or _is_bare_angle(name, value)
            fitting = {key: label for key, label in self.labels.items() if not degrees or self.known[key].unit == "deg"}
            key = best_called(name, fitting, {line.key for line in lines})
            lines.append(PlanLineRead(text=name, value=value, key=key))
        return PlanRead(lines=lines, left=left, options=self.options())

    def check(self, lines: Sequence[PlanLineIn]) -> PlanChecked:
        """What of these figures cannot be. Invalid names the line."""
        stated = [self._stated(number, line) for number, line in enumerate(lines)]
        try:
            checked = check_plan(self.spec, stated)
        except SpecError as error:
            data = {**error.data, "name": self.labels.get(str(error.data.get("key", "")), "")}
            raise from_core(SpecError(error.code, error.fields, **data), self.voice) from None
        texts = {line.key: line.value for line in lines}
        return PlanChecked(
            headline=self._headline(checked),
            tone="wrong" if checked.best.wrong else "right",
            lines=[self._verdict(verdict, texts) for verdict in checked.best.verdicts],
            others=[*(self._other(other) for other in checked.others), *([] if checked.complete else [UNTRIED])],
            taken=self._taken(checked.best.spec),
            spec=checked.best.spec.model_dump(mode="json"),
        )

    def _stated(self, number: int, line: PlanLineIn) -> Stated:
        known = self.known.get(line.key)
        if known is None:
            raise from_core(SpecError("no_such_figure", (f"lines.{number}.key",)), self.voice)
        path = {"mm": "value_mm", "deg": "value_deg", "count": "value"}[known.unit]
        try:
            value = float(read_figure(path, line.value, self.voice.tape, False))
        except UnitError as error:
            raise from_core(UnitError(error.code, (f"lines.{number}.value",), **error.data), self.voice) from None
        mm_each = 25.4 if self.voice.tape.unit == "in" else 1.0
        return Stated(line.key, value, exactness(line.value, known.unit, mm_each))

    def _say(self, value: float, key: str) -> str:
        unit = self.known[key].unit
        return self.voice.say(value) if unit == "mm" else self.voice.say_angle(value) if unit == "deg" else f"{value:.0f}"

    def _exactly(self, value: float, key: str) -> str:
        """What a figure is: to a hundredth; in inches also to the thousandth."""
        if self.known[key].unit != "mm":
            return self._say(value, key)
        if self.voice.tape.unit == "mm":
            return f"{value:.2f}".rstrip("0").rstrip(".") + " mm"
        return f"{spoken(self.voice.length(value))} ({value / 25.4:.3f}″)"

    def _verdict(self, verdict: Verdict, texts: dict[str, str]) -> PlanVerdict:
        key = verdict.stated.key
        off = verdict.off
        sign = "+" if off > 0 else "−"
        told = f"{sign}{self._small(abs(off), key)}" if abs(off) > UNTOLD else ""
        if verdict.true is None:
            note, tone = "There is no such part any more with these figures.", "none"
        elif verdict.wrong:
            note, tone = f"It says {texts[key]}; by the others it is {self._exactly(verdict.true, key)}.", "wrong"
        elif verdict.used:
            note, tone = "", "right"
        else:
            note, tone = ("within the rounding" if told else ""), "right"
        return PlanVerdict(
            key=key, label=self.labels[key], stated=texts[key], off=told, tone=tone, note=note,
            true="" if verdict.true is None else self._exactly(verdict.true, key),
        )  # fmt: skip

    def _small(self, off: float, key: str) -> str:
        unit = self.known[key].unit
        return self.voice.small(off) if unit == "mm" else f"{off:.2f}°" if unit == "deg" else f"{off:.0f}"

    def _headline(self, checked: Checked) -> str:
        wrong = checked.best.wrong
        if not wrong:
            return "All of it can be true at once."
        if checked.others:
            return f"Not all of it can be true: {how_many(len(wrong), 'figure')} must be wrong, most likely {self._named(checked.best)}."
        return f"Not all of it can be true: {self._named(checked.best)} cannot be."

    def _named(self, explanation: Explanation) -> str:
        names = [self.labels[key] for key in explanation.wrong]
        return listed([f"“{name}”" for name in names])

    def _other(self, explanation: Explanation) -> str:
        said = [
            f"“{self.labels[v.stated.key]}” is {self._exactly(v.true, v.stated.key)}"
            for v in explanation.verdicts
            if v.wrong and v.true is not None
        ]
        return f"Or {listed(said)}, and the rest is as the plan says."

    def _taken(self, spec: ProjectSpec) -> list[str]:
        """Sizes that the plan leaves open."""
        settled, design = designed(spec)
        rows = describe(settled, design.assembly, design.solids).sizes
        say = {"mm": self.voice.say, "deg": self.voice.say_angle}
        return [f"{self.voice.label(row.measure)}: {say[row.unit](row.value)}" for row in rows if row.standing == "suggested"]
