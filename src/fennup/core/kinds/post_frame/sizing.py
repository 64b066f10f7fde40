"""Which of a post frame's figures what was given can move."""

from fennup.core.errors import SpecError
from fennup.core.kinds.post_frame.place import assemble, shell
from fennup.core.kinds.post_frame.spec import PostFrameSpec
from fennup.core.kinds.post_frame.things import Between, Reach
from fennup.core.kinds.sizing import Sizing

LEAST_MM = 0.0


def unknowns_of(spec: PostFrameSpec) -> tuple[str, ...]:
    """Where its lines are, how high its posts and rails, how far things reach; the first line each way stays where it is."""
    found = []
    for name, lines, used in (("columns", spec.columns, "column"), ("rows", spec.rows, "row")):
        standing = {getattr(post, used) for post in spec.posts.values()}
        ordered = sorted((number for number in lines if number in standing), key=lambda number: lines[number])
        moved = ordered[1:]
        if (spec.alike, used) in (("x", "column"), ("y", "row")):
            moved = [*ordered[1 : len(ordered) // 2], *ordered[1:][-1:]]
        found += [f"{name}.{number}" for number in moved]
    second = spec.second_side()
    for id, post in spec.posts.items():
        if id in second["posts"]:
            continue
        own = spec.own_head(id)
        found += [f"posts.{id}.height_mm"] if own else []
        found += [f"posts.{id}.lean_deg"] if post.lean_deg else []
        found += [f"posts.{id}.top_deg"] if own and post.top_deg else []
    for number, rail in spec.rails.items():
        if number in second["rails"]:
            continue
        found += [f"rails.{number}.height_mm", f"rails.{number}.rise_deg"]
        found += _reach(f"rails.{number}.joint", rail.joint) if not isinstance(rail.joint, Between) else []
    for number, foot in spec.feet.items():
        if number in second["feet"]:
            continue
        found += _reach(f"feet.{number}", foot)
    found += [f"knees.{number}.{size}_mm" for number in spec.knees for size in ("post", "rail")]
    found += [
        f"braces.{number}.{size}_mm" for number in spec.braces if number not in second["braces"] for size in ("low", "high")
    ]
    return tuple(found)


def _reach(path: str, reach: Reach) -> list[str]:
    return [f"{path}.over_a_mm", *([] if reach.over_b_mm is None else [f"{path}.over_b_mm"])]


def _bounds(spec: PostFrameSpec) -> None:
    """Posts of no height, lines that change places and overhangs that are none measure nothing."""
    heights = [post.height_mm for post in spec.posts.values()]
    legs = [size for knee in spec.knees.values() for size in (knee.post_mm, knee.rail_mm)]
    turned = [abs(post.lean_deg) for post in spec.posts.values()]
    turned += [abs(rail.rise_deg) for rail in spec.rails.values()] + [abs(post.top_deg) for post in spec.posts.values()]
    if min([*heights, *legs], default=1.0) <= LEAST_MM or max(turned, default=0.0) >= STEEPEST_DEG:
        raise SpecError("measure_impossible")


STEEPEST_DEG = 75.0
SIZING = Sizing(PostFrameSpec, unknowns_of, shell, assemble, bounds=_bounds)
