"""The Log in words: the story, hours, as made, lessons, cost, what goes out."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from functools import cached_property

from fennup.app.schemas.fit import LineOut
from fennup.app.schemas.log import FileOut, LogOut, OftenOut
from fennup.app.services import documents
from fennup.app.services.bench_sheet import BenchSheet
from fennup.app.services.exports import EXPORTS
from fennup.app.services.finish_sheet import FinishSheet
from fennup.app.services.lessons import Learned, about_options, lessons_out, tool_names
from fennup.app.services.log_cost import CostSheet, sheet_controls
from fennup.app.services.log_story import LogStory
from fennup.app.wording import log as words
from fennup.app.wording.acts import did_words
from fennup.app.wording.finish import hours as in_hours
from fennup.app.wording.finish import how_many
from fennup.core.exchange.boards_forms import BoardsDocument
from fennup.core.exchange.log_document import LogDocument, log_document
from fennup.core.log.later import coat_again
from fennup.core.log.wishes import LogWishes
from fennup.core.records.entry import BatchBody, Entry
from fennup.core.records.fold import live


@dataclass(frozen=True)
class LogSheet:
    """A project's log, ready to be worded. `now` has a zone; `boards`: the plan of its boards, where there is one."""

    project: str
    wishes: LogWishes
    bench: BenchSheet
    finish: FinishSheet
    entries: Sequence[Entry]
    boards: BoardsDocument | None
    learned: Learned
    slips: list[OftenOut]
    now: datetime
    currency: str

    @cached_property
    def story(self) -> LogStory:
        """What happened."""
        tools = tool_names(self.bench.saw)
        return LogStory(
            self.bench,
            self.finish.finish,
            self.entries,
            self.bench.saw.voice,
            self.now,
            lambda note: words.about_name(note.about, tools) if note.about else "",
        )

    @cached_property
    def cost(self) -> CostSheet:
        """What it costs."""
        hours = (sum(self.story.made_h.values()), sum(self.story.planned_h.values()))
        return CostSheet(
            self.wishes,
            self.finish.finish,
            self.finish.fasten,
            self.boards,
            self.project,
            hours,
            self.bench.saw.voice,
            self.currency,
        )

    def document(self) -> LogDocument:
        """As figures."""
        cost = self.cost.cost if self.boards else None
        return log_document(self.entries, self.now, self.story.about, cost)

    def out(self, state: documents.State, undo: str | None) -> LogOut:
        """All of it."""
        voice, days = self.bench.saw.voice, self.story.days()
        return LogOut(
            version=state.version,
            undo=undo or did_words(state.undo, voice),
            redo=did_words(state.redo, voice),
            foot=self._foot(len(days)),
            days=days,
            clock=self.story.clock(),
            batches=self._batches(),
            due=self._due(),
            batch_kinds=list(words.BATCHES.items()),
            use_kinds=[(code, name, words.USE_UNITS.get(code, "")) for code, name in words.USES.items()],
            about=about_options(self.bench.saw, self.finish.finish),
            made=self.story.made(),
            changed=self.story.changed(),
            texts=[
                ("source", "Whose plan it is made after", self.wishes.source),
                ("for_whom", "For whom", self.wishes.for_whom),
                ("care", "How to look after it", self.wishes.care),
            ],
            lessons=lessons_out(self.learned, self.project, tool_names(self.bench.saw)),
            slips=self.slips,
            cost=self.cost.out(),
            sheet=sheet_controls(self.wishes),
            files=[
                FileOut(sort=sort, group=one.group, title=one.title, about=one.about, long=one.long)
                for sort, one in EXPORTS.items()
            ],
        )

    def for_client(self) -> list[str]:
        """What stands on the sheet for whoever it is for, below its sizes."""
        finish, wishes = self.finish.finish, self.wishes
        coats = f"{finish.recipe.name}, {how_many(finish.coats, 'coat')}" if finish.recipe and finish.coats else "left bare"
        lines = [f"Wood: {finish.wishes.wood}", f"Finish: {coats}"]
        if finish.recipe and finish.coats:
            lines.append(f"Coat it again after about {finish.recipe.years:g} years, sooner where it wears.")
        lines += [f"Care: {wishes.care}"] if wishes.care else []
        lines += [f"For {wishes.for_whom}"] if wishes.for_whom else []
        if wishes.say_price and wishes.sale_money is not None:
            lines.append(f"Price: {words.money(wishes.sale_money, self.cost.currency)}")
        return lines

    def _foot(self, days: int) -> str:
        hours = sum(self.story.made_h.values())
        forgotten = sum(s.how == "forgotten" for s in self.story.stretches)
        if forgotten:
            return "The clock was forgotten: say how long it really was."
        if not days:
            return "Nothing has happened yet."
        return f"{how_many(days, 'day')}, {in_hours(hours) if hours else 'no hours by the clock yet'}"

    def _batches(self) -> list[LineOut]:
        """What it was really made of."""
        return [
            LineOut(text=f"{words.BATCHES[e.body.what]}: {e.body.name}", figure=e.body.much, note=e.body.batch)
            for e in live(self.entries)
            if isinstance(e.body, BatchBody)
        ]

    def _due(self) -> list[LineOut]:
        """When it is coated again, by what the recipe says."""
        recipe = self.finish.finish.recipe
        due = coat_again(self.entries, recipe.years) if recipe else None
        if recipe is None or due is None:
            return []
        late = due <= self.now.date()
        text = "Coat it again: it is due" if late else "Coat it again"
        note = f"{recipe.years:g} years after the last coat ({recipe.name}, your table); sooner where it wears."
        return [LineOut(text=text, figure=f"{due:%B %Y}", note=note, tone="near" if late else "none")]


def is_own(entry: Entry) -> bool:
    """Whether an entry was written in the log, so that it is taken back there."""
    return entry.type in ("note", "photo", "clock", "hours", "batch", "use", "reminded")
