"""What cannot be built: every refusal says in words what is wrong, at its field, and the last good shape stays."""

import re
from typing import Any

from tests.app.test_api import HEXAGON, Api


def typed(path: str, text: str) -> dict[str, Any]:
    return {"op": "type", "path": path, "text": text}


def given(measure: str, text: str) -> dict[str, Any]:
    return {"op": "give", "measure": measure, "text": text}


def chosen(path: str, value: Any) -> dict[str, Any]:
    return {"op": "choose", "path": path, "value": value}


# A start, what is done to it, the field at which it is refused, and the words that say why.
REFUSED: list[tuple[str, list[dict[str, Any]], str, str]] = [
    ("stool", [given("front_splay", "-25")], "", "stand in one another"),
    ("stool", [typed("rails.0.height_mm", "420")], "rails.0.height_mm", "above"),
    ("tower", [typed("rings.1.height_mm", "880")], "rings.1.height_mm", "does not reach the legs"),
    ("trestle", [chosen("top", {"thickness_mm": 20, "over_mm": 10})], "top", "would stand on points"),
    ("gable", [given("left_pitch", "0")], "pins.", "more than 0°"),
    ("gable", [given("left_pitch", "90")], "pins.", "less than 90°"),
    ("hip", [given("eaves_width", "150"), given("rise", "1500")], "shape.hip_depth_mm", "hip"),
    ("hip", [typed("shape.spacing_mm", "2")], "shape.spacing_mm", "stand in one another"),
    ("hip", [typed("thickness_mm", "5"), typed("shape.spacing_mm", "6")], "shape.spacing_mm", "further apart"),
    ("knee_brace", [typed("width_mm", "400")], "width_mm", "nothing is left of its short edge"),
    ("crossing", [given("start", "5000")], "place.crossing", "cross"),
    ("ladder", [typed("place.treads.count", "30"), typed("place.treads.thickness_mm", "200")], "place.treads", "tread"),
    ("box_ladder", [typed("place.treads.box_mm", "330")], "place.treads.box_mm", "do not go in"),
    (
        "bin_on_stand",
        [chosen("follow:m1/height", "m3/height"), chosen("follow:m3/height", "m1/height")],
        "links.",
        "circle",
    ),
    ("bin_on_stand", [typed("members.m1.spec.leg.width_mm", "900")], "members.m1.spec", "stand in one another"),
    ("bin_on_stand", [typed("members.m1.spec.leg.width_mm", "0")], "members.m1.spec.leg.width_mm", "0.01 mm or more"),
    ("bin_on_stand", [typed("links.2.plus_mm", "-5000")], "members.m3.spec", "Hood: eaves, across flats −4573.51 mm"),
    ("lean_to", [given("front_height", "0")], "pins.", "Nothing has"),
    ("prop", [{"op": "free", "measure": "stand_off"}, given("upper_edge", "500")], "pins.", "Nothing has"),
    ("stool", [{"op": "rescale", "measure": "height", "text": "0"}], "height", "more than nothing"),
    ("hexagon", [typed("shape.sides", "--5")], "shape.sides", "whole number"),
    ("hexagon", [typed("rails.A", "60")], "rails.A", "no such field"),
    ("hexagon", [{"op": "nudge", "path": "joint", "steps": 1}], "joint", "no figure here"),
    ("hexagon", [{"op": "nudge", "path": "inner", "steps": 1}], "inner", "no figure here"),
    ("hexagon", [chosen("project.graduation", [1])], "project.graduation", "no such field"),
    ("hexagon", [typed("board.thickness_mm", "60 m")], "board.thickness_mm", "at most 2000 mm"),
    ("hexagon", [typed("shape.size.mm", "60 m")], "shape.size.mm", "at most 50000 mm"),
    ("crossing", [given("start", "30"), given("second_rise", "700")], "place.crossing.rise_mm", "lie along each other"),
    ("gable", [typed("shape.pairs", "20"), typed("shape.spacing_mm", "40 m")], "shape.spacing_mm", "no roof here is longer"),
    (
        "rectangle",
        [
            chosen(
                "inner", {"thickness_mm": 10, "bars": [{"count": 21, "width_mm": 1}, {"count": 20, "width_mm": 1, "way_deg": 90}]}
            )
        ],
        "inner.bars.1.count",
        "cross 420 times",
    ),
    *(
        (start, [{"op": "drag", "grip": grip, "x_mm": 10.0, "y_mm": 10.0}], grip, "no such ring")
        for start in ("rectangle", "hexagon", "irregular", "tapered_box", "stool", "bin_on_stand")
        for grip in (
            "corner:x",
            "corner:99",
            "size:flat",
            "size:flat:Q",
            "width:Z",
            "width:",
            "across:Q",
            "along",
            "pin:",
            "piece:front:p9:a",
            "",
        )
    ),
    ("posts_and_rail", [typed("pieces.p2.a.along_mm", "5000")], "pieces.p2.a.along_mm", "past the end"),
]


class WhatCannotBe(Api):
    def test_it_is_said_in_words_at_its_field_and_the_last_good_shape_stays(self) -> None:
        for start, acts, field, words in REFUSED:
            with self.subTest(start=start, acts=acts):
                project = self.new(start=start)
                before = self.read(project, "file")
                answer = self.act(project, *acts)
                self.assertEqual(answer.status_code, 422, answer.text[:300])
                problem = answer.json["errors"][0]
                own = problem["path"].removeprefix("members.m1.spec.").removeprefix("m1/")
                self.assertTrue(own.startswith(field) or problem["path"].startswith(field), problem)
                self.assertIn(words, answer.json["detail"])
                # A sentence, and neither a code nor a Python name in it.
                self.assertRegex(answer.json["detail"], r"^[A-Z0-9“].*[.?]$")
                self.assertNotRegex(answer.json["detail"], r"[a-z]_[a-z]")
                self.assertTrue(problem["path"] or not field, "a refusal names its field")
                after = self.client.get(f"/api/projects/{project['id']}").json
                self.assertEqual((after["version"], self.read(after, "file")), (project["version"], before))

    def test_a_limit_that_is_told_is_taken_when_it_is_typed(self) -> None:
        told = 0
        for unit in ("mm", "in"):
            for start, before, act in (
                ("stool", [], given("top_width", "50 mm")), ("stool", [given("front_splay", "7")], given("top_width", "50 mm")),("stool", [], typed("rails.0.height_mm", "700 mm")),
                ("tower", [], typed("rings.1.height_mm", "1500 mm")), ("hexagon", [], typed("rabbet.width_mm", "90 mm")),
            ):  # fmt: skip
                project = self.new(start=start, unit=unit)
                refused = self.act(project, *before, act)
                found = re.search(
                    r"(?:At most|just touch at|thinner than|narrower than|less than|(?<!hair )under) ([^.]*(?:\.\d+)?(?: mm|″))",
                    refused.text,
                )
                if refused.status_code != 422 or not found:
                    continue
                told += 1
                again = self.act(
                    project, *before, {**act, "text": found[1].replace("a hair over ", "").replace("a hair under ", "")}
                )
                with self.subTest(start=start, unit=unit, told=found[1]):
                    self.assertEqual(again.status_code, 200, again.json.get("detail"))
        self.assertGreaterEqual(told, 6)

    def test_arrow_keys_begin_at_what_is_seen_where_nothing_was_said(self) -> None:
        project = self.new(start="stool")
        answer = self.act(project, {"op": "nudge", "path": "rails.0.set_in_mm", "steps": 1})
        # In the middle of the legs, 45 thick, a rail of 20 lies 12.5 behind the side's plane: the next mark is 13.
        self.assertEqual((answer.status_code, self.spec(project)["rails"][0]["set_in_mm"]), (200, 13.0))

    def test_a_size_that_could_not_be_given_again_is_refused_where_it_is_said(self) -> None:
        place = {"form": "between", "clear_mm": 10.0, "rise_mm": -60_000.0}
        spec = {"kind": "brace", "pins": [], "place": place, "width_mm": 65.0, "thickness_mm": 53.0, "member_mm": 72.0}
        answer = self.client.post("/api/projects", json={"spec": spec})
        self.assertEqual((answer.status_code, answer.json["errors"][0]["path"]), (422, "place.rise_mm"))

    def test_as_many_holes_as_a_row_may_have_are_drilled(self) -> None:
        row = {"board": "A", "count": 60, "diameter_mm": 2.0, "up_mm": 20.0}
        spec = {**HEXAGON, "holes": [row]}
        self.assertIn("Holes", str(self.read(self.new(spec=spec), "parts")["parts"][0]["ladder"]))

    def test_what_would_tie_the_application_up_is_refused_before_anything_is_saved(self) -> None:
        hip = {"form": "hip", "width_mm": 4000.0, "depth_mm": 4000.0, "rise_mm": 1500.0, "hip_thickness_mm": 38.0}
        roof = {
            "kind": "roof",
            "shape": hip | {"hip_depth_mm": 130.0, "spacing_mm": 150.0},
            "depth_mm": 90.0,
            "thickness_mm": 38.0,
        }
        members = [{"name": f"Roof {i}", "spec": roof} for i in range(8)]
        answer = self.client.post("/api/projects", json={"spec": {"kind": "together", "members": members}})
        self.assertEqual((answer.status_code, answer.json["errors"][0]["path"]), (422, "members"))
        self.assertIn("800 boards", answer.json["detail"])
        self.assertEqual(self.client.get("/api/projects").json["projects"], [])
