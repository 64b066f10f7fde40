"""What is said at the saw and on the cut list: where a cut is marked, what other tools cut, what all parts need."""

import unittest

from fennup.app.services.part_cards import part_cards
from fennup.app.services.projects import PLAIN
from fennup.app.services.saw_settings import settings_of
from fennup.app.services.steps_sheet import SawSheet
from fennup.core.kinds.catalogue import KINDS
from tests.app.test_words import INCHES, cards, solved_on
from tests.core.frames import box, level, of_sides, rectangle, regular


class AtTheSaw(unittest.TestCase):
    def test_every_cut_says_where_it_is_marked(self) -> None:
        leaning = box(level(300.0, 300.0), 200.0, slope_deg=15.0)
        (setting,) = settings_of(solved_on(leaning), PLAIN)
        self.assertEqual([use.mark for use in setting.uses], [
            # 300 + 2 x 200 x tan 15.
            "This cut first, from a board at least 407.18 mm long.",
            "Mark 407.18 mm on the top edge, outside, from the long point of the right end.",
        ])  # fmt: skip
        (square,) = settings_of(solved_on(box(level(300.0, 200.0), 100.0, joint="butt")), PLAIN)
        self.assertRegex(square.uses[1].mark, r"^Mark \d+ mm on the bottom edge, from the right end\.")

    def test_a_mark_says_from_where_and_whether_its_line_lies_underneath(self) -> None:
        (case,) = settings_of(solved_on(box(of_sides(4, 300.0), 110.0)), PLAIN)
        self.assertEqual(
            case.uses[1].mark,
            "Mark 300 mm on the bottom edge, outside, from the long point of the right end. That line lies underneath.",
        )
        # A flat frame's face and back are alike: one measures on whichever is up.
        (frame,) = settings_of(solved_on(regular(8, 45.0, "opening_flats", mm=340.0)), PLAIN)
        self.assertIn("Back up", frame.uses[1].lies)
        self.assertTrue(frame.uses[1].mark.endswith("from the long point of the right end."), frame.uses[1].mark)
        # Parallel cuts: on the line where the foot stays, the head is no long point.
        gable = settings_of(solved_on(KINDS["roof"].starts["gable"]), PLAIN)
        self.assertTrue(gable[0].uses[1].mark.endswith("from the head."), gable[0].uses[1].mark)

    def test_what_all_parts_need_is_said_in_the_projects_unit(self) -> None:
        # 2 of 510, 2 of 390 and four kerfs of 2.4 are 1809.6 mm: 1.81 m, or 5.94 feet, a tenth up.
        frame = solved_on(rectangle("opening", 420.0, 300.0, 45.0))
        self.assertEqual(
            part_cards(frame, PLAIN).needs,
            ["Boards 45 mm wide, 20 mm thick: 4 pieces, 1.81 m in all with the blade's kerf, the longest 510 mm."],
        )
        self.assertIn("6.0 ft in all", part_cards(frame, INCHES).needs[0])
        lean_to = part_cards(solved_on(KINDS["roof"].starts["lean_to"]), PLAIN)
        self.assertEqual(lean_to.needs[-1], "Sheet 20 mm thick: 2 of 380 mm by 513.33 mm, 960 mm by 502.72 mm.")

    def test_a_panels_edges_are_called_by_where_they_look(self) -> None:
        top = next(part for part in cards(KINDS["stand"].starts["three_legs"]) if part.name == "Top")
        # Leg by leg the corners are cut off: one long side to the front, the others a third of a turn from it.
        self.assertEqual(
            [rung.label for rung in top.ladder[:2]],
            ["Front left, front right and back edges", "Front, back right and back left edges"],
        )

    def test_what_is_cut_without_a_stop_has_its_figures(self) -> None:
        def steps(document: dict) -> dict:
            sheet = SawSheet(solved_on(document), PLAIN, {})
            return {step.key: step for step in sheet.paper().steps}

        lid = steps(box(level(300.0, 300.0), 200.0, slope_deg=15.0, lid={"depth_mm": 60.0, "kerf_mm": 2.0}))
        self.assertEqual([line.figure.whole for line in lid["m1/parting:0"].figures], ["60"])
        gable = steps(KINDS["roof"].starts["gable"])
        self.assertRegex(gable["m1/left1 notch:0"].figures[0].label, "^Birdsmouth")
        side = steps(KINDS["roof"].starts["lean_to"])["m1/left right:0"]
        self.assertEqual({line.label for line in side.figures}, {"Bottom", "Front edge", "Back edge", "Slope"})
