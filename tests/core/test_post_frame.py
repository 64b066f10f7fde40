"""Frames of posts: the figures of slopes, beams, knees, laps and falling ground, each by trigonometry; what is refused; what edits keep."""

import unittest
from dataclasses import replace
from math import cos, radians, sin, sqrt, tan
from typing import Any

from fennup.core.drawing.edit import Choose, Give, TypeIn
from fennup.core.errors import SpecError
from fennup.core.fit.meeting import Meetings
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.solid import solids_of_all
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof
from fennup.core.verify.joints import check_joint
from tests.core.frames import Solved, after, solved, spec_of

POSTS = KINDS["post_frame"]
MM = tape("mm", "1")


def post(column: int, height: float, row: int = 1, size: float = 64.0, **more: Any) -> dict[str, Any]:
    return {"column": str(column), "row": str(row), "width_mm": size, "thickness_mm": size, "height_mm": height, **more}


def rail(
    posts: str, height: float, width: float = 90.0, thickness: float = 27.0, rise: float = 0.0, **joint: Any
) -> dict[str, Any]:
    size = {"width_mm": width, "thickness_mm": thickness, "height_mm": height, "rise_deg": rise}
    return {"a": posts[0], "b": posts[1], **size, "joint": joint}


def frame(posts: dict[str, Any], columns: tuple[float, ...], rows: tuple[float, ...] = (0.0,), **more: Any) -> dict[str, Any]:
    lines = {name: {str(i + 1): at for i, at in enumerate(places)} for name, places in (("columns", columns), ("rows", rows))}
    return {"kind": "post_frame", **lines, "posts": posts, **more}


def four(height: float = 720.0, **more: Any) -> dict[str, Any]:
    posts = {id: post(c, height, r) for id, c, r in (("A", 1, 1), ("B", 2, 1), ("C", 1, 2), ("D", 2, 2))}
    return frame(posts, (0.0, 900.0), (0.0, 500.0), **more)


def pins(**sizes: float) -> list[dict[str, Any]]:
    named = ((name.replace("__", ":"), value) for name, value in sizes.items())
    return [{"measure": name, "deg" if "pitch" in name or "lean" in name else "mm": value} for name, value in named]


class Reading(unittest.TestCase):
    def read(self, made: Solved, **wanted: float) -> None:
        for name, value in wanted.items():
            self.assertAlmostEqual(made.ruler.measure(name.replace("__", ":")) or 0.0, value, places=4, msg=name)

    def closes(self, made: Solved) -> None:
        self.assertIn(made.closing.state, ("exact", "opens"), made.closing)
        self.assertTrue(boolean_proof(made.assembly, made.solids).confirms(made.closing, made.joints))


class Figures(Reading):
    def test_a_sloping_rail_between_posts_and_tops_that_are_flush_with_it(self) -> None:
        # 64 wide, 980 clear, at 18: the rise is 980 tan 18, the edges 980 / cos 18, the cut's offset 140 tan 18; over a post 64 tan 18.
        posts = {"A": post(1, 800.0, flush_with="1"), "B": post(2, 1000.0, flush_with="1")}
        made = solved(frame(posts, (0.0, 1044.0), rails={"1": rail("AB", 400.0, 140.0, 40.0, 18.0, form="between")}))
        self.read(made, rail_rise__1=318.4213, rail_lower__1=1030.4330, rail_upper__1=1030.4330, across_clear__AB=980.0)
        cut = next(facts for facts in made.facts if facts.key == "rail 1").ends["left"][0]
        self.assertAlmostEqual(140 * tan(radians(abs(cut.miter_deg))), 45.4888, places=4)
        # Given by the low post's short side instead: everything goes up together.
        given = pins(across_clear__AB=980.0, post_left__A=820.0, rail_pitch__1=18.0)
        made = solved(made.spec.model_dump(mode="json") | {"pins": given})
        self.read(made, post_left__A=820.0, post_right__A=840.7949, post_left__B=1159.2162, rail_rise__1=318.4213)
        self.closes(made)

    def test_a_slot_between_sloping_rails_is_given_square_to_them_or_plumb(self) -> None:
        rails = {n: rail("AB", height, 90.0, 27.0, 18.0, form="between") for n, height in (("1", 200.0), ("2", 400.0))}
        spec = solved(frame({"A": post(1, 1100.0), "B": post(2, 1200.0)}, (0.0, 1044.0), rails=rails)).spec
        square = solved(after(spec, Give(op="give", measure="square_gap:1-2", text="54"), MM))
        self.read(square, **{"square_gap:1-2": 54.0, "plumb_gap:1-2": 54 / cos(radians(18))})
        self.assertAlmostEqual(square.ruler.measure("plumb_gap:1-2") or 0.0, 56.7789, places=3)
        plumb = solved(after(spec, Give(op="give", measure="plumb_gap:1-2", text="54"), MM))
        self.read(plumb, **{"square_gap:1-2": 54 * cos(radians(18)), "lower_height:1": 200.0})

    def test_a_rise_in_a_run_or_two_heights_say_a_slope_as_well(self) -> None:
        spec = solved(
            frame({"A": post(1, 900.0), "B": post(2, 900.0)}, (0.0, 1044.0), rails={"1": rail("AB", 300.0, form="between")})
        ).spec
        for measure, text in (("rail_pitch:1", "3 in 12"), ("rail_rise:1", "245"), ("lower_end_height:1", "545")):
            made = solved(after(spec, Give(op="give", measure=measure, text=text), MM))
            self.read(made, rail_rise__1=245.0, lower_height__1=300.0)  # 980 x 3 / 12

    def test_a_beam_with_equal_overhangs_is_as_long_as_is_given_and_marked_where_its_posts_stand(self) -> None:
        posts = {id: post(c, 900.0, size=90.0) for c, id in ((1, "A"), (2, "B"))}
        beam = {"1": rail("AB", 900.0, 120.0, 90.0, form="over", over_a_mm=50.0)}
        made = solved(
            frame(
                posts,
                (0.0, 1390.0),
                rails=beam,
                pins=pins(across_clear__AB=1300.0, lower_height__1=900.0, rail_pitch__1=0.0, rail_upper__1=1800.0),
            )
        )
        self.read(made, rail_start__1=160.0)
        seats = next(facts for facts in made.facts if facts.key == "rail 1").seats["rail 1"]
        self.assertEqual([(round(seat.from_mm, 6), round(seat.to_mm, 6)) for seat in seats], [(160.0, 250.0), (1550.0, 1640.0)])
        self.closes(made)

    def test_four_knee_braces_are_one_part_of_four_pieces(self) -> None:
        rails = {n: rail(ends, 720.0, 95.0, 64.0, form="over", over_a_mm=40.0) for n, ends in (("1", "AB"), ("2", "CD"))}
        corners = [{"post": id, "rail": n} for id, n in (("A", "1"), ("B", "1"), ("C", "2"), ("D", "2"))]
        knee = {"corners": corners, "post_mm": 450.0, "rail_mm": 450.0, "width_mm": 70.0, "thickness_mm": 40.0}
        made = solved(four(rails=rails, knees={"1": knee}) | {"columns": {"1": 0.0, "2": 1600.0}})
        self.read(made, knee_long__1=450 * sqrt(2), knee_short__1=450 * sqrt(2) - 2 * 70)
        part = next(part for part in made.parts if part.id.startswith("knee"))
        self.assertEqual(sorted(part.boards), ["knee 1 A1", "knee 1 B1", "knee 1 C2", "knee 1 D2"])
        self.closes(made)

    def test_rails_on_the_faces_laid_on_let_in_notched_and_half_lapped(self) -> None:
        whole = 64.0 * 64.0 * 720.0
        for let_in, notch in ((0.0, 0.0), (12.0, 0.0), (0.0, 9.0), (12.0, 9.0)):
            joint = {"form": "lapped", "side": "front", "let_in_mm": let_in, "notch_mm": notch, "over_a_mm": 20.0}
            made = solved(four(rails={"1": rail("AB", 300.0, **joint), "2": rail("CD", 300.0, form="between")}))
            self.closes(made)
            self.assertAlmostEqual(made.solids["A"].volume(), whole - 64 * 90 * let_in, places=3)
            board = made.solids["rail 1"]
            self.assertAlmostEqual(board.volume(), 90 * 27 * (900 + 64 + 40) - 2 * 64 * 90 * notch, places=3)
            front = min(p[1] for piece in board.world for p in piece.points)
            self.assertAlmostEqual(front, -32.0 - 27.0 + let_in + notch, places=9)

    def test_a_housed_rail_is_longer_by_both_housings(self) -> None:
        made = solved(four(rails={"1": rail("AB", 300.0, 90.0, form="between", housed_mm=12.0)}))
        self.closes(made)
        self.assertAlmostEqual(made.solids["rail 1"].volume(), 90 * 27 * (900 - 64 + 24), places=3)
        # The housing goes right across the post's side.
        self.assertAlmostEqual(made.solids["A"].volume(), 64.0 * 64.0 * 720.0 - 64 * 90 * 12, places=3)
        leaning = frame(
            {"A": post(1, 720.0, lean_deg=8.0), "B": post(2, 720.0, lean_deg=-8.0)},
            (0.0, 900.0),
            rails={"1": rail("AB", 200.0, form="between", housed_mm=10.0)},
        )
        self.closes(solved(leaning))
        with self.assertRaises(SpecError) as refused:
            solved(four(rails={"1": rail("AB", 300.0, form="between", housed_mm=64.0)}))
        self.assertEqual((refused.exception.code, refused.exception.fields), ("let_in_through", ("rails.1.joint.housed_mm",)))

    def test_one_end_sloping_and_the_other_square(self) -> None:
        said = {"form": "lapped", "side": "front", "over_a_mm": 60.0, "ends": "angle", "end_deg": 30.0, "ends_b": "square"}
        made = solved(four(rails={"1": rail("AB", 300.0, **said), "2": rail("CD", 300.0, form="between")}))
        self.closes(made)
        cuts = next(facts for facts in made.facts if facts.key == "rail 1").ends
        self.assertEqual([round(abs(cuts[end][0].miter_deg), 9) for end in ("left", "right")], [30.0, 0.0])
        # The lower edge is the shorter, by 90 tan 30.
        self.assertAlmostEqual(
            (made.ruler.measure("rail_upper:1") or 0) - (made.ruler.measure("rail_lower:1") or 0), 90 * tan(radians(30))
        )

    def test_what_is_laid_on_must_touch_and_lie_in_the_plane(self) -> None:
        made = solved(four(rails={"1": rail("AB", 300.0, form="lapped", side="front")}))
        joint = next(joint for joint in made.assembly.joints if joint.kind == "face" and joint.b.board == "B")
        board = made.assembly.board("rail 1")
        for by, closes in (((0.0, 0.0, 40.0), True), ((0.0, -0.01, 0.0), False), ((0.0, 0.0, 500.0), False)):
            x, y, z = board.frame.origin
            moved = board.but(frame=replace(board.frame, origin=(x + by[0], y + by[1], z + by[2])))
            others = tuple(moved if b.id == board.id else b for b in made.assembly.boards)
            assembly = replace(made.assembly, boards=others)
            solids = solids_of_all(others)
            check = check_joint(assembly, joint, solids)
            self.assertEqual(check.closes, closes, by)
            self.assertEqual(joint.id not in boolean_proof(assembly, solids).apart, closes, by)

    def test_on_falling_ground_every_foot_has_its_own_length_and_a_sill_lies_along_it(self) -> None:
        beams = {
            "1": rail("AB", 700.0, 120.0, 64.0, form="over"),
            "2": rail("CD", 700.0 + 500 * tan(radians(1)), 120.0, 64.0, form="over"),
        }
        made = solved(four(rails=beams, ground={"right_deg": 2.0, "back_deg": 1.0}))
        right, back = 900 * tan(radians(2)), 500 * tan(radians(1))
        self.read(
            made, post_height__A=700.0, post_height__B=700 + right, post_height__C=700 + back, post_height__D=700 + right + back
        )
        sills = {
            n: {"under": under, "width_mm": 64.0, "thickness_mm": 40.0, "over_a_mm": 80.0}
            for n, under in (("1", ["A", "B"]), ("2", ["C", "D"]))
        }
        made = solved(four(rails={}, ground={"right_deg": 3.0}, feet=sills))
        self.closes(made)
        self.assertAlmostEqual(made.assembly.board("foot 1").frame.x[2], -sin(radians(3)), places=9)
        self.read(made, foot_length__1=(900 + 64) / cos(radians(3)) + 160)

    def test_leaning_posts_their_rails_and_their_heads_together(self) -> None:
        turn = radians(20)
        posts = {"A": post(1, 900.0, lean_deg=20.0, meets="B"), "B": post(2, 900.0, lean_deg=-20.0)}
        made = solved(
            frame(
                posts,
                (0.0, 800.0),
                rails={"1": rail("AB", 250.0, form="between"), "2": rail("AB", 60.0, form="lapped", side="front", ends="flush")},
            )
        )
        self.closes(made)
        # Their outer sides meet over the middle: 400 and half a foot's level width up at cot 20.
        self.read(made, post_left__A=(400 + 32 / cos(turn)) / sin(turn), across_clear__AB=800 - 64 / cos(turn))
        clear = 800 - 64 / cos(turn) - 2 * 250 * tan(turn)
        self.read(made, rail_run__1=clear, rail_lower__1=clear, rail_upper__1=clear - 2 * 90 * tan(turn))
        self.read(made, rail_lower__2=800 + 64 / cos(turn) - 2 * 60 * tan(turn))

    def test_slats_lie_across_rails_as_bars_are_spaced(self) -> None:
        rails = {n: rail(ends, 720.0, 95.0, 64.0, form="over", over_a_mm=18.0) for n, ends in (("1", "AB"), ("2", "CD"))}
        made = solved(
            four(
                rails=rails, slats={"1": {"on": ["1", "2"], "count": 6, "width_mm": 100.0, "thickness_mm": 20.0, "over_mm": 30.0}}
            )
        )
        self.closes(made)
        self.read(made, slat_centres__1=(1000 - 100) / 5)
        low, high = made.solids["slat 1.1"].extent_x()
        self.assertAlmostEqual(high - low, 500 + 64 + 60)


class Small(Reading):
    """One figure each: which way it counts."""

    def level(self, made: Solved, id: str, way: int) -> tuple[float, float]:
        places = [p[way] for piece in made.solids[id].world for p in piece.points]
        return min(places), max(places)

    def test_ground_and_steps_lift_a_foot_and_lower_what_is_over_it(self) -> None:
        stepped = four(
            rails={"1": rail("AC", 200.0, form="between"), "2": rail("BD", 200.0, form="between")}, ground={"back_deg": 2.0}
        )
        stepped["posts"]["D"] |= {"step_mm": 50.0}
        made = solved(stepped)
        falls = 500 * tan(radians(2))
        self.read(made, lower_end_height__1=200 + falls, lower_end_height__2=200 + falls - 50)

    def test_a_top_that_slopes_up_to_the_right_or_the_back(self) -> None:
        for way, low, high in (("x", "left", "right"), ("y", "front", "back")):
            made = solved(frame({"A": post(1, 700.0, top_deg=18.0, top_way=way)}, (0.0,)))
            half = 32 * tan(radians(18))
            self.read(made, **{f"post_{low}:A": 700 - half, f"post_{high}:A": 700 + half, "top_pitch:A": 18.0})

    def test_where_a_rail_lies_in_the_depth_of_its_posts(self) -> None:
        made = solved(four(rails={"1": rail("AB", 200.0, form="between", set_in_mm=5.0), "2": rail("CD", 200.0, form="between")}))
        self.assertEqual([round(v, 9) for v in self.level(made, "rail 1", 1)], [-27.0, 0.0])  # 5 in from the front at -32
        self.assertEqual([round(v, 9) for v in self.level(made, "rail 2", 1)], [486.5, 513.5])
        over = solved(four(rails={"1": rail("AB", 720.0, form="over", aside_mm=10.0)}))
        self.assertEqual([round(v, 9) for v in self.level(over, "rail 1", 1)], [-23.5, 3.5])  # towards the front

    def test_each_end_goes_past_its_own_post(self) -> None:
        made = solved(four(rails={"1": rail("AB", 300.0, form="lapped", side="front", over_a_mm=30.0, over_b_mm=70.0)}))
        self.assertEqual([round(v, 9) for v in self.level(made, "rail 1", 0)], [-62.0, 1002.0])
        self.read(made, rail_start__1=30.0, rail_end__1=70.0)

    def test_knees_on_both_sides_of_a_post_under_a_beam(self) -> None:
        posts = {"ABC"[i]: post(i + 1, 900.0) for i in range(3)}
        corners = [{"post": "B", "rail": "1", "ahead": True}, {"post": "B", "rail": "1", "ahead": False}]
        knee = {"corners": corners, "post_mm": 200.0, "rail_mm": 200.0, "width_mm": 50.0, "thickness_mm": 30.0}
        made = solved(
            frame(posts, (0.0, 800.0, 1600.0), rails={"1": rail("AC", 900.0, 95.0, 64.0, form="over")}, knees={"1": knee})
        )
        self.closes(made)
        self.assertGreater(self.level(made, "knee 1 B1 ahead", 0)[0], 800.0)
        self.assertLess(self.level(made, "knee 1 B1 back", 0)[1], 800.0)

    def test_crossing_braces_are_each_others_mirror_image(self) -> None:
        brace = {"a": "A", "b": "B", "low_mm": 60.0, "high_mm": 380.0, "width_mm": 45.0, "thickness_mm": 20.0, "crossing": True}
        made = solved(four(braces={"1": brace}))
        self.closes(made)
        for a, b in zip(self.level(made, "brace 1", 2), self.level(made, "brace 1 over", 2), strict=True):
            self.assertAlmostEqual(a, b)
        self.assertEqual(sum(joint.kind == "lap" for joint in made.assembly.joints), 1)

    def test_a_rail_on_faces_is_marked_where_it_crosses_and_opens_no_more_than_there(self) -> None:
        made = solved(four(rails={"1": rail("AB", 300.0, form="lapped", side="front", over_a_mm=20.0)}))
        facts = {facts.key: facts for facts in made.facts}
        self.assertEqual([(seat.from_mm, seat.to_mm) for seat in facts["A"].seats["A"]], [(300.0, 390.0)])
        self.assertEqual(
            [(round(seat.from_mm, 6), round(seat.to_mm, 6)) for seat in facts["rail 1"].seats["rail 1"]],
            [(20.0, 84.0), (920.0, 984.0)],
        )
        sloping = solved(
            four(rails={"1": rail("AB", 300.0, rise=10.0, form="lapped", side="front", over_a_mm=20.0, over_b_mm=0.0)})
        )
        (seat,) = next(facts for facts in sloping.facts if facts.key == "A").seats["A"]
        turn = radians(10)
        self.assertAlmostEqual(seat.from_mm, 300 - 64 * tan(turn))  # at the post's outer side
        self.assertAlmostEqual(seat.to_mm, 300 + 90 / cos(turn))  # at its inner one
        meeting = Meetings(made.assembly, made.solids).all["A rail 1"]
        self.assertEqual(sorted((round(meeting.wide_mm, 6), round(meeting.deep_mm, 6))), [64.0, 90.0])


class SidesTogether(Reading):
    def test_what_leans_or_slopes_the_other_way_is_not_turned_round(self) -> None:
        posts = {"A": post(1, 700.0, lean_deg=5.0, leans="y", top_deg=10.0, top_way="x"), "B": post(2, 400.0)}
        rails = {n: rail("AB", height, form="between") for n, height in (("1", 100.0), ("2", 300.0))}
        spec = solved(frame(posts, (0.0, 900.0), rails=rails, alike="x")).spec
        self.assertEqual((spec.posts["B"].lean_deg, spec.posts["B"].top_deg), (5.0, -10.0))
        both = {
            n: rail(ends, h, form="between")
            for n, ends, h in (("1", "AC", 100.0), ("2", "AC", 300.0), ("3", "BD", 50.0), ("4", "BD", 60.0))
        }
        made = solved(four(rails=both, alike="x"))
        self.assertEqual([made.spec.rails[n].height_mm for n in "34"], [100.0, 300.0])

    def test_the_right_side_is_the_left_one_mirrored(self) -> None:
        posts = {
            "A": post(1, 700.0, lean_deg=5.0, on_column="left"),
            "B": post(2, 400.0),
            "C": post(1, 800.0, row=2),
            "D": post(2, 500.0, row=2),
        }
        posts |= {"C": post(1, 800.0, row=2, lean_deg=5.0, on_column="left")}
        rails = {
            "1": rail("AC", 200.0, form="lapped", side="left", over_a_mm=30.0), "2": rail("BD", 330.0, 60.0, form="between"),
            "3": rail("AB", 100.0, form="between"),
        }  # fmt: skip
        made = solved(frame(posts, (0.0, 900.0), (0.0, 500.0), rails=rails, alike="x"))
        self.assertIn(made.closing.state, ("exact", "opens"))
        spec = made.spec
        self.assertEqual((spec.posts["B"].height_mm, spec.posts["B"].lean_deg, spec.posts["B"].on_column), (700.0, -5.0, "right"))
        self.assertEqual(
            (spec.rails["2"].height_mm, spec.rails["2"].width_mm, spec.rails["2"].joint.side), (200.0, 90.0, "right")
        )
        for here, there in (("A", "B"), ("C", "D"), ("rail 1", "rail 2")):
            one, other = (
                sorted(
                    (round(sense * (p[0] - 450), 6), round(p[1], 6), round(p[2], 6))
                    for piece in made.solids[id].world
                    for p in piece.points
                )
                for id, sense in ((here, 1), (there, -1))
            )
            self.assertEqual(one, other)
        self.assertEqual(
            [made.assembly.board(id).name for id in ("A", "B", "rail 2", "rail 3")],
            ["Post A, left side", "Post B, right side", "Rail 2, right side", "Rail 3"],
        )
        # What is given on either side holds on both; a figure of the second one itself is refused, and says whom it follows.
        changed = solved(after(spec, Give(op="give", measure="lower_height:2", text="250"), MM))
        self.read(changed, lower_height__1=250.0, lower_height__2=250.0)
        with self.assertRaises(SpecError) as refused:
            after(spec, TypeIn(op="type", path="rails.2.width_mm", text="50"), MM)
        self.assertEqual((refused.exception.code, refused.exception.data["other"]), ("follows_its_like", "1"))
        apart = spec_of(after(changed.spec, Choose(op="choose", path="alike", value=None), MM))
        self.assertEqual((round(apart.rails["2"].height_mm, 9), apart.rails["2"].joint.side), (250.0, "right"))

    def test_three_and_four_columns_lie_alike_about_their_middle(self) -> None:
        for columns, clear in (((0.0, 300.0, 1000.0), "across_clear:AB"), ((0.0, 300.0, 800.0, 1000.0), "across_clear:BC")):
            posts = {"ABCD"[i]: post(i + 1, 500.0) for i in range(len(columns))}
            rails = {str(i + 1): rail("ABCD"[i : i + 2], 300.0, form="between") for i in range(len(columns) - 1)}
            made = solved(frame(posts, columns, rails=rails, alike="x"))
            places = list(made.spec.columns.values())
            for a, b in zip(places, reversed(places), strict=True):
                self.assertAlmostEqual(a + b, places[-1])
            wider = solved(after(made.spec, Give(op="give", measure=clear, text="450"), MM))
            self.assertAlmostEqual(wider.ruler.measure(clear) or 0.0, 450.0)
            lengths = [round(wider.ruler.measure(f"rail_lower:{n}") or 0.0, 6) for n in wider.spec.rails]
            self.assertEqual(lengths, lengths[::-1])


class Refused(unittest.TestCase):
    def test_each_names_its_field(self) -> None:
        over = {"1": rail("AB", 720.0, 95.0, 64.0, form="over")}
        lap = {"form": "lapped", "side": "front"}
        cases: list[tuple[str, str, dict[str, Any]]] = [
            ("no_such_line", "posts.E.column", four() | {"posts": four()["posts"] | {"E": post(7, 700.0)}}),
            ("posts_in_one_place", "posts.E.column", four() | {"posts": four()["posts"] | {"E": post(1, 700.0)}}),
            ("no_such_post", "rails.1.b", four(rails={"1": rail("AZ", 100.0, form="between")})),
            ("from_itself", "rails.1.b", four(rails={"1": rail("AA", 100.0, form="between")})),
            ("stands_in", "rails.2", four(rails={n: rail("AB", 100.0, form="between") for n in "12"})),
            ("runs_off", "rails.1.height_mm", four(rails={"1": rail("AB", 700.0, form="between")})),
            ("rail_misses", "rails.1.height_mm", four(rails={"1": rail("AB", 800.0, **lap)})),
            ("let_in_through", "rails.1.joint.let_in_mm", four(rails={"1": rail("AB", 100.0, **lap, let_in_mm=64.0)})),
            ("notch_through_rail", "rails.1.joint.notch_mm", four(rails={"1": rail("AB", 100.0, **lap, notch_mm=27.0)})),
            ("let_in_two_ways", "rails.2.joint.let_in_mm", four(rails={"1": rail("AB", 100.0, **lap, let_in_mm=9.0), "2": rail("AC", 300.0, form="lapped", side="left", let_in_mm=9.0)})),
            ("knee_misses", "knees.1.corners", four(rails={"1": rail("AB", 500.0, **lap)}, knees={"1": {"corners": [{"post": "A", "rail": "1"}], "post_mm": 99.0, "rail_mm": 99.0, "width_mm": 40.0, "thickness_mm": 20.0}})),
            ("bracing_level", "braces.1.high_mm", four(braces={"1": {"a": "A", "b": "B", "low_mm": 300.0, "high_mm": 300.0, "width_mm": 40.0, "thickness_mm": 20.0, "crossing": True}})),
            ("posts_parallel", "posts.A.meets", four() | {"posts": four()["posts"] | {"A": post(1, 700.0, meets="B")}}),
            ("step_on_foot", "posts.A.step_mm", four(feet={"1": {"under": ["A"], "width_mm": 64.0, "thickness_mm": 40.0}}) | {"posts": four()["posts"] | {"A": post(1, 700.0, step_mm=20.0)}}),
            ("flush_under", "posts.A.flush_with", four(rails=over | {"2": rail("AB", 300.0, form="between")}) | {"posts": four()["posts"] | {"A": post(1, 700.0, flush_with="2")}}),
            ("rails_not_level", "slats.1.on.1", four(rails={"1": rail("AB", 300.0, form="between"), "2": rail("CD", 310.0, form="between")}, slats={"1": {"on": ["1", "2"], "count": 3, "width_mm": 40.0, "thickness_mm": 18.0}})),
        ]  # fmt: skip
        for code, field, document in cases:
            with self.subTest(code), self.assertRaises(SpecError) as refused:
                solved(document)
            self.assertEqual((refused.exception.code, refused.exception.fields[0]), (code, field))

    def test_faces_that_do_not_lie_in_one_plane_say_by_how_much(self) -> None:
        posts = {"A": post(1, 700.0), "B": post(2, 700.0, size=90.0)}
        spec = frame(posts, (0.0, 900.0), rails={"1": rail("AB", 300.0, form="lapped", side="front")})
        with self.assertRaises(SpecError) as refused:
            solved(spec)
        self.assertAlmostEqual(refused.exception.data["mm"], 13.0)  # half of 90 less half of 64
        # Both with their front on the row, they do.
        spec["posts"] = {id: p | {"on_row": "front"} for id, p in posts.items()}
        self.assertTrue(all(check.closes for check in solved(spec).joints))


class Edits(unittest.TestCase):
    def test_what_is_taken_away_takes_along_what_hangs_on_it_and_what_is_given_stays(self) -> None:
        made = solved(POSTS.starts["slat_bench"])
        spec = spec_of(after(made.spec, Give(op="give", measure="across_clear:AB", text="1040"), MM))
        spec = spec_of(after(spec, Choose(op="choose", path="away", value="rail 2"), MM))
        self.assertEqual((list(spec.rails), spec.slats), (["1", "3", "4"], {}))
        self.assertIn(("across_clear:AB", 1040.0, False), [(p.measure, p.value, p.suggested) for p in spec.given_pins()])
        again = spec_of(after(spec, Choose(op="choose", path="add", value="beam:CD"), MM))
        self.assertEqual(list(again.rails), ["1", "3", "4", "5"])  # a number is never given twice
        self.assertIn("lower_height:5", [p.measure for p in again.given_pins() if p.suggested])
        fewer = spec_of(after(again, Choose(op="choose", path="away", value="D"), MM))
        self.assertEqual((list(fewer.posts), list(fewer.rails)), (["A", "B", "C"], ["1", "3"]))
        self.assertTrue(all(check.closes for check in solved(fewer.model_dump(mode="json")).joints))

    def test_a_size_that_was_given_of_what_goes_is_no_longer_asked_for(self) -> None:
        spec = solved(POSTS.starts["slope_stand"]).spec
        spec = spec_of(after(spec, Give(op="give", measure="upper_height:3", text="230"), MM))
        spec = spec_of(after(spec, Choose(op="choose", path="away", value="rail 3"), MM))
        self.assertNotIn("upper_height:3", [p.measure for p in spec.given_pins()])
        self.assertTrue(all(check.closes for check in solved(spec.model_dump(mode="json")).joints))
        more = spec_of(after(spec, Choose(op="choose", path="add", value="column"), MM))
        self.assertEqual([more.posts[id].flush_with for id in "EF"], [None, None])

    def test_columns_are_added_as_far_on_as_the_last_one(self) -> None:
        made = solved(POSTS.starts["post_panel"])
        spec = spec_of(after(made.spec, Choose(op="choose", path="add", value="column"), MM))
        self.assertEqual((spec.columns["4"], spec.posts["D"].height_mm), (3000.0, 1100.0))


if __name__ == "__main__":
    unittest.main()
