"""The command-line program: the same core and the same documents as over HTTP."""

import argparse
import json
import os
import signal
import socket
import sys
from pathlib import Path

from fennup.app.models.store import Trouble, back_up
from fennup.app.services.kinds import kind_list
from fennup.app.services.projects import PLAIN, solved_spec
from fennup.app.services.validate import Invalid, validated
from fennup.app.wording.trouble import trouble_text
from fennup.core.exchange.document import solution_document
from fennup.core.saw.machine import Machine

# A browser opens a few connections; one that says nothing is let go soon, so that it keeps no place.
MOST_CONNECTIONS = 500
SILENT_SECONDS = 20


def main(arguments: list[str] | None = None) -> int:
    """Run one command: 0 done, 1 refused with the reasons on standard error, 2 called wrongly."""
    parser = argparse.ArgumentParser(prog="fennup", description="Angles and lengths for work whose pieces meet at angles.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    solving = commands.add_parser("solve", help="solve a spec and print the solution as JSON")
    solving.add_argument("spec", help="a file with a spec in JSON, or - for standard input")
    solving.add_argument("--saw", help="a file with a saw profile in JSON")
    commands.add_parser("kinds", help="print every kind with the JSON Schema of its spec")
    commands.add_parser("openapi", help="print the OpenAPI document of the web API")
    serving = commands.add_parser("serve", help="serve the application to this machine only")
    serving.add_argument("--port", type=int, default=8000)
    serving.add_argument("--database", type=Path, default=Path("data/fennup.db"))
    serving.add_argument("--pages", type=Path, default=Path("web/dist"))
    serving.add_argument("--demo", action="store_true", help="put the demo's projects into an empty database")
    backing = commands.add_parser("backup", help="copy the database, also while the application runs")
    backing.add_argument("to", nargs="?", type=Path, help="the copy's file; by default dated, in `backups` beside the database")
    backing.add_argument("--database", type=Path, default=Path("data/fennup.db"))
    chosen = parser.parse_args(arguments)
    if chosen.command == "solve":
        return _solve(chosen.spec, chosen.saw)
    if chosen.command == "kinds":
        print(kind_list().model_dump_json(indent=2))
        return 0
    if chosen.command == "openapi":
        return _openapi()
    if chosen.command == "backup":
        return _back_up(chosen)
    return _serve(chosen)


def _read(name: str) -> object:
    text = sys.stdin.read() if name == "-" else Path(name).read_text(encoding="utf-8")
    return json.loads(text)


def _solve(spec_file: str, saw_file: str | None) -> int:
    try:
        spec = _read(spec_file)
        machine = validated(Machine, _read(saw_file), PLAIN) if saw_file else Machine()
        solution = solved_spec(spec, machine, PLAIN)
        document = solution_document(solution, solution.proof)
    except OSError as error:
        print(f"{error.filename}: {error.strerror}", file=sys.stderr)
        return 1
    except (json.JSONDecodeError, UnicodeDecodeError) as error:
        print(f"{spec_file}: no JSON: {error}", file=sys.stderr)
        return 1
    except Invalid as error:
        for problem in error.problems:
            print(f"{problem.path or 'spec'}: {problem.text}", file=sys.stderr)
        return 1
    print(document.model_dump_json(indent=2))
    return 0


def _openapi() -> int:
    """The document needs no database: one is made in memory's place and thrown away."""
    from tempfile import TemporaryDirectory

    from fennup.app.factory import create_app

    with TemporaryDirectory() as folder:
        document = create_app(Path(folder) / "none.db").config["DOCUMENT"]
    print(json.dumps(document, indent=2, sort_keys=True, ensure_ascii=False))
    return 0


def _serve(chosen: argparse.Namespace) -> int:
    """Waitress on the loopback address; at the end everything is in the one database file."""
    from waitress.server import create_server

    from fennup.app.factory import create_app

    try:
        # Taken before anything else, so that nobody is told an address at which somebody else answers.
        listening = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
        listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        listening.bind(("127.0.0.1", chosen.port))
    except (OSError, OverflowError):
        print(
            f"Port {chosen.port} is taken, or may not be used. Is Fennup running already? Another one: --port 9000",
            file=sys.stderr,
        )
        return 1
    os.umask(0o077)
    try:
        app = create_app(chosen.database, chosen.pages.resolve(), with_demo=chosen.demo)
    except Trouble as trouble:
        print(trouble_text(trouble.code, trouble.file), file=sys.stderr)
        return 1
    server = create_server(
        app, sockets=[listening], threads=6, ident=None, max_request_body_size=512 * 1024,
        connection_limit=MOST_CONNECTIONS, channel_timeout=SILENT_SECONDS, cleanup_interval=5,
    )  # fmt: skip
    signal.signal(signal.SIGTERM, _ended)
    print(f"Fennup is at http://127.0.0.1:{chosen.port}", flush=True)
    try:
        server.run()
    finally:
        server.close()
        app.config["STORE"].close()
    return 0


def _ended(*_: object) -> None:
    """Told to end: as with Ctrl-C."""
    raise KeyboardInterrupt


def _back_up(chosen: argparse.Namespace) -> int:
    """Copy the database, also while it is in use."""
    try:
        copy = back_up(chosen.database, chosen.to)
    except Trouble as trouble:
        print(trouble_text(trouble.code, trouble.file), file=sys.stderr)
        return 1
    except OSError as error:
        print(f"{error.filename}: {error.strerror}", file=sys.stderr)
        return 1
    print(copy)
    return 0


if __name__ == "__main__":
    sys.exit(main())
