"""Which boards are the same part, which are mirror images, and what they are called."""

from dataclasses import dataclass

from fennup.core.assembly.board import Board
from fennup.core.geometry.plane import Plane
from fennup.core.parts.solid import Solid
from fennup.core.stock.section import Section

SAME_MM = 1e-5
Shape = list[tuple[str, tuple[float, ...]]]


@dataclass(frozen=True)
class PartGroup:
    """Boards that are one part. `id` is the first board's; `mirror_of` the group whose mirror image this is."""

    id: str
    boards: tuple[str, ...]
    mirror_of: str | None


def group_parts(boards: tuple[Board, ...], solids: dict[str, Solid]) -> tuple[PartGroup, ...]:
    """Boards whose solids coincide, end for end and face for face, in the order in which they come.

    A mirror image is told apart even where turning a plain board over would make it: the face is the show side.
    """
    groups: list[tuple[Board, Shape, list[str], str | None]] = []
    for board in boards:
        shape, mirrored = _shape(board, solids[board.id]), _mirror_images(board, solids[board.id])
        mirror_of = None
        for first, other, members, _ in groups:
            if not _same_section(first.section, board.section):
                continue
            if _coincide(shape, other):
                members.append(board.id)
                break
            if any(_coincide(image, other) for image in mirrored):
                mirror_of = first.id
        else:
            groups.append((board, shape, [board.id], mirror_of))
    return tuple(PartGroup(first.id, tuple(members), mirror_of) for first, _, members, mirror_of in groups)


def _shape(board: Board, solid: Solid) -> Shape:
    """Every plane that shapes the board, named, its offset counted from the board's left end."""
    low, _ = solid.extent_x()
    return [(name, (*p.normal, p.offset - p.normal[0] * low)) for name, p in _planes(board)]


def _mirror_images(board: Board, solid: Solid) -> list[Shape]:
    """The same for the board's mirror image, end for end; and face for back, where both sides are alike before it is cut."""
    low, high = solid.extent_x()
    planes = _planes(board)
    ends = {"left": "right", "right": "left"}
    images: list[Shape] = [
        [(ends.get(name, name), (-p.normal[0], *p.normal[1:], p.offset - p.normal[0] * high)) for name, p in planes]
    ]
    if board.section.rabbet is None and board.section.groove is None:
        halves = {"upper": "backing", "backing": "upper"} if board.backing else {}
        turned: Shape = [
            (halves.get(name, name), (*p.normal[:2], -p.normal[2], p.offset - p.normal[0] * low)) for name, p in planes
        ]
        images.append(turned)
    return images


def _planes(board: Board) -> list[tuple[str, Plane]]:
    """Cuts and rips with the side that they make."""
    rips = (("lower", board.lower_rip), ("upper", board.upper_rip), ("backing", board.backing))
    return [
        *(("left", p) for p in board.left),
        *(("right", p) for p in board.right),
        *((name, p) for name, p in rips if p),
        *(("hole", Plane((hole.diameter_mm, hole.y_mm, 1.0), hole.x_mm)) for hole in board.holes),
        *(("notch", p) for notch in board.notches for p in notch.planes),
    ]


def _same_section(a: Section, b: Section) -> bool:
    """Whether two sections are alike, to SAME_MM."""
    near = abs(a.width_mm - b.width_mm) < SAME_MM and abs(a.thickness_mm - b.thickness_mm) < SAME_MM
    return near and a.rabbet == b.rabbet and a.groove == b.groove


def _coincide(a: Shape, b: Shape) -> bool:
    """Whether the same sides lie in the same planes, to SAME_MM, in whatever order they are cut."""
    left = list(b)
    for name, plane in a:
        same = next((k for k, (other, p) in enumerate(left) if other == name and _near(plane, p)), None)
        if same is None:
            return False
        del left[same]
    return not left


def _near(a: tuple[float, ...], b: tuple[float, ...]) -> bool:
    return all(abs(m - n) < SAME_MM for m, n in zip(a, b, strict=True))
