"""Can a part slide to its place along a straight line without going through wood? Convex pieces, swept, and every plane that could part them."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from fennup.core.fit.meeting import Array
from fennup.core.geometry.polyhedron import Polyhedron
from fennup.core.geometry.vec import Vec, norm, unit
from fennup.core.parts.solid import Solid

TOUCH_MM = 1e-5  # faces that touch slide along each other
SAME_WAY = 6  # digits to which two directions are the same
FAR = 3.0  # of the whole's size: so far a part comes from


@dataclass(frozen=True)
class Convex:
    """A convex piece of wood: its corners, the ways its sides look, the ways its edges run."""

    points: Array
    normals: Array
    edges: Array

    @cached_property
    def box(self) -> tuple[Array, Array]:
        """Round it."""
        return self.points.min(axis=0), self.points.max(axis=0)


def convex(piece: Polyhedron) -> Convex:
    """A solid's piece."""
    points = np.array(piece.points)
    edges = [points[f.loop[k]] - points[f.loop[k - 1]] for f in piece.facets for k in range(len(f.loop))]
    return Convex(points, _ways([f.plane.normal for f in piece.facets]), _ways([tuple(e) for e in edges]))


def _ways(found: Iterable[tuple[float, ...]]) -> Array:
    """Directions, each once, whichever way round."""
    seen: dict[tuple[float, ...], Vec] = {}
    for v in found:
        way: Vec = (float(v[0]), float(v[1]), float(v[2]))
        if norm(way) > TOUCH_MM:
            way = unit(way)
            key = tuple(round(c, SAME_WAY) + 0.0 for c in way)
            flipped = tuple(-c + 0.0 for c in key)
            if key not in seen and flipped not in seen:
                seen[key] = way
    return np.array(list(seen.values())).reshape(-1, 3)


class Room:
    """The wood of an assembly, to ask whether some of it can come and go."""

    def __init__(self, solids: dict[str, Solid]) -> None:
        self.pieces = {id: [convex(piece) for piece in solid.world] for id, solid in solids.items()}
        every = np.vstack([c.points for of in self.pieces.values() for c in of])
        self.size = float(np.linalg.norm(every.max(axis=0) - every.min(axis=0))) * FAR

    def is_free(self, moved: Iterable[str], others: Iterable[str], way: Vec) -> bool:
        """Whether some boards can be drawn away from others along a direction."""
        by = np.array(way) * self.size
        moving = [c for id in moved for c in self.pieces[id]]
        return not any(_hits(a, b, by) for id in others for b in self.pieces[id] for a in moving)


def _hits(a: Convex, b: Convex, by: Array) -> bool:
    """Whether a piece that is moved goes through another one: no plane parts what it sweeps from it."""
    low, high = a.box
    low, high = np.minimum(low, low + by), np.maximum(high, high + by)
    other_low, other_high = b.box
    if bool(np.any(low >= other_high - TOUCH_MM)) or bool(np.any(other_low >= high - TOUCH_MM)):
        return False
    for axes in (a.normals, b.normals, np.cross(by / np.linalg.norm(by), a.edges), np.cross(by / np.linalg.norm(by), b.edges)):
        if _parted(a, b, by, axes):
            return False
    crossed = np.cross(a.edges[:, None, :], b.edges[None, :, :]).reshape(-1, 3)
    return not _parted(a, b, by, crossed)


def _parted(a: Convex, b: Convex, by: Array, axes: Array) -> bool:
    """Whether one of some directions has all of the one beyond all of the other."""
    sizes = np.linalg.norm(axes, axis=1)
    axes = axes[sizes > TOUCH_MM] / sizes[sizes > TOUCH_MM, None]
    if not len(axes):
        return False
    here, there, shift = a.points @ axes.T, b.points @ axes.T, by @ axes.T
    low, high = here.min(axis=0) + np.minimum(shift, 0.0), here.max(axis=0) + np.maximum(shift, 0.0)
    return bool(np.any((low >= there.max(axis=0) - TOUCH_MM) | (high <= there.min(axis=0) + TOUCH_MM)))
