"""Things that people come to build, each from the first screen to a right result, with what it takes them counted. A choice or a
size that is typed is one action; no question about sizes that clash may stand in the way."""

import re

from playwright.sync_api import expect

from tests.browser.page import InTheBrowser


class Tasks(InTheBrowser):
    def setUp(self) -> None:
        super().setUp()
        self.actions = 0

    def begin(self, name: str) -> None:
        """Open a start from the first screen."""
        self.page.goto(self.url)
        self.choose(name)
        self.page.wait_for_url("**/project/*")
        self.page.wait_for_load_state("networkidle")

    def choose(self, name: str, within: str = "") -> None:
        """Press a button by its name, in a group of that name."""
        place = self.page.get_by_role("group", name=within, exact=True) if within else self.page
        place.get_by_role("button", name=name, exact=True).click()
        self.done()

    def give(self, label: str, text: str) -> None:
        """Type a size, on the drawing or in the panel, wherever it is found first."""
        field = self.page.get_by_role("textbox", name=re.compile(f"^{re.escape(label)}")).first
        field.fill(text)
        field.press("Enter")
        self.done()

    def done(self) -> None:
        self.actions += 1
        self.page.wait_for_load_state("networkidle")
        self.assertEqual(self.page.get_by_role("button", name="Leave as it was").count(), 0, "a question stands in the way")

    def size(self, label: str, text: str) -> None:
        """Wait until a size, wherever it stands, is spoken so."""
        name = re.compile(f"^{re.escape(label)}.*, {re.escape(text)}$")
        self.page.get_by_role("textbox", name=name).first.wait_for()

    def closes(self, within: int) -> None:
        """It closes, or closes as drawn, nothing is free, and it took no more than that."""
        expect(self.page.get_by_role("contentinfo")).to_contain_text(re.compile("^(Closes|Every joint closes)"))
        self.assertLessEqual(self.actions, within)

    def test_an_octagon_for_a_round_barometer(self) -> None:
        self.begin("Eight sides")
        self.choose("what it holds: round")
        self.give("what it holds, diameter", "300")
        self.size("what it holds, diameter, given", "300 millimetres")
        self.closes(within=12)
        # The rabbet came wide enough: 150 + 1 - (150 - 1 / cos 22.5) cos 22.5 = 13.42 at the least.
        expect(self.page.get_by_role("contentinfo")).to_contain_text("Closes exactly.")

    def test_the_same_by_keyboard_alone(self) -> None:
        page, pressed = self.page, 0

        def press(*keys: str) -> None:
            nonlocal pressed
            for key in keys:
                before = page.evaluate_handle("document.activeElement")
                page.keyboard.press(key)
                pressed += 1
                if key.startswith("Arrow"):  # the focus moves a moment after the key
                    page.wait_for_function("before => document.activeElement !== before", arg=before)
            page.wait_for_load_state("networkidle")

        page.goto(self.url)
        page.get_by_role("button", name="Eight sides", exact=True).wait_for()
        page.get_by_role("link", name=re.compile("^Your projects")).wait_for()
        press("Tab", "Tab", *["ArrowRight"] * 3, "Enter")
        page.wait_for_url("**/project/*")
        self.field("opening, across flats")
        # To the sizes; there the third choice of what is known, and its size.
        press("Tab", "Tab", "Enter")
        expect(page.get_by_role("tabpanel", name="The frame")).to_be_focused()
        press("Tab", "Tab", "ArrowRight", "ArrowRight", "Enter")
        self.reads("what it holds, diameter, suggested", "millimetres")
        press("Tab", *"300", "Enter")
        self.reads("what it holds, diameter, given", "300 millimetres")
        # A rail is touched on the drawing.
        press(*["Shift+Tab"] * 4)
        expect(page.get_by_role("tab", name="The frame")).to_be_focused()
        press("3")
        expect(page.get_by_role("heading", name=re.compile("settings?$"))).to_be_visible()
        press("1")
        self.reads("what it holds, diameter, given", "300 millimetres")
        press("Tab", "Enter")
        expect(page.get_by_role("button", name="Rail A on the drawing")).to_be_focused()
        press("ArrowRight", "Enter")
        expect(page.get_by_role("heading", name="Rail B", exact=True)).to_be_visible()
        # From the top of the page to Print: the cut list stands there.
        page.evaluate("window.print = () => { document.title = 'printed'; }")
        press("3")
        expect(page.get_by_role("heading", name=re.compile("settings?$"))).to_be_visible()
        press(*["Tab"] * 12, "Enter")
        expect(page.get_by_role("heading", name="What it needs")).to_be_visible()
        expect(page).to_have_title("printed")
        self.assertLessEqual(pressed, 47)

    def test_menus_begin_at_their_first_entry_and_go_by_arrow_keys(self) -> None:
        self.begin("Eight sides")
        self.page.get_by_role("button", name="Project", exact=True).press("Enter")
        expect(self.page.get_by_role("menuitem", name="Cut list to print")).to_be_focused()
        self.page.keyboard.press("ArrowDown")
        expect(self.page.get_by_role("menuitem", name="Save the cut list as CSV")).to_be_focused()
        self.page.keyboard.press("ArrowUp")
        expect(self.page.get_by_role("menuitem", name="Cut list to print")).to_be_focused()
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("heading", name="What it needs")).to_be_visible()

    def test_a_bin_of_boards_with_a_floor(self) -> None:
        self.begin("Leaning box")
        self.give("outside top, width", "400")
        self.give("outside bottom, width", "300")
        self.give("height", "350")
        self.choose("several boards, one above the other")
        self.give("Width of the boards", "145")
        self.choose("a panel", within="Floor")
        # It leans 50 over 350: atan(1 / 7) = 8.13 degrees; three boards of 145 are more than 353.55 along the slope.
        self.size("slope from vertical, follows", "8.13 degrees")
        self.size("outside top, depth, follows", "400 millimetres")
        self.size("Boards in a wall", "3")
        self.closes(within=12)

    def test_a_stool_with_rails(self) -> None:
        self.begin("Four splayed legs")
        self.give("height", "450")
        self.size("height, given", "450 millimetres")
        self.closes(within=8)
        self.page.get_by_role("tab", name="Parts").click()
        expect(self.page.get_by_role("group", name="Parts", exact=True)).to_contain_text("rail")

    def test_a_knee_brace_in_a_corner_that_is_not_square(self) -> None:
        self.begin("Knee brace")
        self.give("corner of the members", "92")
        self.size("corner of the members, given", "92 degrees")
        self.closes(within=4)

    def test_a_gable(self) -> None:
        self.begin("Gable")
        self.give("span, wall to wall", "1500")
        self.give("pitch on the left", "40")
        self.size("span, wall to wall, given", "1500 millimetres")
        self.size("pitch on the right, follows", "40 degrees")
        self.closes(within=4)

    def test_a_sloped_lid_on_a_box(self) -> None:
        self.begin("Box with a sloped lid")
        for label, text in (("width", "500"), ("depth", "350"), ("front, height", "250"), ("back, height", "340")):
            self.give(label, text)
            self.size(f"{label}, given", f"{text} millimetres")
        # A rise of 90 over 350.
        self.size("pitch, follows", "14.42 degrees")
        self.closes(within=6)

    def test_a_hood_on_a_bin(self) -> None:
        self.begin("Leaning box")
        self.page.get_by_role("button", name="Add another assembly").press("Enter")
        self.page.get_by_role("menuitem", name="add: Pyramid or hood").press("Enter")
        self.done()
        expect(self.page.get_by_text("Eaves, across flats: as Box is, outside top, width").first).to_be_in_viewport()
        self.closes(within=3)
