import unittest
from dataclasses import replace
from functools import cache
from itertools import combinations, pairwise, permutations, product
from math import cos, radians, tan
from random import Random
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from fennup.core.boards.check import check_layout
from fennup.core.boards.ends import at_corner, corners, gap_between
from fennup.core.boards.layout import BoardPlan, Layout
from fennup.core.boards.nesting import Saw
from fennup.core.boards.pieces import pieces_of, plain_piece, rough_mm
from fennup.core.boards.planned import BoardsPlan, plan_boards
from fennup.core.boards.planner import plan
from fennup.core.boards.shortage import shortages
from fennup.core.boards.stock import Milling, Source, resawn, strips_across, ways_of
from fennup.core.boards.task import Task, Wanted
from fennup.core.cures import cures_for
from fennup.core.errors import SpecError
from fennup.core.geometry.vec import add
from fennup.core.parts.alike import END_FOR_END, OVER
from fennup.core.solve import designed
from fennup.core.units.lengths import tape
from tests.core.cut_boards import RABBET, a_board, bar, design, on_rack, order, planned, project, tip_to_tip, where
from tests.core.frames import rectangle
from tests.core.test_kinds import SINGLE

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

    def test_strips_of_two_widths_come_out_of_one_board(self) -> None:
        made = design(a_board("A", 900.0, wide=60.0), a_board("B", 900.0, wide=82.0))
        (board,) = planned(made, on_rack(bar(1000.0, 145.0)), 3.0).layout.boards
        self.assertEqual({p.key for p in board.pieces}, {"A", "B"})
        self.assertEqual(len(planned(made, on_rack(bar(1000.0, 144.9)), 3.0).layout.unplaced), 1)  # 60 + 3 + 82 = 145

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
        self.assertEqual(set(where(planned(self.made, self.rack, 3.0, pins={"P2": "r9"})).values()), {"r1"})  # there is no r9

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

    def test_only_the_wished_wood_and_treatment(self) -> None:
        rack = on_rack(bar(2100.0, wood="larch", treated=True), bar(2100.0, wood="oak"))
        self.assertEqual(set(where(planned(self.made, rack, 3.0, wood="Oak")).values()), {"r2"})
        self.assertEqual(set(where(planned(self.made, rack, 3.0, treated="treated")).values()), {"r1"})


class Searching(unittest.TestCase):
    def test_small_tasks_are_solved_as_well_as_by_trying_everything(self) -> None:
        random = Random(11)
        for turn in range(12):
            lengths = [random.randint(150, 700) for _ in range(7)]
            made = design(*(a_board(f"P{k}", float(mm), (random.choice((0.0, 30.0)), 0.0)) for k, mm in enumerate(lengths)))
            found = planned(made, on_rack(), 3.0, bar(1200.0, price=5.0), goal="fewest_boards")
            self.assertEqual(len(found.layout.boards), _fewest(made, found), f"turn {turn}: {lengths}")
            self.assertTrue(found.packing.proven)
            self.assertEqual(found.packing.bound, len(found.layout.boards))

    def test_families_are_optimal_or_within_one_board(self) -> None:
        for name, sizes, room, best in (("triplets", triplets(60, 1), 1000, 20), ("uniform", uniform(120, 1), 150, None)):
            found = plan(packing_task(sizes, room))
            self.assertLessEqual(found.cost - found.bound, 1.0, name)
            self.assertGreaterEqual(found.bound, sum(sizes) / room - 1e-6)
            if best:
                self.assertEqual(found.bound, best)

    def test_the_same_task_gives_the_same_plan(self) -> None:
        one, other = (plan(packing_task(uniform(60, 3), 150)) for _ in range(2))
        self.assertEqual([bar.holds for bar in one.bars], [bar.holds for bar in other.bars])

    def test_a_plan_can_be_ended_and_the_best_so_far_has_been_told(self) -> None:
        class Enough(Exception):
            pass

        told = []

        def tell(share: float, packing: Any) -> None:
            told.append((share, packing.unplaced))
            raise Enough

        with self.assertRaises(Enough):
            plan(packing_task(triplets(60, 1), 1000), tell)
        self.assertEqual(told[0][1], ())


def packing_task(sizes: list[int], room: int) -> Task:
    """Items of whole sizes into boxes of one size, as few as can be."""
    counts = {size: sizes.count(size) for size in sorted(set(sizes), reverse=True)}
    wanted = tuple(
        Wanted(plain_piece(tuple(f"{size}.{k}" for k in range(n)), 50.0, 20.0, float(size)), n) for size, n in counts.items()
    )
    box = Source("box", "box", float(room), 50.0, 20.0, None, 1.0, True)
    return Task(wanted, tuple(ways_of(box, [(50.0, 20.0)], Milling(0.0))[0]), Saw(0.0), "fewest_boards")


def triplets(count: int, seed: int) -> list[int]:
    """Three items fill each box of 1000: one of 380 to 490, one of 250 up to half of the rest, and the rest."""
    random, found = Random(seed), []
    for _ in range(count // 3):
        first = random.randint(380, 490)
        second = min(499, random.randint(250, (1000 - first) // 2))
        found += [first, second, 1000 - first - second]
    random.shuffle(found)
    return found


def uniform(count: int, seed: int) -> list[int]:
    """Items of 20 to 100."""
    random = Random(seed)
    return [random.randint(20, 100) for _ in range(count)]


def _fewest(made: Any, found: BoardsPlan) -> int:
    """The fewest boards, by going through all sets of pieces: the piece with the lowest number goes with every set that fits."""
    places = [p for p, w in enumerate(found.task.wanted) for _ in range(w.count)]
    (kind,) = found.task.kinds
    sets = (set(chosen) for n in range(1, len(places) + 1) for chosen in combinations(range(len(places)), n))
    fits = [frozenset(s) for s in sets if found.task.holds(kind, tuple(sorted(places[k] for k in s)))]

    @cache
    def fewest(left: frozenset[int]) -> int:
        return 1 + min(fewest(left - s) for s in fits if min(left) in s and s <= left) if left else 0

    return fewest(frozenset(range(len(places))))


class Checking(unittest.TestCase):
    """Every fault that is put into a sound plan is found by the checker."""

    def setUp(self) -> None:
        self.made = trapezoids(4, 300.0, 60.0, 30.0)
        self.plan = planned(self.made, on_rack(bar(1400.0, defects=[{"from_mm": 1250.0, "to_mm": 1300.0}])), 3.0)
        (self.board,) = self.plan.layout.boards

    def faults(self, *boards: BoardPlan) -> set[str]:
        return {wrong.fault for wrong in check_layout(Layout(boards, ()), self.made.solids, 3.0)}

    def moved(self, place: int, **by: Any) -> BoardPlan:
        pieces = list(self.board.pieces)
        pieces[place] = replace(pieces[place], **by)
        return replace(self.board, pieces=tuple(pieces))

    def test_a_sound_plan_has_none(self) -> None:
        self.assertEqual(self.faults(self.board), set())

    def test_faults(self) -> None:
        first, last = self.board.pieces[0], self.board.pieces[-1]
        self.assertIn("in_the_kerf", self.faults(self.moved(1, at=add(self.board.pieces[1].at, (-0.01, 0.0, 0.0)))))
        self.assertIn("end_not_cut", self.faults(self.moved(3, at=add(last.at, (0.01, 0.0, 0.0)))))
        self.assertIn("outside_board", self.faults(self.moved(0, at=add(first.at, (-1.0, 0.0, 0.0)))))
        self.assertIn("outside_board", self.faults(self.moved(0, at=add(first.at, (0.0, 1.0, 0.0)))))
        self.assertIn("in_a_flaw", self.faults(self.moved(3, at=(1200.0, *last.at[1:]))))
        down = replace(first.lie, turn=OVER)
        self.assertIn("face_down", self.faults(self.moved(0, lie=down)))
        self.assertIn("missing", self.faults(replace(self.board, pieces=self.board.pieces[:3])))
        self.assertIn("twice", self.faults(self.board, replace(self.board, number=2)))
        self.assertIn("too_many_boards", self.faults(self.board, replace(self.board, number=2)))

    def test_cuts(self) -> None:
        cuts = self.board.cuts
        part = next(k for k, cut in enumerate(cuts) if cut.sort == "part")
        self.assertIn("not_sawn_apart", self.faults(replace(self.board, cuts=cuts[:part] + cuts[part + 1 :])))
        swapped = (*cuts[:part], cuts[part + 1], cuts[part], *cuts[part + 2 :])
        self.assertIn("wrong_pieces_parted", self.faults(replace(self.board, cuts=swapped)))
        ends = tuple(cut for cut in cuts if cut.sort != "end")
        self.assertIn("end_not_cut", self.faults(replace(self.board, cuts=ends)))
        self.assertEqual({w.fault for w in check_layout(self.plan.layout, self.made.solids, 3.1)}, {"in_the_kerf", "end_not_cut"})

    def test_a_profile_and_the_grain(self) -> None:
        made = trapezoids(2, 300.0, 60.0, 30.0, rabbet=RABBET)
        found = planned(made, on_rack(bar(900.0)), 3.0)
        (board,) = found.layout.boards
        turned = replace(board.pieces[0], lie=replace(board.pieces[0].lie, turn=END_FOR_END))
        wrong = check_layout(Layout((replace(board, pieces=(turned, board.pieces[1])),), ()), made.solids, 3.0)
        self.assertIn("profile_turned", {w.fault for w in wrong})


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
        self.assertEqual(len(planned(made, on_rack({"length_mm": 620.0, **sheet}), 2.4).layout.unplaced), 0)
        # In strips of one triangle's width two strips of two would be all: four.
        self.assertEqual(int(610 // (wide + 2.4)) * int(620 // (282.84 + 2.4)), 4)
        self.assertEqual(len(planned(made, on_rack({"length_mm": 280.0, **sheet}), 2.4).layout.unplaced), 6)

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


class AnyProject(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.one_of(*SINGLE.values()), st.sampled_from([0.5, 3.0]), st.booleans(), st.floats(1.0, 4.0), st.sampled_from(GOALS))
    def test_every_plan_of_a_random_project_holds_and_costs_no_less_than_its_bound(
        self, document: dict[str, Any], kerf: float, square: bool, times: float, goal: str
    ) -> None:
        try:
            _, made = designed(project(document))
        except SpecError:
            return
        pieces = [piece for piece in pieces_of(made.facts) if min(piece.section) >= 1.0 and piece.overall_mm < 4000.0]
        wood = [bar(times * piece.overall_mm, *piece.section, count=2) for piece in pieces if piece.width_mm < 5000.0][:20]
        found = planned(made, on_rack(*wood), kerf, square_first=square, goal=goal, may_glue=square)
        self.assertLessEqual(found.packing.bound, found.packing.cost + 1e-6 * max(1.0, found.packing.cost))


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
