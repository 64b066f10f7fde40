"""Which boards are the same part, which are mirror images, and what they are called."""

from dataclasses import dataclass

from fennup.core.assembly.board import Board
from fennup.core.geometry.vec import Vec
from fennup.core.parts.solid import Solid

SAME_MM = 1e-5


@dataclass(frozen=True)
class PartGroup:
    """Boards that are one part. `id` is the first board's; `mirror_of` the group whose mirror image this is."""

    id: str
    boards: tuple[str, ...]
    mirror_of: str | None


def group_parts(boards: tuple[Board, ...], solids: dict[str, Solid]) -> tuple[PartGroup, ...]:
    """Boards whose solids coincide, end for end and face for face, in the order in which they come.

    A mirror image is told apart even where turning a plain board over would make it: the face is the show side.
    """
    groups: list[tuple[Board, list[str], str | None]] = []
    for board in boards:
        shape = _shape(solids[board.id], 1.0)
        mirrored = _shape(solids[board.id], -1.0)
        mirror_of = None
        for first, members, _ in groups:
            other = _shape(solids[first.id], 1.0)
            if first.section == board.section and _coincide(shape, other):
                members.append(board.id)
                break
            if first.section == board.section and _coincide(mirrored, other):
                mirror_of = first.id
        else:
            groups.append((board, [board.id], mirror_of))
    return tuple(PartGroup(first.id, tuple(members), mirror_of) for first, members, mirror_of in groups)


def _shape(solid: Solid, hand: float) -> list[Vec]:
    """The solid's corners with x from its own left end, or from its right end for the mirror image."""
    low, high = solid.extent_x()
    points = {
        (round(p[0] - low if hand > 0 else high - p[0], 7), round(p[1], 7), round(p[2], 7))
        for piece in solid.local
        for p in piece.points
    }
    return sorted(points, key=lambda p: (round(p[1], 3), round(p[2], 3), p[0]))


def _coincide(a: list[Vec], b: list[Vec]) -> bool:
    """Whether two sorted point lists are one shape to SAME_MM."""
    return len(a) == len(b) and all(
        abs(p[k] - q[k]) < SAME_MM for p, q in zip(a, b, strict=True) for k in range(3)
    )
