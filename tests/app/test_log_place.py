"""The Log over HTTP: what is written, told and kept; photos; lessons at the saw and the bench; again."""

import json
import os
import re
import time
from base64 import b64encode
from datetime import date, datetime, timedelta
from io import BytesIO
from typing import Any
from unittest.mock import patch
from uuid import uuid4

from PIL import Image
from pypdf import PdfReader

from fennup.app.services.demo import PROJECTS, fill
from fennup.app.services.exports import EXPORTS
from fennup.app.services.portable import project_file
from tests.app.test_api import Api
from tests.core.frames import box, level, rectangle

FRAME = rectangle("outside", 640.0, 420.0, 60.0)
GPS = 0x8825


def uuid() -> str:
    return str(uuid4())


def photo(size: tuple[int, int] = (4000, 3000), kind: str = "JPEG", turned: int = 6) -> bytes:
    """A photo as a phone takes it: lying, to be turned upright, with the place where it was taken."""
    image = Image.new("RGB", size, (120, 80, 40))
    exif = Image.Exif()
    exif[0x0112], exif[0x010F] = turned, "Phone"
    exif.get_ifd(GPS)[1] = "N"
    exif.get_ifd(GPS)[2] = (54.0, 20.0, 1.0)
    out = BytesIO()
    image.save(out, kind, exif=exif)
    return out.getvalue()


class LogPlace(Api):
    def log(self, project: dict[str, Any]) -> Any:
        return self.read(project, "log")

    def post(self, project: dict[str, Any], what: str, status: int = 200, **body: Any) -> Any:
        answer = self.client.post(f"/api/projects/{project['id']}/log/{what}", json=body)
        self.assertEqual(answer.status_code, status, answer.text)
        return answer.json

    def write(self, project: dict[str, Any], type: str, status: int = 200, id: str = "", **body: Any) -> Any:
        return self.post(project, "records", status, id=id or uuid(), type=type, body=body)

    def lines(self, log: Any) -> list[str]:
        return [line["text"] for day in log["days"] for line in day["lines"]]


class Story(LogPlace):
    def test_what_is_done_at_the_bench_writes_itself_down(self) -> None:
        project = self.new(spec=FRAME)
        bench = self.read(project, "bench")
        task = next(t for t in bench["tasks"] if t["work"] == "second_end" and t["checks"] and t["piece"] == "m1/A")
        check = bench["checks"][task["checks"][0]]
        for minute, type, body in (
            (40, "cut", {"planned": {}}),
            (
                41,
                "measured",
                {
                    "what": check["what"],
                    "planned": check["expected"],
                    "measured": check["expected"] - 2,
                    "unit": "mm",
                    "verdict": "wrong",
                },
            ),
        ):
            said = {
                "id": uuid(),
                "key": task["key"],
                "type": type,
                "device_time": f"2026-11-03T18:{minute}:00+01:00",
                "body": body,
            }
            self.assertEqual(self.client.post(f"/api/projects/{project['id']}/records", json=said).status_code, 200)
        log = self.log(project)
        self.assertEqual(log["days"][0]["label"], "Tue 3 Nov 2026")
        self.assertEqual(
            self.lines(log),
            [said := "Second ends, Rails A and C (front and back): 1 piece", f"Measured 1 piece: {said.partition(':')[0]}"],
        )
        (made,) = log["made"]
        self.assertEqual((made["off"], made["tone"]), ("−2.00 mm", "wrong"))
        self.assertEqual([slip["name"] for slip in log["slips"]], ["Cut too short"])

    def test_notes_the_clock_and_hours_and_taking_back(self) -> None:
        project = self.new(spec=FRAME)
        self.write(project, "note", text="The jetty's larch is dry.")
        log = self.write(project, "clock", do="start", step="cut")
        self.assertTrue(log["clock"]["running"])
        log = self.write(project, "clock", do="stop")
        self.assertFalse(log["clock"]["running"])
        self.assertIn("clock does not run", self.write(project, "clock", 422, do="stop")["detail"])
        log = self.post(project, "hours", id=uuid(), text="1:30", step="glue", day=(date.today() - timedelta(days=3)).isoformat())
        self.assertIn(
            {"text": "Gluing", "figure": "1 h 30 min"},
            [{"text": r["text"], "figure": r["figure"]} for r in log["clock"]["planned"]],
        )
        started = next(s for s in log["clock"]["stretches"] if s["text"].startswith("Cutting"))
        log = self.post(project, "hours", id=uuid(), text="45 min", of=started["id"], step="cut")
        self.assertIn("45 min", [s["figure"] for s in log["clock"]["stretches"]])
        self.assertEqual(log["undo"], "what was written last")
        back = self.post(project, "undo", version=log["version"])
        self.assertNotIn("45 min", [s["figure"] for s in back["clock"]["stretches"]], "a correction is taken back")
        note = next(line for day in back["days"] for line in day["lines"] if line["text"].startswith("The jetty"))
        self.assertNotIn("The jetty's larch is dry.", self.lines(self.write(project, "undone", takes_back=note["record"])))

    def test_far_from_utc_the_last_thing_is_still_the_last_and_the_time_is_the_bench_s(self) -> None:
        with patch.dict(os.environ, {"TZ": "Pacific/Auckland"}):
            time.tzset()
            self.addCleanup(time.tzset)
            project = self.new(spec=FRAME)
            self.write(project, "note", text="The jetty's larch is dry.")
            log = self.post(
                project, "acts", version=1, acts=[{"op": "type", "path": "sale_money", "text": "85"}]
            )  # after the note, though its local time is half a day ahead of UTC
            self.assertNotEqual(log["undo"], "what was written last")
            log = self.write(project, "note", text="Mind the knots.")
            self.assertEqual(log["undo"], "what was written last")
            reading = self.read(project, "fit")["readings"][0]["key"]
            fit = {"id": uuid(), "lines": [{"key": reading, "value": "760"}]}
            self.assertEqual(self.client.post(f"/api/projects/{project['id']}/fit/list", json=fit).status_code, 200)
            times = [datetime.fromisoformat(r["device_time"]) for r in self.read(project, "records")["records"]]
        self.assertEqual([t.utcoffset() in (timedelta(hours=12), timedelta(hours=13)) for t in times], [True] * 3)

    def test_bad_input_is_answered_and_nothing_is_written(self) -> None:
        project = self.new(spec=FRAME)
        for body, said in (({"text": "soon"}, "no length of time"), ({"text": "300 h"}, "More than 200 hours"), ({"text": "1", "day": "2999-01-01"}, "no day"),
                           ({"text": "1", "day": (date.today() + timedelta(days=2)).isoformat()}, "still to come"), ({"text": "1", "of": "x"}, "not in this log")):  # fmt: skip
            with self.subTest(body=body):
                self.assertIn(said, self.post(project, "hours", 422, id=uuid(), **body)["detail"])
        self.assertEqual(self.write(project, "note", 422, text="")["errors"][0]["path"], "body.text")
        self.write(project, "reminded", 422, lesson=uuid())
        self.write(project, "undone", 422, takes_back=uuid())
        cut = {"id": uuid(), "key": "m1/A left:0", "type": "cut", "device_time": "2026-11-03T18:40:00+01:00", "body": {}}
        self.client.post(f"/api/projects/{project['id']}/records", json=cut)
        self.assertIn("written in another place", self.write(project, "undone", 422, takes_back=cut["id"])["detail"])
        self.client.post(
            f"/api/projects/{project['id']}/records",
            json={**cut, "id": uuid(), "type": "undone", "body": {"takes_back": cut["id"]}},
        )
        self.assertEqual(self.log(project)["days"], [])
        id = uuid()
        first = self.write(project, "note", id=id, text="Once.")
        self.assertEqual(
            self.lines(self.write(project, "note", id=id, text="Once.")), self.lines(first), "sent twice, written once"
        )


class Photos(LogPlace):
    def test_a_photo_is_scaled_turned_upright_and_says_no_place(self) -> None:
        project = self.new(spec=FRAME)
        sent = photo()
        self.assertIn(b"Phone", sent)
        log = self.post(project, "photos", id=uuid(), name="IMG_1.JPG", content=b64encode(sent).decode(), text="The first corner")
        line = log["days"][0]["lines"][0]
        kept = self.client.get(f"/api/projects/{project['id']}/log/photos/{line['photo']}")
        self.assertEqual((kept.status_code, kept.mimetype), (200, "image/jpeg"))
        image = Image.open(BytesIO(kept.data))
        self.assertEqual(image.size, (1200, 1600), "turned, and no longer than 1600")
        self.assertEqual((dict(image.getexif()), b"Phone" in kept.data, b"Exif" in kept.data), ({}, False, False))
        other = self.new(spec=FRAME)
        self.assertEqual(self.client.get(f"/api/projects/{other['id']}/log/photos/{line['photo']}").status_code, 404)

    def test_what_is_no_photo_is_refused(self) -> None:
        project = self.new(spec=FRAME)
        bomb = BytesIO()
        Image.new("1", (20_000, 20_000)).save(bomb, "PNG")  # 400 million points in 50 kB
        for content, said in (
            (b"<svg/>", "no photo"),
            (b"\xff\xd8\xff" + b"x" * 99, "no photo"),
            (photo()[:2000], "no photo"),
            (bomb.getvalue(), "80 million"),
        ):
            with self.subTest(said=said, size=len(content)):
                refused = self.post(project, "photos", 422, id=uuid(), name="a.jpg", content=b64encode(content).decode())
                self.assertIn(said, refused["detail"])
        self.assertIn("no photo", self.post(project, "photos", 422, id=uuid(), name="a.jpg", content="not base64!")["detail"])
        self.assertEqual(self.log(project)["days"], [])

    def test_a_project_goes_out_and_comes_in_with_its_photo_and_its_log(self) -> None:
        project = self.new(spec=FRAME)
        self.post(
            project, "photos", id=uuid(), name="a.png", content=b64encode(photo((300, 200), "PNG", 1)).decode(), text="Dry fit"
        )
        self.write(project, "clock", do="start", step="fit")
        started = self.log(project)["clock"]["running"]
        self.write(project, "clock", do="stop")
        self.post(project, "hours", id=uuid(), text="2", of=started, step="fit")
        version = self.log(project)["version"]
        self.post(project, "acts", version=version, acts=[{"op": "type", "path": "sale_money", "text": "80"}])
        with self.app.config["STORE"].reading() as session:
            document = project_file(session, project["id"])
        for there in (True, False):  # beside the one it was made in, and after that one is away
            answer = self.client.post("/api/import", json=json.loads(json.dumps(document)))
            self.assertEqual(answer.status_code, 200, answer.text)
            other = {"id": answer.json["projects"][0]}
            log, was = self.log(other), self.log(project)
            self.assertEqual([d["lines"][0]["text"] for d in log["days"]], [d["lines"][0]["text"] for d in was["days"]])
            self.assertEqual(
                [s["figure"] for s in log["clock"]["stretches"]], ["2 h"], "the correction follows the stretch that it is of"
            )
            self.assertEqual(log["cost"]["controls"], was["cost"]["controls"])
            file = log["days"][0]["lines"][0]["photo"]
            self.assertEqual(self.client.get(f"/api/projects/{other['id']}/log/photos/{file}").status_code, 200, there)
            with self.app.config["STORE"].reading() as session:
                again = project_file(session, other["id"])
            same = ("project", "boards", "saw", "fit", "finish", "log")
            self.assertEqual({k: again[k] for k in same}, {k: document[k] for k in same})
            self.assertEqual(
                [(r["type"], r["key"], r["device_time"]) for r in again["records"]],
                [(r["type"], r["key"], r["device_time"]) for r in document["records"]],
            )
            self.assertEqual(again["files"][0]["content"], document["files"][0]["content"])


class Lessons(LogPlace):
    def test_a_lesson_is_told_at_the_saw_the_bench_and_the_finish_of_another_project_until_it_is_read(self) -> None:
        learned, other = self.new(spec=FRAME), self.new(spec=FRAME)
        options = dict(self.log(learned)["about"])
        self.write(learned, "note", text="Clean the fence first.", about=options["First ends, on the bench miter saw"])
        self.write(learned, "note", text="Clamps ready first.", about=options["Glue"])
        steps = [s["key"] for s in self.read(other, "steps")["steps"]]
        told = {key: self.read(other, f"steps/one?key={key}")["reminder"] for key in steps}
        self.assertEqual(
            [r["text"] for r in told.values() if r], ["Clean the fence first."], "once, though two steps are like it"
        )
        bench = self.read(other, "bench")["reminders"]
        self.assertEqual(list(bench.values()), [r for r in told.values() if r])
        days = self.read(other, "finish")["days"]["tasks"]
        self.assertEqual([t["id"] for t in days if t["reminder"]], ["glue"])
        self.assertEqual(self.read(learned, "bench")["reminders"], {}, "not where it was learned")
        (lesson,) = bench.values()
        self.write(other, "reminded", lesson=lesson["lesson"])
        self.assertEqual(self.read(other, "bench")["reminders"], {})
        self.assertEqual([x["mine"] for x in self.log(other)["lessons"]], [False, False])
        self.client.delete(f"/api/projects/{learned['id']}", json={})
        self.assertEqual(self.log(other)["lessons"], [], "not of a project that was deleted")


class CostAndAgain(LogPlace):
    def wish(self, project: dict[str, Any], **money: str) -> Any:
        acts = [{"op": "type", "path": path, "text": text} for path, text in money.items()]
        return self.post(project, "acts", version=self.log(project)["version"], acts=acts)

    def test_the_price_for_an_hour_and_the_hour_for_a_price(self) -> None:
        project = self.new(spec=FRAME)
        self.client.post(
            "/api/bring-in", json={"name": "r.csv", "content": "length_mm,width_mm,thickness_mm\n2400,60,20", "mapping": None}
        )
        tables = self.client.get("/api/tables").json["version"]
        prices = [{"op": "type", "path": "wood_money", "text": "1000"}, {"op": "type", "path": "prices/white glue", "text": "10"}]
        self.assertEqual(self.client.post("/api/tables/acts", json={"version": tables, "acts": prices}).status_code, 200)
        self.post(project, "hours", id=uuid(), text="4")
        log = self.wish(project, other_money="5", sale_money="85", rate_money="20")
        rows = {row["title"]: row for row in log["cost"]["rows"]}
        # The board of 2400 x 60 x 20 mm is 0.00288 m3, so 2.88 at 1000 a cubic metre; what is kept of it is said.
        kept = next(b for b in self.read(project, "boards/plan")["boards"])["offcuts"]
        share = 1 - sum((o["to_mm"] - o["from_mm"]) * o["width_mm"] for o in kept if o["kept"]) / (2400 * 60)
        self.assertEqual(rows["Boards"]["figure"], f"{2.88 * share:.2f}", "no currency where the list says none")
        materials = float(rows["Materials, all"]["figure"].split()[0])
        self.assertAlmostEqual(float(rows["Price at 20.00 an hour"]["figure"].split()[0]), materials + 80, places=2)
        self.assertAlmostEqual(float(rows["Sold for 85.00, an hour earns"]["figure"].split()[0]), (85 - materials) / 4, places=2)
        sheet = PdfReader(BytesIO(self.client.get(f"/api/projects/{project['id']}/files/sheet").data)).pages[0].extract_text()
        self.assertIn("Over all: 640 mm wide, 420 mm high, 20 mm thick", sheet)
        self.assertNotIn("85.00", sheet, "the price only where it is wished")
        self.post(
            project, "acts", version=self.log(project)["version"], acts=[{"op": "choose", "path": "say_price", "value": True}]
        )
        sheet = PdfReader(BytesIO(self.client.get(f"/api/projects/{project['id']}/files/sheet").data)).pages[0].extract_text()
        self.assertIn("Price: 85.00", sheet)
        self.assertEqual(self.post(project, "acts", 422, version=self.log(project)["version"], acts=[{"op": "type", "path": "sale_money", "text": "-3"}])["errors"][0]["path"], "sale_money")  # fmt: skip

    def test_ten_orders_share_one_plan_and_each_setting(self) -> None:
        project = self.new(spec=box(level(300.0, 300.0), 100.0, slope_deg=10.0, thickness_mm=20.0))
        self.write(project, "note", text="Only here.")
        version = self.read(project, "finish")["version"]
        act = {"op": "choose", "path": "needed", "value": (date.today() + timedelta(days=90)).isoformat()}
        self.client.post(f"/api/projects/{project['id']}/finish/acts", json={"version": version, "acts": [act]})
        pin = {"op": "choose", "path": "locked.r1", "value": ["m1/A"]}
        self.client.post(f"/api/projects/{project['id']}/boards/acts", json={"version": 1, "acts": [pin]})
        answer = self.client.post(
            f"/api/projects/{project['id']}/again", json={"name": "Seed box", "wood": "oak", "away": ["t1"], "orders": 10}
        )
        self.assertEqual(answer.status_code, 200, answer.text)
        made = answer.json["projects"]
        names = [self.client.get(f"/api/projects/{id}").json["name"] for id in made]
        self.assertEqual(names, [f"Seed box, {k} of 10" for k in range(1, 11)])
        again = self.client.get(f"/api/projects/{made[0]}/again").json
        self.assertEqual(sum(order["chosen"] for order in again["orders"]), 9)
        self.assertEqual(again["wood"], "oak")
        file = self.client.get(f"/api/projects/{made[0]}/file").json
        self.assertEqual(
            (file["finish"]["wishes"].get("needed"), file["boards"]["wishes"]["locked"]),
            (None, {}),
            "what was so for the one there is",
        )
        settings = int(self.client.get(f"/api/projects/{made[3]}/again").json["headline"].split()[0])  # of one alone
        self.assertEqual(
            again["headline"],
            f"{settings} setting{'s' if settings > 1 else ''} for 10 projects; {10 * settings} if each were made by itself",
        )
        self.assertEqual(self.log({"id": made[3]})["days"], [], "what happened to the first one did not happen to these")
        keys = {
            p["key"].rpartition(":")[0]
            for b in self.client.get(f"/api/projects/{made[0]}/boards/plan").json["boards"]
            for p in b["pieces"]
        }
        unplaced = {p["key"].rpartition(":")[0] for p in self.client.get(f"/api/projects/{made[0]}/boards/plan").json["unplaced"]}
        self.assertEqual(len(keys | unplaced), 10, "the pieces of all ten are in one plan")
        for wrong, path in (
            ({"orders": 13}, "orders"),
            ({"wood": "cheese"}, "wood"),
            ({"away": ["t9"]}, "away"),
            ({"name": "  "}, "name"),
        ):
            refused = self.client.post(f"/api/projects/{project['id']}/again", json={"name": "X", **wrong})
            self.assertEqual((refused.status_code, refused.json["errors"][0]["path"]), (422, path))

    def test_every_file_comes_over_http_as_from_the_command_line(self) -> None:
        project = self.new(spec=FRAME)
        for sort, export in EXPORTS.items():
            answer = self.client.get(f"/api/projects/{project['id']}/files/{sort}")
            with self.subTest(sort=sort):
                self.assertEqual((answer.status_code, answer.content_type), (200, export.media_type), answer.data[:200])
                self.assertTrue(answer.headers["Content-Disposition"].endswith(f'{export.suffix}"'))
                if sort != "ics":
                    self.assertGreater(len(answer.data), 80)
        self.assertEqual(self.client.get(f"/api/projects/{project['id']}/files/exe").status_code, 404)


class Demo(LogPlace):
    def test_every_demo_project_has_a_log_in_words(self) -> None:
        with self.app.config["STORE"].writing() as session:
            fill(session)
        ids = {p["name"]: p["id"] for p in self.client.get("/api/projects").json["projects"]}
        for name in (entry["name"] for entry in PROJECTS):
            with self.subTest(name=name):
                log = self.log({"id": ids[name]})
                said = [*self.lines(log), *(line["what"] for line in log["made"]), *(name for name, _ in log["about"])]
                said += [x["back_at"] for x in log["lessons"]] + [s["text"] for s in log["clock"]["stretches"]]
                self.assertEqual([text for text in said if re.search(r"m\d/|_|\{|None|nan$", text)], [])
        worst = self.log({"id": ids["Oar hatch arch"]})
        self.assertEqual([s["guess"] for s in worst["clock"]["stretches"] if s["forgotten"]], ["1 h 10 min"])
        finished = self.log({"id": ids["Key case"]})
        self.assertEqual((finished["foot"], finished["due"][0]["figure"]), ("6 days, 4 h 35 min", "October 2031"))
