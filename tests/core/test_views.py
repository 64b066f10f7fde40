import unittest
from math import cos, radians, sin, tan

from fennup.core.drawing.board_views import part_shapes
from fennup.core.drawing.view import Description, View
from fennup.core.kinds.catalogue import KINDS
from tests.core.frames import all_typed, box, level, of_sides, solved
from tests.core.test_drawing import area, of


def described(document: dict) -> Description:
    made = solved(document)
    return KINDS["box"].describe(made.spec, made.ruler, made.solids)


def view(document: dict, id: str) -> View:
    return next(v for v in described(document).views if v.id == id)


class TheViewsOfABox(unittest.TestCase):
    def test_from_above_a_case_shows_its_top_edges_and_nothing_else(self) -> None:
        seen = of("wood", view(box(of_sides(6, 400.0), 100.0), "above").shapes)
        # A ring between hexagons of 400 and 364 across flats.
        self.assertAlmostEqual(sum(abs(area(s.points)) for s in seen), 1.5 * tan(radians(30)) * (400**2 - 364**2), places=6)
        self.assertEqual({s.part for s in seen}, set("ABCDEF"))

    def test_from_the_front_a_flaring_box_is_a_trapezoid_and_its_mating_faces_stay_hidden(self) -> None:
        seen = of("wood", view(box(level(300.0, 200.0), 200.0, slope_deg=15.0), "front").shapes)
        top = 300 + 2 * 200 * tan(radians(15))
        front = [s for s in seen if s.part == "A"]
        self.assertAlmostEqual(abs(area(front[-1].points)), (300 + top) / 2 * 200, places=6)
        self.assertEqual(len(front), 1)

    def test_the_wall_cut_across_has_its_true_section(self) -> None:
        cut = view(box(level(300.0, 200.0), 200.0, slope_deg=15.0, floor={"height_mm": 20.0, "thickness_mm": 12.0}), "section")
        wall = [s for s in of("wood", cut.shapes) if s.part == "A"]
        # Level edges: a parallelogram 200 high, t / cos a wide on every level.
        self.assertAlmostEqual(abs(area(wall[0].points)), 200 * 18 / cos(radians(15)), places=6)
        self.assertEqual([d.id for d in cut.dimensions], ["thickness", "floor_height"])

    def test_the_corner_cut_level_shows_both_walls_and_where_they_meet(self) -> None:
        cut = view(box(level(300.0, 200.0), 200.0), "corner")
        (joint,) = of("joint", cut.shapes)
        ends = sorted(joint.points)
        for got, want in zip((*ends[0], *ends[1]), (132.0, -82.0, 150.0, -100.0), strict=True):
            self.assertAlmostEqual(got, want, places=6)

    def test_the_slope_stands_where_its_wall_is_seen_edge_on(self) -> None:
        for document, id, names in (
            (box(level(300.0, 200.0), 200.0, slopes_deg={"AC": 15.0, "BD": 5.0}), "front", {"slope:BD"}),
            (box(level(300.0, 200.0), 200.0, slopes_deg={"AC": 15.0, "BD": 5.0}), "side", {"slope:AC"}),
            (box(of_sides(6, 400.0), 100.0, slope_deg=8.0), "side", {"slope"}),
            (box(of_sides(6, 400.0), 100.0, slope_deg=8.0), "front", set()),
        ):
            angles = [d for d in view(document, id).dimensions if d.unit == "deg"]
            self.assertEqual({d.id for d in angles}, names)
            for d in angles:
                # The arc runs from one direction to the other anticlockwise, by the angle that it says.
                turned = d.a[0] * d.b[1] - d.a[1] * d.b[0]
                self.assertAlmostEqual(turned, abs(sin(radians(d.value))), places=9)

    def test_what_was_given_is_boxed_can_be_let_go_and_has_a_ring(self) -> None:
        leaning = box(level(300.0, 200.0), 200.0, slope_deg=15.0)
        suggested = {d.id for d in view(leaning, "above").dimensions if d.standing == "suggested"}
        self.assertEqual(suggested, {"outer_bottom_width", "outer_bottom_depth"})
        above = view(all_typed(leaning), "above")
        held = {d.id for d in above.dimensions if d.standing == "given"}
        self.assertEqual(held, suggested)
        self.assertTrue(all(d.can_free == (d.id in held) for d in above.dimensions))
        self.assertEqual({g.id for g in above.grips}, {f"pin:{name}" for name in held})


class PartsAndCuts(unittest.TestCase):
    def test_a_panels_card_draws_both_its_outlines(self) -> None:
        made = solved(box(of_sides(6, 400.0), 300.0, slope_deg=10.0, floor={"height_mm": 20.0, "thickness_mm": 12.0}))
        shapes, _ = part_shapes(made.assembly.board("floor"), made.solids["floor"])
        upper, under = (abs(area(of(role, shapes)[0].points)) for role in ("cut", "unseen"))
        side = 400 - 36 / cos(radians(10))
        for got, height in ((upper, 32.0), (under, 20.0)):
            across = side + 2 * height * tan(radians(10))
            self.assertAlmostEqual(got, 1.5 * tan(radians(30)) * across**2, places=6)

    def test_a_cut_is_drawn_no_farther_than_its_board(self) -> None:
        made = solved(KINDS["roof"].starts["hip"])
        for part in made.parts:
            shapes, _ = part_shapes(made.boards[part.id], made.solids[part.id])
            low, high = made.solids[part.id].extent_x()
            cuts = [point[0] for shape in shapes if shape.role == "cut" for point in shape.points]
            self.assertGreaterEqual(min(cuts), low - 1e-9)
            self.assertLessEqual(max(cuts), high + 1e-9)

    def test_a_ripped_board_and_a_lapped_one_show_what_is_taken(self) -> None:
        inner = {"thickness_mm": 20.0, "bars": [{"count": 1, "width_mm": 30.0}, {"count": 1, "width_mm": 40.0, "way_deg": 90.0}]}
        made = solved(box(level(300.0, 200.0), 200.0, slope_deg=15.0, inner=inner))
        under, over = (part_shapes(made.assembly.board(id), made.solids[id])[0] for id in ("X1", "Y1"))
        slot = of("waste", under)[-1]
        self.assertAlmostEqual(abs(area(slot.points)), 40 * 30, places=6)
        self.assertAlmostEqual(abs(area(of("unseen", over)[-1].points)), 40 * 30, places=6)
        wall = part_shapes(made.assembly.board("A"), made.solids["A"])[0]
        rips = [s for s in of("cut", wall) if abs(s.points[0][1] - s.points[1][1]) < 1e-9]
        apart = abs(rips[0].points[0][1] - rips[1].points[0][1])
        self.assertAlmostEqual(apart, 200 / cos(radians(15)), places=6)
