"""The simulated camera: what it can be told, what it says then, and its page."""

import json
import urllib.error
import urllib.request

import pytest

from hextan.core.base import InvalidInputError
from hextan.formats.tracked import heard_of
from hextan.standins.camera.__main__ import main
from hextan.standins.camera.models import invented
from hextan.standins.camera.serving import Cameras
from hextan.standins.camera.simulated import MISBEHAVIOURS, SimulatedCamera
from tests.formats.test_tracked import EBB


def test_every_window_of_every_invented_body_can_be_said():
    for model in invented():
        camera = SimulatedCamera("A", model)
        for window in model.windows:
            camera.command({"format": window.format, "crops": list(window.crops)})
            heard = heard_of(camera.data())
            assert heard.raster == window.raster
            assert heard.read_mm == pytest.approx(window.read_mm, abs=5e-4)


def test_a_switch_is_turned_over_and_a_format_begins_without():
    camera = SimulatedCamera("A", EBB)
    camera.command({"format": "Scope → 4096", "crop": "Stabiliser, standard"})
    assert camera.setting.crops == ("Stabiliser, standard",)
    camera.command({"crop": "Stabiliser, standard"})
    assert camera.setting.crops == ()
    for bad in ({"format": "9K"}, {"crop": "Warp"}, {"weather": "fog"}, {"misbehave": "sing"}):
        with pytest.raises(InvalidInputError):
            camera.command(bad)


def test_focus_is_pulled_over_its_time():
    now = [0.0]
    camera = SimulatedCamera("A", EBB, monotonic=lambda: now[0])
    camera.command({"lens": "Merrow 65", "focus_m": 4.0})
    camera.command({"pull": {"to_m": 2.0, "seconds": 2.0}})
    seen = []
    for now[0] in (0.0, 0.5, 1.0, 1.5, 2.0, 3.0):
        seen.append(camera.sample()["lens"]["focusDistance"])
    assert seen == sorted(seen, reverse=True)
    assert seen[0] == 4.0
    # Half of the way by the reciprocal of the distance.
    assert seen[2] == pytest.approx(1 / ((1 / 4 + 1 / 2) / 2))
    assert seen[-1] == 2.0


def test_a_lens_without_contacts_is_not_told():
    skiff = next(m for m in invented() if m.name == "Skiff 46")
    camera = SimulatedCamera("B", skiff)
    camera.command({"lens": "Wren 40"})
    heard = heard_of(camera.data())
    assert (heard.lens, heard.t_stop, heard.focus_m) == (None, None, None)


def test_it_misbehaves_as_told():
    camera = SimulatedCamera("A", EBB, clock=lambda: 1e9)
    for what in MISBEHAVIOURS:
        camera.command({"misbehave": what})
        data = camera.data()
        assert (data is None) == (what == "silent")
        if what == "impossible":
            with pytest.raises(InvalidInputError):
                heard_of(data)
        elif data is not None:
            assert abs(heard_of(data).clock_s - 1e9) == (8000 if what == "clock" else 0)


def test_its_page_takes_commands_and_refuses_with_words():
    server = Cameras({"A": SimulatedCamera("A", EBB)}).serve(0)
    at = f"http://127.0.0.1:{server.server_address[1]}"
    try:
        assert b"Simulated cameras" in urllib.request.urlopen(f"{at}/").read()
        ask = urllib.request.Request(f"{at}/command/A", json.dumps({"ei": 1600}).encode(), method="POST")
        assert json.load(urllib.request.urlopen(ask))["ei"] == 1600
        for body in (b'{"format": "9K"}', b"nonsense", b'{"pull": 3}'):
            with pytest.raises(urllib.error.HTTPError) as refused:
                urllib.request.urlopen(urllib.request.Request(f"{at}/command/A", body, method="POST"))
            assert refused.value.code == 422
            refused.value.close()
    finally:
        server.shutdown()
        server.server_close()


def test_a_script_is_followed_in_its_order():
    of = Cameras({"A": SimulatedCamera("A", EBB)})
    of.follow(
        [
            {"at": 0.02, "camera": "A", "ei": 1600},
            {"at": 0.0, "camera": "A", "ei": 400},
            {"at": 0.01, "camera": "A", "fps": 50},
        ]
    )
    assert (of.cameras["A"].setting.ei, of.cameras["A"].setting.fps) == (1600, 50)


def test_a_body_that_nobody_knows_is_told(capsys):
    assert main(["A=Nothing 9"]) == 2
    assert "there is no body Nothing 9 to simulate: Ebb 64" in capsys.readouterr().err
