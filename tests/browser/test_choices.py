import re

from playwright.sync_api import expect

from tests.browser.page import InTheBrowser


class Choosing(InTheBrowser):
    def test_what_it_holds_a_board_from_the_yard_and_the_number_of_sides(self) -> None:
        page = self.start("Six sides")
        page.get_by_role("button", name="what it holds: with as many sides").click()
        # 320 across the opening, a rabbet of 6 each side, 2 of play.
        self.reads("what it holds, across flats, suggested", "330 millimetres")
        self.reads("opening, across flats, follows", "320 millimetres")
        page.get_by_label("Board from the yard").select_option("27 x 60 planed")
        self.reads("outside, across flats, follows", "440 millimetres")
        sides = page.get_by_label(re.compile("^Number of sides"))
        sides.fill("2")
        sides.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("3 to 24")
        sides.fill("5")
        sides.press("Enter")
        expect(page.get_by_text("Flat frame, 5 sides, mitered")).to_be_visible()
        self.reads("what it holds", "330")

    def test_one_corner_is_butted_and_one_side_left_out(self) -> None:
        page = self.start("Eight sides")
        page.get_by_text("Corner by corner").click()
        page.get_by_role("group", name="Corner CD").get_by_role("button", name="D runs through").click()
        expect(page.get_by_text("miters and butts")).to_be_visible()
        expect(page.get_by_role("contentinfo")).to_contain_text("Closes as drawn.")
        page.get_by_text("Open sides").click()
        page.get_by_role("group", name="Sides that are there").get_by_role("button", name="A", exact=True).click()
        page.get_by_role("button", name="flat to the ground").click()
        expect(page.get_by_role("contentinfo")).to_contain_text("the open side comes out")
        page.get_by_role("tab", name="Parts").click()
        page.locator("aside").get_by_role("button", name=re.compile("^H")).first.click()
        expect(page.get_by_text("As rail B turned over: mark the side that shows before you cut.")).to_be_visible()

    def test_a_corner_is_moved_by_keyboard_and_set_down_in_one_step(self) -> None:
        page = self.page
        page.goto(self.url)
        page.get_by_role("button", name="Any outline").click()
        self.reads("outer edge of A, follows", "520")
        corner = page.get_by_role("button", name=re.compile("^Corner 2:"))
        corner.focus()
        for _ in range(5):
            page.keyboard.press("ArrowRight")
        self.reads("outer edge of A, follows", "525")
        page.keyboard.press("Enter")
        expect(page.get_by_role("button", name="Undo")).to_be_enabled()
        page.get_by_role("button", name="Undo").click()
        self.reads("outer edge of A, follows", "520")
        expect(page.get_by_role("button", name="Undo")).to_be_disabled()

    def test_a_corner_dragged_past_straight_is_refused_in_words_and_springs_back(self) -> None:
        page = self.page
        page.goto(self.url)
        page.get_by_role("button", name="Any outline").click()
        self.reads("outer edge of A, follows", "520")
        box = page.get_by_role("button", name=re.compile("^Corner 2:")).locator(".grip-target").bounding_box()
        assert box
        page.mouse.move(box["x"] + 20, box["y"] + 20)
        page.mouse.down()
        page.mouse.move(box["x"] - 300, box["y"] - 260, steps=8)
        page.mouse.up()
        expect(page.get_by_role("alert")).to_contain_text("under 180°")
        self.reads("outer edge of A, follows", "520")

    def test_on_a_phone_nothing_that_is_tabbed_to_lies_under_the_closing_line(self) -> None:
        page = self.page
        page.set_viewport_size({"width": 390, "height": 844})
        page.goto(self.url)
        page.get_by_role("link", name="Boat trestle", exact=True).click()
        self.field("legs at the top, width")
        bar = page.get_by_role("contentinfo").bounding_box()
        assert bar
        self.assertLess(bar["height"], 0.1 * 844, "one line, opened by touch")
        page.get_by_role("button", name="More", exact=True).click()
        expect(page.get_by_text(re.compile("by itself opens"))).to_be_visible()
        page.get_by_role("button", name="Less", exact=True).click()
        for _ in range(45):
            page.keyboard.press("Tab")
            low = page.evaluate(
                "() => document.activeElement.closest('aside') && !document.activeElement.matches('[role=tabpanel]')"
                " ? document.activeElement.getBoundingClientRect().bottom : 0"
            )
            self.assertLessEqual(low, bar["y"])

    def test_on_a_phone_the_sheet_comes_first_and_the_card_below(self) -> None:
        page = self.page
        page.set_viewport_size({"width": 390, "height": 844})
        page.goto(self.url)
        page.get_by_role("link", name="Tide clock surround", exact=True).click()
        self.field("what it holds")
        page.locator('main [data-part="m1/E"]').click()
        heading = page.get_by_role("heading", name="Rail E")
        heading.scroll_into_view_if_needed()
        expect(heading).to_be_visible()
        self.assertGreater(heading.bounding_box()["y"], 0)  # type: ignore[index]
