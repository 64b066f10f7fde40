"""Where the wood is short: the smallest changes of the project's own sizes after which everything fits."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from math import ceil

from pydantic import ValidationError

from fennup.core.boards.planned import Cuttings, Order, plan_boards
from fennup.core.boards.shortage import Short
from fennup.core.design import Design
from fennup.core.drawing.edit import Give
from fennup.core.errors import CoreError
from fennup.core.project.describe import describe
from fennup.core.project.edit import edit
from fennup.core.project.spec import ProjectSpec
from fennup.core.solve import designed
from fennup.core.tolerances import SAME
from fennup.core.units.lengths import Tape

MOST_CURES, MOST_SIZES = 4, 24
FAR = 0.15  # of a size: a larger change is another project
TRIES = 3
LEAST_EFFECT = 0.05  # mm of board for a mm of the size: what has less to do with it is no cure
TEXT_DIGITS = 6


@dataclass(frozen=True)
class Cure:
    """One size changed, after which all fits."""

    measure: str
    value: float
    made: float


def cures_for(spec: ProjectSpec, design: Design, order: Order, short: Short, tape: Tape) -> list[Cure]:
    """The changes that help, the smallest share of its size first. Each has been tried: solved, planned, and found to fit."""
    found = sorted(_cures(spec, design, order, short, tape), key=lambda cure: abs(cure.made - cure.value) / cure.value)
    return found[:MOST_CURES]


def _cures(spec: ProjectSpec, design: Design, order: Order, short: Short, tape: Tape) -> Iterator[Cure]:
    own = frozenset(k for p in Cuttings(design.facts).pieces if p.section == short.section for k in p.keys)
    now, missing = _length(design, own), _missing(design, order)
    rows = [
        row for row in describe(spec, design.assembly, design.solids).sizes if row.acts and row.unit == "mm" and row.value > 1.0
    ]
    for row in rows[:MOST_SIZES]:
        smaller = _changed(spec, row.measure, row.value - 1.0, tape)
        effect = now - _length(smaller[1], own) if smaller else 0.0
        if abs(effect) < LEAST_EFFECT:
            continue
        step = float(tape.graduation_mm)
        for turn in range(1, TRIES + 1):
            change = ceil(turn * short.mm / abs(effect) / step - SAME) * step
            value = row.value - change if effect > 0 else row.value + change
            if change > FAR * row.value:
                break
            made = _changed(spec, row.measure, value, tape)
            if made and not _missing(made[1], order) - (missing - own):
                yield Cure(row.measure, row.value, value)
                break


def _length(design: Design, keys: frozenset[str]) -> float:
    """Of some parts together, whatever their section has become."""
    return sum(p.overall_mm * sum(key in keys for key in p.keys) for p in Cuttings(design.facts).pieces)


def _changed(spec: ProjectSpec, measure: str, mm: float, tape: Tape) -> tuple[ProjectSpec, Design] | None:
    """The project with one size given; None where that cannot be."""
    text = f"{mm:.{TEXT_DIGITS}f} mm"
    try:
        return designed(ProjectSpec.model_validate(edit(spec, Give(op="give", measure=measure, text=text), tape)))
    except (CoreError, ValidationError):
        return None


def _missing(design: Design, order: Order) -> frozenset[str]:
    """The keys of all that has no place when the project is so: of a cure none but what had none before, of another section."""
    plan = plan_boards(replace(order, cuttings=(Cuttings(design.facts), *order.cuttings[1:])), dives=0)
    return frozenset((*(key for key, _ in plan.layout.unplaced), *(key for piece in plan.homeless for key in piece.keys)))
