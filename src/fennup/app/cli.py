"""The command-line program: the same core and the same documents as over HTTP."""

import argparse
import json
import sys
from pathlib import Path

from fennup.app.services.kinds import kind_list
from fennup.app.services.projects import PLAIN, solved_spec
from fennup.app.services.validate import Invalid, validated
from fennup.core.exchange.document import solution_document
from fennup.core.saw.machine import Machine


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
    chosen = parser.parse_args(arguments)
    if chosen.command == "solve":
        return _solve(chosen.spec, chosen.saw)
    if chosen.command == "kinds":
        print(kind_list().model_dump_json(indent=2))
        return 0
    if chosen.command == "openapi":
        return _openapi()
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
        document = create_app(Path(folder) / "none.db").api_doc
    print(json.dumps(document, indent=2, sort_keys=True, ensure_ascii=False))
    return 0


def _serve(chosen: argparse.Namespace) -> int:
    """Waitress on the loopback address."""
    from waitress import serve

    from fennup.app.factory import create_app

    app = create_app(chosen.database, chosen.pages.resolve(), with_demo=chosen.demo)
    print(f"Fennup is at http://127.0.0.1:{chosen.port}", flush=True)
    serve(app, host="127.0.0.1", port=chosen.port, threads=6, ident=None, max_request_body_size=512 * 1024)
    return 0


if __name__ == "__main__":
    sys.exit(main())
