"""Do the faces of a joint lie in one plane and cover each other? Measured on the solids."""

from dataclasses import dataclass, replace

from fennup.core.assembly.model import Assembly, Joint, Mating
from fennup.core.geometry.plane import plane_through
from fennup.core.geometry.polyhedron import clip_polygon, polygon_area, shared_volume
from fennup.core.geometry.vec import Vec, cross, dot, norm, sub
from fennup.core.parts.solid import Patch, Solid, common_area, solid_of
from fennup.core.tolerances import NOTHING, SHARED
from fennup.core.verify.near import bounds, near_pairs, overlap

CLOSED_MM = 1e-6


@dataclass(frozen=True)
class JointCheck:
    """A joint as measured. `gap_mm` widest opening, `overlap_mm` deepest interference, `bare_mm` the width of the
    widest strip of a mating face that nothing covers; `by_design` when only the rabbets leave it bare; `touches`: something of
    it is covered."""

    joint: str
    gap_mm: float
    overlap_mm: float
    bare_mm: float
    by_design: bool
    touches: bool = True

    @property
    def closes(self) -> bool:
        """No gap, no overlap, and nothing bare that was not meant to be."""
        touching = self.gap_mm <= CLOSED_MM and self.overlap_mm <= CLOSED_MM
        return touching and (self.bare_mm <= CLOSED_MM or self.by_design)

    @property
    def reaches_past(self) -> bool:
        """Whether the faces touch, and all that is wrong is that one is larger than what it should lie on."""
        return not self.closes and self.touches and max(self.gap_mm, self.overlap_mm) <= CLOSED_MM


def check_joint(assembly: Assembly, joint: Joint, solids: dict[str, Solid]) -> JointCheck:
    """Measure one joint."""
    a = solids[joint.a.board].patches(joint.a.facet)
    b = solids[joint.b.board].patches(joint.b.facet)
    if not a or not b:  # a face that other cuts have taken away altogether
        return JointCheck(joint.id, 0.0, 0.0, assembly.board(joint.a.board).section.thickness_mm, False, False)
    gap, overlap = _apart(joint, a, b)
    bare, by_design, touches = 0.0, False, True
    if joint.kind == "face":
        touches = bool(common_area(a, _and_beside(joint.b, solids)))
        bare = 0.0 if touches else assembly.board(joint.a.board).section.thickness_mm
        return JointCheck(joint.id, gap, overlap, bare, False, touches)
    if gap <= CLOSED_MM and overlap <= CLOSED_MM:
        near_a, near_b = (_and_beside(mating, solids) for mating in (joint.a, joint.b))
        bare = _bare(joint, a, b, near_a, near_b)
    if bare > CLOSED_MM:
        touches = _touches(a, near_b)
    if bare > CLOSED_MM and joint.bare_for:
        by_design = touches
    elif bare > CLOSED_MM:
        plain = [_unploughed(assembly, m.board).patches(m.facet) for m in (joint.a, joint.b)]
        by_design = _bare(joint, plain[0], plain[1], plain[0], plain[1]) <= CLOSED_MM
    return JointCheck(joint.id, gap, overlap, bare, by_design, touches)


def _and_beside(mating: Mating, solids: dict[str, Solid]) -> tuple[Patch, ...]:
    """The mating face and those beside it in the same plane."""
    return tuple(p for board in (mating.board, *mating.beside) for p in solids[board].patches(mating.facet))


def _apart(joint: Joint, a: tuple[Patch, ...], b: tuple[Patch, ...]) -> tuple[float, float]:
    """Widest opening and deepest interference: every corner of a miter's faces from the other face's plane.

    Of a butt only the end that stands on the other board is tried.
    """
    offs = [b[0].plane.beyond(p) for facet in a for p in facet.points]
    if joint.kind != "butt":
        offs += [a[0].plane.beyond(p) for facet in b for p in facet.points]
    return max(0.0, *offs), max(0.0, *(-off for off in offs))


def _bare(
    joint: Joint, a: tuple[Patch, ...], b: tuple[Patch, ...], near_a: tuple[Patch, ...], near_b: tuple[Patch, ...]
) -> float:
    """Width of the widest strip of a (and of b, but for a butt) that the other and those beside it leave uncovered."""
    left = _uncovered(a, near_b)
    if joint.kind != "butt":
        left += _uncovered(b, near_a)
    return max((_narrow_width(points, a[0].plane.normal) for points in left), default=0.0)


def _touches(a: tuple[Patch, ...], covers: tuple[Patch, ...]) -> bool:
    """Whether at least some of a face is covered."""
    whole = sum(polygon_area(facet.points) for facet in a)
    return sum(polygon_area(points) for points in _uncovered(a, covers)) < whole * (1 - NOTHING)


def _uncovered(facets: tuple[Patch, ...], covers: tuple[Patch, ...]) -> list[tuple[Vec, ...]]:
    """What remains of some flat convex pieces when others in the same plane are taken away."""
    left = [facet.points for facet in facets if not any(_same_corners(facet.points, c.points) for c in covers)]
    for cover in covers if left else ():
        normal = cover.plane.normal
        remaining = []
        for points in left:
            inside = points
            for i, corner in enumerate(cover.points):
                edge = sub(corner, cover.points[i - 1])
                if not inside or norm(edge) < NOTHING:
                    continue
                rim = plane_through(corner, cross(edge, normal))
                outside = clip_polygon(inside, rim.flipped())
                if outside and polygon_area(outside) > NOTHING:
                    remaining.append(outside)
                inside = clip_polygon(inside, rim)
        left = remaining
    return left


def _same_corners(a: tuple[Vec, ...], b: tuple[Vec, ...]) -> bool:
    """Whether two patches have the same corners: the quick answer for most joints."""
    if len(a) != len(b):
        return False
    for x, y, z in a:
        for u, v, w in b:
            if abs(x - u) + abs(y - v) + abs(z - w) < CLOSED_MM / 10:
                break
        else:
            return False
    return True


def _narrow_width(points: tuple[Vec, ...], normal: Vec) -> float:
    """The least width of a flat convex polygon over the directions of its sides."""
    least = float("inf")
    for i, corner in enumerate(points):
        edge = sub(corner, points[i - 1])
        if norm(edge) < NOTHING:
            continue
        rim = plane_through(corner, cross(edge, normal))
        offs = [dot(rim.normal, p) - rim.offset for p in points]
        least = min(least, max(offs) - min(offs))
    return 0.0 if least == float("inf") else least


def _unploughed(assembly: Assembly, id: str) -> Solid:
    """The same board before anything was ploughed."""
    board = assembly.board(id)
    return solid_of(replace(board, section=replace(board.section, ploughed=())))


def shared_wood(solids: dict[str, Solid]) -> list[tuple[str, str, float]]:
    """Pairs of boards that would stand in one another, with the shared volume in cubic mm."""
    found = []
    for a, b in near_pairs({id: bounds(solid.boxes) for id, solid in solids.items()}):
        volume = _shared(solids[a], solids[b])
        if volume > 0 and volume > SHARED * min(solids[a].volume(), solids[b].volume()):
            found.append((a, b, volume))
    return found


def _shared(a: Solid, b: Solid) -> float:
    """Cubic mm that two boards have in common: only pieces that come near the other board are compared."""
    around = bounds(b.boxes)
    total = 0.0
    for p, box in zip(a.world, a.boxes, strict=True):
        if overlap(box, around):
            total += sum(shared_volume(p, q) for q, other in zip(b.world, b.boxes, strict=True) if overlap(box, other))
    return total
