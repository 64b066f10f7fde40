"""The Fit place in the browser: a reading typed on the drawing, by mouse and by keyboard; as made and a yes; the order; a door typed on its drawing; wide, narrow, light, dark."""

import re

from playwright.sync_api import Page, expect

from tests.browser.page import InTheBrowser


class Fit(InTheBrowser):
    def opened_at(self, name: str, tab: str, page: Page | None = None) -> Page:
        """The place of one of the demo's projects."""
        return self.opened_in("Fit", name, tab, page)

    def test_a_reading_is_typed_where_it_stands_and_taken_back(self) -> None:
        page = self.opened_at("Boat-bay vent grille", "Readings")
        place = page.get_by_label(re.compile("^Corner DA to corner BC"))
        box, drawing = place.bounding_box(), page.locator(".fit-drawing").bounding_box()
        assert box and drawing
        self.assertTrue(
            drawing["x"] < box["x"] < drawing["x"] + drawing["width"]
            and drawing["y"] < box["y"] < drawing["y"] + drawing["height"]
        )
        place.click()
        page.keyboard.type("about right")
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("is no length")
        expect(place).to_have_value("about right")  # nothing typed is lost
        place.fill("890")
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_have_count(0)
        other = page.get_by_label(re.compile("^Corner AB to corner CD"))
        other.fill("905")
        other.press("Enter")
        expect(page.get_by_role("heading", name=re.compile("It is out of square by"))).to_be_visible()
        expect(page.get_by_text(re.compile("^Hold rail B \\(right\\), push rail D \\(left\\)"))).to_be_visible()
        expect(page.get_by_role("contentinfo")).to_contain_text("2 read")
        page.get_by_role("banner").get_by_role("button", name=re.compile("^Undo ?: a reading")).click()
        expect(page.get_by_role("contentinfo")).to_contain_text("1 read")

    def test_by_keyboard_alone(self) -> None:
        """To the place by its digit, to the readings by the skip link, a reading, the next step of the order."""
        page = self.opened_at("Honours board frame", "Will it close?")
        page.keyboard.press("1")
        # The address changes a moment before the place does: a key pressed in between would still go to the place before.
        expect(page.get_by_role("tab", name="Will it close?")).to_have_count(0)
        page.keyboard.press("5")
        expect(page.get_by_role("tab", name="Will it close?")).to_be_visible()
        expect(page.get_by_role("navigation", name="Go to")).to_be_focused()
        link = page.get_by_role("button", name="To the readings")
        expect(link).to_be_attached()
        page.keyboard.press("Tab")
        expect(page.locator(".skip-link").first).to_be_focused()
        page.keyboard.press("Tab")
        expect(link).to_be_focused()
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name=re.compile("out of square"))).to_be_visible()
        angle = page.get_by_label(re.compile("^Angle of rail A and rail B"))
        angle.focus()
        page.keyboard.type("91")
        for width, height in ((390, 844), (1280, 800)):  # off the drawing into the list, and back: typing goes on
            page.set_viewport_size({"width": width, "height": height})
            expect(page.get_by_role("listitem").filter(has=angle)).to_have_count(1 if width == 390 else 0)
            expect(angle).to_have_value("91")
            expect(angle).to_be_focused()
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name=re.compile("The corner of rail A and rail B is 1.00° too wide"))).to_be_visible()
        page.get_by_role("tab", name="Readings").focus()
        for tab in ("As made", "Order"):
            page.keyboard.press("ArrowRight")
            expect(page.get_by_role("tab", name=tab)).to_be_focused()  # it moves a moment later
        expect(page.get_by_role("heading", name=re.compile("^1\\. "))).to_be_visible()
        page.get_by_role("button", name="Next step").focus()
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name=re.compile("^2\\. "))).to_be_visible()

    def test_as_made_shows_ways_out_and_a_yes_is_taken_back(self) -> None:
        page = self.opened_at("Bailer tub", "As made")
        expect(page.get_by_role("heading", name=re.compile("^Wall C: .* too short"))).to_be_visible()
        way = page.get_by_role("listitem").filter(has=page.get_by_role("heading", name=re.compile("^Make wall F")))
        expect(way).to_contain_text("swing 8.50°")
        way.get_by_text("See it over the plan").click()
        expect(way.locator("svg").first).to_be_visible()
        way.get_by_role("button", name=re.compile("^Do it so")).click()
        expect(page.get_by_role("heading", name="You said yes to")).to_be_visible()
        expect(page.get_by_role("heading", name="As made it closes.")).to_be_visible()
        page.get_by_role("button", name="plan", exact=True).click()
        expect(page.get_by_text("Drawn as planned.")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Take back ?: Make wall F")).click()
        expect(page.get_by_role("heading", name="You said yes to")).to_have_count(0)

    def test_what_is_built_changes_what_the_saw_cuts_only_after_a_yes(self) -> None:
        page = self.opened_at("Sign bracket", "As made")
        expect(page.get_by_role("row", name=re.compile("Brace"))).to_contain_text("691.54 mm")
        page.get_by_role("button", name="Yes, cut them so").click()
        expect(page.get_by_role("heading", name="You said yes to")).to_be_visible()
        page.get_by_role("navigation", name="Places").get_by_role("link", name="Saw").click()
        page.get_by_role("group", name="Steps").get_by_role("button").last.click()
        expect(page.get_by_text(re.compile("691.54 mm")).first).to_be_visible()

    def test_a_door_is_typed_on_its_drawing(self) -> None:
        page = self.opened_at("Slip steps handrail", "Door")
        expect(page.get_by_role("heading", name=re.compile("A door: it does not go through"))).to_be_visible()
        expect(page.get_by_text(re.compile("^It comes apart into"))).to_be_visible()
        width = page.locator('main input[aria-label^="clear width"]').first
        width.fill("1100")
        width.press("Enter")
        expect(page.get_by_role("heading", name=re.compile("A door: it goes through"))).to_be_visible()

    def test_the_order_says_why_it_cannot_be(self) -> None:
        page = self.opened_at("Rope bin", "Order")
        page.get_by_role("button", name=re.compile("^Earlier ?: Join the two halves: wall")).click()
        expect(page.get_by_role("alert")).to_contain_text("cannot come to its place")
        page.get_by_role("button", name="The usual order").click()
        expect(page.get_by_role("alert")).to_have_count(0)

    def test_axe_finds_nothing_wide_or_narrow_light_or_dark(self) -> None:
        tabs = ("Will it close?", "Readings", "As made", "Order", "Door")
        for scheme, width in (("light", 1280), ("dark", 390)):
            page = self.opened(bypass_csp=True, color_scheme=scheme)
            page.set_viewport_size({"width": width, "height": 844})
            for name in ("Bailer tub", "Slip steps handrail"):
                self.opened_at(name, tabs[0], page)
                for tab in tabs:
                    page.get_by_role("tab", name=tab).click()
                    page.wait_for_load_state("networkidle")
                    self.clean(page, f"{name}, {tab}, {width}, {scheme}")
