"""What a plan can say of a thing: its sizes, its boards, and lengths and angles of its parts; each with its value in a design."""

from dataclasses import dataclass
from fractions import Fraction
from re import findall, fullmatch
from typing import Literal

from fennup.core.design import Design
from fennup.core.drawing.edit import TypeIn
from fennup.core.parts.facts import PartFacts
from fennup.core.project.describe import describe
from fennup.core.project.spec import ProjectSpec

Unit = Literal["mm", "deg", "count"]
PartWhat = Literal["longest", "shortest", "overall", "miter", "bevel", "width", "thickness", "count"]
PART_WHATS: tuple[PartWhat, ...] = ("longest", "shortest", "overall", "miter", "bevel", "width", "thickness", "count")
FINEST_DEG, FINEST_MM = 0.05, 0.05


@dataclass(frozen=True)
class Sayable:
    """Something that a plan can say: `size:MEASURE`, `field:PATH`, or `part:KEY:WHAT`; and what it is as drawn."""

    key: str
    unit: Unit
    value: float


def sayables(spec: ProjectSpec, design: Design) -> list[Sayable]:
    """Everything of a thing that can be said, its sizes first, then its boards, then its parts."""
    described = describe(spec, design.assembly, design.solids)
    found = [Sayable(f"size:{row.measure}", row.unit, row.value) for row in described.sizes]
    for control in described.controls:
        if (
            control.value is not None
            and isinstance(control.acts, TypeIn)
            and not control.group.endswith("part")
            and control.unit in ("mm", "deg", "count")
        ):
            found.append(Sayable(f"field:{control.acts.path}", control.unit, control.value))
    for facts in design.facts:
        for what in PART_WHATS:
            value = part_value(facts, what)
            if value is not None:
                unit: Unit = "deg" if what in ("miter", "bevel") else "count" if what == "count" else "mm"
                found.append(Sayable(f"part:{facts.key}:{what}", unit, value))
    return list({one.key: one for one in found}.values())


def part_value(facts: PartFacts, what: PartWhat) -> float | None:
    """A figure of a part; None where it has none of that sort. The angles are those of its first cut, without their side."""
    if what == "count":
        return float(len(facts.group.boards))
    section = facts.board.section
    if what == "thickness":
        return section.thickness_mm
    if facts.board.panel:
        return None
    if what == "width":
        return section.width_mm
    if what == "overall":
        return facts.extent[0]
    if what in ("longest", "shortest"):
        return (max if what == "longest" else min)(facts.arrises.values())
    cut = next((cuts[0] for cuts in facts.ends.values() if cuts), None)
    if cut is None:
        return None
    return abs(cut.miter_deg if what == "miter" else cut.bevel_deg)


def exactness(text: str, unit: Unit, mm_each: float) -> float:
    """How far off a figure may be that is written so, half of its last place: mm or degrees. `mm_each`: of the plan's unit; a fraction is as exact as its
    smallest part, and nothing is taken as finer than a twentieth."""
    if unit == "count":
        return 0.0
    each = 1.0 if unit == "deg" else mm_each
    fractions = findall(r"\d+\s*/\s*(\d+)", text)
    if fractions:
        return float(Fraction(1, 2 * max(1, int(fractions[-1])))) * each
    plain = fullmatch(r".*?(\d+)(?:[.,](\d+))?\D*", text.strip())
    decimals = len(plain[2] or "") if plain else 0
    half = 0.5 * 10.0**-decimals * each
    return max(half, FINEST_DEG if unit == "deg" else FINEST_MM)
