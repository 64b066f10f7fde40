"""Documents that a project has besides its own: what is wished in one of its places, made when it is first changed."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, Generic, TypeVar

from pydantic import BaseModel
from sqlalchemy.orm import Session

from fennup.app.services import documents
from fennup.app.services.upgrade import FINISH, FIT, LOG, SAW
from fennup.app.services.validate import changed_by
from fennup.app.wording.figures import Voice
from fennup.core.drawing.edit import Edit
from fennup.core.finish.wishes import FinishWishes, edit_finish_wishes
from fennup.core.fit.wishes import FitWishes, edit_fit_wishes
from fennup.core.log.wishes import LogWishes, edit_log_wishes
from fennup.core.saw.wishes import SawWishes, edit_saw_wishes
from fennup.core.units.lengths import Tape

Model = TypeVar("Model", bound=BaseModel)


@dataclass(frozen=True)
class Wishes(Generic[Model]):
    """One sort of them: its `type` as a document, what its ids begin with, the `usual` ones, and how an act changes them."""

    type: str
    begins: str
    usual: Model
    edit: Callable[[Model, Edit, Tape], dict[str, Any]]

    def id(self, project: str) -> str:
        """The id of a project's."""
        return f"{self.begins}-{project[:30]}"

    def state(self, session: Session, project: str) -> documents.State:
        """The document; until something is changed the usual wishes."""
        try:
            return documents.read(session, self.id(project), self.type)
        except documents.NotFound:
            return documents.State(self.id(project), 1, self.usual.model_dump(mode="json"), None, None, datetime.now(UTC))

    def inside(self, state: documents.State) -> Model:
        """The wishes that a document holds. Unreadable."""
        return documents.inside(state, self.type, type(self.usual))

    def of(self, session: Session, project: str) -> Model:
        """A project's wishes."""
        return self.inside(self.state(session, project))

    def save(self, session: Session, project: str, version: int, wishes: Model, did: documents.Did) -> documents.State:
        """Saved as one revision on the version that was seen. Conflict."""
        id = self.id(project)
        try:
            documents.read(session, id, self.type)
        except documents.NotFound:
            documents.create(session, self.type, self.usual.model_dump(mode="json"), {"event": "workshop"}, id, project)
        return documents.save(session, id, self.type, version, wishes.model_dump(mode="json"), did)

    def copy(self, session: Session, of: str, to: str) -> None:
        """What is wished for one project, for another one too; nothing where nothing was wished."""
        wishes = self.of(session, of)
        if wishes != self.usual:
            self.save(session, to, 1, wishes, {"event": "copying"})

    def after(self, wishes: Model, acts: list[Edit], voice: Voice) -> Model:
        """The wishes after some acts. Invalid."""
        return changed_by(wishes, acts, self.edit, voice)


AT_THE_SAW = Wishes(SAW, "s", SawWishes(), edit_saw_wishes)
AT_THE_FIT = Wishes(FIT, "f", FitWishes(), edit_fit_wishes)
AT_THE_FINISH = Wishes(FINISH, "e", FinishWishes(), edit_finish_wishes)
IN_THE_LOG = Wishes(LOG, "l", LogWishes(), edit_log_wishes)
