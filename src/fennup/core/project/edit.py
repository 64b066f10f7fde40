"""Acts on a project: on one of its assemblies as on itself, on how they stand and follow each other, and on its pieces."""

from collections.abc import Callable
from contextlib import suppress
from typing import Any

from pydantic import ValidationError

from fennup.core.drawing.edit import Choose, Drag, Edit, Fit, Free, Give, Rescale
from fennup.core.editing import edit_field, put_at
from fennup.core.errors import CoreError, SpecError, UnitError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.kinds.gauged import PAPERS
from fennup.core.kinds.registry import Kind
from fennup.core.parts.measure import Ruler
from fennup.core.parts.measures import measure_of
from fennup.core.project.faces import along_line, new_piece, seat_on
from fennup.core.project.lying import lying_on
from fennup.core.project.place import assemble, assembly_of, one_member, refused_within, settle, stances
from fennup.core.project.spec import ProjectSpec
from fennup.core.project.sums import with_sums, with_true_sums
from fennup.core.units.lengths import Tape

Document = dict[str, Any]
KEPT_MM = 1e-6
AS_TYPED_MM = 1e-3  # two thicknesses that one would call the same
STARTS: dict[str, Kind] = {start: kind for kind in KINDS.values() for start in kind.starts}


def edit(spec: ProjectSpec, act: Edit, on: Tape) -> Document:
    """The spec after one act, typed as a figure or as a sum, as a document still to be validated. SpecError or UnitError names the field."""
    return with_sums(_edited)(spec, act, on)


def _edited(spec: ProjectSpec, act: Edit, on: Tape) -> Document:
    spec = settle(spec)
    document = spec.model_dump(mode="json")
    if isinstance(act, Give | Free):
        asked = measure_of(act.measure)
        return _within(spec, document, asked.member, act.model_copy(update={"measure": asked.own}), on)
    if isinstance(act, Drag):
        return _dragged(spec, document, act, on)
    place, _, rest = act.path.partition(".")
    id, _, own = rest.partition(".spec.")
    if place == "members" and own:
        return _within(spec, document, id, act.model_copy(update={"path": own}), on)
    if isinstance(act, Choose) and act.path.startswith("follow:"):
        return _followed(document, act.path.removeprefix("follow:"), act.value)
    if isinstance(act, Choose) and act.path == "members":
        return _without_last(document) if act.value is None else with_another(spec, str(act.value))
    if isinstance(act, Choose) and act.path == "named":
        return {**document, "named": {id: size for id, size in document["named"].items() if id != act.value}}
    if isinstance(act, Choose) and act.path == "pieces":
        return _without(document, [str(act.value)])
    made = edit_field(document, act, on)
    if act.path.startswith("pieces.") and act.path.endswith(".count"):
        return _with_step(spec, made, act.path.split(".")[1])
    return made


def _with_step(spec: ProjectSpec, document: Document, id: str) -> Document:
    """A piece that becomes a row: three of its widths from one to the next, until somebody says otherwise."""
    piece = spec.pieces.get(id)
    if piece is None or piece.step_mm is not None:
        return document
    return put_at(document, f"pieces.{id}.step_mm", 3 * (piece.width_mm if piece.lies_flat else piece.thickness_mm))


def _within(spec: ProjectSpec, document: Document, id: str, act: Edit, on: Tape) -> Document:
    """An act on one member. SpecError `size_follows` where a link would put a given size back."""
    made = _changed(spec, document, id, lambda kind, own: kind.edit(own, act, on))
    link = next((link for link in spec.links if link.of == id), None)
    if isinstance(act, Give) and link:
        try:
            changed = ProjectSpec.model_validate(made)
        except ValidationError:
            return made
        given, kept = (
            Ruler(assembly_of(one_member(each.members[id].spec))).measure(act.measure) for each in (changed, settle(changed))
        )
        if given is None or kept is None or abs(given - kept) > KEPT_MM:
            raise SpecError("size_follows", (f"{id}/{act.measure}",), measure=f"{id}/{link.measure}")
    return made


def _changed(spec: ProjectSpec, document: Document, id: str, change: Callable[[Kind, Any], Document]) -> Document:
    """One member changed, its refusals named within the project."""
    if id not in spec.members:
        raise SpecError("no_such_assembly", (id,), name=id)
    own = spec.members[id].spec
    kind = KINDS[own.kind]
    try:
        made = change(kind, own)
        made = kind.settle(kind.spec.model_validate(made)).model_dump(mode="json")
    except ValidationError:
        pass  # whoever validates the whole next says what is wrong with which field
    except UnitError as error:
        raise UnitError(error.code, tuple(f"members.{id}.spec.{field}" for field in error.fields), **error.data) from None
    except SpecError as error:
        raise refused_within(error, id) from error
    return put_at(document, f"members.{id}.spec", made)


def _followed(document: Document, size: str, source: Any) -> Document:
    """A size that follows another's, or its own figure again, as it stands."""
    own = measure_of(size)
    kept = [link for link in document["links"] if (link["of"], link["measure"]) != (own.member, own.own)]
    if source is None:
        return put_at(document, "links", kept)
    other = measure_of(str(source))
    made = {"of": own.member, "measure": own.own, "after": other.member, "source": other.own, "plus_mm": 0.0}
    return put_at(document, "links", [*kept, made])


def with_another(spec: ProjectSpec, start: str) -> Document:
    """One more assembly, begun from a start, on the last one: with as many sides and as wide as that, as far as it can be, and
    following it. SpecError `no_such_start`."""
    if start not in STARTS:
        raise SpecError("no_such_start", ("members",))
    kind, number, under = STARTS[start], spec.next_number(), list(spec.members)[-1]
    names = {member.name for member in spec.members.values()}
    base = kind.words.starts[start][1]
    name = next(n for k in range(1, 99) if (n := base if k == 1 else f"{base} {k}") not in names)
    own = kind.spec.model_validate(kind.starts[start])
    document = spec.model_dump(mode="json") | {"numbered": number}

    def added(own: Any, links: tuple[Document, ...]) -> Document:
        member = {"name": name, "spec": own.model_dump(mode="json"), "on": under, "up_mm": 0.0}
        return put_at(put_at(document, f"members.m{number}", member), "links", [*document["links"], *links])

    with suppress(ValidationError, CoreError):
        made = added(*_set_on(kind, own, spec, under, f"m{number}"))
        assemble(settle(ProjectSpec.model_validate(made)))
        return made
    return added(own, ())


def _set_on(kind: Kind, own: Any, spec: ProjectSpec, under: str, id: str) -> tuple[Any, tuple[Document, ...]]:
    """A start's spec as wide as what it is to stand on, and the links that keep it so; as it is where the two do not meet."""
    below = settle(spec).members[under].spec
    around = KINDS[below.kind].top(below)
    if around is None:
        return own, ()
    ruler = Ruler(assembly_of(one_member(below)))
    across = tuple(value for measure in around.measures if (value := ruler.measure(measure)) is not None)
    made = kind.set_on(own, around.sides, across) if len(across) == len(around.measures) else None
    if made is None:
        return own, ()
    fitted, measures = made
    # Width and depth of what stands on something that is measured only once, across flats, both follow that.
    sources = around.measures if len(around.measures) > 1 else around.measures * len(measures)
    links = zip(measures, sources, strict=False)
    return fitted, tuple(
        {"of": id, "measure": measure, "after": under, "source": source, "plus_mm": 0.0} for measure, source in links if measure
    )


def _without_last(document: Document) -> Document:
    """Without the last one, and what followed it."""
    gone = list(document["members"])[-1]
    members = {id: member for id, member in document["members"].items() if id != gone}
    links = [link for link in document["links"] if gone not in (link["of"], link["after"])]
    fewer = put_at(put_at(document, "members", members), "links", links)
    return _without(
        fewer, [id for id, p in document["pieces"].items() if any(p[end]["board"].startswith(f"{gone}/") for end in "ab")]
    )


def _without(document: Document, gone: list[str]) -> Document:
    """Without some pieces, and those that end on them."""
    kept = {}
    for id, piece in document["pieces"].items():
        if id in gone or piece["a"]["board"] in gone or piece["b"]["board"] in gone:
            gone = [*gone, id]
        else:
            kept[id] = piece
    return put_at(document, "pieces", kept)


def with_piece(spec: ProjectSpec, act: Fit, on: Tape) -> Document:
    """One more piece between two touched faces. SpecError `no_such_face`."""
    spec = settle(spec)
    made, number = new_piece(spec, assemble(spec).boards, (act.a, act.b), on), spec.next_number()
    document = spec.model_dump(mode="json") | {"numbered": number}
    return put_at(document, f"pieces.p{number}", made.model_dump(mode="json"))


def rescale(spec: ProjectSpec, act: Rescale, on: Tape) -> Document:
    """One member at another size; the others follow as far as they are linked. SpecError names its field."""
    spec = settle(spec)
    asked = measure_of(act.measure)
    id, measure = asked.member, asked.own
    keep = [kept.own for kept in map(measure_of, act.keep) if kept.member == id]
    if any((link.of, link.measure) == (id, measure) for link in spec.links):
        raise SpecError("size_follows", (act.measure,), measure=act.measure)
    own = act.model_copy(update={"measure": measure, "keep": keep})
    made = _changed(spec, spec.model_dump(mode="json"), id, lambda kind, member: kind.rescale(member, own, on))
    return with_true_sums(made)


def has_levels(spec: ProjectSpec) -> bool:
    """Whether anything in it stands at a height."""
    return any(KINDS[member.spec.kind].has_levels(member.spec) for member in spec.members.values())


def _dragged(spec: ProjectSpec, document: Document, act: Drag, on: Tape) -> Document:
    """A ring of one member, or a piece's end, let go somewhere along its board: to the nearest graduation. SpecError
    `no_such_grip`, `dragged_to_nothing`."""
    view, _, rest = act.grip.partition("/")
    whose, slash, grip = rest.partition("/")
    paper = next((paper for paper in PAPERS if paper.id == view), None)
    if slash and whose in spec.members:
        lies = lying_on(KINDS[spec.members[whose].spec.kind], stances(spec)[whose], paper) if paper else None
        x, y = lies.back((act.x_mm, act.y_mm)) if lies else (act.x_mm, act.y_mm)
        return _within(spec, document, whose, act.model_copy(update={"grip": grip, "x_mm": x, "y_mm": y}), on)
    what, view, id, end = (*act.grip.split(":"), "", "", "")[:4]
    paper = next((paper for paper in PAPERS if paper.id == view), None)
    if what != "piece" or paper is None or id not in spec.pieces or end not in ("a", "b"):
        raise SpecError("no_such_grip", (act.grip,))
    piece = spec.pieces[id]
    seat = piece.a if end == "a" else piece.b
    board = next((board for board in assemble(spec).boards if board.id == seat.board), None)
    found = seat_on(paper, board, seat) if board else None
    if found is None:
        raise SpecError("no_such_grip", (act.grip,))
    along = round((seat.along_mm + along_line(found, (act.x_mm, act.y_mm))) / on.graduation_mm) * on.graduation_mm
    if along < 0:
        raise SpecError("dragged_to_nothing", (act.grip,))
    return put_at(document, f"pieces.{id}.{end}.along_mm", along)


def of_thickness(document: Document, from_mm: float, to_mm: float) -> Document:
    """The document with every thickness that is `from_mm` as `to_mm`: the wood that was bought is what it is. SpecError `none_so_thick`."""
    found = [0]

    def changed(value: Any, key: str = "") -> Any:
        if isinstance(value, dict):
            return {k: changed(v, k) for k, v in value.items()}
        if isinstance(value, list):
            return [changed(v, key) for v in value]
        if key.endswith("thickness_mm") and isinstance(value, int | float) and abs(value - from_mm) < AS_TYPED_MM:
            found[0] += 1
            return to_mm
        return value

    made: Document = changed(document)
    if not found[0]:
        raise SpecError("none_so_thick", ("thickness_mm",), mm=from_mm)
    return made
