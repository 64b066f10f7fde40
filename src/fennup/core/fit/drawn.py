"""The dry fit drawn: what is read on the whole, what it opens as fans, as made over the plan, parts sliding together, and what goes through a door."""

from collections.abc import Iterable, Mapping
from dataclasses import replace
from math import hypot

import numpy as np

from fennup.core.assembly.model import Assembly
from fennup.core.drawing.board_views import from_a_side, joints_on_top, seen_from
from fennup.core.drawing.edit import TypeIn
from fennup.core.drawing.view import Dimension, Shape, View
from fennup.core.fit.fitting import Fit
from fennup.core.fit.forecast import Forecast
from fennup.core.fit.forecast import Opening as JointOpening
from fennup.core.fit.meeting import Meeting
from fennup.core.fit.order import Joining
from fennup.core.fit.passage import Opening, PassageWishes, Turned, points_of, silhouettes
from fennup.core.fit.reading import Picture
from fennup.core.geometry.polygon import hull
from fennup.core.geometry.vec import Point2, Vec, add, dot, scale
from fennup.core.parts.solid import Solid, as_board

APART = 0.28  # of the whole's size: how far a part is drawn from its place
TIP = 0.22  # of an arrow's length: its head
WALL = 0.07  # of an opening's height: how thick its frame is drawn
FLAT = 0.35  # how much of a fan's line must be seen


def on_paper(picture: Picture, p: Vec) -> Point2:
    """Where a place is on a picture."""
    return (dot(p, picture.right), dot(p, picture.up))


def picture_view(fit: Fit, picture: Picture, solids: Mapping[str, Solid] | None = None) -> View:
    """The boards of a picture as they stand, or as other solids have them; then the planned ones stay as outlines."""
    own = {id: (solids or fit.design.solids)[id] for id in picture.boards}
    shapes = seen_from(fit.design.assembly, own, picture.right, picture.up)
    if solids is None:
        shapes = (*shapes, *joints_on_top(_only(fit, picture), fit.design.solids, picture.right, picture.up))
    else:
        shapes = (*shapes, *(_outline(fit.design.solids[id], picture) for id in picture.boards))
    return View(picture.id, shapes)


def _only(fit: Fit, picture: Picture) -> Assembly:
    """The assembly with the joints of what is seen alone."""
    own = set(picture.boards)
    joints = tuple(j for j in fit.design.assembly.joints if j.a.board in own and j.b.board in own)
    return replace(fit.design.assembly, joints=joints)


def _outline(solid: Solid, picture: Picture) -> Shape:
    return Shape("ghost", hull([on_paper(picture, p) for piece in solid.world for p in piece.points]), True)


def fans(fit: Fit, forecast: Forecast, picture: Picture, times: int) -> tuple[Shape, ...]:
    """What nine in ten joints stay under, drawn so many times larger: a wedge at every joint that is seen edge on, open at the side where it opens."""
    openings: dict[str, JointOpening] = {o.joint: o for o in forecast.joints} | {o.joint: o for o in forecast.rings}
    own = set(picture.boards)
    shapes = []
    for id, opening in openings.items():
        meeting = fit.web.meetings.all[id]
        if {meeting.a.id, meeting.b.id} <= own:
            shape = _fan(meeting, picture, opening, times)
            if shape:
                shapes.append(shape)
    return tuple(shapes)


def fan_seen(fit: Fit, picture: Picture, joint: str) -> bool:
    """Whether a joint is on a picture, and seen so that it would be seen to open."""
    meeting = fit.web.meetings.all[joint]
    return {meeting.a.id, meeting.b.id} <= set(picture.boards) and hypot(*on_paper(picture, meeting.normal)) >= FLAT


def _fan(meeting: Meeting, picture: Picture, opening: JointOpening, times: int) -> Shape | None:
    out = on_paper(picture, meeting.normal)
    size = hypot(*out)
    if size < FLAT:
        return None
    out = (out[0] / size, out[1] / size)
    points = [on_paper(picture, p) for p in meeting.corners]
    across = (-out[1], out[0])
    ordered = sorted(points, key=lambda p: p[0] * across[0] + p[1] * across[1])
    tip = on_paper(picture, meeting.at)
    near, far = ordered[0], ordered[-1]
    # The outer tip is where it opens, unless the constant part says the other side.
    if abs((tip[0] - near[0]) * across[0] + (tip[1] - near[1]) * across[1]) > abs(
        (tip[0] - far[0]) * across[0] + (tip[1] - far[1]) * across[1]
    ):
        near, far = far, near
    by = opening.nine_mm * times
    half = (out[0] * by / 2, out[1] * by / 2)
    return Shape("fan", (far, (near[0] + half[0], near[1] + half[1]), (near[0] - half[0], near[1] - half[1])), True)


def _pictorial(solids: Mapping[str, Solid]) -> tuple[Vec, Vec]:
    return from_a_side(dict(solids), "front")


def joining_view(fit: Fit, step: Joining) -> View:
    """A step: what is together already, and what comes to it a little away along the way it comes, with an arrow."""
    right, up = _pictorial(fit.design.solids)
    here = {id: fit.design.solids[id] for id in step.onto}
    points = points_of(fit.design.solids, [*step.onto, *step.moved])
    span = float(np.linalg.norm(points.max(axis=0) - points.min(axis=0)))
    way = step.way or (0.0, 0.0, 1.0)
    by = scale(way, APART * span)
    moved = {id: _shifted(fit.design.solids[id], by) for id in step.moved}
    shapes = seen_from(fit.design.assembly, {**here, **moved}, right, up, through_found=False)
    middle = _middle(points_of(fit.design.solids, step.moved))
    a, b = add(middle, by), add(middle, scale(by, 0.15))
    return View("joining", (*shapes, *_arrow(_flat(a, right, up), _flat(b, right, up))) if step.way else shapes)


def _shifted(solid: Solid, by: Vec) -> Solid:
    frame = solid.board.frame
    return as_board(solid, solid.board.but(frame=type(frame)(add(frame.origin, by), frame.x, frame.y, frame.z)))


def _middle(points: np.ndarray[tuple[int, ...], np.dtype[np.float64]]) -> Vec:
    x, y, z = ((points.max(axis=0) + points.min(axis=0)) / 2).tolist()
    return (x, y, z)


def _flat(p: Vec, right: Vec, up: Vec) -> Point2:
    return (dot(p, right), dot(p, up))


def _arrow(a: Point2, b: Point2) -> tuple[Shape, ...]:
    """From one place to another, its head at the second."""
    x, y = b[0] - a[0], b[1] - a[1]
    back = (b[0] - TIP * x, b[1] - TIP * y)
    head = ((back[0] - TIP * y / 2, back[1] + TIP * x / 2), b, (back[0] + TIP * y / 2, back[1] - TIP * x / 2))
    return (Shape("way", (a, b)), Shape("way", head))


def hands_view(fit: Fit, part: str, other: str) -> View:
    """A part, and its mirror image turned over onto it: outlines that lie on each other."""
    facts = {f.key: f for f in fit.design.facts}
    one, two = (hull([(p[0], p[1]) for piece in facts[key].solid.local for p in piece.points]) for key in (part, other))
    low = min(x for x, _ in one)
    flipped = tuple((-x, y) for x, y in two)
    shift = low - min(x for x, _ in flipped)
    return View(
        "hands", (Shape("wood", one, True, part, (1.0, 0.0)), Shape("ghost", tuple((x + shift, y) for x, y in flipped), True))
    )


def passage_view(
    fit: Fit, opening: Opening, wishes: PassageWishes, way: Turned | None, boards: Iterable[str], *, sized: bool
) -> View:
    """The opening, and in it what goes through as it goes; where nothing goes, as it stands. `sized`: with its sizes, to be typed over."""
    wide, high = sizes_of(opening, wishes)
    left, right, wall = -wide / 2, wide / 2, WALL * high
    seen = way or Turned((0.0, 0.0, 1.0), (0.0, 1.0, 0.0), 0.0, 0.0, 0.0, 0.0, 0.0)
    frame = (
        ((left - wall, 0.0), (left, 0.0), (left, high), (left - wall, high)),
        ((right, 0.0), (right + wall, 0.0), (right + wall, high), (right, high)),
        ((left - wall, high), (right + wall, high), (right + wall, high + wall), (left - wall, high + wall)),
    )
    shapes = [Shape("found", points, True) for points in frame]
    shapes += [Shape("wood", points, True, id, (1.0, 0.0)) for id, points in silhouettes(fit.design.solids, tuple(boards), seen)]
    fields = {"door": ("width_mm", "height_mm"), "stairs": ("width_mm", "head_mm"), "load": ("width_mm", "height_mm")}[opening]
    up, aside = high + wall, right + wall

    def dimension(name: str, a: Point2, b: Point2, value: float, away: Point2, field: str) -> Dimension:
        return Dimension(
            f"{opening} {name}", f"{opening}_{name}", a, b, value, "mm", "given", away, 1.0, acts=_typed(opening, field)
        )

    sizes = (
        dimension("width", (left, up), (right, up), wide, (0.0, 1.0), fields[0]),
        dimension("height", (aside, 0.0), (aside, high), high, (1.0, 0.0), fields[1]),
    )
    return View("passage", tuple(shapes), (), sizes if sized else ())


def _typed(opening: Opening, field: str) -> TypeIn:
    return TypeIn(op="type", path=f"passage.{opening}.{field}", text="")


def sizes_of(opening: Opening, wishes: PassageWishes) -> tuple[float, float]:
    """How wide and how high an opening is."""
    if opening == "door" and wishes.door:
        return wishes.door.width_mm, wishes.door.height_mm
    if opening == "stairs" and wishes.stairs:
        return wishes.stairs.width_mm, wishes.stairs.head_mm
    assert wishes.load
    return wishes.load.width_mm, wishes.load.height_mm


def reading_line(picture: Picture, a: Vec, b: Vec) -> tuple[Point2, Point2]:
    """Where a reading is drawn."""
    return on_paper(picture, a), on_paper(picture, b)
