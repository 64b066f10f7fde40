"""Stands, braces, roofs and several assemblies, driven as a person would."""

import re

from playwright.sync_api import expect

from tests.browser.page import InTheBrowser


class StandsBracesRoofs(InTheBrowser):
    def test_a_stand_is_splayed_by_its_feet_and_its_legs_are_turned_by_keyboard_alone(self) -> None:
        page = self.start("Four splayed legs", ready="legs at the top, width")
        page.get_by_role("button", name="let go of splay seen from the front").focus()
        page.keyboard.press("Enter")
        feet = self.field("feet, width")
        feet.focus()
        page.keyboard.type("420")
        page.keyboard.press("Enter")
        # atan(60 / 450)
        self.reads("splay seen from the front, follows", "7.59 degrees")
        page.get_by_role("button", name="evenly, tilted without twist").focus()
        page.keyboard.press("Enter")
        page.get_by_role("tab", name="Parts").focus()
        page.keyboard.press("Enter")
        page.keyboard.press("Space")
        expect(page.locator("aside")).to_contain_text("foot, miter")
        expect(page.get_by_role("contentinfo")).to_contain_text("Checked a second way, as solids: every joint touches")

    def test_a_frame_of_posts_is_sized_added_to_and_taken_from_by_keyboard_alone(self) -> None:
        page = self.start("Posts and a beam", ready="clear between posts AB")
        clear = self.field("clear between posts AB")
        clear.focus()
        page.keyboard.type("1400")
        page.keyboard.press("Enter")
        # Two posts of 90 and two overhangs of 160 more.
        self.reads("rail 1, upper edge, follows", "1900 millimetres")
        page.get_by_role("button", name="Add posts").focus()
        page.keyboard.press("Enter")
        expect(page.get_by_role("menuitem", name="one column more, at the right")).to_be_focused()
        page.keyboard.press("Enter")
        expect(page.get_by_text("Frame of posts, 3 posts")).to_be_visible()
        page.get_by_role("button", name="Add a rail or beam").focus()
        page.keyboard.press("Enter")
        page.keyboard.type("a rail between posts BC")
        page.keyboard.press("Enter")
        self.reads("rail 2, height of its lower edge, suggested", "1045 millimetres")
        self.reads("clear between posts AB, given", "1400 millimetres")
        page.get_by_role("tab", name="Parts").focus()
        page.keyboard.press("Enter")
        page.get_by_role("group", name="Parts", exact=True).get_by_role("button", name=re.compile("^rail 2")).focus()
        page.keyboard.press("Space")
        page.get_by_role("button", name="take it away").focus()
        page.keyboard.press("Enter")
        expect(
            page.get_by_role("group", name="Parts", exact=True).get_by_role("button", name=re.compile("^rail 2"))
        ).to_have_count(0)
        page.get_by_role("button", name=re.compile("^Undo")).focus()
        page.keyboard.press("Enter")
        expect(
            page.get_by_role("group", name="Parts", exact=True).get_by_role("button", name=re.compile("^rail 2"))
        ).to_have_count(1)

    def test_what_cannot_be_joined_is_said_and_the_frame_stays(self) -> None:
        page = self.start("Stand with a sloping top", ready="clear between posts AB")
        page.locator('main [data-part="m1/A"]').last.click()
        width = page.get_by_label("Width, left to right")
        width.fill("60")
        width.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("do not lie in one plane")
        self.reads("clear between posts AB, suggested", "810 millimetres")

    def test_a_ring_is_stood_on_one_of_its_sides(self) -> None:
        page = self.start("Six sides", ready="one outer edge")
        page.get_by_label("It stands or lies").select_option(label="on the lower edge of rail A")
        expect(page.get_by_role("group", name="View", exact=True).get_by_role("button", name="From above")).to_be_visible()
        expect(page.get_by_role("contentinfo")).to_contain_text("Checked a second way, as solids: every joint touches")
        page.get_by_label("It stands or lies").select_option(label="as it is made")
        expect(page.get_by_role("group", name="View", exact=True).get_by_role("button", name="From above")).to_have_count(0)

    def test_a_ring_above_the_legs_is_refused_at_its_field_and_the_last_stand_stays(self) -> None:
        page = self.start("Tower", ready="legs at the top, width")
        height = page.locator("aside").get_by_label(re.compile("^Ring, lower edge above the ground, ring 2"))
        height.fill("880")
        height.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("does not reach the legs")
        self.reads("height, suggested", "900 millimetres")

    def test_a_pitch_is_typed_as_rise_in_run_and_a_level_roof_is_refused(self) -> None:
        page = self.start("Gable", ready="pitch on the left")
        pitch = self.field("pitch on the left")
        pitch.fill("7 in 12")
        pitch.press("Enter")
        self.reads("pitch on the left, given", "30.26 degrees")
        pitch.fill("0")  # at once, while the first is still being saved
        pitch.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("more than 0°")
        self.field("run on the left")

    def test_what_is_there_already_is_drawn_and_is_no_part(self) -> None:
        page = self.start("Knee brace", ready="down the post")
        expect(page.locator("main .drawing .found")).not_to_have_count(0)
        page.get_by_role("tab", name="Parts").click()
        expect(page.get_by_role("group", name="Parts", exact=True).get_by_role("button")).to_have_count(1)

    def test_one_size_moves_all_that_follow_it_and_can_have_its_own_figure_again(self) -> None:
        page = self.start("Bin on a stand", ready="Stand: legs at the top, width")
        top = self.field("Stand: legs at the top, width")
        top.fill("400")
        top.press("Enter")
        # The bin follows the stand, the hood the bin's rim and 40 more: 400 + 2 x 380 tan 5 + 40.
        expect(page.locator("aside")).to_contain_text("506")
        page.locator("summary", has_text="Bin").click()
        page.get_by_role("button", name=re.compile("^let go ?: Outside bottom, width: as Stand is")).click()
        self.reads("Bin: outside bottom, width, given", "400 millimetres")

    def test_a_piece_is_fitted_by_touching_two_faces_and_its_end_moved_by_keyboard(self) -> None:
        page = self.start("Four splayed legs", ready="legs at the top, width")
        fit = page.get_by_role("button", name="Fit a piece")
        fit.focus()
        page.keyboard.press("Enter")
        page.get_by_role("button", name="Leg AB (front right), inner edge").focus()
        page.keyboard.press("Enter")
        expect(page.locator("main").get_by_role("status")).to_contain_text("where it ends")
        # A face that looks away is not offered; one that looks at it is touched with the mouse, two fifths down its line.
        expect(page.get_by_role("button", name="Leg DA (front left), outer edge")).to_have_count(0)
        line = page.get_by_role("button", name="Leg DA (front left), inner edge").locator(".face")
        box = line.bounding_box()
        assert box
        page.mouse.click(box["x"] + box["width"] * 0.6, box["y"] + box["height"] * 0.4)
        expect(page.locator("aside h2").first).to_have_text("Piece 1")
        expect(page.get_by_role("contentinfo")).to_contain_text("Closes")
        before = page.get_by_role("button", name=re.compile("^End of the piece: drag")).first.bounding_box()
        ring = page.get_by_role("button", name=re.compile("^End of the piece: drag")).first
        ring.focus()
        for _ in range(4):
            page.keyboard.press("Shift+ArrowUp")
        page.keyboard.press("Enter")
        width = page.get_by_role("textbox", name=re.compile("^Its width"))
        width.fill("33")
        width.press("Enter")
        expect(page.locator("aside")).to_contain_text("33 mm wide, 18 mm thick")
        expect(page.locator("aside")).to_contain_text("Begins on leg AB (front right), from its lower end")
        after = ring.bounding_box()
        assert before and after
        self.assertGreater(before["y"] - after["y"], 10)

    def test_a_size_is_said_as_a_sum_of_a_named_one_and_follows_it(self) -> None:
        page = self.start("Four splayed legs", ready="legs at the top, width")
        line = page.get_by_role("textbox", name="Name a size")
        line.fill("gap 20")
        line.press("Enter")
        expect(page.get_by_role("alert").filter(has_text="Write a name, an equals sign and the size")).to_be_visible()
        line.fill("gap = 20")
        line.press("Enter")
        gap = page.get_by_role("textbox", name=re.compile("^gap, given"))
        expect(gap).to_have_value("20")
        top = self.field("legs at the top, width")
        top.fill("300 plus 2 gap")
        top.press("Enter")
        said = page.locator("main").get_by_role(
            "textbox", name=re.compile(r"^legs at the top, width = 300 \+ 2 gap, given, 340 millimetres")
        )
        expect(said).to_have_value("300 + 2 gap")
        gap.fill("35")
        gap.press("Enter")
        self.reads("legs at the top, width = 300 + 2 gap, given", "370 millimetres")
        page.get_by_role("button", name=re.compile("take it away.*The name gap")).press("Enter")
        self.reads("legs at the top, width, given", "370 millimetres")

    def test_a_variant_is_made_changed_and_compared(self) -> None:
        page = self.start("Prop", ready="head up the wall")
        page.get_by_role("button", name="Project").click()
        page.get_by_role("menuitem", name="Duplicate as a variant").click()
        expect(page.get_by_role("textbox", name="Name of the project")).to_have_value(re.compile("variant"))
        wall = self.field("head up the wall")
        wall.fill("1500")
        wall.press("Enter")
        self.reads("head up the wall, given", "1500 millimetres")
        page.get_by_role("button", name="Project").click()
        page.get_by_role("menuitem", name="Compare with the original").click()
        row = page.get_by_role("row", name=re.compile("^Head up the wall"))
        expect(row).to_contain_text("1500 mm")
        expect(row).to_contain_text("1800 mm")
        page.get_by_role("button", name="Side by side").click()
        expect(page.get_by_role("figure")).to_have_count(2)

    def test_the_whole_is_brought_to_another_size_with_what_changes_seen_first(self) -> None:
        page = self.start("Four splayed legs", ready="legs at the top, width")
        page.get_by_role("button", name="Project").click()
        page.get_by_role("menuitem", name="At another size").click()
        size = page.get_by_role("textbox", name="Instead of 450 mm")
        size.fill("4x")
        expect(page.get_by_role("alert")).to_contain_text("no length")
        expect(page.get_by_role("button", name="Make it this size")).to_be_disabled()
        size.fill("600")
        # In proportion: 300 x 600 / 450; kept, it stays, and the splay with it.
        row = page.get_by_role("row", name=re.compile("^Legs at the top, width"))
        expect(row).to_contain_text("400 mm")
        keep = page.get_by_role("button", name="legs at the top, width, 300 mm")
        keep.focus()
        page.keyboard.press("Enter")
        expect(row).to_have_count(0)
        expect(page.locator("main .ghost").first).to_be_attached()
        page.get_by_role("button", name="Make it this size").click()
        self.reads("height, given", "600 millimetres")
        self.reads("legs at the top, width, given", "300 millimetres")
        page.get_by_role("button", name=re.compile("^Undo")).click()
        self.reads("height, suggested", "450 millimetres")
