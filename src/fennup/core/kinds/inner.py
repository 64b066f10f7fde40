"""What goes inside a ring of boards, in every kind: cross pieces and slats, half lapped where they cross, and gussets."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from math import atan2, cos, pi, radians, sin, sqrt
from typing import Annotated

from pydantic import Field, model_validator

from fennup.core.assembly.board import Board, Hole
from fennup.core.assembly.model import Finding, Gauge, Joint, Mating, Outline, Ring, Spot
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, meeting_point
from fennup.core.geometry.polyhedron import shared_volume
from fennup.core.geometry.vec import Vec, add, cross, dot, scale
from fennup.core.kinds.fields import Play_mm, Section_mm, Size_mm, Strict
from fennup.core.kinds.spacing import Spaced, places
from fennup.core.parts.solid import shared_mm3, solid_of
from fennup.core.stock.section import Section
from fennup.core.tolerances import CRUMB_MM3, NOTHING, SAME

UP: Vec = (0.0, 0.0, 1.0)
X: Vec = (1.0, 0.0, 0.0)
Y: Vec = (0.0, 1.0, 0.0)
ALONG = 1e-9
MOST_LAPS = 400


class Bars(Spaced):
    """Pieces side by side from wall to wall, running at `way_deg` from the front side's direction."""

    count: Annotated[int, Field(ge=1, le=40)]
    width_mm: Section_mm
    way_deg: Annotated[float, Field(gt=-90, le=90, allow_inf_nan=False)] = 0.0
    thickness_mm: Section_mm | None = None
    height_mm: Play_mm | None = None


class Gussets(Strict):
    """A bar across every inner corner, square to the line that halves it; along the sides its nearer edge lies
    `set_back_mm` from the corner."""

    set_back_mm: Size_mm
    width_mm: Section_mm
    thickness_mm: Section_mm | None = None
    height_mm: Play_mm | None = None


class Inner(Strict):
    """Everything inside, `thickness_mm` thick, its underside `height_mm` above the back (of a frame) or above the floor, the
    back panel or the bottom (of a box); bars and gussets where they do not say so themselves.

    Two ways of bars in one layer cross in half laps; in layers apart they pass over each other.
    """

    height_mm: Play_mm = 0.0
    thickness_mm: Section_mm
    bars: Annotated[list[Bars], Field(max_length=2)] = []
    gussets: Gussets | None = None

    @model_validator(mode="after")
    def _can_lap(self) -> "Inner":
        """Two ways of bars must differ by a degree at least, and not cross too often; SpecError names the field."""
        if len(self.bars) == 2 and abs((self.bars[0].way_deg - self.bars[1].way_deg + 90) % 180 - 90) < 1.0:
            raise SpecError("bars_parallel", ("inner.bars.1.way_deg",))
        if len(self.bars) == 2 and self.bars[0].count * self.bars[1].count > MOST_LAPS:
            a, b = (bars.count for bars in self.bars)
            raise SpecError("laps_many", ("inner.bars.1.count",), count=a * b, most=MOST_LAPS, left=MOST_LAPS // a)
        return self


@dataclass(frozen=True)
class Face:
    """A face that pieces inside end on: its plane, normal outwards, and the boards whose side it is."""

    plane: Plane
    boards: tuple[str, ...]
    side: str


@dataclass
class Added:
    """Boards, joints, lines and rings that are added to a kind's own; holes in any board, by its id."""

    boards: list[Board] = field(default_factory=list)
    joints: list[Joint] = field(default_factory=list)
    outlines: list[Outline] = field(default_factory=list)
    rings: list[Ring] = field(default_factory=list)
    findings: list[Finding] = field(default_factory=list)
    gauges: list[Gauge] = field(default_factory=list)
    holes: dict[str, list[Hole]] = field(default_factory=dict)

    def drilled(self, board: Board) -> Board:
        """A board with the holes that were made in it."""
        made = self.holes.get(board.id)
        return board.but(holes=(*board.holes, *made)) if made else board

    def board(self, id: str) -> Board:
        """One that was added."""
        return next(board for board in self.boards if board.id == id)


def cut_by(board: Board, planes: Sequence[Plane]) -> Board:
    """The board cut by those of some planes that bite: on the side to which each looks, in order."""
    every = board
    for plane in planes:
        along = dot(plane.normal, board.frame.x)
        if abs(along) > ALONG:
            every = every.with_cut("right" if along > 0 else "left", plane)
        else:
            local = board.frame.plane_to_local(plane)
            every = replace(every, upper_rip=local) if local.normal[1] > 0 else replace(every, lower_rip=local)
    left_over = {f.name for piece in solid_of(every).local for f in piece.facets}
    return replace(
        every,
        left=tuple(cut for i, cut in enumerate(every.left) if f"left:{i}" in left_over),
        right=tuple(cut for i, cut in enumerate(every.right) if f"right:{i}" in left_over),
    )


def panel(id: str, name: str, bottom: float, thickness: float, planes: Sequence[Plane]) -> Board:
    """A level panel inside some upright or leaning planes that go round, its face up, lying along that of its own sides along which it comes out of the
    smallest piece."""
    points = corners_at(planes, (bottom, bottom + thickness))
    x, y = _along_a_side(points, planes)
    (low_x, high_x), (low_y, high_y) = (_reach(points, way) for way in (x, y))
    at = add(scale(x, (low_x + high_x) / 2), scale(y, (low_y + high_y) / 2))
    middle: Vec = (at[0], at[1], bottom + thickness / 2)
    reach = (-(high_x - low_x) / 2 - 1.0, (high_x - low_x) / 2 + 1.0)
    section = Section(high_y - low_y, thickness)
    try:
        return cut_by(Board(id, name, section, Frame(middle, x, y, UP), panel=True, reach=reach), planes)
    except CutError:
        raise SpecError("piece_outside", (id,), part=name) from None


def _reach(points: Sequence[Vec], way: Vec) -> tuple[float, float]:
    along = [dot(p, way) for p in points]
    return min(along), max(along)


def _along_a_side(points: Sequence[Vec], planes: Sequence[Plane]) -> tuple[Vec, Vec]:
    """Two level directions, the first the nearest to X of those along and square to a side, about which the points need the least room; X itself where none
    needs less."""
    best, least = (X, Y), _room(points, X, Y) * (1.0 - SAME)
    for plane in planes:
        nx, ny, _ = plane.normal
        turned = round(atan2(ny, nx) / (pi / 2)) * (pi / 2)
        turn = atan2(ny, nx) - turned
        x: Vec = (cos(turn), sin(turn), 0.0)
        y: Vec = (-sin(turn), cos(turn), 0.0)
        if (room := _room(points, x, y)) < least:
            best, least = (x, y), room * (1.0 - SAME)
    return best


def _room(points: Sequence[Vec], x: Vec, y: Vec) -> float:
    (low_x, high_x), (low_y, high_y) = _reach(points, x), _reach(points, y)
    return (high_x - low_x) * (high_y - low_y)


def corners_at(planes: Sequence[Plane], heights: Sequence[float]) -> list[Vec]:
    """Where planes that go round meet their neighbours, at some heights."""
    return [meeting_point(planes[i - 1], planes[i], Plane(UP, z)) for z in heights for i in range(len(planes))]


def lay_bars(
    added: Added,
    bars: Bars,
    thickness: float,
    bottom: float,
    faces: Sequence[Face],
    names: tuple[str, str, str],
    *,
    touch: bool = True,
) -> list[Board]:
    """One way of bars, each cut to the faces that it meets. They are added, and given back for lapping.

    `names`: the ids' beginning, what a bar is called, where it was said. Without `touch` they stop short of the faces.
    """
    id, name, path = names
    planes = [face.plane for face in faces]
    top = bottom + thickness
    way: Vec = (cos(radians(bars.way_deg)), sin(radians(bars.way_deg)), 0.0)
    across: Vec = (-way[1], way[0], 0.0)
    # Both the upper and the lower side must lie within the walls.
    reaches = [[dot(p, across) for p in corners_at(planes, (z,))] for z in (bottom, top)]
    low, high = max(min(r) for r in reaches), min(max(r) for r in reaches)
    along = [dot(p, way) for p in corners_at(planes, (bottom, top))]
    centre, half = (min(along) + max(along)) / 2, (max(along) - min(along)) / 2 + 1.0
    laid = []
    backwards = bars.spacing == "places" and across < (0.0, 0.0, 0.0)
    for i, place in enumerate(places(bars.row(bars.width_mm), high - low, path)):
        middle = high - low - place if backwards else place  # a list counts from the left, or the front
        at = add(add(scale(way, centre), scale(across, low + middle)), (0.0, 0.0, bottom + thickness / 2))
        stick = Board(
            f"{id}{i + 1}", f"{name} {i + 1}", Section(bars.width_mm, thickness), Frame(at, way, across, UP),
            reach=(-half, half),
        )  # fmt: skip
        laid.append(add_between(added, stick, faces, path, touch=touch))
    return laid


def add_between(added: Added, stick: Board, faces: Sequence[Face], path: str, *, touch: bool = True) -> Board:
    """A stick cut to the faces that it meets, with a butt joint at each of them. SpecError `piece_outside`."""
    crossing = [face for face in faces if abs(dot(face.plane.normal, stick.frame.x)) > ALONG]
    try:
        board = cut_by(stick, [face.plane for face in crossing])
    except CutError:
        raise SpecError("piece_outside", (path,), part=stick.name) from None
    by_cut = {stick.frame.plane_to_local(face.plane): face for face in crossing}
    for end in ("left", "right") if touch else ():
        for i, cut in enumerate(board.left if end == "left" else board.right):
            face = by_cut[cut]
            id = f"{board.id} {end}" if i == 0 else f"{board.id} {end} {i + 1}"
            stands_on = Mating(face.boards[0], face.side, face.boards[1:])
            added.joints.append(Joint(id, "butt", Mating(board.id, f"{end}:{i}"), stands_on, ((board.id, end),)))
    added.boards.append(board)
    return board


def add_inner(added: Added, inner: Inner, base: float, ceiling: float, faces: Sequence[Face]) -> None:
    """All of it; `base` is the level that heights count from, `ceiling` the highest that anything may reach."""
    rows, layers = [], []
    for k, bars in enumerate(inner.bars):
        name, path = "Cross piece" if k == 0 else "Crossing piece", f"inner.bars.{k}"
        thick, bottom = _layer(inner, bars, path, base, ceiling)
        rows.append(lay_bars(added, bars, thick, bottom, faces, ("XY"[k], name, path)))
        layers.append((thick, bottom))
    if len(rows) == 2 and layers[0] == layers[1]:
        add_half_laps(added, rows[0], rows[1])
    elif len(rows) == 2 and _overlap(*layers):
        raise SpecError("bars_in_each_other", ("inner.bars.1.height_mm",))
    if inner.gussets:
        before = len(added.boards)
        thick, bottom = _layer(inner, inner.gussets, "inner.gussets", base, ceiling)
        _gussets(added, inner.gussets, thick, bottom, faces)
        _check_apart(added.boards, added.boards[before:])


def _overlap(a: tuple[float, float], b: tuple[float, float]) -> bool:
    """Whether two layers, each by its thickness and its lowest level, have some level in common."""
    return a[1] < b[1] + b[0] - NOTHING and b[1] < a[1] + a[0] - NOTHING


def _layer(inner: Inner, own: Bars | Gussets, path: str, base: float, ceiling: float) -> tuple[float, float]:
    """How thick some pieces are, and the level of their underside. SpecError `inner_above`."""
    thick = inner.thickness_mm if own.thickness_mm is None else own.thickness_mm
    height = inner.height_mm if own.height_mm is None else own.height_mm
    if height + thick > ceiling - base + NOTHING:
        field = "inner.height_mm" if own.height_mm is None else f"{path}.height_mm"
        raise SpecError("inner_above", (field,), mm=height, limit_mm=ceiling - base - thick)
    return thick, base + height


def _check_apart(others: Sequence[Board], pieces: Sequence[Board]) -> None:
    """SpecError `gussets_meet` where a gusset would stand in another or in a cross piece."""
    solids = {board.id: solid_of(board) for board in others}
    for piece in pieces:
        for other in others:
            if other.id != piece.id and shared_mm3(solids[piece.id], solids[other.id]) > CRUMB_MM3:
                raise SpecError("gussets_meet", ("inner.gussets.set_back_mm",), part=piece.name, other=other.name)


def add_half_laps(added: Added, under: Sequence[Board], over: Sequence[Board]) -> None:
    """Half laps of boards whose faces look the same way, as thick and in one layer: the first row is notched from its face,
    the second from its back, each as wide as the other piece."""
    place = {board.id: board for board in added.boards}
    solids = {board.id: solid_of(board).world[0] for board in (*under, *over)}
    for a in under:
        for b in over:
            if shared_volume(solids[a.id], solids[b.id]) < CRUMB_MM3:
                continue
            up = Plane(a.frame.z, dot(a.frame.z, a.frame.origin))
            floor_a, floor_b = f"notch:{len(place[a.id].notches)}", f"notch:{len(place[b.id].notches)}"
            walls_b = (b.side_in_world("upper"), b.side_in_world("lower"))
            walls_a = (a.side_in_world("upper"), a.side_in_world("lower"))
            # A notch keeps the planes' inner side as what is taken: above the middle of one, below it of the other.
            place[a.id] = place[a.id].with_notch((*walls_b, up.flipped()))
            place[b.id] = place[b.id].with_notch((*walls_a, up))
            added.joints.append(Joint(f"{a.id} × {b.id}", "lap", Mating(a.id, floor_a), Mating(b.id, floor_b), ()))
    added.boards[:] = [place[board.id] for board in added.boards]


def _gussets(added: Added, gussets: Gussets, thickness: float, bottom: float, faces: Sequence[Face]) -> None:
    """One across every corner: its nearer long edge runs through the place `set_back_mm` from the corner."""
    middle = bottom + thickness / 2
    count = len(faces)
    for i in range(count):
        here, after = faces[i], faces[(i + 1) % count]
        corner = meeting_point(here.plane, after.plane, Plane(UP, middle))
        out = add(_level(here.plane.normal), _level(after.plane.normal))
        inwards = scale(out, -1.0 / sqrt(dot(out, out)))
        along = cross(inwards, UP)
        # Along the bisector a place on a side lies nearer to the corner, by the cosine of the half angle.
        half = sqrt(max(0.0, 1.0 - dot(inwards, _level(here.plane.normal)) ** 2))
        at = add(corner, scale(inwards, gussets.set_back_mm * half + gussets.width_mm / 2))
        reach = 4 * (gussets.set_back_mm + gussets.width_mm) * max(1.0, 1.0 / max(0.05, sqrt(dot(out, out)) / 2))
        frame = Frame(at, along, cross(UP, along), UP)
        id = f"gusset {here.boards[0][:1]}{after.boards[0][:1]}"
        stick = Board(id, f"Gusset {id[-2:]}", Section(gussets.width_mm, thickness), frame, reach=(-reach, reach))
        add_between(added, stick, faces, "inner.gussets")
        if i == 0:
            ends = (Spot(id, "left", "upper", "face"), Spot(id, "right", "upper", "face"))
            added.gauges.append(Gauge("gusset_long_edge", *ends, sets="inner.gussets.set_back_mm"))


def _level(normal: Vec) -> Vec:
    """A face's normal seen from above, at length 1."""
    long = sqrt(normal[0] ** 2 + normal[1] ** 2)
    return (normal[0] / long, normal[1] / long, 0.0)
