"""What comes in over HTTP: tables, outlines, files that cannot, lists of readings, and what a plan says."""

import json
from typing import Any

from tests.app.test_log_place import FRAME, LogPlace, uuid


class ComingIn(LogPlace):
    def look(self, name: str, content: str, status: int = 200, **more: Any) -> Any:
        answer = self.client.post("/api/bring-in/look", json={"name": name, "content": content, **more})
        self.assertEqual(answer.status_code, status, answer.text)
        return answer.json

    def test_a_table_shows_what_each_column_is_before_anything_is_taken(self) -> None:
        text = "Board;Len;W;Thick;Pcs;Colour\nA;94.5;4;3/4;2;red\n"
        self.assertIn("Row 2, thickness_mm", self.look("r.csv", text, 422, unit="in")["detail"])
        text = text.replace("3/4", "0.75")
        found = self.look("r.csv", text, unit="in")
        self.assertEqual({c["name"]: c["key"] for c in found["columns"]},
                         {"Board": "name", "Len": "length_mm", "W": "width_mm", "Thick": "thickness_mm", "Pcs": "count", "Colour": ""})  # fmt: skip
        self.assertEqual(
            (found["coming"], found["not_coming"]), (["A: 2400.3 mm × 101.6 mm × 19.05 mm, 2 of it"], ["The column “Colour”."])
        )
        self.assertEqual(self.client.get("/api/rack").json["boards"], [], "only looked at")
        wrong = self.look("r.csv", text, mapping={"Board": "name", "Len": "length_mm", "W": "width_mm"})
        self.assertEqual((wrong["coming"], wrong["not_coming"][0]), ([], "Nothing yet: say which column is the thickness."))
        body = {
            "name": "r.csv",
            "content": text,
            "unit": "in",
            "mapping": {"Len": "length_mm", "W": "width_mm", "Thick": "thickness_mm"},
        }
        self.assertEqual(self.client.post("/api/bring-in", json=body).json["boards"], 1)
        self.assertAlmostEqual(self.client.get("/api/rack").json["boards"][0]["length_mm"], 2400.3)
        self.assertEqual(
            self.client.post("/api/bring-in", json=body | {"mapping": None}).json["boards"], 1, "as it was looked at"
        )
        self.assertIn("“=1+1” cannot stand there", self.look("r.csv", "length_mm,width_mm,thickness_mm\n=1+1,3,4", 422)["detail"])

    def test_an_outline_becomes_a_frame_or_a_case_that_closes(self) -> None:
        text = '<svg xmlns="http://www.w3.org/2000/svg" width="700mm" height="900mm" viewBox="0 0 700 900"><path d="M50 850V350A300 300 0 0 1 650 350V850Z"/></svg>'
        for made, corners in (("frame_outside", 24), ("case", 12)):
            with self.subTest(made=made):
                found = self.look("arch.svg", text, made=made)
                self.assertIn(f"An outline of {corners} corners", found["coming"][0])
                self.assertIn("at most", found["coming"][1])
                brought = self.client.post("/api/bring-in", json={"name": "arch.svg", "content": text, "made": made}).json
                project = self.client.get(f"/api/projects/{brought['projects'][0]}").json
                self.assertEqual((project["name"], project["sheet"]["closing"]["tone"] in ("closes", "opens")), ("arch", True))
        self.assertIn("does not work yet", " ".join(self.look("a.svg", text, width_mm=600)["not_coming"]))

    def test_a_file_that_cannot_come_in_says_why_and_where(self) -> None:
        project = self.new(spec=FRAME)
        document = json.dumps(self.client.get(f"/api/projects/{project['id']}/file").json, indent=1)
        for name, content, said in (
            ("a.json", document[:300], "damaged at line"), ("b.json", document.replace('"version": 2', '"version": 99', 1), "Bring this Fennup up to date"),
            ("c.json", '{"a": 1}', "no file of Fennup's"), ("d.zip", "PK\x03\x04xx", "Unpack it"), ("e.csv", " \n", "nothing in that file"), ("f.bin", "a\0b", "none of the files"),
            ("g.svg", "<svg", "cannot be read"), ("h.json", "[" * 100_000, "damaged"),
        ):  # fmt: skip
            with self.subTest(name=name):
                answer = self.client.post("/api/bring-in/look", json={"name": name, "content": content})
                self.assertEqual(answer.status_code, 422)
                self.assertIn(said, answer.json["detail"])
        twice = self.look("p.json", document)
        self.assertIn("there is one of that name already", twice["coming"][0])
        large = self.client.post("/api/bring-in/look", data=b"x" * (65 * 1024 * 1024), content_type="application/json")
        self.assertEqual(large.status_code, 413)

    def test_a_list_of_readings_is_looked_at_then_read_at_the_dry_fit(self) -> None:
        project = self.new(spec=FRAME)
        look = f"/api/projects/{project['id']}/fit/list"
        expected = {r["key"]: r for r in self.read(project, "fit")["readings"]}
        text = f"Corner AB to corner CD, outside: 764.5\n{next(iter(expected))}: 766\nnothing\nAngle of rail A and rail B: soon 90\nCorner AB to corner BC: 764.5"
        found = self.client.post(f"{look}/look", json={"text": text}).json
        self.assertEqual(
            [bool(line["key"]) for line in found["lines"]], [True] * 3 + [False], "no guess at a corner that is not named"
        )
        self.assertEqual(found["left"], ["nothing"])
        id = uuid()
        lines = [{"key": line["key"], "value": line["value"]} for line in found["lines"] if not line["problem"]]
        for _ in range(2):
            fit = self.client.post(look, json={"id": id, "lines": lines}).json
        read = {r["key"]: r["typed"] for r in fit["readings"] if r["value"]}
        self.assertEqual(read, {line["key"]: line["value"] for line in lines})
        self.assertEqual(len(self.read(project, "records")["records"]), len(lines), "sent twice, written once")
        refused = self.client.post(look, json={"id": uuid(), "lines": [*lines, {"key": "m1 no such", "value": "3"}]})
        self.assertEqual((refused.status_code, refused.json["errors"][0]["path"]), (422, f"lines.{len(lines)}.key"))


class PlanCheck(LogPlace):
    def test_a_pasted_plan_is_read_checked_and_becomes_a_project(self) -> None:
        text = "Outside bottom, across flats: 366\nUp the slope = 203\nSlope from vertical 15.0°\nWalls: longest edge\t191\nWall miter: 6.1\nA nice planter."
        read = self.client.post("/api/plan-check/read", json={"start": "tub", "text": text}).json
        self.assertEqual(
            [line["key"].partition("/")[2] for line in read["lines"]],
            ["outer_bottom_flats", "slant", "slope", "A:longest", "A:miter"],
        )
        self.assertEqual(read["left"], ["A nice planter."])
        lines = [{"key": line["key"], "value": line["value"]} for line in read["lines"]]
        checked = self.client.post("/api/plan-check", json={"start": "tub", "lines": lines}).json
        self.assertEqual(checked["tone"], "wrong")
        wrong = [line for line in checked["lines"] if line["tone"] == "wrong"]
        self.assertEqual(len(wrong), 1)
        self.assertIn("by the others it is", wrong[0]["note"])
        made = self.client.post("/api/projects", json={"spec": checked["spec"], "name": "From a plan"})
        self.assertEqual(made.status_code, 201)
        for change, path in (({"value": "much"}, "lines.0.value"), ({"key": "size:m1/nose"}, "lines.0.key")):
            refused = self.client.post("/api/plan-check", json={"start": "tub", "lines": [lines[0] | change]})
            self.assertEqual((refused.status_code, refused.json["errors"][0]["path"]), (422, path))
        self.assertEqual(self.client.post("/api/plan-check", json={"start": "boat", "lines": lines}).status_code, 422)

    def test_a_bare_number_beside_a_word_for_an_angle_is_degrees(self) -> None:
        for text, ends in (
            ("slope: 10", "slope"),
            ("Up the slope: 10", "slant"),
            ("wall miter 6.1", "A:miter"),
            ("slope: 203", "slant"),
        ):
            read = self.client.post("/api/plan-check/read", json={"start": "tub", "text": text}).json
            self.assertEqual([line["key"].partition("/")[2] for line in read["lines"]], [ends], text)

    def test_a_table_of_parts_in_inches(self) -> None:
        text = "part,length,miter,count\nleg,28 3/4,8,4\n"
        read = self.client.post("/api/plan-check/read", json={"start": "trestle", "unit": "in", "text": text}).json
        self.assertEqual([(line["text"], line["value"], line["key"].rpartition(":")[2]) for line in read["lines"]],
                         [("leg: length", "28 3/4", "longest"), ("leg: miter", "8", "miter"), ("leg: count", "4", "count")])  # fmt: skip
