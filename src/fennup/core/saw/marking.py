"""Where each cut is marked on its board: along which of its long corners, and how far from what is cut already.

The end that the settings come to first is cut first; its first cut needs no mark. What is marked on it, and on the other end, is
counted from that first cut: of another cut of the same end inwards, on a corner on which that one stays.
"""

from collections.abc import Iterable
from dataclasses import dataclass

from fennup.core.assembly.board import Board, End
from fennup.core.geometry.plane import Plane
from fennup.core.parts.solid import Arris, arris_line, extent_along, long_points
from fennup.core.saw.settings import CutUse, Setting
from fennup.core.tolerances import SAME

Place = tuple[str, End, int]
# Of lines as good as each other the first is taken.
ORDER: tuple[Arris, ...] = ("face_lower", "face_upper", "back_lower", "back_upper")


@dataclass(frozen=True)
class Marking:
    """`length_mm` along `arris` from where the part's first cut, `datum` at end `start`, crosses it. `from_long_point`: whether that
    end reaches farthest there. Without an arris it is that first cut itself."""

    start: End
    datum: Plane
    arris: Arris | None = None
    length_mm: float = 0.0
    from_long_point: bool = False


def markings_of(settings: Iterable[Setting], boards: dict[str, Board]) -> dict[Place, Marking]:
    """The marking of every cut by its part, end and place in the end's order of cuts, in the order of the settings."""
    uses: dict[str, list[CutUse]] = {}
    for setting in settings:
        for use in setting.uses:
            uses.setdefault(use.part, []).append(use)
    return {
        (part, use.end, use.index): marking_of(boards[part], (of[0].end, of[0].index), (use.end, use.index))
        for part, of in uses.items()
        for use in of
    }


def marking_of(board: Board, first: tuple[End, int], use: tuple[End, int]) -> Marking:
    """Where a cut is marked, counted from the one that was made first; each by its end and place."""
    datum, cut = (board.ends(end)[index] for end, index in (first, use))
    if use == first:
        return Marking(first[0], datum)

    def stays(u: tuple[End, int], plane: Plane, arris: Arris) -> bool:
        """Whether the cut's own crossing is where the finished part ends on this corner."""
        line = arris_line(board, arris)
        return abs(crossing(plane, line) - extent_along(board, *line)[u[0] == "right"]) < SAME

    def worth(arris: Arris) -> tuple[bool | float, ...]:
        """Smaller is better: what both cuts leave in place, on the face, and the longest there is."""
        length = abs(crossing(cut, arris_line(board, arris)) - crossing(datum, arris_line(board, arris)))
        missing = arris in board.section.missing
        if use[0] == first[0]:
            # The first cut is there on every corner until this one takes it: on one where this cut stays the mark lies on the wood, inwards of it.
            return (missing, not stays(use, cut, arris), -round(length, 6))
        return (missing, not stays(first, datum, arris), not stays(use, cut, arris), -round(length, 6))

    best = min(ORDER, key=worth)
    line = arris_line(board, best)
    length = abs(crossing(cut, line) - crossing(datum, line))
    return Marking(first[0], datum, best, length, best in long_points(board, first[0]))


def crossing(plane: Plane, line: tuple[float, float]) -> float:
    """How far along the board, in its own axes, a cut crosses a line (y, z) that runs along it."""
    (nx, ny, nz), (y, z) = plane.normal, line
    return (plane.offset - ny * y - nz * z) / nx
