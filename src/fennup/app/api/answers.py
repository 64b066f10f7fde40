"""What every answer is made with: JSON, and tags by which a browser asks only for what has changed."""

import re
from collections.abc import Callable
from hashlib import sha256

from flask import Response, request
from pydantic import BaseModel

from fennup import __version__


def json_of(body: BaseModel, status: int = 200) -> Response:
    """A model as a JSON response."""
    return Response(body.model_dump_json(), status, content_type="application/json")


def tagged(based_on: tuple[object, ...], answer: Callable[[], BaseModel]) -> Response:
    """An answer that is the same for as long as what it is based on is: 304 without working anything out for whoever has it."""
    tag = sha256(repr((__version__, request.full_path, *based_on)).encode()).hexdigest()[:20]
    response = Response(status=304) if tag in request.if_none_match else json_of(answer())
    response.set_etag(tag)
    response.headers["Cache-Control"] = "private, no-cache"
    return response


def file_name(name: str) -> str:
    """A project's name as the beginning of a file's."""
    return re.sub(r"[^A-Za-z0-9]+", "-", name).strip("-").lower() or "project"
