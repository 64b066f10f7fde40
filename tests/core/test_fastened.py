"""What holds every kind of joint: against the wood itself, along every fastener of every project of the demo, and against figures from the sizes given."""

import unittest
from itertools import pairwise
from math import cos, radians, sqrt
from typing import Any

from fennup.app.services.demo import PROJECTS
from fennup.app.services.solving import solved_spec
from fennup.core.errors import SpecError
from fennup.core.fasten.choice import Fastening
from fennup.core.fasten.doubts import doubts_of
from fennup.core.fasten.drawn import joint_view, marks_of, pattern_template, pattern_view
from fennup.core.fasten.fastened import Fastened, all_driven, check_choice, fastened, pieces_needed
from fennup.core.fasten.joints import kinds_of_joint
from fennup.core.fasten.length import longest_mm, plastic_hole_mm
from fennup.core.fasten.pattern import Line
from fennup.core.fasten.table import BOLTS, SCREWS, Fasteners, Rules, Screw
from fennup.core.fasten.through import is_in
from fennup.core.geometry.vec import add, cross, scale, unit
from fennup.core.workshop import Workshop
from tests.core.frames import Solved, all_starts, box, level, rectangle, regular, solved
from tests.core.test_fasten import STAND
from tests.core.test_layers import rails

SHOP = Fasteners()
STEP = 0.25  # mm that a line is walked at a time
INSIDE = 0.2  # mm off a side, so that rounding does not decide


def held(made: Solved, *boards: str, fasteners: Fasteners = SHOP, **choice: Any) -> Fastened:
    """The kind of joint of two boards, held as chosen."""
    kind = next(k for k in kinds_of_joint(made.design) if any({j.a.board, j.b.board} == set(boards) for j in k.joints))
    return Fastened(made.design, kind, fasteners, Fastening(**choice))


class InTheWood(unittest.TestCase):
    """Whatever Fennup picks by itself stays in the wood, wherever it goes."""

    def test_every_fastener_of_every_project(self) -> None:
        checked = 0
        for project in PROJECTS:
            solution = solved_spec(project["spec"], Workshop())
            for one in fastened(solution.design, SHOP, {}):
                for joint, row in zip(one.kind.joints, one.rows, strict=False):
                    solids = [solution.design.solids[m.board] for m in (joint.a, joint.b)]
                    for stack in row:
                        assert one.straight and one.length_mm
                        start = one.begins_mm(stack)
                        end = min(start + one.length_mm, stack.through_mm + stack.into_mm)
                        for k in range(1, 20):
                            at = start + (end - start) * k / 20
                            if abs(at - stack.through_mm) < INSIDE:
                                continue
                            place = add(stack.head, scale(stack.way, at))
                            with self.subTest(project["name"], joint=joint.id):
                                self.assertTrue(any(is_in(solid, place) for solid in solids))
                        if one.how == "screw":
                            tip = add(stack.head, scale(stack.way, start + one.length_mm + SHOP.rules.cover_mm - INSIDE))
                            self.assertTrue(any(is_in(solid, tip) for solid in solids), (project["name"], joint.id))
                        checked += 1
                checked += self.slots(solution.design, one)
        self.assertGreater(checked, 300)

    def test_every_screw_of_every_start_is_measured_through_the_solids(self) -> None:
        """Where each one goes is walked through in small steps; what is told of its row is the worst of what is walked."""
        walked = 0
        designs = [(kind, solved(spec).design) for kind, specs in all_starts().items() for spec in specs]
        for start, design in [*designs, *((p["name"], solved_spec(p["spec"], Workshop()).design) for p in PROJECTS)]:
            for one in fastened(design, SHOP, {}):
                if one.how not in ("screw", "bolt") or one.straight is None or not any(one.rows):
                    continue
                near_far = [self.walked(design, stack) for row in one.rows for stack in row]
                rules, shank = SHOP.rules_of(one.how), one.straight.shank_mm
                with self.subTest(start=start, joint=one.kind.key):
                    assert one.lengths and one.through
                    self.assertAlmostEqual(min(map(sum, near_far)), one.through.through_mm + one.through.into_mm, delta=2 * STEP)
                    if one.how == "screw":
                        self.assertAlmostEqual(min(map(sum, near_far)) - rules.cover_mm, one.lengths.longest_mm, delta=2 * STEP)
                        # The least bite is that of the one which goes through most; nowhere does a board run out within the rule's distance.
                        self.assertIsNotNone(one.length_mm)
                        worst = (one.length_mm or 0.0) - max(near for near, _ in near_far)
                        self.assertAlmostEqual(one.bite_mm or 0.0, worst, delta=2 * STEP)
                        self.assertGreater(worst, shank * rules.bite_shanks - 2 * STEP)
                        self.assertGreater(
                            min(sum(pair) for pair in near_far), (one.length_mm or 0.0) + rules.cover_mm - 2 * STEP
                        )
                    self.assertGreater(min(min(pair) for pair in near_far), 1.0)
                walked += len(near_far)
        self.assertGreater(walked, 300)

    def walked(self, design: Any, stack: Any) -> tuple[float, float]:
        """How far a line runs in the near board and in the far one, counted in steps from where they meet."""
        at = add(stack.head, scale(stack.way, stack.through_mm))
        found = []
        for board, sense in ((stack.near, -1.0), (stack.far, 1.0)):
            steps = 0
            while is_in(design.solids[board], add(at, scale(stack.way, sense * (steps + 0.5) * STEP))):
                steps += 1
            found.append(steps * STEP)
        return found[0], found[1]

    def slots(self, design: Any, one: Fastened) -> int:
        """Every corner of a biscuit's slot lies in one of the two boards, with its cover behind it."""
        if not one.slot.biscuit:
            return 0
        joint = one.kind.joints[0]
        line = Line(design, joint, joint.a.board)
        square = unit(cross(line.along, line.across))
        solids = [design.solids[m.board] for m in (joint.a, joint.b)]
        deep, wide = one.slot.deep_mm or 0.0, one.slot.wide_mm or 0.0
        middle = add(line.middle, scale(line.across, one.slot.aside_mm))
        for a in (-deep - SHOP.rules.cover_mm + INSIDE, deep + SHOP.rules.cover_mm - INSIDE):
            for b in (-wide / 2 + INSIDE, wide / 2 - INSIDE):
                place = add(middle, add(scale(square, a), scale(line.across, b)))
                self.assertTrue(any(is_in(solid, place) for solid in solids), (joint.id, a, b))
        return 1


class Choices(unittest.TestCase):
    def test_a_screw_square_through_19_into_45(self) -> None:
        one = held(solved(STAND), "A", "rail 1")
        assert one.lengths and one.straight
        self.assertEqual((one.how, one.straight.name, one.lengths.longest_mm), ("screw", "3.5", 61.0))
        self.assertEqual((one.lengths.fitting_mm, one.lengths.shortest_mm), ((45.0, 50.0), 19.0 + 7 * 3.5))
        self.assertEqual(one.holes, (SCREWS["3.5"].pilot_soft_mm, SCREWS["3.5"].pilot_hard_mm))
        fifty = held(solved(STAND), "A", "rail 1", length_mm=50.0)
        self.assertEqual((fifty.bite_mm, fifty.left_mm), (31.0, 14.0))
        # Some two and a half times 19 are 47.5: of 50 and 60, which do, the nearer.
        four = held(solved(STAND), "A", "rail 1", size="4")
        self.assertEqual(four.length_mm, 50.0)

    def test_a_length_of_ones_own_is_judged_not_changed(self) -> None:
        for length, code, limit in ((66.0, "comes_out", 61.0), (62.0, "little_cover", 61.0), (40.0, "little_bite", 43.5)):
            one = held(solved(STAND), "A", "rail 1", length_mm=length)
            first = doubts_of(one)[0]
            self.assertEqual((one.length_mm, first.code, round(first.limit, 6)), (length, code, limit))
        self.assertAlmostEqual(doubts_of(held(solved(STAND), "A", "rail 1", length_mm=66.0))[0].value, 2.0, places=9)

    def test_a_miter_takes_screws_only_skewed_and_that_is_offered_and_holds(self) -> None:
        made = solved(regular(6, 40.0, "opening_flats", mm=300.0))
        joint = next(j for j in made.design.assembly.joints)
        square = held(made, joint.a.board, joint.b.board, how="screw")
        self.assertEqual(square.count, 0)
        offer = next(d for d in doubts_of(square) if d.code.startswith("skew_"))
        skewed = held(
            made, joint.a.board, joint.b.board, how="screw", lean_deg=offer.limit, lean_along=offer.code == "skew_along"
        )
        self.assertGreater(skewed.count, 0)
        self.assertEqual([d.code for d in doubts_of(skewed) if d.code not in ("end_grain",)], [])
        # Whatever lean is typed, the fields to change it stay.
        self.assertIsNotNone(held(made, joint.a.board, joint.b.board, how="screw", lean_deg=-30.0, lean_along=True).straight)

    def test_skewed_it_really_goes_farther(self) -> None:
        one = held(solved(STAND), "A", "rail 1", lean_deg=30.0)
        assert one.stack
        self.assertAlmostEqual(one.stack.through_mm, 19.0 / cos(radians(30.0)), places=9)
        along = held(solved(STAND), "A", "rail 1", lean_deg=30.0, lean_along=True)
        assert along.stack
        self.assertAlmostEqual(along.stack.through_mm, 21.9393, places=4)
        self.assertGreater(abs(along.stack.way[2]) + abs(one.stack.way[2]), 0.4)
        self.assertNotAlmostEqual(along.stack.way[2], one.stack.way[2], places=3)

    def test_out_of_the_other_board(self) -> None:
        one = held(solved(STAND), "A", "rail 1", other_side=True)
        assert one.stack
        self.assertEqual((one.stack.near, one.stack.through_mm, one.stack.into_mm), ("A", 45.0, 19.0))
        # 45 and the bite of 7 shanks are more than is left of 64 less the cover: the wood is too thin from there.
        self.assertNotEqual(one.how, "screw")

    def test_a_bolt_goes_through_both_with_washers_and_nut(self) -> None:
        one = held(solved(STAND), "A", "rail 1", how="bolt", size="M8")
        bolt = BOLTS["M8"]
        assert one.lengths
        self.assertAlmostEqual(one.lengths.shortest_mm, 64.0 + 2 * 1.6 + 10.0, places=9)
        self.assertEqual((bolt.nut_mm, one.length_mm), (10.0, 80.0))
        self.assertIsNone(one.left_mm)

    def test_a_dowel_lies_half_in_each(self) -> None:
        one = held(solved(STAND), "A", "rail 1", how="dowel", size="8")
        assert one.lengths and one.length_mm
        # In the rail's 19 there is room for 15: 3 of cover and 1 for glue off; twice that.
        self.assertEqual((one.lengths.longest_mm, one.length_mm), (30.0, 30.0))
        (stack, *_) = one.rows[0]
        self.assertAlmostEqual(one.begins_mm(stack), 19.0 - 15.0, places=9)

    def test_a_spline_and_a_biscuit_in_a_frames_miter(self) -> None:
        made = solved(rectangle("outside", 600.0, 400.0, 60.0))
        one = held(made, "A", "B", how="spline")
        # A quarter of 20, in the middle; a third of the miter's 60 times the root of two.
        self.assertAlmostEqual(one.slot.wide_mm or 0, 5.0, places=9)
        self.assertAlmostEqual(one.slot.deep_mm or 0, 60.0 * sqrt(2.0) / 3, places=6)
        thin = solved(rectangle("outside", 600.0, 400.0, 30.0))
        biscuit = held(thin, "A", "B", how="biscuit")
        # A miter 42.4 long takes none of 47.
        self.assertIsNone(biscuit.slot.biscuit)
        self.assertEqual([d.code for d in doubts_of(biscuit)], ["no_biscuit"])
        forced = held(thin, "A", "B", how="biscuit", size="long")
        self.assertEqual(forced.slot.deep_mm, 23.0 / 2 + 1.0)

    def test_brackets_blocks_and_strips_are_screwed_on(self) -> None:
        made = solved(rectangle("outside", 600.0, 400.0, 60.0))
        one = held(made, "A", "B", how="backing", thick_mm=12.0)
        assert one.lengths and one.through
        self.assertEqual((one.through.through_mm, one.through.into_mm, one.lengths.longest_mm), (12.0, 20.0, 29.0))
        self.assertEqual((one.screws_behind, one.count), (16, 4))
        bracket = held(made, "A", "B", how="bracket")
        self.assertEqual((bracket.thick_mm, bracket.glued), (2.0, False))

    def test_what_is_put_behind_is_drawn_where_it_goes(self) -> None:
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0))
        strip = held(frame, "A", "B", how="backing", thick_mm=12.0)
        (block,) = (shape for shape in joint_view(strip).shapes if shape.role == "jig")
        wide, high = (max(p[k] for p in block.points) - min(p[k] for p in block.points) for k in (0, 1))
        # Twice its thickness along both rails, seen across the miter: at 45 degrees to each.
        self.assertEqual(sorted((round(wide, 6), round(high, 6))), [12.0, 48.0])
        case = solved(box(level(400.0, 300.0), 120.0, thickness_mm=20.0))
        corner = joint_view(held(case, "A", "B", how="block", thick_mm=25.0))
        (block,) = (shape for shape in corner.shapes if shape.role == "jig")
        area = abs(sum(a[0] * b[1] - a[1] * b[0] for a, b in pairwise([*block.points, block.points[0]]))) / 2
        # A triangle with legs of 50 in the right inner corner, at 180 and -130 of a box 400 by 300, 20 thick.
        self.assertAlmostEqual(area, 50.0 * 50.0 / 2, places=6)
        self.assertTrue(all(abs(x) <= 180.0 + 1e-6 and abs(y) <= 130.0 + 1e-6 for x, y in block.points))

    def test_a_wider_one_is_another_kind(self) -> None:
        rails = {"1": STAND["rails"]["1"], "2": STAND["rails"]["1"] | {"width_mm": 60.0, "height_mm": 550.0}}
        kinds = kinds_of_joint(solved(STAND | {"rails": rails}).design)
        self.assertEqual(sorted(round(kind.area_mm2, 6) for kind in kinds), [45.0 * 60.0, 45.0 * 90.0])
        self.assertEqual([len(kind.joints) for kind in kinds], [2, 2])

    def test_every_joint_is_in_one_kind_and_alike_ones_are_together(self) -> None:
        made = solved(box(level(400.0, 300.0), 120.0, thickness_mm=18.0))
        (kind,) = kinds_of_joint(made.design)
        self.assertEqual({j.id for j in kind.joints}, {j.id for j in made.assembly.joints})
        height = 120.0
        self.assertAlmostEqual(kind.area_mm2, height * 18.0 * sqrt(2.0), places=6)


class Strips(unittest.TestCase):
    def test_of_strips_laid_on_each_other_the_upper_one_lies_over_heads_in_the_lower_one(self) -> None:
        lower = {"keeps_to": "opening", "width_mm": 50.0, "thickness_mm": 15.0}

        def first(upper_mm: float) -> Fastened:
            document = rails(l1=lower, l2={"keeps_to": "opening", "width_mm": upper_mm})
            document["board"]["thickness_mm"] = 40.0
            made = solved(document)
            found = {one.kind.key: one for one in fastened(made.design, SHOP, {"A1/A": Fastening(how="screw")})}
            self.assertEqual((found["A2/A1"].how, found["A2/A1"].covers), ("glue", {}))
            return found["A1/A"]

        covered, free = first(40.0), first(12.0)
        self.assertTrue(covered.rows[0] and {len(row) for row in covered.rows} == {len(covered.rows[0])})
        self.assertEqual(covered.covers, {f"{letter}2": (len(covered.rows[0]),) * 2 for letter in "ABCD"})
        self.assertEqual(free.covers, {})  # the row runs along the middle of the strip, 25 in


class OfTheDemo(unittest.TestCase):
    """Where the boathouse's own things come to what seldom comes."""

    def kinds(self, name: str, **choices: Fastening) -> dict[str, Fastened]:
        spec = next(p["spec"] for p in PROJECTS if p["name"] == name)
        found = fastened(solved_spec(spec, Workshop()).design, SHOP, {key.replace("__", " "): c for key, c in choices.items()})
        return {one.kind.key: one for one in found}

    def test_a_head_that_the_opposite_rafter_covers_is_to_be_sunk(self) -> None:
        one = self.kinds("Winch shelter roof")["m1/common B1 ridge"]
        self.assertEqual((one.how, one.cover), ("screw", "m1/common D1"))
        assert one.straight
        (doubt,) = doubts_of(one)
        self.assertEqual(
            (doubt.code, doubt.value, doubt.limit, doubt.name), ("head_covered", 0.0, one.straight.head_high_mm, "m1/common D1")
        )
        sunk = Fastened(one.design, one.kind, SHOP, Fastening(how="screw", sunk_mm=4.0))
        self.assertEqual([d.code for d in doubts_of(sunk)], [])
        assert sunk.through and sunk.lengths
        self.assertAlmostEqual(longest_mm(sunk.through, SHOP.rules) - sunk.lengths.longest_mm, 4.0, places=6)

    def test_a_knee_at_45_is_entered_as_steeply(self) -> None:
        one = self.kinds("Landing stage arch")["m1/knee 1 A1 left"]
        (doubt,) = doubts_of(one)
        self.assertEqual((doubt.code, round(doubt.value, 6)), ("steep", 45.0))

    def test_marks_run_from_the_nearer_end(self) -> None:
        one = self.kinds("Oar rack lean-to")["m1/right lid"]
        marks = marks_of(one)
        assert marks
        # The lid is 1180 long and reaches 40 over a side of 20: its middle is 50 from that end.
        self.assertEqual({round(mm, 6) for mm in marks.along_mm}, {50.0})


class Rows(unittest.TestCase):
    def made(self, **choice: Any) -> Fastened:
        return held(
            solved(box(level(500.0, 300.0), 120.0, thickness_mm=25.0, cover={"thickness_mm": 18.0})), "A", "cover", **choice
        )

    def test_running_marks_from_the_nearer_end(self) -> None:
        one = self.made(how="screw", size="3.5")
        marks = marks_of(one)
        assert marks
        # As in the test of a row: 5 shanks square to the miter, along the wall's middle; the cover is flush with the walls' outside.
        self.assertAlmostEqual(marks.along_mm[0], 12.5 + 5 * 3.5 * sqrt(2.0), places=4)
        self.assertAlmostEqual(marks.along_mm[-1], 500.0 - marks.along_mm[0], places=4)
        self.assertTrue(all(abs(up - 12.5) < 1e-6 or abs(up - 287.5) < 1e-6 for up in marks.up_mm))

    def test_so_many_and_staggered(self) -> None:
        one = self.made(how="screw", size="3.5", count=5)
        self.assertEqual(len(one.rows[0]), 5)
        thick = solved(box(level(500.0, 300.0), 120.0, thickness_mm=60.0, cover={"thickness_mm": 18.0}))
        heads = [stack.head for stack in held(thick, "A", "cover", count=3, staggered=True).rows[0]]
        # The wall is 60 thick: a quarter of that to either side of its middle, turn and turn about.
        self.assertEqual([round(head[1] + 150.0, 6) in (15.0, 45.0) for head in heads], [True] * 3)
        self.assertAlmostEqual(abs(heads[0][1] - heads[1][1]), 30.0, places=6)
        self.assertAlmostEqual(heads[0][1], heads[2][1], places=6)

    def test_the_template_has_a_cross_where_each_goes_in(self) -> None:
        one = self.made(how="screw", size="3.5")
        template, view, marks = pattern_template(one), pattern_view(one), marks_of(one)
        assert template and view and marks
        crosses = [line.points for line in template.lines if line.ink == "cut"]
        self.assertEqual(len(crosses), 2 * len(one.rows[0]))
        middles = sorted({round((a[0] + b[0]) / 2, 4) for a, b in crosses})
        apart = [b - a for a, b in pairwise(middles)]
        self.assertAlmostEqual(apart[0], marks.along_mm[1] - marks.along_mm[0], places=3)
        self.assertEqual({d.value for d in view.dimensions}, {marks.along_mm[0], marks.along_mm[-1]})

    def test_the_joint_is_cut_open_where_the_first_one_goes(self) -> None:
        one = self.made(how="screw", size="3.5")
        view = joint_view(one)
        sizes = {d.label: d.value for d in view.dimensions}
        self.assertEqual(sizes["fasten_through"], 18.0)
        self.assertEqual(sizes["fasten_length"], one.length_mm)
        metal = next(shape for shape in view.shapes if shape.role == "metal")
        high = [y for _, y in metal.points]
        self.assertAlmostEqual(max(high) - min(high), one.length_mm or 0.0, places=6)

    def test_what_to_buy_and_what_would_meet(self) -> None:
        one = self.made(how="screw", size="3.5")
        count = sum(len(row) for row in one.rows)
        assert one.length_mm
        self.assertEqual(pieces_needed([one], 0.1), {("screw", "3.5", one.length_mm): -(-count * 11 // 10)})
        self.assertEqual(len(all_driven([one])), count)


class Refused(unittest.TestCase):
    def screw(self, **more: float) -> Screw:
        return SCREWS["4"].model_validate(SCREWS["4"].model_dump() | more)

    def test_drills_that_cannot_be(self) -> None:
        for field, value, code in (
            ("pilot_soft_mm", 4.0, "pilot_wide"),
            ("pilot_hard_mm", 5.0, "pilot_wide"),
            ("clearance_mm", 3.9, "clearance_narrow"),
        ):
            with self.subTest(field), self.assertRaises(SpecError) as caught:
                self.screw(**{field: value})
            self.assertEqual((caught.exception.code, caught.exception.fields), (code, (field,)))

    def test_a_head_wider_than_the_board(self) -> None:
        wide = self.screw(head_mm=60.0)
        one = held(solved(STAND), "A", "rail 1", fasteners=Fasteners(screws={"4": wide}))
        (doubt,) = doubts_of(one)
        # The first of the row is two and a half shanks from the rail's edge.
        self.assertEqual((doubt.code, doubt.value, round(doubt.limit, 3)), ("head_wide", 60.0, 20.0))

    def test_a_size_that_the_shop_has_not(self) -> None:
        with self.assertRaises(SpecError) as caught:
            check_choice(SHOP, "m1/AB", Fastening(how="bolt", size="M40"))
        self.assertEqual((caught.exception.code, caught.exception.fields), ("no_such_size", ("joints/m1/AB/size",)))

    def test_rules_of_ones_own_count(self) -> None:
        one = held(solved(STAND), "A", "rail 1", fasteners=Fasteners(rules=Rules(cover_mm=13.0)))
        assert one.lengths
        self.assertEqual(one.lengths.longest_mm, 51.0)

    def test_a_hole_in_plastic_lets_it_move_to_either_side(self) -> None:
        # A metre from where it is held, 0.07 mm a degree: over 50 degrees 3.5 mm, to either side.
        self.assertAlmostEqual(plastic_hole_mm(4.0, 1000.0, 7.0e-5, 50.0), 4.0 + 7.0, places=9)
