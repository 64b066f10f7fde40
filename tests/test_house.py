import json
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

from fennup.app.factory import create_app

ROOT = Path(__file__).resolve().parent.parent
BIN = Path(sys.executable).parent
WEB = ROOT / "web"


class House(unittest.TestCase):
    def passes(self, *command: str, where: Path = ROOT) -> str:
        done = subprocess.run(command, cwd=where, capture_output=True, text=True)
        self.assertEqual(done.returncode, 0, done.stdout + done.stderr)
        return done.stdout

    def test_imports_go_one_way(self) -> None:
        self.passes(str(BIN / "lint-imports"), "--no-cache")

    def test_python_is_tidy_and_typed(self) -> None:
        self.passes(str(BIN / "ruff"), "check", "--no-cache", "src", "tests", "fennup")
        self.passes(str(BIN / "ruff"), "format", "--no-cache", "--check", "src", "tests")
        self.passes(str(BIN / "mypy"), "--cache-dir", tempfile.gettempdir() + "/fennup-mypy")

    def test_the_front_end_is_tidy_and_typed(self) -> None:
        self.passes("npx", "biome", "check", "src", where=WEB)
        self.passes("npx", "tsc", "--noEmit", where=WEB)

    def test_the_kept_openapi_document_is_the_one_that_is_served(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            served = create_app(Path(folder) / "x.db").test_client().get("/openapi.json").json
        self.assertEqual(json.loads((ROOT / "docs/openapi.json").read_text()), served, "run ./fennup openapi > docs/openapi.json")
