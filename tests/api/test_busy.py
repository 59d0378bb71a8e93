"""A server with much to do: children do not take the others' connections, pools and disks that are full are told, what is sent twice is added once."""

import threading
import time
from concurrent.futures import ThreadPoolExecutor

import pytest
from sqlalchemy.exc import OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeoutError
from starlette.testclient import TestClient

from hextan.api.app import create_app
from hextan.api.settings import Settings
from hextan.core.base import BusyError
from hextan.formats import children
from hextan.search.searches import MOST_KEPT, Searches


@pytest.fixture(scope="module")
def whole(engine, database_url):
    """The application with an engine of its own, for requests at the same time."""
    return create_app(Settings(database_url=database_url))


def test_many_heads_at_once_leave_the_others_alone(whole, monkeypatch):
    """Sixty heads of clips: each is read, or told to come again; nobody holds a connection to the database while waiting."""
    client = TestClient(whole, raise_server_exceptions=False, base_url="http://127.0.0.1")
    url = f"/api/v1/productions/{client.get('/api/v1/productions').json()['here'][0]['id']}"
    engine, held, readies = whole.state.engine, [], []

    def slow(module, arguments, data, seconds, most=0, crew=children.CREW):
        with crew.turn():
            held.append(engine.pool.checkedout())
            time.sleep(0.05)
            return children.Done(1, b"", "file: is no clip that is known")

    monkeypatch.setattr("hextan.media.heads.run", slow)

    def ask(n):
        return client.post(f"{url}/clips/head?name={n}.mov&size=9&head=9", content=b"123456789",
                           headers={"content-type": "application/octet-stream"})  # fmt: skip

    with ThreadPoolExecutor(60) as pool:
        asked = [pool.submit(ask, n) for n in range(60)]
        for _ in range(5):
            began = time.monotonic()
            assert client.get("/api/v1/ready").status_code == 200
            readies.append(time.monotonic() - began)
        answers = [each.result() for each in asked]
    assert {answer.status_code for answer in answers} <= {422, 503}
    assert sum(answer.status_code == 422 for answer in answers) >= 16
    for answer in answers:
        if answer.status_code == 503:
            assert answer.json()["error"]["code"] == "busy"
            assert "before this one" in answer.json()["error"]["message"]
            assert 1 <= int(answer.headers["retry-after"]) <= 30
    assert max(readies) < 5
    # Those that just came may hold one for a moment; once they wait, none does.
    assert max(held[-5:]) <= 2


class FullDiskError(Exception):
    sqlstate = "53100"


@pytest.mark.parametrize(
    ("error", "status", "code", "again"),
    [
        (PoolTimeoutError("QueuePool limit"), 503, "busy", True),
        (OperationalError("insert", {}, FullDiskError()), 507, "disk_full", False),
        (OperationalError("select", {}, Exception("gone")), 503, "database_unavailable", True),
        (OSError(28, "No space left on device"), 507, "disk_full", False),
        (OSError(5, "Input/output error"), 500, "internal", False),
        (BusyError("Much to do.", 7), 503, "busy", True),
    ],
)
def test_what_the_machine_lacks_is_told(whole, monkeypatch, error, status, code, again):
    def fails(*_):
        raise error

    monkeypatch.setattr("hextan.store.productions.every", fails)
    client = TestClient(whole, raise_server_exceptions=False, base_url="http://127.0.0.1")
    answer = client.get("/api/v1/productions")
    assert (answer.status_code, answer.json()["error"]["code"]) == (status, code)
    assert ("retry-after" in answer.headers) == again


def test_a_production_is_made_once_however_often_it_is_asked_for(client):
    facts = {"facts": {"name": "Ebb tide"}}
    key = {"Idempotency-Key": "0123456789abcdef"}
    first = client.post("/api/v1/productions", json=facts, headers=key)
    again = client.post("/api/v1/productions", json=facts, headers=key)
    assert (first.status_code, again.status_code) == (201, 201)
    assert first.json()["id"] == again.json()["id"]
    other = client.post("/api/v1/productions", json=facts, headers={"Idempotency-Key": "fedcba9876543210"})
    assert other.json()["id"] != first.json()["id"]
    file = client.get(f"/api/v1/productions/{first.json()['id']}/file").content
    sent = [client.post("/api/v1/productions/file", content=file, headers={"content-type": "application/octet-stream",
            "Idempotency-Key": "file-0123456789"}).json()["id"] for _ in range(2)]  # fmt: skip
    assert sent[0] == sent[1] != first.json()["id"]
    assert (
        client.post("/api/v1/productions", json=facts, headers={"Idempotency-Key": "no key!"}).status_code
        == 422
    )


def test_a_removed_production_is_neither_read_nor_written(client):
    made = client.post("/api/v1/productions", json={"facts": {"name": "Slack water"}}).json()
    here = f"/api/v1/productions/{made['id']}"
    shots = client.get(f"{here}/shots").json()
    gone = client.post(f"{here}/removal", json={"version": made["version"], "removed": True}).json()
    for method, path, body in (
        ("PUT", "", {"version": gone["version"], "facts": gone["facts"]}), ("GET", "/shots", None), ("GET", "/bodies", None), ("GET", "/set", None),
        ("PUT", "/shots", {"version": shots["version"], "document": shots["document"]}),
        ("POST", "/packing/searches", {"document": {"kits": []}, "kits": []}),
    ):  # fmt: skip
        answer = client.request(method, f"{here}{path}", json=body)
        assert (answer.status_code, answer.json()["error"]["code"]) == (410, "removed"), path
    assert (
        client.post(
            "/api/v1/productions", json={"facts": {"name": "x"}, "production_id": made["id"]}
        ).status_code
        == 410
    )
    # Its file is still to be had, and it comes back as it was.
    assert client.get(f"{here}/file").status_code == 200
    client.post(f"{here}/removal", json={"version": gone["version"], "removed": False})
    assert client.get(f"{here}/shots").json() == shots


def test_searches_are_refused_rather_than_forgotten(monkeypatch):
    searches, over = Searches(), threading.Event()
    monkeypatch.setattr("hextan.search.searches.Search.run", lambda self, written: over.wait(20))

    class Work:
        written = b""

        def __init__(self, n):
            self.asked = str(n)

    begun = [searches.begin(1, f"kit{n}", Work(n)) for n in range(MOST_KEPT)]
    with pytest.raises(BusyError):
        searches.begin(1, "one more", Work(-1))
    assert all(searches.find(1, f"kit{n}") is each for n, each in enumerate(begun))
    # One that is done makes room; those at work stay.
    begun[7]._end("done", "")
    searches.begin(1, "one more", Work(-1))
    assert searches.find(1, "kit7") is None
    assert searches.find(1, "kit0") is begun[0]
    over.set()


def test_a_list_without_shots_goes_out_as_every_kind(client):
    made = client.post("/api/v1/productions", json={"facts": {"name": "Tides / of the year"}}).json()
    for kind in ("csv", "xlsx", "ods", "otio", "edl"):
        answer = client.get(f"/api/v1/productions/{made['id']}/shots/files/{kind}")
        assert answer.status_code == 200, kind
        assert "/" not in answer.headers["content-disposition"].split("''")[1]


@pytest.mark.parametrize("size", [2**43 + 1, 2**44, 2**53])
def test_a_file_that_no_disk_holds_is_refused(client, url, size):
    answer = client.post(f"{url}/clips/head?name=a.mov&size={size}&head=9", content=b"123456789",
                         headers={"content-type": "application/octet-stream"})  # fmt: skip
    assert answer.status_code == 422
    assert "8 TB" in answer.json()["error"]["message"]


@pytest.mark.parametrize("secret", ["日本", "low\ntide", "ö"])
def test_a_key_that_no_camera_could_carry_is_refused_where_it_is_entered(client, url, secret):
    asked = {"version": client.get(f"{url}/set/settings").json()["version"],
             "document": {"sources": [{"unit": "A", "body": "Ebb 64", "secret": secret}]}}  # fmt: skip
    answer = client.put(f"{url}/set/settings", json=asked)
    assert answer.status_code == 422
    assert answer.json()["error"]["faults"][0]["field"] == "document.sources[0].secret"
