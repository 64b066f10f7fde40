"""Run every test and close with one plain line: N passed, N failed, N skipped."""

import sys
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT), str(ROOT / "src")]


def main(patterns: list[str]) -> int:
    """All tests, or those whose names contain one of the patterns."""
    loader = unittest.TestLoader()
    if patterns:
        loader.testNamePatterns = [f"*{p}*" for p in patterns]
    suite = loader.discover(str(ROOT / "tests"), top_level_dir=str(ROOT))
    result = unittest.TextTestRunner(verbosity=2).run(suite)
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    skipped = len(result.skipped)
    passed = result.testsRun - failed - skipped
    print(f"{max(0, passed)} passed, {failed} failed, {skipped} skipped", flush=True)
    return 1 if failed or passed <= 0 else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
