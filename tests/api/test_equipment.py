"""Equipment that was understood is added in one step, all of it or none, and that is undone in one step."""

import pytest

from hextan.core.entry import AnythingAsk, anything

TEXT = "Skerry 60\nSensor 36 x 24 mm, 24 MP\nFull up to 60\nMount: Q7\n25 35 T1.5 Q7\nreducer 0.71 Q7 to E18\nND 2.4"


@pytest.fixture
def understood():
    found = anything(AnythingAsk(text=TEXT))
    plain = {
        name: [each.model_dump(mode="json") for each in found[name]]
        for name in ("lens_sets", "adapters", "filters")
    }
    return {"bodies": [found["bodies"][0]["document"].model_dump(mode="json")], **plain}


def names(client, url, what):
    return [row["name"] for row in client.get(f"{url}/{what}").json()["here"]]


def test_all_of_it_is_added_and_its_mounts_become_the_productions(client, url, understood):
    before = client.get(f"{url}/rig").json()
    added = client.post(f"{url}/equipment", json=understood)
    assert added.status_code == 201, added.json()
    assert "Skerry 60" in names(client, url, "bodies") and "Primes 25 to 35" in names(
        client, url, "lens-sets"
    )
    rig = client.get(f"{url}/rig").json()["document"]
    assert "Q7" in added.json()["mounts"] and "reducer 0.71 Q7 to E18" in [
        row["name"] for row in rig["adapters"]
    ]
    (mount,) = [row for row in rig["mounts"] if row["name"] == "Q7"]
    assert (mount["flange_mm"], mount["note"]) == (None, "flange distance not stated")
    undone = client.post(f"{url}/equipment/undo", json=added.json())
    assert (undone.status_code, undone.json()) == (200, {"removed": 2})
    assert client.get(f"{url}/rig").json()["document"] == before["document"]
    assert "Skerry 60" not in names(client, url, "bodies")
    # What was taken out can be brought back.
    assert "Skerry 60" in [row["name"] for row in client.get(f"{url}/bodies").json()["removed"]]


def test_nothing_is_added_where_a_part_of_it_is_refused(client, url, understood):
    here = names(client, url, "bodies")
    understood["lens_sets"][0]["lenses"][0]["focal_mm"] = -1
    refused = client.post(f"{url}/equipment", json=understood)
    assert refused.status_code == 422
    assert "lens_sets[0].lenses[0].focal_mm" in [
        fault["field"] for fault in refused.json()["error"]["faults"]
    ]
    assert names(client, url, "bodies") == here
    empty = client.post(f"{url}/equipment", json={})
    assert empty.status_code == 422 and "nothing to add" in str(empty.json())


def test_what_was_changed_since_is_not_undone_unasked(client, url, understood):
    added = client.post(f"{url}/equipment", json=understood).json()
    number = added["bodies"][0]["id"]
    body = client.get(f"{url}/bodies/{number}").json()
    body["document"]["firmware"] = "2.0"
    client.put(f"{url}/bodies/{number}", json={"version": body["version"], "document": body["document"]})
    rig = client.get(f"{url}/rig").json()
    assert client.post(f"{url}/equipment/undo", json=added).status_code == 409
    # All of it stays as it is.
    assert client.get(f"{url}/rig").json() == rig and "Primes 25 to 35" in names(client, url, "lens-sets")
    assert "Skerry 60" in names(client, url, "bodies")
