"""Fields that the kinds' specs share."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from fennup.core.assembly.model import Claim
from fennup.core.drawing.view import Standing
from fennup.core.errors import SpecError
from fennup.core.parts.gauge import is_angle
from fennup.core.stock.sizes import LEAST_MM as LEAST_MM
from fennup.core.stock.sizes import LONGEST_MM as LONGEST_MM
from fennup.core.stock.sizes import THICKEST_MM as THICKEST_MM
from fennup.core.stock.sizes import Section_mm as Section_mm

Size_mm = Annotated[float, Field(ge=LEAST_MM, le=LONGEST_MM, allow_inf_nan=False, description="mm")]
Along_mm = Annotated[float, Field(ge=0, le=10 * LONGEST_MM, allow_inf_nan=False, description="mm along a board")]
Play_mm = Annotated[float, Field(ge=0, le=LONGEST_MM, allow_inf_nan=False, description="mm, 0 or more")]
Place_mm = Annotated[float, Field(ge=-LONGEST_MM, le=LONGEST_MM, allow_inf_nan=False)]
Measure = Annotated[str, Field(max_length=60, description="name of a measure")]
SideLetter = Annotated[str, Field(pattern="^[A-X]$", description="letter of a side")]
CornerLetters = Annotated[str, Field(pattern="^[A-X]{2}$", description="letters of the two sides that meet")]


class Strict(BaseModel):
    """Unknown keys are refused, so that a misspelt field never passes unnoticed."""

    model_config = ConfigDict(extra="forbid", frozen=True)


class CornerJoint(Strict):
    """How one corner is joined. `through`: the board that runs through a butt; the first of the two if unsaid."""

    joint: Literal["miter", "butt"]
    through: SideLetter | None = None


class LengthPin(Strict):
    """A length that was given, or suggested: then it gives way to what somebody gives."""

    suggested: bool = False
    measure: Measure
    mm: Annotated[float, Field(ge=-LONGEST_MM, le=LONGEST_MM, allow_inf_nan=False)]

    @property
    def value(self) -> float:
        """The figure, whatever its unit."""
        return self.mm


class AnglePin(Strict):
    """An angle that was given, or suggested: then it gives way to what somebody gives."""

    suggested: bool = False
    measure: Measure
    deg: Annotated[float, Field(gt=-180, lt=180, allow_inf_nan=False)]

    @property
    def value(self) -> float:
        """The figure, whatever its unit."""
        return self.deg


Given = LengthPin | AnglePin


def pin(measure: str, value: float) -> Given:
    """A measure given as a figure in its own unit. SpecError `measure_impossible` where nothing can be as large."""
    try:
        return AnglePin(measure=measure, deg=value) if is_angle(measure) else LengthPin(measure=measure, mm=value)
    except ValidationError:
        raise SpecError("measure_impossible", (measure,), measure=measure, value=value) from None


class Pinned(Strict):
    """A spec whose sizes can be given in more than one way: `pins` are what was given, the spec's own sizes what they make
    of it. Without pins every size of the spec is a suggestion: nobody has given one yet."""

    pins: Annotated[list[Given], Field(max_length=60)] | None = None

    def usual_pins(self) -> tuple[Given, ...]:
        """The spec's own sizes as pins."""
        raise NotImplementedError

    def given_pins(self) -> tuple[Given, ...]:
        """What was given or is suggested; without pins, everything as it stands is suggested."""
        if self.pins is not None:
            return tuple(self.pins)
        return tuple(pin.model_copy(update={"suggested": True}) for pin in self.usual_pins())

    def standings(self) -> dict[str, Standing]:
        """How the sizes stand that do not follow from others."""
        return {pin.measure: "suggested" if pin.suggested else "given" for pin in self.given_pins()}

    def claims(self) -> tuple[Claim, ...]:
        """What was given, to be measured on the finished solids."""
        return tuple(
            Claim(pin.measure, pin.value, f"pins.{i}.{_unit(pin)}", _unit(pin)) for i, pin in enumerate(self.given_pins())
        )

    def field_of(self, measure: str, own: str) -> str:
        """Where a measure was given, or else the spec's own field."""
        found = (f"pins.{i}.{_unit(pin)}" for i, pin in enumerate(self.pins or ()) if pin.measure == measure)
        return next(found, own)


def _unit(pin: Given) -> Literal["mm", "deg"]:
    return "deg" if isinstance(pin, AnglePin) else "mm"
