"""Somebody's plan: which of its figures cannot all be true; and outlines out of drawings."""

import io
import unittest
from math import cos, pi, radians, sin, tan
from typing import Any
from unittest.mock import patch

import ezdxf

from fennup.core.errors import SpecError
from fennup.core.exchange.outline import outline_in
from fennup.core.plancheck.check import Stated, check_plan
from fennup.core.plancheck.stated import exactness
from fennup.core.project.starts import start_spec

S, P = "size:m1/", "part:m1/A:"
# A tub of eight walls, 356 across its flats at the bottom, leaning 15 degrees, 203 up the slope: from the cosine and the tangent alone.
FLATS, SLANT, SLOPE = 356.0, 203.0, 15.0
HEIGHT = SLANT * cos(radians(SLOPE))
TOP = FLATS + 2 * SLANT * sin(radians(SLOPE))
LONGEST = TOP * tan(pi / 8)
# A plan view's corner bisector, seen in the wall's own face: tan(miter) = sin(slope) tan(180 / n).
MITER = 6.1191


def tub(*changed: tuple[str, float, float]) -> list[Stated]:
    """The plan without a misprint, but for what is changed."""
    said = {
        f"{S}outer_bottom_flats": (FLATS, 0.5), f"{S}slant": (SLANT, 0.5), f"{S}slope": (SLOPE, 0.05), f"{S}height": (round(HEIGHT), 0.5),
        f"{S}outer_top_flats": (round(TOP), 0.5), f"{P}longest": (round(LONGEST, 1), 0.05), f"{P}miter": (6.1, 0.05),
    }  # fmt: skip
    said |= {key: (value, exact) for key, value, exact in changed}
    return [Stated(key, value, exact) for key, (value, exact) in said.items()]


class Plans(unittest.TestCase):
    def test_a_plan_that_is_right_is_right_to_its_rounding(self) -> None:
        checked = check_plan(start_spec("tub"), tub())
        self.assertEqual(checked.best.wrong, ())
        true = {v.stated.key: v.true for v in checked.best.verdicts}
        self.assertAlmostEqual(true[f"{S}height"] or 0.0, HEIGHT, places=6)
        self.assertAlmostEqual(true[f"{P}longest"] or 0.0, LONGEST, places=6)
        self.assertAlmostEqual(true[f"{P}miter"] or 0.0, MITER, places=3)

    def test_only_what_the_plan_says_counts_not_the_starts_own_boards(self) -> None:
        """Leaning walls 20 thick, where the start's are 18: nothing that was typed says otherwise."""
        said = [Stated(f"{S}outer_bottom_flats", 300.0, 0.5), Stated(f"{S}outer_top_flats", 400.0, 0.5), Stated(f"{S}height", 350.0, 0.5),
                Stated(f"{P}thickness", 20.0, 0.5)]  # fmt: skip
        checked = check_plan(start_spec("tub"), said)
        self.assertEqual(checked.best.wrong, ())
        self.assertEqual({v.stated.key: v.true for v in checked.best.verdicts}[f"{P}thickness"], 20.0)

    def test_every_misprint_is_found_wherever_it_stands_with_the_exact_value(self) -> None:
        for key, wrong, right in (
            (f"{S}outer_bottom_flats", 365.0, FLATS), (f"{S}slant", 230.0, SLANT), (f"{S}slope", 12.0, SLOPE), (f"{S}height", 169.0, HEIGHT),
            (f"{S}outer_top_flats", 416.0, TOP), (f"{P}longest", 199.0, LONGEST), (f"{P}miter", 9.1, MITER),
        ):  # fmt: skip
            with self.subTest(key=key):
                checked = check_plan(start_spec("tub"), tub((key, wrong, 0.5)))
                self.assertEqual(checked.best.wrong, (key,))
                (verdict,) = (v for v in checked.best.verdicts if v.wrong)
                # As exact as the rounded figures that it now follows from.
                self.assertAlmostEqual(verdict.true or 0.0, right, delta=1.5)
                self.assertAlmostEqual(verdict.off, wrong - (verdict.true or 0.0))

    def test_a_size_that_only_the_parts_tell_is_found_from_them(self) -> None:
        shortest = (FLATS - 2 * 18.0 / cos(radians(SLOPE))) * tan(pi / 8)
        said = [Stated(f"{S}outer_bottom_flats", 366.0, 0.5), Stated(f"{S}slant", SLANT, 0.5), Stated(f"{S}slope", SLOPE, 0.05),
                Stated(f"{P}longest", LONGEST, 0.05), Stated("field:members.m1.spec.thickness_mm", 18.0, 0.05), Stated(f"{P}shortest", shortest, 0.3)]  # fmt: skip
        checked = check_plan(start_spec("tub"), said)
        self.assertEqual(checked.best.wrong, (f"{S}outer_bottom_flats",))
        self.assertAlmostEqual(checked.best.verdicts[0].true or 0.0, FLATS, places=3)

    def test_where_any_of_several_may_be_wrong_all_are_told(self) -> None:
        # Height, width at the top and at the feet say the splay by themselves; with a fourth figure any of the four may be the misprint.
        said = [
            Stated(f"{S}height", 700, 0.5),
            Stated(f"{S}top_width", 500, 0.5),
            Stated(f"{S}foot_width", 800, 0.5),
            Stated(f"{S}front_splay", 20, 0.5),
        ]
        checked = check_plan(start_spec("trestle"), said)
        sets = {checked.best.wrong, *(other.wrong for other in checked.others)}
        self.assertEqual(sets, {(one.key,) for one in said})
        splay = next(
            v.true for e in (checked.best, *checked.others) for v in e.verdicts if e.wrong == (f"{S}front_splay",) and v.wrong
        )
        self.assertAlmostEqual(
            tan(radians(splay or 0.0)), 150 / 700, delta=0.01
        )  # the legs' middles: a leg's own width lies level at both ends

    def test_two_misprints_at_once(self) -> None:
        said = tub((f"{S}height", 169.0, 0.5), (f"{P}miter", 9.1, 0.05))
        checked = check_plan(start_spec("tub"), said)
        self.assertEqual((set(checked.best.wrong), checked.complete), ({f"{S}height", f"{P}miter"}, True))
        with patch("fennup.core.plancheck.check.MOST_LEFT_OUT", 1):
            self.assertFalse(check_plan(start_spec("tub"), said).complete, "what was not tried is told")

    def test_two_sizes_that_all_others_contradict(self) -> None:
        # Both come first, so that the solver takes them and refuses what is right.
        checked = check_plan(start_spec("tub"), tub((f"{S}outer_bottom_flats", 380.0, 0.5), (f"{S}slant", 240.0, 0.5)))
        self.assertIn({f"{S}outer_bottom_flats", f"{S}slant"}, [set(e.wrong) for e in (checked.best, *checked.others)])

    def test_figures_that_are_finer_than_those_they_follow_from_are_no_misprints(self) -> None:
        # 203.4 up a slope of 15.3, said as 203 and 15: height and width at the top, said to a tenth, are off what follows from those, as they may be.
        slant, slope = 203.4, radians(15.3)
        said = [Stated(f"{S}outer_bottom_flats", FLATS, 0.05), Stated(f"{S}slant", 203.0, 0.5), Stated(f"{S}slope", 15.0, 0.5)]
        fine = [
            Stated(f"{S}height", slant * cos(slope), 0.05),
            Stated(f"{S}outer_top_flats", FLATS + 2 * slant * sin(slope), 0.05),
        ]
        self.assertEqual(check_plan(start_spec("tub"), [*said, *fine]).best.wrong, ())

    def test_rounding_is_counted_as_it_was_written(self) -> None:
        for text, unit, each, half in (("203", "mm", 1.0, 0.5), ("203.5 mm", "mm", 1.0, 0.05), ("8 1/16", "mm", 25.4, 25.4 / 32), ("14.25″", "mm", 25.4, 0.127),
                                       ("15°", "deg", 1.0, 0.5), ("15.00", "deg", 1.0, 0.05), ("8", "count", 1.0, 0.0), ("1,5", "mm", 1.0, 0.05)):  # fmt: skip
            with self.subTest(text=text):
                self.assertAlmostEqual(exactness(text, unit, each), half)  # type: ignore[arg-type]

    def test_what_cannot_be_checked_is_said(self) -> None:
        for stated, code in (([], "plan_empty"), ([Stated(f"{S}height", 1, 0.5)] * 2, "said_twice"), ([Stated(f"{S}height", 1, 0.5)] * 41, "plan_long"),
                             ([Stated("field:members.m1.spec.plan.sides", 2, 0)], "field_cannot")):  # fmt: skip
            with self.subTest(code=code), self.assertRaises(SpecError) as refused:
                check_plan(start_spec("tub"), stated)
            self.assertEqual(refused.exception.code, code)


def svg(inside: str, head: str = 'width="400mm" height="400mm" viewBox="0 0 400 400"') -> str:
    return f'<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" {head}>{inside}</svg>'


def dxf(draw: Any, units: int = 4) -> str:
    document = ezdxf.new("R2010")
    document.header["$INSUNITS"] = units
    draw(document.modelspace())
    out = io.StringIO()
    document.write(out)
    return out.getvalue()


class Outlines(unittest.TestCase):
    def test_straight_outlines_come_in_exactly_whatever_the_unit(self) -> None:
        for name, text, size in (
            ("a.svg", svg('<rect x="20" y="30" width="300" height="200"/>'), (300.0, 200.0)),
            ("b.svg", svg('<g transform="translate(5 5) scale(2)"><path d="M0 0h100v50l-50 30l-50-30z"/></g>'), (200.0, 160.0)),
            ("c.svg", '<svg xmlns="http://www.w3.org/2000/svg"><rect width="96" height="192"/></svg>', (25.4, 50.8)),  # pixels: 96 to the inch
            ("d.dxf", dxf(lambda m: m.add_lwpolyline([(0, 0), (10, 0), (12, 5), (5, 9), (-1, 5)], close=True), 1), (13 * 25.4, 9 * 25.4)),
            ("e.dxf", dxf(lambda m: [m.add_line(a, b) for a, b in (((0, 0), (30, 0)), ((0, 40), (0, 0)), ((30, 40), (0, 40)), ((30, 0), (30, 40)))], 5), (300.0, 400.0)),
        ):  # fmt: skip
            with self.subTest(name=name):
                outline = outline_in(name, text)
                for got, want in zip(outline.size, size, strict=True):
                    self.assertAlmostEqual(got, want, places=5)
                self.assertEqual((outline.curved, round(outline.error_mm, 6)), (False, 0.0))
                area = sum(
                    a[0] * b[1] - b[0] * a[1]
                    for a, b in zip(outline.corners, (*outline.corners[1:], outline.corners[0]), strict=True)
                )
                self.assertGreater(area, 0, "anticlockwise")

    def test_curves_are_parted_evenly_and_the_error_is_the_sagitta(self) -> None:
        for most in (12, 24):
            for name, text in (
                ("a.svg", svg('<circle cx="200" cy="200" r="150"/>')),
                ("b.dxf", dxf(lambda m: m.add_circle((0, 0), 150))),
            ):
                with self.subTest(name=name, most=most):
                    outline = outline_in(name, text, most)
                    self.assertEqual(len(outline.corners), most)
                    best = 150 * (1 - cos(pi / most))  # of a ring of equal sides
                    self.assertGreaterEqual(outline.error_mm, best - 0.01)
                    self.assertLess(outline.error_mm, 1.1 * best)
                    for x, y in outline.corners:
                        self.assertAlmostEqual((x**2 + y**2) ** 0.5, 150, delta=2 * best)

    def test_the_largest_comes_in_and_all_else_is_told(self) -> None:
        inside = '<rect x="1" y="1" width="300" height="200"/><rect x="20" y="20" width="50" height="50"/><path d="M0 0L9 9"/><script>alert(1)</script>'
        inside += '<image xlink:href="http://127.0.0.1:1/x.png" width="1" height="1"/><text x="1" y="1">T</text>'
        outline = outline_in("a.svg", svg(inside))
        self.assertEqual((outline.others, outline.open_runs, outline.ignored), (1, 1, ("scripts", "pictures", "text")))
        self.assertAlmostEqual(outline.size[0], 300.0)

    def test_what_is_no_outline_is_refused_by_its_name(self) -> None:
        bomb = '<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;&a;">]><svg xmlns="http://www.w3.org/2000/svg"><text>&b;</text></svg>'
        for name, text, code in (
            ("a.svg", svg('<path d="M0 0L100 0L0 100L100 100Z"/>'), "outline_crosses"), ("b.svg", svg('<path d="M0 0H200V200H100V100H0Z"/>'), "outline_hollow"),
            ("c.svg", svg('<path d="M0 0L100 0L100 100"/>'), "outline_open"), ("d.svg", svg(""), "no_outline"), ("e.svg", "<svg><path", "drawing_broken"),
            ("f.svg", bomb, "drawing_entities"), ("g.txt", "hello", "drawing_unknown"), ("h.svg", svg('<rect width="3" height="200"/>'), "outline_small"),
            ("i.dxf", dxf(lambda m: m.add_lwpolyline([(0, 0), (9, 0), (9, 9)], close=True), 6), ""), ("j.dxf", dxf(lambda m: m.add_text("x")), "no_outline"),
            ("k.dxf", dxf(lambda m: m.add_lwpolyline([(0, 0), (90, 0), (90, 9), (0, 90)], close=True), 6), "outline_large"),
            ("l.dxf", dxf(lambda m: m.add_lwpolyline([(0, 0), (100, 100), (100, 0), (0, 100)], close=True)), "outline_crosses"),
            ("n.svg", svg("<path d='M0 0L9 9'/>" * 5000), "drawing_busy"),
            ("m.svg", svg("<!--" + "x" * (4 * 1024 * 1024) + "-->"), "drawing_large"),
        ):  # fmt: skip
            with self.subTest(name=name, code=code):
                if not code:
                    self.assertEqual(len(outline_in(name, text).corners), 3)
                    continue
                with self.assertRaises(SpecError) as refused:
                    outline_in(name, text)
                self.assertEqual(refused.exception.code, code)
