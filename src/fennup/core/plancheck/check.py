"""Which figures of a plan cannot all be true: the solver that settles given sizes takes them one after another; what then comes out otherwise is told, with the exact value.

What explains most wins: every figure is left out in turn, and where that is not enough every two, and the fewest that must be wrong are told. A figure that is
off by no more than the rounding of all the others can make is right.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations

from pydantic import ValidationError

from fennup.core.drawing.edit import Give, TypeIn
from fennup.core.errors import CoreError, SpecError
from fennup.core.plancheck.stated import sayables
from fennup.core.project.edit import edit
from fennup.core.project.spec import ProjectSpec
from fennup.core.solve import designed
from fennup.core.tolerances import SAME
from fennup.core.units.lengths import tape

MOST_STATED = 40
MOST_LEFT_OUT = 10  # sizes, above which not every two are tried
MOST_TOLD = 4
MOST_SHAPES = 300  # solved for one plan: what then is left untried is told
STEPS = 12  # of a search for the size that a part's figure asks for
BARE = tape("mm", "1")
DIGITS = 9
OF_THE_BOARD = ("thickness", "width", "count")  # what of a part is not worked out but chosen


@dataclass(frozen=True)
class Stated:
    """One figure of the plan: what it is of, its value, how far off it may be as it is written: mm, degrees, or a count."""

    key: str
    value: float
    exact: float


@dataclass(frozen=True)
class Verdict:
    """What a figure is by the others. `used`: it settled the shape; `off`: what it is too much; `may`: how far off it may be by all the roundings."""

    stated: Stated
    true: float | None
    used: bool
    may: float

    @property
    def off(self) -> float:
        """Stated less true."""
        return 0.0 if self.true is None else self.stated.value - self.true

    @property
    def wrong(self) -> bool:
        """Whether it cannot be."""
        return self.true is not None and abs(self.off) > self.may + SAME


@dataclass(frozen=True)
class Explanation:
    """A shape with which all figures are right but those that are wrong."""

    spec: ProjectSpec
    verdicts: tuple[Verdict, ...]
    by_itself: tuple[str, ...] = ()

    @property
    def wrong(self) -> tuple[str, ...]:
        """The keys of the figures that cannot be."""
        return tuple(verdict.stated.key for verdict in self.verdicts if verdict.wrong)

    @property
    def misfit(self) -> float:
        """How far off they are, in what may be."""
        return sum(abs(v.off) / max(v.may, SAME) for v in self.verdicts)


@dataclass(frozen=True)
class Checked:
    """The best explanation, and others with which as few figures are wrong; whether all was tried."""

    best: Explanation
    others: tuple[Explanation, ...] = ()
    complete: bool = True


class _Tried:
    """Specs that were tried already: what every figure is in each, and what an act makes of each."""

    def __init__(self) -> None:
        self.known: dict[str, dict[str, float] | None] = {}
        self.edited: dict[tuple[str, str], ProjectSpec | None] = {}

    def of(self, spec: ProjectSpec) -> dict[str, float] | None:
        """Every figure of it by key; None where it has no shape."""
        text = spec.model_dump_json()
        if text not in self.known:
            try:
                self.known[text] = {one.key: one.value for one in sayables(*designed(spec))}
            except CoreError:
                self.known[text] = None
        return self.known[text]

    def after(self, spec: ProjectSpec, act: Give | TypeIn) -> ProjectSpec | None:
        """The spec after an act; None where it is refused."""
        key = (spec.model_dump_json(), act.model_dump_json())
        if key not in self.edited:
            try:
                self.edited[key] = ProjectSpec.model_validate(edit(spec, act, BARE))
            except (CoreError, ValidationError):
                self.edited[key] = None
        return self.edited[key]


def check_plan(start: ProjectSpec, stated: Sequence[Stated]) -> Checked:
    """What a plan's figures come to, for a thing that begins as `start`. SpecError `plan_empty`, `plan_long`, `said_twice`, `field_cannot`, `plan_nothing`."""
    _refuse(stated)
    tried = _Tried()
    base, fields = _with_fields(start, stated, tried)
    sizes = [one for one in stated if one.key.startswith("size:")]
    parts = [one for one in stated if one.key.startswith("part:")]
    whole = _explained(base, sizes, stated, fields, tried)
    if whole is None:
        raise SpecError("plan_nothing", ("lines",))
    found, complete = [whole], True
    for many in (1, 2):
        if min(len(e.wrong) for e in found) < many:
            break  # nothing with more left out explains more
        if many > 1 and len(sizes) > MOST_LEFT_OUT:
            complete = False
            break
        for out in combinations(sizes, many):
            if len(tried.known) > MOST_SHAPES:
                complete = False
                break
            left = [one for one in sizes if one not in out]
            found += [e for e in _without(base, left, out, parts, stated, fields, tried) if e is not None]
    return _told(found, complete=complete)


def _refuse(stated: Sequence[Stated]) -> None:
    if not stated:
        raise SpecError("plan_empty", ("lines",))
    if len(stated) > MOST_STATED:
        raise SpecError("plan_long", ("lines",), most=MOST_STATED)
    keys = [one.key for one in stated]
    twice = next((key for key in keys if keys.count(key) > 1), None)
    if twice:
        raise SpecError("said_twice", (f"lines.{len(keys) - 1 - keys[::-1].index(twice)}",), key=twice)


def _with_fields(start: ProjectSpec, stated: Sequence[Stated], tried: _Tried) -> tuple[ProjectSpec, frozenset[str]]:
    """The start with the boards and counts that the plan says: these are taken as they are said. SpecError names the line."""
    spec, taken = start, set[str]()
    for number, one in enumerate(stated):
        if one.key.startswith("field:"):
            path = one.key.removeprefix("field:")
            made = tried.after(spec, TypeIn(op="type", path=path, text=_text(one.value)))
            if made is None or tried.of(made) is None:
                raise SpecError("field_cannot", (f"lines.{number}",), key=one.key)
            taken.add(one.key)
            spec = made
    for one in stated:
        if one.key.startswith("part:") and one.key.rpartition(":")[2] in OF_THE_BOARD:
            spec = _with_board(spec, one, taken, tried)
    return spec, frozenset(taken)


def _with_board(spec: ProjectSpec, said: Stated, taken: set[str], tried: _Tried) -> ProjectSpec:
    """A part's thickness, width or number that the plan says is taken as said: the start's own counts for nothing. Of the start's fields of that figure
    the first by which the part becomes so; where none does, the spec as it is."""
    now = tried.of(spec) or {}
    before = now.get(said.key)
    if before is None or abs(before - said.value) < SAME:
        return spec
    for key, value in now.items():
        if key.startswith("field:") and key not in taken and abs(value - before) < SAME:
            made = tried.after(spec, TypeIn(op="type", path=key.removeprefix("field:"), text=_text(said.value)))
            if made is not None and abs((tried.of(made) or {}).get(said.key, before) - said.value) < SAME:
                taken.add(key)
                return made
    return spec


def _without(
    base: ProjectSpec,
    left: Sequence[Stated],
    out: Sequence[Stated],
    parts: Sequence[Stated],
    stated: Sequence[Stated],
    fields: frozenset[str],
    tried: _Tried,
) -> Iterator[Explanation | None]:
    """The explanations in which some sizes are wrong: what the others say alone; and, where these leave it open, what a part's figure asks for."""
    yield _explained(base, left, stated, fields, tried)
    if len(out) == 1:
        for part in parts:
            fitted = _fitted(base, left, out[0], part, tried)
            if fitted is not None:
                yield _explained(base, [*left, fitted], stated, fields, tried, by_itself=(out[0].key,))


def _fitted(base: ProjectSpec, left: Sequence[Stated], size: Stated, part: Stated, tried: _Tried) -> Stated | None:
    """The value of a size at which a part has the figure that the plan says, by secants; None where it has nothing to do with it."""

    def miss(value: float) -> float | None:
        spec, given = _given(base, [*left, Stated(size.key, value, size.exact)], tried)
        found = tried.of(spec)
        if found is None or size.key not in given:
            return None
        now = found.get(part.key)
        return None if now is None else now - part.value

    a, b = size.value, size.value * 1.02 + 1.0
    fa, fb = miss(a), miss(b)
    for _ in range(STEPS):
        if fa is None or fb is None or abs(fb - fa) < SAME:
            return None
        if abs(fb) < SAME:
            return Stated(size.key, b, size.exact)
        a, b, fa = b, b - fb * (b - a) / (fb - fa), fb
        if b <= 0:
            return None
        fb = miss(b)
    return None


def _explained(
    base: ProjectSpec,
    sizes: Sequence[Stated],
    stated: Sequence[Stated],
    fields: frozenset[str],
    tried: _Tried,
    by_itself: tuple[str, ...] = (),
) -> Explanation | None:
    """What all figures are when these sizes are given."""
    spec, given = _given(base, sizes, tried)
    values = tried.of(spec)
    if values is None:
        return None
    may = _may(spec, [one for one in sizes if one.key in given], values, tried)
    used = {*given, *fields} - {*by_itself}
    verdicts = tuple(Verdict(one, values.get(one.key), one.key in used, one.exact + may.get(one.key, 0.0)) for one in stated)
    return Explanation(spec, verdicts, by_itself)


def _given(base: ProjectSpec, sizes: Sequence[Stated], tried: _Tried) -> tuple[ProjectSpec, frozenset[str]]:
    """The base with one size after another given; one that the solver refuses, or that would move one given before, is not: (the spec, which were taken)."""
    spec, taken = base, list[Stated]()
    for one in sizes:
        made = tried.after(spec, Give(op="give", measure=one.key.removeprefix("size:"), text=_text(one.value)))
        values = tried.of(made) if made is not None else None
        if made is None or values is None:
            continue
        if all(abs(values.get(t.key, t.value) - t.value) < max(SAME, t.exact / DIGITS) for t in (*taken, one)):
            spec = made
            taken.append(one)
    return spec, frozenset(one.key for one in taken)


def _may(spec: ProjectSpec, given: Sequence[Stated], values: dict[str, float], tried: _Tried) -> dict[str, float]:
    """By how much each figure can be off because those that were given are rounded: each moved by its own rounding, all added."""
    total: dict[str, float] = {}
    for one in given:
        moved = tried.after(spec, Give(op="give", measure=one.key.removeprefix("size:"), text=_text(one.value + one.exact)))
        found = tried.of(moved) if moved is not None else None
        for key, value in (found or {}).items():
            if key != one.key and key in values:
                total[key] = total.get(key, 0.0) + abs(value - values[key])
    return {key: value for key, value in total.items() if key not in {one.key for one in given}}


def _told(found: Sequence[Explanation], *, complete: bool) -> Checked:
    """Those with the fewest wrong figures, each set of wrong ones once, the least misfit first."""
    fewest = min(len(e.wrong) for e in found)
    best: dict[frozenset[str], Explanation] = {}
    for explanation in sorted(found, key=lambda e: (len(e.by_itself), e.misfit)):
        if len(explanation.wrong) == fewest:
            best.setdefault(frozenset(explanation.wrong), explanation)
    first, *others = list(best.values())[: MOST_TOLD + 1]
    return Checked(first, tuple(others), complete)


def _text(value: float) -> str:
    return f"{value:.9f}".rstrip("0").rstrip(".")
