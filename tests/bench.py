"""The speed figures: medians, on this machine, idle and with both cores kept busy. They are figures, not tests."""

import gzip
import multiprocessing
import os
import re
import statistics
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from copy import deepcopy
from pathlib import Path
from random import Random

ROOT = Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT), str(ROOT / "src")]

from flask.testing import FlaskClient  # noqa: E402
from playwright.sync_api import sync_playwright  # noqa: E402
from waitress.server import create_server  # noqa: E402

from fennup.app.factory import create_app  # noqa: E402
from fennup.app.services.demo import PROJECTS, TOOLS  # noqa: E402
from fennup.app.services.exports import EXPORTS  # noqa: E402
from fennup.app.services.solving import solved_spec  # noqa: E402
from fennup.core.boards.planned import plan_boards  # noqa: E402
from fennup.core.boards.planner import plan  # noqa: E402
from fennup.core.exchange.cuts_document import cuts_document  # noqa: E402
from fennup.core.project.starts import TOGETHER  # noqa: E402
from fennup.core.verify.boolean import boolean_proof  # noqa: E402
from fennup.core.workshop import Workshop  # noqa: E402
from tests.browser.page import ARGUMENTS, CHROMIUM  # noqa: E402
from tests.core.cut_boards import a_board, bar, design, on_rack, order  # noqa: E402
from tests.core.frames import box, of_sides, regular, solved  # noqa: E402
from tests.core.test_planner import packing_task, triplets, uniform  # noqa: E402

# From the key to the drawing: the clock starts at the input event and stops when a figure that follows has changed.
WATCH = """(label) => {
  window.took = [];
  let at = 0;
  document.addEventListener('input', () => { at = performance.now(); }, true);
  const watched = document.querySelector(`main .drawing input[aria-label^="${label}"]`);
  new MutationObserver(() => requestAnimationFrame(() => window.took.push(performance.now() - at)))
    .observe(watched, { attributes: true, attributeFilter: ['aria-label'] });
}"""


# From the tap to the next task on the screen; a piece that is to be measured first is passed over.
TAP = """() => new Promise((done) => {
  const head = () => document.querySelector('.bench-bar h1').textContent + document.querySelector('.bench-do').textContent;
  const press = (selector) => document.querySelector(selector)?.click();
  if (document.querySelector('.bench-do').textContent.startsWith('Keep it')) { press('.bench-buttons button:nth-child(2)'); setTimeout(() => { press('.bench-on'); done(0); }, 30); return; }
  const before = head(), began = performance.now();
  const look = () => head() !== before ? done(performance.now() - began) : requestAnimationFrame(look);
  press('.bench-do');
  look();
})"""


def median_ms(act: Callable[[], object], times: int = 60) -> float:
    """Median of one call in milliseconds."""
    took = []
    for _ in range(times):
        start = time.perf_counter()
        act()
        took.append((time.perf_counter() - start) * 1000)
    return statistics.median(took)


def busy(until: float) -> None:
    """Keep a core at work."""
    while time.time() < until:
        sum(i * i for i in range(10_000))


def typing_ms(load: int, spec: dict, label: str, watched: str) -> tuple[float, float]:
    """Median and worst of typing into a field of a project in Chromium, with so many processes competing."""
    rivals = [multiprocessing.Process(target=busy, args=(time.time() + 40,), daemon=True) for _ in range(load)]
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder) / "bench.db", ROOT / "web/dist")
        made = app.test_client().post("/api/projects", json={"spec": spec})
        server = create_server(app, host="127.0.0.1", port=0, threads=6)
        threading.Thread(target=server.run, daemon=True).start()
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
            page = browser.new_page(viewport={"width": 1280, "height": 800}, bypass_csp=True)
            page.goto(f"http://127.0.0.1:{server.effective_port}/project/{made.json['id']}")
            field = page.locator(f'main .drawing input[aria-label^="{label}"]').first
            field.wait_for()
            page.evaluate(WATCH, watched)
            for rival in rivals:
                rival.start()
            for value in range(560, 600):
                field.fill(str(value))
                page.wait_for_timeout(160)
            took = page.evaluate("window.took")
            browser.close()
        server.close()
    for rival in rivals:
        rival.kill()
    return statistics.median(took), max(took)


def five_linked() -> dict:
    """A stand, three bins one on the other, and a hood, each following what it stands on."""
    start = deepcopy(TOGETHER["bin_on_stand"])
    stand, bin, hood = start["members"].values()
    members = {"m1": stand, **{f"m{k + 1}": {**bin, "name": f"Bin {k}", "on": f"m{k}"} for k in (1, 2, 3)}}
    links = [
        {"of": f"m{k + 1}", "measure": f"outer_bottom_{way}", "after": f"m{k}", "source": f"outer_top_{way}" if k > 1 else f"top_{way}"}
        for k in (1, 2, 3) for way in ("width", "depth")
    ]  # fmt: skip
    links.append({"of": "m5", "measure": "eaves_flats", "after": "m4", "source": "outer_top_width", "plus_mm": 40.0})
    return {"members": {**members, "m5": {**hood, "on": "m4"}}, "links": links, "numbered": 5}


def look_at(client: FlaskClient, name: str, spec: dict, act: dict) -> None:
    """What a look costs, every time at another figure, so that nothing is kept from before: ms and bytes."""
    project = client.post("/api/projects", json={"spec": spec}).json
    url, sent = f"/api/projects/{project['id']}/look", iter(range(561, 10_000))
    sizes = []

    def look() -> None:
        answer = client.post(url, json={"acts": [{**act, "text": str(next(sent))}]})
        assert answer.status_code == 200, answer.text
        sizes.append(len(answer.data))

    took = median_ms(look, 30)
    print(f"API: look at a change to {name}: {took:.1f} ms, {statistics.median(sizes) / 1000:.0f} kB")


def first_fit(sizes: list[int], room: int) -> int:
    """How many boxes the largest first, each into the first box with room, take."""
    boxes: list[int] = []
    for size in sorted(sizes, reverse=True):
        place = next((k for k, taken in enumerate(boxes) if taken + size <= room), None)
        if place is None:
            boxes.append(size)
        else:
            boxes[place] += size
    return len(boxes)


def boards() -> None:
    """The families, beside first-fit-decreasing, and forty parts of mixed sections."""
    families = [(f"triplets of {n}", triplets(n, 1), 1000) for n in (60, 120, 249)]
    families += [(f"uniform {n}", uniform(n, 1), 150) for n in (120, 250)]
    for name, sizes, room in families:
        start = time.perf_counter()
        found = plan(packing_task(sizes, room))
        took = time.perf_counter() - start
        print(
            f"boards: {name}: {found.cost:.0f} boards, bound {found.bound:.0f}, {took:.1f} s; first fit {first_fit(sizes, room)}"
        )
    random = Random(4)
    sections = ((60.0, 20.0), (95.0, 20.0), (45.0, 45.0), (145.0, 27.0))
    parts = [
        a_board(f"P{k}", random.uniform(150, 1300), (random.choice((0, 22.5, 45)), 0.0), (random.choice((0, 22.5, 45)), 0.0), *section)
        for k in range(40) for section in [sections[k % 4]]
    ]  # fmt: skip
    items = [
        bar(mm, *section, price=mm * section[0] * section[1] / 2e6) for section in sections for mm in (2400.0, 3000.0, 4200.0)
    ]
    asked, start, told = order(design(*parts), on_rack(bar(2000.0)), 2.4, *items), time.perf_counter(), []
    made = plan_boards(asked, lambda share, plan: told.append(time.perf_counter() - start))
    took, packing = time.perf_counter() - start, made.packing
    print(
        f"boards: 40 parts of 4 sections: first plan {told[0]:.2f} s, last {took:.1f} s, {packing.cost:.0f} where {packing.bound:.0f} is the bound"
    )


def rack_ms() -> None:
    """What a look at a change to a full rack costs."""
    with tempfile.TemporaryDirectory() as folder:
        client = create_app(Path(folder) / "bench.db", with_demo=True).test_client()
        sent = iter(range(2000, 9000))
        act = {"op": "type", "path": "boards.r1.length_mm"}
        took = median_ms(lambda: client.post("/api/rack/look", json={"acts": [{**act, "text": str(next(sent))}]}))
        print(f"API: look at a change to the rack: {took:.1f} ms")


def steps_ms() -> None:
    """What opening the steps of a demo project costs, the slowest one, with nothing kept from before."""
    took = {}
    for entry in PROJECTS:
        made = solved_spec(entry["spec"], Workshop(tools=TOOLS))
        took[entry["name"]] = median_ms(lambda made=made: cuts_document(made), 5)
    name = max(took, key=lambda name: took[name])
    print(f"core: steps of a demo project, simulated: {took[name]:.0f} ms for the {name}, the slowest of {len(took)}")


def bench_ms() -> None:
    """What opening the bench of a box of over 200 tasks costs, and how soon a tap is answered there, half of it done."""
    tub = box(of_sides(12, 900), 600.0, slope_deg=8.0, courses={"count": 8})
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder) / "bench.db", ROOT / "web/dist")
        client = app.test_client()
        id = client.post("/api/projects", json={"spec": tub}).json["id"]
        tasks = client.get(f"/api/projects/{id}/bench").json["tasks"]
        for n, task in enumerate(tasks[: len(tasks) // 2]):
            record = {
                "id": f"{n:08d}-0000-4000-8000-000000000000",
                "key": task["key"],
                "type": "cut",
                "device_time": "2026-11-20T10:00:00+01:00",
            }
            client.post(f"/api/projects/{id}/records", json=record)
        took = median_ms(lambda: client.get(f"/api/projects/{id}/bench"), 10)
        size = len(client.get(f"/api/projects/{id}/bench").data)
        server = create_server(app, host="127.0.0.1", port=0, threads=6)
        threading.Thread(target=server.run, daemon=True).start()
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
            page = browser.new_page(viewport={"width": 390, "height": 844})
            page.goto(f"http://127.0.0.1:{server.effective_port}/project/{id}/bench")
            page.locator(".bench-figure").first.wait_for()
            painted = page.evaluate("performance.getEntriesByName('first-contentful-paint')[0].startTime")
            taps = []
            for _ in range(30):
                taps.append(page.evaluate(TAP))
                page.wait_for_timeout(300)
            browser.close()
        server.close()
    print(f"API: the bench, {len(tasks)} tasks: {took:.0f} ms, {size / 1000:.0f} kB; Chromium: first paint {painted:.0f} ms")
    print(
        f"Chromium: a tap at the bench answered: median {statistics.median(t for t in taps if t):.0f} ms, worst {max(taps):.0f} ms"
    )


def fit_ms() -> None:
    """What opening the dry fit of a demo project costs, what a reading typed there, and how long the worst forecast takes."""
    with tempfile.TemporaryDirectory() as folder:
        client = create_app(Path(folder) / "fit.db", with_demo=True).test_client()
        opening: dict[str, float] = {}
        reading: dict[str, float] = {}
        for n, card in enumerate(client.get("/api/projects").json["projects"]):
            address = f"/api/projects/{card['id']}/fit"
            began = time.perf_counter()
            shown = client.get(address).json
            opening[card["name"]] = 1000 * (time.perf_counter() - began)
            lengths = [r for r in shown["readings"] if r["unit"] == "mm"]
            for k, read in enumerate(lengths[:5]):
                said = {
                    "id": f"{n:04d}{k:04d}-0000-4000-8000-000000000000",
                    "key": read["key"],
                    "text": read["expected"]["typed"],
                }
                began = time.perf_counter()
                client.post(f"{address}/read", json=said)
                reading[card["name"]] = max(reading.get(card["name"], 0.0), 1000 * (time.perf_counter() - began))
        for what, took in (("opened for the first time", opening), ("a reading typed", reading)):
            name = max(took, key=lambda name: took[name])
            print(f"fit: {what}: median {statistics.median(took.values()):.0f} ms, worst {took[name]:.0f} ms ({name})")


def finish_ms() -> None:
    """What opening the finish of a demo project costs, and what a change there."""
    with tempfile.TemporaryDirectory() as folder:
        client = create_app(Path(folder) / "finish.db", with_demo=True).test_client()
        opening: dict[str, float] = {}
        changing: dict[str, float] = {}
        for card in client.get("/api/projects").json["projects"]:
            address = f"/api/projects/{card['id']}/finish"
            began = time.perf_counter()
            shown = client.get(address).json
            opening[card["name"]] = 1000 * (time.perf_counter() - began)
            act = {"op": "choose", "path": "exposure", "value": "outdoors"}
            began = time.perf_counter()
            client.post(f"{address}/acts", json={"version": shown["version"], "acts": [act]})
            changing[card["name"]] = 1000 * (time.perf_counter() - began)
        for what, took in (("opened for the first time", opening), ("a change", changing)):
            name = max(took, key=lambda name: took[name])
            print(f"finish: {what}: median {statistics.median(took.values()):.0f} ms, worst {took[name]:.0f} ms ({name})")


def log_ms() -> None:
    """What opening the log of a demo project costs, what every file that goes out of the largest, and a plan with a misprint."""
    with tempfile.TemporaryDirectory() as folder:
        client = create_app(Path(folder) / "log.db", with_demo=True).test_client()
        opening: dict[str, float] = {}
        ids = {card["name"]: card["id"] for card in client.get("/api/projects").json["projects"]}
        for name, id in ids.items():
            client.get(f"/api/projects/{id}/boards/plan")
            began = time.perf_counter()
            client.get(f"/api/projects/{id}/log")
            opening[name] = 1000 * (time.perf_counter() - began)
        name = max(opening, key=lambda name: opening[name])
        print(
            f"log: opened for the first time: median {statistics.median(opening.values()):.0f} ms, worst {opening[name]:.0f} ms ({name})"
        )
        took = {}
        for sort in EXPORTS:
            began = time.perf_counter()
            client.get(f"/api/projects/{ids['Winch shelter roof']}/files/{sort}")
            took[sort] = 1000 * (time.perf_counter() - began)
        print(f"log: files out of 44 boards: {', '.join(f'{sort} {ms:.0f}' for sort, ms in took.items())} ms")
        said = {"outer_bottom_flats": "356", "slant": "203", "slope": "15.0", "height": "169", "outer_top_flats": "461"}
        lines = [{"key": f"size:m1/{measure}", "value": value} for measure, value in said.items()]
        began = time.perf_counter()
        client.post("/api/plan-check", json={"start": "tub", "lines": lines})
        print(f"a plan of five sizes with a misprint, checked: {1000 * (time.perf_counter() - began):.0f} ms")


def main() -> None:
    """Print one figure a line."""
    boards()
    steps_ms()
    bench_ms()
    fit_ms()
    finish_ms()
    log_ms()
    rack_ms()
    for rabbet in (None, {"width_mm": 6, "depth_mm": 8}):
        frame = regular(12, 40.0, "opening_flats", mm=600.0, rabbet=rabbet)
        solved(frame)
        print(f"core: solve a 12-sided frame{' with a rabbet' if rabbet else ''}: {median_ms(lambda f=frame: solved(f)):.1f} ms")
    tub = box(of_sides(12, 600), 400.0, slope_deg=8.0, courses={"count": 6, "board_width_mm": 72.0})
    with tempfile.TemporaryDirectory() as folder:
        client = create_app(Path(folder) / "bench.db").test_client()
        give = {"op": "give", "measure": "m1/outer_bottom_flats"}
        look_at(client, "the 12-sided frame", frame, {"op": "type", "path": "members.m1.spec.shape.size.mm"})
        look_at(client, "the box", tub, give)
        look_at(client, "a stand and four linked to it", five_linked(), {"op": "give", "measure": "m1/top_width"})
    solved(tub)
    print(f"core: solve a box of 12 sides in 6 courses: {median_ms(lambda: solved(tub)):.1f} ms")
    solution = solved(tub)
    print(f"core: put it together as solids: {median_ms(lambda: boolean_proof(solution.assembly, solution.solids)):.1f} ms")
    for load, words in ((0, "idle"), (os.cpu_count() or 2, "every core busy")):
        for name, *what in (
            ("12-sided frame", frame, "opening, across flats", "outside, across flats"),
            ("12-sided box", tub, "outside bottom, across", "outside top, across"),
            ("stand and four linked to it", five_linked(), "Stand: legs at the top, width", "Stand: legs at the top, width"),
        ):
            middle, worst = typing_ms(load, *what)
            print(f"Chromium: typing to redrawn, {name}, {words}: median {middle:.0f} ms, worst {worst:.0f} ms")
    index = (ROOT / "web/dist/index.html").read_text()
    scripts = [ROOT / "web/dist" / name for name in re.findall(r"/(assets/[^\"]+\.js)", index)]
    size = sum(len(gzip.compress(script.read_bytes())) for script in scripts)
    print(f"first load: {size / 1000:.0f} kB of script, compressed")


if __name__ == "__main__":
    main()
