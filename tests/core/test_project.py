"""Several assemblies: what one stands on and what it follows, against the assemblies alone."""

import unittest
from copy import deepcopy
from math import atan2, degrees, hypot, radians, tan
from typing import Any

from fennup.core.drawing.edit import Choose, Drag, Fit, Give, Touched, TypeIn
from fennup.core.errors import SpecError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import arris_length, end_cut
from fennup.core.project.describe import describe
from fennup.core.project.edit import edit, with_piece
from fennup.core.project.faces import targets
from fennup.core.project.place import settle
from fennup.core.project.spec import ProjectSpec, project_of
from fennup.core.project.starts import TOGETHER, start_spec
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof
from tests.core.frames import all_typed, box, of_sides, regular, solved, spec_of

MM = tape("mm", "1")
BIN = TOGETHER["bin_on_stand"]
POSTS = TOGETHER["posts_and_rail"]


def edited(spec: Any, *acts: Any) -> Any:
    """The spec after some acts, settled."""
    for act in acts:
        spec = settle(ProjectSpec.model_validate(edit(spec, act, MM)))
    return spec


def fitted(spec: Any, *faces: tuple[Any, ...]) -> Any:
    """The spec with a piece between two faces, each touched (board, side, view, x, y)."""
    a, b = (Touched(**dict(zip(("board", "side", "view", "x_mm", "y_mm"), face, strict=False))) for face in faces)
    return ProjectSpec.model_validate(with_piece(spec_of(spec), Fit(op="fit", a=a, b=b), MM))


class ABinOnAStandWithAHood(unittest.TestCase):
    def test_each_stands_on_the_highest_wood_below_and_both_proofs_hold(self) -> None:
        made = solved(BIN)
        lowest = {name: min(p[2] for id, s in made.solids.items() if id.startswith(name) for q in s.world for p in q.points)
                  for name in ("m1", "m2", "m3")}  # fmt: skip
        for name, level in (("m1", 0.0), ("m2", 320.0 + 18.0), ("m3", 338.0 + 380.0)):
            self.assertAlmostEqual(lowest[name], level, places=9)
        self.assertTrue(all(check.closes for check in made.joints))
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds)
        alone = sum(len(solved(member["spec"]).assembly.boards) for member in BIN["members"].values())
        self.assertEqual(len(made.assembly.boards), alone)

    def test_what_bears_on_nothing_hangs_or_would_fall_over_is_said(self) -> None:
        def said(spec: Any) -> dict[str, Any]:
            return {f.code: f for f in solved(spec).findings if f.code in ("stands_on_air", "held_above", "tips_over")}

        self.assertEqual(said(BIN), {})
        wide: dict[str, Any] = deepcopy(BIN)
        wide["links"][2]["plus_mm"] = 200.0  # the hood's eaves reach past the bin's rim all round
        self.assertEqual(said(wide)["stands_on_air"].parts, ("m3", "m2"))
        lifted: dict[str, Any] = deepcopy(BIN)
        lifted["members"]["m2"]["up_mm"] = 25.0
        self.assertEqual((said(lifted)["held_above"].parts, said(lifted)["held_above"].value), (("m2",), 25.0))
        # One wall leans out so far that the wood's middle lies past the foot on that side.
        leaning: dict[str, Any] = deepcopy(BIN)
        plan = {"form": "rectangle", "width_mm": 120.0, "depth_mm": 360.0}
        tray = {
            "kind": "box",
            "plan": plan,
            "height_mm": 500.0,
            "thickness_mm": 18.0,
            "slopes_deg": {"A": 0.0, "B": 55.0, "C": 0.0, "D": -50.0},
        }
        leaning["members"]["m2"], leaning["links"] = {"name": "Tray", "on": "m1", "spec": tray}, []
        del leaning["members"]["m3"]
        self.assertEqual(said(leaning)["tips_over"].parts, ("m2",))

    def test_a_flat_frame_lies_on_a_box_and_follows_its_rim(self) -> None:
        bin = {"name": "Bin", "spec": box(of_sides(6, 300.0), 200.0, slope_deg=8.0)}
        lid = {"name": "Lid", "on": "m1", "spec": regular(6, 60.0, "outside_flats", mm=320.0, thickness=22.0)}
        link = {"of": "m2", "measure": "outside_flats", "after": "m1", "source": "outer_top_flats", "plus_mm": 20.0}
        made = solved({"members": {"m1": bin, "m2": lid}, "links": [link]})
        rim = 300 + 2 * 200 * tan(radians(8))
        self.assertAlmostEqual(made.ruler.measure("m2/outside_flats") or 0, rim + 20, places=9)
        levels = [p[2] for id, s in made.solids.items() if id.startswith("m2/") for q in s.world for p in q.points]
        self.assertAlmostEqual(min(levels), 200.0, places=9)
        self.assertAlmostEqual(max(levels), 222.0, places=9)
        self.assertTrue(all(check.closes for check in made.joints) and boolean_proof(made.assembly, made.solids).holds)
        self.assertNotIn("stands_on_air", {finding.code for finding in made.findings})
        views = {view.id: view for view in describe(made.spec, made.assembly, made.solids).views}
        self.assertIn("m1/outer_bottom_flats", {d.id for d in views["above"].dimensions})
        follows = next(s for s in describe(made.spec, made.assembly, made.solids).sizes if s.measure == "m2/outside_flats")
        self.assertEqual((follows.standing, follows.acts), ("derived", None))
        with self.assertRaises(SpecError) as refused:  # its one size follows: another is not taken and put back unsaid
            edited(made.spec, Give(op="give", measure="m2/opening_flats", text="150"))
        self.assertEqual((refused.exception.code, refused.exception.fields), ("size_follows", ("m2/opening_flats",)))

    def test_a_frame_lies_in_the_rabbet_of_another_and_both_follow_what_is_held(self) -> None:
        spec = start_spec("frame_in_frame")
        for width in (400.0, 523.0):
            made = solved(
                edited(spec, TypeIn(op="type", path="members.m1.spec.shape.size.object_width_mm", text=f"{width}")).model_dump(
                    mode="json"
                )
            )
            # 3 of play and 24 visible beside the rabbet at each side; then 3 more, and 82 at each side of the outer one.
            sizes = [made.design.ruler.measure(name) for name in ("m1/outside_width", "m2/rabbet_width", "m2/outside_width")]
            self.assertEqual([round(size or 0, 6) for size in sizes], [width + 51, width + 54, width + 54 + 164])
            self.assertTrue(boolean_proof(made.assembly, made.solids).holds)
            # Face on floor: the inner one's face is as high as the outer one's rabbet is deep from its back.
            inner, outer = (made.design.boards[id] for id in ("m1/A", "m2/A"))
            self.assertEqual(inner.side_in_world("face").offset, outer.section.rabbet.depth_mm - outer.section.thickness_mm / 2)
        self.assertEqual([f.code for f in made.assembly.findings], [])

    def test_one_change_moves_all_that_follows(self) -> None:
        made = solved(edited(spec_of(BIN), Give(op="give", measure="m1/top_width", text="400")).model_dump(mode="json"))
        self.assertAlmostEqual(made.ruler.measure("m2/outer_bottom_width") or 0, 400.0, places=6)
        top = 400 + 2 * 380 * tan(radians(5))
        self.assertAlmostEqual(made.ruler.measure("m2/outer_top_width") or 0, top, places=6)
        self.assertAlmostEqual(made.ruler.measure("m3/eaves_flats") or 0, top + 40, places=6)
        self.assertEqual([c for c in made.claims if c.measured is None or abs(c.measured - c.claim.asked) > 1e-6], [])

    def test_the_parts_are_cut_as_they_would_be_alone(self) -> None:
        made, alone = solved(BIN), solved(settle(spec_of(BIN)).members["m1"].spec.model_dump(mode="json"))
        own = {(round(s.swing_deg, 9), round(s.tilt_deg, 9)) for s in alone.settings}
        self.assertTrue(own)
        self.assertLessEqual(own, {(round(s.swing_deg, 9), round(s.tilt_deg, 9)) for s in made.settings})
        self.assertIn(("m3/A", 4), [(part.id, len(part.boards)) for part in made.parts])

    def test_a_link_is_made_with_more_and_let_go_again_at_the_same_figure(self) -> None:
        follow = Choose(op="choose", path="follow:m3/height", value="m2/height")
        spec = edited(spec_of(BIN), follow, TypeIn(op="type", path="links.3.plus_mm", text="-200"))
        self.assertAlmostEqual(spec.members["m3"].spec.shape.height_mm, 180.0, places=6)
        free = edited(spec, Choose(op="choose", path="follow:m3/height", value=None))
        self.assertEqual(len(free.links), 3)
        self.assertAlmostEqual(free.members["m3"].spec.shape.height_mm, 180.0, places=6)

    def test_a_ring_of_one_assembly_is_dragged_where_it_stands_and_none_moves_a_size_that_follows(self) -> None:
        made = solved(BIN)
        views = {view.id: view for view in describe(made.spec, made.assembly, made.solids).views}
        rings = {grip.id: grip for grip in views["front"].grips}
        self.assertNotIn("front/m2/pin:outer_bottom_width", rings)
        top = next(grip for id, grip in rings.items() if id.startswith("front/m2/") and id.endswith("height"))
        # The bin stands at 338 and is 380 high: its ring is let go 20 higher.
        self.assertAlmostEqual(top.at[1], 338.0 + 380.0, places=9)
        spec = edited(made.spec, Drag(op="drag", grip=top.id, x_mm=top.at[0], y_mm=top.at[1] + 20.0))
        self.assertAlmostEqual(spec.members["m2"].spec.height_mm, 400.0, places=9)

    def test_a_single_assembly_that_takes_pieces_keeps_its_views_its_rings_and_all_its_sizes(self) -> None:
        for kind in KINDS.values():
            for start in kind.starts.values():
                alone = solved(start)
                made = solved(project_of(alone.spec, "It").model_dump(mode="json"))
                own = kind.describe(alone.spec, alone.ruler, alone.solids)
                shown = describe(made.spec, made.assembly, made.solids)
                self.assertEqual([view.id for view in shown.views], [view.id for view in own.views])
                for view, before in zip(shown.views, own.views, strict=True):
                    self.assertEqual(
                        [(d.id, d.label, d.standing) for d in view.dimensions],
                        [(f"m1/{d.id}", f"m1/{d.label}", d.standing) for d in before.dimensions],
                    )
                    self.assertEqual([g.at for g in view.grips], [g.at for g in before.grips])
                    self.assertEqual(len(view.shapes), len(before.shapes))
                    self.assertEqual([m.text for m in view.marks], [m.text for m in before.marks])

    def test_one_more_is_set_on_top_and_taken_away_with_what_followed_it(self) -> None:
        spec = edited(spec_of(BIN), Choose(op="choose", path="members", value="stool"))
        self.assertEqual((spec.members["m4"].name, spec.members["m4"].on), ("Stool", "m3"))
        two = edited(spec, *[Choose(op="choose", path="members", value=None)] * 2)
        self.assertEqual(([member.name for member in two.members.values()], len(two.links)), (["Stand", "Bin"], 2))

    def test_what_is_added_has_the_sides_and_the_width_of_what_it_stands_on_and_follows_it(self) -> None:
        for under, over, sides, sizes in (
            ("tapered_box", "pyramid", 4, {"eaves_flats": 300.0 + 2 * 260.0 * tan(radians(10.0))}),
            ("tub", "pyramid", 8, {"eaves_flats": 380.0 + 2 * 320.0 * tan(radians(6.0))}),
            ("stool", "tapered_box", 4, {"outer_bottom_width": 340.0, "outer_bottom_depth": 280.0}),
            ("trough", "pyramid", 4, {"eaves_flats": 700.0}),
            ("tub", "hexagon", 8, {"outside_flats": 380.0 + 2 * 320.0 * tan(radians(6.0))}),
        ):
            with self.subTest(f"{over} on {under}"):
                made = solved(edited(start_spec(under), Choose(op="choose", path="members", value=over)).model_dump(mode="json"))
                own = made.assembly.inside["m2"]
                self.assertEqual(made.spec.members["m2"].spec.sides, sides)
                for name, value in sizes.items():
                    self.assertAlmostEqual(Ruler(own).measure(name) or 0, value, places=6)
                self.assertEqual({(link.of, link.measure) for link in made.spec.links}, {("m2", name) for name in sizes})
                if over == "pyramid":  # its height goes with its width: 220 over 600
                    eaves = sizes["eaves_flats"]
                    self.assertAlmostEqual(Ruler(own).measure("height") or 0, 220.0 * eaves / 600.0, places=6)
        # On four sides the trough's own slopes stay.
        trough = edited(start_spec("tapered_box"), Choose(op="choose", path="members", value="trough"))
        self.assertEqual(trough.members["m2"].spec.slopes_deg, {"AC": 15.0, "BD": 0.0})
        # Too narrow for an arch of boards so wide: it comes as large as it is, and follows nothing.
        arch = edited(start_spec("tower"), Choose(op="choose", path="members", value="open_octagon"))
        self.assertEqual(arch.links, [])
        # What has no size in common with it comes as it is.
        gable = edited(start_spec("tapered_box"), Choose(op="choose", path="members", value="gable"))
        self.assertEqual(gable.links, [])

    def test_links_in_a_circle_and_refusals_within_are_said_at_their_place(self) -> None:
        circle: dict[str, Any] = deepcopy(BIN)
        circle["links"].append({"of": "m1", "measure": "height", "after": "m3", "source": "height"})
        with self.assertRaises(SpecError) as refused:
            spec_of(circle)
        self.assertEqual(refused.exception.code, "links_circle")
        with self.assertRaises(SpecError) as within:
            own: dict[str, Any] = deepcopy(BIN)
            own["members"]["m2"]["spec"] = all_typed(own["members"]["m2"]["spec"])
            edited(spec_of(own), Give(op="give", measure="m2/outer_top_width", text="500"))
        self.assertEqual(within.exception.code, "pins_disagree")
        self.assertTrue(within.exception.fields[0].startswith("members.m2.spec.pins."))
        self.assertIn("m2/height", {name for name, *_ in within.exception.data["others"]})


class PiecesBetweenFaces(unittest.TestCase):
    def test_a_sloping_rail_on_upright_posts_is_cut_plumb_and_as_long_as_rise_and_clear_make_it(self) -> None:
        made = solved(POSTS)
        rail = made.assembly.board("p2")
        clear, rise = 1400 - 2 * 90, 900 - 650  # both posts count from their feet
        self.assertAlmostEqual(arris_length(rail, "face_upper"), hypot(clear, rise), places=9)
        for cut in (rail.left[0], rail.right[0]):
            self.assertAlmostEqual(abs(end_cut(cut).miter_deg), degrees(atan2(abs(rise), clear)), places=9)
        self.assertTrue(all(check.closes for check in made.joints))
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds)

    def test_a_piece_is_fitted_between_two_touched_faces_moved_and_taken_away(self) -> None:
        spec = fitted(BIN, ("m1/AB", "upper"), ("m1/DA", "upper"))
        made = solved(spec.model_dump(mode="json"))
        piece = made.assembly.board("p4")
        self.assertEqual([part.boards for part in made.parts if part.id == "p4"], [("p4",)])
        self.assertTrue(all(check.closes for check in made.joints))
        low = piece.frame.origin[2]
        moved = solved(
            edited(spec, *(TypeIn(op="type", path=f"pieces.p4.{end}.along_mm", text="250") for end in "ab")).model_dump(
                mode="json"
            )
        )
        # Equally far from both feet it is level, though the legs, mirror images, run up and down.
        self.assertAlmostEqual(moved.assembly.board("p4").frame.x[2], 0.0, places=9)
        self.assertNotEqual(moved.assembly.board("p4").frame.origin[2], low)
        # One more stands on the first, and goes with it.
        two = fitted(spec.model_dump(mode="json"), ("p4", "upper"), ("m1/top", "back"))
        self.assertTrue(all(check.closes for check in solved(two.model_dump(mode="json")).joints))
        gone = edited(two, Choose(op="choose", path="pieces", value="p4"))
        self.assertEqual(gone.pieces, {})

    def test_its_ends_are_dragged_along_their_boards_in_the_drawing(self) -> None:
        spec = settle(spec_of(POSTS))
        made = solved(spec.model_dump(mode="json"))
        views = {view.id: view for view in describe(made.spec, made.assembly, made.solids).views}
        ring = next(grip for grip in views["front"].grips if grip.id == "piece:front:p2:b")
        # The right post's foot is its start: 900 up. A ring goes along its board only, however far beside it is let go.
        self.assertAlmostEqual(ring.at[1], 900.0, places=9)
        moved = edited(spec, Drag(op="drag", grip=ring.id, x_mm=ring.at[0] + 33.0, y_mm=700.4))
        self.assertAlmostEqual(moved.pieces["p2"].b.along_mm, 700.0, places=9)
        self.assertEqual([grip.id for grip in views["above"].grips], [])

    def test_a_touched_place_seats_the_piece_there_on_a_face_seen_whole_or_edge_on_and_on_a_panel_both_ways(self) -> None:
        posts = {**POSTS, "pieces": {}}
        # From the front the posts' inner edges are lines: 1400 apart outside, posts of 90; z is what was touched.
        spec = fitted(posts, ("m1/AB", "upper", "front", 610.0, 250.2), ("m1/DA", "upper", "front", -610.0, 699.9))
        piece = solved(spec.model_dump(mode="json")).assembly.board("p4")
        self.assertAlmostEqual(piece.frame.origin[2], (250 + 700) / 2, places=9)
        self.assertAlmostEqual(abs(piece.frame.x[2] / piece.frame.x[0]), 450 / 1220, places=9)
        # A strut from a post's outer edge, seen edge on, up to the stand's top, a panel touched off its middle from above.
        strut = fitted(BIN, ("m1/AB", "upper", "front", 150.0, 200.0), ("m1/top", "back", "above", 40.0, 25.0))
        made = solved(strut.model_dump(mode="json"))
        piece = made.assembly.board("p4")
        at_top = max((p for q in made.solids["p4"].world for p in q.points), key=lambda p: p[2])
        self.assertAlmostEqual(at_top[2], 320.0, places=9)
        t = (320.0 - piece.frame.origin[2]) / piece.frame.x[2]
        x, y, _ = piece.frame.to_world((t, 0.0, 0.0))
        self.assertAlmostEqual(x, 40.0, places=9)
        self.assertAlmostEqual(y, 25.0, places=9)
        self.assertTrue(all(check.closes for check in made.joints))
        self.assertTrue(boolean_proof(made.assembly, made.solids).holds)

    def test_only_faces_that_look_at_the_first_are_offered_across_assemblies_too(self) -> None:
        made = solved(BIN)
        own = {(t.board, t.side) for t in targets(made.solids, ("m1/top", "face"))["front"]}
        self.assertTrue(any(board.startswith("m2/") for board, _ in own))
        self.assertFalse({("m1/top", "face"), ("m1/top", "back")} & own)
        middle = made.assembly.board("m1/top").side_in_world("face")
        for board, side in own:
            points = [p for patch in made.solids[board].patches(side) for p in patch.points]
            self.assertGreater(max(middle.beyond(p) for p in points), 0.0)
        with self.assertRaises(SpecError) as refused:
            targets(made.solids, ("m1/top", "upper"))
        self.assertEqual(refused.exception.code, "no_such_face")

    def test_a_piece_past_its_board_or_between_faces_that_look_away_is_refused_at_its_place(self) -> None:
        spec = fitted(BIN, ("m1/AB", "upper"), ("m1/DA", "upper"))
        for act, code, field in (
            (TypeIn(op="type", path="pieces.p4.a.along_mm", text="900"), "piece_off_board", "pieces.p4.a.along_mm"),
            (Choose(op="choose", path="pieces.p4.a.side", value="lower"), "piece_between", "pieces.p4"),
        ):
            with self.assertRaises(SpecError) as refused:
                solved(edit(spec, act, MM))
            self.assertEqual((refused.exception.code, refused.exception.fields), (code, (field,)))
