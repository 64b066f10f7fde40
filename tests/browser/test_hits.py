"""The mouse: whatever can be seen of buttons, links and fields is what is hit at its own middle."""

from playwright.sync_api import Page

from tests.browser.page import InTheBrowser

WIDTHS = (390, 800, 1280, 1920)
PLACES = ("", "/boards", "/saw", "/bench", "/fit", "/finish", "/log", "/cut-list", "/to-buy", "/rescale")
PAGES = ("/", "/mouldings", "/bring-in", "/plan", "/practice", "/devices")
# Every one is brought into sight first; of one that goes over several lines the first line counts; a field's own label counts as the field.
MISSED = """() => {
  const seen = (e) => {
    const style = getComputedStyle(e), box = e.getBoundingClientRect();
    return e.checkVisibility({ checkVisibilityCSS: true, checkOpacity: true }) && style.pointerEvents !== 'none' && box.width > 4 && box.height > 4 && !e.closest('[inert], .sr-only, [aria-hidden=true]') && !e.classList.contains('sr-only');
  };
  const missed = [];
  for (const e of document.querySelectorAll('button, a[href], input, select, textarea')) {
    if (e.disabled || !seen(e)) continue;
    e.scrollIntoView({ block: 'center', inline: 'center' });
    const box = e.getClientRects()[0];
    const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
    const hit = document.elementFromPoint(x, y);
    if (hit && (e.contains(hit) || hit.contains(e) && hit.closest('label, button, a') === hit || [...(e.labels ?? [])].some((l) => l.contains(hit)))) continue;
    if (x < 0 || y < 0 || x > innerWidth || y > innerHeight) continue;
    missed.push(`${(e.getAttribute('aria-label') || e.textContent || e.outerHTML).slice(0, 60)} under ${hit ? hit.outerHTML.slice(0, 90) : 'nothing'} at ${Math.round(x)}, ${Math.round(y)}`);
  }
  return missed;
}"""


class Hit(InTheBrowser):
    def test_every_button_link_and_field_is_hit_at_its_middle(self) -> None:
        page = self.page
        page.goto(self.url)
        address = page.get_by_role("link", name="Rope bin", exact=True).get_attribute("href")
        wrong: list[str] = []
        for width in WIDTHS:
            page.set_viewport_size({"width": width, "height": 844 if width == 390 else 800})
            for where in (*PAGES, *(f"{address}{place}" for place in PLACES)):
                page.goto(f"{self.url}{where}")
                page.wait_for_load_state("networkidle")
                wrong += self.missed(page, f"{width} {where.replace(str(address), '')}")
                for tab in page.get_by_role("tab").all():
                    if tab.is_visible() and tab.get_attribute("aria-selected") == "false":
                        tab.click()
                        page.wait_for_load_state("networkidle")
                        wrong += self.missed(page, f"{width} {where.replace(str(address), '')} {tab.inner_text()}")
        self.assertEqual(wrong, [])

    @staticmethod
    def missed(page: Page, where: str) -> list[str]:
        return [f"{where}: {what}" for what in page.evaluate(MISSED)]
