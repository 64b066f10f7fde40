"""Which boxes come near each other, without comparing every pair."""

from collections.abc import Iterator, Sequence

Box = tuple[Sequence[float], Sequence[float]]


def near_pairs(boxes: dict[str, Box]) -> Iterator[tuple[str, str]]:
    """Every two whose boxes (least and greatest corner) overlap, in the boxes' own order.

    They are swept along the axis on which they are spread the widest: each meets only those that begin before it ends.
    """
    names = list(boxes)
    if len(names) < 2:
        return
    place = {id: i for i, id in enumerate(names)}
    axis = max(range(3), key=lambda k: _spread(boxes, k))
    found = []
    open_ones: list[str] = []
    for id in sorted(names, key=lambda id: boxes[id][0][axis]):
        low, high = boxes[id]
        open_ones = [other for other in open_ones if boxes[other][1][axis] > low[axis]]
        for other in open_ones:
            low_2, high_2 = boxes[other]
            if all(low[k] < high_2[k] and low_2[k] < high[k] for k in range(3)):
                found.append(sorted((place[id], place[other])))
        open_ones.append(id)
    for i, j in sorted(found):
        yield names[i], names[j]


def _spread(boxes: dict[str, Box], k: int) -> float:
    """How far the boxes' extent goes beyond what one of them takes on the average: the more, the fewer stand side by side."""
    whole = max(high[k] for _, high in boxes.values()) - min(low[k] for low, _ in boxes.values())
    own = sum(high[k] - low[k] for low, high in boxes.values()) / len(boxes)
    return whole / own if own > 0 else 0.0
