"""The bench reads lengths without the server: its own reader must mean what the core means, text by text."""

import json
import subprocess
import unittest
from pathlib import Path

from tests.core.readings import ANGLES, LENGTHS, readings

WEB = Path(__file__).resolve().parent.parent.parent / "web"
# The module as it is, its types taken off, asked for every case.
ASK = """
const ts = require("typescript"), fs = require("fs");
const made = ts.transpileModule(fs.readFileSync("src/bench/lengths.ts", "utf8"), { compilerOptions: { module: "ESNext", target: "ES2022" } }).outputText;
import("data:text/javascript," + encodeURIComponent(made)).then(({ read }) => {
  const cases = JSON.parse(fs.readFileSync(0, "utf8"));
  console.log(JSON.stringify(cases.map(([text, unit]) => {
    const ruler = { unit: unit === "in" ? "in" : "mm", graduation_mm: 1, parts: 1, refusals: {} };
    const meant = read(text, unit === "deg" ? "deg" : "mm", ruler);
    return [meant.value ?? meant.mm ?? null, meant.wrong ?? ""];
  })));
});
"""


class OneGrammar(unittest.TestCase):
    def test_the_browser_means_what_the_core_means(self) -> None:
        wanted = readings()
        self.assertGreaterEqual(len(set(LENGTHS)) + len(ANGLES), 200)
        self.assertGreater(sum(code == "" for *_, code in wanted), 100)  # as many are read as are refused
        asked = json.dumps([(text, unit) for text, unit, _, _ in wanted])
        found = json.loads(
            subprocess.run(["node", "-e", ASK], cwd=WEB, input=asked, capture_output=True, text=True, check=True).stdout
        )
        for (text, unit, value, code), (its, why) in zip(wanted, found, strict=True):
            with self.subTest(text=text, unit=unit):
                self.assertEqual(why, code)
                if value is None:
                    self.assertIsNone(its)
                else:
                    self.assertAlmostEqual(its, value, delta=1e-9 * max(1.0, abs(value)))
