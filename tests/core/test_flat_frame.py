import unittest
from math import cos, hypot, pi, radians, sin, tan
from typing import Any, ClassVar

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from fennup.core.drawing.edit import Choose, Drag, Free, Give, Rescale, TypeIn
from fennup.core.drawing.view import BY_ITSELF
from fennup.core.errors import SpecError
from fennup.core.kinds.flat_frame import FLAT_FRAME
from fennup.core.kinds.flat_frame.starts import STARTS
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.units.lengths import tape
from tests.core.frames import FRAME, Solved, after, irregular, lengths, miters, rectangle, regular, shown, solved, spec_of

MM = tape("mm", "1")


class Dragged(unittest.TestCase):
    def test_the_ring_of_the_rails_width_widens_all_that_have_no_width_of_their_own(self) -> None:
        for sides in (6, 8):
            spec = spec_of(regular(sides, 40.0, "opening_flats", mm=300.0))
            ring = next(
                g
                for v in shown(solved(regular(sides, 40.0, "opening_flats", mm=300.0))).views
                for g in v.grips
                if "width:" in g.id
            )
            letter = ring.id[-1]
            act = Drag(op="drag", grip=f"width:{letter}", x_mm=ring.at[0], y_mm=150.0 + 55.0)
            widened = spec_of(after(spec, act, MM))
            self.assertEqual((widened.board.width_mm, widened.rails), (55.0, {}))


class OverAll(unittest.TestCase):
    def test_a_ring_of_six_is_said_by_its_overall_width_and_height(self) -> None:
        corners = [(-460.0, -900.0), (460.0, -900.0), (900.0, 0.0), (460.0, 900.0), (-460.0, 900.0), (-900.0, 0.0)]
        angles = [{"corner": corner, "deg": 120.0} for corner in ("AB", "BC", "CD", "DE", "EF")]
        spans = [{"span": "wide", "mm": 1840.0}, {"span": "high", "mm": 1840.0}]
        made = solved(irregular(corners, [*angles, *spans]))
        # Slanted sides rise 920 at 60 degrees; each takes half of itself off the width at both ends.
        slanted = 920 / sin(pi / 3)
        for letter, side in (("B", slanted), ("C", slanted), ("A", 1840 - slanted), ("D", 1840 - slanted)):
            self.assertAlmostEqual(made.ruler.measure(f"outside_side:{letter}") or 0.0, side, places=4)
        self.assertAlmostEqual(slanted, 1062.3245, places=4)
        self.assertAlmostEqual(1840 - slanted, 777.6755, places=4)
        self.assertTrue(all(abs((check.measured or 0.0) - check.claim.asked) < 1e-6 for check in made.claims))
        self.assertEqual(made.closing.state, "exact")
        # Whichever side is left open, the whole is measured along side A and square to it.
        for letter in "ABCDEF":
            made = solved(irregular(corners, [*angles, *spans], left_out=[letter]))
            for check in made.claims:
                if check.claim.measure in ("outside_wide", "outside_high"):
                    self.assertAlmostEqual(check.measured or 0.0, 1840.0, places=6, msg=f"{letter} {check.claim.measure}")

    def test_a_diagonal_squares_a_quadrilateral_and_too_much_is_refused_by_how_much(self) -> None:
        corners = [(0.0, 0.0), (400.0, 0.0), (420.0, 280.0), (-10.0, 310.0)]
        sides = [{"side": s, "mm": mm} for s, mm in zip("ABCD", (400.0, 300.0, 400.0, 300.0), strict=True)]
        made = solved(irregular(corners, [*sides, {"span": "DABC", "mm": 500.0}]))
        for corner in ("AB", "BC"):
            self.assertAlmostEqual(made.ruler.measure(f"outside_angle:{corner}") or 0.0, 90.0, places=6)
        self.assertAlmostEqual(made.ruler.measure("outside_diagonal:ABCD") or 0.0, 500.0, places=6)
        with self.assertRaises(SpecError) as refused:
            solved(irregular(corners, [*sides, {"span": "DABC", "mm": 500.0}, {"span": "ABCD", "mm": 490.0}]))
        self.assertEqual((refused.exception.code, refused.exception.fields), ("span_disagrees", ("shape.pins.5",)))
        self.assertAlmostEqual(refused.exception.data["gives"], 500.0, places=6)

    def test_typed_on_a_list_of_sizes_it_is_given_nudged_and_let_go(self) -> None:
        spec = solved(irregular([(0.0, 0.0), (400.0, 0.0), (420.0, 280.0), (-10.0, 310.0)], [])).spec
        given = spec_of(after(spec, Give(op="give", measure="outside_wide", text="450"), MM))
        self.assertAlmostEqual(solved(given.model_dump(mode="json")).ruler.measure("outside_wide") or 0.0, 450.0)
        given = spec_of(after(given, Give(op="give", measure="outside_diagonal:DABC", text="510"), MM))
        self.assertEqual([p.mm for p in given.shape.pins], [450.0, 510.0])
        freed = spec_of(after(given, Free(op="free", measure="outside_wide"), MM))
        self.assertEqual([p.span for p in freed.shape.pins], ["DABC"])
        # A regular one grows as a whole.
        grown = spec_of(
            after(
                solved(regular(5, 40.0, "outside_side", mm=300.0)).spec, Give(op="give", measure="outside_high", text="600"), MM
            )
        )
        made = solved(grown.model_dump(mode="json"))
        self.assertAlmostEqual(made.ruler.measure("outside_high") or 0.0, 600.0)
        self.assertAlmostEqual(made.ruler.measure("outside_side") or 0.0, 600 / (sin(2 * pi / 5) + sin(pi / 5)))


class RegularFrames(unittest.TestCase):
    def test_a_hexagon_that_holds_a_panel_has_the_ladder_of_its_lines(self) -> None:
        # long = content + 2 (W - r) tan 30 + ..., here with flats F: side = F tan 30 on every line.
        frame = solved(regular(6, 40.0, "holds", object_mm=300.0, play_mm=2.0, rabbet={"width_mm": 6.0, "depth_mm": 8.0}))
        outer, opening = lengths(frame, "A")
        self.assertAlmostEqual(outer, (302 + 2 * 34) * tan(pi / 6), places=9)
        self.assertAlmostEqual(outer, 213.6196, places=4)
        self.assertAlmostEqual(frame.ruler.measure("rabbet_side") or 0, 174.3598, places=4)
        self.assertAlmostEqual(opening, 167.4316, places=4)
        for got in miters(frame, "D"):
            self.assertAlmostEqual(got, 30.0, places=9)
        self.assertEqual([p.boards for p in frame.parts], [tuple("ABCDEF")])

    def test_a_heptagon_across_corners(self) -> None:
        frame = solved(regular(7, 50.8, "outside_corners", mm=533.4))
        outer, opening = lengths(frame, "C")
        self.assertAlmostEqual(outer, 533.4 * sin(pi / 7), places=9)
        self.assertAlmostEqual(outer, 231.4336, places=4)
        self.assertAlmostEqual(opening, outer - 2 * 50.8 * tan(pi / 7), places=9)
        self.assertAlmostEqual(opening, 182.5056, places=4)
        self.assertAlmostEqual(miters(frame, "C")[0], 25.7143, places=4)
        # What a tape reads on an odd frame: height over a side, and the diagonal that skips three corners.
        self.assertAlmostEqual(frame.ruler.measure("outside_reach") or 0, 266.7 * (1 + cos(pi / 7)), places=6)
        self.assertAlmostEqual(frame.ruler.measure("outside_diagonal") or 0, 533.4 * sin(3 * pi / 7), places=6)

    @settings(max_examples=60, deadline=None)
    @given(
        st.integers(3, 24), st.floats(30, 3000), st.floats(5, 200), st.sampled_from(["miter", "butt"]),
        st.sampled_from(["opening_flats", "opening_corners", "opening_side", "outside_flats", "outside_corners", "outside_side", "outside_diagonal"]),
    )  # fmt: skip
    def test_any_size_of_any_regular_frame_is_measured_as_given_and_closes(
        self, sides: int, mm: float, width: float, joint: str, by: str
    ) -> None:
        try:
            frame = solved(regular(sides, width, by, mm=mm, joint=joint))
        except SpecError as error:
            self.assertIn(error.code, ("no_opening", "part_vanishes", "butt_too_wide"))
            return
        self.assertTrue(all(j.closes for j in frame.joints))
        self.assertNotIn(frame.closing.state, ("open_joint", "shared_wood"))
        self.assertAlmostEqual((frame.claims[0].measured or 0) / mm, 1.0, places=9)
        # The wood is the ring between two polygons, whatever the joints are.
        apothem = {k: (frame.ruler.measure(f"{k}_flats") or 0) / 2 for k in ("outside", "opening")}
        ring = sides * tan(pi / sides) * (apothem["outside"] ** 2 - apothem["opening"] ** 2) * 20.0
        self.assertAlmostEqual(sum(s.volume() for s in frame.solids.values()) / ring, 1.0, places=7)

    def test_something_round_is_covered_or_how_much_stays_open_and_which_rabbet_would_cover_it(self) -> None:
        for sides in (5, 6, 8):
            for width in (6.0, 9.0):
                rabbet = {"width_mm": width, "depth_mm": 8.0}
                made = solved(regular(sides, 45.0, "holds", object_mm=300.0, play_mm=2.0, form="round", rabbet=rabbet))
                (found,) = [f for f in made.findings if f.code == "round_uncovered"]
                self.assertAlmostEqual(found.value or 0, self.open_beside(made, 300.0, 2.0), places=6)
                for more, covered in ((1e-6, True), (-0.01, False)):
                    rabbet = {"width_mm": (found.limit or 0) + more, "depth_mm": 8.0}
                    other = solved(regular(sides, 45.0, "holds", object_mm=300.0, play_mm=2.0, form="round", rabbet=rabbet))
                    self.assertEqual(self.open_beside(other, 300.0, 2.0) <= 0, covered)
                    self.assertEqual(not [f for f in other.findings if f.code == "round_uncovered"], covered)

    @staticmethod
    def open_beside(made: Solved, across: float, play: float) -> float:
        """Slid wherever the rabbet's walls let it: how far the farthest corner of the opening lies outside of it."""
        n = made.spec.sides
        free = play / 2 / cos(pi / n)
        # Its middle stays inside a figure like the opening; farthest away at one of its corners.
        corners = [run[0][:2] for run in (made.ruler.runs("opening") or {}).values()]
        scale = free / hypot(*corners[0])
        middles = [(x * scale, y * scale) for x, y in corners]
        return max(hypot(x - a, y - b) for x, y in corners for a, b in middles) - across / 2

    def test_a_butted_corner_is_cut_at_the_turn_less_a_right_angle(self) -> None:
        # In a pinwheel of n sides each rail has one fitted and one through end, both at |90 - 360/n| from square.
        for sides in (3, 5, 8):
            frame = solved(regular(sides, 30.0, "opening_side", mm=400.0, joint="butt"))
            for got in miters(frame, "B"):
                self.assertAlmostEqual(got, 360 / sides - 90, places=9)
        four = solved(rectangle("outside", 600.0, 400.0, 60.0, joint="butt"))
        self.assertAlmostEqual(lengths(four, "A")[0], 600.0 - 60.0)

    def test_one_corner_may_be_butted_among_miters_and_either_rail_may_run_through(self) -> None:
        for through, outer in (("A", 600.0), ("B", 540.0)):
            corner = {"AB": {"joint": "butt", "through": through}}
            frame = solved(rectangle("outside", 600.0, 400.0, 60.0, corners=corner))
            self.assertAlmostEqual(lengths(frame, "A")[0], outer)
            self.assertTrue(all(j.closes for j in frame.joints))
            self.assertEqual([p.boards for p in frame.parts], [("A",), ("B",), ("C",), ("D",)])


class RectanglesAndOpenFrames(unittest.TestCase):
    def test_unequal_rails_split_the_corner_from_inner_to_outer_corner(self) -> None:
        wide = {"A": {"width_mm": 90.0}, "C": {"width_mm": 90.0}}
        frame = solved(rectangle("outside", 600.0, 400.0, 60.0, rails=wide))
        self.assertAlmostEqual(miters(frame, "A")[0], 33.6901, places=4)
        self.assertAlmostEqual(tan(radians(miters(frame, "A")[0])), 60 / 90, places=12)
        self.assertAlmostEqual(miters(frame, "B")[1], 56.3099, places=4)
        for board, expected in (("A", (600.0, 480.0)), ("B", (400.0, 220.0))):
            for got, want in zip(lengths(frame, board), expected, strict=True):
                self.assertAlmostEqual(got, want, places=9)

    def test_an_open_octagon_stands_flat_on_the_ground(self) -> None:
        frame = solved(regular(8, 58.0, "outside_side", mm=205.5, left_out=["A"], loose_ends="ground"))
        outer, opening = lengths(frame, "B")
        self.assertAlmostEqual(outer, 205.5, places=9)
        # One miter takes 58 tan 22.5 off, the ground cut at 45 adds 58.
        self.assertAlmostEqual(opening, 205.5 - 58 * tan(radians(22.5)) + 58, places=9)
        self.assertAlmostEqual(opening, 239.4756, places=4)
        self.assertAlmostEqual(miters(frame, "B")[0], -45.0, places=9)
        # A plain board: turned over it would fit at the other end, and show its back.
        hands = {p.id: (p.mirror_of, p.turned_over_of) for p in frame.parts}
        self.assertEqual(hands, {"B": (None, None), "C": (None, None), "H": (None, "B")})
        self.assertEqual((frame.closing.state, frame.closing.open_side), ("exact", True))

    def test_a_loose_end_cut_square_keeps_the_whole_outer_edge(self) -> None:
        frame = solved(regular(6, 40.0, "outside_side", mm=300.0, left_out=["A", "B"]))
        outer, opening = lengths(frame, "C")
        self.assertAlmostEqual(outer, 300.0, places=9)
        self.assertAlmostEqual(opening, 300.0 - 40 * tan(pi / 6), places=9)
        self.assertAlmostEqual(miters(frame, "C")[0], 0.0, places=9)


class IrregularFrames(unittest.TestCase):
    corners: ClassVar = [(0.0, 0.0), (400.0, 0.0), (450.0, 300.0), (0.0, 250.0)]

    def test_five_pins_fix_a_quadrilateral_and_the_rest_follows(self) -> None:
        # Two right angles at A, so the far side is the hypotenuse of (400 wide, 300 - 220 high).
        pins = [
            {"side": "A", "mm": 400.0}, {"corner": "AB", "deg": 90.0}, {"corner": "DA", "deg": 90.0},
            {"side": "B", "mm": 300.0}, {"side": "D", "mm": 220.0},
        ]  # fmt: skip
        frame = solved(irregular(self.corners, pins))
        self.assertAlmostEqual(frame.ruler.measure("outside_side:C") or 0, hypot(400, 80), places=6)
        self.assertTrue(all(abs((c.measured or 0) - c.claim.asked) < 1e-6 for c in frame.claims))
        self.assertNotEqual(frame.closing.state, "open_joint")

    def test_a_further_pin_that_agrees_is_noted_and_one_that_disagrees_opens_the_last_joint(self) -> None:
        pins = [
            {"side": "A", "mm": 400.0}, {"corner": "AB", "deg": 90.0}, {"corner": "DA", "deg": 90.0},
            {"side": "B", "mm": 300.0}, {"side": "D", "mm": 300.0},
        ]  # fmt: skip
        agrees = solved(irregular(self.corners, [*pins, {"side": "C", "mm": 400.0}]))
        self.assertIn("pin_spare", [f.code for f in agrees.findings])
        short = solved(irregular(self.corners, [*pins, {"side": "C", "mm": 395.0}]))
        self.assertEqual((short.closing.state, short.closing.joint), ("open_joint", "DA"))
        # C is 5 short, so D comes down 5 to the right of where it should stand and reaches into A by that times sin 45.
        self.assertAlmostEqual(max(short.closing.opening_mm, short.closing.overlap_mm), 5 * sin(pi / 4), places=6)

    def test_four_angles_that_do_not_make_360_are_named(self) -> None:
        pins = [{"corner": c, "deg": d} for c, d in (("AB", 90.0), ("BC", 90.0), ("CD", 91.0), ("DA", 90.0))]
        frame = solved(irregular(self.corners, pins))
        finding = next(f for f in frame.findings if f.code == "angles_sum")
        self.assertEqual((finding.value, finding.limit), (361.0, 360.0))
        self.assertEqual(frame.closing.state, "open_joint")

    @settings(max_examples=40, deadline=None)
    @given(
        st.lists(st.tuples(st.floats(0.6, 1.4), st.floats(8, 60)), min_size=3, max_size=9),
        st.floats(0, 360),
        st.booleans(),
    )
    def test_random_convex_outlines_close_and_turning_or_mirroring_them_changes_no_setting(
        self, sides: list[tuple[float, float]], turn: float, inside: bool
    ) -> None:
        # Corners on a circle are always convex; the second figure of each pair is the rail's width.
        total = sum(s for s, _ in sides)
        steps = [2 * pi * s / total for s, _ in sides]
        assume(max(steps) < pi * 0.8 and min(steps) > 0.15)
        at = [sum(steps[:i]) for i in range(len(steps))]
        rails = {chr(65 + i): {"width_mm": w} for i, (_, w) in enumerate(sides)}

        def built(turned: float, hand: float) -> Solved:
            spots = [(900 * cos(a + turned), hand * 900 * sin(a + turned)) for a in at]
            order = spots if hand > 0 else spots[::-1]
            own = rails if hand > 0 else {chr(65 + i): rails[chr(65 + (len(at) - 2 - i) % len(at))] for i in range(len(at))}
            return solved(irregular(order, [], "opening" if inside else "outside", rails=own))

        def angles(frame: Solved) -> list[float]:
            return sorted(round(m, 6) for b in frame.assembly.boards for m in miters(frame, b.id))

        try:
            plain = built(0.0, 1.0)
        except SpecError as error:
            self.assertIn(error.code, ("no_opening", "part_vanishes"))
            return
        self.assertTrue(all(j.closes for j in plain.joints))
        self.assertEqual(angles(plain), angles(built(radians(turn), 1.0)))
        self.assertEqual(angles(plain), angles(built(0.0, -1.0)))


class BadSpecs(unittest.TestCase):
    def test_each_is_refused_with_its_field(self) -> None:
        panel = {"width_mm": 50.0, "depth_mm": 8.0}
        for document, code, field in (
            (regular(6, 500.0, "outside_flats", mm=300.0), "no_opening", "board.width_mm"),
            (rectangle("outside", 100.0, 400.0, 60.0), "no_opening_between", "board.width_mm"),
            (regular(6, 40.0, "opening_flats", mm=300.0, rabbet=panel), "rabbet_too_wide", "rabbet.width_mm"),
            (regular(6, 40.0, "opening_flats", mm=300.0, rabbet={"width_mm": 6, "depth_mm": 20}), "rabbet_too_deep", "rabbet.depth_mm"),
            (regular(6, 40.0, "holds", object_mm=300.0), "holds_without_rabbet", "rabbet"),
            (regular(6, 40.0, "opening_flats", mm=300.0, rails={"Q": {"width_mm": 9}}), "no_such_side", "rails.Q"),
            (regular(4, 40.0, "opening_flats", mm=300.0, left_out=["A", "B", "C"]), "too_few_left", "left_out"),
            (irregular([(0, 0), (400, 0), (200, 50), (0, 400)], []), "reflex", "shape.corners.2"),
            (irregular([(0, 0), (0, 400), (400, 0)], []), "reflex", "shape.corners.1"),
            (irregular([(0, 0), (400, 0), (200, 200)], [{"side": s, "mm": m} for s, m in (("A", 400.0), ("B", 250.0), ("C", 100.0))]), "side_impossible", "shape.pins.2"),
        ):  # fmt: skip
            with self.subTest(code), self.assertRaises(SpecError) as caught:
                solved(document)
            self.assertEqual((caught.exception.code, caught.exception.fields[0]), (code, field))

    def test_the_widest_rail_named_by_the_refusal_is_the_limit(self) -> None:
        with self.assertRaises(SpecError) as caught:
            solved(regular(6, 500.0, "outside_flats", mm=300.0))
        self.assertAlmostEqual(float(caught.exception.data["limit_mm"]), 150.0)


class ActsOnAFrame(unittest.TestCase):
    def acted(self, document: dict, *acts: object) -> dict:
        spec = FRAME.spec.model_validate(document)
        for act in acts:
            spec = FRAME.spec.model_validate(FRAME.edit(spec, act, MM))  # type: ignore[arg-type]
        return spec.model_dump(mode="json")

    def test_giving_another_line_moves_nothing_and_turns_the_old_one_into_a_result(self) -> None:
        start = regular(7, 50.0, "opening_flats", mm=400.0)
        swapped = self.acted(start, Give(op="give", measure="outside_diagonal"))
        self.assertEqual(swapped["shape"]["size"]["by"], "outside_diagonal")
        self.assertAlmostEqual(solved(swapped).ruler.measure("opening_flats") or 0, 400.0, places=9)

    def test_a_starts_sizes_are_suggested_until_somebody_gives_them(self) -> None:
        def standings(document: dict[str, Any]) -> dict[str, str]:
            made = solved(document)
            found = shown(made)
            drawn = {d.id: d.standing for d in found.views[0].dimensions if d.standing in BY_ITSELF and "rail" not in d.id}
            rows = {row.measure: row.standing for row in found.sizes if row.standing in BY_ITSELF}
            self.assertTrue(rows.items() <= drawn.items() or not rows)
            return drawn

        frame = STARTS["rectangle"]
        self.assertEqual(standings(frame), {"opening_width": "suggested", "opening_depth": "suggested"})
        wide = after(spec_of(frame), TypeIn(op="type", path="shape.size.width_mm", text="420"), MM)
        self.assertEqual(standings(wide), {"opening_width": "given", "opening_depth": "suggested"})
        outside = after(spec_of(wide), Give(op="give", measure="outside_depth", text="500"), MM)
        self.assertEqual(standings(outside), {"outside_width": "given", "outside_depth": "given"})
        dragged = after(spec_of(frame), Drag(op="drag", grip="along:C", x_mm=0.0, y_mm=180.0), MM)
        self.assertEqual(standings(dragged), {"opening_width": "suggested", "opening_depth": "given"})
        larger = FLAT_FRAME.rescale(spec_of(frame), Rescale(op="rescale", measure="opening_width", text="500"), MM)
        self.assertEqual(standings(larger), {"opening_width": "given", "opening_depth": "suggested"})
        octagon = STARTS["octagon"]
        self.assertEqual(standings(octagon), {"opening_flats": "suggested"})
        held = after(spec_of(octagon), Choose(op="choose", path="shape.size.by", value="holds"), MM)
        self.assertEqual(standings(held), {"object": "suggested"})
        typed = after(spec_of(held), TypeIn(op="type", path="shape.size.object_mm", text="300"), MM)
        self.assertEqual(standings(typed), {"object": "given"})
        given_ = after(spec_of(octagon), Give(op="give", measure="outside_flats"), MM)
        self.assertEqual(standings(given_), {"outside_flats": "given"})

    def test_changing_how_it_is_sized_keeps_the_frame(self) -> None:
        for start in (regular(8, 45.0, "outside_side", mm=300.0), rectangle("opening", 420.0, 300.0, 45.0)):
            before = lengths(solved(start), "A")
            for by in ("holds", "floats", "outside", "opening"):
                start = self.acted(start, Choose(op="choose", path="shape.size.by", value=by))
                for got, want in zip(lengths(solved(start), "A"), before, strict=True):
                    self.assertAlmostEqual(got, want, places=9)
            freed = self.acted(start, Choose(op="choose", path="shape.form", value="irregular"))
            self.assertAlmostEqual(lengths(solved(freed), "A")[0], before[0], places=9)

    def test_a_dragged_side_takes_the_nearest_graduation(self) -> None:
        start = regular(8, 45.0, "opening_flats", mm=340.0)
        dragged = self.acted(start, Drag(op="drag", grip="size:flat:2", x_mm=180.3, y_mm=0.0))
        self.assertEqual(dragged["shape"]["size"]["mm"], 361.0)

    def test_pins_come_by_typing_and_go_by_freeing_and_a_dragged_corner_keeps_them(self) -> None:
        start = irregular(IrregularFrames.corners, [])
        pinned = self.acted(start, Give(op="give", measure="outside_side:A", text="420"))
        dragged = self.acted(pinned, Drag(op="drag", grip="corner:2", x_mm=500.0, y_mm=330.0))
        self.assertAlmostEqual(solved(dragged).ruler.measure("outside_side:A") or 0, 420.0, places=6)
        freed = self.acted(dragged, Free(op="free", measure="outside_side:A"))
        self.assertEqual(freed["shape"]["pins"], [])

    def test_a_nominal_board_fills_in_what_it_measures_and_typing_a_width_forgets_it(self) -> None:
        named = self.acted(regular(6, 40.0, "opening_flats", mm=300.0), Choose(op="choose", path="board.nominal", value="1x4"))
        self.assertEqual((named["board"]["width_mm"], named["board"]["thickness_mm"]), (88.9, 19.05))
        self.assertIsNone(self.acted(named, TypeIn(op="type", path="board.width_mm", text="88"))["board"]["nominal"])

    def test_fewer_sides_drop_what_was_said_of_those_that_are_gone(self) -> None:
        start = regular(8, 40.0, "opening_flats", mm=300.0, left_out=["H"], corners={"GH": {"joint": "butt", "through": "G"}})
        less = self.acted(start, TypeIn(op="type", path="shape.sides", text="5"))
        self.assertEqual((less["left_out"], less["corners"]), ([], {}))

    def test_every_option_that_a_start_offers_can_be_taken_or_is_refused_with_a_field(self) -> None:
        taken = 0
        for document in FRAME.starts.values():
            spec = FRAME.spec.model_validate(document)
            frame = solved(document, MiterSaw())
            for control in FRAME.describe(spec, frame.ruler, frame.solids).controls:
                for option in control.options:
                    try:
                        solved(self.acted(document, *option.acts))
                        taken += 1
                    except SpecError as error:
                        self.assertTrue(error.fields)
        self.assertGreater(taken, 150)
