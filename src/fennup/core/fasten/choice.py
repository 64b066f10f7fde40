"""How somebody wants a kind of joint fastened: all that Fennup would otherwise pick."""

from typing import Annotated

from pydantic import Field

from fennup.core.fasten.pattern import Wish
from fennup.core.fasten.table import How
from fennup.core.saw.tool import Strict


class Fastening(Strict):
    """`how`, `size` and `length_mm`: none where Fennup picks; `other_side`: out of the other board; `lean_deg` out of square, across the row or
    `lean_along` it; `sunk_mm`: how far heads are sunk; `count`, none: as many as usual; `staggered`; `thick_mm`: of a block, bracket or strip that
    is put behind; `glued` besides."""

    how: How | None = None
    size: Annotated[str, Field(max_length=30)] | None = None
    length_mm: Annotated[float, Field(gt=0, le=1000, allow_inf_nan=False)] | None = None
    other_side: bool = False
    lean_deg: Annotated[float, Field(ge=-75, le=75, allow_inf_nan=False)] = 0.0
    lean_along: bool = False
    sunk_mm: Annotated[float, Field(ge=0, le=200, allow_inf_nan=False)] = 0.0
    count: Annotated[int, Field(ge=1, le=60)] | None = None
    staggered: bool = False
    thick_mm: Annotated[float, Field(gt=0, le=200, allow_inf_nan=False)] | None = None
    glued: bool = True

    @property
    def wish(self) -> Wish:
        """How its row is wanted."""
        return Wish(self.lean_deg, self.lean_along, self.count, self.staggered)


USUAL_CHOICE = Fastening()
