"""Take the pictures in docs/screenshots afresh from the demo's projects: python tests/pictures.py in the environment."""

import sys
import tempfile
import threading
from collections.abc import Callable
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT), str(ROOT / "src")]

from playwright.sync_api import Page, sync_playwright  # noqa: E402
from waitress.server import create_server  # noqa: E402

from fennup.app.factory import create_app  # noqa: E402
from tests.browser.page import ARGUMENTS, CHROMIUM  # noqa: E402

DESK, PHONE = (1280, 800), (390, 844)


def opened(name: str) -> Callable[[Page], None]:
    """Open a project from the first screen."""

    def act(page: Page) -> None:
        page.get_by_role("link", name=name, exact=True).click()
        page.locator("main .drawing input").first.wait_for()

    return act


def part(rail: str) -> Callable[[Page], None]:
    """Touch a rail."""
    return lambda page: page.locator(f'main [data-part="m1/{rail}"]').first.click()


def saw(page: Page) -> None:
    """Go to the saw."""
    page.get_by_role("link", name="3 Saw").click()
    page.locator("main .step-chip").first.wait_for()


def step(name: str) -> Callable[[Page], None]:
    """Open a step by how its chip begins."""

    def act(page: Page) -> None:
        page.get_by_role("group", name="Steps").get_by_role("button", name=name).first.click()
        page.get_by_role("heading", name="Ways to lay it").wait_for()

    return act


def pressed(name: str) -> Callable[[Page], None]:
    """Press a button, or open a tab."""
    return lambda page: page.get_by_role("button", name=name, exact=True).or_(page.get_by_role("tab", name=name)).first.click()


def bench(place: int) -> Callable[[Page], None]:
    """Go to a task of the bench."""

    def act(page: Page) -> None:
        page.goto(page.url + "/bench")
        page.get_by_role("button", name="More", exact=True).click()
        page.get_by_role("listitem").nth(place).get_by_role("button").click()
        page.locator(".bench-picture svg").first.wait_for()

    return act


def fit(tab: str) -> Callable[[Page], None]:
    """Go to a tab of the dry fit."""

    def act(page: Page) -> None:
        page.get_by_role("link", name="5 Fit").click()
        page.get_by_role("tab", name=tab).click()
        page.locator("main .drawing svg").first.wait_for()
        page.wait_for_load_state("networkidle")

    return act


def finish(tab: str, joint: str = "") -> Callable[[Page], None]:
    """Go to a tab of the finish, there to a kind of joint."""

    def act(page: Page) -> None:
        page.get_by_role("link", name="6 Finish").click()
        page.get_by_role("tab", name=tab).click()
        if joint:
            page.get_by_role("combobox", name="Joint", exact=True).select_option(joint)
        page.wait_for_load_state("networkidle")

    return act


def log(tab: str) -> Callable[[Page], None]:
    """Go to a tab of the log."""

    def act(page: Page) -> None:
        page.get_by_role("link", name="7 Log").click()
        page.get_by_role("tab", name=tab).click()
        page.wait_for_load_state("networkidle")

    return act


def plan(page: Page) -> None:
    """Check a plan with a misprint."""
    page.get_by_role("link", name="Check a plan").click()
    said = "Outside bottom, across flats: 366\nUp the slope: 203\nSlope from vertical: 15.0°\nWalls: longest edge 191\nWalls: shortest edge 132"
    page.get_by_label("What the plan says").fill(said)
    page.get_by_role("button", name="Read it").click()
    page.get_by_role("button", name="Check 5 figures").click()
    page.get_by_role("heading", name="Not all of it").wait_for()


def mouldings(page: Page) -> None:
    """The workshop's mouldings, one that was drawn in hand."""
    page.get_by_role("link", name="Mouldings, and frames of them").click()
    page.get_by_role("button", name="Ogee, drawn").click()
    page.get_by_label("Chamfer width").first.wait_for()


def frames(page: Page) -> None:
    """The frames that come out of them, one of them open."""
    page.get_by_role("tab", name="Frames that come out").click()
    page.get_by_role("button", name="836 × 596 mm").click()
    page.get_by_role("button", name="Make this frame").wait_for()


def boards(page: Page) -> None:
    """Go to the boards."""
    page.get_by_role("link", name="2 Boards").click()
    page.locator("main section[data-source]").first.wait_for()


def cut_list(page: Page) -> None:
    """Go to the cut list."""
    page.goto(page.url + "/cut-list")
    page.get_by_role("table").wait_for()


def variant(page: Page) -> None:
    """A higher variant, beside its original."""
    original = page.url
    page.get_by_role("button", name="Project").click()
    page.get_by_role("menuitem", name="Duplicate as a variant").click()
    page.wait_for_url(lambda url: url != original)
    page.wait_for_timeout(800)
    height = page.locator('main .drawing input[aria-label^="height"]').first
    height.fill("800")
    height.press("Enter")
    page.locator('header button:has-text("height")').wait_for()
    page.get_by_role("button", name="Project").click()
    page.get_by_role("menuitem", name="Compare with the original").click()
    page.get_by_role("heading", name="What differs").wait_for()


PICTURES: dict[str, tuple[tuple[int, int], str, list[Callable[[Page], None]]]] = {
    "projects": (DESK, "light", []),
    "shape": (DESK, "light", [opened("Tide clock surround")]),
    "together": (DESK, "light", [opened("Sand bin on a stand")]),
    "compare": (DESK, "light", [opened("Boat trestle"), variant]),
    "boards": (DESK, "light", [opened("Boat trestle"), boards, part("rail A1")]),
    "rack": (DESK, "light", [opened("Honours board frame"), boards, pressed("Rack"), pressed("Old thwart")]),
    "saw": (DESK, "light", [opened("Honours board frame"), saw, step("second end")]),
    "saw-phone": (PHONE, "dark", [opened("Honours board frame"), saw, step("second end")]),
    "bench": (DESK, "light", [opened("Flag tower"), bench(10)]),
    "bench-phone": (PHONE, "light", [opened("Tide clock surround"), bench(20)]),
    "fit": (DESK, "light", [opened("Honours board frame"), fit("Readings")]),
    "fit-phone": (PHONE, "light", [opened("Boat trestle"), fit("Readings")]),
    "finish": (DESK, "light", [opened("Boat trestle"), finish("Fasten", "m1/AB top")]),
    "finish-days": (DESK, "light", [opened("Rope bin"), finish("By the day")]),
    "log": (DESK, "light", [opened("Oar hatch arch"), log("Story")]),
    "mouldings": (DESK, "light", [mouldings]),
    "frames": (DESK, "light", [mouldings, frames]),
    "plan": (DESK, "light", [plan]),
    "cut-list": (DESK, "light", [opened("Oar hatch arch"), cut_list]),
}


def main(names: list[str]) -> None:
    """Every picture, or those named."""
    folder = ROOT / "docs/screenshots"
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data, sync_playwright() as playwright:
        app = create_app(Path(data) / "pictures.db", ROOT / "web/dist", with_demo=True)
        server = create_server(app, host="127.0.0.1", port=0)
        threading.Thread(target=server.run, daemon=True).start()
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        for name, (size, scheme, acts) in PICTURES.items():
            if names and name not in names:
                continue
            page = browser.new_page(viewport={"width": size[0], "height": size[1]}, color_scheme=scheme)  # type: ignore[arg-type]
            page.goto(f"http://127.0.0.1:{server.effective_port}/")
            page.get_by_role("link", name="Tide clock surround").wait_for()
            for act in acts:
                act(page)
            page.wait_for_timeout(400)
            page.screenshot(path=folder / f"{name}.png")
            page.close()
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1:])
