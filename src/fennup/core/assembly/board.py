"""A board: a straight prism with its own axes, cut by planes. It has no length: the length is a result."""

from copy import copy
from dataclasses import dataclass
from typing import Any, Literal

from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec
from fennup.core.stock.section import Section

End = Literal["left", "right"]
Side = Literal["face", "back", "upper", "lower", "rabbet"]
ENDS: tuple[End, End] = ("left", "right")


@dataclass(frozen=True)
class Notch:
    """Wood taken out where all of some planes (in the board's axes, normals out of the notch) have it; the floor last. A `groove` runs along the
    board and stops: its walls are the one near the lower edge, the one near the upper edge, then those across it where it ends."""

    planes: tuple[Plane, ...]
    groove: bool = False


@dataclass(frozen=True)
class Hole:
    """A hole to be drilled from the face, or from the `back`, its middle in the board's axes: through, or so deep. It is marked, not taken out of
    the solid."""

    x_mm: float
    y_mm: float
    diameter_mm: float
    deep_mm: float | None = None
    back: bool = False


@dataclass(frozen=True)
class Board:
    """Section, axes and cuts. The cuts are planes in the board's own axes; `left` and `right` are in the order cut.

    `upper_rip` and `lower_rip` are planes along the board that take its long edges off at a bevel; with a `backing` the
    upper edge has two, `upper_rip` on the face's side and `backing` on the back's, and a ridge between. A `panel` is a flat
    piece whose outline is its cuts. `reach`: how far the uncut piece goes along x, where the end cuts do not tell.
    A `stave` has its grain across, along y: its end cuts are then its tapered long edges. A `found` board is there already
    and is not cut. `role`: what sort of member it is (`leg`, `rail`, `rafter`, ...), which tells what its sides are called.
    `shows`: its face is the show side, so that it may not be turned over. `ready`: its long edges and what is ploughed along it come so from the yard; `finished`: and have their
    finish on them. `glued`: it is glued up, of pieces of these sections, before it is cut.
    """

    id: str
    name: str
    section: Section
    frame: Frame
    left: tuple[Plane, ...] = ()
    right: tuple[Plane, ...] = ()
    upper_rip: Plane | None = None
    lower_rip: Plane | None = None
    backing: Plane | None = None
    panel: bool = False
    reach: tuple[float, float] | None = None
    notches: tuple[Notch, ...] = ()
    stave: bool = False
    holes: tuple[Hole, ...] = ()
    found: bool = False
    role: str = ""
    shows: bool = False
    ready: bool = False
    finished: bool = False
    glued: tuple[Section, ...] = ()

    @property
    def grain(self) -> Vec:
        """The way the grain runs, in the assembly's axes."""
        return self.frame.y if self.stave else self.frame.x

    def ends(self, end: End) -> tuple[Plane, ...]:
        """The cuts of one end."""
        return self.left if end == "left" else self.right

    def with_cut(self, end: End, world: Plane) -> "Board":
        """The board with one more cut at an end, the plane given in the assembly's axes."""
        plane = self.frame.plane_to_local(world)
        return self.but(left=(*self.left, plane)) if end == "left" else self.but(right=(*self.right, plane))

    def but(self, **changed: Any) -> "Board":
        """As `dataclasses.replace`, without asking every field anew: boards are made by many small steps."""
        made = copy(self)
        vars(made).update(changed)
        return made

    def with_notch(self, world: tuple[Plane, ...], *, groove: bool = False) -> "Board":
        """The board with one more notch, its planes given in the assembly's axes, the floor last."""
        return self.but(notches=(*self.notches, Notch(tuple(self.frame.plane_to_local(p) for p in world), groove)))

    @property
    def rips(self) -> tuple[tuple[Side, Plane], ...]:
        """Every plane that takes a long edge off, with the edge that it makes."""
        named: tuple[tuple[Side, Plane | None], ...] = (
            ("upper", self.upper_rip), ("upper", self.backing), ("lower", self.lower_rip),
        )  # fmt: skip
        return tuple((side, plane) for side, plane in named if plane)

    def side(self, side: Side) -> Plane:
        """The plane of a long side in the board's own axes, outward normal; `rabbet` is the wall of its step."""
        y, z = self.section.width_mm / 2, self.section.thickness_mm / 2
        if side == "upper":
            return self.upper_rip or Plane((0.0, 1.0, 0.0), y)
        if side == "lower":
            return self.lower_rip or Plane((0.0, -1.0, 0.0), y)
        if side == "face":
            return Plane((0.0, 0.0, 1.0), z)
        if side == "back":
            return Plane((0.0, 0.0, -1.0), z)
        if self.section.rabbet is None:
            raise ValueError(f"{self.id} has no rabbet")
        return Plane((0.0, 1.0, 0.0), y - self.section.rabbet.width_mm)

    def side_in_world(self, side: Side) -> Plane:
        """The plane of a long side in the assembly's axes."""
        return self.frame.plane_to_world(self.side(side))
