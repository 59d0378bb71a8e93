"""The application: routes, errors, the built front end."""

from __future__ import annotations

import gc
from pathlib import Path
from typing import Any

from fastapi import FastAPI, Response
from fastapi.staticfiles import StaticFiles
from sqlalchemy.orm import Session
from starlette.middleware.body_limit import RequestBodyLimitMiddleware
from starlette.middleware.trustedhost import TrustedHostMiddleware
from starlette.responses import FileResponse

from hextan import __version__
from hextan.api import (
    compare_routes,
    errors,
    file_routes,
    kit_routes,
    lens_routes,
    look_routes,
    package_routes,
    routes,
)
from hextan.api.edges import Edges
from hextan.api.settings import Settings
from hextan.core.contract import EvaluationRequest
from hextan.demo.load import load_demo
from hextan.store import migrate
from hextan.store.package_cache import PackageCache
from hextan.store.sessions import make_engine

#: Largest request body: a bulk evaluation of some thousand formats.
MOST_BYTES = 8 * 1024 * 1024


def create_app(settings: Settings | None = None) -> FastAPI:
    """Make the application: migrate the database, load the demo if asked, serve."""
    settings = settings or Settings()
    engine = make_engine(settings.database_url)
    migrate.upgrade(engine)
    if settings.demo:
        with Session(engine) as session:
            load_demo(session)
    app = bare_app()
    # What lives as long as the server need not be looked at again by the garbage collector.
    gc.freeze()
    app.state.engine = engine
    if settings.web_dist is not None:
        _serve_front_end(app, settings.web_dist)
    return app


def bare_app() -> FastAPI:
    """Make the application without database and front end: enough for its OpenAPI document."""
    app = FastAPI(
        title="Hextan",
        version=__version__,
        openapi_url="/api/openapi.json",
        docs_url=None,
        redoc_url=None,
        # One shape for asking and answering: fields with defaults are always answered.
        separate_input_output_schemas=False,
    )
    app.state.packages = PackageCache()
    app.add_middleware(RequestBodyLimitMiddleware, max_body_size=MOST_BYTES)
    app.add_middleware(TrustedHostMiddleware, allowed_hosts=["127.0.0.1", "localhost", "testserver"])
    app.add_middleware(Edges)
    errors.install(app)
    rooms = (routes, package_routes, lens_routes, kit_routes, look_routes, compare_routes, file_routes)
    for router in (package_routes.catalogue_router, *(room.router for room in rooms)):
        app.include_router(router, prefix="/api")
    app.openapi_schema = _with_evaluation_request(app.openapi())
    return app


def _with_evaluation_request(document: dict[str, Any]) -> dict[str, Any]:
    """Add the schema of the public evaluation request, whose endpoint reads its body itself."""
    schema = EvaluationRequest.model_json_schema(ref_template="#/components/schemas/{model}")
    parts = schema.pop("$defs", {})
    document["components"]["schemas"] |= {**parts, "EvaluationRequest": schema}
    return document


def _serve_front_end(app: FastAPI, dist: Path) -> None:
    app.mount("/assets", StaticFiles(directory=dist / "assets"), name="assets")
    whole = dist.resolve()

    @app.get("/{path:path}", include_in_schema=False)
    def _page(path: str) -> Response:
        if path.startswith("api/") or "\0" in path:
            body = {"code": "not_found", "message": f"There is no /{path}.".replace("\0", ""), "faults": []}
            return errors.error_answer(404, body)
        file = (whole / path).resolve()
        if path and file.is_file() and file.is_relative_to(whole):
            return FileResponse(file)
        return FileResponse(whole / "index.html")
