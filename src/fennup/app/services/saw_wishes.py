"""What is wished at the saws for a project: a document of its own, made when it is first changed."""

from datetime import UTC, datetime

from pydantic import ValidationError
from sqlalchemy.orm import Session

from fennup.app.services import documents
from fennup.app.services.upgrade import SAW
from fennup.app.services.validate import changed_by, from_core
from fennup.app.wording.figures import Voice
from fennup.core.drawing.edit import Edit
from fennup.core.errors import CoreError, SpecError
from fennup.core.exchange.boards_forms import BoardsDocument
from fennup.core.saw.wishes import SawWishes, edit_saw_wishes
from fennup.core.steps.placed import Placement
from fennup.core.steps.planned import StepsPlan


def wishes_id(project: str) -> str:
    """The id of a project's wishes."""
    return f"s-{project[:30]}"


def state_of(session: Session, project: str) -> documents.State:
    """The document; until something is changed the usual wishes."""
    try:
        return documents.read(session, wishes_id(project), SAW)
    except documents.NotFound:
        return documents.State(wishes_id(project), 1, SawWishes().model_dump(mode="json"), None, None, datetime.now(UTC))


def wishes_in(state: documents.State) -> SawWishes:
    """The wishes that a document holds; the usual ones where they cannot be read."""
    try:
        return SawWishes.model_validate(state.body)
    except (ValidationError, CoreError):
        return SawWishes()


def save(session: Session, project: str, version: int, wishes: SawWishes, did: documents.Did) -> documents.State:
    """Saved as one revision on the version that was seen. Conflict."""
    try:
        documents.read(session, wishes_id(project), SAW)
    except documents.NotFound:
        documents.create(session, SAW, SawWishes().model_dump(mode="json"), {"event": "workshop"}, wishes_id(project), project)
    return documents.save(session, wishes_id(project), SAW, version, wishes.model_dump(mode="json"), did)


def copy_wishes(session: Session, of: str, to: str) -> None:
    """What is wished for one project, for another one too; nothing where nothing was wished."""
    wishes = wishes_in(state_of(session, of))
    if wishes != SawWishes():
        save(session, to, 1, wishes, {"event": "copying"})


def wishes_after(wishes: SawWishes, acts: list[Edit], voice: Voice) -> SawWishes:
    """The wishes after some acts. Invalid."""
    return changed_by(wishes, acts, edit_saw_wishes, voice)


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
        name = f"{board.name}, board {board.number}" if several else board.name
        for piece in board.pieces:
            if not piece.project:
                found[piece.key] = Placement(name, piece.rough_mm, shared.get(piece.key, {}))
    return found
