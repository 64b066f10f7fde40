import unittest
from dataclasses import replace
from itertools import product

from fennup.core.assembly.board import Board, Hole
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.alike import group_parts, turned
from fennup.core.parts.solid import solid_of
from tests.core.frames import Solved, all_starts, regular, solved

Place = tuple[float, float, float]


def corners(solution: Solved, id: str) -> list[Place]:
    """A finished board's corners in its own axes, from the middle of its length."""
    low, high = solution.solids[id].extent_x()
    points = {p for piece in solution.solids[id].local for p in piece.points}
    return [(p[0] - (low + high) / 2, p[1], p[2]) for p in points]


def same(a: list[Place], b: list[Place]) -> bool:
    return len(a) == len(b) and all(any(max(abs(m - n) for m, n in zip(p, q, strict=True)) < 1e-4 for q in b) for p in a)


class Alike(unittest.TestCase):
    def test_what_is_one_part_coincides_when_turned_and_what_is_not_does_not_however_it_is_turned(self) -> None:
        several = 0
        for name, starts in all_starts().items():
            for code, document in enumerate(starts):
                made = solved(document)
                for part in made.parts:
                    first = corners(made, part.id)
                    for id in part.boards:
                        brought = [turned(part.turn_of(id), p) for p in first]
                        self.assertTrue(same(brought, corners(made, id)), (name, code, part.id, id))
                        several += id != part.id
                # Of two parts that are mirror images no turn brings one onto the other: the four half turns, by their signs.
                for part in made.parts:
                    if part.mirror_of:
                        for sx, sy in product((1, -1), (1, -1)):
                            brought = [(sx * x, sy * y, sx * sy * z) for x, y, z in corners(made, part.mirror_of)]
                            self.assertFalse(same(brought, corners(made, part.id)), (name, code, part.id))
        self.assertGreater(several, 100)

    def test_the_front_and_back_of_a_ladders_boxes_are_one_part(self) -> None:
        parts = solved(KINDS["brace"].starts["box_ladder"]).parts
        self.assertIn(8, [len(part.boards) for part in parts])

    def test_every_cut_of_a_turned_board_is_made_as_the_first_ones(self) -> None:
        # Whatever its turn, each joint of a stand that is alike all round opens as its mirror image does.
        made = solved(KINDS["stand"].starts["stool"])
        gaps = {gap.joint: gap.widest_mm for gap in made.gaps}
        for other in ("rail B1 right", "rail D1 left", "rail D1 right"):
            self.assertAlmostEqual(gaps["rail B1 left"], gaps[other], places=9)


class Holes(unittest.TestCase):
    def plain(self, *holes: Hole) -> Board:
        board = solved(regular(4, 60.0, "outside_flats", mm=400.0)).assembly.board("A")
        return replace(board, holes=holes, shows=False)

    def grouped(self, a: Board, b: Board) -> list[tuple[str | None, str | None]]:
        boards = (a, replace(b, id="other"))
        parts = group_parts(boards, {board.id: solid_of(board) for board in boards})
        return [(part.mirror_of, part.turned_over_of) for part in parts]

    def test_they_count_by_place_size_and_side(self) -> None:
        one = self.plain(Hole(-100.0, 5.0, 8.0))
        self.assertEqual(len(self.grouped(one, self.plain(Hole(-100.0, 5.0, 8.0)))), 1)
        # On a rail that is alike at both ends the same hole at the other end is a mirror image.
        self.assertEqual(self.grouped(one, self.plain(Hole(100.0, 5.0, 8.0)))[1:], [("A", None)])
        self.assertEqual(self.grouped(one, self.plain(Hole(-100.0, 5.0, 9.0)))[1:], [(None, None)])
        self.assertEqual(self.grouped(one, self.plain(Hole(-100.0, 9.0, 8.0)))[1:], [(None, None)])
        self.assertEqual(self.grouped(one, self.plain(Hole(-90.0, 5.0, 8.0)))[1:], [(None, None)])
        self.assertEqual(self.grouped(one, self.plain())[1:], [(None, None)])
        # A board that shows its face is no plain one, however alike.
        self.assertEqual(len(self.grouped(one, replace(one, shows=True))), 2)
