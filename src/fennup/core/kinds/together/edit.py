"""Acts on several assemblies: on one of them as on itself, on how they stand and follow each other here."""

from collections.abc import Callable
from typing import Any

from pydantic import ValidationError

from fennup.core.drawing.edit import Choose, Drag, Edit, Fit, Free, Give, Rescale
from fennup.core.errors import SpecError, UnitError
from fennup.core.kinds.editing import edit_field, put_at
from fennup.core.kinds.gauged import PAPERS
from fennup.core.kinds.registry import Kind
from fennup.core.kinds.singles import SINGLES
from fennup.core.kinds.together.faces import along_line, fitted_piece, seat_on
from fennup.core.kinds.together.place import assemble, built, heights, settle, told
from fennup.core.kinds.together.spec import TogetherSpec
from fennup.core.parts.measure import Ruler
from fennup.core.units.lengths import Tape

Document = dict[str, Any]
KEPT_MM = 1e-6


def edit(spec: TogetherSpec, act: Edit, on: Tape) -> Document:
    """The spec after one act, as a document still to be validated. SpecError or UnitError names the field."""
    spec = settle(spec)
    document = spec.model_dump(mode="json")
    if isinstance(act, Give | Free):
        name, _, measure = act.measure.partition("/")
        return _within(spec, document, name, act.model_copy(update={"measure": measure}), on)
    if isinstance(act, Drag):
        return _dragged(spec, document, act, on)
    if act.path.startswith("members.") and ".spec." in act.path:
        head, _, path = act.path.partition(".spec.")
        number = head.removeprefix("members.")
        if not number.isdecimal() or int(number) >= len(spec.members):
            raise SpecError("no_such_field", (act.path,))
        return _within(spec, document, spec.members[int(number)].name, act.model_copy(update={"path": path}), on)
    if isinstance(act, Choose) and act.path.startswith("follow:"):
        return _followed(document, act.path.removeprefix("follow:"), act.value)
    if isinstance(act, Choose) and act.path == "members":
        return _fewer(document) if act.value is None else with_another(document, str(act.value))
    if isinstance(act, Choose) and act.path == "pieces":
        return _without(document, [str(act.value)])
    return edit_field(document, act, on)


def _within(spec: TogetherSpec, document: Document, name: str, act: Edit, on: Tape) -> Document:
    """An act on one of them. SpecError `size_follows` where a link would put a given size back."""
    made = _changed(spec, document, name, lambda kind, own: kind.edit(own, act, on))
    link = next((link for link in spec.links if link.of == name), None)
    if isinstance(act, Give) and link:
        try:
            changed = TogetherSpec.model_validate(made)
        except ValidationError:
            return made
        given, kept = (Ruler(built(each.member(name).spec)).measure(act.measure) for each in (changed, settle(changed)))
        if given is None or kept is None or abs(given - kept) > KEPT_MM:
            raise SpecError("size_follows", (f"{name}/{act.measure}",), measure=f"{name}/{link.measure}")
    return made


def _changed(spec: TogetherSpec, document: Document, name: str, change: Callable[[Kind, Any], Document]) -> Document:
    """One of them changed, its refusals told within the whole."""
    i = next((i for i, member in enumerate(spec.members) if member.name == name), None)
    if i is None:
        raise SpecError("no_such_assembly", (name,), name=name)
    own = spec.members[i].spec
    kind = SINGLES[own.kind]
    try:
        made = change(kind, own)
        made = kind.settle(kind.spec.model_validate(made)).model_dump(mode="json")
    except ValidationError:
        pass  # whoever validates the whole next says what is wrong with which field
    except UnitError as error:
        raise UnitError(error.code, tuple(f"members.{i}.spec.{field}" for field in error.fields), **error.data) from None
    except SpecError as error:
        raise told(error, spec, name) from error
    return put_at(document, f"members.{i}.spec", made)


def _followed(document: Document, size: str, source: Any) -> Document:
    """A size that follows another's, or its own figure again, as it stands."""
    of, _, measure = size.partition("/")
    kept = [link for link in document["links"] if (link["of"], link["measure"]) != (of, measure)]
    if source is None:
        return put_at(document, "links", kept)
    after, _, what = str(source).partition("/")
    return put_at(document, "links", [*kept, {"of": of, "measure": measure, "after": after, "source": what, "plus_mm": 0.0}])


def begun(spec: Document, name: str) -> Document:
    """A single assembly's spec as the first of several. SpecError `no_such_field` for a kind that cannot stand with others."""
    if spec.get("kind") not in SINGLES:
        raise SpecError("no_such_field", ("together",))
    return {"kind": "together", "members": [{"name": name, "spec": spec}], "links": [], "pieces": []}


def with_another(document: Document, start: str) -> Document:
    """One more assembly, begun from a start, on the last one. SpecError `no_such_start`."""
    for kind in SINGLES.values():
        if start in kind.starts:
            spec = kind.spec.model_validate(kind.starts[start]).model_dump(mode="json")
            names = {member["name"] for member in document["members"]}
            name = next(n for k in range(1, 99) if (n := _called(start, k)) not in names)
            member = {"name": name, "spec": spec, "on": document["members"][-1]["name"], "up_mm": 0.0}
            return put_at(document, "members", [*document["members"], member])
    raise SpecError("no_such_start", ("members",))


def _called(start: str, number: int) -> str:
    name = start.replace("_", " ").capitalize()
    return name if number == 1 else f"{name} {number}"


def _fewer(document: Document) -> Document:
    """Without the last one, and what followed it."""
    gone = document["members"][-1]["name"]
    links = [link for link in document["links"] if gone not in (link["of"], link["after"])]
    fewer = put_at(put_at(document, "members", document["members"][:-1]), "links", links)
    on_it = [p["name"] for p in document["pieces"] if any(p[end]["board"].startswith(f"{gone}/") for end in "ab")]
    return _without(fewer, on_it)


def _without(document: Document, gone: list[str]) -> Document:
    """Without some pieces, and those that end on them."""
    kept = []
    for piece in document["pieces"]:
        if piece["name"] in gone or piece["a"]["board"] in gone or piece["b"]["board"] in gone:
            gone = [*gone, piece["name"]]
        else:
            kept.append(piece)
    return put_at(document, "pieces", kept)


def with_piece(spec: TogetherSpec, act: Fit, on: Tape) -> Document:
    """One more piece between two touched faces. SpecError `no_such_face`."""
    spec = settle(spec)
    made = fitted_piece(spec, assemble(spec).boards, (act.a, act.b), on)
    return spec.model_copy(update={"pieces": [*spec.pieces, made]}).model_dump(mode="json")


def rescale(spec: TogetherSpec, act: Rescale, on: Tape) -> Document:
    """One of them at another size; the others follow as far as they are linked. SpecError names its field."""
    spec = settle(spec)
    name, _, measure = act.measure.partition("/")
    keep = [kept.partition("/")[2] for kept in act.keep if kept.partition("/")[0] == name]
    if any((link.of, link.measure) == (name, measure) for link in spec.links):
        raise SpecError("size_follows", (act.measure,), measure=act.measure)
    own = act.model_copy(update={"measure": measure, "keep": keep})

    def change(kind: Kind, member: Any) -> Document:
        if kind.rescale is None:
            raise SpecError("frames_one_size", (act.measure,))
        return kind.rescale(member, own, on)

    return _changed(spec, spec.model_dump(mode="json"), name, change)


def has_levels(spec: TogetherSpec) -> bool:
    """Whether any of them has something that stands at a height."""
    return any(SINGLES[member.spec.kind].has_levels(member.spec) for member in spec.members)


def _dragged(spec: TogetherSpec, document: Document, act: Drag, on: Tape) -> Document:
    """A ring of one of them, or a piece's end, let go somewhere along its board: to the nearest graduation. SpecError
    `no_such_grip`, `dragged_to_nothing`."""
    view, _, rest = act.grip.partition("/")
    whose, slash, grip = rest.partition("/")
    paper = next((paper for paper in PAPERS if paper.id == view), None)
    if slash:
        x, y = paper.flat((0.0, 0.0, heights(spec).get(whose, 0.0))) if paper else (0.0, 0.0)
        own = act.model_copy(update={"grip": grip, "x_mm": act.x_mm - x, "y_mm": act.y_mm - y})
        return _within(spec, document, whose, own, on)
    what, view, number, end = (*act.grip.split(":"), "", "", "")[:4]
    paper = next((paper for paper in PAPERS if paper.id == view), None)
    if what != "piece" or paper is None or not number.isdecimal() or int(number) >= len(spec.pieces) or end not in ("a", "b"):
        raise SpecError("no_such_grip", (act.grip,))
    piece = spec.pieces[int(number)]
    seat = piece.a if end == "a" else piece.b
    board = next((board for board in assemble(spec).boards if board.id == seat.board), None)
    found = seat_on(paper, board, seat) if board else None
    if found is None:
        raise SpecError("no_such_grip", (act.grip,))
    along = round((seat.along_mm + along_line(found, (act.x_mm, act.y_mm))) / on.graduation_mm) * on.graduation_mm
    if along < 0:
        raise SpecError("dragged_to_nothing", (act.grip,))
    return put_at(document, f"pieces.{number}.{end}.along_mm", along)
