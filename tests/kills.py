"""Kill server or browser in the middle of work at the bench, again and again, and count what was lost: python tests/kills.py [kills]."""

import json
import os
import random
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import Any
from urllib.error import URLError
from urllib.request import Request, urlopen

from playwright.sync_api import Browser, Error, Page, Playwright, sync_playwright

ROOT = Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT), str(ROOT / "src")]

from tests.browser.page import ARGUMENTS, CHROMIUM  # noqa: E402

# What was tapped this long before the browser was killed must be there: a disk takes a moment.
BEING_TYPED_MS = 100
LONG_S = 30.0
ENOUGH_LEFT = 40
SPEC = {"kind": "box", "plan": {"form": "regular", "sides": 12, "across_mm": 900.0}, "height_mm": 600.0, "thickness_mm": 18.0,
        "slope_deg": 8.0, "courses": {"count": 8}}  # fmt: skip
# Tap Done as fast as the screen answers; every tap that the screen has answered is told with its time.
TAPS = """() => {
  const at = () => document.querySelector('.bench-count').textContent;
  const tap = () => {
    const button = document.querySelector('.bench-do');
    if (!button) return setTimeout(tap, 20);
    if (button.textContent.startsWith('Keep it')) { document.querySelectorAll('.bench-buttons button')[1].click(); return setTimeout(tap, 30); }
    const on = document.querySelector('.bench-on');
    if (on) { on.click(); return setTimeout(tap, 30); }
    const before = at();
    button.click();
    requestAnimationFrame(() => requestAnimationFrame(() => {
      if (at() !== before || document.querySelector('.bench-do').dataset.done === 'true' || document.querySelector('.bench-do').textContent.startsWith('Keep it'))
        console.log('done ' + before.split(' ')[0]);
      setTimeout(tap, 260 + Math.random() * 60);
    }));
  };
  tap();
}"""


def free_port() -> int:
    """A port that nobody listens at."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


class Bench:
    """A server and a browser, each killed and begun again."""

    def __init__(self, folder: Path, playwright: Playwright) -> None:
        self.folder, self.playwright = folder, playwright
        self.port = free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        self.told: list[tuple[int, float]] = []
        self.browser: Browser | None = None
        self.serve()
        self.browse()

    def serve(self) -> None:
        command = [
            sys.executable,
            "-m",
            "fennup.app.cli",
            "serve",
            "--port",
            str(self.port),
            "--database",
            str(self.folder / "kills.db"),
        ]
        command += ["--pages", str(ROOT / "web/dist")]
        quiet: dict[str, Any] = {"stdout": subprocess.DEVNULL, "stderr": subprocess.DEVNULL, "start_new_session": True}
        self.server = subprocess.Popen(command, env={**os.environ, "PYTHONPATH": str(ROOT / "src")}, **quiet)
        self.until(lambda: self.ask("/api/me") is not None)

    def browse(self) -> None:
        self.debugging, self.browser = free_port(), None
        for lock in (self.folder / "profile").glob("Singleton*"):  # of the one that was killed
            lock.unlink(missing_ok=True)
        own = [f"--user-data-dir={self.folder / 'profile'}", f"--remote-debugging-port={self.debugging}", "--headless=new"]
        quiet: dict[str, Any] = {"stdout": subprocess.DEVNULL, "stderr": subprocess.DEVNULL, "start_new_session": True}
        self.chromium = subprocess.Popen([CHROMIUM, *ARGUMENTS, *own], **quiet)
        self.until(self.connected)

    def connected(self) -> bool:
        try:
            self.browser = self.playwright.chromium.connect_over_cdp(f"http://127.0.0.1:{self.debugging}")
        except Error:
            return False
        return True

    def ask(self, path: str, body: Any = None) -> Any:
        data = None if body is None else json.dumps(body).encode()
        try:
            with urlopen(Request(self.url + path, data, {"Content-Type": "application/json"}), timeout=5) as answer:
                return json.load(answer)
        except (URLError, OSError):
            return None

    def until(self, holds: Any) -> None:
        end = time.monotonic() + LONG_S
        while not holds():
            if time.monotonic() > end:
                shown = (
                    [page.locator("body").inner_text()[:300] for context in self.browser.contexts for page in context.pages]
                    if self.browser
                    else []
                )
                raise SystemExit(f"It did not come back: {self.server.poll()} {shown}")
            time.sleep(0.05)

    def page(self, project: str) -> Page:
        """The bench opened, tapped as fast as it goes."""
        assert self.browser
        page = self.browser.contexts[0].new_page()
        page.on("console", lambda message: self.heard(message.text))
        page.goto(f"{self.url}/project/{project}/bench")
        page.locator(".bench-do").wait_for()
        return page

    def heard(self, text: str) -> None:
        if text.startswith("done "):
            self.told.append((int(text.removeprefix("done ")) - 1, time.monotonic()))

    def kill(self, process: "subprocess.Popen[bytes]") -> float:
        os.killpg(process.pid, signal.SIGKILL)
        at = time.monotonic()
        process.wait()
        return at


def main() -> None:
    kills = int(sys.argv[1]) if len(sys.argv) > 1 else 100
    random.seed(20)
    folder = Path(tempfile.mkdtemp())
    lost = typed = tapped = 0
    try:
        with sync_playwright() as playwright:
            bench = Bench(folder, playwright)
            project, tasks = "", []
            for number in range(kills):
                if not project or len(tasks) - len(done_of(bench, project)) < ENOUGH_LEFT:
                    project = bench.ask("/api/projects", {"spec": SPEC})["id"]
                    tasks = [task["key"] for task in bench.ask(f"/api/projects/{project}/bench")["tasks"]]
                bench.told = []
                page = bench.page(project)
                page.evaluate(TAPS)
                page.wait_for_timeout(random.uniform(300, 2400))
                if number % 2:
                    bench.kill(bench.server)
                    page.wait_for_timeout(random.uniform(50, 500))  # it goes on without the server
                at = bench.kill(bench.chromium)
                if number % 2:
                    bench.serve()
                bench.browse()
                page = bench.page(project)
                bench.until(
                    lambda page=page: (
                        "done" in page.locator(".bench-bar").inner_text()
                        and "kept" not in page.locator(".bench-bar").inner_text()
                    )
                )
                page.wait_for_timeout(300)
                known = done_of(bench, project)
                missing = [when for place, when in bench.told if tasks[place] not in known]
                tapped += len(bench.told)
                lost += sum((at - when) * 1000 > BEING_TYPED_MS for when in missing)
                typed += sum((at - when) * 1000 <= BEING_TYPED_MS for when in missing)
                page.close()
            bench.kill(bench.chromium)
            bench.kill(bench.server)
    finally:
        shutil.rmtree(folder, ignore_errors=True)
    print(
        f"{kills} kills, every second one of the server too; {tapped} taps; lost {lost}; of the last {BEING_TYPED_MS} ms {typed}"
    )
    sys.exit(lost > 0)


def done_of(bench: Bench, project: str) -> set[str]:
    """What the server knows to be done."""
    return {task["key"] for task in bench.ask(f"/api/projects/{project}/progress")["tasks"] if task["done"]}


if __name__ == "__main__":
    main()
