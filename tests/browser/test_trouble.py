"""What goes wrong between pages and server: nothing that was typed is lost, and nothing is said to be saved that is not."""

import re

from playwright.sync_api import Page, Route, expect

from tests.browser.page import InTheBrowser


class NothingIsLost(InTheBrowser):
    def frame(self, page: Page | None = None) -> Page:
        page = page or self.page
        page.goto(self.url)
        page.get_by_role("button", name="Six sides").click()
        self.field("opening, across flats", page)
        return page

    def type_into(self, page: Page, label: str, text: str) -> None:
        field = self.field(label, page)
        field.fill(text)
        field.press("Enter")

    def test_a_save_that_finds_the_disk_full_is_sent_again_by_itself(self) -> None:
        page = self.frame()
        full = {"type": "about:blank#507", "title": "Not saved", "status": 507, "detail": "The disk is full.", "errors": []}
        left = [2]

        def answer(route: Route) -> None:
            left[0] -= 1
            if left[0] >= 0:
                route.fulfill(status=507, content_type="application/problem+json", json=full)
            else:
                route.continue_()

        page.route("**/acts", answer)
        self.type_into(page, "opening, across flats", "280")
        expect(page.get_by_role("alert").filter(has_text="Not saved yet. The disk is full.")).to_be_visible()
        expect(page.get_by_role("button", name="Undo")).to_be_disabled()
        expect(page.get_by_role("alert")).to_have_count(0)
        self.reads("opening, across flats, given", "280 millimetres", page)
        expect(page.get_by_role("button", name=re.compile("^Undo"))).to_be_enabled()

    def test_a_change_that_cannot_be_made_on_top_of_theirs_says_so(self) -> None:
        first = self.frame()
        second = self.opened()
        second.goto(first.url)
        self.field("opening, across flats", second)
        # A change of which the server says in the second window that somebody else was there first; by then it is impossible.
        second.route(
            "**/acts",
            lambda route: route.fulfill(status=409, json={"type": "", "title": "", "status": 409, "detail": "", "errors": []}),
        )
        self.type_into(second, "opening, across flats", "300")
        expect(second.get_by_role("button", name="Do mine on top of it")).to_be_visible()
        second.unroute("**/acts")
        refused = {"type": "", "title": "", "status": 422, "detail": "Rails 45 mm wide leave no opening.", "errors": []}
        second.route("**/acts", lambda route: route.fulfill(status=422, content_type="application/problem+json", json=refused))
        second.get_by_role("button", name="Do mine on top of it").click()
        expect(second.get_by_text("Rails 45 mm wide leave no opening.").first).to_be_visible()

    def test_another_window_shows_what_a_changed_saw_makes_of_its_project(self) -> None:
        first = self.page
        first.goto(self.url)
        first.get_by_role("link", name="Pennant shelf ring").click()
        expect(first.get_by_role("contentinfo")).to_contain_text("nearest 0.5°")
        second = first.context.new_page()
        second.goto(first.url)
        second.get_by_role("link", name="3 Saw").click()
        second.get_by_role("tab", name="Tools").click()
        for name in ("Smallest swing you can read", "Smallest tilt you can read"):
            field = second.get_by_label(re.compile(name)).first
            field.fill("0.25")
            field.press("Enter")
        expect(first.get_by_role("contentinfo")).to_contain_text("nearest 0.25°")

    def test_a_bench_that_cannot_be_loaded_any_more_says_that_its_list_is_old(self) -> None:
        page = self.page
        page.goto(self.url)
        page.get_by_role("link", name="Pennant shelf ring").click()
        page.wait_for_url("**/project/*")
        page.goto(page.url + "/bench")
        expect(page.get_by_role("region", name="Where you are")).to_contain_text("1 of")
        broken = {"type": "about:blank", "title": "Fault", "status": 500, "detail": "A fault in Fennup.", "errors": []}
        page.route(
            "**/bench",
            lambda route: route.fulfill(status=500, json=broken) if "/api/" in route.request.url else route.continue_(),
        )
        page.reload()
        expect(page.get_by_role("alert")).to_contain_text(
            "This list may be out of date: it could not be loaded. A fault in Fennup."
        )
        page.unroute("**/bench")
        expect(page.get_by_role("alert")).to_have_count(0)

    def test_a_copy_begins_with_nothing_touched(self) -> None:
        page = self.frame()
        page.locator('main [data-part="m1/C"]').first.click()
        expect(page.get_by_role("tab", name="Parts")).to_have_attribute("aria-selected", "true")
        page.get_by_role("button", name="Project").click()
        page.get_by_role("menuitem", name="Duplicate", exact=True).click()
        expect(page.get_by_role("textbox", name="Name of the project")).to_have_value(re.compile("copy$"))
        expect(page.get_by_role("tab", name="Parts")).to_have_attribute("aria-selected", "false")

    def test_a_deleted_project_is_found_again_much_later(self) -> None:
        page = self.page
        page.goto(self.url)
        page.get_by_role("button", name="Delete Slipway warning board").click()
        expect(page.get_by_role("link", name="Slipway warning board")).to_have_count(0)
        page.goto(self.url)
        page.get_by_text(re.compile(r"^Deleted projects \(\d\)")).click()
        page.get_by_role("button", name="Restore Slipway warning board").click()
        expect(page.get_by_role("link", name="Slipway warning board")).to_have_count(1)


class OnPaper(InTheBrowser):
    def test_everything_on_a_parts_card_is_on_the_page(self) -> None:
        page = self.page
        for name, wanted in (
            ("Slip lantern hip", ["Cut 3:", "blade tilted", "Rip the top edge", "before it is ripped", "Overall, tip to tip"]),
            ("Slip gate braces", ["Lap 1, first shoulder", "deep from the"]),
            ("Fuel store gable", ["Birdsmouth, its heel", "seat"]),
            ("Key case", ["Groove on the inside", "Every edge"]),
        ):
            page.goto(self.url)
            page.get_by_role("link", name=name, exact=True).click()
            page.wait_for_url("**/project/*")
            page.goto(page.url + "/cut-list")
            table = page.get_by_role("table")
            for words in wanted:
                expect(table).to_contain_text(words)
            expect(table.locator("svg").first).to_be_visible()

    def test_on_paper_heads_repeat_and_no_part_is_split(self) -> None:
        page = self.page
        page.goto(self.url)
        page.get_by_role("link", name="Slip lantern hip", exact=True).click()
        page.wait_for_url("**/project/*")
        page.goto(page.url + "/cut-list")
        page.get_by_role("table").wait_for()
        page.emulate_media(media="print")
        style = "e => { const s = getComputedStyle(e); return [s.breakInside, s.display] }"
        for row in page.locator("tbody tr").all():
            self.assertEqual(row.evaluate(style)[0], "avoid")
        self.assertEqual(page.locator("thead").evaluate(style)[1], "table-header-group")
