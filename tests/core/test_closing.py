import unittest
from cmath import rect
from dataclasses import replace
from itertools import combinations
from math import acos, copysign, cos, degrees, pi, radians, sin, tan
from random import Random

import numpy as np

from fennup.core.geometry.vec import dot
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import end_cut, solid_of
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.saw.settings import settings_for
from fennup.core.saw.ways import each_cut, ways_for
from fennup.core.stock.section import Section
from fennup.core.verify.boolean import BooleanProof, boolean_proof
from fennup.core.verify.closing import Closing
from fennup.core.verify.findings import findings_of
from fennup.core.verify.joints import check_joint, shared_wood
from fennup.core.verify.made import Ends, rounded_to
from fennup.core.verify.near import near_pairs
from fennup.core.verify.rings import AddsUp, adds_up
from fennup.core.workshop import TapeChoice
from tests.core.frames import Solved, box, irregular, rectangle, regular, solved

HALF = MiterSaw(swing_step_deg=0.5)


def opening_by_coordinates(sides: int, outer_side: float, width: float, miter_deg: float) -> tuple[float, str]:
    """The last joint's opening by laying quadrilaterals in the plane: another way than the one under test.

    Every piece is four points; each is laid with its left face on the last piece's right face, outer tips together.
    """
    m = radians(miter_deg)
    start, way = 0j, 1 + 0j
    turn = complex(cos(2 * m), sin(2 * m))
    into = complex(sin(m), cos(m)) * width / cos(m)
    for _ in range(sides - 1):
        start, way = start + way * outer_side, way * turn
    # Faces at the last joint: the first piece's left face from its outer tip, the last piece's right face from its own.
    first = into
    last = way * complex(-into.real, into.imag)
    # Touching at the outer tips, the inner ends are this far apart; at the inner tips the outer ends are.
    apart = abs(first - last)
    overlap = (first * last.conjugate()).imag
    # `last` must come before `first` going round (to its right) for the inner ends to stand open.
    return apart, "opening" if overlap < 0 else "outer"


HEPTAGON = regular(7, 50.8, "outside_corners", mm=533.4)
WIDE = {"A": {"width_mm": 90.0}, "C": {"width_mm": 90.0}}


def last_of(solution: Solved) -> AddsUp:
    """What adds up in the only ring."""
    (ring,) = solution.rings
    return ring


class AsTheSawCanBeSet(unittest.TestCase):
    def test_what_adds_up_in_a_heptagon_agrees_with_laying_the_pieces_by_coordinates(self) -> None:
        for step, at in ((0.5, "lower"), (1.0, "upper"), (0.2, "upper")):
            with self.subTest(step):
                frame = solved(HEPTAGON, MiterSaw(swing_step_deg=step))
                as_set = round((180 / 7) / step) * step
                opening, where = opening_by_coordinates(7, 533.4 * sin(pi / 7), 50.8, as_set)
                self.assertEqual(frame.closing.state, "opens")
                self.assertAlmostEqual(last_of(frame).opening_mm, opening, places=9)
                self.assertEqual((last_of(frame).at, {"outer": "lower", "opening": "upper"}[where]), (at, at))

    def test_an_open_side_is_out_by_the_rounding_of_what_stands_across_it_whichever_way_one_goes_round(self) -> None:
        # Of three sides the middle one, 200.3 long, is cut to 200: where the fourth is left out it is narrower by 0.3.
        frame = solved(rectangle("outside", 320.0, 200.3, 40.0, left_out=["D"]))
        joints = tuple(replace(joint, ends=joint.ends[::-1]) for joint in frame.assembly.joints)
        for assembly in (frame.assembly, replace(frame.assembly, joints=joints)):
            (ring,) = adds_up(Ends(assembly, frame.solids, lambda _, __, cut: cut.normal), 1.0)
            self.assertAlmostEqual(ring.wider_mm, -0.3, places=9)

    def test_no_end_is_turned_by_more_than_half_a_step_of_each_scale(self) -> None:
        machine = MiterSaw()
        starts = [(name, document) for kind in KINDS.values() for name, document in kind.starts.items()]
        for start, document in starts:
            made = solved(document, machine)
            ends = Ends(
                made.assembly, made.solids, rounded_to(made.boards, made.parts, made.settings, {"t1": machine}), made.parts
            )
            for mating in (m for joint in made.assembly.joints for m in (joint.a, joint.b) if ends.at(m)):
                with self.subTest(start=start, mating=mating):
                    turned = degrees(acos(min(1.0, dot(ends.normal(mating), ends.true_normal(mating)))))
                    self.assertLessEqual(turned, (machine.swing_step_deg + machine.tilt_step_deg) / 2 + 1e-6)

    def test_each_joint_by_itself_opens_by_both_its_faces_turn_over_their_length(self) -> None:
        frame = solved(HEPTAGON, HALF)
        # Seen along the joint line each end leans off it by a turn of its own; its other end is 50.8 of width away.
        off = 50.8 * (tan(radians(180 / 7)) - tan(radians(25.5))) * cos(radians(180 / 7))
        for gap in frame.gaps:
            self.assertAlmostEqual(gap.widest_mm, 2 * off, places=9)
            self.assertEqual(gap.at, "lower")

    def test_one_ring_has_one_verdict_alone_as_one_of_several_and_standing_upright(self) -> None:
        alone = solved(HEPTAGON, HALF)
        beside = box({"form": "rectangle", "width_mm": 200.0, "depth_mm": 200.0}, 90.0)
        members = [{"name": "Frame", "spec": HEPTAGON}, {"name": "Box", "spec": beside}]
        several = solved({"kind": "together", "members": members}, HALF)
        across = 533.4 * cos(pi / 7)
        upright = solved(box({"form": "regular", "sides": 7, "across_mm": across}, 20.0, thickness_mm=50.8), HALF)
        tilts = HALF.model_copy(update={"tilt_left_deg": 0.0})
        on_edge = solved(box({"form": "regular", "sides": 7, "across_mm": across}, 20.0, thickness_mm=50.8), tilts)
        for other in (several, upright, on_edge):
            ring = other.closing.adding_up
            assert ring and other.closing.by_itself
            self.assertAlmostEqual(ring.opening_mm, last_of(alone).opening_mm, places=9)
            self.assertAlmostEqual(other.closing.by_itself.widest_mm, alone.gaps[0].widest_mm, places=9)
        self.assertEqual(several.closing.adding_up, replace(last_of(alone), joint="m1/GA", boards=several.rings[0].boards))

    def test_a_leaning_ring_is_out_by_n_turns_over_both_made_planes(self) -> None:
        for sides, slope, step in ((6, 12.0, 1.0), (8, 9.3, 0.5), (5, -17.0, 0.5)):
            with self.subTest(sides=sides, slope=slope):
                saw = MiterSaw(swing_step_deg=step, tilt_step_deg=step, tilt_right_deg=45.0)
                made = solved(
                    box({"form": "regular", "sides": sides, "across_mm": 500.0}, 180.0, slope_deg=slope, edges="square"), saw
                )
                board = made.assembly.board("A")
                cut = end_cut(board.right[0])
                m, b = (copysign(round(abs(v) / step) * step, v) for v in (cut.miter_deg, cut.bevel_deg))
                n = np.array([cos(radians(b)) * cos(radians(m)), cos(radians(b)) * sin(radians(m)), sin(radians(b))])
                # A wall is the mirror image of its neighbour in the made plane, and of itself in its middle plane: from wall to
                # wall one turns by twice the angle between the two, about the line where they meet.
                apart = 2 * sides * acos(n[0]) - 2 * pi
                axis = np.cross([1.0, 0.0, 0.0], n)
                across = np.cross(axis / np.linalg.norm(axis), n)
                y, z = board.section.width_mm / 2, board.section.thickness_mm / 2
                face = [np.array([-(n[1] * v + n[2] * w) / n[0], v, w]) for v in (-y, y) for w in (-z, z)]
                along = [float(p @ across) for p in face]
                want = 2 * (max(along) - min(along)) * abs(sin(apart / 2))
                self.assertGreater(want, 0.05)
                self.assertAlmostEqual(last_of(made).opening_mm, want, places=9)

    def test_the_opening_is_measured_over_the_shorter_of_two_made_faces(self) -> None:
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0, rails=WIDE), MiterSaw(swing_step_deg=2.0))
        # 33.69 is set to 34, 56.31 to 56 at every corner: nothing is left over. 35 and 55 in steps of 5, neither. In steps of
        # 0.7 it is 33.6 and 56.0: four corners turn 0.4 too little each, over 60 / cos 56.
        self.assertAlmostEqual(last_of(frame).opening_mm, 0.0, places=9)
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0, rails=WIDE), MiterSaw(swing_step_deg=0.7, swing_right_deg=60.0))
        faces = (90 / cos(radians(33.6)), 60 / cos(radians(56.0)))
        self.assertGreater(abs(faces[0] - faces[1]), 0.7)
        self.assertAlmostEqual(last_of(frame).opening_mm, 2 * min(faces) * sin(radians(0.8)), places=9)

    def test_rounded_lengths_count_in_every_ring(self) -> None:
        # The front is 600.4 long and cut to 600, the back 400.2 and cut to 400: what is lost does not make up for each other.
        corners = [(-300.2, 0.0), (300.2, 0.0), (200.1, 240.0), (-200.1, 240.0)]
        saw = MiterSaw(swing_step_deg=1e-9, tilt_step_deg=1e-9)
        frame = solved(irregular(corners, []), saw, tape=TapeChoice())
        errors = []
        for id in "ABCD":
            low, high = frame.solids[id].extent_x()
            errors.append((round(high - low) - (high - low)) * np.array(frame.assembly.board(id).frame.x))
        lost = sum(errors)
        square = np.array(frame.solids["D"].patches("right:0")[0].plane.normal)
        self.assertGreater(float(np.linalg.norm(lost)), 0.1)
        self.assertAlmostEqual(last_of(frame).opening_mm, abs(float(lost @ square)), places=6)
        self.assertAlmostEqual(last_of(frame).step_mm, float(np.linalg.norm(lost - (lost @ square) * square)), places=6)

    def test_an_arch_opens_at_its_joints_and_comes_out_wider_or_narrower(self) -> None:
        arch = regular(8, 58.0, "outside_side", mm=205.5, left_out=["A"], loose_ends="square")
        made = solved(arch, MiterSaw(swing_step_deg=1.0))
        self.assertEqual((made.closing.state, made.closing.open_side, last_of(made).joint), ("opens", True, None))
        assert made.closing.by_itself
        off = 58 * (tan(radians(23.0)) - tan(radians(22.5))) * cos(radians(22.5))
        self.assertAlmostEqual(made.closing.by_itself.widest_mm, 2 * off, places=9)
        # Seven sides one after another, turning 46 instead of 45 degrees at each of six corners.
        ends = [abs(sum(205.5 * rect(1, radians(turn * k)) for k in range(7))) for turn in (46.0, 45.0)]
        self.assertAlmostEqual(last_of(made).wider_mm, ends[0] - ends[1], places=6)

    def test_a_saw_that_shows_the_angle_closes_exactly(self) -> None:
        self.assertEqual(solved(regular(8, 45.0, "opening_flats", mm=300.0), HALF).closing.state, "exact")
        self.assertEqual(
            solved(regular(5, 45.0, "opening_flats", mm=300.0, joint="butt"), MiterSaw(swing_step_deg=1)).closing.state,
            "exact",
        )

    def test_a_scale_from_the_fence_rounds_its_own_reading(self) -> None:
        # 25.7143 from square reads 64.2857; in steps of 1 that is 64, which is 26 from square; in steps of 4, 64 again.
        fence = MiterSaw(swing_counts_from="fence", swing_step_deg=4.0)
        frame = solved(HEPTAGON, fence)
        self.assertAlmostEqual(frame.settings[0].swing_as_set_deg, 26.0)
        self.assertAlmostEqual(MiterSaw(swing_step_deg=4.0).swing_as_set(25.7143), 24.0)

    def test_unequal_rails_whose_rounded_angles_still_make_90_step_at_the_opening(self) -> None:
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0, rails=WIDE), HALF)
        self.assertAlmostEqual(last_of(frame).opening_mm, 0.0, places=9)
        step = abs(90 / cos(radians(33.5)) - 60 / cos(radians(56.5)))
        self.assertAlmostEqual(max(gap.step_mm for gap in frame.gaps), step, places=9)


class AsDesigned(unittest.TestCase):
    def moved(self, frame: Solved, board: str, change: dict[str, object]) -> Solved:
        boards = tuple(replace(b, **change) if b.id == board else b for b in frame.assembly.boards)  # type: ignore[arg-type]
        design = replace(
            frame.design, assembly=replace(frame.assembly, boards=boards), solids={b.id: solid_of(b) for b in boards}
        )
        return replace(frame, design=design)

    def test_a_rail_cut_too_short_at_one_end_opens_that_joint_by_as_much(self) -> None:
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0))
        right = frame.assembly.board("A").right[0]
        short = self.moved(frame, "A", {"right": (right.moved(-3.0),)})
        checks = {j.id: check_joint(short.assembly, j, short.solids) for j in short.assembly.joints}
        self.assertAlmostEqual(checks["AB"].gap_mm, 3.0, places=9)
        self.assertFalse(checks["AB"].closes)
        self.assertTrue(checks["DA"].closes)
        long = self.moved(frame, "A", {"right": (right.moved(2.0),)})
        check = check_joint(long.assembly, long.assembly.joints[0], long.solids)
        self.assertAlmostEqual(check.overlap_mm, 2.0, places=9)
        self.assertEqual([(a, b) for a, b, _ in shared_wood(long.solids)], [("A", "B")])

    def test_a_rail_slid_along_its_joint_no_longer_covers_it(self) -> None:
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0))
        cut = frame.assembly.joints[0]
        board = frame.assembly.board("B")
        along = (board.frame.x[0] - board.frame.y[0], board.frame.x[1] - board.frame.y[1], 0.0)
        origin = tuple(o + 4.0 * a / 2**0.5 for o, a in zip(board.frame.origin, along, strict=True))
        slid = self.moved(frame, "B", {"frame": replace(board.frame, origin=origin)})
        check = check_joint(slid.assembly, cut, slid.solids)
        self.assertAlmostEqual(max(check.gap_mm, check.bare_mm, check.overlap_mm), 4.0, places=6)
        self.assertFalse(check.closes)

    def test_rabbets_of_unequal_rails_miss_each_other_by_design_and_that_is_a_finding(self) -> None:
        wide = {"A": {"width_mm": 90.0}, "C": {"width_mm": 90.0}}
        frame = solved(rectangle("opening", 400.0, 300.0, 60.0, rails=wide, rabbet={"width_mm": 10.0, "depth_mm": 8.0}))
        self.assertTrue(all(j.closes and j.by_design for j in frame.joints))
        # Along the joint line a rabbet ends 10 / cos(miter) from the inner corner on each rail: tan m = 60/90 and 90/60.
        apart = 10 * ((1 + (90 / 60) ** 2) ** 0.5 - (1 + (60 / 90) ** 2) ** 0.5)
        values = [f.value for f in frame.findings if f.code == "rabbets_miss"]
        self.assertAlmostEqual(values[0] or 0, apart, places=6)
        equal = solved(rectangle("opening", 400.0, 300.0, 60.0, rabbet={"width_mm": 10.0, "depth_mm": 8.0}))
        self.assertFalse(any(f.code == "rabbets_miss" for f in equal.findings))

    def test_a_rail_out_of_its_place_makes_the_size_that_was_given_fail(self) -> None:
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0))
        board = frame.assembly.board("B")
        x, y, z = board.frame.origin
        off = self.moved(frame, "B", {"frame": replace(board.frame, origin=(x + 3.0, y, z))})
        measured = [(claim, Ruler(off.assembly).measure(claim.measure)) for claim in off.assembly.claims]
        self.assertEqual([round(m or 0, 9) for _, m in measured], [603.0, 400.0])
        found = findings_of(off.assembly, off.solids, off.parts, (), measured, (), off.closing, 0.5)
        missed = [(f.fields, f.limit) for f in found if f.code == "claim_missed"]
        self.assertEqual(missed, [(("shape.size.width_mm",), 600.0)])


def proof_of(solution: Solved) -> BooleanProof:
    return boolean_proof(solution.assembly, solution.solids)


class PutTogetherAsSolids(unittest.TestCase):
    """The second proof, by a library that shares nothing with the kernel but the planes."""

    def with_end(self, frame: Solved, out: float) -> BooleanProof:
        """The frame's proof when rail A's right end is let out so far."""
        board = frame.assembly.board("A")
        changed = replace(board, right=(board.right[0].moved(out),))
        boards = tuple(changed if b.id == "A" else b for b in frame.assembly.boards)
        return boolean_proof(replace(frame.assembly, boards=boards), frame.solids | {"A": solid_of(changed)})

    def test_every_joint_touches_on_its_whole_face_whatever_it_is(self) -> None:
        rabbet = {"width_mm": 6.0, "depth_mm": 8.0}
        for document in (
            regular(7, 50.0, "opening_flats", mm=400.0, rabbet=rabbet),
            regular(5, 50.0, "opening_flats", mm=400.0, joint="butt"),
            regular(8, 58.0, "outside_side", mm=205.5, left_out=["A"], loose_ends="ground"),
            KINDS["brace"].starts["crossing"],
            KINDS["roof"].starts["gable"],
        ):
            made = solved(document)
            proof = proof_of(made)
            self.assertTrue(proof.holds and proof.confirms(made.closing, made.joints), proof)
            self.assertEqual((len(proof.contacts), proof.bare), (len(made.joints), ()))
        # A miter's face: the rail's width over the miter's cosine, by its thickness, less the rabbet's step.
        miter = cos(radians(180 / 7))
        proof = proof_of(solved(regular(7, 50.0, "opening_flats", mm=400.0, rabbet=rabbet)))
        self.assertAlmostEqual(proof.contacts[0].touching_mm2, (50 * 20 - 6 * 8) / miter, delta=0.01)

    def test_rails_so_high_that_they_close_the_pairs_triangle_are_no_fault(self) -> None:
        # From 490 up a rail stands against both legs where they meet: no hole is left between them.
        legs = {"form": "pairs", "top_width_mm": 800.0, "side_splay_deg": 17.0}
        rails = [{"height_mm": 500.0, "width_mm": 60.0, "thickness_mm": 20.0}]
        made = solved(
            {"kind": "stand", "plan": legs, "height_mm": 700.0, "leg": {"width_mm": 45.0, "thickness_mm": 45.0}, "rails": rails}
        )
        proof = proof_of(made)
        self.assertEqual((made.closing.state, proof.holds, proof.confirms(made.closing, made.joints)), ("exact", True, True))

    def test_it_fails_when_a_rail_is_short_and_measures_the_wood_shared_when_it_is_long(self) -> None:
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0))
        short = self.with_end(frame, -0.01)
        self.assertFalse(short.holds)
        self.assertEqual((short.apart, short.shared), (("AB",), ()))
        # Let out by d square to the face, 60 / cos 45 long, it stands in B; at depth s both edges have drawn in by s.
        long = self.with_end(frame, 0.5)
        self.assertFalse(long.holds)
        self.assertEqual([pair[:2] for pair in long.shared], [("A", "B")])
        self.assertAlmostEqual(long.shared[0][2], 20 * (0.5 * 60 * 2**0.5 - 0.5**2), places=6)

    def test_wood_that_only_one_of_the_two_ways_of_cutting_leaves_is_told(self) -> None:
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0))
        thinner = solid_of(replace(frame.assembly.board("C"), section=Section(60.0, 19.999)))
        proof = boolean_proof(frame.assembly, frame.solids | {"C": thinner})
        self.assertEqual((proof.holds, proof.unlike), (False, ("C",)))

    def test_a_loose_piece_in_the_way_shares_wood_though_every_joint_touches(self) -> None:
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0))
        again = replace(frame.assembly.board("A"), id="again")
        boards = (*frame.assembly.boards, again)
        proof = boolean_proof(replace(frame.assembly, boards=boards), frame.solids | {"again": solid_of(again)})
        self.assertEqual((proof.holds, proof.apart, proof.unlike), (False, (), ()))
        self.assertAlmostEqual(proof.shared[0][2], frame.solids["A"].volume(), delta=1e-3)

    def test_a_bare_strip_that_only_the_first_proof_sees_is_not_confirmed(self) -> None:
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0))
        self.assertFalse(proof_of(frame).confirms(Closing("bare", "AB", 1.0), frame.joints))
        self.assertFalse(proof_of(frame).confirms(Closing("open_joint", "AB", 1.0), frame.joints))

    def test_its_limits_go_with_the_size(self) -> None:
        for factor in (1e-3, 1.0, 30.0):
            small = box({"form": "regular", "sides": 6, "across_mm": 300.0 * factor}, 120.0 * factor, thickness_mm=15.0 * factor)
            made = solved(small)
            self.assertTrue(proof_of(made).holds)
            self.assertFalse(self.with_end(made, -2e-5 * 15.0 * factor).holds)
            self.assertTrue(self.with_end(made, 2e-3 * 15.0 * factor).shared)

    def test_a_piece_thicker_than_what_it_ends_on_leaves_a_bare_strip_in_both(self) -> None:
        rails = [{"height_mm": 120.0, "width_mm": 60.0, "thickness_mm": 70.0, "sides": "AC"}]
        made = solved(KINDS["stand"].starts["stool"] | {"rails": rails})
        proof = proof_of(made)
        self.assertEqual((made.closing.state, proof.confirms(made.closing, made.joints)), ("bare", True))
        self.assertIn(made.closing.joint, proof.bare)
        touching = next(contact for contact in proof.contacts if contact.joint == made.closing.joint)
        self.assertAlmostEqual(touching.touching_mm2 / touching.face_mm2, 45 / 70, places=3)


class Settings(unittest.TestCase):
    def test_both_ends_of_a_regular_rail_share_one_setting_by_turning_the_board_over(self) -> None:
        frame = solved(regular(8, 45.0, "opening_flats", mm=300.0), HALF)
        self.assertEqual(len(frame.settings), 1)
        self.assertEqual(
            [(u.end, u.pose.down, u.kept, u.count) for u in frame.settings[0].uses],
            [("right", "back", "left", 8), ("left", "face", "left", 8)],
        )

    def test_a_saw_that_swings_one_way_only_gets_poses_that_need_no_other(self) -> None:
        one_way = MiterSaw(swing_left_deg=50.0, swing_right_deg=0.0)
        frame = solved(regular(5, 45.0, "opening_flats", mm=300.0), one_way)
        self.assertEqual([(round(s.swing_deg, 6), s.reachable) for s in frame.settings], [(-36.0, True)])

    def test_past_both_stops_is_flagged_with_the_stop(self) -> None:
        frame = solved(regular(3, 45.0, "opening_flats", mm=300.0), MiterSaw(swing_left_deg=45, swing_right_deg=50))
        self.assertFalse(frame.settings[0].reachable)
        finding = next(f for f in frame.findings if f.code.startswith("past_swing"))
        self.assertAlmostEqual(finding.value or 0, 60.0)
        self.assertEqual(finding.limit, 50.0)

    def test_each_cut_is_made_once(self) -> None:
        frame = solved(regular(8, 58.0, "outside_side", mm=205.5, left_out=["A"], loose_ends="ground"))
        ways = {key: ways_for(board, cut, 200.0, {"t1": HALF}) for key, board, cut in each_cut(frame.parts, frame.boards)}
        settings = settings_for(frame.parts, ways, {"t1": HALF}, {})
        self.assertEqual(sum(u.count for s in settings for u in s.uses), 14)


class AnEndThatIsTooLarge(unittest.TestCase):
    def test_a_rail_thicker_than_its_leg_is_said_to_reach_past_it_and_by_how_much(self) -> None:
        spec = KINDS["stand"].starts["stool"] | {
            "rails": [{"height_mm": 120.0, "width_mm": 60.0, "thickness_mm": 70.0, "sides": "AC"}]
        }
        made = solved(spec)
        past = {f.parts: f.value for f in made.findings if f.code == "reaches_past"}
        # 70 thick in the middle of a leg of 45, both in the side's plane: half the difference stands past it on either side.
        self.assertAlmostEqual(past["rail A1", "AB"] or 0, (70 - 45) / 2, places=6)
        self.assertEqual(made.closing.state, "bare")


class NearOneAnother(unittest.TestCase):
    def test_the_sweep_finds_what_comparing_every_pair_finds(self) -> None:
        chance = Random(4)
        for spread in (30.0, 120.0):
            boxes = {}
            for i in range(60):
                low = [chance.uniform(0, spread) for _ in range(3)]
                boxes[str(i)] = (low, [at + chance.uniform(1, 40) for at in low])
            every = [
                (a, b)
                for a, b in combinations(boxes, 2)
                if all(boxes[a][0][k] < boxes[b][1][k] and boxes[b][0][k] < boxes[a][1][k] for k in range(3))
            ]
            self.assertEqual(list(near_pairs(boxes)), every)
            self.assertGreater(len(every), 10)
