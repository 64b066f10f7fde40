"""A lid that lies on a ring of walls, in every kind that has one: of its own thickness, reaching over each side by so much, hinged or not."""

from collections.abc import Mapping
from typing import Annotated

from pydantic import Field

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Joint, Mating
from fennup.core.drawing.view import Control
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, meeting_point
from fennup.core.geometry.polyhedron import clip_polygon
from fennup.core.geometry.vec import Vec, dot
from fennup.core.kinds.asking import Answers, choice, figure, one_of, with_or_without
from fennup.core.kinds.fields import Place_mm, Play_mm, Section_mm, SideLetter, Size_mm, Strict
from fennup.core.kinds.inner import Added, cut_by
from fennup.core.stock.section import Section


class Cover(Strict):
    """A panel on the walls, reaching over each side by `over_mm`, or by what `overs_mm` says of that side (less than 0: short of it).

    `hinge`: the side where it swings: there a strip `strip_mm` wide stays, and the lid begins `gap_mm` from it.
    """

    thickness_mm: Section_mm
    over_mm: Place_mm = 0.0
    overs_mm: Annotated[dict[SideLetter, Place_mm], Field(max_length=24)] = {}
    hinge: SideLetter | None = None
    strip_mm: Size_mm = 60.0
    gap_mm: Play_mm = 2.0

    def check_sides(self, letters: str, path: str) -> None:
        """SpecError `no_such_side` naming the field where something is said of a side that is not there."""
        said = [(f"{path}.overs_mm.{letter}", letter) for letter in self.overs_mm] + [(f"{path}.hinge", self.hinge or letters[0])]
        for field, letter in said:
            if letter not in letters:
                raise SpecError("no_such_side", (field,), side=letter, last=letters[-1])

    def over(self, letter: str) -> float:
        """How far it reaches over one side."""
        return self.overs_mm.get(letter, self.over_mm)


def lay_cover(
    added: Added,
    cover: Cover,
    on: Frame,
    rims: Mapping[str, Plane],
    walls: Mapping[str, Mating],
    named: tuple[str, str] = ("cover", "cover"),
) -> None:
    """The lid, and the strip that it is hinged to. `on`: a place of the plane that it lies on, its z upwards; `rims`: the sides in order, each
    with the plane of its wall's outside there; `walls`: what it lies on; `named`: the lid's id, and where it was said. SpecError `cover_nothing`."""
    lid_id, path = named
    whole = cover.hinge is None and all(cover.over(letter) >= 0 for letter in rims)
    sides = {letter: plane.moved(cover.over(letter)) for letter, plane in rims.items()}
    ground = Plane(on.z, dot(on.z, on.origin))
    try:
        planes = list(sides.values())
        corners = [meeting_point(planes[i - 1], planes[i], ground) for i in range(len(planes))]
    except CutError:
        raise SpecError("cover_nothing", (f"{path}.over_mm",)) from None
    pieces = [(lid_id, "Lid", planes)]
    if cover.hinge:
        edge = sides[cover.hinge]
        strip = edge.moved(-cover.strip_mm).flipped()
        lid = {**sides, cover.hinge: edge.moved(-cover.strip_mm - cover.gap_mm)}
        pieces = [(lid_id, "Lid", list(lid.values())), ("hinge strip", "Hinge strip", [*planes, strip])]
    for id, name, around in pieces:
        added.boards.append(_panel(id, name, cover, on, (corners, around), path))
        for letter, wall in walls.items():
            if cover.over(letter) >= 0 and (letter == cover.hinge) == (id == "hinge strip"):
                added.joints.append(Joint(f"{wall.board} {id}", "butt" if whole else "face", wall, Mating(id, "back"), ()))


def _panel(id: str, name: str, cover: Cover, on: Frame, around: tuple[list[Vec], list[Plane]], path: str) -> Board:
    """A panel on a plane, inside some corners and planes. SpecError `cover_nothing`."""
    left, planes = tuple(around[0]), around[1]
    for plane in planes:
        left = clip_polygon(left, plane)
    if not left:
        raise SpecError("cover_nothing", (f"{path}.strip_mm" if cover.hinge else f"{path}.over_mm",))
    local = [on.to_local(p) for p in left]
    (x0, x1), (y0, y1) = ((min(p[k] for p in local), max(p[k] for p in local)) for k in (0, 1))
    if min(x1 - x0, y1 - y0) < 1.0:
        raise SpecError("cover_nothing", (f"{path}.strip_mm" if cover.hinge else f"{path}.over_mm",))
    middle = on.to_world(((x0 + x1) / 2, (y0 + y1) / 2, cover.thickness_mm / 2))
    half = (x1 - x0) / 2 + 1.0
    frame = Frame(middle, on.x, on.y, on.z)
    board = Board(id, name, Section(y1 - y0, cover.thickness_mm), frame, panel=True, reach=(-half, half), role="lid", shows=True)
    return cut_by(board, planes)


def cover_controls(
    cover: Cover | None, sides: Mapping[str, str], thick: float, path: str = "cover", group: str = "on_top"
) -> list[Control]:
    """A lid or none; how far it reaches over each side, and where it is hinged. `sides`: what each letter is called."""
    made = [with_or_without("cover", group, path, ("no_cover", "loose_lid"), {"thickness_mm": thick}, cover)]
    if cover is None:
        return made
    made.append(figure("cover_thickness", group, cover.thickness_mm, f"{path}.thickness_mm"))
    each = {letter: cover.over_mm for letter in sides}
    overs: Answers = {"cover_alike": ({}, not cover.overs_mm), "cover_each": (each, bool(cover.overs_mm))}
    made.append(choice("cover_overs", group, f"{path}.overs_mm", overs))
    if not cover.overs_mm:
        made.append(figure("cover_over", group, cover.over_mm, f"{path}.over_mm"))
    for letter, name in sides.items() if cover.overs_mm else ():
        made.append(figure("cover_over", group, cover.over(letter), f"{path}.overs_mm.{letter}", about=name))
    hinges = {"no_hinge": None, **{f"hinge_at:{name}": letter for letter, name in sides.items()}}
    made.append(one_of("cover_hinge", group, f"{path}.hinge", dict(hinges), cover.hinge))
    if cover.hinge:
        made.append(figure("hinge_strip", group, cover.strip_mm, f"{path}.strip_mm"))
        made.append(figure("hinge_gap", group, cover.gap_mm, f"{path}.gap_mm"))
    return made
