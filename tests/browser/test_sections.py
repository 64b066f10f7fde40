import re

from playwright.sync_api import expect

from tests.browser.page import InTheBrowser


class Sections(InTheBrowser):
    def test_by_keyboard_alone_a_board_gets_a_groove_that_is_typed_on_its_drawing_and_goes_to_every_place(self) -> None:
        page = self.start("Six sides")
        more = page.get_by_role("button", name="Cut one more thing along every board")
        more.focus()
        page.keyboard.press("Enter")
        expect(page.get_by_role("menuitem", name="a rabbet")).to_be_focused()
        page.keyboard.press("ArrowDown")
        page.keyboard.press("Enter")
        across = page.get_by_role("button", name="Cut across", exact=True)
        across.focus()
        page.keyboard.press("Enter")
        field = self.field("Groove, in from the edge")
        field.focus()
        page.keyboard.type("12")
        page.keyboard.press("Enter")
        self.reads("Groove, in from the edge", "12 millimetres")
        # Deeper than the board is thick: said there, and the last groove stays.
        deep = self.field("Groove depth")
        deep.focus()
        page.keyboard.type("40")
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("There is not so much wood there: 40 mm")
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Front", exact=True).click()
        page.locator('main [data-part="m1/A"]').first.click()
        card = page.get_by_role("complementary", name="Details")
        expect(card).to_contain_text("Groove on the back")
        # A ladder rung for each of its two lines: on six sides each is 2 x 12 tan 30 shorter than the outer edge, and so on.
        expect(card.get_by_text("Groove line, 12 mm in from the outer edge, on the back")).to_be_visible()
        page.get_by_role("link", name="3 Saw").click()
        expect(page.get_by_role("group", name="Steps").get_by_role("button", name=re.compile("^groove"))).to_be_visible()

    def test_strips_are_laid_on_the_rails_and_taken_away(self) -> None:
        page = self.start("Rectangle", ready="opening width")
        page.get_by_role("button", name="Lay strips on the rails").click()
        page.get_by_role("menuitem", name="on the back").click()
        details = page.get_by_role("complementary", name="Details")
        set_back = details.get_by_label(re.compile("^Strip set back"))
        set_back.fill("9")
        set_back.press("Enter")
        details.get_by_role("button", name="what it holds", exact=True).click()
        # Now what lies between the strips gives the size; without them the frame stays as large as it is.
        self.reads("what it holds, width", "436 millimetres")  # 420 + 2 x 9 - 2
        page.get_by_role("button", name="Cut across", exact=True).click()
        self.reads("Strip set back", "9 millimetres")
        details.get_by_role("button", name=re.compile("take it away.*these strips", re.I)).click()
        self.reads("opening width", "420 millimetres")
        page.get_by_role("button", name=re.compile("^Undo")).click()
        self.reads("Strip set back", "9 millimetres")  # seen as it was seen before

    def test_the_drawing_of_the_section_is_clean_wide_and_narrow(self) -> None:
        for name in ("Crew photograph frame", "Race board frame"):
            for width, height in ((1280, 800), (390, 844)):
                page = self.opened(bypass_csp=True)
                page.set_viewport_size({"width": width, "height": height})
                page.goto(self.url)
                page.get_by_role("link", name=name, exact=True).click()
                page.get_by_role("button", name="Cut across", exact=True).click()
                self.field("rail width", page)
                self.clean(page, f"{name} at {width}")

    def test_by_keyboard_alone_a_moulding_is_added_gets_a_length_and_becomes_a_frame(self) -> None:
        page = self.opened(bypass_csp=True)
        page.goto(f"{self.url}/mouldings")
        expect(page.get_by_role("button", name="Ogee, drawn")).to_be_visible()

        def press(name: str | re.Pattern[str]) -> None:
            page.get_by_role("button", name=name).first.focus()
            page.keyboard.press("Enter")

        def write(label: str, text: str) -> None:
            field = page.get_by_label(label, exact=True)
            field.focus()
            page.keyboard.press("Control+a")
            page.keyboard.type(text)
            page.keyboard.press("Enter")

        press("Add a moulding")
        expect(page.get_by_role("heading", name="Moulding", exact=True)).to_be_visible()
        write("Called", "Slip moulding")
        press("One more length")
        expect(page.get_by_role("button", name=re.compile("^Slip moulding"))).to_contain_text("1 length, 1.00 m in all")
        self.field("Rabbet width", page).focus()
        page.keyboard.type("60")
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert").first).to_contain_text("There is not so much wood there: 60 mm")
        page.keyboard.press("Escape")
        self.clean(page, "mouldings")
        page.get_by_role("tab", name="Frames that come out").focus()
        page.keyboard.press("Enter")
        row = page.get_by_role("row", name=re.compile("^Crew photograph"))
        # 410 + 3 + 2 (45 - 8) by 300 + 3 + 74: out of a metre come two of the four.
        cell = row.get_by_role("button", name="487 × 377 mm")
        expect(cell).to_contain_text("2 pieces without a length")
        cell.focus()
        page.keyboard.press("Enter")
        details = page.get_by_role("complementary", name="Details")
        expect(details).to_contain_text("2 × 487 mm, 2 × 377 mm")
        self.clean(page, "frames that come out")
        page.set_viewport_size({"width": 390, "height": 844})
        self.clean(page, "frames that come out, on a phone")
        page.get_by_role("tab", name="Mouldings").click()
        self.clean(page, "mouldings on a phone")
        page.get_by_role("tab", name="Frames that come out").click()
        press("Make this frame")
        expect(page.get_by_role("textbox", name="Name of the project")).to_have_value("Crew photograph")
