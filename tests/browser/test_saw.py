import re

from playwright.sync_api import Page, expect

from tests.browser.page import InTheBrowser


class Saw(InTheBrowser):
    def opened_at(self, name: str, page: Page | None = None) -> Page:
        """The Saw place of one of the demo's projects, reached as anybody would."""
        page = page or self.page
        page.goto(self.url)
        page.get_by_role("link", name=re.compile(f"^{name}")).first.click()
        page.get_by_role("navigation", name="Places").get_by_role("link", name="Saw").click()
        expect(page.get_by_role("heading", name=re.compile(f"^{name}: \\d+ steps"))).to_be_visible()
        expect(page.get_by_text(re.compile("^Simulated: all")).first).to_be_visible()
        return page

    def test_a_way_out_is_taken_with_one_touch_and_undone(self) -> None:
        page = self.opened_at("Oar loft ladder")
        page.get_by_role("group", name="Steps").get_by_role("button", name="first end ×2 Front upright").click()
        expect(page.get_by_text(re.compile("^Past the stop: to the .* this saw")).first).to_be_visible()
        out = page.get_by_role("listitem").filter(has=page.get_by_role("heading", name="A wedge between fence and board"))
        expect(out).to_contain_text("At its thick end")
        out.get_by_role("button", name="Do it so").click()
        expect(page.get_by_text("the wedge between fence and board").first).to_be_visible()
        page.get_by_role("banner").get_by_role("button", name="Undo").click()
        expect(page.get_by_text(re.compile("^Past the stop")).first).to_be_visible()

    def test_by_keyboard_alone_a_step_is_chosen_laid_another_way_and_moved(self) -> None:
        page = self.opened_at("Honours board frame")
        steps = page.get_by_role("group", name="Steps")
        steps.get_by_role("button").first.focus()
        for place in range(4):
            page.keyboard.press("ArrowRight")
            expect(steps.get_by_role("button").nth(place + 1)).to_be_focused()
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name=re.compile("second end: left end")).first).to_be_visible()
        chosen = page.get_by_role("group", name="Ways in reach").locator('[aria-pressed="true"]')
        before = chosen.inner_text()
        page.get_by_role("group", name="Ways in reach").get_by_role("button").first.focus()
        page.keyboard.press("Enter")
        expect(page.get_by_role("button", name="Let Fennup pick again")).to_be_visible()
        self.assertNotEqual(chosen.inner_text(), before)
        page.get_by_role("button", name="Let Fennup pick again").focus()
        page.keyboard.press("Enter")
        expect(page.get_by_role("button", name="Let Fennup pick again")).to_have_count(0)
        # Before its first end it cannot be cut: said by name, and nothing moves.
        page.get_by_role("tab", name="Order").focus()
        page.keyboard.press("Enter")
        page.get_by_role("button", name="Earlier").focus()
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("must come before")

    def test_a_step_is_dragged_before_another_and_the_order_forgotten(self) -> None:
        page = self.opened_at("Gable window trim")
        chips = page.get_by_role("group", name="Steps").locator(".step-chip:not(.test)")
        names = [text.split("\n")[-1] for text in chips.all_inner_texts()]
        last = next(k for k in range(len(names) - 1, 0, -1) if chips.nth(k).inner_text().startswith("first end"))
        moved = chips.nth(last).inner_text()
        chips.nth(last).drag_to(chips.nth(0))
        expect(chips.nth(0)).to_have_text(re.compile(re.escape(moved.split("\n")[-1])))
        page.get_by_role("tab", name="Order").click()
        page.get_by_role("button", name="Forget my order").click()
        expect(chips.nth(0)).to_have_text(re.compile(re.escape(names[0])))

    def test_a_scrap_is_measured_and_what_to_dial_follows(self) -> None:
        page = self.opened_at("Oar hatch arch")
        page.get_by_role("group", name="Steps").get_by_role("button", name=re.compile("^first end")).first.click()
        page.get_by_text("Test: what did the scrap read?").click()
        page.get_by_role("textbox", name="The corner").fill("wide")
        page.get_by_role("button", name="Keep it with the tool").click()
        expect(page.get_by_role("alert")).to_contain_text("is no angle")
        expect(page.get_by_role("textbox", name="The corner")).to_have_value("wide")
        label = page.get_by_role("group", name="Which scale").get_by_role("button", pressed=True).inner_text()
        swing = float(re.search(r"[\d.]+", label)[0])  # type: ignore[index]
        page.get_by_role("textbox", name="The corner").fill(f"{180 - 2 * (swing - 0.5):.2f}")
        page.get_by_role("button", name="Keep it with the tool").click()
        expect(page.get_by_text(re.compile(r"makes 0\.\d+° less than it shows")).first).to_be_visible()
        expect(page.get_by_text(re.compile("^Dial .*: tested on")).first).to_be_visible()
        page.get_by_role("tab", name="Tools").click()
        expect(page.get_by_role("heading", name="What tests have found").first).to_be_visible()

    def test_the_place_is_clean_and_fits_a_phone(self) -> None:
        for scheme, size in (("light", (1280, 800)), ("dark", (390, 844))):
            page = self.opened(color_scheme=scheme, bypass_csp=True)
            page.set_viewport_size({"width": size[0], "height": size[1]})
            self.opened_at("Sand bin on a stand", page)
            for tab in ("This step", "Order", "Tools", "Marks", "Paper"):
                page.get_by_role("tab", name=tab).click()
                page.wait_for_load_state("networkidle")
                self.clean(page, f"saw, {tab}, {scheme}")
            self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), size[0])
