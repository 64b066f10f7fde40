"""The application put together."""

import gc
from pathlib import Path

from flask import Response, send_from_directory
from flask_openapi3 import Info, OpenAPI

from fennup.app.api import guard, problems, projects, workshop
from fennup.app.models.store import open_store
from fennup.app.schemas.api import Problem
from fennup.app.services import demo

LONGEST_NAME = 200  # of a file among the pages
INFO = Info(title="Fennup", version="1", description="Angles, lengths and proof of closing. Millimetres and degrees.")


def create_app(database: Path, pages: Path | None = None, *, with_demo: bool = False) -> OpenAPI:
    """The application on a database file, serving the built pages from a folder if there is one."""
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
    app.config["STORE"] = store
    guard.register(app)
    problems.register(app)
    app.register_api(projects.api)
    app.register_api(workshop.api)

    app.add_url_rule("/openapi.json", "openapi", lambda: app.api_doc)
    if with_demo:
        with store.writing() as session:
            demo.fill(session)
    if pages:
        _serve_pages(app, pages)
    gc.freeze()  # what is there from the start stays: the collector need not walk through it while somebody types
    return app


def _serve_pages(app: OpenAPI, pages: Path) -> None:
    """The built front end; every address that is none of its files is a place inside it."""

    def page(name: str = "index.html") -> Response:
        if name.startswith("api/"):
            return problems.problem(404, "There is nothing at this address.")
        found = len(name) < LONGEST_NAME and (pages / name).is_file()
        response = send_from_directory(pages, name if found else "index.html")
        lasting = found and name.startswith("assets/")
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable" if lasting else "no-cache"
        return response

    app.add_url_rule("/", "page", page)
    app.add_url_rule("/<path:name>", "page", page)
