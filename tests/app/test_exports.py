"""Every file that goes out, read back by a library that did not write it and compared with the solids."""

import io
import json
import re
import tempfile
import unittest
from contextlib import redirect_stderr
from io import BytesIO, StringIO
from math import hypot
from pathlib import Path
from typing import Any
from unittest.mock import patch
from zipfile import ZipFile

import ezdxf
import icalendar
import openpyxl
import trimesh
from lxml import etree
from pypdf import PdfReader

from fennup.app.cli import main
from fennup.app.services.demo import PROJECTS
from fennup.app.services.exports import EXPORTS, Outgoing
from fennup.app.services.file_work import outgoing_of_file
from fennup.app.services.projects import valid_spec
from fennup.core.drawing.visible import visible_edges
from fennup.core.exchange.tables import Table, table_csv, tables_xlsx
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.polyhedron import Facet, Polyhedron
from fennup.core.geometry.vec import Vec, distance
from fennup.core.workshop import Workshop

SVG = "{http://www.w3.org/2000/svg}"
LENGTH_MM, VOLUME = 1e-3, 1e-6
RACK = {
    "boards": {"r1": {"name": "=Larch", "length_mm": 2400.0, "width_mm": 70.0, "thickness_mm": 22.0, "count": 4}},
    "numbered": 1,
}


def project(name: str, **more: Any) -> dict[str, Any]:
    """A demo project as its file."""
    entry = next(entry for entry in PROJECTS if entry["name"] == name)
    body = {key: entry[key] for key in ("name", "unit", "graduation") if key in entry}
    return {
        "format": "fennup.project",
        "version": 2,
        "project": {**body, "spec": valid_spec(entry["spec"]).model_dump(mode="json")},
        **more,
    }


def outgoing(name: str, **more: Any) -> Outgoing:
    return outgoing_of_file(project(name, **more), Workshop(), "a4", lambda share: None)


def face_edges(out: Outgoing) -> list[float]:
    """The lengths of all edges of the parts' faces, from the solids' own corners; of boards in one piece."""
    found = []
    for facts in out.solution.design.facts:
        if len(facts.solid.local) == 1:
            face = next(f for f in facts.solid.local[0].facets if f.name == "face")
            corners = facts.solid.local[0].corners(face)
            found += [distance(a, b) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True)]
    return found


def cuboid(corner: Vec, size: Vec) -> Polyhedron:
    """A box with its sides along the axes."""
    (x, y, z), (u, v, w) = corner, size
    points = tuple((x + u * i, y + v * j, z + w * k) for k in (0, 1) for j in (0, 1) for i in (0, 1))
    planes = (((-1, 0, 0), -x, (0, 4, 6, 2)), ((1, 0, 0), x + u, (1, 3, 7, 5)), ((0, -1, 0), -y, (0, 1, 5, 4)),
              ((0, 1, 0), y + v, (2, 6, 7, 3)), ((0, 0, -1), -z, (0, 2, 3, 1)), ((0, 0, 1), z + w, (4, 5, 7, 6)))  # fmt: skip
    return Polyhedron(points, tuple(Facet(str(n), Plane(n, d), loop) for n, d, loop in planes))


class Solids(unittest.TestCase):
    def test_every_demo_project_has_the_same_wood_in_every_format(self) -> None:
        for entry in PROJECTS:
            out = outgoing(entry["name"])
            design = out.solution.design
            expected = sorted(solid.volume() for solid in design.solids.values())
            corners = [p for solid in design.solids.values() for piece in solid.world for p in piece.points]
            low, high = ([pick(p[k] for p in corners) for k in range(3)] for pick in (min, max))
            for sort in ("stl", "glb", "3mf"):
                with self.subTest(project=entry["name"], sort=sort):
                    content = EXPORTS[sort].make(out)
                    self.assertEqual(content, EXPORTS[sort].make(outgoing(entry["name"])), "the same input, the same bytes")
                    scene = trimesh.load(BytesIO(content), file_type=sort, force="scene")
                    unit = 1000.0 if sort == "glb" else 1.0
                    parts = []
                    for node in scene.graph.nodes_geometry:
                        part = scene.geometry[scene.graph[node][1]].copy()
                        part.merge_vertices()
                        self.assertTrue(part.is_watertight, node)
                        parts.append(float(part.volume) * unit**3)
                    for found, volume in zip(sorted(parts), expected, strict=True):
                        self.assertAlmostEqual(found / volume, 1.0, delta=VOLUME)
                    bounds = scene.bounds * unit
                    # glTF has y up: what is deep here is -z there.
                    turned = ([low[0], low[2], -high[1]], [high[0], high[2], -low[1]]) if sort == "glb" else (low, high)
                    for got, want in zip(bounds, turned, strict=True):
                        for a, b in zip(got, want, strict=True):
                            self.assertAlmostEqual(a, b, delta=LENGTH_MM)

    def test_every_board_is_called_by_its_name(self) -> None:
        scene = trimesh.load(BytesIO(EXPORTS["glb"].make(outgoing("Boat trestle"))), file_type="glb")
        self.assertIn("AB (Legs AB, BC, CD and DA)", scene.graph.nodes)


class Drawings(unittest.TestCase):
    def test_dxf_is_clean_and_has_every_edge_of_every_face_at_true_size(self) -> None:
        for name in ("Boat trestle", "Bailer tub", "Honours board frame", "Slip gate braces", "Fuel store gable"):
            with self.subTest(project=name):
                out = outgoing(name)
                content = EXPORTS["dxf"].make(out)
                self.assertEqual(content, EXPORTS["dxf"].make(outgoing(name)), "the same input, the same bytes")
                document = ezdxf.read(StringIO(content.decode()))
                audit = document.audit()
                self.assertEqual((audit.errors, audit.fixes), ([], []))
                self.assertEqual(document.units, ezdxf.units.MM)
                self.assertLessEqual(
                    {"EDGES", "EXISTING", "HOLES", "DIMENSIONS", "TEXT"}, {layer.dxf.name for layer in document.layers}
                )
                drawn = [e.dxf.start.distance(e.dxf.end) for e in document.modelspace().query('LINE[layer=="EDGES"]')]
                for long in face_edges(out):
                    self.assertLess(min(abs(long - other) for other in drawn), LENGTH_MM)

    def test_svg_says_the_same_in_millimetres(self) -> None:
        out = outgoing("Boat trestle")
        root = etree.fromstring(EXPORTS["svg"].make(out))
        wide, high = (float(root.get(side).removesuffix("mm")) for side in ("width", "height"))
        self.assertEqual([float(v) for v in root.get("viewBox").split()], [0.0, 0.0, wide, high], "one user unit a millimetre")
        drawn = []
        for line in root.find(f'{SVG}g[@id="EDGES"]').iter(f"{SVG}polyline"):
            (x0, y0), (x1, y1) = ([float(v) for v in p.split(",")] for p in line.get("points").split())
            drawn.append(hypot(x1 - x0, y1 - y0))
            self.assertTrue(all(0 <= v <= wide for v in (x0, x1)) and all(0 <= v <= high for v in (y0, y1)), "within the sheet")
        for long in face_edges(out):
            self.assertLess(min(abs(long - other) for other in drawn), LENGTH_MM)
        self.assertFalse(
            [
                e.tag
                for e in root.iter()
                if e.tag not in {f"{SVG}{tag}" for tag in ("svg", "title", "g", "polyline", "polygon", "text")}
            ]
        )

    def test_pdf_is_to_the_scale_that_it_says(self) -> None:
        out = outgoing("Boat trestle")
        pages = PdfReader(BytesIO(EXPORTS["pdf"].make(out))).pages
        self.assertIn("Scale 1 : 5, 1 : 20", pages[0].extract_text())
        self.assertIn("rail B1: Rails B and D, 2 alike", pages[1].extract_text())
        points = re.findall(
            r"(-?[\d.]+) (-?[\d.]+) m (-?[\d.]+) (-?[\d.]+) l", pages[1].get_contents().get_data().decode("latin-1")
        )
        drawn = [hypot(float(c) - float(a), float(d) - float(b)) / 72 * 25.4 * 5 for a, b, c, d in points]
        rail = next(f for f in out.solution.design.facts if f.key == "m1/rail B1")
        self.assertLess(min(abs(rail.extent[0] - long) for long in drawn), 0.02)  # two decimals of a point, five times

    def test_what_lies_behind_is_not_drawn(self) -> None:
        # A cube of 100 stands before a wall of 300 by 40, whose middle third it hides; the wall's upper edge is 20 above the cube's.
        front, wall = (
            cuboid(corner, size)
            for corner, size in (((100.0, 0.0, 0.0), (100.0, 100.0, 100.0)), ((0.0, 200.0, 80.0), (300.0, 10.0, 40.0)))
        )
        seen = visible_edges({"front": [front], "wall": [wall]}, (1.0, 0.0, 0.0), (0.0, 0.0, 1.0))
        self.assertAlmostEqual(sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in seen["front"]), 400.0, places=4)
        # Top 300, both ends 40, the lower edge 100 on each side, and the notch where the cube hides it: along its top and both its sides.
        self.assertAlmostEqual(sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in seen["wall"]), 300 + 80 + 200 + 100 + 40, places=4)
        behind = visible_edges({"front": [front], "wall": [wall]}, (-1.0, 0.0, 0.0), (0.0, 0.0, 1.0))
        self.assertAlmostEqual(sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in behind["wall"]), 680.0, places=4)


class Tables(unittest.TestCase):
    def test_the_spreadsheet_says_what_the_lists_say(self) -> None:
        out = outgoing("Boat trestle", boards={"rack": RACK})
        content = EXPORTS["xlsx"].make(out)
        self.assertEqual(
            content, EXPORTS["xlsx"].make(outgoing("Boat trestle", boards={"rack": RACK})), "the same input, the same bytes"
        )
        book = openpyxl.load_workbook(BytesIO(content))
        self.assertEqual(book.sheetnames, ["Parts", "Boards", "To buy"])
        for sheet, table in ((book["Parts"], out.parts), (book["Boards"], out.pieces)):
            self.assertEqual(tuple(c.value for c in sheet[1]), table.headings)
            for cells, row in zip(sheet.iter_rows(min_row=2), table.rows, strict=True):
                for cell, value in zip(cells, row, strict=True):
                    same = self.assertAlmostEqual if isinstance(value, float) else self.assertEqual
                    same(cell.value, None if value == "" else value)
        self.assertEqual([c.data_type for c in book["Boards"]["A"][1:]], ["s"] * len(out.pieces.rows), "=Larch is a name")
        rails = [row for row in out.pieces.rows if "rail" in row[5]]
        lengths = {round(row[8] - row[7], 4) for row in rails}
        extents = {round(f.extent[0], 4) for f in out.solution.design.facts if "rail" in f.key}
        self.assertEqual((len(rails), lengths), (4, extents))

    def test_nothing_in_a_cell_is_run(self) -> None:
        table = Table("T", ("Name", "Figure"), [("=1+1", -2.5), ("-22.5; -45", 1.0), ("@x", 3.0)])
        self.assertEqual(table_csv(table).splitlines()[1:], ["'=1+1,-2.5000", "-22.5; -45,1.0000", "'@x,3.0000"])
        cells = openpyxl.load_workbook(BytesIO(tables_xlsx([table])))["T"]
        self.assertEqual([(c.value, c.data_type) for c in cells["A"][1:]], [("=1+1", "s"), ("-22.5; -45", "s"), ("@x", "s")])


class OnTheCommandLine(unittest.TestCase):
    def test_every_format_comes_out_of_a_file_alone(self) -> None:
        document = project(
            "Honours board frame", boards={"rack": RACK}, finish={"wishes": {"needed": "2099-05-01", "recipe": "none"}}
        )
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "in.json"
            file.write_text(json.dumps(document))
            for sort in EXPORTS:
                err = io.StringIO()
                with redirect_stderr(err):
                    self.assertEqual(main(["export", str(file), "--as", sort, "--to", f"{folder}/{sort}"]), 0, err.getvalue())
                self.assertEqual("planning the boards: 100%" in err.getvalue(), EXPORTS[sort].long, sort)
            made = {sort: (Path(folder) / sort).read_bytes() for sort in EXPORTS}
            self.assertEqual(main(["export", str(file), "--as", "pack", "--to", f"{folder}/again"]), 0)
            self.assertEqual((Path(folder) / "again").read_bytes(), made["pack"])
        text = "".join(page.extract_text() for page in PdfReader(BytesIO(made["pack"])).pages)
        for said in (
            "Honours board frame: the steps",
            "Honours board frame: parts",
            "measure it before you trust this sheet",
            "Seen from the front",
        ):
            self.assertIn(said, text)
        self.assertTrue(all(name.endswith((".svg", ".dxf")) for name in ZipFile(BytesIO(made["templates"])).namelist()))
        self.assertIn(
            "Needed: Honours board frame", [str(e["SUMMARY"]) for e in icalendar.Calendar.from_ical(made["ics"]).events]
        )

    def test_what_is_not_possible_is_said(self) -> None:
        err = io.StringIO()
        with redirect_stderr(err), patch("sys.stdin", io.StringIO('{"kind": "box"}')):
            self.assertEqual(main(["export", "-", "--as", "dxf"]), 1)
            self.assertEqual(main(["export", "--as", "dxf"]), 1)
        self.assertIn("plan", err.getvalue())
        self.assertIn("With --as, name a project's file", err.getvalue())
