import unittest
from math import cos, radians, sin

from pydantic import ValidationError

from fennup.core.drawing.edit import Choose, Drag, Free, Nudge, TypeIn
from fennup.core.errors import CoreError
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.saw.profile import edit_tool, tool_profile_controls, tool_profile_views
from fennup.core.units.lengths import tape

MM = tape("mm", "1")


def after_acts(machine: MiterSaw, *acts: object) -> MiterSaw:
    for act in acts:
        machine = MiterSaw.model_validate(edit_tool(machine, act, MM))  # type: ignore[arg-type]
    return machine


class AProfile(unittest.TestCase):
    def test_a_stop_is_typed_as_its_own_scale_reads_it(self) -> None:
        typed = TypeIn(op="type", path="swing_left_deg", text="40")
        self.assertEqual(after_acts(MiterSaw(), typed).swing_left_deg, 40.0)
        fence = after_acts(MiterSaw(), Choose(op="choose", path="swing_counts_from", value="fence"), typed)
        self.assertEqual(fence.swing_left_deg, 50.0)
        self.assertEqual(fence.tilt_left_deg, 45.0)

    def test_a_nudge_goes_half_a_degree_on_the_scale(self) -> None:
        nudge = Nudge(op="nudge", path="swing_right_deg", steps=2)
        self.assertEqual(after_acts(MiterSaw(swing_right_deg=50.0), nudge).swing_right_deg, 51.0)
        self.assertEqual(after_acts(MiterSaw(swing_right_deg=50.0, swing_counts_from="fence"), nudge).swing_right_deg, 49.0)

    def test_a_dragged_stop_takes_the_nearest_half_degree_on_its_own_side(self) -> None:
        def at(deg: float, grip: str) -> Drag:
            return Drag(op="drag", grip=grip, x_mm=80 * sin(radians(deg)), y_mm=-80 * cos(radians(deg)))

        self.assertEqual(after_acts(MiterSaw(), at(37.2, "swing_right_deg")).swing_right_deg, 37.0)
        self.assertEqual(after_acts(MiterSaw(), at(-37.3, "swing_left_deg")).swing_left_deg, 37.5)
        self.assertEqual(after_acts(MiterSaw(), at(-20.0, "swing_right_deg")).swing_right_deg, 0.0)
        leaning = Drag(op="drag", grip="tilt_left_deg", x_mm=-50.0, y_mm=50.0)
        self.assertEqual(after_acts(MiterSaw(tilt_left_deg=30.0), leaning).tilt_left_deg, 45.0)

    def test_what_no_saw_has_is_refused(self) -> None:
        for path, text in (("swing_left_deg", "95"), ("swing_step_deg", "0"), ("kerf_mm", "-1"), ("tilt_step_deg", "9")):
            with self.subTest(path), self.assertRaises(ValidationError):
                after_acts(MiterSaw(), TypeIn(op="type", path=path, text=text))
        for act in (Drag(op="drag", grip="handle", x_mm=1, y_mm=1), Free(op="free", measure="swing_left_deg")):
            with self.assertRaises(CoreError):
                after_acts(MiterSaw(), act)

    def test_its_drawing_shows_every_stop_where_it_is_and_as_it_reads(self) -> None:
        machine = MiterSaw(swing_left_deg=30.0, swing_right_deg=60.0, swing_counts_from="fence")
        above, front, *_ = tool_profile_views(machine)
        right = next(g for g in above.grips if g.id == "swing_right_deg")
        self.assertAlmostEqual(right.at[0] / -right.at[1], sin(radians(60)) / cos(radians(60)))
        self.assertEqual([d.value for d in above.dimensions], [60.0, 30.0])
        self.assertEqual([d.value for d in front.dimensions], [45.0, 0.0])
        self.assertEqual(len(tool_profile_controls(machine)), 6)

    def test_the_reach_and_the_rounding_of_both_movements(self) -> None:
        machine = MiterSaw(swing_left_deg=30, swing_right_deg=50, tilt_left_deg=45, tilt_right_deg=2, tilt_step_deg=2.0)
        self.assertTrue(machine.reaches(50.0, 45.0))
        self.assertFalse(machine.reaches(-31.0, 0.0))
        self.assertFalse(machine.reaches(0.0, -2.5))
        self.assertEqual(machine.tilt_as_set(-13.2), -14.0)
        # 13.2 from upright reads 76.8 from the table; the nearest even reading is 76, which is 14 again, of 77.2 it is 78.
        fence = MiterSaw(tilt_counts_from="fence", tilt_step_deg=2.0)
        self.assertEqual((fence.tilt_as_set(13.2), fence.tilt_as_set(12.8)), (14.0, 12.0))
