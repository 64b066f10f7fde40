"""Outlines: diagonals, the angles of their corners, how far loose ends stand apart; and crosswise over every wall."""

from dataclasses import replace
from itertools import pairwise
from math import atan2, degrees

from fennup.core.assembly.board import Board, Side
from fennup.core.assembly.model import Assembly
from fennup.core.fit.meeting import Meeting
from fennup.core.fit.polygon import Corner, Figure
from fennup.core.fit.reading import Making, Picture, mean, paper
from fennup.core.geometry.vec import Vec, add, cross, distance, dot, norm

EDGES = ("its bottom edge", "its right end", "its top edge", "its left end")  # sides of a wall's face
ALIKE = 0.999  # of two directions: nearly parallel


def rounds(made: Making, id: str, own: Assembly, lift: Vec, boards: tuple[str, ...]) -> list[Picture]:
    found: list[Picture] = []
    for line in sorted(own.outlines, key=lambda o: "out" not in o.name):  # where a tape hooks best, first
        if line.name.startswith(("inner", "rabbet")):
            continue
        runs = made.design.ruler.within(id).runs(line.name)
        if runs is None or len(runs) < 3:
            continue
        keys = [s.key for s in line.stretches]
        ids = tuple(f"{id}/{s.board}" for s in line.stretches)
        points = [add(runs[key][0], lift) for key in keys]
        names = [f"{keys[k - 1]}{key}" for k, key in enumerate(keys)]
        open_side = None
        if line.broken:
            if len(line.broken) > 1:
                continue
            gap = next(iter(line.broken))  # between stretch `gap` and the next: begin after it, end with the last one's own end
            turn = (gap + 1) % len(keys)
            keys, ids, points = (tuple(v[turn:]) + tuple(v[:turn]) for v in (keys, ids, points))  # type: ignore[assignment]
            points = [*points, add(runs[keys[-1]][1], lift)]
            names = [f"{keys[0]} end", *(f"{a}{b}" for a, b in pairwise(keys)), f"{keys[-1]} end"]
            ids, open_side = (*ids, ids[0]), len(points) - 1
        figure = Figure(
            f"{id} {line.name}", tuple(Corner(n, p) for n, p in zip(names, points, strict=True)), tuple(ids), 0.0, open_side
        )
        figure = replace(figure, joint_mm=joint_mm(made, figure, ids))
        x, y = figure.axes
        normal = cross(x, y)
        picture = Picture(figure.id, "round", line.name, *paper(normal), boards)
        made.pictures.append(picture)
        found.append(picture)
        made.figure(figure, picture, "diagonal")
        if open_side is not None:
            last = len(points) - 1
            made.add(f"{figure.id} ends", "apart", picture.id, points[0], points[-1], distance(points[0], points[-1]),
                      2 * made.allowance, (ids[0], ids[-2]), ("ends",), figure=figure.id, pair=(0, last))  # fmt: skip
    return found


def joint_mm(made: Making, figure: Figure, ids: tuple[str, ...]) -> float:
    """How far a joint of these boards reaches along a figure's plane, as far as a turn in it opens it."""
    x, y = figure.axes
    normal, own = cross(x, y), set(ids)
    found = [_opens(m, normal) for m in made.web.meetings.all.values() if m.a.id in own and m.b.id in own]
    return max(found, default=max(made.design.boards[id].section.width_mm for id in ids))


def walls(made: Making, id: str, own: Assembly, lift: Vec) -> None:
    low, high = own.outline("outer_bottom"), own.outline("outer_top")
    ruler = made.design.ruler.within(id)
    bottom, top = (ruler.runs(line.name) if line else None for line in (low, high))
    if bottom is None or top is None or low is None:
        return
    for stretch in low.stretches:
        board = made.design.boards[f"{id}/{stretch.board}"]
        places = [bottom[stretch.key][0], bottom[stretch.key][1], top[stretch.key][1], top[stretch.key][0]]
        corners = tuple(
            Corner(name, add(p, lift))
            for name, p in zip(("foot left", "foot right", "top right", "top left"), places, strict=True)
        )
        figure = Figure(f"{board.id} face", corners, EDGES, board.section.thickness_mm)
        same = [f"{id}/{b.id}" for b in own.boards if _in_one_plane(board, made.design.boards[f"{id}/{b.id}"])]
        picture = Picture(figure.id, "wall", board.id, *paper(board.frame.z), tuple(same))
        made.pictures.append(picture)
        made.figure(figure, picture, "crosswise", max(made.allowance, 1.0), (board.id,))


def _in_one_plane(a: Board, b: Board) -> bool:
    """Whether two boards have their faces in one plane: the courses of a wall."""
    face = a.side_in_world("face")
    return (
        b.role == a.role
        and dot(face.normal, b.frame.z) > ALIKE
        and abs(face.beyond(b.frame.to_world((0.0, 0.0, b.section.thickness_mm / 2)))) < 1.0
    )


def corners(made: Making, picture: Picture, own: set[str]) -> None:
    """The angle between two boards that meet in a ring, for a gauge held to their inner sides."""
    for loop in made.web.rings:
        for meeting in loop.joints:
            if meeting.a.id in own and meeting.joint.kind == "miter":
                value, _ = corner_angle(meeting)
                turn = max(meeting.wide_mm if _flat_pair(meeting) else meeting.deep_mm, 1.0)
                at = mean(list(meeting.corners))
                made.add(f"{meeting.joint.id} corner", "corner", picture.id, at, at, value, degrees(made.allowance / turn),
                          (meeting.a.id, meeting.b.id), (meeting.joint.id,), unit="deg")  # fmt: skip


def _opens(meeting: Meeting, normal: Vec) -> float:
    """How far a joint opens for a radian of turn about a direction."""
    return abs(dot(normal, meeting.across)) * meeting.wide_mm + abs(dot(normal, meeting.along)) * meeting.deep_mm


def _flat_pair(meeting: Meeting) -> bool:
    return abs(dot(meeting.a.frame.z, meeting.b.frame.z)) > ALIKE


def corner_angle(meeting: Meeting) -> tuple[float, tuple[Side, Side]]:
    """The angle between the inner sides of two boards that meet, degrees, and which sides those are: the edges of a flat frame, the backs of a box."""
    sides: tuple[Side, Side] = ("upper", "upper") if _flat_pair(meeting) else ("back", "back")
    a, b = (board.side_in_world(side).normal for board, side in zip((meeting.a, meeting.b), sides, strict=True))
    return 180.0 - degrees(atan2(norm(cross(a, b)), dot(a, b))), sides
