"""In the browser: from a drag to the drawing, and how much script the first view loads."""

from __future__ import annotations

import gzip
from statistics import quantiles

from playwright.sync_api import sync_playwright

from bench.result import Result
from launcher.debian import chromium_program
from launcher.paths import DIST

MOVES = 120
#: Times each move of the pointer until the plan view has drawn the subject at the place that it means.
PROBE = """
async (moves) => {
  const handle = document.querySelector('[role=slider][aria-label=Subject]')
  const box = handle.querySelector('.person').getBoundingClientRect()
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  const send = (kind, dx) => handle.dispatchEvent(new PointerEvent(kind, { pointerId: 1, bubbles: true, clientX: x + dx, clientY: y }))
  handle.setPointerCapture = () => {}
  send('pointerdown', 0)
  const times = []
  for (let i = 0; i < moves; i++) {
    const before = handle.getAttribute('aria-valuenow')
    const start = performance.now()
    send('pointermove', 20 + 12 * (i % 10))
    while (handle.getAttribute('aria-valuenow') === before) {
      await new Promise(requestAnimationFrame)
      if (performance.now() - start > 3000) return null
    }
    await new Promise(requestAnimationFrame)
    times.push(performance.now() - start)
  }
  send('pointerup', 0)
  return times
}
"""


def measure(address: str) -> list[Result]:
    """Drag-to-drawn time at the 95th percentile, and the script's size."""
    flags = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=chromium_program(), args=flags)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(address)
        page.wait_for_selector("tr[data-format]")
        times = page.evaluate(PROBE, MOVES)
        browser.close()
    if times is None:
        raise RuntimeError("a move of the pointer was never drawn")
    slowest = quantiles(times, n=20)[-1]
    script = sum(len(gzip.compress(f.read_bytes(), 9)) for f in (DIST / "assets").glob("*.js")) / 1000
    return [
        Result("drag to drawn, 95th percentile (at most 16 ms are the display's)", slowest, 100.0, "ms"),
        Result("script of the first view, compressed", script, 250.0, "kB"),
    ]
