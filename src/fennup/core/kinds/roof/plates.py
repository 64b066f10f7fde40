"""What a roof stands on: the plates on the walls, there already, and the level seats of the feet that stand on them."""

from math import hypot

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Joint, Mating
from fennup.core.errors import SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Point2, Vec, add, cross, dot, scale, sub, unit
from fennup.core.kinds.roof.spec import Hip, RoofSpec
from fennup.core.stock.section import Section

UP: Vec = (0.0, 0.0, 1.0)
DOWN: Vec = (0.0, 0.0, -1.0)
PLATE_MM = 45.0


def plate_round(spec: RoofSpec, shape: Hip, corners: list[Point2]) -> list[Board]:
    """A frame of plates along the eaves, mitered, their outer faces under the eaves, their tops at the seats."""
    feet: list[Vec] = [(x, y, 0.0) for x, y in corners]
    ways = [unit(sub(feet[(i + 1) % len(feet)], foot)) for i, foot in enumerate(feet)]
    made = []
    for i, way in enumerate(ways):
        here, there, inwards = feet[i], feet[(i + 1) % len(feet)], cross(UP, way)
        middle = add(scale(add(here, there), 0.5), add(scale(inwards, shape.plate_mm / 2), (0.0, 0.0, -shape.above_plate_mm)))
        frame = Frame(add(middle, (0.0, 0.0, -PLATE_MM / 2)), way, inwards, UP)
        letter = spec.letters[i]
        board = Board(f"plate {letter}", f"Plate {letter}", Section(shape.plate_mm, PLATE_MM), frame, found=True, role="member")
        start, end = unit(add(ways[i - 1], way)), unit(add(way, ways[(i + 1) % len(ways)]))
        board = board.with_cut("left", Plane(scale(start, -1.0), -dot(start, here)))
        made.append(board.with_cut("right", Plane(end, dot(end, there))))
    return made


def footed(shape: Hip, rafter: Board, eaves: Vec, walls: list[Vec]) -> Board:
    """A rafter with its foot cut: plumb where it comes to the walls' outer faces, at the eaves' place `eaves`, or farther out; the eaves' outer line lies at 0.

    On plates it is cut level besides, or notched: then its heel is square to it, at a corner just at the corner. `walls`: the level ways out of
    them. SpecError `no_seat` where it does not come down to the plate.
    """
    over = shape.overhang_mm if shape.foot == "birdsmouth" else 0.0
    for wall in walls:
        rafter = rafter.with_cut("left", Plane(wall, dot(wall, eaves) + over))
    if shape.foot == "flush":
        return rafter
    plumb = rafter.section.width_mm / hypot(rafter.frame.x[0], rafter.frame.x[1])
    if plumb <= shape.above_plate_mm:
        raise SpecError("no_seat", ("shape.above_plate_mm",), part=rafter.name, mm=shape.above_plate_mm, limit_mm=plumb)
    if shape.foot == "seat":
        return rafter.with_cut("left", Plane(DOWN, shape.above_plate_mm))
    out = unit((-rafter.frame.x[0], -rafter.frame.x[1], 0.0))
    return rafter.with_notch((Plane(out, dot(out, eaves)), Plane(UP, -shape.above_plate_mm)))


def seat_joint(rafter: Board, plates: list[Board]) -> Joint:
    """A seat lies on its plate, at a corner on two; where it is longer than the plate is wide it reaches past it."""
    first, *others = plates
    seat = Mating(rafter.id, "notch:0" if rafter.notches else f"left:{len(rafter.left) - 1}")
    return Joint(
        f"{rafter.id} seat", "butt", seat, Mating(first.id, "face", tuple(p.id for p in others)), (), bare_for="past_plate"
    )
