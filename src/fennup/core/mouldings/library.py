"""The workshop's mouldings: how each looks cut across, which lengths of it were found, what finish is on it; and what is to be framed."""

from collections.abc import Iterator
from typing import Annotated, Any

from pydantic import Field, model_validator

from fennup.core.boards.stock import Source
from fennup.core.drawing.edit import Choose, Drag, Edit, Free, Give, TypeIn
from fennup.core.editing import edit_field, get_at, put_at
from fennup.core.errors import SpecError
from fennup.core.kinds.fields import Play_mm, Size_mm, Strict
from fennup.core.kinds.ploughing import Profile, check_ploughed
from fennup.core.site.weight import stack_kg
from fennup.core.stock.outlined import Turning, turned
from fennup.core.stock.sizes import Within_mm
from fennup.core.units.lengths import Tape

MOST_MOULDINGS, MOST_CONTENTS, MOST_LENGTHS = 60, 40, 40
SHOWN_MOULDINGS, SHOWN_CONTENTS = 12, 12  # of the table at once
MouldingId = Annotated[str, Field(pattern=r"^m[1-9][0-9]{0,4}$", description="which moulding; it never changes")]
ContentId = Annotated[str, Field(pattern=r"^c[1-9][0-9]{0,4}$", description="which of the things to be framed; it never changes")]
Text = Annotated[str, Field(max_length=60)]
Length_mm = Annotated[float, Field(ge=1, le=20_000, allow_inf_nan=False, description="mm, of a length that was found")]
TEXTS = ("name", "wood", "finish")
TURNS: tuple[Turning, ...] = ("quarter", "over")
NEW_MOULDING: dict[str, Any] = {
    "name": "Moulding", "width_mm": 45.0, "thickness_mm": 20.0,
    "ploughed": [{"form": "rabbet", "corner": "back_upper", "width_mm": 8.0, "depth_mm": 10.0}],
}  # fmt: skip
NEW_CONTENT: dict[str, Any] = {
    "name": "Picture",
    "width_mm": 400.0,
    "height_mm": 300.0,
    "glass_mm": 2.0,
    "art_mm": 1.0,
    "back_mm": 3.0,
    "play_mm": 3.0,
}
NEW_LENGTH: dict[str, Any] = {"mm": 1000.0}


class Found(Strict):
    """Lengths that are alike: what can be cut of each, and how many."""

    mm: Length_mm
    count: Annotated[int, Field(ge=1, le=99)] = 1


class Moulding(Profile):
    """One moulding, cut across with its opening edge as its upper one and its show side as its face. `photo`: a file of the workshop's.
    `error_mm`: how far its curves are off the drawing that it was read from."""

    wood: Text = ""
    lengths: Annotated[tuple[Found, ...], Field(max_length=MOST_LENGTHS)] = ()
    photo: Annotated[str, Field(max_length=36)] | None = None
    error_mm: Annotated[float, Field(ge=0, le=10, allow_inf_nan=False)] | None = None

    @property
    def found_mm(self) -> float:
        """All its lengths, end to end."""
        return sum(length.mm * length.count for length in self.lengths)


class Content(Strict):
    """Something to be framed, as the layers that lie in the rabbet, from the lip: glass, what keeps that off, the picture, the back. `play_mm` in all."""

    name: Text
    width_mm: Size_mm
    height_mm: Size_mm
    glass_mm: Within_mm = 0.0
    spacer_mm: Within_mm = 0.0
    art_mm: Within_mm = 0.0
    back_mm: Within_mm = 0.0
    play_mm: Play_mm = 3.0
    weight_kg: Annotated[float, Field(gt=0, le=500, allow_inf_nan=False)] | None = None

    @property
    def thick_mm(self) -> float:
        """All layers together."""
        return self.glass_mm + self.spacer_mm + self.art_mm + self.back_mm

    @property
    def weighs_kg(self) -> float:
        """As somebody weighed it; else glass by its thickness, and all else as dense board."""
        area = self.width_mm * self.height_mm
        return self.weight_kg or stack_kg(area, self.glass_mm, self.thick_mm - self.glass_mm)

    @model_validator(mode="after")
    def _is_something(self) -> "Content":
        """SpecError `stack_empty`."""
        if self.thick_mm <= 0:
            raise SpecError("stack_empty", ("art_mm",))
        return self


class Mouldings(Strict):
    """Mouldings and contents by ids that never change. `numbered`: how many there have been of both."""

    mouldings: Annotated[dict[MouldingId, Moulding], Field(max_length=MOST_MOULDINGS)] = {}
    contents: Annotated[dict[ContentId, Content], Field(max_length=MOST_CONTENTS)] = {}
    numbered: Annotated[int, Field(ge=0, le=99_999)] = 0

    @model_validator(mode="after")
    def _sections_can_be(self) -> "Mouldings":
        """SpecError of the first section that cannot be."""
        for id, moulding in self.mouldings.items():
            check_ploughed(moulding.section, 0, f"mouldings.{id}.ploughed")
        return self

    def next_number(self) -> int:
        """The number of the next one: higher than any that there has been."""
        return 1 + max([self.numbered, *(int(id[1:]) for id in (*self.mouldings, *self.contents))])


def sources_in(library: Mouldings) -> Iterator[Source]:
    """The found lengths, as the planner takes them: `m:m1:0` is the first of a moulding's."""
    for id, moulding in library.mouldings.items():
        yield from lengths_of(id, moulding)


def lengths_of(id: str, moulding: Moulding) -> Iterator[Source]:
    """Those of one moulding."""
    section = moulding.section
    for k, found in enumerate(moulding.lengths):
        yield Source(
            f"m:{id}:{k}", moulding.name or id, found.mm, section.width_mm, section.thickness_mm, found.count, profile=section
        )


def after_cutting(library: Mouldings, used: dict[str, int], offcuts: dict[str, list[float]]) -> Mouldings:
    """The library when some lengths have been cut up: `used` of each source, and what is left over of each moulding and kept."""
    mouldings = dict(library.mouldings)
    for id, moulding in library.mouldings.items():
        left = [
            found.model_copy(update={"count": found.count - used.get(f"m:{id}:{k}", 0)})
            for k, found in enumerate(moulding.lengths)
        ]
        back = [Found(mm=mm) for mm in sorted(offcuts.get(id, []), reverse=True)]
        lengths = (*(found for found in left if found.count > 0), *back)[:MOST_LENGTHS]
        mouldings[id] = moulding.model_copy(update={"lengths": lengths})
    return library.model_copy(update={"mouldings": mouldings})


def edit_mouldings(library: Mouldings, act: Edit, on: Tape) -> dict[str, Any]:
    """The library after one act, as a document still to be validated. Choosing `mouldings.new` or `contents.new` adds one: a usual one, another one's id one like that, figures one with
    these; `mouldings.m1` nothing takes that one away; `mouldings.m1.lengths.new` adds a length, `mouldings.m1.turn` turns it a `quarter` or `over`. SpecError or UnitError names the
    field."""
    document = library.model_dump(mode="json")
    if isinstance(act, Give | Free):
        raise SpecError("no_such_field", (act.measure,))
    if isinstance(act, Drag):
        raise SpecError("no_such_grip", (act.grip,))
    table, *rest = act.path.split(".")
    if isinstance(act, Choose) and rest == ["new"]:
        return _with_new(library, document, table, act)
    if table not in ("mouldings", "contents") or not rest or rest[0] not in document[table]:
        raise SpecError("no_such_field", (act.path,))
    at = f"{table}.{rest[0]}"
    if isinstance(act, Choose) and rest[1:] == ["turn"]:
        return _turned(library, document, rest[0], act)
    if isinstance(act, Choose) and rest[1:] == ["lengths", "new"]:
        longest = max((found["mm"] for found in document[table][rest[0]].get("lengths", [])), default=NEW_LENGTH["mm"])
        return put_at(document, f"{at}.lengths", [*get_at(document, f"{at}.lengths"), {"mm": longest}])
    if isinstance(act, Choose) and act.value is None and rest[1:2] == ["lengths"] and len(rest) == 3:
        kept = [row for k, row in enumerate(get_at(document, f"{at}.lengths")) if str(k) != rest[2]]
        return put_at(document, f"{at}.lengths", kept)
    if isinstance(act, TypeIn) and rest[-1] in TEXTS:
        return put_at(document, act.path, act.text.strip())
    if isinstance(act, TypeIn) and rest[-1] == "weight_kg" and not act.text.strip():
        return put_at(document, act.path, None)
    return edit_field(document, act, on)


def _with_new(library: Mouldings, document: dict[str, Any], table: str, act: Choose) -> dict[str, Any]:
    """One more moulding, or one more thing to be framed."""
    if table not in ("mouldings", "contents"):
        raise SpecError("no_such_field", (act.path,))
    usual, most = (NEW_MOULDING, MOST_MOULDINGS) if table == "mouldings" else (NEW_CONTENT, MOST_CONTENTS)
    if len(document[table]) >= most:
        raise SpecError(f"too_many_{table}", (act.path,), most=most)
    like = act.value
    if isinstance(like, str) and like in document[table]:
        made = {name: value for name, value in document[table][like].items() if name not in ("lengths", "photo")}
    else:
        made = usual | (like if isinstance(like, dict) else {})
    number = library.next_number()
    return {**document, table: {**document[table], f"{table[0]}{number}": made}, "numbered": number}


def _turned(library: Mouldings, document: dict[str, Any], id: str, act: Choose) -> dict[str, Any]:
    """One of the mouldings, lying another way."""
    moulding = library.mouldings.get(id)
    if moulding is None or act.value not in TURNS:
        raise SpecError("no_such_field", (act.path,))
    section = turned(moulding.section, act.value)
    sizes = {"width_mm": section.width_mm, "thickness_mm": section.thickness_mm}
    ploughed = [cut.model_dump(mode="json") for cut in section.ploughed]
    return put_at(document, f"mouldings.{id}", {**document["mouldings"][id], **sizes, "ploughed": ploughed})
