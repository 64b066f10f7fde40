"""The bench over HTTP and on the command line: all it needs at once, what is recorded, what follows for the boards."""

import json
import subprocess
import sys
from pathlib import Path
from types import SimpleNamespace
from typing import Any

from fennup.app.services.bench_sheet import BenchSheet
from fennup.app.services.demo import PROJECTS
from fennup.app.services.projects import PLAIN
from fennup.app.wording.members import sides_of
from fennup.core.saw.marking import crossing
from fennup.core.steps.placed import Placement
from fennup.core.tolerances import SAME
from tests.app.test_api import Api
from tests.core.frames import box, level, rectangle, regular
from tests.core.test_steps import planned

ROOT = Path(__file__).resolve().parent.parent.parent
LEANING = box(level(400.0, 300.0), 150.0, slope_deg=12.0, thickness_mm=21.0)
FRAME = rectangle("outside", 600.0, 400.0, 60.0)


def uuid(number: int) -> str:
    return f"{number:08d}-0000-4000-8000-000000000000"


class BenchPlace(Api):
    def bench(self, project: dict[str, Any]) -> Any:
        return self.read(project, "bench")

    def record(
        self, project: dict[str, Any], number: int, task: dict[str, Any], type: str = "cut", status: int = 200, **more: Any
    ) -> Any:
        body = {"id": uuid(number), "key": task["key"], "fingerprint": task.get("fingerprint", ""), "type": type, "device": "desk",
                "device_time": f"2026-11-20T10:{number % 60:02d}:00+01:00", "body": {}} | more  # fmt: skip
        answer = self.client.post(f"/api/projects/{project['id']}/records", json=body)
        self.assertEqual(answer.status_code, status, answer.text)
        return answer.json

    def task(self, bench: Any, key: str) -> Any:
        return next(task for task in bench["tasks"] if task["key"] == key)


class AtTheBench(BenchPlace):
    def test_every_reading_of_every_demo_project_has_its_words(self) -> None:
        for entry in PROJECTS:
            project = self.new(name=entry["name"], spec=entry["spec"], unit=entry.get("unit", "mm"))
            bench = self.bench(project)
            for check in bench["checks"]:
                ends = [band["to"] for band in check["bands"]]
                self.assertEqual((ends[-1], ends[:-1]), (None, sorted(ends[:-1])), check["label"])
                at = next(band for band in check["bands"] if band["to"] is None or check["expected"] <= band["to"])
                self.assertEqual((at["verdict"], at["ask"]), ("right", False), check["label"])
                self.assertTrue(check["bands"][-1]["ask"])
                for band in check["bands"]:
                    plain = band["text"].replace("{off}", "").replace("{half}", "").replace("{gap}", "")
                    self.assertNotRegex(plain, "[{}]")
            for task in bench["tasks"]:
                self.assertTrue(task["title"] and 0 <= task["step"] < len(bench["steps"]))
                self.assertTrue(all(0 <= check < len(bench["checks"]) for check in task["checks"]))
            keys = {task["key"] for task in bench["tasks"]}
            for piece in bench["pieces"]:
                for outcome in piece["outcomes"]:
                    self.assertLessEqual({put["key"] for put in outcome["body"]["sets"]} | set(outcome["open"]), keys)

    def test_spares_and_pieces_cut_again_that_share_a_cut_have_their_steps_their_bench_and_their_pack(self) -> None:
        """Two alike pieces and a spare nest on slanted ends: a cut of one is a cut of the spare."""
        project = self.new(spec=FRAME)
        rack = self.client.get("/api/rack").json["version"]
        acts = [{"op": "choose", "path": "boards.new", "value": "board"}]
        added = self.client.post("/api/rack/acts", json={"version": rack, "acts": acts}).json
        typed = [
            {"op": "type", "path": f"boards.r1.{name}", "text": text}
            for name, text in (("length_mm", "4000"), ("width_mm", "60"), ("thickness_mm", "20"))
        ]
        self.client.post("/api/rack/acts", json={"version": added["version"], "acts": typed})
        version = self.read(project, "boards")["version"]
        wish = [{"op": "choose", "path": "spares", "value": "by_risk"}]
        answer = self.client.post(f"/api/projects/{project['id']}/boards/acts", json={"version": version, "acts": wish})
        self.assertEqual(answer.status_code, 200, answer.text)
        ends = [cut["ends"] for board in self.read(project, "boards/plan")["boards"] for cut in board["cuts"]]
        self.assertTrue([pair for pair in ends if len(pair) == 2 and any(" spare " in end for end in pair)])
        bench = self.bench(project)
        self.assertTrue(bench["tasks"])
        said = " ".join(
            self.client.get(f"/api/projects/{project['id']}/steps/one", query_string={"key": row["key"]}).json["boards"]
            for row in self.read(project, "steps")["steps"]
        )
        self.assertRegex(said, r"One cut for two: [A-D], spare 1 and [A-D]")
        self.assertIn("out of Board 1", said)
        self.assertNotRegex(said, r"\br1\b|One cut for two: (.*); \1")
        pack = self.client.get(f"/api/projects/{project['id']}/pack.zip")
        self.assertEqual(pack.status_code, 200)

    def test_the_length_says_what_to_do_in_the_words_of_its_edge(self) -> None:
        bench = self.bench(self.new(spec=FRAME))
        task = self.task(bench, "m1/A left:0")
        length = bench["checks"][task["checks"][0]]
        self.assertEqual((length["label"], length["figure"]["whole"]), ("Length along the outer edge", "600"))
        self.assertEqual(
            [band["verdict"] for band in length["bands"]], ["wrong", "wrong", "near", "right", "near", "wrong", "wrong"]
        )
        self.assertIn("Set the stop {off} nearer", length["bands"][-2]["text"])
        self.assertIn("0.50 mm that you let pass", length["bands"][2]["text"])
        self.assertEqual(length["bands"][3]["text"], "Right, as near as the tape tells.")
        (inches,) = [slip for slip in length["slips"] if slip["above"] < 600 / 25.4 < slip["to"]]
        self.assertIn("right in inches", inches["text"])
        # A finer tape tells a quarter of a millimetre: half of what is let pass.
        project = self.new(spec=FRAME)
        self.act(project, {"op": "choose", "path": "project.graduation", "value": "1/2"})
        fine = self.bench(project)
        right = next(b for b in fine["checks"][task["checks"][0]]["bands"] if b["verdict"] == "right")
        self.assertEqual((right["text"], round(right["to"], 4)), ("Right.", round(600 + 0.25 / 0.5**0.5, 4)))

    def test_a_gauge_lies_at_the_sharp_corner_of_what_the_solid_has_there(self) -> None:
        seen = set()
        for spec in (LEANING, *(entry["spec"] for entry in PROJECTS if entry["name"] in ("Boat trestle", "Flag tower"))):
            told, made = self.bench(self.new(spec=spec)), planned(spec)
            for task in told["tasks"]:
                if task["work"] not in ("first_end", "second_end") or task["doing"] != "step":
                    continue
                piece, _, end = task["key"].rpartition(" ")
                facts = next(f for f in made.design.facts if piece in f.group.boards)
                if piece != facts.key:
                    continue  # turned, its sides are the part's
                (plane,) = made.design.boards[piece].ends(end.removesuffix(":0"))
                names, section = sides_of(made, piece), facts.board.section
                out = 1.0 if end.startswith("right") else -1.0
                reach = {
                    (s, t): out * crossing(plane, (s * section.width_mm, t * section.thickness_mm))
                    for s in (1, -1)
                    for t in (1, -1)
                }
                long = "upper" if reach[1, 1] > reach[-1, 1] + SAME else "lower"
                sharp = "face" if reach[1, 1] > reach[1, -1] else "back"
                checks = {told["checks"][k]["what"]: told["checks"][k] for k in task["checks"]}
                if abs(plane.normal[1]) > SAME:
                    self.assertIn(f"stock on the {names[long]}", checks["face"]["how"])
                    seen.add(long)
                if "tilt" in checks:
                    self.assertIn(f"between the {names[sharp]} and the cut", checks["tilt"]["label"])
                    seen.add(sharp)
        self.assertEqual(seen, {"upper", "lower", "face", "back"})

    def test_a_piece_is_cut_again_out_of_the_shortest_offcut_that_holds_it(self) -> None:
        def board(name: str, long: float, wide: float = 60.0, thick: float = 20.0) -> Any:
            offcut = SimpleNamespace(from_mm=100.0, to_mm=100.0 + long, width_mm=wide, thickness_mm=thick)
            return SimpleNamespace(name=name, source="r1", offcuts=[offcut])

        made = planned(FRAME)
        saw: Any = SimpleNamespace(placed={"m1/A": Placement("P", 612.0, {})}, solution=made, voice=PLAIN)
        boards = [
            board("long", 900.0),
            board("fits", 612.0),
            board("short", 611.9),
            board("thin", 650.0, thick=18.0),
            board("narrow", 650.0, 59.0),
        ]
        for there, said in (
            (boards, "offcut of fits that is 612 mm"),
            (boards[2:], "new board"),
            ([*boards[2:], board("wide", 620.0, 90.0)], "offcut of wide"),
        ):
            plan: Any = SimpleNamespace(boards=there)
            self.assertIn(said, BenchSheet(saw, plan).source("m1/A"))

    def test_what_was_cut_stays_cut_when_the_project_changes_and_is_told(self) -> None:
        project = self.new(spec=regular(6, 40.0, "opening_flats", mm=300.0))
        task = self.task(self.bench(project), "m1/A left:0")
        self.record(project, 1, task, body={"planned": {"length": 219.4}})
        changed = self.type(project, "shape.size.mm", "310").json
        progress = self.read(changed, "progress")
        (done,) = [t for t in progress["tasks"] if t["done"]]
        self.assertEqual((done["key"], done["earlier_size"], progress["done"]), ("m1/A left:0", True, 1))
        # With one side less its record is about nothing any more, and is kept.
        fewer = self.type(changed, "shape.sides", "5").json
        self.record(fewer, 2, {"key": "m1/F left:0"})
        self.assertEqual(self.read(fewer, "progress")["strays"], ["m1/F left:0"])

    def test_a_record_in_another_form_is_refused_at_its_field_and_other_types_are_kept(self) -> None:
        project = self.new(spec=FRAME)
        task = self.task(self.bench(project), "m1/A left:0")
        measured = {"what": "length", "planned": 600, "measured": 601, "unit": "mm", "verdict": "wrong"}
        for type, body, field in (
            ("measured", {**measured, "measured": "long"}, "body.measured"),
            ("measured", {**measured, "unit": "ell"}, "body.unit"),
            ("wrong", {"way": "burn", "piece": "m1/A"}, "body.way"),
            ("cut", {"planned": {"length": None}}, "body.planned.length"),
            ("undone", {}, "body.takes_back"),
        ):
            answer = self.record(project, 1, task, type, 422, body=body)
            self.assertEqual(answer["errors"][0]["path"], field)
        self.record(project, 2, task, "measured", body=measured)
        self.record(project, 3, task, "sketch", body={"anything": ["at", "all"]})
        progress = self.read(project, "progress")
        told = next(t for t in progress["tasks"] if t["key"] == task["key"])
        self.assertEqual((told["done"], told["wrong"], told["readings"]["length"]["measured"]), (False, True, 601.0))

    def test_the_example_in_the_description_is_a_record(self) -> None:
        described = (ROOT / "docs/formats.md").read_text().partition("## Records")[2].partition("```json")[2].partition("```")[0]
        project = self.new(spec=FRAME)
        answer = self.client.post(f"/api/projects/{project['id']}/records", json=json.loads(described))
        self.assertEqual(answer.status_code, 200, answer.text)
        self.assertTrue(next(t for t in self.read(project, "progress")["tasks"] if t["key"] == "m1/A left:0")["wrong"])

    def test_a_piece_begun_again_is_planned_once_more_and_bought(self) -> None:
        project = self.new(spec=FRAME)
        self.client.post("/api/prices/ask", json={})

        def pieces() -> list[str]:
            plan = self.read(project, "boards/plan")
            return sorted([p["key"] for board in plan["boards"] for p in board["pieces"]] + [p["key"] for p in plan["unplaced"]])

        self.assertEqual(pieces(), ["m1/A", "m1/B", "m1/C", "m1/D"])
        bench = self.bench(project)
        task = self.task(bench, "m1/A left:0")
        outcomes = next(p for p in bench["pieces"] if p["key"] == "m1/A")["outcomes"]
        recut = next(o for o in outcomes if o["way"] == "recut")
        self.record(project, 1, task)
        self.record(project, 9, self.task(bench, "m1/A together"))  # to be laid together again as well
        self.record(project, 20, task, "wrong", body=recut["body"])
        self.assertEqual(len(pieces()), 5)
        self.assertEqual(self.read(project, "progress")["done"], 0)
        # Used as a shorter side instead: that one needs no wood of its own.
        use = next(o for o in outcomes if o["way"] == "use")
        self.record(project, 23, {"key": task["key"]}, "undone", body={"takes_back": uuid(20)})
        self.record(project, 24, task, "wrong", body=use["body"])
        self.assertEqual(len(pieces()), 4)
        self.assertNotIn(use["body"]["other"], pieces())

    def test_the_command_line_says_the_same_and_a_copy_takes_back_its_own(self) -> None:
        project = self.new(spec=FRAME)
        task = self.task(self.bench(project), "m1/A left:0")
        self.record(project, 1, task)
        self.record(project, 2, task, "undone", body={"takes_back": uuid(1)})
        self.record(project, 3, self.task(self.bench(project), "m1/B left:0"))
        file = self.read(project, "file")
        workshop = self.client.get("/api/workshop/file").json["workshop"]
        saved = Path(self.folder.name) / "workshop.json"
        saved.write_text(json.dumps(workshop))
        out = subprocess.run(
            [sys.executable, "-m", "fennup.app.cli", "progress", "-", "--workshop", str(saved)],
            input=json.dumps(file), capture_output=True, text=True, check=True,
        )  # fmt: skip
        progress = self.read(project, "progress")
        self.assertEqual(json.loads(out.stdout), progress)
        self.assertEqual(progress["done"], 1)
        (copy,) = self.client.post("/api/import", json=file).json["projects"]
        self.assertEqual(self.read({"id": copy}, "progress")["done"], 1)


class Practised(BenchPlace):
    def test_what_goes_wrong_is_remembered_and_offered_where_it_is_needed(self) -> None:
        lean_to = next(entry["spec"] for entry in PROJECTS if entry["name"] == "Oar rack lean-to")
        mitered, square = self.new(spec=FRAME), self.new(spec=lean_to)
        self.assertEqual(self.bench(mitered)["practice"], "")
        drill = self.client.get(f"/api/practice/drill?project={mitered['id']}&level=miter&seed=4").json
        self.assertEqual((len(drill["options"]), [o["right"] for o in drill["options"]].count(True)), (4, 1))
        self.assertIn("Rail", drill["title"])
        for option in drill["options"]:
            self.assertEqual(len(option["solids"]["solids"]), 1 if option["right"] else 2)
        self.client.post("/api/practice/answers", json={"level": "miter", "right": False})
        practice = self.client.get(f"/api/practice?project={mitered['id']}").json
        self.assertEqual((practice["begin"], practice["levels"][0]["answers"]), ("miter", [False]))
        self.assertIn("Flat miters went wrong", self.bench(mitered)["practice"])
        self.assertEqual(self.bench(square)["practice"], "")
        for _ in range(3):  # three right ones in a row, and it is forgotten
            self.client.post("/api/practice/answers", json={"level": "miter", "right": True})
        self.assertEqual(self.bench(mitered)["practice"], "")
        self.assertEqual(self.client.get("/api/practice").json["begin"], "bevel")

    def test_what_a_project_has_not_is_practised_with_the_boathouse(self) -> None:
        project = self.new(spec=FRAME)
        drill = self.client.get(f"/api/practice/drill?project={project['id']}&level=compound").json
        self.assertIn("boathouse", drill["whose"])
        self.assertEqual(self.client.get("/api/practice/drill?level=juggling").status_code, 422)
