"""Braces against the law of cosines (F14), plain triangles, and lines that cross."""

import unittest
from math import atan, atan2, cos, degrees, hypot, radians, sin, sqrt, tan
from typing import Any

from fennup.core.drawing.edit import Give
from fennup.core.errors import SpecError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.solid import end_cut, rip_bevel_deg
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof
from tests.core.frames import all_typed, solved, spec_of

MM = tape("mm", "1")
BRACE = KINDS["brace"]


def brace(place: dict[str, Any], width: float = 75.0, **more: Any) -> dict[str, Any]:
    """A brace 40 thick between members 90 wide."""
    return {"kind": "brace", "place": place, "width_mm": width, "thickness_mm": 40.0, "member_mm": 90.0, **more}


def knee(corner: float, post: float, beam: float, **more: Any) -> dict[str, Any]:
    """A knee brace measured on its long edge, if nothing else is said."""
    place = {"form": "knee", "corner_deg": corner, "post_leg_mm": post, "beam_leg_mm": beam}
    return brace(place, **({"by": "lower"} | more))


def between(clear: float, rise: float, **more: Any) -> dict[str, Any]:
    """A brace between two members."""
    return brace({"form": "between", "clear_mm": clear, "rise_mm": rise}, **more)


class InACorner(unittest.TestCase):
    def test_the_cuts_make_the_corner_and_the_long_edge_follows_by_the_law_of_cosines(self) -> None:
        made = solved(knee(100, 520, 380))
        board = made.assembly.board("brace")
        long = sqrt(520**2 + 380**2 - 2 * 520 * 380 * cos(radians(100)))
        at_post, at_beam = (end_cut(cuts[0]).miter_deg for cuts in (board.left, board.right))
        # In the triangle of corner, foot and head the angle at the foot lies opposite the beam's leg.
        self.assertAlmostEqual(sin(radians(90 - at_post)) / 380, sin(radians(100)) / long, places=12)
        self.assertAlmostEqual(at_post + at_beam, 100.0, places=9)
        self.assertAlmostEqual(at_post, 57.4366, places=4)
        self.assertAlmostEqual(made.ruler.measure("lower_edge") or 0, long, places=9)
        short = long - 75 * (tan(radians(at_post)) + tan(radians(at_beam)))
        self.assertAlmostEqual(made.ruler.measure("upper_edge") or 0, short, places=9)
        self.assertAlmostEqual(short, 508.9712, places=4)

    def test_measured_on_another_line_that_line_meets_the_legs(self) -> None:
        for by, edge in (("centre", None), ("upper", "upper_edge")):
            made = solved(knee(90, 400, 300, by=by))
            if edge:
                self.assertAlmostEqual(made.ruler.measure(edge) or 0, 500.0, places=9)
            low, high = made.solids["brace"].extent_x()
            past = {"centre": 0.5, "upper": 1.0}[by]
            self.assertAlmostEqual(high - low, 500.0 + past * 75 * (4 / 3 + 3 / 4), places=9)

    def test_only_the_brace_is_a_part_and_both_proofs_put_it_between_its_members(self) -> None:
        made = solved(knee(70, 300, 420))
        self.assertEqual([part.id for part in made.parts], ["brace"])
        self.assertTrue(all(check.closes for check in made.joints))
        proof = boolean_proof(made.assembly, made.solids)
        self.assertTrue(proof.holds)
        self.assertEqual((len(proof.contacts), proof.apart, proof.bare), (3, (), ()))

    def test_a_brace_that_the_corner_cannot_hold_is_refused_in_words_at_its_field(self) -> None:
        with self.assertRaises(SpecError) as refused:
            solved(knee(90, 100, 100, width_mm=80.0))
        self.assertEqual((refused.exception.code, refused.exception.fields), ("brace_too_wide", ("width_mm",)))
        with self.assertRaises(SpecError) as disagreeing:
            BRACE.edit(spec_of(all_typed(knee(90, 300, 300))), Give(op="give", measure="lower_edge", text="700"), MM)
        self.assertEqual(disagreeing.exception.code, "pins_disagree")

    def test_the_length_of_its_edge_settles_a_leg(self) -> None:
        pins = [
            {"measure": "corner_angle", "deg": 90.0},
            {"measure": "post_leg", "mm": 300.0},
            {"measure": "lower_edge", "mm": 500.0},
        ]
        made = solved(knee(90, 300, 300, pins=pins))
        self.assertAlmostEqual(made.ruler.measure("beam_leg") or 0, 400.0, places=6)


class BetweenMembers(unittest.TestCase):
    def test_crossing_braces_meet_where_their_lines_cross_and_their_shoulders_stand_off_square(self) -> None:
        document = between(640, 820, width_mm=60.0)
        document["place"]["crossing"] = {"start_mm": 700.0, "rise_mm": -570.0, "width_mm": 88.9}
        made = solved(document)
        x = 700 / ((820 + 570) / 640)
        slopes = (820 / 640, -570 / 640)
        for name, slope in zip(("crosses_at", "second_crosses_at"), slopes, strict=True):
            self.assertAlmostEqual(made.ruler.measure(name) or 0, x * hypot(1, slope), places=9)
        off = degrees(atan(slopes[0]) - atan(slopes[1])) - 90
        for id, other, wide in (("brace", 88.9, 89.0874), ("second", 60.0, 60.1265)):
            walls = made.assembly.board(id).notches[0].planes[:2]
            shoulder = degrees(atan2(abs(walls[0].normal[1]), abs(walls[0].normal[0])))
            self.assertAlmostEqual(shoulder, off, places=9)
            along = sum(wall.offset for wall in walls) / abs(walls[0].normal[0])
            self.assertAlmostEqual(along, other / cos(radians(off)), places=9)
            self.assertAlmostEqual(along, wide, places=4)
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds and all(check.closes for check in made.joints))

    def test_edge_to_edge_it_fills_the_opening_from_corner_to_corner(self) -> None:
        made = solved(between(600, 450, by="corners", width_mm=50.0))
        ys = [p[2] for piece in made.solids["brace"].world for p in piece.points]
        self.assertAlmostEqual(max(ys) - min(ys), 450.0, places=9)

    def test_in_pockets_each_end_has_two_cuts_that_meet_on_its_middle_line(self) -> None:
        made = solved(between(600, 450, by="pocket", width_mm=50.0))
        board = made.assembly.board("brace")
        low, high = made.solids["brace"].extent_x()
        self.assertEqual((len(board.left), len(board.right)), (2, 2))
        self.assertAlmostEqual(high - low, hypot(600, 450), places=9)
        # The two cuts of an end stand square to each other, as post and rail do.
        angles = sorted(end_cut(cut).miter_deg for cut in board.left)
        self.assertAlmostEqual(angles[1] - angles[0], 90.0, places=9)


class AgainstAWall(unittest.TestCase):
    def test_a_prop_is_cut_at_its_lean_on_the_ground_and_at_the_rest_on_the_wall(self) -> None:
        made = solved(brace({"form": "prop", "stand_off_mm": 600.0, "wall_height_mm": 800.0}))
        board = made.assembly.board("prop")
        lean = degrees(atan2(600, 800))
        self.assertAlmostEqual(made.ruler.measure("prop_lean") or 0, lean, places=9)
        self.assertAlmostEqual(abs(end_cut(board.left[0]).miter_deg), lean, places=9)
        self.assertAlmostEqual(abs(end_cut(board.right[0]).miter_deg), 90 - lean, places=9)

    def test_ground_and_wall_that_slope_turn_the_cuts_by_as_much(self) -> None:
        place = {"form": "prop", "stand_off_mm": 600.0, "wall_height_mm": 800.0, "ground_deg": 5.0, "wall_deg": 3.0}
        made = solved(brace(place))
        board = made.assembly.board("prop")
        foot, head = (abs(end_cut(cuts[0]).miter_deg) for cuts in (board.left, board.right))
        # Both cuts together make the corner between ground and wall, as at a knee brace.
        self.assertAlmostEqual(foot + head, 90 + 3 + 5, places=9)
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds)

    def test_treads_are_level_at_even_rises_and_flush_with_the_uprights(self) -> None:
        treads = {"count": 4, "thickness_mm": 25.0, "clear_mm": 300.0}
        made = solved(brace({"form": "prop", "stand_off_mm": 500.0, "wall_height_mm": 1600.0, "treads": treads}))
        self.assertAlmostEqual(made.ruler.measure("tread_rise") or 0, 1600 / 5, places=9)
        low, high = made.solids["tread 1"].extent_x()
        self.assertAlmostEqual(high - low, 300.0, places=9)
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds and all(check.closes for check in made.joints))

    def test_boxes_stand_on_their_treads_flush_with_the_uprights_and_end_below_the_next_tread(self) -> None:
        treads = {"count": 3, "thickness_mm": 20.0, "clear_mm": 500.0, "box_mm": 100.0}
        place = {"form": "prop", "stand_off_mm": 500.0, "wall_height_mm": 1500.0, "treads": treads}
        made = solved(brace(place, 130.0))
        lean = atan2(500, 1500)
        for name in ("front 2", "back 2"):
            board = made.assembly.board(name)
            # The board's width from long point to long point: up the slope, and what its thickness takes at both bevels.
            tall = [p[1] for piece in made.solids[name].local for p in piece.points]
            self.assertAlmostEqual(max(tall) - min(tall), 100 / cos(lean) + 20 * tan(lean), places=9)
            self.assertAlmostEqual(abs(rip_bevel_deg(board.lower_rip)), degrees(lean), places=9)
            level = sorted({round(p[2], 6) for piece in made.solids[name].world for p in piece.points})
            self.assertEqual(level, [round(1500 / 2 + 10, 6), round(1500 / 2 + 110, 6)])
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds and all(check.closes for check in made.joints))
        for wrong, code in (({"box_mm": 360.0}, "box_too_tall"), ({"thickness_mm": 80.0}, "box_no_room")):
            with self.assertRaises(SpecError) as refused:
                solved(brace({**place, "treads": {**treads, **wrong}}, 130.0))
            self.assertEqual(refused.exception.code, code)

    def test_a_box_deeper_than_the_uprights_has_slopes_and_ends_of_its_own(self) -> None:
        own = {"deep_mm": 220.0, "proud_mm": 40.0, "front_deg": 15.0, "back_deg": 5.0, "box_mm": 150.0}
        treads = {"count": 3, "thickness_mm": 20.0, "clear_mm": 500.0, **own}
        place = {"form": "prop", "stand_off_mm": 700.0, "wall_height_mm": 1500.0, "treads": treads}
        made = solved(brace(place, 95.0))
        # Inside, up from the tread's underside, the front leaves by the tangent of its slope; both walls take their thickness.
        low, high = (220.0 + sum(z * tan(radians(deg)) - 20.0 / cos(radians(deg)) for deg in (15.0, 5.0)) for z in (20.0, 170.0))
        self.assertAlmostEqual(made.solids["end 2f"].volume(), 20.0 * 150.0 * (low + high) / 2, places=4)
        # The tread's lower front edge stands out before the upright's front edge at its level.
        lean, level = atan2(700, 1500), 1500 / 2 - 10
        edge = -700 + level * tan(lean) - 95 / 2 / cos(lean)
        self.assertAlmostEqual(
            min(p[0] for piece in made.solids["tread 2"].world for p in piece.points if p[2] < level + 1), edge - 40, places=6
        )
        self.assertTrue(
            boolean_proof(made.assembly, made.solids).holds and all(check.closes and check.touches for check in made.joints)
        )
        with self.assertRaises(SpecError) as refused:
            solved(brace({**place, "treads": {**treads, "proud_mm": 260.0}}, 95.0))
        self.assertEqual(refused.exception.code, "box_off_uprights")

    def test_cleats_lie_on_the_ground_and_on_the_wall(self) -> None:
        cleats = {"width_mm": 60.0, "thickness_mm": 22.0, "at": "both"}
        treads = {"count": 2, "thickness_mm": 20.0, "clear_mm": 400.0, "cleats": cleats}
        made = solved(brace({"form": "prop", "stand_off_mm": 500.0, "wall_height_mm": 1500.0, "treads": treads}))
        spans = [
            [
                (round(min(at), 6), round(max(at), 6))
                for at in zip(*(p for piece in made.solids[f"cleat {on}"].world for p in piece.points), strict=True)
            ]
            for on in ("ground", "wall")
        ]
        self.assertEqual(
            spans, [[(-530.0, -470.0), (-200.0, 200.0), (0.0, 22.0)], [(-22.0, 0.0), (-200.0, 200.0), (1470.0, 1530.0)]]
        )
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds and all(check.closes for check in made.joints))

    def test_a_head_lies_on_the_wall_under_a_sill_with_its_lip(self) -> None:
        place = {"form": "prop", "stand_off_mm": 500.0, "wall_height_mm": 1500.0, "sill": {"out_mm": 20.0, "under_mm": 1510.0}}
        made = solved(brace(place))
        (lip,) = made.solids["prop"].patches("notch:0")
        spans = [(round(min(at), 6), round(max(at), 6)) for at in zip(*lip.points, strict=True)]
        self.assertEqual(spans, [(-20.0, 0.0), (-20.0, 20.0), (1510.0, 1510.0)])
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds and all(check.closes for check in made.joints))
        with self.assertRaises(SpecError) as refused:
            solved(brace({**place, "sill": {"out_mm": 20.0, "under_mm": 1700.0}}))
        # The head lies on the wall as long as the board is wide across, turned by its lean.
        self.assertAlmostEqual(refused.exception.data["limit_mm"], 1500 + 75 / 2 / sin(atan2(500, 1500)), places=6)

    def test_a_prop_shorter_than_its_place_is_refused_with_what_it_hangs_on(self) -> None:
        document = brace({"form": "prop", "stand_off_mm": 600.0, "wall_height_mm": 800.0}, by="lower")
        with self.assertRaises(SpecError) as refused:
            BRACE.edit(spec_of(all_typed(document)), Give(op="give", measure="lower_edge", text="700"), MM)
        self.assertEqual({name for name, *_ in refused.exception.data["others"]}, {"stand_off", "wall_height"})
