"""Keys that last: what an act did not touch is called as before. And fingerprints, against boards that are moved and mirrored."""

import unittest
from dataclasses import replace
from typing import Any

from fennup.core.drawing.edit import Choose, Nudge
from fennup.core.errors import SpecError, UnitError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.vec import add, scale
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.alike import fingerprint
from fennup.core.parts.solid import solid_of
from fennup.core.project.starts import TOGETHER
from fennup.core.units.lengths import tape
from tests.core.frames import Solved, after, all_starts, box, level, rectangle, regular, shown, solved, spec_of

MM = tape("mm", "1")


def places(made: Solved) -> dict[tuple[Any, ...], str]:
    """Every board's key by what it is made of and where it is, whatever it is called. Two of what stands in one place are told apart
    by nothing: they are left out."""
    found: dict[tuple[Any, ...], str] = {}
    twice = set()
    for board in made.assembly.boards:
        corners = sorted(tuple(round(v, 4) + 0.0 for v in p) for piece in made.solids[board.id].world for p in piece.points)
        place = (board.role, tuple(corners))
        twice |= {place} & set(found)
        found[place] = board.id
    return {place: key for place, key in found.items() if place not in twice}


def joints(made: Solved) -> dict[tuple[Any, ...], str]:
    """Every joint's key by its kind and where its first face lies."""
    found = {}
    for joint in made.assembly.joints:
        points = [p for patch in made.solids[joint.a.board].patches(joint.a.facet) for p in patch.points]
        place = sorted({tuple(round(v, 4) + 0.0 for v in p) for p in points})
        found[(joint.kind, joint.b.board, tuple(place))] = joint.id
    return found


class Keys(unittest.TestCase):
    def lasts(self, before: Solved, then: Solved, what: object) -> int:
        """Whatever is as it was is called as it was; how much that is."""
        seen = 0
        for found in (places, joints):
            was, now = found(before), found(then)
            for place in was.keys() & now.keys():
                self.assertEqual(was[place], now[place], what)
                seen += 1
        return seen

    def test_whatever_an_act_does_not_touch_keeps_its_key(self) -> None:
        seen = dict.fromkeys(all_starts(), 0)
        for name, starts in all_starts().items():
            for start in starts:
                made = solved(start)
                acts = [option.acts for control in shown(made).controls for option in control.options]
                counts = [control.acts for control in shown(made).controls if control.unit == "count"]
                acts += [(Nudge(op="nudge", path=act.path, steps=1),) for act in counts if act and hasattr(act, "path")]
                for some in acts:
                    try:
                        spec = made.spec
                        for act in some:
                            spec = spec_of(after(spec, act, MM))
                        then = solved(spec.model_dump(mode="json"))
                    except (SpecError, UnitError):
                        continue
                    seen[name] += self.lasts(made, then, (name, some))
        for name, least in (
            ("flat_frame", 1000),
            ("box", 1000),
            ("stand", 300),
            ("post_frame", 1000),
            ("brace", 40),
            ("roof", 100),
            ("together", 500),
        ):
            self.assertGreater(seen[name], least, seen)

    def test_a_second_row_and_more_courses_rename_nothing(self) -> None:
        rail = {"height_mm": 100.0, "width_mm": 50.0, "thickness_mm": 18.0}
        ring = {"height_mm": 60.0, "tall_mm": 50.0, "thickness_mm": 18.0}
        stool = KINDS["stand"].starts["stool"]
        for more in ({"rails": [rail, rail | {"height_mm": 250.0}]}, {"rings": [ring, ring | {"height_mm": 250.0}]}):
            ((name, rows),) = more.items()
            fewer, many = solved(stool | {"rails": [], name: rows[:1]}), solved(stool | {"rails": [], name: rows})
            self.assertLessEqual({b.id for b in fewer.assembly.boards}, {b.id for b in many.assembly.boards})
            self.assertLessEqual({j.id for j in fewer.assembly.joints}, {j.id for j in many.assembly.joints})
        low, high = (
            solved(box(level(300.0, 300.0), 80.0 * n - 20, courses={"count": n, "board_width_mm": 80.0})) for n in (2, 3)
        )
        self.assertLessEqual({b.id for b in low.assembly.boards}, {b.id for b in high.assembly.boards})
        gable = KINDS["roof"].starts["gable"]
        one, three = (solved(gable | {"shape": gable["shape"] | {"pairs": pairs}}) for pairs in (1, 3))
        self.assertLessEqual({b.id for b in one.assembly.boards}, {b.id for b in three.assembly.boards})

    def test_an_assembly_and_a_piece_keep_theirs_when_others_go_and_come(self) -> None:
        spec = spec_of(TOGETHER["posts_and_rail"])
        fewer = spec_of(after(spec, Choose(op="choose", path="pieces", value="p2"), MM))
        self.assertEqual(list(fewer.pieces), ["p3"])
        more = spec_of(after(fewer, Choose(op="choose", path="members", value="tapered_box"), MM))
        # The number of what has gone is never given again.
        self.assertEqual((list(more.members), more.numbered), (["m1", "m4"], 4))


class Fingerprints(unittest.TestCase):
    def test_boards_of_one_part_have_one_and_other_parts_and_mirror_images_have_others(self) -> None:
        pairs = 0
        for starts in all_starts().values():
            for start in starts:
                made = solved(start)
                prints = [{fingerprint(made.boards[id], made.solids[id]) for id in part.boards} for part in made.parts]
                self.assertTrue(all(len(own) == 1 for own in prints))
                flat = [next(iter(own)) for own in prints]
                self.assertEqual(len(set(flat)), len(flat))
                pairs += sum(part.mirror_of is not None for part in made.parts)
        self.assertGreater(pairs, 1)

    def test_it_stays_when_a_board_is_moved_and_goes_with_two_hundredths_of_a_millimetre(self) -> None:
        made = solved(regular(7, 50.8, "outside_corners", mm=533.4))
        board = made.boards["A"]
        own = fingerprint(board, made.solids["A"])
        frame = Frame(add(board.frame.origin, (3.0, 4.0, 5.0)), board.frame.y, scale(board.frame.x, -1.0), board.frame.z)
        moved = replace(board, frame=frame)
        self.assertEqual(fingerprint(moved, solid_of(moved)), own)
        longer = [replace(board, right=(board.right[0].moved(by),)) for by in (0.0001, 0.02, 0.04, 0.06)]
        self.assertEqual(len({own, *(fingerprint(one, solid_of(one)) for one in longer)}), 4)
        thicker = replace(board, section=replace(board.section, thickness_mm=board.section.thickness_mm + 1.0))
        self.assertNotEqual(fingerprint(thicker, solid_of(thicker)), own)

    def test_a_half_lap_from_the_back_is_another_part_than_one_from_the_face(self) -> None:
        rows = [{"count": 2, "width_mm": 20.0, "way_deg": 90.0}, {"count": 1, "width_mm": 20.0}]
        made = solved(rectangle("opening", 400.0, 300.0, 60.0, inner={"thickness_mm": 20.0, "bars": rows}))
        board = next(board for board in made.assembly.boards if len(board.notches) == 2)
        first, second = board.notches
        # Half of the thickness: the lap's floor is in the same plane from either side.
        from_behind = replace(
            second, planes=tuple(replace(p, normal=(p.normal[0], p.normal[1], -p.normal[2])) for p in second.planes)
        )
        other = replace(board, notches=(first, from_behind))
        self.assertNotEqual(fingerprint(other, solid_of(other)), fingerprint(board, made.solids[board.id]))
