"""A made-up service outside of Fennup is asked: it may be slow, closed, away or talk nonsense, and nothing needs it."""

import json
from typing import Any
from urllib.error import HTTPError, URLError
from urllib.request import Request, urlopen

SECONDS = 4.0
LARGEST = 1024 * 1024


class NoAnswer(Exception):
    """It gave none. `code`: it is `away`, `slow`, `closed`, or answers `nonsense`."""

    def __init__(self, code: str) -> None:
        super().__init__(code)
        self.code = code


def ask(address: str) -> dict[str, Any]:
    """What it answers, a JSON object. NoAnswer."""
    try:
        with urlopen(Request(address, headers={"Accept": "application/json"}), timeout=SECONDS) as answer:
            content = answer.read(LARGEST + 1)
    except HTTPError:
        raise NoAnswer("closed") from None
    except TimeoutError:
        raise NoAnswer("slow") from None
    except (URLError, OSError, ValueError) as error:
        raise NoAnswer("slow" if isinstance(getattr(error, "reason", None), TimeoutError) else "away") from None
    try:
        body = json.loads(content) if len(content) <= LARGEST else None
    except (ValueError, RecursionError):
        body = None
    if not isinstance(body, dict):
        raise NoAnswer("nonsense")
    return body
