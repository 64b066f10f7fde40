"""Every form that a stored document has had, brought to the newest: by type and version, one step after another."""

from collections.abc import Callable
from typing import Any

from fennup.core.project.forms import newest_form

Body = dict[str, Any]
PROJECT, WORKSHOP = "project", "workshop"
RACK, PRICES, BOARDS, SAW, FIT, FINISH, TABLES, LOG = "rack", "prices", "boards", "saw", "fit", "finish", "tables", "log"
MOULDINGS = "mouldings"
TYPES = (PROJECT, WORKSHOP, RACK, PRICES, BOARDS, SAW, FIT, FINISH, TABLES, LOG, MOULDINGS)


def _members_with_ids(body: Body) -> Body:
    """A project was one kind's spec, or several assemblies called by their names."""
    return body | {"spec": newest_form(body.get("spec"))}


def _saw_among_tools(body: Body) -> Body:
    """The workshop was one saw, and lengths were cut to each project's own tape."""
    saw = {"type": "miter_saw", **body}
    return {"tools": {"t1": saw}, "tape": {"unit": "mm", "graduation": "1"}, "allowance_mm": 0.5}


# What brings a document of a type from this version to the next.
STEPS: dict[tuple[str, int], Callable[[Body], Body]] = {
    (PROJECT, 1): _members_with_ids,
    (WORKSHOP, 1): _saw_among_tools,
}
NEWEST: dict[str, int] = {type: 1 + max((form for of, form in STEPS if of == type), default=0) for type in TYPES}


def upgraded(type: str, form: int, body: Body | None) -> Body | None:
    """The body in its newest form; None where it is lost, or of a later version than this one knows."""
    if body is None or form > NEWEST[type] or form < 1:
        return None
    for step in range(form, NEWEST[type]):
        body = STEPS[type, step](body)
    return body
