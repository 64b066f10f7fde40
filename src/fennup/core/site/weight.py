"""How heavy a thing is, where its weight acts, how its feet share it, and what tips it over: from the finished solids."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations
from math import atan, atan2, cos, degrees, hypot, sin

import numpy as np
from manifold3d import CrossSection, FillRule

from fennup.core.design import Design
from fennup.core.geometry.polygon import hull
from fennup.core.geometry.vec import Point2, Vec, add, scale
from fennup.core.tolerances import SAME

MM3_PER_M3 = 1e9
GRAVITY = 9.81  # N for a kg
GLASS_KG_M3, BOARD_KG_M3 = 2500.0, 1000.0  # flat glass; hardboard, which few backs are heavier than
ON_GROUND_MM = 0.5
TURNS = 24  # directions in which the wind is tried


@dataclass(frozen=True)
class Mass:
    """So many kg, acting at a place."""

    kg: float
    at: Vec

    def and_also(self, other: "Mass") -> "Mass":
        """Both together."""
        kg = self.kg + other.kg
        if kg <= 0:
            return self
        return Mass(kg, scale(add(scale(self.at, self.kg), scale(other.at, other.kg)), 1.0 / kg))


NO_MASS = Mass(0.0, (0.0, 0.0, 0.0))


def stack_kg(area_mm2: float, glass_mm: float, board_mm: float) -> float:
    """What layers that nobody weighed come to: glass by its thickness, and all else as dense board."""
    return area_mm2 * (glass_mm * GLASS_KG_M3 + board_mm * BOARD_KG_M3) / MM3_PER_M3


def weight_of(design: Design, kg_m3: Mapping[str, float]) -> Mass:
    """All boards that are made, each by its density; what is there already is not weighed."""
    total = NO_MASS
    for id, solid in design.solids.items():
        if design.boards[id].found:
            continue
        volume = solid.volume()
        moment: Vec = (0.0, 0.0, 0.0)
        for piece in solid.world:
            moment = add(moment, piece.moment())
        total = total.and_also(Mass(volume / MM3_PER_M3 * kg_m3[id], scale(moment, 1.0 / volume)))
    return total


@dataclass(frozen=True)
class Footing:
    """Where something stands: the middle of each board's end on the ground, by board, how far each reaches, and the outline round all that touches it, level `ground_mm`."""

    feet: dict[str, Point2]
    extents: dict[str, float]
    outline: tuple[Point2, ...]
    ground_mm: float


def footing_of(design: Design) -> Footing:
    """What stands on the ground: the lowest wood of all that is made."""
    points = {
        id: [p for piece in solid.world for p in piece.points]
        for id, solid in design.solids.items()
        if not design.boards[id].found
    }
    ground = min((p[2] for found in points.values() for p in found), default=0.0)
    feet: dict[str, Point2] = {}
    extents: dict[str, float] = {}
    touching: list[Point2] = []
    for id, found in points.items():
        low = [(p[0], p[1]) for p in found if p[2] < ground + ON_GROUND_MM]
        if low:
            outline = hull(low) if len(low) > 2 else tuple(low)
            feet[id], extents[id] = _middle(outline), extent(outline)
            touching += low
    return Footing(feet, extents, hull(touching) if len(touching) > 2 else (), ground)


def extent(places: Sequence[Point2]) -> float:
    """How far apart the two farthest of some places are."""
    return max((hypot(b[0] - a[0], b[1] - a[1]) for a, b in combinations(places, 2)), default=0.0)


def corners_of_made(design: Design) -> list[Vec]:
    """The corners of all that is made; of what is there already none."""
    return [p for id, s in design.solids.items() if not design.boards[id].found for piece in s.world for p in piece.points]


def _middle(outline: tuple[Point2, ...]) -> Point2:
    """The middle of a small flat place: that of its area, of its corners where it has none."""
    area = mx = my = 0.0
    for (ax, ay), (bx, by) in zip(outline, (*outline[1:], outline[0]), strict=True):
        twice = ax * by - bx * ay
        area, mx, my = area + twice, mx + (ax + bx) * twice, my + (ay + by) * twice
    if abs(area) > SAME:
        return (mx / (3 * area), my / (3 * area))
    return (sum(x for x, _ in outline) / len(outline), sum(y for _, y in outline) / len(outline))


def shares(footing: Footing, mass: Mass) -> dict[str, float]:
    """What each foot carries, kg, where all give way alike: their shares lie in a plane over the ground. Less than 0: it would lift. None for fewer than
    three feet, or feet in a line."""
    names = list(footing.feet)
    rows = np.array([[1.0, *footing.feet[name]] for name in names])
    if len(names) < 3 or np.linalg.matrix_rank(rows, tol=SAME) < 3:
        return {}
    wanted = mass.kg * np.array([1.0, mass.at[0], mass.at[1]])
    plane = np.linalg.solve(rows.T @ rows, wanted)
    return {name: float(row @ plane) for name, row in zip(names, rows, strict=True)}


@dataclass(frozen=True)
class Tipping:
    """Over which edge it tips most easily, from one place on the ground to another; how far its weight acts inside of that, how far it may lean, and what
    push at a height does it, N. It stands by itself only where `inside_mm` is more than nothing."""

    a: Point2
    b: Point2
    inside_mm: float
    lean_deg: float
    push_n: float


def tipping(footing: Footing, mass: Mass, push_up_mm: float) -> Tipping | None:
    """The easiest way over; None where it stands on no more than a line."""
    outline = footing.outline
    if len(outline) < 3:
        return None
    found = []
    for (ax, ay), (bx, by) in zip(outline, (*outline[1:], outline[0]), strict=True):
        long = hypot(bx - ax, by - ay)
        inside = ((bx - ax) * (mass.at[1] - ay) - (by - ay) * (mass.at[0] - ax)) / long
        lean = degrees(atan(inside / max(SAME, mass.at[2] - footing.ground_mm)))
        found.append(Tipping((ax, ay), (bx, by), inside, lean, mass.kg * GRAVITY * inside / push_up_mm))
    return min(found, key=lambda t: t.inside_mm)


@dataclass(frozen=True)
class Wind:
    """What the wind does that tips it most easily: the area that it meets, m2, its push, N, how much it would lift at its feet, N, and at each anchor of
    those on its side; 0 where the weight holds it."""

    area_m2: float
    push_n: float
    lift_n: float
    each_n: float


def wind_on(design: Design, footing: Footing, mass: Mass, n_m2: float, anchors: int, *, covered: bool = False) -> Wind | None:
    """The worst of all directions; the area is what its wood shows, of what is `covered` that of the whole outline; half of the anchors hold. None where it
    stands on no more than a line."""
    if len(footing.outline) < 3:
        return None
    pieces = [piece.points for id, s in design.solids.items() if not design.boards[id].found for piece in s.world]
    worst: tuple[float, Wind] | None = None
    for k in range(TURNS):
        turn = k * np.pi / (TURNS / 2)
        way = (cos(turn), sin(turn))
        across = (-way[1], way[0])
        seen = [[(p[0] * across[0] + p[1] * across[1], p[2]) for p in points] for points in pieces]
        area, high = _whole(seen) if covered else _shown(seen)
        push = area * n_m2 / 1e6
        far = max(x * way[0] + y * way[1] for x, y in footing.outline)
        near = min(x * way[0] + y * way[1] for x, y in footing.outline)
        inside = far - (mass.at[0] * way[0] + mass.at[1] * way[1])
        over = push * (high - footing.ground_mm) - mass.kg * GRAVITY * inside
        lift = max(0.0, over / (far - near))
        each = lift / (anchors / 2) if anchors else lift
        if worst is None or over / (far - near) > worst[0]:
            worst = (over / (far - near), Wind(area / 1e6, push, lift, each))
    return worst[1] if worst else None


def _whole(seen: Sequence[list[Point2]]) -> tuple[float, float]:
    """The area of all that lies within an outline round everything, and how high its middle is."""
    return _area_and_height(hull([p for points in seen for p in points]))


def _shown(seen: Sequence[list[Point2]]) -> tuple[float, float]:
    """The area that pieces show, what lies behind each other once, and how high its middle is."""
    both = CrossSection([hull(points) for points in seen], FillRule.NonZero).to_polygons()
    parts = [_area_and_height(tuple((float(x), float(y)) for x, y in ring)) for ring in both]
    area = sum(a for a, _ in parts)  # holes run the other way round and count less
    return area, sum(a * high for a, high in parts) / area if area > SAME else 0.0


def _area_and_height(outline: tuple[Point2, ...]) -> tuple[float, float]:
    """A flat outline's area and how high its middle is."""
    area = moment = 0.0
    for (ax, ay), (bx, by) in zip(outline, (*outline[1:], outline[0]), strict=True):
        twice = ax * by - bx * ay
        area, moment = area + twice / 2, moment + (ay + by) * twice / 6
    return area, moment / area if abs(area) > SAME else 0.0


def pull_on_wall(kg: float, out_mm: float, between_mm: float) -> float:
    """How hard something that hangs is pulled off its wall at the top, N: its weight acts so far out of the wall, what holds it is so far above where it
    leans on the wall."""
    return kg * GRAVITY * out_mm / between_mm


def in_order_round(feet: Mapping[str, Point2]) -> list[str]:
    """Names of places in their order round, anticlockwise from the one that is farthest left and nearest."""
    x0 = sum(x for x, _ in feet.values()) / len(feet)
    y0 = sum(y for _, y in feet.values()) / len(feet)
    start = min(feet, key=lambda name: (round(feet[name][0] + feet[name][1], 3), round(feet[name][0], 3)))
    first = atan2(feet[start][1] - y0, feet[start][0] - x0)
    whole = 2 * np.pi
    return sorted(
        feet, key=lambda name: round((atan2(feet[name][1] - y0, feet[name][0] - x0) - first) % whole, 9) % round(whole, 9)
    )
