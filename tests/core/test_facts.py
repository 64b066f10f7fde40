"""Facts of a part: what stands on it, how it may be turned, how its joints' faces meet, against plain geometry."""

import unittest
from math import acos, atan, cos, degrees, hypot, pi, radians, sin, sqrt, tan

from fennup.app.services.demo import PROJECTS
from fennup.core.exchange.document import solution_document
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.alike import AS_IT_LIES
from fennup.core.parts.derived import derived_cut
from fennup.core.parts.needs import needs_of
from fennup.core.parts.solid import Solid, arris_line, solid_of
from fennup.core.project.forms import newest_form
from fennup.core.project.spec import ProjectSpec
from fennup.core.saw.marking import crossing, markings_of
from fennup.core.solve import Solution, solve
from fennup.core.workshop import Workshop
from tests.core.frames import all_starts, box, level, of_sides, rectangle, regular, solved

GRILLE = rectangle(
    "opening", 400.0, 300.0, 60.0,
    inner={"thickness_mm": 20.0, "bars": [{"count": 1, "width_mm": 30.0, "way_deg": 90.0}, {"count": 2, "width_mm": 20.0}]},
)  # fmt: skip


def whole(document: dict) -> Solution:
    return solve(ProjectSpec.model_validate(newest_form(document)), Workshop())


class Facts(unittest.TestCase):
    def test_what_stands_on_a_board_is_marked_from_its_left_end(self) -> None:
        made = solved(GRILLE)
        front = next(facts for facts in made.facts if "A" in facts.group.boards)
        (seat,) = front.seats["A"]
        # Upright in the middle of an opening of 400: 15 either side of 200 along the opening edge.
        self.assertEqual((seat.board, seat.side), ("X1", "upper"))
        self.assertAlmostEqual(seat.from_mm, 185.0, places=9)
        self.assertAlmostEqual(seat.to_mm, 215.0, places=9)
        # Two level ones of 20 in 300, equal gaps: 260 / 3 from either corner.
        side = next(facts for facts in made.facts if "B" in facts.group.boards)
        marks = sorted((seat.from_mm, seat.to_mm) for seat in side.seats["B"])
        for got, want in zip(marks, ((260 / 3, 260 / 3 + 20), (2 * 260 / 3 + 20, 2 * 260 / 3 + 40)), strict=True):
            self.assertAlmostEqual(got[0], want[0], places=9)
            self.assertAlmostEqual(got[1], want[1], places=9)

    def test_a_part_knows_how_it_may_be_turned(self) -> None:
        made = solved(GRILLE)
        # A rail shows its face and has a long and a short edge; a piece inside may lie any way, but its laps look one way.
        turns = {facts.key: facts.turns for facts in made.facts}
        self.assertEqual(turns["A"], (AS_IT_LIES,))
        self.assertEqual(len(turns["X1"]), 2)  # end for end, the laps still in its face
        plain = solved(
            rectangle("opening", 400.0, 300.0, 60.0, inner={"thickness_mm": 20.0, "bars": [{"count": 1, "width_mm": 30.0}]})
        )
        self.assertEqual(len(next(f for f in plain.facts if f.key == "X1").turns), 4)

    def test_faces_meet_at_the_angle_between_their_planes(self) -> None:
        slope, n = radians(12.0), 6
        # Outward normals of two neighbours, cos slope level and turned by 360 / n, sin slope down: by their dot product.
        normals = degrees(acos(cos(slope) ** 2 * cos(2 * pi / n) + sin(slope) ** 2))
        for spec, want in (
            (regular(5, 40.0, "opening_flats", mm=300.0), 180.0), (box(level(300.0, 200.0), 100.0), 90.0),
            (box(of_sides(n, 400.0), 200.0, slope_deg=12.0), 180.0 - normals),
        ):  # fmt: skip
            joint = solution_document(whole(spec), None).joints[0]
            self.assertAlmostEqual(joint.dihedral_deg, want, places=6)

    def test_cuts_that_a_miter_saw_does_not_make_are_named(self) -> None:
        self.assertEqual(whole(regular(6, 40.0, "opening_flats", mm=300.0)).plan.otherwise, ())
        gable = set(whole(KINDS["roof"].starts["gable"]).plan.otherwise)
        self.assertTrue({"m1/left1 notch:0"} <= gable, gable)
        leaning = whole(
            box(level(300.0, 300.0), 200.0, slope_deg=10.0, floor={"height_mm": 20.0, "thickness_mm": 12.0, "play_mm": 2.0})
        )
        otherwise = set(leaning.plan.otherwise)
        self.assertLessEqual({"m1/A upper", "m1/A lower"}, otherwise)
        self.assertTrue(any(key.startswith("m1/floor ") for key in otherwise))
        self.assertFalse(any(key.startswith("m1/A left") for key in otherwise))

    def test_laps_birdsmouths_and_holes_are_where_the_drawing_has_them(self) -> None:
        bar = next(facts for facts in solved(GRILLE).facts if facts.key == "X1")
        self.assertEqual([(round(lap.near_mm, 6), round(lap.far_mm, 6)) for lap in bar.laps],
                         [(round(260 / 3 * k + 20 * (k - 1), 6), round(260 / 3 * k + 20 * k, 6)) for k in (1, 2)])  # fmt: skip
        self.assertEqual({(lap.deep_mm, lap.side, round(lap.off_square_deg, 9)) for lap in bar.laps}, {(10.0, "face", 0.0)})
        gable = KINDS["roof"].starts["gable"]
        shape = gable["shape"] | {"foot": "birdsmouth", "heel_mm": 30.0}
        (mouth,) = solved(gable | {"shape": shape}).facts[0].birdsmouths
        pitch = radians(shape["left"]["pitch_deg"])
        # Plumb the heel, level the seat: a right angle whose height over the lower edge is heel cos pitch.
        self.assertAlmostEqual(mouth.heel_mm, 30.0, places=6)
        self.assertAlmostEqual(mouth.seat_mm, 30.0 / tan(pitch), places=6)
        self.assertAlmostEqual(mouth.deep_mm, 30.0 * cos(pitch), places=6)
        self.assertAlmostEqual(sqrt(mouth.heel_mm**2 + mouth.seat_mm**2), 30.0 / sin(pitch), places=6)
        row = {"board": "A", "count": 3, "diameter_mm": 6.0, "up_mm": 25.0}
        (holes,) = solved(rectangle("outside", 600.0, 400.0, 60.0, holes=[row])).facts[0].holes
        # A miter of 45: at 25 up the rail is 550 long; three middles evenly between its ends there.
        for got, want in zip(holes.along_mm, (137.5, 275.0, 412.5), strict=True):
            self.assertAlmostEqual(got, want, places=6)


class Marks(unittest.TestCase):
    def test_every_cut_but_the_first_is_marked_from_it_where_the_finished_part_ends(self) -> None:
        for start in [start for starts in all_starts().values() for start in starts]:
            made = whole(start)
            found = markings_of(made.plan.settings, made.design.boards)
            uses = {(u.part, u.end, u.index) for s in made.plan.settings for u in s.uses}
            self.assertEqual(uses, set(found))
            for part in {part for part, _, _ in uses}:
                own = [marking for (key, _, _), marking in found.items() if key == part]
                self.assertEqual(sum(marking.arris is None for marking in own), 1, part)
            for facts in made.design.facts:
                if facts.board.panel or facts.board.stave or any(len(cuts) > 1 for cuts in facts.ends.values()):
                    continue
                (marking,) = [m for (key, _, _), m in found.items() if key == facts.key and m.arris]
                # Taken on the solid: all its corners on that line, tip to tip; and no other line of it is longer.
                y, z = arris_line(facts.board, marking.arris)
                ends = solid_of(facts.board.but(notches=()))  # laps are cut later
                on = [p[0] for piece in ends.local for p in piece.points if hypot(p[1] - y, p[2] - z) < 1e-6]
                self.assertAlmostEqual(marking.length_mm, max(on) - min(on), places=6)
                self.assertAlmostEqual(marking.length_mm, max(facts.arrises.values()), places=6)

    def test_a_second_cut_at_the_first_end_is_marked_on_the_wood_that_the_first_one_left(self) -> None:
        checked = 0
        documents = [start for starts in all_starts().values() for start in starts]
        for document in [*documents, *(p["spec"] for p in PROJECTS if p["name"] in ("Slip lantern hip", "Winch shelter roof"))]:
            made = whole(document)
            for (part, end, index), marking in markings_of(made.plan.settings, made.design.boards).items():
                if marking.arris is None or marking.start != end:
                    continue
                board = made.design.boards[part]
                y, z = arris_line(board, marking.arris)
                start = crossing(marking.datum, (y, z))
                place = (start + (marking.length_mm if end == "left" else -marking.length_mm), y, z)
                self.assertLess(marking.datum.beyond(place), 1e-6, (part, end, marking))
                self.assertAlmostEqual(board.ends(end)[index].beyond(place), 0.0, places=6, msg=f"{part} {end} {marking}")
                checked += 1
        self.assertGreater(checked, 4)

    def test_the_second_cheek_of_a_hip_is_marked_back_from_the_first(self) -> None:
        made = whole(KINDS["roof"].starts["hip"])
        found = markings_of(made.plan.settings, made.design.boards)
        shape = made.spec.members["m1"].spec.shape
        # Two cheeks at 45 in plan over 40 of wood are 40 apart in plan on its face; along the slope that is over its cosine.
        run = hypot(shape.width_mm, shape.depth_mm) / 2
        plan, slope = shape.hip_thickness_mm, hypot(run, shape.rise_mm) / run
        self.assertAlmostEqual(found["m1/hip AB", "right", 1].length_mm, plan * slope, places=6)


class Needs(unittest.TestCase):
    def test_what_all_parts_take_of_each_section(self) -> None:
        (boards,) = needs_of(whole(rectangle("opening", 420.0, 300.0, 45.0)).design.facts, 2.4)
        # Two of 510, two of 390, and a kerf for each.
        self.assertEqual((boards.count, boards.longest_mm, boards.width_mm), (4, 510.0, 45.0))
        self.assertAlmostEqual(boards.sum_mm, 1800.0 + 4 * 2.4)
        floored = box(level(300.0, 300.0), 200.0, floor={"height_mm": 0.0, "thickness_mm": 12.0, "play_mm": 4.0})
        walls, floor = needs_of(whole(floored).design.facts, 0.0)
        self.assertEqual((walls.count, floor.count), (4, 1))
        self.assertEqual([round(v, 6) for v in floor.sheets[0]], [260.0, 260.0])
        # Staves: the length is up, the width round.
        (staves,) = needs_of(whole(box(level(300.0, 300.0), 200.0, grain="up")).design.facts, 0.0)
        self.assertEqual((round(staves.longest_mm, 6), round(staves.width_mm, 6)), (200.0, 300.0))


class Derivations(unittest.TestCase):
    def test_none_stands_where_the_solid_measures_otherwise(self) -> None:
        made = whole(box(level(300.0, 300.0), 260.0, slope_deg=10.0))
        joint = next(j for j in made.design.assembly.joints if ("m1/A", "right") in j.ends)
        solid = made.design.solids["m1/A"]
        found = derived_cut(made.design.assembly, solid, "right", 0, joint)
        assert found
        self.assertEqual(found.how, "ring")
        self.assertAlmostEqual(found.miter_deg, degrees(atan(tan(radians(10)) * cos(radians(10)))), places=6)
        # The wood of another box, cut a tenth of a degree otherwise, under the name of this one.
        other = whole(box(level(300.0, 300.0), 260.0, slope_deg=10.1)).design.solids["m1/A"]
        self.assertIsNone(derived_cut(made.design.assembly, Solid(solid.board, other.local, other.world), "right", 0, joint))

    def test_a_formula_gives_way_to_the_next_where_it_does_not_hold(self) -> None:
        for more, how in (
            ({"slopes_deg": {"AC": 20.0, "BD": 5.0}}, "slopes"),
            # Of unequal thickness the joint does not halve the angle between the faces.
            ({"slopes_deg": {"AC": 20.0, "BD": 5.0}, "thicknesses_mm": {"B": 30.0}}, "aslant"),
        ):
            made = whole(box(level(300.0, 300.0), 260.0, **more))
            joint = next(j for j in made.design.assembly.joints if ("m1/A", "right") in j.ends)
            found = derived_cut(made.design.assembly, made.design.solids["m1/A"], "right", 0, joint)
            self.assertEqual(found and found.how, how)
