"""Who may write, what of, and how much: foreign pages, other types of bodies, half characters, slow senders."""

import json
import socket
import threading
import time

import pytest
import uvicorn

from hextan.api import edges, serve
from hextan.api.app import bare_app
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import a_lens, a_set

BYTES = {"content-type": "application/octet-stream"}
FILES = ("files/bodies.json", "files/fdl", "files/lens-sets.json", "files/rig.json")
FOREIGN = [
    {"origin": "https://elsewhere.example"},
    {"origin": "null"},
    {"origin": "http://[::1"},
    {"origin": "http://testserver:9000"},
    {"sec-fetch-site": "cross-site"},
    {"sec-fetch-site": "same-site"},
]


@pytest.mark.parametrize("headers", FOREIGN)
def test_no_page_of_another_origin_may_write(client, production_id, application, headers):
    """Every operation of the document that changes something, and every file's address with a form's type."""
    at = f"/api/v1/productions/{production_id}"
    before = client.get(f"{at}/package").json()
    for path, methods in application.openapi()["paths"].items():
        for method in set(methods) - {"get"}:
            where = path.replace("{production_id}", str(production_id)).replace("{", "").replace("}", "")
            answer = client.request(method.upper(), where, headers=headers, content=b"{}")
            if path == "/api/v1/evaluate":
                assert answer.status_code == 422
                continue
            assert (answer.status_code, answer.json()["error"]["code"]) == (403, "foreign_origin"), (
                method,
                path,
            )
    whole = json.dumps(
        {"schema": "hextan.body", "schema_version": 1} | a_body([a_mode(formats=[a_format()])])
    )
    for file in FILES:
        answer = client.post(f"{at}/{file}", content=whole, headers={"content-type": "text/plain"} | headers)
        assert answer.status_code == 403
    assert client.get(f"{at}/package").json() == before


@pytest.mark.parametrize("headers", [{}, {"origin": "http://testserver"}, {"sec-fetch-site": "same-origin"}])
def test_pages_of_ours_and_programs_may(client, production_id, headers):
    body = {"document": a_set([a_lens()])}
    assert (
        client.post(f"/api/v1/productions/{production_id}/lens-sets", json=body, headers=headers).status_code
        == 201
    )


@pytest.mark.parametrize("file", FILES)
@pytest.mark.parametrize(
    "kind", ["text/plain", "application/x-www-form-urlencoded", "multipart/form-data", ""]
)
def test_files_come_as_bytes(client, production_id, file, kind):
    answer = client.post(
        f"/api/v1/productions/{production_id}/{file}", content=b"{}", headers={"content-type": kind}
    )
    assert answer.status_code == 415
    assert answer.json()["error"]["code"] == "unsupported_media_type"
    assert "application/octet-stream" in answer.json()["error"]["message"]


def test_json_comes_as_json(client, production_id):
    url = f"/api/v1/productions/{production_id}/lens-sets"
    text = json.dumps({"document": a_set([a_lens()])})
    assert client.post(url, content=text, headers={"content-type": "text/plain"}).status_code == 415
    assert (
        client.post(
            url, content=text, headers={"content-type": "application/json; charset=utf-8"}
        ).status_code
        == 201
    )
    # Anybody may ask this, as a tool sends it.
    form = {"content-type": "application/x-www-form-urlencoded"}
    assert client.post("/api/v1/evaluate", content=b"{}", headers=form).status_code == 422


def test_head_answers_like_get_without_a_body(client, production_id):
    for path in ("/api/v1/productions", f"/api/v1/productions/{production_id}/package", "/api/v1/health"):
        whole, head = client.get(path), client.head(path)
        assert (head.status_code, head.content) == (200, b"")
        assert head.headers["content-length"] == whole.headers["content-length"]


@pytest.mark.parametrize(
    "path", ["/api/v1/productions", "/api/v1/evaluate", "/api/nowhere", "/api/v1/openapi.json"]
)
def test_answers_of_the_api_are_neither_guessed_nor_kept(client, path):
    headers = client.get(path).headers
    assert headers["x-content-type-options"] == "nosniff"
    assert headers["cache-control"] == "no-store"


@pytest.mark.parametrize("method", ["GET", "POST", "PUT", "PATCH", "DELETE"])
@pytest.mark.parametrize("path", ["/api/v1/nowhere", "/api/v1/productions/1/nowhere", "/api/v1/"])
def test_unknown_addresses_of_the_api_are_told_as_json(client, method, path):
    answer = client.request(method, path)
    assert answer.status_code == 404
    assert answer.json()["error"] == {"code": "not_found", "message": f"There is no {path}.", "faults": []}


def test_the_served_document_is_the_committed_one(client):
    served = client.get("/api/v1/openapi.json").json()
    assert served == bare_app().openapi()
    assert "EvaluationRequest" in served["components"]["schemas"]


def test_its_test_name_is_no_name_of_the_server(client):
    from starlette.testclient import TestClient

    with TestClient(bare_app(), raise_server_exceptions=False) as plain:
        assert plain.get("/api/v1/health").status_code == 400
        assert plain.get("/api/v1/health", headers={"host": "127.0.0.1:8734"}).status_code == 200


def test_ready_asks_the_database_and_health_does_not(application, unreachable_engine):
    from sqlalchemy.orm import Session
    from starlette.testclient import TestClient

    from hextan.api.plumbing import get_session

    application.dependency_overrides[get_session] = lambda: Session(unreachable_engine)
    try:
        with TestClient(application, raise_server_exceptions=False) as client:
            assert client.get("/api/v1/health").status_code == 200
            assert client.get("/api/v1/ready").json()["error"]["code"] == "database_unavailable"
    finally:
        application.dependency_overrides.clear()


@pytest.fixture
def served(monkeypatch):
    """The application behind the real server, with little patience."""
    monkeypatch.setattr(serve, "HEAD_SECONDS", 0.5)
    monkeypatch.setattr(edges, "BODY_SECONDS", 0.5)
    monkeypatch.setattr(edges, "WHOLE_BODY_SECONDS", 1.5)
    config = uvicorn.Config(bare_app(), port=0, http=serve.PatientOnce, log_config=None)
    server = uvicorn.Server(config)
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    until = time.monotonic() + 20
    while not server.started and time.monotonic() < until:
        time.sleep(0.01)
    yield server.servers[0].sockets[0].getsockname()
    server.should_exit = True
    thread.join(10)


def answer_to(address, *parts):
    """What comes back, until the server closes."""
    with socket.create_connection(address, timeout=10) as line:
        for part in parts:
            line.sendall(part)
        got = b""
        while more := line.recv(65536):
            got += more
        return got


def test_a_head_that_does_not_end_is_given_up(served):
    assert answer_to(served) == b""
    assert answer_to(served, b"GET /api/v1/health HTTP/1.1\r\nHost: 127.0") == b""


def test_a_body_that_does_not_end_is_given_up(served):
    head = (b"POST /api/v1/evaluate HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\n"
            b"Content-Length: 1000\r\nConnection: close\r\n\r\n")  # fmt: skip
    got = answer_to(served, head, b'{"lens": {')
    assert got.startswith(b"HTTP/1.1 408")
    assert b'"timed_out"' in got


def test_a_body_that_trickles_is_given_up_as_a_whole(served):
    head = (b"POST /api/v1/evaluate HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\n"
            b"Content-Length: 1000\r\nConnection: close\r\n\r\n")  # fmt: skip
    began = time.monotonic()
    with socket.create_connection(served, timeout=10) as line:
        line.sendall(head)
        line.settimeout(0.2)
        got = b""
        while b"408" not in got and time.monotonic() - began < 8:
            line.sendall(b" ")
            try:
                got += line.recv(65536)
            except TimeoutError:
                continue
    assert got.startswith(b"HTTP/1.1 408")
    assert 1 < time.monotonic() - began < 5


def test_whole_requests_are_answered_one_after_another(served):
    once = b"GET /api/v1/health HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n"
    got = answer_to(served, once, once, once.replace(b"\r\n\r\n", b"\r\nConnection: close\r\n\r\n"))
    assert got.count(b"200 OK") == 3
