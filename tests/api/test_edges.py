"""What happens at the edges: pages, headers, hosts, methods, sizes, and addresses that lead nowhere."""

import gzip
import json

import pytest
from starlette.testclient import TestClient

from hextan.api.app import bare_app
from hextan.api.front_end import serve_front_end
from hextan.api.plumbing import get_session

#: "hello" as `zlib.brotliCompressSync` of Node writes it.
BROTLI = bytes.fromhex("0b028068656c6c6f03")


@pytest.fixture
def dist(tmp_path):
    return tmp_path / "dist"


@pytest.fixture
def site(session, tmp_path, dist):
    """The application with a front end of its own: a page, a script, and a secret beside the folder."""
    (dist / "assets").mkdir(parents=True)
    (dist / "index.html").write_text("<!doctype html><title>Hextan</title>")
    (dist / "assets" / "index-1.js").write_text("export {}")
    (dist / "mark.svg").write_text("<svg/>")
    (tmp_path / "password").write_text("secret")
    app = bare_app(("testserver",))
    app.dependency_overrides[get_session] = lambda: session
    serve_front_end(app, dist)
    with TestClient(app, raise_server_exceptions=False) as client:
        yield client


@pytest.mark.parametrize("path", ["/", "/p/1/bench", "/p/1/package/bodies/3", "/index.html"])
def test_every_view_is_the_one_page(site, path):
    answer = site.get(path)
    assert answer.status_code == 200
    assert "<title>Hextan</title>" in answer.text
    assert answer.headers["cache-control"] == "no-cache"
    policy = answer.headers["content-security-policy"]
    assert "default-src 'self'" in policy
    assert "frame-ancestors 'none'" in policy
    assert answer.headers["x-content-type-options"] == "nosniff"


def test_assets_are_kept_for_good_and_other_files_are_not(site):
    asset = site.get("/assets/index-1.js")
    assert asset.headers["cache-control"] == "public, max-age=31536000, immutable"
    assert site.get("/mark.svg").text == "<svg/>"
    gone = site.get("/assets/gone.js")
    # Somebody's browser would keep it for a year.
    assert (gone.status_code, gone.headers["cache-control"]) == (404, "no-store")


@pytest.mark.parametrize(
    "takes, sent",
    [
        ("gzip, deflate, br, zstd", "br"),
        ("gzip", "gzip"),
        ("br;q=0, gzip", "gzip"),
        ("identity", None),
        ("", None),
    ],
)
def test_parts_go_in_the_fewest_bytes_that_whoever_asks_takes(site, dist, takes, sent):
    text = "export const answer = 42;" * 99
    (dist / "assets" / "large-1.js").write_text(text)
    (dist / "assets" / "large-1.js.gz").write_bytes(gzip.compress(text.encode()))
    (dist / "assets" / "large-1.js.br").write_bytes(BROTLI)
    part = site.get("/assets/large-1.js", headers={"Accept-Encoding": takes})
    assert part.headers.get("content-encoding") == sent
    assert part.headers["vary"] == "Accept-Encoding"
    assert part.headers["content-type"].startswith("text/javascript")
    assert part.headers["cache-control"] == "public, max-age=31536000, immutable"
    if sent:
        assert int(part.headers["content-length"]) < 200
    # What is packed elsewhere only is sent as it is.
    assert (
        "content-encoding" not in site.get("/assets/index-1.js", headers={"Accept-Encoding": takes}).headers
    )


@pytest.mark.parametrize(
    "path",
    [
        "/../password",
        "/%2e%2e/password",
        "/assets/..%2f..%2fpassword",
        "/..%5cpassword",
        "//etc/passwd",
        "/%00",
    ],
)
def test_no_path_leads_out_of_the_front_end(site, path):
    answer = site.get(path)
    assert "secret" not in answer.text
    assert "root:" not in answer.text
    assert answer.status_code in (200, 404)


def test_addresses_of_the_api_that_lead_nowhere(site):
    answer = site.get("/api/nowhere")
    assert answer.status_code == 404
    assert answer.json()["error"]["message"] == "There is no /api/v1/nowhere."
    assert "content-security-policy" not in answer.headers


@pytest.mark.parametrize(
    ("method", "path"),
    [("DELETE", "/api/v1/productions"), ("PUT", "/api/v1/evaluate"), ("PATCH", "/api/v1/health")],
)
def test_methods_that_are_not_there(client, method, path):
    answer = client.request(method, path)
    assert answer.status_code == 405
    assert answer.json()["error"]["code"] == "method_not_allowed"
    assert answer.headers["allow"]


@pytest.mark.parametrize("host", ["evil.example", "hextan.local", "127.0.0.1.evil.example", "[::2]"])
def test_other_hosts_are_refused_on_every_address(site, host):
    for path in ("/", "/api/v1/productions", "/assets/index-1.js"):
        answer = site.get(path, headers={"host": host})
        assert answer.status_code == 400
        assert answer.json()["error"]["code"] == "refused"


@pytest.mark.parametrize(
    "path", ["/api/v1/evaluate", "/api/v1/productions/1/files/bodies.json", "/api/v1/productions/1/bodies"]
)
def test_large_bodies_are_refused_before_they_are_read(client, path):
    answer = client.post(
        path, content=b"[" + b" " * (8 * 1024 * 1024), headers={"content-type": "application/json"}
    )
    assert answer.status_code == 413
    assert answer.json()["error"]["code"] == "too_large"


@pytest.mark.parametrize("text", [b"", b"{", b'{"version": 1', b"\xff", b"null", b"[]", b'"x"'])
def test_malformed_json_is_told_and_never_a_500(client, production_id, text):
    for method, path in (
        ("PUT", "bench"),
        ("PUT", "settings"),
        ("POST", "finder"),
        ("POST", "bodies/sheet"),
        ("POST", "data"),
    ):
        answer = client.request(method, f"/api/v1/productions/{production_id}/{path}", content=text,
                                headers={"content-type": "application/json"})  # fmt: skip
        assert answer.status_code in (400, 422), (path, text, answer.text)
        error = answer.json()["error"]
        assert error["message"]
        assert {"code", "message", "faults"} <= set(error)


@pytest.mark.parametrize("number", ["0", "-1", "9" * 30, "x", "1.5"])
def test_numbers_that_are_no_number_of_a_production(client, number):
    answer = client.get(f"/api/v1/productions/{number}/bodies")
    assert answer.status_code == 422
    assert answer.json()["error"]["faults"][0]["field"] == "production_id"


def test_text_is_given_back_as_text(client, production_id):
    """Names may hold anything printable; they are data in JSON, never markup."""
    url = f"/api/v1/productions/{production_id}/bodies"
    name = '<img src=x onerror=alert(1)> & "quotes" \'; drop table body; --'
    document = {
        "name": name,
        "maker": "Ünïcode 目",
        "mount": "W54",
        "photosites": [6000, 4000],
        "pitch_um": 6.0,
    }
    made = client.post(url, json={"document": document})
    assert made.status_code == 201
    assert made.headers["content-type"] == "application/json"
    listed = client.get(url).json()["here"][-1]
    assert (listed["name"], listed["maker"]) == (name, "Ünïcode 目")
    file = client.get(
        f"/api/v1/productions/{production_id}/files/bodies.json", params={"document_id": made.json()["id"]}
    )
    assert json.loads(file.content)["name"] == name
    # The name of the file is encoded, so that it cannot break out of its header.
    assert "\n" not in file.headers["content-disposition"]
    assert '"' not in file.headers["content-disposition"]


@pytest.mark.parametrize("text", ["line\nbreak", "tab\tstop", "nul\x00", "\u202eright to left"])
def test_names_are_one_printable_line(client, production_id, text):
    document = {"name": text, "maker": "x", "mount": "W54", "photosites": [6000, 4000], "pitch_um": 6.0}
    answer = client.post(f"/api/v1/productions/{production_id}/bodies", json={"document": document})
    assert answer.status_code == 422
    assert answer.json()["error"]["faults"][0]["field"] == "document.name"


def test_query_keys_that_nobody_knows_are_refused(client, production_id):
    answer = client.get(f"/api/v1/productions/{production_id}/bodies", params={"offset": 3})
    assert answer.status_code == 422
    assert (
        answer.json()["error"]["message"]
        == "offset: is no query key of this address (it takes first, most) (given: '3')."
    )
    answer = client.get("/api/v1/distance", params={"text": "3 m", "units": "m"})
    assert "(it takes field, text, unit)" in answer.json()["error"]["message"]
