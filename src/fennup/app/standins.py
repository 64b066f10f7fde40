"""The made-up services outside of Fennup, run from the command line."""

import argparse
import signal
from collections.abc import Callable
from contextlib import suppress
from typing import Any


class Refused(Exception):
    """The command cannot be done: why."""


def end(*_: object) -> None:
    """Told to end: as with Ctrl-C."""
    raise KeyboardInterrupt


def run_yard(chosen: argparse.Namespace) -> int:
    """The yard, until it is told to end."""
    from fennup.yard.server import open_yard

    return _until_ended(
        lambda: open_yard(chosen.port, steady=chosen.steady), chosen.port, "The yard is at http://127.0.0.1:{}/v1/prices"
    )


def run_weather(chosen: argparse.Namespace) -> int:
    """The weather service, until it is told to end."""
    from fennup.weather.server import open_weather

    told = "The weather is at http://127.0.0.1:{}/v1/forecast?from=2026-12-01"
    return _until_ended(lambda: open_weather(chosen.port, steady=chosen.steady), chosen.port, told)


def run_instruments(chosen: argparse.Namespace) -> int:
    """Gauge and caliper, until they are told to end."""
    from fennup.instruments.server import open_instruments

    return _until_ended(
        lambda: open_instruments(chosen.port, steady=chosen.steady), chosen.port, "Turn their dials at http://127.0.0.1:{}"
    )


def _until_ended(open_it: Callable[[], Any], port: int, told: str) -> int:
    """A stand-in's server, until it is told to end."""
    try:
        server = open_it()
    except (OSError, OverflowError):
        raise Refused(f"Port {port} is taken, or may not be used.") from None
    signal.signal(signal.SIGTERM, end)
    print(told.format(port), flush=True)
    with suppress(KeyboardInterrupt):
        server.serve_forever()
    server.server_close()
    return 0


def add_standins(command: Callable[..., argparse.ArgumentParser]) -> None:
    """Their commands."""
    selling = command("yard", run_yard, "run the made-up timber yard, whose prices Fennup can ask for")
    selling.add_argument("--port", type=int, default=8010)
    selling.add_argument("--steady", action="store_true", help="never slow, never closed")
    telling = command("weather", run_weather, "run the made-up weather service, which Fennup can ask before coats outdoors")
    telling.add_argument("--port", type=int, default=8030)
    telling.add_argument("--steady", action="store_true", help="never slow, never away, never late")
    reading = command(
        "instruments", run_instruments, "run the simulated angle gauge and caliper, with a page to turn their dials"
    )
    reading.add_argument("--port", type=int, default=8020)
    reading.add_argument("--steady", action="store_true", help="no noise, a true zero, a full battery, no drop-outs")
