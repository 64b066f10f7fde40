"""What to do at once with a piece that is wrong: which other part still comes out of it. Deeper ways out belong to the dry fit."""

from dataclasses import dataclass

from fennup.core.assembly.board import ENDS, Board, End
from fennup.core.bench.task import Check, Task
from fennup.core.parts.facts import PartFacts
from fennup.core.parts.solid import ARRISES, arris_line
from fennup.core.saw.marking import crossing
from fennup.core.stock.ploughed import FORMS
from fennup.core.tolerances import SAME


@dataclass(frozen=True)
class OtherUse:
    """A part that a spoiled piece can still become, both ends cut anew: `needs_mm`: what the piece must measure for that, where it is measured;
    `pieces`: the boards that it could be."""

    part: str
    pieces: tuple[str, ...]
    needs_mm: float


def other_uses(facts: PartFacts, check: Check, all_facts: tuple[PartFacts, ...], kerf_mm: float) -> tuple[OtherUse, ...]:
    """What a piece that is wrong in length can still become, the longest first: parts of its section and its edges that lie, with a kerf for each
    end, within what both its ends leave whole."""
    lost = check.expected - _clear_mm(facts.board)
    found = []
    for other in all_facts:
        if other.key == facts.key or not _same_profile(facts.board, other.board):
            continue
        needs = other.extent[0] + 2 * kerf_mm + lost
        if needs <= check.expected + check.far:
            found.append(OtherUse(other.key, other.group.boards, needs))
    return tuple(sorted(found, key=lambda use: -use.needs_mm))


def _clear_mm(board: Board) -> float:
    """How long a board is whole, over all of its section: short point to short point."""
    reach: dict[End, list[float]] = {end: [] for end in ENDS}
    for end in ENDS:
        for plane in board.ends(end):
            reach[end] += [crossing(plane, arris_line(board, arris)) for arris in ARRISES]
    return min(reach["right"]) - max(reach["left"])


def _same_profile(a: Board, b: Board) -> bool:
    """Whether one board can be cut out of another one's wood without any work along it."""
    if a.panel or b.panel or a.stave or b.stave:
        return False
    one, other = a.section, b.section
    if not one.same_as(other) or len(a.rips) != len(b.rips):
        return False
    return all(
        s == t and max(*(abs(m - n) for m, n in zip(p.normal, q.normal, strict=True)), abs(p.offset - q.offset)) < SAME
        for (s, p), (t, q) in zip(a.rips, b.rips, strict=True)
    )


def opened_again(tasks: tuple[Task, ...], piece: str) -> tuple[str, ...]:
    """What must be done again when a piece is cut anew: all of it."""
    return tuple(task.key for task in tasks if task.piece == piece and task.doing == "step")


def there_already(tasks: tuple[Task, ...], piece: str) -> tuple[str, ...]:
    """What of another piece is done when it comes out of one with the same edges: everything before its ends."""
    before = ("rough", "rip", "glue_up", *FORMS, "milled")
    return tuple(t.key for t in tasks if t.piece == piece and t.work in before)
