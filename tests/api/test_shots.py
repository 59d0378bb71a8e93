"""Shots over the API, kept and judged; and the same answers from the production's file, without a server."""

import json
import subprocess
import sys

import pytest

from hextan.store import models


@pytest.fixture
def at(client):
    low_water = client.get("/api/v1/productions").json()["here"][0]["id"]
    return f"/api/v1/productions/{low_water}"


def test_the_list_is_kept_with_its_version(client, at):
    first = client.get(f"{at}/shots").json()
    document = first["document"]
    assert len(document["shots"]) == 40
    document["shots"][0]["framing"] = "waist"
    kept = client.put(f"{at}/shots", json={"version": first["version"], "document": document}).json()
    assert kept["document"]["shots"][0]["framing"] == "waist"
    stale = client.put(f"{at}/shots", json={"version": first["version"], "document": document})
    assert stale.status_code == 409
    assert stale.json()["error"]["stored"]["version"] == kept["version"]


def test_a_production_without_shots(client, session):
    row = models.Production(name="Second unit", synopsis="")
    session.add(row)
    session.commit()
    url = f"/api/v1/productions/{row.id}/shots"
    empty = client.get(url).json()
    assert empty == {
        "version": 0,
        "document": {"schema": "hextan.shots", "schema_version": 1, "shots": [], "columns": {}, "noted": {}},
    }
    empty["document"]["shots"] = [{"name": "1", "framing": "waist"}]
    assert client.put(url, json=empty).json()["version"] == 1
    seen = client.post(f"{url}/view", json={"document": empty["document"]}).json()
    assert seen["answers"][0]["binds"].startswith("There is no body yet")


def test_what_is_malformed_is_told_with_its_place(client, at):
    wrong = client.post(
        f"{at}/shots/view",
        json={"document": {"schema": "hextan.shots", "shots": [{"name": "", "wishes": {"sky": 1}}]}},
    )
    assert wrong.status_code == 422
    assert {fault["field"] for fault in wrong.json()["error"]["faults"]} == {
        "document.shots[0].name",
        "document.shots[0].wishes.sky",
    }


def test_the_bench_takes_a_shot_and_gives_one_back(client, at):
    shot = client.get(f"{at}/shots").json()["document"]["shots"][1]
    state = client.post(f"{at}/shots/bench", json={"shot": shot}).json()["state"]
    seen = client.post(f"{at}/bench/view", json={"state": state}).json()
    assert seen["links"]["sum"]["factor"] > 0
    kept = client.post(f"{at}/shots/from-bench", json={"state": state, "number": "12X"}).json()
    assert (kept["name"], kept["pin"]["lens"]) == (
        "12X",
        next(c for c in [seen["lens"]] if c) and kept["pin"]["lens"],
    )
    (picture,) = client.post(f"{at}/shots/pictures", json={"shots": [shot]}).json()
    assert picture["key"] == shot["key"]
    assert picture["viewfinder"]["objects"] is not None
    assert client.post(f"{at}/shots/rented", json={"shot": shot}).json()["verdict"] == "does"
    nothing = client.post(f"{at}/shots/bench", json={"shot": {"name": "empty"}})
    assert nothing.json() == {"state": None}


def test_the_file_alone_gives_the_same_answers(client, at, tmp_path):
    document = client.get(f"{at}/shots").json()["document"]
    by_server = client.post(f"{at}/shots/view", json={"document": document}).json()
    file = tmp_path / "low_water.hextan.json"
    file.write_bytes(client.get(f"{at}/file").content)
    run = subprocess.run([sys.executable, "-m", "hextan.cli", "plan", file], capture_output=True, check=True)
    by_file = json.loads(run.stdout)
    assert by_file["production"] == "Low Water"

    def plain(view):
        """Without the numbers of rows, which a file counts for itself."""
        return json.loads(
            json.dumps(view),
            object_hook=lambda part: {k: v for k, v in part.items() if not k.endswith(("_id", "_ids"))},
        )

    assert plain(by_file["shots"]) == plain(by_server)
    bad = subprocess.run(
        [sys.executable, "-m", "hextan.cli", "plan", "-"], input=b"{}", capture_output=True, check=False
    )
    assert (bad.returncode, b"schema" in bad.stderr) == (2, True)


def test_a_whole_production_takes_its_shots_and_its_notes_along(client, at):
    rig = client.get(f"{at}/rig").json()
    assert [pair["name"] for pair in rig["document"]["pairs"]] == ["Dunlin 6", "Reach 75–290"]
    file = client.get(f"{at}/file").content
    made = client.post(
        "/api/v1/productions/file", content=file, headers={"content-type": "application/octet-stream"}
    )
    there = f"/api/v1/productions/{made.json()['id']}"
    assert client.get(f"{there}/shots").json()["document"] == client.get(f"{at}/shots").json()["document"]
    assert client.get(f"{there}/rig").json()["document"] == rig["document"]
    assert client.get(f"{there}/file").content == file
    broken = json.loads(file)
    broken["shots"]["shots"][3]["wishes"] = {"framing": 99}
    refused = client.post(
        "/api/v1/productions/file",
        content=json.dumps(broken),
        headers={"content-type": "application/octet-stream"},
    )
    assert [fault["field"] for fault in refused.json()["error"]["faults"]] == [
        "shots.shots[3].wishes.framing"
    ]


@pytest.mark.parametrize("kind", ["csv", "xlsx", "ods", "otio", "edl"])
def test_the_list_goes_out_in_every_kind_and_changes_nothing_when_it_comes_back(client, at, kind):
    out = client.get(f"{at}/shots/files/{kind}")
    assert "attachment" in out.headers["content-disposition"]
    back = client.post(
        f"{at}/shots/files/{kind}", content=out.content, headers={"content-type": "application/octet-stream"}
    ).json()
    # An edit list carries numbers and reels alone.
    assert (back["new"], back["gone"]) == ([], [])
    assert back["changed"] == []
    wrong = client.post(
        f"{at}/shots/files/{kind}", content=b"\x00", headers={"content-type": "application/octet-stream"}
    )
    assert wrong.status_code == 422
    assert client.get(f"{at}/shots/files/pdf").status_code == 422


def test_another_unit_of_the_production_reads_no_shot_anew_and_the_bench_follows(client, at):
    """`3` typed in metres stays three metres: it works before the switch and after it, on whatever is shown in feet then."""
    shots = client.get(f"{at}/shots").json()
    bare = {"key": "bare", "name": "99", "framing": "1.9 wide", "distance": "3", "hold": "2.5-4"}
    shots["document"]["shots"].append(bare)
    kept = client.put(f"{at}/shots", json=shots).json()
    last = kept["document"]["shots"][-1]
    assert (last["framing"], last["distance"], last["hold"]) == ("1.9 m wide", "3 m", "2.5-4 m")
    before = client.post(f"{at}/shots/view", json={"document": kept["document"], "changes_for": []}).json()[
        "answers"
    ][-1]
    bench = client.get(f"{at}/bench").json()
    assert (
        client.put(f"{at}/bench", json={"version": bench["version"], "state": bench["state"]}).status_code
        == 200
    )
    assert bench["state"]["unit"] == "m"
    settings = client.get(f"{at}/settings").json()
    settings["settings"]["unit"] = "ft"
    assert client.put(f"{at}/settings", json=settings).status_code == 200
    after = client.get(f"{at}/shots").json()
    assert after["document"]["shots"][-1]["distance"] == "3 m"
    again = client.post(f"{at}/shots/view", json={"document": after["document"], "changes_for": []}).json()[
        "answers"
    ][-1]
    assert again["verdict"] == before["verdict"]
    assert again["best"]["distance_m"] == before["best"]["distance_m"]
    assert client.get(f"{at}/bench").json()["state"]["unit"] == "ft"
    # A Bench that was set otherwise stays.
    settings = client.get(f"{at}/settings").json()
    bench = client.get(f"{at}/bench").json()
    client.put(f"{at}/bench", json={"version": bench["version"], "state": bench["state"] | {"unit": "m"}})
    settings["settings"]["unit"] = "m"
    client.put(f"{at}/settings", json=settings)
    settings = client.get(f"{at}/settings").json()
    settings["settings"]["unit"] = "ft"
    client.put(f"{at}/settings", json=settings)
    assert client.get(f"{at}/bench").json()["state"]["unit"] == "ft"


def test_what_a_shot_could_be_made_with_comes_as_facts(client, at):
    shots = client.get(f"{at}/shots").json()["document"]
    shots["shots"] = [
        {
            "key": "s",
            "name": "1",
            "framing": "waist",
            "distance": "3 m",
            "speed": "100",
            "stop": "T2.8",
            "hold": "1-9 m",
        }
    ]
    (answer,) = client.post(f"{at}/shots/view", json={"document": shots}).json()["answers"]
    assert answer["verdict"] in ("cannot", "nearly")
    for change in answer["changes"]:
        assert {"kind", "field", "from", "to", "body", "lens", "lens_set"} == change["edits"][0].keys()
        cells = {
            edit["field"]: edit["to"] for edit in change["edits"] if edit["field"] and edit["kind"] != "wish"
        }
        wishes = {edit["field"]: 1.0 for edit in change["edits"] if edit["kind"] == "wish"}
        if len(cells) + len(wishes) == len(change["edits"]):
            other = shots["shots"][0] | cells | {"wishes": wishes}
            (cured,) = client.post(
                f"{at}/shots/view", json={"document": shots | {"shots": [other]}, "changes_for": []}
            ).json()["answers"]
            assert cured["verdict"] == "does", change["text"]
    nobody = client.post(f"{at}/shots/view", json={"document": shots, "changes_for": []}).json()["answers"]
    assert nobody[0]["changes"] == []
