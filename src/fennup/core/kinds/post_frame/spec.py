"""What a person says about a frame of posts and what joins them. Millimetres and degrees; x runs to the right, y to the back,
z up from the ground at the first post's place. Posts are lettered; all else is numbered, each sort by itself."""

from itertools import pairwise
from math import cos, radians
from typing import Annotated, Any, Literal

from pydantic import Field, field_validator, model_validator

from fennup.core.errors import SpecError
from fennup.core.kinds.fields import Given, Pinned, Place_mm, pin
from fennup.core.kinds.post_frame import sides
from fennup.core.kinds.post_frame.things import (
    ALONG,
    MOST_PINS,
    MOST_POSTS,
    WAYS,
    Between,
    Bracing,
    Foot,
    Ground,
    Knee,
    Letter,
    Number,
    Post,
    Rail,
    Reach,
    Slats,
    Sort,
    Way,
)  # fmt: skip
from fennup.core.tolerances import SAME


class PostFrameSpec(Pinned):
    """Posts, where lines from left to right and from front to back cross, and what joins them. `numbered`: how many of a sort there
    have been, so that no letter or number is given twice. `alike`: the right side is the left one mirrored (`x`), or the back the
    front (`y`): what has its like there is as that is, and says nothing of its own."""

    kind: Literal["post_frame"]
    version: Literal[1] = 1
    columns: Annotated[dict[Number, Place_mm], Field(min_length=1, max_length=MOST_POSTS)]
    rows: Annotated[dict[Number, Place_mm], Field(min_length=1, max_length=MOST_POSTS)]
    posts: Annotated[dict[Letter, Post], Field(min_length=1, max_length=MOST_POSTS)]
    rails: Annotated[dict[Number, Rail], Field(max_length=24)] = {}
    feet: Annotated[dict[Number, Foot], Field(max_length=8)] = {}
    knees: Annotated[dict[Number, Knee], Field(max_length=8)] = {}
    braces: Annotated[dict[Number, Bracing], Field(max_length=12)] = {}
    slats: Annotated[dict[Number, Slats], Field(max_length=6)] = {}
    ground: Ground = Ground()
    alike: Way | None = None
    numbered: dict[Sort, Annotated[int, Field(ge=0, le=99)]] = {}
    pins: Annotated[list[Given], Field(max_length=MOST_PINS)] | None = None

    @property
    def sides(self) -> int:
        """It has no sides to count."""
        return 0

    @field_validator("posts", "rails", "feet", "knees", "braces", "slats", "columns", "rows", mode="after")
    @classmethod
    def _in_order(cls, entries: dict[str, object]) -> dict[str, object]:
        """By letter and by number, whatever order a file has them in."""
        return dict(sorted(entries.items(), key=lambda entry: (len(entry[0]), entry[0])))

    @model_validator(mode="after")
    def _hangs_together(self) -> "PostFrameSpec":
        """What is referred to exists, and no two posts stand in one place. SpecError names the field."""
        taken: dict[tuple[str, str], str] = {}
        for id, post in self.posts.items():
            for axis, key, lines in (("column", post.column, self.columns), ("row", post.row, self.rows)):
                if key not in lines:
                    raise SpecError("no_such_line", (f"posts.{id}.{axis}",), number=key)
            before = taken.setdefault((post.column, post.row), id)
            if before != id:
                raise SpecError("posts_in_one_place", (f"posts.{id}.column",), part=id, other=before)
            if post.meets is not None:
                self._post(post.meets, f"posts.{id}.meets")
                if post.meets == id:
                    raise SpecError("meets_itself", (f"posts.{id}.meets",), part=id)
            if post.flush_with is not None:
                self._rail(post.flush_with, f"posts.{id}.flush_with")
                if id not in self.along(self.rails[post.flush_with].a, self.rails[post.flush_with].b):
                    raise SpecError("flush_elsewhere", (f"posts.{id}.flush_with",), part=id, number=post.flush_with)
        for n, foot in self.feet.items():
            for k, id in enumerate(foot.under):
                self._post(id, f"feet.{n}.under.{k}")
        for place, several in (("rails", self.rails), ("braces", self.braces)):
            for n, one in several.items():
                self._post(one.a, f"{place}.{n}.a")
                self._post(one.b, f"{place}.{n}.b")
                if one.a == one.b:
                    raise SpecError("from_itself", (f"{place}.{n}.b",), part=one.a)
        for n, knee in self.knees.items():
            for k, corner in enumerate(knee.corners):
                self._post(corner.post, f"knees.{n}.corners.{k}.post")
                self._rail(corner.rail, f"knees.{n}.corners.{k}.rail")
        for n, slats in self.slats.items():
            for k, rail in enumerate(slats.on):
                self._rail(rail, f"slats.{n}.on.{k}")
            if slats.on[0] == slats.on[1]:
                raise SpecError("from_itself", (f"slats.{n}.on.1",), part=slats.on[0])
        return self

    @model_validator(mode="after")
    def _as_its_like(self) -> "PostFrameSpec":
        """What follows its like says what that says, mirrored."""
        for name, value in self._mirrored().items():
            object.__setattr__(self, name, value)
        return self

    def with_sides(self) -> "PostFrameSpec":
        """The same with both sides alike, where they are to be: after a figure of the first one was moved."""
        return self if self.alike is None else self.model_copy(update=self._mirrored())

    def _mirrored(self) -> dict[str, Any]:
        if self.alike is None:
            return {}
        way = self.alike
        line, name = sides.LINE[way]
        lines: dict[str, float] = getattr(self, name)
        second = self.second_side()
        changed: dict[str, Any] = {name: sides.mirrored_lines(lines, {getattr(post, line) for post in self.posts.values()})}
        changed["posts"] = self.posts | {
            id: sides.mirrored_post(self.posts[id], self.posts[like], way) for id, like in second["posts"].items()
        }
        changed["rails"] = self.rails | {
            n: sides.mirrored_rail(self.rails[n], self.rails[like], way) for n, like in second["rails"].items()
        }
        for place in ("braces", "feet"):
            several: dict[str, Any] = getattr(self, place)
            keep = ("a", "b") if place == "braces" else ("under",)
            changed[place] = several | {
                n: several[like].model_copy(update={k: getattr(several[n], k) for k in keep}) for n, like in second[place].items()
            }
        return changed

    def second_side(self) -> dict[str, dict[str, str]]:
        """What follows its like on the other side, by sort: posts, rails, braces, feet."""
        if self.alike is None:
            return {"posts": {}, "rails": {}, "braces": {}, "feet": {}}
        lines = self.columns if self.alike == "x" else self.rows
        second = sides.followers(self.posts, lines, self.alike)
        return {
            "posts": second,
            "rails": sides.following(self.rails, second),
            "braces": sides.following(self.braces, second),
            "feet": sides.feet_following(self.feet, second),
        }

    def side_name(self, *ids: str) -> str:
        """On which of two sides that belong together some posts stand, to be said after a name; nothing where on both or neither."""
        second = self.second_side()["posts"]
        names = ("left side", "right side") if self.alike == "x" else ("front", "back")
        for name, there in zip(names, (set(second.values()), set(second)), strict=True):
            if ids and set(ids) <= there:
                return f", {name}"
        return ""

    def _post(self, id: str, field: str) -> None:
        if id not in self.posts:
            raise SpecError("no_such_post", (field,), part=id)

    def _rail(self, number: str, field: str) -> None:
        if number not in self.rails:
            raise SpecError("no_such_rail", (field,), number=number)

    def half(self, id: str, way: Way) -> float:
        """Half of what a post's foot is wide one way, where it is cut level."""
        post = self.posts[id]
        own = post.width_mm if way == "x" else post.thickness_mm
        return own / 2 / (cos(radians(post.lean_deg)) if post.leans == way else 1.0)

    def place(self, id: str) -> tuple[float, float]:
        """Where the middle of a post's foot stands on the plan."""
        post = self.posts[id]
        x = {"left": 1.0, "middle": 0.0, "right": -1.0}[post.on_column] * self.half(id, "x")
        y = {"front": 1.0, "middle": 0.0, "back": -1.0}[post.on_row] * self.half(id, "y")
        return self.columns[post.column] + x, self.rows[post.row] + y

    def own_head(self, id: str) -> bool:
        """Whether a post's top lies where it says itself: no beam over it, no post against it, no rail that it is flush with."""
        return self.posts[id].flush_with is None and id not in self.topped() and id not in self.met()

    def topped(self) -> dict[str, str]:
        """The posts over which a beam lies, with its number."""
        found: dict[str, str] = {}
        for number, rail in self.rails.items():
            if rail.joint.form == "over":
                for id in self.along(rail.a, rail.b):
                    found.setdefault(id, number)
        return found

    def met(self) -> dict[str, str]:
        """The posts whose heads lean against each other, each with the other one."""
        found: dict[str, str] = {}
        for id, post in self.posts.items():
            if post.meets is not None and id not in found and post.meets not in found:
                found[id], found[post.meets] = post.meets, id
        return found

    def along(self, a: str, b: str) -> tuple[str, ...]:
        """The posts on the straight line from one to another, both included, in order."""
        (ax, ay), (bx, by) = self.place(a), self.place(b)
        long = ((bx - ax) ** 2 + (by - ay) ** 2) ** 0.5
        if long < SAME:
            return (a, b)
        found = []
        for id in self.posts:
            x, y = self.place(id)
            on, off = ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / long, ((x - ax) * (by - ay) - (y - ay) * (bx - ax)) / long
            own = min(self.posts[id].width_mm, self.posts[id].thickness_mm) / 2
            if id in (a, b) or (abs(off) < own and 0 < on < long):
                found.append((on, id))
        return tuple(id for _, id in sorted(found))

    def lines(self, way: Way) -> list[tuple[str, ...]]:
        """The posts of every row (`x`) or column (`y`), each in the order in which they stand."""
        key, axis = ("row", 0) if way == "x" else ("column", 1)
        found: dict[str, list[str]] = {}
        for id, post in self.posts.items():
            found.setdefault(getattr(post, key), []).append(id)
        return [tuple(sorted(ids, key=lambda id: self.place(id)[axis])) for _, ids in sorted(found.items())]

    def steps(self, way: Way) -> list[tuple[str, str]]:
        """For every column (`x`) or row (`y`) but the first: the posts between which its distance from the one before is taken."""
        key, lines = ("column", self.columns) if way == "x" else ("row", self.rows)
        ordered = sorted(lines, key=lambda number: lines[number])
        standing = {number: [id for id, post in self.posts.items() if getattr(post, key) == number] for number in ordered}
        used = [number for number in ordered if standing[number]]
        beside = {pair for ids in self.lines(way) for pair in pairwise(ids)}
        found = []
        for before, number in pairwise(used):
            pairs = [(a, b) for a in standing[before] for b in standing[number]]
            found.append(next((pair for pair in pairs if pair in beside), pairs[0]))
        return found

    def clear(self, a: str, b: str, way: Way) -> float:
        """What is clear between the feet of two posts one way."""
        axis = 0 if way == "x" else 1
        return self.place(b)[axis] - self.place(a)[axis] - self.half(a, way) - self.half(b, way)

    def _apart(self, a: str, b: str, way: Way) -> Given:
        """How far apart two posts stand: clear between them, or from middle to middle where a leaning foot is cut aslant."""
        on_piece = {id for foot in self.feet.values() for id in foot.under}
        if any(self.posts[id].lean_deg and self.posts[id].leans == way and id in on_piece for id in (a, b)):
            axis = 0 if way == "x" else 1
            return pin(f"{ALONG[way]}_centres:{a}{b}", self.place(b)[axis] - self.place(a)[axis])
        return pin(f"{ALONG[way]}_clear:{a}{b}", self.clear(a, b, way))

    def usual_pins(self) -> tuple[Given, ...]:
        """Where the posts stand, how high they are, and where everything is on them."""
        made = []
        for way in WAYS:
            steps = self.steps(way)
            # Of lines that lie alike about their middle half the steps say all.
            said = steps[: (len(steps) + 1) // 2] if self.alike == way else steps
            made += [self._apart(a, b, way) for a, b in said]
        second = self.second_side()
        for id, post in self.posts.items():
            if id in second["posts"]:
                continue
            own = self.own_head(id)
            if own:
                made.append(pin(f"post_height:{id}", post.height_mm))
            if post.lean_deg:
                made.append(pin(f"post_lean:{id}", post.lean_deg))
            if post.top_deg and own:
                made.append(pin(f"top_pitch:{id}", post.top_deg))
        for number, rail in self.rails.items():
            if number in second["rails"]:
                continue
            made += [pin(f"lower_height:{number}", rail.height_mm), pin(f"rail_pitch:{number}", rail.rise_deg)]
            made += _reach_pins("rail", number, rail.joint) if not isinstance(rail.joint, Between) else []
        for number, foot in self.feet.items():
            if number in second["feet"]:
                continue
            made += _reach_pins("foot", number, foot)
        for number, knee in self.knees.items():
            made += [pin(f"knee_post:{number}", knee.post_mm), pin(f"knee_rail:{number}", knee.rail_mm)]
        for number, brace in self.braces.items():
            if number in second["braces"]:
                continue
            made += [pin(f"brace_low:{number}", brace.low_mm), pin(f"brace_high:{number}", brace.high_mm)]
        return tuple(made)


def _reach_pins(what: str, number: str, reach: Reach) -> list[Given]:
    own = [pin(f"{what}_start:{number}", reach.over_a_mm)]
    return own if reach.over_b_mm is None else [*own, pin(f"{what}_end:{number}", reach.over_b_mm)]
