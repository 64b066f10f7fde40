"""What a person does to a drawing, in every kind: rings that are dragged, fields that are typed over, measures given."""

import unittest
from math import radians, sqrt, tan
from typing import Any

from fennup.core.drawing.edit import Choose, Drag, Free, Give, Nudge, TypeIn
from fennup.core.errors import SpecError, UnitError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.units.lengths import tape
from tests.core.frames import after, all_starts, irregular, rectangle, regular, shown, solved, spec_of

MM = tape("mm", "1")
INCH = tape("in", "1/16")
FAR_MM = 9.4


def done(spec: dict[str, Any], *acts: Any, on: Any = MM) -> Any:
    """The spec after some acts, as a model."""
    model = spec_of(spec)
    for act in acts:
        kind = KINDS[model.kind]
        model = kind.spec.model_validate(kind.edit(model, act, on))
    return model


class Rings(unittest.TestCase):
    def test_a_ring_that_was_dragged_lies_where_it_was_let_go_in_every_view_of_every_kind(self) -> None:
        seen = dict.fromkeys(all_starts(), 0)
        for name, starts in all_starts().items():
            for start in starts:
                made = solved(start)
                for view in shown(made).views:
                    for grip in view.grips:
                        x, y = grip.along or (0.6, 0.8)
                        long = sqrt(x * x + y * y)
                        to = (grip.at[0] + FAR_MM * x / long, grip.at[1] + FAR_MM * y / long)
                        try:
                            again = solved(after(made.spec, Drag(op="drag", grip=grip.id, x_mm=to[0], y_mm=to[1]), MM))
                        except SpecError as error:
                            self.assertTrue(error.fields)
                            continue
                        now = next((g for v in shown(again).views if v.id == view.id for g in v.grips if g.id == grip.id), None)
                        assert now is not None, (name, view.id, grip.id)
                        off = ((now.at[0] - to[0]) * x + (now.at[1] - to[1]) * y) / long
                        # To the tape's nearest mark: half of one, and of a slanting size as much as its slope makes of it.
                        self.assertLess(abs(off), 1.5, (name, view.id, grip.id))
                        seen[name] += 1
        for name, least in (
            ("flat_frame", 15),
            ("box", 12),
            ("stand", 14),
            ("post_frame", 12),
            ("brace", 12),
            ("roof", 14),
            ("together", 18),
        ):
            self.assertGreaterEqual(seen[name], least, (name, seen))

    def test_a_ring_let_go_at_nothing_or_that_is_not_there_is_refused(self) -> None:
        for kind in KINDS.values():
            made = solved(next(iter(kind.starts.values())))
            with self.assertRaises(SpecError) as unknown:
                kind.edit(made.spec, Drag(op="drag", grip="nowhere", x_mm=1.0, y_mm=1.0), MM)
            self.assertEqual(unknown.exception.code, "no_such_grip", kind.name)
        stool = solved(KINDS["stand"].starts["stool"])
        with self.assertRaises(SpecError) as nothing:
            KINDS["stand"].edit(stool.spec, Drag(op="drag", grip="pin:front:top_width", x_mm=0.2, y_mm=0.0), MM)
        self.assertEqual(nothing.exception.code, "dragged_to_nothing")


class AFramesFields(unittest.TestCase):
    def read(self, spec: Any, name: str) -> float:
        made = solved(spec.model_dump(mode="json"))
        self.assertTrue(all(check.closes for check in made.joints))
        return made.ruler.measure(name) or 0.0

    def test_another_line_is_given_and_the_frame_stays_as_it_is(self) -> None:
        hexagon = regular(6, 40.0, "opening_flats", mm=300.0)
        for by in ("outside_corners", "opening_side", "outside_side", "opening_corners"):
            spec = done(hexagon, Give(op="give", measure=by))
            self.assertEqual(spec.shape.size.by, by)
            self.assertAlmostEqual(self.read(spec, "opening_flats"), 300.0, places=9)
        # 300 across flats: a side is 300 / sqrt 3, the outside two widths more.
        self.assertAlmostEqual(self.read(done(hexagon, Give(op="give", measure="outside_side")), "outside_side"), 380 / sqrt(3))
        self.assertAlmostEqual(
            self.read(done(hexagon, Choose(op="choose", path="shape.size.by", value="outside")), "outside_flats"), 380
        )

    def test_what_it_holds_and_what_floats_in_it_are_taken_over_from_the_opening(self) -> None:
        for start, name in (
            (regular(8, 50.0, "opening_flats", mm=400.0), "opening_flats"),
            (rectangle("opening", 400.0, 250.0, 50.0), "opening_width"),
        ):
            for by in ("holds", "floats"):
                spec = done(start, Choose(op="choose", path="shape.size.by", value=by))
                self.assertAlmostEqual(self.read(spec, name), 400.0, places=9)
                self.assertEqual(spec.rabbet is not None, by == "holds")
            held = done(
                start, Choose(op="choose", path="shape.size.by", value="holds"), Choose(op="choose", path="rabbet", value=None)
            )
            self.assertEqual((held.shape.size.by.split("_")[0], held.rabbet), ("opening", None))
        # For something round the rabbet comes wide enough, the opening stays, and turning it into a panel keeps its size.
        octagon = regular(8, 50.0, "opening_flats", mm=400.0)
        round_one = done(octagon, Choose(op="choose", path="shape.size.by", value="holds_round"))
        self.assertAlmostEqual(self.read(round_one, "opening_flats"), 400.0, places=9)
        self.assertEqual([f.code for f in solved(round_one.model_dump(mode="json")).findings], [])
        panel = done(round_one.model_dump(mode="json"), Choose(op="choose", path="shape.size.by", value="holds"))
        self.assertEqual(panel.shape.size, round_one.shape.size.model_copy(update={"form": "sided"}))

    def test_the_number_of_sides_changes_and_what_was_said_of_those_that_are_no_more_is_dropped(self) -> None:
        eight = regular(
            8, 50.0, "opening_flats", mm=400.0, left_out=["H"], rails={"G": {"width_mm": 60.0}}, corners={"FG": {"joint": "butt"}}
        )
        six = done(eight, TypeIn(op="type", path="shape.sides", text="6"))
        self.assertEqual((six.sides, six.left_out, six.rails, six.corners), (6, [], {}, {}))
        seven = done(regular(7, 50.0, "opening_reach", mm=400.0), Nudge(op="nudge", path="shape.sides", steps=1))
        self.assertEqual((seven.sides, seven.shape.size.by), (8, "opening_flats"))  # an even number has no reach of its own
        five = done(
            irregular([(0, 0), (400, 0), (400, 300), (0, 300)], [{"side": "A", "mm": 400.0}, {"side": "D", "mm": 300.0}]),
            TypeIn(op="type", path="sides", text="5"),
        )
        # The corner is added on the last side: what was pinned there goes, the first side's pin stays.
        self.assertEqual((len(five.shape.corners), [p.side for p in five.shape.pins]), (5, ["A"]))
        self.assertEqual(len(done(five.model_dump(mode="json"), TypeIn(op="type", path="sides", text="4")).shape.corners), 4)
        for count in ("2", "25", "x"):
            with self.assertRaises((SpecError, UnitError)):
                done(eight, TypeIn(op="type", path="shape.sides", text=count))

    def test_a_rail_is_widened_by_itself_or_with_its_opposite_and_a_board_from_the_yard_ends_that(self) -> None:
        start = rectangle("opening", 400.0, 250.0, 50.0)
        pair = done(start, TypeIn(op="type", path="rails.AC.width_mm", text="3 in"))
        self.assertEqual({k: r.width_mm for k, r in pair.rails.items()}, {"A": 76.2, "C": 76.2})
        self.assertAlmostEqual(self.read(pair, "outside_depth"), 250 + 2 * 76.2, places=9)
        one = done(start, Nudge(op="nudge", path="rails.B.width_mm", steps=2), on=INCH)
        self.assertAlmostEqual(one.rails["B"].width_mm, 2 * 25.4 + 25.4 / 16, places=9)  # 50 lies between 1 15/16 and 2
        yard = done(pair.model_dump(mode="json"), Choose(op="choose", path="board.nominal", value="27 x 60 planed"))
        self.assertEqual((yard.rails, yard.board.nominal), ({}, "27 x 60 planed"))
        measured = done(yard.model_dump(mode="json"), TypeIn(op="type", path="board.width_mm", text="59.5"))
        self.assertEqual((measured.board.width_mm, measured.board.nominal), (59.5, None))

    def test_a_free_outline_keeps_its_sizes_and_its_pins_are_made_moved_to_the_other_line_and_let_go(self) -> None:
        spec = done(regular(6, 40.0, "opening_flats", mm=300.0), Choose(op="choose", path="shape.form", value="irregular"))
        self.assertEqual((spec.shape.form, spec.shape.line, spec.shape.pins), ("irregular", "opening", []))
        self.assertAlmostEqual(self.read(spec, "opening_side:A"), 300 / sqrt(3), places=9)
        pinned = done(spec.model_dump(mode="json"), Give(op="give", measure="opening_side:B", text="180"))
        self.assertAlmostEqual(self.read(pinned, "opening_side:B"), 180.0, places=6)
        outside = done(pinned.model_dump(mode="json"), Choose(op="choose", path="shape.line", value="outside"))
        # On the other line the pin is what the side measures there: at 120 degrees 40 tan 30 more at each end.
        corner = self.read(pinned, "opening_angle:AB"), self.read(pinned, "opening_angle:BC")
        more = sum(40 / tan(radians(angle / 2)) for angle in corner)
        self.assertAlmostEqual(outside.shape.pins[0].mm, 180 + more, places=5)
        free = done(outside.model_dump(mode="json"), Free(op="free", measure="outside_side:B"))
        self.assertEqual(free.shape.pins, [])
        for act, code in (
            (Free(op="free", measure="outside_side:B"), "nothing_pinned"),
            (Give(op="give", measure="opening_side:A", text="9"), "corners_on_outside"),
        ):
            with self.assertRaises(SpecError) as refused:
                done(free.model_dump(mode="json"), act)
            self.assertEqual(refused.exception.code, code)


if __name__ == "__main__":
    unittest.main()
