"""The whole at another size: what is kept, what goes in proportion, what follows; and the kinds that can be."""

from collections.abc import Callable, Iterator
from typing import Any

from pydantic import ValidationError

from fennup.core.drawing.edit import Edit, Give, Rescale
from fennup.core.drawing.view import Description
from fennup.core.editing import get_at, put_at
from fennup.core.errors import SpecError
from fennup.core.kinds.fields import Pinned, pin
from fennup.core.kinds.registry import Kind, Words
from fennup.core.kinds.sizing import Levels, Sizing, solve_pins
from fennup.core.parts.gauge import is_angle
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid
from fennup.core.units.lengths import Tape

Document = dict[str, Any]


def sized(
    name: str,
    title: str,
    called: str,
    sizing: Sizing,
    edit: Callable[[Any, Edit, Tape], Document],
    describe: Callable[[Any, Ruler, dict[str, Solid]], Description],
    starts: dict[str, Document],
    words: Words,
    *,
    settle: Callable[[Any], Any] | None = None,
    stands: bool = True,
    **together: Any,
) -> Kind:
    """A kind whose sizes settle so; with a way of its own to `settle`, where its shape says them itself. `together`: `top` and
    `set_on`, where it has them."""

    def rescale(spec: Any, act: Rescale, on: Tape) -> Document:
        return rescaled(sizing, spec, act, on)

    def has_levels(spec: Any) -> bool:
        levels, document = sizing.levels, spec.model_dump(mode="json")
        paths = (*levels.rows, *levels.heights, *levels.counts) if levels else ()
        return any(_at(document, path) for path in paths)

    return Kind(
        name,
        title,
        called,
        sizing.model,
        settle or sizing.settle,
        sizing.free_sizes,
        sizing.whole,
        edit,
        describe,
        starts,
        stands,
        rescale,
        has_levels,
        words,
        **together,
    )


def rescaled(sizing: Sizing, spec: Any, act: Rescale, on: Tape) -> Document:
    """The spec with one length anew, as a document still to be validated.

    Given sizes go in proportion, angles stay; of all those that hang on each other the new one counts first, then what is
    kept, then the others in their order, and the last ones follow. SpecError `cannot_measure`, `rescale_nothing`, or
    `keep_disagrees` when what is to be kept cannot be beside the new size.
    """
    spec = sizing.settle(spec)
    ruler = Ruler(sizing.whole(spec))
    value = sizing.wanted(spec, Give(op="give", measure=act.measure, text=act.text, inches_meant=act.inches_meant), on)
    now = _measured(ruler, act.measure)
    if is_angle(act.measure):
        factor = 1.0
    elif now <= 0 or value <= 0:
        raise SpecError("rescale_nothing", (act.measure,))
    else:
        factor = value / now
    kept = {name: _measured(ruler, name) for name in act.keep if name != act.measure}
    rest = [p for p in spec.given_pins() if p.measure not in kept and p.measure != act.measure]
    # Of those that cannot all hold the last ones follow: suggestions before what somebody gave.
    others = {p.measure: p.value if is_angle(p.measure) else p.value * factor for p in sorted(rest, key=lambda p: p.suggested)}
    # A length that is kept was chosen; angles are kept unasked.
    suggested = {p.measure for p in spec.given_pins() if p.suggested and (p.measure in others or is_angle(p.measure))}
    suggested.discard(act.measure)
    wished = [
        pin(name, figure).model_copy(update={"suggested": name in suggested})
        for name, figure in ({act.measure: value} | kept | others).items()
    ]
    document = spec.model_dump(mode="json") | {"pins": [p.model_dump(mode="json") for p in wished]}
    before = document
    if act.rest == "in_proportion":
        for path in _rest(sizing, spec):
            document = put_at(document, path, get_at(document, path) * factor)
    if not is_angle(act.measure):
        for path in sizing.unknowns(spec):
            if "_deg" not in path:
                document = put_at(document, path, get_at(document, path) * factor)
    try:
        sizing.model.model_validate(document)
    except ValidationError:
        return dict(document)  # whoever validates it next says what is out of its limits
    document = _settled(sizing, document, [p.measure for p in wished], set(others))
    if sizing.levels and _at(before, sizing.levels.upward):
        by = get_at(document, sizing.levels.upward) / get_at(before, sizing.levels.upward)
        document = _levelled(document, sizing.levels, by, same_steps=act.levels == "same_steps")
    return document


def _measured(ruler: Ruler, name: str) -> float:
    value = ruler.measure(name)
    if value is None:
        raise SpecError("cannot_measure", (name,))
    return value


def _settled(sizing: Sizing, document: Document, wished: list[str], others: set[str]) -> Document:
    """With those of the wished sizes that can be beside each other, the first ones first."""
    spec = sizing.model.model_validate(document)
    found, _ = solve_pins(sizing, spec)
    for misfit in found.misfits:
        if misfit.pin.measure not in others:
            first = [(m, p["mm"] if "mm" in p else p["deg"], f"keep.{m}") for m, p in zip(wished, document["pins"], strict=True)]
            held = {other.measure for other in misfit.others}
            beside = tuple(entry for entry in first if entry[0] in held)
            raise SpecError(
                "keep_disagrees", (misfit.pin.measure,), measure=misfit.pin.measure, value=misfit.pin.value,
                gives=misfit.gives, others=beside,
            )  # fmt: skip
    dropped = {p.measure for p in (*found.spare, *(misfit.pin for misfit in found.misfits))}
    pins = [p for name, p in zip(wished, document["pins"], strict=True) if name not in dropped]
    return sizing.resettled(document | {"pins": pins})


def _rest(sizing: Sizing, spec: Pinned) -> Iterator[str]:
    """Every length of a spec that is neither a size that pins move nor a level."""
    document = spec.model_dump(mode="json")
    levels = sizing.levels
    named = {place for path in levels.heights for place in _at(document, path)} if levels else set()
    rows = {f"{row}.height_mm" for path in levels.rows for row in _at(document, path)} if levels else set()
    for path in _lengths(document, ""):
        if path not in sizing.unknowns(spec) and path not in named | rows and not path.startswith("pins."):
            yield path


def _lengths(here: Any, path: str) -> Iterator[str]:
    """The paths of all figures in mm."""
    items = here.items() if isinstance(here, dict) else enumerate(here) if isinstance(here, list) else ()
    for key, value in items:
        place = f"{path}.{key}" if path else str(key)
        if isinstance(value, float) and str(key).endswith("_mm"):
            yield place
        yield from _lengths(value, place)


def _at(document: Document, path: str) -> list[str]:
    """The places that a path with `*` leads to, those that are there."""
    places = [""]
    for key in path.split("."):
        found = []
        for place in places:
            here = get_at(document, place) if place else document
            keys = range(len(here)) if key == "*" else [key] if isinstance(here, dict) and here.get(key) is not None else []
            found += [f"{place}.{k}" if place else str(k) for k in keys]
        places = found
    return places


def _levelled(document: Document, levels: Levels, by: float, *, same_steps: bool) -> Document:
    """What stands at a height, once that has grown by a factor."""
    if same_steps:
        for path in levels.counts:
            for place in _at(document, path):
                document = put_at(document, place, max(1, round((get_at(document, place) + 1) * by) - 1))
        for path in levels.rows:
            for place in _at(document, path.removesuffix(".*")):
                document = put_at(document, place, _as_many_as_fit(get_at(document, place), get_at(document, levels.upward)))
        return document
    for path in (*levels.heights, *(f"{row}.height_mm" for row in levels.rows)):
        for place in _at(document, path):
            document = put_at(document, place, get_at(document, place) * by)
    return document


def _as_many_as_fit(rows: list[Document], height: float) -> list[Document]:
    """Rows at the heights that they have: those past the top left out, more added a step apart as far as they fit."""

    def top(row: Document) -> float:
        return float(row["height_mm"] + row.get("tall_mm", row.get("width_mm", row["thickness_mm"])))

    found = [row for row in rows if top(row) <= height]
    if len(rows) > 1 and found == rows:
        step = rows[-1]["height_mm"] - rows[-2]["height_mm"]
        while step > 0 and top(found[-1]) + step <= height:
            found.append(found[-1] | {"height_mm": found[-1]["height_mm"] + step})
    return found
