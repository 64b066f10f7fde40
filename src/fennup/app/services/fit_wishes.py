"""What is wished at the dry fit of a project: a document of its own, made when it is first changed."""

from datetime import UTC, datetime

from pydantic import ValidationError
from sqlalchemy.orm import Session

from fennup.app.services import documents
from fennup.app.services.upgrade import FIT
from fennup.app.services.validate import changed_by
from fennup.app.wording.figures import Voice
from fennup.core.drawing.edit import Edit
from fennup.core.errors import CoreError
from fennup.core.fit.wishes import FitWishes, edit_fit_wishes


def wishes_id(project: str) -> str:
    """The id of a project's wishes."""
    return f"f-{project[:30]}"


def state_of(session: Session, project: str) -> documents.State:
    """The document; until something is changed the usual wishes."""
    try:
        return documents.read(session, wishes_id(project), FIT)
    except documents.NotFound:
        return documents.State(wishes_id(project), 1, FitWishes().model_dump(mode="json"), None, None, datetime.now(UTC))


def wishes_in(state: documents.State) -> FitWishes:
    """The wishes that a document holds; the usual ones where they cannot be read."""
    try:
        return FitWishes.model_validate(state.body)
    except (ValidationError, CoreError):
        return FitWishes()


def wishes_of(session: Session, project: str) -> FitWishes:
    """A project's wishes."""
    return wishes_in(state_of(session, project))


def save(session: Session, project: str, version: int, wishes: FitWishes, did: documents.Did) -> documents.State:
    """Saved as one revision on the version that was seen. Conflict."""
    try:
        documents.read(session, wishes_id(project), FIT)
    except documents.NotFound:
        documents.create(session, FIT, FitWishes().model_dump(mode="json"), {"event": "workshop"}, wishes_id(project), project)
    return documents.save(session, wishes_id(project), FIT, version, wishes.model_dump(mode="json"), did)


def copy_wishes(session: Session, of: str, to: str) -> None:
    """What is wished for one project, for another one too; nothing where nothing was wished."""
    wishes = wishes_of(session, of)
    if wishes != FitWishes():
        save(session, to, 1, wishes, {"event": "copying"})


def wishes_after(wishes: FitWishes, acts: list[Edit], voice: Voice) -> FitWishes:
    """The wishes after some acts. Invalid."""
    return changed_by(wishes, acts, edit_fit_wishes, voice)
