"""Pieces that should be alike, laid together; and parts that are each other's mirror image."""

from dataclasses import dataclass
from itertools import combinations

from fennup.core.design import Design
from fennup.core.fit.made import Bench
from fennup.core.parts.facts import PartFacts


@dataclass(frozen=True)
class Laid:
    """Pieces of one part, each with what it is longer than planned, mm; which two differ most; the one to shave and by how much so that all are within half of the allowed
    gap; the gap that the spread would make."""

    part: str
    longer: tuple[tuple[str, float], ...]
    spread_mm: float
    pair: tuple[str, str] | None
    shave: tuple[tuple[str, float], ...]
    gap_mm: float
    good: bool


@dataclass(frozen=True)
class Hands:
    """Two parts that are mirror images: laid face to face, or back to back, all their edges must be flush. How many of each there are."""

    part: str
    other: str
    count: int
    other_count: int


def laid_together(design: Design, bench: Bench, allowance_mm: float) -> tuple[Laid, ...]:
    """Every part of which two pieces and more were measured."""
    found = []
    for facts in design.facts:
        longer = {}
        for id in facts.group.boards:
            own = [by for off, by in bench.offs.items() if off.board == id and off.what == "length"]
            if own:
                longer[id] = sum(own)
        if len(longer) > 1:
            found.append(_laid(facts, longer, allowance_mm))
    return tuple(found)


def _laid(facts: PartFacts, longer: dict[str, float], allowance_mm: float) -> Laid:
    shortest, longest = min(longer, key=lambda id: longer[id]), max(longer, key=lambda id: longer[id])
    spread = longer[longest] - longer[shortest]
    opens = max((abs(facts.board.ends(end)[0].normal[0]) for end in ("left", "right") if facts.board.ends(end)), default=1.0)
    most = allowance_mm / 2
    # Shaved are those that are longer than the shortest by more than that; what is one too short cannot be helped so.
    middle = sorted(longer.values())[len(longer) // 2]
    base = longer[shortest] if longer[shortest] > middle - most else middle
    shave = tuple((id, by - base) for id, by in longer.items() if by - base > most)
    return Laid(
        facts.key,
        tuple(longer.items()),
        spread,
        (shortest, longest) if spread > 0 else None,
        shave,
        spread * opens,
        spread <= most,
    )


def hands_of(design: Design) -> tuple[Hands, ...]:
    """All pairs of parts that are mirror images of each other."""
    found = []
    for a, b in combinations(design.parts, 2):
        if a.mirror_of == b.id or b.mirror_of == a.id:
            found.append(Hands(a.id, b.id, len(a.boards), len(b.boards)))
    return tuple(found)
