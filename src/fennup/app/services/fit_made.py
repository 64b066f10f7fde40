"""As made: every part's sizes, what must change, ways out, repeats and hands, in words and with the records that saying yes adds."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cached_property

from fennup.app.schemas.fit import (
    AgreedOut,
    AgreeOut,
    BadOut,
    ChangeOut,
    HandsOut,
    LaidOut,
    LineOut,
    MadeOut,
    MadePartOut,
    MadeRowOut,
    OfferedRecord,
    StrayOut,
    Tone,
    WayOutOut,
)
from fennup.app.schemas.sheet import ViewOut
from fennup.app.services.drawings import view_out
from fennup.app.services.part_cards import board_tag
from fennup.app.services.validate import Invalid
from fennup.app.wording import fit_made as told
from fennup.app.wording.fit import FitWords
from fennup.app.wording.members import end_word
from fennup.core.bench.rescue import opened_again, there_already
from fennup.core.fit.drawn import hands_view, picture_view
from fennup.core.fit.fitting import Change, Fit, changes_of
from fennup.core.fit.made import within_reason
from fennup.core.fit.meeting import Offs
from fennup.core.fit.repeats import Laid
from fennup.core.fit.state import MADE, MIRRORED, MadeRow
from fennup.core.fit.ways import WayOut, shave
from fennup.core.parts.facts import PartFacts
from fennup.core.records.entry import AgreedBody, Put, ReadBody, WrongBody
from fennup.core.records.fold import live
from fennup.core.solve import Solution
from fennup.core.tolerances import SAME

Source = Callable[[str], str]
Again = Callable[[Mapping[str, float]], Solution]
ONLY_SHOWN_MM = 0.005


@dataclass(frozen=True)
class FitMade:
    """What was made. `again`: the project solved with some sizes as they are built; Invalid where that has no solution. `source`: out of which board a
    piece can be cut again, in words."""

    fit: Fit
    words: FitWords
    again: Again | None = None
    source: Source | None = None

    def out(self) -> MadeOut:
        """All of it."""
        text, tone = told.made_headline(self.fit, self.words)
        built = self._sizes()
        if built and not self.fit.offs:
            text, tone = "What is there is built otherwise than it was drawn: what stands on it follows.", "near"
        return MadeOut(
            headline=text,
            tone=tone,
            parts=[self._part(board, rows) for board, rows in self.fit.standing.rows.items()],
            proposals=[*self._proposed(), *built],
            agreed=[
                AgreedOut(text=entry.body.text or "Agreed.", record=entry.id)
                for entry in live(self.fit.entries)
                if isinstance(entry.body, AgreedBody)
            ],
            bad=[self._bad(board) for board in self.fit.bad],
            laid=[self._laid(laid) for laid in self.fit.laid],
            hands=[
                HandsOut(
                    text=told.hands_text(h, self.words), view=view_out(hands_view(self.fit, h.part, h.other), self.words.voice)
                )
                for h in self.fit.hands
            ],
            strays=[
                StrayOut(text=f"{entry.key}: read {entry.body.typed or entry.body.measured}", record=entry.id)
                for entry in self.fit.standing.strays
                if isinstance(entry.body, ReadBody)
            ],
        )

    @cached_property
    def _facts(self) -> dict[str, PartFacts]:
        return {id: facts for facts in self.fit.design.facts for id in facts.group.boards}

    def _name(self, id: str) -> str:
        return self.fit.design.assembly.board(id).name

    def _part(self, board: str, rows: tuple[MadeRow, ...]) -> MadePartOut:
        cut = [end for end in ("left", "right") if f"{board} {end}" in self.fit.standing.bench.cut]
        whole = self.fit.standing.bench.is_cut(self.fit.design.boards[board])
        scribed = board in self.fit.scribed
        state = (
            "cut" if whole else "cut to the opening, after the dry fit" if scribed else "one end cut" if cut else "not cut yet"
        )
        return MadePartOut(
            board=board,
            tag=board_tag(self.words.solution, board),
            name=self._name(board),
            state=state,
            bad=board in self.fit.bad,
            mirror_key=f"{MADE}{board}{MIRRORED}",
            mirrored=entry.id if (entry := self.fit.standing.mirrored.get(board)) else "",
            rows=[self._row(row) for row in rows],
        )

    def _row(self, row: MadeRow) -> MadeRowOut:
        unit = "deg" if row.off.is_angle else "mm"
        figure = self.words.voice.angle if row.off.is_angle else self.words.voice.length
        entry = next((e for e in reversed(live(self.fit.entries)) if e.key == row.key), None) if row.came == "typed" else None
        return MadeRowOut(
            key=row.key,
            label=told.row_label(row.off, self.words),
            unit=unit,
            expected=figure(row.planned),
            value=None if row.read is None else figure(row.read),
            came=row.came,
            came_text=told.CAME[row.came],
            record=entry.id if entry else "",
        )

    # What must change.

    def _change(self, change: Change) -> ChangeOut:
        say = self.words.exact
        note = "Cut it to the opening: this figure is a check against blunders." if change.scribed else ""
        same = abs(change.new_mm - change.old_mm) < ONLY_SHOWN_MM
        return ChangeOut(
            board=change.board,
            name=self._name(change.board),
            old=say(change.old_mm),
            new="" if same else say(change.new_mm),
            angles=told.change_angles(change, self.words),
            note=note,
        )

    def _proposed(self) -> list[AgreeOut]:
        settled = self.fit.settled
        sound = all(within_reason(off, by) for off, by in self.fit.proposed.items())
        if not settled.closes or not settled.told or self.fit.open_mm <= SAME or not sound:
            return []
        text = "What is cut stays as it is. These are still to cut; cut so, the whole closes, by the smallest change."
        names = ", ".join(dict.fromkeys(self._name(c.board) for c in self.fit.changes))
        body = AgreedBody(
            changes={off.key: by for off, by in self.fit.proposed.items()},
            text=f"Cut otherwise, so that it closes: {names}"[:200],
        )
        offered = OfferedRecord(key="as made", type="agreed", body=body.model_dump(mode="json"))
        return [
            AgreeOut(title="So that it closes", text=text, changes=[self._change(c) for c in self.fit.changes], records=[offered])
        ]

    def _sizes(self) -> list[AgreeOut]:
        """Sizes of what is there already, read as they are built: the parts that follow from them, worked out again."""
        read = {
            self.fit.sheet.by_key[key].names[0]: value
            for key, value in self.fit.values.items()
            if self.fit.sheet.by_key[key].kind == "size"
        }
        agreed = self.fit.standing.sizes
        new = {m: v for m, v in read.items() if abs(v - agreed.get(m, self._planned(m))) > ONLY_SHOWN_MM}
        if not new or self.again is None:
            return []
        try:
            then = self.again({**agreed, **read})
        except Invalid as refused:
            text = " ".join(p.text for p in refused.problems)
            return [AgreeOut(title="As built", text=f"With these sizes there is no shape: {text}", changes=[], records=[])]
        changes = [c for board in self._facts if (c := self._resized(board, then))]
        body = AgreedBody(sizes={**agreed, **read}, text="Worked out again from the sizes as they are built")
        offered = OfferedRecord(key="as built", type="agreed", body=body.model_dump(mode="json"))
        text = "Worked out again from what you measured where it stands."
        return [AgreeOut(title="As built", text=text, changes=changes, records=[offered] if changes else [])]

    def _planned(self, measure: str) -> float:
        return next((e.value for e in self.fit.sheet.readings if e.kind == "size" and e.names[0] == measure), 0.0)

    def _resized(self, board: str, then: Solution) -> ChangeOut | None:
        """How a part differs in another solution: its long edge, and its angles."""
        if board not in then.design.boards or f"{board} left" in self.fit.standing.bench.cut:
            return None
        other = next((f for f in then.design.facts if board in f.group.boards), None)
        own = self._facts[board]
        if other is None or not own.arrises or not other.arrises:
            return None
        old, new = max(own.arrises.values()), max(other.arrises.values())
        angles = []
        for end in ("left", "right"):
            for a, b in zip(own.ends[end], other.ends[end], strict=False):
                if abs(a.miter_deg - b.miter_deg) > ONLY_SHOWN_MM:
                    name = end_word(self.fit.design.boards[board], end)
                    angles.append(f"{name}, miter {abs(a.miter_deg):.2f}° becomes {abs(b.miter_deg):.2f}°")
        if abs(old - new) < ONLY_SHOWN_MM and not angles:
            return None
        say = self.words.exact
        return ChangeOut(
            board=board, name=self._name(board), old=say(old), new=say(new), angles=angles, note="Along its long edge."
        )

    # Put right.

    def _bad(self, board: str) -> BadOut:
        own = [(off, by) for off, by in self.fit.standing.bench.offs.items() if off.board == board and abs(by) > ONLY_SHOWN_MM]
        said = []
        for off, by in own:
            size = f"{abs(by):.2f}°" if off.is_angle else self.words.small(by)
            what = {"length": "too long" if by > 0 else "too short", "thick": "too thick" if by > 0 else "too thin",
                    "wide": "too wide" if by > 0 else "too narrow"}.get(off.what, "off in angle")  # fmt: skip
            said.append(f"{size} {what}")
        name = self._name(board)
        if board in self.fit.standing.mirrored:
            said = ["cut the wrong way round: it is its own mirror image"]
        ways = self.fit.ways(board)
        return BadOut(
            board=board,
            name=name,
            text=f"{name}: {', '.join(said) if said else 'said to be wrong at the bench'}.",
            ways=[self._way(way, board, best=k == 0) for k, way in enumerate(ways)],
        )

    def _way(self, way: WayOut, board: str, *, best: bool) -> WayOutOut:
        after = dict(self.fit.offs)
        for off, by in way.changes.items():
            after[off] = after.get(off, 0.0) + by
        records = self._records(way, board)
        return WayOutOut(
            title=told.way_title(way, self.words, self.fit),
            text=self.source(board) if way.kind == "recut" and self.source else told.way_text(way, self.words, self.fit),
            cost=told.way_cost(way, self.words),
            best=best,
            changes=[self._change(c) for c in changes_of(self.fit.design, self.fit.offs, after)] if way.changes else [],
            shaves=self._shaves(way),
            records=records,
            yes=told.YES[way.kind] if records else "",
            view=self._view(way, board, after),
        )

    def _shaves(self, way: WayOut) -> list[str]:
        """How an end of a cut part is cut again: so much off at which setting."""
        said = []
        for off, by in way.changes.items():
            board = self.fit.design.boards[off.board]
            if off.what == "length" and off.end and by < 0 and self.fit.standing.bench.is_cut(board):
                card = shave(self.fit.design, {off: by}, off.board, off.end)
                if card:
                    end = end_word(board, off.end)
                    tilt = f", tilt {abs(card.tilt_deg):.2f}°" if abs(card.tilt_deg) > SAME else ""
                    said.append(
                        f"{self._name(off.board)}, {end}: take {self.words.small(card.off_mm)} off, swing {abs(card.swing_deg):.2f}°{tilt}, as it was cut."
                    )
        return said

    def _records(self, way: WayOut, board: str) -> list[OfferedRecord]:
        """What saying yes to a way out adds."""
        tasks = self.fit.tasks
        title = told.way_title(way, self.words, self.fit)[:200]
        own = [task for task in tasks if task.piece == board and task.doing == "step"]
        if not own:
            return []
        last, print_ = own[-1], own[-1].fingerprint
        anew = [Put(key=key, to="open") for key in opened_again(tasks, board)]

        def wrong(body: WrongBody, key: str = last.key, fingerprint: str = print_) -> OfferedRecord:
            return OfferedRecord(key=key, type="wrong", fingerprint=fingerprint, body=body.model_dump(mode="json"))

        if way.kind == "recut":
            return [
                wrong(
                    WrongBody(way="recut", piece=board, sets=anew, text=title, source=self.source(board) if self.source else "")
                )
            ]
        if way.kind == "leave" and way.same_part:
            return []
        if way.kind == "leave":
            return [wrong(WrongBody(way="keep", piece=board, text=title))]
        if way.kind == "use":
            other = way.pieces[0]
            done = [Put(key=k, to="cut", fingerprint=self._facts[other].fingerprint) for k in there_already(tasks, other)]
            if way.same_part:
                done = [
                    Put(key=t.key, to="cut", fingerprint=t.fingerprint) for t in tasks if t.piece == other and t.doing == "step"
                ]
            return [wrong(WrongBody(way="use", piece=board, other=other, sets=[*anew, *done], text=title))]
        if way.kind not in ("trim", "recut_others", "spread"):
            return []
        shaved = [
            wrong(self._shaved(piece, title, way.changes), *self._end_task(piece, way.changes))
            for piece in way.pieces
            if self._to_shave(piece)
        ]
        if way.kind == "trim":
            return shaved
        changes = {off.key: self.fit.offs.get(off, 0.0) + by for off, by in way.changes.items()}
        agreed = OfferedRecord(key="as made", type="agreed", body=AgreedBody(changes=changes, text=title).model_dump(mode="json"))
        return [agreed, *shaved]

    def _to_shave(self, piece: str) -> bool:
        return self.fit.standing.bench.is_cut(self.fit.design.boards[piece])

    def _end_task(self, piece: str, changes: Offs) -> tuple[str, str]:
        """The task of the end that is cut once more."""
        ends = [off.end for off in changes if off.board == piece and off.end]
        for task in reversed(self.fit.tasks):
            if task.piece == piece and task.doing == "step" and (not ends or f" {ends[0]}:" in task.key):
                return task.key, task.fingerprint
        return piece, ""

    def _shaved(self, piece: str, title: str, changes: Offs) -> WrongBody:
        key, print_ = self._end_task(piece, changes)
        return WrongBody(way="shave", piece=piece, sets=[Put(key=key, to="open", fingerprint=print_)], text=title)

    def _view(self, way: WayOut, board: str, after: Offs) -> ViewOut | None:
        """It drawn over the plan, larger than it is."""
        if way.kind not in ("recut_others", "spread", "leave"):
            return None
        picture = next((p for p in self.fit.sheet.pictures if board in p.boards and p.what in ("round", "whole")), None)
        made = self.fit.made_with(after, self.fit.wishes.times)
        return view_out(picture_view(self.fit, picture, made.solids), self.words.voice) if picture and made else None

    # Repeats.

    def _laid(self, laid: Laid) -> LaidOut:
        widest = max((abs(by) for _, by in laid.longer), default=0.0) or 1.0
        tone: Tone = "right" if laid.good else "wrong"
        return LaidOut(
            name=self._name(laid.part),
            pieces=[
                LineOut(
                    text=board_tag(self.words.solution, id),
                    figure=f"{'+' if by >= 0 else '−'}{self.words.small(by)}",
                    share=by / widest,
                )
                for id, by in laid.longer
            ],
            text=told.laid_text(laid, self.words, self.fit.allowance_mm),
            tone=tone,
        )
