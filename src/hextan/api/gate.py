"""Who may write: pages of this server, and programs. A page of another origin may not, whatever it sends.

A browser lets any page send a form or plain text to this address. It says, though, from where the request comes
(`Origin`, `Sec-Fetch-Site`).
"""

from __future__ import annotations

from collections.abc import MutableMapping
from typing import Any
from urllib.parse import urlsplit

from starlette.datastructures import Headers

from hextan.api.errors import error_answer
from hextan.api.versions import PREFIX

#: Methods that change nothing.
READING = frozenset({"GET", "HEAD", "OPTIONS"})
#: Anybody may ask these: they read nothing of a production and keep nothing.
OPEN_TO_ALL = frozenset({f"{PREFIX}/evaluate"})
#: Whence a browser may say that a request comes: a page of this origin, or the user.
OURS = frozenset({"same-origin", "none"})


def is_foreign(headers: Headers) -> bool:
    """Whether a browser says that another origin's page sends this.

    >>> is_foreign(Headers({"host": "127.0.0.1:8734", "origin": "http://127.0.0.1:8734"}))
    False
    >>> is_foreign(Headers({"host": "127.0.0.1:8734", "origin": "http://127.0.0.1:9000"}))
    True
    """
    site, origin = headers.get("sec-fetch-site"), headers.get("origin")
    if site is not None and site not in OURS:
        return True
    if origin is None:
        return False
    try:
        return urlsplit(origin).netloc.lower() != headers.get("host", "").lower()
    except ValueError:
        # What is no address is none of ours.
        return True


class Gate:
    """Refuse writes of foreign pages before anything of them is read."""

    def __init__(self, app: Any) -> None:
        self.app = app

    async def __call__(self, scope: MutableMapping[str, Any], receive: Any, send: Any) -> None:
        """Pass the request on, or refuse it."""
        writes = (
            scope["type"] == "http"
            and scope["method"] not in READING
            and scope["path"].startswith("/api/")
            and scope["path"] not in OPEN_TO_ALL
        )
        if writes and is_foreign(Headers(scope=scope)):
            message = "A page of another address may not write here. Open Hextan at its own address."
            body = {"code": "foreign_origin", "message": message, "faults": []}
            await error_answer(403, body)(scope, receive, send)
            return
        await self.app(scope, receive, send)
