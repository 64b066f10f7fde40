"""On which board of a plan a piece lies, and which of its ends is made by a neighbour's cut."""

from collections.abc import Mapping
from dataclasses import dataclass


@dataclass(frozen=True)
class Placement:
    """`board`: what the planned board is called; `rough_mm`: how long a piece is cut off it, at least; `shared`: by this piece's own end, `m1/A left`, the piece and end that the same cut makes; `new`: whether the board is to be bought."""

    board: str
    rough_mm: float
    shared: Mapping[str, str]
    new: bool = False


NOWHERE: Mapping[str, Placement] = {}
