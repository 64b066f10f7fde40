"""A miter saw: how far it goes, what its scales say, what its blade takes away."""

from math import floor
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from fennup.core.tolerances import NOTHING

Reach_deg = Annotated[float, Field(ge=0, lt=90, allow_inf_nan=False, description="degrees from square")]
Step_deg = Annotated[float, Field(gt=0, le=5, allow_inf_nan=False, description="degrees")]
CountsFrom = Literal["square", "fence"]
HALF_WAY = 1e-7  # of a step: what counts as half way between two


class MiterSaw(BaseModel):
    """Limits in degrees from square, whichever way the scales count; the smallest step that each scale can be read to."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    type: Literal["miter_saw"] = "miter_saw"
    name: Annotated[str, Field(min_length=1, max_length=80)] = "Bench miter saw"
    swing_left_deg: Reach_deg = 47.0
    swing_right_deg: Reach_deg = 52.0
    tilt_left_deg: Reach_deg = 45.0
    tilt_right_deg: Reach_deg = 0.0
    kerf_mm: Annotated[float, Field(gt=0, le=20, allow_inf_nan=False, description="mm")] = 2.4
    swing_counts_from: CountsFrom = "square"
    tilt_counts_from: CountsFrom = "square"
    swing_step_deg: Step_deg = 0.5
    tilt_step_deg: Step_deg = 0.5

    def swing_shown(self, deg: float) -> float:
        """What the swing scale reads at this angle from square, unrounded and unsigned."""
        return abs(deg) if self.swing_counts_from == "square" else 90.0 - abs(deg)

    def tilt_shown(self, deg: float) -> float:
        """What the tilt scale reads at this tilt from upright, unrounded and unsigned."""
        return abs(deg) if self.tilt_counts_from == "square" else 90.0 - abs(deg)

    def swing_as_set(self, deg: float) -> float:
        """The angle from square that results when the scale is set to its nearest readable step."""
        return _as_set(deg, self.swing_counts_from, self.swing_step_deg)

    def tilt_as_set(self, deg: float) -> float:
        """The tilt that results when the scale is set to its nearest readable step."""
        return _as_set(deg, self.tilt_counts_from, self.tilt_step_deg)

    def swing_limit(self, deg: float) -> float:
        """The stop on the side that a swing (+ right) goes to."""
        return self.swing_right_deg if deg > 0 else self.swing_left_deg

    def tilt_limit(self, deg: float) -> float:
        """The stop on the side that a tilt (+ left) goes to."""
        return self.tilt_left_deg if deg > 0 else self.tilt_right_deg

    def reaches(self, swing_deg: float, tilt_deg: float) -> bool:
        """Whether both movements stay within their stops."""
        within_swing = abs(swing_deg) <= self.swing_limit(swing_deg) + NOTHING
        return within_swing and abs(tilt_deg) <= self.tilt_limit(tilt_deg) + NOTHING


def _as_set(deg: float, counts_from: CountsFrom, step: float) -> float:
    """The angle whose reading is the nearest whole step; half way between two, the upper one, whatever the last digit is."""
    shown = abs(deg) if counts_from == "square" else 90.0 - abs(deg)
    read = floor(shown / step + 0.5 + HALF_WAY) * step
    size = read if counts_from == "square" else 90.0 - read
    return size if deg >= 0 else -size
