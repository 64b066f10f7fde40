"""What wishes at the saws come to: an order that cannot be worked in is refused; where pieces lie in a plan of the boards."""

from fennup.app.services.validate import from_core
from fennup.app.wording.boards import board_title
from fennup.app.wording.figures import Voice
from fennup.core.errors import SpecError
from fennup.core.exchange.boards_forms import BoardsDocument
from fennup.core.steps.placed import Placement
from fennup.core.steps.planned import StepsPlan


def refuse_broken(plan: StepsPlan, names: dict[str, str], voice: Voice) -> None:
    """Invalid where the order that was just wished is none that can be worked in, with the two steps by name."""
    if plan.broken:
        step, needs = (names.get(str(plan.broken.data.get(name)), "") for name in ("step", "needs"))
        raise from_core(SpecError("out_of_order", ("order",), step=step, needs=needs), voice)


def placements(plan: BoardsDocument) -> dict[str, Placement]:
    """Where the pieces lie in a plan of the boards, and which ends one cut makes at once, by each piece's own ends."""
    turned = {piece.key: piece.end_for_end for board in plan.boards for piece in board.pieces}
    found: dict[str, Placement] = {}

    def own(told: str) -> tuple[str, str]:
        key, _, end = told.rpartition(" ")
        if turned.get(key):
            end = "left" if end == "right" else "right"
        return key, f"{key} {end}"

    for board in plan.boards:
        shared: dict[str, dict[str, str]] = {}
        for cut in board.cuts:
            if len(cut.ends) == 2:
                (one, one_end), (other, other_end) = own(cut.ends[0]), own(cut.ends[1])
                shared.setdefault(one, {})[one_end] = other_end
                shared.setdefault(other, {})[other_end] = one_end
        several = sum(b.source == board.source for b in plan.boards) > 1
        title = board_title(board.name, board.source)
        name = f"{title}, board {board.number}" if several else title
        for piece in board.pieces:
            if not piece.project:
                found[piece.key] = Placement(name, piece.rough_mm, shared.get(piece.key, {}), board.bought)
    return found
