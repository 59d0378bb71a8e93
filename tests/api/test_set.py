"""The page of the set and its log through the API."""

import pytest

from tests.core.record.days import on, take


def plain(entry):
    return entry.model_dump(mode="json")


@pytest.fixture
def write(client, url):
    def put(entry, based_on=0, key=None):
        body = {"entry": plain(entry), "based_on": based_on}
        return client.put(f"{url}/log/{key or entry.key}", json=body)

    return put


def test_a_take_is_written_read_and_written_again_once(client, url, write):
    entry = take("11111111-2222-4333-8444-555555555555", "12B", 9)
    first = write(entry)
    assert (first.status_code, first.json()["revision"]) == (200, 1)
    assert write(entry).json() == first.json()
    circled = entry.model_copy(update={"circled": True, "by": "Owen"})
    assert write(circled, 1).json()["revision"] == 2
    assert write(circled, 1).json()["revision"] == 2
    assert client.get(f"{url}/log/{entry.key}").json()["entry"]["by"] == "Owen"
    day = client.get(f"{url}/set", params={"day": "1"}).json()["day"]
    mine = [t for t in day["takes"] if t["entry"]["key"] == entry.key]
    assert [(t["revision"], [b["circled"] for b in t["before"]], t["held"]["told"]) for t in mine] == [
        (2, [False], "As planned.")
    ]


def test_a_write_on_an_old_revision_is_refused_with_both(write):
    entry = take("k1", "13A", 1)
    write(entry)
    write(entry.model_copy(update={"note": "hers"}), 1)
    refused = write(entry.model_copy(update={"note": "his"}), 1)
    assert refused.status_code == 409
    error = refused.json()["error"]
    assert (error["code"], error["given"]["entry"]["note"]) == ("stale_write", "his")
    assert (error["stored"]["revision"], error["stored"]["entry"]["note"]) == (2, "hers")
    assert write(entry.model_copy(update={"note": "his"}), 2).json()["revision"] == 3


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"take": 0}, "entry.take"),
        ({"at": "yesterday"}, "entry.at"),
        ({"kind": "wrap"}, "entry"),
        ({"on": {"stop": -2.0}}, "entry.on.stop"),
        ({"note": "a\u0000b"}, ""),
        ({"weather": "fog"}, "entry.weather"),
    ],
)
def test_what_cannot_be_is_told_at_its_field(client, url, change, field):
    entry = plain(take("k2", "13A", 1)) | change
    answer = client.put(f"{url}/log/k2", json={"entry": entry, "based_on": 0})
    assert answer.status_code == 422
    faults = answer.json()["error"]["faults"]
    assert not field or any(fault["field"].startswith(field) for fault in faults), faults


def test_the_key_of_the_address_is_the_entrys(write):
    assert write(take("k3", "13A", 1), key="other").json()["error"]["faults"][0]["field"] == "entry.key"


def test_what_is_on_is_held_against_the_plan_without_being_kept(client, url):
    body = {"shot": "s12b", "on": on("12B", stop=4.0).model_dump(mode="json")}
    held = client.post(f"{url}/set/held", json=body).json()
    assert [d["code"] for d in held["differences"]] == ["stop"]
    assert held["near_m"] < on("12B").focus_m < held["far_m"]
    assert client.post(f"{url}/set/held", json=body | {"shot": None}).json()["differences"] == []


def test_depth_is_had_at_an_address_of_its_own(client, url):
    bodies = client.get(f"{url}/set").json()["day"]["bodies"]
    ebb = next(b for b in bodies if b["name"] == "Ebb 64")
    lens = next(lens for lens in ebb["lenses"] if lens["name"] == "Longshore 2x 75")
    query = {"format_id": ebb["formats"][0]["id"], "lens_id": lens["id"], "adapter_id": lens["adapter_ids"]}
    curves = client.get(f"{url}/set/depth", params=query).json()
    assert curves["lens"] == "Longshore 2x 75"
    assert curves["at"] == sorted(curves["at"], reverse=True)
    every = client.get(f"{url}/set/depths", params={"format_id": query["format_id"]}).json()["lenses"]
    assert [row["curves"] for row in every if row["lens_id"] == lens["id"]] == [curves]
    assert client.get(f"{url}/set/depths", params={"format_id": 999_999}).status_code == 422
    gone = client.get(f"{url}/set/depth", params=query | {"lens_id": 999_999}).json()["error"]
    assert "the lens is no longer in this production" in gone["message"].lower()


def test_a_day_that_nobody_knows_is_an_empty_one(client, url):
    seen = client.get(f"{url}/set", params={"day": "99"}).json()
    assert (seen["day"]["shots"], seen["day"]["takes"], seen["checks"]) == ([], [], [])
    assert client.get(f"{url}/set/report", params={"day": "99"}).json()["faults"] == []
    assert client.get("/api/v1/productions/999999/set").status_code == 404


def test_cameras_that_are_listened_to_are_kept_like_any_document(client, url):
    kept = client.get(f"{url}/set/settings").json()
    assert [s["on"] for s in kept["document"]["sources"]] == [False, False]
    document = kept["document"] | {"sources": kept["document"]["sources"][:1]}
    assert (
        client.put(f"{url}/set/settings", json={"version": kept["version"], "document": document}).status_code
        == 200
    )
    assert (
        client.put(f"{url}/set/settings", json={"version": kept["version"], "document": document}).status_code
        == 409
    )
    twice = document | {"sources": document["sources"] * 2}
    assert "the same letter" in client.put(f"{url}/set/settings", json={"version": 9, "document": twice}).text
