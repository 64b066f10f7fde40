"""How far apart what runs side by side is, at three places."""

from itertools import combinations

from fennup.core.assembly.board import Board, Side
from fennup.core.fit.reading import Making, Picture, own_key
from fennup.core.geometry.vec import Vec, add, cross, distance, dot, norm, scale, sub, unit
from fennup.core.tolerances import SAME

STEEP = 0.5  # of a direction, how much of it is upright from which on a board stands
HEIGHTS = (("top", 0.95), ("middle", 0.5), ("bottom", 0.05))
ALONG = {"top": "right", "middle": "middle", "bottom": "left"}
RUN_ALIKE = 0.999  # of two directions: nearly parallel
MOST_GAPS = 24
WIDE_GAP = 12.0  # thicknesses: what stands farther apart is not measured as a gap


def between(made: Making, picture: Picture, boards: tuple[str, ...]) -> None:
    """The clear gap of bars, slats and shelves that are alike and lie beside each other."""
    loose = [
        b for id in boards if not (b := made.design.boards[id]).found and b.role not in ("leg", "wall", "frame", "ring", "cap")
    ]
    count = 0
    for a, b in combinations(loose, 2):
        if abs(dot(a.frame.x, b.frame.x)) < RUN_ALIKE or a.section != b.section or count >= MOST_GAPS:
            continue
        if not any(m for m in made.joints(a.id) if b.id in (m.a.id, m.b.id)) and neighbours(made, a, b, loose):
            count += spacing(made, picture, a, b)


def neighbours(made: Making, a: Board, b: Board, loose: list[Board]) -> bool:
    """Whether nothing alike lies between them, and they are not far apart."""
    here, there = made.middle(a), made.middle(b)
    far = distance(here, there)
    if far > WIDE_GAP * max(a.section.width_mm, a.section.thickness_mm):
        return False
    way = unit(sub(there, here))
    for c in loose:
        at = dot(sub(made.middle(c), here), way)
        if (
            c.id not in (a.id, b.id)
            and c.section == a.section
            and abs(dot(c.frame.x, a.frame.x)) > RUN_ALIKE
            and SAME < at < far - SAME
            and norm(cross(sub(made.middle(c), here), way)) < far
        ):
            return False
    return True


def spacing(made: Making, picture: Picture, a: Board, b: Board) -> int:
    """How far apart their facing sides are, at top, middle and bottom or at both ends and in the middle."""
    to = sub(made.middle(b), made.middle(a))
    here, there = _facing(a, to), _facing(b, scale(to, -1.0))
    stands = abs(a.frame.x[2]) > STEEP
    low, high = made.design.solids[a.id].extent_x()
    plane, other = a.side_in_world(here), b.side_in_world(there)
    way = plane.normal if not stands else unit((plane.normal[0], plane.normal[1], 0.0))
    into = dot(other.normal, way)
    if dot(plane.normal, to) < SAME or into > -SAME:
        return 0
    found = 0
    for name, share in HEIGHTS:
        x = low + (high - low) * (share if a.frame.x[2] >= 0 or not stands else 1 - share)
        side = a.side(here)
        at = a.frame.to_world((x, side.offset * side.normal[1], side.offset * side.normal[2]))
        apart = -other.beyond(at) / into
        if apart > SAME:
            made.add(f"{_pair(a.id, b.id)} {name}", "spacing", picture.id, at, add(at, scale(way, apart)), apart, made.allowance,
                      (a.id, b.id), (a.id, b.id, name if stands else ALONG[name]))  # fmt: skip
            found = 1
    return found


def _facing(board: Board, way: Vec) -> Side:
    sides: tuple[Side, ...] = ("upper", "lower", "face", "back")
    return max(sides, key=lambda side: round(dot(board.side_in_world(side).normal, way), 9))


def _pair(a: str, b: str) -> str:
    return f"{a} {own_key(b)}"
