"""What stands in a frame of posts: posts, rails, foot pieces, braces, slats, each as a person says it. Millimetres and degrees; x runs to
the right, y to the back, z up from the ground at the first post's place."""

from typing import Annotated, Literal

from pydantic import Field

from fennup.core.kinds.fields import LONGEST_MM, Place_mm, Play_mm, Section_mm, Size_mm, Strict
from fennup.core.kinds.spacing import Spaced, Spacing

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
    a rail that runs to the back, from its right); `housed_mm`: its ends go so deep into housings across the posts' sides."""

    form: Literal["between"]
    set_in_mm: Play_mm | None = None
    housed_mm: Play_mm = 0.0


EndCut = Literal["square", "plumb", "flush", "angle"]


class Reach(Strict):
    """How far it goes on past the outer sides of its first and its last post (the same at both if unsaid), and how its ends are cut:
    square, plumb, along the posts' sides, or so much from square that the lower edge is the shorter; the last end (`ends_b`) as the
    first one if unsaid."""

    over_a_mm: Play_mm = 0.0
    over_b_mm: Play_mm | None = None
    ends: EndCut = "square"
    ends_b: EndCut | None = None
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

    @property
    def let_in(self) -> tuple[str, float]:
        """The field that says how deep it goes into its posts, and how deep, mm."""
        if isinstance(self.joint, Between):
            return "housed_mm", self.joint.housed_mm
        return "let_in_mm", self.joint.let_in_mm if isinstance(self.joint, Lapped) else 0.0


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
