"""Strips over the outer corners of a box, in pairs: the wide one covers the narrow one's edge."""

from math import cos, radians, sin

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Joint, Mating
from fennup.core.errors import SpecError
from fennup.core.geometry.frame import Frame, frame_from
from fennup.core.geometry.plane import Plane, meeting_point, plane_through
from fennup.core.geometry.vec import Vec, add, cross, scale
from fennup.core.kinds.box.courses import Course, on_wall
from fennup.core.kinds.box.spec import BoxSpec, Cladding
from fennup.core.kinds.box.walls import FLOOR, Wall, level, run_at, signed_run
from fennup.core.kinds.fields import CornerJoint
from fennup.core.kinds.inner import Added, Face, add_between
from fennup.core.kinds.sticks import facing
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING, ZERO


def add_corner_strips(
    spec: BoxSpec, cladding: Cladding, walls: tuple[Wall, ...], courses: dict[str, tuple[Course, ...]], made: Added
) -> None:
    """A pair at every corner, level at the bottom and at the top. SpecError `cladding_too_wide` where two would meet."""
    count, height = len(walls), spec.height_mm
    for i, wall in enumerate(walls):
        least = min(signed_run(walls, i, z, "outer") for z in (0.0, height))
        if 2 * cladding.width_mm > least:
            raise SpecError(
                "cladding_too_wide", ("cladding.width_mm",), side=wall.letter, mm=cladding.width_mm, limit_mm=least / 2
            )
    for i, a in enumerate(walls):
        b = walls[(i + 1) % count]
        name = a.letter + b.letter
        foot = run_at(walls, i, 0.0, "outer")[1]
        over_a, over_b = a.outer.moved(cladding.thickness_mm), b.outer.moved(cladding.thickness_mm)
        seam = cross(a.out, b.out)
        up = seam if seam[2] > 0 else scale(seam, -1.0)
        # On the first wall y runs away from the corner, on the second towards it.
        narrow = _strip(f"n{name}", f"Narrow strip {name}", cladding, foot, up, a, (over_a, b.outer), (0.0, cladding.width_mm))
        wide = _strip(f"w{name}", f"Wide strip {name}", cladding, foot, up, b, (over_b, over_a), (-cladding.width_mm, 0.0))
        for strip in (narrow, wide):
            made.boards.append(_ended(strip.with_cut("left", FLOOR), cladding, height + cladding.past_mm))
        how = spec.corners.get(name) or CornerJoint(joint=spec.joint)
        made.joints.append(
            Joint(
                f"{name} strips",
                "face" if cladding.point_deg else "butt",
                Mating(narrow.id, "lower"),
                Mating(wide.id, "back"),
                (),
            )
        )
        # Where the other wall runs through, the narrow strip lies on that one's end as well.
        if how.joint == "miter" or (how.through or a.letter) == a.letter:
            face = on_wall(courses[a.letter], "face")
            made.joints.append(
                Joint(f"{name} strip on {a.letter}", "face" if cladding.past_mm else "butt", Mating(narrow.id, "back"), face, ())
            )
    for i, wall in enumerate(walls):
        _add_rails(spec, cladding, walls[i - 1].letter + wall.letter, wall, courses, made)


def _ended(strip: Board, cladding: Cladding, top: float) -> Board:
    """A strip's upper end: level, or with a point on the middle of its face at that height."""
    if not cladding.point_deg:
        return strip.with_cut("right", level(top))
    frame, turn = strip.frame, radians(cladding.point_deg)
    on_face = add(frame.origin, scale(frame.z, strip.section.thickness_mm / 2))
    tip = add(on_face, scale(frame.x, (top - on_face[2]) / frame.x[2]))
    for sense in (1.0, -1.0):
        strip = strip.with_cut("right", plane_through(tip, add(scale(frame.x, cos(turn)), scale(frame.y, sense * sin(turn)))))
    return strip


def _add_rails(
    spec: BoxSpec, cladding: Cladding, before: str, wall: Wall, courses: dict[str, tuple[Course, ...]], made: Added
) -> None:
    """The rails on one wall, between the wide strip of the corner before it and the narrow one of its own. SpecError `strip_rail_above`."""
    after = wall.letter + next(name[1] for name in spec.corner_names if name[0] == wall.letter)
    faces = []
    for id, way in ((f"w{before}", wall.along), (f"n{after}", scale(wall.along, -1.0))):
        strip = made.board(id)
        side = facing(strip, way)
        faces.append(Face(strip.side_in_world(side).flipped(), (id,), side))
    for k, height in enumerate(cladding.rails_mm):
        high, thick = cladding.rail_width_mm * wall.up[2], cladding.thickness_mm
        if height + high > spec.height_mm + NOTHING:
            path = f"cladding.rails_mm.{k}"
            raise SpecError("strip_rail_above", (path,), mm=height, limit_mm=spec.height_mm - high)
        # On its face a level edge lies as much lower as the face stands out of the wall.
        reach = [(z - t * wall.out[2]) / wall.up[2] for z in (height, height + high) for t in (0.0, thick)]
        low, top = min(reach), max(reach)
        middle = add(wall.foot, add(scale(wall.up, (low + top) / 2), scale(wall.out, thick / 2)))
        frame = Frame(middle, wall.along, wall.up, wall.out)
        leans = abs(wall.out[2]) > ZERO
        id = f"rail {wall.letter}{k + 1}"
        rail = Board(
            id, f"Rail {wall.letter}{k + 1}", Section(top - low, thick), frame, role="rail", shows=True,
            upper_rip=frame.plane_to_local(level(height + high)) if leans else None,
            lower_rip=frame.plane_to_local(level(height).flipped()) if leans else None,
        )  # fmt: skip
        add_between(made, rail, faces, f"cladding.rails_mm.{k}")
        made.joints.append(Joint(f"{id} wall", "butt", Mating(id, "back"), on_wall(courses[wall.letter], "face"), ()))


def _strip(
    id: str,
    name: str,
    cladding: Cladding,
    foot: Vec,
    up: Vec,
    wall: Wall,
    at_corner: tuple[Plane, Plane],
    spans: tuple[float, float],
) -> Board:
    """One strip on a wall's face: from `spans` across, where 0 is the corner line, its edge there cut along a plane.

    `at_corner`: the strip's own outer face and the plane that its edge is cut along.
    """
    thickness = cladding.thickness_mm
    frame = frame_from(foot, up, wall.out)
    outside, edge = at_corner
    reach = [frame.to_local(meeting_point(face, edge, FLOOR))[1] for face in (outside, wall.outer)]
    low, high = min(spans[0], *reach), max(spans[1], *reach)
    middle = add(foot, add(scale(frame.y, (low + high) / 2), scale(wall.out, thickness / 2)))
    placed = frame_from(middle, up, wall.out)
    rip = placed.plane_to_local(edge)
    first = spans[0] == 0.0
    return Board(
        id, name, Section(high - low, thickness), placed,
        lower_rip=rip if first else None, upper_rip=None if first else rip,
    )  # fmt: skip
