"""Several assemblies in one project, one on another, with sizes that follow each other."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from fennup.core.errors import SpecError
from fennup.core.kinds.box.spec import BoxSpec
from fennup.core.kinds.brace.spec import BraceSpec
from fennup.core.kinds.fields import Along_mm, Measure, Place_mm, Section_mm, Strict
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec
from fennup.core.kinds.roof.spec import RoofSpec
from fennup.core.kinds.stand.spec import StandSpec

MOST_MEMBERS = 8
Name = Annotated[str, Field(pattern=r"^[A-Za-z][A-Za-z0-9 -]{0,29}$", description="what one assembly is called")]


class Member(Strict):
    """One assembly: it stands on the ground, or `on` the highest wood of another one, and `up_mm` higher."""

    name: Name
    spec: Annotated[FlatFrameSpec | BoxSpec | StandSpec | BraceSpec | RoofSpec, Field(discriminator="kind")]
    on: Name | None = None
    up_mm: Place_mm = 0.0


class Link(Strict):
    """A size given by another: `measure` of the assembly `of` is what `source` of the assembly `after` measures, and
    `plus_mm` more."""

    of: Name
    measure: Measure
    after: Name
    source: Measure
    plus_mm: Place_mm = 0.0


class Seat(Strict):
    """Where a piece ends: on a board's side, `along_mm` from the lower end of a steep board, from the left end of any other, and
    `aside_mm` off the side's middle, towards the board's upper edge or, on an edge, its face."""

    board: Annotated[str, Field(max_length=80, description="the board's id, its assembly's name before it")]
    side: Literal["face", "back", "upper", "lower"]
    along_mm: Along_mm
    aside_mm: Place_mm = 0.0


class Piece(Strict):
    """A piece between two faces, cut to both: a strut, a stretcher, a sloping rail, a corner block. It stands on edge, or
    `lies_flat`."""

    name: Name
    a: Seat
    b: Seat
    width_mm: Section_mm
    thickness_mm: Section_mm
    lies_flat: bool = False


class TogetherSpec(Strict):
    """Assemblies that belong together, in the order in which they are built up."""

    kind: Literal["together"]
    version: Literal[1] = 1
    members: Annotated[list[Member], Field(min_length=1, max_length=MOST_MEMBERS)]
    links: Annotated[list[Link], Field(max_length=40)] = []
    pieces: Annotated[list[Piece], Field(max_length=40)] = []

    @property
    def sides(self) -> int:
        """Together they have no sides to count."""
        return 4

    def member(self, name: str) -> Member:
        """The assembly of that name. StopIteration when there is none."""
        return next(member for member in self.members if member.name == name)

    def followed_by(self, name: str) -> set[str]:
        """The assemblies that one follows, and those that they follow."""
        found: set[str] = set()
        waiting = {name}
        while waiting:
            waiting = {link.after for link in self.links if link.of in waiting} - found
            found |= waiting
        return found

    @model_validator(mode="after")
    def _hangs_together(self) -> "TogetherSpec":
        """Names are unique and exist, and nothing follows or stands on itself. SpecError names the field."""
        names = [member.name for member in self.members]
        pieces = [piece.name for piece in self.pieces]
        for k, name in enumerate(pieces):
            if name in pieces[:k]:
                raise SpecError("name_twice", (f"pieces.{k}.name",), name=name)
        for i, name in enumerate(names):
            if name in names[:i]:
                raise SpecError("name_twice", (f"members.{i}.name",), name=name)
        for i, member in enumerate(self.members):
            if member.on is not None and member.on not in names[:i]:
                raise SpecError("stands_on_nothing", (f"members.{i}.on",), name=member.name)
        for k, link in enumerate(self.links):
            if link.of not in names or link.after not in names:
                raise SpecError("no_such_assembly", (f"links.{k}",), name=link.of if link.of not in names else link.after)
        self.order()
        return self

    def order(self) -> list[str]:
        """The names so that every one comes after those whose sizes it follows. SpecError `links_circle`."""
        done: list[str] = []
        waiting = [member.name for member in self.members]
        while waiting:
            ready = [n for n in waiting if all(link.after in done for link in self.links if link.of == n)]
            if not ready:
                k = next(k for k, link in enumerate(self.links) if link.of in waiting and link.after in waiting)
                raise SpecError("links_circle", (f"links.{k}",), name=self.links[k].of, other=self.links[k].after)
            done += ready
            waiting = [n for n in waiting if n not in ready]
        return done
