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
from fennup.core.parts.solid import ARRISES, arris_line, extent_along

SWELL_MM = 1e-3
SAME_VOLUME = 1e-9
SHARED_MM3 = 1e-3


@dataclass(frozen=True)
class BooleanProof:
    """`sum_mm3` of the parts one by one, `union_mm3` of all together, `shared_mm3` that any two have in common.

    `pieces` and `holes` are of the union when every cut end is let out by SWELL_MM, so that faces which touch are
    joined: a ring is one piece with one hole through it, a chain one piece with none.
    """

    sum_mm3: float
    union_mm3: float
    shared_mm3: float
    pieces: int
    holes: int
    closed: bool

    @property
    def holds(self) -> bool:
        """No shared wood, no wood lost or made, and one piece with just the hole that belongs there."""
        whole = abs(self.union_mm3 - self.sum_mm3) <= max(SHARED_MM3, SAME_VOLUME * self.sum_mm3)
        return whole and self.shared_mm3 <= SHARED_MM3 and self.pieces == 1 and self.holes == (1 if self.closed else 0)


def boolean_proof(assembly: Assembly) -> BooleanProof:
    """Put the parts together as solids and measure what comes out."""
    parts = [_cut(board, 0.0) for board in assembly.boards]
    union = Manifold.batch_boolean(parts, OpType.Add)
    shared = sum((a ^ b).volume() for a, b in combinations(parts, 2) if _near(a, b))
    joined = Manifold.batch_boolean([_cut(board, SWELL_MM) for board in assembly.boards], OpType.Add)
    pieces = joined.decompose()
    return BooleanProof(
        sum(part.volume() for part in parts),
        union.volume(),
        shared,
        len(pieces),
        sum(piece.genus() for piece in pieces),
        assembly.closed,
    )


def _cut(board: Board, swell: float) -> Manifold:
    """The finished board in its place, its ends let out by `swell`."""
    spans = [extent_along(board, *arris_line(board, a)) for a in ARRISES]
    low, high = min(s[0] for s in spans) - 10.0, max(s[1] for s in spans) + 10.0
    width, thickness, rabbet = board.section.width_mm, board.section.thickness_mm, board.section.rabbet
    wood = Manifold.cube((high - low, width, thickness)).translate((low, -width / 2, -thickness / 2))
    if rabbet:
        over = 1.0
        step = Manifold.cube((high - low + 2 * over, rabbet.width_mm + over, rabbet.depth_mm + over))
        wood -= step.translate((low - over, width / 2 - rabbet.width_mm, -thickness / 2 - over))
    cuts = [cut.moved(swell) for end in ENDS for cut in board.ends(end)]
    for plane in [*cuts, *(rip for rip in (board.upper_rip, board.lower_rip) if rip)]:
        wood = _kept(wood, plane)
    frame = board.frame
    return wood.transform(np.array([frame.x, frame.y, frame.z, frame.origin]).T)


def _kept(wood: Manifold, plane: Plane) -> Manifold:
    """What the plane keeps; the library keeps the other side of a plane than we do."""
    inwards = tuple(-c for c in plane.normal)
    return wood.trim_by_plane(inwards, -plane.offset)


def _near(a: Manifold, b: Manifold) -> bool:
    """Whether the boxes round two parts overlap."""
    p, q = a.bounding_box(), b.bounding_box()
    return all(p[k] < q[k + 3] and q[k] < p[k + 3] for k in range(3))
