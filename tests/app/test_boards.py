import json
import subprocess
import sys
import tempfile
import threading
import time
import unittest
from contextlib import suppress
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from itertools import pairwise
from pathlib import Path
from typing import Any
from unittest import mock

from werkzeug.test import TestResponse

from fennup.app.factory import create_app
from fennup.app.services import board_plans
from fennup.app.services.board_plans import TYPE
from fennup.app.worker import LEAST_SECONDS, work
from fennup.core.boards.planner import Report
from fennup.yard.server import open_yard
from tests.core.frames import rectangle

SQUARE = rectangle("outside", 400.0, 400.0, 60.0)


class Woken:
    """A worker that is told and does nothing by itself."""

    def wake(self) -> None:
        pass


class Boards(unittest.TestCase):
    def setUp(self) -> None:
        self.folder = tempfile.TemporaryDirectory()
        self.addCleanup(self.folder.cleanup)
        self.app = create_app(Path(self.folder.name) / "fennup.db")
        self.client = self.app.test_client()

    def post(self, where: str, body: dict[str, Any], status: int = 200) -> Any:
        answer = self.client.post(f"/api/{where}", json=body)
        self.assertEqual(answer.status_code, status, answer.text)
        return answer.json

    def get(self, where: str) -> Any:
        answer = self.client.get(f"/api/{where}")
        self.assertEqual(answer.status_code, 200, answer.text)
        return answer.json

    def new(self, spec: dict[str, Any] | None = None) -> str:
        return str(self.post("projects", {"spec": spec or SQUARE}, 201)["id"])

    def rack(self, *acts: dict[str, Any], status: int = 200) -> Any:
        return self.post("rack/acts", {"version": self.get("rack")["version"], "acts": list(acts)}, status)

    def board(self, length: float, width: float = 60.0, thick: float = 20.0) -> str:
        """A new board of the rack, its sizes typed on its drawing."""
        id = str(self.rack({"op": "choose", "path": "boards.new", "value": "board"})["boards"][-1]["id"])
        sizes = (("length_mm", length), ("width_mm", width), ("thickness_mm", thick))
        self.rack(*({"op": "type", "path": f"boards.{id}.{name}", "text": str(mm)} for name, mm in sizes))
        return id

    def wish(self, project: str, path: str, value: Any) -> Any:
        version = self.get(f"projects/{project}/boards")["version"]
        return self.post(
            f"projects/{project}/boards/acts", {"version": version, "acts": [{"op": "choose", "path": path, "value": value}]}
        )


class Planning(Boards):
    def test_a_square_frame_out_of_one_board_and_what_is_left_goes_back(self) -> None:
        project, id = self.new(), self.board(2400.0)
        plan = self.get(f"projects/{project}/boards")["plan"]
        self.assertEqual(plan["headline"], "Every part has its board.")
        self.assertEqual([p["tag"] for p in plan["boards"][0]["pieces"]], ["A", "B", "C", "D"])
        # Four of 400, three shared cuts at 45 with a kerf of 2.4, one slant; what is left begins a kerf farther.
        used = 4 * 400 - 3 * 60 + 4 * 2.4 * 2**0.5
        self.assertIn(f"Worth keeping: {int(2400 - used)} mm.", plan["boards"][0]["lines"])
        done = self.post(f"projects/{project}/boards/done", {"version": self.get("rack")["version"]})
        self.assertEqual(done, {"back": 1, "gone": 1})
        (left,) = self.get("rack")["boards"]
        self.assertNotEqual(left["id"], id)
        self.assertEqual(left["length_mm"], float(int(2400 - used)))
        self.post("rack/undo", {"version": self.get("rack")["version"]})
        self.assertEqual([b["id"] for b in self.get("rack")["boards"]], [id])

    def test_short_by_a_little_and_cured_with_one_touch(self) -> None:
        project = self.new()
        self.board(4 * 400 - 3 * 60 + 3 * 2.4 * 2**0.5 - 6.0)
        found = self.get(f"projects/{project}/boards")["plan"]
        self.assertEqual(found["headline"], "Short by 6 mm on Board 1.")
        cure = next(c for c in found["cures"] if c["label"] == "outside width 397 mm in place of 400 mm")
        self.post(f"projects/{project}/acts", {"version": 1, "acts": cure["acts"]})
        self.assertEqual(self.get(f"projects/{project}/boards")["plan"]["headline"], "Every part has its board.")

    def test_a_part_is_put_into_another_board_and_what_moved_is_told(self) -> None:
        project, one = self.new(), self.board(1600.0)
        other = self.board(420.0)
        self.assertEqual([b["source"] for b in self.get(f"projects/{project}/boards")["plan"]["boards"]], [one])
        place = self.wish(project, "pins.m1/C", other)
        self.assertEqual({b["source"] for b in place["plan"]["boards"]}, {one, other})
        self.assertEqual(place["plan"]["moved"], ["C now out of Board 2."])
        undone = self.post(f"projects/{project}/boards/undo", {"version": place["version"]})
        self.assertEqual([b["source"] for b in undone["plan"]["boards"]], [one])

    def test_two_projects_are_cut_from_the_same_rack_at_once(self) -> None:
        first, second = self.new(), self.new()
        self.board(3400.0)
        place = self.wish(first, f"beside.{second}", True)
        pieces = [p for b in place["plan"]["boards"] for p in b["pieces"]]
        self.assertEqual((len(pieces), sum(p["own"] for p in pieces)), (8, 4))
        self.assertEqual(sum(p["name"].startswith("New project: ") for p in pieces), 4)

    def test_a_copy_wishes_the_same_of_its_boards(self) -> None:
        project = self.new()
        self.board(1600.0)
        self.wish(project, "goal", "cheapest")
        copy = self.post(f"projects/{project}/duplicate", {}, 201)["id"]
        goals = next(c for c in self.get(f"projects/{copy}/boards")["controls"] if c["id"] == "wish_goal")["options"]
        self.assertEqual([o["code"] for o in goals if o["chosen"]], ["goal_cheapest"])

    def test_what_was_bought_is_thinner_and_the_project_follows(self) -> None:
        project = self.new()
        answer = self.post(f"projects/{project}/boards/bought", {"version": 1, "from_mm": 20.0, "text": "19"})
        self.assertEqual(answer["version"], 2)
        self.assertEqual({p["section"]["thickness_mm"] for p in self.get(f"projects/{project}/solution")["parts"]}, {19.0})
        refused = self.post(f"projects/{project}/boards/bought", {"version": 2, "from_mm": 20.0, "text": "18"}, 422)
        self.assertEqual(refused["detail"], "No board of this project is 20 mm thick.")

    def test_a_part_longer_or_wider_than_any_board(self) -> None:
        project = self.new()
        self.board(390.0)
        found = self.get(f"projects/{project}/boards")["plan"]["unplaced"]
        self.assertEqual(
            found[0]["text"], "Rails A to D: 400 mm long each; the longest board of 60 × 20 mm gives 390 mm. It lacks 10 mm."
        )
        self.rack(
            {"op": "type", "path": "boards.r1.width_mm", "text": "59"},
            {"op": "type", "path": "boards.r1.length_mm", "text": "900"},
        )
        (missing,) = self.get(f"projects/{project}/boards")["plan"]["unplaced"]
        self.assertIn("Rails A to D: no board gives 60 × 20 mm.", missing["text"])
        self.rack(*missing["add"])
        self.assertEqual(self.get(f"projects/{project}/boards")["plan"]["tone"], "closes")


class Working(Boards):
    """With a worker beside the server: what it makes is asked for, shown, and given up."""

    def setUp(self) -> None:
        super().setUp()
        self.app.config["WORKER"] = Woken()
        self.store = self.app.config["STORE"]
        self.project = self.new()
        self.board(1600.0)

    def place(self) -> Any:
        return self.get(f"projects/{self.project}/boards")

    def test_a_plan_is_made_by_the_worker_and_stale_when_something_changes(self) -> None:
        first = self.place()
        self.assertEqual((first["plan"], first["stale"]), (None, True))
        self.assertTrue(work(self.store))
        self.assertEqual((self.place()["stale"], self.place()["job"]), (False, None))
        self.post(
            f"projects/{self.project}/acts",
            {"version": 1, "acts": [{"op": "give", "measure": "m1/outside_width", "text": "380"}]},
        )
        stale = self.place()
        self.assertEqual((stale["stale"], stale["plan"]["headline"]), (True, "Every part has its board."))
        self.assertTrue(work(self.store))
        self.assertFalse(self.place()["stale"])

    def test_a_newer_request_replaces_an_older_one(self) -> None:
        old = self.place()["job"]
        self.wish(self.project, "goal", "cheapest")
        with self.store.reading() as session:
            states = {job.id: job.state for job in [session.get(board_plans.Job, k) for k in (old, self.place()["job"])] if job}
        self.assertEqual(sorted(states.values()), ["dropped", "waiting"])

    def test_stopping_keeps_the_best_plan_so_far(self) -> None:
        job = self.place()["job"]

        def slow(given: dict[str, Any], report: Report) -> dict[str, Any]:
            made = board_plans.make_plan(given, lambda share, result: None)
            report(0.4, made)  # type: ignore[arg-type]
            self.post(f"projects/{self.project}/boards/stop", {})
            time.sleep(2 * LEAST_SECONDS)
            report(0.5, None)  # type: ignore[arg-type]
            raise AssertionError("it goes on")

        with mock.patch.dict("fennup.app.worker.WORK", {TYPE: slow}):
            work(self.store)
        place = self.place()
        self.assertEqual((place["job"], place["stale"]), (None, False))
        self.assertIn("Stopped before everything was tried.", place["plan"]["quality"])
        with self.store.reading() as session:
            self.assertEqual(session.get(board_plans.Job, job).state, "cancelled")

    def test_what_breaks_off_is_said_and_not_asked_for_again_and_again(self) -> None:
        self.place()
        broken = mock.Mock(side_effect=ZeroDivisionError)
        with mock.patch.dict("fennup.app.worker.WORK", {TYPE: broken}), self.assertLogs("fennup.worker"):
            work(self.store)
        self.assertEqual([(self.place()["job"], self.place()["notice"][:15]) for _ in range(2)], [(None, "Something broke")] * 2)
        self.assertFalse(work(self.store))
        self.wish(self.project, "goal", "cheapest")
        self.assertTrue(work(self.store))
        self.assertEqual((self.place()["notice"], self.place()["stale"]), ("", False))


class Racks(Boards):
    def test_sizes_are_typed_and_knots_and_trims_dragged(self) -> None:
        id = self.board(2000.0)
        self.rack({"op": "choose", "path": f"boards.{id}.defects.new", "value": 500})
        self.rack({"op": "drag", "grip": f"{id}/defects.0", "x_mm": 700.4, "y_mm": 3.0})
        self.rack({"op": "drag", "grip": f"{id}/trim_right_mm", "x_mm": 1960.2, "y_mm": 0.0})
        table = self.client.get("/api/rack.csv").text.splitlines()
        self.assertIn("40.0,680-720", table[1])

    def test_bad_figures_are_answered_at_their_fields_and_nothing_is_lost(self) -> None:
        id = self.board(500.0)
        for path, typed, says in (
            ("length_mm", "-5", "1 mm"), ("length_mm", "99999", "20000 mm"), ("trim_left_mm", "600", "nothing is left"),
            ("count", "0", "1"), ("width_mm", "wide", "no length"),
        ):  # fmt: skip
            refused = self.rack({"op": "type", "path": f"boards.{id}.{path}", "text": typed}, status=422)
            self.assertIn(says, refused["detail"], (path, refused["detail"]))
            self.assertEqual(refused["errors"][0]["path"], f"boards.{id}.{path}")
        outside = [{"from_mm": 450.0, "to_mm": 520.0}]
        refused = self.rack({"op": "choose", "path": f"boards.{id}.defects", "value": outside}, status=422)
        self.assertEqual(refused["errors"][0]["path"], f"boards.{id}.defects.0.to_mm")
        self.assertEqual(self.get("rack")["boards"][0]["length_mm"], 500.0)

    def test_a_table_goes_out_and_comes_in_again(self) -> None:
        id = self.board(2000.0)
        self.rack(
            {"op": "type", "path": f"boards.{id}.name", "text": "=1+1 board"},
            {"op": "choose", "path": f"boards.{id}.nails", "value": True},
        )
        self.rack(
            {
                "op": "choose",
                "path": f"boards.{id}.defects",
                "value": [{"from_mm": 10.0, "to_mm": 30.0, "low_mm": 5.0, "high_mm": 20.0}],
            }
        )
        out = self.client.get("/api/rack.csv").text
        self.assertIn("'=1+1 board", out)  # text for a spreadsheet, no formula
        rack = self.post("rack/table", {"version": self.get("rack")["version"], "text": out})
        self.assertEqual([b["name"] for b in rack["boards"]], ["=1+1 board"] * 2)
        rows = self.client.get("/api/rack.csv").text.splitlines()
        self.assertEqual(rows[1], rows[2])

    def test_tables_that_cannot_be_are_refused_whole(self) -> None:
        head = "name;length_mm;width_mm;thickness_mm\n"
        for text, says in (
            ("name,length_mm\nA,3\n", "no column for width_mm, thickness_mm"),
            (head + "A;2000;95;20\nB;long;95;20\n", "Row 3, length_mm: “long”"),
            (head + "A;2000;95;20\n" * 300, "300 rows; at most 200"),
            (head + "A;2000;95;20\n" * 40_000, "at most 200"),
            (head + "A;-1;95;20\n", "Row 2, length_mm"),
            ("x" * 1_200_000, "more than 1024 kB"),
            ("\0\0", "no table"),
        ):
            refused = self.post("rack/table", {"version": 1, "text": text}, 422)
            self.assertIn(says, refused["detail"])
        self.assertEqual(self.get("rack")["boards"], [])
        refused = self.post("prices/table", {"text": "code,length_mm,width_mm,thickness_mm,price\nA,2000,95,20,-4\n"}, 422)
        self.assertIn("Row 2, price", refused["detail"])


class OddYard(BaseHTTPRequestHandler):
    """A yard that answers as the test says."""

    answer = b"{}"
    wait = 0.0

    def do_GET(self) -> None:
        time.sleep(self.wait)
        with suppress(BrokenPipeError):  # nobody waited for it
            self.send_response(200)
            self.end_headers()
            self.wfile.write(self.answer)

    def log_message(self, format: str, *args: object) -> None:
        pass


class Yard(Boards):
    def opened(self, server: ThreadingHTTPServer) -> None:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        self.app.config["YARD"] = f"http://127.0.0.1:{server.server_port}"

    def test_the_list_is_kept_when_the_yard_is_away_again(self) -> None:
        self.assertIn("no price list yet", self.get("prices")["age"])
        self.opened(open_yard(0, steady=True))
        asked = self.post("prices/ask", {})
        self.assertEqual((asked["notice"], asked["age"]), ("", "Reedham timber yard, read today."))
        self.app.config["YARD"] = "http://127.0.0.1:9"
        away = self.post("prices/ask", {})
        self.assertEqual(away["notice"], "The yard does not answer. The last list stands.")
        self.assertEqual(away["lines"], asked["lines"])
        project = self.new()
        self.assertEqual(self.get(f"projects/{project}/boards")["plan"]["headline"], "Every part has its board.")
        self.assertIn("Together,1", self.client.get(f"/api/projects/{project}/boards/buy.csv").text)

    def test_a_yard_that_fails_is_slow_or_answers_nonsense(self) -> None:
        with mock.patch("fennup.yard.server.FAILS_EVERY", 1):
            self.opened(open_yard(0))
            self.assertIn("closed just now", self.post("prices/ask", {})["notice"])
        bad = {"yard": "Y", "items": [{"code": "a", "length_mm": 2000, "width_mm": 95, "thickness_mm": 20, "price": -1}]}
        for answer in (b"<html>", b"[1]", b'{"items": 3}', json.dumps(bad).encode(), b"{" * 5000):
            self.opened(ThreadingHTTPServer(("127.0.0.1", 0), type("Nonsense", (OddYard,), {"answer": answer})))
            self.assertIn("no price list", self.post("prices/ask", {})["notice"])
        with mock.patch("fennup.app.services.outside.SECONDS", 0.1):
            self.opened(ThreadingHTTPServer(("127.0.0.1", 0), type("Slow", (OddYard,), {"wait": 0.5})))
            self.assertIn("takes too long", self.post("prices/ask", {})["notice"])
        self.assertEqual(self.get("prices")["lines"], [])


class Files(Boards):
    def exported(self, project: str) -> Path:
        file = Path(self.folder.name) / "project.fennup.json"
        file.write_text(json.dumps(self.get(f"projects/{project}/file")))
        return file

    def test_the_command_line_prints_the_plan_that_the_screen_shows(self) -> None:
        project = self.new()
        self.board(1600.0)
        self.wish(project, "goal", "fewest_boards")
        file = self.exported(project)
        done = subprocess.run(
            [sys.executable, "-m", "fennup.app.cli", "boards", str(file)], capture_output=True, text=True, check=True
        )
        self.assertEqual(json.loads(done.stdout), self.get(f"projects/{project}/boards/plan"))

    def test_somebody_elses_program_can_check_the_plan(self) -> None:
        """From the document alone: every arris within its board, a kerf between neighbours on all four long corners."""
        project = self.new()
        self.board(1600.0)
        plan = self.get(f"projects/{project}/boards/plan")
        (board,) = plan["boards"]
        self.assertEqual((plan["proven"], plan["complete"], plan["faults"]), (True, True, []))
        rows = sorted(board["pieces"], key=lambda p: p["arrises"][0][0][0])
        for piece in rows:
            for line in piece["arrises"]:
                for x, y, z in line:
                    self.assertTrue(-1e-9 <= x <= board["length_mm"] and 0 <= y <= board["width_mm"] and 0 <= z <= 20.0)
        for one, other in pairwise(rows):
            gaps = [b[0][0] - a[1][0] for a, b in zip(one["arrises"], other["arrises"], strict=True)]
            self.assertEqual([round(gap / 2**0.5, 6) for gap in gaps], [plan["kerf_mm"]] * 4)  # square to a cut at 45

    def test_wishes_travel_with_the_project_and_the_rack_with_the_workshop(self) -> None:
        project = self.new()
        self.board(1600.0)
        self.wish(project, "goal", "least_waste")
        workshop = self.get("workshop/file")
        other = create_app(Path(self.folder.name) / "other.db").test_client()
        brought: TestResponse = other.post("/api/import", json=workshop)
        (new,) = brought.json["projects"]  # type: ignore[index]
        goal = next(c for c in other.get(f"/api/projects/{new}/boards").json["controls"] if c["id"] == "wish_goal")  # type: ignore[index]
        self.assertEqual([o["code"] for o in goal["options"] if o["chosen"]], ["goal_least_waste"])
        self.assertEqual(len(other.get("/api/rack").json["boards"]), 1)  # type: ignore[index]


class Demo(unittest.TestCase):
    def test_every_project_of_the_demo_has_a_plan_that_holds(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            client = create_app(Path(folder) / "fennup.db", with_demo=True).test_client()
            projects = client.get("/api/projects").json["projects"]  # type: ignore[index]
            found = {p["name"]: client.get(f"/api/projects/{p['id']}/boards").json["plan"] for p in projects}  # type: ignore[index]
        open_ends = {name: plan["headline"] for name, plan in found.items() if plan["tone"] != "closes"}
        # Two of 1003 out of 2000, and between them a kerf along a cut whose miter is 60 in 95: 2006 + 2.4 * 1.1827 - 2000.
        self.assertEqual(open_ends, {"Honours board frame": "Short by at most 8.84 mm on Larch 3."})
        self.assertTrue(found["Honours board frame"]["cures"])
        self.assertTrue(any(plan["buy"] for plan in found.values()) and any(not plan["buy"] for plan in found.values()))
