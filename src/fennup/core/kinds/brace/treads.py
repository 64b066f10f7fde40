"""What lies between two leaning uprights: level treads at even rises, boxes made of them, and cleats."""

from itertools import pairwise
from math import cos, radians, sin

from fennup.core.assembly.board import ENDS, Board
from fennup.core.assembly.model import Gauge, Joint, JointKind, Mating, Spot
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, meeting_point, plane_through
from fennup.core.geometry.vec import Vec, add, cross, dot, scale
from fennup.core.kinds.brace.spec import BraceSpec, Cleats, Treads
from fennup.core.kinds.inner import Added, cut_by
from fennup.core.parts.solid import common_area, extent_along, solid_of
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING

X: Vec = (1.0, 0.0, 0.0)
Y: Vec = (0.0, 1.0, 0.0)
FRONT: Vec = (0.0, -1.0, 0.0)
BACKWARDS: Vec = (-1.0, 0.0, 0.0)
UP: Vec = (0.0, 0.0, 1.0)
DOWN: Vec = (0.0, 0.0, -1.0)
STEEP = 0.1  # the least sine of the uprights' angle from level that treads can lie between
UPRIGHTS = (("left", "prop", "back"), ("right", "prop 2", "face"))


def add_treads(spec: BraceSpec, treads: Treads, prop: Board, added: Added) -> list[Gauge]:
    """Level treads, each as deep as the uprights are, at even rises between foot and head; of boxes the walls too.

    SpecError `treads_close`, `treads_on_flat`, `tread_off`, `box_too_tall`, `box_no_room`.
    """
    lean = prop.frame.x
    if lean[2] < STEEP:
        raise SpecError("treads_on_flat", ("place.treads",))
    low, high = (_on_axis(prop, at) for at in ENDS)
    tall = high[2] - low[2]
    shares = [(i + 1) / (treads.count + 1) for i in range(treads.count)]
    if treads.tops_mm:
        shares = [(top - treads.thickness_mm / 2) / tall for top in sorted(treads.tops_mm)]
    rise = min(b - a for a, b in pairwise((*shares, 1.0 if treads.box_mm else 2.0))) * tall
    if treads.tops_mm and rise < treads.thickness_mm:
        raise SpecError("treads_close", ("place.treads.tops_mm",), mm=rise, limit_mm=treads.thickness_mm)
    if treads.box_mm is not None:
        _check_boxes(spec, treads, rise)
    for i, share in enumerate(shares):
        x, z = (low[k] + (high[k] - low[k]) * share for k in (0, 2))
        _add_one(treads, prop, (x, 0.0, z), i + 1, added)
    if treads.cleats:
        _add_cleats(treads, treads.cleats, prop, added)
    if len(shares) == 1:
        return []
    return [Gauge("tread_rise", Spot("tread 1", "left"), Spot("tread 2", "left"), "along", UP, follows=True)]


def _add_one(treads: Treads, prop: Board, at: Vec, number: int, added: Added) -> None:
    """One tread with its middle on the uprights', and its box."""
    thick, own = treads.thickness_mm, treads.deep_mm is not None
    front, back = sides = _sides(treads, prop, at[2] - thick / 2)
    reach = [_x_at(plane, at[2] + sense * thick / 2) for plane, _ in sides for sense in (-1, 1)]
    frame = Frame(((min(reach) + max(reach)) / 2, 0.0, at[2]), Y, BACKWARDS, UP)
    tread = Board(
        f"tread {number}", f"Tread {number}", Section(max(reach) - min(reach), thick), frame, role="tread",
        upper_rip=frame.plane_to_local(front[0]), lower_rip=frame.plane_to_local(back[0]),
    )  # fmt: skip
    _add_between(tread, treads, prop, added)
    if treads.box_mm is None:
        return
    bottom = at[2] + thick / 2
    walls = [_wall(treads, side, bottom, name, number) for side, name in zip(sides, ("Front", "Back"), strict=True)]
    for wall in walls:
        _add_between(wall, treads, prop, added)
        added.joints.append(Joint(f"{wall.id} on its tread", "butt", Mating(wall.id, "lower"), Mating(tread.id, "face"), ()))
    if own:
        _add_ends(treads, prop, (sides, bottom), number, added)


def _sides(treads: Treads, prop: Board, under: float) -> tuple[tuple[Plane, Vec], tuple[Plane, Vec]]:
    """The front and the back of a tread and its box: planes, normal outwards, and the way up them. Flush with the uprights, or where their
    own depth and slopes have them, the tread's underside being at the level `under`."""
    front, back = prop.side_in_world("upper"), prop.side_in_world("lower")
    if treads.deep_mm is None:
        return (front, prop.frame.x), (back, prop.frame.x)
    x = _x_at(front, under) - treads.proud_mm
    f, b = radians(treads.front_deg), radians(treads.back_deg)
    ahead = plane_through((x, 0.0, under), (-cos(f), 0.0, -sin(f)))
    behind = plane_through((x + treads.deep_mm, 0.0, under), (cos(b), 0.0, -sin(b)))
    return (ahead, (-sin(f), 0.0, cos(f))), (behind, (sin(b), 0.0, cos(b)))


def _x_at(plane: Plane, level: float) -> float:
    """Where a plane along the treads lies at a level."""
    return (plane.offset - plane.normal[2] * level) / plane.normal[0]


def _check_boxes(spec: BraceSpec, treads: Treads, rise: float) -> None:
    """A box must end below the next tread, and its two walls leave room between them."""
    room, deep = rise - treads.thickness_mm, treads.deep_mm or spec.width_mm
    if treads.box_mm and treads.box_mm > room:
        raise SpecError("box_too_tall", ("place.treads.box_mm",), mm=treads.box_mm, limit_mm=room)
    if 2 * treads.thickness_mm >= deep:
        raise SpecError("box_no_room", ("place.treads.thickness_mm",), mm=2 * treads.thickness_mm, limit_mm=deep)


def _wall(treads: Treads, side: tuple[Plane, Vec], bottom: float, name: str, number: int) -> Board:
    """A box's front or back, ripped level to stand on the tread and at the top."""
    (plane, up), thick, tall = side, treads.thickness_mm, treads.box_mm or 0.0
    out = plane.normal
    width = tall / up[2] + thick * abs(up[0] / up[2])
    at = meeting_point(Plane(out, plane.offset - thick / 2), Plane(UP, bottom + tall / 2), Plane(Y, 0.0))
    frame = Frame(at, cross(up, out), up, out)
    return Board(
        f"{name.lower()} {number}", f"{name} {number}", Section(width, thick), frame, role="wall",
        upper_rip=frame.plane_to_local(Plane(UP, bottom + tall)),
        lower_rip=frame.plane_to_local(Plane(DOWN, -bottom)),
    )  # fmt: skip


def _add_ends(
    treads: Treads, prop: Board, place: tuple[tuple[tuple[Plane, Vec], tuple[Plane, Vec]], float], number: int, added: Added
) -> None:
    """A box's two ends against the uprights, between its front and its back. SpecError `box_off_uprights` where one does not lie on its upright."""
    (front, back), bottom = place
    thick, tall = treads.thickness_mm, treads.box_mm or 0.0
    planes = [front[0].moved(-thick), back[0].moved(-thick)]
    middle = sum(_x_at(plane, bottom + tall / 2) for plane in planes) / 2
    for id, out, (_, upright, side) in ((f"end {number}f", FRONT, UPRIGHTS[0]), (f"end {number}b", Y, UPRIGHTS[1])):
        at: Vec = (middle, out[1] * (treads.clear_mm - thick) / 2, bottom + tall / 2)
        reach = treads.deep_mm or 0.0
        reach += tall * 4
        board = Board(
            id,
            f"{'Front' if id.endswith('f') else 'Rear'} end {number}",
            Section(tall, thick),
            Frame(at, cross(UP, out), UP, out),
            panel=True,
            reach=(-reach, reach),
            role="wall",
        )
        board = cut_by(board, planes)
        added.boards.append(board)
        for end in ENDS:
            on = "front" if dot(board.frame.x, X) * (1 if end == "right" else -1) < 0 else "back"
            here = Mating(id, f"{end}:0")
            added.joints.append(Joint(f"{id} {on}", "butt", here, Mating(f"{on} {number}", "back"), ()))
        added.joints.append(Joint(f"{id} on its tread", "butt", Mating(id, "lower"), Mating(f"tread {number}", "face"), ()))
        leg = prop if upright == prop.id else added.board(upright)
        if not common_area(solid_of(board).patches("face"), solid_of(leg).patches(side)):
            raise SpecError("box_off_uprights", ("place.treads.proud_mm",), part=board.name)
        added.joints.append(Joint(f"{id} upright", "face", Mating(id, "face"), Mating(upright, side), ()))


def _add_cleats(treads: Treads, cleats: Cleats, prop: Board, added: Added) -> None:
    """A board between the uprights flat on the ground, or flat on the wall, or both: in the middle of their ends there."""
    for end, on in (("left", "ground"), ("right", "wall")):
        if cleats.at not in (on, "both"):
            continue
        plane = prop.frame.plane_to_world(prop.ends(end)[0])  # type: ignore[arg-type]
        out = scale(plane.normal, -1.0)
        at = add(
            meeting_point(plane, Plane(prop.frame.y, dot(prop.frame.y, prop.frame.origin)), Plane(Y, 0.0)),
            scale(out, cleats.thickness_mm / 2),
        )
        section = Section(cleats.width_mm, cleats.thickness_mm)
        _add_between(
            Board(f"cleat {on}", f"Cleat at the {on}", section, Frame(at, Y, cross(out, Y), out), role="cleat"),
            treads,
            prop,
            added,
        )


def _add_between(board: Board, treads: Treads, prop: Board, added: Added) -> None:
    """A board cut to stand between the uprights, with a joint at each that it touches: a butt where it is no deeper. SpecError `tread_off` where
    they are cut away."""
    half = treads.clear_mm / 2
    front, back = Plane(FRONT, half), Plane(Y, half)
    ahead = dot(board.frame.x, Y) > 0
    try:
        board = board.with_cut("left", front if ahead else back).with_cut("right", back if ahead else front)
        solid = solid_of(board)
    except CutError:
        raise SpecError("box_no_room", ("place.treads.box_mm",), mm=treads.thickness_mm, limit_mm=prop.section.width_mm) from None
    corners = [p for piece in solid.world for p in piece.points]
    cuts = [prop.frame.plane_to_world(cut) for cut in (*prop.left, *prop.right)]
    if max(cut.beyond(p) for cut in cuts for p in corners) > NOTHING:
        raise SpecError("tread_off", ("place.treads.count",), part=board.name)
    added.boards.append(board)
    flush = treads.deep_mm is None and board.role != "cleat"
    ends = UPRIGHTS if ahead else (("right", *UPRIGHTS[0][1:]), ("left", *UPRIGHTS[1][1:]))
    for end, on, side in ends:
        here = Mating(board.id, f"{end}:0")
        leg = prop if on == prop.id else added.board(on)
        if flush or common_area(solid.patches(here.facet), solid_of(leg).patches(side)):
            kind: JointKind = "butt" if flush else "face"
            added.joints.append(Joint(f"{board.id} {end}", kind, here, Mating(on, side), ((board.id, end),)))  # type: ignore[arg-type]


def _on_axis(board: Board, end: str) -> Vec:
    """Where a board's middle line comes to its end, in the middle of the thickness."""
    x = extent_along(board, 0.0, 0.0)[end == "right"]
    return board.frame.to_world((x, 0.0, 0.0))
