"""Where fasteners go: far enough from ends and edges of both boards, evenly over where these lie on each other."""

from collections.abc import Callable
from dataclasses import dataclass
from itertools import pairwise
from math import ceil

from fennup.core.assembly.model import Joint
from fennup.core.design import Design
from fennup.core.fasten.table import Rules, Screw
from fennup.core.fasten.through import Stack, contact_of, is_in, middle_of, stack_through
from fennup.core.geometry.vec import Vec, add, cross, dot, norm, scale, sub, unit
from fennup.core.parts.solid import Solid
from fennup.core.tolerances import NOTHING, SAME

LOOKS_ALONG = 0.5  # the cosine from which on a side looks along the fastener, or along the grain
BEYOND = 0.01
STEPS = 200  # places tried along a row
HALVINGS = 40


@dataclass(frozen=True)
class Margins:
    """How far a line through a board stays from its ends and from its edges, mm; endless where it has none there."""

    end_mm: float
    edge_mm: float


def margins(solid: Solid, at: Vec, way: Vec, span: tuple[float, float]) -> Margins:
    """How near a line comes to the sides of a board along which it runs, between two places on it."""
    grain, end, edge = solid.board.grain, float("inf"), float("inf")
    places = [add(at, scale(way, t)) for t in span]
    for piece in solid.world:
        for facet in piece.facets:
            normal = facet.plane.normal
            if abs(dot(normal, way)) > LOOKS_ALONG:
                continue
            nearest = min(places, key=lambda p: -facet.plane.beyond(p))
            away = -facet.plane.beyond(nearest)
            if away < -SAME or is_in(solid, add(nearest, scale(normal, away + BEYOND))):
                continue  # a line beside this piece, or a side that only parts it from another one
            if abs(dot(normal, grain)) > LOOKS_ALONG:
                end = min(end, away)
            else:
                edge = min(edge, away)
    return Margins(end, edge)


def has_room(design: Design, stack: Stack, screw: Screw, rules: Rules) -> bool:
    """Whether a fastener stays far enough from the ends and edges of both boards."""
    at = add(stack.head, scale(stack.way, stack.through_mm))
    for id, span in ((stack.near, (-stack.through_mm, 0.0)), (stack.far, (0.0, stack.into_mm))):
        found = margins(design.solids[id], at, stack.way, span)
        if found.end_mm < rules.end_shanks * screw.shank_mm - SAME or found.edge_mm < rules.edge_shanks * screw.shank_mm - SAME:
            return False
    return True


def row_of(design: Design, joint: Joint, near: str, screw: Screw, rules: Rules) -> list[Stack]:
    """Fasteners in a row along the longest way over where two boards lie on each other: the first and the last as near the ends as they may be,
    the others evenly between, no farther apart than the usual pitch. None where there is no room for one."""
    places = contact_of(design, joint)
    if not places:
        return []
    sense = 1.0 if near == joint.a.board else -1.0
    way = scale(design.solids[joint.a.board].patches(joint.a.facet)[0].plane.normal, sense)
    corners = [p for points in places for p in points]
    longest = max((sub(q, p) for p, q in pairwise([*places[0], places[0][0]])), key=norm)
    along, middle = unit(longest), middle_of(places[0])
    across = cross(way, along)
    wide = [dot(sub(p, middle), across) for p in places[0]]
    middle = add(middle, scale(across, (min(wide) + max(wide)) / 2))
    reach = [dot(sub(p, middle), along) for p in corners]

    def tried(t: float) -> Stack | None:
        stack = stack_through(design, joint, near, add(middle, scale(along, t)), way)
        return stack if stack and has_room(design, stack, screw, rules) else None

    low, high = min(reach), max(reach)
    steps = [low + (high - low) * (k + 0.5) / STEPS for k in range(STEPS)]
    room = [t for t in steps if tried(t)]
    if not room:
        return []
    step = (high - low) / STEPS
    first, last = (_edge(tried, inside, inside + sense * step) for inside, sense in ((room[0], -1.0), (room[-1], 1.0)))
    apart = rules.apart_shanks * screw.shank_mm
    count = 1 if last - first < apart else max(2, 1 + ceil((last - first) / rules.pitch_mm - NOTHING))
    wanted = [(first + last) / 2] if count == 1 else [first + (last - first) * k / (count - 1) for k in range(count)]
    return [stack for t in wanted if (stack := tried(t))]


def _edge(tried: Callable[[float], Stack | None], inside: float, outside: float) -> float:
    """The last place with room on the way out, by halving."""
    for _ in range(HALVINGS):
        middle = (inside + outside) / 2
        inside, outside = (middle, outside) if tried(middle) else (inside, middle)
    return inside


def lines_apart(a: tuple[Vec, Vec], b: tuple[Vec, Vec]) -> float:
    """The least distance between two straight pieces, each from one place to another, mm."""
    d1, d2, r = sub(a[1], a[0]), sub(b[1], b[0]), sub(a[0], b[0])
    aa, ee, ff, cc, bb = dot(d1, d1), dot(d2, d2), dot(d2, r), dot(d1, r), dot(d1, d2)
    below = aa * ee - bb * bb
    s = min(1.0, max(0.0, (bb * ff - cc * ee) / below)) if below > SAME else 0.0
    t = (bb * s + ff) / ee
    if not 0.0 <= t <= 1.0:
        t = min(1.0, max(0.0, t))
        s = min(1.0, max(0.0, (bb * t - cc) / aa))
    return norm(sub(add(a[0], scale(d1, s)), add(b[0], scale(d2, t))))
