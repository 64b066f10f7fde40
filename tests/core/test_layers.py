"""Strips on the rails of flat frames: lengths against the corner's own triangle, heights against what lies under them, both proofs."""

import random
import unittest
from math import pi, tan
from typing import Any

from fennup.core.boards.planned import plan_boards
from fennup.core.drawing.edit import Choose
from fennup.core.errors import SpecError
from fennup.core.exchange.cuts_document import cuts_document
from fennup.core.solve import Solution
from fennup.core.steps.planned import steps_for
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof
from tests.core.cut_boards import bar, on_rack, order
from tests.core.frames import Solved, after, lengths, miters, regular, shown, solved, spec_of

MM = tape("mm", "1")


def rails(sides: int = 4, **layers: dict[str, Any]) -> dict[str, Any]:
    """Rails 60 by 20, 600 across the outside, with these layers, `l1`, `l2`, of strips 18 by 12 where nothing else is said."""
    rows = {id[1:]: {"width_mm": 18.0, "thickness_mm": 12.0} | row for id, row in layers.items()}
    return regular(sides, 60.0, "outside_flats", mm=600.0, layers=rows)


def holding(**layers: dict[str, Any]) -> dict[str, Any]:
    """The same round 410 by 300 with a play of 3."""
    size = {"by": "holds", "object_width_mm": 410.0, "object_depth_mm": 300.0, "play_mm": 3.0}
    return rails(**layers) | {"shape": {"form": "rectangle", "size": size}}


class Layers(unittest.TestCase):
    def proven(self, document: dict[str, Any]) -> Solved:
        """Solved, closed in both proofs with nothing bare, and sawn right by the simulated saw."""
        made = solved(document)
        proof = boolean_proof(made.assembly, made.solids)
        self.assertTrue(proof.holds and not proof.bare, (document, proof))
        self.assertTrue(all(check.closes and not check.bare_mm for check in made.joints), document)
        off = cuts_document(Solution(spec_of(document), made.design, made.plan)).off_mm
        self.assertLess(max(9.0 if mm is None else mm for mm in off.values()), 1e-6)
        return made

    def test_flush_outside_and_mitered_the_outer_line_is_the_rails_and_the_inner_one_two_widths_shorter(self) -> None:
        made = self.proven(rails(l1={}))
        self.assertEqual([round(v, 9) for v in lengths(made, "A1")], [600.0, 600.0 - 2 * 18.0])
        for sides in (3, 5, 6, 8):
            made = self.proven(rails(sides, l1={"set_back_mm": 7.0}))
            outer, inner = lengths(made, "A1")
            self.assertAlmostEqual(outer, lengths(made, "A")[0] - 2 * 7.0 * tan(pi / sides), places=9)
            self.assertAlmostEqual(inner, outer - 2 * 18.0 * tan(pi / sides), places=9)
            self.assertAlmostEqual(miters(made, "A1")[0], 180.0 / sides, places=9)

    def test_a_strip_past_the_miter_ends_at_its_neighbours_edges(self) -> None:
        made = self.proven(rails(l1={"corners": "round", "keeps_to": "opening", "set_back_mm": 10.0}))
        # From the outside of one strip to the inside of the next: the opening is 480, each strip begins 10 out of it.
        self.assertEqual([round(v, 9) for v in lengths(made, "A1")], [480.0 + 2 * 10.0 + 18.0] * 2)
        # It runs over its neighbour's miter: it lies on both rails, and says where.
        seats = {seat.board: (seat.from_mm, seat.to_mm) for facts in made.facts for seat in facts.seats.get("B", ())}
        self.assertIn("A1", seats)
        long = solved(rails(l1={"corners": "long_BD"}))
        self.assertEqual([round(lengths(long, id)[0], 9) for id in ("A1", "B1")], [600.0 - 36.0, 600.0])

    def test_on_some_rails_only_a_strip_goes_on_to_the_outside(self) -> None:
        made = self.proven(rails(l1={"left_out": ["B", "D"]}))
        self.assertEqual({board.id for board in made.assembly.boards}, {*"ABCD", "A1", "C1"})
        self.assertEqual([round(v, 9) for v in lengths(made, "A1")], [600.0, 600.0])
        arch = rails(8, l1={}) | {"left_out": ["A"], "loose_ends": "ground"}
        made = self.proven(arch)
        # Its loose ends are the rail's own: the same angle, farther out the same line.
        self.assertAlmostEqual(miters(made, "B1")[0], miters(made, "B")[0], places=9)

    def test_layers_lie_on_each_other_where_they_overlap_and_beside_each_other_where_not(self) -> None:
        beside = self.proven(rails(l1={}, l2={"keeps_to": "opening"}))
        above = solved(rails(l1={"width_mm": 30.0}, l2={}))
        self.assertEqual([beside.assembly.board(id).frame.origin[2] for id in ("A1", "A2")], [16.0, 16.0])
        self.assertEqual([above.assembly.board(id).frame.origin[2] for id in ("A1", "A2")], [16.0, 28.0])
        self.assertEqual([f.code for f in (*beside.findings, *above.findings)], [])
        (bridge,) = [f for f in solved(rails(l1={}, l2={"width_mm": 40.0})).findings if f.code == "strips_bridge"]
        self.assertEqual((bridge.value, bridge.limit), (12.0, 40.0 - 18.0))

    def test_strips_make_a_recess_without_a_rabbet(self) -> None:
        # On the back, set back from the opening: they go round what it holds; its lip is what they are set back.
        back = self.proven(holding(l1={"side": "back", "keeps_to": "opening", "set_back_mm": 9.0, "width_mm": 40.0}))
        self.assertEqual([round(v, 9) for v in lengths(back, "A1")], [413.0 + 80.0, 413.0])
        self.assertEqual(round(lengths(back, "A")[1], 9), 413.0 - 18.0)
        # On the face, reaching over: the rails themselves go round it.
        face = self.proven(holding(l1={"keeps_to": "opening", "set_back_mm": -9.0, "width_mm": 40.0}))
        self.assertEqual([round(lengths(face, id)[1], 9) for id in ("A", "A1")], [413.0, 413.0 - 18.0])
        thin = solved(holding(l1={"side": "back", "keeps_to": "opening", "set_back_mm": 1.5}))
        self.assertIn("falls_through", [f.code for f in thin.findings])
        panel = solved(
            holding(l1={"side": "back", "keeps_to": "opening", "set_back_mm": 9.0})
            | {"panel": {"thickness_mm": 14.0, "play_mm": 2.0}}
        )
        (out,) = [f for f in panel.findings if f.code == "panel_stands_out"]
        self.assertEqual((out.value, out.limit), (14.0, 12.0))

    def test_how_far_it_stands_off_the_wall_is_what_the_back_strips_come_to(self) -> None:
        back = {"side": "back", "keeps_to": "opening", "width_mm": 30.0}
        wished = rails(l1=back, l2={**back, "thickness_mm": 8.0}) | {"stand_off_mm": 25.0}
        (short,) = [f for f in solved(wished).findings if f.code == "off_the_wall"]
        self.assertEqual((round(short.value, 9), short.limit), (20.0, 25.0))
        self.assertEqual([f.code for f in solved(wished | {"stand_off_mm": 20.0}).findings], [])

    def test_any_layers_close_in_both_proofs_or_are_refused_at_a_field(self) -> None:
        rng, kept, clear, refused = random.Random(4), 0, 0, set()
        for _ in range(60):
            sides = rng.choice((3, 4, 5, 8))
            rows = {f"l{k + 1}": draw(rng, sides) for k in range(rng.randint(1, 3))}
            document = rails(sides, **rows)
            try:
                made = solved(document)
            except SpecError as error:
                refused.add(error.code)
                self.assertTrue(all(field.startswith("layers.") for field in error.fields), (error.fields, rows))
                continue
            kept += 1
            proof = boolean_proof(made.assembly, made.solids)
            self.assertTrue(proof.confirms(made.closing, made.joints), rows)
            self.assertEqual((proof.unlike, proof.apart), ((), ()), rows)
            clear += not proof.shared
        # A strip that goes on to the outside may run into one that lies there: then both proofs say so.
        self.assertTrue(kept > clear > 20 and {"strips_uneven", "strip_on_nothing"} <= refused, (kept, clear, refused))

    def test_glued_on_they_are_one_board_with_their_rail_of_as_much_wood(self) -> None:
        rng, kept, refused = random.Random(6), 0, set()
        while kept < 15:
            sides = rng.choice((3, 4, 5, 8))
            rows = {f"l{k + 1}": draw(rng, sides) | {"left_out": [], "corners": "miter"} for k in range(rng.randint(1, 3))}
            document = rails(sides, **rows)
            try:
                one, apart = self.proven(document | {"glued_up": True}), solved(document)
            except SpecError as error:
                refused.add(error.code)
                continue
            kept += 1
            self.assertEqual([board.id for board in one.assembly.boards], list("ABCDEFGH"[:sides]))
            wood = [sum(solid.volume() for solid in made.solids.values()) for made in (one, apart)]
            self.assertAlmostEqual(wood[0] / wood[1], 1.0, places=8)
            for size in ("opening_flats", "outside_flats"):
                self.assertAlmostEqual(one.ruler.measure(size) or 0, apart.ruler.measure(size) or 0, places=6)
            # Each rail comes of its own pieces, as long as it and a little more; glued, then cut: nothing is ploughed out of the whole.
            layers = spec_of(document).layers.values()
            sections = [(60.0, 20.0), *((layer.width_mm, layer.thickness_mm) for layer in layers)]
            rack = on_rack(*(bar(20_000.0, wide, thick) for wide, thick in dict.fromkeys(sections)))
            plan = plan_boards(order(one.design, rack, 2.4))
            self.assertEqual((plan.faults, plan.complete), ((), True))
            cut = [placed.piece for board in plan.layout.boards for placed in board.pieces]
            self.assertEqual(sorted(piece.section for piece in cut), sorted(sections * sides))
            longest = max(solid.extent_x()[1] - solid.extent_x()[0] for solid in one.solids.values())
            self.assertTrue(all(abs(piece.axis_mm - longest - 20.0) < 1e-6 for piece in cut))
            works = [step.work for step in steps_for(one.design, one.plan).steps]
            self.assertTrue("glue_up" in works and not {"rabbet", "groove", "milled"} & set(works), works)
        self.assertLessEqual({"glued_within"}, refused)

    def test_what_cannot_be_glued_is_refused_and_what_it_holds_lies_as_before(self) -> None:
        back = {"side": "back", "keeps_to": "opening", "set_back_mm": 9.0, "width_mm": 30.0}
        apart, one = solved(holding(l1=back)), solved(holding(l1=back) | {"glued_up": True})
        self.assertEqual([made.ruler.measure("rabbet_width") for made in (apart, one)], [413.0, 413.0])
        rabbet = one.assembly.boards[0].section.rabbet
        assert rabbet
        self.assertEqual((rabbet.width_mm, rabbet.depth_mm), (9.0, 12.0))
        # Over a rabbet of its own the strip makes that deeper.
        deeper = rails(l1={**back, "set_back_mm": 0.0, "keeps_to": "outside", "width_mm": 51.0}) | {
            "rabbet": {"width_mm": 9.0, "depth_mm": 8.0},
            "glued_up": True,
        }
        recess = spec_of(deeper).recess
        self.assertEqual((recess.lip_mm, recess.depth_mm, round(recess.from_face_mm, 9)), (9.0, 20.0, 12.0))
        wrong = [
            ({"l1": {"left_out": ["A"]}}, "glued_everywhere", "layers.1.left_out"), ({"l1": {"set_back_mm": -3.0}}, "glued_within", "layers.1.set_back_mm"),
            ({"l1": {"ploughed": [{"form": "groove", "side": "back", "from_mm": 4.0, "width_mm": 5.0, "depth_mm": 4.0}]}}, "glued_hollow", "glued_up"),
        ]  # fmt: skip
        for layers, code, field in wrong:
            with self.assertRaises(SpecError) as raised:
                spec_of(rails(**layers) | {"glued_up": True})
            self.assertEqual((raised.exception.code, raised.exception.fields), (code, (field,)))

    def test_taking_away_what_made_the_recess_leaves_the_frame_as_large_as_it_was(self) -> None:
        spec = spec_of(holding(l1={"side": "back", "keeps_to": "opening", "set_back_mm": 9.0}))
        bare = spec_of(after(spec, Choose(op="choose", path="layers.away", value="1"), MM))
        self.assertEqual((bare.layers, bare.shape.size.by), ({}, "opening"))
        self.assertAlmostEqual(bare.shape.size.width_mm, 413.0 - 18.0, places=9)
        with_more = spec_of(after(bare, Choose(op="choose", path="layers.add", value="face"), MM))
        self.assertEqual(list(with_more.layers), ["2"])  # a number is never given twice
        solved(with_more.model_dump(mode="json"))

    def test_whatever_is_offered_can_be_done(self) -> None:
        seen = 0
        for document in (
            rails(l1={}),
            holding(l1={"side": "back", "keeps_to": "opening", "set_back_mm": 9.0}),
            rails(6, l1={"corners": "round"}),
            rails(l1={}, l2={"side": "back", "keeps_to": "opening", "set_back_mm": 9.0}) | {"glued_up": True},
        ):
            made = solved(document)
            for control in shown(made).controls:
                for option in control.options if control.group == "layers" else ():
                    changed = document
                    for act in option.acts:
                        changed = after(spec_of(changed), act, MM)
                    solved(changed)
                    seen += 1
        self.assertGreater(seen, 40)


def draw(rng: random.Random, sides: int) -> dict[str, Any]:
    """A layer."""
    letters = "ABCDEFGH"[:sides]
    return {
        "side": rng.choice(("face", "back")), "keeps_to": rng.choice(("outside", "opening")), "set_back_mm": rng.choice((0.0, 0.0, 8.0, -6.0, 70.0)),
        "width_mm": rng.choice((10.0, 18.0, 33.0)), "thickness_mm": rng.choice((6.0, 12.0)),
        "corners": rng.choice(("miter", "round", *(("long_AC", "long_BD") if sides == 4 else ()))),
        "left_out": sorted(rng.sample(letters, rng.choice((0, 0, 1)))),
    }  # fmt: skip
