"""What tape, gauge and feeler should read once it stands together: everything that tells whether it came out as it should, from the finished solids."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import combinations, pairwise
from math import asin, atan2, degrees
from typing import Literal

from fennup.core.assembly.board import Board, Side
from fennup.core.assembly.model import Assembly
from fennup.core.design import Design
from fennup.core.fit.feet import Foot
from fennup.core.fit.meeting import Meeting
from fennup.core.fit.polygon import Corner, Figure, widest_play
from fennup.core.fit.web import Web
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.polyhedron import clip_polygon
from fennup.core.geometry.vec import Vec, add, cross, distance, dot, norm, scale, sub, unit
from fennup.core.tolerances import NOTHING, ON_LINE, SAME

Kind = Literal[
    "diagonal", "crosswise", "feet_diagonal", "feet_side", "apart", "width", "spacing", "corner", "lean", "level", "plumb", "rock", "flat", "gap", "size",
]  # fmt: skip
STEEP = 0.5  # of a direction, how much of it is upright from which on a board stands
HEIGHTS = (("top", 0.95), ("middle", 0.5), ("bottom", 0.05))
ALIKE = 0.999  # of two directions: nearly parallel
ROCK_MM = 0.8  # 1/32 in under one foot: it still stands firm on a floor
LEVEL_DEG = 0.5
MOST_GAPS = 24
WIDE_GAP = 12.0  # thicknesses: what stands farther apart is not measured as a gap


@dataclass(frozen=True)
class Picture:
    """From where it is looked at: `right` and `up` on the paper, in the assembly's axes; `boards` are those that are seen. `about`: of what, `what`: what sort of picture."""

    id: str
    what: Literal["round", "wall", "side", "feet", "whole"]
    about: str
    right: Vec
    up: Vec
    boards: tuple[str, ...]


@dataclass(frozen=True)
class Expected:
    """One thing to read. `key`: by which the reading is recorded; `names`: what its words need; `a` and `b`: between which places, in the assembly's axes (an angle's is at
    `a`); off by up to `right` it is right, by up to `near` no joint suffers; `pair`: which corners of which figure."""

    key: str
    kind: Kind
    picture: str
    a: Vec
    b: Vec
    value: float
    unit: Literal["mm", "deg"]
    near: float
    boards: tuple[str, ...]
    names: tuple[str, ...] = ()
    figure: str = ""
    pair: tuple[int, int] = (0, 0)

    @property
    def right(self) -> float:
        """Up to how far off it is as good as it should be."""
        return self.near / 2


@dataclass(frozen=True)
class Sheet:
    """All that is to be read, with what it is drawn on and the figures that several readings tell of together."""

    pictures: tuple[Picture, ...]
    readings: tuple[Expected, ...]
    figures: dict[str, Figure]
    feet: dict[str, tuple[Foot, ...]]

    @cached_property
    def by_key(self) -> dict[str, Expected]:
        """By key."""
        return {reading.key: reading for reading in self.readings}


def sheet_for(design: Design, web: Web, allowance_mm: float) -> Sheet:
    """What is to be read of a design."""
    made = _Sheet(design, web, allowance_mm)
    for member, own in design.assembly.inside.items():
        made.member(member, own)
    made.gaps()
    return Sheet(tuple(made.pictures), tuple(made.readings), made.figures, made.feet)


class _Sheet:
    def __init__(self, design: Design, web: Web, allowance_mm: float) -> None:
        self.design = design
        self.web = web
        self.allowance = allowance_mm
        self.pictures: list[Picture] = []
        self.readings: list[Expected] = []
        self.figures: dict[str, Figure] = {}
        self.feet: dict[str, tuple[Foot, ...]] = {}

    def member(self, id: str, own: Assembly) -> None:
        """One assembly's."""
        boards = tuple(f"{id}/{board.id}" for board in own.boards)
        lift = sub(self.design.boards[boards[0]].frame.origin, own.boards[0].frame.origin)
        rounds = self._rounds(id, own, lift, boards)
        self._walls(id, own, lift)
        self._stand(id, boards)
        whole = self._whole(id, boards)
        for first in rounds[:1]:
            self._corners(first, set(boards))
        self._between(rounds[0] if rounds else whole, boards)
        self._turns(whole, boards)
        self._sizes(id, own, whole, boards)

    def _add(self, key: str, kind: Kind, picture: str, a: Vec, b: Vec, value: float, near: float, boards: tuple[str, ...],
             names: tuple[str, ...] = (), unit: Literal["mm", "deg"] = "mm", figure: str = "", pair: tuple[int, int] = (0, 0)) -> None:  # fmt: skip
        self.readings.append(Expected(key, kind, picture, a, b, value, unit, near, boards, names, figure, pair))

    # Outlines: diagonals, and how far opposite sides stand apart.

    def _rounds(self, id: str, own: Assembly, lift: Vec, boards: tuple[str, ...]) -> list[Picture]:
        made = []
        for line in own.outlines:
            if line.name.startswith(("inner", "rabbet")):
                continue
            runs = self.design.ruler._within(id).runs(line.name)
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
                gap = next(
                    iter(line.broken)
                )  # between stretch `gap` and the next: begin after it, end with the last one's own end
                turn = (gap + 1) % len(keys)
                keys, ids, points = (tuple(v[turn:]) + tuple(v[:turn]) for v in (keys, ids, points))  # type: ignore[assignment]
                points = [*points, add(runs[keys[-1]][1], lift)]
                names = [f"{keys[0]} end", *(f"{a}{b}" for a, b in pairwise(keys)), f"{keys[-1]} end"]
                ids, open_side = (*ids, ids[0]), len(points) - 1
            figure = Figure(
                f"{id} {line.name}", tuple(Corner(n, p) for n, p in zip(names, points, strict=True)), tuple(ids), 0.0, open_side
            )
            figure = replace(figure, joint_mm=self._joint_mm(figure, ids))
            x, y = figure.axes
            normal = cross(x, y)
            picture = Picture(figure.id, "round", line.name, *_paper(normal), boards)
            self.pictures.append(picture)
            made.append(picture)
            self._figure(figure, picture, "diagonal")
            if open_side is not None:
                last = len(points) - 1
                self._add(f"{figure.id} ends", "apart", picture.id, points[0], points[-1], distance(points[0], points[-1]),
                          2 * self.allowance, (ids[0], ids[-2]), ("ends",), figure=figure.id, pair=(0, last))  # fmt: skip
        return made

    def _figure(self, figure: Figure, picture: Picture, kind: Kind, near: float | None = None) -> None:
        """The longest of a figure's diagonals: from every corner to the one opposite."""
        self.figures[figure.id] = figure
        n = len(figure.corners)
        if n < 4:
            return
        pairs = [(i, i + n // 2) for i in range(n // 2)] if n % 2 == 0 else [(i, (i + n // 2) % n) for i in range(n)]
        for i, j in pairs:
            a, b = figure.corners[i], figure.corners[j]
            play = near or widest_play(figure, (i, j), self.allowance)
            self._add(f"{figure.id} {a.name}-{b.name}", kind, picture.id, a.at, b.at, distance(a.at, b.at), play,
                      tuple(dict.fromkeys((figure.sides[i], figure.sides[j]))), (a.name, b.name), figure=figure.id, pair=(i, j))  # fmt: skip

    def _joint_mm(self, figure: Figure, ids: tuple[str, ...]) -> float:
        """How far a joint of these boards reaches along a figure's plane, as far as a turn in it opens it."""
        x, y = figure.axes
        normal, own = cross(x, y), set(ids)
        found = [_opens(m, normal) for m in self.web.meetings.all.values() if m.a.id in own and m.b.id in own]
        return max(found, default=max(self.design.boards[id].section.width_mm for id in ids))

    # Walls: crosswise over each face that leans.

    def _walls(self, id: str, own: Assembly, lift: Vec) -> None:
        low, high = own.outline("outer_bottom"), own.outline("outer_top")
        ruler = self.design.ruler._within(id)
        bottom, top = (ruler.runs(line.name) if line else None for line in (low, high))
        if bottom is None or top is None or low is None:
            return
        for stretch in low.stretches:
            board = self.design.boards[f"{id}/{stretch.board}"]
            places = [bottom[stretch.key][0], bottom[stretch.key][1], top[stretch.key][1], top[stretch.key][0]]
            corners = tuple(
                Corner(name, add(p, lift))
                for name, p in zip(("foot left", "foot right", "top right", "top left"), places, strict=True)
            )
            figure = Figure(f"{board.id} face", corners, (board.id,) * 4, board.section.thickness_mm)
            picture = Picture(figure.id, "wall", board.id, *_paper(board.frame.z), (board.id,))
            self.pictures.append(picture)
            self._figure(figure, picture, "crosswise", near=max(self.allowance, 1.0))

    # What stands on feet of its own.

    def _stand(self, id: str, boards: tuple[str, ...]) -> None:
        legs = [board for b in boards if (board := self.design.boards[b]).role == "leg"]
        if len(legs) < 3:
            return
        points = {leg.id: [p for piece in self.design.solids[leg.id].world for p in piece.points] for leg in legs}
        middle = scale(_total([_mean(p) for p in points.values()]), 1.0 / len(legs))
        legs.sort(key=lambda leg: atan2(_mean(points[leg.id])[1] - middle[1], _mean(points[leg.id])[0] - middle[0]))
        low = {leg.id: _outermost(points[leg.id], middle, lowest=True) for leg in legs}
        high = {leg.id: _outermost(points[leg.id], middle, lowest=False) for leg in legs}
        own = tuple(leg.id for leg in legs)
        feet = Figure(f"{id} feet", tuple(Corner(leg.id, low[leg.id]) for leg in legs), own, legs[0].section.width_mm)
        picture = Picture(feet.id, "feet", id, (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), own)
        self.pictures.append(picture)
        self.feet[feet.id] = tuple(
            Foot(leg.id, low[leg.id], degrees(asin(min(1.0, norm(cross(leg.frame.x, (0.0, 0.0, 1.0))))))) for leg in legs
        )
        n = len(legs)
        self.figures[feet.id] = feet
        for k, leg in enumerate(legs):
            other = legs[(k + 1) % n]
            a, b = low[leg.id], low[other.id]
            self._add(f"{feet.id} {_own(leg.id)}-{_own(other.id)}", "feet_side", picture.id, a, b, distance(a, b), 2 * self.allowance,
                      (leg.id, other.id), (leg.id, other.id), figure=feet.id, pair=(k, (k + 1) % n))  # fmt: skip
        for i, j in combinations(range(n), 2):
            if n > 3 and j - i == n // 2 and n % 2 == 0:
                a, b = low[own[i]], low[own[j]]
                self._add(f"{feet.id} {_own(own[i])}-{_own(own[j])}", "feet_diagonal", picture.id, a, b, distance(a, b),
                          widest_play(feet, (i, j), self.allowance), (own[i], own[j]), (own[i], own[j]), figure=feet.id, pair=(i, j))  # fmt: skip
        if n > 3:
            for leg in legs:
                self._add(
                    f"{feet.id} rock {_own(leg.id)}",
                    "rock",
                    picture.id,
                    low[leg.id],
                    low[leg.id],
                    0.0,
                    ROCK_MM,
                    (leg.id,),
                    (leg.id,),
                    figure=feet.id,
                )
        for k, leg in enumerate(legs):
            self._side(id, leg, legs[(k + 1) % n], (low, high), boards)

    def _side(
        self, id: str, leg: Board, other: Board, ends: tuple[dict[str, Vec], dict[str, Vec]], boards: tuple[str, ...]
    ) -> None:
        """Two legs that stand side by side: crosswise, and how far apart they are at three heights."""
        low, high = ends
        corners = (Corner(f"{leg.id} foot", low[leg.id]), Corner(f"{other.id} foot", low[other.id]),
                   Corner(f"{other.id} head", high[other.id]), Corner(f"{leg.id} head", high[leg.id]))  # fmt: skip
        figure = Figure(
            f"{id} {_own(leg.id)} {_own(other.id)}", corners, (leg.id, other.id, other.id, leg.id), leg.section.width_mm
        )
        out = cross(sub(low[other.id], low[leg.id]), (0.0, 0.0, 1.0))
        if norm(out) < SAME or distance(high[leg.id], high[other.id]) < SAME:
            return
        between = tuple(
            b for b in boards if {m.a.id for m in self._joints(b)} | {m.b.id for m in self._joints(b)} >= {leg.id, other.id}
        )
        picture = Picture(
            figure.id,
            "side",
            f"{leg.id} {other.id}",
            unit(cross((0.0, 0.0, 1.0), out)),
            (0.0, 0.0, 1.0),
            (leg.id, other.id, *between),
        )
        self.pictures.append(picture)
        self._figure(figure, picture, "crosswise")
        self._spacing(picture, leg, other)

    def _joints(self, board: str) -> list[Meeting]:
        return [m for m in self.web.meetings.all.values() if board in (m.a.id, m.b.id)]

    # Two that run side by side.

    def _between(self, picture: Picture, boards: tuple[str, ...]) -> None:
        """The clear gap of bars, slats and shelves that are alike and lie beside each other."""
        loose = [
            b
            for id in boards
            if not (b := self.design.boards[id]).found and b.role not in ("leg", "wall", "frame", "ring", "cap")
        ]
        count = 0
        for a, b in combinations(loose, 2):
            if abs(dot(a.frame.x, b.frame.x)) < ALIKE or a.section != b.section or count >= MOST_GAPS:
                continue
            if not any(m for m in self._joints(a.id) if b.id in (m.a.id, m.b.id)) and self._neighbours(a, b, loose):
                count += self._spacing(picture, a, b)

    def _neighbours(self, a: Board, b: Board, loose: list[Board]) -> bool:
        """Whether nothing alike lies between them, and they are not far apart."""
        here, there = self._middle(a), self._middle(b)
        far = distance(here, there)
        if far > WIDE_GAP * max(a.section.width_mm, a.section.thickness_mm):
            return False
        way = unit(sub(there, here))
        for c in loose:
            at = dot(sub(self._middle(c), here), way)
            if (
                c.id not in (a.id, b.id)
                and c.section == a.section
                and SAME < at < far - SAME
                and norm(cross(sub(self._middle(c), here), way)) < far
            ):
                return False
        return True

    def _middle(self, board: Board) -> Vec:
        return _mean([p for piece in self.design.solids[board.id].world for p in piece.points])

    def _spacing(self, picture: Picture, a: Board, b: Board) -> int:
        """How far apart their facing sides are, at top, middle and bottom or at both ends and in the middle."""
        to = sub(self._middle(b), self._middle(a))
        here, there = _facing(a, to), _facing(b, scale(to, -1.0))
        stands = abs(a.frame.x[2]) > STEEP
        low, high = self.design.solids[a.id].extent_x()
        plane, other = a.side_in_world(here), b.side_in_world(there)
        way = plane.normal if not stands else unit((plane.normal[0], plane.normal[1], 0.0))
        into = dot(other.normal, way)
        if dot(plane.normal, to) < SAME or into > -SAME:
            return 0
        found = 0
        for name, share in HEIGHTS:
            x = low + (high - low) * (share if a.frame.x[2] >= 0 or not stands else 1 - share)
            side = a.side(here)
            at = a.frame.to_world((x, side.offset * side.normal[1], side.offset * side.normal[2]))
            apart = -other.beyond(at) / into
            if apart > SAME:
                self._add(f"{_pair(a.id, b.id)} {name}", "spacing", picture.id, at, add(at, scale(way, apart)), apart, self.allowance,
                          (a.id, b.id), (a.id, b.id, name if stands else {"top": "right", "middle": "middle", "bottom": "left"}[name]))  # fmt: skip
                found = 1
        return found

    # Angles.

    def _corners(self, picture: Picture, own: set[str]) -> None:
        """The angle between two boards that meet in a ring, for a gauge held to their inner sides."""
        for loop in self.web.rings:
            for meeting in loop.joints:
                if meeting.a.id in own and meeting.joint.kind == "miter":
                    value, _ = corner_angle(meeting)
                    turn = max(meeting.wide_mm if _flat_pair(meeting) else meeting.deep_mm, 1.0)
                    at = _mean(list(meeting.corners))
                    self._add(f"{meeting.joint.id} corner", "corner", picture.id, at, at, value, degrees(self.allowance / turn),
                              (meeting.a.id, meeting.b.id), (meeting.joint.id,), unit="deg")  # fmt: skip

    def _turns(self, picture: Picture, boards: tuple[str, ...]) -> None:
        """How each sort of part lies: level, upright, or leaning by so much."""
        seen: set[str] = set()
        for group in self.design.parts:
            board = self.design.boards[group.id]
            if group.id not in boards or group.id in seen or self._lies_flat(boards):
                continue
            seen.add(group.id)
            at = self._middle(board)
            rise = degrees(asin(min(1.0, abs(board.frame.x[2]))))
            face = degrees(asin(min(1.0, abs(board.frame.z[2]))))
            near = min(LEVEL_DEG, degrees(self.allowance / max(board.section.thickness_mm, 1.0)))
            if board.role == "wall" or (rise < SAME and NOTHING < face < 90 - SAME):
                self._add(
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
                self._add(f"{group.id} plumb", "plumb", picture.id, at, at, 0.0, near, group.boards, (group.id, "x"), unit="deg")
            elif rise > degrees(STEEP):
                self._add(
                    f"{group.id} lean", "lean", picture.id, at, at, 90 - rise, near, group.boards, (group.id, "x"), unit="deg"
                )
            if rise < SAME:
                self._add(f"{group.id} level", "level", picture.id, at, at, 0.0, near, group.boards, (group.id, "x"), unit="deg")

    def _lies_flat(self, boards: tuple[str, ...]) -> bool:
        """Whether it is a flat frame: what lies on the bench has no lean."""
        return all(abs(self.design.boards[id].frame.z[2]) > 1 - NOTHING for id in boards) and all(
            not self.design.boards[id].found for id in boards
        )

    def _whole(self, id: str, boards: tuple[str, ...]) -> Picture:
        """The whole from where it is widest."""
        points = [p for b in boards for piece in self.design.solids[b].world for p in piece.points]
        spans = [max(p[k] for p in points) - min(p[k] for p in points) for k in range(3)]
        if self._lies_flat(boards):
            right, up = (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)
            self._flatness(id, boards, points)
        elif spans[1] <= spans[0]:
            right, up = (1.0, 0.0, 0.0), (0.0, 0.0, 1.0)
        else:
            right, up = (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)
        if spans[2] < min(spans[0], spans[1]):
            right, up = (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)
        picture = Picture(f"{id} whole", "whole", id, right, up, boards)
        self.pictures.append(picture)
        self._widths(picture, points, boards)
        return picture

    def _flatness(self, id: str, boards: tuple[str, ...], points: list[Vec]) -> None:
        """Laid on something flat, the gap under the corner that lifts."""
        at = max(points, key=lambda p: p[0] + p[1])
        self._add(f"{id} flat", "flat", f"{id} whole", at, at, 0.0, max(self.allowance, ROCK_MM), boards, (id,))

    def _widths(self, picture: Picture, points: list[Vec], boards: tuple[str, ...]) -> None:
        """How wide the whole is at the bottom, half way up and at the top, square across, where it stands."""
        if picture.up != (0.0, 0.0, 1.0):
            return
        low, high = min(p[2] for p in points), max(p[2] for p in points)
        for name, share in HEIGHTS:
            cut = [p for p in self.slice(low + (high - low) * share, boards)]
            if len(cut) > 2:
                a, b = min(cut, key=lambda p: dot(p, picture.right)), max(cut, key=lambda p: dot(p, picture.right))
                span = dot(sub(b, a), picture.right)
                level = (a[0] + picture.right[0] * span, a[1] + picture.right[1] * span, a[2])
                self._add(f"{picture.id} width {name}", "width", picture.id, a, level, span, 2 * self.allowance, boards, (name,))

    def slice(self, height: float, boards: tuple[str, ...]) -> Iterator[Vec]:
        """Where the sides of boards go through a level."""
        for id in boards:
            if self.design.boards[id].found:
                continue
            for piece in self.design.solids[id].world:
                for facet in piece.facets:
                    corners = piece.corners(facet)
                    if min(p[2] for p in corners) < height < max(p[2] for p in corners):
                        yield from (
                            p for p in clip_polygon(corners, Plane((0.0, 0.0, 1.0), height)) if abs(p[2] - height) < ON_LINE
                        )

    # What is there already, as it was built; and feelers.

    def _sizes(self, id: str, own: Assembly, picture: Picture, boards: tuple[str, ...]) -> None:
        """The sizes between what is there already: as they are built, other parts follow them."""
        found = {b.id for b in own.boards if b.found}
        for gauge in own.gauges:
            if found and {gauge.a.board, gauge.b.board} & found and not gauge.follows:
                value = self.design.ruler.measure(f"{id}/{gauge.name}")
                if value is None:
                    continue
                unit_: Literal["mm", "deg"] = "deg" if gauge.how in ("angle", "lean") else "mm"
                at = self._middle(self.design.boards[f"{id}/{gauge.b.board}"])
                near = self.allowance if unit_ == "mm" else LEVEL_DEG / 2
                self._add(
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

    def gaps(self) -> None:
        """A feeler at every joint."""
        for meeting in self.web.meetings.all.values():
            if meeting.offs():
                at = _mean(list(meeting.corners))
                self._add(
                    f"{meeting.joint.id} gap",
                    "gap",
                    "",
                    at,
                    at,
                    0.0,
                    self.allowance,
                    (meeting.a.id, meeting.b.id),
                    (meeting.joint.id,),
                )


def _own(board: str) -> str:
    return board.partition("/")[2] or board


def _pair(a: str, b: str) -> str:
    return f"{a} {_own(b)}"


def _mean(points: list[Vec]) -> Vec:
    return scale(_total(points), 1.0 / len(points))


def _total(points: list[Vec]) -> Vec:
    return (sum(p[0] for p in points), sum(p[1] for p in points), sum(p[2] for p in points))


def _outermost(points: list[Vec], middle: Vec, *, lowest: bool) -> Vec:
    """Of a leg's lowest or highest corners the one farthest from the middle of all legs."""
    level = (min if lowest else max)(p[2] for p in points)
    own = [p for p in points if abs(p[2] - level) < 1.0] or points
    return max(own, key=lambda p: ((p[0] - middle[0]) ** 2 + (p[1] - middle[1]) ** 2, p[0], p[1]))


def _facing(board: Board, way: Vec) -> Side:
    sides: tuple[Side, ...] = ("upper", "lower", "face", "back")
    return max(sides, key=lambda side: round(dot(board.side_in_world(side).normal, way), 9))


def _paper(normal: Vec) -> tuple[Vec, Vec]:
    """Right and up on a picture that is looked at against a direction."""
    if abs(normal[2]) > 1 - 1e-6:
        return (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)
    right = unit(cross((0.0, 0.0, 1.0), normal))
    return right, unit(cross(normal, right))


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
