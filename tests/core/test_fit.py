"""The dry fit: forecast, readings and verdicts, as made, ways out, causes, order, passage. Expected figures come from formulas worked out here, from another
way of measuring, or from the published rows."""

import unittest
from datetime import UTC, datetime, timedelta
from itertools import combinations
from math import asin, atan, cos, degrees, hypot, radians, sin, sqrt, tan
from random import Random
from statistics import fmean, quantiles, stdev
from typing import Any

import numpy as np

from fennup.app.services.demo import PROJECTS
from fennup.app.wording.figures import Voice
from fennup.app.wording.fit import FitWords
from fennup.app.wording.fit_order import step_title
from fennup.core.assembly.board import Board, End
from fennup.core.fit.advice import advice_for
from fennup.core.fit.feet import Foot, firm_ways
from fennup.core.fit.fitting import Fit, Ground
from fennup.core.fit.forecast import Forecaster
from fennup.core.fit.gaps import Causes, GapRead
from fennup.core.fit.hand import Scatter, Working, working_of
from fennup.core.fit.made import Bench, Solver, as_made, only_shorter
from fennup.core.fit.meeting import Off, made_plane
from fennup.core.fit.order import Assembling, Blocked
from fennup.core.fit.passage import LoadSpace, PassageWishes, Turns, longest_round, passes, points_of, through
from fennup.core.fit.paths import Room
from fennup.core.fit.polygon import Corner, Figure, shape_of
from fennup.core.fit.repeats import laid_together
from fennup.core.fit.ways import WaysOut
from fennup.core.fit.web import Web
from fennup.core.fit.wishes import FitWishes
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import Vec
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.solid import end_cut
from fennup.core.records.entry import AgreedBody, CutBody, Entry, MeasuredBody, ReadBody, UndoneBody
from fennup.core.saw.hand import Hand
from fennup.core.solve import Solution, solve
from fennup.core.units.lengths import tape
from fennup.core.verify.made import Ends
from fennup.core.verify.rings import adds_up
from fennup.core.workshop import Workshop
from tests.core.cut_boards import project
from tests.core.frames import box, of_sides, rectangle, regular

NOON = datetime(2026, 11, 24, 12, 0, tzinfo=UTC)
STEADY = Working(Scatter(0.2), Scatter(0.1), Scatter(0.1))


def solution(document: dict[str, Any]) -> Solution:
    return solve(project(document), Workshop())


def fit_of(made: Solution, *entries: Entry, **wishes: Any) -> Fit:
    return Fit(Ground(made.design, made.plan), entries, FitWishes(**wishes))


def web_of(made: Solution) -> Web:
    return Web(made.design.assembly, made.design.solids)


def read(key: str, value: float, planned: float = 0.0, unit: str = "mm", n: int = 0, side: str = "") -> Entry:
    body = ReadBody(planned=planned, measured=value, unit=unit, side=side)  # type: ignore[arg-type]
    return Entry(f"r{n}{key}", key, "read", NOON + timedelta(minutes=n), body=body)


def told(fit: Fit, way: str) -> Any:
    """The one verdict of that sort."""
    (found,) = [t for t in fit.told if t.way == way]
    return found


def length(board: str, by: float) -> dict[Off, float]:
    return {Off(board, "length", "right"): by}


def all_cut(*boards: str) -> frozenset[str]:
    return frozenset(f"{board} {end}" for board in boards for end in ("left", "right"))


HEXAGON = solution(regular(6, 60.0, "outside_side", mm=300.0))
OCTAGON = solution(regular(8, 58.0, "outside_flats", mm=600.0))
SIX = tuple(f"m1/{letter}" for letter in "ABCDEF")


class Forecasts(unittest.TestCase):
    def test_scatter_of_a_ring(self) -> None:
        """Sixteen cuts of 0.1 degrees turn the last joint by 0.4, over a face of 58 / cos 22.5."""
        forecast = Forecaster(OCTAGON.design, OCTAGON.plan).forecast(STEADY)
        (ring,) = forecast.rings
        self.assertAlmostEqual(ring.along_sigma_mm, radians(0.1) * sqrt(16) * 58 / cos(radians(22.5)), 6)
        self.assertAlmostEqual(ring.along_sigma_mm, 0.4383, 4)

    def test_a_constant_error_adds_up(self) -> None:
        """All cuts 0.1 too blunt: 1.6 degrees in all, over the faces as they are then cut."""
        exact = Working(Scatter(1e-9), Scatter(1e-9), Scatter(1e-9))
        forecast = Forecaster(OCTAGON.design, OCTAGON.plan).forecast(exact, blunt_deg=0.1)
        self.assertAlmostEqual(forecast.rings[0].constant_mm, 2 * 58 / cos(radians(22.4)) * sin(radians(0.8)), 6)
        self.assertAlmostEqual(forecast.rings[0].constant_mm, 1.7518, 4)
        self.assertLess(forecast.rings[0].scatter_mm, 1e-6)
        self.assertEqual(forecast.chance, 0.0)

    def test_it_is_what_random_rings_do(self) -> None:
        """Against rings cut at random, flat and leaning, their last joints reckoned corner by corner on the solids."""
        for made in (OCTAGON, solution(box(of_sides(5, 300.0), 120.0, slope_deg=14.0))):
            forecaster = Forecaster(made.design, made.plan)
            working = Working(Scatter(1e-9), Scatter(0.3), Scatter(1e-9))
            (ring,) = forecaster.forecast(working, blunt_deg=0.0).rings
            constant = {o: by for o, by in zip(forecaster.web.offs, forecaster.constants(working).tolist(), strict=True)}
            random = Random(4)
            found = []
            for _ in range(500):
                offs = {o: constant[o] + random.gauss(0.0, 0.3) for o in forecaster.web.offs if o.is_angle}

                def cutter(board: Board, end: End, cut: Plane, offs: dict[Off, float] = offs) -> Vec:
                    return made_plane(board, end, 0, offs).normal

                found.append(adds_up(Ends(made.design.assembly, made.design.solids, cutter), None)[0].opening_mm)
            # The random rings are pushed until they touch, so a tilt both ways opens a little less than both together.
            self.assertAlmostEqual(ring.expect_mm / fmean(found), 1.0, delta=0.1)
            self.assertAlmostEqual(ring.nine_mm / quantiles(found, n=10)[-1], 1.0, delta=0.1)
            self.assertGreater(ring.expect_mm, 0.95 * fmean(found))

    def test_a_length_counts_at_one_end_and_in_a_ring_at_the_last_joint(self) -> None:
        """A brace too short by e stands off by e cos(miter) at its right end; in a ring a length opens no joint by itself."""
        exact = Working(Scatter(0.2), Scatter(1e-9), Scatter(1e-9))
        bracket = solution(next(e["spec"] for e in PROJECTS if e["name"] == "Sign bracket"))
        by_joint = {o.joint: o for o in Forecaster(bracket.design, bracket.plan).forecast(exact).joints}
        square = abs(bracket.design.boards["m1/brace"].right[0].normal[0])
        self.assertAlmostEqual(by_joint["m1/brace right"].scatter_mm, 0.2 * square, 6)
        self.assertLess(by_joint["m1/brace left"].scatter_mm, 1e-6)
        ring = Forecaster(OCTAGON.design, OCTAGON.plan).forecast(exact)
        self.assertLess(max(o.scatter_mm for o in ring.joints), 1e-6)
        self.assertGreater(ring.rings[0].scatter_mm, 0.2)

    def test_slopes_are_what_small_errors_do(self) -> None:
        """Of every project: loops with small errors of all sorts at once, gone round joint by joint, against their slopes."""
        random = Random(3)
        for entry in PROJECTS:
            web = web_of(solution(entry["spec"]))
            offs = {off: random.gauss(0.0, 0.01) for off in web.offs}
            values = np.array([offs[off] for off in web.offs])
            for loop in (*web.loops, *web.rings):
                self.assertLess(float(np.abs(web.mismatch(loop, {})).max()), 1e-7, entry["name"])
                self.assertLess(float(np.abs(web.mismatch(loop, offs) - web.gradient(loop) @ values).max()), 1e-3, entry["name"])

    def test_what_it_depends_on(self) -> None:
        """A ring's lengths open it along the joint's normal: their share of the variance, from the sides' directions."""
        forecast = Forecaster(OCTAGON.design, OCTAGON.plan).forecast(STEADY)
        shares = {share.cause: share.scatter for share in forecast.shares}
        # The last joint's plane is square to a line 22.5 degrees off its sides; each side counts by its cosine to that.
        lengths = 0.2**2 * sum(cos(radians(45 * k + 22.5)) ** 2 for k in range(8))
        swings = (radians(0.1) * 58 / cos(radians(22.5))) ** 2 * 16
        tilts = (radians(0.1) * 20) ** 2 * sum(cos(radians(45 * k)) ** 2 for k in range(8)) * 2 * cos(radians(22.5)) ** 2
        self.assertAlmostEqual(shares["length"] / shares["swing"], lengths / swings, 5)
        self.assertLess(shares["tilt"], 2 * tilts / (lengths + swings + tilts))
        self.assertAlmostEqual(sum(shares.values()), 1.0)

    def test_how_exactly_one_must_work(self) -> None:
        """Scatter smaller by the factor that is told keeps nine in ten under the wished gap."""
        forecaster = Forecaster(OCTAGON.design, OCTAGON.plan)
        needs = forecaster.forecast(STEADY, 0.3).needs
        assert needs and needs.factor and needs.angle_deg and needs.length_mm
        better = Working(Scatter(0.2 * needs.factor), Scatter(needs.angle_deg), Scatter(0.1))
        self.assertAlmostEqual(forecaster.forecast(better).rings[0].nine_mm, 0.3, 6)
        self.assertIsNone(forecaster.forecast(STEADY, 0.3, blunt_deg=0.2).needs.factor)  # type: ignore[union-attr]

    def test_the_hand_is_known_from_twenty_on(self) -> None:
        offs = [0.1 * (k % 5) - 0.1 for k in range(20)]
        entries = [
            Entry(f"e{k}", "m1/A right:0", "measured", NOON, body=MeasuredBody(what="length", planned=100.0, measured=100.0 + off, unit="mm", verdict="right"))
            for k, off in enumerate(offs)
        ]  # fmt: skip
        self.assertEqual(working_of(Hand(), entries[:19]).length, Scatter(0.2, count=19))
        self.assertEqual(working_of(Hand(length_mm=0.4), entries[:19]).length.source, "typed")
        known = working_of(Hand(length_mm=0.4), entries).length
        self.assertEqual((known.source, known.count), ("measured", 20))
        self.assertAlmostEqual(known.sigma, stdev(offs))
        self.assertAlmostEqual(known.always, fmean(offs))
        slip = MeasuredBody(what="length", planned=100.0, measured=120.0, unit="mm", verdict="wrong")
        self.assertEqual(working_of(Hand(), [*entries, Entry("slip", "m1/B right:0", "measured", NOON, body=slip)]).length, known)


class Readings(unittest.TestCase):
    def setUp(self) -> None:
        self.made = solution(rectangle("outside", 640.0, 420.0, 60.0))
        self.front_left, self.front_right = "m1 outside DA-BC", "m1 outside AB-CD"

    def test_out_of_square(self) -> None:
        fit = fit_of(self.made, read(self.front_left, 764.2), read(self.front_right, 766.8))
        self.assertAlmostEqual(fit.sheet.by_key[self.front_left].value, hypot(640, 420), 6)
        found = told(fit, "out_of_square")
        self.assertAlmostEqual(found.figures["turned_deg"], degrees(asin((766.8 - 764.2) * (766.8 + 764.2) / (4 * 640 * 420))), 6)
        (move,) = found.moves
        self.assertEqual((move.held, move.moved), ("m1/B", ("m1/D",)))
        self.assertAlmostEqual(move.by_mm, 2.369, 3)
        self.assertLess(move.way[1], -0.99)  # forward
        # What that opens: the miter is 60 / cos 45 long.
        self.assertAlmostEqual(found.figures["opens_mm"], 60 * sqrt(2) * tan(radians(0.21212)), 3)

    def test_how_far_off_does_not_matter(self) -> None:
        """A diagonal's play is what racks the frame until its miters stand open by what is let pass: a b / d times that angle."""
        near = fit_of(self.made).sheet.by_key[self.front_left].near
        self.assertAlmostEqual(near, 640 * 420 / hypot(640, 420) * 0.5 / (60 * sqrt(2)), 6)

    def test_equal_and_both_wrong(self) -> None:
        found = told(fit_of(self.made, read(self.front_left, 770.0), read(self.front_right, 770.0)), "equal_wrong")
        self.assertAlmostEqual(found.off, 770 - hypot(640, 420), 6)
        self.assertAlmostEqual(hypot(640 + found.figures["one_mm"], 420), 770.0, delta=0.05)

    def test_misread(self) -> None:
        self.assertEqual(told(fit_of(self.made, read(self.front_left, 765.5 / 25.4)), "slip").slip, "inches")
        self.assertEqual(told(fit_of(self.made, read(self.front_left, 765.5 + 304.8)), "slip").slip, "foot")
        self.assertEqual(told(fit_of(self.made, read(self.front_left, 29000.0)), "unit").verdict, "wrong")
        # What was misread does not make the other one wrong.
        both = fit_of(self.made, read(self.front_left, 29000.0), read(self.front_right, 765.5))
        self.assertEqual({t.way for t in both.told}, {"unit", "right"})

    def test_more_ways_to_misread(self) -> None:
        """5' 3" as 53 and 53 as 5' 3", feet and inches exchanged, a nought too many, metres, two digits that changed places."""
        inch = 25.4
        for expected, value, slip in (
            (63.0 * inch, 53.0 * inch, "run"), (53.0 * inch, 63.0 * inch, "run"), (31.0 * inch, 86.0 * inch, "feet_inches"),
            (742.0, 7420.0, "nought"), (742.0, 0.742, "m"), (1342.0, 1432.0, "swapped"), (742.0, 701.0, None),
        ):  # fmt: skip
            frame = solution(rectangle("outside", 0.8 * expected, 0.6 * expected, 30.0))
            found = fit_of(frame, read(self.front_left, value)).told[0]
            self.assertEqual(found.slip, slip, f"{value} for {expected}: {found.way}")

    def test_diagonals_that_cannot_be_and_the_one_to_read_again(self) -> None:
        # Longer than both sides together: 1060. Then 900 and 640 (of 765.5): each could be, not both, by the sum of their squares.
        over = fit_of(self.made, read(self.front_left, 1100.0), read(self.front_right, 766.0)).told
        (found,) = [t for t in over if t.way == "no_shape"]
        self.assertEqual((found.keys[0], found.moves, round(found.off, 6)), (self.front_left, (), 40.0))
        both = told(fit_of(self.made, read(self.front_left, 900.0), read(self.front_right, 745.0)), "no_shape")
        other = sqrt(2 * (640**2 + 420**2) - 745.0**2)
        self.assertEqual(both.keys[0], self.front_left)
        self.assertAlmostEqual(both.off, 900.0 - other, places=6)

    def test_a_frame_racked_by_far_is_not_misread_where_both_diagonals_fit(self) -> None:
        # 4 degrees: both are out by more than an inch, in one parallelogram.
        c = cos(radians(94.0))
        one, two = (sqrt(640**2 + 420**2 + sign * 2 * 640 * 420 * c) for sign in (1, -1))
        found = told(fit_of(self.made, read(self.front_left, one), read(self.front_right, two)), "out_of_square")
        self.assertAlmostEqual(found.figures["turned_deg"], 4.0, places=6)

    def test_sides_that_were_read_are_weighed_against_the_diagonals(self) -> None:
        plan = {"form": "four", "top_width_mm": 400.0, "top_depth_mm": 300.0, "front_splay_deg": 0.0, "side_splay_deg": 0.0}
        made = solution({"kind": "stand", "plan": plan, "height_mm": 720.0, "leg": {"width_mm": 45.0, "thickness_mm": 45.0}})
        sheet = fit_of(made).sheet
        sides = [e for e in sheet.readings if e.kind == "feet_side"]
        diagonals = [e for e in sheet.readings if e.kind == "feet_diagonal"]
        wide, deep = sides[0].value, sides[1].value
        long = hypot(wide + 12.0, deep)  # both sides of one pair are 12 longer: square all the same
        reads = [read(e.key, e.value + (12.0 if abs(e.value - wide) < 1e-6 else 0.0)) for e in sides]
        fit = fit_of(made, *reads, *(read(e.key, long) for e in diagonals))
        self.assertEqual(
            [t.way for t in fit.told if t.keys[0] in {e.key for e in diagonals} and t.way in ("no_shape", "slip")], []
        )

    def test_no_shape_has_these(self) -> None:
        """Of five equal sides two diagonals fix the shape, and the third follows."""
        around = [(200 * sin(radians(72 * k)), 200 * cos(radians(72 * k))) for k in range(5)]
        figure = Figure("f", tuple(Corner(str(k), (x, y, 0.0)) for k, (x, y) in enumerate(around)), tuple("ABCDE"), 50.0)
        side, wide = 2 * 200 * sin(radians(36)), 2 * 200 * sin(radians(72))
        # Corner 0 opened until its diagonal is 6 longer: the triangles on it and on the opposite diagonal are then known.
        true = shape_of(figure, {(1, 4): wide + 6.0, (0, 2): wide})
        self.assertLess(true.missed_mm, 1e-6)
        self.assertAlmostEqual(hypot(*(true.corners[1] - true.corners[4])), wide + 6.0, 6)
        self.assertAlmostEqual(hypot(*(true.corners[2] - true.corners[3])), side, 6)
        third = float(hypot(*(true.corners[0] - true.corners[3])))
        self.assertGreater(shape_of(figure, {(1, 4): wide + 6.0, (0, 2): wide, (0, 3): third + 25.0}).missed_mm, 5.0)
        self.assertLess(shape_of(figure, {(1, 4): wide + 6.0, (0, 2): wide, (0, 3): third}).missed_mm, 1e-6)

    def test_no_shape_is_told(self) -> None:
        five = solution(regular(5, 60.0, "outside_side", mm=300.0))
        keys = [e.key for e in fit_of(five).sheet.readings if e.figure == "m1 outside" and e.kind == "diagonal"]
        true = 300 * (1 + sqrt(5)) / 2
        one_out = fit_of(five, *(read(key, true + (18.0 if k == 2 else 0.0)) for k, key in enumerate(keys)))
        self.assertEqual([t.way for t in one_out.told], ["no_shape"])
        self.assertEqual([t.way for t in fit_of(five, *(read(key, true) for key in keys)).told], ["right"])

    def test_a_corner_by_the_gauge(self) -> None:
        found = told(fit_of(HEXAGON, read("m1/AB corner", 121.0, 120.0, "deg")), "open_corner")
        self.assertAlmostEqual(found.figures["each_deg"], 0.5)
        self.assertAlmostEqual(found.figures["opens_mm"], 60 / cos(radians(30)) * tan(radians(1.0)), 6)

    def test_leaning_faces_crosswise(self) -> None:
        """A wall's crosswise measure: half of top and bottom together, and its slant."""
        made = solution(box({"form": "rectangle", "width_mm": 300.0, "depth_mm": 200.0}, 150.0, slope_deg=12.0))
        sheet = fit_of(made).sheet
        top = 300 + 2 * 150 * tan(radians(12))
        crosswise = [e.value for e in sheet.readings if e.kind == "crosswise" and e.boards == ("m1/A",)]
        self.assertEqual(len(crosswise), 2)
        for value in crosswise:
            self.assertAlmostEqual(value, hypot((300 + top) / 2, 150 / cos(radians(12))), 6)
        # The angle between two walls, from inside: 90 + asin(sin^2 a).
        corner = next(e for e in sheet.readings if e.kind == "corner")
        self.assertAlmostEqual(corner.value, 90 + degrees(asin(sin(radians(12)) ** 2)), 6)

    def test_how_far_apart_legs_and_bars_are(self) -> None:
        """Splayed legs at any height; bars by the room that is left over."""
        plan = {"form": "four", "top_width_mm": 560.0, "top_depth_mm": 400.0, "front_splay_deg": 8.0, "side_splay_deg": 0.0}
        made = solution({"kind": "stand", "plan": plan, "height_mm": 720.0, "leg": {"width_mm": 45.0, "thickness_mm": 45.0}})
        gaps = [e for e in fit_of(made).sheet.readings if e.kind == "spacing" and set(e.boards) == {"m1/DA", "m1/AB"}]
        self.assertEqual(len(gaps), 3)
        for e in gaps:
            self.assertAlmostEqual(e.value, 560 + 2 * (720 - e.a[2]) * tan(radians(8)) - 2 * 45 / cos(radians(8)), 6)
        grille = solution(next(e["spec"] for e in PROJECTS if e["name"] == "Boat-bay vent grille"))
        bars = [e.value for e in fit_of(grille).sheet.readings if e.kind == "spacing" and "Y" in e.boards[0]]
        self.assertEqual(len(bars), 9)
        for value in bars:
            self.assertAlmostEqual(value, (640 - 4 * 30) / 5, 6)

    def test_four_feet(self) -> None:
        """A leg 2 short rocks by that; a plane through three heights says what trimming does."""
        feet = tuple(Foot(name, (x, y, 0.0), 10.0) for name, x, y in (("A", 0, 0), ("B", 500, 0), ("C", 500, 300), ("D", 0, 300)))
        both, under, one, other = firm_ways(feet, "C", 2.0)
        self.assertEqual([(board, round(mm, 9)) for board, mm, _ in both.off], [("B", 1.0), ("D", 1.0)])
        self.assertAlmostEqual(both.off[0][2], 1 / cos(radians(10)))
        self.assertAlmostEqual(both.slope_deg, degrees(atan(hypot(1 / 500, 1 / 300))), 9)
        self.assertEqual(under.under, (("C", 2.0),))
        self.assertEqual([round(w.off[0][1], 9) for w in (one, other)], [2.0, 2.0])
        self.assertEqual({round(w.slope_deg, 6) for w in (one, other)}, {round(degrees(atan(2 / n)), 6) for n in (500, 300)})

    def test_what_is_gone_is_kept_apart(self) -> None:
        gone, taken = read("m1/Q gap", 0.4), read("m1/AB gap", 0.4, n=1)
        fit = fit_of(
            HEXAGON, gone, taken, Entry("u", taken.id, "undone", NOON + timedelta(hours=1), body=UndoneBody(takes_back=taken.id))
        )
        self.assertEqual([entry.key for entry in fit.standing.strays], ["m1/Q gap"])
        self.assertEqual(fit.told, [])


class AsMadeAndWaysOut(unittest.TestCase):
    def test_the_smallest_change(self) -> None:
        """A side 2 short: the neighbours half a mm more, the next half less, the opposite one less; least sum of squares of the closing sum."""
        web = web_of(HEXAGON)
        free = [off for off in web.offs if off.board != "m1/A" and off.end]
        settled = Solver(web).settle(length("m1/A", -2.0), free)
        by_side = {b: sum(by for off, by in settled.changes.items() if off.board == b) for b in SIX[1:]}
        for side, by in zip(SIX[1:], (0.5, -0.5, -1.0, -0.5, 0.5), strict=True):
            self.assertAlmostEqual(by_side[side], by, 6)
        made = as_made(HEXAGON.design, web, {**length("m1/A", -2.0), **settled.changes})
        self.assertTrue(all(joint.closes for joint in made.joints))

    def test_only_the_opposite(self) -> None:
        """All cut: the opposite side 2 shorter, and no other one cut."""
        bench = Bench(length("m1/A", -2.0), all_cut(*SIX))
        ways = WaysOut(HEXAGON.design, web_of(HEXAGON), bench, 2.5).ways("m1/A")
        others = next(way for way in ways if way.kind == "recut_others")
        self.assertEqual((others.pieces, others.cuts), (("m1/D",), 1))
        self.assertAlmostEqual(sum(others.changes.values()), -2.0, 6)
        solver = Solver(web_of(HEXAGON))
        for side in SIX[1:]:
            settled = solver.settle(length("m1/A", -2.0), [Off(side, "length", "right"), Off(side, "length", "left")])
            self.assertEqual(settled.closes, side == "m1/D")

    def test_cut_parts_only_become_shorter(self) -> None:
        """A side 2 too long: trimmed itself, or two others of those that point its way shortened; never one made longer."""
        bench = Bench(length("m1/A", 2.0), all_cut(*SIX))
        ways = WaysOut(HEXAGON.design, web_of(HEXAGON), bench, 2.5).ways("m1/A")
        self.assertEqual(ways[0].kind, "trim")
        for way in ways:
            if way.kind == "recut_others":
                self.assertTrue(all(by < 0 for by in way.changes.values()))
        board = HEXAGON.design.boards["m1/A"]
        self.assertTrue(only_shorter(HEXAGON.design, board, {}, length("m1/A", -1.0)))
        self.assertFalse(only_shorter(HEXAGON.design, board, {}, length("m1/A", 1.0)))

    def test_what_stays_open(self) -> None:
        """Left as it is, the gap at a joint is what it lacks along the joint's normal: 2 cos 30."""
        leave = next(
            w
            for w in WaysOut(HEXAGON.design, web_of(HEXAGON), Bench(length("m1/A", -2.0), all_cut(*SIX)), 2.5).ways("m1/A")
            if w.kind == "leave"
        )
        self.assertAlmostEqual(leave.gap_mm, 2 * cos(radians(30)), 5)

    def test_every_kind_closes_again(self) -> None:
        """Of every project of the demo one end comes out otherwise: where something may change the solids close, as measured face by face."""
        random, closed = Random(7), 0
        for entry in PROJECTS:
            made = solution(entry["spec"])
            web = web_of(made)
            offs = [off for off in web.offs if off.what == "length"]
            if not offs:
                continue
            off = random.choice(offs)
            fixed = {off: -1.5}
            settled = Solver(web).settle(fixed, [o for o in web.offs if o.end and o.board != off.board])
            if settled.closes and all(not o.is_angle for o in settled.told):
                closed += 1
                for before, after in zip(
                    made.design.joints, as_made(made.design, web, {**fixed, **settled.changes}).joints, strict=True
                ):
                    self.assertLess(
                        max(after.gap_mm, after.overlap_mm),
                        max(before.gap_mm, before.overlap_mm) + 1e-5,
                        f"{entry['name']}: {after.joint}",
                    )
        self.assertGreater(closed, 12)

    def test_a_thicker_wall_makes_what_stands_on_its_back_shorter(self) -> None:
        """Shelves between walls: a wall 1 thicker stands 1 farther in, a bar's rail 1 wider likewise; on the solids they meet again."""
        case = box(
            {"form": "rectangle", "width_mm": 300.0, "depth_mm": 240.0},
            120.0,
            shelves=[{"height_mm": 100.0, "thickness_mm": 12.0}],
        )
        grille = next(e["spec"] for e in PROJECTS if e["name"] == "Boat-bay vent grille")
        for document, wall, what, loose in ((case, "m1/B", "thick", "m1/shelf1"), (grille, "m1/B", "wide", "m1/X1")):
            made = solution(document)
            web = web_of(made)
            fixed = {Off(wall, what): 1.0}  # type: ignore[arg-type]
            own = [off for off in web.offs if off.end and (off.board == loose or off.board.startswith("m1/X"))]
            settled = Solver(web).settle(fixed, own)
            self.assertTrue(settled.closes)
            self.assertAlmostEqual(sum(by for off, by in settled.changes.items() if off.board == loose), -1.0, 6)
            joints = as_made(made.design, web, {**fixed, **settled.changes}).joints
            self.assertLess(max(max(j.gap_mm, j.overlap_mm) for j in joints if loose.split("/")[1] in j.joint), 1e-6)

    def test_the_bench_and_what_was_agreed(self) -> None:
        """Measured at the bench, it is known at the fit; agreed, what is still to cut is another length, until it is cut and measured itself."""
        fit = fit_of(HEXAGON)
        last = {t.piece: t for t in fit.tasks if t.doing == "step" and any(c.what == "length" for c in t.checks)}
        (check,) = [c for c in last["m1/A"].checks if c.what == "length"]
        cut = [
            Entry(f"c{k}", t.key, "cut", NOON, fingerprint=t.fingerprint, body=CutBody())
            for k, t in enumerate(fit.tasks)
            if t.piece == "m1/A"
        ]
        said = MeasuredBody(what="length", planned=check.expected, measured=check.expected - 2.0, unit="mm", verdict="wrong")
        short = Entry("m", last["m1/A"].key, "measured", NOON + timedelta(minutes=1), body=said)
        known = fit_of(HEXAGON, *cut, short)
        self.assertAlmostEqual(sum(known.offs.values()), -2.0)
        self.assertEqual(known.bad, ("m1/A",))
        self.assertAlmostEqual(next(c for c in known.changes if c.board == "m1/D").new_mm, 299.0, 4)
        agreed = Entry(
            "a",
            "as made",
            "agreed",
            NOON + timedelta(minutes=2),
            body=AgreedBody(changes={o.key: by for o, by in known.proposed.items()}),
        )
        after = fit_of(HEXAGON, *cut, short, agreed)
        self.assertLess(after.open_mm, 0.05)
        self.assertEqual(after.changes, ())

    def test_a_part_typed_as_made(self) -> None:
        """A gauge on the long edge reads more where the cut is blunter: the miter lacks that."""
        entry = read("made m1/A right:0 swing", 61.0, 60.0, "deg")
        (off,) = fit_of(HEXAGON, entry).offs
        cut = end_cut(HEXAGON.design.boards["m1/A"].right[0])
        self.assertAlmostEqual(abs(cut.miter_deg + fit_of(HEXAGON, entry).offs[off]), 29.0)

    def test_a_gauge_that_reads_more_shows_a_blunter_cut(self) -> None:
        """Whatever the signs of miter and bevel: typed at the fit or measured at the bench, the angle's size lacks what was read more."""
        signs = set()
        for entry in PROJECTS:
            made = solution(entry["spec"])
            fit = fit_of(made)
            for rows in fit.standing.rows.values():
                for row in (r for r in rows if r.off.is_angle and r.off.end):
                    cut = end_cut(made.design.boards[row.off.board].ends(row.off.end)[row.off.index])  # type: ignore[arg-type]
                    angle = cut.miter_deg if row.off.what == "swing" else cut.bevel_deg
                    sign = 0 if abs(angle) < 1e-6 else 1 if angle > 0 else -1
                    if not sign or (row.off.what, sign) in signs:
                        continue
                    signs.add((row.off.what, sign))
                    typed = fit_of(made, read(row.key, row.planned + 0.5, row.planned, "deg"))
                    self.assertAlmostEqual(abs(angle + typed.offs[row.off]), abs(angle) - 0.5)
                    self.assertAlmostEqual(
                        next(r.read or 0 for r in typed.standing.rows[row.off.board] if r.key == row.key), row.planned + 0.5
                    )
                    what = "face" if row.off.what == "swing" else "tilt"
                    task = next(
                        t for t in fit.tasks if t.key == f"{row.off.board} {row.off.end}:{row.off.index}" and t.doing == "step"
                    )
                    if any(c.what == what for c in task.checks):
                        said = MeasuredBody(
                            what=what, planned=row.planned, measured=row.planned + 0.5, unit="deg", verdict="near"
                        )
                        bench = fit_of(made, Entry("m", task.key, "measured", NOON, body=said))
                        self.assertAlmostEqual(abs(angle + bench.offs[row.off]), abs(angle) - 0.5)
        self.assertEqual(signs, {("swing", 1), ("swing", -1), ("tilt", 1), ("tilt", -1)})

    def test_the_later_yes_holds(self) -> None:
        first, later = (
            Entry(f"a{k}", "as made", "agreed", NOON + timedelta(minutes=k), body=AgreedBody(changes={"m1/D right length": by}))
            for k, by in enumerate((-2.0, -0.5))
        )
        for said in ((first, later), (later, first)):
            self.assertAlmostEqual(sum(fit_of(HEXAGON, *said).offs.values()), -0.5)

    def test_what_was_cut_before_a_yes_is_not_cut_by_it(self) -> None:
        tasks = [t for t in fit_of(HEXAGON).tasks if t.piece == "m1/D" and t.doing == "step"]
        yes = Entry("a", "as made", "agreed", NOON, body=AgreedBody(changes={"m1/D right length": -2.0}))
        for minutes, made in ((-5, 0.0), (5, -2.0)):
            cut = [Entry(f"c{k}", t.key, "cut", NOON + timedelta(minutes=minutes), body=CutBody()) for k, t in enumerate(tasks)]
            self.assertAlmostEqual(sum(fit_of(HEXAGON, yes, *cut).offs.values()), made)

    def test_the_wrong_way_round(self) -> None:
        """Rails of a regular ring are their own mirror image; the gable trim's are another one's, or none's."""
        ways = WaysOut(HEXAGON.design, web_of(HEXAGON), Bench({}, frozenset()), 2.5)
        self.assertTrue(ways.mirrored("m1/A")[0].same_part)
        arch = solution(next(e["spec"] for e in PROJECTS if e["name"] == "Oar hatch arch"))
        other = WaysOut(arch.design, web_of(arch), Bench({}, frozenset()), 2.5).mirrored("m1/B")[0]
        self.assertEqual((other.kind, other.pieces, other.same_part), ("use", ("m1/H",), True))

    def test_repeats(self) -> None:
        offs = {Off(b, "length", "right"): by for b, by in zip(SIX, (0.0, 0.1, -0.1, 0.9, 0.0, 0.05), strict=True)}
        (laid,) = laid_together(HEXAGON.design, Bench(offs, all_cut(*SIX)), 0.5)
        self.assertEqual((laid.pair, laid.good, [id for id, _ in laid.shave]), (("m1/C", "m1/D"), False, ["m1/D"]))
        self.assertAlmostEqual(laid.spread_mm, 1.0)
        self.assertAlmostEqual(laid.gap_mm, cos(radians(30)), 6)


class Gaps(unittest.TestCase):
    def test_the_setting_or_the_cut_that_was_measured(self) -> None:
        """One gap alone speaks for the setting that all ends share; a cut that was measured explains what it explains."""
        forecaster = Forecaster(HEXAGON.design, HEXAGON.plan)
        gap = GapRead("m1/CD", 1.2, "lower")
        first = Causes(forecaster, STEADY, Bench({}, frozenset())).behind([gap], {}, gap)[0]
        self.assertEqual(len(first.offs), 12)
        self.assertLess(first.by, 0.0)  # blunter opens at the outer edge
        measured = Bench({Off("m1/B", "swing", "right"): -degrees(atan(1.2 * cos(radians(30)) / 60))}, frozenset())
        first = Causes(forecaster, STEADY, measured).behind([gap], {}, gap)[0]
        self.assertEqual([off.key for off in first.offs], ["m1/B right:0 swing"])
        self.assertAlmostEqual(first.share, 1.0, 2)
        half = Bench({Off("m1/B", "swing", "right"): -degrees(atan(0.6 * cos(radians(30)) / 60))}, frozenset())
        known = next(c for c in Causes(forecaster, STEADY, half).behind([gap], {}, gap) if c.offs == tuple(half.offs))
        self.assertAlmostEqual(known.by, sum(half.offs.values()), 9)  # what is measured is not guessed anew

    def test_whichever_joint_is_left_to_the_last(self) -> None:
        """Blunter cuts open every joint of a regular ring alike, at the same side."""
        through = {
            name: {"joint": "butt", "through": rail} for name, rail in (("AB", "A"), ("BC", "C"), ("CD", "C"), ("DA", "A"))
        }
        butted = solution(rectangle("outside", 500.0, 500.0, 60.0, corners=through))
        self.assertEqual(len({step.forward for loop in web_of(butted).rings for step in loop.way}), 2)  # gone through both ways
        for made, side, what in ((HEXAGON, "lower", "swing"), (butted, "lower", "swing"), (solution(box(of_sides(5, 300.0), 120.0, slope_deg=14.0)), "face", "tilt"),
                                 (solution(next(e["spec"] for e in PROJECTS if e["name"] == "Flag tower")), "face", "tilt")):  # fmt: skip
            forecaster = Forecaster(made.design, made.plan)
            causes, web = Causes(forecaster, STEADY, Bench({}, frozenset())), forecaster.web
            blunt = np.zeros(len(web.offs))
            for off, k in web.place.items():
                if off.what == what and off.end:
                    cut = end_cut(made.design.boards[off.board].ends(off.end)[off.index])
                    angle = cut.miter_deg if what == "swing" else cut.bevel_deg
                    blunt[k] = -0.1 if angle > 0 or made is butted else 0.1
            opened = [float(causes.row(GapRead(m.joint.id, 1.0, side))[1] @ blunt) for loop in web.rings[:1] for m in loop.joints]  # type: ignore[arg-type]
            self.assertGreater(abs(opened[0]), 0.05)
            for value in opened:
                self.assertAlmostEqual(value, opened[0], 6, made.design.assembly.boards[0].name)

    def test_the_cure(self) -> None:
        """The angle that closes a gap across a miter 60 / cos 30 long; filled under paint, not under oil."""
        entry = read("m1/CD gap", 0.9, side="lower")
        for finish, cure in (("paint", "fill"), ("oil", "recut")):
            (cured,) = fit_of(HEXAGON, entry, finish=finish).cured.values()
            self.assertEqual(cured.cure, cure)
            self.assertAlmostEqual(cured.turn_deg, degrees(atan(0.9 * cos(radians(30)) / 60)), 6)
        (outdoors,) = fit_of(HEXAGON, entry, finish="paint", outdoors=True).cured.values()
        self.assertEqual(outdoors.cure, "recut")  # there half of what holds indoors


class Together(unittest.TestCase):
    def test_ways_are_free(self) -> None:
        """Two blocks side by side slide along each other, and not through each other."""
        room = Room(HEXAGON.design.solids)
        self.assertTrue(room.is_free(["m1/A"], ["m1/B", "m1/F"], (0.0, -1.0, 0.0)))
        self.assertFalse(room.is_free(["m1/A"], ["m1/D"], (0.0, 1.0, 0.0)))
        self.assertFalse(room.is_free(["m1/A"], ["m1/B", "m1/F"], (0.0, 1.0, 0.0)))
        self.assertTrue(room.is_free(["m1/A"], ["m1/B", "m1/F"], (0.0, 0.0, 1.0)))

    def test_every_step_comes_along_a_way_that_is_free(self) -> None:
        """Of every project all boards come, all joints are closed once, and no step goes through wood: tried by sliding it out bit by bit."""
        for entry in PROJECTS:
            made = solution(entry["spec"])
            assembling = Assembling(made.design, web_of(made))
            closed = [joint for step in assembling.order for joint in step.joints]
            wanted = {m.joint.id for m in web_of(made).meetings.all.values() if not (m.a.found and m.b.found)}
            self.assertEqual((sorted(closed), len(closed)), (sorted(wanted), len(set(closed))), entry["name"])
            for step in assembling.order[:6]:
                if step.way:
                    for far in (1.0, 7.0, 40.0):
                        self.assertFalse(
                            _meets(made, step.moved, step.onto, tuple(far * v for v in step.way)), (entry["name"], step.key)
                        )

    def test_sides_that_belong_together_are_joined_each_as_one(self) -> None:
        bench = {**KINDS["post_frame"].starts["slat_bench"], "alike": "x"}
        made = solution(bench)
        order = Assembling(made.design, web_of(made)).order
        sides = [set(side.boards) for side in made.design.assembly.subassemblies]
        self.assertEqual(sides, [{"m1/A", "m1/C", "m1/rail 3"}, {"m1/B", "m1/D", "m1/rail 4"}])
        # Each is whole before anything comes to it, or it to anything.
        for side in sides:
            mixed = next(
                k for k, step in enumerate(order) if {*step.moved, *step.onto} & side and not {*step.moved, *step.onto} <= side
            )
            own = [step for step in order[:mixed] if {*step.moved, *step.onto} <= side]
            self.assertEqual(set().union(*({*step.moved, *step.onto} for step in own)), side)
            self.assertTrue(side <= set(order[mixed].moved) or side <= set(order[mixed].onto))
        titles = [step_title(step, FitWords(made, Voice(tape("mm", "1")))) for step in order]
        self.assertIn("Left side: rail 3 to post A", titles)
        self.assertTrue(any(title.startswith("The right side to the left side") for title in titles), titles)

    def test_a_panel_in_a_groove_comes_before_the_ring_is_closed(self) -> None:
        made = solution(
            box(
                {"form": "rectangle", "width_mm": 300.0, "depth_mm": 200.0},
                90.0,
                back={"thickness_mm": 6.0, "depth_mm": 6.0, "from_edge_mm": 12.0, "play_mm": 1.0},
            )
        )
        order = Assembling(made.design, web_of(made)).order
        panel = next(k for k, step in enumerate(order) if "m1/back" in step.moved or "m1/back" in step.onto)
        closing = next(k for k, step in enumerate(order) if step.closes)
        self.assertLessEqual(panel, closing)
        self.assertTrue({"m1/back"} & {*order[closing].moved, *order[closing].onto})

    def test_what_a_step_needs(self) -> None:
        """A ring of six is held by a band, two where it leans, a frame of four by corner clamps; the glue's time against the joints of a step."""
        for document, hold in ((regular(6, 60.0, "outside_side", mm=300.0), "band"), (rectangle("outside", 600.0, 400.0, 60.0), "corner_clamps"),
                               (box(of_sides(6, 300.0), 120.0, slope_deg=10.0), "band_leaning")):  # fmt: skip
            fit = fit_of(solution(document))
            closing = next(step for step in fit.order[0] if step.closes)
            advice = advice_for(fit.assembling, fit.sheet, closing, 1.5, 10.0)
            self.assertIn(hold, advice.holds)
            self.assertEqual((advice.minutes, advice.in_time, advice.goes, advice.final), (3.0, True, 1, True))
            slow = advice_for(fit.assembling, fit.sheet, closing, 1.5, 2.0)
            self.assertEqual((slow.in_time, slow.goes), (False, 2))
            self.assertTrue(advice.checks)

    def test_an_order_that_locks_a_part_out_is_refused(self) -> None:
        made = solution(box({"form": "rectangle", "width_mm": 300.0, "depth_mm": 200.0}, 90.0))
        assembling = Assembling(made.design, web_of(made))
        keys = [step.key for step in assembling.order]
        self.assertEqual([step.key for step in assembling.checked(keys)], keys)
        with self.assertRaises(Blocked):
            assembling.checked([keys[-1], *keys[:-1]])


def _meets(made: Solution, moved: tuple[str, ...], onto: tuple[str, ...], by: Any) -> bool:
    """Whether some boards shifted so share wood with others: by the solid-modelling library of the second proof."""
    from manifold3d import Manifold

    def hull(id: str, shift: Any) -> list[Any]:
        return [Manifold.hull_points(np.array(piece.points) + np.array(shift)) for piece in made.design.solids[id].world]

    others = [m for id in onto for m in hull(id, (0.0, 0.0, 0.0))]
    return any((a ^ b).volume() > 1e-3 for id in moved for a in hull(id, by) for b in others)


class Passage(unittest.TestCase):
    def test_a_ring_leaning_through_a_door(self) -> None:
        """2100 across flats, 80 thick: height 2100 cos + 80 sin, width 2100 sin + 80 cos."""
        made = solution(regular(6, 120.0, "outside_flats", thickness=80.0, mm=2100.0))
        way = through(Turns(points_of(made.design.solids, SIX)), 820.0, 2060.0)
        assert way
        self.assertFalse(way.upright)
        self.assertAlmostEqual(way.least_deg, 13.5903, 4)
        self.assertAlmostEqual(way.most_deg, 20.7849, 4)
        self.assertAlmostEqual(2100 * cos(radians(way.least_deg)) + 80 * sin(radians(way.least_deg)), 2060.0, 6)
        self.assertAlmostEqual(2100 * sin(radians(way.most_deg)) + 80 * cos(radians(way.most_deg)), 820.0, 6)

    def test_a_panel_that_just_fits_is_found_between_two_leans(self) -> None:
        """A panel a by b leans through a door exactly as wide and as high as it then is, in 50 cases: half a millimetre less and it does not go, by as much as
        a search in steps of a thousandth of a degree finds."""
        random = Random(9)
        leans = np.radians(np.arange(-90.0, 90.0, 0.001))
        for case in range(50):
            a, b, lean = random.uniform(1500.0, 3000.0), random.uniform(20.0, 400.0), radians(random.uniform(8.0, 40.0))
            long = 3100.0  # ahead, longer than both: it must go end first
            wide, high = a * sin(lean) + b * cos(lean), a * cos(lean) + b * sin(lean)
            points = np.array([(x, y, z) for x in (0.0, b) for y in (0.0, long) for z in (0.0, a)])
            way = through(Turns(points), wide + 0.01, high + 0.01)
            assert way, f"{case}: {a} x {b} at {degrees(lean)}"
            self.assertLessEqual(max(way.wide_mm - wide, way.high_mm - high), 0.01 + 1e-6)
            door = {"width_mm": wide - 0.5, "height_mm": high - 0.5}
            (passing,) = passes(points, PassageWishes.model_validate({"door": door}))
            over = np.maximum(
                a * abs(np.sin(leans)) + b * np.cos(leans) - wide + 0.5, a * np.cos(leans) + b * abs(np.sin(leans)) - high + 0.5
            ).min()
            if over <= 0:
                continue  # it goes at another lean
            self.assertIsNone(passing.way)
            self.assertAlmostEqual(passing.short_mm, float(over), delta=0.05)

    def test_round_a_corner(self) -> None:
        """A line without width: (a^2/3 + b^2/3)^3/2; one as wide as the way cannot be turned."""
        self.assertAlmostEqual(longest_round(900.0, 700.0, 0.0), (900 ** (2 / 3) + 700 ** (2 / 3)) ** 1.5, delta=0.1)
        self.assertLess(longest_round(900.0, 900.0, 900.0), 901.0)

    def test_into_a_load_space(self) -> None:
        made = solution(rectangle("outside", 900.0, 700.0, 60.0))
        points = points_of(made.design.solids, tuple(made.design.solids))
        fits, not_ = (PassageWishes(load=LoadSpace(width_mm=w, height_mm=30.0, length_mm=901.0)) for w in (701.0, 600.0))
        self.assertIsNotNone(passes(points, fits)[0].way)
        short = PassageWishes(load=LoadSpace(width_mm=701.0, height_mm=30.0, length_mm=800.0))
        self.assertIsNone(passes(points, short)[0].way)
        told_ = passes(points, not_)[0]
        self.assertIsNone(told_.way)
        self.assertGreater(told_.short_mm, 0.0)

    def test_it_comes_apart(self) -> None:
        """Too large whole: in pieces that all go through, none lost and none twice."""
        fit = fit_of(HEXAGON, passage={"load": {"width_mm": 30.0, "height_mm": 330.0, "length_mm": 560.0}})
        self.assertIsNone(fit.passing[0].way)
        split = fit.split
        assert split
        self.assertEqual(sorted(id for piece in split.pieces for id in piece), sorted(SIX))
        for piece in split.pieces:
            self.assertIsNotNone(passes(points_of(HEXAGON.design.solids, piece), fit.wishes.passage)[0].way)
        self.assertTrue(
            all(
                not ({a, b} <= set(piece))
                for piece in split.pieces
                for a, b in combinations(SIX, 2)
                if f"m1/{a[-1]}{b[-1]}" in split.joints
            )
        )


if __name__ == "__main__":
    unittest.main()
