"""What is stored: documents and every revision of them. Results are never stored: they are worked out again."""

import json
from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, Integer, String, Text, UniqueConstraint
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column
from sqlalchemy.types import TypeDecorator


class Body(TypeDecorator[Any]):
    """A JSON object as text; None where what is stored is none any more, so that one damaged row hides no other."""

    impl = Text
    cache_ok = True

    def process_bind_param(self, value: Any, dialect: Dialect) -> str:
        return json.dumps(value)

    def process_result_value(self, value: Any, dialect: Dialect) -> Any:
        try:
            found = json.loads(value)
        except (TypeError, ValueError, RecursionError):
            return None
        return found if isinstance(found, dict) else None


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
    body: Mapped[dict[str, Any] | None] = mapped_column(Body)
    at: Mapped[datetime]
