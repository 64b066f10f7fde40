import csv
import io
import re
import tempfile
import unittest
from math import asin, cos, degrees, radians, sin
from pathlib import Path
from typing import Any
from unittest import mock
from urllib.parse import quote

from sqlalchemy import text
from werkzeug.test import TestResponse

from fennup.app.factory import create_app
from fennup.app.services import demo
from fennup.core.design import Design
from fennup.core.kinds.catalogue import KINDS
from fennup.core.verify.boolean import BooleanProof
from tests.core.frames import all_typed, box, level, regular

HEXAGON = regular(6, 40.0, "opening_flats", mm=300.0)
PROJECT_WIDE = ("project.", "members", "pieces", "links", "follow:")


def on_the_first(act: dict[str, Any]) -> dict[str, Any]:
    """An act on the first assembly's own spec as an act on the project."""
    if "path" in act and not act["path"].startswith(PROJECT_WIDE):
        return {**act, "path": f"members.m1.spec.{act['path']}"}
    return {**act, "measure": f"m1/{act['measure']}"} if "measure" in act and "/" not in act["measure"] else act


class Api(unittest.TestCase):
    def setUp(self) -> None:
        self.folder = tempfile.TemporaryDirectory()
        self.addCleanup(self.folder.cleanup)
        self.database = Path(self.folder.name) / "fennup.db"
        self.app = create_app(self.database)
        self.client = self.app.test_client()

    def new(self, **body: Any) -> dict[str, Any]:
        answer = self.client.post("/api/projects", json=body or {"spec": HEXAGON})
        self.assertEqual(answer.status_code, 201, answer.text)
        project: dict[str, Any] = answer.json
        return project

    def act(self, project: dict[str, Any], *acts: dict[str, Any], version: int | None = None) -> TestResponse:
        body = {"version": version or project["version"], "acts": [on_the_first(act) for act in acts]}
        return self.client.post(f"/api/projects/{project['id']}/acts", json=body)

    def type(self, project: dict[str, Any], path: str, typed: str, **more: Any) -> TestResponse:
        return self.act(project, {"op": "type", "path": path, "text": typed, **more})

    def read(self, project: dict[str, Any], what: str) -> Any:
        """What is fetched only when it is looked at: `solution`, `parts`, `saw`, `file`."""
        answer = self.client.get(f"/api/projects/{project['id']}/{what}")
        self.assertEqual(answer.status_code, 200, answer.text)
        return answer.json

    def spec(self, project: dict[str, Any]) -> dict[str, Any]:
        """The first assembly's own spec, as it is stored."""
        spec: dict[str, Any] = self.read(project, "file")["project"]["spec"]["members"]["m1"]["spec"]
        return spec


class AnyStart(Api):
    def test_too_much_is_said_with_the_figures_and_each_way_out_can_be_taken(self) -> None:
        leaning = all_typed(box(level(300.0, 300.0), 200.0, slope_deg=15.0))
        project = self.new(spec=leaning)
        give = {"op": "give", "measure": "outer_top_width", "text": "400"}
        refused = self.act(project, give)
        self.assertEqual(refused.status_code, 422)
        (problem,) = refused.json["errors"]
        for words in ("300 mm", "15°", "200 mm", "400 mm", "407.18 mm"):
            self.assertIn(words, problem["text"])
        slopes = []
        for offer in problem["offers"]:
            fresh = self.new(spec=leaning)
            self.assertEqual(self.act(fresh, *offer["acts"]).status_code, 200)
            slopes.append(round(self.spec(fresh)["slope_deg"], 2))
            measured = {c["measure"]: c["measured"] for c in self.read(fresh, "solution")["claims"]}
            self.assertAlmostEqual(measured["m1/outer_top_width"], 400.0, places=6)
        # Letting go of the width or of the height keeps the slope; letting go of the slope makes it atan(50 / 200).
        self.assertEqual(sorted(slopes), [14.04, 15.0, 15.0])

    def test_while_a_size_is_missing_the_closing_line_says_which(self) -> None:
        project = self.new(spec=box(level(300.0, 300.0), 200.0, slope_deg=15.0))
        freed = self.act(project, {"op": "free", "measure": "height"}).json
        closing = freed["sheet"]["closing"]
        self.assertEqual((closing["headline"], closing["tone"]), ("One size is still free: height.", "opens"))
        self.assertIn("Closes as drawn", closing["detail"])

    def test_what_gave_way_to_a_size_is_said(self) -> None:
        project = self.new(spec=box(level(300.0, 300.0), 200.0, slope_deg=15.0))
        changed = self.act(project, {"op": "give", "measure": "outer_top_width", "text": "400"}).json
        self.assertEqual(changed["notice"], "Slope from vertical now follows: 14.04°")  # atan(50 / 200)
        again = self.act(changed, {"op": "give", "measure": "height", "text": "210"}).json
        self.assertIsNone(again["notice"])

    def test_the_gap_that_is_let_pass_belongs_to_the_project(self) -> None:
        project = self.new(spec=box(level(300.0, 300.0), 260.0, slope_deg=10.0))
        wide = [f["text"] for f in project["sheet"]["findings"] if "more than the 0.50 mm" in f["text"]]
        self.assertEqual(len(wide), 1)
        changed = self.type(project, "project.allowance_mm", "2").json
        self.assertFalse([f for f in changed["sheet"]["findings"] if "this project allows" in f["text"]])
        self.assertEqual(self.type(changed, "project.allowance_mm", "0").status_code, 422)

    def test_a_panel_has_sides_and_no_ends_and_stands_in_the_cut_list(self) -> None:
        project = self.new(spec=box(level(300.0, 300.0), 200.0, floor={"height_mm": 0.0, "thickness_mm": 12.0, "play_mm": 4.0}))
        floor = next(p for p in self.read(project, "parts")["parts"] if p["id"] == "m1/floor")
        self.assertEqual((floor["ends"], floor["ladder"][0]["label"]), ([], "Every edge"))
        rows = list(csv.DictReader(io.StringIO(self.client.get(f"/api/projects/{project['id']}/cut-list.csv").text)))
        self.assertEqual([(r["Part"], r["Length mm"]) for r in rows][-1], ("floor", "260.0000"))


class Saving(Api):
    def test_what_is_typed_is_there_tomorrow(self) -> None:
        project = self.new()
        self.assertEqual(self.type(project, "shape.size.mm", "36.5 cm").status_code, 200)
        again = create_app(self.database).test_client().get(f"/api/projects/{project['id']}").json
        self.assertEqual(self.spec(again)["shape"]["size"]["mm"], 365.0)
        self.assertEqual((again["version"], again["undo"]), (2, "size"))

    def test_undo_and_redo_walk_through_every_change_and_a_new_one_ends_redo(self) -> None:
        project = self.new()
        for width in ("50", "60"):
            project = self.type(project, "board.width_mm", width).json
        project = self.act(project, {"op": "choose", "path": "project.unit", "value": "in"}).json
        seen = []
        while project["undo"]:
            project = self.client.post(f"/api/projects/{project['id']}/undo", json={"version": project["version"]}).json
            seen.append((project["unit"], self.spec(project)["board"]["width_mm"]))
        self.assertEqual(seen, [("mm", 60.0), ("mm", 50.0), ("mm", 40.0)])
        project = self.client.post(f"/api/projects/{project['id']}/redo", json={"version": project["version"]}).json
        self.assertEqual(self.spec(project)["board"]["width_mm"], 50.0)
        self.assertIsNone(self.type(project, "board.width_mm", "55").json["redo"])

    def test_switching_units_moves_nothing(self) -> None:
        project = self.new()
        before = (self.spec(project), self.read(project, "solution"))
        there = self.act(project, {"op": "choose", "path": "project.unit", "value": "in"}).json
        back = self.act(there, {"op": "choose", "path": "project.unit", "value": "mm"}).json
        self.assertEqual((self.spec(back), self.read(back, "solution")), before)
        self.assertEqual(there["sheet"]["sizes"][0]["figure"]["fraction"], "13/16")  # 300 / 25.4 = 11.811, 13/16 = .8125

    def test_a_stale_save_is_refused_with_the_version_and_changes_nothing(self) -> None:
        project = self.new()
        self.type(project, "board.width_mm", "50")
        late = self.act(project, {"op": "type", "path": "board.thickness_mm", "text": "25"}, version=1)
        self.assertEqual((late.status_code, late.json["version"]), (409, 2))
        for path in ("undo", "redo"):
            self.assertEqual(self.client.post(f"/api/projects/{project['id']}/{path}", json={"version": 1}).status_code, 409)
        self.assertEqual(
            self.spec(project)["board"],
            {"width_mm": 50.0, "thickness_mm": 20.0, "nominal": None, "ploughed": [], "bought": False, "finished": ""},
        )

    def test_looking_saves_nothing_and_several_acts_are_one_step(self) -> None:
        project = self.new()
        url = f"/api/projects/{project['id']}"
        wider = {"op": "nudge", "path": "members.m1.spec.board.width_mm", "steps": 3}
        look = self.client.post(f"{url}/look", json={"acts": [wider], "card": "m1/C"}).json["sheet"]
        # Six rails of 43 round 300 across: their outer edges are 386 / sqrt(3) long.
        self.assertEqual((look["card"]["id"], look["card"]["ladder"][0]["figure"]["whole"]), ("m1/A", "223"))
        # What there is to decide is as saved, and is not sent again with every key.
        self.assertEqual(("controls" in look, project["sheet"]["controls"] == []), (False, False))
        self.assertEqual(self.client.get(url).json["version"], 1)
        both = self.act(
            project,
            {"op": "choose", "path": "corners", "value": {}},
            {"op": "choose", "path": "joint", "value": "butt"},
        )
        self.assertEqual((both.json["version"], self.spec(both.json)["joint"]), (2, "butt"))

    def test_delete_can_be_undone_and_a_copy_stands_alone(self) -> None:
        project = self.new()
        url = f"/api/projects/{project['id']}"
        copy = self.client.post(f"{url}/duplicate", json={}).json
        self.type(copy, "board.width_mm", "55")
        self.assertEqual(self.client.delete(url, json={}).status_code, 204)
        self.assertEqual(self.client.get(url).status_code, 404)
        self.assertEqual([p["id"] for p in self.client.get("/api/projects").json["projects"]], [copy["id"]])
        self.assertEqual(self.spec(self.client.post(f"{url}/restore", json={}).json)["board"]["width_mm"], 40.0)

    def test_the_store_keeps_a_log_ahead_and_foreign_keys_on(self) -> None:
        with self.app.config["STORE"].reading() as session:
            self.assertEqual(session.scalar(text("PRAGMA journal_mode")), "wal")
            self.assertEqual(session.scalar(text("PRAGMA foreign_keys")), 1)

    def test_a_saw_of_ones_own_changes_what_every_project_says(self) -> None:
        project = self.new(spec=regular(7, 50.8, "outside_corners", mm=533.4))
        bench = self.client.get("/api/workshop").json
        acts = [
            {"op": "choose", "path": "tools.t1.swing_counts_from", "value": "fence"},
            {"op": "type", "path": "tools.t1.swing_right_deg", "text": "70"},
        ]
        bench = self.client.post("/api/workshop/acts", json={"version": bench["version"], "acts": acts}).json
        stops = {d["id"]: d["figure"]["whole"] for view in bench["tools"][0]["views"] for d in view["dimensions"]}
        self.assertEqual((stops["swing_right_deg"], bench["undo"]), ("70", "Swing scale counts"))
        steps = self.read(project, "steps")["steps"]
        key = next(step["key"] for step in steps if not step["key"].startswith("test "))
        swing = self.read(project, f"steps/one?key={quote(key)}")["sets"][0]
        # 25.71 is past 20 at the right, so the boards are turned round to swing left; from the fence that reads 64.5.
        self.assertEqual((swing["figure"]["whole"], swing["text"]), ("64.5", "to the left"))


class Refusals(Api):
    def test_bad_input_names_its_field_in_words_and_changes_nothing(self) -> None:
        project = self.new(spec={**HEXAGON, "rabbet": {"width_mm": 6.0, "depth_mm": 8.0}})
        for path, typed, words in (
            ("board.width_mm", "", "is no length"), ("board.width_mm", "wide", "is no length"), ("board.width_mm", "-4", "must be 0.01 mm or more"),
            ("board.width_mm", "0", "must be 0.01 mm or more"), ("board.width_mm", "9" * 60, "characters"), ("shape.size.mm", "200 m", "at most"),
            ("shape.sides", "2", "3 to 24"), ("shape.sides", "many", "whole number"), ("rabbet.width_mm", "50", "no narrower"),
            ("board.width_mm", "5", "no narrower"), ("no.such", "5", "no such field"), ("board.width_mm", "14 3/8", "365.1 mm?"),
            ("project.name", "   ", "needs a name"), ("project.name", "n" * 90, "80 characters"),
        ):  # fmt: skip
            with self.subTest(path=path, typed=typed):
                answer = self.type(project, path, typed)
                self.assertEqual(answer.status_code, 422)
                self.assertEqual(answer.content_type, "application/problem+json")
                self.assertIn(words, answer.json["detail"])
                self.assertTrue(answer.json["errors"][0]["path"])
        wide = self.new(spec=regular(6, 40.0, "outside_flats", mm=300.0))
        self.assertIn("narrower than 150 mm", self.type(wide, "board.width_mm", "400").json["detail"])
        self.assertEqual(self.client.get(f"/api/projects/{project['id']}").json["version"], 1)
        free = self.new(start="irregular")
        pin = self.act(free, {"op": "give", "measure": "outside_angle:AB", "text": "200"})
        self.assertEqual((pin.status_code, pin.json["detail"]), (422, "It must be less than 180°."))
        flat = self.act(free, {"op": "drag", "grip": "front/m1/corner:2", "x_mm": -200.0, "y_mm": -150.0})
        self.assertIn("under 180°", flat.json["detail"])

    def test_specs_are_refused_with_the_path_into_the_spec(self) -> None:
        shape = {
            "form": "irregular",
            "line": "outside",
            "corners": [[0, 0], [400, 0], [400, 300], [0, 300]],
            "pins": [{"corner": "AB", "deg": 200}],
        }
        for change, path in (
            ({"board": {"width_mm": 0, "thickness_mm": 20}}, "board.width_mm"), ({"board": {"width_mm": 4}}, "board.thickness_mm"),
            ({"kind": "spaceship"}, "kind"), ({"hole": 1}, "hole"), ({"shape": shape}, "shape.pins.0.deg"),
            ({"shape": {**HEXAGON["shape"], "sides": 25}}, "shape.sides"), ({"board": {"width_mm": "nan", "thickness_mm": 20}}, "board.width_mm"),
        ):  # fmt: skip
            with self.subTest(path):
                answer = self.client.post("/api/solve", json={"spec": {**HEXAGON, **change}})
                self.assertEqual(answer.status_code, 422, answer.text)
                self.assertIn(path, [e["path"] for e in answer.json["errors"]])

    def test_what_is_no_json_no_project_or_no_request_of_ours_is_turned_away(self) -> None:
        project = self.new()
        url = f"/api/projects/{project['id']}"
        post = self.client.post
        for answer, status in (
            (post("/api/projects", data="{", content_type="application/json"), 400),
            (post("/api/projects", data="start=hexagon", content_type="application/x-www-form-urlencoded"), 415),
            (post("/api/projects", data='{"start":"hexagon"}', content_type="text/plain"), 415),
            (post("/api/projects", json=[1]), 422), (post("/api/projects", json={"start": "nothing"}), 422),
            (post("/api/projects", data=b'"' + b"x" * 400_000 + b'"', content_type="application/json"), 413),
            (post(f"{url}/acts", json={"version": 1, "acts": []}), 422), (post(f"{url}/acts", json={"version": 1, "acts": [{"op": "zap"}]}), 422),
            (self.client.get("/api/projects/none-of-ours"), 404), (self.client.get("/api/projects/..%2fetc"), 404),
            (self.client.get("/api/projects", headers={"Host": "elsewhere.example"}), 403),
            (post("/api/projects", json={"start": "hexagon"}, headers={"Sec-Fetch-Site": "cross-site"}), 403),
        ):  # fmt: skip
            with self.subTest(answer.request.path, status=status):
                self.assertEqual(answer.status_code, status, answer.text)
                self.assertEqual(answer.content_type, "application/problem+json")
        self.assertEqual(len(self.client.get("/api/projects").json["projects"]), 1)

    def test_answers_carry_a_strict_policy(self) -> None:
        policy = self.client.get("/api/projects").headers["Content-Security-Policy"]
        self.assertIn("default-src 'none'", policy)
        self.assertIn("script-src 'self'", policy)
        self.assertNotIn("unsafe", policy)


class Documents(Api):
    def test_the_cut_list_is_a_table_that_no_spreadsheet_runs(self) -> None:
        project = self.new(
            name="=cmd()|' <b>x</b>",
            spec=regular(8, 58.0, "outside_side", mm=205.5, left_out=["A"], loose_ends="ground"),
        )
        answer = self.client.get(f"/api/projects/{project['id']}/cut-list.csv")
        rows = list(csv.DictReader(io.StringIO(answer.text)))
        self.assertEqual([(r["Part"], r["Count"]) for r in rows], [("B", "1"), ("C", "5"), ("H", "1")])
        self.assertAlmostEqual(float(rows[0]["Length mm"]), 239.4756, places=4)
        self.assertEqual(rows[0]["Left miters deg"], "-45.0000")
        self.assertIn("As rail B turned over", rows[2]["Left or right"])
        self.assertFalse(any(cell.startswith("=") for row in rows for cell in row.values()))

    def rows_of(self, spec: dict) -> list[dict[str, str]]:
        project = self.new(name="Paper", spec=spec)
        return list(csv.DictReader(io.StringIO(self.client.get(f"/api/projects/{project['id']}/cut-list.csv").text)))

    def test_whoever_cuts_by_the_list_leaves_nothing_out(self) -> None:
        starts = {code: spec for kind in KINDS.values() for code, spec in kind.starts.items()}
        hip = self.rows_of(starts["hip"])[0]
        # A hip's foot: two cheeks and a seat, its head two cheeks; both halves of its backing.
        self.assertEqual(
            [len(hip[f"{end} {what} deg"].split("; ")) for end in ("Left", "Right") for what in ("miters", "bevels")],
            [3, 3, 2, 2],
        )
        self.assertEqual([name for name, _ in (rip.split() for rip in hip["Rip bevels deg"].split("; "))], ["upper", "backing"])
        self.assertIn("before it is ripped", hip["Section"])
        gable = next(row for row in self.rows_of(starts["gable"] | {"shape": starts["gable"]["shape"] | {"foot": "birdsmouth"}}))
        self.assertRegex(gable["All lengths and marks"], r"Birdsmouth, its heel from the head .*heel .* plumb, seat .* level")
        lap = self.rows_of(starts["crossing"])[0]
        self.assertRegex(lap["All lengths and marks"], r"Lap 1, first shoulder from the left end: .* deep from the")
        rows = [
            {"board": "A", "count": 2, "diameter_mm": 8.0, "up_mm": 20.0},
            {"board": "A", "count": 3, "diameter_mm": 6.0, "up_mm": 40.0},
        ]
        with_holes = self.rows_of(
            regular(8, 58.0, "outside_side", mm=205.5, rabbet={"width_mm": 9.0, "depth_mm": 7.0}) | {"holes": rows}
        )
        holed = next(row for row in with_holes if row["Part"] == "A")
        self.assertEqual(len(re.findall(r"Holes, row \d", holed["All lengths and marks"])), 2)
        self.assertIn("8 mm wide", holed["All lengths and marks"])
        self.assertIn("Rabbet along the opening edge 9 mm, wide, 7 mm deep from the back", holed["Along the board"])
        leaning = self.rows_of(box({"form": "rectangle", "width_mm": 300.0, "depth_mm": 300.0}, 200.0, slope_deg=15.0))[0]
        # Square in plan, 15 degrees: the tilt is asin(cos 15 sin 45).
        self.assertIn("blade tilted 43.08°", leaning["Left end"])
        self.assertEqual(leaning["Left bevels deg"], f"{-degrees(asin(cos(radians(15)) * sin(radians(45)))):.4f}")

    def test_the_first_screen_and_the_project_agree_also_where_only_the_second_proof_fails(self) -> None:
        failing = BooleanProof(1.0, 1.0, ("m1/A",), (), ())
        with mock.patch.object(Design, "proof", failing):
            closing = self.new(spec=regular(6, 40.0, "opening_flats", mm=301.0))["sheet"]["closing"]  # of no other test
            (card,) = self.client.get("/api/projects").json["projects"]
        self.assertEqual((closing["tone"], card["closes"]), ("fails", "fails"))
        self.assertIn("comes out otherwise: rail A is another piece of wood there", closing["second"])

    def test_every_number_can_say_where_it_comes_from(self) -> None:
        project = self.new()
        for part in self.read(project, "parts")["parts"]:
            self.assertTrue(all(rung["why"] for rung in part["ladder"]) and all(end["why"] for end in part["ends"]))
        self.assertEqual(project["sheet"]["closing"]["tone"], "closes")

    def test_feet_are_said_back_as_inches(self) -> None:
        project = self.new(start="hexagon", unit="in")
        answer = self.type(project, "shape.size.mm", "4' 7 1/4\"")
        self.assertIn("55 1/4", answer.json["echo"])

    def test_a_project_that_can_no_longer_be_worked_out_hides_no_other(self) -> None:
        self.new(name="Sound", spec=HEXAGON)
        worn = self.new(name="Worn", spec=HEXAGON)
        with self.app.config["STORE"].writing() as session:
            where = "UPDATE revision SET body = json_set(body, '$.spec.members.m1.spec.shape.sides', 2) WHERE document_id = :id"
            self.assertEqual(session.execute(text(where), {"id": worn["id"]}).rowcount, 1)  # type: ignore[attr-defined]
        cards = {card["name"]: card for card in self.client.get("/api/projects").json["projects"]}
        self.assertEqual(cards["Sound"]["closes"], "closes")
        self.assertEqual(cards["Worn"]["closes"], "fails")
        self.assertIn("3", cards["Worn"]["facts"])  # sides at least

    def test_every_start_and_the_demo_can_be_solved_and_closes(self) -> None:
        starts = self.client.get("/api/starts").json["starts"]
        # A roof's start that somebody looks for among the boxes.
        self.assertEqual([s["family"] for s in starts if s["code"] == "sloped_box"], ["Boxes and cases"])
        for start in starts:
            self.assertNotEqual(self.new(start=start["code"])["sheet"]["closing"]["tone"], "fails")
        with self.app.config["STORE"].writing() as session:
            demo.fill(session)
        self.assertFalse(any(p["closes"] == "fails" for p in self.client.get("/api/projects").json["projects"]))
