"""Acts on a frame of posts: what each does to the spec. Things are added and taken away with all that hangs on them."""

from typing import Any

from pydantic import ValidationError

from fennup.core.drawing.edit import Choose, Drag, Edit
from fennup.core.errors import CoreError, SpecError
from fennup.core.kinds.gauged import after_drag
from fennup.core.kinds.post_frame.adding import added
from fennup.core.kinds.post_frame.place import shell
from fennup.core.kinds.post_frame.sizing import SIZING
from fennup.core.kinds.post_frame.spec import PostFrameSpec
from fennup.core.kinds.sizing import pins_in
from fennup.core.parts.measures import measure_of
from fennup.core.units.lengths import Tape

Document = dict[str, Any]


def edit(spec: PostFrameSpec, act: Edit, on: Tape) -> Document:
    """The spec after one act, as a document still to be validated. SpecError or UnitError names the field. `add` and `away` are
    two choices of its own: what to add, and which board to take away."""
    spec = SIZING.settle(spec)
    if isinstance(act, Drag):
        return after_drag(SIZING, spec, act, on)
    if isinstance(act, Choose) and act.path == "add":
        return _given_anew(spec, added(spec, str(act.value)), "")
    if isinstance(act, Choose) and act.path == "away":
        return _given_anew(spec, without(spec, str(act.value)), "")
    place, _, rest = getattr(act, "path", "").partition(".")
    key = rest.partition(".")[0]
    like = spec.second_side().get(place, {}).get(key)
    if like is not None and not rest.endswith((".a", ".b", ".column", ".row")):
        raise SpecError("follows_its_like", (act.path,), part=key, other=like)  # type: ignore[union-attr]
    document = SIZING.edit(spec, act, on)
    return _given_anew(spec, document, act.path) if hasattr(act, "path") else document


def _given_anew(spec: PostFrameSpec, document: Document, path: str) -> Document:
    """What was given stays as far as it is still there; what has come or was chosen anew is suggested as it stands."""
    if spec.pins is None:
        return document
    try:
        changed = PostFrameSpec.model_validate({**document, "pins": None})
        there = set(shell(changed).by_name)
    except (ValidationError, CoreError):
        return document  # whoever validates it next says what is wrong
    before = {pin.measure for pin in spec.usual_pins()}
    chosen = path.split(".")[1] if path.startswith("rails.") and path.count(".") == 1 else None
    usual = {pin.measure: pin for pin in changed.usual_pins()}
    kept = []
    for given in pins_in(spec):
        measure = given["measure"]
        if measure in there and not of_rail(measure, chosen) and not (measure in before and measure not in usual):
            kept.append(given)
    names = {given["measure"] for given in kept}
    new = [pin for name, pin in usual.items() if name not in names and (name not in before or of_rail(name, chosen))]
    return {**document, "pins": [*kept, *(pin.model_copy(update={"suggested": True}).model_dump(mode="json") for pin in new)]}


def of_rail(measure: str, number: str | None) -> bool:
    """Whether a size is one of a certain rail."""
    asked = measure_of(measure)
    return number is not None and asked.side == number and (asked.line == "rail" or asked.quantity == "height")


def without(spec: PostFrameSpec, id: str) -> Document:
    """The spec without a board, and without what hangs on it alone. SpecError `no_such_board`, `last_post`."""
    document = spec.model_dump(mode="json")
    what, _, rest = id.partition(" ")
    number = rest.partition(" ")[0].partition(".")[0]
    if not rest and id in spec.posts:
        if len(spec.posts) == 1:
            raise SpecError("last_post", (f"posts.{id}.column",), part=id)
        return _without_post(document, id)
    places = {"rail": "rails", "foot": "feet", "brace": "braces", "slat": "slats"}
    if what == "knee" and number in spec.knees:
        return _without_corners(
            document, lambda corner, n: n == number and f"knee {n} {corner['post']}{corner['rail']}" == _inside(id)
        )
    if number not in document.get(places.get(what, ""), {}):
        raise SpecError("no_such_board", ("away",), part=id)
    del document[places[what]][number]
    return _without_rail(document, number) if what == "rail" else document


def _inside(id: str) -> str:
    """A knee's key without the side on which it lies."""
    return id.removesuffix(" ahead").removesuffix(" back")


def _without_post(document: Document, id: str) -> Document:
    del document["posts"][id]
    for post in document["posts"].values():
        if post.get("meets") == id:
            post["meets"] = None
    for number in [n for n, rail in document["rails"].items() if id in (rail["a"], rail["b"])]:
        del document["rails"][number]
        document = _without_rail(document, number)
    document["braces"] = {n: brace for n, brace in document["braces"].items() if id not in (brace["a"], brace["b"])}
    feet = {n: foot | {"under": [other for other in foot["under"] if other != id]} for n, foot in document["feet"].items()}
    document["feet"] = {n: foot for n, foot in feet.items() if foot["under"]}
    for lines, used in (("columns", "column"), ("rows", "row")):
        standing = {post[used] for post in document["posts"].values()}
        document[lines] = {n: at for n, at in document[lines].items() if n in standing}
    return _without_corners(document, lambda corner, _: corner["post"] == id)


def _without_rail(document: Document, number: str) -> Document:
    for post in document["posts"].values():
        if post.get("flush_with") == number:
            post["flush_with"] = None
    document["slats"] = {n: slats for n, slats in document["slats"].items() if number not in slats["on"]}
    return _without_corners(document, lambda corner, _: corner["rail"] == number)


def _without_corners(document: Document, goes: Any) -> Document:
    knees = {
        n: knee | {"corners": [corner for corner in knee["corners"] if not goes(corner, n)]}
        for n, knee in document["knees"].items()
    }
    document["knees"] = {n: knee for n, knee in knees.items() if knee["corners"]}
    return document
