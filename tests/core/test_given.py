import unittest
from collections.abc import Sequence
from math import atan2, degrees, hypot, sqrt

from fennup.core.errors import SpecError
from fennup.core.given.solver import Pin, Settled, settle
from tests.core.frames import box, solved


def triangle(values: Sequence[float]) -> dict[str, float]:
    """A right triangle by its legs."""
    a, b = values
    return {"a": a, "b": b, "long": hypot(a, b), "angle": degrees(atan2(b, a)), "area": a * b / 2}


def solve(start: Sequence[float], **pins: float) -> Settled:
    wanted = [Pin(name, value, f"pins.{i}") for i, (name, value) in enumerate(pins.items())]
    return settle(start, wanted, lambda values: [triangle(values).get(p.measure) for p in wanted], 2)


class WhatIsGiven(unittest.TestCase):
    def test_any_two_independent_measures_fix_a_triangle(self) -> None:
        for pins in ({"a": 3.0, "long": 5.0}, {"long": 5.0, "area": 6.0}, {"angle": degrees(atan2(4, 3)), "b": 4.0}):
            found = solve((2.0, 5.0), **pins)
            self.assertEqual((found.free, found.spare, found.misfits), (0, (), ()))
            for got, want in zip(found.values, (3.0, 4.0), strict=True):
                self.assertAlmostEqual(got, want, places=9)

    def test_of_two_answers_the_nearest_to_the_start_is_taken(self) -> None:
        for start, legs in (((2.0, 5.0), (3.0, 4.0)), ((5.0, 2.0), (4.0, 3.0))):
            found = solve(start, long=5.0, area=6.0)
            for got, want in zip(found.values, legs, strict=True):
                self.assertAlmostEqual(got, want, places=9)

    def test_too_little_moves_as_little_as_it_can_and_counts_what_is_free(self) -> None:
        found = solve((3.0, 4.0), long=10.0)
        self.assertEqual(found.free, 1)
        # The nearest point of a circle lies on the ray through the start.
        for got, want in zip(found.values, (6.0, 8.0), strict=True):
            self.assertAlmostEqual(got, want, places=6)

    def test_too_much_is_spare_where_it_agrees_and_a_misfit_with_its_own_others_where_not(self) -> None:
        self.assertEqual([p.measure for p in solve((3.0, 4.0), a=3.0, b=4.0, area=6.0).spare], ["area"])
        (misfit,) = solve((3.0, 4.0), a=3.0, b=4.0, long=6.0).misfits
        self.assertAlmostEqual(misfit.gives, 5.0, places=9)
        self.assertEqual([p.measure for p in misfit.others], ["a", "b"])
        # A second figure for one leg clashes with the first alone.
        (twice,) = settle(
            (3.0, 4.0), [Pin("a", 3.0, "x"), Pin("b", 4.0, "y"), Pin("a", 2.0, "z")], lambda v: [v[0], v[1], v[0]], 2
        ).misfits
        self.assertEqual([p.field for p in twice.others], ["x"])

    def test_what_nothing_answers_to_is_refused_at_the_pin_that_asks_it(self) -> None:
        with self.assertRaises(SpecError) as caught:
            solve((3.0, 4.0), long=5.0, area=7.0)  # at most 25 / 4
        self.assertEqual((caught.exception.code, caught.exception.fields), ("measure_impossible", ("pins.1",)))
        with self.assertRaises(SpecError) as caught:
            solve((3.0, 4.0), height=1.0)
        self.assertEqual(caught.exception.code, "cannot_measure")

    def test_a_step_into_where_nothing_can_be_measured_is_shortened(self) -> None:
        def only_positive(values: Sequence[float]) -> list[float | None]:
            if values[0] <= 0:
                raise SpecError("nowhere")
            return [sqrt(values[0])]

        # From 100 the first full step of Newton's method for sqrt x = 1 lands at -80.
        found = settle((100.0,), [Pin("root", 1.0, "x")], only_positive, 1)
        self.assertAlmostEqual(found.values[0], 1.0, places=9)


class WhatHangsOnNothing(unittest.TestCase):
    CORNERS = ((-210.5, -140.25), (190.0, -155.0), (260.3, 20.7), (140.0, 188.1), (-60.6, 201.4), (-240.0, 60.0))

    def test_corners_stay_where_they_are_when_slope_and_slant_are_given_whatever_one_begins_with(self) -> None:
        plan = {"form": "irregular", "corners": [list(corner) for corner in self.CORNERS]}
        pins = [{"measure": "slope", "deg": 0.0}, {"measure": "slant", "mm": 110.0}]
        for height in (11.0, 55.0, 110.0, 2200.0, 20000.0, 50000.0):
            with self.subTest(height):
                spec = solved(box(plan, height, slope_deg=3.0, pins=pins)).spec
                self.assertEqual(tuple(spec.plan.corners), self.CORNERS)
                self.assertAlmostEqual(spec.height_mm, 110.0, delta=1e-9)

    def test_what_only_rounding_ties_to_a_measure_does_not_move(self) -> None:
        pins = [Pin("a", 2.0, "pins.0")]
        for far in (40_000 / 3, 1e5 / 7, 49_999.9):
            found = settle((0.1, far), pins, lambda values: [(values[0] + values[1]) - values[1]], 2)
            self.assertEqual(found.values[1], far)
            self.assertAlmostEqual(found.values[0], 2.0, delta=1e-9)
