"""A page of another origin, in a real browser: it may send what forms and plain text can say, and changes nothing."""

import json
import threading
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

import pytest

from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import a_lens, a_set
from tests.ui.test_package_view import ask

BODY = json.dumps({"schema": "hextan.body", "schema_version": 1} | a_body([a_mode(formats=[a_format()])]))
SET = json.dumps({"schema": "hextan.lens_set", "schema_version": 1} | a_set([a_lens()]))


@pytest.fixture
def elsewhere():
    """An empty page under another port of the same machine."""

    class Page(BaseHTTPRequestHandler):
        def do_GET(self):
            self.send_response(200)
            self.send_header("content-type", "text/html")
            self.end_headers()
            self.wfile.write(b"<!doctype html><title>elsewhere</title>")

        def log_message(self, *args):
            pass

    server = ThreadingHTTPServer(("127.0.0.1", 0), Page)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    yield f"http://127.0.0.1:{server.server_port}/"
    server.shutdown()
    server.server_close()


def whole(at):
    listed = (
        ask(f"{at}/bodies"),
        ask(f"{at}/lens-sets"),
        ask(f"{at}/rig"),
        ask(f"{at}/bench"),
        ask(f"{at}/comparisons"),
    )
    return json.dumps(listed)


def test_no_page_of_another_origin_writes_into_a_production(page, base_url, elsewhere):
    number = ask(f"{base_url}/api/v1/productions")["here"][0]["id"]
    at = f"{base_url}/api/v1/productions/{number}"
    before = whole(at)
    seen = []
    page.on(
        "response",
        lambda r: (
            seen.append((r.url.removeprefix(base_url), r.status)) if r.url.startswith(base_url) else None
        ),
    )
    page.goto(elsewhere)
    for path, text in (
        ("files/bodies.json", BODY),
        ("files/fdl", BODY),
        ("files/lens-sets.json", SET),
        ("files/rig.json", "{}"),
        ("bodies", BODY),
    ):
        page.evaluate(
            """([url, text]) => fetch(url, { method: 'POST', mode: 'no-cors', body: text,
                                            headers: { 'content-type': 'text/plain' } }).catch(() => null)""",
            [f"{at}/{path}", text],
        )
    # A form that is sent as plain text needs no script, and goes away from its page.
    page.set_content(
        f'<form method="post" enctype="text/plain" action="{at}/files/bodies.json"><input name=\'{BODY[:-1]},"x\' value=\'":1}}\'></form>'
    )
    with page.expect_response(f"{at}/files/bodies.json"):
        page.evaluate("document.forms[0].submit()")
    assert {status for path, status in seen} == {403}
    assert len(seen) >= 6
    assert whole(at) == before
