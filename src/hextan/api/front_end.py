"""The built front end: files at their addresses, in fewer bytes for whoever takes them so; every other address is the page."""

from __future__ import annotations

import mimetypes
from pathlib import Path

from fastapi import FastAPI, HTTPException, Request, Response
from starlette.responses import FileResponse

#: What a text was made into when the front end was built (`web/packed.ts`), the smallest first, and what that is called.
PACKED = {"br": ".br", "gzip": ".gz"}


def serve_front_end(app: FastAPI, dist: Path) -> None:
    """Answer with the files of a folder; an address that names none of them is the page itself, but for its parts."""
    mimetypes.add_type("application/manifest+json", ".webmanifest")
    whole = dist.resolve()

    @app.get("/assets/{path:path}", include_in_schema=False)
    def _asset(path: str, request: Request) -> Response:
        file = file_at(whole / "assets", path)
        if file is None:
            raise HTTPException(404, f"There is no {request.url.path[:200]}.")
        return _packed(file, request)

    @app.get("/{path:path}", include_in_schema=False)
    def _page(path: str, request: Request) -> Response:
        return _packed(file_at(whole, path) or whole / "index.html", request)


def file_at(whole: Path, path: str) -> Path | None:
    """The file of the front end at an address; hidden ones, and what is no name of a file, are none."""
    if not path or any(step.startswith(".") for step in path.split("/")):
        return None
    try:
        file = (whole / path).resolve()
        return file if file.is_file() and file.is_relative_to(whole) else None
    except (OSError, ValueError):
        return None


def _packed(file: Path, request: Request) -> Response:
    """Send a file, packed where it is there so and whoever asks takes it so (RFC 9110, 12.5.3)."""
    media = mimetypes.guess_type(file.name)[0] or "application/octet-stream"
    there = {name: file.with_name(file.name + ending) for name, ending in PACKED.items()}
    there = {name: packed for name, packed in there.items() if packed.is_file()}
    headers = {"Vary": "Accept-Encoding"} if there else {}
    taken = _taken(request.headers.get("accept-encoding", ""))
    for name, packed in there.items():
        if name in taken:
            return FileResponse(packed, media_type=media, headers={**headers, "Content-Encoding": name})
    return FileResponse(file, media_type=media, headers=headers)


def _taken(accepted: str) -> set[str]:
    """The encodings that a header names, but for those of weight 0.

    >>> sorted(_taken("gzip, deflate;q=0.5, br;q=0, *;q=0"))
    ['deflate', 'gzip']
    """
    parts = [part.strip().lower().partition(";") for part in accepted.split(",")]
    refused = {"q=0", "q=0.0", "q=0.00", "q=0.000"}
    return {name.strip() for name, _, weight in parts if name and weight.replace(" ", "") not in refused}
