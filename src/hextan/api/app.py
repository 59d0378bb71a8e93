"""The application: routes, errors, the built front end."""

from __future__ import annotations

import gc
from collections.abc import Callable
from functools import cache
from pathlib import Path
from typing import Any

from fastapi import FastAPI, HTTPException, Request, Response
from sqlalchemy.orm import Session
from starlette.middleware.body_limit import RequestBodyLimitMiddleware
from starlette.middleware.trustedhost import TrustedHostMiddleware
from starlette.responses import FileResponse
from starlette.routing import Match

from hextan import __version__
from hextan.api import (
    ask_routes,
    compare_routes,
    entry_routes,
    equipment_routes,
    errors,
    file_routes,
    handover_routes,
    history_routes,
    kit_routes,
    lens_routes,
    live_routes,
    look_routes,
    package_routes,
    packing_routes,
    plan_routes,
    production_routes,
    routes,
    set_routes,
    sheet_routes,
    shot_routes,
)
from hextan.api.document import described
from hextan.api.edges import Compressed, Edges
from hextan.api.front_end import serve_front_end
from hextan.api.gate import Gate
from hextan.api.settings import Settings
from hextan.api.versions import PREFIX, Versions
from hextan.core.base import refuse_bad_arithmetic
from hextan.demo.load import load_demo
from hextan.live.cameras import Cameras
from hextan.search.searches import Searches
from hextan.store import migrate
from hextan.store.package_cache import PackageCache
from hextan.store.record import listened
from hextan.store.sessions import make_engine

DOCUMENT = Path(__file__).with_name("openapi.json")
#: Largest request body: a bulk evaluation of some thousand formats.
MOST_BYTES = 8 * 1024 * 1024
EVERY_METHOD = ["GET", "POST", "PUT", "PATCH", "DELETE", "OPTIONS"]


def create_app(settings: Settings | None = None) -> FastAPI:
    """Make the application: migrate the database, load the demo if asked, serve."""
    refuse_bad_arithmetic()
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
    app.state.address = settings.address.rstrip("/")
    app.state.camera_hosts = settings.hosts_of_cameras
    with Session(engine) as session:
        for production_id, sources in listened(session):
            app.state.cameras.listen(production_id, sources)
    if settings.web_dist is not None:
        serve_front_end(app, settings.web_dist)
    return app


def bare_app(also_hosts: tuple[str, ...] = ()) -> FastAPI:
    """Make the application without database and front end: enough for its OpenAPI document.

    Parameters
    ----------
    also_hosts : names under which it answers besides its own; for tests
    """
    app = FastAPI(
        title="Hextan",
        version=__version__,
        # Making it takes seconds of processor: what is served was made when the code was written.
        openapi_url=None,
        docs_url=None,
        redoc_url=None,
        # Names of operations are stable: they are said at each route.
        generate_unique_id_function=lambda route: route.name,
    )
    app.state.packages = PackageCache()
    app.state.searches = Searches()
    app.state.cameras = Cameras()
    app.state.known = live_routes.Known()
    app.state.camera_hosts = frozenset()
    app.state.address = "http://127.0.0.1"
    app.router.on_shutdown.append(app.state.searches.close)
    app.router.on_shutdown.append(app.state.cameras.close)
    app.add_middleware(Compressed, minimum_size=1000, compresslevel=1)
    app.add_middleware(RequestBodyLimitMiddleware, max_body_size=MOST_BYTES)
    app.add_middleware(TrustedHostMiddleware, allowed_hosts=["127.0.0.1", "localhost", *also_hosts])
    app.add_middleware(Gate)
    app.add_middleware(Edges)
    app.add_middleware(Versions)
    errors.install(app)
    rooms = (
        routes,
        production_routes,
        entry_routes,
        equipment_routes,
        ask_routes,
        package_routes,
        lens_routes,
        kit_routes,
        look_routes,
        compare_routes,
        shot_routes,
        packing_routes,
        plan_routes,
        sheet_routes,
        handover_routes,
        set_routes,
        live_routes,
        file_routes,
        history_routes,
    )
    for room in rooms:
        app.include_router(room.router, prefix=PREFIX)
    app.add_api_route(f"{PREFIX}/openapi.json", _document, include_in_schema=False)
    app.add_api_route(f"{PREFIX}/{{path:path}}", _nowhere(app), methods=EVERY_METHOD, include_in_schema=False)
    made_by_library = app.openapi

    @cache
    def document() -> dict[str, Any]:
        return described(made_by_library())

    # What `hextan.api.openapi` writes: the library would make it without what is added here.
    app.openapi = document  # type: ignore[method-assign]
    return app


def _document() -> FileResponse:
    """The committed OpenAPI document; that it is in step with the code is tested."""
    return FileResponse(DOCUMENT, media_type="application/json")


def _nowhere(app: FastAPI) -> Callable[[Request], Response]:
    """Answer what leads nowhere: OPTIONS by the methods, 405 where the address is right and the method is not, else 404."""

    def answer(request: Request) -> Response:
        # All routes of the API: neither this one nor the pages, which take any path.
        rooms = [route for route in app.router.routes if "path:path" not in getattr(route, "path", "")]

        def taken(method: str) -> bool:
            scope = {
                "type": "http",
                "method": method,
                "path": request.url.path,
                "headers": [],
                "path_params": {},
            }
            return any(route.matches(scope)[0] is Match.FULL for route in rooms)

        others = [method for method in EVERY_METHOD if taken(method)]
        if "GET" in others:
            others.append("HEAD")
        allowed = {"Allow": ", ".join([*others, "OPTIONS"])}
        if others and request.method == "OPTIONS":
            return Response(status_code=204, headers=allowed)
        if others:
            raise HTTPException(405, "Method Not Allowed", allowed)
        raise HTTPException(404, f"There is no {request.url.path[:200]}.")

    return answer
