"""Every refusal as problem details, one shape for all of them."""

from typing import Any

from flask import Flask, Response, current_app, request
from pydantic import ValidationError
from werkzeug.exceptions import HTTPException, MethodNotAllowed

from fennup.app.models.store import Trouble
from fennup.app.schemas.api import Problem
from fennup.app.services.documents import Conflict, NotFound, Unreadable
from fennup.app.services.projects import PLAIN
from fennup.app.services.records import Clash, TooLarge
from fennup.app.services.validate import Invalid, field_problems
from fennup.app.wording.trouble import trouble_text, unreadable_text

TITLES = {
    400: "This could not be read", 401: "Not let in", 403: "Refused", 404: "Not found", 405: "Not that way", 409: "Changed elsewhere",
    413: "Too much at once", 415: "JSON only", 422: "This cannot be", 429: "Too often", 500: "Something broke",
    503: "Not just now", 507: "Not saved",
}  # fmt: skip


def problem(status: int, detail: str, **more: Any) -> Response:
    """A response of type application/problem+json."""
    body = Problem(type=f"about:blank#{status}", title=TITLES.get(status, "Refused"), status=status, detail=detail, **more)
    return Response(body.model_dump_json(exclude_none=True), status, content_type="application/problem+json")


def invalid_body(error: ValidationError) -> Response:
    """A request that does not fit its schema."""
    problems = field_problems(error, request.get_json(silent=True), PLAIN)
    return problem(422, problems[0].text, errors=problems)


def register(app: Flask) -> None:
    """Handlers for everything that services and Flask raise."""

    @app.errorhandler(Invalid)
    def _invalid(error: Invalid) -> Response:
        return problem(422, error.problems[0].text, errors=error.problems)

    @app.errorhandler(NotFound)
    def _missing(_error: NotFound) -> Response:
        return problem(404, "There is no such project. It may have been deleted.")

    @app.errorhandler(Conflict)
    def _conflict(error: Conflict) -> Response:
        return problem(409, "This was changed in another window since you opened it.", version=error.version)

    @app.errorhandler(Clash)
    def _clash(_error: Clash) -> Response:
        return problem(409, "There is another record with this id already. Records are only added, never changed.")

    @app.errorhandler(TooLarge)
    def _too_large(error: TooLarge) -> Response:
        return problem(413, f"That is more than {error.most // 1024} kB.")

    @app.errorhandler(Unreadable)
    def _unreadable(error: Unreadable) -> Response:
        return problem(422, unreadable_text(error.type))

    @app.errorhandler(Trouble)
    def _trouble(error: Trouble) -> Response:
        return problem(503 if error.code == "busy" else 507, trouble_text(error.code, error.file))

    @app.errorhandler(HTTPException)
    def _http(error: HTTPException) -> Response:
        response = problem(error.code or 500, error.description or error.name)
        if isinstance(error, MethodNotAllowed):
            response.headers["Allow"] = ", ".join(sorted(error.valid_methods or ()))
        return response

    @app.errorhandler(Exception)
    def _broken(error: Exception) -> Response:
        current_app.logger.exception("unexpected", exc_info=error)
        return problem(500, "Something broke. Nothing that you saved is lost.")
