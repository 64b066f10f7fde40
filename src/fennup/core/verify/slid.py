"""What a joint opens by itself when its ends are cut at other angles than the true ones, in three dimensions.

How it is reckoned: the boards are held in their true places; each end is slid along its board until it first touches the
joint plane; the gap at a side is the sum of both faces' largest distance from that plane there.
"""

from contextlib import suppress
from dataclasses import dataclass, replace
from typing import Literal

from fennup.core.assembly.model import Joint
from fennup.core.errors import CutError
from fennup.core.geometry.vec import cross, dot, norm, scale
from fennup.core.tolerances import SAME
from fennup.core.verify.made import Ends, MadeEnd

Where = Literal["face", "back", "upper", "lower"]
EQUAL = 1e-9


@dataclass(frozen=True)
class Gap:
    """What stays open at a joint, mm: at the face and at the back of its boards, at their upper and lower edges.
    `step_mm`: by how much its two faces are no longer equally long, so that edges miss each other."""

    joint: str
    face_mm: float
    back_mm: float
    upper_mm: float
    lower_mm: float
    step_mm: float = 0.0

    @property
    def widest_mm(self) -> float:
        """The widest of all."""
        return max(self.face_mm, self.back_mm, self.upper_mm, self.lower_mm)

    @property
    def at(self) -> Where:
        """Where it is widest: across the thickness or across the width, whichever makes more difference."""
        sides: dict[Where, float] = {
            "face": self.face_mm, "back": self.back_mm, "upper": self.upper_mm, "lower": self.lower_mm,
        }  # fmt: skip
        through = abs(self.face_mm - self.back_mm) > abs(self.upper_mm - self.lower_mm) + EQUAL
        pair: tuple[Where, Where] = ("face", "back") if through else ("lower", "upper")
        return max(pair, key=lambda side: round(sides[side], 9))


def gaps_of(ends: Ends) -> tuple[Gap, ...]:
    """Every joint's own gap as its ends are made; joints without a cut end have none."""
    found = []
    known: dict[tuple[str, ...], Gap | None] = {}
    for joint in ends.assembly.joints:
        alike = ends.alike(joint)
        if alike is not None and alike in known:
            gap = known[alike]
        else:
            gap = None
            with suppress(CutError):  # no saw goes there: that it does not is found elsewhere
                gap = gap_at(ends, joint)
            if alike is not None:
                known[alike] = gap
        if gap:
            found.append(replace(gap, joint=joint.id))
    return tuple(found)


def gap_at(ends: Ends, joint: Joint) -> Gap | None:
    """One joint's; None where no end of it is cut. CutError `along_the_board` where one cannot be cut so."""
    made = [end for mating in (joint.a, joint.b) if (end := ends.at(mating))]
    if not made:
        return None
    face, back, upper, lower = (sum(sides) for sides in zip(*(_opened(end) for end in made), strict=True))
    grown = [_grown(end) for end in made]
    return Gap(joint.id, face, back, upper, lower, abs(grown[0] - grown[1]) if len(grown) == 2 else 0.0)


def _opened(end: MadeEnd) -> tuple[float, float, float, float]:
    """How far an end, slid to first touch, stands off at its face, back, upper and lower side."""
    past = end.past()
    first = max(past)
    off = [first - d for d in past]
    y, z = ([p[k] for p in end.corners] for k in (1, 2))
    skin = SAME * (max(z) - min(z) + max(y) - min(y))
    return (
        max(d for d, at in zip(off, z, strict=True) if at > max(z) - skin),
        max(d for d, at in zip(off, z, strict=True) if at < min(z) + skin),
        max(d for d, at in zip(off, y, strict=True) if at > max(y) - skin),
        max(d for d, at in zip(off, y, strict=True) if at < min(y) + skin),
    )


def _grown(end: MadeEnd) -> float:
    """By how much the made face is longer than the true one, along where it comes out on the board's face."""
    return _length(end.normal, end) - _length(end.true.normal, end)


def _length(normal: tuple[float, float, float], end: MadeEnd) -> float:
    """The length of a plane's line across the board's face, as wide as the end is."""
    along = cross((0.0, 0.0, 1.0), normal)
    way = scale(along, 1.0 / norm(along))
    ys = [p[1] for p in end.corners]
    across = abs(dot(way, (0.0, 1.0, 0.0)))
    return (max(ys) - min(ys)) / across if across > EQUAL else 0.0
