"""Sections read out of outlines, and the workshop's mouldings: areas by the shoelace, what a lip bears by a beam's own formula, frames by the miter's triangle."""

import random
import unittest
from itertools import pairwise
from math import cos, hypot, pi, radians, sin, sqrt
from typing import Any

from fennup.core.boards.planned import Cuttings, Order, plan_boards
from fennup.core.boards.rack import PriceList
from fennup.core.boards.wishes import Wishes
from fennup.core.drawing.edit import Choose, Edit, TypeIn
from fennup.core.errors import SpecError
from fennup.core.exchange.cuts_document import cuts_document
from fennup.core.exchange.outline import section_in
from fennup.core.finish.faces import faces_of
from fennup.core.geometry.vec import Point2
from fennup.core.kinds.flat_frame.edit import edit as edit_frame
from fennup.core.kinds.moulding.edit import edit as edit_runs
from fennup.core.kinds.moulding.spec import MouldingSpec
from fennup.core.kinds.ploughing import chosen_profile
from fennup.core.mouldings.drawn import moulding_view
from fennup.core.mouldings.frames import Frame, frames_of, project_with, short_by_mm
from fennup.core.mouldings.library import Mouldings, after_cutting, edit_mouldings, sources_in
from fennup.core.plan import plan_with
from fennup.core.solve import Solution, designed
from fennup.core.steps.planned import steps_for
from fennup.core.stock.glued import united
from fennup.core.stock.lip import Lip, lip_of
from fennup.core.stock.outlined import section_of, turned
from fennup.core.stock.ploughed import CURVE_MM, Ploughed
from fennup.core.stock.section import Section
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof
from fennup.core.workshop import Workshop
from tests.core.cut_boards import bar, on_rack
from tests.core.frames import solved, spec_of
from tests.core.test_section import RABBET, ROUND, photograph, section

MM = tape("mm", "1")
KERF = 2.4
HOLDS = {"form": "rabbet", "corner": "back_upper", "width_mm": 9.0, "depth_mm": 8.0}
PLAIN = {"name": "Plain", "width_mm": 47.0, "thickness_mm": 20.0, "ploughed": [HOLDS]}
CREW = {
    "name": "Crew",
    "width_mm": 410.0,
    "height_mm": 300.0,
    "glass_mm": 2.0,
    "art_mm": 1.0,
    "back_mm": 3.0,
    "play_mm": 3.0,
    "weight_kg": 1.2,
}
HEAD = '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100">'


def shoelace(ring: list[Point2]) -> float:
    """Area of a closed outline."""
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in pairwise([*ring, ring[0]])) / 2


def star(rng: random.Random, corners: int) -> list[Point2]:
    """An outline round a middle, anticlockwise, hollow wherever it happens."""
    turns = sorted(2 * pi * (k + rng.uniform(0.1, 0.9)) / corners for k in range(corners))
    return [(r * cos(t) * 2, r * sin(t)) for t in turns for r in [rng.uniform(9, 22)]]


def drawn(path: str) -> Section:
    """The section of a path in mm."""
    return section_in("a.svg", f'{HEAD}<path d="{path}"/></svg>').section


def library(*mouldings: dict[str, Any], contents: tuple[dict[str, Any], ...] = (CREW,)) -> Mouldings:
    """Mouldings m1, m2, ... and contents c1, c2, ..."""
    return Mouldings.model_validate(
        {
            "mouldings": {f"m{k + 1}": moulding for k, moulding in enumerate(mouldings)},
            "contents": {f"c{k + 1}": content for k, content in enumerate(contents)},
        }
    )


def the_frame(*mouldings: dict[str, Any], **content: Any) -> Frame:
    """The only frame that comes out."""
    return next(frames_of(library(*mouldings, contents=(CREW | content,)), KERF))


def after(now: Mouldings, *acts: Edit) -> Mouldings:
    """The mouldings after some acts."""
    for act in acts:
        now = Mouldings.model_validate(edit_mouldings(now, act, MM))
    return now


class Outlines(unittest.TestCase):
    def test_any_outline_is_a_section_of_as_much_wood_in_convex_pieces(self) -> None:
        rng = random.Random(5)
        for corners in range(3, 40):
            ring = star(rng, corners)
            made = section_of(ring)
            self.assertAlmostEqual(made.area_mm2, shoelace(ring), delta=1e-3)
            self.assertTrue(made.hangs_together)
            for piece in made.pieces:
                for a, b, c in zip(piece, (*piece[1:], piece[0]), (*piece[2:], *piece[:2]), strict=True):
                    self.assertGreater((b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]), -1e-6)
            # Four quarters round it is as it was, turned over twice too; once it is not.
            quarter = turned(made, "quarter")
            self.assertEqual((quarter.width_mm, quarter.thickness_mm), (made.thickness_mm, made.width_mm))
            back = turned(turned(turned(quarter, "quarter"), "quarter"), "quarter")
            for again in (back, turned(turned(made, "over"), "over")):
                self.assertAlmostEqual(again.area_mm2, made.area_mm2, delta=1e-3)
                self.assertLess(
                    max(hypot(a[0] - b[0], a[1] - b[1]) for a, b in zip(again.outline, made.outline, strict=True)), 1e-4
                )
            self.assertFalse(turned(made, "over").same_as(made))
        # What was the upper edge is the face: the opening edge of a frame is turned up.
        self.assertEqual([cut.corner for cut in turned(section(RABBET), "quarter").ploughed], ["face_upper"])  # type: ignore[union-attr]
        self.assertEqual([cut.corner for cut in turned(section(RABBET), "over").ploughed], ["back_lower"])  # type: ignore[union-attr]

    def test_a_hollow_in_any_side_lies_where_it_was_drawn(self) -> None:
        # One in each side, none of them a groove: so deep, and so far from the side's one end.
        ring = [(0.0, 0.0), (5.0, 0.0), (7.0, 6.0), (15.0, 0.0), (60.0, 0.0), (60.0, 3.0), (54.0, 5.0), (60.0, 12.0), (60.0, 30.0), (50.0, 30.0), (46.0, 22.0), (30.0, 30.0),
                (0.0, 30.0), (0.0, 25.0), (8.0, 21.0), (0.0, 12.0)]  # fmt: skip
        made = section_of(ring)
        self.assertEqual([cut.form for cut in made.ploughed], ["milled"] * 4)
        at = {(round(y + 30, 6), round(z + 15, 6)) for y, z in made.outline}
        self.assertEqual(at, set(ring))
        self.assertTrue(made.hangs_together)

    def test_a_way_out_and_back_again_is_none_and_what_touches_itself_is_refused(self) -> None:
        square = [(0.0, 0.0), (40.0, 0.0), (40.0, 20.0), (0.0, 20.0)]
        spiked = [*square[:2], (40.0, 8.0), (30.0, 8.0), (40.0, 8.0), *square[2:]]
        self.assertEqual(section_of(spiked), section_of(square))
        with self.assertRaises(SpecError):
            section_of([(0, 0), (40, 0), (40, 20), (20, 20), (30, 10), (10, 10), (20, 20), (0, 20)])  # hangs by a line

    def test_outlines_that_touch_along_their_sides_are_one_those_that_touch_at_a_corner_are_not(self) -> None:
        def block(y: float, z: float, wide: float = 1.0) -> list[Point2]:
            return [(y, z), (y + wide, z), (y + wide, z + 1), (y, z + 1)]

        (whole,) = united([block(0, 0, 3.0), block(1, 1), block(2, -1)])
        self.assertAlmostEqual(shoelace(list(whole)), 5.0)
        self.assertEqual([shoelace(list(loop)) for loop in united([block(0, 0), block(1, 1)])], [1.0, 1.0])
        ring = united([block(0, 0, 3.0), block(0, 2, 3.0), block(0, 1), block(2, 1)])
        self.assertEqual(sorted(round(shoelace(list(loop)), 9) for loop in ring), [-1.0, 9.0])

    def test_frames_of_any_outline_close_in_both_proofs_and_are_sawn_right(self) -> None:
        rng = random.Random(11)
        for corners in (5, 7, 9, 12, 17):
            made = section_of(star(rng, corners))
            document = photograph() | {
                "rabbet": None,
                "shape": {"form": "rectangle", "size": {"by": "outside", "width_mm": 500.0, "depth_mm": 400.0}},
            }
            ploughed = [cut.model_dump(mode="json") for cut in made.ploughed]
            document["board"] = {"width_mm": made.width_mm, "thickness_mm": made.thickness_mm, "ploughed": ploughed}
            frame = solved(document)
            proof = boolean_proof(frame.design.assembly, frame.solids)
            self.assertEqual((proof.unlike, proof.shared), ((), ()))
            self.assertTrue(proof.confirms(frame.closing, frame.joints))
            self.assertTrue(all(check.closes and check.bare_mm == 0 for check in frame.joints))
            off = cuts_document(Solution(spec_of(document), frame.design, frame.plan)).off_mm
            self.assertNotIn(None, off.values())
            self.assertLess(max(mm for mm in off.values() if mm is not None), 1e-6)

    def test_what_a_drawing_shows_is_called_by_its_form_and_has_its_figures(self) -> None:
        # 60 by 20, y down: rabbet 9 x 8 at the left below, groove 6 x 5 in the face 20 in, rounding of 7 and cove of 6 at the right.
        path = "M0 0 H20 V5 H26 V0 H53 A7 7 0 0 1 60 7 V14 A6 6 0 0 0 54 20 H9 V12 H0 Z"
        made = drawn(path)
        self.assertEqual((made.width_mm, made.thickness_mm), (60.0, 20.0))
        found: dict[str, Ploughed] = {cut.form: cut for cut in made.ploughed}
        self.assertEqual(set(found), {"rabbet", "groove", "round", "cove"})
        figures = {
            form: {name: value for name, value in cut if name.endswith("_mm") or name in ("corner", "side")}
            for form, cut in found.items()
        }
        expected = {
            "rabbet": {"corner": "back_upper", "width_mm": 9.0, "depth_mm": 8.0}, "groove": {"side": "face", "from_mm": 34.0, "width_mm": 6.0, "depth_mm": 5.0},
            "round": {"corner": "face_lower", "radius_mm": 7.0}, "cove": {"corner": "back_lower", "radius_mm": 6.0},
        }  # fmt: skip
        for form, values in expected.items():
            for name, value in values.items():
                got = figures[form][name]
                self.assertTrue(abs(got - value) < 0.02 if isinstance(value, float) else got == value, (form, name, got))
        # A half round, an ellipse, a curve that has no form: so much wood as the figure itself has, but for the curves' error.
        half = drawn("M0 20 A20 20 0 0 1 40 20 Z")
        self.assertAlmostEqual(half.area_mm2, pi * 200, delta=2 * pi * 20 * CURVE_MM)
        self.assertTrue(half.hangs_together and half.width_left_mm("back") == 40.0 and half.width_left_mm("face") < 4)

    def test_what_is_no_section_is_refused(self) -> None:
        wrong = [
            ("M0 0 L40 20 L40 0 L0 20 Z", "outline_crosses"), ("M0 0 H40 V1 H0 Z", "outline_small"), ("M0 0 H40 V20", "outline_open"),
            ("M0 0 " + " ".join(f"L{k / 10} {5 + 3 * (k % 2)}" for k in range(1, 400)) + " L40 30 H0 Z", "outline_fine"),
        ]  # fmt: skip
        for path, code in wrong:
            with self.assertRaises(SpecError) as raised:
                drawn(path)
            self.assertEqual(raised.exception.code, code)
        cut = {"form": "milled", "at": "face_upper"}
        for corners, code in (
            ([[5, 0], [4, 4]], "milled_ends"),
            ([[9, 0], [2, 8], [8, 8], [2, 2], [0, 6]], "ploughed_meets"),
            ([[90, 0], [0, 5]], "ploughed_too_large"),
        ):
            with self.assertRaises(SpecError) as raised:
                chosen_profile({"width_mm": 47.0, "thickness_mm": 20.0, "ploughed": [{**cut, "path": corners}]})
            self.assertEqual((raised.exception.code, raised.exception.fields[0].partition(".0")[0]), (code, "moulding.ploughed"))


class Lips(unittest.TestCase):
    def test_a_lip_bears_what_a_beam_bears_that_is_fixed_at_its_root(self) -> None:
        # Load spread over the cover c from the tip: moment at the root (r - c/2), section modulus t^2/6 a mm, wood across its grain 0.4 * 0.6 / 1.3.
        for thick, reach, cover in ((12.0, 9.0, 7.5), (6.0, 9.0, 9.0), (3.0, 14.0, 2.0)):
            lip = lip_of(section({**HOLDS, "width_mm": reach, "depth_mm": 20.0 - thick}))
            assert lip
            bears = 0.4 * 0.6 / 1.3 * thick**2 / 6 / (reach - cover / 2)
            self.assertAlmostEqual(lip.bears_n_mm(cover), bears, delta=1e-4 * bears)
            self.assertAlmostEqual(lip.least_mm, thick)
            self.assertEqual(lip.bears_n_mm(0.0), 0.0)
        # A cove of 7 over a rabbet of 9, 12 deep: half way in, 4.5 from the edge, it takes sqrt(49 - 4.5^2) of the 8 above.
        hollow = lip_of(section({**HOLDS, "depth_mm": 12.0}, {"form": "cove", "corner": "face_upper", "radius_mm": 7.0}))
        assert hollow
        self.assertAlmostEqual(hollow.least_mm, 8.0 - sqrt(49 - 4.5**2), delta=CURVE_MM)
        # Bent about where it is thinnest it bears far less than a whole one.
        self.assertLess(hollow.bears_n_mm(7.5), 0.5 * lip_of(section({**HOLDS, "depth_mm": 12.0})).bears_n_mm(7.5))  # type: ignore[union-attr]
        self.assertIsNone(lip_of(section(ROUND)))
        # Thin near its tip: 2 from there, of 8 covered, lies a quarter of the load, 1 away: an arm of 2^2 / 16 for all of it.
        tip = Lip(10.0, ((2.0, 1.0), (10.0, 8.0)))
        self.assertAlmostEqual(tip.bears_n_mm(8.0), 0.4 * 0.6 / 1.3 / (6 * 2**2 / 16))

    def test_a_frame_tells_of_a_lip_that_its_profile_thins(self) -> None:
        def thin(radius: float) -> list[float | None]:
            document = photograph(ploughed=[{"form": "cove", "corner": "face_upper", "radius_mm": radius}])
            document["rabbet"]["depth_mm"] = 12.0
            return [finding.value for finding in solved(document).plan.findings if finding.code == "thin_lip"]

        self.assertEqual(len(thin(7.0)), 1)
        self.assertEqual(thin(5.0), [])


class Table(unittest.TestCase):
    def test_the_frame_of_the_issue(self) -> None:
        # 410 + 3 + 2 (47 - 9) = 489, 300 + 3 + 76 = 379; between four miters three cuts, each k / cos 45 along the moulding.
        frame = the_frame(PLAIN | {"lengths": [{"mm": 1000.0}, {"mm": 1200.0}]})
        self.assertEqual(frame.parts, ((2, 489.0), (2, 379.0)))
        self.assertEqual([round(mm, 9) for mm in frame.outside_mm], [489.0, 379.0])
        kerf = KERF / cos(radians(45))
        self.assertAlmostEqual(frame.needs_mm, 2 * (489 + 379) + 3 * kerf, places=6)
        self.assertEqual((frame.missing, sum(one.pieces for one in frame.lengths), frame.stands_out_mm), (0, 4, -2.0))
        # Out of each length come two: what is left is its length less both and the cut between, less one more cut to free the offcut.
        left = sorted(one.left_mm for one in frame.lengths)
        self.assertAlmostEqual(left[0], 1000 - 489 * 2 - 2 * kerf, places=6)
        self.assertTrue(frame.good)
        assert frame.bearing
        self.assertAlmostEqual(frame.bearing.load_n_mm, 1.2 * 9.81 / (2 * 710))
        self.assertAlmostEqual(frame.bearing.cover_mm, 9 - 1.5)

    def test_what_is_short_weak_deep_or_has_no_rabbet_is_told(self) -> None:
        short = PLAIN | {"lengths": [{"mm": 1000.0}, {"mm": 500.0}]}
        frame = the_frame(short)
        self.assertEqual((frame.missing, frame.enough, frame.good), (1, False, False))
        now = library(short)
        by = short_by_mm(now.contents["c1"], now.mouldings["m1"], KERF)
        # One of 489 out of the 500; the others in the 1000, between them two cuts: nothing else is missing less.
        self.assertAlmostEqual(by or 0.0, 489 + 2 * 379 + 2 * KERF / cos(radians(45)) - 1000, places=6)
        self.assertIsNone(short_by_mm(now.contents["c1"], library(PLAIN).mouldings["m1"], KERF))
        self.assertEqual(the_frame(PLAIN).missing, 4)
        self.assertEqual(the_frame(PLAIN, back_mm=8.0).stands_out_mm, 3.0)
        bare = the_frame(PLAIN | {"ploughed": []})
        self.assertEqual((bare.refused and bare.refused.code, bare.good), ("no_rabbet_in_it", False))
        thin = the_frame(
            PLAIN | {"ploughed": [{**HOLDS, "depth_mm": 18.5}], "lengths": [{"mm": 2400.0}]}, back_mm=5.0, weight_kg=None
        )
        assert thin.bearing
        self.assertFalse(thin.bearing.strong or thin.good)
        # 2 of glass at 2500 kg/m3, 6 of boards at 1000, on 0.41 by 0.3 m.
        unweighed = library(PLAIN, contents=(CREW | {"weight_kg": None, "back_mm": 5.0},)).contents["c1"]
        self.assertAlmostEqual(unweighed.weighs_kg, 0.41 * 0.3 * (2 * 2.5 + 6 * 1.0))
        # All else is right, but it stands out behind.
        self.assertFalse(the_frame(PLAIN | {"lengths": [{"mm": 2400.0}]}, back_mm=6.0).good)
        self.assertTrue(the_frame(PLAIN | {"lengths": [{"mm": 2400.0}]}, back_mm=5.0).good)
        # So thick that it does not split, but too heavy a thing: 9 of reach, 3 thick.
        heavy = the_frame(PLAIN | {"ploughed": [{**HOLDS, "depth_mm": 17.0}]}, weight_kg=60.0)
        assert heavy.bearing
        self.assertLess(heavy.bearing.times, 1.0)
        self.assertFalse(heavy.bearing.strong)

    def test_every_content_in_every_moulding_row_by_row(self) -> None:
        now = library(PLAIN, PLAIN | {"width_mm": 60.0}, contents=(CREW, CREW | {"width_mm": 500.0}))
        frames = list(frames_of(now, KERF))
        self.assertEqual([(f.content, f.moulding) for f in frames], [("c1", "m1"), ("c1", "m2"), ("c2", "m1"), ("c2", "m2")])
        self.assertEqual([round(f.outside_mm[0], 6) for f in frames], [489.0, 515.0, 579.0, 605.0])

    def test_a_frame_made_of_it_stands_by_itself(self) -> None:
        now = library(PLAIN | {"finish": "gold leaf", "ploughed": [ROUND, HOLDS]})
        spec, design = designed(project_with(now.contents["c1"], now.mouldings["m1"]))
        board = spec.members["m1"].spec.board
        self.assertEqual(
            (board.nominal, board.bought, board.finished, [cut.form for cut in board.ploughed]),
            ("Plain", True, "gold leaf", ["round"]),
        )
        self.assertTrue(all(b.ready and b.finished for b in design.assembly.boards))
        # Its sides have their finish; the ends that are cut have none. The saw's teeth chip it.
        uses = {face.facet.partition(":")[0]: face.use for face in faces_of(design, [], {})}
        self.assertEqual({uses.pop("left"), uses.pop("right")}, {"coated"})
        self.assertEqual(set(uses.values()), {"bare"})
        cautions = {step.work: step.cautions for step in steps_for(design, plan_with(design, Workshop())).steps}
        self.assertIn("finished", cautions["first_end"])
        raw = designed(project_with(now.contents["c1"], now.mouldings["m1"].model_copy(update={"finish": ""})))[1]
        self.assertEqual({face.use for face in faces_of(raw, [], {})}, {"coated"})


class Applied(unittest.TestCase):
    def test_all_rails_become_the_mouldings_and_sprung_ones_keep_their_spring(self) -> None:
        value = {"name": "Own", "width_mm": 70.0, "thickness_mm": 16.0, "ploughed": [HOLDS, ROUND], "finish": "wax"}
        act = Choose(op="choose", path="moulding", value=value)
        document = photograph() | {"rails": {"A": {"width_mm": 95.0}}}
        made = spec_of(edit_frame(spec_of(document), act, MM))
        self.assertEqual([made.width_of(letter) for letter in "ABCD"], [70.0] * 4)
        self.assertEqual((made.rabbet.width_mm, made.board.nominal, made.shape.size.by), (9.0, "Own", "holds"))
        # Without a rabbet nothing lies in it: the frame stays as large as its opening was.
        bare = spec_of(edit_frame(spec_of(document), Choose(op="choose", path="moulding", value=value | {"ploughed": []}), MM))
        self.assertEqual((bare.rabbet, bare.shape.size.by, bare.shape.size.width_mm), (None, "opening", 413.0 - 18.0))
        runs = MouldingSpec.model_validate(
            {"kind": "moulding", "width_mm": 90.0, "thickness_mm": 15.0, "spring_deg": 38.0, "runs": [{"wall_mm": 900.0}]}
        )
        sprung = MouldingSpec.model_validate(edit_runs(runs, act, MM))
        self.assertEqual(
            (sprung.width_mm, sprung.thickness_mm, sprung.spring_deg, len(sprung.ploughed), sprung.finished),
            (70.0, 16.0, 38.0, 2, "wax"),
        )


class Lengths(unittest.TestCase):
    def test_a_part_with_a_profile_comes_out_of_its_own_moulding_alone(self) -> None:
        document = photograph(ploughed=[ROUND])
        document["board"]["bought"] = True
        made = solved(document)
        own = {"name": "Own", "width_mm": 47.0, "thickness_mm": 20.0, "ploughed": [HOLDS, ROUND], "lengths": [{"mm": 2400.0}]}
        other = own | {"ploughed": [{**HOLDS, "width_mm": 8.0}, ROUND]}
        # The same as seen from its other end.
        mirrored = own | {"ploughed": [{**HOLDS, "corner": "back_lower"}, {**ROUND, "corner": "face_lower"}]}
        plain = photograph()

        def comes_of(what: Any, *mouldings: dict[str, Any], rack: tuple[dict[str, Any], ...] = ()) -> tuple[set[str], int]:
            sources = tuple(sources_in(library(*mouldings)))
            asked = Order((Cuttings(what.design.facts),), on_rack(*rack), PriceList(), Wishes(use_yard=False), KERF, sources)
            plan = plan_boards(asked)
            self.assertEqual(plan.faults, ())
            away = len(plan.layout.unplaced) + sum(len(piece.keys) for piece in plan.homeless)
            return {board.source.id for board in plan.layout.boards}, away

        self.assertEqual(comes_of(made, other, own), ({"m:m2:0"}, 0))
        self.assertEqual(comes_of(made, mirrored), ({"m:m1:0"}, 0))
        self.assertEqual(comes_of(made, other), (set(), 4))
        # A board of the same size that says nothing of its profile is trusted; one that is to be ploughed comes of plain boards alone.
        self.assertEqual(comes_of(made, other, rack=(bar(2400.0, 47.0),)), ({"r1"}, 0))
        self.assertEqual(comes_of(solved(plain), own, rack=(bar(2400.0, 47.0),)), ({"r1"}, 0))
        self.assertEqual(comes_of(solved(plain), own), (set(), 4))

    def test_what_was_cut_up_is_gone_and_what_is_left_comes_back(self) -> None:
        now = library(PLAIN | {"lengths": [{"mm": 1200.0, "count": 2}, {"mm": 900.0}]}, PLAIN)
        cut = after_cutting(now, {"m:m1:0": 1, "m:m1:1": 1}, {"m1": [340.0, 410.0]})
        self.assertEqual([(f.mm, f.count) for f in cut.mouldings["m1"].lengths], [(1200.0, 1), (410.0, 1), (340.0, 1)])
        self.assertEqual(cut.mouldings["m2"], now.mouldings["m2"])


class Drawn(unittest.TestCase):
    def test_figures_share_a_row_where_there_is_room_and_none_lies_on_another(self) -> None:
        many = [
            HOLDS,
            ROUND,
            {"form": "cove", "corner": "face_lower", "radius_mm": 5.0},
            {"form": "groove", "side": "face", "from_mm": 16.0, "width_mm": 4.0, "depth_mm": 3.0},
        ]
        view = moulding_view("m1", library(PLAIN | {"ploughed": many}).mouldings["m1"])
        rows: dict[tuple[Point2, float], list[tuple[float, float]]] = {}
        for d in view.dimensions:
            axis = 0 if d.away[1] else 1
            middle, half = (d.a[axis] + d.b[axis]) / 2, max(abs(d.a[axis] - d.b[axis]) / 2, 0.1 * 47.0)
            rows.setdefault((d.away, d.lane), []).append((middle - half, middle + half))
        for spans in rows.values():
            for (_, end), (start, _) in pairwise(sorted(spans)):
                self.assertLessEqual(end, start)
        self.assertLess(len(rows), len(view.dimensions))


class Acts(unittest.TestCase):
    def test_mouldings_and_contents_are_added_changed_turned_and_taken_away(self) -> None:
        def choose(path: str, value: object = None) -> Choose:
            return Choose(op="choose", path=path, value=value)

        now = after(Mouldings(), choose("mouldings.new", True), choose("contents.new", True), choose("mouldings.new", "m1"))
        self.assertEqual((list(now.mouldings), list(now.contents)), (["m1", "m3"], ["c2"]))
        now = after(now, choose("mouldings.m3"), choose("mouldings.new", {"width_mm": 30.0}))
        self.assertEqual((list(now.mouldings), now.mouldings["m4"].width_mm), (["m1", "m4"], 30.0))  # no number is given twice
        now = after(
            now, choose("mouldings.m1.lengths.new", True), TypeIn(op="type", path="mouldings.m1.lengths.0.mm", text="1.2 m"),
            choose("mouldings.m1.lengths.new", True), choose("mouldings.m1.lengths.1"), TypeIn(op="type", path="mouldings.m1.finish", text=" gold "),
            TypeIn(op="type", path="contents.c2.weight_kg", text="2,5"),
        )  # fmt: skip
        self.assertEqual(
            ([f.mm for f in now.mouldings["m1"].lengths], now.mouldings["m1"].finish, now.contents["c2"].weight_kg),
            ([1200.0], "gold", 2.5),
        )
        self.assertIsNone(after(now, TypeIn(op="type", path="contents.c2.weight_kg", text="")).contents["c2"].weight_kg)
        over = after(now, choose("mouldings.m1.turn", "over"))
        self.assertIsNone(over.mouldings["m1"].section.rabbet)
        self.assertEqual(after(over, choose("mouldings.m1.turn", "over")), now)
        wrong: list[Edit] = [
            choose("mouldings.m9.turn", "over"), choose("mouldings.m1.turn", "inside out"), choose("nothing.new", True), choose("mouldings.m1.nothing.new", True),
            TypeIn(op="type", path="mouldings.m1.ploughed.0.depth_mm", text="20"), TypeIn(op="type", path="contents", text="1"),
        ]  # fmt: skip
        for act in wrong:
            with self.assertRaises((SpecError, ValueError)):
                after(now, act)


if __name__ == "__main__":
    unittest.main()
