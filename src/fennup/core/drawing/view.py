"""Drawings as primitives in mm. What they look like is the reader's business; what they mean is said here."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from fennup.core.drawing.edit import Edit
from fennup.core.geometry.vec import Point2

ShapeRole = Literal[
    "wood", "grain", "joint", "rabbet", "arris", "cut", "waste", "held", "circle", "ground", "left_out", "fence", "table",
    "blade", "arc", "stop", "unseen", "hole", "found", "ghost", "knot", "offcut", "block", "jig",
    "lit", "fan", "way", "metal", "painted",
]  # fmt: skip
MarkRole = Literal["long_point", "face_mark", "triangle", "letter", "name"]
Standing = Literal["given", "suggested", "derived", "fixed"]
# The ways in which a dimension stands off.
UP, DOWN, RIGHT, LEFT = (0.0, 1.0), (0.0, -1.0), (1.0, 0.0), (-1.0, 0.0)
BY_ITSELF: tuple[Standing, ...] = ("given", "suggested")  # it follows from nothing else


@dataclass(frozen=True)
class Shape:
    """A run of points, closed or not, mm, y up. `part` is the board that it belongs to, `grain` which way it runs,
    `tone` how dark a side of wood is that is seen aslant: 0 to 2."""

    role: ShapeRole
    points: tuple[Point2, ...]
    closed: bool = False
    part: str | None = None
    grain: Point2 | None = None
    tone: int = 0


@dataclass(frozen=True)
class Mark:
    """A sign set at a point, not to scale; `text` for letters and names; `turn_deg` anticlockwise."""

    role: MarkRole
    at: Point2
    text: str = ""
    part: str | None = None
    turn_deg: float = 0.0


@dataclass(frozen=True)
class SumOf:
    """A figure said as a sum: a length, and how many times each named size."""

    plus_mm: float
    terms: tuple[tuple[int, str], ...]


@dataclass(frozen=True)
class Dimension:
    """A dimension line from a to b, or for `deg` an arc about `about` from a to b anticlockwise.

    `at` is where the figure of an angle stands, if not inside it. `away` is the direction in which it stands off and `lane` how many text heights (0: on the line itself).
    `acts` are what typing (a TypeIn or Give without its text) and nudging do; none where it cannot be edited.
    """

    id: str
    label: str
    a: Point2
    b: Point2
    value: float
    unit: Literal["mm", "deg"]
    standing: Standing
    away: Point2 = (0.0, 0.0)
    lane: float = 0.0
    about: Point2 | None = None
    at: Point2 | None = None
    acts: Edit | None = None
    can_free: bool = False
    sum: SumOf | None = None


@dataclass(frozen=True)
class Grip:
    """A ring that can be dragged; `along` is the one direction in which it goes, if there is only one; `moves`: which sizes, where its name is none."""

    id: str
    at: Point2
    along: Point2 | None = None
    moves: tuple[str, ...] = ()


@dataclass(frozen=True)
class View:
    """One drawing. `id` says what is seen: `front`, `section`, `part`, `saw_above`, ..."""

    id: str
    shapes: tuple[Shape, ...] = ()
    marks: tuple[Mark, ...] = ()
    dimensions: tuple[Dimension, ...] = ()
    grips: tuple[Grip, ...] = ()


@dataclass(frozen=True)
class Option:
    """One answer to a choice: the acts that bring it about, and what it looks like."""

    code: str
    acts: tuple[Edit, ...]
    chosen: bool
    picture: View | None = None


@dataclass(frozen=True)
class Control:
    """Something to decide that has no place on the drawing: a figure (`value`, `acts`) or a choice (`options`).

    `group` gathers controls under one heading; `about` names the part or corner it is for; `style`: one of a few,
    one of many, any number of them, something that is so and can be undone, one of several things to be done at once, or something to be written; `standing` that of a figure.
    """

    code: str
    group: str
    options: tuple[Option, ...] = ()
    value: float | None = None
    unit: Literal["mm", "deg", "count", "gap"] | None = None
    acts: Edit | None = None
    about: str = ""
    style: Literal["pick", "list", "toggles", "sentence", "menu", "text"] = "pick"
    standing: Standing = "given"
    sum: SumOf | None = None


@dataclass(frozen=True)
class SizeRow:
    """One line that can be measured, given or derived; without `acts` it can only be read."""

    measure: str
    value: float
    unit: Literal["mm", "deg"]
    standing: Standing
    acts: Edit | None
    can_free: bool = False
    sum: SumOf | None = None


@dataclass(frozen=True)
class Description:
    """All that a kind says of itself for the screen. `facts` are codes for the line under the title, `picture` is the
    whole at a glance; `ask` gives the controls, only to whoever wants them."""

    facts: tuple[str, ...]
    picture: tuple[Shape, ...]
    views: tuple[View, ...]
    ask: Callable[[], tuple[Control, ...]]
    sizes: tuple[SizeRow, ...]

    @cached_property
    def controls(self) -> tuple[Control, ...]:
        """What there is to decide, in the order in which one decides it."""
        return self.ask()
