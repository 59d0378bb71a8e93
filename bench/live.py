"""Cameras that speak: from a change to the screen, what eight of them cost, and what a million samples leave behind."""

from __future__ import annotations

import contextlib
import http.client
import json
import os
import threading
import time
import urllib.request
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from statistics import quantiles
from typing import Any

from playwright.sync_api import sync_playwright

from bench.result import Result
from bench.screen import _production
from hextan.core.record import Source
from hextan.live.camera import Camera
from hextan.standins.camera.models import invented
from hextan.standins.camera.serving import Sender
from hextan.standins.camera.simulated import SimulatedCamera
from launcher.debian import chromium_program

CAMERAS, CHANGES, SECONDS, FIRST_PORT = 8, 20, 8.0, 46100
SAMPLES = 200_000
#: Notes when the warning of the page comes and goes, by the clock of this machine.
WATCH = """
() => {
  window.seen = []
  const look = () => {
    const on = document.querySelector('[role=alert] h2') !== null
    const last = window.seen.at(-1)
    if (!last || last.on !== on) window.seen.push({ on, at: Date.now() })
  }
  new MutationObserver(look).observe(document.body, { childList: true, subtree: true })
  look()
}
"""


@contextlib.contextmanager
def _speaking(address: str) -> Iterator[dict[str, SimulatedCamera]]:
    """Eight cameras that speak 24 times a second, and a production that listens to them."""
    ebb = next(model for model in invented() if model.name == "Ebb 64")
    cameras = {chr(65 + i): SimulatedCamera(chr(65 + i), ebb) for i in range(CAMERAS)}
    for camera in cameras.values():
        camera.command({"format": "Scope → 4096", "lens": "Merrow 65", "stop": 2.0, "focus_m": 3.3})
    home = f"{address}/api/v1/productions/{_production(address)}/set/settings"
    with urllib.request.urlopen(home) as answer:
        kept = json.load(answer)
    sources = [{"unit": unit, "body": "Ebb 64", "on": True, "port": FIRST_PORT + i, "secret": camera.source}
               for i, (unit, camera) in enumerate(cameras.items())]  # fmt: skip
    _put(home, {"version": kept["version"], "document": {**kept["document"], "sources": sources}})
    senders = [Sender(camera, FIRST_PORT + i) for i, camera in enumerate(cameras.values())]
    for sender in senders:
        sender.start()
    try:
        yield cameras
    finally:
        for sender in senders:
            sender.close()
        _put(home, {"version": kept["version"] + 1, "document": kept["document"]})


def _put(url: str, body: Any) -> None:
    request = urllib.request.Request(
        url, json.dumps(body).encode(), {"Content-Type": "application/json"}, method="PUT"
    )
    urllib.request.urlopen(request).close()


def _to_the_screen(address: str, camera: SimulatedCamera) -> list[float]:
    """Milliseconds from a switch of the camera until the page warns, or is silent again."""
    flags = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=chromium_program(), args=flags)
        page = browser.new_page(viewport={"width": 390, "height": 844}, service_workers="block")
        page.goto(f"{address}/p/{_production(address)}/set?day=1&unit=A&shot=s12b")
        page.get_by_text("Ebb 64 speaks").wait_for()
        page.evaluate(WATCH)
        sent = []
        for i in range(CHANGES):
            # At any moment between two samples, and between two events.
            time.sleep(0.6 + 0.037 * (i % 7))
            sent.append(1000 * time.time())
            camera.command({"format": "Scope → 4096" if i % 2 else "S35 → 4096 17:9"})
        page.wait_for_timeout(1500)
        seen = [each["at"] for each in page.evaluate("window.seen")][1:]
        browser.close()
    if len(seen) != CHANGES:
        raise RuntimeError(f"{len(seen)} of {CHANGES} changes came to the screen")
    return [at - begun for at, begun in zip(seen, sent, strict=True)]


def _cost(address: str, cameras: dict[str, SimulatedCamera]) -> float:
    """Per cent of a core that the server takes while every camera's focus moves and a page of each is open."""
    with urllib.request.urlopen(f"{address}/api/v1/health") as answer:
        process = json.load(answer)["process"]
    over = threading.Event()

    def watch(unit: str) -> None:
        connection = http.client.HTTPConnection(address.removeprefix("http://"), timeout=10)
        connection.request("GET", f"/api/v1/productions/{_production(address)}/live/{unit}/events?shot=s12b")
        answer = connection.getresponse()
        while not over.is_set():
            answer.read1(65536)
        connection.close()

    threads = [threading.Thread(target=watch, args=(unit,), daemon=True) for unit in cameras]
    for thread in threads:
        thread.start()
    for camera in cameras.values():
        camera.command({"pull": {"to_m": 2.5, "seconds": SECONDS + 4}})
    time.sleep(2)
    before, began = _cpu(process), time.monotonic()
    time.sleep(SECONDS)
    used = 100 * (_cpu(process) - before) / (time.monotonic() - began)
    over.set()
    for thread in threads:
        thread.join(timeout=3)
    return used


def _cpu(process: int) -> float:
    """Seconds on the processor."""
    with open(f"/proc/{process}/stat") as stat:
        fields = stat.read().rsplit(")", 1)[1].split()
    return (int(fields[11]) + int(fields[12])) / os.sysconf("SC_CLK_TCK")


def _many() -> tuple[float, int]:
    """Seconds that a million samples take, reckoned from fewer; and how many entries are left of them."""
    ebb = next(model for model in invented() if model.name == "Ebb 64")
    said = SimulatedCamera("A", ebb)
    data = []
    for ei in (800, 1600):
        said.command({"ei": ei})
        data.append(said.data() or b"")
    now = [0.0]
    start = datetime(2026, 5, 18, tzinfo=UTC)
    camera = Camera(
        Source(unit="A", body="Ebb 64", on=True), lambda: now[0], lambda: start + timedelta(seconds=now[0])
    )
    began = time.process_time()
    for i in range(SAMPLES):
        now[0] = i / 24
        camera.accept(data[i // 100 % 2])
    return (time.process_time() - began) * 1_000_000 / SAMPLES, camera.room


def measured(address: str) -> list[Result]:
    """All of it."""
    with _speaking(address) as cameras:
        to_screen = _to_the_screen(address, cameras["A"])
        cost = _cost(address, cameras)
    seconds, room = _many()
    return [
        Result(
            "a camera's change to the screen, 95th percentile", quantiles(to_screen, n=20)[-1], 300.0, "ms"
        ),
        Result(f"{CAMERAS} cameras at 24 samples a second, each watched, share of a core", cost, 20.0, "%"),
        Result(f"a million samples heard, on the processor (reckoned from {SAMPLES:,})", seconds, 200.0, "s"),
        Result("entries that are left of them", float(room), 18_800.0, ""),
    ]
