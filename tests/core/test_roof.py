"""Roofs against F15 for rafters and plain trigonometry for panels and hips."""

import unittest
from math import acos, asin, atan, atan2, cos, degrees, hypot, pi, radians, sin, sqrt, tan
from typing import Any

from fennup.core.drawing.edit import Give
from fennup.core.errors import SpecError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.kinds.roof.hip import backing_deg, jack_in_theory, planes_of
from fennup.core.parts.solid import end_cut, rip_bevel_deg
from fennup.core.tolerances import SAME
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof
from tests.core.frames import Solved, solved, spec_of

MM = tape("mm", "1")
ROOF = KINDS["roof"]


def roof(
    form: str, thickness: float, depth: float = 90.0, pins: list[dict[str, Any]] | None = None, **shape: Any
) -> dict[str, Any]:
    """A roof of one form."""
    return {"kind": "roof", "shape": {"form": form, **shape}, "depth_mm": depth, "thickness_mm": thickness, "pins": pins}


def gable(pitch: float = 35.0, **shape: Any) -> dict[str, Any]:
    """A gable of one pair, 900 from wall to ridge, 30 of heel."""
    return roof("gable", 40.0, 95.0, left={"run_mm": 900.0, "pitch_deg": pitch}, **({"heel_mm": 30.0} | shape))


def seat_mm(made: Solved, rafter: str) -> float:
    """How long the level seat of a birdsmouth is, measured on the finished rafter."""
    xs = [p[0] for patch in made.solids[rafter].patches("notch:0") for p in patch.points]
    return max(xs) - min(xs)


class Closes(unittest.TestCase):
    def both_ways(self, made: Solved) -> None:
        """Every joint closes, and so do the solids."""
        self.assertEqual([check for check in made.joints if not check.closes], [])
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds)


class AGable(Closes):
    def test_a_rafter_is_as_long_as_its_run_and_rise_make_it(self) -> None:
        pins = [{"measure": "left_run", "mm": 2133.6}, {"measure": "left_pitch", "deg": degrees(atan2(7, 12))}]
        ridge = {"thickness_mm": 38.1, "depth_mm": 184.0}
        shape = {"left": {"run_mm": 2000.0, "pitch_deg": 20.0}, "ridge": ridge, "heel_mm": 38.1, "overhang_mm": 304.8}
        made = solved(roof("gable", 38.1, 140.0, pins=pins, **shape))
        slope = hypot(7, 12) / 12
        for name, expected in (
            ("left_pitch", 30.2564),
            ("left_top_edge", (2133.6 - 19.05 + 304.8) * slope),
            ("left_ridge_to_heel", (2133.6 - 19.05) * slope),
        ):
            self.assertAlmostEqual(made.ruler.measure(name) or 0, expected, delta=5e-5)
        low, high = made.solids["left1"].extent_x()
        self.assertAlmostEqual(high - low, (2133.6 - 19.05 + 304.8) * slope + 140 * 7 / 12, places=6)
        self.assertAlmostEqual(high - low, 2882.5570, places=4)
        self.assertAlmostEqual(seat_mm(made, "left1"), 38.1 * 12 / 7, places=6)
        self.both_ways(made)

    def test_the_plumb_cut_is_the_pitch_and_the_seat_the_rest_of_a_right_angle(self) -> None:
        made = solved(gable(32, foot="seat", ridge={"thickness_mm": 30.0, "depth_mm": 150.0}))
        board = made.assembly.board("right1")
        miters = [abs(end_cut(cut).miter_deg) for cut in (*board.left, *board.right)]
        for got, expected in zip(miters, (32.0, 58.0, 32.0), strict=True):
            self.assertAlmostEqual(got, expected, places=9)
        self.both_ways(made)

    def test_without_a_ridge_unequal_pitches_are_mitered_and_the_walls_differ_in_height(self) -> None:
        made = solved(gable(40, right={"run_mm": 700.0, "pitch_deg": 25.0}))
        cuts = [end_cut(made.assembly.board(id).right[0]).miter_deg for id in ("left1", "right1")]
        self.assertAlmostEqual(sum(map(abs, cuts)), 40 + 25, places=9)
        # Both top edges meet over the ridge: each stands over its wall by the run's rise and the plumb depth.
        above = [run * tan(radians(p)) + 95 / cos(radians(p)) for run, p in ((900, 40), (700, 25))]
        self.assertAlmostEqual(made.ruler.measure("eaves_step") or 0, above[0] - above[1], places=9)
        self.both_ways(made)

    def test_a_pitch_can_be_given_as_rise_in_run_or_by_two_heights(self) -> None:
        spec = ROOF.spec.model_validate(ROOF.edit(spec_of(gable()), Give(op="give", measure="left_pitch", text="7 in 12"), MM))
        self.assertAlmostEqual(spec.shape.left.pitch_deg, degrees(atan(7 / 12)), places=9)
        pins = [{"measure": "left_run", "mm": 900.0}, {"measure": "left_rise", "mm": 900.0}]
        self.assertAlmostEqual(solved(gable() | {"pins": pins}).spec.shape.left.pitch_deg, 45.0, places=9)

    def test_a_notch_of_more_than_a_third_is_warned_of(self) -> None:
        for heel, warned in ((30.0, False), (60.0, True)):
            self.assertEqual("notch_deep" in {f.code for f in solved(gable(heel_mm=heel)).findings}, warned)

    def test_a_level_and_an_upright_roof_are_refused_in_words(self) -> None:
        for pitch in (0.0, 90.0):
            with self.assertRaises(SpecError) as refused:
                spec_of(gable(pitch))
            self.assertEqual((refused.exception.code, refused.exception.fields), ("pitch_range", ("shape.left.pitch_deg",)))


class APyramid(Closes):
    def test_six_panels_at_45(self) -> None:
        made = solved(roof("pyramid", 12.7, sides=6, across_mm=762.0, height_mm=381.0))
        cut = end_cut(made.assembly.board("A").right[0])
        half, pitch = pi / 6, radians(45)
        self.assertAlmostEqual(abs(cut.miter_deg), degrees(atan(tan(half) * cos(pitch))), places=9)
        self.assertAlmostEqual(abs(cut.bevel_deg), degrees(asin(sin(half) * sin(pitch))), places=9)
        self.assertAlmostEqual(abs(cut.bevel_deg), 20.7048, places=4)
        self.assertAlmostEqual(made.ruler.measure("slant") or 0, 381 * sqrt(2), places=9)
        self.assertAlmostEqual(made.ruler.measure("seam") or 0, hypot(381 * sqrt(2), 381 * tan(half)), places=9)
        dihedral = 180 - degrees(acos(cos(pi / 3) * sin(pitch) ** 2 + cos(pitch) ** 2))
        rows = {row.measure: row.value for row in ROOF.describe(made.spec, made.ruler, made.solids).sizes}
        self.assertAlmostEqual(rows["dihedral_angle"], dihedral, places=9)
        self.assertAlmostEqual(rows["dihedral_angle"], 138.5904, places=4)
        self.both_ways(made)

    def test_any_number_of_sides_closes_with_any_eaves(self) -> None:
        for sides in (3, 4, 5, 12):
            for eaves, bevel in (("level", 90 - 40), ("plumb", 40), ("square", None)):
                height = 300 * tan(radians(40))
                made = solved(roof("pyramid", 15.0, sides=sides, across_mm=600.0, height_mm=height, eaves=eaves))
                rip = made.assembly.board("A").lower_rip
                self.assertEqual(rip is None, bevel is None)
                if rip and bevel:
                    self.assertAlmostEqual(abs(rip_bevel_deg(rip)), bevel, places=9)
                self.both_ways(made)


class AHip(Closes):
    def test_unequal_pitches_over_a_square_corner(self) -> None:
        pins = [
            {"measure": "eaves_depth", "mm": 4000.0},
            {"measure": "front_pitch", "deg": 30.0},
            {"measure": "side_pitch", "deg": 45.0},
        ]
        shape = {"width_mm": 3000.0, "depth_mm": 3000.0, "rise_mm": 1000.0, "hip_thickness_mm": 45.0, "hip_depth_mm": 200.0}
        made = solved(roof("hip", 45.0, 120.0, pins=pins, spacing_mm=350.0, **shape))
        rise = 2000 * tan(radians(30))
        plan = hypot(2000, rise)  # at 45 degrees the run of the side is the rise
        hip, jack = made.assembly.board("hip AB"), made.assembly.board("jack A1r")
        self.assertAlmostEqual(made.ruler.measure("hip_length") or 0, hypot(plan, rise), places=6)
        self.assertAlmostEqual(made.ruler.measure("hip_length") or 0, 2581.9889, places=4)
        self.assertAlmostEqual(made.ruler.measure("hip_pitch") or 0, degrees(atan2(rise, plan)), places=7)
        # Backing: sin of the hip's pitch times how far its plan turns from each side's own run (30 and 60 degrees), over.
        hip_pitch = atan2(rise, plan)
        expected = {degrees(atan(sin(hip_pitch) / tan(radians(turn)))) for turn in (30, 60)}
        for got, want in zip(sorted(backing_deg(hip)), sorted(expected), strict=True):
            self.assertAlmostEqual(got, want, places=6)
        self.assertAlmostEqual(min(backing_deg(hip)), 14.4775, places=4)
        self.assertAlmostEqual(max(backing_deg(hip)), 37.7612, places=4)
        # The same two, read off the finished hips, stand in what the application gives out.
        backed = [part for part in made.facts if any(rip.backing for rip in part.rips)]
        self.assertTrue(backed)
        for part in backed:
            read = sorted(abs(rip.bevel_deg) for rip in part.rips if rip.edge == "upper")
            for got, want in zip(read, (14.4775, 37.7612), strict=True):
                self.assertAlmostEqual(got, want, places=4)
        theory = jack_in_theory(jack, hip, planes_of(made.spec.shape)[0])
        self.assertAlmostEqual(theory, 350 * 2000 / rise / cos(radians(30)), places=6)
        # Half the hip's thickness, 45 along the jack's run where the hip turns 30 degrees from it.
        self.assertAlmostEqual(made.ruler.measure("jack_length:A") or 0, 700 - 45 / cos(radians(30)), places=6)
        cut = end_cut(jack.right[0])
        self.assertAlmostEqual(abs(cut.miter_deg), 30.0, places=6)
        self.assertAlmostEqual(abs(cut.bevel_deg), 60.0, places=6)
        self.both_ways(made)

    def test_hips_of_a_regular_plan_meet_in_one_point(self) -> None:
        for sides in (3, 5, 8):
            shape = {"sides": sides, "width_mm": 2000.0, "depth_mm": 2000.0, "rise_mm": 700.0, "hip_thickness_mm": 40.0}
            made = solved(roof("hip", 30.0, 70.0, spacing_mm=220.0, hip_depth_mm=140.0, **shape))
            corner = 1000 / cos(pi / sides)
            self.assertAlmostEqual(made.ruler.measure("hip_length") or 0, hypot(corner, 700), places=6)
            self.both_ways(made)

    def test_seated_on_a_frame_of_plates_every_foot_is_cut_level_as_long_as_its_depth_leaves(self) -> None:
        shape = {"width_mm": 1600.0, "depth_mm": 2000.0, "rise_mm": 600.0, "hip_thickness_mm": 40.0, "hip_depth_mm": 125.0}
        seats = {"foot": "seat", "above_plate_mm": 80.0, "plate_mm": 120.0}
        made = solved(roof("hip", 40.0, 90.0, spacing_mm=300.0, **shape, **seats))
        for jack, run in (("jack A1l", 1000.0), ("jack B1l", 800.0)):
            pitch = atan2(600.0, run)
            seat = [p for patch in made.solids[jack].patches("left:1") for p in patch.points]
            self.assertEqual({round(p[2], 6) for p in seat}, {-80.0})
            across = [p[1] if jack.startswith("jack A") else p[0] for p in seat]
            self.assertAlmostEqual(max(across) - min(across), (90.0 / cos(pitch) - 80.0) / tan(pitch), places=6)
        # A hip's seat lies on the plates of both its sides.
        hip = next(joint for joint in made.assembly.joints if joint.id == "hip AB seat")
        self.assertEqual((hip.b.board, hip.b.beside), ("plate A", ("plate B",)))
        self.both_ways(made)
        with self.assertRaises(SpecError) as refused:
            solved(roof("hip", 40.0, 60.0, spacing_mm=300.0, **shape, **seats))
        self.assertEqual((refused.exception.code, refused.exception.fields), ("no_seat", ("shape.above_plate_mm",)))

    def test_hips_and_jacks_over_a_rectangle_come_in_handed_pairs(self) -> None:
        shape = {"width_mm": 1600.0, "depth_mm": 2000.0, "rise_mm": 600.0, "hip_thickness_mm": 40.0, "hip_depth_mm": 125.0}
        for foot in ("flush", "seat"):
            made = solved(roof("hip", 40.0, 90.0, spacing_mm=500.0, foot=foot, **shape))
            parts = {part.id: (len(part.boards), part.mirror_of) for part in made.parts}
            self.assertEqual((parts["hip AB"], parts["hip BC"]), ((2, None), (2, "hip AB")))
            for side in "AB":
                self.assertEqual(parts[f"jack {side}1l"], (2, None))
                self.assertEqual(parts[f"jack {side}1r"], (2, f"jack {side}1l"))

    def test_over_the_walls_it_runs_on_by_as_much_as_is_said(self) -> None:
        shape = {"width_mm": 1600.0, "depth_mm": 1600.0, "rise_mm": 560.0, "hip_thickness_mm": 40.0, "hip_depth_mm": 130.0}
        feet = {"foot": "birdsmouth", "above_plate_mm": 70.0, "overhang_mm": 200.0}
        made = solved(roof("hip", 40.0, spacing_mm=300.0, **shape, **feet))
        # Level, a hip runs 800 each way to the wall, and 200 of both on past it: a quarter more.
        hip = hypot(800.0, 800.0, 560.0)
        self.assertAlmostEqual(made.ruler.measure("hip_length") or 0.0, hip, places=6)
        self.assertAlmostEqual(made.ruler.measure("hip_top_edge") or 0.0, 1.25 * hip, places=6)
        first = next(board for board in made.assembly.boards if board.id == "jack A1r")
        tail = min(p[1] for piece in made.solids[first.id].world for p in piece.points)
        self.assertAlmostEqual(tail, -1000.0, places=6)
        # The seat lies `above` plumb under the roof, and the heel is plumb under the corner.
        seat = [p for patch in made.solids["hip AB"].patches("notch:0") for p in patch.points]
        self.assertTrue(all(abs(p[2] + 70.0) < SAME for p in seat))
        self.both_ways(made)

    def test_a_side_too_steep_for_the_hip_to_sit_is_refused(self) -> None:
        shape = {"width_mm": 200.0, "depth_mm": 3000.0, "rise_mm": 1500.0, "hip_thickness_mm": 60.0, "hip_depth_mm": 60.0}
        with self.assertRaises(SpecError) as refused:
            solved(roof("hip", 30.0, spacing_mm=500.0, **shape))
        self.assertEqual((refused.exception.code, refused.exception.fields), ("backing_deep", ("shape.hip_depth_mm",)))


class ALeanTo(Closes):
    def test_its_sides_are_trapezoids_and_the_lid_lies_on_all_four(self) -> None:
        made = solved(roof("lean_to", 20.0, width_mm=900.0, depth_mm=400.0, front_mm=300.0, back_mm=500.0, over_mm=25.0))
        self.assertAlmostEqual(made.ruler.measure("pitch") or 0, degrees(atan2(200, 400)), places=9)
        # Between front and back 360 are left; inside the lid is 10 above the front's height at 20 in, 490 at 380.
        self.assertAlmostEqual(made.solids["left"].volume(), 20 * 360 * (310 + 490) / 2, places=3)
        self.assertAlmostEqual(abs(rip_bevel_deg(made.assembly.board("front").upper_rip)), degrees(atan2(200, 400)), places=9)  # type: ignore[arg-type]
        self.both_ways(made)

    def test_its_sides_lie_under_the_lid_however_steep_that_is(self) -> None:
        made = solved(roof("lean_to", 20.0, width_mm=900.0, depth_mm=400.0, front_mm=300.0, back_mm=30_000.0))
        self.assertEqual({j.b.board for j in made.assembly.joints if j.a.board == "left"}, {"front", "back", "lid"})
        self.assertTrue(all(check.closes for check in made.joints))

    def test_a_back_no_higher_than_the_front_is_refused(self) -> None:
        with self.assertRaises(SpecError) as refused:
            solved(roof("lean_to", 20.0, width_mm=900.0, depth_mm=400.0, front_mm=300.0, back_mm=300.0))
        self.assertEqual(refused.exception.fields, ("shape.back_mm",))

    def test_its_lid_is_as_thick_as_is_said_and_stays_hinged_at_the_back(self) -> None:
        cover = {
            "thickness_mm": 12.0,
            "over_mm": 25.0,
            "overs_mm": {"A": 40.0, "C": 0.0},
            "hinge": "C",
            "strip_mm": 50.0,
            "gap_mm": 3.0,
        }
        made = solved(roof("lean_to", 20.0, width_mm=900.0, depth_mm=400.0, front_mm=300.0, back_mm=500.0, cover=cover))
        slope = hypot(400.0, 200.0)
        self.assertAlmostEqual(made.solids["lid"].volume(), 950.0 * (slope + 40.0 - 53.0) * 12.0, places=3)
        self.assertAlmostEqual(made.solids["hinge strip"].volume(), 950.0 * 50.0 * 12.0, places=3)
        self.both_ways(made)
        with self.assertRaises(SpecError) as refused:
            solved(
                roof("lean_to", 20.0, width_mm=900.0, depth_mm=400.0, front_mm=300.0, back_mm=500.0, cover=cover | {"hinge": "E"})
            )
        self.assertEqual(refused.exception.code, "no_such_side")


class SteepAndNarrow(unittest.TestCase):
    def test_a_ridge_thicker_than_the_hips_leaves_the_sizes_as_they_were_given(self) -> None:
        ridge = {"length_mm": 60.0, "thickness_mm": 11.0, "depth_mm": 41.0}
        shape = {"width_mm": 534.0, "depth_mm": 212.0, "rise_mm": 60.0, "hip_thickness_mm": 3.0, "hip_depth_mm": 51.0}
        made = solved(roof("hip", 3.0, 40.0, spacing_mm=100.0, ridge=ridge, **shape))
        for check in made.claims:
            self.assertAlmostEqual(check.measured or 0.0, check.claim.asked, places=9)

    def test_no_hip_ends_where_its_uncut_piece_does(self) -> None:
        shape = {
            "form": "hip",
            "sides": 3,
            "width_mm": 127.0,
            "depth_mm": 100.0,
            "rise_mm": 809.0,
            "hip_thickness_mm": 27.0,
            "hip_depth_mm": 99.0,
        }
        steep = {"kind": "roof", "shape": shape | {"spacing_mm": 194.0, "foot": "seat"}, "depth_mm": 167.0, "thickness_mm": 37.0}
        for document in (steep, *(spec for kind in KINDS.values() for spec in kind.starts.values())):
            for id, solid in solved(document).solids.items():
                self.assertNotIn("end", {facet.name for piece in solid.local for facet in piece.facets}, id)
