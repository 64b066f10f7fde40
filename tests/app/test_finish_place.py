"""The Finish place over HTTP and on the command line: what is said, refused and kept; the calendar and the weather read by others."""

import io
import json
import subprocess
import sys
import threading
from datetime import date, timedelta
from pathlib import Path
from typing import Any
from unittest import mock

from icalendar import Calendar

from fennup.app.services.demo import PROJECTS
from fennup.app.wording.finish import both_forms
from fennup.weather.days import DAYS, forecast
from fennup.weather.server import open_weather
from tests.app.test_api import Api
from tests.app.test_bench_place import uuid
from tests.core.frames import box, level, rectangle
from tests.core.test_fasten import STAND

ROOT = Path(__file__).resolve().parent.parent.parent
FRAME = rectangle("outside", 640.0, 420.0, 60.0)
SOON = date.today() + timedelta(days=40)


class FinishPlace(Api):
    def finish(self, project: dict[str, Any]) -> Any:
        return self.read(project, "finish")

    def post(self, project: dict[str, Any], what: str, status: int = 200, **body: Any) -> Any:
        answer = self.client.post(f"/api/projects/{project['id']}/finish/{what}", json=body)
        self.assertEqual(answer.status_code, status, answer.text)
        return answer.json

    def wish(self, project: dict[str, Any], *acts: tuple[str, Any], status: int = 200) -> Any:
        """Each a path with a typed text, or with a value to choose."""
        made = [
            {"op": "type", "path": path, "text": value[1:]} if isinstance(value, str) and value.startswith("=") else {"op": "choose", "path": path, "value": value}
            for path, value in acts
        ]  # fmt: skip
        return self.post(project, "acts", status, version=self.finish(project)["version"], acts=made)

    def tables(self, *acts: tuple[str, Any], status: int = 200) -> Any:
        version = self.client.get("/api/tables").json["version"]
        made = [{"op": "type", "path": path, "text": text} for path, text in acts]
        answer = self.client.post("/api/tables/acts", json={"version": version, "acts": made})
        self.assertEqual(answer.status_code, status, answer.text)
        return answer.json

    def joint(self, finish: Any, name: str) -> Any:
        return next(j for j in finish["fasten"]["joints"] if j["name"].startswith(name))

    def row(self, rows: list[Any], title: str) -> Any:
        return next(r for r in rows if r["title"].startswith(title))


class Fastening(FinishPlace):
    def test_a_joint_in_words_with_where_its_figures_come_from(self) -> None:
        project = self.new(spec=STAND)
        joint = self.joint(self.finish(project), "Rail 1 and post A")
        self.assertEqual((joint["said"], joint["tone"]), ("2 screws 3.5 × 45 mm", "right"))
        longest = self.row(joint["rows"], "Longest")
        self.assertEqual(longest["figure"], "61 mm")
        self.assertIn("19 mm through rail 1", longest["lines"][0])
        self.assertIn("3 mm of wood stay over the tip", longest["lines"][2])
        self.assertTrue(all(row["lines"] for row in joint["rows"]))

    def test_a_length_that_comes_out_is_said_and_kept(self) -> None:
        project = self.new(spec=STAND)
        key = self.finish(project)["fasten"]["joints"][0]["key"]
        finish = self.wish(project, (f"joints/{key}/length_mm", "=66"))
        joint = finish["fasten"]["joints"][0]
        self.assertEqual(joint["doubts"][0]["text"], "It comes out by 2 mm. At most 61 mm long.")
        self.assertEqual((finish["foot"], finish["undo"]), ("1 kind of joint is not held yet", "how a joint is held"))
        back = self.post(project, "undo", version=finish["version"])
        self.assertEqual(back["fasten"]["joints"][0]["doubts"], [])
        again = self.post(project, "redo", version=back["version"])
        self.assertEqual(again["fasten"]["joints"][0]["tone"], "wrong")

    def test_cut_open_pattern_and_template(self) -> None:
        project = self.new(spec=STAND)
        (joint,) = [j for j in self.finish(project)["fasten"]["joints"]]
        where = f"/api/projects/{project['id']}/finish/"
        cut = self.client.get(f"{where}joint", query_string={"key": joint["key"]}).json
        self.assertEqual(cut["title"], "The joint cut open")
        length = next(d for d in cut["dimensions"] if d["label"] == "length")
        self.assertEqual((length["standing"], length["acts"]["path"]), ("suggested", f"joints/{joint['key']}/length_mm"))
        pattern = self.client.get(f"{where}joint", query_string={"key": joint["key"], "pattern": "true"}).json
        self.assertGreater(len(pattern["shapes"]), 3)
        pdf = self.client.get(f"{where}pattern.pdf", query_string={"key": joint["key"]})
        self.assertTrue(pdf.data.startswith(b"%PDF"))
        self.assertEqual(self.client.get(f"{where}joint", query_string={"key": "m1/no"}).status_code, 404)
        self.assertEqual(self.client.get(f"{where}pattern.pdf", query_string={"key": "m1/no"}).status_code, 404)

    def test_exposure_chooses_metal_and_glue(self) -> None:
        project = self.new(spec=FRAME)
        inside = self.finish(project)["fasten"]["advice"]
        out = self.wish(project, ("exposure", "outdoors"))["fasten"]["advice"]
        self.assertIn("Plain or zinc-plated", inside[0])
        self.assertIn("stainless or hot-dip", out[0])
        self.assertIn("stands water", out[-1])
        single = self.wish(project, ("exposures/m1/A", "soil"))["fasten"]["advice"]
        self.assertIn("Against soil", single[1])

    def test_what_to_buy_goes_to_the_buy_list(self) -> None:
        project = self.new(spec=STAND)
        buys = {line["text"]: line["figure"] for line in self.finish(project)["buys"]}
        # Two in each of two joints, a tenth spare: five.
        self.assertEqual(buys["Screw 3.5 × 45 mm"], "5")
        text = self.client.get(f"/api/projects/{project['id']}/boards/buy.csv").text
        self.assertIn(",Screw 3.5 × 45 mm,5,", text)
        self.assertIn("Indoor paint", text)


class Coats(FinishPlace):
    def test_painted_by_touch_and_the_order_that_cannot_be(self) -> None:
        project = self.new(spec=FRAME)
        where = f"/api/projects/{project['id']}/finish/faces?side=front"
        faces = {f"{f['board']} {f['side']}": f for f in self.client.get(where).json["faces"]}
        self.assertEqual(faces["m1/A face"]["label"], "Rail A (front), face: coated")
        whole = self.row(self.finish(project)["coats"]["rows"], "To be coated")["figure"]
        finish = self.wish(project, ("faces/m1/A face", "bare"))
        self.assertLess(self.row(finish["coats"]["rows"], "To be coated")["figure"], whole)
        self.assertEqual(
            {f["use"] for f in self.client.get(where).json["faces"] if f["board"] == "m1/A" and f["side"] == "face"}, {"bare"}
        )
        refused = self.wish(project, ("coat_when", "before"), status=422)
        self.assertEqual(refused["errors"][0]["path"], "coat_when")
        self.assertIn("glue does not hold on paint", refused["errors"][0]["text"])
        self.assertEqual(self.finish(project)["days"]["refused"], "")
        # Glued again after it was screwed: the order that was chosen then is refused with the joint's name.
        keys = [j["key"] for j in self.finish(project)["fasten"]["joints"]]
        self.wish(project, *[(f"joints/{key}/how", "bracket") for key in keys])
        self.wish(project, ("coat_when", "before"))
        stuck = self.wish(project, *[(f"joints/{key}/how", "glue") for key in keys])
        self.assertIn("the joint of rails A and B could not be glued", stuck["days"]["refused"])

    def test_cautions_stand_at_their_steps(self) -> None:
        project = self.new(spec=FRAME)
        oily = self.wish(project, ("recipe", "linseed oil"))
        self.assertTrue(any("set themselves on fire" in text for text in oily["coats"]["care"]))
        self.assertTrue(any("lead" in text for text in oily["coats"]["care"]))
        self.assertTrue(any("codes" in text for text in oily["holds"]["care"]))
        self.assertTrue(any("cables" in text for text in oily["site"]["care"]))
        # Into a post that is there already: it may have cables on it.
        bracket = self.new(spec=next(e["spec"] for e in PROJECTS if e["name"] == "Sign bracket"))
        self.assertTrue(all(any("cables" in text for text in j["care"]) for j in self.finish(bracket)["fasten"]["joints"]))
        self.assertFalse(any("cables" in text for j in oily["fasten"]["joints"] for text in j["care"]))
        key = oily["fasten"]["joints"][0]["key"]
        nailed = self.wish(project, (f"joints/{key}/how", "nail"))
        self.assertTrue(any("nailer" in text for text in nailed["fasten"]["joints"][0]["care"]))


class ByTheDay(FinishPlace):
    def planned(self) -> dict[str, Any]:
        project = self.new(spec=FRAME)
        self.wish(project, ("needed", SOON.isoformat()))
        return project

    def test_steps_are_ticked_off_and_taken_back(self) -> None:
        project = self.planned()
        days = self.post(project, "did", id=uuid(1), task="cut")["days"]
        cut = next(t for t in days["tasks"] if t["id"] == "cut")
        self.assertTrue(cut["done"].startswith("done on"))
        self.assertEqual(self.finish(project)["undo"], "a step that was done")
        # Sent twice it is there once.
        self.post(project, "did", id=uuid(1), task="cut")
        back = self.post(project, "undo", version=self.finish(project)["version"])
        self.assertEqual(next(t for t in back["days"]["tasks"] if t["id"] == "cut")["record"], "")
        self.assertEqual(back["undo"], "the day it is needed")
        self.assertEqual(self.post(project, "did", 422, id=uuid(2), task="fly")["errors"][0]["path"], "task")
        done = self.post(project, "did", id=uuid(3), task="fit")["days"]
        record = next(t for t in done["tasks"] if t["id"] == "fit")["record"]
        self.post(project, "back", id=uuid(4), record=record)
        self.assertEqual([t["record"] for t in self.finish(project)["days"]["tasks"] if t["id"] == "fit"], [""])

    def test_a_day_that_is_crossed_out_is_free_of_work(self) -> None:
        project = self.planned()
        strip = self.finish(project)["days"]["strip"]
        busy = next(day for day in strip if any(s["kind"] == "work" for s in day["spans"]))
        days = self.post(project, "acts", version=self.finish(project)["version"], acts=busy["cross"])["days"]
        same = [day for day in days["strip"] if day["day"] == busy["day"]]
        self.assertTrue(all(day["away"] and not any(s["kind"] == "work" for s in day["spans"]) for day in same))
        self.assertLess(days["strip"][0]["day"], busy["day"])
        (again,) = same
        free = self.post(project, "acts", version=self.finish(project)["version"], acts=again["cross"])["days"]
        self.assertFalse(any(day["away"] for day in free["strip"]))

    def test_the_calendar_is_read_by_another(self) -> None:
        project = self.planned()
        answer = self.client.get(f"/api/projects/{project['id']}/finish/dates.ics")
        self.assertEqual(answer.content_type, "text/calendar; charset=utf-8")
        self.assertTrue(all(len(line) <= 75 for line in answer.data.split(b"\r\n")))
        events = Calendar.from_ical(answer.data).walk("VEVENT")
        plan = json.loads(self.client.get(f"/api/projects/{project['id']}/finish/document").text)
        spans = sorted(span[0] for task in plan["tasks"] for span in task["spans"])
        starts = sorted(event.start.isoformat() for event in events)
        self.assertEqual(starts, sorted([*spans, plan["needed"]]))
        self.assertEqual(len({str(event["UID"]) for event in events}), len(events))
        self.assertIn("Coat 1: ", " ".join(str(event["SUMMARY"]) for event in events))
        again = self.client.get(f"/api/projects/{project['id']}/finish/dates.ics")
        self.assertEqual(again.data, answer.data)

    def test_a_name_with_signs_and_a_long_one_comes_through_whole(self) -> None:
        name = "Bottenviken; låda, för tågvirke \\ number one of many that we still make"
        project = self.new(spec=FRAME, name=name)
        self.wish(project, ("needed", SOON.isoformat()))
        data = self.client.get(f"/api/projects/{project['id']}/finish/dates.ics").data
        self.assertTrue(all(len(line) <= 75 for line in data.split(b"\r\n")))
        summaries = {str(event["SUMMARY"]) for event in Calendar.from_ical(data).walk("VEVENT")}
        self.assertIn(f"Needed: {name}", summaries)
        self.assertIn(b"SUMMARY:Needed: Bottenviken\\; l", data)

    def test_what_cannot_be_is_answered_at_its_field_and_nothing_is_lost(self) -> None:
        project = self.planned()
        version = self.finish(project)["version"]
        for path, value, field, said in (
            ("needed", "2020-01-01", "needed", "That day is over"), ("needed", "9999-12-31", "needed", "less than 2200"), ("hours/coat 1", "=-1", "hours.coat 1", "0 or more"), ("hours/coat 1", "=soon", "hours/coat 1", "is no number"),
            ("needed_h", "=25", "needed_h", "at most 24"), ("recipe", "tar", "recipe", "none called tar"), ("joints/m1/AB/lean_deg", "=80", "joints.m1/AB.lean_deg", "at most 75"),
            ("nothing", "=1", "nothing", "no such field"), ("site/readings/m1/A|m1/B", "=0", "site.readings.m1/A|m1/B", "more than 0"), ("joints/m1/AB/how", "nailgun", "joints.m1/AB.how", "not one of"),
        ):  # fmt: skip
            with self.subTest(path, value=value):
                (problem,) = self.wish(project, (path, value), status=422)["errors"]
                self.assertEqual(problem["path"], field)
                self.assertIn(said, problem["text"])
        self.assertEqual(self.finish(project)["version"], version)
        self.assertEqual(
            self.post(project, "acts", 409, version=99, acts=[{"op": "choose", "path": "coats", "value": 2}])["status"], 409
        )

    def test_the_workshops_hours_and_recipes_count_in_every_project(self) -> None:
        project = self.planned()
        before = self.finish(project)["days"]["tasks"]
        tables = self.tables(("recipes/indoor paint/between_h", "30"), ("hours/6", "9-12"))
        self.assertEqual(tables["undo"], "a way to coat")
        after = self.finish(project)["days"]
        self.assertEqual(next(t for t in after["tasks"] if t["id"] == "coat 1")["waits"], "then 30 h of waiting")
        self.assertNotEqual(
            next(t for t in after["tasks"] if t["id"] == "coat 1")["when"], next(t for t in before if t["id"] == "coat 1")["when"]
        )
        self.assertEqual(after["week"][6][1], "9-12")
        (problem,) = self.tables(("hours/6", "late"), status=422)["errors"]
        self.assertIn("are no hours", problem["text"])
        undone = self.client.post("/api/tables/undo", json={"version": tables["version"]}).json
        self.assertEqual(undone["redo"], "a way to coat")
        (paint,) = [
            row
            for table in undone["tables"]
            if table["id"] == "recipes"
            for row in table["rows"]
            if row["name"] == "indoor paint"
        ]
        self.assertEqual(paint["source"], "usual, editable")


class Weather(FinishPlace):
    def test_the_service_is_asked_and_may_fail(self) -> None:
        server = open_weather(0, steady=True)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        project = self.new(spec=FRAME)
        self.wish(project, ("coat_where", "outdoors"))

        def ask(where: str, status: int = 200) -> Any:
            self.app.config["WEATHER"] = where
            return self.post(project, "weather", status, version=self.finish(project)["version"])

        here = f"http://127.0.0.1:{server.server_port}"
        days = ask(here)["days"]
        self.assertIn("Reedham landing stage", days["weather"])
        self.assertTrue(any("°C" in day["weather"] for day in days["strip"]))
        self.assertEqual(self.finish(project)["undo"], "asking for the weather")
        for where, said in ((f"{here}/no", "gives no forecast"), ("http://127.0.0.1:9", "does not answer")):
            self.assertIn(said, ask(where, 422)["errors"][0]["text"])
        with mock.patch("fennup.app.services.forecasts.ask", return_value=forecast(date.today() - timedelta(days=DAYS))):
            self.assertIn("days that are over", ask(here, 422)["errors"][0]["text"])
        with mock.patch("fennup.app.services.forecasts.ask", return_value={"place": "x", "days": "none"}):
            self.assertIn("cannot be read", ask(here, 422)["errors"][0]["text"])
        # The last answer stands all the while.
        self.assertIn("Reedham landing stage", self.finish(project)["days"]["weather"])

    def test_every_day_is_foretold_the_same_whoever_asks(self) -> None:
        one, later = forecast(date(2027, 1, 1)), forecast(date(2027, 1, 5))
        self.assertEqual(one["days"][4:], later["days"][: DAYS - 4])
        self.assertTrue(all(d["low_c"] < d["high_c"] and 0 <= d["humid_percent"] <= 100 for d in one["days"]))


class Standing(FinishPlace):
    def test_what_it_holds_and_where_one_could_be_caught(self) -> None:
        project = self.new(
            spec=box(level(400.0, 300.0), 200.0, thickness_mm=20.0, floor={"height_mm": 0.0, "thickness_mm": 10.0})
        )
        finish = self.wish(project, ("holds/filling", "water"), ("holds/level_mm", "=110"))
        rows = [row for group in finish["holds"]["groups"] for row in group["rows"]]
        self.assertEqual(self.row(rows, "It holds")["figure"], f"{360 * 260 * 100 / 1e6:.2f} l")
        nothing = self.wish(project, ("holds/level_mm", "=5"))
        self.assertTrue(any("holds nothing" in group["note"] for group in nothing["holds"]["groups"]))
        child = self.wish(project, ("exposure", "child"), ("holds/level_mm", None))
        self.assertTrue(
            any(
                "no gap" in group["note"].lower() or group["rows"]
                for group in child["holds"]["groups"]
                if "child" in group["title"]
            )
        )

    def test_feet_are_read_and_told_where_to_go(self) -> None:
        project = self.new(spec=next(e["spec"] for e in PROJECTS if e["name"] == "Boat trestle"))
        site = self.finish(project)["site"]
        names = [d["name"] for d in site["view"]["dimensions"] if d["acts"]]
        self.assertEqual((len(names), names[0]), (6, "leg DA to leg AB reads"))
        finish = self.wish(project, ("site/readings/m1/DA|m1/BC", "=894"), ("site/readings/m1/AB|m1/CD", "=890"))
        rows = finish["site"]["groups"][0]["rows"]
        self.assertEqual(rows[0]["title"], "Out of square by")
        self.assertIn("leg DA to leg BC is the longer one", rows[0]["note"])
        self.assertTrue(rows[1]["title"].startswith("Move "))
        self.assertIn("″", self.row(rows, "Side")["lines"][0])
        impossible = self.wish(project, ("site/readings/m1/DA|m1/BC", "=4 m"))
        self.assertTrue(any("No four sides" in group["note"] for group in impossible["site"]["groups"]))

    def test_hung_on_a_wall(self) -> None:
        project = self.new(spec=FRAME)
        finish = self.wish(project, ("site/top_mm", "=1800"), ("site/hooks_in_mm", "=100"))
        (wall,) = [g for g in finish["site"]["groups"] if g["title"] == "On a wall"]
        self.assertEqual((wall["rows"][0]["figure"], wall["rows"][0]["note"][:6]), ("1770 mm", "220 mm"))
        view = finish["site"]["view"]
        sizes = {d["id"]: (d["figure"]["whole"], d["acts"]["path"], d["standing"]) for d in view["dimensions"]}
        self.assertEqual(
            sizes,
            {
                "top": ("1800", "site/top_mm", "given"),
                "in": ("100", "site/hooks_in_mm", "given"),
                "drop": ("30", "site/drop_mm", "given"),
            },
        )
        wood = [y for shape in view["shapes"] if shape["role"] == "wood" for _, y in shape["points"]]
        self.assertEqual((round(max(wood), 6), round(min(wood), 6)), (1800.0, 1800.0 - 420.0))
        crossed = self.wish(project, ("site/hooks_in_mm", "=400"))
        self.assertIsNone(crossed["site"]["view"])
        self.assertTrue(any("pass each other" in g["note"] for g in crossed["site"]["groups"]))


class Why(FinishPlace):
    def test_every_figure_of_every_project_opens_to_where_it_comes_from(self) -> None:
        rows = 0
        for project in PROJECTS:
            made = self.new(name=project["name"], spec=project["spec"])
            finish = self.wish(
                made, ("holds/load_kg", "=20"), ("site/top_mm", "=1500"), ("exposure", "child"), ("holds/glass_mm", "=2")
            )
            groups = [finish["coats"]["rows"], *(j["rows"] for j in finish["fasten"]["joints"])]
            groups += [g["rows"] for part in ("holds", "site") for g in finish[part]["groups"]]
            for row in (row for group in groups for row in group):
                self.assertTrue(row["lines"] and all(row["lines"]), (project["name"], row))
                self.assertNotIn("None", str(row))
                rows += 1
        self.assertGreater(rows, 500)

    def test_both_forms_of_feet_and_inches(self) -> None:
        self.assertEqual(both_forms(1564.0013), "5′ 1 9/16″ = 61 9/16″")
        self.assertEqual(both_forms(304.8), "1′ 0″ = 12″")
        self.assertEqual(both_forms(-12.7), "−(0′ 1/2″ = 1/2″)")


class Kept(FinishPlace):
    def test_the_choices_travel_and_the_command_line_says_the_same(self) -> None:
        project = self.new(spec=STAND)
        self.wish(
            project,
            ("recipe", "boat varnish"),
            ("needed", SOON.isoformat()),
            ("faces/m1/A face", "soil"),
            ("holds/load_kg", "=12.5"),
        )
        self.tables(("speed/cut_min", "9"))
        said = json.loads(self.client.get(f"/api/projects/{project['id']}/finish/document").text)
        file = self.client.get(f"/api/projects/{project['id']}/file").json
        run = subprocess.run([sys.executable, "-m", "fennup.app.cli", "finish", "-"], input=json.dumps(file), capture_output=True, text=True,
                             cwd=ROOT, env={"PYTHONPATH": str(ROOT / "src"), "PATH": ""})  # fmt: skip
        self.assertEqual(run.returncode, 0, run.stderr)
        self.assertEqual(json.loads(run.stdout), said)
        self.assertEqual(
            (
                said["coats"]["recipe"],
                said["coats"]["coats"],
                round(said["standing"]["loaded_kg"] - said["standing"]["own_kg"], 6),
            ),
            ("boat varnish", 5, 12.5),
        )
        (id,) = self.client.post("/api/import", json=file).json["projects"]
        again = json.loads(self.client.get(f"/api/projects/{id}/finish/document").text)
        self.assertEqual(again, said)

    def test_a_bare_spec_and_a_file_that_is_wrong(self) -> None:
        from fennup.app.cli import main

        with mock.patch("sys.stdin", io.StringIO(json.dumps(FRAME))), mock.patch("sys.stdout", io.StringIO()) as out:
            self.assertEqual(main(["finish", "-"]), 0)
        self.assertEqual([f["how"] for f in json.loads(out.getvalue())["fastened"]], ["biscuit"])
        project = self.new(spec=FRAME)
        file = self.client.get(f"/api/projects/{project['id']}/file").json
        file["finish"]["wishes"]["coats"] = 0
        with mock.patch("sys.stdin", io.StringIO(json.dumps(file))), mock.patch("sys.stderr", io.StringIO()) as told:
            self.assertEqual(main(["finish", "-"]), 1)
        self.assertIn("finish.wishes.coats", told.getvalue())

    def test_a_variant_begins_as_its_like(self) -> None:
        project = self.new(spec=FRAME)
        self.wish(project, ("recipe", "hard wax oil"))
        copy = self.client.post(f"/api/projects/{project['id']}/duplicate", json={}).json
        self.assertEqual(
            json.loads(self.client.get(f"/api/projects/{copy['id']}/finish/document").text)["coats"]["recipe"], "hard wax oil"
        )
