"""The second proof, by another road: every board cut and put together by a solid-modelling library.

It shares nothing with the first proof but the boards and planes themselves: not the clipping, not the joints.
"""

from dataclasses import dataclass
from itertools import combinations

import numpy as np
from manifold3d import Manifold, OpType

from fennup.core.assembly.board import ENDS, Board
from fennup.core.assembly.model import Assembly
from fennup.core.geometry.plane import Plane
from fennup.core.parts.solid import uncut_reach

SWELL_MM = 1e-3
SAME_VOLUME = 1e-9
SHARED_MM3 = 1e-3
TURNS = ((0.0, 0.0, 0.0), (13.7, 29.1, 41.3), (71.9, 5.3, 17.7))


@dataclass(frozen=True)
class BooleanProof:
    """`sum_mm3` of the parts one by one, `union_mm3` of all together, `shared_mm3` that any two have in common.

    `pieces` and `holes` are of each ring's union when every cut end is let out by SWELL_MM, so that faces which touch
    are joined: a ring is one piece with one hole through it, a chain one piece with none. What is let in loosely, such
    as a floor, takes part in the volumes only.
    """

    sum_mm3: float
    union_mm3: float
    shared_mm3: float
    pieces: int
    holes: int
    rings: int
    holes_meant: int

    @property
    def holds(self) -> bool:
        """No shared wood, no wood lost or made, and one piece with just the hole that belongs there."""
        whole = abs(self.union_mm3 - self.sum_mm3) <= max(SHARED_MM3, SAME_VOLUME * self.sum_mm3)
        joined = self.pieces == self.rings and self.holes == self.holes_meant
        return whole and self.shared_mm3 <= SHARED_MM3 and joined


def boolean_proof(assembly: Assembly) -> BooleanProof:
    """Put the parts together as solids and measure what comes out."""
    parts = [_cut(board, 0.0) for board in assembly.boards]
    total = sum(part.volume() for part in parts)
    union = _together(parts, total)
    boxes = [part.bounding_box() for part in parts]
    near = ((a, b) for a, b in combinations(range(len(parts)), 2) if _near(boxes[a], boxes[b]))
    shared = sum((parts[a] ^ parts[b]).volume() for a, b in near)
    by_id = {board.id: board for board in assembly.boards}
    edged = {m.board for joint in assembly.joints if joint.kind == "edge" for m in (joint.a, joint.b)}
    pieces = [
        piece
        for ring in assembly.rings
        for piece in Manifold.batch_boolean(
            [_cut(by_id[id], SWELL_MM, SWELL_MM if id in edged else 0.0) for id in ring.boards], OpType.Add
        ).decompose()
        if abs(piece.volume()) > SHARED_MM3  # where faces just touch the library may leave a skin of no thickness
    ]
    return BooleanProof(
        total,
        union,
        shared,
        len(pieces),
        sum(piece.genus() for piece in pieces),
        len(assembly.rings),
        sum(ring.holes for ring in assembly.rings),
    )


def _together(parts: list[Manifold], total: float) -> float:
    """The volume of all parts together, mm^3.

    Where faces just touch the library now and then loses or doubles a part. So it is asked again with everything turned
    in space until the parts' sum comes out; otherwise the answer nearest to it counts. Wood that two parts share is
    measured pair by pair besides.
    """
    found: list[float] = []
    for turn in TURNS:
        found.append(Manifold.batch_boolean([part.rotate(turn) for part in parts], OpType.Add).volume())
        if abs(found[-1] - total) <= max(SHARED_MM3, SAME_VOLUME * total):
            break
    return min(found, key=lambda volume: abs(volume - total))


def _cut(board: Board, swell: float, edges: float = 0.0) -> Manifold:
    """The finished board in its place, its ends let out by `swell`, its long edges by `edges`."""
    low, high = uncut_reach(board, 10.0)
    width, thickness = board.section.width_mm + 2 * edges, board.section.thickness_mm
    rabbet, groove = board.section.rabbet, board.section.groove
    wood = Manifold.cube((high - low, width, thickness)).translate((low, -width / 2, -thickness / 2))
    if rabbet:
        over = 1.0
        step = Manifold.cube((high - low + 2 * over, rabbet.width_mm + over, rabbet.depth_mm + over))
        wood -= step.translate((low - over, width / 2 - rabbet.width_mm, -thickness / 2 - over))
    if groove:
        over = 1.0 if groove.from_lower_mm <= 0 else 0.0
        channel = Manifold.cube((high - low + 2, groove.width_mm + over, groove.depth_mm + 1.0))
        wood -= channel.translate((low - 1, -width / 2 + groove.from_lower_mm - over, -thickness / 2 - 1.0))
    cuts = [cut.moved(swell) for end in ENDS for cut in board.ends(end)]
    for plane in [*cuts, *(rip.moved(edges) for _, rip in board.rips)]:
        wood = _kept(wood, plane)
    for notch in board.notches:
        out = Manifold.cube((high - low + 2, width + 2, thickness + 2)).translate((low - 1, -width / 2 - 1, -thickness / 2 - 1))
        for plane in notch.planes:
            out = _kept(out, plane)
        wood -= out
    frame = board.frame
    return wood.transform(np.array([frame.x, frame.y, frame.z, frame.origin]).T)


def _kept(wood: Manifold, plane: Plane) -> Manifold:
    """What the plane keeps; the library keeps the other side of a plane than we do."""
    inwards = tuple(-c for c in plane.normal)
    return wood.trim_by_plane(inwards, -plane.offset)


def _near(p: tuple[float, ...], q: tuple[float, ...]) -> bool:
    """Whether two boxes overlap."""
    return all(p[k] < q[k + 3] and q[k] < p[k + 3] for k in range(3))
