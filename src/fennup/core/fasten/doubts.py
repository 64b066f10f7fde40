"""What speaks against how a joint is fastened."""

from dataclasses import dataclass
from math import acos, degrees

from fennup.core.fasten.fastened import Fastened
from fennup.core.fasten.pattern import margins
from fennup.core.fasten.table import STRAIGHT, Straight
from fennup.core.fasten.through import Stack
from fennup.core.geometry.vec import add, dot, scale
from fennup.core.tolerances import NOTHING, ON_LINE, SAME

LEANS_DEG = (30.0, 35.0, 40.0, 45.0, 20.0, 25.0, -30.0, -35.0, -40.0, -45.0, -20.0, -25.0)  # tried where none goes in square
STEEP_DEG = 40.0  # a side that is farther out of square to a screw does not take its head


@dataclass(frozen=True)
class Doubt:
    """Something that speaks against a fastening: a code, and its figures or names."""

    code: str
    value: float = 0.0
    limit: float = 0.0
    name: str = ""


def doubts_of(one: Fastened) -> list[Doubt]:
    """What speaks against it, the gravest first."""
    found: list[Doubt] = []
    straight, lengths, length = one.straight, one.lengths, one.length_mm
    if one.slot.biscuit and (one.slot.deep_mm or 0.0) > one.slot.room_mm + NOTHING:
        found.append(Doubt("slot_deep", one.slot.deep_mm or 0.0, one.slot.room_mm))
    if one.how == "biscuit" and one.slot.biscuit is None:
        found.append(Doubt("no_biscuit"))
    if straight is None or lengths is None or one.through is None:
        return found
    if length is None:
        found.append(Doubt(f"lacks_{lengths.lacks}", lengths.shortest_mm, lengths.longest_mm))
    elif (one.left_mm or 0.0) < 0:
        found.append(Doubt("comes_out", -(one.left_mm or 0.0), lengths.longest_mm))
    elif length > lengths.longest_mm + SAME:
        found.append(Doubt("little_cover", length, lengths.longest_mm))
    elif length < lengths.shortest_mm - SAME:
        found.append(Doubt("little_bite", length, lengths.shortest_mm))
    if one.how in STRAIGHT:
        found += _in_the_row(one, straight)
    if any(stack.into_end_grain for stack in one.places) and one.how in ("screw", "nail"):
        found.append(Doubt("end_grain"))
    return found


def _in_the_row(one: Fastened, straight: Straight) -> list[Doubt]:
    found: list[Doubt] = []
    if not all(one.rows):
        room = straight.shank_mm * one.fasteners.rules_of(one.how).edge_shanks
        lean = _lean_that_holds(one) if one.kind.joints[0].kind in ("miter", "edge") and not one.count else None
        found.append(Doubt("no_room", room) if lean is None else Doubt("skew_along" if lean[1] else "skew_across", room, lean[0]))
    if one.choice.count and one.rows and 0 < len(one.rows[0]) < one.choice.count:
        found.append(Doubt("fewer", len(one.rows[0]), one.choice.count))
    cover = one.cover
    if cover and one.sunk_mm < straight.head_high_mm - SAME:
        found.append(Doubt("head_covered", one.sunk_mm, straight.head_high_mm, cover))
    driven = [stack for row in one.rows for stack in row] or ([one.stack] if one.stack else [])
    if driven and (steep := max(_steep(one, stack) for stack in driven)) > STEEP_DEG:
        found.append(Doubt("steep", steep, STEEP_DEG))
    elif driven and straight.head_mm and one.how != "dowel":
        room_mm = min(_head_room_mm(one, stack) for stack in driven)
        if room_mm < straight.head_mm / 2:
            found.append(Doubt("head_wide", straight.head_mm, 2 * room_mm))
    return found


def _lean_that_holds(one: Fastened) -> tuple[float, bool] | None:
    """A lean out of square, and whether along the row, with which as many fit as are wanted and nothing speaks against them; None where none was found."""
    for along in (True, False):
        for lean in LEANS_DEG:
            choice = one.choice.model_copy(update={"lean_deg": lean, "lean_along": along})
            leaning = Fastened(one.design, one.kind, one.fasteners, choice)
            if all(leaning.rows) and leaning.count and leaning.length_mm is not None and (leaning.left_mm or 0.0) >= 0:
                steep = max(_steep(leaning, stack) for row in leaning.rows for stack in row)
                if steep <= STEEP_DEG:
                    return lean, along
    return None


def _head_room_mm(one: Fastened, stack: Stack) -> float:
    """How near the edge or the end a head lies."""
    at = add(stack.head, scale(stack.way, min(1.0, stack.through_mm / 2)))
    room = margins(one.design.solids[stack.near], at, stack.way, (-stack.through_mm / 4, stack.through_mm / 4))
    return min(room.edge_mm, room.end_mm)


def _steep(one: Fastened, stack: Stack) -> float:
    """How far from square a fastener goes into its near board's side, degrees."""
    sides = [
        facet.plane.normal
        for piece in one.design.solids[stack.near].world
        for facet in piece.facets
        if abs(facet.plane.beyond(stack.head)) < ON_LINE and dot(facet.plane.normal, stack.way) < 0
    ]
    return degrees(acos(min(1.0, max((-dot(normal, stack.way) for normal in sides), default=1.0))))
