"""A new kind touches its own folder and the catalogue: one is added to a copy of the sources, and everything serves it."""

import json
import os
import shutil
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from textwrap import dedent

ROOT = Path(__file__).resolve().parent.parent

PLANK = dedent('''
    """Planks that lie beside each other: as small as a kind can be."""

    from typing import Any, Literal

    from fennup.core.assembly.board import Board
    from fennup.core.assembly.model import Assembly, Gauge, Spot
    from fennup.core.drawing.view import Description
    from fennup.core.geometry.frame import Frame
    from fennup.core.geometry.plane import Plane
    from fennup.core.kinds.asking import figure
    from fennup.core.kinds.fields import Given, Pinned, Size_mm, pin
    from fennup.core.kinds.gauged import ABOVE, DOWN, rows, view
    from fennup.core.kinds.registry import Called, Words
    from fennup.core.kinds.rescaling import sized
    from fennup.core.kinds.sizing import Sizing
    from fennup.core.stock.section import Section


    class PlankSpec(Pinned):
        """How long, how many."""

        kind: Literal["plank"]
        length_mm: Size_mm
        count: int = 2

        @property
        def sides(self) -> int:
            return 4

        def usual_pins(self) -> tuple[Given, ...]:
            return (pin("plank_length", self.length_mm),)


    def assemble(spec: PlankSpec) -> Assembly:
        made = []
        for i in range(spec.count):
            frame = Frame((0.0, 100.0 * i, 0.0), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
            ends = [Plane((x, 0.0, 0.0), spec.length_mm / 2) for x in (-1.0, 1.0)]
            made.append(Board(f"plank {i + 1}", f"Plank {i + 1}", Section(90.0, 20.0), frame, (ends[0],), (ends[1],), role="plank"))
        gauge = Gauge("plank_length", Spot("plank 1", "left"), Spot("plank 1", "right"))
        return Assembly(tuple(made), (), (), spec.claims(), (), (), (gauge,))


    SIZING = Sizing(PlankSpec, lambda spec: ("length_mm",), assemble, assemble)


    def describe(spec: PlankSpec, ruler: Any, solids: Any) -> Description:
        given = spec.standings()
        shown = [("plank_length", DOWN, 1.0)]
        controls = (figure("plank_count", "outline", spec.count, "count", "count"),)
        drawn = view(ABOVE, ruler, solids, given, shown)
        return Description(("planks",), drawn.shapes, (drawn,), lambda: controls, rows(ruler, ["plank_length"], given))


    WORDS = Words(
        "The planks", "Planks", "plank", {"two_planks": ("Two planks", "My planks")}, {"planks": "planks side by side"},
        {"plank": Called("plank", "top", "underside", "left edge", "right edge")},
        {"plank_length": "length of a plank", "plank_count": "How many planks"}, {}, {},
    )
    PLANK = sized(
        "plank", "Planks", "Planks", SIZING, SIZING.edit, describe, {"two_planks": {"kind": "plank", "length_mm": 700.0}}, WORDS
    )
''')  # fmt: skip
ASK = dedent("""
    import json, sys, tempfile
    from pathlib import Path
    from fennup.app.factory import create_app

    with tempfile.TemporaryDirectory() as folder:
        client = create_app(Path(folder) / "x.db").test_client()
        families = {start["family"] for start in client.get("/api/starts").json["starts"]}
        project = client.post("/api/projects", json={"start": "two_planks"}).json
        url = f"/api/projects/{project['id']}"
        act = {"op": "give", "measure": "m1/plank_length", "text": "800"}
        given = client.post(f"{url}/acts", json={"version": 1, "acts": [act]}).json
        parts = client.get(f"{url}/parts").json["parts"]
        other = {"op": "choose", "path": "members", "value": "tub"}
        both = client.post(f"{url}/acts", json={"version": 2, "acts": [other]}).json
        print(json.dumps({
            "families": sorted(families), "name": project["name"], "facts": project["sheet"]["facts"], "part": parts[0]["name"],
            "size": given["sheet"]["sizes"][0]["label"], "undo": given["undo"], "long": parts[0]["ladder"][0]["figure"]["whole"],
            "control": project["sheet"]["controls"][0]["label"], "both": both["sheet"]["facts"], "edge": parts[0]["upper"],
        }))
""")


class ANewKind(unittest.TestCase):
    def test_it_is_served_everywhere_by_its_folder_and_one_line_in_the_catalogue(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            source = Path(folder) / "src"
            shutil.copytree(ROOT / "src", source, ignore=shutil.ignore_patterns("__pycache__"))
            kinds = source / "fennup/core/kinds"
            (kinds / "plank").mkdir()
            (kinds / "plank/__init__.py").write_text(PLANK)
            catalogue = kinds / "catalogue.py"
            text = catalogue.read_text().replace("ROOF, MOULDING)", "ROOF, MOULDING, PLANK)")
            catalogue.write_text(
                text.replace(
                    "from fennup.core.kinds.roof", "from fennup.core.kinds.plank import PLANK\nfrom fennup.core.kinds.roof"
                )
            )
            environment = {**os.environ, "PYTHONPATH": str(source), "PYTHONDONTWRITEBYTECODE": "1"}
            done = subprocess.run([sys.executable, "-c", ASK], capture_output=True, text=True, env=environment, cwd=folder)
            self.assertEqual(done.returncode, 0, done.stderr)
        told = json.loads(done.stdout)
        self.assertIn("Planks", told.pop("families"))
        self.assertEqual(
            told,
            {
                "name": "My planks", "facts": "Planks side by side", "part": "Planks 1 and 2", "size": "length of a plank",
                "undo": "length of a plank", "long": "800", "control": "How many planks", "both": "2 assemblies", "edge": "left edge",
            },
        )  # fmt: skip

    def test_no_kind_knows_another(self) -> None:
        kinds = ROOT / "src/fennup/core/kinds"
        folders = {folder.name for folder in kinds.iterdir() if (folder / "__init__.py").exists()}
        self.assertGreaterEqual(len(folders), 5)
        for name in folders:
            for file in (kinds / name).rglob("*.py"):
                others = [other for other in folders - {name} if f"core.kinds.{other}" in file.read_text()]
                self.assertEqual(others, [], file)
