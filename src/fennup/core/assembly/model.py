"""What a kind gives: boards, the joints between them, the lines that can be measured, and what was asked of them."""

from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

from fennup.core.assembly.board import Board, End, Side
from fennup.core.geometry.vec import Point2, Vec

JointKind = Literal["miter", "butt", "edge", "lap", "face"]
BareFor = Literal["", "square_edges", "own_rims", "past_plate", "raked"]
Severity = Literal["standing", "note", "warning", "error"]


@dataclass(frozen=True)
class Mating:
    """One face of a joint: a facet of a board's solid, by name: `left:0`, `right:0`, `upper`, ...

    `beside`: other boards whose facet of the same name goes on in the same plane, and may cover too.
    """

    board: str
    facet: str
    beside: tuple[str, ...] = ()


@dataclass(frozen=True)
class Joint:
    """Two faces that must meet. A miter's, an edge joint's and a half lap's cover each other; a butt's `a` lies wholly on `b`; two
    sides that are laid on each other (`face`) only need to touch where they cross.

    `ends`: the two board ends that come together here, in the order in which one goes round; none of an edge joint or a lap.
    `bare_for` says why faces may stay partly uncovered on purpose.
    """

    id: str
    kind: JointKind
    a: Mating
    b: Mating
    ends: tuple[tuple[str, End], ...]
    bare_for: BareFor = ""


@dataclass(frozen=True)
class Stretch:
    """One side's part of a line: `key` is the side's letter, the line runs along `side` of the board."""

    key: str
    board: str
    side: Side


@dataclass(frozen=True)
class Outline:
    """A line round the assembly, made of one long side of each board in turn and measured on another side of them.

    `rings` is True where the last board's line meets the first's. `broken` are the places between stretch i and i + 1
    (wrapping) where the two do not meet, so that each line ends at its board's own end. The line lies `out_mm` outside of the boards' sides.
    `way`: along what it is measured how far the whole goes, where that is not its first stretch.
    """

    name: str
    stretches: tuple[Stretch, ...]
    on: Side
    rings: bool
    broken: frozenset[int] = frozenset()
    out_mm: float = 0.0
    way: tuple[float, float] | None = None


@dataclass(frozen=True)
class Spot:
    """A place on a finished board: where a line along it, on an edge or in the middle, on a side or in the middle, comes to
    an end (`left`, `right`), to the plane of one of its cuts (`right:0`), half way (`middle`), to a notch (`notch:0` its middle, `notch:0:1` its second wall), or to where it
    meets the plane of another board's side (`meets:A:lower`) or a level (`level:300`)."""

    board: str
    at: str
    across: Literal["upper", "lower", "middle"] = "middle"
    through: Literal["face", "back", "middle"] = "middle"


@dataclass(frozen=True)
class Gauge:
    """A size that can be taken between two places on finished boards.

    `straight` from one to the other; `along` a direction; `angle` from `along` towards `out`, degrees; `lean` the same
    without a sign, whichever way it leans. One that only `follows` can be read and not given; one that `sets` a field of the spec
    is given by that: it moves nothing else.
    """

    name: str
    a: Spot
    b: Spot
    how: Literal["straight", "along", "angle", "lean"] = "straight"
    along: Vec = (0.0, 0.0, 1.0)
    out: Vec = (1.0, 0.0, 0.0)
    follows: bool = False
    sets: str = ""


@dataclass(frozen=True)
class Claim:
    """What the user asked for, as a measure to be taken on the finished solids; `field` is where it was asked."""

    measure: str
    asked: float
    field: str
    unit: Literal["mm", "deg"] = "mm"


@dataclass(frozen=True)
class Finding:
    """Something to know about a result: a code, how bad (`standing`: said of its kind whatever the figures), the parts and fields
    concerned, a value and its limit."""

    code: str
    severity: Severity
    parts: tuple[str, ...] = ()
    fields: tuple[str, ...] = ()
    value: float | None = None
    limit: float | None = None


@dataclass(frozen=True)
class Ring:
    """Boards that go round one after another; not `closed` where sides are left out, so that the last does not meet the first."""

    boards: tuple[str, ...]
    closed: bool = True


@dataclass(frozen=True)
class Parting:
    """Where the whole is sawn apart once it is together: level, `down_mm` below its top edges, and what the blade takes."""

    down_mm: float
    kerf_mm: float


@dataclass(frozen=True)
class SubAssembly:
    """Boards that belong together and are put together by themselves first: a side. `name`: said in small letters, `left side`."""

    name: str
    boards: tuple[str, ...]


@dataclass(frozen=True)
class HeldIn:
    """A recess that holds something by its edge: the boards that go round it, and how deep it is; `area_mm2`: how large that is, where it is said."""

    boards: tuple[str, ...]
    depth_mm: float
    area_mm2: float | None = None


@dataclass(frozen=True)
class Blank:
    """A piece of sheet that is not wood, laid flat, mm: the outline to cut by, the lines to fold at, holes by their middles and diameters;
    `off_mm`: how far the outline's polygon lies inside its curves at most."""

    id: str
    name: str
    cut: tuple[Point2, ...]
    folds: tuple[tuple[Point2, Point2], ...]
    holes: tuple[tuple[Point2, float], ...] = ()
    off_mm: float = 0.0


@dataclass(frozen=True)
class Assembly:
    """Boards, joints, outlines and claims in the kind's own order; `findings` are those that only the kind can know.

    `partings`: where it is sawn apart once it is together; `asked_level_mm`: a level at which its walls are measured too; `blanks`: sheet that is no wood; `subassemblies`: what is put together by itself first; `recesses`: what it holds lies in. `rings` are what goes round: in them the errors of all joints add up. `gauges` are sizes between places,
    besides those along the outlines. `inside`: the assemblies that it is made of, by name, where it is of several; their
    boards and measures are called by it, `Stand/AB`.
    """

    boards: tuple[Board, ...]
    joints: tuple[Joint, ...]
    outlines: tuple[Outline, ...]
    claims: tuple[Claim, ...]
    rings: tuple[Ring, ...]
    findings: tuple[Finding, ...] = ()
    gauges: tuple[Gauge, ...] = ()
    inside: "dict[str, Assembly]" = field(default_factory=dict)
    partings: tuple[Parting, ...] = ()
    asked_level_mm: float | None = None
    blanks: tuple[Blank, ...] = ()
    subassemblies: tuple[SubAssembly, ...] = ()
    recesses: tuple[HeldIn, ...] = ()

    def board(self, id: str) -> Board:
        """The board of that id."""
        return self._by_id[id]

    @cached_property
    def _by_id(self) -> dict[str, Board]:
        return {board.id: board for board in self.boards}

    @cached_property
    def by_name(self) -> dict[str, Gauge]:
        """The gauges by what they are called."""
        return {gauge.name: gauge for gauge in self.gauges}

    def outline(self, name: str) -> Outline | None:
        """The line of that name, if the boards have it."""
        return next((o for o in self.outlines if o.name == name), None)
