"""Sides and coats against areas from the sizes given; the plan by the day as it follows from them, from hours by hand."""

import unittest
from datetime import UTC, date, datetime, timedelta
from typing import Any

from fennup.core.drawing.edit import Choose, TypeIn
from fennup.core.errors import SpecError, UnitError
from fennup.core.fasten.choice import Fastening
from fennup.core.finish.planned import Finish, check_weather, check_wishes, days_of, meanwhile, unfit_days
from fennup.core.finish.tables import USUAL_TABLES, Limits, Tables, edit_tables
from fennup.core.finish.wishes import FinishWishes, Weather, WeatherDay, edit_finish_wishes
from fennup.core.records.entry import DidBody, Entry, UndoneBody
from fennup.core.units.lengths import tape
from tests.core.frames import box, level, rectangle, solved

MM = tape("mm", "1")
EVENINGS = USUAL_TABLES.model_copy(update={"hours": (((19.0, 21.0),),) * 5 + ((), ())})
SATURDAY = date(2026, 11, 28)
# As the figure has it: three coats 16 h apart, 24 h until it is used; glue 12 h before the first; an hour of work each.
HOURS = {"site": 0.0, "cut": 0.0, "fit": 0.0, "smooth": 0.0, "fasten": 0.0, "setup": 0.0, "glue": 1.0} | {
    f"coat {k}": 1.0 for k in (1, 2, 3)
}
THREE: dict[str, Any] = {"recipe": "outdoor paint", "glue": "white glue", "hours": HOURS, "needed": SATURDAY, "needed_h": 10.0}


def finish(
    spec: dict[str, Any] | None = None, tables: Tables = EVENINGS, entries: tuple[Entry, ...] = (), **wishes: Any
) -> Finish:
    spec = spec or rectangle("outside", 600.0, 400.0, 60.0)
    return Finish(solved(spec).design, tables, FinishWishes(**wishes), entries)


def did(task: str, at: datetime, number: int = 1) -> Entry:
    return Entry(f"{number}", f"day {task}", "did", at, body=DidBody())


class Sides(unittest.TestCase):
    def test_what_is_coated_is_what_is_not_glued(self) -> None:
        made = finish()
        # A frame 600 by 400 of rails 60 by 20: both faces of the ring, its outer and its inner edges.
        ring = 600.0 * 400.0 - 480.0 * 280.0
        edges = 20.0 * 2 * (600.0 + 400.0 + 480.0 + 280.0)
        self.assertAlmostEqual(made.coated_m2 * 1e6, 2 * ring + edges, places=4)
        # Four miters 60 times the root of two by 20.
        self.assertAlmostEqual(made.glued_m2 * 1e6, 4 * 60.0 * 2**0.5 * 20.0, places=4)
        self.assertAlmostEqual(made.litres, made.coated_m2 * 2 / 10.0, places=9)
        self.assertAlmostEqual(made.glue_g, made.glued_m2 * 180.0, places=9)

    def test_a_side_that_is_painted_bare_is_not_coated_and_a_glued_one_never(self) -> None:
        whole = finish()
        bare = finish(faces={"A face": "bare", "A left:0": "coated"})
        # Rail A's face is a trapezoid, 600 outside and 480 inside, 60 wide.
        self.assertAlmostEqual((whole.coated_m2 - bare.coated_m2) * 1e6, (600.0 + 480.0) / 2 * 60.0, places=4)
        (end,) = (face for face in bare.faces if face.key == "A left:0")
        self.assertTrue(end.covered)
        self.assertEqual(end.coated_mm2, 0.0)

    def test_a_side_on_which_several_lie_meets_them_all(self) -> None:
        made = finish(box(level(500.0, 300.0), 120.0, thickness_mm=25.0, cover={"thickness_mm": 18.0}))
        (under,) = (face for face in made.faces if face.board == "cover" and face.meets_mm2)
        self.assertAlmostEqual(under.meets_mm2, 500.0 * 300.0 - 450.0 * 250.0, places=4)

    def test_a_hidden_side_gets_one_coat(self) -> None:
        made = finish(faces={"A back": "hidden"})
        self.assertAlmostEqual(made.hidden_m2 * 1e6, (600.0 + 480.0) / 2 * 60.0, places=4)
        self.assertAlmostEqual(made.litres, (made.coated_m2 * 2 + made.hidden_m2) / 10.0, places=9)

    def test_without_glue_nothing_is_glued(self) -> None:
        dry = finish(joints={"AB": Fastening(how="bracket")})
        self.assertEqual((dry.glued, dry.glue_g, dry.litres > 0), ([], 0.0, True))
        self.assertEqual({face.glued_mm2 for face in dry.faces}, {0.0})
        self.assertEqual((finish(recipe="none").litres, finish(recipe="none").coats), (0.0, 0))

    def test_what_cannot_be_smoothed_later(self) -> None:
        made = finish(box(level(200.0, 900.0), 150.0, thickness_mm=20.0))
        near = {face.key: face.close_mm for face in made.smooth_before}
        # 160 apart inside, the long walls look at each other; the short ones have 860 before them.
        self.assertEqual({key: round(mm or 0.0, 2) for key, mm in near.items()}, {"B back": 160.0, "D back": 160.0})

    def test_it_goes_by_where_it_stands(self) -> None:
        inside, out = finish(), finish(exposure="outdoors")
        self.assertEqual((inside.recipe and inside.recipe.outdoors, inside.glue.outdoors), (False, False))
        self.assertEqual((out.recipe and out.recipe.outdoors, out.glue.outdoors), (True, True))
        self.assertTrue(finish(exposures={"A": "soil"}).outdoors)


class ByTheDay(unittest.TestCase):
    def test_three_coats_and_glue_before_a_saturday(self) -> None:
        made = finish(**THREE)
        begins = {p.task.id: (p.start.day, p.start.hour) for p in made.plan}
        # By hand: tests/core/test_finish.py, the same hours.
        self.assertEqual([begins[id] for id in ("coat 3", "coat 2", "coat 1", "glue")], [(26, 20), (25, 20), (24, 20), (23, 20)])
        self.assertEqual(days_of(made.plan)[0], date(2026, 11, 23))

    def test_masked_it_is_coated_first_and_painted_all_over_it_cannot_be_glued(self) -> None:
        masked = [task.id for task in finish(**THREE | {"coat_when": "masked"}).tasks]
        self.assertLess(masked.index("coat 3"), masked.index("glue"))
        self.assertIn("mask", masked)
        with self.assertRaises(SpecError) as caught:
            _ = finish(**THREE | {"coat_when": "before"}).tasks
        self.assertEqual((caught.exception.code, caught.exception.fields), ("paint_before_glue", ("coat_when",)))
        screwed = finish(**THREE | {"coat_when": "before", "joints": {"AB": Fastening(how="bracket")}})
        self.assertEqual([t.id for t in screwed.tasks][-2:], ["site", "setup"])

    def test_usual_hours_come_from_the_work_itself(self) -> None:
        made = finish(recipe="none")
        work = {task.id: task.work_h for task in made.tasks}
        # Eight cuts of 5 minutes, four joints of 6 to fit and to glue, four biscuits of 2 minutes: up to the next five minutes.
        self.assertAlmostEqual(work["cut"], 40 / 60, places=9)
        self.assertAlmostEqual(work["fit"], 25 / 60, places=9)
        self.assertAlmostEqual(work["fasten"], 10 / 60, places=9)

    def test_time_that_passes_moves_nothing_and_what_is_late_is_told(self) -> None:
        made = finish(**THREE)
        monday = datetime(2026, 11, 23, 18)
        self.assertEqual(made.late(monday), [])
        tuesday = datetime(2026, 11, 24, 12)
        self.assertEqual([p.task.id for p in made.late(tuesday) if p.task.work_h], ["glue"])
        # Glue on Tuesday at 19, coats on Wednesday, Thursday, Friday at 19; ready on Saturday at 20.
        self.assertEqual(made.ready_from(tuesday), datetime(2026, 11, 28, 20))
        done = finish(entries=(did("glue", tuesday.astimezone(UTC)),), **THREE)
        self.assertEqual([p.task.id for p in done.late(tuesday) if p.task.work_h], [])
        self.assertEqual([p.start for p in made.plan], [p.start for p in finish(**THREE).plan])

    def test_what_is_done_is_waited_for_from_when_it_was_done(self) -> None:
        at = datetime(2026, 11, 23, 20, 0).astimezone(UTC)
        early = tuple(did(id, at, k) for k, id in enumerate(("cut", "fit", "smooth", "fasten", "glue")))
        made = finish(entries=early, **THREE)
        # Glued by 20 on Monday, dry at 8 on Tuesday: coats on Tuesday, Wednesday and Thursday at 19.
        self.assertEqual(made.ready_from(datetime(2026, 11, 24, 8)), datetime(2026, 11, 27, 20))
        # Glued on Tuesday at 10 it is dry at 22, when that evening is over.
        late = did("glue", datetime(2026, 11, 24, 10).astimezone(UTC), 9)
        self.assertEqual(
            finish(entries=(*early[:4], late), **THREE).ready_from(datetime(2026, 11, 24, 11)), datetime(2026, 11, 28, 20)
        )
        back = (*early, Entry("9", "", "undone", at + timedelta(hours=1), body=UndoneBody(takes_back="4")))
        self.assertNotIn("glue", finish(entries=back, **THREE).did)
        everything = tuple(did(task.id, at, k) for k, task in enumerate(made.tasks))
        self.assertIsNone(finish(entries=everything, **THREE).ready_from(datetime(2026, 11, 24, 8)))

    def test_what_would_help_is_tried(self) -> None:
        made = finish(**THREE)
        wednesday = datetime(2026, 11, 25, 18)
        # Glue on Wednesday; coats on Thursday, Friday and, after a weekend without free hours, Monday.
        self.assertEqual(made.ready_from(wednesday), datetime(2026, 12, 1, 20))
        ways = {(way.code, way.name): way for way in made.ways_out(wednesday)}
        less = ways["coat_less", "outdoor paint"]
        # Glue on Wednesday, coats on Thursday and Friday, 24 hours: Saturday at 20. It lasts two thirds of six years.
        self.assertEqual((less.ready, less.cost), (datetime(2026, 11, 28, 20), 4.0))
        # Stain takes two coats too, 12 hours apart and another 24 until it is used.
        self.assertEqual(ways["recipe", "outdoor stain"].ready, datetime(2026, 11, 28, 20))
        # Quicker, but not for outdoors.
        self.assertNotIn(("recipe", "indoor paint"), ways)
        self.assertEqual(made.ways_out(datetime(2026, 11, 23, 18)), [])

    def test_what_is_done_while_something_waits(self) -> None:
        made = finish(**THREE | {"hours": HOURS | {"site": 1.0}})
        # The place is prepared on the last evening that is left: Friday, while the third coat dries.
        self.assertEqual({p.task.id: p.start.day for p in made.plan}["site"], 27)
        self.assertEqual(meanwhile(made.plan), [("coat 3", "site")])

    def test_days_crossed_out_for_it(self) -> None:
        made = finish(**THREE | {"away": (date(2026, 11, 25),)})
        begins = {p.task.id: p.start.day for p in made.plan}
        self.assertEqual((begins["coat 3"], begins["coat 2"]), (26, 24))


class Outdoors(unittest.TestCase):
    def day(self, number: int, low: float = 10.0, rain: float = 0.0, humid: float = 60.0) -> WeatherDay:
        return WeatherDay(day=date(2026, 11, number), low_c=low, high_c=low + 6, rain_mm=rain, humid_percent=humid)

    def weather(self, *days: WeatherDay) -> Weather:
        return Weather(place="landing stage", as_of="2026-11-22", days=days)

    def test_cold_wet_and_damp_days_and_those_before_rain(self) -> None:
        recipe = EVENINGS.recipes["outdoor paint"]
        days = (self.day(23), self.day(24, low=7.9), self.day(25), self.day(26, rain=3.0), self.day(27, humid=90.0))
        self.assertEqual({d.day for d in unfit_days(self.weather(*days), recipe)}, {24, 25, 26, 27})
        quick = recipe.model_copy(update={"between_h": 4.0})
        self.assertEqual({d.day for d in unfit_days(self.weather(*days), quick)}, {24, 26, 27})

    def test_coats_outdoors_keep_off_them(self) -> None:
        weather = self.weather(*(self.day(k, rain=5.0 if k == 26 else 0.0) for k in range(20, 29)))
        out = finish(**THREE | {"weather": weather, "coat_where": "outdoors"})
        begins = {p.task.id: p.start.day for p in out.plan if p.task.id.startswith("coat")}
        # Thursday it rains, so neither on Thursday nor on Wednesday: Tuesday, Monday, and the Friday before.
        self.assertEqual(begins, {"coat 3": 24, "coat 2": 23, "coat 1": 20})
        inside = finish(**THREE | {"weather": weather})
        self.assertEqual({p.task.id: p.start.day for p in inside.plan}["coat 3"], 26)

    def test_an_answer_from_the_past(self) -> None:
        with self.assertRaises(SpecError) as caught:
            check_weather(self.weather(self.day(20), self.day(21)), date(2026, 11, 22))
        self.assertEqual(caught.exception.code, "weather_past")
        check_weather(self.weather(self.day(20), self.day(22)), date(2026, 11, 22))


class Refused(unittest.TestCase):
    def typed(self, path: str, text: str, tables: Tables = USUAL_TABLES) -> Tables:
        return Tables.model_validate(edit_tables(tables, TypeIn(op="type", path=path, text=text), MM))

    def chosen(self, path: str, value: object) -> Tables:
        return Tables.model_validate(edit_tables(USUAL_TABLES, Choose(op="choose", path=path, value=value), MM))

    def test_tables_are_changed_figure_by_figure_and_are_ones_own_then(self) -> None:
        made = self.typed("recipes/clear varnish/between_h", "8,5")
        self.assertEqual((made.recipes["clear varnish"].between_h, made.recipes["clear varnish"].source), (8.5, "own figure"))
        self.assertEqual(made.recipes["boat varnish"].source, "usual, editable")
        self.assertEqual(self.typed("fasteners/screws/3.5/pilot_soft_mm", "1.9").fasteners.screws["3.5"].pilot_soft_mm, 1.9)
        self.assertEqual(self.typed("fasteners/screws/4/lengths_mm", "20, 55").fasteners.screws["4"].lengths_mm, (20.0, 55.0))
        self.assertEqual(self.typed("hours/6", "9-12, 14-17:30").hours[6], ((9.0, 12.0), (14.0, 17.5)))
        mine = self.chosen("recipes/add", {"like": "linseed oil", "name": "tung oil"})
        self.assertEqual((mine.recipes["tung oil"].coats, mine.recipes["tung oil"].source), (2, "own figure"))
        self.assertNotIn("epoxy", self.chosen("glues/epoxy", None).glues)
        thick = self.chosen("fasteners/screws/add", {"like": "4", "name": "4.5"})
        self.assertEqual((thick.fasteners.screws["4.5"].shank_mm, thick.fasteners.screws["4.5"].source), (4.0, "own figure"))
        self.assertEqual(self.typed("fasteners/screws/4.5/shank_mm", "4.2", thick).fasteners.screws["4.5"].shank_mm, 4.2)
        self.assertNotIn(
            "4.5",
            Tables.model_validate(
                edit_tables(thick, Choose(op="choose", path="fasteners/screws/4.5", value=None), MM)
            ).fasteners.screws,
        )

    def test_what_cannot_be_is_refused_at_its_field(self) -> None:
        for path, text, code in (
            ("hours/0", "evening", "no_hours"), ("hours/0", "21-19", "free_hours_wrong"), ("recipes/boat varnish/between_h", "long", "no_number"),
            ("limits/finger_to_mm", "30", "limits_crossed"), ("fasteners/screws/4/pilot_hard_mm", "4.1", "pilot_wide"), ("nothing/at/all", "1", "no_such_field"),
            ("recipes/boat varnish/coats", "two", "no_count"),
        ):  # fmt: skip
            with self.subTest(path), self.assertRaises((SpecError, UnitError)) as caught:
                self.typed(path, text)
            self.assertEqual(caught.exception.code, code)
        for value, code in (
            ({"like": "epoxy", "name": "epoxy"}, "row_twice"),
            ({"like": "epoxy", "name": "a/b"}, "row_name"),
            ({"like": "tar", "name": "x"}, "no_such_field"),
        ):
            with self.subTest(code), self.assertRaises(SpecError) as caught:
                self.chosen("glues/add", value)
            self.assertEqual(caught.exception.code, code)

    def test_a_week_without_free_hours(self) -> None:
        tables = USUAL_TABLES
        with self.assertRaises(SpecError) as caught:
            for day in range(7):
                tables = self.typed(f"hours/{day}", "", tables)
        # The last one that is left is not taken.
        self.assertEqual((caught.exception.code, tables.hours), ("no_free_hours", ((),) * 5 + (((9.0, 13.0),), ())))

    def test_limits_in_their_order(self) -> None:
        self.assertEqual(Limits(head_to_mm=90.0).head_to_mm, 90.0)
        with self.assertRaises(SpecError) as caught:
            Limits(head_to_mm=80.0)
        self.assertEqual(caught.exception.fields, ("limits.head_to_mm",))

    def test_wishes_that_cannot_be(self) -> None:
        now, today = FinishWishes(), date(2026, 11, 27)
        for wishes, code, field in (
            (FinishWishes(needed=date(2026, 11, 26)), "needed_past", "needed"),
            (FinishWishes(recipe="tar"), "no_such_row", "recipe"),
            (FinishWishes(wood="ebony"), "no_such_row", "wood"),
            (FinishWishes(joints={"AB": Fastening(how="screw", size="9")}), "no_such_size", "joints/AB/size"),
        ):
            with self.subTest(field), self.assertRaises(SpecError) as caught:
                check_wishes(wishes, USUAL_TABLES, now, today)
            self.assertEqual((caught.exception.code, caught.exception.fields), (code, (field,)))
        # What was in good time once stays as it is when time has passed.
        past = FinishWishes(needed=date(2026, 11, 20))
        check_wishes(past.model_copy(update={"coats": 2}), USUAL_TABLES, past, today)

    def test_keys_with_points_and_slashes_are_kept_whole(self) -> None:
        now = FinishWishes()
        for act in (
            TypeIn(op="type", path="joints/m1/rail 1 left/sunk_mm", text="3"), Choose(op="choose", path="faces/p1.2 face", value="soil"),
            TypeIn(op="type", path="site/readings/m1/AB|m1/CD", text="62 cm"), TypeIn(op="type", path="hours/coat 1", text="1.5"),
        ):  # fmt: skip
            now = FinishWishes.model_validate(edit_finish_wishes(now, act, MM))
        self.assertEqual(
            (now.joints["m1/rail 1 left"].sunk_mm, now.faces, now.site.readings, now.hours),
            (3.0, {"p1.2 face": "soil"}, {"m1/AB|m1/CD": 620.0}, {"coat 1": 1.5}),
        )
        with self.assertRaises(UnitError) as caught:
            edit_finish_wishes(now, TypeIn(op="type", path="hours/coat 1", text="-"), MM)
        self.assertEqual((caught.exception.code, caught.exception.fields), ("no_number", ("hours/coat 1",)))
