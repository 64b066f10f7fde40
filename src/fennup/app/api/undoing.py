"""Undo and redo in a place where some of what is done is a record and some a wish."""

from contextlib import suppress
from typing import Any
from uuid import UUID, uuid5

from fennup.app.api.sessions import device_here, writing
from fennup.app.models.tables import Record
from fennup.app.services import documents
from fennup.app.services.fitting import add_own
from fennup.app.services.own import Wishes


def undo_last(project: str, record: Record | None, wishes: Wishes[Any], version: int) -> None:
    """Take back what was done last there: that record, or else the last change of the wishes. Conflict."""
    with writing() as session:
        if record is not None:
            undone = str(uuid5(UUID(record.id), "undone"))
            add_own(session, project, undone, record.id, "undone", {"takes_back": record.id}, device_here())
        else:
            with suppress(documents.NotFound):  # nothing was wished yet
                documents.step(session, wishes.id(project), wishes.type, version, -1)


def redo_wish(project: str, wishes: Wishes[Any], version: int) -> None:
    """Bring back the last change of the wishes that was taken back. Conflict."""
    with writing() as session, suppress(documents.NotFound):
        documents.step(session, wishes.id(project), wishes.type, version, 1)
