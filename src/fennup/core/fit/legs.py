"""What stands on feet of its own: the plan of the feet, whether it rocks, each side crosswise."""

from itertools import combinations
from math import asin, atan2, degrees

from fennup.core.assembly.board import Board
from fennup.core.fit.feet import Foot
from fennup.core.fit.polygon import Corner, Figure, widest_play
from fennup.core.fit.reading import Making, Picture, mean, own_key, total
from fennup.core.fit.spaces import spacing
from fennup.core.geometry.vec import Vec, cross, distance, norm, scale, sub, unit
from fennup.core.tolerances import SAME

FEET, HEADS = "both feet", "both heads"  # sides of a figure that no board makes
ROCK_MM = 0.8  # 1/32 in under one foot: it still stands firm on a floor


def stand(made: Making, id: str, boards: tuple[str, ...]) -> None:
    legs = [board for b in boards if (board := made.design.boards[b]).role == "leg"]
    if len(legs) < 3:
        return
    points = {leg.id: [p for piece in made.design.solids[leg.id].world for p in piece.points] for leg in legs}
    middle = scale(total([mean(p) for p in points.values()]), 1.0 / len(legs))
    legs.sort(key=lambda leg: atan2(mean(points[leg.id])[1] - middle[1], mean(points[leg.id])[0] - middle[0]))
    low = {leg.id: _outermost(points[leg.id], middle, lowest=True) for leg in legs}
    high = {leg.id: _outermost(points[leg.id], middle, lowest=False) for leg in legs}
    own = tuple(leg.id for leg in legs)
    between = tuple(f"{leg.id}+{legs[(k + 1) % len(legs)].id}" for k, leg in enumerate(legs))
    feet = Figure(f"{id} feet", tuple(Corner(leg.id, low[leg.id]) for leg in legs), between, legs[0].section.width_mm)
    picture = Picture(feet.id, "feet", id, (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), own)
    made.pictures.append(picture)
    made.feet[feet.id] = tuple(
        Foot(leg.id, low[leg.id], degrees(asin(min(1.0, norm(cross(leg.frame.x, (0.0, 0.0, 1.0))))))) for leg in legs
    )
    n = len(legs)
    made.figures[feet.id] = feet
    for k, leg in enumerate(legs):
        other = legs[(k + 1) % n]
        a, b = low[leg.id], low[other.id]
        made.add(f"{feet.id} {own_key(leg.id)}-{own_key(other.id)}", "feet_side", picture.id, a, b, distance(a, b), 2 * made.allowance,
                  (leg.id, other.id), (leg.id, other.id), figure=feet.id, pair=(k, (k + 1) % n))  # fmt: skip
    for i, j in combinations(range(n), 2):
        if n > 3 and j - i == n // 2 and n % 2 == 0:
            a, b = low[own[i]], low[own[j]]
            made.add(f"{feet.id} {own_key(own[i])}-{own_key(own[j])}", "feet_diagonal", picture.id, a, b, distance(a, b),
                      widest_play(feet, (i, j), made.allowance), (own[i], own[j]), (own[i], own[j]), figure=feet.id, pair=(i, j))  # fmt: skip
    if n > 3:
        for leg in legs:
            made.add(
                f"{feet.id} rock {own_key(leg.id)}",
                "rock",
                picture.id,
                low[leg.id],
                low[leg.id],
                0.0,
                ROCK_MM,
                (leg.id,),
                (leg.id,),
                figure=feet.id,
            )
    for k, leg in enumerate(legs):
        side(made, id, leg, legs[(k + 1) % n], (low, high), boards)


def side(
    made: Making, id: str, leg: Board, other: Board, ends: tuple[dict[str, Vec], dict[str, Vec]], boards: tuple[str, ...]
) -> None:
    """Two legs that stand side by side: crosswise, and how far apart they are at three heights."""
    low, high = ends
    corners = (Corner(f"{leg.id} foot", low[leg.id]), Corner(f"{other.id} foot", low[other.id]),
               Corner(f"{other.id} head", high[other.id]), Corner(f"{leg.id} head", high[leg.id]))  # fmt: skip
    figure = Figure(f"{id} {own_key(leg.id)} {own_key(other.id)}", corners, (FEET, other.id, HEADS, leg.id), leg.section.width_mm)
    out = cross(sub(low[other.id], low[leg.id]), (0.0, 0.0, 1.0))
    if norm(out) < SAME or distance(high[leg.id], high[other.id]) < SAME:
        return
    between = tuple(
        b for b in boards if {m.a.id for m in made.joints(b)} | {m.b.id for m in made.joints(b)} >= {leg.id, other.id}
    )
    picture = Picture(
        figure.id,
        "side",
        f"{leg.id} {other.id}",
        unit(cross((0.0, 0.0, 1.0), out)),
        (0.0, 0.0, 1.0),
        (leg.id, other.id, *between),
    )
    made.pictures.append(picture)
    made.figure(figure, picture, "crosswise", boards=(leg.id, other.id))
    spacing(made, picture, leg, other)


def _outermost(points: list[Vec], middle: Vec, *, lowest: bool) -> Vec:
    """Of a leg's lowest or highest corners the one farthest from the middle of all legs."""
    level = (min if lowest else max)(p[2] for p in points)
    own = [p for p in points if abs(p[2] - level) < 1.0] or points
    return max(own, key=lambda p: ((p[0] - middle[0]) ** 2 + (p[1] - middle[1]) ** 2, p[0], p[1]))
