"""What becomes of every side of every part: coated, bare, glued, against soil, against what it holds; and which can only be smoothed before it is together."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from fennup.core.assembly.board import ENDS
from fennup.core.design import Design
from fennup.core.fasten.fastened import Fastened
from fennup.core.fasten.through import middle_of
from fennup.core.finish.wishes import FaceUse
from fennup.core.geometry.polyhedron import polygon_area
from fennup.core.geometry.vec import Vec, add, scale
from fennup.core.parts.solid import Patch, Solid
from fennup.core.site.gaps import nearest_ahead

MM2_PER_M2 = 1e6
ALL_COVERED = 0.98  # of a side: from there on nothing of it is seen
OFF_IT = 1e-3  # mm off a side, so that it does not see itself
NARROW_MM = 350.0  # with less room before a side one does not smooth it once it is together


@dataclass(frozen=True)
class Face:
    """One side of a board: how large, how much of that lies on others, and what becomes of the rest; `close_mm`: how near what it looks at is, where
    that is near."""

    board: str
    facet: str
    area_mm2: float
    meets_mm2: float
    glued_mm2: float
    use: FaceUse
    close_mm: float | None = None

    @property
    def key(self) -> str:
        """By which it is painted."""
        return f"{self.board} {self.facet}"

    @property
    def covered(self) -> bool:
        """Whether all of it lies on others."""
        return self.meets_mm2 >= ALL_COVERED * self.area_mm2

    @property
    def coated_mm2(self) -> float:
        """What of it gets all coats: all but what lies on others."""
        return self.open_mm2 if self.use == "coated" else 0.0

    @property
    def hidden_mm2(self) -> float:
        """What of it is seen by nobody, and gets one coat."""
        return self.open_mm2 if self.use == "hidden" else 0.0

    @property
    def open_mm2(self) -> float:
        """What of it does not lie on others."""
        return max(0.0, self.area_mm2 - self.meets_mm2)


def faces_of(design: Design, found: Iterable[Fastened], wished: Mapping[str, FaceUse]) -> list[Face]:
    """All sides of all boards that are made."""
    meets: dict[tuple[str, str], float] = {}
    glued: dict[tuple[str, str], float] = {}
    for one in found:
        for joint in one.kind.joints:
            area = one.kind.area_mm2
            for mating in (joint.a, joint.b):
                side = (mating.board, mating.facet)
                meets[side] = meets.get(side, 0.0) + area
                if one.glued:
                    glued[side] = glued.get(side, 0.0) + area
    faces = []
    for id, solid in design.solids.items():
        if design.boards[id].found:
            continue
        for facet, patches in _sides(solid).items():
            area = sum(polygon_area(patch.points) for patch in patches)
            side = (id, facet)
            close = _close(design, id, patches)
            comes_so = design.boards[id].finished and facet.partition(":")[0] not in ENDS
            use = wished.get(f"{id} {facet}", "bare" if comes_so else "coated")
            faces.append(Face(id, facet, area, meets.get(side, 0.0), glued.get(side, 0.0), use, close))
    return faces


def _sides(solid: Solid) -> dict[str, list[Patch]]:
    """A board's sides by name, without those that only part its own pieces."""
    found: dict[str, list[Patch]] = {}
    for piece in solid.world:
        for facet in piece.facets:
            found.setdefault(facet.name, []).append(Patch(facet.plane, piece.corners(facet)))
    return found


def _close(design: Design, id: str, patches: list[Patch]) -> float | None:
    """How near what a side looks at is, from its middle, where that is nearer than a hand with a block has room."""
    largest = max(patches, key=lambda patch: polygon_area(patch.points))
    at: Vec = add(middle_of(largest.points), scale(largest.plane.normal, OFF_IT))
    ahead = nearest_ahead(design, id, at, largest.plane.normal, NARROW_MM)
    return ahead if ahead is not None and ahead > 1.0 else None
