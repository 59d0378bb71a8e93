"""Addresses of the API and their versions: older ones lead on, writes go by ETags, lists come in parts, answers in fewer bytes."""

import gzip
import json
import re
from urllib.parse import urlsplit

import pytest


def test_older_addresses_are_answered_with_a_note(client, production_id):
    today = client.get(f"/api/v1/productions/{production_id}/bench")
    older = client.get(f"/api/productions/{production_id}/bench")
    assert older.json() == today.json()
    assert re.fullmatch(r"@\d+", older.headers["deprecation"])
    assert older.headers["link"] == f'</api/v1/productions/{production_id}/bench>; rel="successor-version"'
    assert "deprecation" not in today.headers


def test_older_addresses_write_and_say_where_what_they_made_is(client):
    made = client.post("/api/productions", json={"facts": {"name": "Slack"}})
    assert made.status_code == 201
    assert made.headers["location"].startswith("/api/v1/productions/")
    assert client.get(made.headers["location"]).json()["facts"]["name"] == "Slack"


def test_letters_of_an_older_address_stay_out_of_the_head(client):
    answer = client.get("/api/nach%0d%0aX-Bad:%201/Gezeit%C3%A9")
    assert answer.status_code == 404
    assert "x-bad" not in answer.headers
    assert answer.headers["link"].isascii()


def test_the_public_evaluation_keeps_its_address(client):
    from tests.core.evaluation.test_evaluate import REQUEST

    answers = [client.post(f"/api{at}/evaluate", json=REQUEST) for at in ("", "/v1")]
    assert answers[0].json() == answers[1].json()
    assert all("deprecation" not in answer.headers for answer in answers)
    foreign = {"origin": "https://elsewhere.example"}
    assert client.post("/api/evaluate", json=REQUEST, headers=foreign).status_code == 200


@pytest.mark.parametrize("part", ["bench", "settings", "rig", "shots", "packing", "sheets", "set/settings"])
def test_what_has_a_version_has_it_as_a_tag(client, production_id, part):
    at = f"/api/v1/productions/{production_id}/{part}"
    read = client.get(at)
    tag = read.headers["etag"]
    assert re.fullmatch(rf'"{read.json()["version"]}\.[0-9a-f]{{8}}"', tag)
    again = client.get(at, headers={"if-none-match": tag})
    assert (again.status_code, again.content, again.headers["etag"]) == (304, b"", tag)
    assert client.get(at, headers={"if-none-match": '"999"'}).status_code == 200
    written = client.put(at, json=read.json())
    assert written.headers["etag"].startswith(f'"{read.json()["version"] + 1}.')
    assert client.get(at, headers={"if-none-match": written.headers["etag"]}).status_code == 304
    # The same write again is based on what is no longer there.
    assert client.put(at, json=read.json()).status_code == 409


def test_what_an_answer_says_besides_its_document_changes_its_tag(client, production_id):
    """A production tells the unit of its settings, which have a version of their own."""
    at = f"/api/v1/productions/{production_id}"
    before = client.get(at)
    settings = client.get(f"{at}/settings").json()
    client.put(f"{at}/settings", json=settings | {"settings": settings["settings"] | {"unit": "ft"}})
    after = client.get(at, headers={"if-none-match": before.headers["etag"]})
    told = after.json()
    assert (after.status_code, told["unit"], told["version"]) == (200, "ft", before.json()["version"])


def test_if_match_stands_for_the_version_of_a_write(client, production_id):
    at = f"/api/v1/productions/{production_id}/settings"
    kept = client.get(at)
    body = {"settings": kept.json()["settings"] | {"base_fps": "24"}}
    assert client.put(at, json=body).status_code == 422
    written = client.put(at, json=body, headers={"if-match": kept.headers["etag"]})
    assert (written.status_code, written.json()["settings"]["base_fps"]) == (200, "24")
    stale = client.put(at, json=body, headers={"if-match": kept.headers["etag"]})
    assert (stale.status_code, stale.json()["error"]["stored"]["version"]) == (409, written.json()["version"])
    both = client.put(at, json=body | {"version": 1}, headers={"if-match": '"7"'})
    assert both.json()["error"]["faults"] == [
        {"field": "version", "value": 1, "rule": "is not the version of If-Match, 7"}
    ]


def test_a_list_comes_in_parts_that_lead_on(client, production_id):
    at = f"/api/v1/productions/{production_id}/lens-sets"
    whole = client.get(at).json()
    gone = whole["here"][1]
    client.post(f"{at}/{gone['id']}/removal", json={"version": gone["version"], "removed": True})
    whole = client.get(at).json()
    assert (len(whole["here"]), len(whole["removed"])) == (5, 1)
    found, following = {"here": [], "removed": []}, f"{at}?most=4"
    while following:
        answer = client.get(following)
        part = answer.json()
        assert 0 < len(part["here"]) + len(part["removed"]) <= 4
        for name in found:
            found[name] += part[name]
        link = re.fullmatch(r'<(.+)>; rel="next"', answer.headers.get("link", ""))
        following = link and link[1]
    assert found == whole
    assert client.get(f"{at}?most=0").status_code == 422
    assert client.get(f"{at}?first=99").json() == {"here": [], "removed": []}


@pytest.mark.parametrize("path", ["productions", "productions/1/bodies", "productions/1/comparisons"])
def test_every_list_of_documents_takes_parts(client, production_id, path):
    at = f"/api/v1/{path.replace('/1/', f'/{production_id}/')}"
    answer = client.get(f"{at}?most=1&first=0")
    assert len(answer.json()["here"]) == 1
    following = answer.headers.get("link")
    assert following is None or urlsplit(following[1:]).path == at


def test_answers_are_compressed_where_that_is_asked_for(client, production_id):
    at = f"/api/v1/productions/{production_id}/package"
    with client.stream("GET", at, headers={"accept-encoding": "gzip"}) as answer:
        assert answer.headers["content-encoding"] == "gzip"
        sent = b"".join(answer.iter_raw())
    plain = client.get(at, headers={"accept-encoding": "identity"})
    assert "content-encoding" not in plain.headers
    assert json.loads(gzip.decompress(sent)) == plain.json()
    assert len(sent) < len(plain.content) / 4
    small = client.get("/api/v1/health", headers={"accept-encoding": "gzip"})
    assert "content-encoding" not in small.headers


def test_options_and_405_say_what_an_address_takes(client, production_id):
    at = f"/api/v1/productions/{production_id}/bench"
    options = client.options(at)
    assert (options.status_code, options.content) == (204, b"")
    assert set(options.headers["allow"].split(", ")) == {"GET", "HEAD", "PUT", "OPTIONS"}
    refused = client.delete(at)
    assert (refused.status_code, refused.headers["allow"]) == (405, options.headers["allow"])
    assert client.options("/api/v1/nowhere").status_code == 404


def test_any_version_of_a_document_can_be_read(client, production_id):
    at = f"/api/v1/productions/{production_id}"
    first = client.get(f"{at}/settings").json()
    client.put(f"{at}/settings", json=first | {"settings": first["settings"] | {"base_fps": "24"}})
    told = client.get(f"{at}/history/settings").json()["here"]
    assert [each["version"] for each in told] == [first["version"] + 1, first["version"]]
    then = client.get(f"{at}/history/settings/{first['version']}").json()
    assert then["document"]["base_fps"] == first["settings"]["base_fps"]
    body = client.get(f"{at}/bodies").json()["here"][0]
    kept = client.get(f"{at}/bodies/{body['id']}").json()
    assert (
        client.get(f"{at}/history/body/{kept['version']}?id={body['id']}").json()["document"]
        == kept["document"]
    )


@pytest.mark.parametrize(
    ("path", "told"),
    [
        ("tide", "There is no kind tide"),
        ("body", "Of body a production has several"),
        ("shots?id=1", "Of shots a production has one"),
        ("settings/99", "There is no version 99"),
        ("body?id=999999", "There is no body 999999"),
    ],
)
def test_history_that_is_not_there(client, production_id, path, told):
    answer = client.get(f"/api/v1/productions/{production_id}/history/{path}")
    assert answer.status_code == 404
    assert answer.json()["error"]["message"].startswith(told)
