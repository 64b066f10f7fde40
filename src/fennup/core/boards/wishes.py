"""What somebody wishes of a plan: a document of the project's own, changed and undone where the plan is seen."""

from typing import Annotated, Any, Literal

from pydantic import Field

from fennup.core.boards.rack import Along, Strict, Text
from fennup.core.boards.stock import Milling
from fennup.core.boards.task import Goal
from fennup.core.drawing.edit import Choose, Drag, Edit, Free, Give, TypeIn
from fennup.core.editing import edit_field, put_at
from fennup.core.errors import SpecError
from fennup.core.units.lengths import Tape

Key = Annotated[str, Field(max_length=120)]
BoardId = Annotated[str, Field(max_length=60)]
Treated = Literal["any", "treated", "untreated"]
SpareRule = Literal["none", "by_risk", "own"]


class Wishes(Strict):
    """The goal; whether the yard's boards may be used, of which wood; what may be done to a board; spares.

    `pins`: pieces by key that must come out of a board, `r3` or `y:CODE`. `locked`: what lies in those boards of the rack stays as it is
    there, by piece. `forbidden`: boards that stay out. `sold_out`: what the yard did not have. `square_first`: two neighbours may be
    parted by a square cut before each gets its own. `trim_mm`: what comes off each end of a bought board, its kerf in it.
    `beside`: other projects that are cut from the same rack at once.
    """

    goal: Goal = "rack_first"
    use_rack: bool = True
    use_yard: bool = True
    wood: Text = ""
    treated: Treated = "any"
    may_rip: bool = True
    may_resaw: bool = False
    may_plane: bool = False
    may_glue: bool = False
    square_first: bool = False
    trim_mm: Along = 0.0
    edge_mm: Annotated[float, Field(ge=0, le=20, allow_inf_nan=False)] = 0.0
    face_mm: Annotated[float, Field(ge=0, le=20, allow_inf_nan=False)] = 1.5
    most_planed_mm: Annotated[float, Field(ge=0, le=50, allow_inf_nan=False)] = 3.0
    glue_over_mm: Annotated[float, Field(ge=0, le=500, allow_inf_nan=False)] = 20.0
    spares: SpareRule = "none"
    spare_percent: Annotated[int, Field(ge=0, le=100)] = 10
    pins: Annotated[dict[Key, BoardId], Field(max_length=200)] = {}
    locked: Annotated[dict[BoardId, list[Key]], Field(max_length=100)] = {}
    forbidden: Annotated[list[BoardId], Field(max_length=200)] = []
    sold_out: Annotated[list[BoardId], Field(max_length=200)] = []
    beside: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=11)] = []

    def milling(self, kerf_mm: float) -> Milling:
        """What may be done to a board with a saw of that kerf."""
        return Milling(kerf_mm, self.may_rip, self.may_resaw, self.may_plane, self.edge_mm, self.face_mm, self.most_planed_mm)


LISTS = ("forbidden", "sold_out", "beside")


def edit_wishes(wishes: Wishes, act: Edit, on: Tape) -> dict[str, Any]:
    """The wishes after one act, as a document still to be validated. Choosing `pins.KEY` puts a piece into a board, null lets it go;
    `forbidden.ID`, `sold_out.ID`, `beside.ID` true or false puts one into that list or takes it out; `locked.ID` holds a board's pieces.
    SpecError or UnitError names the field."""
    document = wishes.model_dump(mode="json")
    if isinstance(act, Give | Free | Drag):
        raise SpecError("no_such_field", (act.measure if not isinstance(act, Drag) else act.grip,))
    place, _, key = act.path.partition(".")
    if key and isinstance(act, Choose) and place in LISTS:
        rest = [entry for entry in document[place] if entry != key]
        return {**document, place: [*rest, key] if act.value else rest}
    if key and isinstance(act, Choose) and place in ("pins", "locked"):
        others = {k: v for k, v in document[place].items() if k != key}
        return {**document, place: others if act.value is None else {**others, key: act.value}}
    if isinstance(act, TypeIn) and act.path == "wood":
        return put_at(document, "wood", act.text.strip())
    return edit_field(document, act, on)
