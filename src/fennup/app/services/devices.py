"""The devices that were let in, and what is set of the application itself."""

import secrets
from datetime import UTC, datetime, timedelta
from hashlib import sha256
from uuid import uuid4

from sqlalchemy import select
from sqlalchemy.orm import Session

from fennup.app.models.tables import Device, Setting

LONGEST_NAME = 40
SEEN_AGAIN = timedelta(minutes=10)  # how exactly it is kept when one was here last
SHARE = "share"


def _now() -> datetime:
    return datetime.now(UTC).replace(tzinfo=None)


def let_in(session: Session, name: str) -> tuple[Device, str]:
    """A new device and its token, which is told once and kept only as what it hashes to. A name that is there gets a number."""
    known = {device.name for device in devices(session)}
    called = name.strip()[:LONGEST_NAME] or "phone"
    number = 2
    while called in known:
        called, number = f"{name.strip()[:LONGEST_NAME] or 'phone'} {number}", number + 1
    token = secrets.token_urlsafe(32)
    device = Device(id=str(uuid4()), name=called, token_sha256=_hash(token), paired_at=_now(), seen_at=_now())
    session.add(device)
    session.flush()
    return device, token


def device_with(session: Session, token: str) -> Device | None:
    """Whose token that is."""
    return session.scalars(select(Device).where(Device.token_sha256 == _hash(token))).first()


def was_seen(device: Device) -> bool:
    """Whether it was seen so lately that it need not be written down."""
    return _now() - device.seen_at < SEEN_AGAIN


def saw(session: Session, id: str) -> None:
    """It is here now."""
    device = session.get(Device, id)
    if device is not None:
        device.seen_at = _now()


def devices(session: Session) -> list[Device]:
    """All of them, the first one first."""
    return list(session.scalars(select(Device).order_by(Device.paired_at, Device.id)))


def send_away(session: Session, id: str) -> bool:
    """Take a device's leave; whether there was such a one."""
    device = session.get(Device, id)
    if device is not None:
        session.delete(device)
    return device is not None


def setting(session: Session, name: str) -> str:
    """What is set, empty where nothing is."""
    found = session.get(Setting, name)
    return found.value if found else ""


def set_to(session: Session, name: str, value: str) -> None:
    """Set something."""
    found = session.get(Setting, name)
    if found:
        found.value = value
    else:
        session.add(Setting(name=name, value=value))


def _hash(token: str) -> str:
    return sha256(token.encode()).hexdigest()
