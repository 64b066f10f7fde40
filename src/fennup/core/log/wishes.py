"""What is said of a project's cost, where it is sold, and how many of it are made: a document of the project's own."""

from typing import Annotated, Any

from pydantic import Field

from fennup.core.drawing.edit import Drag, Edit, Free, Give
from fennup.core.editing import edit_within
from fennup.core.errors import SpecError
from fennup.core.saw.tool import Strict
from fennup.core.units.lengths import Tape

Money = Annotated[float, Field(ge=0, le=1_000_000, allow_inf_nan=False)]


class LogWishes(Strict):
    """`other_money`: whatever else it costs; `bought_money`: what a bought one costs; `sale_money`: what it is sold for; `rate_money`: what an hour is to earn; `say_price`: whether the
    sheet for a client says what it costs; `for_whom`, `care`: what stands on that sheet; `source`: whose plan it was made after."""

    other_money: Money = 0.0
    bought_money: Money | None = None
    sale_money: Money | None = None
    rate_money: Money | None = None
    say_price: bool = False
    for_whom: Annotated[str, Field(max_length=80)] = ""
    care: Annotated[str, Field(max_length=600)] = ""
    source: Annotated[str, Field(max_length=200)] = ""


def edit_log_wishes(wishes: LogWishes, act: Edit, on: Tape) -> dict[str, Any]:
    """The wishes after one act, as a document still to be validated. Choosing null empties a field. SpecError or UnitError names the field."""
    if isinstance(act, Give | Free | Drag):
        raise SpecError("no_such_field", (act.measure if not isinstance(act, Drag) else act.grip,))
    document = wishes.model_dump(mode="json")
    if act.op == "type" and act.path in ("for_whom", "care", "source"):
        return {**document, act.path: act.text.strip()}
    return edit_within(document, act.path.split("/"), act, on)
