import unittest
from math import cos, radians, sin, tan

from fennup.core.errors import SpecError
from fennup.core.kinds.inner import Bars, Inner
from fennup.core.kinds.inner_controls import inner_controls
from fennup.core.kinds.spacing import places
from fennup.core.parts.solid import arris_length, end_cut, face_sides, solid_of
from fennup.core.verify.boolean import boolean_proof
from tests.core.frames import box, irregular, level, of_sides, rectangle, regular, solved


def bars(count: int, width: float, **more: object) -> dict[str, object]:
    return {"count": count, "width_mm": width, **more}


class Spacing(unittest.TestCase):
    def middles(self, **said: object) -> list[float]:
        return places(Bars.model_validate({"count": 3, "width_mm": 20.0, **said}), 400.0, "inner.bars.0")

    def test_every_way_of_spacing_by_its_own_gaps(self) -> None:
        # Gaps between the walls and the bars, read off from the middles: the way of spacing is what is equal.
        for said, expected in (
            ({"spacing": "gaps"}, [85.0, 85.0, 85.0, 85.0]), ({"spacing": "flush"}, [0.0, 170.0, 170.0, 0.0]),
            ({"spacing": "half"}, [340 / 6, 340 / 3, 340 / 3, 340 / 6]),
            ({"spacing": "margins", "margin_mm": 40.0}, [40.0, 130.0, 130.0, 40.0]),
        ):  # fmt: skip
            at = self.middles(**said)
            edges = [0.0, *(e for m in at for e in (m - 10, m + 10)), 400.0]
            for gap, want in zip([b - a for a, b in zip(edges[::2], edges[1::2], strict=True)], expected, strict=True):
                self.assertAlmostEqual(gap, want, places=9)
        self.assertEqual(self.middles(spacing="centres"), [100.0, 200.0, 300.0])

    def test_too_many_are_refused_with_what_they_take_and_what_there_is(self) -> None:
        for spacing in ("gaps", "centres"):
            with self.assertRaises(SpecError) as caught:
                self.middles(count=21, spacing=spacing)
            self.assertEqual((caught.exception.code, caught.exception.data["mm"]), ("bars_too_many", 420.0))


class HalfLaps(unittest.TestCase):
    def test_a_grille_laps_at_every_crossing_and_closes_in_both_proofs(self) -> None:
        inner = {"thickness_mm": 20.0, "bars": [bars(2, 30.0), bars(3, 40.0, way_deg=90.0)]}
        made = solved(rectangle("opening", 600.0, 400.0, 60.0, inner=inner))
        laps = [j for j in made.assembly.joints if j.kind == "lap"]
        self.assertEqual(len(laps), 6)
        self.assertTrue(all(j.closes for j in made.joints))
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds)
        first = made.assembly.board("X1")
        self.assertAlmostEqual(arris_length(first, "face_upper"), 600.0, places=9)
        # Three slots, each as wide as the partner and half the thickness deep.
        self.assertAlmostEqual(made.solids["X1"].volume(), 600 * 30 * 20 - 3 * 40 * 30 * 10, places=6)
        # Equal gaps of (600 - 3 * 40) / 4 = 120 from an end at -300: the shoulders lie at -180 and -140.
        shoulders = sorted(p.offset * p.normal[0] for notch in first.notches for p in notch.planes[:-1])
        for got, want in zip(shoulders, (-180.0, -140.0, -20.0, 20.0, 140.0, 180.0), strict=True):
            self.assertAlmostEqual(got, want, places=9)

    def test_pieces_that_cross_askew_are_notched_along_each_others_edges(self) -> None:
        inner = {"thickness_mm": 20.0, "bars": [bars(1, 30.0), bars(1, 24.0, way_deg=60.0)]}
        made = solved(regular(6, 40.0, "opening_flats", mm=400.0, inner=inner))
        board = made.assembly.board("X1")
        plain = solid_of(board.__class__(**{**vars(board), "notches": ()}))
        self.assertAlmostEqual(plain.volume() - made.solids["X1"].volume(), 30 * 24 / sin(radians(60)) * 10, places=6)
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds)


class Holes(unittest.TestCase):
    def test_even_centres_count_from_the_end_at_the_holes_own_height(self) -> None:
        row = {"board": "A", "count": 3, "diameter_mm": 8.0, "up_mm": 100.0}
        made = solved(box(level(300.0, 300.0), 200.0, slope_deg=15.0, holes=[row]))
        board = made.assembly.board("A")
        # The wall grows from 300 at the bottom; 100 up the face it is 300 + 2 * 100 sin 15 long.
        long = 300 + 2 * 100 * sin(radians(15))
        for hole, share in zip(board.holes, (0.25, 0.5, 0.75), strict=True):
            self.assertAlmostEqual(hole.x_mm, (share - 0.5) * long, places=9)
        self.assertEqual([p.boards for p in made.parts], [("A",), ("B", "C", "D")])

    def test_cross_pieces_the_other_way_are_square_to_the_first_whatever_their_angle(self) -> None:
        # A hair off 0 is 90 the other way, and no angle that cannot be.
        for way, square in ((0.0, 90.0), (1e-97, 90.0), (1e-12, -90.0), (30.0, -60.0), (-30.0, 60.0), (90.0, 0.0)):
            controls = inner_controls(Inner.model_validate({"thickness_mm": 20.0, "bars": [bars(2, 20.0, way_deg=way)]}), 20.0)
            both = next(o for c in controls if c.code == "inner" for o in c.options if o.code == "both_ways")
            (act,) = both.acts
            self.assertAlmostEqual(act.value["bars"][1]["way_deg"], square, places=9)  # type: ignore[union-attr,index,call-overload]

    def test_a_hole_that_breaks_out_or_has_no_board_is_refused(self) -> None:
        for row, code in (
            ({"board": "A", "count": 3, "diameter_mm": 8.0, "up_mm": 2.0}, "hole_outside"),
            ({"board": "Q", "count": 3, "diameter_mm": 8.0, "up_mm": 20.0}, "no_such_board"),
            ({"board": "A", "count": 40, "diameter_mm": 20.0, "up_mm": 20.0}, "bars_too_many"),
        ):  # fmt: skip
            with self.assertRaises(SpecError) as caught:
                solved(rectangle("opening", 400.0, 300.0, 60.0, holes=[row]))
            self.assertEqual(caught.exception.code, code)


class Panels(unittest.TestCase):
    def test_a_panel_fills_the_rabbet_less_the_play_and_touches_nothing_else(self) -> None:
        rabbet = {"width_mm": 6.0, "depth_mm": 8.0}
        made = solved(regular(6, 40.0, "opening_flats", mm=300.0, rabbet=rabbet, panel={"thickness_mm": 4.0, "play_mm": 2.0}))
        sides = face_sides(made.solids["panel"])
        self.assertEqual(len(sides), 6)
        self.assertAlmostEqual(sides[0][0], (300 + 2 * 6 - 2) * tan(radians(30)), places=9)
        # The rabbet's floor lies 8 in from the back of a board 20 thick.
        heights = {round(p[2], 9) for piece in made.solids["panel"].world for p in piece.points}
        self.assertEqual(heights, {-2.0, -6.0})
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds)
        with self.assertRaises(SpecError) as caught:
            solved(regular(6, 40.0, "opening_flats", mm=300.0, panel={"thickness_mm": 4.0}))
        self.assertEqual(caught.exception.code, "panel_needs_rabbet")

    def test_a_panel_is_measured_along_its_own_sides_however_the_outline_lies(self) -> None:
        turn = radians(0.25)
        c, s = cos(turn), sin(turn)
        corners = [
            (x * c - y * s, x * s + y * c) for x, y in ((-200.0, -150.0), (200.0, -150.0), (200.0, 150.0), (-200.0, 150.0))
        ]
        made = solved(
            irregular(
                corners, [], "opening", rabbet={"width_mm": 6.0, "depth_mm": 8.0}, panel={"thickness_mm": 4.0, "play_mm": 2.0}
            )
        )
        (facts,) = [facts for facts in made.facts if facts.board.panel]
        # Into the rabbet by 6 all round, less the play: 410 by 310, and not the box round a rectangle that lies askew.
        for found, wanted in zip(sorted(facts.extent), (310.0, 410.0), strict=True):
            self.assertAlmostEqual(found, wanted, places=6)


class GussetsAndLevelPieces(unittest.TestCase):
    def test_a_gusset_in_a_square_corner_is_cut_at_45_and_in_any_corner_at_half_of_it(self) -> None:
        inner = {"thickness_mm": 20.0, "gussets": {"set_back_mm": 30.0, "width_mm": 25.0}}
        square = solved(rectangle("opening", 600.0, 400.0, 60.0, inner=inner))
        cut = square.assembly.board("gusset AB")
        self.assertEqual([round(abs(end_cut(c).miter_deg), 9) for c in (*cut.left, *cut.right)], [45.0, 45.0])
        # Its nearer edge joins two places 30 along the sides: 30 sqrt 2 long.
        self.assertAlmostEqual(min(arris_length(cut, "face_upper"), arris_length(cut, "face_lower")), 30 * 2**0.5, places=9)
        six = solved(regular(6, 40.0, "opening_flats", mm=600.0, inner=inner)).assembly.board("gusset CD")
        self.assertEqual({round(abs(end_cut(c).miter_deg), 9) for c in (*six.left, *six.right)}, {60.0})

    def test_gussets_that_would_meet_are_refused(self) -> None:
        inner = {"thickness_mm": 20.0, "gussets": {"set_back_mm": 80.0, "width_mm": 40.0}}
        with self.assertRaises(SpecError) as caught:
            solved(regular(8, 40.0, "opening_flats", mm=300.0, inner=inner))
        self.assertEqual(caught.exception.code, "gussets_meet")

    def test_a_level_piece_between_leaning_walls_is_cut_at_their_slope_at_its_own_height(self) -> None:
        inner = {"thickness_mm": 20.0, "height_mm": 60.0, "bars": [bars(1, 30.0, way_deg=90.0)]}
        made = solved(box(level(500.0, 300.0), 200.0, slope_deg=10.0, inner=inner))
        piece = made.assembly.board("X1")
        self.assertAlmostEqual(end_cut(piece.left[0]).bevel_deg, -10.0, places=9)
        inside = made.ruler.measure("inner_bottom_depth") or 0.0
        self.assertAlmostEqual(arris_length(piece, "back_lower"), inside + 2 * 60 * tan(radians(10)), places=9)
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds)

    def test_what_stands_out_at_the_top_is_refused(self) -> None:
        with self.assertRaises(SpecError) as caught:
            solved(box(of_sides(6, 400.0), 100.0, inner={"thickness_mm": 20.0, "height_mm": 85.0, "bars": [bars(1, 30.0)]}))
        self.assertEqual((caught.exception.code, caught.exception.data["limit_mm"]), ("inner_above", 80.0))


class Layers(unittest.TestCase):
    def test_each_way_in_a_layer_of_its_own_passes_over_the_other_without_laps(self) -> None:
        over = {"count": 1, "width_mm": 30.0, "way_deg": 90.0, "thickness_mm": 6.0, "height_mm": 8.0}
        gussets = {"set_back_mm": 40.0, "width_mm": 20.0, "thickness_mm": 4.0, "height_mm": 15.0}
        inner = {"thickness_mm": 8.0, "bars": [{"count": 2, "width_mm": 20.0}, over], "gussets": gussets}
        made = solved(rectangle("opening", 500.0, 300.0, 40.0, inner=inner))
        self.assertIn(made.closing.state, ("exact", "opens"))
        levels = {}
        for id, solid in made.solids.items():
            heights = [round(p[2] + 10, 9) for piece in solid.world for p in piece.points]  # from the back of a frame 20 thick
            levels[id[:1]] = (min(heights), max(heights))
        self.assertEqual([levels[k] for k in "XYg"], [(0.0, 8.0), (8.0, 14.0), (15.0, 19.0)])
        self.assertFalse(any(joint.kind == "lap" for joint in made.assembly.joints))
        with self.assertRaises(SpecError) as refused:
            within = {**inner, "bars": [inner["bars"][0], {**over, "height_mm": 5.0}]}  # type: ignore[index]
            solved(rectangle("opening", 500.0, 300.0, 40.0, inner=within))
        self.assertEqual((refused.exception.code, refused.exception.fields), ("bars_in_each_other", ("inner.bars.1.height_mm",)))
