"""Sizes with a name, and figures that are small sums of them: `15 - foam`. A sum holds as long as its figure is what it says."""

import re
from collections.abc import Callable
from contextlib import suppress
from typing import Any

from pydantic import ValidationError

from fennup.core.drawing.edit import Edit, Give, TypeIn
from fennup.core.drawing.view import SumOf
from fennup.core.editing import get_at, put_at
from fennup.core.errors import CoreError, SpecError, UnitError
from fennup.core.parts.measure import Ruler
from fennup.core.parts.measures import measure_of
from fennup.core.project.place import assembly_of, one_member, settle
from fennup.core.project.spec import MOST_NAMED, NAME_OF_SIZE, NamedSize, ProjectSpec, Sum
from fennup.core.units.lengths import Tape, parse_length

HOLDS_MM = 1e-6  # within this a figure is what its sum says
Document = dict[str, Any]
Change = Callable[[ProjectSpec, Edit, Tape], Document]
_NEW = re.compile(r"\s*(?P<name>[^=]*?)\s*=\s*(?P<size>.+)")
_WORDS = ((r"\b(?:less|minus)\b|−", " - "), (r"\bplus\b", " + "))
_SIGN = re.compile(r"([+]|-(?!\d)|(?<!\d)-)")  # a hyphen within 14-3/8 is no minus
_TERM = re.compile(r"(?:(\d{1,2})\s*[x×*]?\s*)?\0(\d+)\0")


def key_of(act: Edit) -> str:
    """Under which a typed act's sum is kept: the field, or the measure."""
    return f"measure:{act.measure}" if isinstance(act, Give) else f"path:{getattr(act, 'path', '')}"


def spoken_sum(text: str, named: dict[str, NamedSize], on: Tape) -> Sum | None:
    """A typed sum in which a named size stands; None for any other text. UnitError where a part of it is no length."""
    plain, ids = text, sorted(named, key=lambda id: -len(named[id].name))
    for k, id in enumerate(ids):
        plain = re.sub(rf"(?<![A-Za-z0-9]){re.escape(named[id].name)}(?![A-Za-z0-9])", f"\0{k}\0", plain, flags=re.IGNORECASE)
    if "\0" not in plain:
        return None
    for words, sign in _WORDS:
        plain = re.sub(words, sign, plain, flags=re.IGNORECASE)
    plus, terms, sense = 0.0, dict[str, int](), 1
    for k, piece in enumerate(part.strip() for part in _SIGN.split(plain)):
        if piece in ("+", "-"):
            sense = -1 if piece == "-" else 1
        elif found := _TERM.fullmatch(piece):
            id = ids[int(found[2])]
            terms[id] = terms.get(id, 0) + sense * int(found[1] or 1)
        elif piece or k:
            plus += sense * parse_length(piece.replace("\0", "?"), on.unit).mm
    if not any(terms.values()):
        return None
    try:
        return Sum(plus_mm=plus, terms={id: times for id, times in terms.items() if times})
    except ValidationError:
        raise UnitError("sum_too_large", text=text.strip()) from None


def value_of(said: Sum, named: dict[str, NamedSize]) -> float:
    """What a sum comes to, mm."""
    return said.plus_mm + sum(times * named[id].mm for id, times in said.terms.items())


def shown(said: Sum, named: dict[str, NamedSize]) -> SumOf:
    """A sum with its names."""
    return SumOf(said.plus_mm, tuple((times, named[id].name) for id, times in said.terms.items()))


def with_sums(change: Change) -> Change:
    """An act on a project that may be typed as a sum: the figure is put in, and the sum kept beside it; sums that hold no longer are let go."""

    def edit(spec: ProjectSpec, act: Edit, on: Tape) -> Document:
        if isinstance(act, TypeIn) and act.path == "named":
            return _named(spec, act.text, on)
        said = None
        if isinstance(act, TypeIn | Give) and act.text is not None and spec.named:
            try:
                said = spoken_sum(act.text, spec.named, on)
            except UnitError as error:
                raise UnitError(error.code, (key_of(act).partition(":")[2],), **error.data) from None
        if said is not None:
            act = act.model_copy(update={"text": f"{value_of(said, spec.named):.9f} mm"})
        document = change(spec, act, on)
        if getattr(act, "path", "").startswith("named"):
            return _followed(spec, document, change, on)
        if said is not None:
            document = {**document, "sums": {**document["sums"], key_of(act): said.model_dump(mode="json")}}
        return with_true_sums(document)

    return edit


def _named(spec: ProjectSpec, text: str, on: Tape) -> Document:
    """One more named size, `foam = 3`. SpecError `named_how`, `named_twice`, `named_many`."""
    found = _NEW.fullmatch(text)
    if not found or not re.fullmatch(NAME_OF_SIZE, found["name"]):
        raise SpecError("named_how", ("named",))
    if any(size.name.lower() == found["name"].lower() for size in spec.named.values()):
        raise SpecError("named_twice", ("named",), name=found["name"])
    if len(spec.named) >= MOST_NAMED:
        raise SpecError("named_many", ("named",), most=MOST_NAMED)
    try:
        mm = parse_length(found["size"], on.unit).mm
    except UnitError as error:
        raise UnitError(error.code, ("named",), **error.data) from None
    document, number = spec.model_dump(mode="json"), 1 + max([0, *(int(id[1:]) for id in spec.named)])
    return put_at(document, f"named.s{number}", {"name": found["name"], "mm": mm})


def _followed(spec: ProjectSpec, document: Document, change: Change, on: Tape) -> Document:
    """After a named size is another one: every figure that says it, in the order in which they were said. Sums of one that is gone are let go."""
    try:
        named = {id: NamedSize.model_validate(size) for id, size in document["named"].items()}
    except ValidationError:
        return document  # whoever validates it next says what is wrong
    sums = {key: said for key, said in spec.sums.items() if set(said.terms) <= set(named)}
    document = {**document, "sums": {key: said.model_dump(mode="json") for key, said in sums.items()}}
    for key, said in sums.items():
        what, _, where = key.partition(":")
        text = f"{value_of(said, named):.9f} mm"
        act: Edit = Give(op="give", measure=where, text=text) if what == "measure" else TypeIn(op="type", path=where, text=text)
        try:
            now = ProjectSpec.model_validate(document)
        except ValidationError:
            return document  # whoever validates it next says what is wrong
        document = change(now, act, on)
    return with_true_sums(document)


def with_true_sums(document: Document) -> Document:
    """The document with those sums that still hold."""
    if not document.get("sums"):
        return document
    with suppress(ValidationError, CoreError):
        spec = settle(ProjectSpec.model_validate(document))
        kept = {key: said for key, said in document["sums"].items() if _holds(spec, key)}
        return {**document, "sums": kept}
    return document


def _holds(spec: ProjectSpec, key: str) -> bool:
    """Whether a figure is what its sum says."""
    what, _, where = key.partition(":")
    try:
        if what == "path":
            now: Any = get_at(spec.model_dump(mode="json"), where)
        else:
            asked = measure_of(where)
            now = Ruler(assembly_of(one_member(spec.members[asked.member].spec))).measure(asked.own)
    except (CoreError, KeyError):
        return False
    return isinstance(now, int | float) and abs(now - value_of(spec.sums[key], spec.named)) < HOLDS_MM
