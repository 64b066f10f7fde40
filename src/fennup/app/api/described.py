"""The OpenAPI document as it is true: refusals as problem details with their own media type, the same ones everywhere."""

from copy import deepcopy
from typing import Any

PROBLEM = {"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}}
EVERYWHERE = {
    "400": "The request could not be read",
    "403": "Refused: not one of Fennup's own pages",
    "422": "What is asked for cannot be; each field at fault with its path",
    "503": "Not just now: another program keeps the database locked",
    "507": "Not saved: the disk is full, or the database is gone",
}
WRITING = {"409": "Changed elsewhere since", "413": "Too much at once", "415": "Not JSON"}


def described(document: dict[str, Any]) -> dict[str, Any]:
    """The document that the framework makes, put right."""
    made = deepcopy(document)
    made["components"] = {name: part for name, part in made["components"].items() if part is not None}
    for path, operations in made["paths"].items():
        for method, operation in operations.items():
            refusals = dict(EVERYWHERE)
            if "{" in path:
                refusals["404"] = "There is no such project"
            if method != "get":
                refusals |= WRITING
            responses = {code: given for code, given in operation["responses"].items() if code.startswith("2")}
            responses |= {code: {"description": words, "content": PROBLEM} for code, words in refusals.items()}
            operation["responses"] = dict(sorted(responses.items()))
            if "requestBody" in operation:
                operation["requestBody"]["required"] = True
    return made
