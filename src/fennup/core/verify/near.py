"""Which boxes come near each other, without comparing every pair."""

from collections.abc import Iterator, Sequence

from fennup.core.geometry.plane import Plane

Box = tuple[Sequence[float], Sequence[float]]


def overlap(a: Box, b: Box) -> bool:
    """Whether two boxes overlap by more than their sides."""
    (ax, ay, az), (bx, by, bz) = a
    (cx, cy, cz), (dx, dy, dz) = b
    return ax < dx and cx < bx and ay < dy and cy < by and az < dz and cz < bz


def apart(a: Box, b: Box) -> float:
    """How far two boxes stand apart along the axis on which they do the most; negative where they overlap."""
    return max(max(a[0][k] - b[1][k], b[0][k] - a[1][k]) for k in range(3))


def nearest(box: Box, plane: Plane) -> float:
    """How far beyond a plane a box begins; negative where some of it lies on the kept side."""
    low, high = box
    n = plane.normal
    return sum(n[k] * (low[k] if n[k] > 0 else high[k]) for k in range(3)) - plane.offset


def bounds(boxes: Sequence[Box]) -> Box:
    """The box round some boxes."""
    if len(boxes) == 1:
        return boxes[0]
    low = tuple(min(box[0][k] for box in boxes) for k in range(3))
    high = tuple(max(box[1][k] for box in boxes) for k in range(3))
    return low, high


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
        open_ones = [other for other in open_ones if boxes[other][1][axis] > boxes[id][0][axis]]
        for other in open_ones:
            if overlap(boxes[id], boxes[other]):
                found.append(sorted((place[id], place[other])))
        open_ones.append(id)
    for i, j in sorted(found):
        yield names[i], names[j]


def _spread(boxes: dict[str, Box], k: int) -> float:
    """How far the boxes' extent goes beyond what one of them takes on the average: the more, the fewer stand side by side."""
    whole = max(high[k] for _, high in boxes.values()) - min(low[k] for low, _ in boxes.values())
    own = sum(high[k] - low[k] for low, high in boxes.values()) / len(boxes)
    return whole / own if own > 0 else 0.0
