"""How every assembly of a project stands: as it is made or on another of its sides, on the ground, on what is under it, or laid on a
face of that; turned about upright; moved."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from math import cos, radians, sin

from fennup.core.assembly.board import ENDS, Board
from fennup.core.errors import SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, add, cross, dot, norm, scale, sub, unit
from fennup.core.kinds.gauged import Paper
from fennup.core.kinds.sticks import LONG_SIDES
from fennup.core.parts.solid import Solid
from fennup.core.project.spec import Facet, Member
from fennup.core.tolerances import SAME

X: Vec = (1.0, 0.0, 0.0)
Y: Vec = (0.0, 1.0, 0.0)
UP: Vec = (0.0, 0.0, 1.0)
Axes = tuple[Vec, Vec, Vec]
AS_MADE: Axes = (X, Y, UP)
STRAIGHT = 1e-9


@dataclass(frozen=True)
class Stance:
    """Where an assembly's own axes lie in the project's, and where its own origin is."""

    axes: Axes = AS_MADE
    shift: Vec = (0.0, 0.0, 0.0)

    def way(self, v: Vec) -> Vec:
        """A direction of its own in the project's axes."""
        a, b, c = self.axes
        return add(scale(a, v[0]), add(scale(b, v[1]), scale(c, v[2])))

    def place(self, p: Vec) -> Vec:
        """A place of its own in the project's axes."""
        return add(self.way(p), self.shift)

    def board(self, board: Board, id: str) -> Board:
        """One of its boards where it stands, under another key."""
        if self.axes == AS_MADE:
            frame = Frame(add(board.frame.origin, self.shift), board.frame.x, board.frame.y, board.frame.z)
        else:
            f = board.frame
            frame = Frame(self.place(f.origin), self.way(f.x), self.way(f.y), self.way(f.z))
        return board.but(id=id, frame=frame)

    def paper(self, paper: Paper) -> Paper:
        """One of its own papers as it then lies."""
        return Paper(paper.id, self.way(paper.right), self.way(paper.up))


def turned_to(a: Vec, b: Vec) -> Axes:
    """The shortest turn that brings one unit direction to another one; half round about x, or about y, where they are opposite."""
    c, axis = dot(a, b), cross(a, b)
    if norm(axis) < STRAIGHT:
        if c > 0:
            return AS_MADE
        axis = X if abs(a[0]) < abs(a[1]) or abs(a[2]) > abs(a[0]) else Y
        axis = unit(sub(axis, scale(a, dot(axis, a))))
        return _about(axis, -1.0, 0.0)
    return _about(unit(axis), c, norm(axis))


def _about(axis: Vec, c: float, s: float) -> Axes:
    """The turn about an axis by an angle with that cosine and sine (Rodrigues)."""

    def turned(v: Vec) -> Vec:
        return add(scale(v, c), add(scale(cross(axis, v), s), scale(axis, dot(axis, v) * (1 - c))))

    return turned(X), turned(Y), turned(UP)


def then(first: Axes, second: Axes) -> Axes:
    """Two turns one after another."""
    later = Stance(second)
    return later.way(first[0]), later.way(first[1]), later.way(first[2])


def plane_of(solids: Mapping[str, Solid], facet: Facet, field: str) -> Plane:
    """The plane of a side or an end of a board, outwards. SpecError `no_such_rest`."""
    solid = solids.get(facet.board)
    patches = solid.patches(facet.facet) if solid else ()
    if not patches:
        raise SpecError("no_such_rest", (field,), part=facet.board)
    return patches[0].plane


def points_of(solids: Mapping[str, Solid]) -> list[Vec]:
    """Every corner of an assembly's wood."""
    return [p for solid in solids.values() for piece in solid.world for p in piece.points]


@dataclass(frozen=True)
class Under:
    """What an assembly stands on: a plane, outwards, and the middle of it where it is a face; no middle on the ground or on the
    highest wood, where each keeps its own place."""

    plane: Plane
    middle: Vec | None = None


def stance_of(member: Member, solids: Mapping[str, Solid], under: Under | None, field: str) -> Stance:
    """How a member stands on what is under it; without anything on the ground, there at its own level as long as it is as it is made.

    SpecError `no_such_rest`, `not_a_rest` where its wood reaches past the side on which it is to stand.
    """
    down: Vec = (0.0, 0.0, -1.0)
    axes = AS_MADE
    points = points_of(solids)
    if member.down is not None:
        plane = plane_of(solids, member.down, f"{field}.down")
        past = max(plane.beyond(p) for p in points)
        if past > SAME:
            raise SpecError("not_a_rest", (f"{field}.down",), part=member.down.board, mm=past)
        axes = turned_to(plane.normal, down)
    if member.turned_deg:
        turn = radians(member.turned_deg)
        axes = then(axes, _about(UP, cos(turn), sin(turn)))
    normal = under.plane.normal if under else UP
    if under and under.middle is not None:
        axes = then(axes, turned_to(UP, normal))
    here = Stance(axes)
    level = min(dot(here.way(p), normal) for p in points)
    if under and under.middle is not None:
        right, back = across(normal)
        feet = [q for q in map(here.way, points) if dot(q, normal) < level + SAME]
        middle = _middle(feet, right, back)
        at = add(under.middle, add(scale(right, member.right_mm), add(scale(back, member.back_mm), scale(normal, member.up_mm))))
        return Stance(axes, sub(at, middle))
    base = under.plane.offset - level if under else -level if member.down is not None else 0.0
    return Stance(axes, (member.right_mm, member.back_mm, base + member.up_mm))


def across(normal: Vec) -> tuple[Vec, Vec]:
    """Two directions in a plane: level to the right as far as it goes, and square to that, backwards or upwards."""
    right = sub(X, scale(normal, normal[0]))
    right = unit(right) if norm(right) > SAME else Y
    level = cross(UP, normal)
    if norm(level) > SAME:  # a sloping face: along it level, and up it
        right = unit(level) if dot(level, X) >= -SAME else unit(scale(level, -1.0))
    return right, cross(normal, right)


def _middle(points: list[Vec], right: Vec, back: Vec) -> Vec:
    """The middle of the box round some places in a plane."""
    spans = [[dot(p, way) for p in points] for way in (right, back)]
    normal = cross(right, back)
    x, y = ((min(s) + max(s)) / 2 for s in spans)
    return add(scale(right, x), add(scale(back, y), scale(normal, dot(points[0], normal))))


def face_under(solids: Mapping[str, Solid], stance: Stance, facet: Facet, field: str) -> Under:
    """A face of an assembly, where it stands, as what another one is laid on. SpecError `no_such_rest`."""
    own = plane_of(solids, facet, field)
    flat = [
        p
        for solid in solids.values()
        for piece in solid.world
        for f in piece.facets
        if _same(f.plane, own)
        for p in piece.corners(f)
    ]
    normal = stance.way(own.normal)
    places = [stance.place(p) for p in flat]
    return Under(Plane(normal, dot(places[0], normal)), _middle(places, *across(normal)))


def _same(a: Plane, b: Plane) -> bool:
    return dot(a.normal, b.normal) > 1 - STRAIGHT and abs(a.offset - b.offset) < SAME


def rests(solids: Mapping[str, Solid]) -> Iterator[tuple[Facet, Vec, tuple[str, ...]]]:
    """Every plane on which an assembly can stand, because all its wood lies on one side of it: a facet of it, its outward normal, and
    the boards that have one there."""
    points = points_of(solids)
    found: list[tuple[Plane, Facet, list[str]]] = []
    for id, solid in solids.items():
        names = [*LONG_SIDES, *(f"{end}:{k}" for end in ENDS for k in range(len(solid.board.ends(end))))]
        for name in names:
            for patch in solid.patches(name)[:1]:
                known = next((entry for entry in found if _same(entry[0], patch.plane)), None)
                if known:
                    known[2].append(id)
                elif max(patch.plane.beyond(p) for p in points) < SAME:
                    found.append((patch.plane, Facet(board=id, facet=name), [id]))
    for plane, facet, ids in found:
        yield facet, plane.normal, tuple(dict.fromkeys(ids))
