"""What happened, one thing a record: only ever added. And files that belong to a project."""

from collections.abc import Callable, Iterable, Mapping, Sequence
from datetime import UTC, datetime
from hashlib import sha256
from typing import Annotated, Any
from uuid import UUID, uuid4, uuid5

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, ValidationError
from sqlalchemy import select
from sqlalchemy.orm import Session

from fennup.app.models.tables import File, Record
from fennup.app.services.validate import Invalid, validated
from fennup.app.wording.figures import Voice
from fennup.core.records.entry import BODIES, Entry
from fennup.core.records.fold import live
from fennup.core.units.lengths import tape

LARGEST_FILE = 8 * 1024 * 1024
LARGEST_RECORD = 16 * 1024
PLAIN = Voice(tape("mm", "1"))
NO_FILES: Mapping[str, str] = {}
REFERS = ("takes_back", "of", "lesson")  # fields that name another record
MEDIA_TYPES = ("image/jpeg", "image/png", "image/webp", "text/csv", "application/json")


class NewRecord(BaseModel):
    """A record as a device sends it. `id` is the device's own, so that sending it twice adds it once."""

    model_config = ConfigDict(extra="forbid")

    id: Annotated[str, Field(pattern=r"^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$", description="a UUID, lower case")]
    key: Annotated[str, Field(max_length=120, description="what it is about: a board, a joint, a cut, a size")]
    fingerprint: Annotated[
        str, Field(max_length=32, description="that part's geometry as it was then; empty where it has none")
    ] = ""
    type: Annotated[str, Field(pattern=r"^[a-z_]{1,32}$")]
    device: Annotated[str, Field(max_length=64)] = ""
    device_time: AwareDatetime
    body: dict[str, Any] = {}


class Clash(Exception):
    """There is another record with that id already."""


class TooLarge(Exception):
    """A file or a record is larger than `most` bytes."""

    def __init__(self, most: int) -> None:
        super().__init__(most)
        self.most = most


def check_body(new: NewRecord) -> None:
    """Invalid where a type that Fennup knows says something else than its form; any other type may say what it likes."""
    form = BODIES.get(new.type)
    if form is not None:
        try:
            validated(form, new.body, PLAIN)
        except Invalid as refused:
            raise refused.within("body.") from None


def entries_of(records: Iterable[Record | NewRecord]) -> list[Entry]:
    """Records of what was done at the bench; those of other types or other forms are left out."""
    found = []
    for record in records:
        form = BODIES.get(record.type)
        try:
            body = form.model_validate(record.body) if form else None
        except ValidationError:
            body = None
        if body is not None:
            at = record.device_time
            at = datetime.fromisoformat(at) if isinstance(at, str) else at
            found.append(Entry(record.id, record.key, record.type, at, record.device, record.fingerprint, body))
    return found


def add_record(session: Session, project_id: str, new: NewRecord) -> Record:
    """Add a record; the same one again is the one that is there. Clash where another has its id, TooLarge."""
    if len(new.model_dump_json()) > LARGEST_RECORD:
        raise TooLarge(LARGEST_RECORD)
    sent = new.model_dump(mode="json") | {"device_time": new.device_time.isoformat(), "project_id": project_id}
    known = session.get(Record, new.id)
    if known is None:
        known = Record(**sent, received=datetime.now().astimezone().isoformat(timespec="milliseconds"))
        session.add(known)
        session.flush()
    elif any(getattr(known, name) != value for name, value in sent.items()):
        raise Clash(new.id)
    return known


def add_imported(session: Session, project_id: str, brought: list[NewRecord], files: Mapping[str, str] = NO_FILES) -> None:
    """Add the records of another project's file. Those that are here already, with the project they were made in, are this project's under new ids
    made of both, so that the same file brought in twice is the same twice; what refers to one follows it. `files`: what the files are called here."""
    known = {record.id for record in brought if session.get(Record, record.id) is not None}
    for record in brought:
        change: dict[str, Any] = {}
        if record.id in known:
            change["id"] = _own_id(record.id, project_id)
        follows = {name: _own_id(str(record.body[name]), project_id) for name in REFERS if record.body.get(name) in known}
        if record.type == "photo" and record.body.get("file") in files:
            follows["file"] = files[record.body["file"]]
        if follows:
            change["body"] = {**record.body, **follows}
        add_record(session, project_id, record.model_copy(update=change))


def _own_id(id: str, project_id: str) -> str:
    return str(uuid5(UUID(id), project_id))


def records_of(session: Session, project_id: str) -> list[Record]:
    """All records of a project, in the order in which they happened as their devices tell it; the id settles a tie."""
    found = session.scalars(select(Record).where(Record.project_id == project_id))
    return sorted(found, key=lambda record: (datetime.fromisoformat(record.device_time), record.id))


def last_here(records: Sequence[Record], own: Callable[[Entry], bool], wished: datetime | None) -> Record | None:
    """The record that undo takes back in a place: the last one of its `own` that was not taken back, where nothing was `wished` there since (UTC)."""
    mine = {entry.id for entry in live(entries_of(records)) if own(entry)}
    last = max((r for r in records if r.id in mine), key=lambda r: datetime.fromisoformat(r.received), default=None)
    since = wished.replace(tzinfo=UTC) if wished and not wished.tzinfo else wished
    return last if last and (since is None or datetime.fromisoformat(last.received) >= since) else None


def add_file(session: Session, project_id: str, name: str, media_type: str, content: bytes, id: str | None = None) -> File:
    """Keep a file with its project, under its own id where that is free. TooLarge; ValueError for a media type that is not kept."""
    if len(content) > LARGEST_FILE:
        raise TooLarge(LARGEST_FILE)
    if media_type not in MEDIA_TYPES:
        raise ValueError(media_type)
    now = datetime.now(UTC).replace(tzinfo=None)
    file = File(
        id=id if id and session.get(File, id) is None else str(uuid4()),
        project_id=project_id,
        name=name[:200],
        media_type=media_type,
        sha256=sha256(content).hexdigest(),
        content=content,
        at=now,
    )
    session.add(file)
    session.flush()
    return file


def files_of(session: Session, project_id: str) -> list[File]:
    """All files of a project, the oldest first."""
    return list(session.scalars(select(File).where(File.project_id == project_id).order_by(File.at, File.id)))
