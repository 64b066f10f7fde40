"""The real application in Chromium: a server on a free port, a database of its own, the demo's projects."""

import logging
import re
import tempfile
import threading
import unittest
from pathlib import Path
from typing import Any, ClassVar

from playwright.sync_api import Browser, BrowserContext, Locator, Page, Playwright, expect, sync_playwright
from werkzeug.serving import make_server

from fennup.app.factory import create_app

ROOT = Path(__file__).resolve().parent.parent.parent
CHROMIUM = "/usr/bin/chromium"
AXE = (ROOT / "web/node_modules/axe-core/axe.min.js").as_posix()
ARGUMENTS = [
    "--no-sandbox", "--enable-unsafe-swiftshader", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync", "--disable-quic",
]  # fmt: skip

SLOWEST_MS = 40_000  # a busy machine is no failure
expect.set_options(timeout=SLOWEST_MS)


class InTheBrowser(unittest.TestCase):
    """One server and one browser a class; a fresh context a test; any error on the page or refused by its policy fails."""

    folder: ClassVar[Any]
    server: ClassVar[Any]
    playwright: ClassVar[Playwright]
    browser: ClassVar[Browser]
    url: ClassVar[str]

    @classmethod
    def setUpClass(cls) -> None:
        logging.getLogger("werkzeug").setLevel(logging.ERROR)
        cls.folder = tempfile.TemporaryDirectory()
        app = create_app(Path(cls.folder.name) / "fennup.db", ROOT / "web/dist", with_demo=True)
        cls.server = make_server("127.0.0.1", 0, app, threaded=True)
        threading.Thread(target=cls.server.serve_forever, daemon=True).start()
        cls.url = f"http://127.0.0.1:{cls.server.server_port}"
        cls.playwright = sync_playwright().start()
        cls.browser = cls.playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)

    @classmethod
    def tearDownClass(cls) -> None:
        cls.browser.close()
        cls.playwright.stop()
        cls.server.shutdown()
        cls.folder.cleanup()

    def setUp(self) -> None:
        self.complaints: list[str] = []
        self.page = self.opened()

    def tearDown(self) -> None:
        for context in self.browser.contexts:
            context.close()
        self.assertEqual(self.complaints, [])

    def opened(self, **options: Any) -> Page:
        """A page in a context of its own, as if on another computer."""
        context: BrowserContext = self.browser.new_context(
            viewport={"width": 1280, "height": 800}, service_workers="block", **options
        )
        context.set_default_timeout(SLOWEST_MS)
        page = context.new_page()
        page.on("pageerror", lambda error: self.complaints.append(str(error)))
        page.on("console", self.heard)
        return page

    def heard(self, message: Any) -> None:
        """Refusals that a test provokes are logged by the browser as failed resources; anything else is a complaint."""
        if message.type == "error" and "Failed to load resource" not in message.text:
            self.complaints.append(message.text)

    def start(self, name: str, page: Page | None = None, ready: str = "one outer edge") -> Page:
        """A new project from the first screen; `ready`: a dimension that it shows."""
        page = page or self.page
        page.goto(self.url)
        page.get_by_role("button", name=name, exact=True).click()
        page.wait_for_url("**/project/*")
        self.field(ready, page)
        page.evaluate("document.fonts.ready")  # a font that comes late moves what a test is about to drag
        page.wait_for_load_state("networkidle")
        return page

    def field(self, label: str, page: Page | None = None) -> Locator:
        """The input of a dimension on the drawing, by the beginning of its name."""
        field = (page or self.page).locator(f'main .drawing input[aria-label^="{label}"]').first
        field.wait_for()
        return field

    def reads(self, label: str, text: str, page: Page | None = None) -> None:
        """Wait until a dimension on the drawing is spoken so."""
        (page or self.page).locator(f'main .drawing input[aria-label^="{label}"][aria-label*="{text}"]').first.wait_for()

    def opened_in(self, place: str, name: str, tab: str, page: Page | None = None) -> Page:
        """A place of one of the demo's projects at a tab, reached as anybody would."""
        page = page or self.page
        page.goto(self.url)
        page.get_by_role("link", name=re.compile(f"^{name}")).first.click()
        page.get_by_role("navigation", name="Places").get_by_role("link", name=place).click()
        expect(page.get_by_role("heading", name=name)).to_be_visible()
        page.get_by_role("tab", name=tab).click()
        return page

    def clean(self, page: Page, where: str) -> None:
        """Nothing that axe finds, and no wider than the screen."""
        page.add_script_tag(path=AXE)
        found = page.evaluate(
            "async () => (await axe.run()).violations.map(v => `${v.id}: ${v.nodes.map(n => n.html).slice(0, 3)}`)"
        )
        self.assertEqual(found, [], where)
        self.assertLessEqual(
            page.evaluate("document.documentElement.scrollWidth - innerWidth"), 0, f"{where}: wider than the screen"
        )
