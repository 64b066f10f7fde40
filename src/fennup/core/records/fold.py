"""What is done, from all entries: a pure function whose result does not depend on the order in which they arrive."""

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace

from fennup.core.records.entry import AgreedBody, CutBody, Entry, MeasuredBody, ReadBody, UndoneBody, WrongBody


@dataclass(frozen=True)
class State:
    """What holds of one task: the entry that says it is `cut`, with the fingerprint the piece had then; the last reading of everything that was
    measured since; the entry that says it is wrong. Nothing of it: still to do. What is wrong and yet cut is kept as it is."""

    cut: Entry | None = None
    fingerprint: str = ""
    readings: Mapping[str, Entry] = field(default_factory=dict)
    wrong: Entry | None = None


OPEN = State()


def live(entries: Iterable[Entry]) -> list[Entry]:
    """The entries that were not taken back, in the order in which they happened: by their devices' clocks, the id settling a tie. What takes something
    back is not one of them, and cannot be taken back itself: doing it again is a new entry."""
    by_id = {entry.id: entry for entry in entries}
    gone = {entry.body.takes_back for entry in by_id.values() if isinstance(entry.body, UndoneBody)}
    left = [e for e in by_id.values() if e.id not in gone and not isinstance(e.body, UndoneBody)]
    return sorted(left, key=lambda entry: (entry.at, entry.id))


def entry_of(entries: Iterable[Entry], id: str) -> Entry | None:
    """The entry of an id, if it is there and was not taken back."""
    return next((entry for entry in live(entries) if entry.id == id), None)


def is_wrong(state: State) -> bool:
    """Whether a task is known to be wrong: said so, or measured so at last."""
    readings = (entry.body for entry in state.readings.values())
    return state.wrong is not None or any(isinstance(body, MeasuredBody) and body.verdict == "wrong" for body in readings)


def fold(entries: Iterable[Entry]) -> dict[str, State]:
    """What holds of every task that any entry is about: the later entry holds."""
    found: dict[str, State] = {}
    for entry in live(entries):
        now = found.get(entry.key, OPEN)
        match entry.body:
            case CutBody():
                found[entry.key] = replace(now, cut=entry, fingerprint=entry.fingerprint, wrong=None)
            case MeasuredBody():
                done = now.cut or (entry if entry.body.verdict != "wrong" else None)
                print_ = now.fingerprint if now.cut else entry.fingerprint
                found[entry.key] = replace(now, cut=done, fingerprint=print_, readings={**now.readings, entry.body.what: entry})
            case WrongBody():
                kept = entry if entry.body.way == "keep" else None
                found[entry.key] = replace(now, cut=now.cut or kept, wrong=entry)
                for put in entry.body.sets:
                    was = found.get(put.key, OPEN)
                    wrong = entry if entry.body.way == "shave" and put.key == entry.key else None
                    made = State(cut=entry, fingerprint=put.fingerprint) if put.to == "cut" else OPEN
                    found[put.key] = replace(made, wrong=wrong if put.to == "open" else was.wrong)
            case _:
                pass
    return found


@dataclass(frozen=True)
class Wood:
    """What became of the wood: how often each piece was begun again from new wood, and which pieces came out of another's."""

    again: Mapping[str, int]
    instead: frozenset[str]


AS_PLANNED = Wood({}, frozenset())


def wood_of(entries: Iterable[Entry]) -> Wood:
    """What the entries say of the wood."""
    wrong = [entry.body for entry in live(entries) if isinstance(entry.body, WrongBody) and entry.body.way in ("recut", "use")]
    return Wood(Counter(body.piece for body in wrong), frozenset(body.other for body in wrong if body.other))


def read_last(entries: Iterable[Entry]) -> dict[str, Entry]:
    """What was read last at the dry fit, by what was read."""
    return {entry.key: entry for entry in live(entries) if isinstance(entry.body, ReadBody)}


@dataclass(frozen=True)
class Agreed:
    """All that somebody said yes to, the later entry holding: what is changed of parts still to be cut, and the sizes as they are built; and since when each holds."""

    changes: Mapping[str, float]
    sizes: Mapping[str, float]
    since: Mapping[str, Entry]


def agreed_in(entries: Iterable[Entry]) -> Agreed:
    """What was agreed."""
    changes: dict[str, float] = {}
    sizes: dict[str, float] = {}
    since: dict[str, Entry] = {}
    for entry in live(entries):
        if isinstance(entry.body, AgreedBody):
            changes |= entry.body.changes
            sizes |= entry.body.sizes
            since |= dict.fromkeys([*entry.body.changes, *entry.body.sizes], entry)
    return Agreed(changes, sizes, since)
