import re
import tempfile
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.page import InTheBrowser


class Boards(InTheBrowser):
    def opened_at(self, name: str, page: Page | None = None) -> Page:
        """The Boards place of one of the demo's projects, reached as anybody would."""
        page = page or self.page
        page.goto(self.url)
        page.get_by_role("link", name=re.compile(f"^{name}")).first.click()
        page.get_by_role("navigation", name="Places").get_by_role("link", name="Boards").click()
        expect(page.get_by_role("heading", name=f"{name}: boards")).to_be_visible()
        return page

    def test_short_by_a_little_is_cured_with_one_touch_and_undone(self) -> None:
        page = self.opened_at("Honours board frame")
        expect(page.get_by_role("heading", name="Short by at most 8.84 mm on Larch 3.")).to_be_visible()
        page.get_by_role("button", name="outside width 998 mm in place of 1003 mm").click()
        expect(page.get_by_role("heading", name="Every part has its board.")).to_be_visible()
        expect(page.get_by_role("contentinfo")).to_contain_text("2 boards")
        page.keyboard.press("1")
        page.get_by_role("banner").get_by_role("button", name="Undo").click()
        page.keyboard.press("2")
        expect(page.get_by_role("heading", name="Short by at most 8.84 mm on Larch 3.")).to_be_visible()

    def test_a_part_touched_here_lights_up_in_the_shape_and_the_other_way_round(self) -> None:
        page = self.opened_at("Oar hatch arch")
        page.get_by_role("button", name="Rail C on the drawing").focus()
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name=re.compile("^Rail C, out of"))).to_be_visible()
        page.keyboard.press("1")
        expect(page.locator('main .wood.touched[data-part="m1/C"]').first).to_be_visible()
        page.locator('main .wood[data-part="m1/F"]').first.click()
        page.keyboard.press("2")
        expect(page.locator('main .wood.touched[data-part="m1/F"]').first).to_be_visible()

    def test_a_part_is_dragged_to_another_board_and_what_moved_is_told(self) -> None:
        page = self.opened_at("Boat trestle")
        rows = page.locator("main section[data-source]")
        part = page.locator('main .wood[data-part="m1/CD"]').first
        home = part.evaluate("e => e.closest('[data-source]').dataset.source")
        rest = [r for r in rows.all() if r.get_attribute("data-source") != home]
        self.assertTrue(rest)
        box = part.bounding_box()
        assert box
        page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        page.mouse.down()
        # To where the pin cannot be kept: no square leg comes out of a board 22 thick. It is told, and let go again.
        target = rest[0].bounding_box()
        assert target
        page.mouse.move(target["x"] + 60, target["y"] + target["height"] - 30, steps=6)
        page.mouse.up()
        expect(page.get_by_text("Leg CD (back left) finds no place in the board that you put it into.")).to_be_visible()
        page.get_by_role("button", name="Let it go elsewhere").click()
        expect(page.get_by_role("heading", name="Every part has its board.")).to_be_visible()

    def test_by_keyboard_alone_a_board_is_left_out_and_let_in_again(self) -> None:
        page = self.opened_at("Oar hatch arch")
        out = page.get_by_role("button", name=re.compile("^Leave it out ?: Larch 1"))
        out.focus()
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name=re.compile("^Larch 1"))).to_have_count(0)
        again = page.get_by_role("button", name="Larch 1: use it again")
        again.focus()
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name=re.compile("^Larch 1"))).to_be_visible()
        page.keyboard.press("3")
        expect(page.get_by_role("heading", name=re.compile(r"^Oar hatch arch: \d+ steps"))).to_be_visible()

    def test_a_board_is_typed_onto_the_rack_and_the_plan_follows(self) -> None:
        page = self.opened_at("Honours board frame")
        page.get_by_role("tab", name="Rack").click()
        page.get_by_role("button", name="Add a board").click()
        length = page.get_by_role("region", name=re.compile("^Board ")).get_by_label(re.compile("^Length"))
        length.fill("40000")
        length.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("20000 mm")
        length.fill("2100")
        length.press("Enter")
        expect(length).to_have_attribute("aria-label", re.compile("2100 millimetres"))
        page.get_by_role("tab", name="The plan").click()
        expect(page.get_by_role("heading", name="Every part has its board.")).to_be_visible()
        page.get_by_role("tab", name="Rack").click()
        ring = page.get_by_role("button", name=re.compile("^Trim at the left end")).first
        ring.focus()
        for _ in range(3):
            page.keyboard.press("ArrowRight")
        page.keyboard.press("Enter")
        expect(page.get_by_role("button", name=re.compile("^Undo"))).to_be_enabled()
        page.get_by_role("region", name=re.compile("^Board ")).get_by_role("button", name=re.compile("^Board [0-9]+$")).click()
        page.get_by_role("button", name="Take it away").click()
        expect(page.get_by_role("region", name=re.compile("^Board "))).to_have_count(0)

    def test_when_all_is_cut_what_is_left_goes_back_and_that_is_said_and_undone(self) -> None:
        page = self.opened_at("Slipway warning board")
        page.get_by_role("button", name="All cut: put the offcuts on the rack").click()
        # The only board of the plan leaves the rack; what is said stays while the plan is made anew.
        expect(page.get_by_text(re.compile("^1 taken off the rack, "))).to_be_visible()
        page.get_by_role("tab", name="Rack").click()
        page.get_by_role("banner").get_by_role("button", name=re.compile("^Undo ?: cuts done")).click()
        expect(page.get_by_role("button", name=re.compile("^Offcut, Slipway"))).to_have_count(0)

    def test_a_table_that_cannot_be_is_answered_beside_its_button(self) -> None:
        page = self.opened_at("Key case")
        page.get_by_role("tab", name="Rack").click()
        with tempfile.TemporaryDirectory() as folder:
            table = Path(folder) / "rack.csv"
            table.write_text("name,length_mm\nA,2000\n")
            page.get_by_label("Add from a CSV").set_input_files(table)
            expect(page.get_by_role("alert")).to_contain_text("no column for width_mm, thickness_mm")
            table.write_text("name,length_mm,width_mm,thickness_mm\nBow locker lid,905,140,18\n")
            page.get_by_label("Add from a CSV").set_input_files(table)
            # The browser reads the file when it comes to it: until then it stays.
            expect(page.get_by_role("button", name="Bow locker lid", exact=True)).to_be_visible()
            page.evaluate("() => { File.prototype.text = () => Promise.reject(new DOMException('gone', 'NotFoundError')) }")
            page.get_by_label("Add from a CSV").set_input_files(table)
            expect(page.get_by_role("alert")).to_contain_text("rack.csv could not be read. Choose it once more.")

    def test_on_a_phone_the_list_is_ticked_and_what_was_not_there_is_said(self) -> None:
        phone = self.opened(is_mobile=True, has_touch=True)
        phone.set_viewport_size({"width": 390, "height": 844})
        page = self.opened_at("Fender and line ladder", phone)
        page.get_by_role("tab", name="To buy").click()
        page.get_by_role("link", name="The list for the yard").click()
        boxes = page.get_by_role("checkbox")
        expect(boxes.first).to_be_visible()
        boxes.first.check()
        count = boxes.count()
        expect(page.get_by_role("status").first).to_contain_text(f"{count - 1} of {count} still to find")
        page.reload()
        expect(boxes.first).to_be_checked()
        name = page.locator("main li").nth(1).locator("label span span").first.inner_text()
        page.locator("main li").nth(1).get_by_text("It was not as the list says").click()
        page.get_by_role("button", name="They had none of it: plan without").first.click()
        expect(page.get_by_text(name, exact=True)).to_have_count(0)
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)

    def test_the_yard_is_away_and_everything_goes_on(self) -> None:
        page = self.opened_at("Sign bracket")
        page.get_by_role("tab", name="Yard").click()
        expect(page.get_by_text("Reedham timber yard, read")).to_be_visible()
        page.get_by_role("button", name="Ask for the newest list").click()
        expect(page.get_by_text("The yard does not answer. The last list stands.")).to_be_visible()
        expect(page.get_by_text("planed oak 40 × 95").first).to_be_visible()

    def test_axe_finds_nothing_wide_or_narrow_light_or_dark(self) -> None:
        for scheme, width, height in (("light", 1280, 800), ("dark", 390, 844)):
            page = self.opened_at("Boat trestle", self.opened(color_scheme=scheme, bypass_csp=True))
            page.set_viewport_size({"width": width, "height": height})
            page.locator('main .wood[data-part="m1/CD"]').first.click()
            self.clean(page, f"plan, {scheme}")
            for tab in ("Rack", "Yard", "To buy"):
                page.get_by_role("tab", name=tab).click()
                page.wait_for_load_state("networkidle")
                self.clean(page, f"{tab}, {scheme}")
            page.get_by_role("link", name="The list for the yard").click()
            page.get_by_role("checkbox").first.wait_for()
            self.clean(page, f"list, {scheme}")
