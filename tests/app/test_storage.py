"""The database file in use and in trouble: nothing said to be saved that is not, and words instead of a traceback."""

import io
import os
import shutil
import signal
import socket
import sqlite3
import subprocess
import sys
import tempfile
import time
import unittest
import urllib.request
from contextlib import closing, redirect_stderr
from pathlib import Path
from typing import Any
from unittest import mock

from sqlalchemy import text

from fennup.app import cli
from fennup.app.factory import create_app
from fennup.app.models.store import Trouble, back_up, open_store
from tests.app.test_api import HEXAGON, Api

ROOT = Path(__file__).resolve().parent.parent.parent


def sql(file: Path, *statements: str) -> list[Any]:
    with closing(sqlite3.connect(file)) as connection:
        rows = [connection.execute(statement).fetchall() for statement in statements]
        connection.commit()
    return rows[-1]


class OneFile(Api):
    def test_what_was_saved_is_in_the_one_file_and_private_to_its_owner(self) -> None:
        self.new()
        copy = self.database.with_name("copy.db")
        shutil.copy(self.database, copy)  # without what the write-ahead log still holds
        self.assertEqual(sql(copy, "SELECT count(*) FROM revision"), [(1,)])
        for file in self.database.parent.glob("fennup.db*"):
            self.assertEqual(file.stat().st_mode & 0o077, 0, file.name)
        with self.app.config["STORE"].reading() as session:
            self.assertEqual(session.scalar(text("PRAGMA synchronous")), 2)  # FULL

    def test_a_backup_of_a_running_one_holds_everything(self) -> None:
        self.new(name="Kept", spec=HEXAGON)
        copy = back_up(self.database)
        self.assertEqual(copy.stat().st_mode & 0o777, 0o600)
        other = create_app(copy).test_client()
        self.assertEqual([p["name"] for p in other.get("/api/projects").json["projects"]], ["Kept"])
        with self.assertRaises(Trouble):
            back_up(self.database.with_name("nothing.db"))

    def test_a_file_that_was_removed_under_the_running_server_is_noticed(self) -> None:
        project = self.new()
        for file in self.database.parent.glob("fennup.db*"):
            file.unlink()
        answer = self.type(project, "shape.size.mm", "280")
        self.assertEqual(answer.status_code, 507)
        self.assertIn("no longer there", answer.json["detail"])
        self.assertFalse(self.database.exists())

    def test_while_somebody_else_writes_one_can_read(self) -> None:
        project = self.new()
        with closing(sqlite3.connect(self.database, isolation_level=None)) as other:
            other.execute("BEGIN IMMEDIATE")
            began = time.monotonic()
            self.assertEqual(self.client.get(f"/api/projects/{project['id']}").status_code, 200)
            self.assertLess(time.monotonic() - began, 5.0)
            other.execute("ROLLBACK")

    def test_what_cannot_be_saved_while_somebody_else_writes_can_be_sent_again(self) -> None:
        project = self.new()
        with mock.patch("fennup.app.models.store.BUSY_SECONDS", 0.1):
            client = create_app(self.database).test_client()
        change = {"version": 1, "acts": [{"op": "type", "path": "members.m1.spec.shape.size.mm", "text": "280"}]}
        with closing(sqlite3.connect(self.database, isolation_level=None)) as other:
            other.execute("BEGIN IMMEDIATE")
            answer = client.post(f"/api/projects/{project['id']}/acts", json=change)
            self.assertEqual((answer.status_code, "not saved yet" in answer.json["detail"]), (503, True))
            other.execute("ROLLBACK")
        self.assertEqual(client.post(f"/api/projects/{project['id']}/acts", json=change).json["version"], 2)


class OneThatCannotBeRead(Api):
    def test_it_is_shown_as_such_and_the_others_open(self) -> None:
        good, bad, odd, gone = (self.new(name=name, spec=HEXAGON) for name in ("Good", "Bad", "Odd", "Gone"))
        sql(
            self.database,
            f"UPDATE revision SET body = '{{' WHERE document_id = '{bad['id']}'",
            f"UPDATE revision SET body = json_set(body, '$.later', 1) WHERE document_id = '{odd['id']}'",
            f"DELETE FROM revision WHERE document_id = '{gone['id']}'",
        )
        cards = {p["id"]: (p["name"], p["closes"]) for p in self.client.get("/api/projects").json["projects"]}
        lost = "unreadable"
        wanted = {
            good["id"]: ("Good", "closes"),
            bad["id"]: ("A project", lost),
            odd["id"]: ("Odd", lost),
            gone["id"]: ("A project", lost),
        }
        self.assertEqual(cards, wanted)
        self.assertEqual(self.client.get(f"/api/projects/{good['id']}").status_code, 200)
        for project in (bad, odd, gone):
            answer = self.client.get(f"/api/projects/{project['id']}")
            self.assertEqual(answer.status_code, 422)
            self.assertIn("cannot be read", answer.json["detail"])

    def test_what_the_workshop_and_a_project_wish_is_told_as_unreadable_and_stays_stored(self) -> None:
        project = self.new()
        of = f"projects/{project['id']}"
        board = {"op": "choose", "path": "boards.new", "value": "board"}
        moulding = {"op": "choose", "path": "mouldings.new", "value": "moulding"}
        hour = {"op": "type", "path": "rate_money", "text": "30"}
        places = (
            ("rack", "rack", board, "the rack"),
            ("mouldings", "mouldings", moulding, "the mouldings"),
            (f"{of}/boards", f"b-{project['id'][:30]}", {"op": "choose", "path": "goal", "value": "cheapest"}, "boards"),
            (f"{of}/steps", f"s-{project['id'][:30]}", {"op": "choose", "path": "school", "value": "by_part"}, "at the saw"),
            (f"{of}/log", f"l-{project['id'][:30]}", hour, "log"),
        )
        for where, id, act, named in places:
            with self.subTest(where):
                ask = {"version": 1, "acts": [act]}
                made = self.client.post(f"/api/{where}/acts", json=ask)
                self.assertEqual(made.status_code, 200, made.text)
                broken, whole = '{"x": 1}', sql(self.database, f"SELECT number, body FROM revision WHERE document_id = '{id}'")
                sql(self.database, f"UPDATE revision SET body = '{broken}' WHERE document_id = '{id}'")
                shown = self.client.get(f"/api/{where}")
                self.assertEqual(shown.status_code, 422)
                self.assertIn(named, shown.json["detail"])
                again = self.client.post(f"/api/{where}/acts", json=ask | {"version": made.json["version"]})
                self.assertEqual((again.status_code, again.json["detail"]), (422, shown.json["detail"]))
                with closing(sqlite3.connect(self.database)) as kept:
                    bodies = {row[0] for row in kept.execute("SELECT body FROM revision WHERE document_id = ?", (id,))}
                self.assertEqual(bodies, {broken})
                if "/steps" in where:
                    (card,) = self.client.get("/api/projects").json["projects"]
                    self.assertEqual(card["closes"], "unreadable")
                for number, body in whole:
                    sql(self.database, f"UPDATE revision SET body = '{body}' WHERE document_id = '{id}' AND number = {number}")

    def test_an_unreadable_saw_makes_way_for_the_built_in_one_and_says_so(self) -> None:
        project = self.new()

        def step_of(bench: Any) -> str:
            return next(c["figure"]["typed"] for c in bench["tools"][0]["controls"] if c["id"] == "swing_step_deg")

        step = {"op": "type", "path": "tools.t1.swing_step_deg", "text": "0.1"}
        saw = self.client.post("/api/workshop/acts", json={"version": 1, "acts": [step]}).json
        sql(self.database, "UPDATE revision SET body = '{\"x\": 1}' WHERE document_id = 'bench-saw'")
        shown = self.client.get("/api/workshop").json
        self.assertEqual((step_of(shown), "cannot be read" in shown["notice"]), ("0.5", True))
        self.assertEqual(self.client.get(f"/api/projects/{project['id']}").status_code, 200)
        again = self.client.post("/api/workshop/acts", json={"version": saw["version"], "acts": [step]}).json
        self.assertEqual((step_of(again), again["notice"]), ("0.1", None))

    def test_a_deleted_project_is_listed_apart_and_comes_back(self) -> None:
        kept, deleted = (self.new(name=name, spec=HEXAGON) for name in ("Kept", "Deleted"))
        self.client.delete(f"/api/projects/{deleted['id']}", json={})
        listed = [
            [p["name"] for p in self.client.get(url).json["projects"]] for url in ("/api/projects", "/api/projects?deleted=true")
        ]
        self.assertEqual(listed, [[kept["name"]], ["Deleted"]])
        self.assertEqual(self.client.post(f"/api/projects/{deleted['id']}/restore", json={}).status_code, 200)
        self.assertEqual(self.client.get("/api/projects?deleted=true").json["projects"], [])


class AtTheStart(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.addCleanup(os.umask, os.umask(0o022))
        self.file = Path(folder.name) / "data" / "fennup.db"
        open_store(self.file).close()

    def test_the_folder_that_is_made_is_private(self) -> None:
        self.assertEqual(self.file.parent.stat().st_mode & 0o777, 0o700)

    def test_each_trouble_has_its_own_words_and_changes_nothing(self) -> None:
        def overwritten() -> None:
            with self.file.open("r+b") as file:
                file.seek(4096)
                file.write(os.urandom(8192))

        good = self.file.read_bytes()
        troubles = {
            "no_database": lambda: self.file.write_text("hello " * 2000),
            "damaged": overwritten,
            "newer": lambda: sql(self.file, "UPDATE alembic_version SET version_num = '9999'"),
            "foreign": lambda: sql(self.file, "DROP TABLE alembic_version"),
            "is_folder": lambda: (self.file.unlink(), self.file.mkdir()),
        }
        for code, bring in troubles.items():
            with self.subTest(code):
                if self.file.exists():
                    self.file.unlink()
                self.file.write_bytes(good)
                bring()
                before = self.file.read_bytes() if self.file.is_file() else None
                words = io.StringIO()
                with redirect_stderr(words):
                    self.assertEqual(cli.main(["serve", "--port", "0", "--database", str(self.file)]), 1)
                self.assertIn("Nothing was changed.", words.getvalue())
                self.assertIn(str(self.file), words.getvalue())
                with self.assertRaises(Trouble) as caught:
                    open_store(self.file)
                self.assertEqual(caught.exception.code, code)
                self.assertEqual(self.file.read_bytes() if self.file.is_file() else None, before)

    def test_a_taken_port_is_said_before_any_address(self) -> None:
        with socket.socket() as taken:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            words = io.StringIO()
            with redirect_stderr(words):
                self.assertEqual(cli.main(["serve", "--port", str(taken.getsockname()[1]), "--database", str(self.file)]), 1)
            self.assertRegex(words.getvalue(), r"^Port \d+ is taken")


class Running(unittest.TestCase):
    """The real server in a process of its own."""

    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.file = Path(folder.name) / "fennup.db"
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        command = [sys.executable, "-m", "fennup.app.cli", "serve", "--port", str(self.port), "--database", str(self.file)]
        self.process = subprocess.Popen(
            command, cwd=ROOT, env={**os.environ, "PYTHONPATH": "src"}, stdout=subprocess.PIPE, text=True
        )
        assert self.process.stdout
        self.addCleanup(self.process.stdout.close)
        self.addCleanup(self.process.wait)
        self.addCleanup(self.process.kill)
        self.assertEqual(self.process.stdout.readline(), f"Fennup is at http://127.0.0.1:{self.port}\n")

    def get(self, path: str) -> int:
        # Sooner than a silent connection is let go.
        with urllib.request.urlopen(f"http://127.0.0.1:{self.port}{path}", timeout=cli.SILENT_SECONDS - 5) as answer:
            return int(answer.status)

    def test_silent_connections_keep_nobody_out_and_a_word_to_end_leaves_one_file(self) -> None:
        silent = [socket.create_connection(("127.0.0.1", self.port)) for _ in range(150)]
        self.assertEqual(self.get("/api/kinds"), 200)
        for connection in silent:
            connection.close()
        self.process.send_signal(signal.SIGTERM)
        self.assertEqual(self.process.wait(30), 0)
        self.assertEqual([file.name for file in self.file.parent.iterdir()], ["fennup.db"])


class AtTheDoor(Api):
    def test_a_foreign_origin_is_turned_away(self) -> None:
        for origin, status in (
            ("http://localhost", 201),
            ("http://evil.example", 403),
            ("null", 403),
            ("https://localhost", 403),
        ):
            answer = self.client.post("/api/projects", json={"spec": HEXAGON}, headers={"Origin": origin})
            self.assertEqual(answer.status_code, status, origin)

    def test_what_no_file_can_be_called_and_what_is_nested_too_deep(self) -> None:
        pages = Path(self.folder.name) / "pages"
        pages.mkdir()
        (pages / "index.html").write_text("here")
        client = create_app(Path(self.folder.name) / "other.db", pages).test_client()
        for name in ("x" * 256, "%F0%9F%98%80" * 80, "a/../../b"):
            answer = client.get(f"/{name}")
            self.assertEqual(answer.status_code, 200, name[:20])
            answer.close()
        for depth in (41, 990, 20_000):
            body = '{"spec":' + "[" * depth + "]" * depth + "}"
            answer = self.client.post("/api/solve", data=body, content_type="application/json")
            self.assertEqual(answer.status_code, 400, depth)

    def test_the_document_describes_every_refusal_as_it_comes(self) -> None:
        document = self.client.get("/openapi.json").json
        self.assertNotIn(None, document["components"].values())
        for path, operations in document["paths"].items():
            for method, operation in operations.items():
                refusals = {code: answer for code, answer in operation["responses"].items() if code >= "400"}
                self.assertTrue({"400", "403", "422", "507"} <= set(refusals), (path, method))
                self.assertEqual(method == "get", "415" not in refusals, (path, method))
                for answer in refusals.values():
                    self.assertEqual(list(answer["content"]), ["application/problem+json"])
        self.assertIn("requestBody", document["paths"]["/api/projects/{project_id}"]["delete"])
        answer = self.client.put("/api/starts", data="x")
        self.assertEqual((answer.status_code, answer.headers["Allow"]), (405, "GET, HEAD, OPTIONS"))
        self.new()
        self.assertRegex(self.client.get("/api/projects").json["projects"][0]["changed_at"], r"(Z|\+00:00)$")
