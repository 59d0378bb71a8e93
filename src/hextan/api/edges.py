"""What happens at the edge of every answer: security headers on pages, one error body on the API."""

from __future__ import annotations

from collections.abc import Awaitable, Callable, MutableMapping
from typing import Any, TypeAlias

from starlette.datastructures import MutableHeaders

from hextan.api.errors import error_answer

Message: TypeAlias = MutableMapping[str, Any]
Receive: TypeAlias = Callable[[], Awaitable[Message]]
Send: TypeAlias = Callable[[Message], Awaitable[None]]
App: TypeAlias = Callable[[MutableMapping[str, Any], Receive, Send], Awaitable[None]]

SECURITY_HEADERS = {
    "Content-Security-Policy": "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
    "frame-ancestors 'none'; base-uri 'self'; form-action 'self'",
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
}
#: Refusals that the libraries make by themselves, as plain text: code and what to do.
REFUSALS = {
    400: ("refused", "This server answers to 127.0.0.1 and localhost only."),
    413: ("too_large", "The request is larger than this server takes. Send fewer formats at a time."),
}


class Edges:
    """Plain ASGI: no cost for the body, one look at the head."""

    def __init__(self, app: App) -> None:
        self.app = app

    async def __call__(self, scope: MutableMapping[str, Any], receive: Receive, send: Send) -> None:
        """Pass the request on, and look at the head of the answer."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        path = scope["path"]
        refused = False

        async def at_the_edge(message: Message) -> None:
            nonlocal refused
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                plain = headers.get("content-type", "").startswith("text/plain")
                refused = plain and message["status"] in REFUSALS
                if not path.startswith("/api/"):
                    headers.update(SECURITY_HEADERS)
                    kept = (
                        "public, max-age=31536000, immutable" if path.startswith("/assets/") else "no-cache"
                    )
                    headers["Cache-Control"] = kept
                if refused:
                    code, text = REFUSALS[message["status"]]
                    body = {"code": code, "message": text, "faults": []}
                    await error_answer(message["status"], body)(scope, receive, send)
            if not refused:
                await send(message)

        await self.app(scope, receive, at_the_edge)
