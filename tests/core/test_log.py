"""The log: the story by day, a clock that is forgotten, lessons that come back once, slips, cost."""

import unittest
from datetime import UTC, date, datetime, timedelta, timezone
from random import Random
from typing import Any

from fennup.core.log.clock import hours_by_step, stretches
from fennup.core.log.cost import BoardUsed, Bought, cost_of, used_share
from fennup.core.log.later import coat_again
from fennup.core.log.lessons import is_like, lessons_in, reminders
from fennup.core.log.slips import slips
from fennup.core.log.story import story
from fennup.core.records.entry import BODIES, About, Entry

NOON = datetime(2026, 11, 3, 12, tzinfo=timezone(timedelta(hours=1)))


def entry(id: str, type: str, minutes: float = 0.0, key: str = "log", **body: Any) -> Entry:
    return Entry(id, key, type, NOON + timedelta(minutes=minutes), body=BODIES[type].model_validate(body))


def measured(id: str, minutes: float, key: str, off: float, verdict: str, unit: str = "mm") -> Entry:
    return entry(id, "measured", minutes, key, what="length", planned=400.0, measured=400.0 + off, unit=unit, verdict=verdict)


class Clock(unittest.TestCase):
    def test_hours_are_counted_by_step_and_starting_another_stops_the_first(self) -> None:
        told = [
            entry("a", "clock", 0, do="start", step="cut"),
            entry("b", "clock", 40, do="start", step="glue"),
            entry("c", "clock", 65, do="stop"),
            entry("d", "clock", 70, do="stop"),
        ]
        Random(7).shuffle(told)
        found = stretches(told, NOON + timedelta(hours=9))
        self.assertEqual([(s.step, s.how) for s in found], [("cut", "stopped"), ("glue", "stopped")])
        self.assertEqual({step: round(hours * 60) for step, hours in hours_by_step(found).items()}, {"cut": 40, "glue": 25})

    def test_a_clock_that_ran_for_three_days_counts_nothing_until_it_is_put_right(self) -> None:
        told = [
            entry("a", "clock", 0, do="start", step="cut"),
            entry("n", "note", 95, text="Done for today."),
            entry("b", "clock", 3 * 1440, do="stop"),
        ]
        later = NOON + timedelta(days=4)
        (one,) = stretches(told, later)
        self.assertEqual((one.how, one.hours), ("forgotten", None))
        self.assertAlmostEqual(one.guess_h or 0.0, 95 / 60)  # the note was the last thing that somebody did there
        self.assertEqual(hours_by_step([one]), {})
        (one,) = stretches([*told, entry("h", "hours", 5000, hours=1.5, of="a", step="fit")], later)
        self.assertEqual((one.how, one.hours, one.step), ("corrected", 1.5, "fit"))
        # Taken back, the correction holds no more; and what nobody stopped at all is forgotten too.
        undone = entry("u", "undone", 5001, key="h", takes_back="h")
        self.assertEqual(stretches([*told[:2], entry("h", "hours", 5000, hours=1.5, of="a"), undone], later)[0].how, "forgotten")
        self.assertEqual(stretches(told[:1], NOON + timedelta(hours=9.9))[0].how, "running")
        self.assertEqual(stretches(told[:1], NOON + timedelta(hours=10.1))[0].how, "forgotten")

    def test_what_was_recorded_long_after_is_no_sign_of_when_one_left(self) -> None:
        told = [entry("a", "clock", 0, do="start"), entry("n", "note", 2000, text="Next day.")]
        self.assertIsNone(stretches(told, NOON + timedelta(days=4))[0].guess_h)


class Story(unittest.TestCase):
    def test_the_like_is_told_in_one_and_days_are_those_of_the_one_who_recorded(self) -> None:
        late = datetime(2026, 11, 3, 23, 30, tzinfo=timezone(timedelta(hours=-5)))  # already the 4th in Greenwich
        told = [
            entry("a", "cut", 0, "m1/A left:0"), entry("b", "cut", 2, "m1/B left:0"), entry("c", "note", 3, text="Sharp."), entry("d", "cut", 4, "m1/C left:0"),
            Entry("e", "m1/D left:0", "cut", late, body=BODIES["cut"]()), entry("f", "cut", 5, "m1/E left:0"), entry("u", "undone", 9, key="f", takes_back="f"),
            entry("t", "hours", 1440, hours=2.0, step="glue"),
        ]  # fmt: skip
        found = story(told, stretches(told, NOON), lambda e: "ends" if e.type == "cut" else e.id)
        self.assertEqual([day.date for day in found], [date(2026, 11, 3), date(2026, 11, 4)])
        runs = [(h.type, "".join(e.id for e in h.entries)) for h in found[0].happenings]
        self.assertEqual(runs, [("cut", "ab"), ("note", "c"), ("cut", "de")])
        self.assertEqual((found[1].happenings, found[1].hours), ((), 2.0), "hours alone make a day too")


class Lessons(unittest.TestCase):
    def test_a_lesson_comes_back_once_at_the_like_step_of_another_project(self) -> None:
        about = {"work": "second_end", "tool": "miter_saw"}
        told = [entry("l", "note", text="Hook the tape at the long point.", about=about), entry("n", "note", text="No lesson.")]
        lessons = lessons_in("one", told)
        self.assertEqual([lesson.id for lesson in lessons], ["l"])
        here = [
            ("rip", About(work="rip", tool="table_saw")),
            ("a", About(work="second_end", tool="miter_saw")),
            ("b", About(work="second_end", tool="miter_saw")),
        ]
        self.assertEqual({key: lesson.id for key, lesson in reminders(lessons, "other", [], here).items()}, {"a": "l"})
        self.assertEqual(reminders(lessons, "one", [], here), {}, "not where it was learned")
        read = entry("r", "reminded", lesson="l")
        self.assertEqual(reminders(lessons, "other", [read], here), {}, "not after it was read")
        self.assertEqual(reminders(lessons, "other", [], [("c", About(work="second_end", tool="table_saw"))]), {})

    def test_two_lessons_for_the_like_step_are_told_at_two_of_them(self) -> None:
        told = [entry(id, "note", k, text=id, about={"work": "rip"}) for k, id in enumerate("lm")]
        here = [("a", About(work="rip")), ("b", About(work="rip"))]
        self.assertEqual(
            {key: lesson.id for key, lesson in reminders(lessons_in("one", told), "other", [], here).items()},
            {"a": "l", "b": "m"},
        )

    def test_slopes_are_alike_within_five_degrees(self) -> None:
        said = About(slope_deg=16.0)
        self.assertEqual([is_like(said, About(slope_deg=d)) for d in (10.9, 11.1, 20.9, 21.1)], [False, True, True, False])
        self.assertFalse(is_like(said, About(work="rip")))
        self.assertFalse(is_like(About(), About(work="rip")), "about nothing is like nothing")

    def test_slips_are_counted_once_each(self) -> None:
        told = [
            measured("a", 0, "m1/A left:0", -1.6, "wrong"),
            entry("b", "wrong", 1, "m1/A left:0", way="recut", piece="m1/A"),  # the same slip
            measured("c", 2, "m1/B left:0", 2.0, "wrong"),
            measured("d", 3, "m1/C left:0", -3.0, "wrong"),
            measured("e", 4, "m1/D left:0", 0.1, "right"),
            measured("f", 5, "m1/E left:0", 1.0, "wrong", "deg"),
            entry("g", "wrong", 6, "m1/F left:0", way="recut", piece="m1/F"),
            entry("h", "wrong", 7, "m1/G left:0", way="keep", piece="m1/G"),
        ]
        self.assertEqual(slips(told), [("short", 2), ("angle", 1), ("long", 1), ("spoiled", 1)])
        # A rip is too narrow or too wide, and no matter of length.
        rips = [entry(id, "measured", 8, f"m1/{id} rip", what="width", planned=60.0, measured=60.0 + by, unit="mm", typed="", by="typed", verdict="wrong")
                for id, by in (("n", -2.0), ("w", 2.0))]  # fmt: skip
        self.assertEqual(slips(rips), [("narrow", 1), ("wide", 1)])


class Later(unittest.TestCase):
    def test_it_is_coated_again_so_many_years_after_the_last_coat(self) -> None:
        coat = entry("a", "did", 0, "day coat oil:1")  # NOON is in November 2026
        self.assertEqual(coat_again([coat, entry("g", "did", 90000, "day glue m1")], 5), date(2031, 11, 1))
        self.assertEqual(coat_again([coat], 0.5), date(2027, 5, 1))
        self.assertEqual(coat_again([coat], 1 + 1 / 12), date(2027, 12, 1), "December is still that year")
        again = entry("b", "use", 1440 * 400, what="coated")  # 8 December 2027
        self.assertEqual(coat_again([again, coat], 2), date(2029, 12, 1))
        self.assertEqual(
            coat_again([coat, again, entry("u", "undone", 1440 * 401, key="b", takes_back="b")], 2), date(2028, 11, 1)
        )
        self.assertIsNone(coat_again([entry("w", "use", what="wear")], 2))


class Costs(unittest.TestCase):
    def test_a_board_costs_what_of_it_is_used(self) -> None:
        # 2400 by 100, of which an offcut of 900 by 100 goes back: five eighths are used.
        self.assertAlmostEqual(used_share(2400, 100, [(900, 100)]), 0.625)
        self.assertAlmostEqual(used_share(2400, 100, [(900, 100)], 600, 1500), 0.25)  # two fifths of it are this project's
        boards = [
            BoardUsed("bought", True, 16.0, 0.625, 0.0),
            BoardUsed("rack", False, None, 0.5, 2e7),
            BoardUsed("dear", False, None, 0.0, 1e7),
        ]
        small = [Bought("screws", 20, "each", 0.05), Bought("oil", 0.25, "a litre", None)]
        cost = cost_of(boards, small, 900.0, 4.0, 5.0)
        # 16 x 5/8 = 10; half of 0.02 m3 at 900 = 9; 20 screws 1; 4 besides.
        self.assertAlmostEqual(cost.materials, 10 + 9 + 1 + 4)
        self.assertEqual(cost.unknown, ("oil",))
        self.assertAlmostEqual(cost.per_hour(124.0) or 0.0, 20.0)
        self.assertAlmostEqual(cost.price_for(20.0), 124.0)
        self.assertAlmostEqual(cost.share_of_hours(20.0), 100 / 124)
        self.assertEqual(cost_of(boards, [], None, 0.0, 0.0).unknown, ("rack", "dear"))
        self.assertIsNone(cost_of([], [], None, 0.0, 0.0).per_hour(50.0))


class Bodies(unittest.TestCase):
    def test_what_is_no_record_is_refused(self) -> None:
        for type, body in (("note", {"text": ""}), ("clock", {"do": "pause"}), ("hours", {"hours": -1}), ("batch", {"what": "wood", "name": ""}),
                           ("use", {"what": "x"}), ("note", {"text": "a", "about": {"slope_deg": 91}})):  # fmt: skip
            with self.subTest(type=type, body=body), self.assertRaises(ValueError):
                BODIES[type].model_validate(body)
        self.assertEqual(entry("z", "note", text="ok").at.astimezone(UTC).hour, 11)
