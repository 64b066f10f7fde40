from tests.app.test_api import Api
from tests.core.test_stand import four


class Variants(Api):
    def test_a_variant_differs_from_its_original_in_what_was_changed_and_in_what_follows(self) -> None:
        original = self.new(spec=four(8, 8, rails=[{"height_mm": 100.0, "width_mm": 60.0, "thickness_mm": 20.0}]))
        variant = self.client.post(f"/api/projects/{original['id']}/variant", json={}).json
        cards = {card["id"]: card for card in self.client.get("/api/projects").json["projects"]}
        self.assertEqual(cards[variant["id"]]["variant_of"], original["id"])
        self.assertEqual(variant["name"], f"{original['name']}, variant")
        alike = self.client.get(f"/api/projects/{variant['id']}/compare/{original['id']}").json
        self.assertEqual(alike["differences"], [])
        self.assertEqual(self.act(variant, {"op": "give", "measure": "height", "text": "600"}).status_code, 200)
        told = self.client.get(f"/api/projects/{variant['id']}/compare/{original['id']}").json
        rows = {(row["group"], row["label"]): (row["a"], row["b"]) for row in told["differences"]}
        self.assertEqual(rows["Sizes", "Height"], ("600 mm", "450 mm"))
        # 300 + 2 x 600 tan 8 against 300 + 2 x 450 tan 8
        self.assertEqual(rows["Sizes", "Feet, width"], ("468.65 mm", "426.49 mm"))
        self.assertNotIn(("Sizes", "Splay seen from the front"), rows)
        self.assertEqual({group for group, _ in rows} - {"Sizes", "Wood", "Parts", "Saw"}, set())
        self.assertIn("ghost", {shape["role"] for shape in told["views"][0]["over"]["shapes"]})

    def test_what_the_last_change_did_is_listed_against_what_was_before(self) -> None:
        project = self.new(spec=four(8, 8))
        self.assertEqual(self.act(project, {"op": "give", "measure": "top_width", "text": "350"}).status_code, 200)
        told = self.client.get(f"/api/projects/{project['id']}/compare/before").json
        rows = {row["label"]: (row["a"], row["b"]) for row in told["differences"]}
        self.assertEqual(rows["Legs at the top, width"], ("300 mm", "350 mm"))
        self.assertNotIn("Height", rows)
        self.assertEqual([side["name"] for side in told["sides"]], ["Before", project["name"]])

    def test_a_second_variant_has_a_name_of_its_own_and_a_project_that_is_gone_is_said(self) -> None:
        original = self.new(spec=four(8, 8))
        names = [self.client.post(f"/api/projects/{original['id']}/variant", json={}).json["name"] for _ in range(2)]
        self.assertEqual(len({original["name"], *names}), 3)
        self.assertEqual(self.client.get(f"/api/projects/{original['id']}/compare/nothing").status_code, 404)


class Together(Api):
    def test_a_single_assembly_becomes_one_of_two_or_takes_pieces_between_its_faces(self) -> None:
        project = self.new(spec=four(8, 8, rails=[{"height_mm": 100.0, "width_mm": 60.0, "thickness_mm": 20.0}]))
        two = self.act(project, {"op": "choose", "path": "members", "value": "tapered_box"}).json
        members = self.read(two, "file")["project"]["spec"]["members"]
        self.assertEqual([(id, m["name"]) for id, m in members.items()], [("m1", "Stand"), ("m2", "Leaning box")])
        self.assertEqual(two["undo"], "another assembly")
        # It is as wide as what it stands on, follows that, says so, and can be let go.
        linked = [c for c in two["sheet"]["controls"] if c["style"] == "sentence"]
        self.assertEqual(linked[0]["label"], "Outside bottom, width: as Stand is, legs at the top, width")
        freed = self.act(two, *linked[0]["options"][0]["acts"]).json
        self.assertEqual(len([c for c in freed["sheet"]["controls"] if c["style"] == "sentence"]), 1)
        alone = self.new(spec=four(8, 8, rails=[{"height_mm": 100.0, "width_mm": 60.0, "thickness_mm": 20.0}]))
        url = f"/api/projects/{alone['id']}/faces"
        first = next(f for f in self.client.get(url).json["views"]["front"] if f["label"] == "Leg AB (front right), inner edge")
        found = self.client.get(url, query_string={"board": first["board"], "side": first["side"]}).json["views"]["front"]
        second = next(f for f in found if f["label"] == "Leg DA (front left), inner edge")
        touched = [
            {"board": f["board"], "side": f["side"], "view": "front", "x_mm": f["at"][0], "y_mm": f["at"][1]}
            for f in (first, second)
        ]
        fitted = self.act(alone, {"op": "fit", "a": touched[0], "b": touched[1]}).json
        self.assertEqual(fitted["undo"], "fitting a piece")
        nowhere = {**touched[1], "board": "m1/top"}
        self.assertEqual(self.act(fitted, {"op": "fit", "a": touched[0], "b": nowhere}).json["errors"][0]["code"], "no_such_face")
        why = {part["id"]: " ".join(part["ladder"][0]["why"]) for part in self.read(fitted, "parts")["parts"]}
        self.assertIn("Given: the two faces", why["p2"])
        self.assertIn("Given: height 450 mm. Measured on the finished parts: 450 mm.", why["m1/AB"])
        self.assertNotEqual(fitted["sheet"]["closing"]["tone"], "fails")
