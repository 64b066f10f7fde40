"""Every gap between parts, measured on the solids, where somebody small could be caught."""

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import combinations

from fennup.core.design import Design
from fennup.core.fasten.through import spans
from fennup.core.geometry.plane import plane_through
from fennup.core.geometry.polyhedron import clip_polygon, polygon_area
from fennup.core.geometry.vec import Vec, add, cross, dot, norm, scale, sub, unit
from fennup.core.parts.solid import Patch, Solid
from fennup.core.tolerances import SAME

FACING = -0.7  # the cosine between two sides that look at each other, at most
LEAST_MM2 = 100.0
MOST_MM = 260.0
MOST_GAPS = 4000
ALMOST_MM = 0.1
TOWARDS = 0.8  # how far from the middle of an opening towards its ends, the long way, it is looked at besides


@dataclass(frozen=True)
class Opening:
    """What is open between two boards, from its least to its most, mm, where about and along which way."""

    a: str
    b: str
    least_mm: float
    most_mm: float
    at: Vec
    way: Vec


@dataclass(frozen=True)
class Caught:
    """An opening in which something of a child could be caught."""

    opening: Opening
    what: str


def openings(design: Design, most_mm: float = MOST_MM) -> list[Opening]:
    """Between every two boards that look at each other with nothing in between, somewhere: every two of their facing sides, those that are as far apart
    once. The narrowest first of each two."""
    found: list[Opening] = []
    for a, b in combinations(design.solids, 2):
        if design.boards[a].found and design.boards[b].found:
            continue
        if not _near(design.solids[a], design.solids[b], most_mm):
            continue
        between: dict[tuple[float, float], Opening] = {}
        for one in _sides(design.solids[a]):
            for other in _sides(design.solids[b]):
                for opening in _between(a, b, one, other, most_mm):
                    alike = (round(opening.least_mm, 1), round(opening.most_mm, 1))
                    if alike not in between and not _blocked(design, opening):
                        between[alike] = opening
        found += [between[alike] for alike in sorted(between)]
        if len(found) >= MOST_GAPS:
            break
    return found


def _near(a: Solid, b: Solid, most_mm: float) -> bool:
    (low, high), (other_low, other_high) = _box(a), _box(b)
    return all(low[k] - most_mm < other_high[k] and other_low[k] - most_mm < high[k] for k in range(3))


def _box(solid: Solid) -> tuple[list[float], list[float]]:
    lows, highs = zip(*solid.boxes, strict=True)
    return [min(p[k] for p in lows) for k in range(3)], [max(p[k] for p in highs) for k in range(3)]


def _sides(solid: Solid) -> list[Patch]:
    return [Patch(f.plane, piece.corners(f)) for piece in solid.world for f in piece.facets]


def _between(a: str, b: str, one: Patch, other: Patch, most_mm: float) -> list[Opening]:
    """How far apart two sides are where they lie over each other, along the way between them: the same at each of a few places the long way, so that what is
    closed in its middle and open beside it is seen."""
    if dot(one.plane.normal, other.plane.normal) > FACING:
        return []
    way = unit(sub(one.plane.normal, other.plane.normal))
    over = one.points
    for i, corner in enumerate(other.points):
        edge = sub(corner, other.points[i - 1])
        if over and norm(edge) > SAME:
            over = clip_polygon(over, plane_through(corner, cross(way, edge)))
    if not over or polygon_area(over) < LEAST_MM2:
        return []
    against = -dot(other.plane.normal, way)
    ahead = [other.plane.beyond(p) / against for p in over]
    least, most = min(ahead), max(ahead)
    if least < SAME or least > most_mm:
        return []
    middle = scale(add(over[0], over[len(over) // 2]), 0.5)
    along = unit(max((sub(p, over[k - 1]) for k, p in enumerate(over)), key=norm))
    reach = [dot(sub(p, middle), along) for p in over]
    places = [add(middle, scale(along, t)) for t in (0.0, TOWARDS * min(reach), TOWARDS * max(reach))]
    return [Opening(a, b, least, most, add(p, scale(way, other.plane.beyond(p) / against / 2)), way) for p in places]


def _blocked(design: Design, opening: Opening) -> bool:
    """Whether other wood lies in its middle, from side to side."""
    others = (solid for id, solid in design.solids.items() if id not in (opening.a, opening.b))
    half = opening.least_mm / 2 - ALMOST_MM
    return any(low < half and high > -half for solid in others for low, high in _spans_near(solid, opening, half))


def _spans_near(solid: Solid, opening: Opening, half: float) -> list[tuple[float, float]]:
    start = add(opening.at, scale(opening.way, -half))
    if not any(_met(low, high, start, opening.way, 2 * half) for low, high in solid.boxes):
        return []
    return spans(solid, opening.at, opening.way)


def nearest_ahead(design: Design, board: str, at: Vec, way: Vec, most_mm: float) -> float | None:
    """How far it is from a place along a unit direction to the next other board; None where none is near."""
    found = []
    for id, solid in design.solids.items():
        if id == board or not any(_met(low, high, at, way, most_mm) for low, high in solid.boxes):
            continue
        found += [low for low, high in spans(solid, at, way) if high > 0 and low < most_mm]
    return max(0.0, min(found)) if found else None


def _met(low: Vec, high: Vec, at: Vec, way: Vec, most_mm: float) -> bool:
    """Whether a straight way comes near a box at all."""
    return all(
        min(at[k], at[k] + way[k] * most_mm) <= high[k] and max(at[k], at[k] + way[k] * most_mm) >= low[k] for k in range(3)
    )


def caught_in(found: list[Opening], limits: Mapping[str, tuple[float, float]]) -> list[Caught]:
    """Those openings that come into one of some limits, each by its name."""
    return [
        Caught(opening, what)
        for opening in found
        for what, (low, high) in limits.items()
        if opening.least_mm < high and opening.most_mm > low
    ]
