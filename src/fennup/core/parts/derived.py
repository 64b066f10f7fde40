"""How an end's angles follow from how the boards lie: by formula, and only where the finished solid measures the same."""

from collections.abc import Iterator
from dataclasses import dataclass
from math import acos, asin, atan, atan2, cos, degrees, hypot, sin, tan

from fennup.core.assembly.board import Board, End
from fennup.core.assembly.model import Assembly, Joint
from fennup.core.geometry.vec import Vec, cross, dot, sub, unit
from fennup.core.parts.solid import Solid
from fennup.core.tolerances import NOTHING

AGREES_DEG = 1e-5


@dataclass(frozen=True)
class Derived:
    """One end's miter and bevel, degrees without a sign, by a formula. `how` says which one, `figures` what goes into it, degrees
    or mm.

    `halved`: faces in one plane, equal widths, half of `turn`. `shared`: the same with widths `own` and `other`, atan((other + own
    cos turn) / (own sin turn)). `ring`: level boards that lean alike by `lean`: atan(sin lean x tan(turn / 2)) and asin(cos lean x
    sin(turn / 2)). `slopes`: leaning by `lean` and `other`: atan(cos lean x (tan other - tan lean x cos turn) / sin turn) and half
    of `between`, the angle through which the faces turn. `level`: a level cut on a board that leans by `along` seen straight on
    and whose face leans by `lean`: atan(tan along x cos lean) and `lean`. `plumb`: a plumb cut on an upright face of a board that
    rises by `rise`, seen from above `aside` from square: `rise` and `aside`. `flat`: a face that lies level, the cut `aside` from
    square seen from above. `aslant`: a level board, the cut's line leaning by `along` seen straight on, the face by `lean`: the
    miter as for `level`, the bevel what `between` the two faces is missing from a right angle. `crossing`: on the face the board
    runs `runs` from level and the cut `line`: what is missing from a right angle, the bevel as before.
    `straight`: seen straight on is 1 from the front, 2 from the side, 0 from elsewhere.
    """

    how: str
    miter_deg: float
    bevel_deg: float
    figures: dict[str, float]


def derived_cut(assembly: Assembly, solid: Solid, end: End, index: int, joint: Joint | None) -> Derived | None:
    """How a cut of an end gets its angles; None where no formula agrees with the solid. `joint`: the end's, if it has one."""
    board = solid.board
    measured = measured_cut(solid, f"{end}:{index}")
    if measured is None:
        return None
    other = None
    if joint and len(joint.ends) == 2 and joint.kind == "miter":
        other = assembly.board(next(id for id, _ in joint.ends if id != board.id))
    plane = board.frame.plane_to_world(board.ends(end)[index])
    for found in _formulas(board, plane.normal, other):
        if max(abs(found.miter_deg - measured[0]), abs(found.bevel_deg - measured[1])) < AGREES_DEG:
            return found
    return None


def measured_cut(solid: Solid, facet: str) -> tuple[float, float] | None:
    """The miter and the bevel of a cut, taken on the corners of the finished solid; None where it has none there."""
    for piece in solid.local:
        for found in piece.facets:
            if found.name == facet:
                a, b, *rest = piece.corners(found)
                normal = max((cross(sub(b, a), sub(c, a)) for c in rest), key=lambda n: dot(n, n))
                nx, ny, nz = unit(normal)
                return degrees(atan2(abs(ny), abs(nx))), degrees(asin(min(1.0, abs(nz))))
    return None


def _formulas(board: Board, cut: Vec, other: Board | None) -> Iterator[Derived]:
    """Those that may hold, the plainest first."""
    face, grain = board.frame.z, board.frame.x
    if other:
        if abs(dot(face, other.frame.z)) > 1 - NOTHING:
            yield from _in_one_plane(board, other)
        elif max(abs(grain[2]), abs(other.frame.x[2])) < NOTHING:
            yield from _round(face, other.frame.z)
    if abs(face[2]) > 1 - NOTHING:
        along = degrees(acos(min(1.0, abs(dot(cut, grain)) / hypot(dot(cut, grain), dot(cut, board.frame.y)))))
        yield Derived("flat", along, degrees(asin(min(1.0, abs(dot(cut, face))))), {"aside": along})
        return
    lean = asin(min(1.0, abs(face[2])))
    level = unit((-face[1], face[0], 0.0))
    if abs(cut[2]) > 1 - NOTHING and abs(grain[2]) > NOTHING:
        along = atan(abs(dot(grain, level) / grain[2]))
        figures = {"along": degrees(along), "lean": degrees(lean), "straight": _straight(level)}
        yield Derived("level", degrees(atan(tan(along) * cos(lean))), degrees(lean), figures)
    if abs(cut[2]) < NOTHING and lean < NOTHING:
        flat = hypot(grain[0], grain[1])
        aside = acos(min(1.0, abs(dot(cut, grain)) / flat)) if flat > NOTHING else 0.0
        rise = degrees(asin(min(1.0, abs(grain[2]))))
        yield Derived("plumb", rise, degrees(aside), {"rise": rise, "aside": degrees(aside)})
    yield _crossing(face, grain, level, cut, lean)


def _in_one_plane(board: Board, other: Board) -> Iterator[Derived]:
    turn = acos(max(-1.0, min(1.0, dot(board.frame.x, other.frame.x))))
    own, theirs = board.section.width_mm, other.section.width_mm
    figures = {"turn": degrees(turn), "own": own, "other": theirs}
    if abs(own - theirs) < NOTHING:
        yield Derived("halved", degrees(turn) / 2, 0.0, figures)
    elif sin(turn) > NOTHING:
        yield Derived("shared", degrees(atan((theirs + own * cos(turn)) / (own * sin(turn)))), 0.0, figures)


def _round(face: Vec, other: Vec) -> Iterator[Derived]:
    one, two = asin(max(-1.0, min(1.0, -face[2]))), asin(max(-1.0, min(1.0, -other[2])))
    a, b = unit((face[0], face[1], 0.0)), unit((other[0], other[1], 0.0))
    turn = acos(max(-1.0, min(1.0, dot(a, b))))
    figures = {"lean": degrees(abs(one)), "other": degrees(abs(two)), "turn": degrees(turn)}
    if abs(one - two) < NOTHING:
        miter, bevel = atan(sin(abs(one)) * tan(turn / 2)), asin(cos(one) * sin(turn / 2))
        yield Derived("ring", degrees(miter), degrees(bevel), figures)
    elif sin(turn) > NOTHING:
        miter = atan(cos(one) * (tan(two) - tan(one) * cos(turn)) / sin(turn))
        between = degrees(acos(max(-1.0, min(1.0, dot(face, other)))))
        signed = {"lean": degrees(one), "other": degrees(two)}
        yield Derived("slopes", abs(degrees(miter)), between / 2, figures | signed | {"between": between})


def _crossing(face: Vec, grain: Vec, level: Vec, cut: Vec, lean: float) -> Derived:
    """The line in which the cut crosses the face, against the way of the board; of a level board as one sees it from the front."""
    up = cross(face, level)
    trace = cross(cut, face)
    between = degrees(acos(min(1.0, abs(dot(cut, face)))))
    if abs(grain[2]) < NOTHING and abs(trace[2]) > NOTHING:
        along = atan(abs(dot(trace, level) / trace[2]))
        figures = {"along": degrees(along), "lean": degrees(lean), "between": between, "straight": _straight(level)}
        return Derived("aslant", degrees(atan(tan(along) * cos(lean))), 90.0 - between, figures)
    runs, line = (degrees(atan2(abs(dot(way, up)), abs(dot(way, level)))) for way in (grain, trace))
    # Both angles from level are seen without their side: on the same side they are apart by their difference.
    same_side = dot(grain, up) * dot(grain, level) * dot(trace, up) * dot(trace, level) >= 0
    apart = abs(runs - line) if same_side else runs + line
    figures = {"runs": runs, "line": line, "apart": apart, "between": between}
    return Derived("crossing", abs(90.0 - apart), 90.0 - between, figures)


def _straight(level: Vec) -> float:
    """From where a face is seen straight on: 1 from the front, 2 from the side, 0 from elsewhere."""
    return 1.0 if abs(level[0]) > 1 - NOTHING else 2.0 if abs(level[1]) > 1 - NOTHING else 0.0
