"""What a ring of walls holds, filled to a level: from the finished solids, whatever made them."""

from dataclasses import dataclass

from fennup.core.assembly.board import Board, Side
from fennup.core.assembly.model import Ring
from fennup.core.design import Design
from fennup.core.errors import SpecError
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.polyhedron import Polyhedron, clip
from fennup.core.geometry.vec import Vec, add, dot, scale, sub
from fennup.core.parts.solid import Solid, uncut_piece
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING

LITRE_MM3 = 1e6
AROUND_MM = 10.0  # beyond the walls, where the uncut room begins
UP: Vec = (0.0, 0.0, 1.0)
WIDE: tuple[Side, Side] = ("face", "back")


@dataclass(frozen=True)
class Filled:
    """What lies between some walls: from a level up to another one, mm."""

    from_mm: float
    to_mm: float
    room: Polyhedron

    @property
    def litres(self) -> float:
        """How much that is."""
        return self.room.volume() / LITRE_MM3

    @property
    def middle(self) -> Vec:
        """Where its weight acts."""
        return scale(self.room.moment(), 1.0 / self.room.volume())


def filled(design: Design, ring: Ring, to_mm: float) -> Filled:
    """What a closed ring of walls holds up to a level: between the sides of its boards that look to its middle, from the highest wood under
    that middle; what stands in it is not taken off. SpecError `holds_nothing` where there is no room, or no floor under it."""
    walls = [design.boards[id] for id in ring.boards]
    points = [p for id in ring.boards for piece in design.solids[id].world for p in piece.points]
    middle = scale(_sum([_middle(design.solids[id]) for id in ring.boards]), 1.0 / len(walls))
    low, high = (
        tuple(limit(p[k] for p in points) + sense * AROUND_MM for k in range(3)) for limit, sense in ((min, -1.0), (max, 1.0))
    )
    around = ((low[1], low[2]), (high[1], low[2]), (high[1], high[2]), (low[1], high[2]))
    room = uncut_piece((low[0], high[0]), around, Section(1.0, 1.0))
    for wall in walls:
        room = clip(room, _inside(wall, design.solids[wall.id], middle), wall.id)
    floor = _floor_under(design, (middle[0], middle[1]), to_mm)
    if floor is not None:
        room = clip(clip(room, Plane(scale(UP, -1.0), -floor), "floor"), Plane(UP, to_mm), "level")
    if floor is None or not room.facets or room.volume() < NOTHING:
        raise SpecError("holds_nothing", ("fill.level_mm",), mm=to_mm)
    return Filled(floor, to_mm, room)


def _inside(wall: Board, solid: Solid, middle: Vec) -> Plane:
    """The plane of a wall's wide side that looks to the middle, keeping what lies before it."""
    inwards = sub(middle, _middle(solid))
    side = max(WIDE, key=lambda name: dot(wall.side_in_world(name).normal, inwards))
    return wall.side_in_world(side).flipped()


def _floor_under(design: Design, at: tuple[float, float], level: float) -> float | None:
    """The level of the highest wood plumb under a place that lies below a level."""
    found = []
    for solid in design.solids.values():
        for piece in solid.world:
            over = [f.plane for f in piece.facets if f.plane.normal[2] > NOTHING]
            beside = [f.plane for f in piece.facets if abs(f.plane.normal[2]) <= NOTHING]
            if not over or any(plane.beyond((*at, 0.0)) > 0 for plane in beside):
                continue
            top = min((plane.offset - plane.normal[0] * at[0] - plane.normal[1] * at[1]) / plane.normal[2] for plane in over)
            if top < level - NOTHING:
                found.append(top)
    return max(found, default=None)


def _middle(solid: Solid) -> Vec:
    volume = solid.volume()
    return scale(_sum([piece.moment() for piece in solid.world]), 1.0 / volume)


def _sum(vectors: list[Vec]) -> Vec:
    total: Vec = (0.0, 0.0, 0.0)
    for vector in vectors:
        total = add(total, vector)
    return total
