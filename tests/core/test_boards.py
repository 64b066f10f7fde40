import unittest
from dataclasses import replace
from itertools import pairwise, permutations, product
from math import cos, radians, tan
from random import Random
from typing import Any

from fennup.core.boards.ends import at_corner, corners, gap_between
from fennup.core.boards.pieces import pieces_of, rough_mm
from fennup.core.boards.planned import Cuttings, plan_boards
from fennup.core.boards.rack import Rack, edit_rack
from fennup.core.boards.shortage import shortages
from fennup.core.boards.stock import resawn, strips_across
from fennup.core.cures import cures_for
from fennup.core.drawing.edit import Choose, Give, TypeIn
from fennup.core.parts.alike import END_FOR_END, OVER
from fennup.core.project.edit import edit
from fennup.core.project.spec import ProjectSpec
from fennup.core.solve import designed
from fennup.core.units.lengths import tape
from tests.core.cut_boards import RABBET, a_board, bar, design, on_rack, order, planned, project, tip_to_tip, where
from tests.core.frames import rectangle

GOALS = ("rack_first", "cheapest", "fewest_boards", "least_waste", "fewest_changes")


def trapezoids(count: int, long: float, wide: float, deg: float, **more: Any) -> Any:
    """Alike parts, both ends converging: so long from long point to long point, on the lower edge."""
    middle = long - wide * tan(radians(deg))
    return design(*(a_board(f"P{n}", middle, (deg, 0.0), (deg, 0.0), wide, **more) for n in range(count)))


class Nesting(unittest.TestCase):
    def test_turned_end_for_end_neighbours_share_every_cut(self) -> None:
        for count, long, wide, deg, kerf, published in (
            (10, 300.0, 60.0, 45.0, 3.0, 2498.184),
            (8, 231.4, 55.0, 22.5, 2.6, 1711.427),
        ):
            slant = wide * tan(radians(deg))
            # Every part its middle line, every cut its kerf along the board, and half a slant at both ends.
            total = count * (long - slant) + (count - 1) * kerf / cos(radians(deg)) + slant
            self.assertAlmostEqual(total, published, places=3)
            made = trapezoids(count, long, wide, deg)
            found = planned(made, on_rack(bar(total + 1e-6, wide)), kerf)
            self.assertEqual(len(found.layout.unplaced), 0)
            self.assertAlmostEqual(tip_to_tip(made, found), total, places=6)
            self.assertEqual([len(c.ends) for c in found.layout.boards[0].cuts if c.sort == "part"], [2] * (count - 1))
            self.assertEqual(len(planned(made, on_rack(bar(total - 0.001, wide)), kerf).layout.unplaced), 1)

    def test_what_has_a_rabbet_is_not_turned(self) -> None:
        made = trapezoids(10, 300.0, 60.0, 45.0, rabbet=RABBET)
        self.assertEqual(len(planned(made, on_rack(bar(2500.0)), 3.0).layout.unplaced), 2)
        for square, total in ((False, 3038.184), (True, 3027.0)):
            found = planned(made, on_rack(bar(total + 0.001)), 3.0, square_first=square)
            self.assertEqual(len(found.layout.unplaced), 0)
            self.assertAlmostEqual(tip_to_tip(made, found), total, places=3)
        octagon = trapezoids(8, 231.4, 55.0, 22.5, rabbet=RABBET)
        self.assertAlmostEqual(tip_to_tip(octagon, planned(octagon, on_rack(bar(2000.0, 55.0)), 2.6)), 1870.9, places=3)

    def test_two_ends_of_different_angles_keep_one_full_kerf_and_are_trimmed_apart(self) -> None:
        made = design(
            a_board("A", 400.0, (0, 0), (45.0, 0.0), shows=False), a_board("B", 300.0, (20.0, 0.0), (0, 0), shows=False)
        )
        found = planned(made, on_rack(bar(1000.0)), 4.0)
        # Turned so that both lean the same way they are farthest apart at one corner; the 20 is cut first, its kerf is the shorter.
        between = 30.0 * (tan(radians(45)) - tan(radians(20))) + 4.0 / cos(radians(20))
        self.assertAlmostEqual(tip_to_tip(made, found), 700.0 + between, places=6)
        cuts = [(cut.sort, cut.ends) for cut in found.layout.boards[0].cuts]
        parting = next(ends for sort, ends in cuts if sort == "part")
        self.assertIn(parting, (("B left",), ("B right",)))
        self.assertIn("end", {sort for sort, ends in cuts if ends[0].startswith("A")})

    def test_compound_ends_share_only_where_the_solids_fit(self) -> None:
        def ends(turn: Any, of: Any) -> Any:
            return next(lie for lie in of.lies if lie.turn == turn)

        up = pieces_of(design(a_board("A", 400.0, (30.0, 20.0), (30.0, 20.0))).facts)[0]
        both = pieces_of(design(a_board("A", 400.0, (30.0, 20.0), (30.0, 20.0), shows=False)).facts)[0]
        lying = up.lies[0]
        shared = {
            name: [gap_between(lying.right, lie.left, 60.0, 20.0, 3.0).how == "shared" for lie in piece.lies]
            for name, piece in (("up", up), ("both", both))
        }
        self.assertEqual(shared["up"], [False, False])  # its own kind, face up
        half_turn = ends(OVER, both)
        self.assertEqual(gap_between(lying.right, half_turn.left, 60.0, 20.0, 3.0).how, "shared")
        self.assertNotEqual(gap_between(lying.right, ends(END_FOR_END, both).left, 60.0, 20.0, 3.0).how, "shared")
        mate = pieces_of(design(a_board("B", 400.0, (-30.0, -20.0), (-30.0, -20.0))).facts)[0]
        self.assertEqual(gap_between(lying.right, mate.lies[0].left, 60.0, 20.0, 3.0).how, "shared")

    def test_the_order_is_the_best_of_all_orders(self) -> None:
        """Against every permutation with every turn, by the distance between the solids' own corners."""
        random = Random(5)
        for _ in range(6):
            boards = [
                a_board(f"P{k}", random.uniform(200, 400), (random.choice((0.0, 30.0, -30.0)), 0.0),
                        (random.choice((0.0, 30.0, 45.0)), random.choice((0.0, 15.0))), shows=random.random() < 0.5)
                for k in range(4)
            ]  # fmt: skip
            made = design(*boards)
            found = planned(made, on_rack(bar(3000.0)), 3.0)
            self.assertAlmostEqual(tip_to_tip(made, found), _shortest(made), delta=1e-6)


def _shortest(made: Any) -> float:
    """The shortest row of all pieces in every order and turn: neighbours are moved together until, by bisection of nothing but the
    distances of their corners along the board, one of the cuts that may come first still leaves a kerf."""
    pieces = [(piece, key) for piece in pieces_of(made.facts) for key in piece.keys]
    lines = corners(60.0, 20.0)

    def apart(left: Any, right: Any) -> float:
        ends = [(at_corner(left.right, y, z, right=True), at_corner(right.left, y, z, right=False)) for y, z in lines]
        if left.right == right.left:
            return 3.0 * left.right[0].stretch
        return min(max(a + 3.0 * cut.stretch - b for a, b in ends) for cut in (left.right[0], right.left[0]))

    best = float("inf")
    for row in permutations(pieces):
        for lies in product(*(piece.lies for piece, _ in row)):
            long = sum(piece.axis_mm for piece, _ in row) + sum(apart(a, b) for a, b in pairwise(lies))
            long += max(-at_corner(lies[0].left, y, z, right=False) for y, z in lines)
            long += max(at_corner(lies[-1].right, y, z, right=True) for y, z in lines)
            best = min(best, long)
    return best


class Wood(unittest.TestCase):
    def test_strips_and_resawn_boards(self) -> None:
        self.assertEqual(strips_across(145.0, 44.0, 3.0), (3, 4.0))
        self.assertAlmostEqual(resawn(50.0, 2, 2.0, 1.5), 21.0)

    def test_square_parts_come_out_of_a_board_only_with_their_kerf(self) -> None:
        two = [a_board(f"P{n}", 1219.0) for n in range(2)]
        rack = on_rack(bar(2440.0))
        asked = order(design(*two), rack, 4.0)
        found = plan_boards(asked)
        (short,) = shortages(asked, found)
        self.assertAlmostEqual(short.mm, 2.0, places=6)
        self.assertEqual(short.source.id, "r1")
        fitting = planned(design(*(a_board(f"P{n}", 1218.0) for n in range(2))), rack, 4.0)
        self.assertEqual(len(fitting.layout.unplaced), 0)
        self.assertEqual([cut.sort for cut in fitting.layout.boards[0].cuts], ["part"])  # the board's own ends are used

    def test_a_wide_board_is_ripped_and_a_thick_one_resawn(self) -> None:
        parts = design(*(a_board(f"P{n}", 900.0, wide=44.0, thick=21.0, shows=False) for n in range(6)))
        self.assertEqual(len(planned(parts, on_rack(bar(1000.0, 145.0, 50.0)), 2.0).homeless), 1)
        # Three strips of 44 out of 145 (two kerfs and 9 over), each into two of 21: all six out of one board 1000 long.
        found = planned(parts, on_rack(bar(1000.0, 145.0, 50.0)), 2.0, may_resaw=True)
        (board,) = found.layout.boards
        self.assertEqual(len(board.pieces), 6)
        self.assertEqual([cut.sort for cut in board.cuts if cut.sort in ("rip", "resaw")], ["rip"] * 3 + ["resaw"] * 3)
        self.assertEqual(len(planned(parts, on_rack(bar(1000.0, 145.0, 49.9)), 2.0, may_resaw=True).homeless), 1)
        planed = design(a_board("P", 900.0, thick=18.0))
        self.assertEqual(len(planned(planed, on_rack(bar(1000.0)), 3.0).homeless), 1)
        self.assertEqual(where(planned(planed, on_rack(bar(1000.0)), 3.0, may_plane=True)), {"P": "r1"})
        for thick, homeless in ((24.0, 0), (24.1, 1)):  # 3 off each face at the most
            found = planned(planed, on_rack(bar(1000.0, thick=thick)), 3.0, may_plane=True)
            self.assertEqual(len(found.homeless), homeless)

    def test_strips_of_two_widths_come_out_of_one_board(self) -> None:
        made = design(a_board("A", 900.0, wide=60.0), a_board("B", 900.0, wide=82.0))
        (board,) = planned(made, on_rack(bar(1000.0, 145.0)), 3.0).layout.boards
        self.assertEqual({p.key for p in board.pieces}, {"A", "B"})
        self.assertEqual(len(planned(made, on_rack(bar(1000.0, 144.9)), 3.0).layout.unplaced), 1)  # 60 + 3 + 82 = 145
        for wide, missing in ((149.0, 0), (148.9, 1)):  # with 1 planed off every edge
            knot = {"from_mm": 950.0, "to_mm": 990.0}  # so that every strip stays where it was laid
            found = planned(made, on_rack(bar(1000.0, wide, defects=[knot])), 3.0, edge_mm=1.0)
            self.assertEqual(len(found.layout.unplaced), missing)
            middles = sorted(placed.at[1] for board in found.layout.boards for placed in board.pieces)
            self.assertEqual(middles, [42.0, 118.0] if not missing else middles)  # 1 + 41; 84 and 3 and 1 + 30

    def test_rough_wood_needs_more_length_where_an_end_leans(self) -> None:
        piece = pieces_of(design(a_board("A", 400.0, (0.0, 45.0), (0.0, 45.0))).facts)[0]
        # At 45 a thickness of 26 in place of 20 lets each end reach half of 6 farther.
        self.assertAlmostEqual(rough_mm(piece, 60.0, 26.0) - piece.overall_mm, 6.0, places=9)

    def test_wide_parts_are_glued_up_and_strips_are_too_long(self) -> None:
        made = design(a_board("A", 500.0, wide=180.0))
        found = planned(made, on_rack(bar(2000.0, 95.0)), 3.0, may_glue=True, edge_mm=1.0, glue_over_mm=25.0)
        self.assertEqual(sorted(where(found)), ["A strip 1", "A strip 2"])
        (strip,) = {(p.piece.width_mm, p.piece.axis_mm) for b in found.layout.boards for p in b.pieces}
        self.assertEqual(strip, (92.0, 525.0))  # 180 / 2 and 1 off each glued edge

    def test_knots_and_trims_are_kept_clear(self) -> None:
        made = design(*(a_board(f"P{n}", 400.0) for n in range(4)))
        knot = bar(2000.0, trim_left_mm=50.0, defects=[{"from_mm": 700.0, "to_mm": 760.0}])
        found = planned(made, on_rack(knot), 3.0)
        spans = sorted((p.tip(right=False), p.tip(right=True)) for p in found.layout.boards[0].pieces)
        self.assertEqual(spans[0], (50.0, 450.0))
        self.assertEqual(spans[1], (760.0, 1160.0))
        narrow = planned(made, on_rack(bar(2000.0, defects=[{"from_mm": 700.0, "to_mm": 701.0}])), 4.0)
        self.assertIn(
            704.0, [p.tip(right=False) for p in narrow.layout.boards[0].pieces]
        )  # the saw needs more room than the knot
        trimmed = planned(design(a_board("A", 800.0)), on_rack(bar(860.0, trim_right_mm=60.0)), 4.0)
        self.assertEqual([(cut.sort, cut.plane.offset) for cut in trimmed.layout.boards[0].cuts], [("trim", 800.0)])
        ripped = bar(1000.0, 145.0, defects=[{"from_mm": 100.0, "to_mm": 900.0, "low_mm": 0.0, "high_mm": 30.0}])
        beside = planned(design(a_board("A", 900.0)), on_rack(ripped), 3.0)
        self.assertEqual(beside.layout.boards[0].pieces[0].at[1], 60.0 + 3.0 + 30.0)  # the second strip, where it is clear
        aside = bar(2000.0, wide=145.0, defects=[{"from_mm": 700.0, "to_mm": 760.0, "low_mm": 100.0, "high_mm": 145.0}])
        self.assertEqual(planned(made, on_rack(aside), 3.0).layout.boards[0].pieces[0].at[1], 30.0)

    def test_seen_and_long_parts_get_the_clear_boards(self) -> None:
        made = design(a_board("seen", 500.0), a_board("hidden", 500.0, shows=False), a_board("short", 300.0, shows=False))
        rack = on_rack(bar(820.0, grade="rough"), bar(520.0, grade="clear"))
        self.assertEqual(where(planned(made, rack, 3.0))["seen"], "r2")
        rack = on_rack(bar(820.0, grade="clear"), bar(520.0, grade="rough"))
        self.assertEqual(where(planned(made, rack, 3.0))["seen"], "r1")

    def test_spares_by_risk_or_by_a_share(self) -> None:
        made = trapezoids(10, 300.0, 60.0, 30.0)
        for wishes, more in (({}, 0), ({"spares": "by_risk"}, 1), ({"spares": "own", "spare_percent": 25}, 3)):
            found = planned(made, on_rack(bar(9000.0)), 3.0, **wishes)
            self.assertEqual(sum("spare" in key for key in where(found)), more)


class OnTheRack(unittest.TestCase):
    def test_a_knot_put_past_its_own_end_moves_as_a_whole(self) -> None:
        rack = on_rack(bar(2400.0))
        rack = Rack.model_validate(edit_rack(rack, Choose(op="choose", path="boards.r1.defects.new", value=20), tape("mm", "1")))
        for field, text, lies in (
            ("from_mm", "1000", (1000.0, 1040.0)),
            ("to_mm", "500", (460.0, 500.0)),
            ("to_mm", "700", (460.0, 700.0)),
        ):
            act = TypeIn(op="type", path=f"boards.r1.defects.0.{field}", text=text)
            rack = Rack.model_validate(edit_rack(rack, act, tape("mm", "1")))
            (knot,) = rack.boards["r1"].defects
            self.assertEqual((knot.from_mm, knot.to_mm), lies)


class Wished(unittest.TestCase):
    def setUp(self) -> None:
        self.made = design(*(a_board(f"P{n}", 500.0) for n in range(4)))
        self.rack = on_rack(bar(2100.0), bar(1100.0), bar(1100.0))

    def test_pinned_locked_and_forbidden(self) -> None:
        self.assertEqual(set(where(planned(self.made, self.rack, 3.0)).values()), {"r1"})
        pinned = planned(self.made, self.rack, 3.0, pins={"P2": "r3"})
        self.assertEqual(where(pinned)["P2"], "r3")
        locked = planned(self.made, self.rack, 3.0, locked={"r2": ["P0", "P1"]}, forbidden=["r1"])
        self.assertEqual(where(locked), {"P0": "r2", "P1": "r2", "P2": "r3", "P3": "r3"})
        half = planned(self.made, self.rack, 3.0, locked={"r1": ["P3"]})
        self.assertEqual([key for key, board in where(half).items() if board == "r1"], ["P3"])  # nothing else comes into it
        self.assertEqual(
            list(where(planned(self.made, self.rack, 3.0, pins={"P2": "r9"})).values()), ["r1"] * 4
        )  # there is no r9

    def test_pins_and_spares_and_parts_that_could_not_be_glued_up_make_no_false_fault(self) -> None:
        made = trapezoids(4, 300.0, 60.0, 30.0)
        names = [board.id for board in made.assembly.boards]
        rack = on_rack(bar(2100.0), bar(1100.0), bar(1100.0))
        for pins in ({name: "r1" for name in names}, {names[0]: "r3"}, {names[0]: "r3", names[2]: "r2"}):
            found = planned(made, rack, 3.0, spares="by_risk", pins=pins)
            self.assertEqual((found.faults, len(found.layout.unplaced)), ((), 0))
        wide = design(a_board("wide", 500.0, wide=400.0), a_board("narrow", 500.0, wide=60.0))
        found = planned(wide, on_rack(bar(1100.0), bar(100.0, 90.0, 18.0)), 3.0, may_glue=True)
        self.assertEqual(found.faults, ())

    def test_every_goal_gets_what_it_asks_for(self) -> None:
        long, short = bar(2100.0, price=30.0), bar(1100.0, price=12.0)

        def bought(**wishes: Any) -> list[str]:
            return sorted(b.source.id for b in planned(self.made, on_rack(bar(520.0)), 3.0, long, short, **wishes).layout.boards)

        self.assertEqual(bought(goal="cheapest"), ["y:c1", "y:c1"])  # 24, where the long one is 30
        self.assertEqual(bought(goal="fewest_boards"), ["y:c0"])
        found = planned(self.made, on_rack(bar(1100.0)), 3.0, long, short, goal="rack_first")
        self.assertEqual(sorted(b.source.id for b in found.layout.boards), ["r1", "y:c1"])
        two = design(*(a_board(f"P{n}", 500.0 - 100 * (n % 2)) for n in range(4)))
        apart = planned(two, on_rack(bar(1100.0), bar(1100.0)), 3.0, goal="fewest_changes")
        self.assertEqual(sorted({p.piece.id for p in b.pieces} for b in apart.layout.boards), [{"P0"}, {"P1"}])
        least = planned(
            self.made,
            on_rack(bar(2600.0), bar(2250.0)),
            3.0,
            goal="least_waste",
        )
        self.assertEqual(set(where(least).values()), {"r1"})  # 589 is left and kept; of the other 239 would be waste

    def test_a_board_is_cut_out_of_a_sheet_only_where_there_is_no_board(self) -> None:
        sheet, board = bar(2050.0, sheet=True), bar(2200.0)
        self.assertEqual(set(where(planned(self.made, on_rack(sheet, board), 3.0)).values()), {"r2"})
        self.assertEqual(set(where(planned(self.made, on_rack(sheet), 3.0)).values()), {"r1"})

    def test_only_the_wished_wood_and_treatment(self) -> None:
        rack = on_rack(bar(2100.0, wood="larch", treated=True), bar(2100.0, wood="oak"))
        self.assertEqual(set(where(planned(self.made, rack, 3.0, wood="Oak")).values()), {"r2"})
        self.assertEqual(set(where(planned(self.made, rack, 3.0, treated="treated")).values()), {"r1"})


class Sheets(unittest.TestCase):
    HOOD = {
        "kind": "roof",
        "thickness_mm": 12.0,
        "shape": {"form": "pyramid", "sides": 6, "across_mm": 400.0, "height_mm": 200.0},
    }

    def test_tapers_lie_head_to_foot(self) -> None:
        """Six triangles 230.94 wide and 282.84 high: side by side as many as the sheet's width holds."""
        _, made = designed(project(self.HOOD))
        wide = 230.94
        # A second one beside it takes half its width more and a kerf square to the slanted side, whose normal's y is cos(asin) of it.
        sheet = {"sheet": True, "thickness_mm": 12.0, "width_mm": 610.0}
        found = planned(made, on_rack({"length_mm": 620.0, "count": 3, **sheet}), 2.4, goal="fewest_boards")
        self.assertEqual((found.packing.cost, found.packing.bound, len(found.layout.unplaced)), (1.0, 1.0, 0))
        # In strips of one triangle's width two strips of two would be all: four.
        self.assertEqual(int(610 // (wide + 2.4)) * int(620 // (282.84 + 2.4)), 4)
        self.assertEqual(len(planned(made, on_rack({"length_mm": 280.0, **sheet}), 2.4).layout.unplaced), 6)

    def test_a_square_panel_in_a_sheet_that_may_lie_any_way(self) -> None:
        spec = {"kind": "box", "plan": {"form": "rectangle", "width_mm": 500.0, "depth_mm": 500.0}, "height_mm": 200.0,
                "thickness_mm": 18.0, "floor": {"height_mm": 20.0, "thickness_mm": 4.0, "play_mm": 2.0}}  # fmt: skip
        _, made = designed(project(spec))
        sheet = {"length_mm": 2500.0, "width_mm": 600.0, "thickness_mm": 4.0, "sheet": True, "any_way": True}
        for wishes, panels in (({}, 1), ({"spares": "own", "spare_percent": 100}, 2)):
            found = planned(made, on_rack(bar(9000.0, 200.0, 18.0), sheet), 2.0, **wishes)
            self.assertEqual((found.layout.unplaced, found.faults), ((), ()))
            self.assertEqual(sum(b.source.thickness_mm == 4.0 and len(b.pieces) for b in found.layout.boards), panels)

    def test_a_board_as_wide_as_one_part_is_ripped_for_narrower_ones_too(self) -> None:
        made = design(a_board("wide", 500.0, wide=100.0), a_board("narrow", 500.0, wide=40.0))
        for rack, boards in ((on_rack(bar(520.0, 100.0), bar(520.0, 100.0)), 2), (on_rack(bar(520.0, 100.0)), 1)):
            found = planned(made, rack, 3.0)
            self.assertEqual((len(found.layout.boards), len(found.layout.unplaced)), (boards, 2 - boards))
            self.assertEqual(found.homeless, ())

    def test_nothing_is_called_proven_of_boards_that_can_be_cut_across_first(self) -> None:
        """500 x 200 and 500 x 150 out of 1010 x 200: cut across at 500, rip the second; no strip runs the whole board."""
        made = design(a_board("full", 500.0, wide=200.0), a_board("less", 500.0, wide=150.0))
        self.assertFalse(planned(made, on_rack(bar(1010.0, 200.0)), 3.0).task.complete)
        alike = design(a_board("one", 500.0, wide=90.0), a_board("two", 400.0, wide=90.0))
        self.assertTrue(planned(alike, on_rack(bar(1010.0, 200.0)), 3.0).task.complete)
        knot = bar(1010.0, 200.0, defects=[{"from_mm": 700.0, "to_mm": 760.0, "low_mm": 100.0, "high_mm": 145.0}])
        self.assertFalse(planned(alike, on_rack(knot), 3.0).task.complete)
        # 38 by 19 serves a rail 19 wide and 38 thick, on edge.
        self.assertFalse(
            planned(design(a_board("rail", 500.0, wide=19.0, thick=38.0)), on_rack(bar(1010.0, 38.0, 19.0)), 3.0).task.complete
        )

    def test_without_a_grain_a_panel_may_lie_a_quarter_round(self) -> None:
        spec = {"kind": "box", "plan": {"form": "rectangle", "width_mm": 500.0, "depth_mm": 200.0}, "height_mm": 200.0,
                "thickness_mm": 18.0, "floor": {"height_mm": 20.0, "thickness_mm": 4.0, "play_mm": 2.0}}  # fmt: skip
        _, made = designed(project(spec))
        walls = bar(3000.0, 200.0, 18.0)
        narrow = {"length_mm": 200.0, "width_mm": 600.0, "thickness_mm": 4.0, "sheet": True}
        kept = planned(made, on_rack(walls, narrow), 2.0)
        self.assertEqual([piece.sort for _, piece in kept.layout.unplaced], ["panel"])
        free = planned(made, on_rack(walls, narrow | {"any_way": True}), 2.0)
        self.assertEqual(len(free.layout.unplaced), 0)


class Steep(unittest.TestCase):
    def test_parts_that_are_alike_to_less_than_a_micron_are_one(self) -> None:
        plan = {"form": "four", "top_width_mm": 60.0, "top_depth_mm": 60.0, "front_splay_deg": 0.0001, "side_splay_deg": 2.0}
        leg = {"width_mm": 15.0, "thickness_mm": 15.0}
        _, made = designed(project({"kind": "stand", "plan": plan, "height_mm": 200.0, "leg": leg, "rails": [], "rings": []}))
        legs = pieces_of(made.facts)
        wood = [bar(legs[0].overall_mm, 15.0, 15.0, count=4)]
        self.assertEqual(len(planned(made, on_rack(*wood), 0.5).layout.boards), 4)

    def test_pieces_whose_cuts_cross_are_laid_square(self) -> None:
        shape = {
            "form": "hip",
            "width_mm": 60.0,
            "depth_mm": 60.0,
            "rise_mm": 567.7,
            "hip_thickness_mm": 3.0,
            "hip_depth_mm": 100.0,
        }
        spec = {"kind": "roof", "thickness_mm": 36.0, "depth_mm": 72.0, "shape": {**shape, "spacing_mm": 100.0, "foot": "seat"}}
        _, made = designed(project(spec))
        (hip,) = pieces_of(made.facts)
        self.assertTrue(hip.blunt)
        found = planned(made, on_rack(bar(4 * hip.overall_mm + 3 * 3.0, 100.0, 3.0)), 3.0)
        self.assertEqual(len(found.layout.unplaced), 0)  # tip to tip, a kerf between


class Cures(unittest.TestCase):
    def test_what_is_short_is_cured_by_the_smallest_change_that_helps(self) -> None:
        spec = project(rectangle("outside", 800.0, 500.0, 60.0))
        settled, made = designed(spec)
        # Two of 800 and two of 500, all ends shared at 45: 2600 less four slants, three kerfs and one slant at the ends.
        need = 2600 - 4 * 60 + 3 * 3.0 / cos(radians(45)) + 60
        asked = order(made, on_rack(bar(need - 10.0)), 3.0)
        found = plan_boards(asked)
        (short,) = shortages(asked, found)
        self.assertAlmostEqual(short.mm, 10.0, places=6)
        cures = {cure.measure: cure.made for cure in cures_for(settled, made, asked, short, tape("mm", "1"))}
        self.assertEqual(cures["m1/outside_width"], 795.0)  # two parts, half of it each
        self.assertEqual(cures["m1/outside_depth"], 495.0)

    def test_every_cure_has_been_planned_as_the_project_would_become(self) -> None:
        """Also where a section changes with the size: a cure that leaves its own part without a board is none."""
        offered = 0
        for spec in (rectangle("outside", 800.0, 500.0, 60.0), {"kind": "box", "plan": {"form": "rectangle", "width_mm": 500.0, "depth_mm": 300.0}, "height_mm": 180.0,
                                                               "thickness_mm": 18.0}):  # fmt: skip
            settled, made = designed(project(spec))
            pieces = [(p.section, p.overall_mm * len(p.keys)) for p in Cuttings(made.facts).pieces]
            wide, thick = pieces[0][0]
            long = sum(mm for _, mm in pieces)
            for lack in (4.0, 25.0):
                asked = order(made, on_rack(bar(long - lack, wide, thick)), 3.0)
                for short in shortages(asked, plan_boards(asked)):
                    for cure in cures_for(settled, made, asked, short, tape("mm", "1")):
                        act = Give(op="give", measure=cure.measure, text=f"{cure.made} mm")
                        _, after = designed(ProjectSpec.model_validate(edit(settled, act, tape("mm", "1"))))
                        plan = plan_boards(replace(asked, cuttings=(Cuttings(after.facts),)))
                        self.assertEqual((plan.layout.unplaced, plan.homeless), ((), ()), cure)
                        offered += 1
        self.assertGreater(offered, 3)
