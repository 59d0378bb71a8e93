"""Addresses of the API: they stand below `/api/v1`; older ones, without a version, are answered there, with a note.

The public evaluation format names its address itself (docs/evaluation.md): `/api/evaluate` stays.
"""

from __future__ import annotations

from collections.abc import MutableMapping
from typing import Any
from urllib.parse import quote

from starlette.datastructures import MutableHeaders

PREFIX = "/api/v1"
OLDER = "/api/"
STAYS = frozenset({"/api/evaluate"})
#: Since when addresses without a version are older ones (RFC 9745): 2026-11-30.
DEPRECATED = "@1795996800"


class Versions:
    """Lead requests for older addresses to those of today."""

    def __init__(self, app: Any) -> None:
        self.app = app

    async def __call__(self, scope: MutableMapping[str, Any], receive: Any, send: Any) -> None:
        """Pass the request on under its address of today; the answer says which that is."""
        path = scope.get("path", "")
        if scope["type"] != "http" or not path.startswith(OLDER) or path.startswith(f"{PREFIX}/"):
            await self.app(scope, receive, send)
            return
        today = f"{PREFIX}/{path.removeprefix(OLDER)}"

        async def noted(message: MutableMapping[str, Any]) -> None:
            if message["type"] == "http.response.start" and path not in STAYS:
                headers = MutableHeaders(scope=message)
                headers["Deprecation"] = DEPRECATED
                # Percent-encoded again: an address may hold any letters, a header may not.
                headers.append("Link", f'<{quote(today)}>; rel="successor-version"')
            await send(message)

        await self.app({**scope, "path": today, "raw_path": quote(today).encode()}, receive, noted)
