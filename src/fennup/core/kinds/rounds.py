"""Pieces that go round and are mitered to each other, in every kind: a cap, a ring, a ledger."""

from collections.abc import Sequence

from fennup.core.assembly.board import Board, End
from fennup.core.assembly.model import BareFor, Joint, Mating, Ring
from fennup.core.geometry.plane import Plane, joint_plane
from fennup.core.kinds.inner import Added


def add_round(
    added: Added, pieces: Sequence[tuple[Board, Plane, Plane]], names: Sequence[str], bare_for: BareFor = ""
) -> list[Board]:
    """Boards in the order in which they go round, each with the planes of its outside and its inside, mitered from corner to corner.

    `names`: of the joints, that of the first board and the second one first; `bare_for` is theirs. They are added, and given back. CutError `parallel`.
    """
    boards = [board for board, _, _ in pieces]
    count = len(pieces)
    for i, name in enumerate(names):
        k = (i + 1) % count
        (_, outer_a, inner_a), (_, outer_b, inner_b) = pieces[i], pieces[k]
        miter = joint_plane(outer_a, outer_b, inner_a, inner_b)
        boards[i], boards[k] = boards[i].with_cut("right", miter), boards[k].with_cut("left", miter.flipped())
        a, b = boards[i].id, boards[k].id
        ends: tuple[tuple[str, End], ...] = ((a, "right"), (b, "left"))
        added.joints.append(Joint(name, "miter", Mating(a, "right:0"), Mating(b, "left:0"), ends, bare_for))
    added.boards += boards
    added.rings.append(Ring(tuple(board.id for board in boards)))
    return boards
