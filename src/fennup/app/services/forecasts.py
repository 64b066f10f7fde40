"""The weather of the next days, asked for when somebody wants it: the last answer is kept with the project, and everything works without."""

from datetime import date

from pydantic import ValidationError

from fennup.app.services.outside import NoAnswer, ask
from fennup.app.services.projects import PLAIN
from fennup.app.services.validate import from_core
from fennup.core.errors import CoreError
from fennup.core.finish.planned import check_weather
from fennup.core.finish.wishes import Weather

WHERE = "http://127.0.0.1:8030"


def fetch(where: str, today: date) -> Weather:
    """What is foretold from today on. NoAnswer; Invalid where all that it says is over already."""
    body = ask(f"{where}/v1/forecast?from={today.isoformat()}")
    try:
        weather = Weather.model_validate(body)
    except (ValidationError, CoreError):
        raise NoAnswer("nonsense") from None
    try:
        check_weather(weather, today)
    except CoreError as error:
        raise from_core(error, PLAIN) from None
    return weather
