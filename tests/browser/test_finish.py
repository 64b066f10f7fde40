"""The Finish place in the browser: a length typed on the joint cut open, sides painted by touch, days crossed out and steps ticked, feet read on the set-out, tables; by mouse, by
keyboard alone, on a phone; light, dark."""

import re
from datetime import date, timedelta

from playwright.sync_api import Page, expect

from tests.browser.page import InTheBrowser

TABS = ("Fasten", "Coats", "By the day", "Holds", "Set up", "Tables")


class Finish(InTheBrowser):
    def opened_at(self, name: str, tab: str, page: Page | None = None) -> Page:
        """The place of one of the demo's projects."""
        return self.opened_in("Finish", name, tab, page)

    def test_a_length_is_typed_on_the_joint_cut_open(self) -> None:
        page = self.opened_at("Sign bracket", "Fasten")
        length = page.locator("main").get_by_label(re.compile("^length, suggested"))
        length.fill("soon")
        length.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("is no length")
        expect(length).to_have_value("soon")  # nothing typed is lost
        length.fill("200")
        length.press("Enter")
        expect(page.get_by_role("list", name="What speaks against it")).to_contain_text("It comes out by")
        expect(page.get_by_role("contentinfo")).to_contain_text("not held yet")
        page.get_by_role("banner").get_by_role("button", name=re.compile("^Undo ?: how a joint is held")).click()
        expect(page.get_by_role("contentinfo")).not_to_contain_text("not held yet")
        # Why: every figure opens.
        page.get_by_text("Longest that is safe").click()
        expect(page.get_by_text(re.compile("of wood stay over the tip"))).to_be_visible()

    def test_sides_are_painted_by_touch_and_what_is_glued_stays_bare(self) -> None:
        page = self.opened_at("Honours board frame", "Coats")
        side = page.get_by_role("button", name="Rail A (front), face: coated")
        area = page.locator("aside summary", has_text="To be coated").locator(".figure")
        before = area.inner_text()
        page.get_by_role("button", name="left bare").click()
        side.click()
        expect(page.get_by_role("button", name="Rail A (front), face: left bare")).to_be_visible()
        expect(area).not_to_have_text(before)
        page.get_by_role("button", name="Rail A (front), face: left bare").click()
        expect(area).to_have_text(before)
        # Painting first, all over, is refused with the reason; what was chosen stays.
        when = page.get_by_role("combobox", name="Coated", exact=True)
        when.select_option("before, all over")
        expect(page.get_by_role("alert")).to_contain_text("glue does not hold on paint")
        expect(when).to_have_value("after")

    def test_days_are_crossed_out_and_steps_ticked_off(self) -> None:
        page = self.opened_at("Tide clock surround", "By the day")
        expect(page.get_by_role("status").filter(has_text="Begun now")).to_be_visible()
        page.get_by_label("Needed on").fill((date.today() + timedelta(days=30)).isoformat())
        expect(page.get_by_role("status").filter(has_text="Begin at the latest")).to_be_visible()
        rows = page.get_by_role("list", name="Day by day").get_by_role("listitem")
        day = rows.filter(has_text="Coat 1").first.get_by_role("button", name="Cross out")
        name = day.inner_text()
        day.click()
        expect(page.get_by_role("button", name="Free again").first).to_be_visible()
        self.assertIn("Cross out", name)
        page.get_by_role("button", name=re.compile("^Done ?: Cut all parts")).click()
        expect(page.get_by_role("button", name=re.compile("^Not done ?: Cut all parts"))).to_be_visible()
        page.get_by_role("banner").get_by_role("button", name=re.compile("^Undo ?: a step that was done")).click()
        expect(page.get_by_role("button", name=re.compile("^Done ?: Cut all parts"))).to_be_visible()
        sunday = page.get_by_label("Sunday")
        sunday.fill("never")
        sunday.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("are no hours")

    def test_too_late_says_what_would_help_and_does_it(self) -> None:
        page = self.opened_at("Slip lantern hip", "By the day")
        expect(page.get_by_role("status").filter(has_text="Too late")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Do that ?: One coat of boat varnish less")).click()
        expect(page.get_by_role("banner").get_by_role("button", name=re.compile("^Undo ?: how many coats"))).to_be_visible()

    def test_by_keyboard_alone(self) -> None:
        """To the place by its digit, to the days by the skip link, a reading on the set-out, a row of a table."""
        page = self.opened_at("Boat trestle", "Fasten")
        page.keyboard.press("1")
        expect(page.get_by_role("tab", name="Coats")).to_have_count(0)
        page.keyboard.press("6")
        expect(page.get_by_role("navigation", name="Go to")).to_be_focused()
        expect(page.get_by_role("tab", name="Coats")).to_be_visible()
        for name in ("To the joints", "To the coats", "To the days"):
            page.keyboard.press("Tab")
            expect(page.get_by_role("button", name=name)).to_be_focused()
        page.keyboard.press("Enter")
        expect(page.get_by_label("Needed on")).to_be_visible()
        page.get_by_role("tab", name="By the day").focus()
        for tab in ("Holds", "Set up"):
            page.keyboard.press("ArrowRight")
            expect(page.get_by_role("tab", name=tab)).to_be_focused()
        reading = page.locator("main").get_by_label(re.compile("^leg DA to leg AB reads"))
        reading.focus()
        page.keyboard.type("717")
        page.keyboard.press("Enter")
        expect(page.get_by_text(re.compile("^Move leg"))).not_to_have_count(0)
        page.get_by_role("tab", name="Set up").focus()
        page.keyboard.press("ArrowRight")
        hours = page.get_by_role("region", name="indoor paint").get_by_label(re.compile("^Hours between coats"))
        hours.focus()
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        expect(page.get_by_role("region", name="indoor paint")).to_contain_text("own figure")
        page.get_by_role("banner").get_by_role("button", name=re.compile("^Undo ?: a way to coat")).focus()
        page.keyboard.press("Enter")
        expect(page.get_by_role("region", name="indoor paint")).to_contain_text("usual, editable")

    def test_what_is_to_be_bought_stands_on_the_yards_list(self) -> None:
        page = self.opened_at("Coxswain's stool", "Fasten")
        line = page.get_by_role("list", name="To buy").get_by_role("listitem").first.inner_text().split("\n")[0]
        page.goto(page.url.replace("/finish", "/to-buy"))
        expect(page.get_by_role("list", name="Besides boards")).to_contain_text(line)

    def test_axe_finds_nothing_wide_or_narrow_light_or_dark(self) -> None:
        for scheme, width in (("light", 1280), ("dark", 390)):
            page = self.opened(bypass_csp=True, color_scheme=scheme)
            page.set_viewport_size({"width": width, "height": 844})
            for name in ("Boat trestle", "Rope bin"):
                self.opened_at(name, TABS[0], page)
                for tab in TABS:
                    page.get_by_role("tab", name=tab).click()
                    page.wait_for_load_state("networkidle")
                    self.clean(page, f"{name}, {tab}, {width}, {scheme}")
                    wide = page.evaluate("document.documentElement.scrollWidth")
                    self.assertLessEqual(wide, width, f"{name}, {tab}")
