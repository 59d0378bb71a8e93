"""The whole of a day of the demo, from a script: cameras speak, one switches its crop on by itself, takes are logged on two devices of
which one is without a line for a while, clips are read afterwards; and the report names what was planted, and no more."""

import json
import os
import re
import subprocess
import sys
import urllib.request

from playwright.sync_api import expect

from hextan.standins.camera.models import invented
from hextan.standins.camera.serving import Cameras, Sender
from hextan.standins.camera.simulated import SimulatedCamera
from tests.live.test_listening import free_udp_port
from tests.media.clips import clip
from tests.ui.conftest import ROOT

DAY = "2"


def asked(server, path, body=None, method=None):
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(
        f"{server.url}/api/v1/{path}", data, {"Content-Type": "application/json"}, method=method
    )
    with urllib.request.urlopen(request, timeout=30) as answer:
        return json.load(answer)


def as_planned(camera, on):
    """Set a simulated camera as a shot's plan has it."""
    camera.command({"format": on["format"], "fps": on["fps"], "ei": on["ei"], "shutter_deg": on["shutter_deg"], "lens": on["lens"],
                    "stop": on["stop"], "focus_m": on["focus_m"]})  # fmt: skip


def test_the_whole_day_names_what_was_planted_and_no_more(own_server, device, tmp_path):
    server = own_server
    home = f"productions/{next(p['id'] for p in server.get('productions')['here'] if p['demo'])}"
    shots = {shot["name"]: shot for shot in server.get(f"{home}/set?day={DAY}")["day"]["shots"]}
    ebb = next(model for model in invented() if model.name == "Ebb 64")
    a, b = SimulatedCamera("A", ebb, rate=48.0), SimulatedCamera("B", ebb, rate=48.0)
    as_planned(a, shots["14A"]["on"])
    as_planned(b, shots["15B"]["on"])
    of = Cameras({"A": a, "B": b}, secret="low tide")
    http, port = of.serve(0), free_udp_port()
    kept = asked(server, f"{home}/set/settings")
    sources = [{"unit": "A", "body": "Ebb 64", "on": True, "way": "udp", "port": port, "secret": a.source},
               {"unit": "B", "body": "Ebb 64", "on": True, "way": "http", "port": http.server_address[1], "path": "/samples/B", "secret": "low tide"}]  # fmt: skip
    asked(
        server,
        f"{home}/set/settings",
        {"version": kept["version"], "document": {**kept["document"], "sources": sources}},
        "PUT",
    )
    sender = Sender(a, port)
    sender.start()
    try:
        _shoot(server, device, home, shots, a, b)
    finally:
        sender.close()
        http.shutdown()
        http.server_close()
    _read_clips(server, home, tmp_path)

    report = server.get(f"{home}/set/report?day={DAY}")
    told = sorted((f["unit"], _short(f["told"]), f["loud"]) for f in report["faults"])
    # By the clock a line stands before or behind another: the order is no matter.
    assert told == sorted([
        ("", "15B_T1.mov (15B take 1): rate: the file says 25, the log 50.", False),
        ("A", "14A take 2: Scan mode S35 4.3K, planned Full scope 6.4K", True),
        ("A", f"{_clock(report, '14A_T2.mov')}, 14A_T2.mov: CROP IS ON, planned off", True),
        ("B", "15B take 1: Stop T4, planned T2.1", False),
        ("B", f"{_clock(report, '15B_T1.mov')}, 15B_T1.mov: 25 FRAMES A SECOND, planned 50", True),
    ])  # fmt: skip
    takes = report["day"]["takes"]
    assert [(t["entry"]["unit"], t["entry"]["shot_name"], t["entry"]["take"], t["entry"]["circled"]) for t in takes] == [
        ("A", "14A", 1, False), ("A", "14A", 2, False), ("B", "15B", 1, False), ("A", "14A", 3, False), ("A", "14A", 4, True),
    ]  # fmt: skip
    # What the camera said goes with the take: the crop came during the second.
    assert [c["what"] for c in takes[1]["entry"]["said"]["changes"]] == ["sensor area", "raster"]
    assert takes[0]["entry"]["said"]["changes"] == []
    assert all(t["double"] == "" for t in takes)
    assert [clip["found_by"] for clip in report["clips"]["clips"]] == ["by its name"] * 5
    server.kill()


def _short(told):
    """A fault without the time of its take and its effects."""
    return re.sub(r"(take \d+), \d\d:\d\d:", r"\1:", told.split(";")[0])


def _clock(report, name):
    return next(c["clock"] for c in report["clips"]["clips"] if c["name"] == name)


def _shoot(server, device, home, shots, a, b):
    first, second = device("one"), device("two")
    one, two = first.pages[0], second.pages[0]
    address = f"{server.url}/p/{home.rsplit('/', 1)[1]}/set?day={DAY}"
    one.goto(f"{address}&unit=A&shot={shots['14A']['shot']}")
    two.goto(f"{address}&unit=B&shot={shots['15B']['shot']}")
    for page in (one, two):
        expect(page.get_by_text("Ebb 64 speaks")).to_be_visible()
        # The camera knows nothing of the ND before it: somebody says it once.
        expect(page.get_by_text("ND none for")).to_be_visible()
        page.get_by_role("button", name="Set as planned").click()
        page.get_by_role("button", name="From now on this").click()
        expect(page.get_by_text("ND none for")).to_have_count(0)
    expect(one.get_by_role("alert")).to_have_count(0)
    one.get_by_role("button", name="Log take 1").click()
    expect(one.get_by_role("button", name="Log take 2")).to_be_visible()

    # An adapter that reports a small circle: the crop comes on by itself.
    a.command({"format": "S35 → 4096 17:9"})
    loud = one.get_by_role("alert")
    expect(loud.get_by_role("heading", name="CROP IS ON, planned off")).to_be_visible()
    expect(loud).to_contain_text("read from 10.0 MP of the sensor instead of 17.3")
    expect(loud).to_contain_text("Menu: Record > Sensor area > Scope Gate")
    one.get_by_role("button", name="Log take 2").click()
    expect(one.get_by_role("button", name="Log take 3")).to_be_visible()
    a.command({"format": shots["14A"]["on"]["format"]})
    expect(one.get_by_role("alert")).to_have_count(0)

    # B opens less: camera A's page tells the stop that keeps the match.
    b.command({"stop": 4.0})
    expect(two.get_by_label("Stop: T4; planned T2.1")).to_be_visible()
    expect(
        one.get_by_text("keeps the depth of camera B").or_(one.get_by_text("As deep as camera B"))
    ).to_be_visible()
    two.get_by_role("button", name="Log take 1").click()
    expect(two.get_by_role("button", name="Log take 2")).to_be_visible()
    expect(two.get_by_text("wait")).to_have_count(0)

    # The line goes on A's device; the work goes on.
    first.set_offline(True)
    one.get_by_role("button", name="Log take 3").click()
    one.get_by_role("button", name="Log take 4").click()
    one.get_by_role("button", name="Circle 14A take 4").click()
    expect(one.get_by_text("3 entries wait for the line")).to_be_visible()
    first.set_offline(False)
    expect(one.get_by_text("for the line")).to_have_count(0)


def _read_clips(server, home, folder):
    """Where the clips lie, by the command, and from there to the log."""
    for unit, clips in {"A": {"14A_T1": (4096, 1714), "14A_T2": (4096, 2160), "14A_T3": (4096, 1714), "14A_T4": (4096, 1714)},
                        "B": {"15B_T1": (4096, 1714)}}.items():  # fmt: skip
        where = folder / f"clips-{unit}"
        where.mkdir()
        for name, size in clips.items():
            # Of A everything at the rate that is planned; of B at another than the log says.
            clip(where / f"{name}.mov", size=size, fps=50 if unit == "A" else 25)
        command = [sys.executable, "-m", "hextan.cli", "clips", str(where), "--json"]
        env = {**os.environ, "PYTHONPATH": str(ROOT / "src")}
        facts = json.loads(subprocess.run(command, capture_output=True, check=True, env=env).stdout)
        assert len(facts) == len(clips)
        # The stand-ins are written with 8 bits, which none of the planned recordings has: that is not what was planted.
        assert {each["bits"] for each in facts} == {8}
        facts = [{**each, "bits": None} for each in facts]
        listed = asked(server, f"{home}/log/clips", {"facts": facts, "unit": unit, "day": DAY})
        assert listed == {"added": len(clips), "there": 0}
        assert asked(server, f"{home}/log/clips", {"facts": facts, "unit": unit, "day": DAY})["there"] == len(
            clips
        )
