"""In the browser: from a drag to the drawing, and how much script the first view loads."""

from __future__ import annotations

import json
import urllib.parse
import urllib.request
from statistics import median, quantiles

from playwright.sync_api import sync_playwright

from bench.result import Result
from launcher.debian import chromium_program
from launcher.paths import DIST

MOVES = 120
#: Times each move of the pointer until the handle stands at the place that it means, and until the figures of that place are
#: drawn: two lists of milliseconds.
PROBE = """
async (moves) => {
  const handle = document.querySelector('[role=slider][aria-label=Subject]')
  const box = handle.querySelector('.person').getBoundingClientRect()
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  const send = (kind, dx) => handle.dispatchEvent(new PointerEvent(kind, { pointerId: 1, bubbles: true, clientX: x + dx, clientY: y }))
  handle.setPointerCapture = () => {}
  send('pointerdown', 0)
  const figures = () => document.querySelector('.plan .limit').textContent + document.querySelector('tr.chosen').textContent
  const handles = [], times = []
  for (let i = 0; i < moves; i++) {
    const [before, said] = [handle.getAttribute('aria-valuenow'), figures()]
    const start = performance.now()
    send('pointermove', 20 + 12 * (i % 10))
    let stands = 0
    while (!stands || figures() === said) {
      await new Promise(requestAnimationFrame)
      if (!stands && handle.getAttribute('aria-valuenow') !== before) stands = performance.now() - start
      if (performance.now() - start > 3000) return null
    }
    await new Promise(requestAnimationFrame)
    handles.push(stands)
    times.push(performance.now() - start)
  }
  send('pointerup', 0)
  return [handles, times]
}
"""


#: Types into a cell of a grid of 400 recording formats, and times from Enter until what follows from it is drawn.
TYPE = """
async (times_over) => {
  const key = (at, name) => at.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true, cancelable: true }))
  const figure = () => document.querySelector('td[aria-label^="Raster width of Format 5:"]')
  const cell = figure().closest('tr').querySelector('td[data-column=oversampling]')
  const times = []
  for (let i = 0; i < times_over; i++) {
    figure().click()
    await new Promise(requestAnimationFrame)
    key(figure(), 'F2')
    let input = null
    while (!(input = figure().querySelector('input'))) await new Promise(requestAnimationFrame)
    input.value = String(2000 + 30 * i)
    const before = cell.textContent
    const start = performance.now()
    key(input, 'Enter')
    while (cell.textContent === before) {
      await new Promise(requestAnimationFrame)
      if (performance.now() - start > 3000) return null
    }
    times.push(performance.now() - start)
  }
  return times
}
"""
EDITED_FORMATS = 400

#: Changes the reference of a matrix of 60 by 60 and more, and times until its cells are drawn anew.
REDRAW = """
async (times_over) => {
  const choice = document.querySelector('select[aria-label="Dimension that sets the crop"]')
  const cell = document.querySelector('td[data-r="0"][data-c="0"] .eff')
  const times = []
  for (let i = 0; i < times_over; i++) {
    const before = cell.textContent
    const start = performance.now()
    choice.value = i % 2 ? 'width' : 'height'
    choice.dispatchEvent(new Event('change', { bubbles: true }))
    while (cell.textContent === before) {
      await new Promise(requestAnimationFrame)
      if (performance.now() - start > 5000) return null
    }
    await new Promise(requestAnimationFrame)
    times.push(performance.now() - start)
  }
  return times
}
"""
MATRIX = 60
OBJECTS = 30
WITH_SCENE = "(scene) => { const at = new URL(location.href); at.searchParams.set('scene', scene); at.searchParams.set('subject', '3.2'); return at.href }"

#: Changes the stop of the first column of a comparison, and times until its numbers and pictures are drawn anew.
COMPARED = """
async (times_over) => {
  const choice = document.querySelector('select[aria-label="Stop of A"]')
  const cell = document.querySelector('tr[data-row=depth] td')
  const times = []
  for (let i = 0; i < times_over; i++) {
    const before = cell.textContent
    const start = performance.now()
    choice.selectedIndex = 1 + (i % 5)
    choice.dispatchEvent(new Event('change', { bubbles: true }))
    while (cell.textContent === before) {
      await new Promise(requestAnimationFrame)
      if (performance.now() - start > 5000) return null
    }
    await new Promise(requestAnimationFrame)
    times.push(performance.now() - start)
  }
  return times
}
"""


def _full_scene() -> str:
    """A scene of thirty things, most of them soft, as the address holds it."""
    kinds = ("standing", "seated", "lamp", "post", "standing")
    things = [
        f"k{i}~{kinds[i % 5]}~thing {i}~{4 + 0.7 * i:.2f}~{-2.4 + 0.17 * i:.2f}~{1.6 + (i % 3) / 10:.1f}~~0"
        for i in range(OBJECTS)
    ]
    return "!".join(["1.6~standing~1.7~0.45~0~", *things])


def _four_columns(address: str) -> str:
    """Add a comparison of four set-ups, and give the address of its page."""
    production = _production(address)
    at = f"{address}/api/v1/productions/{production}"
    with urllib.request.urlopen(f"{at}/comparisons") as answer:
        document = json.load(answer)["here"][0]["document"]
    columns = document["columns"]
    document["columns"] = [{**columns[i % len(columns)], "key": f"c{i}"} for i in range(4)]
    return f"{address}/p/{production}/compare/{_post(f'{at}/comparisons', {'document': document})['id']}"


def _large_kit(address: str) -> str:
    """Add a body of 60 recording formats and a set of 60 lenses, and give the address of their matrix."""
    production = _production(address)
    formats = [
        {"key": f"f{i}", "name": f"Format {i}", "raster": [4000 - 40 * i, 2250 - 20 * i], "rates": ["25"], "compression": 5.0}
        for i in range(MATRIX)
    ]  # fmt: skip
    mode = {"key": "m", "name": "Full", "window": [6000, 3375], "row_time_us": 6.0, "formats": formats}
    lenses = [
        {"key": f"l{i}", "name": f"Lens {i}", "focal_mm": 10.0 + 3 * i, "t_stop": 2.0, "image_circle_mm": 30.0 + i / 4, "mount": "W54"}
        for i in range(MATRIX)
    ]  # fmt: skip
    body = {
        "name": "Sixty",
        "maker": "Halewick",
        "mount": "W54",
        "photosites": [6000, 4000],
        "pitch_um": 6.0,
        "modes": [mode],
    }
    body_id = _post(f"{address}/api/v1/productions/{production}/bodies", {"document": body})["id"]
    document = {"name": "Sixty", "maker": "Halewick", "lenses": lenses}
    set_id = _post(f"{address}/api/v1/productions/{production}/lens-sets", {"document": document})["id"]
    asked = json.dumps({"across": "formats", "body_ids": [body_id], "lens_set_ids": [set_id]})
    return f"{address}/p/{production}/package/kit?{urllib.parse.urlencode({'ask': asked})}"


def _production(address: str) -> int:
    with urllib.request.urlopen(f"{address}/api/v1/productions") as answer:
        return int(json.load(answer)["here"][0]["id"])


def _back_to_its_place(address: str) -> None:
    """Set the subject of the Bench to where each run begins: a drag leaves it farther out."""
    at = f"{address}/api/v1/productions/{_production(address)}/bench"
    with urllib.request.urlopen(at) as answer:
        kept = json.load(answer)
    state = {**kept["state"], "subject_m": 3.2, "focus_m": None}
    body = json.dumps({"version": kept["version"], "state": state}).encode()
    request = urllib.request.Request(at, body, {"Content-Type": "application/json"}, method="PUT")
    urllib.request.urlopen(request).close()


def _post(url: str, body: object) -> dict[str, int]:
    request = urllib.request.Request(url, json.dumps(body).encode(), {"Content-Type": "application/json"})
    with urllib.request.urlopen(request) as answer:
        return dict(json.load(answer))


def _large_body(address: str) -> str:
    """Add a body of 400 recording formats, and give the address of its page."""
    formats = [
        {"key": f"f{i}", "name": f"Format {i}", "raster": [1920 + 2 * i, 1080], "rates": ["24", "25"], "compression": 5.0, "bits": 10, "samples": "4:2:2"}
        for i in range(EDITED_FORMATS)
    ]  # fmt: skip
    mode = {"key": "m", "name": "Full", "window": [6000, 3375], "row_time_us": 6.0, "formats": formats}
    body = {
        "name": "Many",
        "maker": "Halewick",
        "mount": "W54",
        "photosites": [6000, 4000],
        "pitch_um": 6.0,
        "modes": [mode],
    }
    production = _production(address)
    added = _post(f"{address}/api/v1/productions/{production}/bodies", {"document": body})
    return f"{address}/p/{production}/package/bodies/{added['id']}"


def measure(address: str) -> list[Result]:
    """Drag-to-drawn and input-to-drawn times at the 95th percentile, and the script's size."""
    flags = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=chromium_program(), args=flags)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        _back_to_its_place(address)
        page.goto(f"{address}/p/{_production(address)}/bench")
        page.wait_for_selector("tr[data-format]")
        loaded = page.evaluate("performance.getEntriesByType('resource').map((entry) => entry.name)")
        dragged = page.evaluate(PROBE, MOVES)
        page.goto(page.evaluate(WITH_SCENE, _full_scene()))
        page.wait_for_selector("[data-testid=finder-picture]")
        crowded = page.evaluate(PROBE, MOVES)
        page.goto(_four_columns(address))
        page.wait_for_selector("tr[data-row=depth]")
        compared = page.evaluate(COMPARED, 20)
        page.goto(_large_body(address))
        page.wait_for_selector('td[aria-label^="Raster width of Format 5:"]')
        page.get_by_role("status").get_by_text("saved", exact=True).wait_for()
        typed = page.evaluate(TYPE, MOVES // 2)
        page.goto(_large_kit(address))
        page.wait_for_selector('td[data-r="0"][data-c="0"]')
        redrawn = page.evaluate(REDRAW, 20)
        browser.close()
    if dragged is None:
        raise RuntimeError("a move of the pointer was never drawn")
    if crowded is None:
        raise RuntimeError("a move of the pointer was never drawn in the finder")
    if compared is None:
        raise RuntimeError("a comparison was never drawn anew")
    if typed is None:
        raise RuntimeError("a figure that was typed was never drawn")
    if redrawn is None:
        raise RuntimeError("a matrix was never drawn anew")
    names = {name.rsplit("/", 1)[-1] for name in loaded}
    files = [file for file in (DIST / "assets").glob("*.js") if file.name in names]
    packed = [file.with_name(f"{file.name}.br") for file in files]
    # The smallest are not packed.
    sent = [there if there.is_file() else file for there, file in zip(packed, files, strict=True)]
    script = sum(file.stat().st_size for file in sent) / 1000
    told = "95th percentile (at most 16 ms are the display's)"
    return [
        Result(f"drag to handle, {told}", quantiles(dragged[0], n=20)[-1], 20.0, "ms"),
        Result(f"drag to drawn, {told}", quantiles(dragged[1], n=20)[-1], 100.0, "ms"),
        Result(f"finder with {OBJECTS} things, {told}", quantiles(crowded[1], n=20)[-1], 100.0, "ms"),
        Result("Compare with four columns, changed to drawn, median", median(compared), 150.0, "ms"),
        Result(
            f"typed to drawn in {EDITED_FORMATS} formats, {told}", quantiles(typed, n=20)[-1], 100.0, "ms"
        ),
        Result(f"matrix of {MATRIX} x {MATRIX} changed to drawn, median", median(redrawn), 200.0, "ms"),
        Result("script of the first view, as it is sent", script, 130.0, "kB"),
    ]
