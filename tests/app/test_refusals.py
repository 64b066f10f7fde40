"""What cannot be built: every refusal says in words what is wrong, at its field, and the last good shape stays."""

from typing import Any

from tests.app.test_api import Api


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
        [chosen("follow:Stand/height", "Hood/height"), chosen("follow:Hood/height", "Stand/height")],
        "links.",
        "circle",
    ),
    ("bin_on_stand", [typed("members.0.spec.leg.width_mm", "900")], "members.0.spec", "stand in one another"),
    ("bin_on_stand", [typed("members.0.spec.leg.width_mm", "0")], "members.0.spec.leg.width_mm", "more than 0"),
    ("bin_on_stand", [typed("links.2.plus_mm", "-5000")], "members.2.spec", "Hood: eaves, across flats −4574 mm"),
    ("lean_to", [given("front_height", "0")], "pins.", "Nothing has"),
    ("prop", [{"op": "free", "measure": "stand_off"}, given("upper_edge", "500")], "pins.", "Nothing has"),
    ("stool", [{"op": "rescale", "measure": "height", "text": "0"}], "height", "more than nothing"),
    ("posts_and_rail", [typed("pieces.0.a.along_mm", "5000")], "pieces.0.a.along_mm", "past the end"),
]


class WhatCannotBe(Api):
    def test_it_is_said_in_words_at_its_field_and_the_last_good_shape_stays(self) -> None:
        for start, acts, field, words in REFUSED:
            with self.subTest(start=start, acts=acts):
                project = self.new(start=start)
                answer = self.act(project, *acts)
                self.assertEqual(answer.status_code, 422, answer.text[:300])
                problem = answer.json["errors"][0]
                self.assertTrue(problem["path"].startswith(field), problem)
                self.assertIn(words, answer.json["detail"])
                # A sentence, and neither a code nor a Python name in it.
                self.assertRegex(answer.json["detail"], r"^[A-Z0-9“].*[.?]$")
                self.assertNotRegex(answer.json["detail"], r"[a-z]_[a-z]")
                after = self.client.get(f"/api/projects/{project['id']}").json
                self.assertEqual((after["version"], after["spec"]), (project["version"], project["spec"]))
