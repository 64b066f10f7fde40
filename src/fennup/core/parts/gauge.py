"""Sizes between two places on finished boards."""

from math import atan2, degrees

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly, Gauge, Spot
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec, cross, distance, dot, norm, sub
from fennup.core.parts.measures import measure_of
from fennup.core.parts.solid import extent_along


def is_angle(measure: str) -> bool:
    """Whether a measure is in degrees: its name says so."""
    return measure_of(measure).is_angle


def place_of(assembly: Assembly, spot: Spot) -> Vec:
    """Where a spot is, in the assembly's axes. CutError as for the board's lengths."""
    board = assembly.board(spot.board)
    z = {"face": 0.5, "back": -0.5, "middle": 0.0}[spot.through] * board.section.thickness_mm
    y = 0.0
    if spot.across != "middle":
        side = board.side(spot.across)
        y = (side.offset - side.normal[2] * z) / side.normal[1]
    return board.frame.to_world((_x(assembly, board, spot.at, y, z), y, z))


def _x(assembly: Assembly, board: Board, at: str, y: float, z: float) -> float:
    if at in ("left", "right", "middle"):
        low, high = extent_along(board, y, z)
        return {"left": low, "right": high, "middle": (low + high) / 2}[at]
    what, number, *wall = at.split(":")
    if what == "notch":
        notch = board.notches[int(number)]
        planes = [notch.planes[int(wall[0])]] if wall else list(notch.planes[:2])
    elif what in ("left", "right"):
        planes = [(board.left if what == "left" else board.right)[int(number)]]
    elif what == "level":
        planes = [board.frame.plane_to_local(Plane((0.0, 0.0, 1.0), float(number)))]
    else:
        planes = [board.frame.plane_to_local(assembly.board(number).side_in_world(wall[0]))]  # type: ignore[arg-type]
    xs = [(p.offset - p.normal[1] * y - p.normal[2] * z) / p.normal[0] for p in planes]
    return sum(xs) / len(xs)


def read(assembly: Assembly, gauge: Gauge) -> float:
    """What a gauge reads, mm or degrees."""
    a, b = place_of(assembly, gauge.a), place_of(assembly, gauge.b)
    if gauge.how == "straight":
        return distance(a, b)
    way = sub(b, a)
    if gauge.how == "along":
        return dot(way, gauge.along)
    if gauge.how == "lean":
        return degrees(atan2(norm(cross(way, gauge.along)), dot(way, gauge.along)))
    return degrees(atan2(dot(way, gauge.out), dot(way, gauge.along)))
