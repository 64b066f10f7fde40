"""Sizes given in the ways people give them: each figure by trigonometry beside the solid's own, and what gives way to it."""

import unittest
from copy import deepcopy
from math import atan, degrees, hypot, radians, tan
from typing import Any

from fennup.core.drawing.edit import Choose, Give
from fennup.core.kinds.catalogue import KINDS
from fennup.core.units.lengths import tape
from tests.core.frames import Solved, after, box, level, solved, spec_of

MM = tape("mm", "1")
TOWER = {
    "kind": "stand", "height_mm": 1500.0, "leg": {"width_mm": 45.0, "thickness_mm": 45.0},
    "plan": {"form": "four", "top_width_mm": 300.0, "top_depth_mm": 300.0, "front_splay_deg": 4.0, "side_splay_deg": 4.0},
}  # fmt: skip


class Ways(unittest.TestCase):
    def given(self, start: dict[str, Any], measure: str, text: str) -> Solved:
        spec = spec_of(after(solved(start).spec, Give(op="give", measure=measure, text=text), MM))
        made = solved(spec.model_dump(mode="json"))
        self.assertIn((measure, False), [(p.measure, p.suggested) for p in spec.given_pins()])
        self.assertIn(made.closing.state, ("exact", "opens"))
        return made

    def reads(self, made: Solved, **wanted: float) -> None:
        for name, value in wanted.items():
            self.assertAlmostEqual(made.ruler.measure(name) or 0.0, value, places=4, msg=name)

    def test_a_tower_crosswise_over_a_face_at_a_height_and_by_its_feet(self) -> None:
        foot = 300 + 2 * 1500 * tan(radians(4))
        self.reads(solved(TOWER), foot_width=foot, crosswise_front=hypot((foot + 300) / 2, 1500, (foot - 300) / 2))
        self.reads(solved(TOWER), foot_width=509.7804, crosswise_front=1557.2213, crosswise_side=1557.2213)
        self.reads(solved(TOWER), foot_diagonal=hypot(foot, foot), other_foot_diagonal=hypot(foot, foot))
        wider = self.given(TOWER, "crosswise_front", "1600")
        self.reads(
            wider,
            crosswise_front=1600.0,
            crosswise_side=hypot((foot + 300) / 2, 1500, ((wider.ruler.measure("foot_width") or 0) - 300) / 2),
        )
        self.reads(
            self.given(TOWER | {"measured_at_mm": 750.0}, "width_there", "420"),
            width_there=420.0,
            foot_width=540.0,
            top_width=300.0,
        )
        # The middle of a foot lies in from its outer corner by half its leg, cut level: the splay does not change that along its side.
        feet = solved(TOWER).ruler.measure("feet_across") or 0.0
        self.reads(self.given(TOWER, "feet_across", "480"), feet_across=480.0)
        self.reads(solved(TOWER), feet_crosswise=hypot(feet, solved(TOWER).ruler.measure("feet_deep") or 0.0))

    def test_a_gable_by_its_peak_a_regular_hip_by_its_pitch(self) -> None:
        gable = self.given(KINDS["roof"].starts["gable"], "peak_angle", "100")
        self.reads(gable, left_pitch=40.0, right_pitch=40.0)
        hip = deepcopy(KINDS["roof"].starts["hip"])
        hip["shape"]["sides"] = 6
        made = self.given(hip, "pitch", "30")
        self.reads(made, rise=hip["shape"]["width_mm"] / 2 * tan(radians(30)))

    def test_a_brace_by_its_slope_keeps_the_corner(self) -> None:
        diagonal = self.given(KINDS["brace"].starts["diagonal"], "brace_pitch", "30")
        self.reads(diagonal, clear=900.0, brace_rise=900 * tan(radians(30)))
        knee = self.given(KINDS["brace"].starts["knee_brace"], "brace_pitch", "60")
        self.reads(knee, corner_angle=90.0, brace_pitch=60.0)
        legs = [knee.ruler.measure(name) or 0.0 for name in ("post_leg", "beam_leg")]
        self.assertAlmostEqual(degrees(atan(legs[0] / legs[1])), 60.0)

    def test_a_box_that_flares_at_a_height_and_crosswise(self) -> None:
        flaring = box(level(400.0, 300.0), 200.0, slope_deg=10.0, measured_at_mm=100.0)
        out = 100 * tan(radians(10))
        made = self.given(flaring, "outer_there:A", "440")
        self.reads(made, **{"outer_there:A": 440.0, "outer_bottom_width": 400.0})
        self.reads(
            solved(flaring),
            **{"outer_there:A": 400 + 2 * out, "outer_there:B": 300 + 2 * out, "outer_bottom_diagonal:DABC": 500.0},
        )
        rise = hypot(200, 2 * out)
        self.reads(
            solved(flaring), **{"crosswise:A": hypot(rise, 400 + 2 * out), "other_crosswise:A": hypot(rise, 400 + 2 * out)}
        )
        there = spec_of(after(spec_of(flaring), Choose(op="choose", path="measured_at_mm", value=None), MM))
        self.assertIsNone(solved(there.model_dump(mode="json")).ruler.measure("outer_there:A"))


if __name__ == "__main__":
    unittest.main()
