"""What somebody wishes at the saws: a document of the project's own, changed and undone where the steps are seen."""

from typing import Annotated, Any, Literal

from pydantic import Field

from fennup.core.drawing.edit import Choose, Drag, Edit, Free, Give
from fennup.core.editing import edit_field
from fennup.core.errors import SpecError
from fennup.core.saw.tool import Strict
from fennup.core.units.lengths import Tape

Key = Annotated[str, Field(max_length=160)]
ToolKey = Annotated[str, Field(max_length=10)]
WayId = Annotated[str, Field(max_length=60)]
School = Literal["by_setting", "by_part", "first_as_pattern"]
Lengths = Literal["stop", "mark", "copy"]
MOST_CHOSEN = 600


class SawWishes(Strict):
    """How the work is ordered, and how lengths are found: by a stop block, by marking each, by copying the first. `away`: tools that are not
    here today. `ways`: how a cut is made, by the cut's key, where Fennup is not to pick. `scribed`: parts that are cut to the opening, after
    the dry fit. `order`: steps by key in the order in which they were dragged; those that are not in it stay where the school has them."""

    school: School = "by_setting"
    lengths: Lengths = "stop"
    away: Annotated[tuple[ToolKey, ...], Field(max_length=40)] = ()
    ways: Annotated[dict[Key, WayId], Field(max_length=MOST_CHOSEN)] = {}
    scribed: Annotated[tuple[Key, ...], Field(max_length=200)] = ()
    order: Annotated[tuple[Key, ...], Field(max_length=MOST_CHOSEN)] = ()


LISTS = ("away", "scribed")


def edit_saw_wishes(wishes: SawWishes, act: Edit, on: Tape) -> dict[str, Any]:
    """The wishes after one act, as a document still to be validated. Choosing `ways/KEY` fixes how a cut is made, null lets Fennup pick again;
    `away/ID` and `scribed/KEY` true or false put one into that list or take it out; `order` puts the steps in an order. SpecError names the field."""
    document = wishes.model_dump(mode="json")
    if isinstance(act, Give | Free | Drag):
        raise SpecError("no_such_field", (act.measure if not isinstance(act, Drag) else act.grip,))
    place, _, key = act.path.partition("/")
    if key and isinstance(act, Choose) and place in LISTS:
        rest = [entry for entry in document[place] if entry != key]
        return {**document, place: [*rest, key] if act.value else rest}
    if key and isinstance(act, Choose) and place == "ways":
        others = {k: v for k, v in document["ways"].items() if k != key}
        return {**document, "ways": others if act.value is None else {**others, key: act.value}}
    return edit_field(document, act, on)
