"""What tape, gauge and feeler should read once it stands together: everything that tells whether it came out as it should, from the finished solids."""

from collections.abc import Iterator
from math import asin, degrees
from typing import Literal

from fennup.core.assembly.model import Assembly
from fennup.core.design import Design
from fennup.core.fit.legs import ROCK_MM, stand
from fennup.core.fit.reading import Making, Picture, Sheet, mean
from fennup.core.fit.rounds import corners, rounds, walls
from fennup.core.fit.spaces import HEIGHTS, STEEP, between
from fennup.core.fit.web import Web
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.polyhedron import clip_polygon
from fennup.core.geometry.vec import Vec, dot, sub
from fennup.core.tolerances import NOTHING, ON_LINE, SAME

LEVEL_DEG = 0.5


def sheet_for(design: Design, web: Web, allowance_mm: float, at_mm: float | None = None) -> Sheet:
    """What is to be read of a design; `at_mm`: at which height the width of the whole besides."""
    made = Making(design, web, allowance_mm)
    made.at_mm = at_mm
    for member, own in design.assembly.inside.items():
        member_of(made, member, own)
    gaps(made)
    return Sheet(tuple(made.pictures), tuple(made.readings), made.figures, made.feet)


def member_of(made: Making, id: str, own: Assembly) -> None:
    """One assembly's."""
    boards = tuple(f"{id}/{board.id}" for board in own.boards)
    lift = sub(made.design.boards[boards[0]].frame.origin, own.boards[0].frame.origin)
    found = rounds(made, id, own, lift, boards)
    walls(made, id, own, lift)
    stand(made, id, boards)
    seen = whole(made, id, boards)
    for first in found[:1]:
        corners(made, first, set(boards))
    between(made, found[0] if found else seen, boards)
    turns(made, seen, boards)
    sizes(made, id, own, seen, boards)


def turns(made: Making, picture: Picture, boards: tuple[str, ...]) -> None:
    """How each sort of part lies: level, upright, or leaning by so much."""
    seen: set[str] = set()
    for group in made.design.parts:
        board = made.design.boards[group.id]
        if group.id not in boards or group.id in seen or lies_flat(made, boards):
            continue
        seen.add(group.id)
        at = made.middle(board)
        rise = degrees(asin(min(1.0, abs(board.frame.x[2]))))
        face = degrees(asin(min(1.0, abs(board.frame.z[2]))))
        near = min(LEVEL_DEG, degrees(made.allowance / max(board.section.thickness_mm, 1.0)))
        if board.role == "wall" or (rise < SAME and NOTHING < face < 90 - SAME):
            made.add(
                f"{group.id} lean",
                "plumb" if face < SAME else "lean",
                picture.id,
                at,
                at,
                face,
                near,
                group.boards,
                (group.id, "face"),
                unit="deg",
            )
        elif rise > 90 - SAME:
            made.add(f"{group.id} plumb", "plumb", picture.id, at, at, 0.0, near, group.boards, (group.id, "x"), unit="deg")
        elif rise > degrees(STEEP):
            made.add(f"{group.id} lean", "lean", picture.id, at, at, 90 - rise, near, group.boards, (group.id, "x"), unit="deg")
        if rise < SAME:
            made.add(f"{group.id} level", "level", picture.id, at, at, 0.0, near, group.boards, (group.id, "x"), unit="deg")


def lies_flat(made: Making, boards: tuple[str, ...]) -> bool:
    """Whether it is a flat frame: what lies on the bench has no lean."""
    return all(abs(made.design.boards[id].frame.z[2]) > 1 - NOTHING for id in boards) and all(
        not made.design.boards[id].found for id in boards
    )


def whole(made: Making, id: str, boards: tuple[str, ...]) -> Picture:
    """The whole from where it is widest."""
    points = [p for b in boards for piece in made.design.solids[b].world for p in piece.points]
    spans = [max(p[k] for p in points) - min(p[k] for p in points) for k in range(3)]
    if lies_flat(made, boards):
        right, up = (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)
        flatness(made, id, boards, points)
    elif spans[1] <= spans[0]:
        right, up = (1.0, 0.0, 0.0), (0.0, 0.0, 1.0)
    else:
        right, up = (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)
    if spans[2] < min(spans[0], spans[1]):
        right, up = (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)
    picture = Picture(f"{id} whole", "whole", id, right, up, boards)
    made.pictures.append(picture)
    widths(made, picture, points, boards)
    return picture


def flatness(made: Making, id: str, boards: tuple[str, ...], points: list[Vec]) -> None:
    """Laid on something flat, the gap under the corner that lifts."""
    at = max(points, key=lambda p: p[0] + p[1])
    made.add(f"{id} flat", "flat", f"{id} whole", at, at, 0.0, max(made.allowance, ROCK_MM), boards, (id,))


def widths(made: Making, picture: Picture, points: list[Vec], boards: tuple[str, ...]) -> None:
    """How wide the whole is at the bottom, half way up and at the top, square across, where it stands."""
    if picture.up != (0.0, 0.0, 1.0):
        return
    low, high = min(p[2] for p in points), max(p[2] for p in points)
    heights = [(name, (high - low) * share) for name, share in HEIGHTS]
    heights += [(f"{made.at_mm!r}", made.at_mm)] if made.at_mm is not None else []
    for name, height in heights:
        cut = [p for p in slice_at(made, low + height, boards)]
        if len(cut) > 2:
            a, b = min(cut, key=lambda p: dot(p, picture.right)), max(cut, key=lambda p: dot(p, picture.right))
            span = dot(sub(b, a), picture.right)
            level = (a[0] + picture.right[0] * span, a[1] + picture.right[1] * span, a[2])
            made.add(f"{picture.id} width {name}", "width", picture.id, a, level, span, 2 * made.allowance, boards, (name,))


def slice_at(made: Making, height: float, boards: tuple[str, ...]) -> Iterator[Vec]:
    """Where the sides of boards go through a level."""
    for id in boards:
        if made.design.boards[id].found:
            continue
        for piece in made.design.solids[id].world:
            for facet in piece.facets:
                corners = piece.corners(facet)
                if min(p[2] for p in corners) < height < max(p[2] for p in corners):
                    yield from (p for p in clip_polygon(corners, Plane((0.0, 0.0, 1.0), height)) if abs(p[2] - height) < ON_LINE)


def sizes(made: Making, id: str, own: Assembly, picture: Picture, boards: tuple[str, ...]) -> None:
    """The sizes between what is there already: as they are built, other parts follow them."""
    found = {b.id for b in own.boards if b.found}
    for gauge in own.gauges:
        if found and {gauge.a.board, gauge.b.board} & found and not gauge.follows:
            value = made.design.ruler.measure(f"{id}/{gauge.name}")
            if value is None:
                continue
            unit_: Literal["mm", "deg"] = "deg" if gauge.how in ("angle", "lean") else "mm"
            at = made.middle(made.design.boards[f"{id}/{gauge.b.board}"])
            near = made.allowance if unit_ == "mm" else LEVEL_DEG / 2
            made.add(
                f"size {id}/{gauge.name}",
                "size",
                picture.id,
                at,
                at,
                value,
                near,
                boards,
                (f"{id}/{gauge.name}",),
                unit=unit_,
            )


def gaps(made: Making) -> None:
    """A feeler at every joint."""
    for meeting in made.web.meetings.all.values():
        if meeting.offs():
            at = mean(list(meeting.corners))
            made.add(
                f"{meeting.joint.id} gap",
                "gap",
                "",
                at,
                at,
                0.0,
                made.allowance,
                (meeting.a.id, meeting.b.id),
                (meeting.joint.id,),
            )
