"""Two sides of a frame that belong together: what stands on the second one is what stands on the first, mirrored."""

from collections.abc import Mapping
from typing import Any, TypeVar

from fennup.core.kinds.post_frame.things import Bracing, Foot, Lapped, Letter, Number, Post, Rail, Way, Where

One = TypeVar("One", Rail, Bracing)
TURNED: dict[Where, Where] = {"left": "right", "right": "left", "front": "back", "back": "front"}
LINE: dict[Way, tuple[str, str]] = {"x": ("column", "columns"), "y": ("row", "rows")}
FIRST_LAST: dict[Way, tuple[str, str]] = {"x": ("left", "right"), "y": ("front", "back")}


def ordered(lines: Mapping[Number, float], used: set[str]) -> list[str]:
    """The lines on which anything stands, in the order in which they lie."""
    return sorted((number for number in lines if number in used), key=lambda number: lines[number])


def opposite(posts: Mapping[Letter, Post], lines: Mapping[Number, float], way: Way) -> dict[str, str]:
    """Every post's mirror image on the other side of the middle, where there is one; its own where it stands in the middle."""
    line, other = ("column", "row") if way == "x" else ("row", "column")
    numbers = ordered(lines, {getattr(post, line) for post in posts.values()})
    turned = dict(zip(numbers, reversed(numbers), strict=True))
    at = {(getattr(post, line), getattr(post, other)): id for id, post in posts.items()}
    return {id: at[there] for (own, beside), id in at.items() if (there := (turned[own], beside)) in at}


def followers(posts: Mapping[Letter, Post], lines: Mapping[Number, float], way: Way) -> dict[str, str]:
    """The posts of the second side, each with the one that it is the mirror image of."""
    line = LINE[way][0]
    numbers = ordered(lines, {getattr(post, line) for post in posts.values()})
    rank = {number: i for i, number in enumerate(numbers)}
    image = opposite(posts, lines, way)
    return {id: other for id, other in image.items() if rank[getattr(posts[id], line)] > rank[getattr(posts[other], line)]}


def following(several: Mapping[Number, One], second: Mapping[str, str]) -> dict[str, str]:
    """What goes from post to post on the second side, each with its like on the first: of several on the same posts in their order."""
    found: dict[str, str] = {}
    for number, one in several.items():
        if not {one.a, one.b} <= second.keys():
            continue
        mine = [n for n, other in several.items() if (other.a, other.b) == (one.a, one.b)]
        like = [n for n, other in several.items() if (other.a, other.b) == (second[one.a], second[one.b])]
        if mine.index(number) < len(like):
            found[number] = like[mine.index(number)]
    return found


def feet_following(feet: Mapping[Number, Foot], second: Mapping[str, str]) -> dict[str, str]:
    """The foot pieces of the second side, each with its like on the first."""
    found = {}
    for number, foot in feet.items():
        if set(foot.under) <= second.keys():
            images = [second[id] for id in foot.under]
            like = next((n for n, other in feet.items() if list(other.under) == images), None)
            if like is not None:
                found[number] = like
    return found


def mirrored_post(own: Post, like: Post, way: Way) -> Post:
    """A post as the mirror image of another one."""
    first, last = FIRST_LAST[way]
    on = "on_column" if way == "x" else "on_row"
    said: dict[str, Any] = {on: {first: last, last: first}.get(getattr(like, on), "middle")}
    kept = {"column": own.column, "row": own.row, "meets": own.meets, "flush_with": own.flush_with}
    lean = -like.lean_deg if like.leans == way else like.lean_deg
    top = -like.top_deg if like.top_way == way else like.top_deg
    return like.model_copy(update={**kept, **said, "lean_deg": lean, "top_deg": top})


def mirrored_rail(own: Rail, like: Rail, way: Way) -> Rail:
    """A rail as the mirror image of another one."""
    joint = like.joint
    if isinstance(joint, Lapped) and joint.side in FIRST_LAST[way]:
        joint = joint.model_copy(update={"side": TURNED[joint.side]})
    return like.model_copy(update={"a": own.a, "b": own.b, "joint": joint})


def mirrored_lines(lines: Mapping[Number, float], used: set[str]) -> dict[str, float]:
    """Lines as far from the last one as their images are from the first; what is the middle one in the middle."""
    numbers = ordered(lines, used)
    start, end = lines[numbers[0]], lines[numbers[-1]]
    made = dict(lines)
    for i, number in enumerate(numbers):
        image = numbers[len(numbers) - 1 - i]
        if number == image:
            made[number] = (start + end) / 2
        elif i > len(numbers) - 1 - i and 0 < i < len(numbers) - 1:
            made[number] = start + end - lines[image]
    return made
