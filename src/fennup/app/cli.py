"""The command-line program: the same core and the same documents as over HTTP."""

import argparse
import json
import os
import signal
import socket
import sys
from collections.abc import Callable
from datetime import datetime
from pathlib import Path
from typing import Any

from fennup.app.models.store import Trouble, back_up, open_store
from fennup.app.services import devices, documents, file_work
from fennup.app.services.exports import EXPORTS
from fennup.app.services.fitting import fit_of
from fennup.app.services.forecasts import WHERE as WEATHER_AT
from fennup.app.services.instruments import WHERE as INSTRUMENTS_AT
from fennup.app.services.kinds import kind_list
from fennup.app.services.portable import (
    Import,
    file_schema,
    fit_in_file,
    is_file,
    project_file,
    records_in_file,
    saw_in_file,
    workshop_file,
)
from fennup.app.services.projects import PLAIN
from fennup.app.services.saw_wishes import placements
from fennup.app.services.upgrade import PROJECT
from fennup.app.services.validate import Invalid, from_core, validated
from fennup.app.services.yards import WHERE
from fennup.app.sharing import EVERYWHERE, LARGEST_REQUEST, SILENT_SECONDS, Share
from fennup.app.standins import Refused, add_standins, end
from fennup.app.wording.trouble import trouble_text
from fennup.core.bench.tasks import tasks_for
from fennup.core.errors import CoreError
from fennup.core.exchange.boards_forms import BoardsDocument
from fennup.core.exchange.cuts_document import cuts_document
from fennup.core.exchange.document import solution_document
from fennup.core.exchange.finish_document import finish_document
from fennup.core.exchange.fit_document import fit_document
from fennup.core.exchange.frames_document import frames_document
from fennup.core.exchange.paper import SHEETS
from fennup.core.exchange.progress import progress_document
from fennup.core.fit.wishes import FitWishes
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.steps.planned import steps_for
from fennup.core.workshop import Workshop, with_saw

# A browser opens a few connections; one that says nothing is let go soon, so that it keeps no place.
MOST_CONNECTIONS = 500
THREADS = 12
DATABASE = Path("data/fennup.db")


def main(arguments: list[str] | None = None) -> int:
    """Run one command: 0 done, 1 refused with the reasons on standard error, 2 called wrongly."""
    chosen = _parser().parse_args(arguments)
    run: Callable[[argparse.Namespace], int] = chosen.run
    try:
        return run(chosen)
    except Trouble as trouble:
        print(trouble_text(trouble.code, trouble.file), file=sys.stderr)
    except Refused as refused:
        print(refused, file=sys.stderr)
    except OSError as error:
        print(f"{error.filename}: {error.strerror}", file=sys.stderr)
    except Invalid as error:
        for problem in error.problems:
            print(f"{problem.path or 'spec'}: {problem.text}", file=sys.stderr)
    return 1


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="fennup", description="Angles and lengths for work whose pieces meet at angles.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")

    def command(
        name: str, run: Callable[[argparse.Namespace], int], help: str, *, database: bool = False
    ) -> argparse.ArgumentParser:
        made = commands.add_parser(name, help=help)
        made.set_defaults(run=run)
        if database:
            made.add_argument("--database", type=Path, default=DATABASE)
        return made

    _printing(command)
    add_standins(command)
    command("kinds", _kinds, "print every kind with the JSON Schema of its spec")
    command("schema", _schema, "print the JSON Schema of the files that Fennup reads and writes")
    command("openapi", _openapi, "print the OpenAPI document of the web API")
    serving = command("serve", _serve, "serve the application to this machine only", database=True)
    serving.add_argument("--port", type=int, default=8000)
    serving.add_argument("--pages", type=Path, default=Path("web/dist"))
    serving.add_argument("--yard", default=WHERE, help="where the timber yard answers, by default %(default)s")
    serving.add_argument("--weather", default=WEATHER_AT, help="where the weather service answers, by default %(default)s")
    serving.add_argument("--instruments", default=INSTRUMENTS_AT, help="where gauge and caliper answer, by default %(default)s")
    serving.add_argument(
        "--share", action="store_true", help="let phones of the local network in, over TLS, once they are paired"
    )
    serving.add_argument("--share-port", type=int, default=8443)
    serving.add_argument("--share-at", default=EVERYWHERE, help="on which address phones are let in, by default on all")
    serving.add_argument("--demo", action="store_true", help="put the demo's projects into an empty database")
    backing = command("backup", _back_up, "copy the database, also while the application runs", database=True)
    backing.add_argument("to", nargs="?", type=Path, help="the copy's file; by default dated, in `backups` beside the database")
    exporting = command(
        "export", _export, "print a project, or the whole workshop, as a .fennup.json file; or a project's file as a drawing, solids, a table, ...",
        database=True,
    )  # fmt: skip
    exporting.add_argument(
        "project",
        nargs="?",
        help="its name or id, without one the whole workshop; with --as a .fennup.json file, or - for standard input",
    )
    exporting.add_argument(
        "--as", dest="as_", choices=list(EXPORTS), help="what to make of a project's file; no database is needed"
    )
    exporting.add_argument("--to", type=Path, help="the file to write, by default standard output")
    exporting.add_argument("--workshop", help="with --as: a file with a workshop in JSON")
    exporting.add_argument("--size", choices=list(SHEETS), default="a4", help="of the paper, for PDF")
    importing = command("import", _import, "bring a .fennup.json file in", database=True)
    importing.add_argument("file", help="the file, or - for standard input")
    return parser


def _printing(command: Callable[..., argparse.ArgumentParser]) -> None:
    """The commands that read a project and print what follows from it."""
    solving = command("solve", _solve, "solve a project and print everything that follows from it as JSON")
    solving.add_argument("spec", help="a .fennup.json file, or a spec in JSON, or - for standard input")
    solving.add_argument("--saw", help="a file with a miter saw in JSON")
    solving.add_argument("--workshop", help="a file with a workshop in JSON")
    planning = command("boards", _boards, "plan which part comes out of which board and print the plan as JSON")
    planning.add_argument("file", help="a .fennup.json file of a project with its rack, list and wishes, or - for standard input")
    cutting = command("cuts", _cuts, "print the steps of the work on the wood as JSON: every setting, pose, stop and mark")
    cutting.add_argument("file", help="a .fennup.json file of a project, or a spec in JSON, or - for standard input")
    cutting.add_argument("--boards", action="store_true", help="plan the boards first, so that each step says which board")
    going = command("progress", _progress, "print how far the work at the bench is, from a project's records, as JSON")
    going.add_argument("file", help="a .fennup.json file of a project with its records, or - for standard input")
    fitting = command(
        "fit", _fit, "print the dry fit as JSON: forecast, what should be read, what readings mean, ways out, order"
    )
    fitting.add_argument(
        "file", help="a .fennup.json file of a project with its records, or a spec in JSON, or - for standard input"
    )
    finishing = command("finish", _finish, "print how it is fastened, coated, planned by the day and set up, as JSON")
    finishing.add_argument("file", help="a .fennup.json file of a project, or a spec in JSON, or - for standard input")

    logging = command("log", _log, "print what happened and when, hours, lessons, slips and cost, from records, as JSON")
    logging.add_argument("file", help="a .fennup.json file of a project with its records, or - for standard input")
    logging.add_argument("--boards", action="store_true", help="plan the boards first, so that it says what they cost")
    framing = command("frames", _frames, "print which frames come out of the workshop's mouldings as JSON")
    framing.add_argument(
        "file", help="a .fennup.json file of a workshop, mouldings and contents in JSON, or - for standard input"
    )
    for one in (planning, cutting, going, fitting, logging, framing):
        one.add_argument("--workshop", help="a file with a workshop in JSON, for its tools and how exactly you work")


def _read(name: str) -> Any:
    """A file, or standard input, as JSON."""
    try:
        text = sys.stdin.read() if name == "-" else Path(name).read_text(encoding="utf-8")
        return json.loads(text)
    except (json.JSONDecodeError, UnicodeDecodeError, RecursionError) as error:
        raise Refused(f"{name}: no JSON: {error}") from None


def _print(document: object) -> None:
    print(json.dumps(document, indent=2, ensure_ascii=False))


def _solve(chosen: argparse.Namespace) -> int:
    document = _read(chosen.spec)
    workshop = None
    if chosen.saw:
        workshop = with_saw(validated(MiterSaw, _read(chosen.saw), PLAIN))
    elif chosen.workshop:
        workshop = validated(Workshop, _read(chosen.workshop), PLAIN)
    solution = file_work.solved_file(document, workshop)
    print(solution_document(solution, solution.design.proof).model_dump_json(indent=2))
    return 0


def _boards(chosen: argparse.Namespace) -> int:
    """The plan of a project's file; of a bare spec with the usual wishes, an empty rack and no list."""
    document = _read(chosen.file)
    workshop = _workshop(chosen)
    _print(file_work.boards_of_file(document, file_work.solved_file(document, workshop), workshop))
    return 0


def _frames(chosen: argparse.Namespace) -> int:
    """Every content in every moulding of a workshop's file, or of a document of both."""
    library, kerf_mm = file_work.mouldings_of_file(_read(chosen.file))
    print(frames_document(library, _workshop(chosen).kerf_mm if chosen.workshop else kerf_mm).model_dump_json(indent=2))
    return 0


def _workshop(chosen: argparse.Namespace) -> Workshop:
    """The workshop in the file that was named; the usual one without a file."""
    return validated(Workshop, _read(chosen.workshop), PLAIN) if chosen.workshop else Workshop()


def _cuts(chosen: argparse.Namespace) -> int:
    """The steps of a project's file, in the order and on the tools that it wishes; of a bare spec as usual."""
    document = _read(chosen.file)
    workshop = _workshop(chosen)
    if is_file(document):
        workshop = workshop.model_copy(update={"wishes": saw_in_file(document)})
    solution = file_work.solved_file(document, workshop)
    placed = (
        placements(BoardsDocument.model_validate(file_work.boards_of_file(document, solution, workshop))) if chosen.boards else {}
    )
    print(cuts_document(solution, placed).model_dump_json(indent=2))
    return 0


def _progress(chosen: argparse.Namespace) -> int:
    """What a project's file says was done, by its own steps."""
    document = _read(chosen.file)
    if not is_file(document):
        raise Refused(f"{chosen.file}: a project's file is needed: a bare spec has no records.")
    workshop = _workshop(chosen).model_copy(update={"wishes": saw_in_file(document)})
    solution = file_work.solved_file(document, workshop)
    tasks = tasks_for(solution.design, solution.plan, steps_for(solution.design, solution.plan))
    print(progress_document(tasks, records_in_file(document)).model_dump_json(indent=2))
    return 0


def _fit(chosen: argparse.Namespace) -> int:
    """The dry fit of a project's file, with its records; of a bare spec as planned."""
    document = _read(chosen.file)
    workshop = _workshop(chosen)
    entries, wishes = [], FitWishes()
    if is_file(document):
        workshop = workshop.model_copy(update={"wishes": saw_in_file(document)})
        entries, wishes = records_in_file(document), fit_in_file(document)
    fit = fit_of(file_work.solved_file(document, workshop), entries, wishes)
    print(fit_document(fit).model_dump_json(indent=2))
    return 0


def _finish(chosen: argparse.Namespace) -> int:
    """The finish of a project's file, with its tables and records; of a bare spec as usual."""
    document = _read(chosen.file)
    finish = file_work.finish_of_file(document, file_work.solved_file(document))
    try:
        print(finish_document(finish).model_dump_json(indent=2))
    except CoreError as error:
        raise from_core(error, PLAIN) from None
    return 0


def _log(chosen: argparse.Namespace) -> int:
    """The log of a project's file."""
    document = _read(chosen.file)
    if not is_file(document):
        raise Refused(f"{chosen.file}: a project's file is needed: a bare spec has no records.")
    workshop = _workshop(chosen)
    print(
        file_work.log_document_of_file(document, workshop, datetime.now().astimezone(), boards=chosen.boards).model_dump_json(
            indent=2
        )
    )
    return 0


def _kinds(_: argparse.Namespace) -> int:
    print(kind_list().model_dump_json(indent=2))
    return 0


def _schema(_: argparse.Namespace) -> int:
    _print(file_schema())
    return 0


def _openapi(_: argparse.Namespace) -> int:
    """The document needs no database: one is made in memory's place and thrown away."""
    from tempfile import TemporaryDirectory

    from fennup.app.factory import create_app

    with TemporaryDirectory() as folder:
        document = create_app(Path(folder) / "none.db").config["DOCUMENT"]
    print(json.dumps(document, indent=2, sort_keys=True, ensure_ascii=False))
    return 0


def _export(chosen: argparse.Namespace) -> int:
    """One project by its name or id, or all; with `--as` a file as something else."""
    if chosen.as_:
        return _export_file(chosen)
    if not chosen.database.exists():
        raise Trouble("no_access", chosen.database)
    store = open_store(chosen.database)
    with store.reading() as session:
        if chosen.project is None:
            _print(workshop_file(session))
            return 0
        states = documents.listed(session, PROJECT)
        found = [s.id for s in states if chosen.project in (s.id, (s.body or {}).get("name"))]
        if len(found) != 1:
            said = "There is no project" if not found else f"{len(found)} projects are"
            raise Refused(
                f"{said} called {chosen.project}. Its id, the end of its address in the browser, names one for certain."
            )
        _print(project_file(session, found[0]))
    return 0


def _export_file(chosen: argparse.Namespace) -> int:
    """A project's file as a drawing, as solids, as a table. What takes long says on standard error how far it is."""
    if chosen.project is None:
        raise Refused("With --as, name a project's file, or - for standard input.")
    export = EXPORTS[chosen.as_]
    workshop = _workshop(chosen)

    def report(share: float) -> None:
        print(f"\rplanning the boards: {share:4.0%}", end="", file=sys.stderr, flush=True)

    outgoing = file_work.outgoing_of_file(
        _read(chosen.project), workshop, chosen.size, report if export.long else lambda share: None
    )
    try:
        content = export.make(outgoing)
    except CoreError as error:
        raise from_core(error, outgoing.voice) from None
    if export.long:
        report(1.0)
        print(file=sys.stderr)
    if chosen.to:
        chosen.to.write_bytes(content)
    else:
        sys.stdout.buffer.write(content)
    return 0


def _import(chosen: argparse.Namespace) -> int:
    """Everything in a file, or nothing; prints the new projects' ids."""
    found = Import(_read(chosen.file))
    with open_store(chosen.database).writing() as session:
        for id in found.save(session):
            print(id)
    return 0


def _serve(chosen: argparse.Namespace) -> int:
    """Waitress on the loopback address, with a worker beside it; at the end everything is in the one database file."""
    from waitress.server import create_server

    from fennup.app.factory import create_app
    from fennup.app.worker import Worker

    try:
        # Taken before anything else, so that nobody is told an address at which somebody else answers.
        listening = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
        listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        listening.bind(("127.0.0.1", chosen.port))
    except (OSError, OverflowError):
        raise Refused(
            f"Port {chosen.port} is taken, or may not be used. Is Fennup running already? Another one: --port 9000"
        ) from None
    os.umask(0o077)
    app = create_app(
        chosen.database,
        chosen.pages.resolve(),
        with_demo=chosen.demo,
        yard=chosen.yard,
        instruments=chosen.instruments,
        weather=chosen.weather,
    )
    worker = app.config["WORKER"] = Worker(chosen.database.absolute(), app.config["STORE"])
    server = create_server(
        app, sockets=[listening], threads=THREADS, ident=None, max_request_body_size=LARGEST_REQUEST,
        connection_limit=MOST_CONNECTIONS, channel_timeout=SILENT_SECONDS, cleanup_interval=5,
    )  # fmt: skip
    share = app.config["SHARE"] = Share(app.wsgi_app, _beside(chosen.database), chosen.share_at, chosen.share_port)
    with app.config["STORE"].reading() as session:
        was_open = devices.setting(session, devices.SHARE) == "on"
    if chosen.share or was_open:
        share.open()
    worker.wake()  # it takes a second to begin: not when somebody waits for a plan
    signal.signal(signal.SIGTERM, end)
    print(f"Fennup is at http://127.0.0.1:{chosen.port}", flush=True)
    if share.is_open:
        print(f"Phones come in at {share.url}/pair, with a code: Phones at the bench, on the first screen.", flush=True)
    elif share.trouble:
        print(f"Phones are not let in. {share.trouble}", file=sys.stderr, flush=True)
    try:
        server.run()
    finally:
        share.close()
        worker.close()
        server.close()
        app.config["STORE"].close()
    return 0


def _beside(database: Path) -> Path:
    """The folder for certificates, beside the database."""
    return database.absolute().with_name(f"{database.name}-share")


def _back_up(chosen: argparse.Namespace) -> int:
    """Copy the database, also while it is in use."""
    print(back_up(chosen.database, chosen.to))
    return 0


if __name__ == "__main__":
    sys.exit(main())
