"""Readings of instruments, from their own program: checked, no more of them than anybody reads, and what is wrong with them in words."""

import json
import math
import time
from collections.abc import Iterator
from http.client import HTTPException
from urllib.error import URLError
from urllib.request import urlopen

from fennup.app.schemas.instruments import InstrumentList, InstrumentOut, ReadingOut, ZeroOut
from fennup.core.bench.zero import zero_from

WHERE = "http://127.0.0.1:8020"
SECONDS = 3.0
LARGEST_LINE, LARGEST_LIST = 2000, 64 * 1024
AT_MOST_EVERY = 0.15  # seconds: a flood is read, and the newest of it told
MOST = {"deg": 360.0, "mm": 10_000.0}
NAMES = {"angle_gauge": "Angle gauge", "caliper": "Caliper"}
LOW_BATTERY = 0.15
NONE = "No instrument answers. They are switched on with ./fennup instruments; typing works without."
LOST = "The connection to it is lost. Typing still works."
NONSENSE = "What it sends is no reading. Switch it off and on; typing still works."
BATTERY = "Its battery is low: what it reads wavers."
FAILS = (URLError, OSError, ValueError, KeyError, TypeError, HTTPException)


def instruments_at(where: str) -> InstrumentList:
    """Those that there are; none where their program does not answer, or with nonsense."""
    try:
        with urlopen(f"{where}/v1/instruments", timeout=SECONDS) as answer:
            listed = json.loads(answer.read(LARGEST_LIST))["instruments"]
        found = [
            InstrumentOut(id=str(one["id"])[:40], name=NAMES[one["kind"]], unit="deg" if one["unit"] == "deg" else "mm")
            for one in listed
        ]
    except FAILS:
        found = []
    return InstrumentList(instruments=found, notice="" if found else NONE)


def readings_of(where: str, id: str, seconds: float) -> Iterator[ReadingOut]:
    """The readings of one for so long, some a second at the most; where it has gone the last one says so."""
    began, told_at, presses = time.monotonic(), 0.0, None
    try:
        with urlopen(f"{where}/v1/instruments/{id}/stream", timeout=SECONDS) as stream:
            while (now := time.monotonic()) - began < seconds:
                line = stream.readline(LARGEST_LINE)
                if not line:
                    break
                reading, pressed = _read(line)
                sent = pressed is not None and presses is not None and pressed != presses
                presses = pressed if pressed is not None else presses
                if sent or now - told_at >= AT_MOST_EVERY:
                    told_at = now
                    yield reading.model_copy(update={"sent": sent})
            else:
                return
    except FAILS:
        pass
    yield ReadingOut(trouble=LOST)


def _read(line: bytes) -> tuple[ReadingOut, int | None]:
    """A line of the stream: the reading, and how often its key was pressed so far."""
    try:
        told = json.loads(line)
        unit, value = told["unit"], float(told["value"])
        battery, pressed = float(told.get("battery", 1.0)), int(told.get("sent", 0))
        if not (math.isfinite(value) and math.isfinite(battery) and abs(value) <= MOST[unit]):
            raise ValueError
    except (ValueError, KeyError, TypeError, AttributeError, OverflowError, RecursionError):
        return ReadingOut(trouble=NONSENSE), None
    text = f"{value:.2f}".rstrip("0").rstrip(".")
    text = f"{text} mm" if unit == "mm" else text
    return ReadingOut(
        value=value, text=text, unit=unit, battery=battery, trouble=BATTERY if battery < LOW_BATTERY else ""
    ), pressed


def zero_told(first: float, turned: float) -> ZeroOut:
    """What two readings on the table say of the gauge's zero."""
    zero = zero_from(first, turned)
    if zero.is_true:
        return ZeroOut(is_true=True, text=f"Its zero is true, to {abs(zero.error_deg):.2f}°.")
    much = "much" if zero.error_deg > 0 else "little"
    off = f"Its zero is off: it reads {abs(zero.error_deg):.2f}° too {much}."
    return ZeroOut(is_true=False, text=f"{off} Lay it on the table, press its zero key, and try again.")
