"""The workshop's saw: one profile, stored when it is first changed."""

from datetime import UTC, datetime

from pydantic import ValidationError
from sqlalchemy.orm import Session

from fennup.app.services import documents
from fennup.app.services.validate import from_core, validated
from fennup.app.wording.acts import act_words
from fennup.app.wording.figures import Voice
from fennup.core.drawing.edit import Edit
from fennup.core.errors import CoreError
from fennup.core.saw.machine import Machine
from fennup.core.saw.profile import edit_machine

TYPE = "saw"
ONLY = "bench-saw"
BUILT_IN = Machine()


def saw_state(session: Session) -> documents.State:
    """The saw's document; until something is changed the built-in one."""
    try:
        return documents.read(session, ONLY, TYPE)
    except documents.NotFound:
        return documents.State(ONLY, 1, BUILT_IN.model_dump(mode="json"), None, None, datetime.now(UTC))


def machine_of(state: documents.State) -> Machine | None:
    """The saw that a document holds; None where it cannot be read."""
    try:
        return Machine.model_validate(state.body)
    except ValidationError:
        return None


def current_machine(session: Session) -> Machine:
    """The saw as it now is; the built-in one where what is stored cannot be read."""
    return machine_of(saw_state(session)) or BUILT_IN


def acted(machine: Machine, acts: list[Edit], voice: Voice) -> Machine:
    """The saw after some acts; Invalid names the field of the first that cannot be."""
    for act in acts:
        try:
            document = edit_machine(machine, act, voice.tape)
        except CoreError as error:
            raise from_core(error, voice) from None
        machine = validated(Machine, document, voice)
    return machine


def edit_saw(session: Session, version: int, acts: list[Edit], voice: Voice) -> documents.State:
    """Acts done and saved as one revision."""
    now = saw_state(session)
    machine = acted(machine_of(now) or BUILT_IN, acts, voice)
    if not documents.ever_made(session, TYPE):
        documents.create(session, TYPE, BUILT_IN.model_dump(mode="json"), "the saw", ONLY)
    did = act_words(acts[0]) if acts else "nothing"
    return documents.save(session, ONLY, TYPE, version, machine.model_dump(mode="json"), did)
