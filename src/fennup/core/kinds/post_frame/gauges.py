"""The sizes that can be taken on a frame of posts, by name."""

from collections.abc import Iterator, Mapping
from itertools import pairwise
from typing import Any, Literal

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Gauge, Spot
from fennup.core.geometry.vec import Vec, scale
from fennup.core.kinds.post_frame.joined import is_ahead, knee_id
from fennup.core.kinds.post_frame.posts import AXES, LOOKS, Standing
from fennup.core.kinds.post_frame.rails import Run
from fennup.core.kinds.post_frame.spec import PostFrameSpec
from fennup.core.kinds.post_frame.things import ALONG, WAYS, Between, Lapped, Way
from fennup.core.kinds.sticks import UP, facing
from fennup.core.tolerances import SAME

EDGES: tuple[Literal["lower"], Literal["upper"]] = ("lower", "upper")
BACKWARDS: dict[Way, Vec] = {way: scale(AXES[way], -1.0) for way in WAYS}


def on_side(board: Board, at: str, way: Vec) -> Spot:
    """A place on a board, in the middle of the side that looks most in a direction."""
    side = facing(board, way)
    across: dict[str, Any] = {"across": side} if side in ("upper", "lower") else {"through": side}
    return Spot(board.id, at, **across)


def gauges_of(
    standing: Standing, posts: Mapping[str, Board], boards: Mapping[str, Board], runs: Mapping[str, Run]
) -> Iterator[Gauge]:
    """All of them."""
    spec = standing.spec
    for way in WAYS:
        yield from _between_posts(spec, posts, way)
    for id, board in posts.items():
        yield from _on_post(spec, id, board)
    for run in runs.values():
        yield from _on_rail(posts, boards[run.board.id], run)
    yield from _gaps(posts, boards, runs)
    for number, foot in spec.feet.items():
        piece = boards[f"foot {number}"]
        outer = [(foot.under[0], -1.0), (foot.under[-1], 1.0)]
        top = on_side(piece, "left", UP)
        yield from _over(f"foot_{{}}:{number}", piece, posts, outer, top, both=foot.over_b_mm is not None)
        yield Gauge(f"foot_length:{number}", top, on_side(piece, "right", UP))
    for number, knee in spec.knees.items():
        corner = knee.corners[-1]
        run, id = runs[corner.rail], knee_id(number, corner)
        level = scale(run.level, 1.0 if is_ahead(run.rail, corner) else -1.0)
        inside = _beside(boards[run.board.id], posts[corner.post], level, scale(run.up, -1.0))
        yield Gauge(f"knee_post:{number}", inside, Spot(id, "left", "lower"))
        yield Gauge(f"knee_rail:{number}", inside, Spot(id, "right", "lower"))
        yield Gauge(f"knee_long:{number}", Spot(id, "left", "lower"), Spot(id, "right", "lower"))
        yield Gauge(f"knee_short:{number}", Spot(id, "left", "upper"), Spot(id, "right", "upper"))
    for number, brace in spec.braces.items():
        for name, post, end in (("low", brace.a, "left"), ("high", brace.b, "right")):
            yield Gauge(f"brace_{name}:{number}", Spot(post, "left"), Spot(f"brace {number}", end, brace.line), "along", UP)
        for edge in EDGES:
            yield Gauge(f"brace_{edge}:{number}", Spot(f"brace {number}", "left", edge), Spot(f"brace {number}", "right", edge))
    for number, slats in spec.slats.items():
        if slats.count > 1 and f"slat {number}.2" in boards:
            yield Gauge(
                f"slat_centres:{number}", Spot(f"slat {number}.1", "middle"), Spot(f"slat {number}.2", "middle"), follows=True
            )


def _between_posts(spec: PostFrameSpec, posts: Mapping[str, Board], way: Way) -> Iterator[Gauge]:
    """From post to post, left to right or front to back: clear, from middle to middle, and over all."""
    ahead, back, name = AXES[way], BACKWARDS[way], ALONG[way]

    def faces(a: str, b: str, first: Vec, second: Vec) -> tuple[Spot, Spot]:
        return on_side(posts[a], "left", first), on_side(posts[b], "left", second)

    rows = spec.lines(way)
    pairs = list(dict.fromkeys([*spec.steps(way), *(pair for ids in rows for pair in pairwise(ids))]))
    for a, b in pairs:
        yield Gauge(f"{name}_clear:{a}{b}", *faces(a, b, ahead, back), "along", ahead)
        yield Gauge(f"{name}_centres:{a}{b}", Spot(a, "left"), Spot(b, "left"), "along", ahead)
    for ids in rows:
        if len(ids) > 1:
            yield Gauge(f"{name}_overall:{ids[0]}{ids[-1]}", *faces(ids[0], ids[-1], back, ahead), "along", ahead)


def _on_post(spec: PostFrameSpec, id: str, board: Board) -> Iterator[Gauge]:
    post = spec.posts[id]
    foot, top = Spot(id, "left"), Spot(id, "right")
    yield Gauge(f"post_height:{id}", foot, top, "along", UP)
    if post.lean_deg:
        yield Gauge(f"post_lean:{id}", foot, top, "angle", UP, AXES[post.leans])
        yield Gauge(f"post_length:{id}", foot, top)
    normal = board.frame.direction_to_world(board.right[0].normal)
    own = spec.own_head(id)
    for way in WAYS:
        k = 0 if way == "x" else 1
        if abs(normal[k]) < SAME and not (own and post.top_deg and post.top_way == way):
            continue
        low, high = (on_side(board, "right", look) for look in (BACKWARDS[way], AXES[way]))
        if own and post.top_way == way:
            yield Gauge(f"top_pitch:{id}", low, high, "angle", AXES[way], UP)
        for name in ("left", "right") if way == "x" else ("front", "back"):
            look = LOOKS[name]
            yield Gauge(f"post_{name}:{id}", on_side(board, "left", look), on_side(board, "right", look))


def _beside(rail: Board, post: Board, way: Vec, edge: Vec | str) -> Spot:
    """Where a rail's edge comes to the side of a post that looks in a direction."""
    at = f"meets:{post.id}:{facing(post, way)}"
    return Spot(rail.id, at) if isinstance(edge, str) else on_side(rail, at, edge)


def _edge(run: Run, which: str) -> Vec | str:
    """The way in which an edge of a rail looks; `middle` for its middle line."""
    return "middle" if which == "middle" else scale(run.up, 1.0 if which == "upper" else -1.0)


def _spot(rail: Board, at: str, edge: Vec | str) -> Spot:
    return Spot(rail.id, at) if isinstance(edge, str) else on_side(rail, at, edge)


def _on_rail(posts: Mapping[str, Board], board: Board, run: Run) -> Iterator[Gauge]:
    rail, number = run.rail, run.number
    line = _edge(run, "lower")
    here, there = (_beside(board, posts[id], way, line) for id, way in zip((rail.a, rail.b), run.inner, strict=True))
    for which in ("lower", "middle", "upper"):
        places = (_beside(board, posts[id], way, _edge(run, which)) for id, way in zip((rail.a, rail.b), run.inner, strict=True))
        for name, id, place in zip(("height", "end_height"), (rail.a, rail.b), places, strict=True):
            yield Gauge(f"{which}_{name}:{number}", Spot(id, "left"), place, "along", UP)
    yield Gauge(f"rail_pitch:{number}", _spot(board, "left", line), _spot(board, "right", line), "angle", run.level, run.upright)
    yield Gauge(f"rail_rise:{number}", here, there, "along", UP)
    yield Gauge(f"rail_run:{number}", here, there, "along", run.level)
    for which in ("lower", "upper"):
        yield Gauge(f"rail_{which}:{number}", _spot(board, "left", _edge(run, which)), _spot(board, "right", _edge(run, which)))
    if not isinstance(rail.joint, Between):
        outer = [(rail.a, -1.0), (rail.b, 1.0)]
        yield from _over(
            f"rail_{{}}:{number}", board, posts, outer, _spot(board, "left", line), both=rail.joint.over_b_mm is not None
        )


def _gaps(posts: Mapping[str, Board], boards: Mapping[str, Board], runs: Mapping[str, Run]) -> Iterator[Gauge]:
    """Between rails over each other on the same posts: plumb along the first post, and square to the lower one."""
    together: dict[tuple[str, str, str], list[Run]] = {}
    for run in runs.values():
        side = run.rail.joint.side if isinstance(run.rail.joint, Lapped) else ""
        together.setdefault((run.rail.a, run.rail.b, side), []).append(run)
    for (post, _, _), several in together.items():
        for low, high in pairwise(sorted(several, key=lambda run: run.line[2])):
            under = _beside(boards[low.board.id], posts[post], low.level, _edge(low, "upper"))
            over = _beside(boards[high.board.id], posts[post], high.level, _edge(high, "lower"))
            name = f"{low.number}-{high.number}"
            yield Gauge(f"plumb_gap:{name}", under, over, "along", UP)
            yield Gauge(f"square_gap:{name}", under, over, "along", low.up)


def _over(
    name: str, board: Board, posts: Mapping[str, Board], outer: list[tuple[str, float]], line: Spot, *, both: bool
) -> Iterator[Gauge]:
    """How far a board goes on past its first and its last post, along a line of it."""
    for (id, sense), what, end in zip(outer, ("start", "end"), ("left", "right"), strict=True):
        if what == "end" and not both:
            continue
        out = scale(board.frame.x, sense)
        level = (out[0], out[1], 0.0)
        at = f"meets:{id}:{facing(posts[id], level)}"
        first, last = (Spot(board.id, where, line.across, line.through) for where in (at, end))
        yield Gauge(name.format(what), first, last, "along", out)
