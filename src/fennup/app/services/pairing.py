"""Letting a phone in: a code that the desk shows for two minutes and that is good once; wrong ones are slowed down."""

import secrets
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from hmac import compare_digest

GOOD_SECONDS = 120.0
MOST_WRONG = 6  # then the code is good no more
DIGITS = 6


class WrongCode(Exception):
    """It is none, not this one, used already, or too old."""


class TooSoon(Exception):
    """After wrong codes: try again in `seconds`."""

    def __init__(self, seconds: float) -> None:
        super().__init__(seconds)
        self.seconds = seconds


@dataclass
class Pairing:
    """The code that is good now, if any, and how many wrong ones came. `clock`: seconds that only grow."""

    clock: Callable[[], float] = time.monotonic
    _code: str = ""
    _until: float = 0.0
    _wrong: int = 0
    _not_before: float = 0.0

    def __post_init__(self) -> None:
        self._lock = threading.Lock()

    def new_code(self) -> str:
        """A fresh code; the one before is good no more. How slow it goes after wrong ones stays."""
        with self._lock:
            self._code = f"{secrets.randbelow(10**DIGITS):0{DIGITS}d}"
            self._until = self.clock() + GOOD_SECONDS
            return self._code

    def use(self, code: str) -> None:
        """Use the code up. WrongCode; TooSoon, doubling with every wrong one, whoever sent them."""
        with self._lock:
            now = self.clock()
            if now < self._not_before:
                raise TooSoon(self._not_before - now)
            good = self._code and now < self._until and compare_digest(self._code, code)
            if not good:
                self._wrong += 1
                self._not_before = now + min(2.0 ** (self._wrong - 1), GOOD_SECONDS)
                if self._wrong >= MOST_WRONG:
                    self._code = ""
                raise WrongCode
            self._code, self._wrong = "", 0
