"""The yard's web service: `GET /v1/prices` answers the whole list. Now and then it is slow, and now and then it fails, as real ones do."""

import json
import time
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from itertools import count
from typing import ClassVar

from fennup.yard.list import price_list

SLOW_EVERY, SLOW_SECONDS = 4, 2.5
FAILS_EVERY = 7
ADDRESS = "127.0.0.1"


class Yard(BaseHTTPRequestHandler):
    """One request. Every fourth is slow, every seventh is refused with 503, unless it is `steady`."""

    steady: ClassVar[bool] = False
    numbers: ClassVar["count[int]"] = count(1)

    def do_GET(self) -> None:
        """The price list, or where it is."""
        if self.path != "/v1/prices":
            self._answer(404, {"error": "There is only /v1/prices."})
            return
        number = next(self.numbers)
        if not self.steady and number % FAILS_EVERY == 0:
            self._answer(503, {"error": "The yard is closed for stock-taking. Try again."})
            return
        if not self.steady and number % SLOW_EVERY == 0:
            time.sleep(SLOW_SECONDS)
        self._answer(200, price_list())

    def _answer(self, status: int, body: object) -> None:
        content = json.dumps(body).encode()
        self.send_response(status)
        self.send_header("Content-Type", "application/json")
        self.send_header("Content-Length", str(len(content)))
        self.end_headers()
        self.wfile.write(content)

    def log_message(self, format: str, *args: object) -> None:
        """Nothing: it is a stand-in."""


def open_yard(port: int, *, steady: bool = False) -> ThreadingHTTPServer:
    """The yard's server on this machine only, still to be run."""
    handler = type("SteadyYard" if steady else "OrdinaryYard", (Yard,), {"steady": steady, "numbers": count(1)})
    return ThreadingHTTPServer((ADDRESS, port), handler)
