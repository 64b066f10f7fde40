"""The application put together."""

import gc
from pathlib import Path

from flask import Response, send_from_directory
from flask_openapi3 import Info, OpenAPI
from werkzeug.routing import PathConverter

from fennup.app.api import (
    bench,
    boards,
    bring_in,
    devices,
    files,
    finish,
    fit,
    guard,
    log,
    mouldings,
    plan_check,
    practice,
    problems,
    projects,
    saw,
    workshop,
)
from fennup.app.api.described import described
from fennup.app.models.store import open_store
from fennup.app.schemas.api import Problem
from fennup.app.services import demo
from fennup.app.services.forecasts import WHERE as WEATHER_AT
from fennup.app.services.instruments import WHERE as INSTRUMENTS_AT
from fennup.app.services.yards import WHERE

# How many new objects there are before the collector looks for circles: a drawing makes thousands, and none in a circle.
SELDOM = (50_000, 20, 20)
INFO = Info(title="Fennup", version="1", description="Angles, lengths and proof of closing. Millimetres and degrees.")


def create_app(
    database: Path,
    pages: Path | None = None,
    *,
    with_demo: bool = False,
    yard: str = WHERE,
    instruments: str = INSTRUMENTS_AT,
    weather: str = WEATHER_AT,
) -> OpenAPI:
    """The application on a database file, serving the built pages from a folder if there is one; `yard`: where that is asked for its
    prices, `instruments` and `weather`: where those are read."""
    app = OpenAPI(
        __name__,
        info=INFO,
        doc_ui=False,
        static_folder=None,
        validation_error_status=422,
        validation_error_model=Problem,
        validation_error_callback=problems.invalid_body,
    )
    store = open_store(database)
    app.config.update(STORE=store, YARD=yard, INSTRUMENTS=instruments, WEATHER=weather)
    guard.register(app)
    problems.register(app)
    app.register_api(projects.api)
    app.register_api(workshop.api)
    app.register_api(files.api)
    app.register_api(boards.api)
    app.register_api(mouldings.api)
    app.register_api(saw.api)
    app.register_api(bench.api)
    app.register_api(fit.api)
    app.register_api(finish.api)
    app.register_api(log.api)
    app.register_api(plan_check.api)
    app.register_api(bring_in.api)
    app.register_api(devices.api)
    app.register_api(practice.api)

    document = described(app.api_doc)
    app.add_url_rule("/openapi.json", "openapi", lambda: document)
    app.config["DOCUMENT"] = document
    if with_demo:
        with store.writing() as session:
            demo.fill(session)
    if pages:
        _serve_pages(app, pages)
    gc.set_threshold(*SELDOM)
    gc.freeze()  # what is there from the start stays: the collector need not walk through it while somebody types
    return app


def _serve_pages(app: OpenAPI, pages: Path) -> None:
    """The built front end; every address that is none of its files is a place inside it."""

    def page(name: str = "index.html") -> Response:
        found = _is_file(pages / name)
        response = send_from_directory(pages, name if found else "index.html")
        lasting = found and name.startswith("assets/")
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable" if lasting else "no-cache"
        return response

    app.url_map.converters["place"] = _Place
    app.add_url_rule("/", "page", page)
    app.add_url_rule("/<place:name>", "page", page)


class _Place(PathConverter):
    """An address that is none of the API's."""

    regex = "(?!api/|openapi.json$)[^/].*?"


def _is_file(path: Path) -> bool:
    """Whether there is such a file; a name that no file can have is none."""
    try:
        return path.is_file()
    except (OSError, ValueError):
        return False
