"""Walls of several boards, one above the other."""

from dataclasses import dataclass
from itertools import pairwise
from math import ceil, cos

from fennup.core.assembly.model import Mating
from fennup.core.errors import SpecError
from fennup.core.kinds.box.spec import MOST_COURSES, BoxSpec, Courses
from fennup.core.kinds.box.walls import Wall
from fennup.core.tolerances import NOTHING


@dataclass(frozen=True)
class Course:
    """One board of a wall: from `low` to `high` up the wall, y from the outer bottom line."""

    id: str
    low: float
    high: float
    lowest: bool
    highest: bool


def on_wall(boards: tuple[Course, ...], side: str) -> Mating:
    """A side of a wall to lie on, whichever of its boards that is."""
    first, *others = (course.id for course in boards)
    return Mating(first, side, tuple(others))


def courses_of(spec: BoxSpec, walls: tuple[Wall, ...]) -> dict[str, tuple[Course, ...]]:
    """Every wall's courses, from the bottom up.

    The wall that needs the most wood sets where the boards meet: all of its boards but the top one are as wide as they
    come. The other walls' boards are ripped so that they meet at the same levels on the face. SpecError as `counted` says.
    """
    ends = {wall.letter: reach_of(spec, wall) for wall in walls}
    if spec.staves > 1:
        if spec.grain != "up" or spec.courses:
            raise SpecError("staves_need_up", ("staves",))
        return {
            w: tuple(Course(f"{w}{i + 1}", low, high, True, True) for i in range(spec.staves)) for w, (low, high) in ends.items()
        }
    if spec.courses is None:
        return {letter: (Course(letter, low, high, True, True),) for letter, (low, high) in ends.items()}
    if spec.grain == "up":
        raise SpecError("staves_with_courses", ("grain",))
    leader = max(walls, key=lambda wall: round(ends[wall.letter][1] - ends[wall.letter][0], 9))
    low = ends[leader.letter][0]
    count, width = counted(spec, spec.courses, walls)
    levels = [(low + i * width) * cos(leader.slope) for i in range(1, count)]
    made = {}
    for wall in walls:
        own_low, own_high = ends[wall.letter]
        places = [own_low, *(z / cos(wall.slope) for z in levels), own_high]
        _check_rips(spec, wall, places[1:-1])
        made[wall.letter] = tuple(
            Course(f"{wall.letter}{i + 1}", a, b, i == 0, i == count - 1) for i, (a, b) in enumerate(pairwise(places))
        )
    return made


def counted(spec: BoxSpec, courses: Courses, walls: tuple[Wall, ...]) -> tuple[int, float]:
    """How many boards the wall takes that needs the most wood upwards, and how wide they are: what is not given follows.

    SpecError `courses_too_few` when the boards do not reach the height, `courses_too_many` when the top one would be left out,
    `courses_too_narrow` when more would be needed than there may be.
    """
    count, width = courses.count, courses.board_width_mm
    wall_mm = max(high - low for low, high in (reach_of(spec, wall) for wall in walls))
    if width is None:
        assert count
        return count, wall_mm / count
    needed = max(1, ceil((wall_mm - NOTHING) / width))
    if needed > MOST_COURSES:
        raise SpecError(
            "courses_too_narrow", ("courses.board_width_mm",), count=needed, mm=width, most=MOST_COURSES, limit_mm=wall_mm
        )
    if count is None or count == needed:
        return needed, width
    if count < needed:
        raise SpecError("courses_too_few", ("courses.count",), count=count, mm=width, reach_mm=count * width, limit_mm=wall_mm)
    raise SpecError("courses_too_many", ("courses.count",), count=count, mm=width, reach_mm=(count - 1) * width, limit_mm=wall_mm)


def _check_rips(spec: BoxSpec, wall: Wall, borders: list[float]) -> None:
    """Boards must meet where their whole thickness is left: SpecError `course_in_rip` where a level edge takes some of it."""
    if not borders:
        return
    low, high = reach_of(spec, wall)
    lost = 0.0 if spec.edges == "square" else abs(wall.drop())
    if borders[0] < low + lost or borders[-1] > high - lost:
        raise SpecError("course_in_rip", ("courses.board_width_mm",), side=wall.letter, mm=lost)


def reach_of(spec: BoxSpec, wall: Wall) -> tuple[float, float]:
    """From the lowest to the highest wood up a wall, y from the outer bottom line."""
    top = spec.rim_of(wall.letter) / cos(wall.slope)
    if spec.edges == "square":
        return 0.0, top
    return min(0.0, -wall.drop()), max(top, top - wall.drop())
