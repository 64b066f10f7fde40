"""All other tools that a workshop may have, and ready-made profiles of each: generic ones, to be set to what stands there."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field, model_validator

from fennup.core.errors import SpecError
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.saw.tool import (
    FencePlace,
    Kerf_mm,
    Lying,
    Miss,
    Reach_deg,
    Room_mm,
    ScaleTool,
    Stance,
    Strict,
    Tool,
    between,
    room_misses,
)
from fennup.core.tolerances import SAME

Name = Annotated[str, Field(min_length=1, max_length=80)]
MOST_SLOTS = 12


class TableSaw(ScaleTool):
    """A table saw whose blade tilts, with a miter gauge or a sled. The gauge swings, its fence between board and operator; `wide_mm` of
    board lie before the blade on it, `rip_mm` between blade and rip fence; the blade comes `high_mm` out of the table."""

    fence_place: ClassVar[FencePlace] = "near"
    stances: ClassVar[tuple[Stance, ...]] = ("flat", "on_edge")
    rips: ClassVar[bool] = True

    type: Literal["table_saw"] = "table_saw"
    name: Name = "Table saw"
    swing_left_deg: Reach_deg = 60.0
    swing_right_deg: Reach_deg = 60.0
    wide_mm: Room_mm = 300.0
    rip_mm: Room_mm = 610.0
    high_mm: Room_mm = 79.0
    high_tilted_mm: Room_mm = 54.0

    def room_misses(self, swing_deg: float, tilt_deg: float, lying: Lying) -> list[Miss]:
        """The blade's height by tilt, the gauge's run."""
        return room_misses(self.wide_mm, between(self.high_mm, self.high_tilted_mm, tilt_deg), lying)


class BandSaw(ScaleTool):
    """A band saw whose table tilts, with a gauge; boards up to `high_mm`, and `throat_mm` beside the blade."""

    fence_place: ClassVar[FencePlace] = "near"
    stances: ClassVar[tuple[Stance, ...]] = ("flat", "on_edge")
    rips: ClassVar[bool] = True

    type: Literal["band_saw"] = "band_saw"
    name: Name = "Band saw"
    kerf_mm: Kerf_mm = 1.0
    swing_left_deg: Reach_deg = 60.0
    swing_right_deg: Reach_deg = 60.0
    throat_mm: Room_mm = 300.0
    high_mm: Room_mm = 150.0

    def room_misses(self, swing_deg: float, tilt_deg: float, lying: Lying) -> list[Miss]:
        """Under the guide, and before the column."""
        return room_misses(self.throat_mm, self.high_mm, lying)


class CircularSaw(ScaleTool):
    """A hand-held circular saw along a guide that is clamped to the board's upper side. The guide can lie at any angle; the saw tilts
    one way and is led from either edge."""

    fence_place: ClassVar[FencePlace] = "none"
    stances: ClassVar[tuple[Stance, ...]] = ("flat",)
    rips: ClassVar[bool] = True

    type: Literal["circular_saw"] = "circular_saw"
    name: Name = "Circular saw with a guide"
    swing_left_deg: Reach_deg = 75.0
    swing_right_deg: Reach_deg = 75.0
    tilt_left_deg: Reach_deg = 45.0
    tilt_right_deg: Reach_deg = 0.0
    deep_mm: Room_mm = 65.0
    deep_tilted_mm: Room_mm = 45.0

    def room_misses(self, swing_deg: float, tilt_deg: float, lying: Lying) -> list[Miss]:
        """How deep it goes, by tilt."""
        deep = between(self.deep_mm, self.deep_tilted_mm, tilt_deg)
        return [Miss("too_high", lying.high_mm, deep)] if lying.high_mm > deep + SAME else []


class Slot(Strict):
    """A slot of a miter box, or an angle of a shooting board."""

    swing_deg: Annotated[float, Field(gt=-90, lt=90, allow_inf_nan=False)] = 0.0
    tilt_deg: Annotated[float, Field(gt=-90, lt=90, allow_inf_nan=False)] = 0.0


class SlotTool(Tool):
    """A tool that does a few angles and no others."""

    powered: ClassVar[bool] = False
    has_scale: ClassVar[bool] = False
    slots: Annotated[tuple[Slot, ...], Field(min_length=1, max_length=MOST_SLOTS)]

    @model_validator(mode="after")
    def _square_too(self) -> "SlotTool":
        """SpecError `no_square_slot`: without one nothing can be cut off."""
        if not any(slot.swing_deg == 0 and slot.tilt_deg == 0 for slot in self.slots):
            raise SpecError("no_square_slot", ("slots",))
        return self

    def angle_misses(self, swing_deg: float, tilt_deg: float) -> list[Miss]:
        """The nearest slot, where none is at the angles."""
        off = min(max(abs(s.swing_deg - swing_deg), abs(s.tilt_deg - tilt_deg)) for s in self.slots)
        return [Miss("no_slot", off, 0.0)] if off > SAME else []

    def simple_settings(self) -> tuple[float, ...]:
        """The upright slots."""
        return tuple(sorted(slot.swing_deg for slot in self.slots if slot.tilt_deg == 0))


class MiterBox(SlotTool):
    """A miter box: a hand saw led by slots."""

    stances: ClassVar[tuple[Stance, ...]] = ("flat", "on_edge")

    type: Literal["miter_box"] = "miter_box"
    name: Name = "Hand saw and miter box"
    kerf_mm: Kerf_mm = 1.2
    slots: Annotated[tuple[Slot, ...], Field(min_length=1, max_length=MOST_SLOTS)] = (
        Slot(), Slot(swing_deg=45.0), Slot(swing_deg=-45.0),
    )  # fmt: skip
    wide_mm: Room_mm = 90.0
    high_mm: Room_mm = 50.0

    def room_misses(self, swing_deg: float, tilt_deg: float, lying: Lying) -> list[Miss]:
        """Between its cheeks."""
        return room_misses(self.wide_mm, self.high_mm, lying)


class HandSaw(Tool):
    """A hand saw to marked lines: any angle, as well as one marks it and follows the line. `steepest_deg`: how far out of square it
    still starts."""

    fence_place: ClassVar[FencePlace] = "none"
    stances: ClassVar[tuple[Stance, ...]] = ("flat",)
    powered: ClassVar[bool] = False
    has_scale: ClassVar[bool] = False
    rips: ClassVar[bool] = True

    type: Literal["hand_saw"] = "hand_saw"
    name: Name = "Hand saw to marked lines"
    kerf_mm: Kerf_mm = 1.2
    steepest_deg: Annotated[float, Field(ge=10, lt=90, allow_inf_nan=False)] = 75.0

    def angle_misses(self, swing_deg: float, tilt_deg: float) -> list[Miss]:
        """Too steep to start."""
        worst = max(abs(swing_deg), abs(tilt_deg))
        return [Miss("too_steep", worst, self.steepest_deg)] if worst > self.steepest_deg + SAME else []


class ShootingBoard(SlotTool):
    """A plane on a shooting board, for the last hair: it is never picked for a cut, and takes at most `shaves_mm`."""

    stances: ClassVar[tuple[Stance, ...]] = ("flat",)
    picked: ClassVar[bool] = False

    type: Literal["shooting_board"] = "shooting_board"
    name: Name = "Plane and shooting board"
    slots: Annotated[tuple[Slot, ...], Field(min_length=1, max_length=MOST_SLOTS)] = (
        Slot(), Slot(swing_deg=45.0), Slot(swing_deg=-45.0),
    )  # fmt: skip
    shaves_mm: Annotated[float, Field(gt=0, le=5, allow_inf_nan=False)] = 0.5
    high_mm: Room_mm = 40.0

    def room_misses(self, swing_deg: float, tilt_deg: float, lying: Lying) -> list[Miss]:
        """As high as the plane's iron is wide."""
        return [Miss("too_high", lying.high_mm, self.high_mm)] if lying.high_mm > self.high_mm + SAME else []


AnyTool = MiterSaw | TableSaw | CircularSaw | MiterBox | HandSaw | BandSaw | ShootingBoard
# What a workshop can be given, ready made: to be set to what really stands there.
PROFILES: dict[str, AnyTool] = {
    "sliding_one_way": MiterSaw(
        name="Sliding miter saw", wide_mm=305.0, wide_swung_mm=215.0, high_mm=90.0, high_tilted_mm=45.0, fence_mm=80.0,
        detents_deg=(-45.0, -30.0, -22.5, -15.0, 0.0, 15.0, 22.5, 30.0, 45.0),
    ),
    "fixed_one_way": MiterSaw(
        name="Small miter saw", swing_left_deg=45.0, swing_right_deg=45.0, wide_mm=120.0, wide_swung_mm=80.0,
        high_mm=60.0, high_tilted_mm=35.0, fence_mm=50.0, swing_step_deg=1.0, tilt_step_deg=1.0, detents_deg=(-45.0, -22.5, 0.0, 22.5, 45.0),
    ),
    "sliding_both_ways": MiterSaw(
        name="Miter saw tilting both ways", swing_left_deg=50.0, swing_right_deg=60.0, tilt_left_deg=48.0, tilt_right_deg=48.0,
        wide_mm=310.0, wide_swung_mm=220.0, fence_mm=90.0, high_mm=110.0, high_tilted_mm=60.0, detents_deg=(-45.0, -30.0, -22.5, -15.0, 0.0, 15.0, 22.5, 30.0, 45.0, 60.0),
    ),
    "table_gauge": TableSaw(swing_step_deg=1.0, tilt_step_deg=1.0),
    "table_sled": TableSaw(name="Table saw with a sled", swing_left_deg=0.0, swing_right_deg=0.0),
    "circular_saw": CircularSaw(swing_step_deg=0.5, tilt_step_deg=1.0),
    "miter_box": MiterBox(),
    "hand_saw": HandSaw(),
    "band_saw": BandSaw(tilt_right_deg=5.0, swing_step_deg=1.0, tilt_step_deg=1.0),
    "shooting_board": ShootingBoard(),
}  # fmt: skip
