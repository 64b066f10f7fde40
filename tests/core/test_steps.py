"""Tools, ways, steps: what the simulated saw makes of them, and against closed forms."""

import unittest
from copy import deepcopy
from dataclasses import replace
from datetime import date
from itertools import combinations, pairwise
from math import asin, atan, atan2, cos, degrees, radians, sin, tan
from random import Random

from fennup.app.services.demo import PROJECTS
from fennup.app.services.projects import valid_spec
from fennup.core.assembly.board import ENDS
from fennup.core.design import Design
from fennup.core.errors import SpecError
from fennup.core.exchange.cuts_document import cuts_document
from fennup.core.parts.solid import arris_line
from fennup.core.plan import Plan, plan_with
from fennup.core.saw.marking import crossing
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.saw.pose import ALONG, Pose, blade_angles
from fennup.core.saw.settings import fewest, settings_for
from fennup.core.saw.testing import error_found, made_angle, square_error_deg, tests_that_tell, with_error
from fennup.core.saw.tool import Lying
from fennup.core.saw.tools import PROFILES, HandSaw, MiterBox, Slot, TableSaw
from fennup.core.saw.ways import each_cut, ways_for
from fennup.core.saw.wishes import SawWishes
from fennup.core.solve import Solution, designed
from fennup.core.steps.marks import along_slope, halved, offsets_of
from fennup.core.steps.order import check_order, dragged
from fennup.core.steps.planned import steps_for
from fennup.core.verify.sawn import farthest_mm
from fennup.core.workshop import Workshop
from tests.core.frames import box, level, rectangle, regular

RIGHT_MM = 1e-6
ALL = Workshop(tools={f"t{k}": tool for k, tool in enumerate(PROFILES.values(), 1)})
LEANING = box(level(400.0, 300.0), 150.0, slope_deg=12.0, thickness_mm=21.0)


def planned(document: dict, workshop: Workshop = ALL) -> Solution:
    spec, design = designed(valid_spec(document))
    return Solution(spec, design, plan_with(design, workshop))


class Kept:
    """The ways of the last design that was asked for."""

    key: tuple = ()
    ways: dict

    def of(self, design: Design, tools: dict) -> dict:
        if self.key != (id(design), tuple(tools.values())):
            self.key = (id(design), tuple(tools.values()))
            cuts = each_cut(design.parts, design.boards)
            long = {facts.key: facts.extent[0] for facts in design.facts}
            self.ways = {key: ways_for(board, cut, long[board.id], tools) for key, board, cut in cuts}
        return self.ways


WAYS = Kept()


def with_ways(design: Design, plan: Plan, ways: dict[str, str]) -> Plan:
    """The plan with those ways, without reckoning anew how it closes."""
    workshop = plan.workshop.model_copy(update={"wishes": SawWishes(ways=ways)})
    return replace(
        plan, workshop=workshop, settings=settings_for(design.parts, WAYS.of(design, workshop.tools), workshop.tools, ways)
    )


class Simulated(unittest.TestCase):
    def test_every_cut_of_every_demo_project_in_every_pose_on_every_tool_makes_the_part(self) -> None:
        tried = set()
        for entry in PROJECTS:
            made = planned(entry["spec"])
            steps = steps_for(made.design, made.plan).steps
            # One cut of each sort: those that hang on another cut's place go with it.
            ways = {step.key: [way.id for way in step.ways] for step in steps if step.ways and step.work != "test"}
            ways |= {
                step.key: [f"t{k}:{down}:{step.rip.fence}" for k in (4, 9) for down in ("face", "back")]
                for step in steps
                if step.rip and step.part
            }
            for turn in range(max((len(found) for found in ways.values()), default=0)):
                chosen = {key: found[turn % len(found)] for key, found in ways.items()}
                document = cuts_document(replace(made, plan=with_ways(made.design, made.plan, chosen)))
                off = {key: mm for key, mm in document.off_mm.items() if mm is None or mm > RIGHT_MM}
                self.assertEqual(off, {}, (entry["name"], turn))
                there = {step.key: step for step in document.steps}
                for key, way in chosen.items():
                    self.assertEqual(there[key].way, way)
                    pose = there[key].pose
                    tried.add((way.split(":")[0], pose.stance if pose else "rip", pose.kept if pose else ""))
        stances = {(tool, stance) for tool, stance, _ in tried}
        self.assertLessEqual(
            {("t1", "flat"), ("t1", "on_edge"), ("t1", "propped"), ("t4", "on_edge"), ("t4", "rip"), ("t8", "flat")}, stances
        )

    def test_it_sees_a_wrong_number_a_wrong_side_and_a_stop_a_hundredth_off(self) -> None:
        document = cuts_document(planned(LEANING)).model_dump()
        key = next(part["key"] for part in document["parts"])
        self.assertLess(farthest_mm(document)[key], RIGHT_MM)

        def off(change) -> float:
            other = deepcopy(document)
            for step in other["steps"]:
                if step["part"] == key and step["work"] == "second_end":
                    change(step)
            return farthest_mm(other)[key]

        def swapped(step: dict) -> None:
            swing, tilt = step["scale"]["swing"], step["scale"]["tilt"]
            swing["reads_deg"], tilt["reads_deg"] = tilt["reads_deg"], swing["reads_deg"]

        self.assertGreater(off(swapped), 1.0)
        self.assertGreater(off(lambda step: step["scale"]["swing"].update(to="left")), 1.0)
        self.assertGreater(off(lambda step: step["pose"].update(kept="left")), 1.0)
        self.assertGreater(off(lambda step: step["pose"].update(fence="lower")), 1.0)
        self.assertAlmostEqual(
            off(lambda step: step["stop"].update(distance_mm=step["stop"]["distance_mm"] + 0.01)), 0.01, places=6
        )
        self.assertGreater(
            off(lambda step: step["scale"]["tilt"].update(reads_deg=step["scale"]["tilt"]["reads_deg"] + 0.01)), 1e-3
        )

    def test_a_rip_that_leans_the_other_way_or_stands_a_hundredth_off_is_seen(self) -> None:
        document = cuts_document(planned(LEANING)).model_dump()
        key = document["parts"][0]["key"]
        for change in ({"down": "face"}, {"fence_mm": 150.0}):
            other = deepcopy(document)
            next(step for step in other["steps"] if step["rip"])["rip"].update(change)
            self.assertGreater(farthest_mm(other)[key], 1e-3, change)

    def test_laps_from_face_and_back_are_made_and_one_too_deep_is_seen(self) -> None:
        document = cuts_document(planned(PROJECTS_BY_NAME["Boat-bay vent grille"])).model_dump()
        laps = [step for step in document["steps"] if step["notch"]]
        self.assertEqual({step["notch"]["down"] for step in laps}, {"face", "back"})
        self.assertLess(max(farthest_mm(document).values()), RIGHT_MM)
        laps[0]["notch"]["deep_mm"] += 0.01
        self.assertGreater(farthest_mm(document)[laps[0]["part"]], 0.005)


PROJECTS_BY_NAME = {entry["name"]: entry["spec"] for entry in PROJECTS}


class Ways(unittest.TestCase):
    def test_a_box_leaning_12_has_three_pairs_flat_on_edge_and_propped(self) -> None:
        square = box(level(400.0, 400.0), 150.0, slope_deg=12.0, thickness_mm=21.0)
        made = planned(square, Workshop())
        board = made.design.boards["m1/A"]
        found = {}
        for way in ways_for(board, board.right[0], 400.0, {"t1": MiterSaw()}):
            if not way.jig:
                found.setdefault((way.pose.stance, way.pose.before_rip), set()).add(
                    (round(abs(way.swing_deg), 9), round(abs(way.tilt_deg), 9))
                )
        a, m = radians(12.0), radians(45.0)

        def pair(*angles: float) -> set:
            return {tuple(round(degrees(angle), 9) for angle in angles)}

        # F20: flat, and on edge before the edge is ripped; propped the corner is that of the plan.
        self.assertEqual(found["flat", False], pair(atan(sin(a) * tan(m)), asin(cos(a) * sin(m))))
        self.assertEqual(found["on_edge", True], pair(atan(cos(a) * tan(m)), asin(sin(a) * sin(m))))
        self.assertEqual(found["propped", False], {(45.0, 0.0)})

    def test_the_four_poses_on_edge_have_the_signs_of_the_conventions(self) -> None:
        board = planned(LEANING, Workshop()).design.boards["m1/A"]
        x, y, z = board.right[0].normal
        e, q = degrees(atan2(z, abs(x))), degrees(asin(y))
        table = {
            ("lower", "back"): ("left", -e, q),
            ("lower", "face"): ("right", -e, -q),
            ("upper", "face"): ("left", e, -q),
            ("upper", "back"): ("right", e, q),
        }
        for (down, fence), (kept, swing, tilt) in table.items():
            blade = blade_angles(board.right[0], Pose(down, fence, False, ALONG[down]))  # type: ignore[arg-type]
            self.assertEqual(blade.kept, kept)
            self.assertAlmostEqual(blade.swing_deg, swing)
            self.assertAlmostEqual(blade.tilt_deg, tilt)

    def test_past_the_stop_a_board_lies_square_to_the_fence_or_on_a_wedge(self) -> None:
        # Two rails of one corner, 57.7244 and its complement: tan = 95 / 60.
        frame = rectangle("outside", 600.0, 400.0, 60.0, rails={"B": {"width_mm": 95.0}, "D": {"width_mm": 95.0}})
        made = planned(frame, Workshop())
        key = max(made.design.facts, key=lambda facts: abs(facts.ends["right"][0].miter_deg)).key
        board = made.design.boards[key]
        wanted = degrees(atan(95.0 / 60.0))
        self.assertAlmostEqual(wanted, 57.7244, places=4)
        jigs = {way.jig: way for way in ways_for(board, board.right[0], 400.0, {"t1": MiterSaw(swing_left_deg=52.0)}) if way.jig}
        self.assertAlmostEqual(abs(jigs["square"].swing_deg), 32.2756, places=4)
        self.assertAlmostEqual(abs(jigs["wedge"].swing_deg), 45.0)
        self.assertAlmostEqual(abs(jigs["wedge"].wedge_deg), 12.7244, places=4)
        # Held square to the fence the blade runs 60 tan 57.7244 = 95 along it: there must be room for that.
        short = MiterSaw(swing_left_deg=52.0, wide_mm=94.0, wide_swung_mm=94.0)
        self.assertNotIn("square", {way.jig for way in ways_for(board, board.right[0], 400.0, {"t1": short})})
        # With the wedge its own angle counts in the verdict: only the 32.2756 that the scale shows as 32.5 is left.
        ends = [f"{key} right:0", f"{key} left:0"]
        found = {end: next(w.id for w in WAYS.of(made.design, made.plan.tools)[end] if w.jig == "wedge") for end in ends}
        closing = plan_with(made.design, Workshop(wishes=SawWishes(ways=found))).closing
        assert closing.by_itself
        self.assertLess(closing.by_itself.widest_mm, 1.0)

    def test_a_wall_is_rather_propped_than_cut_before_its_edge_is_ripped(self) -> None:
        made = planned(LEANING, Workshop(tools={"t1": MiterSaw(tilt_left_deg=20.0)}))
        self.assertEqual({use.pose.stance for setting in made.plan.settings for use in setting.uses}, {"propped"})

    def test_where_no_tool_reaches_the_first_one_is_told(self) -> None:
        tools = {f"t{k}": MiterSaw(swing_left_deg=10.0 * k, swing_right_deg=10.0 * k, tilt_left_deg=5.0) for k in (1, 2)}
        made = planned(regular(6, 45.0, "opening_flats", mm=300.0), Workshop(tools=tools))
        self.assertEqual([(s.tool, s.misses[0].code[:10]) for s in made.plan.settings], [("t1", "past_swing")])

    def test_limits_are_told_with_what_is_needed_and_what_there_is(self) -> None:
        saw = MiterSaw(wide_mm=300.0, high_mm=90.0, high_tilted_mm=45.0, swing_left_deg=50.0, tilt_right_deg=5.0)
        flat = Lying("flat", 250.0, 60.0, 600.0)
        self.assertEqual(saw.misses(0.0, 0.0, flat), ())
        # A blade's run of 300 covers 300 cos 40 of a board; half way to 45 of tilt the height goes as the cosine too.
        (wide,) = saw.misses(-40.0, 0.0, flat)
        self.assertEqual((wide.code, wide.needs), ("too_wide", 250.0))
        self.assertAlmostEqual(wide.has, 300.0 * cos(radians(40.0)))
        (high,) = saw.misses(0.0, 40.0, flat)
        share = (cos(radians(40.0)) - cos(radians(45.0))) / (1 - cos(radians(45.0)))
        self.assertEqual(high.code, "too_high")
        self.assertAlmostEqual(high.has, 45.0 + 45.0 * share)
        self.assertEqual([m.code for m in saw.misses(-51.0, -6.0, flat)][:2], ["past_swing_left", "past_tilt_right"])
        slots = MiterBox(slots=(Slot(), Slot(swing_deg=45.0)))
        self.assertEqual([m.code for m in slots.misses(-45.0, 0.0, Lying("flat", 60.0, 20.0, 400.0))], ["no_slot"])
        self.assertEqual([m.code for m in HandSaw().misses(80.0, 0.0, flat)], ["too_steep"])

    def test_an_offcut_under_a_leaning_blade_and_a_short_piece_are_found_before_the_first_cut(self) -> None:
        board = planned(LEANING, Workshop()).design.boards["m1/A"]
        for way in ways_for(board, board.right[0], 140.0, {"t1": MiterSaw(tilt_right_deg=45.0)}):
            under = (way.tilt_deg > 0) == (way.kept == "right")
            self.assertEqual("trapped_offcut" in way.cautions, under and abs(way.tilt_deg) > 1e-9)
            self.assertIn("short_piece", way.cautions)
        quiet = ways_for(board, board.right[0], 140.0, {"t1": HandSaw()})
        self.assertFalse([way for way in quiet if {"short_piece", "trapped_offcut"} & set(way.cautions)])


class Settings(unittest.TestCase):
    def test_no_choice_of_up_to_twelve_settings_needs_fewer(self) -> None:
        random = Random(14)
        for _ in range(300):
            all_there = [("t1", float(k), 0.0) for k in range(random.randint(2, 12))]
            choices = [
                tuple(random.sample(all_there, random.randint(1, min(4, len(all_there))))) for _ in range(random.randint(1, 9))
            ]
            least = next(
                count
                for count in range(1, len(all_there) + 1)
                if any(all(set(some) & set(options) for options in choices) for some in combinations(all_there, count))
            )
            taken = fewest(choices)
            self.assertEqual(len(taken), least, choices)
            self.assertTrue(all(taken & set(options) for options in choices))

    def test_beyond_that_never_more_than_one_setting_after_another(self) -> None:
        random = Random(7)
        for _ in range(100):
            all_there = [("t1", float(k), 0.0) for k in range(20)]
            choices = [tuple(random.sample(all_there, random.randint(1, 5))) for _ in range(30)]
            in_turn: list = []
            for options in choices:
                if not set(options) & set(in_turn):
                    in_turn.append(options[0])
            taken = fewest(choices)
            self.assertLessEqual(len(taken), len(in_turn))
            self.assertTrue(all(taken & set(options) for options in choices))

    def test_a_way_that_was_chosen_is_kept_and_changes_what_comes_out(self) -> None:
        made = planned(LEANING, Workshop())
        key, way = "m1/A right:0", "t1:lower:face:propped"
        plan = plan_with(made.design, Workshop(wishes=SawWishes(ways={key: way})))
        use = next(use for setting in plan.settings for use in setting.uses if use.key == key)
        self.assertEqual(use.way.id, way)
        self.assertAlmostEqual(abs(use.way.swing_deg), 45.0)


class Order(unittest.TestCase):
    def test_going_by_setting_comes_to_each_setting_once_and_never_needs_more_changes(self) -> None:
        for entry in PROJECTS:
            made = planned(entry["spec"], Workshop())
            plan = steps_for(made.design, made.plan)
            told = {t.school: t.changes for t in plan.told}
            self.assertEqual(told["by_setting"], max(0, plan.settings - 1), entry["name"])
            self.assertLessEqual(told["by_setting"], min(told.values()), entry["name"])
            check_order(plan.steps)
            for before, step in pairwise(plan.steps):  # small parts late
                if before.work == step.work == "first_end" and before.position == step.position:
                    long = [plan.raws[s.part].high - plan.raws[s.part].low for s in (before, step)]
                    self.assertGreaterEqual(round(long[0], 3), round(long[1], 3), entry["name"])
            tests = [step for step in plan.steps if step.work == "test"]
            self.assertEqual(len(tests), plan.settings)
            for before, step in pairwise(plan.steps):
                if before.work == "test":
                    self.assertEqual(before.position, step.position)

    def test_an_order_that_cannot_be_is_refused_with_what_must_come_first(self) -> None:
        made = planned(LEANING)
        steps = [step for step in steps_for(made.design, made.plan).steps if step.work != "test"]
        keys = [step.key for step in steps]
        second = next(step.key for step in steps if step.work == "second_end")
        with self.assertRaises(SpecError) as refused:
            dragged(steps, [second, *(key for key in keys if key != second)])
        self.assertEqual(refused.exception.code, "out_of_order")
        self.assertEqual(refused.exception.data["step"], second)
        rips = [step.key for step in steps if step.work == "rip"]
        ends = [key for key in keys if key not in rips]
        with self.assertRaises(SpecError):
            dragged(steps, [*ends, *rips])
        frame = planned(PROJECTS_BY_NAME["Tide clock surround"])
        frame_steps = [step for step in steps_for(frame.design, frame.plan).steps if step.work != "test"]
        rabbet, first, last = (step.key for step in frame_steps)
        for order in ([rabbet, last, first], [first, rabbet, last]):
            with self.assertRaises(SpecError):
                dragged(frame_steps, order)

    def test_what_stands_on_a_square_edge_is_cut_before_that_is_ripped(self) -> None:
        made = planned(LEANING, Workshop(tools={"t1": MiterSaw(), "t2": TableSaw()}))
        key = "m1/A right:0"
        plan = with_ways(made.design, made.plan, {key: "t1:lower:face"})
        steps = [step.key for step in steps_for(made.design, plan).steps]
        self.assertLess(steps.index(key), steps.index("m1/A lower"))
        document = cuts_document(replace(made, plan=plan))
        self.assertLess(document.off_mm["m1/A"] or 0.0, RIGHT_MM)

    def test_the_first_of_a_sort_is_made_alone_as_the_pattern(self) -> None:
        made = planned(regular(6, 45.0, "opening_flats", mm=300.0), Workshop(wishes=SawWishes(school="first_as_pattern")))
        steps = [step for step in steps_for(made.design, made.plan).steps if step.work != "test"]
        self.assertEqual([(step.pattern, len(step.pieces)) for step in steps], [(True, 1), (True, 1), (False, 5), (False, 5)])


class Lengths(unittest.TestCase):
    def test_a_stop_stands_where_fence_and_table_meet(self) -> None:
        # 600 long on the outside, 60 wide, both ends 45: with the opening edge at the fence the blade crosses it 60 short of its own long
        # point, and the other long point lies at the near edge.
        made = planned(rectangle("outside", 600.0, 400.0, 60.0), Workshop())
        step = next(s for s in steps_for(made.design, made.plan).steps if s.work == "second_end" and s.part == "m1/A")
        assert step.stop and step.way
        self.assertEqual(step.way.pose.fence, "upper")
        self.assertAlmostEqual(step.stop.distance_mm, 540.0)
        self.assertAlmostEqual(step.stop.out_mm, 60.0)
        self.assertEqual(set(step.stop.corners), {"face_lower", "back_lower"})
        # A square end touches all over: the block need not reach out.
        made = planned(regular(4, 45.0, "opening_flats", mm=300.0, joint="butt"), Workshop())
        square = next(s for s in steps_for(made.design, made.plan).steps if s.work == "second_end")
        assert square.stop
        self.assertEqual((square.stop.out_mm, square.stop.up_mm), (0.0, 0.0))

    def test_offsets_halves_and_gaps_without_a_protractor(self) -> None:
        # Figures of the bench: 62 x tan 17.5; F13 with the kerf square to the blade.
        self.assertAlmostEqual(halved(2440.0, 0.0, 0.0, 3.2).long_mm, 1218.4)
        sloping = halved(2440.0, 70.0, 24.0, 3.2)
        self.assertAlmostEqual(sloping.long_mm, 1233.8316, places=4)
        self.assertAlmostEqual(sloping.short_mm, 1202.6656, places=4)
        self.assertAlmostEqual(along_slope(10.0, 60.0), 20.0)
        made = planned(regular(8, 62.0, "outside_side", mm=300.0), Workshop())
        offsets = offsets_of(made.design.facts[0], "right", 0)
        self.assertAlmostEqual(offsets.over_face_mm, 62.0 * tan(radians(22.5)))
        self.assertAlmostEqual(offsets.face_rise, 100.0 * tan(radians(22.5)))
        self.assertAlmostEqual(offsets.over_edge_mm, 0.0)
        # Of every cut of the demo: as far as the two long corners of the face are apart where the cut crosses them.
        for entry in PROJECTS:
            for facts in planned(entry["spec"], Workshop()).design.facts:
                flat = facts.board.panel or facts.board.stave
                for end in () if flat else ENDS:
                    for k, plane in enumerate(facts.board.ends(end)):
                        over, under = (crossing(plane, arris_line(facts.board, arris)) for arris in ("face_upper", "face_lower"))
                        self.assertAlmostEqual(abs(offsets_of(facts, end, k).over_face_mm), abs(over - under), places=6)


class TestCuts(unittest.TestCase):
    ON = date(2026, 11, 26)

    def test_readings_become_the_scales_error_with_its_sign(self) -> None:
        self.assertAlmostEqual(made_angle("corner", 45.0, [89.5]), 45.25)  # (180 - 89.5) / 2
        # F10: four corners of 90.1 are 360.4: each cut is 0.05 short.
        self.assertAlmostEqual(made_angle("ring", 45.0, [90.1] * 4), 44.95)
        self.assertAlmostEqual(made_angle("gauge", 30.0, [30.1, 30.3]), 30.2)
        # A strip 20.4 wide at the fence, 20 near, over 100: tan error = 0.4 / 200, to the right.
        self.assertAlmostEqual(made_angle("rolled", 0.0, [20.4, 20.0], 100.0), degrees(atan(0.002)))
        self.assertAlmostEqual(square_error_deg(0.4, 100.0), degrees(atan(0.002)))
        # Square scraps make no corner; a strip tells of a square swing only; a ring must close.
        self.assertEqual(tests_that_tell("swing", 0.0, 0), ("gauge", "rolled"))
        self.assertEqual(tests_that_tell("tilt", 0.0, 0), ("gauge",))
        self.assertEqual(tests_that_tell("swing", 22.5, 8), ("corner", "ring", "gauge"))

    def test_what_was_found_is_dialled_against_on_its_side_and_counts_in_the_verdict(self) -> None:
        saw = MiterSaw(swing_step_deg=0.1, tilt_step_deg=0.1)
        error = error_found(saw, "swing", -22.5, "gauge", [22.9], 0.0, self.ON)
        self.assertAlmostEqual(error.error_deg, 0.4)
        better = with_error(saw, error)
        self.assertAlmostEqual(better.dial("swing", -22.5), -22.1)
        self.assertAlmostEqual(better.swing_as_set(-22.5), -22.5)
        self.assertAlmostEqual(better.dial("swing", 22.5), 22.5)  # the other side has its own
        # Known to a step that cannot be set away: 0.04 stays, and opens the joints of an octagon.
        coarse = with_error(
            MiterSaw(swing_step_deg=1.0), error_found(MiterSaw(swing_step_deg=0.5), "swing", 22.5, "gauge", [22.54], 0.0, self.ON)
        )
        octagon = regular(8, 45.0, "opening_flats", mm=340.0)
        exact = planned(octagon, Workshop(tools={"t1": MiterSaw()})).plan.closing
        known = planned(octagon, Workshop(tools={"t1": coarse.model_copy(update={"swing_step_deg": 0.5})})).plan.closing
        self.assertEqual(exact.state, "exact")
        # Each of two faces leans off by 0.04 over the joint's length: 45 / cos 22.5 long.
        assert known.by_itself
        self.assertAlmostEqual(
            known.by_itself.widest_mm, 2 * 45 * (tan(radians(22.54)) - tan(radians(22.5))) * cos(radians(22.5)), places=6
        )
        # A second test at the same setting takes the first one's place.
        again = with_error(better, error_found(better, "swing", -22.5, "gauge", [22.6], 0.0, self.ON))
        self.assertEqual([round(e.error_deg, 6) for e in again.errors], [0.5])

    def test_what_no_saw_can_give_and_a_ring_that_does_not_close_are_refused(self) -> None:
        saw = MiterSaw()
        for at, how, readings, code in (
            (45.0, "corner", [70.0], "test_reading"), (40.0, "ring", [100.0] * 4, "ring_not_closed"), (45.0, "ring", [90.0] * 3, "ring_not_closed"),
            (45.0, "rolled", [20.0, 20.0], "rolled_square_only"), (0.0, "rolled", [20.0], "rolled_two_widths"),
        ):  # fmt: skip
            with self.subTest(code), self.assertRaises(SpecError) as refused:
                error_found(saw, "swing", at, how, readings, 100.0, self.ON)  # type: ignore[arg-type]
            self.assertEqual(refused.exception.code, code)
