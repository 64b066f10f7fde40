"""Everything that one cuts a part by, as figures: its ends, long edges, notches, holes, lengths, and what stands on it.

mm and degrees. Places along a board are running figures from its left end, so that no rounding adds up.
"""

from dataclasses import dataclass, replace
from functools import cached_property
from math import atan2, degrees, hypot
from typing import Literal

from fennup.core.assembly.board import ENDS, Board, End, Notch, Side
from fennup.core.assembly.model import Assembly, Joint
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec
from fennup.core.parts.alike import PartGroup, Turn, fingerprint, own_turns
from fennup.core.parts.solid import (
    ARRISES,
    Arris,
    LongLine,
    Solid,
    arris_length,
    arris_line,
    common_area,
    end_cut,
    extent_along,
    face_sides,
    ploughed_lines,
    rip_bevel_deg,
)
from fennup.core.stock.ploughed import Ploughed
from fennup.core.tolerances import NOTHING, SAME

FLAT_FLOOR = 0.5  # a notch whose floor looks this much out of the face or the back is a lap, any other a birdsmouth
SIDES: tuple[Side, ...] = ("face", "back", "upper", "lower", "rabbet")


@dataclass(frozen=True)
class CutFact:
    """One cut of an end. `key`: the board's key, the end and the place in its order of cuts, `m1/A left:0`."""

    key: str
    end: End
    index: int
    miter_deg: float
    bevel_deg: float
    edge_trace_deg: float


@dataclass(frozen=True)
class RipFact:
    """A long edge that is ripped: + where the face stops short of the back. `backing`: the second bevel of a backed edge."""

    key: str
    edge: Literal["upper", "lower"]
    bevel_deg: float
    backing: bool


@dataclass(frozen=True)
class LapFact:
    """A half lap: where its two shoulders cross the lower edge on the face, how deep it goes and from which side, how far its
    shoulders are out of square, and how much farther from the left end they are on the upper edge."""

    key: str
    near_mm: float
    far_mm: float
    deep_mm: float
    side: Literal["face", "back"]
    off_square_deg: float
    aslant_mm: float


@dataclass(frozen=True)
class StoppedFact:
    """A groove that stops: from where to where along the board, from the finished left end, None where it runs out at that end; how far in from the lower
    edge, how wide, how deep from which side."""

    key: str
    from_left_mm: float | None
    to_left_mm: float | None
    from_lower_mm: float
    width_mm: float
    deep_mm: float
    side: Literal["face", "back"]


@dataclass(frozen=True)
class BirdsmouthFact:
    """Where the heel crosses the top edge, from the right end; how long heel and seat are, how deep it goes square to the edge."""

    key: str
    from_right_mm: float
    heel_mm: float
    seat_mm: float
    deep_mm: float


@dataclass(frozen=True)
class HoleRow:
    """Holes side by side, drilled from the face or from the back: their middles from the left end at their own height, and that height above the
    lower edge; through, or so deep."""

    key: str
    along_mm: tuple[float, ...]
    up_mm: float
    diameter_mm: float
    deep_mm: float | None = None
    side: Literal["face", "back"] = "face"


@dataclass(frozen=True)
class PloughFact:
    """Something ploughed along the whole board, and the lines that it leaves on its sides."""

    key: str
    cut: Ploughed
    lines: tuple[LongLine, ...]


@dataclass(frozen=True)
class SeatFact:
    """Where another board's end stands on a side of this one: from where to where along it, from the left end."""

    key: str
    board: str
    side: Side
    from_mm: float
    to_mm: float


ROUND = ("right", "back right", "back", "back left", "left", "front left", "front", "front right")


def way_of(out: Vec) -> str:
    """To where a unit direction looks: `up`, `down`, `aslant up`, `aslant down`, or one of the eight ways round."""
    if abs(out[2]) > NOTHING:
        steep = "" if abs(out[2]) > 1 - NOTHING else "aslant "
        return f"{steep}{'up' if out[2] > 0 else 'down'}"
    return ROUND[round(degrees(atan2(out[1], out[0])) / 45) % 8]


@dataclass(frozen=True)
class OutlineSide:
    """One side of a panel, on its face; `bevel_deg` + where the face is the smaller, `way` to where it looks."""

    length_mm: float
    bevel_deg: float
    way: str


@dataclass(frozen=True)
class PartFacts:
    """A part and all that it is cut by: figures are those of its first board, `seats` each board's own."""

    group: PartGroup
    board: Board
    solid: Solid
    assembly: Assembly
    solids: dict[str, Solid]

    @property
    def key(self) -> str:
        """The first board's."""
        return self.board.id

    @cached_property
    def seats(self) -> dict[str, tuple[SeatFact, ...]]:
        """What stands on each of its boards, or is laid on it."""
        found: dict[str, list[SeatFact]] = {id: [] for id in self.group.boards}
        laid = (replace(joint, a=joint.b, b=joint.a) for joint in self.assembly.joints if joint.kind == "face")
        for joint in (*self.assembly.joints, *laid):
            if joint.b.board in found and joint.b.facet in SIDES:
                found[joint.b.board].append(_seat(self.assembly, self.solids, joint))
        return {id: tuple(seats) for id, seats in found.items()}

    @cached_property
    def fingerprint(self) -> str:
        """See `alike.fingerprint`."""
        return fingerprint(self.board, self.solid)

    @cached_property
    def turns(self) -> tuple[Turn, ...]:
        """See `alike.own_turns`."""
        return own_turns(self.board, self.solid)

    @cached_property
    def ends(self) -> dict[End, tuple[CutFact, ...]]:
        """All the cuts of both ends, in the order in which they are made."""
        return {
            end: tuple(
                CutFact(f"{self.key} {end}:{i}", end, i, **vars(end_cut(cut))) for i, cut in enumerate(self.board.ends(end))
            )
            for end in ENDS
        }

    @cached_property
    def rips(self) -> tuple[RipFact, ...]:
        """Every bevel along the long edges."""
        found = []
        for side, plane in self.board.rips:
            backing = plane is self.board.backing
            edge: Literal["upper", "lower"] = "upper" if side == "upper" else "lower"
            found.append(RipFact(f"{self.key} {'backing' if backing else edge}", edge, rip_bevel_deg(plane), backing))
        return tuple(found)

    @cached_property
    def arrises(self) -> dict[Arris, float]:
        """The length along each long corner; none of a panel."""
        return {} if self.board.panel else {arris: arris_length(self.board, arris) for arris in ARRISES}

    @property
    def beveled(self) -> bool:
        """Whether face and back are of unequal length along an edge."""
        return any(abs(self.arrises[f"face_{edge}"] - self.arrises[f"back_{edge}"]) > SAME for edge in ("upper", "lower"))  # type: ignore[index]

    @cached_property
    def ripped_mm(self) -> tuple[float, float]:
        """How wide the face and the back are once the long edges are ripped."""
        half = self.board.section.thickness_mm / 2
        over, under = self.board.side("upper"), self.board.side("lower")

        def reach(side: Plane, z: float) -> float:
            return (side.offset - side.normal[2] * z) / side.normal[1]

        return tuple(reach(over, z) - reach(under, z) for z in (half, -half))  # type: ignore[return-value]

    @cached_property
    def outline(self) -> tuple[OutlineSide, ...]:
        """A panel's sides in order; none of a board."""
        sides = face_sides(self.solid) if self.board.panel else []
        to_world = self.board.frame.direction_to_world
        found = []
        for length, (a, b), edge in sides:
            out = to_world(((b[1] - a[1]) / length, (a[0] - b[0]) / length, 0.0))
            found.append(OutlineSide(length, rip_bevel_deg(edge.plane), way_of(out)))
        return tuple(found)

    @property
    def across(self) -> tuple[str, str]:
        """Along its own two axes, for a panel: to where each looks."""
        return way_of(self.board.frame.x), way_of(self.board.frame.y)

    @cached_property
    def extent(self) -> tuple[float, float]:
        """The least board that it comes out of: how long, and how wide before it is ripped."""
        return tuple(max(p[k] for p in self._points) - min(p[k] for p in self._points) for k in (0, 1))  # type: ignore[return-value]

    @property
    def _points(self) -> list[tuple[float, float, float]]:
        return [p for piece in self.solid.local for p in piece.points]

    @cached_property
    def ploughed(self) -> tuple[PloughFact, ...]:
        """What is ploughed along it, with how long each line is that it leaves on a side. The first of a form is called by that alone."""
        found: list[PloughFact] = []
        for cut, lines in zip(self.board.section.ploughed, ploughed_lines(self.board), strict=True):
            before = sum(other.cut.form == cut.form for other in found)
            found.append(PloughFact(f"{self.key} {cut.form}{f' {before + 1}' if before else ''}", cut, lines))
        return tuple(found)

    @cached_property
    def laps(self) -> tuple[LapFact, ...]:
        """Its half laps."""
        return tuple(self._lap(i, notch) for i, notch in enumerate(self.board.notches) if not notch.groove and _is_lap(notch))

    def _lap(self, number: int, notch: Notch) -> LapFact:
        y, z = arris_line(self.board, "face_lower")
        left, _ = extent_along(self.board, y, z)
        near, far = sorted((p.offset - p.normal[1] * y) / p.normal[0] - left for p in notch.planes[:-1])
        floor, wall = notch.planes[-1], notch.planes[0].normal
        section = self.board.section
        return LapFact(
            f"{self.key} notch:{number}",
            near,
            far,
            section.thickness_mm / 2 + floor.offset,
            "face" if floor.normal[2] < 0 else "back",
            abs(end_cut(notch.planes[0]).miter_deg),
            -wall[1] / wall[0] * section.width_mm,
        )

    @cached_property
    def stopped(self) -> tuple[StoppedFact, ...]:
        """Its grooves that stop."""
        half, low = self.board.section.width_mm / 2, self.solid.extent_x()[0]
        found = []
        for number, notch in enumerate(self.board.notches):
            if notch.groove:
                near, far, *ends, floor = notch.planes
                stops = {"left" if plane.normal[0] < 0 else "right": plane.offset / plane.normal[0] - low for plane in ends}
                deep = self.board.section.thickness_mm / 2 + floor.offset
                side: Literal["face", "back"] = "face" if floor.normal[2] < 0 else "back"
                from_mm, wide = half - near.offset, near.offset + far.offset
                found.append(
                    StoppedFact(f"{self.key} notch:{number}", stops.get("left"), stops.get("right"), from_mm, wide, deep, side)
                )
        return tuple(found)

    @cached_property
    def birdsmouths(self) -> tuple[BirdsmouthFact, ...]:
        """Its birdsmouths."""
        return tuple(
            self._birdsmouth(i, notch) for i, notch in enumerate(self.board.notches) if not (notch.groove or _is_lap(notch))
        )

    def _birdsmouth(self, number: int, notch: Notch) -> BirdsmouthFact:
        heel, seat = notch.planes
        half = self.board.section.width_mm / 2

        def on(plane: Plane, y: float) -> float:
            return (plane.offset - plane.normal[1] * y) / plane.normal[0]

        # Heel and seat meet where both planes have the same x.
        (hx, hy, _), (sx, sy, _) = heel.normal, seat.normal
        deep = (heel.offset * sx - seat.offset * hx) / (hy * sx - sy * hx)
        corner = (on(heel, deep), deep)
        long = [hypot(corner[0] - on(plane, -half), corner[1] + half) for plane in (heel, seat)]
        _, head = extent_along(self.board, half, 0.0)
        return BirdsmouthFact(f"{self.key} notch:{number}", head - on(heel, half), long[0], long[1], deep + half)

    @cached_property
    def holes(self) -> tuple[HoleRow, ...]:
        """Its holes, row by row."""
        rows: dict[tuple[float, float, float | None, Literal["face", "back"]], list[float]] = {}
        for hole in self.board.holes:
            side: Literal["face", "back"] = "back" if hole.back else "face"
            low, z = arris_line(self.board, "back_lower" if hole.back else "face_lower")
            at = hole.x_mm - extent_along(self.board, hole.y_mm, z)[0]
            rows.setdefault((round(hole.y_mm - low, 6), hole.diameter_mm, hole.deep_mm, side), []).append(at)
        return tuple(
            HoleRow(f"{self.key} holes:{k}", tuple(at), up, wide, deep, side)
            for k, ((up, wide, deep, side), at) in enumerate(rows.items())
        )


def _is_lap(notch: Notch) -> bool:
    return abs(notch.planes[-1].normal[2]) > FLAT_FLOOR


def facts_of(assembly: Assembly, solids: dict[str, Solid], parts: tuple[PartGroup, ...]) -> tuple[PartFacts, ...]:
    """The facts of every part, in the parts' order; each is worked out when it is first asked for."""
    return tuple(PartFacts(part, assembly.board(part.id), solids[part.id], assembly, solids) for part in parts)


def _seat(assembly: Assembly, solids: dict[str, Solid], joint: Joint) -> SeatFact:
    """Where a joint's first face lies along the board that it stands on."""
    board, side = assembly.board(joint.b.board), joint.b.facet
    lies = [patch.points for patch in solids[joint.a.board].patches(joint.a.facet)]
    if joint.kind == "face":  # only where they cross
        lies = common_area(solids[joint.a.board].patches(joint.a.facet), solids[board.id].patches(joint.b.facet)) or lies
    along = [board.frame.to_local(p)[0] for points in lies for p in points]
    if board.panel:
        start = solids[board.id].extent_x()[0]
    else:
        arris: Arris = f"{'back' if side in ('back', 'rabbet') else 'face'}_{'upper' if side in ('upper', 'rabbet') else 'lower'}"  # type: ignore[assignment]
        start = extent_along(board, *arris_line(board, arris))[0]
    return SeatFact(joint.id, joint.a.board, side, min(along) - start, max(along) - start)  # type: ignore[arg-type]
