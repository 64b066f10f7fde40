"""Fields that the kinds' specs share."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

LONGEST_MM = 100_000.0
Size_mm = Annotated[float, Field(gt=0, le=LONGEST_MM, allow_inf_nan=False, description="mm")]
Play_mm = Annotated[float, Field(ge=0, le=LONGEST_MM, allow_inf_nan=False, description="mm, 0 or more")]
Place_mm = Annotated[float, Field(ge=-LONGEST_MM, le=LONGEST_MM, allow_inf_nan=False)]
SideLetter = Annotated[str, Field(pattern="^[A-X]$", description="letter of a side")]
CornerLetters = Annotated[str, Field(pattern="^[A-X]{2}$", description="letters of the two sides that meet")]


class Strict(BaseModel):
    """Unknown keys are refused, so that a misspelt field never passes unnoticed."""

    model_config = ConfigDict(extra="forbid", frozen=True)


class CornerJoint(Strict):
    """How one corner is joined. `through`: the board that runs through a butt; the first of the two if unsaid."""

    joint: Literal["miter", "butt"]
    through: SideLetter | None = None
