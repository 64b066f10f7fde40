"""A box as boards, cut planes, joints, lines and claims. It places; it computes no setting and no length."""

from itertools import pairwise
from math import cos, pi
from typing import Literal

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly, Finding, Gauge, Joint, Mating, Outline, Parting, Ring, Spot, Stretch
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.plane import joint_plane, plane_through
from fennup.core.geometry.vec import add, cross, dot, scale, sub
from fennup.core.kinds.box.courses import Course, counted, courses_of, reach_of
from fennup.core.kinds.box.fittings import lining_of
from fennup.core.kinds.box.grooves import ploughed_in, with_stopped
from fennup.core.kinds.box.insets import insets_of, inside_bottom
from fennup.core.kinds.box.spec import BoxSpec, Rectangle, Regular, Turned
from fennup.core.kinds.box.walls import FLOOR, Wall, level, run_at, signed_run, walls_of
from fennup.core.kinds.drilling import ball_findings, with_holes
from fennup.core.kinds.stopping import with_grooves
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING

WHERE = {"A": "front", "B": "right", "C": "back", "D": "left"}
UPRIGHT = 1e-12


def assemble(spec: BoxSpec) -> Assembly:
    """Boards and joints of a box with all that is let into it. SpecError when no box answers to the spec."""
    walls = walls_of(spec)
    _check(spec, walls)
    courses = courses_of(spec, walls)
    boards, joints = _ring(spec, walls, courses)
    boards = with_stopped(spec, walls, boards)
    insets = insets_of(spec, walls, courses, max(_highest(spec, wall) for wall in walls))
    ring = Ring(tuple(boards))
    return Assembly(
        boards=with_holes((*with_grooves(tuple(boards.values()), spec.stopped), *insets.boards), spec.holes),
        joints=(*joints, *insets.joints),
        outlines=(*_outlines(walls, courses), *insets.outlines),
        claims=spec.claims(),
        rings=(ring, *insets.rings),
        findings=(*_findings(spec, walls), *insets.findings, *ball_findings(spec.holes)),
        partings=(Parting(spec.lid.depth_mm, spec.lid.kerf_mm),) if spec.lid else (),
        gauges=(*insets.gauges, *_spacers(spec)),
        asked_level_mm=spec.measured_at_mm,
        blanks=(lining_of(spec, spec.lining, walls, inside_bottom(spec)),) if spec.lining else (),
    )


def shell(spec: BoxSpec) -> Assembly:
    """The walls alone, each a single uncut board: enough to measure every line on, and quick. CutError `parallel`."""
    walls = walls_of(spec)
    whole: dict[str, tuple[Course, ...]] = {
        wall.letter: (Course(wall.letter, *reach_of(spec, wall), True, True),) for wall in walls
    }
    boards = tuple(_board(spec, wall, whole[wall.letter][0]) for wall in walls)
    return Assembly(boards, (), _outlines(walls, whole), (), (), asked_level_mm=spec.measured_at_mm)


def _highest(spec: BoxSpec, wall: Wall) -> float:
    """The level of a wall's highest wood."""
    rim = spec.rim_of(wall.letter)
    return rim if spec.edges == "level" else rim + max(0.0, -wall.out[2] * wall.thickness)


def _board(spec: BoxSpec, wall: Wall, course: Course) -> Board:
    """One course of a wall, its ends not yet cut."""
    frame = wall.frame_at((course.low + course.high) / 2)
    leaning = spec.edges == "level" and abs(wall.out[2]) > UPRIGHT
    grooves = ploughed_in(spec, wall.letter, lowest=course.lowest)
    word = "Stave" if spec.grain == "up" else "Wall"
    name = f"{word} {wall.letter}" + (f" ({WHERE[wall.letter]})" if isinstance(spec.plan, Rectangle) else "")
    if course.id != wall.letter:
        name = f"{name}, {'course' if spec.courses else 'stave'} {course.id[1:]}"
    return Board(
        course.id,
        name,
        Section(course.high - course.low, wall.thickness, grooves),
        frame,
        stave=spec.grain == "up",
        role="wall",
        shows=True,
        upper_rip=frame.plane_to_local(level(spec.rim_of(wall.letter))) if leaning and course.highest else None,
        lower_rip=frame.plane_to_local(FLOOR) if leaning and course.lowest else None,
    )


def _ring(spec: BoxSpec, walls: tuple[Wall, ...], courses: dict[str, tuple[Course, ...]]) -> tuple[dict[str, Board], list[Joint]]:
    """All walls' boards cut at every corner, and the joints: corner by corner, course by course, then course on course."""
    boards = {course.id: _board(spec, wall, course) for wall in walls for course in courses[wall.letter]}
    joints: list[Joint] = []
    for i, name in enumerate(spec.corner_names):
        joints += _corner(spec, walls[i], walls[(i + 1) % len(walls)], name, courses, boards)
    for wall in walls if spec.staves > 1 else ():
        joints += _split(spec, walls, wall, courses[wall.letter], boards)
    for own in courses.values() if spec.courses else ():
        joints += [
            Joint(f"{low.id}/{high.id}", "edge", Mating(low.id, "upper"), Mating(high.id, "lower"), ())
            for low, high in pairwise(own)
        ]
    return boards, joints


def _corner(
    spec: BoxSpec, a: Wall, b: Wall, name: str, courses: dict[str, tuple[Course, ...]], boards: dict[str, Board]
) -> list[Joint]:
    """Cut both walls of a corner and name the faces that meet."""
    through = spec.through(name)
    joint: Literal["miter", "butt"] = "butt" if through else "miter"
    through_a = through == a.letter
    miter = joint_plane(a.outer, b.outer, a.inner, b.inner)
    if joint == "miter":
        right, left = miter, miter.flipped()
    elif through_a:
        right, left = b.outer, a.inner
    else:
        right, left = b.inner, a.outer
    mine, theirs = ([course.id for course in courses[wall.letter]] for wall in (a, b))
    if not spec.courses:  # of staves side by side the two that meet
        mine, theirs = mine[-1:], theirs[:1]
    for id in mine:
        boards[id] = boards[id].with_cut("right", right)
    for id in theirs:
        boards[id] = boards[id].with_cut("left", left)
    uneven = (a.slope, a.thickness) != (b.slope, b.thickness)
    # Square edges of walls that lean meet at one level only where both lean alike and are mitered.
    askew = uneven or (joint == "butt" and (a.slope != 0 or b.slope != 0))
    loose = (askew and spec.edges == "square") or (uneven and len(mine) > 1)
    joints = []
    for i, (one, other) in enumerate(zip(mine, theirs, strict=True)):
        id = f"{name}{i + 1}" if spec.courses else name
        beside_a, beside_b = (tuple(x for x in ids if x != own) for ids, own in ((mine, one), (theirs, other)))
        at_a = Mating(one, "right:0" if joint == "miter" or not through_a else "back", beside_a)
        at_b = Mating(other, "left:0" if joint == "miter" or through_a else "back", beside_b)
        first, second = (at_b, at_a) if joint == "butt" and through_a else (at_a, at_b)
        ends = ((one, "right"), (other, "left"))
        why = "own_rims" if spec.rims == "alike" and a.slope != b.slope else "square_edges" if loose else ""
        joints.append(Joint(id, joint, first, second, ends, why))  # type: ignore[arg-type]
    return joints


def _spacers(spec: BoxSpec) -> list[Gauge]:
    """The clear height between shelves that are next to each other, counted from one side."""
    made = []
    for side in spec.letters:
        order = sorted((k for k, shelf in enumerate(spec.shelves) if shelf.side == side), key=lambda k: spec.shelves[k].height_mm)
        for low, high in pairwise(order):
            ends = (Spot(f"shelf{low + 1}", "middle", "middle", "face"), Spot(f"shelf{high + 1}", "middle", "middle", "back"))
            made.append(Gauge(f"shelf_spacer:{low + 1}-{high + 1}", *ends, sets=f"shelves.{high}.height_mm"))
    return made


def _split(
    spec: BoxSpec, walls: tuple[Wall, ...], wall: Wall, staves: tuple[Course, ...], boards: dict[str, Board]
) -> list[Joint]:
    """A wall's staves parted from each other, square to the wall, so that all are as wide at the bottom and as wide at the top."""
    joints = []
    i = walls.index(wall)
    low, high = (run_at(walls, i, z, "outer") for z in (0.0, spec.rim_of(wall.letter)))
    for k, (one, other) in enumerate(pairwise(staves)):
        share = (k + 1) / len(staves)
        foot, head = (add(scale(a, 1.0 - share), scale(b, share)) for a, b in (low, high))
        seam = plane_through(foot, cross(sub(head, foot), wall.out))
        seam = seam if dot(seam.normal, wall.along) > 0 else seam.flipped()
        boards[one.id] = boards[one.id].with_cut("right", seam)
        boards[other.id] = boards[other.id].with_cut("left", seam.flipped())
        at = [f"{end}:{len(boards[id].ends(end)) - 1}" for id, end in ((one.id, "right"), (other.id, "left"))]  # type: ignore[arg-type]
        ends = ((one.id, "right"), (other.id, "left"))
        joints.append(Joint(f"{one.id}/{other.id}", "miter", Mating(one.id, at[0]), Mating(other.id, at[1]), ends))  # type: ignore[arg-type]
    return joints


def _outlines(walls: tuple[Wall, ...], courses: dict[str, tuple[Course, ...]]) -> tuple[Outline, ...]:
    """The four lines round a box; each rim as high as it is."""
    made = []
    for where, place in (("bottom", 0), ("top", -1)):
        for line, side in (("outer", "face"), ("inner", "back")):
            stretches = tuple(Stretch(w.letter, courses[w.letter][place].id, side) for w in walls)  # type: ignore[arg-type]
            made.append(Outline(f"{line}_{where}", stretches, "lower" if place == 0 else "upper", True))
    return tuple(made)


def _check(spec: BoxSpec, walls: tuple[Wall, ...]) -> None:
    """Every wall must keep some of both faces, at the bottom and at the top: SpecError `walls_cross`, `too_thick`."""
    for i, wall in enumerate(walls):
        try:
            outer = [signed_run(walls, i, h, "outer") for h in (0.0, spec.rim_of(wall.letter))]
            inner = [signed_run(walls, i, h, "inner") for h in (0.0, spec.rim_of(wall.letter))]
        except CutError:
            raise SpecError("walls_in_line", ("plan",), side=wall.letter) from None
        if outer[0] <= NOTHING or not _turns_left(walls[i - 1], wall):
            raise SpecError("plan_crossed", ("plan",), side=wall.letter)
        if outer[1] <= NOTHING:
            limit = spec.height_mm * outer[0] / (outer[0] - outer[1])
            raise SpecError(
                "walls_cross", (spec.field_of("height", "height_mm"),), side=wall.letter, mm=spec.height_mm, limit_mm=limit
            )
        if min(inner) <= NOTHING:
            worst = 0 if inner[0] <= inner[1] else 1
            limit = wall.thickness * outer[worst] / (outer[worst] - inner[worst])
            own = wall.letter in spec.thicknesses_mm
            field = f"thicknesses_mm.{wall.letter}" if own else "thickness_mm"
            raise SpecError("too_thick", (field,), side=wall.letter, mm=wall.thickness, limit_mm=limit)


def _turns_left(before: Wall, here: Wall) -> bool:
    return before.along[0] * here.along[1] - before.along[1] * here.along[0] > NOTHING


def _findings(spec: BoxSpec, walls: tuple[Wall, ...]) -> list[Finding]:
    """What only the kind knows: the height that leaning costs."""
    if spec.turned:
        return [_turned(spec, spec.turned)]
    if spec.courses is None:
        return []
    count, width = counted(spec, spec.courses, walls)
    standing = count * width
    return [Finding("leaning_costs", "note", (), ("courses",), standing, spec.height_mm)]


def _turned(spec: BoxSpec, turned: Turned) -> Finding:
    """What turning takes off at the corners. SpecError `turned_needs_staves`, `turned_too_large`, `bored_too_small`, `turned_through`."""
    if not (spec.upright and isinstance(spec.plan, Regular) and spec.grain == "up" and not spec.thicknesses_mm):
        raise SpecError("turned_needs_staves", ("turned",))
    flats = spec.plan.across_mm
    hollow = (flats - 2 * spec.thickness_mm) / cos(pi / spec.sides)  # the circle round the inside's corners
    if turned.outer_mm > flats + NOTHING:
        raise SpecError("turned_too_large", ("turned.outer_mm",), mm=turned.outer_mm, limit_mm=flats)
    if turned.inner_mm is not None and turned.inner_mm < hollow - NOTHING:
        raise SpecError("bored_too_small", ("turned.inner_mm",), mm=turned.inner_mm, limit_mm=hollow)
    if turned.outer_mm <= (turned.inner_mm or hollow):
        raise SpecError("turned_through", ("turned.outer_mm",), mm=turned.outer_mm, limit_mm=turned.inner_mm or hollow)
    left = (turned.outer_mm - (turned.inner_mm or hollow)) / 2
    return Finding("turned_off", "note", (), ("turned.outer_mm",), (flats / cos(pi / spec.sides) - turned.outer_mm) / 2, left)
