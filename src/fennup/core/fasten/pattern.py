"""Where fasteners go: far enough from ends and edges of both boards, evenly over where these lie on each other."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from math import ceil

from fennup.core.assembly.model import Joint
from fennup.core.design import Design
from fennup.core.fasten.table import Rules
from fennup.core.fasten.through import Stack, contact_of, is_in, middle_of, skewed, stack_through
from fennup.core.geometry.vec import Vec, add, cross, dot, norm, scale, sub, unit
from fennup.core.parts.solid import Solid
from fennup.core.tolerances import NOTHING, ON_LINE, SAME

LOOKS_ALONG = 0.5  # the cosine from which on a side looks along the fastener, or along the grain
ACROSS = 0.9999  # the cosine from which on two sides of a board never meet in a feather edge
BEYOND = 0.01
STEPS = 60  # places tried along a row
HALVINGS = 24


@dataclass(frozen=True)
class Margins:
    """How far a line through a board stays from its ends and from its edges, mm; endless where it has none there."""

    end_mm: float
    edge_mm: float


def margins(solid: Solid, at: Vec, way: Vec, span: tuple[float, float]) -> Margins:
    """How near a line comes to the sides of a board along which it runs, between two places on it; and, where the place lies on a side of the board, how
    near that comes to the feather edge of a side that slants over it: there the board has run out."""
    grain, end, edge = solid.board.grain, float("inf"), float("inf")
    places = [add(at, scale(way, t)) for t in span]
    facets = [facet for piece in solid.world for facet in piece.facets]
    met = [f.plane.normal for f in facets if abs(f.plane.beyond(at)) < ON_LINE and abs(dot(f.plane.normal, way)) > LOOKS_ALONG]
    for facet in facets:
        normal, nearest = facet.plane.normal, at
        if abs(dot(normal, way)) > LOOKS_ALONG:
            if not met or abs(dot(normal, met[0])) > ACROSS:
                continue
            level = sub(normal, scale(met[0], dot(normal, met[0])))
            away = -facet.plane.beyond(at) / norm(level)
            normal = unit(level)
        else:
            nearest = min(places, key=lambda p: -facet.plane.beyond(p))
            away = -facet.plane.beyond(nearest)
        along = abs(dot(normal, grain)) > LOOKS_ALONG
        if away >= (end if along else edge):
            continue
        if away < -SAME or is_in(solid, add(nearest, scale(normal, away + BEYOND))):
            continue  # a line beside this piece, or a side that only parts it from another one
        end, edge = (away, edge) if along else (end, away)
    return Margins(end, edge)


def has_room(design: Design, stack: Stack, shank_mm: float, rules: Rules) -> bool:
    """Whether a fastener stays far enough from the ends and edges of both boards."""
    at = add(stack.head, scale(stack.way, stack.through_mm))
    bite = min(stack.into_mm, shank_mm * rules.bite_shanks)  # what comes after is the tip's own length
    for id, span in ((stack.near, (-stack.through_mm, 0.0)), (stack.far, (0.0, bite))):
        found = margins(design.solids[id], at, stack.way, span)
        if found.end_mm < rules.end_shanks * shank_mm - SAME or found.edge_mm < rules.edge_shanks * shank_mm - SAME:
            return False
    return True


@dataclass(frozen=True)
class Wish:
    """How a row is wanted: leaning so far out of square, along the row or across it; so many, or as many as usual; every other one aside."""

    lean_deg: float = 0.0
    lean_along: bool = False
    count: int | None = None
    staggered: bool = False


PLAIN = Wish()


class Line:
    """The line that a row goes along: where two boards lie on each other, the longest way over, in the middle. `way`: how the fasteners go in.
    None of them where the two do not lie on each other."""

    def __init__(self, design: Design, joint: Joint, near: str, wish: Wish = PLAIN) -> None:
        self.design, self.joint, self.near = design, joint, near
        self.places = contact_of(design, joint)
        if not self.places:
            return
        sense = 1.0 if near == joint.a.board else -1.0
        square = scale(design.solids[joint.a.board].patches(joint.a.facet)[0].plane.normal, sense)
        first = self.places[0]
        longest = max((sub(q, p) for p, q in pairwise([*first, first[0]])), key=norm)
        self.along = unit(longest)
        self.across = cross(square, self.along)
        self.way = skewed(square, self.across if wish.lean_along else self.along, wish.lean_deg) if wish.lean_deg else square
        middle = middle_of(first)
        wide = [dot(sub(p, middle), self.across) for p in first]
        self.half = (max(wide) - min(wide)) / 2
        self.middle = add(middle, scale(self.across, (min(wide) + max(wide)) / 2))
        reach = [dot(sub(p, self.middle), self.along) for points in self.places for p in points]
        self.low, self.high = min(reach), max(reach)

    def at(self, t: float, aside: float = 0.0) -> Stack | None:
        """The way through at a place along it."""
        place = add(self.middle, add(scale(self.along, t), scale(self.across, aside)))
        return stack_through(self.design, self.joint, self.near, place, self.way)


def row_of(
    design: Design,
    joint: Joint,
    near: str,
    shank_mm: float,
    rules: Rules,
    wish: Wish = PLAIN,
    known: Sequence[float] = (),
    does: Callable[[Stack], bool] = lambda _: True,
) -> list[Stack]:
    """Fasteners in a row along the longest way over where two boards lie on each other: the first and the last as near the ends as they may be,
    the others evenly between, no farther apart than the usual pitch. `known`: where they are along an alike joint, which is tried first. `does`: what
    else a place must do: have wood enough for some length. None where there is no room for one."""
    line = Line(design, joint, near, wish)
    if not line.places:
        return []

    def tried(t: float, aside: float = 0.0) -> Stack | None:
        stack = line.at(t, aside)
        return stack if stack and does(stack) and has_room(design, stack, shank_mm, rules) else None

    aside = line.half / 2 if wish.staggered else 0.0

    def set_out(places: Sequence[float]) -> list[Stack]:
        both = [(t, aside if k % 2 else -aside) for k, t in enumerate(places)]
        return [stack for t, off in both if (stack := tried(t, off) or tried(t))]

    if known and len(made := set_out(known)) == len(known):
        return made
    low, high = line.low, line.high
    step = (high - low) / STEPS

    def room_at(t: float) -> bool:
        return bool(tried(t, aside)) and (not aside or bool(tried(t, -aside)))

    room = [t for k in range(STEPS) if room_at(t := low + step * (k + 0.5))]
    if not room and aside:  # no room for two lines: one
        return row_of(design, joint, near, shank_mm, rules, replace(wish, staggered=False), known, does)
    if not room:
        return []
    first, last = (_edge(room_at, inside, inside + sense * step) for inside, sense in ((room[0], -1.0), (room[-1], 1.0)))
    apart = rules.apart_shanks * shank_mm
    usual = 1 if last - first < apart else max(2, 1 + ceil((last - first) / rules.pitch_mm - NOTHING))
    count = wish.count or usual
    middle = (first + last) / 2
    if count == 1:  # the room may be in two pieces
        return set_out([middle if room_at(middle) else min(room, key=lambda t: abs(t - middle))])
    return set_out([first + (last - first) * k / (count - 1) for k in range(count)])


def places_along(design: Design, joint: Joint, near: str, row: Sequence[Stack], wish: Wish = PLAIN) -> list[float]:
    """Where fasteners of a row are along its line, mm from the middle."""
    line = Line(design, joint, near, wish)
    return [dot(sub(add(s.head, scale(s.way, s.through_mm)), line.middle), line.along) for s in row]


def _edge(tried: Callable[[float], bool], inside: float, outside: float) -> float:
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
