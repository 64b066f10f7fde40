"""A lid against the opening that it covers: how far it reaches over, how much of the walls it lies on."""

from dataclasses import dataclass

from fennup.core.design import Design
from fennup.core.fasten.through import contact_of
from fennup.core.geometry.vec import Point2, Vec

LID = "lid"


@dataclass(frozen=True)
class Lid:
    """A lid by its board. `over_mm`: beyond what it lies on, at its left and right end, its lower and upper edge, as it lies with its face towards one;
    `opening_mm`: how long and wide the opening under it is; `bears_mm`: the least that it lies on at a side."""

    board: str
    over_mm: tuple[float, float, float, float]
    opening_mm: tuple[float, float]
    bears_mm: float


def lids_of(design: Design) -> list[Lid]:
    """Every lid that lies on something all round."""
    found = []
    for id, board in design.boards.items():
        if board.role != LID:
            continue
        joints = [j for j in design.assembly.joints if id in (j.a.board, j.b.board)]
        places = [[_flat(board.frame.to_local(p)) for p in points] for joint in joints for points in contact_of(design, joint)]
        if len(places) < 3:
            continue
        touching = [p for place in places for p in place]
        own = [p for piece in design.solids[id].local for p in piece.points]
        low, high = ([f(p[k] for p in touching) for k in (0, 1)] for f in (min, max))
        over = (
            low[0] - min(p[0] for p in own),
            max(p[0] for p in own) - high[0],
            low[1] - min(p[1] for p in own),
            max(p[1] for p in own) - high[1],
        )
        bears = [min(max(p[k] for p in place) - min(p[k] for p in place) for k in (0, 1)) for place in places]
        middle = ((low[0] + high[0]) / 2, (low[1] + high[1]) / 2)
        opening = tuple(_between(places, middle, k) for k in (0, 1))
        found.append(Lid(id, over, (opening[0], opening[1]), min(bears)))
    return found


def _flat(p: Vec) -> Point2:
    return (p[0], p[1])


def _between(places: list[list[Point2]], middle: Point2, k: int) -> float:
    """How far apart the nearest wood is to either side of the middle; where there is none on a side, from as far as the others reach."""
    sides = [(min(p[k] for p in place), max(p[k] for p in place)) for place in places]
    before = [high for _, high in sides if high < middle[k]]
    after = [low for low, _ in sides if low > middle[k]]
    return min(after, default=max(high for _, high in sides)) - max(before, default=min(low for low, _ in sides))
