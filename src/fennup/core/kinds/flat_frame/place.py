"""A flat frame as boards, cut planes, joints, lines and claims. It places; it computes no setting and no length."""

from dataclasses import dataclass
from typing import Literal

from fennup.core.assembly.board import Board, End
from fennup.core.assembly.model import Assembly, Claim, Finding, Joint, Mating, Outline, Ring, Stretch
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, joint_plane, meeting_point, plane_through
from fennup.core.geometry.vec import Vec, sub
from fennup.core.kinds.drilling import with_holes
from fennup.core.kinds.fields import CornerJoint
from fennup.core.kinds.flat_frame.outline import Baseline, Side, baseline, turned
from fennup.core.kinds.flat_frame.spec import (
    CornerPin,
    FlatFrameSpec,
    HeldRound,
    Irregular,
    Rectangle,
    SidePin,
    pinned_measure,
)
from fennup.core.kinds.inner import Added, Face, add_inner, panel
from fennup.core.parts.measures import measure_of
from fennup.core.tolerances import NOTHING, ON_LINE, SAME

GROUND = Plane((0.0, 0.0, 1.0), 0.0)
WHERE = {"A": "front", "B": "right", "C": "back", "D": "left"}


@dataclass(frozen=True)
class Edges:
    """The two long edges of a rail as upright planes, normals out of the frame."""

    inner: Plane
    outer: Plane


def assemble(spec: FlatFrameSpec) -> Assembly:
    """Boards and joints of a flat frame. SpecError when no frame answers to the spec."""
    base = baseline(spec)
    _check_opening(spec, base)
    boards = {side.letter: _rail(spec, side) for side in base.sides if side.letter not in spec.left_out}
    joints: list[Joint] = []
    broken: list[str] = []
    for i, name in enumerate(spec.corner_names):
        if set(name) & set(spec.left_out):
            continue
        meets = not (base.misfit and i == len(base.sides) - 1)
        joints.append(_join(spec, base, i, name, boards, meets))
        if not meets:
            broken.append(name)
    for letter in spec.left_out:
        _cut_loose_ends(spec, base, spec.letters.index(letter), boards)
    rails = tuple(boards.values())
    closed = not spec.left_out
    added = _inside(spec, rails)
    return Assembly(
        boards=with_holes((*rails, *added.boards), spec.holes),
        joints=(*joints, *added.joints),
        outlines=_outlines(spec, rails, broken),
        claims=tuple(_claims(spec)),
        rings=(Ring(tuple(rail.id for rail in rails), closed),),
        findings=tuple(_findings(spec, base)),
        gauges=tuple(added.gauges),
    )


def _inside(spec: FlatFrameSpec, rails: tuple[Board, ...]) -> Added:
    """Cross pieces and gussets between the opening edges. SpecError `inner_needs_ring` where a side is open."""
    added = Added()
    if spec.left_out and (spec.inner or spec.panel):
        raise SpecError("inner_needs_ring", ("inner" if spec.inner else "panel",))
    half = spec.board.thickness_mm / 2
    if spec.panel:
        if spec.rabbet is None:
            raise SpecError("panel_needs_rabbet", ("panel",))
        planes = [rail.side_in_world("rabbet").flipped().moved(-spec.panel.play_mm / 2) for rail in rails]
        bottom = -half + spec.rabbet.depth_mm - spec.panel.thickness_mm
        added.boards.append(panel("panel", "Panel", bottom, spec.panel.thickness_mm, planes))
    if spec.inner is None:
        return added
    faces = [Face(rail.side_in_world("upper").flipped(), (rail.id,), "upper") for rail in rails]
    add_inner(added, spec.inner, -half, half, faces)
    return added


def rail_name(spec: FlatFrameSpec, letter: str) -> str:
    """What a rail is called."""
    return f"Rail {letter}" + (f" ({WHERE[letter]})" if isinstance(spec.shape, Rectangle) else "")


def _rail(spec: FlatFrameSpec, side: Side) -> Board:
    """An uncut rail along its side: face to the front (+z), upper edge to the opening."""
    middle = (side.inner + side.outer) / 2
    x: Vec = (side.way[0], side.way[1], 0.0)
    y: Vec = (-side.way[1], side.way[0], 0.0)
    origin = (
        (side.start[0] + side.end[0]) / 2 - y[0] * middle,
        (side.start[1] + side.end[1]) / 2 - y[1] * middle,
        0.0,
    )
    section = spec.section_of(side.letter)
    return Board(
        side.letter, rail_name(spec, side.letter), section, Frame(origin, x, y, (0.0, 0.0, 1.0)), role="frame", shows=True
    )


def _edges(side: Side, through: tuple[float, float], way: tuple[float, float]) -> Edges:
    """The edges that a side has when its baseline runs through a point in a direction."""
    return Edges(side.line(through, way, side.inner), side.line(through, way, side.outer))


def _join(spec: FlatFrameSpec, base: Baseline, i: int, name: str, boards: dict[str, Board], meets: bool) -> Joint:
    """Cut both rails of a corner and name the faces that meet.

    Where the pins disagree the rails do not meet: each is then cut for a neighbour standing where it should.
    """
    here, after = base.sides[i], base.sides[(i + 1) % len(base.sides)]
    turn = base.turns_deg[i]
    mine, mine_seen = _edges(here, here.start, here.way), _edges(here, here.start, here.way)
    theirs, theirs_seen = _edges(after, after.start, after.way), _edges(after, after.start, after.way)
    if not meets:
        theirs_seen = _edges(after, here.end, turned(here.way, turn))
        mine_seen = _edges(here, after.start, turned(after.way, -turn))
    how = spec.corners.get(name) or CornerJoint(joint=spec.joint)
    a, b = here.letter, after.letter
    ends: tuple[tuple[str, End], tuple[str, End]] = ((a, "right"), (b, "left"))
    if how.joint == "miter":
        boards[a] = boards[a].with_cut("right", _miter(mine, theirs_seen))
        boards[b] = boards[b].with_cut("left", _miter(mine_seen, theirs).flipped())
        return Joint(name, "miter", Mating(a, "right:0"), Mating(b, "left:0"), ends)
    through_a = (how.through or a) == a
    _check_butt(spec, base, i, through_a)
    if through_a:
        boards[a] = boards[a].with_cut("right", theirs_seen.outer)
        boards[b] = boards[b].with_cut("left", mine_seen.inner)
        return Joint(name, "butt", Mating(b, "left:0"), Mating(a, "upper"), ends)
    boards[a] = boards[a].with_cut("right", theirs_seen.inner)
    boards[b] = boards[b].with_cut("left", mine_seen.outer)
    return Joint(name, "butt", Mating(a, "right:0"), Mating(b, "upper"), ends)


def _check_butt(spec: FlatFrameSpec, base: Baseline, i: int, through_first: bool) -> None:
    """The tip of a through end must not run past the fitted rail's own far corner: SpecError `butt_too_wide`."""
    n = len(base.sides)
    first, second = base.sides[i], base.sides[(i + 1) % n]
    through, fitted = (first, second) if through_first else (second, first)
    far = base.sides[(i + 2) % n] if through_first else base.sides[i - 1]
    own, edge = _edges(through, through.start, through.way), _edges(fitted, fitted.start, fitted.way)
    tip = meeting_point(own.inner, edge.outer, GROUND)
    if _edges(far, far.start, far.way).outer.beyond(tip) > NOTHING:
        field = f"rails.{through.letter}.width_mm" if through.letter in spec.rails else "board.width_mm"
        raise SpecError("butt_too_wide", (field,), corner=spec.corner_names[i], side=through.letter)


def _miter(a: Edges, b: Edges) -> Plane:
    """The plane from the inner to the outer corner, keeping a."""
    return joint_plane(a.outer, b.outer, a.inner, b.inner)


def _cut_loose_ends(spec: FlatFrameSpec, base: Baseline, out: int, boards: dict[str, Board]) -> None:
    """The two ends beside a run of sides left out, both done when the run's first side comes up.

    Square: through the outer corner. Ground: along the line that joins the two outer corners.
    """
    n = len(base.sides)
    before = base.sides[(out - 1) % n]
    if before.letter in spec.left_out:
        return
    length = 1
    while base.sides[(out + length) % n].letter in spec.left_out:
        length += 1
    after, first, last = base.sides[(out + length) % n], base.sides[out], base.sides[(out + length - 1) % n]
    corner_before, corner_after = _outer_corner(before, first), _outer_corner(last, after)
    chord = sub(corner_after, corner_before)
    for side, end, corner in ((before, "right", corner_before), (after, "left", corner_after)):
        square = (side.way[0], side.way[1], 0.0) if end == "right" else (-side.way[0], -side.way[1], 0.0)
        normal: Vec = square if spec.loose_ends == "square" else (chord[1], -chord[0], 0.0)
        try:
            plane = plane_through(corner, normal)
            if abs(plane.normal[0] * square[0] + plane.normal[1] * square[1]) < SAME:
                raise CutError("along_the_board")
        except (CutError, ZeroDivisionError):
            raise SpecError("ground_along_rail", ("loose_ends",), side=side.letter) from None
        boards[side.letter] = boards[side.letter].with_cut("right" if end == "right" else "left", plane)


def _outer_corner(a: Side, b: Side) -> Vec:
    """Where the outer edges of two neighbouring sides meet."""
    return meeting_point(_edges(a, a.start, a.way).outer, _edges(b, b.start, b.way).outer, GROUND)


def _check_opening(spec: FlatFrameSpec, base: Baseline) -> None:
    """Every side must keep some of both edges: SpecError `no_opening` with the widest rail that leaves one, `no_outer_edge`."""
    n = len(base.sides)
    for i, side in enumerate(base.sides):
        before, after = base.sides[i - 1], base.sides[(i + 1) % n]
        if base.misfit and i in (0, n - 1):
            continue
        inner = _run(side, before, after, "inner")
        outer = _run(side, before, after, "outer")
        if outer <= NOTHING:
            field = f"rails.{side.letter}.width_mm" if side.letter in spec.rails else "board.width_mm"
            raise SpecError("no_outer_edge", (field,), side=side.letter)
        if inner <= NOTHING:
            width = side.outer - side.inner
            field = f"rails.{side.letter}.width_mm" if side.letter in spec.rails else "board.width_mm"
            raise SpecError("no_opening", (field,), mm=width, limit_mm=width * outer / (outer - inner), side=side.letter)


def _run(side: Side, before: Side, after: Side, edge: str) -> float:
    """Signed length of a side's inner or outer edge between its neighbours' same edges."""
    line = [getattr(_edges(s, s.start, s.way), edge) for s in (before, side, after)]
    start, end = meeting_point(line[0], line[1], GROUND), meeting_point(line[1], line[2], GROUND)
    return (end[0] - start[0]) * side.way[0] + (end[1] - start[1]) * side.way[1]


def _outlines(spec: FlatFrameSpec, rails: tuple[Board, ...], broken: list[str]) -> tuple[Outline, ...]:
    """The lines round the frame that sizes are taken on."""
    ids = [rail.id for rail in rails]
    names = spec.corner_names
    gaps = frozenset(
        i for i, id in enumerate(ids) if id + ids[(i + 1) % len(ids)] not in names or id + ids[(i + 1) % len(ids)] in broken
    )
    rings = not gaps
    lines = [
        Outline("opening", tuple(Stretch(id, id, "upper") for id in ids), "face", rings, gaps),
        Outline("outside", tuple(Stretch(id, id, "lower") for id in ids), "face", rings, gaps),
    ]
    if spec.rabbet:
        along = tuple(Stretch(id, id, "rabbet") for id in ids)
        lines.insert(1, Outline("rabbet", along, "back", rings, gaps))
        if spec.held_play_mm is not None and isinstance(spec.shape, Irregular):
            lines.append(Outline("held", along, "back", rings, gaps, spec.held_play_mm / 2))
    return tuple(lines)


def _claims(spec: FlatFrameSpec) -> list[Claim]:
    """What was asked, as measures on the finished solids."""
    shape = spec.shape
    if isinstance(shape, Irregular):
        claims = []
        for i, pin in enumerate(shape.pins):
            deg = isinstance(pin, CornerPin)
            unit: Literal["mm", "deg"] = "deg" if deg else "mm"
            claims.append(
                Claim(
                    pinned_measure(shape, pin), pin.deg if isinstance(pin, CornerPin) else pin.mm, f"shape.pins.{i}.{unit}", unit
                )
            )
        return [c for c in claims if not set(measure_of(c.measure).side) & _unmeasurable(spec, shape)]
    pairs = zip(spec.usual_pins(), spec.size_fields, strict=True)
    return [Claim(pin.measure, pin.value, field) for pin, field in pairs]


def _unmeasurable(spec: FlatFrameSpec, shape: Irregular) -> set[str]:
    """Sides that have no stretch of the pinned line from corner to corner: those left out, and, on the opening, those
    beside them, whose loose ends are cut at the outer corner."""
    letters = spec.letters
    beside = {letters[(letters.index(s) + d) % len(letters)] for s in spec.left_out for d in (-1, 1)}
    return set(spec.left_out) | (beside if shape.line != "outside" else set())


def _findings(spec: FlatFrameSpec, base: Baseline) -> list[Finding]:
    """What only the kind knows: pins that disagree or repeat, angles that cannot close, a cover too small to hold."""
    found = []
    shape = spec.shape
    if isinstance(shape, Irregular):
        for i in base.misfits:
            found.append(Finding("pin_disagrees", "error", (_pinned(shape, i),), (f"shape.pins.{i}",)))
        for i in base.spare:
            found.append(Finding("pin_spare", "note", (_pinned(shape, i),), (f"shape.pins.{i}",)))
        angles = {p.corner: p.deg for p in shape.pins if isinstance(p, CornerPin)}
        asked, total = sum(angles.values()), 180.0 * (spec.sides - 2)
        if len(angles) == spec.sides and abs(asked - total) > ON_LINE:
            fields = tuple(f"shape.pins.{i}" for i, p in enumerate(shape.pins) if isinstance(p, CornerPin))
            found.append(Finding("angles_sum", "error", (), fields, asked, total))
    play = spec.held_play_mm
    if play is not None and spec.rabbet and spec.rabbet.width_mm <= play / 2:
        at = "shape.play_mm" if isinstance(shape, Irregular) else "shape.size.play_mm"
        found.append(Finding("falls_through", "error", (), (at,), spec.rabbet.width_mm, play / 2))
    elif not isinstance(shape, Irregular) and isinstance(shape.size, HeldRound) and shape.size.form == "round" and spec.rabbet:
        bare = shape.size.bare_corner_mm(spec.sides, spec.rabbet.width_mm)
        if bare > ON_LINE:
            needed = shape.size.covering_rabbet_mm(spec.sides)
            found.append(Finding("round_uncovered", "warning", (), ("rabbet.width_mm",), bare, needed))
    if spec.panel and spec.rabbet and spec.panel.thickness_mm > spec.rabbet.depth_mm:
        field = ("panel.thickness_mm",)
        found.append(Finding("panel_stands_out", "note", ("panel",), field, spec.panel.thickness_mm, spec.rabbet.depth_mm))
    return found


def _pinned(shape: Irregular, i: int) -> str:
    """The side or corner that a pin is for."""
    pin = shape.pins[i]
    return pin.side if isinstance(pin, SidePin) else pin.corner if isinstance(pin, CornerPin) else pin.span
