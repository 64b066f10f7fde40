"""Panels let into grooves round a case, near its bottom and near its top: what is ploughed for them, where that stops, and what fills its ends."""

from collections.abc import Iterator
from dataclasses import dataclass

from fennup.core.assembly.board import Board, End
from fennup.core.assembly.model import Finding
from fennup.core.errors import SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, meeting_point, plane_through
from fennup.core.geometry.vec import add, dot, scale
from fennup.core.kinds.box.spec import Back, BoxSpec
from fennup.core.kinds.box.walls import Wall
from fennup.core.kinds.inner import Added, panel
from fennup.core.stock.ploughed import Groove
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING

NAMES = {"back": "Back panel", "front": "Front panel"}
THIN_WALL_MM = 3.0  # between a groove and where a lid is sawn off


@dataclass(frozen=True)
class Run:
    """A groove that goes round: the spec's field, the panel in it, and its level from its lower to its upper wall."""

    field: str
    panel: Back
    low: float
    high: float

    @property
    def open(self) -> bool:
        """Whether it is a rabbet at an edge, which may run out."""
        return self.panel.from_edge_mm == 0


def runs_of(spec: BoxSpec) -> tuple[Run, ...]:
    """The grooves, the lower one first."""
    found = []
    if spec.back:
        low = spec.back.from_edge_mm
        found.append(Run("back", spec.back, low, low + spec.back.thickness_mm))
    if spec.front:
        high = spec.height_mm - spec.front.from_edge_mm
        found.append(Run("front", spec.front, high - spec.front.thickness_mm, high))
    return tuple(found)


def ploughed_in(spec: BoxSpec, letter: str, *, lowest: bool) -> tuple[Groove, ...]:
    """What is ploughed along all of a wall for them."""
    return tuple(
        Groove(
            from_mm=run.panel.from_edge_mm, width_mm=run.panel.thickness_mm, depth_mm=run.panel.depth_mm, far=run.field == "front"
        )
        for run in runs_of(spec)
        if lowest and not (stops_in(spec, letter) and stopped(run))
    )


def stopped(run: Run) -> bool:
    """Whether it stops where its wall runs through a corner."""
    return not run.open and run.panel.ends == "stopped"


def stops_in(spec: BoxSpec, letter: str) -> list[tuple[End, str]]:
    """Where a wall runs through a corner: at which of its ends, and past which neighbour."""
    found: list[tuple[End, str]] = []
    for corner in spec.corner_names:
        if spec.through(corner) == letter:
            found.append(("right", corner[1]) if corner[0] == letter else ("left", corner[0]))
    return found


def with_stopped(spec: BoxSpec, walls: tuple[Wall, ...], boards: dict[str, Board]) -> dict[str, Board]:
    """The walls that run through a corner with their grooves, which stop as far past it as they are deep."""
    by_letter = {wall.letter: wall for wall in walls}
    made = dict(boards)
    for run in runs_of(spec):
        for letter, wall in by_letter.items():
            ends = stops_in(spec, letter)
            if stopped(run) and ends and letter in made:
                across = [_stop(wall, by_letter[beyond], run.panel.depth_mm) for _, beyond in ends]
                level = (Plane((0.0, 0.0, -1.0), -run.low), Plane((0.0, 0.0, 1.0), run.high))
                made[letter] = made[letter].with_notch((*level, *across, wall.inner.moved(run.panel.depth_mm)), groove=True)
    return made


def _stop(wall: Wall, past: Wall, deep: float) -> Plane:
    """Where a groove in a wall ends beyond its neighbour's inside: square across, as far as anything reaches that is let as deep into both."""
    reach = past.inner.moved(deep)
    along = dot(reach.normal, wall.along)
    sides = (wall.inner, wall.inner.moved(deep))
    places = [meeting_point(side, reach, Plane((0.0, 0.0, 1.0), 0.0)) for side in sides]
    way = scale(wall.along, 1.0 if along > 0 else -1.0)
    return plane_through(max(places, key=lambda p: dot(p, way)), way)


def let_in_panels(spec: BoxSpec, walls: tuple[Wall, ...], made: Added) -> None:
    """The panels, and what fills the ends of their grooves. SpecError `back_needs_upright`, `groove_too_deep`, `groove_above`, `back_with_courses`,
    `grooves_meet`, `lid_in_groove`."""
    runs = runs_of(spec)
    for run in runs:
        _check(spec, run, walls, made)
        planes = [wall.inner.moved(run.panel.depth_mm - run.panel.play_mm / 2) for wall in walls]
        made.boards.append(panel(run.field, NAMES[run.field], run.low, run.panel.thickness_mm, planes))
        if run.panel.ends == "filled" and not run.open:
            made.boards += _fillers(spec, run, walls)
    if len(runs) > 1 and runs[1].low < runs[0].high - NOTHING:
        raise SpecError("grooves_meet", ("front.from_edge_mm",), mm=runs[0].high - runs[1].low)
    if spec.lid:
        _keep_lid_clear(spec, runs, made)


def _check(spec: BoxSpec, run: Run, walls: tuple[Wall, ...], made: Added) -> None:
    """What a groove must leave."""
    if not spec.upright:
        raise SpecError("back_needs_upright", (run.field,))
    thinnest = min(wall.thickness for wall in walls)
    if run.panel.depth_mm >= thinnest:
        raise SpecError("groove_too_deep", (f"{run.field}.depth_mm",), mm=run.panel.depth_mm, limit_mm=thinnest)
    if run.panel.from_edge_mm + run.panel.thickness_mm >= spec.height_mm:
        limit = spec.height_mm - run.panel.thickness_mm
        raise SpecError("groove_above", (f"{run.field}.from_edge_mm",), mm=run.panel.from_edge_mm, limit_mm=limit)
    if spec.courses:
        raise SpecError("back_with_courses", (run.field,))
    if run.panel.play_mm / 2 >= run.panel.depth_mm:
        at = (f"{run.field}.play_mm",)
        made.findings.append(Finding("back_falls_out", "error", (), at, run.panel.depth_mm, run.panel.play_mm / 2))


def _keep_lid_clear(spec: BoxSpec, runs: tuple[Run, ...], made: Added) -> None:
    """Where the lid is sawn off no groove may be, nor so near that hardly any wood is left."""
    assert spec.lid
    high = spec.height_mm - spec.lid.depth_mm
    low = high - spec.lid.kerf_mm
    for run in runs:
        between = max(low - run.high, run.low - high)
        if between < -NOTHING:
            raise SpecError("lid_in_groove", ("lid.depth_mm",), mm=spec.height_mm - run.high, limit_mm=spec.height_mm - run.low)
        if between < THIN_WALL_MM:
            made.findings.append(Finding("lid_near_groove", "warning", (), ("lid.depth_mm",), max(0.0, between), THIN_WALL_MM))


def _fillers(spec: BoxSpec, run: Run, walls: tuple[Wall, ...]) -> Iterator[Board]:
    """What is glued into the hole that a groove leaves in the end of a wall that runs through: as far as the panel does not go."""
    by_letter = {wall.letter: wall for wall in walls}
    for letter, wall in by_letter.items():
        for end, beyond in stops_in(spec, letter):
            past = by_letter[beyond]
            inwards = _stop(wall, past, run.panel.depth_mm).flipped()
            level = add(
                wall.foot, add(scale(wall.up, (run.low + run.high) / 2), scale(wall.out, run.panel.depth_mm / 2 - wall.thickness))
            )
            frame = Frame(level, wall.along, wall.up, wall.out)
            name = letter + beyond if end == "right" else beyond + letter
            own = Section(run.high - run.low, run.panel.depth_mm)
            board = Board(f"fill {run.field} {name}", f"Filler {name}, {NAMES[run.field].lower()}", own, frame, role="filler")
            ends: tuple[End, End] = ("right", "left") if end == "right" else ("left", "right")
            yield board.with_cut(ends[0], past.outer).with_cut(ends[1], inwards)
