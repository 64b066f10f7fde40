"""What a person says about strips that lie on the rails of a flat frame."""

from typing import Annotated, Literal

from pydantic import Field

from fennup.core.kinds.fields import Section_mm, SideLetter, Strict
from fennup.core.kinds.ploughing import MOST_PLOUGHED
from fennup.core.stock.ploughed import Ploughed
from fennup.core.stock.section import Section

MOST_LAYERS = 6
LayerNumber = Annotated[str, Field(pattern="^[1-9][0-9]?$", description="number of a layer")]
Pattern = Literal["miter", "round", "long_AC", "long_BD"]


class Layer(Strict):
    """Strips of one size on the rails, or on what lies there already. On each rail its one edge is `set_back_mm` in from the frame's outside or from
    its opening; less than 0 it reaches over. Corners: mitered; butted round and round, each running through at its end; or two long and two short."""

    side: Literal["face", "back"] = "face"
    width_mm: Section_mm
    thickness_mm: Section_mm
    keeps_to: Literal["outside", "opening"] = "outside"
    set_back_mm: Annotated[float, Field(ge=-1000, le=1000, allow_inf_nan=False)] = 0.0
    corners: Pattern = "miter"
    left_out: list[SideLetter] = []
    ploughed: Annotated[list[Ploughed], Field(max_length=MOST_PLOUGHED)] = []

    @property
    def section(self) -> Section:
        """A strip cut across."""
        return Section(self.width_mm, self.thickness_mm, tuple(self.ploughed))

    def edges(self, inner: float, outer: float) -> tuple[float, float]:
        """How far outwards a strip's two edges lie, from those of its rail."""
        if self.keeps_to == "outside":
            return outer - self.set_back_mm - self.width_mm, outer - self.set_back_mm
        return inner + self.set_back_mm, inner + self.set_back_mm + self.width_mm

    def through(self, corner: str) -> str:
        """Which of the two sides of a butted corner runs through it."""
        return corner[0] if self.corners == "round" else next(letter for letter in corner if letter in self.corners[5:])
