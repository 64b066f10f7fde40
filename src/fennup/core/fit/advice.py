"""What a step of putting it together needs: how to hold it, who helps, what is done before it is closed off, what is checked after, and how long the glue has."""

from dataclasses import dataclass
from typing import Literal

from fennup.core.fit.order import Assembling, Joining
from fennup.core.fit.reading import Expected, Sheet
from fennup.core.geometry.vec import dot
from fennup.core.tolerances import NOTHING, SAME

Hold = Literal[
    "band",
    "band_leaning",
    "tape",
    "corner_clamps",
    "bar_clamps",
    "wedged_blocks",
    "bars_both_sides",
    "lap_weights",
    "weights",
    "nails",
    "pivot",
]
Before = Literal["inside", "inner_edges", "covered", "contents"]
KG_PER_MM3 = 5e-7  # half as heavy as water: typical softwood
HEAVY_KG, LONG_MM = 20.0, 1500.0
SMALL_MM = 350.0
LEANS = 0.02  # of a direction: how much it must lean to count
FEW_CHECKS = 4
CHECKED = ("diagonal", "feet_diagonal", "crosswise", "corner", "rock", "spacing", "level", "plumb", "lean", "flat")


@dataclass(frozen=True)
class Advice:
    """`helpers`: how many people besides oneself; `props`: boards that fall over unless they are propped; `checks`: what is read after it; `prove`: what is read before, because it
    cannot be undone once glued; `minutes`: how long its joints take, `in_time`: whether the glue stays open so long, `parts`: in how many goes it is glued else."""

    holds: tuple[Hold, ...]
    helpers: int
    props: tuple[str, ...]
    before: tuple[Before, ...]
    checks: tuple[Expected, ...]
    final: bool
    minutes: float
    in_time: bool
    goes: int
    heavy_kg: float


def advice_for(assembling: Assembling, sheet: Sheet, step: Joining, joint_min: float, open_min: float) -> Advice:
    """For one step."""
    minutes = joint_min * len(step.joints)
    weight = sum(assembling.design.solids[id].volume() for id in step.moved) * KG_PER_MM3
    goes = max(1, -(-int(minutes * 1000) // max(1, int(open_min * 1000))))
    return Advice(
        tuple(_holds(assembling, step)),
        1
        if weight > HEAVY_KG or _span(assembling, step.moved) > LONG_MM or (step.halves and _leaning(assembling, step.moved))
        else 0,
        tuple(id for id in (*step.moved, *step.onto) if _falls(assembling, id, step)),
        tuple(_before(assembling, step)),
        tuple(_checks(sheet, step))[:FEW_CHECKS],
        bool(step.joints) and (step.closes or len(step.joints) > 1),
        minutes,
        minutes <= open_min + NOTHING,
        goes,
        weight,
    )


def _span(assembling: Assembling, boards: tuple[str, ...]) -> float:
    points = [p for id in boards for piece in assembling.design.solids[id].world for p in piece.points]
    return max(max(p[k] for p in points) - min(p[k] for p in points) for k in range(3))


def _leaning(assembling: Assembling, boards: tuple[str, ...]) -> bool:
    """Whether one of some boards leans: neither level nor upright."""
    return any(
        LEANS < abs(assembling.design.boards[id].frame.z[2]) < 1 - LEANS
        or LEANS < abs(assembling.design.boards[id].frame.x[2]) < 1 - LEANS
        for id in boards
    )


def _holds(assembling: Assembling, step: Joining) -> list[Hold]:
    joints = [assembling.web.meetings.all[id] for id in step.joints]
    if not joints:
        return []
    kinds = {m.joint.kind for m in joints}
    leaning = _leaning(assembling, step.moved)
    found: list[Hold] = []
    if "miter" in kinds:
        ring = next((loop for loop in assembling.web.rings if any(m.joint.id in step.joints for m in loop.joints)), None)
        sides = len(ring.joints) if ring else 2
        if step.closes and sides != 4:
            found.append("band_leaning" if leaning else "band")
        elif step.closes:
            found.append("band_leaning" if leaning else "corner_clamps")
        else:
            found.append(
                "tape" if _span(assembling, step.moved) < SMALL_MM else "corner_clamps" if sides == 4 and not leaning else "tape"
            )
    if "butt" in kinds:
        found.append("wedged_blocks" if leaning else "bar_clamps")
        found += ["nails", "pivot"]
    if "edge" in kinds:
        found.append("bars_both_sides")
    if kinds & {"lap", "face"}:
        found.append("lap_weights")
    if step.way and step.way[2] > 1 - SAME and kinds == {"butt"} and len(step.joints) > 2:
        found.append("weights")
    return list(dict.fromkeys(found))


def _falls(assembling: Assembling, id: str, step: Joining) -> bool:
    """Whether a board stands on end or leans and nothing holds it yet: it has no joint with what is together then."""
    board = assembling.design.boards[id]
    together = {*step.moved, *step.onto}
    return abs(board.frame.x[2]) > 0.5 and not board.found and not assembling.near[id] & together


def _before(assembling: Assembling, step: Joining) -> list[Before]:
    found: list[Before] = []
    first = assembling.design.boards[step.moved[0]]
    if step.closes:
        flat = all(
            abs(dot(assembling.design.boards[id].frame.z, first.frame.z)) > 1 - LEANS
            for id in (*step.moved, *step.onto)
            if not assembling.design.boards[id].found
        )
        found.append("inner_edges" if flat else "inside")
    section = [assembling.design.boards[id].section for id in (*step.moved, *step.onto)]
    if step.closes and any(s.holds_in for s in section):
        found.append("contents")
    if not step.closes and len(step.moved) == 1 and len(step.joints) > 2:
        found.append("covered")
    return found


def _checks(sheet: Sheet, step: Joining) -> list[Expected]:
    """What can be read now for the first time."""
    one, other = set(step.moved), set(step.onto)
    now = [
        e for e in sheet.readings
        if e.kind in CHECKED and set(e.boards) <= one | other and not set(e.boards) <= other and (len(step.moved) == 1 or not set(e.boards) <= one)
    ]  # fmt: skip
    return sorted(now, key=lambda e: CHECKED.index(e.kind))
