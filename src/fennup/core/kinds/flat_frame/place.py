"""A flat frame as boards, cut planes, joints, lines and claims. It places; it computes no setting and no length."""

from typing import Literal

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly, Claim, Finding, HeldIn, Joint, Outline, Ring, Stretch
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.plane import meeting_point, plane_through
from fennup.core.geometry.vec import Point2, Vec, sub
from fennup.core.kinds.drilling import with_holes
from fennup.core.kinds.fields import CornerJoint
from fennup.core.kinds.flat_frame.layers import Strips, lay_layers, recess_walls
from fennup.core.kinds.flat_frame.outline import Baseline, Side, baseline
from fennup.core.kinds.flat_frame.ring import GROUND, Meets, check_runs, frame_along, join, own_edges
from fennup.core.kinds.flat_frame.shapes import CornerPin, HeldPanel, HeldRound, Irregular, Rectangle, SidePin, pinned_measure
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec
from fennup.core.kinds.inner import Added, Face, add_inner, panel
from fennup.core.kinds.stopping import with_grooves
from fennup.core.parts.measures import measure_of
from fennup.core.stock.section import Section
from fennup.core.tolerances import ON_LINE, SAME

WHERE = {"A": "front", "B": "right", "C": "back", "D": "left"}


def assemble(spec: FlatFrameSpec) -> Assembly:
    """Boards and joints of a flat frame. SpecError when no frame answers to the spec."""
    base = baseline(spec)
    check_runs(base, spec.width_field)
    boards = {side.letter: _rail(spec, side) for side in base.sides if side.letter not in spec.left_out}
    joints: list[Joint] = []
    broken: list[str] = []
    for i, name in enumerate(spec.corner_names):
        if set(name) & set(spec.left_out):
            continue
        meets = not (base.misfit and i == len(base.sides) - 1)
        how = spec.corners.get(name) or CornerJoint(joint=spec.joint)
        joints.append(join(name, Meets(base, i, (name[0], name[1]), how, meets), boards, spec.width_field))
        if not meets:
            broken.append(name)
    for letter in spec.left_out:
        _cut_loose_ends(spec, base, spec.letters.index(letter), boards)
    rails = tuple(boards.values())
    closed = not spec.left_out
    added = Added()
    strips = {} if spec.as_one else lay_layers(spec, base, boards, added)
    _inside(spec, rails, strips, added)
    return Assembly(
        boards=with_holes((*with_grooves(rails, spec.stopped), *added.boards), spec.holes),
        joints=(*joints, *added.joints),
        outlines=_outlines(spec, rails, strips, broken, base.sides[0].way),
        claims=tuple(_claims(spec)),
        rings=(Ring(tuple(rail.id for rail in rails), closed), *added.rings),
        findings=(*_findings(spec, base), *_stands_off(spec, rails, strips), *added.findings),
        gauges=tuple(added.gauges),
        recesses=_recesses(spec, rails, strips),
    )


def _recesses(spec: FlatFrameSpec, rails: tuple[Board, ...], strips: Strips) -> tuple[HeldIn, ...]:
    """Where what it holds lies: the boards that go round it."""
    if spec.recess is None:
        return ()
    boards = tuple(board.id for _, board, _ in recess_walls(spec.recess, rails, strips))
    size = spec.shape.size if isinstance(spec.shape, Rectangle) else None
    area = size.object_width_mm * size.object_depth_mm if isinstance(size, HeldPanel) else None
    return (HeldIn(boards, spec.recess.depth_mm, area),)


def _inside(spec: FlatFrameSpec, rails: tuple[Board, ...], strips: Strips, added: Added) -> None:
    """A panel in the recess; cross pieces and gussets between the opening edges. SpecError `inner_needs_ring` where a side is open."""
    if spec.left_out and (spec.inner or spec.panel):
        raise SpecError("inner_needs_ring", ("inner" if spec.inner else "panel",))
    half = spec.board.thickness_mm / 2
    if spec.panel:
        if spec.recess is None:
            raise SpecError("panel_needs_rabbet", ("panel",))
        walls = [board.side_in_world(side) for _, board, side in recess_walls(spec.recess, rails, strips)]
        planes = [wall.flipped().moved(-spec.panel.play_mm / 2) for wall in walls]
        top = half - spec.recess.from_face_mm
        added.boards.append(panel("panel", "Panel", top - spec.panel.thickness_mm, spec.panel.thickness_mm, planes))
    if spec.inner:
        faces = [Face(rail.side_in_world("upper").flipped(), (rail.id,), "upper") for rail in rails]
        add_inner(added, spec.inner, -half, half, faces)


def rail_name(spec: FlatFrameSpec, letter: str) -> str:
    """What a rail is called."""
    return f"Rail {letter}" + (f" ({WHERE[letter]})" if isinstance(spec.shape, Rectangle) else "")


def _rail(spec: FlatFrameSpec, side: Side) -> Board:
    """An uncut rail along its side."""
    name = rail_name(spec, side.letter)
    own, at = spec.section_of(side.letter), 0.0
    section, pieces = own, tuple[Section, ...]()
    if spec.as_one:
        section, at = spec.glued(side.letter)
        pieces = (own, *(layer.section for layer in spec.layers.values()))
    bought = spec.board.bought and not spec.as_one
    return Board(
        side.letter, name, section, frame_along(side, at), role="frame", shows=True, ready=bought,
        finished=bool(bought and spec.board.finished), glued=pieces,
    )  # fmt: skip


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
    return meeting_point(own_edges(a).outer, own_edges(b).outer, GROUND)


def _outlines(
    spec: FlatFrameSpec, rails: tuple[Board, ...], strips: Strips, broken: list[str], way: Point2
) -> tuple[Outline, ...]:
    """The lines round the frame that sizes are taken on; how far they go is measured along side A, also where that is left out."""
    ids = [rail.id for rail in rails]
    names = spec.corner_names
    gaps = frozenset(
        i for i, id in enumerate(ids) if id + ids[(i + 1) % len(ids)] not in names or id + ids[(i + 1) % len(ids)] in broken
    )
    rings = not gaps
    lines = [
        Outline("opening", tuple(Stretch(id, id, "upper") for id in ids), "face", rings, gaps, way=way),
        Outline("outside", tuple(Stretch(id, id, "lower") for id in ids), "face", rings, gaps, way=way),
    ]
    if spec.recess:
        along = tuple(Stretch(rail, board.id, side) for rail, board, side in recess_walls(spec.recess, rails, strips))
        lines.insert(1, Outline("rabbet", along, "back", rings, gaps, way=way))
        if spec.held_plays_mm and isinstance(spec.shape, Irregular):
            lines.append(Outline("held", along, "back", rings, gaps, spec.shape.play_mm / 2, way))
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
    play = max(spec.held_plays_mm, default=None)
    recess = spec.recess
    if play is not None and recess and recess.lip_mm <= play / 2:
        at = "shape.play_mm" if isinstance(shape, Irregular) else "shape.size.play_mm"
        found.append(Finding("falls_through", "error", (), (at,), recess.lip_mm, play / 2))
    elif not isinstance(shape, Irregular) and isinstance(shape.size, HeldRound) and shape.size.form == "round" and recess:
        bare = shape.size.bare_corner_mm(spec.sides, recess.lip_mm)
        if bare > ON_LINE:
            needed = shape.size.covering_rabbet_mm(spec.sides)
            found.append(Finding("round_uncovered", "warning", (), (recess.field,), bare, needed))
    if spec.panel and recess and spec.panel.thickness_mm > recess.depth_mm:
        field = ("panel.thickness_mm",)
        found.append(Finding("panel_stands_out", "note", ("panel",), field, spec.panel.thickness_mm, recess.depth_mm))
    return found


def _stands_off(spec: FlatFrameSpec, rails: tuple[Board, ...], strips: Strips) -> list[Finding]:
    """How far the strips on the back bring the rails off what it hangs on, where another distance is wished."""
    back = [rail.section.thickness_mm / 2 - rail.frame.origin[2] for rail in rails if spec.as_one] + [
        strip.section.thickness_mm / 2 - strip.frame.origin[2]
        for own in strips.values()
        for strip in own.values()
        if not strip.shows
    ]
    stands = max(back, default=spec.board.thickness_mm / 2) - spec.board.thickness_mm / 2
    if spec.stand_off_mm is None or abs(stands - spec.stand_off_mm) < ON_LINE:
        return []
    return [Finding("off_the_wall", "warning", (), ("stand_off_mm",), stands, spec.stand_off_mm)]


def _pinned(shape: Irregular, i: int) -> str:
    """The side or corner that a pin is for."""
    pin = shape.pins[i]
    return pin.side if isinstance(pin, SidePin) else pin.corner if isinstance(pin, CornerPin) else pin.span
