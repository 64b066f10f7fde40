"""Joints that are alike, told once."""

from dataclasses import dataclass

from fennup.core.assembly.model import Joint
from fennup.core.design import Design
from fennup.core.fasten.through import Stack, contact_of, stacks_of
from fennup.core.geometry.polyhedron import polygon_area
from fennup.core.tolerances import SAME


@dataclass(frozen=True)
class KindOfJoint:
    """Joints that are alike: the first one speaks for all. `stacks`: the ways straight through it, the shorter first; `area_mm2`: of one of them."""

    joints: tuple[Joint, ...]
    stacks: tuple[Stack, ...]
    area_mm2: float

    @property
    def key(self) -> str:
        """By what it is called: its first joint's id."""
        return self.joints[0].id


def kinds_of_joint(design: Design) -> list[KindOfJoint]:
    """All joints, those that are alike together: of one kind, as large, through as much wood the same way of its grain."""
    found: dict[object, tuple[list[Joint], tuple[Stack, ...], float]] = {}
    for joint in design.assembly.joints:
        area = sum(polygon_area(points) for points in contact_of(design, joint))
        stacks = tuple(stacks_of(design, joint))
        if area < SAME or (design.boards[joint.a.board].found and design.boards[joint.b.board].found):
            continue
        like = tuple((round(s.through_mm, 2), round(s.into_mm, 2), round(s.grain_deg, 1), _role(design, s)) for s in stacks)
        roles = frozenset(design.boards[m.board].role for m in (joint.a, joint.b))
        entry = found.setdefault((joint.kind, round(area, 1), like, roles), ([], stacks, area))
        entry[0].append(joint)
    return [KindOfJoint(tuple(joints), stacks, area) for joints, stacks, area in found.values()]


def _role(design: Design, stack: Stack) -> str:
    return design.boards[stack.near].role
