"""Angles: what people type to degrees, and degrees to text."""

import re

from fennup.core.errors import UnitError

_ANGLE = re.compile(
    r"(-?)\s*(\d+(?:\.\d+)?|\.\d+)(?:\s+(\d+)/([1-9]\d*))?\s*(?:°|deg|degrees?)?(?:\s*(\d+(?:\.\d+)?)\s*['′’])?", re.ASCII
)


def parse_angle_deg(text: str) -> float:
    """Degrees from `22.5`, `22,5°`, `22 1/2`, `22° 30'`; UnitError `no_angle` or `too_many_digits`."""
    if len(text) > 40:
        raise UnitError("too_many_digits", most=40)
    found = _ANGLE.fullmatch(text.strip().lower().replace("\u2212", "-").replace(",", "."))
    if not found:
        raise UnitError("no_angle", text=text)
    sign, degrees, top, bottom, minutes = found.groups()
    value = float(degrees) + (int(top) / int(bottom) if top else 0.0) + (float(minutes) / 60 if minutes else 0.0)
    return -value if sign else value


def angle_text(deg: float, digits: int = 2) -> str:
    """Degrees rounded to `digits` decimals without trailing zeros, with a true minus."""
    text = f"{deg:.{digits}f}".rstrip("0").rstrip(".") if digits else f"{deg:.0f}"
    return "0" if text in {"-0", "0"} else text.replace("-", "−")
