"""The Saw place over HTTP and on the command line: steps, ways, order, tools, tests of a setting, paper."""

import json
import re
import subprocess
import sys
import zipfile
from io import BytesIO
from pathlib import Path
from typing import Any
from unittest import mock
from urllib.parse import quote

from fennup.app.services.demo import PROJECTS
from tests.app.test_api import Api
from tests.core.frames import box, level, rectangle, regular

LEANING = box(level(400.0, 300.0), 150.0, slope_deg=12.0, thickness_mm=21.0)
STEEP = rectangle("outside", 600.0, 400.0, 60.0, rails={"B": {"width_mm": 95.0}, "D": {"width_mm": 95.0}})

LANTERN = next(entry["spec"] for entry in PROJECTS if entry["name"] == "Slip lantern hip")


class SawPlace(Api):
    def steps(self, project: dict[str, Any]) -> dict[str, Any]:
        return self.read(project, "steps")

    def step(self, project: dict[str, Any], key: str) -> dict[str, Any]:
        return self.read(project, f"steps/one?key={quote(key)}")

    def wish(self, project: dict[str, Any], *acts: dict[str, Any], status: int = 200) -> Any:
        body = {"version": self.steps(project)["version"], "acts": list(acts)}
        answer = self.client.post(f"/api/projects/{project['id']}/steps/acts", json=body)
        self.assertEqual(answer.status_code, status, answer.text)
        return answer.json

    def tool(self, *acts: dict[str, Any], status: int = 200) -> Any:
        version = self.client.get("/api/workshop").json["version"]
        answer = self.client.post("/api/workshop/acts", json={"version": version, "acts": list(acts)})
        self.assertEqual(answer.status_code, status, answer.text)
        return answer.json


class Steps(SawPlace):
    def test_a_step_says_what_is_set_how_the_board_lies_and_what_has_changed(self) -> None:
        project = self.new(spec=rectangle("outside", 600.0, 600.0, 60.0))
        place = self.steps(project)
        self.assertEqual(
            (place["title"], place["simulated"], place["holds"]),
            ("2 steps, 1 setting", "Simulated: all 4 parts come out right.", True),
        )
        step = self.step(project, "m1/A left:0")
        sets = {s["label"]: (s["figure"]["whole"], s["text"]) for s in step["sets"]}
        self.assertEqual(sets["swing"][0], "45")
        self.assertEqual(sets["stop"], ("540", "from the blade, where fence and table meet"))
        self.assertIn("60 mm out from the fence", step["sets"][-1]["note"])
        self.assertEqual(step["changed"], "The saw stays as it is; turn it over end for end, the same edge at the fence.")
        self.assertEqual(step["views"][0]["dimensions"][0]["figure"]["whole"], "540")
        self.assertTrue(any("Never trap a piece" in text for text in step["cautions"]))
        # Marked instead of stopped: 600 along the outer edge.
        self.wish(project, {"op": "choose", "path": "lengths", "value": "mark"})
        sets = {s["label"]: s["figure"]["whole"] for s in self.step(project, "m1/A left:0")["sets"]}
        self.assertEqual((sets["mark"], "stop" in sets), ("600", False))

    def test_a_way_that_is_chosen_is_kept_undone_and_carried_to_a_copy(self) -> None:
        project = self.new(spec=LEANING)
        key = "m1/A right:0"
        before = self.step(project, key)
        self.assertFalse(before["picked"])
        propped = next(way for way in before["ways"] if way["text"].startswith("Propped"))
        self.assertEqual(propped["setting"], "45° / 0°")
        self.wish(project, *propped["acts"])
        step = self.step(project, key)
        self.assertEqual([s["figure"]["whole"] for s in step["sets"][:2]], ["45", "0"])
        self.assertEqual(len(step["views"]), 3)  # as it leans, from the right
        # The saw tilts to the left only, and flat it must.
        self.assertEqual(before["sets"][1]["text"], "top to the left")
        copy = self.client.post(f"/api/projects/{project['id']}/duplicate", json={}).json
        self.assertEqual(self.step(copy, key)["sets"][0]["figure"]["whole"], "45")
        undone = self.client.post(f"/api/projects/{project['id']}/steps/undo", json={"version": self.steps(project)["version"]})
        self.assertEqual((undone.status_code, undone.json["redo"]), (200, "how a cut is made"))
        self.assertEqual(self.step(project, key)["sets"][:2], before["sets"][:2])

    def test_what_is_proven_of_the_number_of_settings_is_said(self) -> None:
        self.assertIn("No choice among", self.steps(self.new(spec=LEANING))["fewest"])
        self.assertIn("too many settings", self.steps(self.new(spec=LANTERN))["fewest"])

    def test_a_part_that_the_steps_do_not_make_is_told_by_name(self) -> None:
        project = self.new(spec=rectangle("outside", 600.0, 400.0, 60.0))
        with mock.patch("fennup.core.exchange.cuts_document.farthest_mm", return_value={"m1/A": 0.5, "m1/B": 0.0}):
            place = self.steps(project)
        self.assertFalse(place["holds"])
        self.assertIn("1 of 2 parts come out right. Rails A and C (front and back) cannot be made", place["simulated"])

    def test_past_a_stop_there_are_ways_out_each_with_its_figures(self) -> None:
        self.tool(
            {"op": "type", "path": "tools.t1.high_mm", "text": "50"},
            {"op": "type", "path": "tools.t1.tilt_left_deg", "text": "30"},
        )
        project = self.new(spec=STEEP)
        out = next(step for step in self.steps(project)["steps"] if step["out"] and not step["key"].startswith("test"))
        step = self.step(project, out["key"])
        self.assertEqual(step["misses"], ["Past the stop: to the right this saw goes to 52°, and this needs 57.72°, 5.72° more."])
        outs = {o["title"]: o for o in step["outs"]}
        self.assertEqual(len(outs), len(step["outs"]))  # every sort of way round it once
        self.assertEqual(outs["The board square to the fence"]["setting"], "32.28° / 0°")
        wedge = outs["A wedge between fence and board"]
        self.assertEqual(wedge["setting"], "45° / 0°")
        self.assertEqual(wedge["figures"][0]["figure"]["whole"], "12.7244")
        # 300 tan 12.7244 = 67.74.
        self.assertEqual(wedge["figures"][2]["figure"]["exact"], "67.74 mm")
        # 60 tan 57.7244 = 95, over the width of the slim rail.
        offset = outs["Mark lines and saw by hand"]["figures"][0]
        self.assertEqual(offset["figure"]["whole"], "95")
        self.assertIn("over 60 mm", offset["note"])
        self.wish(project, *wedge["acts"])
        self.assertEqual(self.step(project, out["key"])["sets"][0]["figure"]["whole"], "45")
        self.assertTrue(self.steps(project)["holds"])

    def test_an_order_that_cannot_be_is_refused_by_name_and_nothing_changes(self) -> None:
        project = self.new(spec=LEANING)
        keys = [step["key"] for step in self.steps(project)["steps"] if not step["key"].startswith("test ")]
        refused = self.wish(project, {"op": "choose", "path": "order", "value": keys[::-1]}, status=422)
        self.assertRegex(refused["detail"], r"must come before")
        self.assertEqual(self.steps(project)["undo"], None)
        # Another part first: that can be, and it can be forgotten again.
        firsts = [key for key in keys if key.startswith("m1/B")] + [key for key in keys if not key.startswith("m1/B")]
        place = self.wish(project, {"op": "choose", "path": "order", "value": firsts})
        self.assertEqual([s["key"] for s in place["steps"] if not s["key"].startswith("test ")], firsts)
        self.assertTrue(place["order_reset"])
        # When the shape changes so that steps are gone, the rest of the order stays; nothing breaks.
        self.assertEqual(self.act(project, {"op": "choose", "path": "joint", "value": "butt"}).status_code, 200)
        self.assertTrue(self.steps(project)["steps"])

    def test_what_is_cut_to_the_opening_comes_last(self) -> None:
        project = self.new(spec=rectangle("outside", 600.0, 400.0, 60.0))
        option = self.step(project, "m1/A left:0")["scribe"]["options"][1]
        place = self.wish(project, *option["acts"])
        self.assertEqual(place["steps"][-1]["what"], "cut to fit")
        self.assertIn("after the dry fit", self.step(project, place["steps"][-1]["key"])["mark"])

    def test_planned_boards_are_cut_apart_first_and_shared_cuts_are_told(self) -> None:
        version = self.client.get("/api/rack").json["version"]
        acts = [{"op": "choose", "path": "boards.new", "value": "board"}]
        rack = self.client.post("/api/rack/acts", json={"version": version, "acts": acts}).json
        id = rack["boards"][-1]["id"]
        sizes = [
            {"op": "type", "path": f"boards.{id}.{name}", "text": text}
            for name, text in (("length_mm", "2400"), ("width_mm", "60"), ("thickness_mm", "20"))
        ]
        self.client.post("/api/rack/acts", json={"version": rack["version"], "acts": sizes})
        project = self.new(spec=rectangle("outside", 400.0, 400.0, 60.0))
        self.assertFalse([s for s in self.steps(project)["steps"] if s["what"] == "cut apart"])
        self.read(project, "boards")
        apart = self.steps(project)["steps"][0]
        self.assertEqual((apart["what"], apart["count"]), ("cut apart", 4))
        plan = self.read(project, "boards/plan")
        lies = {p["key"]: p["axes"][0][0] > 0 for board in plan["boards"] for p in board["pieces"]}
        self.assertEqual(set(lies.values()), {True, False})  # some lie end for end: each is told by its own ends
        shared = [cut["ends"] for board in plan["boards"] for cut in board["cuts"] if len(cut["ends"]) == 2]
        told = {tuple(sorted(self.own(end, lies) for end in ends)) for ends in shared}
        steps = self.read(project, "cuts")["steps"]
        pairs = {
            tuple(sorted((f"{piece} {step['end']}", other))) for step in steps for piece, other in step["shared_with"].items()
        }
        self.assertEqual(pairs, told)
        self.assertIn(
            "One cut for two", self.step(project, "m1/A left:0")["boards"] + self.step(project, "m1/A right:0")["boards"]
        )

    @staticmethod
    def own(told: str, lies: dict[str, bool]) -> str:
        """An end of a board's piece by the piece's own ends."""
        key, _, end = told.rpartition(" ")
        return told if lies[key] else f"{key} {'left' if end == 'right' else 'right'}"


class Tools(SawPlace):
    def test_tools_come_and_go_and_one_that_is_not_here_is_not_taken(self) -> None:
        project = self.new(spec=LEANING)
        added = next(p for p in self.client.get("/api/workshop").json["profiles"] if p["name"] == "Table saw with a miter gauge")
        bench = self.tool(*added["acts"])
        self.assertEqual([tool["id"] for tool in bench["tools"]], ["t1", "t2"])
        rip = next(step for step in self.steps(project)["steps"] if step["what"] == "rip")
        self.assertEqual(self.step(project, rip["key"])["tool"], "Table saw")
        self.wish(project, {"op": "choose", "path": "away/t2", "value": True})
        self.assertEqual(self.step(project, rip["key"])["tool"], "By hand, to marked lines")
        self.wish(project, {"op": "choose", "path": "away/t2", "value": False})
        self.tool({"op": "choose", "path": "tools.first", "value": "t2"})
        self.assertEqual(self.step(project, "m1/A right:0")["tool"], "Table saw")
        self.tool({"op": "choose", "path": "tools.t2", "value": None})
        refused = self.tool({"op": "choose", "path": "tools.t1", "value": None}, status=422)
        self.assertEqual(refused["detail"], "A workshop needs one tool at least.")

    def test_what_no_tool_has_is_refused_at_its_place(self) -> None:
        self.tool({"op": "choose", "path": "tools.add", "value": "miter_box"})
        for path, text, words in (
            ("tools.t1.kerf_mm", "0", "more than"), ("tools.t1.kerf_mm", "50", "at most"), ("tools.t1.high_mm", "0", "more than"),
            ("tools.t1.swing_left_deg", "-5", "0"), ("tools.t2.high_mm", "-3", "more than"), ("tools.t2.own_slot_deg", "95", "less than"),
        ):  # fmt: skip
            with self.subTest(path=path, text=text):
                refused = self.tool({"op": "type", "path": path, "text": text}, status=422)
                self.assertTrue(refused["errors"][0]["path"].startswith("tools.t"), refused)
                self.assertIn(words, refused["errors"][0]["text"])
        detent = self.tool({"op": "choose", "path": "tools.t1.detents/60", "value": True}, status=422)
        self.assertIn("lies beyond the stops", detent["detail"])
        self.tool({"op": "choose", "path": "tools.t1.detents/45", "value": True})
        shorter = self.tool({"op": "type", "path": "tools.t1.swing_left_deg", "text": "40"}, status=422)
        self.assertIn("lies beyond the stops", shorter["detail"])

    def test_a_test_finds_the_error_which_is_dialled_against_and_told(self) -> None:
        project = self.new(spec=regular(8, 45.0, "opening_flats", mm=340.0))
        self.tool({"op": "type", "path": "tools.t1.swing_step_deg", "text": "0.05"})

        def test(status: int = 200, **more: Any) -> Any:
            body = {
                "version": self.client.get("/api/workshop").json["version"],
                "tool": "t1",
                "movement": "swing",
                "at_deg": 22.5,
                "how": "corner",
                "readings": ["135.4"],
                **more,
            }
            answer = self.client.post("/api/workshop/test", json=body)
            self.assertEqual(answer.status_code, status, answer.text)
            return answer.json

        # (180 - 135.4) / 2 = 22.3: it makes 0.2 too little, so 22.7 is dialled.
        found = test()
        self.assertEqual(
            (found["found"], found["dial"]),
            ("At this setting its swing makes 0.200° less than it shows.", "Dial 22.7° from now on."),
        )
        key = next(s["key"] for s in self.steps(project)["steps"] if not s["key"].startswith("test "))
        step = self.step(project, key)
        at = step["tests"][0]["at_deg"]
        if at < 0:
            test(at_deg=at)
            step = self.step(project, key)
        self.assertEqual(step["sets"][0]["figure"]["whole"], "22.7")
        self.assertIn("Dial 22.7°: tested on", step["dial"])
        self.assertEqual(step["tests"][0]["sides"], 8)
        (error, *_) = self.client.get("/api/workshop").json["tools"][0]["errors"]
        self.tool(*error["forget"])
        for more, path in (
            ({"readings": ["wide"]}, "readings.0"),
            ({"readings": ["60"]}, "readings"),
            ({"how": "ring", "readings": ["135"] * 5}, "readings"),
        ):
            self.assertEqual(test(422, **more)["errors"][0]["path"], path)

    def test_sums_at_the_bench_name_the_field_that_is_wrong(self) -> None:
        project = self.new()
        where = f"/api/projects/{project['id']}/steps/halves"
        asked = {"long": "2440", "wide": "70", "angle": "24", "kerf": "3.2", "gap": "10"}
        lines = {line["label"]: line for line in self.client.post(where, json=asked).json["lines"]}
        self.assertIn("1233.8316", lines["Long edges"]["note"])
        self.assertIn("1202.6656", lines["Short edges"]["note"])
        for field, text in (("kerf", "0"), ("kerf", "50"), ("angle", "91"), ("long", "much"), ("angle", "88.9")):
            refused = self.client.post(where, json=asked | {field: text})
            self.assertEqual((refused.status_code, refused.json["errors"][0]["path"]), (422, field))
        # A square: 0.4 apart at 100 is half of that each.
        square = self.client.post(where.replace("halves", "square"), json={"apart": "0.4", "at": "100"}).json["lines"][0]
        self.assertEqual(square["figure"]["whole"], "0.115")
        for asked, field in (({"apart": "0.4", "at": "0"}, "at"), ({"apart": "30", "at": "100"}, "apart")):
            self.assertEqual(self.client.post(where.replace("halves", "square"), json=asked).json["errors"][0]["path"], field)


class Files(SawPlace):
    def test_the_command_line_prints_the_steps_as_the_file_wishes_them(self) -> None:
        project = self.new(spec=LEANING)
        self.wish(
            project,
            {"op": "choose", "path": "ways/m1/A right:0", "value": "t1:lower:face:propped"},
            {"op": "choose", "path": "school", "value": "by_part"},
        )
        file = self.read(project, "file")
        self.assertEqual(file["saw"]["school"], "by_part")
        path = Path(self.folder.name) / "leaning.fennup.json"
        path.write_text(json.dumps(file))
        done = subprocess.run(
            [sys.executable, "-m", "fennup.app.cli", "cuts", str(path)],
            capture_output=True,
            text=True,
            env={"PYTHONPATH": "src"},
            check=True,
        )
        printed = json.loads(done.stdout)
        here = self.read(project, "cuts")
        self.assertEqual(printed, here)
        step = next(s for s in printed["steps"] if s["key"] == "m1/A right:0")
        self.assertEqual((step["pose"]["stance"], round(abs(step["pose"]["lean_deg"]), 6)), ("propped", 12.0))
        self.assertTrue(all(mm is not None and mm < 1e-6 for mm in printed["off_mm"].values()))
        brought = self.client.post("/api/import", json=file)
        self.assertEqual(brought.status_code, 200, brought.text)
        again = self.read({"id": brought.json["projects"][0]}, "file")
        self.assertEqual(again["saw"], file["saw"])

    def test_templates_come_as_pdf_svg_and_dxf_alone_and_all_together(self) -> None:
        project = self.new(spec=LEANING)
        url = f"/api/projects/{project['id']}"
        key = quote("m1/A right:0")
        for form, start in (("pdf", b"%PDF"), ("svg", b"<svg"), ("dxf", b"  0")):
            answer = self.client.get(f"{url}/templates.{form}?key={key}")
            self.assertEqual((answer.status_code, answer.data[: len(start)]), (200, start))
        pack = self.client.get(f"{url}/pack.pdf?size=letter").data
        self.assertIn(b"MediaBox [ 0 0 612 792 ]", pack)  # 215.9 by 279.4 mm in points
        self.assertIn(b"all 4 parts come out right", pack)
        with zipfile.ZipFile(BytesIO(self.client.get(f"{url}/pack.zip").data)) as archive:
            names = archive.namelist()
        self.assertEqual(len([n for n in names if n.endswith(".svg")]), len([n for n in names if n.endswith(".dxf")]))
        self.assertTrue(any(re.search("angle-at", name) for name in names))
        self.assertEqual(self.client.get(f"{url}/model.pdf?scale=10").data[:4], b"%PDF")
        frame = self.new(spec=STEEP)
        refused = self.client.get(f"/api/projects/{frame['id']}/model.pdf")
        self.assertEqual((refused.status_code, "no model can be folded" in refused.json["detail"]), (422, True))
        self.assertEqual(self.client.get(f"{url}/templates.pdf?key=none").status_code, 404)
