"""What is stored: documents and every revision of them. Results are never stored: they are worked out again."""

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, ForeignKey, Integer, String, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """All tables."""


class Document(Base):
    """A project or the saw. `version` grows with every change, undo and redo included: whoever saves must name the
    one they saw. `cursor` is the number of the revision that now holds."""

    __tablename__ = "document"

    id: Mapped[str] = mapped_column(String(32), primary_key=True)
    type: Mapped[str] = mapped_column(String(16), index=True)
    version: Mapped[int] = mapped_column(Integer)
    cursor: Mapped[int] = mapped_column(Integer)
    created_at: Mapped[datetime]
    changed_at: Mapped[datetime]
    deleted_at: Mapped[datetime | None]


class Revision(Base):
    """One state of a document, and what was done to get there."""

    __tablename__ = "revision"
    __table_args__ = (UniqueConstraint("document_id", "number"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    document_id: Mapped[str] = mapped_column(ForeignKey("document.id", ondelete="CASCADE"), index=True)
    number: Mapped[int] = mapped_column(Integer)
    did: Mapped[str] = mapped_column(String(120))
    body: Mapped[dict[str, Any]] = mapped_column(JSON)
    at: Mapped[datetime]
