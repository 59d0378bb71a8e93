"""Comparisons over the API on a real PostgreSQL: kept, changed, taken out, computed, matched."""

import copy

import pytest

from hextan.core.compare.answers import CameraMatch, CompareView
from tests.shapes import check_shape


@pytest.fixture
def address(production_id):
    return f"/api/v1/productions/{production_id}"


@pytest.fixture
def document(client, address):
    """The demo's Bench beside the same lens in another format."""
    state = client.get(f"{address}/bench").json()["state"]
    chain = {k: state[k] for k in ("lens_id", "adapter_id", "stop", "subject_m", "fps")}
    return {
        "schema": "hextan.comparison",
        "schema_version": 1,
        "name": "A and B on the deck",
        "columns": [
            {"key": "a", "format_id": state["format_id"], **chain},
            {"key": "b", "format_id": state["pinned"][0], "trim_note": "by eye on the deck", **chain},
        ],
    }


@pytest.fixture
def kept(client, address, document):
    answer = client.post(f"{address}/comparisons", json={"document": document})
    assert answer.status_code == 201
    return answer.json()


def test_a_comparison_comes_back_as_it_was_kept(client, address, kept, document):
    read = client.get(f"{address}/comparisons/{kept['id']}").json()
    assert read == kept
    assert read["document"]["name"] == "A and B on the deck"
    assert [c["key"] for c in read["document"]["columns"]] == ["a", "b"]
    assert read["document"]["columns"][1]["trim_note"] == "by eye on the deck"
    # What the demo has, and this one after it.
    names = [c["document"]["name"] for c in client.get(f"{address}/comparisons").json()["here"]]
    assert names[-1] == document["name"]


def test_a_stale_write_loses_nothing(client, address, kept):
    one, two = copy.deepcopy(kept["document"]), copy.deepcopy(kept["document"])
    one["name"], two["name"] = "first", "second"
    there = f"{address}/comparisons/{kept['id']}"
    first = client.put(there, json={"version": kept["version"], "document": one})
    assert first.json()["version"] == kept["version"] + 1
    second = client.put(there, json={"version": kept["version"], "document": two})
    assert second.status_code == 409
    error = second.json()["error"]
    assert error["given"]["document"]["name"] == "second"
    assert error["stored"]["document"]["name"] == "first"


def test_taken_out_and_brought_back(client, address, kept):
    there = f"{address}/comparisons/{kept['id']}/removal"
    out = client.post(there, json={"version": kept["version"], "removed": True}).json()
    assert out["removed"] is True
    listed = client.get(f"{address}/comparisons").json()
    assert kept["id"] in [c["id"] for c in listed["removed"]]
    assert kept["id"] not in [c["id"] for c in listed["here"]]
    assert client.post(there, json={"version": kept["version"], "removed": False}).status_code == 409
    back = client.post(there, json={"version": out["version"], "removed": False}).json()
    assert back["document"] == kept["document"]


def test_what_is_not_there(client, address, kept, document):
    assert client.get(f"{address}/comparisons/999999").status_code == 404
    elsewhere = client.get(f"/api/v1/productions/1/comparisons/{kept['id']}")
    assert elsewhere.status_code == 404
    gone = copy.deepcopy(document)
    gone["columns"][1]["lens_id"] = 999999
    answer = client.post(f"{address}/compare/view", json={"document": gone})
    assert answer.status_code == 422
    error = answer.json()["error"]
    assert error["message"].startswith("Set-up B: ")
    assert error["faults"][0]["field"] == "document.columns[1].lens_id"


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"columns": []}, "document.columns"),
        ({"case": "closer"}, "document.case"),
        ({"name": ""}, "document.name"),
        ({"lux": 0}, "document.lux"),
        ({"colour": "red"}, "document.colour"),
    ],
)
def test_a_malformed_comparison_is_refused_by_its_field(client, address, document, change, field):
    answer = client.post(f"{address}/comparisons", json={"document": document | change})
    assert answer.status_code == 422
    assert [f["field"] for f in answer.json()["error"]["faults"]] == [field]


@pytest.mark.parametrize("case", ["as_set", "same_place", "moved", "other_lens"])
def test_every_case_is_computed(client, address, document, case):
    answer = client.post(f"{address}/compare/view", json={"document": document | {"case": case}})
    assert answer.status_code == 200, answer.text
    view = answer.json()
    check_shape(CompareView, view)
    assert [c["key"] for c in view["columns"]] == ["a", "b"]
    assert all(len(row["values"]) == 2 for row in view["rows"])
    assert not any(row["differs"][0] for row in view["rows"])
    assert view["master"] == 0 and view["summary"][0] is None
    told = view["summary"][1]
    assert not set(told["matches"]) & set(told["differs"])


def test_matching_gives_columns_that_can_be_set(client, address, document):
    answer = client.post(f"{address}/compare/match", json={"document": document, "index": 1})
    assert answer.status_code == 200, answer.text
    told = answer.json()
    check_shape(CameraMatch, told)
    best = told["options"][0]
    taken = copy.deepcopy(document)
    taken["columns"][1] = best["column"]
    view = client.post(f"{address}/compare/view", json={"document": taken}).json()
    field = next(row for row in view["rows"] if row["key"] == "field_w")["values"]
    assert 100 * (field[1] / field[0] - 1) == pytest.approx(best["width_percent"], abs=1e-3)
    assert best["column"]["trim_note"] == "by eye on the deck"
    wrong = client.post(f"{address}/compare/match", json={"document": document, "index": 3})
    assert wrong.status_code == 422
    assert (
        wrong.json()["error"]["message"]
        == "index: must be a column of the comparison other than A (given: 3)."
    )


def test_four_columns_in_little_time_and_space(client, address, document):
    four = copy.deepcopy(document)
    four["columns"] += [c | {"key": c["key"] * 2} for c in four["columns"]]
    answer = client.post(f"{address}/compare/view", json={"document": four})
    assert answer.status_code == 200
    assert len(answer.json()["columns"]) == 4
    four["columns"].append(four["columns"][0] | {"key": "fifth"})
    assert client.post(f"{address}/compare/view", json={"document": four}).status_code == 422
