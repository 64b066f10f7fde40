import io
import json
import tempfile
import unittest
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path
from typing import Any

from fennup.app.cli import main
from fennup.app.factory import create_app
from tests.core.frames import regular


class CommandLine(unittest.TestCase):
    def run_with(self, spec: Any, *arguments: str) -> tuple[int, str, str]:
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "spec.json"
            file.write_text(spec if isinstance(spec, str) else json.dumps(spec))
            out, err = io.StringIO(), io.StringIO()
            with redirect_stdout(out), redirect_stderr(err):
                code = main(["solve", str(file), *arguments])
        return code, out.getvalue(), err.getvalue()

    def test_it_prints_what_the_web_answers(self) -> None:
        spec = regular(7, 50.8, "outside_corners", mm=533.4)
        code, out, _ = self.run_with(spec)
        with tempfile.TemporaryDirectory() as folder:
            web = create_app(Path(folder) / "x.db").test_client().post("/api/solve", json={"spec": spec})
        self.assertEqual((code, json.loads(out)), (0, web.json))
        part = json.loads(out)["parts"][0]
        self.assertEqual((part["id"], part["count"], part["mirror_of"]), ("m1/A", 7, None))
        self.assertAlmostEqual(part["arrises_mm"]["face_lower"], 231.4336, places=4)
        self.assertEqual(part["edges"]["upper"]["rip_bevel_deg"], 0.0)

    def test_a_refusal_names_the_field_on_standard_error(self) -> None:
        code, out, err = self.run_with(regular(6, 400.0, "outside_flats", mm=300.0))
        self.assertEqual((code, out), (1, ""))
        self.assertIn("board.width_mm: ", err)
        self.assertEqual(self.run_with("{nothing")[0], 1)

    def test_kinds_come_with_a_schema_that_names_every_field(self) -> None:
        out = io.StringIO()
        with redirect_stdout(out):
            main(["kinds"])
        kind = json.loads(out.getvalue())["kinds"][0]
        self.assertEqual(kind["kind"], "flat_frame")
        self.assertLessEqual(
            {"shape", "board", "rails", "rabbet", "joint", "corners", "left_out", "loose_ends"},
            set(kind["spec_schema"]["properties"]),
        )
