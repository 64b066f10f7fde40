import unittest
from dataclasses import replace
from math import cos, pi, radians, sin

from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import solid_of
from fennup.core.saw.machine import Machine
from fennup.core.saw.settings import settings_for
from fennup.core.solve import Solution
from fennup.core.verify.boolean import BooleanProof, boolean_proof
from fennup.core.verify.findings import findings_of
from fennup.core.verify.joints import check_joint, shared_wood
from tests.core.frames import rectangle, regular, solved

HALF = Machine(swing_step_deg=0.5)


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


class AsTheSawCanBeSet(unittest.TestCase):
    def test_the_opening_of_a_heptagon_agrees_with_laying_the_pieces_by_coordinates(self) -> None:
        for step, at in ((0.5, "outer"), (1.0, "opening"), (0.2, "opening")):
            with self.subTest(step):
                frame = solved(regular(7, 50.8, "outside_corners", mm=533.4), Machine(swing_step_deg=step))
                as_set = round((180 / 7) / step) * step
                opening, where = opening_by_coordinates(7, 533.4 * sin(pi / 7), 50.8, as_set)
                self.assertEqual(frame.closing.state, "opens")
                self.assertAlmostEqual(frame.closing.opening_mm, opening, places=9)
                self.assertEqual((frame.closing.at, where), (at, at))

    def test_a_saw_that_shows_the_angle_closes_exactly(self) -> None:
        self.assertEqual(solved(regular(8, 45.0, "opening_flats", mm=300.0), HALF).closing.state, "exact")
        self.assertEqual(
            solved(regular(5, 45.0, "opening_flats", mm=300.0, joint="butt"), Machine(swing_step_deg=1)).closing.state,
            "exact",
        )

    def test_a_scale_from_the_fence_rounds_its_own_reading(self) -> None:
        # 25.7143 from square reads 64.2857; in steps of 1 that is 64, which is 26 from square; in steps of 4, 64 again.
        fence = Machine(swing_counts_from="fence", swing_step_deg=4.0)
        frame = solved(regular(7, 50.8, "outside_corners", mm=533.4), fence)
        self.assertAlmostEqual(frame.settings[0].swing_as_set_deg, 26.0)
        self.assertAlmostEqual(Machine(swing_step_deg=4.0).swing_as_set(25.7143), 24.0)

    def test_unequal_rails_whose_rounded_angles_still_make_90_step_at_the_opening(self) -> None:
        wide = {"A": {"width_mm": 90.0}, "C": {"width_mm": 90.0}}
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0, rails=wide), HALF)
        self.assertEqual((frame.closing.state, frame.closing.opening_mm), ("opens", 0.0))
        self.assertAlmostEqual(frame.closing.step_mm, abs(90 / cos(radians(33.5)) - 60 / cos(radians(56.5))), places=9)


class AsDesigned(unittest.TestCase):
    def moved(self, frame: Solution, board: str, change: dict[str, object]) -> Solution:
        boards = tuple(replace(b, **change) if b.id == board else b for b in frame.assembly.boards)  # type: ignore[arg-type]
        return replace(frame, assembly=replace(frame.assembly, boards=boards), solids={b.id: solid_of(b) for b in boards})

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
        found = findings_of(off.assembly, off.solids, off.parts, (), measured, (), off.machine, off.closing, 0.5)
        missed = [(f.fields, f.limit) for f in found if f.code == "claim_missed"]
        self.assertEqual(missed, [(("shape.size.width_mm",), 600.0)])


class PutTogetherAsSolids(unittest.TestCase):
    """The second proof, by a library that shares nothing with the kernel but the planes."""

    def test_a_ring_is_one_piece_with_one_hole_and_a_chain_has_none(self) -> None:
        rabbet = {"width_mm": 6.0, "depth_mm": 8.0}
        for document, holes in (
            (regular(7, 50.0, "opening_flats", mm=400.0, rabbet=rabbet), 1),
            (regular(5, 50.0, "opening_flats", mm=400.0, joint="butt"), 1),
            (rectangle("opening", 400.0, 300.0, 60.0, rails={"A": {"width_mm": 90.0}}, rabbet=rabbet), 1),
            (regular(8, 58.0, "outside_side", mm=205.5, left_out=["A"], loose_ends="ground"), 0),
        ):
            frame = solved(document)
            proof = boolean_proof(frame.assembly)
            self.assertTrue(proof.holds, proof)
            self.assertEqual((proof.pieces, proof.holes), (1, holes))
            own = sum(solid.volume() for solid in frame.solids.values())
            self.assertAlmostEqual(proof.sum_mm3 / own, 1.0, places=12)

    def test_it_fails_when_a_rail_is_short_and_measures_the_wood_shared_when_it_is_long(self) -> None:
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0))
        board = frame.assembly.board("A")

        def with_end(out: float) -> BooleanProof:
            changed = replace(board, right=(board.right[0].moved(out),))
            boards = tuple(changed if b.id == "A" else b for b in frame.assembly.boards)
            return boolean_proof(replace(frame.assembly, boards=boards))

        short = with_end(-0.01)
        self.assertFalse(short.holds)
        self.assertEqual(short.holes, 0)
        # Let out by d square to the face, 60 / cos 45 long, it stands in B; at depth s both edges have drawn in by s.
        long = with_end(0.5)
        self.assertFalse(long.holds)
        self.assertAlmostEqual(long.shared_mm3, 20 * (0.5 * 60 * 2**0.5 - 0.5**2), places=6)


class Settings(unittest.TestCase):
    def test_both_ends_of_a_regular_rail_share_one_setting_by_turning_the_board_over(self) -> None:
        frame = solved(regular(8, 45.0, "opening_flats", mm=300.0), HALF)
        self.assertEqual(len(frame.settings), 1)
        self.assertEqual(
            [(u.end, u.pose.down, u.kept, u.count) for u in frame.settings[0].uses],
            [("right", "back", "left", 8), ("left", "face", "left", 8)],
        )

    def test_a_saw_that_swings_one_way_only_gets_poses_that_need_no_other(self) -> None:
        one_way = Machine(swing_left_deg=50.0, swing_right_deg=0.0)
        frame = solved(regular(5, 45.0, "opening_flats", mm=300.0), one_way)
        self.assertEqual([(round(s.swing_deg, 6), s.reachable) for s in frame.settings], [(-36.0, True)])

    def test_past_both_stops_is_flagged_with_the_stop(self) -> None:
        frame = solved(regular(3, 45.0, "opening_flats", mm=300.0), Machine(swing_left_deg=45, swing_right_deg=50))
        self.assertFalse(frame.settings[0].reachable)
        finding = next(f for f in frame.findings if f.code == "past_swing_stop")
        self.assertAlmostEqual(finding.value or 0, 60.0)
        self.assertEqual(finding.limit, 50.0)

    def test_each_cut_is_made_once(self) -> None:
        frame = solved(regular(8, 58.0, "outside_side", mm=205.5, left_out=["A"], loose_ends="ground"))
        settings = settings_for(frame.parts, frame.boards(), HALF)
        self.assertEqual(sum(u.count for s in settings for u in s.uses), 14)


class AnEndThatIsTooLarge(unittest.TestCase):
    def test_a_rail_thicker_than_its_leg_is_said_to_reach_past_it_and_by_how_much(self) -> None:
        spec = KINDS["stand"].starts["stool"] | {"rails": [{"height_mm": 120.0, "width_mm": 60.0, "thickness_mm": 70.0}]}
        made = solved(spec)
        past = {f.parts: f.value for f in made.findings if f.code == "reaches_past"}
        # 70 thick in the middle of a leg of 45, both in the side's plane: half the difference stands past it on either side.
        self.assertAlmostEqual(past["rail A", "AB"] or 0, (70 - 45) / 2, places=6)
        self.assertEqual(made.closing.state, "open_joint")
