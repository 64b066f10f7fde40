"""The database file: opened with WAL and foreign keys, migrated to the newest tables, one transaction a save."""

from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, create_engine, event
from sqlalchemy.orm import Session, sessionmaker

MIGRATIONS = Path(__file__).parent / "migrations"


def open_store(file: Path) -> sessionmaker[Session]:
    """Sessions on the database in that file, which is made and brought up to date first."""
    file.parent.mkdir(parents=True, exist_ok=True)
    engine = create_engine(f"sqlite:///{file}", connect_args={"timeout": 15})
    _prepare(engine)
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
    return sessionmaker(engine, expire_on_commit=False)


def _prepare(engine: Engine) -> None:
    """Every connection: write-ahead log, foreign keys, and a write lock taken when a transaction starts."""

    @event.listens_for(engine, "connect")
    def _connected(connection: Any, _record: object) -> None:
        connection.isolation_level = None
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute("PRAGMA foreign_keys=ON")
        connection.execute("PRAGMA synchronous=NORMAL")

    @event.listens_for(engine, "begin")
    def _begun(connection: Any) -> None:
        connection.exec_driver_sql("BEGIN IMMEDIATE")
