"""Fasteners and the rules of thumb for them: usual figures, every one to be changed by whoever knows better."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from fennup.core.errors import SpecError
from fennup.core.saw.tool import Strict

INCH = 25.4
USUAL_SOURCE = "usual, editable"
Name = Annotated[str, Field(min_length=1, max_length=30)]
Source = Annotated[str, Field(max_length=80)]
Thick_mm = Annotated[float, Field(gt=0, le=60, allow_inf_nan=False)]
Hole_mm = Annotated[float, Field(ge=0, le=60, allow_inf_nan=False)]
Long_mm = Annotated[float, Field(gt=0, le=1000, allow_inf_nan=False)]
Lengths_mm = Annotated[tuple[Long_mm, ...], Field(min_length=1, max_length=40)]
Times = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]


class Straight(Strict):
    """What goes straight through one board into another, mm: its shank, its head and how high that is, and the lengths that it comes in."""

    name: Name
    shank_mm: Thick_mm
    head_mm: Hole_mm = 0.0
    head_high_mm: Hole_mm = 0.0
    lengths_mm: Lengths_mm
    source: Source = USUAL_SOURCE


class Screw(Straight):
    """A wood screw and the drills for it.

    `pilot_soft_mm` and `pilot_hard_mm` are for the far board, of soft and of hard wood; `clearance_mm` for the near one.
    SpecError `pilot_wide`, `clearance_narrow`, naming the field within the row.
    """

    pilot_soft_mm: Hole_mm
    pilot_hard_mm: Hole_mm
    clearance_mm: Hole_mm

    @model_validator(mode="after")
    def _drills(self) -> "Screw":
        for field in ("pilot_soft_mm", "pilot_hard_mm"):
            if getattr(self, field) >= self.shank_mm:
                raise SpecError("pilot_wide", (field,), mm=getattr(self, field), limit_mm=self.shank_mm)
        if self.clearance_mm < self.shank_mm:
            raise SpecError("clearance_narrow", ("clearance_mm",), mm=self.clearance_mm, limit_mm=self.shank_mm)
        return self


class Nail(Straight):
    """A nail, and the pilot that keeps a board's end from splitting."""

    pilot_mm: Hole_mm = 0.0


class Bolt(Straight):
    """A bolt with washers under head and nut: the hole for it, how thick a washer, how high the nut with what stands out."""

    hole_mm: Hole_mm
    washer_mm: Hole_mm
    nut_mm: Hole_mm


class Dowel(Straight):
    """A dowel, half in each board; `glue_mm`: how much deeper each hole is."""

    glue_mm: Hole_mm = 1.0


class Biscuit(Strict):
    """A flat biscuit, half in each board: how long and wide it is, and how wide its slot."""

    name: Name
    long_mm: Long_mm
    wide_mm: Long_mm
    slot_mm: Thick_mm
    source: Source = USUAL_SOURCE


class Rules(Strict):
    """Rules of thumb. `cover_mm`: wood left over the tip. In the far board a fastener bites at least `bite_shanks` times its shank, in its end
    grain `bite_end_grain` times, a nail `bite_nail` times, screws of what is put behind `bite_behind` times; a dowel goes `dowel_shanks` into each and stays `dowel_edge` from an edge. From an end and from an edge, and from the next
    one, it stays so many shanks; two that pass leave `pass_mm` between them. `spline_part`: of the wood's thickness, how thick a spline."""

    cover_mm: Hole_mm = 3.0
    bite_shanks: Times = 7.0
    bite_end_grain: Times = 10.0
    bite_nail: Times = 12.0
    bite_behind: Times = 4.0
    dowel_shanks: Times = 1.5
    dowel_edge: Times = 1.0
    end_shanks: Times = 5.0
    edge_shanks: Times = 2.5
    apart_shanks: Times = 10.0
    pass_mm: Hole_mm = 2.0
    pitch_mm: Long_mm = 150.0
    spline_part: Annotated[float, Field(gt=0, le=1, allow_inf_nan=False)] = 0.25


def _screw(shank: float, head: float, drills: tuple[float, float, float], *lengths: float) -> Screw:
    """Drills in parts of an inch: pilot in soft and hard wood, clearance."""
    soft, hard, clear = (part * INCH for part in drills)
    return Screw(name=f"{shank:g}", shank_mm=shank, head_mm=head, head_high_mm=0.55 * shank, pilot_soft_mm=soft, pilot_hard_mm=hard,
                 clearance_mm=clear, lengths_mm=lengths)  # fmt: skip


# Drills as they are usually given in inches, soft and hard wood and clearance; shank and head as such screws usually measure.
SCREWS: dict[str, Screw] = {
    "3.5": _screw(3.5, 7.0, (5 / 64, 3 / 32, 9 / 64), 16, 20, 25, 30, 35, 40, 45, 50),
    "4": _screw(4.0, 8.0, (3 / 32, 7 / 64, 11 / 64), 20, 25, 30, 35, 40, 45, 50, 60, 70),
    "5": _screw(5.0, 10.0, (7 / 64, 1 / 8, 13 / 64), 30, 40, 50, 60, 70, 80, 100, 120),
    "6": _screw(6.0, 12.0, (9 / 64, 11 / 64, 1 / 4), 60, 80, 100, 120, 140, 160, 180),
}
NAILS: dict[str, Nail] = {
    "1.6": Nail(name="1.6", shank_mm=1.6, head_mm=2.4, lengths_mm=(20, 25, 30, 35, 40), pilot_mm=1.2),
    "2.2": Nail(name="2.2", shank_mm=2.2, head_mm=3.3, lengths_mm=(30, 40, 45, 50), pilot_mm=1.6),
    "2.8": Nail(name="2.8", shank_mm=2.8, head_mm=6.5, head_high_mm=1.0, lengths_mm=(50, 55, 65), pilot_mm=2.0),
}
BOLTS: dict[str, Bolt] = {
    f"M{d}": Bolt(name=f"M{d}", shank_mm=d, head_mm=2.2 * d, head_high_mm=0.55 * d, hole_mm=d + 0.5, washer_mm=w, nut_mm=d + 2,
                  lengths_mm=(40, 50, 60, 70, 80, 90, 100, 120, 140, 160, 180, 200))
    for d, w in ((6, 1.6), (8, 1.6), (10, 2.0))
}  # fmt: skip
DOWELS: dict[str, Dowel] = {
    f"{d}": Dowel(name=f"{d}", shank_mm=d, lengths_mm=lengths)
    for d, lengths in ((6, (25, 30, 40)), (8, (30, 35, 40, 50)), (10, (40, 50, 60)))
}
BISCUITS: dict[str, Biscuit] = {
    "short": Biscuit(name="short", long_mm=47.0, wide_mm=15.0, slot_mm=4.0),
    "middle": Biscuit(name="middle", long_mm=53.0, wide_mm=19.0, slot_mm=4.0),
    "long": Biscuit(name="long", long_mm=56.0, wide_mm=23.0, slot_mm=4.0),
}
USUAL = Rules()
How = Literal["screw", "nail", "bolt", "dowel", "biscuit", "spline", "block", "bracket", "backing", "glue"]
STRAIGHT: tuple[How, ...] = ("screw", "nail", "bolt", "dowel")
BEHIND: tuple[How, ...] = ("block", "bracket", "backing")
HOWS: tuple[How, ...] = ("screw", "nail", "bolt", "dowel", "biscuit", "spline", "block", "bracket", "backing", "glue")


class Fasteners(Strict):
    """All that there is to fasten with, by name, and the rules."""

    screws: Annotated[dict[Name, Screw], Field(max_length=40)] = SCREWS
    nails: Annotated[dict[Name, Nail], Field(max_length=40)] = NAILS
    bolts: Annotated[dict[Name, Bolt], Field(max_length=40)] = BOLTS
    dowels: Annotated[dict[Name, Dowel], Field(max_length=40)] = DOWELS
    biscuits: Annotated[dict[Name, Biscuit], Field(max_length=40)] = BISCUITS
    rules: Rules = USUAL

    def rules_of(self, how: How) -> Rules:
        """The rules for one way of fastening."""
        if how == "dowel":
            near = self.rules.dowel_edge
            return self.rules.model_copy(update={"edge_shanks": near, "end_shanks": 2 * near, "apart_shanks": 3 * near})
        return self.rules.model_copy(update={"bite_shanks": self.rules.bite_behind}) if how in BEHIND else self.rules

    def of(self, how: How) -> dict[str, Straight]:
        """The sizes of what goes straight in; blocks, brackets and backing are screwed on."""
        if how in ("nail", "bolt", "dowel"):
            return dict(self.nails if how == "nail" else self.bolts if how == "bolt" else self.dowels)
        return dict(self.screws)
