"""The second proof, by another road: every board cut and put together by a solid-modelling library.

It shares nothing with the first proof but the boards, the planes and the list of what meets what: not the clipping, not the
measuring of joints.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from manifold3d import CrossSection, FillRule, Manifold
from numpy.typing import NDArray

from fennup.core.assembly.board import ENDS, Board
from fennup.core.assembly.model import Assembly, Joint
from fennup.core.geometry.plane import Plane
from fennup.core.parts.solid import Solid, uncut_reach
from fennup.core.verify.closing import Closing
from fennup.core.verify.joints import JointCheck
from fennup.core.verify.near import near_pairs

Values = NDArray[np.float64]
IN_PLANE = 1e-7  # of a board's size: how far off a plane a face still lies in it
SAME = 1e-9  # of a volume
SHARED = 1e-8  # of the smaller of two volumes: thinner than any saw, thicker than what the library rounds
COVERED = 1e-6  # of a face's area


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


def boolean_proof(assembly: Assembly, solids: dict[str, Solid]) -> BooleanProof:
    """Cut every board, put them together, and measure what comes out."""
    wood = {board.id: _wood(board) for board in assembly.boards}
    volumes = {id: part.solid.volume() for id, part in wood.items()}
    first = {id: solid.volume() for id, solid in solids.items()}
    unlike = tuple(id for id, volume in volumes.items() if abs(volume - first[id]) > SAME * first[id])
    shared = []
    for a, b in near_pairs({id: (part.box[:3], part.box[3:]) for id, part in wood.items()}):
        volume = (wood[a].solid ^ wood[b].solid).volume()
        if volume > SHARED * min(volumes[a], volumes[b]):
            shared.append((a, b, volume))
    contacts = tuple(_contact(assembly, wood, joint) for joint in assembly.joints)
    return BooleanProof(sum(volumes.values()), sum(first.values()), unlike, tuple(shared), contacts)


@dataclass(frozen=True)
class _Wood:
    """A board as the library cut it: the solid, its corners (n by 3) and its triangles' corners (m by 3 by 3)."""

    solid: Manifold
    box: tuple[float, ...]
    triangles: Values


def _wood(board: Board) -> _Wood:
    solid = _cut(board)
    mesh = solid.to_mesh64()
    corners = np.asarray(mesh.vert_properties)[:, :3]
    return _Wood(solid, solid.bounding_box(), corners[np.asarray(mesh.tri_verts)])


def _contact(assembly: Assembly, wood: dict[str, _Wood], joint: Joint) -> Contact:
    """How much of the faces that must lie on the other board does: of each board the triangles in the joint's plane, as areas
    of that plane, and what the two have in common."""
    found = []
    for mating, other in ((joint.a, joint.b),) if joint.kind == "butt" else ((joint.a, joint.b), (joint.b, joint.a)):
        plane, *walls = _face(assembly.board(mating.board), mating.facet)
        own = _lying_in(plane, [wood[mating.board]], walls)
        theirs = _lying_in(plane.flipped(), [wood[id] for id in (other.board, *other.beside)])
        found.append(((own ^ theirs).area(), own.area()))
    return Contact(joint.id, *min(found, key=lambda pair: pair[0] / pair[1] if pair[1] else 0.0))


def _face(board: Board, facet: str) -> list[Plane]:
    """A face's plane in the assembly's axes, its normal out of the board; of a notch's floor then the walls round it."""
    name, _, number = facet.partition(":")
    if name == "notch":
        *walls, floor = board.notches[int(number)].planes
        return [board.frame.plane_to_world(plane) for plane in (floor.flipped(), *walls)]
    return [board.frame.plane_to_world(board.ends(name)[int(number)] if number else board.side(name))]  # type: ignore[arg-type]


def _lying_in(plane: Plane, parts: list[_Wood], within: Sequence[Plane] = ()) -> CrossSection:
    """The area that some boards' faces have in a plane (and within some others), those that look the way it does."""
    normal = np.array(plane.normal)
    # Two directions in the plane, the same whichever of its sides is looked at.
    up = normal * np.sign(normal[np.argmax(np.abs(normal))])
    u = np.cross(up, np.eye(3)[int(np.argmin(np.abs(up)))])
    u /= np.linalg.norm(u)
    v = np.cross(up, u)
    area = CrossSection()
    for part in parts:
        size = max(part.box[k + 3] - part.box[k] for k in range(3))
        near = np.all(np.abs(part.triangles @ normal - plane.offset) < IN_PLANE * size, axis=1)
        for wall in within:
            near &= np.all(part.triangles @ np.array(wall.normal) - wall.offset < IN_PLANE * size, axis=1)
        some = part.triangles[near]
        turned = np.cross(some[:, 1] - some[:, 0], some[:, 2] - some[:, 0]) @ normal
        flat = np.stack([some @ u, some @ v], axis=-1)[turned > 0]
        if len(flat):
            area += CrossSection(list(flat), FillRule.NonZero)
    return area


def _cut(board: Board) -> Manifold:
    """The finished board in its place."""
    low, high = uncut_reach(board, 10.0)
    y, z, over = board.section.width_mm / 2, board.section.thickness_mm / 2, 1.0
    wood = _block((low, high), (-y, y), (-z, z))
    rabbet, groove = board.section.rabbet, board.section.groove
    if rabbet:
        wood -= _block((low - over, high + over), (y - rabbet.width_mm, y + over), (-z - over, -z + rabbet.depth_mm))
    if groove:
        near = -y + groove.from_lower_mm
        edge = near - (over if groove.from_lower_mm <= 0 else 0.0)
        wood -= _block((low - over, high + over), (edge, near + groove.width_mm), (-z - over, -z + groove.depth_mm))
    for plane in [*(cut for end in ENDS for cut in board.ends(end)), *(rip for _, rip in board.rips)]:
        wood = _kept(wood, plane)
    for notch in board.notches:
        out = _block((low - over, high + over), (-y - over, y + over), (-z - over, z + over))
        for plane in notch.planes:
            out = _kept(out, plane)
        wood -= out
    frame = board.frame
    return wood.transform(np.array([frame.x, frame.y, frame.z, frame.origin]).T)


def _block(x: tuple[float, float], y: tuple[float, float], z: tuple[float, float]) -> Manifold:
    """A box between two corners."""
    return Manifold.cube((x[1] - x[0], y[1] - y[0], z[1] - z[0])).translate((x[0], y[0], z[0]))


def _kept(wood: Manifold, plane: Plane) -> Manifold:
    """What the plane keeps; the library keeps the other side of a plane than we do."""
    inwards = tuple(-c for c in plane.normal)
    return wood.trim_by_plane(inwards, -plane.offset)
