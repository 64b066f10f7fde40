"""Files in and out, examples and long work, as a person meets them."""

import json
import re
import tempfile
from pathlib import Path
from unittest import mock

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
