"""Sprung mouldings: settings flat and nested against the closed forms and each other, lengths at the wall and at the edge from the corner's own triangle."""

import random
import unittest
from math import asin, atan, atan2, cos, degrees, hypot, radians, sin, tan
from typing import Any

from fennup.core.assembly.board import Board
from fennup.core.boards.planned import plan_boards
from fennup.core.drawing.edit import Choose, Give
from fennup.core.errors import SpecError
from fennup.core.exchange.cuts_document import cuts_document
from fennup.core.geometry.vec import cross, dot
from fennup.core.kinds.catalogue import KINDS
from fennup.core.saw.pose import blade_angles, poses_for
from fennup.core.solve import Solution
from fennup.core.steps.planned import steps_for
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof
from fennup.core.verify.joints import CLOSED_MM
from tests.core.cut_boards import bar, on_rack, order
from tests.core.frames import Solved, after, shown, solved, spec_of

MM = tape("mm", "1")
STARTS = KINDS["moulding"].starts


def moulding(walls: list[float], corners: list[tuple[str, float]], spring: float = 38.0, **more: Any) -> dict[str, Any]:
    """Runs so long at the wall, past these corners."""
    rises = more.pop("rises", [0.0] * len(walls))
    return {
        "kind": "moulding", "width_mm": 90.0, "thickness_mm": 15.0, "spring_deg": spring,
        "runs": [{"wall_mm": wall, "rise_deg": rise} for wall, rise in zip(walls, rises, strict=True)],
        "corners": [{"side": side, "deg": deg} for side, deg in corners], **more,
    }  # fmt: skip


def angles(board: Board, end: str, down: str, fence: str) -> tuple[float, float]:
    """(swing, tilt) for an end as the board lies, unsigned."""
    pose = next(p for p in poses_for(board) if (p.down, p.fence) == (down, fence))
    (cut,) = board.ends(end)  # type: ignore[arg-type]
    blade = blade_angles(cut, pose)
    return abs(blade.swing_deg), abs(blade.tilt_deg)


class Mouldings(unittest.TestCase):
    def proven(self, document: dict[str, Any]) -> Solved:
        """Solved, closed in both proofs, and sawn right by the simulated saw."""
        made = solved(document)
        proof = boolean_proof(made.assembly, made.solids)
        self.assertTrue(proof.holds and not proof.bare, (document, proof))
        self.assertTrue(all(check.closes and check.bare_mm <= CLOSED_MM for check in made.joints), document)
        off = cuts_document(Solution(spec_of(document), made.design, made.plan)).off_mm
        self.assertLess(max(9.0 if mm is None else mm for mm in off.values()), 1e-6)
        return made

    def test_flat_on_the_table_it_is_the_closed_form_and_nested_a_plain_miter(self) -> None:
        """Flat: tan miter = sin spring x tan half the turn; sin bevel = cos spring x sin half the turn."""
        made = self.proven(moulding([800.0, 600.0], [("inside", 90.0)]))
        flat = angles(made.assembly.board("A"), "right", "back", "upper")
        self.assertAlmostEqual(flat[0], 31.62, places=2)  # as printed in tables for 52/38
        self.assertAlmostEqual(flat[1], 33.86, places=2)
        for side in ("inside", "outside"):
            for spring in (30.0, 38.0, 45.0, 52.0):
                for corner in (60.0, 90.0, 112.5, 135.0, 160.0):
                    board = self.proven(moulding([1800.0, 1600.0], [(side, corner)], spring)).assembly.board("A")
                    half, s = radians(180.0 - corner) / 2, radians(spring)
                    swing, tilt = angles(board, "right", "back", "upper")
                    self.assertAlmostEqual(swing, degrees(atan(sin(s) * tan(half))), places=9)
                    self.assertAlmostEqual(tilt, degrees(asin(cos(s) * sin(half))), places=9)
                    # Nested against the fence, upside down, as it hangs: half the turn, the blade upright.
                    swing, tilt = angles(board, "right", "upper", "back")
                    self.assertAlmostEqual(swing, degrees(half), places=9)
                    self.assertAlmostEqual(tilt, 0.0, places=9)

    def test_lengths_at_the_wall_are_the_walls_and_at_the_upper_edge_longer_past_an_outside_corner(self) -> None:
        out = 90.0 * sin(radians(38.0))
        for side, sense in (("inside", -1.0), ("outside", 1.0)):
            for corner in (60.0, 90.0, 135.0):
                made = solved(moulding([900.0, 700.0, 900.0], [(side, corner)] * 2))
                rows = {row.measure: row.value for row in shown(made).sizes}
                reach = sense * out * tan(radians(180.0 - corner) / 2)
                self.assertAlmostEqual(rows["at_wall:B"], 700.0, places=9)
                self.assertAlmostEqual(rows["at_edge:B"], 700.0 + 2 * reach, places=9)
                self.assertAlmostEqual(rows["at_edge:A"], 900.0 + reach, places=9)
        self.assertAlmostEqual(rows["out_from_it"], out, places=9)
        self.assertAlmostEqual(rows["down_the_wall"], 90.0 * cos(radians(38.0)), places=9)

    def test_the_spring_follows_from_how_far_it_reaches_down_and_out(self) -> None:
        spec = spec_of(moulding([900.0, 700.0], [("inside", 90.0)]))
        for measure, text in (("down_the_wall", "60"), ("out_from_it", "80")):
            spec = spec_of(after(spec, Give(op="give", measure=measure, text=text), MM))
        made = solved(spec.model_dump(mode="json"))
        self.assertAlmostEqual(made.spec.width_mm, 100.0, places=6)
        self.assertAlmostEqual(made.spec.spring_deg, degrees(atan(80.0 / 60.0)), places=6)

    def test_a_rising_run_meets_a_level_one_in_no_profile_and_that_is_said(self) -> None:
        made = solved(moulding([1800.0, 2400.0], [("inside", 90.0)], rises=[0.0, 20.0]))
        proof = boolean_proof(made.assembly, made.solids)
        self.assertTrue(proof.confirms(made.closing, made.joints), proof)
        self.assertIn("raked_miss", {finding.code for finding in made.findings})
        # Two that rise alike towards their corner are mirror images: they do meet.
        alike = solved(moulding([1800.0, 1800.0], [("inside", 90.0)], rises=[15.0, -15.0]))
        self.assertNotIn("raked_miss", {finding.code for finding in alike.findings})
        self.assertTrue(all(check.closes and check.bare_mm <= CLOSED_MM for check in alike.joints))
        # On one wall, rising alone, its ends are plumb and it is as long as the slope.
        alone = solved(moulding([2400.0], [], rises=[20.0]))
        board = alone.assembly.board("A")
        for cut in (*board.left, *board.right):
            self.assertAlmostEqual(board.frame.direction_to_world(cut.normal)[2], 0.0, places=12)
        self.assertAlmostEqual(alone.ruler.measure("at_wall:A"), 2400.0, places=9)

    def test_a_rising_run_of_a_profile_of_its_own_meets_its_level_neighbour_all_over(self) -> None:
        rng = random.Random(8)
        for side in ("inside", "outside"):
            for rise in (25.0, -20.0):
                for left in (True, False):
                    deg, spring = rng.choice((70.0, 90.0, 135.0)), rng.uniform(30, 55)
                    runs = [{"wall_mm": 900.0}, {"wall_mm": 800.0, "rise_deg": rise}]
                    document = {
                        "kind": "moulding", "width_mm": 90.0, "thickness_mm": 15.0, "spring_deg": spring, "raked": "own", "runs": runs if left else runs[::-1],
                        "corners": [{"side": side, "deg": deg}], "ploughed": [{"form": "cove", "corner": "face_upper", "radius_mm": 6.0}],
                    }  # fmt: skip
                    made = solved(document)
                    (joint,) = made.joints
                    self.assertTrue(joint.closes and joint.bare_mm < 1e-7, document)
                    proof = boolean_proof(made.assembly, made.solids)
                    self.assertTrue(proof.holds and not proof.bare, document)
                    off = cuts_document(Solution(spec_of(document), made.design, made.plan)).off_mm
                    self.assertLess(max(9.0 if mm is None else mm for mm in off.values()), 1e-6)
                    # It reaches as far out and, in its own square section, back and wall meet at arctan of what the shear leaves: heights times cos of the
                    # rise, and for each mm out sin of it times the tangent of half the turn more or less, as the miter stands to either side.
                    level, rising = ("A", "B") if left else ("B", "A")
                    turn = (180.0 - deg) * (1 if side == "outside" else -1)
                    more = sin(radians(rise)) * tan(radians(turn / 2)) * (1 if left else -1)
                    s, r = radians(spring), radians(rise)
                    wanted = atan2(sin(s), more * sin(s) + cos(r) * cos(s))
                    boards, frame = made.design.boards, made.design.boards[rising].frame
                    long = hypot(frame.x[0], frame.x[1])
                    out = (frame.x[1] / long, -frame.x[0] / long, 0.0)  # the wall is on the left of the way
                    got = atan2(dot(frame.y, out), dot(frame.y, cross(out, frame.x)))
                    self.assertAlmostEqual(got, wanted, places=7)
                    (told,) = [f for f in made.findings if f.code == "raked_profile"]
                    self.assertEqual((told.parts, round(told.value, 6)), ((rising,), round(boards[rising].section.width_mm, 6)))
                    # What the moulding measures is measured on the level run, whichever comes first.
                    self.assertAlmostEqual(made.ruler.measure("moulding_width") or 0, 90.0, places=9)
                    self.assertAlmostEqual(made.ruler.measure("spring_angle") or 0, spring, places=9)
                    # Level beside level it is the moulding's own; the same profile on the slope leaves a face bare.
                    self.assertEqual(boards[level].section, made.spec.section)
                    self.assertIn("raked_miss", {f.code for f in solved(document | {"raked": "same"}).findings})

    def test_bought_it_is_neither_ripped_nor_split_and_made_here_it_is(self) -> None:
        bought = solved(STARTS["box_moulding"])
        self.assertEqual([step.work for step in steps_for(bought.design, bought.plan).steps if step.work == "rip"], [])
        poses = poses_for(bought.assembly.board("A"))
        self.assertFalse(any(pose.before_rip for pose in poses))
        self.assertEqual({(pose.down, pose.fence) for pose in poses if pose.propped}, {("upper", "back"), ("lower", "back")})
        # Round a box the second run is the one in front.
        self.assertEqual([round(v, 9) for v in bought.assembly.board("B").frame.x], [1.0, 0.0, 0.0])
        own = solved({**STARTS["box_moulding"], "bought": False})
        self.assertTrue(any(step.work == "rip" for step in steps_for(own.design, own.plan).steps))
        wide = plan_boards(order(bought.design, on_rack(bar(4000.0, 120.0, 15.0)), 2.4))
        same = plan_boards(order(bought.design, on_rack(bar(4000.0, 90.0, 15.0)), 2.4))
        self.assertTrue(wide.homeless and not same.homeless)

    def test_what_cannot_be_is_refused_at_its_field(self) -> None:
        for document, code, field in (
            (moulding([900.0, 700.0], [("inside", 90.0)] * 2), "runs_do_not_close", "runs.1.wall_mm"),
            (moulding([3000.0, 2000.0, 3000.0, 2100.0], [("inside", 90.0)] * 4), "runs_do_not_close", "runs.3.wall_mm"),
            (moulding([900.0, 700.0], []), "runs_and_corners", "corners"),
            (moulding([900.0], [], 38.0, thickness_mm=45.0), "moulding_too_thick", "thickness_mm"),
        ):
            with self.assertRaises(SpecError) as refused:
                solved(document)
            self.assertEqual((refused.exception.code, refused.exception.fields), (code, (field,)))
        for spring in (0.0, 90.0):
            with self.assertRaises(ValueError):
                spec_of(moulding([900.0], [], spring))

    def test_runs_come_and_go_at_the_right_end_and_what_was_given_stays(self) -> None:
        spec = spec_of(after(spec_of(STARTS["box_moulding"]), Give(op="give", measure="at_wall:B", text="750"), MM))
        longer = spec_of(after(spec, Choose(op="choose", path="runs.more", value="inside"), MM))
        self.assertEqual((len(longer.runs), longer.corners[-1].side, round(longer.runs[1].wall_mm, 6)), (4, "inside", 750.0))
        self.assertIn("at_wall:B", {pin.measure for pin in longer.pins if not pin.suggested})
        risen = spec_of(moulding([900.0], [], rises=[20.0]))
        self.assertEqual(spec_of(after(risen, Choose(op="choose", path="runs.more", value="inside"), MM)).runs[1].rise_deg, 0.0)
        back = spec_of(after(longer, Choose(op="choose", path="runs.less", value=None), MM))
        self.assertEqual((len(back.runs), round(back.runs[1].wall_mm, 6)), (3, 750.0))

    def test_any_level_runs_close_in_both_proofs(self) -> None:
        rng = random.Random(38)
        for _ in range(25):
            # To and fro, so that they never come back to themselves.
            sides = rng.choice((("inside", "outside"), ("outside", "inside")))
            corners = [(sides[k % 2], rng.uniform(70, 165)) for k in range(rng.randint(1, 3))]
            walls = [rng.uniform(900, 2500) for _ in range(len(corners) + 1)]
            corner = rng.choice(("face_upper", "face_lower", "back_upper", "back_lower"))
            ploughed = (
                [{"form": rng.choice(("cove", "round")), "corner": corner, "radius_mm": rng.uniform(2, 7)}]
                if rng.random() < 0.5
                else []
            )
            self.proven(moulding(walls, corners, rng.uniform(25, 65), bought=rng.random() < 0.5, ploughed=ploughed))
