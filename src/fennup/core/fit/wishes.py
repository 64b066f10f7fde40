"""What somebody wants to know at the dry fit, and how the work is done there: a document of the project's own, changed and undone in that place."""

from typing import Annotated, Any, Literal

from pydantic import Field

from fennup.core.drawing.edit import Choose, Drag, Edit, Free, Give
from fennup.core.editing import edit_field
from fennup.core.errors import SpecError
from fennup.core.fit.passage import OPENINGS, PassageWishes
from fennup.core.fit.ways import Finish
from fennup.core.saw.tool import Strict
from fennup.core.units.lengths import Tape

Key = Annotated[str, Field(max_length=600)]
Exaggeration = Literal[1, 5, 20, 50, 100]
EXAGGERATIONS: tuple[Exaggeration, ...] = (1, 5, 20, 50, 100)
Minutes = Annotated[float, Field(gt=0, le=600, allow_inf_nan=False)]


class FitWishes(Strict):
    """`wished_mm`: the gap that the forecast is asked for, else what the project lets pass; `blunt_deg`: by how much every cut may be nearer to square than it is set, to see
    what that does; `times`: how often larger gaps are drawn. `finish`, `outdoors`: what a gap may be filled under. `order`: steps of putting it together in another order;
    `open_min`: how long the glue stays open, `joint_min`: how long a joint takes. `at_mm`: the height at which the width of the
    whole is to be read besides. `passage`: what it must go through."""

    wished_mm: Annotated[float, Field(gt=0, le=50, allow_inf_nan=False)] | None = None
    blunt_deg: Annotated[float, Field(ge=-5, le=5, allow_inf_nan=False)] = 0.0
    times: Exaggeration = 20
    finish: Finish = "paint"
    outdoors: bool = False
    order: Annotated[tuple[Key, ...], Field(max_length=400)] = ()
    open_min: Minutes = 10.0
    joint_min: Minutes = 1.5
    at_mm: Annotated[float, Field(gt=0, le=20_000, allow_inf_nan=False)] | None = None
    passage: PassageWishes = PassageWishes()


def edit_fit_wishes(wishes: FitWishes, act: Edit, on: Tape) -> dict[str, Any]:
    """The wishes after one act, as a document still to be validated. Choosing `passage.door` true or false says that there is one, or none. SpecError or UnitError names the
    field."""
    document = wishes.model_dump(mode="json")
    if isinstance(act, Give | Free | Drag):
        raise SpecError("no_such_field", (act.measure if not isinstance(act, Drag) else act.grip,))
    place, _, which = act.path.partition(".")
    if isinstance(act, Choose) and place == "passage" and which in OPENINGS:
        return {**document, "passage": {**document["passage"], which: {} if act.value else None}}
    if place == "passage" and "." in which and document["passage"].get(which.partition(".")[0]) is None:
        raise SpecError("no_such_field", (act.path,))
    return edit_field(document, act, on)
