"""How exactly somebody works: by how much lengths, angles and the wood's thickness come out otherwise than planned, by the way of working."""

from typing import Annotated, Literal

from pydantic import Field

from fennup.core.saw.tool import Strict

WayOfWorking = Literal["marked", "stop", "shooting"]
Sigma_mm = Annotated[float, Field(gt=0, le=20, allow_inf_nan=False)]
Sigma_deg = Annotated[float, Field(gt=0, le=10, allow_inf_nan=False)]


class Hand(Strict):
    """The way of working, and what somebody knows better of the own hand: one standard deviation each, mm or degrees per cut. Unsaid, the usual figures of that
    way; once enough was measured at the bench, what was measured."""

    way: WayOfWorking = "stop"
    length_mm: Sigma_mm | None = None
    angle_deg: Sigma_deg | None = None
    thick_mm: Sigma_mm | None = None


# One standard deviation that is usual for a way of working: of a length, of an angle, of the wood's thickness; mm and degrees.
USUAL: dict[WayOfWorking, tuple[float, float, float]] = {
    "marked": (0.5, 0.35, 0.2),
    "stop": (0.2, 0.12, 0.15),
    "shooting": (0.1, 0.05, 0.1),
}
