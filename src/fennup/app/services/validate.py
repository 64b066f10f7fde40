"""From a document to a valid model, or to what is wrong with which field, in words."""

from collections.abc import Callable
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from fennup.app.schemas.problems import FieldProblem, Offer
from fennup.app.wording.figures import Voice
from fennup.app.wording.problems import limits_text, problem_text
from fennup.core.drawing.edit import Edit, Free, Give
from fennup.core.errors import CoreError
from fennup.core.parts.gauge import is_angle
from fennup.core.units.lengths import Tape

Model = TypeVar("Model", bound=BaseModel)


class Invalid(Exception):
    """What was sent cannot be: every problem with the path of its field."""

    def __init__(self, problems: list[FieldProblem]) -> None:
        super().__init__([p.text for p in problems])
        self.problems = problems

    def without(self, prefix: str) -> "Invalid":
        """The same with paths that begin after a prefix."""
        return Invalid([p.model_copy(update={"path": p.path.removeprefix(prefix)}) for p in self.problems])

    def within(self, prefix: str) -> "Invalid":
        """The same with paths that begin with a prefix."""
        return Invalid([p.model_copy(update={"path": f"{prefix}{p.path}"}) for p in self.problems])


def from_core(error: CoreError, voice: Voice) -> Invalid:
    """A refusal of the core, worded."""
    ask = "inches" if error.code == "fraction_in_mm" else None
    text = problem_text(error, voice)
    found = [
        FieldProblem(path=path, text=text, code=error.code, ask=ask, offers=_offers(error, voice))
        for path in error.fields or ("",)
    ]
    return Invalid(found)


def _offers(error: CoreError, voice: Voice) -> list[Offer]:
    """Where too much is given: let one of the others follow, then give this. What that makes of it, whoever has the project says."""
    if error.code not in ("pins_disagree", "pins_enough"):
        return []
    measure, value = str(error.data["measure"]), float(str(error.data["value"]))
    unit = "" if is_angle(measure) else " mm"
    give = Give(op="give", measure=measure, text=f"{value!r}{unit}")
    others = error.data["others"]
    assert isinstance(others, tuple)
    return [
        Offer(label=voice.label(other), acts=[Free(op="free", measure=other), give])
        for other, _, field in others
        if ".pins." in field
    ]


def validated(model: type[Model], document: Any, voice: Voice) -> Model:
    """The document as a model; Invalid with every field that is wrong."""
    try:
        return model.model_validate(document)
    except ValidationError as error:
        raise Invalid(field_problems(error, document, voice)) from None
    except CoreError as error:
        raise from_core(error, voice) from None


def changed_by(now: Model, acts: list[Edit], change: Callable[[Model, Edit, Tape], dict[str, Any]], voice: Voice) -> Model:
    """A model after some acts, each valid by itself. Invalid names the field of the first that cannot be."""
    for act in acts:
        try:
            document = change(now, act, voice.tape)
        except CoreError as error:
            raise from_core(error, voice) from None
        now = validated(type(now), document, voice)
    return now


def field_problems(error: ValidationError, document: Any, voice: Voice) -> list[FieldProblem]:
    """Pydantic's errors by path into the document, worded."""
    problems = []
    for e in error.errors():
        path = _path(e["loc"], document, e["type"])
        text = limits_text(e["type"], e.get("ctx", {}), path, e.get("input"), voice)
        problems.append(FieldProblem(path=path, text=text, code=e["type"]))
    return problems


def _path(loc: tuple[int | str, ...], document: Any, type: str) -> str:
    """The dotted path, without the names of union branches, which are not in the document."""
    here: Any = document
    path: list[str] = []
    for i, key in enumerate(loc):
        last = i == len(loc) - 1
        inside = (isinstance(here, dict) and key in here) or (isinstance(here, list) and isinstance(key, int) and key < len(here))
        if inside:
            here = here[key]
        elif not (last and type in ("missing", "extra_forbidden")):
            continue
        path.append(str(key))
    return ".".join(path)
