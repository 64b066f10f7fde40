"""Stands against closed forms: q = sqrt(1 + tan² x + tan² y) of a leg that leans x and y (F18), rings by F29."""

import unittest
from math import acos, asin, atan, cos, degrees, hypot, radians, sin, sqrt, tan
from typing import Any

from fennup.core.drawing.edit import Drag, Free, Give
from fennup.core.errors import SpecError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.kinds.stand.roll import roll_picture
from fennup.core.kinds.stand.sides import flanks_of, residual_deg
from fennup.core.kinds.stand.spec import ROLLS
from fennup.core.parts.solid import arris_length, end_cut, rip_bevel_deg
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof
from tests.core.frames import all_typed, solved, spec_of

MM = tape("mm", "1")
STAND = KINDS["stand"]


def four(front: float, side: float, **more: Any) -> dict[str, Any]:
    """Four legs, 300 by 240 at the top, 45 square, 450 high."""
    plan = {"form": "four", "top_width_mm": 300.0, "top_depth_mm": 240.0, "front_splay_deg": front, "side_splay_deg": side}
    leg = {"width_mm": 45.0, "thickness_mm": 45.0}
    return {"kind": "stand", "plan": plan, "height_mm": 450.0, "leg": leg, **more}


def spread(x: float, y: float) -> float:
    """How many times its height a leg is long."""
    return sqrt(1 + tan(radians(x)) ** 2 + tan(radians(y)) ** 2)


class ALegThatLeansTwoWays(unittest.TestCase):
    def test_its_length_lean_and_cuts_are_those_of_the_textbook(self) -> None:
        made = solved(four(8, 8))
        leg, (low, high) = made.assembly.board("AB"), made.solids["AB"].extent_x()
        self.assertAlmostEqual(made.ruler.measure("true_lean") or 0, 11.2413, places=4)
        self.assertAlmostEqual(made.ruler.measure("leg_length") or 0, 450 * spread(8, 8), places=9)
        self.assertAlmostEqual(high - low, 471.4503, places=4)
        foot = end_cut(leg.left[0])
        self.assertAlmostEqual(foot.miter_deg, degrees(atan(tan(radians(8)) * cos(radians(8)))), places=9)
        self.assertAlmostEqual(abs(foot.bevel_deg), 8.0, places=9)
        self.assertAlmostEqual(residual_deg(leg, flanks_of(made.spec), 0), degrees(asin(sin(radians(8)) ** 2)), places=9)

    def test_evenly_turned_the_pencil_lines_are_the_two_splays(self) -> None:
        foot = end_cut(solved(four(7, 12, roll="even")).assembly.board("AB").left[0])
        self.assertAlmostEqual(abs(foot.miter_deg), 7.0, places=9)
        self.assertAlmostEqual(abs(foot.edge_trace_deg), 12.0, places=9)

    def test_the_pictures_of_how_a_leg_is_turned_show_which_sides_lie_in_their_planes(self) -> None:
        in_planes = {}
        for how in ROLLS:
            wood, *planes = roll_picture(how, None).shapes
            edges = [(b[0] - a[0], b[1] - a[1]) for a, b in zip(wood.points, wood.points[1:], strict=False)]
            lines = [(b[0] - a[0], b[1] - a[1]) for a, b in (plane.points for plane in planes)]
            in_planes[how] = sum(any(abs(x * v - y * u) < 1e-6 * hypot(x, y) * hypot(u, v) for x, y in edges) for u, v in lines)
        self.assertEqual(in_planes, {"in_plane": 1, "even": 0, "rhombic": 2})

    def test_a_rhombic_leg_lies_in_both_planes_and_is_ripped_by_the_residual(self) -> None:
        made = solved(four(8, 8, roll="rhombic"))
        leg = made.assembly.board("AB")
        self.assertAlmostEqual(residual_deg(leg, flanks_of(made.spec), 0), 0.0, places=5)
        self.assertEqual({round(abs(rip_bevel_deg(rip)), 4) for rip in (leg.upper_rip, leg.lower_rip) if rip}, {1.1098})
        # Both pairs of sides are 45 apart, so the section is that of a rhombus: 45² / sin of its corner.
        area = made.solids["AB"].volume() / (450 * spread(8, 8))
        self.assertAlmostEqual(area, 45**2 / cos(asin(sin(radians(8)) ** 2)), places=6)

    def test_legs_between_level_cuts_are_one_part_and_those_with_plumb_heads_come_in_two_hands(self) -> None:
        # Between parallel cuts a leg is the same turned about its middle, and so is its mirror image.
        self.assertEqual([part.boards for part in solved(four(6, 11)).parts], [("AB", "BC", "CD", "DA")])
        plan = {"form": "pairs", "top_width_mm": 300.0, "front_splay_deg": 6.0, "side_splay_deg": 14.0}
        parts = [(part.boards, part.mirror_of) for part in solved(four(6, 11) | {"plan": plan}).parts]
        self.assertEqual(parts, [(("AB", "CD"), None), (("BC", "DA"), "AB")])

    def test_three_legs_stand_on_a_circle(self) -> None:
        plan = {"form": "round", "legs": 3, "top_side_mm": 200.0, "lean_deg": 15.0}
        made = solved(four(0, 0, roll="even") | {"plan": plan})
        # From leg to leg on the ground: the top's side grows by sqrt(3) times what each leg runs out.
        self.assertAlmostEqual(made.ruler.measure("foot_side") or 0, 200 + sqrt(3) * 450 * tan(radians(15)), places=9)
        self.assertEqual(len(made.parts), 1)


class WhatHoldsTheLegs(unittest.TestCase):
    def test_a_level_ring_round_leaning_legs_is_a_compound_miter(self) -> None:
        made = solved(four(4, 9, rings=[{"height_mm": 150.0, "tall_mm": 88.9, "thickness_mm": 19.05}]))
        half = degrees(acos(sin(radians(4)) * sin(radians(9)))) / 2
        for letter, own, other in (("A", 9, 4), ("B", 4, 9)):
            cut = end_cut(made.assembly.board(f"ring {letter}1").right[0])
            self.assertAlmostEqual(cut.miter_deg, degrees(atan(tan(radians(other)) * cos(radians(own)))), places=9)
            self.assertAlmostEqual(abs(cut.bevel_deg), half, places=9)
        self.assertAlmostEqual(half, 44.6874, places=4)

    def test_a_rail_between_legs_in_its_plane_is_cut_at_the_splay_seen_there_and_its_length_follows(self) -> None:
        made = solved(four(8, 8, rails=[{"height_mm": 100.0, "width_mm": 60.0, "thickness_mm": 20.0, "set_in_mm": 10.0}]))
        rail = made.assembly.board("rail A1")
        seen = degrees(atan(tan(radians(8)) * cos(radians(8))))
        for cut in (*rail.left, *rail.right):
            self.assertAlmostEqual(end_cut(cut).miter_deg, seen, places=9)
            self.assertAlmostEqual(end_cut(cut).bevel_deg, 0.0, places=9)
        self.assertEqual(made.closing.state, "opens")
        proof = boolean_proof(made.assembly, made.solids)
        self.assertTrue(proof.holds)
        self.assertEqual((len(proof.contacts), proof.apart, proof.bare), (8, (), ()))

    def test_crossing_braces_are_half_lapped_and_share_no_wood(self) -> None:
        braces = {"low_mm": 60.0, "high_mm": 380.0, "width_mm": 40.0, "thickness_mm": 20.0}
        made = solved(four(8, 8, braces=braces, top={"thickness_mm": 20.0, "over_mm": 10.0}))
        self.assertEqual(sum(joint.kind == "lap" for joint in made.assembly.joints), 4)
        self.assertTrue(all(check.closes for check in made.joints))
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds)

    def test_a_pair_meets_plumb_at_its_head_with_a_beam_or_without(self) -> None:
        plan: dict[str, Any] = {"form": "pairs", "top_width_mm": 500.0, "side_splay_deg": 20.0}
        for beam in (None, {"thickness_mm": 30.0, "depth_mm": 160.0}):
            made = solved(four(0, 0) | {"plan": {**plan, "beam": beam}})
            leg = made.assembly.board("AB")
            # A plumb cut on a leg 20 degrees from vertical lies 70 degrees from square, all of it in the thickness.
            self.assertAlmostEqual(abs(end_cut(leg.right[0]).bevel_deg), 70.0, places=9)
            feet = 2 * 450 * tan(radians(20)) + (30.0 if beam else 0.0)
            self.assertAlmostEqual(made.ruler.measure("foot_depth") or 0, feet, places=9)
            self.assertTrue(boolean_proof(made.assembly, made.solids).holds and all(check.closes for check in made.joints))


class AnyStart(unittest.TestCase):
    def test_feet_and_offsets_settle_the_splay(self) -> None:
        spec = spec_of(four(8, 8))
        for act in (Free(op="free", measure="front_splay"), Give(op="give", measure="foot_width", text="420")):
            spec = STAND.spec.model_validate(STAND.edit(spec, act, MM))
        self.assertAlmostEqual(spec.plan.front_splay_deg, degrees(atan(60 / 450)), places=9)
        dragged = Drag(op="drag", grip="pin:front:foot_width", x_mm=230.2, y_mm=0.0)
        spec = STAND.spec.model_validate(STAND.edit(spec, dragged, MM))
        self.assertAlmostEqual(spec.plan.front_splay_deg, degrees(atan(80 / 450)), places=9)

    def test_too_much_is_refused_with_the_sizes_that_it_hangs_on(self) -> None:
        with self.assertRaises(SpecError) as refused:
            STAND.edit(spec_of(all_typed(four(8, 8))), Give(op="give", measure="foot_width", text="500"), MM)
        self.assertEqual(refused.exception.code, "pins_disagree")
        self.assertEqual({name for name, *_ in refused.exception.data["others"]}, {"height", "top_width", "front_splay"})

    def test_a_ring_of_square_stock_keeps_the_stocks_section(self) -> None:
        ring = {"height_mm": 200.0, "tall_mm": 60.0, "thickness_mm": 20.0, "edges": "square"}
        made = solved(four(8, 8, rings=[ring]))
        board = made.assembly.board("ring A1")
        self.assertEqual((board.section.width_mm, board.section.thickness_mm, board.rips), (60.0, 20.0, ()))
        # Its back's lower edge lies on the legs at that height: as wide as they are there.
        self.assertAlmostEqual(arris_length(board, "back_lower"), 300 + 2 * 250 * tan(radians(8)), places=9)
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds and all(check.closes for check in made.joints))
        # Up the slope it is lower than it is wide: it still lies under the heads.
        self.assertIn(solved(four(8, 8, rings=[ring | {"height_mm": 390.3}])).closing.state, ("exact", "opens"))
        uneven = solved(four(5, 12, rings=[ring]))
        self.assertIn("square_edges_miss", [finding.code for finding in uneven.findings])

    def test_legs_that_would_cross_are_told_at_what_size_they_touch(self) -> None:
        crossed = four(0, 0)
        crossed["plan"]["top_width_mm"] = 60.0
        with self.assertRaises(SpecError) as refused:
            solved(crossed)
        self.assertAlmostEqual(refused.exception.data["limit_mm"], 90.0, places=4)  # two legs of 45 side by side
        block = {"thickness_mm": 20.0, "over_mm": 0.0}
        crossed = four(8, 8, top=block)
        crossed["plan"]["top_width_mm"] = 60.0
        with self.assertRaises(SpecError) as refused:
            solved(crossed)
        crossed["plan"]["top_width_mm"] = refused.exception.data["limit_mm"]
        self.assertIn(solved(crossed).closing.state, ("exact", "opens"))

    def test_what_cannot_be_is_refused_at_its_field(self) -> None:
        rail = {"height_mm": 420.0, "width_mm": 60.0, "thickness_mm": 20.0}
        ring = {"height_mm": 400.0, "tall_mm": 60.0, "thickness_mm": 20.0}
        crossed = four(8, 8)
        crossed["plan"]["top_width_mm"] = 60.0
        for document, code, field in (
            (crossed, "legs_cross", "plan.top_width_mm"),
            (four(8, 8, rails=[rail]), "rail_above", "rails.0.height_mm"),
            (four(8, 8, rings=[ring]), "ring_off_legs", "rings.0.height_mm"),
        ):
            with self.assertRaises(SpecError) as refused:
                solved(document)
            self.assertEqual((refused.exception.code, refused.exception.fields), (code, (field,)))
