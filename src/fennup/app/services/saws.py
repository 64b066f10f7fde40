"""The workshop's saw: one profile, made when it is first asked for."""

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


def saw_state(session: Session) -> documents.State:
    """The saw's document."""
    try:
        return documents.read(session, ONLY, TYPE)
    except documents.NotFound:
        return documents.create(session, TYPE, Machine().model_dump(mode="json"), "the saw", ONLY)


def current_machine(session: Session) -> Machine:
    """The saw as it now is."""
    return Machine.model_validate(saw_state(session).body)


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
    machine = acted(Machine.model_validate(now.body), acts, voice)
    did = act_words(acts[0]) if acts else "nothing"
    return documents.save(session, ONLY, TYPE, version, machine.model_dump(mode="json"), did)
