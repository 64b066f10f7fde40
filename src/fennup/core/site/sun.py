"""How much of the noon sun a sloping lid catches."""

from datetime import date
from math import acos, cos, degrees, pi, radians, sin

from fennup.core.geometry.vec import Vec

TILT_DEG = 23.44  # of the earth's axis
YEAR = 365.0
MARCH = 284  # days from the equinox of autumn to the year's end, and so on round (Cooper)


def declination_deg(day: date) -> float:
    """How far north of the equator the sun stands on a day, to half a degree (Cooper)."""
    return TILT_DEG * sin(2 * pi * (MARCH + day.timetuple().tm_yday) / YEAR)


def noon_altitude_deg(latitude_deg: float, day: date) -> float:
    """How high the sun stands at noon; less than 0: it does not rise."""
    return 90.0 - abs(latitude_deg - declination_deg(day))


def caught_part(slope_deg: float, altitude_deg: float) -> float:
    """Of the full sun, what a lid gets that slopes towards it: the cosine of how far from square it comes in."""
    if altitude_deg <= 0:
        return 0.0
    return max(0.0, cos(radians(90.0 - altitude_deg - slope_deg)))


def slope_deg(normal: Vec) -> float:
    """How steep a side is, by its outward direction."""
    return degrees(acos(max(-1.0, min(1.0, normal[2]))))
