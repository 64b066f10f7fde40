"""Assemblies that stand on a side, are turned, or lie on a face: the wood goes along unchanged, what is measured and closes stays."""

import unittest
from itertools import pairwise
from math import acos, atan2, cos, degrees, hypot, radians, sin, sqrt
from typing import Any

from fennup.core.drawing.edit import Choose, Drag
from fennup.core.errors import SpecError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.project.forms import newest_form
from fennup.core.project.stance import turned_to
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof
from tests.core.frames import Solved, after, box, level, rectangle, regular, shown, solved, spec_of

MM = tape("mm", "1")


def several(*members: dict[str, Any]) -> dict[str, Any]:
    return {"kind": "together", "members": [{"name": f"Part {i}", **member} for i, member in enumerate(members)]}


def levels(made: Solved, id: str, way: int = 2) -> tuple[float, float]:
    """From where to where a member goes along an axis of the project."""
    points = [p[way] for key, solid in made.solids.items() if key.startswith(id) for piece in solid.world for p in piece.points]
    return min(points), max(points)


OCTAGON = regular(8, 60.0, "outside_side", mm=300.0)
ACROSS = 300 * (1 + sqrt(2))  # an octagon of side 300 across its flats


class Standing(unittest.TestCase):
    def test_a_ring_stood_on_a_side_is_the_same_ring_upright(self) -> None:
        lying, flat = solved(several({"spec": OCTAGON})), {"spec": OCTAGON, "down": {"board": "A", "facet": "lower"}}
        upright = solved(several(flat))
        self.assertAlmostEqual(levels(upright, "m1")[0], 0.0)
        self.assertAlmostEqual(levels(upright, "m1")[1], ACROSS)
        for way, deep in ((1, 20.0), (0, ACROSS)):
            low, high = levels(upright, "m1", way)
            self.assertAlmostEqual(high - low, deep)
        self.assertEqual(upright.closing.by_itself, lying.closing.by_itself)
        self.assertEqual(upright.closing.adding_up, lying.closing.adding_up)
        self.assertEqual([p.id for p in upright.parts], [p.id for p in lying.parts])
        self.assertEqual(upright.ruler.measure("m1/outside_flats"), lying.ruler.measure("m1/outside_flats"))
        self.assertTrue(boolean_proof(upright.assembly, upright.solids).confirms(upright.closing, upright.joints))

    def test_a_ring_with_a_side_left_out_stands_on_its_loose_ends(self) -> None:
        arch = OCTAGON | {"left_out": ["A"], "loose_ends": "ground"}
        made = solved(several({"spec": arch, "down": {"board": "B", "facet": "left:0"}}))
        low = [p for solid in made.solids.values() for piece in solid.world for p in piece.points if p[2] < 1e-6]
        self.assertEqual({round(p[0] > 0) for p in low}, {0, 1})  # both ends are down
        self.assertAlmostEqual(levels(made, "m1")[1], ACROSS)

    def test_its_sizes_are_dragged_on_the_paper_where_it_then_stands(self) -> None:
        spec = solved(several({"spec": rectangle("outside", 600.0, 400.0, 60.0), "down": {"board": "A", "facet": "lower"}})).spec
        views = {view.id: view for view in shown(solved(spec.model_dump(mode="json"))).views}
        (grip,) = (g for g in views["front"].grips if "size:side" in g.id or g.id.endswith("along:C"))
        changed = spec_of(after(spec, Drag(op="drag", grip=grip.id, x_mm=grip.at[0], y_mm=grip.at[1] + 50.0), MM))
        made = solved(changed.model_dump(mode="json"))
        self.assertAlmostEqual(levels(made, "m1")[1], made.ruler.measure("m1/outside_depth") or 0.0)
        self.assertGreater(levels(made, "m1")[1], 449.0)
        for d in views["front"].dimensions:
            if d.unit == "mm":
                self.assertAlmostEqual(hypot(d.b[0] - d.a[0], d.b[1] - d.a[1]), d.value, places=6)

    def test_two_rings_one_behind_the_other_and_one_turned(self) -> None:
        up = {"spec": OCTAGON, "down": {"board": "A", "facet": "lower"}}
        made = solved(several(up, {**up, "back_mm": 400.0}, {**up, "turned_deg": 90.0, "right_mm": 900.0, "up_mm": 5.0}))
        near, far = (levels(made, id, 1) for id in ("m1", "m2"))
        self.assertAlmostEqual(far[0] - near[0], 400.0)
        low, high = levels(made, "m3", 0)
        self.assertAlmostEqual(high - low, 20.0)
        self.assertAlmostEqual(levels(made, "m3")[0], 5.0)

    def test_from_behind_and_moved_aside_angles_and_rings_still_say_what_they_do(self) -> None:
        stool = KINDS["stand"].starts["stool"]
        spec = solved(several({"spec": stool, "turned_deg": 180.0, "right_mm": 700.0}, {"spec": stool, "right_mm": -900.0})).spec
        front = next(view for view in shown(solved(spec.model_dump(mode="json"))).views if view.id == "front")
        angles = [d for d in front.dimensions if d.unit == "deg"]
        self.assertEqual({d.id.partition("/")[0] for d in angles}, {"m1", "m2"})
        for d in angles:
            turn = degrees(atan2(d.a[0] * d.b[1] - d.a[1] * d.b[0], d.a[0] * d.b[0] + d.a[1] * d.b[1]))
            self.assertAlmostEqual(turn, abs(d.value), places=6)  # from the first arm to the second, anticlockwise
        for id in ("m1", "m2"):
            grip = next(g for g in front.grips if g.id.endswith("pin:front:top_width") and f"/{id}/" in g.id)
            x, y = grip.along or (1.0, 0.0)
            moved = spec_of(after(spec, Drag(op="drag", grip=grip.id, x_mm=grip.at[0] + 10 * x, y_mm=grip.at[1] + 10 * y), MM))
            made = solved(moved.model_dump(mode="json"))
            self.assertAlmostEqual(
                (made.ruler.measure(f"{id}/top_width") or 0) - stool["plan"]["top_width_mm"], 20.0
            )  # even about its middle

    def test_a_row_between_boards_that_run_opposite_ways_stays_straight(self) -> None:
        ring = {"spec": rectangle("outside", 600.0, 400.0, 60.0)}
        ends = {
            "a": {"board": "m1/A", "side": "upper", "along_mm": 150.0},
            "b": {"board": "m1/C", "side": "upper", "along_mm": 450.0},
        }
        bar = {"name": "Bar", **ends, "width_mm": 20.0, "thickness_mm": 12.0, "count": 3, "step_mm": 100.0}
        made = solved(newest_form(several(ring)) | {"pieces": {"p2": bar}, "numbered": 2})
        for key in ("p2", "p2.2", "p2.3"):
            self.assertAlmostEqual(abs(made.assembly.board(key).frame.x[1]), 1.0)

    def test_what_is_laid_on_a_face_is_moved_along_it_and_off_it(self) -> None:
        roof = {
            "kind": "roof",
            "thickness_mm": 18.0,
            "shape": {"form": "lean_to", "width_mm": 500.0, "depth_mm": 400.0, "front_mm": 300.0, "back_mm": 420.0},
        }
        lid = next(board for board in solved(roof).assembly.boards if board.role == "lid")
        on = {"spec": rectangle("outside", 300.0, 200.0, 40.0), "on": "Part 0", "upon": {"board": lid.id, "facet": "face"}}

        def middle(**said: float) -> tuple[float, ...]:
            made = solved(several({"spec": roof}, {**on, **said}))
            points = [p for key, s in made.solids.items() if key.startswith("m2") for piece in s.world for p in piece.points]
            return tuple((min(p[k] for p in points) + max(p[k] for p in points)) / 2 for k in range(3))

        here, n = middle(), lid.frame.z
        for said, way in (({"right_mm": 30.0}, (1.0, 0.0, 0.0)), ({"back_mm": 30.0}, (0.0, n[2], -n[1])), ({"up_mm": 30.0}, n)):
            for a, b, w in zip(here, middle(**said), way, strict=True):
                self.assertAlmostEqual(b - a, 30 * w, msg=str(said))

    def test_a_row_of_slats_between_two_rings(self) -> None:
        ring = {"spec": rectangle("outside", 600.0, 400.0, 60.0), "down": {"board": "A", "facet": "lower"}}
        document = newest_form(several(ring, {**ring, "back_mm": 500.0}))
        ends = {
            "a": {"board": "m1/A", "side": "back", "along_mm": 100.0},
            "b": {"board": "m2/A", "side": "face", "along_mm": 100.0},
        }
        slat = {"name": "Slat", **ends, "width_mm": 40.0, "thickness_mm": 18.0, "lies_flat": True, "count": 5, "step_mm": 100.0}
        made = solved(document | {"pieces": {"p3": slat}, "numbered": 3})
        self.assertIn(made.closing.state, ("exact", "opens"))
        keys = ["p3", "p3.2", "p3.3", "p3.4", "p3.5"]
        middles = [made.assembly.board(key).frame.origin[0] for key in keys]
        self.assertEqual([round(b - a, 9) for a, b in pairwise(middles)], [100.0] * 4)
        self.assertIn(tuple(keys), [tuple(part.boards) for part in made.parts])
        self.assertEqual({round(e[1] - e[0], 6) for e in (made.solids[k].extent_x() for k in keys)}, {480.0})
        for said, code, field in (({"count": 7}, "piece_off_board", "count"), ({"step_mm": None}, "no_step", "step_mm")):
            with self.assertRaises(SpecError) as refused:
                solved(document | {"pieces": {"p3": slat | said}, "numbered": 3})
            self.assertEqual((refused.exception.code, refused.exception.fields), (code, (f"pieces.p3.{field}",)))

    def test_a_lid_lies_on_the_sloping_top_of_a_box(self) -> None:
        # A lean-to's body: the front 300, the back 420 high, 400 deep; its lid frame lies on the slope of its sides.
        roof = {
            "kind": "roof",
            "thickness_mm": 18.0,
            "shape": {"form": "lean_to", "width_mm": 500.0, "depth_mm": 400.0, "front_mm": 300.0, "back_mm": 420.0},
        }
        lid = rectangle("outside", 520.0, 430.0, 60.0)
        top = next(board for board in solved(roof).assembly.boards if board.role == "lid")
        made = solved(several({"spec": roof}, {"spec": lid, "on": "Part 0", "upon": {"board": top.id, "facet": "face"}}))
        slope = degrees(acos(top.frame.z[2]))
        rail = made.assembly.board("m2/A")
        self.assertAlmostEqual(degrees(acos(rail.frame.z[2])), slope)
        self.assertAlmostEqual(max(abs(a - b) for a, b in zip(rail.frame.z, top.frame.z, strict=True)), 0.0)
        self.assertIn(made.closing.state, ("exact", "opens"))
        # Its back lies in the lid's face.
        plane = made.assembly.board(f"m1/{top.id}").side_in_world("face")
        for key, solid in made.solids.items():
            if key.startswith("m2"):
                self.assertAlmostEqual(min(plane.beyond(p) for piece in solid.world for p in piece.points), 0.0)
        self.assertNotIn("stands_on_air", [f.code for f in made.findings])

    def test_what_cannot_be_stood_on_is_refused_with_its_field(self) -> None:
        cases = [
            ("not_a_rest", "members.m1.down", several({"spec": OCTAGON, "down": {"board": "A", "facet": "upper"}})),
            ("no_such_rest", "members.m1.down", several({"spec": OCTAGON, "down": {"board": "Z", "facet": "upper"}})),
            ("upon_nothing", "members.m1.upon", several({"spec": OCTAGON, "upon": {"board": "A", "facet": "face"}})),
        ]  # fmt: skip
        for code, field, document in cases:
            with self.subTest(code), self.assertRaises(SpecError) as refused:
                solved(document)
            self.assertEqual((refused.exception.code, refused.exception.fields), (code, (field,)))

    def test_every_side_that_is_offered_can_be_stood_on(self) -> None:
        for spec, least in ((OCTAGON, 10), (box(level(400.0, 300.0), 200.0, slope_deg=8.0), 2)):
            made = solved(several({"spec": spec}, {"spec": spec, "right_mm": 2000.0}))
            (control,) = (c for c in shown(made).controls if c.code == "lies" and c.group.startswith("m2"))
            self.assertGreater(len(control.options), least)
            for option in control.options[1:]:
                changed = spec_of(after(made.spec, option.acts[0], MM))
                stood = solved(changed.model_dump(mode="json"))
                self.assertAlmostEqual(levels(stood, "m2")[0], 0.0, places=6)
                back = spec_of(after(changed, Choose(op="choose", path="members.m2.down", value=None), MM))
                self.assertEqual(back.members["m2"].down, None)

    def test_the_shortest_turn_takes_one_way_to_the_other_and_keeps_right_angles(self) -> None:
        ways = [(0.0, 0.0, 1.0), (0.0, 0.0, -1.0), (0.0, 1.0, 0.0), (cos(radians(30)), 0.0, sin(radians(30))), (0.0, -0.6, 0.8)]
        for a in ways:
            for b in ways:
                x, y, z = turned_to(a, b)
                image = tuple(x[k] * a[0] + y[k] * a[1] + z[k] * a[2] for k in range(3))
                self.assertLess(max(abs(image[k] - b[k]) for k in range(3)), 1e-12)
                cross = (x[1] * y[2] - x[2] * y[1], x[2] * y[0] - x[0] * y[2], x[0] * y[1] - x[1] * y[0])
                self.assertLess(max(abs(cross[k] - z[k]) for k in range(3)), 1e-12)


if __name__ == "__main__":
    unittest.main()
