"""The whole at another size, against plain proportion and the triangle of height, offset and splay."""

import unittest
from copy import deepcopy
from math import atan2, degrees, hypot, radians, tan
from typing import Any

from fennup.core.drawing.edit import Rescale
from fennup.core.errors import SpecError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.project.edit import rescale as rescale_project
from fennup.core.project.starts import TOGETHER
from fennup.core.units.lengths import tape
from tests.core.frames import box, irregular, level, rectangle, regular, solved, spec_of

MM = tape("mm", "1")
STOOL = KINDS["stand"].starts["stool"]  # 450 high, the top 300 by 240, splay 8 and 8, a rail at 120
TOWER = KINDS["stand"].starts["tower"]  # 900 high, rings 70 tall at 60 and 500


def rescaled(spec: Any, measure: str, text: str, keep: list[str] | None = None, **more: Any) -> Any:
    """The solution at another size."""
    act = Rescale(op="rescale", measure=measure, text=text, keep=keep or [], **more)
    rescale = KINDS[spec["kind"]].rescale if "kind" in spec else rescale_project
    assert rescale is not None
    return solved(rescale(spec_of(spec), act, MM))


class AtAnotherSize(unittest.TestCase):
    def read(self, made: Any, **expected: float) -> None:
        for name, value in expected.items():
            self.assertAlmostEqual(made.ruler.measure(name), value, places=6, msg=name)
        self.assertTrue(all(check.closes for check in made.joints))
        for check in made.claims:
            self.assertAlmostEqual(check.measured or 0, check.claim.asked, places=6)

    def test_every_length_goes_in_proportion_and_every_angle_stays(self) -> None:
        made = rescaled(STOOL, "height", "675")
        run = 2 * 675 * tan(radians(8))
        self.read(made, height=675, top_width=450, top_depth=360, front_splay=8, foot_width=450 + run, foot_depth=360 + run)
        self.assertAlmostEqual(made.spec.rails[0].height_mm, 180.0, places=9)
        self.assertEqual((made.spec.leg.width_mm, made.spec.rails[0].width_mm), (45.0, 60.0))

    def test_what_is_kept_stays_and_what_hangs_on_it_follows(self) -> None:
        base = 300 + 2 * 450 * tan(radians(8))
        made = rescaled(STOOL, "height", "600", ["top_width", "foot_width", "top_depth"])
        splay = degrees(atan2((base - 300) / 2, 600))
        self.read(made, height=600, top_width=300, foot_width=base, front_splay=splay, top_depth=240, side_splay=8)
        # The base alone: the splay stays, being an angle, and the top follows.
        self.read(rescaled(STOOL, "height", "600", ["foot_width", "front_splay"]), top_width=base - 2 * 600 * tan(radians(8)))

    def test_another_width_leaves_the_height_that_is_kept_with_what_stands_at_it(self) -> None:
        made = rescaled(STOOL, "top_width", "600", ["height"])
        self.read(made, top_width=600, top_depth=480, height=450, front_splay=8)
        self.assertAlmostEqual(made.spec.rails[0].height_mm, 120.0, places=9)

    def test_sections_and_the_rest_go_in_proportion_where_that_is_wanted(self) -> None:
        made = rescaled(STOOL, "height", "225", rest="in_proportion")
        self.assertEqual((made.spec.leg.width_mm, made.spec.rails[0].thickness_mm, made.spec.top.over_mm), (22.5, 10.0, 10.0))
        # All of it half as large: an eighth of the wood.
        whole, half = (sum(s.volume() for s in m.solids.values()) for m in (solved(STOOL), made))
        self.assertAlmostEqual(half * 8, whole, delta=whole * 1e-9)

    def test_as_many_rings_in_proportion_or_the_same_steps_and_as_many_as_fit(self) -> None:
        def rings(made: Any) -> list[float]:
            return [round(ring.height_mm, 6) for ring in made.spec.rings]

        self.assertEqual(rings(rescaled(TOWER, "height", "1350")), [90.0, 750.0])
        # Steps of 440: a third at 940 ends at 1010, a fourth at 1380 would end at 1450.
        self.assertEqual(rings(rescaled(TOWER, "height", "1440", levels="same_steps")), [60.0, 500.0, 940.0])
        self.assertEqual(rings(rescaled(TOWER, "height", "1450", levels="same_steps")), [60.0, 500.0, 940.0, 1380.0])
        self.assertEqual(rings(rescaled(TOWER, "height", "560", levels="same_steps")), [60.0])

    def test_a_ladder_keeps_its_number_of_treads_or_their_rise(self) -> None:
        ladder = KINDS["brace"].starts["ladder"]  # 6 treads on 2000: a rise of 2000 / 7
        self.assertAlmostEqual(rescaled(ladder, "wall_height", "3000").ruler.measure("tread_rise") or 0, 3000 / 7, places=6)
        made = rescaled(ladder, "wall_height", "4000", levels="same_steps")
        self.assertEqual(made.spec.place.treads.count, 13)
        self.assertAlmostEqual(made.ruler.measure("tread_rise") or 0, 2000 / 7, places=6)

    def test_a_box_a_roof_and_one_of_several_take_another_size_too(self) -> None:
        bin = box(level(300.0, 200.0), 150.0, slope_deg=10.0)
        self.read(rescaled(bin, "height", "300"), outer_bottom_width=600, outer_bottom_depth=400, height=300)
        self.read(rescaled(bin, "outer_top_width", "600", ["height"]), outer_top_width=600, height=150)
        gable = KINDS["roof"].starts["gable"]
        pitch = solved(gable).ruler.measure("left_pitch") or 0
        self.read(rescaled(gable, "left_run", "1500"), left_run=1500, left_pitch=pitch)
        both = rescaled(TOGETHER["bin_on_stand"], "m1/top_width", "720")
        # The bin's foot follows the stand's top.
        self.read(both, **{"m1/top_width": 720, "m1/height": 640, "m2/outer_bottom_width": 720, "m2/height": 380})

    def test_a_flat_frame_takes_another_size_by_any_of_its_lines_and_says_it_there(self) -> None:
        hexagon = regular(6, 40.0, "opening_flats", mm=300.0)
        wider = rescaled(hexagon, "outside_flats", "600")
        self.read(wider, outside_flats=600, opening_flats=600 - 2 * 40)
        self.assertEqual((wider.spec.pins, wider.spec.shape.size.by), (None, "outside_flats"))
        doubled = rescaled(hexagon, "opening_flats", "600", rest="in_proportion")
        self.read(doubled, opening_flats=600, outside_flats=2 * 380)
        plain = rectangle("opening", 600.0, 400.0, 60.0)
        self.read(rescaled(plain, "opening_width", "900"), opening_width=900, opening_depth=600)
        self.read(rescaled(plain, "opening_width", "900", ["opening_depth"]), opening_width=900, opening_depth=400)
        # One size on each line is more than the shape can say: it keeps the line that it had, and both sizes hold.
        mixed = rescaled(plain, "outside_width", "900", ["opening_depth"])
        self.read(mixed, outside_width=900, opening_width=780, opening_depth=400)
        self.assertEqual((mixed.spec.pins, mixed.spec.shape.size.by), (None, "opening"))
        held = regular(8, 58.0, "holds", object_mm=330.0, play_mm=4.0, rabbet={"width_mm": 9.0, "depth_mm": 8.0})
        bigger = rescaled(held, "opening_flats", "632")
        self.assertAlmostEqual(bigger.spec.shape.size.object_mm, 632 + 2 * 9 - 4, places=6)
        gable = irregular(
            [(0, 0), (400, 0), (400, 300), (200, 420), (0, 300)], [{"side": "A", "mm": 400.0}, {"side": "B", "mm": 300.0}]
        )
        grown = rescaled(gable, "outside_side:A", "600")
        self.read(
            grown,
            **{"outside_side:A": 600, "outside_side:B": 450, "outside_side:C": 1.5 * hypot(200, 120), "outside_angle:AB": 90},
        )

    def test_what_cannot_be_kept_is_refused_with_what_it_cannot_be_beside(self) -> None:
        for measure, text, keep, code, field in (
            ("height", "600", ["front_splay", "top_width", "foot_width"], "keep_disagrees", "foot_width"),
            ("height", "-5", [], "rescale_nothing", "height"),
            ("breadth", "5", [], "cannot_measure", "breadth"),
        ):
            with self.assertRaises(SpecError) as refused:
                rescaled(STOOL, measure, text, keep)
            self.assertEqual((refused.exception.code, refused.exception.fields), (code, (field,)))
        linked = deepcopy(TOGETHER["bin_on_stand"])
        with self.assertRaises(SpecError) as follows:
            rescaled(linked, "m2/outer_bottom_width", "500")
        self.assertEqual(follows.exception.code, "size_follows")
