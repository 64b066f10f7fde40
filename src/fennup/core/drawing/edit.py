"""What a person can do to a spec from a drawing: the same few acts for every kind."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

Path = Annotated[str, Field(min_length=1, max_length=120, description="dotted path into the spec")]
Typed = Annotated[str, Field(max_length=200, description="as typed, with or without a unit")]
Steps = Annotated[int, Field(ge=-1000, le=1000, description="graduations of the tape, or steps of the field")]
Coordinate = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]
Measure = Annotated[str, Field(max_length=60, description="name of a measure")]


class Act(BaseModel):
    """One act; unknown keys are refused."""

    model_config = ConfigDict(extra="forbid", frozen=True)


class TypeIn(Act):
    """Put a typed figure into a field."""

    op: Literal["type"]
    path: Path
    text: Typed
    inches_meant: bool = False


class Choose(Act):
    """Put a value into a field; null empties an optional one."""

    op: Literal["choose"]
    path: Path
    value: Any = None


class Nudge(Act):
    """Move a field by so many graduations."""

    op: Literal["nudge"]
    path: Path
    steps: Steps


class Give(Act):
    """Make a measure the given one: at what it now is, at a typed figure, or so many graduations off."""

    op: Literal["give"]
    measure: Measure
    text: Typed | None = None
    steps: Steps | None = None
    inches_meant: bool = False


class Free(Act):
    """Let a pinned measure follow from the others again."""

    op: Literal["free"]
    measure: Measure


class Drag(Act):
    """A grip let go at a place on the drawing."""

    op: Literal["drag"]
    grip: Annotated[str, Field(max_length=120)]
    x_mm: Coordinate
    y_mm: Coordinate


Edit = Annotated[TypeIn | Choose | Nudge | Give | Free | Drag, Field(discriminator="op")]


class Touched(Act):
    """A board's side, and where on a view it was touched; without a place, the middle of the side."""

    board: Annotated[str, Field(max_length=80)]
    side: Literal["face", "back", "upper", "lower"]
    view: Annotated[str, Field(max_length=20)] = ""
    x_mm: Coordinate | None = None
    y_mm: Coordinate | None = None


class Fit(Act):
    """A new piece between two faces."""

    op: Literal["fit"]
    a: Touched
    b: Touched


class Rescale(Act):
    """The whole at another size: one length anew, those in `keep` as they are, all others in proportion or as they follow.

    `levels`: what stands at a height (rails, rings, shelves, treads) goes up and down in proportion, as many as now, or
    keeps its steps, as many as then fit. `rest`: sections, spacings, overhangs and all else that is not among the sizes.
    """

    op: Literal["rescale"]
    measure: Measure
    text: Typed
    inches_meant: bool = False
    keep: Annotated[list[Measure], Field(max_length=60)] = []
    levels: Literal["in_proportion", "same_steps"] = "in_proportion"
    rest: Literal["as_it_is", "in_proportion"] = "as_it_is"


ProjectAct = Annotated[TypeIn | Choose | Nudge | Give | Free | Drag | Fit | Rescale, Field(discriminator="op")]
