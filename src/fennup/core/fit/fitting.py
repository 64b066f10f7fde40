"""The dry fit of a project: everything that the place shows, and that `./fennup fit` prints, from the design, the plan, the records and the wishes."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property
from math import radians, tan

from fennup.core.assembly.board import ENDS, End
from fennup.core.bench.task import Task
from fennup.core.bench.tasks import tasks_for
from fennup.core.design import Design
from fennup.core.errors import CutError
from fennup.core.fit.expected import sheet_for
from fennup.core.fit.forecast import Forecast, Forecaster
from fennup.core.fit.gaps import Causes, Cured, GapRead
from fennup.core.fit.hand import Working, working_of
from fennup.core.fit.made import AsMade, Settled, Solver, as_made, free_offs
from fennup.core.fit.meeting import Off, Offs, made_plane
from fennup.core.fit.order import Assembling, Blocked, Joining
from fennup.core.fit.passage import PassageWishes, Passing, Split, passes, points_of, splits
from fennup.core.fit.reading import Expected, Sheet
from fennup.core.fit.repeats import Hands, Laid, hands_of, laid_together
from fennup.core.fit.state import Standing, standing_of
from fennup.core.fit.verdicts import Told, near_of, verdicts
from fennup.core.fit.ways import WayOut, WaysOut
from fennup.core.fit.web import Web
from fennup.core.fit.wishes import FitWishes
from fennup.core.parts.solid import end_cut
from fennup.core.plan import Plan
from fennup.core.records.entry import Entry, ReadBody
from fennup.core.steps.planned import steps_for
from fennup.core.tolerances import NOTHING

MOST_KEPT = 12
EXACT_MM = 0.1  # what a tape that was not chosen is taken to tell
SEEN = 0.005  # mm or degrees: a change that is told


@dataclass(frozen=True)
class Change:
    """A part still to be cut that is to be cut otherwise: its length over all and its ends' angles, miter and bevel, as planned and as they then are."""

    board: str
    old_mm: float
    new_mm: float
    angles: tuple[tuple[str, float, float], ...]
    scribed: bool


class Ground:
    """What hangs on the design and the plan alone, whatever was read: worked out once, and kept as long as they are."""

    def __init__(self, design: Design, plan: Plan) -> None:
        self.design = design
        self.plan = plan
        self.forecaster = Forecaster(design, plan)
        self._forecasts: dict[tuple[Working, float | None, float], Forecast] = {}
        self._sheets: dict[float | None, Sheet] = {}
        self._passing: dict[str, tuple[tuple[Passing, ...], Split | None]] = {}

    @property
    def web(self) -> Web:
        """The boards and joints."""
        return self.forecaster.web

    @cached_property
    def tasks(self) -> tuple[Task, ...]:
        """Everything that is done at the bench."""
        return tasks_for(self.design, self.plan, steps_for(self.design, self.plan))

    @cached_property
    def last_ends(self) -> dict[str, End]:
        """By board: which of its ends is cut last, to which its length is taken."""
        found: dict[str, End] = {}
        for task in self.tasks:
            for end in ENDS:
                if task.piece and f" {end}:" in task.key:
                    found[task.piece] = end
        return found

    def sheet(self, at_mm: float | None) -> Sheet:
        """What is to be read; at which height the width of the whole besides."""
        if at_mm not in self._sheets:
            if len(self._sheets) >= MOST_KEPT:
                self._sheets.clear()
            self._sheets[at_mm] = sheet_for(self.design, self.web, self.plan.workshop.allowance_mm, at_mm)
        return self._sheets[at_mm]

    @cached_property
    def assembling(self) -> Assembling:
        """Puts it together."""
        return Assembling(self.design, self.web)

    def forecast(self, working: Working, wished_mm: float | None, blunt_deg: float) -> Forecast:
        """How well it will close."""
        key = (working, wished_mm, blunt_deg)
        if key not in self._forecasts:
            if len(self._forecasts) >= MOST_KEPT:
                self._forecasts.clear()
            self._forecasts[key] = self.forecaster.forecast(*key)
        return self._forecasts[key]

    def passage(self, boards: tuple[str, ...], wishes: PassageWishes) -> tuple[tuple[Passing, ...], Split | None]:
        """Whether it goes through what was said, and where it comes apart if it does not."""
        key = wishes.model_dump_json()
        if key not in self._passing:
            if len(self._passing) >= MOST_KEPT:
                self._passing.clear()
            told = passes(points_of(self.design.solids, boards), wishes)
            stuck = any(p.way is None for p in told)
            self._passing[key] = (told, splits(self.assembling, boards, wishes) if stuck else None)
        return self._passing[key]


@dataclass(frozen=True)
class Fit:
    """`entries`: the project's own records; `measured`: those of the whole workshop, from which the hand is known."""

    ground: Ground
    entries: tuple[Entry, ...]
    wishes: FitWishes
    measured: tuple[Entry, ...] = ()

    @property
    def design(self) -> Design:
        """The pieces as drawn."""
        return self.ground.design

    @property
    def plan(self) -> Plan:
        """How they are made."""
        return self.ground.plan

    @property
    def tasks(self) -> tuple[Task, ...]:
        """What is done at the bench."""
        return self.ground.tasks

    @property
    def sheet(self) -> Sheet:
        """What is to be read."""
        return self.ground.sheet(self.wishes.at_mm)

    @property
    def assembling(self) -> Assembling:
        """Puts it together."""
        return self.ground.assembling

    @property
    def forecaster(self) -> Forecaster:
        """Knows how errors go round."""
        return self.ground.forecaster

    @property
    def web(self) -> Web:
        """The boards and joints."""
        return self.ground.web

    @property
    def graduation_mm(self) -> float:
        """What the tape tells."""
        return self.plan.workshop.graduation_mm or EXACT_MM

    @property
    def allowance_mm(self) -> float:
        """The widest gap that is let pass."""
        return self.plan.workshop.allowance_mm

    @cached_property
    def working(self) -> Working:
        """How exactly one works here."""
        return working_of(self.plan.workshop.hand, self.measured or self.entries)

    @cached_property
    def forecast(self) -> Forecast:
        """How well it will close."""
        return self.ground.forecast(self.working, self.wishes.wished_mm, self.wishes.blunt_deg)

    def near(self, expected: Expected) -> float:
        """How far off still does not matter."""
        return near_of(expected, self.graduation_mm)

    @cached_property
    def standing(self) -> Standing:
        """Where the work stands."""
        return standing_of(self.design, self.tasks, self.entries, self.sheet.by_key)

    def expected(self, key: str) -> Expected | None:
        """What is to be read by a key."""
        return self.sheet.by_key.get(key)

    @cached_property
    def values(self) -> dict[str, float]:
        """What was read, by key."""
        return {key: entry.body.measured for key, entry in self.standing.read.items() if isinstance(entry.body, ReadBody)}

    @cached_property
    def told(self) -> list[Told]:
        """What the readings mean."""
        return verdicts(self.design, self.sheet, self.values, self.graduation_mm, self.allowance_mm)

    # Gaps.

    @cached_property
    def gap_reads(self) -> dict[str, GapRead]:
        """Gaps that were read with a feeler, by the reading's key."""
        found = {}
        for key, entry in self.standing.read.items():
            expected, body = self.sheet.by_key[key], entry.body
            if expected.kind == "gap" and isinstance(body, ReadBody) and body.measured > NOTHING:
                found[key] = GapRead(expected.names[0], body.measured, body.side or "even")
        return found

    @cached_property
    def cured(self) -> dict[str, Cured]:
        """What to do about every gap."""
        if not self.gap_reads:
            return {}
        causes = Causes(self.forecaster, self.working, self.standing.bench)
        corners = {
            self.sheet.by_key[k].names[0]: v - self.sheet.by_key[k].value
            for k, v in self.values.items()
            if self.sheet.by_key[k].kind == "corner"
        }
        reads = list(self.gap_reads.values())
        return {
            key: causes.cured(reads, corners, read, self.wishes.finish, outdoors=self.wishes.outdoors, shows=read.side != "back")
            for key, read in self.gap_reads.items()
        }

    # As made.

    @property
    def scribed(self) -> frozenset[str]:
        """Boards that are cut to the opening."""
        parts = set(self.plan.workshop.wishes.scribed)
        return frozenset(id for part in self.design.parts if parts & {part.id, *part.boards} for id in part.boards)

    @cached_property
    def solver(self) -> Solver:
        """Works out what must change."""
        return Solver(self.web)

    @property
    def offs(self) -> Offs:
        """Everything that is known to be otherwise than planned: made so, or agreed."""
        return {**self.standing.agreed, **self.standing.bench.offs}

    @cached_property
    def settled(self) -> Settled:
        """What is still to cut, so that it closes with what is made."""
        return self.solver.settle(self.offs, free_offs(self.design, self.web, self.standing.bench), self.scribed)

    @cached_property
    def after(self) -> Offs:
        """Everything as it then is."""
        offs = dict(self.offs)
        for off, by in self.settled.told.items():
            offs[off] = offs.get(off, 0.0) + by
        return offs

    @cached_property
    def proposed(self) -> Offs:
        """All that is to be agreed: the changes of parts still to cut, against the plan."""
        return {off: self.after[off] for off in self.settled.told}

    @cached_property
    def changes(self) -> tuple[Change, ...]:
        """Those parts, old and new."""
        return changes_of(self.design, self.offs, self.after, self.scribed)

    @cached_property
    def made(self) -> AsMade | None:
        """The whole as it is made, what is still to cut as it was agreed; None where a board would vanish."""
        return self.made_with(self.offs)

    def made_with(self, offs: Offs, times: float = 1.0) -> AsMade | None:
        """The whole with some errors, drawn so many times larger; None where a board would vanish."""
        try:
            return as_made(self.design, self.web, {off: by * times for off, by in offs.items()})
        except CutError:
            return None

    @cached_property
    def open_mm(self) -> float:
        """By how much the worst loop is out as it is made now."""
        out = self.solver.uneven(self.offs)
        return float(abs(out).max()) if len(out) else 0.0

    # Put right.

    @cached_property
    def bad(self) -> tuple[str, ...]:
        """Boards that came out so that a joint would stay open by more than is let pass, and those that were said to be wrong."""
        found = []
        for off, by in self.standing.bench.offs.items():
            board = self.design.boards[off.board]
            size = {"swing": board.section.width_mm, "tilt": board.section.thickness_mm}.get(off.what)
            opens = abs(by) if size is None else abs(size * tan(radians(by)))
            if opens > self.allowance_mm:
                found.append(board.id)
        found += self.standing.mirrored
        return tuple(dict.fromkeys([*found, *(id for id in self.standing.wrong if id in self.design.boards)]))

    @cached_property
    def ways_out(self) -> WaysOut:
        """Finds ways out."""
        return WaysOut(
            self.design,
            self.web,
            self.standing.bench,
            self.plan.workshop.kerf_mm,
            self.scribed,
            self.allowance_mm / 2,
            self.ground.last_ends,
        )

    def ways(self, board: str) -> list[WayOut]:
        """What can be done about one part."""
        if board in self.standing.mirrored:
            return self.ways_out.mirrored(board)
        return self.ways_out.ways(board, self.offs)

    # Repeats, order, passage.

    @cached_property
    def laid(self) -> tuple[Laid, ...]:
        """Pieces that should be alike."""
        return laid_together(self.design, self.standing.bench, self.allowance_mm)

    @cached_property
    def hands(self) -> tuple[Hands, ...]:
        """Parts that are mirror images."""
        return hands_of(self.design)

    @cached_property
    def order(self) -> tuple[tuple[Joining, ...], Blocked | None]:
        """The steps, in the wished order where that can be; else the usual one, and what was in the way."""
        if not self.wishes.order:
            return self.assembling.order, None
        try:
            return self.assembling.checked(self.wishes.order), None
        except Blocked as blocked:
            return self.assembling.order, blocked

    @cached_property
    def whole(self) -> tuple[str, ...]:
        """The boards that are made."""
        return tuple(board.id for board in self.design.assembly.boards if not board.found)

    @property
    def passing(self) -> tuple[Passing, ...]:
        """Whether it goes through what was said."""
        return self.ground.passage(self.whole, self.wishes.passage)[0]

    @property
    def split(self) -> Split | None:
        """Where it comes apart, if it does not go through."""
        return self.ground.passage(self.whole, self.wishes.passage)[1]


def changes_of(design: Design, before: Offs, after: Offs, scribed: Iterable[str] = ()) -> tuple[Change, ...]:
    """The parts whose cuts differ between two lots of errors: lengths over all, and angles as miter and bevel."""
    found = []
    for board in design.assembly.boards:
        own = [
            off for off in {*before, *after} if off.board == board.id and abs(after.get(off, 0.0) - before.get(off, 0.0)) > SEEN
        ]
        if not own:
            continue
        angles = []
        for end in ("left", "right"):
            for index in range(len(board.ends(end))):
                old, new = (end_cut(made_plane(board, end, index, offs)) for offs in (before, after))
                for what, a, b in (("miter", old.miter_deg, new.miter_deg), ("bevel", old.bevel_deg, new.bevel_deg)):
                    if abs(a - b) > SEEN:
                        angles.append((f"{end} {what}", a, b))
        low, high = design.solids[board.id].extent_x()
        old_mm, new_mm = (
            high - low + sum(offs.get(Off(board.id, "length", end), 0.0) for end in ("left", "right")) for offs in (before, after)
        )
        found.append(Change(board.id, old_mm, new_mm, tuple(angles), board.id in set(scribed)))
    return tuple(found)
