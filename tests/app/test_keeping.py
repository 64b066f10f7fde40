"""What is kept: old forms brought to the newest, acts as data, records that only grow, files out and in again."""

import io
import json
import os
import signal
import sqlite3
import tempfile
import threading
import time
import unittest
from contextlib import closing, redirect_stderr, redirect_stdout, suppress
from pathlib import Path
from typing import Any
from unittest import mock

from alembic import command
from alembic.config import Config
from sqlalchemy import create_engine

from fennup.app import cli
from fennup.app.factory import create_app
from fennup.app.models.store import MIGRATIONS, open_store
from fennup.app.services import jobs, records
from fennup.app.services.proofs import make_proof, proof_from
from fennup.app.services.solving import solved_spec
from fennup.app.services.upgrade import NEWEST, STEPS
from fennup.app.worker import Worker, work
from fennup.core.workshop import Workshop
from tests.app.test_api import HEXAGON, Api
from tests.core.frames import rectangle
from tests.core.test_stand import four

POSTS = four(0, 0, rails=[{"height_mm": 100.0, "width_mm": 60.0, "thickness_mm": 20.0}])
# Several assemblies in the very first form: told apart by their names, a single row without a number.
FIRST_FORM = {
    "kind": "together",
    "version": 1,
    "members": [{"name": "Posts", "spec": POSTS}, {"name": "Frame", "on": "Posts", "spec": HEXAGON, "up_mm": 5.0}],
    "links": [{"of": "Frame", "measure": "opening_flats", "after": "Posts", "source": "height", "plus_mm": 10.0}],
    "pieces": [
        {"name": "Strut", "a": {"board": "Posts/DA", "side": "upper", "along_mm": 300.0},
         "b": {"board": "Posts/AB", "side": "upper", "along_mm": 320.0}, "width_mm": 30.0, "thickness_mm": 20.0},
        {"name": "Block", "a": {"board": "Posts/rail A", "side": "upper", "along_mm": 100.0},
         "b": {"board": "Strut", "side": "lower", "along_mm": 100.0}, "width_mm": 30.0, "thickness_mm": 20.0},
    ],
}  # fmt: skip
RECORD = {
    "id": "0f0e0d0c-0b0a-4908-8706-050403020100", "key": "m1/A", "fingerprint": "ab12", "type": "cut",
    "device": "bench", "device_time": "2026-05-04T10:00:00+02:00", "body": {"planned": {"length": 1.0}},
}  # fmt: skip


def first_database(file: Path, documents: dict[str, tuple[str, dict[str, Any]]]) -> None:
    """A database as the first version left it."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    engine = create_engine(f"sqlite:///{file}")
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "0001")
    engine.dispose()
    with closing(sqlite3.connect(file)) as connection:
        for id, (type, body) in documents.items():
            now = "2025-11-01 10:00:00.000000"
            connection.execute("INSERT INTO document VALUES (?, ?, 2, 2, ?, ?, NULL)", (id, type, now, now))
            for number in (1, 2):
                row = (id, number, "board width", json.dumps(body), now)
                connection.execute("INSERT INTO revision (document_id, number, did, body, at) VALUES (?, ?, ?, ?, ?)", row)
        connection.commit()


class FromTheFirstFormOn(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.file = Path(folder.name) / "fennup.db"
        plain = {"name": "Single", "unit": "mm", "graduation": "1", "allowance_mm": 0.5, "spec": HEXAGON, "variant_of": None}
        saw = {"name": "Old saw", "swing_left_deg": 40.0, "swing_right_deg": 20.0, "kerf_mm": 3.0}
        first_database(
            self.file,
            {
                "one": ("project", plain),
                "several": ("project", plain | {"name": "Several", "spec": FIRST_FORM}),
                "bench-saw": ("saw", saw),
            },
        )
        self.client = create_app(self.file).test_client()

    def test_every_document_opens_with_what_it_said_then(self) -> None:
        cards = {card["name"]: card for card in self.client.get("/api/projects").json["projects"]}
        self.assertEqual(
            {name: card["closes"] == "unreadable" for name, card in cards.items()}, {"Single": False, "Several": False}
        )
        one = self.client.get("/api/projects/one").json
        self.assertEqual((one["version"], one["undo"], cards["Single"]["example"]), (2, "board width", False))
        several = self.client.get("/api/projects/several/file").json["project"]["spec"]
        self.assertEqual(
            [(id, m["name"], m["on"]) for id, m in several["members"].items()], [("m1", "Posts", None), ("m2", "Frame", "m1")]
        )
        self.assertEqual([several["pieces"]["p4"][end]["board"] for end in "ab"], ["m1/rail A1", "p3"])
        self.assertEqual((several["links"][0]["of"], several["links"][0]["after"], several["numbered"]), ("m2", "m1", 4))
        sizes = {row["id"]: row["figure"]["whole"] for row in self.client.get("/api/projects/several").json["sheet"]["sizes"]}
        self.assertEqual((sizes["m1/height"], sizes["m2/opening_flats"]), ("450", "460"))
        bench = self.client.get("/api/workshop").json
        self.assertEqual((bench["tools"][0]["name"], bench["notice"], bench["undo"]), ("Old saw", None, "board width"))

    def test_the_one_saw_is_the_first_tool_of_a_workshop_that_cuts_as_exactly_as_before(self) -> None:
        workshop = self.client.get("/api/workshop/file").json["workshop"]
        saw = workshop["tools"]["t1"]
        told = {"swing_left_deg": 40.0, "swing_right_deg": 20.0, "kerf_mm": 3.0, "type": "miter_saw"}
        self.assertEqual({name: saw[name] for name in told}, told)
        # Half a millimetre was every new project's allowance, a millimetre tape the first one's.
        self.assertEqual((workshop["allowance_mm"], workshop["tape"]), (0.5, {"unit": "mm", "graduation": "1"}))

    def test_undo_goes_back_to_an_old_form_and_a_copy_was_made_before_the_tables_were_changed(self) -> None:
        back = self.client.post("/api/projects/one/undo", json={"version": 2})
        self.assertEqual((back.status_code, back.json["version"]), (200, 3))
        (copy,) = (self.file.parent / "backups").iterdir()
        with closing(sqlite3.connect(copy)) as connection:
            self.assertEqual(connection.execute("SELECT version_num FROM alembic_version").fetchall(), [("0001",)])
            self.assertEqual(connection.execute("SELECT count(*) FROM document").fetchone(), (3,))

    def test_every_step_from_one_form_to_the_next_is_there(self) -> None:
        self.assertEqual(set(STEPS), {(type, form) for type, newest in NEWEST.items() for form in range(1, newest)})


class ActsAsData(Api):
    def test_what_was_done_is_stored_as_acts_and_worded_when_it_is_read(self) -> None:
        project = self.new()
        changed = self.type(project, "board.width_mm", "50").json
        with closing(sqlite3.connect(self.database)) as connection:
            rows = connection.execute("SELECT did FROM revision ORDER BY number").fetchall()
        self.assertEqual(json.loads(rows[0][0]), {"event": "starting"})
        (act,) = json.loads(rows[1][0])["acts"]
        self.assertEqual((act["op"], act["path"], act["text"]), ("type", "members.m1.spec.board.width_mm", "50"))
        self.assertEqual(changed["undo"], "width")


class Records(Api):
    def test_a_record_is_added_once_never_changed_and_no_undo_touches_it(self) -> None:
        project = self.type(self.new(), "board.width_mm", "50").json
        url = f"/api/projects/{project['id']}/records"
        first = self.client.post(url, json=RECORD)
        self.assertEqual((first.status_code, first.json["key"], first.json["device_time"]), (200, "m1/A", RECORD["device_time"]))
        self.assertRegex(first.json["received"], r"^\d{4}-\d\d-\d\dT.*[+-]\d\d:\d\d$")
        self.assertEqual(self.client.post(url, json=RECORD).json, first.json)
        self.assertEqual(self.client.post(url, json={**RECORD, "body": {"planned": {"length": 2.0}}}).status_code, 409)
        earlier = {**RECORD, "id": RECORD["id"].replace("0100", "0200"), "device_time": "2026-05-04T07:59:00+00:00"}
        self.client.post(url, json=earlier)
        self.client.post(f"/api/projects/{project['id']}/undo", json={"version": project["version"]})
        # 10:00 two hours east of Greenwich is a minute after 7:59 there.
        self.assertEqual([r["id"] for r in self.client.get(url).json["records"]], [earlier["id"], RECORD["id"]])
        for change in ("UPDATE record SET body = '{}'", "DELETE FROM record"):
            with closing(sqlite3.connect(self.database)) as connection, self.assertRaisesRegex(sqlite3.Error, "only added"):
                connection.execute(change)
        for wrong in ({"id": "x"}, {"device_time": "2026-05-04T10:00:00"}, {"type": "No"}, {"more": 1}):
            self.assertEqual(self.client.post(url, json={**RECORD, **wrong}).status_code, 422, wrong)
        self.assertEqual(self.client.post(url, json={**RECORD, "type": "sketch", "body": {"x": "y" * 20_000}}).status_code, 413)

    def test_a_file_has_a_limit(self) -> None:
        with self.app.config["STORE"].writing() as session:
            self.assertEqual(len(records.add_file(session, "one", "a.png", "image/png", b"x" * 10).sha256), 64)
            with self.assertRaises(records.TooLarge):
                records.add_file(session, "one", "a.png", "image/png", b"x" * (records.LARGEST_FILE + 1))
            with self.assertRaises(ValueError):
                records.add_file(session, "one", "a.exe", "application/x-msdownload", b"x")


class FilesInAndOut(Api):
    def test_a_project_goes_out_and_comes_in_with_all_that_belongs_to_it(self) -> None:
        project = self.new(name="Gate", spec=rectangle("outside", 600.0, 400.0, 60.0))
        self.client.post(f"/api/projects/{project['id']}/records", json=RECORD)
        with self.app.config["STORE"].writing() as session:
            records.add_file(session, project["id"], "a.png", "image/png", b"\x89PNG")
        answer = self.client.get(f"/api/projects/{project['id']}/file")
        self.assertIn('filename="gate.fennup.json"', answer.headers["Content-Disposition"])
        elsewhere = create_app(self.database.with_name("other.db")).test_client()
        brought = elsewhere.post("/api/import", json=answer.json)
        self.assertEqual(brought.status_code, 200, brought.text)
        (id,) = brought.json["projects"]
        self.assertEqual(elsewhere.get(f"/api/projects/{id}/file").json | {"files": []}, answer.json | {"files": []})
        (file,) = elsewhere.get(f"/api/projects/{id}/file").json["files"]
        self.assertEqual((file["name"], file["content"]), ("a.png", "iVBORw=="))
        # Beside the one it came from it is a second project, its record under an id of its own.
        (again,) = self.client.post("/api/import", json=answer.json).json["projects"]
        (record,) = self.client.get(f"/api/projects/{again}/records").json["records"]
        self.assertNotEqual(record["id"], RECORD["id"])
        self.assertEqual(record["body"], RECORD["body"])

    def test_a_whole_workshop_goes_out_and_comes_in(self) -> None:
        for name in ("First", "Second"):
            self.new(name=name, spec=HEXAGON)
        kerf = {"op": "type", "path": "tools.t1.kerf_mm", "text": "3.5"}
        self.client.post("/api/workshop/acts", json={"version": 1, "acts": [kerf]})
        file = self.client.get("/api/workshop/file").json
        elsewhere = create_app(self.database.with_name("other.db")).test_client()
        brought = elsewhere.post("/api/import", json=file).json
        self.assertEqual(brought["workshop"], True)
        # The one changed last stands first, in the file and in the answer.
        self.assertEqual([elsewhere.get(f"/api/projects/{id}").json["name"] for id in brought["projects"]], ["Second", "First"])
        self.assertEqual(elsewhere.get("/api/workshop/file").json, file)

    def test_what_cannot_be_brought_in_names_its_field_and_nothing_is_brought_in(self) -> None:
        good = self.client.get(f"/api/projects/{self.new()['id']}/file").json
        spec = json.loads(json.dumps(good))
        spec["project"]["spec"]["members"]["m1"]["spec"]["board"]["width_mm"] = -1
        for wrong, path in (
            ({"format": "elsewhere"}, "format"), (good | {"version": 99}, "version"), (good | {"project": {**good["project"], "graduation": "0.3"}}, "project.graduation"), (good | {"more": 1}, "more"),
            (spec, "project.spec.members.m1.spec.board.width_mm"), (good | {"project": {**good["project"], "name": ""}}, "project.name"),
            (good | {"files": [{"id": "a", "name": "a.png", "media_type": "image/png", "content": "no base64!"}]}, "files"),
            (good | {"files": [{"id": "a", "name": "a.exe", "media_type": "text/html", "content": ""}]}, "files"),
        ):  # fmt: skip
            answer = self.client.post("/api/import", json=wrong)
            self.assertEqual((answer.status_code, answer.json["errors"][0]["path"]), (422, path), answer.text)
        self.assertEqual(len(self.client.get("/api/projects").json["projects"]), 1)

    def test_the_command_line_takes_and_gives_the_same_files(self) -> None:
        project = self.new(name="Gate", spec=HEXAGON)
        file, database = self.database.with_name("gate.fennup.json"), ["--database", str(self.database)]

        def run(*arguments: str) -> tuple[int, str, str]:
            out, err = io.StringIO(), io.StringIO()
            with redirect_stdout(out), redirect_stderr(err):
                code = cli.main(list(arguments))
            return code, out.getvalue(), err.getvalue()

        code, out, _ = run("export", "Gate", *database)
        self.assertEqual((code, json.loads(out)), (0, self.client.get(f"/api/projects/{project['id']}/file").json))
        file.write_text(out)
        code, out, _ = run("import", str(file), *database)
        self.assertEqual(self.client.get(f"/api/projects/{out.strip()}").json["name"], "Gate")
        code, out, _ = run("solve", str(file))
        self.assertEqual((code, json.loads(out)["parts"][0]["id"]), (0, "m1/A"))
        self.assertIn("2 projects are called Gate", run("export", "Gate", *database)[2])
        self.assertEqual(len(json.loads(run("export", *database)[1])["projects"]), 2)
        schema = json.loads(run("schema")[1])
        self.assertEqual((schema["versions"], "members" in schema["spec"]["properties"]), (NEWEST, True))

    def test_examples_are_removed_together_and_come_back_one_by_one(self) -> None:
        client = create_app(self.database.with_name("demo.db"), with_demo=True).test_client()
        (own,) = [client.post("/api/projects", json={"start": "hexagon"}).json]
        count = client.post("/api/projects/remove-examples", json={}).json["count"]
        left = client.get("/api/projects").json["projects"]
        self.assertEqual((count > 20, [p["id"] for p in left]), (True, [own["id"]]))
        self.assertEqual(len(client.get("/api/projects?deleted=true").json["projects"]), count)


class TheWorkshop(Api):
    def test_a_new_project_begins_with_the_workshops_tape_and_allowance(self) -> None:
        acts = [
            {"op": "choose", "path": "tape", "value": {"unit": "mm", "graduation": "1/2"}},
            {"op": "type", "path": "allowance_mm", "text": "0.8"},
        ]
        saved = self.client.post("/api/workshop/acts", json={"version": 1, "acts": acts})
        self.assertEqual(saved.status_code, 200, saved.text)
        body = self.read(self.new(), "file")["project"]
        self.assertEqual((body["graduation"], body["allowance_mm"]), ("1/2", 0.8))
        inches = self.read(self.new(start="hexagon", unit="in"), "file")["project"]
        self.assertEqual((inches["graduation"], inches["allowance_mm"]), ("1/16", 0.8))
        wrong = self.client.post(
            "/api/workshop/acts", json={"version": 2, "acts": [{"op": "type", "path": "tools.t9.kerf_mm", "text": "2"}]}
        )
        self.assertEqual((wrong.status_code, wrong.json["errors"][0]["path"]), (422, "tools.t9.kerf_mm"))


class NoLongLock(Api):
    def test_while_one_window_waits_for_a_slow_look_another_one_reads_and_saves(self) -> None:
        project = self.new()
        looking, go_on = threading.Event(), threading.Event()

        def slow(*arguments: Any) -> Any:
            looking.set()
            go_on.wait(20)
            return solved_spec(HEXAGON, Workshop())

        answers = []
        act = {"op": "nudge", "path": "members.m1.spec.board.width_mm", "steps": 1}
        with mock.patch("fennup.app.api.projects.solved", slow):
            window = threading.Thread(
                target=lambda: answers.append(
                    self.app.test_client().post(f"/api/projects/{project['id']}/look", json={"acts": [act]}).status_code
                )
            )
            window.start()
            self.assertTrue(looking.wait(20))
        self.addCleanup(go_on.set)
        self.assertEqual(self.client.get(f"/api/projects/{project['id']}").status_code, 200)
        self.assertEqual(self.type(project, "board.width_mm", "50").status_code, 200)
        self.assertEqual(answers, [])
        go_on.set()
        window.join(20)
        self.assertEqual(answers, [200])


class Jobs(Api):
    def setUp(self) -> None:
        super().setUp()
        wakes = mock.patch("fennup.app.services.proofs.MOST_MS", 0.0)  # everything takes long
        wakes.start()
        self.addCleanup(wakes.stop)
        self.app.config["WORKER"] = mock.Mock()

    def look(self, width: str) -> dict[str, Any]:
        return self.new(spec=rectangle("outside", float(width), 400.0, 60.0))

    def test_a_proof_that_takes_long_is_made_by_the_worker_and_then_said(self) -> None:
        project = self.look("611")
        self.assertIn("still being made", project["sheet"]["closing"]["second"])
        self.app.config["WORKER"].wake.assert_called()
        self.assertTrue(work(self.app.config["STORE"]))
        events = self.client.get(f"/api/jobs/{project['job']}/events").text
        self.assertIn('"state":"done"', events)
        again = self.client.get(f"/api/projects/{project['id']}").json
        self.assertEqual((again["job"], again["sheet"]["closing"]["second"]),
                         (None, "Checked a second way, as solids: every joint touches, and no two pieces stand in one another."))  # fmt: skip

    def test_the_newest_comes_first_and_what_is_cancelled_never(self) -> None:
        first, second, third = (self.look(width)["job"] for width in ("621", "622", "623"))
        self.assertEqual(self.client.post(f"/api/jobs/{second}/cancel", json={}).json["state"], "cancelled")
        done = []
        for _ in range(3):
            work(self.app.config["STORE"])
            with closing(sqlite3.connect(self.database)) as connection:
                done.append(dict(connection.execute("SELECT id, state FROM job").fetchall()))
        self.assertEqual(done[0], {first: "waiting", second: "cancelled", third: "done"})
        self.assertEqual(done[2], {first: "done", second: "cancelled", third: "done"})
        self.assertEqual(self.client.post("/api/jobs/99/cancel", json={}).status_code, 404)

    def test_what_is_cancelled_while_it_is_made_ends_there(self) -> None:
        job = self.look("631")["job"]
        real, cancelled = make_proof, threading.Event()

        def slow(given: dict[str, Any], report: Any) -> Any:
            self.client.post(f"/api/jobs/{job}/cancel", json={})
            report(0.5)
            cancelled.set()  # never reached: the report ends it
            return real(given, report)

        with mock.patch.dict("fennup.app.worker.WORK", {"second_proof": slow}):
            self.assertTrue(work(self.app.config["STORE"]))
        self.assertFalse(cancelled.is_set())

    def test_after_a_crash_it_is_tried_once_more_and_then_told_as_dropped(self) -> None:
        project = self.look("641")
        states = []
        with mock.patch.dict("fennup.app.worker.WORK", {"second_proof": mock.Mock(side_effect=SystemExit)}):
            for _ in range(3):
                with suppress(SystemExit):
                    work(self.app.config["STORE"])
                with self.app.config["STORE"].writing() as session:
                    jobs.recover(session)
                with closing(sqlite3.connect(self.database)) as connection:
                    states.append(connection.execute("SELECT state FROM job").fetchall())
        self.assertEqual(states, [[("waiting",)], [("dropped",)], [("dropped",)]])
        again = self.client.get(f"/api/projects/{project['id']}").json
        self.assertEqual(
            (again["job"], again["sheet"]["closing"]["second"]), (None, "The second check, as solids, could not be made.")
        )

    def test_a_proof_kept_as_data_is_the_proof(self) -> None:
        solution = solved_spec(HEXAGON, Workshop())
        kept = json.loads(json.dumps(make_proof(solution.spec.model_dump(mode="json"), lambda _, __: None)))
        self.assertEqual(proof_from(kept), solution.design.proof)


class ATagSavesTheWork(Api):
    def test_cards_and_settings_are_sent_once_until_something_changes(self) -> None:
        project = self.new()
        for what in ("parts", "solids", "faces", "solution"):
            url = f"/api/projects/{project['id']}/{what}"
            tag = self.client.get(url).headers["ETag"]
            with mock.patch("fennup.app.api.projects.solved", mock.Mock(side_effect=AssertionError)):
                again = self.client.get(url, headers={"If-None-Match": tag})
            self.assertEqual((again.status_code, again.data), (304, b""), what)
        tag = self.client.get(f"/api/projects/{project['id']}/steps").headers["ETag"]
        step = {"op": "type", "path": "tools.t1.swing_step_deg", "text": "0.25"}
        self.client.post("/api/workshop/acts", json={"version": 1, "acts": [step]})
        changed = self.client.get(f"/api/projects/{project['id']}/steps", headers={"If-None-Match": tag})
        self.assertEqual(changed.status_code, 200)


class TheWorkersProcess(unittest.TestCase):
    def test_it_is_begun_again_when_it_breaks_off_and_ends_with_the_server(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "fennup.db"
            store = open_store(file)
            with mock.patch.dict(os.environ, {"PYTHONPATH": "src"}):
                worker = Worker(file, store)
                self.assertIsNone(worker.pid)  # until something is asked for
                worker.wake()
                first = worker.pid
                assert first
                os.kill(first, signal.SIGKILL)
                ends = time.monotonic() + 30
                while worker.pid == first and time.monotonic() < ends:
                    time.sleep(0.05)
                second = worker.pid
                assert second
                self.assertNotEqual(second, first)
                worker.close()
            store.close()
            with self.assertRaises(ProcessLookupError):
                os.kill(second, 0)
