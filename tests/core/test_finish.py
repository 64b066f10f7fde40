"""Plans by the day, each worked out by hand beside it; what a thing holds, by the prismatoid's formula."""

import unittest
from datetime import date, datetime
from itertools import pairwise
from math import cos, hypot, radians, sin, sqrt, tan

from fennup.core.errors import SpecError
from fennup.core.finish.hours import FreeHours
from fennup.core.finish.plan import Placed, Task, earliest_plan, latest_plan, ready_at
from fennup.core.site.fill import filled
from fennup.core.site.setout import distances, moves, out_of_square_deg, three_lengths
from tests.core.frames import box, level, of_sides, solved

EVENINGS = FreeHours((((19.0, 21.0),),) * 5 + ((), ()))
SATURDAY = datetime(2026, 11, 28, 10)
COATS = [
    Task("glue", 1.0, 12.0, (), whole=True),
    Task("coat 1", 1.0, 16.0, ("glue",), whole=True),
    Task("coat 2", 1.0, 16.0, ("coat 1",), whole=True),
    Task("coat 3", 1.0, 24.0, ("coat 2",), whole=True),
]


def hours(plan: list[Placed], *ids: str) -> list[tuple[int, int]]:
    """Day of the month and hour at which some tasks begin."""
    by_id = {p.task.id: p for p in plan}
    return [(by_id[id].start.day, by_id[id].start.hour) for id in ids]


class Backwards(unittest.TestCase):
    def test_three_coats_and_glue_before_a_saturday(self) -> None:
        plan = latest_plan(COATS, SATURDAY, EVENINGS)
        # Ready on Saturday at 10, the third coat is done by Friday at 10: on Thursday at 21. Sixteen hours before that the second must be done: on
        # Wednesday, so the first on Tuesday; twelve hours before it the glue: on Monday evening.
        self.assertEqual(hours(plan, "coat 3", "coat 2", "coat 1", "glue"), [(26, 20), (25, 20), (24, 20), (23, 20)])
        self.assertLessEqual(ready_at(plan), SATURDAY)

    def test_a_day_that_is_crossed_out_moves_what_comes_before(self) -> None:
        plan = latest_plan(COATS, SATURDAY, FreeHours(EVENINGS.week, frozenset({date(2026, 11, 25)})))
        # Wednesday is lost: every step before the third coat goes back by one evening, the glue over the weekend to Friday.
        self.assertEqual(hours(plan, "coat 3", "coat 2", "coat 1", "glue"), [(26, 20), (24, 20), (23, 20), (20, 20)])

    def test_one_pair_of_hands_does_one_thing_at_a_time(self) -> None:
        tasks = [Task("lid", 2.0), Task("box", 3.0), Task("hinges", 1.0, 0.0, ("lid", "box"))]
        plan = latest_plan(tasks, SATURDAY, EVENINGS)
        spans = sorted(span for placed in plan for span in placed.spans)
        self.assertTrue(all(a[1] <= b[0] for a, b in pairwise(spans)))
        self.assertEqual(sum((end - start).total_seconds() for start, end in spans), 6 * 3600)
        # Six hours are three evenings: Wednesday, Thursday, Friday.
        self.assertEqual((spans[0][0].day, spans[0][0].hour, spans[-1][1].day, spans[-1][1].hour), (25, 19, 27, 21))

    def test_what_is_done_in_one_go_waits_for_an_evening_that_is_long_enough(self) -> None:
        tasks = [Task("sand", 0.5, 0.0, ("coat",)), Task("coat", 2.0, 0.0, (), whole=True)]
        # Half an hour of the last evening is sanding; two hours do not fit before it: the evening before.
        self.assertEqual(hours(latest_plan(tasks, SATURDAY, EVENINGS), "coat", "sand"), [(26, 19), (27, 20)])
        with self.assertRaises(SpecError) as caught:
            latest_plan([Task("coat", 2.5, whole=True)], SATURDAY, EVENINGS)
        self.assertEqual((caught.exception.code, caught.exception.fields), ("task_too_long", ("tasks.coat.work_h",)))

    def test_it_waits_until_the_next_one_begins_and_takes_the_latest_hour_that_is_left(self) -> None:
        # A whole day between the end of the first coat and the beginning of the second, which is on Friday at 20.
        day_apart = [Task("a", 1.0, 24.0, whole=True), Task("b", 1.0, 0.0, ("a",), whole=True)]
        self.assertEqual(hours(latest_plan(day_apart, SATURDAY, EVENINGS), "a", "b"), [(26, 19), (27, 20)])
        # Ready 14 hours before Saturday at 10, one is done by Friday at 20; the other takes what is left of that evening after it.
        long = FreeHours((((18.0, 21.0),),) * 5 + ((), ()))
        self.assertEqual(
            hours(latest_plan([Task("y", 1.0), Task("x", 1.0, 14.0)], SATURDAY, long), "x", "y"), [(27, 19), (27, 20)]
        )
        self.assertEqual(hours(latest_plan([Task("a", 1.0)], datetime(2026, 11, 27, 20), EVENINGS), "a"), [(27, 19)])


class Forwards(unittest.TestCase):
    def test_from_today_and_what_slips_if_today_is_lost(self) -> None:
        today, tomorrow = datetime(2026, 11, 23, 18), datetime(2026, 11, 24, 0)
        plan = earliest_plan(COATS, today, EVENINGS)
        # Glue on Monday at 19, dry at 8 on Tuesday; coats on Tuesday, Wednesday, Thursday at 19; ready on Friday at 20.
        self.assertEqual(hours(plan, "glue", "coat 1", "coat 2", "coat 3"), [(23, 19), (24, 19), (25, 19), (26, 19)])
        self.assertEqual(ready_at(plan), datetime(2026, 11, 27, 20))
        self.assertEqual(ready_at(earliest_plan(COATS, tomorrow, EVENINGS)), datetime(2026, 11, 28, 20))

    def test_what_is_done_is_not_planned_again(self) -> None:
        dry = datetime(2026, 11, 24, 22)
        plan = earliest_plan(COATS, datetime(2026, 11, 24, 12), EVENINGS, {"glue": dry})
        # Dry on Tuesday at 22: the first coat on Wednesday.
        self.assertEqual([p.task.id for p in plan], ["coat 1", "coat 2", "coat 3"])
        self.assertEqual(hours(plan, "coat 1", "coat 2", "coat 3"), [(25, 19), (26, 19), (27, 19)])

    def test_half_an_evening_is_begun_when_one_is_there(self) -> None:
        self.assertEqual(hours(earliest_plan([Task("a", 1.0)], datetime(2026, 11, 23, 20), EVENINGS), "a"), [(23, 20)])

    def test_something_else_is_done_while_one_dries(self) -> None:
        tasks = [Task("glue", 1.0, 20.0, whole=True), Task("lid", 1.0), Task("sand", 1.0, 0.0, ("glue",))]
        plan = earliest_plan(tasks, datetime(2026, 11, 23, 18), EVENINGS)
        self.assertEqual(hours(plan, "glue", "lid", "sand"), [(23, 19), (23, 20), (24, 19)])


class Refused(unittest.TestCase):
    def test_what_cannot_be_planned_is_refused_at_its_field(self) -> None:
        for tasks, free, code, field in (
            ([Task("a", -1.0)], EVENINGS, "hours_negative", "tasks.a"),
            ([Task("a", 1.0, -2.0)], EVENINGS, "hours_negative", "tasks.a"),
            ([Task("a", 1.0, 0.0, ("b",)), Task("b", 1.0, 0.0, ("a",))], EVENINGS, "tasks_circle", "tasks.a.after"),
            ([Task("a", 1.0, 0.0, ("c",))], EVENINGS, "no_such_task", "tasks.a.after"),
            ([Task("a", 1.0)], FreeHours(((),) * 7), "no_free_hours", "hours"),
            ([Task("a", 1.0)], FreeHours((((21.0, 19.0),),) + ((),) * 6), "free_hours_wrong", "hours.0"),
            ([Task("a", 1.0)], FreeHours((((9.0, 12.0), (11.0, 13.0)),) + ((),) * 6), "free_hours_wrong", "hours.0"),
        ):
            for plan in (latest_plan, earliest_plan):
                with self.subTest(code=code), self.assertRaises(SpecError) as caught:
                    plan(tasks, SATURDAY, free)
                self.assertEqual((caught.exception.code, caught.exception.fields), (code, (field,)))


class Holding(unittest.TestCase):
    BOX = box(level(300.0, 300.0), 200.0, thickness_mm=18.0, slope_deg=15.0, floor={"height_mm": 10.0, "thickness_mm": 12.0})

    def test_what_a_leaning_box_holds_is_a_prismatoid(self) -> None:
        made = solved(self.BOX)
        (ring,) = made.assembly.rings
        found = filled(made.design, ring, 150.0)

        def side(z: float) -> float:
            return 300.0 + 2 * (z * tan(radians(15.0)) - 18.0 / cos(radians(15.0)))

        low, high = 22.0, 150.0
        areas = [side(z) ** 2 for z in (low, (low + high) / 2, high)]
        self.assertAlmostEqual(found.litres * 1e6, (high - low) / 6 * (areas[0] + 4 * areas[1] + areas[2]), places=3)
        self.assertEqual(found.from_mm, low)
        x, y, z = found.middle
        self.assertAlmostEqual(x, 0.0, places=6)
        self.assertAlmostEqual(y, 0.0, places=6)
        self.assertGreater(z, (low + high) / 2)  # it is wider at the top

    def test_a_case_of_six_and_what_holds_nothing(self) -> None:
        six = box(of_sides(6, 400.0), 120.0, thickness_mm=15.0, floor={"height_mm": 0.0, "thickness_mm": 12.0})
        made = solved(six)
        self.assertAlmostEqual(
            filled(made.design, made.assembly.rings[0], 112.0).litres * 1e6, 370.0**2 * sqrt(3) / 2 * 100.0, places=3
        )
        # Feet under it, blocks in its corners and a lid over it change nothing.
        feet = {"thickness_mm": 20.0, "bars": {"count": 2, "width_mm": 40.0, "way_deg": 90.0}}
        more = {
            "blocks": {"along_mm": 40.0, "thickness_mm": 15.0, "below_mm": 40.0},
            "cover": {"thickness_mm": 12.0},
            "feet": feet,
        }
        full = solved(six | more)
        self.assertAlmostEqual(
            filled(full.design, full.assembly.rings[0], 112.0).litres * 1e6, 370.0**2 * sqrt(3) / 2 * 100.0, places=3
        )
        bare = solved({name: value for name, value in six.items() if name != "floor"})
        for design, ring, to in ((bare.design, bare.assembly.rings[0], 100.0), (made.design, made.assembly.rings[0], 10.0)):
            with self.assertRaises(SpecError) as caught:
                filled(design, ring, to)
            self.assertEqual((caught.exception.code, caught.exception.fields), ("holds_nothing", ("fill.level_mm",)))


class SettingOut(unittest.TestCase):
    FEET = {"A": (0.0, 0.0), "B": (1250.0, 0.0), "C": (1250.0, 940.0), "D": (0.0, 940.0)}

    def test_feet_of_a_rectangle_by_sides_and_diagonals(self) -> None:
        found = distances(self.FEET)
        self.assertEqual((found["A", "B"], found["B", "C"]), (1250.0, 940.0))
        self.assertAlmostEqual(found["A", "C"], 1564.0013, places=4)
        self.assertEqual(found["A", "C"], found["B", "D"])

    def test_unequal_diagonals_say_how_far_and_which_way(self) -> None:
        self.assertAlmostEqual(out_of_square_deg(1250.0, 940.0, 1566.0, 1562.0), 0.1525, places=4)
        sides = {("A", "B"): 1250.0, ("C", "D"): 1250.0, ("B", "C"): 940.0, ("A", "D"): 940.0}
        told = moves(self.FEET, sides | {("A", "C"): 1562.0, ("B", "D"): 1566.0})
        # B to D is the longer one: D lies too far to the left, and C with it, by 940 times the sine.
        for name, right in (("A", 0.0), ("B", 0.0), ("C", 940 * sin(radians(0.15253))), ("D", 940 * sin(radians(0.15253)))):
            self.assertAlmostEqual(told[name].right_mm, right, places=2, msg=name)
            self.assertAlmostEqual(told[name].back_mm, 0.0, delta=0.01, msg=name)

    def test_one_side_read_too_long_moves_the_places_at_its_end(self) -> None:
        true = distances(self.FEET)
        told = moves(self.FEET, true | {("A", "B"): 1256.0, ("B", "D"): hypot(1256.0, 940.0), ("B", "C"): hypot(6.0, 940.0)})
        self.assertAlmostEqual(told["B"].right_mm, -6.0, places=3)
        for name in "ACD":
            self.assertAlmostEqual(hypot(told[name].right_mm, told[name].back_mm), 0.0, places=3)

    def test_a_right_angle_by_three_lengths(self) -> None:
        # A quarter of 1250 is less than a third of 940: parts of 310.
        self.assertEqual(three_lengths(1250.0, 940.0, 10.0), (1240.0, 930.0, 1550.0))
        self.assertEqual(three_lengths(940.0, 1250.0, 10.0), (930.0, 1240.0, 1550.0))

    def test_bad_readings_are_refused(self) -> None:
        for call, code in (
            (lambda: moves(self.FEET, {("A", "E"): 5.0}), "reading_of_none"),
            (lambda: moves(self.FEET, {("A", "A"): 5.0}), "reading_of_none"),
            (lambda: moves(self.FEET, {}), "too_few_readings"),
            (lambda: out_of_square_deg(100.0, 100.0, 400.0, 100.0), "diagonals_impossible"),
            (lambda: three_lengths(20.0, 20.0, 10.0), "no_room_for_legs"),
        ):
            with self.assertRaises(SpecError) as caught:
                call()
            self.assertEqual(caught.exception.code, code)
