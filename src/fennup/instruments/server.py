"""The instruments' own program: `GET /v1/instruments`, a stream of readings each, and a page on which their dials are turned by hand."""

import json
import time
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import ClassVar

from fennup.instruments.model import UNITS, Instrument

ADDRESS = "127.0.0.1"
EVERY_SECONDS = 0.2
FLOOD = 400  # lines at once when it floods
PAGE = Path(__file__).parent / "page.html"
OWN_HOSTS = ("127.0.0.1", "localhost")
LARGEST = 1000


class Desk(BaseHTTPRequestHandler):
    """One request."""

    instruments: ClassVar[dict[str, Instrument]] = {}

    def do_GET(self) -> None:
        """The page, the list, or a stream."""
        parts = self.path.strip("/").split("/")
        if self.path == "/":
            self._answer(200, PAGE.read_bytes(), "text/html; charset=utf-8")
        elif parts == ["v1", "instruments"]:
            self._json(200, {"instruments": [self._told(one) for one in self.instruments.values()]})
        elif parts[:2] == ["v1", "instruments"] and len(parts) == 4 and parts[3] == "stream" and parts[2] in self.instruments:
            self._stream(self.instruments[parts[2]])
        else:
            self._json(404, {"error": "There is /v1/instruments and /v1/instruments/ID/stream."})

    def do_POST(self) -> None:
        """A key of an instrument, or a hand that turns its dial."""
        parts = self.path.strip("/").split("/")
        if len(parts) != 3 or parts[:2] != ["v1", "instruments"] or parts[2] not in self.instruments:
            self._json(404, {"error": "There is no such instrument."})
            return
        if self.headers.get("Origin", "http://localhost").split("://")[-1].rsplit(":", 1)[0] not in OWN_HOSTS:
            self._json(403, {"error": "Only from its own page."})
            return
        one = self.instruments[parts[2]]
        try:
            asked = json.loads(self.rfile.read(min(int(self.headers.get("Content-Length", 0)), LARGEST)))
            self._turn(one, asked)
        except (ValueError, TypeError, AttributeError):
            self._json(400, {"error": "It takes held, over, battery, misbehaves, and press: zero or send."})
            return
        self._json(200, self._told(one))

    @staticmethod
    def _turn(one: Instrument, asked: dict[str, object]) -> None:
        if "held" in asked:
            one.held = float(asked["held"])  # type: ignore[arg-type]
        if "battery" in asked:
            one.battery = min(1.0, max(0.0, float(asked["battery"])))  # type: ignore[arg-type]
        if "over" in asked:
            one.over = bool(asked["over"])
        if asked.get("misbehaves", "") in ("", "nonsense", "flood", "silent"):
            one.misbehaves = asked.get("misbehaves", one.misbehaves)  # type: ignore[assignment]
        if asked.get("press") == "zero":
            one.set_zero()
        if asked.get("press") == "send":
            one.send()

    @staticmethod
    def _told(one: Instrument) -> dict[str, object]:
        return {
            "id": one.id,
            "kind": one.kind,
            "unit": UNITS[one.kind],
            "held": one.held,
            "over": one.over,
            "battery": one.battery,
        }

    def _stream(self, one: Instrument) -> None:
        """A line of JSON a reading, until either side has had enough."""
        self.send_response(200)
        self.send_header("Content-Type", "application/x-ndjson")
        self.end_headers()
        try:
            while True:
                for line in self._lines(one):
                    self.wfile.write(line)
                self.wfile.flush()
                time.sleep(EVERY_SECONDS)
        except OSError:  # the reader has gone, or it dropped out
            self.close_connection = True

    @staticmethod
    def _lines(one: Instrument) -> list[bytes]:
        line = json.dumps(one.reading()).encode() + b"\n"
        if one.misbehaves == "nonsense":
            return [b'{"value": "a lot", "unit": "ell"}\n', b"\xff\xfe not a reading\n", b'{"value": NaN, "unit": "deg"}\n']
        if one.misbehaves == "silent":
            return []
        return [line] * (FLOOD if one.misbehaves == "flood" else 1)

    def _json(self, status: int, body: object) -> None:
        self._answer(status, json.dumps(body).encode(), "application/json")

    def _answer(self, status: int, content: bytes, media_type: str) -> None:
        self.send_response(status)
        self.send_header("Content-Type", media_type)
        self.send_header("Content-Length", str(len(content)))
        self.end_headers()
        self.wfile.write(content)

    def log_message(self, format: str, *args: object) -> None:
        """Nothing: it is a stand-in."""


def open_instruments(port: int, *, steady: bool = False) -> ThreadingHTTPServer:
    """Their server on this machine only, still to be run. `steady`: no noise, a true zero, a full battery, no drop-outs."""
    own = {"gauge": Instrument("gauge", "angle_gauge", steady), "caliper": Instrument("caliper", "caliper", steady)}
    server = ThreadingHTTPServer((ADDRESS, port), type("OwnDesk", (Desk,), {"instruments": own}))
    server.daemon_threads = True
    return server
