import unittest
from fractions import Fraction

from hypothesis import given
from hypothesis import strategies as st

from fennup.core.errors import UnitError
from fennup.core.units.angles import parse_angle_deg
from fennup.core.units.lengths import (
    GRADUATIONS,
    Tape,
    nudge_length,
    parse_length,
    read_as_typed,
    read_at_least,
    read_length,
    tape,
)


class LengthsAsTyped(unittest.TestCase):
    def test_every_accepted_spelling_means_its_length(self) -> None:
        inch = 25.4
        for text, unit, mm in (
            ("14 3/8", "in", 14.375 * inch), ('14-3/8"', "mm", 14.375 * inch), ("14⅜″", "mm", 14.375 * inch),
            ("4' 7 1/4\"", "in", 55.25 * inch), ("4ft 7.25in", "mm", 55.25 * inch), ("4′ 7¼″", "in", 55.25 * inch),
            ("55.25", "in", 55.25 * inch), ("55,25", "mm", 55.25), ("1403 mm", "in", 1403.0), ("140.3cm", "in", 1403.0),
            ("1.2 m", "in", 1200.0), ("1/2 in", "mm", 12.7), ("0,125", "in", 0.125 * inch), ("-5", "mm", -5.0),
        ):  # fmt: skip
            with self.subTest(text):
                self.assertAlmostEqual(parse_length(text, unit).mm, mm, places=9)

    def test_feet_bring_their_total_in_inches(self) -> None:
        self.assertEqual(parse_length("4' 7 1/4\"", "in").feet_total_in, 55.25)
        self.assertIsNone(parse_length('47 1/4"', "in").feet_total_in)

    def test_what_is_no_length_or_could_be_two_is_refused_by_name(self) -> None:
        for text, code in (
            ("abc", "no_length"), ("", "no_length"), ("1/0", "no_length"), ("3 4", "no_length"), ("12 mm 3", "no_length"),
            ("1,234.5", "thousands"), ("1 234", "thousands"), ("1,234", "comma_or_thousands"), ("9" * 60, "too_many_digits"),
            ("<b>5</b>", "no_length"), ("1e3", "no_length"), ("nan", "no_length"),
        ):  # fmt: skip
            with self.subTest(text), self.assertRaises(UnitError) as caught:
                parse_length(text, "in")
            self.assertEqual(caught.exception.code, code)

    def test_a_bare_fraction_in_a_millimetre_project_asks_first(self) -> None:
        with self.assertRaises(UnitError) as caught:
            parse_length("14 3/8", "mm")
        self.assertEqual(caught.exception.code, "fraction_in_mm")
        self.assertAlmostEqual(caught.exception.data["mm"], 365.125)
        self.assertAlmostEqual(parse_length("14 3/8", "mm", inches_meant=True).mm, 365.125)

    @given(st.integers(1, 100_000), st.sampled_from([(u, g) for u, steps in GRADUATIONS.items() for g in steps]))
    def test_a_figure_on_a_graduation_reads_back_as_itself(self, steps: int, on: tuple[str, Fraction]) -> None:
        own = Tape(on[0], on[1])
        mm = steps * own.graduation_mm
        reading = read_length(mm, own)
        self.assertEqual(reading.hair, "")
        self.assertAlmostEqual(parse_length(reading.text, own.unit, inches_meant=False).mm, mm, places=6)


class LengthsAsRead(unittest.TestCase):
    def test_a_hair_over_or_under_is_more_than_a_tenth_of_a_graduation(self) -> None:
        # 213.6196 lies 0.3804 short of 214, and 0.1196 past 213.5; a tenth of a millimetre is the limit on the first.
        read = read_length(213.6196, tape("mm", "1"))
        self.assertEqual((read.text, read.hair), ("213 1/2", "over"))  # a quarter from any mark is the half mark's
        self.assertEqual(read_length(213.6196, tape("mm", "1/2")).hair, "over")
        self.assertEqual(read_length(214.05, tape("mm", "1")).hair, "")
        # 5.25 inches and 0.01 inch: 0.01 is more than a tenth of 1/16.
        self.assertEqual(read_length(5.26 * 25.4, tape("in", "1/16")).hair, "over")

    def test_what_was_typed_stays_as_it_was_typed_whatever_marks_the_tape_has(self) -> None:
        for text, unit, graduation, shown in (
            ("12.5", "mm", "1", "12.5"), ("2.4", "mm", "1", "2.4"), ("365.125", "mm", "1", "365.125"),
            ("6 5/64", "in", "1/16", "6 5/64"), ("14.4", "in", "1/16", "14.4"), ("0.1", "in", "1/32", "0.1"),
        ):  # fmt: skip
            read = read_as_typed(parse_length(text, unit).mm, tape(unit, graduation))
            self.assertEqual(read and (read.text, read.hair), (shown, ""))
        # Nobody has typed 18 mm in inches, or a third of a millimetre: 0.7087 and 333.3333.
        for mm, unit, graduation, shown in (
            (18.0, "in", "1/16", ("23/32", "under")),
            (1000 / 3, "mm", "1", ("333 1/2", "under")),
        ):
            self.assertIsNone(read_as_typed(mm, tape(unit, graduation)))
            read = read_length(mm, tape(unit, graduation))
            self.assertEqual((read.text, read.hair), shown)

    def test_what_must_at_least_be_so_long_is_rounded_up_to_a_mark(self) -> None:
        # 511.8 mm are 20.1496 inches: 20 1/8 would be too short.
        for mm, unit, graduation, shown in (
            (511.8, "in", "1/16", "20 3/16"),
            (511.8, "mm", "1", "512"),
            (512.0, "mm", "1", "512"),
        ):
            self.assertEqual(read_at_least(mm, tape(unit, graduation)).text, shown)

    def test_no_sign_stands_for_more_than_a_quarter_of_a_graduation(self) -> None:
        # 63.55 is no hair under 64: it is read between the two marks, and 10.28 inches a hair under 10 9/32.
        for mm, unit, shown in ((63.55, "mm", ("63 1/2", "")), (63.7, "mm", ("63 1/2", "over")), (63.8, "mm", ("64", "under")),
                                (10.28 * 25.4, "in", ("10 9/32", ""))):  # fmt: skip
            read = read_length(mm, tape(unit, "1" if unit == "mm" else "1/16"))
            self.assertEqual((read.text, read.hair), shown)

    def test_nudging_lands_on_the_next_mark(self) -> None:
        on = tape("in", "1/16")
        self.assertAlmostEqual(nudge_length(25.4, 1, on), 25.4 * 17 / 16)
        self.assertAlmostEqual(nudge_length(25.4 * 1.01, 1, on), 25.4 * 17 / 16)
        self.assertAlmostEqual(nudge_length(25.4 * 1.01, -1, on), 25.4)

    def test_angles_are_read_in_degrees_fractions_and_minutes(self) -> None:
        for text, deg in (("22.5", 22.5), ("22,5°", 22.5), ("22 1/2", 22.5), ("22° 30'", 22.5), ("-3", -3.0)):
            self.assertAlmostEqual(parse_angle_deg(text), deg)
