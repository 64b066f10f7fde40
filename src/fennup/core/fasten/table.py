"""Fasteners and the rules of thumb for them: usual figures, every one to be changed by whoever knows better."""

from dataclasses import dataclass

INCH = 25.4


@dataclass(frozen=True)
class Screw:
    """A wood screw, mm: its shank and its head, the drills for it, and the lengths that it comes in.

    `pilot_soft_mm` and `pilot_hard_mm` are for the far board, of soft and of hard wood; `clearance_mm` for the near one.
    """

    name: str
    shank_mm: float
    head_mm: float
    pilot_soft_mm: float
    pilot_hard_mm: float
    clearance_mm: float
    lengths_mm: tuple[float, ...]


@dataclass(frozen=True)
class Rules:
    """Rules of thumb. `cover_mm`: wood left over the tip. In the far board a fastener bites at least `bite_shanks` times its shank, in its end
    grain `bite_end_grain` times. From an end and from an edge, and from the next one, it stays so many shanks; two that pass leave
    `pass_mm` between them."""

    cover_mm: float = 3.0
    bite_shanks: float = 7.0
    bite_end_grain: float = 10.0
    end_shanks: float = 7.0
    edge_shanks: float = 3.0
    apart_shanks: float = 10.0
    pass_mm: float = 2.0
    pitch_mm: float = 150.0


# Drills as they are usually given in inches, soft and hard wood and clearance; shank and head as such screws usually measure.
SCREWS: dict[str, Screw] = {
    "3.5": Screw("3.5", 3.5, 7.0, 5 / 64 * INCH, 3 / 32 * INCH, 9 / 64 * INCH, (16.0, 20.0, 25.0, 30.0, 35.0, 40.0, 45.0, 50.0)),
    "4": Screw(
        "4", 4.0, 8.0, 3 / 32 * INCH, 7 / 64 * INCH, 11 / 64 * INCH, (20.0, 25.0, 30.0, 35.0, 40.0, 45.0, 50.0, 60.0, 70.0)
    ),
    "5": Screw("5", 5.0, 10.0, 7 / 64 * INCH, 1 / 8 * INCH, 13 / 64 * INCH, (30.0, 40.0, 50.0, 60.0, 70.0, 80.0, 100.0, 120.0)),
}
USUAL = Rules()
