"""Names of sizes, taken apart: of which assembly, on which line, what is measured there, and of which side."""

from dataclasses import dataclass, replace
from functools import lru_cache

ANGLES = ("slope", "angle", "splay", "pitch", "lean")


@dataclass(frozen=True)
class Measure:
    """A size by name: `m1/outer_bottom_side:A` is the side (`quantity`) A (`side`) of the line `outer_bottom` of the assembly
    `m1` (`member`). A size that lies on no line has none: `height`, `slope:AC`."""

    quantity: str
    line: str = ""
    side: str = ""
    member: str = ""

    def __str__(self) -> str:
        """The name."""
        return f"{self.member}/{self.own}" if self.member else self.own

    @property
    def what(self) -> str:
        """Line and quantity, whatever the side and the assembly: `outer_bottom_side`, `slope`."""
        return f"{self.line}_{self.quantity}" if self.line else self.quantity

    @property
    def own(self) -> str:
        """The name within its assembly."""
        return f"{self.what}:{self.side}" if self.side else self.what

    @property
    def is_angle(self) -> bool:
        """Whether it is in degrees."""
        return self.quantity in ANGLES

    @property
    def from_level(self) -> bool:
        """Whether an angle counts from level, as a pitch does, rather than from upright."""
        return self.what == "level_slope" or self.quantity == "pitch"

    def of(self, member: str) -> "Measure":
        """The same of an assembly."""
        return replace(self, member=member)


@lru_cache(maxsize=4096)
def measure_of(name: str) -> Measure:
    """A name taken apart; `str` puts it together again."""
    member, slash, own = name.partition("/")
    if not slash:
        member, own = "", name
    what, _, side = own.partition(":")
    line, _, quantity = what.rpartition("_")
    return Measure(quantity, line, side, member)
