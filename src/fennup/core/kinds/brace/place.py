"""Braces as boards, cut planes, joints, gauges and claims, and the members that are there already."""

from dataclasses import replace
from math import cos, radians, sin

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly, Finding, Gauge, Joint, Mating, Spot
from fennup.core.errors import SpecError
from fennup.core.geometry.plane import plane_through
from fennup.core.geometry.vec import Point2, cross, dot
from fennup.core.kinds.brace.members import (
    DOWN,
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
from fennup.core.kinds.brace.prop import prop
from fennup.core.kinds.brace.spec import Between, BraceSpec, Knee, Prop
from fennup.core.kinds.inner import Added, add_half_laps

LEAST_CROSSING_DEG = 1.0


def assemble(spec: BraceSpec) -> Assembly:
    """Everything. SpecError when no brace answers to the spec."""
    place = spec.place
    made = (
        _knee(spec, place) if isinstance(place, Knee) else prop(spec, place) if isinstance(place, Prop) else _between(spec, place)
    )
    return replace(made, claims=spec.claims(), findings=(Finding("brace_load", "standing"),))


def shell(spec: BraceSpec) -> Assembly:
    """What sizes are taken on: everything but treads."""
    place = spec.place
    bare = place.model_copy(update={"treads": None}) if isinstance(place, Prop) else place
    return assemble(spec.model_copy(update={"place": bare}))


def _pitch(board: str) -> Gauge:
    """A brace's slope from level."""
    return Gauge("brace_pitch", spot_on(board, "left", -1), spot_on(board, "right", -1), "angle", X, UP)


def _knee(spec: BraceSpec, place: Knee) -> Assembly:
    turn = radians(place.corner_deg)
    beam: Point2 = (sin(turn), -cos(turn))
    into: Point2 = (-beam[1], beam[0])  # out of the corner, below the beam
    below = (-into[0], -into[1])
    edges = edges_of(spec, 0.0)
    ends = ((0.0, -place.post_leg_mm), (beam[0] * place.beam_leg_mm, beam[1] * place.beam_leg_mm))
    added = Added()
    raw = stick(spec, ends, edges, spec.width_mm, "brace", "Brace")
    faces = (inner_face("post", (0.0, 0.0), (1.0, 0.0)), inner_face("beam", (0.0, 0.0), below))
    brace = fitted(added, raw, faces)
    check_ends(brace)
    margin, size = spec.member_mm, (spec.member_mm, spec.thickness_mm)
    down = reach_of([brace], (0.0, -1.0), margin)[1]
    post = member("post", "Post", (0.0, 0.0), (0.0, -1.0), (1.0, 0.0), (-4 * margin, down), size)
    # The beam runs over the post, which is cut off along its under side.
    top = plane_through((0.0, 0.0, 0.0), space(into))
    post = replace(post, left=(post.frame.plane_to_local(top),))
    along = reach_of([brace], beam, margin)[1]
    behind = -spec.member_mm / max(0.2, sin(turn)) - spec.member_mm
    lintel = member("beam", "Beam", (0.0, 0.0), beam, below, (behind, along), size)
    corner = Spot("post", "left", "upper")
    gauges = (
        _pitch("brace"),
        Gauge("corner_angle", corner, Spot("beam", _far_end(lintel, beam), "upper"), "angle", DOWN, X),
        Gauge("post_leg", corner, spot_on("brace", "left", edges[0])),
        Gauge("beam_leg", corner, spot_on("brace", "right", edges[1])),
        *edge_lengths("brace"),
    )  # fmt: skip
    added.joints.append(Joint("post beam", "butt", Mating("post", "left:0"), Mating("beam", "upper"), ()))
    return Assembly((brace, post, lintel), tuple(added.joints), (), (), (), (), gauges)


def _far_end(board: Board, way: Point2) -> str:
    """Which end of a board lies farther along a direction."""
    return "right" if dot(board.frame.x, space(way)) > 0 else "left"


def _between(spec: BraceSpec, place: Between) -> Assembly:
    clear, rise = place.clear_mm, place.rise_mm
    edges = edges_of(spec, rise)
    added = Added()
    faces = [inner_face("left", (0.0, 0.0), (1.0, 0.0)), inner_face("right", (clear, 0.0), (-1.0, 0.0))]
    low, high = min(0.0, rise), max(0.0, rise)
    if spec.by == "pocket":
        if rise == 0:
            raise SpecError("pocket_flat", ("place.rise_mm",))
        faces += [inner_face("bottom", (0.0, low), (0.0, 1.0)), inner_face("top", (0.0, high), (0.0, -1.0))]
    brace = fitted(added, stick(spec, ((0.0, 0.0), (clear, rise)), edges, spec.width_mm, "brace", "Brace"), faces)
    braces, gauges = [brace], [
        Gauge("clear", Spot("brace", "left"), Spot("brace", "right"), "along", X),
        Gauge("brace_rise", spot_on("brace", "left", edges[0]), spot_on("brace", "right", edges[1]), "along", UP),
        *edge_lengths("brace"),
        _pitch("brace"),
    ]  # fmt: skip
    if place.crossing:
        second = place.crossing
        theirs = edges_of(spec, second.rise_mm)
        ends = ((0.0, second.start_mm), (clear, second.start_mm + second.rise_mm))
        raw = stick(spec, ends, theirs, second.width_mm, "second", "Second brace")
        if abs(cross(brace.frame.x, raw.frame.x)[1]) < sin(radians(LEAST_CROSSING_DEG)):
            raise SpecError("braces_parallel", ("place.crossing.rise_mm",), deg=LEAST_CROSSING_DEG)
        over = fitted(added, raw, faces, "place.crossing.width_mm")
        braces.append(over)
        add_half_laps(added, [brace], [over])
        if not any(joint.kind == "lap" for joint in added.joints):
            raise SpecError("braces_miss", ("place.crossing.start_mm",))
        gauges += [
            Gauge("start", spot_on("brace", "left", edges[0]), spot_on("second", "left", theirs[0]), "along", UP),
            Gauge("second_rise", spot_on("second", "left", theirs[0]), spot_on("second", "right", theirs[1]), "along", UP),
            Gauge("crosses_at", Spot("brace", "left"), Spot("brace", "notch:0"), follows=True),
            Gauge("second_crosses_at", Spot("second", "left"), Spot("second", "notch:0"), follows=True),
        ]
        braces = list(added.boards)
    size, margin = (spec.member_mm, spec.thickness_mm), spec.member_mm
    span = reach_of(braces, (0.0, 1.0), margin)
    posts = [
        member("left", "Left member", (0.0, 0.0), (0.0, 1.0), (1.0, 0.0), span, size),
        member("right", "Right member", (clear, 0.0), (0.0, 1.0), (-1.0, 0.0), span, size),
    ]
    if spec.by == "pocket":
        posts.append(member("bottom", "Bottom rail", (0.0, low), (1.0, 0.0), (0.0, 1.0), (0.0, clear), size))
        posts.append(member("top", "Top rail", (0.0, high), (1.0, 0.0), (0.0, -1.0), (0.0, clear), size))
    return Assembly((*braces, *posts), tuple(added.joints), (), (), (), (), tuple(gauges))
