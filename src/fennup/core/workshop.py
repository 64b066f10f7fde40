"""The workshop: its tools, its tape, and how exactly one works there."""

from dataclasses import replace
from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field, model_validator

from fennup.core.drawing.edit import Choose, Drag, Edit, Free, Give, Nudge, TypeIn
from fennup.core.drawing.view import Control, View
from fennup.core.editing import edit_field, put_at
from fennup.core.errors import SpecError, UnitError
from fennup.core.saw.hand import Hand
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.saw.profile import edit_tool, tool_profile_controls, tool_profile_views
from fennup.core.saw.tools import PROFILES, AnyTool
from fennup.core.saw.wishes import SawWishes
from fennup.core.units.lengths import Tape, Unit, tape

ToolId = Annotated[str, Field(pattern=r"^t[1-9][0-9]{0,3}$", description="which tool; it never changes")]
Tool = Annotated[AnyTool, Field(discriminator="type")]
MOST_TOOLS = 20
Allowance_mm = Annotated[
    float, Field(gt=0, le=50, allow_inf_nan=False, description="mm, the widest gap or step that is let pass")
]


class TapeChoice(BaseModel):
    """A tape: its unit and its smallest graduation."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    unit: Unit = "mm"
    graduation: Annotated[str, Field(max_length=10)] = "1"

    @model_validator(mode="after")
    def _exists(self) -> "TapeChoice":
        """UnitError `no_tape` where no tape is graduated so."""
        try:
            self.tape()
        except UnitError as error:
            raise UnitError(error.code, ("tape.graduation",)) from None
        return self

    def tape(self) -> Tape:
        """The tape itself. UnitError `no_tape`."""
        return tape(self.unit, self.graduation)


class Workshop(BaseModel):
    """Tools by id, the first one taken first; the tape that lengths are cut to (None: they are taken as exact), and the widest gap or step
    that is let pass. `hand`: how exactly one works here. `wishes`: what one project wishes at the saws, while it is made here."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    tools: Annotated[dict[ToolId, Tool], Field(min_length=1, max_length=MOST_TOOLS)] = {"t1": MiterSaw()}
    tape: TapeChoice | None = None
    allowance_mm: Allowance_mm = 0.5
    hand: Hand = Hand()
    wishes: SawWishes = SawWishes()

    @property
    def tools_here(self) -> dict[str, AnyTool]:
        """The tools that are there today; all of them where none would be left."""
        return {id: tool for id, tool in self.tools.items() if id not in self.wishes.away} or dict(self.tools)

    @property
    def kerf_mm(self) -> float:
        """What the saw takes that boards are cut up with: the first one that cuts across."""
        return next((t.kerf_mm for t in self.tools_here.values() if t.picked), next(iter(self.tools.values())).kerf_mm)

    @property
    def graduation_mm(self) -> float | None:
        """What lengths are cut to, mm; None where they are taken as exact."""
        return self.tape.tape().graduation_mm if self.tape else None


def with_saw(saw: MiterSaw) -> Workshop:
    """A workshop that has one saw and nothing else to say."""
    return Workshop(tools={"t1": saw})


def edit_workshop(workshop: Workshop, act: Edit, on: Tape) -> dict[str, Any]:
    """The workshop after one act, as a document still to be validated. An act on a tool is called by the tool's id,
    `tools.t1.kerf_mm`, a grip `t1/swing_left_deg`. SpecError or UnitError names the field."""
    document = workshop.model_dump(mode="json")
    if isinstance(act, Give | Free):
        raise SpecError("no_such_field", (act.measure,))
    if isinstance(act, Drag):
        id, _, grip = act.grip.partition("/")
        return _changed(workshop, document, id, act.model_copy(update={"grip": grip}), on, act.grip)
    place, _, rest = act.path.partition(".")
    id, _, own = rest.partition(".")
    if place == "tools" and own:
        return _changed(workshop, document, id, act.model_copy(update={"path": own}), on, act.path)
    if place == "tools" and isinstance(act, Choose):
        return _other_tools(document, id, act)
    return edit_field(document, act, on)


def _other_tools(document: dict[str, Any], id: str, act: Choose) -> dict[str, Any]:
    """`tools.add` with a profile's code gives the workshop one more; `tools.first` with an id takes that one first; an id with null takes
    it away. SpecError."""
    tools = document["tools"]
    if id == "add":
        if act.value not in PROFILES:
            raise SpecError("no_such_field", (act.path,))
        new = f"t{1 + max(int(name[1:]) for name in tools)}"
        return {**document, "tools": {**tools, new: PROFILES[act.value].model_dump(mode="json")}}
    named = act.value if id == "first" else id
    if named not in tools or (id != "first" and act.value is not None):
        raise SpecError("no_such_field", (act.path,))
    rest = {name: tool for name, tool in tools.items() if name != named}
    if id == "first":
        return {**document, "tools": {named: tools[named], **rest}}
    if not rest:
        raise SpecError("last_tool", (act.path,))
    return {**document, "tools": rest}


def _changed(workshop: Workshop, document: dict[str, Any], id: str, act: Edit, on: Tape, said: str) -> dict[str, Any]:
    """One tool changed, its refusals named within the workshop."""
    if id not in workshop.tools:
        raise SpecError("no_such_field", (said,))
    try:
        made = edit_tool(workshop.tools[id], act, on)
    except (SpecError, UnitError) as error:
        raise type(error)(error.code, tuple(f"tools.{id}.{field}" for field in error.fields), **error.data) from None
    return put_at(document, f"tools.{id}", made)


def tool_views(workshop: Workshop, id: str) -> tuple[View, ...]:
    """A tool drawn, to be edited on its drawing."""
    return tuple(
        replace(
            view,
            dimensions=tuple(replace(d, acts=_act_within(d.acts, id) if d.acts else None) for d in view.dimensions),
            grips=tuple(replace(grip, id=f"{id}/{grip.id}") for grip in view.grips),
        )
        for view in tool_profile_views(workshop.tools[id])
    )


def tool_controls(workshop: Workshop, id: str) -> tuple[Control, ...]:
    """What else there is to say about a tool."""
    return tuple(
        replace(
            control,
            options=tuple(replace(o, acts=tuple(_act_within(act, id) for act in o.acts)) for o in control.options),
            acts=_act_within(control.acts, id) if control.acts else None,
        )
        for control in tool_profile_controls(workshop.tools[id])
    )


def _act_within(act: Edit, id: str) -> Edit:
    """An act on a tool as an act on the workshop."""
    return act.model_copy(update={"path": f"tools.{id}.{act.path}"}) if isinstance(act, TypeIn | Choose | Nudge) else act
