"""What is said of a solution: figures, verdicts, explanations."""

import re
import unittest
from dataclasses import replace
from math import atan, degrees

from fennup.app.schemas.sheet import PartOut, SheetOut
from fennup.app.services.demo import PROJECTS
from fennup.app.services.part_cards import part_cards
from fennup.app.services.projects import PLAIN
from fennup.app.services.saw_settings import settings_of
from fennup.app.services.sheet import looked_sheet, sheet_of
from fennup.app.services.solving import solved_spec
from fennup.app.wording.figures import Voice, on_paper
from fennup.app.wording.labels import FACTS, LABELS, LINES, label
from fennup.app.wording.tables import check_words, merged
from fennup.core.drawing.edit import TypeIn
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.measures import measure_of
from fennup.core.project.starts import TOGETHER
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.solve import Solution
from fennup.core.units.lengths import tape
from fennup.core.workshop import with_saw
from tests.core.frames import all_starts, box, irregular, level, of_sides, rectangle, regular, shown, solved

INCHES = Voice(tape("in", "1/16"))


def solved_on(document: dict, saw: MiterSaw | None = None, voice: Voice = PLAIN) -> Solution:
    return solved_spec(document, with_saw(saw or MiterSaw()), voice)


def cards(document: dict) -> list[PartOut]:
    return part_cards(solved_on(document), PLAIN).parts


class Figures(unittest.TestCase):
    def test_a_figure_is_set_spoken_and_typed_back(self) -> None:
        figure = INCHES.length(14.375 * 25.4)
        self.assertEqual((figure.whole, figure.fraction, figure.hair, figure.unit), ("14", "3/8", "", "″"))
        self.assertEqual((figure.spoken, figure.typed), ("14 and 3/8 inches", "14 3/8"))
        off = INCHES.length(14.4 * 25.4)
        self.assertEqual((off.fraction, off.hair, off.exact, off.typed), ("13/32", "", "14.4″", "14.4"))
        self.assertEqual((off.spoken, INCHES.say(14.41 * 25.4)), ("14 and 13/32 inches", "14.41″"))
        self.assertEqual((INCHES.say(340.0), PLAIN.say(1000 / 3)), ("a hair over 13 3/8″", "333.33 mm"))
        self.assertEqual((PLAIN.say(63.5479), on_paper(INCHES.length(261.1))), ("63.55 mm", "10 9/32″ (10.28″)"))
        self.assertEqual(INCHES.length(0.5 * 25.4).spoken, "1/2 inches")
        self.assertEqual(PLAIN.angle(25.714285).whole, "25.71")


class ClosingLines(unittest.TestCase):
    def line(self, document: dict, saw: MiterSaw | None = None, proven: bool = True) -> tuple[str, str, str, str]:
        solution = solved_on(document, saw)
        closing = (sheet_of(solution, PLAIN, solution.design.proof) if proven else looked_sheet(solution, PLAIN, None)).closing
        return closing.tone, closing.headline, closing.detail, closing.second

    def test_each_verdict_says_what_how_much_and_where(self) -> None:
        octagon = regular(8, 45.0, "opening_flats", mm=300.0)
        self.assertEqual(self.line(octagon)[:2], ("closes", "Closes exactly."))
        self.assertIn(
            "does not reach all", self.line(octagon, MiterSaw(swing_left_deg=10, swing_right_deg=10, tilt_left_deg=10))[2]
        )
        tone, _, detail, second = self.line(regular(7, 50.8, "outside_corners", mm=533.4))
        self.assertEqual(tone, "opens")
        # 360 - 7 x 51 = 3 degrees over faces of 50.8 / cos 25.5: 2 x 56.284 x sin 1.5 = 2.947.
        self.assertIn("the joint of rails A and B by itself opens 0.42 mm at the outer edge", detail)
        self.assertIn(
            "with all others pushed tight the last, the joint of rails G and A, stands open 2.95 mm at the outer edge", detail
        )
        self.assertIn("no two pieces stand in one another", second)
        tone, headline, detail, second = self.line(
            irregular([(0, 0), (400, 0), (400, 300), (0, 300)], [{"corner": c, "deg": 91.0} for c in ("AB", "BC", "CD", "DA")])
        )
        self.assertEqual((tone, headline), ("fails", "Does not close."))
        self.assertIn("The joint of rails D and A", detail)
        self.assertEqual(second, "Checked a second way, as solids: it does not close there either.")
        self.assertIn("once it is saved", self.line(octagon, proven=False)[3])

    def test_a_joint_that_is_no_corner_is_called_by_the_end_that_stands_there(self) -> None:
        starts = {code: spec for kind in KINDS.values() for code, spec in kind.starts.items()} | TOGETHER
        for code, words in (
            ("stool", "the joint at the left end of rail B by itself opens"),
            ("hip", "the joint of hips AB and BC by itself opens"),
            ("tub", "the joint of walls A and B by itself opens"),
            ("bin_on_stand", "the joint of panels A and B of Hood by itself opens"),
        ):
            self.assertIn(words, self.line(starts[code])[2])

    def test_findings_name_the_part_the_figure_and_what_to_do(self) -> None:
        small = regular(3, 20.0, "outside_side", mm=120.0, rabbet={"width_mm": 18.0, "depth_mm": 5.0})
        texts = [f.text for f in sheet_of(solved_on(small), PLAIN).findings]
        self.assertTrue(any("120 mm long" in t and "hold-down" in t for t in texts), texts)
        self.assertTrue(any("lip of 2.00 mm" in t for t in texts), texts)
        self.assertTrue(any("60°" in t and "52°" in t and "jig" in t for t in texts), texts)
        loose = regular(6, 40.0, "holds", object_mm=300.0, play_mm=14.0, rabbet={"width_mm": 6.0, "depth_mm": 5.0})
        texts = [f.text for f in sheet_of(solved_on(loose), PLAIN).findings]
        self.assertTrue(any("could fall through" in t for t in texts), texts)


class WhyANumberIsWhatItIs(unittest.TestCase):
    def test_the_ladder_adds_up_in_its_own_words(self) -> None:
        front = cards(rectangle("outside", 600.0, 400.0, 60.0))[0]
        self.assertEqual((front.name, [r.figure.whole for r in front.ladder]), ("Rails A and C (front and back)", ["600", "480"]))
        why = " ".join(front.ladder[0].why)
        for words in (
            "Opening edge, tip to tip on the finished part: 480 mm",
            "60 mm more: 60 mm across at 45°",
            "Outer edge: 600 mm",
        ):
            self.assertIn(words, why)
        self.assertIn("Given: outside width 600 mm. Measured on the finished parts: 600 mm.", why)

    def test_an_angle_is_derived_from_ones_own_figures(self) -> None:
        splayed = {**KINDS["stand"].starts["stool"], "pins": [{"measure": m, "deg": 10.0} for m in ("front_splay", "side_splay")]}
        uneven = rectangle("outside", 600.0, 400.0, 45.0, rails={"B": {"width_mm": 30.0}})
        for document, part, words in (
            (regular(8, 45.0, "opening_flats", mm=340.0), 0, "8 corners turn 360°, each 45°, and both rails are as wide: half of it in each, 45° / 2 = 22.5°."),
            (uneven, 0, "atan((30 mm + 45 mm × cos 90°) / (45 mm × sin 90°)) = 33.69°."),
            (box(level(300.0, 300.0), 260.0, slope_deg=10.0), 0, "atan(sin 10° × tan 45°) = 9.85°; the blade tilts asin(cos 10° × sin 45°) = 44.14°."),
            (splayed, 0, "Seen from the front it leans 10°, and its outer face leans 10° besides. On that face the level cut is atan(tan 10° × cos 10°) = 9.85°"),
            (KINDS["roof"].starts["gable"], 0, "The board rises 35° from level, and the cut is plumb: 35° from square"),
        ):  # fmt: skip
            with self.subTest(words):
                self.assertIn(words, " ".join(cards(document)[part].ends[1].why))

        octagon = cards(regular(8, 45.0, "opening_flats", mm=340.0))[0]
        self.assertIn("8 sides: each is 340 mm × tan (180° / 8) = 140.83 mm.", octagon.ladder[0].why)

    def test_every_end_of_every_start_is_derived(self) -> None:
        for part in [part for starts in all_starts().values() for start in starts for part in cards(start)]:
            for end in part.ends:
                self.assertGreater(len(end.why), len(end.cuts), (part.name, end.why))

    def test_every_length_along_an_edge_is_what_its_explanation_comes_to(self) -> None:
        checked = 0
        for starts in all_starts().values():
            for start in starts:
                for part in cards(start):
                    for rung in part.ladder:
                        if rung.id.partition("_")[0] in ("face", "back", "upper", "lower"):
                            end = f": {rung.figure.exact or f'{rung.figure.whole} {rung.figure.unit}'}."
                            self.assertTrue(any(line.endswith(end) for line in rung.why), (part.name, rung.label, end))
                            checked += 1
        self.assertGreater(checked, 150)

    def test_the_ends_of_a_butt_say_which_rail_runs_through(self) -> None:
        card = cards(rectangle("outside", 600.0, 400.0, 60.0, joint="butt"))[0]
        left, right = (" ".join(end.why) for end in card.ends)
        self.assertIn("Rail D (left) runs through; this end stands on its opening edge", left)
        self.assertIn("This rail runs through", right)
        self.assertEqual([end.cuts[0].leans for end in card.ends], ["square across", "square across"])


class WordsForABox(unittest.TestCase):
    def sheet(self, document: dict, saw: MiterSaw | None = None) -> SheetOut:
        solution = solved_on(document, saw)
        return sheet_of(solution, PLAIN, solution.design.proof)

    def test_a_wall_is_told_by_its_own_edges_and_sides(self) -> None:
        part = cards(box(level(300.0, 300.0), 200.0, slope_deg=15.0))[0]
        self.assertEqual(part.name, "Walls A to D")
        self.assertEqual([e.cuts[0].leans for e in part.ends], ["long point on the top edge"] * 2)
        self.assertEqual(part.ends[0].cuts[0].bevel, "blade tilted 43.08°, outside longer")
        self.assertEqual([(e.label, e.note) for e in part.edges], [
            ("Rip the top edge", "the outside stays wider there"), ("Rip the bottom edge", "the inside stays wider there"),
            ("Width that stays, outside", "inside 207 mm"),
        ])  # fmt: skip
        self.assertEqual(part.edges[2].figure.whole, "207")  # 200 / cos 15 = 207.06
        self.assertEqual(part.ladder[0].label, "Top edge, outside, long point to long point")
        # On a square edge it would be atan(cos a tan 45), but both edges are ripped: propped, the plan angle alone.
        self.assertEqual(part.ways, [
            "Propped on its ripped bottom edge instead: swing 45°, blade upright.",
            "Propped on its ripped top edge instead: swing 45°, blade upright.",
        ])  # fmt: skip

    def test_a_board_on_edge_says_how_it_stands(self) -> None:
        # A triangle's bevel of 60 is past every tilt; on edge it is a swing of 60.
        sheet = settings_of(solved_on(box(of_sides(3, 300.0), 100.0), MiterSaw(swing_left_deg=62, swing_right_deg=62)), PLAIN)
        use = sheet[0].uses[0]
        self.assertRegex(use.lies, "^Standing on its (bottom|top) edge, (outside|inside) to the fence, keep the piece")
        self.assertEqual((sheet[0].shown.whole, sheet[0].tilt), ("60", "blade upright"))

    def test_the_simple_settings_are_told_with_both_gaps(self) -> None:
        told = {line.how: line.text for line in self.sheet(box(level(300.0, 300.0), 200.0, slope_deg=8.0)).simple}
        self.assertEqual(len(told), 5)
        gaps = [text for text in told.values() if "together" not in text]
        self.assertEqual(len(gaps), 2)
        for text in gaps:
            self.assertRegex(
                text, r"^The joint of walls A and B would open \d+\.\d\d mm at the outside, \d+\.\d\d mm at the inside\.$"
            )
        # Square in plan: the plain corner angle is 45, the walls lean 8 from upright and 82 from level.
        for angles in ("swing 8°, tilt 45°", "swing 45°, tilt 8°", "swing 45°, tilt 82°"):
            self.assertTrue(any(how.endswith(angles) for how in told), told)

    def test_a_simple_setting_that_opens_wider_than_the_joint_is_long_does_not_come_together(self) -> None:
        shallow = {
            "kind": "roof",
            "shape": {"form": "pyramid", "sides": 6, "across_mm": 852.0, "height_mm": 110.0},
            "thickness_mm": 18.0,
        }
        lines = {line.how: line.text for line in self.sheet(shallow | {"depth_mm": 40.0}).simple}
        self.assertIn("The joint of panels A and B does not come together at all.", lines.values())
        self.assertFalse([text for text in lines.values() if re.search(r"\d{4}\.\d\d mm", text)])

    def test_the_worst_joint_the_second_proof_and_what_leaning_costs_are_said(self) -> None:
        leaning = box(of_sides(6, 400.0), 250.0, slope_deg=15.0, courses={"count": 3, "board_width_mm": 90.0})
        sheet = self.sheet(leaning)
        self.assertRegex(
            sheet.closing.detail,
            r"^With your saw set to the nearest 0\.5°, the joint of walls \w and \w, course \d by itself opens \d\.\d\d mm at the (inside|outside|top edge|bottom edge)",
        )
        self.assertIn("every joint touches", sheet.closing.second)
        (cost,) = [f.text for f in sheet.findings if "cost height" in f.text]
        self.assertIn("make 270 mm, the box stands 250 mm high", cost)

    def test_alike_pieces_are_named_together(self) -> None:
        sheet = self.sheet(box(of_sides(6, 400.0), 250.0, courses={"count": 3, "board_width_mm": 90.0},
                               cap={"thickness_mm": 20.0, "over_in_mm": 5.0, "over_out_mm": 5.0}))  # fmt: skip
        self.assertEqual(
            [p.name for p in sheet.parts], ["Walls A to F, courses 1 and 2", "Walls A to F, course 3", "Caps A to F"]
        )


class SaidAsItIs(unittest.TestCase):
    def findings(self, document: dict, saw: MiterSaw | None = None, voice: Voice = PLAIN) -> list[str]:
        return [f.text for f in sheet_of(solved_on(document, saw, voice), voice).findings]

    def test_an_angle_that_is_not_kept_is_said_in_degrees(self) -> None:
        corners = [(0, 0), (400, 0), (400, 300), (0, 300)]
        pins = [{"corner": c, "deg": 91.0} for c in ("AB", "BC", "CD", "DA")]
        texts = self.findings(irregular(corners, pins), voice=INCHES)
        self.assertTrue(any("asked 91°, the finished parts measure 87°" in text for text in texts), texts)

    def test_the_stop_that_is_named_is_the_one_on_the_side_that_the_cut_needs(self) -> None:
        saw = MiterSaw(swing_left_deg=47.0, swing_right_deg=52.0, tilt_left_deg=20.0, tilt_right_deg=0.0)
        texts = self.findings(regular(3, 45.0, "opening_flats", mm=300.0), saw)
        self.assertTrue(any("60° is past this saw's stop, 52° to the right" in text for text in texts), texts)
        tilts = MiterSaw(swing_left_deg=50.0, swing_right_deg=50.0, tilt_left_deg=5.0, tilt_right_deg=3.0)
        leaning = box(of_sides(4, 400.0), 300.0, slope_deg=20.0, edges="square")
        sides = {"left" if s.tilt_deg > 0 else "right" for s in solved_on(leaning, tilts).plan.settings}
        # Square in plan, 20 degrees: the tilt is asin(cos 20 sin 45).
        wanted = {f"a tilt of 41.64° is past this saw's stop, {5 if side == 'left' else 3}° to the {side}" for side in sides}
        said = " ".join(self.findings(leaning, tilts))
        self.assertTrue(wanted and all(words in said for words in wanted), said)

    def test_a_thin_lip_is_found_on_whichever_rail_has_it(self) -> None:
        rabbet = {"width_mm": 12.0, "depth_mm": 8.0}
        texts = self.findings(rectangle("opening", 400.0, 300.0, 60.0, rails={"C": {"width_mm": 14.0}}, rabbet=rabbet))
        self.assertIn("Rail C (back): the rabbet leaves a lip of 2.00 mm. Under 3.00 mm it breaks easily.", texts)
        deep = rectangle("opening", 400.0, 300.0, 60.0, rabbet={"width_mm": 12.0, "depth_mm": 18.5})
        self.assertTrue(any("a lip of 1.50 mm" in text for text in self.findings(deep)))

    def test_what_is_said_of_every_stand_is_no_thing_to_know_of_this_one(self) -> None:
        solution = solved_on(KINDS["stand"].starts["stool"])
        sheet = sheet_of(solution, PLAIN, solution.design.proof)
        self.assertEqual((sheet.findings, [text[:14] for text in sheet.cautions]), ([], ["Geometry only:"]))
        twice = {"name": "Other", "spec": KINDS["stand"].starts["stool"], "on": "m1"}
        both = {"members": {"m1": {**twice, "name": "Stool", "on": None}, "m2": twice}}
        self.assertEqual(len(sheet_of(solved_on(both), PLAIN).cautions), 1)

    def test_what_it_holds_comes_first_where_it_leaves_gaps(self) -> None:
        rabbet = {"width_mm": 8.0, "depth_mm": 8.0}
        frame = regular(8, 45.0, "holds", object_mm=300.0, play_mm=2.0, form="round", rabbet=rabbet)
        line = looked_sheet(solved_on(frame), PLAIN, None).closing
        self.assertEqual((line.tone, line.headline), ("opens", "What it holds leaves gaps."))
        # (151 - 8) / cos 22.5 + 1 / cos 22.5 - 150, and 151 - (150 - 1 / cos 22.5) cos 22.5.
        self.assertIn("up to 5.86 mm stays open beside it. A rabbet of 13.42 mm or more covers it.", line.detail)
        self.assertIn("Closes exactly.", line.detail)

    def test_a_panel_thicker_than_its_rabbet_is_deep_stands_out(self) -> None:
        rabbet, panel = {"width_mm": 10.0, "depth_mm": 8.0}, {"thickness_mm": 12.0, "play_mm": 2.0}
        texts = self.findings(rectangle("opening", 400.0, 300.0, 60.0, rabbet=rabbet, panel=panel))
        self.assertIn("The panel, 12 mm thick, stands 4.00 mm out of its rabbet at the back, 8 mm deep.", texts)

    def test_a_frame_among_several_keeps_its_own_words(self) -> None:
        frame = regular(7, 50.0, "outside_flats", mm=400.0)
        alone = sheet_of(solved_on(frame), PLAIN)
        members = [{"name": "Lid", "spec": frame}, {"name": "Bin", "spec": box(level(300.0, 300.0), 200.0)}]
        together = {"kind": "together", "members": members}
        among = sheet_of(solved_on(together), PLAIN)
        (lid, *_), (own_lid, *_) = cards(together), cards(frame)
        self.assertEqual((lid.ladder[0].label, lid.ends[0].cuts), (own_lid.ladder[0].label, own_lid.ends[0].cuts))
        self.assertEqual((lid.id, lid.name, own_lid.name), (own_lid.id, f"Lid: {own_lid.name}", "Rails A to G"))
        own = {size.own for size in among.sizes if size.whose == "Lid"}
        self.assertEqual(own, {size.label for size in alone.sizes})

    def test_more_than_allowed_reads_as_more(self) -> None:
        self.assertEqual(PLAIN.apart(0.50049, 0.5), ("0.5005 mm", "0.5000 mm"))
        self.assertEqual(INCHES.apart(0.5003, 0.5), ("0.01970″", "0.01969″"))

    def test_feet_are_feet_and_a_blade_that_the_scale_shows_upright_is_upright(self) -> None:
        feet = {"thickness_mm": 20.0, "bars": {"count": 2, "width_mm": 40.0, "spacing": "flush"}}
        names = [part.name for part in cards(box(level(300.0, 200.0), 100.0, feet=feet))]
        self.assertIn("Feet 1 and 2", names)
        coarse = MiterSaw(tilt_step_deg=5.0, swing_step_deg=5.0)
        stool = settings_of(solved_on(KINDS["stand"].starts["stool"], coarse), PLAIN)
        for setting in stool:
            self.assertNotIn("tilt 0°", setting.tilt)

    def test_the_allowance_is_in_the_projects_unit_and_comes_back_as_typed(self) -> None:
        gap = INCHES.gap(0.508)
        self.assertEqual((gap.whole, gap.unit, gap.typed), ("0.02", "″", "0.02"))

    def test_ground_and_wall_may_be_told_as_one_in_forty_either_way_round(self) -> None:
        prop = KINDS["brace"]
        spec = prop.spec.model_validate(prop.starts["prop"])
        for text in ("40:1", "1:40", "1 in 40"):
            act = TypeIn(op="type", path="place.ground_deg", text=text)
            self.assertAlmostEqual(prop.edit(spec, act, PLAIN.tape)["place"]["ground_deg"], degrees(atan(1 / 40)), places=9)


class NamesAreUnique(unittest.TestCase):
    def test_a_name_takes_in_no_board_that_is_another_part(self) -> None:
        rails = {letter: {"width_mm": 50.0} for letter in "BDF"}
        names = [part.name for part in cards(regular(6, 40.0, "opening_flats", mm=300.0, rails=rails))]
        self.assertEqual(names, ["Rails A, C and E", "Rails B, D and F"])
        ladder = [part.name for part in cards(KINDS["brace"].starts["box_ladder"])]
        self.assertTrue(any(re.match(r"Backs 1 to \d and fronts 1 to \d$", name) for name in ladder), ladder)

    def test_no_two_parts_have_one_name_on_the_cut_list_and_no_two_cuts_at_the_saw(self) -> None:
        frame = regular(6, 40.0, "opening_flats", mm=300.0)
        twice = {"members": {id: {"name": name, "spec": frame} for id, name in (("m1", "Upper"), ("m2", "Lower"))}}
        wider = {"members": {**twice["members"], "m2": {"name": "Lower", "spec": regular(6, 50.0, "opening_flats", mm=400.0)}}}
        for document in (
            twice,
            wider,
            *(start for starts in all_starts().values() for start in starts),
            *(p["spec"] for p in PROJECTS),
        ):
            solution = solved_on(document)
            for names in (
                [part.name for part in part_cards(solution, PLAIN).parts],
                [f"{s.id}: {use.text}" for s in settings_of(solution, PLAIN) for use in s.uses],
            ):
                self.assertEqual(sorted({name for name in names if names.count(name) > 1}), [])


class EveryCodeHasWords(unittest.TestCase):
    def test_nothing_that_a_start_or_one_of_its_options_shows_is_without_words(self) -> None:
        spoken = {**LABELS, **dict.fromkeys(FACTS)}
        missing, seen = set(), 0
        for starts in all_starts().values():
            for start in starts:
                made = solved(start)
                told = shown(made)
                for code in (
                    *(c.code.partition(":")[0] for c in told.controls), *(o.code for c in told.controls for o in c.options),
                    *(str(measure_of(d.label).own) for v in told.views for d in v.dimensions), *(measure_of(s.measure).own for s in told.sizes),
                ):  # fmt: skip
                    seen += 1
                    if measure_of(code).line in LINES or code in ("piece_a", "piece_b"):
                        continue  # these are put together from words
                    if code not in spoken and label(code) == code.replace("_", " ") and "_" in code:
                        missing.add(code)
        self.assertEqual(missing, set())
        self.assertGreater(seen, 2000)

    def test_a_code_with_words_twice_and_a_start_without_a_name_are_found_at_the_start(self) -> None:
        with self.assertRaisesRegex(ValueError, "labels: rails has words twice"):
            merged("labels", {"rails": "Rails"}, {"rails": "Rows"})
        nameless = replace(KINDS["box"], words=replace(KINDS["box"].words, starts={}))
        with self.assertRaisesRegex(ValueError, "box: the starts and their words are unlike: any_box, case"):
            check_words([nameless])
