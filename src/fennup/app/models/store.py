"""The database file: opened and checked, migrated to the newest tables, read without a lock, written in one transaction a save."""

import os
import sqlite3
from collections.abc import Iterator
from contextlib import AbstractContextManager, closing, contextmanager
from datetime import datetime
from pathlib import Path
from typing import Any, Literal

from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.exc import DatabaseError
from sqlalchemy.orm import Session

MIGRATIONS = Path(__file__).parent / "migrations"
OWN_TABLES = {"document", "revision"}
BUSY_SECONDS = 10.0
Code = Literal[
    "no_folder",
    "no_access",
    "only_readable",
    "is_folder",
    "no_database",
    "foreign",
    "newer",
    "damaged",
    "full",
    "read_only",
    "busy",
    "gone",
]


class Trouble(Exception):
    """The database file cannot be used: why, and which file."""

    def __init__(self, code: Code, file: Path) -> None:
        super().__init__(code, str(file))
        self.code: Code = code
        self.file = file


# By the beginning of what SQLite calls its error.
_CODES: dict[str, Code] = {
    "SQLITE_FULL": "full", "SQLITE_IOERR": "full", "SQLITE_READONLY": "read_only", "SQLITE_BUSY": "busy", "SQLITE_LOCKED": "busy",
    "SQLITE_CORRUPT": "damaged", "SQLITE_NOTADB": "no_database", "SQLITE_CANTOPEN": "no_access", "SQLITE_PERM": "no_access",
}  # fmt: skip


class Store:
    """An open database file."""

    def __init__(self, file: Path, engine: Engine) -> None:
        self.file = file
        self._readers = engine
        self._writers = engine.execution_options(writes=True)
        self._opened = _identity(file)

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """A session that sees one state of the file and takes no lock. Trouble when it cannot be read."""
        with _as_trouble(self.file), Session(self._readers, expire_on_commit=False) as session, session.begin():
            yield session

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """A session whose changes are all saved, or none. Trouble when they cannot be, also where the file is no longer there."""
        with _as_trouble(self.file), Session(self._writers, expire_on_commit=False) as session, session.begin():
            yield session
            session.flush()
            if _identity(self.file) != self._opened:
                raise Trouble("gone", self.file)

    def upgrading(self) -> AbstractContextManager[Connection]:
        """A transaction on the tables themselves."""
        return self._readers.begin()

    def close(self) -> None:
        """Let go of the file: the last to do so brings everything into it."""
        self._readers.dispose()


def open_store(file: Path) -> Store:
    """The database in that file, which is made and brought up to date first. Trouble when it cannot be."""
    file = file.absolute()
    _make_private(file)
    _check(file)
    store = attach_store(file)
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    if _needs_upgrade(file):
        back_up(file)
    with _as_trouble(file), store.upgrading() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
    return store


def attach_store(file: Path) -> Store:
    """The database in a file that the server has opened and brought up to date."""
    engine = create_engine(f"sqlite:///{file}", connect_args={"timeout": BUSY_SECONDS})
    _prepare(engine)
    return Store(file, engine)


def back_up(file: Path, to: Path | None = None) -> Path:
    """A copy of the database, also of one that is in use; by default dated, in `backups` beside it. Trouble when there is none to
    copy, or it cannot be written."""
    file = file.absolute()
    if not file.exists():
        raise Trouble("no_access", file)
    _check(file)
    to = to or file.parent / "backups" / f"{file.stem}-{datetime.now():%Y-%m-%d-%H%M%S}.db"
    to.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    with _as_trouble(file), closing(sqlite3.connect(file, timeout=BUSY_SECONDS)) as source, closing(sqlite3.connect(to)) as copy:
        to.chmod(0o600)
        source.backup(copy)
    return to


@contextmanager
def _as_trouble(file: Path) -> Iterator[None]:
    """Errors of the database as Trouble."""
    try:
        yield
    except (DatabaseError, sqlite3.DatabaseError) as error:
        name = getattr(getattr(error, "orig", error), "sqlite_errorname", "")
        code = next((code for start, code in _CODES.items() if name.startswith(start)), None)
        if code is None:
            raise
        raise Trouble(code, file) from error


def _identity(file: Path) -> tuple[int, int] | None:
    """What tells a file from another one in its place."""
    try:
        found = file.stat()
    except OSError:
        return None
    return found.st_dev, found.st_ino


def _make_private(file: Path) -> None:
    """The folder and the file, readable by their owner alone; a folder that holds other things is left as it is."""
    if file.is_dir():
        raise Trouble("is_folder", file)
    folder = file.parent
    try:
        if not folder.exists():
            folder.mkdir(parents=True, mode=0o700)
        elif all(other.name.startswith((file.name, "backups")) for other in folder.iterdir()):
            folder.chmod(folder.stat().st_mode & 0o700)
    except OSError:
        if not folder.is_dir():
            raise Trouble("no_folder", folder) from None
    try:
        file.touch(mode=0o600)
        for own in (file, *(file.with_name(file.name + tail) for tail in ("-wal", "-shm"))):
            if own.exists():
                own.chmod(own.stat().st_mode & 0o600)
    except OSError:
        pass  # whether it can be used at all is found next
    if not os.access(file, os.R_OK | os.W_OK):
        raise Trouble("only_readable" if os.access(file, os.R_OK) else "no_access", file)
    if not os.access(folder, os.W_OK):
        raise Trouble("no_folder", folder)


def _check(file: Path) -> None:
    """Trouble where the file is none of ours, of a later version, or damaged. Nothing in it is changed."""
    with _as_trouble(file), closing(sqlite3.connect(f"file:{file}?mode=ro", uri=True, timeout=BUSY_SECONDS)) as connection:
        tables = {name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        if not tables:
            return
        try:
            sound = connection.execute("PRAGMA quick_check(1)").fetchone()[0] == "ok"
        except sqlite3.DatabaseError:
            sound = False
        if not sound:
            raise Trouble("damaged", file)
        if "alembic_version" not in tables or not tables >= OWN_TABLES:
            raise Trouble("foreign", file)
        (version,) = connection.execute("SELECT version_num FROM alembic_version").fetchone() or ("",)
        if version not in {script.revision for script in ScriptDirectory(str(MIGRATIONS)).walk_revisions()}:
            raise Trouble("newer", file)


def _needs_upgrade(file: Path) -> bool:
    """Whether it holds something, in older tables than this version's."""
    with _as_trouble(file), closing(sqlite3.connect(file, timeout=BUSY_SECONDS)) as connection:
        if not connection.execute("SELECT count(*) FROM sqlite_master").fetchone()[0]:
            return False
        (version,) = connection.execute("SELECT version_num FROM alembic_version").fetchone() or ("",)
    return version != ScriptDirectory(str(MIGRATIONS)).get_current_head()


def _prepare(engine: Engine) -> None:
    """Every connection: write-ahead log flushed at every save, foreign keys, and a write lock only where something is written."""

    @event.listens_for(engine, "connect")
    def _set_up(connection: Any, _record: object) -> None:
        connection.isolation_level = None
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute("PRAGMA foreign_keys=ON")
        connection.execute("PRAGMA synchronous=FULL")
        connection.execute("PRAGMA wal_autocheckpoint=1")  # the one file is never far behind

    @event.listens_for(engine, "begin")
    def _begin(connection: Any) -> None:
        writes = connection.get_execution_options().get("writes", False)
        connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")
