"""The cross section of a board: actual width and thickness, and what has been ploughed out of it. All figures of it are (y, z) in the board's
axes: y across, z through."""

from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import pairwise

from fennup.core.geometry.plane import Plane, plane_through
from fennup.core.geometry.polygon import convex_parts, is_simple, signed_area
from fennup.core.geometry.polyhedron import clip_polygon, common_polygon, polygon_area
from fennup.core.geometry.vec import Point2, Vec
from fennup.core.stock.ploughed import CORNERS, Bite, Corner, Groove, Long, Milled, Ploughed, Rabbet
from fennup.core.tolerances import NOTHING, ON_LINE, SAME

# The corners and the sides of a section in the order in which they come round it.
ROUND: tuple[str, ...] = ("back_lower", "back", "back_upper", "upper", "face_upper", "face", "face_lower", "lower")
ALONG: Vec = (1.0, 0.0, 0.0)
# The turns of a section about the board that bring its rectangle onto itself, as what becomes of (y, z).
Flip = tuple[Point2, Point2]
AS_IT_IS: Flip = ((1.0, 0.0), (0.0, 1.0))


@dataclass(frozen=True)
class Section:
    """Width (y) by thickness (z), centred on the board's axis, less what is `ploughed`."""

    width_mm: float
    thickness_mm: float
    ploughed: tuple[Ploughed, ...] = ()

    @property
    def plain(self) -> bool:
        """Whether nothing is ploughed."""
        return not self.ploughed

    @property
    def rabbet(self) -> Rabbet | None:
        """The step along its upper edge that is open to the back: what a frame holds lies in it."""
        return next((cut for cut in self.ploughed if isinstance(cut, Rabbet) and cut.corner == "back_upper"), None)

    @property
    def holds_in(self) -> bool:
        """Whether there is a step or a channel that something can lie in."""
        return any(isinstance(cut, Rabbet | Groove) for cut in self.ploughed)

    @cached_property
    def milled(self) -> bool:
        """Whether anything of it is drawn freely."""
        return any(isinstance(cut, Milled) for cut in self.ploughed)

    @cached_property
    def bites(self) -> tuple[tuple[Bite, ...], ...]:
        """What each thing ploughed takes."""
        return tuple(cut.bites(self.width_mm, self.thickness_mm) for cut in self.ploughed)

    @cached_property
    def missing(self) -> frozenset[Corner]:
        """The long corners that are taken away."""
        at = {bite.at for bites in self.bites for bite in bites}
        return frozenset(corner for corner in CORNERS if corner in at)

    @property
    def pieces(self) -> tuple[tuple[Point2, ...], ...]:
        """The wood as convex polygons that touch and do not overlap, anticlockwise."""
        return self.within(())

    def within(self, rips: tuple[Plane, ...]) -> tuple[tuple[Point2, ...], ...]:
        """The same once its long edges are ripped: what lies within some planes along the board."""
        return _within(self, rips)

    @cached_property
    def outline(self) -> tuple[Point2, ...]:
        """All round it, anticlockwise, from the lower corner at the back."""
        found: dict[str, list[tuple[Point2, ...]]] = {name: [] for name in ROUND}
        for bites in self.bites:
            for bite in bites:
                found[bite.at].append(self.placed(bite))
        made: list[Point2] = []
        for name in ROUND:
            paths = found[name] or ([(self._corner(name),)] if name in CORNERS else [])
            # Along a side what comes first on the way round stands first.
            way = -1 if name in ("face", "lower") else 1
            axis = 0 if name in ("face", "back") else 1
            for path in sorted(paths, key=lambda path: way * path[0][axis]):
                made += path[1:] if made and _same(made[-1], path[0]) else path  # two may meet on a side
        return tuple(made[1:] if _same(made[0], made[-1]) else made)

    @cached_property
    def lines(self) -> tuple[tuple[tuple[Long, float, float], ...], ...]:
        """The long lines that each thing ploughed leaves on the board's own sides, as (side, y, z)."""
        found = []
        for bites in self.bites:
            points = dict.fromkeys(p for bite in bites for p in self.placed(bite))
            found.append(tuple((side, *p) for p in points if (side := self._side_at(*p))))
        return tuple(found)

    @property
    def area_mm2(self) -> float:
        """Of its wood."""
        return sum(polygon_area(piece) for piece in _pieces(self))

    @property
    def hangs_together(self) -> bool:
        """Whether what is ploughed leaves one piece of wood all round which the outline goes: nothing is cut through, no two things
        ploughed meet, and none reaches past a side."""
        ring = self.outline
        if self.milled and not (len(ring) > 2 and signed_area(ring) > NOTHING and is_simple(ring)):
            return False
        return abs(signed_area(ring) - self.area_mm2) < SAME * self.width_mm * self.thickness_mm and _joined(_pieces(self))

    def same_as(self, other: "Section", flip: Flip = AS_IT_IS) -> bool:
        """Whether the wood of another section, turned so, is this one's."""
        return (self == other and flip == AS_IT_IS) or _covers(self, other, flip)

    def width_left_mm(self, side: str) -> float:
        """How wide a flat is left on a long side: of several the sum."""
        out = {"face": (0.0, 1.0), "back": (0.0, -1.0), "upper": (1.0, 0.0), "lower": (-1.0, 0.0)}[side]
        half = (self.thickness_mm if out[1] else self.width_mm) / 2
        total = 0.0
        for (y0, z0), (y1, z1) in zip(self.outline, (*self.outline[1:], self.outline[0]), strict=True):
            if all(abs(y * out[0] + z * out[1] - half) < ON_LINE for y, z in ((y0, z0), (y1, z1))):
                total += abs(y1 - y0) + abs(z1 - z0)
        return total

    def _corner(self, name: Corner) -> Point2:
        side, _, edge = name.partition("_")
        return (self.width_mm / 2 * (1 if edge == "upper" else -1), self.thickness_mm / 2 * (1 if side == "face" else -1))

    def placed(self, bite: Bite) -> tuple[Point2, ...]:
        """A bite's path in the board's axes, in the direction of the way round."""
        half = (self.width_mm / 2, self.thickness_mm / 2)
        if bite.at in CORNERS:
            y, z = self._corner(bite.at)
            sy, sz = (1.0 if y > 0 else -1.0), (1.0 if z > 0 else -1.0)
            path = [(y - sy * a, z - sz * b) for a, b in bite.path]
            return tuple(path if bite.at in ("back_upper", "face_lower") else path[::-1])
        if bite.at in ("face", "back"):
            sz = 1.0 if bite.at == "face" else -1.0
            path = [(-half[0] + a, sz * (half[1] - b)) for a, b in bite.path]
        else:
            sy = 1.0 if bite.at == "upper" else -1.0
            path = [(sy * (half[0] - b), -half[1] + a) for a, b in bite.path]
        return tuple(path[::-1] if bite.at in ("face", "lower") else path)

    def _side_at(self, y: float, z: float) -> Long | None:
        """On which of the board's own sides a place of its section lies; None inside. At a long corner, on the wide one."""
        if abs(abs(z) - self.thickness_mm / 2) < ON_LINE:
            return "face" if z > 0 else "back"
        if abs(abs(y) - self.width_mm / 2) < ON_LINE:
            return "upper" if y > 0 else "lower"
        return None


def _same(a: Point2, b: Point2) -> bool:
    return abs(a[0] - b[0]) < ON_LINE and abs(a[1] - b[1]) < ON_LINE


def _line(a: Point2, b: Point2) -> Plane:
    """The plane along the board through two places of the way round, outwards."""
    return plane_through((0.0, a[0], a[1]), (0.0, b[1] - a[1], a[0] - b[0]))


@lru_cache(maxsize=2048)
def _pieces(section: Section) -> tuple[tuple[Vec, ...], ...]:
    """The convex pieces at x = 0: what bulges is clipped, what is hollow parts the wood along each of its walls, first those that
    reach a side, so that a floor is a side of one piece. What is milled freely is parted between its own corners."""
    if section.milled:
        return tuple(tuple((0.0, y, z) for y, z in part) for part in convex_parts(section.outline))
    y, z = section.width_mm / 2, section.thickness_mm / 2
    pieces: list[tuple[Vec, ...]] = [((0.0, -y, -z), (0.0, y, -z), (0.0, y, z), (0.0, -y, z))]
    taken = [(bite.bulges, section.placed(bite)) for bites in section.bites for bite in bites]
    for path in (path for bulges, path in taken if bulges):
        for a, b in pairwise(path):
            pieces = [left for piece in pieces if (left := clip_polygon(piece, _line(a, b)))]
    for path in (path for bulges, path in taken if not bulges):
        walls = [_line(a, b) for a, b in pairwise(path)]
        walls = [walls[0], walls[-1], *walls[1:-1]] if len(walls) > 2 else walls
        pieces = [left for piece in pieces for left in _beyond(piece, walls)]
    return tuple(pieces)


def _beyond(piece: tuple[Vec, ...], walls: list[Plane]) -> list[tuple[Vec, ...]]:
    """What of a convex piece lies within the wood of any wall of a hollow: beyond the first, then of the rest beyond the second, and so on."""
    found, inside = [], piece
    for wall in walls:
        left = clip_polygon(inside, wall) if inside else ()
        if left and polygon_area(left) > NOTHING:
            found.append(left)
        inside = clip_polygon(inside, wall.flipped()) if inside else ()
    return found if inside and polygon_area(inside) > NOTHING else [piece]


def _joined(pieces: tuple[tuple[Vec, ...], ...]) -> bool:
    """Whether one comes from every piece to every other through sides that they share."""
    if not pieces:
        return False
    reached, rest = [pieces[0]], list(pieces[1:])
    while reached:
        here = reached.pop()
        beside = [piece for piece in rest if _share_side(here, piece)]
        rest = [piece for piece in rest if piece not in beside]
        reached += beside
    return not rest


def _share_side(a: tuple[Vec, ...], b: tuple[Vec, ...]) -> bool:
    """Whether two convex pieces touch along more than a point."""
    for p, q in zip(a, (*a[1:], a[0]), strict=True):
        line = _line((p[1], p[2]), (q[1], q[2]))
        way = (line.normal[2], -line.normal[1])
        on = [r[1] * way[0] + r[2] * way[1] for r in b if abs(line.beyond(r)) < ON_LINE]
        own = [r[1] * way[0] + r[2] * way[1] for r in (p, q)]
        if len(on) > 1 and min(max(on), max(own)) - max(min(on), min(own)) > ON_LINE:
            return True
    return False


@lru_cache(maxsize=2048)
def _within(section: Section, rips: tuple[Plane, ...]) -> tuple[tuple[Point2, ...], ...]:
    found = []
    for piece in _pieces(section):
        for rip in rips:
            piece = clip_polygon(piece, rip) if piece else ()
        if piece:
            found.append(tuple((y, z) for _, y, z in piece))
    return tuple(found)


@lru_cache(maxsize=2048)
def _covers(section: Section, other: Section, flip: Flip) -> bool:
    """Whether all of one section's wood lies in the other's, turned so, and they are as large."""
    (yy, yz), (zy, zz) = flip
    turned = [tuple((0.0, yy * y + zy * z, yz * y + zz * z) for _, y, z in piece) for piece in _pieces(other)]
    keeps_way = yy * zz - yz * zy > 0
    common = 0.0
    for a in _pieces(section):
        for b in turned:
            common += polygon_area(common_polygon(a, b if keeps_way else b[::-1], ALONG))
    tolerance = SAME * section.width_mm * section.thickness_mm
    return abs(common - section.area_mm2) < tolerance and abs(common - other.area_mm2) < tolerance
