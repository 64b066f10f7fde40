"""The workshop's mouldings over HTTP: acts and undo, the table, photos, what goes into a project, a plan of boards and a file, and what comes out again."""

import json
import tempfile
import unittest
from base64 import b64encode
from contextlib import redirect_stdout
from io import BytesIO, StringIO
from pathlib import Path
from typing import Any
from uuid import uuid4

from PIL import Image

from fennup.app.cli import main
from fennup.app.factory import create_app
from tests.core.test_mouldings import CREW, HEAD, HOLDS, PLAIN

LENGTHS = [{"mm": 1300.0, "count": 2}]


def photo() -> str:
    """A small picture in base64."""
    out = BytesIO()
    Image.new("RGB", (40, 30), "brown").save(out, "PNG")
    return b64encode(out.getvalue()).decode()


def printed_by(*arguments: str) -> str:
    """What the command line prints."""
    out = StringIO()
    with redirect_stdout(out):
        if main(list(arguments)):
            raise AssertionError(arguments)
    return out.getvalue()


class Mouldings(unittest.TestCase):
    def setUp(self) -> None:
        self.folder = tempfile.TemporaryDirectory()
        self.addCleanup(self.folder.cleanup)
        self.client = create_app(Path(self.folder.name) / "fennup.db").test_client()
        self.version = 1

    def send(self, where: str, body: dict[str, Any], status: int = 200) -> Any:
        answer = self.client.post(f"/api/{where}", json=body)
        self.assertEqual(answer.status_code, status, answer.text)
        return answer.json

    def act(self, path: str, value: object = None, status: int = 200, **more: Any) -> Any:
        """One act on the mouldings: a choice, or what is typed."""
        act = {"op": "type", "path": path, **more} if more else {"op": "choose", "path": path, "value": value}
        found = self.send("mouldings/acts", {"version": self.version, "acts": [act]}, status)
        self.version = found.get("version", self.version)
        return found

    def here(self) -> Any:
        return self.client.get("/api/mouldings").json

    def with_one(self, **more: Any) -> None:
        self.act("mouldings.new", PLAIN | {"lengths": LENGTHS, "finish": "gold leaf"} | more)
        self.act("contents.new", CREW)

    def test_acts_undo_and_what_cannot_be(self) -> None:
        self.with_one()
        found = self.act("mouldings.m1.ploughed.0.width_mm", text="11")
        self.assertEqual(
            (found["mouldings"][0]["found_text"], found["undo"]), ("2 lengths, 2.60 m in all", "what is cut along it")
        )
        dimensions = {d["label"]: d["figure"]["whole"] for d in found["mouldings"][0]["view"]["dimensions"]}
        self.assertEqual(
            dimensions,
            {"Rabbet width": "11", "Rabbet depth": "8", "Wide, across its face": "47", "Thick, from back to face": "20"},
        )
        looked = self.send("mouldings/look", {"acts": [{"op": "type", "path": "mouldings.m1.width_mm", "text": "50"}]})
        self.assertEqual(
            (looked["mouldings"][0]["size_text"], self.here()["mouldings"][0]["size_text"]), ("50 × 20 mm", "47 × 20 mm")
        )
        back = self.send("mouldings/undo", {"version": self.version})
        self.assertEqual(back["mouldings"][0]["view"]["dimensions"][0]["figure"]["whole"], "9")
        again = self.send("mouldings/redo", {"version": back["version"]})
        self.assertEqual(again["mouldings"][0]["view"]["dimensions"][0]["figure"]["whole"], "11")
        self.version = again["version"]
        for path, text, said in (
            ("mouldings.m1.ploughed.0.depth_mm", "25", "not so much wood"), ("mouldings.m1.lengths.0.mm", "0", "1"), ("mouldings.m7.width_mm", "20", "no such field"),
            ("contents.c2.weight_kg", "heavy", "number"), ("contents.c2.play_mm", "-1", "0"),
        ):  # fmt: skip
            refused = self.act(path, status=422, text=text)
            self.assertIn(said, refused["detail"])
            self.assertEqual(refused["errors"][0]["path"].split(".")[0], path.split(".")[0])
        self.assertEqual(self.here()["version"], self.version)
        stale = self.send(
            "mouldings/acts", {"version": 1, "acts": [{"op": "choose", "path": "mouldings.new", "value": True}]}, 409
        )
        self.assertEqual(stale["status"], 409)
        inches = self.client.get("/api/mouldings?unit=in").json
        self.assertIn("″", inches["contents"][0]["size_text"])

    def test_the_table_and_a_frame_that_is_made_of_it(self) -> None:
        self.with_one()
        self.act("mouldings.new", PLAIN | {"name": "Bare", "ploughed": []})
        table = self.client.get("/api/mouldings/frames").json
        self.assertEqual([name for _, name in table["mouldings"]], ["Plain", "Bare"])
        (row,) = table["rows"]
        self.assertEqual([(c["figure"], c["text"], c["tone"]) for c in row["cells"]],
                         [("489 × 379 mm", "out of 2 of your lengths", "right"), ("", "no rabbet", "wrong")])  # fmt: skip
        frame = self.client.get("/api/mouldings/frames/c2/m1").json
        figures = {line["text"]: line["figure"] for line in frame["lines"]}
        self.assertEqual(
            (figures["Parts, long point to long point"], figures["Needs in one length, saw cuts included"]),
            ("2 × 489 mm, 2 × 379 mm", "1747 mm"),
        )
        made = self.send("mouldings/frames/c2/m1/project", {}, 201)
        self.assertEqual(made["name"], "Crew")
        wishes = self.client.get(f"/api/projects/{made['id']}/file").json["finish"]["wishes"]["holds"]
        self.assertEqual([wishes[f"{layer}_mm"] for layer in ("glass", "spacer", "art", "back")], [2.0, 0.0, 1.0, 3.0])
        refused = self.send("mouldings/frames/c2/m3/project", {}, 422)
        self.assertIn("no rabbet", refused["detail"])
        self.assertEqual(self.client.get("/api/mouldings/frames/c2/m9").status_code, 404)
        self.assertIn("no rabbet", self.client.get("/api/mouldings/frames/c2/m3").json["lines"][0]["text"])

    def test_boards_are_cut_from_its_lengths_and_what_is_left_comes_back(self) -> None:
        self.with_one()
        made = self.send("mouldings/frames/c2/m1/project", {}, 201)
        id = made["id"]
        plan = self.client.get(f"/api/projects/{id}/boards/plan").json
        self.assertEqual([board["source"] for board in plan["boards"]], ["m:m1:0", "m:m1:0"])
        done = self.send(f"projects/{id}/boards/done", {"version": self.client.get("/api/rack").json["version"]})
        kept = [offcut["to_mm"] - offcut["from_mm"] for board in plan["boards"] for offcut in board["offcuts"] if offcut["kept"]]
        self.assertEqual((done["back"], done["gone"]), (len(kept), 2))
        left = [c["figure"]["whole"] for c in self.here()["mouldings"][0]["controls"] if c["label"].startswith("Found length")]
        self.assertEqual(left, [str(int(mm)) for mm in sorted(kept, reverse=True)])
        self.assertGreater(len(left), 0)

    def test_a_projects_boards_become_those_of_a_moulding_and_its_own_is_kept(self) -> None:
        self.with_one()
        made = self.send("projects", {"start": "rectangle"}, 201)
        of = self.client.get(f"/api/projects/{made['id']}/made-of").json
        (member,) = of["members"]
        title, note, act = member["options"][0]
        self.assertEqual((title, note), ("Plain", "47 × 20 mm, 2 lengths, 2.60 m in all"))
        changed = self.send(f"projects/{made['id']}/acts", {"version": made["version"], "acts": [act]})
        self.assertEqual(changed["undo"], "another moulding")
        spec = self.client.get(f"/api/projects/{made['id']}/file").json["project"]["spec"]["members"]["m1"]["spec"]
        self.assertEqual(
            (spec["board"]["bought"], spec["board"]["finished"], spec["rabbet"]),
            (True, "gold leaf", {"width_mm": 9.0, "depth_mm": 8.0}),
        )
        kept = self.send("mouldings/acts", {"version": of["version"], "acts": [member["keep"]]})
        self.assertEqual([m["name"] for m in kept["mouldings"]], ["Plain", made["name"]])
        sprung = self.send(
            "projects",
            {"start": next(s["code"] for s in self.client.get("/api/starts").json["starts"] if "moulding" in s["code"])},
            201,
        )
        act = self.client.get(f"/api/projects/{sprung['id']}/made-of").json["members"][0]["options"][0][2]
        self.send(f"projects/{sprung['id']}/acts", {"version": sprung["version"], "acts": [act]})
        tub = self.send("projects", {"start": "tub"}, 201)
        self.assertEqual(self.client.get(f"/api/projects/{tub['id']}/made-of").json["members"], [])
        wrong = [
            {**act, "value": value}
            for value in (None, [], {"width_mm": -1}, {**act["value"], "ploughed": [{**HOLDS, "depth_mm": 90.0}]})
        ]
        for one in wrong:
            self.send(f"projects/{sprung['id']}/acts", {"version": 2, "acts": [one]}, 422)

    def test_a_drawn_section_comes_in_and_all_of_it_goes_out_and_in_again(self) -> None:
        text = f'{HEAD}<path d="M0 0 H30 L40 10 V20 H9 V12 H0 Z"/></svg>'
        look = self.send("bring-in/look", {"name": "lipped.svg", "content": text})
        self.assertEqual((look["coming"], look["not_coming"][-1]), ([], "As a moulding cut across it can come in."))
        look = self.send("bring-in/look", {"name": "lipped.svg", "content": text, "made": "moulding"})
        self.assertEqual(look["coming"][1], "Along it: chamfer, rabbet.")
        self.assertEqual(self.send("bring-in", {"name": "lipped.svg", "content": text, "made": "moulding"})["mouldings"], 1)
        here = self.here()
        self.assertEqual((here["mouldings"][0]["title"], here["mouldings"][0]["size_text"]), ("lipped", "40 × 20 mm"))
        shown = self.send(
            "mouldings/photos", {"version": here["version"], "moulding": "m1", "name": "end.png", "content": photo()}
        )
        file = shown["mouldings"][0]["photo"]
        self.assertEqual(self.client.get(f"/api/mouldings/photos/{file}").mimetype, "image/jpeg")
        for wrong in ({"moulding": "m8"}, {"content": "no picture"}):
            body = {"version": shown["version"], "moulding": "m1", "name": "end.png", "content": photo()} | wrong
            self.assertIn(self.client.post("/api/mouldings/photos", json=body).status_code, (404, 422))
        # A project's photo is none of theirs; of an undone one nothing goes out.
        project = self.send("projects", {"start": "rectangle"}, 201)["id"]
        log = self.send(
            f"projects/{project}/log/photos", {"id": str(uuid4()), "name": "a.png", "content": photo(), "text": "Ours"}
        )
        ours = next(line["photo"] for day in log["days"] for line in day["lines"] if line["photo"])
        self.assertEqual(self.client.get(f"/api/mouldings/photos/{ours}").status_code, 404)
        again = self.send(
            "mouldings/photos", {"version": shown["version"], "moulding": "m1", "name": "end.png", "content": photo()}
        )
        shown = self.send("mouldings/undo", {"version": again["version"]})
        self.version = shown["version"]
        self.act("contents.new", CREW)
        document = self.client.get("/api/workshop/file").json
        self.assertEqual([kept["id"] for kept in document["moulding_photos"]], [file])
        with tempfile.TemporaryDirectory() as other:
            client = create_app(Path(other) / "fennup.db").test_client()
            self.assertEqual(client.post("/api/import", json=document).status_code, 200)
            there = client.get("/api/mouldings").json
            self.assertEqual((there["mouldings"][0]["size_text"], there["contents"][0]["title"]), ("40 × 20 mm", "Crew"))
            self.assertEqual(client.get(f"/api/mouldings/photos/{there['mouldings'][0]['photo']}").status_code, 200)
            # The same table by the command line, out of that file.
            path = Path(other) / "workshop.json"
            path.write_text(json.dumps(document), encoding="utf-8")
            printed = json.loads(printed_by("frames", str(path)))
        self.assertEqual([(f["content"], f["moulding"], f["parts"]) for f in printed["frames"]],
                         [("c2", "m1", [{"count": 2, "long_mm": 475.0}, {"count": 2, "long_mm": 365.0}])])  # fmt: skip


if __name__ == "__main__":
    unittest.main()
