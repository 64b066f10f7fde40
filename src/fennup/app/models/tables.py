"""What is stored: documents and every revision of them, records, files, jobs. What follows from them is worked out again."""

import json
from datetime import datetime
from typing import Any

from sqlalchemy import Boolean, Float, ForeignKey, Integer, LargeBinary, String, Text, UniqueConstraint
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column
from sqlalchemy.types import TypeDecorator


class Body(TypeDecorator[Any]):
    """A JSON object as text; None where what is stored is none any more, so that one damaged row hides no other."""

    impl = Text
    cache_ok = True

    def process_bind_param(self, value: Any, dialect: Dialect) -> str | None:
        return None if value is None else json.dumps(value)

    def process_result_value(self, value: Any, dialect: Dialect) -> Any:
        try:
            found = json.loads(value)
        except (TypeError, ValueError, RecursionError):
            return None
        return found if isinstance(found, dict) else None


class Base(DeclarativeBase):
    """All tables."""


class Document(Base):
    """Something that is changed by acts and can be undone. `owner`: the workshop, or the project that it belongs to. `version`
    grows with every change, undo and redo included: whoever saves must name the one they saw. `cursor` is the number of the
    revision that now holds. `example`: it came with the demo."""

    __tablename__ = "document"

    id: Mapped[str] = mapped_column(String(32), primary_key=True)
    owner: Mapped[str] = mapped_column(String(32), index=True)
    type: Mapped[str] = mapped_column(String(16), index=True)
    version: Mapped[int] = mapped_column(Integer)
    cursor: Mapped[int] = mapped_column(Integer)
    example: Mapped[bool] = mapped_column(Boolean)
    created_at: Mapped[datetime]
    changed_at: Mapped[datetime]
    deleted_at: Mapped[datetime | None]


class Revision(Base):
    """One state of a document, and what was done to get there: acts, an event, or what was said of it before acts were kept.
    `form`: the version of the body's form (see `services/upgrade`)."""

    __tablename__ = "revision"
    __table_args__ = (UniqueConstraint("document_id", "number"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    document_id: Mapped[str] = mapped_column(ForeignKey("document.id", ondelete="CASCADE"), index=True)
    number: Mapped[int] = mapped_column(Integer)
    did: Mapped[dict[str, Any] | None] = mapped_column(Body)
    form: Mapped[int] = mapped_column(Integer)
    body: Mapped[dict[str, Any] | None] = mapped_column(Body)
    at: Mapped[datetime]


class Record(Base):
    """One thing that happened. The database refuses to change or delete one: no undo and no conflict touches it.

    `id` is made by the client; `key` and `fingerprint` say what it was about and how that was then; `device_time` and `received`
    are ISO 8601 with their time zones.
    """

    __tablename__ = "record"

    id: Mapped[str] = mapped_column(String(36), primary_key=True)
    project_id: Mapped[str] = mapped_column(String(32), index=True)
    key: Mapped[str] = mapped_column(String(120))
    fingerprint: Mapped[str] = mapped_column(String(32))
    type: Mapped[str] = mapped_column(String(32))
    device: Mapped[str] = mapped_column(String(64))
    device_time: Mapped[str] = mapped_column(String(40))
    received: Mapped[str] = mapped_column(String(40))
    body: Mapped[dict[str, Any] | None] = mapped_column(Body)


class File(Base):
    """A photo or another file that belongs to a project."""

    __tablename__ = "file"

    id: Mapped[str] = mapped_column(String(36), primary_key=True)
    project_id: Mapped[str] = mapped_column(String(32), index=True)
    name: Mapped[str] = mapped_column(String(200))
    media_type: Mapped[str] = mapped_column(String(80))
    sha256: Mapped[str] = mapped_column(String(64))
    content: Mapped[bytes] = mapped_column(LargeBinary)
    at: Mapped[datetime]


class Device(Base):
    """A phone or another computer that was let in. Its token itself is kept on it alone."""

    __tablename__ = "device"

    id: Mapped[str] = mapped_column(String(36), primary_key=True)
    name: Mapped[str] = mapped_column(String(64))
    token_sha256: Mapped[str] = mapped_column(String(64), unique=True)
    paired_at: Mapped[datetime]
    seen_at: Mapped[datetime]


class Setting(Base):
    """Something that is set of the application itself, by its name."""

    __tablename__ = "setting"

    name: Mapped[str] = mapped_column(String(40), primary_key=True)
    value: Mapped[str] = mapped_column(String(200))


class Job(Base):
    """Work for the worker process: what is asked, what it is `based_on`, how far it has come, and what came out."""

    __tablename__ = "job"

    id: Mapped[int] = mapped_column(primary_key=True)
    type: Mapped[str] = mapped_column(String(32))
    based_on: Mapped[str] = mapped_column(String(80), index=True)
    given: Mapped[dict[str, Any] | None] = mapped_column(Body)
    state: Mapped[str] = mapped_column(String(16))
    progress: Mapped[float] = mapped_column(Float)
    result: Mapped[dict[str, Any] | None] = mapped_column(Body)
    tries: Mapped[int] = mapped_column(Integer)
    asked_at: Mapped[datetime]
