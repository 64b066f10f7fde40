"""The yard's price list, fetched from its service when somebody asks for it: the last one is kept, and everything works without."""

from datetime import UTC, datetime

from pydantic import ValidationError

from fennup.app.services.outside import NoAnswer, ask
from fennup.core.boards.rack import PriceList
from fennup.core.errors import CoreError

WHERE = "http://127.0.0.1:8010"


def fetch(where: str = WHERE) -> PriceList:
    """The yard's list as it is now. NoAnswer."""
    body = ask(f"{where}/v1/prices")
    try:
        return PriceList.model_validate(body | {"as_of": datetime.now(UTC).isoformat(timespec="seconds")})
    except (ValidationError, CoreError):
        raise NoAnswer("nonsense") from None
