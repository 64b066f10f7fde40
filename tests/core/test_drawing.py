import unittest
from math import hypot, pi, tan

from fennup.core.drawing.board_views import hull, part_shapes, section_shape
from fennup.core.drawing.view import Description, Shape
from fennup.core.editing import get_at, put_at
from fennup.core.errors import SpecError
from fennup.core.stock.timber import NOMINALS
from tests.core.frames import FRAME, irregular, rectangle, regular, solved


def area(points: tuple[tuple[float, float], ...]) -> float:
    """By the shoelace: + when the points run anticlockwise."""
    pairs = zip(points, points[1:] + points[:1], strict=True)
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in pairs) / 2


def described(document: dict) -> Description:
    frame = solved(document)
    return FRAME.describe(frame.spec, frame.ruler, frame.solids)


def of(role: str, shapes: tuple[Shape, ...]) -> list[Shape]:
    return [s for s in shapes if s.role == role]


class WhatIsDrawn(unittest.TestCase):
    def test_the_front_view_is_to_scale_wood_and_nothing_but_wood(self) -> None:
        front = described(regular(6, 40.0, "opening_flats", mm=300.0)).views[0]
        drawn = sum(area(s.points) for s in of("wood", front.shapes))
        # A ring between hexagons of 380 and 300 across flats: area F^2 tan 30 * 3/2 each.
        self.assertAlmostEqual(drawn, 1.5 * tan(pi / 6) * (380**2 - 300**2), places=4)
        joints = of("joint", front.shapes)
        self.assertEqual(len(joints), 12)
        for joint in joints:
            (ax, ay), (bx, by) = joint.points
            self.assertAlmostEqual(hypot(bx - ax, by - ay), 40 / (3**0.5 / 2), places=6)

    def test_a_part_card_hatches_just_what_the_board_has_over(self) -> None:
        frame = solved(regular(8, 58.0, "outside_side", mm=205.5, left_out=["A"], loose_ends="ground"))
        board = frame.assembly.board("B")
        shapes, marks = part_shapes(board, frame.solids["B"])
        low, high = frame.solids["B"].extent_x()
        waste = sum(abs(area(s.points)) for s in of("waste", shapes))
        wood = abs(area(of("wood", shapes)[0].points))
        self.assertAlmostEqual(wood + waste, 58 * (high - low), places=6)
        # The ends lean the same way: one long point on the opening edge, one on the outer.
        self.assertEqual(sorted(m.at[1] for m in marks if m.role == "long_point"), [-29.0, 29.0])

    def test_a_dimension_is_as_long_as_it_says(self) -> None:
        for document in (
            regular(7, 50.8, "outside_corners", mm=533.4), regular(6, 40.0, "opening_side", mm=200.0),
            regular(8, 45.0, "floats", object_mm=300.0, reveal_mm=4.0), rectangle("outside", 600.0, 400.0, 60.0),
            irregular([(0, 0), (400, 0), (450, 300), (0, 250)], [{"side": "A", "mm": 380.0}]),
        ):  # fmt: skip
            for view in described(document).views:
                for d in view.dimensions:
                    if d.unit == "mm":
                        drawn = hypot(d.b[0] - d.a[0], d.b[1] - d.a[1])
                        self.assertAlmostEqual(drawn, d.value, places=6, msg=f"{view.id} {d.id}")

    def test_just_what_was_given_is_shown_as_given(self) -> None:
        told = described(regular(7, 50.8, "outside_diagonal", mm=500.0))
        self.assertEqual([s.measure for s in told.sizes if s.standing == "given"], ["outside_diagonal"])
        self.assertEqual([d.id for d in told.views[0].dimensions if d.standing == "given"], ["outside_diagonal"])
        pinned = described(irregular([(0, 0), (400, 0), (450, 300), (0, 250)], [{"corner": "BC", "deg": 80.0}]))
        self.assertEqual([d.id for d in pinned.views[0].dimensions if d.can_free], ["outside_angle:BC"])

    def test_the_section_shows_the_rabbet_open_to_the_back(self) -> None:
        frame = solved(regular(6, 40.0, "opening_flats", mm=300.0, rabbet={"width_mm": 6.0, "depth_mm": 8.0}))
        outline = section_shape(frame.assembly.boards[0].section).points
        self.assertAlmostEqual(area(outline), 40 * 20 - 6 * 8)
        self.assertIn((-14.0, -2.0), outline)

    def test_a_hull_leaves_inner_and_level_points_out(self) -> None:
        self.assertEqual(hull([(0, 0), (2, 0), (1, 0), (2, 2), (0, 2), (1, 1)]), ((0, 0), (2, 0), (2, 2), (0, 2)))


class Fields(unittest.TestCase):
    def test_a_path_leads_to_its_value_and_a_change_leaves_the_rest_alone(self) -> None:
        spec = {"a": {"b": [1, {"c": 2}]}, "d": None}
        changed = put_at(spec, "a.b.1.c", 5)
        self.assertEqual((get_at(changed, "a.b.1.c"), get_at(spec, "a.b.1.c")), (5, 2))
        self.assertEqual(put_at(spec, "d.e", 1)["d"], {"e": 1})
        self.assertNotIn("a", put_at(spec, "a", None))
        for path in ("a.b.7", "a.b.1.c.d", "a.x.y"):
            with self.subTest(path), self.assertRaises(SpecError):
                get_at(spec, path)

    def test_yard_sizes_are_what_the_boards_measure(self) -> None:
        self.assertEqual((NOMINALS["2x4"].width_mm, NOMINALS["2x4"].thickness_mm), (88.9, 38.1))
        self.assertAlmostEqual(NOMINALS["2x8"].width_mm, 7.25 * 25.4)
        self.assertEqual(NOMINALS["18 x 94 planed"].thickness_mm, 18.0)
