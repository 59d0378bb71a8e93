"""The endpoints of packing: parse, begin or call, answer. A kit is looked for by a process of its own, never in a request."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Path, Request, Response

from hextan.api.errors import stale
from hextan.api.packing_schemas import PackingAsk, PackingKept, PackingWrite, SearchAsk, SearchSeen
from hextan.api.plumbing import Db, ProductionId, answers, json_answer
from hextan.api.route import Route
from hextan.core.base import Fault, InvalidInputError, NotFoundError
from hextan.core.packing import packing_view as look_at
from hextan.search.searches import Search
from hextan.search.work import Work
from hextan.store.keeper import find_production
from hextan.store.kinds import PACKING, SETTINGS, SHOTS

SearchName = Annotated[str, Path(pattern=r"^[0-9A-Za-z_-]{1,40}(~[0-9A-Za-z_-]{1,40})?$")]
SEEN: dict[int | str, dict[str, Any]] = {200: {"model": SearchSeen}}
router = APIRouter(route_class=Route, prefix="/productions/{production_id}/packing")


@router.get("", name="packing_read", tags=["Kit"])
def read_packing(production_id: ProductionId, db: Db) -> PackingKept:
    """Give a production's packing; version 0 and nothing when none was kept yet."""
    version, document = PACKING.versioned(db, production_id)
    return PackingKept(version=version, document=document)


@router.put("", name="packing_write", tags=["Kit"], responses=stale(PackingWrite))
def write_packing(production_id: ProductionId, asked: PackingWrite, db: Db) -> PackingKept:
    """Keep a packing; 409 with both when somebody else kept one in between."""
    version = PACKING.save(db, production_id, asked.version, asked.document)
    return PackingKept(version=version, document=asked.document)


@router.post("/view", name="packing_view", tags=["Kit"], responses=answers(look_at))
def view_packing(production_id: ProductionId, asked: PackingAsk, db: Db, request: Request) -> Response:
    """Tell what there is to pack, without keeping anything."""
    package = request.app.state.packages.package(db, production_id)
    return json_answer(look_at(package, asked.document, SHOTS.read(db, production_id)))


@router.post("/searches", name="kit_search", tags=["Kit"], responses=SEEN)
def begin(production_id: ProductionId, asked: SearchAsk, db: Db, request: Request) -> Response:
    """Begin to look for a kit, or to hold two against one another; the same question goes on, or is answered at once."""
    settings = SETTINGS.read(db, production_id)
    kits = {kit.key: kit for kit in asked.document.kits}
    unknown = [key for key in asked.kits if key not in kits]
    if unknown:
        raise InvalidInputError.of(*(Fault("kits", key, "is no kit of this packing") for key in unknown))
    work = Work(
        request.app.state.packages.package(db, production_id),
        settings,
        SHOTS.read(db, production_id),
        asked.document,
        tuple(kits[key] for key in asked.kits),
    )
    name = "~".join(asked.kits)
    return _seen(name, request.app.state.searches.begin(production_id, name, work))


@router.get("/searches/{name}", name="kit_search_seen", tags=["Kit"], responses=SEEN)
def seen(production_id: ProductionId, name: SearchName, db: Db, request: Request) -> Response:
    """Tell how far a search is, and what it found."""
    return _seen(name, _find(production_id, name, db, request))


@router.post("/searches/{name}/stop", name="kit_search_stop", tags=["Kit"], responses=SEEN)
def stop(production_id: ProductionId, name: SearchName, db: Db, request: Request) -> Response:
    """Stop a search: the best so far is its answer."""
    search = _find(production_id, name, db, request)
    search.stop()
    return _seen(name, search)


def _find(production_id: int, name: str, db: Db, request: Request) -> Search:
    find_production(db, production_id)
    found: Search | None = request.app.state.searches.find(production_id, name)
    if found is None:
        raise NotFoundError(f"There is no search {name} any more: begin it again.")
    return found


def _seen(name: str, search: Search) -> Response:
    state, answer = search.state, search.answer
    two = "~" in name
    shown = {
        "name": name,
        "state": state,
        "told": search.told,
        "seconds": round(search.seconds, 2),
        "kit": None if two else answer,
        "sides": answer if two else None,
        "problem": search.problem,
    }
    return json_answer(shown)
