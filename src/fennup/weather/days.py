"""What the service foretells: every day always the same, by its date. All invented."""

from datetime import date, timedelta
from hashlib import sha256
from math import cos, pi
from typing import Any

PLACE = "Reedham landing stage"
DAYS = 14
WARMEST = 200  # day of the year


def day_of(day: date) -> dict[str, Any]:
    """One day's weather: warm in July, cold in January, and what the dice say."""
    dice = sha256(day.isoformat().encode()).digest()
    season = 11.0 + 8.5 * cos(2 * pi * (day.timetuple().tm_yday - WARMEST) / 365.0)
    high = round(season + dice[0] / 32.0, 1)
    rain = round(max(0.0, dice[1] - 150) / 12.0, 1)
    humid = 55 + dice[2] % 25 + (15 if rain else 0)
    return {
        "day": day.isoformat(),
        "low_c": round(high - 4.0 - dice[3] / 64.0, 1),
        "high_c": high,
        "rain_mm": rain,
        "humid_percent": humid,
    }


def forecast(start: date) -> dict[str, Any]:
    """A fortnight from a day on, as the service sends it."""
    return {"place": PLACE, "as_of": start.isoformat(), "days": [day_of(start + timedelta(days=k)) for k in range(DAYS)]}
