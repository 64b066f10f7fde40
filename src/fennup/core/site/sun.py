"""How much of the noon sun a sloping lid catches."""

from datetime import date
from math import acos, cos, degrees, pi, radians, sin

from fennup.core.geometry.vec import Vec

YEAR = 365.0
# Of the sun's declination, radians: the first, then cosine and sine of once, twice and three times the day's angle (Spencer 1971).
SPENCER = (0.006918, (-0.399912, 0.070257), (-0.006758, 0.000907), (-0.002697, 0.00148))


def declination_deg(day: date) -> float:
    """How far north of the equator the sun stands on a day, to some half a degree, as the calendar shifts (Spencer 1971)."""
    first, *series = SPENCER
    angle = 2 * pi * (day.timetuple().tm_yday - 1) / YEAR
    return degrees(first + sum(c * cos(k * angle) + s * sin(k * angle) for k, (c, s) in enumerate(series, 1)))


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
