"""What is ploughed along boards: areas against closed forms, lengths along lines against the miter's own triangle, turns against the section as
it looks, both proofs against each other."""

import random
import unittest
from dataclasses import replace
from math import pi, tan
from typing import Any

from pydantic import TypeAdapter

from fennup.core.boards.pieces import pieces_of
from fennup.core.boards.planned import plan_boards
from fennup.core.design import Design
from fennup.core.drawing.edit import TypeIn
from fennup.core.errors import SpecError
from fennup.core.exchange.cuts_document import cuts_document
from fennup.core.kinds.ploughing import usual
from fennup.core.parts.alike import AS_IT_LIES, END_FOR_END, OVER, OVER_END_FOR_END, own_turns
from fennup.core.parts.solid import solid_of
from fennup.core.saw.pose import poses_for
from fennup.core.solve import Solution
from fennup.core.steps.picture import Said, end_views
from fennup.core.steps.planned import steps_for
from fennup.core.stock.ploughed import CURVE_MM, FORMS, Ploughed
from fennup.core.stock.section import Section
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof, in_one
from tests.core.cut_boards import a_board, bar, on_rack, order
from tests.core.frames import after, regular, shown, solved, spec_of

MM = tape("mm", "1")
READ: TypeAdapter[Ploughed] = TypeAdapter(Ploughed)
CORNERS = ("face_upper", "face_lower", "back_upper", "back_lower")
RABBET = {"form": "rabbet", "width_mm": 9.0, "depth_mm": 8.0, "corner": "back_upper"}
ROUND = {"form": "round", "radius_mm": 6.0, "corner": "face_upper"}


def section(*cuts: dict[str, Any], wide: float = 60.0, thick: float = 20.0) -> Section:
    """A section with these ploughed."""
    return Section(wide, thick, tuple(READ.validate_python(cut) for cut in cuts))


def photograph(**more: Any) -> dict[str, Any]:
    """A frame for 410 by 300 with 1.5 play at each side, of a moulding 47 wide with a rabbet of 9."""
    size = {"by": "holds", "object_width_mm": 410.0, "object_depth_mm": 300.0, "play_mm": 3.0}
    board = {"width_mm": 47.0, "thickness_mm": 20.0, "ploughed": more.pop("ploughed", [])}
    shape = {"form": "rectangle", "size": size}
    return {"kind": "flat_frame", "shape": shape, "board": board, "rabbet": {"width_mm": 9.0, "depth_mm": 8.0}, **more}


class Sections(unittest.TestCase):
    def test_what_is_left_is_the_rectangle_less_each_figure(self) -> None:
        whole, r = 60.0 * 20.0, 6.0
        flat: list[tuple[dict[str, Any], float]] = [
            (RABBET, 9.0 * 8.0),
            ({"form": "groove", "side": "face", "from_mm": 10.0, "width_mm": 6.0, "depth_mm": 5.0}, 30.0),
            ({"form": "groove", "side": "upper", "far": True, "from_mm": 7.0, "width_mm": 6.0, "depth_mm": 9.0}, 54.0),
            ({"form": "groove", "side": "back", "from_mm": 0.0, "width_mm": 6.0, "depth_mm": 5.0}, 30.0),
            ({"form": "chamfer", "corner": "back_lower", "width_mm": 8.0, "depth_mm": 5.0}, 20.0),
            ({"form": "tongue", "edge": "lower", "from_mm": 5.0, "thickness_mm": 6.0, "long_mm": 10.0}, 10.0 * (5.0 + 9.0)),
            ({"form": "groove", "side": "upper", "from_mm": 0.0, "width_mm": 6.0, "depth_mm": 9.0}, 54.0),
        ]
        for cut, taken in flat:
            one = section(cut)
            self.assertAlmostEqual(one.area_mm2, whole - taken, places=9, msg=str(cut))
            self.assertTrue(one.hangs_together, cut)
        # At the very edge it is a step: 6 of the upper edge, 9 of the back.
        at_edge = section({"form": "groove", "side": "upper", "from_mm": 0.0, "width_mm": 6.0, "depth_mm": 9.0})
        self.assertEqual((at_edge.width_left_mm("upper"), at_edge.width_left_mm("back")), (20.0 - 6.0, 60.0 - 9.0))
        # A curve is a polygon within CURVE_MM of it: the wood differs by less than that along its arc, and not by nothing.
        for form, taken, more_wood in (("round", r * r * (1 - pi / 4), False), ("cove", r * r * pi / 4, True)):
            for corner in CORNERS:
                over = section({"form": form, "corner": corner, "radius_mm": r}).area_mm2 - (whole - taken)
                self.assertTrue(0 < (over if more_wood else -over) < CURVE_MM * r * pi / 2, (form, corner, over))

    def test_any_that_stand_clear_of_each_other_leave_one_piece_in_both_proofs(self) -> None:
        """Drawn at random; the wood is measured as pieces, round its outline, and by the second proof's own figures."""
        rng, kept, refused = random.Random(20), 0, 0
        for _ in range(150):
            cuts = [draw(rng) for _ in range(rng.randint(1, 4))]
            one = section(*cuts)
            board = replace(a_board("A", 300.0, (20.0, 10.0), (-35.0, 5.0)), section=one)
            if not one.hangs_together:
                refused += 1
                continue
            kept += 1
            self.assertAlmostEqual(in_one(board).volume() / solid_of(board).volume(), 1.0, places=9, msg=str(cuts))
            ring = one.outline
            around = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, (*ring[1:], ring[0]), strict=True)) / 2
            square = in_one(replace(board, left=SQUARE.left, right=SQUARE.right))
            self.assertAlmostEqual(square.volume() / (around * 300.0), 1.0, places=9, msg=str(cuts))
        self.assertTrue(kept > 40 and refused > 40, (kept, refused))

    def test_what_cuts_through_or_meets_another_or_hangs_by_a_line_is_no_section(self) -> None:
        back = {"form": "groove", "side": "back", "from_mm": 20.0, "width_mm": 10.0, "depth_mm": 10.0}
        wrong = [
            [{**back, "depth_mm": 20.0}],
            [back, {**back, "side": "face"}],  # floor on floor
            [back, {**back, "side": "face", "from_mm": 30.0}],  # they touch along one line
            [RABBET, {**RABBET, "form": "rabbet", "width_mm": 5.0}],
            [ROUND, {"form": "groove", "side": "face", "far": True, "from_mm": 5.0, "width_mm": 4.0, "depth_mm": 3.0}],
        ]  # fmt: skip
        for cuts in wrong:
            self.assertFalse(section(*cuts).hangs_together, cuts)
        self.assertTrue(section(back, {**back, "side": "face", "from_mm": 32.0}).hangs_together)

    def test_a_board_may_be_turned_as_its_section_looks(self) -> None:
        far = {"form": "rabbet", "width_mm": 9.0, "depth_mm": 8.0}
        tongue = {"form": "tongue", "from_mm": 7.0, "thickness_mm": 6.0, "long_mm": 9.0}
        as_seen = [
            ([], {AS_IT_LIES, END_FOR_END, OVER, OVER_END_FOR_END}),
            ([RABBET], {AS_IT_LIES}),
            ([RABBET, {**far, "corner": "back_lower"}], {AS_IT_LIES, END_FOR_END}),
            ([RABBET, {**far, "corner": "face_lower"}], {AS_IT_LIES, OVER}),
            ([RABBET, {**far, "corner": "face_upper"}], {AS_IT_LIES, OVER_END_FOR_END}),
            ([{**tongue, "edge": "upper"}, {**tongue, "edge": "lower"}], {AS_IT_LIES, END_FOR_END, OVER, OVER_END_FOR_END}),
            ([ROUND, {**ROUND, "corner": "face_lower"}], {AS_IT_LIES, END_FOR_END}),
            ([ROUND, {**ROUND, "corner": "face_lower", "radius_mm": 6.5}], {AS_IT_LIES}),
        ]
        for cuts, turns in as_seen:
            board = replace(a_board("A", 300.0, shows=False), section=section(*cuts))
            self.assertEqual(set(own_turns(board, solid_of(board))), turns, cuts)
        mitered = replace(a_board("A", 300.0, (45.0, 0.0), (45.0, 0.0), shows=False), section=section(RABBET))
        self.assertEqual(own_turns(mitered, solid_of(mitered)), (AS_IT_LIES,))

    def test_a_board_lies_on_no_side_that_is_ploughed_away(self) -> None:
        board = replace(a_board("A", 300.0), section=section({"form": "tongue", "edge": "lower", "from_mm": 7.0, "thickness_mm": 6.0, "long_mm": 9.0}))  # fmt: skip
        self.assertEqual({pose.down for pose in poses_for(board)}, {"face", "back", "upper"})


class Frames(unittest.TestCase):
    def test_the_photograph_frame_of_the_issue(self) -> None:
        ploughed = [
            {"form": "cove", "corner": "face_upper", "radius_mm": 7.0}, {"form": "round", "corner": "face_lower", "radius_mm": 5.0},
            {"form": "groove", "side": "face", "far": True, "from_mm": 26.0, "width_mm": 4.0, "depth_mm": 3.0},
        ]  # fmt: skip
        made = solved(photograph(ploughed=ploughed))
        a, b = made.facts[0], made.facts[1]
        # 410 + 3 + 2 (47 - 9), and 300 likewise.
        self.assertAlmostEqual(a.arrises["face_lower"], 489.0, places=9)
        self.assertAlmostEqual(b.arrises["face_lower"], 379.0, places=9)
        lines = {fact.cut.form: {round(line.length_mm, 9) for line in fact.lines} for fact in a.ploughed}
        opening = 489.0 - 2 * 47.0
        # Every line so far from the opening edge is longer by twice that, at 45 degrees.
        self.assertEqual(lines["rabbet"], {opening + 18.0, opening})
        self.assertEqual(lines["groove"], {opening + 2 * 26.0, opening + 2 * 30.0})
        self.assertEqual(lines["cove"], {opening + 14.0, opening})
        self.assertEqual(lines["round"], {489.0, 489.0 - 10.0})
        self.assertEqual([fact.key for fact in a.ploughed], ["A rabbet", "A cove", "A round", "A groove"])

    def test_play_is_said_in_all_or_at_each_side_and_may_be_more_across_the_grain(self) -> None:
        spec = spec_of(photograph())
        each = spec_of(after(spec, TypeIn(op="type", path="shape.size.play_each_mm", text="2"), MM))
        self.assertEqual(each.shape.size.play_mm, 4.0)
        swelling = photograph()
        swelling["shape"]["size"]["play_depth_mm"] = 7.0
        made = solved(swelling)
        self.assertEqual([round(facts.arrises["face_lower"], 9) for facts in made.facts], [489.0, 300.0 + 7.0 + 2 * 38.0])
        rows = {row.measure: row.value for row in shown(made).sizes}
        # The lip of 9 covers it by 9 - 1.5 and 9 - 3.5 where it lies in the middle, and by twice the play less where it is pushed away.
        lips = ("lip_covers", "lip_covers_least", "lip_covers_depth", "lip_covers_depth_least")
        self.assertEqual([rows[name] for name in lips], [7.5, 6.0, 5.5, 2.0])
        swelling["shape"]["size"]["play_depth_mm"] = 18.0
        self.assertIn("falls_through", [finding.code for finding in solved(swelling).findings])

    def test_any_section_closes_in_both_proofs_and_is_sawn_right(self) -> None:
        rng, kept = random.Random(7), 0
        while kept < 12:
            cuts = [draw(rng) for _ in range(rng.randint(1, 3))]
            sides, joint = rng.choice((3, 4, 5, 8)), rng.choice(("miter", "butt"))
            document = regular(sides, 60.0, "outside_flats", mm=700.0, joint=joint)
            document["board"]["ploughed"] = cuts
            if not section(*cuts).hangs_together:
                continue
            kept += 1
            made = solved(document)
            proof = boolean_proof(made.design.assembly, made.solids)
            self.assertTrue(proof.confirms(made.closing, made.joints), (cuts, made.closing))
            self.assertEqual((proof.unlike, proof.shared), ((), ()), cuts)
            if joint == "miter":
                self.assertTrue(all(check.closes and check.bare_mm == 0 for check in made.joints), cuts)
            off = cuts_document(Solution(spec_of(document), made.design, made.plan)).off_mm
            self.assertLess(max(mm for mm in off.values() if mm is not None), 1e-6)
            self.assertNotIn(None, off.values())

    def test_a_symmetrical_moulding_saves_the_waste_between_two_miters_in_a_board(self) -> None:
        def lies(*cuts: dict[str, Any]) -> int:
            document = regular(6, 60.0, "outside_flats", mm=700.0)
            document["board"]["ploughed"] = list(cuts)
            made: Design = solved(document).design
            return len(pieces_of(made.facts)[0].lies)

        self.assertEqual((lies(), lies(ROUND), lies(ROUND, {**ROUND, "corner": "face_lower"})), (2, 1, 2))

    def test_the_length_of_a_line_goes_by_the_corners_angle(self) -> None:
        made = solved(regular(5, 60.0, "outside_flats", mm=700.0) | {"board": {"width_mm": 60.0, "thickness_mm": 20.0, "ploughed": [
            {"form": "groove", "side": "back", "from_mm": 12.0, "width_mm": 5.0, "depth_mm": 6.0}]}})  # fmt: skip
        facts = made.facts[0]
        (groove,) = facts.ploughed
        for line, inward in zip(sorted(groove.lines, key=lambda line: line.y_mm), (12.0, 17.0), strict=True):
            self.assertAlmostEqual(line.length_mm, facts.arrises["face_lower"] - 2 * inward * tan(pi / 5), places=9)

    def test_what_is_refused_is_said_at_its_field(self) -> None:
        groove = {"form": "groove", "side": "face", "from_mm": 10.0, "width_mm": 6.0, "depth_mm": 5.0}
        for cut, code, field in (
            ({**groove, "depth_mm": 20.0}, "ploughed_too_large", "board.ploughed.0.depth_mm"),
            ({**groove, "from_mm": 44.0}, "ploughed_too_large", "board.ploughed.0.width_mm"),
            ({**groove, "depth_mm": 12.5, "from_mm": 0.0, "far": True}, "ploughed_meets", "board.ploughed.0"),
            ({**groove, "side": "upper", "from_mm": 15.0}, "ploughed_too_large", "board.ploughed.0.width_mm"),
            ({**ROUND, "radius_mm": 20.0}, "ploughed_too_large", "board.ploughed.0.radius_mm"),
            (RABBET, "ploughed_meets", "board.ploughed.0"),
            ({"form": "tongue", "edge": "lower", "from_mm": 16.0, "thickness_mm": 5.0, "long_mm": 8.0}, "ploughed_too_large", "board.ploughed.0.thickness_mm"),
        ):  # fmt: skip
            with self.assertRaises(SpecError) as refused:
                spec_of(photograph(ploughed=[cut]))
            self.assertEqual((refused.exception.code, refused.exception.fields), (code, (field,)), cut)
        with self.assertRaises(SpecError) as refused:
            spec_of(photograph(ploughed=[groove], rails={"B": {"width_mm": 15.0}}))
        self.assertEqual(refused.exception.fields, ("board.ploughed.0.width_mm",))

    def test_whatever_is_offered_can_be_done(self) -> None:
        seen = 0
        rows: list[list[dict[str, Any]]] = [[], [ROUND], [ROUND, {**ROUND, "corner": "face_lower"}]]
        for ploughed in rows:
            for control in shown(solved(photograph(ploughed=ploughed))).controls:
                for option in control.options if control.group == "section" else ():
                    (act,) = option.acts
                    if act.path == "board.bought":
                        continue
                    if act.path == "board.ploughed":
                        spec_of(photograph(ploughed=act.value))
                    elif control.code == "groove_counted":
                        continue
                    else:
                        k = int(act.path.rpartition(".")[2])
                        spec_of(photograph(ploughed=[*ploughed[:k], act.value, *ploughed[k + 1 :]]))
                    seen += 1
        self.assertGreater(seen, 15)

    def test_a_groove_counted_from_the_other_edge_stays_where_it_is(self) -> None:
        for side, long in (("face", 47.0), ("upper", 20.0)):
            groove = {"form": "groove", "side": side, "from_mm": 5.0, "width_mm": 6.0, "depth_mm": 4.0}
            made = photograph(
                ploughed=[groove],
                rabbet=None,
                shape={"form": "rectangle", "size": {"by": "opening", "width_mm": 400.0, "depth_mm": 300.0}},
            )
            (control,) = (c for c in shown(solved(made)).controls if c.code == "groove_counted")
            first, other = (READ.validate_python(option.acts[0].value) for option in control.options)
            self.assertEqual((first.from_mm, other.from_mm), (5.0, long - 5.0 - 6.0))
            self.assertTrue(Section(47.0, 20.0, (first,)).same_as(Section(47.0, 20.0, (other,))))

    def test_thin_walls_are_told_and_no_mark_is_made_where_a_corner_is_gone(self) -> None:
        thin = {"form": "groove", "side": "face", "from_mm": 2.0, "width_mm": 6.0, "depth_mm": 17.5}
        left = sorted(f.value for f in solved(photograph(ploughed=[thin])).findings if f.code == "thin_left")
        self.assertEqual(left, [2.0, 2.5])
        made = solved(photograph(ploughed=[{**ROUND, "corner": "face_lower"}]))
        marked = {step.marking.arris for step in steps_for(made.design, made.plan).steps if step.marking and step.marking.arris}
        self.assertTrue(marked and "face_lower" not in marked, marked)

    def test_the_operator_sees_the_boards_end_as_it_lies(self) -> None:
        made = solved(photograph(ploughed=[ROUND]))
        plan = steps_for(made.design, made.plan)
        step = next(s for s in plan.steps if s.work == "second_end")
        *_, end = end_views(plan.raws[step.part], step, "beyond", {"left": [], "right": []}, Said("keep"))
        wood = next(shape for shape in end.shapes if shape.role == "wood")
        ring = wood.points
        around = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, (*ring[1:], ring[0]), strict=True)) / 2
        self.assertAlmostEqual(abs(around), made.facts[0].board.section.area_mm2, places=6)
        # From the front its round shows as a line 6 from the opening on every rail, the rabbet behind it dashed.
        front = shown(made).views[0]
        lines = {
            shape.role: sorted({round(abs(p[1]), 6) for p in shape.points})
            for shape in front.shapes
            if shape.part == "A" and shape.role in ("arris", "rabbet")
        }
        half = (300.0 + 3.0 - 18.0) / 2
        self.assertEqual(lines["arris"], [half + 6.0])

    def test_bought_so_nothing_is_ploughed_and_it_comes_of_nothing_else(self) -> None:
        document = photograph(ploughed=[ROUND])
        document["board"]["bought"] = True
        made = solved(document)
        self.assertFalse({"rabbet", "round"} & {step.work for step in steps_for(made.design, made.plan).steps})
        both = plan_boards(order(made.design, on_rack(bar(4000.0, 80.0, 20.0), bar(4000.0, 47.0, 20.0)), 2.4))
        self.assertEqual({board.source.width_mm for board in both.layout.boards if board.pieces}, {47.0})
        # Too little of it: the rest is not ripped out of a wider board.
        short = plan_boards(order(made.design, on_rack(bar(4000.0, 80.0, 20.0), bar(1000.0, 47.0, 20.0)), 2.4))
        self.assertEqual({board.source.width_mm for board in short.layout.boards if board.pieces}, {47.0})
        self.assertEqual(len(short.layout.unplaced), 2)

    def test_on_narrow_and_thin_boards_what_is_offered_can_be_done_too(self) -> None:
        for wide, thick in ((3.0, 20.0), (20.0, 3.0), (1.0, 1.0), (0.01, 50.0)):
            plain = Section(wide, thick)
            for form in FORMS:
                cut = usual(form, plain)
                self.assertTrue(cut is None or Section(wide, thick, (cut,)).hangs_together, (wide, thick, form))


SQUARE = a_board("A", 300.0)


def draw(rng: random.Random) -> dict[str, Any]:
    """Something to plough along a board 60 by 20."""
    corner, edge = rng.choice(CORNERS), rng.choice(("upper", "lower"))
    side = rng.choice(("face", "back", "upper", "lower"))
    long, deep = (60.0, 20.0) if side in ("face", "back") else (20.0, 60.0)
    wide = rng.uniform(0.05, 0.4) * long
    return rng.choice([
        {"form": "rabbet", "corner": corner, "width_mm": rng.uniform(2, 30), "depth_mm": rng.uniform(2, 15)},
        {"form": "chamfer", "corner": corner, "width_mm": rng.uniform(2, 15), "depth_mm": rng.uniform(2, 15)},
        {"form": "round", "corner": corner, "radius_mm": rng.uniform(1, 15)},
        {"form": "cove", "corner": corner, "radius_mm": rng.uniform(1, 15)},
        {"form": "groove", "side": side, "far": rng.random() < 0.5, "from_mm": rng.choice((0.0, rng.uniform(0, long - wide))), "width_mm": wide,
         "depth_mm": rng.uniform(0.1, 0.7) * deep},
        {"form": "tongue", "edge": edge, "from_mm": rng.choice((0.0, 6.0)), "thickness_mm": rng.uniform(2, 12), "long_mm": rng.uniform(2, 20)},
    ])  # fmt: skip
