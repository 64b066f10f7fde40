"""What holds the legs together: rails, rings, braces, a plate, a beam."""

from collections.abc import Sequence
from dataclasses import replace
from math import acos, degrees

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Joint, Mating
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.frame import Frame, frame_from
from fennup.core.geometry.plane import Plane, meeting_point
from fennup.core.geometry.vec import Vec, add, dot, scale, sub, unit
from fennup.core.kinds.inner import Added, Face, add_between, add_half_laps, panel
from fennup.core.kinds.rounds import add_round
from fennup.core.kinds.stand.sides import GROUND, IN_FRONT, UP, Flank, flanks_of, foot_of, head_of
from fennup.core.kinds.stand.spec import Beam, Braces, Hoop, Rail, Round, StandSpec, Top
from fennup.core.kinds.sticks import facing
from fennup.core.parts.solid import ARRISES, arris_line, solid_of
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING, ZERO

TWISTED_DEG = 1e-6  # by which a leg may be turned out of a plane on which something lies
TURNED = 0.95  # the cosine from which on a side looks along a member


def legs_beside(legs: Sequence[Board], i: int) -> tuple[Board, Board]:
    """The leg at the start of side i and the one at its end."""
    return legs[i - 1], legs[i]


def depth_of(flank: Flank, pair: tuple[Board, Board], thickness: float, set_in: float | None) -> float:
    """How far behind the side's plane the middle of a member's thickness lies: if unsaid in the middle of the sides that it
    ends on, or towards the middle of the legs where two members end on one side."""
    if set_in is not None:
        return set_in + thickness / 2
    behind = 0.0
    for leg, way in zip(pair, _inwards(flank), strict=True):
        name = facing(leg, way)
        shared = name == "back" and abs(dot(leg.side_in_world("back").normal, way)) < TURNED
        side = leg.side(name)
        at = leg.frame.origin if shared else leg.frame.to_world(scale(side.normal, side.offset))
        behind -= flank.plane.beyond(at) / 2
    return behind


def set_in_of(spec: StandSpec, legs: Sequence[Board], row: Rail) -> float:
    """How far behind the side's plane a rail lies, said or unsaid."""
    i = spec.letters.index(spec.chosen(row.sides)[0])
    return depth_of(flanks_of(spec)[i], legs_beside(legs, i), row.thickness_mm, row.set_in_mm) - row.thickness_mm / 2


def _inwards(flank: Flank) -> tuple[Vec, Vec]:
    """The way from the leg at a side's start to the one at its end, and back."""
    return flank.along, scale(flank.along, -1.0)


def _ends(flank: Flank, pair: tuple[Board, Board]) -> tuple[Face, Face]:
    """The sides of the two legs that look at each other, as faces that a member ends on."""
    made = []
    for leg, way in zip(pair, _inwards(flank), strict=True):
        side = facing(leg, way)
        made.append(Face(leg.side_in_world(side).flipped(), (leg.id,), side))
    return made[0], made[1]


def add_rails(spec: StandSpec, row: Rail, k: int, flanks: Sequence[Flank], legs: Sequence[Board], added: Added) -> None:
    """A rail in every chosen side; SpecError `rail_above` where it would stand above the heads."""
    for i, flank in enumerate(flanks):
        if flank.letter not in spec.chosen(row.sides):
            continue
        pair = legs_beside(legs, i)
        rise = flank.up[2] * row.width_mm
        if row.height_mm + rise > spec.height_mm:
            limit = spec.height_mm - rise
            raise SpecError("rail_above", (f"rails.{k}.height_mm",), mm=row.height_mm, limit_mm=limit)
        if row.outside:
            _add_apron(spec, row, k, flanks, i, legs, added)
            continue
        # On the outside the lower edge lies at the height; from there half the thickness in and half the width up.
        deep = depth_of(flank, pair, row.thickness_mm, row.set_in_mm)
        outside = flank.plane.moved(row.thickness_mm / 2 - deep)
        foot = _middle_at(outside, flank, row.height_mm)
        into = add(scale(flank.plane.normal, -row.thickness_mm / 2), scale(flank.up, row.width_mm / 2))
        frame = Frame(add(foot, into), flank.along, flank.up, flank.plane.normal)
        id = f"rail {flank.letter}{k + 1}"
        stick = Board(
            id, f"Rail {_numbered(flank.letter, k, spec.rails)}", Section(row.width_mm, row.thickness_mm), frame, role="rail"
        )
        add_between(added, stick, _ends(flank, pair), f"rails.{k}.height_mm")


def _add_apron(spec: StandSpec, row: Rail, k: int, flanks: Sequence[Flank], i: int, legs: Sequence[Board], added: Added) -> None:
    """A rail on the outside of two legs, its back in the side's plane. SpecError `apron_twisted` where a leg's side does not lie in it."""
    flank, count = flanks[i], len(flanks)
    foot = _middle_at(flank.plane, flank, row.height_mm)
    into = add(scale(flank.plane.normal, row.thickness_mm / 2), scale(flank.up, row.width_mm / 2))
    frame = Frame(add(foot, into), flank.along, flank.up, flank.plane.normal)
    name = f"Rail {_numbered(flank.letter, k, spec.rails)}"
    board = Board(f"rail {flank.letter}{k + 1}", name, Section(row.width_mm, row.thickness_mm), frame, role="rail")
    for end, other in (("left", flanks[i - 1]), ("right", flanks[(i + 1) % count])):
        board = board.with_cut(end, other.plane.moved(row.over_mm))  # type: ignore[arg-type]
    added.boards.append(board)
    for leg in legs_beside(legs, i):
        side = facing(leg, flank.plane.normal)
        off = degrees(acos(min(1.0, dot(leg.side_in_world(side).normal, flank.plane.normal))))
        if off > TWISTED_DEG:
            raise SpecError("apron_twisted", (f"rails.{k}.outside",), part=leg.name, deg=off)
        added.joints.append(Joint(f"{board.id} {leg.id}", "face", Mating(board.id, "back"), Mating(leg.id, side), ()))


def _numbered(letter: str, k: int, rows: Sequence[object]) -> str:
    """What is said of one side's part of a row; the row's number only where there are several, which no key hangs on."""
    return f"{letter}{k + 1}" if len(rows) > 1 else letter


def _middle_at(plane: Plane, flank: Flank, height: float) -> Vec:
    """The point in the middle of a side, on a plane along it, at a height."""
    return meeting_point(plane, Plane(flank.along, 0.0), Plane(UP, height))


def add_ring(spec: StandSpec, hoop: Hoop, k: int, sides: Sequence[Flank], legs: Sequence[Board], added: Added) -> None:
    """A ring mitered round the legs. SpecError `ring_off_legs` where it would stand above them."""
    square = hoop.edges == "square"
    rise = hoop.tall_mm * max(side.up[2] for side in sides) if square else hoop.tall_mm
    if hoop.height_mm + rise > spec.height_mm + NOTHING:
        limit = spec.height_mm - rise
        raise SpecError("ring_off_legs", (f"rings.{k}.height_mm",), mm=hoop.height_mm, limit_mm=limit)
    low, high = Plane((0.0, 0.0, -1.0), -hoop.height_mm), Plane(UP, hoop.height_mm + hoop.tall_mm)
    thick = hoop.thickness_mm
    flanks = [replace(side, plane=side.plane.moved(_stands_out(side, legs))) for side in sides]
    boards = {}
    for flank in flanks:
        out = flank.plane.normal
        level = flank.up[2]
        spread = hoop.tall_mm if square else hoop.tall_mm / level + thick * abs(out[2]) / level
        at = _middle_at(flank.plane.moved(thick / 2), flank, hoop.height_mm + hoop.tall_mm / 2)
        if square:
            foot = _middle_at(flank.plane, flank, hoop.height_mm)
            at = add(foot, add(scale(out, thick / 2), scale(flank.up, hoop.tall_mm / 2)))
        frame = Frame(at, flank.along, flank.up, out)
        leans = abs(out[2]) > ZERO and not square
        id = f"ring {flank.letter}{k + 1}"
        boards[flank.letter] = Board(
            id, f"Ring {_numbered(flank.letter, k, spec.rings)}", Section(spread, thick), frame, role="ring", shows=True,
            upper_rip=frame.plane_to_local(high) if leans else None, lower_rip=frame.plane_to_local(low) if leans else None,
        )  # fmt: skip
    pieces = [(boards[flank.letter], flank.plane.moved(thick), flank.plane) for flank in flanks]
    uneven = square and len({round(flank.up[2], 12) for flank in flanks}) > 1
    add_round(added, pieces, [f"ring {name}{k + 1}" for name in spec.legs], "square_edges" if uneven else "")


def _stands_out(flank: Flank, legs: Sequence[Board]) -> float:
    """How far the legs' arrises stand out of a side's plane: turned evenly, they do a little."""
    points = [leg.frame.to_world((0.0, *arris_line(leg, arris))) for leg in legs for arris in ARRISES]
    return max(0.0, *(flank.plane.beyond(p) for p in points))


def add_braces(spec: StandSpec, how: Braces, flanks: Sequence[Flank], legs: Sequence[Board], added: Added) -> None:
    """Two crossing braces in every chosen side. SpecError `brace_above` where they would reach above the heads."""
    if how.high_mm > spec.height_mm:
        raise SpecError("brace_above", ("braces.high_mm",), mm=how.high_mm, limit_mm=spec.height_mm)
    for i, flank in enumerate(flanks):
        if flank.letter not in spec.chosen(how.sides):
            continue
        pair = legs_beside(legs, i)
        faces = _ends(flank, pair)
        middle = flank.plane.moved(-depth_of(flank, pair, how.thickness_mm, how.set_in_mm))
        sticks = []
        for number, heights in enumerate(((how.low_mm, how.high_mm), (how.high_mm, how.low_mm))):
            left, right = (meeting_point(middle, face.plane, Plane(UP, z)) for face, z in zip(faces, heights, strict=True))
            frame = frame_from(scale(add(left, right), 0.5), sub(right, left), flank.plane.normal)
            id = f"brace {flank.letter}{number + 1}"
            stick = Board(id, f"Brace {id[6:]}", Section(how.width_mm, how.thickness_mm), frame, role="brace")
            sticks.append(add_between(added, stick, faces, "braces.low_mm"))
        add_half_laps(added, sticks[:1], sticks[1:])


def top_plate(spec: StandSpec, top: Top, flanks: Sequence[Flank], legs: Sequence[Board]) -> Board:
    """The plate that lies on the heads. SpecError `piece_outside`."""
    bottom = spec.height_mm
    heads = [p for leg in legs for patch in solid_of(leg).patches(f"{head_of(leg)}:0") for p in patch.points]
    looks = []
    for i, flank in enumerate(flanks):
        here, after = (unit((f.plane.normal[0], f.plane.normal[1], 0.0)) for f in (flank, flanks[(i + 1) % len(flanks)]))
        # Over each leg of a round stand the plate's corner is cut off.
        looks += [here, unit(add(here, after))] if isinstance(spec.plan, Round) else [here]
    rims = [Plane(look, max(dot(look, p) for p in heads) + top.over_mm) for look in looks]
    try:
        return replace(panel("top", "Top", bottom, top.thickness_mm, rims), role="top")
    except CutError:
        raise SpecError("piece_outside", ("top",), part="Top") from None


def add_top(spec: StandSpec, top: Top, flanks: Sequence[Flank], legs: Sequence[Board], added: Added) -> None:
    """A plate on the heads."""
    added.boards.append(top_plate(spec, top, flanks, legs))
    for leg in legs:
        end = head_of(leg)
        head = Mating(leg.id, f"{end}:0")
        added.joints.append(Joint(f"{leg.id} top", "butt", head, Mating("top", "back"), ((leg.id, end),)))


def add_beam(spec: StandSpec, beam: Beam, reach: float, legs: Sequence[Board], added: Added) -> None:
    """A beam between the heads of the pairs; every head stands on its side."""
    at: Vec = (0.0, 0.0, spec.height_mm - beam.depth_mm / 2)
    frame = frame_from(at, (1.0, 0.0, 0.0), (0.0, -1.0, 0.0))
    board = Board("beam", "Beam", Section(beam.depth_mm, beam.thickness_mm), frame, role="rail")
    far = reach + beam.over_mm
    board = board.with_cut("left", Plane((-1.0, 0.0, 0.0), far)).with_cut("right", Plane((1.0, 0.0, 0.0), far))
    added.boards.append(board)
    for leg in legs:
        end = head_of(leg)
        side = "face" if leg.id in IN_FRONT else "back"
        added.joints.append(Joint(f"{leg.id} beam", "butt", Mating(leg.id, f"{end}:0"), Mating("beam", side), ((leg.id, end),)))


def feet_of(legs: Sequence[Board]) -> list[Board]:
    """The legs with their feet cut level."""
    return [leg.with_cut(foot_of(leg), GROUND) for leg in legs]
