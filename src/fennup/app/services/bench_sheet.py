"""The bench: all that it needs to go on without the server, in words."""

from dataclasses import dataclass, replace
from functools import cached_property

from fennup.app.models.tables import Record
from fennup.app.schemas.api import RecordOut
from fennup.app.schemas.bench import BenchOut, BenchPieceOut, BenchStepOut, CheckOut, OutcomeOut, RulerOut, TaskOut
from fennup.app.schemas.saw import ReminderOut
from fennup.app.schemas.sheet import ViewOut
from fennup.app.services.bench_checks import check_out
from fennup.app.services.part_cards import board_tag, part_name
from fennup.app.services.step_cards import step_views
from fennup.app.services.steps_sheet import SawSheet
from fennup.app.wording import bench as words
from fennup.app.wording.boards import board_title
from fennup.app.wording.members import sides_of
from fennup.app.wording.names import listed
from fennup.app.wording.problems import reading_refusals
from fennup.app.wording.verdicts import closing_line
from fennup.core.bench.picture import outline
from fennup.core.bench.rescue import opened_again, other_uses, there_already
from fennup.core.bench.task import Check, Task
from fennup.core.bench.tasks import tasks_for
from fennup.core.exchange.boards_forms import BoardsDocument, OffcutForm
from fennup.core.parts.facts import PartFacts
from fennup.core.records.entry import Put, WrongBody
from fennup.core.tolerances import ON_LINE


@dataclass(frozen=True)
class BenchSheet:
    """A project at the bench; `boards`: the plan of its boards, where there is one."""

    saw: SawSheet
    boards: BoardsDocument | None

    @cached_property
    def tasks(self) -> tuple[Task, ...]:
        """Everything that is done, in order."""
        return tasks_for(self.saw.solution.design, self.saw.solution.plan, self.saw.plan)

    @cached_property
    def _by_piece(self) -> dict[str, list[Task]]:
        found: dict[str, list[Task]] = {}
        for task in self.tasks:
            if task.piece and task.doing == "step":
                found.setdefault(task.piece, []).append(task)
        return found

    def out(
        self,
        project: str,
        name: str,
        based_on: str,
        records: list[Record],
        practice: str = "",
        reminders: dict[str, ReminderOut] | None = None,
    ) -> BenchOut:
        """All of it."""
        voice = self.saw.voice
        checks: dict[tuple[str, Check], int] = {}
        places = {step.key: k for k, step in enumerate(self.saw.plan.steps)}
        tasks = [
            self._task(task, places[task.step], [checks.setdefault((task.step, c), len(checks)) for c in task.checks])
            for task in self.tasks
        ]
        tape = voice.tape
        return BenchOut(
            project=project,
            name=name,
            based_on=based_on,
            closing=closing_line(self.saw.solution, None, voice),
            ruler=RulerOut(
                unit=tape.unit,
                graduation_mm=tape.graduation_mm,
                parts=tape.graduation.denominator,
                refusals=reading_refusals(voice),
            ),
            steps=[self._step(step.key) for step in self.saw.plan.steps],
            checks=[self._check(key, check) for key, check in checks],
            tasks=tasks,
            pieces=[self._piece(facts, piece) for facts in self.saw.facts.values() for piece in facts.group.boards],
            practice=practice,
            reminders=reminders or {},
            records=[RecordOut.model_validate(record, from_attributes=True) for record in records],
        )

    def _step(self, key: str) -> BenchStepOut:
        step = self.saw.step(key)
        own = self.saw.by_key[key]
        shown = self.saw.plan.steps[self.saw.plan.steps.index(own) + 1] if own.work == "test" else own
        views = [for_any_piece(view) for view in step_views(self.saw, shown, close=True)]
        exact = [f"{s.label} {s.note.removeprefix(words.EXACTLY)}" for s in step.sets if s.note.startswith(words.EXACTLY)]
        notes = [words.EXACT.format(figures=", ".join(exact))] if exact else []
        notes += [s.note for s in step.sets if s.note and not s.note.startswith(words.EXACTLY)]
        sets = [s.model_copy(update={"text": words.SHORT[s.label]}) if s.label in words.SHORT else s for s in step.sets]
        return BenchStepOut.model_validate({**step.model_dump(), "views": views, "sets": sets, "notes": notes})

    def _check(self, key: str, check: Check) -> CheckOut:
        step = self.saw.by_key[key]
        stop = "the stop" if self.saw.at_stop(step) else "the line"
        return check_out(check, step, self.saw.facts.get(step.part), self.saw, stop)

    def _task(self, task: Task, place: int, checks: list[int]) -> TaskOut:
        tag = board_tag(self.saw.solution, task.piece) if task.piece else ""
        stays = words.SAME_AGAIN if self.saw.by_key[task.step].position else words.ALIKE_AGAIN
        again = self._together(task) if task.doing == "together" else stays.format(tag=tag) if task.doing == "step" else ""
        return TaskOut(
            key=task.key,
            doing=task.doing,
            work=task.work,
            step=place,
            piece=task.piece,
            tag=tag,
            title=self._title(task, tag),
            what=self._what(task),
            again=again,
            first=task.first,
            fingerprint=task.fingerprint,
            checks=checks,
            shave=self._shave(task),
        )

    def _title(self, task: Task, tag: str) -> str:
        if task.doing == "try":
            return "Test cut in scrap"
        if task.doing == "together":
            return f"{part_name(self.saw.solution, self.saw.facts[task.part].group)}: together"
        title = f"{tag}, {self._what(task)}" if tag else self._what(task)
        return title[:1].upper() + title[1:]

    def _what(self, task: Task) -> str:
        if task.doing == "together":
            return "together"
        step = self.saw.by_key[task.step]
        edge = f", {sides_of(self.saw.solution, step.part)[step.edge]}" if step.edge else ""
        return f"{self.saw.what(step).removesuffix(', the first')}{edge}"

    def _together(self, task: Task) -> str:
        pieces = self.saw.facts[task.part].group.boards
        tags = listed([board_tag(self.saw.solution, piece) for piece in pieces])
        return f"{words.TOGETHER.format(count=len(pieces), tags=tags)} {words.TOGETHER_LIES}"

    def _piece(self, facts: PartFacts, piece: str) -> BenchPieceOut:
        own = self._by_piece.get(piece, [])
        return BenchPieceOut(
            key=piece,
            tag=board_tag(self.saw.solution, piece),
            name=self.saw.solution.design.assembly.board(piece).name,
            outline=list(outline(facts)),
            tasks=[task.key for task in own],
            measured=[task.key for task in own if any(check.what == "length" for check in task.checks)],
            outcomes=self._outcomes(facts, piece),
        )

    def _shave(self, task: Task) -> OutcomeOut | None:
        """An end that can be cut once more a little nearer."""
        if not task.checks or task.doing != "step" or task.work == "rip":
            return None
        stop = "the stop" if self.saw.at_stop(self.saw.by_key[task.step]) else "the line"
        title, text = words.OUTCOMES["shave"]
        sets = (Put(key=task.key, to="open", fingerprint=task.fingerprint),)
        return self._outcome(WrongBody(way="shave", piece=task.piece, sets=list(sets)), title, text.format(stop=stop))

    def _outcome(
        self, body: WrongBody, title: str, text: str, needs: float | None = None, open: tuple[str, ...] = ()
    ) -> OutcomeOut:
        said = body.model_copy(update={"text": title})
        return OutcomeOut(
            way=body.way,
            title=title,
            text=text,
            needs=needs,
            at_least=words.AT_LEAST.format(long=self.saw.voice.say_at_least(needs)) if needs is not None else "",
            open=list(open),
            body=said.model_dump(mode="json", exclude={"measured"}),
        )

    def _outcomes(self, facts: PartFacts, piece: str) -> list[OutcomeOut]:
        """What a piece that is wrong can become, or out of what it is made anew."""
        together = [task.key for task in self.tasks if task.doing == "together" and task.part == facts.key]
        anew = [Put(key=key, to="open") for key in (*opened_again(self.tasks, piece), *together)]
        found = []
        length = next((c for t in self._by_piece.get(piece, []) for c in t.checks if c.what == "length"), None)
        kerf = self.saw.solution.plan.workshop.kerf_mm
        uses = other_uses(facts, length, tuple(self.saw.facts.values()), kerf) if length else ()
        for use in uses:
            print_ = self.saw.facts[use.part].fingerprint
            for other in use.pieces:
                done = [Put(key=key, to="cut", fingerprint=print_) for key in there_already(self.tasks, other)]
                title, text = words.OUTCOMES["use"]
                body = WrongBody(way="use", piece=piece, other=other, sets=[*anew, *done])
                title = title.format(other=board_tag(self.saw.solution, other))
                found.append(self._outcome(body, title, text, use.needs_mm, opened_again(self.tasks, other)))
        title, _ = words.OUTCOMES["recut"]
        source = self.source(piece)
        found.append(self._outcome(WrongBody(way="recut", piece=piece, sets=anew, source=source), title, source))
        title, text = words.OUTCOMES["keep"]
        found.append(self._outcome(WrongBody(way="keep", piece=piece), title, text))
        return found

    def source(self, piece: str) -> str:
        """The shortest offcut of the plan that the piece comes out of; else a new board."""
        if self.boards is None or piece not in self.saw.placed:
            return words.FROM_NEW
        needs = self.saw.placed[piece].rough_mm
        section = self.saw.solution.design.boards[piece].section
        fitting = []
        for board in self.boards.boards:
            for cut in board.offcuts:
                if _holds(cut, needs, section.width_mm, section.thickness_mm):
                    fitting.append((cut.to_mm - cut.from_mm, board_title(board.name, board.source)))
        if not fitting:
            return words.FROM_NEW
        long, name = min(fitting)
        return words.FROM_OFFCUT.format(board=name, long=self.saw.voice.say(long))


def for_any_piece(view: ViewOut) -> ViewOut:
    """The picture with KEEP alone on the wood: of which piece, the task says."""
    marks = [replace(m, text=words.KEEP) if m.text.startswith(f"{words.KEEP} ") else m for m in view.marks]
    return view.model_copy(update={"marks": marks})


def _holds(offcut: OffcutForm, long_mm: float, wide_mm: float, thick_mm: float) -> bool:
    """Whether a piece comes out of an offcut as it is, or ripped."""
    thick = abs(offcut.thickness_mm - thick_mm) <= ON_LINE
    return thick and offcut.width_mm >= wide_mm - ON_LINE and offcut.to_mm - offcut.from_mm >= long_mm
