"""Cameras that are listened to, through the API: how one stands, what is refused, and clips that are read and listed."""

import time

import pytest

from hextan.standins.camera.serving import Sender
from hextan.standins.camera.simulated import SimulatedCamera
from tests.formats.test_tracked import EBB
from tests.live.test_listening import free_udp_port
from tests.media.clips import still_bytes


@pytest.fixture
def camera(client, url, application):
    """A simulated camera that is listened to as A."""
    made, port = SimulatedCamera("A", EBB, rate=60.0), free_udp_port()
    made.command({"format": "Scope → 4096", "lens": "Merrow 65", "stop": 2.0, "focus_m": 3.3})
    kept = client.get(f"{url}/set/settings").json()
    source = kept["document"]["sources"][0] | {"on": True, "port": port, "secret": made.source}
    document = kept["document"] | {"sources": [source]}
    assert (
        client.put(f"{url}/set/settings", json={"version": kept["version"], "document": document}).status_code
        == 200
    )
    sender = Sender(made, port)
    sender.start()
    yield made
    sender.close()
    application.state.cameras.listen(int(url.rsplit("/", 1)[1]), [])


def until(client, address, told, seconds=8.0):
    ends = time.monotonic() + seconds
    while True:
        seen = client.get(address).json()
        if told(seen):
            return seen
        assert time.monotonic() < ends, seen
        time.sleep(0.05)


def test_a_camera_stands_against_the_plan_of_its_shot(client, url, camera):
    address = f"{url}/live/A?shot=s12b"
    seen = until(client, address, lambda s: s["speaks"])
    assert (seen["held"]["told"], seen["told"], seen["body"]) == ("As planned.", "", "Ebb 64")
    assert seen["said"]["samples"] > 0
    camera.command({"format": "S35 → 4096 17:9"})
    seen = until(client, address, lambda s: s["held"]["differences"])
    assert seen["held"]["differences"][0]["headline"] == "CROP IS ON, planned off"
    assert seen["since"]["mode"] > seen["since"]["ei"]
    camera.command({"misbehave": "clock"})
    assert "clock is 2.2 h ahead" in until(client, address, lambda s: "clock" in s["told"])["told"]
    camera.command({"misbehave": "impossible"})
    assert "could not be read" in until(client, address, lambda s: "could not be read" in s["told"])["told"]


def test_what_was_ticked_and_is_otherwise_is_told(client, url, camera):
    until(client, f"{url}/live/A?shot=s12b", lambda s: s["speaks"])
    page = client.get(f"{url}/set", params={"day": "1"}).json()["checks"][0]
    item = next(i for i in page["items"] if i["told"].startswith("Scan mode Full scope"))
    entry = {"kind": "tick", "key": "tick1", "at": "2026-05-18T16:00:00Z", "written_at": "2026-05-18T16:00:00Z", "day": "1",
             "body": "Ebb 64", "item": item["key"], "by": "Owen"}  # fmt: skip
    assert client.put(f"{url}/log/tick1", json={"entry": entry}).status_code == 200
    camera.command({"format": "S35 → 4096 17:9"})
    until(client, f"{url}/live/A?shot=s12b", lambda s: s["held"] and s["held"]["differences"])
    page = client.get(f"{url}/set", params={"day": "1"}).json()["checks"][0]
    by_told = {i["told"].split(",")[0]: i["against"] for i in page["items"]}
    assert "CROP IS ON" in next(i for i in page["items"] if i["key"] == item["key"])["against"]
    # What nobody ticked yet is told as well: the camera is heard on every point.
    assert by_told["Records Scope → 4096"] == "RECORDS S35 → 4096 17:9, planned Scope → 4096"
    assert [against for told, against in by_told.items() if told.startswith("Rate")] == [""]
    camera.command({"fps": 50.0, "ei": 1600})
    until(client, f"{url}/live/A?shot=s12b", lambda s: s["held"] and len(s["held"]["differences"]) > 2)
    page = client.get(f"{url}/set", params={"day": "1"}).json()["checks"][0]
    told = {i["told"].split(" ")[0]: i["against"] for i in page["items"]}
    assert "50" in told["Rate"] and "1600" in told["EI"]


def test_a_camera_that_goes_by_another_name_is_told_by_the_name_that_was_heard(client, url, camera):
    kept = client.get(f"{url}/set/settings").json()
    sources = [{**source, "secret": "somebody else"} for source in kept["document"]["sources"]]
    client.put(
        f"{url}/set/settings",
        json={"version": kept["version"], "document": {**kept["document"], "sources": sources}},
    )
    seen = until(client, f"{url}/live/A", lambda s: s["names"])
    assert seen["names"] == [camera.source] and camera.source in seen["told"] and not seen["speaks"]


def test_nobody_that_is_listened_to_is_said_so(client, url):
    seen = client.get(f"{url}/live/Z").json()
    assert (seen["listened"], seen["speaks"], seen["on"], seen["held"]) == (False, False, None, None)
    assert client.get(f"{url}/live/A", params={"shot": "nowhere"}).status_code == 404
    assert client.get("/api/v1/productions/999999/live/A").status_code == 404


def test_another_machine_is_refused_at_its_field(client, url):
    kept = client.get(f"{url}/set/settings").json()
    source = kept["document"]["sources"][0] | {"host": "10.0.0.7"}
    answer = client.put(
        f"{url}/set/settings",
        json={"version": kept["version"], "document": kept["document"] | {"sources": [source]}},
    )
    (fault,) = answer.json()["error"]["faults"]
    assert (answer.status_code, fault["field"]) == (422, "document.sources[0].host")


def test_a_head_is_read_and_its_clip_is_listed_once(client, url):
    data = still_bytes()
    query = {"name": "12B_T1.jpg", "size": len(data), "head": len(data)}
    read = client.post(
        f"{url}/clips/head", params=query, content=data, headers={"Content-Type": "application/octet-stream"}
    )
    (facts,) = read.json()["facts"]
    assert facts["raster"] == [64, 36]
    ask = {"facts": [facts], "unit": "A", "day": "1"}
    assert client.post(f"{url}/log/clips", json=ask).json() == {"added": 1, "there": 0}
    assert client.post(f"{url}/log/clips", json=ask).json() == {"added": 0, "there": 1}
    report = client.get(f"{url}/set/report", params={"day": "1"}).json()
    (clip,) = report["clips"]["clips"]
    assert (clip["take_told"], clip["found_by"]) == ("12B take 1", "by its name")
    assert any("64 × 36, planned" in f["told"] for f in report["faults"])


@pytest.mark.parametrize(
    ("query", "word"),
    [({"head": 9999}, "is more than"), ({"size": 1}, "smaller"), ({"name": "x.exe"}, "is no clip")],
)
def test_a_head_that_cannot_be_is_refused(client, url, query, word):
    data = still_bytes()
    asked = {"name": "a.jpg", "size": len(data), "head": len(data)} | query
    answer = client.post(
        f"{url}/clips/head", params=asked, content=data, headers={"Content-Type": "application/octet-stream"}
    )
    assert answer.status_code == 422
    assert word in answer.json()["error"]["message"]


def test_nobody_listens_to_a_production_that_is_put_away(client, url, camera):
    until(client, f"{url}/live/A", lambda s: s["speaks"])
    for removed in (True, False):
        version = client.get(url).json()["version"]
        answer = client.post(f"{url}/removal", json={"version": version, "removed": removed})
        assert answer.status_code == 200
        seen = client.get(f"{url}/live/A")
        assert seen.status_code == 410 if removed else seen.json()["listened"]


def test_what_is_held_follows_the_settings_and_the_shots_as_they_are_now(client, url):
    def told():
        on = {
            "body": "Ebb 64",
            "mode": "Full scope 6.4K",
            "format": "Scope → 4096",
            "lens": "Merrow 65",
            "stop": 2.0,
            "focus_m": 1.0,
        }
        return client.post(f"{url}/set/held", json={"shot": "s12b", "on": on}).json()["differences"][0][
            "planned"
        ]

    assert told() == "2.50 m to 4.00 m"
    kept = client.get(f"{url}/settings").json()
    client.put(
        f"{url}/settings", json={"version": kept["version"], "settings": kept["settings"] | {"unit": "ft"}}
    )
    assert told() == "8' 2½\" to 13' 1½\""
    shots = client.get(f"{url}/shots").json()
    document = shots["document"]
    document["shots"][1]["distance"] = "6-7 ft"
    client.put(f"{url}/shots", json={"version": shots["version"], "document": document})
    assert told() == "6' 0\" to 7' 0\""
