"""In which order the steps come: the schools, what must come before what, and how often a setting is changed."""

from collections.abc import Callable, Iterable, Sequence
from itertools import pairwise

from fennup.core.errors import SpecError
from fennup.core.saw.wishes import School
from fennup.core.steps.step import Step, Work
from fennup.core.stock.ploughed import FORMS

# What is done before any end is cut, and what after, in the order of the work.
STAGES: dict[Work, int] = {
    "rough": -1, "glue_up": 0, "rip": 0, **dict.fromkeys((*FORMS, "milled"), 1), "taper": 2, "outline": 2, "first_end": 3, "second_end": 3, "lap": 4, "birdsmouth": 4,
    "holes": 5, "saw_apart": 6, "scribe": 7,
}  # fmt: skip
Found = tuple[str, float, float]


def in_order(steps: Sequence[Step], school: School, settings: Sequence[Found], sizes: dict[str, float]) -> list[Step]:
    """The steps as a school has them. `settings`: in the order in which they are first needed; `sizes`: a part's length: small parts late."""
    place = {position: k for k, position in enumerate(settings)}
    parts = list(dict.fromkeys(step.part for step in steps))

    def by_setting(step: Step, now: Found | None) -> tuple[float, ...]:
        """As long as something can be done at the setting that is on; then the setting that comes first in the order of the work."""
        here = place.get(step.position, len(place)) if step.position else len(place)
        changed = step.position is None or step.position != now
        return (changed, STAGES[step.work], here, step.work == "second_end", -round(sizes.get(step.part, 0.0), 3))

    def by_part(step: Step, now: Found | None) -> tuple[float, ...]:
        late = STAGES[step.work] > STAGES["holes"]
        return (late, parts.index(step.part), STAGES[step.work])

    if school == "by_setting":
        return _scheduled(steps, by_setting)
    if school == "by_part":
        return _scheduled(steps, by_part)
    first = [
        step.but(key=f"first {step.key}", pieces=step.pieces[:1], pattern=True, needs=_firsts(step.needs))
        for step in steps
        if _repeats(step)
    ]
    rest = [
        step.but(pieces=step.pieces[1:], needs=(*step.needs, f"first {step.key}")) if _repeats(step) else step for step in steps
    ]
    return [*_scheduled(first, by_part), *_scheduled(rest, by_setting)]


def _scheduled(steps: Sequence[Step], worth: Callable[[Step, Found | None], tuple[float, ...]]) -> list[Step]:
    """One after another the step that is worth most (least) of those that can be done, seen from the setting that is on."""
    there = {step.key for step in steps}
    waiting, made, done = list(steps), [], set[str]()
    now: Found | None = None
    while waiting:
        ready = [step for step in waiting if all(need in done or need not in there for need in step.needs)]
        step = min(ready, key=lambda step: worth(step, now))
        waiting.remove(step)
        made.append(step)
        done.add(step.key)
        now = step.position or now
    return made


def _repeats(step: Step) -> bool:
    return len(step.pieces) > 1 and STAGES[step.work] <= STAGES["holes"]


def _firsts(needs: Iterable[str]) -> tuple[str, ...]:
    return tuple(f"first {key}" for key in needs)


def dragged(steps: Sequence[Step], order: Sequence[str]) -> list[Step]:
    """The steps with those that somebody has put in an order in that order, each of the others where it stood. SpecError `out_of_order` names the
    step and the one that must come before it."""
    known = [step for key in order for step in steps if step.key == key]
    if not known:
        return list(steps)
    queue, moved = iter(known), {step.key for step in known}
    made = [next(queue) if step.key in moved else step for step in steps]
    check_order(made)
    return made


def check_order(steps: Sequence[Step]) -> None:
    """SpecError `out_of_order` where a step comes before one that it needs."""
    there = {step.key for step in steps}
    done: set[str] = set()
    for step in steps:
        missing = next((need for need in step.needs if need in there and need not in done), None)
        if missing:
            raise SpecError("out_of_order", ("order",), step=step.key, needs=missing)
        done.add(step.key)


def with_tests(steps: Sequence[Step]) -> list[Step]:
    """A test in scrap before every setting that is made for the first time."""
    found: list[Step] = []
    seen: set[Found] = set()
    for step in steps:
        position = step.position
        if position and position not in seen:
            seen.add(position)
            found.append(Step(test_key(position), "test", tool=position[0], way=step.way, rip=step.rip))
        found.append(step)
    return found


def test_key(position: Found) -> str:
    """What the test of a setting is called by."""
    return f"test {position[0]} {position[1]:.4f} {position[2]:.4f}"


def changes(steps: Iterable[Step]) -> int:
    """How often the tool or its setting is changed between one step and the next."""
    positions = [step.position for step in steps if step.position and step.work != "test"]
    return sum(a != b for a, b in pairwise(positions))
