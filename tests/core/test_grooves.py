"""Grooves round a case: where they stop, what fills them, and what they leave."""

import unittest

from fennup.core.exchange.cuts_document import cuts_document
from fennup.core.solve import Solution
from fennup.core.verify.boolean import boolean_proof
from tests.core.frames import box, level, of_sides, solved, spec_of


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
