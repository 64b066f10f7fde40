"""The database and the worker of the application that answers the request."""

from contextlib import AbstractContextManager

from flask import current_app, g
from sqlalchemy.orm import Session

from fennup.app.models.store import Store


def store() -> Store:
    """The application's database."""
    found: Store = current_app.config["STORE"]
    return found


def reading() -> AbstractContextManager[Session]:
    """A session on the application's database that locks nothing."""
    return store().reading()


def writing() -> AbstractContextManager[Session]:
    """A session whose changes are saved together."""
    return store().writing()


def has_worker() -> bool:
    """Whether a worker is there to do what takes long."""
    return current_app.config.get("WORKER") is not None


def wake_worker() -> None:
    """Tell the worker that something was asked for."""
    worker = current_app.config.get("WORKER")
    if worker is not None:
        worker.wake()


def device_here() -> str:
    """From which device something is sent."""
    return str(getattr(g, "device_name", "desk"))
