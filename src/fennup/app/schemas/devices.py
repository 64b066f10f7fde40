"""What goes over the wire about the devices that are let in."""

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, Field

from fennup.app.schemas.api import Body


class DeviceOut(BaseModel):
    """A device that was let in."""

    id: str
    name: str
    paired_at: datetime
    seen_at: datetime


class ShareOut(BaseModel):
    """Whether phones are let in and where they find this machine; `fingerprint` of the certificate to be trusted; `trouble`: why it does not listen."""

    on: bool
    url: str
    fingerprint: str
    trouble: str
    devices: list[DeviceOut]


class ShareChange(Body):
    """Let phones in, or none any more."""

    on: bool


class CodeOut(BaseModel):
    """A code, good for so many seconds; where to type it, and the same as a picture: rows of light and dark, `0` and `1`."""

    code: str
    url: str
    seconds: int
    qr: list[str]


class PairIn(Body):
    """What a phone sends: the code, and what it wants to be called."""

    code: Annotated[str, Field(min_length=1, max_length=12)]
    name: Annotated[str, Field(max_length=64)] = ""


class MeOut(BaseModel):
    """Who is asking: the desk, or a device by its name."""

    desk: bool
    name: str


class DevicePath(BaseModel):
    """Which device."""

    device_id: Annotated[str, Field(max_length=40)]
