"""The Log in the browser: the clock, notes, photos and lessons; cost; again; files; an outline and a plan come in."""

import re
import tempfile
from io import BytesIO
from pathlib import Path

import ezdxf
from PIL import Image
from playwright.sync_api import expect

from tests.browser.page import InTheBrowser


class Log(InTheBrowser):
    def test_the_clock_a_note_a_lesson_and_a_photo_by_keyboard(self) -> None:
        page = self.start("Six sides")
        page.keyboard.press("7")
        expect(page.get_by_text("Nothing has happened yet.").first).to_be_visible()
        page.get_by_label("What you are at").select_option("Gluing")
        page.get_by_role("button", name="Start the clock").press("Enter")
        expect(page.get_by_role("status").filter(has_text="Gluing")).to_contain_text("0 min")
        page.get_by_role("button", name="Stop the clock").press("Enter")
        note = page.get_by_label("A note", exact=True)
        note.fill("Clamp from the middle out.")
        page.get_by_label("A lesson for").select_option("Coats")
        page.get_by_role("button", name="Write it down").first.press("Enter")
        told = page.get_by_role("list", name="Day by day")
        expect(told).to_contain_text("Clamp from the middle out.")
        expect(told).to_contain_text("Comes back: Coats")
        expect(note).to_have_value("")
        picture = BytesIO()
        Image.new("RGB", (80, 60), (90, 60, 30)).save(picture, "PNG")
        page.get_by_label("What is seen on the photo").fill("The first corner")
        page.get_by_label("Take or choose").set_input_files(
            {"name": "a.png", "mimeType": "image/png", "buffer": picture.getvalue()}
        )
        expect(page.get_by_alt_text("The first corner")).to_be_visible()
        self.assertEqual(page.get_by_alt_text("The first corner").evaluate("e => e.complete && e.naturalWidth"), 80)
        page.get_by_label("Take or choose").set_input_files({"name": "b.png", "mimeType": "image/png", "buffer": b"no photo"})
        expect(page.get_by_role("alert")).to_contain_text("no photo")
        page.get_by_role("button", name="Understood").click()
        page.get_by_role("button", name=re.compile("^Take back ?: The first corner")).press("Enter")
        expect(page.get_by_alt_text("The first corner")).to_have_count(0)
        page.get_by_role("tab", name="Lessons").click()
        expect(page.get_by_role("list", name="Lessons")).to_contain_text("From this project.")
        # Another project is told it once, by the day, until it is read.
        other = self.start("Six sides")
        other.keyboard.press("6")
        other.get_by_role("tab", name="By the day").click()
        reminder = other.get_by_role("complementary", name="Learned before").filter(has_text="middle out")
        expect(reminder).to_contain_text("Clamp from the middle out.")
        reminder.get_by_role("button", name="Read").press("Enter")
        expect(reminder).to_have_count(0)
        other.reload()
        other.get_by_role("tab", name="By the day").click()
        expect(other.get_by_role("heading", name="Steps")).to_be_visible()
        expect(reminder).to_have_count(0)

    def test_a_forgotten_clock_is_put_right_on_a_phone(self) -> None:
        page = self.page
        page.set_viewport_size({"width": 390, "height": 844})
        self.opened_in("7 Log", "Oar hatch arch", "Story")
        expect(page.get_by_role("contentinfo")).to_contain_text("The clock was forgotten")
        page.get_by_role("button", name="It was 1 h 10 min").click()
        expect(page.get_by_role("contentinfo")).to_contain_text("1 day, 1 h 10 min")

    def test_what_it_costs_follows_what_is_typed(self) -> None:
        page = self.page
        self.opened_in("7 Log", "Rope bin", "Cost")
        rate = page.get_by_label("An hour is to earn, EUR")
        expect(page.get_by_text("Price at 22.00 EUR an hour")).to_be_visible(timeout=30_000)
        rate.fill("30")
        rate.press("Enter")
        expect(page.get_by_text("Price at 30.00 EUR an hour")).to_be_visible()
        rate.fill("a lot")
        rate.press("Enter")
        expect(rate).to_have_value("a lot")
        expect(page.get_by_text("is no number").first).to_be_visible()
        rate.press("Escape")
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_text("Price at 22.00 EUR an hour")).to_be_visible()

    def test_it_is_built_again_and_goes_out_as_a_file(self) -> None:
        page = self.start("Six sides")
        page.keyboard.press("7")
        page.get_by_role("tab", name="Again").click()
        page.get_by_label("How many").fill("13")
        expect(page.get_by_role("alert")).to_contain_text("From 1 to 12")
        page.get_by_label("How many").fill("3")
        page.get_by_label("Called").fill("Ring")
        page.get_by_role("button", name="Build 3 of it").press("Enter")
        expect(page).to_have_title(re.compile("Ring, 1 of 3"))
        page.get_by_role("tab", name="Again").click()
        expect(page.get_by_role("heading", name=re.compile("for 3 projects"))).to_be_visible()
        page.get_by_role("tab", name="Files").click()
        with page.expect_download() as saved:
            page.get_by_role("link", name="Save Drawings, DXF").press("Enter")
        self.assertEqual(saved.value.suggested_filename, "ring-1-of-3.dxf")
        self.assertFalse(ezdxf.readfile(saved.value.path()).audit().errors)

    def test_axe_finds_nothing_wide_or_narrow_light_or_dark(self) -> None:
        for width, scheme in ((1280, "light"), (390, "dark")):
            page = self.opened(bypass_csp=True, color_scheme=scheme)
            page.set_viewport_size({"width": width, "height": 844})
            for name, tab in (
                ("Oar hatch arch", "Story"),
                ("Oar hatch arch", "As made"),
                ("Key case", "Lessons"),
                ("Rope bin", "Cost"),
                ("Rope bin", "Again"),
                ("Rope bin", "Files"),
            ):
                with self.subTest(tab=tab, width=width):
                    self.opened_in("7 Log", name, tab, page)
                    page.wait_for_load_state("networkidle")
                    self.clean(page, f"{name}, {tab}, {width}, {scheme}")
            for address in ("bring-in", "plan"):
                page.goto(f"{self.url}/{address}")
                page.wait_for_load_state("networkidle")
                self.clean(page, f"{address}, {width}, {scheme}")


class ComingIn(InTheBrowser):
    def test_an_outline_is_looked_at_and_becomes_a_project(self) -> None:
        page = self.page
        page.goto(f"{self.url}/bring-in")
        with tempfile.TemporaryDirectory() as folder:
            drawing = Path(folder) / "porthole.svg"
            drawing.write_text(
                '<svg xmlns="http://www.w3.org/2000/svg" width="500mm" height="500mm" viewBox="0 0 500 500"><circle cx="250" cy="250" r="200"/></svg>'
            )
            page.get_by_label("Choose a file").set_input_files(str(drawing))
            expect(page.get_by_role("list", name="Comes in")).to_contain_text("An outline of 24 corners")
            page.get_by_label("Boards wide, mm").fill("300")
            expect(page.get_by_role("list", name="Does not come in")).to_contain_text("does not work yet")
            page.get_by_label("Boards wide, mm").fill("70")
            expect(page.get_by_role("list", name="Does not come in")).to_have_count(0)
            page.get_by_role("button", name="Bring it in").press("Enter")
            expect(page).to_have_title(re.compile("porthole"))
            page.goto(f"{self.url}/bring-in")
            table = Path(folder) / "rack.csv"
            table.write_text("Board;How long;Width;Thick\nA;2400;120;22\n")
            page.get_by_label("Choose a file").set_input_files(str(table))
            expect(page.get_by_role("list", name="Comes in")).to_contain_text("2400 mm × 120 mm × 22 mm")
            page.get_by_label("What Thick is").select_option("left out")
            expect(page.get_by_role("list", name="Does not come in")).to_contain_text("say which column is the thickness")
            expect(page.get_by_role("button", name="Bring it in")).to_be_disabled()
            page.get_by_label("What Thick is").select_option("thickness")
            page.get_by_role("button", name="Bring it in").press("Enter")
            expect(page.get_by_role("status")).to_contain_text("1 board is on the rack now.")

    def test_a_plans_misprint_is_found_and_the_plan_becomes_a_project(self) -> None:
        page = self.page
        page.goto(self.url)
        page.get_by_role("link", name="Check a plan").press("Enter")
        page.get_by_label("It is a").select_option("Tub of eight")
        page.get_by_label("What the plan says").fill(
            "Outside bottom, across flats: 356\nUp the slope: 203\nSlope from vertical: 15°\nHeight: 169\nA nice tub"
        )
        page.get_by_role("button", name="Read it").press("Enter")
        expect(page.get_by_text("No figure in: A nice tub.")).to_be_visible()
        page.get_by_role("button", name="Check 4 figures").press("Enter")
        expect(page.get_by_role("heading", name=re.compile("Not all of it can be true"))).to_be_visible(timeout=20_000)
        height = page.get_by_role("row", name=re.compile("^Height"))
        page.get_by_label("Its figure: Height").fill("196")
        page.get_by_role("button", name="Check 4 figures").press("Enter")
        expect(page.get_by_role("heading", name="All of it can be true at once.")).to_be_visible(timeout=20_000)
        expect(height).to_contain_text("196.08 mm")
        page.get_by_role("button", name="Make a project of it").press("Enter")
        expect(page).to_have_title(re.compile("From a plan"))
