"""The database session of the request that is being answered."""

from flask import current_app
from sqlalchemy.orm import Session


def sessions() -> Session:
    """A new session on the application's database."""
    session: Session = current_app.config["SESSIONS"]()
    return session
