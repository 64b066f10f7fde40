"""The workshop: one document, stored when it is first changed."""

from datetime import UTC, datetime

from pydantic import ValidationError
from sqlalchemy.orm import Session

from fennup.app.services import documents
from fennup.app.services.upgrade import WORKSHOP as TYPE
from fennup.app.services.validate import changed_by
from fennup.app.wording.figures import Voice
from fennup.core.drawing.edit import Edit
from fennup.core.errors import CoreError
from fennup.core.workshop import TapeChoice, Workshop, edit_workshop

ONLY = "bench-saw"  # the first thing that was stored of it was the saw
BUILT_IN = Workshop(tape=TapeChoice())


def workshop_state(session: Session) -> documents.State:
    """The workshop's document; until something is changed the built-in one."""
    try:
        return documents.read(session, ONLY, TYPE)
    except documents.NotFound:
        return documents.State(ONLY, 1, BUILT_IN.model_dump(mode="json"), None, None, datetime.now(UTC))


def workshop_in(state: documents.State) -> Workshop | None:
    """The workshop that a document holds; None where it cannot be read."""
    try:
        return Workshop.model_validate(state.body)
    except (ValidationError, CoreError):
        return None


def current_workshop(session: Session) -> Workshop:
    """The workshop as it now is; the built-in one where what is stored cannot be read."""
    return workshop_in(workshop_state(session)) or BUILT_IN


def after_acts(workshop: Workshop, acts: list[Edit], voice: Voice) -> Workshop:
    """The workshop after some acts; Invalid names the field of the first that cannot be."""
    return changed_by(workshop, acts, edit_workshop, voice)


def save_workshop(session: Session, version: int, workshop: Workshop, did: documents.Did) -> documents.State:
    """Saved as one revision on the version that was seen."""
    if not documents.ever_made(session, TYPE):
        documents.create(session, TYPE, BUILT_IN.model_dump(mode="json", exclude={"wishes"}), {"event": "workshop"}, ONLY)
    return documents.save(session, ONLY, TYPE, version, workshop.model_dump(mode="json", exclude={"wishes"}), did)
