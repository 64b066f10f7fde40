"""Files in and out, examples and long work, as a person meets them."""

import json
import random
import re
import tempfile
from io import BytesIO
from pathlib import Path
from unittest import mock

from PIL import Image
from playwright.sync_api import expect

from fennup.app.worker import work
from tests.browser.page import InTheBrowser
from tests.core.frames import rectangle


class FilesAndExamples(InTheBrowser):
    def test_a_project_is_saved_as_a_file_and_brought_in_again_by_keyboard(self) -> None:
        page = self.start("Six sides")
        page.get_by_role("button", name="Project").focus()
        page.keyboard.press("Enter")
        with page.expect_download() as saved:
            page.get_by_role("menuitem", name="Save the project as a file").press("Enter")
        document = json.loads(Path(saved.value.path()).read_text())
        self.assertEqual((document["format"], saved.value.suggested_filename), ("fennup.project", "six-sided-frame.fennup.json"))
        document["project"]["name"] = "Brought in again"
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "gate.fennup.json"
            file.write_text(json.dumps(document))
            # Heard from before the page is opened: asked for just before the key, the browser may still open a window of its own.
            page.once("filechooser", lambda chooser: chooser.set_files(str(file)))
            page.goto(self.url)
            page.get_by_role("link", name="Bring in a file").press("Enter")
            page.get_by_label("Choose a file").focus()
            page.keyboard.press("Enter")
            expect(page.get_by_role("list", name="Comes in")).to_contain_text("Brought in again")
            page.get_by_role("button", name="Bring it in").press("Enter")
            expect(page).to_have_title(re.compile("Brought in again"))
            page.goto(f"{self.url}/bring-in")
            file.write_text("{nothing")
            page.get_by_label("Choose a file").set_input_files(str(file))
            expect(page.get_by_role("alert")).to_contain_text("damaged at line 1")
            expect(page.get_by_role("button", name="Bring it in")).to_have_count(0)

    def test_examples_are_marked_and_removed_together_and_a_backup_is_made_by_one_button(self) -> None:
        page = self.page
        page.goto(self.url)
        expect(page.get_by_text("Example.").first).to_be_visible()
        page.get_by_role("button", name="Make a backup copy").click()
        expect(page.get_by_role("status").filter(has_text="Copied to")).to_contain_text("backups")
        page.get_by_role("button", name="Remove the examples").click()
        expect(page.get_by_text("Example.")).to_have_count(0)
        expect(page.get_by_text(re.compile(r"^Deleted projects \(\d\d\)"))).to_be_visible()


def camera_photo(megabytes: float, seed: int) -> bytes:
    """A photo as large as a phone's camera makes it: noise does not compress."""
    wide = int((megabytes * 1e6 / 1.1) ** 0.5)
    picture = BytesIO()
    noise = random.Random(seed).randbytes(wide * wide * 3)
    Image.frombytes("RGB", (wide, wide), noise).save(picture, "JPEG", quality=95)
    return picture.getvalue()


class RealSizes(InTheBrowser):
    def photo(self, seed: int, called: str) -> None:
        page = self.page
        content = camera_photo(4.0, seed)
        self.assertGreater(len(content), 4e6)
        page.get_by_label("What is seen on the photo").fill(called)
        page.get_by_label("Take or choose").set_input_files({"name": "IMG_0001.jpg", "mimeType": "image/jpeg", "buffer": content})
        expect(page.get_by_alt_text(called)).to_be_visible()

    def brought_in(self, name: str, content: bytes, said: str) -> None:
        page = self.page
        page.goto(f"{self.url}/bring-in")
        file = {"name": name, "mimeType": "application/json", "buffer": content}
        page.get_by_label("Choose a file").set_input_files(file)
        expect(page.get_by_role("list", name="Comes in")).to_contain_text(said)
        page.get_by_role("button", name="Bring it in").press("Enter")

    def test_photos_of_a_camera_a_project_with_three_and_a_workshop_go_in(self) -> None:
        page = self.start("Six sides")
        page.keyboard.press("7")
        for seed, called in enumerate(("Dry fit", "In clamps", "Done")):
            self.photo(seed, called)
        project = page.url.partition("/project/")[2].partition("/")[0]
        client = self.server.app.test_client()
        document = client.get(f"/api/projects/{project}/file").json
        document["project"]["name"] = "With its photos"
        self.brought_in("three.fennup.json", json.dumps(document).encode(), "With its photos")
        expect(page).to_have_title(re.compile("With its photos"))
        page.keyboard.press("7")
        for called in ("Dry fit", "In clamps", "Done"):
            expect(page.get_by_alt_text(called)).to_be_visible()
        workshop = client.get("/api/workshop/file").data
        self.assertGreater(len(workshop), 5e6)
        self.brought_in("workshop.fennup.json", workshop, "With its photos")
        expect(page).to_have_url(f"{self.url}/")

    def test_a_fault_of_the_page_is_not_told_as_a_server_that_does_not_answer(self) -> None:
        page = self.start("Six sides")
        page.keyboard.press("7")
        page.evaluate("() => { window.Blob = class { constructor() { throw new Error('out of paper') } } }")
        page.get_by_label("A note", exact=True).fill("Clamp from the middle out.")
        page.get_by_role("button", name="Write it down").first.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("out of paper")
        expect(page.get_by_role("alert")).not_to_contain_text("does not answer")
        self.assertEqual([c for c in self.complaints if "out of paper" not in c], [])
        self.complaints.clear()


class LongWork(InTheBrowser):
    def test_the_drawing_is_there_at_once_and_the_second_check_comes_by_itself(self) -> None:
        app = self.server.app
        worker = app.config["WORKER"] = mock.Mock()
        with mock.patch("fennup.app.services.proofs.MOST_MS", 0.0):
            project = app.test_client().post("/api/projects", json={"spec": rectangle("outside", 651.0, 400.0, 60.0)}).json
            page = self.page
            page.goto(f"{self.url}/project/{project['id']}")
            closing = page.get_by_role("contentinfo")
            expect(closing).to_contain_text("A second check, as solids, is still being made.")
            worker.wake.assert_called()
            self.assertTrue(work(app.config["STORE"]))
            expect(closing).to_contain_text("every joint touches")
        del app.config["WORKER"]
