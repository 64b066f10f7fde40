import re

from playwright.sync_api import expect

from tests.browser.page import InTheBrowser

BOTTOM, TOP = "outside bottom, width", "outside top, width"


class ALeaningBox(InTheBrowser):
    def give(self, label: str, text: str) -> None:
        """Type a size and press Enter."""
        field = self.field(label)
        field.fill(text)
        field.press("Enter")

    def test_a_suggestion_gives_way_and_says_so_and_only_given_sizes_ask_which_shall_follow(self) -> None:
        page = self.start("Leaning box", ready=BOTTOM)
        self.give(TOP, "380")
        self.reads(f"{TOP}, given", "380 millimetres")
        # atan(40 / 260)
        notice = page.get_by_role("status").filter(has_text="Slope from vertical now follows: 8.75°")
        notice.get_by_role("button", name="Undo").click()
        page.get_by_role("button", name="Side", exact=True).click()
        self.reads("slope from vertical, suggested", "10 degrees")
        self.give("height", "260")
        self.give("slope from vertical", "10")
        page.get_by_role("button", name="From above", exact=True).click()
        self.give(BOTTOM, "300")
        self.reads(f"{BOTTOM}, given", "300 millimetres")
        self.give(TOP, "380")
        expect(page.get_by_role("alert")).to_contain_text("together they make it 391.69 mm")
        # The first choice has the focus: the drawing shows what it would make of the box. Esc leaves it as it was.
        expect(page.get_by_role("button", name="height becomes 226.85 mm")).to_be_focused()
        page.keyboard.press("Tab")
        page.keyboard.press("Tab")
        self.reads(BOTTOM, "a hair under 288 and 1/2 millimetres")  # 380 - 2 x 260 tan 10
        page.keyboard.press("Escape")
        self.reads(f"{BOTTOM}, given", "300 millimetres")
        self.give(TOP, "380")
        page.get_by_role("button", name="slope from vertical becomes 8.75°").click()
        self.reads(f"{TOP}, given", "380 millimetres")

    def test_a_slope_is_typed_as_rise_and_run_by_keyboard_alone(self) -> None:
        page = self.start("Leaning box", ready=BOTTOM)
        page.get_by_role("button", name="Side", exact=True).focus()
        page.keyboard.press("Enter")
        slope = self.field("slope from vertical")
        slope.focus()
        page.keyboard.type("4:1")
        page.keyboard.press("Enter")
        self.reads("slope from vertical, given", "14.04 degrees")
        expect(page.get_by_role("contentinfo")).to_contain_text("Closes as drawn.")

    def test_a_wall_too_thick_is_refused_at_its_field_and_the_last_box_stays(self) -> None:
        page = self.start("Tub of eight", ready="outside bottom, across")
        thickness = page.locator("aside").get_by_label(re.compile("^Thickness, actual"))
        thickness.fill("400")
        thickness.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("leave nothing inside")
        self.reads("outside bottom, across flats, suggested", "380 millimetres")

    def test_a_floor_of_slats_and_a_cap_become_parts_with_their_own_cards(self) -> None:
        page = self.start("Leaning box", ready=BOTTOM)
        page.get_by_role("group", name="Floor").get_by_role("button", name="slats").click()
        page.get_by_role("group", name="Cap ring").get_by_role("button", name="mitered round the top").click()
        page.get_by_role("tab", name="Parts").click()
        page.locator("aside").get_by_role("button", name=re.compile("^slat1")).first.click()
        expect(page.locator("aside h2").first).to_contain_text("Slat")
        expect(page.locator("aside")).to_contain_text("blade tilted 10°")
        expect(page.get_by_role("contentinfo")).to_contain_text("Checked a second way, as solids: every joint touches")

    def test_views_and_solids_show_the_same_box(self) -> None:
        page = self.start("Trough", ready=BOTTOM)
        for name in ("Front", "Side", "From above", "Solid"):
            button = page.get_by_role("button", name=name, exact=True)
            button.click()
            expect(button).to_have_attribute("aria-pressed", "true")
        expect(page.get_by_role("img", name=re.compile("as solids"))).to_be_visible()
