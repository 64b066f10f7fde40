"""The weather's web service: `GET /v1/forecast?from=2026-12-01`. Now and then it is slow, it fails, or it answers with what is over, as real ones do."""

import time
from datetime import date, timedelta
from http.server import ThreadingHTTPServer
from itertools import count
from urllib.parse import parse_qs, urlsplit

from fennup.weather.days import DAYS, forecast
from fennup.yard.server import ADDRESS, Yard

SLOW_EVERY, SLOW_SECONDS = 4, 2.5
FAILS_EVERY, PAST_EVERY = 7, 5


class Weather(Yard):
    """One request. Every fourth is slow, every fifth answers the fortnight before, every seventh is refused with 503, unless it is `steady`."""

    def do_GET(self) -> None:
        """The forecast, or where it is."""
        asked = urlsplit(self.path)
        try:
            start = date.fromisoformat(parse_qs(asked.query)["from"][0])
        except (KeyError, ValueError):
            start = None
        if asked.path != "/v1/forecast" or start is None:
            self._answer(404, {"error": "There is only /v1/forecast?from=2026-12-01."})
            return
        number = 1 if self.steady else next(self.numbers)
        if number % FAILS_EVERY == 0:
            self._answer(503, {"error": "No balloon went up today. Try again."})
            return
        if number % SLOW_EVERY == 0:
            time.sleep(SLOW_SECONDS)
        self._answer(200, forecast(start - timedelta(days=DAYS) if number % PAST_EVERY == 0 else start))


def open_weather(port: int, *, steady: bool = False) -> ThreadingHTTPServer:
    """The service on this machine only, still to be run."""
    handler = type("SteadyWeather" if steady else "OrdinaryWeather", (Weather,), {"steady": steady, "numbers": count(1)})
    return ThreadingHTTPServer((ADDRESS, port), handler)
