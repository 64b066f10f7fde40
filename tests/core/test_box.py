import unittest
from math import acos, asin, atan, cos, degrees, radians, sin, tan
from typing import Any

from fennup.core.drawing.edit import Choose, Drag, Edit, Free, Give, Nudge, TypeIn
from fennup.core.errors import SpecError
from fennup.core.geometry.vec import dot
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.solid import ARRISES, arris_length, arris_line, end_cut, face_sides, rip_bevel_deg
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.saw.pose import blade_angles, poses_for
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof
from fennup.core.workshop import TapeChoice
from tests.core.frames import Solved, all_typed, box, given, level, of_sides, solved, spec_of

BOX = KINDS["box"]
MM = tape("mm", "1")
EXACT = MiterSaw(swing_step_deg=1e-9, tilt_step_deg=1e-9)


def cuts(made: Solved, board: str) -> tuple[float, float]:
    """Miter and bevel of a board's right end, degrees."""
    cut = end_cut(made.assembly.board(board).right[0])
    return cut.miter_deg, cut.bevel_deg


def read(made: Solved, *names: str) -> list[float]:
    found = [made.ruler.measure(name) for name in names]
    return [float("nan") if value is None else round(value, 4) + 0.0 for value in found]


def line(name: str, side: str = "A") -> list[str]:
    return [f"{name}_bottom_side:{side}", f"{name}_top_side:{side}"]


class PublishedFigures(unittest.TestCase):
    def test_a_case_of_eight(self) -> None:
        made = solved(box(of_sides(8, 600.0), 100.0, thickness_mm=21.5, pins=given(inner_bottom_flats=500, slope=0, height=100)))
        self.assertEqual(read(made, "outer_bottom_side", "inner_bottom_side"), [224.9180, 207.1068])
        miter, bevel = cuts(made, "C")
        self.assertAlmostEqual(miter, 0.0, places=9)
        self.assertAlmostEqual(bevel, -22.5, places=9)

    def test_a_case_of_unequal_boards_is_mitered_from_corner_to_corner(self) -> None:
        made = solved(box(level(500.0, 300.0), 90.0, thickness_mm=25.0, thicknesses_mm={"B": 15.0, "D": 15.0}))
        self.assertEqual([round(cuts(made, b)[1], 4) for b in "AB"], [-30.9638, -59.0362])
        self.assertEqual(read(made, "inner_bottom_width", "inner_bottom_depth"), [470.0, 250.0])

    def test_a_box_of_four_mitered_and_butted(self) -> None:
        leaning = box(level(300.0, 300.0), 200.0, slope_deg=15.0)
        made = solved(leaning)
        self.assertEqual(tuple(round(a, 4) for a in cuts(made, "A")), (-14.5108, -43.0795))
        self.assertEqual(read(made, *line("outer"), *line("inner")), [300.0, 407.1797, 262.7301, 369.9097])
        butted = {"AB": "A", "BC": "C", "CD": "C", "DA": "A"}
        corners = {name: {"joint": "butt", "through": through} for name, through in butted.items()}
        made = solved({**leaning, "corners": corners})
        self.assertEqual(tuple(round(a, 4) for a in cuts(made, "B")), (-14.5108, 3.8410))
        self.assertEqual(
            [round(arris_length(made.assembly.board(b), a), 4) for b in "AB" for a in ("face_lower", "face_upper")],
            [300.0, 407.1797, 262.7301, 369.9097],
        )

    def test_a_box_of_six_with_its_height_given_up_the_outer_face(self) -> None:
        made = solved(
            box(of_sides(6, 300.0), 150.0, thickness_mm=19.05, pins=given(outer_bottom_flats=355.6, slope=15, slant=203.2))
        )
        self.assertEqual(tuple(round(abs(a), 4) for a in cuts(made, "F")), (8.4988, 28.8791))
        self.assertEqual(read(made, *line("outer"), *line("inner")), [205.3058, 266.0338, 182.5327, 243.2608])

    def test_a_box_of_eight_that_leans_inwards(self) -> None:
        made = solved(box(of_sides(8, 900.0), 150.0, slope_deg=-60.0))
        self.assertEqual(tuple(round(a, 4) for a in cuts(made, "A")), (19.7339, -11.0311))
        self.assertEqual(read(made, *line("outer")), [372.7922, 157.5605])

    def test_two_slopes_and_ends_that_stand_upright(self) -> None:
        made = solved(box(level(412.75, 260.35), 203.2, thickness_mm=19.05, slopes_deg={"AC": 10.0, "BD": 5.0}))
        self.assertEqual(
            tuple(round(abs(a), 4) for a in (*cuts(made, "A"), *cuts(made, "B"))), (4.9244, 44.5664, 9.9627, 44.5664)
        )
        self.assertEqual(read(made, "outer_top_width", "outer_top_depth"), [448.3054, 332.0093])
        out = [made.assembly.board(b).frame.z for b in "AB"]
        self.assertAlmostEqual(180 - degrees(acos(dot(*out))), 90.8672, places=4)
        trough = solved(box(level(400.0, 250.0), 180.0, slopes_deg={"AC": 15.0, "BD": 0.0}))
        self.assertEqual(tuple(round(a, 4) for a in (*cuts(trough, "A"), *cuts(trough, "B"))), (0.0, -45.0, -15.0, -45.0))
        self.assertEqual(read(trough, *line("outer", "B")), [250.0, 346.4617])


class TextbookFormulas(unittest.TestCase):
    """Closed forms that stand nowhere in the application."""

    def test_equal_walls_flat_and_on_edge(self) -> None:
        for n in range(3, 13):
            for slope in (-35.0, 4.0, 28.0):
                a, m = radians(slope), radians(180 / n)
                made = solved(box(of_sides(n, 900.0), 120.0, slope_deg=slope))
                cut = end_cut(made.assembly.board("B").right[0])
                self.assertAlmostEqual(cut.miter_deg, -degrees(atan(sin(a) * tan(m))), places=9)
                self.assertAlmostEqual(cut.bevel_deg, -degrees(asin(cos(a) * sin(m))), places=9)
                # Standing on a square edge: swing atan(cos a tan m), tilt asin(sin a sin m).
                self.assertAlmostEqual(cut.edge_trace_deg, -degrees(atan(cos(a) * tan(m))), places=9)

    def test_a_butt_of_any_number_of_sides(self) -> None:
        for n in (3, 5, 8):
            a, turn = radians(12.0), radians(360 / n)
            made = solved(box(of_sides(n, 700.0), 120.0, slope_deg=12.0, joint="butt"))
            cut = end_cut(made.assembly.board("B").left[0])
            tan_miter = (sin(a) * cos(a) - cos(turn) * cos(a) * sin(a)) / (sin(turn) * cos(a))
            self.assertAlmostEqual(abs(cut.miter_deg), abs(degrees(atan(tan_miter))), places=9)
            self.assertAlmostEqual(abs(cut.bevel_deg), abs(degrees(asin(cos(turn) * cos(a) ** 2 + sin(a) ** 2))), places=9)

    def test_level_edges_are_ripped_at_the_slope_and_cost_t_tan_a_of_width(self) -> None:
        made = solved(box(level(300.0, 300.0), 200.0, slope_deg=15.0))
        board = made.assembly.board("A")
        assert board.upper_rip and board.lower_rip
        self.assertAlmostEqual(rip_bevel_deg(board.upper_rip), -15.0, places=9)
        self.assertAlmostEqual(rip_bevel_deg(board.lower_rip), 15.0, places=9)
        self.assertAlmostEqual(board.section.width_mm, 200 / cos(radians(15)) + 18 * tan(radians(15)), places=9)
        square = solved(box(level(300.0, 300.0), 200.0, slope_deg=15.0, edges="square"))
        heights = [p[2] for piece in square.solids["A"].world for p in piece.points]
        self.assertAlmostEqual(max(heights), 200 + 18 * sin(radians(15)), places=9)

    def test_propped_on_its_ripped_edge_a_wall_needs_the_plan_angle_and_no_tilt(self) -> None:
        made = solved(box(of_sides(6, 500.0), 200.0, slope_deg=17.0))
        board = made.assembly.board("A")
        propped = [blade_angles(board.right[0], pose) for pose in poses_for(board) if pose.propped]
        for blade in propped:
            self.assertAlmostEqual(abs(blade.swing_deg), 30.0, places=9)
            self.assertAlmostEqual(blade.tilt_deg, 0.0, places=9)
        self.assertEqual(len(propped), 4)


class Staves(unittest.TestCase):
    def test_a_stave_tapers_and_is_beveled_as_the_walls_lean_and_meet_and_needs_no_miter_saw(self) -> None:
        up = solved(box(of_sides(8, 380.0), 320.0, slope_deg=6.0, grain="up"))
        a, m = radians(6.0), radians(22.5)
        cut = end_cut(up.assembly.board("C").right[0])
        # Half the growth in width over the length along the slope is the taper of one edge: tan = sin a tan m.
        low, high = (arris_length(up.assembly.board("C"), e) for e in ("face_lower", "face_upper"))
        slant = up.ruler.measure("slant") or 0.0
        self.assertAlmostEqual(tan(radians(-cut.miter_deg)), (high - low) / 2 / slant, places=9)
        self.assertAlmostEqual(cut.bevel_deg, -degrees(asin(cos(a) * sin(m))), places=9)
        self.assertEqual((up.settings, up.assembly.board("C").grain[2] > 0.9), ((), True))
        self.assertTrue(all(j.closes for j in up.joints) and boolean_proof(up.assembly, up.solids).holds)
        with self.assertRaises(SpecError) as caught:
            solved(box(of_sides(8, 380.0), 320.0, grain="up", courses={"count": 4, "board_width_mm": 90.0}))
        self.assertEqual(caught.exception.code, "staves_with_courses")


class CoursesAndInsets(unittest.TestCase):
    def test_courses_lose_height_by_leaning_and_upright_partners_are_ripped_to_match(self) -> None:
        # Square edges, three boards: height 3 w cos a; each course grows by 2 w sin a; upright partners w cos a.
        a, w = radians(20.0), 90.0
        made = solved(
            box(level(600.0, 300.0), 3 * w * cos(a), slopes_deg={"AC": 20.0, "BD": 0.0}, edges="square",
                courses={"count": 3, "board_width_mm": w})
        )  # fmt: skip
        widths = {id: made.assembly.board(id).section.width_mm for id in ("A1", "A3", "B1", "B2", "B3")}
        for id, want in (("A1", w), ("A3", w), ("B1", w * cos(a)), ("B2", w * cos(a)), ("B3", w * cos(a))):
            self.assertAlmostEqual(widths[id], want, places=9)
        low, high = (arris_length(made.assembly.board("B2"), e) for e in ("face_lower", "face_upper"))
        self.assertAlmostEqual(high - low, 2 * w * sin(a), places=9)
        self.assertTrue(all(j.closes for j in made.joints))
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds)

    def test_boards_as_wide_as_they_come_or_so_many_of_them_and_the_other_follows(self) -> None:
        # A bin 350 high, 400 at the top and 300 at the bottom: 50 out in 350 up, its face square to the edges' rips.
        bin = box(level(300.0, 300.0), 350.0, slope_deg=degrees(atan(50 / 350)), courses={"board_width_mm": 145.0})
        up = 350 / cos(atan(50 / 350)) + 18 * 50 / 350
        widths = [board.section.width_mm for board in solved(bin).assembly.boards if board.id[0] == "A"]
        for got, want in zip(widths, (145.0, 145.0, up - 290.0), strict=True):
            self.assertAlmostEqual(got, want, places=9)
        counted = BOX.edit(spec_of(bin), Nudge(op="nudge", path="courses.count", steps=1), MM)
        self.assertEqual(counted["courses"], {"count": 4})
        for board in solved(counted).assembly.boards:
            self.assertAlmostEqual(board.section.width_mm, up / 4, places=9)
        again = BOX.edit(spec_of(counted), TypeIn(op="type", path="courses.board_width_mm", text="145"), MM)
        self.assertEqual(again["courses"], {"board_width_mm": 145.0})
        # One that said both keeps what it was when it grows: a fourth board is put on.
        both = BOX.edit(
            spec_of(bin | {"courses": {"count": 3, "board_width_mm": 145.0}}), Give(op="give", measure="height", text="500"), MM
        )
        self.assertEqual(len([board for board in solved(both).assembly.boards if board.id[0] == "A"]), 4)

    def test_a_floor_follows_the_walls_at_its_own_height_on_each_face(self) -> None:
        made = solved(
            box(of_sides(6, 400.0), 300.0, slope_deg=10.0, floor={"height_mm": 40.0, "thickness_mm": 12.0, "play_mm": 3.0})
        )
        inside = made.ruler.measure("inner_bottom_flats") or 0.0
        across = inside + 2 * 52 * tan(radians(10)) - 3.0
        sides = face_sides(made.solids["floor"])
        self.assertEqual(len(sides), 6)
        for length, _, edge in sides:
            self.assertAlmostEqual(length, across * tan(radians(30)), places=9)
            self.assertAlmostEqual(abs(rip_bevel_deg(edge.plane)), 10.0, places=9)

    def test_slats_leave_equal_gaps_that_add_up(self) -> None:
        made = solved(
            box(
                level(500.0, 300.0),
                200.0,
                floor={"height_mm": 10.0, "thickness_mm": 15.0, "slats": {"count": 4, "width_mm": 40.0}},
            )
        )
        middles = [made.assembly.board(f"slat{i}").frame.origin[1] for i in (1, 2, 3, 4)]
        gap = (300 - 36 - 4 * 40) / 5
        for i, middle in enumerate(middles):
            self.assertAlmostEqual(middle + 132.0, (i + 1) * gap + (i + 0.5) * 40, places=9)
        self.assertAlmostEqual(arris_length(made.assembly.board("slat2"), "face_upper"), 464.0, places=9)

    def test_a_back_panel_reaches_into_its_groove_less_the_play(self) -> None:
        made = solved(
            box(of_sides(6, 400.0), 120.0, back={"thickness_mm": 6.0, "depth_mm": 8.0, "play_mm": 1.0, "from_edge_mm": 10.0})
        )
        across = 400 - 2 * 18 + 2 * 8 - 1
        self.assertAlmostEqual(face_sides(made.solids["back"])[0][0], across * tan(radians(30)), places=9)
        proof = boolean_proof(made.assembly, made.solids)
        self.assertTrue(proof.holds, proof)
        # Each wall loses a channel 8 deep, 6 wide, as long as its middle line: inside length + 8 tan 30 at both ends.
        plain = solved(box(of_sides(6, 400.0), 120.0))
        lost = plain.solids["A"].volume() - made.solids["A"].volume()
        self.assertAlmostEqual(lost, 6 * 8 * (364 * tan(radians(30)) + 8 * tan(radians(30))), places=6)

    def test_shelf_ends_follow_the_walls_that_they_meet(self) -> None:
        made = solved(box(of_sides(6, 436.0), 120.0, shelves=[{"height_mm": 100.0, "thickness_mm": 12.0}]))
        shelf = made.assembly.board("shelf1")
        # Inside, a hexagon of 400 flats widens by 2 tan 30 for each mm up to its middle.
        narrow = 400 * tan(radians(30)) + 2 * 100 * tan(radians(30))
        lengths = sorted(arris_length(shelf, arris) for arris in ARRISES)
        self.assertAlmostEqual(lengths[0], narrow, places=9)
        self.assertAlmostEqual(lengths[-1], narrow + 2 * 12 * tan(radians(30)), places=9)
        self.assertEqual({round(abs(end_cut(c).bevel_deg), 9) for c in (*shelf.left, *shelf.right)}, {30.0})
        # Across the widest place each end meets two walls: two cuts.
        both = solved(box(of_sides(6, 436.0), 120.0, shelves=[{"height_mm": 194.0, "thickness_mm": 12.0}])).assembly.board(
            "shelf1"
        )
        self.assertEqual((len(both.left), len(both.right)), (2, 2))

    def test_a_cap_ring_reaches_over_the_walls_by_its_overhangs(self) -> None:
        made = solved(
            box(level(300.0, 300.0), 200.0, slope_deg=15.0, cap={"thickness_mm": 20.0, "over_in_mm": 6.0, "over_out_mm": 14.0})
        )
        self.assertEqual(read(made, "cap_opening_width", "cap_outside_width"), [round(369.9097 - 12, 4), round(407.1797 + 28, 4)])
        proof = boolean_proof(made.assembly, made.solids)
        self.assertEqual((proof.holds, proof.bare), (True, ()))


class Cladding(unittest.TestCase):
    def test_the_wide_strip_is_wider_by_what_it_covers_and_both_follow_the_leaning_corner(self) -> None:
        # F28: wider = narrower + t / cos(D - 90) with the dihedral D = 90 + asin(sin^2 a), on the side that touches.
        a, t, w = radians(15.0), 8.0, 40.0
        made = solved(box(level(300.0, 300.0), 200.0, slope_deg=15.0, cladding={"width_mm": w, "thickness_mm": t}))
        dihedral = radians(90.0) + asin(sin(a) ** 2)
        on_wall = {
            id: arris_line(made.assembly.board(id), "back_upper")[0] - arris_line(made.assembly.board(id), "back_lower")[0]
            for id in ("nAB", "wAB")
        }
        self.assertAlmostEqual(on_wall["nAB"], w, places=9)
        self.assertAlmostEqual(on_wall["wAB"], w + t / cos(dihedral - radians(90.0)), places=9)
        # Level ends of a strip along the seam: miter atan(sin a tan m), bevel a, from F28.
        cut = end_cut(made.assembly.board("nAB").right[0])
        self.assertAlmostEqual(abs(cut.miter_deg), degrees(atan(sin(a) * tan(radians(45)))), places=9)
        self.assertAlmostEqual(abs(cut.bevel_deg), 15.0, places=9)
        self.assertTrue(all(j.closes for j in made.joints), made.closing)
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds)

    def test_strips_that_would_meet_are_refused(self) -> None:
        with self.assertRaises(SpecError) as caught:
            solved(box(of_sides(8, 300.0), 200.0, cladding={"width_mm": 70.0, "thickness_mm": 8.0}))
        self.assertEqual(caught.exception.code, "cladding_too_wide")


class AnyStart(unittest.TestCase):
    base = box(level(300.0, 300.0), 200.0, slope_deg=15.0)

    def acted(self, document: dict[str, Any], *acts: Edit) -> dict[str, Any]:
        spec = spec_of(document)
        for act in acts:
            spec = spec_of(BOX.edit(spec, act, MM))
        return spec.model_dump(mode="json")

    def refused(self, document: dict[str, Any], *acts: Edit) -> SpecError:
        with self.assertRaises(SpecError) as caught:
            solved(self.acted(document, *acts))
        return caught.exception

    def test_two_sizes_and_a_height_give_the_slope(self) -> None:
        found = self.acted(self.base, Free(op="free", measure="slope"), Give(op="give", measure="outer_top_width", text="400"))
        self.assertAlmostEqual(found["slope_deg"], degrees(atan(50 / 200)), places=9)

    def test_any_measure_can_take_the_slopes_place(self) -> None:
        for measure, text, slope in (
            ("level_slope", "80", 10.0), ("run", "50", degrees(atan(50 / 200))), ("slope", "4:1", degrees(atan(1 / 4))),
            ("inner_top_width", "369.9097", 15.0), ("slant", "210", degrees(asin(((210**2 - 200**2) ** 0.5) / 210))),
        ):  # fmt: skip
            free = self.acted(self.base, Free(op="free", measure="slope"))
            self.assertAlmostEqual(self.acted(free, Give(op="give", measure=measure, text=text))["slope_deg"], slope, places=5)

    def test_too_much_names_what_cannot_hold_together_and_what_the_others_make_it(self) -> None:
        base = all_typed(self.base)
        error = self.refused(base, Give(op="give", measure="outer_top_width", text="400"))
        self.assertEqual(error.code, "pins_disagree")
        self.assertAlmostEqual(float(str(error.data["gives"])), 407.1797, places=4)
        # The depth says nothing about the width at the top: it is not among those that clash.
        self.assertEqual([m for m, _, _ in error.data["others"]], ["outer_bottom_width", "slope", "height"])  # type: ignore[attr-defined]
        again = self.refused(base, Give(op="give", measure="outer_top_width"))
        self.assertEqual(again.code, "pins_enough")

    def test_the_suggestion_that_has_to_change_least_gives_way_and_only_given_sizes_clash(self) -> None:
        base = all_typed(self.base)
        # A hundred at the top over a height of 260: the slope moves by some ten degrees, the bottom or the height would by more.
        acts = [
            Give(op="give", measure=name, text=text) for name, text in (("outer_top_width", "400"), ("outer_bottom_width", "320"))
        ]
        spec = spec_of(self.acted(KINDS["box"].starts["tapered_box"], *acts))
        self.assertAlmostEqual(spec.slope_deg, degrees(atan(40 / 260)), places=9)
        said = {name: standing for name, standing in spec.standings().items() if standing == "given"}
        self.assertEqual(set(said), {"outer_top_width", "outer_bottom_width"})
        # Next to give way is the height, once a slope is wanted; after that all three are given.
        leaning = spec_of(self.acted(spec.model_dump(mode="json"), Give(op="give", measure="slope", text="10")))
        self.assertAlmostEqual(leaning.height_mm, 40 / tan(radians(10)), places=6)
        self.refused(leaning.model_dump(mode="json"), Give(op="give", measure="height", text="300"))
        # What it is already needs nothing to give way: 200 high at 15 degrees.
        as_it_is = Give(op="give", measure="outer_top_width", text=f"{300 + 400 * tan(radians(15))!r}")
        self.assertEqual(spec_of(self.acted(base, as_it_is)).standings(), spec_of(base).standings())

    def test_too_little_counts_what_is_missing(self) -> None:
        spec = spec_of(self.acted(self.base, Free(op="free", measure="slope"), Free(op="free", measure="height")))
        made = solved(spec.model_dump(mode="json"))
        self.assertIn("free:2", BOX.describe(made.spec, made.ruler, made.solids).facts)
        self.assertEqual(BOX.free_sizes(spec), ("slope", "height"))
        # A size at the top settles one of the two, whichever: the other one is what is missing.
        wider = spec_of(BOX.edit(spec, Give(op="give", measure="outer_top_width", text="400"), MM))
        self.assertEqual(BOX.free_sizes(wider), ("slope",))
        self.assertEqual(BOX.free_sizes(spec_of(self.base)), ())

    def test_each_wall_can_have_a_slope_of_its_own(self) -> None:
        each = self.acted(
            self.base, Choose(op="choose", path="slopes_deg", value="each"), Give(op="give", measure="slope:B", text="0")
        )
        made = solved(each)
        self.assertEqual(read(made, "slope:A", "slope:B", "slope:D"), [15.0, 0.0, 15.0])
        self.assertAlmostEqual(made.ruler.measure("outer_top_width") or 0, 300 + 200 * tan(radians(15)), places=9)
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds)

    def test_a_box_round_a_liner_clears_its_rim_and_leans_as_it_does(self) -> None:
        liner = {"rim_mm": 320.0, "foot_mm": 260.0, "height_mm": 240.0, "lip_mm": 12.0, "play_mm": 4.0}
        made = solved(box(of_sides(4, 300.0), 250.0, liner=liner))
        self.assertEqual(read(made, "inner_top_flats"), [324.0])
        self.assertAlmostEqual(made.ruler.measure("slope") or 0, degrees(atan(30 / 240)), places=9)
        kept = self.acted(box(of_sides(4, 300.0), 250.0, liner=liner), Choose(op="choose", path="liner", value=None))
        self.assertEqual(read(solved(kept), "inner_top_flats"), [324.0])

    def test_a_plan_of_any_corners_takes_sides_angles_and_slopes(self) -> None:
        corners = [(-240.0, -150.0), (240.0, -150.0), (240.0, 40.0), (60.0, 190.0), (-240.0, 190.0)]
        start = box({"form": "irregular", "corners": corners}, 160.0, slopes_deg={"A": 0.0, "BCDE": 12.0})
        pinned = self.acted(
            start,
            Give(op="give", measure="outer_bottom_side:A", text="500"),
            Give(op="give", measure="outer_bottom_angle:AB", text="95"),
        )
        made = solved(pinned)
        self.assertEqual(read(made, "outer_bottom_side:A", "outer_bottom_angle:AB", "slope:A"), [500.0, 95.0, 0.0])
        self.assertTrue(all(j.closes for j in made.joints) and boolean_proof(made.assembly, made.solids).holds)

    def test_a_dragged_ring_takes_the_nearest_graduation(self) -> None:
        dragged = self.acted(self.base, Drag(op="drag", grip="pin:height", x_mm=0.0, y_mm=221.8))
        self.assertAlmostEqual(dragged["height_mm"], 222.0, places=9)

    def test_bad_input_is_refused_with_its_field_and_its_figures(self) -> None:
        hexagon = of_sides(6, 400.0)
        wide = {"thickness_mm": 12.0}
        for document, code, field in (
            (box(hexagon, 400.0, slope_deg=-45.0), "walls_cross", "height_mm"),
            (box(hexagon, 100.0, thickness_mm=210.0), "too_thick", "thickness_mm"),
            (box(of_sides(13, 400.0), 100.0), "box_sides", "plan.sides"),
            (box(hexagon, 100.0, pins=given(outer_bottom_flats=400, slope=90, height=100)), "slope_range", "pins.1.deg"),
            (box(hexagon, 100.0, floor={"height_mm": 95.0, **wide}), "floor_above_rim", "floor.height_mm"),
            (box(hexagon, 300.0, courses={"count": 3, "board_width_mm": 90.0}), "courses_too_few", "courses.count"),
            (box(hexagon, 300.0, courses={"count": 5, "board_width_mm": 90.0}), "courses_too_many", "courses.count"),
            (box(hexagon, 300.0, courses={"board_width_mm": 20.0}), "courses_too_narrow", "courses.board_width_mm"),
            (box(hexagon, 300.0, courses={}), "courses_unsaid", "courses.board_width_mm"),
            (box(hexagon, 100.0, shelves=[{"height_mm": 360.0, **wide}]), "shelf_outside", "shelves.0.height_mm"),
            (box(hexagon, 100.0, lid={"depth_mm": 99.0, "kerf_mm": 3.0}), "lid_too_deep", "lid.depth_mm"),
            (box(hexagon, 100.0, liner={"rim_mm": 300, "foot_mm": 280, "height_mm": 120, "lip_mm": 9}), "liner_too_tall", "liner.height_mm"),
            (box(hexagon, 100.0, liner={"rim_mm": 300, "foot_mm": 280, "height_mm": 90, "lip_mm": 2, "play_mm": 6}), "liner_falls_through", "liner.lip_mm"),
            (box(hexagon, 100.0, back={**wide, "depth_mm": 6}, front={**wide, "depth_mm": 6, "from_edge_mm": 80}), "grooves_meet", "front.from_edge_mm"),
            (box(hexagon, 100.0, front={"thickness_mm": 4, "depth_mm": 6, "from_edge_mm": 30}, lid={"depth_mm": 32, "kerf_mm": 3}), "lid_in_groove", "lid.depth_mm"),
            (box(hexagon, 100.0, front={"thickness_mm": 4, "depth_mm": 18}), "groove_too_deep", "front.depth_mm"),
            (box(hexagon, 100.0, slope_deg=5.0, back={"thickness_mm": 6, "depth_mm": 6}), "back_needs_upright", "back"),
            (box(level(300.0, 300.0), 200.0, pins=given(outer_bottom_width=300, outer_bottom_depth=300, slope=15, height=200, outer_top_width=400)), "pins_disagree", "pins.4.mm"),
        ):  # fmt: skip
            with self.subTest(code), self.assertRaises(SpecError) as caught:
                solved(document)
            self.assertEqual((caught.exception.code, caught.exception.fields[0]), (code, field))
        with self.assertRaises(SpecError) as caught:
            solved(box(hexagon, 400.0, slope_deg=-45.0))
        self.assertAlmostEqual(float(str(caught.exception.data["limit_mm"])), 200.0)

    def test_another_number_of_sides_keeps_what_was_given(self) -> None:
        eight = self.acted(
            box(of_sides(6, 400.0), 100.0, pins=given(inner_bottom_flats=350, slope=5, height=100)),
            TypeIn(op="type", path="plan.sides", text="8"),
        )
        self.assertEqual(read(solved(eight), "inner_bottom_flats", "slope", "height"), [350.0, 5.0, 100.0])


class WhatOtherSettingsWouldOpen(unittest.TestCase):
    def test_a_bevel_off_by_a_degree_opens_by_thickness_and_tangents(self) -> None:
        # Steps of 2 degrees: 45 is set to 46, so the outsides touch. Each face stands off by t cos 45 (tan 46 - tan 45).
        made = solved(box(level(500.0, 300.0), 90.0), MiterSaw(tilt_step_deg=2.0, tilt_left_deg=50.0))
        worst = made.closing.by_itself
        assert worst
        self.assertEqual((made.closing.state, worst.at), ("opens", "back"))
        self.assertAlmostEqual(worst.widest_mm, 2 * 18 * cos(radians(45)) * (tan(radians(46)) - 1), places=9)
        wide = next(f for f in made.findings if f.code == "opens_wide")
        self.assertEqual((wide.value, wide.limit), (made.closing.widest_mm, 0.5))
        # Four corners that turn by 92 each: 8 degrees are too much at the last, over a face 18 / cos 46 deep.
        self.assertAlmostEqual(made.closing.widest_mm, 2 * 18 / cos(radians(46)) * sin(radians(4)), places=9)

    def test_the_simple_setting_agrees_with_sliding_the_end_by_bisection(self) -> None:
        made = solved(box(level(300.0, 300.0), 200.0, slope_deg=15.0), EXACT)
        told = {s.how: s.gap for s in made.simple}
        board, solid = made.assembly.board("A"), made.solids["A"]
        true = board.right[0]
        patch = [p for f in solid.local[0].facets if f.name == "right:0" for p in solid.local[0].corners(f)]
        for how, (m, b) in {"flat": (-15.0, -45.0), "swapped": (-43.0795, -14.5108)}.items():
            n = (cos(radians(b)) * cos(radians(m)), cos(radians(b)) * sin(radians(m)), sin(radians(b)))
            low, high = 0.0, 2000.0
            for _ in range(80):
                at = (low + high) / 2
                ends = [((at - n[1] * y - n[2] * z) / n[0], y, z) for _, y, z in patch]
                low, high = (at, high) if max(true.beyond(p) for p in ends) < 0 else (low, at)
            off = {z > 0: max(-true.beyond(p) for p in ends if (p[2] > 0) == (z > 0)) for z in (1, -1)}
            gap = told[how]  # type: ignore[index]
            assert gap is not None
            self.assertAlmostEqual(gap.face_mm, 2 * off[True], places=2)
            self.assertAlmostEqual(gap.back_mm, 2 * off[False], places=2)

    def test_lengths_cut_to_the_tape_leave_a_plan_of_odd_sides_open_by_what_they_do_not_add_up_to(self) -> None:
        corners = [(-240.0, -150.0), (240.0, -150.0), (240.0, 40.0), (60.3, 190.2), (-240.0, 190.2)]
        document = box({"form": "irregular", "corners": corners}, 100.0)
        made = solved(document, EXACT, tape=TapeChoice())
        total = 0j
        for i in range(5):
            a, b = complex(*corners[i]), complex(*corners[(i + 1) % 5])
            total += (round(abs(b - a)) - abs(b - a)) * (b - a) / abs(b - a)
        (last,) = made.rings
        self.assertAlmostEqual((last.opening_mm**2 + last.step_mm**2) ** 0.5, abs(total), places=6)

    def test_a_leaning_butt_has_no_plan_angle_in_its_simple_settings(self) -> None:
        # Square on plan: the wall that ends on its neighbour is swung by nothing and tilted as that one leans.
        made = solved(box(level(300.0, 300.0), 200.0, slope_deg=15.0, joint="butt"))
        told = {s.how: (round(s.swing_deg, 9), round(s.tilt_deg, 9)) for s in made.simple}
        self.assertEqual(told.get("flat"), (15.0, 0.0))
        self.assertEqual(told.get("from_vertical"), (0.0, 15.0))
