"""What adds up in a ring of boards whose ends are not cut at the true angles, flat, leaning or open.

How it is reckoned: every joint but the last is pushed tight: its two made faces lie flush, with the lines where they come
out on the boards' faces along each other and the outer tips together. That turns each board a little against the one
before; the turns of all joints together are what the last joint is out by. It is pushed, at unchanged angle, until a corner
touches; what stays at its other end is the opening. Lengths rounded to the tape add up as vectors.
"""

from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass
from math import asin, sin

from fennup.core.assembly.board import Board, End
from fennup.core.assembly.model import Assembly, Joint, Mating, Ring
from fennup.core.errors import CutError
from fennup.core.geometry.vec import Vec, add, cross, distance, dot, norm, scale, sub, unit
from fennup.core.parts.solid import Solid
from fennup.core.verify.made import Ends, MadeEnd, end_of
from fennup.core.verify.slid import Where

Axes = tuple[Vec, Vec, Vec]
SAME: Axes = ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
TURNED = 1e-9
IN_PLANE = 1e-6


@dataclass(frozen=True)
class AddsUp:
    """What a ring is out by when all joints but the last are pushed tight, mm.

    `opening_mm` of the last joint, `at` which side of its boards (None: nowhere wider than elsewhere); `step_mm` by which its
    faces are shifted along each other. Of an open ring there is no last joint: `wider_mm` is how much farther apart (or
    nearer, negative) the ends beside the open sides come to stand.
    """

    joint: str | None
    boards: tuple[str, ...]
    opening_mm: float = 0.0
    at: Where | None = None
    step_mm: float = 0.0
    wider_mm: float = 0.0


@dataclass(frozen=True)
class _Meeting:
    """A joint as one goes round: the face that one leaves by and the one that one comes to."""

    joint: Joint
    out: Mating
    into: Mating


def adds_up(ends: Ends, graduation_mm: float | None) -> tuple[AddsUp, ...]:
    """Every ring's, in a wall of several courses every course's. `graduation_mm`: what lengths are cut to; None: exactly."""
    found = []
    for way, closed in _ways_round(ends.assembly):
        with suppress(CutError):  # no saw goes there: that it does not is found elsewhere
            found.append(_reckoned(ends, way, closed, graduation_mm))
    return tuple(found)


def _ways_round(assembly: Assembly) -> Iterator[tuple[list[_Meeting], bool]]:
    """Each way round a ring from joint to joint, and whether it comes back to where it began."""
    for ring in assembly.rings:
        after = _after(assembly, ring)
        reached = {meeting.into.board for meeting in after.values()}
        starts = [id for id in ring.boards if id in after and id not in reached]
        seen: set[str] = set()
        for start in (*starts, *ring.boards):
            way: list[_Meeting] = []
            here = start
            while here not in seen and here in after:
                seen.add(here)
                way.append(after[here])
                here = after[here].into.board
            if way:
                yield way, here == start


def _after(assembly: Assembly, ring: Ring) -> dict[str, _Meeting]:
    """By board: the joint that leads on to the next one."""
    own = set(ring.boards)
    found = {}
    for joint in assembly.joints:
        if len(joint.ends) == 2 and joint.a.board in own and joint.b.board in own:
            first = joint.ends[0][0]
            out, into = (joint.a, joint.b) if joint.a.board == first else (joint.b, joint.a)
            found[first] = _Meeting(joint, out, into)
    return found


def _reckoned(ends: Ends, way: list[_Meeting], closed: bool, graduation: float | None) -> AddsUp:
    boards = [ends.assembly.board(meeting.out.board) for meeting in way]
    tips = [_tip(ends, meeting) for meeting in way]
    start = tips[-1] if closed else _loose_tip(ends, way[0].joint.ends[0])
    place, lacking, turn, before = start, (0.0, 0.0, 0.0), SAME, SAME
    came = way[-1].joint.ends[1][1] if closed else None
    for board, meeting, tip in zip(boards, way, tips, strict=True):
        (_, leaves), (_, comes) = meeting.joint.ends
        error = _rounding(board, ends.solids, came, leaves, graduation)
        place, lacking = add(place, _turned(turn, add(sub(tip, start), error))), add(lacking, error)
        start, came, before = tip, comes, turn
        turn = _then(turn, _tight(ends, meeting))
    names = tuple(board.id for board in boards)
    if not closed:
        last, first = way[-1].joint.ends[1], _loose_tip(ends, way[0].joint.ends[0])
        far, board = _loose_tip(ends, last), ends.assembly.board(last[0])
        error = _rounding(board, ends.solids, came, None, graduation)
        place = add(place, _turned(turn, add(sub(far, start), error)))
        return AddsUp(None, (*names, last[0]), wider_mm=distance(place, first) - distance(far, first))
    opening, at, twisted = _last(ends, way[-1], before, turn)
    # Where the turns of all joints make up for each other, what their tips miss is known too; else only what lengths lack.
    missed = lacking if opening or twisted else sub(place, tips[-1])
    square = ends.true_normal(way[-1].out)
    gap = dot(missed, square)
    return AddsUp(way[-1].joint.id, names, opening + abs(gap), at, twisted + norm(sub(missed, scale(square, gap))))


def _last(ends: Ends, meeting: _Meeting, before: Axes, turn: Axes) -> tuple[float, Where | None, float]:
    """How wide the last joint stands open by its angle alone, on which side, and how far its faces are twisted along each other."""
    look, trace = scale(ends.normal(meeting.into), -1.0), _trace(ends, meeting, meeting.into)
    turned = _turned(turn, look)
    made = [(end, axes) for m, axes in ((meeting.out, before), (meeting.into, SAME)) if (end := ends.at(m))]
    axis = cross(look, turned)
    size = norm(axis)
    opening, at = 0.0, None
    if made and size > TURNED:
        axis = scale(axis, 1.0 / size)
        reaches = []
        for end, axes in made:
            face = [_turned(axes, end.board.frame.direction_to_world(p)) for p in end.face()]
            along = [dot(p, cross(axis, turned if axes is before else look)) for p in face]
            reaches.append(max(along) - min(along))
        opening = 2 * min(reaches) * sin(asin(min(1.0, size)) / 2)
        at = _side(made[0][0], _turned_back(made[0][1], cross(axis, look)))
    bent = _turned(turn, trace)
    if size > TURNED:  # tilted back the shortest way, before the two are compared
        bent = add(
            add(scale(bent, dot(turned, look)), scale(cross(bent, axis), size)),
            scale(axis, dot(axis, bent) * (1.0 - dot(turned, look))),
        )
    spin = asin(min(1.0, norm(cross(bent, trace))))
    span = max((distance(p, q) for end, _ in made for p in end.face() for q in end.face()), default=0.0)
    return opening, at, 2 * span * sin(spin / 2) if spin > TURNED else 0.0


def _side(end: MadeEnd, way: Vec) -> Where:
    """The side of a board that lies that way in its end's face."""
    local = end.board.frame.direction_to_local(way)
    reach = [max(p[k] for p in end.corners) - min(p[k] for p in end.corners) for k in range(3)]
    if abs(local[1]) * reach[1] >= abs(local[2]) * reach[2]:
        return "upper" if local[1] > 0 else "lower"
    return "face" if local[2] > 0 else "back"


def _tight(ends: Ends, meeting: _Meeting) -> Axes:
    """How the next board is turned when its made face lies flush on this one's: where the axes of the assembly go."""
    normal, trace = ends.normal(meeting.out), _trace(ends, meeting, meeting.out)
    look, along = scale(ends.normal(meeting.into), -1.0), _trace(ends, meeting, meeting.into)
    here, there = (normal, trace, cross(normal, trace)), (look, along, cross(look, along))
    return tuple(  # type: ignore[return-value]
        add(add(scale(here[0], there[0][k]), scale(here[1], there[1][k])), scale(here[2], there[2][k])) for k in range(3)
    )


def _trace(ends: Ends, meeting: _Meeting, mating: Mating) -> Vec:
    """The line along which a joint comes out on its boards' faces, as it then runs on one of the two made faces."""
    cut = meeting.out if end_of(meeting.out) else meeting.into
    true = unit(cross(ends.assembly.board(cut.board).frame.z, ends.true_normal(cut)))
    normal, frame = ends.normal(mating), ends.assembly.board(mating.board).frame
    for side in (frame.z, frame.y):
        line = cross(side, ends.true_normal(mating))
        if norm(line) > IN_PLANE and norm(cross(unit(line), true)) < IN_PLANE:
            made = unit(cross(side, normal))
            return made if dot(made, true) > 0 else scale(made, -1.0)
    return unit(sub(true, scale(normal, dot(true, normal))))


def _rounding(board: Board, solids: dict[str, Solid], came: End | None, leaves: End | None, graduation: float | None) -> Vec:
    """How far the end that one leaves a board by comes out from where it should be when its length is rounded to the tape."""
    if not graduation or came == leaves:
        return (0.0, 0.0, 0.0)
    low, high = solids[board.id].extent_x()
    error = round((high - low) / graduation) * graduation - (high - low)
    return scale(board.frame.x, error if leaves == "right" or came == "left" else -error)


def _tip(ends: Ends, meeting: _Meeting) -> Vec:
    """The corner of a joint's face on the board's face at its lower edge: the outer tip."""
    cut = meeting.out if end_of(meeting.out) else meeting.into
    return _corner(ends.solids[cut.board], cut.facet)


def _loose_tip(ends: Ends, joined: tuple[str, End]) -> Vec:
    """The same of the end of a board that is not joined."""
    board, end = joined
    return _corner(ends.solids[board], "left:0" if end == "right" else "right:0")


def _corner(solid: Solid, facet: str) -> Vec:
    frame = solid.board.frame
    points = [p for patch in solid.patches(facet) for p in patch.points]
    return max(points, key=lambda p: round(dot(frame.z, p) - dot(frame.y, p), 6))


def _turned(axes: Axes, p: Vec) -> Vec:
    """A direction after a turn that is given as where the axes go."""
    return add(add(scale(axes[0], p[0]), scale(axes[1], p[1])), scale(axes[2], p[2]))


def _turned_back(axes: Axes, p: Vec) -> Vec:
    return (dot(axes[0], p), dot(axes[1], p), dot(axes[2], p))


def _then(first: Axes, second: Axes) -> Axes:
    """The turn `first` of what `second` has turned."""
    return (_turned(first, second[0]), _turned(first, second[1]), _turned(first, second[2]))
