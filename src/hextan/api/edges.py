"""What happens at the edge of every answer: security headers on pages, one error body on the API."""

from __future__ import annotations

import asyncio
from collections.abc import Awaitable, Callable, MutableMapping
from typing import Any, TypeAlias

from starlette.datastructures import MutableHeaders
from starlette.exceptions import HTTPException
from starlette.middleware.gzip import GZipMiddleware

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
#: Every answer of the API: never taken for something else, never kept by anybody on the way.
API_HEADERS = {"X-Content-Type-Options": "nosniff", "Cache-Control": "no-store"}
#: A body has to go on within so many seconds, and to be there as a whole within so many.
BODY_SECONDS, WHOLE_BODY_SECONDS = 20.0, 180.0
#: Refusals that the libraries make by themselves, as plain text: code and what to do.
REFUSALS = {
    400: ("refused", "This server answers to 127.0.0.1 and localhost only."),
    413: ("too_large", "The request is larger than this server takes. Send fewer formats at a time."),
}


class Compressed(GZipMiddleware):
    """Answers of the API in fewer bytes; what the page is made of is compressed when it is built."""

    async def __call__(self, scope: MutableMapping[str, Any], receive: Any, send: Any) -> None:
        """Pass the request on."""
        whole = scope["type"] != "http" or not scope["path"].startswith("/api/")
        await (self.app if whole else super().__call__)(scope, receive, send)


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
        refused = ended = False
        began: float | None = None
        bodiless = scope["method"] == "HEAD"
        if bodiless:
            scope = {**scope, "method": "GET"}

        async def at_the_edge(message: Message) -> None:
            nonlocal refused
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                plain = headers.get("content-type", "").startswith("text/plain")
                refused = plain and message["status"] in REFUSALS
                if path.startswith("/api/"):
                    headers.update(API_HEADERS)
                else:
                    headers.update(SECURITY_HEADERS)
                    asset = path.startswith("/assets/") and message["status"] < 400
                    headers["Cache-Control"] = (
                        "public, max-age=31536000, immutable"
                        if asset
                        else "no-cache"
                        if message["status"] < 400
                        else "no-store"
                    )
                if refused:
                    code, text = REFUSALS[message["status"]]
                    body = {"code": code, "message": text, "faults": []}
                    await error_answer(message["status"], body)(scope, receive, send)
            if refused:
                return
            if bodiless and message["type"] == "http.response.body":
                message = {**message, "body": b""}
            await send(message)

        async def in_time() -> Message:
            """The next part of the body; a sender who stops in the middle is not waited for."""
            nonlocal ended, began
            if ended:
                # Then it is the end of the connection that is waited for, as long as it takes.
                return await receive()
            try:
                now = asyncio.get_running_loop().time()
                began = now if began is None else began
                left = began + WHOLE_BODY_SECONDS - now
                message = await asyncio.wait_for(receive(), max(0.0, min(BODY_SECONDS, left)))
            except TimeoutError:
                raise HTTPException(408, "The request did not come to its end. Send it again.") from None
            ended = message["type"] != "http.request" or not message.get("more_body", False)
            return message

        await self.app(scope, in_time, at_the_edge)
