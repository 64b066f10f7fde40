"""What a person says about a flat frame. Millimetres and degrees; sides are lettered A, B, C ... anticlockwise from
the one at the bottom, corners by the two sides that meet there: AB, BC, ..."""

from dataclasses import dataclass
from string import ascii_uppercase
from typing import Annotated, Literal, get_args

from pydantic import Field, model_validator

from fennup.core.drawing.view import Standing
from fennup.core.errors import SpecError
from fennup.core.kinds.drilling import Holes
from fennup.core.kinds.fields import (
    CornerJoint,
    CornerLetters,
    Given,
    Pinned,
    Play_mm,
    Section_mm,
    SideLetter,
    Strict,
    pin,
)
from fennup.core.kinds.flat_frame.glued import glued_section, lying_on
from fennup.core.kinds.flat_frame.layer import MOST_LAYERS, Layer, LayerNumber
from fennup.core.kinds.flat_frame.shapes import (
    SPANS,
    CornerPin,
    HeldPanel,
    HeldRound,
    Irregular,
    LineSize,
    LineSizes,
    Rectangle,
    Regular,
    SidePin,
    SpanPin,
    pinned_measure,
)
from fennup.core.kinds.inner import Inner
from fennup.core.kinds.ploughing import MOST_PLOUGHED, check_ploughed
from fennup.core.kinds.stopping import MOST_STOPPED, Stopped
from fennup.core.stock.ploughed import Ploughed, Rabbet
from fennup.core.stock.section import Section


class Panel(Strict):
    """A panel in the rabbet, its face against the rabbet's floor. Play is the total."""

    thickness_mm: Section_mm
    play_mm: Play_mm = 0.0


class BoardSpec(Strict):
    """The stock, as it measures. `nominal` only remembers what the yard calls it; `bought`: it is a moulding, with all that is ploughed along it;
    `finished`: and what is on it already."""

    width_mm: Section_mm
    thickness_mm: Section_mm
    nominal: Annotated[str | None, Field(max_length=40)] = None
    ploughed: Annotated[list[Ploughed], Field(max_length=MOST_PLOUGHED)] = []
    bought: bool = False
    finished: Annotated[str, Field(max_length=60)] = ""


class RailSpec(Strict):
    """What is different about one rail."""

    width_mm: Section_mm


class RabbetSpec(Strict):
    """A step along the opening edge, open to the back."""

    width_mm: Section_mm
    depth_mm: Section_mm


SizeField = Literal["mm", "width_mm", "depth_mm", "object_mm", "object_width_mm", "object_depth_mm"]
SIZE_FIELDS: tuple[str, ...] = get_args(SizeField)


@dataclass(frozen=True)
class Recess:
    """Where what the frame holds lies. Its wall is `shift_mm` outwards of the rails' opening, its floor `from_face_mm` in from their face; the lip covers
    `lip_mm`. It is a rabbet; or strips on the back, set back from the opening, make it; or strips on the face that reach over the opening."""

    by: Literal["rabbet", "strips", "overhang"]
    shift_mm: float
    lip_mm: float
    depth_mm: float
    from_face_mm: float
    field: str
    layer: str = ""


class FlatFrameSpec(Pinned):
    """A flat frame: rails round an opening, all in one plane. `suggested`: those of its size's figures that nobody has given yet."""

    kind: Literal["flat_frame"]
    shape: Annotated[Regular | Rectangle | Irregular, Field(discriminator="form")]
    suggested: list[SizeField] = []
    board: BoardSpec
    rails: dict[SideLetter, RailSpec] = {}
    rabbet: RabbetSpec | None = None
    joint: Literal["miter", "butt"] = "miter"
    corners: dict[CornerLetters, CornerJoint] = {}
    left_out: list[SideLetter] = []
    loose_ends: Literal["square", "ground"] = "square"
    panel: Panel | None = None
    inner: Inner | None = None
    holes: Annotated[list[Holes], Field(max_length=40)] = []
    stopped: Annotated[list[Stopped], Field(max_length=MOST_STOPPED)] = []
    layers: Annotated[dict[LayerNumber, Layer], Field(max_length=MOST_LAYERS)] = {}
    numbered: Annotated[int, Field(ge=0, le=99, description="how many layers there have been")] = 0
    glued_up: Annotated[bool, Field(description="the layers are glued on before the rails are cut")] = False
    stand_off_mm: Play_mm | None = None

    @property
    def sides(self) -> int:
        """How many sides the outline has, left out or not."""
        if isinstance(self.shape, Regular):
            return self.shape.sides
        return 4 if isinstance(self.shape, Rectangle) else len(self.shape.corners)

    @property
    def letters(self) -> str:
        """The letters of the sides, in order."""
        return ascii_uppercase[: self.sides]

    @property
    def corner_names(self) -> list[str]:
        """The corners in order: AB, BC, ..., and last the one that comes back to A."""
        letters = self.letters
        return [letters[i] + letters[(i + 1) % len(letters)] for i in range(len(letters))]

    @property
    def by_line(self) -> bool:
        """Whether its size is given on a line of the frame, not by what it holds or what floats in it."""
        return isinstance(self.shape, Irregular) or isinstance(self.shape.size, LineSize | LineSizes)

    @property
    def held_plays_mm(self) -> tuple[float, ...]:
        """The play of what it holds, mm in all: in width and in depth where these may differ; none where it is not sized by that."""
        if isinstance(self.shape, Irregular):
            return (self.shape.play_mm,) if self.shape.line == "held" else ()
        size = self.shape.size
        if isinstance(size, HeldPanel):
            return size.plays_mm
        return (size.play_mm,) if isinstance(size, HeldRound) else ()

    @property
    def size_fields(self) -> tuple[str, ...]:
        """Where the size of a regular or rectangular frame stands, in the order of `usual_pins`."""
        names = ("width_mm", "depth_mm") if isinstance(self.shape, Rectangle) else ("mm",)
        return tuple(f"shape.size.{'' if self.by_line else 'object_'}{name}" for name in names)

    def standing_of(self, field: str) -> Standing:
        """How one of the size's figures stands."""
        return "suggested" if field in self.suggested else "given"

    def usual_pins(self) -> tuple[Given, ...]:
        """The shape's own sizes, as measures."""
        shape = self.shape
        if isinstance(shape, Irregular):
            return tuple(pin(pinned_measure(shape, p), p.deg if isinstance(p, CornerPin) else p.mm) for p in shape.pins)
        if isinstance(shape, Regular):
            if isinstance(shape.size, LineSize):
                return (pin(shape.size.by, shape.size.mm),)
            line, grow = (
                ("rabbet", shape.size.play_mm) if isinstance(shape.size, HeldRound) else ("opening", 2 * shape.size.reveal_mm)
            )
            return (pin(f"{line}_flats", shape.size.object_mm + grow),)
        size = shape.size
        if isinstance(size, LineSizes):
            return (pin(f"{size.by}_width", size.width_mm), pin(f"{size.by}_depth", size.depth_mm))
        line, (wide, deep) = ("rabbet", size.plays_mm) if isinstance(size, HeldPanel) else ("opening", (2 * size.reveal_mm,) * 2)
        return (pin(f"{line}_width", size.object_width_mm + wide), pin(f"{line}_depth", size.object_depth_mm + deep))

    def width_of(self, letter: str) -> float:
        """Actual width of a rail, mm."""
        rail = self.rails.get(letter)
        return rail.width_mm if rail else self.board.width_mm

    def width_field(self, letter: str) -> str:
        """Where a rail's width stands."""
        return f"rails.{letter}.width_mm" if letter in self.rails else "board.width_mm"

    @property
    def recess(self) -> Recess | None:
        """Where what it holds lies; None where nothing could."""
        thick = self.board.thickness_mm
        if self.as_one:
            one, at = self.glued(self.narrowest)
            step = one.rabbet
            if step is None:
                return None
            floor = at - one.thickness_mm / 2 + step.depth_mm
            field = "rabbet.width_mm" if self.rabbet else f"layers.{next(iter(self.layers))}.set_back_mm"
            return Recess("rabbet", step.width_mm, step.width_mm, step.depth_mm, thick / 2 - floor, field)
        if self.rabbet:
            wide, deep = self.rabbet.width_mm, self.rabbet.depth_mm
            return Recess("rabbet", wide, wide, deep, thick - deep, "rabbet.width_mm")
        for id, layer in self.layers.items():
            field = f"layers.{id}.set_back_mm"
            if layer.keeps_to == "outside" or set(layer.left_out) - set(self.left_out):
                continue
            if layer.side == "back" and layer.set_back_mm > 0:
                return Recess("strips", layer.set_back_mm, layer.set_back_mm, layer.thickness_mm, thick, field, id)
            if layer.side == "face" and layer.set_back_mm < 0:
                return Recess("overhang", 0.0, -layer.set_back_mm, thick, 0.0, field, id)
        return None

    @property
    def shift_mm(self) -> float:
        """How far outwards of the opening what it holds reaches, its play included."""
        return self.recess.shift_mm if self.recess else 0.0

    @property
    def narrowest(self) -> str:
        """The narrowest rail's letter: what is ploughed along all of them must find its wood there."""
        return min(self.letters, key=self.width_of)

    def section_of(self, letter: str) -> Section:
        """A rail cut across: the rabbet for what it holds first, then what else is ploughed along every rail."""
        held = (Rabbet(width_mm=self.rabbet.width_mm, depth_mm=self.rabbet.depth_mm),) if self.rabbet else ()
        return Section(self.width_of(letter), self.board.thickness_mm, (*held, *self.board.ploughed))

    @property
    def as_one(self) -> bool:
        """Whether every rail is glued up with its strips before it is cut."""
        return self.glued_up and bool(self.layers)

    def glued(self, letter: str) -> tuple[Section, float]:
        """A rail with all its strips as one section, and how far its middle lies in front of the rail's own. SpecError."""
        return glued_section(
            self.section_of(letter), lying_on(self.width_of(letter), self.board.thickness_mm, self.layers, letter)
        )

    @model_validator(mode="after")
    def _consistent(self) -> "FlatFrameSpec":
        """Names must exist and the section must be possible; SpecError names the field."""
        letters, corners = self.letters, self.corner_names
        for letter in self.rails:
            if letter not in letters:
                raise SpecError("no_such_side", (f"rails.{letter}",), side=letter, last=letters[-1])
        for i, letter in enumerate(self.left_out):
            if letter not in letters or letter in self.left_out[:i]:
                raise SpecError("no_such_side", (f"left_out.{i}",), side=letter, last=letters[-1])
        if len(letters) - len(self.left_out) < 2:
            raise SpecError("too_few_left", ("left_out",))
        for name, corner in self.corners.items():
            if name not in corners:
                raise SpecError("no_such_corner", (f"corners.{name}",), corner=name)
            if corner.joint == "butt" and corner.through and corner.through not in name:
                raise SpecError("through_not_here", (f"corners.{name}.through",), corner=name)
        if isinstance(self.shape, Irregular):
            for i, fixed in enumerate(self.shape.pins):
                if isinstance(fixed, SidePin) and fixed.side not in letters:
                    raise SpecError("no_such_side", (f"shape.pins.{i}.side",), side=fixed.side, last=letters[-1])
                if isinstance(fixed, CornerPin) and fixed.corner not in corners:
                    raise SpecError("no_such_corner", (f"shape.pins.{i}.corner",), corner=fixed.corner)
                ends = (fixed.span[:2], fixed.span[2:]) if isinstance(fixed, SpanPin) and fixed.span not in SPANS else ()
                for end in ends:
                    if end not in corners or ends[:1] == ends[1:]:
                        raise SpecError("no_such_corner", (f"shape.pins.{i}.span",), corner=end)
        if isinstance(self.shape, Regular) and self.shape.size.by.endswith("reach") and self.shape.sides % 2 == 0:
            raise SpecError("odd_only", ("shape.size.by",))
        self._check_section()
        return self

    def _check_section(self) -> None:
        """A rabbet must leave wood beside and above it, and a held thing needs one."""
        held = self.shape.line == "held" if isinstance(self.shape, Irregular) else self.shape.size.by == "holds"
        if held and self.recess is None:
            raise SpecError("holds_without_rabbet", ("rabbet",))
        narrowest = self.width_of(self.narrowest)
        for id, layer in self.layers.items():
            check_ploughed(layer.section, 0, f"layers.{id}.ploughed")
            if layer.corners.startswith("long") and self.sides != len("ABCD"):
                raise SpecError("long_on_four", (f"layers.{id}.corners",))
            for i, letter in enumerate(layer.left_out):
                if letter not in self.letters or letter in layer.left_out[:i]:
                    raise SpecError("no_such_side", (f"layers.{id}.left_out.{i}",), side=letter, last=self.letters[-1])
        check_ploughed(self.section_of(self.narrowest), 1 if self.rabbet else 0, "board.ploughed")
        if self.as_one:
            bare = next((id for id, layer in self.layers.items() if layer.left_out), None)
            if bare:
                raise SpecError("glued_everywhere", (f"layers.{bare}.left_out",))
            self.glued(self.narrowest)
        if self.rabbet is None:
            return
        if self.rabbet.width_mm >= narrowest:
            raise SpecError("rabbet_too_wide", ("rabbet.width_mm",), mm=self.rabbet.width_mm, limit_mm=narrowest)
        if self.rabbet.depth_mm >= self.board.thickness_mm:
            limit = self.board.thickness_mm
            raise SpecError("rabbet_too_deep", ("rabbet.depth_mm",), mm=self.rabbet.depth_mm, limit_mm=limit)
