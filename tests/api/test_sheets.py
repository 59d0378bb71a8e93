"""Sheets over the API: kept, made, given as files, and printed by a process of its own."""

import time

import pypdfium2
import pytest

from hextan.core.sheets import KINDS
from hextan.store.models import Production


@pytest.fixture
def at(client, production_id):
    return f"/api/v1/productions/{production_id}/sheets"


def plan(**changes):
    return {"key": "one", "kind": "depth"} | changes


def test_sheets_are_kept_with_their_version(client, at):
    first = client.get(at).json()
    assert [bundle["name"] for bundle in first["document"]["bundles"]][:2] == [
        "For the cart",
        "For the director",
    ]
    document = first["document"]
    document["bundles"][0]["sheets"][0]["paper"] = "letter"
    kept = client.put(at, json={"version": first["version"], "document": document}).json()
    assert kept["version"] == first["version"] + 1
    assert client.get(at).json()["document"] == document
    stale = client.put(at, json={"version": first["version"], "document": document})
    assert stale.status_code == 409
    assert stale.json()["error"]["stored"]["version"] == kept["version"]
    twice = {"schema": "hextan.sheets", "schema_version": 1, "bundles": [document["bundles"][0]] * 2}
    refused = client.put(at, json={"version": kept["version"], "document": twice})
    assert refused.status_code == 422
    assert "same key" in refused.text


def test_a_production_without_sheets(client, session):
    row = Production(name="Bare")
    session.add(row)
    session.commit()
    at = f"/api/v1/productions/{row.id}/sheets"
    assert client.get(at).json()["version"] == 0
    for kind in KINDS:
        seen = client.post(f"{at}/view", json={"plan": plan(kind=kind)})
        assert seen.status_code == 200, seen.text
        assert seen.json()["page_count"] == 0 or kind in ("exposure", "flicker")
    assert client.get("/api/v1/productions/999999/sheets").status_code == 404


def test_a_sheet_as_it_would_be_printed(client, at):
    seen = client.post(f"{at}/view", json={"plan": plan(lens_sets=["Merrow"]), "first": 2, "most": 3}).json()
    assert seen["page_count"] >= 12
    assert (seen["first"], len(seen["pages"])) == (2, 3)
    assert seen["working"] is False
    assert any(mark["text"] == f"3 / {seen['page_count']}" for mark in seen["pages"][0]["marks"])
    again = client.post(f"{at}/view", json={"plan": plan(lens_sets=["Merrow"]), "most": 0}).json()
    assert again["fingerprint"] == seen["fingerprint"]
    assert again["pages"] == []
    other = client.post(f"{at}/view", json={"plan": plan(lens_sets=["Wren"]), "most": 0}).json()
    assert other["fingerprint"] != seen["fingerprint"]
    named = client.post(f"{at}/view", json={"plan": plan(kind="exposure", name="渡し船"), "most": 1}).json()
    assert named["unknown_signs"] == "".join(sorted("渡し船"))


def test_a_sheet_asks_for_what_it_can_be_asked_for(client, at):
    refused = client.post(f"{at}/view", json={"plan": plan(kind="poster", paper="a0", distances_m=[-1.0])})
    assert refused.status_code == 422
    fields = {fault["field"] for fault in refused.json()["error"]["faults"]}
    assert {"plan.kind", "plan.paper", "plan.distances_m[0]"} <= fields


def test_one_kept_sheet_as_a_file(client, at):
    pdf = client.get(f"{at}/cart-depth/pdf")
    assert pdf.headers["content-type"] == "application/pdf"
    assert "Depth, Merrow set.pdf" in pdf.headers["content-disposition"].replace("%2C", ",").replace(
        "%20", " "
    )
    assert len(pypdfium2.PdfDocument(pdf.content)) >= 12
    for kind, begins in (("csv", b"\xef\xbb\xbf"), ("xlsx", b"PK"), ("ods", b"PK")):
        assert client.get(f"{at}/cart-depth/{kind}").content.startswith(begins)
    assert client.get(f"{at}/nothing/pdf").status_code == 404
    assert client.get(f"{at}/cart-depth/docx").status_code == 422


def printed(client, at, name, seconds=60):
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        seen = client.get(f"{at}/prints/{name}").json()
        if seen["state"] in ("done", "failed"):
            return seen
        time.sleep(0.05)
    raise AssertionError(f"still {seen['state']}")


def test_a_bundle_is_printed_by_a_process(client, at):
    bundle = client.get(at).json()["document"]["bundles"][0]
    begun = client.post(f"{at}/prints", json={"title": bundle["name"], "plans": bundle["sheets"]}).json()
    seen = printed(client, at, begun["name"])
    assert (seen["state"], seen["problem"], seen["empty"]) == ("done", "", {})
    assert set(seen["fingerprints"]) == {sheet["key"] for sheet in bundle["sheets"]}
    for sheet in bundle["sheets"][:2]:
        now = client.post(f"{at}/view", json={"plan": sheet, "most": 0}).json()
        assert seen["fingerprints"][sheet["key"]] == now["fingerprint"]
    file = client.get(f"{at}/prints/{begun['name']}/file")
    read = pypdfium2.PdfDocument(file.content)
    assert len(read) == seen["pages"]
    assert [entry.get_title() for entry in read.get_toc()][1] == "Depth, Merrow set"
    assert client.get(f"{at}/prints/print-0123456789abcdef").status_code == 404
    assert client.get(f"{at}/prints/print-0123456789abcdef/file").status_code == 404


def test_printing_is_stopped(client, at):
    many = [plan(key=f"k{i}", each="distance") for i in range(40)]
    begun = client.post(f"{at}/prints", json={"title": "All", "plans": many}).json()
    assert client.get(f"{at}/prints/{begun['name']}/file").status_code == 404
    client.post(f"{at}/prints/{begun['name']}/stop")
    seen = printed(client, at, begun["name"])
    assert seen["state"] == "failed"
    assert "topped before" in seen["problem"]


def test_the_kit_of_a_sheet_is_the_kit_of_its_page(client, at, production_id):
    asked = {"plan": plan(kind="kit", which="Ebb and primes"), "most": 0}
    until = time.monotonic() + 60
    while (seen := client.post(f"{at}/view", json=asked).json())["working"]:
        assert "looked for" in seen["sheet"]["why_empty"]
        assert time.monotonic() < until
    assert "7 lenses" in seen["sheet"]["lead"]
    # It was looked for under the name of the kit, as the page of kits does.
    found = client.get(f"/api/v1/productions/{production_id}/packing/searches/primes").json()
    assert found["kit"]["lenses"] == 7
