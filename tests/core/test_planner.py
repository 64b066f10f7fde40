import unittest
from dataclasses import replace
from functools import cache
from itertools import combinations
from math import cos, radians
from random import Random
from typing import Any
from unittest import mock

from hypothesis import given, settings
from hypothesis import strategies as st

from fennup.core.boards.check import check_layout
from fennup.core.boards.layout import BoardPlan, Layout
from fennup.core.boards.nesting import Saw, _best
from fennup.core.boards.pieces import pieces_of, plain_piece
from fennup.core.boards.planned import BoardsPlan, plan_boards
from fennup.core.boards.planner import plan
from fennup.core.boards.pricing import Knapsack
from fennup.core.boards.stock import Milling, Source, ways_of
from fennup.core.boards.task import Task, Wanted
from fennup.core.errors import SpecError
from fennup.core.geometry.vec import add
from fennup.core.parts.alike import END_FOR_END, OVER
from fennup.core.solve import designed
from tests.core.cut_boards import RABBET, a_board, bar, design, on_rack, order, planned, project
from tests.core.test_boards import trapezoids
from tests.core.test_kinds import SINGLE

GOALS = ("rack_first", "cheapest", "fewest_boards", "least_waste", "fewest_changes")


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

    def test_what_just_fits_is_not_lost_between_two_steps(self) -> None:
        two = Knapsack([10.07], [1.0], [3], 20.14, 0.05)
        self.assertEqual((two.filling(20.14), two.value(20.14), two.filling(20.05)), ((0, 0), 2.0, (0,)))
        self.assertEqual(Knapsack([10.07], [1.0], [3], 20.14, 0.05, up=True).filling(20.14), (0,))

    def test_the_bound_that_knows_no_order_is_never_above_the_best(self) -> None:
        random = Random(7)
        for turn in range(8):
            ends = [
                (random.choice((0.0, 30.0, -45.0)), random.choice((0.0, 45.0)), random.uniform(150.0, 600.0)) for _ in range(7)
            ]
            made = design(*(a_board(f"P{k}", mm, (a, 0.0), (b, 0.0), shows=k % 2 == 0) for k, (a, b, mm) in enumerate(ends)))
            for goal in ("fewest_boards", "least_waste"):
                asked = order(made, on_rack(), 3.0, bar(1200.0, price=5.0), bar(2000.0, price=8.0), goal=goal)
                best = plan_boards(asked).packing
                with mock.patch("fennup.core.boards.planner.MOST_FILLINGS", 0):
                    other = plan_boards(asked).packing
                self.assertLessEqual(other.bound, best.cost + 1e-6, f"turn {turn}: {goal}")
                self.assertGreaterEqual(other.cost, best.cost - 1e-6)
                self.assertGreaterEqual(other.bound, 0.5 * best.cost)

    def test_where_not_every_order_was_gone_through_nothing_is_called_proven_that_is_not(self) -> None:
        # Ends that match only one after the other: A B A B shares every cut, A A B B does not, and none may be turned.
        ends = {"A": ((0.0, 0.0), (45.0, 0.0)), "B": ((-45.0, 0.0), (0.0, 0.0))}
        made = design(*(a_board(f"{n}{k}", 200.0, *ends[n], rabbet=RABBET) for n in "AB" for k in (1, 2)))
        asked = order(made, on_rack(), 3.0, bar(4 * 200 + 2 * 3 / cos(radians(45)) + 3, price=1.0), goal="fewest_boards")
        self.assertEqual(plan_boards(asked).packing.cost, 1.0)
        _best.cache_clear()
        self.addCleanup(_best.cache_clear)
        with mock.patch("fennup.core.boards.nesting.MOST_STATES", 1):
            guessed = plan_boards(asked).packing
        self.assertEqual((guessed.cost, guessed.bound), (2.0, 1.0))

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
        self.assertIn("in_the_kerf", self.faults(self.moved(0, at=add(first.at, (0.01, 0.0, 0.0)))))
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
        wide = [bar(times * p.overall_mm, 3.1 * p.width_mm, p.thickness_mm, sheet=True) for p in pieces if p.sort != "board"]
        wood = [bar(times * piece.overall_mm, *piece.section, count=2) for piece in pieces if piece.width_mm < 5000.0][:20]
        wood += wide[:10] if all(board["width_mm"] < 20_000.0 for board in wide) else []
        found = planned(made, on_rack(*wood), kerf, square_first=square, goal=goal, may_glue=square)
        self.assertLessEqual(found.packing.bound, found.packing.cost + 1e-6 * max(1.0, found.packing.cost))
