"""Versioned documents: save, undo, redo, delete, restore. Whoever changes one must name the version that they saw."""

import builtins
from dataclasses import dataclass
from datetime import UTC, datetime
from json import dumps
from typing import Any, TypeVar
from uuid import uuid4

from pydantic import BaseModel, ValidationError
from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from fennup.app.models.tables import Document, Revision
from fennup.app.services.upgrade import NEWEST, WORKSHOP, upgraded
from fennup.core.errors import CoreError

Did = dict[str, Any]
Model = TypeVar("Model", bound=BaseModel)


class NotFound(Exception):
    """There is no such document, or it has been deleted."""


class Conflict(Exception):
    """Somebody else changed the document since: `version` is what it is now."""

    def __init__(self, version: int) -> None:
        super().__init__(version)
        self.version = version


class Unreadable(Exception):
    """What is stored of a document is not what this version of the application can read; `type`: of which sort it is."""

    def __init__(self, id: str, type: str) -> None:
        super().__init__(id)
        self.type = type


@dataclass(frozen=True)
class State:
    """A document as it now is, in its type's newest form, and what was done that undo and redo would take back or bring back, as
    data: `{"acts": [...]}` or `{"event": ...}`. `body` is None where it is lost."""

    id: str
    version: int
    body: dict[str, Any] | None
    undo: Did | None
    redo: Did | None
    changed_at: datetime
    example: bool = False

    @property
    def wished_at(self) -> datetime | None:
        """When it was changed last, UTC; None where undo would change nothing."""
        return self.changed_at if self.undo else None


def _now() -> datetime:
    return datetime.now(UTC).replace(tzinfo=None)


def create(
    session: Session,
    type: str,
    body: dict[str, Any],
    did: Did,
    id: str | None = None,
    owner: str = WORKSHOP,
    *,
    example: bool = False,
) -> State:
    """A new document with its first revision."""
    now = _now()
    document = Document(
        id=id or uuid4().hex, owner=owner, type=type, version=1, cursor=1, example=example,
        created_at=now, changed_at=now, deleted_at=None,
    )  # fmt: skip
    session.add(document)
    session.flush()
    session.add(Revision(document_id=document.id, number=1, did=did, form=NEWEST[type], body=body, at=now))
    session.flush()
    return _state(session, document)


def read(session: Session, id: str, type: str) -> State:
    """The document as it is. NotFound when there is none."""
    return _state(session, _find(session, id, type))


def before(session: Session, id: str, type: str) -> dict[str, Any] | None:
    """The document's body before its last change; as it is where there has been none."""
    document = _find(session, id, type)
    found = _maybe(session, document, max(1, document.cursor - 1))
    return _newest(document, found)


def listed(session: Session, type: str) -> list[State]:
    """All documents of a type, the one changed last first."""
    query = select(Document).where(Document.type == type, Document.deleted_at.is_(None))
    return [_state(session, d) for d in session.scalars(query.order_by(Document.changed_at.desc(), Document.id))]


def deleted(session: Session, type: str) -> list[State]:
    """All deleted ones, the one deleted last first."""
    query = select(Document).where(Document.type == type, Document.deleted_at.is_not(None))
    return [_state(session, d) for d in session.scalars(query.order_by(Document.deleted_at.desc(), Document.id))]


def ever_made(session: Session, type: str) -> bool:
    """Whether there has been a document of this type, deleted ones included."""
    return bool(session.scalar(select(func.count()).select_from(Document).where(Document.type == type)))


def save(session: Session, id: str, type: str, version: int, body: dict[str, Any], did: Did) -> State:
    """A new revision; what had been undone can then no longer be redone. Unchanged bodies make none."""
    document = _current(session, id, type, version)
    now = _maybe(session, document, document.cursor)
    if now and now.form == NEWEST[type] and dumps(now.body) == dumps(body):  # in which order tools stand counts too
        return _state(session, document)
    session.execute(delete(Revision).where(Revision.document_id == id, Revision.number > document.cursor))
    _moved(document, document.cursor + 1)
    session.add(Revision(document_id=id, number=document.cursor, did=did, form=NEWEST[type], body=body, at=document.changed_at))
    session.flush()
    return _state(session, document)


def step(session: Session, id: str, type: str, version: int, by: int) -> State:
    """Undo (by -1) or redo (by +1); at either end nothing happens."""
    document = _current(session, id, type, version)
    if _maybe(session, document, document.cursor + by):
        _moved(document, document.cursor + by)
        session.flush()
    return _state(session, document)


def remove(session: Session, id: str, type: str) -> None:
    """Delete, so that it can be restored."""
    _find(session, id, type).deleted_at = _now()


def remove_examples(session: Session, type: str) -> int:
    """Delete all that came with the demo, so that each can be restored; how many there were."""
    query = select(Document).where(Document.type == type, Document.example, Document.deleted_at.is_(None))
    found = list(session.scalars(query))
    for document in found:
        document.deleted_at = _now()
    return len(found)


def restore(session: Session, id: str, type: str) -> State:
    """Bring a deleted document back."""
    document = session.get(Document, id)
    if document is None or document.type != type:
        raise NotFound(id)
    document.deleted_at = None
    session.flush()
    return _state(session, document)


def inside(state: State, type: str, model: builtins.type[Model]) -> Model:
    """What a document holds. Unreadable: the stored body stays as it is, and nothing is saved over it."""
    try:
        return model.model_validate(state.body)
    except (ValidationError, CoreError):
        raise Unreadable(state.id, type) from None


def _find(session: Session, id: str, type: str) -> Document:
    document = session.get(Document, id)
    if document is None or document.type != type or document.deleted_at is not None:
        raise NotFound(id)
    return document


def _current(session: Session, id: str, type: str, version: int) -> Document:
    document = _find(session, id, type)
    if document.version != version:
        raise Conflict(document.version)
    return document


def _moved(document: Document, cursor: int) -> None:
    document.cursor, document.version, document.changed_at = cursor, document.version + 1, _now()


def _maybe(session: Session, document: Document, number: int) -> Revision | None:
    query = select(Revision).where(Revision.document_id == document.id, Revision.number == number)
    return session.scalar(query)


def _newest(document: Document, revision: Revision | None) -> dict[str, Any] | None:
    """A revision's body in its type's newest form."""
    return upgraded(document.type, revision.form, revision.body) if revision else None


def _state(session: Session, document: Document) -> State:
    here = _maybe(session, document, document.cursor)
    after = _maybe(session, document, document.cursor + 1)
    return State(
        id=document.id,
        version=document.version,
        body=_newest(document, here),
        undo=here.did if here and document.cursor > 1 else None,
        redo=after.did if after else None,
        changed_at=document.changed_at,
        example=document.example,
    )
