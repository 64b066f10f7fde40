"""What a person wants: one assembly or several, one on another, with sizes that follow each other and pieces between them."""

from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, Any, Literal

from pydantic import Field, field_validator, model_validator

from fennup.core.errors import SpecError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.kinds.fields import Along_mm, Measure, Place_mm, Section_mm, Size_mm, Strict

MOST_MEMBERS = 8
MOST_NAMED = 24
NAME_OF_SIZE = "[A-Za-z][A-Za-z0-9 ]{0,28}[A-Za-z0-9]|[A-Za-z]"
SizeId = Annotated[str, Field(pattern=r"^s[1-9][0-9]{0,3}$", description="which named size; it never changes")]
Name = Annotated[str, Field(pattern=r"^[A-Za-z][A-Za-z0-9 -]{0,29}$", description="what one assembly or piece is called")]
MemberId = Annotated[str, Field(pattern=r"^m[1-9][0-9]{0,4}$", description="which assembly; it never changes")]
PieceId = Annotated[str, Field(pattern=r"^p[1-9][0-9]{0,4}$", description="which piece; it never changes")]
if TYPE_CHECKING:
    KindSpec = Any
else:
    KindSpec = Annotated[reduce(or_, (kind.spec for kind in KINDS.values())), Field(discriminator="kind")]


class Facet(Strict):
    """A long side or an end's cut of one of an assembly's boards, by the board's own key."""

    board: Annotated[str, Field(max_length=60)]
    facet: Annotated[str, Field(pattern=r"^(face|back|upper|lower|(left|right):[0-9]{1,2})$")]


class Member(Strict):
    """One assembly: it stands on the ground, or `on` the highest wood of another one, and `up_mm` higher.

    `down`: the side on which it stands, if not as it is made. `turned_deg`: turned about upright, anticlockwise from above; then
    `right_mm` and `back_mm` from its own place. `upon`: laid on a face of the one that it stands on, the two middles together,
    and moved from there along the face.
    """

    name: Name
    spec: KindSpec
    on: MemberId | None = None
    up_mm: Place_mm = 0.0
    down: Facet | None = None
    turned_deg: Annotated[float, Field(ge=-180, le=180, allow_inf_nan=False)] = 0.0
    right_mm: Place_mm = 0.0
    back_mm: Place_mm = 0.0
    upon: Facet | None = None


class Link(Strict):
    """A size given by another: `measure` of the assembly `of` is what `source` of the assembly `after` measures, and
    `plus_mm` more."""

    of: MemberId
    measure: Measure
    after: MemberId
    source: Measure
    plus_mm: Place_mm = 0.0


class Seat(Strict):
    """Where a piece ends: on a board's side, `along_mm` from the lower end of a steep board, from the left end of any other, and
    `aside_mm` off the side's middle, towards the board's upper edge or, on an edge, its face."""

    board: Annotated[
        str, Field(max_length=80, description="the board's key: its assembly's id and its own, `m1/AB`, or a piece's id")
    ]
    side: Literal["face", "back", "upper", "lower"]
    along_mm: Along_mm
    aside_mm: Place_mm = 0.0


class Pipe(Strict):
    """A round pipe or bar, bought and cut off square: its diameter, and how far it goes into the boards at both ends."""

    diameter_mm: Section_mm
    into_mm: Size_mm


class Piece(Strict):
    """A piece between two faces, cut to both: a strut, a stretcher, a sloping rail, a corner block; or a round `pipe` that goes into both. It
    stands on edge, or `lies_flat`. With a `count` it is the first of a row, each `step_mm` farther along both boards than the one before."""

    name: Name
    a: Seat
    b: Seat
    width_mm: Section_mm
    thickness_mm: Section_mm
    lies_flat: bool = False
    pipe: Pipe | None = None
    count: Annotated[int, Field(ge=1, le=40)] = 1
    step_mm: Size_mm | None = None

    def keys(self, id: str) -> tuple[str, ...]:
        """What the pieces of its row are called: the first one by its id."""
        return (id, *(f"{id}.{k + 1}" for k in range(1, self.count)))


class NamedSize(Strict):
    """A size that other figures are said by: the foam's thickness, a gap."""

    name: Annotated[str, Field(pattern=f"^{NAME_OF_SIZE}$")]
    mm: Place_mm


class Sum(Strict):
    """A figure as a small sum: a length, and how many times each named size."""

    plus_mm: Place_mm = 0.0
    terms: Annotated[dict[SizeId, Annotated[int, Field(ge=-99, le=99)]], Field(min_length=1, max_length=8)]


class ProjectSpec(Strict):
    """Assemblies by id, in the order in which they are built up, and pieces between their faces.

    `named` are sizes with a name; `sums`: of which figures (`path:` and the field, `measure:` and the size) are sums of those.
    `numbered`: how many assemblies and pieces there have been, so that no id is given twice.
    """

    members: Annotated[dict[MemberId, Member], Field(min_length=1, max_length=MOST_MEMBERS)]
    links: Annotated[list[Link], Field(max_length=40)] = []
    pieces: Annotated[dict[PieceId, Piece], Field(max_length=40)] = {}
    named: Annotated[dict[SizeId, NamedSize], Field(max_length=MOST_NAMED)] = {}
    sums: Annotated[dict[Annotated[str, Field(max_length=200)], Sum], Field(max_length=200)] = {}
    numbered: Annotated[int, Field(ge=0, le=99_999)] = 0

    def followed_by(self, id: str) -> set[str]:
        """The assemblies that one follows, and those that they follow."""
        found: set[str] = set()
        waiting = {id}
        while waiting:
            waiting = {link.after for link in self.links if link.of in waiting} - found
            found |= waiting
        return found

    @field_validator("members", "pieces", mode="after")
    @classmethod
    def _in_order(cls, entries: dict[str, Any]) -> dict[str, Any]:
        """In the order in which they came, whatever order a file has them in."""
        return dict(sorted(entries.items(), key=lambda entry: int(entry[0][1:])))

    @model_validator(mode="after")
    def _hangs_together(self) -> "ProjectSpec":
        """Names are unique, what is referred to exists, and nothing follows or stands on itself. SpecError names the field."""
        for place, named in (("members", self.members), ("pieces", self.pieces)):
            before: set[str] = set()
            for id, entry in named.items():
                if entry.name in before:
                    raise SpecError("name_twice", (f"{place}.{id}.name",), name=entry.name)
                before.add(entry.name)
        ids = list(self.members)
        for i, (id, member) in enumerate(self.members.items()):
            if member.on is not None and member.on not in ids[:i]:
                raise SpecError("stands_on_nothing", (f"members.{id}.on",), name=member.name)
            if member.upon is not None and member.on is None:
                raise SpecError("upon_nothing", (f"members.{id}.upon",), name=member.name)
        for k, link in enumerate(self.links):
            for end in (link.of, link.after):
                if end not in self.members:
                    raise SpecError("no_such_assembly", (f"links.{k}",), name=end)
        for key, said in self.sums.items():
            if not set(said.terms) <= set(self.named):
                raise SpecError("no_such_named", (f"sums.{key}",))
        self.order()
        return self

    def order(self) -> list[str]:
        """The ids so that every one comes after those whose sizes it follows. SpecError `links_circle`."""
        done: list[str] = []
        waiting = list(self.members)
        while waiting:
            ready = [id for id in waiting if all(link.after in done for link in self.links if link.of == id)]
            if not ready:
                k = next(k for k, link in enumerate(self.links) if link.of in waiting and link.after in waiting)
                names = (self.members[id].name for id in (self.links[k].of, self.links[k].after))
                raise SpecError("links_circle", (f"links.{k}",), **dict(zip(("name", "other"), names, strict=True)))
            done += ready
            waiting = [id for id in waiting if id not in ready]
        return done

    def next_number(self) -> int:
        """The number of the next assembly or piece: higher than any that there has been."""
        return 1 + max([self.numbered, *(int(id[1:]) for id in (*self.members, *self.pieces))])


def project_of(spec: Any, name: str) -> ProjectSpec:
    """A single assembly's valid spec as a project of that one."""
    return ProjectSpec(members={"m1": Member(name=name, spec=spec)}, numbered=1)
