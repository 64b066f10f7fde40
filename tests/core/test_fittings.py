"""What stands in a box's corners, lies under its rim and on it, and what is drilled: figures by another way than the solids."""

import unittest
from collections.abc import Sequence
from itertools import combinations, pairwise
from math import cos, hypot, pi, radians, sqrt, tan
from typing import Any

from fennup.core.design import design_of
from fennup.core.errors import SpecError
from fennup.core.geometry.vec import Point2
from fennup.core.kinds.drilling import sunk_mm
from fennup.core.parts.alike import fingerprint
from fennup.core.parts.solid import arris_length, solid_of
from fennup.core.project.place import assemble, settle
from fennup.core.project.spec import ProjectSpec
from fennup.core.steps.templates import templates_of
from fennup.core.verify.boolean import boolean_proof
from tests.core.frames import Solved, box, level, of_sides, solved

CASE = box(level(400.0, 300.0), 120.0, thickness_mm=15.0)


def size(made: Solved, board: str) -> list[float]:
    """How far a board goes along the three directions of the world."""
    points = [p for piece in made.design.solids[board].world for p in piece.points]
    return [round(max(p[k] for p in points) - min(p[k] for p in points), 4) for k in range(3)]


def bottom(made: Solved, board: str) -> float:
    return round(min(p[2] for piece in made.design.solids[board].world for p in piece.points), 6)


def area(points: Sequence[Point2]) -> float:
    return sum(a[0] * b[1] - a[1] * b[0] for a, b in zip(points, [*points[1:], points[0]], strict=True)) / 2


def crosses(points: Sequence[Point2]) -> bool:
    """Whether two sides of a polygon cross that are not neighbours."""
    sides = list(zip(points, [*points[1:], points[0]], strict=True))

    def left(a: Point2, b: Point2, c: Point2) -> bool:
        return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) > 0

    return any(
        left(a, b, c) != left(a, b, d) and left(c, d, a) != left(c, d, b)
        for (i, (a, b)), (k, (c, d)) in combinations(enumerate(sides), 2)
        if 1 < k - i < len(sides) - 1
    )


class Fittings(unittest.TestCase):
    def closed(self, document: dict[str, Any]) -> Solved:
        """Solved, with every joint closed by both proofs and no wood in other wood."""
        made = solved(document)
        for check in made.design.joints:
            self.assertTrue(check.closes and check.touches, check)
        self.assertEqual(made.design.shared, ())
        proof = boolean_proof(made.design.assembly, made.design.solids)
        self.assertTrue(proof.confirms(made.closing, made.joints))
        return made

    def refused(self, document: dict[str, Any]) -> tuple[str, float]:
        with self.assertRaises(SpecError) as caught:
            solved(document)
        return caught.exception.code, round(float(caught.exception.data["limit_mm"]), 4)

    def test_a_block_in_a_square_corner_is_the_half_of_a_square(self) -> None:
        made = self.closed({**CASE, "blocks": {"along_mm": 40.0, "thickness_mm": 20.0, "below_mm": 10.0}})
        block = made.assembly.board("block AB")
        self.assertAlmostEqual(block.section.width_mm, 40.0 * sqrt(2.0), places=9)
        self.assertEqual(size(made, "block AB")[2], 110.0)
        deep = 40.0 / sqrt(2.0)
        self.assertAlmostEqual(solid_of(block).volume(), (deep**2 - (deep - 20.0) ** 2) * 110.0, places=4)
        self.assertEqual(self.refused({**CASE, "blocks": {"along_mm": 20.0, "thickness_mm": 15.0}}), ("block_too_thick", 14.1421))
        # Between six walls the corner opens to 120 degrees: a block reaches in by the cosine of half of that.
        six = box(of_sides(6, 400.0), 120.0, thickness_mm=15.0, blocks={"along_mm": 50.0, "thickness_mm": 26.0})
        self.assertEqual(self.refused(six), ("block_too_thick", 25.0))
        self.assertEqual(self.refused({**CASE, "blocks": {"along_mm": 140.0, "thickness_mm": 9.0}}), ("blocks_meet", 135.0))

    def test_an_insert_lies_below_the_rim_on_its_ledger(self) -> None:
        leaning = {**CASE, "slope_deg": 10.0, "insert": {"reveal_mm": 10.0, "thickness_mm": 9.0, "play_mm": 2.0}}
        made = self.closed(leaning)
        self.assertEqual(bottom(made, "insert"), 120.0 - 19.0)
        # Along the wall's inside at that level: the wall flares by tan 10, and is 15 / cos 10 thick measured level.
        inside = 400.0 + 2 * (101.0 * tan(radians(10.0)) - 15.0 / cos(radians(10.0)))
        self.assertAlmostEqual(arris_length(made.assembly.board("ledger A"), "back_upper"), inside, places=6)
        self.assertAlmostEqual(size(made, "insert")[0], inside + 2 * 9.0 * tan(radians(10.0)) - 2.0, places=3)
        self.closed({**leaning, "slope_deg": -10.0})
        with self.assertRaises(SpecError) as caught:
            solved({**leaning, "insert": {**leaning["insert"], "play_mm": 350.0}})
        self.assertEqual(caught.exception.fields, ("insert.play_mm",))
        under_cap = solved({**leaning, "cap": {"thickness_mm": 9.0, "over_in_mm": 5.0, "over_out_mm": 5.0}})
        self.assertIn("insert_before_cap", [finding.code for finding in under_cap.assembly.findings])
        on_blocks = {"reveal_mm": 10.0, "thickness_mm": 9.0, "on": "blocks"}
        made = self.closed({**CASE, "insert": on_blocks, "blocks": {"along_mm": 40.0, "thickness_mm": 20.0}})
        self.assertEqual(size(made, "block AB")[2], 101.0)

    def test_a_lid_reaches_over_each_side_as_is_said_and_leaves_its_hinge_strip(self) -> None:
        cover = {
            "thickness_mm": 12.0,
            "over_mm": 10.0,
            "overs_mm": {"A": 25.0, "C": 0.0},
            "hinge": "C",
            "strip_mm": 50.0,
            "gap_mm": 3.0,
        }
        made = self.closed({**CASE, "cover": cover})
        self.assertEqual(size(made, "hinge strip"), [420.0, 50.0, 12.0])
        self.assertEqual(size(made, "cover"), [420.0, 300.0 + 25.0 - 53.0, 12.0])
        self.assertEqual(bottom(made, "cover"), 120.0)
        # It lies wholly on the walls, or where it is set back past one only on the others.
        plain = self.closed({**CASE, "cover": {"thickness_mm": 12.0, "over_mm": 10.0}})
        self.assertEqual({j.kind for j in plain.assembly.joints if j.id.endswith("cover")}, {"butt"})
        short = self.closed({**CASE, "cover": {"thickness_mm": 12.0, "overs_mm": {"A": -20.0}}})
        self.assertEqual({j.a.board for j in short.assembly.joints if j.id.endswith("cover")}, {"B", "C", "D"})
        on_cap = {**CASE, "cap": {"thickness_mm": 18.0, "over_in_mm": 5.0, "over_out_mm": 20.0}, "cover": {"thickness_mm": 12.0}}
        made = self.closed(on_cap)
        self.assertEqual((size(made, "cover"), bottom(made, "cover")), ([440.0, 340.0, 12.0], 138.0))

    def test_rails_lie_on_the_wall_between_the_strips(self) -> None:
        strips = {"width_mm": 40.0, "thickness_mm": 10.0, "rail_width_mm": 30.0, "rails_mm": [0.0, 90.0]}
        made = self.closed({**CASE, "cladding": strips})
        self.assertEqual(size(made, "rail A1"), [400.0 - 2 * 40.0, 10.0, 30.0])
        made = self.closed({**CASE, "slope_deg": 8.0, "cladding": strips})
        self.assertEqual(bottom(made, "rail A2"), 90.0)
        # Both edges level, it takes as much more of the board as its thickness leans.
        self.assertAlmostEqual(made.assembly.board("rail A2").section.width_mm, 30.0 + 10.0 * tan(radians(8.0)), places=9)
        high = {**strips, "rails_mm": [100.0]}
        self.assertEqual(self.refused({**CASE, "cladding": high}), ("strip_rail_above", 90.0))

    def test_strips_end_in_a_point_above_the_rim(self) -> None:
        strips = {"width_mm": 40.0, "thickness_mm": 10.0, "past_mm": 30.0, "point_deg": 30.0}
        made = self.closed({**CASE, "cladding": strips})
        self.assertAlmostEqual(max(p[2] for piece in made.design.solids["nAB"].world for p in piece.points), 150.0, places=9)
        # Two sides of a triangle, each over half the width, are missing of the whole strip.
        whole = 40.0 * 150.0 - 40.0**2 / 4 * tan(radians(30.0))
        self.assertAlmostEqual(made.design.solids["nAB"].volume(), 10.0 * whole, places=4)
        self.closed({**CASE, "slope_deg": 8.0, "cladding": strips})

    def test_staves_side_by_side_share_a_wall_evenly(self) -> None:
        made = self.closed(box(of_sides(6, 400.0), 220.0, slope_deg=8.0, grain="up", staves=3))
        side = 400.0 * tan(pi / 6)
        for stave in ("A1", "A2", "A3"):
            self.assertAlmostEqual(arris_length(made.assembly.board(stave), "face_lower"), side / 3, places=6)
        self.assertAlmostEqual(made.ruler.measure("outer_bottom_side"), side, places=6)

    def test_what_is_turned_out_of_staves_lies_inside_them(self) -> None:
        pot = box(of_sides(8, 400.0), 220.0, thickness_mm=40.0, grain="up", turned={"outer_mm": 396.0})
        note = next(f for f in self.closed(pot).assembly.findings if f.code == "turned_off")
        across_corners = 400.0 / cos(pi / 8)
        self.assertAlmostEqual(note.value or 0.0, (across_corners - 396.0) / 2, places=9)
        self.assertAlmostEqual(note.limit or 0.0, (396.0 - 320.0 / cos(pi / 8)) / 2, places=9)
        self.assertEqual(self.refused({**pot, "turned": {"outer_mm": 401.0}}), ("turned_too_large", 400.0))
        self.assertEqual(self.refused({**pot, "turned": {"outer_mm": 330.0}}), ("turned_through", round(320.0 / cos(pi / 8), 4)))
        bored = {**pot, "turned": {"outer_mm": 396.0, "inner_mm": 340.0}}
        self.assertEqual(self.refused(bored), ("bored_too_small", round(320.0 / cos(pi / 8), 4)))

    def test_walls_of_equal_boards_stand_each_at_a_height_of_its_own(self) -> None:
        made = self.closed({**CASE, "slopes_deg": {"AC": 10.0, "BD": 25.0}, "rims": "alike"})
        wide = 120.0 / cos(radians(10.0))
        for side in "AB":
            self.assertAlmostEqual(made.ruler.measure(f"slant:{side}"), wide, places=9)
        top = max(p[2] for piece in made.design.solids["B"].world for p in piece.points)
        self.assertAlmostEqual(top, wide * cos(radians(25.0)), places=9)
        capped = {
            **CASE,
            "slopes_deg": {"AC": 10.0, "BD": 25.0},
            "rims": "alike",
            "cap": {"thickness_mm": 9.0, "over_in_mm": 5.0, "over_out_mm": 5.0},
        }
        with self.assertRaises(SpecError) as caught:
            solved(capped)
        self.assertEqual(caught.exception.code, "rims_not_level")

    def test_shelves_count_from_the_side_that_is_said(self) -> None:
        shelves = [{"height_mm": 100.0, "thickness_mm": 12.0, "side": side} for side in "BC"]
        made = self.closed({**CASE, "shelves": shelves[:1]})
        points = [p for piece in made.design.solids["shelf1"].world for p in piece.points]
        self.assertAlmostEqual(max(p[0] for p in points), 200.0 - 15.0 - 100.0, places=9)
        made = self.closed({**CASE, "shelves": shelves[1:]})
        points = [p for piece in made.design.solids["shelf1"].world for p in piece.points]
        self.assertAlmostEqual(max(p[1] for p in points), 150.0 - 15.0 - 100.0, places=9)


class Sheet(unittest.TestCase):
    def test_a_lining_folds_up_so_that_the_flaps_meet(self) -> None:
        floor = {"height_mm": 0.0, "thickness_mm": 12.0}
        lining = {"below_mm": 8.0, "play_mm": 0.0, "lap_mm": 10.0, "drains": 3, "drain_mm": 8.0}
        made = solved({**CASE, "slope_deg": 15.0, "floor": floor, "lining": lining})
        (blank,) = made.assembly.blanks
        tall, lean, level_mm = 120.0 - 8.0 - 12.0, tan(radians(15.0)), 15.0 / cos(radians(15.0))
        wide, deep = (size + 2 * (12.0 * lean - level_mm) for size in (400.0, 300.0))
        self.assertEqual(len(blank.folds), 8)
        for (a, b), expected in zip(blank.folds, (wide, deep, wide, deep, *(tall * sqrt(1 + 2 * lean**2),) * 4), strict=True):
            self.assertAlmostEqual(hypot(b[0] - a[0], b[1] - a[1]), expected, places=6)
        # All across: the bottom and two flaps up the slope.
        self.assertAlmostEqual(
            max(p[1] for p in blank.cut) - min(p[1] for p in blank.cut), deep + 2 * tall / cos(radians(15.0)), places=6
        )
        flaps = 2 * tall / cos(radians(15.0)) * (wide + deep + 2 * tall * lean)
        tabs = sum(10.0 * (hypot(b[0] - a[0], b[1] - a[1]) - 10.0) for a, b in blank.folds[4:])
        self.assertAlmostEqual(area(blank.cut), wide * deep + flaps + tabs, places=6)
        # However far the walls lean out, no tab lies on the next flap.
        for slope in (0.0, 40.0, 65.0, -20.0):
            self.assertFalse(
                crosses(solved({**CASE, "slope_deg": slope, "lining": {"lap_mm": 10.0}}).assembly.blanks[0].cut), slope
            )
        self.assertEqual([round(x, 6) for (x, _), _ in blank.holes], [round(-wide / 4, 6), 0.0, round(wide / 4, 6)])
        with self.assertRaises(SpecError) as caught:
            solved({**CASE, "floor": floor, "lining": {**lining, "lap_mm": 60.0}})
        self.assertEqual(caught.exception.code, "tab_no_room")

    def test_a_cone_goes_round_as_far_as_its_rim_is_long(self) -> None:
        shape = {"form": "pyramid", "sides": 6, "across_mm": 600.0, "height_mm": 300.0, "cone": {"over_mm": 25.0, "lap_mm": 0.0}}
        made = solved({"kind": "roof", "thickness_mm": 12.0, "shape": shape})
        base, note = 300.0 / cos(pi / 6), next(f for f in made.assembly.findings if f.code == "cone_flat")
        slant = hypot(base, 300.0)
        self.assertAlmostEqual(note.value or 0.0, slant + 25.0, places=9)
        rim = 2 * pi * base * (slant + 25.0) / slant
        self.assertAlmostEqual((note.value or 0.0) * radians(note.limit or 0.0), rim, places=6)
        (blank,) = made.assembly.blanks
        self.assertLess(blank.off_mm, 0.05)
        arc = blank.cut[1:]
        self.assertAlmostEqual(sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(arc)), rim, delta=0.2)
        flat = next(t for t in templates_of(made.design, ()) if t.sort == "blank")
        self.assertEqual(flat.lines[0].points, blank.cut)


class Drilling(unittest.TestCase):
    def test_a_ball_sinks_by_the_height_of_its_cap(self) -> None:
        self.assertAlmostEqual(sunk_mm(50.0, 30.0), 5.0, places=12)  # radius 25, half chord 15: 25 - 20
        row = {"board": "A", "count": 4, "diameter_mm": 1.0, "up_mm": 60.0, "ball_mm": 50.0, "sinks_mm": 5.0}
        made = solved({**CASE, "holes": [row]})
        (facts,) = (f for f in made.design.facts if f.holes)
        self.assertAlmostEqual(facts.holes[0].diameter_mm, 30.0, places=9)
        note = next(f for f in made.assembly.findings if f.code == "ball_sits")
        self.assertEqual((round(note.value or 0.0, 9), round(note.limit or 0.0, 9)), (5.0, 45.0))

    def test_holes_end_in_the_wood_or_go_into_a_panel(self) -> None:
        floor = {"height_mm": 0.0, "thickness_mm": 12.0}
        rows = [
            {"board": "A", "count": 2, "diameter_mm": 10.0, "up_mm": 60.0, "deep_mm": 8.0},
            {"board": "floor", "count": 3, "diameter_mm": 20.0, "up_mm": 50.0, "spacing": "ends", "margin_mm": 40.0},
        ]
        made = solved({**CASE, "floor": floor, "holes": rows})
        self.assertEqual([hole.deep_mm for hole in made.assembly.board("A").holes], [8.0, 8.0])
        row = next(f for f in made.design.facts if f.key == "floor").holes[0]
        self.assertEqual(([round(at, 9) for at in row.along_mm], row.deep_mm), ([40.0, 185.0, 330.0], None))
        # A board that is drilled to a depth is not the same as one that is drilled through.
        both = [{**rows[0], "board": side, "deep_mm": deep} for side, deep in (("A", 8.0), ("C", None))]
        alike = solved({**CASE, "holes": both}).design.parts
        self.assertNotIn({"A", "C"}, [set(part.boards) for part in alike])

    def test_bad_holes_are_refused_with_their_limit(self) -> None:
        row = {"board": "A", "count": 6, "diameter_mm": 30.0, "up_mm": 60.0}
        for more, code, limit in (
            ({"deep_mm": 15.0}, "hole_too_deep", 15.0),
            ({"ball_mm": 30.0}, "ball_sinks_through", 30.0),
            ({"ball_mm": 50.0, "sinks_mm": 25.0}, "ball_sinks_through", 25.0),
            ({"ball_mm": 60.0}, "balls_touch", 60.0),
            ({"ball_mm": 50.0, "deep_mm": 4.0}, "ball_on_the_ground", 5.0),
        ):
            with self.subTest(code=code), self.assertRaises(SpecError) as caught:
                solved({**CASE, "holes": [{**row, **more}]})
            self.assertEqual((caught.exception.code, caught.exception.data["limit_mm"]), (code, limit))


class Pipes(unittest.TestCase):
    def piped(self, own: dict[str, Any], **more: Any) -> ProjectSpec:
        """A pipe 150 along the inside of A and 20 above its middle, to the inside of C."""
        seats = {
            end: {"board": f"m1/{side}", "side": "back", "along_mm": 150.0, "aside_mm": 20.0}
            for end, side in (("a", "A"), ("b", "C"))
        }
        pipe = {
            "name": "Rod",
            **seats,
            "width_mm": 20.0,
            "thickness_mm": 20.0,
            "pipe": {"diameter_mm": 18.0, "into_mm": 8.0},
            **more,
        }
        return ProjectSpec.model_validate(
            {"members": {"m1": {"name": "Case", "spec": own}}, "pieces": {"p2": pipe}, "numbered": 2}
        )

    def test_it_is_as_long_as_the_clear_way_and_what_goes_into_both_boards(self) -> None:
        design = design_of(assemble(settle(self.piped(CASE))))
        note = next(f for f in design.assembly.findings if f.code == "pipe_long")
        self.assertEqual((note.value, note.limit), (300.0 - 2 * 15.0 + 2 * 8.0, 270.0))
        rows = {facts.key: facts.holes[0] for facts in design.facts if facts.holes}
        # From the inside's own left end: 150 along the wall's outside less its thickness at the miter; C lies the other way round.
        found = {key: (round(row.along_mm[0], 6), row.up_mm, row.deep_mm, row.side) for key, row in rows.items()}
        self.assertEqual(found, {"m1/A": (135.0, 80.0, 8.0, "back"), "m1/C": (235.0, 80.0, 8.0, "back")})
        self.assertTrue(all(check.closes for check in design.joints))
        three = assemble(settle(self.piped(CASE, count=3, step_mm=60.0)))
        self.assertEqual([len(board.holes) for board in three.boards if board.id in ("m1/A", "m1/C")], [3, 3])

    def test_what_no_straight_hole_takes_is_refused(self) -> None:
        with self.assertRaises(SpecError) as caught:
            assemble(settle(self.piped({**CASE, "slope_deg": 10.0})))
        self.assertEqual((caught.exception.code, round(float(caught.exception.data["deg"]), 6)), ("pipe_askew", 20.0))
        for pipe, code in (
            ({"diameter_mm": 18.0, "into_mm": 15.0}, "pipe_through"),
            ({"diameter_mm": 90.0, "into_mm": 8.0}, "pipe_misses"),
        ):
            with self.assertRaises(SpecError) as caught:
                assemble(settle(self.piped(CASE, pipe=pipe)))
            self.assertEqual(caught.exception.code, code)

    def test_a_board_drilled_from_the_back_is_another_part(self) -> None:
        rows = [
            {"board": side, "count": 2, "diameter_mm": 8.0, "up_mm": 60.0, "deep_mm": 6.0, "side": on}
            for side, on in (("A", "face"), ("C", "back"))
        ]
        design = solved({**CASE, "holes": rows}).design
        self.assertEqual(len({fingerprint(design.boards[id], design.solids[id]) for id in "AC"}), 2)
