"""Braces and props as boards, cut planes, joints, gauges and claims, and the members that are there already."""

from collections.abc import Sequence
from dataclasses import replace
from math import cos, radians, sin

from fennup.core.assembly.board import ENDS, Board
from fennup.core.assembly.model import Assembly, Finding, Gauge, Joint, Mating, Spot
from fennup.core.errors import SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, plane_through
from fennup.core.geometry.vec import Point2, Vec, cross, dot
from fennup.core.kinds import sticks
from fennup.core.kinds.brace.spec import Between, BraceSpec, Knee, Prop
from fennup.core.kinds.brace.treads import add_treads
from fennup.core.kinds.inner import Added, Face, add_between, add_half_laps
from fennup.core.parts.solid import ARRISES, arris_length, solid_of
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING, SAME

X: Vec = (1.0, 0.0, 0.0)
Y: Vec = (0.0, 1.0, 0.0)
UP: Vec = (0.0, 0.0, 1.0)
DOWN: Vec = (0.0, 0.0, -1.0)
FRONT: Vec = (0.0, -1.0, 0.0)
EDGE = {"lower": (-1, -1), "centre": (0, 0), "pocket": (0, 0), "upper": (1, 1)}
SHEET = sticks.Sheet((0.0, 0.0, 0.0), X, UP)
LEAST_CROSSING_DEG = 1.0
NAME = {-1: "lower", 0: "middle", 1: "upper"}


def space(p: Point2) -> Vec:
    """A place on the drawing (x to the right, y up) in the assembly, in the middle of the thickness."""
    return (p[0], 0.0, p[1])


def edges_of(spec: BraceSpec, rise: float) -> tuple[int, int]:
    """On which edge the sizes are taken at the left and the right end: -1 lower, 0 the middle, 1 upper."""
    if spec.by == "corners":
        return (-1, 1) if rise >= 0 else (1, -1)
    return EDGE[spec.by]


def assemble(spec: BraceSpec) -> Assembly:
    """Everything. SpecError when no brace answers to the spec."""
    place = spec.place
    made = (
        _knee(spec, place)
        if isinstance(place, Knee)
        else _prop(spec, place)
        if isinstance(place, Prop)
        else _between(spec, place)
    )
    return replace(made, claims=spec.claims(), findings=(Finding("brace_load", "standing"),))


def shell(spec: BraceSpec) -> Assembly:
    """What sizes are taken on: everything but treads."""
    place = spec.place
    bare = place.model_copy(update={"treads": None}) if isinstance(place, Prop) else place
    return assemble(spec.model_copy(update={"place": bare}))


def stick(
    spec: BraceSpec, ends: tuple[Point2, Point2], edges: tuple[int, int], width: float, id: str, name: str, role: str = "brace"
) -> Board:
    """A board from place to place in the middle of the thickness. SpecError `brace_too_wide`."""
    return sticks.stick(SHEET, ends, edges, Section(width, spec.thickness_mm), (id, name, role))


def member(
    id: str, name: str, corner: Point2, way: Point2, inwards: Point2, span: tuple[float, float], size: tuple[float, float]
) -> Board:
    """A member that is there already: its inner edge runs through a place, from `span[0]` to `span[1]` along `way`."""
    width, thickness = size
    y = space(inwards)
    x = cross(y, FRONT)
    sense = 1.0 if dot(x, space(way)) > 0 else -1.0
    low, high = sorted(sense * at for at in span)
    origin = space((corner[0] - inwards[0] * width / 2, corner[1] - inwards[1] * width / 2))
    board = Board(id, name, Section(width, thickness), Frame(origin, x, y, FRONT), found=True, role="member")
    return replace(board, left=(Plane((-1.0, 0.0, 0.0), -low),), right=(Plane(X, high),))


def _inner(id: str, at: Point2, inwards: Point2) -> Face:
    """A member's inner edge as the face that a brace ends on: the brace keeps to the side it looks to."""
    return Face(plane_through(space(at), space((-inwards[0], -inwards[1]))), (id,), "upper")


def _reach(boards: Sequence[Board], way: Point2, margin: float) -> tuple[float, float]:
    """How far some boards reach along a direction, and a margin."""
    along = [dot(p, space(way)) for board in boards for piece in solid_of(board).world for p in piece.points]
    return min(along) - margin, max(along) + margin


def _fit(added: Added, board: Board, faces: Sequence[Face], width_field: str = "width_mm") -> Board:
    """The brace cut to the faces that it meets. SpecError `brace_too_wide` where an edge comes to nothing."""
    made = add_between(added, board, faces, width_field)
    lengths = [arris_length(made, arris) for arris in ARRISES]
    if min(lengths) <= NOTHING:
        raise SpecError("brace_too_wide", (width_field,), mm=board.section.width_mm, limit_mm=max(lengths))
    return made


def _ends_there(board: Board) -> None:
    """SpecError `brace_misses` where an end meets no member."""
    for end in ENDS:
        if not board.ends(end):
            raise SpecError("brace_misses", ("place",), part=board.name)


def _gauge_line(name: str, board: str, edges: tuple[int, int]) -> Gauge:
    """A length along the board, from end to end, on the edges that sizes are taken on."""
    return Gauge(name, _spot(board, "left", edges[0]), _spot(board, "right", edges[1]))


def _spot(board: str, at: str, edge: int) -> Spot:
    return Spot(board, at, NAME[edge])  # type: ignore[arg-type]


def _lengths(board: str) -> tuple[Gauge, ...]:
    """A brace's two edges."""
    return (_gauge_line("lower_edge", board, (-1, -1)), _gauge_line("upper_edge", board, (1, 1)))


def _pitch(board: str) -> Gauge:
    """A brace's slope from level."""
    return Gauge("brace_pitch", _spot(board, "left", -1), _spot(board, "right", -1), "angle", X, UP)


def _knee(spec: BraceSpec, place: Knee) -> Assembly:
    turn = radians(place.corner_deg)
    beam: Point2 = (sin(turn), -cos(turn))
    into: Point2 = (-beam[1], beam[0])  # out of the corner, below the beam
    below = (-into[0], -into[1])
    edges = edges_of(spec, 0.0)
    ends = ((0.0, -place.post_leg_mm), (beam[0] * place.beam_leg_mm, beam[1] * place.beam_leg_mm))
    added = Added()
    raw = stick(spec, ends, edges, spec.width_mm, "brace", "Brace")
    faces = (_inner("post", (0.0, 0.0), (1.0, 0.0)), _inner("beam", (0.0, 0.0), below))
    brace = _fit(added, raw, faces)
    _ends_there(brace)
    margin, size = spec.member_mm, (spec.member_mm, spec.thickness_mm)
    down = _reach([brace], (0.0, -1.0), margin)[1]
    post = member("post", "Post", (0.0, 0.0), (0.0, -1.0), (1.0, 0.0), (-4 * margin, down), size)
    # The beam runs over the post, which is cut off along its under side.
    top = plane_through((0.0, 0.0, 0.0), space(into))
    post = replace(post, left=(post.frame.plane_to_local(top),))
    along = _reach([brace], beam, margin)[1]
    behind = -spec.member_mm / max(0.2, sin(turn)) - spec.member_mm
    lintel = member("beam", "Beam", (0.0, 0.0), beam, below, (behind, along), size)
    corner = Spot("post", "left", "upper")
    gauges = (
        _pitch("brace"),
        Gauge("corner_angle", corner, Spot("beam", _far_end(lintel, beam), "upper"), "angle", DOWN, X),
        Gauge("post_leg", corner, _spot("brace", "left", edges[0])),
        Gauge("beam_leg", corner, _spot("brace", "right", edges[1])),
        *_lengths("brace"),
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
    faces = [_inner("left", (0.0, 0.0), (1.0, 0.0)), _inner("right", (clear, 0.0), (-1.0, 0.0))]
    low, high = min(0.0, rise), max(0.0, rise)
    if spec.by == "pocket":
        if rise == 0:
            raise SpecError("pocket_flat", ("place.rise_mm",))
        faces += [_inner("bottom", (0.0, low), (0.0, 1.0)), _inner("top", (0.0, high), (0.0, -1.0))]
    brace = _fit(added, stick(spec, ((0.0, 0.0), (clear, rise)), edges, spec.width_mm, "brace", "Brace"), faces)
    braces, gauges = [brace], [
        Gauge("clear", Spot("brace", "left"), Spot("brace", "right"), "along", X),
        Gauge("brace_rise", _spot("brace", "left", edges[0]), _spot("brace", "right", edges[1]), "along", UP),
        *_lengths("brace"),
        _pitch("brace"),
    ]  # fmt: skip
    if place.crossing:
        second = place.crossing
        theirs = edges_of(spec, second.rise_mm)
        ends = ((0.0, second.start_mm), (clear, second.start_mm + second.rise_mm))
        raw = stick(spec, ends, theirs, second.width_mm, "second", "Second brace")
        if abs(cross(brace.frame.x, raw.frame.x)[1]) < sin(radians(LEAST_CROSSING_DEG)):
            raise SpecError("braces_parallel", ("place.crossing.rise_mm",), deg=LEAST_CROSSING_DEG)
        over = _fit(added, raw, faces, "place.crossing.width_mm")
        braces.append(over)
        add_half_laps(added, [brace], [over])
        if not any(joint.kind == "lap" for joint in added.joints):
            raise SpecError("braces_miss", ("place.crossing.start_mm",))
        gauges += [
            Gauge("start", _spot("brace", "left", edges[0]), _spot("second", "left", theirs[0]), "along", UP),
            Gauge("second_rise", _spot("second", "left", theirs[0]), _spot("second", "right", theirs[1]), "along", UP),
            Gauge("crosses_at", Spot("brace", "left"), Spot("brace", "notch:0"), follows=True),
            Gauge("second_crosses_at", Spot("second", "left"), Spot("second", "notch:0"), follows=True),
        ]
        braces = list(added.boards)
    size, margin = (spec.member_mm, spec.thickness_mm), spec.member_mm
    span = _reach(braces, (0.0, 1.0), margin)
    posts = [
        member("left", "Left member", (0.0, 0.0), (0.0, 1.0), (1.0, 0.0), span, size),
        member("right", "Right member", (clear, 0.0), (0.0, 1.0), (-1.0, 0.0), span, size),
    ]
    if spec.by == "pocket":
        posts.append(member("bottom", "Bottom rail", (0.0, low), (1.0, 0.0), (0.0, 1.0), (0.0, clear), size))
        posts.append(member("top", "Top rail", (0.0, high), (1.0, 0.0), (0.0, -1.0), (0.0, clear), size))
    return Assembly((*braces, *posts), tuple(added.joints), (), (), (), (), tuple(gauges))


def _prop(spec: BraceSpec, place: Prop) -> Assembly:
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
    faces = (_inner("ground", (0.0, 0.0), off_ground), _inner("wall", (0.0, 0.0), off_wall))
    raw = stick(spec, (foot, head), edges, spec.width_mm, "prop", "Prop", "prop")
    deep = spec.thickness_mm
    if treads:
        apart = (treads.clear_mm + spec.thickness_mm) / 2
        raw = _shifted(raw, -apart, "prop", "Front upright")
        _fit(added, _shifted(raw, 2 * apart, "prop 2", "Rear upright"), faces)
        deep = treads.clear_mm + 2 * spec.thickness_mm
    prop = _fit(added, raw, faces)
    _ends_there(prop)
    gauges = [
        Gauge("stand_off", Spot("ground", "right", "upper"), _spot("prop", "left", edges[0]), "along", space(ground)),
        Gauge("wall_height", Spot("ground", "right", "upper"), _spot("prop", "right", edges[1]), "along", space(wall)),
        Gauge("prop_lean", _spot("prop", "left", 0), _spot("prop", "right", 0), "angle", UP, X),
        *_lengths("prop"),
    ]
    if treads:
        gauges += add_treads(spec, treads, prop, added)
    size, margin = (spec.member_mm, deep), spec.member_mm
    slab = member("ground", "Ground", (0.0, 0.0), ground, off_ground, (0.0, _reach([prop], ground, margin)[1]), size)
    # The ground runs up to the wall's face.
    face = Plane(space((-off_wall[0], -off_wall[1])), 0.0)
    slab = replace(slab, right=(slab.frame.plane_to_local(face),))
    upright = member("wall", "Wall", (0.0, 0.0), wall, off_wall, (-4 * margin, _reach([prop], wall, margin)[1]), size)
    added.joints.append(Joint("ground wall", "butt", Mating("ground", "right:0"), Mating("wall", "upper"), ()))
    order = sorted(added.boards, key=lambda board: board.id)
    return Assembly((*order, slab, upright), tuple(added.joints), (), (), (), (), tuple(gauges))


def _shifted(board: Board, by: float, id: str, name: str) -> Board:
    """The same board farther back."""
    x, y, z = board.frame.origin
    return replace(board, id=id, name=name, frame=replace(board.frame, origin=(x, y + by, z)))
