"""The yard's price list, fetched from its service when somebody asks for it: the last one is kept, and everything works without."""

import json
from datetime import UTC, datetime
from urllib.error import HTTPError, URLError
from urllib.request import Request, urlopen

from pydantic import ValidationError

from fennup.core.boards.rack import PriceList
from fennup.core.errors import CoreError

SECONDS = 4.0
LARGEST = 1024 * 1024
WHERE = "http://127.0.0.1:8010"


class NoList(Exception):
    """The yard gave none. `code`: it is `away`, `slow`, `closed`, or answers `nonsense`."""

    def __init__(self, code: str) -> None:
        super().__init__(code)
        self.code = code


def fetch(where: str = WHERE) -> PriceList:
    """The yard's list as it is now. NoList."""
    try:
        with urlopen(Request(f"{where}/v1/prices", headers={"Accept": "application/json"}), timeout=SECONDS) as answer:
            content = answer.read(LARGEST + 1)
    except HTTPError:
        raise NoList("closed") from None
    except TimeoutError:
        raise NoList("slow") from None
    except (URLError, OSError, ValueError) as error:
        raise NoList("slow" if isinstance(getattr(error, "reason", None), TimeoutError) else "away") from None
    try:
        if len(content) > LARGEST:
            raise ValueError
        body = json.loads(content)
        body["as_of"] = datetime.now(UTC).isoformat(timespec="seconds")
        return PriceList.model_validate(body)
    except (ValueError, TypeError, AttributeError, RecursionError, ValidationError, CoreError):
        raise NoList("nonsense") from None
