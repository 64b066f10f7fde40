"""Known examples, by the figures that their makers published: typed in over HTTP, read off the sheet that a person sees."""

from typing import Any

from tests.app.test_api import Api

Sheet = dict[str, Any]


def stand(front: float, side: float, **more: Any) -> dict[str, Any]:
    plan = {"form": "four", "top_width_mm": 300.0, "top_depth_mm": 300.0, "front_splay_deg": front, "side_splay_deg": side}
    return {"kind": "stand", "plan": plan, "height_mm": 450.0, "leg": {"width_mm": 45.0, "thickness_mm": 45.0}, **more}


def roof(thickness: float, depth: float, pins: list[dict[str, Any]] | None = None, **shape: Any) -> dict[str, Any]:
    return {"kind": "roof", "shape": shape, "thickness_mm": thickness, "depth_mm": depth, "pins": pins}


class PublishedFigures(Api):
    def sheet(self, spec: dict[str, Any]) -> Sheet:
        self.project = self.new(spec=spec)
        self.assertIn(self.project["sheet"]["closing"]["tone"], ("closes", "opens"))
        self.assertTrue(self.read(self.project, "solution")["proof"]["holds"])
        return self.project["sheet"]

    def size(self, name: str) -> float:
        row = next(row for row in self.project["sheet"]["sizes"] if row["id"] == f"m1/{name}")
        return float(row["figure"]["typed"])

    def part(self, name: str) -> Sheet:
        return next(part for part in self.read(self.project, "parts")["parts"] if f"m1/{name}" in part["boards"])

    def cut(self, name: str, end: str) -> tuple[float, float]:
        """An end's miter and bevel, without signs, as the solution's document gives them."""
        part = next(part for part in self.read(self.project, "solution")["parts"] if f"m1/{name}" in part["boards"])
        return abs(part["ends"][end][0]["miter_deg"]), abs(part["ends"][end][0]["bevel_deg"])

    def rung(self, name: str, id: str) -> Sheet:
        return next(rung for rung in self.part(name)["ladder"] if rung["id"] == id)

    def come_to(self, *pairs: tuple[float, float]) -> None:
        """To the published digits; what lies within a tenth of a graduation of a mark is shown as that mark."""
        for got, published in pairs:
            self.assertAlmostEqual(got, published, delta=0.1 if got == round(got) else 6e-5)

    def test_a_stand_splayed_8_and_8(self) -> None:
        self.sheet(stand(8.0, 8.0))
        foot = self.cut("AB", "left")
        overall = float(self.rung("AB", "overall")["figure"]["typed"])
        self.come_to((self.size("true_lean"), 11.2413), (self.size("leg_length"), 458.8022), (overall, 471.4503))
        self.come_to((foot[0], 7.9231), (foot[1], 8.0), (self.size("residual_angle"), 1.1098))

    def test_a_ring_on_legs_splayed_4_and_9(self) -> None:
        ring = {"height_mm": 150.0, "tall_mm": 88.9, "thickness_mm": 19.05}
        self.sheet(stand(4.0, 9.0, rings=[ring]))
        # A ring's piece on the front lies in a plane that leans as the side elevation shows, and meets neighbours splayed 4.
        miters = sorted(self.cut(name, "left")[0] for name in ("ring A1", "ring B1"))
        self.come_to((miters[0], 3.9509), (miters[1], 8.9784))
        self.come_to(*((self.cut(name, end)[1], 44.6874) for name in ("ring A1", "ring B1") for end in ("left", "right")))

    def test_a_rafter_of_7_in_12(self) -> None:
        ridge = {"thickness_mm": 38.1, "depth_mm": 184.0}
        left = {"run_mm": 2133.6, "pitch_deg": 30.0}
        self.sheet(roof(38.1, 140.0, form="gable", left=left, ridge=ridge, heel_mm=38.1, overhang_mm=304.8))
        self.project = self.act(self.project, {"op": "give", "measure": "left_pitch", "text": "7 in 12"}).json
        overall = float(self.rung("left1", "overall")["figure"]["typed"])
        self.come_to((self.size("left_pitch"), 30.2564), (self.size("left_top_edge"), 2800.8904), (overall, 2882.5570))
        self.come_to((self.size("left_ridge_to_heel"), 2448.0223))
        notch = next(rung for rung in self.part("left1")["ladder"] if "65.31 mm" in rung["label"] + rung["note"])
        self.assertIn("seat", notch["note"])  # 65.3143

    def test_a_pyramid_of_six_panels_at_45(self) -> None:
        self.sheet(roof(12.7, 90.0, form="pyramid", sides=6, across_mm=762.0, height_mm=300.0))
        acts = ({"op": "free", "measure": "height"}, {"op": "give", "measure": "pitch", "text": "45"})
        self.project = self.act(self.project, *acts).json
        miter, bevel = self.cut("A", "left")
        self.come_to((miter, 22.2077), (bevel, 20.7048), (self.size("seam"), 581.9871), (self.size("slant"), 538.8154))
        self.come_to((self.size("dihedral_angle"), 138.5904))

    def test_a_hip_of_unequal_pitches(self) -> None:
        pins = [{"measure": "eaves_depth", "mm": 4000.0}]
        pins += [{"measure": f"{name}_pitch", "deg": pitch} for name, pitch in (("front", 30.0), ("side", 45.0))]
        sizes = {"width_mm": 3000.0, "depth_mm": 3000.0, "rise_mm": 1000.0}
        self.sheet(roof(45.0, 120.0, pins, form="hip", hip_thickness_mm=45.0, hip_depth_mm=200.0, spacing_mm=350.0, **sizes))
        self.come_to((self.size("hip_length"), 2581.9889), (self.size("hip_pitch"), 26.5651))
        self.come_to((self.size("jack_in_theory"), 700.0), (self.size("jack_length:A"), 648.0385))
        backing = sorted(self.size(f"backing_{side}_angle") for side in ("left", "right"))
        self.come_to(
            *zip(backing, (14.4775, 37.7612), strict=True), *zip(self.cut("jack A1r", "right"), (30.0, 60.0), strict=True)
        )

    def test_a_knee_brace_in_a_corner_of_100(self) -> None:
        place = {"form": "knee", "corner_deg": 100.0, "post_leg_mm": 520.0, "beam_leg_mm": 380.0}
        self.sheet({"kind": "brace", "place": place, "by": "lower", "width_mm": 75.0, "thickness_mm": 40.0, "member_mm": 90.0})
        self.come_to((self.cut("brace", "left")[0], 57.4366), (self.cut("brace", "right")[0], 42.5634))
        self.come_to((self.size("lower_edge"), 695.2883), (self.size("upper_edge"), 508.9712))

    def test_braces_that_cross(self) -> None:
        crossing = {"start_mm": 700.0, "rise_mm": -570.0, "width_mm": 88.9}
        place = {"form": "between", "clear_mm": 640.0, "rise_mm": 820.0, "crossing": crossing}
        self.sheet({"kind": "brace", "place": place, "by": "centre", "width_mm": 60.0, "thickness_mm": 27.0, "member_mm": 90.0})
        self.come_to((self.size("crosses_at"), 523.8378), (self.size("second_crosses_at"), 431.5977))
        for name, wide in (("brace", "89 mm"), ("second", "60.13 mm")):  # 89.0874 and 60.1265
            note = self.rung(name, "lap0")["note"]
            self.assertIn(f"{wide} wide along the board, 13.5 mm deep", note)
            self.assertIn("shoulders 3.72° from square", note)
        # 60 tan 3.7175 = 3.90; the first brace rises at atan(820 / 640) = 52.03, the second is 86.28 from it.
        self.assertIn("on the upper edge 3.9 mm", self.rung("brace", "lap0")["note"])
