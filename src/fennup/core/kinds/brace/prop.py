"""A prop against a wall, or a ladder of two: the uprights with their feet and heads, and the ground and wall that are there."""

from dataclasses import replace
from math import cos, radians, sin

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly, Gauge, Joint, Mating, Spot
from fennup.core.errors import SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, plane_through
from fennup.core.geometry.vec import Point2, cross, dot
from fennup.core.kinds.brace.members import (
    FRONT,
    UP,
    X,
    check_ends,
    edge_lengths,
    edges_of,
    fitted,
    inner_face,
    member,
    reach_of,
    space,
    spot_on,
    stick,
)
from fennup.core.kinds.brace.spec import BraceSpec, Prop, Sill
from fennup.core.kinds.brace.treads import add_treads
from fennup.core.kinds.inner import Added
from fennup.core.parts.solid import solid_of
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING, SAME


def prop(spec: BraceSpec, place: Prop) -> Assembly:
    """One prop, or two uprights with what is between them. SpecError `wall_lies_down`, `brace_misses`, `sill_misses`, and what treads say."""
    lean, fall = radians(place.wall_deg), radians(place.ground_deg)
    wall: Point2 = (sin(lean), cos(lean))
    ground: Point2 = (-cos(fall), -sin(fall))
    off_wall: Point2 = (-wall[1], wall[0])
    off_ground: Point2 = (ground[1], -ground[0])
    edges = edges_of(spec, 0.0)
    foot = (ground[0] * place.stand_off_mm, ground[1] * place.stand_off_mm)
    head = (wall[0] * place.wall_height_mm, wall[1] * place.wall_height_mm)
    if dot(space(wall), space(off_ground)) <= SAME:
        raise SpecError("wall_lies_down", ("place.wall_deg",))
    treads = place.treads
    added = Added()
    faces = (inner_face("ground", (0.0, 0.0), off_ground), inner_face("wall", (0.0, 0.0), off_wall))
    raw = stick(spec, (foot, head), edges, spec.width_mm, "prop", "Prop", "prop")
    deep = spec.thickness_mm
    if treads:
        apart = (treads.clear_mm + spec.thickness_mm) / 2
        raw = _shifted(raw, -apart, "prop", "Front upright")
        fitted(added, _shifted(raw, 2 * apart, "prop 2", "Rear upright"), faces)
        deep = treads.clear_mm + 2 * spec.thickness_mm
    upright = fitted(added, raw, faces)
    check_ends(upright)
    gauges = [
        Gauge("stand_off", Spot("ground", "right", "upper"), spot_on("prop", "left", edges[0]), "along", space(ground)),
        Gauge("wall_height", Spot("ground", "right", "upper"), spot_on("prop", "right", edges[1]), "along", space(wall)),
        Gauge("prop_lean", spot_on("prop", "left", 0), spot_on("prop", "right", 0), "angle", UP, X),
        *edge_lengths("prop"),
    ]
    if treads:
        gauges += add_treads(spec, treads, upright, added)
    size, margin = (spec.member_mm, deep), spec.member_mm
    slab = member("ground", "Ground", (0.0, 0.0), ground, off_ground, (0.0, reach_of([upright], ground, margin)[1]), size)
    # The ground runs up to the wall's face.
    face = Plane(space((-off_wall[0], -off_wall[1])), 0.0)
    slab = replace(slab, right=(slab.frame.plane_to_local(face),))
    there = member("wall", "Wall", (0.0, 0.0), wall, off_wall, (-4 * margin, reach_of([upright], wall, margin)[1]), size)
    added.joints.append(Joint("ground wall", "butt", Mating("ground", "right:0"), Mating("wall", "upper"), ()))
    found = [slab, there]
    if place.sill:
        found.append(_notch_for_sill(spec, place.sill, wall, off_wall, deep, added))
    order = sorted(added.boards, key=lambda board: board.id)
    return Assembly((*order, *found), tuple(added.joints), (), (), (), (), tuple(gauges))


def _notch_for_sill(spec: BraceSpec, sill: Sill, wall: Point2, off_wall: Point2, deep: float, added: Added) -> Board:
    """The sill that is there; every upright's head is notched for it. SpecError `sill_misses` where its underside does not meet the heads."""
    front, under = (
        plane_through(space((off_wall[0] * sill.out_mm, off_wall[1] * sill.out_mm)), space(off_wall)),
        Plane(space(wall), sill.under_mm),
    )
    for i, board in enumerate(added.boards):
        if board.role != "prop":
            continue
        heads = [dot(p, space(wall)) for patch in solid_of(board).patches("right:0") for p in patch.points]
        if not min(heads) + NOTHING < sill.under_mm < max(heads) - NOTHING:
            raise SpecError("sill_misses", ("place.sill.under_mm",), mm=sill.under_mm, low_mm=min(heads), limit_mm=max(heads))
        # What is taken lies behind the sill's front and over its underside; the floor comes last.
        added.boards[i] = board.with_notch((front, under.flipped()))
        added.joints.append(Joint(f"{board.id} sill", "face", Mating(board.id, "notch:0"), Mating("sill", "lower"), ()))
    tall = spec.member_mm / 2
    at = (wall[0] * sill.under_mm, wall[1] * sill.under_mm)
    middle = (
        at[0] + off_wall[0] * sill.out_mm / 2 + wall[0] * tall / 2,
        at[1] + off_wall[1] * sill.out_mm / 2 + wall[1] * tall / 2,
    )
    frame = Frame(space(middle), cross(space(wall), FRONT), space(wall), FRONT)
    board = Board("sill", "Sill", Section(tall, deep), frame, found=True, role="member")
    half = sill.out_mm / 2
    return replace(board, left=(Plane((-1.0, 0.0, 0.0), half),), right=(Plane(X, half),))


def _shifted(board: Board, by: float, id: str, name: str) -> Board:
    """The same board farther back."""
    x, y, z = board.frame.origin
    return replace(board, id=id, name=name, frame=replace(board.frame, origin=(x, y + by, z)))
