"""Fasteners against plain triangles, and against distances that are known from the sizes given."""

import unittest
from itertools import pairwise
from math import cos, radians, sqrt
from typing import Any

from fennup.core.assembly.model import Joint
from fennup.core.fasten.length import bite_mm, holes_mm, lengths_for, longest_mm, shortest_mm
from fennup.core.fasten.meeting import Driven, meetings, over_head
from fennup.core.fasten.pattern import lines_apart, margins, row_of
from fennup.core.fasten.table import SCREWS, USUAL, Rules
from fennup.core.fasten.through import Stack, skewed, spans, stack_through, stacks_of
from fennup.core.geometry.vec import add, scale
from tests.core.frames import Solved, box, level, solved

POST = {"width_mm": 45.0, "thickness_mm": 45.0, "height_mm": 700.0, "row": "1"}
RAIL = {
    "a": "A",
    "b": "B",
    "width_mm": 90.0,
    "thickness_mm": 19.0,
    "height_mm": 300.0,
    "joint": {"form": "lapped", "side": "front"},
}
STAND = {
    "kind": "post_frame", "columns": {"1": 0.0, "2": 800.0}, "rows": {"1": 0.0}, "rails": {"1": RAIL},
    "posts": {"A": POST | {"column": "1"}, "B": POST | {"column": "2"}},
}  # fmt: skip


def joint(made: Solved, *boards: str) -> Joint:
    return next(j for j in made.assembly.joints if {j.a.board, j.b.board} == set(boards))


class ThroughTwoBoards(unittest.TestCase):
    def setUp(self) -> None:
        self.made = solved(STAND)
        self.joint = joint(self.made, "A", "rail 1")
        self.stack = stacks_of(self.made.design, self.joint)[0]

    def test_the_shorter_way_through_comes_first_and_says_how_long_it_may_be(self) -> None:
        stack = self.stack
        self.assertEqual(
            (stack.near, stack.far, round(stack.through_mm, 9), round(stack.into_mm, 9)), ("rail 1", "A", 19.0, 45.0)
        )
        self.assertFalse(stack.into_end_grain)
        self.assertAlmostEqual(longest_mm(stack, USUAL), 61.0, places=9)
        self.assertAlmostEqual(bite_mm(stack, 50.0), 31.0, places=9)
        # A head sunk by 5 takes the tip 5 further.
        self.assertAlmostEqual(longest_mm(stack, USUAL, 5.0), 56.0, places=9)
        self.assertAlmostEqual(bite_mm(stack, 50.0, 5.0), 36.0, places=9)

    def test_skewed_it_goes_through_more_of_both(self) -> None:
        at = add(self.stack.head, scale(self.stack.way, self.stack.through_mm))
        way = skewed(self.stack.way, (1.0, 0.0, 0.0), 30.0)
        stack = stack_through(self.made.design, self.joint, "rail 1", at, way)
        assert stack
        self.assertAlmostEqual(stack.through_mm, 21.9393, places=4)
        self.assertAlmostEqual(stack.into_mm, 45.0 / cos(radians(30.0)), places=9)

    def test_which_lengths_there_are(self) -> None:
        four, stack = SCREWS["4"], self.stack
        self.assertEqual(shortest_mm(stack, four, USUAL), 19.0 + 7 * 4.0)
        self.assertEqual(lengths_for(stack, four, USUAL).fitting_mm, (50.0, 60.0))
        self.assertEqual(lengths_for(stack, four, Rules(bite_shanks=12.0)).lacks, "thin")
        self.assertEqual(lengths_for(stack, four, Rules(cover_mm=13.0, bite_shanks=8.0)).lacks, "no_such_length")
        self.assertEqual([round(mm, 3) for mm in holes_mm(four, hard=True)], [4.366, 2.778])  # 11/64 and 7/64 inch

    def test_a_notched_board_is_in_one_piece_where_its_pieces_touch(self) -> None:
        rail = RAIL | {"joint": {"form": "lapped", "side": "front", "notch_mm": 9.0}}
        made = solved(STAND | {"rails": {"1": rail}})
        solid = made.design.solids["rail 1"]
        # Along the rail, in the wood that the notches leave: one way through all of it.
        depth = max(p[1] for piece in solid.world for p in piece.points)
        (found,) = spans(solid, (400.0, depth - 14.0, 345.0), (1.0, 0.0, 0.0))
        self.assertAlmostEqual(found[1] - found[0], 845.0, places=9)
        self.assertEqual(spans(solid, (400.0, depth + 1.0, 345.0), (1.0, 0.0, 0.0)), [])
        # A notch's wall is an end; behind the notch, where only the pieces part, there is none.
        for span, end in (((0.0, 14.0), 377.5), ((10.0, 14.0), 422.5)):
            self.assertAlmostEqual(margins(solid, (400.0, depth, 345.0), (0.0, -1.0, 0.0), span).end_mm, end, places=9)


class IntoEndGrain(unittest.TestCase):
    def test_a_butted_corner_is_screwed_through_the_wall_that_runs_on_into_end_grain(self) -> None:
        made = solved(box(level(400.0, 300.0), 120.0, thickness_mm=15.0, joint="butt"))
        (stack,) = stacks_of(made.design, joint(made, "A", "B"))
        self.assertEqual((round(stack.through_mm, 9), stack.into_end_grain), (15.0, True))
        self.assertEqual(shortest_mm(stack, SCREWS["4"], USUAL), 15.0 + 10 * 4.0)

    def test_a_strip_over_the_corner_covers_the_heads(self) -> None:
        plain: dict[str, Any] = box(level(400.0, 300.0), 120.0, thickness_mm=15.0, joint="butt")
        clad = plain | {"cladding": {"width_mm": 40.0, "thickness_mm": 8.0}}
        for document, over in ((plain, None), (clad, "strip")):
            made = solved(document)
            driven = Driven(stacks_of(made.design, joint(made, "A", "B"))[0], SCREWS["4"], 60.0)
            covered = over_head(made.design, driven)
            self.assertEqual(covered is None, over is None)
            if covered:
                self.assertIn(over, made.assembly.board(covered).name)


class Places(unittest.TestCase):
    def test_how_near_a_line_comes_to_the_sides(self) -> None:
        made = solved(STAND)
        solid = made.design.solids["rail 1"]
        # 30 in from the left end, which is flush with the post, and 20 above the lower edge.
        found = margins(solid, (-22.5 + 30.0, -22.5, 320.0), (0.0, 1.0, 0.0), (-19.0, 0.0))
        self.assertAlmostEqual(found.end_mm, 30.0, places=9)
        self.assertAlmostEqual(found.edge_mm, 20.0, places=9)

    def test_a_row_begins_as_near_the_ends_as_it_may_and_goes_on_evenly(self) -> None:
        made = solved(box(level(500.0, 300.0), 120.0, thickness_mm=25.0, cover={"thickness_mm": 18.0}))
        lid, screw = joint(made, "A", "cover"), SCREWS["3.5"]
        row = row_of(made.design, lid, "cover", screw.shank_mm, USUAL)
        places = [add(stack.head, scale(stack.way, stack.through_mm)) for stack in row]
        # The wall is mitered at 45: 5 shanks square to that are as many times the root of two along it; half of the wall is its middle.
        first = -250.0 + 12.5 + 5 * 3.5 * sqrt(2.0)
        self.assertAlmostEqual(places[0][0], first, places=4)
        self.assertAlmostEqual(places[-1][0], -first, places=4)
        apart = [b[0] - a[0] for a, b in pairwise(places)]
        self.assertLessEqual(max(apart), USUAL.pitch_mm)
        self.assertAlmostEqual(max(apart), min(apart), places=6)
        self.assertGreater(max(apart) * (len(apart)) / (len(apart) - 1), USUAL.pitch_mm)  # one fewer would be too few
        # Where the pitch goes into it twice, three do.
        twice = Rules(pitch_mm=(places[-1][0] - places[0][0]) / 2)
        self.assertEqual(len(row_of(made.design, lid, "cover", screw.shank_mm, twice)), 3)
        # Out of a joint's first board as well: across the rail, 2.5 shanks from either edge of its 90.
        upright = solved(STAND)
        near = row_of(upright.design, joint(upright, "A", "rail 1"), "rail 1", screw.shank_mm, Rules(end_shanks=5.0))
        self.assertEqual([round(stack.head[2], 4) for stack in near], [308.75, 381.25])
        # In a wall so thin none stays far enough from its edges.
        thin = solved(box(level(500.0, 300.0), 120.0, thickness_mm=17.0, cover={"thickness_mm": 18.0}))
        self.assertEqual(row_of(thin.design, joint(thin, "A", "cover"), "cover", screw.shank_mm, USUAL), [])


class Meetings(unittest.TestCase):
    def driven(self, head: tuple[float, float, float], way: tuple[float, float, float], length: float) -> Driven:
        return Driven(Stack("j", "a", "b", head, way, 10.0, 50.0, 90.0), SCREWS["4"], length)

    def test_two_that_cross_too_near_are_told_with_what_is_left(self) -> None:
        across = self.driven((-30.0, 0.0, 0.0), (1.0, 0.0, 0.0), 60.0)
        for high, left in ((5.0, 1.0), (3.0, -1.0)):
            (found,) = meetings([across, self.driven((0.0, -30.0, high), (0.0, 1.0, 0.0), 60.0)], USUAL)
            self.assertEqual((found.first, found.second, round(found.left_mm, 9)), (0, 1, left))
        # One that ends before it comes to the other: from its tip.
        short = self.driven((0.0, -30.0, 0.0), (0.0, 1.0, 0.0), 20.0)
        self.assertAlmostEqual(lines_apart(across.line, short.line), 10.0, places=9)
        self.assertEqual(meetings([across, short], USUAL), [])
        beside = self.driven((-30.0, 7.0, 0.0), (1.0, 0.0, 0.0), 60.0)
        self.assertAlmostEqual(lines_apart(across.line, beside.line), 7.0, places=9)
