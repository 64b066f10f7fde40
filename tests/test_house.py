"""The house itself: style, types, imports, lengths, tolerances, and the kept documents."""

import ast
import json
import os
import shutil
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

from fennup.app.factory import create_app

ROOT = Path(__file__).resolve().parent.parent
BIN = Path(sys.executable).parent
WEB = ROOT / "web"


LONGEST_FUNCTION = 64
LONGEST_FILE = 420
TOLERANCE = 1e-2  # a smaller figure in the code is one
# A module, and an import that it must not have.
WRONG = {
    "core/design.py": "import flask",
    "core/parts/facts.py": "from sqlalchemy import select",
    "core/verify/closing.py": "from fennup.core.kinds.box.spec import BoxSpec",
    "core/saw/profile.py": "from fennup.core.kinds.asking import figure",
    "core/drawing/view.py": "from fennup.core.project.spec import ProjectSpec",
    "core/plan.py": "from fennup.core.project.spec import ProjectSpec",
    "core/geometry/vec.py": "from fennup.core.parts.solid import Solid",
    "app/services/sheet.py": "from flask import request",
    "app/wording/labels.py": "from fennup.app.services.sheet import sheet_of",
    "app/models/store.py": "from fennup.app.services.documents import State",
}


def modules() -> dict[Path, ast.Module]:
    """Every module of ours, read."""
    files = (file for file in (ROOT / "src").rglob("*.py") if "migrations" not in file.parts)
    return {file: ast.parse(file.read_text()) for file in files}


class House(unittest.TestCase):
    def passes(self, *command: str, where: Path = ROOT) -> str:
        done = subprocess.run(command, cwd=where, capture_output=True, text=True)
        self.assertEqual(done.returncode, 0, done.stdout + done.stderr)
        return done.stdout

    def test_imports_go_one_way(self) -> None:
        self.passes(str(BIN / "lint-imports"), "--no-cache")

    def test_every_wrong_import_is_found(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            for name in ("src", "pyproject.toml"):
                copy = shutil.copytree if (ROOT / name).is_dir() else shutil.copy
                copy(ROOT / name, Path(folder) / name)
            for place, wrong in WRONG.items():
                file = Path(folder) / "src/fennup" / place
                good = file.read_text()
                file.write_text(good + f"\n\nif True:\n    {wrong}\n")
                done = subprocess.run(
                    [str(BIN / "lint-imports"), "--no-cache"], cwd=folder, capture_output=True, text=True,
                    env={**os.environ, "PYTHONPATH": f"{folder}/src"},
                )  # fmt: skip
                file.write_text(good)
                self.assertEqual(done.returncode, 1, f"{place}: {wrong} passes")

    def test_functions_and_files_are_short(self) -> None:
        long = []
        for file, module in modules().items():
            if len(file.read_text().splitlines()) > LONGEST_FILE:
                long.append(file.name)
            functions = (node for node in ast.walk(module) if isinstance(node, ast.FunctionDef))
            long += [f"{file.name}: {f.name}" for f in functions if (f.end_lineno or 0) - f.lineno >= LONGEST_FUNCTION]
        self.assertEqual(long, [])

    def test_every_tolerance_has_a_name_and_no_two_have_the_same(self) -> None:
        bare, named = [], []
        for file, module in modules().items():
            top = [node for node in module.body if isinstance(node, ast.Assign | ast.AnnAssign)]
            own = {id(node) for statement in top for node in ast.walk(statement)}
            small = [
                node for node in ast.walk(module)
                if isinstance(node, ast.Constant) and isinstance(node.value, float) and 0 < abs(node.value) <= TOLERANCE
            ]  # fmt: skip
            bare += [f"{file.name}:{node.lineno}" for node in small if id(node) not in own]
            for statement in top:
                if isinstance(statement, ast.Assign) and any(node is statement.value for node in small):
                    named += [target.id for target in statement.targets if isinstance(target, ast.Name)]
        self.assertEqual(bare, [])
        self.assertEqual(sorted({name for name in named if named.count(name) > 1}), [])
        self.assertGreater(len(named), 20)

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
