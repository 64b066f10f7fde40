"""Weight, feet, tipping, wind, gaps, movement, sun and hooks: against figures worked out by hand from the sizes given."""

import unittest
from datetime import date
from math import atan, cos, degrees, radians, sin, sqrt, tan
from random import Random
from typing import Any

from fennup.app.services.demo import PROJECTS
from fennup.app.services.solving import solved_spec
from fennup.core.errors import SpecError
from fennup.core.finish.planned import Finish
from fennup.core.finish.standing import Standing
from fennup.core.finish.tables import USUAL_TABLES
from fennup.core.finish.wishes import FinishWishes, Holds, Site
from fennup.core.site.fill import filled
from fennup.core.site.gaps import caught_in, openings
from fennup.core.site.lids import lids_of
from fennup.core.site.moving import plastic_moves_mm, room_at, stack_in_rabbet, wood_moves_mm
from fennup.core.site.setout import distances, hung, moves
from fennup.core.site.sun import caught_part, declination_deg, noon_altitude_deg
from fennup.core.site.weight import (
    GRAVITY,
    Footing,
    Mass,
    footing_of,
    in_order_round,
    pull_on_wall,
    shares,
    tipping,
    weight_of,
    wind_on,
)
from fennup.core.workshop import Workshop
from tests.core.frames import Solved, box, level, rectangle, solved

STOUT = box(level(400.0, 300.0), 200.0, thickness_mm=20.0, floor={"height_mm": 0.0, "thickness_mm": 10.0})


def standing(made: Solved, **wishes: Any) -> Standing:
    return Standing(Finish(made.design, USUAL_TABLES, FinishWishes(**wishes)))


class Recess(unittest.TestCase):
    def test_a_stack_lies_in_what_strips_make_as_in_a_rabbet(self) -> None:
        size = {"by": "holds", "object_width_mm": 400.0, "object_depth_mm": 300.0, "play_mm": 2.0}
        strips = {"side": "back", "keeps_to": "opening", "set_back_mm": 9.0, "width_mm": 30.0, "thickness_mm": 12.0}
        frame = {
            "kind": "flat_frame",
            "shape": {"form": "rectangle", "size": size},
            "board": {"width_mm": 50.0, "thickness_mm": 20.0},
        }
        stack = Holds(glass_mm=2.0, art_mm=1.5, back_mm=3.0)
        for more, deep in (({"layers": {"1": strips}}, 12.0), ({"rabbet": {"width_mm": 8.0, "depth_mm": 9.0}}, 9.0)):
            ((_, depth, lies),) = standing(solved({**frame, **more}), holds=stack).recesses()
            self.assertEqual((depth, round(lies.left_mm, 9)), (deep, deep - 6.5))


class Weight(unittest.TestCase):
    def test_a_box_weighs_what_its_wood_does(self) -> None:
        made = solved(box(level(400.0, 300.0), 200.0, thickness_mm=20.0))
        mass = weight_of(made.design, dict.fromkeys(made.design.solids, 500.0))
        volume = (400.0 * 300.0 - 360.0 * 260.0) * 200.0
        self.assertAlmostEqual(mass.kg, volume * 1e-9 * 500.0, places=9)
        for value, right in zip(mass.at, (0.0, 0.0, 100.0), strict=True):
            self.assertAlmostEqual(value, right, places=6)
        # One wall of a wood twice as heavy pulls the middle towards it.
        heavy = weight_of(made.design, dict.fromkeys(made.design.solids, 500.0) | {"A": 1000.0})
        self.assertLess(heavy.at[1], -1.0)

    def test_two_masses_act_between_them(self) -> None:
        both = Mass(3.0, (0.0, 0.0, 0.0)).and_also(Mass(1.0, (100.0, 0.0, 40.0)))
        self.assertEqual((both.kg, both.at), (4.0, (25.0, 0.0, 10.0)))

    def test_feet_share_it_as_a_plane_does(self) -> None:
        feet = {"a": (0.0, 0.0), "b": (1000.0, 0.0), "c": (1000.0, 500.0), "d": (0.0, 500.0)}
        footing = Footing(feet, {}, tuple(feet.values()), 0.0)
        even = shares(footing, Mass(40.0, (500.0, 250.0, 300.0)))
        self.assertEqual({name: round(kg, 9) for name, kg in even.items()}, dict.fromkeys(feet, 10.0))
        # A quarter of the way over: a lever says 30 on the two feet at 0 and 10 on the two at 1000.
        aside = shares(footing, Mass(40.0, (250.0, 250.0, 300.0)))
        self.assertEqual([round(aside[name], 9) for name in "abcd"], [15.0, 5.0, 5.0, 15.0])
        # Three feet: levers alone say it.
        three = shares(Footing({k: feet[k] for k in "abd"}, {}, (), 0.0), Mass(10.0, (200.0, 100.0, 0.0)))
        self.assertEqual([round(three[name], 9) for name in "abd"], [6.0, 2.0, 2.0])
        self.assertEqual(shares(Footing({"a": (0, 0), "b": (1, 0)}, {}, (), 0.0), Mass(1.0, (0, 0, 0))), {})

    def test_tipping_over_the_nearest_edge(self) -> None:
        footing = Footing({}, {}, ((0.0, 0.0), (800.0, 0.0), (800.0, 400.0), (0.0, 400.0)), 0.0)
        tips = tipping(footing, Mass(10.0, (400.0, 150.0, 300.0)), 600.0)
        assert tips
        self.assertEqual((tips.inside_mm, {tips.a, tips.b}), (150.0, {(0.0, 0.0), (800.0, 0.0)}))
        self.assertAlmostEqual(tips.lean_deg, degrees(atan(150.0 / 300.0)), places=9)
        self.assertAlmostEqual(tips.push_n, 10.0 * GRAVITY * 150.0 / 600.0, places=9)
        over = tipping(footing, Mass(10.0, (400.0, -20.0, 300.0)), 600.0)
        assert over
        self.assertEqual(over.inside_mm, -20.0)

    def test_wind_against_a_box(self) -> None:
        made = solved(STOUT)
        mass = weight_of(made.design, dict.fromkeys(made.design.solids, 500.0))
        footing = footing_of(made.design)
        wind = wind_on(made.design, footing, mass, 5000.0, 4)
        assert wind
        # Square to its long side: 400 by 200 at half its height, against its weight at half of 300.
        push = 0.4 * 0.2 * 5000.0
        lift = (push * 100.0 - mass.kg * GRAVITY * 150.0) / 300.0
        # Turned by any angle it is broader both ways: the lift goes as width over depth, most where that is 400 over 300.
        self.assertAlmostEqual(wind.lift_n, lift, places=6)
        self.assertAlmostEqual(wind.each_n, wind.lift_n / 2, places=9)
        still = wind_on(made.design, footing, mass, 1.0, 4)
        assert still
        self.assertEqual(still.lift_n, 0.0)

    def test_wind_meets_what_an_open_frame_shows_and_all_of_a_covered_one(self) -> None:
        made = solved({
            "kind": "stand", "height_mm": 300.0, "leg": {"width_mm": 50.0, "thickness_mm": 50.0},
            "plan": {"form": "four", "top_width_mm": 1300.0, "top_depth_mm": 990.0, "front_splay_deg": 0.0, "side_splay_deg": 0.0},
        })  # fmt: skip
        mass, footing = weight_of(made.design, dict.fromkeys(made.design.solids, 500.0)), footing_of(made.design)
        shown, whole = (wind_on(made.design, footing, mass, 500.0, 4, covered=covered) for covered in (False, True))
        assert shown and whole
        # Four legs of 50: none hides none at its broadest, 50 (cos + sin); square to it two hide two.
        self.assertLessEqual(shown.area_m2, 4 * 0.05 * sqrt(2) * 0.3 + 1e-9)
        self.assertGreaterEqual(shown.area_m2, 2 * 0.05 * 0.3 - 1e-9)
        self.assertGreaterEqual(whole.area_m2, 0.99 * 0.3)
        self.assertAlmostEqual(shown.push_n, 500.0 * shown.area_m2)

    def test_glass_picture_and_back_hang_on_the_hooks_too(self) -> None:
        spec = next(p["spec"] for p in PROJECTS if p["name"] == "Regatta poster frame")
        design = solved_spec(spec, Workshop()).design
        bare, glazed = (
            Standing(Finish(design, USUAL_TABLES, FinishWishes(holds=Holds(glass_mm=g, back_mm=b)))) for g, b in ((0, 0), (2, 3))
        )
        self.assertAlmostEqual(glazed.loaded.kg - bare.loaded.kg, 0.594 * 0.42 * (2 * 2.5 + 3 * 1.0), places=6)
        self.assertAlmostEqual(bare.loaded.kg, bare.own.kg, places=9)

    def test_what_lies_on_it_lies_at_its_top(self) -> None:
        made = standing(solved(STOUT), holds=Holds(load_kg=10.0))
        own = made.own
        high = (own.kg * own.at[2] + 10.0 * 200.0) / (own.kg + 10.0)
        tips, loaded = made.tips, made.tips_loaded
        assert tips and loaded
        self.assertAlmostEqual(loaded.lean_deg, degrees(atan(150.0 / high)), places=6)
        self.assertGreater(tips.lean_deg, loaded.lean_deg)

    def test_the_sun_on_a_pyramid_of_45(self) -> None:
        hood = next(p["spec"] for p in PROJECTS if p["name"] == "Lifebuoy hood")
        sun = Standing(Finish(solved_spec(hood, Workshop()).design, USUAL_TABLES, FinishWishes())).sun
        assert sun
        self.assertAlmostEqual(sun.slope_deg, 45.0, places=6)
        self.assertEqual([s for s, _ in sun.variants if s in (0.0, 35.0, 45.0, 55.0)], [0.0, 35.0, 45.0, 55.0])

    def test_pulled_off_a_wall(self) -> None:
        self.assertAlmostEqual(pull_on_wall(12.0, 150.0, 400.0), 12.0 * GRAVITY * 150.0 / 400.0, places=9)


class Holding(unittest.TestCase):
    def test_what_a_leaning_box_of_four_holds(self) -> None:
        # The issue's: outer bottom 300, slope 15, 18 thick, 200 high, a floor of 12 with its underside at 10, filled to 150.
        spec = box(level(300.0, 300.0), 200.0, thickness_mm=18.0, slope_deg=15.0, floor={"height_mm": 10.0, "thickness_mm": 12.0})
        made = standing(solved(spec), holds=Holds(filling="water", level_mm=150.0))
        assert made.room

        def side(z: float) -> float:
            return 300.0 + 2 * (z * tan(radians(15.0)) - 18.0 / cos(radians(15.0)))

        low, high = 22.0, 150.0
        litres = (high - low) / 6 * (side(low) ** 2 + 4 * side((low + high) / 2) ** 2 + side(high) ** 2) / 1e6
        self.assertAlmostEqual(made.room.litres, litres, places=9)
        self.assertAlmostEqual(made.filling_kg, litres, places=9)
        self.assertAlmostEqual(made.loaded.kg, made.own.kg + litres, places=9)
        for up in (low, 80.0, high):
            inside = made.inside_at(up)
            assert inside
            self.assertAlmostEqual(inside[0], side(up), places=6)
        self.assertIsNone(room_at(made.room, 151.0))

    def test_a_liner_has_room_at_both_its_ends(self) -> None:
        spec = box(level(300.0, 240.0), 200.0, thickness_mm=20.0, slope_deg=10.0, floor={"height_mm": 0.0, "thickness_mm": 10.0})
        holds = Holds(level_mm=180.0, liner_width_mm=250.0, liner_depth_mm=180.0, liner_to_mm=120.0)
        (low, high) = standing(solved(spec), holds=holds).liner_play()
        self.assertEqual((low[0], high[0]), (10.0, 130.0))
        wide = 300.0 + 2 * (10.0 * tan(radians(10.0)) - 20.0 / cos(radians(10.0)))
        self.assertAlmostEqual(low[1], (wide - 250.0) / 2, places=6)
        self.assertAlmostEqual(high[2] - low[2], 120.0 * tan(radians(10.0)), places=6)

    def test_a_level_that_holds_nothing(self) -> None:
        with self.assertRaises(SpecError) as caught:
            _ = standing(solved(STOUT), holds=Holds(level_mm=5.0)).room
        self.assertEqual((caught.exception.code, caught.exception.fields), ("holds_nothing", ("holds/level_mm",)))
        (ring,) = solved(STOUT).assembly.rings
        self.assertAlmostEqual(filled(solved(STOUT).design, ring, 60.0).litres, 360.0 * 260.0 * 50.0 / 1e6, places=9)

    def test_a_lid_over_its_opening(self) -> None:
        made = solved(box(level(500.0, 300.0), 120.0, thickness_mm=25.0, cover={"thickness_mm": 18.0, "over_mm": 12.0}))
        (lid,) = lids_of(made.design)
        self.assertEqual([round(mm, 6) for mm in lid.over_mm], [12.0] * 4)
        self.assertEqual(sorted(round(mm, 6) for mm in lid.opening_mm), [250.0, 450.0])
        self.assertAlmostEqual(lid.bears_mm, 25.0, places=6)
        # A lean-to's lid lies on three walls: at the back its opening goes as far as the side walls do; 1180 less twice 40 over and twice 20 of wall.
        spec = next(p["spec"] for p in PROJECTS if p["name"] == "Oar rack lean-to")
        (lean,) = lids_of(solved_spec(spec, Workshop()).design)
        self.assertAlmostEqual(max(lean.opening_mm), 1060.0, places=6)
        self.assertGreater(min(lean.opening_mm), 300.0)

    def test_stacks_in_a_rabbet(self) -> None:
        for layers, left, holder in (
            ((2.0, 1.0, 3.0), 3.0, "points"),
            ((2.0,), 7.0, "buttons"),
            ((9.0,), 0.0, "level"),
            ((10.0,), -1.0, "proud"),
        ):
            lies = stack_in_rabbet(9.0, *layers)
            self.assertEqual((lies.left_mm, lies.holder), (left, holder))

    def test_wood_and_plastics_move(self) -> None:
        # A board of 200 at 0.29 percent for each percent of moisture, over 6 of them; a metre of acrylic over 50 degrees.
        self.assertAlmostEqual(wood_moves_mm(200.0, 0.0029, 6.0), 3.48, places=9)
        self.assertAlmostEqual(plastic_moves_mm(1000.0, 7.0e-5, 50.0), 3.5, places=9)
        made = solved(rectangle("outside", 900.0, 700.0, 100.0))
        moves = {m.part: m for m in standing(made, materials={"B": "acrylic"}, exposure="outdoors").moves()}
        self.assertAlmostEqual(moves["A"].by_mm, 100.0 * 0.0029 * 6.0, places=9)
        self.assertAlmostEqual(moves["B"].along_mm, 700.0 * 7.0e-5 * 50.0, places=6)


class Gaps(unittest.TestCase):
    POSTS = {"width_mm": 45.0, "thickness_mm": 45.0, "height_mm": 700.0, "row": "1"}

    def rails(self, *heights: float) -> Solved:
        rail = {"a": "A", "b": "B", "width_mm": 60.0, "thickness_mm": 20.0, "joint": {"form": "between"}}
        return solved({
            "kind": "post_frame", "columns": {"1": 0.0, "2": 800.0}, "rows": {"1": 0.0},
            "rails": {str(k): rail | {"height_mm": h} for k, h in enumerate(heights, 1)},
            "posts": {"A": self.POSTS | {"column": "1"}, "B": self.POSTS | {"column": "2"}},
        })  # fmt: skip

    def test_between_rails_one_after_the_other_and_not_through_one(self) -> None:
        made = self.rails(100.0, 260.0, 420.0)
        found = {(o.a, o.b): o for o in openings(made.design)}
        self.assertEqual(set(found), {("rail 1", "rail 2"), ("rail 2", "rail 3")})
        for opening in found.values():
            self.assertAlmostEqual(opening.least_mm, 100.0, places=6)
            self.assertAlmostEqual(opening.most_mm, 100.0, places=6)

    def test_what_could_be_caught(self) -> None:
        made = openings(self.rails(100.0, 260.0, 355.0).design)
        limits = {"head": (89.0, 230.0), "limb": (25.0, 45.0), "finger": (7.0, 12.0)}
        self.assertEqual([(c.what, c.opening.a) for c in caught_in(made, limits)], [("head", "rail 1"), ("limb", "rail 2")])
        self.assertEqual(caught_in(made, {"head": (100.5, 230.0), "limb": (36.0, 45.0)}), [])

    def test_a_bar_across_the_middle_leaves_what_is_open_beside_it(self) -> None:
        bars = {"thickness_mm": 10, "bars": [{"count": 1, "width_mm": 20, "way_deg": 90}]}
        made = solved(rectangle("opening", 400.0, 200.0, 40.0, inner=bars))
        told = sorted((o.a, o.b, round(o.least_mm, 6), round(o.most_mm, 6)) for o in openings(made.design))
        self.assertEqual(told, [("A", "C", 200.0, 200.0), ("B", "X1", 190.0, 190.0), ("D", "X1", 190.0, 190.0)])
        # One that runs between them all along closes it.
        along = solved(
            rectangle("opening", 400.0, 200.0, 40.0, inner={"thickness_mm": 10, "bars": [{"count": 1, "width_mm": 20}]})
        )
        self.assertEqual(sorted((o.a, o.b) for o in openings(along.design)), [("A", "X1"), ("C", "X1")])

    def test_legs_that_spread_are_a_gap_from_to(self) -> None:
        made = solved({
            "kind": "stand", "height_mm": 300.0, "leg": {"width_mm": 40.0, "thickness_mm": 40.0},
            "plan": {"form": "four", "top_width_mm": 200.0, "top_depth_mm": 160.0, "front_splay_deg": 0.0, "side_splay_deg": 10.0},
        })  # fmt: skip
        wide = max(openings(made.design), key=lambda o: o.most_mm - o.least_mm)
        # Both legs lean by 10 degrees: over 300 the gap grows by twice 300 times the tangent.
        self.assertAlmostEqual(wide.most_mm - wide.least_mm, 2 * 300.0 * tan(radians(10.0)), places=4)


class SettingUp(unittest.TestCase):
    def test_feet_by_their_middles_and_edges_by_their_corners(self) -> None:
        stand = standing(solved({
            "kind": "stand", "height_mm": 300.0, "leg": {"width_mm": 50.0, "thickness_mm": 50.0},
            "plan": {"form": "four", "top_width_mm": 1300.0, "top_depth_mm": 990.0, "front_splay_deg": 0.0, "side_splay_deg": 0.0},
        }))  # fmt: skip
        self.assertEqual(len(stand.places), 4)
        sides = sorted(round(stand.distances.get(pair) or stand.distances[pair[1], pair[0]], 6) for pair in stand.sides)
        # Legs of 50 within 1300 by 990: 1250 and 940 from middle to middle, as the issue has it.
        self.assertEqual(sides, [940.0, 940.0, 1250.0, 1250.0])
        self.assertAlmostEqual(max(stand.distances.values()), 1564.0013, places=4)
        corners = standing(solved(STOUT)).places
        self.assertEqual({(round(abs(x), 6), round(abs(y), 6)) for x, y in corners.values()}, {(200.0, 150.0)})
        names = list(stand.places)
        readings = {f"{names[0]}|{names[2]}": 1562.0, f"{names[1]}|{names[3]}": 1566.0}
        read = Standing(Finish(stand.finish.design, USUAL_TABLES, FinishWishes(site=Site(readings=readings))))
        self.assertAlmostEqual(abs(read.out_of_square or 0.0), 0.1525, places=4)
        self.assertLess(read.out_of_square or 0.0, 0.0)  # the second one is the longer
        self.assertEqual(read.three(10.0), (1240.0, 930.0, 1550.0))
        # Longer than both sides together: it cannot be, and nothing is told to be moved by it.
        over = {f"{names[0]}|{names[2]}": 2300.0, f"{names[1]}|{names[3]}": 1566.0}
        cannot = Standing(Finish(stand.finish.design, USUAL_TABLES, FinishWishes(site=Site(readings=over))))
        self.assertEqual(cannot.moves_to, {})
        with self.assertRaises(SpecError):
            _ = cannot.out_of_square

    def test_moves_from_the_two_diagonals_alone_make_sides_and_diagonals_right(self) -> None:
        # Sides true, half a degree out of square; then 300 set-outs of four places with two to six readings, made and measured again.
        a, b, lean = 2600.0, 1700.0, radians(90.5)
        lies = {"A": (0.0, 0.0), "B": (a, 0.0), "C": (a + b * cos(lean), b * sin(lean)), "D": (b * cos(lean), b * sin(lean))}
        planned = {"A": (0.0, 0.0), "B": (a, 0.0), "C": (a, b), "D": (0.0, b)}
        told = moves(planned, {pair: distances(lies)[pair] for pair in (("A", "C"), ("B", "D"))})
        self.assertAlmostEqual(told["C"].right_mm, b * sin(radians(0.5)), delta=1e-4)
        self.assertAlmostEqual(told["D"].right_mm, told["C"].right_mm, delta=1e-4)
        made = distances({name: (x + told[name].right_mm, y + told[name].back_mm) for name, (x, y) in lies.items()})
        for pair, length in distances(planned).items():
            self.assertAlmostEqual(made[pair], length, delta=1e-3, msg=str(pair))
        random = Random(33)
        for case in range(300):
            wide, deep = random.uniform(600.0, 4000.0), random.uniform(600.0, 4000.0)
            planned = {"A": (0.0, 0.0), "B": (wide, 0.0), "C": (wide, deep), "D": (0.0, deep)}
            off, few = radians(random.uniform(-2.0, 2.0)), random.randint(2, 6)
            # Out of square with true sides; where all is read, sides out as well.
            own = random.uniform(-8.0, 8.0) if few == 6 else 0.0
            top = (-deep * sin(off), deep * cos(off))
            lies = {"A": (0.0, 0.0), "B": (wide, 0.0), "C": (wide + top[0] + own, top[1]), "D": top}
            pairs = [("A", "C"), ("B", "D"), *random.sample([("A", "B"), ("B", "C"), ("C", "D"), ("A", "D")], few - 2)]
            told = moves(planned, {pair: distances(lies)[pair] for pair in pairs})
            made = distances({name: (x + told[name].right_mm, y + told[name].back_mm) for name, (x, y) in lies.items()})
            for pair, length in distances(planned).items():
                self.assertAlmostEqual(made[pair], length, delta=0.01, msg=f"{case} {pair} {pairs}")

    def test_their_order_is_round(self) -> None:
        feet = {"d": (0.0, 5.0), "b": (9.0, 0.0), "a": (0.0, 0.0), "c": (9.0, 5.0)}
        self.assertEqual(in_order_round(feet), ["a", "b", "c", "d"])

    def test_falling_ground_is_packed_up_to_the_highest(self) -> None:
        made = standing(solved(STOUT), site=Site(rises={"corner 2": -30.0, "corner 3": 12.0}))
        self.assertEqual(made.packing, {"corner 1": 12.0, "corner 2": 42.0, "corner 3": 0.0, "corner 4": 12.0})

    def test_hooks_and_the_studs_behind_them(self) -> None:
        marks = hung(800.0, 1800.0, 100.0, 30.0, -310.0, 600.0)
        self.assertEqual((marks.hooks_mm, marks.up_mm), ((-300.0, 300.0), 1770.0))
        self.assertEqual((marks.studs_mm, marks.on_studs), ((-310.0, 290.0), True))
        self.assertFalse(hung(800.0, 1800.0, 100.0, 30.0, 0.0, 600.0).on_studs)
        self.assertEqual(hung(800.0, 1800.0, 100.0, 30.0, 890.0, 600.0).studs_mm, (-310.0, 290.0))
        for inset, drop, code in ((500.0, 30.0, "hooks_cross"), (100.0, 1800.0, "hooks_low")):
            with self.subTest(code), self.assertRaises(SpecError) as caught:
                hung(800.0, 1800.0, inset, drop, 0.0, 600.0)
            self.assertEqual(caught.exception.code, code)

    def test_the_noon_sun(self) -> None:
        # The year's four corners: the equinoxes of 2027 are 8 hours after noon and 18 hours after it, at 0.395 degrees a day.
        for day, deg in (
            (date(2027, 3, 20), -0.14),
            (date(2027, 6, 21), 23.44),
            (date(2027, 9, 22), 0.29),
            (date(2027, 12, 21), -23.44),
        ):
            self.assertAlmostEqual(declination_deg(day), deg, delta=0.4)
        self.assertAlmostEqual(noon_altitude_deg(52.0, date(2027, 6, 21)), 90.0 - 52.0 + 23.44, delta=0.1)
        self.assertAlmostEqual(noon_altitude_deg(-52.0, date(2027, 12, 21)), 61.44, delta=0.1)
        # Level it gets the sine of the altitude; square to the sun all of it; turned away nothing.
        self.assertAlmostEqual(caught_part(0.0, 40.0), sin(radians(40.0)), places=12)
        self.assertAlmostEqual(caught_part(50.0, 40.0), 1.0, places=12)
        self.assertEqual((caught_part(90.0, -5.0), caught_part(0.0, 0.0)), (0.0, 0.0))
