"""The bench: it fits, it measures, it never forgets, also without the server and on two devices."""

import re
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from random import Random
from typing import Any

from playwright.sync_api import BrowserContext, Page, expect
from werkzeug.serving import make_server

from fennup.app.factory import create_app
from tests.browser.page import ROOT, SLOWEST_MS, InTheBrowser
from tests.core.test_bench import any_entries

PHONE = {"width": 390, "height": 844}
DESK = {"width": 1280, "height": 800}
ANSWERS_MS = 50
BOUNCE_MS = 300  # two taps nearer than that are one
FIT = """async () => {
  for (let k = 0; k < 3; k++) await new Promise((done) => requestAnimationFrame(done));  // the drawing takes its new size
  const over = (s) => [...document.querySelectorAll(s)].filter((e) => e.scrollHeight > e.clientHeight + 1 || e.scrollWidth > e.clientWidth + 1)
    .map((e) => `${e.className}: ${e.scrollWidth}x${e.scrollHeight} in ${e.clientWidth}x${e.clientHeight}`);
  const small = [...document.querySelectorAll('.bench button, .bench a')].filter((e) => e.offsetParent && (e.offsetHeight < 56 || e.offsetWidth < 56) && !e.closest('header'));
  const figures = [...document.querySelectorAll('.bench-figure')].map((e) => parseFloat(getComputedStyle(e).fontSize));
  const words = [...document.querySelectorAll('.bench-text p')].map((e) => parseFloat(getComputedStyle(e).fontSize));
  return { scrolls: over('.bench, .bench-main, .bench-words, .bench-text'), small: small.map((e) => e.outerHTML.slice(0, 80)), figure: Math.min(99, ...figures), word: Math.min(99, ...words),
           picture: document.querySelector('.bench-picture')?.offsetHeight ?? 999, page: document.documentElement.scrollHeight - innerHeight };
}"""


class Away:
    """A server of its own that goes away and comes back at the same address."""

    def __init__(self, app: Any) -> None:
        self.app, self.port = app, 0

    @contextmanager
    def there(self) -> Iterator[str]:
        self.start()
        try:
            yield f"http://127.0.0.1:{self.port}"
        finally:
            self.stop()

    def start(self) -> None:
        self.server = make_server("127.0.0.1", self.port, self.app, threaded=True)
        self.port = self.server.server_port
        threading.Thread(target=self.server.serve_forever, daemon=True).start()

    def stop(self) -> None:
        self.server.shutdown()
        self.server.server_close()


class Bench(InTheBrowser):
    def project(self, name: str) -> str:
        answer = self.page.request.get(f"{self.url}/api/projects").json()
        return str(next(p["id"] for p in answer["projects"] if p["name"] == name))

    def bench(self, name: str, page: Page | None = None, size: dict[str, int] = PHONE) -> Page:
        page = page or self.page
        page.set_viewport_size(size)  # type: ignore[arg-type]
        page.goto(f"{self.url}/project/{self.project(name)}/bench")
        expect(page.locator(".bench-buttons")).to_be_visible()
        return page

    def press(self, name: str, page: Page | None = None) -> None:
        (page or self.page).get_by_role("button", name=name, exact=True).click()

    def done(self, count: int, page: Page | None = None) -> None:
        expect((page or self.page).locator(".bench-bar")).to_contain_text(re.compile(rf"· {count} of \d+ done"))

    def until(self, holds: Callable[[], bool]) -> None:
        """Wait until something holds: what is done is sent a moment later."""
        end = time.monotonic() + SLOWEST_MS / 1000
        while not holds():
            self.assertLess(time.monotonic(), end)
            time.sleep(0.05)

    def progress(self, name: str) -> Any:
        return self.page.request.get(f"{self.url}/api/projects/{self.project(name)}/progress").json()

    @contextmanager
    def own_device(self, size: dict[str, int] = PHONE) -> Iterator[tuple[BrowserContext, Page]]:
        """A device that keeps the application, as a phone does."""
        context = self.browser.new_context(viewport=size, service_workers="allow")  # type: ignore[arg-type]
        context.set_default_timeout(SLOWEST_MS)
        try:
            yield context, context.new_page()
        finally:
            context.close()

    def test_every_task_fits_a_phone_and_a_desk_without_scrolling(self) -> None:
        for name in ("Boat trestle", "Key case"):
            page = self.bench(name)
            count = int(re.search(r"of (\d+)", page.locator(".bench-count").inner_text())[1])  # type: ignore[index]
            for place in range(count):
                for size in (PHONE, DESK):
                    page.set_viewport_size(size)  # type: ignore[arg-type]
                    found = page.evaluate(FIT)
                    where = f"{name}, {place + 1}, {size['width']} wide: {found}"
                    self.assertEqual((found["scrolls"], found["small"], found["page"]), ([], [], 0), where)
                    self.assertGreaterEqual(min(found["figure"] / 38, found["word"] / 17, found["picture"] / 90), 1.0, where)
                if place + 1 < count:
                    page.get_by_role("button", name="More", exact=True).click()
                    page.get_by_role("listitem").nth(place + 1).get_by_role("button").click()

    def test_by_keyboard_alone_a_frame_is_cut_and_a_slip_of_the_finger_taken_back(self) -> None:
        page = self.bench("Slipway warning board", size=DESK)
        total = len(self.progress("Slipway warning board")["tasks"])
        page.keyboard.press("d")
        self.done(1)
        page.keyboard.press("b")
        expect(page.get_by_role("button", name="Not done after all")).to_be_visible()
        page.wait_for_timeout(BOUNCE_MS)
        page.keyboard.press("d")
        self.done(0)
        for count in range(total):
            page.wait_for_timeout(BOUNCE_MS)
            if page.get_by_role("region", name="Measure").is_visible():
                page.keyboard.press("Escape")
                go_on = page.get_by_role("button", name=re.compile("^Go on"))
                if go_on.is_visible():
                    go_on.press("Enter")
            page.keyboard.press("d")
            self.done(count + 1)
        page.keyboard.press("Escape")
        expect(page.get_by_text(f"All {total} are done.")).to_be_visible()
        self.until(lambda: self.progress("Slipway warning board")["done"] == total)
        page.keyboard.press("3")
        expect(page.get_by_role("heading", name=re.compile("^Slipway warning board: \\d+ steps"))).to_be_visible()

    def test_the_first_of_its_like_is_measured_and_a_far_reading_asked_for_twice(self) -> None:
        page = self.bench("Oar loft ladder", self.opened(bypass_csp=True))
        bench = page.request.get(f"{self.url}/api/projects/{self.project('Oar loft ladder')}/bench").json()
        first = next(task for task in bench["tasks"] if task["first"])
        length = next(bench["checks"][k] for k in first["checks"] if bench["checks"][k]["what"] == "length")
        page.get_by_role("button", name="More", exact=True).click()
        page.get_by_role("listitem").nth(bench["tasks"].index(first)).get_by_role("button").click()
        self.press("Done", page)
        field = page.get_by_role("textbox")
        expect(field).to_be_focused()
        for key in f"{length['expected'] / 25.4:.1f}":
            page.get_by_role("button", name="point" if key == "." else key, exact=True).click()
        expect(page.get_by_text("right in inches")).to_be_visible()
        expect(page.get_by_role("button", name="Keep it")).to_be_disabled()
        self.clean(page, "the keypad")
        # Far off, and read so twice: then it is so, and what now?
        far = f"{length['expected'] - 40:.0f}"
        field.fill(far)
        self.press("Measure once more", page)
        field.fill(far)
        expect(page.get_by_text("Read twice.")).to_be_visible()
        self.press("Keep it", page)
        expect(page.get_by_role("heading", name=f"{first['tag']} is wrong")).to_be_visible()
        self.clean(page, "what to do with a wrong piece")
        page.get_by_role("button", name=re.compile("^Cut it again")).click()
        self.until(lambda: self.progress("Oar loft ladder")["again"] == {first["piece"]: 1})
        told = {task["key"]: task for task in self.progress("Oar loft ladder")["tasks"]}
        self.assertFalse(told[first["key"]]["done"])

    def test_measure_after_done_measures_the_piece_just_made_and_names_it(self) -> None:
        page = self.bench("Slip gate braces", size=DESK)
        bench = page.request.get(f"{self.url}/api/projects/{self.project('Slip gate braces')}/bench").json()
        place, made = next(
            (k, t) for k, t in enumerate(bench["tasks"]) if t["checks"] and t["doing"] == "step" and not t["first"]
        )
        page.get_by_role("button", name="More", exact=True).click()
        page.get_by_role("listitem").nth(place).get_by_role("button").click()
        self.press("Done")
        expect(page.locator(".bench-title")).not_to_have_text(made["title"])
        self.press(f"Measure {made['tag']}")
        expect(page.locator(".bench-title")).to_have_text(made["title"])
        expect(page.get_by_role("region", name="Measure")).to_be_visible()

    def test_marks_are_counted_and_what_a_reading_means_is_said(self) -> None:
        page = self.bench("Slip gate braces")
        bench = page.request.get(f"{self.url}/api/projects/{self.project('Slip gate braces')}/bench").json()
        place, task = next(
            (k, t) for k, t in enumerate(bench["tasks"]) if any(bench["checks"][c]["what"] == "length" for c in t["checks"])
        )
        page.get_by_role("button", name="More", exact=True).click()
        page.get_by_role("listitem").nth(place).get_by_role("button").click()
        self.press("Measure")
        expected = next(bench["checks"][k] for k in task["checks"] if bench["checks"][k]["what"] == "length")["expected"]
        page.get_by_role("button", name="one mark more").click()
        expect(page.get_by_role("textbox")).to_have_value(f"{round(expected)}")
        expect(page.get_by_text("Right", exact=False).first).to_be_visible()
        for _ in range(3):
            page.get_by_role("button", name="one mark more").click()
        expect(page.get_by_text(re.compile(r"mm too long\. Set the (stop|line) [\d.]+ mm nearer"))).to_be_visible()
        self.press("Keep it")
        page.get_by_role("button", name=re.compile("^Shave it")).click()
        expect(page.locator('.piece-chip[aria-current="step"]')).to_have_attribute("data-state-word", "wrong")
        # Typed and kept in one go: the last digit counts too.
        self.press("Measure")
        page.keyboard.type(f"{expected:.1f}")
        page.keyboard.press("Enter")

        def kept() -> Any:
            told = next(t for t in self.progress("Slip gate braces")["tasks"] if t["key"] == task["key"])
            return told["readings"].get("length", {}).get("measured")

        self.until(lambda: kept() == round(expected, 1))

    def test_without_the_server_it_opens_answers_at_once_and_sends_when_it_is_back(self) -> None:
        app = create_app(Path(self.folder.name) / "away.db", ROOT / "web/dist", with_demo=True)
        server = Away(app)
        with self.own_device() as (_, page), server.there() as url:
            id = next(
                p["id"] for p in page.request.get(f"{url}/api/projects").json()["projects"] if p["name"] == "Gable window trim"
            )
            page.goto(f"{url}/project/{id}/bench")
            self.until(lambda: page.evaluate("navigator.serviceWorker.controller?.state") == "activated")
            server.stop()
            page.reload()
            expect(page.locator(".bench-bar")).to_contain_text("no connection")
            # From the tap to the next task on the screen.
            took = page.evaluate("""() => new Promise((done) => {
              const before = document.querySelector('.bench-bar h1').textContent, began = performance.now();
              const look = new MutationObserver(() => { if (document.querySelector('.bench-bar h1').textContent !== before) { look.disconnect(); done(performance.now() - began); } });
              look.observe(document.querySelector('.bench-bar'), { subtree: true, childList: true, characterData: true });
              document.querySelector('.bench-do').click();
              setTimeout(() => done(9999), 5000);
            })""")
            self.assertLess(took, ANSWERS_MS)
            expect(page.locator(".bench-bar")).to_contain_text("1 kept here")
            page.reload()
            expect(page.locator(".bench-bar")).to_contain_text("1 kept here")
            expect(page.locator(".bench-count")).to_contain_text("2 of")
            server.start()
            self.done(1, page)
            self.until(lambda: page.request.get(f"{url}/api/projects/{id}/progress").json()["done"] == 1)

    def test_two_devices_fold_what_happened_as_the_server_does(self) -> None:
        project = self.project("Flag tower")
        bench = self.page.request.get(f"{self.url}/api/projects/{project}/bench").json()
        keys = [task["key"] for task in bench["tasks"] if task["work"] in ("first_end", "second_end")][:4]
        names = dict(zip(("m1/A left:0", "m1/A right:0", "m1/B left:0", "m1/B right:0"), keys, strict=True))
        page = self.bench("Flag tower")
        for entry in any_entries(Random(7), 60):
            body = entry.body.model_dump(mode="json")
            body["sets"] = [{**put, "key": names[put["key"]]} for put in body.get("sets", [])] if entry.type == "wrong" else None
            body = {k: v for k, v in body.items() if v is not None}
            sent = {"id": entry.id, "key": names[entry.key], "fingerprint": "", "type": entry.type, "device": "other",
                    "device_time": entry.at.isoformat(), "body": body}  # fmt: skip
            answer = self.page.request.post(f"{self.url}/api/projects/{project}/records", data=sent)
            self.assertEqual(answer.status, 200, answer.text())
        page.reload()
        told = self.progress("Flag tower")
        self.done(told["done"], page)
        page.get_by_role("button", name="More", exact=True).click()
        for place, task in enumerate(told["tasks"]):
            word = "wrong" if task["wrong"] else "measured" if task["readings"] else "done" if task["done"] else "to do"
            expect(page.get_by_role("listitem").nth(place)).to_contain_text(re.compile(rf"{word}$"))

    def test_what_the_server_cannot_save_is_kept_and_what_it_refuses_is_said(self) -> None:
        page = self.bench("Pennant shelf ring")
        answers = [507, 422]
        problem = {"type": "about:blank", "title": "", "detail": "The disk is full.", "errors": []}

        def failing(route: Any) -> None:
            if route.request.method == "POST" and answers:
                status = answers.pop(0)
                route.fulfill(status=status, content_type="application/problem+json", json={**problem, "status": status})
            else:
                route.continue_()

        page.route("**/records", failing)
        self.press("Done")
        expect(page.locator(".bench-bar")).to_contain_text("not saved yet: 1 kept here")
        expect(page.get_by_role("alert")).to_contain_text("did not take an entry: The disk is full.")

    def test_a_left_hand_has_its_own_layout_and_the_place_is_clean(self) -> None:
        page = self.bench("Rope bin", self.opened(bypass_csp=True), DESK)
        right = page.get_by_role("button", name="Done", exact=True).bounding_box()
        page.get_by_role("button", name="More", exact=True).click()
        page.get_by_role("tab", name="This device").click()
        self.press("the left hand", page)
        self.clean(page, "this device")
        page.get_by_role("button", name="Close", exact=True).click()
        left = page.get_by_role("button", name="Done", exact=True).bounding_box()
        assert left and right
        self.assertLess(left["x"], right["x"])
        page.reload()
        expect(page.locator('.bench[data-hand="left"]')).to_be_visible()
        for scheme in ("light", "dark"):
            page.emulate_media(color_scheme=scheme)  # type: ignore[arg-type]
            for size in (PHONE, DESK):
                page.set_viewport_size(size)  # type: ignore[arg-type]
                self.clean(page, f"the bench, {scheme}, {size['width']}")

    def test_practice_by_keyboard_says_why_and_turns_what_was_made(self) -> None:
        page = self.opened(bypass_csp=True)
        page.goto(f"{self.url}/practice")
        ways = page.locator(".drill-way")
        expect(ways).to_have_count(4)
        self.clean(page, "a drill")
        ways.first.focus()
        page.keyboard.press("Enter")
        expect(page.locator('.drill-way[data-answer="right"]')).to_have_count(1)
        expect(page.get_by_text(re.compile("^Right: so it becomes the part"))).to_be_visible()
        expect(page.get_by_role("img", name="The piece as solids")).to_be_visible()
        expect(page.get_by_role("group", name="What to practise")).to_contain_text(re.compile("[01] of 1 right"))
        self.clean(page, "an answered drill")
        page.get_by_role("button", name="Another one").press("Enter")
        expect(page.locator(".drill-way[data-answer]")).to_have_count(0)

    def test_without_a_door_that_is_said_and_a_wrong_code_keeps_what_was_typed(self) -> None:
        page = self.opened(bypass_csp=True)
        page.goto(f"{self.url}/devices")
        expect(page.get_by_role("alert")).to_contain_text("no door for phones")
        page.goto(f"{self.url}/pair#123456")
        expect(page.get_by_role("textbox", name="The code")).to_have_value("123456")
        page.get_by_role("textbox", name="What this device is called").fill("Tablet")
        self.press("Come in", page)
        expect(page.get_by_role("alert")).to_be_visible()
        expect(page.get_by_role("textbox", name="What this device is called")).to_have_value("Tablet")
        self.clean(page, "coming in")
