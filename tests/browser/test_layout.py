"""Every start's drawings as they lie on the sheet: nothing on a letter or a ring, no figure on another, nothing over the edge."""

from typing import Any

from playwright.sync_api import expect

from tests.browser.page import InTheBrowser

# Of every drawing its figures with their words, the letters, the rings and the wood, in the drawing's own pixels.
LIES = """() => [...document.querySelectorAll('main .drawing')].map((drawing) => {
  const home = drawing.getBoundingClientRect();
  const of = (selector) => [...drawing.querySelectorAll(selector)].map((e) => {
    const r = e.getBoundingClientRect();
    return [e.textContent || e.getAttribute('class'), r.left - home.left, r.top - home.top, r.right - home.left, r.bottom - home.top];
  });
  return { wide: home.width, high: home.height, figures: of('.figure-place'), letters: of('svg text'), rings: of('.grip'),
    wood: of('.wood, .found') };
})"""
Rect = list[Any]


def meet(a: Rect, b: Rect, by: float) -> bool:
    """Whether two rectangles share more than a little."""
    return min(a[3], b[3]) - max(a[1], b[1]) > by and min(a[4], b[4]) - max(a[2], b[2]) > by


class OnTheSheet(InTheBrowser):
    def test_nothing_lies_on_a_letter_a_ring_or_a_figure_and_nothing_touches_the_edge(self) -> None:
        page = self.page
        page.goto(self.url)
        wrong = []
        for start in page.request.get(f"{self.url}/api/starts").json()["starts"]:
            made = page.request.post(f"{self.url}/api/projects", data={"start": start["code"]}, headers={"Origin": self.url})
            page.goto(f"{self.url}/project/{made.json()['id']}")
            page.locator("main .drawing .figure-place").first.wait_for()
            page.evaluate("document.fonts.ready")
            views = page.get_by_role("group", name="View", exact=True).get_by_role("button").all_inner_texts()
            for view in [name for name in views if name != "Solid"]:
                page.get_by_role("button", name=view, exact=True).click()
                wrong += [(start["code"], view, *what) for what in self.faults()]
        self.assertEqual(wrong, [])

    def test_a_frame_with_a_rabbet_on_a_desk_and_on_a_phone(self) -> None:
        page = self.page
        page.goto(self.url)
        page.get_by_role("link", name="Tide clock surround", exact=True).click()
        for wide, high in ((1280, 800), (390, 844)):
            page.set_viewport_size({"width": wide, "height": high})
            self.field("what it holds")
            page.wait_for_timeout(100)  # the drawing is laid out anew
            self.assertEqual(self.faults(), [], wide)
        # A ring that is touched and not dragged lets the touch through to its board.
        page.get_by_role("button", name="Rail width: drag it").click()
        expect(page.get_by_role("heading", name="Rail E", exact=True)).to_be_attached()

    def faults(self) -> list[tuple[str, str]]:
        """What lies on what, on the drawings that are seen now."""
        return [what for drawing in self.page.evaluate(LIES) for what in self.on_one(drawing)]

    @staticmethod
    def on_one(d: dict[str, Any]) -> list[tuple[str, str]]:
        """What lies on what on one drawing."""
        found = []
        for i, a in enumerate(d["figures"]):
            found += [(a[0], b[0]) for b in d["figures"][i + 1 :] if meet(a, b, 3.0)]
        for letter in d["letters"]:
            found += [(other[0], letter[0]) for other in d["figures"] + d["rings"] if meet(other, letter, 3.0)]
        for each in d["figures"] + d["wood"]:
            if min(each[1], each[2], d["wide"] - each[3], d["high"] - each[4]) < 0:
                found.append((each[0], "the edge"))
        return found
