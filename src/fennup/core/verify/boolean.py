"""The second proof, by another road: every board cut and put together by a solid-modelling library.

It shares nothing with the first proof but the boards, the planes and the list of what meets what: not the clipping, not the
measuring of joints.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from manifold3d import CrossSection, FillRule, Manifold
from numpy.typing import NDArray

from fennup.core.assembly.board import ENDS, Board, Notch
from fennup.core.assembly.model import Assembly, Joint
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import cross, scale, unit
from fennup.core.parts.solid import Solid, uncut_reach
from fennup.core.tolerances import SHARED
from fennup.core.verify.closing import Closing
from fennup.core.verify.joints import JointCheck
from fennup.core.verify.near import Box, apart, bounds, near_pairs, nearest, overlap

Values = NDArray[np.float64]
IN_ITS_PLANE = 1e-7  # of a board's size: how far off a plane a face still lies in it
SAME_VOLUME = 1e-9  # of a volume
COVERED = 1e-6  # of a face's area
MANY_NOTCHES = 4  # from here on a board is cut and compared in stretches


@dataclass(frozen=True)
class Contact:
    """A joint as the library sees it, mm^2: the area in which its faces touch, and the larger of those that should lie wholly
    on the other one."""

    joint: str
    touching_mm2: float
    face_mm2: float

    @property
    def touches(self) -> bool:
        """Whether anything of the faces meets."""
        return self.touching_mm2 > COVERED * self.face_mm2

    @property
    def covered(self) -> bool:
        """Whether all of them does."""
        return self.touching_mm2 >= (1.0 - COVERED) * self.face_mm2


@dataclass(frozen=True)
class BooleanProof:
    """`sum_mm3` of the boards as the library cuts them, `first_mm3` of the first proof's solids; `unlike`: boards whose two
    volumes differ; `shared`: pairs that stand in one another, with the volume; `contacts`: every joint."""

    sum_mm3: float
    first_mm3: float
    unlike: tuple[str, ...]
    shared: tuple[tuple[str, str, float], ...]
    contacts: tuple[Contact, ...]

    @property
    def shared_mm3(self) -> float:
        """All the wood that any two boards have in common."""
        return sum(volume for *_, volume in self.shared)

    @property
    def apart(self) -> tuple[str, ...]:
        """Joints whose faces do not touch at all."""
        return tuple(contact.joint for contact in self.contacts if not contact.touches)

    @property
    def bare(self) -> tuple[str, ...]:
        """Joints that touch, but leave a strip of a face on nothing."""
        return tuple(contact.joint for contact in self.contacts if contact.touches and not contact.covered)

    @property
    def holds(self) -> bool:
        """Both ways of cutting leave the same wood, no two boards share any, and every joint touches."""
        return not (self.unlike or self.shared or self.apart)

    def confirms(self, closing: Closing, joints: tuple[JointCheck, ...]) -> bool:
        """Whether this comes to the same verdict as the faces as measured."""
        meant = {check.joint for check in joints if check.by_design}
        bare = [joint for joint in self.bare if joint not in meant]
        if closing.state in ("exact", "opens"):
            return self.holds and not bare
        if closing.state == "bare":
            return self.holds and closing.joint in bare
        return not self.holds or bool(bare)


def boolean_proof(assembly: Assembly, solids: dict[str, Solid], report: Callable[[float], None] = lambda _: None) -> BooleanProof:
    """Cut every board, put them together, and measure what comes out. `report` is told how far it is, 0 to 1."""
    wood = {board.id: _wood(board) for board in assembly.boards}
    volumes = {id: part.volume() for id, part in wood.items()}
    first = {id: solid.volume() for id, solid in solids.items()}
    unlike = tuple(id for id, volume in volumes.items() if abs(volume - first[id]) > SAME_VOLUME * first[id])
    shared = _shared(wood, volumes)
    report(0.3)
    contacts = []
    for i, joint in enumerate(assembly.joints):
        contacts.append(_contact(assembly, wood, joint))
        report(0.3 + 0.7 * (i + 1) / len(assembly.joints))
    return BooleanProof(sum(volumes.values()), sum(first.values()), unlike, shared, tuple(contacts))


@dataclass(frozen=True)
class _Stretch:
    """A stretch of a board as the library cut it: the solid, its box, its triangles' corners (m by 3 by 3) and which way they
    look (m by 3)."""

    solid: Manifold
    box: Box
    triangles: Values
    looks: Values


@dataclass(frozen=True)
class _Wood:
    """A board as the library cut it: its stretches and the box round it."""

    stretches: tuple[_Stretch, ...]
    box: Box

    def volume(self) -> float:
        """Cubic mm."""
        return float(sum(stretch.solid.volume() for stretch in self.stretches))


def _wood(board: Board) -> _Wood:
    stretches = tuple(_stretch(solid) for solid in _cut(board) if not solid.is_empty())
    return _Wood(stretches, bounds([stretch.box for stretch in stretches]))


def _stretch(solid: Manifold) -> _Stretch:
    mesh, box = solid.to_mesh64(), solid.bounding_box()
    triangles = np.asarray(mesh.vert_properties)[:, :3][np.asarray(mesh.tri_verts)]
    (x, y, z), (u, v, w) = (np.moveaxis(triangles[:, k] - triangles[:, 0], 1, 0) for k in (1, 2))
    looks = np.stack([y * w - z * v, z * u - x * w, x * v - y * u], axis=1)
    return _Stretch(solid, (box[:3], box[3:]), triangles, looks)


def _shared(wood: dict[str, _Wood], volumes: dict[str, float]) -> tuple[tuple[str, str, float], ...]:
    """Pairs that stand in one another, with the volume that they share."""
    found = []
    for a, b in near_pairs({id: part.box for id, part in wood.items()}):
        volume = 0.0
        for one in wood[a].stretches:
            if overlap(one.box, wood[b].box):
                near = (other for other in wood[b].stretches if overlap(one.box, other.box))
                volume += sum((one.solid ^ other.solid).volume() for other in near)
        if volume > SHARED * min(volumes[a], volumes[b]):
            found.append((a, b, volume))
    return tuple(found)


def _contact(assembly: Assembly, wood: dict[str, _Wood], joint: Joint) -> Contact:
    """How much of the faces that must lie on the other board does: of each board the triangles in the joint's plane, as areas
    of that plane, and what the two have in common."""
    found = []
    for mating, other in ((joint.a, joint.b),) if joint.kind == "butt" else ((joint.a, joint.b), (joint.b, joint.a)):
        plane, *walls = _face(assembly.board(mating.board), mating.facet)
        own = _lying_in(plane, walls, [wood[mating.board]], None)
        theirs = _lying_in(plane.flipped(), walls, [wood[id] for id in (other.board, *other.beside)], own.box)
        found.append(((own.area ^ theirs.area).area(), own.area.area()))
        if joint.kind == "face":  # laid on each other, they need to touch and no more
            touching = found[0][0]
            return Contact(joint.id, touching, touching if touching > COVERED * own.area.area() else own.area.area())
    return Contact(joint.id, *min(found, key=lambda pair: pair[0] / pair[1] if pair[1] else 0.0))


def _face(board: Board, facet: str) -> list[Plane]:
    """A face's plane in the assembly's axes, its normal out of the board; of a notch's floor then the walls round it."""
    name, _, number = facet.partition(":")
    if name == "notch":
        *walls, floor = board.notches[int(number)].planes
        return [board.frame.plane_to_world(plane) for plane in (floor.flipped(), *walls)]
    return [board.frame.plane_to_world(board.ends(name)[int(number)] if number else board.side(name))]  # type: ignore[arg-type]


@dataclass(frozen=True)
class _Lying:
    """What lies in a plane: its area there, and the box round it."""

    area: CrossSection
    box: Box | None


def _lying_in(plane: Plane, walls: Sequence[Plane], parts: list[_Wood], around: Box | None) -> _Lying:
    """What some boards' faces have in a plane, between some walls and near a box, those that look the way it does."""
    # Two directions in the plane, the same whichever of its sides is looked at.
    most = max(range(3), key=lambda k: abs(plane.normal[k]))
    up = scale(plane.normal, 1.0 if plane.normal[most] > 0 else -1.0)
    u = unit(cross(up, (0.0, 0.0, 1.0) if most != 2 else (1.0, 0.0, 0.0)))
    flat, normal = np.array([u, cross(up, u)]).T, np.array(plane.normal)
    area, boxes = CrossSection(), []
    for part in parts:
        tolerance = IN_ITS_PLANE * max(high - low for low, high in zip(*part.box, strict=True))
        for stretch in part.stretches:
            if around and apart(stretch.box, around) > tolerance:
                continue
            if any(nearest(stretch.box, other) > tolerance for other in (plane, plane.flipped(), *walls)):
                continue
            corners = stretch.triangles[stretch.looks @ normal > 0]
            lying = (np.abs(corners @ normal - plane.offset) < tolerance).all(axis=1)
            for wall in walls:
                lying &= (corners @ np.array(wall.normal) - wall.offset < tolerance).all(axis=1)
            if lying.any():
                found = corners[lying]
                area += CrossSection(list(found @ flat), FillRule.NonZero)
                boxes.append((found.min(axis=(0, 1)).tolist(), found.max(axis=(0, 1)).tolist()))
    return _Lying(area, bounds(boxes) if boxes else None)


def _cut(board: Board) -> Iterator[Manifold]:
    """The finished board in its place; one with many notches in stretches, each with those that reach into it."""
    frame = board.frame
    where = np.array([frame.x, frame.y, frame.z, frame.origin]).T
    for low, high, notches in _stretches(board):
        yield _worked(board, (low, high), notches).transform(where)


def in_one(board: Board) -> Manifold:
    """The finished board as the library cuts it, in the board's own axes."""
    return _worked(board, uncut_reach(board, 10.0), board.notches)


def _worked(board: Board, span: tuple[float, float], notches: Sequence[Notch]) -> Manifold:
    """A stretch of the board with all that is cut from it, in its own axes."""
    y, z, over = board.section.width_mm / 2, board.section.thickness_mm / 2, 1.0
    along = (span[0] - over, span[1] + over)
    wood = _profile(board, span)
    for plane in [*(cut for end in ENDS for cut in board.ends(end)), *(rip for _, rip in board.rips)]:
        wood = _kept(wood, plane)
    for notch in notches:
        out = _block(along, (-y - over, y + over), (-z - over, z + over))
        for plane in notch.planes:
            out = _kept(out, plane)
        wood -= out
    return wood


def _profile(board: Board, span: tuple[float, float]) -> Manifold:
    """A stretch of the uncut board: the library's own rectangle, less its own figures of what is ploughed, each drawn a little past the side
    that it opens to, pushed out along the board."""
    wide, thick, over = board.section.width_mm, board.section.thickness_mm, 1.0
    flat = CrossSection.square((wide, thick)).translate((-wide / 2, -thick / 2))
    for bite in (bite for cut in board.section.ploughed for bite in cut.bites(wide, thick)):
        side, _, edge = bite.at.partition("_")
        if edge:  # the corner's own directions: in from the edge, in from the wide side
            rim = [(bite.path[0][0], -over), *bite.path, (-over, bite.path[-1][1]), (-over, -over)]
            sense = (-1.0 if edge == "upper" else 1.0, -1.0 if side == "face" else 1.0)
            figure = [(sense[0] * (a - wide / 2), sense[1] * (b - thick / 2)) for a, b in rim]
        else:  # along the side, deep
            rim = [(bite.path[0][0], -over), *bite.path, (bite.path[-1][0], -over)]
            across = side in ("face", "back")
            away = -1.0 if side in ("face", "upper") else 1.0
            figure = [
                (a - wide / 2, away * (b - thick / 2)) if across else (away * (b - wide / 2), a - thick / 2) for a, b in rim
            ]
        flat -= CrossSection([np.array(figure)], FillRule.NonZero)
    # Its x and y are the board's y and z: a third of a turn brings the length to x.
    turn = np.array([[0.0, 0.0, 1.0, span[0]], [1.0, 0.0, 0.0, 0.0], [0.0, 1.0, 0.0, 0.0]])
    return Manifold.extrude(flat, span[1] - span[0]).transform(turn)


def _stretches(board: Board) -> Iterator[tuple[float, float, list[Notch]]]:
    """From where to where along a board, and the notches there: all of it, or where it has many, from half way to half way."""
    low, high = uncut_reach(board, 10.0)
    if len(board.notches) <= MANY_NOTCHES:
        yield low, high, list(board.notches)
        return
    y = board.section.width_mm / 2
    spans = []
    for notch in board.notches:
        xs = [
            (wall.offset - wall.normal[1] * at) / wall.normal[0] for wall in notch.planes[:-1] if wall.normal[0] for at in (-y, y)
        ]
        spans.append((min(xs), max(xs), notch) if not notch.groove else (low, high, notch))
    middles = sorted((a + b) / 2 for a, b, _ in spans)
    ends = [low, *((a + b) / 2 for a, b in pairwise(middles)), high]
    for start, end in pairwise(ends):
        yield start, end, [notch for a, b, notch in spans if a < end and b > start]


def _block(x: tuple[float, float], y: tuple[float, float], z: tuple[float, float]) -> Manifold:
    """A box between two corners."""
    return Manifold.cube((x[1] - x[0], y[1] - y[0], z[1] - z[0])).translate((x[0], y[0], z[0]))


def _kept(wood: Manifold, plane: Plane) -> Manifold:
    """What the plane keeps; the library keeps the other side of a plane than we do."""
    inwards = tuple(-c for c in plane.normal)
    return wood.trim_by_plane(inwards, -plane.offset)
