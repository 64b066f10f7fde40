"""What a straight fastener goes through: how long its way is in every board, from the finished solids."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import acos, cos, degrees, radians, sin

from fennup.core.assembly.model import Joint
from fennup.core.design import Design
from fennup.core.geometry.polyhedron import polygon_area
from fennup.core.geometry.vec import Vec, add, cross, dot, scale, unit
from fennup.core.parts.solid import Patch, Solid, common_area
from fennup.core.tolerances import ON_LINE, SAME

RUNS_ALONG = 1e-12  # a line that runs along a side more nearly than that never comes to it
END_GRAIN_DEG = 30.0  # within this of the grain a fastener goes into end grain
NO_STACK_MM = 200.0  # a board that is longer than this along the fastener is none that one screws through


@dataclass(frozen=True)
class Stack:
    """A fastener's straight way through two boards that meet: from its `head` on the near one along `way`, so far through that, and
    so far into the far one until it would come out; `grain_deg` is the angle between it and the far board's grain."""

    joint: str
    near: str
    far: str
    head: Vec
    way: Vec
    through_mm: float
    into_mm: float
    grain_deg: float

    @property
    def into_end_grain(self) -> bool:
        """Whether it holds in end grain, which is weak."""
        return self.grain_deg < END_GRAIN_DEG


def spans(solid: Solid, at: Vec, way: Vec) -> list[tuple[float, float]]:
    """From where to where a line runs inside a board: mm along a unit direction from a place, in order; pieces that touch are one."""
    found = []
    for piece in solid.world:
        low, high = float("-inf"), float("inf")
        for facet in piece.facets:
            ahead, room = dot(facet.plane.normal, way), -facet.plane.beyond(at)
            if abs(ahead) < RUNS_ALONG:
                low, high = (low, high) if room >= -ON_LINE else (1.0, 0.0)
            elif ahead > 0:
                high = min(high, room / ahead)
            else:
                low = max(low, room / ahead)
        if high - low > ON_LINE:
            found.append((low, high))
    merged: list[tuple[float, float]] = []
    for low, high in sorted(found):
        if merged and low - merged[-1][1] < SAME:
            merged[-1] = (merged[-1][0], max(merged[-1][1], high))
        else:
            merged.append((low, high))
    return merged


def is_in(solid: Solid, at: Vec) -> bool:
    """Whether a place lies in the wood of a board."""
    return any(all(facet.plane.beyond(at) < 0 for facet in piece.facets) for piece in solid.world)


def contact_of(design: Design, joint: Joint) -> list[tuple[Vec, ...]]:
    """Where the two boards of a joint lie on each other: flat convex places, the largest first."""
    a, b = (_patches(design, mating.board, mating.facet) for mating in (joint.a, joint.b))
    others = [patch for id in joint.b.beside for patch in _patches(design, id, joint.b.facet)]
    return sorted(common_area(a, (*b, *others)), key=polygon_area, reverse=True)


def _patches(design: Design, board: str, facet: str) -> tuple[Patch, ...]:
    return design.solids[board].patches(facet)


def middle_of(points: Sequence[Vec]) -> Vec:
    """The middle of a flat convex place: that of its triangles, each by its area."""
    first, total, weight = points[0], (0.0, 0.0, 0.0), 0.0
    for b, c in pairwise(points[1:]):
        area = polygon_area((first, b, c))
        total = add(total, scale(add(first, add(b, c)), area / 3.0))
        weight += area
    return scale(total, 1.0 / weight) if weight else first


def stack_through(design: Design, joint: Joint, near: str, at: Vec, way: Vec) -> Stack | None:
    """The stack of a fastener that goes out of `near` into the other board at a place of their contact; None where it does not."""
    far = joint.b.board if near == joint.a.board else joint.a.board
    before = next((s for s in spans(design.solids[near], at, way) if abs(s[1]) < SAME), None)
    after = next((s for s in spans(design.solids[far], at, way) if abs(s[0]) < SAME), None)
    if before is None or after is None or -before[0] > NO_STACK_MM:
        return None
    grain = degrees(acos(min(1.0, abs(dot(way, design.boards[far].grain)))))
    return Stack(joint.id, near, far, add(at, scale(way, before[0])), way, -before[0], after[1], grain)


def stacks_of(design: Design, joint: Joint) -> list[Stack]:
    """The ways through a joint square to where its boards meet, at the middle of that: through the one, or through the other, the shorter way
    through first. None of boards that are there already."""
    places = contact_of(design, joint)
    if not places:
        return []
    out = design.solids[joint.a.board].patches(joint.a.facet)[0].plane.normal
    found = []
    for near, way in ((joint.a.board, out), (joint.b.board, scale(out, -1.0))):
        stack = stack_through(design, joint, near, middle_of(places[0]), way)
        if stack and not design.boards[near].found:
            found.append(stack)
    return sorted(found, key=lambda stack: stack.through_mm)


def skewed(way: Vec, about: Vec, deg: float) -> Vec:
    """A direction turned out of square, about an axis in the boards' common plane."""
    axis, turn = unit(about), radians(deg)
    return add(scale(way, cos(turn)), scale(cross(axis, way), sin(turn)))
