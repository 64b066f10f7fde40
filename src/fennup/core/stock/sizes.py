"""How large and how small what somebody types of a board may be."""

from typing import Annotated

from pydantic import Field

# No board is longer or thicker, and none is thinner than a shaving's tenth: beyond that figures round to nothing.
LONGEST_MM = 50_000.0
THICKEST_MM = 2_000.0
LEAST_MM = 0.01
Section_mm = Annotated[float, Field(ge=LEAST_MM, le=THICKEST_MM, allow_inf_nan=False, description="mm, of a board's section")]
Within_mm = Annotated[
    float, Field(ge=0, le=THICKEST_MM, allow_inf_nan=False, description="mm within a board's section, 0 or more")
]
