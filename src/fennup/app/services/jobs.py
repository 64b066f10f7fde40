"""Work that takes longer than one waits: asked for in a small table, done by the worker, the newest request first."""

from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any, Literal

from sqlalchemy import delete, select, update
from sqlalchemy.orm import Session

from fennup.app.models.tables import Job

# Told how far a job is, and what it has so far; raises to end it.
Report = Callable[[float, dict[str, Any] | None], None]
State = Literal["waiting", "running", "done", "cancelled", "dropped"]
ENDED: tuple[State, ...] = ("done", "cancelled", "dropped")
MOST_TRIES = 2
MOST_WAITING = 20
MOST_KEPT = 200


def ask_for(session: Session, type: str, based_on: str, given: dict[str, Any]) -> Job:
    """The job for something, asked for anew unless it is known already. Only so many wait: the oldest are dropped."""
    known = newest(session, type, based_on)
    if known and known.state in ("waiting", "running", "done"):
        return known
    now = datetime.now(UTC).replace(tzinfo=None)
    job = Job(type=type, based_on=based_on, given=given, state="waiting", progress=0.0, result=None, tries=0, asked_at=now)
    session.add(job)
    session.flush()
    waiting = select(Job.id).where(Job.state == "waiting").order_by(Job.id.desc()).offset(MOST_WAITING)
    session.execute(update(Job).where(Job.id.in_(waiting)).values(state="dropped"))
    session.execute(delete(Job).where(Job.id <= job.id - MOST_KEPT, Job.state.in_(ENDED)))
    return job


def replace_older(session: Session, type: str, subject: str, based_on: str) -> None:
    """End every other work of a type on a subject, which what it is based on begins with: nobody waits for it any more. It counts as
    not tried."""
    older = Job.type == type, Job.based_on.startswith(subject, autoescape=True), Job.based_on != based_on
    session.execute(update(Job).where(*older, Job.state.in_(("waiting", "running"))).values(state="dropped", tries=0))


def earlier(session: Session, type: str, subject: str, based_on: str) -> Job | None:
    """The last work of a type on a subject that was based on something else and came to something."""
    older = Job.type == type, Job.based_on.startswith(subject, autoescape=True), Job.based_on != based_on
    return session.scalar(select(Job).where(*older, Job.result.is_not(None)).order_by(Job.id.desc()).limit(1))


def newest(session: Session, type: str, based_on: str) -> Job | None:
    """The last job that was asked for on something."""
    return session.scalar(select(Job).where(Job.type == type, Job.based_on == based_on).order_by(Job.id.desc()).limit(1))


def is_waiting(session: Session) -> bool:
    """Whether any job waits."""
    return session.scalar(select(Job.id).where(Job.state == "waiting").limit(1)) is not None


def take_next(session: Session) -> Job | None:
    """The newest job that waits, now running; None when there is none."""
    job = session.scalar(select(Job).where(Job.state == "waiting").order_by(Job.id.desc()).limit(1))
    if job:
        job.state, job.tries = "running", job.tries + 1
        session.flush()
    return job


def report(session: Session, id: int, progress: float, result: dict[str, Any] | None = None) -> bool:
    """How far a running job has come, and what it has so far; whether it is still wanted."""
    job = session.get(Job, id)
    if job is None or job.state != "running":
        return False
    job.progress = progress
    if result is not None:
        job.result = result
    return True


def finish(session: Session, id: int, result: dict[str, Any] | None) -> None:
    """A running job is done; without a result it is dropped."""
    job = session.get(Job, id)
    if job and job.state == "running":
        job.state, job.result, job.progress = ("done", result, 1.0) if result is not None else ("dropped", None, job.progress)


def cancel(session: Session, id: int) -> Job | None:
    """A job that is no longer wanted; None when there is none."""
    job = session.get(Job, id)
    if job and job.state not in ENDED:
        job.state = "cancelled"
    return job


def recover(session: Session) -> None:
    """After a worker ended without a word: what it was at waits again, or is dropped when it broke off before."""
    for job in session.scalars(select(Job).where(Job.state == "running")):
        job.state = "waiting" if job.tries < MOST_TRIES else "dropped"
