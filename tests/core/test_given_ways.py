"""Sizes given in the ways people give them: each figure by trigonometry beside the solid's own, and what gives way to it."""

import unittest
from copy import deepcopy
from math import acos, atan, cos, degrees, hypot, radians, sin, tan
from typing import Any

from fennup.core.drawing.edit import Choose, Give
from fennup.core.errors import SpecError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.solid import extent_along
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof
from tests.core.frames import Solved, after, box, level, rectangle, shown, solved, spec_of

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


class SetsAField(unittest.TestCase):
    """Sizes that are had by moving one figure of the spec: nothing is pinned by them."""

    def set(self, start: dict[str, Any], measure: str, text: str) -> Solved:
        spec = spec_of(after(solved(start).spec, Give(op="give", measure=measure, text=text), MM))
        self.assertNotIn(measure, [p.measure for p in spec.given_pins()])
        made = solved(spec.model_dump(mode="json"))
        self.assertAlmostEqual(made.ruler.measure(measure) or 0.0, float(text), places=9)
        return made

    def test_a_rail_by_its_upper_edge_and_a_ring_by_its_outside(self) -> None:
        rail = {"height_mm": 300.0, "width_mm": 60.0, "thickness_mm": 20.0}
        made = self.set(TOWER | {"rails": [rail]}, "upper_edge:1", "500")
        # Along the slope of the other sides the rail's own slope foreshortens its width.
        self.assertAlmostEqual(made.spec.rails[0].height_mm, 500 - 60 * cos(radians(4)), places=6)
        ring = {"height_mm": 300.0, "tall_mm": 70.0, "thickness_mm": 20.0}
        made = self.set(TOWER | {"rings": [ring]}, "ring_outside:A1", "480")
        low, high = (
            solved(TOWER | {"rings": [ring | {"height_mm": h}]}).ruler.measure("ring_outside:A1") or 0.0 for h in (0.0, 100.0)
        )
        self.assertAlmostEqual(low - high, 2 * 100 * tan(radians(4)))
        self.assertAlmostEqual(made.spec.rings[0].height_mm, (low - 480) / (2 * tan(radians(4))), places=6)

    def test_a_spacer_stick_says_how_far_apart_rails_and_shelves_are(self) -> None:
        rails = [{"height_mm": at, "width_mm": 60.0, "thickness_mm": 20.0} for at in (200.0, 700.0)]
        made = self.set(TOWER | {"rails": rails}, "spacer:1-2", "320")
        # Up the slope of the side: the first rail and the stick.
        self.assertAlmostEqual(made.spec.rails[1].height_mm, 200 + (60 + 320) * cos(radians(4)), places=6)
        shelves = [{"height_mm": at, "thickness_mm": 12.0} for at in (60.0, 200.0)]
        made = self.set(box(level(300.0, 400.0), 120.0, shelves=shelves), "shelf_spacer:1-2", "100")
        self.assertAlmostEqual(made.spec.shelves[1].height_mm, 60 + 12 + 100, places=6)

    def test_the_legs_follow_a_ring_that_keeps_its_height(self) -> None:
        ring = {"height_mm": 300.0, "tall_mm": 70.0, "thickness_mm": 20.0, "moves": "legs"}
        start = solved(TOWER | {"rings": [ring]})
        spec = after(start.spec, Give(op="give", measure="ring_outside:A1", text="480"), MM)
        made = solved(spec.model_dump(mode="json") if not isinstance(spec, dict) else spec)
        self.assertEqual(made.spec.rings[0].height_mm, 300.0)
        self.assertAlmostEqual(made.ruler.measure("ring_outside:A1") or 0.0, 480.0, places=6)
        self.assertNotAlmostEqual(start.ruler.measure("ring_outside:A1") or 0.0, 480.0, places=0)
        # Taken away with its ring, the size holds the legs no longer.
        for act in (Choose(op="choose", path="rings", value=[]), Choose(op="choose", path="rings.0.moves", value="ring")):
            left = solved(spec_of(after(made.spec, act, MM)).model_dump(mode="json"))
            self.assertNotIn("ring_outside:A1", [pin.measure for pin in left.spec.given_pins()])

    def test_a_gusset_by_its_long_edge_and_one_that_cannot_be(self) -> None:
        inner = {"thickness_mm": 12.0, "gussets": {"set_back_mm": 60.0, "width_mm": 30.0}}
        start = rectangle("opening", 500.0, 300.0, 40.0, inner=inner)
        made = self.set(start, "gusset_long_edge", "200")
        # Square to the corner's half: the far edge is a width deeper, on both sides.
        self.assertAlmostEqual(made.spec.inner.gussets.set_back_mm, (200 - 2 * 30) / 2**0.5, places=6)
        with self.assertRaises(SpecError) as refused:
            after(solved(start).spec, Give(op="give", measure="gusset_long_edge", text="20"), MM)
        self.assertEqual((refused.exception.code, refused.exception.fields), ("measure_impossible", ("gusset_long_edge",)))


class Aprons(unittest.TestCase):
    RAIL = {"height_mm": 300.0, "width_mm": 60.0, "thickness_mm": 20.0, "outside": True, "over_mm": 15.0}

    def test_a_rail_outside_on_leaning_legs_lies_on_both_and_ends_along_the_next_sides(self) -> None:
        for roll, sides in (("in_plane", "AC"), ("rhombic", "all")):
            over = 15.0 if sides == "AC" else 0.0
            made = solved(TOWER | {"roll": roll, "rails": [self.RAIL | {"sides": sides, "over_mm": over}]})
            self.assertEqual(made.closing.state, "exact")
            self.assertTrue(boolean_proof(made.assembly, made.solids).confirms(made.closing, made.joints))
            back = extent_along(made.assembly.board("rail A1"), -30.0, -10.0)
            # As wide as the stand is 300 up, and past it at both ends, square to the next sides.
            self.assertAlmostEqual(back[1] - back[0], 300 + 2 * 1200 * tan(radians(4)) + 2 * over / cos(radians(4)))

    def test_a_leg_turned_out_of_the_side_is_refused_by_how_much(self) -> None:
        with self.assertRaises(SpecError) as refused:
            solved(TOWER | {"rails": [self.RAIL | {"sides": "BD"}]})
        self.assertEqual((refused.exception.code, refused.exception.fields), ("apron_twisted", ("rails.0.outside",)))
        residual = 90 - degrees(
            acos(-(sin(radians(4)) ** 2))
        )  # of two planes that lean alike, seen from above square to each other
        self.assertAlmostEqual(refused.exception.data["deg"], abs(residual), places=3)


class HipsOnARidge(unittest.TestCase):
    def hip(self, **said: Any) -> dict[str, Any]:
        start = deepcopy(KINDS["roof"].starts["hip"])
        ridge = {"length_mm": 800.0, "thickness_mm": 25.0, "depth_mm": 135.0}
        start["shape"] |= {"width_mm": 1600.0, "depth_mm": 2400.0, "rise_mm": 560.0, "spacing_mm": 300.0, "ridge": ridge, **said}
        return start

    def test_hips_commons_and_jacks_by_the_triangles_of_the_roof(self) -> None:
        for foot in ("flush", "seat"):
            made = solved(self.hip(foot=foot))
            self.assertIn(made.closing.state, ("exact", "opens"))
            self.assertTrue(boolean_proof(made.assembly, made.solids).confirms(made.closing, made.joints))
            read = made.ruler.measure
            # As much shorter than the eaves as they are wide: one pitch all round, and the hips at 45 from above.
            self.assertAlmostEqual(read("front_pitch") or 0.0, read("side_pitch") or 1.0)
            self.assertAlmostEqual(read("hip_length") or 0.0, hypot(800, 800, 560))
            commons = [facts for facts in made.facts if facts.key.startswith("common")]
            self.assertEqual(
                sum(len(facts.group.boards) for facts in commons), 6
            )  # one in the middle and one 300 to either side, on both
            pitch = atan(560 / 800)
            # The ridge's top edges lie in the roof's planes.
            self.assertAlmostEqual(max(p[2] for p in made.solids["ridge"].world[0].points), 560 - 12.5 * tan(pitch))
            self.assertAlmostEqual(commons[0].arrises["face_upper"], (800 - 12.5) / cos(pitch))

    def test_a_pitch_that_is_given_moves_the_ridges_end(self) -> None:
        spec = solved(self.hip()).spec
        for measure in ("eaves_width", "eaves_depth", "rise"):
            spec = spec_of(after(spec, Give(op="give", measure=measure), MM))
        spec = spec_of(after(spec, Give(op="give", measure="front_pitch", text="45"), MM))
        made = solved(spec.model_dump(mode="json"))
        self.assertAlmostEqual(made.ruler.measure("ridge_length") or 0.0, 2400 - 2 * 560)
        self.assertAlmostEqual(made.ruler.measure("side_pitch") or 0.0, degrees(atan(560 / 800)))

    def test_what_is_no_ridge_is_refused(self) -> None:
        long, short = ({"length_mm": mm, "thickness_mm": 25.0, "depth_mm": 135.0} for mm in (2400.0, 20.0))
        for code, field, said in (
            ("ridge_too_long", "shape.ridge.length_mm", {"ridge": long}), ("ridge_nothing", "shape.ridge.length_mm", {"ridge": short}),
            ("ridge_needs_four", "shape.ridge", {"sides": 6}),
        ):  # fmt: skip
            with self.subTest(code), self.assertRaises(SpecError) as refused:
                solved(self.hip(**said))
            self.assertEqual((refused.exception.code, refused.exception.fields), (code, (field,)))


class Gables(unittest.TestCase):
    """Feet, tails, heels and heads of rafters 90 deep on a run of 900 at 35 degrees, by the triangles of the pitch."""

    def gable(self, **said: Any) -> Solved:
        start = deepcopy(KINDS["roof"].starts["gable"])
        start["depth_mm"] = 90.0
        start["shape"] |= {
            "left": {"run_mm": 900.0, "pitch_deg": 35.0},
            "overhang_mm": 150.0,
            "heel_mm": 30.0,
            "pairs": 1,
            **said,
        }
        made = solved(start)
        self.assertIn(made.closing.state, ("exact", "opens"))
        return made

    def lower_edge(self, made: Solved) -> float:
        facts = next(facts for facts in made.facts if facts.key == "left1")
        return facts.arrises["face_lower"]

    def test_a_square_tail_keeps_the_top_edge_and_makes_the_lower_one_longer(self) -> None:
        plumb, square = self.gable(), self.gable(tail="square")
        self.assertAlmostEqual(plumb.ruler.measure("left_top_edge") or 0.0, square.ruler.measure("left_top_edge") or 1.0)
        self.assertAlmostEqual(self.lower_edge(plumb) - self.lower_edge(square), 90 * tan(radians(35)))

    def test_feet_with_one_cut_only(self) -> None:
        pointed = self.gable(foot="level")
        # Level through all of it: the seat is as long as the depth over the sine of the pitch.
        seat = [p[0] for patch in pointed.solids["left1"].patches("left:0") for p in patch.points]
        self.assertAlmostEqual(max(seat) - min(seat), 90 / sin(radians(35)))
        plumb = self.gable(foot="plumb")
        face = [p[2] for patch in plumb.solids["left1"].patches("left:0") for p in patch.points]
        self.assertAlmostEqual(max(face) - min(face), 90 / cos(radians(35)))
        self.assertAlmostEqual(min(face), 0.0)

    def test_a_heel_of_its_own_lifts_that_wall(self) -> None:
        ridge = {"thickness_mm": 25.0, "depth_mm": 200.0}
        alike = self.gable(ridge=ridge, right={"run_mm": 900.0, "pitch_deg": 35.0})
        own = self.gable(ridge=ridge, right={"run_mm": 900.0, "pitch_deg": 35.0, "heel_mm": 20.0})
        self.assertAlmostEqual(alike.ruler.measure("eaves_step") or 0.0, 0.0)
        self.assertAlmostEqual(own.ruler.measure("eaves_step") or 0.0, -10.0)

    def test_plumb_heads_of_unlike_pitches_meet_over_the_ridge(self) -> None:
        made = self.gable(ridge=None, heads="plumb", right={"run_mm": 700.0, "pitch_deg": 50.0})
        for id in ("left1", "right1"):
            head = [p for patch in made.solids[id].patches("right:0") for p in patch.points]
            self.assertLess(max(abs(p[0]) for p in head), 1e-9)
        tall = [max(p[2] for piece in made.solids[id].world for p in piece.points) for id in ("left1", "right1")]
        self.assertAlmostEqual(tall[0], tall[1])


class Treads(unittest.TestCase):
    def test_at_heights_of_their_own_their_tops_stand_there(self) -> None:
        ladder = deepcopy(KINDS["brace"].starts["ladder"])
        ladder["place"]["treads"]["tops_mm"] = [300.0, 700.0, 1300.0]
        made = solved(ladder)
        tops = sorted(
            max(p[2] for piece in made.solids[id].world for p in piece.points) for id in made.solids if id.startswith("tread")
        )
        foot = min(p[2] for piece in made.solids["prop"].world for p in piece.points)
        self.assertEqual([round(top - foot, 6) for top in tops], [300.0, 700.0, 1300.0])
        self.assertIn(made.closing.state, ("exact", "opens"))
        ladder["place"]["treads"]["tops_mm"] = [300.0, 310.0]
        with self.assertRaises(SpecError) as refused:
            solved(ladder)
        self.assertEqual((refused.exception.code, refused.exception.fields), ("treads_close", ("place.treads.tops_mm",)))


class Spacing(unittest.TestCase):
    """Bars 20 wide in a frame 500 clear, their middles from the left."""

    def middles(self, **said: Any) -> list[float]:
        bars = {"count": 3, "width_mm": 20.0, "way_deg": 90.0, **said}
        made = solved(rectangle("opening", 500.0, 300.0, 40.0, inner={"thickness_mm": 12.0, "bars": [bars]}))
        self.assertTrue(all(check.closes for check in made.joints))
        found = [board.frame.origin[0] for board in made.assembly.boards if board.id.startswith("X")]
        return [round(x + 250, 6) for x in sorted(found)]

    def test_each_way_of_spacing(self) -> None:
        self.assertEqual(self.middles(spacing="pitch", step_mm=120.0), [130.0, 250.0, 370.0])
        self.assertEqual(
            self.middles(spacing="gap", step_mm=120.0), [110.0, 250.0, 390.0]
        )  # 120 and a width from middle to middle
        self.assertEqual(self.middles(spacing="ends", margin_mm=50.0), [50.0, 250.0, 450.0])
        self.assertEqual(self.middles(spacing="places", places_mm=[400.0, 60.0]), [60.0, 400.0])
        self.assertEqual(self.middles(spacing="margins", margin_mm=50.0), [60.0, 250.0, 440.0])

    def test_as_many_as_it_takes(self) -> None:
        # Equal centres of at most 110: four leave 100 each, three would leave 125. Flush, wall to wall of 480: six at 96.
        self.assertEqual(self.middles(spacing="centres", most_mm=110.0), [100.0, 200.0, 300.0, 400.0])
        self.assertEqual(len(self.middles(spacing="flush", most_mm=100.0)), 6)
        self.assertEqual(self.middles(spacing="ends", margin_mm=50.0, most_mm=200.0), [50.0, 250.0, 450.0])
        # With equal gaps the sides hold as well: one in the middle is 250 from either.
        self.assertEqual([len(self.middles(spacing="gaps", most_mm=most)) for most in (260.0, 240.0, 170.0)], [1, 2, 3])

    def test_what_has_no_room_is_refused_at_its_field(self) -> None:
        for code, field, said in (
            ("bars_too_many", "count", {"spacing": "pitch", "step_mm": 245.0}),
            ("bars_too_many", "count", {"spacing": "pitch", "step_mm": 15.0}),
            ("no_step", "step_mm", {"spacing": "gap"}),
            ("no_places", "places_mm", {"spacing": "places"}),
            ("place_outside", "places_mm.1", {"spacing": "places", "places_mm": [100.0, 495.0]}),
            ("places_close", "places_mm.1", {"spacing": "places", "places_mm": [100.0, 110.0]}),
        ):
            with self.subTest(code), self.assertRaises(SpecError) as refused:
                self.middles(**said)
            self.assertEqual((refused.exception.code, refused.exception.fields), (code, (f"inner.bars.0.{field}",)))

    def test_every_way_that_is_offered_can_be_taken(self) -> None:
        bars = {"count": 3, "width_mm": 20.0}
        made = solved(rectangle("opening", 500.0, 300.0, 40.0, inner={"thickness_mm": 12.0, "bars": [bars]}))
        (control,) = (c for c in shown(made).controls if c.code == "bars_spacing")
        for option in control.options:
            spec = made.spec
            for act in option.acts:
                spec = spec_of(after(spec, act, MM))
            self.assertEqual(len([b for b in solved(spec.model_dump(mode="json")).assembly.boards if b.id.startswith("X")]), 3)


if __name__ == "__main__":
    unittest.main()


class WhatAnIrregularFrameHolds(unittest.TestCase):
    PANEL = ((0.0, 0.0), (300.0, 0.0), (260.0, 200.0), (20.0, 190.0))
    FRAME = {
        "kind": "flat_frame", "board": {"width_mm": 50.0, "thickness_mm": 20.0}, "rabbet": {"width_mm": 9.0, "depth_mm": 8.0},
        "shape": {"form": "irregular", "line": "held", "play_mm": 3.0, "corners": PANEL, "pins": []},
    }  # fmt: skip

    def test_the_rabbet_goes_round_the_panel_with_half_the_play_at_each_side(self) -> None:
        made = solved(self.FRAME)
        self.assertAlmostEqual(made.ruler.measure("held_side:A") or 0.0, 300.0, places=9)
        self.assertAlmostEqual(made.ruler.measure("held_side:C") or 0.0, hypot(240.0, 10.0), places=9)
        for line, inwards in (("rabbet", -1.5), ("opening", 9.0 - 1.5), ("outside", 9.0 - 1.5 - 50.0)):
            (x0, y0), (x1, y1) = self.PANEL[1], self.PANEL[2]
            long, (run, _) = hypot(x1 - x0, y1 - y0), (made.ruler.runs(line) or {})["B"]
            off = ((x1 - x0) * (run[1] - y0) - (y1 - y0) * (run[0] - x0)) / long
            self.assertAlmostEqual(off, inwards, places=9)

    def test_its_sizes_are_given_and_the_frame_stays_when_it_is_said_the_other_way(self) -> None:
        longer = spec_of(after(spec_of(self.FRAME), Give(op="give", measure="held_side:A", text="310"), MM))
        made = solved(longer.model_dump(mode="json"))
        self.assertAlmostEqual(made.ruler.measure("held_side:A") or 0.0, 310.0, places=6)
        volumes = {id: solid.volume() for id, solid in made.solids.items()}
        opening = spec_of(after(longer, Choose(op="choose", path="shape.line", value="opening"), MM))
        back = spec_of(after(opening, Choose(op="choose", path="shape.line", value="held"), MM))
        bare = spec_of(after(longer, Choose(op="choose", path="rabbet", value=None), MM))
        self.assertEqual(
            (opening.shape.line, back.shape.line, back.shape.play_mm, bare.shape.line), ("opening", "held", 2.0, "opening")
        )
        for spec in (opening, back):
            for id, solid in solved(spec.model_dump(mode="json")).solids.items():
                self.assertAlmostEqual(solid.volume(), volumes[id], places=3)
