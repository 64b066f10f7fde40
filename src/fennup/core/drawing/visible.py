"""What of every edge is seen from one side: sides that lie behind others are cut away, so that a plotter or a CAD program draws what the screen shows."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from itertools import pairwise
from math import atan2, cos, pi, sin

import numpy as np
from manifold3d import CrossSection

from fennup.core.geometry.polyhedron import Polyhedron
from fennup.core.geometry.vec import Point2, Vec, cross, dot

EDGE_ON = 1e-5  # a side that looks so little to the reader is a line, which its neighbours draw
CRUMB_MM2 = 1e-5  # of a side that another one only seems to cover
SAME_LINE = 5  # decimals of a line's direction and distance, by which pieces of one edge are found
Edge = tuple[Point2, Point2]


@dataclass(frozen=True)
class _Side:
    """A convex side that looks to the reader: whose it is, its corners on the paper, and its depth there, a + b x + c y, the larger the nearer."""

    id: str
    flat: tuple[Point2, ...]
    depth: tuple[float, float, float]
    area: CrossSection

    @property
    def box(self) -> tuple[float, float, float, float]:
        xs, ys = zip(*self.flat, strict=True)
        return min(xs), min(ys), max(xs), max(ys)

    def at(self, p: Point2) -> float:
        """How near it is at a place of the paper."""
        return self.depth[0] + self.depth[1] * p[0] + self.depth[2] * p[1]


def visible_edges(solids: Mapping[str, Iterable[Polyhedron]], right: Vec, up: Vec) -> dict[str, list[Edge]]:
    """The edges of every solid, by its id, that one sees, each once, in mm on the paper; `right` and `up` are its unit directions. Where two pieces
    of one solid lie flush there is no edge."""
    sides = _sides(solids, right, up)
    boxes = np.array([side.box for side in sides]) if sides else np.empty((0, 4))
    seen: dict[tuple[str, tuple[float, ...]], CrossSection] = {}
    for side in sides:
        left = side.area
        x0, y0, x1, y1 = side.box
        near = (boxes[:, 0] < x1) & (boxes[:, 2] > x0) & (boxes[:, 1] < y1) & (boxes[:, 3] > y0)
        for other in (sides[k] for k in np.flatnonzero(near)):
            if other is not side and _hides(other, side):
                left -= other.area
        if left.area() > CRUMB_MM2:
            key = (side.id, tuple(round(value, SAME_LINE) + 0.0 for value in side.depth))
            seen[key] = seen[key] + left if key in seen else left
    runs: dict[str, list[Edge]] = {id: [] for id in solids}
    for (id, _), area in seen.items():
        for loop in area.to_polygons():
            points = [(float(x), float(y)) for x, y in loop]
            runs[id] += pairwise([*points, points[0]])
    return {id: joined(edges) for id, edges in runs.items()}


def _sides(solids: Mapping[str, Iterable[Polyhedron]], right: Vec, up: Vec) -> list[_Side]:
    reader = cross(right, up)
    found = []
    for id, pieces in solids.items():
        for piece in pieces:
            for facet in piece.facets:
                toward = dot(facet.plane.normal, reader)
                if toward < EDGE_ON:
                    continue
                flat = tuple((dot(p, right), dot(p, up)) for p in piece.corners(facet))
                slopes = [-dot(facet.plane.normal, way) / toward for way in (right, up)]
                depth = (facet.plane.offset / toward, slopes[0], slopes[1])
                found.append(_Side(id, flat, depth, CrossSection([np.array(flat)])))
    return found


def _hides(front: _Side, back: _Side) -> bool:
    """Whether one side covers something of another: they never pass through each other, so one place tells."""
    common = front.area ^ back.area
    if common.area() < CRUMB_MM2:
        return False
    loop = np.concatenate(common.to_polygons())
    middle = (float(loop[:, 0].mean()), float(loop[:, 1].mean()))
    return front.at(middle) > back.at(middle) + EDGE_ON


def joined(edges: Iterable[Edge]) -> list[Edge]:
    """Edges without doubles: those that lie in one line and overlap are parted where any of them ends, and each stretch stands once."""
    lines: dict[tuple[float, float], list[tuple[float, float, Edge]]] = {}
    for a, b in edges:
        turn = atan2(b[1] - a[1], b[0] - a[0]) % pi
        turn = 0.0 if turn > pi - 10.0**-SAME_LINE else turn
        along, off = (cos(turn), sin(turn)), (-sin(turn), cos(turn))
        span = sorted((p[0] * along[0] + p[1] * along[1], p) for p in (a, b))
        if span[1][0] - span[0][0] > EDGE_ON:
            key = (round(turn, SAME_LINE) + 0.0, round(a[0] * off[0] + a[1] * off[1], SAME_LINE - 2) + 0.0)
            lines.setdefault(key, []).append((span[0][0], span[1][0], (span[0][1], span[1][1])))
    made: list[Edge] = []
    for key in sorted(lines):
        spans = lines[key]
        ends = sorted([(low, a) for low, _, (a, _) in spans] + [(high, b) for _, high, (_, b) in spans])
        stops = [ends[0], *(end for before, end in pairwise(ends) if end[0] - before[0] > EDGE_ON)]
        for (low, a), (high, b) in pairwise(stops):
            middle = (low + high) / 2
            if any(start < middle < end for start, end, _ in spans):
                made.append((a, b))
    return made
