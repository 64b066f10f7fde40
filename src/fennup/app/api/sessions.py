"""The database sessions of the request that is being answered."""

from contextlib import AbstractContextManager

from flask import current_app
from sqlalchemy.orm import Session

from fennup.app.models.store import Store


def reading() -> AbstractContextManager[Session]:
    """A session on the application's database that locks nothing."""
    store: Store = current_app.config["STORE"]
    return store.reading()


def writing() -> AbstractContextManager[Session]:
    """A session whose changes are saved together."""
    store: Store = current_app.config["STORE"]
    return store.writing()
