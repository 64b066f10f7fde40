"""Where posts stand and how they are cut: the ground, pieces under their feet, their sides, their heads."""

from collections.abc import Mapping
from dataclasses import dataclass
from math import cos, radians, sin, tan

from fennup.core.assembly.board import Board, End
from fennup.core.assembly.model import Joint, Mating
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, joint_plane, meeting_point, plane_through
from fennup.core.geometry.vec import Vec, add, cross, dot, scale, sub, unit
from fennup.core.kinds.post_frame.spec import PostFrameSpec
from fennup.core.kinds.post_frame.things import Foot, Lapped, Post, Rail, Reach, Way, Where
from fennup.core.kinds.sticks import UP, X, facing
from fennup.core.parts.solid import solid_of
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING, SAME

Y: Vec = (0.0, 1.0, 0.0)
DOWN: Vec = (0.0, 0.0, -1.0)
LOOKS: dict[Where, Vec] = {"front": (0.0, -1.0, 0.0), "back": Y, "left": (-1.0, 0.0, 0.0), "right": X}
AXES: dict[Way, Vec] = {"x": X, "y": Y}


def laid(
    id: str, name: str, at: Vec, ways: tuple[Vec, Vec], size: tuple[float, float], role: str, *, on_edge: bool = False
) -> Board:
    """A board through a place, running one way with another one up: `size` up and level. Its face is the wide side, if it need not
    stand on edge."""
    along, up = ways
    tall, level = size
    if tall >= level or on_edge:
        return Board(id, name, Section(tall, level), Frame(at, along, up, cross(along, up)), role=role)
    return Board(id, name, Section(level, tall), Frame(at, along, cross(up, along), up), role=role)


@dataclass(frozen=True)
class Standing:
    """A frame's posts, feet cut and heads not yet, with the pieces under them; `feet` are the middles of the posts' feet."""

    spec: PostFrameSpec
    posts: dict[str, Board]
    feet: dict[str, Vec]
    pieces: dict[str, Board]
    under: dict[str, str]

    def side(self, id: str, way: Vec) -> Plane:
        """The plane of the side of a post that looks most in a direction, outwards."""
        post = self.posts[id]
        return post.side_in_world(facing(post, way))

    def axis_at(self, id: str, level: float) -> Vec:
        """Where a post's middle line is at a level."""
        post = self.posts[id]
        return add(post.frame.origin, scale(post.frame.x, (level - post.frame.origin[2]) / post.frame.x[2]))

    def reach_along(self, id: str, way: Vec, level: float) -> tuple[float, float]:
        """From where to where a post goes along a level direction, at a level."""
        post, plane = self.posts[id], Plane(UP, level)
        corners = [
            meeting_point(post.side_in_world(a), post.side_in_world(b), plane)
            for a in ("upper", "lower")
            for b in ("face", "back")
        ]
        along = [dot(p, way) for p in corners]
        return min(along), max(along)


def stand_up(spec: PostFrameSpec) -> Standing:
    """The posts where they stand. SpecError `posts_flat`, `step_on_foot`, `foot_twice`."""
    under: dict[str, str] = {}
    for number, foot in spec.feet.items():
        for k, id in enumerate(foot.under):
            if id in under:
                raise SpecError("foot_twice", (f"feet.{number}.under.{k}",), part=id)
            under[id] = number
    standing_at: dict[tuple[int, int], str] = {}
    for id in spec.posts:
        x, y = spec.place(id)
        other = standing_at.setdefault((round(x / SAME), round(y / SAME)), id)
        if other != id:
            raise SpecError("posts_in_one_place", (f"posts.{id}.column",), part=id, other=other)
    tops = {number: _ground_under(spec, foot).moved(foot.thickness_mm) for number, foot in spec.feet.items()}
    posts, feet = {}, {}
    for id, post in spec.posts.items():
        if id in under and post.step_mm:
            raise SpecError("step_on_foot", (f"posts.{id}.step_mm",), part=id)
        x, y = spec.place(id)
        stands = tops[under[id]] if id in under else Plane(UP, ground_at(spec, x, y) + post.step_mm)
        feet[id] = meeting_point(stands, Plane(X, x), Plane(Y, y))
        posts[id] = _post(spec, id, post, feet[id]).with_cut("left", stands.flipped())
    standing = Standing(spec, posts, feet, {}, under)
    pieces = {number: _foot(standing, number, foot, tops[number]) for number, foot in spec.feet.items()}
    return Standing(spec, posts, feet, pieces, under)


def ground_at(spec: PostFrameSpec, x: float, y: float) -> float:
    """The ground's level at a place."""
    x0, y0 = spec.place(next(iter(spec.posts)))
    return -tan(radians(spec.ground.right_deg)) * (x - x0) - tan(radians(spec.ground.back_deg)) * (y - y0)


def _post(spec: PostFrameSpec, id: str, post: Post, foot: Vec) -> Board:
    """A post uncut. Its face is its wide side, or the one that a rail is let into. SpecError `let_in_two_ways`."""
    lean = radians(post.lean_deg)
    way = AXES[post.leans]
    axis = add(scale(way, sin(lean)), scale(UP, cos(lean)))
    let_in = {
        _let_in_from(spec, rail): f"rails.{number}.joint.{rail.let_in[0]}"
        for number, rail in spec.rails.items()
        if rail.let_in[1] > NOTHING and id in (spec.along(rail.a, rail.b) if isinstance(rail.joint, Lapped) else (rail.a, rail.b))
    }
    if len(let_in) > 1:
        raise SpecError("let_in_two_ways", (let_in["x"],), part=id)
    sideways = "x" in let_in or (not let_in and post.width_mm < post.thickness_mm)
    size = (post.thickness_mm, post.width_mm) if sideways else (post.width_mm, post.thickness_mm)
    look = LOOKS["right" if sideways else "front"]
    face = unit(sub(look, scale(axis, dot(look, axis))))
    return Board(id, f"Post {id}{spec.side_name(id)}", Section(*size), Frame(foot, axis, cross(face, axis), face), role="post")


def _let_in_from(spec: PostFrameSpec, rail: Rail) -> str:
    """From which side a rail goes into its posts: from left or right, or from front or back."""
    if isinstance(rail.joint, Lapped):
        return "x" if rail.joint.side in ("left", "right") else "y"
    (ax, ay), (bx, by) = spec.place(rail.a), spec.place(rail.b)
    return "x" if abs(bx - ax) >= abs(by - ay) else "y"


def _ground_under(spec: PostFrameSpec, foot: Foot) -> Plane:
    """The plane on which a foot piece lies: along the ground from its first post to its last, level across."""
    first, last = (spec.place(id) for id in (foot.under[0], foot.under[-1]))
    way = AXES[foot.way] if len(foot.under) == 1 else unit((last[0] - first[0], last[1] - first[1], 0.0))
    here = (*first, ground_at(spec, *first))
    there = ground_at(spec, first[0] + way[0], first[1] + way[1])
    along = (way[0], way[1], there - here[2])
    return plane_through(here, cross(along, cross(UP, way)))


def _foot(standing: Standing, number: str, foot: Foot, top: Plane) -> Board:
    """The piece under some posts, its ends cut. SpecError `feet_askew` where its posts do not stand in one line."""
    spec, (first, last) = standing.spec, (foot.under[0], foot.under[-1])
    level = AXES[foot.way] if first == last else unit(sub(standing.feet[last], standing.feet[first]))
    along = unit(sub(level, scale(top.normal, dot(level, top.normal))))
    for k, id in enumerate(foot.under):
        off = sub(standing.feet[id], standing.feet[first])
        if abs(dot(off, cross(along, top.normal))) > min(foot.width_mm, spec.half(id, "x"), spec.half(id, "y")):
            raise SpecError("feet_askew", (f"feet.{number}.under.{k}",), part=id)
    at = sub(standing.feet[first], scale(top.normal, foot.thickness_mm / 2))
    board = laid(
        f"foot {number}",
        f"Foot piece {number}{spec.side_name(*foot.under)}",
        at,
        (along, top.normal),
        (foot.thickness_mm, foot.width_mm),
        "foot",
    )
    outer = tuple(standing.side(id, scale(along, way)) for id, way in ((first, -1.0), (last, 1.0)))
    return with_ends(board, foot, outer, (along, top.normal), standing.feet[first])


def with_ends(board: Board, reach: Reach, outer: tuple[Plane, ...], ways: tuple[Vec, Vec], line: Vec) -> Board:
    """A board with both ends cut, so far beyond the outer sides of its first and its last post, along a line through a place."""
    along, up = ways
    overs = (reach.over_a_mm, reach.over_a_mm if reach.over_b_mm is None else reach.over_b_mm)
    turn = radians(reach.end_deg)
    cuts = (reach.ends, reach.ends_b or reach.ends)
    for end, sense, side, over, cut in zip(("left", "right"), (-1.0, 1.0), outer, overs, cuts, strict=True):
        at = add(on_line(line, along, side), scale(along, sense * over))
        normal = {
            "square": scale(along, sense),
            "plumb": unit((sense * along[0], sense * along[1], 0.0)),
            "flush": side.normal,
            "angle": add(scale(along, sense * cos(turn)), scale(up, -sin(turn))),
        }[cut]
        board = board.with_cut(end, plane_through(at, normal))  # type: ignore[arg-type]
    return board


def on_line(at: Vec, along: Vec, plane: Plane) -> Vec:
    """Where a line through a place meets a plane."""
    return add(at, scale(along, -plane.beyond(at) / dot(along, plane.normal)))


def foot_joints(standing: Standing) -> list[Joint]:
    """Every post on the piece under it."""
    made = []
    for id, number in standing.under.items():
        piece, post = standing.pieces[number], standing.posts[id]
        foot = standing.spec.feet[number]
        along = piece.frame.x
        wide = standing.reach_along(id, unit(cross(UP, along)), standing.feet[id][2])
        kind = "butt" if wide[1] - wide[0] <= foot.width_mm + NOTHING else "face"
        top = facing(piece, UP)
        made.append(Joint(f"{id} foot", kind, Mating(post.id, "left:0"), Mating(piece.id, top), ((post.id, "left"),)))  # type: ignore[arg-type]
    return made


def check_on(piece: Board, ends: Mapping[End, Board], field: str) -> None:
    """SpecError `runs_off` where an end of a piece lies partly beyond the foot or the head of the post that it stands on."""
    solid = solid_of(piece)
    for end, post in ends.items():
        cuts = [post.frame.plane_to_world(cut) for cut in (*post.left, *post.right)]
        corners = [p for k in range(len(piece.ends(end))) for patch in solid.patches(f"{end}:{k}") for p in patch.points]
        if max((cut.beyond(p) for cut in cuts for p in corners), default=0.0) > NOTHING:
            raise SpecError("runs_off", (field,), part=piece.name, other=post.name)


def head_plane(post: Post, foot: Vec, axis: Vec) -> Plane:
    """A post's own top: level or sloping, at its height in the middle."""
    turn, way = radians(post.top_deg), AXES[post.top_way]
    at = add(foot, scale(axis, post.height_mm / axis[2]))
    return plane_through(at, sub(scale(UP, cos(turn)), scale(way, sin(turn))))


def with_heads(standing: Standing, lying: Mapping[str, Plane]) -> tuple[dict[str, Board], list[Joint]]:
    """The posts with their heads cut: to the beams that lie over them (`lying`, outwards of the posts), to each other, or by
    themselves; and the joints of those that lean against each other. SpecError `posts_parallel`."""
    spec, made, joints = standing.spec, {}, []
    met = spec.met()
    for id, board in standing.posts.items():
        if id in lying:
            made[id] = board.with_cut("right", lying[id])
        elif id in met:
            made[id] = board.with_cut("right", _meeting(standing, id, met[id]))
        else:
            made[id] = board.with_cut("right", head_plane(spec.posts[id], standing.feet[id], board.frame.x))
    for id, other in met.items():
        if id < other and not {id, other} & lying.keys():
            ends = ((id, "right"), (other, "right"))
            joints.append(Joint(f"{id}/{other}", "miter", Mating(id, "right:0"), Mating(other, "right:0"), ends))  # type: ignore[arg-type]
    return made, joints


def _meeting(standing: Standing, id: str, other: str) -> Plane:
    """The plane in which the heads of two posts meet, keeping the first one's side."""
    field = f"posts.{id}.meets" if standing.spec.posts[id].meets else f"posts.{other}.meets"
    feet = standing.feet
    way = unit(sub(feet[other], feet[id]))
    outer = (standing.side(id, scale(way, -1.0)), standing.side(other, way))
    inner = (standing.side(id, way), standing.side(other, scale(way, -1.0)))
    lines = [standing.posts[one].frame.x for one in (id, other)]
    if abs(dot(cross(*lines), way)) > SAME or dot(sub(lines[0], lines[1]), way) < SAME:
        raise SpecError("posts_parallel", (field,), part=id, other=other)
    try:
        plane = joint_plane(outer[0], outer[1], inner[0].flipped(), inner[1].flipped())
    except CutError:
        raise SpecError("posts_parallel", (field,), part=id, other=other) from None
    return plane if dot(plane.normal, way) > 0 else plane.flipped()
