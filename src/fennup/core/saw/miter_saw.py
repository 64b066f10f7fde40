"""A miter saw: its stops, its detents, and the greatest board that it takes."""

from math import inf
from typing import Annotated, Literal

from pydantic import Field, model_validator

from fennup.core.saw.tool import AT_45, Lying, Miss, Room_mm, ScaleTool, between, check_stops, room_misses

Detent = Annotated[float, Field(gt=-90, lt=90, allow_inf_nan=False)]
MOST_DETENTS = 21


class MiterSaw(ScaleTool):
    """`wide_mm` and `high_mm`: the greatest board that it cuts square and upright; at 45 of swing the width, at 45 of tilt the height,
    shrink to the others. A size that has not been said limits nothing. `detents_deg`: where the swing clicks in, + to the right."""

    type: Literal["miter_saw"] = "miter_saw"
    name: Annotated[str, Field(min_length=1, max_length=80)] = "Bench miter saw"
    wide_mm: Room_mm | None = None
    wide_swung_mm: Room_mm | None = None
    high_mm: Room_mm | None = None
    high_tilted_mm: Room_mm | None = None
    fence_mm: Room_mm | None = None
    detents_deg: Annotated[tuple[Detent, ...], Field(max_length=MOST_DETENTS)] = ()

    @model_validator(mode="after")
    def _within(self) -> "MiterSaw":
        """SpecError `outside_stops` where a detent lies beyond the stops."""
        check_stops(self.detents_deg, -self.swing_left_deg, self.swing_right_deg, "detents_deg")
        return self

    def room_misses(self, swing_deg: float, tilt_deg: float, lying: Lying) -> list[Miss]:
        """By swing the width, by tilt the height."""
        wide, high = self.wide_mm or inf, self.high_mm or inf
        wide = between(wide, self.wide_swung_mm or wide * AT_45, swing_deg) if self.wide_mm else self.wide_swung_mm or inf
        high = between(high, self.high_tilted_mm or high * AT_45, tilt_deg) if self.high_mm else self.high_tilted_mm or inf
        return room_misses(wide, high, lying)

    def simple_settings(self) -> tuple[float, ...]:
        """The detents; without any as of every saw."""
        return self.detents_deg or super().simple_settings()
