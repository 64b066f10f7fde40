"""What stands in a box's corners and lies below its rim: blocks from wall to wall, and an insert on a ledger or on the blocks."""

from math import acos, cos, hypot, sin

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Blank, Finding, Joint, Mating
from fennup.core.errors import SpecError
from fennup.core.geometry.frame import Frame, frame_from
from fennup.core.geometry.plane import Plane, meeting_point
from fennup.core.geometry.polyhedron import clip_polygon
from fennup.core.geometry.vec import Point2, Vec, add, cross, dot, scale, sub, unit
from fennup.core.kinds.blanks import lining_blank
from fennup.core.kinds.box.courses import Course, on_wall
from fennup.core.kinds.box.spec import Blocks, BoxSpec, Insert, Lining
from fennup.core.kinds.box.walls import Wall, level, run_at, signed_run
from fennup.core.kinds.inner import Added, panel
from fennup.core.kinds.rounds import add_round
from fennup.core.kinds.spacing import Row, places
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING, ZERO

Boards = dict[str, tuple[Course, ...]]


def add_blocks(spec: BoxSpec, blocks: Blocks, base: float, walls: tuple[Wall, ...], courses: Boards, made: Added) -> None:
    """One in every corner. SpecError `block_too_thick`, `blocks_meet`, `block_no_room`."""
    top = spec.lowest_rim - blocks.below_mm
    if spec.insert:  # they carry it, or end under its ledger
        under = 0.0 if spec.insert.on == "blocks" else spec.insert.ledger_width_mm
        top = min(top, insert_bottom(spec, spec.insert) - under)
    if top - base <= NOTHING:
        raise SpecError("block_no_room", ("blocks.below_mm",), mm=blocks.below_mm, limit_mm=spec.lowest_rim - base)
    for i, wall in enumerate(walls):
        room = min(signed_run(walls, i, z, "inner") for z in (base, top))
        if 2 * blocks.along_mm > room + NOTHING:
            raise SpecError("blocks_meet", ("blocks.along_mm",), side=wall.letter, mm=blocks.along_mm, limit_mm=room / 2)
    for i, a in enumerate(walls):
        b = walls[(i + 1) % len(walls)]
        out = add(a.out, b.out)
        # The corner's own angle, square to the line in which the walls' insides meet.
        half = acos(max(-1.0, min(1.0, -dot(a.out, b.out)))) / 2
        deep = blocks.along_mm * cos(half)
        if blocks.thickness_mm >= deep - NOTHING:
            raise SpecError("block_too_thick", ("blocks.thickness_mm",), mm=blocks.thickness_mm, limit_mm=deep)
        seam = cross(a.out, b.out)
        up = unit(seam if seam[2] > 0 else scale(seam, -1.0))
        inwards = scale(unit(out), -1.0)
        corner = meeting_point(a.inner, b.inner, level((base + top) / 2))
        frame = frame_from(add(corner, scale(inwards, deep - blocks.thickness_mm / 2)), up, inwards)
        upper, lower = (a, b) if dot(a.out, frame.y) > 0 else (b, a)
        name = a.letter + b.letter
        block = Board(
            f"block {name}", f"Block {name}", Section(2 * blocks.along_mm * sin(half), blocks.thickness_mm), frame, role="block",
            upper_rip=frame.plane_to_local(upper.inner), lower_rip=frame.plane_to_local(lower.inner),
        )  # fmt: skip
        made.boards.append(block.with_cut("left", level(base).flipped()).with_cut("right", level(top)))
        for side, wall in (("upper", upper), ("lower", lower)):
            on = on_wall(courses[wall.letter], "back")
            made.joints.append(Joint(f"{block.id} on {wall.letter}", "butt", Mating(block.id, side), on, ()))


def insert_bottom(spec: BoxSpec, insert: Insert) -> float:
    """The level of an insert's underside."""
    return spec.lowest_rim - insert.reveal_mm - insert.thickness_mm


def add_insert(spec: BoxSpec, insert: Insert, base: float, walls: tuple[Wall, ...], courses: Boards, made: Added) -> None:
    """The panel, and the ledger that it lies on. SpecError `insert_no_room`, `insert_on_nothing`."""
    bottom = insert_bottom(spec, insert)
    under = insert.ledger_width_mm if insert.on == "ledger" else 0.0
    if bottom - under < base - NOTHING:
        most = spec.lowest_rim - insert.thickness_mm - under - base
        raise SpecError("insert_no_room", ("insert.reveal_mm",), mm=insert.reveal_mm, limit_mm=most)
    if insert.on == "blocks" and spec.blocks is None:
        raise SpecError("insert_on_nothing", ("insert.on",))
    for i, wall in enumerate(walls):
        room = min(signed_run(walls, i, z, "inner") for z in (bottom, bottom + insert.thickness_mm))
        if room <= insert.play_mm:
            raise SpecError("play_too_great", ("insert.play_mm",), mm=insert.play_mm, side=wall.letter)
    inside = [wall.inner.moved(-insert.play_mm / 2 * _levelled(wall)) for wall in walls]
    made.boards.append(panel("insert", "Insert", bottom, insert.thickness_mm, inside))
    if spec.cap and spec.cap.over_in_mm > insert.play_mm / 2:
        made.findings.append(Finding("insert_before_cap", "note", ("insert",), ("cap.over_in_mm",), spec.cap.over_in_mm))
    if insert.on == "blocks":
        stood_on = [(board.id, "right:0") for board in made.boards if board.role == "block"]
    else:
        stood_on = [(ledger.id, "upper") for ledger in _ledger(insert, bottom, walls, courses, made)]
    for id, side in stood_on:
        made.joints.append(Joint(f"{id} insert", "face", Mating(id, side), Mating("insert", "back"), ()))


def lining_of(spec: BoxSpec, lining: Lining, walls: tuple[Wall, ...], base: float) -> Blank:
    """The sheet that lines a box, laid flat. SpecError `lining_no_room`, `tab_no_room`, `bars_too_many`."""
    top = spec.lowest_rim - lining.below_mm
    if top - base <= NOTHING:
        raise SpecError("lining_no_room", ("lining.below_mm",), mm=lining.below_mm, limit_mm=spec.lowest_rim - base)
    inside = [wall.inner.moved(-lining.play_mm / 2 * _levelled(wall)) for wall in walls]
    count = len(inside)
    low, high = ([meeting_point(inside[i - 1], inside[i], level(z)) for i in range(count)] for z in (base, top))
    for i, wall in enumerate(walls):
        for corners in (low, high):
            if dot(sub(corners[(i + 1) % count], corners[i]), wall.along) <= NOTHING:
                raise SpecError("play_too_great", ("lining.play_mm",), mm=lining.play_mm, side=wall.letter)
    holes: tuple[tuple[Point2, float], ...] = ()
    if lining.drains:
        xs, ys = ([p[k] for p in low] for k in (0, 1))
        middle = (min(ys) + max(ys)) / 2
        crossing = clip_polygon(
            clip_polygon(tuple(low), Plane((0.0, 1.0, 0.0), middle + NOTHING)), Plane((0.0, -1.0, 0.0), NOTHING - middle)
        )
        start, end = (min(p[0] for p in crossing), max(p[0] for p in crossing)) if crossing else (min(xs), max(xs))
        row = Row(lining.drains, lining.drain_mm, "centres", 0.0)
        holes = tuple(((start + at, middle), lining.drain_mm) for at in places(row, end - start, "lining.drains"))
    return lining_blank(low, high, lining.lap_mm, holes, "lining")


def _levelled(wall: Wall) -> float:
    """What a wall's plane moves square to itself for each mm measured level."""
    return hypot(wall.out[0], wall.out[1])


def _ledger(insert: Insert, top: float, walls: tuple[Wall, ...], courses: Boards, made: Added) -> list[Board]:
    """A strip on the inside of every wall, its upper edge level at a height, mitered at the corners. SpecError `ledger_no_opening`."""
    thick, down = insert.ledger_mm, insert.ledger_width_mm
    pieces = []
    for i, wall in enumerate(walls):
        if signed_run(walls, i, top - down, "inner") <= 2 * thick:
            raise SpecError("ledger_no_opening", ("insert.ledger_mm",), side=wall.letter, mm=thick)
        start, end = run_at(walls, i, top, "inner")
        rise = thick * wall.out[2] / wall.up[2]  # by which a level edge stands higher at the ledger's own face
        high, low = max(0.0, rise), min(0.0, rise) - down / wall.up[2]
        middle = add(scale(add(start, end), 0.5), add(scale(wall.up, (high + low) / 2), scale(wall.out, -thick / 2)))
        inwards: Vec = scale(wall.out, -1.0)
        frame = Frame(middle, scale(wall.along, -1.0), wall.up, inwards)
        board = Board(f"ledger {wall.letter}", f"Ledger {wall.letter}", Section(high - low, thick), frame, role="ledger")
        if abs(wall.out[2]) > ZERO:
            under = level(top - down).flipped()
            board = board.but(upper_rip=frame.plane_to_local(level(top)), lower_rip=frame.plane_to_local(under))
        pieces.append((board, wall.inner, Plane(wall.out, wall.inner.offset - thick)))
    # A ledger's face looks in: seen from there the walls go round the other way.
    pieces.reverse()
    letters = [board.id[-1] for board, _, _ in pieces]
    names = [f"ledger {a}{letters[(i + 1) % len(letters)]}" for i, a in enumerate(letters)]
    ledgers = add_round(made, pieces, names)
    for ledger in ledgers:
        on = on_wall(courses[ledger.id[-1]], "back")
        made.joints.append(Joint(f"{ledger.id} wall", "butt", Mating(ledger.id, "back"), on, ()))
    return ledgers
