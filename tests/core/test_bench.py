"""What happened, folded; and what the bench asks of every cut: against closed forms, and against the finished boards themselves."""

import unittest
from collections import Counter
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from math import acos, asin, cos, degrees, dist, radians, sin, tan
from random import Random
from typing import Any

from fennup.app.services.demo import PROJECTS, TOOLS
from fennup.core.bench.picture import lit_view
from fennup.core.bench.practice import drill_for, levels_in
from fennup.core.bench.rescue import other_uses, there_already
from fennup.core.bench.task import length_check, slips_of, verdict_of
from fennup.core.bench.tasks import own_end, task_key, tasks_for
from fennup.core.boards.planned import plan_boards
from fennup.core.parts.alike import fingerprint
from fennup.core.parts.solid import arris_length, end_cut
from fennup.core.plan import plan_with
from fennup.core.records.entry import CutBody, Entry, MeasuredBody, Put, UndoneBody, WrongBody
from fennup.core.records.fold import Wood, fold, is_wrong, wood_of
from fennup.core.saw.pose import blade_angles
from fennup.core.steps.planned import steps_for
from fennup.core.steps.step import ENDS_OF_BOARDS
from fennup.core.tolerances import SAME
from fennup.core.workshop import TapeChoice, Workshop
from tests.core.cut_boards import a_board, bar, design, on_rack, order, where
from tests.core.frames import box, level, rectangle, regular
from tests.core.test_steps import planned

NOON = datetime(2026, 11, 20, 12, tzinfo=UTC)
BENCH = Workshop(tools=TOOLS, tape=TapeChoice(unit="mm", graduation="1"))


def entry(number: int, type: str, key: str = "m1/A left:0", minute: float = 0.0, fingerprint: str = "now", **body: Any) -> Entry:
    forms = {"cut": CutBody, "measured": MeasuredBody, "wrong": WrongBody, "undone": UndoneBody}
    if type == "measured":
        body = {"what": "length", "planned": 500.0, "unit": "mm", "measured": 500.0, "verdict": "right"} | body
    at = NOON + timedelta(minutes=minute)
    return Entry(f"{number:08d}-0000-4000-8000-000000000000", key, type, at, "desk", fingerprint, forms[type](**body))


def any_entries(random: Random, count: int = 40) -> list[Entry]:
    """Everything that can happen, from three devices whose clocks are not the same, with ties."""
    keys = [f"m1/{board} {end}:0" for board in "AB" for end in ("left", "right")]
    made: list[Entry] = []
    for n in range(count):
        minute, key = random.randrange(12) + random.choice((0.0, 0.7, -1.3)), random.choice(keys)
        type = random.choice(("cut", "cut", "measured", "wrong", "undone"))
        body: dict[str, Any] = {}
        if type == "measured":
            body = {"verdict": random.choice(("right", "near", "wrong")), "measured": random.uniform(490, 510)}
        elif type == "wrong":
            sets = [Put(key=k, to=random.choice(("open", "cut")), fingerprint="p") for k in random.sample(keys, 2)]
            body = {"way": random.choice(("recut", "use", "shave", "keep")), "piece": "m1/A", "other": "m1/B", "sets": sets}
        elif type == "undone":
            body = {"takes_back": made[random.randrange(len(made))].id if made else "none"}
        made.append(entry(n, type, key, minute, **body))
    return made


class Folded(unittest.TestCase):
    def test_three_devices_in_any_order_make_one_state(self) -> None:
        random = Random(15)
        for _ in range(60):
            entries = any_entries(random)
            once, wood = fold(entries), wood_of(entries)
            for _ in range(6):
                sent = random.sample(entries, len(entries)) + random.sample(entries, 5)  # some arrive twice
                self.assertEqual(fold(sent), once)
                self.assertEqual(wood_of(sent), wood)

    def test_the_later_entry_holds_and_what_is_taken_back_never_was(self) -> None:
        cut, later = entry(9, "cut", minute=1), entry(2, "cut", minute=5, fingerprint="then")
        (state,) = fold([later, cut]).values()
        self.assertEqual((state.cut, state.fingerprint), (later, "then"))
        # Measuring it says nothing of what it was cut to.
        self.assertEqual(fold([later, entry(4, "measured", minute=6)])["m1/A left:0"].fingerprint, "then")
        back = entry(3, "undone", minute=0, takes_back=later.id)  # by a device whose clock is behind
        self.assertEqual(fold([cut, later, back])["m1/A left:0"].cut, cut)
        self.assertEqual(fold([cut, later, back, entry(4, "undone", takes_back=cut.id)]), {})

    def test_what_is_measured_wrong_is_not_done_until_somebody_says_what_becomes_of_it(self) -> None:
        short = entry(1, "measured", minute=1, verdict="wrong", measured=498.0)
        (state,) = fold([short]).values()
        self.assertEqual((state.cut, is_wrong(state)), (None, True))
        (kept,) = fold([short, entry(2, "wrong", minute=2, way="keep", piece="m1/A")]).values()
        self.assertTrue(kept.cut and is_wrong(kept))
        # Read again, rightly: the last reading of a thing counts.
        (again,) = fold([short, entry(2, "measured", minute=2)]).values()
        self.assertTrue(again.cut and not is_wrong(again))
        shave = entry(2, "wrong", minute=2, way="shave", piece="m1/A", sets=[Put(key="m1/A left:0", to="open")])
        (open_,) = fold([entry(1, "cut"), shave]).values()
        self.assertEqual((open_.cut, open_.wrong), (None, shave))
        (shaved,) = fold([entry(1, "cut"), shave, entry(3, "cut", minute=3)]).values()
        self.assertEqual((is_wrong(shaved), shaved.cut is not None), (False, True))

    def test_a_piece_begun_again_is_to_do_and_one_made_of_it_is_partly_done(self) -> None:
        sets = [Put(key="m1/A left:0", to="open"), Put(key="m1/B rabbet", to="cut", fingerprint="b")]
        used = entry(2, "wrong", minute=2, way="use", piece="m1/A", other="m1/B", sets=sets)
        states = fold([entry(1, "cut"), used])
        self.assertEqual((states["m1/A left:0"].cut, is_wrong(states["m1/A left:0"])), (None, False))
        self.assertEqual((states["m1/B rabbet"].cut, states["m1/B rabbet"].fingerprint), (used, "b"))
        wood = wood_of([used, entry(3, "wrong", way="recut", piece="m1/A"), entry(4, "wrong", way="keep", piece="m1/A")])
        self.assertEqual((dict(wood.again), wood.instead), ({"m1/A": 2}, {"m1/B"}))


class Tasks(unittest.TestCase):
    def tasks(self, document: dict[str, Any]) -> Any:
        made = planned(document, BENCH)
        return made, tasks_for(made.design, made.plan, steps_for(made.design, made.plan))

    def test_every_piece_has_every_step_once_and_is_called_by_its_own_ends(self) -> None:
        for document in PROJECTS:
            made, tasks = self.tasks(document["spec"])
            keys = [task.key for task in tasks]
            self.assertEqual(len(keys), len(set(keys)), document["name"])
            for facts in made.design.facts:
                for step in steps_for(made.design, made.plan).steps:
                    if step.part != facts.key or not step.end or step.work == "test":
                        continue
                    for piece in step.pieces:
                        # The board's own cut at its own end is as steep as its part's at the end that is said.
                        end = own_end(facts, piece, step.end)
                        self.assertEqual(task_key(facts, piece, step), f"{piece} {end}:{step.index}")
                        own, part = made.design.boards[piece].ends(end), facts.board.ends(step.end)
                        steep = [sorted(round(abs(end_cut(p).miter_deg), 6) for p in planes) for planes in (own, part)]
                        self.assertEqual(*steep, (piece, step.key))
            for piece in {task.piece for task in tasks if task.piece}:
                own = [task for task in tasks if task.piece == piece and task.doing == "step"]
                rips = [any(c.what == "width" for c in task.checks) for task in own if task.work == "rip"]
                self.assertEqual(rips, [False] * (len(rips) - 1) + [True] * bool(rips))  # its width is there after the last one
                # What comes out of another piece has its edges already, and no end of its own.
                ends = {task.key for task in own if task.work in ENDS_OF_BOARDS}
                self.assertFalse(ends & set(there_already(tasks, piece)))

    def test_a_mitered_corner_opens_by_the_cosine_and_the_bands_say_so(self) -> None:
        _, tasks = self.tasks(rectangle("outside", 600.0, 400.0, 60.0))
        checks = {c.what: c for t in tasks for c in t.checks if t.key == "m1/A left:0"}
        length, face = checks["length"], checks["face"]
        self.assertAlmostEqual(length.expected, 600.0)
        self.assertAlmostEqual(length.opens, cos(radians(45)))
        # Half a millimetre of gap is let pass: that is 0.707 too short. Half of it is less than a tape in millimetres tells.
        self.assertAlmostEqual(length.near, 0.5 / cos(radians(45)))
        self.assertEqual(length.right, 0.5)
        self.assertEqual([verdict_of(length, v) for v in (600.5, 599.4, 599.2, 600.8)], ["right", "near", "wrong", "wrong"])
        # Across 60 mm an angle that is off by d opens 60 tan d.
        self.assertAlmostEqual(face.expected, 45.0)
        self.assertAlmostEqual(60.0 * tan(radians(1.0)) * face.near, 0.5)
        self.assertAlmostEqual(face.right, face.near / 2)
        pair = next(c for t in tasks if t.doing == "try" for c in t.checks)
        self.assertEqual((pair.what, round(pair.expected, 9)), ("pair", 90.0))

    def test_a_leaning_end_is_measured_against_its_face_too(self) -> None:
        made, tasks = self.tasks(box(level(400.0, 300.0), 150.0, slope_deg=12.0, thickness_mm=21.0))
        tilts = {t.key: c for t in tasks for c in t.checks if c.what == "tilt"}
        self.assertEqual(len(tilts), 8)
        for key, check in tilts.items():
            # Mitered walls that lean 12: sin bevel = cos 12 sin 45; and so the two planes stand on the finished board.
            self.assertAlmostEqual(check.expected, 90.0 - degrees(asin(cos(radians(12.0)) * sin(radians(45.0)))))
            piece, _, end = key.rpartition(" ")
            (plane,) = made.design.boards[piece].ends(end.removesuffix(":0"))
            self.assertAlmostEqual(check.expected, min(degrees(acos(s * plane.normal[2])) for s in (1, -1)))

    def test_the_first_of_its_like_is_measured_first_and_all_are_laid_together(self) -> None:
        for school in ("by_setting", "first_as_pattern"):
            workshop = BENCH.model_copy(update={"wishes": BENCH.wishes.model_copy(update={"school": school})})
            made = planned(regular(6, 40.0, "opening_flats", mm=300.0), workshop)
            tasks = tasks_for(made.design, made.plan, steps_for(made.design, made.plan))
            first = [t for t in tasks if t.first]
            self.assertEqual(len(first), 1, school)
            alike = [t for t in tasks if t.work == "second_end" and t.doing == "step"]
            self.assertEqual((len(alike), alike[0]), (6, first[0]))
            self.assertEqual([t.doing for t in tasks].index("together"), tasks.index(alike[-1]) + 1)

    def test_what_is_lit_in_the_picture_is_what_must_be_read(self) -> None:
        lengths = angles = 0
        for document in PROJECTS:
            made, tasks = self.tasks(document["spec"])
            facts = {f.key: f for f in made.design.facts}
            steps = {step.key: step for step in steps_for(made.design, made.plan).steps}
            for task in tasks:
                step = steps[task.step]
                for check in task.checks:
                    view = lit_view(facts[task.part], check, step.end, step.index) if task.doing == "step" else None
                    lit = [shape.points for shape in view.shapes if shape.role == "lit"] if view else []
                    if check.what == "length":
                        self.assertAlmostEqual(dist(*lit[0]), check.expected)
                        lengths += 1
                        if step.marking and abs(step.marking.length_mm - facts[task.part].arrises[step.marking.arris]) < SAME:
                            self.assertEqual(check.arris, step.marking.arris)  # where it was marked it is measured
                    elif check.what == "face":
                        (a, b), (c, d) = lit
                        cut, stock = (a[0] - b[0], a[1] - b[1]), (c[0] - d[0], c[1] - d[1])
                        across = abs(cut[0] * stock[0] + cut[1] * stock[1]) / dist(a, b) / dist(c, d)
                        self.assertAlmostEqual(degrees(acos(min(1.0, across))), check.expected, places=4)
                        angles += 1
        self.assertGreater(min(lengths, angles), 100)

    def test_a_slip_is_told_from_a_bad_cut(self) -> None:
        _, tasks = self.tasks(rectangle("outside", 600.0, 400.0, 60.0))
        length = next(c for t in tasks for c in t.checks if c.what == "length" and c.expected > 500)
        slips = {m.slip: m.value for m in slips_of(length) if m.slip not in ("burned", "inch", "foot")}
        # 600 mm are 1' 11.622": run together 111.622, exchanged 11' 1.622"; 23.622 parted 2' 3.622", its digits swapped 32.622.
        wanted = {"mm": 15240.0, "inches": 23.622, "cm": 60.0, "m": 0.6, "nought": 6.0, "run": 27.622 * 25.4, "feet_inches": 133.622 * 25.4,
                  "swapped": 32.622 * 25.4}  # fmt: skip
        self.assertEqual({k: round(v, 1) for k, v in slips.items()}, {k: round(v, 1) for k, v in wanted.items()})
        burned = sorted(m.value for m in slips_of(length) if m.slip == "burned")
        self.assertEqual([round(v, 6) for v in burned], [500.0, 590.0, 610.0, 700.0])


class Practice(unittest.TestCase):
    def test_one_of_four_ways_makes_the_part_and_the_others_what_is_said(self) -> None:
        slips: Counter[str] = Counter()
        for document in PROJECTS:
            made = planned(document["spec"], BENCH)
            plan = steps_for(made.design, made.plan)
            facts = {f.key: f for f in made.design.facts}
            for hard, steps in levels_in(plan, facts).items():
                for step in steps:
                    drill = drill_for(step, hard, facts[step.part], plan, Random(3))
                    if drill is None:
                        continue
                    self.assertEqual([o.right for o in drill.options].count(True), 1)
                    x, y, z = step.cut.normal
                    for option in drill.options:
                        self.assertEqual(
                            fingerprint(option.piece.board, option.piece) == facts[step.part].fingerprint, option.right
                        )
                        # Laid so, this is what the blade must be for that cut: the other way round than the drill reckoned it.
                        way, fence = option.way, plan.tools[option.way.tool].fence_place
                        blade = blade_angles(option.cut, way.pose, fence)
                        self.assertAlmostEqual(blade.swing_deg, way.swing_deg)
                        self.assertAlmostEqual(blade.tilt_deg, way.tilt_deg)
                        self.assertEqual(blade.kept, way.kept)
                        made_so = {
                            None: (x, y, z),
                            "slants": (x, -y, z),
                            "leans": (x, y, -z),
                            "half_round": (x, -y, -z),
                            "line": (x, y, z),
                            "kerf": (x, y, z),
                        }
                        one_cut = len(option.piece.board.left) == len(option.piece.board.right) == 1
                        if option.marked and option.marked.beyond and one_cut:
                            # On the piece that comes of it, that line is as long as was marked.
                            found = arris_length(option.piece.board, option.marked.arris)
                            self.assertAlmostEqual(found, option.marked.length_mm)
                        if option.slip != "scale":
                            for a, b in zip(option.cut.normal, made_so[option.slip], strict=True):
                                self.assertAlmostEqual(a, b)
                        slips[str(option.slip)] += 1
        self.assertEqual(set(slips), {"None", "slants", "leans", "half_round", "scale", "line", "kerf"})

    def test_a_length_on_another_line_and_a_blade_within_the_mark(self) -> None:
        # A rail of 600 along its outer edge, 60 wide, mitered at 45: 480 along its inner edge; the blade is 2.4 wide, 2.4 sqrt 2 along the board.
        made = planned(rectangle("outside", 600.0, 600.0, 60.0), BENCH)
        plan = steps_for(made.design, made.plan)
        facts = {f.key: f for f in made.design.facts}
        step = levels_in(plan, facts)["mark"][0]
        drill = drill_for(step, "mark", facts[step.part], plan, Random(3))
        assert drill
        found = {
            (o.slip, round(o.marked.length_mm, 3), o.marked.beyond): round(arris_length(o.piece.board, "face_lower"), 3)
            for o in drill.options
            if o.marked
        }
        self.assertEqual(
            found,
            {
                (None, 600.0, True): 600.0,
                ("line", 600.0, True): 720.0,
                ("line", 480.0, True): 480.0,
                ("kerf", 600.0, False): round(600 - 2.4 * 2**0.5, 3),
            },
        )

    def test_what_is_the_same_part_when_it_is_turned_is_no_wrong_way(self) -> None:
        # Square at the end that is cut, both sides alike: slanted the other way it is the part turned over.
        for shows in (True, False):
            made = design(a_board("P", 400.0, (0.0, 0.0), (30.0, 0.0), shows=shows))
            plan = plan_with(made, BENCH)
            steps = steps_for(made, plan)
            (step,) = [s for s in steps.steps if s.end == "right" and s.work != "test"]
            drill = drill_for(step.but(work="second_end"), "miter", made.facts[0], steps, Random(1))
            slants = drill is not None and "slants" in {option.slip for option in drill.options}
            self.assertEqual(slants, shows)


class Rescued(unittest.TestCase):
    def test_a_spoiled_piece_becomes_a_shorter_one_only_where_its_whole_wood_is_long_enough(self) -> None:
        long = a_board("P", 500.0, (30.0, 0.0), (30.0, 0.0), 60.0)
        made = design(long, a_board("Q", 400.0, (0, 0), (0, 0), 60.0), a_board("R", 300.0, (0, 0), (0, 0), 55.0))
        p, q, _ = made.facts
        check = _length_of(p)
        (use,) = other_uses(p, check, made.facts, 3.0)
        # Both ends slant over 60 wide: between its short points it is 60 tan 30 at each end less than along its long edge.
        along = 500.0 + 60.0 * tan(radians(30.0))
        self.assertAlmostEqual(check.expected, along)
        self.assertEqual(use.pieces, q.group.boards)
        self.assertAlmostEqual(use.needs_mm, 400.0 + 2 * 3.0 + 2 * 60.0 * tan(radians(30.0)))
        # The other way round: a short board never becomes a long one.
        self.assertEqual(other_uses(q, _length_of(q), made.facts, 3.0), ())

    def test_the_boards_follow_what_was_begun_again_and_what_came_out_of_another(self) -> None:
        made = design(*(a_board(f"P{n}", 400.0, (0, 0), (0, 0), 60.0) for n in range(3)))
        plain = order(made, on_rack(bar(2500.0)), 3.0)
        counts = []
        for wood in (Wood({}, frozenset()), Wood({"P1": 2}, frozenset()), Wood({"P0": 1}, frozenset({"P2"}))):
            asked = replace(plain, cuttings=tuple(replace(c, wood=wood) for c in plain.cuttings))
            plan = plan_boards(asked)
            self.assertEqual(plan.faults, ())
            counts.append(sorted(where(plan)))
        self.assertEqual([len(keys) for keys in counts], [3, 5, 3])
        self.assertNotIn("P2", counts[2])


def _length_of(facts: Any) -> Any:
    """Its length along its longest edge."""
    arris = max(facts.arrises, key=lambda a: facts.arrises[a])
    return length_check("length", facts.arrises[arris], 1.0, 0.5, 1.0, arris)
