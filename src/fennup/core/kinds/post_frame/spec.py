"""What a person says about a frame of posts and what joins them. Millimetres and degrees; x runs to the right, y to the back,
z up from the ground at the first post's place. Posts are lettered; all else is numbered, each sort by itself."""

from itertools import pairwise
from math import cos, radians
from typing import Annotated, Literal

from pydantic import Field, field_validator, model_validator

from fennup.core.errors import SpecError
from fennup.core.kinds.fields import LONGEST_MM, Given, Pinned, Place_mm, Play_mm, Section_mm, Size_mm, Strict, pin
from fennup.core.kinds.inner import Spaced, Spacing
from fennup.core.tolerances import SAME

Letter = Annotated[str, Field(pattern="^[A-Z]$", description="letter of a post")]
Number = Annotated[str, Field(pattern="^[1-9][0-9]?$", description="number of a line, a rail, a brace ...")]
Lean_deg = Annotated[
    float, Field(gt=-60, lt=60, allow_inf_nan=False, description="degrees from upright, + its head to the right or the back")
]
Rise_deg = Annotated[
    float, Field(gt=-75, lt=75, allow_inf_nan=False, description="degrees from level, + rising to the right or the back")
]
Fall_deg = Annotated[float, Field(gt=-30, lt=30, allow_inf_nan=False, description="degrees from level, + falling")]
Height_mm = Annotated[
    float, Field(ge=-LONGEST_MM, le=LONGEST_MM, allow_inf_nan=False, description="mm over the foot of its first post")
]
Way = Literal["x", "y"]
Where = Literal["front", "back", "left", "right"]
Line = Literal["lower", "middle", "upper"]
Sort = Literal["posts", "columns", "rows", "rails", "feet", "knees", "braces", "slats"]
WAYS: tuple[Way, Way] = ("x", "y")
ALONG = {"x": "across", "y": "deep"}  # as sizes are called that run from left to right, and from front to back
MOST_POSTS, MOST_PINS = 12, 200


class Ground(Strict):
    """How the ground falls from the first post's place."""

    right_deg: Fall_deg = 0.0
    back_deg: Fall_deg = 0.0


class Post(Strict):
    """A post where a column and a row cross: `width_mm` from left to right, `thickness_mm` from front to back, with its middle or a
    side of its foot on the lines.

    It leans to the right or the back. `height_mm` is from foot to top in its middle, where no rail lies over it and it meets no other
    post; the top slopes by `top_deg`. `step_mm`: its foot's height over the ground there. `meets`: the post that its head leans
    against; `flush_with`: the rail along whose upper edge its top is cut.
    """

    column: Number
    row: Number
    width_mm: Section_mm
    thickness_mm: Section_mm
    height_mm: Size_mm
    on_column: Literal["left", "middle", "right"] = "middle"
    on_row: Literal["front", "middle", "back"] = "middle"
    step_mm: Place_mm = 0.0
    lean_deg: Lean_deg = 0.0
    leans: Way = "x"
    top_deg: Rise_deg = 0.0
    top_way: Way = "x"
    meets: Letter | None = None
    flush_with: Number | None = None


class Between(Strict):
    """A rail butted between two posts: in the middle of what both have of their depth, or set in from the first one's front (of
    a rail that runs to the back, from its right)."""

    form: Literal["between"]
    set_in_mm: Play_mm | None = None


class Reach(Strict):
    """How far it goes on past the outer sides of its first and its last post (the same at both if unsaid), and how its ends are cut:
    square, plumb, along the posts' sides, or so much from square that the lower edge is the shorter."""

    over_a_mm: Play_mm = 0.0
    over_b_mm: Play_mm | None = None
    ends: Literal["square", "plumb", "flush", "angle"] = "square"
    end_deg: Annotated[float, Field(gt=-75, lt=75, allow_inf_nan=False)] = 0.0


class Lapped(Reach):
    """A rail laid on the posts' faces on one side, let into them by `let_in_mm`, itself notched over them by `notch_mm`."""

    form: Literal["lapped"]
    side: Where
    let_in_mm: Play_mm = 0.0
    notch_mm: Play_mm = 0.0


class Over(Reach):
    """A beam lying over the posts, which are cut to it; the height is that of the posts at its first one."""

    form: Literal["over"]
    aside_mm: Place_mm = 0.0


class Rail(Strict):
    """A board between or on posts, from the post `a` to the post `b`: `width_mm` upright, `thickness_mm` level.

    `height_mm`: how high its lower edge lies over the foot of `a` where it comes to the side of `a` that looks to `b`.
    """

    a: Letter
    b: Letter
    width_mm: Section_mm
    thickness_mm: Section_mm
    height_mm: Height_mm
    rise_deg: Rise_deg = 0.0
    joint: Annotated[Between | Lapped | Over, Field(discriminator="form")]


class Foot(Reach):
    """A piece on the ground under posts, from the first to the last, or under one, running the `way`; `width_mm` level."""

    under: Annotated[list[Letter], Field(min_length=1, max_length=6)]
    width_mm: Section_mm
    thickness_mm: Section_mm
    way: Way = "x"


class Corner(Strict):
    """The corner of a post and a rail; `ahead`: on the side to which the rail runs, if unsaid the one inside."""

    post: Letter
    rail: Number
    ahead: bool | None = None


class Knee(Strict):
    """A brace in corners that are all braced alike: its long edge runs from `post_mm` below the rail on the post to `rail_mm` from
    the post on the rail."""

    corners: Annotated[list[Corner], Field(min_length=1, max_length=24)]
    post_mm: Size_mm
    rail_mm: Size_mm
    width_mm: Section_mm
    thickness_mm: Section_mm


class Bracing(Strict):
    """A brace from post to post, its `line` from one height over the foot of `a` to another over that of `b`; `crossing`: with a
    second one the other way, half lapped."""

    a: Letter
    b: Letter
    low_mm: Place_mm
    high_mm: Place_mm
    width_mm: Section_mm
    thickness_mm: Section_mm
    line: Line = "middle"
    crossing: bool = False


class Slats(Spaced):
    """Boards laid across two rails, spaced along the first one between its ends, and reaching past both rails."""

    on: Annotated[list[Number], Field(min_length=2, max_length=2)]
    count: Annotated[int, Field(ge=1, le=40)]
    width_mm: Section_mm
    thickness_mm: Section_mm
    spacing: Spacing = "flush"
    over_mm: Play_mm = 0.0


class PostFrameSpec(Pinned):
    """Posts, where lines from left to right and from front to back cross, and what joins them. `numbered`: how many of a sort there
    have been, so that no letter or number is given twice."""

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
        made = [self._apart(a, b, way) for way in WAYS for a, b in self.steps(way)]
        for id, post in self.posts.items():
            own = self.own_head(id)
            if own:
                made.append(pin(f"post_height:{id}", post.height_mm))
            if post.lean_deg:
                made.append(pin(f"post_lean:{id}", post.lean_deg))
            if post.top_deg and own:
                made.append(pin(f"top_pitch:{id}", post.top_deg))
        for number, rail in self.rails.items():
            made += [pin(f"lower_height:{number}", rail.height_mm), pin(f"rail_pitch:{number}", rail.rise_deg)]
            made += _reach_pins("rail", number, rail.joint) if not isinstance(rail.joint, Between) else []
        for number, foot in self.feet.items():
            made += _reach_pins("foot", number, foot)
        for number, knee in self.knees.items():
            made += [pin(f"knee_post:{number}", knee.post_mm), pin(f"knee_rail:{number}", knee.rail_mm)]
        for number, brace in self.braces.items():
            made += [pin(f"brace_low:{number}", brace.low_mm), pin(f"brace_high:{number}", brace.high_mm)]
        return tuple(made)


def _reach_pins(what: str, number: str, reach: Reach) -> list[Given]:
    own = [pin(f"{what}_start:{number}", reach.over_a_mm)]
    return own if reach.over_b_mm is None else [*own, pin(f"{what}_end:{number}", reach.over_b_mm)]
