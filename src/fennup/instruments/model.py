"""What such an instrument does: it shows what it is held to, from wherever its zero was set, not quite exactly, until its battery is empty."""

import threading
from dataclasses import dataclass, field
from random import Random
from typing import Any, Literal

Kind = Literal["angle_gauge", "caliper"]
UNITS = {"angle_gauge": "deg", "caliper": "mm"}
NOISE = {"angle_gauge": 0.02, "caliper": 0.01}
STEPS = {"angle_gauge": 0.05, "caliper": 0.01}
ZERO_OFF = {"angle_gauge": 0.8, "caliper": 0.06}  # how far the zero is out when it is switched on, at most
PER_READING = 0.0004  # of the battery
LOW, NOISY_WHEN_LOW = 0.15, 6.0
DROPS_EVERY = 400  # readings, then the connection is lost once


@dataclass
class Instrument:
    """One of them. `held`: the true angle or size that it lies on; `over`: turned end for end, so that an angle shows the other way."""

    id: str
    kind: Kind
    steady: bool = False
    held: float = 0.0
    over: bool = False
    battery: float = 1.0
    misbehaves: Literal["", "nonsense", "flood", "silent"] = ""
    count: int = 0
    sent: int = 0
    zero: float = 0.0
    _random: Random = field(default_factory=lambda: Random(1509))
    _lock: threading.Lock = field(default_factory=threading.Lock)

    def __post_init__(self) -> None:
        if not self.steady:
            self.zero = self._random.uniform(-1, 1) * ZERO_OFF[self.kind]

    def _shown(self) -> float:
        noise = 0.0 if self.steady else self._random.gauss(0.0, NOISE[self.kind])
        if self.battery < LOW:
            noise *= NOISY_WHEN_LOW
        true = -self.held if self.over and self.kind == "angle_gauge" else self.held
        return true + noise

    def set_zero(self) -> None:
        """What it lies on now is its zero."""
        with self._lock:
            self.zero = -self._shown()

    def send(self) -> None:
        """Its key was pressed: the next reading is meant."""
        with self._lock:
            self.sent += 1

    def reading(self) -> dict[str, Any]:
        """The next reading; ConnectionError when it drops out, or its battery is empty."""
        with self._lock:
            self.count += 1
            if not self.steady:
                self.battery = max(0.0, self.battery - PER_READING)
            if self.battery <= 0.0 or (not self.steady and self.count % DROPS_EVERY == 0):
                raise ConnectionError
            step = STEPS[self.kind]
            value = round((self._shown() + self.zero) / step) * step
            return {
                "value": round(value, 4),
                "unit": UNITS[self.kind],
                "battery": round(self.battery, 3),
                "sent": self.sent,
                "count": self.count,
            }
