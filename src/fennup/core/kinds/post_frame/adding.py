"""What is added to a frame of posts: with sizes to begin with that fit in, found by trying."""

from collections.abc import Iterable, Iterator
from string import ascii_uppercase
from typing import Any

from pydantic import ValidationError

from fennup.core.errors import CoreError, SpecError
from fennup.core.kinds.post_frame.place import assemble
from fennup.core.kinds.post_frame.spec import PostFrameSpec
from fennup.core.kinds.post_frame.things import Between, Over, Rail, Way

Document = dict[str, Any]
HEIGHTS = (0.55, 0.75, 0.3, 0.12, 0.86, 0.42, 0.65)  # of the posts, at which a new rail is tried
SHARES = (0.3, 0.2, 0.12, 0.07)


def next_number(spec: PostFrameSpec, sort: str) -> int:
    """The number of the next of a sort: higher than any that there has been. SpecError `too_many`."""
    used: dict[str, Any] = getattr(spec, sort)
    taken = [ascii_uppercase.index(key) + 1 if sort == "posts" else int(key) for key in used]
    number: int = 1 + max([spec.numbered.get(sort, 0), *taken])  # type: ignore[call-overload]
    if number > (len(ascii_uppercase) if sort == "posts" else 99):
        raise SpecError("too_many", (sort,))
    return number


def added(spec: PostFrameSpec, what: str) -> Document:
    """The spec with something more: `column`, `row`, `rail:AB`, `lap:AB:front`, `beam:AB`, `brace:AB`, `cross:AB`, `knees`, `feet:x`,
    `slats:1:2`. SpecError `nothing_to_add`, or why it has no room."""
    sort, *more = what.split(":")
    try:
        if sort in ("column", "row"):
            return _with_line(spec, sort)
        if sort in ("rail", "lap", "beam"):
            return _first_that_fits(_rails(spec, sort, *more))
        if sort in ("brace", "cross"):
            return _first_that_fits(_braces(spec, *more, crossing=sort == "cross"))
        if sort == "knees":
            return _first_that_fits(_knees(spec))
        if sort == "feet":
            return _with_feet(spec, more[0])
        if sort == "slats":
            return _first_that_fits(_slats(spec, more[0], more[1]))
    except (KeyError, IndexError, ValueError):
        pass
    raise SpecError("nothing_to_add", ("add",))


def _first_that_fits(tries: Iterable[Document]) -> Document:
    """The first of some specs that can be built; where none can, why the first one cannot."""
    refused: CoreError | None = None
    for document in tries:
        try:
            assemble(PostFrameSpec.model_validate({**document, "pins": None}))
        except (ValidationError, CoreError) as error:
            refused = refused or (error if isinstance(error, CoreError) else SpecError("nothing_to_add", ("add",)))
            continue
        return document
    raise refused or SpecError("nothing_to_add", ("add",))


def _put(spec: PostFrameSpec, sort: str, entries: list[Document]) -> Document:
    """The document with more of a sort, numbered on."""
    document = spec.model_dump(mode="json")
    number = next_number(spec, sort)
    for k, entry in enumerate(entries):
        document[sort][ascii_uppercase[number + k - 1] if sort == "posts" else str(number + k)] = entry
    document["numbered"][sort] = number + len(entries) - 1
    return document


def _with_line(spec: PostFrameSpec, sort: str) -> Document:
    """A column to the right or a row at the back, as far on as the last one, with posts as those before it."""
    lines = spec.columns if sort == "column" else spec.rows
    ordered = sorted({getattr(post, sort) for post in spec.posts.values()}, key=lambda number: lines[number])
    last = ordered[-1]
    size = max(max(post.width_mm, post.thickness_mm) for post in spec.posts.values())
    step = lines[last] - lines[ordered[-2]] if len(ordered) > 1 else max(6 * size, _tall(spec) / 2)
    number = str(next_number(spec, f"{sort}s"))
    posts = [post for post in spec.posts.values() if getattr(post, sort) == last]
    new = [post.model_copy(update={sort: number, "meets": None, "flush_with": None}).model_dump(mode="json") for post in posts]
    document = _put(spec, "posts", new)
    document[f"{sort}s"][number] = lines[last] + step
    document["numbered"][f"{sort}s"] = int(number)
    return document


def _tall(spec: PostFrameSpec) -> float:
    return max(post.height_mm for post in spec.posts.values())


def _rails(spec: PostFrameSpec, sort: str, pair: str, side: str = "") -> Iterator[Document]:
    a, b = pair[0], pair[1]
    here, there = spec.posts[a], spec.posts[b]
    last = next(reversed(spec.rails.values()), None)
    least = min(here.width_mm, here.thickness_mm)
    width, thick = (last.width_mm, last.thickness_mm) if last else (1.5 * least, 0.5 * least)
    own: Document = {"a": a, "b": b, "width_mm": width, "thickness_mm": thick}
    if sort == "beam":
        own |= {"width_mm": 1.5 * least, "thickness_mm": max(here.thickness_mm, thick)}
        reach = {"form": "over", "over_a_mm": here.width_mm}
        yield _put(spec, "rails", [own | {"height_mm": here.height_mm, "joint": reach}])
        return
    low = min(here.height_mm, there.height_mm)
    joint = {"form": "between"} if sort == "rail" else {"form": "lapped", "side": side}
    for share in HEIGHTS:
        yield _put(spec, "rails", [own | {"height_mm": share * low, "joint": joint}])


def _braces(spec: PostFrameSpec, pair: str, *, crossing: bool) -> Iterator[Document]:
    a, b = pair[0], pair[1]
    here = spec.posts[a]
    least = min(here.width_mm, here.thickness_mm)
    low = min(here.height_mm, spec.posts[b].height_mm)
    for high, foot in ((0.9, 0.1), (0.5, 0.12), (0.4, 0.15), (0.85, 0.6), (0.3, 0.12)):
        size = {"low_mm": foot * low, "high_mm": high * low, "width_mm": least, "thickness_mm": least / 2}
        yield _put(spec, "braces", [{"a": a, "b": b, "crossing": crossing, **size}])


def corners_of(spec: PostFrameSpec) -> list[tuple[str, str]]:
    """The corners below rails that can be braced: of a post and the rail between or over it, at both its ends."""
    return [(id, n) for n, rail in spec.rails.items() if isinstance(rail.joint, Between | Over) for id in (rail.a, rail.b)]


def _knees(spec: PostFrameSpec) -> Iterator[Document]:
    """In every corner that has none, as large as fits."""
    braced = {(corner.post, corner.rail) for knee in spec.knees.values() for corner in knee.corners}
    free = [corner for corner in corners_of(spec) if corner not in braced]
    if not free:
        raise ValueError
    for share in SHARES:
        rails = [spec.rails[number] for _, number in free]
        leg = share * min(_run(spec, rail) for rail in rails)
        least = min(min(post.width_mm, post.thickness_mm) for post in spec.posts.values())
        size = {
            "post_mm": leg,
            "rail_mm": leg,
            "width_mm": least,
            "thickness_mm": min(least / 2, *(rail.thickness_mm for rail in rails)),
        }
        for below in (free, *([corner] for corner in free)):
            yield _put(spec, "knees", [{"corners": [{"post": post, "rail": rail} for post, rail in below], **size}])


def _run(spec: PostFrameSpec, rail: Rail) -> float:
    (ax, ay), (bx, by) = spec.place(rail.a), spec.place(rail.b)
    return float(((bx - ax) ** 2 + (by - ay) ** 2) ** 0.5)


def _with_feet(spec: PostFrameSpec, which: str) -> Document:
    """A piece under every post, or under every row or column of them."""
    bare = spec.model_copy(update={"feet": {}})
    way: Way = "y" if which == "y" else "x"
    lines = spec.lines(way) if which in ("x", "y") else [(id,) for id in spec.posts]
    post = next(iter(spec.posts.values()))
    size = {"width_mm": post.width_mm, "thickness_mm": min(post.width_mm, post.thickness_mm) * 0.6, "over_a_mm": post.width_mm}
    return _put(bare, "feet", [{"under": list(ids), "way": "y" if which == "each" else way, **size} for ids in lines])


def _slats(spec: PostFrameSpec, first: str, second: str) -> Iterator[Document]:
    rail = spec.rails[first]
    run = _run(spec, rail)
    for count in (7, 5, 3, 1):
        width = run / count * 0.8
        size = {"count": count, "width_mm": width, "thickness_mm": min(rail.thickness_mm, width) * 0.5}
        yield _put(spec, "slats", [{"on": [first, second], "spacing": "flush" if count > 1 else "gaps", **size}])
