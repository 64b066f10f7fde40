"""Grooves round a case: where they stop, what fills them, and what they leave."""

import unittest
from typing import Any

from fennup.core.errors import SpecError
from fennup.core.exchange.cuts_document import cuts_document
from fennup.core.parts.facts import PartFacts
from fennup.core.solve import Solution
from fennup.core.steps.planned import steps_for
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof
from tests.core.frames import after, box, level, of_sides, regular, shown, solved, spec_of

MM = tape("mm", "1")


class Grooves(unittest.TestCase):
    def test_a_groove_past_a_butted_corner_stops_or_is_filled(self) -> None:
        groove = {"thickness_mm": 6.0, "depth_mm": 9.0, "from_edge_mm": 10.0, "play_mm": 1.0}
        plain = solved(box(level(400.0, 300.0), 150.0, joint="butt"))
        for sides in (level(400.0, 300.0), of_sides(6, 400.0), of_sides(3, 400.0)):
            for ends in ("stopped", "filled"):
                document = box(sides, 150.0, joint="butt", back={**groove, "ends": ends}, front={**groove, "ends": ends})
                made = solved(document)
                proof = boolean_proof(made.assembly, made.solids)
                self.assertEqual((proof.unlike, proof.shared, proof.apart), ((), (), ()), (document, proof))
                off = cuts_document(Solution(spec_of(document), made.design, made.plan)).off_mm
                self.assertLess(max(9.0 if mm is None else mm for mm in off.values()), 1e-6, document)
        made = solved(box(level(400.0, 300.0), 150.0, joint="butt", back=groove))
        # The front is 382 long: from the left wall's inside to the outside at the right. Its groove stops 9 past the right wall's inside.
        facts = made.facts[0]
        (stop,) = facts.stopped
        self.assertEqual(
            (stop.from_left_mm, stop.side, stop.from_lower_mm, stop.width_mm, stop.deep_mm), (None, "back", 10.0, 6.0, 9.0)
        )
        self.assertAlmostEqual(stop.to_left_mm, 382.0 - 18.0 + 9.0, places=9)
        self.assertAlmostEqual(plain.solids["A"].volume() - made.solids["A"].volume(), 6.0 * 9.0 * 373.0, places=6)
        # Filled: it runs out, and a stick as long as is left goes into the hole.
        filled = solved(box(level(400.0, 300.0), 150.0, joint="butt", back={**groove, "ends": "filled"}))
        self.assertAlmostEqual(filled.solids["fill back AB"].volume(), 6.0 * 9.0 * (18.0 - 9.0), places=9)
        # Near where the lid is sawn off hardly any wood may be left; shelves end at the panel in front.
        lid = {"front": {**groove, "from_edge_mm": 30.0}, "lid": {"depth_mm": 38.0, "kerf_mm": 2.0}}
        (near,) = [f for f in solved(box(level(400.0, 300.0), 150.0, **lid)).findings if f.code == "lid_near_groove"]
        self.assertAlmostEqual(near.value, 38.0 - 30.0 - 6.0, places=9)
        shelf = solved(
            box(level(400.0, 300.0), 150.0, front=groove, shelves=[{"height_mm": 90.0, "thickness_mm": 12.0}])
        ).assembly.board("shelf1")
        self.assertAlmostEqual(shelf.section.width_mm, 150.0 - 10.0 - 6.0, places=9)
        # Where walls are mitered, nothing stops.
        self.assertEqual(solved(box(level(400.0, 300.0), 150.0, back=groove)).facts[0].stopped, ())


class Stopping(unittest.TestCase):
    """Grooves and rabbets in one board that stop before its ends."""

    def taken(self, document: dict[str, Any], board: str, **row: Any) -> tuple[float, PartFacts]:
        """How much wood one takes of a board, proven and sawn right, and the part's facts."""
        plain = solved(document)
        changed = document | {"stopped": [{"board": board, "width_mm": 8.0, "depth_mm": 5.0, **row}]}
        made = solved(changed)
        proof = boolean_proof(made.assembly, made.solids)
        self.assertEqual((proof.unlike, proof.shared, proof.apart), ((), (), ()))
        off = cuts_document(Solution(spec_of(changed), made.design, made.plan)).off_mm
        self.assertLess(max(9.0 if mm is None else mm for mm in off.values()), 1e-6)
        facts = next(facts for facts in made.facts if board in facts.group.boards)
        self.assertEqual(facts.group.boards, (board,), "it is a part of its own")
        return plain.solids[board].volume() - made.solids[board].volume(), facts

    def test_it_takes_its_own_length_of_wood_counted_from_the_tips(self) -> None:
        frame = regular(4, 60.0, "outside_flats", mm=600.0)
        for far in (False, True):
            wood, facts = self.taken(frame, "A", from_mm=20.0, far=far, left_mm=90.0, right_mm=110.0)
            self.assertAlmostEqual(wood, 8.0 * 5.0 * (600.0 - 90.0 - 110.0), places=6)
            (stop,) = facts.stopped
            self.assertEqual((round(stop.from_left_mm or 0, 9), round(stop.to_left_mm or 0, 9), stop.side), (90.0, 490.0, "back"))
            self.assertAlmostEqual(stop.from_lower_mm, 60.0 - 20.0 - 8.0 if far else 20.0)
        # A rabbet along the opening edge, 480 long there between the miters, runs out at both: 8 wide, each end loses half a square of 8.
        wood, facts = self.taken(frame, "A", far=True)
        self.assertAlmostEqual(wood, 5.0 * (480.0 * 8.0 + 8.0 * 8.0), places=6)
        # Stopped 100 from the left tip, and out at the right: from there to the miter at 540 on the edge, 548 eight in.
        wood, facts = self.taken(frame, "A", far=True, left_mm=100.0, side="face")
        self.assertEqual([stop.side for stop in facts.stopped], ["face"])
        self.assertAlmostEqual(wood, 5.0 * 8.0 * (544.0 - 100.0), places=6)
        walls = box(level(400.0, 300.0), 150.0)
        wood, _ = self.taken(walls, "B", from_mm=30.0, left_mm=50.0, right_mm=50.0)
        self.assertAlmostEqual(wood, 8.0 * 5.0 * (300.0 - 100.0), places=6)
        grooved = solved(frame | {"stopped": [{"board": "A", "width_mm": 8.0, "depth_mm": 5.0, "left_mm": 90.0}]})
        (step,) = [step for step in steps_for(grooved.design, grooved.plan).steps if step.work == "groove"]
        self.assertTrue(step.pocket and step.cautions == ("stopping",))

    def test_what_cannot_be_is_refused_and_whatever_is_offered_can_be_done(self) -> None:
        frame = regular(4, 60.0, "outside_flats", mm=600.0)
        row = {"board": "A", "width_mm": 8.0, "depth_mm": 5.0}
        wrong = [
            ({"board": "Z"}, "no_such_board", "board"), ({"depth_mm": 20.0}, "ploughed_too_large", "depth_mm"), ({"from_mm": 55.0}, "ploughed_too_large", "width_mm"),
            ({"left_mm": 300.0, "right_mm": 300.0}, "stops_cross", "right_mm"), ({"left_mm": 700.0}, "stops_cross", "left_mm"),
        ]  # fmt: skip
        for change, code, field in wrong:
            with self.assertRaises(SpecError) as raised:
                solved(frame | {"stopped": [row | change]})
            self.assertEqual((raised.exception.code, raised.exception.fields), (code, (f"stopped.0.{field}",)))
        seen = 0
        for document in (frame, frame | {"stopped": [row | {"left_mm": 50.0}]}, box(level(400.0, 300.0), 150.0)):
            for control in shown(solved(document)).controls:
                for option in control.options if control.code.startswith("stopped") else ():
                    changed = document
                    for act in option.acts:
                        changed = after(spec_of(changed), act, MM)
                    solved(changed)
                    seen += 1
        self.assertGreater(seen, 20)
